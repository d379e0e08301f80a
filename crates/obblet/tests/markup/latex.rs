//! LaTeX as people write it.
#![allow(missing_docs, clippy::unwrap_used, clippy::panic, clippy::print_stderr, reason = "tests")]

use crate::support;

use obblet::formats::latex;
use obblet::profile::Profile;
use obblet::{Converted, Format};
use proptest::prelude::*;
use support::convert::convert;
use support::linear::grows_linearly;
use support::validity;

fn page(source: &str) -> Converted {
    convert(source, Format::Latex, Format::Html, &["html.compact=true", "html.math=tex"])
}

#[track_caller]
fn reads(source: &str, expected: &str) {
    assert_eq!(page(source).into_text().unwrap(), expected, "{source}");
}

#[test]
fn headings_have_the_numbers_that_the_engine_prints() {
    reads(
        "\\documentclass{article}\n\\title{The \\emph{float} gauge\\thanks{Paid by none}}\n\\author{Ada Pask \\and Ivo Tolliver\\\\The Sound}\n\\begin{document}\n\\maketitle\n\\section{Low water}\\label{s}\nA\n\\subsection[short]{Neaps}\n\\section*{Notes}\n\\section{High}\nSee \\ref{s} and \\ref{b}.\n\\appendix\\section{Tables}\\label{b}\n\\end{document}\nnothing",
        "<h1>The <em>float</em> gauge<sup><a href=\"#note-1\" id=\"note-1-mark\" role=\"doc-noteref\">1</a></sup></h1><div class=\"byline\"><p>Ada Pask</p><p>Ivo Tolliver<br>The Sound</p></div><h2 id=\"s\">1 Low water</h2><p>A</p><h3>1.1 Neaps</h3><h2 class=\"unnumbered\">Notes</h2><h2>2 High</h2><p>See <a href=\"#s\">1</a> and <a href=\"#b\">A</a>.</p><h2 id=\"b\" class=\"unnumbered appendix\">A Tables</h2><section role=\"doc-endnotes\" aria-label=\"Notes\"><ol><li id=\"note-1\"><p>Paid by none <a href=\"#note-1-mark\" role=\"doc-backlink\" aria-label=\"Back to the text\">↑</a></p></li></ol></section>",
    );
    reads("\\documentclass{article}\\begin{document}\\section{}\\section{A}\\end{document}", "<h1></h1><h1>2 A</h1>");
    let doc = latex::read(
        b"\\documentclass{article}\\title{A \\& B}\\author{X \\and Y\\\\Z}\\date{May 2031}\\usepackage[ngerman]{babel}\\begin{document}\\end{document}",
        &latex::Settings::default(),
    );
    assert_eq!(doc.metadata.title.as_deref(), Some("A & B"));
    assert_eq!(doc.metadata.authors, ["X", "Y"]);
    assert_eq!(doc.metadata.date.as_deref(), Some("May 2031"));
    assert_eq!(doc.metadata.language.as_deref(), Some("de"));
}

#[test]
fn text_has_its_signs_and_its_styles() {
    reads(
        "``High'' -- low --- \\textit{it} {\\bf bold \\em both} a~b \\% \\& caf\\'e na\\\"{\\i}ve \\c{c}\\v{s} \\ss{} \\textcolor{red}{r}% gone\n\n\\noindent next\\\\line\\footnote{A \\textbf{note}.}",
        "<p>“High” – low — <em>it</em> <strong>bold <em>both</em></strong> a&nbsp;b % &amp; café naïve çš ß r</p><p>next<br>line<sup><a href=\"#note-1\" id=\"note-1-mark\" role=\"doc-noteref\">1</a></sup></p><section role=\"doc-endnotes\" aria-label=\"Notes\"><ol><li id=\"note-1\"><p>A <strong>note</strong>. <a href=\"#note-1-mark\" role=\"doc-backlink\" aria-label=\"Back to the text\">↑</a></p></li></ol></section>",
    );
    reads(
        "\\verb|a\\b{| \\texttt{x\\_y} \\url{https://greywick.example/a%20b#c} \\href{https://greywick.example}{the \\emph{site}} \\enquote{q}",
        "<p><code>a\\b{</code> <code>x_y</code> <a href=\"https://greywick.example/a%20b#c\">https://greywick.example/a%20b#c</a> <a href=\"https://greywick.example\">the <em>site</em></a> “q”</p>",
    );
    reads("a % comment\n% another\nb\n\n%\n\nc \\iffalse no \\else yes\\fi", "<p>a b</p><p>c yes</p>");
}

