//! `obblet inspect` as its users run it.
#![allow(missing_docs, clippy::unwrap_used, reason = "tests")]

use assert_cmd::Command;
use predicates::prelude::*;
use predicates::str::contains;

fn obblet(dir: &tempfile::TempDir) -> Command {
    let mut command = Command::cargo_bin("obblet").unwrap();
    command.current_dir(dir).arg("inspect");
    command
}

const PAGE: &str = "<!DOCTYPE html>\n<title>Tides</title>\n<h1>Tides</h1>\n<h3 class=x>Spring</h3>\n<p><font>High</font> at <a href=\"#neap\">six</a>, \
                    <a href=\"gone.html\">then</a> <a href=\"here.md\">low</a>.</p>\n<script>x()</script>\n";

fn folder() -> tempfile::TempDir {
    let dir = tempfile::tempdir().unwrap();
    std::fs::write(dir.path().join("tides.html"), PAGE).unwrap();
    std::fs::write(dir.path().join("here.md"), "# Here\n\n- one\n- [two](#here)\n").unwrap();
    dir
}

#[test]
fn a_page_at_a_glance() {
    let dir = folder();
    obblet(&dir).arg("tides.html").assert().code(0).stderr("").stdout(
        contains("tides.html  html\n7 words, 35 characters; ")
            .and(contains("2 headings, 1 paragraph, 3 links\n"))
            .and(contains("title       Tides\n"))
            .and(contains("  1 Tides\n      3 Spring\n"))
            .and(contains("1 within the document, 2 to files\n"))
            .and(contains("#neap: nothing in the document has this id\n"))
            .and(contains("gone.html: there is no such file\n"))
            .and(contains("Styles and classes\n  x 1\n"))
            .and(contains("lost    html.script"))
            .and(contains("changed check.heading-level line 4\n"))
            .and(contains("changed check.obsolete-element line 5\n"))
            .and(contains("advice  check.no-language")),
    );
}

#[test]
fn several_documents_a_report_and_exit_codes() {
    let dir = folder();
    obblet(&dir).args(["here.md", "tides.html", "--quiet", "--report", "r.json"]).assert().code(0).stdout("");
    let report: serde_json::Value = serde_json::from_slice(&std::fs::read(dir.path().join("r.json")).unwrap()).unwrap();
    let first = &report["documents"][0]["inspection"];
    assert_eq!(first["counts"]["items"], 2);
    assert_eq!(first["outline"][0]["text"], "Here");
    assert!(first["links"]["troubled"].as_array().unwrap().is_empty() && first["faults"].as_array().unwrap().is_empty());
    assert!(report["documents"][1]["inspection"]["faults"].as_array().unwrap().len() >= 3);
    obblet(&dir).args(["here.md", "--fail-on", "changed"]).assert().code(0);
    obblet(&dir).args(["here.md", "tides.html", "--fail-on", "changed"]).assert().code(3);
    obblet(&dir)
        .args(["none.md", "here.md"])
        .assert()
        .code(1)
        .stdout(contains("# Here").not().and(contains("1 Here")))
        .stderr("obblet: none.md: there is no such file\n");
    obblet(&dir)
        .arg("here.zzz")
        .assert()
        .code(2)
        .stderr(contains("no format has the extension .zzz; say which format it is with --reads"));
    obblet(&dir)
        .args(["--reads", "html"])
        .write_stdin("<h1>Low</h1>")
        .assert()
        .code(0)
        .stdout(contains("standard input  html\n").and(contains("1 Low")));
}
