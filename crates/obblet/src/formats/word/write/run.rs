//! How a run of text looks, and where the writer stands in a line.

use super::super::model::annotations::Annotation;
use super::super::model::notes::NoteKind;
use super::super::model::properties::{CharacterProperties, Flag};
use crate::document::NodeId;

/// A tracked change.
#[derive(Clone, Debug, PartialEq, Eq)]
pub(super) struct Change {
    pub(super) is_deletion: bool,
    pub(super) by: Annotation,
}

/// How a run looks, and which of the tracked changes it is.
#[derive(Clone, Copy, Debug, Default, PartialEq, Eq)]
pub(super) struct Run {
    pub(super) properties: CharacterProperties,
    pub(super) change: Option<usize>,
}

impl Run {
    /// The same run with a flag, and what says the same of complex scripts.
    pub(super) fn with(mut self, flag: Flag) -> Self {
        self.properties.flags.set(flag, true);
        match flag {
            Flag::Bold => self.properties.flags.set(Flag::BoldComplex, true),
            Flag::Italic => self.properties.flags.set(Flag::ItalicComplex, true),
            _ => {}
        }
        self
    }
}

/// Which of the attributes of `lang` says a language (section 17.3.2.20).
#[derive(Clone, Copy, Debug, PartialEq, Eq)]
pub(super) enum Script {
    Plain,
    EastAsian,
    Complex,
}

impl Script {
    /// The script of a language, by its tag.
    pub(super) fn of(language: &str) -> Self {
        let main = language.split('-').next().unwrap_or_default().to_ascii_lowercase();
        match main.as_str() {
            "ja" | "zh" | "ko" | "yue" | "wuu" | "hak" | "nan" => Self::EastAsian,
            "ar" | "he" | "iw" | "fa" | "ur" | "yi" | "hi" | "mr" | "ne" | "bn" | "pa" | "gu" | "ta" | "te" | "kn" | "ml"
            | "si" | "th" | "lo" | "km" | "my" | "bo" | "dv" | "ps" | "sd" | "ug" | "syr" | "ckb" => Self::Complex,
            _ => Self::Plain,
        }
    }
}

/// The paragraph that is written.
#[derive(Clone, Copy, Debug, Default, PartialEq, Eq)]
pub(super) enum Paragraph {
    /// None is open.
    #[default]
    Closed,
    Open,
    /// One in which white space counts.
    Preformatted,
}

/// The last block in what holds blocks: cells, notes and the body have to end with a paragraph, and two tables in a row would be
/// one.
#[derive(Clone, Copy, Debug, Default, PartialEq, Eq)]
pub(super) enum Last {
    #[default]
    Nothing,
    Paragraph,
    Table,
}

/// Where the writer stands in a line of text.
#[derive(Debug, Default)]
pub(super) struct Line {
    pub(super) paragraph: Paragraph,
    /// Where the line ends with a space: one that goes where the line ends, and none follows it.
    pub(super) space: Option<usize>,
    /// Whether something stands in the line already that a space may follow.
    pub(super) has_text: bool,
    /// Whether the next paragraph begins with the mark of a note.
    pub(super) note_mark: Option<NoteKind>,
    /// What the last thing in the container is.
    pub(super) last: Last,
    /// The figure or the table whose label the caption begins with that is open.
    pub(super) label: Option<NodeId>,
    /// Bookmarks that begin where the next paragraph does.
    pub(super) waiting: Vec<usize>,
    /// Bookmarks that end where this paragraph does.
    pub(super) ending: Vec<usize>,
}
