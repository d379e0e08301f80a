//! Whole folders: what is done and what is left alone, where links lead, and what somebody else's file system holds.
#![allow(missing_docs, clippy::unwrap_used, clippy::panic, clippy::print_stderr, reason = "tests")]

use crate::support;

use obblet::Error;
use obblet::publish::{Action, Plan, RECORD_FILE, UNFINISHED_FILE, Why};
use support::folder::{Folder, Listener, dead_links, files, options};
use support::package::Package;

/// A small folder with something of everything that a page depends on.
fn station() -> Folder {
    Folder::new(&[
        (
            "README.md",
            "---\nlanguage: en\n---\n# The station\n\n[Tides](tides/spring.md), [rota](people/rota.md#monday), [plan](plan.pdf).\n",
        ),
        ("tides/spring.md", "# Spring tides\n\n![A well](../images/well.svg)\n\nBack to [the start](../README.md).\n"),
        ("people/rota.md", "# Rota\n\n## Monday\n\nMarwen.\n"),
        ("people/obblet.toml", "page.footer = 'footer.html'\npage.stylesheets = ['people.css']\n"),
        ("people/footer.html", "<footer>The Trust</footer>"),
        ("people/people.css", "h1 { color: teal }\n"),
        ("images/well.svg", "<svg xmlns='http://www.w3.org/2000/svg' width='4' height='4'><script>x()</script></svg>"),
        ("images/unused.png", "not shown anywhere"),
        ("plan.pdf", "%PDF"),
    ])
}

#[test]
fn only_what_changed_is_converted() {
    let folder = station();
    let first = folder.publish();
    assert_eq!(first.converted(), ["new README.md", "new people/rota.md", "new tides/spring.md"]);
    assert!(folder.has("plan.pdf") && folder.has("images/well.svg") && !folder.has("images/unused.png"));
    assert!(!folder.read("images/well.svg").contains("script"));
    assert_eq!(dead_links(&folder.output()), [""; 0]);
    let before = files(&folder.output());

    // Another time on a file is no change of it.
    folder.write("people/rota.md", "# Rota\n\n## Monday\n\nMarwen.\n");
    let again = folder.publish();
    assert_eq!((again.converted().len(), again.summary.unchanged), (0, 3));
    assert_eq!(files(&folder.output()), before);

    // A file that a setting names makes a difference to those that have the setting.
    for (path, text) in
        [("people/people.css", "h1 { color: navy }\n"), ("people/footer.html", "<footer>The Harbour Trust</footer>")]
    {
        folder.write(path, text);
        assert_eq!(folder.publish().converted(), ["changed people/rota.md"], "{path}");
    }
    assert!(folder.read("people/people.css").contains("navy") && folder.read("people/rota.html").contains("The Harbour Trust"));

    // A picture makes a difference to the pages that show it, and comes along again.
    folder.write("images/well.svg", "<svg xmlns='http://www.w3.org/2000/svg' width='40' height='4'/>");
    let run = folder.publish();
    assert_eq!(run.action("tides/spring.md"), Some(&Action::Changed(Why::Included("images/well.svg".to_owned()))));
    assert_eq!(run.converted().len(), 1);
    assert!(folder.read("tides/spring.html").contains("width=\"40\"") && folder.read("images/well.svg").contains("40"));
    folder.remove("images/well.svg");
    let run = folder.publish();
    assert_eq!((run.converted().len(), run.found("image.missing").len()), (1, 1));

    // What a page became is there after each run.
    std::fs::remove_file(folder.output().join("people/rota.html")).unwrap();
    std::fs::remove_file(folder.output().join("plan.pdf")).unwrap();
    let run = folder.publish();
    assert_eq!(run.action("people/rota.md"), Some(&Action::Changed(Why::OutputGone("people/rota.html".to_owned()))));
    assert!(folder.has("people/rota.html") && folder.has("plan.pdf"));

    // Settings of one folder are no matter of the others; force is for all.
    folder.write("tides/obblet.toml", "page.look = 'folio'\n");
    assert_eq!(folder.publish().converted(), ["changed tides/spring.md"]);
    assert_eq!(folder.publish_with(|options| options.force = true).converted().len(), 3);
    // A rehearsal says what a run does, and does nothing.
    folder.write("README.md", "# Another start\n");
    let before = files(&folder.output());
    let rehearsed = folder.rehearse();
    assert_eq!(files(&folder.output()), before);
    let run = folder.publish();
    assert_eq!(format!("{:?}", rehearsed.told), format!("{:?}", run.told));
    assert_eq!(rehearsed.summary, run.summary);
    // The plan that nothing leads to any more is not thrown away unasked.
    assert_eq!(run.action("plan.pdf"), Some(&Action::Stays));
    assert!(folder.has("plan.pdf"));
    folder.publish_with(|options| options.prune = true);
    assert!(!folder.has("plan.pdf"));
}

