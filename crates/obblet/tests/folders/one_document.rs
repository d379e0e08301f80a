//! One document in three formats: whatever a writer says in Markdown, in HTML and in a word processor becomes the same page,
//! has the same outline and the same counts.
#![allow(missing_docs, clippy::unwrap_used, clippy::panic, clippy::print_stderr, reason = "tests")]

use crate::support;

use obblet::compare::compare;
use obblet::inspect::inspect;
use obblet::profile::Profile;
use obblet::{Context, Format, convert, read};
use proptest::prelude::*;
use support::package::{Package, cell, item, levels, numbering, paragraph, row, run, style, table};

/// A piece of a line: words, and how they are set.
#[derive(Clone, Debug)]
enum Piece {
    Plain(String),
    Strong(String),
    Slanted(String),
    Code(String),
    Link(String, usize),
}

#[derive(Clone, Debug)]
enum Block {
    Heading(u32, String),
    Paragraph(Vec<Piece>),
    Quote(String),
    Code(String),
    /// Items with their levels, the first of which is 0 and each at most one more than the one before.
    List(bool, Vec<(u32, String)>),
    /// The head and the rows of a table of two columns.
    Table(Vec<[String; 2]>),
}

const ADDRESSES: [&str; 3] = ["https://greywick.example/", "tides.html", "mailto:keeper@greywick.example"];

fn words() -> impl Strategy<Value = String> {
    let word = prop::sample::select(vec!["tide", "gauge", "float", "pier", "neap", "Flut", "marée", "潮", "6", "low"]);
    prop::collection::vec(word, 1..5).prop_map(|words| words.join(" "))
}

fn pieces() -> impl Strategy<Value = Vec<Piece>> {
    let piece = prop_oneof![
        words().prop_map(Piece::Strong),
        words().prop_map(Piece::Slanted),
        words().prop_map(Piece::Code),
        (words(), 0..ADDRESSES.len()).prop_map(|(words, address)| Piece::Link(words, address)),
    ];
    // Plain words stand between pieces that are set apart, as in most writing.
    (words(), prop::collection::vec((piece, words()), 0..3)).prop_map(|(first, rest)| {
        let mut all = vec![Piece::Plain(first)];
        for (piece, words) in rest {
            all.extend([piece, Piece::Plain(words)]);
        }
        all
    })
}

fn list() -> impl Strategy<Value = Block> {
    (any::<bool>(), prop::collection::vec((0..3u32, words()), 1..6)).prop_map(|(ordered, items)| {
        let mut deepest = 0;
        let items = items.into_iter().map(|(level, words)| {
            let level = level.min(deepest);
            deepest = level + 1;
            (level, words)
        });
        Block::List(ordered, items.collect())
    })
}

fn document() -> impl Strategy<Value = Vec<Block>> {
    let block = prop_oneof![
        2 => (1..4u32, words()).prop_map(|(level, words)| Block::Heading(level, words)),
        3 => pieces().prop_map(Block::Paragraph),
        2 => list(),
        1 => words().prop_map(Block::Quote),
        1 => words().prop_map(Block::Code),
        1 => prop::collection::vec([words(), words()], 2..4).prop_map(Block::Table),
    ];
    prop::collection::vec(block, 1..8).prop_map(|blocks| {
        // A heading first, and none that leaves out a level; words between lists, quotes and code, which would else be one.
        let mut all = vec![Block::Heading(1, "Station".to_owned())];
        let mut level = 1;
        for block in blocks {
            let runs_on = matches!(
                (all.last(), &block),
                (Some(Block::List(..)), Block::List(..))
                    | (Some(Block::Quote(_)), Block::Quote(_))
                    | (Some(Block::Code(_)), Block::Code(_))
            );
            if runs_on {
                all.push(Block::Paragraph(vec![Piece::Plain("between".to_owned())]));
            }
            all.push(match block {
                Block::Heading(wanted, words) => {
                    level = wanted.clamp(2, level + 1);
                    Block::Heading(level, words)
                }
                block => block,
            });
        }
        all
    })
}

fn in_markdown(blocks: &[Block]) -> String {
    let piece = |piece: &Piece| match piece {
        Piece::Plain(words) => words.clone(),
        Piece::Strong(words) => format!("**{words}**"),
        Piece::Slanted(words) => format!("*{words}*"),
        Piece::Code(words) => format!("`{words}`"),
        Piece::Link(words, address) => format!("[{words}]({})", ADDRESSES[*address]),
    };
    let block = |block: &Block| match block {
        Block::Heading(level, words) => format!("{} {words}", "#".repeat(*level as usize)),
        Block::Paragraph(pieces) => pieces.iter().map(piece).collect::<Vec<_>>().join(" "),
        Block::Quote(words) => format!("> {words}"),
        Block::Code(words) => format!("```\n{words}\n```"),
        Block::List(ordered, items) => {
            let (mark, step) = if *ordered { ("1.", 3) } else { ("-", 2) };
            let lines = items.iter().map(|(level, words)| format!("{}{mark} {words}", " ".repeat(step * *level as usize)));
            lines.collect::<Vec<_>>().join("\n")
        }
        Block::Table(rows) => {
            let mut lines: Vec<String> = rows.iter().map(|[a, b]| format!("| {a} | {b} |")).collect();
            lines.insert(1, "|---|---|".to_owned());
            lines.join("\n")
        }
    };
    blocks.iter().map(block).collect::<Vec<_>>().join("\n\n")
}

