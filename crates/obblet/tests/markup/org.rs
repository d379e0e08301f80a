//! Org as people write it, read and written.
#![allow(missing_docs, clippy::unwrap_used, clippy::panic, clippy::print_stderr, reason = "tests")]

use crate::support;

use obblet::compare::{Category, compare};
use obblet::document::{Kind, Step, Weight};
use obblet::formats::{html, org};
use obblet::profile::Profile;
use obblet::{Context, Converted, Format};
use proptest::prelude::*;
use support::convert::convert;
use support::linear::grows_linearly;
use support::{trees, validity};

fn with(source: &str, reads: Format, writes: Format, settings: &[&str]) -> Converted {
    convert(source, reads, writes, &[settings, &["html.compact=true", "clean.join-lines=false", "html.math=tex"]].concat())
}

#[track_caller]
fn reads(source: &str, expected: &str) {
    assert_eq!(with(source, Format::Org, Format::Html, &[]).into_text().unwrap(), expected, "{source}");
}

#[track_caller]
fn writes(html: &str, expected: &str) {
    let written = with(html, Format::Html, Format::Org, &[]).into_text().unwrap();
    assert_eq!(written, expected, "{html}");
    // What is written is read as what it was written from.
    let again = with(&written, Format::Org, Format::Org, &[]).into_text().unwrap();
    assert_eq!(again, written);
}

#[test]
fn headings_carry_their_state_and_their_tags() {
    reads(
        "#+TITLE: The /gauge/\n#+TODO: OPEN(o) WAIT | SHUT\n* OPEN [#A] Clean it :pier:\nDEADLINE: <2031-03-05 Wed>\n:PROPERTIES:\n:CUSTOM_ID: well\n:END:\n** SHUT Old [1/2]\n",
        "<h1>The <em>gauge</em></h1><h2 id=\"well\"><span class=\"keyword-open\">OPEN</span> Clean it <span class=\"tag\">pier</span></h2><h3><span class=\"keyword-done\">SHUT</span> Old [1/2]</h3>",
    );
    reads(
        "#+OPTIONS: todo:nil tags:nil pri:t title:nil\n#+TITLE: x\n* TODO [#B] a :b:\n",
        "<h1><span class=\"priority\">[B]</span> a</h1>",
    );
    // Stars are headings in the first column with a space behind them.
    reads("*bold*\n\n *no heading\n", "<p><strong>bold</strong></p><p>*no heading</p>");
}

#[test]
fn a_file_says_who_wrote_it_and_how_it_is_called() {
    let source = "#+TITLE: The /float/ [[https://greywick.example/][gauge]]\n#+SUBTITLE: A plan\n#+AUTHOR: Ada Pask and Ivo Tolliver\n#+DATE: <2031-03-05>\n#+KEYWORDS: tides, floats\n#+FILETAGS: :pier:\n#+LANGUAGE: en\n#+DESCRIPTION: What is\n#+DESCRIPTION: to be done\n";
    let doc = org::read(source.as_bytes(), &org::Settings::default());
    let metadata = &doc.metadata;
    assert_eq!(metadata.title.as_deref(), Some("The float gauge"));
    assert_eq!(metadata.subtitle.as_deref(), Some("A plan"));
    assert_eq!(metadata.authors, ["Ada Pask", "Ivo Tolliver"]);
    assert_eq!(metadata.date.as_deref(), Some("2031-03-05"));
    assert_eq!(metadata.keywords, ["tides", "floats", "pier"]);
    assert_eq!(metadata.language.as_deref(), Some("en"));
    assert_eq!(metadata.description.as_deref(), Some("What is to be done"));
}

#[test]
fn what_a_file_excludes_is_left_out_and_said() {
    let source = "* a\n* COMMENT b\nbetween\n** c\n* d :noexport:\n* e :ARCHIVE:\nfirst\n:LOGBOOK:\nlogged\n:END:\n# comment\n";
    let done = with(source, Format::Org, Format::Html, &[]);
    let finding = done.findings.iter().find(|finding| finding.code == "org.excluded").unwrap();
    assert_eq!(finding.lost, "* COMMENT b between ** c * d :noexport: first :LOGBOOK: logged :END: # comment");
    reads(source, "<h1>a</h1><h1>e <span class=\"tag\">ARCHIVE</span></h1>");
    reads("top\n* a\nx\n** b :export:\ny\n* c\n", "<h1>a</h1><h2>b <span class=\"tag\">export</span></h2><p>y</p>");
    reads("#+FILETAGS: :noexport:\ntop\n* a\n", "<p>top</p>");
    let deep = with("******* a\n", Format::Org, Format::Html, &[]);
    assert!(deep.findings.iter().any(|finding| finding.code == "org.heading-level"));
    let part = with("* a\n** b\nx\n* c :keep:\ny\n", Format::Org, Format::Html, &["org.select=keep"]);
    assert_eq!(part.into_text().unwrap(), "<h1>c <span class=\"tag\">keep</span></h1><p>y</p>");
    let none = with("* a\n", Format::Org, Format::Html, &["org.select=zzz"]);
    assert!(none.findings.iter().any(|finding| finding.code == "org.select" && finding.weight == Weight::Lost));
}

