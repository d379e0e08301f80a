//! Code and tables that may be wider than the page. Where style rules let them scroll, the keyboard must reach them (WCAG 2.2,
//! success criterion 2.1.1).

use super::super::Context;
use super::Writer;
use crate::document::{Kind, NodeId, Step};

/// So many characters stand beside each other on a narrow telephone.
const NARROW: usize = 24;

/// So many characters wide is the space between two columns.
const GAP: usize = 3;

impl Writer<'_, '_> {
    /// An attribute, within a tag, that gives code or a table a place in the order of the keyboard where it may be too wide.
    pub(super) fn keyboard_stop(&mut self, id: NodeId) {
        if self.options.context == Context::ScrollingPage && self.is_wide(id) {
            self.out.attribute("tabindex", "0");
        }
    }

    /// Whether a formula on lines of its own in a paragraph may be too wide.
    pub(super) fn is_wide_formula(&self, paragraph: NodeId) -> bool {
        let is_wide = |child: NodeId| {
            let Kind::Math(formula) = self.doc.kind(child) else { return false };
            let formula = self.doc.formula(formula);
            formula.display && self.doc.text(formula.characters).chars().nth(NARROW).is_some()
        };
        !self.doc.formulas.is_empty() && self.doc.children(paragraph).any(is_wide)
    }

    fn is_wide(&self, id: NodeId) -> bool {
        match self.doc.kind(id) {
            Kind::CodeBlock { code, .. } => is_long(self.doc.text(code)),
            Kind::Preformatted => is_long(&self.doc.plain_text(id)),
            Kind::Table => self.is_wide_table(id),
            Kind::Paragraph => self.is_wide_formula(id),
            _ => false,
        }
    }

    /// Whether one of the rows can't be narrow: its longest words and the spaces between its columns take too much room. Looks no
    /// further than the first such row.
    fn is_wide_table(&self, table: NodeId) -> bool {
        // The width of the row so far, and of the longest word of its cell.
        let (mut row, mut longest) = (0, 0);
        for step in self.doc.walk(table) {
            match step {
                Step::Enter(id) => match self.doc.kind(id) {
                    // Also so that tables in tables are not walked through once for each of them.
                    Kind::Table if id != table => return true,
                    Kind::Row => row = 0,
                    Kind::Cell(_) => longest = 0,
                    Kind::Text(text) | Kind::Code(text) => {
                        let words = self.doc.text(text).split_ascii_whitespace();
                        longest = words.map(|word| word.chars().take(NARROW).count()).fold(longest, usize::max);
                    }
                    Kind::CodeBlock { .. } | Kind::Preformatted | Kind::Image { .. } => longest = NARROW,
                    kind if kind.is_formula() => longest = NARROW,
                    _ => {}
                },
                Step::Leave(id) if matches!(self.doc.kind(id), Kind::Cell(_)) => {
                    row += longest + GAP;
                    if row > NARROW {
                        return true;
                    }
                }
                Step::Leave(_) => {}
            }
        }
        false
    }
}

fn is_long(code: &str) -> bool {
    code.lines().any(|line| line.len() > NARROW && line.chars().count() > NARROW)
}
