//! Items of lists have the numbers that the document gives them, however its lists are nested, broken off and taken up again.
#![allow(missing_docs, clippy::unwrap_used, clippy::panic, clippy::print_stderr, reason = "tests")]

use crate::support;

use obblet::Format;
use proptest::prelude::*;
use std::collections::HashMap;
use support::convert::convert;
use support::dom::{self, Dom};
use support::package::{Package, cell, item, levels, numbering, plain, row, table};
use support::package_check::faults;

/// A paragraph: an item of a list at a level, or not one.
#[derive(Clone, Copy, Debug)]
enum Line {
    Item { list: u32, level: u32 },
    Plain,
    Table,
}

fn lines() -> impl Strategy<Value = Vec<Line>> {
    let line = prop_oneof![
        6 => (1..4_u32, 0..4_u32).prop_map(|(list, level)| Line::Item { list, level }),
        1 => Just(Line::Plain),
        1 => Just(Line::Table),
    ];
    prop::collection::vec(line, 1..14)
}

/// The numbers of all items, as word processors count: a level goes on until one above it is counted (ECMA-376, part 1, section
/// 17.9); levels that are left out count once. Lists 2 and 3 are of one definition, so they count together until 3 begins anew.
fn counted(lines: &[Line]) -> HashMap<String, i64> {
    let mut counters: HashMap<u32, [i64; 4]> = HashMap::new();
    let (mut numbers, mut begun) = (HashMap::new(), false);
    for (place, line) in lines.iter().enumerate() {
        let Line::Item { list, level } = *line else { continue };
        let levels = counters.entry(list.min(2)).or_insert([0; 4]);
        let level = level as usize;
        if list == 3 && level == 0 && !std::mem::replace(&mut begun, true) {
            levels.fill(0);
        }
        levels[..level].iter_mut().filter(|count| **count == 0).for_each(|count| *count = 1);
        levels[level] += 1;
        levels[level + 1..].fill(0);
        numbers.insert(format!("item{place}"), levels[level]);
    }
    numbers
}

/// The numbers that a browser shows, by the words of the items.
fn shown(dom: &Dom) -> HashMap<String, i64> {
    let mut numbers = HashMap::new();
    for node in dom.order().into_iter().filter(|node| dom.name(*node) == "ol") {
        let number = |node: usize, name: &str| dom.attribute(node, name).and_then(|value| value.parse::<i64>().ok());
        let items: Vec<usize> = dom.nodes[node].children.iter().copied().filter(|child| dom.name(*child) == "li").collect();
        let reversed = dom.attribute(node, "reversed").is_some();
        let mut next = number(node, "start").unwrap_or(if reversed { items.len() as i64 } else { 1 });
        for child in items {
            next = number(child, "value").unwrap_or(next);
            // The words of an item stand before what is nested in it.
            if let Some(words) = first_words(dom, child) {
                numbers.insert(words, next);
            }
            next += if reversed { -1 } else { 1 };
        }
    }
    numbers
}

fn first_words(dom: &Dom, item: usize) -> Option<String> {
    let mut open = vec![item];
    while let Some(node) = open.pop() {
        let text = dom.nodes[node].text.trim();
        if !text.is_empty() {
            return Some(text.to_owned());
        }
        // Not into lists below: those words are other items.
        open.extend(dom.nodes[node].children.iter().rev().filter(|child| dom.name(**child) != "ol"));
    }
    None
}

/// A third list, of the second definition, that begins anew.
const AGAIN: &str = "<w:num w:numId=\"3\"><w:abstractNumId w:val=\"2\"/><w:lvlOverride w:ilvl=\"0\"><w:startOverride w:val=\"1\"/></w:lvlOverride></w:num>";

/// A list of a page: how it is counted, and its items; a list may stand in each.
#[derive(Clone, Debug)]
struct Listed {
    start: Option<i64>,
    reversed: bool,
    items: Vec<(Option<i64>, Option<Listed>)>,
}

