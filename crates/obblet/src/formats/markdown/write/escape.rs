//! Characters that would mean something: which have to be escaped, and where (CommonMark, section 2.4).

use super::Resolved;
use crate::formats::markdown::Extensions;
use crate::formats::markdown::characters::{is_reference, is_white};
use crate::formats::markdown::entity;

bitflags::bitflags! {
    /// Where a text stands.
    #[derive(Clone, Copy, Debug, Default, PartialEq, Eq, Hash)]
    pub(super) struct Place: u8 {
        /// In the text of a link.
        const LINK = 1 << 0;
        /// In a cell of a table.
        const TABLE = 1 << 1;
        /// In a paragraph with several dollar signs.
        const DOLLARS = 1 << 2;
        /// Before a link.
        const BEFORE_LINK = 1 << 3;
    }
}

/// What stands around a piece of text.
#[derive(Clone, Copy, Debug)]
pub(super) struct Context {
    /// The character that is written behind it.
    pub(super) after: Option<char>,
    /// Where it stands.
    pub(super) place: Place,
}

/// Bytes that may have to be escaped, or that begin a character that may.
static MAY_MATTER: [bool; 256] = {
    let mut table = [false; 256];
    let bytes = b"\\`*_[]<&~$|!@:w\r\xC2\xE2\xEF";
    let mut at = 0;
    while at < bytes.len() {
        table[bytes[at] as usize] = true;
        at += 1;
    }
    table
};

/// Writes text so that it is read as the same text.
pub(super) fn text(out: &mut String, text: &str, around: &Context, options: &Resolved<'_>) {
    let bytes = text.as_bytes();
    let autolinks = options.syntax.has(Extensions::AUTOLINKS);
    let mut plain = 0;
    let mut at = 0;
    while let Some(found) = bytes[at..].iter().position(|&byte| MAY_MATTER[usize::from(byte)]) {
        at += found;
        let c = text[at..].chars().next().unwrap_or_default();
        let before = text[..at].chars().next_back().or_else(|| out[..].chars().next_back().filter(|_| plain == at));
        let rest = &text[at + c.len_utf8()..];
        let next = rest.chars().next().or(around.after);
        if is_reference(c) {
            out.push_str(&text[plain..at]);
            out.push_str(&reference(c));
            at += c.len_utf8();
            plain = at;
            continue;
        }
        if c == '_' {
            // All underscores of a run have the neighbours of the run.
            let run = bytes[at..].iter().take_while(|&&byte| byte == b'_').count();
            let after = text[at + run..].chars().next().or(around.after);
            let word = |c: Option<char>| c.is_some_and(char::is_alphanumeric);
            let white = |c: Option<char>| is_white(c) && !c.is_some_and(is_reference);
            if !(word(before) && word(after) || white(before) && white(after)) {
                out.push_str(&text[plain..at]);
                out.extend(std::iter::repeat_n("\\_", run));
                plain = at + run;
            }
            at += run;
            continue;
        }
        let spaced = |c: Option<char>| is_white(c) && !c.is_some_and(is_reference);
        let escapes = match c {
            '\\' => next.is_none_or(|c| c.is_ascii_punctuation() || c == '\n'),
            '`' => true,
            '*' => !(spaced(before) && spaced(next)),
            '[' => {
                around.place.contains(Place::LINK)
                    || (options.syntax.has(Extensions::FOOTNOTES) && rest.starts_with('^'))
                    || options.settings.links == super::LinkForm::Reference
                    || (before.is_none() && rest.starts_with(['!', ' ', 'x', 'X']))
            }
            ']' => {
                around.place.contains(Place::LINK)
                    || matches!(next, Some('(' | '[' | ':'))
                    || options.settings.links == super::LinkForm::Reference
            }
            '!' => (rest.is_empty() && around.place.contains(Place::BEFORE_LINK)) || (rest.is_empty() && next == Some('[')),
            '<' => next.is_some_and(|c| c.is_ascii_alphabetic() || matches!(c, '/' | '!' | '?')) || mail_follows(rest),
            '&' => is_entity(&text[at..]),
            '~' => options.syntax.has(Extensions::STRIKETHROUGH) && !(spaced(before) && spaced(next)),
            '$' => options.syntax.has(Extensions::MATH) && (around.place.contains(Place::DOLLARS) || next == Some('$')),
            '|' => around.place.contains(Place::TABLE),
            ':' => autolinks && rest.starts_with("//") && ends_with_scheme(&text[..at]),
            '@' => autolinks && around_mail(before, rest),
            'w' => false,
            _ => false,
        };
        if escapes {
            out.push_str(&text[plain..at]);
            out.push('\\');
            plain = at;
        } else if c == 'w' && autolinks && rest.starts_with("ww.") && !before.is_some_and(char::is_alphanumeric) {
            // An address that is no link.
            out.push_str(&text[plain..at]);
            out.push_str("www\\.");
            at += 4;
            plain = at;
            continue;
        }
        at += c.len_utf8();
    }
    out.push_str(&text[plain..]);
}

