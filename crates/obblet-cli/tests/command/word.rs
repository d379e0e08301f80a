//! Word documents through the command, as its users run it.
#![allow(missing_docs, clippy::unwrap_used, clippy::panic, reason = "tests")]

use assert_cmd::Command;
use predicates::str::contains;
use tempfile::TempDir;

const GUIDE: &str = "# Tides\n\nHigh at *six*; see [the log](log.md#storm).\n\n1. read\n2. write\n\n| Day |  High |\n| --- | ----: |\n| Mon | 4.8 m |\n";
const LOG: &str = "# Log\n\n## Storm\n\nAll [quiet](guide.md).\n";

fn obblet() -> Command {
    let mut command = Command::cargo_bin("obblet").unwrap();
    command.env_remove("CLICOLOR_FORCE");
    command
}

fn folder() -> TempDir {
    let dir = TempDir::new().unwrap();
    std::fs::create_dir(dir.path().join("handbook")).unwrap();
    for (name, text) in [("guide.md", GUIDE), ("log.md", LOG)] {
        std::fs::write(dir.path().join("handbook").join(name), text).unwrap();
    }
    dir
}

#[test]
fn a_document_goes_to_word_and_comes_back() {
    let dir = folder();
    let run = |arguments: &[&str]| obblet().current_dir(&dir).args(arguments).assert().success();
    run(&["convert", "handbook/guide.md", "-o", "guide.docx"]).stderr(contains("handbook/guide.md -> guide.docx: nothing lost"));
    run(&["convert", "guide.docx", "-o", "back.md"]).stderr(contains("guide.docx -> back.md: 2 advice"));
    assert_eq!(std::fs::read_to_string(dir.path().join("back.md")).unwrap(), GUIDE);
    // To a pipe goes the package itself, the same each time.
    let piped = run(&["convert", "handbook/guide.md", "--writes", "word"]).get_output().stdout.clone();
    assert_eq!(piped, std::fs::read(dir.path().join("guide.docx")).unwrap());
    run(&["compare", "handbook/guide.md", "--through", "word"])
        .stdout(contains("headings          1        1        1    100.0 %"));
    run(&["inspect", "guide.docx"]).stdout(contains("Tides"));
}

#[test]
fn a_folder_is_published_as_word_documents() {
    let dir = folder();
    let run = |arguments: &[&str]| obblet().current_dir(&dir).args(arguments).assert().success();
    run(&["publish", "handbook", "documents", "--writes", "word"]).stderr(contains("2 converted"));
    // Links between documents follow.
    let back = run(&["convert", "documents/guide.docx", "--writes", "markdown"]).get_output().stdout.clone();
    assert!(String::from_utf8(back).unwrap().contains("[the log](log.docx#storm)"));
    run(&["publish", "handbook", "documents", "--writes", "word"]).stderr(contains("2 unchanged"));
}
