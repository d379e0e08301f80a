//! What the user should know about a document: what was left out, and what could be better in it. Collected while it is
//! read, reported once for each sort.

use super::super::model::properties::Name;
use super::super::xml::{Event, Xml};
use super::open::OpenParagraph;
use super::open::ParagraphMarks;
use super::{Comments, ContentsLists, Reader};
use crate::document::{Document, Finding, Kind, NodeId, Step};
use crate::fast_hash::HashMap;
use crate::tally::Tally;
use std::collections::BTreeMap;

/// What was noticed about images.
#[derive(Debug, Default)]
pub(super) struct ImageDiagnostics {
    /// Those that are not in the package.
    pub(super) missing: Tally,
    /// Those that browsers don't show.
    pub(super) vector: Tally,
    /// Places of those that were converted.
    pub(super) converted: Vec<u32>,
    /// Places of metafiles that were drawn anew.
    pub(super) drawn: Vec<u32>,
    /// What of them could not be drawn.
    pub(super) undrawn: Tally,
    /// Places of those that are cropped, and shown whole.
    pub(super) crops: Vec<u32>,
}

/// All that was noticed.
#[derive(Debug, Default)]
pub(super) struct Diagnostics {
    pub(super) hidden: Tally,
    pub(super) contents: Tally,
    pub(super) revised: Tally,
    pub(super) symbols: Tally,
    pub(super) fields: Tally,
    pub(super) local_links: Tally,
    pub(super) covered_links: Tally,
    pub(super) objects: Tally,
    pub(super) lost_objects: Tally,
    pub(super) images: ImageDiagnostics,
    pub(super) foreign: Tally,
    pub(super) formulas: Tally,
    pub(super) text_boxes: Vec<u32>,
    pub(super) layout_tables: Vec<u32>,
    pub(super) page_numbers: usize,
    empty: Tally,
    last_empty: (u32, u32),
    odd_numbers: Tally,
    tabs: Tally,
    pub(super) tab_stops: Tally,
    spaces: Tally,
    breaks: Tally,
    fonts: BTreeMap<Name, ()>,
    /// How many parts break off.
    pub(super) broken_parts: usize,
    /// The first entity that a part defines.
    pub(super) entity: Option<String>,
}

impl Diagnostics {
    /// An empty paragraph; the ones that follow each other count as one.
    /// An empty paragraph, by its part and its number in that. Those that follow each other are one space.
    pub(super) fn empty_paragraph(&mut self, offset: u32, (part, number): (u32, u32)) {
        if self.last_empty != (part, number.wrapping_sub(1)) || self.empty.count() == 0 {
            self.empty.add(offset, "");
        }
        self.last_empty = (part, number);
    }

    pub(super) fn odd_numbers(&mut self, offset: u32, text: &str) {
        self.odd_numbers.add(offset, text);
    }

    pub(super) fn font(&mut self, font: Name) {
        self.fonts.insert(font, ());
    }
}

/// Whether text in bold reads like a heading: short, and no sentence.
pub(super) fn is_like_heading(text: &str) -> bool {
    let text = text.trim();
    (2..=80).contains(&text.chars().count())
        && !text.ends_with(['.', ',', ';', ':', '!', '?'])
        && text.chars().any(char::is_alphabetic)
}

/// Whether a text is several letters, and all of them capitals.
fn is_capitals(text: &str) -> bool {
    text.chars().filter(|c| c.is_uppercase()).take(5).count() == 5 && !text.contains(char::is_lowercase)
}

impl Reader<'_, '_> {
    /// Looks for habits that do not survive in a paragraph that is read.
    pub(super) fn advise(&mut self, paragraph: &OpenParagraph) {
        let node = paragraph.node;
        let (offset, in_cell) = (self.place.paragraph, self.context().in_cell);
        let Some(first) = self.doc.node(node).first_child() else { return };
        if let Kind::Text(text) = self.doc.kind(first) {
            let text = self.doc.text(text);
            if text.contains("    ") && text.trim().contains("    ") {
                self.diagnostics.spaces.add(offset, "");
            }
        }
        let keeps_tabs = self.options.settings.tab_stops == crate::formats::word::TabStops::Stops;
        if paragraph.tabs > 0 && !keeps_tabs && !in_cell && self.has_inner_tab(node) {
            self.diagnostics.tabs.add(offset, "");
        }
        if self.breaks_a_sentence(node) {
            self.diagnostics.breaks.add(offset, "");
        }
        let outside = self.doc.node(node).parent() == Some(self.doc.root());
        let is_bold = paragraph.marks.contains(ParagraphMarks::BOLD) && self.is_all_bold(paragraph);
        let may_be_heading = paragraph.heading.is_none() && outside && paragraph.item.is_none();
        if may_be_heading && (is_bold || self.is_in_capitals(node)) {
            let text = self.doc.plain_text(node).split_whitespace().collect::<Vec<_>>().join(" ");
            if is_like_heading(&text) {
                let size = paragraph.size.map_or(0.0, |size| f32::from(size) / 2.0);
                self.doc.layout_hints.heading_like.push((node, size));
                // It begins something new, wherever its margin is.
                self.context_mut().lists.forget();
            }
        }
    }

