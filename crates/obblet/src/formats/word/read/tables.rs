//! Tables: rows and cells on a grid, cells that go on from the row above, and rows that a style sets apart (ECMA-376, part 1,
//! section 17.4).

use super::super::model::properties::{self, Alignment, Borders, Colour, Flag, Name, Vocabulary};
use super::super::model::styles::{InCell, StyleKind, TableLook, TablePart, TableStyle};
use super::super::xml::{Event, Xml, next_child};
use super::Reader;
use crate::document::{Align, CellKind, Column, HintRole, Kind, Line, NodeId, Property, RowGroupKind, Scope, Step, Value};
use crate::refine::revisions::Revisions;
use std::borrow::Cow;

/// The row of a table that is being read.
#[derive(Clone, Copy, Debug, Default)]
struct OpenRow {
    node: Option<NodeId>,
    /// Where it begins.
    offset: u32,
    is_head: bool,
    gone: Option<Gone>,
}

/// A table that is being read.
#[derive(Debug)]
pub(super) struct OpenTable {
    pub(super) node: NodeId,
    pub(super) style: Option<Name>,
    /// Which parts of the style apply: first and last row and column, bands of rows and columns.
    pub(super) look: TableParts,
    pub(super) borders: Borders,
    pub(super) grid: Vec<i32>,
    pub(super) width: Option<(i32, bool)>,
    pub(super) alignment: Option<Alignment>,
    pub(super) indent: i32,
    group: Option<(NodeId, RowGroupKind)>,
    row: OpenRow,
    /// Rows so far, and the column of the grid where the next cell begins.
    pub(super) rows: usize,
    pub(super) column: usize,
    /// Cells that may go on in the next row, by the column where they begin.
    open_cells: Vec<(usize, NodeId)>,
    pub(super) cell: Option<OpenCell>,
    /// How the paragraphs of the cell are aligned, where they all are.
    aligned: Option<Option<Align>>,
    /// What the style says of the text of the cell.
    in_cell: Option<InCell>,
    pub(super) right_to_left: bool,
    pub(super) most_columns: usize,
    head_rows: usize,
    /// How high the empty paragraphs above the table are, and those of the cell; twips.
    pub(super) space_above: i32,
    pub(super) cell_space: i32,
    /// How cells look, where they are to look like the source.
    pub(super) cells: Vec<CellLook>,
    bordered: bool,
}

/// Why a row is left out.
#[derive(Clone, Copy, Debug, PartialEq, Eq)]
enum Gone {
    Hidden,
    Revised,
}

/// How a cell looks, and where it stands.
#[derive(Clone, Debug)]
pub(super) struct CellLook {
    pub(super) node: NodeId,
    /// From 0.
    pub(super) row: usize,
    pub(super) column: usize,
    pub(super) span: usize,
    pub(super) parts: Vec<TablePart>,
    pub(super) shade: Option<Colour>,
    pub(super) borders: Borders,
    pub(super) vertical: Option<&'static str>,
    /// How high it is though there is nothing in it, in twips.
    pub(super) height: i32,
}

bitflags::bitflags! {
    /// The parts of its style that a table shows.
    #[derive(Clone, Copy, Debug, Default, PartialEq, Eq, Hash)]
    pub(super) struct TableParts: u8 {
        /// The first row.
        const FIRST_ROW = 1 << 0;
        /// The last row.
        const LAST_ROW = 1 << 1;
        /// The first column.
        const FIRST_COLUMN = 1 << 2;
        /// The last column.
        const LAST_COLUMN = 1 << 3;
        /// Rows in turn.
        const ROW_BANDS = 1 << 4;
        /// Columns in turn.
        const COLUMN_BANDS = 1 << 5;
    }
}

/// A cell that is being read.
#[derive(Debug, Default)]
pub(super) struct OpenCell {
    pub(super) node: Option<NodeId>,
    span: usize,
    /// Whether it goes on from the row above.
    goes_on: bool,
    /// The cell whose content is shown instead of its own: that one goes on in it.
    shown_instead: Option<NodeId>,
    begins: bool,
    pub(super) shade: Option<Colour>,
    pub(super) borders: Borders,
    pub(super) vertical: Option<&'static str>,
}

impl OpenTable {
    /// What the style says of the text of the cell.
    pub(super) const fn in_cell(&self) -> Option<&InCell> {
        self.in_cell.as_ref()
    }

