//! What Word documents that are written are made of: styles, numbers, images, fields, templates, and shapes that are hard to write.
#![allow(missing_docs, clippy::unwrap_used, clippy::panic, clippy::print_stderr, reason = "tests")]

use crate::support;

use obblet::document::{Document, Kind, ListKind, Marker};
use obblet::formats::word;
use obblet::{Context, Converted, Format, convert_in};
use std::path::Path;
use support::convert::{convert, profile};
use support::linear::assert_linear;
use support::package::{self, Package};
use support::package_check::{faults, part, parts};

const MAIN: &str = "word/document.xml";

/// HTML as a package that is in order.
#[track_caller]
fn written(html: &str, settings: &[&str]) -> Converted {
    let written = convert(html, Format::Html, Format::Word, settings);
    assert_eq!(faults(&written.bytes), [""; 0], "{}", part(&written.bytes, MAIN));
    written
}

/// The body of the main part of what is written of HTML.
#[track_caller]
fn body(html: &str, settings: &[&str]) -> String {
    let main = part(&written(html, settings).bytes, MAIN);
    let (_, body) = main.split_once("<w:body>").unwrap();
    body.split_once("<w:sectPr>").unwrap().0.to_owned()
}

#[track_caller]
fn case(html: &str, expected: &str) {
    assert_eq!(body(html, &[]), expected, "{html}");
}

/// HTML that comes back from Word as it was.
#[track_caller]
fn same(html: &str) {
    let settings = ["html.compact=true", "clean.revisions=keep", "html.heading-levels=source"];
    let back = convert(written(html, &settings).bytes, Format::Word, Format::Html, &settings).into_text().unwrap();
    assert_eq!(back.trim_end(), html);
}

#[test]
fn blocks_are_paragraphs_with_styles() {
    case("<h3>a</h3>", "<w:p><w:pPr><w:pStyle w:val=\"Heading3\"/></w:pPr><w:r><w:t>a</w:t></w:r></w:p>");
    case(
        "<p>a <b>b</b>",
        "<w:p><w:r><w:t xml:space=\"preserve\">a </w:t></w:r><w:r><w:rPr><w:b/><w:bCs/></w:rPr><w:t>b</w:t></w:r></w:p>",
    );
    case("<blockquote><p>a</blockquote>", "<w:p><w:pPr><w:pStyle w:val=\"Quote\"/></w:pPr><w:r><w:t>a</w:t></w:r></w:p>");
    case(
        "<pre>a\n\tb</pre>",
        "<w:p><w:pPr><w:pStyle w:val=\"HTMLPreformatted\"/></w:pPr><w:r><w:t>a</w:t><w:br/><w:tab/><w:t>b</w:t></w:r></w:p>",
    );
    case("<hr>", "<w:p><w:pPr><w:pStyle w:val=\"HorizontalLine\"/></w:pPr></w:p>");
    case(
        "<dl><dt>a<dd>b</dl>",
        "<w:p><w:pPr><w:pStyle w:val=\"DefinitionTerm\"/><w:keepNext/></w:pPr><w:r><w:t>a</w:t></w:r></w:p>\
         <w:p><w:pPr><w:pStyle w:val=\"DefinitionList\"/></w:pPr><w:r><w:t>b</w:t></w:r></w:p>",
    );
    // White space is what browsers make of it.
    case("<p> a \n b<br> c </p>", "<w:p><w:r><w:t>a b</w:t></w:r><w:r><w:br/></w:r><w:r><w:t>c</w:t></w:r></w:p>");
}

