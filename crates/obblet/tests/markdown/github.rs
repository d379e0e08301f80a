//! GitHub's extensions, and what is Obblet's own decision about them.
#![allow(missing_docs, clippy::unwrap_used, clippy::panic, clippy::print_stderr, reason = "tests")]

use crate::support;

use obblet::document::{Place, Weight};
use obblet::formats::{html, markdown};
use obblet::{Format, profile::Profile};
use support::convert::convert;
use support::dom::fragment;

fn write(source: &str) -> String {
    let doc = markdown::read(source.as_bytes(), &markdown::Settings::GITHUB);
    html::write(&doc, &html::Options::default()).html
}

/// Compares as parsed trees.
#[track_caller]
fn case(source: &str, expected: &str) {
    let written = write(source);
    assert_eq!(fragment(&written).outline(), fragment(expected).outline(), "{source:?} became {written:?}");
}

#[test]
fn tables() {
    case(
        "| a | b |\n|---|:-:|\n| c | *d* |",
        "<table><thead><tr><th>a</th><th style='text-align: center'>b</th></tr></thead><tbody><tr><td>c</td><td style='text-align: center'><em>d</em></td></tr></tbody></table>",
    );
    case(
        "a | b\n- | -\nc",
        "<table><thead><tr><th>a</th><th>b</th></tr></thead><tbody><tr><td>c</td><td></td></tr></tbody></table>",
    );
    case("x\n| a |\n|---|", "<p>x</p><table><thead><tr><th>a</th></tr></thead></table>");
    case("| a \\| b | `c\\|d` |\n|-|-|", "<table><thead><tr><th>a | b</th><th><code>c|d</code></th></tr></thead></table>");
    case("| a |\n|---|---|", "<p>| a |\n|---|---|</p>");
    case("| a |\n|---|\n> b", "<table><thead><tr><th>a</th></tr></thead></table><blockquote><p>b</p></blockquote>");
    case(
        "- | a |\n  |---|\n  | b |",
        "<ul><li><table><thead><tr><th>a</th></tr></thead><tbody><tr><td>b</td></tr></tbody></table></li></ul>",
    );
    case(
        "> a | b\n> :- | -:\n> [x](y) | z",
        "<blockquote><table><thead><tr><th style='text-align: left'>a</th><th style='text-align: right'>b</th></tr></thead><tbody><tr><td style='text-align: left'><a href='y'>x</a></td><td style='text-align: right'>z</td></tr></tbody></table></blockquote>",
    );
}

#[test]
fn task_lists() {
    case(
        "- [ ] a\n- [x] b",
        "<ul><li><input type=checkbox disabled> a</li><li><input type=checkbox disabled checked> b</li></ul>",
    );
    case("- [x] a\n\n- b", "<ul><li><p><input type=checkbox disabled checked> a</p></li><li><p>b</p></li></ul>");
    case("- [x]a\n- [ ]", "<ul><li>[x]a</li><li>[ ]</li></ul>");
    case(
        "1. [X] a\n   - [ ] b",
        "<ol><li><input type=checkbox disabled checked> a<ul><li><input type=checkbox disabled> b</li></ul></li></ol>",
    );
}

#[test]
fn strikethrough() {
    case("~~a~~ ~b~", "<p><del>a</del> <del>b</del></p>");
    case("~~~a~~~", "<pre><code class='language-a~~~'></code></pre>");
    case("x ~~~a~~~ ~~b~ ~c~~", "<p>x ~~~a~~~ <del>b~ ~c</del></p>");
    case("~~a *b~~ c*", "<p><del>a *b</del> c*</p>");
}

#[test]
fn bare_addresses() {
    case("www.a.example/b_c_d. x", "<p><a href='http://www.a.example/b_c_d'>www.a.example/b_c_d</a>. x</p>");
    case("(https://a.example/x(y)) z", "<p>(<a href='https://a.example/x(y)'>https://a.example/x(y)</a>) z</p>");
    case(
        "http://a.example/?q=1&amp;r&hellip; <b>",
        "<p><a href='http://a.example/?q=1&amp;r'>http://a.example/?q=1&amp;r</a>\u{2026} </p>",
    );
    case("a.b+c@d.example. e@f", "<p><a href='mailto:a.b+c@d.example'>a.b+c@d.example</a>. e@f</p>");
    case(
        "**www.a.example** _http://b.example_",
        "<p><strong><a href='http://www.a.example'>www.a.example</a></strong> <em><a href='http://b.example'>http://b.example</a></em></p>",
    );
    case("[see http://a.example now](b)", "<p><a href='b'>see http://a.example now</a></p>");
    case("xhttp://a.example http://a_b.c_d awww.x.example", "<p>xhttp://a.example http://a_b.c_d awww.x.example</p>");
    case(
        "http://潮.example/港、http://a.example。",
        "<p><a href='http://%E6%BD%AE.example/%E6%B8%AF%E3%80%81http://a.example%E3%80%82'>http://潮.example/港、http://a.example。</a></p>",
    );
}

