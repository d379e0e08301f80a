//! Documents in a format, converted to HTML: those of the demo one by one, as they are published, and the long ones that Markdown
//! is measured on.

use crate::timing::best;
use crate::{handbook, nothing};
use criterion::{Criterion, Throughput};
use obblet::profile::Profile;
use obblet::{Format, convert};
use std::hint::black_box;
use std::path::Path;

fn documents(format: Format, shape: &str) -> Vec<String> {
    let demo = Path::new(env!("CARGO_MANIFEST_DIR")).join("../../demo");
    let mut profile = Profile::built_in("fragment").unwrap();
    profile.set(shape).unwrap();
    let written = obblet::publish::documents(&demo).unwrap().into_iter().map(|entry| {
        let source = std::fs::read(demo.join(&entry.source)).unwrap();
        convert(&source, entry.format, format, &profile).unwrap().into_text().unwrap()
    });
    written.collect()
}

/// Measures a reader and the HTML writer against parsing what they come to, and keeping nothing of it.
pub(crate) fn measure(name: &str, format: Format, shape: &str, to_html: fn(&str) -> String) {
    let mut criterion = Criterion::default().configure_from_args().sample_size(20);
    let mut profile = Profile::built_in("fragment").unwrap();
    profile.set("markdown.dialect=github").unwrap();
    let written = |text: String| vec![convert(text.as_bytes(), Format::Markdown, format, &profile).unwrap().into_text().unwrap()];
    for (what, sources) in [
        ("the demo", documents(format, shape)),
        ("the handbook", written(handbook::handbook())),
        ("prose", written(handbook::prose())),
    ] {
        measure_documents(&mut criterion, &format!("{what} as {name}"), &sources, to_html);
    }
    criterion.final_summary();
}

fn measure_documents(criterion: &mut Criterion, name: &str, sources: &[String], to_html: fn(&str) -> String) {
    let pages: Vec<String> = sources.iter().map(|source| to_html(source)).collect();
    let bytes = |texts: &[String]| texts.iter().map(String::len).sum::<usize>();
    let own = || sources.iter().for_each(|source| drop(black_box(to_html(black_box(source)))));
    let floor = || pages.iter().for_each(|page| assert!(black_box(nothing::parse(black_box(page))) > 0));
    let mut group = criterion.benchmark_group(name);
    group.throughput(Throughput::Bytes(bytes(sources) as u64));
    group.bench_function("to HTML", |bench| bench.iter(own));
    group.bench_function("floor: parsing the HTML", |bench| bench.iter(floor));
    group.finish();
    let (own, floor) = (best(own), best(floor));
    println!(
        "{name}: {} bytes, {} bytes of HTML; 1/{:.2} of the floor (goal: 1/3)\n",
        bytes(sources),
        bytes(&pages),
        floor.as_secs_f64() / own.as_secs_f64()
    );
}
