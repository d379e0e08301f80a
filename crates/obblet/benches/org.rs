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

/// The demo's documents as Org, each by itself, as they are published.
fn documents() -> Vec<String> {
    let demo = Path::new(env!("CARGO_MANIFEST_DIR")).join("../../demo");
    let profile = Profile::built_in("fragment").unwrap();
    let written = obblet::publish::documents(&demo).unwrap().into_iter().map(|entry| {
        let source = std::fs::read(demo.join(&entry.source)).unwrap();
        convert(&source, entry.format, Format::Org, &profile).unwrap().into_text().unwrap()
    });
    written.collect()
}

fn main() {
    let mut criterion = Criterion::default().configure_from_args().sample_size(20);
    let sources = documents();
    let pages: Vec<String> = sources.iter().map(|source| to_html(source)).collect();
    let bytes = |texts: &[String]| texts.iter().map(String::len).sum::<usize>();
    let own = || sources.iter().for_each(|source| drop(black_box(to_html(black_box(source)))));
    let floor = || pages.iter().for_each(|page| assert!(black_box(nothing::parse(black_box(page))) > 0));
    let mut group = criterion.benchmark_group("the demo as Org");
    group.throughput(Throughput::Bytes(bytes(&sources) as u64));
    group.bench_function("to HTML", |bench| bench.iter(own));
    group.bench_function("floor: parsing the HTML", |bench| bench.iter(floor));
    group.finish();
    let (own, floor) = (best(own), best(floor));
    println!(
        "{} bytes of Org, {} bytes of HTML: 1/{:.2} of the floor (goal: 1/3)",
        bytes(&sources),
        bytes(&pages),
        floor.as_secs_f64() / own.as_secs_f64()
    );
    criterion.final_summary();
}
