//! Word documents: what the elements of the format become.
#![allow(missing_docs, clippy::unwrap_used, clippy::panic, clippy::print_stderr, reason = "tests")]

use crate::support;

use obblet::document::Weight;
use obblet::{Converted, Format};
use std::io::Cursor;
use support::convert::convert;
use support::package::{
    Package, archive, cell, field, item, levels, numbering, paragraph, picture, plain, row, run, style, styled, table, text,
};

fn with(package: &Package, settings: &[&str]) -> Converted {
    convert(package.bytes(), Format::Word, Format::Html, settings)
}

#[track_caller]
fn case(body: &str, expected: &str) {
    assert_eq!(with(&Package::of(body), &[]).into_text().unwrap().trim_end(), expected);
}

#[track_caller]
fn case_with(package: &Package, settings: &[&str], expected: &str) {
    assert_eq!(with(package, settings).into_text().unwrap().trim_end(), expected);
}

fn codes(converted: &Converted, weight: Weight) -> Vec<&str> {
    converted.findings.iter().filter(|finding| finding.weight == weight).map(|finding| finding.code.as_ref()).collect()
}

fn bold(words: &str) -> String {
    run("<w:b/>", words)
}

#[test]
fn runs_become_elements() {
    case(&paragraph("", &[text("a "), bold("b"), text(" c")].concat()), "<p>a <strong>b</strong> c</p>");
    // Runs that say the same are one, and space belongs to neither side.
    case(&paragraph("", &[bold("one "), bold("two "), text("three")].concat()), "<p><strong>one two</strong> three</p>");
    case(&paragraph("", &[bold("one"), text(" "), bold("two")].concat()), "<p><strong>one two</strong></p>");
    // What goes on stays open around what comes and goes.
    let nested = [run("<w:i/>", "a "), run("<w:i/><w:b/>", "b"), run("<w:i/>", " c")].concat();
    case(&paragraph("", &nested), "<p><em>a <strong>b</strong> c</em></p>");
    case(&plain("  edges  "), "<p>edges</p>");
    for (properties, expected) in [
        ("<w:b w:val=\"0\"/>", "x"),
        ("<w:i w:val=\"true\"/>", "<em>x</em>"),
        ("<w:u w:val=\"single\"/>", "<u>x</u>"),
        ("<w:u w:val=\"none\"/>", "x"),
        ("<w:strike/>", "<s>x</s>"),
        ("<w:dstrike/>", "<s>x</s>"),
        ("<w:vertAlign w:val=\"superscript\"/>", "<sup>x</sup>"),
        ("<w:vertAlign w:val=\"subscript\"/>", "<sub>x</sub>"),
        ("<w:highlight w:val=\"yellow\"/>", "<mark>x</mark>"),
        ("<w:rFonts w:ascii=\"Courier New\"/>", "<code>x</code>"),
        ("<w:rPrChange w:id=\"1\"><w:rPr><w:b/></w:rPr></w:rPrChange>", "x"),
        // Complex scripts have a bold of their own.
        ("<w:rtl/><w:b/>", "x"),
        ("<w:rtl/><w:bCs/>", "<strong>x</strong>"),
    ] {
        case(&paragraph("", &run(properties, "x")), &format!("<p>{expected}</p>"));
    }
}

