//! What Word documents hold and do not show: it is told, and comes where it is asked for.
#![allow(missing_docs, clippy::unwrap_used, clippy::panic, clippy::print_stderr, reason = "tests")]

use crate::support;

use obblet::{Converted, Format};
use support::convert::convert;
use support::package::{Package, cell, field, paragraph, picture, plain, row, table, text};

fn with(package: &Package, settings: &[&str]) -> Converted {
    convert(package.bytes(), Format::Word, Format::Html, &[settings, &["html.compact=true"]].concat())
}

/// The words that findings of a code say are gone.
fn lost(converted: &Converted, code: &str) -> Vec<String> {
    converted.findings.iter().filter(|finding| finding.code == code).map(|finding| finding.lost.clone()).collect()
}

/// A table of two columns, whose second row has these properties.
fn rows(properties: &str) -> Package {
    let cells = |words: [&str; 2]| words.map(|words| cell("", &plain(words)));
    let inner = table("", &[1000], &[row("", &[cell("", &plain("within"))])]);
    let middle = [cell("", &plain("seldom")), cell("", &format!("{}{}", inner, plain("seen")))];
    Package::of(&table(
        "",
        &[1000, 1000],
        &[row("", &cells(["first", "row"])), row(properties, &middle), row("", &cells(["last", "one"]))],
    ))
}

#[test]
fn rows_that_are_hidden_or_taken_out_keep_their_words() {
    let shown = "<tr><td>first</td><td>row</td></tr>";
    for (properties, code, setting) in [
        ("<w:hidden/>", "word.hidden", "word.hidden=true"),
        ("<w:del w:id=\"1\" w:author=\"a\"/>", "clean.revision", "clean.revisions=keep"),
        ("<w:del w:id=\"1\" w:author=\"a\"/>", "clean.revision", "clean.revisions=reject"),
    ] {
        let converted = with(&rows(properties), &[]);
        assert!(
            converted.text().unwrap().contains(shown) && !converted.text().unwrap().contains("seldom"),
            "{}",
            converted.text().unwrap()
        );
        assert_eq!(lost(&converted, code), ["seldom within seen"], "{properties}");
        let converted = with(&rows(properties), &[setting]);
        assert!(
            converted.text().unwrap().contains("seldom") && converted.text().unwrap().contains("within"),
            "{}",
            converted.text().unwrap()
        );
        assert!(lost(&converted, code).is_empty(), "{setting}");
    }
    let inserted = with(&rows("<w:ins w:id=\"1\" w:author=\"a\"/>"), &["clean.revisions=reject"]);
    assert_eq!(lost(&inserted, "clean.revision"), ["seldom within seen"]);
    // A row that holds only a picture is something, too.
    let mut pictured = rows("<w:hidden/>");
    pictured.body =
        pictured.body.replace("<w:t xml:space=\"preserve\">seldom</w:t>", "").replace("seen", "").replace("within", "");
    assert!(with(&pictured, &[]).findings.iter().all(|finding| finding.code != "word.hidden"));
    let png = include_bytes!("../../../../demo/images/one-day.png");
    pictured.pictures.push(("p.png".to_owned(), png.to_vec()));
    pictured.body = pictured.body.replacen("<w:r></w:r>", &picture("p.png", "", 4, 4), 1);
    assert!(with(&pictured, &[]).findings.iter().any(|finding| finding.code == "word.hidden"));
}

#[test]
fn cells_that_go_on_keep_what_is_typed_in_them() {
    let down = |properties: &str, words: &str| cell(&format!("<w:vMerge{properties}/>"), &plain(words));
    let package = Package::of(&table(
        "",
        &[1000, 1000],
        &[
            row("", &[down(" w:val=\"restart\"", "above"), cell("", &plain("a"))]),
            row("", &[down("", "typed"), cell("", &plain("b"))]),
            row("", &[down("", ""), cell("", &plain("c"))]),
        ],
    ));
    let converted = with(&package, &[]);
    assert!(converted.text().unwrap().contains("<td rowspan=\"3\">above</td><td>a</td>"), "{}", converted.text().unwrap());
    assert_eq!(lost(&converted, "word.hidden"), ["typed"]);
    let converted = with(&package, &["word.hidden=true"]);
    assert!(
        converted.text().unwrap().contains("<td rowspan=\"3\"><p>above</p><p>typed</p></td><td>a</td>"),
        "{}",
        converted.text().unwrap()
    );
    assert!(lost(&converted, "word.hidden").is_empty());
    // Cells of old documents that are joined from left to right.
    let across = Package::of(&table(
        "",
        &[1000, 1000],
        &[row(
            "",
            &[cell("<w:hMerge w:val=\"restart\"/>", &plain("left")), cell("<w:hMerge w:val=\"continue\"/>", &plain("right"))],
        )],
    ));
    assert_eq!(lost(&with(&across, &[]), "word.hidden"), ["right"]);
    assert!(with(&across, &["word.hidden=true"]).into_text().unwrap().contains("<p>left</p><p>right</p>"));
}

#[test]
fn a_link_within_a_link_is_told() {
    let link = |content: &str| format!("<w:hyperlink r:id=\"outer\">{content}</w:hyperlink>");
    let with_link = |content: &str| {
        let mut package = Package::of(&paragraph("", content));
        package.links.push(("outer".to_owned(), "https://tides.example/outer".to_owned()));
        with(&package, &[])
    };
    let inner = field("HYPERLINK \"https://tides.example/inner\"", &text("both"));
    let converted = with_link(&link(&inner));
    assert_eq!(converted.text().unwrap(), "<p><a href=\"https://tides.example/outer\">both</a></p>");
    assert_eq!(lost(&converted, "word.nested-link"), ["https://tides.example/inner"]);
    // Two links that lead to the same place lose nothing, nor does one that has text of its own.
    let same = field("HYPERLINK \"https://tides.example/outer\"", &text("both"));
    assert!(lost(&with_link(&link(&same)), "word.nested-link").is_empty());
    let fields = field("HYPERLINK \"https://tides.example/a\"", &field("HYPERLINK \"https://tides.example/b\"", &text("x")));
    assert_eq!(lost(&with_link(&fields), "word.nested-link"), ["https://tides.example/a"]);
    let apart = field(
        "HYPERLINK \"https://tides.example/a\"",
        &[text("own "), field("HYPERLINK \"https://tides.example/b\"", &text("x"))].concat(),
    );
    assert!(lost(&with_link(&apart), "word.nested-link").is_empty());
}
