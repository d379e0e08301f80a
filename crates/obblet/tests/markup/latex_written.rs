//! LaTeX out: what is written, that it comes back as what it was, and that nothing is lost on the way.
#![allow(missing_docs, clippy::unwrap_used, clippy::panic, clippy::print_stderr, reason = "tests")]

use crate::support;

use obblet::document::Document;
use obblet::profile::Profile;
use obblet::{Context, Format};
use proptest::prelude::*;
use support::conservation;
use support::convert::convert;
use support::linear::grows_linearly;
use support::package;
use support::trees;

fn html(latex: &str) -> String {
    convert(latex, Format::Latex, Format::Html, &["shape=fragment"]).into_text().unwrap()
}

fn latex(html: &str, settings: &[&str]) -> String {
    convert(html, Format::Html, Format::Latex, &[&["shape=page"], settings].concat()).into_text().unwrap()
}

/// The same HTML comes back.
#[track_caller]
fn comes_back(page: &str) {
    let first = &*convert(page, Format::Html, Format::Html, &["shape=fragment"]).into_text().unwrap();
    let written = latex(first, &[]);
    assert_eq!(html(&written), first, "{written}");
}

#[test]
fn a_whole_small_document_reads_as_an_author_writes() {
    let source = "---\ntitle: The tides\nauthor: Isobel Quarrie\nlang: en-GB\n---\n\n# The tides\n\nHigh water is *late* by 50\u{a0}% of an \
        hour[^1]; see [the rules](#rules) and <https://greywick.example/a_b?c=1#d>.\n\n## Rules\n\n1. Look at `h_{max}`.\n2. Write it down:\n   - in ink,\n   - \
        [at once](log.md).\n\n| Day | Height |\n|:----|-------:|\n| Mon | 4.8 m |\n\n```python\nprint(\"high\")\n```\n\n[^1]: Or the day before.\n";
    let written = convert(source, Format::Markdown, Format::Latex, &["shape=page"]).into_text().unwrap();
    insta::assert_snapshot!(written);
}

#[test]
fn what_is_special_is_written_so_that_it_is_seen() {
    for text in [
        "100 % of $5 & #1_a {b} ~c^d \\e",
        "don't say \"no\" -- or --- `so` << here >> ?` !`",
        "\u{201c}typographic\u{201d} \u{2018}marks\u{2019} \u{2013} and \u{2014} dashes",
        "[brackets] and *stars* at the beginning",
        "a\u{a0}b \u{ad}c \u{fffd} \u{4e16}\u{754c} \u{5d0} \u{2192}",
    ] {
        let escaped = text
            .replace('&', "&amp;")
            .replace('<', "&lt;")
            .replace('>', "&gt;")
            .replace('\u{a0}', "&nbsp;")
            .replace('\u{ad}', "&shy;");
        comes_back(&format!("<p>{escaped}</p>\n"));
        comes_back(&format!("<ul>\n<li>{escaped}</li>\n<li>x<br>\n{escaped}</li>\n</ul>\n"));
        comes_back(&format!(
            "<table>\n<tbody>\n<tr>\n<td>{escaped}</td>\n<td>x</td>\n</tr>\n<tr>\n<td>y</td>\n<td>{escaped}</td>\n</tr>\n</tbody>\n</table>\n"
        ));
        let code = escaped.replace("&shy;", "").replace("&nbsp;", "\u{a0}");
        comes_back(&format!("<p>So <code>  {code} --x</code> it is.</p>\n"));
    }
}

