//! Where sections end: their headers and footers, the measure of the page, and their columns.

use super::super::model::section::{Pages, Place, Section};
use super::Reader;
use crate::document as model;
use crate::document::{DivisionKind, Finding, Kind, NodeId, Property, Value};
use crate::fast_hash::{HashMap, HashSet};
use crate::formats::word::Headers;

/// Whether a header or a footer is read, and where what it says goes.
#[derive(Clone, Copy, Debug, Default, PartialEq, Eq)]
pub(super) enum InHeader {
    #[default]
    Not,
    /// Its words are text of the document.
    InText,
    /// It stays what it is.
    OfPage,
}

/// What is known of the sections that were read.
#[derive(Debug, Default)]
pub(super) struct Sections {
    /// The parts of headers and footers, each once.
    parts: Vec<(Place, Pages, String)>,
    known: HashSet<(Place, String)>,
    /// The parts of headers and footers of each section.
    around: Vec<Vec<(Place, Pages, String)>>,
    /// The last block of the sections that have ended.
    last: Option<NodeId>,
    /// The most columns that text is set in, where they are not kept.
    pub(super) lost_columns: i32,
    /// Whether a header or a footer is being read, and how many numbers of pages were left out of them.
    pub(super) in_header: InHeader,
    pub(super) page_numbers: usize,
    /// How many breaks of pages, columns and sections there are that are not kept.
    pub(super) breaks: usize,
    /// The width of the page and its margins, in twips.
    width: Option<i32>,
    left: Option<i32>,
    right: Option<i32>,
}

impl Sections {
    /// How wide the text is, in twips.
    pub(super) fn measure(&self) -> i32 {
        self.width.unwrap_or(11_906) - self.left.unwrap_or(1440) - self.right.unwrap_or(1440)
    }
}

impl Reader<'_, '_> {
    /// A section ends: what it says holds for the blocks since the one before it ended.
    pub(super) fn end_section(&mut self, section: &Section) {
        for (place, pages, id) in &section.parts {
            let Some(target) = self.relations.get(id).map(|relation| relation.target.clone()) else { continue };
            if self.sections.known.insert((*place, target.clone())) {
                self.sections.parts.push((*place, *pages, target));
            }
        }
        // The last one says how wide the page is.
        let all = &mut self.sections;
        (all.width, all.left, all.right) = (section.width.or(all.width), section.left.or(all.left), section.right.or(all.right));
        self.end_runs_of_blocks();
        let container = self.context().container;
        let first = match self.sections.last {
            Some(last) => self.doc.node(last).next(),
            None => self.doc.node(container).first_child(),
        };
        if section.columns > 1 {
            if self.options.fidelity.is_exact() {
                self.set_in_columns(section, first);
            } else {
                self.sections.lost_columns = self.sections.lost_columns.max(section.columns);
            }
        }
        self.sections.last = self.doc.node(container).last_child();
        let length = |length: Option<i32>| length.unwrap_or(0);
        let parts = section.parts.iter().filter_map(|(_, _, id)| Some(self.relations.get(id)?.target.clone())).collect();
        self.doc.sections.push(model::Section {
            last: self.sections.last,
            page: (length(section.width), length(section.height)),
            margins: [section.top, section.right, section.bottom, section.left].map(length),
            columns: section.columns.clamp(1, 100) as u16,
            gap: section.gap.unwrap_or(0).clamp(0, 4000),
            is_continuous: section.is_continuous,
            parts,
            around: Vec::new(),
        });
        let of_section = section.parts.iter();
        let around = of_section.filter_map(|(place, pages, id)| Some((*place, *pages, self.relations.get(id)?.target.clone())));
        self.sections.around.push(around.collect());
    }

