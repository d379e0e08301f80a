//! Classes of characters that both directions ask for.

use unicode_properties::{GeneralCategoryGroup, UnicodeGeneralCategory};

/// Unicode white space, and the ends of a text (CommonMark, section 2.1).
pub(super) fn is_white(character: Option<char>) -> bool {
    character.is_none_or(|c| if c.is_ascii() { matches!(c, ' ' | '\t' | '\n' | '\x0C' | '\r') } else { c.is_whitespace() })
}

/// Unicode punctuation (CommonMark, section 2.1).
pub(super) fn is_punctuation(character: Option<char>) -> bool {
    character.is_some_and(|c| {
        if c.is_ascii() {
            c.is_ascii_punctuation()
        } else {
            matches!(c.general_category_group(), GeneralCategoryGroup::Punctuation | GeneralCategoryGroup::Symbol)
        }
    })
}

/// Whether a run of delimiters between two characters is left-flanking, and right-flanking (CommonMark, section 6.2).
pub(super) fn flanking(before: Option<char>, after: Option<char>) -> (bool, bool) {
    let (white_before, white_after) = (is_white(before), is_white(after));
    let (punctuation_before, punctuation_after) = (is_punctuation(before), is_punctuation(after));
    let left = !white_after && (!punctuation_after || white_before || punctuation_before);
    let right = !white_before && (!punctuation_before || white_after || punctuation_after);
    (left, right)
}

/// Characters that nobody sees, or that only look like spaces: they are written as references.
pub(super) const fn is_reference(c: char) -> bool {
    matches!(c, '\u{A0}' | '\u{AD}' | '\r' | '\u{200B}' | '\u{200E}' | '\u{200F}' | '\u{2060}' | '\u{FEFF}')
}