    /// Notes how a paragraph of the cell is aligned.
    pub(super) fn align(&mut self, alignment: Option<Alignment>, right_to_left: bool) {
        let align = match alignment {
            Some(Alignment::Center) => Some(Align::Center),
            Some(Alignment::End) => Some(if right_to_left { Align::Left } else { Align::Right }),
            _ => None,
        };
        self.aligned = Some(match self.aligned {
            None => align,
            Some(known) if known == align => align,
            Some(_) => None,
        });
    }

    /// The parts of the style that a cell of the current row is in, the weakest first.
    pub(super) fn parts(&self, style: &TableStyle, column: usize, is_last_column: bool) -> Vec<TablePart> {
        let mut parts = Vec::new();
        let row = self.rows.saturating_sub(1);
        let body_row = row - usize::from(self.look.contains(TableParts::FIRST_ROW) && row > 0);
        let body_column = column - usize::from(self.look.contains(TableParts::FIRST_COLUMN) && column > 0);
        let (high, wide) = (usize::from(style.row_band.unwrap_or(1)), usize::from(style.column_band.unwrap_or(1)));
        if self.look.contains(TableParts::COLUMN_BANDS) {
            parts.push(if (body_column / wide).is_multiple_of(2) { TablePart::Band1Columns } else { TablePart::Band2Columns });
        }
        if self.look.contains(TableParts::ROW_BANDS) {
            parts.push(if (body_row / high).is_multiple_of(2) { TablePart::Band1Rows } else { TablePart::Band2Rows });
        }
        if self.look.contains(TableParts::FIRST_COLUMN) && column == 0 {
            parts.push(TablePart::FirstColumn);
        }
        if self.look.contains(TableParts::LAST_COLUMN) && is_last_column {
            parts.push(TablePart::LastColumn);
        }
        if self.look.contains(TableParts::FIRST_ROW) && row == 0 {
            parts.push(TablePart::FirstRow);
            let corners = [(TablePart::FirstColumn, TablePart::TopLeft), (TablePart::LastColumn, TablePart::TopRight)];
            parts.extend(
                corners.into_iter().filter(|(side, _)| parts.contains(side)).map(|(_, corner)| corner).collect::<Vec<_>>(),
            );
        }
        parts
    }
}

impl Reader<'_, '_> {
    pub(super) fn begin_table(&mut self) {
        self.end_runs_of_blocks();
        let lists = &mut self.context_mut().lists;
        lists.suspend(None, false);
        lists.close(true);
        let container = self.context().container;
        let node = self.doc.append_at(container, Kind::Table, self.place.element);
        self.context_mut().paragraph = None;
        self.tables.push(OpenTable {
            node,
            style: None,
            look: TableParts::FIRST_ROW | TableParts::ROW_BANDS | TableParts::FIRST_COLUMN,
            borders: Borders::default(),
            grid: Vec::new(),
            width: None,
            alignment: None,
            indent: 0,
            group: None,
            row: OpenRow::default(),
            rows: 0,
            column: 0,
            open_cells: Vec::new(),
            cell: None,
            aligned: None,
            in_cell: None,
            right_to_left: false,
            most_columns: 0,
            head_rows: 0,
            space_above: std::mem::take(&mut self.looks.space_above),
            cell_space: 0,
            cells: Vec::new(),
            bordered: false,
        });
    }

    /// Reads `tblPr`, which was opened last, to its end.
    pub(super) fn table_properties(&mut self, xml: &mut Xml<'_>) {
        let Some(table) = self.tables.last_mut() else { return xml.skip() };
        let words =
            Vocabulary { names: &mut self.model.names, theme: &self.model.theme, looks: self.options.fidelity.is_exact() };
        let (mut title, mut description) = (None, None);
        while let Some(Event::Open(element)) = next_child(xml) {
            match element.local() {
                b"tblCaption" => title = element.val().map(Cow::into_owned),
                b"tblDescription" => description = element.val().map(Cow::into_owned),
                b"tblStyle" => table.style = element.val().map(|id| words.names.number(&id)),
                b"tblLook" => table.look = table_look(&element),
                b"tblBorders" => {
                    table.borders = properties::borders(xml, &words);
                    continue;
                }
                b"tblW" => {
                    let percent = element.get(b"type").as_deref() == Some("pct");
                    table.width = element.number(b"w").filter(|width| *width > 0).map(|width| (width, percent));
                }
                b"jc" => table.alignment = element.val().and_then(|value| properties::alignment(&value)),
                b"tblInd" => table.indent = element.number(b"w").unwrap_or(0),
                b"bidiVisual" => table.right_to_left = element.is_on(),
                _ => {}
            }
            xml.skip();
        }
        let (node, right_to_left) = (table.node, table.right_to_left);
        // The alternative text of a table (section 17.4.7), which no page shows of itself.
        let about: Vec<String> = title.into_iter().chain(description).filter(|text| !text.trim().is_empty()).collect();
        if !about.is_empty() {
            let about = self.doc.intern(&about.join(": "));
            self.doc.attributes_mut(node).title = Some(about);
        }
        if right_to_left {
            self.languages.tables_run_left = true;
            self.doc.attributes_mut(node).direction = Some(crate::document::Direction::RightToLeft);
        }
        if self.options.fidelity.keeps_names() {
            self.style_table();
        }
    }

