//! What a run would begin with: what is in the folder, what each document becomes, and what has changed since the last run.

use super::hash::{self, Hash};
use super::ignored::Skipped;
use super::link_index::LinkIndex;
use super::output_paths;
use super::parallel::lock;
use super::paths;
use super::record::{Known, Output, Record};
use super::tree::{self, Choice, Found, Tree};
use super::{Options, RECORD_FILE};
use crate::cache::Shared;
use crate::document::Finding;
use crate::error::{Error, PublishError};
use crate::fast_hash::{HashMap, HashSet};
use crate::files::{Root, There};
use crate::formats::Format;
use crate::profile::Makes;
use crate::profile::{FILE_NAME, Layers, Profile, Shape, globs, settings};
use rayon::prelude::*;
use std::borrow::Cow;
use std::collections::BTreeSet;
use std::path::{Path, PathBuf};
use std::sync::{Arc, Mutex};

/// Why a document is converted again.
#[derive(Clone, Debug, PartialEq, Eq)]
pub enum Why {
    /// Its bytes are others.
    Source,
    /// Its settings are others, or a file that they name, or the program.
    Settings,
    /// A file that it shows is another one.
    Included(String),
    /// What it became is not there any more.
    OutputGone(String),
    /// Links lead elsewhere, or pages around it are others.
    Navigation,
    /// It was asked for.
    Forced,
    /// The last run was cut off while it was written.
    CutOff,
}

impl std::fmt::Display for Why {
    fn fmt(&self, f: &mut std::fmt::Formatter<'_>) -> std::fmt::Result {
        match self {
            Self::Source => write!(f, "the document"),
            Self::Settings => write!(f, "its settings, a file they name, or the program"),
            Self::Included(path) => write!(f, "{path}, which it shows"),
            Self::OutputGone(path) => write!(f, "{path} is gone"),
            Self::Navigation => write!(f, "links or pages around it"),
            Self::Forced => write!(f, "as asked"),
            Self::CutOff => write!(f, "the last run was cut off"),
        }
    }
}

/// How a document stands to the last run.
#[derive(Clone, Debug, PartialEq, Eq)]
pub enum State {
    /// It is not known yet.
    New,
    /// It is converted again.
    Changed(Why),
    /// Nothing is done.
    Unchanged,
    /// It can't be read.
    Unreadable(String),
}

/// A document, and what will become of it.
#[derive(Clone, Debug)]
pub struct Planned {
    /// Its path in the folder, with slashes.
    pub source: String,
    /// The path of its output, or of the first of several.
    pub output: String,
    /// Its format.
    pub format: Format,
    /// How it stands to the last run.
    pub state: State,
    /// Whether this run may convert it; with `--only`, `--reads` and in slices it may not convert all.
    pub is_chosen: bool,
    pub(crate) profile: Arc<Profile>,
    pub(super) hash: Hash,
    pub(super) settings: Hash,
    pub(super) size: u64,
    /// Whether the record knows it.
    is_known: bool,
    pub(super) findings: Vec<Finding>,
    /// Outputs that somebody has edited.
    pub(super) edited: Vec<String>,
}

/// Something of an earlier run whose source is gone.
#[derive(Clone, Debug, PartialEq, Eq)]
pub struct Removed {
    /// The source.
    pub source: String,
    /// What it became.
    pub outputs: Vec<String>,
}

/// What a run would begin with.
pub struct Plan {
    /// The documents in the order of their paths.
    pub documents: Vec<Planned>,
    /// What was left out.
    pub skipped: Vec<Skipped>,
    /// Documents of the last run that are gone.
    pub removed: Vec<Removed>,
    /// What there is to know of the folder as a whole.
    pub findings: Vec<Finding>,
    pub(crate) source: Arc<Root>,
    pub(super) output: Root,
    pub(super) options: Options,
    /// The settings of the folder itself.
    pub(super) profile: Arc<Profile>,
    pub(super) others: BTreeSet<String>,
    pub(super) record: Record,
    pub(super) shared: Shared,
    pub(crate) pool: rayon::ThreadPool,
    /// Hashes of files that documents show.
    hashes: HashMap<String, Hash>,
    more_hashes: Mutex<HashMap<String, Hash>>,
}

impl std::fmt::Debug for Plan {
    fn fmt(&self, f: &mut std::fmt::Formatter<'_>) -> std::fmt::Result {
        f.debug_struct("Plan")
            .field("documents", &self.documents.len())
            .field("source", &self.source.path())
            .finish_non_exhaustive()
    }
}

