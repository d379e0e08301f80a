//! Tables: cells between bars, in columns that stand below each other also where characters are wide.

use super::Writer;
use crate::document::{Align, Kind, NodeId, RowGroupKind, Step};
use crate::indent_writer::column;
use unicode_width::UnicodeWidthStr;

impl Writer<'_> {
    /// Writes a table. What merged cells hold stands in the first of the places that they take.
    pub(super) fn table(&mut self, id: NodeId) {
        let doc = self.doc;
        if let Some(write) = self.element.filter(|_| self.needs_html(id)) {
            let html = write(doc, id, true);
            self.begin_table();
            self.out.line("#+begin_export html");
            self.out.lines(html.trim_end());
            self.out.line("#+end_export");
            return;
        }
        let mut rows: Vec<Option<Vec<String>>> = Vec::new();
        let mut has_head = false;
        let mut widest = 0;
        for (is_head, group) in self.groups(id) {
            // Without a head, a line would make one of what is above it.
            if !rows.is_empty() && has_head {
                rows.push(None);
            }
            has_head |= is_head;
            // Places that cells of rows above take.
            let mut taken: Vec<u16> = Vec::new();
            for row in group {
                let cells = self.row(row, &mut taken);
                widest = widest.max(cells.len());
                rows.push(Some(cells));
            }
        }
        if rows.is_empty() {
            // Of a table without rows the caption is left.
            let caption = doc.children(id).find(|&child| doc.kind(child) == Kind::Caption);
            let ends = caption.and_then(|caption| doc.node(caption).first_child().zip(doc.node(caption).last_child()));
            if let Some((first, last)) = ends {
                self.paragraph(first, last);
            }
            return;
        }
        if has_head && rows.last().is_some_and(Option::is_some) && !rows.contains(&None) {
            rows.push(None);
        }
        self.caption_of(id);
        self.begin_table();
        let aligns = self.aligns(id, widest);
        self.write_rows(&rows, &aligns);
    }

    /// Whether a table has merged cells, or more than text in a cell.
    fn needs_html(&self, id: NodeId) -> bool {
        let doc = self.doc;
        let is_plain = |child: NodeId| doc.kind(child).is_inline() || doc.kind(child) == Kind::Paragraph;
        doc.walk(id).any(|step| match step {
            Step::Enter(cell) => match doc.kind(cell) {
                Kind::Cell(kind) => {
                    let blocks = doc.children(cell).filter(|&child| !doc.kind(child).is_inline()).count();
                    kind.columns > 1 || kind.rows > 1 || blocks > 1 || !doc.children(cell).all(is_plain)
                }
                _ => false,
            },
            Step::Leave(_) => false,
        })
    }

    /// The groups of rows of a table, and whether each is the head; rows in no group are one.
    fn groups(&self, table: NodeId) -> Vec<(bool, Vec<NodeId>)> {
        let doc = self.doc;
        let mut groups: Vec<(bool, Vec<NodeId>)> = Vec::new();
        let mut is_loose = false;
        for child in doc.children(table) {
            match doc.kind(child) {
                Kind::RowGroup(kind) => groups.push((kind == RowGroupKind::Head, doc.children(child).collect())),
                Kind::Row if is_loose => groups.last_mut().into_iter().for_each(|(_, rows)| rows.push(child)),
                Kind::Row => groups.push((false, vec![child])),
                _ => continue,
            }
            is_loose = doc.kind(child) == Kind::Row;
        }
        groups
    }

    /// The cells of a row as text.
    fn row(&mut self, row: NodeId, taken: &mut Vec<u16>) -> Vec<String> {
        let doc = self.doc;
        let mut cells: Vec<String> = Vec::new();
        let mut skip = |cells: &mut Vec<String>| {
            while let Some(left) = taken.get_mut(cells.len()).filter(|left| **left > 0) {
                *left -= 1;
                cells.push(String::new());
            }
        };
        let mut spans = Vec::new();
        for cell in doc.children(row).collect::<Vec<_>>() {
            let Kind::Cell(kind) = doc.kind(cell) else { continue };
            skip(&mut cells);
            if kind.columns > 1 || kind.rows > 1 {
                self.no_syntax("merged cells", cell);
            }
            spans.push((cells.len(), kind.columns, kind.rows));
            cells.push(self.cell(cell));
            for _ in 1..kind.columns.min(1000) {
                cells.push(String::new());
            }
        }
        skip(&mut cells);
        for (at, columns, rows) in spans {
            for column in at..at + usize::from(columns.min(1000)) {
                if taken.len() <= column {
                    taken.resize(column + 1, 0);
                }
                taken[column] = taken[column].max(rows.saturating_sub(1));
            }
        }
        cells
    }

    fn cell(&mut self, cell: NodeId) -> String {
        let doc = self.doc;
        let mut parts = Vec::new();
        let mut at = doc.node(cell).first_child();
        let mut blocks = 0;
        while let Some(id) = at {
            if doc.kind(id).is_inline() {
                let mut last = id;
                while let Some(next) = doc.node(last).next().filter(|&next| doc.kind(next).is_inline()) {
                    last = next;
                }
                parts.push(self.text(id, last));
                at = doc.node(last).next();
                continue;
            }
            blocks += 1;
            parts.push(if doc.kind(id) == Kind::Paragraph { self.line_below(id) } else { doc.plain_text(id) });
            at = doc.node(id).next();
        }
        if blocks > 1 || (blocks == 1 && doc.node(cell).first_child().is_some_and(|first| doc.kind(first) != Kind::Paragraph)) {
            self.no_syntax("blocks in cells", cell);
        }
        let text = parts.join(" ").replace("\\\\\n", " ");
        text.split_ascii_whitespace().collect::<Vec<_>>().join(" ").replace('|', "\\vert{}")
    }

    /// How columns are aligned: as they say, or as their cells do.
    fn aligns(&self, table: NodeId, columns: usize) -> Vec<Align> {
        let doc = self.doc;
        let mut aligns: Vec<Align> = doc.columns(table).iter().map(|column| column.align).collect();
        aligns.resize(columns, Align::Unsaid);
        let first = self.groups(table).into_iter().find_map(|(_, rows)| rows.first().copied());
        for (place, cell) in first.into_iter().flat_map(|row| doc.children(row)).enumerate() {
            if let (Kind::Cell(kind), Some(align)) = (doc.kind(cell), aligns.get_mut(place))
                && *align == Align::Unsaid
            {
                *align = kind.align;
            }
        }
        aligns
    }

    fn write_rows(&mut self, rows: &[Option<Vec<String>>], aligns: &[Align]) {
        let cookies: Option<Vec<String>> = aligns
            .iter()
            .any(|align| !cookie(*align).is_empty())
            .then(|| aligns.iter().map(|align| cookie(*align).to_owned()).collect());
        let mut widths = vec![1; aligns.len()];
        for cells in rows.iter().flatten().chain(&cookies) {
            for (width, cell) in widths.iter_mut().zip(cells) {
                *width = cell.width().max(*width);
            }
        }
        let write = |cells: &[String]| {
            let mut line = String::from("|");
            for (place, width) in widths.iter().enumerate() {
                let align = aligns.get(place).copied().unwrap_or_default();
                column(&mut line, cells.get(place).map_or("", String::as_str), *width, align);
            }
            line
        };
        let mut lines: Vec<String> = Vec::new();
        for row in rows {
            match row {
                Some(cells) => lines.push(write(cells)),
                None => {
                    let dashes: Vec<String> = widths.iter().map(|width| "-".repeat(width + 2)).collect();
                    lines.push(format!("|{}|", dashes.join("+")));
                }
            }
        }
        if let Some(cookies) = cookies {
            // Below the head, or where there is none, at the top.
            let place = rows.iter().position(Option::is_none).map_or(0, |line| line + 1);
            lines.insert(place, write(&cookies));
        }
        for line in lines {
            self.out.line(&line);
        }
    }
}

const fn cookie(align: Align) -> &'static str {
    match align {
        Align::Left => "<l>",
        Align::Right => "<r>",
        Align::Center => "<c>",
        Align::Unsaid | Align::Justify => "",
    }
}
