//! After tree construction: white space that means nothing goes, wrappers go, and what is now empty goes.

use super::elements::Origin;
use super::sink::Made;
use crate::document::{DivisionKind, Document, Finding, Kind, NodeId, Step, Text, TextLevel};

/// Makes what came from HTML as clean as what came from the source's own markup.
pub(super) fn settle(doc: &mut Document, top: NodeId, made: &Made) {
    let mut left = Vec::new();
    let mut preformatted = 0;
    for step in doc.walk(top) {
        match step {
            Step::Enter(id) => preformatted += usize::from(doc.kind(id) == Kind::Preformatted),
            Step::Leave(id) => {
                preformatted -= usize::from(doc.kind(id) == Kind::Preformatted);
                left.push((id, preformatted > 0));
            }
        }
    }
    // Children come before their parents, so that what empties a parent has happened when the parent is looked at.
    for (id, preformatted) in left {
        match made.elements.get(&id) {
            Some(Origin::Foreign) => remove_foreign(doc, id, made),
            Some(Origin::Nothing) => doc.detach(id),
            Some(origin) => settle_element(doc, id, *origin, preformatted),
            None if made.texts.contains(&id) && !preformatted => collapse(doc, id),
            None => {}
        }
        if id == top || (!preformatted && !doc.kind(id).is_leaf()) {
            trim(doc, id, made);
        }
    }
}

/// Drawings and formulas: told about once, at their outermost element.
fn remove_foreign(doc: &mut Document, id: NodeId, made: &Made) {
    let outer = doc.node(id).parent().is_some_and(|parent| made.elements.get(&parent) == Some(&Origin::Foreign));
    if outer {
        return;
    }
    let place = doc.place(id);
    let words = doc.plain_text(id);
    doc.find(Finding::lost("html.foreign", "a drawing or formula within the text was left out").at(place).losing(words.trim()));
    doc.detach(id);
}

fn settle_element(doc: &mut Document, id: NodeId, origin: Origin, preformatted: bool) {
    let kind = doc.kind(id);
    match kind {
        Kind::TextLevel(TextLevel::Code) => settle_code(doc, id),
        Kind::Preformatted => settle_preformatted(doc, id),
        _ => {}
    }
    if doc.node(id).parent().is_none() {
        return;
    }
    let kind = doc.kind(id);
    let bare = doc.attributes(id).is_empty();
    let empty = doc.node(id).first_child().is_none();
    let only_named = !bare && doc.attributes(id).id.is_some();
    if empty && !kind.is_leaf() && !matches!(kind, Kind::Cell(_)) {
        if !only_named {
            doc.detach(id);
        } else if kind.is_inline() {
            doc.set_kind(id, Kind::Anchor);
        }
        return;
    }
    match kind {
        Kind::Span | Kind::Anchor if bare => doc.unwrap(id),
        Kind::Division(DivisionKind::Plain) if origin == Origin::Wrapper && !preformatted => settle_division(doc, id, bare),
        _ => {}
    }
}

/// A division that says nothing: around text it is a paragraph, around blocks it goes.
fn settle_division(doc: &mut Document, id: NodeId, bare: bool) {
    let mixed = doc.children(id).any(|child| !doc.kind(child).is_inline());
    if !mixed && super::super::model::holds_flow(doc.node(id).parent().map_or(Kind::Root, |parent| doc.kind(parent))) {
        doc.set_kind(id, Kind::Paragraph);
    } else if bare {
        wrap_runs(doc, id);
        doc.unwrap(id);
    }
}

/// Makes paragraphs of text that stands between blocks.
fn wrap_runs(doc: &mut Document, id: NodeId) {
    let children: Vec<NodeId> = doc.children(id).collect();
    let mut run = None;
    for child in children {
        if !doc.kind(child).is_inline() {
            run = None;
            continue;
        }
        match run {
            Some(run) => doc.move_into(run, child),
            None if is_white(doc, child) => {}
            None => run = Some(doc.wrap(child, Kind::Paragraph)),
        }
    }
}

/// The text of a node, where there is nothing but text below it.
fn only_text(doc: &mut Document, id: NodeId) -> Option<Text> {
    let mut text = Text::EMPTY;
    let children: Vec<NodeId> = doc.children(id).collect();
    for child in children {
        match doc.kind(child) {
            Kind::Text(next) => text = doc.join(text, next),
            Kind::SoftBreak => {
                let newline = doc.intern("\n");
                text = doc.join(text, newline);
            }
            _ => return None,
        }
    }
    Some(text)
}

