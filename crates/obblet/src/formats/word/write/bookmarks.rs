//! Bookmarks: the names of places that links lead to (section 17.13.6.2).

use super::unique_names::UniqueNames;
use crate::document::{Counter, Document, Kind, Label, NodeId, Step};
use crate::fast_hash::{HashMap, HashSet};
use crate::slug;
use percent_encoding::percent_decode_str;
use std::borrow::Cow;
use std::collections::BTreeSet;

/// A name has so many characters at most.
const LONGEST: usize = 40;

/// The first of the numbers in names that programs use, as word processors write them.
const FIRST: usize = 100_000_001;

/// The names of all places of a document.
#[derive(Debug, Default)]
pub(super) struct Bookmarks {
    by_id: HashMap<String, usize>,
    by_node: HashMap<NodeId, usize>,
    names: Vec<String>,
    /// The nodes that the names are of.
    nodes: Vec<NodeId>,
    /// Names of labels in captions, and of headings for the list of contents.
    labels: HashMap<NodeId, usize>,
    contents: HashMap<NodeId, usize>,
    taken: UniqueNames,
}

impl Bookmarks {
    /// Names for the ids of a document, in the order of the text, and for headings that links lead to by their words.
    pub(super) fn of(doc: &Document, lists_contents: bool, others: Option<&BTreeSet<String>>) -> Self {
        let mut bookmarks = Self::default();
        let mut linked: HashSet<String> = others.into_iter().flatten().cloned().collect();
        for (_, node) in doc.nodes() {
            if let Kind::Link { href } = node.kind()
                && let Some(place) = doc.text(href).strip_prefix('#')
            {
                linked.insert(percent_decode_str(place).decode_utf8_lossy().into_owned());
            }
        }
        let mut headings = Vec::new();
        for step in doc.walk_all() {
            let Step::Enter(node) = step else { continue };
            if doc.node(node).has_attributes()
                && let Some(id) = doc.attributes(node).id.map(|id| doc.text(id))
            {
                bookmarks.name_place(id, node);
            }
            if matches!(doc.kind(node), Kind::Heading(_)) {
                headings.push(node);
            }
            let is_counted =
                |label: &Label| matches!(label.counter, Counter::Figure | Counter::Table) && !label.number.is_empty();
            if doc.labels.get(node).is_some_and(is_counted) {
                let number = bookmarks.add(format!("_Ref{}", FIRST + bookmarks.labels.len()), node);
                bookmarks.labels.insert(node, number);
            }
        }
        let mut slugs = HashMap::default();
        for heading in headings {
            if lists_contents {
                let number = bookmarks.add(format!("_Toc{}", FIRST + bookmarks.contents.len()), heading);
                bookmarks.contents.insert(heading, number);
            }
            let slug = slug::unique(&doc.plain_text(heading), &mut slugs);
            if linked.contains(&slug) {
                bookmarks.name_place(&slug, heading);
            }
        }
        bookmarks
    }

    /// Gives a place a name. The first of several with an id is the one that links lead to; a node has one name.
    fn name_place(&mut self, id: &str, node: NodeId) {
        if id.is_empty() || self.by_id.contains_key(id) {
            return;
        }
        if let Some(&known) = self.by_node.get(&node) {
            self.by_id.insert(id.to_owned(), known);
            return;
        }
        let name = self.taken.unique(&name_of(id), LONGEST, "_");
        let number = self.add(name, node);
        self.by_id.insert(id.to_owned(), number);
        self.by_node.insert(node, number);
    }

    fn add(&mut self, name: String, node: NodeId) -> usize {
        self.names.push(name);
        self.nodes.push(node);
        self.names.len() - 1
    }

    /// The number of the name of the label that a figure or a table has.
    pub(super) fn label(&self, node: NodeId) -> Option<usize> {
        self.labels.get(&node).copied()
    }

    /// The number of the name by which the list of contents leads to a heading.
    pub(super) fn in_contents(&self, heading: NodeId) -> Option<usize> {
        self.contents.get(&heading).copied()
    }

    /// The node that an id is of, and the name of its place.
    pub(super) fn target(&self, id: &str) -> Option<(NodeId, &str)> {
        let number = *self.by_id.get(id)?;
        Some((*self.nodes.get(number)?, self.name(number)))
    }

    /// The number of the place that a node is, if it is not written yet.
    pub(super) fn begin(&mut self, node: NodeId) -> Option<usize> {
        if self.by_node.is_empty() { None } else { self.by_node.remove(&node) }
    }

    /// The name of a place by its number.
    pub(super) fn name(&self, number: usize) -> &str {
        self.names.get(number).map_or("", String::as_str)
    }
}

/// An address with the name of a place in another document as that has it: in Word documents places have bookmarks.
pub(super) fn in_other(address: &str) -> Cow<'_, str> {
    match address.split_once('#') {
        Some((path, place)) if !place.is_empty() && path.to_ascii_lowercase().ends_with(".docx") => {
            let place = percent_decode_str(place).decode_utf8_lossy();
            Cow::Owned(format!("{path}#{}", percent_encoding::utf8_percent_encode(&name_of(&place), percent_encoding::CONTROLS)))
        }
        _ => Cow::Borrowed(address),
    }
}

/// The name that stands for an id: it begins with a letter, and has letters, digits and underscores.
fn name_of(id: &str) -> String {
    let mut name: String = id.chars().map(|c| if c.is_alphanumeric() || c == '_' { c } else { '_' }).take(LONGEST).collect();
    if !name.starts_with(|c: char| c.is_alphabetic() || c == '_') {
        name.insert(0, 'b');
        name = name.chars().take(LONGEST).collect();
    }
    name
}

#[cfg(test)]
mod tests {
    use super::*;

    #[test]
    fn names_are_short_plain_and_unique() {
        assert_eq!(name_of("high-water.2"), "high_water_2");
        assert_eq!(name_of("1904"), "b1904");
        assert_eq!(name_of("潮汐"), "潮汐");
        let mut taken = UniqueNames::default();
        let long = "a".repeat(60);
        let names = [long.as_str(), &long, "b", "B", "b_2"].map(|id| taken.unique(&name_of(id), LONGEST, "_"));
        assert_eq!(names, [&long[..40], &format!("{}_2", &long[..38]), "b", "B_2", "b_2_2"]);
    }
}