#[test]
fn what_somebody_edited_stays() {
    let folder = station();
    folder.publish();
    let page = folder.output().join("people/rota.html");
    std::fs::write(&page, "by hand").unwrap();
    let run = folder.publish();
    assert_eq!((run.converted().len(), run.summary.edited, run.found("publish.edited").len()), (0, 1, 1));
    folder.write("people/rota.md", "# Rota of spring\n");
    for _ in 0..2 {
        let run = folder.publish();
        assert_eq!((run.summary.edited, run.found("publish.edited").len()), (1, 1), "{:?}", run.told);
        assert_eq!(folder.read("people/rota.html"), "by hand");
    }
    // The document is gone: what somebody made of its page is not.
    folder.remove("people/rota.md");
    let run = folder.publish_with(|options| options.prune = true);
    assert_eq!(run.found("publish.edited").len(), 1);
    assert_eq!(folder.read("people/rota.html"), "by hand");
    folder.write("people/rota.md", "# Rota of summer\n");
    folder.publish_with(|options| options.force = true);
    assert!(folder.read("people/rota.html").contains("Rota of summer"));
    // Nor is a file overwritten that was there before.
    let other = station();
    std::fs::create_dir_all(other.output()).unwrap();
    std::fs::write(other.output().join("index.html"), "somebody else's").unwrap();
    let run = other.publish();
    assert_eq!((run.summary.edited, run.summary.converted), (1, 3));
    assert_eq!(other.read("index.html"), "somebody else's");
}

#[test]
fn what_has_no_source_any_more_goes_when_asked() {
    let folder = station();
    folder.publish();
    folder.remove("tides/spring.md");
    let run = folder.publish();
    assert_eq!(run.action("tides/spring.md"), Some(&Action::Stays));
    assert_eq!(run.found("link.missing").len(), 1, "{:?}", run.told);
    // It is still known at the run after, whatever happens in between.
    folder.write("README.md", "# Start\n");
    assert!(folder.publish().summary.stays > 0 && folder.has("tides/spring.html"));
    let run = folder.publish_with(|options| options.prune = true);
    assert!(run.summary.removed >= 2, "{:?}", run.told);
    assert!(!folder.output().join("tides").exists() && !folder.has("images/well.svg"));
    assert_eq!(folder.publish().summary.stays, 0);
}

#[test]
fn a_damaged_record_means_a_full_run() {
    let folder = station();
    folder.publish();
    let whole = files(&folder.output());
    let path = folder.output().join(RECORD_FILE);
    let text = std::fs::read(&path).unwrap();
    let half = text[..text.len() / 2].to_vec();
    let turned: Vec<u8> = text.iter().rev().copied().collect();
    let version = String::from_utf8(text.clone()).unwrap().replace("\"version\":2", "\"version\":9").into_bytes();
    for damaged in [&half[..], &turned, &version, b"\xFF\x00{", b"{\"document\":{}}\n", b"[]", b""] {
        std::fs::write(&path, damaged).unwrap();
        let run = folder.publish();
        assert_eq!(run.summary.converted, 3, "{}", String::from_utf8_lossy(damaged));
        assert_eq!(files(&folder.output()), whole);
    }
    assert_eq!(folder.publish().summary.converted, 0);
}

