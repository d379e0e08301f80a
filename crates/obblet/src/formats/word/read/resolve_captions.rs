//! Captions go to the images and tables that they belong to.

use super::resolve::is_in_tree;
use super::style_classes::Looks;
use crate::document::{Document, Kind, NodeId};

/// A caption belongs to the picture or the table beside it.
pub(super) fn resolve_captions(captions: &[NodeId], doc: &mut Document, mut looks: Option<&mut Looks>) {
    for &caption in captions {
        if !is_in_tree(doc, caption) || doc.kind(caption) != Kind::Paragraph {
            continue;
        }
        let (before, after) = (doc.node(caption).previous(), doc.node(caption).next());
        let is_table = |node: Option<NodeId>| node.filter(|node| doc.kind(*node) == Kind::Table);
        let is_picture = |node: Option<NodeId>| node.filter(|node| is_picture(doc, *node));
        let has_caption = |table: NodeId| doc.node(table).first_child().is_some_and(|first| doc.kind(first) == Kind::Caption);
        if let Some(picture) = is_picture(before) {
            let figure = doc.wrap(picture, Kind::Figure);
            if looks.is_some() {
                doc.copy_attributes(picture, figure);
            }
            doc.unwrap(picture);
            doc.move_into(figure, caption);
            doc.set_kind(caption, Kind::Caption);
        } else if let Some(table) = is_table(after).filter(|table| !has_caption(*table)) {
            let first = doc.node(table).first_child();
            match first {
                Some(first) => doc.move_before(first, caption),
                None => doc.move_into(table, caption),
            }
            doc.set_kind(caption, Kind::Caption);
        } else if let Some(table) = is_table(before).filter(|table| !has_caption(*table)) {
            // Below the table, as in the source: the caption of a table stands above it.
            let figure = doc.wrap(table, Kind::Figure);
            if let Some(looks) = looks.as_deref_mut() {
                looks.without_margins(doc, figure);
            }
            doc.move_into(figure, caption);
            doc.set_kind(caption, Kind::Caption);
        } else if let Some(picture) = is_picture(after) {
            let figure = doc.wrap(picture, Kind::Figure);
            if looks.is_some() {
                doc.copy_attributes(picture, figure);
            }
            doc.unwrap(picture);
            let first = doc.node(figure).first_child();
            if let Some(first) = first {
                doc.move_before(first, caption);
            }
            doc.set_kind(caption, Kind::Caption);
        }
    }
}

/// Whether a paragraph is nothing but a picture or several.
pub(super) fn is_picture(doc: &Document, node: NodeId) -> bool {
    doc.kind(node) == Kind::Paragraph
        && doc.node(node).first_child().is_some()
        && doc.children(node).all(|child| match doc.kind(child) {
            Kind::Image { .. } => true,
            Kind::Text(text) => doc.text(text).trim().is_empty(),
            Kind::Anchor | Kind::LineBreak => true,
            _ => false,
        })
        && doc.children(node).any(|child| matches!(doc.kind(child), Kind::Image { .. }))
}