#[test]
fn markers_need_the_right_neighbours() {
    reads(
        "*b* /i/ _u_ +s+ =v= ~c~, =a=b ~x~, (*y*) a*b*c no * / no/ *a /b/ c*\n",
        "<p><strong>b</strong> <em>i</em> <u>u</u> <s>s</s> <code>v</code> <code>c</code>, =a=b <code>x</code>, (<strong>y</strong>) a*b*c no * / no/ <strong>a <em>b</em> c</strong></p>",
    );
    reads("H_2O x^{2+y} a_b\n", "<p>H<sub>2O</sub> x<sup>2+y</sup> a<sub>b</sub></p>");
    reads("#+OPTIONS: ^:{}\nH_2O x_{2}\n", "<p>H_2O x<sub>2</sub></p>");
    reads(
        "\\begin{x} a \\end{x}\nb\n\n\\begin{y}\nc\n\\end{y}\n",
        "<div class=\"x\"><p>a</p></div><p>b</p><div class=\"y\"><p>c</p></div>",
    );
    reads("\\alpha\\beta{}s \\rarr \\nosuch a -- b --- c... d\\-e\n", "<p>αβs → \\nosuch a – b — c… d\u{AD}e</p>");
    reads("one\\\\\ntwo =x\n  y= [[a b][c]]\n", "<p>one<br>two <code>x y</code> c</p>");
    reads(
        "@@html:<b>x</b>@@@@latex:y@@ src_sh[:x y]{ls} <2031-03-05 Wed 09:30>\n",
        "<p><strong>x</strong> <code>ls</code> <time datetime=\"2031-03-05T09:30\">2031-03-05 Wed 09:30</time></p>",
    );
    reads(
        "$x$ and $5 or $6, \\(a\\) \\[b\\] $$c$$\n",
        "<p><code class=\"language-tex\">x</code> and $5 or $6, <code class=\"language-tex\">a</code> <code class=\"language-tex display\">b</code> <code class=\"language-tex display\">c</code></p>",
    );
}

#[test]
fn links_lead_to_what_they_name() {
    reads(
        "#+LINK: log https://greywick.example/%s\n* Low water\n[[*Low water]] [[low water][here]] [[log:7][seven]] <<spot>>[[spot]] [[file:a.org::*The well][well]] https://greywick.example/x_y. [[help:x][no]] [[./a b.png]]\n",
        "<h1 id=\"low-water\">Low water</h1><p><a href=\"#low-water\">Low water</a> <a href=\"#low-water\">here</a> <a href=\"https://greywick.example/7\">seven</a> <a href=\"#spot\" id=\"spot\">spot</a> <a href=\"a.org#the-well\">well</a> <a href=\"https://greywick.example/x_y\">https://greywick.example/x_y</a>. no <img src=\"./a%20b.png\" alt=\"\"></p>",
    );
    reads(
        "#+CAPTION: The /gauge/\n#+ATTR_HTML: :alt A float :width 20\n[[file:g.png]]\n\n[[https://greywick.example/][file:g.png]]\n",
        "<figure><img src=\"g.png\" alt=\"A float\" width=\"20\"><figcaption>The <em>gauge</em></figcaption></figure><p><a href=\"https://greywick.example/\"><img src=\"g.png\" alt=\"\"></a></p>",
    );
}

