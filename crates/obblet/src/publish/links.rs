//! Links between documents that are converted one by one.

use super::atlas::{Atlas, Files, Target};
use super::{Entry, paths};
use crate::conversion::{LinkTarget, Links};
use crate::document::Place;
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
}

impl DocumentLinks {
    /// The links between documents that lie in `folder`.
    #[must_use]
    pub fn new(folder: &Path, entries: &[Entry]) -> Self {
        let documents = entries.iter().map(|entry| (text(&entry.source), text(&entry.output)));
        Self { atlas: Atlas::new(documents, Files::Below(folder.to_owned())) }
    }

    /// The links of the document `source`.
    pub fn from<'l>(&'l self, source: &Path) -> impl Links + 'l {
        let source = text(source);
        let output = match self.atlas.find("", &source) {
            Target::Document(index, _) => self.atlas.output(index).to_owned(),
            _ => source.clone(),
        };
        LinksFrom { atlas: &self.atlas, source, output }
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

impl Links for LinksFrom<'_> {
    fn resolve(&self, address: &str, _: Place) -> LinkTarget {
        match self.atlas.find(&self.source, address) {
            Target::Document(index, rest) => {
                LinkTarget::Leads(format!("{}{rest}", paths::address(&self.output, self.atlas.output(index))))
            }
            // Whether other files are where they are said to be is asked by nobody who converts single documents.
            Target::Missing(wanted) if super::format_of(Path::new(&wanted)).is_some_and(|format| format.is_read()) => {
                LinkTarget::Missing { nearest: self.atlas.near(&wanted) }
            }
            Target::Elsewhere | Target::Folder(..) | Target::File(_) | Target::Missing(_) => LinkTarget::Stays,
        }
    }
}
