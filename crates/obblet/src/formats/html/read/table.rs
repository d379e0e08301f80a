//! Tables: what columns say of their cells.

use super::element_state::{Origin, ParseState};
use crate::document::{Align, Document, Kind, NodeId};
use crate::refine::structure::close_covered_rows;

/// Gives cells the alignment of their columns, and takes out the columns and the rows that have no cells.
pub(super) fn normalize(doc: &mut Document, table: NodeId, state: &ParseState) {
    drop_empty_rows(doc, table);
    align_columns(doc, table, state);
}

fn drop_empty_rows(doc: &mut Document, table: NodeId) {
    let is_empty = |doc: &Document, id: NodeId| doc.node(id).first_child().is_none();
    let rows = |doc: &Document, group: NodeId| -> Vec<NodeId> {
        doc.children(group).filter(|&row| doc.kind(row) == Kind::Row && is_empty(doc, row)).collect()
    };
    let groups: Vec<NodeId> = doc.children(table).filter(|&group| matches!(doc.kind(group), Kind::RowGroup(_))).collect();
    let empty: Vec<NodeId> = groups.iter().chain(&[table]).flat_map(|&group| rows(doc, group)).collect();
    if empty.is_empty() {
        return;
    }
    close_covered_rows(doc, table);
    for row in empty {
        if doc.node(row).parent().is_some() {
            doc.detach(row);
        }
    }
    for group in groups {
        if is_empty(doc, group) {
            doc.detach(group);
        }
    }
}

fn align_columns(doc: &mut Document, table: NodeId, state: &ParseState) {
    let mut aligns = Vec::new();
    let columns: Vec<NodeId> = doc.children(table).filter(|&child| state.origin(child) == Origin::Column).collect();
    if columns.is_empty() {
        return;
    }
    for column in columns {
        let (align, span) = state.columns.get(&column).copied().unwrap_or((Align::Unsaid, 1));
        let inner: Vec<NodeId> = doc.children(column).filter(|&child| state.origin(child) == Origin::Column).collect();
        if inner.is_empty() {
            aligns.extend(std::iter::repeat_n(align, span.into()));
        }
        for column in inner {
            let (own, span) = state.columns.get(&column).copied().unwrap_or((Align::Unsaid, 1));
            aligns.extend(std::iter::repeat_n(if own == Align::Unsaid { align } else { own }, span.into()));
        }
        doc.detach(column);
        aligns.truncate(1000);
    }
    if aligns.iter().all(|align| *align == Align::Unsaid) {
        return;
    }
    let rows: Vec<NodeId> = doc
        .children(table)
        .flat_map(|child| match doc.kind(child) {
            Kind::RowGroup(_) => doc.children(child).collect(),
            _ => vec![child],
        })
        .collect();
    for row in rows {
        let cells: Vec<NodeId> = doc.children(row).collect();
        let mut column = 0;
        for id in cells {
            let Kind::Cell(mut cell) = doc.kind(id) else { continue };
            if cell.align == Align::Unsaid {
                cell.align = aligns.get(column).copied().unwrap_or_default();
                doc.set_kind(id, Kind::Cell(cell));
            }
            column += usize::from(cell.columns);
        }
    }
}