#[test]
fn links_lead_across_formats_and_to_places_that_are_only_there_when_wanted() {
    let body = "<w:p><w:pPr><w:outlineLvl w:val=\"0\"/></w:pPr><w:r><w:t>Gauges</w:t></w:r></w:p>\
        <w:p><w:r><w:t>Before. </w:t></w:r><w:bookmarkStart w:id=\"1\" w:name=\"spring\"/><w:r><w:t>Spring.</w:t></w:r><w:bookmarkEnd w:id=\"1\"/></w:p>\
        <w:p><w:bookmarkStart w:id=\"2\" w:name=\"unused\"/><w:r><w:t>Neap.</w:t></w:r><w:bookmarkEnd w:id=\"2\"/></w:p>";
    let folder = Folder::new(&[
        (
            "a.md",
            "# A\n\n[spring](b.docx#spring) [gauges](b.docx#gauges) [page](c.html#Far%20Pier) [text](notes.txt)\n\n[lost](b.docx#sprung) [gone](bb.docx) [own](#aa) [up](#top) [a](#a)\n",
        ),
        ("c.html", "<h1>C</h1><h2 id=x7>Far Pier</h2><p><a href='b.docx'>b</a> <a href='https://x.example/a.md'>far</a>"),
        ("notes.txt", "Notes\n=====\n\nSee nothing.\n"),
    ]);
    folder.write("b.docx", Package::of(body).bytes());
    let run = folder.publish();
    let page = folder.read("a.html");
    for address in ["b.html#spring", "b.html#gauges", "c.html#x7", "notes.html", "b.html#sprung", "bb.docx"] {
        assert!(page.contains(&format!("href=\"{address}\"")), "{address} in {page}");
    }
    let target = folder.read("b.html");
    assert!(target.contains("id=\"spring\"") && !target.contains("unused"), "{target}");
    assert!(folder.read("c.html").contains("https://x.example/a.md"));
    assert_eq!(
        run.found("link.missing-place"),
        [
            "a.md: link target not found: b.docx#sprung; b.docx has no such anchor (5:1) perhaps #spring is meant",
            "a.md: link target not found in the document: #aa (5:39) correct the address"
        ]
    );
    assert_eq!(run.found("link.missing"), ["a.md: link target not found: bb.docx (5:23) perhaps b.docx is meant"]);
    let mut dead = dead_links(&folder.output());
    dead.sort();
    assert_eq!(dead, ["a.html: #aa", "a.html: #top", "a.html: b.html#sprung", "a.html: bb.docx"]);

    // One document changes, and another has what it wants, or no longer has what nobody wants.
    folder.write("a.md", "# A\n\n[unused](b.docx#unused)\n");
    let run = folder.publish();
    assert_eq!(run.action("b.docx"), Some(&Action::Changed(Why::Navigation)));
    let page = folder.read("b.html");
    assert!(page.contains("id=\"unused\"") && !page.contains("id=\"spring\""), "{page}");
    assert_eq!(dead_links(&folder.output()), [""; 0]);
    // The same as from the beginning.
    let fresh = folder.place.path().join("fresh");
    folder.publish_to(&fresh, |_| {});
    let mut expected = files(&folder.output());
    // What nothing needs any more is only in the older of the two.
    expected.retain(|name, _| name != RECORD_FILE);
    let mut made = files(&fresh);
    made.retain(|name, _| name != RECORD_FILE);
    assert_eq!(made, expected);
    // A document that comes later is found by links that were waiting for it.
    folder.write("a.md", "# A\n\n[later](d.md#one)\n");
    assert_eq!(folder.publish().found("link.missing").len(), 1);
    folder.write("d.md", "# D\n\n## One\n");
    let run = folder.publish();
    assert_eq!(run.converted(), ["changed a.md", "new d.md"]);
    assert!(folder.read("a.html").contains("d.html#one"));
}

