//! A site made of a folder: which pages there are, in which order, and what stands around each of them.

mod feed;
mod map;
mod pages;

pub(super) use pages::{GeneratedPage, titled};

use super::paths;
use super::plan::Plan;
use super::rendered::FactsByIndex;
use crate::fast_hash::HashMap;
use crate::page::{NavLink, Navigation};
use std::collections::BTreeMap;

/// The page of a folder that no document is the front page of.
const FRONT: &str = "index.html";

/// The page that lists all pages.
const ALL: &str = "pages.html";

/// So many pages are listed beside a page; of more, those that are nearest to it.
const MOST_BESIDE: usize = 60;

/// So many parts of the site are listed on every page.
const MOST_SECTIONS: usize = 12;

/// A page of the site.
#[derive(Clone, Debug)]
struct SitePage {
    output: String,
    title: String,
    /// What it is called where the names of pages stand below each other; also what its place is sorted by.
    name: String,
    order: Option<i64>,
    date: String,
    description: String,
    authors: Vec<String>,
    /// The document that it is made of; none for a page that was made for a folder.
    document: Option<usize>,
}

/// A folder of the site.
#[derive(Debug, Default)]
struct Folder {
    /// The number of its front page; none where that is a document that was not converted yet.
    front: Option<usize>,
    /// What is in it, in order: pages, and front pages of folders.
    items: Vec<usize>,
}

/// A site.
#[derive(Debug)]
pub(super) struct Site {
    title: String,
    language: String,
    pages: Vec<SitePage>,
    by_output: HashMap<String, usize>,
    folders: BTreeMap<String, Folder>,
    /// All pages in the order in which they are read, and where each is in it.
    sequence: Vec<usize>,
    places: Vec<usize>,
    /// Where each page is among those of its folder.
    positions: Vec<usize>,
    /// The folders that every page leads to.
    sections: Vec<usize>,
    has_feed: bool,
    has_agenda: bool,
}

impl Site {
    /// The folders without a front page of their own, and the pages that they get.
    pub(super) fn pages_of_folders(plan: &Plan) -> HashMap<String, String> {
        let outputs: std::collections::HashSet<&str> = plan.documents.iter().map(|planned| planned.output.as_str()).collect();
        plan.folders()
            .into_iter()
            .filter_map(|folder| {
                let page = paths::join(folder, FRONT);
                (!outputs.contains(page.as_str())).then(|| (folder.to_owned(), page))
            })
            .collect()
    }

    /// Puts a site together from what is known of its documents.
    pub(super) fn build(plan: &Plan, facts: &FactsByIndex) -> Self {
        let mut pages: Vec<SitePage> = Vec::with_capacity(plan.documents.len());
        for (index, planned) in plan.documents.iter().enumerate() {
            let Some(facts) = &facts[index] else { continue };
            pages.push(SitePage {
                output: planned.output.clone(),
                title: facts.title.clone(),
                name: paths::stem(&planned.source).0.to_owned(),
                order: facts.order,
                date: facts.date.clone(),
                description: facts.description.clone(),
                authors: facts.authors.clone(),
                document: Some(index),
            });
        }
        let mut made: Vec<(String, String)> = Self::pages_of_folders(plan).into_iter().collect();
        made.sort();
        for (folder, output) in made {
            let title = if folder.is_empty() { plan.profile.site.title.clone() } else { spoken(paths::name(&folder)) };
            let title = if title.is_empty() { "Start".to_owned() } else { title };
            pages.push(SitePage {
                output,
                title,
                name: paths::name(&folder).to_owned(),
                order: None,
                date: String::new(),
                description: String::new(),
                authors: Vec::new(),
                document: None,
            });
        }
        let by_output = pages.iter().enumerate().map(|(index, page)| (page.output.clone(), index)).collect();
        let mut site = Self {
            title: String::new(),
            language: String::new(),
            pages,
            by_output,
            folders: BTreeMap::new(),
            sequence: Vec::new(),
            places: Vec::new(),
            positions: Vec::new(),
            sections: Vec::new(),
            has_feed: false,
            has_agenda: false,
        };
        site.sort(plan);
        let start = site.folders.get("").and_then(|folder| folder.front);
        let start_facts = start.and_then(|start| site.pages[start].document).and_then(|index| facts[index].as_ref());
        site.title = match plan.profile.site.title.as_str() {
            "" => start.map_or_else(String::new, |start| site.pages[start].title.clone()),
            title => title.to_owned(),
        };
        site.language = match plan.profile.page.language.as_str() {
            "" => start_facts.map_or_else(String::new, |facts| facts.language.clone()),
            language => language.to_owned(),
        };
        site.has_agenda = plan.has_agenda() && facts.iter().flatten().any(|facts| !facts.tasks.is_empty());
        site.has_feed = plan.profile.site.feed_entries > 0 && !site.dated(1).is_empty();
        site
    }

