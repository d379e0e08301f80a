//! Merged cells stay where they are: any tiling of a table, written in HTML or by a word processor, is the same tiling in the
//! page, and where a format can't merge cells, no word is lost.
#![allow(missing_docs, clippy::unwrap_used, clippy::panic, clippy::print_stderr, reason = "tests")]

use crate::support;

use obblet::Format;
use proptest::prelude::*;
use std::collections::{BTreeMap, BTreeSet};
use support::convert::convert;
use support::dom::{self, Dom};
use support::package::{Package, cell, plain, row, table};
use support::package_check::faults;

/// A cell: its words, the first row and column that it takes, and those behind it.
#[derive(Clone, Debug)]
struct Tile {
    words: String,
    top: usize,
    left: usize,
    bottom: usize,
    right: usize,
}

/// A table that is filled with cells of all sizes.
fn tilings() -> impl Strategy<Value = (usize, usize, Vec<Tile>)> {
    let sizes = prop::collection::vec((1..4_usize, 1..4_usize), 36);
    (1..6_usize, 1..6_usize, sizes).prop_map(|(rows, columns, sizes)| {
        let mut taken = vec![vec![false; columns]; rows];
        let (mut tiles, mut sizes) = (Vec::new(), sizes.into_iter());
        for top in 0..rows {
            for left in 0..columns {
                if taken[top][left] {
                    continue;
                }
                let (height, width) = sizes.next().unwrap();
                let free = taken[top][left..].iter().take_while(|taken| !**taken).count();
                let (bottom, right) = ((top + height).min(rows), left + width.min(free));
                taken[top..bottom].iter_mut().for_each(|row| row[left..right].fill(true));
                tiles.push(Tile { words: format!("cell{}", tiles.len()), top, left, bottom, right });
            }
        }
        (rows, columns, tiles)
    })
}

fn in_html(rows: usize, tiles: &[Tile]) -> String {
    let cell =
        |tile: &Tile| format!("<td colspan={} rowspan={}>{}</td>", tile.right - tile.left, tile.bottom - tile.top, tile.words);
    let row = |at: usize| format!("<tr>{}</tr>", tiles.iter().filter(|tile| tile.top == at).map(cell).collect::<String>());
    format!("<table>{}</table>", (0..rows).map(row).collect::<String>())
}

fn in_word(rows: usize, columns: usize, tiles: &[Tile]) -> Vec<u8> {
    let row = |at: usize| {
        let mut tiles: Vec<&Tile> = tiles.iter().filter(|tile| (tile.top..tile.bottom).contains(&at)).collect();
        tiles.sort_by_key(|tile| tile.left);
        let cell = |tile: &&Tile| {
            let (begins, merged) = (tile.top == at, tile.bottom - tile.top > 1);
            let merge = if !merged {
                ""
            } else if begins {
                "<w:vMerge w:val=\"restart\"/>"
            } else {
                "<w:vMerge/>"
            };
            let properties =
                format!("<w:tcW w:w=\"1000\" w:type=\"dxa\"/><w:gridSpan w:val=\"{}\"/>{merge}", tile.right - tile.left);
            cell(&properties, &if begins { plain(&tile.words) } else { "<w:p/>".to_owned() })
        };
        row("", &tiles.iter().map(cell).collect::<Vec<_>>())
    };
    Package::of(&table("", &vec![1000; columns], &(0..rows).map(row).collect::<Vec<_>>())).bytes()
}

