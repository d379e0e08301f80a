//! Citations of entries in files, from Org, Markdown and LaTeX, and back to LaTeX.
#![allow(missing_docs, clippy::unwrap_used, clippy::panic, clippy::print_stderr, reason = "tests")]

use crate::support;

use obblet::Format;
use obblet::formats::{latex, markdown, org};
use support::convert::convert;
use support::folder::Folder;

const ENTRIES: &str = "@string{quay = \"Ballast Quay Press\"}\n\
    @book{brand, author = {Brand, Leocadia}, title = {Constants of the {Sound}}, publisher = quay, year = 1987}\n\
    @article{halm, author = {Halm, Joris and Pask, Anwen and Quarrie, Isobel}, title = {Weather \\& water}, journal = {Tides}, year = 2029, pages = {3-18}}\n\
    @misc{unread, author = {Nobody}, title = {Unread}, year = 2000}\n";

/// The text of a page of a document beside the file of entries, from its first paragraph on, and what was found.
#[track_caller]
fn page(name: &str, source: &str) -> (String, Vec<String>) {
    let folder = Folder::new(&[(name, source), ("entries.bib", ENTRIES)]);
    let run = folder.publish();
    let findings = run.told.iter().flat_map(|told| &told.findings);
    let findings = findings.filter(|finding| finding.code.contains("citation")).map(|finding| finding.message.clone()).collect();
    let page = folder.read(&format!("{}.html", name.split('.').next().unwrap()));
    let start = page.find("<p>").unwrap_or_default();
    (page[start..page.find("</main>").unwrap_or(page.len())].trim().replace(['\n', '\r'], ""), findings)
}

const BRAND: &str = "<li id=\"bib-brand\">L.&nbsp;Brand. <em>Constants of the Sound</em>. Ballast Quay Press, 1987.</li>";
const HALM: &str = "<li id=\"bib-halm\">J.&nbsp;Halm, A.&nbsp;Pask, and I.&nbsp;Quarrie. Weather &amp; water. <em>Tides</em>, pages 3–18, 2029.</li>";

#[test]
fn org_cites_as_its_style_says() {
    let head = "#+title: Notes\n#+bibliography: entries.bib\n";
    let text = "Seen [cite:@halm], [cite:see @brand p. 3; @halm; both].\n[cite/t:@halm ch. 2] says it, [cite/a:@brand] too [cite/na:@brand].[cite/n:@brand]\n\n* References\n#+print_bibliography:\n";
    let (by_names, found) = page("a.org", &format!("{head}{text}"));
    assert_eq!(
        by_names,
        format!(
            "<p>Seen [<a href=\"#bib-halm\">Halm et al. 2029</a>], [see <a href=\"#bib-brand\">Brand 1987</a>, p. 3; <a href=\"#bib-halm\">Halm et al. 2029</a>; both]. \
            <a href=\"#bib-halm\">Halm et al.</a> [<a href=\"#bib-halm\">2029</a>, ch. 2] says it, <a href=\"#bib-brand\">Brand</a> too [<a href=\"#bib-brand\">1987</a>].</p>\
            <h2 id=\"references\">References</h2><ul>{BRAND}{HALM}</ul>"
        )
    );
    assert!(found.is_empty(), "{found:?}");
    let (by_numbers, _) = page("a.org", &format!("{head}#+cite_export: basic numeric\n{text}"));
    assert!(
        by_numbers.starts_with("<p>Seen [<a href=\"#bib-halm\">2</a>], [see <a href=\"#bib-brand\">1</a>, p. 3; "),
        "{by_numbers}"
    );
    assert!(by_numbers.contains("Halm et al. [<a href=\"#bib-halm\">2</a>, ch. 2] says it, "), "{by_numbers}");
    let (letters, _) = page("a.org", &format!("{head}#+cite_export: biblatex alphabetic\n{text}"));
    assert!(
        letters.contains("[<a href=\"#bib-halm\">HPQ29</a>]") && letters.contains("<li id=\"bib-brand\">[Bra87] Leocadia Brand."),
        "{letters}"
    );
    // Nothing leads to a list that is not there; and without a file, keys are all that there is.
    let (no_list, _) = page("a.org", &format!("{head}{}", text.split("* Ref").next().unwrap()));
    assert!(no_list.starts_with("<p>Seen [Halm et al. 2029], [see Brand 1987, p. 3; "), "{no_list}");
    let (no_file, found) = page("a.org", text);
    assert!(no_file.starts_with("<p>Seen <cite>[halm]</cite>, <cite>[see brand p. 3; halm; both]</cite>."), "{no_file}");
    assert_eq!(found, ["citations are shown by their keys: 6"]);
}