#[test]
fn folders_and_patterns_have_settings_of_their_own() {
    let folder = Folder::new(&[
        (
            "obblet.toml",
            "page.look = 'none'\npublish.exclude = ['drafts/', '*.tmp.md']\n[[files]]\nmatch = ['log/**/*.md']\nshape = 'fragment'\n",
        ),
        ("a.md", "# A"),
        ("log/2031/b.md", "# B"),
        ("drafts/c.md", "# C"),
        ("d.tmp.md", "# D"),
        ("e.md", "# E"),
        (".obbletignore", "e.md\n"),
        (".hidden/f.md", "# F"),
    ]);
    let run = folder.publish();
    assert_eq!(run.converted(), ["new a.md", "new log/2031/b.md"]);
    assert_eq!(folder.read("log/2031/b.html"), "<h1>B</h1>\n");
    assert!(folder.read("a.html").contains("<!DOCTYPE html>"));
    assert_eq!(run.action("drafts/c.md"), Some(&Action::Skipped("publish.exclude".to_owned())));
    // A run for some documents leaves the others as they are.
    folder.write("a.md", "# A 2");
    folder.write("log/2031/b.md", "# B 2");
    let run = folder.publish_with(|options| options.only = vec!["log/**".to_owned()]);
    assert_eq!(run.converted(), ["changed log/2031/b.md"]);
    assert_eq!((run.action("a.md"), run.summary.left), (Some(&Action::Left), 1));
    assert_eq!(folder.publish().converted(), ["changed a.md"]);
    // Errors name the file and the line.
    folder.write("log/obblet.toml", "\n[[files]]\nmatch = '*.md'\npage.lok = 'x'\n");
    let error = Plan::new(&folder.source(), &folder.output(), options(&[])).unwrap_err();
    assert!(error.to_string().ends_with("log/obblet.toml:4: there is no setting page.lok; did you mean page.look?"), "{error}");
}

#[test]
fn pages_become_documents_again() {
    let folder = Folder::new(&[
        ("index.html", "<title>Start</title><h1>Start</h1><p><a href='log/a.html#two'>a</a> <img src='well.png' alt='Well'></p>"),
        ("log/a.html", "<h1>A</h1><h2 id='two'>Two</h2><p><a href='../index.html'>up</a></p>"),
        ("well.png", "GIF89a, and nothing more"),
    ]);
    let run = folder.publish_with(|options| options.writes = obblet::Format::Markdown);
    assert_eq!(run.summary.converted, 2);
    assert!(folder.read("index.md").contains("[a](log/a.md#two)"), "{}", folder.read("index.md"));
    assert!(folder.read("log/a.md").contains("[up](../index.md)"));
    assert_eq!((run.found("link.missing-place").len(), folder.has("well.png")), (0, true));
}

