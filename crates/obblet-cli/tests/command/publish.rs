//! `obblet publish`, as its users run it.
#![allow(missing_docs, clippy::unwrap_used, clippy::panic, clippy::print_stderr, reason = "tests")]

use assert_cmd::Command;
use predicates::prelude::*;
use predicates::str::contains;
use std::collections::BTreeMap;
use std::path::{Path, PathBuf};
use std::process::{Child, Stdio};
use std::time::{Duration, Instant};

fn obblet(place: &Path) -> Command {
    let mut command = Command::cargo_bin("obblet").unwrap();
    command.current_dir(place);
    command
}

fn spawn(place: &Path, arguments: &[&str]) -> Child {
    std::process::Command::new(assert_cmd::cargo::cargo_bin("obblet"))
        .current_dir(place)
        .args(arguments)
        .stdout(Stdio::null())
        .stderr(Stdio::null())
        .spawn()
        .unwrap()
}

fn write(place: &Path, path: &str, text: &str) {
    let full = place.join(path);
    std::fs::create_dir_all(full.parent().unwrap()).unwrap();
    std::fs::write(full, text).unwrap();
}

/// All files below a folder with their bytes.
fn files(folder: &Path) -> BTreeMap<String, Vec<u8>> {
    let (mut files, mut folders) = (BTreeMap::new(), vec![folder.to_owned()]);
    while let Some(at) = folders.pop() {
        let Ok(entries) = std::fs::read_dir(&at) else { continue };
        for entry in entries {
            let path = entry.unwrap().path();
            if path.is_dir() {
                folders.push(path);
            } else if let Ok(bytes) = std::fs::read(&path) {
                files.insert(path.strip_prefix(folder).unwrap().to_string_lossy().into_owned(), bytes);
            }
        }
    }
    files
}

/// A folder of some documents that lead to each other.
fn handbook(documents: usize) -> tempfile::TempDir {
    let place = tempfile::tempdir().unwrap();
    write(place.path(), "book/README.md", "---\nlanguage: en\n---\n# The station\n\n[The first](part-0/page-0.md#readings)\n");
    write(
        place.path(),
        "book/obblet.toml",
        "[publish]\nsite = true\nbinder = true\n[site]\ntitle = 'Station'\naddress = 'https://tides.example/'\n",
    );
    for number in 0..documents {
        let next = (number + 1) % documents;
        let text = format!(
            "---\nlanguage: en\ndate: 2031-03-{:02}\n---\n# Page {number}\n\n![Well](../well.svg)\n\n## Readings\n\n{}\n\n[next](../part-{}/page-{next}.md#readings)\n",
            1 + number % 28,
            "High water came late and low water early. ".repeat(20),
            next % 5,
        );
        write(place.path(), &format!("book/part-{}/page-{number}.md", number % 5), &text);
    }
    write(place.path(), "book/well.svg", "<svg xmlns='http://www.w3.org/2000/svg' viewBox='0 0 8 8'/>");
    place
}

