//! What `named` and `exact` make of the looks of Word documents: classes, and the rules behind them.
#![allow(missing_docs, clippy::unwrap_used, clippy::panic, clippy::print_stderr, reason = "tests")]

use crate::support;

use obblet::Format;
use obblet::profile::Profile;
use support::convert::convert;
use support::folder::Folder;
use support::package::{Package, cell, item, levels, numbering, paragraph, plain, row, run, style, styled, table, text};

/// The body of a page in a styling, and its rules by their selectors.
fn page(package: &Package, styling: &str) -> (String, Vec<String>) {
    let mut profile = Profile::built_in("page").unwrap();
    for setting in [&format!("styling={styling}"), "page.look=none", "html.compact=true", "page.contents=0"] {
        profile.set(setting).unwrap();
    }
    let html = obblet::convert(&package.bytes(), Format::Word, Format::Html, &profile).unwrap().into_text().unwrap();
    let between = |start: &str, end: &str| {
        let from = html.find(start).map_or(html.len(), |at| at + start.len());
        html[from..].split(end).next().unwrap_or_default().to_owned()
    };
    let rules = between("<style>", "</style>").lines().filter(|line| !line.is_empty()).map(str::to_owned).collect();
    let main = between("<main id=\"page-content\">", "</main>").trim().to_owned();
    (main, rules)
}

#[track_caller]
fn looks(package: &Package, styling: &str, body: &str, expected: &[&str]) {
    let (main, rules) = page(package, styling);
    assert_eq!(main, body, "{rules:#?}");
    // The rules of the whole page and of its plain paragraphs are the same for all of these.
    let rules: Vec<&str> =
        rules.iter().map(String::as_str).filter(|rule| !rule.starts_with("body ") && !rule.starts_with(".normal ")).collect();
    assert_eq!(rules, expected);
}

#[test]
fn numbers_are_written_as_in_the_document() {
    let all = levels(&[("upperRoman", "Article %1."), ("decimal", "%1.%2"), ("lowerLetter", "(%3)"), ("bullet", "•")]);
    let body = item(1, 0, "a") + &item(1, 1, "b") + &item(1, 1, "c") + &item(1, 2, "d") + &item(1, 0, "e") + &item(1, 1, "f");
    let list = Package { numbering: numbering(&[(1, all)]), ..Package::of(&body) };
    looks(
        &list,
        "exact",
        "<ol class=\"list1\" type=\"I\"><li><p class=\"normal\">a</p><ol class=\"list2\"><li><p class=\"normal\">b</p></li>\
         <li><p class=\"normal\">c</p><ol class=\"list3\" type=\"a\"><li><p class=\"normal\">d</p></li></ol></li></ol></li>\
         <li><p class=\"normal\">e</p><ol class=\"list4\"><li><p class=\"normal\">f</p></li></ol></li></ol>",
        &[
            "@counter-style list1 { system: extends upper-roman; prefix: \"Article \"; suffix: \". \" }",
            ".list1 { list-style-type: list1; margin: 0; padding-left: 36pt }",
            "@counter-style list2 { system: extends decimal; prefix: \"I.\"; suffix: \" \" }",
            ".list2 { list-style-type: list2; margin: 0; padding-left: 36pt }",
            "@counter-style list3 { system: extends lower-alpha; prefix: \"(\"; suffix: \") \" }",
            ".list3 { list-style-type: list3; margin: 0; padding-left: 36pt }",
            "@counter-style list4 { system: extends decimal; prefix: \"II.\"; suffix: \" \" }",
            ".list4 { list-style-type: list4; margin: 0; padding-left: 36pt }",
        ],
    );
    // With the names of styles only, a parenthesis is as good as a stop.
    looks(
        &list,
        "named",
        "<ol class=\"list1\" type=\"I\"><li>a<ol class=\"list2\"><li>b</li><li>c<ol type=\"a\"><li>d</li></ol></li></ol></li>\
         <li>e<ol class=\"list3\"><li>f</li></ol></li></ol>",
        &[
            "@counter-style list1 { system: extends upper-roman; prefix: \"Article \"; suffix: \". \" }",
            ".list1 { list-style-type: list1 }",
            "@counter-style list2 { system: extends decimal; prefix: \"I.\"; suffix: \" \" }",
            ".list2 { list-style-type: list2 }",
            "@counter-style list3 { system: extends decimal; prefix: \"II.\"; suffix: \" \" }",
            ".list3 { list-style-type: list3 }",
        ],
    );
    // A list that shows nothing, and one whose numbers would end the rule and the element that it stands in.
    let none = Package { numbering: numbering(&[(1, levels(&[("decimal", "")]))]), ..Package::of(&item(1, 0, "a")) };
    let rule = ".list1 { list-style-type: none; margin: 0; padding-left: 36pt }";
    looks(&none, "exact", "<ol class=\"list1\"><li><p class=\"normal\">a</p></li></ol>", &[rule]);
    let odd = levels(&[("decimal", "&lt;/style&gt;&quot;\\}%1&amp;")]);
    let odd = Package { numbering: numbering(&[(1, odd)]), ..Package::of(&item(1, 0, "a")) };
    let style = "@counter-style list1 { system: extends decimal; prefix: \"\\3C /style\\3E \\22 \\5C }\"; suffix: \"\\26  \" }";
    looks(&odd, "named", "<ol class=\"list1\"><li>a</li></ol>", &[style, ".list1 { list-style-type: list1 }"]);
}

