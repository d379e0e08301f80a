//! Lines of text formats: with the prefixes of the blocks that they stand in, and no longer than they may be.

use crate::document::Align;
use unicode_width::UnicodeWidthStr;

/// Blocks are set in no further than so many levels: else a few deep ones would make every line as long as they are many.
const DEEPEST: usize = 100;

/// Text that grows by lines.
#[derive(Debug, Default)]
pub(crate) struct Lines {
    out: String,
    /// What each line begins with.
    rest: String,
    /// What the next line begins with instead, where something begins on it.
    next: Option<String>,
    lengths: Vec<usize>,
    too_deep: bool,
}

impl Lines {
    pub(crate) fn with_capacity(capacity: usize) -> Self {
        Self { out: String::with_capacity(capacity), ..Self::default() }
    }

    /// A block begins whose first line begins with `first` and whose other lines begin with `rest`.
    pub(crate) fn push(&mut self, first: &str, rest: &str) {
        let (first, rest) = if self.is_full() { ("", "") } else { (first, rest) };
        self.too_deep |= self.is_full();
        let next = self.next.get_or_insert_with(|| self.rest.clone());
        next.push_str(first);
        self.lengths.push(self.rest.len());
        self.rest.push_str(rest);
    }

    /// Whether blocks are set in no further.
    pub(crate) const fn is_full(&self) -> bool {
        self.lengths.len() >= DEEPEST
    }

    /// Whether a block could not be set in.
    pub(crate) const fn was_too_deep(&self) -> bool {
        self.too_deep
    }

    /// The innermost block ends. One that had no line gets one.
    pub(crate) fn pop(&mut self) {
        if self.next.is_some() && !self.lengths.is_empty() {
            self.line("");
        }
        if let Some(length) = self.lengths.pop() {
            self.rest.truncate(length);
        }
    }

    /// How many columns the prefix of a line takes.
    pub(crate) fn indentation(&self) -> usize {
        self.rest.len()
    }

    /// Writes a line.
    pub(crate) fn line(&mut self, text: &str) {
        match self.next.take() {
            Some(prefix) => self.out.push_str(&prefix),
            None => self.out.push_str(&self.rest),
        }
        self.out.push_str(text);
        if text.is_empty() {
            let trimmed = self.out.trim_end_matches(' ').len();
            self.out.truncate(trimmed);
        }
        self.out.push('\n');
    }

    /// Writes lines.
    pub(crate) fn lines(&mut self, text: &str) {
        for line in text.strip_suffix('\n').unwrap_or(text).split('\n') {
            self.line(line);
        }
    }

    pub(crate) fn finish(self) -> String {
        self.out
    }
}

/// Breaks text into lines of a width, at the places where it may be broken, and where `ends` says that a line ends.
pub(crate) fn wrap(text: &str, breaks: &[usize], ends: fn(&str) -> bool, width: usize) -> Vec<String> {
    let mut lines = Vec::new();
    let mut line = String::new();
    let mut columns = 0;
    let mut start = 0;
    let places = breaks.iter().copied().chain(std::iter::once(text.len()));
    for end in places {
        let word = text[start..end].trim_matches([' ', '\n']);
        start = (end + 1).min(text.len());
        if word.is_empty() {
            continue;
        }
        let wide = word.width();
        if !line.is_empty() && (columns + 1 + wide > width || ends(&line)) {
            lines.push(std::mem::take(&mut line));
            columns = 0;
        }
        if !line.is_empty() {
            line.push(' ');
            columns += 1;
        }
        line.push_str(word);
        columns += wide;
    }
    lines.push(line);
    lines
}

/// Lines of text, broken at spaces and where the text is broken by hand.
pub(crate) fn fold(text: &str, width: usize) -> Vec<String> {
    let mut lines = Vec::new();
    for part in text.split('\u{2028}') {
        let part = part.split([' ', '\n', '\t']).filter(|word| !word.is_empty()).collect::<Vec<_>>().join(" ");
        if width == 0 {
            lines.push(part);
            continue;
        }
        let breaks: Vec<usize> = part.match_indices(' ').map(|(at, _)| at).collect();
        lines.extend(wrap(&part, &breaks, |_| false, width));
    }
    lines
}

fn push_spaces(line: &mut String, count: usize) {
    const MANY: &str = "                                ";
    for _ in 0..count / MANY.len() {
        line.push_str(MANY);
    }
    line.push_str(&MANY[..count % MANY.len()]);
}

/// Writes a text into a column of a table, with a space on either side and a bar behind.
pub(crate) fn column(line: &mut String, text: &str, width: usize, align: Align) {
    let columns = if text.is_ascii() { text.len() } else { text.width() };
    let space = width.saturating_sub(columns);
    let before = match align {
        Align::Right => space,
        Align::Center => space / 2,
        _ => 0,
    };
    line.push(' ');
    push_spaces(line, before);
    line.push_str(text);
    push_spaces(line, space - before);
    line.push_str(" |");
}
