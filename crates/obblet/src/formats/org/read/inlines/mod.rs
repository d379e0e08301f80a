//! Text: what its characters mean (Org syntax, "Objects"). Everything is found where it begins, from left to right; what is
//! within something is read once that is known to end.

mod brackets;
mod emphasis;
mod fragments;
mod links;
mod scripts;
mod timestamps;

use super::Reader;
use super::options::Shows;
use crate::document::{Kind, NodeId, Text};
use crate::simd_scan::{ObjectStops, Window};
use emphasis::Closers;
pub(super) use links::{Link, Target, is_picture};
pub(in super::super) use links::{is_known, scheme};
pub(super) use timestamps::date_at;

/// Something around text whose end is known.
#[derive(Clone, Copy, Debug)]
pub(super) struct Frame {
    pub(super) node: NodeId,
    /// Where its text ends, and where the text behind it begins.
    pub(super) end: usize,
    pub(super) resume: usize,
    /// Where its text begins.
    pub(super) start: usize,
    /// Whether links may begin in it.
    pub(super) in_link: bool,
}

/// A text that is read: a piece of the source, or what macros made of one.
pub(super) struct Inlines<'t> {
    pub(super) text: &'t str,
    /// Where it stands in the pool of the document.
    pub(super) base: usize,
    /// Where it is in the source, if it is no piece of it.
    place: Option<u32>,
    pub(super) frames: Vec<Frame>,
    /// How far the text is read, and how far it is in the document.
    pub(super) at: usize,
    pub(super) written: usize,
    closers: Option<Closers>,
    brackets: Option<brackets::Brackets>,
    dollars: Option<fragments::Dollars>,
    /// What was looked for, from where, and where it is.
    found: Vec<(&'static str, usize, Option<usize>)>,
}

/// Whether the bytes that something begins with are there; what is asked most often is asked first, and without a call.
#[inline]
fn may_begin(bytes: &[u8]) -> bool {
    match bytes {
        [b'.', rest @ ..] => rest.starts_with(b".."),
        [b'-', rest @ ..] => rest.starts_with(b"-"),
        [b's', rest @ ..] => rest.starts_with(b"rc_"),
        [b'c', rest @ ..] => rest.starts_with(b"all_"),
        _ => true,
    }
}

impl<'t> Inlines<'t> {
    pub(super) fn new(text: &'t str, base: usize, place: Option<u32>) -> Self {
        Self {
            text,
            base,
            place,
            frames: Vec::new(),
            at: 0,
            written: 0,
            closers: None,
            brackets: None,
            dollars: None,
            found: Vec::new(),
        }
    }

    /// Where something stands, from a place on. Text is searched once for each, however often it is asked.
    pub(super) fn find(&mut self, what: &'static str, from: usize) -> Option<usize> {
        let known = self.found.iter().position(|(known, ..)| *known == what);
        if let Some((_, since, place)) = known.and_then(|known| self.found.get(known))
            && *since <= from
            && place.is_none_or(|place| place >= from)
        {
            return *place;
        }
        let place =
            self.text.get(from..).and_then(|rest| memchr::memmem::find(rest.as_bytes(), what.as_bytes())).map(|at| from + at);
        match known.and_then(|known| self.found.get_mut(known)) {
            Some(entry) => *entry = (what, from, place),
            None => self.found.push((what, from, place)),
        }
        place
    }

    /// The piece of the pool that a piece of the text is.
    pub(super) const fn range(&self, start: usize, end: usize) -> Text {
        Text { start: (self.base + start) as u32, end: (self.base + end) as u32 }
    }

    /// Where a place of the text is in the source.
    pub(super) fn offset(&self, at: usize) -> u32 {
        self.place.unwrap_or((self.base + at) as u32)
    }

    pub(super) fn byte(&self, at: usize) -> u8 {
        self.text.as_bytes().get(at).copied().unwrap_or(b'\n')
    }

