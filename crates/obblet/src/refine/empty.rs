//! What holds nothing: paragraphs that are there for the space they take, and elements that were emptied or never filled.

use crate::document::white_space::shows_nothing;
use crate::document::{Document, Finding, Kind, KindSet, NodeId, Step};

/// Takes out paragraphs, headings and divisions that hold nothing but white space and line breaks, and line breaks at the ends
/// of paragraphs; where `split`, two line breaks in a row end a paragraph.
pub fn drop_spacers(doc: &mut Document, split: bool) {
    let mut count = 0;
    let mut first = None;
    let breaks = doc.may_hold(KindSet::LINE_BREAKS);
    if split && breaks {
        wrap_broken_text(doc);
    }
    for root in doc.roots() {
        let blocks: Vec<NodeId> = doc
            .walk(root)
            .filter_map(|step| match step {
                Step::Leave(id) if matches!(doc.kind(id), Kind::Paragraph | Kind::Heading(_)) => Some(id),
                _ => None,
            })
            .collect();
        for block in blocks {
            if breaks {
                trim_breaks(doc, block);
            }
            let holds_nothing = doc.node(block).first_child().is_some() && all_white(doc, block);
            if holds_nothing && doc.attributes(block).id.is_none() {
                count += 1;
                first.get_or_insert(block);
                doc.detach(block);
            } else if split && breaks && doc.kind(block) == Kind::Paragraph {
                split_at_breaks(doc, block);
            }
        }
    }
    if let Some(first) = first {
        let place = doc.place(first);
        doc.push_finding(
            Finding::advice("clean.spacer", format!("empty paragraphs were left out: {count}"))
                .at(place)
                .hint("space between paragraphs is for the stylesheet"),
        );
    }
}

/// Text that stands directly in cells, items and their like becomes paragraphs where two line breaks in a row part it.
fn wrap_broken_text(doc: &mut Document) {
    let holds_text = |kind| {
        matches!(
            kind,
            Kind::Cell(_) | Kind::ListItem { .. } | Kind::TermDescription | Kind::BlockQuote | Kind::Division(_) | Kind::Note
        )
    };
    let is_parted = |doc: &Document, id: NodeId| {
        let (mut breaks, mut text) = (0, false);
        doc.children(id).any(|child| {
            match doc.kind(child) {
                Kind::LineBreak => breaks += 1,
                kind if !kind.is_inline() => (breaks, text) = (0, false),
                _ if doc.is_white(child, shows_nothing) => {}
                _ if text && breaks > 1 => return true,
                _ => (breaks, text) = (0, true),
            }
            false
        })
    };
    // What holds a line break that another follows; most documents have none.
    let mut parted: Vec<NodeId> = doc
        .nodes()
        .filter(|(_, node)| node.kind() == Kind::LineBreak && node.next().is_some())
        .filter_map(|(_, node)| node.parent().filter(|&parent| holds_text(doc.kind(parent))))
        .collect();
    parted.sort_unstable();
    parted.dedup();
    for id in parted {
        if !is_parted(doc, id) {
            continue;
        }
        doc.wrap_inline_runs(id);
    }
}

/// Whether there is nothing to see below a node. Formatting around nothing is nothing.
fn all_white(doc: &Document, block: NodeId) -> bool {
    doc.walk(block).all(|step| match step {
        Step::Enter(id) if id == block => true,
        Step::Enter(id) if doc.kind(id).is_leaf() => doc.is_white(id, shows_nothing) || doc.kind(id) == Kind::LineBreak,
        Step::Enter(id) => {
            doc.kind(id).is_inline() && doc.attributes(id).id.is_none() && !matches!(doc.kind(id), Kind::Link { .. })
        }
        Step::Leave(_) => true,
    })
}

/// Line breaks before the first and behind the last words of a block end nothing.
fn trim_breaks(doc: &mut Document, block: NodeId) {
    let goes = |doc: &Document, id: NodeId| doc.kind(id) == Kind::LineBreak || doc.is_white(id, shows_nothing);
    while let Some(first) = doc.node(block).first_child().filter(|&first| goes(doc, first)) {
        let breaks = doc.children(block).take_while(|&child| goes(doc, child)).any(|child| doc.kind(child) == Kind::LineBreak);
        if !breaks || doc.node(first).next().is_none() {
            break;
        }
        doc.detach(first);
    }
    // The last words may be within formatting.
    let mut holder = block;
    loop {
        let mut at = doc.node(holder).last_child();
        while let Some(last) = at.filter(|&last| doc.is_white(last, shows_nothing)) {
            at = doc.node(last).previous();
        }
        let Some(last) = at else { return };
        let kind = doc.kind(last);
        if kind.is_inline() && !kind.is_leaf() {
            holder = last;
            continue;
        }
        if kind != Kind::LineBreak || doc.node(last).previous().is_none() {
            return;
        }
        while let Some(behind) = doc.node(last).next() {
            doc.detach(behind);
        }
        doc.detach(last);
    }
}

