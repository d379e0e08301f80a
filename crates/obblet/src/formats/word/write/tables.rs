//! Tables: a grid, rows that repeat on each page, cells that go over columns and rows (section 17.4).

use super::super::model::properties::{Borders, Colour};
use super::super::model::{from_style, print};
use super::super::printer::Printer;
use super::Writer;
use super::run::Last;
use super::style_sheet::StyleSheet;
use crate::document::{Align, CellKind, Kind, Measure, NodeId, Property, RowGroupKind, Scope, StyleProperties, Value};
use smallvec::SmallVec;

/// A table has so many columns at most.
const MOST_COLUMNS: usize = 63;

/// The width of the text on a page, in twips.
pub(super) use super::super::model::from_style::TEXT_WIDTH;

/// What stands on a place of a row.
#[derive(Clone, Copy, Debug, PartialEq, Eq)]
enum Slot {
    /// A cell, how many columns it has, and whether it goes on in rows below.
    Cell { columns: u16, goes_on: bool },
    /// A cell of a row above goes on.
    Continued { columns: u16 },
    /// Nothing, in one column.
    Gap,
}

/// A row: whether it is a head, and what stands in it from left to right.
#[derive(Debug, Default)]
struct PlannedRow {
    is_head: bool,
    slots: Vec<Slot>,
}

/// A table that is written.
#[derive(Debug)]
pub(super) struct OpenTable {
    rows: Vec<PlannedRow>,
    widths: Vec<i32>,
    /// How the cells of the columns stand.
    aligns: Vec<Align>,
    row: usize,
    slot: usize,
    column: usize,
    /// Whether the first column holds the heads of rows.
    has_row_heads: bool,
    /// The lines and the space within that all cells have.
    shared: SharedLooks,
    /// Whether the source says which lines there are.
    is_ruled: bool,
}

/// The lines around cells, and the space within them.
type SharedLooks = (Borders, [Option<i32>; 4]);

