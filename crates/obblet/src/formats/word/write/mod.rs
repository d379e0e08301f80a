//! Writes a document as a package that word processors open and people edit: real headings, lists, tables and notes, under the
//! names of styles that word processors have built in.
//!
//! Where the model says more than the format can, the nearest form is written and a finding says so.

mod archive;
mod blocks;
mod bookmarks;
mod comments;
mod contents;
mod headers;
mod inlines;
mod notes;
mod numbering;
mod office_math;
mod parts;
mod pictures;
mod run;
mod sections;
mod style_sheet;
mod style_table;
mod tables;
mod template;
mod unique_names;

use super::Settings;
use super::model::print;
use super::model::properties::{Name, Names, ParagraphProperties};
use super::printer::Printer;
use super::read::{Comments, ContentsLists};
use crate::document::{Document, Finding, HintRole, Kind, NodeId, Property, Step, Value};
use crate::fast_hash::HashSet;
use crate::formats::Written;
use crate::refine::structure;
use archive::{Archive, Relations};
use blocks::Context;
use bookmarks::Bookmarks;
use comments::CommentMarks;
use numbering::Numberings;
use pictures::Pictures;
use run::{Change, Line, Run};
use sections::Sections;
use std::collections::BTreeMap;
use style_sheet::StyleSheet;
use template::Template;

/// What the writer is asked for.
#[derive(Clone, Copy, Debug)]
pub struct WriteOptions<'a> {
    /// The settings of the format.
    pub settings: &'a Settings,
    /// Names of places that other documents lead to.
    pub linked: Option<&'a std::collections::BTreeSet<String>>,
    /// A document whose styles, numbering, theme, pages, headers and footers are taken over.
    pub template: Option<&'a [u8]>,
}

impl Default for WriteOptions<'_> {
    fn default() -> Self {
        Self { settings: &super::settings::USUAL, template: None, linked: None }
    }
}

/// Writes a document as a package (ECMA-376, the transitional form that all word processors read).
///
/// What the format has no form for is written in the nearest one, and a finding says so. The same document gives the same bytes.
///
/// ```
/// use obblet::document::{Document, Kind};
/// use obblet::formats::word;
///
/// let mut doc = Document::new();
/// let heading = doc.append(doc.root(), Kind::Heading(1));
/// doc.append_text(heading, "Tides");
/// let written = word::write(&doc, &word::WriteOptions::default());
/// let again = word::read(&written.bytes, &word::ReadOptions::default())?;
/// assert_eq!(again.outline()[0].text, "Tides");
/// # Ok::<(), word::PackageError>(())
/// ```
#[must_use]
pub fn write(doc: &Document, options: &WriteOptions<'_>) -> Written {
    let (repaired, mut findings) = structure::repaired_after(doc, None);
    let mut written = Writer::new(&repaired, options).run();
    findings.append(&mut written.findings);
    written.findings = findings;
    written
}

/// A part that holds text: the main one, or the notes.
#[derive(Debug, Default)]
struct TextPart {
    out: Printer,
    relations: Relations,
}

/// What the document has no form for: how often, and the first place.
type Unsaid = BTreeMap<&'static str, (usize, NodeId)>;

/// Writes one document.
struct Writer<'d> {
    doc: &'d Document,
    settings: &'d Settings,
    /// The part that is written.
    part: TextPart,
    names: Names,
    styles: StyleSheet,
    template: Option<Template>,
    numberings: Numberings,
    pictures: Pictures,
    bookmarks: Bookmarks,
    comments: CommentMarks,
    sections: Sections,
    /// Whether the text itself is written, and no note, header or footer.
    is_main: bool,
    /// What the blocks say that the walk is in, the innermost last.
    contexts: Vec<Context>,
    tables: Vec<tables::OpenTable>,
    /// How the text looks that the walk is in, the innermost last.
    runs: Vec<Run>,
    line: Line,
    /// How many links the walk is in; only the outermost is written.
    links: usize,
    changes: Vec<Change>,
    /// The title of the document, which is above its headings, and by how many levels those were lowered for it.
    title: Option<(NodeId, u8)>,
    /// The block below which the list of contents stands.
    contents_below: Option<NodeId>,
    /// Notes in the order in which the text mentions them.
    notes: notes::Notes,
    no_syntax: Unsaid,
    /// Macros that formulas of the document define.
    macros: crate::math::tex::Macros,
    findings: Vec<Finding>,
}