#[test]
fn numbers_become_text_where_that_is_asked_for() {
    let all = levels(&[("upperRoman", "Article %1."), ("decimal", "%1.%2"), ("lowerLetter", "%3)"), ("bullet", "•")]);
    let body = item(1, 0, "a") + &item(1, 1, "b") + &item(1, 2, "c") + &item(1, 3, "d") + &item(1, 1, "e");
    let package = Package { numbering: numbering(&[(1, all)]), ..Package::of(&body) };
    let mut profile = Profile::built_in("fragment").unwrap();
    profile.set("html.compact=true").unwrap();
    let converted = |profile: &Profile| obblet::convert(&package.bytes(), Format::Word, Format::Html, profile).unwrap();
    let told = |profile: &Profile| converted(profile).findings.iter().any(|finding| finding.code == "word.list-numbers");
    assert!(told(&profile));
    profile.set("word.list-numbers=text").unwrap();
    assert_eq!(
        converted(&profile).into_text().unwrap(),
        "<p>Article I. a</p><p>I.1 b</p><ol type=\"a\"><li>c<ul><li>d</li></ul></li></ol><p>I.2 e</p>"
    );
    assert!(!told(&profile));
    // Paragraphs that a change has joined are one, with one number.
    let numbered = "<w:numPr><w:ilvl w:val=\"1\"/><w:numId w:val=\"1\"/></w:numPr>";
    let joined = format!("{numbered}<w:rPr><w:del/></w:rPr>");
    let parts = [(joined.as_str(), "one "), (joined.as_str(), "two "), (numbered, "three"), (numbered, "four")];
    let body: String = parts.iter().map(|(properties, words)| paragraph(properties, &text(words))).collect();
    let package = Package { body, ..package };
    let html = obblet::convert(&package.bytes(), Format::Word, Format::Html, &profile).unwrap().into_text().unwrap();
    assert_eq!(html, "<p>I.1 one two three</p><p>I.2 four</p>");
    // One that had no number before gets that of what it is joined with.
    let body = paragraph("<w:rPr><w:del/></w:rPr>", "") + &paragraph(numbered, &text("five"));
    let package = Package { body, ..package };
    assert_eq!(
        obblet::convert(&package.bytes(), Format::Word, Format::Html, &profile).unwrap().into_text().unwrap(),
        "<p>I.1 five</p>"
    );
}

