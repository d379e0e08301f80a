//! Puts markup on lines: knows indentation, escaping, and the two syntaxes.

use super::super::characters::is_allowed;
use super::super::{Characters, Settings, Syntax, address};
use crate::simd_scan::unescaped_length;
use std::fmt::Write;
use unicode_width::UnicodeWidthStr;

/// What a byte of text needs.
const PLAIN: u8 = 0;
const MARKUP: u8 = 1;
const CONTROL: u8 = 2;
/// The first byte of a character that may be a control or no character at all.
const DOUBTFUL: u8 = 3;
/// The first byte of a character that is not ASCII.
const WIDE: u8 = 4;
const QUOTE: u8 = 5;

const fn classes(ascii: bool, attribute: bool) -> [u8; 256] {
    let mut table = [PLAIN; 256];
    let mut byte = 0;
    while byte < 256 {
        table[byte] = match byte as u8 {
            b'&' | b'<' | b'>' => MARKUP,
            b'"' if attribute => QUOTE,
            b'\n' | b'\t' if !attribute => PLAIN,
            0..=0x1F | 0x7F => CONTROL,
            0x80..=0xBF => PLAIN,
            0xC0.. if ascii => WIDE,
            0xC2 | 0xEF | 0xF0..=0xF4 => DOUBTFUL,
            _ => PLAIN,
        };
        byte += 1;
    }
    table
}

static TEXT: [u8; 256] = classes(false, false);
static TEXT_ASCII: [u8; 256] = classes(true, false);
static ATTRIBUTE: [u8; 256] = classes(false, true);
static ATTRIBUTE_ASCII: [u8; 256] = classes(true, true);

/// Text that is shorter than this is looked at byte by byte.
const SHORT: usize = 12;

bitflags::bitflags! {
    /// How markup is printed.
    #[derive(Clone, Copy, Debug, Default, PartialEq, Eq, Hash)]
    struct Mode: u8 {
        /// In the XML syntax.
        const XML = 1 << 0;
        /// Characters that are not ASCII become references.
        const ASCII = 1 << 1;
        /// Blocks follow each other without line breaks.
        const COMPACT = 1 << 2;
    }
}

impl Mode {
    fn of(settings: &Settings) -> Self {
        let mut mode = Self::empty();
        mode.set(Self::XML, settings.syntax == Syntax::Xhtml);
        mode.set(Self::ASCII, settings.characters == Characters::Ascii);
        mode.set(Self::COMPACT, settings.compact);
        mode
    }
}

/// Writes markup.
pub(super) struct Printer {
    out: String,
    mode: Mode,
    indent: usize,
    depth: usize,
    /// Whether the next thing goes on a new line.
    line_due: bool,
    /// Whether nothing stands on the line yet but indentation that is due.
    fresh: bool,
    /// The longest line of text in columns; 0 where there is none.
    width: usize,
    /// Where the line begins, and up to where that is known.
    line_start: usize,
    scanned: usize,
    /// Whether a character was replaced that HTML forbids.
    pub(super) replaced: bool,
}

impl Printer {
    pub(super) fn new(capacity: usize, settings: &Settings) -> Self {
        Self {
            out: String::with_capacity(capacity),
            mode: Mode::of(settings),
            indent: if settings.compact { 0 } else { settings.indent as usize },
            depth: 0,
            line_due: false,
            fresh: true,
            width: if settings.compact { 0 } else { settings.width.into() },
            line_start: 0,
            scanned: 0,
            replaced: false,
        }
    }

    pub(super) fn finish(&mut self) -> String {
        std::mem::take(&mut self.out)
    }

    /// Begins a line, unless one has just begun.
    #[inline]
    pub(super) fn line(&mut self) {
        if !self.fresh {
            self.line_due = true;
        }
    }

    /// What follows stands one level deeper.
    pub(super) fn deeper(&mut self) {
        self.depth += 1;
    }

    /// What follows stands one level less deep.
    pub(super) fn shallower(&mut self) {
        self.depth = self.depth.saturating_sub(1);
    }