#[test]
fn lists_and_blocks_are_what_they_say() {
    reads(
        "\\begin{itemize}\\item a\n\\item b \\begin{enumerate}[(a)]\\item x\\label{x} \\item y\\end{enumerate}\\end{itemize}\n\\begin{description}\\item[Neap [low]] small\\end{description}\nSee \\ref{x}.",
        "<ul><li>a</li><li>b<ol class=\"list1\" type=\"a\"><li id=\"x\">x</li><li>y</li></ol></li></ul><dl><dt>Neap [low]</dt><dd>small</dd></dl><p>See <a href=\"#x\">a</a>.</p>",
    );
    reads(
        "\\begin{quote}q\\end{quote}\\begin{verbatim}\n a_b % c\n\\end{verbatim}\n\\begin{lstlisting}[language=Rust]\nfn x() {}\n\\end{lstlisting}\\begin{abstract}s\\end{abstract}",
        "<blockquote><p>q</p></blockquote><pre><code> a_b % c\n</code></pre><pre><code class=\"language-rust\">fn x() {}\n</code></pre><section class=\"abstract\"><p><strong>Abstract</strong></p><p>s</p></section>",
    );
}

#[test]
fn tables_and_floats_have_their_captions_and_their_heads() {
    reads(
        "\\begin{table}\\centering\\caption{Heights}\\label{t}\\begin{tabular}{l@{ }r|c}\\toprule Wave & $H$ & \\\\ \\midrule $M_2$ & 1.62 & x \\\\ \\multicolumn{2}{c}{both} & y\\\\\\bottomrule\\end{tabular}\\end{table}\nTable~\\ref{t}",
        "<table id=\"t\"><caption>Table&nbsp;1: Heights</caption><thead><tr><th>Wave</th><th style=\"text-align: right\"><code class=\"language-tex\">H</code></th><td style=\"text-align: center\"></td></tr></thead><tbody><tr><td><code class=\"language-tex\">M_2</code></td><td style=\"text-align: right\">1.62</td><td style=\"text-align: center\">x</td></tr><tr><td colspan=\"2\" style=\"text-align: center\">both</td><td style=\"text-align: center\">y</td></tr></tbody></table><p>Table&nbsp;<a href=\"#t\">1</a></p>",
    );
}

#[test]
fn tables_go_on_over_rows_and_pages() {
    reads(
        "\\begin{longtable}{ll}A & B\\\\\\endfirsthead A & B again\\\\\\endhead \\multirow{2}{*}{x} & 1\\\\ & 2\\\\ y & 3\\end{longtable}",
        "<table><thead><tr><th>A</th><th>B</th></tr></thead><tbody><tr><td rowspan=\"2\">x</td><td>1</td></tr><tr><td>2</td></tr><tr><td>y</td><td>3</td></tr></tbody></table>",
    );
    reads(
        "\\begin{figure}[htb]\\centering\\includegraphics[width=3cm,alt={a float}]{float.png}\\caption{The \\emph{float}}\\label{f}\\end{figure}See \\autoref{f}.",
        "<figure id=\"f\"><img src=\"float.png\" alt=\"a float\" width=\"113\"><figcaption>Figure&nbsp;1: The <em>float</em></figcaption></figure><p>See <a href=\"#f\">Figure&nbsp;1</a>.</p>",
    );
}