#[test]
fn what_html_says_comes_back_from_latex() {
    for page in [
        "<h2 id=\"well\">The well</h2>\n<p>See <a href=\"#well\">the well</a>.</p>\n<h3>Deep</h3>\n",
        "<ol start=\"3\" type=\"i\">\n<li>one</li>\n<li>two\n<ol>\n<li>in it</li>\n</ol>\n</li>\n</ol>\n",
        "<ul>\n<li>\n<p>loose</p>\n</li>\n<li>\n<p>list</p>\n</li>\n</ul>\n",
        "<ul>\n<li><input type=\"checkbox\" disabled checked> done</li>\n<li><input type=\"checkbox\" disabled> open</li>\n</ul>\n",
        "<dl>\n<dt>Stand</dt>\n<dt>Slack [so]</dt>\n<dd>Nothing happens.</dd>\n<dd>For a while.</dd>\n</dl>\n",
        "<blockquote>\n<p>Water.</p>\n<blockquote>\n<p>Deeper.</p>\n</blockquote>\n</blockquote>\n<hr>\n<p>After.</p>\n",
        "<table>\n<thead>\n<tr>\n<th>Wave</th>\n<th style=\"text-align: right\">Height</th>\n</tr>\n</thead>\n<tbody>\n<tr>\n<td rowspan=\"2\">moon</td>\n<td style=\"text-align: right\">1.62</td>\n</tr>\n<tr>\n<td style=\"text-align: right\">0.33</td>\n</tr>\n<tr>\n<td colspan=\"2\" style=\"text-align: center\">all</td>\n</tr>\n</tbody>\n</table>\n",
        "<p>A <kbd>Ctrl</kbd>, <samp>ok</samp>, <var>x</var>, <cite>The Sea</cite>, <dfn>stand</dfn>, <small>fine</small>, <ins>in</ins>, <del>out</del>, <mark>lit</mark>, <s>no</s>, <u>so</u>, <b>bold</b>, <i>slant</i>, <abbr title=\"mean low water\">MLW</abbr>, H<sub>2</sub>O<sup>x</sup>.</p>\n",
        "<details>\n<summary>Why <em>so</em>?</summary>\n<p>The moon.</p>\n</details>\n",
        "<aside>\n<p>By the way.</p>\n</aside>\n",
        "<p lang=\"de\">Das Wasser steigt.</p>\n<p>And <span lang=\"fr\">la mer</span>.</p>\n",
        "<pre><code>a  {b}\n  % c\n</code></pre>\n<pre><code class=\"language-rust\">fn é() {}\n</code></pre>\n",
    ] {
        comes_back(page);
    }
}

#[test]
fn theorems_citations_and_own_environments_come_back_by_their_names() {
    let folder = tempfile::tempdir().unwrap();
    let original = folder.path().join("note.tex");
    let source = "\\documentclass{article}\n\\usepackage{amsmath,amsthm,hyperref}\n\\newtheorem{law}{Law}\n\\newenvironment{remember}{\\begin{quote}\\small}{\\end{quote}}\n\\newcommand{\\tide}{\\mathcal{T}}\n\
        \\title{A note}\n\\author{Tolliver Pask}\n\\begin{document}\n\\maketitle\n\\begin{abstract}\nShort.\n\\end{abstract}\n\\section{Waves}\\label{waves}\nAs \\cite{quarrie,pask} say, and \\cite[p.~3]{pask} again.\n\
        \\begin{law}[of the quay]\\label{law-quay}\nWater $\\tide$ rises.\n\\end{law}\n\\begin{proof}\nLook. \n\\end{proof}\n\\begin{remember}\nAlways.\n\\end{remember}\n\
        \\begin{table}\n\\caption{Heights}\\label{heights}\n\\begin{tabular}{lr}\n\\toprule\na & b \\\\\n\\midrule\n1 & 2 \\\\\n\\bottomrule\n\\end{tabular}\n\\end{table}\n\
        \\section{Ends}\nSee Section~\\ref{waves} and \\autoref{heights}.\n\\begin{thebibliography}{9}\n\\bibitem{quarrie} I. Quarrie, Tides.\n\\bibitem{pask} T. Pask, Waves.\n\\end{thebibliography}\n\\end{document}\n";
    std::fs::write(&original, source).unwrap();
    let first = html(source);
    let written = latex(&first, &[&format!("latex.preamble={}", original.display())]);
    for kept in [
        "\\newtheorem{law}{Law}",
        "\\maketitle",
        "\\begin{abstract}",
        "\\section{Waves}\\label{waves}",
        "\\cite{quarrie,pask}",
        "\\cite[{p.~3}]{pask}",
        "\\begin{law}[{of the quay}]",
        "\\begin{proof}\nLook.\n\\end{proof}",
        "\\begin{remember}\nAlways.\n\\end{remember}",
        "\\caption{Heights}\\label{heights}",
        "\\ref{waves}",
        "\\autoref{heights}",
        "\\bibitem{pask} T. Pask, Waves.",
    ] {
        assert!(written.contains(kept), "{kept} is not in\n{written}");
    }
    assert_eq!(html(&written), first, "{written}");
}

