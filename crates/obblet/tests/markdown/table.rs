//! Tables as text, read and written.

use obblet::document::{CellKind, Document, Kind, NodeId, RowGroupKind, Scope, Weight};
use obblet::formats::table::{self, Head, Separator, Settings};
use obblet::profile::Profile;
use obblet::{Context, Format, convert, convert_in};
use proptest::prelude::*;

fn cells(doc: &Document) -> Vec<Vec<String>> {
    let rows = doc.nodes().filter(|(id, node)| node.kind() == Kind::Row && doc.ancestors(*id).any(|above| above == doc.root()));
    rows.map(|(row, _)| doc.children(row).map(|cell| doc.plain_text(cell)).collect()).collect()
}

#[track_caller]
fn case(source: &[u8], expected: &[&[&str]], has_head: bool) {
    let doc = table::read(source, &Settings::default());
    assert_eq!(cells(&doc), expected, "{}", String::from_utf8_lossy(source));
    let head = doc.nodes().any(|(_, node)| node.kind() == Kind::RowGroup(RowGroupKind::Head));
    assert_eq!(head, has_head, "{}", doc.dump());
}

#[test]
fn separators_heads_and_quoting_are_found_out() {
    case(b"Day,Time\nMonday,06:12\n", &[&["Day", "Time"], &["Monday", "06:12"]], true);
    case(b"Day;Height\nMonday;4,1\nTuesday;4,2\n", &[&["Day", "Height"], &["Monday", "4,1"], &["Tuesday", "4,2"]], true);
    case(b"a\tb\tc\r\n1\t2\t3\r\n", &[&["a", "b", "c"], &["1", "2", "3"]], true);
    case(b"1|2\n3|4\n", &[&["1", "2"], &["3", "4"]], false);
    case("\u{FEFF}a,b\n1,\"x, \"\"y\"\"\nz\"\n".as_bytes(), &[&["a", "b"], &["1", "x, \"y\"\nz"]], true);
    case(b"one\ntwo\n", &[&["one"], &["two"]], true);
    case(b"same,same\n1,2\n", &[&["same", "same"], &["1", "2"]], false);
    case(b"", &[], false);
}

#[test]
fn a_table_is_a_page_a_document_and_a_table_again() {
    let source = b"Day,High water\nMonday,06:12\n";
    let through = |writes| convert(source, Format::Table, writes, &Profile::fragment()).unwrap();
    let html = through(Format::Html);
    assert!(html.text().unwrap().contains("<th scope=\"col\">High water</th>"), "{html:?}");
    for writes in [Format::Html, Format::Markdown, Format::Table] {
        let there = through(writes);
        let back = convert(&there.bytes, writes, Format::Table, &Profile::fragment()).unwrap();
        assert_eq!(back.bytes, source, "{writes}");
        assert!(back.findings.is_empty(), "{:?}", back.findings);
    }
    let context = Context { extension: "tsv", ..Context::default() };
    let tabs = convert_in(source, Format::Table, Format::Table, &Profile::fragment(), &context).unwrap();
    assert_eq!(tabs.text(), Some("Day\tHigh water\nMonday\t06:12\n"));
}

#[test]
fn what_a_table_can_not_say_is_in_the_findings() {
    let source =
        b"# Tides\n\n| Day | Time |\n|--|--|\n| *Monday* | 06:12 |\n\n| more |\n|--|\n| lost |\n\nEnd.[^n]\n\n[^n]: Noted.\n";
    let written = convert(source, Format::Markdown, Format::Table, &Profile::fragment()).unwrap();
    assert_eq!(written.text(), Some("Day,Time\nMonday,06:12\n"));
    let lost: String =
        written.findings.iter().filter(|found| found.weight == Weight::Lost).map(|found| found.lost.clone()).collect();
    for word in ["Tides", "more", "lost", "End.", "Noted."] {
        assert!(lost.contains(word), "{word} in {lost}");
    }
    let spans = b"<table><tr><td rowspan=2>a<td colspan=2>b<tr><td>c<td>d</table>";
    let written = convert(spans, Format::Html, Format::Table, &Profile::fragment()).unwrap();
    assert_eq!(written.text(), Some("a,b,\n,c,d\n"));
    assert!(written.findings.iter().any(|found| found.code == "table.spans"));
    let none = convert(b"Just text", Format::Markdown, Format::Table, &Profile::fragment()).unwrap();
    assert_eq!(
        (none.text(), none.findings[0].code.as_ref(), none.findings[0].lost.as_str()),
        (Some(""), "table.empty", "Just text")
    );
    let odd = table::read(b"a,b\n1\n2,3,4\n", &Settings { separator: Separator::Comma, ..Settings::default() });
    assert_eq!((odd.findings[0].code.as_ref(), odd.findings[0].place.to_string()), ("table.rows", "2:1".to_owned()));
}

fn built(rows: &[Vec<String>], has_head: bool) -> Document {
    let mut doc = Document::new();
    let table = doc.append(doc.root(), Kind::Table);
    let mut body: Option<NodeId> = None;
    for (at, row) in rows.iter().enumerate() {
        let is_head = at == 0 && has_head;
        let group = if is_head {
            doc.append(table, Kind::RowGroup(RowGroupKind::Head))
        } else {
            *body.get_or_insert_with(|| doc.append(table, Kind::RowGroup(RowGroupKind::Body)))
        };
        let node = doc.append(group, Kind::Row);
        for text in row {
            let kind = if is_head { CellKind { header: true, scope: Scope::Column, ..CellKind::PLAIN } } else { CellKind::PLAIN };
            let cell = doc.append(node, Kind::Cell(kind));
            if !text.is_empty() {
                doc.append_text(cell, text);
            }
        }
    }
    doc
}

proptest! {
    #[test]
    fn any_table_of_text_comes_back_as_it_was(
        width in 1_usize..5,
        texts in prop::collection::vec("[a-z0-9,;|\"'\u{6F6E} ]{0,8}", 4..24),
        separator in prop::sample::select(vec![Separator::Comma, Separator::Tab, Separator::Semicolon, Separator::Bar]),
        has_head in any::<bool>(),
    ) {
        let texts: Vec<String> = texts.into_iter().map(|text| text.trim().to_owned()).collect();
        let mut rows: Vec<Vec<String>> = texts.chunks_exact(width).map(<[String]>::to_vec).collect();
        // A row of one empty cell is an empty line, which is no row.
        rows.retain(|row| width > 1 || !row[0].is_empty());
        prop_assume!(rows.len() > 1);
        let doc = built(&rows, has_head);
        let written = table::write(&doc, separator).text;
        let head = if has_head { Head::First } else { Head::None };
        let again = table::read(written.as_bytes(), &Settings { separator, head, encoding: String::new() });
        prop_assert!(doc == again, "{}\n{}\n{}", written, doc.dump(), again.dump());
    }
}
