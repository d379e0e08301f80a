//! Where Word documents that are written end: names, dates and languages that their format has no room for, titles, parts of
//! templates, and documents whose shapes are many of one kind.
#![allow(missing_docs, clippy::unwrap_used, clippy::panic, clippy::print_stderr, reason = "tests")]

use crate::support;

use obblet::document::{Document, HintRole, Kind, NamedStyle, Property, Value};
use obblet::formats::word;
use obblet::{Converted, Format};
use support::convert::convert;
use support::linear::assert_linear;
use support::package::{self, Package};
use support::package_check::{faults, part, parts};

const MAIN: &str = "word/document.xml";

#[track_caller]
fn written(source: impl AsRef<[u8]>, reads: Format, settings: &[&str]) -> Converted {
    let written = convert(source, reads, Format::Word, settings);
    assert_eq!(faults(&written.bytes), [""; 0], "{}", part(&written.bytes, MAIN));
    written
}

/// The styles of the paragraphs of a package with their texts.
fn styled(bytes: &[u8]) -> Vec<String> {
    let main = part(bytes, MAIN);
    let doc = roxmltree::Document::parse(&main).unwrap();
    let named = |node: roxmltree::Node<'_, '_>, name: &str| node.tag_name().name() == name;
    let value = |node: roxmltree::Node<'_, '_>| node.attributes().next().unwrap().value().to_owned();
    doc.descendants()
        .filter(|node| named(*node, "p"))
        .map(|node| {
            let style = node.descendants().find(|node| named(*node, "pStyle")).map_or_else(String::new, value);
            let text: String = node.descendants().filter(|node| named(*node, "t")).filter_map(|node| node.text()).collect();
            format!("{style}: {text}")
        })
        .collect()
}

/// A package with a title and headings of these levels.
fn titled(levels: &[u8]) -> Package {
    let heading = |level: u8| {
        let name = format!("heading {level}");
        package::style(&format!("H{level}"), &name, "Normal", &format!("<w:outlineLvl w:val=\"{}\"/>", level - 1), "")
    };
    Package {
        body: package::styled("Title", "Tides")
            + &levels.iter().map(|level| package::styled(&format!("H{level}"), "Part")).collect::<String>()
            + &package::plain("text"),
        styles: package::style("Normal", "Normal", "", "", "")
            + &package::style("Title", "Title", "Normal", "", "")
            + &(1..=3).map(heading).collect::<String>(),
        ..Package::default()
    }
}

#[test]
fn headings_keep_their_styles_below_a_title() {
    for levels in [&[1, 2][..], &[2, 3], &[]] {
        let written = written(titled(levels).bytes(), Format::Word, &[]);
        let headings = levels.iter().map(|level| format!("Heading{level}: Part"));
        let expected: Vec<String> =
            ["Title: Tides".to_owned()].into_iter().chain(headings).chain([": text".to_owned()]).collect();
        assert_eq!(styled(&written.bytes), expected);
    }
    // A title that is in the document no more lowers nothing.
    let mut doc = Document::new();
    let title = doc.create(Kind::Heading(1));
    doc.layout_hints.at(title).part = HintRole::Title { lowered: 1 };
    let heading = doc.append(doc.root(), Kind::Heading(2));
    doc.append_text(heading, "Low");
    assert_eq!(styled(&word::write(&doc, &word::WriteOptions::default()).bytes), ["Heading2: Low"]);
}

#[test]
fn the_list_of_contents_stands_below_the_title() {
    let contents = ["word.contents-list=true"];
    let styles = |source: &[u8], reads| styled(&written(source, reads, &contents).bytes);
    assert_eq!(
        styles(b"# Tides\n\n## Low\n\ntext\n", Format::Markdown),
        ["Heading1: Tides", "TOC1: Tides", "TOC2: Low", "Heading2: Low", ": text"]
    );
    assert_eq!(
        styles(&titled(&[1, 2]).bytes(), Format::Word),
        ["Title: Tides", "TOC1: Part", "TOC2: Part", "Heading1: Part", "Heading2: Part", ": text"]
    );
    assert_eq!(
        styles(b"---\ntitle: Tides\nsubtitle: A log\n---\n\n## Low\n", Format::Markdown),
        ["Title: Tides", "Subtitle: A log", "TOC2: Low", "Heading2: Low"]
    );
    assert_eq!(styles(b"text\n\n# Low\n", Format::Markdown), ["TOC1: Low", ": text", "Heading1: Low"]);
    assert_eq!(styles(b"text\n", Format::Markdown), [": text"]);
}

#[test]
fn names_dates_and_languages_are_what_the_format_takes() {
    let long = "log-of-the-station-".repeat(20);
    let html = format!(
        "<html lang='12_34'><p class='{long}'>a<p class='{long}x'>b<p class='a,b'>c<p class='A;B'>d<p lang='é'>e\
         <p><a href='https://greywick.example/' title='{long}'>f</a> <ins datetime='2031-03-05'>g</ins> <ins datetime='2031-02-31'>h</ins>"
    );
    let settings = ["clean.classes=*", "styling=named", "clean.revisions=keep", "word.tracked-changes=all"];
    let main = part(&written(&html, Format::Html, &settings).bytes, MAIN);
    assert_eq!(main.matches("w:date=\"2031-03-05T00:00:00Z\"").count(), 1, "{main}");
    assert_eq!(main.matches("w:date=").count(), 1, "{main}");
    // The marks of quotations are those of the language.
    for (language, expected) in [("de", "\u{201E}Ebbe\u{201C}"), ("en", "\u{201C}Ebbe\u{201D}")] {
        let html = format!("<html lang={language}><p><q>Ebbe</q>");
        for writes in [Format::Word, Format::Text] {
            let written = convert(&html, Format::Html, writes, &[]);
            let text = convert(&written.bytes, writes, Format::Text, &[]).into_text().unwrap();
            assert!(text.contains(expected), "{text}");
        }
    }
}

