//! A folder that is published, in a place of its own.

use super::dom;
use obblet::document::Finding;
use obblet::profile::{Layers, Profile};
use obblet::publish::{Action, Options, Plan, Progress, RECORD_FILE, Step, Summary};
use std::collections::BTreeMap;
use std::path::{Path, PathBuf};

/// What was told of one thing.
#[derive(Clone, Debug)]
pub struct Told {
    pub source: String,
    pub outputs: Vec<String>,
    pub action: Action,
    pub findings: Vec<Finding>,
    pub error: Option<String>,
}

#[derive(Debug, Default)]
pub struct Listener(pub Vec<Told>);

impl Progress for Listener {
    fn step(&mut self, step: &Step<'_>) {
        self.0.push(Told {
            source: step.source.to_owned(),
            outputs: step.outputs.iter().map(|output| (*output).to_owned()).collect(),
            action: step.action.clone(),
            findings: step.findings.to_vec(),
            error: step.error.map(ToString::to_string),
        });
    }
}

/// What came of a run.
#[derive(Debug)]
pub struct Run {
    pub told: Vec<Told>,
    pub summary: Summary,
}

impl Run {
    /// The documents that were converted, with a word for how.
    pub fn converted(&self) -> Vec<String> {
        let shown = |told: &&Told| matches!(told.action, Action::New | Action::Changed(_));
        self.told.iter().filter(shown).map(|told| format!("{} {}", told.action.word(), told.source)).collect()
    }

    /// All findings of a code, each with its source.
    pub fn found(&self, code: &str) -> Vec<String> {
        let all = self.told.iter().flat_map(|told| told.findings.iter().map(move |finding| (told, finding)));
        all.filter(|(_, finding)| finding.code == code)
            .map(|(told, finding)| format!("{}: {} ({}) {}", told.source, finding.message, finding.place, finding.hint))
            .collect()
    }

    /// What happened to a source or an output.
    pub fn action(&self, path: &str) -> Option<&Action> {
        self.told
            .iter()
            .find(|told| told.source == path || told.outputs.iter().any(|output| output == path))
            .map(|told| &told.action)
    }
}

pub struct Folder {
    pub place: tempfile::TempDir,
}

impl Folder {
    pub fn new(files: &[(&str, &str)]) -> Self {
        let folder = Self { place: tempfile::tempdir().unwrap() };
        std::fs::create_dir_all(folder.source()).unwrap();
        for (path, text) in files {
            folder.write(path, text);
        }
        folder
    }

    pub fn source(&self) -> PathBuf {
        self.place.path().join("source")
    }

    pub fn output(&self) -> PathBuf {
        self.place.path().join("output")
    }

    pub fn write(&self, path: &str, content: impl AsRef<[u8]>) {
        let full = self.source().join(path);
        std::fs::create_dir_all(full.parent().unwrap()).unwrap();
        std::fs::write(full, content).unwrap();
    }

    pub fn remove(&self, path: &str) {
        std::fs::remove_file(self.source().join(path)).unwrap();
    }

    pub fn read(&self, path: &str) -> String {
        let full = self.output().join(path);
        std::fs::read_to_string(&full).unwrap_or_else(|error| panic!("{}: {error}", full.display()))
    }

    pub fn has(&self, path: &str) -> bool {
        self.output().join(path).exists()
    }

    pub fn publish(&self) -> Run {
        self.publish_with(|_| {})
    }

    pub fn publish_with(&self, set: impl FnOnce(&mut Options)) -> Run {
        self.publish_to(&self.output(), set)
    }

    pub fn publish_to(&self, output: &Path, set: impl FnOnce(&mut Options)) -> Run {
        let mut options = options(&[]);
        set(&mut options);
        let plan = Plan::new(&self.source(), output, options).unwrap();
        let mut listener = Listener::default();
        let summary = plan.run(&mut listener).unwrap();
        Run { told: listener.0, summary }
    }

    pub fn rehearse(&self) -> Run {
        self.rehearse_with(|_| {})
    }

    pub fn rehearse_with(&self, set: impl FnOnce(&mut Options)) -> Run {
        let mut options = options(&[]);
        set(&mut options);
        let plan = Plan::new(&self.source(), &self.output(), options).unwrap();
        let mut listener = Listener::default();
        let summary = plan.rehearse(&mut listener).unwrap();
        Run { told: listener.0, summary }
    }
}

/// Options with some settings.
pub fn options(settings: &[&str]) -> Options {
    let mut layers = Layers::new(Profile::built_in("page").unwrap());
    for setting in settings {
        layers.set(setting).unwrap();
    }
    Options::new(layers)
}

/// All files below a folder with their bytes, the record too.
pub fn files(folder: &Path) -> BTreeMap<String, Vec<u8>> {
    let mut files = BTreeMap::new();
    let mut folders = vec![folder.to_owned()];
    while let Some(at) = folders.pop() {
        let Ok(entries) = std::fs::read_dir(&at) else { continue };
        for entry in entries {
            let path = entry.unwrap().path();
            if path.is_dir() {
                folders.push(path);
            } else {
                let name = path.strip_prefix(folder).unwrap().to_string_lossy().into_owned();
                files.insert(name, std::fs::read(&path).unwrap());
            }
        }
    }
    files
}

/// Links, pictures and style sheets of the pages below a folder that lead to nothing in it.
pub fn dead_links(folder: &Path) -> Vec<String> {
    let files = files(folder);
    let pages: BTreeMap<&String, dom::Dom> = files
        .iter()
        .filter(|(name, _)| name.ends_with(".html"))
        .map(|(name, bytes)| (name, dom::page(std::str::from_utf8(bytes).unwrap())))
        .collect();
    let ids: BTreeMap<&String, Vec<&str>> = pages
        .iter()
        .map(|(name, dom)| (*name, dom.order().into_iter().filter_map(|node| dom.attribute(node, "id")).collect()))
        .collect();
    let mut dead = Vec::new();
    for (name, dom) in &pages {
        // A fragment has no beginning of its own.
        assert!(dom.errors.is_empty() || !files[*name].starts_with(b"<!DOCTYPE"), "{name}: {:?}", dom.errors);
        for node in dom.order() {
            for address in ["href", "src"].iter().filter_map(|attribute| dom.attribute(node, attribute)) {
                if address.split('/').next().is_some_and(|first| first.contains(':')) && !address.starts_with("./") {
                    continue;
                }
                let decoded = |text: &str| percent_encoding::percent_decode_str(text).decode_utf8().unwrap().into_owned();
                let (path, place) = address.split_once('#').map_or((address, None), |(path, place)| (path, Some(decoded(place))));
                let path = &decoded(path.split('?').next().unwrap());
                let mut target: Vec<&str> = name.split('/').collect();
                if !path.is_empty() {
                    target.pop();
                    for part in path.split('/') {
                        match part {
                            "." => {}
                            ".." => {
                                target.pop();
                            }
                            part => target.push(part),
                        }
                    }
                }
                let target = target.join("/");
                let is_there = files.contains_key(&target);
                let has_place = place.is_none_or(|place| ids.get(&target).is_some_and(|ids| ids.contains(&place.as_str())));
                if !is_there || !has_place {
                    dead.push(format!("{name}: {address}"));
                }
            }
        }
    }
    dead
}

/// The record without what differs for good reason: nothing does.
pub fn record(folder: &Path) -> String {
    std::fs::read_to_string(folder.join(RECORD_FILE)).unwrap()
}