#[test]
fn characters_of_all_sorts() {
    let content = "<w:r><w:t>a</w:t><w:noBreakHyphen/><w:t>b</w:t><w:softHyphen/><w:t>c</w:t><w:br/><w:t>d</w:t><w:cr/><w:t>e &amp; f</w:t></w:r>";
    case(&paragraph("", content), "<p>a\u{2011}b\u{AD}c<br>\nd<br>\ne &amp; f</p>");
    let symbols = "<w:r><w:sym w:font=\"Wingdings\" w:char=\"F0E0\"/></w:r><w:r><w:rPr><w:rFonts w:ascii=\"Symbol\"/></w:rPr><w:t>\u{F061}b</w:t></w:r>";
    case(&paragraph("", symbols), "<p>→αβ</p>");
    let unknown = with(&Package::of(&paragraph("", "<w:r><w:t>x</w:t><w:sym w:font=\"Own\" w:char=\"F041\"/></w:r>")), &[]);
    assert_eq!(codes(&unknown, Weight::Lost), ["word.symbol"]);
    // Hidden text, and what is hidden on the web alone.
    let hidden = Package::of(&paragraph("", &[text("a"), run("<w:vanish/>", " secret"), run("<w:webHidden/>", " 12")].concat()));
    let converted = with(&hidden, &[]);
    assert_eq!(converted.text().unwrap(), "<p>a</p>\n");
    assert_eq!(converted.findings.iter().find(|finding| finding.code == "word.hidden").unwrap().lost, "secret");
    case_with(&hidden, &["word.hidden=true"], "<p>a secret</p>");
    // An entity of a document's own stands for nothing.
    let entity = with(&Package::of(&paragraph("", "<w:r><w:t>a&own;b</w:t></w:r>")), &[]);
    assert_eq!((entity.text().unwrap(), codes(&entity, Weight::Lost)), ("<p>ab</p>\n", vec!["word.entity"]));
}

#[test]
fn headings_are_known_by_level_and_name_and_never_by_identifier() {
    let styles = [
        style("berschrift1", "heading 1", "", "", "<w:b/>"),
        style("Eigen", "Kapitel", "berschrift1", "", ""),
        style("Odd", "Odd", "", "<w:outlineLvl w:val=\"1\"/>", ""),
        style("Heading1", "Not a heading", "", "", ""),
        style("Titel", "Title", "", "", ""),
    ]
    .concat();
    let package = |body: &str| Package { styles: styles.clone(), ..Package::of(body) };
    let body = [styled("berschrift1", "A"), styled("Eigen", "B"), styled("Odd", "C"), styled("Heading1", "D")].concat();
    case_with(&package(&body), &[], "<h1>A</h1>\n<h1>B</h1>\n<h2>C</h2>\n<p>D</p>");
    // A title stands above all of them; one of two lines is one.
    let titled = [styled("Titel", "T"), styled("Titel", "U"), styled("berschrift1", "A")].concat();
    case_with(&package(&titled), &[], "<h1>T<br>\nU</h1>\n<h2>A</h2>");
    let direct = paragraph("<w:pStyle w:val=\"berschrift1\"/><w:outlineLvl w:val=\"9\"/>", &text("x"));
    case_with(&package(&direct), &[], "<p>x</p>");
    // In a cell a level that was set by hand is none, and one of a style is.
    let cells = table("", &[10], &[row("", &[cell("", &paragraph("<w:outlineLvl w:val=\"0\"/>", &text("x")))])]);
    assert!(!with(&package(&cells), &[]).into_text().unwrap().contains("<h1"));
    // A style that is bold does not make its text important; what is bold in it by hand is.
    let bold_style = Package { styles: style("S", "Lead", "", "", "<w:b/>"), ..Package::of(&styled("S", "x")) };
    case_with(&bold_style, &[], "<p>x</p>");
}

fn lists() -> String {
    numbering(&[
        (1, levels(&[("bullet", "•"), ("bullet", "–"), ("decimal", "%3.")])),
        (2, levels(&[("decimal", "%1."), ("lowerLetter", "%2)"), ("lowerRoman", "%3.")])),
        (3, levels(&[("upperRoman", "Article %1"), ("decimal", "%1.%2")])),
    ]) + "<w:num w:numId=\"7\"><w:abstractNumId w:val=\"2\"/><w:lvlOverride w:ilvl=\"0\"><w:startOverride w:val=\"1\"/></w:lvlOverride></w:num>"
}

#[track_caller]
fn list_case(body: &[String], expected: &str) {
    let expected = expected.replace(['\n'], "");
    let package = Package {
        numbering: lists(),
        styles: style("LC", "List Continue", "", "<w:ind w:left=\"720\"/>", "")
            + &style("H", "heading 1", "", "<w:numPr><w:numId w:val=\"3\"/></w:numPr>", ""),
        ..Package::of(&body.concat())
    };
    assert_eq!(with(&package, &["html.compact=true"]).into_text().unwrap(), expected);
}

