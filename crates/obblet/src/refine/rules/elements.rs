//! Which elements a target accepts, and what becomes of the others.

use super::inline::{self, Bold};
use super::lines;
use super::pattern::fits;
use crate::document::{Document, Finding, Kind, NodeId, Step, TextLevel};

use std::collections::BTreeMap;

/// What becomes of elements that are not allowed.
#[derive(Clone, Copy, Debug, Default, PartialEq, Eq)]
pub enum Disallowed {
    /// Their content stays, in elements that are.
    #[default]
    Unwrap,
    /// They go with their content.
    Remove,
}

/// Which elements are accepted. Names may hold `*`.
#[derive(Clone, Copy, Debug)]
pub struct Rules<'r> {
    /// Elements that are accepted; all where there are none.
    pub allowed: &'r [String],
    /// What becomes of the others.
    pub disallowed: Disallowed,
    /// Elements that go with their content.
    pub removed: &'r [String],
    /// Elements that go without their content.
    pub unwrapped: &'r [String],
    /// Elements that become others, as `strong = b`.
    pub renamed: &'r [String],
    /// What becomes of bold text, which headings become that are not accepted.
    pub bold: Bold,
}

impl Rules<'_> {
    fn is_empty(&self) -> bool {
        self.allowed.is_empty() && self.removed.is_empty() && self.unwrapped.is_empty() && self.renamed.is_empty()
    }

    fn new_name(&self, element: &str) -> Option<&str> {
        let mut pairs = self.renamed.iter().filter_map(|rule| rule.split_once('='));
        pairs.find(|(from, _)| fits(from.trim(), element)).map(|(_, to)| to.trim())
    }

    fn allows(&self, element: &str) -> bool {
        let named = |list: &[String]| list.iter().any(|pattern| fits(pattern, element));
        !named(self.unwrapped) && (self.allowed.is_empty() || named(self.allowed))
    }

    fn removes(&self, element: &str) -> bool {
        let named = |list: &[String]| list.iter().any(|pattern| fits(pattern, element));
        named(self.removed) || (self.disallowed == Disallowed::Remove && !self.allows(element))
    }
}

/// Makes a document of accepted elements only.
pub fn restrict(doc: &mut Document, rules: &Rules<'_>) {
    if rules.is_empty() {
        return;
    }
    rename(doc, rules);
    remove(doc, rules);
    let mut tally = Tally::default();
    // The section that notes stand in may lose nothing but itself.
    let section = rules.allowed.is_empty() || rules.allows("section");
    if !section || !["sup", "a", "ol", "li"].iter().all(|element| rules.allows(element)) {
        write_notes_out(doc, &mut tally, rules.allows("sup"));
    }
    let order = order(doc);
    for &id in &order {
        unwrap_leaf_or_text(doc, rules, id, &mut tally);
    }
    doc.join_texts_in(std::mem::take(&mut tally.parents));
    for kind in [is_table, is_list] {
        for id in lines::outermost(doc, kind) {
            let whole = doc.walk(id).all(|step| !kind_needs(doc, step, kind) || rules.allows(element_of(doc, step)));
            if !whole {
                tally.add(doc, id);
                lines::into_lines(doc, id, "\u{2022}");
            }
        }
    }
    for &id in &order {
        unwrap_block(doc, rules, id, &mut tally);
    }
    if !rules.allows("p") {
        tally.elements.entry("p").or_insert((1, None));
        let breaks = if rules.allows("br") { lines::Paragraphs::BlankLines } else { lines::Paragraphs::Keep };
        lines::join_paragraphs(doc, breaks);
    }
    tally.report(doc);
}

const fn is_table(kind: Kind) -> bool {
    matches!(kind, Kind::Table)
}

const fn is_list(kind: Kind) -> bool {
    matches!(kind, Kind::List(_))
}

fn element_of(doc: &Document, step: Step) -> &'static str {
    let (Step::Enter(id) | Step::Leave(id)) = step;
    doc.element(id)
}

/// Whether what a walk is at is part of the frame of a table or a list.
fn kind_needs(doc: &Document, step: Step, kind: fn(Kind) -> bool) -> bool {
    let (Step::Enter(id) | Step::Leave(id)) = step;
    let at = doc.kind(id);
    kind(at) || if kind(Kind::Table) { matches!(at, Kind::Row | Kind::Cell(_)) } else { matches!(at, Kind::ListItem { .. }) }
}

/// Nodes, each behind those below it.
fn order(doc: &Document) -> Vec<NodeId> {
    let leave = |step| if let Step::Leave(id) = step { Some(id) } else { None };
    doc.roots().into_iter().flat_map(|root| doc.walk(root).filter_map(leave).collect::<Vec<_>>()).collect()
}

