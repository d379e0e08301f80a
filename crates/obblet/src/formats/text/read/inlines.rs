//! What is found within a line: addresses, and text between underscores.

use super::Patterns;
use super::ReadOptions;
use crate::document::{Document, Kind, NodeId, Text};
use std::borrow::Cow;

/// Adds a piece of the source to a paragraph.
pub(super) fn append(doc: &mut Document, parent: NodeId, start: usize, end: usize, options: &ReadOptions<'_>) {
    let text = doc.pool()[start..end].to_owned();
    let may_link = options.settings.patterns.contains(Patterns::LINKS)
        && (text.contains("://") || text.contains('@') || text.contains("www."));
    let may_stress = options.settings.patterns.contains(Patterns::EMPHASIS) && text.contains('_');
    if !may_link && !may_stress {
        return doc.append_joined(parent, Text::between(start, end), start as u32);
    }
    let mut done = 0;
    let mut at = 0;
    let mut emphasis: Option<NodeId> = None;
    let flush = |doc: &mut Document, parent: NodeId, done: usize, at: usize| {
        doc.append_joined(parent, Text::between(start + done, start + at), (start + done) as u32);
    };
    while at < text.len() {
        let rest = &text[at..];
        let word_start = at == 0 || !text[..at].ends_with(|c: char| c.is_alphanumeric());
        if may_stress && rest.starts_with('_') {
            let into = emphasis.unwrap_or(parent);
            if emphasis.is_some() && closes(&text, at) {
                flush(doc, into, done, at);
                emphasis = None;
                (at, done) = (at + 1, at + 1);
                continue;
            }
            if emphasis.is_none() && opens(&text, at) {
                flush(doc, into, done, at);
                emphasis = Some(doc.append_at(parent, Kind::Emphasis, (start + at) as u32));
                (at, done) = (at + 1, at + 1);
                continue;
            }
        }
        if may_link
            && word_start
            && let Some((length, address)) = address(rest)
        {
            let into = emphasis.unwrap_or(parent);
            flush(doc, into, done, at);
            let href = doc.intern(&address);
            let link = doc.append_at(into, Kind::Link { href }, (start + at) as u32);
            doc.append_at(link, Kind::Text(Text::between(start + at, start + at + length)), (start + at) as u32);
            (at, done) = (at + length, at + length);
            continue;
        }
        // To the next place where something may begin.
        let step =
            rest.char_indices().skip(1).find(|&(place, c)| c == '_' || !rest[..place].ends_with(|c: char| c.is_alphanumeric()));
        at += step.map_or(rest.len(), |(place, _)| place);
    }
    flush(doc, emphasis.unwrap_or(parent), done, text.len());
}

/// Whether a low line begins emphasis: before a word, and the next low line ends it.
fn opens(text: &str, at: usize) -> bool {
    let before = text[..at].chars().next_back();
    let rest = &text[at + 1..];
    let next = rest.find('_').map(|next| at + 1 + next);
    before.is_none_or(|c| !c.is_alphanumeric() && c != '_')
        && rest.starts_with(|c: char| !c.is_whitespace() && c != '_')
        && next.is_some_and(|next| closes(text, next))
}

fn closes(text: &str, at: usize) -> bool {
    let before = text[..at].chars().next_back();
    let after = text[at + 1..].chars().next();
    before.is_some_and(|c| !c.is_whitespace() && c != '_') && after.is_none_or(|c| !c.is_alphanumeric() && c != '_')
}

/// Addresses are not longer than this.
const LONGEST: usize = 500;
/// A mail address has its at sign within so many bytes, with `mailto:` before it (RFC 5321, section 4.5.3.1.1).
const LONGEST_LOCAL: usize = 64 + 8;

/// An address that a text begins with: its length, and where it leads.
fn address(text: &str) -> Option<(usize, Cow<'_, str>)> {
    // Most words are no addresses, and are not looked through for it.
    let start = &text.as_bytes()[..text.len().min(8)];
    let begins = |scheme: &&str| start.get(..scheme.len()).is_some_and(|start| start.eq_ignore_ascii_case(scheme.as_bytes()));
    let scheme = ["http://", "https://", "ftp://"].into_iter().find(begins);
    let is_named = begins(&"www.");
    let has_at = || memchr::memchr(b'@', &text.as_bytes()[..text.len().min(LONGEST_LOCAL)]).is_some();
    if scheme.is_none() && !is_named && !has_at() {
        return None;
    }
    let ends = |c: char| c.is_whitespace() || matches!(c, '<' | '>' | '"' | '\u{201C}' | '\u{201D}');
    let length: usize = text.chars().take(LONGEST).take_while(|&c| !ends(c)).map(char::len_utf8).sum();
    let token = without_end(&text[..length]);
    let host =
        |rest: &str| rest.chars().next().is_some_and(char::is_alphanumeric) && rest.contains('.') && !rest.starts_with('.');
    if let Some(rest) = scheme.and_then(|scheme| token.get(scheme.len()..)) {
        return host(rest).then_some((token.len(), Cow::Borrowed(token)));
    }
    if is_named {
        return host(token.get(4..)?).then(|| (token.len(), Cow::Owned(format!("https://{token}"))));
    }
    let mail = token.strip_prefix("mailto:").unwrap_or(token);
    is_mail(mail).then(|| (token.len(), Cow::Owned(format!("mailto:{mail}"))))
}

/// An address without what ends a sentence; a bracket is part of it where it was opened in it.
fn without_end(token: &str) -> &str {
    let surplus = |open: char, close: char| token.matches(close).count().saturating_sub(token.matches(open).count());
    let (mut round, mut square) = (surplus('(', ')'), surplus('[', ']'));
    let mut token = token;
    while let Some(last) = token.chars().next_back() {
        match last {
            ')' if round > 0 => round -= 1,
            ']' if square > 0 => square -= 1,
            '.' | ',' | ';' | ':' | '!' | '?' | '\'' | '\u{2019}' | '*' | '_' => {}
            _ => break,
        }
        token = &token[..token.len() - last.len_utf8()];
    }
    token
}

fn is_mail(text: &str) -> bool {
    let Some((local, host)) = text.split_once('@') else { return false };
    let is_local = |byte: u8| byte.is_ascii_alphanumeric() || b".!#$%&'*+/=?^_`{|}~-".contains(&byte);
    let is_host = |byte: u8| byte.is_ascii_alphanumeric() || matches!(byte, b'.' | b'-');
    !local.is_empty()
        && local.len() <= 64
        && local.bytes().all(is_local)
        && host.contains('.')
        && host.bytes().all(is_host)
        && !host.starts_with(['.', '-'])
        && !host.contains("..")
        && host.rsplit('.').next().is_some_and(|last| last.len() >= 2 && last.bytes().all(|byte| byte.is_ascii_alphabetic()))
}

#[cfg(test)]
mod tests {
    use super::*;

    #[test]
    fn addresses() {
        let case = |text: &str, length: usize, to: &str| assert_eq!(address(text), Some((length, Cow::Borrowed(to))), "{text}");
        case("https://greywick.example/a_(b)). Then", 30, "https://greywick.example/a_(b)");
        case("www.greywick.example, and", 20, "https://www.greywick.example");
        case("visits@greywick.example.", 23, "mailto:visits@greywick.example");
        for text in ["http://", "https://x", "a@b", "@keeper", "1@2.3", "www.", "a@b..example"] {
            assert_eq!(address(text), None, "{text}");
        }
    }
}
