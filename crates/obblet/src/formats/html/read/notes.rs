//! Footnotes: links that lead to a text which leads back. HTML has no element for them, so programs write them as lists,
//! paragraphs or divisions with links both ways; most give the marks brackets or raise them, and some name the roles of
//! DPUB-ARIA.

use super::element_state::{ParseState, Role};
use crate::document::{Document, Kind, NodeId, Note, NoteId, Step};
use crate::fast_hash::{HashMap, HashSet};
use std::borrow::Cow;

/// Marks are not longer than this.
const LONGEST_MARK: usize = 8;

/// A link that may be a mark, and the text that it leads to.
struct Candidate {
    link: NodeId,
    container: NodeId,
}

/// Makes notes of them.
pub(super) fn find(doc: &mut Document, state: &ParseState) {
    let in_tree = |&&id: &&NodeId| doc.node(id).parent().is_some();
    let says_so = |id: NodeId| state.roles.get(&id) == Some(&Role::NoteReference);
    if !state.local_links.iter().filter(in_tree).any(|&id| says_so(id) || is_mark(doc, id)) {
        return;
    }
    let names: HashSet<String> =
        state.local_links.iter().filter(in_tree).filter_map(|&id| local(doc, id)).map(Cow::into_owned).collect();
    let mut links = Vec::new();
    let mut order: HashMap<NodeId, usize> = HashMap::default();
    let mut targets: HashMap<String, NodeId> = HashMap::default();
    for (place, step) in doc.walk(doc.root()).enumerate() {
        let Step::Enter(id) = step else { continue };
        if let Some(name) = doc.attributes(id).id.map(|name| doc.text(name)).filter(|name| names.contains(*name)) {
            targets.entry(name.to_owned()).or_insert(id);
            order.insert(id, place);
        }
        if local(doc, id).is_some() {
            links.push(id);
            order.insert(id, place);
        }
    }
    let mut back: HashMap<NodeId, Vec<NodeId>> = HashMap::default();
    let mut candidates = Vec::new();
    for &link in &links {
        let Some(&target) = local(doc, link).and_then(|name| targets.get(&*name)) else { continue };
        let says_so = says_so(link);
        if order[&target] > order[&link] || says_so {
            let container = container(doc, target);
            let inside = doc.ancestors(link).any(|above| above == container);
            if !inside && (says_so || is_mark(doc, link)) {
                candidates.push(Candidate { link, container });
            }
        } else {
            // It leads upwards: perhaps from a note to its mark.
            back.entry(target).or_default().push(link);
        }
    }
    // What leads up to a mark returns; what leads up to something else is a link like any other.
    let places: HashSet<NodeId> = candidates.iter().flat_map(|candidate| around(doc, candidate.link)).collect();
    let returning: HashSet<NodeId> = places.iter().filter_map(|place| back.get(place)).flatten().copied().collect();
    let mut labels = HashSet::default();
    let mut known: HashMap<NodeId, NoteId> = HashMap::default();
    let mut ends: HashMap<NodeId, HashSet<NodeId>> = HashMap::default();
    for Candidate { link, container } in candidates {
        if doc.node(link).parent().is_none() || doc.node(container).parent().is_none() && !known.contains_key(&container) {
            continue;
        }
        if !known.contains_key(&container) {
            let ends = ends.entry(container).or_insert_with(|| ends_within(doc, container, &targets));
            if !says_so(link) && !around(doc, link).iter().any(|place| ends.contains(place)) {
                continue;
            }
        }
        let note = match known.get(&container) {
            Some(&note) => note,
            None => {
                let note = make(doc, container, link, &returning, &mut labels, state);
                known.insert(container, note);
                note
            }
        };
        set_mark(doc, link, note);
    }
    // Notes may mention notes before them.
    for link in links {
        let target = local(doc, link).and_then(|name| targets.get(&*name).copied());
        let note = target.and_then(|target| known.get(&target)).copied();
        if let Some(note) = note.filter(|_| doc.node(link).parent().is_some() && is_mark(doc, link)) {
            set_mark(doc, link, note);
        }
    }
}

/// Where the links of a text lead.
fn ends_within(doc: &Document, container: NodeId, targets: &HashMap<String, NodeId>) -> HashSet<NodeId> {
    let end = |step| match step {
        Step::Enter(id) => local(doc, id).and_then(|name| targets.get(&*name).copied()),
        Step::Leave(_) => None,
    };
    doc.walk(container).filter_map(end).collect()
}

/// The name that a link within the page leads to.
fn local(doc: &Document, id: NodeId) -> Option<Cow<'_, str>> {
    let Kind::Link { href } = doc.kind(id) else { return None };
    let name = doc.text(href).strip_prefix('#').filter(|name| !name.is_empty())?;
    Some(percent_encoding::percent_decode_str(name).decode_utf8_lossy())
}

