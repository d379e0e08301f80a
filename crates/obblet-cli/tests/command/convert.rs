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
    case(&["a.md", "--set", "html.indnt=2"], 2, "there is no setting html.indnt; did you mean html.indent?");
    case(&["a.md", "--set", "html.indent"], 2, "html.indent is no setting; write key=value, as in html.indent=2");
    case(&["a.md", "--profile", "pgae"], 2, "there is no profile pgae; did you mean page?");
    case(
        &["a.md", "--report", "-"],
        2,
        "the document and the report can't both go to standard output; name a file with --output or --report",
    );
    case(
        &["a.md", "--look", "none", "--set", "page.header=none.html"],
        2,
        "a.md: page.header: can't read none.html: there is no such file",
    );
    assert_eq!(names(dir.path()), ["a.md", "b.zzz", "d", "full"]);
    // Formats go by their names and by their extensions; what can't be written is not offered.
    let formats = |option: &str, value: &str, code: i32, message: &str| {
        let arguments = ["convert", "a.md", option, value];
        obblet().current_dir(&dir).args(arguments).assert().code(code).stderr(contains(message.to_owned()));
    };
    formats("--reads", "wrd", 2, "[possible values: markdown, html, org, latex, text, word, table]");
    formats("--writes", "wrd", 2, "[possible values: markdown, html, org, latex, text, word, table]");
    formats("--reads", "htm", 0, "");
    formats("--writes", "txt", 0, "");
    for command in ["convert", "publish", "inspect", "compare"] {
        let help = obblet().args([command, "--help"]).assert().success().get_output().stdout.clone();
        let help = String::from_utf8(help).unwrap();
        assert!(help.contains("[possible values: markdown, html, org, latex, text, word, table]"), "{help}");
    }
}

#[test]
fn bytes_that_are_no_text_are_refused_whatever_they_are_called() {
    let dir = folder(&[]);
    let word = std::fs::read(Path::new(env!("CARGO_MANIFEST_DIR")).join("../../demo/word/by-laws.docx")).unwrap();
    let odt =
        b"PK\x03\x04\x14\0\0\0\0\0\0\0\0\0\0\0\0\0\x27\0\0\0\x27\0\0\0\x08\0\0\0mimetypeapplication/vnd.oasis.opendocument.text";
    let files: [(&str, &[u8]); 5] = [
        ("a Word document", &word),
        ("a PDF document", b"%PDF-1.7\n%\xE2\xE3\xCF\xD3\n1 0 obj"),
        ("a rich text (RTF) document", b"{\\rtf1\\ansi Tides}"),
        ("an OpenDocument file", odt),
        ("binary data", &[0, 1, 2, 3].repeat(200)),
    ];
    for (what, bytes) in files {
        for name in ["a.md", "a.html", "a.txt"] {
            std::fs::write(dir.path().join(name), bytes).unwrap();
            for command in ["convert", "inspect"] {
                let asserted = obblet().current_dir(&dir).args([command, name]).assert().code(1).stdout("");
                let told = String::from_utf8(asserted.get_output().stderr.clone()).unwrap();
                assert!(told.starts_with(&format!("obblet: {name}: it is {what}, ")) && told.lines().count() == 1, "{told}");
            }
        }
        let asserted = obblet().arg("convert").write_stdin(bytes).assert().code(1).stdout("");
        let told = String::from_utf8(asserted.get_output().stderr.clone()).unwrap();
        assert!(told.starts_with(&format!("obblet: standard input: it is {what}, ")), "{told}");
    }
    // Under the name of a Word document, too, in one line.
    for bytes in [&b"%PDF-1.7\n"[..], odt, b"\x89PNG\r\n\x1a\n", b"plain text", b"PK\x03\x04 broken"] {
        std::fs::write(dir.path().join("a.docx"), bytes).unwrap();
        for command in ["convert", "inspect"] {
            let asserted = obblet().current_dir(&dir).args([command, "a.docx"]).assert().code(1).stdout("");
            assert_eq!(String::from_utf8_lossy(&asserted.get_output().stderr).lines().count(), 1);
        }
    }
    obblet().args(["convert", "--reads", "word"]).write_stdin(word).assert().success();
}

#[test]
fn what_comes_from_a_source_does_not_steer_the_terminal() {
    let name = "a\u{1b}[2J.md";
    let dir = folder(&[(
        name,
        "# \u{1b}[31mred\u{9b}1m\r\n\n[x](javascript:\u{1b}[8m)\n\n<x\u{1b}[7m>y\n\n![](gone\u{1b}]0;t\u{7}.png)\n",
    )]);
    for arguments in [
        &["convert", name, "-o", "out.html", "-v"][..],
        &["inspect", name, "-v"],
        &["compare", name, "--through", "html", "-v"],
        &["convert", "none\u{1b}[1m.md"],
        &["publish", ".", "site", "--dry-run"],
    ] {
        let output = obblet().current_dir(&dir).env("NO_COLOR", "1").args(arguments).output().unwrap();
        let seen = [output.stdout, output.stderr].concat();
        let seen = String::from_utf8(seen).unwrap();
        assert!(!seen.contains(|c: char| c.is_control() && c != '\n'), "{arguments:?}: {seen:?}");
        assert!(seen.contains("\u{FFFD}"), "{arguments:?}: {seen:?}");
    }
}

