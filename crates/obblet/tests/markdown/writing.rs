//! Markdown as a careful person writes it, and with the marks that a profile asks for.
#![allow(missing_docs, clippy::unwrap_used, clippy::panic, clippy::print_stderr, reason = "tests")]

use crate::support;

use obblet::Format;
use support::convert::convert;

/// HTML, or Markdown where the source has no tag at its start, as Markdown with some settings.
#[track_caller]
fn case(settings: &[&str], source: &str, expected: &str) {
    let reads = if source.starts_with('<') { Format::Html } else { Format::Markdown };
    let converted = convert(source.as_bytes(), reads, Format::Markdown, settings);
    assert_eq!(converted.text().unwrap(), expected, "{source} with {settings:?}");
}

#[test]
fn only_what_would_mean_something_is_escaped() {
    for plain in [
        "2 * 3 = 6 and a_b_c, 5 < 6 & 7 > 4\n",
        "snake_case_name, a [bracket] and (parentheses), R&D, 50 %\n",
        "1986 was a year. So was 1987.\n",
        "+1, -1, #1 and 3) are no lists\n",
        "It costs $5.\n",
        "~ about 5, a!\n",
    ] {
        case(&[], plain, plain);
    }
    case(&[], "<p>1. a<p>- b<p># c<p>&gt; d<p>+ e<p>===<p>---", "1\\. a\n\n\\- b\n\n\\# c\n\n\\> d\n\n\\+ e\n\n===\n\n\\---\n");
    case(&[], "<p>*a* _b_ `c` [d](e) &lt;f&gt; &amp;amp; \\*", "\\*a\\* \\_b\\_ \\`c\\` [d\\](e) \\<f> \\&amp; \\\\\\*\n");
    case(&[], "<p>a http://b.example www.c.example d@e.example", "a http\\://b.example www\\.c.example d\\@e.example\n");
    case(&["markdown.dialect=commonmark"], "<p>a http://b.example ~~c~~ $d$ e$", "a http://b.example ~~c~~ $d$ e$\n");
    case(&[], "<h2>a #</h2>", "## a \\#\n");
    case(&[], "<p>$a and $b", "\\$a and \\$b\n");
    case(&[], "<p>&nbsp;a&shy;b", "&nbsp;a&shy;b\n");
}

#[test]
fn marks_are_what_the_profile_says() {
    let source = "# a\n\n## b *c* **d**\n\n- e\n- f\n\n```x\ng\n```\n\n[h](i \"j\")\n";
    case(&[], source, source);
    case(
        &[
            "markdown.bullet=asterisk",
            "markdown.emphasis=underscore",
            "markdown.fence=tildes",
            "markdown.headings=setext",
            "markdown.links=reference",
        ],
        source,
        "a\n===\n\nb _c_ **d**\n-----------\n\n* e\n* f\n\n~~~x\ng\n~~~\n\n[h][1]\n\n[1]: i \"j\"\n",
    );
    case(&["markdown.bullet=plus"], "- a\n\n  - b\n", "+ a\n\n  + b\n");
    case(&["markdown.links=reference"], "[a](x) [b](y) [c](x)", "[a][1] [b][2] [c][1]\n\n[1]: x\n[2]: y\n");
}

#[test]
fn lines_are_as_long_as_the_profile_says() {
    let source = "> - one two three *four five* six [seven eight](nine) `ten eleven`\n";
    case(&["markdown.width=24"], source, "> - one two three *four\n>   five* six [seven\n>   eight](nine)\n>   `ten eleven`\n");
    case(&["markdown.width=18"], "one two three\nfour - five", "one two three four\n\\- five\n");
    case(&["markdown.line-ends=break"], "<p>one\ntwo<br>three", "one two\\\nthree\n");
    case(&[], "one two\nthree\\\nfour", "one two three\\\nfour\n");
}