#[test]
fn html_comes_back_as_it_was() {
    same("<h1>a</h1><p>b</p><h2>c</h2>");
    same("<p>H<sub>2</sub>O, x<sup>2</sup>, <mark>m</mark>, <u>u</u>, <s>s</s>, <em>e</em>, <strong>s</strong></p>");
    same("<p><code>c</code> <kbd>k</kbd> <samp>s</samp> <var>v</var> <cite>c</cite> <dfn>d</dfn></p>");
    same("<ul><li>a<ul><li>b<ul><li>c</li></ul></li></ul></li><li>d</li></ul>");
    same("<ol start=\"4\"><li>a<ol type=\"a\"><li>b</li></ol></li><li>c<ol type=\"I\"><li>d</li></ol></li></ol>");
    same("<ul><li><input type=\"checkbox\" disabled checked> a</li><li><input type=\"checkbox\" disabled> b</li></ul>");
    same("<dl><dt>a</dt><dd>b</dd><dt>c</dt><dd>d</dd></dl>");
    same("<blockquote><p>a</p><p>b</p></blockquote>");
    same("<pre><code>a\n  b\n</code></pre>");
    same(
        "<table><thead><tr><th>a</th><th style=\"text-align: right\">b</th></tr></thead><tbody><tr><td>c</td><td style=\"text-align: right\">d</td></tr></tbody></table>",
    );
    same(
        "<table><tbody><tr><td colspan=\"2\">a</td></tr><tr><td rowspan=\"2\">b</td><td>c</td></tr><tr><td>d</td></tr></tbody></table>",
    );
    same(
        "<p><a href=\"https://greywick.example/a?b=c&amp;d\" title=\"All of it\">a</a> <a href=\"#low\">b</a></p><h2 id=\"low\">c</h2>",
    );
    same("<p>a <ruby>\u{6F6E}<rt>shio</rt></ruby> b</p>");
    same("<hr>");
}

#[test]
fn classes_are_styles_of_their_names() {
    let settings = ["clean.classes=*", "styling=named"];
    let html = "<p class=\"log entry\">a <span class=\"name\">b</span></p><p class=\"log\">c</p>";
    let written = written(html, &settings);
    let main = part(&written.bytes, MAIN);
    assert!(main.contains("<w:pStyle w:val=\"log\"/>") && main.contains("<w:rStyle w:val=\"nameChar\"/>"), "{main}");
    let styles = part(&written.bytes, "word/styles.xml");
    assert!(styles.contains("w:customStyle=\"1\" w:styleId=\"log\"><w:name w:val=\"log\"/>"), "{styles}");
    assert_eq!(styles.matches("w:customStyle").count(), 2);
}

/// A document whose styles say something.
fn styled_package() -> Package {
    let style =
        |id: &str, name: &str, paragraph: &str, characters: &str| package::style(id, name, "Normal", paragraph, characters);
    Package {
        body: package::styled("Head", "Tides")
            + &package::styled("Log", "Six o'clock")
            + &package::paragraph("<w:jc w:val=\"center\"/>", &package::run("<w:color w:val=\"AA5500\"/>", "Noon")),
        styles: package::style("Normal", "Normal", "", "", "")
            + &style(
                "Head",
                "heading 1",
                "<w:spacing w:before=\"300\"/><w:outlineLvl w:val=\"0\"/>",
                "<w:b/><w:color w:val=\"123456\"/>",
            )
            + &style(
                "Log",
                "Log Entry",
                "<w:pBdr><w:left w:val=\"single\" w:sz=\"24\" w:space=\"4\" w:color=\"00AA00\"/></w:pBdr><w:ind w:left=\"360\"/>",
                "<w:i/>",
            ),
        ..Package::default()
    }
}

#[test]
fn styles_of_the_source_come_back_with_their_definitions() {
    for styling in ["named", "exact"] {
        let setting = format!("styling={styling}");
        let written = convert(styled_package().bytes(), Format::Word, Format::Word, &[&setting]);
        assert_eq!(faults(&written.bytes), [""; 0]);
        let styles = part(&written.bytes, "word/styles.xml");
        let (_, own) = styles.split_once("<w:name w:val=\"Log Entry\"/>").unwrap();
        let own = own.split_once("</w:style>").unwrap().0;
        for expected in ["w:color=\"00AA00\"", "<w:i/>", "w:left=\"360\""] {
            assert!(own.contains(expected), "{styling}: {own}");
        }
        let page = |bytes: &[u8]| convert(bytes, Format::Word, Format::Html, &["styling=named", "html.compact=true"]).into_text();
        assert_eq!(page(&written.bytes), page(&styled_package().bytes()), "{styling}");
    }
    // What stands at one place only is direct formatting.
    let written = convert(styled_package().bytes(), Format::Word, Format::Word, &["styling=exact"]);
    let main = part(&written.bytes, MAIN);
    assert!(main.contains("<w:jc w:val=\"center\"/>") && main.contains("<w:color w:val=\"AA5500\"/>"), "{main}");
    let (_, heading) = part(&written.bytes, "word/styles.xml")
        .split_once("<w:name w:val=\"heading 1\"/>")
        .map(|(a, b)| (a.to_owned(), b.to_owned()))
        .unwrap();
    assert!(heading.split_once("</w:style>").unwrap().0.contains("123456"), "{heading}");
}

