//! A law of all readers: the spans of the blocks at the top stand in their order and do not overlap, so that they and what is
//! between them are the source, byte for byte; and each holds what its block says.
#![allow(missing_docs, clippy::unwrap_used, clippy::panic, reason = "tests")]

use crate::support;

use obblet::document::{Document, Kind, Span};
use obblet::formats::word;
use obblet::profile::Profile;
use obblet::{Format, read};
use proptest::prelude::*;
use std::path::{Path, PathBuf};
use support::package::{self, Package};

/// The spans of the blocks at the top of a part, with what is between them.
#[track_caller]
fn pieces<'s>(doc: &Document, source: &'s [u8], part: usize, name: &str) -> Vec<(Option<obblet::document::NodeId>, &'s [u8])> {
    let (mut at, mut pieces) = (0, Vec::new());
    for id in doc.children(doc.root()) {
        let Some(Span { part: found, start, end }) = doc.span(id) else { continue };
        if found != part {
            continue;
        }
        let (start, end) = (start as usize, end as usize);
        assert!(at <= start && start <= end && end <= source.len(), "{name}: {at} {start}..{end} of {}", source.len());
        pieces.extend([(None, &source[at..start]), (Some(id), &source[start..end])]);
        at = end;
    }
    pieces.push((None, &source[at..]));
    let whole: Vec<u8> = pieces.iter().flat_map(|(_, piece)| piece.iter().copied()).collect();
    assert_eq!(whole, source, "{name}");
    pieces
}

/// The bytes that spans count: those of the text as it was read, where that was in another encoding than UTF-8.
fn read_bytes(doc: &Document, source: &[u8]) -> Vec<u8> {
    match doc.source.parts().first() {
        Some(part) if part.length as usize != source.len() => {
            assert!(std::str::from_utf8(source).is_err() || source.contains(&0));
            doc.source.text(doc.pool(), 0).unwrap().as_bytes().to_vec()
        }
        _ => source.to_vec(),
    }
}

fn letters(text: &str) -> String {
    text.chars().filter(|c| c.is_alphanumeric()).collect()
}

/// Checks a document of a text format: what is said in a block is said where its span is.
#[track_caller]
fn check(source: &[u8], format: Format, name: &str) {
    let doc = read(source, format, &Profile::fragment()).unwrap();
    let source = read_bytes(&doc, source);
    let pieces = pieces(&doc, &source, 0, name);
    for (id, piece) in pieces {
        let (Some(id), Ok(piece)) = (id, std::str::from_utf8(piece)) else { continue };
        let alone = read(piece.as_bytes(), format, &Profile::fragment()).unwrap();
        let is_plain = !piece.contains(['[', '<', '&']) || format == Format::Html;
        // Formulas, notes and links need what is elsewhere; what a page hides or moves is another matter.
        if is_plain && format == Format::Markdown {
            assert_eq!(letters(&alone.plain_text(alone.root())), letters(&doc.plain_text(id)), "{name}: {piece}");
            let first = alone.node(alone.root()).first_child();
            assert_eq!(first.map(|first| alone.kind(first).element()), Some(doc.kind(id).element()), "{name}: {piece}");
        }
    }
}

fn documents(folder: &Path, found: &mut Vec<PathBuf>) {
    let mut entries: Vec<PathBuf> = std::fs::read_dir(folder).unwrap().map(|entry| entry.unwrap().path()).collect();
    entries.sort();
    for path in entries {
        if path.is_dir() {
            documents(&path, found);
        } else if path.extension().and_then(|extension| extension.to_str()).and_then(Format::from_extension).is_some() {
            found.push(path);
        }
    }
}

/// Checks the parts of a package that nodes at the top come from.
fn check_word(source: &[u8], name: &str) -> Option<()> {
    let doc = word::read(source, &word::ReadOptions { keeps_source: true, ..word::ReadOptions::default() }).ok()?;
    let text = doc.source.text(doc.pool(), 0)?.to_owned();
    for (id, piece) in pieces(&doc, text.as_bytes(), 0, name) {
        let Some(id) = id.filter(|_| !piece.is_empty()) else { continue };
        let piece = std::str::from_utf8(piece).unwrap();
        assert!(piece.starts_with('<') && piece.ends_with('>'), "{name}: {piece}");
        if doc.kind(id) == Kind::Paragraph {
            let name_of = |tag: &str| tag.trim_start_matches(['<', '/']).split([' ', '>', '/']).next().map(str::to_owned);
            let (first, last) = (name_of(piece), name_of(&piece[piece.rfind('<').unwrap()..]));
            assert_eq!(first, last, "{name}: {piece}");
        }
    }
    // Notes are in parts of their own.
    for note in &doc.notes {
        if let Some(span) = doc.span(note.body) {
            let part = doc.source.text(doc.pool(), span.part)?;
            let piece = &part[span.range()];
            assert!(piece.starts_with('<') && (piece.ends_with("note>") || piece.ends_with("comment>")), "{name}: {piece}");
        }
    }
    Some(())
}