fn in_html(blocks: &[Block]) -> String {
    let piece = |piece: &Piece| match piece {
        Piece::Plain(words) => words.clone(),
        Piece::Strong(words) => format!("<span style='font-weight: 700'>{words}</span>"),
        Piece::Slanted(words) => format!("<I>{words}</I>"),
        Piece::Code(words) => format!("<tt>{words}</tt>"),
        Piece::Link(words, address) => format!("<a href={}>{words}</a>", ADDRESSES[*address]),
    };
    let block = |block: &Block| match block {
        Block::Heading(level, words) => format!("<h{level}>{words}</h{level}>"),
        Block::Paragraph(pieces) => format!("<p>{}", pieces.iter().map(piece).collect::<Vec<_>>().join(" ")),
        Block::Quote(words) => format!("<blockquote><p>{words}</blockquote>"),
        Block::Code(words) => format!("<pre>{words}</pre>"),
        Block::List(ordered, items) => {
            let name = if *ordered { "ol" } else { "ul" };
            let (mut html, mut depth) = (String::new(), 0);
            for (level, words) in items {
                while depth <= *level {
                    html += &format!("<{name}>");
                    depth += 1;
                }
                while depth > level + 1 {
                    html += &format!("</{name}>");
                    depth -= 1;
                }
                html += &format!("<li>{words}");
            }
            html + &format!("</{name}>").repeat(depth as usize)
        }
        Block::Table(rows) => {
            let line = |name: &str, [a, b]: &[String; 2]| format!("<tr><{name}>{a}<{name}>{b}");
            let body: String = rows[1..].iter().map(|row| line("td", row)).collect();
            format!("<table border=1><thead>{}</thead>{body}</table>", line("th", &rows[0]))
        }
    };
    blocks.iter().map(block).collect()
}

fn in_word(blocks: &[Block]) -> Vec<u8> {
    let piece = |piece: &Piece| match piece {
        Piece::Plain(words) => run("", words),
        Piece::Strong(words) => run("<w:b/>", words),
        Piece::Slanted(words) => run("<w:i/>", words),
        Piece::Code(words) => run("<w:rFonts w:ascii=\"Courier New\"/>", words),
        Piece::Link(words, address) => format!("<w:hyperlink r:id=\"link{address}\">{}</w:hyperlink>", run("", words)),
    };
    let space = run("", " ");
    let mut definitions = Vec::new();
    let mut body = String::new();
    for block in blocks {
        body += &match block {
            Block::Heading(level, words) => paragraph(&format!("<w:pStyle w:val=\"H{level}\"/>"), &run("", words)),
            Block::Paragraph(pieces) => paragraph("", &pieces.iter().map(piece).collect::<Vec<_>>().join(&space)),
            Block::Quote(words) => paragraph("<w:pStyle w:val=\"Q\"/>", &run("", words)),
            Block::Code(words) => paragraph("<w:pStyle w:val=\"C\"/>", &run("", words)),
            Block::List(ordered, items) => {
                let number = definitions.len() as u32 + 1;
                let format = if *ordered { ["decimal", "%1.", "%2.", "%3."] } else { ["bullet", "•", "o", "–"] };
                definitions.push((number, levels(&[(format[0], format[1]), (format[0], format[2]), (format[0], format[3])])));
                items.iter().map(|(level, words)| item(number, *level, words)).collect()
            }
            Block::Table(rows) => {
                let line = |(index, [a, b]): (usize, &[String; 2])| {
                    let cells = [a, b].map(|words| cell("", &paragraph("", &run("", words))));
                    row(if index == 0 { "<w:tblHeader/>" } else { "" }, &cells)
                };
                table("", &[1000, 1000], &rows.iter().enumerate().map(line).collect::<Vec<_>>())
            }
        };
    }
    let headings = |level: u32| style(&format!("H{level}"), &format!("heading {level}"), "", "", "<w:b/>");
    let links = ADDRESSES.iter().enumerate().map(|(index, address)| (format!("link{index}"), (*address).to_owned()));
    let package = Package {
        styles: (1..=4).map(headings).collect::<String>()
            + &style("Q", "Quote", "", "", "<w:i/>")
            + &style("C", "HTML Preformatted", "", "", ""),
        numbering: numbering(&definitions),
        links: links.collect(),
        ..Package::of(&body)
    };
    package.bytes()
}

proptest! {
    #[test]
    fn three_formats_one_page(blocks in document()) {
        let fragment = Profile::built_in("fragment").unwrap();
        let sources = [
            (Format::Markdown, in_markdown(&blocks).into_bytes()),
            (Format::Html, in_html(&blocks).into_bytes()),
            (Format::Word, in_word(&blocks)),
        ];
        let page = |(format, source): &(Format, Vec<u8>)| convert(source, *format, Format::Html, &fragment).unwrap().into_text().unwrap();
        let pages: Vec<String> = sources.iter().map(page).collect();
        prop_assert_eq!(&pages[0], &pages[1], "{}", in_html(&blocks));
        prop_assert_eq!(&pages[0], &pages[2]);
        let looks: Vec<_> = sources
            .iter()
            .map(|(format, source)| {
                let seen = inspect(source, *format, &fragment, &Context::default()).unwrap();
                let outline: Vec<(u8, String)> = seen.outline.into_iter().map(|entry| (entry.level, entry.text)).collect();
                (outline, seen.counts.named(), seen.sizes.words, seen.links.elsewhere, seen.links.contacts)
            })
            .collect();
        prop_assert_eq!(&looks[0], &looks[1]);
        prop_assert_eq!(&looks[0], &looks[2]);
        let documents: Vec<_> = sources.iter().map(|(format, source)| read(source, *format, &fragment).unwrap()).collect();
        for other in &documents[1..] {
            let comparison = compare(&documents[0], other);
            prop_assert!(comparison.is_same(), "{:?}", comparison.differences);
        }
    }
}
