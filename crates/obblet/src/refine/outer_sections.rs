//! Sections around everything.

use crate::document::{Attributes, DivisionKind, Document, Finding, Kind, NodeId};

/// Opens sections and divisions that hold all of a document and say nothing else.
pub fn open(doc: &mut Document) {
    let mut opened: Vec<NodeId> = Vec::new();
    let root = doc.root();
    while let Some(id) = doc.node(root).first_child() {
        let is_outer = doc.node(id).next().is_none()
            && doc.node(id).first_child().is_some()
            && matches!(doc.kind(id), Kind::Division(DivisionKind::Plain | DivisionKind::Section))
            && *doc.attributes(id) == Attributes::default();
        // Text that stands in it alone needs something around it.
        if !is_outer || doc.children(id).any(|child| doc.kind(child).is_inline()) {
            break;
        }
        opened.push(id);
        doc.unwrap(id);
    }
    let Some(&first) = opened.first() else { return };
    let message = format!("sections around the whole document were opened: {}", opened.len());
    doc.push_finding(Finding::changed("clean.outer-section", message).at(doc.place(first)));
}
