//! Annotations: comments and tracked changes, which say who made them and when in the same way (ECMA-376, part 1, section
//! 17.13).

use super::super::dates::date_and_time;
use super::super::printer::Printer;
use super::super::xml::Element;
use crate::document::RevisionKind;

/// No name of an author is longer than that.
const LONGEST_AUTHOR: usize = 255;

/// Who made an annotation, and when.
#[derive(Clone, Debug, Default, PartialEq, Eq)]
pub(in crate::formats::word) struct Annotation {
    pub(in crate::formats::word) author: String,
    /// As it stands in the document.
    pub(in crate::formats::word) date: String,
}

impl Annotation {
    pub(in crate::formats::word) fn read(element: &Element<'_>) -> Self {
        let text = |name: &[u8]| element.get(name).unwrap_or_default().into_owned();
        Self { author: text(b"author"), date: text(b"date") }
    }

    /// Writes the attributes of the element that was opened last: a number, the author, and the date where it is one.
    pub(in crate::formats::word) fn print(&self, number: usize, out: &mut Printer) {
        out.number("w:id", number as i64).attribute("w:author", self.name());
        if let Some(date) = date_and_time(&self.date) {
            out.attribute("w:date", &date);
        }
    }

    /// The author, whom the format asks for.
    pub(in crate::formats::word) fn name(&self) -> &str {
        if self.author.is_empty() {
            return "Unknown";
        }
        let end = self.author.char_indices().nth(LONGEST_AUTHOR).map_or(self.author.len(), |(end, _)| end);
        &self.author[..end]
    }

    /// The first letters of the names of the author.
    pub(in crate::formats::word) fn initials(&self) -> String {
        self.name().split_whitespace().filter_map(|word| word.chars().next()).take(3).collect()
    }
}

/// The tracked change that an element is, by its local name.
pub(in crate::formats::word) fn change_of(local: &[u8]) -> Option<RevisionKind> {
    match local {
        b"ins" => Some(RevisionKind::Insertion),
        b"del" => Some(RevisionKind::Deletion),
        b"moveTo" => Some(RevisionKind::MoveTo),
        b"moveFrom" => Some(RevisionKind::MoveFrom),
        _ => None,
    }
}

/// Whether a change takes its text out.
pub(in crate::formats::word) const fn takes_out(kind: RevisionKind) -> bool {
    matches!(kind, RevisionKind::Deletion | RevisionKind::MoveFrom)
}
