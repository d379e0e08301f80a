//! Lists that are only paragraphs: with the list styles of office programs and typed markers, or with typed markers alone.
//! And lists beside each other that an editor means as one, nested by levels that it only notes.

mod build;
mod levels;
mod marker;

pub use marker::{Mark, typed};

use super::promote_headings;
use super::rules::scenes;

use crate::document::{Document, Finding, HintRole, Kind, LayoutHint, NodeId, Producer, Step};
use build::{Builder, Item};

/// Which paragraphs become items of lists.
#[derive(Clone, Copy, Debug, Default, PartialEq, Eq)]
pub enum Lists {
    /// None.
    Keep,
    /// Those that the program marked as items, or set in as items with their markers hanging out.
    Marked,
    /// Those, and where the source has formatting also those that begin with typed bullets or numbers.
    #[default]
    Auto,
    /// Those too that begin with typed bullets or numbers, in every document.
    Typed,
}

impl Lists {
    /// Whether typed markers make items in a document.
    fn takes_typed(self, doc: &Document) -> bool {
        self == Self::Typed
            || (self == Self::Auto && doc.layout_hints.producer != Producer::Plain && !doc.layout_hints.reads_typed_lists)
    }
}

/// Makes lists of paragraphs that are items, and of lists that are parts of one.
pub fn rebuild(doc: &mut Document, lists: Lists) {
    if lists == Lists::Keep || (doc.layout_hints.producer == Producer::Plain && lists != Lists::Typed) {
        return drop_markers(doc);
    }
    let takes_typed = lists.takes_typed(doc);
    let wanted = Wanted::of(doc, takes_typed);
    if !wanted.may_be_there(doc) {
        return levels::nest(doc);
    }
    let mut typed = Vec::new();
    for root in doc.roots() {
        if takes_typed {
            split_lines(doc, root);
        }
        for parent in parents_of_items(doc, root, wanted) {
            build_within(doc, parent, wanted, &mut typed);
        }
    }
    if let Some(&first) = typed.first() {
        let message = format!("paragraphs with typed bullets or numbers became items of lists: {}", typed.len());
        doc.push_finding(Finding::changed("clean.typed-list", message).at(doc.place(first)));
    }
    levels::nest(doc);
    drop_markers(doc);
}

/// Markers that belong to no item are text.
fn drop_markers(doc: &mut Document) {
    let left: Vec<NodeId> =
        doc.layout_hints.iter().filter(|(_, trace)| trace.part == HintRole::Marker).map(|(node, _)| node).collect();
    for node in left {
        doc.layout_hints.at(node).part = HintRole::Unsaid;
    }
}

/// What makes a paragraph an item.
#[derive(Clone, Copy, Debug)]
struct Wanted {
    /// Typed markers do.
    typed: bool,
    /// The program set markers apart, in some paragraph at least.
    markers: bool,
}

impl Wanted {
    fn of(doc: &Document, typed: bool) -> Self {
        Self { typed, markers: doc.layout_hints.iter().any(|(_, trace)| trace.part == HintRole::Marker) }
    }

    fn may_be_there(self, doc: &Document) -> bool {
        self.typed || self.markers || doc.layout_hints.iter().any(|(_, trace)| hangs(trace))
    }
}

/// Whether a program set a paragraph as an item.
fn hangs(trace: LayoutHint) -> bool {
    trace.list.is_some() || trace.first_line < -1.0
}

