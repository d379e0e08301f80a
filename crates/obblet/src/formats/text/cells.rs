//! What tables hold, as lines of text.

use super::table::Row;
use super::write::Writer;
use crate::document::{CellKind, Kind, NodeId, RowGroupKind, Step};
use crate::indent_writer::fold;

impl Writer<'_> {
    /// The caption and the rows of a table.
    pub(super) fn rows(&mut self, table: NodeId) -> (Option<String>, Vec<Row>) {
        let doc = self.doc;
        let (mut caption, mut rows, mut loose) = (None, Vec::new(), Vec::new());
        for child in doc.children(table) {
            match doc.kind(child) {
                Kind::Caption => caption = Some(self.text_of(child)),
                Kind::RowGroup(group) => {
                    let mut covered = Vec::new();
                    for row in doc.children(child) {
                        let row = self.row(row, group == RowGroupKind::Head);
                        rows.push(make_room(row, &mut covered));
                    }
                }
                Kind::Row => {
                    let row = self.row(child, false);
                    rows.push(make_room(row, &mut loose));
                }
                _ => {}
            }
        }
        (caption, rows)
    }

    fn text_of(&mut self, id: NodeId) -> String {
        let doc = self.doc;
        let mut out = String::new();
        let children: Vec<NodeId> = doc.children(id).collect();
        for child in children {
            if doc.kind(child).is_inline() {
                out.push_str(&self.inline(&[child]));
                continue;
            }
            if !out.is_empty() {
                out.push('\u{2028}');
            }
            // Blocks in cells lose their form, and nothing else.
            let inner: Vec<NodeId> = doc.children(child).collect();
            if inner.iter().all(|&inner| doc.kind(inner).is_inline()) && !inner.is_empty() {
                out.push_str(&self.inline(&inner));
            } else {
                out.push_str(&self.block_text(child));
            }
        }
        out
    }

    /// The text of blocks within blocks, a line each.
    fn block_text(&mut self, id: NodeId) -> String {
        let doc = self.doc;
        let mut out = String::new();
        let mut walk = doc.walk(id);
        while let Some(step) = walk.next() {
            let Step::Enter(node) = step else { continue };
            match doc.kind(node) {
                Kind::CodeBlock { code, .. } => {
                    out.push('\u{2028}');
                    out.push_str(&doc.text(code).trim_end().replace('\n', "\u{2028}"));
                }
                kind if kind.is_inline() => {
                    out.push_str(&self.inline(&[node]));
                    walk.skip_children(node);
                }
                _ if !out.is_empty() && !out.ends_with(['\u{2028}', ' ']) => out.push('\u{2028}'),
                _ => {}
            }
            if matches!(doc.kind(node), Kind::ListItem { .. }) {
                out.push_str("- ");
            }
        }
        out
    }

    fn row(&mut self, row: NodeId, is_head: bool) -> Row {
        let doc = self.doc;
        let children: Vec<NodeId> = doc.children(row).collect();
        let mut cells = Vec::new();
        for id in children {
            if let Kind::Cell(cell) = doc.kind(id) {
                let text = self.text_of(id);
                cells.push((fold(&text, 0), cell));
            }
        }
        let heads = cells.iter().all(|(_, cell)| cell.header) && !cells.is_empty();
        Row { is_head: is_head || heads, cells }
    }
}

/// Puts empty cells where cells of the rows above reach down. `covered` says for each column how many rows that still is.
fn make_room(mut row: Row, covered: &mut Vec<u16>) -> Row {
    let mut cells = Vec::new();
    let mut column = 0;
    let fill = |cells: &mut Vec<(Vec<String>, CellKind)>, covered: &mut Vec<u16>, column: &mut usize| {
        while let Some(left) = covered.get_mut(*column).filter(|left| **left > 0) {
            *left -= 1;
            *column += 1;
            cells.push((Vec::new(), CellKind::PLAIN));
        }
    };
    for (text, cell) in row.cells {
        fill(&mut cells, covered, &mut column);
        let end = column + usize::from(cell.columns);
        if covered.len() < end {
            covered.resize(end, 0);
        }
        covered[column..end].fill(cell.rows.saturating_sub(1));
        column = end;
        cells.push((text, cell));
    }
    fill(&mut cells, covered, &mut column);
    row.cells = cells;
    row
}
