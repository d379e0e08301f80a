//! What bytes are by how they begin, whatever their file is called. Text formats take any text, so that what is no text has to
//! be known by itself.

/// So many bytes are looked at where no mark says what a file is.
const LOOKED_AT: usize = 4096;

/// So many control characters make no file binary, whatever their share is.
const FEW: usize = 8;

/// How files of other kinds begin, and what they are. Published by those who made them; PNG: section 5.2; PDF: ISO 32000-1,
/// section 7.5.2; ZIP: APPNOTE.TXT, section 4.3.
const MARKS: &[(&[u8], &str)] = &[
    (b"%PDF-", "a PDF document"),
    (b"{\\rtf", "a rich text (RTF) document"),
    (b"\xD0\xCF\x11\xE0\xA1\xB1\x1A\xE1", "a binary document of an old office program"),
    (b"\x89PNG\r\n", "an image (PNG)"),
    (b"\xFF\xD8\xFF", "an image (JPEG)"),
    (b"GIF87a", "an image (GIF)"),
    (b"GIF89a", "an image (GIF)"),
    (b"%!PS-", "a PostScript document"),
    (b"\x1F\x8B\x08", "compressed data (gzip)"),
    (b"BZh", "compressed data (bzip2)"),
    (b"\xFD7zXZ\0", "compressed data (xz)"),
    (b"7z\xBC\xAF\x27\x1C", "an archive (7z)"),
    (b"Rar!\x1A\x07", "an archive (RAR)"),
    (b"\x7FELF", "a program"),
];

/// What a source is that can't be read as a text format. `encoded` says that its encoding is known.
pub(crate) fn not_text(bytes: &[u8], encoded: bool) -> Option<&'static str> {
    let start = bytes.strip_prefix(b"\xEF\xBB\xBF").unwrap_or(bytes);
    if start.starts_with(b"PK\x03\x04") || start.starts_with(b"PK\x05\x06") {
        return Some(package(start));
    }
    if let Some((_, what)) = MARKS.iter().find(|(mark, _)| start.starts_with(mark)) {
        return Some(what);
    }
    let is_known = encoded || encoding_rs::Encoding::for_bom(bytes).is_some() || crate::encoding::wide(bytes).is_some();
    (!is_known && is_binary(&bytes[..bytes.len().min(LOOKED_AT)])).then_some("binary data")
}

/// What is in an archive, by the names of its files.
fn package(bytes: &[u8]) -> &'static str {
    let has = |name: &str| memchr::memmem::find(bytes, name.as_bytes()).is_some();
    // The first file of such packages is stored, and says what they are (OpenDocument 1.2, part 3, section 3.3).
    let kind = bytes.get(30..bytes.len().min(110)).unwrap_or_default();
    let says = |what: &str| memchr::memmem::find(kind, what.as_bytes()).is_some();
    if says("application/vnd.oasis.opendocument") {
        "an OpenDocument file"
    } else if says("application/epub+zip") {
        "an electronic book (EPUB)"
    } else if has("word/document") {
        WORD
    } else if has("xl/workbook") {
        "a spreadsheet"
    } else if has("ppt/presentation") {
        "a presentation"
    } else {
        "an archive (ZIP)"
    }
}

/// What a Word document is called.
const WORD: &str = "a Word document";

/// What to do about a source of this kind.
pub(crate) fn hint(what: &str) -> &'static str {
    match what {
        WORD => "say so with --reads word, or name its file .docx",
        "a PDF document"
        | "an OpenDocument file"
        | "a rich text (RTF) document"
        | "a binary document of an old office program" => "open it in a word processor and save it as .docx",
        _ => "it can't be read",
    }
}

/// Whether text would not have so many control characters, or so many that are no UTF-8 beside them.
fn is_binary(start: &[u8]) -> bool {
    let is_control = |byte: &&u8| matches!(byte, 0..=8 | 0x0E..=0x1A | 0x1C..=0x1F);
    let zeros = start.iter().filter(|byte| **byte == 0).count();
    let controls = start.iter().filter(is_control).count();
    let is_utf_8 = std::str::from_utf8(start).map_or_else(|error| error.error_len().is_none(), |_| true);
    (zeros >= FEW && zeros * 10 >= start.len()) || (controls >= FEW && controls * 20 >= start.len() && !is_utf_8)
}

#[cfg(test)]
mod tests {
    use super::*;

    #[test]
    fn what_is_no_text_is_known_by_its_bytes() {
        let case = |bytes: &[u8], expected: Option<&str>| assert_eq!(not_text(bytes, false), expected, "{bytes:?}");
        case(b"%PDF-1.7\n", Some("a PDF document"));
        case(b"\xEF\xBB\xBF{\\rtf1 x}", Some("a rich text (RTF) document"));
        case(b"PK\x03\x04 and word/document.xml", Some("a Word document"));
        case(
            b"PK\x03\x04                          mimetypeapplication/vnd.oasis.opendocument.text",
            Some("an OpenDocument file"),
        );
        case(b"PK\x05\x06", Some("an archive (ZIP)"));
        case(&(0..=255).collect::<Vec<u8>>(), Some("binary data"));
        // Text in any encoding, and text with an odd character in it.
        for text in
            [&b""[..], b"a\0b", b"PKs and %PDF", b"\xC3\xE9 t\xE9", &b"\x1B[31m".repeat(20), "\u{1}".repeat(20).as_bytes()]
        {
            case(text, None);
        }
        let wide: Vec<u8> = "Gezeiten und mehr".encode_utf16().flat_map(u16::to_le_bytes).collect();
        case(&wide, None);
        case(
            &[&b"\xFF\xFE"[..], &"\u{6F6E}\u{6C50}".repeat(9).encode_utf16().flat_map(u16::to_le_bytes).collect::<Vec<_>>()]
                .concat(),
            None,
        );
        let japanese = encoding_rs::ISO_2022_JP.encode("\u{6F6E}\u{6C50}\u{8868}").0.into_owned();
        case(&japanese, None);
    }
}