#[test]
fn notes() {
    let mark = "<sup><a href='#note-1' id='note-1-mark' role='doc-noteref'>1</a></sup>";
    let back = "<a href='#note-1-mark' role='doc-backlink' aria-label='Back to the text'>\u{2191}</a>";
    case(
        "a[^x]\n\n[^x]: *b*\n\n    c",
        &format!(
            "<p>a{mark}</p><section role='doc-endnotes' aria-label='Notes'><ol><li id='note-1'><p><em>b</em></p><p>c {back}</p></li></ol></section>"
        ),
    );
    // A list in the first line of a note goes on where the note does.
    let html = write("a[^x]\n\n[^x]: - ```\n      b\n      ```\n    - c\n");
    assert!(html.contains("<ul>\n<li>\n<pre><code>b\n</code></pre>\n</li>\n<li>c</li>\n</ul>"), "{html}");
    case("a[^nope] [^]", "<p>a[^nope] [^]</p>");
    // Two mentions have two ways back; consecutive definitions are two notes; a note in a table is one.
    let html = write("| a[^1] | b[^1][^2] |\n|-|-|\n\n[^1]: one\n[^2]: two[^1]\n[^3]: three\n");
    assert_eq!(html.matches("doc-backlink").count(), 4, "{html}");
    assert_eq!(html.matches("<li id=\"note-").count(), 3, "{html}");
}

#[test]
fn alerts() {
    case("> [!TIP]\n> a\n> b", "<aside class='tip'><p><strong>Tip</strong></p><p>a\nb</p></aside>");
    case("> [!TIP]\n> *a*", "<aside class='tip'><p><strong>Tip</strong></p><p><em>a</em></p></aside>");
    case("> [!warning]\n>\n> - a", "<aside class='warning'><p><strong>Warning</strong></p><ul><li>a</li></ul></aside>");
    case("> [!NOTE] a", "<blockquote><p>[!NOTE] a</p></blockquote>");
    case("> [!OTHER]\n> a", "<blockquote><p>[!OTHER]\na</p></blockquote>");
}

#[test]
fn math() {
    case(
        "$a_1 < b_2$ and $`c`$",
        "<p><math><semantics><mrow><msub><mi>a</mi><mn>1</mn></msub><mo>&lt;</mo><msub><mi>b</mi><mn>2</mn></msub></mrow><annotation encoding='application/x-tex'>a_1 &lt; b_2</annotation></semantics></math> and <math><semantics><mi>c</mi><annotation encoding='application/x-tex'>c</annotation></semantics></math></p>",
    );
    case(
        "$$\na\n$$",
        "<p><math display='block'><semantics><mi>a</mi><annotation encoding='application/x-tex'>a</annotation></semantics></math></p>",
    );
    case("costs $5, or US$6; \\$7 and $ 8 $", "<p>costs $5, or US$6; $7 and $ 8 $</p>");
}

#[test]
fn raw_html_is_made_valid_and_safe() {
    case("<details><summary>A</summary>\n\n*b*\n\n</details>\n", "<details><summary>A</summary><p><em>b</em></p></details>");
    case(
        "<p align=\"center\">\n  <img src=\"a.png\" width=\"40px\" onerror=\"x()\">\n</p>",
        "<p><img src='a.png' alt='' width='40'></p>",
    );
    case("a <b>b *c</b> d*", "<p>a <strong>b <em>c</em></strong><em> d</em></p>");
    case("<div>\n\nx\n\n</div>", "<p>x</p>");
    case("<table><tr><td>\n\n- a\n\n</td></tr></table>", "<table><tbody><tr><td><ul><li>a</li></ul></td></tr></tbody></table>");
    case("<font color=red>a</font> <center>b</center>", "<p>a </p><p>b</p>");
    case("a <!-- b --> c", "<p>a  c</p>");
    case(
        "<a href=\"javascript:x\">a</a> <iframe src=\"https://b.example\"></iframe>",
        "<p>a <a href='https://b.example'>https://b.example</a></p>",
    );
    case("<style>p { color: red }</style>\n\na", "<p>a</p>");
    case("<pre><code class=\"language-rust\">a\n  b</code></pre>", "<pre><code class='language-rust'>a\n  b\n</code></pre>");
    case("<h4>a</h4>\n\n# b\n\n### c", "<h4>a</h4><h1>b</h1><h2>c</h2>");
}

