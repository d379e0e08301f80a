//! Markers of list items, as people and programs type them.

use crate::document::Marker;
use smallvec::SmallVec;

/// What a typed marker says.
#[derive(Clone, Debug, PartialEq, Eq)]
pub enum Mark {
    /// A sign; a box that is checked or not is one too.
    Bullet(Option<bool>),
    /// A number in one or more kinds of numbering: `i.` is a roman one and the ninth letter.
    Number(SmallVec<[(Marker, i32); 2]>),
}

/// Signs that stand for bullets on their own. Those of symbol fonts stand in the private use area.
const BULLETS: &str = "•·▪▫◦●○■□◆◇►▶➢➤→✓✔❖‣⁃∙⦿⁌⁍\u{F0B7}\u{F0A7}\u{F0A8}\u{F0D8}\u{F0FC}\u{F076}\u{F06E}\u{F071}\u{F02D}";

const fn is_white(c: char) -> bool {
    matches!(c, ' ' | '\t' | '\n' | '\r' | '\u{A0}' | '\u{2002}' | '\u{2003}')
}

/// The marker that a text begins with, and the length of it with the white space behind it.
///
/// ```
/// use obblet::refine::lists::{Mark, typed};
///
/// let (mark, length) = typed("•  mooring lines").unwrap();
/// assert_eq!(mark, Mark::Bullet(None));
/// assert_eq!(&"•  mooring lines"[length..], "mooring lines");
/// assert_eq!(typed("1984 was dry"), None);
/// ```
#[must_use]
pub fn typed(text: &str) -> Option<(Mark, usize)> {
    let start = text.len() - text.trim_start_matches(is_white).len();
    let rest = &text[start..];
    let token = &rest[..rest.find(is_white)?];
    let after = rest[token.len()..].trim_start_matches(is_white);
    let white = rest.len() - token.len() - after.len();
    let mark = mark_of(token).or_else(|| {
        // The letter that stands for a ring, and hyphens and stars, which need their space.
        let wide = rest[token.len()..].starts_with(['\u{A0}', '\t']) || white > 1;
        (matches!(token, "-" | "*" | "+") || (wide && matches!(token, "o" | "§" | "Ø" | "ü" | "v" | "q" | "n")))
            .then_some(Mark::Bullet(None))
    })?;
    Some((mark, start + token.len() + white))
}

/// What a marker says that stands apart from its text.
pub(super) fn apart(text: &str) -> Mark {
    let token = text.trim_matches(is_white);
    // Letters of symbol fonts, which would be numbers with a full stop behind them.
    let symbol = matches!(token, "o" | "v" | "q" | "n" | "l" | "w");
    mark_of(token).or_else(|| numbers(token).filter(|_| !symbol)).unwrap_or(Mark::Bullet(None))
}

fn mark_of(token: &str) -> Option<Mark> {
    let mut chars = token.chars();
    if let (Some(sign), None) = (chars.next(), chars.next()) {
        match sign {
            '☐' => return Some(Mark::Bullet(Some(false))),
            '☑' | '☒' => return Some(Mark::Bullet(Some(true))),
            sign if BULLETS.contains(sign) => return Some(Mark::Bullet(None)),
            _ => return None,
        }
    }
    let inner = token.strip_suffix([')', '.', '、', '．', '）'])?;
    numbers(inner.strip_prefix(['(', '（']).unwrap_or(inner))
}