    #[inline]
    fn flush(&mut self) {
        if self.line_due || self.fresh {
            self.flush_line();
        }
    }

    fn flush_line(&mut self) {
        if self.line_due && !self.mode.contains(Mode::COMPACT) {
            self.out.push('\n');
        }
        if (self.line_due || self.fresh) && self.indent > 0 {
            // Deeply nested documents would else be all indentation.
            self.out.extend(std::iter::repeat_n(' ', self.indent * self.depth.min(40)));
        }
        self.line_due = false;
        self.fresh = false;
    }

    /// A soft break.
    pub(super) fn soft_break(&mut self) {
        self.flush();
        self.out.push('\n');
        if self.indent > 0 {
            self.out.extend(std::iter::repeat_n(' ', self.indent * self.depth.min(40)));
        }
    }

    /// Markup as it is.
    #[inline]
    pub(super) fn markup(&mut self, markup: &str) {
        self.flush();
        self.out.push_str(markup);
    }

    /// Markup of another language that may hold any character.
    pub(super) fn foreign(&mut self, markup: &str) {
        let mut rest = markup;
        // Controls and what is no character begin with few bytes (the Unicode standard, table 3-7).
        let ascii = self.mode.contains(Mode::ASCII);
        let is_plain = |byte: &u8| matches!(byte, b' '..=b'~' | b'\n') | (!ascii & matches!(byte, 0x80..=0xC1 | 0xC3..=0xEE));
        loop {
            // Nearly all of it is plain: whole pieces are looked at without a branch for each byte.
            let pieces = rest.as_bytes().chunks_exact(64);
            let whole = pieces.take_while(|piece| piece.iter().fold(true, |plain, byte| plain & is_plain(byte))).count() * 64;
            let plain = whole + rest.as_bytes()[whole..].iter().take_while(|byte| is_plain(byte)).count();
            self.out.push_str(&rest[..plain]);
            rest = &rest[plain..];
            let Some(c) = rest.chars().next() else { break };
            rest = &rest[c.len_utf8()..];
            let c = if is_allowed(c) {
                c
            } else {
                self.replaced = true;
                char::REPLACEMENT_CHARACTER
            };
            if self.mode.contains(Mode::ASCII) && !c.is_ascii() {
                let _ = write!(self.out, "&#{};", c as u32);
            } else {
                self.out.push(c);
            }
        }
    }

    /// The end of a start tag.
    pub(super) fn close_tag(&mut self) {
        self.out.push('>');
    }

    /// The end of the tag of an element without content.
    pub(super) fn close_void(&mut self) {
        self.out.push_str(if self.mode.contains(Mode::XML) { " />" } else { ">" });
    }

    /// Characters.
    #[inline]
    pub(super) fn text(&mut self, text: &str) {
        self.flush();
        self.escape::<false>(text);
    }

    /// Characters that may stand in an attribute as well.
    pub(super) fn value(&mut self, text: &str) {
        self.escape::<true>(text);
    }

    /// Characters whose line ends are soft breaks.
    #[inline]
    pub(super) fn flowing_text(&mut self, text: &str) {
        if self.width > 0 {
            return self.wrapped_text(text);
        }
        if self.indent == 0 {
            return self.text(text);
        }
        for (index, line) in text.split('\n').enumerate() {
            if index > 0 {
                self.soft_break();
            }
            self.text(line);
        }
    }

    /// Characters in lines that are not too long. What follows a word without a space is not known yet, so that a line may get a
    /// little longer.
    fn wrapped_text(&mut self, text: &str) {
        self.flush();
        for (index, word) in text.split([' ', '\n']).enumerate() {
            if index > 0 {
                match self.column() + 1 + word.width() > self.width && !word.is_empty() {
                    true => self.soft_break(),
                    false => self.out.push(' '),
                }
            }
            self.escape::<false>(word);
        }
    }

