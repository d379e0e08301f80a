//! Word markup, form by form: the many ways in which programs write the same few things.
#![allow(missing_docs, clippy::unwrap_used, clippy::panic, clippy::print_stderr, reason = "tests")]

use crate::support;

use obblet::document::Weight;
use obblet::{Converted, Format};
use support::convert::convert;
use support::package::{Package, cell, field, item, levels, numbering, paragraph, plain, row, run, style, styled, table, text};

fn converted(package: &Package) -> Converted {
    convert(package.bytes(), Format::Word, Format::Html, &["html.compact=true"])
}

#[track_caller]
fn is(package: &Package, expected: &str) {
    assert_eq!(converted(package).into_text().unwrap(), expected, "{}", package.body);
}

#[track_caller]
fn case(body: &str, expected: &str) {
    is(&Package::of(body), expected);
}

#[track_caller]
fn runs(content: &[String], expected: &str) {
    case(&paragraph("", &content.concat()), &format!("<p>{expected}</p>"));
}

#[test]
fn number_formats_of_lists() {
    for (format, shown, opening) in [
        ("decimal", "%1.", "<ol>"),
        ("decimal", "%1)", "<ol>"),
        ("decimalZero", "%1", "<ol>"),
        ("lowerLetter", "%1.", "<ol type=\"a\">"),
        ("upperLetter", "%1)", "<ol type=\"A\">"),
        ("lowerRoman", "(%1)", "<ol type=\"i\">"),
        ("upperRoman", "%1.", "<ol type=\"I\">"),
        ("ordinal", "%1", "<ol>"),
        ("chineseCounting", "%1", "<ol>"),
        ("hebrew1", "%1", "<ol>"),
        ("arabicAlpha", "%1", "<ol>"),
        ("russianLower", "%1", "<ol>"),
        ("decimalEnclosedCircle", "%1", "<ol>"),
        ("bullet", "•", "<ul>"),
        ("bullet", "o", "<ul>"),
        ("bullet", "\u{F0B7}", "<ul>"),
    ] {
        let numbering = numbering(&[(1, levels(&[(format, shown)]))]);
        let list = Package { numbering, ..Package::of(&(item(1, 0, "a") + &item(1, 0, "b"))) };
        let closing = if opening == "<ul>" { "</ul>" } else { "</ol>" };
        is(&list, &format!("{opening}<li>a</li><li>b</li>{closing}"));
    }
    // A level that shows nothing sets paragraphs in, and no more.
    let none = Package { numbering: numbering(&[(1, levels(&[("none", "")]))]), ..Package::of(&item(1, 0, "a")) };
    is(&none, "<p>a</p>");
}

#[test]
fn what_stands_between_items() {
    let list = |body: &[String], expected: &str| {
        let numbering = numbering(&[
            (1, levels(&[("decimal", "%1."), ("decimal", "%1.%2."), ("bullet", "–")])),
            (2, levels(&[("bullet", "•"), ("bullet", "o"), ("bullet", "–")])),
        ]);
        let numbered = style("L", "List Number", "", "<w:numPr><w:numId w:val=\"1\"/></w:numPr>", "");
        is(&Package { numbering, styles: numbered, ..Package::of(&body.concat()) }, expected);
    };
    let empty = || paragraph("", "");
    // Empty paragraphs make space, and end nothing.
    list(&[item(1, 0, "a"), empty(), empty(), item(1, 0, "b")], "<ol><li>a</li><li>b</li></ol>");
    list(&[item(2, 0, "a"), empty(), item(2, 1, "b"), empty(), plain("end")], "<ul><li>a<ul><li>b</li></ul></li></ul><p>end</p>");
    list(
        &[item(2, 0, "a"), empty(), plain("between"), empty(), item(2, 0, "b")],
        "<ul><li>a</li></ul><p>between</p><ul><li>b</li></ul>",
    );
    // Tables do, and lists go on in the next cell.
    let one = |content: String| table("", &[10], &[row("", &[cell("", &content)])]);
    list(
        &[item(1, 0, "a"), one(plain("t")), item(1, 0, "b")],
        "<ol><li>a</li></ol><table><tbody><tr><td>t</td></tr></tbody></table><ol start=\"2\"><li>b</li></ol>",
    );
    let cells = table("", &[10, 10], &[row("", &[cell("", &item(1, 0, "a")), cell("", &item(1, 0, "b"))])]);
    list(&[cells], "<table><tbody><tr><td><ol><li>a</li></ol></td><td><ol start=\"2\"><li>b</li></ol></td></tr></tbody></table>");
    // Levels that begin deep, come back, or are none.
    list(&[item(2, 1, "a"), item(2, 1, "b")], "<ul><li>a</li><li>b</li></ul>");
    list(&[item(2, 2, "deep"), item(2, 0, "a")], "<ul><li>deep</li></ul><ul><li>a</li></ul>");
    list(
        &[item(1, 0, "a"), item(1, 1, "b"), item(1, 2, "c"), item(1, 0, "d")],
        "<ol><li>a<ol><li>b<ul><li>c</li></ul></li></ol></li><li>d</li></ol>",
    );
    list(&[item(1, 9, "a")], "<ol><li>a</li></ol>");
    // Numbers by style, and taken back by hand.
    list(&[item(1, 0, "a"), styled("L", "b")], "<ol><li>a</li><li>b</li></ol>");
    list(&[paragraph("<w:pStyle w:val=\"L\"/><w:numPr><w:numId w:val=\"0\"/></w:numPr>", &text("b"))], "<p>b</p>");
}

