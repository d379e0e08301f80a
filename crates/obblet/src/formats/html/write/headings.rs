//! Headings: their levels in steps, their numbers, and the list of them.

use super::elements::HEADINGS;
use super::{HeadingEntry, Writer};
use crate::document::{Finding, HintRole, Kind, NodeId, Step};
use crate::formats::html::{Lists, Mends};
use crate::heading_count::HeadingCount;

/// What is known of the headings so far.
#[derive(Debug, Default)]
pub(super) struct Headings {
    pub(super) entries: Vec<HeadingEntry>,
    count: HeadingCount,
    /// The level of the heading that the walk is in.
    open: u8,
}

impl Headings {
    /// Headings below one of a level that stands above the document, if any.
    pub(super) fn below(level: u8) -> Self {
        Self { count: HeadingCount::below(level), ..Self::default() }
    }
}

impl Writer<'_, '_> {
    pub(super) fn enter_heading(&mut self, level: u8, id: NodeId) {
        let level = level.clamp(1, 6);
        // One without words is a step like any other: checkers count it.
        let written = if self.options.top_heading == Some(id) {
            self.headings.count.put_on_top(level)
        } else if self.options.mends.contains(Mends::HEADING_STEPS) {
            self.headings.count.step(level)
        } else {
            level
        };
        if self.options.top_heading == Some(id) {
            self.findings.push(
                Finding::changed(
                    "html.heading-level",
                    format!("the first heading is the title of the page: level {level} became 1"),
                )
                .at(self.doc.place(id)),
            );
        } else if written != level {
            self.findings.push(
                Finding::changed("html.heading-level", format!("heading level {level} skips a level; it became level {written}"))
                    .at(self.doc.place(id))
                    .hint("give headings the level below that of the heading above them"),
            );
        }
        self.headings.open = written;
        self.block(HEADINGS[usize::from(written) - 1], id);
        let number = if matches!(self.doc.layout_hints.of(id).part, HintRole::Title { .. }) || self.is_unnumbered(id) {
            String::new()
        } else {
            self.headings.count.number(written, self.numbered_levels())
        };
        // One without words is counted, but a number alone would make a heading of it.
        let number = if number.is_empty() || self.has_words(id) { number } else { String::new() };
        if !number.is_empty() {
            self.out.text(&number);
            self.out.text(" ");
        }
        if self.options.lists.contains(Lists::HEADINGS) {
            let text = self.doc.heading_line(id);
            let id = self.ids.get(id).unwrap_or_default().to_owned();
            self.headings.entries.push(HeadingEntry { level: written, id, number, text });
        }
    }

    /// Whether the source says that a heading has no number where others have.
    fn is_unnumbered(&self, id: NodeId) -> bool {
        self.doc.is_of_class(id, "unnumbered")
    }

    /// How many levels of headings have numbers.
    fn numbered_levels(&self) -> u8 {
        let by_settings = if self.options.settings.heading_numbers { 6 } else { 0 };
        self.doc.metadata.presentation.numbered_levels.unwrap_or(by_settings)
    }

    fn has_words(&self, id: NodeId) -> bool {
        self.doc.walk(id).any(|step| match step {
            Step::Enter(id) => match self.doc.kind(id) {
                Kind::Text(text) | Kind::Code(text) | Kind::Image { alt: text, .. } => !self.doc.text(text).trim().is_empty(),
                Kind::NoteReference(_) => true,
                kind => kind.is_formula(),
            },
            Step::Leave(_) => false,
        })
    }

    pub(super) fn leave_heading(&mut self) {
        self.end_block(HEADINGS[usize::from(self.headings.open.clamp(1, 6)) - 1]);
    }
}