#[test]
fn strange_file_systems_are_survived() {
    use std::os::unix::ffi::OsStringExt;
    use std::os::unix::fs::symlink;
    let folder = Folder::new(&[
        ("a.md", "# A\n\n[odd](%23%3F%20%25.md) [long](long.md) [pier](./12:30.md) [far](../outside.md) ![x](../outside.png)\n"),
        ("#? %.md", "# Odd\n\n[back](a.md)\n"),
        ("12:30.md", "# Half past\n"),
        ("-rf.md", "# Dash\n"),
        ("new\nline.md", "# Line\n\n[a](a.md)\n"),
        ("潮汐/表.md", "# 表\n\n[a](../a.md)\n"),
        ("deep/a/b/c/d/e/f.md", "# F\n\n[a](../../../../../../a.md)\n"),
    ]);
    let source = folder.source();
    std::fs::write(folder.place.path().join("outside.md"), "# Secret").unwrap();
    std::fs::write(folder.place.path().join("outside.png"), "secret").unwrap();
    let broken = std::ffi::OsString::from_vec(b"caf\xE9.md".to_vec());
    std::fs::write(source.join(&broken), "# Café").unwrap();
    symlink(&source, source.join("deep/cycle")).unwrap();
    symlink(folder.place.path().join("outside.md"), source.join("leak.md")).unwrap();
    symlink(source.join("a.md"), source.join("again.md")).unwrap();
    symlink("nowhere", source.join("dangling.md")).unwrap();
    std::fs::write(source.join(format!("{}.md", "n".repeat(252))), "# Long").unwrap();
    std::fs::create_dir(source.join("folder.md")).unwrap();
    let run = folder.publish();
    let skipped: Vec<&str> =
        run.told.iter().filter(|told| matches!(told.action, Action::Skipped(_))).map(|told| told.source.as_str()).collect();
    assert_eq!(skipped, ["caf\u{FFFD}.md", "dangling.md", "deep/cycle", "leak.md"]);
    // One name is too long with its new extension: its page has a shorter one.
    assert_eq!((run.summary.failed, run.summary.converted, run.found("publish.long-name").len()), (0, 9, 1));
    assert!(!folder.has("leak.html") && folder.has("again.html") && folder.has("new\nline.html"));
    assert!(files(&folder.output()).values().all(|bytes| !String::from_utf8_lossy(bytes).to_lowercase().contains("secret")));
    let mut dead = dead_links(&folder.output());
    dead.retain(|link| !link.contains("long.md") && !link.contains("outside"));
    assert_eq!(dead, [""; 0]);
    let run = folder.publish();
    assert_eq!((run.summary.failed, run.summary.converted), (0, 0));
}

#[test]
fn places_where_nothing_can_be_published() {
    let folder = station();
    let error = |source: &std::path::Path, output: &std::path::Path| match Plan::new(source, output, options(&[])) {
        Ok(plan) => plan.run(&mut Listener::default()).unwrap_err(),
        Err(error) => error,
    };
    let (source, output) = (folder.source(), folder.output());
    assert!(matches!(error(&source, &source), Error::Publish(obblet::publish::PublishError::OutputAroundSource { .. })));
    assert!(matches!(
        error(&source, folder.place.path()),
        Error::Publish(obblet::publish::PublishError::OutputAroundSource { .. })
    ));
    assert!(matches!(error(&source.join("nothing"), &output), Error::File { .. }));
    assert!(matches!(error(&source.join("README.md"), &output), Error::File { .. }));
    assert!(matches!(error(&source, &source.join("README.md")), Error::File { .. }));
    // An output within the source is no source.
    let inside = source.join("site");
    folder.publish_to(&inside, |_| {});
    assert_eq!(folder.publish_to(&inside, |_| {}).summary.unchanged, 3);
    assert!(!inside.join("site").exists());
    // A second run on the same output says that there is a first one.
    folder.publish();
    let held = std::fs::File::create(output.join(UNFINISHED_FILE)).unwrap();
    held.lock().unwrap();
    assert!(matches!(error(&source, &output), Error::Publish(obblet::publish::PublishError::Busy { .. })));
    drop(held);
    assert_eq!(folder.publish().summary.unchanged, 3);
    assert!(!folder.has(UNFINISHED_FILE));
    // A folder stands where a page should: that page fails, and says why.
    std::fs::remove_file(output.join("index.html")).unwrap();
    std::fs::create_dir(output.join("index.html")).unwrap();
    let run = folder.publish();
    assert_eq!((run.summary.failed, run.summary.unchanged), (1, 2));
    assert!(run.told.iter().any(|told| told.error.as_deref().is_some_and(|error| error.contains("it is a folder"))));
}

