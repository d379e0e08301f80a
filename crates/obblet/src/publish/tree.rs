//! What is in a folder: documents, other files, and what is left out, with the reason.

use super::hash::{self, Hash};
use super::ignored::{Rules, Skipped};
use super::record::Record;
use super::{RECORD_FILE, UNFINISHED_FILE, format_of, paths};
use crate::error::Error;
use crate::fast_hash::HashSet;
use crate::files::{Kind, Root, There};
use crate::formats::Format;
use crate::profile::{FILE_NAME, globs};
use globset::GlobSet;
use rayon::prelude::*;
use std::collections::BTreeSet;
use std::ffi::OsString;
use std::path::{Path, PathBuf};
use std::sync::Arc;

/// A document of the folder.
#[derive(Clone, Debug, PartialEq, Eq)]
pub(super) struct Found {
    pub(super) path: String,
    pub(super) format: Format,
    pub(super) content: Content,
    /// The name that it gives what it becomes, without an extension.
    pub(super) own_name: Option<String>,
}

/// The hash and the size of a document as it was when it was looked at, or why it can't be read.
pub(super) type Content = Result<(Hash, u64), String>;

impl Found {
    /// A document that nobody has looked into yet.
    pub(super) const fn new(path: String, format: Format) -> Self {
        Self { path, format, content: Ok((Hash::NOTHING, 0)), own_name: None }
    }

    /// The name of what it becomes, without an extension.
    pub(super) fn stem(&self) -> &str {
        self.own_name.as_deref().unwrap_or_else(|| paths::stem(&self.path).0)
    }
}

/// Pages of a folder that a run of ours made and that no document became, where the folder is the output of one: pages of
/// folders, lists of pages, pages that lead on.
pub(super) fn made_pages(root: &Root) -> HashSet<String> {
    if !matches!(root.there(RECORD_FILE.as_ref()), There::File(_)) {
        return HashSet::default();
    }
    let record = Record::read(root);
    record.others.into_values().filter(|other| other.source.is_empty()).map(|other| other.output.path).collect()
}

/// Looks into documents, over all cores.
pub(super) fn hash(documents: &mut [Found], root: &Root) {
    documents.par_iter_mut().with_min_len(16).for_each(|found| {
        let path = found.path.as_ref();
        let mut beginning = Vec::new();
        let content = if found.format.descriptor().output_name.is_some() {
            hash::of_file_to(root, path, |bytes| {
                beginning.extend_from_slice(&bytes[..bytes.len().min(Format::OUTPUT_NAME_WITHIN - beginning.len())]);
                Ok(())
            })
        } else {
            hash::of_file(root, path)
        };
        found.own_name = found.format.output_name(&beginning);
        found.content = content.map_err(|error| crate::io_error::describe(&error));
    });
}

/// What is in a folder.
#[derive(Debug, Default)]
pub(super) struct Tree {
    /// In the order of their paths.
    pub(super) documents: Vec<Found>,
    /// Documents of formats that were not asked for.
    pub(super) unasked: Vec<Found>,
    pub(super) others: BTreeSet<String>,
    pub(super) skipped: Vec<Skipped>,
}

/// Which documents are asked for.
#[derive(Debug, Default)]
pub(super) struct Choice<'c> {
    pub(super) formats: &'c [Format],
    pub(super) include: &'c [String],
    pub(super) exclude: &'c [String],
    /// Folders that are not looked into, from the folder.
    pub(super) outputs: Vec<PathBuf>,
}

impl Choice<'_> {
    /// Whether files of a format are documents.
    fn takes(&self, format: Format) -> bool {
        format.is_read() && (format.descriptor().is_published || self.formats.contains(&format))
    }
}

/// Whether a program put a file beside a document that is open in it.
fn is_lock_file(name: &str, format: Format) -> bool {
    let prefix = format.descriptor().lock_file_prefix;
    !prefix.is_empty() && name.starts_with(prefix)
}

/// Looks through a folder. Hidden files and what ignore files name are left out; symbolic links to files that are found are
/// followed, others are not.
pub(super) fn scan(root: &Root, choice: &Choice<'_>) -> Result<Tree, Error> {
    let mut looking = Scan {
        root,
        include: globs(choice.include).map_err(Error::Profile)?,
        exclude: globs(choice.exclude).map_err(Error::Profile)?,
        choice,
        tree: Tree::default(),
        links: Vec::new(),
    };
    let mut folders = vec![(String::new(), None)];
    while let Some((folder, above)) = folders.pop() {
        let entries = root.entries(folder.as_ref()).and_then(Iterator::collect::<std::io::Result<Vec<_>>>);
        match entries {
            Ok(entries) => looking.folder(&folder, above, entries, &mut folders),
            Err(cause) if folder.is_empty() => return Err(Error::File { path: root.path().display().to_string(), cause }),
            Err(error) => looking.skip(&folder, &format!("it can't be read: {}", crate::io_error::describe(&error))),
        }
    }
    looking.resolve_links();
    let mut tree = looking.tree;
    tree.documents.sort_by(|a, b| a.path.cmp(&b.path));
    tree.skipped.sort_by(|a, b| a.path.cmp(&b.path));
    Ok(tree)
}

