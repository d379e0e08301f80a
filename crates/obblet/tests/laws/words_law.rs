//! A law of all passes: the words of a document, joined by white space, are the same before and after any of them that does not
//! say otherwise.
#![allow(missing_docs, clippy::unwrap_used, clippy::panic, reason = "tests")]

use crate::support;

use obblet::document::{Document, Kind, Step};
use obblet::profile::Profile;
use obblet::refine::{Cleaning, clean};
use obblet::{Format, read};
use proptest::prelude::*;
use support::trees;

/// Passes that change how words look, stand or are joined in blocks, and no words. Passes that make lists take the markers that
/// somebody typed out of the text.
const PASSES: [&str; 20] = [
    "clean.layout-tables=true",
    "clean.tab-columns=true",
    "clean.anchors=always",
    "clean.formatting=always",
    "clean.white-space=always",
    "clean.spacers=true",
    "clean.empty=always",
    "clean.lone-paragraphs=always",
    "clean.table-heads=always",
    "clean.redirects=true",
    "clean.bold=remove",
    "clean.stop-spaces=one",
    "clean.stop-spaces=two",
    "clean.tabs=space",
    "clean.quotes=straight",
    "clean.line-breaks=space",
    "clean.line-breaks=paragraphs",
    "clean.paragraphs=breaks",
    "clean.paragraphs=blank-lines",
    "clean.inline=classes",
];

/// The words of a document and its notes. What has no width is no part of a word, and quotation marks are all alike.
fn words(doc: &Document) -> Vec<String> {
    let mut text = String::new();
    for top in std::iter::once(doc.root()).chain(doc.notes.iter().map(|note| note.body)) {
        for step in doc.walk(top) {
            let (Step::Enter(id) | Step::Leave(id)) = step;
            match doc.kind(id) {
                Kind::Text(words) | Kind::Code(words) if matches!(step, Step::Enter(_)) => text.push_str(doc.text(words)),
                Kind::CodeBlock { code, .. } if matches!(step, Step::Enter(_)) => {
                    text.push(' ');
                    text.push_str(doc.text(code));
                    text.push(' ');
                }
                kind if !kind.is_inline() || matches!(kind, Kind::LineBreak | Kind::SoftBreak) => text.push(' '),
                _ => {}
            }
        }
        text.push(' ');
    }
    let is_nothing = |c: &char| !matches!(c, '\u{AD}' | '\u{200B}'..='\u{200F}' | '\u{2060}' | '\u{FEFF}' | '\u{1}' | '\u{FFFE}');
    let straight = |c| match c {
        '\u{2018}' | '\u{2019}' | '\u{201A}' | '\u{2039}' | '\u{203A}' => '\'',
        '\u{201C}' | '\u{201D}' | '\u{201E}' | '\u{AB}' | '\u{BB}' => '"',
        c => c,
    };
    let text: String = text.chars().filter(is_nothing).map(straight).collect();
    text.split_whitespace().map(str::to_owned).collect()
}

/// The passes that change the words of a document, and what they make of them.
fn damage(doc: &Document) -> Vec<String> {
    let before = words(doc);
    let mut damage = Vec::new();
    for pass in PASSES {
        let mut profile = Profile { clean: Cleaning::none(), ..Profile::default() };
        profile.set(pass).unwrap();
        let mut doc = doc.clone();
        clean(&mut doc, &profile.clean);
        let after = words(&doc);
        if after != before {
            let place = before.iter().zip(&after).position(|(one, other)| one != other).unwrap_or(before.len().min(after.len()));
            let near = |words: &[String]| words[place.saturating_sub(3)..(place + 4).min(words.len())].join(" ");
            damage.push(format!("{pass}: {} became {}", near(&before), near(&after)));
        }
    }
    damage
}

#[track_caller]
fn keeps_words(doc: &Document) {
    assert_eq!(damage(doc), [""; 0]);
}

#[test]
fn no_pass_loses_or_joins_words_of_the_demo() {
    let mut folders = vec![std::path::PathBuf::from(concat!(env!("CARGO_MANIFEST_DIR"), "/../../demo"))];
    // And of documents that other programs wrote, where there are some.
    folders.extend(std::env::var_os("OBBLET_CORPUS").map(std::path::PathBuf::from));
    let (mut count, mut damaged) = (0, Vec::new());
    while let Some(folder) = folders.pop() {
        for entry in std::fs::read_dir(folder).unwrap() {
            let path = entry.unwrap().path();
            let format = path.extension().and_then(|extension| Format::from_extension(extension.to_str()?));
            if path.is_dir() {
                folders.push(path);
            } else if let Some(format) = format.filter(|format| format.is_read()) {
                // What can't be read is told, and is nothing to clean.
                let Ok(doc) = read(&std::fs::read(&path).unwrap(), format, &Profile::default()) else { continue };
                damaged.extend(damage(&doc).into_iter().map(|damage| format!("{}, {damage}", path.display())));
                count += 1;
            }
        }
    }
    assert!(damaged.is_empty(), "{}", damaged.join("\n"));
    assert!(count > 25, "{count} documents");
}

#[test]
fn tabs_and_bold_text_keep_their_words_apart() {
    for html in [
        "<p>the lamp\tis <b>lit</b> at six</p><p>the door\tis <b>shut</b> at six</p>",
        "<p>\tIt came in <b>on</b> the ebb.</p><p>\tThen it <i>went</i> out.</p>",
        "<p>a <b>b</b>\tc</p><p>d<b> e </b>\tf</p>",
        "<p>Tea <b>and</b> cake\t15:00</p><p>Gate <b>opens</b> at\t10:00</p>",
    ] {
        keeps_words(&read(html.as_bytes(), Format::Html, &Profile::default()).unwrap());
    }
}

proptest! {
    #![proptest_config(ProptestConfig { cases: 256, ..ProptestConfig::default() })]

    #[test]
    fn no_pass_loses_or_joins_words_of_any_tree(parts in trees::any()) {
        keeps_words(&trees::tree(&parts));
    }
}
