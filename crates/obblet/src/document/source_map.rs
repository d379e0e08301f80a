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

/// A range of the bytes of a source.
#[derive(Clone, Copy, Debug, PartialEq, Eq, Hash)]
pub struct Span {
    /// The part of the source, as an index into [`SourceMap::parts`].
    pub part: usize,
    /// Its first byte.
    pub start: u32,
    /// The byte behind its last one.
    pub end: u32,
}

impl Span {
    /// The range for slicing the part.
    #[must_use]
    pub const fn range(self) -> std::ops::Range<usize> {
        self.start as usize..self.end as usize
    }
}

/// Text that a reader took in from another file: where it is in the text as it was read, and the line of the source that asks
/// for it.
#[derive(Clone, Copy, Debug, PartialEq, Eq)]
pub struct Inclusion {
    /// Its first byte in the text as it was read.
    pub start: u32,
    /// The byte behind its last one there.
    pub end: u32,
    /// The first byte of the line that asks for it, in the source.
    pub at: u32,
    /// The byte behind that line.
    pub behind: u32,
}

/// A part of a source: the whole file, or one of the files of a package.
#[derive(Clone, Debug, Default)]
pub struct SourcePart {
    /// Its name, as places have it; empty for the text itself.
    pub name: &'static str,
    /// Its path within a package; empty where the source is one file.
    pub path: String,
    /// How many bytes it has.
    pub length: u32,
    /// The offset of its first byte.
    base: u32,
    /// Where its paragraphs begin, in its bytes; of text, lines are found when somebody asks.
    paragraphs: Vec<u32>,
    /// The text, where it does not stand at the beginning of the pool.
    text: Option<Arc<str>>,
    /// Where bytes of the source and bytes of the text as it was read part: an offset in each, from which on they run together.
    shifts: Vec<(u32, u32)>,
    /// Text of other files, in its order; it is part of the text as it was read.
    inclusions: Vec<Inclusion>,
    lines: OnceLock<Arc<Lines>>,
}