#[test]
fn lists_have_numbers_of_their_own() {
    let written = written("<ol><li>a</ol><p>x</p><ol><li>b</ol><ol type=i start=3><li>c</ol>", &[]);
    let numbering = part(&written.bytes, "word/numbering.xml");
    for expected in ["<w:startOverride w:val=\"1\"/>", "<w:startOverride w:val=\"3\"/>", "<w:numFmt w:val=\"lowerRoman\"/>"] {
        assert!(numbering.contains(expected), "{numbering}");
    }
    // What stands around the numbers of the source stays.
    let list = package::numbering(&[(1, package::levels(&[("lowerLetter", "(%1)")]))]);
    let source = Package { numbering: list, ..Package::of(&(package::item(1, 0, "a") + &package::item(1, 0, "b"))) };
    let again = convert(source.bytes(), Format::Word, Format::Word, &[]);
    assert!(part(&again.bytes, "word/numbering.xml").contains("<w:lvlText w:val=\"(%1)\"/>"));
    // A tenth level stands on the ninth.
    let mut doc = Document::new();
    let mut parent = doc.root();
    for level in 0..12 {
        let list =
            doc.append(parent, Kind::List(ListKind { ordered: level % 2 == 0, tight: true, marker: Marker::Plain, start: 1 }));
        parent = doc.append(list, Kind::ListItem { checked: None });
        let paragraph = doc.append(parent, Kind::Paragraph);
        doc.append_text(paragraph, &format!("level{level}"));
    }
    let written = word::write(&doc, &word::WriteOptions::default());
    assert_eq!(faults(&written.bytes), [""; 0]);
    assert!(written.findings.iter().any(|one| one.message.contains("nine levels")), "{:?}", written.findings);
    assert!(part(&written.bytes, MAIN).contains("level11"));
}

/// A picture of one colour in a format.
fn picture(format: image::ImageFormat) -> Vec<u8> {
    let mut bytes = std::io::Cursor::new(Vec::new());
    image::DynamicImage::new_rgb8(6, 3).write_to(&mut bytes, format).unwrap();
    bytes.into_inner()
}

/// A document beside files.
fn beside(markdown: &str, files: &[(&str, Vec<u8>)]) -> Converted {
    let mut media = obblet::media::MemoryMedia::default();
    for (name, bytes) in files {
        media.insert(*name, bytes.clone());
    }
    let context = Context { media: Some(&media), ..Context::default() };
    let written = convert_in(markdown.as_bytes(), Format::Markdown, Format::Word, &profile("fragment", &[]), &context).unwrap();
    assert_eq!(faults(&written.bytes), [""; 0]);
    written
}

#[test]
fn images_are_parts_of_the_package() {
    let png = picture(image::ImageFormat::Png);
    let drawing =
        b"<svg xmlns=\"http://www.w3.org/2000/svg\" width=\"20\" height=\"10\"><path d=\"M0 0H20V10Z\"/></svg>".to_vec();
    let files = [
        ("a.png", png.clone()),
        ("b.png", png.clone()),
        ("w.webp", picture(image::ImageFormat::WebP)),
        ("lies.png", picture(image::ImageFormat::Jpeg)),
        ("d.svg", drawing),
        ("none.png", b"no picture".to_vec()),
    ];
    let written = beside(
        "![One](a.png \"T\") ![Two](b.png)\n\n![](w.webp) ![](lies.png)\n\n![D](d.svg)\n\n![Gone](gone.png) ![No](none.png)\n",
        &files,
    );
    let all = parts(&written.bytes);
    let media: Vec<&str> = all.keys().filter(|name| name.contains("/media/")).map(String::as_str).collect();
    // The same bytes stand in it once; a drawing has a picture beside it.
    // The WebP has the pixels of the PNG.
    let expected = ["word/media/image1.png", "word/media/image2.jpeg", "word/media/image3.png", "word/media/image4.svg"];
    assert_eq!(media, expected);
    assert_eq!(all["word/media/image1.png"], png);
    let main = part(&written.bytes, MAIN);
    for expected in ["descr=\"One\"", "title=\"T\"", "cx=\"57150\" cy=\"28575\"", "asvg:svgBlip", "r:link="] {
        assert!(main.contains(expected), "{expected} in {main}");
    }
    let codes: Vec<&str> = written.findings.iter().map(|one| &*one.code).collect();
    assert!(codes.contains(&"image.missing") && codes.contains(&"word.linked-image"), "{codes:?}");
    // They come back: the drawing, and not its picture.
    let back = convert(&written.bytes, Format::Word, Format::Html, &[]).into_text().unwrap();
    assert!(back.contains("data:image/svg+xml") && back.contains("alt=\"Two\""), "{back}");
}

