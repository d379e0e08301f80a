//! Tables that are there to set things beside each other.

use crate::document::{Document, Finding, HintRole, Kind, KindSet, NodeId, Step};

/// Puts what such tables hold in their place, cell by cell, and tells how many there were.
pub fn unwrap_tables(doc: &mut Document) {
    if !doc.may_hold(KindSet::TABLES) {
        return;
    }
    let mut found = Vec::new();
    for root in doc.roots() {
        found.extend(doc.walk(root).filter_map(|step| match step {
            Step::Leave(id) if doc.kind(id) == Kind::Table && is_layout(doc, id) => Some(id),
            _ => None,
        }));
    }
    let Some(&first) = found.first() else { return };
    let place = doc.place(first);
    let message = format!("layout tables were unwrapped: {}", found.len());
    doc.push_finding(Finding::changed("clean.layout-table", message).at(place));
    for table in found {
        open(doc, table);
    }
}

/// Whether a table holds no data: it says so, or it has no head and no caption and its cells are parts of a page.
#[must_use]
pub fn is_layout(doc: &Document, table: NodeId) -> bool {
    if doc.layout_hints.of(table).part == HintRole::Layout {
        return true;
    }
    let (mut rows, mut cells, mut parts) = (0, 0, 0);
    let mut walk = doc.walk(table);
    while let Some(step) = walk.next() {
        let Step::Enter(id) = step else { continue };
        match doc.kind(id) {
            Kind::Caption => return false,
            Kind::RowGroup(crate::document::RowGroupKind::Head) => return false,
            Kind::Row => rows += 1,
            Kind::Cell(cell) if cell.header => return false,
            Kind::Cell(_) => {
                cells += 1;
                let blocks = doc.children(id).filter(|&child| !doc.kind(child).is_inline()).count();
                let whole = doc.children(id).any(|child| {
                    matches!(doc.kind(child), Kind::Table | Kind::Heading(_) | Kind::List(_) | Kind::Figure | Kind::Division(_))
                });
                parts += usize::from(whole || blocks > 2);
                walk.skip_children(id);
            }
            _ => {}
        }
    }
    // One cell, or one column of parts, or mostly parts.
    cells > 0 && (cells == 1 || (parts > 0 && (rows == cells || parts * 2 >= cells)))
}

fn open(doc: &mut Document, table: NodeId) {
    let mut shells = Vec::new();
    let mut walk = doc.walk(table);
    while let Some(step) = walk.next() {
        let Step::Enter(id) = step else { continue };
        match doc.kind(id) {
            Kind::RowGroup(_) | Kind::Row => shells.push(id),
            Kind::Cell(_) => {
                shells.push(id);
                walk.skip_children(id);
            }
            _ => {}
        }
    }
    for &shell in &shells {
        if matches!(doc.kind(shell), Kind::Cell(_)) {
            doc.wrap_inline_runs(shell);
        }
    }
    for shell in shells {
        doc.unwrap(shell);
    }
    doc.unwrap(table);
}
