//! Numbers beside equations (the documentation of LaTeX, "equation"; of amsmath, "Numbering and tagging").

use super::{Math, Node, TableKind, Tag};

impl Math {
    /// Gives numbers, from the one that the document has for it on, where there is one.
    pub(crate) fn number_from(&mut self, first: &str) {
        let (before, first) = first.rfind('.').map_or(("", first), |stop| first.split_at(stop + 1));
        if let Ok(first) = first.parse() {
            self.set_numbers_behind(before, first);
        }
    }

    /// Gives numbers to what asks for one: rows of their own, or the whole. Returns the next number.
    pub fn set_numbers(&mut self, next: u32) -> u32 {
        self.set_numbers_behind("", next)
    }

    /// As [`Self::set_numbers`], behind the number of the part of the document that they are counted in: `2.`
    pub(crate) fn set_numbers_behind(&mut self, before: &str, mut next: u32) -> u32 {
        if !self.numbered {
            return next;
        }
        let (first, mut letters) = (next, self.parts.is_some().then_some(0_i64));
        let mut tag = |next: &mut u32| {
            let text = match &mut letters {
                // All parts have the number of the first.
                Some(letter) => {
                    *letter += 1;
                    *next = first.saturating_add(1);
                    format!("{before}{first}{}", crate::numeral::numeral(*letter, crate::document::Marker::LowerAlpha))
                }
                None => {
                    *next = next.saturating_add(1);
                    format!("{before}{}", *next - 1)
                }
            };
            Some(Tag { text, bare: false })
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
            [Node::Reference { label, parentheses, .. }] => Some((label, *parentheses)),
            _ => None,
        }
    }
}

/// What a reference shows: the number of what it leads to, or the label.
pub(super) fn reference(label: &str, parentheses: bool, number: &str) -> String {
    let shown = if number.is_empty() { label } else { number };
    if parentheses { format!("({shown})") } else { shown.to_owned() }
}
