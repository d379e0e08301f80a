//! Links between documents that are converted one by one.

use super::link_index::{LinkIndex, Target};
use super::{Entry, paths};
use crate::context::Context;
use crate::document::Place;
use crate::files::There;
use crate::links::{LinkResolver, LinkTarget};
use crate::media;
use std::collections::BTreeSet;
use std::path::{Component, Path, PathBuf};

/// Knows where each of several documents goes.
#[derive(Debug)]
pub struct DocumentLinks {
    link_index: LinkIndex,
}

/// The links of one of the documents.
struct LinksFrom<'l> {
    link_index: &'l LinkIndex,
    source: String,
    output: String,
    /// What is around the document.
    context: Context<'l>,
}

impl DocumentLinks {
    /// The links between documents.
    #[must_use]
    pub fn new(entries: &[Entry]) -> Self {
        let documents = entries.iter().map(|entry| (text(&entry.source), text(&entry.output)));
        Self { link_index: LinkIndex::new(documents, BTreeSet::new()) }
    }

    /// The links of the document `source`. Links to documents that are there, as far as what is around it
    /// lets one look, and are not converted, are none that lead nowhere.
    pub fn from<'l>(&'l self, source: &Path, context: &Context<'l>) -> impl LinkResolver + 'l {
        let source = text(source);
        let output = match self.link_index.find("", &source) {
            Target::Document(index, _) => self.link_index.output(index).to_owned(),
            _ => source.clone(),
        };
        LinksFrom { link_index: &self.link_index, source, output, context: *context }
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
        let Some(root) = self.context.media else { return true };
        let path = address.split(['?', '#']).next().unwrap_or_default();
        let path = percent_encoding::percent_decode_str(path).decode_utf8_lossy();
        media::within(self.context.folder, &path).is_none_or(|path| root.there(&path) != There::Nothing)
    }
}

impl LinkResolver for LinksFrom<'_> {
    fn resolve(&self, address: &str, _: Place) -> LinkTarget {
        match self.link_index.find(&self.source, address) {
            Target::Document(index, rest) => {
                LinkTarget::Rewritten(format!("{}{rest}", paths::address(&self.output, self.link_index.output(index))))
            }
            // Whether other files are where they are said to be is asked by nobody who converts single documents.
            Target::Missing(wanted)
                if super::format_of(Path::new(&wanted))
                    .is_some_and(|format| format.is_read() && format.descriptor().is_published)
                    && !self.is_there(address) =>
            {
                LinkTarget::Missing { nearest: self.link_index.near(&wanted) }
            }
            Target::Elsewhere | Target::Folder(..) | Target::File(_) | Target::Missing(_) => LinkTarget::Unchanged,
        }
    }
}