#[test]
fn what_a_document_defines_is_written_out() {
    reads(
        "\\newcommand{\\gauge}[2][float]{\\emph{#1} gauge #2}\\def\\pair(#1,#2){#1 and #2}\\NewDocumentCommand{\\w}{s m}{\\IfBooleanTF{#1}{star}{#2}}\\newenvironment{aside}[1]{\\begin{quote}#1: }{\\end{quote}}\\let\\old\\emph\\gauge{A}, \\gauge[well]{B}, \\pair(a,b), \\w*{x} \\w{y} \\old{z}\\begin{aside}{N}t\\end{aside}",
        "<p><em>float</em> gauge A, <em>well</em> gauge B, a and b, star y <em>z</em></p><blockquote><p>N: t</p></blockquote>",
    );
    reads("\\newcommand{\\R}{\\mathbb{R}}$x \\in \\R$", "<p><code class=\"language-tex\">x \\in \\mathbb{R}</code></p>");
    reads(
        "\\newtheorem{thm}{Theorem}\\begin{thm}[Of tides]\\label{m} It rises.\\end{thm}\\begin{proof}Seen.\\end{proof}\\autoref{m}",
        "<div id=\"m\" class=\"thm\"><p><strong>Theorem&nbsp;1</strong> (Of tides). It rises.</p></div><div class=\"proof\"><p><em>Proof.</em> Seen. ∎</p></div><p><a href=\"#m\">Theorem&nbsp;1</a></p>",
    );
    // What a command meant before it was defined anew.
    reads("\\let\\before\\emph\\renewcommand{\\emph}[1]{\\before{#1}!}\\emph{a}", "<p><em>a</em>!</p>");
    let bomb: String =
        (b'a'..b'y').map(|letter| format!("\\def\\{0}{{\\{1}\\{1}}}", char::from(letter), char::from(letter + 1))).collect();
    let converted = page(&format!("{bomb}\\def\\y{{x}}\\a end"));
    assert!(converted.findings.iter().any(|finding| finding.code == "latex.too-much"), "{:?}", converted.findings);
    assert!(page("\\def\\a{\\a}\\a end").text().unwrap().contains("end"));
}

#[test]
fn equations_and_citations_lead_to_what_they_name() {
    let source = "\\begin{equation} a = b \\label{e} \\end{equation}\nBy \\eqref{e} and \\cite[p.~3]{k}.\n\\begin{thebibliography}{9}\\bibitem{k} K.\\end{thebibliography}\n";
    let html = convert(source, Format::Latex, Format::Html, &["html.compact=true"]).into_text().unwrap();
    assert!(html.contains("By <a href=\"#e\">(1)</a> and [<a href=\"#bib-k\">1</a>, p.&nbsp;3]."), "{html}");
    assert!(html.contains("<li id=\"bib-k\">K.</li>"), "{html}");
    let org = convert(source, Format::Latex, Format::Org, &[]).into_text().unwrap();
    assert!(org.contains("\\eqref{e}"), "{org}");
}

