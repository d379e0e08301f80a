//! Where in a source something stands.

use std::fmt;
use std::sync::{Arc, Mutex, OnceLock};

/// A place in a source, as people name it.
#[derive(Clone, Copy, Debug, Default, PartialEq, Eq, Hash, PartialOrd, Ord)]
#[cfg_attr(feature = "serde", derive(serde::Serialize))]
#[cfg_attr(feature = "serde", serde(untagged))]
pub enum Place {
    /// Not known, or nowhere in particular.
    #[default]
    Unknown,
    /// A line and a column, both from 1; columns count characters.
    Line {
        /// The line.
        line: u32,
        /// The character within the line.
        column: u32,
    },
    /// A paragraph of a part, from 1.
    Paragraph {
        /// The name of the part; empty for the text itself.
        part: &'static str,
        /// The paragraph.
        paragraph: u32,
    },
}

/// The parts of documents that have any, as places name them; the first is the text itself.
pub const PARTS: [&str; 6] = ["", "footnotes", "endnotes", "header", "footer", "comments"];

#[cfg(feature = "serde")]
impl<'de> serde::Deserialize<'de> for Place {
    fn deserialize<D: serde::Deserializer<'de>>(deserializer: D) -> Result<Self, D::Error> {
        #[derive()]
        #[cfg_attr(feature = "serde", derive(serde::Deserialize))]
        struct Fields {
            line: Option<u32>,
            column: Option<u32>,
            part: Option<String>,
            paragraph: Option<u32>,
        }
        let fields = Option::<Fields>::deserialize(deserializer)?;
        Ok(match fields {
            Some(Fields { line: Some(line), column: Some(column), .. }) => Self::Line { line, column },
            Some(Fields { part, paragraph: Some(paragraph), .. }) => {
                let part = part.and_then(|part| PARTS.into_iter().find(|known| *known == part)).unwrap_or_default();
                Self::Paragraph { part, paragraph }
            }
            _ => Self::Unknown,
        })
    }
}

impl fmt::Display for Place {
    fn fmt(&self, f: &mut fmt::Formatter<'_>) -> fmt::Result {
        match self {
            Self::Unknown => Ok(()),
            Self::Line { line, column } => write!(f, "{line}:{column}"),
            Self::Paragraph { part: "", paragraph } => write!(f, "paragraph {paragraph}"),
            Self::Paragraph { part, paragraph } => write!(f, "{part}, paragraph {paragraph}"),
        }
    }
}

/// Tells places from offsets.
///
/// The pool of a document that was read from text begins with that text. Where a reader joins lines whose indentation or
/// quote marks are not content, it puts a copy behind it and says here where each piece of the copy came from.
#[derive(Clone, Debug, Default)]
pub struct SourceMap {
    source_length: u32,
    has_lines: bool,
    is_lines: bool,
    /// Where an offset is the number of a paragraph, the names of the parts.
    parts: &'static [&'static str],
    pieces: Vec<(u32, u32)>,
    lines: OnceLock<Arc<Lines>>,
}

#[derive(Debug)]
struct Lines {
    starts: Vec<u32>,
    // Findings mostly come in the order of the source; going on from the last one keeps long lines linear.
    last: Mutex<(u32, u32)>,
}

impl SourceMap {
    /// The offset of what has no place.
    pub const UNKNOWN: u32 = u32::MAX;

    /// The map of a source of so many bytes that stands at the beginning of the pool.
    #[must_use]
    pub fn of_text(length: usize) -> Self {
        Self { source_length: u32::try_from(length).unwrap_or(u32::MAX), has_lines: true, ..Self::default() }
    }

    /// The map of a source of which only lines are known: an offset is the number of a line, from 1.
    #[must_use]
    pub fn of_lines() -> Self {
        Self { is_lines: true, ..Self::default() }
    }

    /// The numbers of paragraphs of a part follow those of the one before it at this distance.
    pub const PART_SIZE: u32 = 1 << 28;

