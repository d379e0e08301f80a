//! Lists beside each other that are parts of one: their levels are only noted, in classes or attributes.

use crate::document::{Document, Kind, ListKind, NodeId, Step};

/// A list that says how deep it stands.
#[derive(Clone, Copy, Debug)]
struct Part {
    list: NodeId,
    level: u8,
    name: Option<u32>,
    /// How many items it has, with those that joined it.
    items: usize,
}

/// Puts deeper lists into the items before them, and joins lists that go on.
pub(super) fn nest(doc: &mut Document) {
    if doc.layout_hints.iter().all(|(_, trace)| trace.level == 0) {
        return;
    }
    for root in doc.roots() {
        let parents: Vec<NodeId> = doc
            .walk(root)
            .filter_map(|step| match step {
                Step::Enter(id)
                    if part(doc, id).is_some() && doc.node(id).previous().is_none_or(|before| part(doc, before).is_none()) =>
                {
                    Some(id)
                }
                _ => None,
            })
            .collect();
        for first in parents {
            nest_from(doc, first);
        }
    }
}

fn part(doc: &Document, list: NodeId) -> Option<Part> {
    if !matches!(doc.kind(list), Kind::List(_)) {
        return None;
    }
    let own = doc.layout_hints.of(list);
    let level =
        if own.level > 0 { own.level } else { doc.node(list).first_child().map_or(0, |item| doc.layout_hints.of(item).level) };
    (level > 0).then_some(Part { list, level, name: own.list, items: 0 })
}

fn nest_from(doc: &mut Document, first: NodeId) {
    let mut open: Vec<Part> = Vec::new();
    let mut at = Some(first);
    while let Some(list) = at {
        at = doc.node(list).next();
        let Some(mut part) = part(doc, list) else { return };
        part.items = doc.children(list).count();
        while open.len() > 1 && open.last().is_some_and(|last| last.level > part.level) {
            open.pop();
        }
        let Some(&last) = open.last() else {
            open.push(part);
            continue;
        };
        if part.level > last.level {
            match doc.node(last.list).last_child() {
                Some(item) => doc.move_into(item, list),
                None => doc.move_into(last.list, list),
            }
            open.push(part);
        } else if part.level == last.level && goes_on(doc, last, part) {
            doc.move_children(list, last.list);
            doc.detach(list);
            if let Some(last) = open.last_mut() {
                last.items += part.items;
            }
        } else {
            open.pop();
            match open.last().and_then(|above| doc.node(above.list).last_child()) {
                Some(item) => doc.move_into(item, list),
                None => open.clear(),
            }
            open.push(part);
        }
    }
}

/// Whether a list is the next part of another.
fn goes_on(doc: &Document, last: Part, next: Part) -> bool {
    let (Kind::List(before), Kind::List(after)) = (doc.kind(last.list), doc.kind(next.list)) else { return false };
    let count = i32::try_from(last.items).unwrap_or(i32::MAX);
    let same = ListKind { start: 0, tight: true, ..before } == ListKind { start: 0, tight: true, ..after };
    same && last.name == next.name && (!before.ordered || after.start == before.start.saturating_add(count))
}
