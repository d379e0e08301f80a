//! `obblet convert`, as its users run it.
#![allow(missing_docs, clippy::unwrap_used, clippy::panic, clippy::print_stderr, reason = "tests")]

use assert_cmd::Command;
use predicates::prelude::*;
use predicates::str::{contains, starts_with};
use std::path::Path;

fn obblet() -> Command {
    let mut command = Command::cargo_bin("obblet").unwrap();
    command.env_remove("CLICOLOR_FORCE");
    command
}

fn folder(files: &[(&str, &str)]) -> tempfile::TempDir {
    let folder = tempfile::tempdir().unwrap();
    for (name, text) in files {
        let path = folder.path().join(name);
        std::fs::create_dir_all(path.parent().unwrap()).unwrap();
        std::fs::write(path, text).unwrap();
    }
    folder
}

fn read(folder: &tempfile::TempDir, name: &str) -> String {
    std::fs::read_to_string(folder.path().join(name)).unwrap()
}

fn names(path: &Path) -> Vec<String> {
    let mut names: Vec<String> =
        std::fs::read_dir(path).unwrap().map(|item| item.unwrap().file_name().into_string().unwrap()).collect();
    names.sort();
    names
}

#[test]
fn one_file_to_another() {
    let dir = folder(&[("a.md", "# A\n\n<script>x</script>\n")]);
    obblet().current_dir(&dir).args(["convert", "a.md", "-o", "out/a.html"]).assert().success().stdout("").stderr(
        contains("a.md:3:1: lost [html.script] a script was left out\n")
            .and(contains("a.md -> out/a.html: 1 lost, 1 advice, "))
            .and(contains("\u{1b}").not()),
    );
    assert!(read(&dir, "out/a.html").contains("<h1 id=\"a\">A</h1>"));
    assert_eq!(names(&dir.path().join("out")), ["a.html"]);
}

#[test]
fn to_standard_output_and_from_standard_input() {
    let dir = folder(&[("a.md", "*a*\n")]);
    obblet()
        .current_dir(&dir)
        .args(["convert", "a.md", "--shape", "fragment"])
        .assert()
        .success()
        .stdout("<p><em>a</em></p>\n")
        .stderr("");
    obblet().arg("convert").write_stdin("*a*").assert().success().stdout("<p><em>a</em></p>\n").stderr("");
    obblet()
        .args(["convert", "-", "-o", "-", "--set", "html.syntax=xhtml"])
        .write_stdin("a\\\nb")
        .assert()
        .success()
        .stdout("<p>a<br />\nb</p>\n");
    obblet().args(["convert", "--shape=page"]).write_stdin("# T").assert().success().stdout(starts_with("<!DOCTYPE html>"));
    obblet()
        .arg("convert")
        .write_stdin(&b"\xFF"[..])
        .assert()
        .success()
        .stdout("<p>\u{FFFD}</p>\n")
        .stderr(contains("standard input:1:1: changed [text.encoding]"));
}

#[test]
fn an_indented_selection_keeps_its_indentation() {
    obblet()
        .arg("convert")
        .write_stdin("    - a\n\n    ```\n    b\n      c\n    ```\n")
        .assert()
        .success()
        .stdout("    <ul>\n    <li>a</li>\n    </ul>\n    <pre><code>b\n  c\n</code></pre>\n");
}

#[test]
fn indented_code_is_code_in_commonmark() {
    let dialect = ["convert", "--set", "markdown.dialect=commonmark"];
    obblet().args(dialect).write_stdin("\ta\tb\n").assert().success().stdout("<pre><code>a\tb\n</code></pre>\n");
    obblet().args(dialect).write_stdin("  a\n").assert().success().stdout("  <p>a</p>\n");
}

#[test]
fn several_files_into_a_folder() {
    let dir = folder(&[("a.md", "[b](b.md#x) [c](c.md)"), ("b.md", "# x\n\n![p](p.svg)"), ("p.svg", "<svg viewBox='0 0 4 2'/>")]);
    obblet().current_dir(&dir).args(["convert", "a.md", "b.md", "-o", "out", "--quiet"]).assert().success().stderr("");
    assert!(read(&dir, "out/a.html").contains("<a href=\"b.html#x\">b</a> <a href=\"c.md\">c</a>"));
    assert!(read(&dir, "out/b.html").contains("src=\"b-images/p.svg\" alt=\"p\" width=\"4\" height=\"2\""));
    assert_eq!(names(&dir.path().join("out")), ["a.html", "b-images", "b.html"]);
    // One that can't be converted does not stop the others.
    obblet()
        .current_dir(&dir)
        .args(["convert", "none.md", "b.md", "-o", "more/"])
        .assert()
        .code(1)
        .stderr(contains("obblet: none.md: there is no such file\n").and(contains("b.md -> more/b.html")));
    obblet()
        .current_dir(&dir)
        .args(["convert", "a.md", "out/a.md", "-o", "x"])
        .assert()
        .code(2)
        .stderr(contains("would both become"));
    obblet()
        .current_dir(&dir)
        .args(["convert", "a.md", "b.md"])
        .assert()
        .code(2)
        .stderr("obblet: several documents need a folder to go to; name one with --output\n");
}