fn reference(c: char) -> String {
    match c {
        '\u{A0}' => "&nbsp;".to_owned(),
        '\u{AD}' => "&shy;".to_owned(),
        '\u{200E}' => "&lrm;".to_owned(),
        '\u{200F}' => "&rlm;".to_owned(),
        c => format!("&#x{:X};", c as u32),
    }
}

fn is_entity(text: &str) -> bool {
    entity::reference(text).is_some()
}

fn ends_with_scheme(text: &str) -> bool {
    ["http", "https", "ftp"].iter().any(|scheme| {
        text.len() >= scheme.len()
            && text.is_char_boundary(text.len() - scheme.len())
            && text[text.len() - scheme.len()..].eq_ignore_ascii_case(scheme)
    })
}

fn mail_follows(rest: &str) -> bool {
    let end = rest.find(|c: char| c.is_whitespace() || matches!(c, '<' | '>')).unwrap_or(rest.len());
    rest[end..].starts_with('>') && rest[..end].contains('@')
}

fn around_mail(before: Option<char>, rest: &str) -> bool {
    before.is_some_and(|c| c.is_ascii_alphanumeric() || matches!(c, '.' | '-' | '_' | '+'))
        && rest.starts_with(|c: char| c.is_ascii_alphanumeric() || matches!(c, '-' | '_'))
        // No host has a longer name.
        && rest.bytes().take(255).take_while(|byte| !byte.is_ascii_whitespace()).any(|byte| byte == b'.')
}

/// A line whose beginning would make a block of it, with that beginning escaped.
pub(super) fn line_start(line: &str, is_first: bool) -> Option<String> {
    let escaped_at = |at: usize| Some(format!("{}\\{}", &line[..at], &line[at..]));
    let bytes = line.as_bytes();
    let ends_mark = |at: usize| bytes.get(at).is_none_or(|byte| matches!(byte, b' ' | b'\t'));
    let only = |signs: &[u8]| bytes.iter().all(|byte| signs.contains(byte));
    match *bytes.first()? {
        b'#' => {
            let hashes = line.len() - line.trim_start_matches('#').len();
            if hashes <= 6 && ends_mark(hashes) { escaped_at(0) } else { None }
        }
        b'>' => escaped_at(0),
        b'-' | b'+' if ends_mark(1) => escaped_at(0),
        b'*' if ends_mark(1) => escaped_at(0),
        b'-' if only(b"-|: \t") => escaped_at(0),
        b'-' | b'_' if only(b"- \t") || only(b"_ \t") => escaped_at(0),
        b'=' if only(b"= \t") && !is_first => escaped_at(0),
        b'|' | b':' if only(b"-|: \t") && line.contains('-') => escaped_at(0),
        b'~' if line.starts_with("~~~") => escaped_at(0),
        b'0'..=b'9' => {
            let digits = line.len() - line.trim_start_matches(|c: char| c.is_ascii_digit()).len();
            let marker = matches!(bytes.get(digits), Some(b'.' | b')')) && ends_mark(digits + 1) && digits <= 9;
            if marker { escaped_at(digits) } else { None }
        }
        b'[' if is_first && names_callout(line) => escaped_at(0),
        // A mark of a note, or a bracket, before a colon would define something.
        b'[' if is_first => {
            let end = line.find("]:")?;
            if line[1..end].contains("](") { None } else { Some(format!("{}\\{}", &line[..=end], &line[end + 1..])) }
        }
        b'<' if is_first => {
            // A tag alone on its line would begin a block of HTML.
            let alone = line.ends_with('>') && line.matches('<').count() == 1 && !line.contains(':') && !line.contains('@');
            alone.then(|| format!("{line}<!-- -->"))
        }
        _ => None,
    }
}

