//! One room for each format. A room turns its format into the model and the model into its format, and knows no other room.
//!
//! A room is declared by one line of the list below. What there is to know about its format is in its [`Descriptor`]: names,
//! extensions, how it is read and written, its settings and its findings.

mod descriptor;

pub use descriptor::{
    Anchors, Descriptor, ElementWriter, Formulas, Headings, Images, OutputName, RawHtml, ReadError, ReadRequest, Reader,
    StyleFidelity, WriteRequest, Writer, Written,
};

use crate::settings::Section;
use std::fmt;
use std::str::FromStr;

macro_rules! formats {
    ($($(#[$attribute:meta])* $room:ident => $name:ident, $meaning:literal;)+) => {
        $($(#[$attribute])* pub mod $room;)+

        /// A document format.
        ///
        /// ```
        /// use obblet::Format;
        ///
        /// assert_eq!(Format::from_extension("MD"), Some(Format::Markdown));
        /// assert_eq!("markdown".parse(), Ok(Format::Markdown));
        /// assert!(Format::Markdown.is_read());
        /// ```
        #[derive(Clone, Copy, Debug, PartialEq, Eq, Hash)]
        #[non_exhaustive]
        pub enum Format {
            $($(#[$attribute])* #[doc = $meaning] $name,)+
        }

        /// All formats of this build.
        const FORMATS: &[Format] = &[$($(#[$attribute])* Format::$name,)+];

        /// The settings of all formats.
        #[derive(Clone, Debug, Default, PartialEq, Eq)]
        pub struct Settings {
            $($(#[$attribute])* #[doc = $meaning] pub $room: $room::Settings,)+
        }

        impl Format {
            /// What there is to know about it.
            #[must_use]
            pub fn descriptor(self) -> &'static Descriptor {
                match self {
                    $($(#[$attribute])* Self::$name => &$room::DESCRIPTOR,)+
                }
            }
        }

        impl Settings {
            /// The settings of a format.
            pub(crate) fn section(&self, format: Format) -> &dyn Section {
                match format {
                    $($(#[$attribute])* Format::$name => &self.$room,)+
                }
            }

            /// The settings of a format, to change them.
            pub(crate) fn section_mut(&mut self, format: Format) -> &mut dyn Section {
                match format {
                    $($(#[$attribute])* Format::$name => &mut self.$room,)+
                }
            }
        }
    };
}

formats! {
    markdown => Markdown, "CommonMark with GitHub's extensions.";
    html => Html, "HTML, as a page or as a fragment.";
    org => Org, "Org: outlines, notes and plans.";
    latex => Latex, "LaTeX: articles, reports, books, letters and slides.";
    text => Text, "Text without markup.";
    #[cfg(feature = "word")]
    word => Word, "Packages of word processors.";
    #[cfg(feature = "table")]
    table => Table, "One table as text, with a separator between its cells.";
}

/// There is no format of a name.
#[derive(Clone, Debug, PartialEq, Eq, thiserror::Error)]
#[error("there is no format {name}; there are {known}")]
pub struct UnknownFormat {
    name: String,
    known: String,
}

impl Format {
    /// All formats of this build.
    pub fn all() -> impl Iterator<Item = Self> {
        FORMATS.iter().copied()
    }

    /// Its name in settings and on the command line.
    #[must_use]
    pub fn name(self) -> &'static str {
        self.descriptor().name
    }

    /// The format of a name.
    #[must_use]
    pub fn from_name(name: &str) -> Option<Self> {
        Self::all().find(|format| format.name() == name)
    }

    /// The format of files with an extension, in any case of letters.
    #[must_use]
    pub fn from_extension(extension: &str) -> Option<Self> {
        Self::all().find(|format| format.extensions().iter().any(|known| known.eq_ignore_ascii_case(extension)))
    }

    /// Whether documents of this format can be read.
    #[must_use]
    pub fn is_read(self) -> bool {
        self.descriptor().read.is_some()
    }

    /// Whether documents of this format can be written.
    #[must_use]
    pub fn is_written(self) -> bool {
        self.descriptor().write.is_some()
    }

    /// The name, without an extension, that a source gives the files it becomes; `beginning` is the first
    /// [`OUTPUT_NAME_WITHIN`](Self::OUTPUT_NAME_WITHIN) bytes of the source, or all of it.
    ///
    /// ```
    /// use obblet::Format;
    ///
    /// let name = Format::Org.output_name(b"#+TITLE: Tides\n#+EXPORT_FILE_NAME: low-water.html\n");
    /// assert_eq!(name.as_deref(), Some("low-water"));
    /// assert_eq!(Format::Org.output_name(b"* Tides\n"), None);
    /// ```
    #[must_use]
    pub fn output_name(self, beginning: &[u8]) -> Option<String> {
        let name = self.descriptor().output_name?(beginning)?;
        let name = name.trim().rsplit(['/', '\\']).next()?;
        let stem = match name.rsplit_once('.') {
            Some((stem, extension)) if Self::from_extension(extension).is_some() || extension == "pdf" => stem,
            _ => name,
        };
        (!stem.trim_matches(['.', ' ']).is_empty()).then(|| crate::file_name::plain_stem(stem))
    }

    /// How many bytes of a source are looked at for a name of its output.
    pub const OUTPUT_NAME_WITHIN: usize = 1 << 16;

    /// The extensions of its files; the first is the one that is written.
    #[must_use]
    pub fn extensions(self) -> &'static [&'static str] {
        self.descriptor().extensions
    }
}

impl fmt::Display for Format {
    fn fmt(&self, f: &mut fmt::Formatter<'_>) -> fmt::Result {
        f.write_str(self.name())
    }
}

impl FromStr for Format {
    type Err = UnknownFormat;

    fn from_str(name: &str) -> Result<Self, Self::Err> {
        let known = || Self::all().map(Self::name).collect::<Vec<_>>().join(", ");
        Self::from_name(name).ok_or_else(|| UnknownFormat { name: name.to_owned(), known: known() })
    }
}

#[cfg(test)]
mod tests {
    use super::*;

    #[test]
    fn names_and_extensions_lead_to_one_format() {
        for format in Format::all() {
            assert_eq!(format.to_string().parse(), Ok(format));
            for extension in format.extensions() {
                assert_eq!(Format::from_extension(extension), Some(format), "{extension}");
            }
            let section = Settings::default();
            let section = section.section(format);
            let prefix = format!("{format}.");
            assert!((0..section.count()).all(|at| section.key(at).starts_with(&prefix)), "{format}");
        }
        let error = "mrakdown".parse::<Format>().unwrap_err().to_string();
        assert!(error.starts_with("there is no format mrakdown; there are markdown, html"), "{error}");
    }
}
