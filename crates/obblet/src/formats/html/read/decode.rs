//! Bytes to text: which encoding a page is in (HTML, section 13.2.3.2, and what pages do beside it).

use crate::document::Finding;
use encoding_rs::{Encoding, UTF_8, UTF_16BE, UTF_16LE, WINDOWS_1252};
use std::borrow::Cow;

/// So many bytes from the start are searched for what a page says of its encoding. The standard asks for 1024; pages saved by
/// office programs have long heads.
const HEAD: usize = 4096;

/// Decodes a page: by its byte order mark, by what the caller knows, by what the page says of itself, and by a guess.
pub(super) fn decode<'b>(bytes: &'b [u8], hint: Option<&str>) -> (Cow<'b, str>, Option<Finding>) {
    if let Some((encoding, length)) = Encoding::for_bom(bytes) {
        return finish(encoding, &bytes[length..], None);
    }
    if let Some(encoding) = hint.and_then(|hint| Encoding::for_label(hint.as_bytes())) {
        return finish(encoding, bytes, None);
    }
    if let Some(encoding) = wide(bytes) {
        return finish(encoding, bytes, Some("without saying so"));
    }
    let declared = declared(&bytes[..bytes.len().min(HEAD)]);
    match (declared, simdutf8::basic::from_utf8(bytes)) {
        (None, Ok(text)) => (Cow::Borrowed(text), None),
        // Bytes above ASCII make a sequence of UTF-8 by accident in no real text.
        (Some(encoding), Ok(text)) => {
            let wrong =
                encoding != UTF_8 && !text.is_ascii() && encoding.is_ascii_compatible() && encoding.name() != "ISO-2022-JP";
            let told = || guess_finding(UTF_8, &format!("though it says {}", encoding.name()));
            (
                if encoding.is_ascii_compatible() && encoding.name() != "ISO-2022-JP" {
                    Cow::Borrowed(text)
                } else {
                    encoding.decode_without_bom_handling(bytes).0
                },
                wrong.then(told),
            )
        }
        (Some(encoding), Err(_)) if encoding != UTF_8 => finish(encoding, bytes, None),
        (declared, Err(_)) => {
            if mostly_utf_8(bytes) {
                return finish(UTF_8, bytes, None);
            }
            let encoding = guess(bytes);
            finish(encoding, bytes, Some(if declared.is_some() { "though it says UTF-8" } else { "without saying so" }))
        }
    }
}

fn finish<'b>(encoding: &'static Encoding, bytes: &'b [u8], guessed: Option<&str>) -> (Cow<'b, str>, Option<Finding>) {
    let (text, broken) = encoding.decode_without_bom_handling(bytes);
    let finding = guessed.map(|why| guess_finding(encoding, why)).or_else(|| {
        broken.then(|| {
            Finding::lost("html.encoding", format!("some bytes are no {} and became \u{FFFD}", encoding.name()))
                .hint("say which encoding it is with html.encoding")
        })
    });
    (text, finding)
}

fn guess_finding(encoding: &'static Encoding, why: &str) -> Finding {
    Finding::advice("html.encoding", format!("the text seems to be {}, {why}", encoding.name()))
        .hint("if letters are wrong, say which encoding it is with html.encoding")
}

fn guess(bytes: &[u8]) -> &'static Encoding {
    let mut detector = chardetng::EncodingDetector::new(chardetng::Iso2022JpDetection::Allow);
    detector.feed(bytes, true);
    let encoding = detector.guess(None, chardetng::Utf8Detection::Deny);
    if encoding == UTF_8 { WINDOWS_1252 } else { encoding }
}

/// Whether bytes are UTF-8 but for a few that were damaged.
fn mostly_utf_8(bytes: &[u8]) -> bool {
    let (mut good, mut bad, mut rest) = (0_usize, 0_usize, bytes);
    loop {
        match std::str::from_utf8(rest) {
            Ok(text) => {
                good += text.bytes().filter(|byte| *byte >= 0xC0).count();
                return good > bad * 10;
            }
            Err(error) => {
                let valid = &rest[..error.valid_up_to()];
                good += valid.iter().filter(|byte| **byte >= 0xC0).count();
                bad += 1;
                rest = &rest[error.valid_up_to() + error.error_len().unwrap_or(rest.len() - error.valid_up_to())..];
            }
        }
    }
}

/// UTF-16 without a mark: every second byte of markup is zero.
fn wide(bytes: &[u8]) -> Option<&'static Encoding> {
    let start = bytes.get(..64.min(bytes.len() & !1)).filter(|start| start.len() >= 8)?;
    let zeros = |offset: usize| start.iter().skip(offset).step_by(2).filter(|byte| **byte == 0).count();
    let (even, odd, half) = (zeros(0), zeros(1), start.len() / 2);
    match (even, odd) {
        (0, odd) if odd * 4 > half * 3 => Some(UTF_16LE),
        (even, 0) if even * 4 > half * 3 => Some(UTF_16BE),
        _ => None,
    }
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
    fn case(bytes: &[u8], hint: Option<&str>, text: &str, told: bool) {
        let (decoded, finding) = decode(bytes, hint);
        assert_eq!((&*decoded, finding.is_some()), (text, told), "{finding:?}");
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
