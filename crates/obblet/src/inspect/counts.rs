//! How much of each thing there is.

use crate::document::{Document, Kind, Step};

use serde::Serialize;

/// How much of each thing a document holds.
#[derive(Clone, Copy, Debug, Default, PartialEq, Eq, Serialize)]
#[allow(missing_docs, reason = "each is the number of what its name says")]
pub struct Counts {
    pub headings: usize,
    pub paragraphs: usize,
    pub lists: usize,
    pub items: usize,
    pub tables: usize,
    pub rows: usize,
    pub cells: usize,
    pub pictures: usize,
    pub links: usize,
    pub notes: usize,
    pub code_blocks: usize,
    pub quotes: usize,
    pub formulas: usize,
}

impl Counts {
    pub(super) fn of(doc: &Document) -> Self {
        let mut counts = Self { notes: doc.notes.len(), ..Self::default() };
        for top in doc.roots() {
            for step in doc.walk(top) {
                let Step::Enter(id) = step else { continue };
                match doc.kind(id) {
                    Kind::Heading(_) => counts.headings += 1,
                    Kind::Paragraph => counts.paragraphs += 1,
                    Kind::List(_) | Kind::TermList => counts.lists += 1,
                    Kind::ListItem { .. } | Kind::Term => counts.items += 1,
                    Kind::Table => counts.tables += 1,
                    Kind::Row => counts.rows += 1,
                    Kind::Cell(_) => counts.cells += 1,
                    Kind::Image { .. } => counts.pictures += 1,
                    Kind::Link { .. } => counts.links += 1,
                    Kind::CodeBlock { .. } | Kind::Preformatted => counts.code_blocks += 1,
                    Kind::BlockQuote => counts.quotes += 1,
                    kind if kind.is_formula() => counts.formulas += 1,
                    _ => {}
                }
            }
        }
        counts
    }

    /// The counts that are not nothing, with their names, the largest things first.
    #[must_use]
    pub fn named(&self) -> Vec<(&'static str, usize)> {
        [
            ("headings", self.headings),
            ("paragraphs", self.paragraphs),
            ("lists", self.lists),
            ("items", self.items),
            ("tables", self.tables),
            ("rows", self.rows),
            ("cells", self.cells),
            ("images", self.pictures),
            ("links", self.links),
            ("notes", self.notes),
            ("code blocks", self.code_blocks),
            ("quotes", self.quotes),
            ("formulas", self.formulas),
        ]
        .into_iter()
        .filter(|(_, count)| *count > 0)
        .collect()
    }
}
