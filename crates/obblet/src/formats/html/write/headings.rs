//! Headings: their levels in steps, their numbers, and the list of them.

use super::elements::HEADINGS;
use super::{HeadingEntry, Writer};
use crate::document::{Finding, HintRole, Kind, NodeId, Step};
use crate::formats::html::{Lists, Mends};

/// What is known of the headings so far.
#[derive(Debug, Default)]
pub(super) struct Headings {
    pub(super) entries: Vec<HeadingEntry>,
    /// The headings above the next one: their levels in the source, and as they are written.
    above: Vec<(u8, u8)>,
    counts: [u32; 6],
    top: Option<usize>,
    /// The level of the heading that the walk is in.
    open: u8,
}

impl Headings {
    /// Headings below one of a level that stands above the document, if any.
    pub(super) fn below(level: u8) -> Self {
        let above = if level == 0 { Vec::new() } else { vec![(0, level)] };
        Self { above, ..Self::default() }
    }

    /// The level that a heading of a level in the source has when no level is left out on the way down.
    fn step(&mut self, level: u8) -> u8 {
        while self.above.last().is_some_and(|&(above, _)| above >= level) {
            self.above.pop();
        }
        // A first heading may be of any level, where nothing is above it.
        let written = self.above.last().map_or(level, |&(_, above)| (above + 1).min(6));
        self.above.push((level, written));
        written
    }

    /// A heading becomes the one above all others.
    fn put_on_top(&mut self, level: u8) -> u8 {
        self.above = vec![(level, 1)];
        1
    }

    /// `2.1` for the first heading of the second level in the second of the first.
    fn number(&mut self, level: u8, levels: u8) -> String {
        if levels == 0 {
            return String::new();
        }
        let index = usize::from(level) - 1;
        self.counts[index] += 1;
        self.counts[index + 1..].fill(0);
        let top = self.top.map_or(index, |top| top.min(index));
        self.top = Some(top);
        if index - top >= usize::from(levels) {
            return String::new();
        }
        self.counts[top..=index].iter().map(u32::to_string).collect::<Vec<_>>().join(".")
    }
}

impl Writer<'_, '_> {
    pub(super) fn enter_heading(&mut self, level: u8, id: NodeId) {
        let level = level.clamp(1, 6);
        // One without words is a step like any other: checkers count it.
        let written = if self.options.top_heading == Some(id) {
            self.headings.put_on_top(level)
        } else if self.options.mends.contains(Mends::HEADING_STEPS) {
            self.headings.step(level)
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
            self.headings.number(written, self.numbered_levels())
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
        self.doc.node(id).has_attributes()
            && self.doc.attributes(id).classes.iter().any(|&class| self.doc.text(class) == "unnumbered")
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
