//! The demo handbook: nothing of it is lost, and it comes out as it did before.
#![allow(missing_docs, clippy::unwrap_used, clippy::panic, clippy::print_stderr, reason = "tests")]

use crate::support;

use obblet::Format;
use obblet::document::Weight;
use obblet::profile::Layers;
use obblet::profile::Profile;
use obblet::publish::{self, Options, Plan, Progress, Step};
use std::path::{Path, PathBuf};
use support::conservation::{self, shown};
use support::convert::convert;
use support::dom;

fn demo() -> PathBuf {
    Path::new(env!("CARGO_MANIFEST_DIR")).join("../../demo")
}

fn documents() -> Vec<(PathBuf, String)> {
    let entries = publish::documents(&demo()).unwrap();
    assert!(entries.len() >= 8);
    entries
        .into_iter()
        .filter(|entry| entry.format == Format::Markdown)
        .map(|entry| (entry.source.clone(), std::fs::read_to_string(demo().join(&entry.source)).unwrap()))
        .collect()
}

/// The text that a reader of the source sees: without addresses, tags, labels, and languages of code.
fn visible(source: &str) -> String {
    let body = source.strip_prefix("---\n").and_then(|rest| rest.split_once("\n---\n")).map_or(source, |(_, body)| body);
    let is_definition = |line: &&str| line.starts_with('[') && !line.starts_with("[^") && line.contains("]: ");
    let content = |line: &'_ str| {
        line.trim_start_matches(|c: char| c.is_ascii_digit() || c == ' ').trim_start_matches(". ").to_owned() + "\n"
    };
    let numbered = |line: &str| line.trim_start().split_once(". ").is_some_and(|(number, _)| number.parse::<u32>().is_ok());
    let lines = body.lines().filter(|line| !is_definition(line));
    let mut text: String = lines.map(|line| if numbered(line) { content(line) } else { line.to_owned() + "\n" }).collect();
    for (open, close) in [("](", ")"), ("][", "]"), ("[^", "]"), ("[x", "]"), ("<", ">"), ("```", "\n")] {
        let mut rest = std::mem::take(&mut text);
        while let Some(at) = rest.find(open) {
            let inner = at + open.len();
            let end = rest[inner..].find(close).map_or(rest.len(), |end| inner + end + close.len());
            // An address in angle brackets is its own text.
            let kept = if rest[at..end].contains('@') { &rest[at..end] } else { " " };
            text += &(rest[..at].to_owned() + kept);
            rest = rest.split_off(end);
        }
        text += &rest;
    }
    text
}

#[test]
fn the_words_of_every_document_are_in_its_page() {
    for (path, source) in documents() {
        let converted = convert(source.as_bytes(), Format::Markdown, Format::Html, &[]);
        let dom = dom::fragment(converted.text().unwrap());
        let seen = |node: usize| format!("{}{} ", dom.nodes[node].text, dom.attribute(node, "alt").unwrap_or_default());
        let output: String = dom.order().into_iter().map(seen).collect();
        let lost = conservation::lost(&visible(&source), &output, &converted.findings);
        assert!(lost.is_empty(), "{}: {lost:?}", path.display());
    }
}

#[test]
fn the_words_of_every_saved_page_are_in_all_that_becomes_of_it() {
    for name in ["index", "visiting", "register"] {
        let source = std::fs::read(demo().join(format!("old-site/{name}.html"))).unwrap();
        let (text, _, _) = encoding_rs::WINDOWS_1252.decode(&source);
        let text = std::str::from_utf8(&source).map_or_else(|_| text.to_string(), str::to_owned);
        for format in [Format::Html, Format::Markdown, Format::Text] {
            let mut profile = Profile::built_in("fragment").unwrap();
            // Notes stand at the end of what they are notes of.
            profile.set("html.content=main").unwrap();
            let converted = obblet::convert(&source, Format::Html, format, &profile).unwrap();
            let output = if format == Format::Html {
                shown(converted.text().unwrap())
            } else {
                converted.text().unwrap().replace("&nbsp;", " ")
            };
            let lost = conservation::lost(&shown(&text), &output, &converted.findings);
            assert!(lost.is_empty(), "{name} as {}: {lost:?}\n{}", format.name(), converted.text().unwrap());
        }
    }
}

#[derive(Default)]
struct Seen(Vec<(String, usize)>);

impl Progress for Seen {
    fn step(&mut self, step: &Step<'_>) {
        assert!(step.error.is_none(), "{step:?}");
        let heavy = step.findings.iter().filter(|finding| finding.weight != Weight::Advice).count();
        self.0.extend(step.outputs.iter().map(|output| ((*output).to_owned(), heavy)));
    }
}

