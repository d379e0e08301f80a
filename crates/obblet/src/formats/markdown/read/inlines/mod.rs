//! The text within blocks (CommonMark, section 6): one scan makes tokens, in which links and emphasis then find their
//! ends; one walk over the tokens makes nodes.

mod address;
mod build;
mod emphasis;
pub(super) mod html;
mod inline_token;
mod link;
mod math;

use super::super::{Syntax, entity};
use super::reference::References;
use super::state::{Outcome, Pending};
use crate::document::{Document, Kind, KindSet, NodeId, NoteId, Text};
use crate::fast_hash::HashMap;
use crate::formats::markdown::Extensions;
use crate::refine::structure;
use crate::simd_scan::{Stops, Window};
use emphasis::{Delimiter, NONE};
use inline_token::{Token, TokenKind};
use link::Bracket;

/// Reads the text of all blocks.
pub(super) fn run(source: &str, outcome: Outcome, syntax: Syntax) -> Document {
    let Outcome { doc, pending, references, notes, merges_cells } = outcome;
    let mut context = Context {
        doc,
        syntax,
        references,
        notes,
        stops: stops(source, syntax),
        tokens: Vec::new(),
        delimiters: Vec::new(),
        matches: Vec::new(),
        brackets: Vec::new(),
        budget: source.len().max(100_000),
        is_repaired: !merges_cells,
    };
    let mut copy = String::new();
    for Pending { node, text } in pending {
        let is_source = text.end as usize <= source.len();
        let plain = if is_source { &source[text.range()] } else { context.doc.text(text) };
        let first_stop = Window::default().next_stop(plain.as_bytes(), &context.stops, 0);
        if first_stop == plain.len() {
            // Nothing in it means anything; so it is for most table cells and headings.
            let length = trim_end(plain).len();
            if length > 0 {
                let text = Text { end: text.start + length as u32, ..text };
                context.doc.append_at(node, Kind::Text(text), text.start);
            }
            continue;
        }
        if !is_source {
            copy.clear();
            copy.push_str(context.doc.text(text));
        }
        let content = if is_source { &source[text.range()] } else { &copy };
        let scanner = Scanner {
            context: &mut context,
            text: content,
            base: text.start,
            at: first_stop,
            plain: 0,
            escaped: usize::MAX,
            last_delimiter: NONE,
            inactive_below: 0,
            missing: Missing::default(),
        };
        scanner.read(node);
    }
    let Context { mut doc, is_repaired, .. } = context;
    if is_repaired && !doc.may_hold(KindSet::RAW) {
        debug_assert!(structure::survey(&doc).is_fine());
        doc.mark_repaired();
    }
    doc
}

fn trim_end(text: &str) -> &str {
    let end = text.bytes().rposition(|byte| !matches!(byte, b' ' | b'\t' | b'\n')).map_or(0, |last| last + 1);
    &text[..end]
}

/// What all texts of a document share; the vectors are kept for their memory.
struct Context {
    doc: Document,
    syntax: Syntax,
    references: References,
    notes: HashMap<String, NoteId>,
    /// The bytes at which a scan has to stop and look.
    stops: Stops,
    tokens: Vec<Token>,
    delimiters: Vec<Delimiter>,
    matches: Vec<emphasis::Match>,
    brackets: Vec<Bracket>,
    /// So many bytes of addresses may still come from references.
    budget: usize,
    /// Whether every node stands where it may, as far as known; raw HTML apart.
    is_repaired: bool,
}

/// What was found to be missing in the rest of a text, so that nobody looks for it again.
#[derive(Debug, Default)]
struct Missing {
    /// The last place of a run of so many backticks; set when the text was searched for them all.
    backticks: Option<HashMap<usize, usize>>,
    /// Ends of raw HTML that the rest of the text does not have: of comments, instructions, declarations, character data.
    html: [bool; 4],
    dollars: [bool; 2],
}

/// Reads the text of one block.
struct Scanner<'t, 'c> {
    context: &'c mut Context,
    text: &'t str,
    /// Offset of the text in the pool.
    base: u32,
    at: usize,
    /// Where the plain text begins that no token holds yet.
    plain: usize,
    /// The last character that a backslash stands before.
    escaped: usize,
    last_delimiter: i32,
    /// Brackets below this place in the stack can't begin links any more.
    inactive_below: usize,
    missing: Missing,
}

