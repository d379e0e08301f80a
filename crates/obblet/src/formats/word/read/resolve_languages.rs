//! The language of the document, and of what is in another.

use super::super::model::properties::Name;
use super::Reader;
use crate::document::Kind;

impl Reader<'_, '_> {
    /// The language of most of the text is that of the document. A paragraph that is all in another says so itself.
    pub(super) fn resolve_languages(&mut self) {
        let of = |name: Name| self.languages.get(usize::from(name)).copied().unwrap_or(0);
        let known = (0..self.languages.len()).map(|name| name as Name).filter(|name| of(*name) > 0);
        let most = known.max_by_key(|name| (of(*name), std::cmp::Reverse(*name)));
        let all: usize = self.languages.iter().sum();
        let main = match (self.main_language, most) {
            (Some(main), Some(most)) if of(most) * 10 < all * 6 => Some(main),
            (main, most) => most.or(main),
        };
        if let Some(main) = main {
            let tag = self.names.name(main).replace('_', "-");
            self.doc.metadata.language = Some(tag).filter(|tag| !tag.starts_with('x') && !tag.is_empty());
        }
        for (span, name) in std::mem::take(&mut self.language_spans) {
            if !self.is_in_tree(span) {
                continue;
            }
            if main.is_some_and(|main| crate::language_tag::is_same(self.names.name(main), self.names.name(name))) {
                self.doc.unwrap(span);
                continue;
            }
            let only = self.doc.node(span).previous().is_none() && self.doc.node(span).next().is_none();
            let parent = self.doc.node(span).parent().filter(|_| only);
            if let Some(parent) =
                parent.filter(|parent| !self.doc.kind(*parent).is_inline() && self.doc.kind(*parent) != Kind::Root)
            {
                let language = self.doc.attributes(span).language;
                let only = self.doc.node(parent).previous().is_none() && self.doc.node(parent).next().is_none();
                let item = self.doc.node(parent).parent().filter(|item| {
                    only && matches!(self.doc.kind(*item), Kind::ListItem { .. } | Kind::Cell(_) | Kind::BlockQuote)
                });
                self.doc.attributes_mut(item.unwrap_or(parent)).language = language;
                self.doc.unwrap(span);
            }
        }
    }
}
