//! A folder in, web output out: first a plan, then a run.
//!
//! A [`Plan`] says what is in the folder, what each document becomes, and what has changed since the last run. Its run converts
//! what has to be converted, over all cores, and leaves the rest alone; a rehearsal does the same without writing anything, and
//! so says exactly what the run would do. What is going on is reported to a [`Progress`].
//!
//! A run has these steps, and its output is the same however many jobs it has:
//!
//! 1. documents that changed are converted into pieces, each on its own;
//! 2. what their links lead to, and which places others want of them, is looked up again now that all of them are known; the few
//!    for which that makes a difference are converted again;
//! 3. pages get their frames and are written, then files that they show or lead to, then the pages of a site;
//! 4. the record, [`RECORD_FILE`], is written.
//!
//! ```no_run
//! use obblet::profile::{Layers, Profile};
//! use obblet::publish::{Options, Plan, Progress, Step};
//! use std::path::Path;
//!
//! struct Silent;
//! impl Progress for Silent {
//!     fn step(&mut self, _: &Step<'_>) {}
//! }
//!
//! let layers = Layers::new(Profile::built_in("page")?);
//! let plan = Plan::new(Path::new("handbook"), Path::new("site"), Options::new(layers))?;
//! let summary = plan.run(&mut Silent)?;
//! assert_eq!(summary.failed, 0);
//! # Ok::<(), obblet::Error>(())
//! ```

mod agenda;
mod archive;
mod assets;
mod binder;
mod convert_document;
mod findings;
pub(crate) use findings::FINDINGS;
mod hash;
mod ignored;
mod link_index;
mod linked_places;
mod links;
mod moved;
mod output_folder;
mod output_paths;
mod parallel;
mod paths;
mod plan;
mod record;
mod rendered;
mod run;
mod site;
mod slice;
mod slice_files;
mod split;
mod targets;
mod touched;
mod tree;

pub use crate::error::PublishError;
pub use archive::archive;
pub use ignored::{IGNORE_FILE, Skipped};
pub use links::DocumentLinks;
pub use plan::{Plan, Planned, Removed, State, Why};
pub use record::{RECORD_FILE, UNFINISHED_FILE};

use crate::document::{Finding, Weight};
use crate::error::Error;
use crate::files::Root;
use crate::formats::Format;
use crate::profile::Layers;
use std::path::{Path, PathBuf};
use std::time::Duration;

/// A document, and where it goes. Both paths count from their folders.
#[derive(Clone, Debug, PartialEq, Eq)]
pub struct Entry {
    /// The document.
    pub source: PathBuf,
    /// The page.
    pub output: PathBuf,
    /// The format of the document.
    pub format: Format,
}

/// How a folder is published.
#[derive(Debug)]
pub struct Options {
    /// Where the settings of documents come from.
    pub layers: Layers,
    /// The format that is written.
    pub writes: Format,
    /// The formats that are read; all where none are given.
    pub reads: Vec<Format>,
    /// Patterns of the documents that may be converted; all where there are none. The others stay as they are.
    pub only: Vec<String>,
    /// Whether everything is converted, and what somebody edited is overwritten.
    pub force: bool,
    /// Whether outputs are removed whose sources are gone.
    pub prune: bool,
    /// How many documents are converted at the same time; 0 for as many as there are cores.
    pub jobs: usize,
    /// Converts one part of the folder only, of so many; what comes of it waits for [`join`](Self::join).
    pub slice: Option<(u32, u32)>,
    /// Finishes what slices have begun. These are the files that they wrote, or folders that hold them.
    pub join: Vec<PathBuf>,
    /// Tells the time, for reports on how long things take; the library has no clock of its own.
    pub clock: Option<fn() -> Duration>,
}

impl Options {
    /// HTML from all documents, with these layers of settings.
    #[must_use]
    pub fn new(layers: Layers) -> Self {
        Self {
            layers,
            writes: Format::Html,
            reads: Vec::new(),
            only: Vec::new(),
            force: false,
            prune: false,
            jobs: 0,
            slice: None,
            join: Vec::new(),
            clock: None,
        }
    }
}

