//! The package: an archive of parts that refer to each other by relations (ECMA-376, part 2).

use super::xml::{Event, Ns, Xml};
use crate::fast_hash::HashMap;
use std::borrow::Cow;
use std::io::{Cursor, Read};
use zip::ZipArchive;

/// Why a package can't be opened at all.
#[derive(Clone, Debug, PartialEq, Eq, thiserror::Error)]
#[non_exhaustive]
pub enum PackageError {
    /// A document of a word processor from before packages.
    #[error("it is a binary document of an old word processor; open it in one and save it as .docx")]
    OldBinary,
    /// An encrypted document.
    #[error("it is protected with a password; open it in a word processor and save it without one")]
    Protected,
    /// Rich text.
    #[error("it is rich text (RTF); open it in a word processor and save it as .docx")]
    RichText,
    /// A package of another sort.
    #[error("it holds {0} and no text document")]
    OtherPackage(&'static str),
    /// Bytes of another sort.
    #[error("it is not a Word document: it is {0}")]
    NotAPackage(&'static str),
    /// An archive whose end is missing or whose list is broken.
    #[error("its archive is damaged: {0}")]
    Damaged(String),
    /// A part without which the text can't be read, whose data is broken or is no markup.
    #[error("it is damaged: its part {0} can't be read; open it in a word processor, which may repair it, and save it anew")]
    DamagedPart(String),
    /// A package without the part that holds the text.
    #[error("its main part is missing or can't be read")]
    NoMainPart,
    /// More than the limit when it is unpacked.
    #[error("it unpacks to more than {limit} bytes (limits.unpacked)")]
    TooLarge {
        /// The limit in bytes.
        limit: u64,
    },
}

/// A relation of a part: to another part, or to something outside.
#[derive(Clone, Debug)]
pub(super) struct Relation {
    /// The last word of its type, as in `image`.
    pub(super) kind: String,
    /// The key of a part, or an address.
    pub(super) target: String,
    pub(super) external: bool,
}

/// The relations of a part, by their names.
#[derive(Clone, Debug, Default)]
pub(super) struct Relations {
    by_name: HashMap<String, Relation>,
}

impl Relations {
    pub(super) fn get(&self, name: &str) -> Option<&Relation> {
        self.by_name.get(name)
    }

    /// All of them, by their names.
    pub(super) fn into_sorted(self) -> Vec<(String, Relation)> {
        let mut all: Vec<(String, Relation)> = self.by_name.into_iter().collect();
        all.sort_unstable_by(|one, other| one.0.cmp(&other.0));
        all
    }

    /// The target of the relation of a kind, where it is a part. Of several the first by name, for the order is lost.
    pub(super) fn part(&self, kind: &str) -> Option<&str> {
        let mut found: Vec<(&String, &Relation)> =
            self.by_name.iter().filter(|(_, relation)| relation.kind == kind && !relation.external).collect();
        found.sort_unstable_by_key(|(name, _)| *name);
        found.first().map(|(_, relation)| relation.target.as_str())
    }
}

/// An opened package. Parts are found by keys: their names in lower case, without a slash before them, with nothing
/// escaped, since programs differ in all of that.
pub(super) struct Package<'b> {
    archive: ZipArchive<Cursor<&'b [u8]>>,
    places: HashMap<String, usize>,
    /// How many bytes may still be unpacked.
    left: u64,
    limit: u64,
    /// Parts of markup whose data is broken, or was none; what could be read of them was read.
    pub(super) damaged: Vec<String>,
}

impl<'b> Package<'b> {
    /// Opens a package of which no more than `limit` bytes are unpacked.
    pub(super) fn open(bytes: &'b [u8], limit: u64) -> Result<Self, PackageError> {
        if let Some(reason) = other_file(bytes) {
            return Err(reason);
        }
        let archive = ZipArchive::new(Cursor::new(bytes)).map_err(|error| PackageError::Damaged(error.to_string()))?;
        let names: Vec<Vec<u8>> = archive.file_names_raw().map(<[u8]>::to_vec).collect();
        let mut places = HashMap::with_capacity_and_hasher(names.len(), Default::default());
        for name in names {
            if let Some(place) = archive.index_for_name_raw(&name) {
                places.entry(key(&String::from_utf8_lossy(&name))).or_insert(place);
            }
        }
        Ok(Self { archive, places, left: limit, limit, damaged: Vec::new() })
    }

