//! Sections: where one ends, a paragraph says its pages, its columns, and what stands above and below its text (ECMA-376, part 1,
//! section 17.6).

use super::Writer;
use super::blocks::Context;
use super::parts::{self, Around, SectionLook};
use super::{Printer, Relations, TextPart};
use crate::document::{Kind, NodeId, PagePlace, Pages, Property, Value};
use crate::fast_hash::HashMap;

/// What the writer knows of sections.
#[derive(Debug, Default)]
pub(super) struct Sections {
    /// The sections that end before the last one, by their last blocks.
    ends: HashMap<NodeId, usize>,
    /// Whether sections of the source say that something stands in columns.
    says_columns: bool,
    /// Blocks in columns that no section of the source says.
    open_columns: Vec<NodeId>,
    /// Whether the section that is written now begins on the page on which the one before it ends.
    is_continuous: bool,
    /// The parts of headers and footers, by the nodes that they are made of.
    texts: HashMap<NodeId, String>,
    pub(super) parts: Vec<(String, &'static str, TextPart)>,
}

impl Sections {
    pub(super) fn of(doc: &crate::document::Document) -> Self {
        let before = doc.sections.len().saturating_sub(1);
        let ends = doc.sections.iter().take(before).enumerate();
        Self {
            ends: ends.filter_map(|(number, section)| Some((section.last?, number))).collect(),
            says_columns: doc.sections.iter().any(|section| section.columns > 1),
            ..Self::default()
        }
    }

    /// Whether something stands on pages with even numbers only.
    pub(super) fn has_even_pages(doc: &crate::document::Document) -> bool {
        doc.sections.iter().flat_map(|section| &section.around).any(|text| text.pages == Pages::Even)
    }
}

impl Writer<'_> {
    /// A block begins: one in columns begins a section of its own, where the source has none for it.
    pub(super) fn section_before(&mut self, id: NodeId, kind: Kind) {
        if self.columns_of(id, kind).is_none() {
            return;
        }
        self.sections.open_columns.push(id);
        if self.line.last != super::run::Last::Nothing {
            self.section_break(None, (1, 0));
            self.sections.is_continuous = true;
        }
    }

    /// A block ends, and perhaps a section with it.
    pub(super) fn section_behind(&mut self, id: NodeId) {
        if self.sections.open_columns.last() == Some(&id) {
            let columns = self.columns_of(id, self.doc.kind(id)).unwrap_or((1, 0));
            self.sections.open_columns.pop();
            self.section_break(None, columns);
            self.sections.is_continuous = true;
        } else if let Some(&number) = self.sections.ends.get(&id).filter(|_| self.is_at_top()) {
            let section = &self.doc.sections[number];
            let columns = (section.columns, section.gap);
            self.sections.is_continuous = section.is_continuous;
            self.section_break(Some(number), columns);
            self.sections.is_continuous = false;
        }
    }

    /// Whether no table, no note and no header is written.
    fn is_at_top(&self) -> bool {
        self.tables.is_empty() && self.is_main
    }

    /// The columns of a block that stands in the text itself.
    fn columns_of(&self, id: NodeId, kind: Kind) -> Option<(u16, i32)> {
        if self.sections.says_columns
            || !matches!(kind, Kind::Division(_))
            || !self.is_at_top()
            || self.sections.open_columns.len() > 1
        {
            return None;
        }
        let looks = self.looks(id);
        let columns = looks.iter().find_map(|(property, value)| match (property, value) {
            (Property::Columns, Value::Columns(columns)) if *columns > 1 => Some(*columns),
            _ => None,
        })?;
        let gap = looks.iter().find(|(property, _)| *property == Property::ColumnGap);
        Some((columns, gap.and_then(|(_, gap)| super::super::model::from_style::twips(gap)).unwrap_or(0)))
    }

    /// Ends a section: with what the source says of it, or as the text around is.
    fn section_break(&mut self, number: Option<usize>, columns: (u16, i32)) {
        self.end_container();
        let around = number.map(|number| self.texts_around(number)).unwrap_or_default();
        let section = number.and_then(|number| self.doc.sections.get(number)).or_else(|| self.doc.sections.last());
        let out = &mut self.part.out;
        // The paragraph that says it takes no room.
        out.open("w:p").open("w:pPr");
        out.raw("<w:spacing w:before=\"0\" w:after=\"0\" w:line=\"20\" w:lineRule=\"exact\"/><w:rPr><w:sz w:val=\"2\"/><w:szCs w:val=\"2\"/></w:rPr>");
        let look = SectionLook { around: &around, pages: None, columns, is_continuous: self.sections.is_continuous };
        parts::section(out, self.doc, self.settings, section, &look);
        out.close().close();
        self.line.last = super::run::Last::Paragraph;
    }

    /// Writes the last section, which says its pages at the end of the text.
    pub(super) fn last_section(&mut self, around: &[Around], pages: Option<&str>) {
        let section = self.doc.sections.last();
        let columns = section.map_or((1, 0), |section| (section.columns, section.gap));
        let is_continuous =
            self.sections.is_continuous || section.is_some_and(|section| section.is_continuous && self.doc.sections.len() > 1);
        let look = SectionLook { around, pages, columns, is_continuous };
        parts::section(&mut self.part.out, self.doc, self.settings, section, &look);
    }

    /// The headers and footers of a section as parts, each written once: the references to them.
    pub(super) fn texts_around(&mut self, number: usize) -> Vec<Around> {
        let doc = self.doc;
        let mut found: Vec<Around> = Vec::new();
        for text in doc.sections.get(number).map_or(&[][..], |section| &section.around) {
            let (element, root, kind) = match text.place {
                PagePlace::Top => ("w:headerReference", "w:hdr", "header"),
                PagePlace::Foot => ("w:footerReference", "w:ftr", "footer"),
            };
            let pages = match text.pages {
                Pages::All => "default",
                Pages::First => "first",
                Pages::Even => "even",
            };
            let name = match self.sections.texts.get(&text.body) {
                Some(name) => name.clone(),
                None => {
                    let name = format!("{kind}-{}.xml", self.sections.parts.len() + 1);
                    let part = self.page_text(text.body, root);
                    self.sections.texts.insert(text.body, name.clone());
                    self.sections.parts.push((name.clone(), kind, part));
                    name
                }
            };
            if !found.iter().any(|(known, on, _)| *known == element && on == pages) {
                found.push((element, pages.to_owned(), self.part.relations.name(kind, &name, false)));
            }
        }
        found.sort_by_key(|(element, ..)| *element == "w:footerReference");
        found
    }

    /// Writes what stands above or below the text of pages.
    fn page_text(&mut self, body: NodeId, root: &'static str) -> TextPart {
        let style = if root == "w:hdr" { "Header" } else { "Footer" };
        let part = TextPart { out: Printer::part(root), relations: Relations::default() };
        let main = std::mem::replace(&mut self.part, part);
        let line = std::mem::take(&mut self.line);
        let (contexts, runs) = (std::mem::take(&mut self.contexts), std::mem::take(&mut self.runs));
        self.contexts.push(Context::of_page(style));
        self.runs.push(super::run::Run::default());
        self.is_main = false;
        self.tree(body);
        self.end_container();
        self.is_main = true;
        (self.contexts, self.runs, self.line) = (contexts, runs, line);
        std::mem::replace(&mut self.part, main)
    }
}
