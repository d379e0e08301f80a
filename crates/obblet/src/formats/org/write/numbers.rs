//! Numbers of figures, tables and items: those that Org gives by itself are not written (the Org manual, "Internal Links").

use crate::document::{Counter, Document, Kind, Label, NodeId, Shows, Step};
use crate::fast_hash::HashMap;
use crate::refine::references::word_for;

/// What links without texts of their own show.
#[derive(Debug, Default)]
pub(super) struct Numbers {
    /// The labels of what has an id.
    by_id: HashMap<String, Label>,
    /// Whether the captions of figures, of tables get the numbers that they have, where links ask for one of them.
    counts: [bool; 2],
}

impl Numbers {
    pub(super) fn of(doc: &Document) -> Self {
        let mut numbers = Self::default();
        if doc.references.is_empty() || doc.labels.is_empty() {
            return numbers;
        }
        let mut counted = [true; 2];
        let mut counts = [0_u32; 2];
        for step in doc.walk(doc.root()) {
            let Step::Enter(id) = step else { continue };
            let Some(label) = doc.labels.get(id) else {
                // One without a number would get one.
                if let Some(kind) = place(doc, id) {
                    counted[kind] &= !doc.children(id).any(|child| doc.kind(child) == Kind::Caption);
                }
                continue;
            };
            if let Some(kind) = place(doc, id) {
                counts[kind] += 1;
                let word = word_for(doc.metadata.language.as_deref().unwrap_or("en"), kind == 1);
                counted[kind] &= label.name == word && label.number == counts[kind].to_string();
            }
            // The name of an item is that of a target at its beginning.
            let begins = std::iter::successors(Some(id), |&at| doc.node(at).first_child());
            let within = if label.counter == Counter::Item { 4 } else { 1 };
            let name = begins.take(within).find_map(|id| doc.attributes(id).id);
            if let Some(name) = name {
                numbers.by_id.insert(doc.text(name).to_owned(), label.clone());
            }
        }
        for (link, _) in doc.references.iter() {
            let Kind::Link { href } = doc.kind(link) else { continue };
            let label = doc.text(href).strip_prefix('#').and_then(|name| numbers.by_id.get(name));
            match label.map(|label| label.counter) {
                Some(Counter::Figure) => numbers.counts[0] = counted[0],
                Some(Counter::Table) => numbers.counts[1] = counted[1],
                _ => {}
            }
        }
        numbers
    }

    /// Whether what has a label gets it from Org.
    fn gives(&self, label: &Label) -> bool {
        match label.counter {
            Counter::Figure => self.counts[0],
            Counter::Table => self.counts[1],
            Counter::Item => true,
            Counter::Formula | Counter::Heading | Counter::Note => false,
        }
    }

    /// A link that shows a number: without a text, behind the name of what is counted, if that is shown.
    pub(super) fn shown(&self, doc: &Document, link: NodeId, target: &str) -> Option<String> {
        let reference = doc.references.get(link)?;
        let label = self.by_id.get(target).filter(|label| self.gives(label))?;
        let words = doc.plain_text(link);
        match reference.shows {
            Shows::Number if words.trim() == label.number => Some(format!("[[{target}]]")),
            Shows::Text if words.trim() == label.text() => {
                let name = if label.name.is_empty() { String::new() } else { format!("{}\u{A0}", label.name) };
                Some(format!("{name}[[{target}]]"))
            }
            _ => None,
        }
    }

    /// A caption as it is written, without the label that it gets.
    pub(super) fn without_label<'t>(&self, doc: &Document, id: NodeId, caption: &'t str) -> &'t str {
        let Some(label) = doc.labels.get(id).filter(|label| self.gives(label)) else { return caption };
        let rest = caption.strip_prefix(&*label.text()).and_then(|rest| rest.strip_prefix(':'));
        rest.map_or(caption, str::trim_start)
    }
}

/// Whether links to a node that have no text show a number.
pub(super) fn may_be_counted(doc: &Document, id: NodeId) -> bool {
    let is_item = |id: NodeId| matches!(doc.kind(id), Kind::ListItem { .. });
    match doc.kind(id) {
        Kind::Figure | Kind::Table => true,
        Kind::Anchor => doc.ancestors(id).take(3).any(is_item),
        _ => is_item(id) || doc.node(id).parent().is_some_and(|parent| doc.kind(parent) == Kind::Figure),
    }
}

/// Which of the two counters of captions counts a node, if any does.
fn place(doc: &Document, id: NodeId) -> Option<usize> {
    match doc.kind(id) {
        Kind::Figure => Some(usize::from(doc.children(id).any(|child| doc.kind(child) == Kind::Table))),
        Kind::Table => Some(1),
        _ => None,
    }
}
