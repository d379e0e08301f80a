//! Heads of tables: a first row in bold is one.

use crate::document::{CellKind, Document, Finding, Kind, KindSet, NodeId, RowGroupKind, Step};

/// A first row of which all cells are bold becomes the head of its table, where no other row is so.
pub fn set(doc: &mut Document) {
    if !doc.may_hold(KindSet::TABLES) || !doc.may_hold(KindSet::STRONG) {
        return;
    }
    let mut found = Vec::new();
    for root in doc.roots() {
        for step in doc.walk(root) {
            if let Step::Enter(table) = step
                && doc.kind(table) == Kind::Table
                && let Some(row) = head_row(doc, table)
            {
                found.push((table, row));
            }
        }
    }
    let Some(&(first, _)) = found.first() else { return };
    let place = doc.place(first);
    doc.push_finding(
        Finding::changed("clean.table-head", format!("first rows in bold became heads of their tables: {}", found.len()))
            .at(place),
    );
    for (table, row) in found {
        let cells: Vec<NodeId> = doc.children(row).collect();
        for id in cells {
            if let Kind::Cell(cell) = doc.kind(id) {
                doc.set_kind(id, Kind::Cell(CellKind { header: true, ..cell }));
                let text = doc.node(id).first_child().filter(|&first| doc.kind(first) == Kind::Paragraph).unwrap_or(id);
                while let Some(only) =
                    doc.node(text).first_child().filter(|&only| doc.kind(only) == Kind::Strong && doc.node(only).next().is_none())
                {
                    doc.unwrap(only);
                }
            }
        }
        let head = doc.create(Kind::RowGroup(RowGroupKind::Head));
        let parent = doc.node(row).parent();
        match parent.filter(|&parent| parent != table) {
            Some(body) => doc.move_before(body, head),
            None => doc.move_before(row, head),
        }
        doc.move_into(head, row);
        if let Some(body) = parent.filter(|&parent| parent != table && doc.node(parent).first_child().is_none()) {
            doc.detach(body);
        }
    }
}

/// The first row of a table without a head, where it looks like one.
fn head_row(doc: &Document, table: NodeId) -> Option<NodeId> {
    let mut rows = Vec::new();
    for child in doc.children(table) {
        match doc.kind(child) {
            Kind::RowGroup(RowGroupKind::Body) => rows.extend(doc.children(child)),
            Kind::RowGroup(_) => return None,
            Kind::Row => rows.push(child),
            _ => {}
        }
    }
    let (&first, others) = rows.split_first()?;
    let filled = |row: NodeId| doc.children(row).filter(|&cell| doc.node(cell).first_child().is_some()).count();
    let bold = |row: NodeId| doc.children(row).all(|cell| is_bold(doc, cell)) && filled(row) > 1;
    let spans = doc.children(first).any(|cell| matches!(doc.kind(cell), Kind::Cell(cell) if cell.rows > 1));
    let plain = |row: NodeId| doc.children(row).all(|cell| matches!(doc.kind(cell), Kind::Cell(cell) if !cell.header));
    (!others.is_empty() && !spans && rows.iter().all(|&row| plain(row)) && bold(first) && !others.iter().any(|&row| bold(row)))
        .then_some(first)
}

/// Whether all text of a cell is bold; an empty cell is as bold as any.
fn is_bold(doc: &Document, cell: NodeId) -> bool {
    let mut at = doc.node(cell).first_child();
    while let Some(node) = at {
        if doc.node(node).next().is_some() {
            return false;
        }
        match doc.kind(node) {
            Kind::Strong => return true,
            Kind::Paragraph | Kind::Emphasis | Kind::Span => at = doc.node(node).first_child(),
            _ => return false,
        }
    }
    true
}
