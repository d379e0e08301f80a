//! Links to what has a name, once all names are known (Org syntax, "Links": internal links).

use super::Reader;
use super::headings::normal;
use super::inlines::{Link, Target};
use crate::document::{CrossReference, Kind, NodeId, Shows};
use crate::fast_hash::HashMap;

/// Longer formulas are not looked through for each link that leads to them.
const LONGEST_FORMULA: usize = 1 << 13;

impl Reader<'_> {
    /// Links lead to the ids of what they name; those that lead nowhere become text.
    pub(super) fn resolve_links(&mut self) {
        // Ids that the file gives are taken.
        let mut slugs: HashMap<String, u32> = self.custom_ids.iter().map(|id| (id.clone(), 1)).collect();
        for Link { node: link, target, is_bare } in std::mem::take(&mut self.links) {
            let is_bare = is_bare && matches!(target, Target::Name(_) | Target::NameOrAddress(_));
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
                Target::NameOrAddress(name) => match by_name(self, name) {
                    Some(node) => (Some(node), name),
                    None => continue,
                },
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
            if let Some(node) = node.filter(|_| is_bare)
                && let Some(label) = self.label_of_formula(node, words)
            {
                let href = self.doc.intern(&format!("#{label}"));
                self.doc.set_kind(link, Kind::Link { href });
                self.show_number(link);
                continue;
            }
            match node {
                Some(node) => {
                    let id = self.id_of(node, words, &mut slugs);
                    let href = self.doc.intern(&format!("#{id}"));
                    self.doc.set_kind(link, Kind::Link { href });
                    if is_bare && (self.is_captioned(node) || self.begins_numbered_item(node)) {
                        self.show_number(link);
                    }
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

    /// Whether what has a name is a figure or a table with a caption, which is counted.
    fn is_captioned(&self, node: NodeId) -> bool {
        let doc = &self.doc;
        let figure = doc.node(node).parent().filter(|&parent| doc.kind(parent) == Kind::Figure);
        let holder = figure.unwrap_or(node);
        matches!(doc.kind(holder), Kind::Figure | Kind::Table) && self.has_caption(holder)
    }

    /// Whether a target is the first of an item with a number.
    fn begins_numbered_item(&self, node: NodeId) -> bool {
        let doc = &self.doc;
        let is_first = |id: &NodeId| doc.node(*id).previous().is_none();
        let above = std::iter::once(node).chain(doc.ancestors(node)).take(3).take_while(is_first);
        let item = above.filter_map(|id| doc.node(id).parent()).find(|&id| matches!(doc.kind(id), Kind::ListItem { .. }));
        let list = item.and_then(|item| doc.node(item).parent());
        list.is_some_and(|list| matches!(doc.kind(list), Kind::List(kind) if kind.ordered))
    }

    /// The label of a formula that is counted and has a name: its own, or that name, which is put into its source.
    fn label_of_formula(&mut self, node: NodeId, name: &str) -> Option<String> {
        let only = self.doc.node(node).first_child().filter(|&only| self.doc.node(only).next().is_none())?;
        let Kind::Math(id) = self.doc.kind(only) else { return None };
        let source = self.doc.text(self.doc.formula(id).source);
        if source.len() > LONGEST_FORMULA {
            return None;
        }
        if let Some((label, _)) = source.split_once("\\label{").and_then(|(_, rest)| rest.split_once('}')) {
            return Some(label.to_owned());
        }
        let place = place_of_label(source)?;
        if !name.bytes().all(|byte| byte.is_ascii_alphanumeric() || matches!(byte, b'-' | b'_' | b':' | b'.')) {
            return None;
        }
        let labelled = format!("{}\\label{{{name}}}{}", &source[..place], &source[place..]);
        let source = self.doc.intern(&labelled);
        self.doc.formulas.get_mut(id.0 as usize)?.source = source;
        // The label is its id.
        self.doc.attributes_mut(node).id = None;
        Some(name.to_owned())
    }

    /// A link shows the number of what it leads to, once that is known.
    fn show_number(&mut self, link: NodeId) {
        while let Some(child) = self.doc.node(link).first_child() {
            self.doc.detach(child);
        }
        self.doc.references.set(link, CrossReference { shows: Shows::Number });
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

/// Where the label of a formula stands in its source, where that is an environment whose rows are counted.
fn place_of_label(source: &str) -> Option<usize> {
    let (name, _) = source.strip_prefix("\\begin{")?.split_once('}')?;
    let behind = "\\begin{}".len() + name.len();
    match name {
        "equation" | "align" | "gather" | "multline" | "flalign" | "eqnarray" => Some(behind),
        // How many columns it has stands first.
        "alignat" | "xalignat" => Some(behind + source[behind..].find('}')? + 1),
        _ => None,
    }
}

fn is_file(words: &str) -> bool {
    words.contains('/')
        || words
            .rsplit_once('.')
            .is_some_and(|(name, extension)| !name.is_empty() && extension.len() <= 5 && !words.contains(' '))
}