impl Writer<'_> {
    pub(super) fn begin_table(&mut self, id: NodeId) {
        if self.line.last == Last::Table {
            // Two tables one behind the other would be one.
            self.empty_paragraph();
        }
        let mut table = self.plan(id);
        // A caption stands above its table.
        let caption = self.doc.children(id).find(|&child| self.doc.kind(child) == Kind::Caption);
        if let Some(caption) = caption {
            self.push_cell(id, Align::Unsaid);
            self.tree(caption);
            self.end_paragraph();
            self.contexts.pop();
            if self.line.last == Last::Table {
                self.empty_paragraph();
            }
        }
        if table.rows.is_empty() {
            table.rows.push(PlannedRow { is_head: false, slots: vec![Slot::Gap] });
        }
        let indent = self.table_indent();
        let is_right_to_left = self.is_table_right_to_left(id);
        let mut looks = TableLooks::of(&self.looks(id));
        self.find_shared(id, &mut table, looks.width);
        table.is_ruled |= looks.borders != Borders::default() || StyleSheet::has_page_of_program(self.doc);
        let style = if table.is_ruled { self.table_style(id) } else { None };
        let (borders, space) = table.shared;
        looks.borders.override_with(&borders);
        (looks.borders.between, looks.borders.columns) = (borders.top.or(borders.bottom), borders.left.or(borders.right));
        let out = &mut self.part.out;
        out.open("w:tbl").open("w:tblPr");
        out.value("w:tblStyle", if table.is_ruled { style.as_deref().unwrap_or("TablePlain") } else { "TableGridLight" });
        if let Some(side) = looks.float {
            // Text flows around it.
            out.open("w:tblpPr").number("w:leftFromText", 180).number("w:rightFromText", 180);
            out.attribute("w:vertAnchor", "text").attribute("w:tblpXSpec", side).number("w:tblpY", 1).close();
        }
        if is_right_to_left {
            out.empty("w:bidiVisual");
        }
        let known: i32 = table.widths.iter().sum();
        let is_wide = known > 0 && table.widths.iter().all(|width| *width > 0);
        match looks.width {
            Some(width) => print_width(out, "w:tblW", width),
            None if is_wide => print_width(out, "w:tblW", Measure::Twips(known)),
            None => print_width(out, "w:tblW", Measure::Auto),
        }
        if let Some(place) = looks.place {
            out.value("w:jc", place);
        }
        let indent = indent + looks.indent.clamp(-3000, 8000);
        if indent != 0 {
            out.open("w:tblInd").number("w:w", indent).attribute("w:type", "dxa").close();
        }
        print::borders(out, "w:tblBorders", &looks.borders, ["w:insideH", "w:insideV"]);
        print_space(out, "w:tblCellMar", space);
        let first_row = table.rows.first().is_some_and(|row| row.is_head);
        let value = if first_row { 0x20 } else { 0 } | if table.has_row_heads { 0x80 } else { 0 } | 0x600;
        let bit = |on: bool| if on { "1" } else { "0" };
        out.open("w:tblLook").attribute("w:val", &format!("{value:04X}"));
        out.attribute("w:firstRow", bit(first_row)).attribute("w:lastRow", "0");
        out.attribute("w:firstColumn", bit(table.has_row_heads)).attribute("w:lastColumn", "0");
        out.attribute("w:noHBand", "1").attribute("w:noVBand", "1").close();
        if let Some(caption) = self.doc.attributes(id).title {
            out.value("w:tblCaption", self.doc.text(caption));
        }
        out.close().open("w:tblGrid");
        if !is_wide {
            let width = (TEXT_WIDTH - indent).max(TEXT_WIDTH / 4) / i32::try_from(table.widths.len().max(1)).unwrap_or(1);
            table.widths.iter_mut().for_each(|known| *known = width);
        }
        for width in &table.widths {
            out.open("w:gridCol").number("w:w", *width).close();
        }
        out.close();
        let is_empty = table.rows.len() == 1 && table.rows[0].slots == [Slot::Gap];
        self.tables.push(table);
        if is_empty {
            self.begin_row();
            self.end_row();
        }
    }

    /// How far a table in a list is set in.
    fn table_indent(&self) -> i32 {
        let depth = i32::from(self.contexts.last().map_or(0, super::blocks::Context::depth));
        depth * super::numbering::STEP
    }

    fn is_table_right_to_left(&self, id: NodeId) -> bool {
        let said = self.doc.attributes(id).direction.or(self.doc.metadata.direction);
        said == Some(crate::document::Direction::RightToLeft)
    }

    /// Where the cells of a table stand in its grid.
    fn plan(&mut self, id: NodeId) -> OpenTable {
        let doc = self.doc;
        let columns = doc.columns(id);
        let mut rows: Vec<(NodeId, bool, usize)> = Vec::new();
        for (number, child) in doc.children(id).enumerate() {
            match doc.kind(child) {
                Kind::RowGroup(group) => {
                    let of_group = doc.children(child).filter(|&row| doc.kind(row) == Kind::Row);
                    rows.extend(of_group.map(|row| (row, group == RowGroupKind::Head, number)));
                }
                Kind::Row => rows.push((child, false, usize::MAX)),
                _ => {}
            }
        }
        // For each column, in how many rows more the cell above goes on, and how wide that is where it begins.
        let mut below: Vec<(u16, u16)> = Vec::new();
        let (mut planned, mut width) = (Vec::new(), 0);
        let (mut too_wide, mut has_row_heads) = (None, !rows.is_empty());
        for (index, &(row, is_head, group)) in rows.iter().enumerate() {
            let left = rows[index..].iter().take_while(|(.., known)| *known == group).count();
            let mut slots = Vec::new();
            let mut at = 0;
            let mut first = None;
            let goes_on_first = below.first().is_some_and(|(rows, _)| *rows > 0);
            for cell in doc.children(row) {
                let Kind::Cell(kind) = doc.kind(cell) else { continue };
                first.get_or_insert(kind);
                at = continue_cells(&mut below, &mut slots, at, false);
                let span = usize::from(kind.columns.max(1)).min(MOST_COLUMNS.saturating_sub(at));
                if span == 0 {
                    too_wide.get_or_insert(cell);
                    continue;
                }
                // A cell does not go over one that comes from above.
                let free =
                    (at..at + span).take_while(|&place| below.get(place).is_none_or(|(rows, _)| *rows == 0)).count().max(1);
                let rows_below = usize::from(kind.rows.max(1)).min(left) - 1;
                if below.len() < at + free {
                    below.resize(at + free, (0, 0));
                }
                below[at] = (rows_below as u16, free as u16);
                below[at + 1..at + free].fill((rows_below as u16, 0));
                slots.push(Slot::Cell { columns: free as u16, goes_on: rows_below > 0 });
                at += free;
            }
            at = continue_cells(&mut below, &mut slots, at, true);
            has_row_heads &= is_head || goes_on_first || first.is_some_and(|cell| cell.header && cell.scope != Scope::Column);
            width = width.max(at);
            planned.push((PlannedRow { is_head, slots }, at));
        }
        if let Some(cell) = too_wide {
            self.no_syntax("tables of more than 63 columns; further cells go on in the last one", cell);
        }
        let width = width.max(1);
        let rows = planned.into_iter().map(|(mut row, at)| {
            if at < width {
                row.slots.extend(std::iter::repeat_n(Slot::Gap, width - at));
            }
            row
        });
        let rows: Vec<PlannedRow> = rows.collect();
        let heads_only = rows.iter().all(|row| row.is_head);
        OpenTable {
            rows,
            widths: (0..width).map(|column| columns.get(column).map_or(0, |column| column.width.min(31_680) as i32)).collect(),
            aligns: columns.iter().map(|column| column.align).collect(),
            row: 0,
            slot: 0,
            column: 0,
            has_row_heads: has_row_heads && !heads_only,
            shared: SharedLooks::default(),
            is_ruled: false,
        }
    }

    /// Finds what all cells of a table look like, and how wide its columns are where its cells say it.
    fn find_shared(&self, id: NodeId, table: &mut OpenTable, width: Option<Measure>) {
        let doc = self.doc;
        if doc.styles.is_empty() {
            return;
        }
        let whole = match width {
            Some(Measure::Percent(percent)) => TEXT_WIDTH * percent.clamp(0, 5000) / 5000,
            Some(Measure::Twips(twips)) => twips.clamp(0, 31_680),
            _ => TEXT_WIDTH,
        };
        let rows = doc.children(id).flat_map(|child| match doc.kind(child) {
            Kind::RowGroup(_) => doc.children(child).collect(),
            Kind::Row => SmallVec::<[NodeId; 8]>::from_elem(child, 1),
            _ => SmallVec::new(),
        });
        let mut shared: Option<SharedLooks> = None;
        let mut differs = false;
        for (number, row) in rows.enumerate() {
            let mut column = 0;
            for cell in doc.children(row) {
                let Kind::Cell(kind) = doc.kind(cell) else { continue };
                let looks = CellLooks::of(&self.looks(cell));
                let own = (looks.borders, looks.space);
                differs |= *shared.get_or_insert(own) != own;
                table.is_ruled |= looks.borders != Borders::default();
                // The first row has a cell for each column, but for those that go over more.
                let place = if number == 0 && kind.columns <= 1 { table.widths.get_mut(column) } else { None };
                if let (Some(known @ 0), Some(own)) = (place, looks.width) {
                    *known = match own {
                        Measure::Twips(twips) => twips.clamp(0, 31_680),
                        Measure::Percent(percent) => whole * percent.clamp(0, 5000) / 5000,
                        Measure::Ems(_) | Measure::Auto => 0,
                    };
                }
                column += usize::from(kind.columns.max(1));
            }
        }
        table.shared = shared.filter(|_| !differs).unwrap_or_default();
        // What is left is for the columns that say nothing.
        let known: i32 = table.widths.iter().sum();
        let unknown = table.widths.iter().filter(|width| **width == 0).count();
        if known > 0 && unknown > 0 {
            let each = ((whole - known) / i32::try_from(unknown).unwrap_or(1)).max(400);
            table.widths.iter_mut().filter(|width| **width == 0).for_each(|width| *width = each);
        }
    }

    pub(super) fn begin_row(&mut self) {
        let Some(table) = self.tables.last_mut() else { return };
        (table.slot, table.column) = (0, 0);
        self.part.out.open("w:tr");
        if table.rows.get(table.row).is_some_and(|row| row.is_head) {
            self.part.out.raw("<w:trPr><w:cantSplit/><w:tblHeader/></w:trPr>");
        }
    }

    pub(super) fn end_row(&mut self) {
        self.empty_slots(true);
        if let Some(table) = self.tables.last_mut() {
            table.row += 1;
        }
        self.part.out.close();
        self.line.last = Last::Nothing;
    }

    /// Writes the places of a row up to the next cell that is one, or to its end.
    fn empty_slots(&mut self, to_end: bool) {
        loop {
            let Some(table) = self.tables.last() else { return };
            let Some(&slot) = table.rows.get(table.row).and_then(|row| row.slots.get(table.slot)) else { return };
            let (columns, merge) = match slot {
                Slot::Cell { .. } if !to_end => return,
                Slot::Cell { columns, .. } => (columns, None),
                Slot::Gap => (1, None),
                Slot::Continued { columns } => (columns, Some("continue")),
            };
            self.open_cell(columns, merge, None);
            self.part.out.close().empty("w:p").close();
        }
    }

    /// Opens a cell of so many columns and its properties, with how it is merged with cells above and below.
    fn open_cell(&mut self, columns: u16, merge: Option<&str>, width: Option<Measure>) {
        let Some(table) = self.tables.last_mut() else { return };
        table.slot += 1;
        let of_grid: i32 = table.widths.iter().skip(table.column).take(usize::from(columns)).sum();
        table.column += usize::from(columns);
        let out = &mut self.part.out;
        out.open("w:tc").open("w:tcPr");
        print_width(out, "w:tcW", width.unwrap_or(Measure::Twips(of_grid)));
        if columns > 1 {
            out.value_of("w:gridSpan", columns);
        }
        if let Some(merge) = merge {
            out.value("w:vMerge", merge);
        }
    }

    pub(super) fn begin_cell(&mut self, id: NodeId, cell: CellKind) {
        self.empty_slots(false);
        let mut looks = self.cell_looks(id);
        let Some(table) = self.tables.last() else { return };
        if (looks.borders, looks.space) == table.shared {
            (looks.borders, looks.space) = SharedLooks::default();
        }
        let align =
            if cell.align == Align::Unsaid { table.aligns.get(table.column).copied().unwrap_or_default() } else { cell.align };
        let slot = table.rows.get(table.row).and_then(|row| row.slots.get(table.slot)).copied();
        let is_head = table.rows.get(table.row).is_some_and(|row| row.is_head);
        let is_first = table.column == 0;
        let shows_head = is_head || (is_first && table.has_row_heads);
        if let Some(Slot::Cell { columns, goes_on }) = slot {
            self.open_cell(columns, goes_on.then_some("restart"), looks.width);
            looks.print(&mut self.part.out);
            self.part.out.close();
            self.line.last = Last::Nothing;
        } else {
            self.reopen_cell();
        }
        self.push_cell(id, align);
        if cell.header && !shows_head {
            self.make_head();
        }
    }

    /// What a cell looks like. Its ground is that of its row, of the rows around it or of the table, where it has none of its own.
    fn cell_looks(&self, id: NodeId) -> CellLooks {
        let mut looks = CellLooks::of(&self.looks(id));
        if self.doc.styles.is_empty() {
            return looks;
        }
        for above in self.doc.ancestors(id).take(3) {
            if !matches!(self.doc.kind(above), Kind::Row | Kind::RowGroup(_) | Kind::Table) {
                break;
            }
            for (property, value) in self.looks(above) {
                match (property, value) {
                    (Property::BackgroundColor, Value::Colour(colour)) => {
                        looks.ground = looks.ground.or(Some(Colour::Rgb(colour)));
                    }
                    (Property::VerticalAlign, Value::Keyword(place)) => looks.place = looks.place.or(vertical(place)),
                    _ => {}
                }
            }
        }
        looks
    }

    /// The text of a cell for which there is no room goes on in the one before.
    fn reopen_cell(&mut self) {
        self.part.out.reopen("w:tc");
        self.line.last = Last::Paragraph;
    }

    pub(super) fn end_cell(&mut self) {
        self.end_container();
        self.contexts.pop();
        self.part.out.close();
    }

    pub(super) fn end_table(&mut self) {
        self.tables.pop();
        self.part.out.close();
        self.line.last = Last::Table;
    }
}

