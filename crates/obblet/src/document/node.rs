//! Nodes, their names, and ranges of the string pool.

use super::{AttributesId, Kind, SourceMap};
use std::num::NonZeroU32;
use std::ops::Range;

/// The name of a node within its document. `Option<NodeId>` is as small as the number itself.
#[derive(Clone, Copy, Debug, PartialEq, Eq, Hash, PartialOrd, Ord)]
pub struct NodeId(NonZeroU32);

impl NodeId {
    /// The root of every document.
    pub const ROOT: Self = Self(NonZeroU32::MIN);

    #[inline]
    pub(super) const fn new(index: usize) -> Self {
        // An arena of 2^32 nodes would take 200 GB; the saturated name of one that is larger stays within it.
        Self(NonZeroU32::MIN.saturating_add(index as u32))
    }

    #[inline]
    pub(crate) const fn index(self) -> usize {
        self.0.get() as usize - 1
    }
}

/// A range of the document's string pool.
#[derive(Clone, Copy, Debug, Default, PartialEq, Eq, Hash)]
pub struct Text {
    /// Byte offset of the first byte.
    pub start: u32,
    /// Byte offset after the last byte.
    pub end: u32,
}

impl Text {
    /// No text.
    pub const EMPTY: Self = Self { start: 0, end: 0 };

    /// The range between two offsets, which the caller knows to be below 4 GiB.
    #[must_use]
    pub const fn between(start: usize, end: usize) -> Self {
        Self { start: start as u32, end: end as u32 }
    }

    /// Whether there is nothing in it.
    #[must_use]
    pub const fn is_empty(self) -> bool {
        self.start >= self.end
    }

    /// Length in bytes.
    #[must_use]
    pub const fn len(self) -> usize {
        self.end.saturating_sub(self.start) as usize
    }

    /// The range for slicing the pool.
    #[must_use]
    pub const fn range(self) -> Range<usize> {
        self.start as usize..self.end as usize
    }
}

/// One node: what it is, its neighbours, its attributes, and where it came from.
#[derive(Clone, Copy, Debug)]
pub struct Node {
    pub(super) kind: Kind,
    pub(super) parent: Option<NodeId>,
    pub(super) first: Option<NodeId>,
    pub(super) last: Option<NodeId>,
    pub(super) previous: Option<NodeId>,
    pub(super) next: Option<NodeId>,
    pub(super) attributes: AttributesId,
    pub(super) offset: u32,
    pub(super) end: u32,
}

impl Node {
    pub(super) const fn new(kind: Kind) -> Self {
        Self {
            kind,
            parent: None,
            first: None,
            last: None,
            previous: None,
            next: None,
            attributes: AttributesId::NONE,
            offset: SourceMap::UNKNOWN,
            end: SourceMap::UNKNOWN,
        }
    }

    /// What the node is.
    #[must_use]
    pub const fn kind(&self) -> Kind {
        self.kind
    }

    /// The node above.
    #[must_use]
    pub const fn parent(&self) -> Option<NodeId> {
        self.parent
    }

    /// The first node below.
    #[must_use]
    pub const fn first_child(&self) -> Option<NodeId> {
        self.first
    }

    /// The last node below.
    #[must_use]
    pub const fn last_child(&self) -> Option<NodeId> {
        self.last
    }

    /// The sibling before.
    #[must_use]
    pub const fn previous(&self) -> Option<NodeId> {
        self.previous
    }

    /// The sibling after.
    #[must_use]
    pub const fn next(&self) -> Option<NodeId> {
        self.next
    }

    /// Where in the source the node begins, in the units of the document's [`SourceMap`].
    #[must_use]
    pub const fn offset(&self) -> u32 {
        self.offset
    }

    /// Where in the source the node ends, in the same units.
    #[must_use]
    pub const fn end(&self) -> u32 {
        self.end
    }

    /// Whether the node has attributes.
    #[must_use]
    pub const fn has_attributes(&self) -> bool {
        self.attributes.index() != 0
    }
}

#[cfg(test)]
mod tests {
    use super::*;

    #[test]
    fn a_node_stays_small() {
        assert_eq!(size_of::<Option<NodeId>>(), 4);
        assert!(size_of::<Kind>() <= 20, "{}", size_of::<Kind>());
        assert!(size_of::<Node>() <= 52, "{}", size_of::<Node>());
    }
}
