//! Building and changing the tree. Every method takes constant time, or time that grows with the children it moves.

use super::{Document, Kind, KindSet, Node, NodeId, Note, NoteId, SourceMap, Step, Text, Walk};

impl Document {
    /// The root, which is there in every document.
    #[must_use]
    pub const fn root(&self) -> NodeId {
        NodeId::ROOT
    }

    /// The root and the roots of the notes: walking from each of them meets every node of the document.
    #[must_use]
    pub fn roots(&self) -> Vec<NodeId> {
        std::iter::once(self.root()).chain(self.notes.iter().map(|note| note.body)).collect()
    }

    /// Enters and leaves every node of the body, and then of each note: [`Document::walk`] over all of [`Document::roots`].
    pub fn walk_all(&self) -> impl Iterator<Item = Step> + '_ {
        std::iter::once(self.root()).chain(self.notes.iter().map(|note| note.body)).flat_map(|root| self.walk(root))
    }

    /// Adds a note with a label of its own, whose body is empty; [`Kind::NoteReference`] mentions it.
    pub fn add_note(&mut self, label: impl Into<String>) -> NoteId {
        let body = self.create(Kind::Note);
        self.notes.push(Note { label: label.into(), body });
        NoteId(self.notes.len() as u32 - 1)
    }

    /// How many nodes were ever made, removed ones included.
    #[must_use]
    pub fn node_count(&self) -> usize {
        self.nodes.len()
    }

    /// A node. Names come from this document's own methods and never dangle.
    #[must_use]
    pub fn node(&self, id: NodeId) -> &Node {
        &self.nodes[id.index()]
    }

    pub(super) fn node_mut(&mut self, id: NodeId) -> &mut Node {
        (self.edits.count, self.edits.is_repaired) = (self.edits.count + 1, false);
        &mut self.nodes[id.index()]
    }

    /// What a node is.
    #[must_use]
    pub fn kind(&self, id: NodeId) -> Kind {
        self.node(id).kind
    }

    /// Makes a node another kind; its children stay.
    pub fn set_kind(&mut self, id: NodeId, kind: Kind) {
        self.edits.kinds = self.edits.kinds.and(KindSet::of(&kind));
        // Another picture, other words: they may stand where the ones before them stood.
        let alike = matches!(
            (self.kind(id), kind),
            (Kind::Image { .. }, Kind::Image { .. }) | (Kind::Link { .. }, Kind::Link { .. }) | (Kind::Text(_), Kind::Text(_))
        );
        let is_repaired = self.edits.is_repaired && alike;
        self.node_mut(id).kind = kind;
        self.edits.is_repaired = is_repaired;
    }

    /// Says where in the source a node begins, in the units of [`Document::source`].
    pub fn set_offset(&mut self, id: NodeId, offset: u32) {
        self.nodes[id.index()].offset = offset;
    }

    /// Says where in the source a node ends, in the units of [`Document::source`].
    pub fn set_end(&mut self, id: NodeId, end: u32) {
        self.nodes[id.index()].end = end;
    }

    /// The nodes in the order in which they were made. Removed ones are among them.
    pub fn nodes(&self) -> impl Iterator<Item = (NodeId, &Node)> {
        self.nodes.iter().enumerate().map(|(index, node)| (NodeId::new(index), node))
    }

    /// Makes a node that stands nowhere yet.
    pub fn create(&mut self, kind: Kind) -> NodeId {
        let id = NodeId::new(self.nodes.len());
        self.edits.kinds = self.edits.kinds.and(KindSet::of(&kind));
        self.nodes.push(Node::new(kind));
        id
    }

    /// Makes a node as the last child of `parent`.
    #[inline]
    pub fn append(&mut self, parent: NodeId, kind: Kind) -> NodeId {
        self.append_at(parent, kind, SourceMap::UNKNOWN)
    }

    /// Makes a node as the last child of `parent`, and says where in the source it begins.
    pub fn append_at(&mut self, parent: NodeId, kind: Kind, offset: u32) -> NodeId {
        let id = NodeId::new(self.nodes.len());
        self.edits.kinds = self.edits.kinds.and(KindSet::of(&kind));
        let above = self.node_mut(parent);
        let previous = above.last.replace(id);
        match previous {
            Some(previous) => self.node_mut(previous).next = Some(id),
            None => above.first = Some(id),
        }
        self.nodes.push(Node { parent: Some(parent), previous, offset, ..Node::new(kind) });
        id
    }

    /// Appends a text node.
    pub fn append_text(&mut self, parent: NodeId, text: &str) -> NodeId {
        let text = self.intern(text);
        self.append(parent, Kind::Text(text))
    }

    /// Appends a link whose text is `text`.
    pub fn append_link(&mut self, parent: NodeId, href: &str, text: &str) -> NodeId {
        let href = self.intern(href);
        let link = self.append(parent, Kind::Link { href });
        self.append_text(link, text);
        link
    }

    /// Appends an image.
    pub fn append_image(&mut self, parent: NodeId, src: &str, alt: &str) -> NodeId {
        let (src, alt) = (self.intern(src), self.intern(alt));
        self.append(parent, Kind::Image { src, alt })
    }

    /// Takes a node out of the tree, with everything below it.
    pub fn detach(&mut self, id: NodeId) {
        let Node { parent, previous, next, .. } = *self.node(id);
        match previous {
            Some(previous) => self.node_mut(previous).next = next,
            None => {
                if let Some(parent) = parent {
                    self.node_mut(parent).first = next;
                }
            }
        }
        match next {
            Some(next) => self.node_mut(next).previous = previous,
            None => {
                if let Some(parent) = parent {
                    self.node_mut(parent).last = previous;
                }
            }
        }
        let node = self.node_mut(id);
        (node.parent, node.previous, node.next) = (None, None, None);
    }

    /// Whether `id` is `place`, or above it.
    fn holds(&self, id: NodeId, place: NodeId) -> bool {
        if id == place {
            return true;
        }
        // What is made anew, has nothing below it or stands beside the place is not above it; most moves are such.
        let (node, other) = (self.node(id), self.node(place));
        if node.first.is_none() || other.parent.is_none() || node.parent == other.parent || node.parent == Some(place) {
            return false;
        }
        self.ancestors(place).any(|above| above == id)
    }

    /// Makes a node that stands elsewhere or nowhere the last child of `parent`. A node does not move into itself or below itself:
    /// it stays where it is.
    pub fn move_into(&mut self, parent: NodeId, id: NodeId) {
        if self.holds(id, parent) {
            return;
        }
        self.detach(id);
        self.attach(parent, id);
    }

    /// Makes a node that stands nowhere the last child of `parent`.
    #[inline]
    pub(crate) fn attach(&mut self, parent: NodeId, id: NodeId) {
        let last = self.node(parent).last;
        match last {
            Some(last) => self.node_mut(last).next = Some(id),
            None => self.node_mut(parent).first = Some(id),
        }
        self.node_mut(parent).last = Some(id);
        let node = self.node_mut(id);
        (node.parent, node.previous) = (Some(parent), last);
    }

    /// Moves a node in front of another; it stays where it is where that stands in it.
    pub fn move_before(&mut self, sibling: NodeId, id: NodeId) {
        if self.holds(id, sibling) {
            return;
        }
        self.detach(id);
        let Node { parent, previous, .. } = *self.node(sibling);
        match previous {
            Some(previous) => self.node_mut(previous).next = Some(id),
            None => {
                if let Some(parent) = parent {
                    self.node_mut(parent).first = Some(id);
                }
            }
        }
        self.node_mut(sibling).previous = Some(id);
        let node = self.node_mut(id);
        (node.parent, node.previous, node.next) = (parent, previous, Some(sibling));
    }

    /// Moves a node behind another; it stays where it is where that stands in it.
    pub fn move_after(&mut self, sibling: NodeId, id: NodeId) {
        match (self.node(sibling).next, self.node(sibling).parent) {
            (Some(next), _) if next == id => {}
            (Some(next), _) => self.move_before(next, id),
            (None, Some(parent)) => self.move_into(parent, id),
            (None, None) => {}
        }
    }

    /// Moves all children of `from` behind the children of `to`; they stay where they are where that is `from` or stands in it.
    pub fn move_children(&mut self, from: NodeId, to: NodeId) {
        if self.holds(from, to) {
            return;
        }
        let Node { first: Some(first), last: Some(last), .. } = *self.node(from) else {
            return;
        };
        self.set_parent_of_row(first, Some(to));
        let before = self.node(to).last;
        self.node_mut(first).previous = before;
        match before {
            Some(before) => self.node_mut(before).next = Some(first),
            None => self.node_mut(to).first = Some(first),
        }
        self.node_mut(to).last = Some(last);
        let from = self.node_mut(from);
        (from.first, from.last) = (None, None);
    }

    /// Whole rows of siblings are linked in at once: elements in elements may each hold all that stands in the innermost.
    fn set_parent_of_row(&mut self, first: NodeId, parent: Option<NodeId>) {
        let mut child = Some(first);
        while let Some(at) = child {
            let node = self.node_mut(at);
            node.parent = parent;
            child = node.next;
        }
    }

    /// Puts a new node where `id` stands and `id` into it.
    pub fn wrap(&mut self, id: NodeId, kind: Kind) -> NodeId {
        let wrapper = self.create(kind);
        self.node_mut(wrapper).offset = self.node(id).offset;
        self.move_before(id, wrapper);
        self.move_into(wrapper, id);
        wrapper
    }

    /// Puts the children of a node in its place.
    pub fn unwrap(&mut self, id: NodeId) {
        let Node { parent, previous, next, first, last, .. } = *self.node(id);
        let (Some(first), Some(last)) = (first, last) else {
            self.detach(id);
            return;
        };
        self.set_parent_of_row(first, parent);
        self.node_mut(first).previous = previous;
        self.node_mut(last).next = next;
        match (previous, parent) {
            (Some(previous), _) => self.node_mut(previous).next = Some(first),
            (None, Some(parent)) => self.node_mut(parent).first = Some(first),
            (None, None) => {}
        }
        match (next, parent) {
            (Some(next), _) => self.node_mut(next).previous = Some(last),
            (None, Some(parent)) => self.node_mut(parent).last = Some(last),
            (None, None) => {}
        }
        let node = self.node_mut(id);
        (node.parent, node.previous, node.next, node.first, node.last) = (None, None, None, None, None);
    }

    /// Splits a node behind `child`: what follows goes into a new node of the same kind and attributes, which stands right
    /// behind. Returns the new node.
    pub fn split_after(&mut self, child: NodeId) -> Option<NodeId> {
        let parent = self.node(child).parent?;
        let rest = self.create(self.kind(parent));
        self.copy_attributes(parent, rest);
        self.node_mut(rest).offset = self.node(parent).offset;
        // Neither of the two is all of its source.
        self.node_mut(parent).end = SourceMap::UNKNOWN;
        self.move_after(parent, rest);
        while let Some(next) = self.node(child).next {
            self.detach(next);
            self.attach(rest, next);
        }
        Some(rest)
    }

    /// The children of a node.
    pub fn children(&self, id: NodeId) -> impl Iterator<Item = NodeId> {
        std::iter::successors(self.node(id).first, |&child| self.node(child).next)
    }

    /// The nodes above a node, nearest first.
    pub fn ancestors(&self, id: NodeId) -> impl Iterator<Item = NodeId> {
        std::iter::successors(self.node(id).parent, |&above| self.node(above).parent)
    }

    /// Walks the tree below and including a node.
    #[must_use]
    pub fn walk(&self, id: NodeId) -> Walk<'_> {
        Walk::new(self, id)
    }

    /// Joins texts that stand side by side among the children of a node.
    pub fn join_texts(&mut self, parent: NodeId) {
        let mut at = self.node(parent).first_child();
        while let Some(node) = at {
            let next = self.node(node).next();
            if let (Some(next), Kind::Text(first)) = (next, self.kind(node))
                && let Kind::Text(second) = self.kind(next)
            {
                let joined = self.join(first, second);
                self.set_kind(node, Kind::Text(joined));
                self.detach(next);
                at = Some(node);
            } else {
                at = next;
            }
        }
    }

    /// Joins texts that stand side by side among the children of each of some nodes.
    pub fn join_texts_in(&mut self, mut parents: Vec<NodeId>) {
        parents.sort_unstable();
        parents.dedup();
        for parent in parents {
            self.join_texts(parent);
        }
    }

    /// Wraps each run of inline children of a node in a paragraph.
    pub fn wrap_inline_runs(&mut self, id: NodeId) {
        self.wrap_inline_runs_from(id, |_, _| true);
    }

    /// Wraps each run of inline children of a node in a paragraph, from the first child on that `begins` one.
    pub(crate) fn wrap_inline_runs_from(&mut self, id: NodeId, begins: impl Fn(&Self, NodeId) -> bool) {
        let mut run = None;
        let mut at = self.node(id).first_child();
        while let Some(child) = at {
            at = self.node(child).next();
            match run {
                _ if !self.kind(child).is_inline() => run = None,
                Some(run) => self.move_into(run, child),
                None if begins(self, child) => run = Some(self.wrap(child, Kind::Paragraph)),
                None => {}
            }
        }
    }

    /// Adds `text` to the end of `parent`, into its last child where that is text.
    pub fn append_joined(&mut self, parent: NodeId, text: Text, offset: u32) {
        if text.is_empty() {
            return;
        }
        if let Some(last) = self.node(parent).last
            && let Kind::Text(before) = self.kind(last)
        {
            let joined = self.join(before, text);
            self.set_kind(last, Kind::Text(joined));
        } else {
            self.append_at(parent, Kind::Text(text), offset);
        }
    }
}

