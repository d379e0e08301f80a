//! What style rules of HTML say of looks: as styles of the document, and as what Word documents have for them.
#![allow(missing_docs, clippy::unwrap_used, clippy::panic, clippy::print_stderr, reason = "tests")]

use crate::support;

use obblet::document::{Document, StyleProperties};
use obblet::{Format, read};
use proptest::prelude::*;
use support::convert::{convert, profile};
use support::linear::assert_linear;
use support::package_check::{faults, part};

fn document(html: &str) -> Document {
    read(html.as_bytes(), Format::Html, &profile("fragment", &["styling=exact"])).unwrap()
}

fn css(properties: &StyleProperties) -> String {
    let one =
        |(property, value): &(obblet::document::Property, obblet::document::Value)| format!("{}: {value}", property.css_name());
    properties.iter().map(one).collect::<Vec<_>>().join("; ")
}

/// The styles of a page, a line each: name, class and what they set.
fn styles(html: &str) -> Vec<String> {
    let shown = |style: &obblet::document::NamedStyle| format!("{}/{} {{ {} }}", style.name, style.class, css(&style.properties));
    document(html).styles.iter().filter(|style| !style.properties.is_empty()).map(shown).collect()
}

/// What a style attribute of a paragraph comes to.
fn of(style: &str) -> String {
    let doc = document(&format!("<p style='{style}'>x"));
    doc.styles.iter().find(|style| !style.class.is_empty()).map(|style| css(&style.properties)).unwrap_or_default()
}

#[test]
fn values_come_in_every_unit_and_form() {
    for (style, expected) in [
        // Lengths.
        ("margin-left:1in", "margin-left: 72pt"),
        ("margin-left:2.54cm", "margin-left: 72pt"),
        ("margin-left:25.4mm", "margin-left: 72pt"),
        ("margin-left:101.6Q", "margin-left: 72pt"),
        ("margin-left:6pc", "margin-left: 72pt"),
        ("margin-left:96px", "margin-left: 72pt"),
        ("margin-left:2em", "margin-left: 24pt"),
        ("margin-left:2rem", "margin-left: 24pt"),
        ("margin-left:2ex", "margin-left: 12pt"),
        ("margin-left:10%", "margin-left: 10%"),
        ("margin-left:10vw", "margin-left: 59.55pt"),
        ("margin-left:0", "margin-left: 0"),
        ("margin-left:3", ""),
        ("margin-left:1parsec", ""),
        ("font-size:20px;margin-left:2em", "font-size: 15pt; margin-left: 30pt"),
        ("font-size:150%", "font-size: 18pt"),
        ("font-size:larger", "font-size: 14.4pt"),
        ("font-size:x-large", "font-size: 18pt"),
        ("font-size:0", ""),
        ("margin-left:calc(1in + 2 * (3pt - 1pt))", "margin-left: 76pt"),
        ("margin-left:calc(1in / 0)", ""),
        ("margin-left:calc(10% + 1pt)", ""),
        ("margin-left:min(1in, 10pt)", "margin-left: 10pt"),
        ("margin-left:clamp(1pt, 5pt, 3pt)", "margin-left: 3pt"),
        // Colours.
        ("color:navy", "color: #000080"),
        ("color:#f80", "color: #ff8800"),
        ("color:#ff880080", "color: #ffc37f"),
        ("color:rgb(1 2 3)", "color: #010203"),
        ("color:rgba(0,0,0,.5)", "color: #808080"),
        ("color:hsl(120deg 100% 25%)", "color: #008000"),
        ("color:hwb(240 0% 50%)", "color: #000080"),
        ("color:oklch(62.8% 0.2577 29.23)", "color: #ff0000"),
        ("color:lab(54.29 80.8 69.89)", "color: #ff0000"),
        ("color:currentcolor", ""),
        ("background:url(x.png) no-repeat #eee", "background-color: #eeeeee"),
        ("background:transparent", ""),
        // Shorthands.
        ("margin:1pt 2pt 3pt", "margin-top: 1pt; margin-right: 2pt; margin-bottom: 3pt; margin-left: 2pt"),
        ("margin:1pt!important;margin:9pt", "margin-top: 1pt; margin-right: 1pt; margin-bottom: 1pt; margin-left: 1pt"),
        (
            "padding-inline:4pt;border-left:thick double",
            "padding-left: 4pt; padding-right: 4pt; border-left: 3.75pt double #000000",
        ),
        (
            "border:1px solid red;border-top:none",
            "border-top: none; border-right: 0.75pt solid #ff0000; border-bottom: 0.75pt solid #ff0000; border-left: 0.75pt solid #ff0000",
        ),
        ("border-bottom-style:dashed;border-bottom-width:2pt", "border-bottom: 2pt dashed #000000"),
        ("border-color:red", ""),
        ("border-radius:4px", ""),
        (
            "font:italic small-caps bold 12pt/18pt Georgia, serif",
            "font-size: 12pt; font-variant: small-caps; line-height: 1.5; font-family: \"Georgia\", serif",
        ),
        ("font-family:-apple-system, \"Segoe UI\", sans-serif", "font-family: \"Segoe UI\", sans-serif"),
        ("font-family:sans-serif", "font-family: \"Arial\", sans-serif"),
        ("line-height:1.5", "line-height: 1.5"),
        ("line-height:24px", "line-height: 1.5"),
        ("text-decoration:underline wavy red", "text-decoration: underline wavy #ff0000"),
        ("columns:3 12em", "columns: 3 12em"),
        ("page-break-before:always", "break-before: page"),
        ("text-align:end;text-transform:uppercase", "text-align: end; text-transform: uppercase"),
        ("color:red;color:inherit", ""),
        ("-webkit-foo:1;position:absolute;z-index:3", ""),
        // What elements say.
        ("font-weight:bold", ""),
    ] {
        assert_eq!(of(style), expected, "{style}");
    }
}

