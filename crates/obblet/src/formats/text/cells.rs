//! What tables hold, as lines of text.

use super::table::Row;
use super::write::Writer;
use crate::document::{Kind, NodeId, RowGroupKind, Step};
use crate::lines::fold;

impl Writer<'_> {
    /// The caption and the rows of a table.
    pub(super) fn rows(&mut self, table: NodeId) -> (Option<String>, Vec<Row>) {
        let doc = self.doc;
        let (mut caption, mut rows) = (None, Vec::new());
        for child in doc.children(table) {
            match doc.kind(child) {
                Kind::Caption => caption = Some(self.text_of(child)),
                Kind::RowGroup(group) => {
                    for row in doc.children(child) {
                        rows.push(self.row(row, group == RowGroupKind::Head));
                    }
                }
                Kind::Row => rows.push(self.row(child, false)),
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