/// The end of a section with its properties.
fn section(properties: &str, words: &str) -> String {
    paragraph(&format!("<w:sectPr>{properties}</w:sectPr>"), &text(words))
}

#[test]
fn sections_are_set_in_their_columns() {
    let body = plain("before")
        + &section("", "end of the first")
        + &plain("one")
        + &section("<w:cols w:num=\"2\" w:space=\"360\" w:sep=\"1\"/>", "two")
        + &plain("wide")
        + "<w:sectPr><w:cols w:equalWidth=\"0\"><w:col w:w=\"2000\"/><w:col w:w=\"3000\"/></w:cols></w:sectPr>";
    let package = Package::of(&body);
    looks(
        &package,
        "exact",
        "<p class=\"normal\">before</p><p class=\"normal\">end of the first</p>\
         <div class=\"columns1\"><p class=\"normal\">one</p><p class=\"normal\">two</p></div>\
         <div class=\"columns2\"><p class=\"normal\">wide</p></div>",
        &[
            ".columns1 { columns: 2 12em; clear: both; column-gap: 18pt; column-rule: 1px solid }",
            ".columns2 { columns: 2 12em; clear: both; column-gap: 36pt }",
        ],
    );
    looks(&package, "semantic", "<p>before</p><p>end of the first</p><p>one</p><p>two</p><p>wide</p>", &[]);
    let findings = convert(package.bytes(), Format::Word, Format::Html, &[]).findings;
    let codes: Vec<&str> = findings.iter().map(|finding| &*finding.code).collect();
    assert_eq!(codes, ["word.title", "word.page-break", "word.columns"]);
}

#[test]
fn headers_of_all_sections_are_told() {
    let reference = |kind: &str, id: &str| format!("<w:{id}Reference w:type=\"{kind}\" r:id=\"{id}1\"/>");
    let body = section(&reference("first", "header"), "a") + &section(&reference("default", "footer"), "b") + "<w:sectPr/>";
    let package = Package { header: plain("Harbour Trust"), footer: plain("page of the station"), ..Package::of(&body) };
    let mut profile = Profile::built_in("fragment").unwrap();
    let converted = |profile: &Profile| obblet::convert(&package.bytes(), Format::Word, Format::Html, profile).unwrap();
    let lost: Vec<String> =
        converted(&profile).findings.into_iter().map(|finding| finding.lost).filter(|lost| !lost.is_empty()).collect();
    assert_eq!(lost, ["Harbour Trust", "page of the station"]);
    profile.set("word.headers=keep").unwrap();
    assert_eq!(
        converted(&profile).into_text().unwrap(),
        "<header>\n<p>Harbour Trust</p>\n</header>\n<p>a</p>\n<p>b</p>\n<footer>\n<p>page of the station</p>\n</footer>\n"
    );
}

#[test]
fn parts_in_html_and_text_are_taken_in() {
    let part = |name: &str, bytes: &str| (name.to_owned(), bytes.as_bytes().to_vec());
    let page = "<html><head><title>x</title><style>p{color:red}</style></head><BODY bgcolor=red><h1>Log</h1><p>High <b>water</b><script>x()</script>";
    let body = plain("before")
        + "<w:altChunk r:id=\"log.html\"/><w:altChunk r:id=\"log.txt\"/><w:altChunk r:id=\"log.rtf\"/><w:altChunk r:id=\"none.html\"/>"
        + &plain("behind");
    let pictures = vec![part("log.html", page), part("log.txt", "one & two\r\n\r\nthree"), part("log.rtf", "{\\rtf1 no}")];
    let package = Package { pictures, ..Package::of(&body) };
    let html = convert(package.bytes(), Format::Word, Format::Html, &["html.compact=true"]);
    assert_eq!(
        html.text().unwrap(),
        "<p>before</p><h1>Log</h1><p>High <strong>water</strong></p><p>one &amp; two</p><p>three</p><p>behind</p>"
    );
    let told: Vec<(&str, &str)> = html.findings.iter().map(|finding| (&*finding.code, finding.lost.as_str())).collect();
    assert!(told.contains(&("word.foreign-part", "word/media/log.rtf")), "{told:?}");
    assert!(told.iter().any(|(code, _)| *code == "html.script"), "{told:?}");
    let markdown = convert(package.bytes(), Format::Word, Format::Markdown, &["html.compact=true"]).into_text().unwrap();
    assert_eq!(markdown, "before\n\n# Log\n\nHigh **water**\n\none & two\n\nthree\n\nbehind\n");
}