/// What happened to a file.
#[derive(Clone, Debug, PartialEq, Eq)]
pub enum Action {
    /// A new document was converted.
    New,
    /// A document was converted again.
    Changed(Why),
    /// Nothing was to be done.
    Unchanged,
    /// A document was left for another run: it was not asked for, or is not of this slice.
    Left,
    /// It could not be converted.
    Failed,
    /// It was left out.
    Skipped(String),
    /// A file came along.
    Copied,
    /// A page or a file was made that no document is made of.
    Made,
    /// What was made of something that is gone was removed.
    Removed,
    /// What was made of something that is gone is still there.
    Stays,
}

impl Action {
    /// The word for it.
    #[must_use]
    pub const fn word(&self) -> &'static str {
        match self {
            Self::New => "new",
            Self::Changed(_) => "changed",
            Self::Unchanged => "unchanged",
            Self::Left => "left",
            Self::Failed => "failed",
            Self::Skipped(_) => "skipped",
            Self::Copied => "copied",
            Self::Made => "made",
            Self::Removed => "removed",
            Self::Stays => "stays",
        }
    }
}

/// One thing that was done, or that would be.
#[derive(Debug)]
pub struct Step<'s> {
    /// The path of the source; empty for what has none.
    pub source: &'s str,
    /// The paths of what it became.
    pub outputs: Vec<&'s str>,
    /// What happened.
    pub action: Action,
    /// What the user should know.
    pub findings: &'s [Finding],
    /// Why it failed.
    pub error: Option<&'s Error>,
    /// How long its conversion took.
    pub time: Duration,
}

/// What is said while a folder is published. Calls come from one thread; steps come in the order of their sources, whatever the
/// number of jobs.
pub trait Progress {
    /// So many documents will be converted.
    fn begin(&mut self, _documents: usize) {}

    /// A document has been converted, and waits to be written.
    fn converted(&mut self, _source: &str) {}

    /// Something is done.
    fn step(&mut self, step: &Step<'_>);
}

/// What came of a run.
#[derive(Clone, Debug, Default, PartialEq, Eq)]
pub struct Summary {
    /// Documents that were converted.
    pub converted: usize,
    /// Documents that are as they were.
    pub unchanged: usize,
    /// Documents that were left for another run.
    pub left: usize,
    /// Files that were left out.
    pub skipped: usize,
    /// Documents that could not be converted.
    pub failed: usize,
    /// Files that came along.
    pub copied: usize,
    /// Pages and files that no document is made of.
    pub made: usize,
    /// Outputs that were removed.
    pub removed: usize,
    /// Outputs that stay although their sources are gone.
    pub stays: usize,
    /// Outputs that somebody edited, and that stay as they are.
    pub edited: usize,
    /// How many findings of each weight were reported: those of all documents, converted in this run or not, those of files that
    /// came along, and those of the folder as a whole.
    pub weights: [usize; 3],
}

impl Summary {
    /// Whether there is a finding of a weight, or a heavier one.
    #[must_use]
    pub fn reaches(&self, weight: Weight) -> bool {
        self.weights[..=weight as usize].iter().any(|&count| count > 0)
    }
}

/// The format of a file, by its extension.
#[must_use]
pub fn format_of(path: &Path) -> Option<Format> {
    Format::from_extension(&path.extension()?.to_string_lossy())
}

/// The documents of a folder and their pages, in the order of their paths, without asking what has changed. Where the folder is
/// the output of a run, pages that no document became are left out.
///
/// # Errors
/// Where the folder can't be read.
pub fn documents(source: &Path) -> Result<Vec<Entry>, Error> {
    let root = Root::open(source).map_err(|cause| Error::File { path: source.display().to_string(), cause })?;
    let mut tree = tree::scan(&root, &tree::Choice::default())?;
    let made = tree::made_pages(&root);
    tree.documents.retain(|found| !made.contains(&found.path));
    let named = output_paths::name_all(&tree.documents, &tree.others, Format::Html);
    let entry = |(found, named): (tree::Found, output_paths::Named)| Entry {
        source: found.path.into(),
        output: named.output.into(),
        format: found.format,
    };
    Ok(tree.documents.into_iter().zip(named).map(entry).collect())
}