/// What a table looks like.
#[derive(Debug, Default)]
struct TableLooks {
    width: Option<Measure>,
    borders: Borders,
    /// The side at which text flows around it.
    float: Option<&'static str>,
    /// Where it stands between the margins.
    place: Option<&'static str>,
    /// How far it is set in, in twips.
    indent: i32,
}

impl TableLooks {
    fn of(looks: &StyleProperties) -> Self {
        let mut own = Self { borders: from_style::borders(looks), ..Self::default() };
        let mut auto = [false; 2];
        for (property, value) in looks {
            match (property, value) {
                (Property::Width, Value::Length(width)) => own.width = Some(*width),
                (Property::Float, Value::Keyword("left")) => own.float = Some("left"),
                (Property::Float, Value::Keyword("right")) => own.float = Some("right"),
                (Property::MarginLeft, value) => {
                    auto[0] = *value == Value::Length(Measure::Auto);
                    own.indent = from_style::twips(value).unwrap_or(0);
                }
                (Property::MarginRight, value) => auto[1] = *value == Value::Length(Measure::Auto),
                (Property::Margin, Value::Lengths(sides)) => {
                    own.indent = sides.get(3).and_then(|side| from_style::twips(&Value::Length(*side))).unwrap_or(0);
                    auto = [sides.get(3).or_else(|| sides.get(1)), sides.get(1)].map(|side| side == Some(&Measure::Auto));
                }
                _ => {}
            }
        }
        own.place = match auto {
            [true, true] => Some("center"),
            [true, false] => Some("right"),
            _ => None,
        };
        own
    }
}

