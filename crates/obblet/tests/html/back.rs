//! HTML as Markdown, and as text: every way in which characters, marks and blocks could be misread.
#![allow(missing_docs, clippy::unwrap_used, clippy::panic, reason = "tests")]

use obblet::Format;
use obblet::profile::Profile;

#[track_caller]
fn written(source: &str, format: Format, expected: &str) -> String {
    let text = obblet::convert(source.as_bytes(), Format::Html, format, &Profile::default()).unwrap().into_text().unwrap();
    assert_eq!(text.trim_end_matches('\n'), expected, "{source}");
    text
}

/// The Markdown of a piece of HTML, whose own HTML comes back from Markdown as it was.
#[track_caller]
fn markdown(source: &str, expected: &str) {
    let text = written(source, Format::Markdown, expected);
    let fragment = Profile::built_in("fragment").unwrap();
    let html =
        |text: &str| obblet::convert(text.as_bytes(), Format::Markdown, Format::Html, &fragment).unwrap().into_text().unwrap();
    let first = html(&text);
    let back =
        obblet::convert(first.as_bytes(), Format::Html, Format::Markdown, &Profile::default()).unwrap().into_text().unwrap();
    assert_eq!(
        html(&back),
        first,
        "{source}
{text}
{back}"
    );
}

#[track_caller]
fn text(source: &str, expected: &str) {
    written(source, Format::Text, expected);
}

