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
use super::model::numbering::Numberings;
use super::model::properties::{Name, Names};
use super::model::styles::Styles;
use super::model::theme::Theme;
use super::package::{Package, PackageError, Relations};
use super::xml::Xml;
use crate::document::{Comment, Document, MediaId, NodeId, Producer, Revision};
use crate::fast_hash::{HashMap, HashSet};
use crate::formats::StyleFidelity;
use crate::links::{ExternalLinks, NoExternalLinks};
use crate::refine::revisions::Revisions;
use notes::NoteKind;
use open::Context;
use open::{Run, Wrap};
use style_classes::ClassRegistry;

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
    let mut names = Names::default();
    let part = |package: &mut Package<'_>, kind: &str| match relations.part(kind) {
        Some(part) => package.text(part),
        None => Ok(None),
    };
    let looks = options.fidelity.keeps_names();
    let theme = part(&mut package, "theme")?.map(|text| Theme::read(&text.get())).unwrap_or_default();
    let styles =
        part(&mut package, "styles")?.map(|text| Styles::read(&text.get(), &mut names, &theme, looks)).unwrap_or_default();
    let numberings =
        part(&mut package, "numbering")?.map(|text| Numberings::read(&text.get(), &mut names, &theme, looks)).unwrap_or_default();
    let text = package.main_text(&main)?;
    let text = text.get();
    let properties = package.relations("")?.part("core-properties").map(str::to_owned);
    let mut reader = Reader::new(&mut package, options, text.len());
    (reader.names, reader.theme, reader.styles, reader.numberings) = (names, theme, styles, numberings);
    reader.relations = relations;
    // Kana, Han and Hangul in UTF-8; only then do fonts for them matter.
    reader.is_east_asian =
        options.fidelity.is_exact() && text.bytes().fold(false, |found, byte| found | matches!(byte, 0xE3..=0xED));
    reader.main_language = reader.styles.default_paragraph().characters.language.or(reader.styles.characters.language);
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

