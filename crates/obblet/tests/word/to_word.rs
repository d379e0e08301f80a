//! Word documents that become Word documents: what only word processors have stays, and a second trip changes nothing.
#![allow(missing_docs, clippy::unwrap_used, clippy::panic, clippy::print_stderr, reason = "tests")]

use crate::support;

use obblet::document::Weight;
use obblet::profile::Profile;
use obblet::{Converted, Format};
use support::convert::{convert, profile};
use support::linear::assert_linear;
use support::package::{self, Package, stored};
use support::package_check::{faults, part, parts};

#[track_caller]
fn again(package: &Package, settings: &[&str]) -> Converted {
    let written = convert(package.bytes(), Format::Word, Format::Word, settings);
    assert_eq!(faults(&written.bytes), [""; 0]);
    written
}

fn main_part(written: &Converted) -> String {
    part(&written.bytes, "word/document.xml")
}

fn text(text: &str) -> String {
    format!("<w:r><w:t xml:space=\"preserve\">{text}</w:t></w:r>")
}

#[test]
fn comments_stay_where_they_are() {
    let mark = |name: &str, id: u8| format!("<w:comment{name} w:id=\"{id}\"/>");
    let reference = |id: u8| format!("<w:r><w:commentReference w:id=\"{id}\"/></w:r>");
    let body = format!(
        "<w:p>{}{}{}{}</w:p><w:p>{}{}</w:p><w:p>{}{}{}</w:p>",
        text("The mean "),
        mark("RangeStart", 0),
        text("sea level "),
        text("of"),
        text("the year"),
        mark("RangeEnd", 0) + &reference(0),
        mark("RangeStart", 1),
        text("was high"),
        mark("RangeEnd", 1) + &reference(1),
    );
    let comment = |id: u8, author: &str, says: &str| {
        format!(
            "<w:comment w:id=\"{id}\" w:author=\"{author}\" w:date=\"2031-03-05T10:00:00Z\"><w:p>{}</w:p></w:comment>",
            text(says)
        )
    };
    let comments = comment(0, "Ada Pask", "Which year?") + &comment(1, "", "How high?");
    let package = Package { comments, ..Package::of(&body) };
    let written = again(&package, &[]);
    assert!(written.findings.iter().all(|finding| finding.weight != Weight::Lost), "{:?}", written.findings);
    let main = main_part(&written);
    let shown =
        main.split("<w:commentRangeStart w:id=\"0\"/>").nth(1).unwrap().split("<w:commentRangeEnd w:id=\"0\"/>").next().unwrap();
    let words: String = shown.split('<').filter_map(|piece| piece.split_once('>')).map(|(_, text)| text).collect();
    assert_eq!(words, "sea level ofthe year");
    assert!(main.contains("<w:commentRangeEnd w:id=\"1\"/><w:r><w:commentReference w:id=\"1\"/></w:r>"), "{main}");
    let said = part(&written.bytes, "word/comments.xml");
    assert!(said.contains("w:author=\"Ada Pask\" w:date=\"2031-03-05T10:00:00Z\" w:initials=\"AP\""), "{said}");
    assert!(said.contains("Which year?") && said.contains("w:author=\"Unknown\""));
    // Elsewhere they are said to be lost, as they are where they are not wanted.
    for (writes, settings) in [(Format::Html, &["word.comments=keep"][..]), (Format::Word, &["word.comments=drop"])] {
        let other = convert(package.bytes(), Format::Word, writes, settings);
        assert!(other.findings.iter().any(|finding| finding.code == "word.comment" && finding.lost.contains("Which year?")));
    }
}