/// Tells places from offsets.
///
/// An offset counts bytes of the source as text: from the beginning of the pool in a document that was read from text that
/// stands there, else from the beginning of the first part, on through all of them. Where a reader joins lines whose indentation
/// or quote marks are not content, it puts a copy behind the text and says here where each piece of the copy came from.
#[derive(Clone, Debug, Default)]
pub struct SourceMap {
    parts: Vec<SourcePart>,
    pieces: Vec<(u32, u32)>,
    /// Files that the source includes, by their paths from the root, whether they are there or not.
    pub includes: Vec<std::path::PathBuf>,
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
        let length = u32::try_from(length).unwrap_or(u32::MAX);
        Self { parts: vec![SourcePart { length, ..SourcePart::default() }], ..Self::default() }
    }

    /// The map of a source whose text is not in the pool.
    #[must_use]
    pub fn of_source(text: &str) -> Self {
        let mut map = Self::of_text(text.len());
        map.parts[0].text = Some(Arc::from(text));
        map
    }

    /// Says what bytes the text of the source was read from.
    #[must_use]
    pub(crate) fn read_from(mut self, bytes: &[u8], text: &str) -> Self {
        if let Some(part) = self.parts.first_mut()
            && bytes != text.as_bytes()
            && let Some(shifts) = shifts(bytes, text)
        {
            part.shifts = shifts;
            part.length = u32::try_from(bytes.len()).unwrap_or(u32::MAX);
        }
        self
    }

    /// The map of the same source once text of other files was taken into it. Of that text, all blocks are in the line that asks
    /// for it: the first one is that line, and the others are at its end.
    #[must_use]
    pub(crate) fn including(mut self, source: &str, inclusions: Vec<Inclusion>) -> Self {
        if let Some(part) = self.parts.first_mut() {
            part.text = Some(Arc::from(source));
            part.inclusions = inclusions;
        }
        self
    }

    /// Adds a part of a package, and gives the offset of its first byte. Its text is kept where `text` is given.
    pub fn add_part(&mut self, name: &'static str, path: &str, length: usize, text: Option<&str>) -> u32 {
        let base = self.parts.last().map_or(0, |last| last.base.saturating_add(last.length));
        self.parts.push(SourcePart {
            name,
            path: path.to_owned(),
            // Offsets end before the one that says that nothing is known.
            length: u32::try_from(length).unwrap_or(u32::MAX).min(Self::UNKNOWN - 1 - base.min(Self::UNKNOWN - 1)),
            base,
            text: text.map(Arc::from),
            ..SourcePart::default()
        });
        base
    }

    /// Says that a paragraph begins at an offset in the part that was added last.
    pub fn add_paragraph(&mut self, offset: u32) {
        if let Some(part) = self.parts.last_mut() {
            part.paragraphs.push(offset.saturating_sub(part.base));
        }
    }

    /// The parts of the source, in the order in which they were read.
    #[must_use]
    pub fn parts(&self) -> &[SourcePart] {
        &self.parts
    }

    /// The text of a part, where the document has it. Bytes that the reader took for line ends, or that are no text, are in it
    /// as it read them; spans count the bytes of the source.
    #[must_use]
    pub fn text<'t>(&'t self, pool: &'t str, part: usize) -> Option<&'t str> {
        let part = self.parts.get(part)?;
        part.text.as_deref().or_else(|| pool.get(..part.read_length() as usize).filter(|_| part.path.is_empty()))
    }

    /// Says that the pool from offset `copy` on is a copy of the source from offset `original` on.
    pub fn add_piece(&mut self, copy: u32, original: u32) {
        self.pieces.push((copy, original));
    }

    /// The offset in the source of an offset in the pool.
    fn original(&self, offset: u32, length: u32) -> u32 {
        if offset < length {
            return offset;
        }
        let after = self.pieces.partition_point(|&(copy, _)| copy <= offset);
        match after.checked_sub(1).and_then(|index| self.pieces.get(index)) {
            Some(&(copy, original)) => (original + (offset - copy)).min(length),
            None => length.min(offset),
        }
    }

    /// The part that an offset is in, and the offset in the text of that part.
    fn locate(&self, offset: u32) -> Option<(usize, u32)> {
        if offset == Self::UNKNOWN {
            return None;
        }
        match self.parts.as_slice() {
            [] => None,
            [only] if only.path.is_empty() => Some((0, self.original(offset, only.expanded_length()))),
            parts => {
                let index = parts.partition_point(|part| part.base <= offset).checked_sub(1)?;
                Some((index, (offset - parts[index].base).min(parts[index].length)))
            }
        }
    }

    /// The bytes of the source between two offsets.
    #[must_use]
    pub fn span(&self, start: u32, end: u32) -> Option<Span> {
        let (part, start) = self.locate(start)?;
        let whole = self.parts.get(part)?;
        let end = match self.locate(end) {
            // The first copy of a line begins where the source ends.
            _ if whole.path.is_empty() && end == whole.expanded_length() => end,
            Some((other, end)) if other == part => end,
            // The end of a part is the offset of the next one.
            _ => whole.expanded_length(),
        };
        let read = |at| whole.before_inclusions(at, |inclusion| inclusion.behind);
        let (start, end) = (whole.of_source(read(start)), whole.of_source(read(end)));
        Some(Span { part, start, end: end.max(start) })
    }

    /// The place of an offset.
    #[must_use]
    pub fn place(&self, pool: &str, offset: u32) -> Place {
        let Some((index, at)) = self.locate(offset) else { return Place::Unknown };
        let part = &self.parts[index];
        if !part.path.is_empty() {
            let paragraph = part.paragraphs.partition_point(|&start| start <= at).max(1);
            return Place::Paragraph { part: part.name, paragraph: paragraph as u32 };
        }
        let at = part.before_inclusions(at, |inclusion| inclusion.at);
        let source = self.text(pool, index).unwrap_or_default();
        let mut at = (at as usize).min(source.len());
        while !source.is_char_boundary(at) {
            at -= 1;
        }
        let lines = part.lines.get_or_init(|| {
            let mut starts = Vec::with_capacity(source.len() / 32 + 1);
            starts.push(0);
            starts.extend(crate::simd_scan::places(source.as_bytes(), [b'\n']).map(|newline| newline as u32 + 1));
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

impl SourcePart {
    /// How many bytes its text has as it was read.
    fn read_length(&self) -> u32 {
        match self.shifts.last() {
            Some(&(read, source)) => read + self.length.saturating_sub(source),
            None => self.length,
        }
    }

    /// How many bytes its text has with that of other files.
    fn expanded_length(&self) -> u32 {
        match self.inclusions.last() {
            Some(last) => last.end + self.read_length().saturating_sub(last.behind),
            None => self.read_length(),
        }
    }

    /// The byte of the text without that of other files; within such, one that `inside` gives.
    fn before_inclusions(&self, at: u32, inside: impl Fn(&Inclusion) -> u32) -> u32 {
        let after = self.inclusions.partition_point(|inclusion| inclusion.start <= at);
        match after.checked_sub(1).and_then(|index| self.inclusions.get(index)) {
            None => at,
            Some(inclusion) if at >= inclusion.end => inclusion.behind + (at - inclusion.end),
            Some(inclusion) if at == inclusion.start => inclusion.at,
            Some(inclusion) => inside(inclusion),
        }
    }

    /// The byte of the source of a byte of the text as it was read.
    fn of_source(&self, at: u32) -> u32 {
        let after = self.shifts.partition_point(|&(read, _)| read <= at);
        let Some((read, source)) = after.checked_sub(1).map(|index| self.shifts[index]) else { return at.min(self.length) };
        let next = self.shifts.get(after).map_or(self.length, |&(_, source)| source);
        (source + (at - read)).min(next)
    }
}

/// Where bytes and the text that was read from them part: for each piece of text behind something that was read otherwise, its
/// offset in the text and in the bytes. `None` where the text is in another encoding, and does not run along the bytes.
fn shifts(bytes: &[u8], text: &str) -> Option<Vec<(u32, u32)>> {
    const CHANGED: [(&[u8], &str); 8] = [
        (b"\r\n", "\n"),
        (b"\r", "\n"),
        (b"\0", "\u{FFFD}"),
        (b"\x0C", "\n\n"),
        ("\u{2028}".as_bytes(), "\n"),
        ("\u{2029}".as_bytes(), "\n\n"),
        ("\u{85}".as_bytes(), "\n"),
        ("\u{FEFF}".as_bytes(), ""),
    ];
    let read = text.as_bytes();
    let mut shifts = Vec::new();
    let (mut at, mut from) = (0, 0);
    while from < bytes.len() {
        let same = bytes[from..].iter().zip(&read[at..]).take_while(|(a, b)| a == b).count();
        // A replacement character may begin with the byte that it replaces.
        let same = if text.is_char_boundary(at + same) {
            same
        } else {
            same - (0..4).find(|back| text.is_char_boundary(at + same - back))?
        };
        (at, from) = (at + same, from + same);
        if from >= bytes.len() {
            break;
        }
        let changed = CHANGED.iter().find(|(old, new)| bytes[from..].starts_with(old) && text[at..].starts_with(new));
        let (old, new) = match changed {
            Some((old, new)) => (old.len(), new.len()),
            None if text[at..].starts_with('\u{FFFD}') => {
                let chunk = bytes[from..].utf8_chunks().next()?;
                (Some(chunk.invalid().len()).filter(|length| chunk.valid().is_empty() && *length > 0)?, 3)
            }
            None => return None,
        };
        (at, from) = (at + new, from + old);
        shifts.push((at as u32, from as u32));
    }
    // A reader may end the last line.
    matches!(&text[at..], "" | "\n").then_some(shifts)
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
        assert_eq!(SourceMap::of_source("a\nbc").place("", 3).to_string(), "2:2");
    }

    #[track_caller]
    fn shifted(bytes: &[u8], text: &str, pairs: &[(u32, u32)]) {
        let map = SourceMap::of_text(text.len()).read_from(bytes, text);
        for &(read, source) in pairs {
            assert_eq!(map.span(read, read).map(|span| span.start), Some(source), "{read}");
        }
    }

    #[test]
    fn spans_count_the_bytes_of_the_source() {
        shifted(b"a\r\nb\r\nc", "a\nb\nc\n", &[(0, 0), (2, 3), (4, 6), (5, 7), (6, 7)]);
        shifted(b"\xEF\xBB\xBFa\0b", "a\u{FFFD}b\n", &[(0, 3), (1, 4), (4, 5), (5, 6)]);
        shifted(b"a\xFFb", "a\u{FFFD}b", &[(1, 1), (4, 2)]);
        // Another encoding: the bytes of the text are all there is to count.
        shifted(b"caf\xE9 au lait", "caf\u{E9} au lait", &[(5, 5)]);
    }
}