#[test]
fn rules_become_styles_and_what_they_do_not_say_stays_at_its_place() {
    let page = "<style>
        :root { --ink: rgb(0 0 255); --gap: var(--none, 6pt) }
        body { color: #222; font-size: 20px }
        h1 { color: var(--ink) }
        p { margin-top: var(--gap) }
        .warning { background: #fee }
        div .deep { color: green }
        @media print { p { color: red } }
        @media screen and (min-width: 600px) { .wide { text-align: center } }
        @media (max-width: 600px) { .wide { text-align: right } }
        tr:nth-child(2n) td { background: #eee }
        li:first-child { color: gray }
        .loop { --a: var(--b); --b: var(--a); color: var(--a) }
        </style>
        <h1>a</h1><p>b<p class=warning>c<p class=wide style='color:red'>d<div><p class='warning deep'>e</div>
        <table><tr><td>1<tr><td>2</table><ul><li>f<li>g</ul><p class=loop>h
        <p style='text-indent:1em'>i<p style='text-indent:1em'>j<p style='text-indent:1em'>k";
    assert_eq!(
        styles(page),
        [
            "/ { font-size: 15pt; color: #222222 }",
            "heading 1/heading-1 { color: #0000ff }",
            "Body Text/body-text { margin-top: 6pt }",
            "loop/loop { margin-top: 6pt }",
            "warning/warning { margin-top: 6pt; background-color: #ffeeee }",
            "wide/wide { margin-top: 6pt; text-align: center }",
            "Paragraph 1/p3 { text-indent: 15pt; margin-top: 6pt }",
            "/p1 { color: #ff0000 }",
            "/p2 { color: #008000 }",
            "/cell1 { background-color: #eeeeee }",
            "/part1 { color: #808080 }",
        ]
    );
    // Nothing of it without being asked.
    let plain = read(page.as_bytes(), Format::Html, &profile("fragment", &[])).unwrap();
    assert!(plain.styles.is_empty() && plain.style_definitions.is_empty());
}

#[test]
fn attributes_from_before_style_rules_are_looks() {
    let html = "<body text=navy><p align=right><font color=#FF0000 face=Verdana size=5>a</font></p>
        <table width=50% align=center bgcolor=eeeeee><tr valign=middle><td width=120>b</table>";
    let html = convert(html, Format::Html, Format::Html, &["styling=exact", "shape=page", "page.look=none"]).into_text().unwrap();
    for rule in [
        "body { color: #000080 }",
        ".p1 { text-align: right }",
        ".t1 { font-size: 18pt; color: #ff0000; font-family: \"Verdana\", sans-serif }",
        "width: 50%; margin-left: auto; margin-right: auto; background-color: #eeeeee",
        ".part1 { vertical-align: middle }",
        ".cell1 { width: 90pt }",
    ] {
        assert!(html.contains(rule), "{rule} in {html}");
    }
}

/// The body of what is written of HTML.
#[track_caller]
fn body(html: &str) -> String {
    let written = convert(html, Format::Html, Format::Word, &[]);
    assert_eq!(faults(&written.bytes), [""; 0]);
    let main = part(&written.bytes, "word/document.xml");
    main.split_once("<w:body>").unwrap().1.replace("<w:r><w:t>x</w:t></w:r>", "x")
}

#[test]
fn looks_are_formatting_and_styles_in_word() {
    for (html, pieces) in [
        (
            "<p style='color:red;margin-left:1in;text-align:justify'>x",
            &[
                "<w:p><w:pPr><w:ind w:left=\"1440\"/><w:jc w:val=\"both\"/></w:pPr><w:r><w:rPr><w:color w:val=\"FF0000\"/></w:rPr><w:t>x",
            ][..],
        ),
        (
            // What is around gives its looks; what a style says itself stays.
            "<style>.own{color:blue}</style><div style='color:green;margin-left:20pt;background:#eef'><p>x<p class=own>x<h2>x</h2></div>",
            &[
                "<w:shd w:val=\"clear\" w:color=\"auto\" w:fill=\"EEEEFF\"/><w:ind w:left=\"400\"/></w:pPr><w:r><w:rPr><w:color w:val=\"008000\"/>",
                "<w:pStyle w:val=\"own\"/><w:shd w:val=\"clear\" w:color=\"auto\" w:fill=\"EEEEFF\"/><w:ind w:left=\"400\"/></w:pPr>x",
                "<w:pStyle w:val=\"Heading2\"/><w:shd w:val=\"clear\" w:color=\"auto\" w:fill=\"EEEEFF\"/><w:ind w:left=\"400\"/></w:pPr><w:r><w:rPr><w:color w:val=\"008000\"/>",
            ],
        ),
        (
            "<style>td{border:1px solid #999;padding:4px 8px}</style><table width=50%><tr style='background:#eee'><td style='width:30%'>x<td>x</table>",
            &[
                "<w:tblStyle w:val=\"TablePlain\"/><w:tblW w:w=\"2500\" w:type=\"pct\"/><w:tblBorders><w:top w:val=\"single\" w:sz=\"6\"",
                "<w:insideV w:val=\"single\" w:sz=\"6\" w:space=\"1\" w:color=\"999999\"/></w:tblBorders><w:tblCellMar><w:top w:w=\"60\" w:type=\"dxa\"/>",
                "<w:tblGrid><w:gridCol w:w=\"1360\"/><w:gridCol w:w=\"3175\"/></w:tblGrid>",
                "<w:tcW w:w=\"1500\" w:type=\"pct\"/><w:shd w:val=\"clear\" w:color=\"auto\" w:fill=\"EEEEEE\"/></w:tcPr><w:p>x",
            ],
        ),
        ("<p>x</p><br style='page-break-before:always'><p>x", &["<w:p>x</w:p><w:p><w:pPr><w:pageBreakBefore/></w:pPr>x</w:p>"]),
        (
            "<p>x<div style='columns:2;column-gap:1in'><p>x<p>x</div><p>x",
            &[
                "<w:p>x</w:p><w:p><w:pPr><w:spacing w:before=\"0\" w:after=\"0\"",
                "<w:type w:val=\"continuous\"/><w:pgSz w:w=\"11906\" w:h=\"16838\"/>",
                "<w:cols w:num=\"2\" w:space=\"1440\"/></w:sectPr></w:pPr></w:p><w:p>x</w:p><w:sectPr><w:type w:val=\"continuous\"/>",
            ],
        ),
        (
            "<style>@page{size:a5 landscape;margin:2cm}</style><p>x",
            &["<w:pgSz w:w=\"11906\" w:h=\"8391\" w:orient=\"landscape\"/><w:pgMar w:top=\"1134\" w:right=\"1134\""],
        ),
        (
            "<ul style='color:red'><li>x</ul>",
            &["<w:rPr><w:color w:val=\"FF0000\"/></w:rPr></w:pPr><w:r><w:rPr><w:color w:val=\"FF0000\"/></w:rPr><w:t>x"],
        ),
        (
            "<div style='border:1px solid red;padding:4pt'><p>x</div>",
            &["<w:left w:val=\"single\" w:sz=\"6\" w:space=\"4\" w:color=\"FF0000\"/>"],
        ),
    ] {
        let body = body(html);
        for piece in pieces {
            assert!(body.contains(piece), "{html}\n{piece}\n{body}");
        }
    }
    // Without looks, as without style rules.
    let plain = |html| convert(html, Format::Html, Format::Word, &["styling=semantic"]).bytes;
    assert_eq!(plain("<p style='color:red'>x"), plain("<p>x"));
}

#[test]
fn styles_of_a_page_are_those_of_the_document() {
    let html = "<style>h1{color:#123456} .intro{font-size:15pt} body{font:11pt Georgia}</style><h1>x</h1><p class=intro>x";
    let written = convert(html, Format::Html, Format::Word, &[]);
    let styles = part(&written.bytes, "word/styles.xml");
    let style = |id: &str| {
        let start = styles.find(&format!("w:styleId=\"{id}\"")).unwrap();
        styles[start..].split_once("</w:style>").unwrap().0
    };
    // What the sheet does not say is as it is built in.
    assert!(
        style("Heading1").contains("<w:outlineLvl w:val=\"0\"/>")
            && style("Heading1").contains("<w:color w:val=\"123456\"/><w:sz")
    );
    assert!(
        style("intro").contains("<w:name w:val=\"intro\"/><w:basedOn w:val=\"Normal\"/>")
            && style("intro").contains("<w:sz w:val=\"30\"/>")
    );
    // A class that has the name of a built-in style defines that, but for the style of all paragraphs.
    let named = convert(
        "<style>.title{color:#abcdef}.normal{color:#fedcba}</style><p class=title>x<p class=normal>x<p>x",
        Format::Html,
        Format::Word,
        &[],
    );
    let (main, named) = (part(&named.bytes, "word/document.xml"), part(&named.bytes, "word/styles.xml"));
    assert!(main.contains("<w:pStyle w:val=\"Title\"/>") && main.contains("<w:pStyle w:val=\"NormalText\"/>"), "{main}");
    let of =
        |id: &str| named.split(&format!("w:styleId=\"{id}\"")).nth(1).unwrap().split("</w:style>").next().unwrap().to_owned();
    assert!(of("Title").contains("ABCDEF") && of("NormalText").contains("FEDCBA") && !of("Normal").contains("FEDCBA"));
    let defaults = styles.split_once("</w:docDefaults>").unwrap().0;
    assert!(defaults.contains("w:ascii=\"Georgia\"") && defaults.contains("<w:sz w:val=\"22\"/>"), "{defaults}");
}

/// What rules are made of, good and bad.
const NAMES: [&str; 20] = [
    "color",
    "background",
    "margin",
    "padding-left",
    "border",
    "border-left-style",
    "font",
    "font-size",
    "font-family",
    "width",
    "height",
    "float",
    "columns",
    "text-indent",
    "line-height",
    "letter-spacing",
    "text-decoration",
    "break-before",
    "vertical-align",
    "--own",
];
const VALUES: [&str; 22] = [
    "red",
    "#12345678",
    "0",
    "1em",
    "-9e9px",
    "150%",
    "1e99pt",
    "auto",
    "2px solid",
    "thick double hsl(9 9% 9%)",
    "bold 12pt/2 Georgia",
    "'A \u{1}B', serif",
    "calc(1px*(2 + 3))",
    "var(--own, 3pt)",
    "var(--own",
    "3",
    "page",
    "middle",
    "left",
    "underline wavy",
    "}{;:",
    "inherit",
];
const SELECTORS: [&str; 12] =
    ["p", "body", ".a", ".title", "div .a", "td:nth-child(2n+1)", "h1", ":root", "li", "table", "a", "span.a"];

proptest! {
    /// Any rules over any elements give a package in order, with all the words, and a page whose rules are no more than rules.
    #[test]
    fn any_rules_are_looks_and_nothing_else(
        rules in proptest::collection::vec((0..SELECTORS.len(), 0..NAMES.len(), 0..VALUES.len()), 0..12),
        own in proptest::collection::vec((0..NAMES.len(), 0..VALUES.len()), 10),
    ) {
        let sheet: String = rules.iter().map(|&(on, name, value)| format!("{}{{{}:{}}}\n", SELECTORS[on], NAMES[name], VALUES[value])).collect();
        let style = |at: usize| format!("{}:{}", NAMES[own[at].0], VALUES[own[at].1]).replace('\'', "");
        let html = format!(
            "<style>{sheet}</style><h1 style='{}'>word <span class=a style='{}'>word</span></h1><div style='{}'><p class='a' style='{}'>word<p class=title>word<ul style='{}'><li style='{}'>word<li>word</ul></div><table style='{}'><tr style='{}'><td style='{}'>word<td>word</table><blockquote style='{}'>word</blockquote>",
            style(0), style(1), style(2), style(3), style(4), style(5), style(6), style(7), style(8), style(9),
        );
        let written = convert(&html, Format::Html, Format::Word, &[]);
        prop_assert_eq!(faults(&written.bytes), Vec::<String>::new(), "{}", html);
        let main = part(&written.bytes, "word/document.xml");
        prop_assert_eq!(main.matches("word</w:t>").count() + main.matches("word </w:t>").count(), 9, "{}", html);
        let page = convert(&html, Format::Html, Format::Html, &["styling=exact", "shape=page", "page.look=none"]).into_text().unwrap();
        let rules = page.split_once("<style>").map_or("", |(_, rest)| rest.split_once("</style>").unwrap().0);
        prop_assert!(rules.lines().all(|line| line.is_empty() || line.matches(['{', '}']).count() == 2), "{}", rules);
    }
}

#[test]
fn style_sheets_of_every_size_take_linear_time() {
    let read = |html: &[u8]| read(html, Format::Html, &profile("fragment", &["styling=exact"])).unwrap();
    let shapes: [(&str, &dyn Fn(usize) -> String); 6] = [
        ("rules and paragraphs", &|n| {
            let rules: String = (0..n).map(|i| format!(".c{i}{{color:#{i:06x}}}")).collect();
            format!("<style>{rules}</style>{}", (0..n).map(|i| format!("<p class=c{i}>x")).collect::<String>())
        }),
        ("attributes", &|n| (0..n).map(|i| format!("<p style='margin-left:{i}px'>x")).collect()),
        ("rows by their place", &|n| {
            format!("<style>tr:nth-child(odd) td{{color:red}}</style><table>{}</table>", "<tr><td>x".repeat(n))
        }),
        ("variables", &|n| {
            let rules: String = (1..n).map(|i| format!("--v{i}:var(--v{});", i - 1)).collect();
            format!("<style>:root{{--v0:red;{rules}}} p{{color:var(--v{})}}</style><p>x", n - 1)
        }),
        ("blocks in blocks", &|n| {
            let deep = "<div style='margin-left:1px;color:red'>".repeat(100) + "<p>x" + &"</div>".repeat(100);
            deep.repeat(n / 50)
        }),
        ("rules in rules", &|n| format!("<style>{}</style><p>x", "@media screen{".repeat(n))),
    ];
    for (name, shape) in shapes {
        assert_linear(name, 300, |n| shape(n).into_bytes(), read);
    }
    // Names that stand for ever more of themselves.
    let doubling: String = (1..60).map(|i| format!("--v{i}:var(--v{0}) var(--v{0});", i - 1)).collect();
    assert_eq!(styles(&format!("<style>:root{{--v0:red;{doubling}}}</style><p style='color:var(--v59)'>x")), [""; 0]);
}
