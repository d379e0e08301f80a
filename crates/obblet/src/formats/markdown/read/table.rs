//! Tables (GitHub Flavored Markdown, section 4.10).

use super::leaf_state::Leaf;
use super::state::{Blocks, Pending};
use crate::document::{Align, CellKind, Column, Finding, Kind, NodeId, RowGroupKind, Text};

/// Cells that rows leave out are filled in up to this many; a wide head over many short rows would else grow without bound.
const MOST_FILLED: usize = 200_000;

/// Where the cells of a row stand in the source.
fn cells(source: &[u8], start: usize, end: usize) -> impl Iterator<Item = (usize, usize)> {
    let white = |at: &usize| matches!(source[*at], b' ' | b'\t');
    let mut at = (start..end).find(|at| !white(at)).unwrap_or(end);
    let end = (at..end).rfind(|at| !white(at)).map_or(at, |last| last + 1);
    if at < end && source[at] == b'|' {
        at += 1;
    }
    std::iter::from_fn(move || {
        if at >= end {
            return None;
        }
        let mut bar = at;
        loop {
            bar += memchr::memchr2(b'|', b'\\', &source[bar.min(end)..end]).unwrap_or(end - bar.min(end));
            if bar >= end || source[bar] == b'|' {
                break;
            }
            bar = (bar + 2).min(end);
        }
        let from = (at..bar).find(|at| !white(at)).unwrap_or(bar);
        let to = (from..bar).rfind(|at| !white(at)).map_or(from, |last| last + 1);
        at = bar + 1;
        Some((from, to))
    })
}

/// The alignment of each column, where a line is the delimiter row of a table.
fn delimiters(source: &[u8], start: usize, end: usize) -> Option<Vec<Align>> {
    let line = &source[start..end];
    if !line.iter().all(|byte| matches!(byte, b'|' | b':' | b'-' | b' ' | b'\t'))
        || !line.iter().any(|byte| matches!(byte, b'|' | b':'))
    {
        return None;
    }
    cells(source, start, end)
        .map(|(from, to)| {
            let cell = &source[from..to];
            let (left, right) = (cell.first() == Some(&b':'), cell.last() == Some(&b':'));
            let dashes = cell.get(usize::from(left)..cell.len().saturating_sub(usize::from(right)))?;
            if dashes.is_empty() || dashes.iter().any(|&byte| byte != b'-') {
                return None;
            }
            Some(match (left, right) {
                (true, true) => Align::Center,
                (true, false) => Align::Left,
                (false, true) => Align::Right,
                (false, false) => Align::Unsaid,
            })
        })
        .collect()
}

impl Blocks<'_> {
    /// Begins a table where the line is a delimiter row that fits the last line of the open paragraph.
    pub(super) fn open_table(&mut self, start: usize, end: usize) -> bool {
        let bytes = self.source.as_bytes();
        let Some(columns) = delimiters(bytes, start, end) else { return false };
        let (head_start, head_end) = self.last_paragraph_line();
        if cells(bytes, head_start, head_end).count() != columns.len() {
            return false;
        }
        self.close_paragraph_before(head_start);
        let node = self.open_child(Kind::Table, head_start);
        self.doc.set_columns(node, columns.iter().map(|&align| Column { align, ..Column::default() }).collect());
        let head = self.doc.append_at(node, Kind::RowGroup(RowGroupKind::Head), head_start as u32);
        self.row(head, &columns, true, head_start, head_end);
        self.leaf = Leaf::Table { node, body: None, columns };
        true
    }

    /// Adds a row to the open table.
    pub(super) fn add_row(&mut self, start: usize, end: usize) {
        let Leaf::Table { node, body, columns } = std::mem::replace(&mut self.leaf, Leaf::None) else { return };
        let body = body.unwrap_or_else(|| self.doc.append_at(node, Kind::RowGroup(RowGroupKind::Body), start as u32));
        self.row(body, &columns, false, start, end);
        self.leaf = Leaf::Table { node, body: Some(body), columns };
    }

    fn row(&mut self, group: NodeId, columns: &[Align], header: bool, start: usize, end: usize) {
        let row = self.doc.append_at(group, Kind::Row, start as u32);
        self.doc.set_end(row, end as u32);
        self.doc.set_end(group, end as u32);
        let mut cells = cells(self.source.as_bytes(), start, end);
        for (index, &align) in columns.iter().enumerate() {
            let kind = CellKind { header, align, ..CellKind::PLAIN };
            let Some((from, to)) = cells.next() else {
                self.fill(row, &columns[index..], kind);
                return;
            };
            let node = self.doc.append_at(row, Kind::Cell(kind), from as u32);
            self.doc.set_end(node, to as u32);
            let text = self.cell_text(from, to);
            if !text.is_empty() {
                self.pending.push(Pending { node, text });
            }
        }
        if let Some((from, _)) = cells.next() {
            let place = self.doc.source.place(self.doc.pool(), from as u32);
            self.doc.push_finding(
                Finding::lost(
                    "markdown.extra-cells",
                    format!("the row has more cells than the {} of the table header", columns.len()),
                )
                .at(place)
                .losing(self.source[from..end].trim_end().trim_end_matches('|'))
                .hint("widen the head of the table, or write a bar within a cell as \\|"),
            );
        }
    }

    /// Fills a row that is short of cells.
    fn fill(&mut self, row: NodeId, columns: &[Align], kind: CellKind) {
        self.filled_cells += columns.len();
        if self.filled_cells <= MOST_FILLED {
            for &align in columns {
                self.doc.append(row, Kind::Cell(CellKind { align, ..kind }));
            }
        } else {
            self.merges_cells = true;
            for part in columns.chunks(1000) {
                self.doc.append(row, Kind::Cell(CellKind { align: Align::Unsaid, columns: part.len() as u16, ..kind }));
            }
        }
    }

    /// The text of a cell; `\|` is a bar, in code too.
    fn cell_text(&mut self, from: usize, to: usize) -> Text {
        let cell = &self.source[from..to];
        // Most cells hold no backslash at all.
        if memchr::memchr(b'\\', cell.as_bytes()).is_none() || !cell.contains("\\|") {
            return Text::between(from, to);
        }
        let mut joined = String::with_capacity(cell.len());
        let base = self.doc.pool().len() as u32;
        let mut at = from;
        for (index, piece) in cell.split("\\|").enumerate() {
            if index > 0 {
                joined.push('|');
            }
            self.doc.source.add_piece(base + joined.len() as u32, at as u32);
            joined.push_str(piece);
            at += piece.len() + 2;
        }
        self.doc.intern(&joined)
    }
}
