//! There and back: Markdown to HTML to Markdown to HTML is the same HTML, and trees come back as they were.
#![allow(missing_docs, clippy::unwrap_used, clippy::panic, clippy::print_stderr, reason = "tests")]

use crate::support;

use obblet::document::{
    Align, Callout, CellKind, DivisionKind, Document, Kind, ListKind, Marker, NodeId, RowGroupKind, TextLevel,
};
use obblet::profile::Profile;
use obblet::{Context, Format};
use proptest::prelude::*;
use support::convert::normal;
use support::trees;

fn profile(dialect: &str) -> Profile {
    support::convert::profile("fragment", &[&format!("markdown.dialect={dialect}")])
}

fn html(source: &str, profile: &Profile) -> String {
    obblet::convert(source.as_bytes(), Format::Markdown, Format::Html, profile).unwrap().into_text().unwrap()
}

fn back_to_markdown(source: &str, profile: &Profile) -> String {
    obblet::convert(source.as_bytes(), Format::Html, Format::Markdown, profile).unwrap().into_text().unwrap()
}

#[test]
fn every_demo_document_comes_back() {
    let demo = std::path::Path::new(env!("CARGO_MANIFEST_DIR")).join("../../demo");
    for entry in obblet::publish::documents(&demo).unwrap() {
        let source = std::fs::read(demo.join(&entry.source)).unwrap();
        for shape in ["fragment", "page"] {
            let mut profile = profile("github");
            profile.set(&format!("shape={shape}")).unwrap();
            let trip = |source: &[u8], from| {
                let html = obblet::convert(source, from, Format::Html, &profile).unwrap().into_text().unwrap();
                let back =
                    obblet::convert(html.as_bytes(), Format::Html, Format::Markdown, &profile).unwrap().into_text().unwrap();
                (html, back)
            };
            let (first, back) = trip(&source, entry.format);
            let (second, back) = trip(back.as_bytes(), Format::Markdown);
            let (third, _) = trip(back.as_bytes(), Format::Markdown);
            assert_eq!(second, third, "{} as {shape}", entry.source.display());
            if shape == "fragment" && entry.format == Format::Markdown {
                assert_eq!(normal(&first), normal(&second), "{}", entry.source.display());
            }
        }
    }
}

/// The document, written as Markdown, and the HTML of what is read from that.
fn through_markdown(doc: &Document, profile: &Profile) -> (String, String) {
    let text = obblet::write(doc.clone(), Format::Markdown, profile, &Context::default()).unwrap().into_text().unwrap();
    let html = html(&text, profile);
    (text, html)
}

#[track_caller]
fn same_tree(doc: &Document, profile: &Profile) {
    let first = obblet::write(doc.clone(), Format::Html, profile, &Context::default()).unwrap().into_text().unwrap();
    let (text, second) = through_markdown(doc, profile);
    assert_eq!(normal(&first), normal(&second), "\n--- markdown\n{text}\n--- first\n{first}\n--- second\n{second}");
}

const BULLETS: ListKind = ListKind { ordered: false, tight: true, marker: Marker::Plain, start: 1 };

/// Blocks that hold blocks. A list comes with its items.
fn containers(doc: &mut Document, parent: NodeId, number: usize) -> NodeId {
    match number {
        0 => doc.append(parent, Kind::BlockQuote),
        1..=4 => {
            let list = ListKind { ordered: number.is_multiple_of(2), tight: number < 3, start: 7, ..BULLETS };
            let list = doc.append(parent, Kind::List(list));
            for _ in 0..2 {
                let item = doc.append(list, Kind::ListItem { checked: None });
                let before = doc.append(item, Kind::Paragraph);
                doc.append_text(before, "before");
            }
            doc.node(list).last_child().unwrap()
        }
        5 => {
            let list = doc.append(parent, Kind::List(BULLETS));
            doc.append(list, Kind::ListItem { checked: None })
        }
        6 => doc.append(parent, Kind::Division(DivisionKind::Callout(Callout::Tip))),
        _ => {
            let details = doc.append(parent, Kind::Details { open: false });
            let summary = doc.append(details, Kind::Summary);
            doc.append_text(summary, "more");
            details
        }
    }
}