#[test]
fn algorithms_come_back_as_lists_of_lines() {
    comes_back(
        "<figure id=\"rise\">\n<figcaption>Algorithm&nbsp;1: The rise</figcaption>\n<ul class=\"algorithm\">\n<li><strong>for</strong> each hour <strong>do</strong>\n\
        <ul>\n<li><strong>if</strong> it rises <strong>then</strong>\n<ul>\n<li>count</li>\n</ul>\n</li>\n<li>wait</li>\n</ul>\n</li>\n<li><strong>return</strong> all</li>\n</ul>\n\
        </figure>\n<p>See <a href=\"#rise\">1</a>.</p>\n<ul>\n<li>no line</li>\n</ul>\n",
    );
    let source = "\\documentclass{article}\n\\usepackage{algpseudocode}\n\\begin{document}\n\\begin{algorithmic}\n\\State $h \\gets 0$\n\\While{$h < 5$}\n\
        \\State wait \\Comment{for an hour}\n\\EndWhile\n\\end{algorithmic}\n\\end{document}\n";
    let written = convert(source, Format::Latex, Format::Latex, &["shape=page"]).into_text().unwrap();
    assert_eq!(html(&written), html(source), "{written}");
    let lines = "\\begin{pseudocode}\n\\item \\(h \\gets 0\\)\n\\item \\textbf{while} \\(h < 5\\) \\textbf{do}\n\\begin{pseudocode}\n\\item wait ";
    assert!(written.contains(lines), "{written}");
    // What goes into another document brings no definition with it.
    let fragment = convert(source, Format::Latex, Format::Latex, &["shape=fragment"]).into_text().unwrap();
    assert!(
        fragment.starts_with("\\begin{itemize}[label={}, nosep]\n\\item \\(h") && !fragment.contains("pseudocode"),
        "{fragment}"
    );
}

#[test]
fn notes_are_set_in_nothing_that_is_around_their_mention() {
    let source = "\\textbf{a\\footnote{b \\textbf{c} d}} \\texttt{e\\footnote{\\texttt{f} \\emph{g}}}";
    let written = convert(source, Format::Latex, Format::Latex, &["shape=fragment"]).into_text().unwrap();
    assert_eq!(written.trim(), source);
}

#[test]
fn a_fragment_has_no_preamble_and_a_page_has_one() {
    let whole =
        convert("<h1>Tides</h1><p>Water.</p>", Format::Html, Format::Latex, &["shape=page", "latex.class=[a4paper]scrartcl"])
            .into_text()
            .unwrap();
    assert!(whole.starts_with("\\documentclass[a4paper]{scrartcl}\n") && whole.ends_with("\n\\end{document}\n"), "{whole}");
    let part = convert("<h1>Tides</h1><p>Water.</p>", Format::Html, Format::Latex, &["shape=fragment"]).into_text().unwrap();
    assert_eq!(part, "\\section{Tides}\n\nWater.\n");
}

#[test]
fn formulas_bring_what_the_engine_needs_for_them() {
    let written = |formula: &str| {
        convert(format!("$${formula}$$\n"), Format::Markdown, Format::Latex, &["shape=page"]).into_text().unwrap()
    };
    // What stands in a preamble only, or in text only, is written out.
    let operator = written("\\DeclareMathOperator{\\Hom}{Hom} \\Hom(A, B)");
    assert!(operator.contains("\\operatorname{Hom}(A, B)") && !operator.contains("Declare"), "{operator}");
    assert!(written("{\\bfseries v} + w").contains("\n\\mathbf{v} + w\n"), "{}", written("{\\bfseries v} + w"));
    assert!(written("\\cancel{x} + y").contains("\\usepackage{cancel}\n"));
    assert!(written("7\\,\\angstrom").contains("\\providecommand{\\angstrom}"));
    assert!(!written("x + y").contains("cancel"));
    // References within formulas show the numbers of what they lead to.
    let source = "$$\n\\begin{equation} a = b \\label{e} \\end{equation}\n$$\n\n$$x > y \\quad\\text{by \\eqref{e}}$$\n";
    let page = convert(source, Format::Markdown, Format::Text, &["text.math=text"]).into_text().unwrap();
    assert!(page.contains("by (1)"), "{page}");
}