    /// Sorts pages into folders, and folders into an order.
    fn sort(&mut self, plan: &Plan) {
        for folder in plan.folders() {
            self.folders.insert(folder.to_owned(), Folder::default());
        }
        for (index, page) in self.pages.iter().enumerate() {
            let folder = self.folders.entry(paths::folder(&page.output).to_owned()).or_default();
            if paths::name(&page.output) == FRONT { folder.front = Some(index) } else { folder.items.push(index) }
        }
        // Inner folders first: the pages of one without a front page stand among those of the folder above.
        let inner: Vec<String> = self.folders.keys().rev().filter(|path| !path.is_empty()).cloned().collect();
        for path in inner {
            let folder = &self.folders[&path];
            let shown = folder.front.map_or_else(|| folder.items.clone(), |front| vec![front]);
            if let Some(above) = self.folders.get_mut(paths::folder(&path)) {
                above.items.extend(shown);
            }
        }
        let pages = &self.pages;
        let name = |index: usize| match paths::name(&pages[index].output) {
            FRONT => paths::name(paths::folder(&pages[index].output)),
            _ => pages[index].name.as_str(),
        };
        for folder in self.folders.values_mut() {
            folder.items.sort_by(|&a, &b| {
                let order = |index: usize| pages[index].order.unwrap_or(i64::MAX);
                order(a)
                    .cmp(&order(b))
                    .then_with(|| paths::natural(name(a), name(b)))
                    .then_with(|| pages[a].output.cmp(&pages[b].output))
            });
        }
        let mut open = self.first();
        open.reverse();
        while let Some(page) = open.pop() {
            self.sequence.push(page);
            let output = &self.pages[page].output;
            if paths::name(output) == FRONT
                && let Some(folder) = self.folders.get(paths::folder(output))
            {
                open.extend(folder.items.iter().rev());
            }
        }
        let is_front = |page: &&usize| paths::name(&self.pages[**page].output) == FRONT;
        let top = self.folders.get("").into_iter().flat_map(|root| &root.items);
        self.sections = top.filter(is_front).take(MOST_SECTIONS).copied().collect();
        self.positions = vec![0; self.pages.len()];
        for (path, folder) in &self.folders {
            for (position, &page) in folder.items.iter().enumerate() {
                // The front page of a folder stands among those of the folder above, where it is not looked for.
                if paths::folder(&self.pages[page].output) == path {
                    self.positions[page] = position;
                }
            }
        }
        self.places = vec![0; self.pages.len()];
        for (place, &page) in self.sequence.iter().enumerate() {
            self.places[page] = place;
        }
    }

    /// The pages that all others are reached from: the start page, or what stands beside it where it is not there yet.
    fn first(&self) -> Vec<usize> {
        let Some(root) = self.folders.get("") else { return Vec::new() };
        root.front.map_or_else(|| root.items.clone(), |front| vec![front])
    }

    /// The documents in the order in which they are read.
    pub(super) fn documents(&self) -> Vec<usize> {
        self.sequence.iter().filter_map(|&page| self.pages[page].document).collect()
    }