/// Reads one document.
#[expect(clippy::struct_excessive_bools, reason = "its state is split up together with the writer")]
struct Reader<'p, 'b> {
    doc: Document,
    package: &'p mut Package<'b>,
    options: &'p ReadOptions<'p>,
    names: Names,
    theme: Theme,
    styles: Styles,
    numberings: Numberings,
    /// Of the part that is being read.
    relations: Relations,
    /// What holds the blocks that come, innermost last.
    contexts: Vec<Context>,
    /// Stands in where no context is open.
    outside: Context,
    tables: Vec<tables::OpenTable>,
    run: Run,
    wraps: Vec<Wrap>,
    fields: Vec<fields::Field>,
    fields_in_instruction: usize,
    controls: Vec<content_controls::Control>,
    drawings: Vec<drawings::Drawing>,
    rubies: Vec<(NodeId, NodeId)>,
    /// Code within lines.
    codes: Vec<NodeId>,
    callouts: Vec<NodeId>,
    descriptions: Vec<NodeId>,
    links: Vec<fields::Link>,
    /// Links that have begun and not ended, innermost last.
    open_links: Vec<u32>,
    notes: HashMap<(NoteKind, i32), crate::document::NoteId>,
    comments: Vec<(i32, u32)>,
    comment_authors: Vec<(NodeId, String)>,
    /// Tracked changes, and comments whose text is being read, with their numbers.
    tracked: Vec<Revision>,
    commented: Vec<(i32, Comment)>,
    open_comments: Vec<usize>,
    pictures: HashMap<(String, pictures::Crop), Option<(MediaId, bool)>>,
    /// Names of files that the document holds, and how many wanted the same one.
    media_names: HashSet<String>,
    media_numbers: HashMap<String, u32>,
    too_large: Option<PackageError>,
    anchors: Vec<(NodeId, String)>,
    waiting_anchors: Vec<NodeId>,
    used_anchors: HashSet<String>,
    headings: Vec<(NodeId, u8)>,
    heading_texts: Vec<(NodeId, String)>,
    refers_by_number: bool,
    automatic_number: u32,
    captions: Vec<NodeId>,
    subtitle: Option<NodeId>,
    emptied: Vec<NodeId>,
    /// How much text is in each language, by the number of its tag.
    languages: Vec<usize>,
    main_language: Option<Name>,
    /// Whether fonts of East Asian text belong to the looks.
    is_east_asian: bool,
    language_spans: Vec<(NodeId, Name)>,
    /// What is known of each font, by its number.
    fonts: Vec<runs::Face>,
    registry: ClassRegistry,
    last_contextual: Option<(NodeId, Option<Name>, bool)>,
    space_above: i32,
    page_break: bool,
    boxes: boxes::Boxes,
    /// Paragraphs with numbers that may be headings, with their numbers and levels.
    numbered_headings: Vec<(NodeId, String, u8)>,
    /// Whether a header or a footer is being read, and how many numbers of pages were left out of them.
    in_header: sections::InHeader,
    page_numbers: usize,
    sections: sections::Sections,
    breaks: usize,
    revisions: usize,
    right_to_left: u32,
    /// Whether a table has its first column on the right.
    tables_run_left: bool,
    paragraphs_of_body: u32,
    omitting: usize,
    broken_parts: usize,
    entities: Option<String>,
    diagnostics: diagnostics::Diagnostics,
    /// The place of the paragraph that is being read.
    offset: u32,
    /// Where the part that is being read begins, and where the element begins or ends that is being read.
    part_offset: u32,
    here: u32,
    paragraphs: u32,
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
            names: Names::default(),
            theme: Theme::default(),
            styles: Styles::default(),
            numberings: Numberings::default(),
            relations: Relations::default(),
            contexts: Vec::new(),
            outside,
            tables: Vec::new(),
            run: Run::default(),
            wraps: Vec::new(),
            fields: Vec::new(),
            fields_in_instruction: 0,
            controls: Vec::new(),
            drawings: Vec::new(),
            rubies: Vec::new(),
            codes: Vec::new(),
            callouts: Vec::new(),
            descriptions: Vec::new(),
            links: Vec::new(),
            open_links: Vec::new(),
            notes: HashMap::default(),
            comments: Vec::new(),
            comment_authors: Vec::new(),
            tracked: Vec::new(),
            commented: Vec::new(),
            open_comments: Vec::new(),
            pictures: HashMap::default(),
            media_names: HashSet::default(),
            media_numbers: HashMap::default(),
            too_large: None,
            anchors: Vec::new(),
            waiting_anchors: Vec::new(),
            used_anchors: HashSet::default(),
            headings: Vec::new(),
            heading_texts: Vec::new(),
            refers_by_number: false,
            automatic_number: 0,
            captions: Vec::new(),
            subtitle: None,
            emptied: Vec::new(),
            languages: Vec::new(),
            main_language: None,
            is_east_asian: false,
            language_spans: Vec::new(),
            fonts: Vec::new(),
            registry: ClassRegistry::default(),
            last_contextual: None,
            space_above: 0,
            page_break: false,
            boxes: boxes::Boxes::default(),
            numbered_headings: Vec::new(),
            in_header: sections::InHeader::default(),
            page_numbers: 0,
            sections: sections::Sections::default(),
            breaks: 0,
            revisions: 0,
            right_to_left: 0,
            tables_run_left: false,
            paragraphs_of_body: 0,
            omitting: 0,
            broken_parts: 0,
            entities: None,
            diagnostics: diagnostics::Diagnostics::default(),
            offset: 0,
            part_offset: 0,
            here: 0,
            paragraphs: 0,
        }
    }

    fn read_all(&mut self, text: &str) {
        let root = self.doc.root();
        self.begin_context(root);
        self.story(&mut Xml::new(text));
        self.end_open_fields();
        self.end_context();
        self.paragraphs_of_body = self.paragraphs;
        let relations = std::mem::take(&mut self.relations);
        for kind in ["footnotes", "endnotes", "comments"] {
            if let Some(part) = relations.part(kind).map(str::to_owned)
                && (!self.notes.is_empty() || kind == "comments")
            {
                if kind == "comments" {
                    self.report_comments(&part);
                }
                if !self.notes.is_empty() {
                    self.read_part(&part, root, kind);
                }
            }
        }
        if let Some(part) = relations.part("comments").map(str::to_owned) {
            self.read_comments(&part);
        }
        self.headers();
        self.relations = relations;
        self.finish();
        if self.options.fidelity.is_exact() {
            self.style_page();
        }
        self.doc.styles = std::mem::take(&mut self.registry).into_styles();
        self.define_styles();
    }

    /// Reads a part beside the text; what does not say where it goes goes into a node.
    fn read_part(&mut self, part: &str, holder: NodeId, name: &'static str) {
        let text = match self.package.text(part) {
            Ok(Some(text)) => text,
            Ok(None) => return,
            Err(error) => {
                self.too_large.get_or_insert(error);
                return;
            }
        };
        // A part whose relations are damaged is reported at the end.
        self.relations = self.package.relations(part).unwrap_or_default();
        let text = text.get();
        self.part_offset = self.doc.source.add_part(name, part, text.len(), Some(&*text).filter(|_| self.options.keeps_source));
        (self.paragraphs, self.omitting, self.fields_in_instruction) = (0, 0, 0);
        self.fields.clear();
        self.wraps.clear();
        self.open_links.clear();
        self.tables.clear();
        self.space_above = 0;
        self.begin_context(holder);
        self.story(&mut Xml::new(&text));
        self.end_open_fields();
        self.end_context();
    }
}