#[test]
fn numbers_are_those_that_the_engine_prints() {
    let text = |source: &str| convert(source, Format::Latex, Format::Text, &["text.math=text"]).into_text().unwrap();
    // Equations are counted within chapters, or within what the document says.
    let chapters = "\\documentclass{report}\\begin{document}\\chapter{Tides}\\begin{equation}a\\label{a}\\end{equation}\\begin{align}b\\label{b}\\\\c\\label{c}\\end{align}\
        \\chapter{Winds}\\begin{equation}d\\label{d}\\end{equation}See \\ref{a}, \\ref{c}, \\eqref{d}, $x > y \\text{ by \\eqref{c}}$.\\appendix\\chapter{Tables}\\begin{equation}e\\label{e}\\end{equation}\\ref{e}\\end{document}";
    let shown = text(chapters);
    assert!(shown.contains("See 1.1, 1.3, (2.1), x > y by (1.3).") && shown.contains("A.1"), "{shown}");
    let sections = "\\documentclass{article}\\usepackage{amsmath}\\numberwithin{equation}{subsection}\\begin{document}\\section{A}\\subsection{B}\\subsection{C}\
        \\begin{equation}a\\label{a}\\end{equation}\\section*{D}\\begin{equation}b\\label{b}\\end{equation}Both \\ref{a} and \\ref{b}.\\end{document}";
    assert!(text(sections).contains("Both 1.2.1 and 1.2.2."), "{}", text(sections));
    let again = convert(sections, Format::Latex, Format::Latex, &["shape=page"]).into_text().unwrap();
    assert!(again.contains("\\numberwithin{equation}{subsection}") && text(&again).contains("Both 1.2.1 and 1.2.2."), "{again}");
    let appendix = "\\documentclass{article}\\begin{document}\\section{Main}\\section{More}\\appendix\\section{Tables}\\label{t}\\subsection{High \\emph{water}}\\label{h}See \\ref{t} and \\ref{h}.\\section{A note}\\end{document}";
    let again = convert(appendix, Format::Latex, Format::Latex, &["shape=page"]).into_text().unwrap();
    let body = again.split("\\begin{document}").nth(1).unwrap();
    assert_eq!(
        body.trim(),
        "\\section{Main}\n\n\\section{More}\n\n\\appendix\n\\section{Tables}\\label{t}\n\n\\subsection{High \\emph{water}}\\label{h}\n\nSee \\hyperref[t]{A} and \\hyperref[h]{A.1}.\n\n\\section{A note}\n\n\\end{document}"
    );
    // An article has no chapters, though it shows one; what has no number is referred to by the number above it.
    reads(
        "\\documentclass{article}\\begin{document}\\begin{verbatim}\n\\chapter{No}\n\\end{verbatim}\\section{A}\\paragraph{B}\\label{b}In \\ref{b}.\\section*{C}\\label{c}\\ref{c}\\end{document}",
        "<pre><code>\\chapter{No}\n</code></pre><h1>1 A</h1><h2 id=\"b\" class=\"unnumbered\">B</h2><p>In <a href=\"#b\">1</a>.</p><h1 id=\"c\" class=\"unnumbered\">C</h1><p><a href=\"#c\">1</a></p>",
    );
    reads(
        "\\begin{enumerate}[{Example} I.]\\item A\\label{a}\\end{enumerate}\\begin{inparaenum}[\\itshape a) \\upshape]\\item B\\label{b}\\end{inparaenum}\\ref{a} \\ref{b}",
        "<ol class=\"list1\" type=\"I\"><li id=\"a\">A</li></ol><p>a)&nbsp;B<a href=\"#a\" id=\"b\">I</a> <a href=\"#b\">a</a></p>",
    );
}

#[test]
fn commands_can_be_shown_by_their_names() {
    reads(
        "\\cmd{\\section} \\cs{par} \\marg{a} \\oarg{b} \\string\\foo{} \\texttt{\\string\\bar} \\string{",
        "<p><code>\\section</code> <code>\\par</code> <code>{a}</code> <code>[b]</code> \\foo <code>\\bar</code> {</p>",
    );
}

