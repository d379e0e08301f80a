//! Tables: in the syntax for them where it can say them (GitHub Flavored Markdown, section 4.10).

use super::escape::Place;
use super::table_head::is_head;
use super::{HtmlPieces, Writer};
use crate::document::{Align, CellKind, Kind, NodeId, RowGroupKind};
use crate::formats::markdown::Extensions;
use unicode_width::UnicodeWidthStr;

/// Columns of tables that are wider than this are not padded.
const WIDEST: usize = 160;

/// A cell is taken apart into no more columns than this.
const MOST_MERGED: usize = 200;

/// The rows of a table, and which of them is the head.
pub(super) struct Grid {
    rows: Vec<Vec<NodeId>>,
    has_head: bool,
    /// Things that the syntax has no place for.
    caption: Option<NodeId>,
    row_headers: bool,
    foot: bool,
}

impl Writer<'_, '_> {
    /// Writes a table with what cells hold put on a line each. Merged cells are taken apart: their text is in the first.
    pub(super) fn plain_table(&mut self, table: NodeId) {
        let doc = self.doc;
        let kind = |cell: NodeId| if let Kind::Cell(kind) = doc.kind(cell) { kind } else { CellKind::PLAIN };
        let all = rows(self, table);
        let mut has_head = false;
        // How many more rows each column is taken for by a cell above.
        let mut taken: Vec<u16> = Vec::new();
        let mut texts: Vec<Vec<String>> = Vec::new();
        for (index, (group, row)) in all.into_iter().enumerate() {
            let cells: Vec<NodeId> = doc.children(row).collect();
            if index == 0 {
                has_head =
                    group == Some(RowGroupKind::Head) || (!cells.is_empty() && cells.iter().all(|&cell| kind(cell).header));
            }
            let mut line: Vec<String> = Vec::new();
            for cell in cells {
                while taken.get(line.len()).is_some_and(|rows| *rows > 0) {
                    line.push(String::new());
                }
                let (from, span) = (line.len(), kind(cell));
                // Nothing that a source says makes a table wider than people can read.
                let columns = usize::from(span.columns.max(1)).min(MOST_MERGED);
                line.push(self.plain_cell(cell));
                line.resize(from + columns, String::new());
                if taken.len() < line.len() {
                    taken.resize(line.len(), 0);
                }
                taken[from..from + columns].fill(span.rows.max(1));
            }
            if self.options.syntax.has(Extensions::TABLES) {
                line.resize(line.len().max(taken.len()), String::new());
            }
            for rows in &mut taken {
                *rows = rows.saturating_sub(1);
            }
            texts.push(line);
        }
        if !self.options.syntax.has(Extensions::TABLES) {
            for line in texts {
                self.out.line(format!("| {} |", line.join(" | ")).trim_end());
            }
            return;
        }
        let columns = taken.len().max(1);
        if !has_head {
            texts.insert(0, vec![String::new(); columns]);
        }
        for (index, mut line) in texts.into_iter().enumerate() {
            line.resize(columns, String::new());
            self.out.line(&format!("| {} |", line.join(" | ")));
            if index == 0 {
                self.out.line(&format!("|{}", " --- |".repeat(columns)));
            }
        }
    }

    fn plain_cell(&self, cell: NodeId) -> String {
        let text = self.doc.plain_text(cell);
        let mut out = String::new();
        let around = super::escape::Context { after: None, place: Place::LINK | Place::TABLE | Place::DOLLARS };
        super::escape::text(&mut out, &text.split_whitespace().collect::<Vec<_>>().join(" "), &around, self.options);
        out
    }

    /// The rows of a table, where there is a syntax for tables and each cell is one line in one column.
    pub(super) fn grid(&self, table: NodeId) -> Option<Grid> {
        if !self.options.syntax.has(Extensions::TABLES) {
            return None;
        }
        let doc = self.doc;
        let mut grid = Grid { rows: Vec::new(), has_head: false, caption: None, row_headers: false, foot: false };
        let all = rows(self, table);
        grid.caption = doc.children(table).find(|&child| doc.kind(child) == Kind::Caption);
        for (index, (group, row)) in all.into_iter().enumerate() {
            let cells: Vec<NodeId> = doc.children(row).collect();
            let kind = |&cell: &NodeId| if let Kind::Cell(kind) = doc.kind(cell) { kind } else { CellKind::PLAIN };
            if cells.iter().map(kind).any(|cell| cell.columns != 1 || cell.rows != 1)
                || cells.iter().any(|&cell| !self.is_line(cell))
            {
                return None;
            }
            let headers = cells.iter().map(kind).filter(|cell| cell.header).count();
            match (index, group) {
                (0, Some(RowGroupKind::Head)) => grid.has_head = true,
                (0, _) => grid.has_head = headers == cells.len() && headers > 0,
                (_, Some(RowGroupKind::Head)) => return None,
                (_, group) => {
                    grid.row_headers |= headers > 0;
                    grid.foot |= group == Some(RowGroupKind::Foot);
                }
            }
            grid.rows.push(cells);
        }
        let width = grid.rows.iter().map(Vec::len).max().unwrap_or(0);
        (width > 0).then_some(grid)
    }