#[test]
fn pages_sections_and_tabs_stay() {
    let section = |pages: &str, more: &str| {
        format!(
            "<w:sectPr>{more}<w:pgSz w:w=\"{pages}\" w:h=\"12000\"/><w:pgMar w:top=\"700\" w:right=\"800\" w:bottom=\"900\" w:left=\"1000\"/></w:sectPr>"
        )
    };
    let tabs = "<w:tabs><w:tab w:val=\"right\" w:leader=\"dot\" w:pos=\"6000\"/></w:tabs>";
    let body = package::paragraph("", &text("first"))
        + &format!("<w:p><w:pPr>{}</w:pPr>{}</w:p>", section("9000", ""), text("last of one"))
        + &package::paragraph(tabs, "<w:r><w:t>name</w:t><w:tab/><w:t>7</w:t></w:r>")
        + &package::paragraph("", "<w:r><w:br w:type=\"page\"/></w:r>")
        + &package::paragraph("", &text("next page"))
        + &section(
            "8000",
            "<w:headerReference w:type=\"default\" r:id=\"header1\"/><w:footerReference w:type=\"default\" r:id=\"footer1\"/>",
        );
    let page_field = "<w:r><w:fldChar w:fldCharType=\"begin\"/></w:r><w:r><w:instrText> PAGE </w:instrText></w:r><w:r><w:fldChar w:fldCharType=\"separate\"/></w:r><w:r><w:t>3</w:t></w:r><w:r><w:fldChar w:fldCharType=\"end\"/></w:r>";
    let package = Package {
        header: format!("<w:p>{}</w:p>", text("Greywick Sound")),
        footer: format!("<w:p>{}{page_field}</w:p>", text("page ")),
        ..Package::of(&body)
    };
    let written = again(&package, &[]);
    assert!(written.findings.iter().all(|finding| finding.weight == Weight::Advice), "{:?}", written.findings);
    let main = main_part(&written);
    for piece in [
        "<w:pgSz w:w=\"9000\" w:h=\"12000\"/><w:pgMar w:top=\"700\" w:right=\"800\" w:bottom=\"900\" w:left=\"1000\"",
        "<w:tab w:val=\"right\" w:leader=\"dot\" w:pos=\"6000\"/></w:tabs>",
        "<w:t>name</w:t><w:tab/><w:t>7</w:t>",
        "<w:pageBreakBefore/>",
        "<w:headerReference w:type=\"default\"",
    ] {
        assert!(main.contains(piece), "{piece} in {main}");
    }
    let names: Vec<String> = parts(&written.bytes).into_keys().collect();
    let names: Vec<String> = names.into_iter().filter(|name| name.contains("/header") || name.contains("/footer")).collect();
    assert_eq!(names.len(), 2, "{names:?}");
    let all: String = names.iter().map(|name| part(&written.bytes, name)).collect();
    assert!(all.contains("Greywick Sound") && all.contains("w:instr=\" PAGE \""), "{all}");
    // One that is asked for stands in place of the source's.
    let numbered = again(&package, &["word.page-numbers=true"]);
    assert!(!part(&numbered.bytes, "word/footer1.xml").contains("page "));
}

#[test]
fn changes_and_contents_stay() {
    let change = "<w:ins w:id=\"1\" w:author=\"Ada\" w:date=\"2031-03-05T10:00:00Z\"><w:r><w:t>new</w:t></w:r></w:ins><w:del w:id=\"2\" w:author=\"Ada\" w:date=\"2031-03-05T10:00:00Z\"><w:r><w:delText>old</w:delText></w:r></w:del>";
    let contents = "<w:p><w:r><w:fldChar w:fldCharType=\"begin\"/></w:r><w:r><w:instrText> TOC \\o \"1-3\" </w:instrText></w:r><w:r><w:fldChar w:fldCharType=\"separate\"/></w:r><w:r><w:t>Tides 3</w:t></w:r><w:r><w:fldChar w:fldCharType=\"end\"/></w:r></w:p>";
    let end = "<w:p><w:pPr><w:rPr><w:del w:id=\"3\" w:author=\"Ada\"/></w:rPr></w:pPr><w:r><w:t>joined</w:t></w:r></w:p><w:p><w:r><w:t>soon</w:t></w:r></w:p>";
    let body = contents.to_owned()
        + end
        + "<w:p><w:pPr><w:outlineLvl w:val=\"0\"/></w:pPr><w:r><w:t>Tides</w:t></w:r></w:p>"
        + &format!("<w:p>{change}</w:p>");
    let main = main_part(&again(&Package::of(&body), &[]));
    for piece in [
        "<w:ins w:id=",
        "<w:delText>old</w:delText>",
        "TOC \\o",
        "<w:rPr><w:del w:id=\"0\" w:author=\"Ada\"/></w:rPr></w:pPr>",
        "w:author=\"Ada\" w:date=\"2031-03-05T10:00:00Z\"",
    ] {
        assert!(main.contains(piece), "{piece} in {main}");
    }
    let accepted = main_part(&again(&Package::of(&body), &["clean.revisions=accept", "word.contents=false"]));
    assert!(!accepted.contains("old") && !accepted.contains("TOC"), "{accepted}");
}