#[test]
fn a_rehearsal_a_run_and_what_they_say() {
    let place = handbook(3);
    let place = place.path();
    write(place, "book/part-0/broken.docx", "no package");
    write(place, "book/part-1/astray.md", "# Astray\n\n[gone](pag-1.md) [nowhere](page-1.md#reading)\n");
    obblet(place)
        .args(["publish", "book", "out", "--dry-run"])
        .assert()
        .code(1)
        .stdout(
            contains("new       part-1/page-1.md -> part-1/page-1.html\n")
                .and(contains("copied    well.svg\n"))
                .and(contains("made      feed.xml\n")),
        )
        .stderr(contains("obblet: part-0/broken.docx:").and(contains("5 to convert, 1 failed")));
    assert!(!place.join("out").exists());
    obblet(place)
        .args(["publish", "book", "out", "--log", "log.jsonl", "--report", "report.json", "--archive", "site.zip"])
        .assert()
        .code(1)
        .stderr(
            contains("new part-1/page-1.md -> part-1/page-1.html\n")
                .and(contains(
                    "part-1/astray.md:3:1: advice [link.missing] link target not found: pag-1.md; perhaps page-1.md is meant\n",
                ))
                .and(contains("part-1/astray.md:3:18: advice [link.missing-place]"))
                .and(contains("perhaps #readings is meant"))
                .and(contains("5 converted, 1 failed, 1 copied"))
                .and(contains("site.zip: ")),
        );
    let log = std::fs::read_to_string(place.join("log.jsonl")).unwrap();
    let lines: Vec<serde_json::Value> = log.lines().map(|line| serde_json::from_str(line).unwrap()).collect();
    let of = |source: &str| lines.iter().find(|line| line["source"] == source).unwrap();
    assert_eq!(of("part-1/page-1.md")["outputs"][0], "part-1/page-1.html");
    assert!(of("part-1/page-1.md")["milliseconds"].as_f64().unwrap() > 0.0);
    assert_eq!(
        of("part-1/astray.md")["findings"].as_array().unwrap().iter().filter(|finding| finding["weight"] == "advice").count(),
        3
    );
    assert!(of("part-0/broken.docx")["error"].is_string());
    let report: serde_json::Value = serde_json::from_slice(&std::fs::read(place.join("report.json")).unwrap()).unwrap();
    assert_eq!(report["counts"]["failed"], 1);
    // The archive has what the output has, but for the record.
    let mut made = files(&place.join("out"));
    made.remove("obblet-record.jsonl").unwrap();
    let archive = std::fs::read(place.join("site.zip")).unwrap();
    for name in made.keys() {
        assert!(archive.windows(name.len()).any(|window| window == name.as_bytes()), "{name}");
    }
    // The second time there is nothing to do but what failed, and the archive is the same.
    std::fs::remove_file(place.join("book/part-0/broken.docx")).unwrap();
    obblet(place).args(["publish", "book", "out", "-q"]).assert().success();
    obblet(place)
        .args(["publish", "book", "out", "--archive", "again.zip"])
        .assert()
        .success()
        .stderr(contains("5 unchanged;").and(contains("converted").not()));
    assert_eq!(std::fs::read(place.join("again.zip")).unwrap(), archive);
    for (arguments, message) in [
        (&["--slice", "3/2"][..], "obblet: 3/2 is no slice; write which and of how many, as in 2/8\n"),
        (&["--site", "--writes", "markdown"], "obblet: --site, --binder and --agenda go with --writes html, not with markdown\n"),
        (&["--set", "shape=fragment"], "obblet: a site is made of pages; publish.site does not go with shape=fragment\n"),
        (&["--set", "publish.split=9"], "obblet: publish.split can't be \"9\"; it may be: a whole number from 0 to 6\n"),
    ] {
        obblet(place).args(["publish", "book", "other"]).args(arguments).assert().code(2).stderr(message);
    }
    // A folder that is a site as pages can be written as documents; that there is no site is told.
    obblet(place)
        .args(["publish", "book", "documents", "--writes", "markdown"])
        .assert()
        .success()
        .stderr(contains("the folder: advice [publish.no-pages]").and(contains("5 converted, 1 copied; 3 advice")));
    assert!(!place.join("documents/sitemap.xml").exists());
    obblet(place).args(["publish", "nothing", "other"]).assert().code(1).stderr(contains("nothing: there is no such file\n"));
}

#[test]
fn jobs_and_slices_make_no_difference() {
    let place = handbook(23);
    let place = place.path();
    obblet(place).args(["publish", "book", "whole", "-q"]).assert().success();
    let whole = files(&place.join("whole"));
    for jobs in ["1", "2", "9"] {
        let output = format!("jobs-{jobs}");
        obblet(place).args(["publish", "book", &output, "-q", "--jobs", jobs]).assert().success();
        assert_eq!(files(&place.join(output)), whole, "{jobs}");
    }
    // Each slice on a machine of its own, joined on another.
    for slice in 1..=4 {
        let output = format!("machine-{slice}");
        obblet(place).args(["publish", "book", &output, "-q", "--slice", &format!("{slice}/4")]).assert().success();
        assert_eq!(files(&place.join(output)).len(), 1);
    }
    let machines = ["machine-1", "machine-2", "machine-4"];
    obblet(place)
        .args(["publish", "book", "joined", "--join"])
        .args(machines)
        .assert()
        .code(1)
        .stderr(contains("not all slices are there; one is missing: obblet-slice-3-of-4.jsonl"));
    obblet(place).args(["publish", "book", "joined", "-q", "--join", "machine-3"]).args(machines).assert().success();
    assert_eq!(files(&place.join("joined")), whole);
    // All into one output.
    for slice in ["2/2", "1/2"] {
        obblet(place).args(["publish", "book", "one", "-q", "--slice", slice]).assert().success();
    }
    obblet(place).args(["publish", "book", "one", "-q", "--join"]).assert().success();
    assert_eq!(files(&place.join("one")), whole);
    obblet(place).args(["publish", "book", "one"]).assert().success().stderr(contains("24 unchanged;"));
}

