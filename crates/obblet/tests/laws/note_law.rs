//! Marks lead to their notes and notes back to their marks, in the order of the text, whichever format they come from.
#![allow(missing_docs, clippy::unwrap_used, clippy::panic, clippy::print_stderr, reason = "tests")]

use crate::support;

use obblet::Format;
use proptest::prelude::*;
use support::convert::convert;
use support::dom;
use support::package::{Package, paragraph, plain, text};
use support::package_check::faults;

/// Paragraphs, with the notes that are mentioned in each.
type Text = Vec<Vec<usize>>;

fn texts(repeats: bool) -> impl Strategy<Value = Text> {
    prop::collection::vec(prop::collection::vec(0..5_usize, 0..3), 1..5).prop_map(move |mut text: Text| {
        let mut known = std::collections::BTreeSet::new();
        if !repeats {
            text.iter_mut().for_each(|notes| notes.retain(|note| known.insert(*note)));
        }
        text
    })
}

fn in_markdown(text: &Text, long: bool) -> String {
    let paragraph =
        |notes: &Vec<usize>| format!("words{}\n\n", notes.iter().map(|note| format!("[^n{note}] more")).collect::<String>());
    let note = |note: usize| format!("[^n{note}]: note{note}{}\n\n", if long { "\n\n    and more" } else { "" });
    text.iter().map(paragraph).collect::<String>() + &(0..5).map(note).collect::<String>()
}

fn in_word(text_of: &Text, kind: &str) -> Vec<u8> {
    let mark = |note: &usize| {
        format!("<w:r><w:rPr><w:vertAlign w:val=\"superscript\"/></w:rPr><w:{kind}Reference w:id=\"{}\"/></w:r>", note + 2)
            + &text(" more")
    };
    let body = text_of
        .iter()
        .map(|notes| paragraph("", &(text("words") + &notes.iter().map(mark).collect::<String>())))
        .collect::<String>();
    let own = |note: usize| {
        let sign = format!("<w:r><w:{kind}Ref/></w:r>");
        format!("<w:{kind} w:id=\"{}\">{}</w:{kind}>", note + 2, paragraph("", &(sign + &text(&format!(" note{note}")))))
    };
    let separator = format!("<w:{kind} w:type=\"separator\" w:id=\"0\">{}</w:{kind}>", plain(""));
    let notes = separator + &(0..5).map(own).collect::<String>();
    let package = if kind == "footnote" {
        Package { footnotes: notes, ..Package::of(&body) }
    } else {
        Package { endnotes: notes, ..Package::of(&body) }
    };
    package.bytes()
}

/// The marks in order, each with its number and the note that it leads to; and how many links lead back to marks.
fn marks(html: &str) -> (Vec<(String, String)>, usize) {
    let dom = dom::fragment(html);
    assert!(dom.errors.is_empty(), "{:?}", dom.errors);
    let with_role = |role: &'static str| {
        dom.order().into_iter().filter(|node| dom.attribute(*node, "role") == Some(role)).collect::<Vec<_>>()
    };
    let led_to = |node: usize| {
        let name = dom.attribute(node, "href").unwrap().strip_prefix('#').unwrap().to_owned();
        dom.order()
            .into_iter()
            .find(|place| dom.attribute(*place, "id") == Some(name.as_str()))
            .unwrap_or_else(|| panic!("nothing is {name}"))
    };
    let marks: Vec<usize> = with_role("doc-noteref");
    let back = with_role("doc-backlink").into_iter().filter(|&link| marks.contains(&led_to(link))).count();
    let noted = |mark: &usize| {
        (dom.words_below(*mark), dom.words_below(led_to(*mark)).split_whitespace().next().unwrap_or_default().to_owned())
    };
    (marks.iter().map(noted).collect(), back)
}

fn converted(source: &[u8], reads: Format, writes: Format) -> String {
    convert(source, reads, writes, &["html.ids=used"]).into_text().unwrap()
}

/// What the marks must be: numbered as notes are first mentioned.
fn expected(text: &Text) -> (Vec<(String, String)>, usize) {
    let mut order = Vec::new();
    let mark = |note: &usize| {
        let place = order.iter().position(|known| known == note).unwrap_or_else(|| {
            order.push(*note);
            order.len() - 1
        });
        ((place + 1).to_string(), format!("note{note}"))
    };
    let marks: Vec<_> = text.iter().flatten().map(mark).collect();
    let count = marks.len();
    (marks, count)
}

proptest! {
    #![proptest_config(ProptestConfig { cases: 200, failure_persistence: None, ..ProptestConfig::default() })]

    #[test]
    fn marks_of_markdown_lead_to_their_notes((text, long) in (texts(true), any::<bool>())) {
        let source = in_markdown(&text, long);
        let html = converted(source.as_bytes(), Format::Markdown, Format::Html);
        prop_assert_eq!(marks(&html), expected(&text), "{}\n{}", source, html);
        // The page comes back with its notes, through HTML and through Markdown.
        let again = converted(html.as_bytes(), Format::Html, Format::Html);
        prop_assert_eq!(marks(&again), expected(&text), "{}\n{}", html, again);
        let markdown = converted(html.as_bytes(), Format::Html, Format::Markdown);
        let back = converted(markdown.as_bytes(), Format::Markdown, Format::Html);
        prop_assert_eq!(marks(&back), expected(&text), "{}\n{}", markdown, back);
    }

    #[test]
    fn marks_go_through_word((text, long) in (texts(true), any::<bool>())) {
        let source = in_markdown(&text, long);
        let package = convert(source.as_bytes(), Format::Markdown, Format::Word, &[]).bytes;
        prop_assert_eq!(faults(&package), Vec::<String>::new());
        let html = converted(&package, Format::Word, Format::Html);
        // Notes that nothing mentions have marks at the end.
        let (found, (wanted, count)) = (marks(&html).0, expected(&text));
        prop_assert_eq!(&found[..count], &wanted[..], "{}\n{}", source, html);
    }

    #[test]
    fn marks_of_word_documents_lead_to_their_notes((text, kind) in (texts(false), prop::sample::select(vec!["footnote", "endnote"]))) {
        let source = in_word(&text, kind);
        let html = converted(&source, Format::Word, Format::Html);
        prop_assert_eq!(marks(&html), expected(&text), "{}", html);
        let markdown = converted(&source, Format::Word, Format::Markdown);
        let back = converted(markdown.as_bytes(), Format::Markdown, Format::Html);
        prop_assert_eq!(marks(&back), expected(&text), "{}\n{}", markdown, back);
    }
}
