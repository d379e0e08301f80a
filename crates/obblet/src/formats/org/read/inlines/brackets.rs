//! What is in square brackets: links, notes, citations, dates, and counts of what is done.

use super::super::Reader;
use super::super::options::Shows;
use super::Inlines;
use crate::document::{CitationForm, Kind};

/// Where the brackets of a text end that begin somewhere.
#[derive(Debug)]
pub(super) struct Brackets {
    /// Pairs of places, in the order of the first.
    pairs: Vec<(usize, usize)>,
}

impl Brackets {
    fn of(text: &str) -> Self {
        let mut open = Vec::new();
        let mut pairs = Vec::new();
        for at in memchr::memchr2_iter(b'[', b']', text.as_bytes()) {
            if text.as_bytes()[at] == b'[' {
                open.push(at);
            } else if let Some(start) = open.pop() {
                pairs.push((start, at));
            }
        }
        pairs.sort_unstable();
        Self { pairs }
    }

    fn end(&self, start: usize) -> Option<usize> {
        let found = self.pairs.binary_search_by_key(&start, |(start, _)| *start).ok()?;
        Some(self.pairs[found].1)
    }
}

/// Notes that are defined in notes are followed so deep.
const DEEPEST_NOTE: usize = 8;

/// So far an end may be from where something short begins.
const FARTHEST: usize = 1000;

/// The length of the text between a bracket at the beginning of a text and the one that ends it.
pub(super) fn matching(text: &str, open: char, close: char) -> Option<usize> {
    let mut depth = 0_usize;
    for (at, c) in text.char_indices().take_while(|(at, _)| *at < FARTHEST) {
        if c == open {
            depth += 1;
        } else if c == close {
            depth -= 1;
            if depth == 0 {
                return Some(at - open.len_utf8());
            }
        }
    }
    None
}

impl Reader<'_> {
    /// Reads what a square bracket begins.
    pub(super) fn bracket(&mut self, scan: &mut Inlines<'_>) -> bool {
        let rest = &scan.text[scan.at..scan.end()];
        if rest.starts_with("[[") {
            return self.link(scan);
        }
        if rest.starts_with("[fn:") && self.options.shows.contains(Shows::NOTES) {
            return self.note(scan);
        }
        if rest.starts_with("[cite") {
            return self.citation(scan);
        }
        if rest.as_bytes().get(1).is_some_and(u8::is_ascii_digit) || rest.starts_with("[%]") || rest.starts_with("[/]") {
            return self.timestamp(scan, b']') || self.cookie(scan);
        }
        false
    }

    /// Where the bracket ends that begins here.
    fn bracket_end(scan: &mut Inlines<'_>) -> Option<usize> {
        let text = scan.text;
        let end = scan.brackets.get_or_insert_with(|| Brackets::of(text)).end(scan.at)?;
        (end < scan.end()).then_some(end)
    }

    /// A count of what is done, as in `[2/5]`.
    fn cookie(&mut self, scan: &mut Inlines<'_>) -> bool {
        let rest = &scan.text[scan.at..scan.end()];
        let Some(length) = rest.bytes().take(12).position(|byte| byte == b']') else { return false };
        let count = &rest[1..length];
        let is_count = count.ends_with('%') || count.contains('/');
        if !is_count || !count.bytes().all(|byte| byte.is_ascii_digit() || matches!(byte, b'%' | b'/')) {
            return false;
        }
        let resume = scan.at + length + 1;
        if self.options.shows.contains(Shows::COOKIES) {
            scan.at = resume;
        } else {
            let at = scan.at;
            self.write_to(scan, at);
            (scan.at, scan.written) = (resume, resume);
        }
        true
    }

    /// A mark of a note, which may define it.
    fn note(&mut self, scan: &mut Inlines<'_>) -> bool {
        if self.note_depth > DEEPEST_NOTE {
            return false;
        }
        let Some(end) = Self::bracket_end(scan) else { return false };
        let inner = &scan.text[scan.at + "[fn:".len()..end];
        let (label, definition) = match inner.split_once(':') {
            Some((label, definition)) => (label, Some(definition)),
            None => (inner, None),
        };
        let is_label = label.chars().all(|c| c.is_alphanumeric() || matches!(c, '-' | '_'));
        if !is_label || (label.is_empty() && definition.is_none()) {
            return false;
        }
        let note = self.note_of(label, scan.offset(scan.at));
        if let Some(definition) = definition {
            let start = end - definition.len();
            let place = scan.offset(start);
            let text = scan.range(start, end);
            self.definitions.push((note, text, place, self.note_depth + 1));
        }
        self.put(scan, Kind::NoteReference(note), end + 1);
        true
    }

    /// A citation: its keys, until the entries are known.
    fn citation(&mut self, scan: &mut Inlines<'_>) -> bool {
        let Some(end) = Self::bracket_end(scan) else { return false };
        let inner = &scan.text[scan.at + 1..end];
        let Some((head, body)) = inner.split_once(':') else { return false };
        let is_head = head.strip_prefix("cite").is_some_and(|style| style.is_empty() || style.starts_with('/'));
        if !is_head || !body.contains('@') {
            return false;
        }
        let form = form_of(head.strip_prefix("cite/").unwrap_or_default());
        let body = body.to_owned();
        self.put_citation(scan, &body, form, end + 1);
        true
    }
}

/// What a citation shows, by the style that it names, with a variant behind a slash.
fn form_of(style: &str) -> CitationForm {
    match style.split('/').next().unwrap_or_default() {
        "t" | "text" => CitationForm::InText,
        "a" | "author" => CitationForm::Author,
        "na" | "noauthor" | "y" | "year" => CitationForm::Year,
        "n" | "nocite" => CitationForm::Hidden,
        _ => CitationForm::Label,
    }
}
