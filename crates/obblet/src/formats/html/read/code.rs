//! Code: what stands in `code` and `pre` elements, without the markup that colours it.

use crate::document::{Document, Kind, NodeId, Step, Text, TextLevel};

/// The characters below a node, where nothing below it means more than characters.
fn only_text(doc: &mut Document, id: NodeId, through_markup: bool) -> Option<Text> {
    let mut pieces = Vec::new();
    for step in doc.walk(id) {
        let Step::Enter(node) = step else { continue };
        match doc.kind(node) {
            Kind::Text(text) | Kind::Code(text) => pieces.push(Some(text)),
            Kind::SoftBreak | Kind::LineBreak => pieces.push(None),
            _ if node == id => {}
            // Colours of code, and the anchors of its lines.
            Kind::Span | Kind::Anchor if through_markup => {}
            Kind::TextLevel(TextLevel::Code) if through_markup => {}
            Kind::Emphasis | Kind::Strong if through_markup && is_token(doc, node) => {}
            _ => return None,
        }
    }
    let mut text = Text::EMPTY;
    for piece in pieces {
        let piece = match piece {
            Some(piece) => piece,
            None => doc.intern("\n"),
        };
        text = doc.join(text, piece);
    }
    Some(text)
}

/// Whether markup within code only colours it: a class that some program gave and nothing else.
fn is_token(doc: &Document, id: NodeId) -> bool {
    !doc.attributes(id).classes.is_empty()
}

fn drop_children(doc: &mut Document, id: NodeId) {
    while let Some(child) = doc.node(id).first_child() {
        doc.detach(child);
    }
}

/// Code within a line that holds nothing but text.
pub(super) fn normalize_inline_code(doc: &mut Document, id: NodeId, in_block: bool) {
    let attributes = doc.attributes(id);
    let has = |name: &str| attributes.classes.iter().any(|&class| doc.text(class) == name);
    let (is_tex, display) = (has("language-tex"), has("display"));
    let named = attributes.id.is_some() || attributes.title.is_some() || attributes.language.is_some();
    if in_block || named {
        return;
    }
    let Some(text) = only_text(doc, id, false).filter(|text| !text.is_empty()) else { return };
    drop_children(doc, id);
    if doc.node(id).has_attributes() {
        *doc.attributes_mut(id) = crate::document::Attributes::default();
    }
    let kind = if is_tex { Kind::Math(doc.add_tex(text, display)) } else { Kind::Code(text) };
    doc.set_kind(id, kind);
}

/// A `pre` element with nothing but text is a block of code.
pub(super) fn normalize_block(doc: &mut Document, id: NodeId) {
    let only = doc.node(id).first_child().filter(|&only| doc.node(only).next().is_none());
    let code = only.filter(|&code| matches!(doc.kind(code), Kind::TextLevel(TextLevel::Code)));
    let names_language = |class: &&Text| doc.text(**class).starts_with("language-");
    let language = |node: NodeId| doc.attributes(node).classes.iter().find(names_language).copied();
    let language = code.and_then(language).or_else(|| language(id));
    let Some(mut text) = only_text(doc, id, code.is_some()) else { return };
    let info = match language {
        Some(class) => Text { start: class.start + "language-".len() as u32, ..class },
        None => Text::EMPTY,
    };
    if !text.is_empty() && !doc.text(text).ends_with('\n') {
        let newline = doc.intern("\n");
        text = doc.join(text, newline);
    }
    drop_children(doc, id);
    if doc.node(id).has_attributes() {
        let classes = std::mem::take(&mut doc.attributes_mut(id).classes);
        let others = classes.into_iter().filter(|class| !doc.text(*class).starts_with("language-")).collect();
        doc.attributes_mut(id).classes = others;
    }
    doc.set_kind(id, Kind::CodeBlock { code: text, info });
}
