//! What documents bring with them, and what nothing is known of: packages beside them, environments of other packages, code by its name.
#![allow(missing_docs, clippy::unwrap_used, clippy::panic, reason = "tests")]

use crate::support;

use super::latex_packages::reads;
use obblet::Format;
use support::convert::convert;

/// A package beside the document brings commands of its author; how it wants headings, titles and abstracts to look changes nothing
/// of what they are. One that is known here is not read.
#[test]
fn packages_beside_a_document_say_how_it_looks_and_what_its_commands_are() {
    use obblet::formats::latex;
    use obblet::media::{FilesAround, MemoryMedia};
    let style = r"\NeedsTeXFormat{LaTeX2e}
\ProvidesPackage{greywick}[2026/04/01 Papers of the harbour office]
\newif\if@last \DeclareOption{last}{\@lasttrue} \ProcessOptions\relax
\RequirePackage{natbib}
\renewcommand{\normalsize}{\@setfontsize\normalsize\@xpt\@xipt \abovedisplayskip 7\p@ \@plus 2\p@}
\renewcommand{\section}{\@startsection{section}{1}{\z@}{-2.0ex \@plus -0.5ex}{1.5ex}{\large\bf\raggedright}}
\def\subsection{\@startsection{subsection}{2}{\z@}{-1.8ex}{0.8ex}{\bf}}
\newcommand\lead{\@startsection{lead}{4}{\z@}{1ex}{-1em}{\bf}}
\def\@bar{\hrule height 4\p@ \vskip 0.25in}
\renewcommand{\maketitle}{\par\begingroup\@maketitle\@thanks\endgroup\let\maketitle\relax}
\def\@maketitle{\vbox{\hsize\textwidth \@bar \centering {\LARGE\bf \@title\par}
  \if@last\begin{tabular}[t]{c}\@author\end{tabular}\else Nobody\fi \vskip 0.3in}}
\renewenvironment{abstract}{\vskip 0.1in\centerline{\bf Summary}\begin{quote}}{\par\end{quote}}
\long\def\@makecaption#1#2{\vskip 10pt \hbox to\hsize{\hfil #1: #2\hfil}}
\newcommand{\office}[1]{the \emph{#1} office}
\newenvironment{thanksall}{\section*{Thanks}}{}
";
    let paper = |packages: &str| {
        format!(
            r"\documentclass{{article}}
{packages}
\title{{Heights}}\author{{Mara Quill}}
\begin{{document}}\maketitle
\begin{{abstract}}We measure.\end{{abstract}}
\section{{Gauges}} By \office{{harbour}}.
\subsection{{Floats}} Text.
\begin{{thanksall}}To all.\end{{thanksall}}
\begin{{figure}}X\caption{{C}}\end{{figure}}
\end{{document}}"
        )
    };
    let mut media = MemoryMedia::default();
    media.insert("greywick.sty", style.as_bytes().to_vec());
    media.insert("xcolor.sty", br"\newcommand{\office}[1]{no #1}".to_vec());
    let files = FilesAround { root: Some(&media), limit: 1 << 20, ..FilesAround::default() };
    let read = |packages: &str| {
        let doc = latex::read_with(paper(packages).as_bytes(), &latex::Settings::default(), &files);
        let outline: Vec<String> = doc
            .nodes()
            .filter_map(|(id, node)| match node.kind() {
                obblet::document::Kind::Heading(level) => Some(format!("{level} {}", doc.plain_text(id))),
                _ => None,
            })
            .collect();
        (outline.join(", "), doc.plain_text(doc.root()).split_whitespace().collect::<Vec<_>>().join(" "))
    };
    for packages in [r"\usepackage{greywick}", r"\usepackage[last]{greywick}", "\\usepackage[last]{xcolor,\n  greywick}"] {
        let (outline, text) = read(packages);
        assert_eq!(outline, "1 Heights, 2 Gauges, 3 Floats, 2 Thanks", "{packages}");
        assert!(text.contains("Abstract") && text.contains("By the harbour office.") && text.ends_with("Figure 1: C"), "{text}");
        assert!(!text.contains("Nobody") && !text.contains("0.25in"), "{text}");
    }
}

/// What stands in code says nothing of the document that shows it.
#[test]
fn commands_that_are_shown_do_not_count() {
    let source = r"\documentclass{article}\title{T}\begin{document}\maketitle\section{One}
\begin{verbatim}
\part{Of a book}
\end{verbatim}
\end{document}";
    let markdown = convert(source, Format::Latex, Format::Markdown, &[]).into_text().unwrap();
    assert!(markdown.contains("\n## One\n"), "{markdown}");
    // What nothing is known of but its name is code where it is called so.
    let source = "\\begin{scode}\nset x $ { 1\n\\end{scode}";
    assert_eq!(convert(source, Format::Latex, Format::Markdown, &[]).into_text().unwrap(), "```\nset x $ { 1\n```\n");
}

/// Of environments that nothing is known of, all that may be text is kept.
#[test]
fn environments_that_are_not_known_lose_nothing() {
    for (source, expected) in [
        (
            r"\begin{slide}[Title of the page]Text.\end{slide}",
            r#"<div class="slide"><p><strong>Title of the page</strong></p><p>Text.</p></div>"#,
        ),
        (r"\begin{slide}[t,plain]Text.\end{slide}", r#"<div class="slide"><p>Text.</p></div>"#),
        (r"\begin{shortlist}\item One\item Two\end{shortlist}", "<ul><li>One</li><li>Two</li></ul>"),
        (r"\begin{shortlist}[What is left]\item One\end{shortlist}", "<p><strong>What is left</strong></p><ul><li>One</li></ul>"),
        (r"\begin{shortenum}\item One\end{shortenum}", "<ol><li>One</li></ol>"),
        (
            r"\begin{shortdesc}\item[One] first\item[Two] second\end{shortdesc}",
            "<dl><dt>One</dt><dd>first</dd><dt>Two</dt><dd>second</dd></dl>",
        ),
        (r"\begin{center}\item[Label] text\end{center}", "<p><strong>Label</strong> text</p>"),
        (r"\begin{quote}[Mara Quill]Words.\end{quote}", "<blockquote><p>[Mara Quill] Words.</p></blockquote>"),
    ] {
        reads(source, expected);
    }
    // What says something of the document, and is not known, is named.
    let converted =
        convert("\\documentclass{own}\n\\keeper{Otto Pask}\n\\begin{document}a\\end{document}", Format::Latex, Format::Html, &[]);
    assert!(converted.findings.iter().any(|finding| finding.code == "latex.front-matter"), "{:?}", converted.findings);
    // A group that does not end is no reason to lose the text.
    let source = "\\documentclass{article}\n\\setbox\\x\\hbox{\\verb!%!}\n\\begin{document}\na\n\\end{document}";
    assert_eq!(convert(source, Format::Latex, Format::Text, &[]).into_text().unwrap(), "a\n");
}
