//! Captions go to the images and tables that they belong to.

use super::Reader;
use crate::document::{Kind, NodeId};

impl Reader<'_, '_> {
    /// A caption belongs to the picture or the table beside it.
    pub(super) fn resolve_captions(&mut self) {
        for caption in std::mem::take(&mut self.captions) {
            if !self.is_in_tree(caption) || self.doc.kind(caption) != Kind::Paragraph {
                continue;
            }
            let (before, after) = (self.doc.node(caption).previous(), self.doc.node(caption).next());
            let exact = self.options.fidelity.is_exact();
            let is_table = |node: Option<NodeId>| node.filter(|node| self.doc.kind(*node) == Kind::Table);
            let is_picture = |node: Option<NodeId>| node.filter(|node| self.is_picture(*node));
            let has_caption =
                |table: NodeId| self.doc.node(table).first_child().is_some_and(|first| self.doc.kind(first) == Kind::Caption);
            if let Some(picture) = is_picture(before) {
                let figure = self.doc.wrap(picture, Kind::Figure);
                if exact {
                    self.doc.copy_attributes(picture, figure);
                }
                self.doc.unwrap(picture);
                self.doc.move_into(figure, caption);
                self.doc.set_kind(caption, Kind::Caption);
            } else if let Some(table) = is_table(after).filter(|table| !has_caption(*table)) {
                let first = self.doc.node(table).first_child();
                match first {
                    Some(first) => self.doc.move_before(first, caption),
                    None => self.doc.move_into(table, caption),
                }
                self.doc.set_kind(caption, Kind::Caption);
            } else if let Some(table) = is_table(before).filter(|table| !has_caption(*table)) {
                // Below the table, as in the source: the caption of a table stands above it.
                let figure = self.doc.wrap(table, Kind::Figure);
                if exact {
                    self.without_margins(figure);
                }
                self.doc.move_into(figure, caption);
                self.doc.set_kind(caption, Kind::Caption);
            } else if let Some(picture) = is_picture(after) {
                let figure = self.doc.wrap(picture, Kind::Figure);
                if exact {
                    self.doc.copy_attributes(picture, figure);
                }
                self.doc.unwrap(picture);
                let first = self.doc.node(figure).first_child();
                if let Some(first) = first {
                    self.doc.move_before(first, caption);
                }
                self.doc.set_kind(caption, Kind::Caption);
            }
        }
    }

    /// Whether a paragraph is nothing but a picture or several.
    pub(super) fn is_picture(&self, node: NodeId) -> bool {
        self.doc.kind(node) == Kind::Paragraph
            && self.doc.node(node).first_child().is_some()
            && self.doc.children(node).all(|child| match self.doc.kind(child) {
                Kind::Image { .. } => true,
                Kind::Text(text) => self.doc.text(text).trim().is_empty(),
                Kind::Anchor | Kind::LineBreak => true,
                _ => false,
            })
            && self.doc.children(node).any(|child| matches!(self.doc.kind(child), Kind::Image { .. }))
    }
}