#[test]
fn links_by_name_show_the_numbers_of_what_they_lead_to() {
    let source = "Tables [[sums]] and [[tab:old]][[fig:none]], figure [[pier]], the [[pier][pier]], [[eq:rise]], item [[two]].\n\n#+NAME: sums\n#+CAPTION: Sums\n| 1 |\n\n#+NAME: tab:old\n#+CAPTION: Old\n| 2 |\n\n#+NAME: pier\n#+CAPTION: The pier\n#+ATTR_HTML: :alt A pier\n[[file:pier.png]]\n\n#+NAME: eq:rise\n\\begin{equation}\nr = 2h\n\\end{equation}\n\n1. one\n2. <<two>> two\n";
    reads(
        source,
        "<p>Tables <a href=\"#sums\">1</a> and <a href=\"#tab:old\">2</a><a href=\"fig:none\">fig:none</a>, figure <a href=\"#pier\">1</a>, the <a href=\"#pier\">pier</a>, <a href=\"#eq:rise\">(1)</a>, item <a href=\"#two\">2</a>.</p><table id=\"sums\"><caption>Table&nbsp;1: Sums</caption><tbody><tr><td>1</td></tr></tbody></table><table id=\"tab:old\"><caption>Table&nbsp;2: Old</caption><tbody><tr><td>2</td></tr></tbody></table><figure id=\"pier\"><img src=\"pier.png\" alt=\"A pier\"><figcaption>Figure&nbsp;1: The pier</figcaption></figure><p><code id=\"eq:rise\" class=\"language-tex display\">\\begin{equation}\\label{eq:rise}\nr = 2h\n\\end{equation}</code></p><ol><li>one</li><li id=\"two\">two</li></ol>",
    );
    // Org counts by itself, so that it all comes back; formulas are named by their labels.
    let back = with(source, Format::Org, Format::Org, &[]).into_text().unwrap();
    let labelled = source.replace("#+NAME: eq:rise\n", "").replace("{equation}\nr", "{equation}\\label{eq:rise}\nr");
    assert_eq!(back, labelled.replace("[[eq:rise]]", "\\(\\eqref{eq:rise}\\)"));
    let latex = with(source, Format::Org, Format::Latex, &[]).into_text().unwrap();
    assert!(latex.contains("Tables \\ref{sums} and \\ref{tab:old}") && latex.contains("\\eqref{eq:rise}"), "{latex}");
    // The name and the number that other formats write into the text are what Org shows.
    writes(
        "<p>See <a href=\"#w\"></a> and <a href=\"#w\">the well</a>.</p><figure id=\"w\"><img src=\"w.png\" alt=\"a\"><figcaption>The well</figcaption></figure>",
        "See Figure\u{A0}[[w]] and [[w][the well]].\n\n#+NAME: w\n#+CAPTION: The well\n#+ATTR_HTML: :alt a\n[[file:w.png]]\n",
    );
}

#[test]
fn nothing_that_stands_in_an_odd_place_is_lost() {
    // What has no place in a list of its kind stays text, as does the box of a term.
    reads(
        "- one\n- two :: what it is\n\na\n\n- [X] term :: done\n- 3 :: what\n",
        "<ul><li>one</li><li>two :: what it is</li></ul><p>a</p><dl><dt>[X] term</dt><dd>done</dd><dt>3</dt><dd>what</dd></dl>",
    );
    // What is said of a paragraph is said of the picture that it begins with; captions of words are named.
    let done = with(
        "#+CAPTION: Pier\n#+ATTR_HTML: :alt A pier :width 90\n[[./p.png]] and words\n\n#+CAPTION: A list\n- a\n",
        Format::Org,
        Format::Html,
        &[],
    );
    assert_eq!(done.text().unwrap(), "<p><img src=\"./p.png\" alt=\"A pier\" width=\"90\"> and words</p><ul><li>a</li></ul>");
    let captions = done.findings.iter().find(|finding| finding.code == "org.caption").unwrap();
    assert!(captions.message.ends_with(": 2") && captions.weight == Weight::Changed, "{captions:?}");
}

#[test]
fn latex_that_is_no_formula_is_read_as_what_it_is() {
    reads(
        "Ein \\textbf{Pegel $x$}, \\LaTeX{} und \\emph{mehr}\\footnote{Note}; C:\\new\\hfill\\x. \\newpage\n\n\\newpage\n\n\\begin{tabular}{lr}\na & 1\\\\\n\\end{tabular}\n\n\\begin{align}\na&=b\n\\end{align}\n",
        "<p>Ein <strong>Pegel <code class=\"language-tex\">x</code></strong>, LaTeX und <em>mehr</em><sup><a href=\"#note-1\" id=\"note-1-mark\" role=\"doc-noteref\">1</a></sup>; C:\\new\\hfill\\x. </p><table><tbody><tr><td>a</td><td style=\"text-align: right\">1</td></tr></tbody></table><p><code class=\"language-tex display\">\\begin{align}\na&amp;=b\n\\end{align}</code></p><section role=\"doc-endnotes\" aria-label=\"Notes\"><ol><li id=\"note-1\"><p>Note <a href=\"#note-1-mark\" role=\"doc-backlink\" aria-label=\"Back to the text\">↑</a></p></li></ol></section>",
    );
    let done =
        with("\\foo{bar} \\newpage\n\n\\begin{tikzpicture}\n\\draw (0,0);\n\\end{tikzpicture}\n", Format::Org, Format::Html, &[]);
    assert_eq!(done.text().unwrap(), "<p>bar </p>");
    let found: Vec<_> = done.findings.iter().map(|found| (&*found.code, found.weight)).collect();
    assert_eq!(found, [("org.latex", Weight::Changed), ("org.other-format", Weight::Changed), ("org.latex", Weight::Lost)]);
}