    pub(super) fn is_all_bold(&self, paragraph: &OpenParagraph) -> bool {
        let by_style = paragraph.base.flags.is(super::super::model::properties::Flag::Bold);
        self.doc.children(paragraph.node).all(|child| match self.doc.kind(child) {
            Kind::Strong | Kind::Anchor => true,
            Kind::Text(text) => by_style || self.doc.text(text).trim().is_empty(),
            _ => false,
        }) && self.doc.children(paragraph.node).any(|child| by_style || self.doc.kind(child) == Kind::Strong)
    }

    /// Whether all letters of a short text are capitals.
    fn is_in_capitals(&self, node: NodeId) -> bool {
        let Some(Kind::Text(first)) = self.doc.node(node).first_child().map(|first| self.doc.kind(first)) else { return false };
        !self.doc.text(first).contains(char::is_lowercase) && is_capitals(&self.doc.plain_text(node))
    }

    fn has_inner_tab(&self, node: NodeId) -> bool {
        let text = self.doc.plain_text(node);
        text.trim().contains('\t')
    }

    /// A line break between a word and a word that begins small is within a sentence.
    fn breaks_a_sentence(&self, node: NodeId) -> bool {
        let mut at = self.doc.node(node).first_child();
        while let Some(child) = at {
            at = self.doc.node(child).next();
            if self.doc.kind(child) != Kind::LineBreak {
                continue;
            }
            let text_of = |id: Option<NodeId>| match id.map(|id| self.doc.kind(id)) {
                Some(Kind::Text(text)) => self.doc.text(text).trim(),
                _ => "",
            };
            let before = text_of(self.doc.node(child).previous()).chars().next_back();
            let after = text_of(at).chars().next();
            if before.is_some_and(|c| c.is_lowercase() || c == ',') && after.is_some_and(char::is_lowercase) {
                return true;
            }
        }
        false
    }

    /// Reports all that was noticed.
    pub(super) fn report(&mut self) {
        let diagnostics = std::mem::take(&mut self.diagnostics);
        self.report_lost(&diagnostics);
        self.report_source(&diagnostics);
        self.report_layout(&diagnostics);
        let doc = &mut self.doc;
        doc.layout_hints.had_contents = diagnostics.contents.count() > 0;
        if diagnostics.contents.count() > 0 && self.options.settings.contents != ContentsLists::Field {
            let place = doc.source.place("", diagnostics.contents.first());
            doc.push_finding(
                Finding::changed("word.contents", "the table of contents was left out; pages have their own")
                    .at(place)
                    .hint("set word.contents=true to keep it, or page.contents for the page's own")
                    .losing(diagnostics.contents.words()),
            );
        }
        let fonts: Vec<&str> =
            diagnostics.fonts.keys().map(|font| self.model.names.name(*font)).filter(|font| !is_common(font)).collect();
        if !fonts.is_empty() {
            doc.push_finding(
                Finding::advice("word.fonts", format!("fonts that many readers do not have: {}", fonts.join(", ")))
                    .hint("matters only where the page is to look like the document"),
            );
        }
        self.diagnostics = diagnostics;
    }

    /// A finding about all things of a sort.
    fn push_tally(&mut self, tally: &Tally, finding: Finding) {
        if tally.count() > 0 {
            let message = format!("{}: {}", finding.message, tally.count());
            let place = self.doc.source.place("", tally.first());
            self.doc.push_finding(Finding { message, ..finding }.at(place));
        }
    }

    /// A finding about all places of a sort.
    fn push_places(&mut self, offsets: &[u32], finding: Finding) {
        if let Some(first) = offsets.first() {
            let message = format!("{}: {}", finding.message, offsets.len());
            let place = self.doc.source.place("", *first);
            self.doc.push_finding(Finding { message, ..finding }.at(place));
        }
    }

