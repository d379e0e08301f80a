//! Pages at the addresses of documents that were renamed or removed: each leads on to where the document is now, or to the page
//! of its folder.

use super::hash::Hash;
use super::record::Known;
use super::run::Run;
use super::{Progress, paths};
use crate::error::Error;
use crate::fast_hash::{HashMap, HashSet};
use crate::formats::Format;
use crate::profile::Makes;
use std::collections::BTreeMap;

/// A page is followed over no more moves than this.
const MOST_STEPS: usize = 100;

impl Run<'_> {
    /// Writes pages that lead on, those of earlier runs included.
    pub(super) fn make_moved(&mut self, progress: &mut dyn Progress) -> Result<(), Error> {
        let plan = self.plan;
        if !plan.profile.publish.makes.contains(Makes::MOVED) || plan.options.writes != Format::Html {
            return Ok(());
        }
        let outputs = self.documents.values().flat_map(|known| known.outputs.iter().map(|output| output.path.clone()));
        let current: HashSet<String> = outputs.chain(self.others.keys().cloned()).collect();
        let mut leads: BTreeMap<String, String> = plan
            .record
            .others
            .values()
            .filter(|other| !other.leads.is_empty())
            .map(|other| (other.output.path.clone(), other.leads.clone()))
            .collect();
        leads.extend(self.renamed());
        let titles = if leads.is_empty() { HashMap::default() } else { self.titles() };
        for (path, first) in &leads {
            if current.contains(path) {
                continue;
            }
            // What a page led to may have moved since.
            let mut to = first;
            for _ in 0..leads.len().min(MOST_STEPS) {
                match leads.get(to).filter(|_| !current.contains(to)) {
                    Some(next) => to = next,
                    None => break,
                }
            }
            let to = if current.contains(to) { Some(to.clone()) } else { page_of_folder(path, &current) };
            let Some(to) = to.filter(|to| to != path) else { continue };
            let title = titles.get(&to).filter(|title| !title.is_empty()).unwrap_or(&to);
            let text = page(title, &paths::address(path, &to));
            self.put_leading(path, &to, &text, progress)?;
        }
        Ok(())
    }

    /// For the pages of documents that are gone, the pages of those that they became. A document that has the same bytes as one
    /// that is gone, or that has its title and is new in this run, is that document under another name.
    fn renamed(&self) -> Vec<(String, String)> {
        let plan = self.plan;
        let new = |source: &str| !plan.record.documents.contains_key(source);
        let mut by_hash: HashMap<Hash, &Known> = HashMap::default();
        let mut by_title: HashMap<String, Option<&Known>> = HashMap::default();
        for known in self.documents.values().filter(|known| new(&known.source)) {
            by_hash.insert(known.hash, known);
            if let Some(facts) = known.facts.read().filter(|facts| !facts.title.is_empty()) {
                // A title that two have says nothing.
                by_title.entry(facts.title.clone()).and_modify(|other| *other = None).or_insert(Some(known));
            }
        }
        let mut leads = Vec::new();
        for removed in &plan.removed {
            let Some(before) = plan.record.documents.get(&removed.source) else { continue };
            let title = before.facts.read().map(|facts| facts.title.clone()).unwrap_or_default();
            let now = by_hash.get(&before.hash).copied().or_else(|| by_title.get(&title).copied().flatten());
            let pages = |known: &Known| -> Vec<String> {
                known.facts.read().map_or_else(Vec::new, |facts| facts.pages.iter().map(|page| page.output.clone()).collect())
            };
            let targets = now.map(pages).unwrap_or_default();
            for (at, page) in pages(before).into_iter().enumerate() {
                // A part that is not there any more leads to the whole; what is gone altogether, to nothing that is there.
                let target = targets.get(at).or(targets.first()).cloned().unwrap_or_default();
                leads.push((page, target));
            }
        }
        leads
    }

    /// The titles of pages, by their paths.
    fn titles(&self) -> HashMap<String, String> {
        let facts = self.documents.values().filter_map(|known| known.facts.read());
        facts
            .flat_map(|facts| facts.pages.iter().map(|page| (page.output.clone(), page.title.clone())).collect::<Vec<_>>())
            .collect()
    }
}

/// The page of the folder that a path is in, or of the nearest one above it.
fn page_of_folder(path: &str, current: &HashSet<String>) -> Option<String> {
    let mut folder = paths::folder(path);
    loop {
        let page = if folder.is_empty() { "index.html".to_owned() } else { format!("{folder}/index.html") };
        if current.contains(&page) {
            return Some(page);
        }
        if folder.is_empty() {
            return None;
        }
        folder = paths::folder(folder);
    }
}

/// A page that leads on at once (WHATWG HTML, section 4.2.5.3), in both syntaxes of HTML.
fn page(title: &str, address: &str) -> String {
    let escaped = |text: &str| text.replace('&', "&amp;").replace('<', "&lt;").replace('>', "&gt;").replace('"', "&quot;");
    let (title, address) = (escaped(title), escaped(address));
    format!(
        "<!DOCTYPE html>\n<html xmlns=\"http://www.w3.org/1999/xhtml\" lang=\"en\">\n<head>\n<meta charset=\"utf-8\"/>\n\
         <title>Moved: {title}</title>\n<meta http-equiv=\"refresh\" content=\"0; url={address}\"/>\n\
         <link rel=\"canonical\" href=\"{address}\"/>\n</head>\n<body>\n\
         <p>This page has moved to <a href=\"{address}\">{title}</a>.</p>\n</body>\n</html>\n"
    )
}