/// The bytes at which a scan has to stop and look, as far as the source has any use for them.
fn stops(source: &str, syntax: Syntax) -> Stops {
    let mut stops = b"\n*<&".to_vec();
    let has = |needle: &str| memchr::memmem::find(source.as_bytes(), needle.as_bytes()).is_some();
    if syntax.has(Extensions::STRIKETHROUGH) {
        stops.push(b'~');
    }
    if syntax.has(Extensions::MATH) {
        stops.push(b'$');
    }
    if syntax.has(Extensions::AUTOLINKS) {
        stops
            .extend([(b':', "://"), (b'@', "@"), (b'w', "www.")].iter().filter(|(_, needle)| has(needle)).map(|(stop, _)| *stop));
    }
    Stops::new(&stops)
}

impl<'t> Scanner<'t, '_> {
    fn read(mut self, node: NodeId) {
        self.context.tokens.clear();
        self.context.delimiters.clear();
        self.context.matches.clear();
        self.context.brackets.clear();
        self.task(node);
        let trimmed = trim_end(self.text);
        self.text = trimmed;
        let bytes = trimmed.as_bytes();
        self.at = self.at.min(bytes.len());
        let (stops, mut window) = (self.context.stops, Window::default());
        loop {
            self.at = window.next_stop(bytes, &stops, self.at);
            let Some(&byte) = bytes.get(self.at) else { break };
            match byte {
                b'\n' => self.line_end(),
                b'\\' => self.backslash(),
                b'`' => self.code(),
                b'*' | b'_' | b'~' => self.delimiter(byte),
                b'[' => self.open_bracket(),
                b']' => self.close_bracket(),
                b'<' => self.angle(),
                b'&' => self.reference(),
                b'$' => self.math(),
                b':' => self.web_address(),
                b'@' => self.mail_address(),
                b'w' => self.www_address(),
                _ => self.at += 1,
            }
        }
        self.flush(self.at);
        self.resolve_emphasis(NONE);
        self.build(node);
    }

    fn byte(&self, at: usize) -> u8 {
        self.text.as_bytes().get(at).copied().unwrap_or(0)
    }

    /// A range of the text as a range of the pool.
    fn pool_text(&self, start: usize, end: usize) -> Text {
        Text { start: self.base + start as u32, end: self.base + end as u32 }
    }

    /// Makes a token of the plain text up to `end`.
    fn flush(&mut self, end: usize) {
        if self.plain < end {
            let text = self.pool_text(self.plain, end);
            self.push(TokenKind::Text(text), self.plain);
        }
        self.plain = end;
    }

    fn push(&mut self, kind: TokenKind, at: usize) {
        self.context.tokens.push(Token { kind, offset: self.base + at as u32 });
    }

    /// Makes a token of what stands up to `end`, and goes on behind it.
    fn token(&mut self, kind: TokenKind, end: usize) {
        self.flush(self.at);
        self.push(kind, self.at);
        self.at = end;
        self.plain = end;
    }

    /// A piece of text as pool text: in place where it is as it is written.
    fn interned(&mut self, piece: &str, resolved: &str) -> Text {
        if piece == resolved {
            let start = piece.as_ptr() as usize - self.text.as_ptr() as usize;
            return self.pool_text(start, start + piece.len());
        }
        self.context.doc.intern(resolved)
    }

    /// Hard and soft breaks (sections 6.7 and 6.8). A soft break with nothing to trim around it stays in the text.
    fn line_end(&mut self) {
        let white = |byte: u8| matches!(byte, b' ' | b'\t');
        let before = &self.text.as_bytes()[self.plain..self.at];
        if !self.context.syntax.hard_lines && !before.last().is_none_or(|&last| white(last)) && !white(self.byte(self.at + 1)) {
            self.at += 1;
            return;
        }
        let text_end = self.plain + before.iter().rposition(|&byte| !white(byte)).map_or(0, |last| last + 1);
        let hard = self.context.syntax.hard_lines || before.ends_with(b"  ");
        self.flush(text_end);
        self.push(if hard { TokenKind::LineBreak } else { TokenKind::SoftBreak }, self.at);
        self.at += 1;
        while white(self.byte(self.at)) {
            self.at += 1;
        }
        self.plain = self.at;
    }

    fn backslash(&mut self) {
        match self.byte(self.at + 1) {
            b'\n' => {
                self.token(TokenKind::LineBreak, self.at + 2);
                while matches!(self.byte(self.at), b' ' | b'\t') {
                    self.at += 1;
                }
                self.plain = self.at;
            }
            next if entity::is_punctuation(next) => {
                self.flush(self.at);
                self.plain = self.at + 1;
                self.escaped = self.plain;
                self.at += 2;
            }
            _ => self.at += 1,
        }
    }

    /// Code spans (section 6.1).
    fn code(&mut self) {
        let bytes = self.text.as_bytes();
        let length = bytes[self.at..].iter().take_while(|&&byte| byte == b'`').count();
        let start = self.at + length;
        let Some(end) = self.find_backticks(start, length) else {
            self.at = start;
            return;
        };
        let content = &self.text[start..end];
        let has_newline = memchr::memchr(b'\n', content.as_bytes()).is_some();
        let padded = content.len() > 1
            && matches!(content.as_bytes()[0], b' ' | b'\n')
            && matches!(content.as_bytes()[content.len() - 1], b' ' | b'\n')
            && content.bytes().any(|byte| !matches!(byte, b' ' | b'\n'));
        let (from, to) = if padded { (start + 1, end - 1) } else { (start, end) };
        let text = if has_newline {
            let line = self.text[from..to].replace('\n', " ");
            self.context.doc.intern(&line)
        } else {
            self.pool_text(from, to)
        };
        self.token(TokenKind::Code(text), end + length);
    }

    /// The place of the next run of exactly so many backticks.
    fn find_backticks(&mut self, start: usize, length: usize) -> Option<usize> {
        let text = self.text;
        if let Some(last) = &self.missing.backticks
            && last.get(&length).is_none_or(|&last| last < start)
        {
            return None;
        }
        let mut runs = backtick_runs(text.as_bytes(), start);
        if let Some((at, _)) = runs.find(|&(_, run)| run == length) {
            return Some(at);
        }
        if self.missing.backticks.is_none() {
            self.missing.backticks = Some(backtick_runs(text.as_bytes(), start).map(|(at, run)| (run, at)).collect());
        }
        None
    }

    /// Character references (section 2.5).
    fn reference(&mut self) {
        let Some((characters, length)) = entity::reference(&self.text[self.at..]) else {
            self.at += 1;
            return;
        };
        let mut buffer = String::with_capacity(8);
        buffer.extend(characters.into_iter().filter(|&c| c != '\0'));
        let text = self.context.doc.intern(&buffer);
        self.token(TokenKind::Text(text), self.at + length);
    }

    /// Addresses in angle brackets, and raw HTML (sections 6.5 and 6.6).
    fn angle(&mut self) {
        let rest = &self.text[self.at..];
        if let Some((mail, length)) = address::in_angle_brackets(rest) {
            let inner = &rest[1..length - 1];
            let text = self.pool_text(self.at + 1, self.at + length - 1);
            let href = if mail { self.context.doc.intern(&format!("mailto:{inner}")) } else { text };
            self.token(TokenKind::Address { href, text }, self.at + length);
        } else if let Some(length) = self.raw_html() {
            let raw = self.pool_text(self.at, self.at + length);
            self.token(TokenKind::Raw(raw), self.at + length);
        } else {
            self.at += 1;
        }
    }

    /// The checkbox that a list item may begin with (GitHub Flavored Markdown, section 5.3).
    fn task(&mut self, node: NodeId) {
        let bytes = self.text.as_bytes();
        if !self.context.syntax.has(Extensions::TASKS)
            || bytes.len() < 4
            || bytes[0] != b'['
            || bytes[2] != b']'
            || !matches!(bytes[3], b' ' | b'\t' | b'\n')
        {
            return;
        }
        let checked = match bytes[1] {
            b' ' | b'\t' => false,
            b'x' | b'X' => true,
            _ => return,
        };
        let doc = &mut self.context.doc;
        if doc.kind(node) == Kind::Paragraph
            && doc.node(node).previous().is_none()
            && let Some(item) = doc.node(node).parent()
            && matches!(doc.kind(item), Kind::ListItem { .. })
            && !self.text[3..].trim_ascii().is_empty()
        {
            doc.set_kind(item, Kind::ListItem { checked: Some(checked) });
            self.at = 3 + self.text[3..].bytes().take_while(u8::is_ascii_whitespace).count();
            self.plain = self.at;
        }
    }
}

/// Place and length of each run of backticks.
fn backtick_runs(bytes: &[u8], mut at: usize) -> impl Iterator<Item = (usize, usize)> {
    std::iter::from_fn(move || {
        at += memchr::memchr(b'`', bytes.get(at..)?)?;
        let start = at;
        at += bytes[at..].iter().take_while(|&&byte| byte == b'`').count();
        Some((start, at - start))
    })
}