#[test]
fn a_run_that_is_killed_is_taken_up_by_the_next() {
    let place = handbook(120);
    let place = place.path();
    let begun = Instant::now();
    obblet(place).args(["publish", "book", "whole", "-q"]).assert().success();
    let took = begun.elapsed();
    let whole = files(&place.join("whole"));
    let is_ours = |name: &str| name.contains(".obblet-") || name.ends_with(".unfinished.jsonl");
    for round in 0..24_u32 {
        let output = PathBuf::from(format!("cut-{}", round / 6));
        let mut child = spawn(
            place,
            &["publish", "book", output.to_str().unwrap(), "-q", if round % 5 == 4 { "--force" } else { "--verbose" }][..4],
        );
        // At another moment each time, from the first to behind the last.
        std::thread::sleep(took * (round % 12) / 10);
        let _ = child.kill();
        child.wait().unwrap();
        // Whatever is there is whole.
        for (name, bytes) in files(&place.join(&output)) {
            if name != "obblet-record.jsonl" && !is_ours(&name) {
                assert_eq!(Some(&bytes), whole.get(&name), "{name} in round {round}");
            }
        }
        if round % 6 == 5 {
            // As one that was cut off in the middle of a file leaves it; before the first line nothing was written.
            let journal = std::fs::read(place.join(&output).join("obblet-record.unfinished.jsonl")).unwrap_or_default();
            if journal.contains(&b'\n') {
                write(place, &format!("{}/part-0/.obblet-x1", output.display()), "half a fi");
            }
            obblet(place).args(["publish", "book"]).arg(&output).arg("-q").assert().success();
            assert_eq!(files(&place.join(&output)), whole, "round {round}");
        }
        // What was cut off while it was written is written again when it has changed, too.
        if round == 3 {
            write(place, "book/part-0/extra.md", "---\nlanguage: en\n---\n# Extra\n");
            let mut child = spawn(place, &["publish", "book", "cut-0", "-q"]);
            std::thread::sleep(took / 2);
            let _ = child.kill();
            child.wait().unwrap();
            std::fs::remove_file(place.join("book/part-0/extra.md")).unwrap();
            obblet(place).args(["publish", "book", "cut-0", "-q", "--prune"]).assert().success();
            assert_eq!(files(&place.join("cut-0")), whole);
        }
    }
}

fn wait_for(what: &str, mut holds: impl FnMut() -> bool) {
    let begun = Instant::now();
    while !holds() {
        assert!(begun.elapsed() < Duration::from_secs(60), "{what}");
        std::thread::sleep(Duration::from_millis(30));
    }
}

#[test]
fn watching_follows_the_folder() {
    let place = handbook(2);
    let place = place.path();
    let mut child = spawn(place, &["publish", "book", "out", "--watch", "-q"]);
    let holds =
        |path: &str, text: &str| std::fs::read_to_string(place.join("out").join(path)).is_ok_and(|page| page.contains(text));
    wait_for("the first run", || holds("index.html", "The station") && place.join("out/obblet-record.jsonl").is_file());
    write(place, "book/README.md", "# Another station\n");
    wait_for("a saved document", || holds("index.html", "Another station"));
    // A folder comes, is renamed, and goes.
    write(place, "book/new/deep/one.md", "# One\n");
    wait_for("a new folder", || holds("new/deep/one.html", "One"));
    std::fs::rename(place.join("book/new"), place.join("book/newer")).unwrap();
    wait_for("a renamed folder", || holds("newer/deep/one.html", "One"));
    write(place, "book/newer/deep/one.md", "# Two\n");
    wait_for("a document in it", || holds("newer/deep/one.html", "Two"));
    std::fs::remove_dir_all(place.join("book/newer")).unwrap();
    // The whole folder is put in the place of another.
    std::fs::rename(place.join("book"), place.join("kept")).unwrap();
    std::thread::sleep(Duration::from_millis(300));
    std::fs::rename(place.join("kept"), place.join("book")).unwrap();
    write(place, "book/README.md", "# The last station\n");
    wait_for("a folder that was away", || holds("index.html", "The last station"));
    assert!(child.try_wait().unwrap().is_none());
    child.kill().unwrap();
    child.wait().unwrap();
}
