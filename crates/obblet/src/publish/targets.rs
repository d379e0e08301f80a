//! What the links of documents lead to, looked up once.

use super::link_index::{LinkIndex, Target};
use super::record::DocumentFacts;

/// What the links of a document lead to in its folder.
#[derive(Clone, Debug, Default)]
pub(super) struct Targets {
    /// The number of the link, and that of the document.
    pub(super) documents: Vec<(u32, u32)>,
    /// Paths of other files.
    pub(super) files: Vec<String>,
}

impl Targets {
    pub(super) fn of(link_index: &LinkIndex, source: &str, facts: &DocumentFacts) -> Self {
        let mut targets = Self::default();
        for (link, (address, _)) in (0..).zip(&facts.links) {
            match link_index.find(source, address) {
                Target::Document(to, _) => targets.documents.extend(u32::try_from(to).map(|to| (link, to))),
                Target::File(path) => targets.files.push(path),
                _ => {}
            }
        }
        targets
    }
}
