//! Nothing that runs comes out, whatever goes in: hostile pieces of HTML, alone, cut up, and mixed with each other.
#![allow(missing_docs, clippy::unwrap_used, clippy::panic, clippy::print_stderr, reason = "tests")]

use crate::support;

use obblet::Format;
use obblet::profile::Profile;
use proptest::prelude::*;
use support::convert::convert;
use support::dom::{self, Dom};

fn snippets() -> Vec<&'static str> {
    include_str!("../data/injections.txt").lines().filter(|line| !line.is_empty()).collect()
}

/// Elements that output may have; all others are faults.
const HARMLESS: &[&str] = &[
    "a",
    "abbr",
    "address",
    "article",
    "aside",
    "b",
    "bdi",
    "bdo",
    "blockquote",
    "body",
    "br",
    "caption",
    "cite",
    "code",
    "data",
    "dd",
    "del",
    "details",
    "dfn",
    "div",
    "dl",
    "dt",
    "em",
    "figcaption",
    "figure",
    "footer",
    "h1",
    "h2",
    "h3",
    "h4",
    "h5",
    "h6",
    "head",
    "header",
    "hr",
    "html",
    "i",
    "img",
    "input",
    "ins",
    "kbd",
    "li",
    "main",
    "mark",
    "meta",
    "nav",
    "ol",
    "p",
    "pre",
    "q",
    "rp",
    "rt",
    "ruby",
    "s",
    "samp",
    "section",
    "small",
    "span",
    "strong",
    "sub",
    "summary",
    "sup",
    "table",
    "tbody",
    "td",
    "tfoot",
    "th",
    "thead",
    "time",
    "title",
    "tr",
    "u",
    "ul",
    "var",
];

/// What of a page could run, load or send.
fn dangers(dom: &Dom) -> Vec<String> {
    let mut found = Vec::new();
    for node in dom.order() {
        let Some(name) = &dom.nodes[node].name else { continue };
        let formula = &*name.ns == "http://www.w3.org/1998/Math/MathML";
        let local = dom.name(node);
        if !formula && (!HARMLESS.contains(&local) || &*name.ns != "http://www.w3.org/1999/xhtml") {
            found.push(format!("<{local}>"));
        }
        for (key, value) in &dom.nodes[node].attributes {
            let plain: String =
                value.chars().filter(|c| !c.is_whitespace() && !c.is_control()).collect::<String>().to_lowercase();
            let scheme = plain.split_once(':').map_or("", |(scheme, _)| scheme);
            let runs = ["javascript", "vbscript", "livescript", "data", "feed", "view-source", "jar"].contains(&scheme);
            let picture = local == "img" && key == "src" && plain.starts_with("data:image/") && drawing_is_harmless(value);
            let address = matches!(
                key.as_str(),
                "href" | "src" | "cite" | "action" | "formaction" | "poster" | "data" | "ping" | "background" | "xlink:href"
            );
            if key.starts_with("on")
                || (key == "style" && (!plain.starts_with("text-align:") || plain.contains(['(', ';', '\\'])))
                || (address && runs && !picture)
                || matches!(key.as_str(), "srcdoc" | "srcset" | "http-equiv" | "formaction" | "action" | "ping" | "background")
                || (local == "input" && key == "type" && value != "checkbox")
            {
                found.push(format!("<{local} {key}={value:?}>"));
            }
        }
    }
    found
}

/// Pictures in addresses: rasters, and drawings in which nothing runs or loads.
fn drawing_is_harmless(address: &str) -> bool {
    let Some(code) = address.strip_prefix("data:image/svg+xml;base64,") else { return !address.to_lowercase().contains("svg") };
    let digit =
        |byte: u8| b"ABCDEFGHIJKLMNOPQRSTUVWXYZabcdefghijklmnopqrstuvwxyz0123456789+/".iter().position(|&known| known == byte);
    let mut bytes = Vec::new();
    for group in code.as_bytes().chunks(4) {
        let bits = group.iter().fold(0u32, |bits, &byte| bits << 6 | digit(byte).unwrap_or(0) as u32);
        bytes.extend_from_slice(&bits.to_be_bytes()[1..]);
    }
    let dom = dom::fragment(&String::from_utf8_lossy(&bytes));
    let runs = |node: usize| {
        let text = dom.nodes[node].text.to_lowercase();
        let addresses = dom.nodes[node].attributes.iter().any(|(key, value)| {
            let value = value.trim().to_lowercase();
            key.starts_with("on") || (key.ends_with("href") && (value.starts_with("javascript:") || value.starts_with("data:")))
        });
        // An animation runs something by what it sets.
        let sets = dom.nodes[node].attributes.iter().any(|(key, value)| {
            let value = value.trim().to_lowercase();
            key.eq_ignore_ascii_case("attributeName") && (value.contains("href") || value.starts_with("on"))
        });
        let style = dom.nodes[node].parent.is_some_and(|parent| dom.name(parent) == "style");
        matches!(dom.name(node), "script" | "foreignObject" | "iframe" | "img")
            || sets
            || addresses
            || (style && (text.contains("@import") || text.contains("javascript") || text.contains("url(")))
    };
    !dom.order().into_iter().any(runs)
}

