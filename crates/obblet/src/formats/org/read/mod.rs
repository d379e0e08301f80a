//! Reading Org: the lines of the file are classified first ([`lines`]), with its own settings ([`options`]); then its headings
//! and what is below each become nodes, with an own stack of what is open; links are resolved last.

mod blocks;
mod code;
mod entities;
mod headings;
mod include;
mod inlines;
mod keywords;
mod latex;
mod lines;
mod lists;
mod macros;
mod notes;
mod options;
mod properties;
mod radio;
mod report;
mod resolve;
mod tables;

use super::Settings;
use crate::document::{Document, NodeId, NoteId, Text};
use crate::fast_hash::{HashMap, HashSet};
use crate::media::FilesAround;
use crate::utf8_source;
pub(super) use inlines::{is_known, scheme};
use lines::Lines;
pub(in crate::formats::org) use options::output_name;
use options::{Options, Shows};
use properties::Properties;

/// Reads an Org document. Any bytes are Org; what is doubtful about them is in the findings.
///
/// ```
/// use obblet::document::Kind;
/// use obblet::formats::org;
///
/// let doc = org::read(b"* TODO Clean the well\nAt /low/ water.\n", &org::Settings::default());
/// let first = doc.children(doc.root()).next().unwrap();
/// assert_eq!(doc.kind(first), Kind::Heading(1));
/// assert_eq!(doc.plain_text(first), "TODO Clean the well");
/// ```
#[must_use]
pub fn read(bytes: &[u8], settings: &Settings) -> Document {
    read_with(bytes, settings, &FilesAround::default())
}

/// Reads an Org document with the files that it includes.
#[must_use]
pub fn read_with(bytes: &[u8], settings: &Settings, files: &FilesAround<'_>) -> Document {
    let (source, mut doc) = utf8_source::open(bytes);
    let lines = Lines::of(&source);
    let Some(expanded) = include::expand(&source, &lines, &mut doc, files) else {
        return read_lines(&source, lines, doc, settings, Vec::new());
    };
    let mut whole = Document::with_pool(expanded.text.clone(), expanded.text.len() / 24 + 16);
    whole.source = doc.source.including(&source, expanded.inclusions);
    whole.findings = doc.findings;
    let lines = Lines::of(&expanded.text);
    read_lines(&expanded.text, lines, whole, settings, expanded.failures)
}

/// Reads a source whose lines are known. `failures` are files that it includes and that were not read.
fn read_lines(source: &str, lines: Lines, doc: Document, settings: &Settings, failures: Vec<include::Failure>) -> Document {
    let mut options = Options::read(source, &lines);
    options.shows.set(Shows::PLANNING, options.shows.contains(Shows::PLANNING) || settings.planning);
    let mut reader = Reader::new(source, doc, lines, options, settings);
    reader.report_failures(&failures);
    reader.metadata();
    reader.outline();
    reader.finish()
}

/// What stands anywhere in a source.
#[derive(Clone, Copy, Debug)]
struct Holds {
    macros: bool,
    /// Code within lines.
    code: bool,
}

/// Reads one file.
struct Reader<'s> {
    source: &'s str,
    doc: Document,
    lines: Lines,
    options: Options,
    settings: &'s Settings,
    /// Parts of the source that are to be read, the next one last.
    jobs: Vec<blocks::Job>,
    /// Notes by their labels, and whether each is defined.
    notes: HashMap<String, (NoteId, bool)>,
    /// Notes that are defined where they are mentioned, and how deep in others.
    definitions: Vec<(NoteId, Text, u32, usize)>,
    note_depth: usize,
    /// Links that lead to what has a name, once all names are known.
    links: Vec<inlines::Link>,
    /// What has a name, by that in small letters; headings by their words and by their property `ID`.
    names: HashMap<String, NodeId>,
    headings: HashMap<String, NodeId>,
    ids: HashMap<String, NodeId>,
    custom_ids: HashSet<String>,
    code_labels: HashMap<String, code::CodeLine>,
    /// Lines that define notes in what the file leaves out.
    left_out_notes: HashMap<String, usize>,
    lists: Vec<NodeId>,
    /// The heading that the reader is below.
    heading: Option<NodeId>,
    properties: Properties,
    parts: headings::Parts,
    /// Words that lead to where they are targets, wherever they stand.
    radio: Vec<NodeId>,
    holds: Holds,
    /// Room for what is around the text that is read.
    frames: Vec<inlines::Frame>,
    used: macros::Used,
    tallies: report::Tallies,
}

impl<'s> Reader<'s> {
    fn new(source: &'s str, doc: Document, lines: Lines, options: Options, settings: &'s Settings) -> Self {
        let has = |what: &str| memchr::memmem::find(source.as_bytes(), what.as_bytes()).is_some();
        let has_macros = has("{{{");
        Self {
            source,
            doc,
            lines,
            options,
            settings,
            jobs: Vec::new(),
            notes: HashMap::default(),
            definitions: Vec::new(),
            note_depth: 0,
            links: Vec::new(),
            names: HashMap::default(),
            headings: HashMap::default(),
            ids: HashMap::default(),
            custom_ids: HashSet::default(),
            code_labels: HashMap::default(),
            left_out_notes: HashMap::default(),
            lists: Vec::new(),
            heading: None,
            properties: Properties::default(),
            parts: headings::Parts::default(),
            radio: Vec::new(),
            holds: Holds { macros: has_macros, code: has_macros || has("src_") || has("call_") },
            frames: Vec::new(),
            used: macros::Used::default(),
            tallies: report::Tallies::default(),
        }
    }

    fn finish(mut self) -> Document {
        self.define_in_line();
        self.define_left_out();
        self.link_radio_targets();
        self.resolve_links();
        self.loosen_lists();
        self.drop_undefined_notes();
        self.report();
        self.doc.order_spans();
        self.doc
    }
}
