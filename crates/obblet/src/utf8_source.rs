//! From bytes to text: encoding, line endings, characters that are replaced (as CommonMark has it, sections 2.1 and 2.3).

use crate::document::{Document, Finding, SourceMap};
use std::borrow::Cow;

/// The text of a source, and an empty document whose pool begins with it.
pub(crate) fn open(bytes: &[u8]) -> (Cow<'_, str>, Document) {
    let (source, broken) = decode(bytes);
    let mut pool = String::with_capacity(source.len() + source.len() / 4 + 64);
    pool.push_str(&source);
    let mut doc = Document::with_pool(pool, source.len() / 12 + 16);
    doc.source = SourceMap::of_text(source.len()).read_from(bytes, &source);
    report(&mut doc, broken);
    (source, doc)
}

/// The text of bytes, whatever is wrong with them.
pub(crate) fn text(bytes: &[u8]) -> Cow<'_, str> {
    decode(bytes).0
}

/// What was wrong with the bytes.
#[derive(Clone, Copy, Debug, Default)]
struct Broken {
    /// Offset in the text of the first piece that is no UTF-8, and how many pieces there are.
    invalid: Option<(usize, usize)>,
}

/// Text whose lines all end in `\n`, without byte order mark and null characters.
fn decode(bytes: &[u8]) -> (Cow<'_, str>, Broken) {
    let bytes = bytes.strip_prefix(b"\xEF\xBB\xBF").unwrap_or(bytes);
    let mut broken = Broken::default();
    let text = match simdutf8::basic::from_utf8(bytes) {
        Ok(text) => Cow::Borrowed(text),
        Err(_) => Cow::Owned(replace_invalid(bytes, &mut broken)),
    };
    if memchr::memchr2(b'\r', b'\0', text.as_bytes()).is_none() && (text.is_empty() || text.ends_with('\n')) {
        return (text, broken);
    }
    let mut clean = String::with_capacity(text.len() + 1);
    let mut rest = &*text;
    while let Some(at) = memchr::memchr2(b'\r', b'\0', rest.as_bytes()) {
        clean.push_str(&rest[..at]);
        if rest.as_bytes()[at] == 0 {
            clean.push(char::REPLACEMENT_CHARACTER);
        } else if rest.as_bytes().get(at + 1) != Some(&b'\n') {
            clean.push('\n');
        }
        rest = &rest[at + 1..];
    }
    clean.push_str(rest);
    if !clean.is_empty() && !clean.ends_with('\n') {
        clean.push('\n');
    }
    (Cow::Owned(clean), broken)
}

fn replace_invalid(bytes: &[u8], broken: &mut Broken) -> String {
    let mut text = String::with_capacity(bytes.len() + 16);
    for chunk in bytes.utf8_chunks() {
        text.push_str(chunk.valid());
        if !chunk.invalid().is_empty() {
            let (first, count) = broken.invalid.unwrap_or((text.len(), 0));
            broken.invalid = Some((first, count + 1));
            text.push(char::REPLACEMENT_CHARACTER);
        }
    }
    text
}

/// Reports what was wrong with the bytes.
fn report(doc: &mut Document, broken: Broken) {
    if let Some((first, count)) = broken.invalid {
        let place = doc.source.place(doc.pool(), first as u32);
        doc.push_finding(
            Finding::changed("text.encoding", format!("{count} byte sequences are not UTF-8 and became \u{FFFD}"))
                .at(place)
                .hint("save the file as UTF-8"),
        );
    }
}
