//! Whole jobs of a working day, from start to end, as their users do them.
#![allow(missing_docs, clippy::unwrap_used, clippy::panic, reason = "tests")]

use assert_cmd::Command;
use assert_cmd::assert::Assert;
use predicates::prelude::*;
use predicates::str::contains;
use std::path::PathBuf;

struct Desk {
    place: tempfile::TempDir,
}

impl Desk {
    fn new(files: &[(&str, &str)]) -> Self {
        let desk = Self { place: tempfile::tempdir().unwrap() };
        files.iter().for_each(|(path, text)| desk.write(path, text));
        desk
    }

    fn write(&self, path: &str, text: &str) {
        let full = self.place.path().join(path);
        std::fs::create_dir_all(full.parent().unwrap()).unwrap();
        std::fs::write(full, text).unwrap();
    }

    fn read(&self, path: &str) -> String {
        std::fs::read_to_string(self.place.path().join(path)).unwrap_or_else(|error| panic!("{path}: {error}"))
    }

    fn has(&self, path: &str) -> bool {
        self.place.path().join(path).exists()
    }

    fn command(&self) -> Command {
        let mut command = Command::cargo_bin("obblet").unwrap();
        command.current_dir(self.place.path()).env_remove("CLICOLOR_FORCE");
        command
    }

    #[track_caller]
    fn run(&self, arguments: &[&str], code: i32) -> Assert {
        self.command().args(arguments).assert().code(code)
    }
}

fn demo(path: &str) -> String {
    let demo = PathBuf::from(env!("CARGO_MANIFEST_DIR")).join("../../demo");
    demo.join(path).display().to_string()
}

#[test]
fn word_manuals_become_clean_fragments() {
    let desk = Desk::new(&[]);
    let (one, two) = (demo("word/by-laws.docx"), demo("word/volunteer-handbook.docx"));
    desk.run(&["convert", &one, &two, "-o", "out/", "--shape", "fragment", "--no-config"], 0);
    for name in ["out/by-laws.html", "out/volunteer-handbook.html"] {
        let html = desk.read(name);
        assert!(
            html.contains("<h2") && !html.contains("class=") && !html.contains("<span") && !html.contains("&nbsp;"),
            "{html}"
        );
        assert!(
            !html.contains("style=") || html.matches("style=").count() == html.matches("style=\"text-align: ").count(),
            "{html}"
        );
    }
}

#[test]
fn a_client_gets_a_page_that_looks_like_the_document() {
    let desk = Desk::new(&[]);
    let source = demo("word/open-day-programme.docx");
    desk.run(&["convert", &source, "-o", "page.html", "--profile", "lookalike", "--no-config"], 0);
    let page = desk.read("page.html");
    assert!(page.contains("<style>") && page.contains("font-family") && page.contains("font-size"), "{page}");
    desk.run(&["compare", &source, "page.html", "--no-config"], 0).stdout(contains("no difference"));
}

#[test]
fn saved_pages_become_markdown() {
    let desk = Desk::new(&[]);
    let pages = [demo("old-site/visiting.html"), demo("inbox/open-day.html")];
    desk.run(&["convert", &pages[0], &pages[1], "-o", "notes/", "--writes", "markdown"], 0);
    for name in ["notes/visiting.md", "notes/open-day.md"] {
        let text = desk.read(name);
        let body = text.rsplit("---\n\n").next().unwrap();
        assert!(
            body.starts_with("# ") && !body.contains("<span") && !body.contains("style=") && !body.contains("\\\n\\\n"),
            "{text}"
        );
    }
}

#[test]
fn an_offer_fits_into_the_field_of_a_shop() {
    let desk = Desk::new(&[]);
    let mugs = demo("inbox/mugs.html");
    let field = |limit: &str, more: &[&str], code: i32| {
        let limit = format!("limits.characters={limit}");
        let mut arguments = vec!["convert", &mugs, "--profile", "listing", "--set", &limit, "--fail-on", "limit", "--no-config"];
        arguments.extend(more);
        desk.run(&arguments, code)
    };
    let whole = String::from_utf8(field("100000", &[], 0).get_output().stdout.clone()).unwrap();
    assert!(!whole.contains("class=") && !whole.contains("<div") && whole.contains("<b>"), "{whole}");
    let room = whole.trim_end().chars().count() - 20;
    field(&room.to_string(), &[], 3).stderr(contains("the limit is reached in <").and(contains("largest parts: <")));
    // Losses that are meant are no failure of the limit.
    field(&room.to_string(), &["--set", "clean.leave-out=table"], 0);
}

