//! What goes into a conversion beside the document, and what comes out of it.

use crate::cache::Shared;
use crate::document::Finding;
use crate::error::Error;
use crate::formats::Anchors;
use crate::links::{ExternalLinks, LinkResolver, NoExternalLinks};
use crate::media::{FilesAround, MediaSource, MediaStore};
use std::path::{Path, PathBuf};

/// What stands around a document. All of it may be left out: then nothing is read but the text itself.
#[derive(Clone, Copy, Default)]
pub struct Context<'a> {
    /// The name of the document's file, without its extension.
    pub name: &'a str,
    /// The extension of the file that is written, where it goes to a file and has one.
    pub extension: &'a str,
    /// Where images come from, such as a [`Root`](crate::files::Root), which no path leads out of. Without it none is read.
    pub media: Option<&'a dyn MediaSource>,
    /// The path from there to the folder of the document, from which the addresses of images count; none where that is the
    /// root itself.
    pub folder: Option<&'a Path>,
    /// Where images go that don't stay where they are. Without it they are files of the outcome.
    pub store: Option<&'a dyn MediaStore>,
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
    /// Tells which places of the document others lead to.
    pub external: Option<&'a dyn ExternalLinks>,
    /// What the pages of a folder share.
    pub shared: Option<&'a Shared>,
    /// Hears how far the conversion is, and may cancel it.
    pub progress: Option<&'a dyn Progress>,
}

impl<'a> Context<'a> {
    /// Whether there is a place beside the output where files can go.
    pub(crate) fn has_store(&self) -> bool {
        self.output.is_some() || self.store.is_some()
    }

    /// Tells which places of the document others lead to.
    pub(crate) fn external(&self) -> &'a dyn ExternalLinks {
        self.external.unwrap_or(&NoExternalLinks)
    }

    /// The files around the document, of so many bytes at most.
    pub(crate) const fn files(&self, limit: u64) -> FilesAround<'a> {
        FilesAround { root: self.media, folder: self.folder, shows: self.shows, limit, name: self.name }
    }

    /// Says that a stage begins.
    pub(crate) fn reached(&self, stage: Stage) -> Result<(), Error> {
        let Some(progress) = self.progress else { return Ok(()) };
        progress.reached(stage);
        if progress.is_cancelled() { Err(Error::Cancelled) } else { Ok(()) }
    }
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
    pub bytes: Vec<u8>,
    /// What the user should know.
    pub findings: Vec<Finding>,
    /// Files that go with it.
    pub files: Vec<OutputFile>,
    /// The places in it that links can lead to, where the output is one of several ([`Context::shared`]).
    pub anchors: Anchors,
    /// Its title.
    pub title: String,
    /// How much of its room the output takes, where `limits.characters` says how much there is.
    pub length: Option<Length>,
    /// Files that its images are, by their paths from the root, whether they are there or not.
    pub uses: Vec<PathBuf>,
    /// Files that the source includes, in the same way.
    pub includes: Vec<PathBuf>,
}

impl Converted {
    /// The document as text; `None` where its format is binary.
    #[must_use]
    pub fn text(&self) -> Option<&str> {
        simdutf8::basic::from_utf8(&self.bytes).ok()
    }

    /// The document as text; `None` where its format is binary.
    #[must_use]
    pub fn into_text(self) -> Option<String> {
        String::from_utf8(self.bytes).ok()
    }

    /// Writes the document.
    ///
    /// # Errors
    /// Those of the writer.
    pub fn write_to(&self, mut out: impl std::io::Write) -> std::io::Result<()> {
        out.write_all(&self.bytes)
    }
}

/// A part of a conversion, in the order in which they come.
#[derive(Clone, Copy, Debug, PartialEq, Eq, PartialOrd, Ord, Hash)]
#[non_exhaustive]
pub enum Stage {
    /// The source becomes a document.
    Read,
    /// The passes run.
    Refine,
    /// Images go where they belong.
    Place,
    /// The document becomes bytes.
    Write,
}

/// Somebody who waits for a conversion: hears how far it is, and may cancel it.
pub trait Progress: Sync {
    /// A stage begins.
    fn reached(&self, stage: Stage);

    /// Whether the conversion ends here, with [`Error::Cancelled`].
    fn is_cancelled(&self) -> bool {
        false
    }
}

/// A progress that only cancels: hand it to a conversion, keep a reference, and call [`cancel`](Self::cancel) from any thread.
#[derive(Debug, Default)]
pub struct Cancellation(std::sync::atomic::AtomicBool);

impl Cancellation {
    /// Ends the conversion at its next stage.
    pub fn cancel(&self) {
        self.0.store(true, std::sync::atomic::Ordering::Relaxed);
    }
}

impl Progress for Cancellation {
    fn reached(&self, _: Stage) {}

    fn is_cancelled(&self) -> bool {
        self.0.load(std::sync::atomic::Ordering::Relaxed)
    }
}