#[test]
fn what_counts_and_refers_is_a_field() {
    let source = "See [](#well) and [](#low).\n\n<figure id=\"well\"><img src=\"well.png\" alt=\"a well\"><figcaption>Figure 7: The well</figcaption></figure>\n\n## Low water {#low}\n";
    let written = convert(source, Format::Markdown, Format::Word, &[]);
    assert_eq!(faults(&written.bytes), [""; 0]);
    let main = part(&written.bytes, MAIN);
    for expected in ["w:instr=\" REF _Ref100000001 \\h \"", "w:instr=\" SEQ Figure \\* ARABIC \"", "w:name=\"_Ref100000001\""] {
        assert!(main.contains(expected), "{expected} in {main}");
    }
    let settings = ["word.contents-list=true", "word.running-header=true", "word.page-numbers=true", "word.page=letter"];
    let written = convert("# Tides\n\n## Low\n\n### Lower\n\ntext\n", Format::Markdown, Format::Word, &settings);
    assert_eq!(faults(&written.bytes), [""; 0]);
    let main = part(&written.bytes, MAIN);
    for expected in [" TOC \\o \"1-3\" \\h \\z \\u ", "w:dirty=\"true\"", "w:anchor=\"_Toc100000002\"", "TOC3", "w:w=\"12240\""] {
        assert!(main.contains(expected), "{expected} in {main}");
    }
    assert!(part(&written.bytes, "word/footer1.xml").contains(" PAGE "));
    assert!(part(&written.bytes, "word/header1.xml").contains("STYLEREF"));
    let back = convert(&written.bytes, Format::Word, Format::Markdown, &[]);
    assert_eq!(back.text(), Some("# Tides\n\n## Low\n\n### Lower\n\ntext\n"));
}

#[test]
fn a_template_gives_its_design() {
    let folder = tempfile::tempdir().unwrap();
    let path = folder.path().join("house.dotx");
    let setting = format!("word.template={}", path.display());
    let template = Package {
        body: package::plain("Words of the template")
            + "<w:sectPr><w:headerReference w:type=\"default\" r:id=\"header1\"/><w:pgSz w:w=\"10000\" w:h=\"12000\"/><w:pgMar w:top=\"900\" w:right=\"900\" w:bottom=\"900\" w:left=\"900\" w:header=\"400\" w:footer=\"400\" w:gutter=\"0\"/></w:sectPr>",
        styles: package::style("Standard", "Normal", "", "", "")
            + &package::style(
                "berschrift1",
                "heading 1",
                "Standard",
                "<w:outlineLvl w:val=\"0\"/>",
                "<w:color w:val=\"C0FFEE\"/>",
            ),
        numbering: package::numbering(&[(4, package::levels(&[("decimal", "%1)")]))]),
        header: package::plain("Greywick Sound"),
        ..Package::default()
    };
    std::fs::write(&path, template.bytes()).unwrap();
    let source = "# Tides\n\n1. one\n\n> quoted\n";
    let written = convert(source, Format::Markdown, Format::Word, &[&setting]);
    assert_eq!(faults(&written.bytes), [""; 0]);
    let (main, styles) = (part(&written.bytes, MAIN), part(&written.bytes, "word/styles.xml"));
    assert!(main.contains("<w:pStyle w:val=\"berschrift1\"/>") && main.contains("w:w=\"10000\""), "{main}");
    assert!(!main.contains("Words of the template"));
    // Its styles stay, and those that it lacks are based on its own.
    assert!(styles.contains("C0FFEE") && styles.contains("<w:name w:val=\"Quote\"/><w:basedOn w:val=\"Standard\"/>"), "{styles}");
    assert_eq!(styles.matches("\"heading 1\"").count(), 1);
    assert!(part(&written.bytes, "word/house1.xml").contains("Greywick Sound"));
    // Numbers go on behind those of the template.
    assert!(
        part(&written.bytes, "word/numbering.xml").contains("<w:num w:numId=\"7\">"),
        "{}",
        part(&written.bytes, "word/numbering.xml")
    );
    assert_eq!(convert(&written.bytes, Format::Word, Format::Markdown, &[]).text(), Some(source));
    // Its design holds: of the looks of the source, only the names come.
    let looks = "<style>h1{color:red}.own{color:red}</style><h1>a</h1><p class=own style='color:red'>b";
    let plain = convert(looks, Format::Html, Format::Word, &[&setting]).bytes;
    assert!(!part(&plain, MAIN).contains("FF0000") && !part(&plain, "word/styles.xml").contains("FF0000"));
    assert!(part(&plain, MAIN).contains("<w:pStyle w:val=\"own\"/>"));
    assert!(part(&convert(looks, Format::Html, Format::Word, &[&setting, "styling=exact"]).bytes, MAIN).contains("FF0000"));
    // One that can't be used is said, and one that is not there is an error.
    for bytes in [&b"PK\x03\x04 cut"[..], b"", b"\xD0\xCF\x11\xE0\xA1\xB1\x1A\xE1"] {
        std::fs::write(&path, bytes).unwrap();
        let written = convert(source, Format::Markdown, Format::Word, &[&setting]);
        assert_eq!(faults(&written.bytes), [""; 0]);
        assert!(written.findings.iter().any(|one| one.code == "word.template"), "{:?}", written.findings);
    }
    std::fs::remove_file(&path).unwrap();
    let error =
        obblet::convert(source.as_bytes(), Format::Markdown, Format::Word, &profile("fragment", &[&setting])).unwrap_err();
    assert!(error.to_string().contains("word.template: can't read"), "{error}");
}

