//! `obblet compare`, as its users run it.
#![allow(missing_docs, clippy::unwrap_used, clippy::panic, reason = "tests")]

use assert_cmd::Command;
use predicates::str::contains;

fn obblet(dir: &tempfile::TempDir) -> Command {
    let mut command = Command::cargo_bin("obblet").unwrap();
    command.current_dir(dir).env_remove("CLICOLOR_FORCE").arg("compare");
    command
}

fn folder() -> tempfile::TempDir {
    let dir = tempfile::tempdir().unwrap();
    std::fs::write(dir.path().join("a.md"), "# Tides\n\nHigh at *six* in the [sound](s.html).\n").unwrap();
    std::fs::write(dir.path().join("b.html"), "<h1>Tides</h1><p>High at <em>six</em> in the <a href=s.html>sound</a>.").unwrap();
    std::fs::write(dir.path().join("c.html"), "<h1>Tides</h1><p>High at seven in the <a href=s.html>sound</a>.").unwrap();
    dir
}

#[test]
fn what_differs_is_shown_and_told_by_the_exit_code() {
    let dir = folder();
    obblet(&dir).args(["a.md", "b.html"]).assert().code(0).stdout(contains("no difference")).stderr("");
    obblet(&dir).args(["a.md", "c.html"]).assert().code(3).stdout(
        "a.md and c.html\n\n              first   second     same      score\nheadings          1        1        1    100.0 %\n\
         words             7        7        6     85.7 %\nlinks             1        1        1    100.0 %\n\
         styles            1        0        0      0.0 %\n\n2 differences, worst first\n\n\
         text, changed at 3:1 and 1:15\n  first:  High at six in the sound.\n  second: High at seven in the sound.\n\
         styles, only in the first at 3:9\n  first:  emphasis: six\n",
    );
    obblet(&dir).args(["a.md", "c.html", "--quiet", "--report", "r.json"]).assert().code(3).stdout("");
    let report: serde_json::Value = serde_json::from_slice(&std::fs::read(dir.path().join("r.json")).unwrap()).unwrap();
    assert_eq!(report["differences"][0]["category"], "text");
    assert_eq!(report["scores"][1]["share"], 0.8571);
}

#[test]
fn a_document_goes_through_a_format_and_comes_back() {
    let dir = folder();
    for through in ["html", "markdown"] {
        obblet(&dir).args(["a.md", "--through", through]).assert().code(0).stdout(contains("and itself, through"));
        obblet(&dir).args(["b.html", "--through", through]).assert().code(0);
    }
}

#[test]
fn what_can_go_wrong_is_said_in_one_line() {
    let dir = folder();
    let case = |arguments: &[&str], code: i32, message: &str| {
        obblet(&dir).args(arguments).assert().code(code).stdout("").stderr(format!("obblet: {message}\n"));
    };
    case(&["none.md", "a.md"], 1, "none.md: there is no such file");
    case(&["a.md"], 2, "name a second document, or a format with --through");
    case(&["a.md", "b.html", "--through", "html"], 2, "--through compares one document with itself; leave the second one out");
    std::fs::write(dir.path().join("broken.docx"), "PK no archive").unwrap();
    obblet(&dir).args(["broken.docx", "a.md"]).assert().code(1).stderr(contains("obblet: broken.docx: its archive is damaged"));
    obblet(&dir)
        .args(["a.md", "--through", "wrd"])
        .assert()
        .code(2)
        .stderr(contains("[possible values: markdown, html, org, latex, text, word, table]"));
}
