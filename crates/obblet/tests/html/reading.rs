//! Reading HTML: what pages say, and what only their style rules say.
#![allow(missing_docs, clippy::unwrap_used, clippy::panic, clippy::print_stderr, reason = "tests")]

use crate::support;

use obblet::document::{Kind, Metadata, Weight};
use obblet::formats::html::{self, Content, ReadOptions};
use obblet::formats::{markdown, text};
use support::dom;

fn clean(source: &str, options: &ReadOptions<'_>) -> String {
    html::write(&html::read(source.as_bytes(), options), &html::Options::default()).html
}

#[track_caller]
fn case(source: &str, expected: &str) {
    let written = clean(source, &ReadOptions::default());
    let (expected, actual) = (dom::fragment(expected), dom::fragment(&written));
    assert_eq!(expected.outline(), actual.outline(), "{source}\nbecame\n{written}");
}

#[track_caller]
fn as_markdown(source: &str, expected: &str) {
    let doc = html::read(source.as_bytes(), &ReadOptions::default());
    assert_eq!(markdown::write(&doc, &markdown::WriteOptions::default()).text, expected, "{source}");
}

#[track_caller]
fn codes(source: &str) -> Vec<(String, Weight)> {
    html::read(source.as_bytes(), &ReadOptions::default())
        .findings
        .iter()
        .map(|found| (found.code.to_string(), found.weight))
        .collect()
}

#[test]
fn white_space_is_what_a_browser_shows() {
    case("<p>\n  a  <b> b </b>\n c </p>", "<p>a <strong>b </strong>c</p>");
    case("<div>a<div>b</div>c</div>", "<p>a</p><p>b</p><p>c</p>");
    case("<p>a <br> b</p>", "<p>a<br>b</p>");
    case("<pre>\n a\n  b</pre>", "<pre><code> a\n  b\n</code></pre>");
    case("a<span> </span>b", "<p>a b</p>");
    case("<p>a&nbsp;</p><p> </p><p></p>", "<p>a&nbsp;</p>");
}

#[test]
fn lists_keep_what_they_count() {
    case("<OL TYPE=a START=3><LI>x<LI>y</OL>", "<ol start='3' type='a'><li>x</li><li>y</li></ol>");
    case("<ol reversed><li value=7>x</ol>", "<ol reversed><li value='7'>x</li></ol>");
    case(
        "<ul><li><input type=checkbox checked> done<li><label><input type=checkbox>open</label></ul>",
        "<ul><li><input type='checkbox' disabled checked> done</li><li><input type='checkbox' disabled> open</li></ul>",
    );
    case("<ul><li>a</li><ul><li>b</li></ul></ul>", "<ul><li>a<ul><li>b</li></ul></li></ul>");
    case("<dl><dt>a<dt>b<dd>c<dd>d</dl>", "<dl><dt>a</dt><dt>b</dt><dd>c</dd><dd>d</dd></dl>");
    as_markdown("<ul><li>a<p>b</p></li><li>c</li></ul>", "- a\n\n  b\n\n- c\n");
}

#[test]
fn tables_keep_their_form() {
    case(
        "<table><caption>C</caption><col><col align=right><tr><th scope=col>a<th>b<tr><td>1<td>2</table>",
        "<table><caption>C</caption><tbody><tr><th scope='col'>a</th><th style='text-align: right'>b</th></tr>\
         <tr><td>1</td><td style='text-align: right'>2</td></tr></tbody></table>",
    );
    as_markdown(
        "<table><thead><tr><th>a<th align=center>b</thead><tr><td>1|2<td><code>x|y</code></table>",
        "| a    |   b    |\n| ---- | :----: |\n| 1\\|2 | `x\\|y` |\n",
    );
    // The writer alone has no way to say merged cells: they are taken apart, and all of their words stay.
    as_markdown("<table><tr><td rowspan=2>a<td>b<tr><td>c</table>", "|  |  |\n| --- | --- |\n| a | b |\n|  | c |\n");
}

#[test]
fn pictures_and_players() {
    case("<img src=s.png srcset='m.png 2x, l.png 3x' alt=x width=40px>", "<p><img src='l.png' alt='x' width='40'></p>");
    case("<picture><source srcset=a.avif><img src=b.png alt=y></picture>", "<p><img src='b.png' alt='y'></p>");
    case("<img src='data:image/gif;base64,R0' data-src=real.png alt=z>", "<p><img src='real.png' alt='z'></p>");
    case("<video controls><source src=f.mp4>no player</video>", "<p><a href='f.mp4'>f.mp4</a></p>");
    let doc = html::read(b"<svg onload=x()><title>T</title><path d='M0 0'/></svg>", &ReadOptions::default());
    assert_eq!(doc.media.len(), 1);
    let Kind::Paragraph = doc.kind(doc.node(doc.root()).first_child().unwrap()) else { panic!() };
    assert!(!String::from_utf8_lossy(&doc.media[0].bytes).contains("onload"));
}

