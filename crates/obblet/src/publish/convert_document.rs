//! One document of a folder, converted.

use super::agenda::AgendaTask;
use super::hash::Hash;
use super::link_index::{InDocument, LinkIndex, Target, place_in};
use super::linked_places::LinkedPlaces;
use super::paths;
use super::plan::{Plan, Planned};
use super::record::{DocumentFacts, Page};
use super::rendered::{Body, Extra, FactsByIndex, Rendered};
use super::split::{self, PagePart};
use super::tree;
use crate::context::{Context, OutputFile};
use crate::document::{Document, Finding, NodeId, NoteId, Place};
use crate::error::Error;
use crate::files::Stray;
use crate::formats::{Anchors, Format};
use crate::links::{LinkResolver, LinkTarget};
use crate::page::{self, Content, Placed, WriteReport};
use crate::pipeline;
use crate::profile::{Profile, Shape};
use crate::slug;
use std::cell::RefCell;
use std::collections::BTreeSet;
use std::path::Path;

/// What is known of the folder while a document is converted.
pub(super) struct FolderState<'k> {
    pub(super) plan: &'k Plan,
    pub(super) link_index: &'k LinkIndex,
    pub(super) facts: &'k FactsByIndex,
}

/// What a link of a document leads to, as far as the folder decides about it.
pub(super) fn lead(known: &FolderState<'_>, planned: &Planned, address: &str) -> LinkTarget {
    match known.link_index.find(&planned.source, address) {
        Target::Elsewhere => LinkTarget::Unchanged,
        Target::Document(index, rest) => {
            let output = known.link_index.output(index);
            let Some((query, name)) = rest.split_once('#').filter(|(_, name)| !name.is_empty()) else {
                return LinkTarget::Rewritten(format!("{}{rest}", paths::address(&planned.output, output)));
            };
            let name = percent_encoding::percent_decode_str(name).decode_utf8_lossy();
            let found = known.facts.get(index).and_then(Option::as_ref).map(|facts| (place_in(facts, &name), facts));
            match found {
                Some((InDocument::There { page, id }, facts)) => {
                    let page = facts.pages.get(page).map_or(output, |page| page.output.as_str());
                    LinkTarget::Rewritten(format!("{}{query}#{id}", paths::address(&planned.output, page)))
                }
                _ => LinkTarget::Rewritten(format!("{}{rest}", paths::address(&planned.output, output))),
            }
        }
        Target::Folder(page, rest) => LinkTarget::Rewritten(format!("{}{rest}", paths::address(&planned.output, &page))),
        Target::File(path) => {
            let rest = &address[address.find(['?', '#']).unwrap_or(address.len())..];
            LinkTarget::Rewritten(format!("{}{rest}", paths::address(&planned.output, &path)))
        }
        Target::Missing(wanted) => {
            LinkTarget::Missing { nearest: known.link_index.near(&wanted).map(|near| paths::address(&planned.source, &near)) }
        }
    }
}

/// What the links of a document led to, as one hash.
pub(super) fn hash_of_leads<'l>(leads: impl Iterator<Item = &'l LinkTarget>) -> Hash {
    let texts: Vec<String> = leads
        .map(|target| match target {
            LinkTarget::Unchanged => String::new(),
            LinkTarget::Rewritten(address) => format!(">{address}"),
            LinkTarget::Missing { nearest } => format!("?{}", nearest.as_deref().unwrap_or_default()),
        })
        .collect();
    Hash::of_parts(texts.iter().map(String::as_bytes))
}

/// Whether an address is that of a place in the document that it stands in. Every page has a top.
fn is_own_place(address: &str) -> bool {
    address.len() > 1 && address.starts_with('#') && !address.eq_ignore_ascii_case("#top")
}

/// The place that an address names in a document.
fn own_place(facts: &DocumentFacts, address: &str) -> InDocument {
    place_in(facts, &percent_encoding::percent_decode_str(&address[1..]).decode_utf8_lossy())
}

/// The links of the document that is converted; remembers them.
struct LinksOf<'l> {
    known: &'l FolderState<'l>,
    planned: &'l Planned,
    seen: RefCell<Vec<(String, Place)>>,
    /// Links to places in the document itself.
    own: RefCell<Vec<(String, Place)>>,
    leads: RefCell<Vec<LinkTarget>>,
}

impl LinkResolver for LinksOf<'_> {
    fn resolve(&self, address: &str, at: Place) -> LinkTarget {
        if is_own_place(address) {
            self.own.borrow_mut().push((address.to_owned(), at));
        }
        if self.known.link_index.find(&self.planned.source, address) == Target::Elsewhere {
            return LinkTarget::Unchanged;
        }
        let target = lead(self.known, self.planned, address);
        self.seen.borrow_mut().push((address.to_owned(), at));
        self.leads.borrow_mut().push(target.clone());
        target
    }
}

