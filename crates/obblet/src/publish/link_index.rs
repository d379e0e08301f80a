//! Where the links of a folder lead: to documents in any format, to places in them, to other files.

use super::parallel::lock;
use super::paths;
use super::record::DocumentFacts;
use crate::fast_hash::HashMap;
use crate::profile;
use crate::slug;
use std::collections::BTreeSet;
use std::sync::{Mutex, OnceLock};

/// What an address leads to.
#[derive(Clone, Debug, PartialEq, Eq)]
pub(super) enum Target<'a> {
    /// Nothing of the folder: a place elsewhere, or one that this folder says nothing about.
    Elsewhere,
    /// A document, by its number, and what stands behind its path: a query and a place.
    Document(usize, &'a str),
    /// A folder that has a page of its own, by the path of that page.
    Folder(String, &'a str),
    /// Another file.
    File(String),
    /// Nothing that is there.
    Missing(String),
}

/// The documents of a folder, what becomes of them, and the other files.
#[derive(Debug, Default)]
pub(super) struct LinkIndex {
    sources: Vec<String>,
    outputs: Vec<String>,
    documents: HashMap<String, usize>,
    by_output: HashMap<String, usize>,
    /// The files that are no documents.
    files: BTreeSet<String>,
    /// Folders that have a page which no document is made of, and that page.
    pub(super) folders: HashMap<String, String>,
    /// What was found near to addresses that lead nowhere. Most are on every page of a site.
    nearest: Mutex<HashMap<String, Option<String>>>,
    /// All paths by the names of their files, and by their folders.
    paths: OnceLock<(Neighbours, Neighbours)>,
}

type Neighbours = HashMap<String, Vec<String>>;

/// So many documents are looked at for the one that a link may mean.
const MOST_NEAR: usize = 300;

impl LinkIndex {
    pub(super) fn new(documents: impl Iterator<Item = (String, String)>, files: BTreeSet<String>) -> Self {
        let (sources, outputs): (Vec<String>, Vec<String>) = documents.unzip();
        Self {
            documents: sources.iter().cloned().enumerate().map(|(index, path)| (path, index)).collect(),
            by_output: outputs.iter().cloned().enumerate().map(|(index, path)| (path, index)).collect(),
            sources,
            outputs,
            files,
            folders: HashMap::default(),
            nearest: Mutex::default(),
            paths: OnceLock::new(),
        }
    }

    /// What an address of a document leads to.
    pub(super) fn find<'a>(&self, source: &str, address: &'a str) -> Target<'a> {
        let (path, rest) = address.split_at(address.find(['?', '#']).unwrap_or(address.len()));
        let is_rooted = path.starts_with('/');
        let has_scheme = path.split('/').next().is_some_and(|first| first.contains(':'));
        if path.is_empty() || has_scheme || path.starts_with("//") {
            return Target::Elsewhere;
        }
        let Some(wanted) = paths::follow(paths::folder(source), path) else { return Target::Elsewhere };
        let document = self.documents.get(&wanted).or_else(|| self.by_output.get(&wanted));
        if let Some(&index) = document {
            return Target::Document(index, rest);
        }
        if self.files.contains(&wanted) {
            return Target::File(wanted);
        }
        let front = ["index.html", "README.html"].into_iter().find_map(|name| self.by_output.get(&paths::join(&wanted, name)));
        if let Some(&index) = front {
            return Target::Document(index, rest);
        }
        if let Some(page) = self.folders.get(&wanted) {
            return Target::Folder(page.clone(), rest);
        }
        if is_rooted {
            return Target::Elsewhere;
        }
        Target::Missing(wanted)
    }

    /// The document that a page is made of.
    pub(super) fn made_of(&self, output: &str) -> Option<&str> {
        self.by_output.get(output).map(|&index| self.sources[index].as_str())
    }

    /// The page that a document becomes.
    pub(super) fn output(&self, index: usize) -> &str {
        &self.outputs[index]
    }

    /// What an address that leads nowhere may mean: a document or a file of its name elsewhere, or of its folder.
    pub(super) fn near(&self, wanted: &str) -> Option<String> {
        let mut known = lock(&self.nearest);
        if let Some(nearest) = known.get(wanted) {
            return nearest.clone();
        }
        let (by_name, by_folder) = self.paths.get_or_init(|| {
            let (mut by_name, mut by_folder) = (Neighbours::default(), Neighbours::default());
            for path in self.sources.iter().chain(&self.files) {
                by_name.entry(paths::name(path).to_owned()).or_default().push(path.clone());
                by_folder.entry(paths::folder(path).to_owned()).or_default().push(path.clone());
            }
            (by_name, by_folder)
        });
        let named = by_name.get(paths::name(wanted)).into_iter().flatten();
        let beside = by_folder.get(paths::folder(wanted)).into_iter().flatten();
        let near = named.clone().chain(beside).take(MOST_NEAR).map(String::as_str);
        let nearest = profile::nearest(wanted, near).or_else(|| named.clone().next().cloned());
        known.insert(wanted.to_owned(), nearest.clone());
        nearest
    }
}

