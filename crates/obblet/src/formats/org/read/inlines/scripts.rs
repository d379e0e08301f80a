//! Subscripts and superscripts (Org syntax, "Subscript and Superscript").

use super::super::Reader;
use super::super::options::Shows;
use super::Inlines;
use super::brackets::matching;
use crate::document::Kind;

impl Reader<'_> {
    /// Reads what is lowered or raised.
    pub(super) fn script(&mut self, scan: &mut Inlines<'_>) -> bool {
        let at = scan.at;
        if !self.options.shows.contains(Shows::SCRIPTS) || scan.before(at).is_none_or(char::is_whitespace) {
            return false;
        }
        let kind = if scan.byte(at) == b'_' { Kind::Subscript } else { Kind::Superscript };
        let rest = &scan.text[at + 1..scan.end()];
        if rest.starts_with('{') {
            let Some(length) = matching(rest, '{', '}') else { return false };
            self.enter(scan, kind, (at + 2, at + 2 + length), at + 3 + length);
            return true;
        }
        if !self.options.shows.contains(Shows::BARE_SCRIPTS) {
            return false;
        }
        if rest.starts_with('*') {
            self.enter(scan, kind, (at + 1, at + 2), at + 2);
            return true;
        }
        let sign = usize::from(rest.starts_with(['+', '-']));
        let is_part = |c: char| c.is_alphanumeric() || matches!(c, '.' | ',' | '\\');
        let length: usize = rest[sign..].chars().take_while(|c| is_part(*c)).map(char::len_utf8).sum();
        let whole = rest[sign..sign + length].trim_end_matches(['.', ',', '\\']);
        if whole.is_empty() {
            return false;
        }
        let end = at + 1 + sign + whole.len();
        self.enter(scan, kind, (at + 1, end), end);
        true
    }
}
