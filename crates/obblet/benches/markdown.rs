//! Markdown to HTML, against the floor: parsing the HTML that comes out, and keeping nothing of it.
//!
//! Times mean little on a busy machine; what counts is the ratio of two that were taken in one run.
#![allow(missing_docs, clippy::print_stdout, clippy::unwrap_used, reason = "a bench prints its result")]

#[path = "support/handbook.rs"]
mod handbook;
#[path = "support/nothing.rs"]
mod nothing;
#[path = "support/timing.rs"]
mod timing;

use criterion::{Criterion, Throughput};
use handbook::{handbook, prose};
use obblet::formats::{html, markdown};
use std::hint::black_box;
use timing::best;

fn convert(source: &str) -> String {
    let doc = markdown::read(source.as_bytes(), &markdown::Settings::GITHUB);
    html::write(&doc, &html::Options::default()).html
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