/// What was opened, by element.
#[derive(Debug, Default)]
struct Tally {
    elements: BTreeMap<&'static str, (usize, Option<NodeId>)>,
    lost: Vec<(NodeId, String, String)>,
    /// What nodes were taken out of.
    parents: Vec<NodeId>,
}

impl Tally {
    fn add(&mut self, doc: &Document, id: NodeId) {
        let entry = self.elements.entry(doc.element(id)).or_insert((0, Some(id)));
        entry.0 += 1;
    }

    fn report(self, doc: &mut Document) {
        for (id, message, lost) in self.lost {
            let place = doc.place(id);
            doc.push_finding(Finding::lost("clean.element", message).at(place).losing(lost));
        }
        for (element, (count, first)) in self.elements {
            let place = first.map(|first| doc.place(first)).unwrap_or_default();
            let message = if count == 1 && first.is_none() {
                format!("<{element}> is not allowed; its content is kept")
            } else {
                format!("<{element}> is not allowed; its content is kept: {count}")
            };
            doc.push_finding(Finding::changed("clean.element", message).at(place));
        }
    }
}

fn rename(doc: &mut Document, rules: &Rules<'_>) {
    if rules.renamed.is_empty() {
        return;
    }
    for id in order(doc) {
        let kind = doc.kind(id);
        let Some(to) = rules.new_name(doc.element(id)).and_then(Kind::from_element) else { continue };
        // Leaves have no content that another element could hold.
        let same_sort = kind.is_inline() == to.is_inline() && !kind.is_leaf();
        let to = match (kind, to) {
            (Kind::List(list), Kind::List(new)) => Kind::List(crate::document::ListKind { ordered: new.ordered, ..list }),
            (_, to) => to,
        };
        if same_sort {
            doc.set_kind(id, to);
        }
    }
}

fn remove(doc: &mut Document, rules: &Rules<'_>) {
    let mut gone: Vec<NodeId> = Vec::new();
    for root in doc.roots() {
        let mut walk = doc.walk(root);
        while let Some(step) = walk.next() {
            if let Step::Enter(id) = step
                && !doc.element(id).is_empty()
                && rules.removes(doc.element(id))
            {
                gone.push(id);
                walk.skip_children(id);
            }
        }
    }
    let mut parents = Vec::new();
    for id in gone {
        let element = doc.element(id);
        let (place, text) = (doc.place(id), doc.plain_text(id));
        parents.extend(doc.node(id).parent());
        doc.detach(id);
        if !text.trim().is_empty() {
            doc.push_finding(
                Finding::lost("clean.element", format!("<{element}> was removed with its content")).at(place).losing(text),
            );
        }
    }
    doc.join_texts_in(parents);
}

/// The mark of a note: its number, raised or in brackets.
fn mark(doc: &mut Document, number: usize, raised: bool) -> NodeId {
    let text = doc.intern(&if raised { number.to_string() } else { format!("[{number}]") });
    let text = doc.create(Kind::Text(text));
    if !raised {
        return text;
    }
    let mark = doc.create(Kind::Superscript);
    doc.move_into(mark, text);
    mark
}

/// Marks of notes as numbers, raised or in brackets, and the notes as paragraphs at the end.
fn write_notes_out(doc: &mut Document, tally: &mut Tally, raised: bool) {
    if doc.notes.is_empty() {
        return;
    }
    let marks: Vec<(NodeId, u32)> = doc
        .nodes()
        .filter_map(|(id, node)| if let Kind::NoteReference(note) = node.kind() { Some((id, note.0)) } else { None })
        .collect();
    for (id, note) in marks {
        tally.add(doc, id);
        let mark = mark(doc, note as usize + 1, raised);
        doc.move_before(id, mark);
        doc.detach(id);
    }
    let root = doc.root();
    for (number, note) in std::mem::take(&mut doc.notes).into_iter().enumerate() {
        let label = mark(doc, number + 1, raised);
        let space = doc.intern(" ");
        let space = doc.create(Kind::Text(space));
        let first = doc.node(note.body).first_child();
        match first.filter(|&first| doc.kind(first) == Kind::Paragraph) {
            Some(first) => match doc.node(first).first_child() {
                Some(text) => {
                    doc.move_before(text, label);
                    doc.move_before(text, space);
                }
                None => doc.move_into(first, label),
            },
            None => {
                let paragraph = doc.create(Kind::Paragraph);
                doc.move_into(paragraph, label);
                match first {
                    Some(first) => doc.move_before(first, paragraph),
                    None => doc.move_into(note.body, paragraph),
                }
            }
        }
        doc.move_children(note.body, root);
    }
}

