//! Who wrote a document and when, as its text says that below the title.

use super::{Document, Kind, Node, NodeId, Step};

/// The class of the division that stands below a title and says who wrote the document, where they work, and when.
pub const BYLINE: &str = "byline";

impl Document {
    /// The division of the class [`BYLINE`] that stands next to a title, or behind the one paragraph below it.
    #[must_use]
    pub fn byline(&self, title: NodeId) -> Option<NodeId> {
        let mut next = self.node(title).next()?;
        if self.kind(next) == Kind::Paragraph {
            next = self.node(next).next()?;
        }
        if !matches!(self.kind(next), Kind::Division(_)) {
            return None;
        }
        let is_byline = self.is_of_class(next, BYLINE) && self.children(next).all(|child| self.kind(child) == Kind::Paragraph);
        is_byline.then_some(next)
    }

    /// The paragraph below a title that is the subtitle.
    pub(crate) fn subtitle(&self, title: NodeId) -> Option<NodeId> {
        let subtitle = self.metadata.subtitle.as_deref()?;
        let next = self.node(title).next().filter(|&next| self.kind(next) == Kind::Paragraph)?;
        self.plain_text(next).split_whitespace().eq(subtitle.split_whitespace()).then_some(next)
    }

    /// The byline that says nothing that the metadata does not say, too: outputs that show those need no other.
    pub(crate) fn repeated_byline(&self) -> Option<NodeId> {
        let is_division =
            |node: &Node| matches!(node.kind(), Kind::Division(_)) && node.has_attributes() && node.parent().is_some();
        let mut divisions = self.nodes().filter(|(_, node)| is_division(node));
        divisions.find_map(|(id, _)| self.is_repeated_byline(id).then_some(id))
    }

    fn is_repeated_byline(&self, division: NodeId) -> bool {
        let mut before = self.node(division).previous();
        before = before.and_then(|one| if self.kind(one) == Kind::Paragraph { self.node(one).previous() } else { Some(one) });
        let title = before.filter(|&title| matches!(self.kind(title), Kind::Heading(_)));
        if title.and_then(|title| self.byline(title)) != Some(division) {
            return false;
        }
        let metadata = &self.metadata;
        let known = metadata.authors.iter().map(String::as_str).chain(metadata.date.as_deref());
        let has_more = self
            .walk(division)
            .any(|step| matches!(step, Step::Enter(id) if matches!(self.kind(id), Kind::NoteReference(_) | Kind::Image { .. })));
        let said: Vec<String> = self.children(division).map(|child| self.plain_text(child).trim().to_owned()).collect();
        !has_more && said.iter().map(String::as_str).eq(known)
    }
}
