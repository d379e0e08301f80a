//! Who gets which id. Ids are unique; a second one of the same name gets a number.

use super::super::characters::is_allowed;
use super::super::{Ids as Wanted, Options};
use crate::document::{Document, Finding, Kind, KindSet, NodeId, Step};
use crate::fast_hash::{HashMap, HashSet};
use crate::formats::html::Lists;
use crate::slug;
use std::fmt::Write;

/// The ids of a document.
#[derive(Debug, Default)]
pub(super) struct Ids {
    given: HashMap<NodeId, String>,
    taken: HashSet<String>,
    /// Stands before every name.
    prefix: String,
    /// Names of headings that have no id.
    unreferenced: Vec<String>,
    /// What would have had an id that something else has.
    repeated: Vec<(NodeId, String)>,
    /// Names of headings that have one only because other documents lead to them.
    external: Vec<String>,
}

impl Ids {
    /// Gives ids to the nodes of a document.
    pub(super) fn of(doc: &Document, options: &Options<'_>) -> Self {
        let mut ids = Self { prefix: options.id_prefix.to_owned(), ..Self::default() };
        ids.taken.extend(options.taken_ids.iter().map(|&id| id.to_owned()));
        let requested = options.ids();
        let mut pointed = HashSet::default();
        if requested == Wanted::Used && doc.may_hold(KindSet::LINKS) {
            for (_, node) in doc.nodes() {
                if let Kind::Link { href } = node.kind()
                    && let Some(name) = doc.text(href).strip_prefix('#')
                {
                    pointed.insert(decode(name));
                }
            }
        }
        if requested == Wanted::Used {
            // What the document itself leads to is no matter of others.
            let others = options.requested.into_iter().flatten().filter(|name| !pointed.contains(*name));
            ids.external = others.cloned().collect();
            pointed.extend(ids.external.iter().cloned());
        }
        if requested != Wanted::None
            && (options.lists.contains(Lists::IDS) || doc.may_have_ids() || requested == Wanted::Headings || !pointed.is_empty())
        {
            ids.name_all(doc, options, &pointed);
        }
        ids
    }

    /// Gives a node the id that the source gave it, unless another has it.
    fn give(&mut self, id: NodeId, name: &str) {
        let is_plain = name.bytes().all(|byte| byte.is_ascii_graphic());
        let mut whole = self.prefix.clone();
        if is_plain {
            whole.push_str(name);
        } else {
            for (at, word) in name.split_whitespace().enumerate() {
                whole.push_str(if at > 0 { "-" } else { "" });
                // As it will be written: characters that become one another make no names of their own.
                whole.push_str(&word.replace(|c| !is_allowed(c), "\u{FFFD}"));
            }
        }
        let name = whole;
        if name.len() == self.prefix.len() {
            return;
        }
        if self.taken.insert(name.clone()) {
            self.given.insert(id, name);
        } else {
            self.repeated.push((id, name));
        }
    }

    /// What there is to say of ids that stood in the document more than once.
    pub(super) fn finding(&self, doc: &Document) -> Option<Finding> {
        let (first, _) = self.repeated.first()?;
        let names: Vec<&str> = self.repeated.iter().map(|(_, name)| self.without_prefix(name)).collect();
        let message = format!("ids that something else has already were left out: {}", names.len());
        Some(
            Finding::changed("html.duplicate-id", message)
                .at(doc.place(*first))
                .losing(names.join(" "))
                .hint("give each element an id of its own; links lead to the first one"),
        )
    }

    fn name_all(&mut self, doc: &Document, options: &Options<'_>, pointed: &HashSet<String>) {
        let mut named = Vec::new();
        let mut headings = Vec::new();
        for top in std::iter::once(doc.root()).chain(doc.notes.iter().map(|note| note.body)) {
            for step in doc.walk(top) {
                let Step::Enter(id) = step else { continue };
                if doc.node(id).has_attributes() {
                    named.extend(doc.attributes(id).id.map(|name| (id, name)));
                }
                if matches!(doc.kind(id), Kind::Heading(_)) {
                    headings.push(id);
                }
            }
        }
        // What the source named comes first: nothing may take its names away.
        for (id, name) in named {
            self.give(id, doc.text(name));
        }
        if options.ids() == Wanted::Used
            && !options.lists.contains(Lists::IDS)
            && pointed.iter().all(|name| self.taken.contains(name))
        {
            return;
        }
        let mut slugs = HashMap::default();
        let mut named_headings = HashSet::default();
        for id in headings {
            let slug = slug::unique(&doc.heading_text(id), &mut slugs);
            let requested = match options.ids() {
                Wanted::None => false,
                Wanted::Headings => true,
                Wanted::Used => pointed.contains(&slug),
            };
            if requested && !self.given.contains_key(&id) {
                let name = self.free(&slug);
                self.given.insert(id, name);
                named_headings.insert(slug);
            } else if options.lists.contains(Lists::IDS) && !requested {
                self.unreferenced.push(slug);
            }
        }
        self.keep(&named_headings);
    }

    /// Forgets wanted names that no heading has.
    fn keep(&mut self, named: &HashSet<String>) {
        self.external.retain(|name| named.contains(name));
    }

    /// The ids that the source gave to the nodes of a part, for a part that is written by itself.
    pub(super) fn of_part(doc: &Document, part: NodeId) -> Self {
        let mut ids = Self::default();
        for step in doc.walk(part) {
            if let Step::Enter(id) = step
                && let Some(name) = doc.attributes(id).id
            {
                ids.give(id, doc.text(name));
            }
        }
        ids
    }

    /// All ids of the document, and the names of headings that have none.
    pub(super) fn list(&mut self, options: &Options<'_>) -> (Vec<String>, Vec<String>, Vec<String>) {
        let mut all: Vec<String> = self.taken.iter().filter(|id| !options.taken_ids.contains(&id.as_str())).cloned().collect();
        all.sort_unstable();
        (all, std::mem::take(&mut self.unreferenced), std::mem::take(&mut self.external))
    }

    /// The id of a node.
    pub(super) fn get(&self, id: NodeId) -> Option<&str> {
        self.given.get(&id).map(String::as_str)
    }

    /// A name as it was wanted.
    pub(super) fn without_prefix<'n>(&self, name: &'n str) -> &'n str {
        name.strip_prefix(&self.prefix).unwrap_or(name)
    }

    /// Takes an id that nothing has yet: `wanted`, or `wanted` with a number behind it.
    pub(super) fn free(&mut self, requested: &str) -> String {
        let mut name = String::with_capacity(self.prefix.len() + requested.len() + 2);
        name.push_str(&self.prefix);
        name.push_str(requested);
        let length = name.len();
        let mut number = 1;
        while self.taken.contains(&name) {
            number += 1;
            name.truncate(length);
            let _ = write!(name, "-{number}");
        }
        self.taken.insert(name.clone());
        name
    }
}

fn decode(name: &str) -> String {
    percent_encoding::percent_decode_str(name).decode_utf8_lossy().into_owned()
}
