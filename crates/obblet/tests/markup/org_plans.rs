//! What Org files say of themselves and of what is to be done, and the files that they include.
#![allow(missing_docs, clippy::unwrap_used, clippy::panic, clippy::print_stderr, reason = "tests")]

use crate::support;

use obblet::document::Place;
use obblet::formats::org;
use obblet::media::{FilesAround, MemoryMedia};
use obblet::profile::Profile;
use obblet::publish::Action;
use obblet::{Context, Converted, Format, convert_in};
use support::convert::profile;
use support::folder::{Folder, dead_links, options};
use support::linear::grows_linearly;

/// Converts a document of the folder `plans` that has files around it.
fn with_files(source: &str, files: &[(&str, &str)], writes: Format) -> Converted {
    let mut media = MemoryMedia::default();
    for (path, text) in files {
        media.insert(*path, text.as_bytes().to_vec());
    }
    let context = Context { media: Some(&media), folder: Some("plans".as_ref()), ..Context::default() };
    let profile = profile("fragment", &["html.compact=true", "clean.join-lines=false"]);
    convert_in(source.as_bytes(), Format::Org, writes, &profile, &context).unwrap()
}

#[track_caller]
fn includes(source: &str, files: &[(&str, &str)], expected: &str) {
    assert_eq!(with_files(source, files, Format::Html).into_text().unwrap(), expected, "{source}");
}

#[track_caller]
fn reads(source: &str, expected: &str) {
    includes(source, &[], expected);
}

/// The codes and places of the findings.
fn found(done: &Converted) -> Vec<String> {
    done.findings.iter().map(|finding| format!("{} {}", finding.place, finding.code)).collect()
}

const WELL: (&str, &str) = (
    "plans/parts/well.org",
    "#+TITLE: The well\n* Well[fn:1]\nSee [[file:well.png]] and [[./log.org][the log]].\n** TODO Cleaning :pier:\n:PROPERTIES:\n:CUSTOM_ID: clean\n:END:\nBy hand.[fn:1]\n#+NAME: spares\n| a |\n\n[fn:1] Salt water.\n",
);

#[test]
fn files_are_included_whole_and_in_parts() {
    // Headings go below the one that includes them; notes and links stay those of their file.
    includes(
        "a[fn:1]\n* Top\n#+INCLUDE: \"parts/well.org\"\nb\n\n[fn:1] Main.\n",
        &[WELL],
        "<p>a<sup><a href=\"#note-1\" id=\"note-1-mark\" role=\"doc-noteref\">1</a></sup></p><h1>Top</h1><h2>Well<sup><a href=\"#note-2\" id=\"note-2-mark\" role=\"doc-noteref\">2</a></sup></h2><p>See <img src=\"parts/well.png\" alt=\"\"> and <a href=\"parts/log.org\">the log</a>.</p><h3 id=\"clean\"><span class=\"keyword-open\">TODO</span> Cleaning <span class=\"tag\">pier</span></h3><p>By hand.<sup><a href=\"#note-2\" id=\"note-2-mark-2\" role=\"doc-noteref\">2</a></sup></p><table id=\"spares\"><tbody><tr><td>a</td></tr></tbody></table><p>b</p><section role=\"doc-endnotes\" aria-label=\"Notes\"><ol><li id=\"note-1\"><p>Main. <a href=\"#note-1-mark\" role=\"doc-backlink\" aria-label=\"Back to the text\">↑</a></p></li><li id=\"note-2\"><p>Salt water. <a href=\"#note-2-mark\" role=\"doc-backlink\" aria-label=\"Back to the text\">↑</a> <a href=\"#note-2-mark-2\" role=\"doc-backlink\" aria-label=\"Back to the text 2\">↑<sup>2</sup></a></p></li></ol></section>",
    );
    let heading = "<h2 id=\"clean\"><span class=\"keyword-open\">TODO</span> Cleaning <span class=\"tag\">pier</span></h2>";
    for (part, start) in [
        ("::*Cleaning\" :minlevel 2", heading),
        ("::#clean\" :minlevel 2", heading),
        ("::*Cleaning\" :only-contents t", "<p>By hand."),
    ] {
        let source = format!("#+INCLUDE: \"parts/well.org{part}\n");
        let page = with_files(&source, &[WELL], Format::Html).into_text().unwrap();
        // The note that it mentions comes along.
        assert!(page.starts_with(start) && page.contains("Salt water."), "{part}: {page}");
    }
    includes(
        "#+INCLUDE: \"parts/well.org::spares\"\n",
        &[WELL],
        "<table id=\"spares\"><tbody><tr><td>a</td></tr></tbody></table>",
    );
    let lines = [("plans/tide.py", "import math\n* a\n#+b\nend\n")];
    includes(
        "#+INCLUDE: \"tide.py\" src python :lines \"2-4\"\n#+INCLUDE: tide.py example :lines \"-2\"\n",
        &lines,
        "<pre><code class=\"language-python\">* a\n#+b\n</code></pre><pre><code>import math\n</code></pre>",
    );
    // What stands in code asks for nothing.
    includes(
        "#+begin_src org\n,#+INCLUDE: \"tide.py\"\n#+end_src\n",
        &lines,
        "<pre><code class=\"language-org\">#+INCLUDE: \"tide.py\"\n</code></pre>",
    );
    let setup = [
        ("house.setup", "#+MACRO: place the Sound\n#+OPTIONS: ^:nil\nnot shown\n#+SETUPFILE: plans/more.setup\n"),
        ("plans/more.setup", "#+MACRO: pier the pier\n"),
    ];
    includes("#+SETUPFILE: ../house.setup\n{{{place}}} a^b {{{pier}}}\n", &setup, "<p>the Sound a^b the pier</p>");
}