/// Papers cite and print with the commands of LaTeX.
#[test]
fn org_cites_as_latex_does() {
    let text = "#+title: Notes\nSeen \\citep[see][p. 3]{brand}, and \\citet{halm} says it.\n\n* References\n\\bibliographystyle{plain}\n\\bibliography{entries}\n";
    let (page, found) = page("a.org", text);
    assert_eq!(
        page,
        format!(
            "<p>Seen [see <a href=\"#bib-brand\">Brand 1987</a>, p. 3], and <a href=\"#bib-halm\">Halm et al.</a> \
            [<a href=\"#bib-halm\">2029</a>] says it.</p><h2 id=\"references\">References</h2><ul>{BRAND}{HALM}</ul>"
        )
    );
    assert!(found.is_empty(), "{found:?}");
}

#[test]
fn markdown_cites_where_its_front_matter_names_entries() {
    let front = "---\ntitle: Notes\nbibliography: entries.bib\n---\n\n";
    let text = "Seen [@halm], [see *not* @brand, p. 3; @halm]{}, [-@brand], `[@halm]`, \\[@halm], [@halm](a.html).\n";
    let (names, found) = page("a.md", &format!("{front}{text}"));
    assert_eq!(
        names,
        format!(
            "<p>Seen [<a href=\"#bib-halm\">Halm et al. 2029</a>], [see *not* <a href=\"#bib-brand\">Brand 1987</a>, p. 3; <a href=\"#bib-halm\">Halm et al. 2029</a>]{{}}, \
            [<a href=\"#bib-brand\">1987</a>], <code>[@halm]</code>, [@halm], <a href=\"a.html\">@halm</a>.</p><h2 id=\"references\">References</h2><ul>{BRAND}{HALM}</ul>"
        )
    );
    assert!(found.is_empty(), "{found:?}");
    let own = page("a.md", &format!("{}{text}\n## Sources\n", front.replace("---\n\n", "citations: cited-order\n---\n\n"))).0;
    assert!(own.ends_with(&format!("<h2 id=\"sources\">Sources</h2><ol>{HALM}{BRAND}</ol>")), "{own}");
    // Without a file that is named, or where the setting says no, brackets are brackets.
    assert!(page("a.md", text).0.starts_with("<p>Seen [@halm], [see <em>not</em> @brand, p. 3; @halm]{}, [-@brand],"));
    let off = convert(format!("{front}{text}"), Format::Markdown, Format::Html, &["markdown.citations=false"]);
    assert!(off.into_text().unwrap().starts_with("<p>Seen [@halm], [see <em>not</em>"));
    // The front matter stays what it is.
    let again =
        convert(format!("{front}{text}"), Format::Markdown, Format::Markdown, &["markdown.citations=false"]).into_text().unwrap();
    assert!(again.contains("bibliography: entries.bib\n") && again.contains("[see *not* @brand"), "{again}");
    let (missing, found) = page("a.md", &format!("{front}A [see @nobody, p. 1; @halm].\n"));
    assert!(missing.starts_with("<p>A [see nobody, p. 1; <a href=\"#bib-halm\">"), "{missing}");
    assert_eq!(found, ["citations are shown by their keys, which no entry of a bibliography has: 1"]);
    let (_, found) = page("a.md", &format!("{}A [@halm].\n", front.replace("entries", "../elsewhere")));
    assert_eq!(found[0], "bibliography ../elsewhere.bib was not read: it is outside of the folder");
}

#[test]
fn citations_come_back_from_latex_as_they_were() {
    let list = "\n\\begin{thebibliography}{9}\n\\bibitem[Brand(1987)]{brand} L. Brand.\n\\bibitem[Halm et~al.(2029)]{halm} J. Halm.\n\\end{thebibliography}\n";
    let text = "\\citet{halm} and \\citep[see][p. 3]{brand}, \\citep{brand,halm}, \\citeyearpar[ch. 2]{brand}, \\citeauthor{halm} in \\citeyear{halm}, \\citealp{brand}.";
    let source =
        format!("\\documentclass{{article}}\\usepackage[square]{{natbib}}\\begin{{document}}{text}{list}\\end{{document}}");
    let html = convert(&source, Format::Latex, Format::Html, &["html.compact=true"]).into_text().unwrap();
    assert_eq!(
        html.split("<h").next().unwrap(),
        "<p><a href=\"#bib-halm\">Halm et&nbsp;al.</a> [<a href=\"#bib-halm\">2029</a>] and [see <a href=\"#bib-brand\">Brand, 1987</a>, p. 3], \
        [<a href=\"#bib-brand\">Brand, 1987</a>; <a href=\"#bib-halm\">Halm et&nbsp;al., 2029</a>], [<a href=\"#bib-brand\">1987</a>, ch. 2], \
        <a href=\"#bib-halm\">Halm et&nbsp;al.</a> in <a href=\"#bib-halm\">2029</a>, <a href=\"#bib-brand\">Brand, 1987</a>.</p>"
    );
    let again = convert(&html, Format::Html, Format::Latex, &[]).into_text().unwrap();
    assert_eq!(
        again.split("\n\n").next().unwrap(),
        "\\citet{halm} and \\citep[see][{p. 3}]{brand}, \\citep{brand,halm}, \\citeyearpar[{ch. 2}]{brand}, \\citeauthor{halm} in \\citeyear{halm}, \\citealp{brand}."
    );
    assert!(again.contains("\\bibitem[Halm et~al.(2029)]{halm} J. Halm."), "{again}");
    // A document of its own says how they are set.
    let whole = convert(&html, Format::Html, Format::Latex, &["shape=page"]).into_text().unwrap();
    let third = convert(&whole, Format::Latex, Format::Html, &["html.compact=true"]).into_text().unwrap();
    assert_eq!(third.replace(", </a>", "</a>"), html);
}