    pub(super) fn has(&self, part: &str) -> bool {
        self.places.contains_key(part)
    }

    /// The bytes of a part; `None` where there is none of that key or its data is broken.
    pub(super) fn bytes(&mut self, part: &str) -> Result<Option<Vec<u8>>, PackageError> {
        let Some(&place) = self.places.get(part) else { return Ok(None) };
        let Ok(mut file) = self.archive.by_index(place) else {
            self.damaged.push(part.to_owned());
            return Ok(None);
        };
        let too_large = PackageError::TooLarge { limit: self.limit };
        // What it says of its size may be a lie either way.
        if file.size() > self.left {
            return Err(too_large);
        }
        let mut bytes = Vec::with_capacity(usize::try_from(file.size()).unwrap_or(0));
        let whole = (&mut file).take(self.left + 1).read_to_end(&mut bytes);
        if bytes.len() as u64 > self.left {
            return Err(too_large);
        }
        self.left -= bytes.len() as u64;
        drop(file);
        if whole.is_err() && is_markup(part) {
            self.damaged.push(part.to_owned());
        }
        // Text of a part that breaks off is worth having; half a picture is not.
        Ok((whole.is_ok() || is_markup(part)).then_some(bytes))
    }

    /// The markup of a part without which nothing can be read. It is whole, and its first element has this name.
    fn whole(&mut self, part: &str, root: &[u8]) -> Result<PartText, PackageError> {
        let damaged = || PackageError::DamagedPart(part.to_owned());
        let text = self.text(part)?.ok_or_else(damaged)?;
        if self.damaged.iter().any(|known| known == part) {
            return Err(damaged());
        }
        match root_of(&text.get()).as_deref() {
            Some(name) if name == root => Ok(text),
            Some(b"workbook") => Err(PackageError::OtherPackage("a spreadsheet")),
            Some(b"presentation") => Err(PackageError::OtherPackage("slides")),
            _ => {
                self.damaged.push(part.to_owned());
                Err(damaged())
            }
        }
    }

    /// The text of the part that [`main_part`](Self::main_part) names.
    pub(super) fn main_text(&mut self, part: &str) -> Result<PartText, PackageError> {
        self.whole(part, b"document")
    }

    /// A part of markup as text.
    pub(super) fn text(&mut self, part: &str) -> Result<Option<PartText>, PackageError> {
        Ok(self.bytes(part)?.map(PartText::new))
    }

    /// The relations of a part; those of the package for an empty key.
    pub(super) fn relations(&mut self, part: &str) -> Result<Relations, PackageError> {
        let (folder, name) = part.rsplit_once('/').unwrap_or(("", part));
        let place = if folder.is_empty() { format!("_rels/{name}.rels") } else { format!("{folder}/_rels/{name}.rels") };
        let mut relations = Relations::default();
        if !self.has(&place) {
            return Ok(relations);
        }
        let text = self.whole(&place, b"Relationships")?;
        let text = text.get();
        let mut xml = Xml::new(&text);
        while let Some(event) = xml.next() {
            let Event::Open(element) = event else { continue };
            if element.local() != b"Relationship" {
                continue;
            }
            let of = |name: &[u8]| element.get(name).unwrap_or_default();
            let external = of(b"TargetMode").eq_ignore_ascii_case("external");
            let kind = of(b"Type").rsplit('/').next().unwrap_or_default().to_owned();
            let target = of(b"Target").into_owned();
            let target = if external {
                target
            } else if target.starts_with('/') || folder.is_empty() {
                key(&target)
            } else {
                key(&format!("{folder}/{target}"))
            };
            relations.by_name.entry(of(b"Id").into_owned()).or_insert(Relation { kind, target, external });
        }
        Ok(relations)
    }

