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
    let mut found = Vec::with_capacity(source.len() / 2 + 8);
    let mut rest = source.char_indices().peekable();
    while let Some((at, c)) = rest.next() {
        let kind = match c {
            '\\' => {
                let start = at + 1;
                let mut end = start;
                if let Some((next, letter)) = rest.next_if(|(_, c)| !c.is_ascii_alphabetic()) {
                    end = next + letter.len_utf8();
                } else {
                    while let Some((next, _)) = rest.next_if(|(_, c)| c.is_ascii_alphabetic()) {
                        end = next + 1;
                    }
                    if end > start {
                        // A star is part of the name of what has such a form.
                        let name = &source[start..end];
                        if STARRED.contains(&name) && rest.next_if(|(_, c)| *c == '*').is_some() {
                            end += 1;
                        }
                        // White space behind a name ends it.
                        if !name.ends_with('*') {
                            while rest.next_if(|(_, c)| c.is_ascii_whitespace()).is_some() {}
                        }
                    }
                }
                Kind::Command(Rc::from(&source[start..end]))
            }
            '%' => {
                // A comment, with the end of its line.
                for (_, c) in rest.by_ref() {
                    if c == '\n' {
                        break;
                    }
                }
                while rest.next_if(|(_, c)| matches!(c, ' ' | '\t')).is_some() {}
                continue;
            }
            '{' => Kind::Open,
            '}' => Kind::Close,
            '^' => Kind::Sup,
            '_' => Kind::Sub,
            '&' => Kind::Cell,
            '#' => match rest.next_if(|(_, c)| matches!(c, '1'..='9')) {
                Some((_, digit)) => Kind::Parameter(digit as u8 - b'0'),
                None => Kind::Char('#'),
            },
            c if c.is_whitespace() && c != '\u{A0}' => {
                while rest.next_if(|(_, c)| c.is_whitespace() && *c != '\u{A0}').is_some() {}
                Kind::Space
            }
            c => Kind::Char(c),
        };
        found.push(Token { kind, at: at as u32 });
    }
    found.reverse();
    found
}

/// Commands that have a form with a star.
const STARRED: [&str; 9] =
    ["operatorname", "tag", "hspace", "DeclareMathOperator", "newcommand", "renewcommand", "providecommand", "xlongequal", "bra"];
