//! Places that nothing leads to: marks that programs set for their indexes and contents lists, and ids.

use crate::document::{Document, Kind, KindSet, NodeId, Producer, Step};
use crate::fast_hash::HashSet;
use crate::links::ExternalLinks;
use percent_encoding::percent_decode_str;

/// How the names of places begin that programs make up.
const MADE_UP: [&str; 14] = [
    "_Toc",
    "_Ref",
    "_Hlk",
    "_Hlt",
    "_GoBack",
    "_MailOriginal",
    "_msocom",
    "OLE_LINK",
    "docs-internal-guid",
    "__RefHeading",
    "__DdeLink",
    "_bookmark",
    "kix.",
    "yui_",
];

/// Whether a program made up a name.
pub(super) fn is_made_up(name: &str) -> bool {
    MADE_UP.iter().any(|made| name.starts_with(made))
}

/// Takes out places and ids that no link of the document and of others leads to: all of them where that is asked for or a program wrote the
/// document, else those whose names are made up by one.
pub fn drop_unused(doc: &mut Document, all: bool, external: &dyn ExternalLinks) {
    let all = all || doc.layout_hints.producer == Producer::Program;
    // The id of a node, where it may go.
    let loose = |id: NodeId| {
        let attributes = doc.node(id).has_attributes().then(|| doc.attributes(id))?;
        let name = doc.text(attributes.id?);
        (all || is_made_up(name)).then_some(name)
    };
    if !doc.may_have_ids() || doc.nodes().all(|(id, _)| loose(id).is_none()) {
        return;
    }
    let used: HashSet<String> = doc
        .nodes()
        .filter_map(|(_, node)| match node.kind() {
            Kind::Link { href } if node.parent().is_some() => doc.text(href).strip_prefix('#'),
            _ => None,
        })
        .map(|name| percent_decode_str(name).decode_utf8_lossy().into_owned())
        .collect();
    let mut parents = Vec::new();
    let unused: Vec<(NodeId, String)> = doc
        .nodes()
        .filter_map(|(id, _)| loose(id).filter(|name| !used.contains(*name)).map(|name| (id, name.to_owned())))
        .collect();
    for (id, name) in unused {
        if external.lead_to(&name) {
            continue;
        }
        doc.attributes_mut(id).id = None;
        let is_place = matches!(doc.kind(id), Kind::Anchor | Kind::Span) && doc.attributes(id).is_empty();
        if let Some(parent) = doc.node(id).parent().filter(|_| is_place) {
            parents.push(parent);
            doc.unwrap(id);
        }
    }
    doc.join_texts_in(parents);
}

/// Places without content give their ids to what they stand before: the block that they begin, or the text behind them.
pub fn fold(doc: &mut Document) {
    if !doc.may_hold(KindSet::PLACES) {
        return;
    }
    let is_place = |doc: &Document, id: NodeId| {
        matches!(doc.kind(id), Kind::Anchor | Kind::Span)
            && doc.node(id).first_child().is_none()
            && doc.attributes(id).id.is_some()
    };
    for root in doc.roots() {
        let places: Vec<NodeId> = doc
            .walk(root)
            .filter_map(|step| match step {
                Step::Enter(id) if is_place(doc, id) => Some(id),
                _ => None,
            })
            .collect();
        // From the last one back, so that several in a row each find what the one behind them became.
        for &place in places.iter().rev() {
            fold_one(doc, root, place);
        }
    }
}

fn fold_one(doc: &mut Document, root: NodeId, place: NodeId) {
    let takes_id = |doc: &Document, id: NodeId| {
        doc.attributes(id).id.is_none()
            && !matches!(doc.kind(id), Kind::Root | Kind::Note | Kind::LineBreak | Kind::SoftBreak | Kind::Text(_))
    };
    let id = doc.attributes(place).id;
    let parent = doc.node(place).parent();
    let first = doc.node(place).previous().is_none();
    let next = doc.node(place).next();
    // What has nothing but places in it is no block of its own.
    let block =
        parent.filter(|&block| block != root && !doc.kind(block).is_inline() && first && next.is_some() && takes_id(doc, block));
    if let Some(block) = block {
        // The paragraph that an item begins with may be no element of its own.
        let item = doc.node(block).parent().filter(|&item| {
            doc.kind(block) == Kind::Paragraph
                && matches!(doc.kind(item), Kind::ListItem { .. })
                && doc.node(block).previous().is_none()
                && takes_id(doc, item)
        });
        doc.attributes_mut(item.unwrap_or(block)).id = id;
        return doc.detach(place);
    }
    let next = next.or_else(|| parent.filter(|&parent| parent != root && first).and_then(|parent| doc.node(parent).next()));
    match next {
        Some(next) if matches!(doc.kind(next), Kind::Text(text) if !doc.text(text).trim().is_empty()) => {
            doc.set_kind(place, Kind::Span);
            doc.move_into(place, next);
        }
        Some(next) if takes_id(doc, next) && !matches!(doc.kind(next), Kind::Anchor) => {
            doc.attributes_mut(next).id = id;
            take_out(doc, place);
        }
        _ => {
            // Alone at the end: the end of what stands before it.
            let alone = first && doc.node(place).next().is_none();
            let before = match parent.filter(|&parent| alone && parent != root) {
                Some(parent) => doc.node(parent).previous(),
                None => doc.node(place).previous(),
            };
            if let Some(before) = before.filter(|&before| takes_id(doc, before) && !matches!(doc.kind(before), Kind::Anchor)) {
                doc.attributes_mut(before).id = id;
                take_out(doc, place);
            }
        }
    }
}

/// Takes out a place that is an id now, and the paragraph that held nothing else.
fn take_out(doc: &mut Document, place: NodeId) {
    let parent = doc.node(place).parent();
    doc.detach(place);
    if let Some(parent) = parent
        && doc.kind(parent) == Kind::Paragraph
        && doc.node(parent).first_child().is_none()
        && doc.attributes(parent).is_empty()
    {
        doc.detach(parent);
    }
}
