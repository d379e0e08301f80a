//! Which characters HTML has.

/// Whether HTML allows a character in text (HTML, section 13.1.4 and "noncharacter").
pub(super) const fn is_allowed(c: char) -> bool {
    !matches!(c, '\u{0}'..='\u{8}' | '\u{B}'..='\u{1F}' | '\u{7F}'..='\u{9F}' | '\u{FDD0}'..='\u{FDEF}')
        && c as u32 & 0xFFFE != 0xFFFE
}