/// Settings that say nothing about a single document.
const OF_THE_FOLDER: [&str; 9] = [
    "publish.moved",
    "publish.verify",
    "publish.include",
    "publish.exclude",
    "publish.copy",
    "publish.binder",
    "site.title",
    "site.address",
    "site.feed-entries",
];

impl Plan {
    /// Looks at a folder and at what its last run left in `output`. Nothing is written.
    ///
    /// # Errors
    /// Where the folder can't be read, the output lies around it, or a profile can't be used.
    pub fn new(source: &Path, output: &Path, options: Options) -> Result<Self, Error> {
        let fail = |path: &Path, cause| Error::File { path: path.display().to_string(), cause };
        if !options.writes.is_written() {
            return Err(Error::NotWritten { format: options.writes.name() });
        }
        let source = Arc::new(Root::open(source).map_err(|cause| fail(source, cause))?);
        let output = Root::perhaps(output).map_err(|cause| fail(output, cause))?;
        if source.path().starts_with(output.path()) {
            return Err(PublishError::OutputAroundSource { output: output.path().display().to_string() }.into());
        }
        let profile = options.layers.of(&source.path().join(FILE_NAME), Some(source.path()))?;
        let writes_pages = options.writes == Format::Html;
        if profile.publish.makes.contains(Makes::SITE) && writes_pages && profile.shape == Shape::Fragment {
            return Err(PublishError::SiteOfFragments.into());
        }
        let choice = Choice {
            formats: &options.reads,
            include: &profile.publish.include,
            exclude: &profile.publish.exclude,
            outputs: output.path().strip_prefix(source.path()).map(Path::to_owned).into_iter().collect(),
        };
        let pool = rayon::ThreadPoolBuilder::new()
            .num_threads(options.jobs)
            .build()
            .map_err(|error| Error::Internal { message: error.to_string() })?;
        // The documents are looked into while the record is read: nothing is compared before both are there.
        let look = || -> Result<Tree, Error> {
            let mut tree = tree::scan(&source, &choice)?;
            tree::hash(&mut tree.documents, &source);
            Ok(tree)
        };
        let (tree, record) = pool.install(|| rayon::join(look, || Record::read(&output)));
        let (documents, others, skipped) = choose(tree?, &source, &record, &pool);
        let mut plan = Self {
            documents: Vec::with_capacity(documents.len()),
            skipped,
            removed: Vec::new(),
            findings: Vec::new(),
            shared: Shared::of(Arc::clone(&source)),
            source,
            output,
            options,
            profile,
            others,
            record,
            pool,
            hashes: HashMap::default(),
            more_hashes: Mutex::default(),
        };
        plan.report_plan();
        plan.list(documents)?;
        plan.hash_files();
        plan.update_states();
        plan.assign_slices();
        plan.find_removed();
        Ok(plan)
    }

    /// What there is to say before anything is done.
    fn report_plan(&mut self) {
        if let Some(damage) = &self.record.damage {
            self.findings.push(
                Finding::changed("publish.record", format!("{damage}; all documents are converted again"))
                    .hint(format!("{RECORD_FILE} in the output is written again at the end of the run")),
            );
        }
        if (self.profile.publish.makes.contains(Makes::SITE) || self.profile.publish.makes.contains(Makes::BINDER))
            && self.options.writes != Format::Html
        {
            self.findings.push(
                Finding::advice("publish.no-pages", "a site and a binder are made of pages; neither is made of these documents")
                    .hint("--writes html makes pages"),
            );
        }
    }

    /// Where the settings of its documents come from.
    #[must_use]
    pub fn layers(&self) -> &Layers {
        &self.options.layers
    }

