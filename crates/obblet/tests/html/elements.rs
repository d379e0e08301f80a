//! HTML to clean HTML, element by element: what each way of writing a thing becomes.
#![allow(missing_docs, clippy::unwrap_used, clippy::panic, reason = "tests")]

use crate::support;

use obblet::Format;
use support::convert::convert;

#[track_caller]
fn case(source: &str, expected: &str) {
    // Tables are long enough on one line.
    let compact = if source.contains("<table") { "html.compact=true" } else { "html.compact=false" };
    let html = convert(source, Format::Html, Format::Html, &[compact]).into_text().unwrap();
    assert_eq!(html.trim_end(), expected, "{source}");
}

#[test]
fn elements_of_text_keep_what_they_mean() {
    case(
        "<p><i>a</i> <em>b</em> <b>c</b> <strong>d</strong></p>",
        "<p><em>a</em> <em>b</em> <strong>c</strong> <strong>d</strong></p>",
    );
    case(
        "<p><cite>The Tides</cite>, <dfn>neap</dfn>, <var>h</var></p>",
        "<p><cite>The Tides</cite>, <dfn>neap</dfn>, <var>h</var></p>",
    );
    case("<p><kbd>Ctrl</kbd>+<kbd>S</kbd> <samp>saved</samp></p>", "<p><kbd>Ctrl</kbd>+<kbd>S</kbd> <samp>saved</samp></p>");
    case("<p><tt>old</tt> <code>new</code></p>", "<p><code>old</code> <code>new</code></p>");
    case("<p><big>large</big> <small>fine print</small></p>", "<p>large <small>fine print</small></p>");
    case("<p><strike>a</strike> <s>b</s> <del>c</del> <ins>d</ins></p>", "<p><s>a</s> <s>b</s> <del>c</del> <ins>d</ins></p>");
    case("<p><u>a</u> <mark>b</mark></p>", "<p><u>a</u> <mark>b</mark></p>");
    case("<p>H<sub>2</sub>O, 5<sup>th</sup></p>", "<p>H<sub>2</sub>O, 5<sup>th</sup></p>");
    case(
        r#"<p><q cite="https://greywick.example/log">calm</q></p>"#,
        r#"<p><q cite="https://greywick.example/log">calm</q></p>"#,
    );
    case(
        r#"<p><abbr title="above chart datum">ACD</abbr> <acronym title="Greywick Sound">GS</acronym></p>"#,
        r#"<p><abbr title="above chart datum">ACD</abbr> <abbr title="Greywick Sound">GS</abbr></p>"#,
    );
    case(r#"<p><time datetime="2031-02-03">3 February</time></p>"#, r#"<p><time datetime="2031-02-03">3 February</time></p>"#);
    case(r#"<p><data value="41">forty-one</data></p>"#, r#"<p><data value="41">forty-one</data></p>"#);
    case(r#"<p><bdo dir="rtl">abc</bdo> <bdi>שלום</bdi></p>"#, r#"<p><bdo dir="rtl">abc</bdo> <bdi>שלום</bdi></p>"#);
    case(r#"<p><span lang="la">aestus</span> is Latin</p>"#, r#"<p><span lang="la">aestus</span> is Latin</p>"#);
    case("<p><ruby>潮<rp>(</rp><rt>しお</rt><rp>)</rp></ruby></p>", "<p><ruby>潮<rp>(</rp><rt>しお</rt><rp>)</rp></ruby></p>");
    case(r#"<p><font color="red" face="Arial" size="5">red</font></p>"#, "<p>red</p>");
    case("<p><center>middle</center></p>", "<p>middle</p>");
    case("<p><blink>no</blink> <marquee>no</marquee></p>", "<p>no no</p>");
    case("<p><nobr>one line</nobr></p>", "<p>one line</p>");
    case("<p>a<br>b<br/>c</p>", "<p>a<br>\nb<br>\nc</p>");
    case("<p><span>plain</span> <span></span>text</p>", "<p>plain text</p>");
    case("<p><b></b>nothing <i> </i>in it</p>", "<p>nothing in it</p>");
    case(
        "<p><b><b>twice</b></b> <em><em>so</em></em></p>",
        "<p><strong><strong>twice</strong></strong> <em><em>so</em></em></p>",
    );
    case("<p><b>one</b><b>word</b></p>", "<p><strong>one</strong><strong>word</strong></p>");
    case("<p><a>no address</a></p>", "<p>no address</p>");
    case(
        r#"<p><label>name</label> <output>7</output> <meter value="3">3 m</meter> <progress value="1">1 of 2</progress></p>"#,
        "<p>name 7 3 m 1 of 2</p>",
    );
}

#[test]
fn links_lead_where_they_led_or_nowhere() {
    case(r#"<p><a href="tides.html">a</a></p>"#, r#"<p><a href="tides.html">a</a></p>"#);
    case(
        r#"<p><a href="tides.html" title="High &amp; low">a</a></p>"#,
        r#"<p><a href="tides.html" title="High &amp; low">a</a></p>"#,
    );
    case(
        r#"<p><a href="tides.html" target="_blank" rel="noopener">a</a></p>"#,
        r#"<p><a href="tides.html" rel="noopener">a</a></p>"#,
    );
    case(
        r#"<p><a href="https://greywick.example/a b?c=d&e=f">a</a></p>"#,
        r#"<p><a href="https://greywick.example/a%20b?c=d&amp;e=f">a</a></p>"#,
    );
    case(
        r#"<p><a href="mailto:keeper@greywick.example">write</a></p>"#,
        r#"<p><a href="mailto:keeper@greywick.example">write</a></p>"#,
    );
    case(r#"<p><a href="tel:+15550100">call</a></p>"#, r#"<p><a href="tel:+15550100">call</a></p>"#);
    case(r#"<p><a href="javascript:alert(1)">run</a></p>"#, "<p>run</p>");
    case(r#"<p><a href="JAVA&#10;SCRIPT:alert(1)">run</a></p>"#, "<p>run</p>");
    case(r#"<p><a href="data:text/html,x">run</a></p>"#, "<p>run</p>");
    case(r#"<p><a href="vbscript:x">run</a></p>"#, "<p>run</p>");
    case(r#"<p><a href="">self</a></p>"#, r#"<p><a href="">self</a></p>"#);
    case(r##"<p><a href="#">top</a></p>"##, r##"<p><a href="#">top</a></p>"##);
    case(
        r##"<p><a href="#low">low</a></p><h2 id="low">Low water</h2>"##,
        "<p><a href=\"#low\">low</a></p>\n<h2 id=\"low\">Low water</h2>",
    );
    case(r##"<p><a href="#gone">gone</a></p>"##, r##"<p><a href="#gone">gone</a></p>"##);
    case(
        r##"<p><a name="here"></a>text</p><p><a href="#here">back</a></p>"##,
        "<p id=\"here\">text</p>\n<p><a href=\"#here\">back</a></p>",
    );
    case(r#"<p><a name="here">text</a></p>"#, r#"<p><span id="here">text</span></p>"#);
    case(
        r##"<p><a id="here">text</a> <a href="#here">back</a></p>"##,
        r##"<p><span id="here">text</span> <a href="#here">back</a></p>"##,
    );
    case(
        r#"<p><a href="a.html">one <a href="b.html">two</a></p>"#,
        r#"<p><a href="a.html">one </a><a href="b.html">two</a></p>"#,
    );
    case(
        r#"<a href="a.html"><h2>Heading</h2><p>text</p></a>"#,
        "<h2><a href=\"a.html\">Heading</a></h2>\n<p><a href=\"a.html\">text</a></p>",
    );
    case(r#"<p><a href="a.html"><img src="a.png" alt="A"></a></p>"#, r#"<p><a href="a.html"><img src="a.png" alt="A"></a></p>"#);
    case(r#"<p><a href="a.html"> </a>text</p>"#, "<p>text</p>");
    case(r#"<p><a href="a.html"> spaced </a>text</p>"#, r#"<p><a href="a.html">spaced </a>text</p>"#);
    case(
        r#"<p><a href="ftp://greywick.example/x">a</a> <a href="//greywick.example/y">b</a> <a href="/root">c</a></p>"#,
        r#"<p><a href="ftp://greywick.example/x">a</a> <a href="//greywick.example/y">b</a> <a href="/root">c</a></p>"#,
    );
    case(
        r#"<p><a href="a.html" hreflang="de" type="text/html" download>a</a></p>"#,
        r#"<p><a href="a.html" hreflang="de">a</a></p>"#,
    );
    case(
        r#"<map name="m"><area shape="rect" coords="0,0,1,1" href="a.html" alt="Pier"></map>"#,
        r#"<p><a href="a.html">Pier</a></p>"#,
    );
}

#[test]
fn headings_and_parts_of_pages() {
    case(
        "<h1>a</h1><h2>b</h2><h3>c</h3><h4>d</h4><h5>e</h5><h6>f</h6>",
        "<h1>a</h1>\n<h2>b</h2>\n<h3>c</h3>\n<h4>d</h4>\n<h5>e</h5>\n<h6>f</h6>",
    );
    case("<h1>a</h1><h3>skipped</h3>", "<h1>a</h1>\n<h2>skipped</h2>");
    // One without words is a step, too.
    case("<h1>a</h1><h3></h3><h4>b</h4>", "<h1>a</h1>\n<h2></h2>\n<h3>b</h3>");
    case("<h2></h2><p>text</p>", "<h2></h2>\n<p>text</p>");
    case("<h2><br></h2><p>text</p>", "<p>text</p>");
    case("<h2><b>bold</b></h2>", "<h2><strong>bold</strong></h2>");
    case("<h2><p>block</p></h2>", "<h2>block</h2>");
    case("<h2>one<div>two</div></h2>", "<h2>one two</h2>");
    case("<hgroup><h1>Title</h1><p>Subtitle</p></hgroup>", "<h1>Title</h1>\n<p>Subtitle</p>");
    case("<section><h2>a</h2></section><p>b</p>", "<section>\n<h2>a</h2>\n</section>\n<p>b</p>");
    case(
        "<article><header><h2>a</h2></header><p>b</p><footer>c</footer></article>",
        "<article>\n<header>\n<h2>a</h2>\n</header>\n<p>b</p>\n<footer>\nc\n</footer>\n</article>",
    );
    // What may not stand there goes, and what leads to it stays.
    case(
        "<details><summary><section id=m><h4>a</h4></section></summary><p>b</details><p><a href='#m'>c</a>",
        "<details>\n<summary id=\"m\">\n<h4>a</h4>\n</summary>\n<p>b</p>\n</details>\n<p><a href=\"#m\">c</a></p>",
    );
    case("<main><p>a</p></main>", "<p>a</p>");
    case(r#"<nav><ul><li><a href="a.html">a</a></ul></nav>"#, "<nav>\n<ul>\n<li><a href=\"a.html\">a</a></li>\n</ul>\n</nav>");
    case("<aside><p>a</p></aside>", "<aside>\n<p>a</p>\n</aside>");
    case("<address>Pier 2<br>Greywick</address>", "<address>\nPier 2<br>\nGreywick\n</address>");
    case("<div><div><p>a</p></div></div>", "<p>a</p>");
    case("<div>text</div><div>more</div>", "<p>text</p>\n<p>more</p>");
    case(r#"<div role="note"><p>a</p></div>"#, "<p>a</p>");
    case("<details><summary>More</summary><p>a</p></details>", "<details>\n<summary>More</summary>\n<p>a</p>\n</details>");
    case(
        "<details open><p>no summary</p></details>",
        "<details open>\n<summary>Details</summary>\n<p>no summary</p>\n</details>",
    );
    case(
        "<details><summary><h3>Heading</h3></summary>text</details>",
        "<details>\n<summary>\n<h3>Heading</h3>\n</summary>\ntext\n</details>",
    );
    case("<dialog open><p>a</p></dialog>", "<p>a</p>");
    case("<fieldset><legend>Choose</legend><p>a</p></fieldset>", "<p>Choose</p>\n<p>a</p>");
    case("<search><p>a</p></search>", "<p>a</p>");
    case("<menu><li>a<li>b</menu>", "<ul>\n<li>a</li>\n<li>b</li>\n</ul>");
    case("<dir><li>a<li>b</dir>", "<ul>\n<li>a</li>\n<li>b</li>\n</ul>");
    case("<hr><hr>", "<hr>\n<hr>");
    case("<p>a<hr>b</p>", "<p>a</p>\n<hr>\n<p>b</p>");
    case("<noscript><p>without script</p></noscript>", "<p>without script</p>");
    case("<template><p>hidden</p></template><p>a</p>", "<p>a</p>");
    case(r#"<object data="a.pdf">A <b>plan</b></object>"#, "<p>A <strong>plan</strong></p>");
    case(r#"<iframe src="a.html" title="Chart"></iframe>"#, r#"<p><a href="a.html">Chart</a></p>"#);
    case(r#"<video src="a.mp4" controls>No video</video>"#, r#"<p><a href="a.mp4">a.mp4</a></p>"#);
    case(r#"<audio controls><source src="a.ogg"></audio>"#, r#"<p><a href="a.ogg">a.ogg</a></p>"#);
    case(r#"<embed src="a.swf">"#, r#"<p><a href="a.swf">a.swf</a></p>"#);
    case("<canvas>drawn</canvas>", "<p>drawn</p>");
    case("<p>a<script>alert(1)</script>b<style>p{}</style></p>", "<p>ab</p>");
    case(r#"<p onclick="x()">a</p>"#, "<p>a</p>");
    case(
        r#"<form action="x"><p>Name <input name="n" value="v"> <button>Send</button></p><select><option>a<option selected>b</select><textarea>t</textarea></form>"#,
        "<p>Name Send</p>",
    );
}

#[test]
fn lists_however_they_are_made() {
    case("<ul><li>a<li>b</ul>", "<ul>\n<li>a</li>\n<li>b</li>\n</ul>");
    case("<ol><li>a<li>b</ol>", "<ol>\n<li>a</li>\n<li>b</li>\n</ol>");
    case(r#"<ol start="0"><li>a</ol>"#, "<ol start=\"0\">\n<li>a</li>\n</ol>");
    case(r#"<ol start="-2"><li>a</ol>"#, "<ol start=\"-2\">\n<li>a</li>\n</ol>");
    case(r#"<ol start="x"><li>a</ol>"#, "<ol>\n<li>a</li>\n</ol>");
    case(r#"<ol type="I"><li>a</ol>"#, "<ol type=\"I\">\n<li>a</li>\n</ol>");
    case(r#"<ol type="disc"><li>a</ol>"#, "<ol>\n<li>a</li>\n</ol>");
    case(r#"<ul type="square"><li>a</ul>"#, "<ul>\n<li>a</li>\n</ul>");
    case(r#"<ol style="list-style-type: upper-alpha"><li>a</ol>"#, "<ol type=\"A\">\n<li>a</li>\n</ol>");
    case(r#"<ul style="list-style-type: decimal"><li>a</ul>"#, "<ol>\n<li>a</li>\n</ol>");
    case(r#"<ol reversed start="9"><li>a<li>b</ol>"#, "<ol reversed start=\"9\">\n<li>a</li>\n<li>b</li>\n</ol>");
    case(r#"<ol><li value="4">a<li>b</ol>"#, "<ol>\n<li value=\"4\">a</li>\n<li>b</li>\n</ol>");
    case("<ul><li><p>a</p><li><p>b</p></ul>", "<ul>\n<li>\n<p>a</p>\n</li>\n<li>\n<p>b</p>\n</li>\n</ul>");
    case("<ul><li><p>a</p><p>b</p><li>c</ul>", "<ul>\n<li>\n<p>a</p>\n<p>b</p>\n</li>\n<li>c</li>\n</ul>");
    case(
        "<ul><li>a<ul><li>b<ul><li>c</ul></ul></ul>",
        "<ul>\n<li>a\n<ul>\n<li>b\n<ul>\n<li>c</li>\n</ul>\n</li>\n</ul>\n</li>\n</ul>",
    );
    case("<ul><li>a</li>stray<li>b</li></ul>", "<ul>\n<li>a</li>\n<li>stray</li>\n<li>b</li>\n</ul>");
    case("<ul><p>stray</p><li>b</li></ul>", "<ul>\n<li>stray</li>\n<li>b</li>\n</ul>");
    case("<ul></ul><p>a</p>", "<p>a</p>");
    case("<ul><li></ul><p>a</p>", "<ul>\n<li></li>\n</ul>\n<p>a</p>");
    case("<li>alone</li>", "<ul>\n<li>alone</li>\n</ul>");
    case("<ul><ul><li>a</ul></ul>", "<ul>\n<li>\n<ul>\n<li>a</li>\n</ul>\n</li>\n</ul>");
    case(r#"<ol><li>a</ol><ol start="2"><li>b</ol>"#, "<ol>\n<li>a</li>\n</ol>\n<ol start=\"2\">\n<li>b</li>\n</ol>");
    case("<ul><li>a</ul><ul><li>b</ul>", "<ul>\n<li>a</li>\n</ul>\n<ul>\n<li>b</li>\n</ul>");
    case("<ul><li><h3>a</h3>text</ul>", "<ul>\n<li>\n<h3>a</h3>\ntext</li>\n</ul>");
    case("<ul><li><table><tr><td>a</table></ul>", "<ul><li><table><tbody><tr><td>a</td></tr></tbody></table></li></ul>");
    case(
        r#"<ul><li><input type="checkbox"> a<li><input type="checkbox" checked> b</ul>"#,
        "<ul>\n<li><input type=\"checkbox\" disabled> a</li>\n<li><input type=\"checkbox\" disabled checked> b</li>\n</ul>",
    );
    case("<dl><dt>a<dd>b<dt>c<dd>d</dl>", "<dl>\n<dt>a</dt>\n<dd>b</dd>\n<dt>c</dt>\n<dd>d</dd>\n</dl>");
    case("<dl><dd>alone</dl>", "<dl>\n<dt></dt>\n<dd>alone</dd>\n</dl>");
    case("<dl><dt>alone</dl>", "<dl>\n<dt>alone</dt>\n<dd></dd>\n</dl>");
    case("<dl><div><dt>a<dd>b</div><div><dt>c<dd>d</div></dl>", "<dl>\n<dt>a</dt>\n<dd>b</dd>\n<dt>c</dt>\n<dd>d</dd>\n</dl>");
    case("<dl><dt><p>a</p><dd><p>b</p></dl>", "<dl>\n<dt>a</dt>\n<dd>\n<p>b</p>\n</dd>\n</dl>");
    case("<dl>stray<dt>a<dd>b</dl>", "<dl>\n<dt></dt>\n<dd>stray</dd>\n<dt>a</dt>\n<dd>b</dd>\n</dl>");
    case("<dt>loose<dd>loose", "<dl>\n<dt>loose</dt>\n<dd>loose</dd>\n</dl>");
}

#[test]
fn code_and_quotes() {
    case("<pre>a\n b</pre>", "<pre><code>a\n b\n</code></pre>");
    case("<pre>\n\na</pre>", "<pre><code>\na\n</code></pre>");
    case("<pre><code>a\n</code></pre>", "<pre><code>a\n</code></pre>");
    case(
        r#"<pre><code class="language-rust">fn a() {}</code></pre>"#,
        "<pre><code class=\"language-rust\">fn a() {}\n</code></pre>",
    );
    case(r#"<pre class="brush: python">a</pre>"#, "<pre><code>a\n</code></pre>");
    case(r#"<pre lang="toml">a = 1</pre>"#, "<pre><code>a = 1\n</code></pre>");
    case(r#"<pre><span class="k">let</span> x</pre>"#, "<pre><code>let x\n</code></pre>");
    case("<pre>a <b>b</b> c</pre>", "<pre>a <strong>b</strong> c</pre>");
    case("<pre>a<br>b</pre>", "<pre><code>a\nb\n</code></pre>");
    case(r#"<pre><a href="x.html">a</a></pre>"#, r#"<pre><a href="x.html">a</a></pre>"#);
    case("<pre></pre><p>a</p>", "<pre><code></code></pre>\n<p>a</p>");
    case("<listing>a</listing>", "<pre><code>a\n</code></pre>");
    case("<xmp><b>a</b></xmp>", "<pre><code>&lt;b&gt;a&lt;/b&gt;\n</code></pre>");
    case("<plaintext>a <b>", "<pre><code>a &lt;b&gt;\n</code></pre>");
    case("<p><code>a  b</code></p>", "<p><code>a  b</code></p>");
    case("<p><code><b>a</b></code></p>", "<p><code><strong>a</strong></code></p>");
    case("<p><code></code>a</p>", "<p>a</p>");
    case("<blockquote>a</blockquote>", "<blockquote>\na\n</blockquote>");
    case(
        r#"<blockquote cite="https://greywick.example/"><p>a</p><footer>Keeper</footer></blockquote>"#,
        "<blockquote cite=\"https://greywick.example/\">\n<p>a</p>\n<footer>\nKeeper\n</footer>\n</blockquote>",
    );
    case("<blockquote><blockquote>a</blockquote></blockquote>", "<blockquote>\n<blockquote>\na\n</blockquote>\n</blockquote>");
    case("<blockquote></blockquote><p>a</p>", "<blockquote>\n</blockquote>\n<p>a</p>");
    case("<p>a <blockquote>b</blockquote> c</p>", "<p>a</p>\n<blockquote>\nb\n</blockquote>\n<p>c</p>");
}

#[test]
fn pictures_and_drawings() {
    case(r#"<p><img src="a.png" alt="A pier"></p>"#, r#"<p><img src="a.png" alt="A pier"></p>"#);
    case(r#"<p><img src="a.png"></p>"#, r#"<p><img src="a.png" alt=""></p>"#);
    case(r#"<p><img src="a.png" alt="" ></p>"#, r#"<p><img src="a.png" alt=""></p>"#);
    case(r#"<p><img alt="no address"></p>"#, "<p>no address</p>");
    case(
        r#"<p><img src="a.png" alt="A" title="T" width="10" height="20"></p>"#,
        r#"<p><img src="a.png" alt="A" title="T" width="10" height="20"></p>"#,
    );
    case(r#"<p><img src="a.png" alt="A" width="50%"></p>"#, r#"<p><img src="a.png" alt="A"></p>"#);
    case(r#"<p><img src="a.png" alt="A" style="width: 40px; height: 30px"></p>"#, r#"<p><img src="a.png" alt="A"></p>"#);
    case(
        r#"<p><img src="a.png" alt="A" border="0" align="left" hspace="3" onload="x()"></p>"#,
        r#"<p><img src="a.png" alt="A"></p>"#,
    );
    case(r#"<p><img src="s.png" srcset="l.png 2x, m.png 1.5x" alt="A"></p>"#, r#"<p><img src="l.png" alt="A"></p>"#);
    case(r#"<p><img srcset="s.png 320w, l.png 1200w" alt="A"></p>"#, r#"<p><img src="l.png" alt="A"></p>"#);
    case(
        r#"<picture><source srcset="a.avif" type="image/avif"><img src="a.png" alt="A"></picture>"#,
        r#"<p><img src="a.png" alt="A"></p>"#,
    );
    case(r#"<p><img data-src="a.png" alt="lazy"></p>"#, r#"<p><img src="a.png" alt="lazy"></p>"#);
    case(r#"<p><img src="javascript:x" alt="bad"></p>"#, "<p>bad</p>");
    case(r#"<p><img src="data:text/html,x" alt="bad"></p>"#, "<p>bad</p>");
    case(
        r#"<figure><img src="a.png" alt="A"><figcaption>Caption</figcaption></figure>"#,
        "<figure>\n<img src=\"a.png\" alt=\"A\">\n<figcaption>Caption</figcaption>\n</figure>",
    );
    case(
        r#"<figure><figcaption>First</figcaption><img src="a.png" alt="A"></figure>"#,
        "<figure>\n<figcaption>First</figcaption>\n<img src=\"a.png\" alt=\"A\">\n</figure>",
    );
    case(
        "<figure><table><tr><td>a</table><figcaption>T</figcaption></figure>",
        "<figure><table><tbody><tr><td>a</td></tr></tbody></table><figcaption>T</figcaption></figure>",
    );
    case("<figure><pre>a</pre></figure>", "<figure>\n<pre><code>a\n</code></pre>\n</figure>");
    case("<figure></figure><p>a</p>", "<p>a</p>");
    case("<figcaption>alone</figcaption>", "<div>\nalone\n</div>");
    case("<p><svg><script>alert(1)</script></svg>a</p>", "<p>a</p>");
    case("<p><math><mi>x</mi><mo>+</mo><mn>1</mn></math></p>", "<p><math><mi>x</mi><mo>+</mo><mn>1</mn></math></p>");
    case(r#"<p><input type="image" src="a.png" alt="Send"></p>"#, "");
}

#[test]
#[expect(clippy::too_many_lines, reason = "a list of cases")]
fn tables_of_every_make() {
    case(
        "<table><tr><td>a<td>b<tr><td>c<td>d</table>",
        "<table><tbody><tr><td>a</td><td>b</td></tr><tr><td>c</td><td>d</td></tr></tbody></table>",
    );
    case(
        "<table><tr><th>a<th>b<tr><td>c<td>d</table>",
        "<table><tbody><tr><th>a</th><th>b</th></tr><tr><td>c</td><td>d</td></tr></tbody></table>",
    );
    case(
        "<table><thead><tr><td>a</thead><tbody><tr><td>b</table>",
        "<table><thead><tr><td>a</td></tr></thead><tbody><tr><td>b</td></tr></tbody></table>",
    );
    case(
        "<table><tr><th>a<td>b<tr><th>c<td>d</table>",
        "<table><tbody><tr><th>a</th><td>b</td></tr><tr><th>c</th><td>d</td></tr></tbody></table>",
    );
    case(
        "<table><caption>Tides</caption><tr><td>a</table>",
        "<table><caption>Tides</caption><tbody><tr><td>a</td></tr></tbody></table>",
    );
    case("<table><tr><td>a</table><caption>late</caption>", "<table><tbody><tr><td>a</td></tr></tbody></table><p>late</p>");
    case(
        "<table><tfoot><tr><td>sum</tfoot><tbody><tr><td>a</table>",
        "<table><tbody><tr><td>a</td></tr></tbody><tfoot><tr><td>sum</td></tr></tfoot></table>",
    );
    case(
        "<table><tr><td colspan=2>a<tr><td>b<td>c</table>",
        r#"<table><tbody><tr><td colspan="2">a</td></tr><tr><td>b</td><td>c</td></tr></tbody></table>"#,
    );
    case(
        "<table><tr><td rowspan=2>a<td>b<tr><td>c</table>",
        r#"<table><tbody><tr><td rowspan="2">a</td><td>b</td></tr><tr><td>c</td></tr></tbody></table>"#,
    );
    case(
        "<table><tr><td rowspan=0>a<td>b<tr><td>c</table>",
        r#"<table><tbody><tr><td rowspan="2">a</td><td>b</td></tr><tr><td>c</td></tr></tbody></table>"#,
    );
    case(
        "<table><tr><td colspan=9>a<tr><td>b</table>",
        r#"<table><tbody><tr><td colspan="2">a</td></tr><tr><td>b</td><td></td></tr></tbody></table>"#,
    );
    case("<table><tr><td rowspan=9>a<td>b</table>", "<table><tbody><tr><td>a</td><td>b</td></tr></tbody></table>");
    case(
        "<table><tr><td>a<tr><td>b<td>c</table>",
        "<table><tbody><tr><td>a</td><td></td></tr><tr><td>b</td><td>c</td></tr></tbody></table>",
    );
    case("<table><tr></tr><tr><td>a</table>", "<table><tbody><tr><td>a</td></tr></tbody></table>");
    case("<table></table><p>a</p>", "<p>a</p>");
    case("<table><tr><td></table>", "<table><tbody><tr><td></td></tr></tbody></table>");
    case("<table>stray<tr><td>a</table>", "<p>stray</p><table><tbody><tr><td>a</td></tr></tbody></table>");
    case("<table><tr><p>stray</p><td>a</table>", "<p>stray</p><table><tbody><tr><td>a</td></tr></tbody></table>");
    case(
        "<table><colgroup><col align=right><col></colgroup><tr><td>a<td>b</table>",
        r#"<table><tbody><tr><td style="text-align: right">a</td><td>b</td></tr></tbody></table>"#,
    );
    case(
        r#"<table><tr><td align=right>a<td style="text-align:center">b</table>"#,
        r#"<table><tbody><tr><td style="text-align: right">a</td><td style="text-align: center">b</td></tr></tbody></table>"#,
    );
    case(
        r#"<table align=center width="100%" border=1 cellpadding=2 bgcolor=red><tr><td nowrap valign=top>a</table>"#,
        "<table><tbody><tr><td>a</td></tr></tbody></table>",
    );
    case(
        "<table><tr><td><p>a</p><td><p>b</p><p>c</p></table>",
        "<table><tbody><tr><td><p>a</p></td><td><p>b</p><p>c</p></td></tr></tbody></table>",
    );
    case(
        "<table><tr><td><table><tr><td>in</table></table>",
        "<table><tbody><tr><td><table><tbody><tr><td>in</td></tr></tbody></table></td></tr></tbody></table>",
    );
    case("<td>alone</td>", "<p>alone</p>");
    case("<tr><td>row", "<p>row</p>");
    case(
        "<table><tr><td><b>Day</b><td><b>High</b><tr><td>1<td>3.9</table>",
        "<table><tbody><tr><td><strong>Day</strong></td><td><strong>High</strong></td></tr><tr><td>1</td><td>3.9</td></tr></tbody></table>",
    );
    case(
        "<table><tr><th scope=col>a<th scope=row>b<th scope=x>c</table>",
        r#"<table><tbody><tr><th scope="col">a</th><th scope="row">b</th><th>c</th></tr></tbody></table>"#,
    );
    case(
        r#"<table><tr><th abbr="h" headers="x" id="y">a</table>"#,
        r#"<table><tbody><tr><th id="y">a</th></tr></tbody></table>"#,
    );
    case("<table><tr><td><h3>a</h3></table>", "<table><tbody><tr><td><h3>a</h3></td></tr></tbody></table>");
    case("<table><tr><th><h3>a</h3></table>", "<table><tbody><tr><th><p><strong>a</strong></p></th></tr></tbody></table>");
    case("<table><tr><td>a<br><br></table>", "<table><tbody><tr><td>a<br><br></td></tr></tbody></table>");
    case(r#"<table summary="old"><tr><td>&nbsp;</table>"#, "<table><tbody><tr><td>&nbsp;</td></tr></tbody></table>");
}

#[test]
fn what_only_style_rules_say() {
    case(r#"<p style="font-weight:bold">a</p>"#, "<p><strong>a</strong></p>");
    case(r#"<p><span style="font-weight:700">a</span></p>"#, "<p><strong>a</strong></p>");
    case(r#"<p><span style="font-weight:400">a</span></p>"#, "<p>a</p>");
    case(r#"<p><b style="font-weight:normal">a</b></p>"#, "<p>a</p>");
    case(r#"<p><strong style="font-weight:normal">a</strong></p>"#, "<p>a</p>");
    case(r#"<p><span style="font-style:italic">a</span></p>"#, "<p><em>a</em></p>");
    case(r#"<p><i style="font-style:normal">a</i></p>"#, "<p>a</p>");
    case(r#"<p><span style="text-decoration:underline">a</span></p>"#, "<p><u>a</u></p>");
    case(r#"<p><span style="text-decoration:line-through">a</span></p>"#, "<p><s>a</s></p>");
    case(
        r#"<p><span style="vertical-align:super">a</span><span style="vertical-align:sub">b</span></p>"#,
        "<p><sup>a</sup><sub>b</sub></p>",
    );
    case(r#"<p><span style="font-family:Consolas">a</span></p>"#, "<p><code>a</code></p>");
    case(r#"<p><span style="font-family:'Courier New',serif">a</span></p>"#, "<p><code>a</code></p>");
    case(r#"<p><span style="font:italic bold 12px Georgia">a</span></p>"#, "<p><strong><em>a</em></strong></p>");
    case(r#"<p style="display:none">hidden</p><p>a</p>"#, "<p>a</p>");
    case(r#"<p style="visibility:hidden">hidden</p><p>a</p>"#, "<p>a</p>");
    case("<style>.x{display:none}</style><p class=x>hidden</p><p>a</p>", "<p>a</p>");
    case("<style>p b{font-weight:normal}</style><p><b>a</b></p>", "<p>a</p>");
    case(r#"<style>b{font-weight:normal!important}</style><p><b style="font-weight:bold">a</b></p>"#, "<p>a</p>");
    case(
        r#"<style>.a{font-weight:bold}.b{font-weight:normal}</style><p><span class="a b">x</span> <span class="b a">y</span></p>"#,
        "<p>x y</p>",
    );
    case(
        "<style>#k{font-style:italic}span{font-style:normal}</style><p><span id=k>x</span></p>",
        r#"<p><span id="k"><em>x</em></span></p>"#,
    );
    case("<style>div>p>span{font-weight:bold}</style><div><p><span>x</span></p></div>", "<p><strong>x</strong></p>");
    case("<style>@media print{p{display:none}}</style><p>a</p>", "<p>a</p>");
    case("<style>p{font-weight:bold</style><p>unclosed</p>", "<p><strong>unclosed</strong></p>");
    case(r#"<p style="color:red;background:blue;margin:3px">a</p>"#, "<p>a</p>");
    case(r#"<p style="text-align:center">a</p>"#, "<p>a</p>");
    case(
        r#"<p style="font-weight:bold;font-size:20pt">Looks like a heading</p><p>text</p>"#,
        "<h1>Looks like a heading</h1>\n<p>text</p>",
    );
    case(r#"<p style="FONT-WEIGHT: BOLD">a</p>"#, "<p><strong>a</strong></p>");
    case(r#"<p style=";;font-weight:;:bold;font-style:italic">a</p>"#, "<p><em>a</em></p>");
    case(r#"<p style="page-break-before:always">a</p>"#, "<p>a</p>");
}

#[test]
fn what_programs_leave_goes() {
    case(
        "<p class=MsoNormal>a<o:p></o:p></p><p class=MsoNormal><o:p>&nbsp;</o:p></p><p class=MsoNormal>b</p>",
        "<p>a</p>\n<p>b</p>",
    );
    case("<!--[if gte mso 9]><xml><w:x>1</w:x></xml><![endif]--><p>a</p>", "<p>a</p>");
    case("<![if !supportLists]><p>a</p><![endif]>", "<p>a</p>");
    case(r#"<p><st1:place w:st="on">Greywick</st1:place></p>"#, "<p>Greywick</p>");
    case(r#"<p><span style="mso-spacerun:yes">   </span>a</p>"#, "<p>a</p>");
    case(r#"<p><span style="mso-tab-count:1">      </span>a</p>"#, "<p>a</p>");
    case(r#"<p><span lang=EN-GB style="font-size:12.0pt;font-family:Times">a</span><span lang=EN-GB>b</span></p>"#, "<p>ab</p>");
    case(
        r#"<p class=MsoListParagraph style="mso-list:l0 level1 lfo1"><span style="mso-list:Ignore">·<span>&nbsp;&nbsp;</span></span>a</p><p class=MsoListParagraph style="mso-list:l0 level2 lfo1"><span style="mso-list:Ignore">o<span>&nbsp;</span></span>b</p>"#,
        "<ul>\n<li>a\n<ul>\n<li>b</li>\n</ul>\n</li>\n</ul>",
    );
    case(
        r#"<p style="mso-list:l1 level1 lfo2"><span style="mso-list:Ignore">a)<span>&nbsp;</span></span>x</p><p style="mso-list:l1 level1 lfo2"><span style="mso-list:Ignore">b)<span>&nbsp;</span></span>y</p>"#,
        "<ol type=\"a\">\n<li>x</li>\n<li>y</li>\n</ol>",
    );
    case(r#"<p>a<a name="_Toc123"></a></p><p><a name="_GoBack"></a>b</p>"#, "<p>a</p>\n<p>b</p>");
    case("<div class=WordSection1><p>a</p></div><div class=WordSection2><p>b</p></div>", "<p>a</p>\n<p>b</p>");
    case(r#"<p><ins cite="mailto:T" datetime="2031-01-02T03:04">new</ins><del>old</del></p>"#, "<p>new<del>old</del></p>");
    case(
        r#"<b style="font-weight:normal" id="docs-internal-guid-1"><p dir=ltr><span style="font-weight:700">a</span></p></b>"#,
        "<p><strong>a</strong></p>",
    );
    case(r#"<p>a<br class="Apple-interchange-newline"></p>"#, "<p>a</p>");
    case("<p>a</p><p><br></p><p>&nbsp;</p><p>b</p>", "<p>a</p>\n<p>b</p>");
    case("<p>a\u{200B}b\u{FEFF}c</p>", "<p>a\u{200B}b\u{FEFF}c</p>");
    case("<p>one&nbsp;&nbsp;&nbsp;two</p>", "<p>one&nbsp;&nbsp;&nbsp;two</p>");
    case("<p>&nbsp;&nbsp;&nbsp;&nbsp;indented</p>", "<p>&nbsp;&nbsp;&nbsp;&nbsp;indented</p>");
    case("<p>end&nbsp;</p>", "<p>end&nbsp;</p>");
    case("<p>a<br><br>b</p>", "<p>a</p>\n<p>b</p>");
    case("<p>a<br></p>", "<p>a</p>");
    case(r#"<p data-x="1" contenteditable="true" spellcheck="false" class="ql-align-center">a</p>"#, "<p>a</p>");
    case(r#"<p id="unused" class="unused">a</p>"#, r#"<p id="unused">a</p>"#);
    case("<p align=center><font size=2>a</font></p>", "<p>a</p>");
    case("<p><span></span></p><div></div><p>a</p>", "<p>a</p>");
    case("<p><em>a</em><em> b</em></p>", "<p><em>a</em><em> b</em></p>");
    case("<p><b>a </b>b</p>", "<p><strong>a </strong>b</p>");
    case("<p>a<b> b</b></p>", "<p>a<strong> b</strong></p>");
}