    pub(super) fn table_grid(&mut self, xml: &mut Xml<'_>) {
        while let Some(Event::Open(element)) = next_child(xml) {
            if let Some(table) = self.tables.last_mut().filter(|_| element.is(b"gridCol")) {
                table.grid.push(element.number(b"w").unwrap_or(0).max(0));
            }
            xml.skip();
        }
    }

    pub(super) fn begin_row(&mut self) {
        let Some(table) = self.tables.last_mut() else { return };
        table.rows += 1;
        table.column = 0;
        table.row = OpenRow { offset: self.place.element, ..OpenRow::default() };
    }

    /// Reads `trPr`, which was opened last, to its end.
    pub(super) fn row_properties(&mut self, xml: &mut Xml<'_>) {
        let (mut before, mut is_head, mut inserted, mut deleted, mut hidden) = (0, false, false, false, false);
        let mut height = 0;
        while let Some(Event::Open(element)) = next_child(xml) {
            match element.local() {
                b"gridBefore" => before = element.number(b"val").unwrap_or(0).clamp(0, 500) as usize,
                b"tblHeader" => is_head = element.is_on(),
                b"trHeight" => height = element.number(b"val").unwrap_or(0),
                b"ins" => inserted = true,
                b"del" => deleted = true,
                b"hidden" => hidden = element.is_on(),
                _ => {}
            }
            xml.skip();
        }
        self.reviews.count += usize::from(inserted || deleted);
        let gone = match self.options.revisions {
            Revisions::Auto | Revisions::Recorded | Revisions::Accept => deleted,
            Revisions::Reject => inserted,
            Revisions::Keep => false,
        };
        let Some(table) = self.tables.last_mut() else { return };
        table.row.is_head = is_head;
        table.row.gone =
            if gone { Some(Gone::Revised) } else { (hidden && !self.options.settings.hidden).then_some(Gone::Hidden) };
        if table.row.gone.is_some() {
            return;
        }
        if height > 0 && self.options.fidelity.is_exact() {
            let row = self.row();
            self.add_rules(row, "row", vec![(Property::Height, Value::twips(height))]);
        }
        if before > 0 {
            let row = self.row();
            self.doc.append_at(row, Kind::Cell(CellKind { columns: before as u16, ..CellKind::PLAIN }), self.place.paragraph);
            if let Some(table) = self.tables.last_mut() {
                table.column = before;
            }
        }
    }

    /// The row that is being read, in the group that it belongs to.
    fn row(&mut self) -> NodeId {
        let Some(table) = self.tables.last_mut() else { return self.context().container };
        if let Some(row) = table.row.node {
            return row;
        }
        let first_row_is_head = table.rows == 1 && table.look.contains(TableParts::FIRST_ROW) && {
            let style = self.model.styles.of_table(table.style).and_then(|style| style.table.as_deref());
            style.and_then(|style| style.part(TablePart::FirstRow)).is_some_and(TableLook::sets_apart)
        };
        let is_head = (table.row.is_head || first_row_is_head) && table.head_rows + 1 == table.rows;
        table.head_rows += usize::from(is_head);
        let kind = if is_head { RowGroupKind::Head } else { RowGroupKind::Body };
        let group = match table.group {
            Some((group, known)) if known == kind => group,
            _ => {
                let group = self.doc.append_at(table.node, Kind::RowGroup(kind), self.place.paragraph);
                table.group = Some((group, kind));
                group
            }
        };
        let row = if table.row.gone.is_some() {
            // It is read all the same: fields and numbers run on in it.
            self.doc.create(Kind::Row)
        } else {
            self.doc.append_at(group, Kind::Row, table.row.offset)
        };
        table.row.node = Some(row);
        row
    }