#[test]
fn the_site_has_every_page_and_no_dead_link() {
    let folder = tempfile::tempdir().unwrap();
    let mut seen = Seen::default();
    let options = Options::new(Layers::new(Profile::built_in("page").unwrap()));
    let summary = Plan::new(&demo(), folder.path(), options).unwrap().run(&mut seen).unwrap();
    // The template of Word documents is none of them.
    assert_eq!((summary.converted, summary.failed), (publish::documents(&demo()).unwrap().len() - 1, 0));
    seen.0.retain(|(output, _)| output.ends_with(".html"));
    // The saved pages have scripts, forms and players that no page of ours has, the papers changes and comments; plans say
    // themselves what they leave out.
    let came_from_elsewhere = |page: &str| ["old-site", "inbox", "word", "plans"].iter().any(|folder| page.starts_with(folder));
    assert!(seen.0.iter().all(|(page, heavy)| *heavy == 0 || came_from_elsewhere(page)), "{:?}", seen.0);
    for (page, _) in &seen.0 {
        let path = folder.path().join(page);
        let dom = dom::page(&std::fs::read_to_string(&path).unwrap());
        assert!(dom.errors.is_empty(), "{page}: {:?}", dom.errors);
        for node in dom.order() {
            for address in
                ["href", "src"].iter().filter_map(|name| dom.attribute(node, name)).filter(|address| !address.contains(':'))
            {
                // The one that went with the old site.
                if address == "float.ogg" {
                    continue;
                }
                let (file, fragment) = address.split_once('#').map_or((address, None), |(file, fragment)| (file, Some(fragment)));
                let target = if file.is_empty() { path.clone() } else { path.parent().unwrap().join(file) };
                assert!(target.is_file(), "{page}: {address}");
                if let Some(fragment) = fragment {
                    let fragment = percent_encoding::percent_decode_str(fragment).decode_utf8().unwrap();
                    let target = std::fs::read_to_string(target).unwrap();
                    assert!(target.contains(&format!(" id=\"{fragment}\"")), "{page}: {address}");
                }
            }
        }
    }
}

#[test]
fn a_whole_small_document() {
    let source = std::fs::read(demo().join("people/rota.md")).unwrap();
    insta::assert_snapshot!(convert(&source, Format::Markdown, Format::Html, &["html.indent=2"]).into_text().unwrap());
}

/// The words that a Word document shows, found without its reader: those of its runs, but for what was deleted, what is an
/// alternative or hidden, and instructions of fields.
fn words_of_package(bytes: &[u8]) -> String {
    use std::io::Read;
    let mut archive = zip::ZipArchive::new(std::io::Cursor::new(bytes)).unwrap();
    let mut text = String::new();
    for part in ["word/document.xml", "word/footnotes.xml"] {
        let mut markup = String::new();
        let Ok(mut file) = archive.by_name(part) else { continue };
        file.read_to_string(&mut markup).unwrap();
        while let Some((start, end)) = markup.find("<mc:Fallback>").zip(markup.find("</mc:Fallback>")) {
            markup.replace_range(start..end, "");
            markup = markup.replacen("</mc:Fallback>", "", 1);
        }
        // What stands above a text comes behind it in a page.
        if let Some((start, end)) = markup.find("<w:rt>").zip(markup.find("</w:rt>")) {
            let above = markup[start..end].to_owned();
            markup.replace_range(start..end, "");
            markup = markup.replace("</w:rubyBase>", &format!("</w:rubyBase><w:br/>{above}"));
        }
        // A large first letter belongs to the paragraph behind it.
        if let Some(at) = markup.find("w:dropCap").and_then(|at| Some(at + markup[at..].find("</w:p><w:p>")?)) {
            markup.replace_range(at..at + "</w:p><w:p>".len(), "");
        }
        for piece in markup.split("<w:").skip(1) {
            if let Some((_, words)) = piece.split_once('>').filter(|_| piece.starts_with("t>") || piece.starts_with("t ")) {
                text.push_str(&words.split('<').next().unwrap_or_default().replace("&lt;", "<").replace("&amp;", "&"));
            } else if ["p>", "p ", "br", "tab/", "tc", "vertAlign"].iter().any(|name| piece.starts_with(name)) {
                text.push(' ');
            }
        }
    }
    text
}

#[test]
fn word_documents_lose_nothing_and_become_valid_pages_in_every_styling() {
    let entries = publish::documents(&demo()).unwrap();
    let documents: Vec<_> = entries.into_iter().filter(|entry| entry.format == Format::Word).collect();
    assert!(documents.len() >= 6);
    for entry in documents {
        let bytes = std::fs::read(demo().join(&entry.source)).unwrap();
        for styling in ["semantic", "named", "exact"] {
            for shape in ["page", "fragment"] {
                let mut profile = Profile::built_in("page").unwrap();
                for setting in [format!("styling={styling}"), format!("shape={shape}"), "page.contents=0".to_owned()] {
                    profile.set(&setting).unwrap();
                }
                let converted = obblet::convert(&bytes, Format::Word, Format::Html, &profile).unwrap();
                let name = format!("{} {styling} {shape}", entry.source.display());
                if shape == "fragment" {
                    let faults = support::validity::faults(converted.text().unwrap());
                    let faults: Vec<_> =
                        faults.into_iter().filter(|fault| styling == "semantic" || !fault.contains("class")).collect();
                    assert!(faults.is_empty(), "{name}: {faults:#?}");
                }
                let lost = conservation::lost(&words_of_package(&bytes), &shown(converted.text().unwrap()), &converted.findings);
                assert!(lost.is_empty(), "{name}: {lost:?}");
                assert_eq!(
                    converted.text().unwrap(),
                    obblet::convert(&bytes, Format::Word, Format::Html, &profile).unwrap().into_text().unwrap(),
                    "{name}"
                );
            }
        }
    }
}
