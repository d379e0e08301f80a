//! Items of numbered and bulleted lists. In the source they are paragraphs with a number; here they stand in lists, each list
//! in the item that it belongs to.

use super::super::model::numbering::{Level, NumberFormat, Numbered};
use super::Reader;
use crate::document::{Document, Kind, ListKind, ListNumbering, Marker, NodeId};

/// Twips that indents may differ by.
const TOLERANCE: i32 = 60;

bitflags::bitflags! {
    /// How paragraphs go on with lists.
    #[derive(Clone, Copy, Debug, Default, PartialEq, Eq, Hash)]
    struct Flow: u8 {
        /// The last item may be a heading: what comes behind it is no part of it.
        const HEADING = 1 << 0;
        /// The lists that are suspended end with the open paragraph, if it stays.
        const ENDS_LISTS = 1 << 1;
    }
}

impl Flow {
    /// Whether a flag was set; it is not any more.
    fn take(&mut self, flag: Self) -> bool {
        let was_set = self.contains(flag);
        self.remove(flag);
        was_set
    }
}

/// A list that may go on.
#[derive(Clone, Copy, Debug)]
struct OpenList {
    node: NodeId,
    item: NodeId,
    definition: usize,
    level: u8,
    ordered: bool,
    marker: Marker,
    next: i32,
    /// How far the text of its items is set in, in twips.
    indent: i32,
}

impl OpenList {
    /// Whether a numbered paragraph is the next item.
    fn goes_on(&self, item: &Item<'_>) -> bool {
        self.ordered == item.ordered && self.marker == item.marker && (!item.ordered || self.next == item.numbered.value)
    }

    /// Whether a paragraph of another definition looks like its next item: some programs give every list its own.
    fn is_like(&self, item: &Item<'_>) -> bool {
        self.level == item.numbered.level && self.goes_on(item)
    }

    /// Whether a paragraph is an item of a list in an item of this one.
    fn holds(&self, item: &Item<'_>) -> bool {
        let step = item.indent - self.indent;
        let is_deeper = item.numbered.level > self.level && self.definition != item.numbered.definition;
        step > TOLERANCE || (step >= -TOLERANCE && is_deeper)
    }
}

/// A numbered paragraph that becomes an item.
#[derive(Clone, Copy, Debug)]
struct Item<'n> {
    numbered: &'n Numbered,
    ordered: bool,
    marker: Marker,
    indent: i32,
}

/// The lists of what holds blocks, outermost first.
#[derive(Debug, Default)]
pub(super) struct Lists {
    open: Vec<OpenList>,
    /// Those that a paragraph interrupted.
    suspended: Vec<OpenList>,
    flow: Flow,
}

impl Lists {
    /// Makes the node of an item in the list that goes on with it or in a new one, which is given as well.
    fn add(&mut self, doc: &mut Document, container: NodeId, item: &Item<'_>, place: u32) -> (NodeId, Option<NodeId>) {
        self.flow.remove(Flow::HEADING);
        self.resume(doc, item);
        self.leave(item);
        let Item { numbered, ordered, marker, indent } = *item;
        let same_level = |list: &&OpenList| {
            let same = list.definition == numbered.definition;
            (same && list.level == numbered.level) || (!same && list.is_like(item))
        };
        let goes_on = self.open.last().filter(same_level).map(|list| list.goes_on(item));
        if goes_on == Some(false) {
            self.open.pop();
        }
        let mut begun = None;
        if goes_on != Some(true) {
            let parent = self.open.last().map_or(container, |list| list.item);
            let kind = ListKind { ordered, tight: true, marker, start: if ordered { numbered.value } else { 1 } };
            let node = doc.append_at(parent, Kind::List(kind), place);
            let (definition, level, next) = (numbered.definition, numbered.level, numbered.value);
            self.open.push(OpenList { node, item: node, definition, level, ordered, marker, next, indent });
            begun = Some(node);
        }
        let Some(list) = self.open.last_mut() else { return (container, None) };
        list.item = doc.append_at(list.node, Kind::ListItem { checked: None }, place);
        list.next = numbered.value.saturating_add(1);
        list.indent = indent;
        (list.item, begun)
    }

    /// Ends the lists that an item is not in.
    fn leave(&mut self, item: &Item<'_>) {
        let numbered = item.numbered;
        // Levels of one definition are levels of one list. A list of another stands in the item that it is set in further than.
        let of_same = self.open.iter().rposition(|list| list.definition == numbered.definition && list.level <= numbered.level);
        // A list of another definition between may be the one that it is in.
        let of_same = of_same.filter(|place| {
            let between = self.open.get(place + 1..).unwrap_or_default();
            !between.iter().any(|list| list.level < numbered.level && item.indent - list.indent > TOLERANCE)
        });
        match of_same {
            Some(place) => self.open.truncate(place + 1),
            None => {
                while self.open.last().is_some_and(|list| !list.holds(item) && !list.is_like(item)) {
                    self.open.pop();
                }
            }
        }
    }

