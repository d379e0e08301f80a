//! Reading Word documents.
//!
//! [`body`] walks over the elements of a part and says what each opens; what a paragraph, a run, a field, a table or a drawing
//! is has a file of its own. Properties are read as they are written ([`properties`]) and resolved over [`styles`],
//! [`numbering`] and the [`theme`]. What needs the whole document comes last ([`finish`]).

mod bidi;
mod boxes;
mod comments;
mod content_controls;
mod core_properties;
mod css_declarations;
mod diagnostics;
mod dispatch;
mod drawings;
mod embedded_parts;
mod fields;
mod languages;
mod lists;
mod notes;
mod open;
mod open_element;
mod paragraphs;
mod pictures;
mod resolve;
mod resolve_anchors;
mod resolve_captions;
mod resolve_headings;
mod resolve_languages;
mod runs;
mod sections;
mod style_classes;
mod symbols;
mod tables;

use super::Settings;
use super::model::Model;
use super::model::notes::NoteKind;
use super::package::{Package, PackageError, Relations};
use super::xml::Xml;
use crate::document::{Document, NodeId, NoteId, Producer};
use crate::fast_hash::HashMap;
use crate::formats::StyleFidelity;
use crate::links::{ExternalLinks, NoExternalLinks};
use crate::refine::revisions::Revisions;
use open::Context;
use open::{Run, Wrap};
use resolve_anchors::Anchors;
use resolve_headings::Headings;
use resolve_languages::Languages;
use style_classes::Looks;

/// What becomes of comments.
#[derive(Clone, Copy, Debug, Default, PartialEq, Eq)]
pub enum Comments {
    /// They stay where a Word document is written, and are left out elsewhere.
    #[default]
    Auto,
    /// They stay comments: [`Document::comments`].
    Keep,
    /// They are left out, with a finding that has their words.
    Drop,
    /// They become notes.
    Notes,
}

/// What becomes of lists of contents.
#[derive(Clone, Copy, Debug, Default, PartialEq, Eq)]
pub enum ContentsLists {
    /// They are fields again where a Word document is written, and are left out elsewhere.
    #[default]
    Auto,
    /// They are left out, with a finding.
    Drop,
    /// They stay, as text.
    Keep,
    /// They are left out, and whoever writes the document makes them anew.
    Field,
}

/// What becomes of the headers and footers of pages.
#[derive(Clone, Copy, Debug, Default, PartialEq, Eq)]
pub enum Headers {
    /// They stay where a Word document is written, and are left out elsewhere.
    #[default]
    Auto,
    /// They are left out, with a finding that has their words.
    Drop,
    /// They stand at both ends of the text.
    Keep,
    /// They stay beside the text: [`Section::around`](crate::document::Section::around).
    Pages,
}

/// What becomes of the numbers that the program puts before headings.
#[derive(Clone, Copy, Debug, Default, PartialEq, Eq)]
pub enum HeadingNumbers {
    /// They are text where the document refers to headings by number, or is to look like the source.
    #[default]
    Auto,
    /// They are text.
    Keep,
    /// They are left out.
    Drop,
}

/// What becomes of numbers of lists that HTML has no word for, such as `1.2` and `Article I`.
#[derive(Clone, Copy, Debug, Default, PartialEq, Eq)]
pub enum ListNumbers {
    /// Their paragraphs are items of lists. Style rules write the numbers where looks are kept; else they are reported.
    #[default]
    Items,
    /// They are text, and their paragraphs are no items.
    Text,
}

/// How a Word document is read.
#[derive(Clone, Copy, Debug)]
pub struct ReadOptions<'o> {
    /// The settings of the format.
    pub settings: &'o Settings,
    /// How much of its looks is kept.
    pub fidelity: StyleFidelity,
    /// What becomes of insertions and deletions.
    pub revisions: Revisions,
    /// How many bytes the parts that are read may have together.
    pub unpacked: u64,
    /// Whether the document keeps the text of the parts that spans of its nodes are in.
    pub keeps_source: bool,
    /// Tells which bookmarks others lead to: those stay although nothing in the document leads to them.
    pub external: &'o dyn ExternalLinks,
}

impl Default for ReadOptions<'_> {
    fn default() -> Self {
        Self {
            settings: &super::settings::USUAL,
            fidelity: StyleFidelity::Semantic,
            revisions: Revisions::Auto,
            unpacked: 1 << 28,
            keeps_source: false,
            external: &NoExternalLinks,
        }
    }
}

/// Reads a Word document.
///
/// ```
/// use obblet::formats::word::{self, ReadOptions};
///
/// let error = word::read(b"{\\rtf1 Tides}", &ReadOptions::default()).unwrap_err();
/// assert!(error.to_string().contains("RTF"));
/// ```
///
/// # Errors
/// Where the bytes are no package, or one that has no text in it, or one that unpacks to more than it may.
pub fn read(bytes: &[u8], options: &ReadOptions<'_>) -> Result<Document, PackageError> {
    let mut package = Package::open(bytes, options.unpacked)?;
    let main = package.main_part()?;
    let relations = package.relations(&main)?;
    let model = Model::read(&mut package, &relations, options.fidelity.keeps_names())?;
    let text = package.main_text(&main)?;
    let text = text.get();
    let properties = package.relations("")?.part("core-properties").map(str::to_owned);
    let mut reader = Reader::new(&mut package, options, text.len());
    (reader.model, reader.relations) = (model, relations);
    // Kana, Han and Hangul in UTF-8; only then do fonts for them matter.
    reader.looks.is_east_asian =
        options.fidelity.is_exact() && text.bytes().fold(false, |found, byte| found | matches!(byte, 0xE3..=0xED));
    reader.languages.main =
        reader.model.styles.default_paragraph().characters.language.or(reader.model.styles.characters.language);
    if let Some(properties) = properties {
        reader.metadata(&properties);
    }
    reader.doc.source.add_part("", &main, text.len(), Some(&*text).filter(|_| options.keeps_source));
    reader.read_all(&text);
    match reader.picture_error() {
        Some(error) => Err(error),
        None => {
            reader.doc.order_spans();
            Ok(reader.doc)
        }
    }
}

