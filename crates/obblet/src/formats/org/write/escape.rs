//! Characters that would mean something: written as entities, so that they mean themselves.

use crate::document::{Document, Kind, Step};

/// What stands for nothing, where characters must not stand beside each other.
pub(super) const NOTHING: &str = "@@comment:@@";

/// Options that spare most texts from being escaped: those with names such as `tide_table`, and those with hyphens in a row.
pub(super) fn options(doc: &Document) -> Vec<&'static str> {
    let (mut scripts, mut strings) = (false, false);
    for step in doc.walk_all() {
        if let Step::Enter(id) = step
            && let Kind::Text(text) = doc.kind(id)
        {
            let text = doc.text(text);
            strings |= text.contains("--") || text.contains("...");
            scripts |= text.as_bytes().windows(3).any(|three| {
                matches!(three[1], b'_' | b'^') && !three[0].is_ascii_whitespace() && !three[2].is_ascii_whitespace()
            });
        }
    }
    let mut options = Vec::new();
    if scripts {
        options.push("^:{}");
    }
    if strings {
        options.push("-:nil");
    }
    options
}

/// How many of each marker a text has still.
#[derive(Clone, Copy, Debug, Default)]
pub(super) struct Markers([usize; 6]);

impl Markers {
    const ALL: [char; 6] = ['*', '/', '+', '=', '~', '_'];

    /// Adds those of a text.
    pub(super) fn add(&mut self, text: &str) {
        for (count, marker) in self.0.iter_mut().zip(Self::ALL) {
            *count += text.bytes().filter(|byte| *byte == marker as u8).count();
        }
    }

    /// One of them is written. Whether more like it follow.
    fn take(&mut self, c: char) -> bool {
        let Some(place) = Self::ALL.iter().position(|marker| *marker == c) else { return false };
        self.0[place] = self.0[place].saturating_sub(1);
        self.0[place] > 0
    }
}

/// Whether emphasis may begin behind a character.
pub(super) fn may_precede(c: Option<char>) -> bool {
    c.is_none_or(|c| c.is_whitespace() || matches!(c, '-' | '\u{2013}' | '\u{2014}' | '(' | '{' | '\'' | '"' | '\u{200B}'))
}

/// Whether emphasis may end before a character.
pub(super) fn may_follow(c: Option<char>) -> bool {
    c.is_none_or(|c| {
        c.is_whitespace()
            || matches!(
                c,
                '-' | '\u{2013}'
                    | '\u{2014}'
                    | '.'
                    | ','
                    | ';'
                    | ':'
                    | '!'
                    | '?'
                    | '\''
                    | '"'
                    | ')'
                    | '}'
                    | '\\'
                    | '['
                    | '\u{200B}'
            )
    })
}

/// Text with what would mean something written so that it does not. `before` is the character before it.
pub(super) fn escaped(text: &str, before: Option<char>, left: &mut Markers, out: &mut String) {
    let mut before = before;
    for (at, c) in text.char_indices() {
        let rest = &text[at + c.len_utf8()..];
        let next = rest.chars().next();
        let more = left.take(c);
        let entity = match c {
            '*' | '/' | '+' | '=' | '~' if opens(before, next) && more => name_of(c),
            '_' if (opens(before, next) && more) || next == Some('{') => name_of(c),
            '^' if next == Some('{') => name_of(c),
            '[' if rest.starts_with('[') || rest.starts_with("fn:") || rest.starts_with("cite") || starts_date(rest) => {
                name_of(c)
            }
            ']' if rest.starts_with(']') => name_of(c),
            '<' if rest.starts_with('<') || starts_date(rest) || rest.contains(':') => name_of(c),
            '\\' if next.is_some_and(|c| c.is_ascii_alphanumeric() || matches!(c, '(' | '[' | '\\' | '-')) || rest.is_empty() => {
                name_of(c)
            }
            '$' => name_of(c),
            '@' if next == Some('@') => {
                out.push('@');
                out.push_str("@@comment:");
                out.push_str("@@");
                before = Some('@');
                continue;
            }
            '{' if rest.starts_with("{{") => name_of(c),
            _ => "",
        };
        if entity.is_empty() {
            out.push(if c == '\n' { ' ' } else { c });
        } else {
            out.push('\\');
            out.push_str(entity);
            out.push_str("{}");
        }
        before = Some(c);
    }
}

fn opens(before: Option<char>, next: Option<char>) -> bool {
    may_precede(before) && next.is_some_and(|next| !next.is_whitespace())
}

fn starts_date(text: &str) -> bool {
    let bytes = text.as_bytes();
    bytes.len() > 5 && bytes[..4].iter().all(u8::is_ascii_digit) && bytes[4] == b'-'
}

/// The name of the entity that stands for a character.
const fn name_of(c: char) -> &'static str {
    match c {
        '*' => "ast",
        '/' => "slash",
        '+' => "plus",
        '=' => "equal",
        '~' => "tilde",
        '_' => "under",
        '^' => "asciicirc",
        '[' => "lbrack",
        ']' => "rbrack",
        '<' => "lt",
        '\\' => "backslash",
        '$' => "dollar",
        '{' => "lbrace",
        _ => "",
    }
}

/// A line of text that would begin something else where it stands, kept from doing so.
pub(super) fn line_start(line: &str) -> bool {
    let bytes = line.as_bytes();
    let Some(&first) = bytes.first() else { return false };
    let behind = |count: usize| matches!(bytes.get(count), None | Some(b' ' | b'\t'));
    match first {
        b'*' => behind(bytes.iter().take_while(|&&byte| byte == b'*').count()),
        b'-' | b'+' => behind(1) || (bytes.len() >= 5 && bytes.iter().all(|&byte| byte == b'-')),
        b'0'..=b'9' => {
            let digits = bytes.iter().take_while(|byte| byte.is_ascii_digit()).count();
            matches!(bytes.get(digits), Some(b'.' | b')')) && behind(digits + 1)
        }
        b'#' => behind(1) || bytes.get(1) == Some(&b'+'),
        b':' => behind(1) || line.ends_with(':'),
        b'|' => true,
        b'\\' => line.starts_with("\\begin{") || line.starts_with("\\end{"),
        b'[' => line.starts_with("[fn:"),
        b'C' => line.starts_with("CLOCK:"),
        b'S' | b'D' => line.starts_with("SCHEDULED:") || line.starts_with("DEADLINE:"),
        _ => line.starts_with("%%("),
    }
}
