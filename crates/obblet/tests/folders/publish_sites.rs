//! Sites and binders as they grow: many entries, sections of the same name, documents that want the names of pages, and
//! what is said of each document that is converted again.
#![allow(missing_docs, clippy::unwrap_used, clippy::panic, clippy::print_stderr, reason = "tests")]

use crate::support;

use obblet::publish::{Action, Options, Plan, Why};
use support::folder::{Folder, Listener, Run, dead_links, files, options};

fn with(folder: &Folder, settings: &[&str]) -> Run {
    folder.publish_with(|chosen| chosen.layers = options(settings).layers)
}

const SITE: [&str; 3] = ["publish.site=true", "site.title=Station", "site.address=https://tides.example/"];

#[test]
fn entries_of_a_feed_go_on_as_many_pages_as_they_take() {
    let folder = Folder::new(&[("README.md", "# The station\n")]);
    for day in 1..=28 {
        for month in [1, 2] {
            folder.write(
                &format!("log/{month:02}-{day:02}.md"),
                format!("---\ndate: 2026-{month:02}-{day:02}\ndescription: Height & time\n---\n# Log of {day} < {month}\n"),
            );
        }
    }
    folder.write("log/undated.md", "---\ndate: some day\n---\n# Some day\n");
    with(&folder, &[SITE.as_slice(), &["site.feed-entries=60"]].concat());
    let pages: Vec<String> = ["entries.html", "entries-2.html", "entries-3.html"].iter().map(|name| folder.read(name)).collect();
    let counts: Vec<usize> = pages.iter().map(|page| page.matches("<time").count()).collect();
    assert_eq!(counts.iter().sum::<usize>(), folder.read("feed.xml").matches("<entry>").count());
    assert!(counts[0] == 25 && counts[1] == 25 && !folder.has("entries-4.html"), "{counts:?}");
    // Newest first, each page knows the others, and what has no date is no entry.
    assert!(pages[0].find("Log of 28 &lt; 2").unwrap() < pages[0].find("Log of 27 &lt; 2").unwrap());
    assert!(pages[1].contains("Pages: <a href=\"entries.html\">1</a> 2 <a href=\"entries-3.html\">3</a>"), "{}", pages[1]);
    assert!(pages.iter().all(|page| !page.contains("Some day")));
    assert_eq!(dead_links(&folder.output()), [""; 0]);
    let feed = folder.read("feed.xml");
    assert!(feed.contains("Height &amp; time") && feed.contains("<title>Log of 28 &lt; 2</title>"), "{feed}");
    // Without a feed there are no pages of its entries, and those that were made go.
    let fewer = [SITE.as_slice(), &["site.feed-entries=0"]].concat();
    let run = folder.publish_with(|chosen| (chosen.layers, chosen.prune) = (options(&fewer).layers, true));
    assert!(!folder.has("entries.html") && !folder.has("entries-3.html") && !folder.has("feed.xml"), "{:?}", run.told);
    assert_eq!(dead_links(&folder.output()), [""; 0]);
}

#[test]
fn documents_that_want_the_name_of_a_page_of_the_site_keep_it() {
    let folder = Folder::new(&[
        ("README.md", "# The station\n"),
        ("pages.md", "# All of us\n"),
        ("404.md", "# Lost\n"),
        ("a.md", "# A\n"),
    ]);
    let run = with(&folder, &SITE);
    assert_eq!(run.found("publish.taken").len(), 2, "{:?}", run.told);
    assert!(folder.read("pages.html").contains("All of us") && folder.read("404.html").contains("Lost"));
    assert_eq!(dead_links(&folder.output()), [""; 0]);
    // The same again changes nothing.
    assert_eq!(with(&folder, &SITE).summary.converted, 0);
}

