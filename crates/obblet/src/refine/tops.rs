use crate::document::{Document, NodeId};

/// The trees of a document: its own, and those of its notes.
pub(crate) fn tops(doc: &Document) -> Vec<NodeId> {
    std::iter::once(doc.root()).chain(doc.notes.iter().map(|note| note.body)).collect()
}