#[test]
fn looks_of_paragraphs_and_characters() {
    let styles = style("Normal", "Normal", "", "", "<w:rFonts w:ascii=\"Arial\"/><w:sz w:val=\"22\"/>")
        + &style("Notice", "Notice Board", "Normal", "<w:jc w:val=\"center\"/><w:spacing w:before=\"240\"/>", "<w:b/>");
    let bordered = "<w:pBdr><w:top w:val=\"single\" w:sz=\"8\" w:color=\"336699\" w:space=\"4\"/></w:pBdr><w:shd w:val=\"clear\" w:fill=\"EEEEEE\"/>";
    let indented = "<w:ind w:left=\"720\" w:firstLine=\"360\"/>";
    let runs = [
        run("<w:smallCaps/>", "d"),
        run("<w:spacing w:val=\"40\"/>", "e"),
        run("<w:highlight w:val=\"yellow\"/>", "f"),
        run("<w:rFonts w:ascii=\"Georgia\"/><w:caps/>", "g"),
        run("<w:i/><w:vertAlign w:val=\"superscript\"/>", "h"),
    ];
    let body = styled("Notice", "a")
        + &paragraph(bordered, &text("b"))
        + &paragraph(indented, &run("<w:color w:val=\"FF0000\"/><w:sz w:val=\"40\"/>", "c"))
        + &paragraph("", &runs.concat());
    let package = Package { styles, ..Package::of(&body) };
    looks(
        &package,
        "exact",
        "<p class=\"notice-board\">a</p><p class=\"normal p1\">b</p><p class=\"normal p2\"><span class=\"t1\">c</span></p>\
         <p class=\"normal\"><span class=\"t2\">d</span><span class=\"t3\">e</span><mark><span class=\"t4\">f</span></mark>\
         <span class=\"t5\">g</span><em><sup>h</sup></em></p>",
        &[
            ".notice-board { margin-top: 12pt; margin-bottom: 0; margin-left: 0; text-indent: 0; margin-right: 0; line-height: 1.2; \
             text-align: center; font-family: \"Arial\", sans-serif; font-size: 11pt; font-weight: bold; font-style: normal }",
            ".p1 { background-color: #eeeeee; border-top: 1pt solid #336699; padding-top: 4pt }",
            ".p2 { margin-left: 36pt; text-indent: 18pt }",
            ".t1 { font-size: 20pt; color: #ff0000 }",
            ".t2 { font-variant: small-caps }",
            ".t3 { letter-spacing: 2pt }",
            ".t4 { background-color: #ffff00 }",
            ".t5 { font-family: \"Georgia\", serif; text-transform: uppercase }",
        ],
    );
    looks(
        &package,
        "named",
        "<p class=\"notice-board\">a</p><p>b</p><p>c</p><p>de<mark>f</mark>g<em><sup>h</sup></em></p>",
        &[".notice-board { margin-top: 12pt; text-align: center; font-weight: bold }"],
    );
}

