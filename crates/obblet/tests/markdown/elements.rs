//! Every element in Markdown: what it becomes, and that the page that is made of it again is the page that was.
#![allow(missing_docs, clippy::unwrap_used, clippy::panic, clippy::print_stderr, reason = "tests")]

use crate::support;

use obblet::Format;
use support::convert::convert;

fn converted(source: &str, reads: Format, writes: Format) -> String {
    convert(source.as_bytes(), reads, writes, &["html.compact=true"]).into_text().unwrap()
}

/// What Markdown cannot say in full.
#[track_caller]
fn nearly(html: &str, markdown: &str) {
    assert_eq!(converted(html, Format::Html, Format::Markdown), markdown, "{html}");
    // It says what it can in one way.
    assert_eq!(converted(markdown, Format::Markdown, Format::Markdown), markdown, "{html}");
}

#[track_caller]
fn case(html: &str, markdown: &str) {
    nearly(html, markdown);
    assert_eq!(converted(markdown, Format::Markdown, Format::Html), converted(html, Format::Html, Format::Html), "{html}");
}

#[test]
fn emphasis_and_what_stands_beside_it() {
    case("<p>a<b>b</b>c <b>b</b>c a<b>b</b> <i>i</i>", "a**b**c **b**c a**b** *i*\n");
    nearly("<p><b>a </b>b<b> c</b>d <i>e, </i>f", "**a** b **c**d *e,* f\n");
    case("<p>a<b>(b)</b>c a<i>“b”</i>c", "a<strong>(b)</strong>c a<em>“b”</em>c\n");
    case(
        "<p><b><i>both</i></b> <i><b>b</b> i</i> <b>b <i>i</i></b> <b><i>b</i> b</b>",
        "**_both_** ***b** i* **b *i*** ***b* b**\n",
    );
    case("<p><b>a</b><b>b</b> <i>a</i><b>b</b> <i>c</i><i>d</i>", "**a**__b__ *a*__b__ *c*_d_\n");
    case(
        "<p><span style=\"font-weight:bold\">a</span> <span style=\"font-style:italic\">b</span> <span style=\"text-decoration:underline\">c</span>",
        "**a** *b* <u>c</u>\n",
    );
    case("<p>א<b>ב</b>ג 水<b>位</b>表 水<b>「位」</b>表", "א**ב**ג 水**位**表 水<strong>「位」</strong>表\n");
    case("<p><b>*</b> <i>_</i> <b>a*</b>b", "**\\*** *\\_* <strong>a\\*</strong>b\n");
    case("<p><i>a</i>b<i>c</i> a<i>b</i>c<i>d</i>e", "*a*b*c* a*b*c*d*e\n");
}

#[test]
fn elements_with_and_without_a_mark() {
    case(
        "<p><code>a`b</code> <code>``</code> <code> a </code> <code>`</code> <code></code> <code>a  b</code>",
        "``a`b`` ` `` ` `  a  ` `` ` `` `a  b`\n",
    );
    case(
        "<p><kbd>Ctrl</kbd>+<samp>out</samp> <var>x</var> <q>said</q> <cite>Book</cite> <dfn>term</dfn> <abbr title=\"Tide gauge\">TG</abbr> <small>s</small>",
        "<kbd>Ctrl</kbd>+<samp>out</samp> <var>x</var> <q>said</q> <cite>Book</cite> <dfn>term</dfn> <abbr title=\"Tide gauge\">TG</abbr> <small>s</small>\n",
    );
    nearly(
        "<p>H<sub>2</sub>O x<sup>2</sup> <u>u</u> <s>s</s> <del>d</del> <ins>i</ins> <mark>m</mark>",
        "H<sub>2</sub>O x<sup>2</sup> <u>u</u> ~~s~~ ~~d~~ <ins>i</ins> <mark>m</mark>\n",
    );
    case("<pre>a <b>b</b> <a href=\"x\">c</a></pre>", "<pre>a <strong>b</strong> <a href=\"x\">c</a></pre>\n");
    nearly("<math><mi>x</mi><mo>=</mo><mn>1</mn></math>", "$x = 1$\n");
    case(
        "<ruby>漢<rt>kan</rt></ruby> <bdo dir=rtl>x</bdo> <time datetime=\"2031-02-01\">today</time>",
        "<ruby>漢<rt>kan</rt></ruby> <bdo dir=\"rtl\">x</bdo> <time datetime=\"2031-02-01\">today</time>\n",
    );
    nearly("<p dir=rtl>a<p lang=de>b<p id=x>c<p class=y>d", "<p dir=\"rtl\">a</p>\n\n<p lang=\"de\">b</p>\n\nc\n\nd\n");
}

