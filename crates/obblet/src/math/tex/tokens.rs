//! Tokens: commands, characters with a meaning, and all others (The TeXbook, chapter 7).

use std::rc::Rc;

/// A token, and the byte of the source where it begins.
#[derive(Clone, Debug, PartialEq, Eq)]
pub(super) struct Token {
    pub(super) kind: Kind,
    pub(super) at: u32,
}

/// What a token is.
#[derive(Clone, Debug, PartialEq, Eq)]
pub(super) enum Kind {
    /// `\name`, without the backslash.
    Command(Rc<str>),
    /// `{`
    Open,
    /// `}`
    Close,
    /// `^`
    Sup,
    /// `_`
    Sub,
    /// `&`
    Cell,
    /// `#1`
    Parameter(u8),
    /// White space, however much.
    Space,
    /// Anything else.
    Char(char),
}

impl Kind {
    /// The name, where it is a command.
    pub(super) fn command(&self) -> Option<&str> {
        match self {
            Self::Command(name) => Some(name),
            _ => None,
        }
    }

    /// Writes it as TeX.
    pub(super) fn write(&self, out: &mut String) {
        match self {
            Self::Command(name) => {
                out.push('\\');
                out.push_str(name);
                if name.ends_with(|c: char| c.is_ascii_alphabetic()) {
                    out.push(' ');
                }
            }
            Self::Open => out.push('{'),
            Self::Close => out.push('}'),
            Self::Sup => out.push('^'),
            Self::Sub => out.push('_'),
            Self::Cell => out.push('&'),
            Self::Parameter(number) => {
                out.push('#');
                out.push(char::from(b'0' + number));
            }
            Self::Space => out.push(' '),
            Self::Char(c) => out.push(*c),
        }
    }
}

/// The tokens of a source, the last one first.
pub(super) fn tokens(source: &str) -> Vec<Token> {
    let bytes = source.as_bytes();
    let mut found = Vec::with_capacity(source.len() / 2 + 8);
    let mut at = 0;
    while let Some(&byte) = bytes.get(at) {
        let start = at;
        at += 1;
        let kind = match byte {
            b'\\' => {
                at = end_of_name(source, at);
                let name = Rc::from(&source[start + 1..at]);
                if *name == *"verb"
                    && let Some(end) = verbatim(source, at, &mut found)
                {
                    at = end;
                    continue;
                }
                // White space behind a name ends it.
                if bytes[at - 1].is_ascii_alphabetic() {
                    at += white(&bytes[at..], u8::is_ascii_whitespace);
                }
                Kind::Command(name)
            }
            b'%' => {
                // A comment, with the end of its line.
                at = memchr::memchr(b'\n', &bytes[at..]).map_or(bytes.len(), |end| at + end + 1);
                at += white(&bytes[at..], |byte| matches!(byte, b' ' | b'\t'));
                continue;
            }
            b'{' => Kind::Open,
            b'}' => Kind::Close,
            b'^' => Kind::Sup,
            b'_' => Kind::Sub,
            b'&' => Kind::Cell,
            b'#' => match bytes.get(at) {
                Some(digit @ b'1'..=b'9') => {
                    at += 1;
                    Kind::Parameter(digit - b'0')
                }
                _ => Kind::Char('#'),
            },
            b'!'..=b'~' => Kind::Char(char::from(byte)),
            _ => {
                let c = source[start..].chars().next().unwrap_or_default();
                at = start + c.len_utf8();
                let is_space = |c: char| c.is_whitespace() && c != '\u{A0}';
                if is_space(c) {
                    let rest = &source[at..];
                    at += rest.len() - rest.trim_start_matches(is_space).len();
                    Kind::Space
                } else {
                    Kind::Char(c)
                }
            }
        };
        found.push(Token { kind, at: start as u32 });
    }
    found.reverse();
    found
}

/// Verbatim text is no longer, in characters.
const LONGEST_VERBATIM: usize = 1000;

/// The tokens of characters as they are, between two marks that are the same: `\\verb`, with them in braces. Gives their end.
fn verbatim(source: &str, start: usize, found: &mut Vec<Token>) -> Option<usize> {
    let (star, rest) = source[start..].strip_prefix('*').map_or((0, &source[start..]), |rest| (1, rest));
    let mark = rest.chars().next().filter(|mark| !mark.is_whitespace() && !mark.is_ascii_alphabetic())?;
    let from = start + star + mark.len_utf8();
    let mut ahead = source[from..].char_indices().take(LONGEST_VERBATIM).take_while(|(_, c)| *c != '\n');
    let (length, _) = ahead.find(|(_, c)| *c == mark)?;
    let place = start as u32;
    found.push(Token { kind: Kind::Command("verb".into()), at: place });
    found.push(Token { kind: Kind::Open, at: place });
    let characters = source[from..from + length].char_indices();
    found.extend(characters.map(|(at, c)| Token { kind: Kind::Char(c), at: (from + at) as u32 }));
    found.push(Token { kind: Kind::Close, at: place });
    Some(from + length + mark.len_utf8())
}

/// How many bytes are white space.
fn white(bytes: &[u8], is_white: fn(&u8) -> bool) -> usize {
    bytes.iter().take_while(|byte| is_white(byte)).count()
}

/// Where the name of a command ends: behind its letters and a star that is part of it, or behind one other character.
fn end_of_name(source: &str, start: usize) -> usize {
    let letters = source.as_bytes()[start..].iter().take_while(|byte| byte.is_ascii_alphabetic()).count();
    if letters == 0 {
        return start + source[start..].chars().next().map_or(0, char::len_utf8);
    }
    let end = start + letters;
    let has_star = source.as_bytes().get(end) == Some(&b'*') && STARRED.contains(&&source[start..end]);
    end + usize::from(has_star)
}

/// Commands that have a form with a star.
const STARRED: [&str; 9] =
    ["operatorname", "tag", "hspace", "DeclareMathOperator", "newcommand", "renewcommand", "providecommand", "xlongequal", "bra"];