/// A folder that is looked through.
struct Scan<'l> {
    root: &'l Root,
    include: GlobSet,
    exclude: GlobSet,
    choice: &'l Choice<'l>,
    tree: Tree,
    /// Symbolic links to files, and those files.
    links: Vec<(String, Option<String>)>,
}

impl Scan<'_> {
    fn skip(&mut self, path: &str, why: &str) {
        self.tree.skipped.push(Skipped { path: path.to_owned(), why: why.to_owned() });
    }

    fn folder(
        &mut self,
        folder: &str,
        above: Option<Arc<Rules>>,
        entries: Vec<(OsString, Kind)>,
        folders: &mut Vec<(String, Option<Arc<Rules>>)>,
    ) {
        // What was published into a folder of the source is no source.
        let is_output = entries.iter().any(|(name, kind)| name == RECORD_FILE && *kind == Kind::File);
        if is_output && !folder.is_empty() {
            return;
        }
        let rules = Rules::read(self.root, folder, above, &entries, &mut self.tree.skipped);
        for (name, kind) in entries {
            let Some(name) = name.to_str() else {
                let path = paths::join(folder, &name.to_string_lossy());
                self.skip(&path, "its name is not Unicode; rename it");
                continue;
            };
            let path = paths::join(folder, name);
            let is_folder = kind == Kind::Folder;
            let is_left_out = match rules.as_ref().and_then(|rules| rules.say(&path, is_folder)) {
                Some(is_left_out) => is_left_out,
                None => name.starts_with('.'),
            };
            if is_left_out {
                continue;
            }
            if name.contains('\\') {
                self.skip(&path, "its name has a backslash, which other systems take for a folder; rename it");
                continue;
            }
            match kind {
                Kind::Folder if self.choice.outputs.iter().any(|output| output == Path::new(&path)) => {}
                Kind::Folder => folders.push((path, rules.clone())),
                Kind::File => self.file(path),
                Kind::Link => self.link(path),
                Kind::Special => self.skip(&path, "no file but a device, a pipe or a socket"),
            }
        }
    }

    fn link(&mut self, path: String) {
        match self.root.there(path.as_ref()) {
            There::File(_) => {
                let target = self.root.without_links(path.as_ref()).ok().and_then(|target| text(&target));
                self.links.push((path, target));
            }
            There::Nothing => self.skip(&path, "a symbolic link that leads nowhere"),
            There::Outside => self.skip(&path, "a symbolic link out of the folder; such links are not followed"),
            There::Folder => self.skip(&path, "a symbolic link to a folder, whose documents are published where they are"),
            There::Special => self.skip(&path, "a symbolic link to a device, a pipe or a socket"),
        }
    }

    /// Links lead to what was found, and to nothing that is hidden or left out.
    fn resolve_links(&mut self) {
        if self.links.is_empty() {
            return;
        }
        let mut found: HashSet<String> = self.tree.others.iter().cloned().collect();
        found.extend(self.tree.documents.iter().chain(&self.tree.unasked).map(|found| found.path.clone()));
        for (path, target) in std::mem::take(&mut self.links) {
            if target.is_some_and(|target| found.contains(&target)) {
                self.file(path);
            } else {
                self.skip(&path, "a symbolic link to a file that is hidden or left out");
            }
        }
    }

    fn file(&mut self, path: String) {
        if [FILE_NAME, RECORD_FILE, UNFINISHED_FILE].contains(&paths::name(&path)) {
            return;
        }
        if self.exclude.is_match(&path) {
            return self.skip(&path, "publish.exclude");
        }
        let choice = self.choice;
        match format_of(path.as_ref()).filter(|&format| choice.takes(format)) {
            Some(_) if !self.include.is_empty() && !self.include.is_match(&path) => self.skip(&path, "not in publish.include"),
            Some(format) if !choice.formats.is_empty() && !choice.formats.contains(&format) => {
                self.tree.unasked.push(Found::new(path, format));
            }
            // Office programs put such files beside a document that is open.
            Some(format) if is_lock_file(paths::name(&path), format) => {
                self.skip(&path, "a note of an office program that the document beside it is open");
            }
            Some(format) => self.tree.documents.push(Found::new(path, format)),
            None => {
                self.tree.others.insert(path);
            }
        }
    }
}

/// A path as text with slashes.
pub(super) fn text(path: &Path) -> Option<String> {
    if std::path::MAIN_SEPARATOR == '/' {
        return path.to_str().map(str::to_owned);
    }
    let mut text = String::with_capacity(path.as_os_str().len());
    for part in path {
        if !text.is_empty() {
            text.push('/');
        }
        text.push_str(part.to_str()?);
    }
    Some(text)
}
