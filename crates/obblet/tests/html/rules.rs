//! House rules, one setting at a time, and manuscripts.
#![allow(missing_docs, clippy::unwrap_used, clippy::panic, reason = "tests")]

use crate::support;

use obblet::Format;
use support::convert::convert;

#[track_caller]
fn converted(source: &str, reads: Format, settings: &[&str], expected: &str) {
    let html = convert(source.as_bytes(), reads, Format::Html, settings).into_text().unwrap();
    assert_eq!(html.trim_end(), expected, "{source} {settings:?}");
    // What keeps the rules is not changed by them.
    if reads == Format::Html {
        let again = convert(&html, Format::Html, Format::Html, settings).into_text().unwrap();
        assert_eq!(again.trim_end(), expected, "{source} {settings:?}, again");
    }
}

#[track_caller]
fn case(source: &str, settings: &[&str], expected: &str) {
    converted(source, Format::Html, settings, expected);
}

#[track_caller]
fn manuscript(source: &str, expected: &str) {
    converted(source, Format::Text, &[], expected);
}

#[test]
fn words_are_replaced_in_text_only() {
    case(
        "<p>high tide, <b>high</b> tide</p>",
        &["clean.replace=high tide => high water"],
        "<p>high water, <strong>high</strong> tide</p>",
    );
    case("<p>gray</p>", &["clean.replace-patterns=gr[ae]y => grey"], "<p>grey</p>");
    case("<p>12:30</p>", &[r"clean.replace-patterns=(\d+):(\d+) => $1.$2"], "<p>12.30</p>");
    case(
        r#"<p><a href="gray.html">gray</a> <code>gray</code></p>"#,
        &["clean.replace=gray => grey"],
        r#"<p><a href="gray.html">grey</a> <code>gray</code></p>"#,
    );
    case("<p>aa</p>", &["clean.replace=a => "], "");
}

#[test]
fn capitals_are_set_down_and_acronyms_stay() {
    case(
        "<p>READ THE NOTICE AT THE PIER. THEN WAIT.</p>",
        &["clean.capitals=sentence"],
        "<p>Read the notice at the pier. Then wait.</p>",
    );
    case("<p>READ THE NOTICE AT THE PIER</p>", &["clean.capitals=title"], "<p>Read the Notice at the Pier</p>");
    case("<h2>THE TIDES OF GREYWICK SOUND</h2>", &["clean.capitals=title"], "<h2>The Tides of Greywick Sound</h2>");
    case("<p>THE RNLI CAME</p>", &["clean.capitals=sentence", "clean.protected-words=RNLI"], "<p>The RNLI came</p>");
    case("<p>NASA and GPS stay</p>", &["clean.capitals=sentence"], "<p>NASA and GPS stay</p>");
    case(
        "<p>Only <b>SOME WORDS HERE</b> shout</p>",
        &["clean.capitals=sentence"],
        "<p>Only <strong>Some words here</strong> shout</p>",
    );
    case("<p>ÜBER DIE BRÜCKE GEHEN WIR</p>", &["clean.capitals=sentence"], "<p>Über die brücke gehen wir</p>");
    case("<p>IT IS I. IS IT? YES!</p>", &["clean.capitals=sentence"], "<p>It is I. Is it? Yes!</p>");
}

#[test]
fn formatting_in_other_forms() {
    case("<p>a <b>bold</b> word</p>", &["clean.bold=remove"], "<p>a bold word</p>");
    case("<p>a <b>bold <i>and</i></b> word</p>", &["clean.bold=capitals"], "<p>a BOLD <em>AND</em> word</p>");
    case("<p><b>straße</b></p>", &["clean.bold=capitals"], "<p>STRASSE</p>");
    case(
        "<p><b>a</b> <i>b</i> <u>c</u> <s>d</s></p>",
        &["clean.inline=classes"],
        r#"<p><span class="bold">a</span> <span class="italic">b</span> <span class="underline">c</span> <span class="struck">d</span></p>"#,
    );
}