    pub(super) fn begin_cell(&mut self) {
        if self.tables.is_empty() {
            // A cell that stands nowhere holds text all the same.
            let container = self.context().container;
            self.begin_context(container);
            return;
        }
        self.row();
        if let Some(table) = self.tables.last_mut() {
            table.cell = Some(OpenCell { span: 1, ..OpenCell::default() });
            table.aligned = None;
        }
        // Its properties say what it is; one without any is a cell like another.
        let holder = self.doc.create(Kind::Cell(CellKind::PLAIN));
        self.doc.set_offset(holder, self.place.element);
        let context = self.begin_context(holder);
        context.in_cell = true;
        self.place_cell(holder);
    }

    /// Reads `tcPr`, which was opened last, to its end.
    pub(super) fn cell_properties(&mut self, xml: &mut Xml<'_>) {
        let mut cell = OpenCell { span: 1, ..OpenCell::default() };
        let mut joins_left = false;
        let words =
            Vocabulary { names: &mut self.model.names, theme: &self.model.theme, looks: self.options.fidelity.is_exact() };
        while let Some(Event::Open(element)) = next_child(xml) {
            match element.local() {
                b"gridSpan" => cell.span = element.number(b"val").unwrap_or(1).clamp(1, 1000) as usize,
                b"vMerge" => {
                    let restarts = element.val().as_deref() == Some("restart");
                    (cell.begins, cell.goes_on) = (restarts, !restarts);
                }
                b"hMerge" => joins_left = element.val().as_deref() != Some("restart"),
                b"shd" => cell.shade = properties::shade(&element, &words),
                b"tcBorders" => {
                    cell.borders = properties::borders(xml, &words);
                    continue;
                }
                b"vAlign" => {
                    cell.vertical = match element.val().as_deref() {
                        Some("center") => Some("middle"),
                        Some("bottom") => Some("bottom"),
                        _ => None,
                    }
                }
                _ => {}
            }
            xml.skip();
        }
        let holder = self.context().container;
        let Some(table) = self.tables.last_mut() else { return };
        // A cell whose properties follow its text stays as it is.
        if table.cell.as_ref().and_then(|known| known.node).is_some_and(|known| known != holder) {
            return;
        }
        cell.node = Some(holder);
        let column = table.column;
        let goes_on =
            cell.goes_on.then(|| table.open_cells.iter().find(|(at, _)| *at == column).map(|(_, node)| *node)).flatten();
        let left = if joins_left { self.doc.node(holder).previous() } else { None };
        cell.shown_instead = goes_on.or(left);
        table.cell = Some(cell);
        if let Some(above) = goes_on {
            self.doc.detach(holder);
            if let Kind::Cell(kind) = self.doc.kind(above) {
                self.doc.set_kind(above, Kind::Cell(CellKind { rows: kind.rows.saturating_add(1), ..kind }));
            }
        } else if let Some(left) = left
            && let Kind::Cell(kind) = self.doc.kind(left)
        {
            self.doc.set_kind(left, Kind::Cell(CellKind { columns: kind.columns.saturating_add(1), ..kind }));
            self.doc.detach(holder);
        }
        self.style_cell(holder);
    }

    /// Puts a cell into its row.
    fn place_cell(&mut self, holder: NodeId) {
        let row = self.row();
        self.doc.attach(row, holder);
        if let Some(table) = self.tables.last_mut() {
            if let Some(cell) = &mut table.cell {
                cell.node = Some(holder);
            }
            table.in_cell = None;
        }
        self.style_cell(holder);
    }

    /// What the style of the table says of the cell.
    fn style_cell(&mut self, holder: NodeId) {
        let Some(table) = self.tables.last_mut() else { return };
        let span = table.cell.as_ref().map_or(1, |cell| cell.span);
        let is_last = !table.grid.is_empty() && table.column + span >= table.grid.len();
        let style = self.model.styles.of_table(table.style).and_then(|style| style.table.as_deref());
        let Some(style) = style else { return };
        table.in_cell = Some(style.in_cell(&table.parts(style, table.column, is_last)));
        let first_column = table.look.contains(TableParts::FIRST_COLUMN) && table.column == 0 && table.rows > table.head_rows;
        if first_column && style.part(TablePart::FirstColumn).is_some_and(|look| look.characters.flags.is(Flag::Bold)) {
            self.doc.set_kind(holder, Kind::Cell(CellKind { header: true, scope: Scope::Row, ..CellKind::PLAIN }));
        }
    }