#[test]
fn content_for_one_output_is_in_that_one_alone() {
    let sources = [
        (
            Format::Html,
            "<p>Both <span class=\"only-html\">web</span><span class=\"only-latex only-word\">print</span>.</p><div class=\"not-html\"><p>Paper.</p></div>",
        ),
        (
            Format::Markdown,
            "Both <span class=\"only-html\">web</span><span class=\"only-latex only-word\">print</span>.\n\n<div class=\"not-html\">\n\nPaper.\n\n</div>\n",
        ),
        (
            Format::Latex,
            "Both\n\\begin{only-html}web\\end{only-html}\\begin{only-latex}print\\end{only-latex}\n\\begin{not-html}Paper.\\end{not-html}",
        ),
        (
            Format::Org,
            "Both\n#+begin_only-html\nweb\n#+end_only-html\n#+begin_only-latex\nprint\n#+end_only-latex\n#+begin_not-html\nPaper.\n#+end_not-html\n",
        ),
        (Format::Org, "* A\nBoth\n* web :only_html:\n** Below\n* print :only_latex:only_word:\n** Paper\n* B\n"),
    ];
    let character =
        |id: &str, name: &str| format!("<w:style w:type=\"character\" w:styleId=\"{id}\"><w:name w:val=\"{name}\"/></w:style>");
    let word = package::Package {
        styles: character("W", "Only HTML") + &character("P", "Only LaTeX") + &package::style("N", "Not HTML", "", "", ""),
        ..package::Package::of(
            &(package::paragraph(
                "",
                &[
                    package::text("Both "),
                    package::run("<w:rStyle w:val=\"W\"/>", "web"),
                    package::run("<w:rStyle w:val=\"P\"/>", "print"),
                ]
                .concat(),
            ) + &package::styled("N", "Paper.")),
        )
    };
    let word = word.bytes();
    let sources = sources.into_iter().map(|(format, source)| (format, source.as_bytes())).chain([(Format::Word, &*word)]);
    for (format, source) in sources {
        let page = convert(source, format, Format::Html, &["shape=fragment"]);
        let (text, findings) = (page.text().unwrap().to_owned(), &page.findings);
        assert!(
            text.contains("web") && !text.contains("print") && !text.contains("Paper") && !text.contains("only-"),
            "{format}: {text}"
        );
        assert!(
            findings.iter().any(|finding| finding.code == "clean.targets" && finding.lost.contains("Paper")),
            "{format}: {findings:?}"
        );
        let print = convert(source, format, Format::Latex, &["shape=fragment"]).into_text().unwrap();
        assert!(print.contains("print") && print.contains("Paper") && !print.contains("web"), "{format}: {print}");
    }
}

/// Braces and environments are closed in their order; returns what is wrong.
fn fault(latex: &str) -> Option<String> {
    let (mut open, mut groups) = (Vec::new(), 0_i32);
    let mut rest = latex;
    while let Some(at) = rest.find(['\\', '{', '}', '%']) {
        rest = &rest[at..];
        let verbatim = ["verbatim", "lstlisting"].into_iter().find(|name| rest.starts_with(&format!("\\begin{{{name}}}")));
        if let Some(name) = verbatim {
            let end = format!("\\end{{{name}}}");
            rest = &rest[rest.find(&end)? + end.len()..];
        } else if let Some(begun) = rest.strip_prefix("\\begin{") {
            let name = begun.split('}').next()?;
            open.push(name.to_owned());
            rest = &begun[name.len()..];
            groups += 1;
        } else if let Some(ended) = rest.strip_prefix("\\end{") {
            let name = ended.split('}').next()?;
            if open.pop().as_deref() != Some(name) {
                return Some(format!("{name} ends"));
            }
            rest = &ended[name.len()..];
            groups += 1;
        } else if rest.starts_with('\\') {
            let length = 1 + rest[1..].chars().next().map_or(0, char::len_utf8);
            rest = &rest[length..];
        } else if rest.starts_with('%') {
            return Some(format!("a comment: {}", rest.lines().next()?));
        } else {
            groups += if rest.starts_with('{') { 1 } else { -1 };
            rest = &rest[1..];
        }
        if groups < 0 {
            return Some("a group ends that has not begun".to_owned());
        }
    }
    (groups != 0 || !open.is_empty()).then(|| format!("{groups} groups and {open:?} are open"))
}

