//! Paragraphs and rows as people would have written them: text directly in cells and items, and heads of tables as heads.

use super::tops;
use crate::document::{CellKind, Document, Finding, Kind, ListKind, NodeId, Presence, RowGroupKind, Step};

/// The only paragraph of a cell becomes its text; lists of which each item has one paragraph become tight.
pub fn open_lone_paragraphs(doc: &mut Document) {
    if !doc.may_hold(Presence::TABLES.and(Presence::LISTS)) {
        return;
    }
    let bare = |doc: &Document, id: NodeId| doc.kind(id) == Kind::Paragraph && doc.attributes(id).is_empty();
    for top in tops(doc) {
        let found: Vec<NodeId> = doc
            .walk(top)
            .filter_map(|step| match step {
                Step::Leave(id) if matches!(doc.kind(id), Kind::Cell(_) | Kind::List(_)) => Some(id),
                _ => None,
            })
            .collect();
        for id in found {
            if let Kind::List(list) = doc.kind(id) {
                let lone = doc.children(id).all(|item| {
                    let mut children = doc.children(item);
                    children.next().is_none_or(|first| bare(doc, first) || doc.kind(first).is_inline())
                        && children.all(|child| matches!(doc.kind(child), Kind::List(_)))
                });
                if lone && !list.tight {
                    doc.set_kind(id, Kind::List(ListKind { tight: true, ..list }));
                }
            } else if let Some(only) =
                doc.node(id).first_child().filter(|&only| doc.node(only).next().is_none() && bare(doc, only))
            {
                doc.unwrap(only);
            }
        }
    }
}

/// A first row of which all cells are bold becomes the head of its table, where no other row is so.
pub fn set_table_heads(doc: &mut Document) {
    if !doc.may_hold(Presence::TABLES) || !doc.may_hold(Presence::STRONG) {
        return;
    }
    let mut found = Vec::new();
    for top in tops(doc) {
        for step in doc.walk(top) {
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
    doc.find(
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