fn split_at_breaks(doc: &mut Document, block: NodeId) {
    let mut runs = Vec::new();
    let mut at = doc.node(block).first_child();
    while let Some(first) = at {
        at = doc.node(first).next();
        if doc.kind(first) != Kind::LineBreak {
            continue;
        }
        let (mut last, mut breaks) = (first, 1);
        while let Some(next) =
            doc.node(last).next().filter(|&next| doc.kind(next) == Kind::LineBreak || doc.is_white(next, shows_nothing))
        {
            breaks += usize::from(doc.kind(next) == Kind::LineBreak);
            last = next;
        }
        at = doc.node(last).next();
        if breaks > 1 && at.is_some() && doc.node(first).previous().is_some() {
            runs.push((first, last));
        }
    }
    // From the last one back, so that nothing moves twice.
    for (first, last) in runs.into_iter().rev() {
        if let Some(rest) = doc.split_after(last)
            && doc.node(rest).has_attributes()
        {
            doc.attributes_mut(rest).id = None;
        }
        let mut gone = Some(first);
        while let Some(node) = gone {
            gone = doc.node(node).next();
            doc.detach(node);
        }
        if let Some(end) = doc.node(block).last_child() {
            trim_end(doc, end);
        }
    }
}

fn trim_end(doc: &mut Document, id: NodeId) {
    if let Kind::Text(mut text) = doc.kind(id) {
        text.end = text.start + doc.text(text).trim_end().len() as u32;
        doc.set_kind(id, Kind::Text(text));
    }
}

/// Takes out pictures that are there for the space they take, or to count readers: one point wide or high, and wordless.
pub fn drop_spacer_pictures(doc: &mut Document) {
    if !doc.may_hold(KindSet::PICTURES) {
        return;
    }
    let small = |doc: &Document, id: NodeId| {
        let size = |wanted: &str| {
            let found = doc.attributes(id).other.iter().find(|(name, _)| doc.text(*name) == wanted);
            found.and_then(|&(_, value)| doc.text(value).parse::<u32>().ok())
        };
        size("width").is_some_and(|width| width <= 1) || size("height").is_some_and(|height| height <= 1)
    };
    let found: Vec<NodeId> = doc
        .nodes()
        .filter(|(id, node)| {
            matches!(node.kind(), Kind::Image { alt, .. } if doc.text(alt).trim().is_empty())
                && node.parent().is_some()
                && small(doc, *id)
        })
        .map(|(id, _)| id)
        .collect();
    let Some(&first) = found.first() else { return };
    let place = doc.place(first);
    doc.push_finding(
        Finding::changed("clean.spacer-picture", format!("single-pixel images were left out: {}", found.len())).at(place),
    );
    let parents = found.iter().filter_map(|&id| doc.node(id).parent()).collect();
    found.into_iter().for_each(|id| doc.detach(id));
    doc.join_texts_in(parents);
}

/// Takes out everything that holds nothing, and what then holds nothing. Cells keep their place, and what links lead to stays.
pub fn drop_empty(doc: &mut Document) {
    let is_candidate = |kind: Kind, filled: bool| match kind {
        Kind::Text(text) => text.is_empty(),
        kind => !filled && !kind.is_leaf() && !matches!(kind, Kind::Cell(_) | Kind::Anchor),
    };
    if !doc.nodes().any(|(_, node)| node.parent().is_some() && is_candidate(node.kind(), node.first_child().is_some())) {
        return;
    }
    let space = doc.intern(" ");
    for root in doc.roots() {
        let order: Vec<NodeId> =
            doc.walk(root).filter_map(|step| if let Step::Leave(id) = step { Some(id) } else { None }).collect();
        for id in order {
            let kind = doc.kind(id);
            if id == root || kind.is_leaf() || doc.node(id).first_child().is_some() {
                if matches!(kind, Kind::Text(text) if text.is_empty()) {
                    doc.detach(id);
                }
                continue;
            }
            let stays = matches!(kind, Kind::Cell(_) | Kind::Anchor | Kind::Root | Kind::Note | Kind::Summary);
            // It ended a line: what stands around it is not one word.
            let parts_words = !stays && !kind.is_inline() && stands_between_words(doc, id);
            if parts_words {
                let text = doc.create(Kind::Text(space));
                doc.move_before(id, text);
            }
            if !stays && doc.attributes(id).id.is_none() {
                doc.detach(id);
            } else if !stays && !matches!(kind, Kind::Row | Kind::RowGroup(_)) {
                doc.set_kind(id, Kind::Anchor);
            }
        }
    }
}

/// Whether text or its like stands on both sides of a block, also outside of the formatting that it stands in.
fn stands_between_words(doc: &Document, id: NodeId) -> bool {
    let beside = |next: fn(&crate::document::Node) -> Option<NodeId>| {
        let mut at = id;
        loop {
            if let Some(found) = next(doc.node(at)) {
                return doc.kind(found).is_inline() && doc.kind(found) != Kind::LineBreak;
            }
            match doc.node(at).parent().filter(|&parent| doc.kind(parent).is_inline()) {
                Some(parent) => at = parent,
                None => return false,
            }
        }
    };
    beside(crate::document::Node::previous) && beside(crate::document::Node::next)
}
