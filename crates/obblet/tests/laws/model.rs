//! What the model holds beside the text: who changed and remarked what, styles, sections, labels and references.
#![allow(missing_docs, clippy::unwrap_used, clippy::panic, reason = "tests")]

use crate::support;

use obblet::document::{Document, Finding, Property, Value};
use obblet::formats::word;
use obblet::profile::Profile;
use obblet::{Context, Format, convert, pipeline, read};
use support::package::{self, Package};

fn package() -> Package {
    let figure = |id: u32, name: &str, number: &str, words: &str| {
        package::paragraph("", &package::picture("well.png", "A well", 40, 20))
            + &format!(
                "<w:p><w:pPr><w:pStyle w:val=\"Caption\"/></w:pPr><w:bookmarkStart w:id=\"{id}\" w:name=\"{name}\"/>{}{}<w:bookmarkEnd w:id=\"{id}\"/>{}</w:p>",
                package::run("", "Figure "),
                package::field("SEQ Figure \\* ARABIC", &package::run("", number)),
                package::run("", words),
            )
    };
    let change = |kind: &str, author: &str, text: &str| {
        let element = if kind == "del" { "delText" } else { "t" };
        format!(
            "<w:{kind} w:id=\"9\" w:author=\"{author}\" w:date=\"2031-03-05T10:00:00Z\"><w:r><w:{element} xml:space=\"preserve\">{text}</w:{element}></w:r></w:{kind}>"
        )
    };
    let body = package::styled("Heading1", "Tides")
        + &format!(
            "<w:p>{}{}{}<w:commentRangeStart w:id=\"1\"/>{}<w:commentRangeEnd w:id=\"1\"/><w:r><w:commentReference w:id=\"1\"/></w:r></w:p>",
            package::run("", "High water at "),
            change("del", "Anwen Pask", "five"),
            change("ins", "Idris Vale", "six "),
            package::run("", "by the harbour clock"),
        )
        + &figure(1, "_Ref1", "1", ": The well")
        + &figure(2, "_Ref2", "2", ": The gauge")
        + &format!(
            "<w:p>{}{}{}{}</w:p>",
            package::run("", "See "),
            package::field("REF _Ref2 \\h", &package::run("", "Figure 1")),
            package::run("", " on page "),
            package::field("PAGEREF _Ref2 \\h", &package::run("", "4")),
        )
        + "<w:sectPr><w:headerReference w:type=\"default\" r:id=\"header1\"/><w:pgSz w:w=\"11906\" w:h=\"16838\"/><w:pgMar w:top=\"1440\" w:right=\"1000\" w:bottom=\"1440\" w:left=\"1000\"/><w:cols w:num=\"2\"/></w:sectPr>";
    Package {
        body,
        styles: package::style("Normal", "Normal", "", "", "")
            + &package::style("Heading1", "heading 1", "Normal", "<w:outlineLvl w:val=\"0\"/>", "<w:b/>")
            + &package::style("Caption", "caption", "Normal", "", "<w:i/>"),
        comments: format!(
            "<w:comment w:id=\"1\" w:author=\"Idris Vale\" w:date=\"2031-03-06T09:30:00Z\">{}</w:comment>",
            package::plain("Which clock?")
        ),
        header: package::plain("Greywick Sound"),
        pictures: vec![("well.png".to_owned(), b"\x89PNG\r\n\x1A\n".to_vec())],
        ..Package::default()
    }
}

#[test]
fn a_word_document_in_the_model_can_be_read() {
    let options = word::ReadOptions { revisions: obblet::refine::revisions::Revisions::Keep, ..word::ReadOptions::default() };
    let doc = word::read(&package().bytes(), &options).unwrap();
    insta::assert_snapshot!(doc.dump() + &doc.dump_tables());
    // Where looks are read, styles say what they set beyond those that they are based on.
    let styled = word::read(&package().bytes(), &word::ReadOptions { fidelity: word::StyleFidelity::Named, ..options }).unwrap();
    let heading = styled.style_definitions.iter().find(|style| style.id == "Heading1").unwrap();
    assert_eq!(heading.properties, [(Property::FontWeight, Value::Keyword("bold"))]);
    // Two documents with the same tables are equal, and what is asked of a comment is where its text stands.
    assert_eq!(doc, word::read(&package().bytes(), &options).unwrap());
    let (start, end) = doc.comments[0].range;
    assert!(start < end);
}

#[test]
fn references_of_word_documents_show_the_numbers_of_their_targets() {
    let page = convert(&package().bytes(), Format::Word, Format::Html, &Profile::fragment()).unwrap();
    let text = page.text().unwrap();
    assert!(text.contains("id=\"figure-2\"") && text.contains("<a href=\"#figure-2\">Figure 2</a>"), "{text}");
    let found: Vec<&Finding> = page.findings.iter().filter(|finding| finding.code == "reference.number").collect();
    assert_eq!(found.len(), 1, "{:?}", page.findings);
}

fn markdown(source: &str) -> (String, Vec<String>) {
    let page = convert(source.as_bytes(), Format::Markdown, Format::Html, &Profile::fragment()).unwrap();
    (page.text().unwrap().to_owned(), page.findings.iter().map(|finding| finding.code.to_string()).collect())
}

#[track_caller]
fn shows(source: &str, expected: &[&str]) {
    let (text, findings) = markdown(source);
    for expected in expected {
        assert!(text.contains(expected), "{expected} in {text}");
    }
    assert!(!findings.iter().any(|code| code.starts_with("reference")), "{findings:?}");
}

