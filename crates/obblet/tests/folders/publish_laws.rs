//! The law of publishing by halves: however a folder came to be what it is, its output is what a first run makes of it.
#![allow(missing_docs, clippy::unwrap_used, clippy::panic, clippy::print_stderr, reason = "tests")]

use crate::support;

use proptest::prelude::*;
use proptest::test_runner::{Config, TestRunner};
use support::folder::{Folder, dead_links, files};
use support::package::Package;

/// What somebody does to the folder between two runs.
#[derive(Clone, Debug)]
enum Deed {
    Write { document: usize, title: usize, links: Vec<(usize, usize)>, picture: bool },
    Remove(usize),
    Picture(usize),
    Settings(usize),
    Touch(usize),
    DeleteOutput(usize),
    Cut,
}

const NAMES: [&str; 8] = [
    "README.md",
    "tides.md",
    "tides.docx",
    "log/README.md",
    "log/one.md",
    "log/deep/two.html",
    "people/rota.txt",
    "people/rota.md",
];
const PLACES: [&str; 5] = ["", "#gauge", "#mark", "#second-part", "#nowhere"];
const TITLES: [&str; 4] = ["Gauge", "Tide & time", "The log", "潮汐"];
const SETTINGS: [&str; 5] = [
    "publish.site = true\n",
    "publish.site = true\npublish.binder = true\nsite.address = 'https://tides.example/'\n",
    "shape = 'fragment'\n",
    "publish.split = 2\nclean.quotes = 'typographic'\n",
    "publish.split = 2\npublish.site = true\npublish.copy = 'all'\n[[files]]\nmatch = 'log/'\nhtml.heading-numbers = true\n",
];

fn deed() -> impl Strategy<Value = Deed> {
    let links = proptest::collection::vec((0..NAMES.len(), 0..PLACES.len()), 0..4);
    prop_oneof![
        6 => (0..NAMES.len(), 0..TITLES.len(), links, any::<bool>())
            .prop_map(|(document, title, links, picture)| Deed::Write { document, title, links, picture }),
        2 => (0..NAMES.len()).prop_map(Deed::Remove),
        1 => (0..3_usize).prop_map(Deed::Picture),
        2 => (0..SETTINGS.len()).prop_map(Deed::Settings),
        1 => (0..NAMES.len()).prop_map(Deed::Touch),
        1 => (0..NAMES.len()).prop_map(Deed::DeleteOutput),
        1 => Just(Deed::Cut),
    ]
}

/// The text of a document in the format of its name.
fn document(name: &str, title: &str, links: &[(usize, usize)], picture: bool) -> Vec<u8> {
    let up = "../".repeat(name.matches('/').count());
    let address = |(to, place): &(usize, usize)| format!("{up}{}{}", NAMES[*to], PLACES[*place]);
    match name.rsplit('.').next().unwrap() {
        "docx" => {
            let mut package = Package::of(&format!(
                "<w:p><w:pPr><w:outlineLvl w:val=\"0\"/></w:pPr><w:r><w:t>{}</w:t></w:r></w:p>\
                 <w:p><w:r><w:t>A </w:t></w:r><w:bookmarkStart w:id=\"1\" w:name=\"mark\"/><w:r><w:t>mark.</w:t></w:r><w:bookmarkEnd w:id=\"1\"/></w:p>",
                title.replace('&', "&amp;")
            ));
            for (at, link) in links.iter().enumerate() {
                package.links.push((format!("l{at}"), address(link)));
                package.body += &format!("<w:p><w:hyperlink r:id=\"l{at}\"><w:r><w:t>link {at}</w:t></w:r></w:hyperlink></w:p>");
            }
            package.bytes()
        }
        "html" => {
            let links: String = links.iter().map(|link| format!("<p><a href='{}'>x</a></p>", address(link))).collect();
            format!("<meta name=generator content='a word processor'><h1>{title}</h1><p>A <a name=mark></a>mark.</p>{links}<h2>Second part</h2><p>End.</p>").into_bytes()
        }
        "txt" => format!("{title}\n=====\n\nSome text about {title}.\n").into_bytes(),
        _ => {
            let links: String = links.iter().map(|link| format!("[\"x\"]({})\n\n", address(link))).collect();
            let picture = if picture { format!("![A well]({up}images/well.svg)\n\n") } else { String::new() };
            format!("---\nlanguage: en\ndate: 2031-01-0{}\n---\n# {title}\n\n{links}## Second part\n\n{picture}End[^1].\n\n[^1]: A note.\n", 1 + links.len() % 9)
                .into_bytes()
        }
    }
}