    /// The documents with their names and settings.
    fn list(&mut self, documents: Vec<Found>) -> Result<(), Error> {
        let only = globs(&self.options.only)?;
        let top = self.source.path().to_owned();
        // By where the profiles are; as long as they are in here, they stay there.
        let mut settings: HashMap<*const Profile, (Arc<Profile>, Hash)> = HashMap::default();
        let mut profiled = Vec::with_capacity(documents.len());
        let mut parts = BTreeSet::new();
        let mut last: Option<(String, Arc<Profile>)> = None;
        for found in documents {
            let folder = paths::folder(&found.path);
            if last.as_ref().is_some_and(|(last, _)| last == folder)
                && let Some((_, profile)) = &last
            {
                profiled.push((found, Arc::clone(profile)));
                continue;
            }
            let profile = self.options.layers.of(&top.join(&found.path), Some(&top))?;
            last = self.options.layers.of_all_in(&top.join(folder)).map(|profile| (folder.to_owned(), profile));
            if let std::collections::hash_map::Entry::Vacant(entry) = settings.entry(Arc::as_ptr(&profile)) {
                let files = setting_files(&profile);
                parts.extend(files.iter().filter_map(|(_, file)| tree::text(file.strip_prefix(&top).ok()?)));
                entry.insert((Arc::clone(&profile), self.hash_settings(&profile, &files)?));
            }
            profiled.push((found, profile));
        }
        // What stands around pages is no page itself.
        profiled.retain(|(found, _)| {
            let is_part = parts.contains(&found.path);
            if is_part {
                let why = "a part of pages, which a setting names".to_owned();
                self.skipped.push(Skipped { path: found.path.clone(), why });
            }
            !is_part
        });
        self.others.retain(|path| !parts.contains(path));
        let (documents, profiles): (Vec<Found>, Vec<Arc<Profile>>) = profiled.into_iter().unzip();
        let named = output_paths::name_all(&documents, &self.others, self.options.writes);
        let mut for_target: HashMap<*const Profile, Arc<Profile>> = HashMap::default();
        for ((found, profile), named) in documents.into_iter().zip(profiles).zip(named) {
            let known = for_target.entry(Arc::as_ptr(&profile));
            let resolved = Arc::clone(known.or_insert_with(|| match profile.for_target(self.options.writes) {
                Cow::Borrowed(_) => Arc::clone(&profile),
                Cow::Owned(own) => Arc::new(own),
            }));
            let (hash, size) = found.content.as_ref().map_or((Hash::NOTHING, 0), |content| *content);
            self.documents.push(Planned {
                output: named.output,
                format: found.format,
                state: found.content.map_or_else(State::Unreadable, |_| State::New),
                is_chosen: (self.options.only.is_empty() || only.is_match(&found.path))
                    && (self.options.reads.is_empty() || self.options.reads.contains(&found.format)),
                source: found.path,
                hash,
                settings: settings.get(&Arc::as_ptr(&profile)).map_or(Hash::NOTHING, |(_, hash)| *hash),
                profile: resolved,
                size,
                is_known: false,
                findings: named.finding.into_iter().collect(),
                edited: Vec::new(),
            });
        }
        Ok(())
    }

