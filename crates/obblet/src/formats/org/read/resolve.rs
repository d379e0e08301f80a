//! Links to what has a name, once all names are known (Org syntax, "Links": internal links).

use super::Reader;
use super::headings::normal;
use super::inlines::Target;
use crate::document::{Kind, NodeId};
use crate::fast_hash::HashMap;

impl Reader<'_> {
    /// Links lead to the ids of what they name; those that lead nowhere become text.
    pub(super) fn resolve_links(&mut self) {
        // Ids that the file gives are taken.
        let mut slugs: HashMap<String, u32> = self.custom_ids.iter().map(|id| (id.clone(), 1)).collect();
        for (link, target) in std::mem::take(&mut self.links) {
            let by_name = |reader: &Self, name: &str| {
                reader.names.get(&name.to_lowercase()).or_else(|| reader.headings.get(&normal(name))).copied()
            };
            let (node, words) = match &target {
                Target::Heading(words) => (self.headings.get(&normal(words)).copied(), words),
                Target::Id(id) => (self.ids.get(id).copied(), id),
                Target::Code(label) => {
                    let known = self.code_labels.get(label).copied();
                    if let Some(line) = known.and_then(|known| known.line) {
                        self.show_line(link, label, line);
                    }
                    (known.map(|known| known.block), label)
                }
                Target::Name(name) => (by_name(self, name), name),
                Target::Place(id) => {
                    // What it leads to is shown, where it is there.
                    if !self.custom_ids.contains(id) {
                        self.tallies.missing_targets.add(self.doc.node(link).offset(), id);
                        let text = self.doc.intern(id);
                        let place = self.doc.node(link).offset();
                        self.doc.append_at(link, Kind::Text(text), place);
                        self.doc.unwrap(link);
                    }
                    continue;
                }
                Target::Address(_) | Target::Program => continue,
            };
            match node {
                Some(node) => {
                    let id = self.id_of(node, words, &mut slugs);
                    let href = self.doc.intern(&format!("#{id}"));
                    self.doc.set_kind(link, Kind::Link { href });
                }
                // A file beside this one may be what is meant.
                None if matches!(target, Target::Name(_)) && is_file(words) => {
                    let href = self.doc.intern(words);
                    self.doc.set_kind(link, Kind::Link { href });
                }
                None => {
                    let place = self.doc.node(link).offset();
                    self.tallies.missing_targets.add(place, words);
                    self.doc.unwrap(link);
                }
            }
        }
    }

    /// A link that shows the label of a line of code shows its number, where the label is left out.
    fn show_line(&mut self, link: NodeId, label: &str, line: usize) {
        let shown = self.doc.plain_text(link);
        let inner = shown.strip_prefix('(').and_then(|shown| shown.strip_suffix(')'));
        if let Some(text) = self.doc.node(link).first_child().filter(|_| inner == Some(label)) {
            let number = self.doc.intern(&line.to_string());
            self.doc.set_kind(text, Kind::Text(number));
        }
    }

    /// The id of a node; one of its words, where it has none.
    fn id_of(&mut self, node: NodeId, name: &str, slugs: &mut HashMap<String, u32>) -> String {
        // Code with a caption is in a figure.
        let figure = self.doc.node(node).parent().filter(|&parent| self.doc.kind(parent) == Kind::Figure);
        let known = self.doc.attributes(node).id.or_else(|| self.doc.attributes(figure?).id);
        if let Some(id) = known {
            return self.doc.text(id).to_owned();
        }
        let is_heading = matches!(self.doc.kind(node), Kind::Heading(_));
        let words = if is_heading { self.doc.heading_text(node) } else { name.to_owned() };
        let id = crate::slug::unique(&words, slugs);
        let text = self.doc.intern(&id);
        self.doc.attributes_mut(node).id = Some(text);
        id
    }
}

fn is_file(words: &str) -> bool {
    words.contains('/')
        || words
            .rsplit_once('.')
            .is_some_and(|(name, extension)| !name.is_empty() && extension.len() <= 5 && !words.contains(' '))
}
