//! What can only be done when all of a document is read, in the order in which it is done.

use super::Reader;
use crate::document::{DivisionKind, Kind, NodeId};

impl Reader<'_, '_> {
    pub(super) fn finish(&mut self) {
        self.drop_emptied();
        self.drop_rules_of_boxes();
        self.set_numbered_headings();
        self.resolve_headings();
        self.drop_callout_labels();
        self.open_descriptions();
        self.resolve_anchors();
        self.resolve_captions();
        self.resolve_comments();
        self.resolve_code();
        self.resolve_languages();
        self.resolve_directions();
        self.find_covered_links();
        self.report();
        self.report_document();
    }

    /// Items and lists that hold nothing any more.
    fn drop_emptied(&mut self) {
        for node in std::mem::take(&mut self.emptied) {
            let mut at = node;
            while self.doc.node(at).first_child().is_none()
                && matches!(self.doc.kind(at), Kind::ListItem { .. } | Kind::List(_) | Kind::BlockQuote)
            {
                let parent = self.doc.node(at).parent();
                self.doc.detach(at);
                let Some(parent) = parent else { break };
                at = parent;
            }
        }
    }

    /// The word at the top of a callout says what its style says.
    fn drop_callout_labels(&mut self) {
        for callout in std::mem::take(&mut self.callouts) {
            let Kind::Division(DivisionKind::Callout(kind)) = self.doc.kind(callout) else { continue };
            let first = self.doc.node(callout).first_child();
            if let Some(first) = first.filter(|&first| self.doc.plain_text(first).trim() == kind.word()) {
                self.doc.detach(first);
            }
        }
    }

    /// The only paragraph of a description is its text.
    fn open_descriptions(&mut self) {
        for description in std::mem::take(&mut self.descriptions) {
            let only = self.doc.node(description).first_child().filter(|&first| self.doc.node(first).next().is_none());
            let is_plain = |node: NodeId| self.doc.kind(node) == Kind::Paragraph && self.doc.attributes(node).is_empty();
            if let Some(only) = only.filter(|&only| is_plain(only)) {
                self.doc.unwrap(only);
            }
        }
    }

    pub(super) fn is_in_tree(&self, node: NodeId) -> bool {
        self.doc.node(node).parent().is_some()
    }

    fn resolve_comments(&mut self) {
        for (body, author) in std::mem::take(&mut self.comment_authors) {
            let Some(first) = self.doc.node(body).first_child().filter(|first| self.doc.kind(*first) == Kind::Paragraph) else {
                continue;
            };
            let text = self.doc.intern(&format!("{author}: "));
            let text = self.doc.create(Kind::Text(text));
            match self.doc.node(first).first_child() {
                Some(child) => self.doc.move_before(child, text),
                None => self.doc.move_into(first, text),
            }
            self.doc.join_texts(first);
        }
    }

    /// Code that holds nothing but text needs no node for it.
    fn resolve_code(&mut self) {
        for code in std::mem::take(&mut self.codes) {
            if let Some(only) = self.doc.node(code).first_child()
                && self.doc.node(only).next().is_none()
                && let Kind::Text(text) = self.doc.kind(only)
            {
                self.doc.detach(only);
                self.doc.set_kind(code, Kind::Code(text));
            }
        }
    }
}
