//! Prints markup: elements and attributes in the order in which they are given.

use std::fmt::Write as _;

/// The namespaces of the main part, as its root declares them.
pub(in crate::formats::word) const NAMESPACES: [(&str, &str); 9] = [
    ("xmlns:w", "http://schemas.openxmlformats.org/wordprocessingml/2006/main"),
    ("xmlns:r", "http://schemas.openxmlformats.org/officeDocument/2006/relationships"),
    ("xmlns:m", "http://schemas.openxmlformats.org/officeDocument/2006/math"),
    ("xmlns:wp", "http://schemas.openxmlformats.org/drawingml/2006/wordprocessingDrawing"),
    ("xmlns:a", "http://schemas.openxmlformats.org/drawingml/2006/main"),
    ("xmlns:pic", "http://schemas.openxmlformats.org/drawingml/2006/picture"),
    ("xmlns:mc", "http://schemas.openxmlformats.org/markup-compatibility/2006"),
    ("xmlns:w14", "http://schemas.microsoft.com/office/word/2010/wordml"),
    ("mc:Ignorable", "w14"),
];

const DECLARATION: &str = "<?xml version=\"1.0\" encoding=\"UTF-8\" standalone=\"yes\"?>\n";

/// Prints a part.
#[derive(Debug, Default)]
pub(in crate::formats::word) struct Printer {
    out: String,
    open: Vec<&'static str>,
    /// Whether the tag that was opened last is not ended yet.
    in_tag: bool,
    /// How many characters XML has no place for (XML 1.0, section 2.2).
    pub(in crate::formats::word) replaced: usize,
}

impl Printer {
    /// A part that begins with an element and the namespaces of the format.
    pub(in crate::formats::word) fn part(root: &'static str) -> Self {
        let mut printer = Self::default();
        printer.out.push_str(DECLARATION);
        printer.open(root);
        for (name, value) in NAMESPACES {
            printer.attribute(name, value);
        }
        printer
    }

    /// A part of the package itself, whose root has one namespace.
    pub(in crate::formats::word) fn package_part(root: &'static str, namespace: &str) -> Self {
        let mut printer = Self::default();
        printer.out.push_str(DECLARATION);
        printer.open(root).attribute("xmlns", namespace);
        printer
    }

    /// The theme.
    pub(in crate::formats::word) fn theme() -> Self {
        let mut printer = Self::default();
        printer.out.push_str(DECLARATION);
        printer.open("a:theme").attribute("xmlns:a", "http://schemas.openxmlformats.org/drawingml/2006/main");
        printer.attribute("name", "Document");
        printer
    }

    /// The properties of the document, whose terms come from other vocabularies (ECMA-376, part 2, section 11).
    pub(in crate::formats::word) fn core_properties() -> Self {
        let mut printer = Self::default();
        printer.out.push_str(DECLARATION);
        printer.open("cp:coreProperties");
        for (name, value) in [
            ("xmlns:cp", "http://schemas.openxmlformats.org/package/2006/metadata/core-properties"),
            ("xmlns:dc", "http://purl.org/dc/elements/1.1/"),
            ("xmlns:dcterms", "http://purl.org/dc/terms/"),
            ("xmlns:xsi", "http://www.w3.org/2001/XMLSchema-instance"),
        ] {
            printer.attribute(name, value);
        }
        printer
    }

    pub(in crate::formats::word) fn open(&mut self, name: &'static str) -> &mut Self {
        self.end_tag();
        self.out.push('<');
        self.out.push_str(name);
        self.open.push(name);
        self.in_tag = true;
        self
    }

    pub(in crate::formats::word) fn attribute(&mut self, name: &str, value: &str) -> &mut Self {
        self.out.push(' ');
        self.out.push_str(name);
        self.out.push_str("=\"");
        self.escape(value, true);
        self.out.push('"');
        self
    }

    pub(in crate::formats::word) fn number(&mut self, name: &str, value: impl Into<i64>) -> &mut Self {
        // Writing to a string does not fail.
        let _ = write!(self.out, " {name}=\"{}\"", value.into());
        self
    }

    /// Ends the element that was opened last.
    pub(in crate::formats::word) fn close(&mut self) -> &mut Self {
        let Some(name) = self.open.pop() else { return self };
        if std::mem::take(&mut self.in_tag) {
            self.out.push_str("/>");
        } else {
            self.out.push_str("</");
            self.out.push_str(name);
            self.out.push('>');
        }
        self
    }

    /// An element without anything.
    pub(in crate::formats::word) fn empty(&mut self, name: &'static str) -> &mut Self {
        self.open(name).close()
    }

    /// An element with a value.
    pub(in crate::formats::word) fn value(&mut self, name: &'static str, value: &str) -> &mut Self {
        self.open(name).attribute("w:val", value).close()
    }

