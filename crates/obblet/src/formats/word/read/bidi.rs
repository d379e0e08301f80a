//! Directions of paragraphs, said where HTML wants them: once, on what holds all that runs in one direction.

use super::Reader;
use crate::document::{Direction, Document, Kind, NodeId, Step};

impl Reader<'_, '_> {
    /// In the source each paragraph has its own direction, and one that says nothing runs from left to right.
    pub(super) fn resolve_directions(&mut self) {
        if self.languages.right_to_left == 0 && !self.languages.tables_run_left {
            return;
        }
        if self.languages.right_to_left * 2 > self.place.of_body && self.languages.right_to_left > 0 {
            self.doc.metadata.direction = Some(Direction::RightToLeft);
        }
        let roots: Vec<NodeId> = self.doc.roots();
        for top in roots {
            say_what_differs(&mut self.doc, top);
            let order: Vec<NodeId> =
                self.doc.walk(top).filter_map(|step| if let Step::Leave(id) = step { Some(id) } else { None }).collect();
            for id in order {
                if matches!(self.doc.kind(id), Kind::ListItem { .. } | Kind::List(_) | Kind::Cell(_) | Kind::BlockQuote) {
                    take_over(&mut self.doc, id);
                }
            }
        }
    }
}

/// Within what runs from right to left, paragraphs of the other direction say so.
fn say_what_differs(doc: &mut Document, top: NodeId) {
    let is_page = doc.metadata.direction == Some(Direction::RightToLeft);
    let mut around = vec![if is_page { Direction::RightToLeft } else { Direction::LeftToRight }];
    let mut differing = Vec::new();
    for step in doc.walk(top) {
        match step {
            Step::Enter(id) if doc.kind(id) == Kind::Table => {
                around.push(doc.attributes(id).direction.unwrap_or(Direction::LeftToRight));
                // A table is laid out in its own direction, whatever the page around it is.
                if is_page && doc.attributes(id).direction.is_none() {
                    differing.push(id);
                }
            }
            Step::Leave(id) if doc.kind(id) == Kind::Table => drop(around.pop()),
            Step::Enter(id) if holds_text(doc, id) => {
                let says = doc.attributes(id).direction.is_some() || doc.node(id).first_child().is_none();
                if !says && around.last() == Some(&Direction::RightToLeft) {
                    differing.push(id);
                }
            }
            _ => {}
        }
    }
    for id in differing {
        doc.attributes_mut(id).direction = Some(Direction::LeftToRight);
    }
}

fn holds_text(doc: &Document, id: NodeId) -> bool {
    match doc.kind(id) {
        Kind::Paragraph | Kind::Heading(_) | Kind::Caption => true,
        Kind::Cell(_) => doc.node(id).first_child().is_some_and(|first| doc.kind(first).is_inline()),
        _ => false,
    }
}

/// A node says the direction that all of its blocks have, and they say it no more.
fn take_over(doc: &mut Document, id: NodeId) {
    let children: Vec<NodeId> = doc.children(id).filter(|&child| !doc.kind(child).is_inline()).collect();
    let Some(direction) = children.first().and_then(|&first| doc.attributes(first).direction) else { return };
    let is_other = |&child: &NodeId| doc.attributes(child).direction != Some(direction);
    if children.iter().any(is_other) || doc.attributes(id).direction.is_some_and(|own| own != direction) {
        return;
    }
    for &child in &children {
        doc.attributes_mut(child).direction = None;
    }
    // The table around a cell says it for all of them.
    let table = matches!(doc.kind(id), Kind::Cell(_)).then(|| doc.ancestors(id).find(|&above| doc.kind(above) == Kind::Table));
    let table = table.flatten();
    if table.is_none_or(|table| doc.attributes(table).direction != Some(direction)) {
        doc.attributes_mut(id).direction = Some(direction);
    }
    // A paragraph that is all of a cell says nothing.
    if let ([only], Kind::Cell(_)) = (&children[..], doc.kind(id))
        && doc.kind(*only) == Kind::Paragraph
        && doc.attributes(*only).is_empty()
        && doc.node(id).first_child() == doc.node(id).last_child()
    {
        doc.unwrap(*only);
    }
}