/// Whether a line begins as one that makes a callout of a quote.
fn names_callout(line: &str) -> bool {
    let (word, rest) = line.strip_prefix("[!").and_then(|rest| rest.split_once(']')).unwrap_or_default();
    rest.trim().is_empty() && !word.is_empty() && word.bytes().all(|byte| byte.is_ascii_alphabetic())
}

/// Whether text at the start of a line would be a block.
pub(super) fn begins_block(text: &str) -> bool {
    line_start(text, true).is_some() || text.starts_with(['<', '`', '~', '|'])
}

/// The text of a heading whose last number signs would be taken for an end.
pub(super) fn closing_hashes(text: &str) -> String {
    let kept = text.trim_end_matches('#');
    if kept.len() < text.len() && (kept.is_empty() || kept.ends_with([' ', '\t'])) {
        return format!("{}\\{}", &text[..text.len() - 1], &text[text.len() - 1..]);
    }
    text.to_owned()
}

/// Code within a line; nothing for code that is empty.
pub(super) fn code(text: &str, in_table: bool) -> Option<String> {
    if text.is_empty() {
        return None;
    }
    let fence = free_length(text);
    let edge = |c| text.starts_with(c) || text.ends_with(c);
    let spaces = [' ', '\n', '\r'];
    let blank = text.trim_matches(spaces).is_empty();
    let pads = edge('`') || (text.starts_with(spaces) && text.ends_with(spaces) && !blank);
    let mut out = String::with_capacity(text.len() + 2 * fence + 2);
    let ends = |out: &mut String| out.extend(std::iter::repeat_n('`', fence));
    ends(&mut out);
    if pads {
        out.push(' ');
    }
    let mut plain = 0;
    for (at, _) in text.match_indices(['\n', '\r', '|']) {
        let is_bar = text.as_bytes()[at] == b'|';
        if !is_bar || in_table {
            out.push_str(&text[plain..at]);
            out.push_str(if is_bar { "\\|" } else { " " });
            plain = at + 1;
        }
    }
    out.push_str(&text[plain..]);
    if pads {
        out.push(' ');
    }
    ends(&mut out);
    Some(out)
}

/// The least number of backticks of which there is no run in a text.
fn free_length(text: &str) -> usize {
    if memchr::memchr(b'`', text.as_bytes()).is_none() {
        return 1;
    }
    let mut runs: Vec<usize> = text.split(|c| c != '`').map(str::len).filter(|&run| run > 0).collect();
    runs.sort_unstable();
    runs.dedup();
    runs.iter().enumerate().find(|&(index, &run)| run != index + 1).map_or(runs.len(), |(index, _)| index) + 1
}

/// The words of a picture.
pub(super) fn label(alt: &str, options: &Resolved<'_>) -> String {
    let mut out = String::new();
    let dollars = if alt.contains('$') { Place::DOLLARS } else { Place::empty() };
    let around = Context { after: Some(']'), place: Place::LINK | dollars };
    text(&mut out, &alt.split_whitespace().collect::<Vec<_>>().join(" "), &around, options);
    out
}