const FIGURES: &str = "<figure id=\"well\"><img src=\"well.png\" alt=\"A well\"><figcaption>The well</figcaption></figure>\n\n<table id=\"heights\"><caption>Heights</caption><tr><th>Day<td>2.1</table>\n\n<figure id=\"gauge\"><img src=\"gauge.png\" alt=\"A gauge\"><figcaption>The gauge</figcaption></figure>\n";

#[test]
fn references_of_markdown_show_the_numbers_of_their_targets() {
    shows(
        &format!("# Spring tides\n\nSee [](#gauge), [](#heights) and [](#spring-tides).\n\n{FIGURES}"),
        &[
            "See <a href=\"#gauge\">Figure&nbsp;2</a>, <a href=\"#heights\">Table&nbsp;1</a> and <a href=\"#spring-tides\">Spring tides</a>.",
            "<figcaption>Figure&nbsp;1: The well</figcaption>",
            "<caption>Table&nbsp;1: Heights</caption>",
            "<h1 id=\"spring-tides\">",
        ],
    );
    // What is numbered by hand keeps its numbers, and only what is referred to needs any.
    shows(
        &format!("[](#well)\n\n{}", FIGURES.replace("The well", "Fig. 7: The well").replace("The gauge", "Fig. 8: The gauge")),
        &["<p><a href=\"#well\">Fig&nbsp;7</a></p>", "<figcaption>Fig. 7: The well</figcaption>", "<caption>Heights</caption>"],
    );
    shows(&format!("---\nlanguage: de\n---\n[](#well)\n\n{FIGURES}"), &["Abbildung&nbsp;1</a>", "Abbildung&nbsp;2: The gauge"]);
    shows(
        "[](#place)\n\n<a id=\"place\"></a>\n\n<figure><img src=\"a.png\" alt=\"a\"><figcaption>A</figcaption></figure>\n",
        &["<a href=\"#place\">Figure&nbsp;1</a>"],
    );
    shows("By [](#sum):\n\n<a id=\"sum\"></a> $$h = h_0 \\tag{3.1}$$\n", &["By <a href=\"#sum\">(3.1)</a>:"]);
    // Items of numbered lists, and notes.
    shows("As in [](#oil):\n\n3. Stop.\n4. <a id=\"oil\"></a>Oil.\n", &["As in <a href=\"#oil\">4</a>:", "<li id=\"oil\">"]);
    shows("<ol type=a><li>Stop<li id=oil>Oil</ol>\n\nAs in [](#oil).\n", &["As in <a href=\"#oil\">b</a>."]);
    shows("One[^x], two<a id=\"n\"></a>[^y]: [](#n).\n\n[^y]: Y\n[^x]: X\n", &["<a href=\"#n\">2</a>."]);
    // Signs beside headings that lead to them are no references, nor is what programs leave.
    for source in ["<h2 id=\"a\">Tides <a href=\"#a\"></a></h2>\n", "<div><a href=\"#a\"></a><h2 id=\"a\">Tides</h2></div>\n"] {
        let (text, findings) = markdown(source);
        let is_known = findings.iter().all(|code| code == "clean.heading-link");
        assert!(text.matches("Tides").count() == 1 && is_known, "{text} {findings:?}");
    }
    // What shows nothing is reported.
    let (text, findings) = markdown("[](#nowhere) and [ ](#plain)\n\n<div id=\"plain\">x</div>\n");
    assert!(
        text.contains("<a href=\"#nowhere\"></a> and") && findings.contains(&"reference.empty".to_owned()),
        "{text} {findings:?}"
    );
    // Space before a reference is kept in HTML, too.
    shows("<p>See <a href=\"#tides\"></a></p>\n\n# Tides\n", &["<p>See <a href=\"#tides\">Tides</a></p>"]);
    // Links with words of their own, and captions that nothing refers to, stay.
    shows(&format!("[the well](#well)\n\n{FIGURES}"), &["<a href=\"#well\">the well</a>", "<figcaption>The well</figcaption>"]);
    // The pass can be switched off.
    let mut profile = Profile::fragment();
    profile.set("clean.skip=references").unwrap();
    let source = format!("[](#well)\n\n{FIGURES}");
    let page = convert(source.as_bytes(), Format::Markdown, Format::Html, &profile).unwrap();
    assert!(page.text().unwrap().contains("<figcaption>The well</figcaption>"));
}

#[test]
fn references_are_in_the_dump_and_come_back() {
    let profile = Profile::fragment();
    let mut doc: Document = read(format!("[](#well)\n\n{FIGURES}").as_bytes(), Format::Markdown, &profile).unwrap();
    pipeline::run_pass(&mut doc, "raw-html", &profile, &Context::default());
    pipeline::run_pass(&mut doc, "references", &profile, &Context::default());
    let dump = doc.dump();
    assert!(dump.contains("Link \"#well\" shows=text") && dump.contains("Figure #well label=\"Figure\\u{a0}1\""), "{dump}");
    // Once more changes nothing.
    pipeline::run_pass(&mut doc, "references", &profile, &Context::default());
    assert_eq!(doc.dump(), dump);
}

#[test]
fn many_references_take_linear_time() {
    let shape = |count: usize| {
        let mut source = String::new();
        for at in 0..count {
            source += &format!(
                "[](#f{at})\n\n<figure id=\"f{at}\"><img src=\"a.png\" alt=\"a\"><figcaption>A</figcaption></figure>\n\n"
            );
        }
        source.into_bytes()
    };
    support::linear::assert_linear("references", 200, shape, |source| {
        convert(source, Format::Markdown, Format::Html, &Profile::fragment()).unwrap().bytes.len()
    });
}