    /// The name of the site.
    pub(super) fn name(&self) -> &str {
        &self.title
    }

    /// The language of the site.
    pub(super) fn language(&self) -> &str {
        &self.language
    }

    fn stop(&self, from: &str, page: usize) -> NavLink {
        let SitePage { output, title, .. } = &self.pages[page];
        NavLink { title: title.clone(), address: paths::address(from, output), current: output == from }
    }

    /// What stands around a page.
    pub(super) fn navigation(&self, output: &str) -> Navigation {
        let Some(&page) = self.by_output.get(output) else { return self.around_made(output) };
        let path = paths::folder(output);
        let is_front = paths::name(output) == FRONT;
        let mut navigation = self.around_made(output);
        navigation.way = self.way(output, if is_front { paths::folder(path) } else { path }, is_front && path.is_empty());
        if let Some(folder) = self.folders.get(path) {
            let at = self.positions[page];
            let first = at.saturating_sub(MOST_BESIDE / 2).min(folder.items.len().saturating_sub(MOST_BESIDE));
            let beside = folder.items.iter().skip(first).take(MOST_BESIDE);
            navigation.pages = beside.map(|&item| self.stop(output, item)).collect();
            if let Some(front) = folder.front.and_then(|front| self.pages.get(front)) {
                navigation.pages_of.clone_from(&front.title);
            }
        }
        let place = self.places[page];
        navigation.previous = place.checked_sub(1).map(|place| self.stop(output, self.sequence[place]));
        navigation.next = self.sequence.get(place + 1).map(|&next| self.stop(output, next));
        navigation
    }

    /// The front pages of the folders above a page, outermost first.
    fn way(&self, output: &str, folder: &str, is_start: bool) -> Vec<NavLink> {
        if is_start {
            return Vec::new();
        }
        let mut way = Vec::new();
        let mut at = folder;
        loop {
            if let Some(front) = self.folders.get(at).and_then(|known| known.front) {
                way.push(self.stop(output, front));
            }
            if at.is_empty() {
                break;
            }
            at = paths::folder(at);
        }
        way.reverse();
        way
    }

    /// What stands around a page that is none of the documents'.
    fn around_made(&self, output: &str) -> Navigation {
        let root = self.folders.get("");
        let home = root.and_then(|root| self.pages.get(root.front?)).map_or(FRONT, |page| page.output.as_str());
        let here = output.split('/').next().filter(|_| output.contains('/'));
        let sections = self.sections.iter().map(|&page| {
            let mut stop = self.stop(output, page);
            stop.current = here == self.pages[page].output.split('/').next();
            stop
        });
        let optional = |path: &str| if self.has_feed { paths::address(output, path) } else { String::new() };
        Navigation {
            title: self.title.clone(),
            home: paths::address(output, home),
            sections: sections.collect(),
            all: paths::address(output, ALL),
            feed: optional(feed::FEED),
            entries: optional(feed::ENTRIES),
            ..Navigation::default()
        }
    }

    /// The newest pages that say of which day they are, newest first.
    fn dated(&self, most: usize) -> Vec<(&SitePage, feed::Moment)> {
        let mut dated: Vec<(&SitePage, feed::Moment)> =
            self.pages.iter().filter_map(|page| Some((page, feed::moment(&page.date)?))).collect();
        dated.sort_by(|(a, day), (b, other)| other.cmp(day).then_with(|| a.output.cmp(&b.output)));
        dated.truncate(most);
        dated
    }
}

/// The name of a folder as people would say it: `02-first_month` is "First month".
fn spoken(name: &str) -> String {
    let words = name.trim_start_matches(|c: char| c.is_ascii_digit() || matches!(c, '-' | '_' | '.' | ' '));
    let words = if words.is_empty() { name } else { words };
    let words = words.replace(['-', '_'], " ");
    let mut letters = words.chars();
    letters.next().map_or_else(String::new, |first| first.to_uppercase().chain(letters).collect())
}