#[test]
fn a_novel_goes_to_the_printer() {
    let manuscript = "THE KEEPER\n\nCHAPTER ONE\n\n\t\"I--\" she began, and stopped.\n\tHe waited. 'Twas late . . .\n\n* * *\n\n\tThe USB-C lamp went out.\n\n\tCHAPTER TWO\n\n\tAll was _still_.\n";
    let desk = Desk::new(&[("novel.txt", manuscript)]);
    let settings = ["clean.quotes=typographic", "clean.dashes=language", "clean.scene-breaks=rule", "page.language=en"];
    let mut arguments = vec!["convert", "novel.txt", "--shape", "fragment"];
    settings.iter().for_each(|setting| arguments.extend(["--set", setting]));
    desk.run(&arguments, 0).stdout(
        contains("<p>“I—” she began, and stopped.</p>")
            .and(contains("<p>He waited. ’Twas late …</p>"))
            .and(contains("<hr>\n<p>The USB-C lamp went out.</p>"))
            .and(contains("<em>still</em>"))
            .and(contains("<pre").not()),
    );
}

#[test]
fn sixty_documents_become_a_site_and_come_back() {
    let desk = Desk::new(&[("book/README.md", "# Station\n\n[First](part-0/page-0.md#readings-0)\n")]);
    for number in 0..60 {
        let folder = format!("book/part-{}", number % 4);
        let next = (number + 4) % 60;
        let extension = |number: i32| if number % 3 == 2 { "html" } else { "md" };
        match extension(number) {
            "md" => desk.write(
                &format!("{folder}/page-{number}.md"),
                &format!(
                    "# Page {number}\n\nHigh at *six*; [next](page-{next}.{}).\n\n## Readings {number}\n\n| Pier | Depth |\n| --- | --- |\n| north | {number} |\n",
                    extension(next)
                ),
            ),
            _ => desk.write(
                &format!("{folder}/page-{number}.html"),
                &format!("<!DOCTYPE html><html lang=en><title>Page {number}</title><h1>Page {number}</h1><p>High at <em>six</em>; <a href='page-{next}.{}'>next</a>.</p><h2>Readings {number}</h2><ul><li>north: {number}</li></ul>", extension(next)),
            ),
        }
    }
    desk.run(&["publish", "book", "site", "--site"], 0).stderr(contains("61 converted"));
    assert!(desk.has("site/pages.html") && desk.has("site/part-0/index.html"));
    desk.run(&["publish", "site", "back", "--writes", "markdown"], 0)
        .stderr(contains("61 converted").and(contains("link.").not()));
    assert!(!desk.has("back/pages.md") && !desk.has("back/part-0/index.md"));
    assert!(desk.read("back/part-0/page-4.md").contains("[next](page-8.md)"), "{}", desk.read("back/part-0/page-4.md"));
    desk.run(&["compare", "book", "back"], 0).stdout(contains("61 documents are the same, 0 differ"));
    // An edit shows.
    let edited = desk.read("back/part-1/page-1.md").replace("*six*", "*seven*");
    desk.write("back/part-1/page-1.md", &edited);
    desk.write("back/part-1/more.md", "# More\n");
    desk.run(&["compare", "book", "back"], 3).stdout(
        contains("60 documents are the same, 1 differ")
            .and(contains("part-1/page-1.md"))
            .and(contains("only in back\n  part-1/more.md")),
    );
    desk.run(&["compare", "book", "back/part-1/more.md"], 2).stderr(contains("name two of them"));
    desk.run(&["compare", "book", "back", "--through", "html"], 2).stderr(contains("--through takes one document"));
}

#[test]
fn a_resume_has_a_public_version_and_a_full_one() {
    let resume = "# Ada Pell\n\nKeeper of tides; see [pay](#pay).\n\n<div class=\"client\">\n\nWorked for the Harbour Trust.\n\n</div>\n\n## Skills\n\n- gauges\n\n## Pay\n\nEighty.\n";
    let desk = Desk::new(&[("resume.md", resume), ("public.toml", "[clean]\nleave-out = [\".client\", \"section(Pay)\"]\n")]);
    desk.run(&["convert", "resume.md", "-o", "full.html", "--set", "page.contents=2"], 0);
    desk.run(&["convert", "resume.md", "-o", "public.html", "--profile", "public.toml"], 0)
        .stderr(contains("2 parts were left out").and(contains("a link to what was left out became text")));
    let (full, public) = (desk.read("full.html"), desk.read("public.html"));
    assert!(full.contains("Harbour Trust") && full.contains("Eighty") && full.contains("href=\"#pay\""));
    assert!(
        !public.contains("Harbour Trust")
            && !public.contains("Eighty")
            && !public.contains("#pay")
            && public.contains("see pay.")
    );
}

#[test]
fn a_selection_of_an_editor_keeps_its_place() {
    let desk = Desk::new(&[]);
    let html = "    <ul>\n    <li>a</li>\n    <li><strong>b</strong></li>\n    </ul>\n";
    let markdown = "    - a\n    - **b**\n";
    let filter = |input: &str, arguments: &[&str]| {
        let output =
            desk.command().arg("convert").args(arguments).write_stdin(input).assert().code(0).get_output().stdout.clone();
        String::from_utf8(output).unwrap()
    };
    assert_eq!(filter(markdown, &[]), html);
    assert_eq!(filter(html, &["--reads", "html", "--writes", "markdown"]), markdown);
}