    /// An element with a number.
    pub(in crate::formats::word) fn value_of(&mut self, name: &'static str, value: impl Into<i64>) -> &mut Self {
        self.open(name).number("w:val", value).close()
    }

    /// An element that is on, or off.
    pub(in crate::formats::word) fn flag(&mut self, name: &'static str, on: bool) -> &mut Self {
        if on { self.empty(name) } else { self.value(name, "0") }
    }

    /// An element that holds nothing but text.
    pub(in crate::formats::word) fn element(&mut self, name: &'static str, text: &str) -> &mut Self {
        self.open(name);
        self.text(text);
        self.close()
    }

    pub(in crate::formats::word) fn text(&mut self, text: &str) -> &mut Self {
        self.end_tag();
        self.escape(text, false);
        self
    }

    /// Markup as it is.
    pub(in crate::formats::word) fn raw(&mut self, markup: &str) -> &mut Self {
        self.end_tag();
        self.out.push_str(markup);
        self
    }

    pub(in crate::formats::word) fn end_tag(&mut self) {
        if std::mem::take(&mut self.in_tag) {
            self.out.push('>');
        }
    }

    /// Whether the element that was opened last, and is not closed, has this name.
    pub(in crate::formats::word) fn is_open(&self, name: &str) -> bool {
        self.open.last() == Some(&name)
    }

    /// The place of a space with which the text that was printed last ends.
    pub(in crate::formats::word) fn last_space(&self) -> Option<usize> {
        let end = self.out.rfind(" </w:")?;
        (self.out.len() - end < 40).then_some(end)
    }

    /// Takes away a space.
    pub(in crate::formats::word) fn take_space(&mut self, place: usize) {
        if self.out.as_bytes().get(place) == Some(&b' ') {
            self.out.remove(place);
        }
    }

    /// Takes the end off what was closed last, whose name it is: it goes on.
    pub(in crate::formats::word) fn reopen(&mut self, name: &'static str) {
        let end = format!("</{name}>");
        if self.out.ends_with(&end) {
            self.out.truncate(self.out.len() - end.len());
            self.open.push(name);
        }
    }

    pub(in crate::formats::word) fn finish(mut self) -> String {
        while !self.open.is_empty() {
            self.close();
        }
        self.out
    }

    fn escape(&mut self, text: &str, in_attribute: bool) {
        let mut rest = text;
        while let Some(at) = first_special(rest.as_bytes(), in_attribute) {
            self.out.push_str(&rest[..at]);
            let Some(c) = rest[at..].chars().next() else { return };
            rest = &rest[at + c.len_utf8()..];
            match c {
                '&' => self.out.push_str("&amp;"),
                '<' => self.out.push_str("&lt;"),
                '>' => self.out.push_str("&gt;"),
                '"' => self.out.push_str("&quot;"),
                '\t' => self.out.push_str("&#9;"),
                '\n' => self.out.push_str("&#10;"),
                '\r' => self.out.push_str("&#13;"),
                '\u{FFFE}' | '\u{FFFF}' | '\0'..='\u{1F}' => {
                    self.replaced += 1;
                    self.out.push(char::REPLACEMENT_CHARACTER);
                }
                c => self.out.push(c),
            }
        }
        self.out.push_str(rest);
    }
}

/// Where the first byte is that begins a character that is not written as it is, or may.
fn first_special(bytes: &[u8], in_attribute: bool) -> Option<usize> {
    // Without a branch in it, the test of a whole block is a few instructions.
    let is_plain = |block: &[u8; BLOCK]| !block.iter().fold(false, |found, &byte| found | is_special(byte, in_attribute));
    let (blocks, _) = bytes.as_chunks::<BLOCK>();
    let plain = blocks.iter().take_while(|block| is_plain(block)).count() * BLOCK;
    bytes[plain..].iter().position(|&byte| is_special(byte, in_attribute)).map(|at| plain + at)
}

/// So many bytes are tested at once.
const BLOCK: usize = 16;

/// Whether a byte begins a character that is not written as it is, or may.
const fn is_special(byte: u8, in_attribute: bool) -> bool {
    (byte == b'&') | (byte == b'<') | (byte == b'>') | (byte < 0x20) | (byte == 0xEF) | (in_attribute & (byte == b'"'))
}

#[cfg(test)]
mod tests {
    use super::*;

    #[test]
    fn markup_is_escaped_and_ended() {
        let mut printer = Printer::default();
        printer.open("w:p").attribute("w:x", "a\"<\t");
        printer.value("w:b", "1").text("a & b\u{1}\u{FFFF}\u{FEFF}");
        assert_eq!(printer.replaced, 2);
        assert_eq!(printer.finish(), "<w:p w:x=\"a&quot;&lt;&#9;\"><w:b w:val=\"1\"/>a &amp; b\u{FFFD}\u{FFFD}\u{FEFF}</w:p>");
    }
}