#[test]
fn numbered_paragraphs_become_lists() {
    list_case(&[item(1, 0, "a"), item(1, 1, "b"), item(1, 0, "c")], "<ul><li>a<ul><li>b</li></ul></li><li>c</li></ul>");
    list_case(
        &[item(2, 0, "a"), item(2, 1, "b"), item(2, 1, "c")],
        "<ol><li>a<ol type=\"a\"><li>b</li><li>c</li></ol></li></ol>",
    );
    // A list goes on behind a paragraph, and starts anew where it says so.
    list_case(
        &[item(2, 0, "a"), plain("x"), item(2, 0, "b"), item(7, 0, "c")],
        "<ol><li>a</li></ol><p>x</p><ol start=\"2\"><li>b</li></ol><ol><li>c</li></ol>",
    );
    list_case(&[item(2, 0, "a"), styled("LC", "x"), item(2, 0, "b")], "<ol><li>a<p>x</p></li><li>b</li></ol>");
    list_case(&[item(2, 0, "a"), styled("LC", "x"), plain("y")], "<ol><li>a<p>x</p></li></ol><p>y</p>");
    // A deeper level starts anew below each item, a list of another kind is another list.
    list_case(
        &[item(2, 0, "a"), item(2, 1, "b"), item(2, 0, "c"), item(2, 1, "d")],
        "<ol><li>a<ol type=\"a\"><li>b</li></ol></li><li>c<ol type=\"a\"><li>d</li></ol></li></ol>",
    );
    list_case(&[item(1, 0, "a"), item(2, 0, "b")], "<ul><li>a</li></ul><ol><li>b</li></ol>");
    // No instance, or instance 0, is no list.
    list_case(&[item(0, 0, "a"), item(99, 0, "b")], "<p>a</p><p>b</p>");
    // Numbers of headings are told about, or kept where the text refers to them.
    list_case(&[styled("H", "a")], "<h1>a</h1>");
    let reference = paragraph("", &field("REF x \\r \\h", &text("Article I")));
    let heading = paragraph("<w:pStyle w:val=\"H\"/>", &("<w:bookmarkStart w:id=\"1\" w:name=\"x\"/>".to_owned() + &text("a")));
    list_case(&[heading, reference], "<h1 id=\"x\">Article I a</h1><p><a href=\"#x\">Article I</a></p>");
    let odd = Package { numbering: lists(), ..Package::of(&item(3, 1, "a")) };
    assert_eq!(codes(&with(&odd, &[]), Weight::Changed), ["word.list-numbers"]);
}