    /// Whether a table is a single cell: a box around what it holds, which Markdown has no syntax for.
    pub(super) fn is_box(&self, table: NodeId) -> bool {
        let mut all = rows(self, table).into_iter();
        let (Some((_, row)), None) = (all.next(), all.next()) else { return false };
        let mut cells = self.doc.children(row);
        let is_plain = |cell: NodeId| matches!(self.doc.kind(cell), Kind::Cell(cell) if !cell.header);
        cells.next().is_some_and(is_plain)
            && cells.next().is_none()
            && self.doc.children(table).all(|child| self.doc.kind(child) != Kind::Caption)
    }

    /// Whether a cell holds nothing but a line of text.
    fn is_line(&self, cell: NodeId) -> bool {
        let doc = self.doc;
        let mut children = doc.children(cell);
        match (children.next(), children.next()) {
            (None, _) => true,
            (Some(only), None) if doc.kind(only) == Kind::Paragraph => !doc.node(only).has_attributes(),
            // Several paragraphs can stand on one line with line breaks, which are HTML.
            (Some(first), Some(_)) if doc.kind(first) == Kind::Paragraph => {
                self.options.settings.html == HtmlPieces::Keep
                    && doc.children(cell).all(|child| doc.kind(child) == Kind::Paragraph && !doc.node(child).has_attributes())
            }
            _ => doc.children(cell).all(|child| doc.kind(child).is_inline()),
        }
    }

    /// Writes a table in the syntax for tables.
    pub(super) fn write_grid(&mut self, table: NodeId, grid: &Grid) {
        if let Some(caption) = grid.caption {
            self.no_syntax("captions of tables", table);
            let text = self.line_of(caption);
            self.out.line(&text);
            self.out.line("");
        }
        if grid.row_headers {
            self.no_syntax("headers of table rows", table);
        }
        if grid.foot {
            self.no_syntax("feet of tables", table);
        }
        let columns = grid.rows.iter().map(Vec::len).max().unwrap_or(0);
        let aligns = self.aligns(table, grid, columns);
        let mut texts: Vec<Vec<String>> = Vec::new();
        if !grid.has_head && is_head(self.doc, &grid.rows) {
            let place = self.doc.place(table);
            self.guessed_heads.get_or_insert((0, place)).0 += 1;
        } else if !grid.has_head {
            self.no_syntax("tables without a head", table);
            texts.push(vec![String::new(); columns]);
        }
        for row in &grid.rows {
            let mut cells: Vec<String> = Vec::new();
            for &cell in row {
                let doc = self.doc;
                let paragraphs = doc.children(cell).filter(|&child| doc.kind(child) == Kind::Paragraph);
                let lines: Vec<String> = paragraphs.map(|paragraph| self.cell_text(paragraph)).collect();
                cells.push(if lines.is_empty() { self.cell_text(cell) } else { lines.join("<br><br>") });
            }
            cells.resize(columns, String::new());
            texts.push(cells);
        }
        let mut widths: Vec<usize> =
            (0..columns).map(|column| texts.iter().map(|row| columns_of(&row[column])).max().unwrap_or(0).max(3)).collect();
        if widths.iter().map(|width| width + 3).sum::<usize>() > WIDEST {
            widths.fill(3);
        }
        for (index, row) in texts.iter().enumerate() {
            let mut line = String::from("|");
            for (column, text) in row.iter().enumerate() {
                crate::indent_writer::column(&mut line, text, widths[column], aligns[column]);
            }
            self.out.line(&line);
            if index == 0 {
                let rule = |(width, align): (&usize, &Align)| match align {
                    Align::Left => format!(" :{} |", "-".repeat(width - 1)),
                    Align::Right => format!(" {}: |", "-".repeat(width - 1)),
                    Align::Center => format!(" :{}: |", "-".repeat(width - 2)),
                    _ => format!(" {} |", "-".repeat(*width)),
                };
                let rules: String = widths.iter().zip(&aligns).map(rule).collect();
                self.out.line(&format!("|{rules}"));
            }
        }
    }

    /// How each column is aligned: as the table says, or as its first cell that says something.
    fn aligns(&self, table: NodeId, grid: &Grid, columns: usize) -> Vec<Align> {
        let of = |cell: NodeId| if let Kind::Cell(kind) = self.doc.kind(cell) { kind.align } else { Align::Unsaid };
        let said = self.doc.columns(table);
        (0..columns)
            .map(|column| {
                let own = said.get(column).map_or(Align::Unsaid, |column| column.align);
                let cells = grid.rows.iter().filter_map(|row| row.get(column)).map(|&cell| of(cell));
                std::iter::once(own).chain(cells).find(|align| *align != Align::Unsaid).unwrap_or_default()
            })
            .collect()
    }
}

/// How many columns of the screen a text takes.
fn columns_of(text: &str) -> usize {
    if text.is_ascii() { text.len() } else { text.width() }
}

/// The rows of a table with the groups that they are in.
fn rows(writer: &Writer<'_, '_>, table: NodeId) -> Vec<(Option<RowGroupKind>, NodeId)> {
    let doc = writer.doc;
    let mut rows = Vec::new();
    for child in doc.children(table) {
        match doc.kind(child) {
            Kind::Row => rows.push((None, child)),
            Kind::RowGroup(group) => rows.extend(doc.children(child).map(|row| (Some(group), row))),
            _ => {}
        }
    }
    rows
}