    /// What was left out or is only like what it was.
    fn report_lost(&mut self, diagnostics: &Diagnostics) {
        self.push_tally(
            &diagnostics.hidden,
            Finding::lost("word.hidden", "hidden text was left out")
                .hint("set word.hidden=true to keep it")
                .losing(diagnostics.hidden.words()),
        );
        self.push_tally(
            &diagnostics.revised,
            Finding::lost("clean.revision", "deleted text of tracked changes was left out")
                .hint("set clean.revisions=keep to keep it")
                .losing(diagnostics.revised.words()),
        );
        self.push_tally(
            &diagnostics.symbols,
            Finding::lost("word.symbol", "characters of symbol fonts have no counterpart in Unicode")
                .losing(diagnostics.symbols.words()),
        );
        self.push_tally(
            &diagnostics.fields,
            Finding::lost("word.field", "fields without a result were left out").losing(diagnostics.fields.words()),
        );
        self.push_tally(
            &diagnostics.lost_objects,
            Finding::lost("word.object", "charts, diagrams and embedded objects can't be shown")
                .hint("replace each with an image")
                .losing(diagnostics.lost_objects.words()),
        );
        self.push_tally(
            &diagnostics.objects,
            Finding::changed("word.object", "embedded objects are shown as their preview images")
                .losing(diagnostics.objects.words()),
        );
        self.push_tally(
            &diagnostics.images.missing,
            Finding::lost("word.picture", "images are missing from the document").losing(diagnostics.images.missing.words()),
        );
        self.push_tally(
            &diagnostics.images.vector,
            Finding::lost("word.picture-format", "images are in a format that browsers can't show")
                .hint("save them as PNG or SVG in the document; images.keep-unknown=true puts the files beside the page")
                .losing(diagnostics.images.vector.words()),
        );
        self.push_tally(
            &diagnostics.foreign,
            Finding::lost("word.foreign-part", "embedded parts in other formats were left out")
                .losing(diagnostics.foreign.words()),
        );
        self.push_tally(
            &diagnostics.formulas,
            Finding::changed("word.formula", "formulas have parts that are not known; their characters are kept"),
        );
    }

    /// What could be better in the source.
    fn report_source(&mut self, diagnostics: &Diagnostics) {
        self.push_tally(
            &diagnostics.local_links,
            Finding::advice("word.local-link", "links point to local files")
                .hint("link to addresses on the web, or to files beside the document")
                .losing(diagnostics.local_links.words()),
        );
        self.push_tally(
            &diagnostics.covered_links,
            Finding::lost("word.nested-link", "addresses of links that contain only another link were left out")
                .hint("link the text to one address")
                .losing(diagnostics.covered_links.words()),
        );
        self.push_tally(
            &diagnostics.empty,
            Finding::advice("word.empty-paragraph", "empty paragraphs used as spacing were left out")
                .hint("set the spacing in the paragraph style"),
        );
        self.push_tally(
            &diagnostics.tabs,
            Finding::advice("word.tabs", "paragraphs align text with tabs, which HTML does not have")
                .hint("make tables of them, or set clean.tab-columns=true"),
        );
        self.push_tally(
            &diagnostics.tab_stops,
            Finding::changed("word.tab-stops", "tab stops that HTML can't show became equal distances")
                .hint("make tables of the paragraphs, or set clean.tab-columns=true"),
        );
        self.push_tally(
            &diagnostics.spaces,
            Finding::advice("word.spaces", "paragraphs align text with spaces, which HTML collapses").hint("make tables of them"),
        );
        self.push_tally(
            &diagnostics.breaks,
            Finding::advice("word.line-break", "line breaks within sentences").hint("remove them and let the text wrap"),
        );
        self.push_tally(
            &diagnostics.odd_numbers,
            Finding::changed("word.list-numbers", "list numbering that HTML can't express")
                .hint("check what the text says about their numbers; word.list-numbers = \"text\" keeps them as text")
                .losing(diagnostics.odd_numbers.words()),
        );
    }

    /// What is laid out in another way.
    fn report_layout(&mut self, diagnostics: &Diagnostics) {
        self.push_places(
            &diagnostics.text_boxes,
            Finding::changed("word.text-box", "text boxes were moved after the paragraphs that they are anchored to"),
        );
        self.push_places(&diagnostics.images.converted, Finding::changed("word.picture-format", "images were converted to PNG"));
        self.push_places(&diagnostics.images.drawn, Finding::changed("word.metafile", "metafiles were drawn anew as SVG"));
        let undrawn = &diagnostics.images.undrawn;
        if undrawn.count() > 0 {
            let place = self.doc.source.place("", undrawn.first());
            let finding = Finding::changed("word.metafile", format!("metafiles could not be drawn in full: {}", undrawn.words()));
            self.doc.push_finding(finding.at(place).hint("save the pictures as PNG in the word processor, if they look wrong; images.keep-unknown=true puts their files beside the page"));
        }
        self.push_places(&diagnostics.images.crops, Finding::changed("word.crop", "cropped images are shown whole"));
        self.push_places(
            &diagnostics.layout_tables,
            Finding::advice("word.layout-table", "tables without borders are used for layout")
                .hint("set clean.layout-tables=true to unwrap them"),
        );
    }
}