fn perform(folder: &Folder, deed: &Deed) {
    match deed {
        Deed::Write { document: at, title, links, picture } => {
            folder.write(NAMES[*at], document(NAMES[*at], TITLES[*title], links, *picture));
        }
        Deed::Remove(at) => drop(std::fs::remove_file(folder.source().join(NAMES[*at]))),
        Deed::Picture(0) => drop(std::fs::remove_file(folder.source().join("images/well.svg"))),
        Deed::Picture(size) => {
            folder.write("images/well.svg", format!("<svg xmlns='http://www.w3.org/2000/svg' width='{size}' height='9'/>"));
        }
        Deed::Settings(at) => folder.write("obblet.toml", SETTINGS[*at]),
        Deed::Touch(at) => {
            if let Ok(bytes) = std::fs::read(folder.source().join(NAMES[*at])) {
                folder.write(NAMES[*at], bytes);
            }
        }
        Deed::DeleteOutput(at) => {
            // Without its record nobody knows whose work the output is.
            let mut made = files(&folder.output());
            made.remove(obblet::publish::RECORD_FILE);
            if let Some(path) = made.keys().nth(at * made.len() / NAMES.len()) {
                std::fs::remove_file(folder.output().join(path)).unwrap();
            }
        }
        // As a run that was cut off leaves the folder, when it had written a part of its record.
        Deed::Cut => {
            let record = folder.output().join(obblet::publish::RECORD_FILE);
            if let Ok(text) = std::fs::read(&record) {
                std::fs::write(folder.output().join(obblet::publish::UNFINISHED_FILE), &text[..text.len() * 2 / 3]).unwrap();
            }
        }
    }
}

#[test]
fn what_is_done_by_halves_is_the_same_as_what_is_done_at_once() {
    // Each case is some dozen runs; failures are found with few of them and stay in the code, not in a file of seeds.
    let mut runner = TestRunner::new(Config { cases: 40, failure_persistence: None, ..Config::default() });
    let deeds = proptest::collection::vec(proptest::collection::vec(deed(), 1..4), 1..7);
    runner
        .run(&deeds, |rounds| {
            let folder = Folder::new(&[("README.md", "# Start\n")]);
            folder.write("images/well.svg", "<svg xmlns='http://www.w3.org/2000/svg' width='4' height='9'/>");
            for deeds in &rounds {
                deeds.iter().for_each(|deed| perform(&folder, deed));
                std::fs::create_dir_all(folder.output()).unwrap();
                let run = folder.publish_with(|options| options.prune = true);
                prop_assert_eq!(run.summary.failed, 0);
                let fresh = folder.place.path().join("fresh");
                drop(std::fs::remove_dir_all(&fresh));
                let first = folder.publish_to(&fresh, |options| options.jobs = 1);
                let (made, expected) = (files(&folder.output()), files(&fresh));
                prop_assert_eq!(made.keys().collect::<Vec<_>>(), expected.keys().collect::<Vec<_>>());
                for (path, bytes) in &expected {
                    prop_assert_eq!(String::from_utf8_lossy(&made[path]), String::from_utf8_lossy(bytes), "{}", path);
                }
                prop_assert_eq!(run.summary.weights, first.summary.weights);
                // Links that lead nowhere are those that were told, and no others.
                let dead = dead_links(&folder.output()).into_iter().filter(|link| !link.starts_with("binder.html")).count();
                let told = first.found("link.missing").len()
                    + first.found("link.missing-place").len()
                    + first.found("image.missing").len();
                prop_assert!(dead <= told, "{} of {}: {:?}", dead, told, dead_links(&folder.output()));
            }
            Ok(())
        })
        .unwrap();
}
