//! Word documents as they are written: packages that word processors open, which read as what they were made of.
#![allow(missing_docs, clippy::unwrap_used, clippy::panic, clippy::print_stderr, reason = "tests")]

use crate::support;

use obblet::formats::word;
use obblet::{Context, Converted, Format, pipeline, read};
use proptest::prelude::*;
use support::conservation;
use support::convert::{convert, profile};
use support::package_check::{faults, part};
use support::trees;

/// A document in Markdown as a package that is in order.
#[track_caller]
fn package(markdown: &str) -> Converted {
    let written = convert(markdown, Format::Markdown, Format::Word, &[]);
    assert_eq!(faults(&written.bytes), [""; 0], "{markdown}");
    written
}

/// Markdown that comes back from Word as it was.
#[track_caller]
fn same(markdown: &str) {
    let written = package(markdown);
    let back = convert(&written.bytes, Format::Word, Format::Markdown, &[]);
    assert_eq!(back.text().unwrap(), markdown, "{}", part(&written.bytes, "word/document.xml"));
}

#[test]
fn markdown_comes_back_as_it_was() {
    same(
        "# Tides\n\nHigh at *six* and **seven**, ~~never~~ `at once`; see [the log](https://greywick.example/log?a=1&b).\n\n## Low\n",
    );
    same("1. one\n2. two\n   - inner\n   - inner two\n     1. deep\n3. three\n");
    same("- one\n\n  more of it\n\n- two\n");
    same("5. five\n6. six\n");
    same("- [x] washed\n- [ ] wound\n");
    same("> Never trust a dry staff.\n>\n> Nor a wet one.\n");
    same("> [!WARNING]\n> The ladder is wet.\n");
    same("```\nread gauge\n\n  write log\n```\n");
    same("```rust\nread()\n```\n\n```\nwrite\n```\n\n```\nsend\n```\n");
    same("| Day |  High |\n| --- | ----: |\n| Mon | 4.8 m |\n| Tue |       |\n");
    same("Before\n\n---\n\nBehind\n");
    same("The staff.[^1] The drum.[^2]\n\n[^1]: It is of *oak*.\n\n[^2]: It leaks.\n\n    Both.\n");
    same("See [below](#low-water).\n\n## Low water\n");
    same("one\\\ntwo\n");
    same("a < b & c > d \"e\"\n");
}

#[test]
fn properties_of_the_document_are_those_of_the_package() {
    let source = "---\ntitle: Tides & time\nauthors: [Anwen Pask, Idris Vale]\nlanguage: cy\ndate: 2031-04-02\ndescription: How it is read\nkeywords: [tide, staff]\n---\n\n## Low\n\nText\n";
    let written = package(source);
    let core = part(&written.bytes, "docProps/core.xml");
    for expected in [
        "<dc:title>Tides &amp; time</dc:title>",
        "<dc:creator>Anwen Pask; Idris Vale</dc:creator>",
        "<dc:language>cy</dc:language>",
        "<cp:keywords>tide, staff</cp:keywords>",
        "2031-04-02T00:00:00Z</dcterms:created>",
    ] {
        assert!(core.contains(expected), "{core}");
    }
    // A title that no heading says stands above them.
    let doc = word::read(&written.bytes, &word::ReadOptions::default()).unwrap();
    let outline: Vec<(u8, String)> = doc.outline().into_iter().map(|heading| (heading.level, heading.text)).collect();
    assert_eq!(outline, [(1, "Tides & time".to_owned()), (2, "Low".to_owned())]);
    assert!(part(&written.bytes, "word/styles.xml").contains("w:val=\"cy\""));
    // The same bytes each time.
    assert_eq!(package(source).bytes, written.bytes);
}

#[test]
fn tables_have_a_grid() {
    let html = "<table><caption>Tides</caption><thead><tr><th>a<th colspan=2>b</thead><tr><td rowspan=2>c<td>d<td>e<tr><td colspan=2>f<tr><td>g</table><table><tr><td><table><tr><td>inner</table></table>";
    let written = convert(html, Format::Html, Format::Word, &[]);
    assert_eq!(faults(&written.bytes), [""; 0], "{}", part(&written.bytes, "word/document.xml"));
    let back = convert(&written.bytes, Format::Word, Format::Html, &["html.compact=true"]).into_text().unwrap();
    let expected = "<table><caption>Tides</caption><thead><tr><th>a</th><th colspan=\"2\">b</th></tr></thead><tbody><tr><td rowspan=\"2\">c</td><td>d</td><td>e</td></tr><tr><td colspan=\"2\">f</td></tr><tr><td>g</td><td colspan=\"2\"></td></tr></tbody></table>";
    assert!(back.starts_with(expected), "{back}");
    // More columns than word processors have, and spans that go over the end.
    let wide = format!("<table><tr>{}</tr><tr><td colspan=900 rowspan=900>x</table>", "<td>y".repeat(70));
    let written = convert(&wide, Format::Html, Format::Word, &[]);
    assert_eq!(faults(&written.bytes), [""; 0]);
    assert!(written.findings.iter().any(|one| one.message.contains("63 columns")), "{:?}", written.findings);
    let back = convert(&written.bytes, Format::Word, Format::Text, &[]).into_text().unwrap();
    assert_eq!(back.matches('y').count(), 70);
}

