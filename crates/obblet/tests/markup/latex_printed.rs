//! Whole documents of many classes and packages, and what is printed for them: numbers and words of headings, captions, items,
//! equations and references. What is expected is what a TeX engine prints, but for what sets numbers apart: it stands in a form of
//! plain text (headings without `Chapter` and full stops, bullets as hyphens, tables with lines).
#![allow(missing_docs, clippy::unwrap_used, clippy::panic, reason = "tests")]

mod articles;
mod citations;
mod classes;
mod examples;
mod lists;
mod packages;
mod terms;

use crate::support;

use obblet::Format;
use obblet::formats::latex;
use obblet::profile::Profile;
use support::convert::convert;
use support::linear::grows_linearly;

/// What is printed for texts with the same class and preamble.
#[derive(Clone, Copy)]
struct Printed {
    class: &'static str,
    preamble: &'static str,
    lines: &'static [(&'static str, &'static str)],
}

/// All documents, with what is printed for each.
fn documents() -> impl Iterator<Item = (String, &'static str)> {
    let all =
        [lists::PRINTED, articles::PRINTED, classes::PRINTED, terms::PRINTED, examples::PRINTED, packages::PRINTED].concat();
    all.into_iter().flat_map(|printed| {
        let Printed { class, preamble, lines } = printed;
        lines.iter().map(move |(text, expected)| {
            (
                format!("{class}\n\\usepackage[T1]{{fontenc}}{preamble}\n\\begin{{document}}\n{text}\n\\end{{document}}\n"),
                *expected,
            )
        })
    })
}

/// The words of a document in plain text.
fn words(latex: &str) -> String {
    let text = convert(latex, Format::Latex, Format::Text, &["text.math=text", "text.width=0"]).into_text().unwrap();
    text.split_whitespace().collect::<Vec<_>>().join(" ")
}

#[test]
fn numbers_and_words_are_those_that_the_engine_prints() {
    let all = documents().map(|(source, expected)| (words(&source), expected, source));
    let wrong: Vec<String> = all
        .filter(|(printed, expected, _)| printed != expected)
        .map(|(printed, expected, source)| format!("{source}\n  gives {printed}\n  for   {expected}"))
        .collect();
    assert!(wrong.is_empty(), "{}", wrong.join("\n"));
}

#[test]
fn they_are_the_same_when_the_page_comes_back() {
    let mut profile = Profile::default();
    profile.set("page.contents=0").unwrap();
    let back = |source: &str| {
        let page = obblet::convert(source.as_bytes(), Format::Latex, Format::Html, &profile).unwrap().into_text().unwrap();
        obblet::convert(page.as_bytes(), Format::Html, Format::Latex, &profile).unwrap().into_text().unwrap()
    };
    // A page has a title, whether its source says one or not; levels of headings may be left out in between.
    let bare = |words: &str| {
        let is_line = |word: &&str| word.len() > 1 && word.chars().all(|c| matches!(c, '=' | '-')) || *word == "=";
        let words: Vec<&str> = words.split(' ').filter(|word| !is_line(word)).collect();
        words.join(" ").trim_start_matches("Untitled ").to_owned()
    };
    let wrong: Vec<String> = documents()
        .map(|(source, expected)| (back(&source), expected, source))
        .filter(|(latex, expected, _)| bare(&words(latex)) != bare(expected))
        .map(|(latex, expected, source)| format!("{source}\n  gives {}\n  for   {expected}\n  by {latex}", words(&latex)))
        .collect();
    assert!(wrong.is_empty(), "{}", wrong.join("\n"));
}

