//! What goes into a conversion beside the document, and what comes out of it.

use crate::cache::Shared;
use crate::document::{Finding, Place};
use crate::files::Root;
use std::path::{Path, PathBuf};

/// What becomes of a link.
#[derive(Clone, Debug, PartialEq, Eq)]
pub enum LinkTarget {
    /// It stays as it is.
    Unchanged,
    /// It leads to another address.
    Rewritten(String),
    /// There is nothing at its address.
    Missing {
        /// The address that is nearest to it, where one is near.
        nearest: Option<String>,
    },
}

/// Tells where links lead after conversion. A folder that is published has one that knows its documents.
pub trait LinkResolver {
    /// What becomes of an address in a document, of a link at a place.
    fn resolve(&self, address: &str, at: Place) -> LinkTarget;
}

/// What stands around a document. All of it may be left out: then nothing is read but the text itself.
#[derive(Clone, Copy, Default)]
pub struct Context<'a> {
    /// The name of the document's file, without its extension.
    pub name: &'a str,
    /// The folder that files of the source are read from, and that nothing leads out of. Without one, nothing is read.
    pub root: Option<&'a Root>,
    /// The path from there to the folder of the document, from which the addresses of pictures count; none where that is the
    /// root itself.
    pub folder: Option<&'a Path>,
    /// Says which files of the root may be shown, by their paths from it. Where it is not given, those are that are not hidden.
    pub shows: Option<&'a (dyn Fn(&str) -> bool + Sync)>,
    /// The folder that the output goes to, where it goes to a file.
    pub output: Option<&'a Path>,
    /// The way from the output to the top of what it is part of, as in `../`.
    pub to_top: &'a str,
    /// Whether files keep their places: the output is a folder of the same shape as the source.
    pub mirrored: bool,
    /// Tells where links lead.
    pub links: Option<&'a dyn LinkResolver>,
    /// What the pages of a folder share.
    pub shared: Option<&'a Shared>,
}

impl std::fmt::Debug for Context<'_> {
    fn fmt(&self, f: &mut std::fmt::Formatter<'_>) -> std::fmt::Result {
        f.debug_struct("Context").field("name", &self.name).field("folder", &self.folder).finish_non_exhaustive()
    }
}

/// A file that belongs to an output.
#[derive(Clone, Debug, PartialEq, Eq)]
pub struct OutputFile {
    /// Where it goes, from the folder of the output.
    pub path: PathBuf,
    /// Its bytes.
    pub bytes: Vec<u8>,
}

/// How many characters an output takes of those that its target takes.
#[derive(Clone, Debug, Default, PartialEq, Eq)]
pub struct Length {
    /// Characters of the output, markup counted.
    pub used: u64,
    /// The most that the target takes.
    pub limit: u64,
}

impl Length {
    /// How many characters are left; none where there are too many.
    #[must_use]
    pub const fn left(&self) -> u64 {
        self.limit.saturating_sub(self.used)
    }
}

/// The outcome of a conversion.
#[derive(Clone, Debug, Default)]
pub struct Converted {
    /// The document in its new format.
    pub text: String,
    /// What the user should know.
    pub findings: Vec<Finding>,
    /// Files that go with it.
    pub files: Vec<OutputFile>,
    /// Its title.
    pub title: String,
    /// How much of its room the output takes, where `limits.characters` says how much there is.
    pub length: Option<Length>,
    /// Files that its pictures are, by their paths from the root, whether they are there or not.
    pub uses: Vec<PathBuf>,
}