#[test]
fn citations_stand_as_their_package_sets_them() {
    let list = "\\begin{thebibliography}{9}\n\\bibitem[Brand(1987)]{brand} L. Brand.\n\\bibitem[Halm et~al.(2029)]{halm} J. Halm.\n\\end{thebibliography}\n";
    let text = "\\cite{halm} and \\citep[see][p. 3]{brand}; \\citep{brand,halm}.";
    for (package, expected) in [
        ("\\usepackage{natbib}", "Halm et\u{A0}al. (2029) and (see Brand, 1987, p. 3); (Brand, 1987; Halm et\u{A0}al., 2029)."),
        (
            "\\usepackage[square]{natbib}",
            "Halm et\u{A0}al. [2029] and [see Brand, 1987, p. 3]; [Brand, 1987; Halm et\u{A0}al., 2029].",
        ),
        (
            "\\usepackage{natbib}\\setcitestyle{aysep={}}",
            "Halm et\u{A0}al. (2029) and (see Brand 1987, p. 3); (Brand 1987; Halm et\u{A0}al. 2029).",
        ),
        (
            "\\usepackage{natbib}\\bibpunct{[}{]}{;}{a}{}{,}",
            "Halm et\u{A0}al. [2029] and [see Brand 1987, p. 3]; [Brand 1987; Halm et\u{A0}al. 2029].",
        ),
    ] {
        let source = format!("\\documentclass{{article}}{package}\\begin{{document}}{text}\n\n{list}\\end{{document}}");
        let html = convert(&source, Format::Latex, Format::Html, &["html.compact=true"]).into_text().unwrap();
        let shown = |html: &str| {
            let doc = obblet::formats::html::read(html.as_bytes(), &obblet::formats::html::ReadOptions::default());
            let first = doc.children(doc.root()).next().unwrap();
            doc.plain_text(first)
        };
        assert_eq!(shown(&html), expected, "{package}");
        let back = convert(&html, Format::Html, Format::Latex, &["shape=page"]).into_text().unwrap();
        assert!(back.contains("\\citep[see][{p. 3}]{brand}; \\citep{brand,halm}."), "{back}");
        let again = convert(&back, Format::Latex, Format::Html, &["html.compact=true"]).into_text().unwrap();
        assert_eq!(shown(&again), expected, "{back}");
    }
}

#[test]
fn what_only_looks_like_a_citation_stays_as_it_is() {
    let list = "<ol><li id=\"bib-a\">A.</li><li id=\"bib-b\">B.</li></ol>";
    for text in [
        "[<a href=\"#bib-a\">1</a>, <a href=\"#bib-b\">7</a>, p. 3] and so on",
        "[see <a href=\"#bib-a\">1</a>, p. 3]",
        "[<a href=\"#bib-a\">1</a> or <a href=\"#bib-b\">2</a>]",
        "[<a href=\"#bib-a\">1</a>, open",
        "<a href=\"#bib-a\">1</a>] [x]",
    ] {
        let tex = convert(format!("<p>{text}</p>{list}"), Format::Html, Format::Latex, &[]).into_text().unwrap();
        let back = convert(&tex, Format::Latex, Format::Html, &["html.compact=true"]).into_text().unwrap();
        assert!(!tex.contains("\\cite") && back.starts_with(&format!("<p>{text}</p>")), "{text}\n{tex}\n{back}");
    }
}