#[test]
fn a_folder_is_checked_before_it_is_published() {
    let long =
        "The keeper reads the gauge at six in the morning and writes what it shows into the log of the station. ".repeat(4);
    let desk = Desk::new(&[
        ("book/a.md", &format!("---\nlanguage: de\n---\n# A\n\n[x](gone.md) ![gauge.png](gauge.svg)\n\n{long}\n")),
        ("book/gauge.svg", "<svg xmlns='http://www.w3.org/2000/svg' width='9' height='9'/>"),
        ("book/in/b.md", "# B\n\n[y](../gone.md)\n\n•\tone\n\n•\ttwo\n\nName    Depth\n\nPier    3.2\n"),
        ("book/in/c.html", "<!DOCTYPE html><html lang=en><title>C</title><h1>C</h1><center>c</center>"),
        ("book/in/e.md", ""),
    ]);
    let seen = desk.run(&["inspect", "book", "--report", "found.json", "--fail-on", "changed"], 3);
    for (code, place) in [
        ("check.obsolete-element", "in/c.html:1"),
        ("clean.typed-list", "in/b.md:5"),
        ("document.empty", "in/e.md"),
        ("document.language", "a.md"),
        ("image.file-name", "a.md:6"),
        ("text.space-columns", "in/b.md:9"),
    ] {
        let text = String::from_utf8_lossy(&seen.get_output().stdout).into_owned();
        let (_, rest) = text.split_once(&format!("  {code}")).unwrap_or_else(|| panic!("{code}\n{text}"));
        assert!(rest.lines().take(4).any(|line| line.trim() == place), "{code} {place}\n{text}");
    }
    // What is missing is one problem, wherever links to it are.
    let report: serde_json::Value = serde_json::from_str(&desk.read("found.json")).unwrap();
    let problems = report["folders"][0]["inspection"]["problems"].as_array().unwrap();
    let missing: Vec<_> = problems.iter().filter(|problem| problem["code"] == "link.missing").collect();
    assert_eq!((missing.len(), &missing[0]["count"], &missing[0]["documents"]), (1, &2.into(), &2.into()));
    desk.run(&["inspect", "book", "-q", "--report", "found.csv"], 0).stdout("");
    assert!(
        desk.read("found.csv")
            .starts_with("weight,code,document,line or paragraph,message,hint\nchanged,check.obsolete-element,in/c.html,1,")
    );
    assert!(!desk.has("book/.obblet-inspection"));
    // Each run tells what is still wrong, with the same numbers.
    let numbers = |arguments: &[&str]| {
        let mut all = vec!["publish", "book", "site", "--log", "log.jsonl", "--set", "clean.image-alt=false"];
        all.extend(arguments);
        let run = desk.run(&all, 0);
        let error = String::from_utf8(run.get_output().stderr.clone()).unwrap();
        let told = error.lines().last().unwrap().split(';').nth(1).unwrap().trim().to_owned();
        let logged: usize = desk
            .read("log.jsonl")
            .lines()
            .map(|line| serde_json::from_str::<serde_json::Value>(line).unwrap()["findings"].as_array().unwrap().len())
            .sum();
        assert_eq!(told, format!("{logged} advice"), "{error}");
        error
    };
    numbers(&["--dry-run"]);
    numbers(&[]);
    let again = numbers(&[]);
    assert!(again.contains("still found in documents that did not change:\n  advice [link.missing] "), "{again}");
    assert!(again.contains(": a.md:6; in/b.md:3\n"), "{again}");
    numbers(&["--dry-run"]);
}

#[test]
fn documents_that_move_leave_pages_that_lead_on() {
    let desk = Desk::new(&[
        ("book/obblet.toml", "publish.moved = true\npublish.site = true\n"),
        ("book/README.md", "# Start\n"),
        ("book/a.md", "# Alpha\n\nText.\n"),
        ("book/in/b.md", "# Beta\n"),
        ("book/in/c.md", "# Gamma\n"),
    ]);
    let publish = |arguments: &[&str]| {
        let mut all = vec!["publish", "book", "site"];
        all.extend(arguments);
        desk.run(&all, 0);
    };
    let leads = |path: &str, to: &str| {
        let page = desk.read(path);
        assert!(page.contains(&format!("content=\"0; url={to}\"")) && page.contains(&format!("<a href=\"{to}\">")), "{page}");
    };
    let rename = |from: &str, to: &str| std::fs::rename(desk.place.path().join(from), desk.place.path().join(to)).unwrap();
    publish(&[]);
    rename("book/a.md", "book/in/alpha.md");
    std::fs::remove_file(desk.place.path().join("book/in/c.md")).unwrap();
    publish(&["--prune"]);
    leads("site/a.html", "in/alpha.html");
    leads("site/in/c.html", "index.html");
    // They stay, follow what moves on, and go where a document comes to their address.
    rename("book/in/alpha.md", "book/end.md");
    publish(&["--prune"]);
    leads("site/a.html", "end.html");
    leads("site/in/alpha.html", "../end.html");
    publish(&["--force", "--prune"]);
    leads("site/a.html", "end.html");
    desk.write("book/a.md", "# Another\n");
    publish(&[]);
    assert!(desk.read("site/a.html").contains(">Another</h1>"));
}