#[test]
fn spaces_quotes_and_dashes() {
    case("<p>One.  Two.   Three</p>", &["clean.stop-spaces=one"], "<p>One. Two. Three</p>");
    case("<p>One. Two. e.g. x</p>", &["clean.stop-spaces=two"], "<p>One.&nbsp; Two. e.g. x</p>");
    case(r#"<p>"a" and 'b' it's</p>"#, &["clean.quotes=typographic"], "<p>“a” and ‘b’ it’s</p>");
    case("<p>“a” and ‘b’ it’s</p>", &["clean.quotes=straight"], r#"<p>"a" and 'b' it's</p>"#);
    case("<p>1--2 a---b</p>", &["clean.dashes=typographic"], "<p>1–2 a—b</p>");
    case("<p>a – b — c</p>", &["clean.dashes=hyphens"], "<p>a -- b --- c</p>");
    case("<p>a...</p>", &["clean.dashes=typographic"], "<p>a…</p>");
    case(
        r#"<pre>"a" --</pre><p><code>"b" --</code></p>"#,
        &["clean.quotes=typographic", "clean.dashes=typographic"],
        "<pre><code>\"a\" --\n</code></pre>\n<p><code>\"b\" --</code></p>",
    );
    case("<p>'tis the '80s</p>", &["clean.quotes=typographic"], "<p>’tis the ’80s</p>");
    case(r#"<p>"<i>a</i>"</p>"#, &["clean.quotes=typographic"], "<p>“<em>a</em>”</p>");
}

#[test]
fn breaks_paragraphs_and_lists_as_lines() {
    case("<p>a<br>b</p>", &["clean.line-breaks=space"], "<p>a b</p>");
    case("<p>a<br>b<br><br>c</p>", &["clean.line-breaks=paragraphs"], "<p>a</p>\n<p>b</p>\n<p>c</p>");
    case("<p>a</p><p>b</p>", &["clean.paragraphs=breaks"], "a<br>\nb");
    case("<p>a</p><h2>h</h2><p>b</p><p>c</p>", &["clean.paragraphs=breaks"], "a\n<h2>h</h2>\nb<br>\nc");
    case("<ul><li>a<li>b<ul><li>c</ul></ul>", &["clean.list-lines=* "], "<p>* a<br>\n* b<br>\n * c</p>");
    case("<ol><li>a<li>b</ol>", &["clean.list-lines=- "], "<p>1. a<br>\n2. b</p>");
    case("<p>a</p><p>* * *</p><p>b</p>", &["clean.scene-breaks=rule"], "<p>a</p>\n<hr>\n<p>b</p>");
    case("<p>a</p><hr><p>b</p>", &["clean.scene-breaks=mark"], "<p>a</p>\n<p class=\"scene-break\">* * *</p>\n<p>b</p>");
    case(
        "<p>a</p><p>***</p><p>b</p>",
        &["clean.scene-breaks=mark", "clean.scene-mark=#"],
        "<p>a</p>\n<p class=\"scene-break\">#</p>\n<p>b</p>",
    );
}

#[test]
fn attributes_that_a_target_takes() {
    let source = "<p class=x title=y lang=cy><a href=b rel=nofollow>a</a> <img src=c.png alt=staff width=4 height=2></p>";
    case(source, &["clean.remove-attributes=title, rel, img.*"], "<p lang=\"cy\"><a href=\"b\">a</a> staff</p>");
    case(source, &["clean.allow-attributes=title"], "<p title=\"y\"><a href=\"b\">a</a> <img src=\"c.png\" alt=\"staff\"></p>");
    // What says nothing without its attribute leaves its words.
    case(source, &["clean.remove-attributes=href, src, class, lang"], "<p title=\"y\">a staff</p>");
    case("<ol start=3 type=a><li>x</ol>", &["clean.remove-attributes=start, ol.type"], "<ol>\n<li>x</li>\n</ol>");
    case(
        "<p><time>2026-02-09</time> <time>noon</time> <time datetime=\"2026-02-09\">then</time></p>",
        &[],
        "<p><time>2026-02-09</time> noon <time datetime=\"2026-02-09\">then</time></p>",
    );
}

#[test]
fn elements_that_a_target_takes() {
    case("<p>a <b>b</b></p><table><tr><td>c</table>", &["clean.remove-elements=table"], "<p>a <strong>b</strong></p>");
    case("<p>a <b>b</b></p>", &["clean.unwrap-elements=strong"], "<p>a b</p>");
    case("<p>a <b>b</b> <i>c</i></p>", &["clean.rename-elements=strong = b,em = i"], "<p>a <b>b</b> <i>c</i></p>");
    case("<h1>a</h1><p>b <b>c</b></p><ul><li>d</ul>", &["clean.allow-elements=p"], "<p>a</p>\n<p>b c</p>\n<p>• d</p>");
    case("<h1>a</h1><p>b</p>", &["clean.allow-elements=p", "clean.disallowed=remove"], "<p>b</p>");
    case("<table><tr><td>a<td>b<tr><td>c<td>d</table>", &["clean.allow-elements=p,br"], "<p>a | b<br>\nc | d</p>");
    case("<ul><li>a<li>b</ul>", &["clean.allow-elements=p,br"], "<p>• a<br>\n• b</p>");
    case(r#"<p><a href="a.html">a</a></p>"#, &["clean.allow-elements=p"], "<p>a</p>");
    case(r#"<p><img src="a.png" alt="A"></p>"#, &["clean.allow-elements=p"], "<p>A</p>");
    case("<blockquote><p>a</p></blockquote>", &["clean.allow-elements=p"], "<p>a</p>");
    case("<h2>a</h2>", &["clean.rename-elements=h2 = h4"], "<h4>a</h4>");
    case("<pre><code>a\nb</code></pre>", &["clean.allow-elements=p,br"], "<p>a<br>\nb</p>");
    case("<dl><dt>a<dd>b</dl>", &["clean.allow-elements=p"], "<p>a</p>\n<p>b</p>");
    case("<p>a<sup>2</sup></p>", &["clean.allow-elements=p"], "<p>a2</p>");
    case("<section><h2>a</h2><p>b</p></section>", &["clean.unwrap-elements=section"], "<h2>a</h2>\n<p>b</p>");
}

#[test]
fn attributes_and_classes_that_a_target_takes() {
    case(r#"<p class="note-a x">a</p>"#, &["clean.classes=note-*"], r#"<p class="note-a">a</p>"#);
    case(r#"<p class="Quote">a</p>"#, &["clean.classes=Quote = pull-quote"], r#"<p class="pull-quote">a</p>"#);
    case(r#"<p class="MsoBody keep">a</p>"#, &["clean.classes=Mso* =,keep"], r#"<p class="keep">a</p>"#);
    case(
        r#"<p><img src="a.png" alt="A" width="1" height="2" title="T"></p>"#,
        &["clean.remove-attributes=img.width,title"],
        r#"<p><img src="a.png" alt="A" height="2"></p>"#,
    );
    case(
        r#"<p><a href="a.html" title="T" rel="x">a</a></p>"#,
        &["clean.allow-attributes=href"],
        r#"<p><a href="a.html">a</a></p>"#,
    );
    case(r#"<p lang="la" dir="ltr">a</p>"#, &["clean.remove-attributes=lang"], r#"<p dir="ltr">a</p>"#);
    case(r#"<ol start="3" type="a"><li>a</ol>"#, &["clean.remove-attributes=ol.type"], "<ol start=\"3\">\n<li>a</li>\n</ol>");
}

#[test]
fn passes_one_by_one() {
    case("<p>· a</p><p>· b</p>", &["clean.lists=typed"], "<ul>\n<li>a</li>\n<li>b</li>\n</ul>");
    case("<p>1. a</p><p>2. b</p><p>3. c</p>", &["clean.lists=typed"], "<ol>\n<li>a</li>\n<li>b</li>\n<li>c</li>\n</ol>");
    case("<p>a) x</p><p>b) y</p>", &["clean.lists=typed"], "<ol type=\"a\">\n<li>x</li>\n<li>y</li>\n</ol>");
    case(
        "<p>- a</p><p>text</p><p>- b</p>",
        &["clean.lists=typed"],
        "<ul>\n<li>a</li>\n</ul>\n<p>text</p>\n<ul>\n<li>b</li>\n</ul>",
    );
    case("<p>1986. A year</p>", &["clean.lists=typed"], "<p>1986. A year</p>");
    case(
        r#"<table width="100%"><tr><td><p>left</p><td><p>right</p></table>"#,
        &["clean.layout-tables=true"],
        "<table>\n<tbody>\n<tr>\n<td>\n<p>left</p>\n</td>\n<td>\n<p>right</p>\n</td>\n</tr>\n</tbody>\n</table>",
    );
    case(
        "<table border=1><tr><th>a<tr><td>b</table>",
        &["clean.layout-tables=true"],
        "<table>\n<tbody>\n<tr>\n<th>a</th>\n</tr>\n<tr>\n<td>b</td>\n</tr>\n</tbody>\n</table>",
    );
    case(
        r#"<p><a href="https://www.counter.example/url?q=https://greywick.example/&sa=D">a</a> <a href="https://greywick.example/?utm_source=x&id=2">b</a></p>"#,
        &["clean.redirects=true"],
        r#"<p><a href="https://greywick.example/">a</a> <a href="https://greywick.example/?id=2">b</a></p>"#,
    );
    case(
        r#"<p><a href="https://greywick.example/?utm_source=x">a</a></p>"#,
        &[],
        r#"<p><a href="https://greywick.example/?utm_source=x">a</a></p>"#,
    );
    case(r#"<p>a <ins cite="x">b</ins><del cite="x">c</del></p>"#, &["clean.revisions=reject"], "<p>a c</p>");
    case(
        r#"<p>a <ins cite="x">b</ins><del cite="x">c</del></p>"#,
        &["clean.revisions=keep"],
        r#"<p>a <ins cite="x">b</ins><del cite="x">c</del></p>"#,
    );
    case("<h2></h2><p>a</p>", &["clean.empty=always"], "<p>a</p>");
    case(r#"<p>a<span id="x"></span></p>"#, &["clean.anchors=always"], "<p>a</p>");
    case("<p><b>a</b><b>b</b></p>", &["clean.formatting=always"], "<p><strong>ab</strong></p>");
    case("<p>a&nbsp;&nbsp;b\u{200B}c</p>", &["clean.white-space=always"], "<p>a bc</p>");
    case("<ul><li><p>a</p></ul>", &["clean.lone-paragraphs=always"], "<ul>\n<li>a</li>\n</ul>");
    case(
        "<table><tr><td><b>a</b><tr><td>b</table>",
        &["clean.table-heads=always"],
        "<table>\n<tbody>\n<tr>\n<td><strong>a</strong></td>\n</tr>\n<tr>\n<td>b</td>\n</tr>\n</tbody>\n</table>",
    );
    case("<p>a</p><p>&nbsp;</p>", &["clean.spacers=false"], "<p>a</p>\n<p>&nbsp;</p>");
}

#[test]
fn manuscripts_have_a_structure() {
    manuscript("One paragraph\nof two lines.\n\nAnother.", "<p>One paragraph<br>\nof two lines.</p>\n<p>Another.</p>");
    manuscript(
        "THE TIDES\n\nby Maren Tolliver\n\nChapter 1\n\nIt was low.",
        "<h1>THE TIDES</h1>\n<p>by Maren Tolliver</p>\n<h2>Chapter 1</h2>\n<p>It was low.</p>",
    );
    manuscript("Tides\n=====\n\nLow\n---\n\ntext", "<h1>Tides</h1>\n<h2>Low</h2>\n<p>text</p>");
    manuscript("- a\n- b\n  c\n\nd", "<ul>\n<li>a</li>\n<li>b c</li>\n</ul>\n<p>d</p>");
    manuscript("1. a\n2. b\n\n3. c", "<ol>\n<li>a</li>\n<li>b</li>\n<li>c</li>\n</ol>");
    manuscript("a) x\nb) y", "<ol type=\"a\">\n<li>x</li>\n<li>y</li>\n</ol>");
    manuscript("* * *", "<hr>");
    manuscript("a\n\n***\n\nb", "<p>a</p>\n<hr>\n<p>b</p>");
    manuscript("> quoted\n> more", "<blockquote>\n<p>quoted</p>\n<p>more</p>\n</blockquote>");
    manuscript(
        "See https://greywick.example/ and keeper@greywick.example.",
        r#"<p>See <a href="https://greywick.example/">https://greywick.example/</a> and <a href="mailto:keeper@greywick.example">keeper@greywick.example</a>.</p>"#,
    );
    manuscript("_low_ words", "<p><em>low</em> words</p>");
    manuscript(
        "Roses are red\nViolets are blue\nA short verse\nFor you",
        "<p>Roses are red</p>\n<p>Violets are blue</p>\n<p>A short verse</p>\n<p>For you</p>",
    );
    manuscript(
        "Name      High\nPier      3.9\nQuay      4.1",
        "<pre><code>Name      High\nPier      3.9\nQuay      4.1\n</code></pre>",
    );
    manuscript("PART TWO\n\nPrologue\n\ntext", "<h1>PART TWO</h1>\n<h2>Prologue</h2>\n<p>text</p>");
    manuscript("“Quoted,” she said.", "<p>“Quoted,” she said.</p>");
    manuscript("a\tb\tc", "<p>a\tb\tc</p>");
    manuscript("<b>not markup</b> & more", "<p>&lt;b&gt;not markup&lt;/b&gt; &amp; more</p>");
    manuscript("• a\n• b\n    ◦ c", "<ul>\n<li>a</li>\n<li>b\n<ul>\n<li>c</li>\n</ul>\n</li>\n</ul>");
    manuscript("(1) a\n(2) b", "<ol>\n<li>a</li>\n<li>b</li>\n</ol>");
    manuscript("I. a\nII. b\nIII. c", "<ol type=\"I\">\n<li>a</li>\n<li>b</li>\n<li>c</li>\n</ol>");
}

#[test]
fn parts_are_left_out_by_selectors() {
    let source = "<h1>Log</h1><p class=draft>a</p><aside><p>b</p></aside><p id=x>c <a href=#y>to y</a></p>\
        <h2 id=y>Pay (and more)</h2><p>d</p><h3>Deep</h3><p>e</p><h2>End</h2><table><tr><td>f<td class=draft>g</table>";
    let left = |selectors: &str| {
        let done = convert(source, Format::Html, Format::Html, &[&format!("clean.leave-out={selectors}")]);
        let told = done.findings.iter().filter(|finding| finding.code == "clean.leave-out").count();
        (done.text().unwrap().replace('\n', ""), told)
    };
    let whole = "<h1>Log</h1><p>a</p><aside><p>b</p></aside><p id=\"x\">c <a href=\"#y\">to y</a></p>\
        <h2 id=\"y\">Pay (and more)</h2><p>d</p><h3>Deep</h3><p>e</p><h2>End</h2>\
        <table><tbody><tr><td>f</td><td>g</td></tr></tbody></table>";
    // Classes that are read for selectors are not written; what fits nothing is told.
    assert_eq!(left(".nothing"), (whole.to_owned(), 1));
    assert_eq!(left(""), (whole.to_owned(), 0));
    let (html, told) = left("section(pay*), aside > p, td.draft");
    let expected =
        "<h1>Log</h1><p>a</p><p id=\"x\">c to y</p><h2>End</h2><table><tbody><tr><td>f</td><td></td></tr></tbody></table>";
    assert_eq!((html.as_str(), told), (expected, 2));
    assert_eq!(left("section(#y)").0, left("section(Pay (and more))").0);
    assert_eq!(left("h1, p, h2, h3, aside p, table > td").0, left("h1, p, h2, h3").0);
    assert!(left("table td").0.contains("<td></td><td></td>"));
    assert_eq!(left("[id=x], a[href='#y']").0, whole.replace("<p id=\"x\">c <a href=\"#y\">to y</a></p>", ""));
    assert_eq!(left("section(*)").0, "");
}

#[test]
fn leaving_out_works_in_every_format_and_takes_notes_along() {
    let markdown = "# A\n\nb[^1]\n\n<div class=\"client\">\n\nc[^2]\n\n</div>\n\n## D\n\nd[^2]\n\n[^1]: one\n[^2]: two\n";
    let done = convert(markdown, Format::Markdown, Format::Markdown, &["clean.leave-out=.client, section(#d)"]);
    assert_eq!(done.text().unwrap(), "# A\n\nb[^1]\n\n[^1]: one\n");
    assert_eq!(done.findings.iter().map(|found| found.lost.as_str()).collect::<Vec<_>>(), ["c\nD\nd"]);
    let text = convert("Alpha\n=====\n\nb\n\nCeta\n====\n\nd\n", Format::Text, Format::Html, &["clean.leave-out=section(Ceta)"])
        .into_text()
        .unwrap();
    assert_eq!(text, "<h1>Alpha</h1>\n<p>b</p>\n");
}

#[test]
fn settings_in_a_wrong_form_are_errors() {
    for (setting, entry) in [
        ("clean.remove-elements=[\"aside > p\"]", "aside > p"),
        ("clean.remove-elements=p, .note", ".note"),
        ("clean.allow-attributes=[href]", "[href]"),
        ("clean.rename-elements=p = span", "p = span"),
        ("clean.rename-elements=strong = bolder", "strong = bolder"),
        ("clean.classes=.note = tip", ".note = tip"),
        ("clean.leave-out=p:first-child", "p:first-child"),
        ("clean.leave-out=a > > b", "a > > b"),
        ("clean.leave-out=section(a", "section(a"),
        ("page.language=in English", "in English"),
        ("html.encoding=latin-nine", "latin-nine"),
        ("site.address=tides", "tides"),
        ("images.folder=../pictures", "../pictures"),
    ] {
        let mut profile = obblet::profile::Profile::default();
        let error = profile.set(setting).unwrap_err().to_string();
        assert!(error.contains(&format!("can't be {entry:?}; it may be: ")), "{error}");
    }
    let mut profile = obblet::profile::Profile::default();
    profile.set("page.title=\"High, and low\"").unwrap();
    profile.set("shape='fragment'").unwrap();
    assert_eq!((profile.page.title.as_str(), profile.shape), ("High, and low", obblet::profile::Shape::Fragment));
}

#[test]
fn headings_that_are_not_accepted_follow_the_rule_for_bold_text() {
    let rule = |bold: &str, expected: &str| case("<h2>Low tide</h2>", &["clean.allow-elements=p, b", bold], expected);
    rule("clean.bold=keep", "<p><b>Low tide</b></p>");
    rule("clean.bold=remove", "<p>Low tide</p>");
    rule("clean.bold=capitals", "<p>LOW TIDE</p>");
}

#[test]
fn two_line_breaks_are_a_new_paragraph_wherever_text_stands() {
    case("<p>a<br><br>b</p>", &[], "<p>a</p>\n<p>b</p>");
    case(
        "<table><tr><td>a<br> <br>b<td>c<br>d</table>",
        &["html.compact=true"],
        "<table><tbody><tr><td><p>a</p><p>b</p></td><td>c<br>d</td></tr></tbody></table>",
    );
    case("<blockquote>a<br><br>b</blockquote>", &["html.compact=true"], "<blockquote><p>a</p><p>b</p></blockquote>");
}

#[test]
fn code_is_in_no_language() {
    case(
        "<p style='a:b' lang=en>a</p><table><tr><td lang=en><code>x = 1</code><td lang=de>Ebbe <code>y</code></table>",
        &["html.compact=true"],
        "<p lang=\"en\">a</p><table><tbody><tr><td><code>x = 1</code></td><td>Ebbe <code>y</code></td></tr></tbody></table>",
    );
}