#[test]
fn runs_that_were_split_for_no_reason() {
    runs(&[text("one "), text("word")], "one word");
    runs(&[run("<w:b/>", "a"), run("<w:b/><w:lang w:val=\"en-GB\"/>", "b")], "<strong>ab</strong>");
    runs(&[run("<w:b/>", "a"), "<w:proofErr w:type=\"spellStart\"/>".to_owned(), run("<w:b/>", "b")], "<strong>ab</strong>");
    runs(&[run("<w:b/><w:i/>", "a"), run("<w:i/>", " b"), text(" c")], "<strong><em>a</em></strong> <em>b</em> c");
    runs(&[run("<w:b/>", " "), text("a")], "a");
    runs(&[text("a"), "<w:bookmarkStart w:id=\"1\" w:name=\"_GoBack\"/>".to_owned(), text("b")], "ab");
    runs(&[format!("<w:smartTag w:element=\"place\">{}</w:smartTag>", text("Greywick"))], "Greywick");
    runs(&["<w:r><w:t>a</w:t><w:lastRenderedPageBreak/><w:t>b</w:t></w:r>".to_owned()], "ab");
    runs(&["<w:r><w:t>a</w:t><w:br w:type=\"page\"/><w:t>b</w:t></w:r>".to_owned()], "a b");
    runs(&["<w:r><w:t>a</w:t><w:tab/><w:t>b</w:t></w:r>".to_owned()], "a\tb");
    runs(&[text("a"), "<w:r><w:br/></w:r>".to_owned()], "a");
    // What is only looks means nothing.
    for looks in
        ["<w:caps/>", "<w:smallCaps/>", "<w:position w:val=\"6\"/>", "<w:color w:val=\"FF0000\"/>", "<w:emboss/><w:shadow/>"]
    {
        runs(&[run(looks, "a"), text("b")], "ab");
    }
}

#[test]
fn names_of_styles_and_what_they_are_in_html() {
    for (name, properties, characters, expected) in [
        ("heading 1", "", "", "<h1>x</h1>"),
        ("Heading 2", "", "", "<h2>x</h2>"),
        ("heading 9", "", "", "<h6>x</h6>"),
        ("Überschrift 1", "<w:outlineLvl w:val=\"0\"/>", "", "<h1>x</h1>"),
        ("Custom", "<w:outlineLvl w:val=\"2\"/>", "", "<h3>x</h3>"),
        ("Custom", "<w:outlineLvl w:val=\"9\"/>", "", "<p>x</p>"),
        ("Title", "", "", "<h1>x</h1>"),
        ("Subtitle", "", "", "<p>x</p>"),
        ("Quote", "", "", "<blockquote><p>x</p></blockquote>"),
        ("Intense Quote", "", "", "<blockquote><p>x</p></blockquote>"),
        ("Block Text", "", "", "<blockquote><p>x</p></blockquote>"),
        ("HTML Preformatted", "", "", "<pre><code>x\n</code></pre>"),
        ("Code", "", "<w:rFonts w:ascii=\"Courier New\"/>", "<pre><code>x\n</code></pre>"),
        ("caption", "", "", "<p>x</p>"),
        ("List Paragraph", "", "", "<p>x</p>"),
        ("TOC Heading", "", "", "<p>x</p>"),
        ("Lead", "<w:jc w:val=\"center\"/>", "<w:b/>", "<p>x</p>"),
    ] {
        is(&Package { styles: style("S", name, "", properties, characters), ..Package::of(&styled("S", "x")) }, expected);
    }
    // A style that is based on itself ends somewhere.
    is(&Package { styles: style("S", "X", "S", "", ""), ..Package::of(&styled("S", "x")) }, "<p>x</p>");
    let by_another = style("S", "X", "Y", "", "") + &style("Y", "heading 3", "", "", "");
    is(&Package { styles: by_another, ..Package::of(&styled("S", "x")) }, "<h3>x</h3>");
}

