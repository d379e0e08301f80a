//! Text that is lined up in columns with tabs, as tables.

use super::tops;
use crate::document::{CellKind, Document, Finding, Kind, NodeId, RowGroupKind, Step, Text};

/// Makes a table of paragraphs that follow each other with as many tabs within each, and tells how many there are.
pub fn make_tables(doc: &mut Document) {
    if memchr::memchr(b'\t', doc.pool().as_bytes()).is_none() {
        return;
    }
    let mut runs: Vec<Vec<NodeId>> = Vec::new();
    for top in tops(doc) {
        let (mut run, mut columns): (Vec<NodeId>, usize) = (Vec::new(), 0);
        for step in doc.walk(top) {
            let Step::Enter(id) = step else { continue };
            if doc.kind(id).is_inline() {
                continue;
            }
            let tabs = if doc.kind(id) == Kind::Paragraph { tabs(doc, id) } else { 0 };
            let follows = run.last().is_some_and(|last| doc.node(*last).next() == Some(id));
            if tabs == 0 || tabs != columns || !follows {
                runs.push(std::mem::take(&mut run));
            }
            columns = tabs;
            if tabs > 0 {
                run.push(id);
            }
        }
        runs.push(run);
    }
    runs.retain(|run| run.len() >= FEWEST_ROWS);
    let Some(first) = runs.first().and_then(|run| run.first()) else { return };
    let place = doc.place(*first);
    let message = format!("paragraphs that were lined up with tabs became tables: {}", runs.len());
    doc.find(Finding::changed("clean.tab-columns", message).at(place));
    for run in runs {
        table(doc, &run);
    }
}

/// One line alone is lined up with nothing.
const FEWEST_ROWS: usize = 2;

/// How many tabs stand within the text of a paragraph, where it can be cut at them: tabs in elements can't.
fn tabs(doc: &Document, paragraph: NodeId) -> usize {
    let mut count = 0;
    for child in doc.children(paragraph) {
        match doc.kind(child) {
            Kind::Text(text) => count += doc.text(text).matches('\t').count(),
            Kind::LineBreak => return 0,
            kind if kind.is_leaf() => {}
            _ if doc.plain_text(child).contains('\t') => return 0,
            _ => {}
        }
    }
    count
}

fn table(doc: &mut Document, rows: &[NodeId]) {
    let Some(&first) = rows.first() else { return };
    let table = doc.create(Kind::Table);
    let offset = doc.node(first).offset();
    doc.set_offset(table, offset);
    doc.move_before(first, table);
    let body = doc.append(table, Kind::RowGroup(RowGroupKind::Body));
    for &paragraph in rows {
        let offset = doc.node(paragraph).offset();
        let row = doc.append_at(body, Kind::Row, offset);
        let mut cell = doc.append_at(row, Kind::Cell(CellKind::PLAIN), offset);
        let children: Vec<NodeId> = doc.children(paragraph).collect();
        for child in children {
            let Kind::Text(text) = doc.kind(child) else {
                doc.move_into(cell, child);
                continue;
            };
            let mut start = text.start;
            let words = doc.text(text).to_owned();
            for (index, piece) in words.split('\t').enumerate() {
                if index > 0 {
                    cell = doc.append_at(row, Kind::Cell(CellKind::PLAIN), offset);
                }
                let end = start + piece.len() as u32;
                let edge = (piece.len() - piece.trim_start().len()) as u32;
                let words = Text { start: start + edge, end: start + edge + piece.trim().len() as u32 };
                // Space before and behind what is no text is space between words.
                let words = if index == 0 && doc.node(cell).first_child().is_some() { Text { start, ..words } } else { words };
                doc.append_joined(cell, words, offset);
                start = end + 1;
            }
        }
        doc.detach(paragraph);
    }
}

#[cfg(test)]
mod tests {
    use super::*;
    use crate::formats::html;

    #[test]
    fn lines_with_as_many_tabs_become_rows() {
        let mut doc = Document::new();
        for line in ["Tea\t15:00", "Gate \t10:00", "alone", "one\ttab"] {
            let paragraph = doc.append(doc.root(), Kind::Paragraph);
            doc.append_text(paragraph, line);
        }
        make_tables(&mut doc);
        let html = html::write(&doc, &html::Options { compact: true, ..html::Options::default() }).html;
        assert_eq!(
            html,
            "<table><tbody><tr><td>Tea</td><td>15:00</td></tr><tr><td>Gate</td><td>10:00</td></tr></tbody></table><p>alone</p><p>one\ttab</p>"
        );
    }
}
