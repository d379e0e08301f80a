//! Reading tables as text.

use super::{Head, Settings};
use crate::document::{CellKind, Document, Finding, Kind, NodeId, RowGroupKind, Scope, SourceMap};
use crate::encoding;
use std::collections::HashSet;

/// The separators that are tried, in the order in which they win where several fit as well.
const SEPARATORS: [u8; 4] = [b',', b'\t', b';', b'|'];

/// So many records are looked at to find out the separator.
const SAMPLE: usize = 50;

/// Reads a table. Any bytes are one; what is doubtful about them is in the findings.
///
/// ```
/// use obblet::formats::table::{self, Settings};
///
/// let doc = table::read(b"Day;High water\nMonday;06:12\n", &Settings::default());
/// assert_eq!(doc.plain_text(doc.root()), "Day\nHigh water\nMonday\n06:12");
/// ```
#[must_use]
pub fn read(bytes: &[u8], settings: &Settings) -> Document {
    let encoding = Some(settings.encoding.as_str()).filter(|label| !label.is_empty());
    let (source, doubt) = encoding::decode(bytes, encoding, "table.encoding", |_| None);
    let mut doc = Document::with_pool(String::with_capacity(source.len()), source.len() / 8 + 16);
    doc.source = SourceMap::of_source(&source).read_from(bytes, &source);
    doc.findings.extend(doubt);
    let separator = settings.separator.byte().unwrap_or_else(|| find_separator(&source));
    let table = doc.append_at(doc.root(), Kind::Table, 0);
    let mut body = None;
    let (mut first, mut count, mut odd): (Option<NodeId>, usize, Option<(u32, usize)>) = (None, 0, None);
    let mut records = records(&source, separator);
    let mut record = csv::StringRecord::new();
    while records.read_record(&mut record).unwrap_or(false) {
        // Empty lines before a record are none of its bytes.
        let start = record.position().map_or(0, |position| position.byte() as usize);
        let start = start + source[start..].len() - source[start..].trim_start_matches(['\r', '\n']).len();
        let line = u32::try_from(start).unwrap_or(SourceMap::UNKNOWN);
        let group = *body.get_or_insert_with(|| doc.append(table, Kind::RowGroup(RowGroupKind::Body)));
        let row = doc.append_at(group, Kind::Row, line);
        for cell in &record {
            let node = doc.append_at(row, Kind::Cell(CellKind::PLAIN), line);
            append_cell(&mut doc, node, cell.trim());
        }
        match first {
            None => (first, count) = (Some(row), record.len()),
            Some(_) if record.len() != count => odd = Some(odd.map_or((line, 1), |(line, more)| (line, more + 1))),
            Some(_) => {}
        }
    }
    if let Some(row) = first.filter(|&row| is_head(&doc, row, settings.head)) {
        set_head(&mut doc, table, row);
    }
    if first.is_none() {
        doc.detach(table);
    }
    doc.end_blocks_with_lines(&source);
    doc.order_spans();
    if let Some((line, more)) = odd {
        let place = doc.source.place("", line);
        let message = format!("rows have fewer or more cells than the first one, which has {count}: {more}");
        doc.push_finding(Finding::advice("table.rows", message).at(place).hint("look for separators within cells"));
    }
    doc
}

fn records(source: &str, separator: u8) -> csv::Reader<&[u8]> {
    csv::ReaderBuilder::new().has_headers(false).flexible(true).delimiter(separator).from_reader(source.as_bytes())
}

/// The separator with which most records have as many cells as the first, and more than one.
fn find_separator(source: &str) -> u8 {
    let fit = |separator: u8| {
        let mut records = records(source, separator);
        let mut record = csv::StringRecord::new();
        let (mut cells, mut same, mut all) = (0, 0, 0);
        while all < SAMPLE && records.read_record(&mut record).unwrap_or(false) {
            if all == 0 {
                cells = record.len();
            }
            same += usize::from(record.len() == cells);
            all += 1;
        }
        if cells < 2 { (0, 0) } else { (same * 100 / all.max(1), cells) }
    };
    let best = SEPARATORS.into_iter().rev().max_by_key(|&separator| fit(separator));
    best.filter(|&separator| fit(separator).0 > 0).unwrap_or(b',')
}

/// The text of a cell; its line ends are line breaks.
fn append_cell(doc: &mut Document, cell: NodeId, text: &str) {
    for (at, line) in text.lines().enumerate() {
        if at > 0 {
            doc.append(cell, Kind::LineBreak);
        }
        if !line.is_empty() {
            doc.append_text(cell, line);
        }
    }
}

fn is_head(doc: &Document, row: NodeId, head: Head) -> bool {
    match head {
        Head::First => true,
        Head::None => false,
        Head::Auto => {
            let texts: Vec<String> = doc.children(row).map(|cell| doc.plain_text(cell)).collect();
            let words = |text: &String| text.chars().any(char::is_alphabetic);
            let distinct: HashSet<&String> = texts.iter().collect();
            doc.node(row).next().is_some() && texts.iter().all(words) && distinct.len() == texts.len()
        }
    }
}

fn set_head(doc: &mut Document, table: NodeId, row: NodeId) {
    let head = doc.create(Kind::RowGroup(RowGroupKind::Head));
    if let Some(body) = doc.node(table).first_child() {
        doc.move_before(body, head);
    }
    doc.move_into(head, row);
    let cells: Vec<NodeId> = doc.children(row).collect();
    for cell in cells {
        doc.set_kind(cell, Kind::Cell(CellKind { header: true, scope: Scope::Column, ..CellKind::PLAIN }));
    }
    let body = doc.node(table).last_child().filter(|&body| doc.node(body).first_child().is_none());
    if let Some(body) = body {
        doc.detach(body);
    }
}