/// Toggles of styles combine by exclusive or, those of runs are final (ECMA-376, section 17.7.3); what a paragraph's style alone
/// makes bold is its look and no emphasis.
#[test]
fn toggles_of_styles_and_runs() {
    let characters = |name: &str, properties: &str| {
        format!("<w:style w:type=\"character\" w:styleId=\"C\"><w:name w:val=\"{name}\"/><w:rPr>{properties}</w:rPr></w:style>")
    };
    for (of_paragraph, of_characters, of_run, expected) in [
        ("", "", "", "x"),
        ("<w:b/>", "", "", "x"),
        ("", "<w:b/>", "", "<strong>x</strong>"),
        ("<w:b/>", "<w:b/>", "", "x"),
        ("<w:b/>", "", "<w:b w:val=\"0\"/>", "x"),
        ("", "<w:b/>", "<w:b w:val=\"0\"/>", "x"),
        ("", "<w:b/>", "<w:b/>", "<strong>x</strong>"),
        ("<w:i/>", "<w:b/>", "<w:i/>", "<strong><em>x</em></strong>"),
    ] {
        let body = paragraph("<w:pStyle w:val=\"P\"/>", &run(&format!("<w:rStyle w:val=\"C\"/>{of_run}"), "x"));
        let styles = style("P", "P", "", "", of_paragraph) + &characters("C", of_characters);
        is(&Package { styles, ..Package::of(&body) }, &format!("<p>{expected}</p>"));
    }
    for (name, properties, expected) in [
        ("Strong", "<w:b/>", "<strong>x</strong>"),
        ("Subtle Emphasis", "<w:i/>", "<em>x</em>"),
        ("Book Title", "<w:b/><w:i/>", "<strong><em>x</em></strong>"),
        ("HTML Code", "<w:rFonts w:ascii=\"Courier New\"/>", "<code>x</code>"),
        ("HTML Keyboard", "", "<kbd>x</kbd>"),
    ] {
        let body = paragraph("", &run("<w:rStyle w:val=\"C\"/>", "x"));
        is(&Package { styles: characters(name, properties), ..Package::of(&body) }, &format!("<p>{expected}</p>"));
    }
}

#[test]
fn tables_with_spans_gaps_and_controls() {
    let words = |words: &str| cell("", &plain(words));
    let rows = |grid: &[u32], rows: &[String], expected: &str| {
        case(&table("", grid, rows), &format!("<table><tbody>{expected}</tbody></table>"));
    };
    let control = |content: String| format!("<w:sdt><w:sdtContent>{content}</w:sdtContent></w:sdt>");
    rows(
        &[1, 1],
        &[row("", &[words("a"), words("b")]), row("", &[words("c")])],
        "<tr><td>a</td><td>b</td></tr><tr><td>c</td><td></td></tr>",
    );
    rows(
        &[1, 1, 1],
        &[
            row("", &[cell("<w:gridSpan w:val=\"2\"/><w:vMerge w:val=\"restart\"/>", &plain("a")), words("b")]),
            row("", &[cell("<w:gridSpan w:val=\"2\"/><w:vMerge/>", &plain("")), words("c")]),
        ],
        "<tr><td rowspan=\"2\">a</td><td>b</td></tr><tr><td>c</td></tr>",
    );
    // A cell that goes on with nothing begins.
    rows(&[1, 1], &[row("", &[cell("<w:vMerge/>", &plain("")), words("b")])], "<tr><td></td><td>b</td></tr>");
    rows(&[1], &[row("<w:hidden/>", &[words("a")]), row("", &[words("b")])], "<tr><td>b</td></tr>");
    rows(
        &[1, 1],
        &[row("<w:gridAfter w:val=\"1\"/>", &[words("a")]), row("", &[words("b"), words("c")])],
        "<tr><td>a</td><td></td></tr><tr><td>b</td><td>c</td></tr>",
    );
    rows(&[1], &[row("", &[cell("", &(plain("a") + &plain("b")))])], "<tr><td><p>a</p><p>b</p></td></tr>");
    rows(&[1], &[control(row("", &[words("a")]))], "<tr><td>a</td></tr>");
    rows(&[1], &[row("", &[control(words("a"))])], "<tr><td>a</td></tr>");
    case(&control(table("", &[1], &[row("", &[words("a")])])), "<table><tbody><tr><td>a</td></tr></tbody></table>");
    case(
        &table("<w:bidiVisual/>", &[1], &[row("", &[words("a")])]),
        "<table dir=\"rtl\"><tbody><tr><td dir=\"ltr\">a</td></tr></tbody></table>",
    );
    case(&(table("", &[1], &[]) + &plain("x")), "<p>x</p>");
    // A first row in bold is a head.
    let bold = |words: &str| cell("", &paragraph("", &run("<w:b/>", words)));
    case(
        &table("", &[1, 1], &[row("", &[bold("a"), bold("b")]), row("", &[words("c"), words("d")])]),
        "<table><thead><tr><th>a</th><th>b</th></tr></thead><tbody><tr><td>c</td><td>d</td></tr></tbody></table>",
    );
}