    /// The character before a place, within what is around it.
    pub(super) fn before(&self, at: usize) -> Option<char> {
        let start = self.frames.last().map_or(0, |frame| frame.start);
        self.text.get(start..at)?.chars().next_back()
    }

    pub(super) fn after(&self, at: usize) -> Option<char> {
        self.text.get(at..self.end())?.chars().next()
    }

    /// Where the text ends that is read now.
    pub(super) fn end(&self) -> usize {
        self.frames.last().map_or(self.text.len(), |frame| frame.end)
    }

    pub(super) fn node(&self) -> Option<NodeId> {
        self.frames.last().map(|frame| frame.node)
    }

    pub(super) fn in_link(&self) -> bool {
        self.frames.last().is_some_and(|frame| frame.in_link)
    }
}

impl Reader<'_> {
    /// Reads a text into a node.
    pub(super) fn inlines(&mut self, node: NodeId, text: &str, base: usize, place: Option<u32>) {
        let mut scan = Inlines::new(text, base, place);
        scan.frames = std::mem::take(&mut self.frames);
        scan.frames.push(Frame { node, start: 0, end: text.len(), resume: text.len(), in_link: false });
        let bytes = text.as_bytes();
        let has = |what: &[u8]| memchr::memmem::find(bytes, what).is_some();
        let stops = ObjectStops {
            quotes: self.options.shows.contains(Shows::QUOTES),
            code: self.holds.code && (has(b"src_") || has(b"call_")),
        };
        let mut window = Window::default();
        while !scan.frames.is_empty() {
            let end = scan.end();
            let at = window.next_stop(bytes, &stops, scan.at);
            if at >= end {
                self.leave(&mut scan);
                continue;
            }
            scan.at = at;
            if !may_begin(&bytes[at..end]) {
                scan.at += 1;
                continue;
            }
            if !self.object(&mut scan) {
                scan.at = scan.at.max(at + 1);
            }
        }
        self.frames = scan.frames;
    }

    /// What is around the text ends.
    fn leave(&mut self, scan: &mut Inlines<'_>) {
        let end = scan.end();
        self.write_to(scan, end);
        if let Some(frame) = scan.frames.pop() {
            (scan.at, scan.written) = (frame.resume, frame.resume);
        }
    }

    /// Something is around the text that comes.
    pub(super) fn enter(&mut self, scan: &mut Inlines<'_>, kind: Kind, inner: (usize, usize), resume: usize) -> NodeId {
        let at = scan.at;
        self.write_to(scan, at);
        let parent = scan.node().unwrap_or_else(|| self.doc.root());
        let node = self.doc.append_at(parent, kind, scan.offset(at));
        let in_link = scan.in_link() || matches!(kind, Kind::Link { .. });
        scan.frames.push(Frame { node, start: inner.0, end: inner.1, resume, in_link });
        (scan.at, scan.written) = (inner.0, inner.0);
        node
    }

    /// Puts a node into the line in place of a piece of the text.
    pub(super) fn put(&mut self, scan: &mut Inlines<'_>, kind: Kind, resume: usize) -> NodeId {
        let at = scan.at;
        self.write_to(scan, at);
        let parent = scan.node().unwrap_or_else(|| self.doc.root());
        let node = self.doc.append_at(parent, kind, scan.offset(at));
        (scan.at, scan.written) = (resume, resume);
        node
    }

    /// Puts other characters into the line in place of a piece of the text.
    pub(super) fn put_text(&mut self, scan: &mut Inlines<'_>, text: &str, resume: usize) {
        let at = scan.at;
        self.write_to(scan, at);
        let parent = scan.node().unwrap_or_else(|| self.doc.root());
        let text = self.doc.intern(text);
        self.doc.append_joined(parent, text, scan.offset(at));
        (scan.at, scan.written) = (resume, resume);
    }

    /// Writes the plain text up to a place.
    pub(super) fn write_to(&mut self, scan: &mut Inlines<'_>, to: usize) {
        if let Some(node) = scan.node()
            && scan.written < to
        {
            let text = scan.range(scan.written, to);
            self.doc.append_joined(node, text, scan.offset(scan.written));
        }
        scan.written = scan.written.max(to);
    }

    /// Reads what begins here, if something does.
    fn object(&mut self, scan: &mut Inlines<'_>) -> bool {
        let shows = self.options.shows;
        match scan.byte(scan.at) {
            b'\n' => self.line_end(scan),
            b'*' | b'/' | b'+' | b'=' | b'~' => self.emphasis(scan),
            b'_' => self.emphasis(scan) || self.script(scan),
            b'^' => self.script(scan),
            b'[' => self.bracket(scan),
            b'<' => self.angle(scan),
            b'\\' => self.backslash(scan),
            b'$' => self.dollar(scan),
            b'@' => self.snippet(scan),
            b':' => self.plain_link(scan),
            b's' => self.inline_source(scan),
            b'c' => self.inline_call(scan),
            b'-' | b'.' if shows.contains(Shows::SPECIAL_STRINGS) => self.special_string(scan),
            b'"' | b'\'' if shows.contains(Shows::QUOTES) => self.quotation_mark(scan),
            _ => false,
        }
    }

    /// The end of a line, with the white space around it.
    fn line_end(&mut self, scan: &mut Inlines<'_>) -> bool {
        let line = &scan.text[scan.written.min(scan.at)..scan.at];
        let words = line.trim_end_matches([' ', '\t', '\r']);
        let is_break = words.ends_with("\\\\") && !words.ends_with("\\\\\\");
        let words = if is_break { words[..words.len() - 2].trim_end_matches([' ', '\t']) } else { words };
        let to = scan.written.min(scan.at) + words.len();
        let rest = &scan.text[scan.at + 1..scan.end()];
        let resume = scan.at + 1 + (rest.len() - rest.trim_start_matches([' ', '\t', '\n', '\r']).len());
        self.write_to(scan, to);
        if resume >= scan.end() {
            (scan.at, scan.written) = (resume, resume);
            return true;
        }
        let breaks = is_break || self.options.shows.contains(Shows::BREAKS);
        scan.written = scan.at;
        self.put(scan, if breaks { Kind::LineBreak } else { Kind::SoftBreak }, resume);
        true
    }

    /// Dashes and ellipses.
    fn special_string(&mut self, scan: &mut Inlines<'_>) -> bool {
        let rest = &scan.text[scan.at..scan.end()];
        for (from, to) in [("---", "\u{2014}"), ("--", "\u{2013}"), ("...", "\u{2026}")] {
            let is_whole = || !rest[from.len()..].starts_with(&from[..1]);
            if rest.starts_with(from) && is_whole() {
                let resume = scan.at + from.len();
                self.put_text(scan, to, resume);
                return true;
            }
        }
        let same = rest.bytes().take_while(|byte| *byte == rest.as_bytes()[0]).count();
        scan.at += same;
        true
    }

    /// A straight quotation mark becomes one of the language.
    fn quotation_mark(&mut self, scan: &mut Inlines<'_>) -> bool {
        let is_double = scan.byte(scan.at) == b'"';
        let before = scan.before(scan.at);
        let opens = before.is_none_or(|c| c.is_whitespace() || matches!(c, '(' | '[' | '{' | '\u{2013}' | '\u{2014}'));
        let language = self.doc.metadata.language.clone().unwrap_or_default();
        let marks = crate::quotation_marks::of(&language);
        let mark = match (is_double, opens) {
            (true, true) => marks.double.0,
            (true, false) => marks.double.1,
            (false, true) => marks.single.0,
            (false, false) => marks.single.1,
        };
        let resume = scan.at + 1;
        self.put_text(scan, mark, resume);
        true
    }
}
