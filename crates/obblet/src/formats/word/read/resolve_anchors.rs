//! Bookmarks become ids, and links lead to them.

use super::Reader;
use crate::document::{Finding, Kind, NodeId, Step};
use crate::fast_hash::HashMap;
use crate::slug;

impl Reader<'_, '_> {
    /// Places stay where a link leads to them. A heading is known by its words, not by a number of the program's.
    pub(super) fn resolve_anchors(&mut self) {
        if let Some(last) = self.doc.node(self.doc.root()).last_child() {
            for anchor in std::mem::take(&mut self.waiting_anchors) {
                self.doc.move_into(last, anchor);
            }
        }
        // Where a place goes, the texts around it meet.
        let parents = self.anchors.iter().filter_map(|(anchor, _)| self.doc.node(*anchor).parent()).collect();
        let mut slugs = HashMap::default();
        let mut names: HashMap<String, String> = HashMap::default();
        let mut headings: HashMap<NodeId, String> = HashMap::default();
        for (anchor, name) in std::mem::take(&mut self.anchors) {
            // Marks of contents lists are made anew each time one is; nobody else leads to them.
            let stays = !names.contains_key(&name)
                && (self.used_anchors.contains(&name) || (!name.starts_with("_Toc") && self.options.external.lead_to(&name)));
            if !stays {
                self.doc.detach(anchor);
                continue;
            }
            let heading = self.doc.ancestors(anchor).find(|id| matches!(self.doc.kind(*id), Kind::Heading(_)));
            if let Some(heading) = heading {
                let id = match headings.get(&heading) {
                    Some(known) => known.clone(),
                    None => {
                        let id = if name.starts_with('_') {
                            slug::unique(&self.doc.plain_text(heading), &mut slugs)
                        } else {
                            name.clone()
                        };
                        headings.insert(heading, id.clone());
                        let text = self.doc.intern(&id);
                        self.doc.attributes_mut(heading).id = Some(text);
                        id
                    }
                };
                self.doc.detach(anchor);
                names.insert(name, id);
                continue;
            }
            // Places at the beginning of one block are one place.
            let block = self.doc.node(anchor).parent().filter(|parent| {
                !self.doc.kind(*parent).is_inline()
                    && std::iter::successors(self.doc.node(anchor).previous(), |at| self.doc.node(*at).previous())
                        .all(|before| self.doc.kind(before) == Kind::Anchor)
            });
            let Some(block) = block else {
                names.insert(name.clone(), name);
                continue;
            };
            let id = headings.entry(block).or_insert_with(|| name.clone()).clone();
            if id == name {
                let text = self.doc.intern(&id);
                self.doc.attributes_mut(block).id = Some(text);
            }
            self.doc.detach(anchor);
            names.insert(name, id);
        }
        self.doc.join_texts_in(parents);
        for (name, id) in names.iter().filter(|(name, id)| name != id) {
            self.options.external.renamed(name, id);
        }
        self.link_anchors(&names);
    }

    /// Links lead to the ids that their anchors have now; those that lead nowhere are reported.
    fn link_anchors(&mut self, names: &HashMap<String, String>) {
        let mut missing: Vec<(NodeId, String)> = Vec::new();
        for top in self.doc.roots() {
            let links: Vec<NodeId> = self
                .doc
                .walk(top)
                .filter_map(|step| match step {
                    Step::Enter(id) if matches!(self.doc.kind(id), Kind::Link { .. }) => Some(id),
                    _ => None,
                })
                .collect();
            for link in links {
                let Kind::Link { href } = self.doc.kind(link) else { continue };
                let Some(name) = self.doc.text(href).strip_prefix('#').map(str::to_owned) else { continue };
                match names.get(&name) {
                    Some(id) if *id != name => {
                        let href = self.doc.intern(&format!("#{id}"));
                        self.doc.set_kind(link, Kind::Link { href });
                    }
                    Some(_) => {}
                    // The top of the document is always there.
                    None if name == "_top" || name == "top" => {
                        let href = self.doc.intern("#top");
                        self.doc.set_kind(link, Kind::Link { href });
                    }
                    None => missing.push((link, name)),
                }
            }
        }
        if let Some((link, _)) = missing.first() {
            let place = self.doc.place(*link);
            let mut gone: Vec<&str> = missing.iter().map(|(_, name)| name.as_str()).collect();
            gone.dedup();
            self.doc.push_finding(
                Finding::changed("word.dead-link", format!("internal links whose target does not exist: {}", missing.len()))
                    .at(place)
                    .hint("update the fields of the document in the word processor")
                    .losing(gone.join(" ")),
            );
        }
    }
}