#[test]
fn lengths_and_fonts_that_a_document_names_leave_nothing_behind() {
    reads(
        "\\newlength{\\drop}\\newlength\\wide \\drop = 0.08\\wide\n\\vspace*{\\drop} A \\parindent=1em B\\parskip 2pt plus 1pt minus .5pt C \\parskip=\\parindent D\\hskip 3mm E \\drop F \\parindent-2pt G \\hskip.5\\wide H 5 in all \\errorcontextlines10\n \\textbf{d}",
        "<p>A BC DE F G H 5 in all <strong>d</strong></p>",
    );
    reads(
        "\\newcommand{\\cs}[1]{\\texttt{\\char`\\\\#1}}\\cs{maketitle}, \\char`\\{ \\char65\\char\"42 \\symbol{67}",
        "<p><code>\\maketitle</code>, {ABC</p>",
    );
    // What is written out once does not call itself.
    reads(
        "\\def\\a{1}\\def\\list{}\\edef\\list{\\list\\a,}\\def\\a{2}\\edef\\list{\\list\\a\\noexpand\\a,}\\def\\a{3}\\list",
        "<p>1,23,</p>",
    );
    // The name in the arguments of an inner command is no call: that would go on for ever.
    let fonts = "\\makeatletter\\DeclareRobustCommand\\ltseries\n  {\\not@math@alphabet\\ltseries\\relax\n   \\fontseries\\ltdefault\\selectfont}\n\\newcommand{\\ltdefault}{l}\\DeclareTextFontCommand{\\textlt}{\\ltseries}\\makeatother";
    let page = page(&format!("\\documentclass{{article}}{fonts}\\begin{{document}}A {{\\ltseries more}}.\\end{{document}}"));
    assert!(page.findings.iter().all(|finding| finding.code != "latex.too-much"), "{:?}", page.findings);
    assert_eq!(page.into_text().unwrap(), "<p>A more.</p>");
}

#[test]
fn labels_of_other_packages_are_names_and_years() {
    let list = "\\begin{thebibliography}{}\\bibitem[\\protect\\citeauthoryear{Pask and Halm}{Pask}{1978}]{p} P.\\bibitem[\\protect\\citeauthoryear{Brand}{1984}]{b} B.\\end{thebibliography}";
    let html = page(&format!("\\cite{{p,b}} \\shortcite{{b}} \\citeauthor{{p}} \\citeyear{{b}}\n{list}")).into_text().unwrap();
    assert!(
        html.starts_with("<p>[<a href=\"#bib-p\">Pask and Halm 1978</a>; <a href=\"#bib-b\">Brand 1984</a>] [<a href=\"#bib-b\">Brand 1984</a>] <a href=\"#bib-p\">Pask and Halm</a> <a href=\"#bib-b\">1984</a></p>"),
        "{html}"
    );
}

/// The page of a document that stands in a folder beside a bibliography.
fn with_bibliography(source: &str, entries: &str) -> String {
    let folder = support::folder::Folder::new(&[("paper.tex", source), ("refs.bib", entries)]);
    folder.publish();
    folder.read("paper.html")
}

#[test]
fn bibliographies_are_sorted_and_labelled_as_the_style_says() {
    let entries = "@string{bq = \"Ballast Quay\"}\n@comment{no}\n@book{b, author={Pask, Anwen and Tolliver Halm and others}, title={The {Sea}}, publisher=bq # { Press}, year=1999}\n\
        @article{a, author=\"M{\\\"u}ller, J.\", title={On $x^2$}, journal={Tides}, volume=3, pages={1-9}, year={2001}, doi={10.1/a_b}}\n@misc{c, title={Unread}}\n@book{b, title={Twice}}\n@broken{";
    let paper = |style: &str| {
        format!(
            "\\documentclass{{article}}\\begin{{document}}See \\cite{{a}} and \\cite[p.~2]{{b}}.\n\\bibliographystyle{{{style}}}\n\\bibliography{{refs}}\n\\end{{document}}"
        )
    };
    let plain = with_bibliography(&paper("plain"), entries);
    assert!(plain.contains("See [<a href=\"#bib-a\">1</a>] and [<a href=\"#bib-b\">2</a>, p.&nbsp;2]."), "{plain}");
    assert!(plain.contains("<li id=\"bib-a\">J. Müller. On "), "{plain}");
    assert!(plain.contains("<em>Tides</em>, 3:1–9, 2001. doi: <a href=\"https://doi.org/10.1/a_b\">10.1/a_b</a>"), "{plain}");
    assert!(plain.contains("Anwen Pask, Tolliver Halm, et&nbsp;al. <em>The Sea</em>. Ballast Quay Press, 1999.</li>"), "{plain}");
    assert!(!plain.contains("Unread") && !plain.contains("Twice"), "{plain}");
    let letters = with_bibliography(&paper("alpha"), entries);
    assert!(letters.contains("[<a href=\"#bib-a\">Mul01</a>]") && letters.contains("<li id=\"bib-a\">[Mul01] J."), "{letters}");
    let authors = with_bibliography(&paper("plainnat"), entries);
    assert!(authors.contains("<a href=\"#bib-a\">Müller, 2001</a>") && authors.contains(">Pask et al., 1999</a>"), "{authors}");
    let cited = with_bibliography(&paper("unsrt").replace("\\cite{a}", "\\cite{b}, \\cite{a}"), entries);
    assert!(cited.find("bib-b\">Anwen").unwrap() < cited.find("bib-a\">J.").unwrap(), "{cited}");
}