impl<'d> Writer<'d> {
    fn new(doc: &'d Document, options: &WriteOptions<'d>) -> Self {
        let mut findings = Vec::new();
        let template = options.template.and_then(|bytes| match Template::read(bytes) {
            Ok(template) => Some(template),
            Err(error) => {
                let message = format!("the template can't be used, and the built-in design was: {error}");
                findings.push(Finding::lost("word.template", message).hint("save it anew as .docx or .dotx in a word processor"));
                None
            }
        });
        for what in template.iter().flat_map(|template| &template.left_out) {
            let message = format!("{what} in the template refers to more than images and links, and was left out");
            findings.push(Finding::lost("word.template", message).hint("take charts, objects and controls out of the template"));
        }
        Self {
            doc,
            settings: options.settings,
            part: TextPart::default(),
            names: Names::default(),
            styles: StyleSheet::of(doc, template.as_ref()),
            numberings: Numberings::of(doc, template.as_ref()),
            template,
            pictures: Pictures::default(),
            bookmarks: Bookmarks::of(doc, has_contents(doc, options.settings), options.linked),
            sections: Sections::of(doc),
            is_main: true,
            comments: if options.settings.comments == Comments::Keep { CommentMarks::of(doc) } else { CommentMarks::default() },
            contexts: vec![Context::default()],
            tables: Vec::new(),
            runs: vec![Run::default()],
            line: Line::default(),
            links: 0,
            changes: Vec::new(),
            title: title_of(doc),
            contents_below: None,
            notes: notes::Notes::default(),
            no_syntax: Unsaid::new(),
            macros: crate::math::tex::Macros::of(&doc.metadata.macros).with_numbers(&doc.metadata.equation_numbers),
            findings,
        }
    }

    /// Remembers something that the format has no form for.
    fn no_syntax(&mut self, what: &'static str, node: NodeId) {
        self.no_syntax.entry(what).or_insert((0, node)).0 += 1;
    }

    fn run(mut self) -> Written {
        let mut archive = Archive::default();
        self.part.out = Printer::part("w:document");
        if let Some(ground) = ground_of_page(self.doc) {
            self.part.out.open("w:background").attribute("w:color", &format!("{ground:06X}")).close();
        }
        self.part.out.open("w:body");
        self.write_title();
        if has_contents(self.doc, self.settings) {
            self.contents_below = self.title_block();
            if self.contents_below.is_none() {
                self.contents_list();
            }
        }
        self.tree(self.doc.root());
        self.mention_others();
        self.end_container();
        let around = self.around_text(&mut archive);
        let pages = self.template.as_ref().map(|template| template.section.as_str()).filter(|section| !section.is_empty());
        let pages = pages.map(str::to_owned);
        self.last_section(&around, pages.as_deref());
        self.part.out.close();
        let mut main = std::mem::take(&mut self.part);
        let notes = self.write_notes();
        let parts = ["styles", "numbering", "settings", "fontTable"];
        for kind in parts {
            main.relations.name(kind, &format!("{kind}.xml"), false);
        }
        for (kind, notes) in notes {
            let name = kind.part();
            main.relations.name(name, &format!("{name}.xml"), false);
            archive.relate(&format!("word/{name}.xml"), &notes.relations);
            self.add_text(&mut archive, name, notes.out);
        }
        for (name, kind, part) in std::mem::take(&mut self.sections.parts) {
            archive.relate(&format!("word/{name}"), &part.relations);
            archive.add(&format!("word/{name}"), parts::media_type(kind), part.out.finish());
        }
        if let Some(comments) = self.comments_part() {
            main.relations.name("comments", "comments.xml", false);
            self.add_text(&mut archive, "comments", comments);
        }
        main.relations.name("theme", "theme/theme1.xml", false);
        archive.relate("word/document.xml", &main.relations);
        self.add_text(&mut archive, "document", main.out);
        let contents = [
            self.styles.print(self.doc, &mut self.names, self.template.as_ref()),
            self.numberings.print(self.template.as_ref()),
            parts::settings(self.doc, self.notes.kinds(), Sections::has_even_pages(self.doc), ground_of_page(self.doc).is_some()),
            parts::fonts(),
        ];
        for (kind, content) in parts.into_iter().zip(contents) {
            archive.add(&format!("word/{kind}.xml"), parts::media_type(kind), content);
        }
        archive.add(
            "word/theme/theme1.xml",
            parts::media_type("theme"),
            self.template.as_ref().map_or_else(parts::theme, Template::theme),
        );
        parts::add_properties(&mut archive, self.doc);
        self.pictures.add_to(&mut archive);
        self.report_comments();
        self.report();
        let (bytes, left_out) = archive.finish();
        if !left_out.is_empty() {
            let message = format!("parts that are too large for the package were left out: {}", left_out.len());
            self.findings.push(Finding::lost("word.part-size", message).losing(left_out.join(" ")));
        }
        Written { bytes, findings: self.findings, anchors: Default::default() }
    }

