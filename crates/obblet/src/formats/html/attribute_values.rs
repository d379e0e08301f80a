//! Which attributes are whose, and which values they may have.

use crate::document::{Kind, TextLevel};

/// How the value of an attribute is written.
#[derive(Clone, Copy, Debug, PartialEq, Eq)]
pub(super) enum AttributeForm {
    Text,
    Address,
    Flag,
}

/// Whether the element of a kind may have an attribute of this name and value that is not among those with a field of
/// their own, and how it is written.
pub(super) fn attribute(kind: Kind, name: &str, value: &str) -> Option<AttributeForm> {
    let is_number = !value.is_empty() && value.len() < 6 && value.bytes().all(|byte| byte.is_ascii_digit());
    match (kind, name) {
        (Kind::Image { .. }, "width" | "height") => is_number.then_some(AttributeForm::Text),
        (Kind::Link { .. }, "rel") => {
            value.bytes().all(|byte| byte.is_ascii_alphabetic() || matches!(byte, b' ' | b'-')).then_some(AttributeForm::Text)
        }
        (Kind::Link { .. }, "hreflang") => crate::language_tag::is_well_formed(value).then_some(AttributeForm::Text),
        (Kind::List(list), "reversed") => list.ordered.then_some(AttributeForm::Flag),
        (Kind::ListItem { .. }, "value") => value.parse::<i32>().is_ok().then_some(AttributeForm::Text),
        (Kind::BlockQuote | Kind::Insertion | Kind::Deletion | Kind::TextLevel(TextLevel::Quotation), "cite") => {
            super::is_safe_link(value).then_some(AttributeForm::Address)
        }
        (Kind::Insertion | Kind::Deletion | Kind::TextLevel(TextLevel::Time), "datetime") => {
            is_date(value).then_some(AttributeForm::Text)
        }
        (Kind::TextLevel(TextLevel::Data), "value") => Some(AttributeForm::Text),
        _ => None,
    }
}

/// Whether a text is a date as `YYYY-MM-DD`, with or without a time behind it.
pub(super) fn is_date(text: &str) -> bool {
    let bytes = text.as_bytes();
    let (date, time) = bytes.split_at(bytes.len().min(10));
    let digits = |part: &[u8]| part.iter().all(u8::is_ascii_digit);
    let number = |part: &[u8]| part.iter().fold(0, |number, digit| number * 10 + u32::from(digit - b'0'));
    if date.len() != 10
        || date[4] != b'-'
        || date[7] != b'-'
        || !digits(&date[..4])
        || !digits(&date[5..7])
        || !digits(&date[8..])
    {
        return false;
    }
    let (year, month, day) = (number(&date[..4]), number(&date[5..7]), number(&date[8..]));
    let leap = year % 4 == 0 && (year % 100 != 0 || year % 400 == 0);
    let days = match month {
        1 | 3 | 5 | 7 | 8 | 10 | 12 => 31,
        4 | 6 | 9 | 11 => 30,
        2 if leap => 29,
        2 => 28,
        _ => 0,
    };
    let time_holds = match time {
        [] => true,
        [b'T' | b' ', rest @ ..] => {
            let rest = rest.strip_suffix(b"Z").unwrap_or(rest);
            matches!(rest.len(), 5 | 8)
                && rest[2] == b':'
                && digits(&rest[..2])
                && digits(&rest[3..5])
                && number(&rest[..2]) < 24
                && number(&rest[3..5]) < 60
                && (rest.len() == 5 || (rest[5] == b':' && digits(&rest[6..]) && number(&rest[6..]) < 60))
        }
        _ => false,
    };
    year > 0 && (1..=days).contains(&day) && time_holds
}