/// Whether the text of a link is one of a mark: a number, a letter or a sign, in brackets or not.
fn is_mark(doc: &Document, link: NodeId) -> bool {
    let first = doc.node(link).first_child().map(|child| doc.kind(child));
    if matches!(first, Some(Kind::Text(text)) if doc.text(text).trim().len() > LONGEST_MARK) {
        return false;
    }
    let text = doc.plain_text(link);
    let text = text.trim();
    let inner = text.trim_start_matches(['[', '(']).trim_end_matches([']', ')']);
    let number = !inner.is_empty() && inner.len() <= 4 && inner.bytes().all(|byte| byte.is_ascii_digit());
    let raised = doc.ancestors(link).take(2).any(|above| doc.kind(above) == Kind::Superscript)
        || doc.children(link).any(|child| doc.kind(child) == Kind::Superscript);
    let sign =
        inner.chars().count() <= 3 && inner.chars().all(|c| matches!(c, '*' | '\u{2020}' | '\u{2021}' | '\u{A7}' | '\u{B6}'));
    text.len() <= LONGEST_MARK && !inner.is_empty() && (number || sign || (raised && inner.chars().all(char::is_alphanumeric)))
}

/// The block that is the note of a target.
fn container(doc: &Document, target: NodeId) -> NodeId {
    let is_block = |id: NodeId| !doc.kind(id).is_inline();
    let block = if is_block(target) { target } else { doc.ancestors(target).find(|&above| is_block(above)).unwrap_or(target) };
    // The item or the division that holds nothing but this text.
    let mut container = block;
    while let Some(above) = doc.node(container).parent() {
        let fits = matches!(doc.kind(above), Kind::ListItem { .. } | Kind::Division(_)) && above != doc.root();
        let first = doc.node(above).first_child() == Some(container);
        if fits && first && doc.kind(container) == Kind::Paragraph && doc.attributes(above).id.is_some() {
            container = above;
        } else {
            break;
        }
    }
    if doc.kind(block) == Kind::Paragraph
        && let Some(item) = doc.node(block).parent().filter(|&item| matches!(doc.kind(item), Kind::ListItem { .. }))
        && doc.node(item).first_child() == Some(block)
    {
        return item;
    }
    container
}

/// A link and what stands right around it: one of these is what a note leads back to.
fn around(doc: &Document, link: NodeId) -> Vec<NodeId> {
    let mut around = vec![link];
    around.extend(doc.ancestors(link).take_while(|&above| doc.kind(above).is_inline()));
    around.extend(doc.children(link));
    let outermost = doc.ancestors(link).take_while(|&above| doc.kind(above).is_inline()).last().unwrap_or(link);
    around.extend(doc.node(outermost).previous());
    around.extend(doc.node(link).previous());
    // Some lead back to the paragraph.
    around.extend(doc.node(outermost).parent());
    around
}

fn make(
    doc: &mut Document,
    container: NodeId,
    link: NodeId,
    returning: &HashSet<NodeId>,
    labels: &mut HashSet<String>,
    state: &ParseState,
) -> NoteId {
    // A note that notes behind it mention leads on to them.
    let leads_on =
        |doc: &Document, id| state.roles.get(&id) == Some(&Role::BackLink) || (local(doc, id).is_some() && is_return(doc, id));
    let returns: Vec<NodeId> = doc
        .walk(container)
        .filter_map(|step| match step {
            Step::Enter(id) if returning.contains(&id) || leads_on(doc, id) => Some(id),
            _ => None,
        })
        .collect();
    for back in returns {
        let whole = state.roles.get(&back) == Some(&Role::BackLink) || is_return(doc, back) || is_mark(doc, back);
        if whole {
            remove_inline(doc, back);
        }
    }
    let text = doc.plain_text(link);
    let label: String = text.chars().filter(|c| c.is_alphanumeric()).collect();
    let label = if label.is_empty() || !labels.insert(label.clone()) { free_label(doc.notes.len(), labels) } else { label };
    let body = doc.create(Kind::Note);
    let offset = doc.node(container).offset();
    doc.set_offset(body, offset);
    let (parent, line) = (doc.node(container).parent(), doc.node(container).previous());
    if matches!(doc.kind(container), Kind::ListItem { .. } | Kind::Division(_)) {
        doc.move_children(container, body);
        doc.detach(container);
    } else {
        doc.move_into(body, container);
        if doc.node(container).has_attributes() {
            doc.attributes_mut(container).id = None;
        }
    }
    wrap_text(doc, body);
    doc.notes.push(Note { label, body });
    // The line above the notes, where no more of them follow.
    if let Some(line) = line.filter(|&line| doc.kind(line) == Kind::ThematicBreak && doc.node(line).next().is_none()) {
        doc.detach(line);
    }
    remove_emptied(doc, parent);
    NoteId(doc.notes.len() as u32 - 1)
}