#[test]
fn files_that_are_not_included_are_named_with_their_lines() {
    let files = [
        ("plans/a.org", "#+INCLUDE: b.org\na\n"),
        ("plans/b.org", "#+INCLUDE: a.org\nb\n"),
        ("plans/.hidden", "x\n"),
        ("plans/b.png", "PK\u{3}\u{4}\u{0}\u{0}"),
    ];
    let source = "one\n#+INCLUDE: a.org\n#+INCLUDE: none.org\n#+SETUPFILE: https://tides.example/x.setup\n#+INCLUDE: ../../out.org\n#+INCLUDE: /etc/hosts\n#+INCLUDE: .hidden\n#+INCLUDE: b.png\n\n\\alpha [[*None]]\n";
    let done = with_files(source, &files, Format::Html);
    let named: Vec<(Place, &str)> = done
        .findings
        .iter()
        .filter(|finding| finding.code == "org.include")
        .map(|finding| (finding.place, finding.message.as_str()))
        .collect();
    let line = |line| Place::Line { line, column: 1 };
    assert_eq!(
        named,
        [
            (line(2), "file a.org was not included: it includes itself"),
            (line(3), "file none.org was not included: it was not found"),
            (line(4), "file https://tides.example/x.setup was not included: it is an address"),
            (line(5), "file ../../out.org was not included: it is outside of the folder"),
            (line(6), "file /etc/hosts was not included: it is outside of the folder"),
            (line(7), "file .hidden was not included: it is hidden, ignored or excluded"),
            (line(8), "file b.png was not included: it is no text"),
        ]
    );
    // Places behind what was taken in are those of the file itself.
    assert!(found(&done).contains(&"10:8 org.missing-target".to_owned()), "{:?}", found(&done));
    assert_eq!(done.text().unwrap(), "<p>one</p><p>b</p><p>a</p><p>α None</p>");
    // Without files around it, all are missing; nothing else is.
    let alone = obblet::convert(b"#+INCLUDE: a.org\ntext\n", Format::Org, Format::Html, &Profile::fragment()).unwrap();
    assert_eq!(found(&alone), ["1:1 org.include"]);
    assert_eq!(alone.includes, ["a.org".as_ref() as &std::path::Path]);
}