#[test]
fn tables_keep_their_grid() {
    let words = |words: &str| cell("", &plain(words));
    let wide = table(
        "",
        &[10, 10],
        &[
            row("<w:tblHeader/>", &[cell("<w:gridSpan w:val=\"2\"/>", &plain("Wide"))]),
            row("", &[cell("<w:vMerge w:val=\"restart\"/>", &plain("Tall")), words("a")]),
            row("", &[cell("<w:vMerge/>", &plain("")), words("b")]),
            row("<w:gridBefore w:val=\"1\"/>", &[words("c")]),
        ],
    );
    let package = Package::of(&wide);
    case_with(
        &package,
        &["html.compact=true"],
        "<table><thead><tr><th colspan=\"2\">Wide</th></tr></thead><tbody><tr><td rowspan=\"2\">Tall</td><td>a</td></tr><tr><td>b</td></tr><tr><td></td><td>c</td></tr></tbody></table>",
    );
    // A row that was deleted goes, one that was inserted stays; the other way round where they are rejected.
    let revised = table(
        "",
        &[10],
        &[row("<w:del w:id=\"1\"/>", &[words("a")]), row("<w:ins w:id=\"2\"/>", &[words("b")]), row("", &[words("c")])],
    );
    let revised = Package::of(&revised);
    for (setting, expected) in [("recorded", "bc"), ("reject", "ac"), ("keep", "abc")] {
        let html = with(&revised, &[&format!("clean.revisions={setting}"), "html.compact=true"]).into_text().unwrap();
        let cells: String = html.split("<td>").skip(1).map(|cell| cell.split('<').next().unwrap()).collect();
        assert_eq!(cells, expected, "{setting}");
    }
    // The first row is a head where its style sets it apart.
    let style = "<w:style w:type=\"table\" w:styleId=\"T\"><w:name w:val=\"T\"/><w:tblStylePr w:type=\"firstRow\"><w:rPr><w:b/></w:rPr></w:tblStylePr><w:tblStylePr w:type=\"firstCol\"><w:rPr><w:b/></w:rPr></w:tblStylePr></w:style>";
    let styled = |look: &str| Package {
        styles: style.to_owned(),
        ..Package::of(&table(
            &format!("<w:tblStyle w:val=\"T\"/><w:tblLook w:val=\"{look}\"/>"),
            &[10, 10],
            &[row("", &[words("a"), words("b")]), row("", &[words("c"), words("d")])],
        ))
    };
    case_with(
        &styled("00A0"),
        &["html.compact=true"],
        "<table><thead><tr><th>a</th><th>b</th></tr></thead><tbody><tr><th scope=\"row\">c</th><td>d</td></tr></tbody></table>",
    );
    assert!(!with(&styled("0000"), &[]).into_text().unwrap().contains("<th"));
    // Alignment of all paragraphs of a cell is that of the cell; tables stand in cells.
    let inner = table("", &[10], &[row("", &[words("in")])]);
    let outer = table(
        "",
        &[10, 10],
        &[row("", &[cell("", &paragraph("<w:jc w:val=\"right\"/>", &text("r"))), cell("", &(inner + &plain("")))])],
    );
    case_with(
        &Package::of(&outer),
        &["html.compact=true"],
        "<table><tbody><tr><td style=\"text-align: right\">r</td><td><table><tbody><tr><td>in</td></tr></tbody></table></td></tr></tbody></table>",
    );
}

#[test]
fn fields_and_links() {
    let link = |words: &str| format!("<w:hyperlink r:id=\"l\" w:anchor=\"part\" w:tooltip=\"tip\">{}</w:hyperlink>", text(words));
    let package = |body: &str| Package {
        links: vec![("l".to_owned(), "https://greywick.example/a?b=1&amp;c=2".to_owned())],
        ..Package::of(body)
    };
    case_with(
        &package(&paragraph("", &link("x"))),
        &[],
        "<p><a href=\"https://greywick.example/a?b=1&amp;c=2#part\" title=\"tip\">x</a></p>",
    );
    case(
        &paragraph("", &field("HYPERLINK \"mailto:a@greywick.example\" \\o \"write\"", &[text("x"), bold("y")].concat())),
        "<p><a href=\"mailto:a@greywick.example\" title=\"write\">x<strong>y</strong></a></p>",
    );
    // A field in the instruction of another, and one that spans paragraphs.
    let nested = "<w:r><w:fldChar w:fldCharType=\"begin\"/></w:r><w:r><w:instrText>HYPERLINK \"https://greywick.example/</w:instrText></w:r>".to_owned()
        + &field("DOCPROPERTY place", &text("pier"))
        + "<w:r><w:instrText>\"</w:instrText></w:r><w:r><w:fldChar w:fldCharType=\"separate\"/></w:r>"
        + &text("one")
        + "</w:p><w:p>"
        + &text("two")
        + "<w:r><w:fldChar w:fldCharType=\"end\"/></w:r>"
        + &text(" three");
    case(
        &paragraph("", &nested),
        "<p><a href=\"https://greywick.example/pier\">one</a></p>\n<p><a href=\"https://greywick.example/pier\">two</a> three</p>",
    );
    case(&paragraph("", &format!("<w:fldSimple w:instr=\" DATE \">{}</w:fldSimple>", text("7 June"))), "<p>7 June</p>");
    // Bookmarks stay where something leads to them.
    let mark = |name: &str| format!("<w:bookmarkStart w:id=\"1\" w:name=\"{name}\"/>");
    case(
        &[
            paragraph("", &[mark("used"), mark("idle"), text("a")].concat()),
            paragraph("", &[text("b "), mark("within"), text("c")].concat()),
            paragraph("", "<w:hyperlink w:anchor=\"used\"><w:r><w:t>1</w:t></w:r></w:hyperlink><w:hyperlink w:anchor=\"within\"><w:r><w:t>2</w:t></w:r></w:hyperlink>"),
        ]
        .concat(),
        "<p id=\"used\">a</p>\n<p>b <span id=\"within\">c</span></p>\n<p><a href=\"#used\">1</a><a href=\"#within\">2</a></p>",
    );
    // Fields without a result show what they can.
    let form = "<w:r><w:fldChar w:fldCharType=\"begin\"><w:ffData><w:checkBox><w:default w:val=\"1\"/></w:checkBox></w:ffData></w:fldChar></w:r><w:r><w:instrText>FORMCHECKBOX</w:instrText></w:r><w:r><w:fldChar w:fldCharType=\"end\"/></w:r>";
    case(&paragraph("", &(form.to_owned() + &text(" dry"))), "<p>☒ dry</p>");
    let contents = styled("x", "before") + &paragraph("", &field("TOC \\o", &text("Tides 3"))) + &plain("after");
    let converted = with(&Package::of(&contents), &[]);
    assert_eq!(converted.text().unwrap(), "<p>before</p>\n<p>after</p>\n");
    assert_eq!(converted.findings.iter().find(|finding| finding.code == "word.contents").unwrap().lost, "Tides 3");
    assert!(with(&Package::of(&contents), &["word.contents=true"]).into_text().unwrap().contains("Tides 3"));
}