/// The bytes of a document.
pub(super) fn read(plan: &Plan, planned: &Planned) -> Result<Vec<u8>, Error> {
    let limit = planned.profile.limits.source;
    plan.source.read(planned.source.as_ref(), limit).map_err(|cause| match Stray::of(&cause) {
        Some(Stray::TooLarge(limit)) => Error::TooLarge { size: planned.size, limit },
        _ => Error::File { path: planned.source.clone(), cause },
    })
}

/// Converts a document. `requested` are the names of places in it that other documents lead to.
pub(super) fn convert(known: &FolderState<'_>, index: usize, requested: &BTreeSet<String>) -> Result<Rendered, Error> {
    let plan = known.plan;
    let planned = &plan.documents[index];
    let clock = plan.options.clock;
    let begun = clock.map(|clock| clock());
    let bytes = read(plan, planned)?;
    let hash = Hash::of(&bytes);
    let links = LinksOf { known, planned, seen: RefCell::default(), own: RefCell::default(), leads: RefCell::default() };
    let output = plan.output.path().join(&planned.output);
    let to_top = paths::to_top(&planned.output);
    let external = LinkedPlaces::new(requested);
    let context = Context {
        external: Some(&external),
        name: paths::stem(&planned.output).0,
        media: Some(&*plan.source),
        folder: Path::new(&planned.source).parent(),
        shows: Some(&|path| plan.shows(path)),
        output: output.parent(),
        to_top: &to_top,
        mirrored: true,
        links: Some(&links),
        shared: Some(&plan.shared),
        ..Context::default()
    };
    let writes = plan.options.writes;
    let mut doc = pipeline::read_of_folder(&bytes, planned.format, &planned.profile, &context)?;
    drop(bytes);
    pipeline::refine(&mut doc, writes, &planned.profile, &context);
    let mut placed = pipeline::place(&mut doc, writes, &planned.profile, &context);
    let files = std::mem::take(&mut placed.files);
    let mut pages = PagesOf {
        known,
        planned,
        context: &context,
        places: &external,
        placed: &placed,
        facts: DocumentFacts::of(&doc, &planned.profile, context.name),
        bodies: Vec::new(),
        findings: planned.findings.clone(),
        files,
    };
    pages.write(&mut doc, writes)?;
    let PagesOf { mut facts, bodies, mut findings, files, .. } = pages;
    findings.append(&mut doc.findings);
    findings.sort_by_key(|finding| finding.place);
    external.tell(&mut facts);
    facts.links = links.seen.into_inner();
    // Of the links within the document, those that lead nowhere.
    let own = links.own.into_inner().into_iter();
    let astray: Vec<_> = own.filter(|(address, _)| matches!(own_place(&facts, address), InDocument::Missing { .. })).collect();
    facts.links.extend(astray);
    let folder = paths::folder(&planned.output);
    Ok(Rendered {
        source: planned.source.clone(),
        hash,
        settings: planned.settings,
        uses: uses(plan, &placed.uses),
        includes: uses(plan, &doc.source.includes),
        facts,
        bodies,
        extras: files.into_iter().filter_map(|file| extra(folder, file)).collect(),
        findings,
        leads: hash_of_leads(links.leads.borrow().iter()),
        time: begun.zip(clock).map_or(0, |(begun, clock)| clock().saturating_sub(begun).as_micros() as u64),
    })
}

/// The pages that a document becomes.
struct PagesOf<'p> {
    known: &'p FolderState<'p>,
    planned: &'p Planned,
    context: &'p Context<'p>,
    places: &'p LinkedPlaces<'p>,
    /// What was done about its images.
    placed: &'p Placed,
    facts: DocumentFacts,
    bodies: Vec<Body>,
    findings: Vec<Finding>,
    files: Vec<OutputFile>,
}

