//! What a backslash, a dollar sign and an at sign begin: entities, formulas, pieces of other formats; and code within lines.

use super::super::Reader;
use super::super::entities::entity;
use super::super::options::Shows;
use super::Inlines;
use super::brackets::matching;
use crate::document::{Kind, Markup};

/// Names of languages and of code that is called are no longer than this.
const LONGEST_NAME: usize = 64;

/// The dollar signs of a text.
#[derive(Debug)]
pub(super) struct Dollars(Vec<usize>);

impl Dollars {
    fn next(&self, from: usize) -> Option<usize> {
        self.0.get(self.0.partition_point(|place| *place < from)).copied()
    }
}

impl Reader<'_> {
    /// Reads what a backslash begins.
    pub(super) fn backslash(&mut self, scan: &mut Inlines<'_>) -> bool {
        let at = scan.at;
        let rest = &scan.text[at..scan.end()];
        for (open, close, display) in [("\\(", "\\)", false), ("\\[", "\\]", true)] {
            if rest.starts_with(open) && self.options.shows.contains(Shows::MATH) {
                let Some(end) = scan.find(close, at + 2).filter(|end| *end < scan.end()) else { return false };
                return self.formula(scan, (at + 2, end), display, end + 2);
            }
        }
        if let Some(behind) = rest.strip_prefix("\\\\") {
            // A line break where the line ends, and two characters elsewhere.
            if behind.trim_start_matches([' ', '\t']).is_empty() {
                self.write_to(scan, at);
                scan.at = scan.end();
                scan.written = scan.at;
                return true;
            }
            scan.at = at + 2;
            return true;
        }
        if rest.starts_with("\\-") && self.options.shows.contains(Shows::SPECIAL_STRINGS) {
            self.put_text(scan, "\u{AD}", at + 2);
            return true;
        }
        let length = rest[1..].bytes().take_while(u8::is_ascii_alphanumeric).count();
        let name = &rest[1..=length];
        if !self.options.shows.contains(Shows::ENTITIES) || name.is_empty() {
            return false;
        }
        let behind = &rest[1 + length..];
        if let Some(shown) = entity(name) {
            let braces = if behind.starts_with("{}") { 2 } else { 0 };
            self.put_text(scan, shown, at + 1 + length + braces);
            return true;
        }
        // A command of TeX with what it is given.
        if !name.bytes().all(|byte| byte.is_ascii_alphabetic()) {
            return false;
        }
        let is_starred = behind.starts_with("*{") || behind.starts_with("*[");
        let mut end = at + 1 + length + usize::from(is_starred);
        while end < scan.end() {
            let rest = &scan.text[end..scan.end()];
            let given = if rest.starts_with('{') {
                matching(rest, '{', '}')
            } else if rest.starts_with('[') {
                matching(rest, '[', ']')
            } else {
                None
            };
            let Some(given) = given else { break };
            end += given + 2;
        }
        let name = name.to_owned();
        // Commands that the file defines are those of its formulas.
        if self.options.commands.contains(&name) {
            return self.formula(scan, (at, end), false, end);
        }
        if end == at + 1 + length + usize::from(is_starred) {
            return !is_starred && self.bare_command(scan, &name, end);
        }
        self.text_command(scan, &name, (at, end)) || self.formula(scan, (at, end), false, end)
    }

    fn formula(&mut self, scan: &mut Inlines<'_>, (start, end): (usize, usize), display: bool, resume: usize) -> bool {
        let formula = self.doc.add_tex(scan.range(start, end), display);
        self.put(scan, Kind::Math(formula), resume);
        true
    }

    /// Reads a formula between dollar signs.
    pub(super) fn dollar(&mut self, scan: &mut Inlines<'_>) -> bool {
        let at = scan.at;
        let text = scan.text;
        if !self.options.shows.contains(Shows::MATH) {
            return false;
        }
        if scan.byte(at + 1) == b'$' && at + 2 < scan.end() {
            let dollars = scan.dollars.get_or_insert_with(|| Dollars(memchr::memchr_iter(b'$', text.as_bytes()).collect()));
            let close = dollars.next(at + 2).filter(|&close| close + 1 < scan.end() && scan.byte(close + 1) == b'$');
            let Some(close) = close.filter(|&close| close > at + 2) else {
                scan.at = at + 2;
                return true;
            };
            return self.formula(scan, (at + 2, close), true, close + 2);
        }
        let first = scan.byte(at + 1);
        if scan.before(at).is_some_and(|c| c == '$') || first.is_ascii_whitespace() || matches!(first, b'.' | b',' | b';') {
            return false;
        }
        let dollars = scan.dollars.get_or_insert_with(|| Dollars(memchr::memchr_iter(b'$', text.as_bytes()).collect()));
        let Some(close) = dollars.next(at + 1).filter(|close| *close < scan.end()) else { return false };
        let last = scan.byte(close - 1);
        let follows = scan.after(close + 1);
        let ends = follows.is_none_or(|c| c.is_whitespace() || c.is_ascii_punctuation());
        let lines = text[at..close].bytes().filter(|byte| *byte == b'\n').count();
        if close == at + 1 || last.is_ascii_whitespace() || matches!(last, b'.' | b',' | b';') || !ends || lines > 2 {
            return false;
        }
        self.formula(scan, (at + 1, close), false, close + 1)
    }

    /// Reads a piece of another format, as in `@@html:<br>@@`.
    pub(super) fn snippet(&mut self, scan: &mut Inlines<'_>) -> bool {
        let at = scan.at;
        let rest = &scan.text[at..scan.end()];
        let Some(inner) = rest.strip_prefix("@@") else { return false };
        let colon = inner.bytes().take_while(|byte| byte.is_ascii_alphanumeric() || *byte == b'-').count();
        let name = &inner[..colon];
        let start = at + 2 + colon + 1;
        if name.is_empty() || !inner[colon..].starts_with(':') {
            return false;
        }
        let Some(end) = scan.find("@@", start).filter(|end| *end < scan.end()) else { return false };
        if name.eq_ignore_ascii_case("html") {
            let raw = scan.range(start, end);
            self.put(scan, Kind::Raw { markup: Markup::Html, raw }, end + 2);
        } else {
            self.write_to(scan, at);
            // Nothing for nobody keeps characters apart.
            if start < end {
                self.tallies.other_formats.add(scan.offset(at), &scan.text[start..end]);
            }
            (scan.at, scan.written) = (end + 2, end + 2);
        }
        true
    }

    /// Reads code within a line, as in `src_sh[:exports code]{ls}`.
    pub(super) fn inline_source(&mut self, scan: &mut Inlines<'_>) -> bool {
        let at = scan.at;
        let rest = &scan.text[at..scan.end()];
        let Some(behind) = rest.strip_prefix("src_").filter(|_| scan.before(at).is_none_or(|c| !c.is_alphanumeric())) else {
            return false;
        };
        let length = behind
            .bytes()
            .take(LONGEST_NAME)
            .take_while(|byte| !byte.is_ascii_whitespace() && !matches!(byte, b'[' | b'{'))
            .count();
        let mut end = 4 + length;
        if rest[end..].starts_with('[') {
            let Some(arguments) = matching(&rest[end..], '[', ']') else { return false };
            end += arguments + 2;
        }
        let Some(code) =
            Some(&rest[end..]).filter(|rest| rest.starts_with('{') && length > 0).and_then(|rest| matching(rest, '{', '}'))
        else {
            return false;
        };
        let text = scan.range(at + end + 1, at + end + 1 + code);
        self.put(scan, Kind::Code(text), at + end + code + 2);
        true
    }

    /// Reads a call of code within a line. What it came to stands behind it.
    pub(super) fn inline_call(&mut self, scan: &mut Inlines<'_>) -> bool {
        let at = scan.at;
        let rest = &scan.text[at..scan.end()];
        let Some(behind) = rest.strip_prefix("call_").filter(|_| scan.before(at).is_none_or(|c| !c.is_alphanumeric())) else {
            return false;
        };
        let is_name = |byte: &u8| byte.is_ascii_alphanumeric() || matches!(byte, b'-' | b'_');
        let length = behind.bytes().take(LONGEST_NAME).take_while(is_name).count();
        let mut end = 5 + length;
        for bracket in ["[", "(", "["] {
            let close = if bracket == "(" { ')' } else { ']' };
            if rest[end..].starts_with(bracket) {
                let Some(inner) = matching(&rest[end..], bracket.chars().next().unwrap_or('['), close) else { return false };
                end += inner + 2;
            } else if bracket == "(" {
                return false;
            }
        }
        if length == 0 {
            return false;
        }
        self.write_to(scan, at);
        self.tallies.calls.add(scan.offset(at), &rest[..end]);
        (scan.at, scan.written) = (at + end, at + end);
        true
    }
}
