//! Character references (HTML Standard, sections 13.2.5.72 to 13.2.5.80).

use html5ever::data::{C1_REPLACEMENTS, NAMED_ENTITIES};

/// The longest name, and the longest without a semicolon, as `frac12`.
const LONGEST: usize = 31;
const LONGEST_WITHOUT: usize = 6;

/// A reference that was read.
#[derive(Clone, Copy)]
pub(super) struct Reference {
    first: char,
    second: Option<char>,
    /// How many bytes it takes, `&` included.
    pub(super) length: usize,
}

impl Reference {
    /// What it stands for.
    pub(super) fn characters(self) -> impl Iterator<Item = char> {
        std::iter::once(self.first).chain(self.second)
    }
}

/// Reads the reference at the start of `text`, which begins with `&`.
pub(super) fn read(text: &str, in_attribute: bool) -> Option<Reference> {
    let bytes = text.as_bytes();
    if bytes.get(1) == Some(&b'#') {
        return numeric(bytes);
    }
    let name = bytes[1..].iter().take(LONGEST + 1).take_while(|byte| byte.is_ascii_alphanumeric()).count();
    let found = |length: usize| {
        let (first, second) = match &text[1..=length] {
            "nbsp;" => (0xA0, 0),
            "amp;" => ('&' as u32, 0),
            "lt;" => ('<' as u32, 0),
            "gt;" => ('>' as u32, 0),
            "quot;" => ('"' as u32, 0),
            name => *NAMED_ENTITIES.get(name)?,
        };
        let first = char::from_u32(first).filter(|&character| character != '\0')?;
        let second = char::from_u32(second).filter(|&character| character != '\0');
        Some(Reference { first, second, length: length + 1 })
    };
    if bytes.get(name + 1) == Some(&b';')
        && let Some(reference) = found(name + 1)
    {
        return Some(reference);
    }
    let reference = (2..=name.min(LONGEST_WITHOUT)).rev().find_map(found)?;
    // In old addresses, `&copy=1` is no sign of copyright.
    let next = bytes.get(reference.length);
    let goes_on = next.is_some_and(|&byte| byte == b'=' || byte.is_ascii_alphanumeric());
    (!(in_attribute && goes_on)).then_some(reference)
}

fn numeric(bytes: &[u8]) -> Option<Reference> {
    let (start, radix) = match bytes.get(2) {
        Some(b'x' | b'X') => (3, 16),
        _ => (2, 10),
    };
    let mut value = 0u32;
    let mut end = start;
    while let Some(digit) = bytes.get(end).and_then(|&byte| (byte as char).to_digit(radix)) {
        value = value.saturating_mul(radix).saturating_add(digit);
        end += 1;
    }
    if end == start {
        return None;
    }
    let first = match value {
        0 => char::REPLACEMENT_CHARACTER,
        0x80..=0x9F => C1_REPLACEMENTS[value as usize - 0x80].or(char::from_u32(value))?,
        _ => char::from_u32(value).unwrap_or(char::REPLACEMENT_CHARACTER),
    };
    let length = if bytes.get(end) == Some(&b';') { end + 1 } else { end };
    Some(Reference { first, second: None, length })
}

/// A text with its references resolved, and something to see for each null.
pub(super) fn resolved(text: &str, in_attribute: bool) -> String {
    let mut out = String::with_capacity(text.len());
    let mut at = 0;
    while let Some(found) = memchr::memchr2(b'&', 0, &text.as_bytes()[at..]) {
        let here = at + found;
        out.push_str(&text[at..here]);
        at = here + 1;
        if text.as_bytes()[here] == 0 {
            out.push(char::REPLACEMENT_CHARACTER);
        } else if let Some(reference) = read(&text[here..], in_attribute) {
            out.extend(reference.characters());
            at = here + reference.length;
        } else {
            out.push('&');
        }
    }
    out.push_str(&text[at..]);
    out
}