    /// How far the line that is being written has come.
    fn column(&mut self) -> usize {
        if let Some(end) = memchr::memrchr(b'\n', &self.out.as_bytes()[self.scanned..]) {
            self.line_start = self.scanned + end + 1;
        }
        self.scanned = self.out.len();
        // A line is long before it is looked through more than once.
        match self.out.len() - self.line_start {
            bytes if bytes > self.width * 4 => bytes,
            _ => self.out[self.line_start..].width(),
        }
    }

    /// An attribute, within a tag.
    pub(super) fn attribute(&mut self, name: &str, value: &str) {
        self.out.push(' ');
        self.out.push_str(name);
        self.out.push_str("=\"");
        self.escape::<true>(value);
        self.out.push('"');
    }

    /// An attribute whose value is its name, where the syntax wants one.
    pub(super) fn flag(&mut self, name: &str) {
        self.out.push(' ');
        self.out.push_str(name);
        if self.mode.contains(Mode::XML) {
            self.out.push_str("=\"");
            self.out.push_str(name);
            self.out.push('"');
        }
    }

    /// An attribute whose value is an address.
    pub(super) fn address(&mut self, name: &str, value: &str) {
        self.out.push(' ');
        self.out.push_str(name);
        self.out.push_str("=\"");
        address::write(&mut self.out, value);
        self.out.push('"');
    }

    /// An attribute whose value is the address of a place in the document, by its id.
    pub(super) fn place(&mut self, name: &str, id: &str) {
        self.out.push(' ');
        self.out.push_str(name);
        self.out.push_str("=\"#");
        address::write_fragment(&mut self.out, id);
        self.out.push('"');
    }

    fn escape<const ATTRIBUTE_VALUE: bool>(&mut self, text: &str) {
        let classes = match (self.mode.contains(Mode::ASCII), ATTRIBUTE_VALUE) {
            (false, false) => &TEXT,
            (true, false) => &TEXT_ASCII,
            (false, true) => &ATTRIBUTE,
            (true, true) => &ATTRIBUTE_ASCII,
        };
        let bytes = text.as_bytes();
        let (mut start, mut at) = (0, 0);
        loop {
            at += if self.mode.contains(Mode::ASCII) || bytes.len() - at < SHORT {
                bytes[at..].iter().take_while(|byte| classes[**byte as usize] == PLAIN).count()
            } else {
                unescaped_length::<ATTRIBUTE_VALUE>(&bytes[at..])
            };
            if at == bytes.len() {
                break;
            }
            if classes[bytes[at] as usize] == PLAIN {
                at += 1;
                continue;
            }
            if classes[bytes[at] as usize] == DOUBTFUL {
                let c = text[at..].chars().next().unwrap_or_default();
                if is_allowed(c) && c != '\u{A0}' {
                    at += c.len_utf8();
                    continue;
                }
            }
            self.out.push_str(&text[start..at]);
            at += self.escape_character(&text[at..]);
            start = at;
        }
        self.out.push_str(&text[start..]);
    }

    /// Writes the first character of `rest` in a form that is safe. Returns its length.
    fn escape_character(&mut self, rest: &str) -> usize {
        let c = rest.chars().next().unwrap_or_default();
        match c {
            '&' => self.out.push_str("&amp;"),
            '<' => self.out.push_str("&lt;"),
            '>' => self.out.push_str("&gt;"),
            '"' => self.out.push_str("&quot;"),
            // Only attributes come here with these; XML would make spaces of them.
            '\n' => self.out.push_str("&#10;"),
            '\t' => self.out.push_str("&#9;"),
            '\r' => self.out.push('\n'),
            '\u{A0}' if !self.mode.contains(Mode::XML) => self.out.push_str("&nbsp;"),
            '\u{A0}' => self.out.push_str("&#160;"),
            c if !is_allowed(c) => {
                self.replaced = true;
                self.out.push_str(if self.mode.contains(Mode::ASCII) { "&#65533;" } else { "\u{FFFD}" });
            }
            c => {
                let _ = write!(self.out, "&#{};", c as u32);
            }
        }
        c.len_utf8()
    }
}