/// What a paragraph says about being an item.
fn item(doc: &Document, paragraph: NodeId, wanted: Wanted) -> Option<Item> {
    if doc.kind(paragraph) != Kind::Paragraph {
        return None;
    }
    let trace = doc.layout_hints.of(paragraph);
    let hangs = hangs(trace);
    if !hangs && !wanted.typed && !wanted.markers {
        return None;
    }
    let apart = first_leaf(doc, paragraph).and_then(|leaf| {
        let above = std::iter::once(leaf).chain(doc.ancestors(leaf)).take_while(|&above| above != paragraph);
        above.filter(|&above| doc.layout_hints.of(above).part == HintRole::Marker).last()
    });
    if let Some(node) = apart {
        let mark = marker::apart(&doc.plain_text(node));
        return Some(Item { paragraph, mark, marker: Some(node), prefix: 0, trace, typed: false });
    }
    if !hangs && !wanted.typed {
        return None;
    }
    let leaf = first_leaf(doc, paragraph)?;
    let Kind::Text(text) = doc.kind(leaf) else { return None };
    let (mark, prefix) = marker::typed(doc.text(text))?;
    // A line of stars stands between scenes.
    if scenes::is_break(doc.text(text)) {
        return None;
    }
    // A numbered line that is all bold is more likely a heading.
    if !hangs && matches!(mark, Mark::Number(_)) && promote_headings::is_bold(doc, paragraph) {
        return None;
    }
    if prefix == doc.text(text).len() && doc.node(leaf).next().is_none() && doc.node(leaf).parent() == Some(paragraph) {
        // Nothing behind it.
        return None;
    }
    Some(Item { paragraph, mark, marker: None, prefix, trace, typed: !hangs })
}

/// The first text or other leaf of a paragraph, past white space and places.
fn first_leaf(doc: &Document, paragraph: NodeId) -> Option<NodeId> {
    let is_white = |id| match doc.kind(id) {
        Kind::Text(text) => doc.text(text).chars().all(|c| c.is_whitespace()),
        Kind::Anchor | Kind::SoftBreak => true,
        kind => !kind.is_leaf(),
    };
    doc.walk(paragraph).take(64).find_map(|step| match step {
        Step::Enter(id) if id != paragraph && !is_white(id) => Some(id),
        _ => None,
    })
}

fn parents_of_items(doc: &Document, root: NodeId, wanted: Wanted) -> Vec<NodeId> {
    let mut parents = Vec::new();
    for step in doc.walk(root) {
        let Step::Enter(id) = step else { continue };
        if doc.kind(id) == Kind::Paragraph
            && let Some(parent) = doc.node(id).parent()
            && parents.last() != Some(&parent)
            && item(doc, id, wanted).is_some()
        {
            parents.push(parent);
        }
    }
    parents.sort_unstable();
    parents.dedup();
    parents
}

/// Makes lists of the items among the children of a node.
fn build_within(doc: &mut Document, parent: NodeId, wanted: Wanted, typed: &mut Vec<NodeId>) {
    let children: Vec<NodeId> = doc.children(parent).collect();
    let mut items: Vec<Option<Item>> = children.iter().map(|&child| item(doc, child, wanted)).collect();
    drop_lonely(&mut items);
    typed.extend(items.iter().flatten().filter(|item| item.typed).map(|item| item.paragraph));
    let mut builder = Builder::default();
    for (place, (&child, item)) in children.iter().zip(&items).enumerate() {
        match item {
            Some(item) => builder.add(doc, item),
            None if is_spacer(doc, child) && builder.is_open() => builder.hold(child),
            None if builder.is_open() && goes_on(doc, &builder, child, items.get(place + 1..).unwrap_or_default()) => {
                builder.continue_with(doc, child);
            }
            None => builder.end(),
        }
    }
}

/// Typed markers make items only where there are several of a kind: a lone `1.` may be a sentence.
fn drop_lonely(items: &mut [Option<Item>]) {
    let like = |a: &Item, b: &Item| match (&a.mark, &b.mark) {
        (Mark::Bullet(_), Mark::Bullet(_)) => true,
        (Mark::Number(a), Mark::Number(b)) => a.iter().any(|(style, value)| b.contains(&(*style, value + 1))),
        _ => false,
    };
    let joins = |first: Option<&Item>, second: Option<&Item>| matches!((first, second), (Some(first), Some(second)) if like(first, second));
    let lonely: Vec<usize> = (0..items.len())
        .filter(|&place| {
            let own = items[place].as_ref();
            let near = |places: &mut dyn Iterator<Item = usize>, after: bool| {
                places.take(4).any(|other| {
                    let other = items[other].as_ref();
                    if after { joins(own, other) } else { joins(other, own) }
                })
            };
            own.is_some_and(|item| item.typed)
                && !near(&mut (place + 1..items.len()), true)
                && !near(&mut (0..place).rev(), false)
        })
        .collect();
    for place in lonely {
        items[place] = None;
    }
}