#[test]
fn signs_are_as_large_as_letters() {
    let root = |svg: &str| {
        let doc = html::read(format!("<p>At {svg} and on</p>").as_bytes(), &ReadOptions::default());
        let text = String::from_utf8_lossy(&doc.media[0].bytes).into_owned();
        let root = text.split('>').next().unwrap();
        root.split_once("xlink\"").unwrap().1.to_owned()
    };
    let path = "<path d='M0 0h9'/>";
    assert_eq!(root(&format!("<svg viewBox='0 0 576 512'>{path}</svg>")), " width=\"18\" height=\"16\" viewBox=\"0 0 576 512\"");
    // What says how large it is, what no sign is like, and drawings that show more than a sign does.
    for (attributes, content) in [
        ("viewBox='0 0 9 9' width='1em'", path.to_owned()),
        ("viewBox='0 0 9 9' style='height: 2em'", path.to_owned()),
        ("viewBox='0 0 900 9'", path.to_owned()),
        ("viewBox='0 0 9 0'", path.to_owned()),
        ("viewBox='a b c d'", path.to_owned()),
        ("", path.to_owned()),
        ("viewBox='0 0 9 9'", path.repeat(5)),
        ("viewBox='0 0 9 9'", "<text>4.8</text>".to_owned()),
    ] {
        let root = root(&format!("<svg {attributes}>{content}</svg>"));
        assert!(!root.contains("height=\"16\""), "{attributes}: {root}");
    }
}

#[test]
fn formulas_stay() {
    let mathml = "<math display=block><mi>a</mi><mo>&lt;</mo><mn>2</mn></math>";
    case(mathml, "<p><math display='block'><mi>a</mi><mo>&lt;</mo><mn>2</mn></math></p>");
    as_markdown(
        "<math><semantics><mi>x</mi><annotation encoding='application/x-tex'>x_1</annotation></semantics></math>",
        "$x_1$\n",
    );
    // A fraction of one part is none.
    case("<math><mfrac><mi>a</mi></mfrac></math>", "<p>a</p>");
}

#[test]
fn what_was_found_by_random_pages() {
    // Characters that become the same make no two names.
    case("<p id='a\u{1}'>b<p id='a\u{2}'>c", "<p id='a\u{FFFD}'>b</p><p>c</p>");
}

#[test]
fn style_rules_mean_something() {
    case("<p><span style='font-weight:bold;font-style:italic'>a</span></p>", "<p><strong><em>a</em></strong></p>");
    case("<b style='font-weight:normal'><p>a</p></b>", "<p>a</p>");
    case("<style>.k{font-weight:700} p.k i{font-style:normal}</style><p class=k>a <i>b</i>", "<p><strong>a b</strong></p>");
    case("<style>#x{font-style:italic!important}</style><p id=x style='font-style:normal'>a", "<p id='x'><em>a</em></p>");
    case(
        "<span style='vertical-align:super'>2</span><span style='text-decoration: line-through'>3</span>",
        "<p><sup>2</sup><s>3</s></p>",
    );
    case("<p>a<span style='display:none'>b</span>", "<p>a</p>");
    // Elements that are alike look alike, but for what their own attributes and places say.
    case(
        "<style>.k{font-weight:bold} div.d .k{font-style:italic} #i{font-weight:normal} .m{font-style:italic}</style>\
         <p><span class=k>a</span><span class=k style='font-weight:normal'>b</span><span class=k id=i>c</span></p>\
         <div class=d><span class=k>d</span></div><p><span class=m>e</span><span class=m style='font-weight:bold'>f</span>",
        "<p><strong>a</strong>b<span id='i'>c</span></p><p><strong><em>d</em></strong></p><p><em>e</em><strong><em>f</em></strong></p>",
    );
    case("<span style='font-family:Consolas, monospace'>ls</span>", "<p><code>ls</code></p>");
    case("<ul style='list-style-type:lower-roman'><li>a</ul>", "<ol type='i'><li>a</li></ol>");
    case("<p>a<br style='page-break-before:always'><p hidden>b<p hidden=until-found>c", "<p>a</p><p>c</p>");
    assert_eq!(codes("<p style='visibility:hidden'>a</p>"), [("html.hidden".to_owned(), Weight::Lost)]);
    let like = "<p style='font-size:18pt'><b>Tides</b></p><p>text</p>";
    let doc = html::read(like.as_bytes(), &ReadOptions::default());
    assert_eq!(doc.layout_hints.heading_like.iter().map(|(_, size)| *size).collect::<Vec<_>>(), [18.0]);
}