/// Where the cells of the only table stand, by the algorithm of the standard (HTML, section 4.9.12).
fn tiles_of(dom: &Dom) -> Vec<Tile> {
    let (mut taken, mut tiles) = (BTreeSet::new(), Vec::new());
    let rows: Vec<usize> = dom.order().into_iter().filter(|node| dom.name(*node) == "tr").collect();
    for (top, &row) in rows.iter().enumerate() {
        let mut left = 0;
        for &node in dom.nodes[row].children.iter().filter(|node| matches!(dom.name(**node), "td" | "th")) {
            while taken.contains(&(top, left)) {
                left += 1;
            }
            let span = |name: &str| dom.attribute(node, name).and_then(|value| value.parse::<usize>().ok()).unwrap_or(1);
            let (bottom, right) = (top + span("rowspan"), left + span("colspan"));
            for at in (top..bottom).flat_map(|row| (left..right).map(move |column| (row, column))) {
                assert!(taken.insert(at), "cells lie on each other at {at:?}");
            }
            let words = dom.words_below(node).trim().to_owned();
            // Tables of Markdown have a head, be it empty.
            if !words.is_empty() {
                tiles.push(Tile { words, top, left, bottom, right });
            }
            left = right;
        }
        assert!(tiles.iter().all(|tile: &Tile| tile.bottom <= rows.len()), "a cell goes on below the table");
    }
    tiles
}

/// The cells by their words, with rows and columns counted in which any begins: others can't be told from none.
fn places(tiles: &[Tile]) -> BTreeMap<String, [usize; 4]> {
    let rows: BTreeSet<usize> = tiles.iter().map(|tile| tile.top).collect();
    let columns: BTreeSet<usize> = tiles.iter().map(|tile| tile.left).collect();
    let place = |lines: &BTreeSet<usize>, at: usize| lines.range(..at).count();
    let of = |tile: &Tile| {
        [place(&rows, tile.top), place(&columns, tile.left), place(&rows, tile.bottom), place(&columns, tile.right)]
    };
    tiles.iter().map(|tile| (tile.words.clone(), of(tile))).collect()
}

fn converted(source: &[u8], reads: Format, writes: Format, settings: &[&str]) -> String {
    convert(source, reads, writes, settings).into_text().unwrap()
}

proptest! {
    #![proptest_config(ProptestConfig { cases: 300, failure_persistence: None, ..ProptestConfig::default() })]

    #[test]
    fn merged_cells_stay_where_they_are((rows, columns, tiles) in tilings()) {
        let expected = places(&tiles);
        let sources = [(Format::Html, in_html(rows, &tiles).into_bytes()), (Format::Word, in_word(rows, columns, &tiles))];
        for (reads, source) in &sources {
            for settings in [&[][..], &["styling=exact"], &["clean.table-heads=always"]] {
                let html = converted(source, *reads, Format::Html, settings);
                let dom = dom::fragment(&html);
                prop_assert!(dom.errors.is_empty(), "{:?}", dom.errors);
                prop_assert_eq!(places(&tiles_of(&dom)), expected.clone(), "{} {:?}\n{}", reads.name(), settings, html);
            }
            // A single cell is a box around text, which Markdown does not have.
            if tiles.len() == 1 {
                continue;
            }
            // As HTML within Markdown, and back.
            let markdown = converted(source, *reads, Format::Markdown, &[]);
            let back = converted(markdown.as_bytes(), Format::Markdown, Format::Html, &[]);
            prop_assert_eq!(places(&tiles_of(&dom::fragment(&back))), expected.clone(), "{}\n{}", markdown, back);
            // As a table of a word processor, and back.
            let package = convert(source, *reads, Format::Word, &[]).bytes;
            prop_assert_eq!(faults(&package), Vec::<String>::new());
            let back = converted(&package, Format::Word, Format::Html, &[]);
            prop_assert_eq!(places(&tiles_of(&dom::fragment(&back))), expected.clone(), "through Word\n{}", back);
            // Where cells can't be merged, their words are all there, in order.
            for (writes, settings) in [(Format::Markdown, "markdown.html=drop"), (Format::Text, "text.width=0")] {
                let text = converted(source, *reads, writes, &[settings]);
                let words: Vec<usize> = tiles.iter().filter_map(|tile| text.find(&tile.words)).collect();
                prop_assert_eq!(words.len(), tiles.len(), "{}", text);
            }
        }
    }
}