#[test]
fn changes_are_accepted_rejected_or_shown() {
    let body = [
        paragraph(
            "",
            "<w:r><w:t xml:space=\"preserve\">a </w:t></w:r><w:del w:id=\"1\"><w:r><w:delText>old</w:delText></w:r></w:del><w:ins w:id=\"2\"><w:r><w:t>new</w:t></w:r></w:ins>",
        ),
        paragraph("<w:rPr><w:del w:id=\"3\"/></w:rPr>", &text("first ")),
        plain("second"),
        paragraph("", &format!("<w:moveFrom w:id=\"4\">{}</w:moveFrom><w:moveTo w:id=\"5\">{}</w:moveTo>", text("there"), text("here"))),
    ]
    .concat();
    for (setting, expected) in [
        ("recorded", "<p>a new</p><p>first second</p><p>here</p>"),
        ("reject", "<p>a old</p><p>first</p><p>second</p><p>there</p>"),
        ("keep", "<p>a <del>old</del><ins>new</ins></p><p>first</p><p>second</p><p><del>there</del><ins>here</ins></p>"),
    ] {
        let converted = with(&Package::of(&body), &[&format!("clean.revisions={setting}"), "html.compact=true"]);
        assert_eq!(converted.text().unwrap(), expected, "{setting}");
        assert!(codes(&converted, Weight::Advice).contains(&"word.revisions"));
    }
}

