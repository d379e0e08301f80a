//! Tables (the LaTeX documentation, "tabular"; of longtable, tabularx, booktabs, multirow and array).

use super::Reader;
use super::columns::{ColumnOf, MOST_COLUMNS};
use super::tokens::{Kind as Sign, Token};
use crate::document::{Align, CellKind, Column, Kind, NodeId, RowGroupKind, Scope};

/// A table whose rows are read.
#[derive(Debug)]
pub(super) struct Table {
    node: NodeId,
    body: NodeId,
    row: Option<NodeId>,
    /// The cell that is being filled, and the first column that it is in.
    cell: Option<NodeId>,
    column: usize,
    /// The columns that the source names; some of them are one. The place of the cell among these, and how many it is in.
    columns: Vec<ColumnOf>,
    place: usize,
    width: usize,
    /// Whether what stands around the words of the cell is to be added, and whether what stands behind it has been.
    pub(super) is_pending: bool,
    is_parted: bool,
    rows: usize,
    /// How many rows stand above each rule across the whole table.
    rules: Vec<usize>,
    /// Whether the rules are those of a table whose head they show.
    has_head_rule: bool,
    head: Option<usize>,
    /// How many more rows a cell above goes on for, by column; and how many cells that come next one before them is in.
    covered: Vec<usize>,
    spanned: usize,
    /// How many parts were open before it.
    parts: usize,
}

impl Table {
    pub(super) const fn node(&self) -> NodeId {
        self.node
    }

    /// The column of the cell that is being filled.
    pub(super) fn column_here(&self) -> Option<&ColumnOf> {
        self.columns.get(self.place)
    }

    /// How many columns so many of the source's come to, from the one of the cell that is being filled.
    fn columns_of(&self, count: usize) -> usize {
        let last = (self.place + count).min(self.columns.len());
        let joined = (self.place + 1..last).filter(|at| self.columns[at - 1].joins_next).count();
        count - joined
    }
}