/// What a cell looks like.
#[derive(Debug, Default)]
struct CellLooks {
    width: Option<Measure>,
    borders: Borders,
    ground: Option<Colour>,
    /// The space within it: top, right, bottom, left, in twips.
    space: [Option<i32>; 4],
    /// Where its text stands between its top and its bottom.
    place: Option<&'static str>,
}

impl CellLooks {
    fn of(looks: &StyleProperties) -> Self {
        let mut own = Self { borders: from_style::borders(looks), ..Self::default() };
        for (property, value) in looks {
            match (property, value) {
                (Property::Width, Value::Length(width)) => own.width = Some(*width),
                (Property::BackgroundColor, Value::Colour(colour)) => own.ground = Some(Colour::Rgb(*colour)),
                (Property::VerticalAlign, Value::Keyword(place)) => own.place = vertical(place),
                (Property::Padding, value) => own.space = from_style::sides(value).unwrap_or_default(),
                (Property::PaddingTop, value) => own.space[0] = from_style::twips(value),
                (Property::PaddingRight, value) => own.space[1] = from_style::twips(value),
                (Property::PaddingBottom, value) => own.space[2] = from_style::twips(value),
                (Property::PaddingLeft, value) => own.space[3] = from_style::twips(value),
                _ => {}
            }
        }
        // Cells have this much where nothing is said.
        if own.space == [Some(0), Some(108), Some(0), Some(108)] {
            own.space = [None; 4];
        }
        own
    }