#[test]
fn links_and_pictures() {
    case(
        "<p><a href=\"a b.html\">x</a> <a href=\"a(b).html\" title='q\"q'>x</a> <a href=\"\">x</a> <a href=\"#p\">x</a> <a href=\"https://x.example/\">https://x.example/</a> <a href=\"mailto:a@b.example\">a@b.example</a>",
        "[x](<a b.html>) [x](a(b).html \"q\\\"q\") [x]() [x](#p) <https://x.example/> <a@b.example>\n",
    );
    case(
        "<p><a href=\"x\"><b>a</b> b</a> <b><a href=\"x\">a</a></b> <a href=\"x\"><img src=\"i.png\" alt=\"i\"></a> <a href=\"x\"></a>",
        "[**a** b](x) **[a](x)** [![i](i.png)](x)[](x)\n",
    );
    case(
        "<p><img src=\"i.png\" alt=\"a [b] *c*\" title=\"t\"> <img src=\"a b.png\" alt=\"\"> <img alt=\"no source\">",
        "![a \\[b\\] \\*c\\*](i.png \"t\") ![](<a b.png>) ![no source]()\n",
    );
    case("<p>!<a href=\"x\">y</a> a!<img src=i.png alt=j>", "\\![y](x) a!![j](i.png)\n");
    case("<h1><a href=\"x\">a</a></h1><h2><img src=i.png alt=j></h2>", "# [a](x)\n\n## ![j](i.png)\n");
    case("<p><a href=\"x\">a\nb</a> <em>c\nd</em>", "[a b](x) *c d*\n");
    case(
        "<iframe src=\"https://v.example/\"></iframe><video src=\"v.mp4\"></video><audio src=\"a.mp3\" controls></audio>",
        "<https://v.example/>[v.mp4](v.mp4)[a.mp3](a.mp3)\n",
    );
}

#[test]
fn lines_and_white_space() {
    case("<p>one<br>two<br><br>three", "one\\\ntwo\n\nthree\n");
    case("<p>a<!-- c -->b<wbr>c&shy;d&nbsp;e&#8203;f", "abc&shy;d&nbsp;e&#x200B;f\n");
    case("<p>  a   b\nc  </p>  d  <p></p><p>&nbsp;</p>", "a b c\n\nd\n");
    case(
        "<p>line one\nline two\n- not a list\n# nor a heading\n1. nor this",
        "line one line two - not a list # nor a heading 1. nor this\n",
    );
}

#[test]
fn headings_paragraphs_and_rules() {
    case(
        "<h1>a b</h1><h2>c <em>d</em></h2><h6>e</h6><h3></h3><h4># f</h4>",
        "# a b\n\n## c *d*\n\n###### e\n\n###\n\n#### # f\n",
    );
    case("<hr><p>a<hr>", "***\n\na\n\n---\n");
    nearly("<div><p>a</div><section><h2>b</h2><p>c</section><aside><p>d</aside>", "a\n\n## b\n\nc\n\nd\n");
    case("<p>a</p>text<p>b</p><b>bold at top</b>", "a\n\ntext\n\nb\n\n**bold at top**\n");
    nearly(
        "<address>A<br>B</address><menu><li>m</menu><center>c</center><font color=red>r</font><tt>t</tt>",
        "A\\\nB\n\n- m\n\nc\n\nr`t`\n",
    );
}

#[test]
fn lists() {
    nearly("<ul><li>a<li>b<ul><li>c</ul><li><p>d<p>e</ul>", "- a\n\n- b\n\n  - c\n\n- d\n\n  e\n");
    case("<ol start=5><li>a<li>b</ol><ol><li>c</ol>", "5. a\n6. b\n\n1) c\n");
    nearly("<ol reversed><li>a</ol><ol type=a><li>b</ol>", "1. a\n\n1) b\n");
    nearly(
        "<ul><li><h3>h</h3>t</li><li><pre>code</pre></li><li><blockquote>q</blockquote></li><li><table><tr><td>1</table></li></ul>",
        "- ### h\n  t\n- ```\n  code\n  ```\n- > q\n- 1\n",
    );
    case("<ul><li></li><li>a</li><li><ul><li>b</ul></li></ul>", "-\n- a\n- - b\n");
    case("<ul><li><input type=checkbox checked> done<li><input type=checkbox> not</ul>", "- [x] done\n- [ ] not\n");
    case("<ul><li>a</ul><ul><li>b</ul><p>c<ul><li>d</ul><pre>e</pre>", "- a\n\n* b\n\nc\n\n- d\n\n```\ne\n```\n");
    nearly("<ul><li><p>a</p><ul><li><p>b</p></li></ul></li></ul>", "- a\n\n  - b\n");
    case("<ol><li>a<pre>b</pre>c<li>d</ol>", "1. a\n   ```\n   b\n   ```\n   c\n2. d\n");
}

#[test]
fn quotes_and_code() {
    nearly("<blockquote><p>a<p>b<ul><li>c</ul></blockquote><blockquote>d</blockquote>", "> a\n>\n> b\n>\n> - c\n\n> d\n");
    case(
        "<pre>a\n\n  b\n</pre><pre><code class=\"language-rust\">fn a() {}\n```\n</code></pre>",
        "```\na\n\n  b\n```\n\n````rust\nfn a() {}\n```\n````\n",
    );
}

