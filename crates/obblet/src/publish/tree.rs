//! What is in a folder: documents, other files, and what is left out, with the reason.

use super::hash::Hash;
use super::{RECORD_FILE, UNFINISHED_FILE, format_of, source};
use crate::error::Error;
use crate::formats::Format;
use crate::profile::{FILE_NAME, ProfileError, globs};
use ignore::WalkBuilder;
use rayon::prelude::*;
use std::collections::BTreeSet;
use std::path::{Path, PathBuf};

/// The name of files that say what is left out, in the syntax that version control uses for it.
pub const IGNORE_FILE: &str = ".obbletignore";

/// A document of the folder.
#[derive(Clone, Debug, PartialEq, Eq)]
pub(super) struct Found {
    pub(super) path: String,
    pub(super) format: Format,
    pub(super) content: Content,
}

/// The hash and the size of a document as it was when it was looked at, or why it can't be read.
pub(super) type Content = Result<(Hash, u64), String>;

impl Found {
    /// A document that nobody has looked into yet.
    pub(super) const fn new(path: String, format: Format) -> Self {
        Self { path, format, content: Ok((Hash::NOTHING, 0)) }
    }
}

/// Looks into documents, over all cores.
pub(super) fn hash(documents: &mut [Found], root: &Path) {
    documents.par_iter_mut().with_min_len(16).for_each(|found| {
        found.content = source::hash(&root.join(&found.path)).map_err(|error| crate::error::describe(&error));
    });
}

/// Something that is left out.
#[derive(Clone, Debug, PartialEq, Eq)]
pub struct Skipped {
    /// Its path in the folder.
    pub path: String,
    /// Why.
    pub why: String,
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
    /// Folders that are not looked into.
    pub(super) outputs: Vec<PathBuf>,
}

/// Looks through a folder. Hidden files and what ignore files name are left out; symbolic links to files of the folder are
/// followed, others are not.
pub(super) fn look(source: &Path, choice: &Choice<'_>) -> Result<Tree, Error> {
    let fail = |path: &Path, cause| Error::File { path: path.display().to_string(), cause };
    let real = std::fs::canonicalize(source).map_err(|cause| fail(source, cause))?;
    if !real.is_dir() {
        return Err(fail(source, std::io::ErrorKind::NotADirectory.into()));
    }
    let pattern_error = |error: ProfileError| Error::Profile(error);
    let (include, exclude) = (globs(choice.include).map_err(pattern_error)?, globs(choice.exclude).map_err(pattern_error)?);
    let outputs = choice.outputs.clone();
    let walk = WalkBuilder::new(&real)
        .parents(false)
        .git_global(false)
        .git_exclude(false)
        .require_git(false)
        .follow_links(false)
        .add_custom_ignore_filename(IGNORE_FILE)
        .filter_entry(move |entry| {
            let is_folder = entry.depth() > 0 && entry.file_type().is_some_and(|kind| kind.is_dir());
            // What was published into a folder of the source is no source.
            let is_output = is_folder && entry.path().join(RECORD_FILE).is_file();
            !is_output && !outputs.iter().any(|output| entry.path() == output)
        })
        .build();
    let mut tree = Tree::default();
    for entry in walk {
        let entry = match entry {
            Ok(entry) => entry,
            Err(error) => {
                tree.skipped.push(unreadable(&error, &real));
                continue;
            }
        };
        let Some(kind) = entry.file_type().filter(|kind| !kind.is_dir()) else { continue };
        let relative = entry.path().strip_prefix(&real).unwrap_or(entry.path());
        let Some(path) = text(relative) else {
            let why = "its name is not Unicode; rename it".to_owned();
            tree.skipped.push(Skipped { path: relative.to_string_lossy().into_owned(), why });
            continue;
        };
        let skip = |why: &str| Skipped { path: path.clone(), why: why.to_owned() };
        if kind.is_symlink() {
            match std::fs::canonicalize(entry.path()) {
                Err(_) => {
                    tree.skipped.push(skip("a symbolic link that leads nowhere"));
                    continue;
                }
                Ok(target) if !target.starts_with(&real) => {
                    tree.skipped.push(skip("a symbolic link out of the folder; such links are not followed"));
                    continue;
                }
                Ok(target) if !target.is_file() => {
                    tree.skipped.push(skip("a symbolic link to a folder, whose documents are published where they are"));
                    continue;
                }
                Ok(_) => {}
            }
        } else if !kind.is_file() {
            tree.skipped.push(skip("no file but a device, a pipe or a socket"));
            continue;
        }
        if [FILE_NAME, RECORD_FILE, UNFINISHED_FILE].contains(&super::paths::name(&path)) {
            continue;
        }
        if exclude.is_match(&path) {
            tree.skipped.push(skip("publish.exclude"));
            continue;
        }
        match format_of(relative).filter(|format| format.is_read()) {
            Some(_) if !include.is_empty() && !include.is_match(&path) => tree.skipped.push(skip("not in publish.include")),
            Some(format) if !choice.formats.is_empty() && !choice.formats.contains(&format) => {
                tree.unasked.push(Found::new(path, format));
            }
            // Office programs put such files beside a document that is open.
            Some(Format::Word) if super::paths::name(&path).starts_with("~$") => {
                tree.skipped.push(skip("a note of an office program that the document beside it is open"));
            }
            Some(format) => tree.documents.push(Found::new(path, format)),
            None => {
                tree.others.insert(path);
            }
        }
    }
    tree.documents.sort_by(|a, b| a.path.cmp(&b.path));
    tree.skipped.sort_by(|a, b| a.path.cmp(&b.path));
    Ok(tree)
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

fn unreadable(error: &ignore::Error, root: &Path) -> Skipped {
    let mut path = None;
    let mut at = error;
    let why = loop {
        match at {
            ignore::Error::WithPath { path: known, err } => {
                path = Some(known.clone());
                at = err;
            }
            ignore::Error::WithDepth { err, .. } | ignore::Error::WithLineNumber { err, .. } => at = err,
            ignore::Error::Io(error) => break crate::error::describe(error),
            other => break other.to_string(),
        }
    };
    let path = path.unwrap_or_default();
    let path = path.strip_prefix(root).unwrap_or(&path).to_string_lossy().into_owned();
    Skipped { path, why: format!("it can't be read: {why}") }
}