/// Text-level elements that are not accepted: their text stays.
fn unwrap_leaf_or_text(doc: &mut Document, rules: &Rules<'_>, id: NodeId, tally: &mut Tally) {
    let kind = doc.kind(id);
    let element = doc.element(id);
    if element.is_empty() || !kind.is_inline() || rules.allows(element) {
        return;
    }
    // Another element that looks the same says nearly as much.
    let twin = match kind {
        Kind::Strong => Kind::TextLevel(TextLevel::Bold),
        Kind::TextLevel(TextLevel::Bold) => Kind::Strong,
        Kind::Emphasis => Kind::TextLevel(TextLevel::Italic),
        Kind::TextLevel(TextLevel::Italic) => Kind::Emphasis,
        Kind::Deletion => Kind::Strikethrough,
        Kind::Strikethrough => Kind::Deletion,
        kind => kind,
    };
    let is_wanted = rules.unwrapped.iter().any(|pattern| fits(pattern, element));
    if twin != kind && !is_wanted && rules.allows(twin.element()) {
        return doc.set_kind(id, twin);
    }
    if !matches!(kind, Kind::Span | Kind::Anchor | Kind::LineBreak | Kind::Image { .. } | Kind::Link { .. }) {
        tally.add(doc, id);
    }
    let parent = doc.node(id).parent();
    match kind {
        Kind::Code(text) => lines::as_text(doc, id, text),
        Kind::Math(formula) => lines::as_text(doc, id, doc.formula(formula).characters),
        Kind::Image { src, alt } => {
            let message = format!("an image was removed, because <img> is not allowed: {}", lines::excerpt(doc, id));
            tally.lost.push((id, message, doc.text(src).to_owned()));
            if doc.text(alt).trim().is_empty() {
                doc.detach(id);
            } else {
                lines::as_text(doc, id, alt);
            }
        }
        Kind::LineBreak => doc.set_kind(id, Kind::SoftBreak),
        Kind::Link { href } => {
            let message = format!("a link address was removed, because <a> is not allowed: {}", lines::excerpt(doc, id));
            tally.lost.push((id, message, doc.text(href).to_owned()));
            doc.unwrap(id);
        }
        Kind::TextLevel(TextLevel::Quotation) => {
            let marks = crate::quotation_marks::of(doc.metadata.language.as_deref().unwrap_or_default()).double;
            for (mark, end) in [(marks.0, false), (marks.1, true)] {
                let mark = doc.intern(mark);
                let mark = doc.create(Kind::Text(mark));
                match doc.node(id).first_child().filter(|_| !end) {
                    Some(first) => doc.move_before(first, mark),
                    None => doc.move_into(id, mark),
                }
            }
            doc.unwrap(id);
        }
        _ => doc.unwrap(id),
    }
    tally.parents.extend(parent);
}

/// Blocks that are not accepted: what they hold becomes paragraphs.
fn unwrap_block(doc: &mut Document, rules: &Rules<'_>, id: NodeId, tally: &mut Tally) {
    let kind = doc.kind(id);
    let element = doc.element(id);
    if element.is_empty()
        || kind.is_inline()
        || kind == Kind::Paragraph
        || rules.allows(element)
        || doc.node(id).parent().is_none()
    {
        return;
    }
    match kind {
        Kind::Heading(_) | Kind::Term => {
            tally.add(doc, id);
            doc.set_kind(id, Kind::Paragraph);
            let strong = [("strong", Kind::Strong), ("b", Kind::TextLevel(TextLevel::Bold))];
            let strong = strong.into_iter().find(|(name, _)| rules.allows(name));
            match (rules.bold, strong) {
                (Bold::Keep, Some((_, kind))) if doc.node(id).first_child().is_some() => {
                    let bold = doc.create(kind);
                    doc.move_children(id, bold);
                    doc.move_into(id, bold);
                }
                (Bold::Capitals, _) => inline::set_capitals(doc, id),
                _ => {}
            }
        }
        Kind::Summary => doc.set_kind(id, Kind::Paragraph),
        Kind::Caption => {
            tally.add(doc, id);
            doc.set_kind(id, Kind::Paragraph);
            // Nothing but rows stands in a table.
            if let Some(table) = doc.node(id).parent().filter(|&table| doc.kind(table) == Kind::Table) {
                doc.move_before(table, id);
            }
        }
        Kind::CodeBlock { .. } | Kind::Preformatted => {
            tally.add(doc, id);
            lines::into_lines(doc, id, "");
        }
        Kind::ThematicBreak => {
            tally.add(doc, id);
            let text = doc.intern("* * *");
            doc.set_kind(id, Kind::Paragraph);
            doc.append(id, Kind::Text(text));
        }
        Kind::RowGroup(_) => doc.unwrap(id),
        // What is left of tables and lists is accepted.
        Kind::Row | Kind::Cell(_) | Kind::ListItem { .. } | Kind::Table | Kind::List(_) => {}
        _ => {
            if !matches!(kind, Kind::Division(_)) {
                tally.add(doc, id);
            }
            doc.wrap_inline_runs(id);
            doc.unwrap(id);
        }
    }
}
