//! Word to HTML, against the floor: unpacking the same parts and passing over their markup once, attributes and all.
#![allow(missing_docs, clippy::print_stdout, clippy::unwrap_used, reason = "a bench prints its result")]

#[path = "support/timing.rs"]
mod timing;

use criterion::{Criterion, Throughput};
use obblet::profile::Profile;
use obblet::{Format, convert};
use quick_xml::events::Event;
use std::hint::black_box;
use std::io::{Cursor, Read, Write};
use std::path::Path;
use timing::best;
use zip::write::SimpleFileOptions;
use zip::{ZipArchive, ZipWriter};

fn to_html(source: &[u8], styling: &str) -> String {
    let mut profile = Profile::built_in("fragment").unwrap();
    profile.set(&format!("styling={styling}")).unwrap();
    convert(source, Format::Word, Format::Html, &profile).unwrap().into_text().unwrap()
}

fn floor(source: &[u8]) -> usize {
    let mut archive = ZipArchive::new(Cursor::new(source)).unwrap();
    let mut seen = 0;
    for index in 0..archive.len() {
        let mut file = archive.by_index(index).unwrap();
        let is_markup = [".xml", ".rels"].iter().any(|end| file.name().unwrap().ends_with(end));
        let mut bytes = Vec::new();
        file.read_to_end(&mut bytes).unwrap();
        if !is_markup {
            seen += bytes.len();
            continue;
        }
        let text = std::str::from_utf8(&bytes).unwrap();
        let mut reader = quick_xml::Reader::from_str(text);
        loop {
            match reader.read_event().unwrap() {
                Event::Eof => break,
                Event::Start(start) | Event::Empty(start) => {
                    for attribute in start.attributes().with_checks(false) {
                        seen += attribute.unwrap().value.len();
                    }
                }
                Event::Text(text) => seen += text.len(),
                _ => {}
            }
        }
    }
    seen
}

/// The volunteers' handbook, so often that there is something to measure.
fn handbook() -> Vec<u8> {
    let path = Path::new(env!("CARGO_MANIFEST_DIR")).join("../../demo/word/volunteer-handbook.docx");
    let source = std::fs::read(path).unwrap();
    let mut archive = ZipArchive::new(Cursor::new(source)).unwrap();
    let mut out = ZipWriter::new(Cursor::new(Vec::new()));
    for index in 0..archive.len() {
        let mut file = archive.by_index(index).unwrap();
        let name = file.name().unwrap().into_owned();
        let mut bytes = Vec::new();
        file.read_to_end(&mut bytes).unwrap();
        if name == "word/document.xml" {
            let text = String::from_utf8(bytes).unwrap();
            let (head, rest) = text.split_once("<w:body>").unwrap();
            let (body, _) = rest.split_once("<w:sectPr>").unwrap();
            bytes = format!("{head}<w:body>{}</w:body></w:document>", body.repeat(100)).into_bytes();
        }
        out.start_file(name, SimpleFileOptions::default()).unwrap();
        out.write_all(&bytes).unwrap();
    }
    out.finish().unwrap().into_inner()
}

fn main() {
    let mut criterion = Criterion::default().configure_from_args().sample_size(20);
    let source = handbook();
    let mut group = criterion.benchmark_group("the volunteers' handbook, a hundred times");
    group.throughput(Throughput::Bytes(source.len() as u64));
    for styling in ["semantic", "exact"] {
        group.bench_function(styling, |bench| bench.iter(|| to_html(black_box(&source), styling)));
    }
    group.bench_function("floor: unpacking it and passing over it", |bench| bench.iter(|| floor(black_box(&source))));
    group.finish();
    let least = best(|| assert!(black_box(floor(&source)) > 0)).as_secs_f64();
    for (styling, goal) in [("semantic", 1.5), ("exact", 2.5)] {
        let own = best(|| drop(black_box(to_html(&source, styling)))).as_secs_f64();
        println!("{} packed bytes to HTML, {styling}: {:.2} of the floor (goal: {goal})", source.len(), own / least);
    }
    criterion.final_summary();
}