    /// The headers and footers of the last section: what is asked for stands in place of what the template has, and that in place of
    /// what the source has.
    fn around_text(&mut self, archive: &mut Archive) -> Vec<parts::Around> {
        let mut around = match &mut self.template {
            Some(template) => template.add_to(archive, &mut self.part.relations),
            None => Vec::new(),
        };
        let of_source = self.doc.sections.len().checked_sub(1).map(|last| self.texts_around(last)).unwrap_or_default();
        let own = self.headers(archive);
        let of_source = of_source.into_iter().filter(|(element, ..)| !around.iter().any(|(known, ..)| known == element));
        let of_source: Vec<parts::Around> = of_source.collect();
        around.extend(of_source);
        around.retain(|(element, ..)| !own.iter().any(|(known, ..)| known == element));
        around.extend(own);
        around.sort_by_key(|(element, ..)| *element == "w:footerReference");
        around
    }

    fn add_text(&mut self, archive: &mut Archive, name: &str, out: Printer) {
        if out.replaced > 0 {
            let message = format!("control characters that XML has no place for became \u{FFFD}: {}", out.replaced);
            self.findings.push(Finding::changed("word.control-characters", message).hint("remove them from the source"));
        }
        archive.add(&format!("word/{name}.xml"), parts::media_type(name), out.finish());
    }

    /// A title that no heading says stands above the text.
    fn write_title(&mut self) {
        let Some(title) = self.doc.metadata.title.as_deref().filter(|title| !title.trim().is_empty()) else { return };
        let doc = self.doc;
        if doc.nodes().any(|(id, node)| node.kind() == Kind::Heading(1) && (node.parent().is_some() || id == doc.root())) {
            return;
        }
        self.title_line("Title", title);
        if let Some(subtitle) = doc.metadata.subtitle.as_deref().filter(|subtitle| !self.says(subtitle)) {
            self.title_line("Subtitle", subtitle);
        }
    }

    /// Notes that nothing mentions would be lost: their marks stand at the end of the text.
    fn mention_others(&mut self) {
        let doc = self.doc;
        let mentions = |top: NodeId| {
            doc.walk(top).filter_map(|step| match step {
                Step::Enter(id) => match doc.kind(id) {
                    Kind::NoteReference(note) => Some(note.0 as usize),
                    _ => None,
                },
                Step::Leave(_) => None,
            })
        };
        // Those that the text leads to, by way of other notes or not.
        let mut mentioned: HashSet<usize> = HashSet::default();
        let mut open: Vec<usize> = mentions(doc.root()).collect();
        while let Some(note) = open.pop() {
            if mentioned.insert(note)
                && let Some(note) = doc.notes.get(note)
            {
                open.extend(mentions(note.body));
            }
        }
        let others = doc.notes.iter().enumerate().filter(|(index, _)| !mentioned.contains(index)).map(|(_, note)| note.body);
        let others: Vec<NodeId> = others.filter(|&body| doc.node(body).first_child().is_some()).collect();
        let Some(&first) = others.first() else { return };
        self.no_syntax("notes that nothing mentions; their marks stand at the end", first);
        self.begin_paragraph(doc.root(), None);
        for body in others {
            self.note_reference(body);
        }
        self.end_paragraph();
    }

