//! Which kinds of nodes a document may hold, so that passes over it know when there is nothing for them.

use super::Kind;

/// A set of kinds. It grows with every node that is made and never shrinks: what is not in it is not in the document.
#[derive(Clone, Copy, Debug, Default, PartialEq, Eq)]
pub(crate) struct KindSet(u16);

impl KindSet {
    /// Insertions and deletions.
    pub(crate) const REVISIONS: Self = Self(1);
    /// Tables.
    pub(crate) const TABLES: Self = Self(1 << 1);
    /// Lists.
    pub(crate) const LISTS: Self = Self(1 << 2);
    /// Anchors and spans, which may be no more than places.
    pub(crate) const PLACES: Self = Self(1 << 3);
    /// Pictures.
    pub(crate) const PICTURES: Self = Self(1 << 4);
    /// Line breaks.
    pub(crate) const LINE_BREAKS: Self = Self(1 << 5);
    /// Strong text.
    pub(crate) const STRONG: Self = Self(1 << 6);
    /// Links.
    pub(crate) const LINKS: Self = Self(1 << 7);
    /// Raw markup.
    pub(crate) const RAW: Self = Self(1 << 8);
    /// Code within a line.
    pub(crate) const CODE: Self = Self(1 << 9);

    /// What a node of a kind adds.
    #[inline]
    pub(super) const fn of(kind: &Kind) -> Self {
        match kind {
            Kind::Insertion | Kind::Deletion => Self::REVISIONS,
            Kind::Table => Self::TABLES,
            Kind::List(_) => Self::LISTS,
            Kind::Anchor | Kind::Span => Self::PLACES,
            Kind::Image { .. } => Self::PICTURES,
            Kind::LineBreak => Self::LINE_BREAKS,
            Kind::Strong => Self::STRONG,
            Kind::Link { .. } => Self::LINKS,
            Kind::Code(_) => Self::CODE,
            Kind::Raw { .. } | Kind::RawBlock { .. } => Self::RAW,
            _ => Self(0),
        }
    }

    /// Both sets together.
    #[inline]
    #[must_use]
    pub(crate) const fn and(self, other: Self) -> Self {
        Self(self.0 | other.0)
    }

    /// Whether one of these kinds is in the set.
    #[inline]
    pub(crate) const fn has_any(self, kinds: Self) -> bool {
        self.0 & kinds.0 != 0
    }
}