impl PagesOf<'_> {
    /// Writes a document that is refined.
    fn write(&mut self, doc: &mut Document, writes: Format) -> Result<(), Error> {
        let (profile, output) = (&*self.planned.profile, self.planned.output.as_str());
        if writes != Format::Html || profile.shape == Shape::Fragment {
            return self.write_alone(doc, writes);
        }
        let address =
            |part: usize, parts: &[PagePart]| paths::address(output, &page_of_part(self.known.link_index, output, part, parts));
        let parts = match profile.publish.split {
            0 => None,
            level => split::take_apart(doc, level, address),
        };
        let Some(parts) = parts else {
            let (content, report) = page::content(doc, profile, self.context, &self.placed.safe, None);
            self.add_page(doc, output.to_owned(), content, report);
            return Ok(());
        };
        let last = parts.parts.len() - 1;
        for (at, part) in parts.parts.iter().enumerate() {
            split::show(doc, part);
            let unmentioned: &[NoteId] = if at == last { &parts.unmentioned } else { &[] };
            let (mut content, report) = page::content(doc, profile, self.context, &self.placed.safe, Some(unmentioned));
            if at > 0 {
                content.title.clone_from(&part.title);
                // Only the first page has the title of the whole above it.
                content.shows_title = false;
            }
            self.add_page(doc, page_of_part(self.known.link_index, output, at, &parts.parts), content, report);
            split::hide(doc, part);
        }
        Ok(())
    }

    /// Writes a document that no page goes around.
    fn write_alone(&mut self, doc: &mut Document, writes: Format) -> Result<(), Error> {
        let mut converted = pipeline::write_placed(doc, writes, &self.planned.profile, self.context, self.placed)?;
        self.findings.append(&mut converted.findings);
        self.files.append(&mut converted.files);
        if writes != Format::Html {
            // What people link to in text are the words of headings.
            let named = doc.nodes().filter(|(_, node)| node.has_attributes()).filter_map(|(id, _)| doc.attributes(id).id);
            let named = named.map(|name| doc.text(name).to_owned());
            let mut ids: Vec<String> = heading_names(doc).into_iter().chain(named).collect();
            ids.sort_unstable();
            ids.dedup();
            converted.anchors.ids = ids;
        }
        self.add_facts(doc, self.planned.output.clone(), converted.title, converted.anchors);
        self.bodies.push(Body::Bytes(converted.bytes));
        Ok(())
    }

    fn add_page(&mut self, doc: &Document, output: String, content: Content, mut report: WriteReport) {
        self.findings.append(&mut report.findings);
        self.add_tasks(doc, &output, &content);
        self.add_facts(doc, output, content.title.clone(), report.anchors);
        self.bodies.push(Body::Page(Box::new(content)));
    }

    /// Keeps what the headings of a page say is to be done.
    fn add_tasks(&mut self, doc: &Document, output: &str, content: &Content) {
        if doc.tasks.is_empty() {
            return;
        }
        let headings = headings(doc);
        // The list of the page has those that were written, in the same order.
        let ids = (headings.len() == content.headings.len()).then_some(&content.headings);
        let ids: std::collections::HashMap<NodeId, &str> =
            headings.iter().enumerate().map(|(at, heading)| (*heading, ids.map_or("", |ids| ids[at].id.as_str()))).collect();
        let is_shown = |node: NodeId| ids.contains_key(&node) || (!is_heading(doc, node) && is_within(doc, node));
        for (node, task) in doc.tasks.iter().filter(|(node, _)| is_shown(*node)) {
            // A heading that is an item has its words in its first paragraph.
            let words = if is_heading(doc, node) { Some(node) } else { doc.node(node).first_child() };
            let text = words.map_or_else(String::new, |words| doc.heading_line(words));
            let own = doc.attributes(node).id.map_or("", |id| doc.text(id));
            let id = ids.get(&node).copied().filter(|id| !id.is_empty()).unwrap_or(own);
            self.facts.tasks.extend(AgendaTask::of(task, text, output, id));
        }
    }

    fn add_facts(&mut self, doc: &Document, output: String, title: String, anchors: Anchors) {
        let also = other_names(doc, &anchors.ids, self.places);
        self.facts.pages.push(Page { output, title, ids: anchors.ids, also });
        self.facts.unreferenced.extend(anchors.unreferenced);
        self.facts.external.extend(anchors.external);
    }
}

impl DocumentFacts {
    /// What a document says of itself.
    fn of(doc: &Document, profile: &Profile, name: &str) -> Self {
        Self {
            title: page::title(doc, profile, name),
            order: number(doc, "order"),
            date: doc.metadata.date.clone().unwrap_or_default(),
            description: doc.metadata.description.clone().unwrap_or_default(),
            language: doc.metadata.language.clone().unwrap_or_default(),
            authors: doc.metadata.authors.clone(),
            ..Self::default()
        }
    }
}

