//! Addresses that are links by themselves: in angle brackets (CommonMark, section 6.5) and bare (GitHub Flavored
//! Markdown, section 6.9).

use super::super::super::entity;
use super::Scanner;
use super::inline_token::TokenKind;

/// An address in angle brackets at the start of `text`: whether it is one for mail, and its length with the brackets.
pub(super) fn in_angle_brackets(text: &str) -> Option<(bool, usize)> {
    let bytes = text.as_bytes();
    let first = *bytes.get(1)?;
    if first.is_ascii_alphabetic() {
        let scheme = bytes[1..]
            .iter()
            .take(33)
            .take_while(|byte| byte.is_ascii_alphanumeric() || matches!(byte, b'+' | b'.' | b'-'))
            .count();
        if (2..=32).contains(&scheme) && bytes.get(1 + scheme) == Some(&b':') {
            let rest = &bytes[2 + scheme..];
            let length = rest.iter().take_while(|byte| !matches!(byte, 0..=b' ' | b'<' | b'>' | 0x7F)).count();
            if rest.get(length) == Some(&b'>') {
                return Some((false, scheme + length + 3));
            }
        }
    }
    let local =
        bytes[1..].iter().take_while(|byte| byte.is_ascii_alphanumeric() || b".!#$%&'*+/=?^_`{|}~-".contains(byte)).count();
    if local == 0 || bytes.get(1 + local) != Some(&b'@') {
        return None;
    }
    let mut at = 2 + local;
    loop {
        let label = bytes[at..].iter().take(64).take_while(|byte| byte.is_ascii_alphanumeric() || **byte == b'-').count();
        if label == 0 || label > 63 || bytes[at] == b'-' || bytes[at + label - 1] == b'-' {
            return None;
        }
        at += label;
        match bytes.get(at)? {
            b'.' => at += 1,
            b'>' => return Some((true, at + 1)),
            _ => return None,
        }
    }
}

/// Names of hosts are no longer than this (RFC 1035, section 2.3.4).
const LONGEST_DOMAIN: usize = 255;

/// Whether a text begins with a domain of so many periods. What ends a sentence at its end is no part of it.
fn is_domain(text: &str, periods_needed: usize) -> bool {
    let is_part = |c: char| c.is_alphanumeric() || matches!(c, '-' | '_' | '.');
    let length: usize = text.chars().take(LONGEST_DOMAIN).take_while(|&c| is_part(c)).map(char::len_utf8).sum();
    let name = text[..length].trim_end_matches(['.', '_']);
    let underscored = name.rsplit('.').take(2).any(|label| label.contains('_'));
    !name.is_empty()
        && length < LONGEST_DOMAIN
        && !name.starts_with('.')
        && !underscored
        && name.matches('.').count() >= periods_needed
}

/// Where an address ends that goes up to white space at most: punctuation at its end belongs to the sentence.
fn extent(text: &str, in_brackets: bool) -> usize {
    let stop = |c: char| c.is_whitespace() || c == '<' || (in_brackets && c == ']');
    let mut end = text.find(stop).unwrap_or(text.len());
    let bytes = text.as_bytes();
    let count = |mark: u8| memchr::memchr_iter(mark, &bytes[..end]).count();
    let mut surplus = count(b')').saturating_sub(count(b'('));
    while end > 0 {
        match bytes[end - 1] {
            b'?' | b'!' | b'.' | b',' | b':' | b'*' | b'_' | b'~' | b'\'' | b'"' => end -= 1,
            b')' if surplus > 0 => {
                surplus -= 1;
                end -= 1;
            }
            b';' => {
                let letters = bytes[..end - 1].iter().rev().take(32).take_while(|byte| byte.is_ascii_alphanumeric()).count();
                let start = end - 1 - letters;
                if letters > 0 && start > 0 && bytes[start - 1] == b'&' {
                    end = start - 1;
                } else {
                    break;
                }
            }
            _ => break,
        }
    }
    end
}

impl Scanner<'_, '_> {
    fn address(&mut self, start: usize, end: usize, prefix: &str) {
        self.at = start;
        let raw = &self.text[start..end];
        let resolved = entity::unescape_references(raw);
        let text = self.interned(raw, &resolved);
        let href = if prefix.is_empty() { text } else { self.context.doc.intern(&format!("{prefix}{resolved}")) };
        self.token(TokenKind::Address { href, text }, end);
    }

    /// `www.` and what follows it.
    pub(super) fn www_address(&mut self) {
        let rest = &self.text[self.at..];
        let before = self.text[..self.at].chars().next_back();
        let allowed = before.is_none_or(|c| {
            c.is_whitespace() || matches!(c, '*' | '_' | '~' | '(' | '[' | '"' | '\'') || !(c.is_alphanumeric() || c.is_ascii())
        });
        let begins = allowed && rest.starts_with("www.") && is_domain(&rest[4..], 1);
        let length = if begins { extent(rest, !self.context.brackets.is_empty()) } else { 0 };
        if length > 4 {
            self.address(self.at, self.at + length, "http://");
        } else {
            self.at += 1;
        }
    }

    /// A colon may stand behind the scheme of an address.
    pub(super) fn web_address(&mut self) {
        let colon = self.at;
        self.at += 1;
        let rest = &self.text[colon..];
        if !rest.starts_with("://") {
            return;
        }
        let plain = &self.text.as_bytes()[self.plain..colon];
        let ends = |scheme: &&&str| {
            plain.len() >= scheme.len()
                && plain[plain.len() - scheme.len()..].eq_ignore_ascii_case(scheme.as_bytes())
                && plain.get(plain.len().wrapping_sub(scheme.len() + 1)).is_none_or(|byte| !byte.is_ascii_alphanumeric())
        };
        let Some(scheme) = ["https", "http", "ftp"].iter().find(ends) else { return };
        let after = &rest[3..];
        if !is_domain(after, 0) && !after.starts_with('[') {
            return;
        }
        let length = extent(after, !self.context.brackets.is_empty());
        if length > 0 {
            self.address(colon - scheme.len(), colon + 3 + length, "");
        }
    }

    /// A mail address around an at sign.
    pub(super) fn mail_address(&mut self) {
        let at = self.at;
        self.at += 1;
        let bytes = self.text.as_bytes();
        let is_local = |byte: &&u8| byte.is_ascii_alphanumeric() || matches!(byte, b'.' | b'-' | b'_' | b'+');
        let local = bytes[self.plain..at].iter().rev().take_while(is_local).count();
        if local == 0 {
            return;
        }
        let is_domain = |byte: &&u8| byte.is_ascii_alphanumeric() || matches!(byte, b'.' | b'-' | b'_');
        let domain = bytes[at + 1..].iter().take_while(is_domain).count();
        let name = self.text[at + 1..at + 1 + domain].trim_end_matches('.');
        if !name.contains('.') || name.starts_with('.') || name.ends_with(['-', '_']) || name.contains("..") {
            return;
        }
        let (start, end) = (at - local, at + 1 + name.len());
        match ["mailto:", "xmpp:"].iter().find(|scheme| self.text[self.plain..start].ends_with(**scheme)) {
            Some(scheme) => self.address(start - scheme.len(), end, ""),
            None => self.address(start, end, "mailto:"),
        }
    }
}
