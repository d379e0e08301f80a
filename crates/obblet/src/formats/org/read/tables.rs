//! Tables: rows of cells between bars, and lines between rows (Org syntax, "Tables").

use super::Reader;
use super::keywords::Affiliated;
use super::lines::Begins;
use crate::document::{Align, CellKind, Column, Kind, NodeId, RowGroupKind};

/// A row of cells, as places in the source; or a line.
type Row = Option<Vec<(usize, usize)>>;

/// Signs in the first column that say what a row is for.
const SIGNS: [&str; 7] = ["/", "#", "!", "$", "*", "_", "^"];

impl Reader<'_> {
    /// Reads a table. Returns the line behind it.
    pub(super) fn table(&mut self, from: usize, to: usize, parent: NodeId, affiliated: &Affiliated) -> usize {
        let mut end = from;
        while end < to && self.lines.all[end].begins == Begins::Table {
            end += 1;
        }
        let mut rows: Vec<Row> = (from..end).map(|number| self.row(number)).collect();
        let place = self.lines.all[affiliated.from.unwrap_or(from)].start as u32;
        let table = self.doc.append_at(parent, Kind::Table, place);
        self.apply(table, affiliated);
        self.caption(table, affiliated);
        let columns = self.drop_signs(&mut rows);
        let width = rows.iter().flatten().map(Vec::len).max().unwrap_or(0);
        let has_alignment = columns.iter().any(|align| *align != Align::Unsaid);
        if has_alignment {
            let of = |column: usize| columns.get(column).copied().unwrap_or_default();
            self.doc.set_columns(table, (0..width).map(|column| Column { align: of(column), width: 0 }).collect());
        }
        self.groups(table, &rows, width, &columns);
        self.doc.set_end(table, self.last_line(from, end));
        // Formulas are for the calculator.
        while self.lines.get(end).is_some_and(|line| end < to && is_formula(&self.source[line.text..line.end])) {
            end += 1;
        }
        end
    }

    fn row(&self, number: usize) -> Row {
        let line = self.lines.all[number];
        let words = &self.source[line.text..line.end];
        if words.starts_with("|-") {
            return None;
        }
        let mut cells = Vec::new();
        let mut at = line.text + 1;
        while at < line.end || cells.is_empty() {
            let rest = &self.source[at..line.end];
            let length = memchr::memchr(b'|', rest.as_bytes()).unwrap_or(rest.len());
            let cell = &rest[..length];
            let start = at + cell.len() - cell.trim_start().len();
            cells.push((start.min(at + length), (at + cell.trim_end().len()).max(start.min(at + length))));
            at += length + 1;
        }
        Some(cells)
    }

    fn cell(&self, (start, end): (usize, usize)) -> &str {
        self.source.get(start..end).unwrap_or_default()
    }

    /// Drops rows that say how columns are aligned and grouped, and the column that says what rows are for.
    fn drop_signs(&self, rows: &mut Vec<Row>) -> Vec<Align> {
        let first = |row: &Row| row.as_ref().and_then(|cells| cells.first()).map(|cell| self.cell(*cell));
        let marked = rows.iter().filter_map(first).all(|cell| cell.is_empty() || SIGNS.contains(&cell));
        let marked = marked && rows.iter().filter_map(first).any(|cell| !cell.is_empty());
        if marked {
            // Names and parameters are for the calculator, too.
            rows.retain(|row| first(row).is_none_or(|cell| !matches!(cell, "/" | "!" | "$" | "_" | "^")));
            for cells in rows.iter_mut().flatten() {
                cells.remove(0);
            }
        } else {
            rows.retain(|row| first(row) != Some("/"));
        }
        let mut columns: Vec<Align> = Vec::new();
        rows.retain(|row| {
            let Some(cells) = row else { return true };
            let is_cookies = cells.iter().all(|cell| self.cell(*cell).is_empty() || cookie(self.cell(*cell)).is_some());
            if !is_cookies || cells.iter().all(|cell| self.cell(*cell).is_empty()) {
                return true;
            }
            columns = cells.iter().map(|cell| cookie(self.cell(*cell)).unwrap_or_default()).collect();
            false
        });
        columns
    }

    /// Rows between lines are groups; those above the first line are the head.
    fn groups(&mut self, table: NodeId, rows: &[Row], width: usize, columns: &[Align]) {
        let first = rows.iter().position(Option::is_some).unwrap_or(0);
        let last = rows.iter().rposition(Option::is_some).map_or(0, |last| last + 1);
        let rows = rows.get(first..last).unwrap_or_default();
        let has_head = rows.contains(&None);
        let mut group: Option<NodeId> = None;
        let mut in_head = has_head;
        for row in rows {
            let Some(cells) = row else {
                (group, in_head) = (None, false);
                continue;
            };
            let place = cells.first().map_or(0, |(start, _)| *start) as u32;
            let kind = if in_head { RowGroupKind::Head } else { RowGroupKind::Body };
            let holder = *group.get_or_insert_with(|| self.doc.append_at(table, Kind::RowGroup(kind), place));
            let node = self.doc.append_at(holder, Kind::Row, place);
            for column in 0..width {
                let align = columns.get(column).copied().unwrap_or_default();
                let kind = CellKind { header: in_head, align, ..CellKind::PLAIN };
                let (start, end) = cells.get(column).copied().unwrap_or((0, 0));
                let cell = self.doc.append_at(node, Kind::Cell(kind), start as u32);
                if start < end {
                    self.source_text(cell, start, end, start as u32);
                }
            }
        }
    }

    /// The caption of a table or a figure.
    pub(super) fn caption(&mut self, holder: NodeId, affiliated: &Affiliated) {
        let Some((start, _)) = affiliated.captions.first().copied() else { return };
        let caption = self.doc.append_at(holder, Kind::Caption, start as u32);
        for (index, (start, end)) in affiliated.captions.iter().enumerate() {
            if index > 0 {
                let space = self.doc.intern(" ");
                self.doc.append_joined(caption, space, *start as u32);
            }
            self.source_text(caption, *start, *end, *start as u32);
        }
    }
}

/// The alignment that a cell such as `<r>` or `<c20>` sets.
fn cookie(cell: &str) -> Option<Align> {
    let inner = cell.strip_prefix('<')?.strip_suffix('>')?;
    let digits = inner.trim_start_matches(['l', 'r', 'c']);
    if !digits.bytes().all(|byte| byte.is_ascii_digit()) || inner.len() - digits.len() > 1 || inner.is_empty() {
        return None;
    }
    Some(match inner.bytes().next() {
        Some(b'l') => Align::Left,
        Some(b'r') => Align::Right,
        Some(b'c') => Align::Center,
        _ => Align::Unsaid,
    })
}

fn is_formula(words: &str) -> bool {
    words.get(..8).is_some_and(|start| start.eq_ignore_ascii_case("#+tblfm:"))
}
