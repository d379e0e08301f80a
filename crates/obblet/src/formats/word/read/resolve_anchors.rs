//! Bookmarks become ids, and links lead to them.

use crate::document::{Document, Finding, Kind, NodeId, Step};
use crate::fast_hash::{HashMap, HashSet};
use crate::links::ExternalLinks;
use crate::slug;

/// Bookmarks, and what leads to them.
#[derive(Debug, Default)]
pub(super) struct Anchors {
    /// Nodes and names, in the order of the document.
    pub(super) found: Vec<(NodeId, String)>,
    /// Those that wait for the block that they stand in.
    pub(super) waiting: Vec<NodeId>,
    /// Names that links of the document lead to.
    pub(super) used: HashSet<String>,
}

impl Anchors {
    /// Places stay where a link leads to them. A heading is known by its words, not by a number of the program's.
    pub(super) fn resolve(mut self, doc: &mut Document, external: &dyn ExternalLinks) {
        if let Some(last) = doc.node(doc.root()).last_child() {
            for anchor in std::mem::take(&mut self.waiting) {
                doc.move_into(last, anchor);
            }
        }
        // Where a place goes, the texts around it meet.
        let parents = self.found.iter().filter_map(|(anchor, _)| doc.node(*anchor).parent()).collect();
        let mut slugs = HashMap::default();
        let mut names: HashMap<String, String> = HashMap::default();
        let mut headings: HashMap<NodeId, String> = HashMap::default();
        for (anchor, name) in std::mem::take(&mut self.found) {
            // Marks of contents lists are made anew each time one is; nobody else leads to them.
            let stays = !names.contains_key(&name)
                && (self.used.contains(&name) || (!name.starts_with("_Toc") && external.lead_to(&name)));
            if !stays {
                doc.detach(anchor);
                continue;
            }
            let heading = doc.ancestors(anchor).find(|id| matches!(doc.kind(*id), Kind::Heading(_)));
            if let Some(heading) = heading {
                let id = match headings.get(&heading) {
                    Some(known) => known.clone(),
                    None => {
                        let id =
                            if name.starts_with('_') { slug::unique(&doc.plain_text(heading), &mut slugs) } else { name.clone() };
                        headings.insert(heading, id.clone());
                        let text = doc.intern(&id);
                        doc.attributes_mut(heading).id = Some(text);
                        id
                    }
                };
                doc.detach(anchor);
                names.insert(name, id);
                continue;
            }
            // Places at the beginning of one block are one place.
            let block = doc.node(anchor).parent().filter(|parent| {
                !doc.kind(*parent).is_inline()
                    && std::iter::successors(doc.node(anchor).previous(), |at| doc.node(*at).previous())
                        .all(|before| doc.kind(before) == Kind::Anchor)
            });
            let Some(block) = block else {
                names.insert(name.clone(), name);
                continue;
            };
            let id = headings.entry(block).or_insert_with(|| name.clone()).clone();
            if id == name {
                let text = doc.intern(&id);
                doc.attributes_mut(block).id = Some(text);
            }
            doc.detach(anchor);
            names.insert(name, id);
        }
        doc.join_texts_in(parents);
        for (name, id) in names.iter().filter(|(name, id)| name != id) {
            external.renamed(name, id);
        }
        link_anchors(doc, &names);
    }
}

/// Links lead to the ids that their anchors have now; those that lead nowhere are reported.
fn link_anchors(doc: &mut Document, names: &HashMap<String, String>) {
    let mut missing: Vec<(NodeId, String)> = Vec::new();
    for top in doc.roots() {
        let links: Vec<NodeId> = doc
            .walk(top)
            .filter_map(|step| match step {
                Step::Enter(id) if matches!(doc.kind(id), Kind::Link { .. }) => Some(id),
                _ => None,
            })
            .collect();
        for link in links {
            let Kind::Link { href } = doc.kind(link) else { continue };
            let Some(name) = doc.text(href).strip_prefix('#').map(str::to_owned) else { continue };
            match names.get(&name) {
                Some(id) if *id != name => {
                    let href = doc.intern(&format!("#{id}"));
                    doc.set_kind(link, Kind::Link { href });
                }
                Some(_) => {}
                // The top of the document is always there.
                None if name == "_top" || name == "top" => {
                    let href = doc.intern("#top");
                    doc.set_kind(link, Kind::Link { href });
                }
                None => missing.push((link, name)),
            }
        }
    }
    if let Some((link, _)) = missing.first() {
        let place = doc.place(*link);
        let mut gone: Vec<&str> = missing.iter().map(|(_, name)| name.as_str()).collect();
        gone.dedup();
        doc.push_finding(
            Finding::changed("word.dead-link", format!("internal links whose target does not exist: {}", missing.len()))
                .at(place)
                .hint("update the fields of the document in the word processor")
                .losing(gone.join(" ")),
        );
    }
}
