//! Dates and times (Org syntax, "Timestamps").

use super::super::Reader;
use super::super::options::Shows;
use super::Inlines;
use crate::document::{Kind, TextLevel};

/// A date at the beginning of a text between brackets: the length of what is in them, and the date as HTML writes it.
pub(in super::super) fn date_at(text: &str, close: u8) -> Option<(usize, String)> {
    let bytes = text.as_bytes();
    let digits = |from: usize, to: usize| bytes.get(from..to).is_some_and(|bytes| bytes.iter().all(u8::is_ascii_digit));
    let is_date = digits(1, 5) && bytes.get(5) == Some(&b'-') && digits(6, 8) && bytes.get(8) == Some(&b'-') && digits(9, 11);
    if !is_date {
        return None;
    }
    let length = bytes.iter().take(80).position(|byte| *byte == close || *byte == b'\n').filter(|&end| bytes[end] == close)?;
    let inner = &text[1..length];
    let mut date = inner.get(..10)?.to_owned();
    let time = inner.split_whitespace().skip(1).find(|word| word.contains(':'));
    if let Some((hour, minute)) = time.and_then(|time| time.split(['-']).next()).and_then(|time| time.split_once(':')) {
        let is_time = hour.len() <= 2
            && minute.len() == 2
            && [hour, minute].iter().all(|part| part.bytes().all(|byte| byte.is_ascii_digit()));
        if is_time {
            date = format!("{date}T{hour:0>2}:{minute}");
        }
    }
    Some((length - 1, date))
}

impl Reader<'_> {
    /// Reads a date. One that something is to be done by, and one that only says when.
    pub(super) fn timestamp(&mut self, scan: &mut Inlines<'_>, close: u8) -> bool {
        let rest = &scan.text[scan.at..scan.end()];
        let Some((length, date)) = date_at(rest, close) else { return false };
        let resume = scan.at + length + 2;
        let at = scan.at;
        if close == b'>' {
            let date = scan.text[at + 1..at + 1 + length].to_owned();
            self.task(|task| task.dates.push(date));
        }
        if !self.options.shows.contains(Shows::TIMESTAMPS) {
            self.write_to(scan, at);
            (scan.at, scan.written) = (resume, resume);
            return true;
        }
        let time = self.put(scan, Kind::TextLevel(TextLevel::Time), resume);
        let text = scan.range(at + 1, at + 1 + length);
        self.doc.append_at(time, Kind::Text(text), scan.offset(at));
        let (name, value) = (self.doc.intern("datetime"), self.doc.intern(&date));
        self.doc.attributes_mut(time).other.push((name, value));
        true
    }
}