fn body(latex: &str) -> &str {
    latex.split_once("\\begin{document}").unwrap().1.rsplit_once("\\end{document}").unwrap().0
}

/// Whether what is written is well-formed, holds all words, and stays the same behind one trip.
fn keeps(doc: &Document) -> Result<(), TestCaseError> {
    let profile = Profile::default();
    let converted = obblet::write(doc.clone(), Format::Latex, &profile, &Context::default()).unwrap();
    let written = converted.text().unwrap().to_owned();
    prop_assert_eq!(fault(body(&written)), None, "{}", written);
    let fragment = Profile::fragment();
    let shown = obblet::write(doc.clone(), Format::Html, &fragment, &Context::default()).unwrap();
    let (before, after) = (conservation::shown(shown.text().unwrap()), conservation::shown(&html(&written)));
    let mut lost = conservation::lost(&before, &after, &converted.findings);
    // Numbers of notes and words above callouts are made anew.
    let is_made = |word: &str| {
        word.bytes().all(|byte| byte.is_ascii_digit()) || ["note", "tip", "important", "warning", "caution"].contains(&word)
    };
    lost.retain(|word| !is_made(word));
    // Where one word ends and the next begins is not for LaTeX to say.
    let letters = |text: &str| text.chars().filter(|c| c.is_alphabetic()).collect::<String>();
    let after = letters(&after);
    let mut rest = after.chars();
    let is_same = letters(&before).chars().all(|letter| rest.any(|other| other == letter));
    // Notes that nothing mentions stand at the end, wherever they stood before.
    let count = |text: &str, letter: char| text.chars().filter(|other| *other == letter).count();
    let is_moved = || !doc.notes.is_empty() && letters(&before).chars().all(|c| count(&before, c) <= count(&after, c));
    prop_assert!(is_same || lost.is_empty() || is_moved(), "{:?}\n{}\n{}", lost, shown.text().unwrap(), written);
    let trip = |source: &str| convert(source, Format::Latex, Format::Latex, &["shape=page"]).into_text().unwrap();
    let again = trip(&written);
    prop_assert_eq!(&trip(&again), &again, "{}", written);
    Ok(())
}

proptest! {
    #![proptest_config(ProptestConfig { cases: 64, failure_persistence: None, max_shrink_iters: 300, ..ProptestConfig::default() })]

    #[test]
    fn any_tree_is_well_formed_latex(parts in trees::any()) {
        keeps(&trees::tree(&parts))?;
    }
}

#[test]
fn hostile_documents_are_written_in_linear_time() {
    type Shape = (&'static str, fn(usize) -> String);
    let shapes: [Shape; 10] = [
        ("quotations", |n| "<blockquote>".repeat(n / 12) + "x"),
        ("lists", |n| "<ul><li>".repeat(n / 8) + "x"),
        ("parts", |n| "<div class=a>".repeat(n / 13) + "x"),
        ("styles", |n| "<em>".repeat(n / 4) + "x"),
        ("tables", |n| "<table><tr><td>".repeat(n / 15) + "x"),
        ("links", |n| "[<a href=#bib-a>x</a>, ".repeat(n / 23)),
        ("spans", |n| "<b>a</b>[ -- ".repeat(n / 12)),
        ("headings", |n| (0..n / 16).map(|at| format!("<h2>1.{at} x</h2>")).collect()),
        ("cells", |n| format!("<table><tr>{}</table>", "<td rowspan=9>x".repeat(n / 15))),
        ("rows", |n| format!("<table>{}</table>", "<tr><td rowspan=9>x<td>y".repeat(n / 24))),
    ];
    let run = |source: &[u8]| obblet::convert(source, Format::Html, Format::Latex, &Profile::default()).unwrap();
    let failed: Vec<String> =
        shapes.iter().filter_map(|(name, shape)| grows_linearly(name, 1_600, |n| shape(n).into_bytes(), run).err()).collect();
    assert_eq!(failed, [""; 0]);
    let notes = |n: usize| (0..n / 14).map(|at| format!("a[^{at}]\n\n[^{at}]: x\n\n")).collect::<String>().into_bytes();
    let run = |source: &[u8]| obblet::convert(source, Format::Markdown, Format::Latex, &Profile::default()).unwrap();
    grows_linearly("notes", 1_600, notes, run).unwrap();
}
