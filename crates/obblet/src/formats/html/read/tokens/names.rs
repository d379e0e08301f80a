//! Names of elements and attributes: the same few come again and again, and are looked up once.

use html5ever::LocalName;

/// What a byte is to a tag.
pub(super) const WHITE: u8 = 0x01;
const CLOSE: u8 = 0x02;
const EQUALS: u8 = 0x04;
const NULL: u8 = 0x08;
/// The bit that makes a capital of ASCII a small letter.
const CAPITAL: u8 = 0x20;

/// What ends the name of a tag, and that of an attribute.
pub(super) const IN_TAG: u8 = WHITE | CLOSE;
pub(super) const BEFORE_VALUE: u8 = WHITE | CLOSE | EQUALS;

const CLASSES: [u8; 256] = {
    let mut classes = [0; 256];
    let mut byte = 0;
    while byte < 256 {
        classes[byte] = match byte as u8 {
            b'\t' | b'\n' | 0x0C | b' ' => WHITE,
            b'/' | b'>' => CLOSE,
            b'=' => EQUALS,
            0 => NULL,
            b'A'..=b'Z' => CAPITAL,
            _ => 0,
        };
        byte += 1;
    }
    classes
};

#[inline]
pub(super) const fn class(byte: u8) -> u8 {
    CLASSES[byte as usize]
}

const SLOTS: usize = 256;
/// So many bytes go into a key.
const LONGEST_KEY: usize = 16;

/// Names that were there already, each in the slot of its letters; another name for a slot takes its place.
pub(in super::super) struct Names(Vec<(u128, LocalName)>);

impl Names {
    pub(in super::super) fn new() -> Self {
        Self(vec![(0, LocalName::default()); SLOTS])
    }

    /// Reads a name in small letters, up to a byte that is one of the classes `ends`; one that ends before its first byte
    /// begins with it (section 13.2.5.32). `None` where the source ends within it.
    pub(super) fn read(&mut self, source: &str, at: &mut usize, ends: u8) -> Option<LocalName> {
        let bytes = source.as_bytes();
        let start = *at;
        let (mut key, mut seen, mut end) = (0u128, 0, start);
        loop {
            let byte = *bytes.get(end)?;
            let class = class(byte);
            if class & ends != 0 && end > start {
                break;
            }
            seen |= class;
            key = key << 8 | u128::from(byte | class & CAPITAL);
            end += 1;
        }
        *at = end;
        if seen & NULL != 0 || end - start > LONGEST_KEY {
            let name = source[start..end].replace('\0', "\u{FFFD}").to_ascii_lowercase();
            return Some(LocalName::from(name));
        }
        let hash = (key as u64 ^ (key >> 64) as u64).wrapping_mul(0x9E37_79B9_7F4A_7C15);
        let slot = &mut self.0[(hash >> 56) as usize % SLOTS];
        if slot.0 != key {
            let letters = &source[start..end];
            let name = if seen & CAPITAL == 0 { LocalName::from(letters) } else { LocalName::from(letters.to_ascii_lowercase()) };
            *slot = (key, name);
        }
        Some(slot.1.clone())
    }
}