/// Equations within paragraphs stand in lines of their own, so that they are equations when they are read again.
#[test]
fn equations_come_back_from_org() {
    let source = "The height is \\begin{equation}\\label{eq:h}\nh = 2\n\\end{equation} by \\eqref{eq:h} and\n\\begin{itemize}\n\\item \\begin{align*}\na &= b\n\\end{align*} holds\n\\end{itemize}\n";
    let org = with(source, Format::Latex, Format::Org, &[]).into_text().unwrap();
    assert_eq!(
        org,
        "The height is\n\n\\begin{equation}\\label{eq:h}\nh = 2\n\\end{equation}\n\nby \\(\\eqref{eq:h}\\) and\n\n-\n  \\begin{align*}\n  a &= b\n  \\end{align*}\n  holds\n"
    );
    let again = with(&org, Format::Org, Format::Org, &[]).into_text().unwrap();
    assert_eq!(again, org.replace("\n  holds", "\n\n  holds"));
    assert_eq!(with(&again, Format::Org, Format::Org, &[]).into_text().unwrap(), again);
    let rows = with("x \\(a\n- b\\) and \\(c\nd\\)\n", Format::Latex, Format::Org, &[]).into_text().unwrap();
    assert_eq!(rows, "x \\(a - b\\) and \\(c\nd\\)\n");
    let page = with(&org, Format::Org, Format::Html, &[]).into_text().unwrap();
    assert!(page.contains("by <a href=\"#eq:h\">(1)</a> and"), "{page}");
}

#[test]
fn poems_keep_their_lines() {
    let poem = "#+begin_verse\nTide in, *bold*\n   out,\n – and gone.\n\n Gone\n@@comment:@@- no item\n#+end_verse\n";
    assert_eq!(with(poem, Format::Org, Format::Org, &[]).into_text().unwrap(), poem);
    let latex = with(poem, Format::Org, Format::Latex, &["shape=fragment"]).into_text().unwrap();
    assert_eq!(
        latex,
        "\\begin{verse}\nTide in, \\textbf{bold}\\\\\n~~~out,\\\\\n~– and gone.\n\n~Gone\\\\\n- no item\n\\end{verse}\n"
    );
    assert_eq!(with(&latex, Format::Latex, Format::Org, &[]).into_text().unwrap(), poem);
}

#[test]
fn lists_hold_what_is_set_in() {
    reads(
        "- a\n  - b\n\n    second\n- [X] c\n+ d\n\n\n1. [@3] x\n   #+begin_src sh\n   ls\n   #+end_src\n2) y\n * star\ntext\n",
        "<ul><li><p>a</p><ul><li><p>b</p><p>second</p></li></ul></li><li><input type=\"checkbox\" disabled checked> c</li><li>d</li></ul><ol start=\"3\"><li>x<pre><code class=\"language-sh\">ls\n</code></pre></li><li>y<ul><li>star</li></ul></li></ol><p>text</p>"
            .replace("<ul><li><p>a</p><ul>", "<ul><li>a<ul>")
            .as_str(),
    );
    reads(
        "- Float :: of copper,\n  hollow\n- Chain ::\n  brass\n",
        "<dl><dt>Float</dt><dd>of copper,\nhollow</dd><dt>Chain</dt><dd>brass</dd></dl>",
    );
}

