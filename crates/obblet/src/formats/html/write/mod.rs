//! Writing HTML: one walk over the tree, one printer.

mod elements;
mod formulas;
mod headings;
mod ids;
mod links;
mod notes;
mod printer;
mod raw;
mod scrolling;

pub(crate) use links::open_refused;

use super::{Options, Raw, Settings};
use crate::document::{Document, Finding, Kind, KindSet, Markup, NodeId};
use crate::formats::html::Lists;
use crate::refine::structure;
use notes::NoteNumbers;
use printer::Printer;

/// A heading of the text that was written, for a contents list.
#[derive(Clone, Debug, PartialEq, Eq)]
#[cfg_attr(feature = "serde", derive(serde::Serialize, serde::Deserialize))]
pub struct HeadingEntry {
    /// 1 to 6.
    pub level: u8,
    /// The id of its element; empty where it has none.
    pub id: String,
    /// Its number, where headings are numbered.
    pub number: String,
    /// Its text.
    pub text: String,
}

/// HTML, and what the user should know about it.
#[derive(Clone, Debug, Default)]
pub struct Written {
    /// The markup.
    pub html: String,
    /// Findings of the writing.
    pub findings: Vec<Finding>,
    /// The headings, where a list of them was asked for.
    pub headings: Vec<HeadingEntry>,
    /// The ids, where they were asked for, in the order of the alphabet.
    pub ids: Vec<String>,
    /// Names by which headings without an id can be asked for, where ids are listed.
    pub unreferenced: Vec<String>,
    /// Names by which headings have an id only because other documents want them to, where ids are listed.
    pub external: Vec<String>,
}

/// Writes a document as a fragment: what stands within a body element.
#[must_use]
pub fn write(doc: &Document, options: &Options<'_>) -> Written {
    let opens = options.settings.raw == Raw::Clean && holds_raw(doc);
    let opening: Option<fn(&mut Document)> = if opens { Some(super::open_raw) } else { None };
    let (repaired, mut findings) = structure::repaired_after(doc, opening);
    let mut written = Writer::new(&repaired, options).run();
    if !findings.is_empty() {
        findings.append(&mut written.findings);
        written.findings = findings;
    }
    written
}

/// Writes a node of a repaired document and all that is below it, as it would stand in the whole. Marks
/// of notes are left out, and headings have the ids that the source gave them: only the whole knows others.
#[must_use]
pub fn write_part(doc: &Document, part: NodeId, options: &Options<'_>) -> String {
    let ids = if options.ids() == super::Ids::None { ids::Ids::default() } else { ids::Ids::of_part(doc, part) };
    let mut writer = Writer::with(doc, options, ids, NoteNumbers::default());
    writer.tree(part);
    writer.out.finish()
}

fn holds_raw(doc: &Document) -> bool {
    let is_raw =
        |kind: Kind| matches!(kind, Kind::Raw { markup: Markup::Html, .. } | Kind::RawBlock { markup: Markup::Html, .. });
    doc.may_hold(KindSet::RAW) && doc.nodes().any(|(_, node)| is_raw(node.kind()))
}

/// Writes one document.
struct Writer<'d, 'o> {
    doc: &'d Document,
    options: &'o Options<'o>,
    out: Printer,
    findings: Vec<Finding>,
    /// Macros that formulas of the document define.
    macros: crate::math::tex::Macros,
    short_formulas: formulas::Written<'d>,
    /// How many formulas can't be parsed.
    unparsed: usize,
    ids: ids::Ids,
    notes: NoteNumbers,
    headings: headings::Headings,
    /// How many links the walk is in; only the outermost is written.
    links: usize,
    /// Links that are not written, for what they lead to can run.
    unsafe_links: Vec<NodeId>,
    /// How many nodes the walk is in that keep white space, that are tables, that define a term, and in which only plain
    /// divisions may stand.
    preformatted: usize,
    tables: usize,
    definitions: usize,
    restricted: usize,
}

impl<'d, 'o> Writer<'d, 'o> {
    fn new(doc: &'d Document, options: &'o Options<'o>) -> Self {
        let mut writer = Self::with(doc, options, ids::Ids::of(doc, options), NoteNumbers::of(doc));
        // Formulas come to several times their source.
        let formulas: usize = doc.formulas.iter().map(|formula| 6 * doc.text(formula.source).len()).sum();
        writer.out = Printer::new(doc.pool().len() + doc.pool().len() / 4 + formulas + 256, options.settings);
        writer
    }

    fn with(doc: &'d Document, options: &'o Options<'o>, ids: ids::Ids, notes: NoteNumbers) -> Self {
        Self {
            doc,
            options,
            out: Printer::new(256, options.settings),
            findings: Vec::new(),
            macros: crate::math::tex::Macros::of(&doc.metadata.macros).with_numbers(&doc.metadata.equation_numbers),
            short_formulas: formulas::Written::default(),
            unparsed: 0,
            ids,
            notes,
            headings: headings::Headings::below(options.level_above),
            links: 0,
            unsafe_links: Vec::new(),
            preformatted: 0,
            tables: 0,
            definitions: 0,
            restricted: 0,
        }
    }

    fn run(mut self) -> Written {
        self.tree(self.doc.root());
        self.write_notes();
        self.report_unparsed();
        let mut html = self.out.finish();
        if !html.is_empty() && !self.options.settings.compact {
            html.push('\n');
        }
        if self.out.replaced {
            self.findings.push(
                Finding::changed("html.control-characters", "control characters that HTML forbids became \u{FFFD}")
                    .hint("remove them from the source"),
            );
        }
        self.findings.extend(self.ids.finding(self.doc));
        let (ids, unreferenced, external) =
            if self.options.lists.contains(Lists::IDS) { self.ids.list(self.options) } else { Default::default() };
        Written { html, findings: self.findings, headings: self.headings.entries, ids, unreferenced, external }
    }

    /// Writes a node and all that is below it. The walk is written out here: it is most of what a short node costs.
    fn tree(&mut self, top: NodeId) {
        let doc = self.doc;
        let mut at = top;
        loop {
            let node = doc.node(at);
            let goes_in = self.enter(at);
            if let Some(child) = node.first_child().filter(|_| goes_in) {
                at = child;
                continue;
            }
            // Text, which is half of all nodes, leaves nothing behind.
            if !node.kind().is_leaf() {
                self.leave(at);
            }
            loop {
                if at == top {
                    return;
                }
                let node = doc.node(at);
                if let Some(next) = node.next() {
                    at = next;
                    break;
                }
                let Some(parent) = node.parent() else { return };
                at = parent;
                self.leave(at);
            }
        }
    }
}

/// A text as it stands in markup, in elements and in attributes.
pub(super) fn escaped(text: &str, settings: &Settings) -> String {
    let mut printer = Printer::new(text.len() + 16, settings);
    printer.value(text);
    printer.finish()
}
