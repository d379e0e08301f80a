//! Markdown to HTML, against the floor: parsing the HTML that comes out, and keeping nothing of it.
//!
//! Times mean little on a busy machine; what counts is the ratio of two that were taken in one run.
#![allow(missing_docs, clippy::print_stdout, clippy::unwrap_used, reason = "a bench prints its result")]

#[path = "support/nothing.rs"]
mod nothing;
#[path = "support/timing.rs"]
mod timing;

use criterion::{Criterion, Throughput};
use obblet::formats::{html, markdown};
use std::hint::black_box;
use std::path::{Path, PathBuf};
use timing::best;

fn convert(source: &str) -> String {
    let doc = markdown::read(source.as_bytes(), &markdown::Settings::GITHUB);
    html::write(&doc, &html::Options::default()).html
}

/// The demo's documents, without those that hold raw HTML, so often that there is something to measure.
fn handbook() -> String {
    let mut folders = vec![Path::new(env!("CARGO_MANIFEST_DIR")).join("../../demo")];
    let mut files: Vec<PathBuf> = Vec::new();
    while let Some(folder) = folders.pop() {
        for item in std::fs::read_dir(folder).unwrap() {
            let path = item.unwrap().path();
            if path.is_dir() {
                folders.push(path);
            } else if path.extension().is_some_and(|extension| extension == "md") {
                files.push(path);
            }
        }
    }
    files.sort();
    let body = |text: String| text.split_once("\n---\n").map_or(text.clone(), |(_, body)| body.to_owned());
    let texts: Vec<String> =
        files.iter().map(|file| body(std::fs::read_to_string(file).unwrap())).filter(|text| !text.contains("</")).collect();
    texts.join("\n\n").repeat(20)
}

/// Paragraphs and headings, with a little emphasis.
fn prose() -> String {
    let words: Vec<String> =
        handbook().split(|c: char| !c.is_alphabetic()).filter(|word| word.len() > 1).map(str::to_owned).collect();
    let line = |words: &[String]| words.join(" ");
    words
        .chunks(90)
        .enumerate()
        .map(|(number, words)| {
            let heading = if number % 6 == 0 { format!("## {}\n\n", line(&words[..words.len().min(4)])) } else { String::new() };
            heading
                + &words.chunks(13).map(line).collect::<Vec<_>>().join("\n").replacen(' ', " *", 1).replacen('\n', "*\n", 1)
                + "\n\n"
        })
        .collect()
}

/// Ten thousand formulas.
fn formulas() -> String {
    let all = include_str!("../tests/data/formulas.txt");
    let each = all.lines().filter(|line| !line.is_empty() && !line.starts_with("# ")).map(|line| format!("$$\n{line}\n$$\n\n"));
    each.collect::<Vec<_>>().iter().cycle().take(10_000).map(String::as_str).collect()
}

fn main() {
    let mut criterion = Criterion::default().configure_from_args().sample_size(20);
    for (name, source) in [("handbook", handbook()), ("prose", prose()), ("formulas", formulas())] {
        let html = convert(&source);
        let mut group = criterion.benchmark_group(name);
        group.throughput(Throughput::Bytes(source.len() as u64));
        group.bench_function("markdown to HTML", |bench| bench.iter(|| convert(black_box(&source))));
        group.bench_function("floor: parsing the HTML", |bench| bench.iter(|| nothing::parse(black_box(&html))));
        group.finish();
        let (own, floor) = (best(|| drop(black_box(convert(&source)))), best(|| assert!(black_box(nothing::parse(&html)) > 0)));
        println!(
            "{name}: {} bytes of Markdown, {} bytes of HTML; 1/{:.2} of the floor (goal: 1/3)\n",
            source.len(),
            html.len(),
            floor.as_secs_f64() / own.as_secs_f64()
        );
    }
    criterion.final_summary();
}
