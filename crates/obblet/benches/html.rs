//! HTML to Markdown, to clean HTML and to Word, against the floor: parsing the same HTML and keeping nothing of it; for Word, writing
//! the markup of the package with a writer of XML and packing it, too.
#![allow(missing_docs, clippy::print_stdout, clippy::unwrap_used, reason = "a bench prints its result")]

#[path = "support/nothing.rs"]
mod nothing;
#[path = "support/timing.rs"]
mod timing;

use criterion::{Criterion, Throughput};
use obblet::formats::{html, markdown};
use obblet::profile::Profile;
use obblet::{Format, convert};
use quick_xml::events::Event;
use std::hint::black_box;
use std::io::{Cursor, Read, Write};
use std::path::Path;
use timing::best;
use zip::write::SimpleFileOptions;
use zip::{ZipArchive, ZipWriter};

fn to_markdown(source: &str) -> String {
    let doc = html::read(source.as_bytes(), &html::ReadOptions::default());
    markdown::write(&doc, &markdown::WriteOptions::default()).text
}

fn to_html(source: &str) -> String {
    let doc = html::read(source.as_bytes(), &html::ReadOptions::default());
    html::write(&doc, &html::Options::default()).html
}

fn to_word(source: &str) -> Vec<u8> {
    let profile = Profile::built_in("fragment").unwrap();
    convert(source.as_bytes(), Format::Html, Format::Word, &profile).unwrap().bytes
}

/// The markup of the parts of a package.
fn events(package: &[u8]) -> Vec<Vec<Event<'static>>> {
    let mut archive = ZipArchive::new(Cursor::new(package)).unwrap();
    let mut parts = Vec::new();
    for index in 0..archive.len() {
        let mut text = String::new();
        if archive.by_index(index).unwrap().read_to_string(&mut text).is_err() {
            continue;
        }
        let (mut reader, mut events) = (quick_xml::Reader::from_str(&text), Vec::new());
        loop {
            match reader.read_event().unwrap() {
                Event::Eof => break,
                event => events.push(event.into_owned()),
            }
        }
        parts.push(events);
    }
    parts
}

/// Writes the markup of parts, and packs it.
fn pack(parts: &[Vec<Event<'static>>]) -> usize {
    let mut out = ZipWriter::new(Cursor::new(Vec::new()));
    for (number, events) in parts.iter().enumerate() {
        let mut writer = quick_xml::Writer::new(Vec::new());
        for event in events {
            writer.write_event(event.borrow()).unwrap();
        }
        out.start_file(format!("{number}.xml"), SimpleFileOptions::default()).unwrap();
        out.write_all(&writer.into_inner()).unwrap();
    }
    out.finish().unwrap().into_inner().len()
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
    for (name, own_way, goal) in [("Markdown", to_markdown as fn(&str) -> String, 1.25), ("clean HTML", to_html, 1.35)] {
        let own = best(|| drop(black_box(own_way(&source)))).as_secs_f64();
        println!("{} bytes of HTML to {name}: {:.2} of the floor (goal: {goal})", source.len(), own / floor);
    }
    // Word documents name each image: those of the demo are not there.
    let parts = events(&to_word(&source));
    let least = floor + best(|| assert!(black_box(pack(&parts)) > 0)).as_secs_f64();
    let own = best(|| drop(black_box(to_word(&source)))).as_secs_f64();
    println!("{} bytes of HTML to Word: {:.2} of the floor (goal: 1.3)", source.len(), own / least);
    criterion.final_summary();
}