#[test]
#[expect(clippy::too_many_lines, reason = "a list of cases")]
fn a_site_has_all_its_pages_and_every_link_of_it_leads_somewhere() {
    let folder = Folder::new(&[
        (
            "obblet.toml",
            "[publish]\nsite = true\nbinder = true\n[site]\ntitle = 'Greywick & Sound'\naddress = 'https://tides.example/station'\n[page]\nlanguage = 'en'\n",
        ),
        ("README.md", "# Start\n\n[Long](02-log/long.md#storms) and [the log](02-log/) and [a note](02-log/note.md)\n"),
        (
            "02-log/long.md",
            "---\ndate: 2031-03-05\norder: 2\ndescription: All of it\n---\n# The long one[^1]\n\nBefore, [below](#storms).\n\n## Storms[^2]\n\nText, [above](#the-long-one), [own](#storms), [calm](#calm).\n\n### Of May\n\n## Calm\n\nMore[^1]. ![Well](../images/well.svg)\n\n## Storms\n\nAgain.\n\n[^1]: One, [calm](#calm).\n[^2]: Two.\n",
        ),
        ("02-log/note.md", "---\ndate: 2031-03-07\norder: 1\n---\n# A note\n\n[Part](long.md#calm) <script>x()</script>\n"),
        ("01-people/ten 10.md", "# Ten\n"),
        ("01-people/ten 9.md", "# Nine\n\n<i>x</i> & y\n"),
        ("images/well.svg", "<svg xmlns='http://www.w3.org/2000/svg' width='4' height='4'/>"),
    ]);
    let set = |options: &mut obblet::publish::Options| options.layers.set("publish.split=2").unwrap();
    let run = folder.publish_with(set);
    assert_eq!((run.summary.converted, run.summary.failed), (5, 0));
    assert_eq!(dead_links(&folder.output()), [""; 0]);
    let made: Vec<String> = files(&folder.output()).into_keys().collect();
    assert_eq!(
        made,
        [
            "01-people/index.html",
            "01-people/ten 10.html",
            "01-people/ten 9.html",
            "02-log/index.html",
            "02-log/long--calm.html",
            "02-log/long--storms-1.html",
            "02-log/long--storms.html",
            "02-log/long.html",
            "02-log/note.html",
            "404.html",
            "binder.html",
            "entries.html",
            "feed.xml",
            "images/well.svg",
            "index.html",
            "look-chart.css",
            RECORD_FILE,
            "pages.html",
            "sitemap.xml"
        ]
    );
    // Order by what documents say, then by names as people count.
    let order = |page: &str, names: &[&str]| {
        let text = folder.read(page);
        let text = &text[text.find("<main").unwrap_or(0)..];
        let places: Vec<usize> = names.iter().map(|name| text.find(name).unwrap_or_else(|| panic!("{name} in {text}"))).collect();
        assert!(places.is_sorted(), "{names:?} in {text}");
    };
    order("pages.html", &[">Start</a>", ">People</a>", ">Nine</a>", ">Ten</a>", ">Log</a>", ">A note</a>", ">The long one"]);
    order(
        "feed.xml",
        &["Greywick &amp; Sound", "2031-03-07T00:00:00Z", "station/02-log/note.html", "station/02-log/long.html", "All of it"],
    );
    order("sitemap.xml", &["https://tides.example/station/01-people/ten%209.html", "<lastmod>2031-03-07</lastmod>"]);
    order(
        "binder.html",
        &[
            "Greywick &amp; Sound</h1>",
            "id=\"document-1\"",
            ">Nine</h2>",
            "href=\"#document-5-calm\"",
            "id=\"document-5-storms\"",
        ],
    );
    // Parts of a long document know each other, and have the notes that they mention.
    let storms = folder.read("02-log/long--storms.html");
    for address in [
        "href=\"long.html\" aria",
        "long--calm.html#calm",
        "long.html#the-long-one",
        "rel=\"prev\" href=\"long.html\"",
        "rel=\"next\" href=\"long--calm.html\"",
        "Two.",
    ] {
        assert!(storms.contains(address) || address.ends_with(" aria"), "{address} in {storms}");
    }
    assert!(storms.contains("<h1 id=\"storms\">") && !storms.contains("One, "), "{storms}");
    assert!(folder.read("index.html").contains("02-log/long--storms.html#storms"));
    assert!(
        folder.read("404.html").contains("https://tides.example/station/pages.html")
            && !folder.read("404.html").contains("look-chart.css")
    );
    // Nothing changes what is there by doing it again; another title changes the pages that show it.
    let before = files(&folder.output());
    assert_eq!(folder.publish_with(set).summary.converted, 0);
    folder.write("01-people/ten 9.md", "# Neuf\n");
    let run = folder.publish_with(set);
    assert!(
        run.converted().contains(&"changed 01-people/ten 10.md".to_owned())
            && !run.converted().contains(&"changed 02-log/note.md".to_owned()),
        "{:?}",
        run.converted()
    );
    folder.write("01-people/ten 9.md", "# Nine\n\n<i>x</i> & y\n");
    folder.publish_with(set);
    assert_eq!(files(&folder.output()), before);
}