impl Reader<'_> {
    /// Begins a table whose environment has been read.
    pub(super) fn begin_table(&mut self, name: &str) {
        let options = self.input.option().unwrap_or_default();
        if matches!(name, "tabular*" | "tabularx" | "tabulary" | "xltabular" | "tabularx*") {
            self.input.argument();
            self.input.option();
        }
        let mut spec = self.input.argument();
        let has_keys = name.trim_end_matches('*').ends_with("tblr");
        let mut head = None;
        // Some say their columns by a key among others.
        if has_keys && spec.iter().any(|token| self.has_key(token)) {
            let rows = self.input.value_of(&spec, "rowhead");
            head = self.input.characters(&rows).parse::<usize>().ok().filter(|rows| *rows > 0);
            spec = self.input.value_of(&spec, "colspec");
        }
        let columns = self.columns(&spec);
        let node = if self.takes_blocks() {
            self.block(Kind::Table)
        } else {
            // A table within text: what is in it stands in the line.
            let holder = self.holder();
            self.doc.append_at(holder, Kind::Table, self.at)
        };
        self.table_of(node, columns);
        if name == super::examples::GLOSS {
            let class = self.doc.intern(crate::document::GLOSS);
            self.doc.attributes_mut(node).classes.push(class);
        }
        if has_keys {
            if let Some(table) = self.tables.last_mut() {
                table.head = head;
            }
            self.caption_of_options(&options);
        }
    }

    /// `\begin{longtblr}[caption={…},label={…}]`
    fn caption_of_options(&mut self, options: &[Token]) {
        let at = self.at;
        for command in ["label", "caption"] {
            let words = self.input.value_of(options, command);
            if !words.is_empty() && words.iter().all(|token| token.kind.command() != Some("empty")) {
                self.input.push_command(command, vec![words], at);
            }
        }
    }

    /// The cell that is being filled is in so many rows and columns, whose cells are written nevertheless.
    fn span(&mut self, rows: &str, columns: &str, align: Option<Align>) {
        let count = |text: &str| text.trim().parse().unwrap_or(1_u16).clamp(1, 1000);
        let (rows, columns) = (count(rows), count(columns));
        self.change_cell(|kind| CellKind { rows, columns, align: align.unwrap_or(kind.align), ..kind });
        if let Some(table) = self.tables.last_mut() {
            table.spanned = usize::from(columns) - 1;
        }
    }

    fn has_key(&self, token: &Token) -> bool {
        matches!(token.kind, Sign::Text(start, end) if self.input.slice(start, end).contains('='))
    }

    pub(super) fn table_of(&mut self, node: NodeId, columns: Vec<ColumnOf>) {
        let body = self.doc.append_at(node, Kind::RowGroup(RowGroupKind::Body), self.at);
        self.tables.push(Table {
            node,
            body,
            row: None,
            cell: None,
            column: 0,
            columns,
            place: 0,
            width: 1,
            is_pending: false,
            is_parted: false,
            rows: 0,
            rules: Vec::new(),
            has_head_rule: false,
            head: None,
            covered: Vec::new(),
            spanned: 0,
            parts: self.parts.len(),
        });
        // What stands outside of cells goes nowhere.
        let cell = self.open_cell();
        if let Some(cell) = cell {
            self.begin_part(cell, false);
        }
    }

    /// Begins a cell, with its row where that has not begun.
    fn open_cell(&mut self) -> Option<NodeId> {
        let at = self.at;
        let table = self.tables.last_mut()?;
        let row = match table.row {
            Some(row) => row,
            None => {
                let row = self.doc.append_at(table.body, Kind::Row, at);
                table.row = Some(row);
                (table.column, table.place) = (0, 0);
                row
            }
        };
        let column = table.columns.get(table.place);
        let align = column.map(|column| column.align).unwrap_or_default();
        table.is_pending = column.is_some_and(ColumnOf::has_surroundings);
        table.width = 1;
        let cell = self.doc.append_at(row, Kind::Cell(CellKind { align, ..CellKind::PLAIN }), at);
        table.cell = Some(cell);
        Some(cell)
    }

    /// Ends the cell that is being filled.
    fn close_cell(&mut self) {
        let Some(table) = self.tables.last() else { return };
        let parts = table.parts;
        while self.parts.len() > parts {
            self.end_part();
        }
        let Some(table) = self.tables.last_mut() else { return };
        let Some(cell) = table.cell.take() else { return };
        let Kind::Cell(kind) = self.doc.kind(cell) else { return };
        // A cell that one before it is in.
        if kind.columns == 1 && table.spanned > 0 {
            table.spanned -= 1;
            table.place = (table.place + 1).min(MOST_COLUMNS);
            if self.doc.node(cell).first_child().is_none() {
                self.doc.detach(cell);
            }
            return;
        }
        let column = table.column;
        table.column = (table.column + usize::from(kind.columns)).min(MOST_COLUMNS);
        table.place = (table.place + table.width).min(MOST_COLUMNS);
        table.is_parted = false;
        let is_empty = self.doc.node(cell).first_child().is_none();
        if is_empty && table.covered.get(column).is_some_and(|rows| *rows > 0) {
            self.doc.detach(cell);
        } else {
            if kind.rows > 1 {
                let end = (column + usize::from(kind.columns)).min(MOST_COLUMNS);
                if table.covered.len() < end {
                    table.covered.resize(end, 0);
                }
                table.covered[column..end].fill(usize::from(kind.rows));
            }
            self.open_only_paragraph(cell);
        }
    }

    /// `&`
    pub(super) fn next_cell(&mut self) {
        let is_here = self.tables.last().is_some_and(|table| self.parts.len() > table.parts);
        if !is_here {
            return self.text("&");
        }
        if self.parts_columns() {
            return;
        }
        self.close_cell();
        if self.tables.last().is_some_and(|table| table.column >= MOST_COLUMNS) {
            return;
        }
        if let Some(cell) = self.open_cell() {
            self.begin_part(cell, false);
        }
    }

    /// Puts what stands between two columns before what comes next. Whether something stands there.
    fn parts_columns(&mut self) -> bool {
        let at = self.at;
        let Some(table) = self.tables.last_mut() else { return false };
        let last = table.place + table.width - 1;
        let Some(column) = table.columns.get(last).filter(|column| !column.between.is_empty()) else { return false };
        let (between, joins) = (column.between.clone(), column.joins_next);
        if std::mem::take(&mut table.is_parted) {
            return false;
        }
        if joins {
            table.width += 1;
            table.is_pending = false;
        } else {
            table.is_parted = true;
            self.input.push(Sign::Cell, at);
        }
        // White space around the sign that parts the cells says nothing.
        self.trim_line();
        if joins {
            self.input.skip_white();
        }
        self.input.push_all(between.into_iter());
        true
    }

    /// `\\`
    pub(super) fn next_row(&mut self) {
        self.close_cell();
        self.close_row(false);
        if let Some(cell) = self.open_cell() {
            self.begin_part(cell, false);
        }
    }

    fn close_row(&mut self, is_last: bool) {
        let Some(table) = self.tables.last_mut() else { return };
        let Some(row) = table.row.take() else { return };
        table.spanned = 0;
        // A row with nothing but one empty cell is none.
        let cells: Vec<NodeId> = self.doc.children(row).collect();
        // What ends a caption ends no row.
        let first = self.doc.node(table.node).first_child();
        let is_caption = table.rows == 0 && first.is_some_and(|first| self.doc.kind(first) == Kind::Caption);
        let is_empty = cells.len() <= 1
            && (table.columns.len() > 1 || is_last || is_caption)
            && cells.first().is_none_or(|&cell| self.doc.node(cell).first_child().is_none())
            && table.covered.iter().all(|rows| *rows == 0);
        if is_empty || cells.is_empty() && table.covered.iter().all(|rows| *rows == 0) {
            self.doc.detach(row);
            return;
        }
        table.rows += 1;
        table.covered.iter_mut().for_each(|rows| *rows = rows.saturating_sub(1));
    }

    /// Commands that mean something in tables alone. Whether a command is one.
    pub(super) fn table_command(&mut self, name: &str) -> bool {
        if self.tables.is_empty() {
            return false;
        }
        match name {
            "hline" | "toprule" | "midrule" | "bottomrule" | "specialrule" | "Xhline" | "hhline" | "morecmidrules"
            | "tableline" => {
                match name {
                    "specialrule" => drop((self.input.argument(), self.input.argument(), self.input.argument())),
                    "Xhline" | "hhline" => drop(self.input.argument()),
                    _ => drop(self.input.option()),
                }
                if let Some(table) = self.tables.last_mut() {
                    table.has_head_rule |= name == "midrule" || table.rules.last() == Some(&table.rows) && table.rows > 0;
                    table.rules.push(table.rows);
                }
            }
            "cline" | "cmidrule" => {
                self.input.option();
                // How much of the rule is cut stands in parentheses before its columns.
                while let Some(token) = self.input.next() {
                    if matches!(token.kind, Sign::Begin | Sign::Par | Sign::Cell | Sign::End | Sign::Command(_)) {
                        self.input.made.push(token);
                        break;
                    }
                }
                self.input.argument();
            }
            "addlinespace" => drop(self.input.option()),
            "cdashline" | "cdashlinelr" => drop(self.input.argument()),
            "diagbox" | "slashbox" | "backslashbox" => {
                self.input.option();
                let (first, second) = (self.input.argument(), self.input.argument());
                let at = self.at;
                self.input.push_all(second.into_iter());
                self.input.push_characters(" / ", at);
                self.input.push_all(first.into_iter());
            }
            "tabularnewline" => {
                self.input.option();
                self.next_row();
            }
            "tablehead" => {
                let head = self.input.argument();
                let at = self.at;
                self.input.push(Sign::Command("endhead".into()), at);
                self.input.push(Sign::Command("\\".into()), at);
                self.input.push_all(head.into_iter());
            }
            "endfirsthead" | "endhead" => {
                let Some(table) = self.tables.last_mut() else { return true };
                let known = table.head;
                let rows = table.rows;
                match known {
                    // The head of the pages behind the first says the same.
                    Some(head) => self.drop_rows(head),
                    None => table.head = Some(rows),
                }
            }
            "endfoot" | "endlastfoot" => {
                let head = self.tables.last().and_then(|table| table.head).unwrap_or(0);
                self.drop_rows(head);
            }
            _ => return self.cell_command(name),
        }
        true
    }

    /// Commands that say something of cells. Whether a command is one.
    fn cell_command(&mut self, name: &str) -> bool {
        match name {
            "multicolumn" => self.multicolumn(),
            // Of tabularray, and of nicematrix.
            "SetCell" => {
                let options = self.input.option().unwrap_or_default();
                let look = self.input.argument();
                let [rows, columns] = ["r", "c"].map(|key| {
                    let value = self.input.value_of(&options, key);
                    self.input.characters(&value)
                });
                let align = align_among(&self.input.characters(&look));
                self.span(&rows, &columns, align);
            }
            "Block" => {
                let look = self.input.option().unwrap_or_default();
                // Where nothing is said, it stands in the middle.
                let align = align_among(&self.input.characters(&look)).or(Some(Align::Center));
                let size = self.input.argument();
                let size = self.input.characters(&size);
                let (rows, columns) = size.split_once('-').unwrap_or(("1", "1"));
                self.span(rows, columns, align);
            }
            "SetRow" | "SetRows" | "SetColumn" | "SetColumns" | "SetCells" | "RowStyle" => self.skip_arguments("om"),
            "SetHline" | "SetVline" | "SetHlines" | "SetVlines" => self.skip_arguments("omm"),
            "multirow" => {
                self.input.option();
                let count = self.input.argument();
                self.input.option();
                self.input.argument();
                self.input.option();
                let count = self.input.characters(&count).parse().unwrap_or(1_u16).clamp(1, 1000);
                self.change_cell(|kind| CellKind { rows: count, ..kind });
            }
            "rowcolor" | "cellcolor" | "columncolor" | "arrayrulecolor" | "rowcolors" => {
                self.input.option();
                self.input.argument();
            }
            "tnote" => {
                self.styled_argument(Kind::Superscript);
            }
            _ => return false,
        }
        true
    }

    /// A cell in several columns, which has its own column in place of theirs.
    fn multicolumn(&mut self) {
        let (count, spec) = (self.input.argument(), self.input.argument());
        let count = self.input.characters(&count).parse().unwrap_or(1_u16).clamp(1, 1000);
        let column = self.columns(&spec).into_iter().next().unwrap_or_default();
        let mut columns = count;
        if let Some(table) = self.tables.last_mut() {
            columns = table.columns_of(usize::from(count)) as u16;
            table.width = usize::from(count);
            table.is_parted = true;
        }
        self.change_cell(|kind| CellKind { columns, align: column.align, ..kind });
        if column.has_surroundings() {
            let words = self.input.argument();
            self.input.push(Sign::End, self.at);
            self.input.push_all(column.behind.into_iter());
            self.input.push_all(words.into_iter());
            self.input.push_all(column.before.into_iter());
            self.input.push(Sign::Begin, self.at);
        }
    }

    fn change_cell(&mut self, change: impl Fn(CellKind) -> CellKind) {
        if let Some(cell) = self.tables.last().and_then(|table| table.cell)
            && let Kind::Cell(kind) = self.doc.kind(cell)
        {
            self.doc.set_kind(cell, Kind::Cell(change(kind)));
        }
    }

    /// A header cell that stands before its row.
    pub(super) fn row_heading(&mut self) {
        self.change_cell(|kind| CellKind { header: true, scope: Scope::Row, ..kind });
        if self.input.takes_begin() {
            self.open_group(super::Closing::Group);
        }
    }

    /// Drops the row that is being filled, and begins another.
    pub(super) fn drop_row(&mut self) {
        let Some(row) = self.tables.last().and_then(|table| table.row) else { return };
        self.close_cell();
        self.doc.detach(row);
        if let Some(table) = self.tables.last_mut() {
            table.row = None;
        }
        if let Some(cell) = self.open_cell() {
            self.begin_part(cell, false);
        }
    }

    /// Drops the rows behind the first.
    fn drop_rows(&mut self, kept: usize) {
        let Some(table) = self.tables.last_mut() else { return };
        let current = table.row;
        let rows: Vec<NodeId> = self.doc.children(table.body).filter(|row| Some(*row) != current).collect();
        for row in rows.iter().skip(kept) {
            self.doc.detach(*row);
        }
        table.rows = table.rows.min(kept);
    }

    /// Ends the table whose environment ends.
    pub(super) fn end_table(&mut self) {
        self.close_cell();
        self.close_row(true);
        let Some(table) = self.tables.pop() else { return };
        let rows: Vec<NodeId> = self.doc.children(table.body).collect();
        let inner: Vec<usize> = table.rules.iter().copied().filter(|rule| *rule > 0 && *rule < rows.len()).collect();
        let by_rule = match inner.first() {
            // Rules between all rows show nothing.
            Some(first)
                if *first <= 4 && (table.has_head_rule || inner.len() == 1 || rows.len() > 2 && inner.len() < rows.len() - 1) =>
            {
                *first
            }
            _ => 0,
        };
        let head = table.head.unwrap_or(by_rule).min(rows.len().saturating_sub(1));
        if head > 0 {
            let group = self.doc.create(Kind::RowGroup(RowGroupKind::Head));
            self.doc.move_before(table.body, group);
            for row in &rows[..head] {
                self.doc.move_into(group, *row);
                for cell in self.doc.children(*row).collect::<Vec<_>>() {
                    if let Kind::Cell(kind) = self.doc.kind(cell) {
                        self.doc.set_kind(cell, Kind::Cell(CellKind { header: true, ..kind }));
                    }
                }
            }
        }
        if rows.is_empty() {
            self.doc.detach(table.node);
            return;
        }
        if table.columns.iter().any(|column| column.align != Align::Unsaid) {
            let first = table.columns.iter().enumerate().filter(|(at, _)| *at == 0 || !table.columns[at - 1].joins_next);
            let columns = first.map(|(_, column)| Column { align: column.align, width: 0 }).collect();
            self.doc.set_columns(table.node, columns);
        }
        let end = self.at;
        self.doc.set_end(table.node, end.max(self.doc.node(table.node).offset()));
    }

    /// Ends tables that their source does not end.
    pub(super) fn close_tables(&mut self) {
        while !self.tables.is_empty() {
            self.end_table();
        }
    }

    /// A row ends, or a line.
    pub(super) fn line_ends(&mut self) {
        self.input.take('*');
        let is_row = self.tables.last().is_some_and(|table| self.parts.len() == table.parts + 1);
        // A bracket behind it says how far the next line is away.
        let next: Option<Token> = self.input.next();
        if let Some(token) = next {
            let is_option = token.kind == Sign::Char('[');
            self.input.made.push(token);
            if is_option {
                self.input.option();
            }
        }
        // Behind the last line of a stanza stands another sign (the documentation of verse).
        if self.environments.last().is_some_and(|environment| environment.name == "verse") && self.input.take('!') {
            return self.end_paragraph();
        }
        if is_row {
            self.next_row();
        } else if self.is_in_text() {
            self.trim_line();
            self.inline(Kind::LineBreak);
        }
    }
}

/// Where the words of a cell stand, among settings that may say it: `c`, or `halign=c`.
fn align_among(settings: &str) -> Option<Align> {
    settings.split(',').find_map(|setting| match setting.trim().trim_start_matches("halign=").trim() {
        "l" => Some(Align::Left),
        "c" => Some(Align::Center),
        "r" => Some(Align::Right),
        _ => None,
    })
}