#[test]
fn notes_of_every_make() {
    let note = "<p>a<sup><a href='#note-1' id='note-1-mark' role='doc-noteref'>1</a></sup></p><section role='doc-endnotes' aria-label='Notes'>\
                <ol><li id='note-1'><p>b <a href='#note-1-mark' role='doc-backlink' aria-label='Back to the text'>\u{2191}</a></p></li></ol></section>";
    case(note, note);
    for source in [
        "<p>a<a href='#_ftn1' name='_ftnref1'>[1]</a></p><hr><div id=ftn1><p><a href='#_ftnref1' name='_ftn1'>[1]</a> b</p></div>",
        "<p>a<sup id=r1><a href='#n1'>*</a></sup></p><ol><li id=n1>b <a href='#r1'>\u{21A9}</a></li></ol>",
        "<p>a<sup><a id=r1 href='#n1'>1</a></sup></p><p id=n1><sup><a href='#r1'>1</a></sup> b</p>",
    ] {
        case(source, note);
    }
    // A list of contents is none.
    case("<p><a href='#x'>1</a></p><h2 id=x>y</h2>", "<p><a href='#x'>1</a></p><h2 id='x'>y</h2>");
}

#[test]
fn the_head_is_metadata() {
    let page = "<html lang=de_AT dir=ltr><head><title> A\n b</title><meta name=Author content='C D'><meta property='og:description' content=e>\
                <meta name=keywords content='f, g'><meta name=dcterms.date content=2031-02-01><link rel=canonical href=/h></head><body>i";
    let doc = html::read(page.as_bytes(), &ReadOptions::default());
    let text = |text: &str| Some(text.to_owned());
    assert_eq!(
        doc.metadata,
        Metadata {
            title: text("A b"),
            authors: vec!["C D".to_owned()],
            date: text("2031-02-01"),
            language: text("de-AT"),
            direction: Some(obblet::document::Direction::LeftToRight),
            description: text("e"),
            keywords: vec!["f".to_owned(), "g".to_owned()],
            other: vec![("canonical".to_owned(), "/h".to_owned())],
            ..Metadata::default()
        }
    );
}

#[test]
fn only_the_main_content_on_request() {
    let main = html::Settings { content: Content::Main, ..Default::default() };
    let main = ReadOptions { settings: &main, ..Default::default() };
    let page = "<header>Banner</header><nav>Way</nav><main><h1>A</h1><nav>In</nav><p>b</main><footer>End</footer>";
    assert_eq!(clean(page, &main), "<h1>A</h1>\n<p>b</p>\n");
    let doc = html::read(page.as_bytes(), &main);
    assert!(
        doc.findings.iter().any(|found| found.code == "html.around-content" && found.lost == "In Banner Way End"),
        "{:?}",
        doc.findings
    );
    // Without a main element, what says that it is around the content goes.
    let page =
        "<div class='site-header'>Banner</div><article><header><h1>A</h1></header><p>b</article><div id=sidebar>More</div>";
    assert_eq!(clean(page, &main), "<article>\n<header>\n<h1>A</h1>\n</header>\n<p>b</p>\n</article>\n");
    assert!(clean(page, &ReadOptions::default()).contains("Banner"));
}

#[test]
fn drawn_tables_have_room_for_cells_that_reach_down() {
    let source = "<table><tr><td rowspan=2>a<td>b<tr><td>c<tr><td>d<td rowspan=0>e</table>";
    let doc = html::read(source.as_bytes(), &html::ReadOptions::default());
    let drawn = text::write(&doc, &text::Settings::default()).text;
    assert_eq!(drawn, "+---+---+\n| a | b |\n+---+---+\n|   | c |\n+---+---+\n| d | e |\n+---+---+\n");
}

#[test]
fn text_is_drawn() {
    let source = "<h2>Tides</h2><p>High <a href=t.html>water</a>.<ol type=i start=4><li>a<li>b<ul><li>c</ul></ol>\
                  <table><caption>T</caption><tr><th>Day<th>m<tr><td colspan=2>none<tr><td>Mon<td align=right>4</table><blockquote><pre>x</pre></blockquote>";
    let doc = html::read(source.as_bytes(), &ReadOptions::default());
    insta::assert_snapshot!(text::write(&doc, &text::Settings { width: 40, ..Default::default() }).text, @r"
    Tides
    -----

    High water [1].

    iv. a
    v. b
       - c

    T
    +-----+---+
    | Day | m |
    +=====+===+
    | none    |
    +-----+---+
    | Mon | 4 |
    +-----+---+

    >     x

    [1] t.html
    ");
}