fn drop_children(doc: &mut Document, id: NodeId) {
    while let Some(child) = doc.node(id).first_child() {
        doc.detach(child);
    }
}

fn settle_code(doc: &mut Document, id: NodeId) {
    if doc.attributes(id).is_empty()
        && let Some(text) = only_text(doc, id).filter(|text| !text.is_empty())
    {
        drop_children(doc, id);
        doc.set_kind(id, Kind::Code(text));
    }
}

/// `<pre><code>` with nothing but text is a code block.
fn settle_preformatted(doc: &mut Document, id: NodeId) {
    let Some(code) = doc.node(id).first_child().filter(|&code| doc.node(code).next().is_none()) else { return };
    let text = match doc.kind(code) {
        Kind::Code(text) => Some(text),
        Kind::TextLevel(TextLevel::Code) => only_text(doc, code),
        _ => None,
    };
    let Some(mut text) = text else { return };
    let language = doc.attributes(code).classes.first().copied();
    let info = match language {
        Some(class) => Text { start: class.start + "language-".len() as u32, ..class },
        None => Text::EMPTY,
    };
    if !doc.text(text).ends_with('\n') {
        let newline = doc.intern("\n");
        text = doc.join(text, newline);
    }
    drop_children(doc, id);
    doc.set_kind(id, Kind::CodeBlock { code: text, info });
}

const fn is_space(c: char) -> bool {
    matches!(c, ' ' | '\t' | '\n' | '\r' | '\x0C')
}

fn is_white(doc: &Document, id: NodeId) -> bool {
    match doc.kind(id) {
        Kind::Text(text) => doc.text(text).chars().all(is_space),
        Kind::SoftBreak => true,
        _ => false,
    }
}

/// Makes one space, or one line end, of white space.
fn collapse(doc: &mut Document, id: NodeId) {
    let Kind::Text(text) = doc.kind(id) else { return };
    let content = doc.text(text);
    let mut out = String::with_capacity(content.len());
    let mut white: Option<char> = None;
    for c in content.chars() {
        if is_space(c) {
            white = Some(if c == '\n' || white == Some('\n') { '\n' } else { ' ' });
        } else {
            out.extend(white.take());
            out.push(c);
        }
    }
    out.extend(white);
    if out != content {
        let text = doc.intern(&out);
        doc.set_kind(id, Kind::Text(text));
    }
}

/// Takes away white space beside blocks and at the ends of text, and joins pieces of text.
fn trim(doc: &mut Document, id: NodeId, made: &Made) {
    let kind = doc.kind(id);
    let is_block = |doc: &Document, node: Option<NodeId>| {
        node.is_none_or(|node| !doc.kind(node).is_inline() || doc.kind(node) == Kind::LineBreak)
    };
    let children: Vec<NodeId> = doc.children(id).collect();
    for &child in &children {
        let (Kind::Text(text), true) = (doc.kind(child), made.texts.contains(&child)) else { continue };
        let node = doc.node(child);
        let (mut before, mut after) = (is_block(doc, node.previous()), is_block(doc, node.next()));
        if kind.is_inline() {
            // The space at the end of a bold word is a space.
            before &= node.previous().is_some();
            after &= node.next().is_some();
        }
        let content = doc.text(text);
        let mut trimmed = text;
        if before {
            trimmed.start += (content.len() - content.trim_start_matches(is_space).len()) as u32;
        }
        if after && trimmed.start < trimmed.end {
            trimmed.end -= (content.len() - content.trim_end_matches(is_space).len()) as u32;
        }
        if trimmed.is_empty() {
            doc.detach(child);
        } else {
            doc.set_kind(child, Kind::Text(trimmed));
        }
    }
    join_texts(doc, id);
}

fn join_texts(doc: &mut Document, id: NodeId) {
    let mut at = doc.node(id).first_child();
    while let Some(node) = at {
        let next = doc.node(node).next();
        if let (Some(next), Kind::Text(first)) = (next, doc.kind(node))
            && let Kind::Text(second) = doc.kind(next)
        {
            let joined = doc.join(first, second);
            doc.set_kind(node, Kind::Text(joined));
            doc.detach(next);
            at = Some(node);
        } else {
            at = next;
        }
    }
}
