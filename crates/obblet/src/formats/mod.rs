//! One room for each format. A room turns its format into the model and the model into its format, and knows no other room.

pub mod html;
pub mod markdown;
pub mod text;
pub mod word;

/// A document format.
///
/// ```
/// use obblet::Format;
///
/// assert_eq!(Format::from_extension("MD"), Some(Format::Markdown));
/// assert!(Format::Markdown.is_read());
/// ```
#[derive(Clone, Copy, Debug, PartialEq, Eq, Hash)]
#[non_exhaustive]
pub enum Format {
    /// CommonMark with GitHub's extensions.
    Markdown,
    /// HTML, as a page or as a fragment.
    Html,
    /// Text without markup.
    Text,
    /// Packages of word processors.
    Word,
}

/// What there is to know about a format without reading any.
struct Entry {
    format: Format,
    name: &'static str,
    extensions: &'static [&'static str],
    reads: bool,
    writes: bool,
}

const TABLE: [Entry; 4] = [
    Entry {
        format: Format::Markdown,
        name: "markdown",
        extensions: &["md", "markdown", "mkd", "mdown"],
        reads: true,
        writes: true,
    },
    Entry { format: Format::Html, name: "html", extensions: &["html", "htm", "xhtml", "xht"], reads: true, writes: true },
    Entry { format: Format::Text, name: "text", extensions: &["txt", "text"], reads: true, writes: true },
    // Old binary documents are told what they are.
    Entry {
        format: Format::Word,
        name: "word",
        extensions: &["docx", "docm", "dotx", "dotm", "doc", "dot"],
        reads: true,
        writes: false,
    },
];

impl Format {
    fn entry(self) -> &'static Entry {
        &TABLE[self as usize]
    }

    /// Its name in settings and on the command line.
    #[must_use]
    pub fn name(self) -> &'static str {
        self.entry().name
    }

    /// The format of a name.
    #[must_use]
    pub fn from_name(name: &str) -> Option<Self> {
        TABLE.iter().find(|entry| entry.name == name).map(|entry| entry.format)
    }

    /// The format of files with an extension, in any case of letters.
    #[must_use]
    pub fn from_extension(extension: &str) -> Option<Self> {
        TABLE
            .iter()
            .find(|entry| entry.extensions.iter().any(|known| known.eq_ignore_ascii_case(extension)))
            .map(|entry| entry.format)
    }

    /// Whether documents of this format can be read.
    #[must_use]
    pub fn is_read(self) -> bool {
        self.entry().reads
    }

    /// Whether documents of this format can be written.
    #[must_use]
    pub fn is_written(self) -> bool {
        self.entry().writes
    }

    /// All formats.
    pub fn all() -> impl Iterator<Item = Self> {
        TABLE.iter().map(|entry| entry.format)
    }

    /// The extensions of its files; the first is the one that is written.
    #[must_use]
    pub fn extensions(self) -> &'static [&'static str] {
        self.entry().extensions
    }
}

#[cfg(test)]
mod tests {
    use super::*;

    #[test]
    fn each_format_stands_at_its_own_place_of_the_table() {
        for format in Format::all() {
            assert_eq!(format.entry().format, format);
            assert_eq!(Format::from_name(format.name()), Some(format));
        }
    }
}