#[test]
fn raw_html_as_the_profile_says() {
    let convert =
        |raw: &str| convert(b"a <em>b</em> <script>c</script>", Format::Markdown, Format::Html, &[&format!("html.raw={raw}")]);
    // What runs is shown as text where nobody says that the document is trusted.
    let kept = convert("keep");
    assert_eq!(kept.text().unwrap(), "<p>a <em>b</em> &lt;script&gt;c&lt;/script&gt;</p>\n");
    assert_eq!(kept.findings.iter().map(|finding| &*finding.code).collect::<Vec<_>>(), ["html.raw-running"; 2]);
    let trusted = ["html.raw=keep", "html.trust=true"];
    let trusted = support::convert::convert(b"a <em>b</em> <script>c</script>", Format::Markdown, Format::Html, &trusted);
    // What GitHub disallows loses its meaning even where the rest is kept.
    assert_eq!(trusted.text().unwrap(), "<p>a <em>b</em> &lt;script>c&lt;/script></p>\n");
    assert_eq!(convert("escape").into_text().unwrap(), "<p>a &lt;em&gt;b&lt;/em&gt; &lt;script&gt;c&lt;/script&gt;</p>\n");
    assert_eq!(convert("drop").into_text().unwrap(), "<p>a b c</p>\n");
    assert_eq!(convert("drop").findings.len(), 4);
    let clean = convert("clean");
    assert_eq!(clean.text().unwrap(), "<p>a <em>b</em> </p>\n");
    let finding = &clean.findings[0];
    assert_eq!((&*finding.code, finding.weight, &*finding.lost), ("html.script", Weight::Lost, "c"));
    assert_eq!(finding.place, Place::Line { line: 1, column: 14 });
}

#[test]
fn front_matter() {
    let read = |source: &str| markdown::read(source.as_bytes(), &markdown::Settings::GITHUB);
    let doc = read("---\ntitle: A\nauthors: [B, {name: C}]\ndate: 2031-02-01\nlang: de\ndraft: yes\n---\n# x\n");
    assert_eq!((doc.metadata.title.as_deref(), doc.metadata.date.as_deref()), (Some("A"), Some("2031-02-01")));
    assert_eq!(
        (doc.metadata.authors.as_slice(), doc.metadata.language.as_deref()),
        (["B".to_owned(), "C".to_owned()].as_slice(), Some("de"))
    );
    assert_eq!(doc.place(doc.node(doc.root()).first_child().unwrap()), Place::Line { line: 8, column: 1 });

    let doc = read("---\ntitle: A\nbad: [b\n---\nx\n");
    let finding = &doc.findings[0];
    assert_eq!(finding.code, "markdown.front-matter");
    assert!(matches!(finding.place, Place::Line { line: 3..=4, .. }), "{finding:?}");
    assert!(doc.plain_text(doc.root()).contains("title: A"));

    let doc = read("---\nno keys here\n---\n");
    assert!(doc.findings.is_empty() && doc.plain_text(doc.root()).contains("no keys here"));
}

#[test]
fn any_bytes_are_text() {
    case("\u{FEFF}# a\r\nb\rc\0d", "<h1>a</h1><p>b\nc\u{FFFD}d</p>");
    let doc = markdown::read(b"a\n\nb \xFF\xFE c", &markdown::Settings::GITHUB);
    assert_eq!((&*doc.findings[0].code, doc.findings[0].place), ("text.encoding", Place::Line { line: 3, column: 3 }));
    case("", "");
    case("\n \n\t", "");
}

#[test]
fn places_are_those_of_the_source() {
    let doc = markdown::read("> é *a\n>   b* <x>\n\n| a |\n|--|\n| b \\| <y> | c |".as_bytes(), &markdown::Settings::GITHUB);
    let written = html::write(&doc, &html::Options::default());
    let places: Vec<String> =
        doc.findings.iter().chain(&written.findings).map(|finding| format!("{} {}", finding.place, finding.code)).collect();
    assert_eq!(places, ["6:14 markdown.extra-cells", "2:8 html.unknown-element", "6:8 html.unknown-element"]);
}

#[test]
fn every_extension_can_be_switched_off() {
    for (setting, source, plain) in [
        ("tables", "|a|\n|-|", "<p>|a| |-|</p>\n"),
        ("tasks", "- [ ] a", "<ul>\n<li>[ ] a</li>\n</ul>\n"),
        ("strikethrough", "~~a~~", "<p>~~a~~</p>\n"),
        ("autolinks", "www.a.example", "<p>www.a.example</p>\n"),
        ("footnotes", "[^1]\n\n[^1]: a", "<p><a href=\"a\">^1</a></p>\n"),
        ("alerts", "> [!NOTE]\n> a", "<blockquote>\n<p>[!NOTE] a</p>\n</blockquote>\n"),
        ("math", "$a$", "<p>$a$</p>\n"),
        ("front-matter", "---\na: b\n---", "<hr>\n<h2>a: b</h2>\n"),
    ] {
        let mut profile = Profile::built_in("fragment").unwrap();
        profile.set(&format!("markdown.{setting}=false")).unwrap();
        let converted = obblet::convert(source.as_bytes(), Format::Markdown, Format::Html, &profile).unwrap();
        assert_eq!(converted.text().unwrap(), plain, "{setting}");
    }
    assert_eq!(
        convert(b"a\nb", Format::Markdown, Format::Html, &["markdown.line-ends=break"]).into_text().unwrap(),
        "<p>a<br>\nb</p>\n"
    );
}