#[test]
fn what_has_no_form_is_said() {
    let written = convert(
        "<details><summary>More</summary><p>x</details><p><img src='data:image/avif;base64,AAAA' alt='A well'>",
        Format::Html,
        Format::Word,
        &[],
    );
    assert_eq!(faults(&written.bytes), [""; 0]);
    let codes: Vec<&str> = written.findings.iter().map(|one| &*one.code).collect();
    assert!(codes.contains(&"word.no-form") && codes.contains(&"word.image"), "{:?}", written.findings);
}

#[test]
fn changes_ruby_languages_and_directions_are_structures() {
    let html = "<p lang=ar dir=rtl>\u{645}\u{62F} <bdi>x</bdi></p><p>H<ins>igh</ins><del>low</del> <ruby>\u{6F6E}<rt>shio</rt></ruby> <span lang=ja>\u{6F6E}</span> <kbd>Ctrl</kbd></p>";
    let written = convert(html, Format::Html, Format::Word, &["clean.revisions=keep", "word.tracked-changes=all"]);
    assert_eq!(faults(&written.bytes), [""; 0]);
    let main = part(&written.bytes, "word/document.xml");
    // Parentheses without a reading are text.
    let alone = convert("<p><ruby><rp>only</rp></ruby></p>", Format::Html, Format::Word, &[]).bytes;
    assert!(part(&alone, "word/document.xml").contains("only"));
    for expected in [
        "<w:bidi/>",
        "<w:rtl/>",
        "w:bidi=\"ar\"",
        "<w:ins ",
        "<w:delText>low",
        "<w:rubyBase>",
        "w:eastAsia=\"ja\"",
        "HTMLKeyboard",
    ] {
        assert!(main.contains(expected), "{expected} in {main}");
    }
}

proptest! {
    /// Any tree is a package that opens, and keeps its words.
    #[test]
    fn any_tree_is_a_document(parts in proptest::collection::vec((0_usize..400, 0_usize..30), 1..40)) {
        let doc = trees::tree(&parts);
        let written = word::write(&doc, &word::WriteOptions::default());
        prop_assert_eq!(faults(&written.bytes), Vec::<String>::new(), "{}", part(&written.bytes, "word/document.xml"));
        let again = word::read(&written.bytes, &word::ReadOptions::default()).unwrap();
        let page = |doc| {
            let profile = profile("fragment", &[]);
            pipeline::write(doc, Format::Html, &profile, &Context::default()).unwrap().into_text().unwrap()
        };
        // Each piece of text says this word once.
        let count = |html: String| conservation::shown(&html).matches("some ").count();
        prop_assert!(count(page(doc)) <= count(page(again)));
        if let Ok(folder) = std::env::var("OBBLET_SHOW") {
            let name = format!("{folder}/tree-{:016x}.docx", parts.iter().fold(7_u64, |hash, part| hash.wrapping_mul(31).wrapping_add(part.0 as u64 * 41 + part.1 as u64)));
            std::fs::write(name, &written.bytes).unwrap();
        }
    }
}

/// What is written from a package again is the same package, when it has gone through once.
#[test]
fn a_second_trip_changes_nothing() {
    let folder = std::path::Path::new(env!("CARGO_MANIFEST_DIR")).join("../../demo");
    for file in ["word/volunteer-handbook.docx", "word/by-laws.docx", "tides/reading-the-gauge.md", "inbox/minutes.html"] {
        let format = Format::from_extension(file.rsplit('.').next().unwrap()).unwrap();
        let source = std::fs::read(folder.join(file)).unwrap();
        let html = |bytes: &[u8], reads| convert(bytes, reads, Format::Html, &[]).into_text().unwrap();
        let docx = |bytes: &[u8], reads| {
            let written = convert(bytes, reads, Format::Word, &[]);
            assert_eq!(faults(&written.bytes), [""; 0], "{file}");
            written.bytes
        };
        let once = html(&docx(&source, format), Format::Word);
        let twice = html(&docx(once.as_bytes(), Format::Html), Format::Word);
        assert_eq!(once, twice, "{file}");
        let _ = read(&docx(&source, format), Format::Word, &profile("fragment", &[])).unwrap();
    }
}
