//! Raw HTML within a line (CommonMark, section 6.6).

use super::Scanner;

fn white(bytes: &[u8], at: usize) -> usize {
    at + bytes[at..].iter().take_while(|byte| matches!(byte, b' ' | b'\t' | b'\n')).count()
}

/// The length of an open or closing tag at the start of `bytes`.
pub(in super::super) fn tag(bytes: &[u8]) -> Option<usize> {
    let closing = bytes.get(1) == Some(&b'/');
    let name = 1 + usize::from(closing);
    if !bytes.get(name)?.is_ascii_alphabetic() {
        return None;
    }
    let mut at = name + bytes[name..].iter().take_while(|byte| byte.is_ascii_alphanumeric() || **byte == b'-').count();
    if closing {
        at = white(bytes, at);
        return (bytes.get(at) == Some(&b'>')).then_some(at + 1);
    }
    loop {
        let next = white(bytes, at);
        match bytes.get(next)? {
            b'>' => return Some(next + 1),
            b'/' => return (bytes.get(next + 1) == Some(&b'>')).then_some(next + 2),
            byte if next > at && (byte.is_ascii_alphabetic() || matches!(byte, b'_' | b':')) => at = attribute(bytes, next)?,
            _ => return None,
        }
    }
}

fn attribute(bytes: &[u8], start: usize) -> Option<usize> {
    let name = |byte: &&u8| byte.is_ascii_alphanumeric() || matches!(byte, b'_' | b'.' | b':' | b'-');
    let end = start + bytes[start..].iter().take_while(name).count();
    let equals = white(bytes, end);
    if bytes.get(equals) != Some(&b'=') {
        return Some(end);
    }
    let value = white(bytes, equals + 1);
    match bytes.get(value)? {
        quote @ (b'"' | b'\'') => memchr::memchr(*quote, &bytes[value + 1..]).map(|length| value + length + 2),
        _ => {
            let length = bytes[value..]
                .iter()
                .take_while(|byte| !matches!(byte, b' ' | b'\t' | b'\n' | b'"' | b'\'' | b'=' | b'<' | b'>' | b'`'))
                .count();
            (length > 0).then_some(value + length)
        }
    }
}

impl Scanner<'_, '_> {
    /// The length of the HTML that begins here.
    pub(super) fn raw_html(&mut self) -> Option<usize> {
        let rest = &self.text.as_bytes()[self.at..];
        match rest.get(1)? {
            b'?' => find(rest, 2, b"?>", &mut self.missing.html[1]),
            b'!' => match rest.get(2)? {
                b'-' if rest.starts_with(b"<!-->") => Some(5),
                b'-' if rest.starts_with(b"<!--->") => Some(6),
                b'-' if rest.starts_with(b"<!--") => find(rest, 4, b"-->", &mut self.missing.html[0]),
                b'[' if rest.starts_with(b"<![CDATA[") => find(rest, 9, b"]]>", &mut self.missing.html[3]),
                letter if letter.is_ascii_alphabetic() => find(rest, 2, b">", &mut self.missing.html[2]),
                _ => None,
            },
            _ => tag(rest),
        }
    }
}

/// The length up to and including the end mark. What is missing once is missing in the rest of the text too.
fn find(rest: &[u8], start: usize, end: &[u8], missing: &mut bool) -> Option<usize> {
    if *missing {
        return None;
    }
    let found = memchr::memmem::find(&rest[start..], end).map(|at| start + at + end.len());
    *missing = found.is_none();
    found
}
