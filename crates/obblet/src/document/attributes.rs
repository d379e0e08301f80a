//! What a node may carry beside its kind.

use super::{Direction, Text};
use smallvec::SmallVec;

/// The name of a set of attributes within its document.
#[derive(Clone, Copy, Debug, Default, PartialEq, Eq)]
pub struct AttributesId(u32);

impl AttributesId {
    pub(super) const NONE: Self = Self(0);

    pub(super) fn new(index: usize) -> Self {
        Self(u32::try_from(index).unwrap_or(0))
    }

    pub(super) const fn index(self) -> usize {
        self.0 as usize
    }
}

/// Attributes of a node: what HTML calls global attributes, and others by name.
#[derive(Clone, Debug, Default, PartialEq, Eq)]
pub struct Attributes {
    /// What links lead to; unique in a document that is well made.
    pub id: Option<Text>,
    /// Classes, in order.
    pub classes: SmallVec<[Text; 1]>,
    /// The language of the content, as a BCP 47 tag.
    pub language: Option<Text>,
    /// The direction of the content.
    pub direction: Option<Direction>,
    /// The title: a text that is shown when a pointer rests on the node.
    pub title: Option<Text>,
    /// Other attributes that the node's HTML element has, by their names there.
    pub other: Vec<(Text, Text)>,
}

impl Attributes {
    /// Whether there is nothing in it.
    #[must_use]
    pub fn is_empty(&self) -> bool {
        *self == Self::default()
    }
}