#[test]
fn what_can_go_wrong_is_said_in_one_line() {
    let dir = folder(&[("a.md", "a"), ("b.zzz", "b"), ("d/x", ""), ("full", "")]);
    let case = |arguments: &[&str], code: i32, message: &str| {
        let mut command = obblet();
        command
            .current_dir(&dir)
            .arg("convert")
            .args(arguments)
            .assert()
            .code(code)
            .stdout("")
            .stderr(format!("obblet: {message}\n"));
    };
    case(&["none.md"], 1, "none.md: there is no such file");
    case(&["d"], 2, "d: it is a folder; name the documents in it");
    case(&["b.zzz"], 2, "b.zzz: no format has the extension .zzz; say which format it is with --reads");
    case(&["d/x"], 2, "d/x: it has no extension; say which format it is with --reads");
    case(&["a.md", "-o", "out.zzz"], 2, "no format has the extension .zzz; say which with --writes");
    case(&["a.md", "-o", "full/out.html"], 1, "a.md: can't write full/out.html: a part of its path is no folder");
    case(&["a.md", "--reads", "wrd"], 2, "a.md: there is no format wrd; there are markdown, html, text, word");
    case(&["a.md", "--set", "html.indnt=2"], 2, "a.md: there is no setting html.indnt; did you mean html.indent?");
    case(&["a.md", "--set", "html.indent"], 2, "a.md: html.indent is no setting; write key=value, as in html.indent=2");
    case(&["a.md", "--profile", "pgae"], 2, "a.md: there is no profile pgae; did you mean page?");
    case(
        &["a.md", "--look", "none", "--set", "page.header=none.html"],
        2,
        "a.md: page.header: can't read none.html: there is no such file",
    );
    assert_eq!(names(dir.path()), ["a.md", "b.zzz", "d", "full"]);
}

#[test]
fn the_source_is_never_overwritten() {
    let dir = folder(&[("a.html", "*a*")]);
    for output in ["a.html", "./a.html", "../a.html"] {
        let at = dir.path().join("sub");
        std::fs::create_dir_all(&at).unwrap();
        let source = if output.starts_with("..") { "../a.html" } else { "a.html" };
        let at = if output.starts_with("..") { at.as_path() } else { dir.path() };
        obblet()
            .current_dir(at)
            .args(["convert", "--reads=markdown", source, "-o", output])
            .assert()
            .code(2)
            .stderr(contains("the output is the source itself"));
    }
    assert_eq!(read(&dir, "a.html"), "*a*");
}

#[cfg(unix)]
#[test]
fn a_folder_that_cannot_be_written_is_left_alone() {
    use std::os::unix::fs::PermissionsExt;
    let dir = folder(&[("a.md", "a"), ("locked/x", "")]);
    let locked = dir.path().join("locked");
    std::fs::set_permissions(&locked, std::fs::Permissions::from_mode(0o555)).unwrap();
    if std::fs::write(locked.join("probe"), "").is_ok() {
        // Whoever may do everything can't be kept out by permissions.
        eprintln!("SKIPPED: this user may write anywhere");
        return;
    }
    obblet()
        .current_dir(&dir)
        .args(["convert", "a.md", "-o", "locked/a.html"])
        .assert()
        .code(1)
        .stderr("obblet: a.md: can't write locked/a.html: permission denied\n");
    assert_eq!(names(&locked), ["x"]);
}

#[test]
fn reports_and_exit_codes_are_for_programs() {
    let dir = folder(&[("a.md", "a <x>b\n\n# h\n\n### i\n")]);
    let run = |arguments: &[&str], code: i32| {
        obblet()
            .current_dir(&dir)
            .args(["convert", "a.md", "-o", "a.html", "--quiet", "--report", "r.json"])
            .args(arguments)
            .assert()
            .code(code);
        serde_json::from_str::<serde_json::Value>(&read(&dir, "r.json")).unwrap()
    };
    let report = run(&[], 0);
    assert_eq!(report["counts"], serde_json::json!({"documents": 1, "failed": 0, "lost": 1, "changed": 1, "advice": 1}));
    let finding = &report["documents"][0]["findings"][1];
    assert_eq!(
        (
            finding["code"].as_str(),
            finding["weight"].as_str(),
            finding["place"]["line"].as_u64(),
            finding["place"]["column"].as_u64()
        ),
        (Some("html.unknown-element"), Some("lost"), Some(1), Some(3))
    );
    run(&["--fail-on", "lost"], 3);
    run(&["--fail-on", "advice"], 3);
    std::fs::write(dir.path().join("a.md"), "---\nlanguage: en\n---\n\na").unwrap();
    run(&["--fail-on", "advice"], 0);
}

#[test]
fn settings_of_folders_and_profiles_are_layers() {
    let dir = folder(&[
        ("obblet.toml", "shape = 'fragment'\nhtml.indent = 1\n[clean]\nquotes = 'typographic'\n"),
        ("sub/obblet.toml", "html.indent = 2\n"),
        ("own.toml", "html.indent = 3\n"),
        ("sub/a.md", "- \"a\"\n"),
    ]);
    let run = |arguments: &[&str], item: &str| {
        let expected = format!("<ul>\n{item}\n</ul>\n");
        obblet().current_dir(&dir).args(["convert", "sub/a.md"]).args(arguments).assert().success().stdout(expected);
    };
    run(&[], "  <li>\u{201C}a\u{201D}</li>");
    run(&["--profile", "own.toml"], "   <li>\u{201C}a\u{201D}</li>");
    run(&["--profile", "own.toml", "--set", "html.indent=0", "--set", "clean.quotes=keep"], "<li>\"a\"</li>");
    std::fs::write(dir.path().join("sub/obblet.toml"), "\n[html]\nindent = 'two'\n").unwrap();
    obblet()
        .current_dir(&dir)
        .args(["convert", "sub/a.md"])
        .assert()
        .code(2)
        .stderr(contains("sub/obblet.toml:3: html.indent can't be \"two\"; it may be: a whole number from 0 to 8"));
}