const CONTAINERS: usize = 8;

fn leaves(doc: &mut Document, parent: NodeId, number: usize) {
    match number {
        0 => {
            let paragraph = doc.append(parent, Kind::Paragraph);
            doc.append_text(paragraph, "1. *a* # b\n- c");
        }
        1 => {
            let heading = doc.append(parent, Kind::Heading(2));
            doc.append_text(heading, "h #");
        }
        2 => {
            let (code, info) = (doc.intern("``` a\n\n  b\n"), doc.intern("rust"));
            doc.append(parent, Kind::CodeBlock { code, info });
        }
        3 => {
            doc.append(parent, Kind::ThematicBreak);
        }
        4 => {
            let table = doc.append(parent, Kind::Table);
            for (index, group) in [RowGroupKind::Head, RowGroupKind::Body].into_iter().enumerate() {
                let group = doc.append(table, Kind::RowGroup(group));
                let row = doc.append(group, Kind::Row);
                for align in [Align::Unsaid, Align::Right] {
                    let cell = doc.append(row, Kind::Cell(CellKind { header: index == 0, align, ..CellKind::PLAIN }));
                    doc.append_text(cell, "a | `b");
                }
            }
        }
        5 => {
            let terms = doc.append(parent, Kind::TermList);
            for kind in [Kind::Term, Kind::TermDescription] {
                let part = doc.append(terms, kind);
                doc.append_text(part, "a * b");
            }
        }
        _ => {
            let list = doc.append(parent, Kind::List(BULLETS));
            for checked in [true, false] {
                let item = doc.append(list, Kind::ListItem { checked: Some(checked) });
                let paragraph = doc.append(item, Kind::Paragraph);
                doc.append_text(paragraph, "task");
            }
        }
    }
}

const LEAVES: usize = 7;

#[test]
fn every_nesting_of_blocks_comes_back() {
    let profile = profile("github");
    for outer in 0..CONTAINERS {
        for inner in 0..CONTAINERS {
            for leaf in 0..LEAVES {
                for next in 0..LEAVES {
                    let mut doc = Document::new();
                    let top = doc.root();
                    let outer = containers(&mut doc, top, outer);
                    let inner = containers(&mut doc, outer, inner);
                    leaves(&mut doc, inner, leaf);
                    // What follows does so inside, and behind.
                    leaves(&mut doc, inner, next);
                    leaves(&mut doc, top, next);
                    if !is_sayable(&doc) {
                        continue;
                    }
                    same_tree(&doc, &profile);
                }
            }
        }
    }
}

/// Whether Markdown has a way to keep lists apart, and blocks in tight lists.
fn is_sayable(doc: &Document) -> bool {
    doc.nodes().all(|(id, node)| {
        let is_list = |kind: Kind| matches!(kind, Kind::List(_));
        let two_lists = is_list(node.kind()) && node.next().is_some_and(|next| is_list(doc.kind(next)));
        // An empty line between the blocks of an item makes the list loose.
        let tight_item = matches!(node.kind(), Kind::ListItem { .. })
            && node.parent().is_some_and(|list| matches!(doc.kind(list), Kind::List(ListKind { tight: true, .. })))
            && doc.children(id).count() > 1;
        let loose_alone =
            matches!(node.kind(), Kind::List(ListKind { tight: false, .. })) && node.first_child() == node.last_child();
        !two_lists && !tight_item && !loose_alone
    })
}

/// Text-level nodes, with text inside.
fn inline(doc: &mut Document, parent: NodeId, number: usize) -> NodeId {
    match number {
        0 => doc.append(parent, Kind::Emphasis),
        1 => doc.append(parent, Kind::Strong),
        2 => doc.append(parent, Kind::Deletion),
        3 => {
            let href = doc.intern("a b(.html");
            doc.append(parent, Kind::Link { href })
        }
        4 => doc.append(parent, Kind::Superscript),
        _ => doc.append(parent, Kind::TextLevel(TextLevel::Keyboard)),
    }
}