#[test]
fn characters_that_could_mean_something() {
    markdown("<p>plain</p>", "plain");
    markdown("<p>2 * 3 and a*b*c</p>", r"2 * 3 and a\*b\*c");
    markdown("<p>snake_case and _x_</p>", r"snake_case and \_x\_");
    markdown("<p>[not a link](x)</p>", r"[not a link\](x)");
    markdown("<p>a [b]: c</p>", r"a [b\]: c");
    markdown("<p>[label]: not a definition</p>", r"[label\]\: not a definition");
    markdown("<p># no heading</p>", r"\# no heading");
    markdown("<p>1. no list</p>", r"1\. no list");
    markdown(r"<p>1986\. A year</p>", r"1986\\. A year");
    markdown("<p>- no item</p>", r"\- no item");
    markdown("<p>+ no item</p>", r"\+ no item");
    markdown("<p>&gt; no quote</p>", r"\> no quote");
    markdown("<p>a<br>- b</p>", "a\\\n\\- b");
    markdown("<p>=== </p>", "===");
    markdown("<p>a<br>===</p>", "a\\\n\\===");
    markdown("<p>--- </p>", r"\---");
    markdown("<p>```</p>", r"\`\`\`");
    markdown("<p>~~~</p>", r"\~\~\~");
    markdown("<p>|a|b|</p>", "|a|b|");
    markdown("<p>`tick`</p>", r"\`tick\`");
    markdown("<p>a ` b</p>", r"a \` b");
    markdown("<p>&amp;amp; and AT&amp;T</p>", r"\&amp; and AT&T");
    markdown("<p>&lt;b&gt;</p>", r"\<b>");
    markdown("<p>a &lt; b</p>", "a < b");
    markdown(r"<p>C:\dir\*</p>", r"C:\dir\\\*");
    markdown(r"<p>trail\</p>", r"trail\\");
    markdown(r#"<p>a!<a href="x">b</a></p>"#, r"a\![b](x)");
    markdown("<p>![x]</p>", "![x]");
    markdown("<p>https://greywick.example/a_b</p>", r"https\://greywick.example/a_b");
    markdown("<p>www.greywick.example</p>", r"www\.greywick.example");
    markdown("<p>keeper@greywick.example</p>", r"keeper\@greywick.example");
    markdown("<p>~~no~~ and ~a~</p>", r"\~\~no\~\~ and \~a\~");
    markdown("<p>cost $5 and $6</p>", r"cost \$5 and \$6");
    markdown("<p>a&nbsp;b</p>", "a&nbsp;b");
    markdown("<p>a\u{AD}b</p>", "a&shy;b");
    markdown("<p>*</p>", r"\*");
    markdown("<p>#hash</p>", "#hash");
    markdown("<p>2) x</p>", r"2\) x");
    markdown("<p>a\nb</p>", "a b");
    markdown("<p>[^1] is no note</p>", r"\[^1] is no note");
    markdown("<p>[ ] no task</p>", r"\[ ] no task");
    markdown("<p>:---:</p>", r"\:---:");
    markdown("<p>漢字*と*かな</p>", r"漢字\*と\*かな");
}

#[test]
fn marks_where_readers_see_them() {
    markdown("<p><em>a</em> <strong>b</strong></p>", "*a* **b**");
    markdown("<p><em><strong>a</strong></em></p>", "*__a__*");
    markdown("<p><strong><em>a</em> b</strong></p>", "***a* b**");
    markdown("<p><strong>a <em>b</em></strong></p>", "**a *b***");
    markdown("<p>in<em>with</em>in</p>", "in*with*in");
    markdown("<p>in<strong>with</strong>in</p>", "in**with**in");
    markdown("<p><em>a</em><em>b</em></p>", "*a*_b_");
    markdown("<p><strong>a</strong><strong>b</strong></p>", "**a**__b__");
    markdown("<p><em>(a)</em>b</p>", "<em>(a)</em>b");
    markdown("<p>a<em>(b)</em></p>", "a<em>(b)</em>");
    markdown("<p><em> a </em>b</p>", "*a* b");
    markdown("<p><em>a*b</em></p>", r"*a\*b*");
    markdown("<p><strong>a**b</strong></p>", r"**a\*\*b**");
    markdown("<p><del>a</del></p>", "~~a~~");
    markdown("<p><s>a</s>b</p>", "~~a~~b");
    markdown("<p><em>a<br>b</em></p>", "*a\\\nb*");
    markdown("<p><em><code>x</code></em></p>", "*`x`*");
    markdown("<p><code>a`b</code></p>", "``a`b``");
    markdown("<p><code>``</code></p>", "` `` `");
    markdown("<p><code> a </code></p>", "`  a  `");
    markdown("<p><em>漢</em>字</p>", "*漢*字");
    markdown("<p><u>a</u> <mark>b</mark> <sub>c</sub><sup>d</sup></p>", "<u>a</u> <mark>b</mark> <sub>c</sub><sup>d</sup>");
    markdown(r#"<p><kbd>Esc</kbd> <abbr title="T">A</abbr></p>"#, r#"<kbd>Esc</kbd> <abbr title="T">A</abbr>"#);
    markdown("<p><small>s</small> <q>q</q> <cite>c</cite></p>", "<small>s</small> <q>q</q> <cite>c</cite>");
    markdown(r#"<p><span lang="la">aestus</span></p>"#, "aestus");
    markdown("<p><ins>a</ins></p>", "<ins>a</ins>");
    markdown("<p><em></em>a</p>", "a");
}

#[test]
fn addresses_titles_and_labels() {
    markdown(r#"<p><a href="a.html">a</a></p>"#, "[a](a.html)");
    markdown(r#"<p><a href="a b.html">a</a></p>"#, "[a](<a b.html>)");
    markdown(r#"<p><a href="a(b).html">a</a></p>"#, "[a](a(b).html)");
    markdown(r#"<p><a href="a(b.html">a</a></p>"#, "[a](<a(b.html>)");
    markdown(r#"<p><a href="a.html" title="T &quot;q&quot;">a</a></p>"#, r#"[a](a.html "T \"q\"")"#);
    markdown(r#"<p><a href="">a</a></p>"#, "[a]()");
    markdown(r#"<p><a href="a.html">[a]</a></p>"#, r"[\[a\]](a.html)");
    markdown(r#"<p><a href="a.html"><strong>a</strong></a></p>"#, "[**a**](a.html)");
    markdown(r#"<p><a href="https://greywick.example/">https://greywick.example/</a></p>"#, "<https://greywick.example/>");
    markdown(r#"<p><a href="mailto:a@greywick.example">a@greywick.example</a></p>"#, "<a@greywick.example>");
    markdown(
        r#"<p><a href="https://greywick.example/">greywick.example</a></p>"#,
        "[greywick.example](https://greywick.example/)",
    );
    markdown(r#"<p><a href="a.html"><img src="a.png" alt="A"></a></p>"#, "[![A](a.png)](a.html)");
    markdown(r#"<p><img src="a.png" alt="A [b]"></p>"#, r"![A \[b\]](a.png)");
    markdown(r#"<p><img src="a.png" alt="" title="T"></p>"#, r#"![](a.png "T")"#);
    markdown(r#"<p><img src="a b.png" alt="A"></p>"#, "![A](<a b.png>)");
    markdown(
        r#"<figure><img src="a.png" alt="A"><figcaption>C</figcaption></figure>"#,
        "<figure>\n<img src=\"a.png\" alt=\"A\">\n<figcaption>C</figcaption>\n</figure>",
    );
    markdown(r##"<h2 id="low">Low water</h2><p><a href="#low">x</a></p>"##, "## Low water\n\n[x](#low-water)");
    markdown(r##"<h2 id="other-name">Low water</h2><p><a href="#other-name">x</a></p>"##, "## Low water\n\n[x](#low-water)");
    markdown(r##"<p id="p">a</p><p><a href="#p">x</a></p>"##, "<a id=\"p\"></a>a\n\n[x](#p)");
    markdown(r##"<p id="p">a</p><p id="q"><b id=r>b</b></p><p><a href="#r">x</a></p>"##, "a\n\n<a id=\"r\"></a>**b**\n\n[x](#r)");
    markdown(
        r##"<ul id=l><li id=i>a</ul><p><a href="#i">x</a><a href="#l">y</a></p>"##,
        "<a id=\"l\"></a>\n\n- <a id=\"i\"></a>a\n\n[x](#i)[y](#l)",
    );
    markdown(
        r##"<dl><dt id=t>a<dd>b</dl><p><a href="#t">x</a></p>"##,
        "<dl>\n<dt><span id=\"t\"></span>a</dt>\n<dd>b</dd>\n</dl>\n\n[x](#t)",
    );
    markdown(r#"<p><a href="a.html">a<br>b</a></p>"#, "[a\\\nb](a.html)");
    markdown(r#"<p><a href="a&amp;copy=1">a</a></p>"#, "[a](a&copy=1)");
    markdown(r#"<p><a href="\x">a</a></p>"#, r"[a](\x)");
}

#[test]
fn blocks_one_behind_the_other() {
    markdown("<h1>a</h1><h2>b #</h2><h6>c</h6>", "# a\n\n## b \\#\n\n###### c");
    markdown("<h2>a<br>b</h2>", "## a b");
    markdown("<h2># a</h2>", "## # a");
    markdown("<hr>", "***");
    markdown("<p>a</p><hr><p>b</p>", "a\n\n---\n\nb");
    markdown("<blockquote><p>a</p><p>b</p></blockquote>", "> a\n>\n> b");
    markdown("<blockquote><h2>a</h2><ul><li>b</ul></blockquote>", "> ## a\n>\n> - b");
    markdown("<blockquote><blockquote>a</blockquote></blockquote>", "> > a");
    markdown("<pre><code>a\n\n  b\n</code></pre>", "```\na\n\n  b\n```");
    markdown(r#"<pre><code class="language-rust">fn</code></pre>"#, "```rust\nfn\n```");
    markdown("<pre><code>```\nx\n```</code></pre>", "````\n```\nx\n```\n````");
    markdown("<pre><code>~~~</code></pre>", "```\n~~~\n```");
    markdown("<pre><code></code></pre>", "```\n```");
    markdown("<pre>a <b>b</b></pre>", "<pre>a <strong>b</strong></pre>");
    markdown("<details><summary>S</summary><p>a</p></details>", "<details>\n<summary>S</summary>\n\na\n\n</details>");
    markdown("<aside><p>a</p></aside>", "a");
    markdown("<section><h2>a</h2></section>", "## a");
    markdown("<dl><dt>a<dd>b</dl>", "<dl>\n<dt>a</dt>\n<dd>b</dd>\n</dl>");
    markdown("<address>a</address>", "a");
    markdown(r#"<div dir="rtl"><p>שלום</p></div>"#, "<div dir=\"rtl\">\n\nשלום\n\n</div>");
    markdown(r#"<div lang="la"><p>aestus</p></div>"#, "<div lang=\"la\">\n\naestus\n\n</div>");
    markdown("<p>a</p><pre><code>b</code></pre><p>c</p>", "a\n\n```\nb\n```\n\nc");
    markdown("<p>a</p><p>b</p>", "a\n\nb");
    markdown("<p>&lt;div&gt;</p>", r"\<div>");
    markdown("<p>a</p><!-- c --><p>b</p>", "a\n\nb");
}

#[test]
fn items_and_what_they_hold() {
    markdown("<ul><li>a<li>b</ul>", "- a\n- b");
    markdown("<ol><li>a<li>b</ol>", "1. a\n2. b");
    markdown(r#"<ol start="9"><li>a<li>b</ol>"#, "9. a\n10. b");
    markdown("<ul><li><p>a</p><li><p>b</p></ul>", "- a\n\n- b");
    markdown("<ul><li>a<ul><li>b</ul></ul>", "- a\n  - b");
    markdown("<ol><li>a<ol><li>b</ol></ol>", "1. a\n   1. b");
    markdown(r#"<ol start="10"><li>a<ul><li>b</ul></ol>"#, "10. a\n    - b");
    markdown("<ul><li>a</ul><ul><li>b</ul>", "- a\n\n* b");
    markdown("<ol><li>a</ol><ol><li>b</ol>", "1. a\n\n1) b");
    markdown("<ul><li>a<p>b</p><li>c</ul>", "- a\n\n  b\n\n- c");
    markdown("<ul><li><pre><code>x</code></pre></ul>", "- ```\n  x\n  ```");
    markdown("<ul><li><blockquote>q</blockquote></ul>", "- > q");
    markdown("<ul><li></ul>", "-");
    markdown("<ul><li><h2>a</h2></ul>", "- ## a");
    markdown("<ul><li>a<br>b</ul>", "- a\\\n  b");
    markdown("<ul><li>- a</ul>", r"- \- a");
    markdown("<ul><li>1. a</ul>", r"- 1\. a");
    markdown("<ul><li><input type=checkbox checked> a</ul>", "- [x] a");
    markdown(r#"<ol type="a"><li>a</ol>"#, "1. a");
    markdown("<ol reversed><li>a</ol>", "1. a");
    markdown("<ul><li>a<table><tr><th>x<tr><td>y</table></ul>", "- a\n\n  | x   |\n  | --- |\n  | y   |");
    markdown("<p>a</p><ul><li>b</ul><p>c</p>", "a\n\n- b\n\nc");
    markdown("<ul><li>a</ul><pre><code>c</code></pre>", "- a\n\n```\nc\n```");
    markdown("<ul><li><hr></ul>", "- ***");
}

#[test]
fn tables_in_syntax_or_as_markup() {
    markdown("<table><tr><th>a<th>b<tr><td>c<td>d</table>", "| a   | b   |\n| --- | --- |\n| c   | d   |");
    markdown("<table><tr><td>a<td>b</table>", "|     |     |\n| --- | --- |\n| a   | b   |");
    markdown("<table><tr><th>a|b<tr><td><code>x|y</code></table>", "| a\\|b   |\n| ------ |\n| `x\\|y` |");
    markdown(
        r#"<table><tr><th style="text-align:right">a<th align=center>b<tr><td>1<td>2</table>"#,
        "|   a |  b  |\n| --: | :-: |\n|   1 |  2  |",
    );
    markdown(
        "<table><tr><th colspan=2>a<tr><td>b<td>c</table>",
        "<table>\n<tbody>\n<tr>\n<th colspan=\"2\">a</th>\n</tr>\n<tr>\n<td>b</td>\n<td>c</td>\n</tr>\n</tbody>\n</table>",
    );
    markdown("<table><tr><th>a<tr><td><p>b</p><p>c</p></table>", "| a          |\n| ---------- |\n| b<br><br>c |");
    markdown("<table><tr><th>a<tr><td>b<br>c</table>", "| a      |\n| ------ |\n| b<br>c |");
    markdown(
        "<table><tr><th>a<tr><td><ul><li>b</ul></table>",
        "<table>\n<tbody>\n<tr>\n<th>a</th>\n</tr>\n<tr>\n<td>\n<ul>\n<li>b</li>\n</ul>\n</td>\n</tr>\n</tbody>\n</table>",
    );
    markdown("<table><caption>C</caption><tr><th>a<tr><td>b</table>", "C\n\n| a   |\n| --- |\n| b   |");
    markdown("<table><tr><th>a<tr><th scope=row>b</table>", "| a   |\n| --- |\n| b   |");
    markdown("<table><tr><th>漢字<tr><td>x</table>", "| 漢字 |\n| ---- |\n| x    |");
    markdown(
        r#"<table><tr><th><strong>a</strong><tr><td><a href="x|y">b</a></table>"#,
        "| **a**     |\n| --------- |\n| [b](x\\|y) |",
    );
    markdown("<table><tr><th>a<tr><td></table>", "| a   |\n| --- |\n|     |");
    markdown("<table><thead><tr><th>a</thead><tfoot><tr><td>f</tfoot><tr><td>b</table>", "| a   |\n| --- |\n| b   |\n| f   |");
}

#[test]
fn notes_and_formulas() {
    markdown(
        r##"<p>a<sup><a href="#fn1" id="r1">1</a></sup></p><ol><li id="fn1"><p>note <a href="#r1">back</a></p></ol>"##,
        "a[^1]\n\n[^1]: note",
    );
    markdown("<p><math><mi>x</mi><mo>&lt;</mo><mn>1</mn></math></p>", "$x < 1$");
    markdown("<p>a<sup>1</sup></p>", "a<sup>1</sup>");
    markdown(
        r##"<p>a<a href="#f" role="doc-noteref">*</a></p><div role="doc-footnote" id="f">note</div>"##,
        "a[^1]\n\n[^1]: note",
    );
}

#[test]
fn text_that_reads_well() {
    text("<h1>Tides</h1><p>a <b>b</b> <i>c</i> <code>d</code></p>", "Tides\n=====\n\na b c d");
    text("<h2>Low</h2><h3>Neap</h3><p>x</p>", "Low\n---\n\nNeap\n\nx");
    text("<ul><li>a<ul><li>b</ul><li>c</ul>", "- a\n  - b\n- c");
    text(r#"<ol start="3"><li>a<li>b</ol>"#, "3. a\n4. b");
    text(r#"<ol type="a"><li>a<li>b</ol>"#, "a. a\nb. b");
    text(r#"<ol type="I"><li>a<li>b</ol>"#, "I. a\nII. b");
    text("<blockquote><p>a</p></blockquote>", "> a");
    text("<pre><code>a\n b</code></pre>", "    a\n     b");
    text("<hr>", "* * *");
    text("<p>a<br>b</p>", "a\nb");
    text(
        "<table><tr><th>Day<th align=right>High<tr><td>1<td>3.9</table>",
        "+-----+------+\n| Day | High |\n+=====+======+\n| 1   | 3.9  |\n+-----+------+",
    );
    text("<table><tr><td colspan=2>wide<tr><td>b<td>c</table>", "+---+---+\n| wide  |\n+---+---+\n| b | c |\n+---+---+");
    text("<table><caption>Tides</caption><tr><td>a</table>", "Tides\n+---+\n| a |\n+---+");
    text(
        r#"<p><a href="https://greywick.example/">site</a> and <a href="https://greywick.example/">again</a></p>"#,
        "site [1] and again [1]\n\n[1] https://greywick.example/",
    );
    text(r#"<p><a href="https://greywick.example/">https://greywick.example/</a></p>"#, "https://greywick.example/");
    text(r#"<p><img src="a.png" alt="A pier"></p>"#, "[A pier]");
    text(r#"<figure><img src="a.png" alt="A"><figcaption>C</figcaption></figure>"#, "[A]\n\nC");
    text("<dl><dt>a<dd>b</dl>", "a\n    b");
    text("<p><del>a</del> <ins>b</ins></p>", "a b");
    text("<p>H<sub>2</sub>O 5<sup>2</sup></p>", "H2O 5^2");
    text("<details><summary>S</summary>a</details>", "S\n\na");
    text("<ul><li><input type=checkbox checked> a<li><input type=checkbox> b</ul>", "- [x] a\n- [ ] b");
    text(
        r##"<p>a<sup><a href="#fn1" id="r1">1</a></sup></p><ol><li id="fn1"><p>note <a href="#r1">back</a></p></ol>"##,
        "a (note 1)\n\n(note 1) note",
    );
    text(
        "<p>many words many words many words many words many words many words many words many words many words many words many words many words many words many words </p>",
        "many words many words many words many words many words many words many words\nmany words many words many words many words many words many words many words",
    );
    text("<p>漢字かな</p>", "漢字かな");
    text("<ul><li><p>a</p><p>b</p></ul>", "- a\n\n  b");
    text("<p><q>calm</q> <kbd>Esc</kbd></p>", "“calm” Esc");
    text("<p><math><mi>x</mi><mo>+</mo><mn>1</mn></math></p>", "x + 1");
}
