//! There and back: Markdown to HTML to Markdown to HTML is the same HTML, and trees come back as they were.
#![allow(missing_docs, clippy::unwrap_used, clippy::panic, clippy::print_stderr, reason = "tests")]

mod support;

use obblet::document::Kind;
use obblet::formats::markdown;
use obblet::profile::Profile;
use obblet::{Format, convert};
use support::examples;

fn profile(dialect: &str) -> Profile {
    let mut profile = Profile::built_in("fragment").unwrap();
    profile.set(&format!("markdown.dialect={dialect}")).unwrap();
    profile
}

fn html(source: &str, profile: &Profile) -> String {
    convert(source.as_bytes(), Format::Markdown, Format::Html, profile).unwrap().text
}

fn back_to_markdown(source: &str, profile: &Profile) -> String {
    convert(source.as_bytes(), Format::Html, Format::Markdown, profile).unwrap().text
}

/// The same markup with single spaces for white space, where that means the same.
fn normal(html: &str) -> String {
    let mut out = String::new();
    for (index, piece) in html.split("<pre>").enumerate() {
        let (code, text) = if index == 0 { ("", piece) } else { piece.split_once("</pre>").unwrap_or((piece, "")) };
        out.push_str(code);
        let words: Vec<&str> = text.split([' ', '\n', '\t']).filter(|word| !word.is_empty()).collect();
        out.push_str(&words.join(" ").replace("> ", ">").replace(" <", "<"));
    }
    out
}

#[test]
fn every_example_of_the_specification_comes_back() {
    let Some(examples) = examples::load() else { return };
    let mut failed = 0;
    for example in &examples {
        for dialect in ["commonmark", "github"] {
            let profile = profile(dialect);
            let first = html(&example.markdown, &profile);
            let back = back_to_markdown(&first, &profile);
            let second = html(&back, &profile);
            let again = html(&back_to_markdown(&second, &profile), &profile);
            let raw = markdown::read(example.markdown.as_bytes(), &profile.markdown.options());
            let raw = raw.nodes().any(|(_, node)| matches!(node.kind(), Kind::Raw { .. } | Kind::RawBlock { .. }));
            if second != again || (!raw && normal(&second) != normal(&first)) {
                failed += 1;
                if std::env::var("SHOW").is_ok() {
                    eprintln!(
                        "=== {} {dialect}\n{:?}\n--- first\n{first}--- back\n{back}--- second\n{second}--- again\n{again}",
                        example.example, example.markdown
                    );
                }
            }
        }
    }
    assert_eq!(failed, 0);
}