    /// Prints what comes behind the width and the spans of a cell.
    fn print(&self, out: &mut Printer) {
        print::borders(out, "w:tcBorders", &self.borders, ["", ""]);
        print::shade(out, self.ground);
        print_space(out, "w:tcMar", self.space);
        if let Some(place) = self.place {
            out.value("w:vAlign", place);
        }
    }
}

fn vertical(place: &str) -> Option<&'static str> {
    match place {
        "middle" => Some("center"),
        "bottom" => Some("bottom"),
        "top" => Some("top"),
        _ => None,
    }
}

/// The space within cells: top, right, bottom, left.
fn print_space(out: &mut Printer, element: &'static str, [top, right, bottom, left]: [Option<i32>; 4]) {
    let sides = [("w:top", top), ("w:left", left), ("w:bottom", bottom), ("w:right", right)];
    if sides.iter().all(|(_, space)| space.is_none()) {
        return;
    }
    out.open(element);
    for (side, space) in sides {
        if let Some(space) = space {
            out.open(side).number("w:w", space.clamp(0, 2880)).attribute("w:type", "dxa").close();
        }
    }
    out.close();
}

fn print_width(out: &mut Printer, element: &'static str, width: Measure) {
    let (number, unit) = match width {
        Measure::Twips(twips) => (twips.clamp(0, 31_680), "dxa"),
        Measure::Ems(ems) => ((ems.clamp(0, 14_400) * 220) / 100, "dxa"),
        Measure::Percent(percent) => (percent.clamp(0, 5000), "pct"),
        Measure::Auto => (0, "auto"),
    };
    out.open(element).number("w:w", number).attribute("w:type", unit).close();
}

/// Goes over the places at which cells of rows above go on; with `to_end`, over all that are left, and what is free between.
fn continue_cells(below: &mut [(u16, u16)], slots: &mut Vec<Slot>, mut at: usize, to_end: bool) -> usize {
    loop {
        while let Some((rows, columns)) = below.get_mut(at).filter(|(rows, _)| *rows > 0) {
            let columns = usize::from(*columns).max(1);
            *rows -= 1;
            for (rows, _) in below.iter_mut().skip(at + 1).take(columns - 1) {
                *rows = rows.saturating_sub(1);
            }
            slots.push(Slot::Continued { columns: columns as u16 });
            at += columns;
        }
        let next = below.iter().skip(at).position(|(rows, _)| *rows > 0).filter(|_| to_end);
        match next {
            Some(free) => {
                slots.extend(std::iter::repeat_n(Slot::Gap, free));
                at += free;
            }
            None => return at,
        }
    }
}