#[test]
fn spans_are_those_of_the_file_that_includes() {
    let mut media = MemoryMedia::default();
    media.insert("x.org", b"* One\ntwo\n\nthree\n".to_vec());
    let files = FilesAround { root: Some(&media), limit: 1 << 20, ..FilesAround::default() };
    let source = "é\r\n\r\n#+INCLUDE: x.org\r\nlast\r\n";
    let doc = org::read_with(source.as_bytes(), &org::Settings::default(), &files);
    let spans: Vec<&str> = doc.children(doc.root()).map(|id| &source[doc.span(id).unwrap().range()]).collect();
    // All of the line is its first block.
    assert_eq!(spans, ["é", "#+INCLUDE: x.org\r\n", "", "", "last"]);
}

#[test]
fn inclusions_end_however_they_are_nested() {
    // Each file includes the next one ten times.
    let names: Vec<String> = (0..13).map(|n| format!("plans/f{n}.org")).collect();
    let texts: Vec<String> = (1..13).map(|n| format!("#+INCLUDE: f{n}.org\n").repeat(10)).collect();
    let texts: Vec<String> = texts.into_iter().take(12).chain(["x\n".to_owned()]).collect();
    let files: Vec<(&str, &str)> = names.iter().map(String::as_str).zip(texts.iter().map(String::as_str)).collect();
    let done = with_files("#+INCLUDE: f0.org\n", &files, Format::Html);
    assert!(done.findings.iter().any(|finding| finding.message.contains("too many files")), "{:?}", found(&done));
    assert!(done.findings.len() < 30);
    let deep: Vec<(String, String)> =
        (0..40).map(|n| (format!("plans/d{n}.org"), format!("{n}\n#+INCLUDE: d{}.org\n", n + 1))).collect();
    let files: Vec<(&str, &str)> = deep.iter().map(|(name, text)| (name.as_str(), text.as_str())).collect();
    let done = with_files("#+INCLUDE: d0.org\n", &files, Format::Html);
    assert!(done.text().unwrap().ends_with("<p>14</p><p>15</p>"), "{:?}", done.text());
    let mut media = MemoryMedia::default();
    media.insert("x.org", b"* a[fn:1]\n\n[fn:1] b\n".to_vec());
    let files = FilesAround { root: Some(&media), limit: 1 << 20, ..FilesAround::default() };
    let run = |source: &[u8]| org::read_with(source, &org::Settings::default(), &files);
    let shape = |n: usize| "#+INCLUDE: x.org\n".repeat(n / 17).into_bytes();
    grows_linearly("one file again and again", 4000, shape, run).unwrap();
}

