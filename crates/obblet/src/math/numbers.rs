//! Numbers beside equations (the documentation of LaTeX, "equation"; of amsmath, "Numbering and tagging").

use super::{Math, Node, TableKind, Tag};

impl Math {
    /// Gives numbers, from the one that the document has for it on, where there is one.
    pub(crate) fn number_from(&mut self, first: &str) {
        if let Ok(first) = first.parse() {
            self.set_numbers(first);
        }
    }

    /// Gives numbers to what asks for one: rows of their own, or the whole. Returns the next number.
    pub fn set_numbers(&mut self, mut next: u32) -> u32 {
        if !self.numbered {
            return next;
        }
        let tag = |next: &mut u32| {
            *next = next.saturating_add(1);
            Some(Tag { text: (*next - 1).to_string(), bare: false })
        };
        if let [Node::Table(table)] = &mut self.body[..]
            && matches!(table.kind, TableKind::Aligned | TableKind::Gathered)
            && table.rows.iter().any(|row| !row.unnumbered)
        {
            for row in table.rows.iter_mut().filter(|row| !row.unnumbered && row.tag.is_none()) {
                row.tag = tag(&mut next);
            }
        } else if self.tag.is_none() {
            self.tag = tag(&mut next);
        }
        next
    }

    /// The rows of a formula that is one table.
    pub(crate) fn table_rows(&self) -> impl Iterator<Item = &super::TableRow> {
        let table = match &self.body[..] {
            [Node::Table(table)] => Some(table),
            _ => None,
        };
        table.into_iter().flat_map(|table| &table.rows)
    }

    /// What a formula refers to, where it does nothing else: the label, and whether it is shown in parentheses.
    #[must_use]
    pub fn reference(&self) -> Option<(&str, bool)> {
        match &self.body[..] {
            [Node::Reference { label, parentheses }] => Some((label, *parentheses)),
            _ => None,
        }
    }
}
