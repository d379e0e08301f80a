//! All documents of a folder in one page: to proof it, or to print it.

use super::convert_document::{self, FolderState, lead};
use super::link_index::{InDocument, Target as Leads, place_in};
use super::linked_places::LinkedPlaces;
use super::parallel::in_order;
use super::run::Run;
use super::site::Site;
use super::{Progress, paths};
use crate::context::Context;
use crate::document::{Document, Kind, Place, Step};
use crate::error::Error;
use crate::fast_hash::HashMap;
use crate::formats::html::{self, HeadingEntry};
use crate::links::{LinkResolver, LinkTarget};
use crate::page::{self, Content, Navigation};
use crate::pipeline;

use std::collections::BTreeSet;

/// The page that holds all documents.
pub(super) const BINDER: &str = "binder.html";

/// What stands before the ids of a document in the binder.
fn prefix(index: usize) -> String {
    format!("document-{}", index + 1)
}

/// The links of a document in the binder: to documents and places in them within the page, to files from where the page is.
struct LinksInBinder<'l> {
    folder: &'l FolderState<'l>,
    index: usize,
    /// The places of documents in the order of the binder.
    places: &'l [usize],
}

impl LinkResolver for LinksInBinder<'_> {
    fn resolve(&self, address: &str, _: Place) -> LinkTarget {
        let own = prefix(self.places[self.index]);
        if let Some(name) = address.strip_prefix('#') {
            return LinkTarget::Rewritten(if name.is_empty() { format!("#{own}") } else { format!("#{own}-{name}") });
        }
        let planned = &self.folder.plan.documents[self.index];
        match self.folder.link_index.find(&planned.source, address) {
            Leads::Document(index, rest) => {
                let section = prefix(self.places[index]);
                let name = rest.split_once('#').map(|(_, name)| percent_encoding::percent_decode_str(name).decode_utf8_lossy());
                let found = name.zip(self.folder.facts[index].as_ref()).map(|(name, facts)| place_in(facts, &name));
                LinkTarget::Rewritten(match found {
                    Some(InDocument::There { id, .. }) => format!("#{section}-{id}"),
                    _ => format!("#{section}"),
                })
            }
            Leads::File(path) => {
                let rest = &address[address.find(['?', '#']).unwrap_or(address.len())..];
                LinkTarget::Rewritten(format!("{}{rest}", paths::address(BINDER, &path)))
            }
            Leads::Folder(page, rest) => {
                // A folder is its first document.
                let inside = |index: usize| {
                    self.folder.plan.documents[index].output.starts_with(&page[..page.len() - paths::name(&page).len()])
                };
                let first = (0..self.places.len()).filter(|&index| inside(index)).map(|index| self.places[index]).min();
                LinkTarget::Rewritten(match first {
                    Some(place) => format!("#{}", prefix(place)),
                    None => format!("{}{rest}", paths::address(BINDER, &page)),
                })
            }
            Leads::Elsewhere => LinkTarget::Unchanged,
            Leads::Missing(_) => lead(self.folder, planned, address),
        }
    }
}

/// A document as a part of the binder.
struct Bound {
    body: String,
    headings: Vec<HeadingEntry>,
    rules: String,
    as_source: bool,
}

impl Run<'_> {
    /// Puts all documents into one page.
    pub(super) fn make_binder(&mut self, progress: &mut dyn Progress) -> Result<(), Error> {
        let plan = self.plan;
        let site = Site::build(plan, &self.facts);
        let order = site.documents();
        let mut places = vec![0; plan.documents.len()];
        for (place, &index) in order.iter().enumerate() {
            places[index] = place;
        }
        let folder = FolderState { plan, link_index: &self.link_index, facts: &self.facts };
        let mut titles: HashMap<&str, usize> = HashMap::default();
        for facts in self.facts.iter().flatten() {
            *titles.entry(&facts.title).or_default() += 1;
        }
        let is_twin = |title: &str| titles.get(title).is_some_and(|count| *count > 1);
        let bind = |&index: &usize| bind(&folder, index, &places, &is_twin);
        let mut content = Content {
            title: site.name().to_owned(),
            shows_title: true,
            language: site.language().to_owned(),
            authors: Some(plan.profile.page.author.clone()).filter(|author| !author.is_empty()).into_iter().collect(),
            ..Content::default()
        };
        in_order(&plan.pool, &order, bind, |at, bound: Result<Bound, Error>| {
            // What can't be converted has been reported already.
            let Ok(bound) = bound else { return };
            content.body.push_str(&format!("<section id=\"{}\" class=\"document\">\n{}</section>\n", prefix(at), bound.body));
            content.headings.extend(bound.headings);
            content.rules.push_str(&bound.rules);
            content.as_source |= bound.as_source;
        });
        let mut profile = crate::profile::Profile::clone(&plan.profile);
        if content.title.is_empty() {
            "Binder".clone_into(&mut content.title);
        }
        profile.page.title.clear();
        let text = self.assemble(
            &profile,
            &content,
            BINDER,
            &Navigation { is_whole: true, ..Navigation::default() },
            &mut BTreeSet::new(),
        )?;
        self.put_unless_taken(BINDER, text.as_bytes(), progress)?;
        self.put_shared(progress)
    }
}

