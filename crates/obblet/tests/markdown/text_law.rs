//! Laws of plain text: no word is lost or changes its place, lines keep their width, and what text can't say is told.
#![allow(missing_docs, clippy::unwrap_used, clippy::panic, clippy::print_stderr, reason = "tests")]

use crate::support;

use obblet::document::{Document, Kind, TextLevel};
use obblet::formats::text::{self, Settings, Written};
use obblet::{Format, convert};
use proptest::prelude::*;
use support::conservation::{lost, words};
use support::convert::profile;
use support::trees;
use unicode_width::UnicodeWidthStr;

fn written(doc: &Document) -> Written {
    text::write(doc, &Settings::default())
}

/// Blocks of Markdown whose text says which they are.
fn block() -> impl Strategy<Value = String> {
    let words = "[a-z]{1,9}( [a-z]{1,9}){0,30}";
    prop_oneof![
        words.prop_map(|words| format!("{words}.")),
        "[a-z]{3,9}( [a-z]{3,9}){0,3}".prop_map(|words| format!("## {words}")),
        prop::collection::vec(words, 1..4).prop_map(|items| items.iter().map(|item| format!("- {item}\n")).collect()),
        prop::collection::vec(words, 1..4).prop_map(|items| items
            .iter()
            .enumerate()
            .map(|(at, item)| format!("{}. {item}\n", at + 1))
            .collect()),
        words.prop_map(|words| format!("> {words}.")),
        Just("* * *".to_owned()),
    ]
}

proptest! {
    #![proptest_config(ProptestConfig { cases: 300, failure_persistence: None, ..ProptestConfig::default() })]

    #[test]
    fn no_word_of_a_document_is_lost(blocks in prop::collection::vec(block(), 0..8)) {
        let source = blocks.join("\n\n");
        let text = convert(source.as_bytes(), Format::Markdown, Format::Text, &profile("fragment", &[])).unwrap();
        // Numbers of lists that meet go on.
        let without_marks = source.replace(|c: char| matches!(c, '>' | '#') || c.is_ascii_digit(), "");
        prop_assert_eq!(lost(&without_marks, text.text().unwrap(), &[]), Vec::<String>::new(), "{}\n---\n{}", source, text.text().unwrap());
    }

    /// Text that was written here is read as what it was, and written again it is the same.
    #[test]
    fn text_comes_back(blocks in prop::collection::vec(block(), 0..8)) {
        let source = format!("# title\n\n{}", blocks.join("\n\n"));
        let fragment = profile("fragment", &[]);
        let to_text = |source: &str, reads| convert(source.as_bytes(), reads, Format::Text, &fragment).unwrap().into_text().unwrap();
        let first = to_text(&source, Format::Markdown);
        let html = convert(first.as_bytes(), Format::Text, Format::Html, &fragment).unwrap().into_text().unwrap();
        let second = to_text(&html, Format::Html);
        prop_assert_eq!(to_text(&second, Format::Text), second.clone());
        prop_assert_eq!(words(&first), words(&second), "{}\n---\n{}", first, second);
    }

    #[test]
    fn any_tree_becomes_text(parts in trees::any()) {
        let doc = trees::tree(&parts);
        let text = written(&doc);
        let again = written(&doc);
        prop_assert_eq!(&text.text, &again.text);
        prop_assert!(text.text.is_empty() || text.text.ends_with('\n'));
    }

    #[test]
    fn lines_are_no_wider_than_they_may_be(blocks in prop::collection::vec(block(), 0..8), width in 24_usize..90) {
        let source = blocks.join("\n\n");
        let setting = format!("text.width={width}");
        let text = convert(source.as_bytes(), Format::Markdown, Format::Text, &profile("fragment", &[&setting])).unwrap().into_text().unwrap();
        for line in text.lines().filter(|line| !line.starts_with(['=', '-'])) {
            // Headings stand on one line; a word is never broken.
            let is_heading = source.contains(&format!("# {line}\n")) || source.ends_with(&format!("# {line}"));
            prop_assert!(line.width() <= width || is_heading || !line.trim().contains(' '), "{}: {:?}", width, line);
        }
    }
}

#[test]
fn what_text_cannot_say_is_told() {
    let case = |kind: Kind, around: Option<Kind>, expected: &str, code: &str| {
        let mut doc = Document::new();
        let paragraph = doc.append(doc.root(), Kind::Paragraph);
        doc.append_text(paragraph, "x");
        let parent = around.map_or(paragraph, |around| doc.append(paragraph, around));
        if around.is_some() {
            doc.append_text(parent, "y");
        }
        let node = doc.append(parent, kind);
        doc.append_text(node, "z");
        let written = written(&doc);
        let codes: Vec<&str> = written.findings.iter().map(|finding| finding.code.as_ref()).collect();
        assert_eq!((written.text.trim_end(), codes), (expected, vec![code]), "{kind:?}");
    };
    case(Kind::Strikethrough, None, "xz", "text.deletion");
    case(Kind::Deletion, None, "xz", "text.deletion");
    case(Kind::Insertion, None, "xz", "text.insertion");
    case(Kind::Subscript, None, "xz", "text.script");
    case(Kind::Superscript, None, "xz", "text.script");
    case(Kind::TextLevel(TextLevel::RubyText), Some(Kind::TextLevel(TextLevel::Ruby)), "xy(z)", "text.ruby");
}

#[test]
fn powers_and_brackets_that_are_there_need_no_word() {
    let text = |source: &str| convert(source.as_bytes(), Format::Html, Format::Text, &profile("fragment", &[])).unwrap();
    let power = text("<p>m<sup>2</sup></p>");
    assert_eq!((power.text().unwrap(), power.findings.len()), ("m^2\n", 0));
    let ruby = text("<p><ruby>潮<rp>[</rp><rt>shio</rt><rp>]</rp></ruby></p>");
    assert_eq!(ruby.text().unwrap(), "潮[shio]\n");
    let several = text("<p><s>a</s> <s>b</s> H<sub>2</sub></p>");
    let told: Vec<String> = several.findings.iter().map(|finding| finding.message.clone()).collect();
    assert_eq!(
        told,
        ["text that is deleted or struck through is like any other: 2", "subscripts and superscripts stand in the line: 1"]
    );
}
