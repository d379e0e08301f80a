//! The encoding that a document declares (the documentation of inputenc).

use encoding_rs::Encoding;

/// Encodings by the names that the package has for them.
const NAMES: [(&str, &str); 16] = [
    ("latin1", "windows-1252"),
    ("latin2", "iso-8859-2"),
    ("latin3", "iso-8859-3"),
    ("latin4", "iso-8859-4"),
    ("latin5", "windows-1254"),
    ("latin9", "iso-8859-15"),
    ("latin10", "iso-8859-16"),
    ("ansinew", "windows-1252"),
    ("cp1250", "windows-1250"),
    ("cp1251", "windows-1251"),
    ("cp1252", "windows-1252"),
    ("cp1257", "windows-1257"),
    ("cp866", "ibm866"),
    ("koi8-r", "koi8-r"),
    ("koi8-u", "koi8-u"),
    ("applemac", "macintosh"),
];

/// The text of a source that is not UTF-8, in UTF-8; nothing where it is already, or says no other encoding.
pub(super) fn decoded(bytes: &[u8]) -> Option<Vec<u8>> {
    if simdutf8::basic::from_utf8(bytes).is_ok() {
        return None;
    }
    let end = memchr::memmem::find(bytes, b"]{inputenc}").or_else(|| memchr::memmem::find(bytes, b"]{inputenx}"))?;
    let start = bytes[..end].iter().rposition(|byte| *byte == b'[')? + 1;
    let options = std::str::from_utf8(bytes.get(start..end)?).ok()?;
    let label = options.split(',').find_map(|name| NAMES.iter().find(|(known, _)| *known == name.trim()))?.1;
    let encoding = Encoding::for_label(label.as_bytes())?;
    Some(encoding.decode_without_bom_handling(bytes).0.into_owned().into_bytes())
}