#[cfg(test)]
mod tests {
    use super::*;
    use crate::document::Step;
    use proptest::prelude::*;

    /// Every link agrees with its counterpart, and a walk meets each reachable node once.
    fn check(doc: &Document) {
        let mut entered = 0;
        let mut reachable = 1;
        for step in doc.walk(doc.root()) {
            let Step::Enter(id) = step else { continue };
            entered += 1;
            let mut before = None;
            for child in doc.children(id) {
                reachable += 1;
                assert_eq!(doc.node(child).parent(), Some(id));
                assert_eq!(doc.node(child).previous(), before);
                before = Some(child);
            }
            assert_eq!(doc.node(id).last_child(), before);
        }
        assert_eq!(entered, reachable);
    }

    #[test]
    fn nothing_moves_into_itself() {
        let mut doc = Document::new();
        let outer = doc.append(doc.root(), Kind::BlockQuote);
        let inner = doc.append(outer, Kind::BlockQuote);
        let text = doc.append_text(inner, "high");
        let before = doc.dump();
        doc.move_into(outer, outer);
        doc.move_into(inner, outer);
        doc.move_into(text, outer);
        doc.move_before(text, outer);
        doc.move_after(text, outer);
        doc.move_children(outer, inner);
        doc.move_children(outer, outer);
        assert_eq!(doc.dump(), before);
        check(&doc);
    }