/// Reads one document: what is open where it stands, what was found so far, and what is done when all of it is read.
struct Reader<'p, 'b> {
    doc: Document,
    package: &'p mut Package<'b>,
    options: &'p ReadOptions<'p>,
    model: Model,
    /// Of the part that is being read.
    relations: Relations,
    place: Place,
    /// What holds the blocks that come, innermost last.
    contexts: Vec<Context>,
    /// Stands in where no context is open.
    outside: Context,
    tables: Vec<tables::OpenTable>,
    run: Run,
    wraps: Vec<Wrap>,
    fields: fields::Fields,
    links: fields::Links,
    controls: content_controls::Controls,
    drawings: Vec<drawings::Drawing>,
    rubies: Vec<(NodeId, NodeId)>,
    sections: sections::Sections,
    notes: HashMap<(NoteKind, i32), NoteId>,
    reviews: comments::Reviews,
    pictures: pictures::Pictures,
    anchors: Anchors,
    headings: Headings,
    languages: Languages,
    looks: Looks,
    unfinished: resolve::Unfinished,
    diagnostics: diagnostics::Diagnostics,
}

/// Where the reader stands: bytes of all parts one behind the other.
#[derive(Debug, Default)]
struct Place {
    /// Where the part begins that is being read.
    part: u32,
    /// Where the paragraph begins.
    paragraph: u32,
    /// Where the element begins or ends.
    element: u32,
    /// How many paragraphs of the part have begun, and how many the body has.
    paragraphs: u32,
    of_body: u32,
}

impl<'p, 'b> Reader<'p, 'b> {
    fn new(package: &'p mut Package<'b>, options: &'p ReadOptions<'p>, size: usize) -> Self {
        let mut doc = Document::with_pool(String::with_capacity(size / 8), size / 256 + 16);
        // What is to look like the source is left as it is.
        doc.layout_hints.producer = if options.fidelity.is_exact() { Producer::Plain } else { Producer::Program };
        let outside = Context::of(doc.root());
        Self {
            doc,
            package,
            options,
            model: Model::default(),
            relations: Relations::default(),
            place: Place::default(),
            contexts: Vec::new(),
            outside,
            tables: Vec::new(),
            run: Run::default(),
            wraps: Vec::new(),
            fields: fields::Fields::default(),
            links: fields::Links::default(),
            controls: content_controls::Controls::default(),
            drawings: Vec::new(),
            rubies: Vec::new(),
            sections: sections::Sections::default(),
            notes: HashMap::default(),
            reviews: comments::Reviews::default(),
            pictures: pictures::Pictures::default(),
            anchors: Anchors::default(),
            headings: Headings::default(),
            languages: Languages::default(),
            looks: Looks::default(),
            unfinished: resolve::Unfinished::default(),
            diagnostics: diagnostics::Diagnostics::default(),
        }
    }

    fn read_all(&mut self, text: &str) {
        let root = self.doc.root();
        self.begin_context(root);
        self.story(&mut Xml::new(text));
        self.end_open_fields();
        self.end_context();
        self.place.of_body = self.place.paragraphs;
        let relations = std::mem::take(&mut self.relations);
        if let Some(part) = relations.part(NoteKind::Comment.part()).map(str::to_owned) {
            self.report_comments(&part);
        }
        self.read_notes(&relations);
        if let Some(part) = relations.part(NoteKind::Comment.part()).map(str::to_owned) {
            self.read_comments(&part);
        }
        self.headers();
        self.relations = relations;
        self.finish();
        if self.options.fidelity.is_exact() {
            self.style_page();
        }
        self.doc.styles = std::mem::take(&mut self.looks.classes).into_styles();
        self.define_styles();
    }

    /// Reads a part beside the text; what does not say where it goes goes into a node.
    fn read_part(&mut self, part: &str, holder: NodeId, name: &'static str) {
        let text = match self.package.text(part) {
            Ok(Some(text)) => text,
            Ok(None) => return,
            Err(error) => {
                self.pictures.too_large.get_or_insert(error);
                return;
            }
        };
        // A part whose relations are damaged is reported at the end.
        self.relations = self.package.relations(part).unwrap_or_default();
        let text = text.get();
        self.place.part = self.doc.source.add_part(name, part, text.len(), Some(&*text).filter(|_| self.options.keeps_source));
        (self.place.paragraphs, self.controls.omitting) = (0, 0);
        self.fields.end_part();
        self.wraps.clear();
        self.links.open.clear();
        self.tables.clear();
        self.looks.space_above = 0;
        self.begin_context(holder);
        self.story(&mut Xml::new(&text));
        self.end_open_fields();
        self.end_context();
    }
}