    pub(super) fn end_cell(&mut self) {
        if self.tables.is_empty() {
            return self.end_context();
        }
        let holder = self.context().container;
        self.doc.set_end(holder, self.place.element);
        self.end_context();
        if let Some(shown) = self.tables.last().and_then(|table| table.cell.as_ref()?.shown_instead) {
            self.content_of_joined(holder, shown);
        }
        // A paragraph that is all of a cell says nothing.
        if let Some(only) = self.doc.node(holder).first_child()
            && self.doc.node(only).next().is_none()
            && self.doc.kind(only) == Kind::Paragraph
            && !self.doc.node(only).has_attributes()
        {
            self.doc.unwrap(only);
        }
        let in_head = self.in_head();
        let Some(table) = self.tables.last_mut() else { return };
        let Some(cell) = table.cell.take() else { return };
        let space = std::mem::take(&mut table.cell_space);
        let height = if self.doc.node(holder).first_child().is_none() { space } else { 0 };
        let column = table.column;
        table.column = (column + cell.span).min(100_000);
        table.most_columns = table.most_columns.max(table.column);
        let Some(row) = table.row.node else { return };
        if self.doc.node(holder).parent() != Some(row) {
            return;
        }
        table.open_cells.retain(|(at, _)| *at < column || *at >= column + cell.span);
        if cell.begins || cell.goes_on {
            table.open_cells.push((column, holder));
        }
        table.bordered |= [cell.borders.top, cell.borders.left, cell.borders.bottom, cell.borders.right]
            .into_iter()
            .flatten()
            .any(|border| border.line != Line::None);
        if self.options.fidelity.is_exact() {
            let style = self.model.styles.of_table(table.style).and_then(|style| style.table.as_deref());
            let is_last = !table.grid.is_empty() && column + cell.span >= table.grid.len();
            let parts = style.map(|style| table.parts(style, column, is_last)).unwrap_or_default();
            table.cells.push(CellLook {
                node: holder,
                row: table.rows.saturating_sub(1),
                column,
                span: cell.span,
                parts,
                shade: cell.shade,
                borders: cell.borders,
                vertical: cell.vertical,
                height,
            });
        }
        if let Kind::Cell(kind) = self.doc.kind(holder) {
            let align = table.aligned.flatten().filter(|_| !self.options.fidelity.is_exact()).unwrap_or_default();
            let header = in_head || kind.header;
            let scope = if in_head { Scope::Unsaid } else { kind.scope };
            let columns = u16::try_from(cell.span).unwrap_or(1);
            self.doc.set_kind(holder, Kind::Cell(CellKind { header, scope, align, columns, rows: 1 }));
        }
    }

    /// What stands in a cell that another one goes on in: word processors do not show it.
    fn content_of_joined(&mut self, holder: NodeId, shown: NodeId) {
        let Some(words) = self.content(holder) else { return };
        if !self.options.settings.hidden {
            return self.diagnostics.hidden.add_apart(self.place.paragraph, &words);
        }
        if let Some(first) = self.doc.node(shown).first_child()
            && self.doc.kind(first).is_inline()
        {
            let paragraph = self.doc.create(Kind::Paragraph);
            self.doc.move_children(shown, paragraph);
            self.doc.attach(shown, paragraph);
        }
        self.doc.move_children(holder, shown);
    }

    /// The words below a node that is left out; none where nothing is to be seen in it.
    fn content(&self, node: NodeId) -> Option<String> {
        let words = self.doc.plain_text(node);
        let holds_more =
            || self.doc.walk(node).any(|step| matches!(step, Step::Enter(id) if matches!(self.doc.kind(id), Kind::Image { .. })));
        (!words.trim().is_empty() || holds_more()).then_some(words)
    }

    fn in_head(&self) -> bool {
        self.tables.last().is_some_and(|table| matches!(table.group, Some((_, RowGroupKind::Head))))
    }