    proptest! {
        #[test]
        fn links_stay_consistent(moves in prop::collection::vec((0u8..8, 0usize..64, 0usize..64), 0..200)) {
            let mut doc = Document::new();
            let mut nodes = vec![doc.root()];
            for (action, a, b) in moves {
                let (a, b) = (nodes[a % nodes.len()], nodes[b % nodes.len()]);
                let inside = |doc: &Document, low, high| low == high || doc.ancestors(low).any(|x| x == high);
                let root = doc.root();
                match action {
                    0..=2 => nodes.push(doc.append(a, Kind::Paragraph)),
                    3 if b != root && !inside(&doc, a, b) => doc.move_into(a, b),
                    4 if b != root && a != root && !inside(&doc, a, b) => doc.move_before(a, b),
                    5 if b != root && a != root && !inside(&doc, a, b) => doc.move_after(a, b),
                    6 if a != root => nodes.push(doc.wrap(a, Kind::BlockQuote)),
                    7 if a != root && doc.node(a).parent().is_some() => {
                        if b == a {
                            doc.unwrap(a);
                        } else {
                            nodes.extend(doc.split_after(a).filter(|_| doc.node(a).parent() != Some(root)));
                        }
                    }
                    _ => {}
                }
                check(&doc);
            }
        }
    }
}
