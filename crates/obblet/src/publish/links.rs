//! Links between the documents of a folder.

use super::{Entry, file, format_of};
use crate::conversion::{LinkTarget, Links};
use crate::profile;
use std::collections::HashMap;
use std::ffi::OsString;
use std::path::{Component, Path, PathBuf};
use std::sync::Mutex;

/// Knows where each document of a folder goes.
#[derive(Debug)]
pub struct DocumentLinks {
    folder: PathBuf,
    outputs: HashMap<PathBuf, PathBuf>,
    /// The documents of each folder, as people write their paths.
    by_folder: HashMap<PathBuf, Vec<String>>,
    /// The documents of each file name, wherever they are.
    by_name: HashMap<OsString, Vec<String>>,
    /// What was found near to addresses that lead nowhere. Most are on every page of a site.
    nearest: Mutex<HashMap<PathBuf, Option<String>>>,
}

/// So many documents are looked at for the one that a link may mean.
const MOST_NEAR: usize = 2000;

/// The links of one of the documents.
struct LinksFrom<'l> {
    all: &'l DocumentLinks,
    source: &'l Path,
}

impl DocumentLinks {
    /// The links between documents that lie in `folder`.
    #[must_use]
    pub fn new(folder: &Path, entries: &[Entry]) -> Self {
        let outputs: HashMap<PathBuf, PathBuf> =
            entries.iter().map(|entry| (file::normal(&entry.source), entry.output.clone())).collect();
        let (mut by_folder, mut by_name) = (HashMap::<PathBuf, Vec<String>>::new(), HashMap::<OsString, Vec<String>>::new());
        let mut sources: Vec<&PathBuf> = outputs.keys().collect();
        sources.sort_unstable();
        for source in sources {
            let shown = source.display().to_string();
            by_folder.entry(source.parent().unwrap_or(Path::new("")).to_owned()).or_default().push(shown.clone());
            by_name.entry(source.file_name().unwrap_or_default().to_owned()).or_default().push(shown);
        }
        Self { folder: folder.to_owned(), outputs, by_folder, by_name, nearest: Mutex::default() }
    }

    /// The document that an address may mean which leads nowhere: one of its name elsewhere, or of its folder.
    fn near(&self, target: &Path) -> Option<String> {
        let mut known = self.nearest.lock().unwrap_or_else(std::sync::PoisonError::into_inner);
        if let Some(nearest) = known.get(target) {
            return nearest.clone();
        }
        let named = target.file_name().and_then(|name| self.by_name.get(name)).into_iter().flatten();
        let beside = self.by_folder.get(target.parent().unwrap_or(Path::new(""))).into_iter().flatten();
        let names = named.clone().chain(beside).take(MOST_NEAR).map(String::as_str);
        let nearest = profile::nearest(&target.display().to_string(), names).or_else(|| named.clone().next().cloned());
        known.insert(target.to_owned(), nearest.clone());
        nearest
    }

    /// The links of the document `source`.
    pub fn from<'l>(&'l self, source: &'l Path) -> impl Links + 'l {
        LinksFrom { all: self, source }
    }
}

impl Links for LinksFrom<'_> {
    fn resolve(&self, address: &str) -> LinkTarget {
        let (path, rest) = address.split_at(address.find(['?', '#']).unwrap_or(address.len()));
        if path.is_empty() || path.starts_with('/') || path.split('/').next().is_some_and(|first| first.contains(':')) {
            return LinkTarget::Stays;
        }
        let Ok(decoded) = percent_encoding::percent_decode_str(path).decode_utf8() else { return LinkTarget::Stays };
        let here = self.source.parent().unwrap_or(Path::new(""));
        let target = file::normal(&here.join(&*decoded));
        if let Some(output) = self.all.outputs.get(&target) {
            let from = self.all.outputs.get(&file::normal(self.source)).and_then(|output| output.parent()).unwrap_or(here);
            return LinkTarget::Leads(format!("{}{rest}", relative(from, output)));
        }
        let is_document = format_of(&target).is_some_and(|format| format.is_read());
        if !is_document || target.starts_with("..") || self.all.folder.join(&target).exists() {
            return LinkTarget::Stays;
        }
        LinkTarget::Missing { nearest: self.all.near(&target) }
    }
}

/// The address of `to` on a page in the folder `from`; both count from the same folder.
fn relative(from: &Path, to: &Path) -> String {
    let from: Vec<Component<'_>> = from.components().collect();
    let to: Vec<Component<'_>> = to.components().collect();
    let shared = from.iter().zip(&to[..to.len().saturating_sub(1)]).take_while(|(a, b)| a == b).count();
    let up = std::iter::repeat_n("..".to_owned(), from.len() - shared);
    let down = to[shared..].iter().map(|part| {
        part.as_os_str().to_string_lossy().replace('%', "%25").replace(' ', "%20").replace('?', "%3F").replace('#', "%23")
    });
    up.chain(down).collect::<Vec<_>>().join("/")
}

#[cfg(test)]
mod tests {
    use super::*;
    use crate::formats::Format;

    #[test]
    fn links_lead_to_pages() {
        let entry = |source: &str, output: &str| Entry { source: source.into(), output: output.into(), format: Format::Markdown };
        let entries = [
            entry("README.md", "index.html"),
            entry("tides/spring tides.md", "tides/spring tides.html"),
            entry("log/a.md", "log/a.html"),
        ];
        let links = DocumentLinks::new(Path::new("/nowhere"), &entries);
        let from = links.from(Path::new("log/a.md"));
        let leads = |address: &str| LinkTarget::Leads(address.to_owned());
        assert_eq!(from.resolve("../README.md#top"), leads("../index.html#top"));
        assert_eq!(from.resolve("../tides/spring%20tides.md?x"), leads("../tides/spring%20tides.html?x"));
        assert_eq!(from.resolve("a.md"), leads("a.html"));
        for address in ["https://x.example/a.md", "#a", "mailto:a@b.example", "/a.md", "../../out.md", "picture.png"] {
            assert_eq!(from.resolve(address), LinkTarget::Stays, "{address}");
        }
        let nearest = Some("log/a.md".to_owned());
        assert_eq!(from.resolve("b.md"), LinkTarget::Missing { nearest: nearest.clone() });
        // One of the same name in another folder.
        assert_eq!(from.resolve("../tides/a.md"), LinkTarget::Missing { nearest });
    }
}