#[test]
fn a_document_is_split_at_its_headings() {
    let book = "# Tides\n\nBefore.\n\n## Springs\n\nSee [neaps](#neaps), [the other](#springs-1).\n\n## Neaps\n\n### Low\n\nBack to [springs](#springs).[^n]\n\n## Springs\n\nAgain.\n\n[^n]: A note.\n";
    let folder = Folder::new(&[("book.md", book), ("other.md", "[to the second](book.md#springs-1) [to low](book.md#low)\n")]);
    let run = with(&folder, &["publish.split=2"]);
    let made: Vec<String> = files(&folder.output()).into_keys().filter(|name| name.ends_with(".html")).collect();
    assert_eq!(
        made,
        ["book--neaps.html", "book--springs-1.html", "book--springs.html", "book.html", "other.html"],
        "{:?}",
        run.told
    );
    assert_eq!(dead_links(&folder.output()), [""; 0]);
    let (first, neaps, other) = (folder.read("book--springs.html"), folder.read("book--neaps.html"), folder.read("other.html"));
    assert!(first.contains("href=\"book--neaps.html\"") && first.contains("href=\"book--springs-1.html\""), "{first}");
    assert!(neaps.contains("A note.") && neaps.contains("href=\"book--springs.html\""), "{neaps}");
    assert!(
        other.contains("href=\"book--springs-1.html#springs-1\"") && other.contains("href=\"book--neaps.html#low\""),
        "{other}"
    );
    assert!(!folder.read("book.html").contains("Again."));
}

#[test]
fn a_binder_holds_all_documents_and_their_links_lead_within_it() {
    let folder = Folder::new(&[
        (
            "README.md",
            "# The station\n\n[first](part/a.md) [its place](part/a.md#height) [file](files/roster.csv) [web](https://tides.example/)\n",
        ),
        ("part/a.md", "# A\n\n## Height\n\n[^n] ![staff](../files/staff.svg)\n\n[^n]: Of a.\n"),
        ("part/b.md", "No heading, but a [link back](../README.md) and one to [a](a.md).[^n]\n\n[^n]: Of b.\n"),
        ("files/roster.csv", "a,b\n"),
        ("files/staff.svg", "<svg xmlns=\"http://www.w3.org/2000/svg\" width=\"4\" height=\"4\"/>"),
    ]);
    with(&folder, &["publish.binder=true", "page.look=none"]);
    let binder = folder.read("binder.html");
    for words in ["The station", "Height", "Of a.", "Of b.", "No heading, but a"] {
        assert!(binder.contains(words), "{words}\n{binder}");
    }
    assert_eq!(dead_links(&folder.output()), [""; 0]);
    // Links between its documents stay in it; others lead out.
    assert!(!binder.contains("href=\"part/") && !binder.contains("href=\"index.html"), "{binder}");
    assert!(
        binder.contains("href=\"files/roster.csv\"")
            && binder.contains("src=\"files/staff.svg\"")
            && binder.contains("href=\"https://tides.example/\"")
    );
    // Each document has notes of its own, whose names say so once.
    for name in ["document-2-note-1", "document-2-note-1-mark", "document-3-note-1", "document-3-note-1-mark"] {
        assert_eq!(binder.matches(&format!(" id=\"{name}\"")).count(), 1, "{name}");
    }
}

#[test]
fn each_document_that_is_converted_again_says_why() {
    let folder = Folder::new(&[
        ("a.md", "# A\n\n![staff](staff.svg)\n"),
        ("b.md", "# B\n\n[to c](c.md)\n"),
        ("c.md", "# C\n"),
        ("staff.svg", "<svg xmlns=\"http://www.w3.org/2000/svg\" width=\"4\" height=\"4\"/>"),
    ]);
    folder.publish();
    let why = |run: &Run| {
        let reason = |told: &support::folder::Told| match &told.action {
            Action::Changed(why) => Some(format!("{}: {why}", told.source)),
            Action::New => Some(format!("{}: new", told.source)),
            _ => None,
        };
        run.told.iter().filter_map(reason).collect::<Vec<_>>()
    };
    folder.write("c.md", "# C and more\n");
    assert_eq!(why(&folder.publish()), ["c.md: the document"]);
    folder.write("staff.svg", "<svg xmlns=\"http://www.w3.org/2000/svg\" width=\"8\" height=\"4\"/>");
    assert_eq!(why(&folder.publish()), ["a.md: staff.svg, which it shows"]);
    std::fs::remove_file(folder.output().join("b.html")).unwrap();
    assert_eq!(why(&folder.publish()), ["b.md: b.html is gone"]);
    let again = with(&folder, &["page.language=en"]);
    assert_eq!(why(&again), ["a", "b", "c"].map(|name| format!("{name}.md: its settings, a file they name, or the program")));
    folder.remove("c.md");
    assert_eq!(why(&with(&folder, &["page.language=en"])), ["b.md: links or pages around it"]);
    let forced = folder.publish_with(|chosen| (chosen.layers, chosen.force) = (options(&["page.language=en"]).layers, true));
    assert_eq!(why(&forced), ["a.md: as asked", "b.md: as asked"]);
    assert_eq!(Why::CutOff.to_string(), "the last run was cut off");
    // A run that only looks says the same as the run.
    folder.write("a.md", "# A\n");
    let plan = Plan::new(&folder.source(), &folder.output(), options(&["page.language=en"])).unwrap();
    let mut seen = Listener::default();
    let summary = plan.rehearse(&mut seen).unwrap();
    assert_eq!(why(&Run { told: seen.0, summary }), ["a.md: the document"]);
}