#[test]
fn options_of_the_file_are_followed_or_named() {
    // Headings that are too deep are items, numbers go so deep, and properties of headings are shown.
    reads(
        "#+OPTIONS: H:1 num:1 prop:t\n* One\n:PROPERTIES:\n:Effort: 1:00\n:END:\n** Two <2031-03-05 Wed>\ntext\n*** Three\n** Four\n[[*three]]\n* Five\n",
        "<h1>1 One</h1><dl><dt>Effort</dt><dd>1:00</dd></dl><ol><li><p>Two <time datetime=\"2031-03-05\">2031-03-05 Wed</time></p><p>text</p><ol><li id=\"three\">Three</li></ol></li><li><p>Four</p><p><a href=\"#three\">three</a></p></li></ol><h1>2 Five</h1>",
    );
    reads("#+OPTIONS: tex:nil arch:nil\n$a$ \\(b\\)\n* c :ARCHIVE:\nd\n", "<p>$a$ \\(b\\)</p>");
    reads(
        "#+PROPERTY: header-args:sh :exports none\n#+begin_src sh\na\n#+end_src\n* h\n:PROPERTIES:\n:header-args: :exports none\n:END:\n#+begin_src py\nb\n#+end_src\n* i {{{property(X)}}}\n:PROPERTIES:\n:X: y\n:END:\n{{{property(X)}}} {{{results(=5=)}}}\n#+begin_src py\nc\n#+end_src\n",
        "<h1>h</h1><h1>i </h1><p>y <code>5</code></p><pre><code class=\"language-py\">c\n</code></pre>",
    );
    reads(
        "The gauge, gauges and a <<<Gauge>>>. [[x][gauge]]\n\n+--+\n| a|\n+--+\n",
        "<p>The <a href=\"#Gauge\">gauge</a>, gauges and a <span id=\"Gauge\">Gauge</span>. gauge</p><pre><code>+--+\n| a|\n+--+\n</code></pre>",
    );
    reads(
        "#+CAPTION: Sum\n#+NAME: sum\n#+begin_src py -r :exports both\na = 1\nb = 2 (ref:b)\n#+end_src\n#+RESULTS: sum\n: 3\nLine [[(b)]].\n",
        "<figure id=\"sum\"><pre><code class=\"language-py\">a = 1\nb = 2\n</code></pre><figcaption>Sum</figcaption></figure><pre><code>3\n</code></pre><p>Line <a href=\"#sum\">2</a>.</p>",
    );
    // Macros for formulas stand at the top, and come back there.
    let macros =
        "#+LATEX_HEADER: \\newcommand{\\R}{\\mathbb{R}} % the line\n#+LATEX_HEADER: \\usepackage{x}\n\n\\(x \\in \\R\\)\n";
    let done = with_files(macros, &[], Format::Html);
    assert!(done.text().unwrap().contains("<mi>ℝ</mi>") && done.findings.is_empty(), "{:?}", done.findings);
    assert_eq!(with_files(macros, &[], Format::Org).text().unwrap(), macros);
    // A note that the text needs is read where the file leaves out what is around it; others are not.
    let done = with_files("a[fn:x]\n* COMMENT b\n[fn:x] note\n\n[fn:y] secret\n", &[], Format::Html);
    assert!(done.text().unwrap().contains("note") && !done.text().unwrap().contains("secret"), "{:?}", done.text());
    let done = with_files(
        "#+TITEL: x\n#+OPTIONS: html-style:nil toc:2 author:nil\n#+AUTHOR: Ada Pask\na\n#+TOC: tables\n",
        &[],
        Format::Html,
    );
    let finding = &done.findings[0];
    assert_eq!((finding.code.as_ref(), finding.place.to_string().as_str()), ("org.setting", "1:1"));
    assert_eq!(finding.message, "settings of the file have no effect: #+TITEL html-style:nil #+TOC: tables");
    let doc =
        org::read(b"#+OPTIONS: toc:2 num:nil author:nil date:nil\n#+AUTHOR: Ada Pask\n#+DATE: 2031\n", &org::Settings::default());
    assert_eq!((doc.metadata.presentation.contents, doc.metadata.presentation.numbered_levels), (Some(2), Some(0)));
    assert!(doc.metadata.authors.is_empty() && doc.metadata.date.is_none());
}

#[test]
fn plans_stay_plans() {
    let source = "#+TITLE: Plan\n#+TODO: OPEN | SHUT\n#+OPTIONS: pri:t\n\n* OPEN [#A] Clean the /well/ :pier:sea:\nDEADLINE: <2031-03-15 Sat> SCHEDULED: <2031-03-10 Mon +1w>\n:PROPERTIES:\n:CUSTOM_ID: clean\n:Effort: 1:30\n:END:\n\n- [-] two people\n  - [X] Ada Pask\n  - [ ] somebody\n\n* SHUT Paint\nCLOSED: [2031-03-02 Sun]\n\nSee [[#clean][there]] and [[felt]].\n\n#+NAME: felt\n#+begin_src sh\nls\n#+end_src\n\n#+ATTR_HTML: :class wide :lang ar :dir rtl\n#+begin_pier\nz\n#+end_pier\n";
    let done = with_files(source, &[], Format::Org);
    assert_eq!(done.text().unwrap(), source);
    assert!(done.findings.is_empty(), "{:?}", done.findings);
    let doc = org::read(source.as_bytes(), &org::Settings::default());
    let tasks: Vec<_> = doc.tasks.iter().map(|(heading, task)| (doc.heading_text(heading), task.clone())).collect();
    assert_eq!(tasks.len(), 2);
    assert_eq!((tasks[0].0.as_str(), tasks[0].1.scheduled.as_str()), ("Clean the well", "2031-03-10 Mon +1w"));
    assert_eq!((tasks[1].1.is_done, tasks[1].1.closed.as_str()), (true, "2031-03-02 Sun"));
    // By way of HTML the words of headings and their states come back.
    let page = with_files(source, &[], Format::Html);
    let back = obblet::convert(&page.bytes, Format::Html, Format::Org, &profile("fragment", &["styling=named"])).unwrap();
    let back = back.text().unwrap();
    assert!(back.contains("* OPEN [#A] Clean the /well/ :pier:sea:") && back.contains("#+TODO: OPEN | SHUT"), "{back}");
    // Tables that Org has no form for are HTML where that is asked for.
    let table = b"<table><tr><td rowspan=2>a<td>b<tr><td>c</table>";
    let kept = obblet::convert(table, Format::Html, Format::Org, &profile("fragment", &["org.html-tables=true"])).unwrap();
    assert!(kept.text().unwrap().contains("#+begin_export html\n<table>") && kept.findings.is_empty(), "{:?}", kept.text());
    let again = obblet::convert(&kept.bytes, Format::Org, Format::Html, &Profile::fragment()).unwrap();
    assert!(again.text().unwrap().contains("rowspan=\"2\""));
}