/// What a source says about a block of code, on one line.
pub(super) fn info(info: &str) -> String {
    let mut out = String::new();
    for (at, c) in info.char_indices() {
        let escapes =
            (c == '\\' && info[at + 1..].starts_with(|c: char| c.is_ascii_punctuation())) || (c == '&' && is_entity(&info[at..]));
        if escapes {
            out.push('\\');
        }
        out.push(if c == '\n' { ' ' } else { c });
    }
    out.trim().to_owned()
}

/// Whether all of an address means itself between parentheses.
fn is_plain(address: &str) -> bool {
    let plain = |byte: u8| matches!(byte, b'!' | b'#'..=b'%' | b'*'..=b';' | b'=' | b'?'..=b'[' | b']'..=b'~');
    !address.is_empty() && address.bytes().all(plain)
}

/// Writes an address and a title, as they stand behind the text of a link (CommonMark, section 6.3).
pub(super) fn target(out: &mut String, address: &str, title: Option<&str>) {
    if title.is_none() && is_plain(address) {
        return out.push_str(address);
    }
    let balanced = {
        let mut depth = 0_i32;
        let fits = address.bytes().all(|byte| {
            depth += i32::from(byte == b'(') - i32::from(byte == b')');
            (0..32).contains(&depth)
        });
        fits && depth == 0
    };
    let plain =
        !address.is_empty() && balanced && !address.starts_with('<') && !address.chars().any(|c| c == ' ' || c.is_control());
    let brackets = !plain && (!address.is_empty() || title.is_some());
    if brackets {
        out.push('<');
    }
    for (at, c) in address.char_indices() {
        let next = address[at + c.len_utf8()..].chars().next();
        match c {
            '\\' if next.is_none_or(|c| c.is_ascii_punctuation()) => out.push_str("\\\\"),
            '&' if is_entity(&address[at..]) => out.push_str("\\&"),
            '<' | '>' if !plain => out.extend(['\\', c]),
            '\n' => out.push_str("%0A"),
            '\r' => out.push_str("%0D"),
            c => out.push(c),
        }
    }
    if brackets {
        out.push('>');
    }
    if let Some(title) = title {
        out.push_str(" \"");
        for (at, c) in title.char_indices() {
            let next = title[at + c.len_utf8()..].chars().next();
            match c {
                '"' => out.push_str("\\\""),
                '\\' if next.is_none_or(|c| c.is_ascii_punctuation()) => out.push_str("\\\\"),
                '&' if is_entity(&title[at..]) => out.push_str("\\&"),
                '\n' => out.push_str("&#10;"),
                c if is_reference(c) => out.push_str(&reference(c)),
                c => out.push(c),
            }
        }
        out.push('"');
    }
}

/// Whether an address can stand between angle brackets (CommonMark, section 6.5).
pub(super) fn is_address(address: &str) -> bool {
    let Some((scheme, rest)) = address.split_once(':') else { return false };
    (2..=32).contains(&scheme.len())
        && scheme.starts_with(|c: char| c.is_ascii_alphabetic())
        && scheme.bytes().all(|byte| byte.is_ascii_alphanumeric() || matches!(byte, b'+' | b'.' | b'-'))
        && !rest.chars().any(|c| c <= ' ' || c.is_control() || matches!(c, '<' | '>') || is_reference(c) || c.is_whitespace())
        && !address.contains(['&', '\\', '|'])
}

/// Whether a mail address can stand between angle brackets.
pub(super) fn is_mail_address(address: &str) -> bool {
    let Some((name, host)) = address.split_once('@') else { return false };
    let is_label = |label: &str| {
        !label.is_empty()
            && label.bytes().all(|byte| byte.is_ascii_alphanumeric() || byte == b'-')
            && !label.starts_with('-')
            && !label.ends_with('-')
    };
    !name.is_empty()
        && name.bytes().all(|byte| byte.is_ascii_alphanumeric() || matches!(byte, b'.' | b'_' | b'+' | b'-'))
        && host.split('.').all(is_label)
}