#[test]
fn spans_of_the_demo_and_of_a_folder_are_the_source() {
    let mut found = Vec::new();
    documents(&Path::new(env!("CARGO_MANIFEST_DIR")).join("../../demo"), &mut found);
    assert!(found.len() > 20);
    if let Some(folder) = std::env::var_os("OBBLET_CORPUS") {
        documents(Path::new(&folder), &mut found);
    }
    let mut packages = 0;
    for path in found {
        let (source, name) = (std::fs::read(&path).unwrap(), path.display().to_string());
        let format = Format::from_extension(path.extension().unwrap().to_str().unwrap()).unwrap();
        match format.name() {
            "word" => packages += usize::from(check_word(&source, &name).is_some()),
            _ => check(&source, format, &name),
        }
    }
    assert!(packages > 3);
}

#[test]
fn blocks_are_where_their_lines_are() {
    let source = "---\ntitle: Tides\n---\n\nHigh\n====\n\n> one\n> two\n\n- a\n\n  b\n\n- c\n\n```\ncode\n\n```\n***\n\n    x\n\n    y\n\nlast | row\n-- | --\na | b\n\n[^1]: note\n    on\n";
    let mut doc = read(source.replace('\n', "\r\n").as_bytes(), Format::Markdown, &Profile::fragment()).unwrap();
    let bytes = source.replace('\n', "\r\n");
    let slices: Vec<String> = doc
        .children(doc.root())
        .chain(doc.notes.iter().map(|note| note.body))
        .map(|id| bytes[doc.span(id).unwrap().range()].replace("\r\n", "|"))
        .collect();
    let expected = [
        "High|====|",
        "> one|> two|",
        "- a||  b||- c|",
        "```|code||```|",
        "***|",
        "    x||    y|",
        "last | row|-- | --|a | b|",
        "[^1]: note|    on|",
    ];
    assert_eq!(slices, expected.map(|slice| slice.to_owned()));
    // A block that is split is not all of its source any more.
    let first = doc.node(doc.root()).first_child().unwrap();
    let text = doc.node(first).first_child().unwrap();
    doc.split_after(text).unwrap();
    assert_eq!(doc.span(first), None);

    let page = "<title>T</title>\r\n<h1>High</h1>\r\n<p>one\r\n<p>two<table><tr><td>a</table>\r\n<ul><li>x</ul> loose <!-- c -->";
    let doc = read(page.as_bytes(), Format::Html, &Profile::fragment()).unwrap();
    let slices: Vec<&str> = doc.children(doc.root()).map(|id| &page[doc.span(id).unwrap().range()]).collect();
    assert_eq!(slices, ["<h1>High</h1>", "<p>one\r\n", "<p>two", "<table><tr><td>a</table>", "<ul><li>x</ul>", ""]);
}

#[test]
fn paragraphs_of_packages_are_where_their_elements_are() {
    let body =
        package::plain("High") + &package::table("", &[2000], &[package::row("", &[package::cell("", &package::plain("six"))])]);
    let doc = word::read(&Package::of(&body).bytes(), &word::ReadOptions { keeps_source: true, ..Default::default() }).unwrap();
    let text = doc.source.text(doc.pool(), 0).unwrap();
    let slices: Vec<&str> = doc.children(doc.root()).map(|id| &text[doc.span(id).unwrap().range()]).collect();
    assert_eq!(slices, [package::plain("High"), body[package::plain("High").len()..].to_owned()]);
    assert_eq!(doc.source.parts()[0].path, "word/document.xml");
}

/// Pieces of markup that open, close and break off.
fn markup() -> impl Strategy<Value = String> {
    let pieces = [
        "# a\n",
        "a\n",
        "\n",
        "> ",
        "- ",
        "1. ",
        "    ",
        "```\n",
        "~~~\n",
        "<div>\n",
        "</div>",
        "<p>",
        "<table>",
        "<td>",
        "</p>",
        "<b>",
        "</b>",
        "| a | b |\n",
        "|--|--|\n",
        "***\n",
        "===\n",
        "---\n",
        "[a]: b\n",
        "[^1]: n\n",
        "[^1]",
        "\r\n",
        "\t",
        "\0",
        "\u{FEFF}",
        "é",
        "<!-- ",
        "-->",
        "<li>",
        "\u{2028}",
        "\u{c}",
        "a,b\n",
        "\"",
        "<pre>\n",
        "<h2>",
        "</h2>",
    ];
    proptest::collection::vec(0..pieces.len(), 0..40).prop_map(move |all| all.into_iter().map(|at| pieces[at]).collect())
}

proptest! {
    #[test]
    fn spans_of_anything_are_the_source(source in markup(), odd in any::<bool>()) {
        let mut bytes = source.into_bytes();
        if odd {
            bytes.extend(b"\xFF a");
        }
        for format in ["markdown", "html", "org", "text", "table"] {
            let format: Format = format.parse().unwrap();
            let doc = read(&bytes, format, &Profile::fragment()).unwrap();
            pieces(&doc, &read_bytes(&doc, &bytes), 0, format.name());
        }
    }
}