#[test]
fn looks_of_tables() {
    let borders = "<w:tblW w:w=\"5000\" w:type=\"pct\"/><w:jc w:val=\"center\"/><w:tblBorders><w:top w:val=\"double\" w:sz=\"4\"/><w:insideH w:val=\"dotted\" w:sz=\"4\"/></w:tblBorders><w:tblCaption w:val=\"Springs\"/><w:tblDescription w:val=\"Heights by day\"/>";
    let shaded = "<w:shd w:val=\"clear\" w:fill=\"DDEEFF\"/><w:vAlign w:val=\"bottom\"/>";
    let rows =
        [row("", &[cell(shaded, &plain("a")), cell("", &plain("b"))]), row("", &[cell("", &plain("c")), cell("", &plain("d"))])];
    let package = Package::of(&(table(borders, &[2000, 3000], &rows) + &plain("")));
    looks(
        &package,
        "exact",
        "<table class=\"table1\" title=\"Springs: Heights by day\"><tbody>\
         <tr><td class=\"cell1\"><p class=\"normal\">a</p></td><td class=\"cell2\"><p class=\"normal\">b</p></td></tr>\
         <tr><td class=\"cell3\"><p class=\"normal\">c</p></td><td class=\"cell3\"><p class=\"normal\">d</p></td></tr></tbody></table>",
        &[
            ".table1 { border-collapse: collapse; border-spacing: 0; width: 100%; margin: 0 auto 0 }",
            ".cell1 { border-top: 2.25pt double #000000; border-bottom: 0.5pt dotted #000000; background-color: #ddeeff; \
             padding: 0 5.4pt 0 5.4pt; vertical-align: bottom; width: 100pt }",
            ".cell2 { border-top: 2.25pt double #000000; border-bottom: 0.5pt dotted #000000; padding: 0 5.4pt 0 5.4pt; \
             vertical-align: top; width: 150pt }",
            ".cell3 { border-top: 0.5pt dotted #000000; padding: 0 5.4pt 0 5.4pt; vertical-align: top }",
        ],
    );
    let plain = "<table title=\"Springs: Heights by day\"><tbody><tr><td>a</td><td>b</td></tr><tr><td>c</td><td>d</td></tr></tbody></table>";
    looks(&package, "named", plain, &[]);
}

#[test]
fn styles_of_tables_say_how_the_text_in_cells_looks() {
    // What all paragraphs have, what a table style says instead, and what a paragraph style says instead of that.
    let styles = "<w:docDefaults><w:pPrDefault><w:pPr><w:spacing w:after=\"200\"/></w:pPr></w:pPrDefault></w:docDefaults>"
        .to_owned()
        + &style("Normal", "Normal", "", "", "")
        + &style("Wide", "Wide", "Normal", "<w:spacing w:after=\"400\"/>", "")
        + "<w:style w:type=\"table\" w:styleId=\"Grid\"><w:name w:val=\"Grid\"/><w:pPr><w:spacing w:after=\"0\"/></w:pPr>\
           <w:tblStylePr w:type=\"firstRow\"><w:pPr><w:jc w:val=\"center\"/></w:pPr></w:tblStylePr></w:style>";
    let rows = [
        row("", &[cell("", &plain("a")), cell("", &styled("Wide", "b"))]),
        row("<w:trHeight w:val=\"600\"/>", &[cell("", &plain("c")), cell("", &plain(""))]),
    ];
    let look = "<w:tblStyle w:val=\"Grid\"/><w:tblLook w:firstRow=\"1\" w:noHBand=\"1\" w:noVBand=\"1\"/>";
    let body = plain("before") + &plain("") + &table(look, &[1000, 1000], &rows) + &plain("behind");
    let package = Package { styles, ..Package::of(&body) };
    let (main, rules) = page(&package, "exact");
    assert_eq!(
        main,
        "<p class=\"normal\">before</p><table class=\"grid table1\"><tbody>\
         <tr><td class=\"cell1\"><p class=\"normal p1\">a</p></td><td class=\"cell1\"><p class=\"wide p2\">b</p></td></tr>\
         <tr class=\"row1\"><td class=\"cell2\"><p class=\"normal p3\">c</p></td><td class=\"cell3\"></td></tr></tbody></table>\
         <p class=\"normal\">behind</p>"
    );
    let rule = |class: &str| rules.iter().find(|rule| rule.starts_with(&format!(".{class} "))).unwrap().as_str();
    assert!(rule("normal").contains("margin-bottom: 10pt;") && rule("wide").contains("margin-bottom: 20pt;"), "{rules:#?}");
    assert_eq!(rule("p1"), ".p1 { margin-bottom: 0; text-align: center }");
    assert_eq!(rule("p2"), ".p2 { text-align: center }");
    assert_eq!(rule("p3"), ".p3 { margin-bottom: 0 }");
    // The empty paragraph above is space above the table, not in its first cell; an empty cell is as high as its line.
    assert!(rule("table1").contains("margin: 12pt 0 0 0"), "{rules:#?}");
    assert!(rule("cell3").ends_with("; height: 12pt }"), "{rules:#?}");
    assert_eq!(rule("row1"), ".row1 { height: 30pt }");
    let (semantic, _) = page(&package, "semantic");
    assert!(semantic.contains("style=\"text-align: center\">a</"), "{semantic}");
}