#[test]
fn alternatives_are_read_once_and_boxes_come_behind() {
    let boxed = plain("boxed");
    let body = paragraph(
        "",
        &format!(
            "{}<w:r><mc:AlternateContent><mc:Choice Requires=\"wps\"><w:drawing><wp:inline><a:graphic><a:graphicData><wps:wsp><wps:txbx><w:txbxContent>{boxed}</w:txbxContent></wps:txbx></wps:wsp></a:graphicData></a:graphic></wp:inline></w:drawing></mc:Choice><mc:Fallback><w:pict><v:shape><v:textbox><w:txbxContent>{boxed}</w:txbxContent></v:textbox></v:shape></w:pict></mc:Fallback></mc:AlternateContent></w:r>{}",
            text("a"),
            text("b")
        ),
    );
    case(&body, "<p>ab</p>\n<p>boxed</p>");
    // What can't be read is left for the other.
    let other = "<w:r><mc:AlternateContent><mc:Choice Requires=\"cx9\"><w:t>new</w:t></mc:Choice><mc:Fallback><w:t>old</w:t></mc:Fallback></mc:AlternateContent></w:r>";
    case(&paragraph("", other), "<p>old</p>");
    let control = "<w:sdt><w:sdtPr><w:text/></w:sdtPr><w:sdtContent><w:r><w:t>in</w:t></w:r></w:sdtContent></w:sdt>";
    case(&paragraph("", &(text("a ") + control)), "<p>a in</p>");
    case(&paragraph("", "<w:r><w:pict><v:rect o:hr=\"t\"/></w:pict></w:r>"), "<hr>");
    case(&paragraph("<w:pBdr><w:bottom w:val=\"single\" w:sz=\"6\"/></w:pBdr>", ""), "<hr>");
    case(&[paragraph("<w:framePr w:dropCap=\"drop\"/>", &text("T")), plain("he tide")].concat(), "<p>The tide</p>");
    let ruby =
        "<w:r><w:ruby><w:rt><w:r><w:t>しお</w:t></w:r></w:rt><w:rubyBase><w:r><w:t>潮</w:t></w:r></w:rubyBase></w:ruby></w:r>";
    case(&paragraph("", ruby), "<p>\n<ruby>潮<rt>しお</rt></ruby></p>".replace("<p>\n", "<p>").as_str());
    let formula = "<m:oMath><m:r><m:t>x&lt;y</m:t></m:r></m:oMath>";
    let converted = with(&Package::of(&paragraph("", formula)), &[]);
    let markup = "<p><math><semantics><mrow><mi>x</mi><mo>&lt;</mo><mi>y</mi></mrow><annotation encoding=\"application/x-tex\">x &lt; y</annotation></semantics></math></p>\n";
    assert_eq!((converted.text().unwrap(), codes(&converted, Weight::Changed)), (markup, vec![]));
}

#[test]
fn notes_comments_headers() {
    let reference = |kind: &str, id: u32| format!("<w:r><w:{kind}Reference w:id=\"{id}\"/></w:r>");
    let package = Package {
        footnotes: format!(
            "<w:footnote w:type=\"separator\" w:id=\"0\">{0}</w:footnote><w:footnote w:id=\"5\">{0}</w:footnote>",
            plain("of the foot")
        ),
        endnotes: format!("<w:endnote w:id=\"5\">{}</w:endnote>", plain("of the end")),
        comments: format!("<w:comment w:id=\"1\" w:author=\"Tolliver\">{}</w:comment>", plain("why?")),
        header: plain("Trust"),
        ..Package::of(
            &[
                paragraph("", &[text("a"), reference("footnote", 5), reference("endnote", 5), reference("comment", 1)].concat()),
                "<w:sectPr><w:headerReference w:type=\"default\" r:id=\"header1\"/></w:sectPr>".to_owned(),
            ]
            .concat(),
        )
    };
    let converted = with(&package, &[]);
    let order: Vec<_> =
        ["of the foot", "of the end"].iter().map(|words| converted.text().unwrap().find(words).unwrap()).collect();
    assert!(order[0] < order[1] && converted.text().unwrap().matches("doc-noteref").count() == 2);
    let lost: Vec<&str> =
        converted.findings.iter().filter(|finding| finding.weight == Weight::Lost).map(|finding| finding.lost.as_str()).collect();
    assert_eq!(lost, ["Trust", "why?"]);
    let kept = with(&package, &["word.comments=notes", "word.headers=keep"]).into_text().unwrap();
    assert!(kept.starts_with("<header>\n<p>Trust</p>\n</header>") && kept.contains("Tolliver: why?"), "{kept}");
}

