//! What word processors' documents of every day hold: boxes, rules, numbered headings, heads of tables, footers, tab stops.
#![allow(missing_docs, clippy::unwrap_used, clippy::panic, reason = "tests")]

use crate::support;

use obblet::{Converted, Format};
use support::convert::convert;
use support::package::{Package, cell, field, levels, numbering, paragraph, plain, row, run, style, styled, table, text};

fn converted(package: &Package, settings: &[&str]) -> Converted {
    let mut all = vec!["html.compact=true"];
    all.extend(settings);
    convert(package.bytes(), Format::Word, Format::Html, &all)
}

#[track_caller]
fn case(package: &Package, expected: &str) {
    assert_eq!(converted(package, &[]).into_text().unwrap(), expected, "{}", package.body);
}

fn border(sides: &[&str]) -> String {
    let sides: String = sides.iter().map(|side| format!("<w:{side} w:val=\"single\" w:sz=\"8\" w:color=\"336699\"/>")).collect();
    format!("<w:pBdr>{sides}</w:pBdr>")
}

#[test]
fn empty_paragraphs_in_boxes_are_space_and_lone_lines_are_rules() {
    let boxed = border(&["top", "left", "bottom", "right"]);
    let package = |styles: String, body: String| Package { styles, ..Package::of(&body) };
    let notice = style("N", "Notice", "", &boxed, "");
    let body = styled("N", "a") + &styled("N", "") + &styled("N", "b") + &plain("c");
    case(&package(notice, body), "<p>a</p><p>b</p><p>c</p>");
    // A style that only ever draws a line draws lines; one that text has as well makes space where there is none.
    let line = style("L", "Line", "", &border(&["bottom"]), "");
    let lines = plain("a") + &styled("L", "") + &plain("b");
    case(&package(line.clone(), lines.clone()), "<p>a</p><hr><p>b</p>");
    case(&package(line, lines + &styled("L", "c")), "<p>a</p><p>b</p><p>c</p>");
    // By hand: a line of its own, and the end of a box that text begins.
    let below = border(&["bottom"]);
    let body = paragraph(&below, &text("a")) + &paragraph(&below, "") + &plain("b") + &paragraph(&below, "");
    case(&Package::of(&body), "<p>a</p><p>b</p><hr>");
}

#[test]
fn paragraphs_with_the_same_border_are_one_box() {
    let boxed = border(&["top", "left", "bottom", "right", "between"]) + "<w:spacing w:before=\"40\" w:after=\"120\"/>";
    let styles = style("N", "Notice", "", &boxed, "") + &style("M", "Other", "", &border(&["left"]), "");
    let body = styled("N", "a") + &styled("N", "b") + &styled("M", "c") + &plain("d") + &styled("N", "e");
    let page = converted(&Package { styles, ..Package::of(&body) }, &["styling=exact", "shape=page", "page.look=none"])
        .into_text()
        .unwrap();
    for piece in [
        ".joined1 { border-bottom: none; margin-bottom: 0; padding-bottom: 6pt }",
        ".joined2 { border-top: 1pt solid #336699; margin-top: 0; padding-top: 2pt }",
        "<p class=\"notice joined1\">a</p><p class=\"notice joined2\">b</p><p class=\"other\">c</p>",
        "<p class=\"notice\">e</p>",
    ] {
        assert!(page.contains(piece), "{piece}\n{page}");
    }
    // They win over the rules of the style.
    assert!(page.find(".joined1 {") > page.find(".other {"), "{page}");
}

#[test]
fn numbered_paragraphs_in_bold_that_stand_alone_are_headings() {
    let bold = |list: u32, level: u32, words: &str| {
        paragraph(&format!("<w:numPr><w:ilvl w:val=\"{level}\"/><w:numId w:val=\"{list}\"/></w:numPr>"), &run("<w:b/>", words))
    };
    let numbering = numbering(&[(1, levels(&[("decimal", "%1."), ("decimal", "%1.%2")]))]);
    let package = |body: String| Package { numbering: numbering.clone(), ..Package::of(&body) };
    let manual = bold(1, 0, "Scope") + &plain("a") + &bold(1, 0, "Duties") + &plain("b") + &bold(1, 1, "At night") + &plain("c");
    let done = converted(&package(manual.clone()), &[]);
    assert_eq!(done.text().unwrap(), "<h1>Scope</h1><p>a</p><h1>Duties</h1><p>b</p><h2>At night</h2><p>c</p>");
    let reported: Vec<&str> = done.findings.iter().map(|finding| finding.code.as_ref()).collect();
    assert!(reported.contains(&"word.numbered-heading") && reported.contains(&"word.heading-numbers"), "{reported:?}");
    let kept = converted(&package(manual), &["word.heading-numbers=keep"]).into_text().unwrap();
    assert!(kept.starts_with("<h1>1. Scope</h1>") && kept.contains("<h2>2.1 At night</h2>"), "{kept}");
    // Items that follow each other, sentences, and what nothing follows are items.
    let items = bold(1, 0, "One") + &bold(1, 0, "Two") + &plain("a");
    let expected = "<ol><li><strong>One</strong></li><li><strong>Two</strong></li></ol><p>a</p>";
    case(&package(items), expected);
    case(&package(bold(1, 0, "Close the gate.") + &plain("a")), "<ol><li><strong>Close the gate.</strong></li></ol><p>a</p>");
    case(&package(plain("a") + &bold(1, 0, "Gate")), "<p>a</p><ol><li><strong>Gate</strong></li></ol>");
}