#[test]
fn what_packages_make_takes_linear_time() {
    type Shape = (&'static str, fn(usize) -> String);
    const ROWS: &str = "\\begin{filecontents}{t}\na,b\n";
    fn rows(n: usize) -> String {
        format!("{ROWS}{}\n\\end{{filecontents}}", "c,d\n".repeat(n / 4))
    }
    let shapes: [Shape; 19] = [
        ("examples", |n| "\\usepackage{linguex}".to_owned() + &"\\ex. a\n\n".repeat(n / 8)),
        ("parts of an example", |n| "\\usepackage{linguex}\\ex. ".to_owned() + &"\\a. b ".repeat(n / 6)),
        ("examples without end", |n| "\\usepackage{linguex}".to_owned() + &"\\ex. {".repeat(n / 6)),
        ("examples of expex", |n| "\\usepackage{expex}".to_owned() + &"\\pex \\a b".repeat(n / 9)),
        ("short examples", |n| "\\usepackage{gb4e}".to_owned() + &"\\ea a".repeat(n / 5)),
        ("glosses", |n| "\\gll a b\\\\ c d\\\\ ".repeat(n / 18)),
        ("glosses without end", |n| "\\gll {".repeat(n / 6)),
        ("words of a gloss", |n| format!("\\gll {}\\\\ b\\\\", "a ".repeat(n / 2))),
        ("glosses in lines", |n| "\\usepackage{expex}".to_owned() + &"\\begingl \\gla a b// \\glb c d// \\endgl ".repeat(n / 41)),
        ("items that say how deep they stand", |n| {
            format!("\\begin{{outline}}{}\\end{{outline}}", "\\1 a\\2 b\\4 c".repeat(n / 15))
        }),
        ("outlines", |n| "\\begin{outline}\\1 a".repeat(n / 19)),
        ("trees of files", |n| format!("\\dirtree{{{}}}", ".1 a. .2 b. ".repeat(n / 12))),
        ("rows of data", |n| rows(n) + "\\csvautotabular{t}\\csvreader[head to column names]{t}{}{\\a}"),
        ("data shown often", |n| rows(n / 2) + &"\\csvautotabular{t}".repeat(n / 38)),
        ("pieces of words", |n| "\\usepackage{xstring}".to_owned() + &"\\StrLeft{".repeat(n / 9)),
        ("cases of words", |n| format!("\\usepackage{{xstring}}\\IfStrEqCase{{z}}{{{}}}", "{a}{b}".repeat(n / 6))),
        ("tests that are joined", |n| "\\ifboolexpr{not test {".repeat(n / 22)),
        ("lists that grow", |n| "\\listadd\\a{b}".repeat(n / 13)),
        ("boxes with titles", |n| {
            "\\newtcolorbox[auto counter]{a}[1]{title=#1}".to_owned() + &"\\begin{a}{b}\\end{a}".repeat(n / 18)
        }),
    ];
    let read = |source: &[u8]| latex::read(source, &latex::Settings::default());
    let failed: Vec<String> =
        shapes.iter().filter_map(|(name, shape)| grows_linearly(name, 1_600, |n| shape(n).into_bytes(), read).err()).collect();
    assert_eq!(failed, [""; 0]);
}

#[test]
fn labels_captions_and_equations_take_linear_time() {
    type Shape = (&'static str, fn(usize) -> String);
    let shapes: [Shape; 15] = [
        ("labels of lists", |n| "\\begin{enumerate}[label=\\textbf{(\\alph*)}]\\item a\\end{enumerate}".repeat(n / 62)),
        ("one label for all lists", |n| {
            let label = format!("\\renewcommand\\labelenumi{{{}\\arabic{{enumi}}}}", "x\\relax ".repeat(n / 16));
            label + &"\\begin{enumerate}\\item a\\end{enumerate}".repeat(n / 76)
        }),
        ("a label by an example", |n| format!("\\begin{{enumerate}}[{}]\\item a", "{1}".repeat(n / 3))),
        ("labels by hand", |n| "\\begin{itemize}".to_owned() + &"\\item[a)] b".repeat(n / 11)),
        ("items in a line", |n| "\\begin{enumerate*}".to_owned() + &"\\item a".repeat(n / 7)),
        ("items with and without labels", |n| "\\begin{enumerate}".to_owned() + &"\\item a\\item[b] c".repeat(n / 17)),
        ("kinds of lists", |n| "\\newlist{a}{enumerate}{2}\\begin{a}\\item ".repeat(n / 40)),
        ("captions of one float", |n| "\\begin{figure}".to_owned() + &"a\\caption{b}".repeat(n / 12)),
        ("captions of nothing", |n| "\\captionof{figure}{a}".repeat(n / 21)),
        ("commands in code", |n| format!("\\begin{{alltt}}\n{}\n\\end{{alltt}}", "\\b{".repeat(n / 3))),
        ("formulas in code", |n| format!("\\begin{{lstlisting}}[mathescape]\n{}\n\\end{{lstlisting}}", "$a".repeat(n / 2))),
        ("equations that are counted", |n| "\\theequation".to_owned() + &"\\begin{equation}a\\end{equation}".repeat(n / 31)),
        ("parts of equations", |n| "\\begin{subequations}\\begin{equation}a\\end{equation}b".repeat(n / 51)),
        ("labels in notes", |n| "\\footnote{\\label{a}".repeat(n / 19)),
        ("boxes with theorems", |n| "\\newtcbtheorem{a}{b}{}{c}\\begin{a}{d}{e}".repeat(n / 40)),
    ];
    let read = |source: &[u8]| latex::read(source, &latex::Settings::default());
    let failed: Vec<String> =
        shapes.iter().filter_map(|(name, shape)| grows_linearly(name, 1_600, |n| shape(n).into_bytes(), read).err()).collect();
    assert_eq!(failed, [""; 0]);
    let written: [Shape; 3] = [
        ("numbers of a class", |n| "\\documentclass{IEEEtran}".to_owned() + &"\\section{A}\\subsection{B}".repeat(n / 26)),
        ("captions of a class", |n| {
            "\\documentclass{llncs}".to_owned() + &"\\begin{figure}a\\caption{b}\\end{figure}".repeat(n / 39)
        }),
        ("numbers of equations", |n| {
            "\\documentclass{article}\\renewcommand{\\theequation}{A\\arabic{equation}}".to_owned()
                + &"\\begin{equation}a\\end{equation}".repeat(n / 31)
        }),
    ];
    let write = |source: &[u8]| convert(source, Format::Latex, Format::Latex, &[]);
    let failed: Vec<String> =
        written.iter().filter_map(|(name, shape)| grows_linearly(name, 800, |n| shape(n).into_bytes(), write).err()).collect();
    assert_eq!(failed, [""; 0]);
}