#[test]
fn tables_and_captions() {
    nearly(
        "<table><thead><tr><th>a<th align=right>b<tbody><tr><td>c|d<td><b>e</b><br>f</table>",
        "| a    |          b |\n| ---- | ---------: |\n| c\\|d | **e**<br>f |\n",
    );
    nearly("<table><tr><td>a<td>b<tr><td>c<td>d</table>", "|     |     |\n| --- | --- |\n| a   | b   |\n| c   | d   |\n");
    nearly("<table><caption>cap</caption><tr><th>a<tr><td>b</table>", "cap\n\n| a   |\n| --- |\n| b   |\n");
    case(
        "<table><tr><th colspan=2>a<tr><td>b<td>c</table>",
        "<table>\n<tbody>\n<tr>\n<th colspan=\"2\">a</th>\n</tr>\n<tr>\n<td>b</td>\n<td>c</td>\n</tr>\n</tbody>\n</table>\n",
    );
    case(
        "<table><tr><td><ul><li>a</ul><td><pre>x</pre></table>",
        "<table>\n<tbody>\n<tr>\n<td>\n<ul>\n<li>a</li>\n</ul>\n</td>\n<td>\n<pre><code>x\n</code></pre>\n</td>\n</tr>\n</tbody>\n</table>\n",
    );
    nearly("<table><tr><td>a<td><tr><td><td>d</table>", "|     |     |\n| --- | --- |\n| a   |     |\n|     | d   |\n");
    case(
        "<figure><img src=\"i.png\" alt=\"i\"><figcaption>c <b>d</b></figcaption></figure>",
        "<figure>\n<img src=\"i.png\" alt=\"i\">\n<figcaption>c <strong>d</strong></figcaption>\n</figure>\n",
    );
    case(
        "<figure><table><tr><th>a<tr><td>b</table><figcaption>c</figcaption></figure>",
        "<figure>\n<table>\n<tbody>\n<tr>\n<th>a</th>\n</tr>\n<tr>\n<td>b</td>\n</tr>\n</tbody>\n</table>\n<figcaption>c</figcaption>\n</figure>\n",
    );
}

#[test]
fn blocks_that_only_html_has() {
    case(
        "<dl><dt>a<dd>b<dd>c<dt>d<dt>e<dd><p>f<p>g</dl>",
        "<dl>\n<dt>a</dt>\n<dd>b</dd>\n<dd>c</dd>\n<dt>d</dt>\n<dt>e</dt>\n<dd>\n<p>f</p>\n<p>g</p>\n</dd>\n</dl>\n",
    );
    case("<details><summary>s</summary><p>a</details>", "<details>\n<summary>s</summary>\n\na\n\n</details>\n");
    case(
        "<details open><summary>s <b>t</b></summary><ul><li>a</ul></details>",
        "<details open>\n<summary>s <strong>t</strong></summary>\n\n- a\n\n</details>\n",
    );
}

#[test]
fn notes() {
    case(
        "<p>a<sup><a href=\"#n1\" id=\"r1\">1</a></sup></p><ol><li id=\"n1\">note <a href=\"#r1\">back</a></li></ol>",
        "a[^1]\n\n[^1]: note\n",
    );
    case(
        "<p>a<a href=\"#fn1\" role=\"doc-noteref\">1</a></p><section role=\"doc-endnotes\"><ol><li id=\"fn1\"><p>note</p><p>more</p></li></ol></section>",
        "a[^1]\n\n[^1]: note\n\n    more\n",
    );
}

#[test]
fn characters_that_would_mean_something() {
    case(
        "<p>a_b_c *d* 2*3*4 __init__ snake_case ~x~ ~~y~~ `z`",
        "a_b_c \\*d\\* 2\\*3\\*4 \\_\\_init\\_\\_ snake_case \\~x\\~ \\~\\~y\\~\\~ \\`z\\`\n",
    );
    case("<p>[a] [a]: b ![c] [^d] <p>[a]: /url \"t\"", "[a] [a\\]\\: b ![c] \\[^d]\n\n[a\\]\\: /url \"t\"\n");
    case(
        "<p>&lt;div&gt; &lt;a@b.example&gt; &amp;copy; &copy; \\ \\\\ \\* a\\",
        "\\<div> \\<a\\@b.example> \\&copy; © \\ \\\\\\ \\\\\\* a\\\\\n",
    );
    case(
        "<p>+ a<p>* b<p>- c<p>1. d<p>2) e<p>> f<p># g<p>#h<p>```<p>~~~<p>| a | b |<p>    x<p>***<p>= a<p>a<br>===",
        "\\+ a\n\n\\* b\n\n\\- c\n\n1\\. d\n\n2\\) e\n\n\\> f\n\n\\# g\n\n#h\n\n\\`\\`\\`\n\n\\~\\~\\~\n\n| a | b |\n\nx\n\n\\*\\*\\*\n\n= a\n\na\\\n\\===\n",
    );
    case(
        "<p>$5 and $6, $x$ <p>a:b http://x.example www.x.example a@b.example",
        "\\$5 and \\$6, \\$x\\$\n\na:b http\\://x.example www\\.x.example a\\@b.example\n",
    );
}
