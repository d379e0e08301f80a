//! What many passes need.

use crate::document::{Document, Kind, NodeId};

/// The trees of a document: its own, and those of its notes.
pub(crate) fn tops(doc: &Document) -> Vec<NodeId> {
    std::iter::once(doc.root()).chain(doc.notes.iter().map(|note| note.body)).collect()
}

/// Joins texts that meet among the children of nodes, in each of them once.
pub(crate) fn join_texts(doc: &mut Document, mut parents: Vec<NodeId>) {
    parents.sort_unstable();
    parents.dedup();
    for parent in parents {
        doc.join_texts(parent);
    }
}

/// Text that stands directly among blocks becomes paragraphs.
pub(crate) fn wrap_runs(doc: &mut Document, id: NodeId) {
    let children: Vec<NodeId> = doc.children(id).collect();
    let mut run = None;
    for child in children {
        if !doc.kind(child).is_inline() {
            run = None;
        } else if let Some(run) = run {
            doc.move_into(run, child);
        } else {
            run = Some(doc.wrap(child, Kind::Paragraph));
        }
    }
}