    /// How far the item is set in that holds the list that was opened last.
    fn indent_around(&self) -> i32 {
        self.open.iter().rev().nth(1).map_or(0, |list| list.indent)
    }

    /// A block comes that is no item: lists end, unless the block is set in as far as their text and they go on behind it.
    pub(super) fn suspend(&mut self, indent: Option<i32>, continued: bool) {
        if !self.open.is_empty() {
            self.suspended = std::mem::take(&mut self.open);
        }
        let Some(list) = self.suspended.last() else { return };
        let belongs = continued || indent.is_some_and(|indent| indent > 0 && indent + TOLERANCE >= list.indent);
        self.flow.set(Flow::ENDS_LISTS, !belongs);
        if self.flow.take(Flow::HEADING) && !belongs {
            self.suspended.clear();
        }
    }

    /// The paragraph that lists were interrupted by has ended. One that went, for there was nothing in it, interrupts nothing.
    pub(super) fn close(&mut self, stays: bool) {
        if self.flow.take(Flow::ENDS_LISTS) {
            let suspended = std::mem::take(&mut self.suspended);
            if !stays && self.open.is_empty() {
                self.open = suspended;
            }
        }
    }

    /// A list that was interrupted goes on: what came between belongs to its last item.
    fn resume(&mut self, doc: &mut Document, item: &Item<'_>) {
        let suspended = std::mem::take(&mut self.suspended);
        let numbered = item.numbered;
        let same = suspended.iter().any(|list| {
            list.definition == numbered.definition
                && list.level == numbered.level
                && list.ordered == item.ordered
                && (!item.ordered || list.next == numbered.value)
        });
        if !same || !self.open.is_empty() {
            return;
        }
        let Some(list) = suspended.last().copied() else { return };
        let Some(outermost) = suspended.first().map(|list| list.node) else { return };
        let mut at = doc.node(outermost).next();
        self.open = suspended;
        while let Some(block) = at {
            at = doc.node(block).next();
            doc.move_into(list.item, block);
        }
    }

    /// Lists that were interrupted do not go on: something new begins.
    pub(super) fn forget(&mut self) {
        self.suspended.clear();
    }

    /// The last item may be a heading.
    pub(super) fn may_be_heading(&mut self) {
        self.flow.insert(Flow::HEADING);
    }

    /// The item that a paragraph goes on with which is set in so far: that of the innermost list that is not set in further.
    pub(super) fn item_at(&self, indent: Option<i32>) -> Option<NodeId> {
        let indent = indent.unwrap_or(i32::MAX);
        let within = self.suspended.iter().rev().find(|list| list.indent <= indent.saturating_add(TOLERANCE));
        within.or(self.suspended.last()).map(|list| list.item)
    }
}

impl Reader<'_, '_> {
    /// Makes the item of a numbered paragraph.
    pub(super) fn item(&mut self, numbered: &Numbered, indent: Option<i32>) -> NodeId {
        let level = self.model.numberings.level(numbered.instance, numbered.level);
        let ordered = level.is_none_or(|level| !matches!(level.format, NumberFormat::Bullet | NumberFormat::None));
        let marker = level.map_or(Marker::Plain, Level::marker);
        let indent = indent.or(level.and_then(|level| level.paragraph.indent_start)).unwrap_or(0);
        self.end_runs_of_blocks();
        let context = self.contexts.last_mut().unwrap_or(&mut self.outside);
        let item = Item { numbered, ordered, marker, indent };
        let (item, begun) = context.lists.add(&mut self.doc, context.container, &item, self.place.paragraph);
        let around = context.lists.indent_around();
        let Some(list) = begun else { return item };
        let level = self.model.numberings.level(numbered.instance, numbered.level).cloned().unwrap_or_default();
        if ordered {
            let text = level.text.clone();
            let numbering = ListNumbering { definition: numbered.definition as u32, level: numbered.level, text };
            self.doc.numberings.set(list, numbering);
        }
        if self.options.fidelity.keeps_names() {
            self.style_list(list, &level, numbered, if indent == 0 { 720 } else { indent - around });
        } else if ordered && !level.is_plain(numbered.level) {
            self.diagnostics.odd_numbers(self.place.paragraph, &level.text);
        }
        item
    }
}