#[cfg(unix)]
#[test]
fn a_file_that_is_there_keeps_what_it_is() {
    use std::os::unix::fs::{MetadataExt, PermissionsExt, symlink};
    let dir = folder(&[("a.md", "# A\n"), ("private.html", "old"), ("real/page.html", "old"), ("locked.html", "old")]);
    let path = |name: &str| dir.path().join(name);
    let mode = |name: &str| std::fs::metadata(path(name)).unwrap().permissions().mode() & 0o7777;
    let set = |name: &str, mode: u32| std::fs::set_permissions(path(name), std::fs::Permissions::from_mode(mode)).unwrap();
    let convert = |output: &str| obblet().current_dir(&dir).args(["convert", "a.md", "-q", "-o", output]).assert();
    set("private.html", 0o600);
    let owner = std::fs::metadata(path("private.html")).unwrap();
    convert("private.html").success();
    assert_eq!(mode("private.html"), 0o600);
    let now = std::fs::metadata(path("private.html")).unwrap();
    assert_eq!((now.uid(), now.gid()), (owner.uid(), owner.gid()));
    assert!(read(&dir, "private.html").contains("<h1"));

    symlink("real/page.html", path("link.html")).unwrap();
    symlink("link.html", path("link-to-link.html")).unwrap();
    symlink("real/new.html", path("dangling.html")).unwrap();
    for (link, target) in [("link-to-link.html", "real/page.html"), ("dangling.html", "real/new.html")] {
        convert(link).success();
        assert!(std::fs::symlink_metadata(path(link)).unwrap().is_symlink(), "{link}");
        assert!(std::fs::symlink_metadata(path(target)).unwrap().is_file() && read(&dir, target).contains("<h1"), "{target}");
    }
    assert_eq!(names(&path("real")), ["new.html", "page.html"]);

    set("locked.html", 0o444);
    convert("locked.html").code(1).stderr("obblet: a.md: can't write locked.html: it is read-only\n");
    assert_eq!(read(&dir, "locked.html"), "old");
    // What is no file is written to and not replaced.
    obblet().current_dir(&dir).args(["convert", "a.md", "-q", "--shape=fragment", "-o", "/dev/stdout"]).assert().success();
    obblet().current_dir(&dir).args(["convert", "a.md", "-q", "-o", "/dev/null"]).assert().success();
    symlink("round.html", path("round.html")).unwrap();
    convert("round.html").code(1).stderr(contains("symbolic links lead in a circle"));
}

#[test]
fn settings_that_are_found_reach_no_further_than_their_folder() {
    let dir = folder(&[
        ("secret", "a password"),
        ("book/obblet.toml", "page.header = '../secret'\n"),
        ("book/a.md", "# A\n"),
        ("own.toml", "page.header = 'secret'\n"),
    ]);
    let convert =
        |arguments: &[&str]| obblet().current_dir(&dir).args(["convert", "book/a.md", "-o", "out.html"]).args(arguments).assert();
    convert(&[]).code(2).stderr(contains("obblet.toml:1: page.header can't be").and(contains("reach only files below")));
    obblet().current_dir(&dir).args(["publish", "book", "site"]).assert().code(2).stderr(contains("reach only files below"));
    assert_eq!(names(dir.path()), ["book", "own.toml", "secret"]);
    // Without them, and with one that somebody names, which is told.
    convert(&["--no-config", "-v"]).success().stderr(contains("settings: no file\n"));
    convert(&["--no-config", "--profile", "own.toml", "-v"]).success().stderr(contains("settings: own.toml\n"));
    assert!(read(&dir, "out.html").contains("a password"));
    std::fs::write(dir.path().join("book/obblet.toml"), "html.indent = 2\n").unwrap();
    for arguments in [&["inspect", "book/a.md"][..], &["compare", "book/a.md", "--through", "html"], &["publish", "book", "site"]]
    {
        let arguments: Vec<&str> = arguments.iter().copied().chain(["-v"]).collect();
        obblet().current_dir(&dir).args(&arguments).assert().success().stderr(contains("book/obblet.toml\n"));
    }
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
    // To standard output, for the next program.
    let arguments = ["convert", "a.md", "-o", "a.html", "--quiet", "--report", "-"];
    let output = obblet().current_dir(&dir).args(arguments).output().unwrap();
    assert_eq!(serde_json::from_slice::<serde_json::Value>(&output.stdout).unwrap(), report);
    for arguments in [&["inspect", "a.md"][..], &["compare", "a.md", "--through", "html"]] {
        let output = obblet().current_dir(&dir).args(arguments).args(["--report", "-"]).output().unwrap();
        assert!(serde_json::from_slice::<serde_json::Value>(&output.stdout).is_ok(), "{arguments:?}");
    }
    assert!(!dir.path().join("-").exists());
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
