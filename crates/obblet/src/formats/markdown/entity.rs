//! Backslash escapes and character references (CommonMark, sections 2.4 and 2.5).

use html5ever::data::NAMED_ENTITIES;
use std::borrow::Cow;

/// Characters that a backslash takes the meaning from.
pub(super) const fn is_punctuation(byte: u8) -> bool {
    byte.is_ascii_punctuation()
}

/// Reads a character reference at the start of `text`. Returns the characters and the length of the reference.
pub(super) fn reference(text: &str) -> Option<([char; 2], usize)> {
    let bytes = text.as_bytes();
    if bytes.first() != Some(&b'&') {
        return None;
    }
    if bytes.get(1) == Some(&b'#') {
        return numeric(bytes);
    }
    // The longest name has 31 letters.
    let semicolon = bytes.iter().take(34).skip(1).position(|byte| !byte.is_ascii_alphanumeric())? + 1;
    if bytes[semicolon] != b';' {
        return None;
    }
    let &(first, second) = NAMED_ENTITIES.get(&text[1..=semicolon])?;
    let first = char::from_u32(first).filter(|&c| c != '\0')?;
    Some(([first, char::from_u32(second).unwrap_or('\0')], semicolon + 1))
}

fn numeric(bytes: &[u8]) -> Option<([char; 2], usize)> {
    let (start, radix, most) = match bytes.get(2) {
        Some(b'x' | b'X') => (3, 16, 6),
        _ => (2, 10, 7),
    };
    let digits = bytes[start..].iter().take(most + 1).take_while(|byte| (**byte as char).is_digit(radix)).count();
    if digits == 0 || digits > most || bytes.get(start + digits) != Some(&b';') {
        return None;
    }
    let value = bytes[start..start + digits]
        .iter()
        .fold(0u32, |value, byte| value * radix + (*byte as char).to_digit(radix).unwrap_or(0));
    let character = char::from_u32(value).filter(|&c| c != '\0').unwrap_or(char::REPLACEMENT_CHARACTER);
    Some(([character, '\0'], start + digits + 1))
}

/// Resolves escapes and references, as in addresses, titles and info strings.
pub(super) fn unescape(text: &str) -> Cow<'_, str> {
    resolve(text, true)
}

/// Resolves references only.
pub(super) fn unescape_references(text: &str) -> Cow<'_, str> {
    resolve(text, false)
}

fn resolve(text: &str, escapes: bool) -> Cow<'_, str> {
    if memchr::memchr2(b'\\', b'&', text.as_bytes()).is_none() {
        return Cow::Borrowed(text);
    }
    let mut out = String::with_capacity(text.len());
    let mut rest = text;
    while let Some(at) = memchr::memchr2(b'\\', b'&', rest.as_bytes()) {
        out.push_str(&rest[..at]);
        rest = &rest[at..];
        if escapes && rest.starts_with('\\') && rest.as_bytes().get(1).is_some_and(|byte| is_punctuation(*byte)) {
            out.push_str(&rest[1..2]);
            rest = &rest[2..];
        } else if let Some((characters, length)) = reference(rest) {
            out.extend(characters.into_iter().filter(|&c| c != '\0'));
            rest = &rest[length..];
        } else {
            out.push_str(&rest[..1]);
            rest = &rest[1..];
        }
    }
    out.push_str(rest);
    Cow::Owned(out)
}

#[cfg(test)]
mod tests {
    use super::*;

    #[test]
    fn references_are_those_of_the_standard() {
        let text = |source: &str| {
            reference(source)
                .map(|(characters, length)| (characters.into_iter().filter(|&c| c != '\0').collect::<String>(), length))
        };
        for (source, expected) in [
            ("&amp;x", "&"),
            ("&nGt;", "\u{226B}\u{20D2}"),
            ("&#65;", "A"),
            ("&#x1F30A;", "\u{1F30A}"),
            ("&#0;", "\u{FFFD}"),
            ("&#xD800;", "\u{FFFD}"),
            ("&CounterClockwiseContourIntegral;", "\u{2233}"),
        ] {
            let length = source.find(';').unwrap() + 1;
            assert_eq!(text(source), Some((expected.to_owned(), length)), "{source}");
        }
        for source in ["&amp", "&nosuch;", "&;", "&#;", "&#x;", "&#12345678;", "&#x1234567;", "& amp;", "&"] {
            assert_eq!(text(source), None, "{source}");
        }
        assert_eq!(unescape("a\\*b&amp;\\c\\"), "a*b&\\c\\");
        assert_eq!(unescape_references("a\\*b&lt;"), "a\\*b<");
    }
}
