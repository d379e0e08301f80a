//! Org to HTML, against the floor: parsing the HTML that comes out, and keeping nothing of it.
#![allow(missing_docs, clippy::print_stdout, clippy::unwrap_used, reason = "a bench prints its result")]

#[path = "support/nothing.rs"]
mod nothing;
#[path = "support/timing.rs"]
mod timing;

use criterion::{Criterion, Throughput};
use obblet::formats::{html, org};
use obblet::profile::Profile;
use obblet::{Format, convert};
use std::hint::black_box;
use std::path::Path;
use timing::best;

fn to_html(source: &str) -> String {
    let doc = org::read(source.as_bytes(), &org::Settings::default());
    html::write(&doc, &html::Options::default()).html
}

/// The demo's documents as Org, so often that there is something to measure.
fn handbook() -> String {
    let demo = Path::new(env!("CARGO_MANIFEST_DIR")).join("../../demo");
    let profile = Profile::built_in("fragment").unwrap();
    let mut text = String::new();
    for entry in obblet::publish::documents(&demo).unwrap() {
        let source = std::fs::read(demo.join(&entry.source)).unwrap();
        text += &convert(&source, entry.format, Format::Org, &profile).unwrap().into_text().unwrap();
        text += "\n\n";
    }
    text.repeat(20)
}

fn main() {
    let mut criterion = Criterion::default().configure_from_args().sample_size(20);
    let source = handbook();
    let html = to_html(&source);
    let mut group = criterion.benchmark_group("the handbook as Org");
    group.throughput(Throughput::Bytes(source.len() as u64));
    group.bench_function("to HTML", |bench| bench.iter(|| to_html(black_box(&source))));
    group.bench_function("floor: parsing the HTML", |bench| bench.iter(|| nothing::parse(black_box(&html))));
    group.finish();
    let (own, floor) = (best(|| drop(black_box(to_html(&source)))), best(|| assert!(black_box(nothing::parse(&html)) > 0)));
    println!(
        "{} bytes of Org, {} bytes of HTML: 1/{:.2} of the floor (goal: 1/3)",
        source.len(),
        html.len(),
        floor.as_secs_f64() / own.as_secs_f64()
    );
    criterion.final_summary();
}
