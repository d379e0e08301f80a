//! Links between documents that are converted one by one.

use super::atlas::{Atlas, Target};
use super::{Entry, paths};
use crate::conversion::{LinkTarget, Links, Surroundings};
use crate::document::Place;
use crate::files::There;
use crate::page::images;
use std::collections::BTreeSet;
use std::path::{Component, Path, PathBuf};

/// Knows where each of several documents goes.
#[derive(Debug)]
pub struct DocumentLinks {
    atlas: Atlas,
}

/// The links of one of the documents.
struct LinksFrom<'l> {
    atlas: &'l Atlas,
    source: String,
    output: String,
    /// What is around the document.
    around: Surroundings<'l>,
}

impl DocumentLinks {
    /// The links between documents.
    #[must_use]
    pub fn new(entries: &[Entry]) -> Self {
        let documents = entries.iter().map(|entry| (text(&entry.source), text(&entry.output)));
        Self { atlas: Atlas::new(documents, BTreeSet::new()) }
    }

    /// The links of the document `source`. Links to documents that are there, as far as what is around it
    /// lets one look, and are not converted, are none that lead nowhere.
    pub fn from<'l>(&'l self, source: &Path, around: &Surroundings<'l>) -> impl Links + 'l {
        let source = text(source);
        let output = match self.atlas.find("", &source) {
            Target::Document(index, _) => self.atlas.output(index).to_owned(),
            _ => source.clone(),
        };
        LinksFrom { atlas: &self.atlas, source, output, around: *around }
    }
}

/// A path without `.` and `..` as far as names alone can tell, with slashes.
fn text(path: &Path) -> String {
    let mut normal = PathBuf::new();
    for part in path.components() {
        match part {
            Component::CurDir | Component::RootDir | Component::Prefix(_) => {}
            Component::ParentDir => {
                normal.pop();
            }
            Component::Normal(name) => normal.push(name),
        }
    }
    normal.iter().map(|part| part.to_string_lossy()).collect::<Vec<_>>().join("/")
}

impl LinksFrom<'_> {
    /// Whether something is at an address, as far as that may be looked for.
    fn is_there(&self, address: &str) -> bool {
        let Some(root) = self.around.root else { return true };
        let path = address.split(['?', '#']).next().unwrap_or_default();
        let path = percent_encoding::percent_decode_str(path).decode_utf8_lossy();
        images::within(self.around.folder, &path).is_none_or(|path| root.there(&path) != There::Nothing)
    }
}

impl Links for LinksFrom<'_> {
    fn resolve(&self, address: &str, _: Place) -> LinkTarget {
        match self.atlas.find(&self.source, address) {
            Target::Document(index, rest) => {
                LinkTarget::Leads(format!("{}{rest}", paths::address(&self.output, self.atlas.output(index))))
            }
            // Whether other files are where they are said to be is asked by nobody who converts single documents.
            Target::Missing(wanted)
                if super::format_of(Path::new(&wanted)).is_some_and(|format| format.is_read()) && !self.is_there(address) =>
            {
                LinkTarget::Missing { nearest: self.atlas.near(&wanted) }
            }
            Target::Elsewhere | Target::Folder(..) | Target::File(_) | Target::Missing(_) => LinkTarget::Stays,
        }
    }
}