    /// The last block of the title that the text begins with, where it begins with one.
    fn title_block(&self) -> Option<NodeId> {
        let doc = self.doc;
        let mut first = doc.node(doc.root()).first_child()?;
        while let Kind::Division(_) = doc.kind(first) {
            first = doc.node(first).first_child()?;
        }
        if self.style_level(first) != Some(0) && doc.kind(first) != Kind::Heading(1) {
            return None;
        }
        let subtitle = doc.node(first).next().filter(|&next| {
            doc.kind(next) == Kind::Paragraph && doc.metadata.subtitle.as_deref().is_some_and(|text| self.is_text(next, text))
        });
        subtitle.or(Some(first))
    }

    /// The level that a heading has among the styles: 0 for the title, below which all others stand.
    fn style_level(&self, node: NodeId) -> Option<u8> {
        let Kind::Heading(level) = self.doc.kind(node) else { return None };
        Some(match self.title {
            Some((title, _)) if title == node => 0,
            Some((_, lowered)) => level.saturating_sub(lowered).max(1),
            None => level,
        })
    }

    fn title_line(&mut self, style: &str, text: &str) {
        let properties = ParagraphProperties { style: Some(self.style(style)), ..ParagraphProperties::default() };
        self.part.out.open("w:p");
        print::paragraph(&properties, &self.names, &mut self.part.out);
        self.part.out.open("w:r").element("w:t", text.trim()).close().close();
    }

    /// Whether one of the first blocks of the text is this.
    fn says(&self, text: &str) -> bool {
        self.doc.children(self.doc.root()).take(3).any(|block| self.is_text(block, text))
    }

    /// Whether the words of a block are these.
    fn is_text(&self, block: NodeId, text: &str) -> bool {
        self.doc.plain_text(block).split_whitespace().eq(text.split_whitespace())
    }

    /// The number of a style that is built in, which a template may have under another id.
    fn style(&mut self, id: &str) -> Name {
        let id = self.style_id(id);
        self.names.number(&id)
    }

    /// The id of a style that is built in, as the package has it.
    fn style_id(&self, id: &str) -> String {
        let known = self.template.as_ref().and_then(|template| {
            let style = style_table::STYLES.iter().find(|style| style.id == id)?;
            template.id(style.of, style.name)
        });
        known.unwrap_or(id).to_owned()
    }

    /// Comments that stand nowhere are lost.
    fn report_comments(&mut self) {
        let lost = self.comments.written.iter().zip(&self.doc.comments).filter(|(written, _)| !**written);
        let lost: Vec<&str> = lost.map(|(_, comment)| comment.text.trim()).collect();
        if !lost.is_empty() {
            let message = format!("comments about what is not in the text were left out: {}", lost.len());
            self.findings.push(Finding::lost("word.comment", message).losing(lost.join("\n")));
        }
    }

    fn report(&mut self) {
        for (what, (count, node)) in std::mem::take(&mut self.no_syntax) {
            let count = if count > 1 { format!(" ({count} times)") } else { String::new() };
            let finding = Finding::changed("word.no-form", format!("Word documents have no form for {what}{count}"));
            self.findings.push(finding.at(self.doc.place(node)));
        }
    }
}

/// The ground of all pages, where it is not white.
fn ground_of_page(doc: &Document) -> Option<u32> {
    let page = doc.styles.iter().find(|style| style.class.is_empty())?;
    page.properties.iter().find_map(|(property, value)| match (property, value) {
        (Property::BackgroundColor, Value::Colour(colour)) => Some(*colour).filter(|colour| *colour != 0x00FF_FFFF),
        _ => None,
    })
}

/// Whether there is a list of contents: one that is asked for, or in place of the one that the source had.
fn has_contents(doc: &Document, settings: &Settings) -> bool {
    settings.extras.contents_list || (settings.contents == ContentsLists::Field && doc.layout_hints.had_contents)
}

/// The title that the source says is one, and by how many levels the headings below it were lowered.
fn title_of(doc: &Document) -> Option<(NodeId, u8)> {
    let is_heading = |id: NodeId| matches!(doc.kind(id), Kind::Heading(_)) && doc.node(id).parent().is_some();
    doc.layout_hints.iter().find_map(|(id, hint)| match hint.part {
        HintRole::Title { lowered } if is_heading(id) => Some((id, lowered)),
        _ => None,
    })
}