#[test]
fn latex_takes_linear_time_whatever_it_is() {
    type Shape = (&'static str, fn(usize) -> String);
    let shapes: [Shape; 38] = [
        ("groups", |n| "{".repeat(n)),
        ("styles", |n| "\\textbf{".repeat(n / 8)),
        ("closed styles", |n| "\\textbf{".repeat(n / 9) + &"}".repeat(n / 9)),
        ("environments", |n| "\\begin{a}".repeat(n / 9)),
        ("lists", |n| "\\begin{itemize}\\item ".repeat(n / 21)),
        ("tables", |n| "\\begin{tabular}{l}".repeat(n / 18)),
        ("cells", |n| format!("\\begin{{tabular}}{{l}}{}", "a&".repeat(n / 2))),
        ("rows", |n| format!("\\begin{{tabular}}{{ll}}{}", "a&b\\\\".repeat(n / 5))),
        ("dollars", |n| "$a".repeat(n / 2)),
        ("verbatim", |n| "\\verb|".repeat(n / 6)),
        ("options", |n| "\\foo[".repeat(n / 5)),
        ("labels of items", |n| "\\begin{itemize}\\item x".to_owned() + &"\\item[".repeat(n / 6)),
        ("terms", |n| "\\begin{description}".to_owned() + &"\\item[".repeat(n / 6)),
        ("citations", |n| "\\cite[".repeat(n / 6)),
        ("notes", |n| "\\footnote{".repeat(n / 10)),
        ("headings", |n| "\\section{".repeat(n / 9)),
        ("labels", |n| "\\label{a}\\ref{a}".repeat(n / 16)),
        ("conditionals", |n| "\\iffalse ".repeat(n / 9)),
        ("links", |n| "\\href{a}{".repeat(n / 9)),
        ("paragraphs", |n| "a\n\n".repeat(n / 3)),
        ("ends", |n| "\\end{a}".repeat(n / 7)),
        ("lines of algorithms", |n| "\\begin{algorithmic}".to_owned() + &"\\If{a}\\State b ".repeat(n / 15)),
        ("lines in braces", |n| "{algorithm2e}\\begin{algorithm}".to_owned() + &"\\If{a}{b\\; ".repeat(n / 12)),
        ("acronyms", |n| "\\newacronym{a}{b}{c}".to_owned() + &"\\gls{a}".repeat(n / 7)),
        ("definitions of terms", |n| "\\newglossaryentry{a}{name={b},".repeat(n / 29)),
        ("kept boxes", |n| "\\sbox\\x{\\usebox\\x\\usebox\\x}".to_owned() + &"\\usebox\\x".repeat(n / 9)),
        ("boxes without end", |n| "\\begin{lrbox}{\\x}".repeat(n / 17)),
        ("names", |n| "\\csname a".repeat(n / 9)),
        ("orders", |n| "\\expandafter".repeat(n / 12)),
        ("numbers", |n| "\\ifnum 1<".repeat(n / 9)),
        ("tests", |n| "\\ifthenelse{\\NOT\\NOT ".repeat(n / 21)),
        ("parts of floats", |n| "\\begin{figure}".to_owned() + &"\\subfloat[a]{".repeat(n / 13)),
        ("marks of code", |n| "\\MakeShortVerb{\\|}".to_owned() + &"|a\n".repeat(n / 3)),
        ("tabs", |n| "\\begin{tabbing}".to_owned() + &"a\\>b\\\\".repeat(n / 6)),
        ("authors", |n| {
            format!(
                "\\documentclass{{llncs}}\\begin{{document}}{}\\title{{T}}\\maketitle",
                "\\author{a \\and b}\\institute{c}\\email{d}".repeat(n / 40)
            )
        }),
        ("marks of authors", |n| "\\author{".to_owned() + &"\\textsuperscript{".repeat(n / 17)),
        ("notes to authors", |n| "\\author{".to_owned() + &"a\\thanks{".repeat(n / 9)),
        ("boxes of code", |n| "\\begin{lstlisting}[caption=a]\n".repeat(n / 30)),
    ];
    let run = |source: &[u8]| latex::read(source, &latex::Settings::default());
    let failed: Vec<String> =
        shapes.iter().filter_map(|(name, shape)| grows_linearly(name, 1_600, |n| shape(n).into_bytes(), run).err()).collect();
    assert_eq!(failed, [""; 0]);
}

proptest! {
    #![proptest_config(ProptestConfig::with_cases(300))]

    /// Whatever is read becomes a valid page, and words that stand alone are in it.
    #[test]
    fn any_source_becomes_a_valid_page(pieces in prop::collection::vec(prop::sample::select(vec![
        "word ", "{", "}", "\\textbf{", "\\item ", "\\begin{itemize}", "\\end{itemize}", "\\begin{tabular}{ll}", "&", "\\\\", "\\hline ",
        "\\end{tabular}", "$x$", "\\[y\\]", "\n\n", "\\section{", "\\footnote{", "\\begin{figure}", "\\caption{", "\\end{figure}", "\\label{a}",
        "\\ref{a}", "\\begin{quote}", "\\end{quote}", "\\verb|v|", "\\href{u}{", "\\begin{description}", "\\item[t]", "\\end{description}",
        "%c\n", "\\def\\m{", "\\m ", "[", "]", "\\multicolumn{2}{c}{", "\\includegraphics{p}", "\\cite{k}", "\\iffalse ", "\\fi ",
        "\\begin{algorithmic}", "\\If{a}", "\\State ", "\\Else ", "\\EndIf ", "\\end{algorithmic}", "\\subfloat[a]{", "\\acro{a}{b}",
        "\\begin{tabbing}", "\\> ", "\\kill ", "\\end{tabbing}", "\\begin{lemma}", "\\end{lemma}", "\\printglossary ", "\\usebox\\x ",
        "\\sbox\\x{", "\\institute{", "\\maketitle ", "\\title{", "\\epigraph{", "\\expandafter ", "\\ifnum 1<", "\\else ",
        "\\foreach \\x in {1,...,3}{", "\\loop ", "\\repeat ", "\\catcode`\\|=13 ", "|", "\\advance\\count0 by 1 ", "\\edef\\m{", "\\begingroup ",
        "\\endgroup ", "\\begin{tabular}{r@{.}l>{$}c<{$}}", "\\cref{a,b}", "\\MakeUppercase{", "\\NewDocumentCommand\\q{o m e{^}}{", "\\q ",
        "\\the\\numexpr 1+", "\\xspace ", "\\begin{subequations}", "\\end{subequations}", "\\begin{align}a&=b", "\\end{align}", "\\unskip ",
    ]), 0..40)) {
        let source = pieces.concat();
        let profile = Profile::fragment();
        let converted = obblet::convert(source.as_bytes(), Format::Latex, Format::Html, &profile).unwrap();
        let faults = validity::faults(converted.text().unwrap());
        prop_assert!(faults.is_empty(), "{source}\n{faults:#?}\n{}", converted.text().unwrap());
    }
}
