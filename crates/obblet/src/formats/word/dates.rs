//! Dates of documents and of tracked changes.

/// How many days a month has.
const fn days_of(year: u32, month: u32) -> u32 {
    match month {
        2 if year.is_multiple_of(4) && (!year.is_multiple_of(100) || year.is_multiple_of(400)) => 29,
        2 => 28,
        4 | 6 | 9 | 11 => 30,
        _ => 31,
    }
}

/// Whether a date is one that HTML takes (HTML, section 2.3.5.7): a day and a time of day, in UTC or with an offset.
pub(super) fn is_datetime(date: &str) -> bool {
    let bytes = date.as_bytes();
    let digits = |range: std::ops::Range<usize>| bytes.get(range).is_some_and(|bytes| bytes.iter().all(u8::is_ascii_digit));
    let is = |at: usize, byte: u8| bytes.get(at) == Some(&byte);
    let number = |range: std::ops::Range<usize>| {
        let text = date.get(range.clone()).filter(|_| digits(range));
        text.and_then(|text| text.parse::<u32>().ok()).unwrap_or(99)
    };
    digits(0..4)
        && number(0..4) > 0
        && is(4, b'-')
        && (1..=12).contains(&number(5..7))
        && is(7, b'-')
        && (1..=days_of(number(0..4), number(5..7))).contains(&number(8..10))
        && is(10, b'T')
        && number(11..13) < 24
        && is(13, b':')
        && number(14..16) < 60
        && is(16, b':')
        && number(17..19) < 60
        && bytes[19..] == *b"Z"
}

/// A date with its time, where a text is a date with a time or without.
pub(super) fn date_and_time(text: &str) -> Option<String> {
    let text = text.trim();
    let whole = if text.len() == 10 { format!("{text}T00:00:00Z") } else { text.to_owned() };
    is_datetime(&whole).then_some(whole)
}

#[cfg(test)]
mod tests {
    use super::*;

    #[test]
    fn dates_are_those_that_html_takes() {
        for date in ["2031-03-05T10:00:00Z", "2028-02-29T23:59:59Z", "2031-12-31T00:00:00Z"] {
            assert!(is_datetime(date), "{date}");
        }
        for date in [
            "",
            "2031-03-05",
            "2031-02-29T10:00:00Z",
            "2031-04-31T10:00:00Z",
            "2031-+3-05T10:00:00Z",
            "0000-01-01T10:00:00Z",
            "2031-03-05T24:00:00Z",
            "2031-03-05T10:00:00Z\"",
        ] {
            assert!(!is_datetime(date), "{date}");
        }
        assert_eq!(date_and_time(" 2031-03-05 ").as_deref(), Some("2031-03-05T00:00:00Z"));
        assert_eq!(date_and_time("2031-02-31"), None);
    }
}