/// The page of a part of a document: the first has the name of the whole. None has the name of another document's page.
fn page_of_part(link_index: &LinkIndex, output: &str, part: usize, parts: &[PagePart]) -> String {
    if part == 0 {
        return output.to_owned();
    }
    let (stem, extension) = paths::stem(output);
    let mut line = "--".to_owned();
    loop {
        let page = paths::join(paths::folder(output), &format!("{stem}{line}{}.{extension}", parts[part].name));
        if link_index.made_of(&page).is_none() {
            return page;
        }
        line.push('-');
    }
}

/// A number among the metadata.
fn number(doc: &Document, name: &str) -> Option<i64> {
    doc.metadata.other.iter().find(|(key, _)| key.eq_ignore_ascii_case(name)).and_then(|(_, value)| value.trim().parse().ok())
}

/// The names by which people link to the headings of a document.
fn heading_names(doc: &Document) -> Vec<String> {
    let mut slugs = crate::fast_hash::HashMap::default();
    let mut names: Vec<String> =
        headings(doc).into_iter().map(|heading| slug::unique(&doc.heading_text(heading), &mut slugs)).collect();
    names.sort_unstable();
    names
}

fn is_heading(doc: &Document, node: NodeId) -> bool {
    matches!(doc.kind(node), crate::document::Kind::Heading(_))
}

/// Whether a node is in the text.
fn is_within(doc: &Document, node: NodeId) -> bool {
    doc.ancestors(node).last() == Some(doc.root())
}

fn headings(doc: &Document) -> Vec<NodeId> {
    use crate::document::{Kind, Step};
    let is_heading = |step: Step| match step {
        Step::Enter(id) if matches!(doc.kind(id), Kind::Heading(_)) => Some(id),
        _ => None,
    };
    doc.walk(doc.root()).filter_map(is_heading).collect()
}

/// Names of places that differ from their ids: what a heading would be called by its words, and what the source calls it.
fn other_names(doc: &Document, ids: &[String], places: &LinkedPlaces<'_>) -> std::collections::BTreeMap<String, String> {
    let has = |name: &str| ids.binary_search_by(|id| id.as_str().cmp(name)).is_ok();
    let mut names = places.aliases();
    for heading in headings(doc) {
        let Some(id) = doc.attributes(heading).id.map(|id| doc.text(id).to_owned()) else { continue };
        let made = slug::of(&doc.heading_text(heading));
        if made != id && !has(&made) && has(&id) {
            names.entry(made).or_insert(id);
        }
    }
    names.retain(|_, id| has(id));
    names
}

/// A file that goes with an output, where it stays in the folder of all outputs.
fn extra(folder: &str, file: OutputFile) -> Option<Extra> {
    let path = file.path.iter().map(|part| part.to_str()).collect::<Option<Vec<_>>>()?.join("/");
    // What the path has is no address: nothing in it stands for anything else.
    let escaped = path.replace('%', "%25");
    Some(Extra { path: paths::follow(folder, &escaped)?, bytes: file.bytes })
}

/// The files that a document shows or includes, with their hashes.
fn uses(plan: &Plan, used: &[std::path::PathBuf]) -> Vec<(String, Hash)> {
    let mut all: Vec<(String, Hash)> = used
        .iter()
        .filter_map(|path| tree::text(path))
        .map(|path| {
            let hash = plan.hash_of(&path);
            (path, hash)
        })
        .collect();
    all.sort();
    all.dedup();
    all
}

/// What there is to say of links to documents that have no such place.
pub(super) fn check_places(known: &FolderState<'_>, planned: &Planned, facts: &DocumentFacts) -> Vec<Finding> {
    let mut findings = Vec::new();
    for (address, place) in &facts.links {
        if is_own_place(address) {
            if let InDocument::Missing { nearest } = own_place(facts, address) {
                findings.push(astray(format!("link target not found in the document: {address}"), address, nearest).at(*place));
            }
            continue;
        }
        let Target::Document(index, rest) = known.link_index.find(&planned.source, address) else { continue };
        let Some((_, name)) = rest.split_once('#').filter(|(_, name)| !name.is_empty()) else { continue };
        let Some(target) = known.facts.get(index).and_then(Option::as_ref) else { continue };
        let name = percent_encoding::percent_decode_str(name).decode_utf8_lossy();
        if let InDocument::Missing { nearest } = place_in(target, &name) {
            let source = &known.plan.documents[index].source;
            findings.push(
                astray(format!("link target not found: {address}; {source} has no such anchor"), address, nearest).at(*place),
            );
        }
    }
    findings
}

fn astray(message: String, address: &str, nearest: Option<String>) -> Finding {
    let hint = nearest.map_or_else(|| "correct the address".to_owned(), |near| format!("perhaps #{near} is meant"));
    Finding::advice("link.missing-place", message).about(address).hint(hint)
}