#[track_caller]
fn is_harmless(source: &str) {
    for reads in [Format::Html, Format::Markdown, Format::Text] {
        for (name, settings) in [
            ("fragment", &[][..]),
            ("fragment", &["styling=named", "clean.lists=typed"]),
            ("listing", &[]),
            ("bare", &[]),
            ("page", &["page.look=none"]),
            ("reader", &[]),
        ] {
            let mut profile = Profile::built_in(name).unwrap();
            settings.iter().for_each(|setting| profile.set(setting).unwrap());
            let text = obblet::convert(source.as_bytes(), reads, Format::Html, &profile).unwrap().into_text().unwrap();
            // Style rules of pages are our own.
            let text = if matches!(name, "page" | "reader") { without_style(&text) } else { text };
            let dom = if matches!(name, "page" | "reader") { dom::page(&text) } else { dom::fragment(&text) };
            let found = dangers(&dom);
            assert!(found.is_empty(), "{source}\nread as {}, {name}: {found:?}\n{text}", reads.name());
        }
        // The way back goes through Markdown, where HTML is written for what it can't say.
        let text = convert(source.as_bytes(), reads, Format::Markdown, &[]).into_text().unwrap();
        let again = convert(text.as_bytes(), Format::Markdown, Format::Html, &[]).into_text().unwrap();
        assert!(dangers(&dom::fragment(&again)).is_empty(), "{source}\n{text}\n{again}");
    }
}

fn without_style(page: &str) -> String {
    let mut out = page.to_owned();
    while let Some(start) = out.find("<style>") {
        let end = out[start..].find("</style>").map_or(out.len(), |end| start + end + "</style>".len());
        assert!(!out[start..end].to_lowercase().contains("javascript") && !out[start..end].contains("url("), "{page}");
        out.replace_range(start..end, "");
    }
    out
}

#[test]
fn the_check_sees_what_is_dangerous() {
    for source in [
        "<p onclick=x>",
        "<a href=' java\tscript:x'>",
        "<p style='color:red'>",
        "<svg></svg>",
        "<iframe></iframe>",
        "<img src='data:image/svg+xml,x'>",
    ] {
        assert!(!dangers(&dom::fragment(source)).is_empty(), "{source}");
    }
}

#[test]
fn each_piece_is_harmless() {
    let snippets = snippets();
    assert!(snippets.len() >= 100, "{}", snippets.len());
    snippets.into_iter().for_each(is_harmless);
}

#[test]
fn pieces_within_pieces_are_harmless() {
    let frames = [
        "<p>X</p>",
        "<table><tr><td>X</table>",
        "<svg>X</svg>",
        "<math><mi>X</mi></math>",
        "<ul><li>X",
        "<b title=\"X\">y</b>",
        "<a href=\"X\">y</a>",
        "<style>X</style>",
        "<textarea>X</textarea>",
        "<!-- X -->",
    ];
    for frame in frames {
        for snippet in snippets() {
            let source = frame.replace('X', snippet);
            let text = convert(source.as_bytes(), Format::Html, Format::Html, &[]).into_text().unwrap();
            assert!(dangers(&dom::fragment(&text)).is_empty(), "{source}\n{text}");
        }
    }
}

proptest! {
    #![proptest_config(ProptestConfig::with_cases(1500))]

    #[test]
    fn mutations_are_harmless(
        picks in prop::collection::vec((0usize..1000, 0usize..200, 0usize..200), 1..5),
        noise in prop::collection::vec((0usize..400, prop::sample::select(vec!["<", ">", "\"", "'", "/", "=", " ", "\0", "&", "<!--", "-->", "]]>", "</", "`", "\n", "&#x0;", "<table>", "</table>", "<svg>", "<math>", "</p>"])), 0..8),
    ) {
        let snippets = snippets();
        let mut source = String::new();
        for (pick, from, to) in picks {
            let snippet: Vec<char> = snippets[pick % snippets.len()].chars().collect();
            let from = from % snippet.len();
            // Half of the time a piece is whole.
            let piece = if pick % 2 == 0 { &snippet[..] } else { &snippet[from..snippet.len().min(from + to + 1)] };
            source.extend(piece);
        }
        for (place, piece) in noise {
            let place = source.char_indices().nth(place % (source.chars().count() + 1)).map_or(source.len(), |(place, _)| place);
            source.insert_str(place, piece);
        }
        let text = convert(source.as_bytes(), Format::Html, Format::Html, &[]).into_text().unwrap();
        prop_assert!(dangers(&dom::fragment(&text)).is_empty(), "{}\n{}", source, text);
        let text = convert(source.as_bytes(), Format::Markdown, Format::Html, &[]).into_text().unwrap();
        prop_assert!(dangers(&dom::fragment(&text)).is_empty(), "{}\n{}", source, text);
    }
}
