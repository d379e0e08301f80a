//! What can only be done when all of a document is read, in the order in which it is done.

use super::Reader;
use super::resolve_captions::resolve_captions;
use crate::document::{DivisionKind, Document, Kind, NodeId};

/// Nodes that are not done when they end.
#[derive(Debug, Default)]
pub(super) struct Unfinished {
    /// Code within lines.
    pub(super) codes: Vec<NodeId>,
    pub(super) callouts: Vec<NodeId>,
    /// Descriptions of terms.
    pub(super) descriptions: Vec<NodeId>,
    pub(super) captions: Vec<NodeId>,
    /// What a block was taken out of.
    pub(super) emptied: Vec<NodeId>,
}

impl Reader<'_, '_> {
    pub(super) fn finish(&mut self) {
        let unfinished = std::mem::take(&mut self.unfinished);
        let keeps_numbers = self.keeps_heading_numbers();
        let doc = &mut self.doc;
        drop_emptied(doc, &unfinished.emptied);
        self.looks.boxes.drop_rules(doc);
        self.headings.find_numbered(doc, keeps_numbers);
        self.headings.resolve(doc, self.options.settings.heading_numbers);
        drop_callout_labels(doc, &unfinished.callouts);
        open_descriptions(doc, &unfinished.descriptions);
        std::mem::take(&mut self.anchors).resolve(doc, self.options.external);
        resolve_captions(&unfinished.captions, doc, self.options.fidelity.is_exact().then_some(&mut self.looks));
        self.reviews.name_authors(doc);
        resolve_code(doc, &unfinished.codes);
        self.languages.resolve(doc, &self.model.names);
        self.resolve_directions();
        for (place, address) in self.links.covered() {
            self.diagnostics.covered_links.add_apart(place, address);
        }
        self.report();
        self.report_document();
    }
}

/// Items and lists that hold nothing any more.
fn drop_emptied(doc: &mut Document, emptied: &[NodeId]) {
    for &node in emptied {
        let mut at = node;
        while doc.node(at).first_child().is_none()
            && matches!(doc.kind(at), Kind::ListItem { .. } | Kind::List(_) | Kind::BlockQuote)
        {
            let parent = doc.node(at).parent();
            doc.detach(at);
            let Some(parent) = parent else { break };
            at = parent;
        }
    }
}

/// The word at the top of a callout says what its style says.
fn drop_callout_labels(doc: &mut Document, callouts: &[NodeId]) {
    for &callout in callouts {
        let Kind::Division(DivisionKind::Callout(kind)) = doc.kind(callout) else { continue };
        let first = doc.node(callout).first_child();
        if let Some(first) = first.filter(|&first| doc.plain_text(first).trim() == kind.word()) {
            doc.detach(first);
        }
    }
}

/// The only paragraph of a description is its text.
fn open_descriptions(doc: &mut Document, descriptions: &[NodeId]) {
    for &description in descriptions {
        let only = doc.node(description).first_child().filter(|&first| doc.node(first).next().is_none());
        let is_plain = |node: NodeId| doc.kind(node) == Kind::Paragraph && doc.attributes(node).is_empty();
        if let Some(only) = only.filter(|&only| is_plain(only)) {
            doc.unwrap(only);
        }
    }
}

pub(super) fn is_in_tree(doc: &Document, node: NodeId) -> bool {
    doc.node(node).parent().is_some()
}

/// Code that holds nothing but text needs no node for it.
fn resolve_code(doc: &mut Document, codes: &[NodeId]) {
    for &code in codes {
        if let Some(only) = doc.node(code).first_child()
            && doc.node(only).next().is_none()
            && let Kind::Text(text) = doc.kind(only)
        {
            doc.detach(only);
            doc.set_kind(code, Kind::Code(text));
        }
    }
}