#[test]
fn files_of_one_name_are_kept_apart() {
    let folder = Folder::new(&[
        ("a/obblet.toml", "page.stylesheets = ['own.css']\npublish.split = 2\n"),
        ("a/own.css", "h1 { color: teal }\n"),
        ("a/tides.md", "# Tides\n\n[down](#storms)\n\n## Storms\n\nA.\n"),
        ("a/tides--storms.md", "# Another\n"),
        ("b/obblet.toml", "page.stylesheets = ['own.css']\n"),
        ("b/own.css", "h1 { color: navy }\n"),
        ("b/tides.md", "# Tides\n"),
    ]);
    folder.publish();
    assert!(folder.read("a/own.css").contains("teal") && folder.read("b/own.css").contains("navy"));
    assert!(folder.read("a/tides--storms.html").contains("Another") && folder.read("a/tides---storms.html").contains("Storms"));
    assert_eq!(dead_links(&folder.output()), [""; 0]);
    // The power went: the record of the run is there, and a page by half.
    let record = std::fs::read(folder.output().join(RECORD_FILE)).unwrap();
    std::fs::write(folder.output().join(UNFINISHED_FILE), record).unwrap();
    let whole = folder.read("b/tides.html");
    std::fs::write(folder.output().join("b/tides.html"), &whole[..whole.len() / 2]).unwrap();
    assert_eq!(folder.publish().summary.edited, 0);
    assert_eq!(folder.read("b/tides.html"), whole);
}

#[test]
fn a_document_names_its_own_output_within_its_folder() {
    let folder = Folder::new(&[
        (
            "tides/notes.org",
            "#+title: Low water\n#+Export_File_Name: ../../public/low-water.html\n\n* Springs\n\n[[file:../rota.md]]\n",
        ),
        ("tides/old.org", "#+EXPORT_FILE_NAME: low-water\n\nLow water of old.\n"),
        ("rota.md", "[Low water](tides/notes.org#springs)\n"),
    ]);
    let run = folder.publish();
    assert!(run.action("tides/notes.org").is_some());
    assert!(folder.read("tides/low-water.html").contains("../rota.html"));
    assert!(folder.read("rota.html").contains("tides/low-water.html#springs"));
    assert!(folder.read("tides/low-water-org.html").contains("of old"));
    assert_eq!(dead_links(&folder.output()), [""; 0]);
    // The name is part of the source: another one is another output, and the earlier one has no source any more.
    folder.write("tides/old.org", "#+EXPORT_FILE_NAME: neaps\n\nLow water of old.\n");
    assert_eq!(folder.publish().converted(), ["changed tides/old.org"]);
    assert!(folder.has("tides/neaps.html"));
}