/// Fonts that come with the systems that people use, or that stand for what they have.
fn is_common(font: &str) -> bool {
    const FONTS: [&str; 40] = [
        "arial",
        "aptos",
        "calibri",
        "cambria",
        "times",
        "courier",
        "georgia",
        "verdana",
        "tahoma",
        "trebuchet",
        "helvetica",
        "symbol",
        "wingdings",
        "webdings",
        "segoe",
        "consolas",
        "candara",
        "corbel",
        "constantia",
        "palatino",
        "garamond",
        "book antiqua",
        "century",
        "comic sans",
        "impact",
        "lucida",
        "liberation",
        "dejavu",
        "noto",
        "roboto",
        "open sans",
        "carlito",
        "caladea",
        "ms ",
        "mincho",
        "gothic",
        "simsun",
        "sans-serif",
        "serif",
        "monospace",
    ];
    let lower = font.to_lowercase();
    !font.is_ascii() || FONTS.iter().any(|known| lower.starts_with(known)) || lower.contains("mincho") || lower.contains("gothic")
}

/// Finds that a document has no title.
pub(super) fn untitled(doc: &mut Document) {
    doc.push_finding(
        Finding::advice("word.title", "the document has no title")
            .hint("set it in the document's properties, or give its first line the style Title"),
    );
}

impl Reader<'_, '_> {
    pub(super) fn report_document(&mut self) {
        let has_title = self.doc.metadata.title.is_some();
        if !has_title {
            untitled(&mut self.doc);
        }
        let doc = &mut self.doc;
        if self.reviews.count > 0 {
            doc.push_finding(
                Finding::advice(
                    "word.revisions",
                    format!("the document has tracked changes that are neither accepted nor rejected: {}", self.reviews.count),
                )
                .hint("accept or reject them in the word processor, or set clean.revisions=accept"),
            );
        }
        if self.sections.breaks > 0 {
            doc.push_finding(Finding::changed(
                "word.page-break",
                format!("page, column and section breaks were left out: {}", self.sections.breaks),
            ));
        }
        if self.sections.lost_columns > 1 {
            doc.push_finding(Finding::changed("word.columns", "text in several columns became one column"));
        }
        if self.diagnostics.broken_parts > 0 {
            doc.push_finding(
                Finding::lost("word.damaged", "the markup of the document is broken; everything after the fault is missing")
                    .hint("open it in a word processor and save it anew"),
            );
        }
        if !self.package.damaged.is_empty() {
            let mut parts = std::mem::take(&mut self.package.damaged);
            parts.sort();
            parts.dedup();
            doc.push_finding(
                Finding::lost(
                    "word.damaged",
                    format!("parts of the document are damaged and may lack something: {}", parts.join(", ")),
                )
                .hint("open it in a word processor, which may repair it, and save it anew"),
            );
        }
        if let Some(entity) = self.diagnostics.entity.take() {
            doc.push_finding(Finding::lost("word.entity", "an entity of the document's own was not expanded").losing(entity));
        }
        let skips = skipped_level(doc);
        if let Some(node) = skips {
            let place = doc.place(node);
            doc.push_finding(
                Finding::advice("word.skipped-level", "a heading skips a level")
                    .at(place)
                    .hint("give it the level below the heading before it"),
            );
        }
    }

    /// What the comments say that were left out.
    pub(super) fn report_comments(&mut self, part: &str) {
        if self.reviews.left_out.is_empty() || matches!(self.options.settings.comments, Comments::Keep | Comments::Notes) {
            return;
        }
        let Ok(Some(text)) = self.package.text(part) else { return };
        let mut words: HashMap<i32, String> = HashMap::default();
        let text = text.get();
        let mut xml = Xml::new(&text);
        let mut current = None;
        while let Some(event) = xml.next() {
            let Event::Open(element) = event else { continue };
            if element.is(b"comment") {
                current = element.number(b"id");
            } else if let Some(id) = current {
                if element.is(b"t") {
                    words.entry(id).or_default().push_str(&xml.text());
                } else if element.is(b"p") {
                    words.entry(id).or_default().push(' ');
                }
            }
        }
        let comments = std::mem::take(&mut self.reviews.left_out);
        let place = self.doc.source.place("", comments[0].1);
        let mut lost = String::new();
        for (id, _) in &comments {
            lost.push_str(words.get(id).map_or("", |text| text.trim()));
            lost.push('\n');
        }
        self.doc.push_finding(
            Finding::lost("word.comment", format!("comments were left out: {}", comments.len()))
                .at(place)
                .hint("set word.comments=notes to keep them as notes")
                .losing(lost.trim()),
        );
    }
}

fn skipped_level(doc: &crate::document::Document) -> Option<NodeId> {
    let mut last = 0;
    for step in doc.walk(doc.root()) {
        if let Step::Enter(id) = step
            && let Kind::Heading(level) = doc.kind(id)
        {
            if level > last + 1 && last > 0 {
                return Some(id);
            }
            last = level;
        }
    }
    None
}