#[test]
fn blocks_are_what_their_names_say() {
    reads(
        "#+BEGIN_QUOTE\nq\n#+begin_note\nn\n#+end_note\n#+END_QUOTE\n#+begin_verse\n a\n   b\n#+end_verse\n: f\n:  g\n#+begin_example\n,* x\n#+end_example\n-----\n#+begin_pier\nz\n#+end_pier\n",
        "<blockquote><p>q</p><aside class=\"note\"><p><strong>Note</strong></p><p>n</p></aside></blockquote><div class=\"verse\"><p>a<br>&nbsp;&nbsp;b</p></div><pre><code>f\n g\n</code></pre><pre><code>* x\n</code></pre><hr><div class=\"pier\"><p>z</p></div>",
    );
    reads(
        "#+begin_src sh :exports none\nls\n#+end_src\n\n#+RESULTS:\n: gone\n\n#+begin_src sh :exports both\nls -l\n#+end_src\n\n#+RESULTS:\n: kept\n#+begin_comment\nno\n#+end_comment\n#+begin_open\ntext\n",
        "<pre><code class=\"language-sh\">ls -l\n</code></pre><pre><code>kept\n</code></pre><p>#+begin<sub>open</sub>\ntext</p>",
    );
    reads(
        "#+CAPTION: Spares\n#+NAME: t\n| / | <r> |\n| Part | Count |\n|------+-------|\n| *a* | 2 |\n|---+---|\n| b |\n#+TBLFM: $2=1\n",
        "<table id=\"t\"><caption>Spares</caption><thead><tr><th>Part</th><th>Count</th></tr></thead><tbody><tr><td><strong>a</strong></td><td>2</td></tr></tbody><tbody><tr><td>b</td><td></td></tr></tbody></table>",
    );
    reads(
        "a[fn:1] b[fn:: in /line/] c[fn:no]\n\n* Footnotes\n[fn:1] One\n\n- item\n",
        "<p>a<sup><a href=\"#note-1\" id=\"note-1-mark\" role=\"doc-noteref\">1</a></sup> b<sup><a href=\"#note-2\" id=\"note-2-mark\" role=\"doc-noteref\">2</a></sup> c[fn:no]</p><section role=\"doc-endnotes\" aria-label=\"Notes\"><ol><li id=\"note-1\"><p>One</p><ul><li>item</li></ul><p> <a href=\"#note-1-mark\" role=\"doc-backlink\" aria-label=\"Back to the text\">↑</a></p></li><li id=\"note-2\"><p>in <em>line</em> <a href=\"#note-2-mark\" role=\"doc-backlink\" aria-label=\"Back to the text\">↑</a></p></li></ol></section>",
    );
}

#[test]
fn macros_are_written_out_and_bombs_are_not() {
    reads(
        "#+MACRO: at $1 at $2\n#+TITLE: T\n{{{at(high,noon\\, sharp)}}} {{{title}}} {{{n}}}{{{n}}}\n",
        "<h1>T</h1><p>high at noon, sharp T 12</p>",
    );
    let bomb: String = (0..20).map(|n| format!("#+MACRO: m{} {{{{{{m{n}}}}}}}{{{{{{m{n}}}}}}}\n", n + 1)).collect();
    reads(
        "#+LATEX_HEADER: \\newcommand{\\seiche}{T_n}\n\\seiche is \\seiche{}; \\hspace*{1cm} \\citep*[p. 3]{k} \\operatorname*{max} \\foo* x\n",
        "<p><code class=\"language-tex\">\\seiche</code> is <code class=\"language-tex\">\\seiche{}</code>; <code class=\"language-tex\">\\hspace*{1cm}</code> <cite>[k p. 3]</cite> <code class=\"language-tex\">\\operatorname*{max}</code> \\foo* x</p>",
    );
    let done = with(&format!("#+MACRO: m0 {}\n{bomb}{{{{{{m20}}}}}}\n", "x".repeat(1000)), Format::Org, Format::Html, &[]);
    assert!(done.text().unwrap().len() < 1 << 21);
}

#[test]
fn documents_are_written_as_people_write_them() {
    writes(
        "<h1>Tides</h1><p>High <b>water</b> at <i>noon</i>, <code>x=~y</code> and un<b>usu</b>al, 5*3 *no* [[x]] a_b.</p><ol start=\"4\"><li>a<ul><li>b</li></ul></li><li><p>c</p><p>d</p></li></ol><p>- no item</p><dl><dt>Float</dt><dd>of copper</dd></dl><blockquote><p>q</p></blockquote><pre><code class=\"language-sh\">* ls\n  x\n</code></pre><hr><p>1. no item</p>",
        "#+OPTIONS: ^:{}\n\n* Tides\n\nHigh *water* at /noon/, ~x=~y~ and un\u{200B}*usu*\u{200B}al, 5*3 \\ast{}no* \\lbrack{}[x\\rbrack{}] a_b.\n\n4. [@4] a\n\n   - b\n\n5. c\n\n   d\n\n@@comment:@@- no item\n\n- Float :: of copper\n\n#+begin_quote\nq\n#+end_quote\n\n#+begin_src sh\n,* ls\n  x\n#+end_src\n\n-----\n\n@@comment:@@1. no item\n",
    );
    writes("<p><a href=\"plans/a.org#well\">the well</a></p>", "[[file:plans/a.org::#well][the well]]\n");
    writes(
        "<table><caption>Spares</caption><thead><tr><th>Teil</th><th style=\"text-align:right\">数量</th></tr></thead><tbody><tr><td>a|b</td><td style=\"text-align:right\">10</td></tr></tbody></table><figure><img src=\"g.png\" alt=\"A float\"><figcaption>The gauge</figcaption></figure>",
        "#+CAPTION: Spares\n| Teil        | 数量 |\n|-------------+------|\n|             |  <r> |\n| a\\vert{}b   |   10 |\n\n#+CAPTION: The gauge\n#+ATTR_HTML: :alt A float\n[[file:g.png]]\n"
            .replace("| Teil        |", "| Teil      |")
            .replace("|-------------+", "|-----------+")
            .replace("|             |", "|           |")
            .replace("| a\\vert{}b   |", "| a\\vert{}b |")
            .as_str(),
    );
}