#[test]
fn what_is_wrong_with_a_bibliography_is_said() {
    let source = |style: &str, file: &str| {
        format!(
            "\\documentclass{{article}}\n\\begin{{document}}\nSee \\cite{{halm}}.\n\\bibliographystyle{{{style}}}\n\\bibliography{{{file}}}\n\\end{{document}}\n"
        )
    };
    let (_, found) = page("a.tex", &source("plain", "entries"));
    assert!(found.is_empty(), "{found:?}");
    let (text, found) = page("a.tex", &source("ownstyle", "entries"));
    assert!(text.starts_with("<p>See [<a href=\"#bib-halm\">1</a>]."), "{text}");
    assert_eq!(found, ["the style ownstyle is not known: citations and their list follow the style numbers"]);
    let folder = Folder::new(&[("a.tex", &*source("plain", "nowhere")), ("entries.bib", ENTRIES)]);
    let run = folder.publish();
    let findings = run.told.iter().flat_map(|document| &document.findings);
    let messages: Vec<&str> = findings.map(|finding| finding.message.as_str()).collect();
    assert!(messages.contains(&"file nowhere.bib was not included: it was not found"), "{messages:?}");
    // What another program made of the file that is not there will do.
    let list = "\\begin{thebibliography}{1}\n\\providecommand{\\natexlab}[1]{#1}\n\\bibitem[Halm(2029)]{halm}\nJ.~Halm.\n\\newblock Weather.\n\\end{thebibliography}\n";
    let folder = Folder::new(&[("a.tex", &*source("plainnat", "nowhere")), ("a.bbl", list)]);
    let run = folder.publish();
    assert_eq!(
        run.told.iter().flat_map(|document| &document.findings).filter(|finding| finding.code.starts_with("latex")).count(),
        0
    );
    let page = folder.read("a.html");
    assert!(
        page.contains("<p>See [<a href=\"#bib-halm\">Halm 2029</a>].</p>") && page.contains("<li id=\"bib-halm\">"),
        "{page}"
    );
    // An entry without an end is no longer than itself.
    let broken = format!("@book{{open, title = {{No end\n, year = 1\n{ENTRIES}");
    let folder = Folder::new(&[("a.tex", &*source("plain", "entries")), ("entries.bib", &*broken)]);
    folder.publish();
    let page = folder.read("a.html");
    assert!(page.contains("<li id=\"bib-halm\">Joris Halm, Anwen Pask, and Isobel Quarrie. Weather"), "{page}");
}

#[test]
fn the_heading_of_a_list_is_that_of_the_document() {
    let html =
        "<h2>Tides</h2><p>As in [<a href=\"#bib-a\">1</a>].</p><h2>Read &amp; reread</h2><ol><li id=\"bib-a\">A.</li></ol>";
    let tex = convert(html, Format::Html, Format::Latex, &[]).into_text().unwrap();
    assert!(tex.contains("\\renewcommand{\\refname}{Read \\& reread}\n\n\\begin{thebibliography}"), "{tex}");
    assert!(tex.contains("As in \\cite{a}.") && !tex.contains("section{Read"), "{tex}");
    let back = convert(&tex, Format::Latex, Format::Html, &["html.compact=true"]).into_text().unwrap();
    assert!(back.contains("<h1 class=\"unnumbered\">Read &amp; reread</h1><ol><li id=\"bib-a\">A.</li></ol>"), "{back}");
}

#[test]
fn many_brackets_and_keys_take_their_time_only_once() {
    type Shape = (&'static str, fn(usize) -> Vec<u8>);
    let shapes: [Shape; 3] = [
        ("citations", |n| "[see @a, p. 3; @b] ".repeat(n / 19).into_bytes()),
        ("brackets", |n| "[".repeat(n).into_bytes()),
        ("keys", |n| format!("[{}]", "@a;".repeat(n / 3)).into_bytes()),
    ];
    for (name, shape) in shapes {
        let of_markdown = |source: &[u8]| {
            let source = [b"---\nbibliography: a.bib\n---\n", source].concat();
            markdown::read(&source, &markdown::Settings::default())
        };
        support::linear::assert_linear(name, 4_000, shape, of_markdown);
        let of_org = |source: &[u8]| {
            let source = String::from_utf8_lossy(source).replace('[', "[cite:");
            org::read(format!("#+bibliography: a.bib\n{source}").as_bytes(), &org::Settings::default())
        };
        support::linear::assert_linear(name, 4_000, shape, of_org);
        let of_latex = |source: &[u8]| {
            let source = String::from_utf8_lossy(source).replace('[', "\\citet[").replace(']', "]{a,b}");
            latex::read(format!("\\usepackage{{natbib}}{source}").as_bytes(), &latex::Settings::default())
        };
        support::linear::assert_linear(name, 4_000, shape, of_latex);
    }
}
