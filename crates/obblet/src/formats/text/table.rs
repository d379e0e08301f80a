//! Tables, drawn with lines.

use super::write::{Writer, fold};
use crate::document::{Align, CellKind, Kind, NodeId, RowGroupKind};
use unicode_width::UnicodeWidthStr;

/// No column is narrower than this, unless its text is.
const NARROWEST: usize = 8;
/// Tables with more columns than this are written a cell a line.
const MOST_COLUMNS: usize = 64;

struct Row {
    is_head: bool,
    cells: Vec<(Vec<String>, CellKind)>,
}

/// The lines of a table that is no wider than `width`, where that can be done.
pub(super) fn draw(writer: &mut Writer<'_>, table: NodeId, width: usize) -> Vec<String> {
    let doc = writer.doc;
    let mut lines = Vec::new();
    let mut rows = Vec::new();
    for child in doc.children(table) {
        match doc.kind(child) {
            Kind::Caption => {
                let text = text_of(writer, child);
                lines.extend(fold(&text, width));
            }
            Kind::RowGroup(group) => {
                for row in doc.children(child) {
                    rows.push(read_row(writer, row, group == RowGroupKind::Head));
                }
            }
            Kind::Row => rows.push(read_row(writer, child, false)),
            _ => {}
        }
    }
    let span = |row: &Row| row.cells.iter().map(|(_, cell)| usize::from(cell.columns)).sum::<usize>();
    let columns = rows.iter().map(span).max().unwrap_or(0);
    if columns == 0 || columns > MOST_COLUMNS {
        lines.extend(rows.iter().flat_map(|row| row.cells.iter().flat_map(|(text, _)| text.clone())));
        return lines;
    }
    let widths = widths(&rows, columns, width);
    let rule = |sign: &str| {
        let parts: Vec<String> = widths.iter().map(|width| sign.repeat(width + 2)).collect();
        format!("+{}+", parts.join("+"))
    };
    lines.push(rule("-"));
    for (index, row) in rows.iter().enumerate() {
        draw_row(row, &widths, &mut lines);
        let head_ends = row.is_head && rows.get(index + 1).is_none_or(|next| !next.is_head);
        lines.push(rule(if head_ends { "=" } else { "-" }));
    }
    lines
}

fn text_of(writer: &mut Writer<'_>, id: NodeId) -> String {
    let doc = writer.doc;
    let mut out = String::new();
    let children: Vec<NodeId> = doc.children(id).collect();
    for child in children {
        if doc.kind(child).is_inline() {
            out.push_str(&writer.inline(&[child]));
            continue;
        }
        if !out.is_empty() {
            out.push('\u{2028}');
        }
        // Blocks in cells lose their form, and nothing else.
        let inner: Vec<NodeId> = doc.children(child).collect();
        if inner.iter().all(|&inner| doc.kind(inner).is_inline()) && !inner.is_empty() {
            out.push_str(&writer.inline(&inner));
        } else {
            out.push_str(&block_text(writer, child));
        }
    }
    out
}

/// The text of blocks within blocks, a line each.
fn block_text(writer: &mut Writer<'_>, id: NodeId) -> String {
    let doc = writer.doc;
    let mut out = String::new();
    let mut walk = doc.walk(id);
    while let Some(step) = walk.next() {
        let crate::document::Step::Enter(node) = step else { continue };
        match doc.kind(node) {
            Kind::CodeBlock { code, .. } => {
                out.push('\u{2028}');
                out.push_str(&doc.text(code).trim_end().replace('\n', "\u{2028}"));
            }
            kind if kind.is_inline() => {
                out.push_str(&writer.inline(&[node]));
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

fn read_row(writer: &mut Writer<'_>, row: NodeId, is_head: bool) -> Row {
    let doc = writer.doc;
    let children: Vec<NodeId> = doc.children(row).collect();
    let mut cells = Vec::new();
    for id in children {
        if let Kind::Cell(cell) = doc.kind(id) {
            let text = text_of(writer, id);
            cells.push((fold(&text, 0), cell));
        }
    }
    let heads = cells.iter().all(|(_, cell)| cell.header) && !cells.is_empty();
    Row { is_head: is_head || heads, cells }
}

/// How wide each column is: as wide as its text, or its share of what there is.
fn widths(rows: &[Row], columns: usize, width: usize) -> Vec<usize> {
    let mut widths = vec![1; columns];
    for row in rows {
        let mut column = 0;
        for (text, cell) in &row.cells {
            if cell.columns == 1 && column < columns {
                let widest = text.iter().map(|line| line.width()).max().unwrap_or(0);
                widths[column] = widths[column].max(widest);
            }
            column += usize::from(cell.columns);
        }
    }
    let available = width.saturating_sub(columns * 3 + 1).max(columns);
    let mut total: usize = widths.iter().sum();
    // The widest gives way first.
    while width > 0 && total > available {
        let Some(widest) = (0..columns).max_by_key(|&column| widths[column]) else { break };
        let second = (0..columns).filter(|&column| column != widest).map(|column| widths[column]).max().unwrap_or(0);
        let least = NARROWEST.max(second.min(widths[widest].saturating_sub(1)));
        if widths[widest] <= NARROWEST {
            break;
        }
        let cut = (total - available).min(widths[widest] - least.min(widths[widest] - 1));
        widths[widest] -= cut.max(1);
        total = widths.iter().sum();
    }
    widths
}

fn draw_row(row: &Row, widths: &[usize], lines: &mut Vec<String>) {
    let mut column = 0;
    let mut cells: Vec<(Vec<String>, usize, Align)> = Vec::new();
    for (text, cell) in &row.cells {
        let end = (column + usize::from(cell.columns)).min(widths.len());
        if end <= column {
            break;
        }
        let width = widths[column..end].iter().sum::<usize>() + 3 * (end - column - 1);
        let text = text.iter().flat_map(|line| fold(line, width)).collect();
        cells.push((text, width, cell.align));
        column = end;
    }
    for &width in &widths[column..] {
        cells.push((Vec::new(), width, Align::Unsaid));
    }
    let height = cells.iter().map(|(text, ..)| text.len()).max().unwrap_or(0).max(1);
    for index in 0..height {
        let mut line = String::from("|");
        for (text, width, align) in &cells {
            let text = text.get(index).map_or("", String::as_str);
            let space = width.saturating_sub(text.width());
            let before = match align {
                Align::Right => space,
                Align::Center => space / 2,
                _ => 0,
            };
            line.push(' ');
            line.push_str(&" ".repeat(before));
            line.push_str(text);
            line.push_str(&" ".repeat(space - before));
            line.push_str(" |");
        }
        lines.push(line);
    }
}