fn listed() -> impl Strategy<Value = Listed> {
    let none = Just(None).boxed();
    let nested = none.prop_recursive(3, 20, 4, |inner| {
        let value = prop::option::weighted(0.1, -3..20_i64);
        let items = prop::collection::vec((value, prop::option::weighted(0.3, inner).prop_map(Option::flatten)), 1..4);
        (prop::option::weighted(0.3, -2..12_i64), prop::bool::weighted(0.1), items)
            // A list that counts down from 1 is none that anybody writes.
            .prop_map(|(start, reversed, items)| {
                Some(Listed { start: start.filter(|start| !reversed || *start != 1), reversed, items })
            })
    });
    nested.prop_filter_map("a list", |list| list)
}

impl Listed {
    /// As markup; items are named in the order in which they begin.
    fn html(&self, names: &mut usize, loose: bool) -> String {
        let start = self.start.map_or(String::new(), |start| format!(" start={start}"));
        let mut out = format!("<ol{start}{}>", if self.reversed { " reversed" } else { "" });
        for (value, nested) in &self.items {
            let value = value.map_or(String::new(), |value| format!(" value={value}"));
            *names += 1;
            let words = if loose { format!("<p>item{names}</p>") } else { format!("item{names}") };
            let nested = nested.as_ref().map_or(String::new(), |nested| nested.html(names, loose));
            out += &format!("<li{value}>{words}{nested}</li>");
        }
        out + "</ol>"
    }

    /// Whether every list counts up by one from where it starts, as all that Markdown can say.
    fn is_plain(&self) -> bool {
        let counts_up = !self.reversed && self.start.is_none_or(|start| start >= 0);
        counts_up && self.items.iter().all(|(value, nested)| value.is_none() && nested.as_ref().is_none_or(Self::is_plain))
    }
}

fn converted(source: &[u8], reads: Format, writes: Format) -> String {
    convert(source, reads, writes, &[]).into_text().unwrap()
}

proptest! {
    #![proptest_config(ProptestConfig { cases: 400, failure_persistence: None, ..ProptestConfig::default() })]

    #[test]
    fn items_have_the_numbers_of_the_document(lines in lines()) {
        let body: String = lines
            .iter()
            .enumerate()
            .map(|(place, line)| match line {
                Line::Item { list, level } => item(*list, *level, &format!("item{place}")),
                Line::Plain => plain(&format!("plain{place}")),
                Line::Table => table("", &[2000, 2000], &[row("", &[cell("", &plain("a")), cell("", &plain("b"))])]),
            })
            .collect();
        let decimal = || levels(&[("decimal", "%1."), ("decimal", "%2."), ("decimal", "%3."), ("decimal", "%4.")]);
        let package = Package { numbering: numbering(&[(1, decimal()), (2, decimal())]) + AGAIN, ..Package::of(&body) };
        for styling in ["semantic", "exact"] {
            let html = convert(package.bytes(), Format::Word, Format::Html, &[&format!("styling={styling}")]).into_text().unwrap();
            let dom = dom::fragment(&html);
            prop_assert!(dom.errors.is_empty(), "{:?}", dom.errors);
            prop_assert_eq!(shown(&dom), counted(&lines), "{}\n{}", styling, html);
        }
    }

    #[test]
    fn lists_of_pages_keep_their_numbers((list, loose) in (listed(), any::<bool>())) {
        let source = list.html(&mut 0, loose);
        let expected = shown(&dom::fragment(&source));
        let html = converted(source.as_bytes(), Format::Html, Format::Html);
        prop_assert_eq!(&shown(&dom::fragment(&html)), &expected, "{}\n{}", source, html);
        let markdown = converted(source.as_bytes(), Format::Html, Format::Markdown);
        let back = dom::fragment(&converted(markdown.as_bytes(), Format::Markdown, Format::Html));
        if list.is_plain() {
            prop_assert_eq!(&shown(&back), &expected, "{}\n{}", source, markdown);
        }
        let package = convert(source.as_bytes(), Format::Html, Format::Word, &[]).bytes;
        prop_assert_eq!(faults(&package), Vec::<String>::new());
        let through = dom::fragment(&converted(&package, Format::Word, Format::Html));
        if list.is_plain() {
            prop_assert_eq!(&shown(&through), &expected, "{} through Word", source);
        }
        // Whatever the numbers, the items are all there and nested as they were.
        let depth = |dom: &Dom| dom.order().iter().filter(|node| dom.name(**node) == "li").count();
        prop_assert_eq!(depth(&back), expected.len(), "{}", markdown);
    }
}
