//! The language of the document, and of what is in another.

use super::super::model::properties::{Name, Names};
use super::resolve::is_in_tree;
use crate::document::{Document, Kind, NodeId};

/// Languages of text, and its direction.
#[derive(Debug, Default)]
pub(super) struct Languages {
    /// How much text is in each, by the number of its tag.
    pub(super) counts: Vec<usize>,
    /// What the document says it is in.
    pub(super) main: Option<Name>,
    /// Nodes of text that is in another.
    pub(super) spans: Vec<(NodeId, Name)>,
    /// How many paragraphs run from right to left.
    pub(super) right_to_left: u32,
    /// Whether a table has its first column on the right.
    pub(super) tables_run_left: bool,
}

impl Languages {
    /// The language of most of the text is that of the document. A paragraph that is all in another says so itself.
    pub(super) fn resolve(&mut self, doc: &mut Document, names: &Names) {
        let of = |name: Name| self.counts.get(usize::from(name)).copied().unwrap_or(0);
        let known = (0..self.counts.len()).map(|name| name as Name).filter(|name| of(*name) > 0);
        let most = known.max_by_key(|name| (of(*name), std::cmp::Reverse(*name)));
        let all: usize = self.counts.iter().sum();
        let main = match (self.main, most) {
            (Some(main), Some(most)) if of(most) * 10 < all * 6 => Some(main),
            (main, most) => most.or(main),
        };
        if let Some(main) = main {
            let tag = names.name(main).replace('_', "-");
            doc.metadata.language = Some(tag).filter(|tag| !tag.starts_with('x') && !tag.is_empty());
        }
        for (span, name) in std::mem::take(&mut self.spans) {
            if !is_in_tree(doc, span) {
                continue;
            }
            if main.is_some_and(|main| crate::language_tag::is_same(names.name(main), names.name(name))) {
                doc.unwrap(span);
                continue;
            }
            let only = doc.node(span).previous().is_none() && doc.node(span).next().is_none();
            let parent = doc.node(span).parent().filter(|_| only);
            if let Some(parent) = parent.filter(|parent| !doc.kind(*parent).is_inline() && doc.kind(*parent) != Kind::Root) {
                let language = doc.attributes(span).language;
                let only = doc.node(parent).previous().is_none() && doc.node(parent).next().is_none();
                let item = doc
                    .node(parent)
                    .parent()
                    .filter(|item| only && matches!(doc.kind(*item), Kind::ListItem { .. } | Kind::Cell(_) | Kind::BlockQuote));
                doc.attributes_mut(item.unwrap_or(parent)).language = language;
                doc.unwrap(span);
            }
        }
    }
}
