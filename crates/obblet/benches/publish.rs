//! Publishing 10,000 documents, against what nobody can avoid: copying the folder and converting each document once, over all
//! cores; and, where nothing has changed, walking the folder and hashing every source.
#![allow(missing_docs, clippy::print_stdout, clippy::unwrap_used, reason = "a bench prints its result")]

use obblet::profile::{Layers, Profile};
use obblet::publish::{Options, Plan, Progress, Step};
use obblet::{Context, Format, convert_in};
use rayon::prelude::*;
use std::fmt::Write;
use std::path::{Path, PathBuf};
use std::time::{Duration, Instant};

const DOCUMENTS: usize = 10_000;

struct Silent;
impl Progress for Silent {
    fn step(&mut self, step: &Step<'_>) {
        assert!(step.error.is_none(), "{step:?}");
    }
}

fn path(number: usize) -> String {
    format!("part-{:02}/section-{}/reading-{number}.md", number / 250, number / 25 % 10)
}

/// A document of some six thousand bytes: headings, prose, lists, a table, links to two others.
fn document(number: usize) -> String {
    let words =
        ["tide", "gauge", "float", "well", "pier", "harbour", "height", "datum", "spring", "neap", "surge", "log", "keeper"];
    let mut state = number as u64 * 2_654_435_761 + 1;
    let mut next = |most: usize| {
        state = state.wrapping_mul(6_364_136_223_846_793_005).wrapping_add(1_442_695_040_888_963_407);
        (state >> 33) as usize % most
    };
    let mut text = format!(
        "---\ntitle: Reading {number}\nlanguage: en\ndate: 2031-02-{:02}\n---\n\n# Reading {number}\n\n",
        1 + number % 28
    );
    for section in 0..4 {
        let _ = writeln!(text, "## Watch {section}\n");
        for _ in 0..4 {
            for _ in 0..40 {
                let _ = write!(text, "{} ", words[next(words.len())]);
            }
            text.push_str("*and so on*.\n\n");
        }
        let other = next(DOCUMENTS);
        let _ = writeln!(text, "- [{other}](../../{})\n- **two**\n- `three`\n", path(other));
    }
    text.push_str("| Day | High | Low |\n|:--|--:|--:|\n");
    for day in 0..6 {
        let _ = writeln!(text, "| {day} | {} | {} |", next(900), next(90));
    }
    text
}

/// The shortest time that work took, which is told how often it was done before.
fn best_of<T>(times: usize, mut work: impl FnMut(usize) -> T) -> Duration {
    let once = |round| {
        let begun = Instant::now();
        std::hint::black_box(work(round));
        begun.elapsed()
    };
    (0..times).map(once).min().unwrap()
}

fn files(folder: &Path) -> Vec<PathBuf> {
    let (mut files, mut folders) = (Vec::new(), vec![folder.to_owned()]);
    while let Some(at) = folders.pop() {
        for entry in std::fs::read_dir(at).unwrap() {
            let entry = entry.unwrap();
            if entry.file_type().unwrap().is_dir() { folders.push(entry.path()) } else { files.push(entry.path()) }
        }
    }
    files
}

fn publish(source: &Path, output: &Path, settings: &[&str]) -> usize {
    let mut layers = Layers::new(Profile::built_in("page").unwrap());
    settings.iter().for_each(|setting| layers.set(setting).unwrap());
    Plan::new(source, output, Options::new(layers)).unwrap().run(&mut Silent).unwrap().converted
}

fn main() {
    let place = tempfile::tempdir().unwrap();
    let source = place.path().join("source");
    for number in 0..DOCUMENTS {
        let path = source.join(path(number));
        std::fs::create_dir_all(path.parent().unwrap()).unwrap();
        std::fs::write(path, document(number)).unwrap();
    }
    let all = files(&source);
    let cores = std::thread::available_parallelism().unwrap().get();
    // Each copy and each first run has a folder of its own, and none goes before the end: file systems are slow to use again
    // what has just become free.
    let folder = |name: &str, round: usize| place.path().join(format!("{name}-{round}"));
    let copying = best_of(3, |round| {
        let copy = folder("copy", round);
        for file in &all {
            let to = copy.join(file.strip_prefix(&source).unwrap());
            std::fs::create_dir_all(to.parent().unwrap()).unwrap();
            std::fs::copy(file, to).unwrap();
        }
    });
    let profile = Profile::built_in("page").unwrap();
    let texts: Vec<Vec<u8>> = all.iter().map(|file| std::fs::read(file).unwrap()).collect();
    let converting = best_of(2, |_| {
        texts
            .iter()
            .map(|text| {
                convert_in(text, Format::Markdown, Format::Html, &profile, &Context::default())
                    .unwrap()
                    .into_text()
                    .unwrap()
                    .len()
            })
            .sum::<usize>()
    });
    let walking =
        best_of(5, |_| files(&source).par_iter().map(|file| blake3::hash(&std::fs::read(file).unwrap())).collect::<Vec<_>>());
    let alone = best_of(5, |_| files(&source).iter().map(|file| blake3::hash(&std::fs::read(file).unwrap())).collect::<Vec<_>>());
    let floor = copying + converting / u32::try_from(cores).unwrap();
    println!(
        "{DOCUMENTS} documents, {cores} cores: copying {copying:.2?}, converting {converting:.2?}, walking and hashing {walking:.2?}, on one core {alone:.2?}"
    );
    for settings in [&[] as &[&str], &["publish.site=true"]] {
        let name = if settings.is_empty() { "pages" } else { "a site" };
        let first = best_of(3, |round| assert_eq!(publish(&source, &folder(name, round), settings), DOCUMENTS));
        let output = folder(name, 0);
        let none = best_of(5, |_| assert_eq!(publish(&source, &output, settings), 0));
        let one = best_of(3, |round| {
            let path = source.join(path(5000));
            std::fs::write(&path, format!("{}\nOnce more: {round} of {name}.\n", document(5000))).unwrap();
            assert_eq!(publish(&source, &output, settings), 1);
        });
        println!("{name}: first run {first:.2?}, {:.2} of its floor (goal 1.3)", first.as_secs_f64() / floor.as_secs_f64());
        println!(
            "{name}: nothing changed {none:.2?}, {:.2} of its floor (goal 1.5), {:.2} of that on one core",
            none.as_secs_f64() / walking.as_secs_f64(),
            none.as_secs_f64() / alone.as_secs_f64()
        );
        println!("{name}: one changed {one:.2?}, {:.2} of that floor", one.as_secs_f64() / walking.as_secs_f64());
    }
}