#[test]
fn pictures_are_turned_into_what_browsers_show() {
    let mut bmp = Cursor::new(Vec::new());
    image::DynamicImage::new_rgb8(40, 20).write_to(&mut bmp, image::ImageFormat::Bmp).unwrap();
    let package = Package {
        pictures: vec![("a.bmp".to_owned(), bmp.into_inner()), ("b.emf".to_owned(), vec![1, 0, 0, 0, 9])],
        ..Package::of(&paragraph(
            "",
            &(picture("a.bmp", "A square", 40, 20) + &picture("b.emf", "A plan", 10, 10) + &picture("none", "gone", 1, 1)),
        ))
    };
    let converted = with(&package, &[]);
    assert!(converted.text().unwrap().contains("<img src=\"data:image/png;base64,"), "{}", converted.text().unwrap());
    assert!(
        converted.text().unwrap().contains("alt=\"A square\" width=\"40\" height=\"20\"")
            && converted.text().unwrap().contains(">A plan<")
    );
    assert_eq!(codes(&converted, Weight::Lost), ["word.picture", "word.picture-format"]);
    // What is only decoration needs no words.
    let ornament =
        picture("a.bmp", "", 4, 2).replace("descr=\"\"/>", "descr=\"\"><x:decorative xmlns:x=\"urn:x\" val=\"1\"/></wp:docPr>");
    let converted = with(&Package { pictures: package.pictures.clone(), ..Package::of(&paragraph("", &ornament)) }, &[]);
    assert!(!codes(&converted, Weight::Advice).contains(&"image.alt"), "{:?}", converted.findings);
}

#[test]
fn languages_and_directions() {
    let package = |body: &str| {
        Package {
        styles: "<w:docDefaults><w:rPrDefault><w:rPr><w:lang w:val=\"en-GB\" w:eastAsia=\"ja-JP\" w:bidi=\"ar-SA\"/></w:rPr></w:rPrDefault></w:docDefaults>".to_owned(),
        ..Package::of(body)
    }
    };
    let foreign = paragraph(
        "",
        &[text("The word "), run("<w:lang w:val=\"la-VA\"/>", "aestus"), run("<w:lang w:val=\"en-US\"/>", " is old")].concat(),
    );
    case_with(&package(&foreign), &[], "<p>The word <span lang=\"la-VA\">aestus</span> is old</p>");
    let whole = plain("Many English words stand here.") + &paragraph("", &run("", "潮が満ちる"));
    case_with(&package(&whole), &[], "<p>Many English words stand here.</p>\n<p lang=\"ja-JP\">潮が満ちる</p>");
    let hebrew = plain("Many English words stand here.") + &paragraph("<w:bidi/>", &run("<w:rtl/>", "גאות"));
    case_with(&package(&hebrew), &[], "<p>Many English words stand here.</p>\n<p lang=\"he\" dir=\"rtl\">גאות</p>");
}

#[test]
fn blocks_of_code_quotes_and_captions() {
    let styles =
        style("Q", "Quote", "", "", "") + &style("C", "HTML Preformatted", "", "", "") + &style("K", "caption", "", "", "");
    let package = |body: &str| Package {
        styles: styles.clone(),
        pictures: vec![("a.png".to_owned(), b"\x89PNG\r\n\x1A\n".to_vec())],
        ..Package::of(body)
    };
    case_with(
        &package(
            &[styled("Q", "one"), styled("Q", "two"), styled("C", "a  b"), styled("C", ""), styled("C", "c"), plain("x")]
                .concat(),
        ),
        &[],
        "<blockquote>\n<p>one</p>\n<p>two</p>\n</blockquote>\n<pre><code>a  b\n\nc\n</code></pre>\n<p>x</p>",
    );
    let shown = paragraph("", &picture("a.png", "A", 1, 1))
        + &styled("K", "Below")
        + &styled("K", "Above")
        + &table("", &[1], &[row("", &[cell("", &plain("c"))])]);
    let html = with(&package(&shown), &["images.place=drop"]).into_text().unwrap();
    assert!(html.contains("<figcaption>Below</figcaption>") && html.contains("<table>\n<caption>Above</caption>"), "{html}");
}