/// A place in a document that an address names.
#[derive(Clone, Debug, PartialEq, Eq)]
pub(super) enum InDocument {
    /// It is on one of the document's pages, and has this id.
    There { page: usize, id: String },
    /// It is not there.
    Missing { nearest: Option<String> },
}

/// Looks for a place in a document. Names are those that the document gives, other names of the same places, and the words of
/// headings as people make names of them.
pub(super) fn place_in(facts: &DocumentFacts, name: &str) -> InDocument {
    let has = |page: &super::record::Page, name: &str| page.ids.binary_search_by(|id| id.as_str().cmp(name)).is_ok();
    for (index, page) in facts.pages.iter().enumerate() {
        if has(page, name) {
            return InDocument::There { page: index, id: name.to_owned() };
        }
    }
    let made = slug::of(name);
    for (index, page) in facts.pages.iter().enumerate() {
        if let Some(id) = page.also.get(name).or_else(|| page.also.get(&made)) {
            return InDocument::There { page: index, id: id.clone() };
        }
        if has(page, &made) {
            return InDocument::There { page: index, id: made };
        }
    }
    let all = facts.pages.iter().flat_map(|page| &page.ids).filter(|id| !id.starts_with("note-")).take(MOST_NEAR);
    InDocument::Missing { nearest: profile::nearest(name, all.map(String::as_str)) }
}

#[cfg(test)]
mod tests {
    use super::*;

    #[test]
    fn addresses_find_documents_in_any_format() {
        let documents = [
            ("README.md", "index.html"),
            ("tides/README.md", "tides/index.html"),
            ("tides/spring tides.docx", "tides/spring tides.html"),
            ("log/a.md", "log/a.html"),
        ];
        let documents = documents.into_iter().map(|(source, output)| (source.to_owned(), output.to_owned()));
        let files = BTreeSet::from(["images/station.svg".to_owned(), "log/b.pdf".to_owned()]);
        let link_index = LinkIndex::new(documents, files);
        let find = |address| link_index.find("log/a.md", address);
        for (address, expected) in [
            ("../README.md#top", Target::Document(0, "#top")),
            ("..", Target::Document(0, "")),
            ("../tides/", Target::Document(1, "")),
            ("../tides#x", Target::Document(1, "#x")),
            ("../tides/spring%20tides.docx?x", Target::Document(2, "?x")),
            (r"..\tides\spring tides.docx", Target::Document(2, "")),
            ("../tides/spring%20tides.html", Target::Document(2, "")),
            ("/log/a.md", Target::Document(3, "")),
            ("b.pdf#page=2", Target::File("log/b.pdf".to_owned())),
            ("../images/station.svg", Target::File("images/station.svg".to_owned())),
            ("c.md", Target::Missing("log/c.md".to_owned())),
            ("https://x.example/a.md", Target::Elsewhere),
            ("//x.example/a.md", Target::Elsewhere),
            ("#here", Target::Elsewhere),
            ("mailto:a@b.example", Target::Elsewhere),
            ("../../out.md", Target::Elsewhere),
            ("/elsewhere/a.md", Target::Elsewhere),
        ] {
            assert_eq!(find(address), expected, "{address}");
        }
        assert_eq!(link_index.near("log/c.md").as_deref(), Some("log/a.md"));
        assert_eq!(link_index.near("elsewhere/a.md").as_deref(), Some("log/a.md"));
        assert_eq!(link_index.near("log/station.svg").as_deref(), Some("images/station.svg"));
    }

    #[test]
    fn places_are_found_by_other_names() {
        let page = super::super::record::Page {
            ids: vec!["neap".to_owned(), "spring-tides".to_owned()],
            also: [("_Ref1".to_owned(), "neap".to_owned())].into(),
            ..Default::default()
        };
        let facts = DocumentFacts { pages: vec![page], ..DocumentFacts::default() };
        let there = |id: &str| InDocument::There { page: 0, id: id.to_owned() };
        assert_eq!(place_in(&facts, "neap"), there("neap"));
        assert_eq!(place_in(&facts, "_Ref1"), there("neap"));
        assert_eq!(place_in(&facts, "Spring tides"), there("spring-tides"));
        assert_eq!(place_in(&facts, "spring-tide"), InDocument::Missing { nearest: Some("spring-tides".to_owned()) });
    }
}
