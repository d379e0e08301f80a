//! Characters of text as LaTeX has them (the LaTeX documentation, "Special characters").

use super::preamble::{Extra, Needs};

/// How quotation marks and dashes are written.
#[derive(Clone, Copy, Debug, PartialEq, Eq)]
pub(super) enum Marks {
    /// As they are: the preamble says that no sign stands for another.
    Exact,
    /// So that the usual preamble of another document leaves them as they are.
    Escaped,
}

/// Appends text. White space is one space, or one line end.
pub(super) fn text(words: &str, marks: Marks, needs: &mut Needs, out: &mut String) {
    let bytes = words.as_bytes();
    let mut from = 0;
    for (at, c) in words.char_indices() {
        if at < from {
            continue;
        }
        if is_plain(c) {
            continue;
        }
        // What is plain up to here goes over in one piece.
        let plain = &words[from..at];
        push_plain(plain, out);
        from = at + c.len_utf8();
        let next = bytes.get(from).copied();
        match c {
            ' ' | '\n' | '\t' | '\r' | '\u{C}' => {
                let rest = &words[from..];
                let white = rest.len() - rest.trim_start_matches([' ', '\n', '\t', '\r', '\u{C}']).len();
                let has_end = c == '\n' || words[from..from + white].contains('\n');
                from += white;
                if has_end && out.ends_with(' ') {
                    out.pop();
                }
                if !out.ends_with(['\n', ' ']) {
                    out.push(if has_end { '\n' } else { ' ' });
                }
            }
            '-' if next == Some(b'-') && marks == Marks::Escaped => out.push_str("-{}"),
            '<' if next == Some(b'<') && marks == Marks::Escaped => out.push_str("<{}"),
            '>' if next == Some(b'>') && marks == Marks::Escaped => out.push_str(">{}"),
            '"' if marks == Marks::Escaped => command("textquotedbl", next, out),
            '`' if marks == Marks::Escaped => command("textasciigrave", next, out),
            '\'' | '-' | '"' | '`' | '<' | '>' => {
                if marks == Marks::Exact {
                    let is_sign = match c {
                        '-' | '<' | '>' => next == Some(c as u8),
                        _ => true,
                    };
                    needs.add(Extra::ExactMarks, is_sign);
                }
                out.push(c);
            }
            _ => special(c, next, needs, out),
        }
    }
    push_plain(&words[from..], out);
}

/// Appends code within a line: its spaces count.
pub(super) fn code(words: &str, needs: &mut Needs, out: &mut String) {
    let bytes = words.as_bytes();
    for (at, c) in words.char_indices() {
        let next = bytes.get(at + c.len_utf8()).copied();
        match c {
            ' ' | '\n' | '\t' | '\r' => {
                let is_alone = at > 0 && bytes[at - 1] > b' ' && next.is_some_and(|next| next > b' ');
                out.push_str(if is_alone { " " } else { "\\ " });
            }
            '\'' | '-' | '"' | '`' | '<' | '>' | '[' | '*' => out.push(c),
            c if is_plain(c) => out.push(c),
            _ => {
                needs.add(Extra::CodeFonts, !is_in_fonts(c));
                special(c, next, needs, out);
            }
        }
    }
}

/// Whether a character is itself, and nothing has to be known of it.
const fn is_plain(c: char) -> bool {
    matches!(c, 'A'..='Z' | 'a'..='z' | '0'..='9' | '.' | ',' | ';' | ':' | '!' | '?' | '(' | ')' | '/' | '=' | '+' | '@' | '|' | ']')
}

fn push_plain(plain: &str, out: &mut String) {
    out.push_str(plain);
}

fn special(c: char, next: Option<u8>, needs: &mut Needs, out: &mut String) {
    match c {
        '$' | '&' | '#' | '%' | '_' | '{' | '}' => {
            out.push('\\');
            out.push(c);
        }
        '\\' => command("textbackslash", next, out),
        '^' => command("textasciicircum", next, out),
        '~' => command("textasciitilde", next, out),
        '[' | '*' if takes_option(out) => {
            out.push('{');
            out.push(c);
            out.push('}');
        }
        '\u{A0}' => out.push('~'),
        '\u{202F}' => out.push_str("\\,"),
        '\u{AD}' => out.push_str("\\-"),
        // The engine takes it for a fault in the encoding.
        '\u{FFFD}' => out.push_str("\\symbol{\"FFFD}"),
        c if c.is_control() || matches!(c, '\u{FEFF}' | '\u{FFFE}' | '\u{FFFF}') => {}
        c => {
            needs.see(c);
            out.push(c);
        }
    }
}

/// Appends a command, and what parts it from a letter behind it.
fn command(name: &str, next: Option<u8>, out: &mut String) {
    out.push('\\');
    out.push_str(name);
    // What is behind the text may begin with anything.
    if next.is_none_or(|next| next.is_ascii_alphabetic() || next <= b' ' || next >= 0x80) {
        out.push_str("{}");
    }
}

/// Whether a bracket or a star here would be taken as an argument of what stands before.
fn takes_option(out: &str) -> bool {
    let before = out.trim_end();
    if before.ends_with("\\\\") || before.ends_with('}') && before.len() < out.len() || before.ends_with('{') {
        return true;
    }
    let name = before.trim_end_matches(|c: char| c.is_ascii_alphabetic());
    name.len() < before.len() && name.ends_with('\\')
}

/// Whether the usual fonts of the engine have a character.
pub(super) const fn is_in_fonts(c: char) -> bool {
    matches!(c,
        ' '..='~' | '\u{A0}'..='\u{17E}' | '\u{218}'..='\u{21B}' | '\u{2010}'..='\u{2022}' | '\u{2026}' | '\u{2030}' | '\u{2039}' | '\u{203A}' | '\u{20AC}' | '\u{2122}')
}

/// Whether a character is of a script that is written from right to left.
pub(super) const fn is_right_to_left(c: char) -> bool {
    matches!(c, '\u{590}'..='\u{8FF}' | '\u{FB1D}'..='\u{FDFF}' | '\u{FE70}'..='\u{FEFC}')
}

/// An address as an argument.
pub(super) fn address(href: &str) -> String {
    let mut out = String::with_capacity(href.len());
    for c in href.trim().chars() {
        match c {
            '%' | '#' | '&' | '_' | '$' => {
                out.push('\\');
                out.push(c);
            }
            '{' => out.push_str("\\%7B"),
            '}' => out.push_str("\\%7D"),
            '\\' => out.push_str("\\%5C"),
            '^' => out.push_str("\\%5E"),
            ' ' => out.push_str("\\%20"),
            c if c.is_control() => {}
            '~' => out.push('~'),
            c => out.push(c),
        }
    }
    out
}
