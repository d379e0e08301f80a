//! Emphasis and verbatim text: a marker with white space or an opening mark before it, and its like with white space or a closing
//! mark behind it (Org syntax, "Text Markup").

use super::super::Reader;
use super::super::options::Shows;
use super::Inlines;
use crate::document::Kind;

/// The markers.
const MARKERS: [u8; 6] = *b"*/_+=~";

/// The number of each marker by its byte; that behind the last for all other bytes.
const NUMBERS: [u8; 256] = {
    let mut numbers = [MARKERS.len() as u8; 256];
    let mut marker = 0;
    while marker < MARKERS.len() {
        numbers[MARKERS[marker] as usize] = marker as u8;
        marker += 1;
    }
    numbers
};

/// What parts markers from letters beside them.
const APART: char = '\u{200B}';

/// Places at which markers may end what others begin, in the order of the text.
#[derive(Debug)]
pub(super) struct Closers([Vec<usize>; 6]);

impl Closers {
    fn of(text: &str) -> Self {
        let mut places: [Vec<usize>; 6] = Default::default();
        let bytes = text.as_bytes();
        for (at, byte) in bytes.iter().enumerate().skip(1) {
            let marker = usize::from(NUMBERS[usize::from(*byte)]);
            if marker == MARKERS.len() {
                continue;
            }
            let follows = text[at + 1..].chars().next();
            if !bytes[at - 1].is_ascii_whitespace() && follows.is_none_or(may_follow) {
                places[marker].push(at);
            }
        }
        Self(places)
    }

    /// The first place of a marker from a place on.
    fn next(&self, marker: usize, from: usize) -> Option<usize> {
        let places = &self.0[marker];
        places.get(places.partition_point(|place| *place < from)).copied()
    }
}

fn may_follow(c: char) -> bool {
    c.is_whitespace()
        || matches!(
            c,
            '-' | '\u{2013}' | '\u{2014}' | '.' | ',' | ';' | ':' | '!' | '?' | '\'' | '"' | ')' | '}' | '\\' | '[' | '\u{200B}'
        )
}

fn may_precede(c: char) -> bool {
    c.is_whitespace() || matches!(c, '-' | '\u{2013}' | '\u{2014}' | '(' | '{' | '\'' | '"' | '\u{200B}')
}

impl Reader<'_> {
    /// Reads what a marker begins.
    pub(super) fn emphasis(&mut self, scan: &mut Inlines<'_>) -> bool {
        let at = scan.at;
        let byte = scan.byte(at);
        let Some(marker) = MARKERS.iter().position(|known| *known == byte) else { return false };
        if !self.options.shows.contains(Shows::EMPHASIS)
            || !scan.before(at).is_none_or(may_precede)
            || scan.after(at + 1).is_none_or(char::is_whitespace)
        {
            return false;
        }
        let text = scan.text;
        let known = scan.closers.get_or_insert_with(|| Closers::of(text)).next(marker, at + 2);
        // What is around it ends it as well, whatever stands behind that.
        let end = scan.end();
        let at_end = (end > at + 2 && scan.byte(end - 1) == byte && !scan.byte(end - 2).is_ascii_whitespace()).then_some(end - 1);
        let Some(close) = known.filter(|close| *close < end).or(at_end) else { return false };
        // A space without width is there for the marker alone.
        let resume = if text[close + 1..end].starts_with(APART) { close + 1 + APART.len_utf8() } else { close + 1 };
        if scan.before(at) == Some(APART) {
            self.write_to(scan, at - APART.len_utf8());
            scan.written = at;
        }
        let kind = match byte {
            b'*' => Kind::Strong,
            b'/' => Kind::Emphasis,
            b'_' => Kind::Underline,
            b'+' => Kind::Strikethrough,
            _ => {
                let code = self.verbatim(scan, at + 1, close);
                self.put(scan, Kind::Code(code), resume);
                return true;
            }
        };
        self.enter(scan, kind, (at + 1, close), resume);
        true
    }

    /// Text that means nothing; a line end in it is a space.
    fn verbatim(&mut self, scan: &Inlines<'_>, start: usize, end: usize) -> crate::document::Text {
        let text = &scan.text[start..end];
        if !text.contains('\n') {
            return scan.range(start, end);
        }
        let joined = text.split('\n').map(|line| line.trim_matches([' ', '\t', '\r'])).collect::<Vec<_>>().join(" ");
        self.doc.intern(&joined)
    }
}
