//! The pages of a site that no document is made of: of folders, of all pages, of the feed's entries, and the one that stands in
//! for missing ones.

use super::{ALL, FRONT, Site, feed};
use crate::context::Context;
use crate::document::{Document, Finding, Kind, ListKind, Marker, NodeId, TextLevel};
use crate::error::Error;
use crate::page::{self, NavLink, Navigation};
use crate::profile::{Profile, StylePlace};
use crate::publish::agenda::AGENDA;
use crate::publish::run::Run;
use crate::publish::{Progress, paths};
use std::collections::BTreeSet;

/// So many entries of the feed stand on one page.
const ENTRIES_OF_A_PAGE: usize = 25;

/// The page that stands in for missing ones.
const MISSING: &str = "404.html";

/// A page in the making.
pub(in crate::publish) struct GeneratedPage {
    pub(in crate::publish) output: String,
    pub(in crate::publish) title: String,
    pub(in crate::publish) doc: Document,
}

impl GeneratedPage {
    /// The page, in the language of its site.
    pub(in crate::publish) fn in_language(mut self, site: &Site) -> Self {
        self.doc.metadata.language = Some(site.language.clone()).filter(|language| !language.is_empty());
        self
    }
}

fn list(doc: &mut Document, above: NodeId) -> NodeId {
    doc.append(above, Kind::List(ListKind { ordered: false, tight: true, marker: Marker::Plain, start: 1 }))
}

fn item(doc: &mut Document, list: NodeId, address: &str, title: &str) -> NodeId {
    let item = doc.append(list, Kind::ListItem { checked: None });
    doc.append_link(item, address, title);
    item
}

/// A document with a title.
pub(in crate::publish) fn titled(title: &str) -> (Document, NodeId) {
    let mut doc = Document::new();
    let root = doc.root();
    let heading = doc.append(root, Kind::Heading(1));
    doc.append_text(heading, title);
    (doc, root)
}

impl Site {
    /// The page of a folder: what is in it.
    fn page_of_folder(&self, folder: &str) -> Option<GeneratedPage> {
        let known = self.folders.get(folder)?;
        let front = self.pages.get(known.front?).filter(|front| front.document.is_none())?;
        let (mut doc, root) = titled(&front.title);
        let items = list(&mut doc, root);
        for &page in &known.items {
            let page = &self.pages[page];
            let item = item(&mut doc, items, &paths::address(&front.output, &page.output), &page.title);
            if !page.description.is_empty() {
                doc.append_text(item, ": ");
                doc.append_text(item, &page.description);
                doc.join_texts(item);
            }
        }
        Some(GeneratedPage { output: front.output.clone(), title: front.title.clone(), doc })
    }

    /// The page of all pages: folders within folders.
    fn page_of_pages(&self) -> GeneratedPage {
        let title = "All pages".to_owned();
        let (mut doc, root) = titled(&title);
        let top = list(&mut doc, root);
        let mut open = vec![(top, self.first())];
        while let Some((list_node, pages)) = open.pop() {
            for page in pages {
                let known = &self.pages[page];
                let item = item(&mut doc, list_node, &paths::address(ALL, &known.output), &known.title);
                let folder = paths::folder(&known.output);
                let items = self.folders.get(folder).filter(|_| paths::name(&known.output) == FRONT);
                if let Some(items) = items.filter(|folder| !folder.items.is_empty()) {
                    let inner = list(&mut doc, item);
                    open.push((inner, items.items.clone()));
                }
            }
        }
        if self.has_agenda {
            item(&mut doc, top, AGENDA, "Agenda");
        }
        GeneratedPage { output: ALL.to_owned(), title, doc }
    }

    /// The entries of the feed, newest first, on as many pages as it takes.
    fn pages_of_entries(&self, most: usize) -> Vec<GeneratedPage> {
        let entries = self.dated(most);
        let count = entries.len().div_ceil(ENTRIES_OF_A_PAGE);
        let name = |index: usize| if index == 0 { feed::ENTRIES.to_owned() } else { format!("entries-{}.html", index + 1) };
        let page = |(index, entries): (usize, &[(&super::SitePage, feed::Moment)])| {
            let output = name(index);
            let title = if index == 0 { "Entries".to_owned() } else { format!("Entries, page {}", index + 1) };
            let (mut doc, root) = titled(&title);
            for (page, moment) in entries {
                let heading = doc.append(root, Kind::Heading(2));
                doc.append_link(heading, &paths::address(&output, &page.output), &page.title);
                let day = doc.append(root, Kind::Paragraph);
                let time = doc.append(day, Kind::TextLevel(TextLevel::Time));
                doc.append_text(time, &moment.date().to_string());
                if !page.description.is_empty() {
                    let text = doc.append(root, Kind::Paragraph);
                    doc.append_text(text, &page.description);
                }
            }
            if count > 1 {
                let others = doc.append(root, Kind::Paragraph);
                doc.append_text(others, "Pages:");
                for other in 0..count {
                    doc.append_text(others, " ");
                    if other == index {
                        doc.append_text(others, &(other + 1).to_string());
                    } else {
                        doc.append_link(others, &paths::address(&output, &name(other)), &(other + 1).to_string());
                    }
                }
                doc.join_texts(others);
            }
            GeneratedPage { output, title, doc }
        };
        entries.chunks(ENTRIES_OF_A_PAGE).enumerate().map(page).collect()
    }