#[test]
fn what_describes_no_term_is_a_paragraph() {
    let source = Package {
        body: package::styled("Definition", "a")
            + &package::styled("DefinitionList", "b")
            + &package::styled("DefinitionTerm", "c")
            + &package::styled("DefinitionList", "d"),
        styles: package::style("Normal", "Normal", "", "", "")
            + &package::style("Definition", "Definition", "Normal", "", "")
            + &package::style("DefinitionList", "Definition List", "Normal", "", "")
            + &package::style("DefinitionTerm", "Definition Term", "Normal", "", ""),
        ..Package::default()
    };
    let html = convert(source.bytes(), Format::Word, Format::Html, &["html.compact=true"]).into_text().unwrap();
    assert_eq!(html.trim_end(), "<p>a</p><p>b</p><dl><dt>c</dt><dd>d</dd></dl>");
}

#[test]
fn a_cropped_picture_does_not_come_back_whole() {
    let mut bmp = std::io::Cursor::new(Vec::new());
    image::DynamicImage::new_rgb8(40, 20).write_to(&mut bmp, image::ImageFormat::Bmp).unwrap();
    let bmp = bmp.into_inner();
    let whole = package::picture("gauge.bmp", "A gauge", 20, 20);
    assert!(whole.contains("<a:stretch>"), "{whole}");
    let cropped = whole.replace("<a:stretch>", "<a:srcRect r=\"50000\"/><a:stretch>");
    for (drawing, expected, width) in [(whole, "word/media/image1.bmp", 40), (cropped, "word/media/image1.png", 20)] {
        let source = Package { body: drawing, pictures: vec![("gauge.bmp".to_owned(), bmp.clone())], ..Package::default() };
        let written = written(source.bytes(), Format::Word, &[]);
        let all = parts(&written.bytes);
        let bytes = all.get(expected).unwrap_or_else(|| panic!("{:?}", all.keys()));
        assert_eq!(image::load_from_memory(bytes).unwrap().width(), width);
    }
}

#[test]
fn parts_of_a_template_come_with_what_they_refer_to() {
    let folder = tempfile::tempdir().unwrap();
    let path = folder.path().join("house.dotx");
    let setting = format!("word.template={}", path.display());
    let template = |reference: &str| Package {
        body: "<w:sectPr><w:headerReference w:type=\"default\" r:id=\"header1\"/></w:sectPr>".to_owned(),
        styles: package::style("Normal", "Normal", "", "", "")
            + "<w:style w:type=\"table\" w:styleId=\"log\"><w:name w:val=\"Log Table\"/></w:style>",
        numbering: package::numbering(&[(4, package::levels(&[("decimal", "%1)")]))]),
        header: format!("<w:p><w:r>{reference}</w:r></w:p>"),
        ..Package::default()
    };
    // A style of the document takes no id that any style of the template has.
    std::fs::write(&path, template("<w:t>Greywick Sound</w:t>").bytes()).unwrap();
    let named = written("<p class=log>a", Format::Html, &["clean.classes=*", "styling=named", &setting]);
    assert!(part(&named.bytes, "word/styles.xml").contains("w:styleId=\"log2\""));
    assert!(
        part(&named.bytes, "word/house1.xml").contains("Greywick Sound") && named.findings.is_empty(),
        "{:?}",
        named.findings
    );
    // A header with a chart is left out, and that is said.
    std::fs::write(&path, template("<w:object r:id=\"chart1\"/>").bytes()).unwrap();
    let without = written("a\n", Format::Markdown, &[&setting]);
    assert!(!parts(&without.bytes).contains_key("word/house1.xml"));
    assert!(
        without.findings.iter().any(|one| one.code == "word.template" && one.message.contains("a header")),
        "{:?}",
        without.findings
    );
}

#[test]
fn many_of_one_kind_take_linear_time() {
    let settings = ["clean.classes=*", "styling=named"];
    let run = |source: &[u8]| convert(source, Format::Html, Format::Word, &settings).bytes.len();
    let each = |piece: fn(usize) -> String| move |count: usize| (0..count).map(piece).collect::<String>().into_bytes();
    assert_linear("classes", 300, each(|number| format!("<p class='entry-{number}'>a</p>")), run);
    assert_linear("classes of one name", 300, each(|number| format!("<p class='e{}'>a</p>", "-".repeat(number % 97))), run);
    let ids = each(|number| format!("<h2 id='{}{number}'>a</h2>", "the-log-of-the-station-".repeat(3)));
    assert_linear("ids that are cut", 300, ids, run);
    // Rules of single places, as documents that are read exactly have them.
    let places = |source: &[u8]| {
        let mut doc = Document::new();
        for number in 0..source.len() {
            let class = format!("p{number}");
            let properties = vec![(Property::WhiteSpace, Value::Keyword("pre-wrap"))];
            doc.styles.push(NamedStyle {
                name: String::new(),
                class: class.clone(),
                properties,
                of_marker: false,
                numbers: None,
            });
            let paragraph = doc.append(doc.root(), Kind::Paragraph);
            doc.append_text(paragraph, "High");
            let class = doc.intern(&class);
            doc.attributes_mut(paragraph).classes.push(class);
        }
        word::write(&doc, &word::WriteOptions::default()).bytes.len()
    };
    assert_linear("rules of single places", 200, |count| vec![b'p'; count], places);
}
