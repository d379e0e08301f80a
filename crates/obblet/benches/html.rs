//! HTML to Markdown and to clean HTML, against the floor: parsing the same HTML and keeping nothing of it.
#![allow(missing_docs, clippy::print_stdout, clippy::unwrap_used, reason = "a bench prints its result")]

#[path = "support/nothing.rs"]
mod nothing;
#[path = "support/timing.rs"]
mod timing;

use criterion::{Criterion, Throughput};
use obblet::formats::{html, markdown};
use std::hint::black_box;
use std::path::Path;
use timing::best;

fn to_markdown(source: &str) -> String {
    let doc = html::read(source.as_bytes(), &html::ReadOptions::default());
    markdown::write(&doc, &markdown::WriteOptions::default()).text
}

fn to_html(source: &str) -> String {
    let doc = html::read(source.as_bytes(), &html::ReadOptions::default());
    html::write(&doc, &html::Options::default()).html
}

/// The demo's documents as HTML, so often that there is something to measure.
fn handbook() -> String {
    let demo = Path::new(env!("CARGO_MANIFEST_DIR")).join("../../demo");
    let mut text = String::new();
    for entry in obblet::publish::documents(&demo).unwrap() {
        let source = std::fs::read(demo.join(&entry.source)).unwrap();
        let doc = obblet::read(&source, entry.format, &obblet::profile::Profile::default()).unwrap();
        text += &html::write(&doc, &html::Options { usual_ids: html::Ids::None, ..Default::default() }).html;
    }
    text.repeat(20)
}

fn main() {
    let mut criterion = Criterion::default().configure_from_args().sample_size(20);
    let source = handbook();
    let mut group = criterion.benchmark_group("the handbook as HTML");
    group.throughput(Throughput::Bytes(source.len() as u64));
    group.bench_function("to Markdown", |bench| bench.iter(|| to_markdown(black_box(&source))));
    group.bench_function("to clean HTML", |bench| bench.iter(|| to_html(black_box(&source))));
    group.bench_function("floor: parsing it", |bench| bench.iter(|| nothing::parse(black_box(&source))));
    group.finish();
    let floor = best(|| assert!(black_box(nothing::parse(&source)) > 0)).as_secs_f64();
    for (name, convert, goal) in [("Markdown", to_markdown as fn(&str) -> String, 1.25), ("clean HTML", to_html, 1.35)] {
        let own = best(|| drop(black_box(convert(&source)))).as_secs_f64();
        println!("{} bytes of HTML to {name}: {:.2} of the floor (goal: {goal})", source.len(), own / floor);
    }
    criterion.final_summary();
}