#[test]
fn what_is_to_be_done_in_a_folder_is_on_one_page() {
    let folder = Folder::new(&[
        ("README.md", "---\ndate: 2031-03-12\n---\n# Station\n"),
        (
            "plans/well.org",
            "#+TITLE: Well\n* TODO [#A] Clean <it> :pier:\nDEADLINE: <2031-03-10 Mon>\n* DONE Paint\nCLOSED: [2031-03-02 Sun]\n* TODO Some day\n",
        ),
        ("plans/meeting.org", "#+TITLE: Meetings\n* Keepers <2031-04-11 Fri 19:30>\n* Gone <2031-01-01>\n"),
        ("plans/part.inc", "* TODO Included\nSCHEDULED: <2031-03-12 Wed>\n"),
        ("plans/book.org", "#+TITLE: Book\n#+INCLUDE: part.inc\n"),
    ]);
    let with = |settings: &[&str]| {
        let all = [&["publish.site=true", "publish.agenda=true", "site.address=https://tides.example/"], settings].concat();
        folder.publish_with(|chosen| chosen.layers = options(&all).layers)
    };
    with(&[]);
    let page = folder.read("agenda.html");
    let main = page.split_once("<main").unwrap().1;
    let at = |text: &str| main.find(text).unwrap_or_else(|| panic!("{text} is not in {main}"));
    // The day is the newest date of the documents: what is due before it is late, once.
    assert!(at("3 open, 1 done") < at("Wednesday, 12 March 2031"));
    assert!(at(">Late<") < at("plans/well.html#clean-it\">Clean &lt;it&gt;") && at("2031-03-10 Mon") < at(">By date<"));
    assert!(at(", today") < at("Included") && at("Included") < at("Friday, 11 April 2031") && at("Keepers") < at("19:30"));
    assert!(!main.contains("Gone") && !main.contains(">Paint<"));
    assert!(at(">Open, by document<") < at("Some day"));
    assert!(folder.read("pages.html").contains("agenda.html"));
    assert_eq!(dead_links(&folder.output()), [""; 0]);
    // The same again changes nothing; a file that is included changes its document.
    assert_eq!(with(&[]).summary.converted, 0);
    folder.write("plans/part.inc", "* DONE Included\nCLOSED: [2031-03-13 Thu]\n");
    let run = with(&[]);
    assert_eq!(run.summary.converted, 1, "{:?}", run.told);
    assert!(run.told.iter().any(|step| matches!(&step.action, Action::Changed(why) if why.to_string().contains("part.inc"))));
    assert!(folder.read("agenda.html").contains("2 open, 2 done") && folder.read("agenda.html").contains("13 March"));
    // The day can be given; without plans there is no page.
    with(&["publish.agenda-day=2031-03-01"]);
    assert!(!folder.read("agenda.html").contains(">Late<"));
    assert!(Profile::default().set("publish.agenda-day=soon").is_err());
}
