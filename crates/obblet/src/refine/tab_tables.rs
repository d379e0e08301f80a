//! Text that is lined up in columns with tabs, as tables.

use crate::document::{CellKind, Document, Finding, Kind, NodeId, RowGroupKind, Step, Text};

/// Makes a table of paragraphs that follow each other with as many tabs within each, and tells how many there are.
pub fn make_tables(doc: &mut Document) {
    if memchr::memchr(b'\t', doc.pool().as_bytes()).is_none() {
        return;
    }
    let mut runs: Vec<Vec<NodeId>> = Vec::new();
    for root in doc.roots() {
        let (mut run, mut columns): (Vec<NodeId>, usize) = (Vec::new(), 0);
        for step in doc.walk(root) {
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
    let message = format!("paragraphs aligned with tabs became tables: {}", runs.len());
    doc.push_finding(Finding::changed("clean.tab-columns", message).at(place));
    for run in runs {
        table(doc, &run);
    }
}

/// One line alone is lined up with nothing.
const FEWEST_ROWS: usize = 2;

/// How many tabs stand within the text of a paragraph, where it can be cut at them: tabs in elements can't. Those that it begins
/// with set it in, and those that it ends with do nothing.
fn tabs(doc: &Document, paragraph: NodeId) -> usize {
    let (mut count, mut begun) = (0, false);
    // Tabs that nothing has followed yet.
    let mut pending = 0;
    for child in doc.children(paragraph) {
        match doc.kind(child) {
            Kind::Text(text) => {
                for c in doc.text(text).chars() {
                    match c {
                        '\t' if begun => pending += 1,
                        c if c.is_whitespace() => {}
                        _ => {
                            begun = true;
                            count += std::mem::take(&mut pending);
                        }
                    }
                }
                continue;
            }
            Kind::LineBreak => return 0,
            kind if kind.is_leaf() => {}
            _ if doc.plain_text(child).contains('\t') => return 0,
            _ => {}
        }
        begun = true;
        count += std::mem::take(&mut pending);
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
        let mut left = tabs(doc, paragraph);
        for (at, &child) in children.iter().enumerate() {
            let Kind::Text(text) = doc.kind(child) else {
                doc.move_into(cell, child);
                continue;
            };
            let is_last = at + 1 == children.len();
            let mut start = text.start;
            let words = doc.text(text).to_owned();
            let pieces: Vec<&str> = words.split('\t').collect();
            for (index, piece) in pieces.iter().enumerate() {
                // Tabs before the first words and behind the last ones begin no cell.
                if index > 0 && left > 0 && doc.node(cell).first_child().is_some() {
                    cell = doc.append_at(row, Kind::Cell(CellKind::PLAIN), offset);
                    left -= 1;
                }
                let end = start + piece.len() as u32;
                // Space at the edges of a cell is none; what stands beside an element is space between words.
                let at_start = doc.node(cell).first_child().is_none();
                let at_end = index + 1 < pieces.len() || is_last;
                let before = if at_start { piece.len() - piece.trim_start().len() } else { 0 };
                let behind = if at_end { piece.trim_start().len() - piece.trim().len() } else { 0 };
                let words = Text { start: start + before as u32, end: end - behind as u32 };
                if words.start < words.end {
                    doc.append_joined(cell, words, offset);
                }
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
        for line in ["Tea\t15:00", "\tGate \t10:00\t", "alone", "one\ttab"] {
            let paragraph = doc.append(doc.root(), Kind::Paragraph);
            doc.append_text(paragraph, line);
        }
        make_tables(&mut doc);
        let html = html::write(
            &doc,
            &html::Options { settings: &html::Settings { compact: true, ..Default::default() }, ..Default::default() },
        )
        .html;
        assert_eq!(
            html,
            "<table><tbody><tr><td>Tea</td><td>15:00</td></tr><tr><td>Gate</td><td>10:00</td></tr></tbody></table><p>alone</p><p>one\ttab</p>"
        );
    }

    #[test]
    fn first_lines_are_no_columns_and_words_stay_apart() {
        let mut doc = Document::new();
        for line in ["\tIt came in.", "\tThen it went ", "a\t", "b\t"] {
            let paragraph = doc.append(doc.root(), Kind::Paragraph);
            doc.append_text(paragraph, line);
        }
        make_tables(&mut doc);
        assert!(doc.children(doc.root()).all(|block| doc.kind(block) == Kind::Paragraph));
        let mut doc = Document::new();
        for _ in 0..2 {
            let paragraph = doc.append(doc.root(), Kind::Paragraph);
            doc.append_text(paragraph, "the lamp\tis ");
            let strong = doc.append(paragraph, Kind::Strong);
            doc.append_text(strong, "lit");
            doc.append_text(paragraph, " at six ");
        }
        make_tables(&mut doc);
        let html = html::write(
            &doc,
            &html::Options { settings: &html::Settings { compact: true, ..Default::default() }, ..Default::default() },
        )
        .html;
        assert_eq!(html.matches("<td>is <strong>lit</strong> at six</td>").count(), 2, "{html}");
    }
}
