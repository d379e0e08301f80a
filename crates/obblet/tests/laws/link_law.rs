//! Links within a document lead where they led, whatever places are called and whichever format the document goes through.
#![allow(missing_docs, clippy::unwrap_used, clippy::panic, clippy::print_stderr, reason = "tests")]

use crate::support;

use obblet::Format;
use percent_encoding::{NON_ALPHANUMERIC, percent_decode_str, utf8_percent_encode};
use proptest::prelude::*;
use std::collections::BTreeMap;
use support::convert::convert;
use support::dom;
use support::package::{Package, paragraph, style, text};
use support::package_check::faults;

/// Names of places as people and programs give them.
const NAMES: [&str; 9] = ["tides", "Tides", "the-gauge", "_Toc123", "1", "é", "潮", "a.b:c", "Note"];

/// A block: whether it is a heading, the name of its place, and the place that its link leads to.
#[derive(Clone, Debug)]
struct Block {
    heading: bool,
    name: Option<usize>,
    leads: Option<usize>,
}

fn blocks() -> impl Strategy<Value = Vec<Block>> {
    let name = || prop::option::of(0..NAMES.len());
    let block = (any::<bool>(), name(), name()).prop_map(|(heading, name, leads)| Block { heading, name, leads });
    prop::collection::vec(block, 1..9).prop_map(|mut blocks: Vec<Block>| {
        // A name that is given twice is that of the first place.
        let mut known = std::collections::BTreeSet::new();
        blocks.iter_mut().for_each(|block| block.name = block.name.filter(|name| known.insert(*name)));
        blocks
    })
}

/// The words of each block that has a link that leads anywhere, and those of the block that it leads to.
fn expected(blocks: &[Block], headings_only: bool) -> BTreeMap<String, String> {
    let words = |place: usize| format!("item{place}");
    let target = |name: usize| blocks.iter().position(|block| block.name == Some(name) && (block.heading || !headings_only));
    let link = |(place, block): (usize, &Block)| Some((words(place), words(target(block.leads?)?)));
    blocks.iter().enumerate().filter_map(link).collect()
}

fn in_html(blocks: &[Block]) -> String {
    let block = |(place, block): (usize, &Block)| {
        let element = if block.heading { "h2" } else { "p" };
        let id = block.name.map_or(String::new(), |name| format!(" id=\"{}\"", NAMES[name]));
        let address = |name: usize| utf8_percent_encode(NAMES[name], NON_ALPHANUMERIC).to_string();
        let link =
            block.leads.map_or(String::new(), |name| format!("<p>from item{place} <a href=\"#{}\">there</a></p>", address(name)));
        format!("<{element}{id}>item{place}</{element}>{link}")
    };
    blocks.iter().enumerate().map(block).collect()
}

fn in_word(blocks: &[Block]) -> Vec<u8> {
    let block = |(place, block): (usize, &Block)| {
        let properties = if block.heading { "<w:pStyle w:val=\"H2\"/>" } else { "" };
        let mark = block.name.map_or(String::new(), |name| {
            format!("<w:bookmarkStart w:id=\"{place}\" w:name=\"{}\"/><w:bookmarkEnd w:id=\"{place}\"/>", NAMES[name])
        });
        let link = |name: usize| {
            paragraph(
                "",
                &(text(&format!("from item{place} "))
                    + &format!("<w:hyperlink w:anchor=\"{}\">{}</w:hyperlink>", NAMES[name], text("there"))),
            )
        };
        paragraph(properties, &(mark + &text(&format!("item{place}")))) + &block.leads.map_or(String::new(), link)
    };
    let styles = style("Normal", "Normal", "", "", "") + &style("H2", "heading 2", "Normal", "", "");
    Package { styles, ..Package::of(&blocks.iter().enumerate().map(block).collect::<String>()) }.bytes()
}

/// Where the links of a fragment lead: by the words before them, the words of the block that holds the place.
fn found(html: &str) -> BTreeMap<String, String> {
    let dom = dom::fragment(html);
    let block_of = |node: usize| {
        let mut at = node;
        while !matches!(dom.name(at), "p" | "h1" | "h2" | "h3") {
            // A place between blocks is that of the block behind it.
            let Some(parent) = dom.nodes[at].parent else { return String::new() };
            let behind = dom.nodes[parent].children.iter().skip_while(|child| **child != at).skip(1);
            match behind.copied().find(|&next| matches!(dom.name(next), "p" | "h1" | "h2" | "h3")) {
                Some(next) if matches!(dom.name(parent), "" | "html" | "body") => return dom.words_below(next),
                _ => at = parent,
            }
        }
        dom.words_below(at)
    };
    let mut links = BTreeMap::new();
    for node in dom.order().into_iter().filter(|node| dom.name(*node) == "a") {
        let Some(name) = dom.attribute(node, "href").and_then(|href| href.strip_prefix('#')) else { continue };
        let name = percent_decode_str(name).decode_utf8().unwrap().into_owned();
        let Some(place) = dom.order().into_iter().find(|place| dom.attribute(*place, "id") == Some(name.as_str())) else {
            continue;
        };
        let from = block_of(node).trim_start_matches("from ").trim_end_matches(" there").to_owned();
        links.insert(from, block_of(place).trim_start_matches("from ").to_owned());
    }
    links
}

fn converted(source: &[u8], reads: Format, writes: Format, settings: &[&str]) -> String {
    convert(source, reads, writes, settings).into_text().unwrap()
}

proptest! {
    #![proptest_config(ProptestConfig { cases: 300, failure_persistence: None, ..ProptestConfig::default() })]

    #[test]
    fn links_lead_where_they_led(blocks in blocks()) {
        let html = in_html(&blocks);
        prop_assert_eq!(found(&html), expected(&blocks, false), "the test itself: {}", html);
        for (reads, source) in [(Format::Html, html.clone().into_bytes()), (Format::Word, in_word(&blocks))] {
            for settings in [&[][..], &["styling=exact"], &["html.ids=headings"]] {
                let page = converted(&source, reads, Format::Html, settings);
                prop_assert_eq!(found(&page), expected(&blocks, false), "{} {:?}\n{}", reads.name(), settings, page);
            }
            let package = convert(&source, reads, Format::Word, &[]).bytes;
            prop_assert_eq!(faults(&package), Vec::<String>::new());
            let page = converted(&package, Format::Word, Format::Html, &[]);
            prop_assert_eq!(found(&page), expected(&blocks, false), "{} through Word\n{}", reads.name(), page);
            // Markdown has names for headings only, and those that it makes of their words.
            let markdown = converted(&source, reads, Format::Markdown, &[]);
            let back = converted(markdown.as_bytes(), Format::Markdown, Format::Html, &[]);
            let (all, headings) = (found(&back), expected(&blocks, true));
            for (from, to) in &headings {
                prop_assert_eq!(all.get(from), Some(to), "{}\n{}\n{}", reads.name(), markdown, back);
            }
        }
    }
}