/// Pieces that mean something in Org, alone or together.
const PIECES: [&str; 51] = [
    "#+OPTIONS: H:1 num:t prop:t p:t\n",
    "*** ",
    ":PROPERTIES:\n:A: b\n",
    "SCHEDULED: <2031-03-05>\n",
    "<<<word>>>",
    "+--+\n",
    "#+INCLUDE: x\n",
    "* ",
    "** TODO ",
    "*",
    "/",
    "=",
    "~",
    "_",
    "+",
    "^{",
    "}",
    "[[",
    "]]",
    "][",
    "[fn:1]",
    "[fn:: ",
    "]",
    "<<",
    ">>",
    "| a | b |\n",
    "|-\n",
    "- ",
    "1. ",
    " :: ",
    "#+begin_quote\n",
    "#+end_quote\n",
    "#+begin_src x\n",
    "#+end_src\n",
    ":D:\n",
    ":END:\n",
    "\\alpha",
    "\\(",
    "\\)",
    "$",
    "{{{n}}}",
    "@@html:",
    "@@",
    "\n",
    "\n\n",
    "  ",
    "word ",
    "é",
    "<2031-03-05>",
    "\\begin{x}\n",
    "\\end{x}\n",
];

proptest! {
    #[test]
    fn any_text_is_valid_html_there_and_back(pieces in prop::collection::vec(0..PIECES.len(), 0..60)) {
        let source: String = pieces.into_iter().map(|piece| PIECES[piece]).collect();
        let doc = org::read(source.as_bytes(), &org::Settings::default());
        let page = html::write(&doc, &html::Options::default()).html;
        let faults = validity::faults(&page);
        prop_assert!(faults.is_empty(), "{:#?}\n{}", faults, page);
        // The blocks at the top are where they are said to be.
        let mut at = 0;
        for id in doc.children(doc.root()).filter(|&id| doc.node(id).offset() != 0) {
            if let Some(span) = doc.span(id) {
                prop_assert!(at <= span.start && span.start <= span.end, "{:?} {}..{}", doc.kind(id), span.start, span.end);
                at = span.end;
            }
        }
        // What is written of it can be read, and is valid as well.
        let written = org::write(&doc, &org::Settings::default());
        let again = org::read(&written.bytes, &org::Settings::default());
        let faults = validity::faults(&html::write(&again, &html::Options::default()).html);
        prop_assert!(faults.is_empty(), "{:#?}\n{}", faults, String::from_utf8_lossy(&written.bytes));
    }
}

