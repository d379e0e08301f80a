//! Tables, drawn with lines.

use crate::document::{Align, CellKind};
use crate::indent_writer::{column, fold};
use unicode_width::UnicodeWidthStr;

/// No column is narrower than this, unless its text is.
const NARROWEST: usize = 8;
/// Tables with more columns than this are written a cell a line.
const MOST_COLUMNS: usize = 64;

/// A row: whether it is of the head, and the lines of its cells.
pub(super) struct Row {
    pub(super) is_head: bool,
    pub(super) cells: Vec<(Vec<String>, CellKind)>,
}

/// The lines of a table that is no wider than `width`, where that can be done.
pub(super) fn draw(rows: &[Row], width: usize) -> Vec<String> {
    let mut lines = Vec::new();
    let span = |row: &Row| row.cells.iter().map(|(_, cell)| usize::from(cell.columns)).sum::<usize>();
    let columns = rows.iter().map(span).max().unwrap_or(0);
    if columns == 0 || columns > MOST_COLUMNS {
        lines.extend(rows.iter().flat_map(|row| row.cells.iter().flat_map(|(text, _)| text.clone())));
        return lines;
    }
    let widths = widths(rows, columns, width);
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

/// The lines of words that belong together, one above the other.
pub(super) fn aligned(rows: &[Row]) -> Vec<String> {
    let columns = rows.iter().map(|row| row.cells.len()).max().unwrap_or(0);
    let widths = widths(rows, columns, 0);
    let line = |row: &Row| {
        let mut line = String::new();
        for ((text, _), width) in row.cells.iter().zip(&widths) {
            let text = text.join(" ");
            line.push_str(&text);
            line.extend(std::iter::repeat_n(' ', (width + 2).saturating_sub(text.width())));
        }
        line.trim_end().to_owned()
    };
    rows.iter().map(line).collect()
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
    let mut at = 0;
    let mut cells: Vec<(Vec<String>, usize, Align)> = Vec::new();
    for (text, cell) in &row.cells {
        let end = (at + usize::from(cell.columns)).min(widths.len());
        if end <= at {
            break;
        }
        let width = widths[at..end].iter().sum::<usize>() + 3 * (end - at - 1);
        let text = text.iter().flat_map(|line| fold(line, width)).collect();
        cells.push((text, width, cell.align));
        at = end;
    }
    for &width in &widths[at..] {
        cells.push((Vec::new(), width, Align::Unsaid));
    }
    let height = cells.iter().map(|(text, ..)| text.len()).max().unwrap_or(0).max(1);
    for index in 0..height {
        let mut line = String::from("|");
        for (text, width, align) in &cells {
            column(&mut line, text.get(index).map_or("", String::as_str), *width, *align);
        }
        lines.push(line);
    }
}
