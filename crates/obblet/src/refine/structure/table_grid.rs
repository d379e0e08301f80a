//! Tables whose cells fit: no cell over another, none that reaches out of its group of rows, no row without a cell of its
//! own, and rows of one width (HTML, section 4.9.12, "forming a table").

use crate::document::{CellKind, Document, Kind, NodeId};

/// No table is wider than this; the rest of a wider row stays, with cells of one column.
const WIDEST: usize = 1000;

/// Puts every table in order that has merged cells or rows of several widths.
pub(super) fn normalize(doc: &mut Document) {
    let tables: Vec<NodeId> = doc.nodes().filter(|(_, node)| node.kind() == Kind::Table).map(|(id, _)| id).collect();
    for table in tables {
        let groups = groups_of(doc, table);
        let width = groups.iter().map(|rows| normalize_group(doc, rows, None, &mut Vec::new())).max().unwrap_or(0).min(WIDEST);
        // With the width of the table known, each row gets the cells that it lacks.
        let mut placed = Vec::new();
        for rows in &groups {
            normalize_group(doc, rows, Some(width), &mut placed);
        }
        drop_columns(doc, &placed);
    }
}

/// The rows of a table, group by group.
fn groups_of(doc: &Document, table: NodeId) -> Vec<Vec<NodeId>> {
    let mut groups: Vec<Vec<NodeId>> = Vec::new();
    let mut loose = Vec::new();
    for child in doc.children(table) {
        match doc.kind(child) {
            Kind::RowGroup(_) => {
                groups.extend(Some(std::mem::take(&mut loose)).filter(|rows| !rows.is_empty()));
                // What is no row yet is no row without cells.
                groups.push(doc.children(child).filter(|&row| doc.kind(row) == Kind::Row).collect());
            }
            Kind::Row => loose.push(child),
            _ => {}
        }
    }
    groups.extend(Some(loose).filter(|rows| !rows.is_empty()));
    groups
}

/// Takes out rows without a cell of their own that cells from above go on in: those cells get lower.
pub(crate) fn close_covered_rows(doc: &mut Document, table: NodeId) {
    for rows in groups_of(doc, table) {
        if rows.iter().all(|&row| doc.node(row).first_child().is_some()) {
            continue;
        }
        // How many covered rows stand above each row, and the row up to which cells reach.
        let (mut above, mut reach) = (vec![0_u16], 0);
        let cells_of = |doc: &Document, row: NodeId| -> Vec<(NodeId, CellKind)> {
            let of = |cell| if let Kind::Cell(kind) = doc.kind(cell) { Some((cell, kind)) } else { None };
            doc.children(row).filter_map(of).collect()
        };
        for (index, &row) in rows.iter().enumerate() {
            let is_covered = doc.node(row).first_child().is_none() && reach > index;
            above.push(above[index].saturating_add(u16::from(is_covered)));
            let end = cells_of(doc, row).iter().map(|(_, kind)| index + usize::from(kind.rows)).max().unwrap_or(0);
            reach = reach.max(end);
        }
        for (index, &row) in rows.iter().enumerate() {
            for (cell, kind) in cells_of(doc, row).into_iter().filter(|(_, kind)| kind.rows > 1) {
                let end = (index + usize::from(kind.rows)).min(rows.len());
                doc.set_kind(cell, Kind::Cell(CellKind { rows: kind.rows - (above[end] - above[index]), ..kind }));
            }
            if above[index + 1] > above[index] {
                doc.detach(row);
            }
        }
    }
}

/// Takes out columns in which no cell begins: the cells over them get narrower.
fn drop_columns(doc: &mut Document, placed: &[(NodeId, usize)]) {
    let end = placed.iter().map(|&(_, column)| column + 1).max().unwrap_or(0);
    let mut begins = vec![false; end];
    for &(_, column) in placed {
        begins[column] = true;
    }
    // How many columns before each one are in use.
    let before: Vec<usize> = std::iter::once(0)
        .chain(begins.iter().scan(0, |count, &used| {
            *count += usize::from(used);
            Some(*count)
        }))
        .collect();
    for &(cell, column) in placed {
        if let Kind::Cell(kind) = doc.kind(cell) {
            let to = (column + usize::from(kind.columns)).min(end);
            let columns = (before[to] - before[column]).max(1) as u16;
            doc.set_kind(cell, Kind::Cell(CellKind { columns, ..kind }));
        }
    }
}

/// Gives each cell of a group the span it can have, and notes its column. Given a width, fills what is free up to there.
/// Returns how far the group reaches.
fn normalize_group(doc: &mut Document, rows: &[NodeId], width: Option<usize>, placed: &mut Vec<(NodeId, usize)>) -> usize {
    // For each column: how many of the rows that follow a cell from above still takes.
    let mut taken: Vec<u16> = vec![0; width.unwrap_or(0)];
    for (index, &row) in rows.iter().enumerate() {
        let cells: Vec<NodeId> = doc.children(row).collect();
        let mut column = 0;
        let mut own = vec![];
        for cell in cells {
            let Kind::Cell(kind) = doc.kind(cell) else { continue };
            while taken.get(column).is_some_and(|&rows| rows > 0) {
                column += 1;
            }
            let wanted = usize::from(kind.columns.max(1));
            let free = taken[column.min(taken.len())..].iter().take(wanted).take_while(|&&rows| rows == 0).count();
            let room = if column + free < taken.len() { free } else { WIDEST.saturating_sub(column).max(1) };
            let columns = wanted.min(room);
            let rows_left = (rows.len() - index).min(usize::from(u16::MAX)) as u16;
            let spanned = kind.rows.clamp(1, rows_left);
            doc.set_kind(cell, Kind::Cell(CellKind { columns: columns as u16, rows: spanned, ..kind }));
            own.push((column, columns, spanned));
            placed.push((cell, column));
            column += columns;
        }
        taken.resize(taken.len().max(column), 0);
        if width.is_some() {
            fill(doc, row, &taken, column, placed);
        }
        for rows in &mut taken {
            *rows = rows.saturating_sub(1);
        }
        for (column, columns, rows) in own {
            taken[column..column + columns].fill(rows - 1);
        }
    }
    taken.len()
}

/// Puts a cell into each gap of a row, from a column on.
fn fill(doc: &mut Document, row: NodeId, taken: &[u16], mut column: usize, placed: &mut Vec<(NodeId, usize)>) {
    while column < taken.len() {
        let gap = taken[column..].iter().take_while(|&&rows| rows == 0).count();
        if gap > 0 {
            let cell = doc.append(row, Kind::Cell(CellKind { columns: gap as u16, ..CellKind::PLAIN }));
            placed.push((cell, column));
        }
        column += gap.max(1);
    }
}
