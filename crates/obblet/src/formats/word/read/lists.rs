//! Items of numbered and bulleted lists. In the source they are paragraphs with a number; here they stand in lists, each list
//! in the item that it belongs to.

use super::super::model::numbering::{Level, NumberFormat, Numbered};
use super::Reader;
use super::open::{Flow, OpenList};
use crate::document::{Kind, ListKind, ListNumbering, Marker, NodeId};

impl OpenList {
    /// Whether a numbered paragraph is the next item.
    fn goes_on(&self, numbered: &Numbered, ordered: bool, marker: Marker) -> bool {
        self.ordered == ordered && self.marker == marker && (!ordered || self.next == numbered.value)
    }

    /// Whether a paragraph of another definition looks like its next item: some programs give every list its own.
    fn is_like(&self, numbered: &Numbered, ordered: bool, marker: Marker) -> bool {
        self.level == numbered.level && self.goes_on(numbered, ordered, marker)
    }
}

impl Reader<'_, '_> {
    /// Makes the item of a numbered paragraph.
    pub(super) fn item(&mut self, numbered: &Numbered, indent: Option<i32>) -> NodeId {
        let level = self.numberings.level(numbered.instance, numbered.level);
        let ordered = level.is_none_or(|level| !matches!(level.format, NumberFormat::Bullet | NumberFormat::None));
        let marker = level.map_or(Marker::Plain, Level::marker);
        let indent = indent.or(level.and_then(|level| level.paragraph.indent_start)).unwrap_or(0);
        self.end_runs_of_blocks();
        self.context_mut().flow.remove(Flow::HEADING);
        self.resume_lists(numbered, ordered);
        let context = self.contexts.last_mut().unwrap_or(&mut self.outside);
        // Levels of one definition are levels of one list. A list of another stands in the item that it is set in further than.
        let of_same =
            context.lists.iter().rposition(|list| list.definition == numbered.definition && list.level <= numbered.level);
        // A list of another definition between may be the one that it is in.
        let of_same = of_same.filter(|place| {
            let between = context.lists.get(place + 1..).unwrap_or_default();
            !between.iter().any(|list| list.level < numbered.level && indent - list.indent > TOLERANCE)
        });
        match of_same {
            Some(place) => context.lists.truncate(place + 1),
            None => {
                let deeper = |list: &OpenList| {
                    let step = indent - list.indent;
                    step > TOLERANCE
                        || (step >= -TOLERANCE && numbered.level > list.level && list.definition != numbered.definition)
                };
                while context.lists.last().is_some_and(|list| !deeper(list) && !list.is_like(numbered, ordered, marker)) {
                    context.lists.pop();
                }
            }
        }
        let same_level = |list: &&OpenList| {
            let same = list.definition == numbered.definition;
            (same && list.level == numbered.level) || (!same && list.is_like(numbered, ordered, marker))
        };
        let goes_on = context.lists.last().filter(same_level).map(|list| list.goes_on(numbered, ordered, marker));
        if goes_on == Some(false) {
            context.lists.pop();
        }
        if goes_on != Some(true) {
            let parent = context.lists.last().map_or(context.container, |list| list.item);
            let kind = ListKind { ordered, tight: true, marker, start: if ordered { numbered.value } else { 1 } };
            let node = self.doc.append_at(parent, Kind::List(kind), self.offset);
            let list = OpenList {
                node,
                item: node,
                definition: numbered.definition,
                level: numbered.level,
                ordered,
                marker,
                next: numbered.value,
                indent,
            };
            self.context_mut().lists.push(list);
            let level = self.numberings.level(numbered.instance, numbered.level).cloned().unwrap_or_default();
            if ordered {
                let numbering =
                    ListNumbering { definition: numbered.definition as u32, level: numbered.level, text: level.text.clone() };
                self.doc.numberings.set(node, numbering);
            }
            if self.options.fidelity.keeps_names() {
                let around = self.context().lists.iter().rev().nth(1).map_or(0, |list| list.indent);
                self.style_list(node, &level, numbered, if indent == 0 { 720 } else { indent - around });
            } else if ordered && !level.is_plain(numbered.level) {
                self.diagnostics.odd_numbers(self.offset, &level.text);
            }
        }
        let offset = self.offset;
        let context = self.contexts.last_mut().unwrap_or(&mut self.outside);
        let Some(list) = context.lists.last_mut() else { return context.container };
        let item = self.doc.append_at(list.node, Kind::ListItem { checked: None }, offset);
        list.item = item;
        list.next = numbered.value.saturating_add(1);
        list.indent = indent;
        item
    }

    /// A block comes that is no item: lists end, unless the block is set in as far as their text and they go on behind it.
    pub(super) fn suspend_lists(&mut self, indent: Option<i32>, continued: bool) {
        let context = self.contexts.last_mut().unwrap_or(&mut self.outside);
        if !context.lists.is_empty() {
            context.suspended = std::mem::take(&mut context.lists);
        }
        let Some(list) = context.suspended.last() else { return };
        let belongs = continued || indent.is_some_and(|indent| indent > 0 && indent + TOLERANCE >= list.indent);
        context.flow.set(Flow::ENDS_LISTS, !belongs);
        if context.flow.take(Flow::HEADING) && !belongs {
            context.suspended.clear();
        }
    }

    /// The paragraph that lists were interrupted by has ended. One that went, for there was nothing in it, interrupts nothing.
    pub(super) fn close_lists(&mut self, stays: bool) {
        let context = self.contexts.last_mut().unwrap_or(&mut self.outside);
        if context.flow.take(Flow::ENDS_LISTS) {
            let suspended = std::mem::take(&mut context.suspended);
            if !stays && context.lists.is_empty() {
                context.lists = suspended;
            }
        }
    }

    /// A list that was interrupted goes on: what came between belongs to its last item.
    fn resume_lists(&mut self, numbered: &Numbered, ordered: bool) {
        let context = self.contexts.last_mut().unwrap_or(&mut self.outside);
        let suspended = std::mem::take(&mut context.suspended);
        let same = suspended.iter().any(|list| {
            list.definition == numbered.definition
                && list.level == numbered.level
                && list.ordered == ordered
                && (!ordered || list.next == numbered.value)
        });
        if !same || !context.lists.is_empty() {
            return;
        }
        let Some(list) = suspended.last().copied() else { return };
        let Some(outermost) = suspended.first().map(|list| list.node) else { return };
        let mut at = self.doc.node(outermost).next();
        context.lists = suspended;
        while let Some(block) = at {
            at = self.doc.node(block).next();
            self.doc.move_into(list.item, block);
        }
    }
}

/// Twips that indents may differ by.
pub(super) const TOLERANCE: i32 = 60;