    /// The key of the part that holds the text.
    pub(super) fn main_part(&mut self) -> Result<String, PackageError> {
        let relations = self.relations("")?;
        if let Some(part) = relations.part("officeDocument").filter(|part| self.has(part)) {
            return Ok(part.to_owned());
        }
        if self.has("word/document.xml") {
            return Ok("word/document.xml".to_owned());
        }
        let others = [
            ("xl/workbook.xml", "a spreadsheet"),
            ("ppt/presentation.xml", "slides"),
            ("mimetype", "a document of another format, such as OpenDocument"),
            ("meta-inf/manifest.xml", "a document of another format, such as OpenDocument"),
        ];
        match others.into_iter().find(|(part, _)| self.has(part)) {
            Some((_, what)) => Err(PackageError::OtherPackage(what)),
            None => Err(PackageError::NoMainPart),
        }
    }
}

/// The name of the first element of a part, without its prefix.
fn root_of(text: &str) -> Option<Vec<u8>> {
    let mut xml = Xml::new(text);
    loop {
        if let Event::Open(element) = xml.next()? {
            return Some(element.local().to_owned());
        }
    }
}

/// What a file is that begins like no archive.
fn other_file(bytes: &[u8]) -> Option<PackageError> {
    const COMPOUND: &[u8] = &[0xD0, 0xCF, 0x11, 0xE0, 0xA1, 0xB1, 0x1A, 0xE1];
    if bytes.starts_with(b"PK") {
        return None;
    }
    if bytes.starts_with(COMPOUND) {
        // Names of streams are UTF-16; an encrypted package is a stream of its own in the old container.
        let wide: Vec<u8> = "EncryptedPackage".bytes().flat_map(|byte| [byte, 0]).collect();
        return Some(match memchr::memmem::find(bytes, &wide) {
            Some(_) => PackageError::Protected,
            None => PackageError::OldBinary,
        });
    }
    let start = bytes.iter().position(|byte| !byte.is_ascii_whitespace()).map_or(bytes, |start| &bytes[start..]);
    if let Some(what) = crate::signature::not_text(bytes, true).filter(|_| !start.starts_with(b"{")) {
        return Some(PackageError::NotAPackage(what));
    }
    Some(match start {
        [] => PackageError::NotAPackage("empty"),
        [b'{', b'\\', b'r', b't', b'f', ..] => PackageError::RichText,
        [b'<', ..] => PackageError::NotAPackage("markup; say which with --reads"),
        // What stands before an archive is skipped, as archivers do.
        _ if memchr::memmem::find(bytes, b"PK\x05\x06").is_some() => return None,
        _ => PackageError::NotAPackage("no archive"),
    })
}

fn is_markup(part: &str) -> bool {
    part.ends_with(".xml") || part.ends_with(".rels")
}

/// The key of a part name: nothing escaped, no `.` and `..`, no case. It can't lead out of the package.
pub(super) fn key(name: &str) -> String {
    let name =
        if name.contains('%') { percent_encoding::percent_decode_str(name).decode_utf8_lossy() } else { Cow::Borrowed(name) };
    let mut parts: Vec<&str> = Vec::new();
    for part in name.split(['/', '\\']) {
        match part {
            "" | "." => {}
            ".." => drop(parts.pop()),
            part => parts.push(part),
        }
    }
    parts.join("/").to_lowercase()
}

/// The text of a part: UTF-8 as it is, anything else decoded (ECMA-376, part 2, section 8.2).
pub(super) enum PartText {
    Plain(Vec<u8>),
    Decoded(String),
}

impl PartText {
    fn new(bytes: Vec<u8>) -> Self {
        let decoded = |encoding: &'static encoding_rs::Encoding, bytes: &[u8]| {
            Self::Decoded(encoding.decode_without_bom_handling(bytes).0.into_owned())
        };
        match encoding_rs::Encoding::for_bom(&bytes) {
            Some((encoding, length)) => decoded(encoding, &bytes[length..]),
            None if bytes.starts_with(&[b'<', 0]) => decoded(encoding_rs::UTF_16LE, &bytes),
            None if bytes.starts_with(&[0, b'<']) => decoded(encoding_rs::UTF_16BE, &bytes),
            None => Self::Plain(bytes),
        }
    }