#[cfg(unix)]
#[test]
fn what_is_no_document_is_told_or_left() {
    let folder = Folder::new(&[
        ("a.md", "# A\n"),
        ("~$a.docx", "open"),
        (".hidden.md", "# H\n"),
        ("drafts/x.md", "# X\n"),
        ("notes.xyz", "?"),
    ]);
    folder.write(".gitignore", "drafts/\n");
    let _socket = std::os::unix::net::UnixListener::bind(folder.source().join("pipe.md")).unwrap();
    let run = folder.publish();
    let skipped: Vec<(String, String)> = run
        .told
        .iter()
        .filter_map(|told| match &told.action {
            Action::Skipped(why) => Some((told.source.clone(), why.clone())),
            _ => None,
        })
        .collect();
    let said = |path: &str| skipped.iter().find(|(source, _)| source == path).map_or("", |(_, why)| why.as_str());
    assert_eq!(said("pipe.md"), "no file but a device, a pipe or a socket");
    assert_eq!(said("~$a.docx"), "a note of an office program that the document beside it is open");
    assert_eq!((run.summary.converted, run.summary.failed), (1, 0), "{skipped:?}");
    assert!(!folder.has("drafts/x.html") && !folder.has(".hidden.html"));
}

#[test]
fn slices_tell_what_failed_and_joins_want_their_own_files() {
    let folder =
        Folder::new(&[("a.md", "# A\n\n[b](b.md)\n"), ("b.md", "# B\n"), ("broken.docx", "no package"), ("c.md", "# C\n")]);
    let whole = folder.place.path().join("whole");
    folder.publish_to(&whole, |_| {});
    let mut failed = Vec::new();
    let mut slices = Vec::new();
    for number in 1..=2 {
        let output = folder.place.path().join(format!("slice-{number}"));
        let run = folder.publish_to(&output, |chosen| chosen.slice = Some((number, 2)));
        failed.extend(run.told.iter().filter(|told| told.error.is_some()).map(|told| told.source.clone()));
        slices.extend(files(&output).into_keys().map(|name| output.join(name)));
    }
    assert_eq!(failed, ["broken.docx"]);
    let joined = folder.place.path().join("joined");
    let run = folder.publish_to(&joined, |chosen: &mut Options| chosen.join = slices.clone());
    assert_eq!(run.summary.failed, 1, "{:?}", run.told);
    let pages = |at: &std::path::Path| files(at).into_iter().filter(|(name, _)| name.ends_with(".html")).collect::<Vec<_>>();
    assert_eq!(pages(&joined), pages(&whole));
    // What is no file of a slice is refused by its name.
    let stray = folder.source().join("a.md");
    let options = Options { join: vec![stray], ..options(&[]) };
    let plan = Plan::new(&folder.source(), &folder.place.path().join("none"), options);
    let error = plan.and_then(|plan| plan.run(&mut Listener::default())).unwrap_err().to_string();
    assert!(error.contains("a.md") && error.contains("no file that a slice wrote"), "{error}");
}

/// A station with a start page, folders with and without pages of their own, a picture, and style sheets that pages share.
fn handbook() -> Folder {
    Folder::new(&[
        ("README.md", "# The station\n\n[Spring](tides/spring.md)\n"),
        ("tides/README.md", "# Tides\n"),
        ("tides/spring.md", "---\ndate: 2031-02-03\n---\n# Spring\n\n![Well](../well.svg)\n"),
        ("tides/deep/neap.md", "# Neap\n\n[^n]: note\n"),
        ("people/rota.md", "# Rota\n"),
        ("well.svg", "<svg xmlns='http://www.w3.org/2000/svg' viewBox='0 0 8 8'/>"),
        ("parts/own.css", "p { color: red }"),
        ("parts/top.template", "<header><p><a href=\"{{ top }}index.html\">Start</a></p></header>"),
        ("obblet.toml", "page.stylesheets = ['parts/own.css']\npage.header = 'parts/top.template'\n"),
    ])
}

