//! Lines: where they are set in, whether somebody quotes them, how wide they are.

use std::borrow::Cow;
use unicode_width::UnicodeWidthStr;

/// Columns from one tab stop to the next.
const TAB: usize = 8;
/// Quotes in quotes are followed so deep.
const DEEPEST_QUOTE: usize = 50;

/// One line.
#[derive(Clone, Copy, Debug)]
pub(super) struct Line {
    /// Where its content begins and ends.
    pub(super) start: usize,
    pub(super) end: usize,
    /// How many columns it is set in, behind the marks of a quote.
    pub(super) indent: usize,
    /// How many marks of quotes it begins with.
    pub(super) quotes: usize,
    /// How many columns its content takes.
    pub(super) width: usize,
}

impl Line {
    pub(super) const fn is_blank(&self) -> bool {
        self.start == self.end
    }

    pub(super) fn text<'t>(&self, pool: &'t str) -> &'t str {
        &pool[self.start..self.end]
    }
}

/// A text whose lines all end in `\n`, without characters that no text has.
pub(super) fn with_plain_ends(text: &str) -> Cow<'_, str> {
    let odd = ['\r', '\0', '\u{2028}', '\u{2029}', '\u{85}', '\u{C}'];
    if !text.contains(odd) {
        return Cow::Borrowed(text);
    }
    let text = text.replace("\r\n", "\n").replace(['\r', '\u{2028}', '\u{85}'], "\n");
    // A page and a paragraph end with an empty line.
    Cow::Owned(text.replace(['\u{C}', '\u{2029}'], "\n\n").replace('\0', "\u{FFFD}"))
}

/// The lines of a text.
pub(super) fn lines(text: &str) -> Vec<Line> {
    let mut lines = Vec::new();
    let mut start = 0;
    for line in text.split('\n') {
        lines.push(self::line(line, start));
        start += line.len() + 1;
    }
    while lines.last().is_some_and(Line::is_blank) {
        lines.pop();
    }
    lines
}

fn line(text: &str, offset: usize) -> Line {
    let mut at = 0;
    let mut quotes = 0;
    loop {
        let rest = &text[at..];
        let inner = rest.trim_start_matches(' ');
        // A sign without a space is a quote too, but not an arrow.
        let marked = inner.starts_with('>') && rest.len() - inner.len() < 4 && quotes < DEEPEST_QUOTE && !inner.starts_with(">=");
        if !marked {
            break;
        }
        quotes += 1;
        at += rest.len() - inner.len() + 1;
        at += usize::from(text[at..].starts_with(' '));
    }
    let mut indent = 0;
    let content = text[at..].trim_start_matches(|c: char| {
        indent = match c {
            '\t' => (indent / TAB + 1) * TAB,
            ' ' | '\u{A0}' | '\u{FEFF}' => indent + 1,
            '\u{3000}' => indent + 2,
            _ => return false,
        };
        true
    });
    let start = text.len() - content.len();
    let content = content.trim_end();
    Line { start: offset + start, end: offset + start + content.len(), indent, quotes, width: content.width() }
}