#[test]
fn files_that_come_along_may_be_large_and_are_tried_again() {
    let folder = Folder::new(&[
        ("obblet.toml", "limits.image = 1000\n"),
        ("README.md", "# Start\n\n[Film](film.mp4), [chart](chart.svg), [log](log.csv)\n\n![Photograph](big.png)\n"),
        ("chart.svg", "<svg xmlns='http://www.w3.org/2000/svg'><g></svg>"),
        ("film.mp4", ""),
        ("big.png", ""),
    ]);
    let film: Vec<u8> = (0..3_000_000_u32).flat_map(u32::to_le_bytes).collect();
    folder.write("film.mp4", &film);
    folder.write("big.png", [b"\x89PNG\r\n\x1A\n".as_slice(), &[7; 2000]].concat());
    std::fs::create_dir(folder.source().join("log.csv")).unwrap();
    let first = folder.publish();
    assert!(std::fs::read(folder.output().join("film.mp4")).unwrap() == film && folder.has("big.png"));
    assert_eq!((first.summary.copied, first.found("image.too-large").len()), (2, 1));
    // What can't be made safe stays away, and that counts, in every run.
    for run in [first, folder.publish()] {
        assert_eq!(run.found("image.scriptable").len(), 1, "{:?}", run.told);
        assert!(!folder.has("chart.svg") && run.summary.weights[0] > 0);
    }
    folder.write("chart.svg", "<svg xmlns='http://www.w3.org/2000/svg'><g/></svg>");
    assert_eq!(folder.publish().summary.copied, 1);
    let idle = folder.publish();
    assert_eq!((idle.summary.copied, idle.summary.unchanged, idle.summary.weights[0]), (0, 1, 0));
    // A copy that the power left by half is made again; one that somebody edited stays.
    std::fs::write(folder.output().join(UNFINISHED_FILE), "{}\n").unwrap();
    std::fs::write(folder.output().join("film.mp4"), &film[..5_000_000]).unwrap();
    std::fs::write(folder.output().join("big.png"), "mine").unwrap();
    let run = folder.publish();
    assert_eq!(std::fs::metadata(folder.output().join("film.mp4")).unwrap().len(), film.len() as u64);
    assert_eq!((run.summary.edited, folder.read("big.png").as_str()), (1, "mine"));
}

#[test]
fn formats_that_are_not_asked_for_are_left_as_they_are() {
    let folder = Folder::new(&[
        ("tides.md", "# Tides\n\n[Log](log.html#high)\n"),
        ("log.html", "<h1>Log</h1><h2 id=high>High</h2>"),
        ("note.txt", "A note"),
    ]);
    let markdown = |options: &mut obblet::publish::Options| {
        options.reads = vec![obblet::Format::Markdown];
        options.prune = true;
    };
    let text = |options: &mut obblet::publish::Options| options.reads = vec![obblet::Format::Html, obblet::Format::Markdown];
    folder.publish_with(text);
    assert!(folder.has("log.html") && !folder.has("note.html"));
    folder.write("tides.md", "# Tides\n\n[The log](log.html#high)\n");
    folder.write("log.html", "<h1>Another log</h1><h2 id=high>High</h2>");
    let run = folder.publish_with(markdown);
    assert_eq!((run.converted(), run.summary.left, run.summary.skipped), (vec!["changed tides.md".to_owned()], 1, 1));
    assert!(folder.read("log.html").contains(">Log<") && run.found("link.broken").is_empty());
    folder.remove("log.html");
    assert_eq!(folder.publish_with(markdown).summary.removed, 1);
}

#[test]
fn a_site_of_documents_that_are_no_pages_is_told_and_not_made() {
    let folder = Folder::new(&[("obblet.toml", "publish.site = true\npublish.binder = true\n"), ("a.html", "<h1>A</h1>")]);
    let run = folder.publish_with(|options| options.writes = obblet::Format::Markdown);
    assert_eq!((run.found("publish.no-pages").len(), run.summary.made), (1, 0));
    assert_eq!(folder.read("a.md"), "# A\n");
    folder.write("obblet.toml", "publish.site = true\nshape = 'fragment'\n");
    assert!(matches!(
        Plan::new(&folder.source(), &folder.output(), options(&[])),
        Err(Error::Publish(obblet::publish::PublishError::SiteOfFragments))
    ));
}
