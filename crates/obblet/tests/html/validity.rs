//! Whatever goes in, valid and safe HTML comes out.
#![allow(missing_docs, clippy::unwrap_used, clippy::panic, clippy::print_stderr, reason = "tests")]

use crate::support;

use obblet::formats::{html, markdown};
use proptest::prelude::*;
use support::validity::faults;
use support::{trees, validity};

fn write(doc: &obblet::document::Document) -> String {
    html::write(doc, &html::Options::default()).html
}

fn convert(source: &[u8]) -> String {
    write(&markdown::read(source, &markdown::Settings::GITHUB))
}

/// Pieces that Markdown and HTML make something of, to be put together at random.
const PIECES: &[&str] = &[
    "# ",
    "## ",
    "- ",
    "1. ",
    "> ",
    "    ",
    "\t",
    "\n",
    "\n\n",
    "```",
    "~~~",
    "`",
    "*",
    "**",
    "_",
    "~~",
    "[a]",
    "[a](b)",
    "![",
    "](",
    ")",
    "[^1]",
    "[^1]: ",
    "[a]: /u 'x'\n",
    "|",
    "| a | b |\n|---|:-:|\n",
    "<b>",
    "</b>",
    "<p>",
    "</p>",
    "<div>",
    "</div>",
    "<table>",
    "<tr>",
    "<td rowspan=3>",
    "</table>",
    "<li>",
    "<ul>",
    "<a href=x>",
    "</a>",
    "<h2>",
    "<details>",
    "<summary>",
    "<script>",
    "</script>",
    "<!--",
    "-->",
    "<svg>",
    "<pre>",
    "<code>",
    "</pre>",
    "<br>",
    "<img onerror=x src=y>",
    "<select>",
    "<form>",
    "<caption>",
    "<dl>",
    "<dt>",
    "<dd>",
    "<ruby>",
    "<rt>",
    "<font>",
    "<style>",
    "&amp;",
    "&#0;",
    "\\",
    "$",
    "$$",
    "---\n",
    "word",
    " ",
    "www.a.example",
    "http://x",
    "a@b.example",
    "- [x] ",
    "> [!NOTE]\n",
    "é",
    "潮",
    "\u{0}",
    "\u{FFFE}",
    "\u{A0}",
    "<x-y>",
    "<o:p>",
    "javascript:",
];

proptest! {
    #![proptest_config(ProptestConfig::with_cases(400))]

    #[test]
    fn any_tree_becomes_valid_markup(parts in trees::any()) {
        let html = write(&trees::tree(&parts));
        let faults = faults(&html);
        prop_assert!(faults.is_empty(), "{faults:#?}\n{html}");
    }

    #[test]
    fn any_markdown_becomes_valid_markup(pieces in prop::collection::vec(prop::sample::select(PIECES), 0..40)) {
        let html = convert(pieces.concat().as_bytes());
        let faults = faults(&html);
        prop_assert!(faults.is_empty(), "{faults:#?}\n{html}");
    }

    #[test]
    fn any_bytes_become_valid_markup(bytes in prop::collection::vec(any::<u8>(), 0..300)) {
        let html = convert(&bytes);
        let faults = faults(&html);
        prop_assert!(faults.is_empty(), "{faults:#?}\n{html}");
    }

    #[test]
    fn the_same_source_becomes_the_same_bytes(pieces in prop::collection::vec(prop::sample::select(PIECES), 0..40)) {
        let source = pieces.concat();
        prop_assert_eq!(convert(source.as_bytes()), convert(source.as_bytes()));
    }
}

#[test]
fn trees_at_random_have_every_kind_of_node() {
    trees::assert_every_kind();
}

#[test]
fn every_kind_may_stand_in_every_kind() {
    for outer in 0..trees::KINDS {
        for middle in 0..trees::KINDS {
            for inner in (0..trees::KINDS).step_by(5).chain([trees::TEXT]) {
                let text = trees::TEXT;
                let html = write(&trees::tree(&[(outer, 0), (text, 1), (middle, 1), (inner, 4), (text, 4), (text, 1)]));
                let faults = faults(&html);
                assert!(faults.is_empty(), "{outer} {middle} {inner}: {faults:#?}\n{html}");
            }
        }
    }
}

#[test]
fn the_checker_finds_what_it_should() {
    for wrong in [
        "<p><p>a</p></p>",
        "<ul><p>a</p></ul>",
        "<a href=x><b><a href=y>z</a></b></a>",
        "<h2>a</h2><h4>b</h4>",
        "<p id=a><b id=a>x</b></p>",
        "<img src=x>",
        "<p onclick=x>a</p>",
        "<a href='java&#10;script:x'>a</a>",
        "<details>a</details>",
        "<dl><dt>a</dt></dl>",
        "<p style='color: red'>a</p>",
        "<table><tr><td colspan=2>a</td></tr></table>",
        "<table><tr><td rowspan=2>a</td></tr></table>",
        "<table><tr><td>a</td></tr><tr><td>a</td><td>b</td></tr></table>",
        "<p>\u{1}</p>",
        "<a href='http://a b/'>a</a>",
        "<a href='http:/a.example'>a</a>",
        "<a href='https://me@a.example/'>a</a>",
        "<img alt='' src='data:image/svg+xml;base64,PHN2ZyBvbmxvYWQ9eD48L3N2Zz4='>",
        "<img alt='' src='data:image/svg+xml;base64,PHN2Zz48c2NyaXB0Lz48L3N2Zz4='>",
        "<script>x</script>",
        "<rt>a</rt>",
        "<em><div>a</div></em>",
    ] {
        assert!(!validity::faults(wrong).is_empty(), "{wrong}");
    }
}