    fn hash_settings(&self, profile: &Profile, files: &[(&'static str, PathBuf)]) -> Result<Hash, Error> {
        let root = self.source.path().display().to_string();
        let mut parts = vec![
            env!("CARGO_PKG_VERSION").to_owned(),
            cfg!(feature = "highlight").to_string(),
            self.options.writes.name().to_owned(),
        ];
        for setting in settings().filter(|setting| !OF_THE_FOLDER.contains(&setting.key)) {
            // Where the folder lies makes no difference.
            parts.push(format!("{}={}", setting.key, setting.get(profile)).replace(&root, ""));
        }
        for (setting, file) in files {
            parts.push(match *setting {
                "word.template" | "latex.preamble" => {
                    format!("{:?}", Hash::of(&crate::cache::bytes(Some(&self.shared), setting, file)?))
                }
                _ => self.shared.text(setting, file)?.to_string(),
            });
        }
        Ok(Hash::of_parts(parts.iter().map(String::as_bytes)))
    }

    /// Whether pages get what makes a site of them.
    pub(super) fn is_site(&self) -> bool {
        self.profile.publish.makes.contains(Makes::SITE) && self.options.writes == Format::Html
    }

    /// Whether a page lists what is to be done.
    pub(super) fn has_agenda(&self) -> bool {
        self.profile.publish.makes.contains(Makes::AGENDA) && self.options.writes == Format::Html
    }

    /// Whether one page is made of all documents.
    pub(super) fn has_binder(&self) -> bool {
        self.profile.publish.makes.contains(Makes::BINDER) && self.options.writes == Format::Html
    }

    /// Hashes of the files that known documents show.
    fn hash_files(&mut self) {
        let root = &self.source;
        let used: HashSet<&String> = self
            .record
            .documents
            .values()
            .flat_map(|known| known.uses.iter().chain(&known.includes).map(|(path, _)| path))
            .collect();
        let copied = self.record.others.values().filter(|other| other.from.is_some()).map(|other| &other.source);
        let used: Vec<&String> = used.into_iter().chain(copied).collect();
        let hash = |path: &String| (path.clone(), hash::of_file(root, path.as_ref()).map_or(Hash::NOTHING, |(hash, _)| hash));
        self.hashes = self.pool.install(|| used.into_par_iter().with_min_len(16).map(hash).collect());
    }

    fn update_states(&mut self) {
        let (record, options, hashes, output) = (&self.record, &self.options, &self.hashes, &self.output);
        let verify = self.profile.publish.verify;
        let brought: HashSet<&String> = record.documents.values().flat_map(|known| &known.brings).collect();
        let missing: HashSet<&String> =
            brought.into_iter().filter(|path| !matches!(output.there(path.as_ref()), There::File(_))).collect();
        let update = |planned: &mut Planned| {
            let Some(known) = record.documents.get(&planned.source) else { return };
            planned.is_known = true;
            if matches!(planned.state, State::Unreadable(_)) {
                return;
            }
            planned.state = match why(known, planned, hashes) {
                Some(why) => State::Changed(why),
                None if options.force => State::Changed(Why::Forced),
                None => match state_of_outputs(known, output, &missing, record.unfinished, verify) {
                    Outputs::Fine => State::Unchanged,
                    Outputs::Gone(path) => State::Changed(Why::OutputGone(path)),
                    Outputs::CutOff => State::Changed(Why::CutOff),
                    Outputs::Edited(paths) => {
                        planned.edited = paths;
                        State::Unchanged
                    }
                },
            };
        };
        let documents = &mut self.documents;
        self.pool.install(|| documents.par_iter_mut().with_min_len(16).for_each(update));
    }

    /// Leaves to this run what belongs to its slice: documents are dealt out by their sizes, the largest first, each to the
    /// slice that has least so far.
    fn assign_slices(&mut self) {
        let Some((slice, slices)) = self.options.slice else { return };
        let mut order: Vec<usize> = (0..self.documents.len()).collect();
        order.sort_by(|&a, &b| {
            let (a, b) = (&self.documents[a], &self.documents[b]);
            b.size.cmp(&a.size).then_with(|| a.source.cmp(&b.source))
        });
        // A document costs something whatever its size.
        const EACH: u64 = 2000;
        let mut loads = vec![0_u64; slices as usize];
        for index in order {
            let least = (0..loads.len()).min_by_key(|&slice| (loads[slice], slice)).unwrap_or(0);
            loads[least] += self.documents[index].size + EACH;
            self.documents[index].is_chosen &= least + 1 == slice as usize;
        }
    }

    fn find_removed(&mut self) {
        let known = self.documents.iter().filter(|planned| planned.is_known).count();
        if known == self.record.documents.len() {
            return;
        }
        let here: HashSet<&str> = self.documents.iter().map(|planned| planned.source.as_str()).collect();
        let mut removed: Vec<Removed> = self
            .record
            .documents
            .values()
            .filter(|known| !here.contains(known.source.as_str()))
            .map(|known| Removed {
                source: known.source.clone(),
                outputs: known.outputs.iter().map(|output| output.path.clone()).collect(),
            })
            .collect();
        removed.sort_by(|a, b| a.source.cmp(&b.source));
        self.removed = removed;
    }

    /// What tells whether the folder as a whole is as it was: the names of its files, and its own settings.
    pub(super) fn marks(&self) -> Hash {
        let settings = settings().map(|setting| format!("{}={}", setting.key, setting.get(&self.profile)));
        let root = self.source.path().display().to_string();
        let settings: Vec<String> = settings.map(|setting| setting.replace(&root, "")).collect();
        let documents = self.documents.iter().flat_map(|planned| [planned.source.as_str(), planned.output.as_str()]);
        let parts = settings.iter().map(String::as_str).chain([self.options.writes.name()]).chain(documents).chain([""]);
        Hash::of_parts(parts.chain(self.others.iter().map(String::as_str)).map(str::as_bytes))
    }

    /// The hash of a file of the folder; that of nothing where it can't be read.
    pub(super) fn hash_of(&self, path: &str) -> Hash {
        if let Some(&known) = self.hashes.get(path) {
            return known;
        }
        let mut more = lock(&self.more_hashes);
        *more
            .entry(path.to_owned())
            .or_insert_with(|| hash::of_file(&self.source, path.as_ref()).map_or(Hash::NOTHING, |(hash, _)| hash))
    }

    /// Whether a file may be shown on pages: one that was found and not left out, or a way to it over symbolic links.
    pub(super) fn shows(&self, path: &str) -> bool {
        let is_found = |path: &str| {
            self.others.contains(path) || self.documents.binary_search_by(|planned| planned.source.as_str().cmp(path)).is_ok()
        };
        is_found(path)
            || self
                .source
                .without_links(path.as_ref())
                .is_ok_and(|real| real != Path::new(path) && tree::text(&real).is_some_and(|real| is_found(&real)))
    }

    /// Where links of this folder lead.
    pub(super) fn link_index(&self) -> LinkIndex {
        let documents = self.documents.iter().map(|planned| (planned.source.clone(), planned.output.clone()));
        LinkIndex::new(documents, self.others.clone())
    }

    /// The folders that hold a document, and those above them.
    pub(super) fn folders(&self) -> BTreeSet<&str> {
        let mut folders = BTreeSet::from([""]);
        for planned in &self.documents {
            let mut folder = paths::folder(&planned.source);
            while folders.insert(folder) {
                folder = paths::folder(folder);
            }
        }
        folders
    }
}

/// Why a known document has to be converted again, if it has to.
fn why(known: &Known, planned: &Planned, hashes: &HashMap<String, Hash>) -> Option<Why> {
    if known.hash != planned.hash {
        return Some(Why::Source);
    }
    if known.settings != planned.settings || known.outputs.first().is_none_or(|output| output.path != planned.output) {
        return Some(Why::Settings);
    }
    let changed = known.uses.iter().chain(&known.includes).find(|(path, hash)| hashes.get(path).is_some_and(|now| now != hash));
    changed.map(|(path, _)| Why::Included(path.clone()))
}

/// The files that settings of a profile name.
fn setting_files(profile: &Profile) -> Vec<(&'static str, PathBuf)> {
    let page = &profile.page;
    let parts =
        [("page.head", &page.head), ("page.header", &page.header), ("page.footer", &page.footer), ("page.frame", &page.frame)];
    let mut files: Vec<(&'static str, PathBuf)> =
        parts.into_iter().filter_map(|(setting, file)| Some((setting, file.clone()?))).collect();
    #[cfg(feature = "word")]
    files.extend(profile.formats.word.template.clone().map(|file| ("word.template", file)));
    files.extend(profile.formats.latex.preamble.clone().map(|file| ("latex.preamble", file)));
    let sheets = page.stylesheets.iter().filter(|sheet| !sheet.contains("://") && !sheet.starts_with("//"));
    files.extend(sheets.map(|sheet| ("page.stylesheets", PathBuf::from(sheet))));
    files
}

enum Outputs {
    Fine,
    Gone(String),
    Edited(Vec<String>),
    CutOff,
}

/// How the outputs of a document are. After a run that was cut off, and where `publish.verify` asks for it, their bytes are
/// looked at, else their sizes.
fn state_of_outputs(known: &Known, folder: &Root, missing: &HashSet<&String>, unfinished: bool, verify: bool) -> Outputs {
    let mut edited = Vec::new();
    if let Some(path) = known.brings.iter().find(|path| missing.contains(path)) {
        return Outputs::Gone(path.clone());
    }
    for Output { path, hash, size } in &known.outputs {
        match folder.there(path.as_ref()) {
            There::File(found) if found == *size => {
                let is_other = |looks: bool| looks && hash::of_file(folder, path.as_ref()).is_ok_and(|(now, _)| now != *hash);
                if is_other(unfinished) {
                    return Outputs::CutOff;
                }
                if is_other(verify) {
                    edited.push(path.clone());
                }
            }
            There::File(found) if found > 0 && unfinished => return Outputs::CutOff,
            There::File(found) if found > 0 => edited.push(path.clone()),
            _ => return Outputs::Gone(path.clone()),
        }
    }
    if edited.is_empty() { Outputs::Fine } else { Outputs::Edited(edited) }
}
/// The documents that are converted, the other files, and what is left as it is.
fn choose(tree: Tree, source: &Root, record: &Record, pool: &rayon::ThreadPool) -> (Vec<Found>, BTreeSet<String>, Vec<Skipped>) {
    let Tree { mut documents, unasked, others, mut skipped } = tree;
    let made = tree::made_pages(source);
    documents.retain(|found| {
        let is_made = made.contains(&found.path);
        if is_made {
            skipped.push(Skipped { path: found.path.clone(), why: "a page that a site made, of no document".to_owned() });
        }
        !is_made
    });
    // What was converted when its format was asked for is not gone.
    let (mut kept, unasked): (Vec<Found>, Vec<Found>) =
        unasked.into_iter().partition(|found| record.documents.contains_key(&found.path));
    if !kept.is_empty() {
        pool.install(|| tree::hash(&mut kept, source));
        documents.extend(kept);
        documents.sort_by(|a, b| a.path.cmp(&b.path));
    }
    let why = || "its format was not asked for".to_owned();
    skipped.extend(unasked.into_iter().map(|found| Skipped { path: found.path, why: why() }));
    skipped.sort_by(|a, b| a.path.cmp(&b.path));
    (documents, others, skipped)
}
