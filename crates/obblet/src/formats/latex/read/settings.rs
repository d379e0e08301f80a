//! What stands in brackets behind commands that are not known: settings are left out, text is kept.

use super::Reader;

/// Settings are no longer.
const LONGEST: usize = 1000;

/// A piece of the source: its first byte, and the one behind its last.
type Piece = (usize, usize);

impl Reader<'_> {
    /// Skips what stands between brackets where it is no text: keys with values, or a length. Of values in braces, those of
    /// several words are read as text.
    pub(super) fn skip_settings(&mut self) {
        let start = self.input.at + 1;
        if !self.input.made.is_empty() || self.input.source.as_bytes().get(self.input.at) != Some(&b'[') {
            return;
        }
        let Some((parts, end)) = parts(self.input.source.as_bytes(), start) else { return };
        let option = &self.input.source[start..end];
        let is_length = option.starts_with(|c: char| c.is_ascii_digit() || matches!(c, '.' | '-'))
            && ["pt", "em", "ex", "cm", "mm", "in"].iter().any(|unit| option.ends_with(unit));
        if is_length {
            self.input.at = end + 1;
            return;
        }
        let Some(texts) = texts(self.input.source, &parts) else { return };
        let mut tokens = Vec::new();
        for (from, to) in texts {
            tokens.extend(self.tokens_up_to(from, to));
            tokens.push(super::tokens::Token { kind: super::tokens::Kind::Space, at: self.at });
        }
        self.input.at = end + 1;
        self.input.push_all(tokens.into_iter());
    }
}

/// What stands between commas up to the bracket that closes, and where this is.
fn parts(bytes: &[u8], start: usize) -> Option<(Vec<Piece>, usize)> {
    let (mut parts, mut from, mut at, mut depth) = (Vec::new(), start, start, 0_usize);
    let last = bytes.len().min(start + LONGEST);
    while at < last {
        match bytes[at] {
            b'{' => depth += 1,
            b'}' => depth = depth.checked_sub(1)?,
            b'%' => at += memchr::memchr(b'\n', &bytes[at..last])?,
            b'\\' if bytes.get(at + 1) == Some(&b'(') => return None,
            b'\\' => at += 1,
            b'\n' if bytes.get(at + 1) == Some(&b'\n') => return None,
            b'[' | b'$' if depth == 0 => return None,
            b',' | b']' if depth == 0 => {
                parts.push((from, at));
                from = at + 1;
                if bytes[at] == b']' {
                    return Some((parts, at));
                }
            }
            _ => {}
        }
        at += 1;
    }
    None
}

/// The values that are text, where the parts are keys with values.
fn texts(source: &str, parts: &[Piece]) -> Option<Vec<Piece>> {
    /// A value without braces has no more words; what has more is text.
    const MOST_WORDS: usize = 4;
    let words = |text: &str| text.split_ascii_whitespace().count();
    let (mut texts, mut has_value) = (Vec::new(), false);
    for &(from, to) in parts {
        let part = source.get(from..to)?;
        let Some((key, value)) = part.split_once('=') else {
            if words(part) > MOST_WORDS || part.contains(['{', '}']) {
                return None;
            }
            continue;
        };
        has_value = true;
        // Comments may stand before the key.
        let key = key.rsplit('\n').next().unwrap_or_default();
        if words(key) > MOST_WORDS || key.contains(['{', '}']) {
            return None;
        }
        let inner = value.trim().strip_prefix('{').and_then(|value| value.strip_suffix('}'));
        match inner {
            Some(inner) if words(inner) > 1 => {
                let start = to - value.len() + value.find('{')? + 1;
                texts.push((start, start + inner.len()));
            }
            Some(_) => {}
            None if words(value) > MOST_WORDS => return None,
            None => {}
        }
    }
    has_value.then_some(texts)
}
