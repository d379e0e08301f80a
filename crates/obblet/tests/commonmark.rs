//! Every example of the CommonMark specification, and pages that other programs wrote: data that is not in this repository. Where
//! it is not there, these tests show as ignored; where `OBBLET_CONFORMANCE` or `OBBLET_CORPUS` names its folder, they run and
//! fail without it.
#![allow(missing_docs, clippy::unwrap_used, clippy::panic, clippy::print_stderr, reason = "tests")]

mod support;

use libtest_mimic::{Arguments, Failed, Trial};
use obblet::document::Kind;
use obblet::formats::{html, markdown};
use obblet::profile::Profile;
use obblet::{Format, convert};
use std::path::{Path, PathBuf};
use support::convert::normal;
use support::dom;

#[derive(Debug, serde::Deserialize)]
struct Example {
    example: u32,
    section: String,
    markdown: String,
    html: String,
}

/// Where the examples are: in the folder that the environment names, or beside the repository.
fn file() -> (PathBuf, bool) {
    let named = std::env::var_os("OBBLET_CONFORMANCE").map(PathBuf::from);
    let beside = || Path::new(env!("CARGO_MANIFEST_DIR")).join("../../../shared/conformance");
    let is_named = named.is_some();
    (named.unwrap_or_else(beside).join("commonmark-0.31.2.json"), is_named)
}

fn load() -> Result<Vec<Example>, Failed> {
    let (path, _) = file();
    let bytes = std::fs::read(&path).map_err(|error| format!("{}: {error}", path.display()))?;
    let examples: Vec<Example> = serde_json::from_slice(&bytes).map_err(|error| error.to_string())?;
    if examples.len() == 652 { Ok(examples) } else { Err(format!("{} examples instead of 652", examples.len()).into()) }
}

/// Each is compared as a parsed tree.
fn all_examples_of_the_specification() -> Result<(), Failed> {
    let settings = html::Settings { raw: html::Raw::Keep, trust: html::Trust::Own, ..html::Settings::default() };
    let options = html::Options { settings: &settings, mends: html::Mends::empty(), ..html::Options::default() };
    let mut failures = Vec::new();
    for example in load()? {
        let doc = markdown::read(example.markdown.as_bytes(), &markdown::Settings::COMMONMARK);
        let written = html::write(&doc, &options).html;
        if dom::fragment(&example.html).outline() != dom::fragment(&written).outline() {
            let Example { example, section, markdown, html } = example;
            failures.push(format!("example {example} ({section}):\n{markdown:?}\nexpected {html}\nactual   {written:?}"));
        }
    }
    if failures.is_empty() { Ok(()) } else { Err(format!("{} of 652 fail\n{}", failures.len(), failures.join("\n\n")).into()) }
}

/// Markdown to LaTeX and to HTML: no word is lost.
fn every_example_goes_through_latex() -> Result<(), Failed> {
    let profile = Profile::default();
    let fragment = Profile::fragment();
    let mut failures = Vec::new();
    for Example { example, markdown, .. } in load()? {
        let page = convert(markdown.as_bytes(), Format::Markdown, Format::Html, &fragment).unwrap().into_text().unwrap();
        let written = convert(markdown.as_bytes(), Format::Markdown, Format::Latex, &profile).unwrap();
        let back = convert(&written.bytes, Format::Latex, Format::Html, &fragment).unwrap().into_text().unwrap();
        let shown = support::conservation::shown;
        let lost = support::conservation::lost(&shown(&page), &shown(&back), &written.findings);
        if !lost.is_empty() {
            failures.push(format!("{example}: {lost:?} of {markdown:?}\n{}", written.text().unwrap_or_default()));
        }
    }
    if failures.is_empty() { Ok(()) } else { Err(format!("{} of 652 fail\n{}", failures.len(), failures.join("\n\n")).into()) }
}

/// Markdown to HTML, back, and there again.
fn every_example_comes_back() -> Result<(), Failed> {
    let mut failures = Vec::new();
    for example in load()? {
        for dialect in ["commonmark", "github"] {
            let mut profile = Profile::built_in("fragment").unwrap();
            profile.set(&format!("markdown.dialect={dialect}")).unwrap();
            let html =
                |source: &str| convert(source.as_bytes(), Format::Markdown, Format::Html, &profile).unwrap().into_text().unwrap();
            let back =
                |source: &str| convert(source.as_bytes(), Format::Html, Format::Markdown, &profile).unwrap().into_text().unwrap();
            let first = html(&example.markdown);
            let returned = back(&first);
            let second = html(&returned);
            let again = html(&back(&second));
            let read = markdown::read(example.markdown.as_bytes(), &profile.formats.markdown);
            let has_raw = read.nodes().any(|(_, node)| matches!(node.kind(), Kind::Raw { .. } | Kind::RawBlock { .. }));
            if second != again || (!has_raw && normal(&second) != normal(&first)) {
                let (number, markdown) = (example.example, &example.markdown);
                failures.push(format!(
                    "=== {number} {dialect}\n{markdown:?}\n--- first\n{first}--- back\n{returned}--- second\n{second}--- again\n{again}"
                ));
            }
        }
    }
    if failures.is_empty() { Ok(()) } else { Err(failures.join("\n").into()) }
}

fn main() {
    let (path, is_named) = file();
    let lacks_examples = !is_named && !path.is_file();
    let lacks_pages = std::env::var_os("OBBLET_CORPUS").is_none();
    let trials = vec![
        Trial::test("all_examples_of_the_specification", all_examples_of_the_specification).with_ignored_flag(lacks_examples),
        Trial::test("every_example_comes_back", every_example_comes_back).with_ignored_flag(lacks_examples),
        Trial::test("every_example_goes_through_latex", every_example_goes_through_latex).with_ignored_flag(lacks_examples),
        Trial::test("a_corpus_of_pages", || support::corpus::no_word_is_lost().map_err(Failed::from))
            .with_ignored_flag(lacks_pages),
    ];
    libtest_mimic::run(&Arguments::from_args(), trials).exit();
}
