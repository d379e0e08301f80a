//! Which encoding a page is in (HTML, section 13.2.3.2).

use crate::document::Finding;
use crate::encoding;
use encoding_rs::{Encoding, UTF_8, UTF_16BE, UTF_16LE};
use std::borrow::Cow;

/// So many bytes from the start are searched for what a page says of its encoding. The standard asks for 1024; pages saved by
/// office programs have long heads.
const HEAD: usize = 4096;

/// Decodes a page.
pub(super) fn decode<'b>(bytes: &'b [u8], hint: Option<&str>) -> (Cow<'b, str>, Option<Finding>) {
    encoding::decode(bytes, hint, "html.encoding", |bytes| declared(&bytes[..bytes.len().min(HEAD)]))
}

/// What a page says of its encoding: a `meta` element, or an XML declaration.
fn declared(head: &[u8]) -> Option<&'static Encoding> {
    let lower = head.to_ascii_lowercase();
    if lower.starts_with(b"<?xml") {
        let end = memchr::memchr(b'>', &lower)?;
        if let Some(encoding) = value_of(&lower[..end], b"encoding") {
            return Some(encoding);
        }
    }
    let mut from = 0;
    while let Some(at) = memchr::memmem::find(&lower[from..], b"<meta") {
        let start = from + at;
        let end = memchr::memchr(b'>', &lower[start..]).map_or(lower.len(), |end| start + end);
        if let Some(encoding) = value_of(&lower[start..end], b"charset") {
            return Some(encoding);
        }
        from = end;
    }
    None
}

/// The encoding behind a name and an equals sign.
fn value_of(text: &[u8], name: &[u8]) -> Option<&'static Encoding> {
    let at = memchr::memmem::find(text, name)? + name.len();
    let rest = text[at..].trim_ascii_start().strip_prefix(b"=")?.trim_ascii_start();
    let rest = rest.strip_prefix(b"\"").or_else(|| rest.strip_prefix(b"'")).unwrap_or(rest).trim_ascii_start();
    let end = rest.iter().position(|byte| matches!(byte, b'"' | b'\'' | b';' | b'/' | b'>') || byte.is_ascii_whitespace());
    let encoding = Encoding::for_label(&rest[..end.unwrap_or(rest.len())])?;
    // A page that could be searched is in no encoding of two bytes (HTML, section 13.2.3.2).
    Some(if encoding == UTF_16LE || encoding == UTF_16BE { UTF_8 } else { encoding })
}

#[cfg(test)]
mod tests {
    use super::*;

    #[track_caller]
    fn case(bytes: &[u8], hint: Option<&str>, text: &str, reported: bool) {
        let (decoded, finding) = decode(bytes, hint);
        assert_eq!((&*decoded, finding.is_some()), (text, reported), "{finding:?}");
    }

    #[test]
    fn pages_are_in_the_encoding_that_they_are_in() {
        case("<p>é".as_bytes(), None, "<p>é", false);
        case(b"\xEF\xBB\xBF<p>a", None, "<p>a", false);
        case(b"\xFF\xFE<\0p\0>\0a\0", None, "<p>a", false);
        case(b"<\0p\0>\0a\0<\0/\0p\0>\0", None, "<p>a</p>", true);
        case(b"<meta charset=iso-8859-1>\xE9\x80", None, "<meta charset=iso-8859-1>é€", false);
        case(
            b"<meta http-equiv=x content='text/html; charset=koi8-r'>\xC4\xC1",
            None,
            "<meta http-equiv=x content='text/html; charset=koi8-r'>да",
            false,
        );
        case("<meta charset=windows-1252>é".as_bytes(), None, "<meta charset=windows-1252>é", true);
        case(b"<?xml version='1.0' encoding='Shift_JIS'?>\x92\xAA", None, "<?xml version='1.0' encoding='Shift_JIS'?>潮", false);
        case(b"\xE9", Some("latin1"), "é", false);
        case(b"<meta charset=utf-8>caf\xE9 au lait", None, "<meta charset=utf-8>café au lait", true);
        let broken = ["é".repeat(20).as_bytes(), b"\xFF"].concat();
        case(&broken, None, &("é".repeat(20) + "\u{FFFD}"), true);
    }
}