#[test]
fn blocks_stand_apart_where_they_would_run_together() {
    case(&[], "<ul><li>a</ul><ul><li>b</ul><ol><li>c</ol><ol><li>d</ol>", "- a\n\n* b\n\n1. c\n\n1) d\n");
    case(
        &[],
        "<ul><li><hr><li><pre>x</pre><li><h3>y</h3><li><blockquote>z</blockquote></ul>",
        "- ***\n- ```\n  x\n  ```\n- ### y\n- > z\n",
    );
    case(
        &[],
        "<blockquote><p>a</blockquote><p>b<blockquote><p>c</blockquote><blockquote><p>d</blockquote>",
        "> a\n\nb\n\n> c\n\n> d\n",
    );
    case(&[], "<ol start=9><li><p>a<p>b<li><p>c</ol>", "9. a\n\n   b\n\n10. c\n");
    // Only a list that begins with 1, and with an item that is not empty, may stand right below a line.
    case(&[], "<ol><li>a<ol><li>b</ol></ol>", "1. a\n   1. b\n");
    case(&[], "<ol><li>a<ol start=2><li>b</ol></ol>", "1. a\n\n   2. b\n");
    case(&[], "<ul><li>a<ul><li></li><li>b</ul></ul>", "- a\n\n  -\n  - b\n");
    case(&[], "<ul><li>a<ul><li><img src=b alt></ul></ul>", "- a\n  - ![](b)\n");
    case(&[], "<pre><code>```\na\n```</code></pre>", "````\n```\na\n```\n````\n");
    case(&[], "<p>a<code>`b``</code><code> c </code>", "a``` `b`` ```<!-- -->`  c  `\n");
}

#[test]
fn what_markdown_can_not_say_is_html_or_told() {
    let source = "<p>a<sub>1</sub> <u>b</u> <abbr title='C \"D\"'>c</abbr></p><dl><dt>e<dd>f</dl>";
    case(&[], source, "a<sub>1</sub> <u>b</u> <abbr title=\"C &quot;D&quot;\">c</abbr>\n\n<dl>\n<dt>e</dt>\n<dd>f</dd>\n</dl>\n");
    case(&["markdown.html=drop"], source, "a1 b c\n\n**e**\n\nf\n");
    case(&[], "<p lang=la dir=ltr>a <i>b</i></p>", "<p lang=\"la\" dir=\"ltr\">a <em>b</em></p>\n");
    case(&[], "<div dir=rtl><p>a</p></div>", "<div dir=\"rtl\">\n\na\n\n</div>\n");
    case(&[], "<p id=x class=y>a</p>", "a\n");
    case(&["markdown.ids=true"], "<p id=x>a <span id=z>b</span></p>", "<p id=\"x\">a <span id=\"z\">b</span></p>\n");
    case(
        &[],
        "<details open><summary>a <b>b</b></summary><p>c</p></details>",
        "<details open>\n<summary>a <strong>b</strong></summary>\n\nc\n\n</details>\n",
    );
    case(&[], "<h2 id=there>Over there</h2><p><a href='#there'>a</a>", "## Over there\n\n[a](#over-there)\n");
    let told =
        convert(b"<table><tr><td rowspan=2>a<td>b<tr><td>c</table>", Format::Html, Format::Markdown, &["markdown.html=drop"]);
    assert!(told.findings.iter().any(|found| found.code == "markdown.no-syntax" && found.message.contains("merged cells")));
}

#[test]
fn metadata_is_front_matter_where_the_text_does_not_say_it() {
    let page = |head: &str, body: &str| format!("<!DOCTYPE html><html><head>{head}</head><body>{body}");
    case(&[], &page("<title>A</title>", "<h1>A</h1>"), "# A\n");
    case(
        &[],
        &page(
            "<title>A: b</title><meta name=author content='C'><meta name=author content='D, E'><meta name=keywords content='f,g'>",
            "<p>h",
        ),
        "---\ntitle: \"A: b\"\nauthors: [C, \"D, E\"]\nkeywords: [f, g]\n---\n\nh\n",
    );
    case(&["markdown.front-matter=false"], &page("<title>A</title>", "<p>b"), "b\n");
}