#[test]
fn named_styles_are_classes_and_exact_looks_are_rules() {
    let package = Package {
        styles: style("Normal", "Normal", "", "", "<w:sz w:val=\"20\"/>")
            + &style("N", "Notice Board!", "Normal", "<w:jc w:val=\"center\"/>", "<w:color w:val=\"FF0000\"/>"),
        properties: "<dc:title>T</dc:title><dc:creator>A; B</dc:creator>".to_owned(),
        ..Package::of(
            &(styled("N", "one")
                + &paragraph("<w:pStyle w:val=\"N\"/><w:spacing w:before=\"200\"/>", &run("<w:sz w:val=\"40\"/>", "two"))
                + &plain("three")),
        )
    };
    case_with(&package, &["styling=named"], "<p class=\"notice-board\">one</p>\n<p class=\"notice-board\">two</p>\n<p>three</p>");
    let named = with(&package, &["styling=named", "shape=page", "page.look=none"]).into_text().unwrap();
    assert!(named.contains(".notice-board { --style-name: \"Notice Board!\"; text-align: center; color: #ff0000 }"), "{named}");
    let page = with(&package, &["styling=exact", "shape=page", "page.look=none"]).into_text().unwrap();
    for piece in [
        "<title>T</title>",
        "<meta name=\"author\" content=\"B\">",
        "text-align: center; font-size: 10pt; font-weight: normal; font-style: normal; color: #ff0000 }",
        ".p1 { margin-top: 10pt }",
        ".t1 { font-size: 20pt }",
        "<p class=\"notice-board p1\"><span class=\"t1\">two</span></p>",
        "<p class=\"normal\">three</p>",
    ] {
        assert!(page.contains(piece), "{piece}\n{page}");
    }
    assert!(!page.contains("style=\""), "a rule stands in an attribute");
}

#[test]
fn packages_are_read_however_they_are_written() {
    let package = Package {
        footnotes: format!("<w:footnote w:id=\"2\">{}</w:footnote>", plain("note")),
        ..Package::of(&(plain("words") + &paragraph("", "<w:r><w:footnoteReference w:id=\"2\"/></w:r>")))
    };
    let expected = with(&package, &[]).into_text().unwrap();
    type Edit<'e> = &'e dyn Fn(&str, &str) -> (String, Vec<u8>);
    let edited = |edit: Edit<'_>| {
        let parts: Vec<_> = package.parts().iter().map(|(name, bytes)| edit(name, &String::from_utf8_lossy(bytes))).collect();
        convert(archive(&parts), Format::Word, Format::Html, &[]).into_text().unwrap()
    };
    let same = |name: &str, text: &str| (name.to_owned(), text.as_bytes().to_vec());
    assert_eq!(edited(&same), expected);
    // The strict form of the standard, other prefixes, and none.
    let strict = |text: &str| {
        text.replace(
            "http://schemas.openxmlformats.org/wordprocessingml/2006/main",
            "http://purl.oclc.org/ooxml/wordprocessingml/main",
        )
    };
    assert_eq!(edited(&|name, text| same(name, &strict(text))), expected);
    assert_eq!(edited(&|name, text| same(name, &text.replace("w:", "ns1:").replace("xmlns:w=", "xmlns:ns1="))), expected);
    assert_eq!(
        edited(&|name, text| same(name, &text.replace("<w:", "<").replace("</w:", "</").replace("xmlns:w=", "xmlns="))),
        expected
    );
    // Names in another case, absolute, escaped; UTF-16.
    assert_eq!(edited(&|name, text| same(&name.replace("footnotes", "FootNotes"), text)), expected);
    assert_eq!(
        edited(&|name, text| same(name, &text.replace("Target=\"footnotes.xml\"", "Target=\"/word/foot%6Eotes.xml\""))),
        expected
    );
    let wide = |text: &str| [0xFF, 0xFE].into_iter().chain(text.encode_utf16().flat_map(u16::to_le_bytes)).collect::<Vec<u8>>();
    assert_eq!(edited(&|name, text| (name.to_owned(), wide(text))), expected);
}
