//! What a room says of its format, and what readers and writers are asked for.

use super::{Settings, html};
use crate::document::{Document, Finding, FindingInfo, NodeId};
use crate::links::ExternalLinks;
use crate::media::FilesAround;
use crate::refine::revisions::Revisions;

/// What formulas of a format are in.
#[derive(Clone, Copy, Debug, PartialEq, Eq)]
pub enum Formulas {
    /// TeX, with its own means for numbers and references.
    Tex,
    /// Another notation, or none.
    Other,
}

/// How headings of a format get their numbers.
#[derive(Clone, Copy, Debug, PartialEq, Eq)]
pub enum Headings {
    /// They are text.
    Text,
    /// Its programs count them: numbers that are text would stand there twice.
    Counted,
}

/// What there is to know about a format without reading any.
pub struct Descriptor {
    /// Its name in settings and on the command line.
    pub name: &'static str,
    /// The extensions of its files; the first is the one that is written.
    pub extensions: &'static [&'static str],
    /// Its media type (IANA, Media Types).
    pub media_type: &'static str,
    /// What its files may begin with, for formats that are known by their bytes.
    pub signatures: &'static [&'static [u8]],
    /// What the names of lock files begin with that its programs put beside an open document; empty where there are none.
    pub lock_file_prefix: &'static str,
    /// The key of the setting that holds the encoding of its sources; empty where they are no text.
    pub encoding: &'static str,
    /// What raw HTML is in it.
    pub raw_html: RawHtml,
    /// How its documents show images.
    pub images: Images,
    /// The kinds of images that its programs show; empty where they show all.
    pub(crate) shows: &'static [crate::picture::Kind],
    /// What formulas are in there.
    pub formulas: Formulas,
    /// How headings get their numbers.
    pub headings: Headings,
    /// Whether the house rules about elements and attributes are for it.
    pub has_element_rules: bool,
    /// Whether its documents are formatted by hand, and looks of sources belong into them where nobody says otherwise.
    pub keeps_looks: bool,
    /// Whether files of this format in a folder are its documents, where nobody says which formats are.
    pub is_published: bool,
    /// The name that a source gives the files it becomes, found in its beginning; none where sources of the format don't.
    pub output_name: Option<OutputName>,
    /// Reads a source.
    pub read: Option<Reader>,
    /// Writes a document.
    pub write: Option<Writer>,
    /// All that its reader and its writer may find.
    pub findings: &'static [FindingInfo],
}

/// Finds the name that a source gives the files it becomes, in its beginning.
pub type OutputName = fn(&[u8]) -> Option<String>;

/// Reads a source.
pub type Reader = fn(&[u8], &ReadRequest<'_>) -> Result<Document, ReadError>;

/// Writes a node, and all that is below it, as HTML; with its ids, where those are asked for.
pub type ElementWriter<'w> = &'w dyn Fn(&Document, NodeId, bool) -> String;

/// Writes a document.
pub type Writer = fn(&Document, &WriteRequest<'_>) -> Written;

impl std::fmt::Debug for Descriptor {
    fn fmt(&self, f: &mut std::fmt::Formatter<'_>) -> std::fmt::Result {
        f.debug_struct("Descriptor").field("name", &self.name).finish_non_exhaustive()
    }
}

/// What raw HTML is in a format.
#[derive(Clone, Copy, Debug, PartialEq, Eq)]
pub enum RawHtml {
    /// Part of the format: its readers see what it stands for.
    Native,
    /// Text that its program shows like any other: it is opened when it is read.
    Embedded,
    /// Nothing: it is opened before such a document is written.
    Foreign,
}

/// How documents of a format show images.
#[derive(Clone, Copy, Debug, PartialEq, Eq)]
pub enum Images {
    /// By their addresses, which may hold them.
    ByAddress,
    /// By the names of their files: text that people read has no room for more.
    ByName,
    /// They are part of the document.
    Held,
}

/// Why a source can't be read: the error of its room.
#[derive(Debug, thiserror::Error)]
#[error(transparent)]
pub struct ReadError(Box<dyn std::error::Error + Send + Sync>);

impl ReadError {
    /// The error of a room.
    pub fn new(cause: impl std::error::Error + Send + Sync + 'static) -> Self {
        Self(Box::new(cause))
    }

    /// The error of a room, where it is of this type.
    #[must_use]
    pub fn cause<E: std::error::Error + 'static>(&self) -> Option<&E> {
        self.0.downcast_ref()
    }
}

/// What a conversion asks of a reader beside the settings of its format.
#[derive(Clone, Copy, Debug)]
pub struct ReadRequest<'a> {
    /// The settings of all formats.
    pub settings: &'a Settings,
    /// How much of the source's looks is kept.
    pub fidelity: StyleFidelity,
    /// Whether classes of the source stay.
    pub classes: bool,
    /// Whether spans with classes that stand for inline formatting are that formatting.
    pub formatting_classes: bool,
    /// What becomes of insertions and deletions.
    pub revisions: Revisions,
    /// How many bytes the parts of a package may unpack to together.
    pub unpacked: u64,
    /// Tells which places of the document others lead to.
    pub external: &'a dyn ExternalLinks,
    /// The files that the source may include.
    pub files: FilesAround<'a>,
}

/// How much of a source's looks is kept.
#[derive(Clone, Copy, Debug, Default, PartialEq, Eq)]
pub enum StyleFidelity {
    /// Structure only.
    #[default]
    Semantic,
    /// The names of styles, as classes.
    Named,
    /// All of it: the names of styles, and style rules for what they and the document set.
    Exact,
}

impl StyleFidelity {
    /// Whether styles are classes.
    pub(crate) const fn keeps_names(self) -> bool {
        !matches!(self, Self::Semantic)
    }

    /// Whether it is to look like the source.
    pub(crate) const fn is_exact(self) -> bool {
        matches!(self, Self::Exact)
    }
}

/// What a conversion asks of a writer beside the settings of its format.
#[derive(Clone, Copy)]
pub struct WriteRequest<'a> {
    /// The settings of all formats.
    pub settings: &'a Settings,
    /// The extension of the file that is written; empty where that is not known.
    pub extension: &'a str,
    /// How HTML is written, in a document of its own or within another format.
    pub html: &'a html::Options<'a>,
    /// Whether content to put into another document is written, and no whole document.
    pub fragment: bool,
    /// Images whose files are not there.
    pub missing_images: &'a [NodeId],
    /// The bytes of the document whose design is taken over, for formats that have such.
    pub template: Option<&'a [u8]>,
    /// Writes blocks as HTML, for formats that hold HTML.
    pub element: ElementWriter<'a>,
}

/// What a writer wrote.
#[derive(Clone, Debug, Default)]
pub struct Written {
    /// The document.
    pub bytes: Vec<u8>,
    /// Findings of the writing.
    pub findings: Vec<Finding>,
    /// The anchors of the document, where they were asked for.
    pub anchors: Anchors,
}

/// The anchors of an output: places in it that links can lead to.
#[derive(Clone, Debug, Default, PartialEq, Eq)]
pub struct Anchors {
    /// All ids, in the order of the alphabet.
    pub ids: Vec<String>,
    /// Names that would be ids if something asked for them.
    pub unreferenced: Vec<String>,
    /// Ids that are there only because other documents link to them.
    pub external: Vec<String>,
}

impl std::fmt::Debug for WriteRequest<'_> {
    fn fmt(&self, f: &mut std::fmt::Formatter<'_>) -> std::fmt::Result {
        f.debug_struct("WriteRequest").field("settings", &self.settings).finish_non_exhaustive()
    }
}