fn free_label(notes: usize, labels: &mut HashSet<String>) -> String {
    (notes + 1..).map(|number| number.to_string()).find(|label| labels.insert(label.clone())).unwrap_or_default()
}

/// Whether a link is only an arrow or a word that leads back.
fn is_return(doc: &Document, link: NodeId) -> bool {
    let text = doc.plain_text(link);
    let text = text.trim_matches(|c: char| c.is_whitespace() || matches!(c, '[' | ']' | '(' | ')' | '\u{FE0E}' | '\u{FE0F}'));
    let arrow = |c: char| matches!(c, '\u{2190}'..='\u{21FF}' | '\u{2900}'..='\u{297F}' | '\u{2B00}'..='\u{2BFF}' | '^');
    text.chars().take(1).all(arrow) || matches!(text.to_ascii_lowercase().as_str(), "back" | "return" | "jump up")
}

/// Takes out a node and what is empty without it, with the white space before it.
fn remove_inline(doc: &mut Document, id: NodeId) {
    let mut id = id;
    while let Some(above) = doc
        .node(id)
        .parent()
        .filter(|&above| doc.kind(above).is_inline() && doc.node(above).first_child() == doc.node(above).last_child())
    {
        id = above;
    }
    let (previous, next) = (doc.node(id).previous(), doc.node(id).next());
    doc.detach(id);
    if let (Some(previous), None) = (previous, next)
        && let Kind::Text(mut text) = doc.kind(previous)
    {
        text.end = text.start + doc.text(text).trim_ascii_end().len() as u32;
        if text.is_empty() {
            return remove_inline(doc, previous);
        }
        doc.set_kind(previous, Kind::Text(text));
    }
    if let (None, Some(next)) = (previous, next)
        && let Kind::Text(mut text) = doc.kind(next)
    {
        let content = doc.text(text);
        text.start +=
            (content.len() - content.trim_start_matches(|c: char| c.is_whitespace() || matches!(c, '.' | ':')).len()) as u32;
        doc.set_kind(next, Kind::Text(text));
    }
}

/// Text that stands directly in a note goes into paragraphs.
fn wrap_text(doc: &mut Document, body: NodeId) {
    let children: Vec<NodeId> = doc.children(body).collect();
    let mut run = None;
    for child in children {
        let empty = doc.kind(child) == Kind::Paragraph && doc.node(child).first_child().is_none();
        if empty {
            doc.detach(child);
        } else if !doc.kind(child).is_inline() {
            run = None;
        } else if let Some(run) = run {
            doc.move_into(run, child);
        } else {
            run = Some(doc.wrap(child, Kind::Paragraph));
        }
    }
}

/// Takes out lists and divisions in which nothing is left, and the line above the notes.
fn remove_emptied(doc: &mut Document, start: Option<NodeId>) {
    let mut at = start;
    while let Some(id) = at.filter(|&id| id != doc.root() && !doc.kind(id).is_inline()) {
        let only_line = doc
            .node(id)
            .first_child()
            .filter(|&first| doc.kind(first) == Kind::ThematicBreak && doc.node(first).next().is_none());
        if let Some(line) = only_line {
            doc.detach(line);
        }
        if doc.node(id).first_child().is_some() {
            return;
        }
        at = doc.node(id).parent();
        let (previous, last) = (doc.node(id).previous(), doc.node(id).next().is_none());
        doc.detach(id);
        if let Some(line) = previous.filter(|&line| last && doc.kind(line) == Kind::ThematicBreak) {
            doc.detach(line);
        }
    }
}

/// Puts a mark where a link stands, with what was there only to raise it or to set it in brackets.
fn set_mark(doc: &mut Document, link: NodeId, note: NoteId) {
    let mut outer = link;
    while let Some(above) = doc.node(outer).parent().filter(|&above| {
        matches!(
            doc.kind(above),
            Kind::Superscript | Kind::Span | Kind::Anchor | Kind::TextLevel(crate::document::TextLevel::Small)
        ) && doc.node(above).first_child() == doc.node(above).last_child()
    }) {
        outer = above;
    }
    while let Some(child) = doc.node(outer).first_child() {
        doc.detach(child);
    }
    if doc.node(outer).has_attributes() {
        *doc.attributes_mut(outer) = crate::document::Attributes::default();
    }
    doc.set_kind(outer, Kind::NoteReference(note));
}