#[test]
fn formulas_of_office_programs_come_back() {
    let formula = "<m:oMath><m:f><m:num><m:r><m:t>a</m:t></m:r></m:num><m:den><m:r><m:rPr><m:lit/></m:rPr><m:t>b</m:t></m:r></m:den></m:f></m:oMath>";
    let source = Package::of(&format!("<w:p>{}{formula}</w:p>", package::run("", "It is ")));
    let written = convert(source.bytes(), Format::Word, Format::Word, &[]);
    assert_eq!(faults(&written.bytes), [""; 0]);
    let main = part(&written.bytes, MAIN);
    assert!(main.contains("<m:f><m:num><m:r><m:t xml:space=\"preserve\">a</m:t></m:r></m:num>"), "{main}");
    assert!(main.contains("<m:rPr><m:lit/><m:sty m:val=\"i\"/></m:rPr>"), "{main}");
}

#[test]
fn hard_shapes_take_linear_time() {
    let run = |source: &[u8]| convert(source, Format::Html, Format::Word, &[]).bytes.len();
    let repeat = |piece: &'static str| move |count: usize| piece.repeat(count).into_bytes();
    assert_linear("paragraphs", 200, repeat("<p>High water at <b>six</b> o'clock.</p>\n"), run);
    assert_linear("lists", 200, repeat("<ol><li>one<ul><li>two</ul></ol><p>x</p>\n"), run);
    assert_linear("links", 200, repeat("<p><a href='https://greywick.example/a'>a</a> <a href='#x'>b</a></p>\n"), run);
    assert_linear("tables", 100, repeat("<table><tr><td rowspan=2>a<td>b<tr><td>c</table><p>x</p>\n"), run);
    assert_linear("nested quotes", 500, |count| format!("{}x", "<blockquote>".repeat(count)).into_bytes(), run);
    assert_linear("nested lists", 300, |count| format!("{}x", "<ul><li>".repeat(count)).into_bytes(), run);
    let images = |count: usize| {
        format!("<p>{}", "<img src='data:image/gif;base64,R0lGODlhAQABAAAAACwAAAAAAQABAAA=' alt=x>".repeat(count)).into_bytes()
    };
    assert_linear("the same image", 200, images, run);
}

#[test]
fn files_are_named_by_nothing_of_this_machine() {
    let path = Path::new(env!("CARGO_MANIFEST_DIR")).join("../../demo/word/volunteer-handbook.docx");
    let written = convert(std::fs::read(path).unwrap(), Format::Word, Format::Word, &["styling=exact"]);
    assert_eq!(faults(&written.bytes), [""; 0]);
    for (name, content) in parts(&written.bytes) {
        let text = String::from_utf8_lossy(&content).into_owned();
        let here = env!("CARGO_MANIFEST_DIR");
        assert!(!text.contains(here) && !text.contains("file:///"), "{name}");
    }
}
