//! A folder in, web output out: every document becomes a page at the same place, links between documents lead to the
//! pages, and the pictures that pages show come along.

mod file;
mod links;

pub use file::write_whole;
pub use links::DocumentLinks;

use crate::conversion::{Converted, Surroundings};
use crate::convert::convert_in;
use crate::document::Finding;
use crate::error::Error;
use crate::formats::Format;
use crate::profile::Profile;
use std::path::{Path, PathBuf};

/// A document of a folder, and where its page goes. Both paths count from their folders.
#[derive(Clone, Debug, PartialEq, Eq)]
pub struct Entry {
    /// The document.
    pub source: PathBuf,
    /// The page.
    pub output: PathBuf,
    /// The format of the document.
    pub format: Format,
}

/// What is said while a folder is published.
pub trait Progress {
    /// A page is done.
    fn done(&mut self, entry: &Entry, findings: &[Finding]);
    /// A document could not be converted; the others go on.
    fn failed(&mut self, entry: &Entry, error: &Error);
}

/// Finds the documents of a folder, in the order of their paths. Hidden files are left out, and links are not followed.
///
/// # Errors
/// Where a folder can't be read.
pub fn plan(source: &Path) -> Result<Vec<Entry>, Error> {
    let mut entries = Vec::new();
    let mut folders = vec![PathBuf::new()];
    while let Some(folder) = folders.pop() {
        let path = source.join(&folder);
        let fail = |cause| Error::File { path: path.display().to_string(), cause };
        for item in std::fs::read_dir(&path).map_err(fail)? {
            let item = item.map_err(fail)?;
            let name = item.file_name();
            let relative = folder.join(&name);
            let kind = item.file_type().map_err(fail)?;
            if name.to_string_lossy().starts_with('.') {
                continue;
            }
            if kind.is_dir() {
                folders.push(relative);
            } else if let Some(format) = format_of(&relative).filter(|format| kind.is_file() && format.is_read()) {
                entries.push(Entry { output: relative.with_extension("html"), source: relative, format });
            }
        }
    }
    entries.sort_by(|a, b| a.source.cmp(&b.source));
    name_front_pages(&mut entries);
    Ok(entries)
}

/// The format of a file, by its extension.
#[must_use]
pub fn format_of(path: &Path) -> Option<Format> {
    Format::from_extension(&path.extension()?.to_string_lossy())
}

/// A readme is the front page of its folder, unless the folder has one.
fn name_front_pages(entries: &mut [Entry]) {
    let outputs: Vec<PathBuf> = entries.iter().map(|entry| entry.output.clone()).collect();
    for entry in entries {
        let is_readme = entry.source.file_stem().is_some_and(|stem| stem.eq_ignore_ascii_case("readme"));
        let front = entry.output.with_file_name("index.html");
        if is_readme && !outputs.contains(&front) {
            entry.output = front;
        }
    }
}

/// Converts the documents of a plan into pages below `output`.
///
/// # Errors
/// Where a profile of a folder can't be used. What is wrong with a document is told to `progress`.
pub fn run(source: &Path, output: &Path, entries: &[Entry], profile: &Profile, progress: &mut dyn Progress) -> Result<(), Error> {
    let links = DocumentLinks::new(source, entries);
    for entry in entries {
        let folder = source.join(entry.source.parent().unwrap_or(Path::new("")));
        let mut own = profile.clone();
        own.apply_folders(&folder, Some(source))?;
        match page(source, output, entry, &own, &links) {
            Ok(converted) => progress.done(entry, &converted.findings),
            Err(error) => progress.failed(entry, &error),
        }
    }
    Ok(())
}

fn page(source: &Path, output: &Path, entry: &Entry, profile: &Profile, links: &DocumentLinks) -> Result<Converted, Error> {
    let path = source.join(&entry.source);
    let bytes = std::fs::read(&path).map_err(|cause| Error::File { path: path.display().to_string(), cause })?;
    let folder = path.parent().unwrap_or(source);
    let target = output.join(&entry.output);
    let target_folder = target.parent().unwrap_or(output);
    let depth = entry.output.components().count().saturating_sub(1);
    let name = entry.source.file_stem().map_or_else(String::new, |stem| stem.to_string_lossy().into_owned());
    let surroundings = Surroundings {
        name: &name,
        folder: Some(folder),
        root: Some(source),
        output: Some(target_folder),
        to_top: &"../".repeat(depth),
        mirrored: true,
        links: Some(&links.from(&entry.source)),
    };
    let converted = convert_in(&bytes, entry.format, Format::Html, profile, &surroundings)?;
    for file in &converted.files {
        let to = file::normal(&target_folder.join(&file.path));
        // A picture of the source that reaches out of the folder has been refused already; this guards the output.
        if to.starts_with(file::normal(output)) {
            file::write_whole(&to, &file.bytes)?;
        }
    }
    file::write_whole(&target, converted.text.as_bytes())?;
    Ok(converted)
}