#[test]
fn rules_of_documents_on_one_page_do_not_meet() {
    let document = |number: &str, colour: &str| {
        let levels = levels(&[("decimal", number)]);
        let body = item(1, 0, "a") + &paragraph("", &run(&format!("<w:color w:val=\"{colour}\"/>"), "b"));
        Package { numbering: numbering(&[(1, levels)]), ..Package::of(&body) }.bytes()
    };
    let folder = Folder::new(&[("obblet.toml", "styling = 'exact'\npublish.binder = true\n")]);
    folder.write("one.docx", document("A %1", "FF0000"));
    folder.write("two.docx", document("B %1", "0000FF"));
    folder.publish();
    let binder = folder.read("binder.html");
    for rule in [
        "@counter-style document-1-list1 { system: extends decimal; prefix: \"A \"; suffix: \" \" }",
        "#document-1 .list1 { list-style-type: document-1-list1; ",
        "#document-1 .t1 { color: #ff0000 }",
        "@counter-style document-2-list1 { system: extends decimal; prefix: \"B \"; suffix: \" \" }",
        "#document-2 .t1 { color: #0000ff }",
    ] {
        assert!(binder.contains(rule), "{rule}\n{binder}");
    }
    // The look says where the text stands on the page, the document how wide it is.
    let page = folder.read("one.html");
    assert!(
        page.contains("\nmain { max-width: 451.3pt; font-size: 10pt; ") || page.contains(">main { max-width: 451.3pt; "),
        "{page}"
    );
    assert!(!page.contains("body { max-width"), "{page}");
    // Its colours are meant for a light ground, whatever the reader's system has.
    assert!(page.contains("<html class=\"as-source\">") && binder.contains("<html class=\"as-source\">"), "{page}");
}

#[test]
fn bullets_and_numbers_look_as_the_mark_of_their_paragraph_does() {
    let mark = "<w:numPr><w:ilvl w:val=\"0\"/><w:numId w:val=\"1\"/></w:numPr><w:rPr><w:b/><w:color w:val=\"AA5500\"/></w:rPr>";
    let body = paragraph(mark, &text("a")) + &item(1, 0, "b");
    let list = Package { numbering: numbering(&[(1, levels(&[("decimal", "%1.")]))]), ..Package::of(&body) };
    looks(
        &list,
        "exact",
        "<ol class=\"list1\"><li class=\"marker1\"><p class=\"normal\">a</p></li><li><p class=\"normal\">b</p></li></ol>",
        &[".list1 { margin: 0; padding-left: 36pt }", ".marker1::marker { font-weight: bold; color: #aa5500 }"],
    );
}