    /// The text, with characters of replacement for bytes that are none.
    pub(super) fn get(&self) -> Cow<'_, str> {
        match self {
            Self::Plain(bytes) => match simdutf8::basic::from_utf8(bytes) {
                Ok(text) => Cow::Borrowed(text),
                Err(_) => String::from_utf8_lossy(bytes),
            },
            Self::Decoded(text) => Cow::Borrowed(text),
        }
    }
}

impl Ns {
    /// The namespace of an address, in the transitional and in the strict form.
    pub(super) fn of(address: &str) -> Self {
        match address {
            "http://schemas.openxmlformats.org/wordprocessingml/2006/main"
            | "http://purl.oclc.org/ooxml/wordprocessingml/main" => Self::W,
            "http://schemas.openxmlformats.org/officeDocument/2006/relationships"
            | "http://purl.oclc.org/ooxml/officeDocument/relationships" => Self::R,
            "http://schemas.openxmlformats.org/officeDocument/2006/math" | "http://purl.oclc.org/ooxml/officeDocument/math" => {
                Self::M
            }
            "http://schemas.openxmlformats.org/drawingml/2006/main" | "http://purl.oclc.org/ooxml/drawingml/main" => Self::A,
            "http://schemas.openxmlformats.org/drawingml/2006/wordprocessingDrawing"
            | "http://purl.oclc.org/ooxml/drawingml/wordprocessingDrawing" => Self::Wp,
            "http://schemas.openxmlformats.org/drawingml/2006/picture" | "http://purl.oclc.org/ooxml/drawingml/picture" => {
                Self::Pic
            }
            "http://schemas.openxmlformats.org/drawingml/2006/chart" | "http://purl.oclc.org/ooxml/drawingml/chart" => {
                Self::Chart
            }
            "http://schemas.openxmlformats.org/drawingml/2006/diagram" | "http://purl.oclc.org/ooxml/drawingml/diagram" => {
                Self::Diagram
            }
            "http://schemas.openxmlformats.org/markup-compatibility/2006" => Self::Mc,
            "urn:schemas-microsoft-com:vml" => Self::V,
            "urn:schemas-microsoft-com:office:office" => Self::O,
            "http://schemas.microsoft.com/office/word/2010/wordprocessingShape" => Self::Wps,
            "http://schemas.microsoft.com/office/word/2010/wordml" => Self::W14,
            _ => Self::Other,
        }
    }
}

#[cfg(test)]
mod tests {
    use super::*;

    #[test]
    fn keys_of_parts_stay_in_the_package() {
        for (name, expected) in [
            ("/word/Document.xml", "word/document.xml"),
            ("word/../../../etc/passwd", "etc/passwd"),
            ("word\\media\\Bild%201.PNG", "word/media/bild 1.png"),
            ("./word//a.xml", "word/a.xml"),
        ] {
            assert_eq!(key(name), expected);
        }
    }

    #[test]
    fn files_that_are_no_packages_are_named() {
        let case = |bytes: &[u8]| Package::open(bytes, 1000).map(|_| ()).unwrap_err().to_string();
        assert!(case(b"").contains("empty"));
        assert!(case(b"{\\rtf1 text}").contains("RTF"));
        assert!(case(b"<html>").contains("markup"));
        assert!(case(b"PK\x03\x04 and nothing more").contains("damaged"));
        assert!(case(&[0xD0, 0xCF, 0x11, 0xE0, 0xA1, 0xB1, 0x1A, 0xE1, 0, 0]).contains("old word processor"));
    }
}