fn is_spacer(doc: &Document, id: NodeId) -> bool {
    doc.kind(id) == Kind::Paragraph
        && doc.walk(id).all(|step| match step {
            Step::Enter(id) => match doc.kind(id) {
                Kind::Text(text) => doc.text(text).chars().all(char::is_whitespace),
                Kind::SoftBreak | Kind::LineBreak => true,
                kind => !kind.is_leaf() && doc.attributes(id).id.is_none(),
            },
            Step::Leave(_) => true,
        })
}

/// Whether a block belongs to the item before it: its program says so, or it is set in as the item is and more items follow.
fn goes_on(doc: &Document, builder: &Builder, block: NodeId, behind: &[Option<Item>]) -> bool {
    let trace = doc.layout_hints.of(block);
    if doc.kind(block) != Kind::Paragraph {
        return false;
    }
    trace.part == HintRole::Continued
        || (trace.indent > 1.0 && trace.indent + 1.0 >= builder.indent() && behind.iter().take(4).any(Option::is_some))
}

/// Lines of a paragraph that each begin with a marker become paragraphs.
fn split_lines(doc: &mut Document, root: NodeId) {
    let is_line_start =
        |doc: &Document, leaf: NodeId| matches!(doc.kind(leaf), Kind::Text(text) if marker::typed(doc.text(text)).is_some());
    let paragraphs: Vec<NodeId> = doc
        .walk(root)
        .filter_map(|step| match step {
            Step::Enter(id)
                if doc.kind(id) == Kind::Paragraph && doc.children(id).any(|child| doc.kind(child) == Kind::LineBreak) =>
            {
                Some(id)
            }
            _ => None,
        })
        .collect();
    for paragraph in paragraphs {
        // One line may begin with a number or a dash by chance.
        let lines = doc.children(paragraph).filter(|&child| {
            is_line_start(doc, child) && doc.node(child).previous().is_none_or(|before| doc.kind(before) == Kind::LineBreak)
        });
        if lines.take(2).count() < 2 {
            continue;
        }
        // From the last one back, so that nothing moves twice.
        let mut at = doc.node(paragraph).last_child();
        while let Some(child) = at {
            at = doc.node(child).previous();
            if doc.kind(child) == Kind::LineBreak && doc.node(child).next().is_some_and(|next| is_line_start(doc, next)) {
                doc.split_after(child);
                doc.detach(child);
            }
        }
    }
}

/// Reports paragraphs that look like items of a list, where they stay paragraphs.
pub(super) fn report_typed(doc: &mut Document, lists: Lists) {
    if lists != Lists::Marked || doc.layout_hints.producer == Producer::Plain {
        return;
    }
    let wanted = Wanted::of(doc, true);
    let mut found = None;
    let mut count = 0;
    for root in doc.roots() {
        for parent in parents_of_items(doc, root, wanted) {
            let mut items: Vec<Option<Item>> = doc.children(parent).map(|child| item(doc, child, wanted)).collect();
            drop_lonely(&mut items);
            for item in items.into_iter().flatten() {
                count += 1;
                found.get_or_insert(item.paragraph);
            }
        }
    }
    if let Some(first) = found {
        let place = doc.place(first);
        doc.push_finding(
            Finding::advice("clean.typed-list", format!("paragraphs begin with typed bullets or numbers: {count}"))
                .at(place)
                .hint("set clean.lists=typed to make lists of them"),
        );
    }
}
