//! Formulas between dollar signs. A single sign opens one only before something that is no space, and closes it only
//! behind something that is no space and not before a letter or digit, so that prices stay prices.

use super::Scanner;
use super::inline_token::TokenKind;

impl Scanner<'_, '_> {
    /// `$a$`, `` $`a`$ `` and `$$a$$`
    pub(super) fn math(&mut self) {
        let start = self.at;
        let length = self.text.as_bytes()[start..].iter().take_while(|&&byte| byte == b'$').count();
        let opened = start + length;
        self.at = opened;
        if length > 2 || self.missing.dollars[length - 1] || (length == 1 && self.is_within_word(start)) {
            return;
        }
        let display = length == 2;
        let Some(end) = self.closing_dollars(opened, length) else { return };
        let mut tex = (opened, end);
        if length == 1 && self.byte(opened) == b'`' && end > opened + 2 && self.byte(end - 1) == b'`' {
            tex = (opened + 1, end - 1);
        }
        if self.text[tex.0..tex.1].trim_ascii().is_empty() {
            return;
        }
        let tex = self.pool_text(tex.0, tex.1);
        self.at = start;
        self.token(TokenKind::Math { tex, display }, end + length);
    }

    fn is_within_word(&self, start: usize) -> bool {
        matches!(self.byte(start + 1), b' ' | b'\t' | b'\n' | 0)
            || self.text[..start].chars().next_back().is_some_and(char::is_alphanumeric)
    }

    fn closing_dollars(&mut self, start: usize, length: usize) -> Option<usize> {
        let bytes = self.text.as_bytes();
        let mut at = start;
        while let Some(next) = memchr::memchr2(b'$', b'\\', &bytes[at..]) {
            at += next;
            if bytes[at] == b'\\' {
                at += 2;
                if at > bytes.len() {
                    break;
                }
                continue;
            }
            let run = bytes[at..].iter().take_while(|&&byte| byte == b'$').count();
            let closes = run == length
                && (length == 2
                    || (!matches!(bytes[at - 1], b' ' | b'\t' | b'\n') && !self.byte(at + 1).is_ascii_alphanumeric()));
            if closes {
                return Some(at);
            }
            at += run;
        }
        self.missing.dollars[length - 1] = true;
        None
    }
}
