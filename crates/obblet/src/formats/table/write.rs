//! Writing tables as text: the first table of a document.

use super::Separator;
use crate::document::{Document, Finding, Kind, NodeId, Step};
use crate::refine::structure;

/// A table as text, and what the user should know about it.
#[derive(Clone, Debug, Default)]
pub struct Written {
    /// The table.
    pub text: String,
    /// Findings of the writing.
    pub findings: Vec<Finding>,
}

/// No row has more cells than this.
const MOST_CELLS: usize = 1 << 14;

/// Writes the first table of a document.
///
/// ```
/// use obblet::formats::table::{self, Separator, Settings};
///
/// let doc = table::read(b"Day,Note\nMonday,\"low, then high\"\n", &Settings::default());
/// let written = table::write(&doc, Separator::Semicolon);
/// assert_eq!(written.text, "Day;Note\nMonday;low, then high\n");
/// ```
#[must_use]
pub fn write(doc: &Document, separator: Separator) -> Written {
    let (doc, mut findings) = structure::repaired(doc);
    let doc = &*doc;
    let Some(table) = first_table(doc) else {
        let words = plain(doc, doc.root());
        if !words.is_empty() {
            let message = "the document has no table; its text was left out";
            findings.push(Finding::lost("table.empty", message).losing(words).hint("write it in another format"));
        }
        return Written { text: String::new(), findings };
    };
    let mut out = csv::WriterBuilder::new().flexible(true).delimiter(separator.byte().unwrap_or(b',')).from_writer(Vec::new());
    let (mut spans, mut formatted) = (0, 0);
    // For each column, how many rows more a cell from above takes.
    let mut covered: Vec<u16> = Vec::new();
    for row in rows(doc, table) {
        let mut cells: Vec<String> = Vec::new();
        let cover = |cells: &mut Vec<String>, covered: &mut Vec<u16>| {
            while let Some(rows) = covered.get_mut(cells.len()).filter(|rows| **rows > 0) {
                *rows -= 1;
                cells.push(String::new());
            }
        };
        for id in doc.children(row) {
            let Kind::Cell(cell) = doc.kind(id) else { continue };
            cover(&mut cells, &mut covered);
            spans += usize::from(cell.columns > 1 || cell.rows > 1);
            formatted += usize::from(is_formatted(doc, id));
            for at in 0..usize::from(cell.columns).min(MOST_CELLS - cells.len().min(MOST_CELLS)) {
                if covered.len() <= cells.len() {
                    covered.resize(cells.len() + 1, 0);
                }
                covered[cells.len()] = cell.rows.saturating_sub(1);
                cells.push(if at == 0 { plain(doc, id) } else { String::new() });
            }
        }
        cover(&mut cells, &mut covered);
        let _ = out.write_record(&cells);
    }
    let text = out.into_inner().ok().and_then(|bytes| String::from_utf8(bytes).ok()).unwrap_or_default();
    let place = doc.place(table);
    if spans > 0 {
        findings.push(Finding::changed("table.spans", format!("merged cells became one cell and empty ones: {spans}")).at(place));
    }
    if formatted > 0 {
        let message = format!("cells lost their formatting, links or images: {formatted}");
        findings.push(Finding::changed("table.formatting", message).at(place));
    }
    let rest = text_beside(doc, table);
    if !rest.is_empty() {
        let message = "only the first table is written; the text around it and other tables were left out";
        findings.push(Finding::lost("table.text", message).losing(rest).hint("write the document in another format"));
    }
    Written { text, findings }
}

fn first_table(doc: &Document) -> Option<NodeId> {
    doc.walk_all().find_map(|step| match step {
        Step::Enter(id) if doc.kind(id) == Kind::Table => Some(id),
        _ => None,
    })
}

/// The rows of a table, without those of tables in its cells.
fn rows(doc: &Document, table: NodeId) -> Vec<NodeId> {
    let mut rows = Vec::new();
    for child in doc.children(table) {
        match doc.kind(child) {
            Kind::Row => rows.push(child),
            Kind::RowGroup(_) => rows.extend(doc.children(child).filter(|&row| doc.kind(row) == Kind::Row)),
            _ => {}
        }
    }
    rows
}

fn plain(doc: &Document, id: NodeId) -> String {
    doc.plain_text(id).trim().to_owned()
}

/// Whether a cell has more than text and the paragraphs that hold it.
fn is_formatted(doc: &Document, cell: NodeId) -> bool {
    let is_plain =
        |kind: Kind| matches!(kind, Kind::Cell(_) | Kind::Text(_) | Kind::Paragraph | Kind::LineBreak | Kind::SoftBreak);
    doc.walk(cell).any(|step| matches!(step, Step::Enter(id) if !is_plain(doc.kind(id))))
}

/// The words of a document that are not in one of its tables, or not in its rows.
fn text_beside(doc: &Document, table: NodeId) -> String {
    let mut rest = String::new();
    let mut add = |text: &str| {
        if !rest.is_empty() && !text.is_empty() {
            rest.push('\n');
        }
        rest.push_str(text.trim());
    };
    for root in doc.roots() {
        let mut walk = doc.walk(root);
        while let Some(step) = walk.next() {
            let Step::Enter(id) = step else { continue };
            if id == table {
                doc.children(id).filter(|&part| doc.kind(part) == Kind::Caption).for_each(|caption| add(&plain(doc, caption)));
                walk.skip_children(id);
            } else if !doc.ancestors(table).any(|above| above == id) {
                add(&plain(doc, id));
                walk.skip_children(id);
            }
        }
    }
    rest
}