/// Converts a document for the binder.
fn bind(
    folder: &FolderState<'_>,
    index: usize,
    places: &[usize],
    is_twin: &(dyn Fn(&str) -> bool + Sync),
) -> Result<Bound, Error> {
    let plan = folder.plan;
    let planned = &plan.documents[index];
    let bytes = convert_document::read(plan, planned)?;
    let wanted = folder.facts[index].as_ref().map(|facts| facts.external.clone()).unwrap_or_default();
    let profile = &*planned.profile;
    let external = LinkedPlaces::new(&wanted);
    let links = LinksInBinder { folder, index, places };
    let output = plan.output.path().join(&planned.output);
    let context = Context {
        name: paths::stem(&planned.output).0,
        media: Some(&*plan.source),
        folder: std::path::Path::new(&planned.source).parent(),
        shows: Some(&|path| plan.shows(path)),
        output: output.parent(),
        mirrored: true,
        shared: Some(&plan.shared),
        ..Context::default()
    };
    let mut doc = pipeline::read_of_folder(&bytes, planned.format, profile, &Context { external: Some(&external), ..context })?;
    pipeline::refine(
        &mut doc,
        plan.options.writes,
        profile,
        &Context { links: Some(&links), external: Some(&external), ..Context::default() },
    );
    let placed = page::images::place(&mut doc, plan.options.writes, profile, &context);
    rebase(&mut doc, paths::folder(&planned.output));
    head(&mut doc, profile, context.name);
    let prefix = prefix(places[index]);
    let title = page::title(&doc, profile, context.name);
    // Parts of a page have names of their own, also where documents have the same title.
    let notes_of = if is_twin(&title) { format!("{title} ({})", places[index] + 1) } else { title };
    let settings = html::Settings { heading_numbers: false, ..profile.formats.html.clone() };
    let options = html::Options {
        settings: &settings,
        id_prefix: &format!("{prefix}-"),
        lists: html::Lists::HEADINGS,
        level_above: 1,
        notes_of: &notes_of,
        context: page::html_context(profile),
        safe_pictures: &placed.safe,
        highlight: page::highlighter(profile),
        requested: Some(&wanted),
        ..profile.html_options(html::Ids::Headings)
    };
    let written = html::write(&doc, &options);
    let rules = page::named_styles(&doc, profile.formats.html.characters, page::Scope::Part(&prefix)).unwrap_or_default();
    let as_source = doc.styles.iter().any(|style| style.class.is_empty());
    Ok(Bound { body: written.html, headings: written.headings, rules, as_source })
}

/// Addresses of pictures count from the page that holds them all.
fn rebase(doc: &mut Document, folder: &str) {
    let mut found = Vec::new();
    for top in doc.roots() {
        for step in doc.walk(top) {
            if let Step::Enter(id) = step
                && let Kind::Image { src, alt } = doc.kind(id)
                && let address = doc.text(src)
                && !address.starts_with('/')
                && !address.split('/').next().is_some_and(|first| first.contains(':'))
                && let Some(path) = paths::follow(folder, address)
            {
                found.push((id, alt, paths::address(BINDER, &path)));
            }
        }
    }
    for (id, alt, address) in found {
        let src = doc.intern(&address);
        doc.set_kind(id, Kind::Image { src, alt });
    }
}

/// Every document of the binder begins with a heading of the first level.
fn head(doc: &mut Document, profile: &crate::profile::Profile, name: &str) {
    let has_top = doc.children(doc.root()).any(|block| doc.kind(block) == Kind::Heading(1));
    if has_top {
        return;
    }
    let title = page::title(doc, profile, name);
    let heading = doc.create(Kind::Heading(1));
    doc.append_text(heading, &title);
    match doc.node(doc.root()).first_child() {
        Some(first) => doc.move_before(first, heading),
        None => doc.move_into(doc.root(), heading),
    }
}