#[test]
fn numbers_that_show_those_of_other_levels_stay() {
    let package = Package {
        numbering: package::numbering(&[(
            1,
            package::levels(&[("decimal", "%1."), ("decimal", "%1.%2"), ("lowerLetter", "(%3)")]),
        )]),
        ..Package::of(&[0, 1, 1, 2, 0, 1].map(|level| package::item(1, level, "x")).concat())
    };
    let written = again(&package, &[]);
    let numbering = part(&written.bytes, "word/numbering.xml");
    for text in ["\"%1.\"", "\"%1.%2\"", "\"(%3)\""] {
        assert!(numbering.contains(&format!("<w:lvlText w:val={text}/>")), "{text} in {numbering}");
    }
    let main = main_part(&written);
    let of_items: Vec<&str> = main.split("<w:numId w:val=\"").skip(1).map(|rest| rest.split('"').next().unwrap()).collect();
    assert!(of_items.len() == 6 && of_items.iter().all(|number| *number == of_items[0]), "{of_items:?}");
}

/// Word to HTML to Word to HTML, in each styling: the second page is the third, and in all of them the names of styles stay.
#[test]
fn a_second_trip_through_html_changes_nothing() {
    let folder = std::path::Path::new(env!("CARGO_MANIFEST_DIR")).join("../../demo/word");
    let mut files: Vec<_> = std::fs::read_dir(folder).unwrap().map(|entry| entry.unwrap().path()).collect();
    files.retain(|path| path.extension().is_some_and(|extension| extension == "docx"));
    assert!(files.len() > 5);
    for styling in ["semantic", "named", "exact"] {
        let mut settings: Profile = profile("page", &["page.look=none", "images.place=embed"]);
        settings.set(&format!("styling={styling}")).unwrap();
        let convert = |source: &[u8], reads, writes| obblet::convert(source, reads, writes, &settings).unwrap().bytes;
        for path in &files {
            let html = |docx: &[u8]| convert(docx, Format::Word, Format::Html);
            let docx = |html: &[u8]| {
                let docx = convert(html, Format::Html, Format::Word);
                assert_eq!(faults(&docx), [""; 0], "{styling} {}", path.display());
                docx
            };
            let first = html(&std::fs::read(path).unwrap());
            let second = html(&docx(&first));
            let third = html(&docx(&second));
            let (second, third) = (String::from_utf8(second).unwrap(), String::from_utf8(third).unwrap());
            assert!(second == third, "{styling} {}", path.display());
            if styling != "semantic" {
                let custom = |page: &str| page.matches("instrument-name").count();
                assert_eq!(custom(&String::from_utf8(first).unwrap()), custom(&second), "{styling} {}", path.display());
            }
        }
    }
}