#[test]
fn fields_are_what_they_came_to() {
    for (instruction, result) in [
        ("PAGE", "3"),
        ("DATE \\@ \"d MMMM\"", "3 May"),
        ("AUTHOR", "M. Tolliver"),
        ("SEQ Figure \\* ARABIC", "2"),
        ("= 1 + 2", "3"),
        ("MERGEFIELD Name", "«Name»"),
        ("FORMTEXT", "typed"),
        ("QUOTE \"words\"", "words"),
        ("INDEX", "a, 1"),
    ] {
        runs(&[field(instruction, &text(result))], result);
    }
    for instruction in ["XE \"term\"", "TC \"x\""] {
        runs(&[field(instruction, ""), text("a")], "a");
    }
    runs(&[format!("<w:fldSimple w:instr=\" PAGE \">{}</w:fldSimple>", text("4"))], "4");
    let here = paragraph("", &("<w:bookmarkStart w:id=\"1\" w:name=\"here\"/>".to_owned() + &text("y")));
    for instruction in ["HYPERLINK \\l \"here\"", "REF here \\h"] {
        case(&(paragraph("", &field(instruction, &text("x"))) + &here), "<p><a href=\"#here\">x</a></p><p id=\"here\">y</p>");
    }
    // One that never ends is all instruction, and what it hides is told; one that never began is nothing.
    let open = converted(&Package::of(&paragraph(
        "",
        &("<w:r><w:fldChar w:fldCharType=\"begin\"/></w:r>".to_owned() + &text("never ends")),
    )));
    let lost: Vec<&str> =
        open.findings.iter().filter(|found| found.weight == Weight::Lost).map(|found| found.lost.as_str()).collect();
    assert_eq!((open.text().unwrap(), lost), ("", vec!["never ends"]), "{:?}", open.findings);
    runs(&["<w:r><w:fldChar w:fldCharType=\"end\"/></w:r>".to_owned(), text("never began")], "never began");
}

/// A field that was saved without what it came to.
fn without_result(instruction: &str, form: &str) -> String {
    format!(
        "<w:r><w:fldChar w:fldCharType=\"begin\">{form}</w:fldChar></w:r><w:r><w:instrText xml:space=\"preserve\"> {instruction} </w:instrText></w:r><w:r><w:fldChar w:fldCharType=\"end\"/></w:r>"
    )
}

#[test]
fn fields_without_a_result_say_what_they_can() {
    for (instruction, shown) in [
        ("AUTONUM", "1."),
        // Symbol fonts, the Western code page, and Unicode.
        ("SYMBOL 183 \\f \"Symbol\" \\s 10", "•"),
        ("SYMBOL 0xFC \\f Wingdings", "✓"),
        ("SYMBOL 65", "A"),
        ("SYMBOL 150", "–"),
        ("SYMBOL 8364 \\u", "€"),
        ("SYMBOL x", ""),
        ("SYMBOL 55296 \\u", ""),
        ("MACROBUTTON  AcceptIt [Click here]", "[Click here]"),
        ("GOTOBUTTON p2 see page two", "see page two"),
        ("PAGE", ""),
        ("", ""),
    ] {
        let shown = if shown.is_empty() { String::new() } else { format!("{shown} ") };
        runs(&[text("a "), without_result(instruction, ""), text(" b")], &format!("a {shown}b"));
    }
    let numbers: String = (0..3).map(|_| paragraph("", &(without_result("AUTONUMLGL", "") + &text(" a")))).collect();
    case(&numbers, "<ol><li>a</li><li>a</li><li>a</li></ol>");
    // What nothing can be shown of is told.
    let equation = converted(&Package::of(&paragraph("", &(text("a ") + &without_result("EQ \\f(1,2)", "")))));
    assert!(
        equation.findings.iter().any(|found| found.code == "word.field" && found.lost == "EQ \\f(1,2)"),
        "{:?}",
        equation.findings
    );
}

