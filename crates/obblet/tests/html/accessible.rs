//! Pages can be used by everybody: what a page and the writer can do about it (WCAG 2.2).
#![allow(missing_docs, clippy::unwrap_used, clippy::panic, clippy::print_stderr, reason = "tests")]

use crate::support;

use obblet::profile::Profile;
use obblet::{Context, Format, convert_in};
use support::dom::{Dom, page};
use support::folder::Folder;

fn of(source: &str, settings: &[&str]) -> (Dom, String) {
    let mut profile = Profile::built_in("page").unwrap();
    settings.iter().for_each(|setting| profile.set(setting).unwrap());
    let context = Context { name: "rota", ..Context::default() };
    let text = convert_in(source.as_bytes(), Format::Markdown, Format::Html, &profile, &context).unwrap().into_text().unwrap();
    (page(&text), text)
}

fn all<'d>(dom: &'d Dom, name: &'d str) -> impl Iterator<Item = usize> + 'd {
    dom.order().into_iter().filter(move |&node| dom.name(node) == name)
}

/// The names by which programs that read aloud call some elements.
fn labels(dom: &Dom, name: &str) -> Vec<String> {
    all(dom, name).map(|node| dom.attribute(node, "aria-label").unwrap_or_default().to_owned()).collect()
}

#[test]
fn boxes_of_tasks_say_whether_they_are_done() {
    let (dom, text) = of("- [x] washed\n- [ ] wound\n\n- [ ] read\n\n  twice\n", &[]);
    assert_eq!(labels(&dom, "input"), ["Done", "To do", "To do"], "{text}");
}

#[test]
fn what_is_wide_can_be_reached_with_the_keyboard() {
    let wide = "```\na line of a log that is longer than a telephone is wide\n```\n\n| instrument | reading | correction | keeper |\n|--|--|--|--|\n| gauge | 4.12 | 0.03 | Tolliver |\n";
    let narrow = "```\nshort\n```\n\n| a | b |\n|--|--|\n| 1 | 2 |\n";
    let stops = |dom: &Dom| -> Vec<bool> {
        ["pre", "table"]
            .into_iter()
            .flat_map(|name| all(dom, name).map(|node| dom.attribute(node, "tabindex") == Some("0")).collect::<Vec<_>>())
            .collect()
    };
    assert_eq!(stops(&of(wide, &[]).0), [true, true]);
    assert_eq!(stops(&of(narrow, &[]).0), [false, false]);
    // A table that holds another is wide; how deep they stand makes no difference to the time.
    let nested = "<table><tr><td>".repeat(400) + "a";
    let deep = stops(&of(&nested, &[]).0);
    assert!(deep.len() > 50 && deep.iter().rev().skip(1).all(|is_stop| *is_stop), "{deep:?}");
    // Without a look nothing scrolls, and a fragment has the style rules of others.
    assert_eq!(stops(&of(wide, &["page.look=none"]).0), [false, false]);
    assert_eq!(stops(&of(wide, &["shape=fragment"]).0), [false, false]);
}

#[test]
fn links_back_are_called_what_is_to_be_seen_of_them() {
    let (dom, text) = of("a[^n] b[^n] c[^n]\n\n[^n]: note\n", &[]);
    let back: Vec<String> = labels(&dom, "a").into_iter().filter(|label| label.starts_with("Back")).collect();
    assert_eq!(back, ["Back to the text", "Back to the text 2", "Back to the text 3"], "{text}");
}

#[test]
fn headers_of_tables_say_something() {
    let (dom, text) = of("|  | spring |\n|--|--|\n| high | 4.1 |\n", &[]);
    assert!(all(&dom, "th").all(|node| !dom.words_below(node).trim().is_empty()), "{text}");
    assert!(text.contains("<thead>\n<tr>\n<td></td>\n<th>spring</th>"), "{text}");
}

#[test]
fn every_page_has_a_heading_of_the_first_level() {
    let top_headings = |source: &str, settings: &[&str]| -> Vec<String> {
        let (dom, _) = of(source, settings);
        all(&dom, "h1").map(|node| dom.words_below(node)).collect()
    };
    assert_eq!(top_headings("# Tides\n\ntext", &[]), ["Tides"]);
    assert_eq!(top_headings("text", &[]), ["rota"]);
    assert_eq!(top_headings("text", &["page.title=The rota"]), ["The rota"]);
    assert_eq!(top_headings("---\ntitle: The rota\n---\n\n## Spring", &[]), ["The rota"]);
    // The only heading that the document begins with is its title; one of several is not.
    assert_eq!(top_headings("## Tides\n\n### Spring\n\ntext\n\n### Neap", &[]), ["Tides"]);
    let (dom, text) = of("## Tides\n\n### Spring\n\n### Neap\n", &[]);
    assert_eq!((all(&dom, "h1").count(), all(&dom, "h2").count(), all(&dom, "h3").count()), (1, 2, 0), "{text}");
    let (dom, text) = of("## Spring\n\n## Neap\n", &[]);
    assert_eq!((all(&dom, "h1").count(), all(&dom, "h2").count()), (1, 2), "{text}");
    // What looks like its source gets nothing above it.
    assert!(top_headings("text", &["styling=exact", "page.look=none"]).is_empty());
}

#[test]
fn what_only_the_author_can_mend_is_told() {
    let codes = |source: &str| -> Vec<String> {
        let converted = support::convert::convert_as("page", source, Format::Html, Format::Html, &["page.language=en"]);
        converted.findings.into_iter().map(|finding| finding.code.into_owned()).filter(|code| code != "image.alt").collect()
    };
    for (source, expected) in [
        ("<h1>a</h1><p><a href=x><img src=p.png alt=''></a>", &["link.no-words"][..]),
        ("<h1>a</h1><p><a href=x><img src=p.png alt='Tables'></a> <a href=y>b</a>", &[]),
        ("<h1>a</h1><h2><img src=p.png alt=''></h2>", &["page.empty-heading"]),
        ("<h1>a</h1><nav><a href=x>b</a></nav><nav><a href=y>c</a></nav>", &["page.landmarks"]),
        ("<h1>a</h1><nav><a href=x>b</a></nav>", &[]),
        ("<h1>a</h1><details><summary><a href=x>b</a></summary>c</details>", &["page.nested-control"]),
    ] {
        assert_eq!(codes(source), expected, "{source}");
    }
    let (_, text) = of("| a | &nbsp; |\n|--|--|\n| 1 | 2 |\n", &[]);
    assert!(text.contains("<td>&nbsp;</td>") && !text.contains("<th>&nbsp;</th>"), "{text}");
}

#[test]
fn parts_of_a_binder_have_names_of_their_own() {
    let note = "text[^1]\n\n[^1]: note\n";
    let folder = Folder::new(&[
        ("obblet.toml", "publish.binder = true\n"),
        ("a.md", &format!("# Tides\n\n{note}")),
        ("b.md", &format!("# Tides\n\n{note}")),
        ("c.md", &format!("# Gauge\n\n{note}")),
    ]);
    folder.publish();
    let binder = page(&folder.read("binder.html"));
    let mut names: Vec<String> = labels(&binder, "section").into_iter().filter(|label| !label.is_empty()).collect();
    names.sort();
    assert_eq!(names, ["Notes: Gauge", "Notes: Tides (1)", "Notes: Tides (2)"]);
}