#[test]
fn many_comments_and_sections_take_linear_time() {
    let mark = |name: &str, id: usize| format!("<w:comment{name} w:id=\"{id}\"/>");
    let commented = |n: usize| {
        let one = |id| format!("<w:p>{}{}{}</w:p>", mark("RangeStart", id), text("same words"), mark("RangeEnd", id));
        let says = |id| format!("<w:comment w:id=\"{id}\" w:author=\"A\"><w:p>{}</w:p></w:comment>", text("why"));
        Package { comments: (0..n).map(says).collect(), ..Package::of(&(0..n).map(one).collect::<String>()) }
    };
    let in_one_paragraph = |n: usize| {
        let one = |id| mark("RangeStart", id) + &text("same ") + &mark("RangeEnd", id);
        let says = |id| format!("<w:comment w:id=\"{id}\" w:author=\"A\"><w:p>{}</w:p></w:comment>", text("why"));
        Package {
            comments: (0..n).map(says).collect(),
            ..Package::of(&format!("<w:p>{}</w:p>", (0..n).map(one).collect::<String>()))
        }
    };
    let section = "<w:p><w:pPr><w:sectPr><w:pgSz w:w=\"9000\" w:h=\"9000\"/></w:sectPr></w:pPr><w:r><w:t>a</w:t></w:r></w:p>";
    let sections = |n: usize| Package::of(&section.repeat(n));
    let shapes: [(&str, &dyn Fn(usize) -> Package); 3] =
        [("comments", &commented), ("comments in a paragraph", &in_one_paragraph), ("sections", &sections)];
    for (name, shape) in shapes {
        // Unpacked, so that ten times as much is ten times as many bytes.
        let bytes = |n: usize| stored(&shape(n).parts());
        assert_linear(name, 100, bytes, |source| convert(source, Format::Word, Format::Word, &[]));
    }
}

#[test]
fn endnotes_stay_at_the_end() {
    let mark = |kind: &str, id: u8| format!("<w:r><w:{kind}Reference w:id=\"{id}\"/></w:r>");
    let note = |kind: &str, id: u8, content: &str| {
        format!("<w:{kind} w:id=\"{id}\"><w:p><w:r><w:{kind}Ref/></w:r>{content}</w:p></w:{kind}>")
    };
    let body = format!(
        "<w:p>{}{}{}{}{}</w:p>",
        text("High water"),
        mark("endnote", 4),
        text(" and low"),
        mark("footnote", 7),
        mark("endnote", 4),
    );
    // Each kind mentions the other, and one is mentioned by a note alone.
    let footnotes = note("footnote", 7, &(text("Of the foot. ") + &mark("endnote", 2))) + &note("footnote", 9, &text("Below."));
    let endnotes = note("endnote", 2, &(text("Of a note. ") + &mark("footnote", 9))) + &note("endnote", 4, &text("Of the end."));
    let package = Package { footnotes, endnotes, ..Package::of(&body) };
    let written = again(&package, &[]);
    let order = |name: &str, wanted: &[&str]| {
        let part = part(&written.bytes, name);
        let places: Vec<usize> =
            wanted.iter().map(|words| part.find(words).unwrap_or_else(|| panic!("{words}: {part}"))).collect();
        assert!(places.is_sorted(), "{part}");
    };
    order(
        "word/document.xml",
        &["<w:endnoteReference w:id=\"1\"/>", "<w:footnoteReference w:id=\"1\"/>", " w:id=\"1\"/></w:r></w:p>"],
    );
    order("word/footnotes.xml", &["Of the foot.", "<w:endnoteReference w:id=\"2\"/>", "<w:footnote w:id=\"2\">", "Below."]);
    order("word/endnotes.xml", &["<w:endnote w:id=\"1\">", "Of the end.", "Of a note.", "<w:footnoteReference w:id=\"2\"/>"]);
    let again = convert(&written.bytes, Format::Word, Format::Word, &[]);
    for name in ["word/document.xml", "word/footnotes.xml", "word/endnotes.xml"] {
        assert_eq!(part(&again.bytes, name), part(&written.bytes, name));
    }
}