    /// Reads headers and footers as parts of the pages of their sections, each once.
    fn headers_of_pages(&mut self) {
        let mut known: HashMap<String, NodeId> = HashMap::default();
        self.sections.in_header = InHeader::OfPage;
        for (number, around) in std::mem::take(&mut self.sections.around).into_iter().enumerate() {
            for (place, pages, part) in around {
                let body = match known.get(&part) {
                    Some(known) => *known,
                    None => {
                        let (kind, what) = match place {
                            Place::Header => (DivisionKind::Header, "header"),
                            Place::Footer => (DivisionKind::Footer, "footer"),
                        };
                        let body = self.doc.create(Kind::Division(kind));
                        self.read_part(&part, body, what);
                        known.insert(part, body);
                        body
                    }
                };
                let place = match place {
                    Place::Header => model::PagePlace::Top,
                    Place::Footer => model::PagePlace::Foot,
                };
                let pages = match pages {
                    Pages::All => model::Pages::All,
                    Pages::First => model::Pages::First,
                    Pages::Even => model::Pages::Even,
                };
                if let Some(section) = self.doc.sections.get_mut(number) {
                    section.around.push(model::PageText { place, pages, body });
                }
            }
        }
        self.sections.in_header = InHeader::Not;
    }

    /// Puts the blocks from `first` on into a division with columns.
    fn set_in_columns(&mut self, section: &Section, first: Option<NodeId>) {
        let Some(first) = first else { return };
        // Below the measure that a column needs, there are fewer of them.
        let mut rules = vec![
            (Property::Columns, Value::Columns(section.columns.clamp(0, 1000) as u16)),
            // A large first letter of the section before may reach down to here.
            (Property::Clear, Value::Keyword("both")),
            (Property::ColumnGap, Value::twips(section.gap.unwrap_or(720).clamp(0, 4000))),
        ];
        if section.line {
            rules.push((Property::ColumnRule, Value::Css("1px solid")));
        }
        let holder = self.doc.create(Kind::Division(DivisionKind::Plain));
        self.doc.move_before(first, holder);
        while let Some(next) = self.doc.node(holder).next() {
            self.doc.move_into(holder, next);
        }
        self.add_rules(holder, "columns", rules);
    }

    /// Reads headers and footers. All that say something of their own are kept where that is asked for; else what they say is
    /// reported.
    pub(super) fn headers(&mut self) {
        if self.options.settings.headers == Headers::Pages {
            return self.headers_of_pages();
        }
        let mut parts = std::mem::take(&mut self.sections.parts);
        parts.sort_by_key(|(place, pages, _)| (*place == Place::Footer, *pages));
        let keeps = self.options.settings.headers == Headers::Keep;
        let mut kept: [Option<NodeId>; 2] = [None; 2];
        let mut reported: HashSet<(Place, String)> = HashSet::default();
        self.sections.in_header = if keeps { InHeader::InText } else { InHeader::Not };
        for (place, _, part) in parts {
            let (kind, code, what) = match place {
                Place::Header => (DivisionKind::Header, "word.header", "header"),
                Place::Footer => (DivisionKind::Footer, "word.footer", "footer"),
            };
            let holder = self.doc.create(Kind::Division(kind));
            self.read_part(&part, holder, what);
            let text = self.doc.plain_text(holder);
            let words = text.split_whitespace().collect::<Vec<_>>().join(" ");
            if !words.chars().any(char::is_alphabetic) || !reported.insert((place, words.clone())) {
                continue;
            }
            if !keeps {
                self.doc.push_finding(
                    Finding::lost(code, format!("the page {what} was left out"))
                        .hint("set word.headers=keep, or write page.header and page.footer")
                        .losing(words),
                );
                continue;
            }
            if let Some(known) = kept[place as usize] {
                self.doc.move_children(holder, known);
                continue;
            }
            kept[place as usize] = Some(holder);
            let first = self.doc.node(self.doc.root()).first_child();
            match first.filter(|_| place == Place::Header) {
                Some(first) => self.doc.move_before(first, holder),
                None => self.doc.move_into(self.doc.root(), holder),
            }
        }
        self.sections.in_header = InHeader::Not;
        if self.sections.page_numbers > 0 {
            let message = format!("page numbers were left out of headers and footers: {}", self.sections.page_numbers);
            self.doc.push_finding(
                Finding::changed("word.page-number", message)
                    .hint("a page of HTML has none; say in the text what they stood for"),
            );
        }
    }
}