#[test]
fn fields_of_forms_show_what_was_chosen() {
    let choices = "<w:listEntry w:val=\"one\"/><w:listEntry w:val=\"two\"/>";
    for (form, shown) in [
        ("<w:checkBox><w:sizeAuto/><w:default w:val=\"0\"/></w:checkBox>".to_owned(), "☐"),
        ("<w:checkBox><w:default w:val=\"1\"/></w:checkBox>".to_owned(), "☒"),
        ("<w:checkBox><w:default w:val=\"0\"/><w:checked/></w:checkBox>".to_owned(), "☒"),
        ("<w:checkBox><w:default w:val=\"1\"/><w:checked w:val=\"0\"/></w:checkBox>".to_owned(), "☐"),
        (format!("<w:ddList><w:result w:val=\"1\"/>{choices}</w:ddList>"), "two"),
        (format!("<w:ddList>{choices}</w:ddList>"), "one"),
    ] {
        let data = format!("<w:ffData><w:name w:val=\"x\"/><w:enabled/>{form}</w:ffData>");
        runs(&[text("a "), without_result("FORM", &data), text(" b")], &format!("a {shown} b"));
    }
}

#[test]
fn fields_within_fields() {
    let page = field("PAGE", &text("3"));
    let mark = |kind: &str| format!("<w:r><w:fldChar w:fldCharType=\"{kind}\"/></w:r>");
    let words = |words: &str| format!("<w:r><w:instrText>{words}</w:instrText></w:r>");
    // What stands in an instruction is none of the text.
    let choice =
        [mark("begin"), words(" IF "), page.clone(), words(" = 1 \"a\" \"b\" "), mark("separate"), text("b"), mark("end")];
    runs(&choice, "b");
    // A link around a number of a page, as lists of contents have them, is one link.
    let here = paragraph("", &("<w:bookmarkStart w:id=\"1\" w:name=\"_Toc1\"/>".to_owned() + &text("Tides")));
    let entry = paragraph("", &field("HYPERLINK \\l \"_Toc1\"", &(text("Tides ") + &field("PAGEREF _Toc1 \\h", &text("3")))));
    case(&(entry + &here), "<p><a href=\"#tides\">Tides 3</a></p><p id=\"tides\">Tides</p>");
}

#[test]
fn controls_and_other_containers() {
    let control = |properties: &str, content: String| {
        format!("<w:sdt><w:sdtPr>{properties}</w:sdtPr><w:sdtContent>{content}</w:sdtContent></w:sdt>")
    };
    case(
        &control("<w:dropDownList><w:listItem w:displayText=\"One\" w:value=\"1\"/></w:dropDownList>", plain("One")),
        "<p>One</p>",
    );
    case(&control("<w:showingPlcHdr/>", plain("Click here")), "<p>Click here</p>");
    case(&format!("<w:customXml w:element=\"x\">{}</w:customXml>", plain("a")), "<p>a</p>");
    runs(&[format!("<w:dir w:val=\"rtl\">{}</w:dir>", run("<w:rtl/>", "שלום"))], "<span dir=\"rtl\">שלום</span>");
    runs(&[format!("<w:bdo w:val=\"rtl\">{}</w:bdo>", text("abc"))], "<bdo dir=\"rtl\">abc</bdo>");
    runs(&[format!("<w:ins w:id=\"1\">{}</w:ins>", text("new"))], "new");
    runs(&[text("a"), "<w:del w:id=\"1\"><w:r><w:delText>old</w:delText></w:r></w:del>".to_owned()], "a");
    case(&paragraph("<w:bidi/>", &text("a")), "<p dir=\"rtl\">a</p>");
    for looks in ["<w:pageBreakBefore/>", "<w:framePr w:w=\"100\"/>", "<w:shd w:fill=\"FF0000\"/>", "<w:keepNext/>"] {
        case(&paragraph(looks, &text("a")), "<p>a</p>");
    }
}