#[test]
fn shapes_that_would_take_careless_readers_long_take_linear_time() {
    type Shape = (&'static str, fn(usize) -> String);
    let shapes: [Shape; 40] = [
        ("headings that are items", |n| {
            let deep: String = (0..n / 40).map(|k| format!("{} h\n", "*".repeat(k % 7 + 36 - k % 3))).collect();
            format!("#+OPTIONS: H:1 num:t\n{deep}")
        }),
        ("radio targets", |n| (0..n / 20).map(|k| format!("<<<a{k} b>>> a{k} b\n")).collect()),
        ("properties", |n| format!("* a\n:PROPERTIES:\n{}:END:\n", ":a: {{{property(a)}}}\n".repeat(n / 22))),
        ("dates below a heading", |n| format!("* a\n{}\n", "SCHEDULED: <2031-03-05> ".repeat(n / 24))),
        ("dates in a section", |n| "* a\n".to_owned() + &"<2031-03-05>\n".repeat(n / 13)),
        ("schemes", |n| "http:".repeat(n / 5)),
        ("calls and code in lines", |n| "src_call_".repeat(n / 9)),
        ("many states and headings", |n| {
            let states: String = (0..n / 16).map(|k| format!(" S{k}")).collect();
            format!("#+TODO:{states}\n") + &(0..n / 16).map(|k| format!("* Z{k} h\n")).collect::<String>()
        }),
        ("many notes", |n| (0..n / 30).map(|k| format!("a[fn:{k}]\n\n[fn:{k}] b\n\n")).collect()),
        ("macros of keywords", |n| "#+TITLE: a\n".repeat(n / 26) + &"{{{keyword(date)}}}\n".repeat(n / 26)),
        ("stars", |n| "*".repeat(n)),
        ("deep headings", |n| (1..n / 40).map(|level| format!("{} h\n", "*".repeat(level % 60 + 1))).collect()),
        ("openers", |n| "*a /b =c ".repeat(n / 9)),
        ("pairs of markers", |n| "*/*/".repeat(n / 4)),
        ("links without an end", |n| "[[a][".repeat(n / 5)),
        ("brackets", |n| "[[".repeat(n / 2) + "]"),
        ("notes", |n| "[fn:a".repeat(n / 5)),
        ("notes in notes", |n| "[fn:: ".repeat(n / 6) + &"]".repeat(n / 6)),
        ("angles", |n| "<".repeat(n)),
        ("formulas without an end", |n| "\\(".repeat(n / 2)),
        ("dollars", |n| "$a ".repeat(n / 3)),
        ("snippets", |n| "@@html:".repeat(n / 7)),
        ("at signs", |n| "@@".repeat(n / 2)),
        ("macros without an end", |n| "{{{a(".repeat(n / 5)),
        ("braces", |n| "a_{".repeat(n / 3)),
        ("blocks without an end", |n| "#+begin_quote\n".repeat(n / 14)),
        ("drawers without an end", |n| ":A:\n".repeat(n / 4)),
        ("blocks in blocks", |n| {
            (0..n / 30).map(|k| format!("#+begin_b{k}\n")).chain((0..n / 30).rev().map(|k| format!("#+end_b{k}\n"))).collect()
        }),
        ("a list", |n| "- a\n".repeat(n / 4)),
        ("commands of LaTeX", |n| "\\foo{a} \\LaTeX{} \\newpage ".repeat(n / 27)),
        ("commands of LaTeX without an end", |n| "\\foo{".repeat(n / 5)),
        ("commands of LaTeX in each other", |n| "\\foo{".repeat(n / 6) + &"}".repeat(n / 6)),
        ("options of LaTeX without an end", |n| "\\cite[".repeat(n / 6)),
        ("environments of text", |n| "\\begin{x}\na\n\\end{x}\n".repeat(n / 20)),
        ("captions of lists", |n| "#+CAPTION: a\n- b\n\n\n".repeat(n / 19)),
        ("captions of tables with names", |n| {
            (0..n / 40).map(|k| format!("#+CAPTION: a\n#+NAME: f:{k}\n| b |\n\n[[f:{k}]]\n\n")).collect()
        }),
        ("names of nothing", |n| (0..n / 10).map(|k| format!("[[f:{k}]] ")).collect()),
        ("formulas with names", |n| {
            (0..n / 60).map(|k| format!("#+NAME: e{k}\n\\begin{{align}}\na\n\\end{{align}}\n[[e{k}]]\n")).collect()
        }),
        ("keywords", |n| "#+CAPTION: a\n".repeat(n / 13)),
        ("a table", |n| "| a | b |\n".repeat(n / 10)),
    ];
    let run = |source: &[u8]| {
        let doc = org::read(source, &org::Settings::default());
        let page = html::write(&doc, &html::Options::default());
        let written = org::write(&doc, &org::Settings::default());
        (doc, page, written)
    };
    let failed: Vec<String> =
        shapes.iter().filter_map(|(name, shape)| grows_linearly(name, 4000, |n| shape(n).into_bytes(), run).err()).collect();
    assert_eq!(failed, [""; 0]);
}

/// Documents of the demo that a reader of text, HTML or packages reads, as their writers left them.
fn demo() -> Vec<(String, Format, Vec<u8>)> {
    let demo = std::path::Path::new(env!("CARGO_MANIFEST_DIR")).join("../../demo");
    let mut found = Vec::new();
    for entry in obblet::publish::documents(&demo).unwrap() {
        found.push((entry.source.display().to_string(), entry.format, std::fs::read(demo.join(&entry.source)).unwrap()));
    }
    assert!(found.len() > 15);
    found
}

#[test]
fn the_demo_comes_back_from_org() {
    let profile = Profile::fragment();
    for (name, format, source) in demo() {
        let first = obblet::read(&source, format, &profile).unwrap();
        let written = obblet::write(first.clone(), Format::Org, &profile, &Context::default()).unwrap();
        let second = obblet::read(&written.bytes, Format::Org, &profile).unwrap();
        // Saved pages are cleaned on their way.
        let comparison = compare(&first, &second);
        for score in comparison.scores.iter().filter(|_| format == Format::Markdown) {
            // Org has no merged cells, no titles of links, and fewer kinds of text within lines.
            let least = match score.category {
                Category::Headings | Category::Lists | Category::Notes => 0.99,
                Category::Text => 0.97,
                _ => continue,
            };
            let counted = score.first + score.second > 0;
            assert!(
                !counted || score.share() >= least,
                "{name}: {:?} {}\n{:#?}",
                score.category,
                score.share(),
                comparison.differences
            );
        }
        // A second trip changes nothing.
        let again = obblet::write(second, Format::Org, &profile, &Context::default()).unwrap();
        let third = obblet::read(&again.bytes, Format::Org, &profile).unwrap();
        let last = obblet::write(third, Format::Org, &profile, &Context::default()).unwrap();
        assert_eq!(String::from_utf8_lossy(&again.bytes), String::from_utf8_lossy(&last.bytes), "{name}");
    }
}

#[test]
fn org_becomes_every_other_format() {
    let source = "#+TITLE: Plan\n* TODO Clean the *well* :pier:\n1. one\n   - two\n2. three[fn:1]\n\n| a | b |\n|---+---|\n| 1 | 2 |\n\n- Float :: of copper\n\n[fn:1] Note.\n";
    for writes in [Format::Html, Format::Markdown, Format::Text, Format::Word] {
        let done = convert(source, Format::Org, writes, &[]);
        assert!(done.findings.iter().all(|finding| finding.weight != Weight::Lost), "{writes}: {:?}", done.findings);
        let back = convert(&done.bytes, writes, Format::Text, &[]).into_text().unwrap();
        for words in ["Plan", "TODO Clean the well pier", "one", "two", "three", "Float", "of copper", "Note."] {
            assert!(back.contains(words) || back.to_uppercase().contains(&words.to_uppercase()), "{writes}: {words}: {back}");
        }
    }
}

#[test]
fn lines_for_the_head_are_written_where_the_source_is_trusted() {
    let source = "#+HTML_HEAD: <link rel=\"stylesheet\" href=\"own.css\">\n#+HTML_HEAD_EXTRA: <script>run()</script>\n#+LANGUAGE: en\n\n* Tides\n";
    let page = with(source, Format::Org, Format::Html, &["shape=page"]);
    let found: Vec<&str> = page.findings.iter().map(|finding| finding.message.as_str()).collect();
    assert_eq!(found, ["lines for the head of the page were left out: 2"]);
    assert!(!page.text().unwrap().contains("own.css") && !page.text().unwrap().contains("run()"));
    let trusted = with(source, Format::Org, Format::Html, &["shape=page", "html.trust=true"]);
    let head = trusted.text().unwrap().split("</head>").next().unwrap();
    assert!(
        head.contains("<link rel=\"stylesheet\" href=\"own.css\">\n<script>run()</script>\n") && trusted.findings.is_empty(),
        "{head}"
    );
    let again = with(source, Format::Org, Format::Org, &[]).into_text().unwrap();
    assert!(
        again.contains("#+HTML_HEAD: <link rel=\"stylesheet\" href=\"own.css\">\n#+HTML_HEAD: <script>run()</script>\n"),
        "{again}"
    );
}

#[test]
fn code_with_a_caption_keeps_its_name() {
    writes(
        "<figure id=\"curve\"><figcaption>The curve of the day</figcaption><pre><code class=\"language-sh\">plot day\n</code></pre></figure><p>See <a href=\"#curve\">it</a>.</p>",
        "#+NAME: curve\n#+CAPTION: The curve of the day\n#+begin_src sh\nplot day\n#+end_src\n\nSee [[curve][it]].\n",
    );
    let exhibit = demo().into_iter().find(|(name, ..)| name.ends_with("exhibit.org")).unwrap();
    let once = with(std::str::from_utf8(&exhibit.2).unwrap(), Format::Org, Format::Org, &[]).into_text().unwrap();
    assert_eq!(with(&once, Format::Org, Format::Org, &[]).into_text().unwrap(), once);
}

proptest! {
    #![proptest_config(ProptestConfig::with_cases(200))]

    /// Whatever stands in whatever, its words come back, and what is written once is written the same again.
    #[test]
    fn any_tree_keeps_its_words(parts in trees::any()) {
        let doc = trees::tree(&parts);
        let settings = org::Settings::default();
        let written = org::write(&doc, &settings);
        let again = org::read(&written.bytes, &settings);
        let letters = |text: &str| text.chars().filter(|c| c.is_alphanumeric()).collect::<String>();
        let text = String::from_utf8(written.bytes).unwrap();
        for step in doc.walk(doc.root()) {
            if let Step::Enter(id) = step
                && let Kind::Text(_) = doc.kind(id)
            {
                let words = letters(&doc.plain_text(id));
                prop_assert!(letters(&text).contains(&words), "{words} is not in {text}");
            }
        }
        let page = html::write(&again, &html::Options::default()).html;
        prop_assert!(validity::faults(&page).is_empty(), "{text}");
    }
}