/// The number that a text is, in each numbering that it may belong to; the likeliest comes first.
fn numbers(text: &str) -> Option<Mark> {
    let text = text.trim_matches(['.', ')', '(']);
    // Of 2.4.1 the last part counts; the others are those of the items around.
    let last = text.rsplit('.').next().unwrap_or(text);
    let is_number = |part: &str| !part.is_empty() && part.len() <= 4 && part.bytes().all(|byte| byte.is_ascii_digit());
    if is_number(last) {
        let value = last.parse().ok().filter(|_| text.split('.').all(is_number))?;
        return Some(Mark::Number(SmallVec::from_slice(&[(Marker::Plain, value)])));
    }
    if text.is_empty() || text.len() > 7 || !text.bytes().all(|byte| byte.is_ascii_alphabetic()) {
        return None;
    }
    let upper = text.bytes().all(|byte| byte.is_ascii_uppercase());
    let lower = text.bytes().all(|byte| byte.is_ascii_lowercase());
    let (alpha, roman) = match (lower, upper) {
        (true, _) => (Marker::LowerAlpha, Marker::LowerRoman),
        (_, true) => (Marker::UpperAlpha, Marker::UpperRoman),
        _ => return None,
    };
    let text = text.to_ascii_lowercase();
    let mut found = SmallVec::new();
    found.extend(letter_value(&text).map(|value| (alpha, value)));
    if let Some(value) = roman_value(&text) {
        let place = if text == "i" { 0 } else { found.len() };
        found.insert(place, (roman, value));
    }
    (!found.is_empty()).then_some(Mark::Number(found))
}

/// a is 1, z is 26, aa is 27.
fn letter_value(text: &str) -> Option<i32> {
    let first = text.bytes().next()?;
    let repeated = text.bytes().all(|byte| byte == first) && text.len() <= 3;
    repeated.then(|| i32::from(first - b'a') + 1 + 26 * (text.len() as i32 - 1))
}

fn roman_value(text: &str) -> Option<i32> {
    const DIGITS: [(&str, i32); 13] = [
        ("m", 1000),
        ("cm", 900),
        ("d", 500),
        ("cd", 400),
        ("c", 100),
        ("xc", 90),
        ("l", 50),
        ("xl", 40),
        ("x", 10),
        ("ix", 9),
        ("v", 5),
        ("iv", 4),
        ("i", 1),
    ];
    let (mut rest, mut value) = (text, 0);
    for (digit, worth) in DIGITS {
        let most = if digit.len() == 1 && worth.to_string().starts_with('1') { 3 } else { 1 };
        for _ in 0..most {
            if let Some(shorter) = rest.strip_prefix(digit) {
                (rest, value) = (shorter, value + worth);
            }
        }
    }
    rest.is_empty().then_some(value)
}

#[cfg(test)]
mod tests {
    use super::*;

    #[track_caller]
    fn number(text: &str, expected: &[(Marker, i32)]) {
        let (mark, length) = typed(&format!("{text}\u{A0} words")).unwrap();
        assert_eq!((mark, length), (Mark::Number(SmallVec::from_slice(expected)), text.len() + 3));
    }

    #[test]
    fn numbers_in_all_their_forms() {
        number("1.", &[(Marker::Plain, 1)]);
        number("(12)", &[(Marker::Plain, 12)]);
        number("2.4.1.", &[(Marker::Plain, 1)]);
        number("b)", &[(Marker::LowerAlpha, 2)]);
        number("AA.", &[(Marker::UpperAlpha, 27)]);
        number("i.", &[(Marker::LowerRoman, 1), (Marker::LowerAlpha, 9)]);
        number("c)", &[(Marker::LowerAlpha, 3), (Marker::LowerRoman, 100)]);
        number("XIV.", &[(Marker::UpperRoman, 14)]);
        number("3、", &[(Marker::Plain, 3)]);
    }

    #[test]
    fn words_are_no_markers() {
        for text in ["1984 was", "Mr. Pask", "e.g. this", "a boat", "iiii. no", "x", "• ", "o boat", "- ", "12345. far"] {
            assert!(typed(text).is_none_or(|(_, length)| length == text.len()), "{text}");
        }
        assert_eq!(apart("§\u{A0}\u{A0}"), Mark::Bullet(None));
        assert_eq!(typed("☑ lamp oil").unwrap().0, Mark::Bullet(Some(true)));
    }
}