#[test]
fn every_nesting_of_text_comes_back() {
    let (github, commonmark) = (profile("github"), profile("commonmark"));
    let around = ["", " ", "a", ".", "\u{A0}", "한"];
    for outer in 0..6 {
        for inner in 0..6 {
            if outer == 3 && inner == 3 {
                continue;
            }
            for before in around {
                for between in around {
                    for text in ["x", "!", "x*", "`y`", "[z]"] {
                        let mut doc = Document::new();
                        let paragraph = doc.append(doc.root(), Kind::Paragraph);
                        doc.append_text(paragraph, &format!("s{before}"));
                        let one = inline(&mut doc, paragraph, outer);
                        if !between.trim().is_empty() {
                            doc.append_text(one, between);
                        }
                        let two = inline(&mut doc, one, inner);
                        doc.append_text(two, text);
                        if !before.trim().is_empty() {
                            doc.append_text(one, before);
                        }
                        let three = inline(&mut doc, paragraph, inner);
                        doc.append_text(three, text);
                        doc.append_text(paragraph, &format!("{between}e"));
                        same_tree(&doc, &github);
                        same_tree(&doc, &commonmark);
                    }
                }
            }
        }
    }
}

proptest! {
    #![proptest_config(ProptestConfig { cases: 400, ..ProptestConfig::default() })]

    #[test]
    fn any_text_comes_back(text in "[a-z0-9 *_`\\[\\]()<>&;#!~$|\\\\.:/@w+\n=\"'-]{1,40}", link in any::<bool>()) {
        let mut doc = Document::new();
        let mut parent = doc.append(doc.root(), Kind::Paragraph);
        if link {
            let href = doc.intern("x");
            parent = doc.append(parent, Kind::Link { href });
        }
        let text = text.split_whitespace().collect::<Vec<_>>().join(" ");
        prop_assume!(!text.is_empty());
        doc.append_text(parent, &text);
        same_tree(&doc, &profile("github"));
        same_tree(&doc, &profile("commonmark"));
    }

    #[test]
    fn lines_of_any_width_say_the_same(text in "[a-z0-9 #>*+.\\[\\]-]{1,120}", width in 16u16..40) {
        let mut doc = Document::new();
        let paragraph = doc.append(doc.root(), Kind::Paragraph);
        let text = text.split_whitespace().collect::<Vec<_>>().join(" ");
        prop_assume!(!text.is_empty());
        doc.append_text(paragraph, &text);
        let mut profile = profile("github");
        profile.formats.markdown.width = width;
        same_tree(&doc, &profile);
    }

    #[test]
    fn any_tree_settles(parts in trees::any()) {
        let doc = trees::tree(&parts);
        let profile = profile("github");
        // A tree that makes no sense takes a few trips until it does.
        let (_, mut last) = through_markdown(&doc, &profile);
        for _ in 0..3 {
            last = html(&back_to_markdown(&last, &profile), &profile);
        }
        let again = html(&back_to_markdown(&last, &profile), &profile);
        prop_assert_eq!(last, again);
    }
}

#[test]
fn formatting_in_classes_comes_back() {
    let source = "---\ntitle: T\nlanguage: en\n---\n\na *b* **c** `d`, and *e **f***\n";
    let reader = Profile::built_in("reader").unwrap();
    let page = |source: &str, reads: Format| {
        obblet::convert(source.as_bytes(), reads, Format::Html, &reader).unwrap().into_text().unwrap()
    };
    let first = page(source, Format::Markdown);
    assert!(first.contains("<span class=\"italic\">b</span>") && !first.contains("<strong>"), "{first}");
    let back =
        obblet::convert(first.as_bytes(), Format::Html, Format::Markdown, &Profile::default()).unwrap().into_text().unwrap();
    assert_eq!(back, source);
    assert_eq!(page(&first, Format::Html), first);
}