    pub(super) fn end_row(&mut self) {
        let gone = self.tables.last().and_then(|table| Some((table.row.gone?, table.row.node?)));
        if let Some((why, row)) = gone
            && let Some(words) = self.content(row)
        {
            let tally = match why {
                Gone::Hidden => &mut self.diagnostics.hidden,
                Gone::Revised => &mut self.diagnostics.revised,
            };
            tally.add_apart(self.place.paragraph, &words);
        }
        let Some(table) = self.tables.last_mut() else { return };
        if let Some(row) = table.row.node {
            self.doc.set_end(row, self.place.element);
        }
        if let Some(row) = table.row.node.take()
            && self.doc.node(row).first_child().is_none()
        {
            // All of its cells go on from above: HTML has no such rows, and they take no room.
            for (_, cell) in &table.open_cells {
                if let Kind::Cell(kind) = self.doc.kind(*cell) {
                    self.doc.set_kind(*cell, Kind::Cell(CellKind { rows: kind.rows.saturating_sub(1).max(1), ..kind }));
                }
            }
            self.doc.detach(row);
        }
    }

    pub(super) fn end_table(&mut self) {
        let Some(table) = self.tables.pop() else { return };
        let node = table.node;
        self.doc.set_end(node, self.place.element);
        self.resolve_head(&table);
        let groups: Vec<NodeId> = self.doc.children(node).collect();
        for group in groups {
            if self.doc.node(group).first_child().is_none() {
                self.doc.detach(group);
            }
        }
        if self.doc.node(node).first_child().is_none() {
            return self.doc.detach(node);
        }
        let columns = table.grid.iter().map(|width| Column { width: (*width).max(0) as u32, ..Column::default() }).collect();
        self.doc.set_columns(node, columns);
        let style = self.model.styles.get(table.style, StyleKind::Table).and_then(|style| style.table.as_deref());
        let styled = style.map(|style| style.whole.borders).unwrap_or_default();
        let lines = [table.borders, styled];
        let bordered = lines.iter().flat_map(|borders| [borders.top, borders.between, borders.columns, borders.left]);
        let bare = bordered.flatten().all(|border| border.line == Line::None)
            && style.is_none_or(|style| style.parts.is_empty())
            && !table.bordered;
        if bare && (table.rows == 1 || table.most_columns == 1) {
            self.mark(node, HintRole::Layout);
            self.diagnostics.layout_tables.push(self.doc.node(node).offset());
        }
        if self.options.fidelity.is_exact() {
            self.finish_table_look(&table);
        }
    }

    /// A head whose cells go on into the body is no head: in HTML cells end with their group.
    fn resolve_head(&mut self, table: &OpenTable) {
        let Some(head) = self.doc.node(table.node).first_child() else { return };
        if self.doc.kind(head) != Kind::RowGroup(RowGroupKind::Head) {
            return;
        }
        let rows: Vec<NodeId> = self.doc.children(head).collect();
        let count = rows.len();
        let too_high = rows.iter().enumerate().any(|(index, row)| {
            self.doc
                .children(*row)
                .any(|cell| matches!(self.doc.kind(cell), Kind::Cell(kind) if usize::from(kind.rows) > count - index))
        });
        let body = self.doc.node(head).next();
        match body {
            Some(body) if too_high => {
                let first = self.doc.node(body).first_child();
                for row in rows {
                    match first {
                        Some(first) => self.doc.move_before(first, row),
                        None => self.doc.move_into(body, row),
                    }
                }
                self.doc.detach(head);
            }
            // A table of nothing but heads has none.
            None => self.doc.set_kind(head, Kind::RowGroup(RowGroupKind::Body)),
            _ => {}
        }
    }
}

/// Which parts of its style a table shows (section 17.4.56): by attributes, or by the bits of a number.
fn table_look(element: &super::super::xml::Element<'_>) -> TableParts {
    let bits = element.val().and_then(|digits| u32::from_str_radix(&digits, 16).ok()).unwrap_or(0);
    let on = |name: &[u8], bit: u32| element.get(name).map_or(bits & bit != 0, |value| super::super::xml::is_on(&value));
    let mut parts = TableParts::empty();
    parts.set(TableParts::FIRST_ROW, on(b"firstRow", 0x20));
    parts.set(TableParts::LAST_ROW, on(b"lastRow", 0x40));
    parts.set(TableParts::FIRST_COLUMN, on(b"firstColumn", 0x80));
    parts.set(TableParts::LAST_COLUMN, on(b"lastColumn", 0x100));
    parts.set(TableParts::ROW_BANDS, !on(b"noHBand", 0x200));
    parts.set(TableParts::COLUMN_BANDS, !on(b"noVBand", 0x400));
    parts
}
