//! Text directly in cells and items, as people would have written it.

use crate::document::{Document, Kind, KindSet, ListKind, NodeId, Step};

/// The only paragraph of a cell becomes its text; lists of which each item has one paragraph become tight.
pub fn open(doc: &mut Document) {
    if !doc.may_hold(KindSet::TABLES.and(KindSet::LISTS)) {
        return;
    }
    let bare = |doc: &Document, id: NodeId| doc.kind(id) == Kind::Paragraph && doc.attributes(id).is_empty();
    for root in doc.roots() {
        let found: Vec<NodeId> = doc
            .walk(root)
            .filter_map(|step| match step {
                Step::Leave(id) if matches!(doc.kind(id), Kind::Cell(_) | Kind::List(_)) => Some(id),
                _ => None,
            })
            .collect();
        for id in found {
            if let Kind::List(list) = doc.kind(id) {
                let lone = doc.children(id).all(|item| {
                    let mut children = doc.children(item);
                    children.next().is_none_or(|first| bare(doc, first) || doc.kind(first).is_inline())
                        && children.all(|child| matches!(doc.kind(child), Kind::List(_)))
                });
                if lone && !list.tight {
                    doc.set_kind(id, Kind::List(ListKind { tight: true, ..list }));
                }
            } else if let Some(only) =
                doc.node(id).first_child().filter(|&only| doc.node(only).next().is_none() && bare(doc, only))
            {
                doc.unwrap(only);
            }
        }
    }
}
