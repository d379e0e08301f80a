//! Escaping for markup that is put together outside of the writer.

use super::{Characters, Syntax};

/// Writes text.
pub(crate) fn text(out: &mut String, text: &str, syntax: Syntax, characters: Characters) {
    let options = super::Options { syntax, characters, ..super::Options::default() };
    out.push_str(&super::write::escaped(text, &options));
}

/// Writes an address.
pub(crate) fn address(out: &mut String, address: &str) {
    super::address::write(out, address);
}

/// Whether HTML allows a character in text (HTML, section 13.1.4 and "noncharacter").
pub(super) const fn is_allowed(c: char) -> bool {
    !matches!(c, '\u{0}'..='\u{8}' | '\u{B}'..='\u{1F}' | '\u{7F}'..='\u{9F}' | '\u{FDD0}'..='\u{FDEF}')
        && c as u32 & 0xFFFE != 0xFFFE
}
