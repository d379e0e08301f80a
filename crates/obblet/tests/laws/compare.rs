//! Comparing two documents.
#![allow(missing_docs, clippy::unwrap_used, clippy::panic, clippy::print_stderr, reason = "tests")]

use crate::support;

use obblet::compare::{Category, Comparison, compare};
use obblet::formats::{html, markdown};
use obblet::profile::Profile;
use obblet::{Context, Format, convert_in};
use proptest::prelude::*;
use support::trees;

fn of(first: &str, second: &str) -> Comparison {
    let read = |source: &str| markdown::read(source.as_bytes(), &markdown::Settings::GITHUB);
    compare(&read(first), &read(second))
}

/// Category, first and second text of each difference.
fn told(comparison: &Comparison) -> Vec<(Category, String, String)> {
    let text = |side: &Option<obblet::compare::Side>| {
        side.as_ref().map_or_else(String::new, |side| format!("{} {}", side.place, side.text))
    };
    comparison.differences.iter().map(|found| (found.category, text(&found.first), text(&found.second))).collect()
}

#[track_caller]
fn case(first: &str, second: &str, expected: &[(Category, &str, &str)]) {
    let comparison = of(first, second);
    let expected: Vec<(Category, String, String)> =
        expected.iter().map(|(category, first, second)| (*category, (*first).to_owned(), (*second).to_owned())).collect();
    assert_eq!(told(&comparison), expected, "{comparison:#?}");
}

#[test]
fn each_category_tells_what_differs() {
    case("# a\n\nb c d", "# a\n\nb  c\nd", &[]);
    case("# Tides", "## Tides", &[(Category::Headings, "1:1 # Tides", "1:1 ## Tides")]);
    case("one two three four", "one two 3 four", &[(Category::Text, "1:1 one two three four", "1:1 one two 3 four")]);
    case("a b c", "> a b c", &[(Category::Text, "1:1 a b c", "1:3 a b c")]);
    case("- a\n- b", "1. a\n2. b", &[(Category::Lists, "1:1 - a", "1:1 1. a"), (Category::Lists, "2:1 - b", "2:1 1. b")]);
    case("- [ ] a", "- [x] a", &[(Category::Lists, "1:1 - [ ] a", "1:1 - [x] a")]);
    case("[a](b.html)", "[a](c.html)", &[(Category::Links, "1:1 a -> b.html", "1:1 a -> c.html")]);
    case("[a](b%20c)", "[a](<b c>)", &[]);
    case(
        "x ![a](p.png)",
        "x ![b](p.png)",
        &[(Category::Text, "1:1 x a", "1:1 x b"), (Category::Images, "1:3 p.png: a", "1:3 p.png: b")],
    );
    case("a *b* c", "a **b** c", &[(Category::Styles, "1:3 emphasis: b", "1:3 strong: b")]);
    case("```a\nx\n```", "```b\nx\n```", &[(Category::Styles, "1:1 code in a", "1:1 code in b")]);
    let table = |cell: &str| format!("| a | b |\n|---|---|\n| 1 | {cell} |\n");
    let differences = told(&of(&table("2"), &table("3")));
    assert!(differences.iter().any(|(category, first, second)| {
        *category == Category::Tables && first.ends_with("row 2, column 2: 2") && second.ends_with("row 2, column 2: 3")
    }));
    let note = |text: &str| format!("a[^1]\n\n[^1]: {text}\n");
    assert!(told(&of(&note("b"), &note("c"))).iter().any(|(category, ..)| *category == Category::Notes));
}

#[test]
fn what_moved_is_found_and_the_rest_is_the_same() {
    let first = (0..200).map(|number| format!("Paragraph number {number} of the register.\n\n")).collect::<String>();
    let second = first.replacen("Paragraph number 100 of the register.\n\n", "", 1).replace("number 150 of", "number 150 in");
    let comparison = of(&first, &second);
    assert_eq!(comparison.differences.len(), 2);
    // The worst comes first: a whole paragraph, then a word.
    assert_eq!((comparison.differences[0].size, comparison.differences[1].size), (6, 1));
    let text = comparison.scores.iter().find(|score| score.category == Category::Text).unwrap();
    assert_eq!((text.first, text.second, text.same), (1200, 1194, 1193));
}

#[test]
fn formats_do_not_matter() {
    let source = "# T\n\n- a *b*\n- [c](d)\n\n| x | y |\n|---|--:|\n| 1 | `2` |\n\n> q[^n]\n\n[^n]: note\n";
    let first = markdown::read(source.as_bytes(), &markdown::Settings::GITHUB);
    let written = html::write(&first, &html::Options::default()).html;
    let second = html::read(written.as_bytes(), &html::ReadOptions::default());
    let comparison = compare(&first, &second);
    assert!(comparison.is_same(), "{comparison:#?}");
    assert!(comparison.scores.iter().all(|score| score.share() == 1.0));
}

#[test]
fn pictures_of_a_package_are_those_of_the_page_that_is_made_of_it() {
    let package = include_bytes!("../../../../demo/word/volunteer-handbook.docx");
    let profile = Profile::built_in("page").unwrap();
    let read = |bytes: &[u8], format: Format| obblet::read(bytes, format, &profile).unwrap();
    let images = |page: &str| {
        let comparison = compare(&read(package, Format::Word), &read(page.as_bytes(), Format::Html));
        comparison.scores.into_iter().find(|score| score.category == Category::Images).unwrap()
    };
    let output = std::env::temp_dir();
    let context = Context { name: "handbook", output: Some(&output), ..Context::default() };
    let page = convert_in(package, Format::Word, Format::Html, &profile, &context).unwrap().into_text().unwrap();
    assert!(page.contains("handbook-images/one-day.png"));
    assert_eq!((images(&page).first, images(&page).share()), (1, 1.0));
    assert!(images(&page.replace("one-day.png", "another.png")).share() < 1.0);
}

proptest! {
    #![proptest_config(ProptestConfig::with_cases(200))]

    #[test]
    fn a_document_is_like_itself_and_comparing_is_even(one in trees::any(), two in trees::any()) {
        let (one, two) = (trees::tree(&one), trees::tree(&two));
        prop_assert!(compare(&one, &one).is_same());
        let (there, back) = (compare(&one, &two), compare(&two, &one));
        prop_assert_eq!(there.is_same(), back.is_same());
        for (there, back) in there.scores.iter().zip(&back.scores) {
            prop_assert_eq!((there.first, there.second), (back.second, back.first));
            prop_assert!(there.same <= there.first.min(there.second));
        }
    }
}