    /// The map of a source that has parts with paragraphs: an offset is the number of a paragraph from 1, and so many times
    /// [`Self::PART_SIZE`] as there are parts before its own.
    #[must_use]
    pub fn of_parts(parts: &'static [&'static str]) -> Self {
        Self { parts, ..Self::default() }
    }

    /// Says that the pool from offset `copy` on is a copy of the source from offset `original` on.
    pub fn add_piece(&mut self, copy: u32, original: u32) {
        self.pieces.push((copy, original));
    }

    /// The offset in the source of an offset in the pool.
    #[must_use]
    pub fn original(&self, offset: u32) -> u32 {
        if offset < self.source_length {
            return offset;
        }
        let after = self.pieces.partition_point(|&(copy, _)| copy <= offset);
        match after.checked_sub(1).and_then(|index| self.pieces.get(index)) {
            Some(&(copy, original)) => (original + (offset - copy)).min(self.source_length),
            None => self.source_length.min(offset),
        }
    }

    /// The place of an offset in the pool.
    #[must_use]
    pub fn place(&self, pool: &str, offset: u32) -> Place {
        if !self.parts.is_empty() && offset != Self::UNKNOWN {
            let part = self.parts.get((offset / Self::PART_SIZE) as usize).copied().unwrap_or_default();
            return Place::Paragraph { part, paragraph: (offset % Self::PART_SIZE).max(1) };
        }
        if self.is_lines && offset != Self::UNKNOWN {
            return Place::Line { line: offset, column: 1 };
        }
        if offset == Self::UNKNOWN || !self.has_lines {
            return Place::Unknown;
        }
        let source = pool.get(..self.source_length as usize).unwrap_or_default();
        let mut at = (self.original(offset) as usize).min(source.len());
        while !source.is_char_boundary(at) {
            at -= 1;
        }
        let lines = self.lines.get_or_init(|| {
            let starts = std::iter::once(0)
                .chain(memchr::memchr_iter(b'\n', source.as_bytes()).map(|newline| newline as u32 + 1))
                .collect();
            Arc::new(Lines { starts, last: Mutex::new((0, 0)) })
        });
        let line = lines.starts.partition_point(|&start| start as usize <= at).max(1);
        let start = lines.starts.get(line - 1).map_or(0, |&start| start as usize);
        let mut last = lines.last.lock().unwrap_or_else(std::sync::PoisonError::into_inner);
        let (known, characters) = *last;
        let column = if (known as usize) >= start && (known as usize) <= at {
            characters + source[known as usize..at].chars().count() as u32
        } else {
            source[start..at].chars().count() as u32
        };
        *last = (at as u32, column);
        Place::Line { line: line as u32, column: column + 1 }
    }
}

#[cfg(test)]
mod tests {
    use super::*;

    #[test]
    fn places_are_lines_and_characters() {
        let source = "é a\nb 潮 c\n";
        let pool = format!("{source}a b");
        let mut map = SourceMap::of_text(source.len());
        map.add_piece(source.len() as u32, 3);
        map.add_piece(source.len() as u32 + 2, 5);
        let place = |offset: usize| map.place(&pool, offset as u32).to_string();
        assert_eq!((place(0), place(3), place(5)), ("1:1".into(), "1:3".into(), "2:1".into()));
        assert_eq!(place(source.find('c').unwrap()), "2:5");
        // Copies are where their originals are, and offsets may come in any order.
        assert_eq!((place(source.len()), place(source.len() + 2), place(3)), ("1:3".into(), "2:1".into(), "1:3".into()));
        assert_eq!(map.place(&pool, SourceMap::UNKNOWN), Place::Unknown);
        assert_eq!(SourceMap::default().place("", 0), Place::Unknown);
        assert_eq!(SourceMap::of_lines().place("", 7).to_string(), "7:1");
    }
}
