//! Wrappers that say nothing: divisions without a meaning of their own.

use super::structure::holds_flow;
use crate::document::white_space::is_collapsible;
use crate::document::{Document, Kind, NodeId};

/// A division that says nothing: around text it is a paragraph; around blocks it goes, if it is `bare` of attributes.
pub(crate) fn open_division(doc: &mut Document, id: NodeId, bare: bool) {
    let mixed = doc.children(id).any(|child| !doc.kind(child).is_inline());
    if !mixed && holds_flow(doc.node(id).parent().map_or(Kind::Root, |parent| doc.kind(parent))) {
        doc.set_kind(id, Kind::Paragraph);
    } else if bare {
        wrap_text_runs(doc, id);
        doc.unwrap(id);
    }
}

/// Makes paragraphs of text that stands between blocks; white space and places alone make none.
pub(crate) fn wrap_text_runs(doc: &mut Document, id: NodeId) {
    doc.wrap_inline_runs_from(id, |doc, child| !doc.is_white(child, is_collapsible) && doc.kind(child) != Kind::Anchor);
}
