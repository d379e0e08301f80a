//! What word processors know of a document beside its text: who changed and remarked what, styles as they are defined, how lists
//! are numbered, and on what pages the text stands. Readers fill these tables whatever becomes of the things in the tree.

use super::{NodeId, StyleProperties};

/// What a tracked change did.
#[derive(Clone, Copy, Debug, PartialEq, Eq, Hash)]
pub enum RevisionKind {
    /// It put text in.
    Insertion,
    /// It took text out.
    Deletion,
    /// It put text here that stood elsewhere.
    MoveTo,
    /// It took text from here that stands elsewhere.
    MoveFrom,
}

impl RevisionKind {
    /// Its name, for people.
    #[must_use]
    pub const fn name(self) -> &'static str {
        match self {
            Self::Insertion => "insertion",
            Self::Deletion => "deletion",
            Self::MoveTo => "move-to",
            Self::MoveFrom => "move-from",
        }
    }
}

/// A tracked change. The node that it is known of is a [`Kind::Insertion`](super::Kind::Insertion) or a
/// [`Kind::Deletion`](super::Kind::Deletion), as long as the change is neither accepted nor rejected.
#[derive(Clone, Debug, PartialEq, Eq)]
pub struct Revision {
    /// What it did.
    pub kind: RevisionKind,
    /// Who made it; empty where that is not known.
    pub author: String,
    /// When, as the source writes it; empty where that is not known.
    pub date: String,
}

/// A comment of a reviewer.
#[derive(Clone, Debug, Default, PartialEq, Eq)]
pub struct Comment {
    /// Who wrote it; empty where that is not known.
    pub author: String,
    /// When, as the source writes it; empty where that is not known.
    pub date: String,
    /// What it says, in one line.
    pub text: String,
    /// The text that it is about, in one line; empty where it is about a place.
    pub about: String,
    /// The offsets between which that text stands, in the units of [`Document::source`](super::Document::source).
    pub range: (u32, u32),
}

/// What a style is for.
#[derive(Clone, Copy, Debug, Default, PartialEq, Eq, Hash)]
pub enum StyleUse {
    /// Paragraphs.
    #[default]
    Paragraph,
    /// Text.
    Character,
    /// Tables.
    Table,
    /// Lists.
    List,
}

/// A style as the source defines it.
#[derive(Clone, Debug, Default, PartialEq, Eq)]
pub struct StyleDefinition {
    /// Its name for programs.
    pub id: String,
    /// Its name for people.
    pub name: String,
    /// What it is for.
    pub applies_to: StyleUse,
    /// The id of the style whose properties it has where it sets none of its own; empty where there is none.
    pub based_on: String,
    /// The id of the style of the paragraph behind one of it; empty where that is the same.
    pub next: String,
    /// The level of heading that its paragraphs are, from 1; `None` for text.
    pub outline_level: Option<u8>,
    /// What it sets beyond the style that it is based on, where the looks of the source are read.
    pub properties: StyleProperties,
}

/// How the items of a list are numbered.
#[derive(Clone, Debug, Default, PartialEq, Eq)]
pub struct ListNumbering {
    /// The number of its definition: lists of the same one count on.
    pub definition: u32,
    /// How deep it stands in that, from 0.
    pub level: u8,
    /// What stands before an item: `%1` is the number of the first level.
    pub text: String,
}

impl ListNumbering {
    /// What stands before and behind the number of an item; nothing where it shows the number of another level, too.
    pub(crate) fn around(&self) -> Option<(&str, &str)> {
        let (before, after) = self.text.split_once('%')?;
        let after = after.strip_prefix(char::from(b'1' + self.level.min(8)))?;
        (!after.contains('%')).then_some((before, after))
    }

    /// Whether letters stand around the number.
    pub(crate) fn has_words(&self) -> bool {
        self.text.contains(char::is_alphabetic)
    }
}

/// A part of a document that stands on pages of one kind. Lengths are twentieths of a point; 0 where they are not known.
#[derive(Clone, Debug, Default, PartialEq, Eq)]
pub struct Section {
    /// The last block of it.
    pub last: Option<NodeId>,
    /// Width and height of the pages.
    pub page: (i32, i32),
    /// The margins: top, right, bottom, left.
    pub margins: [i32; 4],
    /// How many columns the text is set in.
    pub columns: u16,
    /// The space between columns.
    pub gap: i32,
    /// Whether it begins on the page on which the one before it ends.
    pub is_continuous: bool,
    /// The paths of the parts that hold its headers and footers.
    pub parts: Vec<String>,
    /// What stands above and below the text of its pages, where that is kept; a section without has that of the one before it.
    pub around: Vec<PageText>,
}

/// Where on a page something stands.
#[derive(Clone, Copy, Debug, PartialEq, Eq, Hash)]
pub enum PagePlace {
    /// Above the text.
    Top,
    /// Below the text.
    Foot,
}

/// On which pages of a section something stands.
#[derive(Clone, Copy, Debug, PartialEq, Eq, Hash)]
pub enum Pages {
    /// On all, or those that have nothing of their own.
    All,
    /// On the first one.
    First,
    /// On those with even numbers.
    Even,
}

/// What stands above or below the text of pages.
#[derive(Clone, Copy, Debug, PartialEq, Eq)]
pub struct PageText {
    /// Where it stands.
    pub place: PagePlace,
    /// On which pages.
    pub pages: Pages,
    /// The node that holds it, apart from the tree.
    pub body: NodeId,
}
