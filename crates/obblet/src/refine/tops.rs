use crate::document::{Document, NodeId};

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