#[test]
fn rows_that_a_style_or_the_document_repeats_are_heads() {
    let rows = |first: &str| {
        let cells = |words: &str| vec![cell("", &plain(words)), cell("", &plain("x"))];
        vec![row(first, &cells("a")), row("", &cells("b"))]
    };
    let look = "<w:tblStyle w:val=\"T\"/><w:tblLook w:firstRow=\"1\" w:firstColumn=\"0\"/>";
    let head = |part: &str| {
        let styles = format!(
            "<w:style w:type=\"table\" w:styleId=\"T\"><w:name w:val=\"T\"/><w:tblStylePr w:type=\"firstRow\">{part}</w:tblStylePr></w:style>"
        );
        let package = Package { styles, ..Package::of(&table(look, &[10, 10], &rows(""))) };
        converted(&package, &[]).into_text().unwrap().contains("<thead><tr><th>a</th>")
    };
    assert!(head("<w:rPr><w:b/></w:rPr>") && head("<w:rPr><w:sz w:val=\"30\"/></w:rPr>"));
    assert!(head("<w:tcPr><w:tcBorders><w:bottom w:val=\"single\" w:sz=\"8\"/></w:tcBorders></w:tcPr>"));
    assert!(!head("<w:pPr><w:jc w:val=\"center\"/></w:pPr>"));
    let repeated = Package::of(&table("", &[10, 10], &rows("<w:tblHeader/>")));
    assert!(converted(&repeated, &[]).into_text().unwrap().contains("<thead><tr><th>a</th>"));
}

#[test]
fn all_headers_are_kept_without_numbers_of_pages_and_below_the_notes() {
    let reference = |kind: &str, what: &str| format!("<w:{what}Reference w:type=\"{kind}\" r:id=\"{what}1\"/>");
    let section = format!("<w:sectPr>{}{}</w:sectPr>", reference("default", "header"), reference("default", "footer"));
    let note = "<w:footnote w:id=\"2\"><w:p><w:r><w:t>n</w:t></w:r></w:p></w:footnote>".to_owned();
    let mark = "<w:r><w:footnoteReference w:id=\"2\"/></w:r>";
    let number =
        paragraph("", &(text("Station, page ") + &field("PAGE", &text("7")) + &text(" of ") + &field("NUMPAGES", &text("9"))));
    let package = Package {
        header: plain("Trust") + &plain("Log"),
        footer: number,
        footnotes: note,
        ..Package::of(&(paragraph("", &(text("a") + mark)) + &section))
    };
    let done = converted(&package, &["word.headers=keep"]);
    let (notes, footer) = (
        done.text().unwrap().find("doc-endnotes").unwrap(),
        done.text().unwrap().find("<footer><p>Station, page of</p></footer>"),
    );
    assert!(done.text().unwrap().starts_with("<header><p>Trust</p><p>Log</p></header><p>a<sup>"), "{}", done.text().unwrap());
    assert!(footer.unwrap() > notes, "{}", done.text().unwrap());
    assert!(done.findings.iter().any(|finding| finding.code == "word.page-number" && finding.message.ends_with(": 2")));
    assert!(!done.findings.iter().any(|finding| finding.code == "word.header"));
}

#[test]
fn tab_stops_are_shown_or_told() {
    let exact = |stops: &[(&str, u32, &str)], words: &str| {
        let stops: String = stops
            .iter()
            .map(|(kind, at, leader)| format!("<w:tab w:val=\"{kind}\" w:pos=\"{at}\" w:leader=\"{leader}\"/>"))
            .collect();
        let content: String = words.split('\t').map(text).collect::<Vec<_>>().join("<w:r><w:tab/></w:r>");
        let package = Package::of(&paragraph(&format!("<w:tabs>{stops}</w:tabs>"), &content));
        let done = converted(&package, &["styling=exact", "shape=page", "page.look=none"]);
        let reported = done.findings.iter().any(|finding| finding.code == "word.tab-stops");
        (done.text().unwrap().to_owned(), reported)
    };
    let (page, reported) = exact(&[("center", 4500, ""), ("right", 9000, "")], "Trust\tLog\t1931");
    assert!(page.contains(">Trust</span><span") && page.contains(">\tLog</span>") && !reported, "{page}");
    assert!(page.contains("flex: 1; text-align: center") && page.contains("flex: 1; text-align: right"), "{page}");
    let (page, reported) = exact(&[("right", 9000, "dot")], "Tides\t12");
    assert!(page.contains("border-bottom: 1pt dotted") && page.contains("display: flex") && !reported, "{page}");
    let (page, reported) = exact(&[("left", 5000, "underscore")], "Name\t");
    assert!(page.contains("border-bottom: 1pt solid") && page.contains("max-width: 250pt") && !reported, "{page}");
    let (page, reported) = exact(&[("center", 4500, "")], "\tTrust");
    assert!(page.contains("text-align: center") && !reported, "{page}");
    for (stops, words) in [
        (&[("decimal", 2000, "")][..], "Depth\t12.5"),
        (&[("center", 2000, ""), ("left", 4000, "")], "a\tb\tc"),
        (&[("left", 1000, ""), ("left", 5000, "")], "a\tb\tc"),
    ] {
        let (page, reported) = exact(stops, words);
        assert!(page.contains("white-space: pre-wrap") && reported, "{page}");
    }
    assert!(!exact(&[("left", 1000, ""), ("left", 2000, "")], "a\tb\tc").1);
}
