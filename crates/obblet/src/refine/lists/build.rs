//! Putting items into lists, and lists into items.

use super::marker::Mark;
use crate::document::{Document, Kind, LayoutHint, ListKind, Marker, NodeId};

/// A paragraph that is an item.
#[derive(Clone, Debug)]
pub(super) struct Item {
    pub(super) paragraph: NodeId,
    pub(super) mark: Mark,
    /// The node that holds the marker, where it stands apart.
    pub(super) marker: Option<NodeId>,
    /// How many bytes of the first text the marker is, where it does not.
    pub(super) prefix: usize,
    pub(super) trace: LayoutHint,
    /// Whether nothing but its marker says that it is an item.
    pub(super) typed: bool,
}

/// A list that may get more items.
#[derive(Debug)]
struct Open {
    list: NodeId,
    item: NodeId,
    /// How deep it stands: the level, where the source names it, else how far it is set in.
    depth: f32,
    name: Option<u32>,
    marker: Option<Marker>,
    next: i32,
}

/// The lists that are being built, outermost first.
#[derive(Debug, Default)]
pub(super) struct Builder {
    open: Vec<Open>,
    indent: f32,
    /// Empty paragraphs behind the last item, which go on with it where more items follow.
    held: Vec<NodeId>,
}

/// Levels count far more than indentation, so that the two never mix.
const LEVEL: f32 = 10_000.0;

impl Builder {
    pub(super) fn is_open(&self) -> bool {
        !self.open.is_empty()
    }

    /// How far the last item is set in.
    pub(super) fn indent(&self) -> f32 {
        self.indent
    }

    pub(super) fn end(&mut self) {
        self.open.clear();
        self.held.clear();
    }

    pub(super) fn hold(&mut self, spacer: NodeId) {
        self.held.push(spacer);
    }

    /// Puts a block into the last item.
    pub(super) fn continue_with(&mut self, doc: &mut Document, block: NodeId) {
        let Some(item) = self.open.last().map(|open| open.item) else { return };
        for spacer in self.held.drain(..) {
            doc.move_into(item, spacer);
        }
        doc.move_into(item, block);
        // An item of several paragraphs needs space around them.
        for open in &self.open {
            if let Kind::List(list) = doc.kind(open.list) {
                doc.set_kind(open.list, Kind::List(ListKind { tight: list.tight && open.item != item, ..list }));
            }
        }
    }

    pub(super) fn add(&mut self, doc: &mut Document, item: &Item) {
        let Item { paragraph, trace, .. } = *item;
        let named = trace.level > 0;
        let depth = if named { f32::from(trace.level) * LEVEL } else { trace.indent };
        // A list that is set in by its level is not deeper or higher than one that is set in by points.
        let comparable = |open: &Open| (open.depth >= LEVEL) == named;
        while self.open.len() > 1 && self.open.last().is_some_and(|open| comparable(open) && open.depth > depth + 1.0) {
            self.open.pop();
        }
        let deeper = self.open.last().is_some_and(|open| comparable(open) && depth > open.depth + 4.0);
        let fits = self.open.last().filter(|_| !deeper).and_then(|open| open.takes(item));
        let (marker, start) = match (&item.mark, fits) {
            (_, Some(fitting)) => fitting,
            (Mark::Bullet(_), None) => (None, 1),
            (Mark::Number(values), None) => {
                let first = values.iter().find(|(_, value)| *value == 1).or_else(|| values.first());
                first.map_or((None, 1), |&(marker, value)| (Some(marker), value))
            }
        };
        let checked = if let Mark::Bullet(checked) = item.mark { checked } else { None };
        if fits.is_none() {
            if !deeper {
                // A list of another kind at the same depth stands behind the one that it follows.
                self.open.pop();
            }
            let kind = ListKind { ordered: marker.is_some(), tight: true, marker: marker.unwrap_or_default(), start };
            let list = doc.wrap(paragraph, Kind::List(kind));
            let inside = self.open.last().map(|open| open.item);
            if let Some(inside) = inside {
                doc.move_into(inside, list);
            }
            let node = doc.wrap(paragraph, Kind::ListItem { checked });
            self.open.push(Open { list, item: node, depth, name: trace.list, marker, next: start + 1 });
            self.held.clear();
        } else if let Some(open) = self.open.last_mut() {
            let node = doc.wrap(paragraph, Kind::ListItem { checked });
            for spacer in self.held.drain(..) {
                doc.move_into(open.item, spacer);
            }
            doc.move_into(open.list, node);
            open.item = node;
            open.next = start + 1;
        }
        self.indent = trace.indent;
        strip(doc, item);
    }
}

impl Open {
    /// The numbering and the number of an item, where it goes on with this list.
    fn takes(&self, item: &Item) -> Option<(Option<Marker>, i32)> {
        match (&item.mark, self.marker) {
            (Mark::Bullet(_), None) => Some((None, 1)),
            (Mark::Number(values), Some(marker)) => {
                let value = values.iter().find(|(style, _)| *style == marker).map(|(_, value)| *value)?;
                let same_list = self.name == item.trace.list || item.typed;
                // Numbers that begin anew begin a new list.
                (value == self.next || (same_list && value > self.next)).then_some((Some(marker), value))
            }
            _ => None,
        }
    }
}

/// Takes the marker out of the text of an item, and the white space behind it.
fn strip(doc: &mut Document, item: &Item) {
    if let Some(marker) = item.marker {
        remove(doc, marker, item.paragraph);
    } else if let Some(leaf) = super::first_leaf(doc, item.paragraph)
        && let Kind::Text(mut text) = doc.kind(leaf)
    {
        text.start += item.prefix as u32;
        if text.is_empty() {
            remove(doc, leaf, item.paragraph);
        } else {
            doc.set_kind(leaf, Kind::Text(text));
        }
    }
    strip_white(doc, item.paragraph);
}

/// Takes out a node, and what is empty without it.
fn remove(doc: &mut Document, node: NodeId, paragraph: NodeId) {
    let mut node = node;
    while let Some(above) = doc.node(node).parent() {
        doc.detach(node);
        if above == paragraph || doc.node(above).first_child().is_some() || doc.attributes(above).id.is_some() {
            return;
        }
        node = above;
    }
}

/// Takes out white space at the beginning of a paragraph.
fn strip_white(doc: &mut Document, paragraph: NodeId) {
    loop {
        let first = doc.walk(paragraph).find_map(|step| match step {
            crate::document::Step::Enter(id) if doc.kind(id).is_leaf() => Some(id),
            _ => None,
        });
        let Some(leaf) = first else { return };
        let Kind::Text(mut text) = doc.kind(leaf) else { return };
        let content = doc.text(text);
        text.start += (content.len() - content.trim_start().len()) as u32;
        if !text.is_empty() {
            return doc.set_kind(leaf, Kind::Text(text));
        }
        remove(doc, leaf, paragraph);
    }
}
