//! Copies of what is in another document.

use super::{Attributes, Document, Kind, NodeId, NoteId, Step, Text};
use crate::fast_hash::HashMap;

impl Document {
    /// Appends a copy of a node of another document, with all that is below it, its formulas and its notes. Files and what only
    /// some formats have are not copied. All of it is said to be at `offset` of the source.
    pub fn append_copy(&mut self, parent: NodeId, other: &Self, node: NodeId, offset: u32) -> NodeId {
        let mut copy = Copy { doc: self, other, offset, notes: HashMap::default(), open: Vec::new() };
        let top = copy.tree(Some(parent), node);
        while let Some((from, to)) = copy.open.pop() {
            for child in other.children(from) {
                copy.tree(Some(to), child);
            }
        }
        top
    }
}

struct Copy<'d> {
    doc: &'d mut Document,
    other: &'d Document,
    offset: u32,
    notes: HashMap<NoteId, NoteId>,
    /// Bodies of notes that are to be copied, and what they are copied into.
    open: Vec<(NodeId, NodeId)>,
}

impl Copy<'_> {
    fn tree(&mut self, parent: Option<NodeId>, node: NodeId) -> NodeId {
        let other = self.other;
        let mut parents: Vec<NodeId> = parent.into_iter().collect();
        let mut top = node;
        for step in other.walk(node) {
            match step {
                Step::Enter(id) => {
                    let kind = self.kind(other.kind(id));
                    let parent = parents.last().copied().unwrap_or(self.doc.root());
                    let copied = self.doc.append_at(parent, kind, self.offset);
                    self.doc.set_end(copied, self.offset);
                    if other.node(id).has_attributes() {
                        *self.doc.attributes_mut(copied) = self.attributes(other.attributes(id));
                    }
                    if kind == Kind::Table {
                        self.doc.set_columns(copied, other.columns(id).to_vec());
                    }
                    if id == node {
                        top = copied;
                    }
                    parents.push(copied);
                }
                Step::Leave(_) => {
                    parents.pop();
                }
            }
        }
        top
    }

    fn text(&mut self, text: Text) -> Text {
        self.doc.intern(self.other.text(text))
    }

    fn attributes(&mut self, attributes: &Attributes) -> Attributes {
        Attributes {
            id: attributes.id.map(|id| self.text(id)),
            classes: attributes.classes.iter().map(|class| self.text(*class)).collect(),
            language: attributes.language.map(|language| self.text(language)),
            direction: attributes.direction,
            title: attributes.title.map(|title| self.text(title)),
            other: attributes.other.iter().map(|(name, value)| (self.text(*name), self.text(*value))).collect(),
        }
    }

    fn kind(&mut self, kind: Kind) -> Kind {
        match kind {
            Kind::CodeBlock { code, info } => Kind::CodeBlock { code: self.text(code), info: self.text(info) },
            Kind::RawBlock { markup, raw } => Kind::RawBlock { markup, raw: self.text(raw) },
            Kind::Raw { markup, raw } => Kind::Raw { markup, raw: self.text(raw) },
            Kind::Text(text) => Kind::Text(self.text(text)),
            Kind::Code(text) => Kind::Code(self.text(text)),
            Kind::Link { href } => Kind::Link { href: self.text(href) },
            Kind::Image { src, alt } => Kind::Image { src: self.text(src), alt: self.text(alt) },
            Kind::Math(formula) => {
                let mut formula = self.other.formula(formula);
                formula.source = self.text(formula.source);
                formula.characters = self.text(formula.characters);
                formula.number = self.text(formula.number);
                Kind::Math(self.doc.add_formula(formula))
            }
            Kind::NoteReference(note) => Kind::NoteReference(self.note(note)),
            Kind::Root => Kind::Division(super::DivisionKind::Plain),
            other => other,
        }
    }

    fn note(&mut self, note: NoteId) -> NoteId {
        if let Some(known) = self.notes.get(&note) {
            return *known;
        }
        let original = &self.other.notes[note.0 as usize];
        let is_taken = |label: &str| self.doc.notes.iter().any(|note| note.label == label);
        let mut label = original.label.clone();
        while is_taken(&label) {
            label.push('\'');
        }
        let copied = self.doc.add_note(label);
        self.notes.insert(note, copied);
        self.open.push((original.body, self.doc.notes[copied.0 as usize].body));
        copied
    }
}
