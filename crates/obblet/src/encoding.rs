//! Bytes to text: which encoding a source is in (HTML, section 13.2.3.2, and what people do beside it).

use crate::document::Finding;
use encoding_rs::{Encoding, UTF_8, UTF_16BE, UTF_16LE, WINDOWS_1252};
use std::borrow::Cow;

/// Decodes a source: by its byte order mark, by what the caller knows, by what the source says of itself, and by a guess. The code
/// is that of findings, and of the setting that holds what the caller knows.
pub(crate) fn decode<'b>(
    bytes: &'b [u8],
    hint: Option<&str>,
    code: &'static str,
    declared: impl Fn(&[u8]) -> Option<&'static Encoding>,
) -> (Cow<'b, str>, Option<Finding>) {
    if let Some((encoding, length)) = Encoding::for_bom(bytes) {
        return finish(encoding, &bytes[length..], None, code);
    }
    if let Some(encoding) = hint.and_then(|hint| Encoding::for_label(hint.as_bytes())) {
        return finish(encoding, bytes, None, code);
    }
    if let Some(encoding) = wide(bytes) {
        return finish(encoding, bytes, Some("without saying so"), code);
    }
    let declared = declared(bytes);
    match (declared, simdutf8::basic::from_utf8(bytes)) {
        (None, Ok(text)) => (Cow::Borrowed(text), None),
        // Bytes above ASCII make a sequence of UTF-8 by accident in no real text.
        (Some(encoding), Ok(text)) => {
            let wrong =
                encoding != UTF_8 && !text.is_ascii() && encoding.is_ascii_compatible() && encoding.name() != "ISO-2022-JP";
            let reported = || guess_finding(UTF_8, &format!("though it says {}", encoding.name()), code);
            (
                if encoding.is_ascii_compatible() && encoding.name() != "ISO-2022-JP" {
                    Cow::Borrowed(text)
                } else {
                    encoding.decode_without_bom_handling(bytes).0
                },
                wrong.then(reported),
            )
        }
        (Some(encoding), Err(_)) if encoding != UTF_8 => finish(encoding, bytes, None, code),
        (declared, Err(_)) => {
            if mostly_utf_8(bytes) {
                return finish(UTF_8, bytes, None, code);
            }
            let encoding = guess(bytes);
            finish(encoding, bytes, Some(if declared.is_some() { "though it says UTF-8" } else { "without saying so" }), code)
        }
    }
}

fn finish<'b>(
    encoding: &'static Encoding,
    bytes: &'b [u8],
    guessed: Option<&str>,
    code: &'static str,
) -> (Cow<'b, str>, Option<Finding>) {
    let (text, broken) = encoding.decode_without_bom_handling(bytes);
    let finding = guessed.map(|why| guess_finding(encoding, why, code)).or_else(|| {
        broken.then(|| {
            Finding::lost(code, format!("some bytes are no {} and became \u{FFFD}", encoding.name()))
                .hint(format!("say which encoding it is with {code}"))
        })
    });
    (text, finding)
}

fn guess_finding(encoding: &'static Encoding, why: &str, code: &'static str) -> Finding {
    Finding::advice(code, format!("the text seems to be {}, {why}", encoding.name()))
        .hint(format!("if letters are wrong, say which encoding it is with {code}"))
}

/// The encoding that bytes seem to be in.
#[cfg(not(feature = "encodings"))]
const fn guess(_: &[u8]) -> &'static Encoding {
    WINDOWS_1252
}

/// The encoding that bytes seem to be in.
#[cfg(feature = "encodings")]
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
pub(crate) fn wide(bytes: &[u8]) -> Option<&'static Encoding> {
    let start = bytes.get(..64.min(bytes.len() & !1)).filter(|start| start.len() >= 8)?;
    let zeros = |offset: usize| start.iter().skip(offset).step_by(2).filter(|byte| **byte == 0).count();
    let (even, odd, half) = (zeros(0), zeros(1), start.len() / 2);
    match (even, odd) {
        (0, odd) if odd * 4 > half * 3 => Some(UTF_16LE),
        (even, 0) if even * 4 > half * 3 => Some(UTF_16BE),
        _ => None,
    }
}