#[test]
fn a_site_begins_with_any_of_its_documents() {
    for (pattern, made) in [
        ("tides/**", &["tides/index.html", "tides/spring.html", "tides/deep/neap.html"][..]),
        ("tides/deep/**", &["tides/deep/neap.html"]),
        ("tides/*.md", &["tides/index.html", "tides/spring.html"]),
        ("README.md", &["index.html", "tides/index.html"]),
        ("people/**", &["people/rota.html"]),
        ("none/**", &[]),
    ] {
        for settings in [&["publish.site=true"][..], &["publish.site=true", "publish.binder=true"], &["publish.binder=true"]] {
            let folder = handbook();
            let only = |chosen: &mut Options| (chosen.layers, chosen.only) = (options(settings).layers, vec![pattern.to_owned()]);
            let run = folder.publish_with(only);
            assert_eq!((run.summary.converted, run.summary.failed), (made.len(), 0), "{pattern}: {:?}", run.told);
            assert!(made.iter().all(|page| folder.has(page)), "{pattern}");
            // The rest comes when it is asked for, and then nothing tells that there were two runs.
            folder.publish_with(|chosen| chosen.layers = options(settings).layers);
            let whole = handbook();
            whole.publish_with(|chosen| chosen.layers = options(settings).layers);
            let without_record = |folder: &Folder| {
                let mut all = files(&folder.output());
                all.retain(|name, _| !name.starts_with("obblet-"));
                all
            };
            assert!(without_record(&folder) == without_record(&whole), "{pattern} {settings:?}");
        }
    }
}

#[test]
fn a_rehearsal_counts_what_a_run_does() {
    let settings = [SITE.as_slice(), &["publish.binder=true", "site.feed-entries=5"]].concat();
    let folder = handbook();
    let told = |run: &Run| -> Vec<(String, Vec<String>, Action)> {
        run.told.iter().map(|told| (told.source.clone(), told.outputs.clone(), told.action.clone())).collect()
    };
    let edits: [&dyn Fn(&Folder); 5] = [
        &|_| {},
        &|folder| folder.write("tides/spring.md", "---\ndate: 2031-02-04\n---\n# Spring tides\n"),
        &|folder| folder.write("parts/own.css", "p { color: blue }"),
        &|folder| std::fs::write(folder.output().join("look-chart.css"), "edited").unwrap(),
        &|folder| folder.remove("people/rota.md"),
    ];
    for (number, edit) in edits.iter().enumerate() {
        edit(&folder);
        for prune in [false, true] {
            let chosen = |chosen: &mut Options| (chosen.layers, chosen.prune) = (options(&settings).layers, prune);
            let rehearsed = folder.rehearse_with(chosen);
            let run = folder.publish_with(chosen);
            assert_eq!(rehearsed.summary, run.summary, "{number}: {:?}\n{:?}", rehearsed.told, run.told);
            assert_eq!(told(&rehearsed), told(&run), "{number}");
            let mut outputs: Vec<&String> = run.told.iter().flat_map(|told| &told.outputs).collect();
            let count = outputs.len();
            outputs.sort();
            outputs.dedup();
            assert_eq!(outputs.len(), count, "each file is named once: {:?}", run.told);
        }
    }
}

#[test]
fn the_page_for_missing_ones_works_at_any_address() {
    let folder = handbook();
    let links = |folder: &Folder| -> Vec<String> {
        let page = folder.read("404.html");
        page.split("href=\"").skip(1).map(|rest| rest.split('"').next().unwrap().to_owned()).collect()
    };
    with(&folder, &SITE);
    assert!(links(&folder).len() >= 3, "{}", folder.read("404.html"));
    for link in links(&folder) {
        assert!(link.starts_with("https://tides.example/") || link.starts_with('#'), "{link}");
    }
    with(&folder, &["publish.site=true"]);
    let without = links(&folder);
    assert!(!without.is_empty() && without.iter().all(|link| link.starts_with(['/', '#'])), "{without:?}");
}