    /// The page that stands in for missing ones. It may be shown at any address, so its links need that of the site.
    fn page_for_missing(&self, base: &str) -> GeneratedPage {
        let title = "There is no such page".to_owned();
        let (mut doc, root) = titled(&title);
        let text = doc.append(root, Kind::Paragraph);
        doc.append_text(text, "It may have another name now, or it may be gone.");
        if !base.is_empty() {
            let links = list(&mut doc, root);
            item(&mut doc, links, base, if self.title.is_empty() { "The start page" } else { &self.title });
            item(&mut doc, links, &format!("{base}{ALL}"), "All pages");
        }
        GeneratedPage { output: MISSING.to_owned(), title, doc }
    }
}

/// The address of the site, with a slash at its end.
fn base(profile: &Profile) -> String {
    let address = profile.site.address.trim();
    if address.is_empty() || address.ends_with('/') { address.to_owned() } else { format!("{address}/") }
}

impl Run<'_> {
    /// Writes the pages and the files of a site that no document is made of.
    pub(in crate::publish) fn make_site(&mut self, site: &Site, progress: &mut dyn Progress) -> Result<(), Error> {
        let profile = self.plan.profile.clone();
        let base = base(&profile);
        let most = usize::from(profile.site.feed_entries);
        let mut made: Vec<GeneratedPage> = site.folders.keys().filter_map(|folder| site.page_of_folder(folder)).collect();
        made.push(site.page_of_pages());
        if site.has_feed {
            made.extend(site.pages_of_entries(most));
        }
        let mut brings = BTreeSet::new();
        for page in made {
            // What is beside it is what it lists.
            let navigation = Navigation { pages: Vec::new(), ..site.navigation(&page.output) };
            self.put_page(page.in_language(site), &profile, &navigation, &mut brings, progress)?;
        }
        // Shown at an address that nobody knows: it has everything within it.
        let mut alone = Profile::clone(&profile);
        alone.page.styles = StylePlace::Embed;
        let home = NavLink { title: site.title.clone(), address: base.clone(), current: false };
        let navigation = if base.is_empty() {
            // Most sites stand at the top of their host.
            Navigation { top: "/".to_owned(), ..Navigation::default() }
        } else {
            Navigation { title: home.title, home: home.address, top: base.clone(), ..Navigation::default() }
        };
        self.put_page(site.page_for_missing(&base).in_language(site), &alone, &navigation, &mut brings, progress)?;
        if site.has_feed
            && let Some(feed) = site.feed(&base, most)?
        {
            self.put_unless_taken(feed::FEED, &feed, progress)?;
        }
        if base.is_empty() {
            let finding = Finding::advice("site.address", "no site map was written: it needs the address of the site")
                .hint("set site.address");
            self.report_folder(finding, progress);
        } else {
            let mut outputs: Vec<(String, String)> = Vec::new();
            for page in &site.sequence {
                let page = &site.pages[*page];
                let document = page.document.and_then(|index| self.facts[index].clone());
                let parts = document.iter().flat_map(|facts| facts.pages.iter().skip(1).map(|part| part.output.clone()));
                let parts: Vec<String> = parts.collect();
                outputs.extend(std::iter::once(page.output.clone()).chain(parts).map(|output| (output, page.date.clone())));
            }
            for (name, bytes) in site.maps(&base, &outputs) {
                self.put_unless_taken(&name, &bytes, progress)?;
            }
        }
        self.put_shared(progress)
    }

    /// Writes a page that no document is made of.
    pub(in crate::publish) fn put_page(
        &mut self,
        page: GeneratedPage,
        profile: &Profile,
        navigation: &Navigation,
        brings: &mut BTreeSet<String>,
        progress: &mut dyn Progress,
    ) -> Result<(), Error> {
        let GeneratedPage { output, title, mut doc } = page;
        doc.metadata.title = Some(title);
        let context = Context { name: paths::stem(&output).0, ..Context::default() };
        let mut profile = Profile::clone(profile);
        profile.page.contents = 0;
        profile.page.title.clear();
        let (content, _) = page::content(&doc, &profile, &context, &[], None);
        let text = self.assemble(&profile, &content, &output, navigation, brings)?;
        self.put_unless_taken(&output, text.as_bytes(), progress)
    }

    /// Writes a file, unless the folder has one of that name itself.
    pub(in crate::publish) fn put_unless_taken(
        &mut self,
        path: &str,
        bytes: &[u8],
        progress: &mut dyn Progress,
    ) -> Result<(), Error> {
        let copied = || self.others.get(path).filter(|other| other.from.is_some()).map(|other| other.source.as_str());
        let taken = self.link_index.made_of(path).or_else(copied);
        if let Some(source) = taken {
            let finding =
                Finding::advice("publish.taken", format!("{path} is the page of {source}; the site's own page was not written"))
                    .hint("rename the document, if that is not what you want");
            self.report_folder(finding, progress);
            return Ok(());
        }
        self.put_made(path, bytes, progress)
    }
}
