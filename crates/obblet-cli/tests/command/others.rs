//! `obblet profile` and `obblet demo`, as their users run them.
#![allow(missing_docs, clippy::unwrap_used, clippy::panic, clippy::print_stderr, reason = "tests")]

use assert_cmd::Command;
use predicates::prelude::*;
use predicates::str::{contains, starts_with};

fn obblet() -> Command {
    Command::cargo_bin("obblet").unwrap()
}

#[test]
fn profiles_are_listed_shown_and_begun() {
    obblet()
        .arg("profile")
        .assert()
        .success()
        .stdout(starts_with("page       a whole page with a look, ready to publish\n").and(contains("listing")));
    obblet()
        .args(["profile", "show", "reader", "--only", "html.s"])
        .assert()
        .success()
        .stdout("html.syntax = \"xhtml\"   (default: \"html\")\n    The syntax that is written: HTML, or the XML form that e-readers and XML tools want.\n    May be: html, xhtml\n\n");
    obblet()
        .args(["profile", "show", "raeder"])
        .assert()
        .code(2)
        .stderr("obblet: there is no profile raeder; did you mean reader?\n");

    let dir = tempfile::tempdir().unwrap();
    obblet().current_dir(&dir).args(["profile", "new", "my.toml", "--from", "fragment"]).assert().success();
    let text = std::fs::read_to_string(dir.path().join("my.toml")).unwrap();
    assert!(text.contains("\nshape = \"fragment\"\n") && text.contains("\n# html.indent = 0\n"), "{text}");
    obblet().current_dir(&dir).args(["convert", "--profile", "my.toml"]).write_stdin("a").assert().success().stdout("<p>a</p>\n");
    // What is commented out is valid as well.
    let all: String = text
        .lines()
        .map(|line| {
            line.strip_prefix("# ")
                .filter(|line| line.split(" = ").next().is_some_and(|key| !key.contains(' ')) && line.contains(" = "))
                .unwrap_or(line)
                .to_owned()
                + "\n"
        })
        .collect();
    std::fs::write(dir.path().join("all.toml"), all).unwrap();
    obblet()
        .current_dir(&dir)
        .args(["convert", "--profile", "all.toml"])
        .write_stdin("a")
        .assert()
        .success()
        .stdout("<p>a</p>\n");
    // A file that begins as a built-in profile does acts as it.
    for name in ["page", "fragment", "bare", "lookalike", "reader", "listing"] {
        let file = format!("{name}.toml");
        obblet().current_dir(&dir).args(["profile", "new", &file, "--from", name]).assert().success();
        let shown = |profile: &str| obblet().current_dir(&dir).args(["profile", "show", profile]).output().unwrap().stdout;
        assert_eq!(String::from_utf8(shown(&file)).unwrap(), String::from_utf8(shown(name)).unwrap());
    }
    obblet().current_dir(&dir).args(["profile", "new", "my.toml"]).assert().code(1).stderr(contains("is there already"));
}

#[test]
fn the_demo_is_a_site_and_the_same_every_time() {
    let dir = tempfile::tempdir().unwrap();
    obblet()
        .current_dir(&dir)
        .arg("demo")
        .assert()
        .success()
        .stderr(contains("37 converted, 1 skipped, 3 copied").and(contains("open greywick-sound/site/index.html")));
    let site = dir.path().join("greywick-sound/site");
    let index = std::fs::read_to_string(site.join("index.html")).unwrap();
    assert!(index.contains("<a href=\"tides/tables.html#the-week-of-9-february\">the tables</a>"), "{index}");
    assert!(
        site.join("images/one-day.png").is_file()
            && site.join("look-chart.css").is_file()
            && site.join("parts/station.css").is_file()
    );
    let page = std::fs::read_to_string(site.join("instruments/radio-link.html")).unwrap();
    assert!(page.contains("href=\"../look-chart.css\"") && page.contains("<span class=\"code-"), "{page}");

    obblet().current_dir(&dir).args(["demo", "again"]).assert().success();
    assert_eq!(std::fs::read_to_string(dir.path().join("again/site/index.html")).unwrap(), index);
}
