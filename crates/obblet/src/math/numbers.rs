//! Numbers beside equations (the documentation of LaTeX, "equation"; of amsmath, "Numbering and tagging").

use super::{Math, Node, TableKind, Tag};

impl Math {
    /// Gives numbers, from the one that the document has for it on, where there is one: `2.3`, `A1`, or `4b` for one of several
    /// parts.
    pub(crate) fn number_from(&mut self, first: &str) {
        let is_letter = first.ends_with(|c: char| c.is_ascii_lowercase());
        let number = if is_letter { &first[..first.len() - 1] } else { first };
        let before = number.trim_end_matches(|c: char| c.is_ascii_digit());
        match (number[before.len()..].parse(), first.bytes().next_back()) {
            (Ok(_), Some(letter)) if is_letter => {
                let mut letter = i64::from(letter - b'a');
                self.tag_rows(|| {
                    letter += 1;
                    format!("{number}{}", crate::numeral::numeral(letter, crate::document::Marker::LowerAlpha))
                });
            }
            (Ok(first), _) => drop(self.set_numbers_behind(before, first)),
            // What is no number, as a roman one, is that of the first row.
            (Err(_), Some(_)) => {
                let mut text = Some(first.to_owned());
                self.tag_rows(|| text.take().unwrap_or_default());
            }
            (Err(_), None) => {}
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
        self.tag_rows(|| match &mut letters {
            // All parts have the number of the first.
            Some(letter) => {
                *letter += 1;
                next = first.saturating_add(1);
                format!("{before}{first}{}", crate::numeral::numeral(*letter, crate::document::Marker::LowerAlpha))
            }
            None => {
                next = next.saturating_add(1);
                format!("{before}{}", next - 1)
            }
        });
        next
    }

    /// Gives what asks for a number one after the other: rows of their own, or the whole.
    fn tag_rows(&mut self, mut number: impl FnMut() -> String) {
        if !self.numbered {
            return;
        }
        let mut tag = || Some(Tag { text: number(), bare: false }).filter(|tag| !tag.text.is_empty());
        if let [Node::Table(table)] = &mut self.body[..]
            && matches!(table.kind, TableKind::Aligned | TableKind::Gathered)
            && table.rows.iter().any(|row| !row.unnumbered)
        {
            for row in table.rows.iter_mut().filter(|row| !row.unnumbered && row.tag.is_none()) {
                row.tag = tag();
            }
        } else if self.tag.is_none() {
            self.tag = tag();
        }
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

impl Tag {
    /// Its characters: formulas in it are written as they are read.
    pub(crate) fn characters(&self) -> String {
        if !self.text.contains('$') {
            return self.text.clone();
        }
        let shown = |(at, piece): (usize, &str)| {
            if at % 2 == 0 { piece.to_owned() } else { super::plain(&super::tex::read(piece).0) }
        };
        self.text.split('$').enumerate().map(shown).collect()
    }

    /// What stands beside the equation.
    pub(crate) fn shown(&self) -> String {
        if self.bare { self.characters() } else { format!("({})", self.characters()) }
    }
}

/// What a reference shows: the number of what it leads to, or the label.
pub(super) fn reference(label: &str, parentheses: bool, number: &str) -> String {
    let shown = if number.is_empty() { label } else { number };
    if parentheses { format!("({shown})") } else { shown.to_owned() }
}
