//! Places that links lead to. Readers of Markdown name headings by their words, and nothing else.

use crate::document::{Document, Kind, NodeId, Step};
use crate::fast_hash::{HashMap, HashSet};
use crate::slug;
use percent_encoding::percent_decode_str;

/// For each id that is one of a heading, or of something in a heading, the name that the heading will have.
pub(super) fn slugs(doc: &Document) -> HashMap<String, String> {
    let mut slugs = HashMap::default();
    let has_local = doc.nodes().any(|(_, node)| matches!(node.kind(), Kind::Link { href } if doc.text(href).starts_with('#')));
    if !has_local {
        return slugs;
    }
    let mut taken = HashMap::default();
    for step in doc.walk(doc.root()) {
        let Step::Enter(heading) = step else { continue };
        if !matches!(doc.kind(heading), Kind::Heading(_)) {
            continue;
        }
        let name = slug::unique(&doc.plain_text(heading), &mut taken);
        slugs.entry(name.clone()).or_insert_with(|| name.clone());
        for id in ids_of(doc, heading) {
            slugs.insert(id, name.clone());
        }
    }
    slugs
}

/// The nodes that links lead to and that no heading stands for, with their ids.
pub(super) fn without_heading(doc: &Document, slugs: &HashMap<String, String>) -> Vec<(NodeId, String)> {
    if !doc.may_have_ids() {
        return Vec::new();
    }
    let mut wanted: HashSet<String> = doc
        .nodes()
        .filter_map(|(_, node)| if let Kind::Link { href } = node.kind() { doc.text(href).strip_prefix('#') } else { None })
        .map(|name| percent_decode_str(name).decode_utf8_lossy().into_owned())
        .filter(|name| !name.is_empty() && !slugs.contains_key(name))
        .collect();
    let mut found = Vec::new();
    let roots = std::iter::once(doc.root()).chain(doc.notes.iter().map(|note| note.body));
    for step in roots.flat_map(|top| doc.walk(top)) {
        if let Step::Enter(id) = step
            && doc.node(id).has_attributes()
            && let Some(name) = doc.attributes(id).id.map(|name| doc.text(name))
            && wanted.remove(name)
        {
            found.push((id, name.to_owned()));
        }
    }
    found
}

/// Puts places without content where links lead to, which can be written as HTML; no other node has an id then.
pub(super) fn set_places(doc: &mut Document, wanted: Vec<(NodeId, String)>) {
    let named: Vec<NodeId> = doc.nodes().filter(|(_, node)| node.has_attributes()).map(|(id, _)| id).collect();
    for id in named {
        if doc.attributes(id).id.is_some() {
            doc.attributes_mut(id).id = None;
        }
    }
    for (id, name) in wanted {
        let name = doc.intern(&name);
        if doc.kind(id) == Kind::Figure && doc.node(id).first_child() != doc.node(id).last_child() {
            // It is written as HTML with all that it has.
            doc.attributes_mut(id).id = Some(name);
            continue;
        }
        let place = doc.create(Kind::Anchor);
        doc.attributes_mut(place).id = Some(name);
        put(doc, place, id);
    }
}

/// Puts a place before the text of a node: not into a link, and for a block into the text that it begins with.
fn put(doc: &mut Document, place: NodeId, id: NodeId) {
    if doc.kind(id).is_inline() {
        let links = std::iter::once(id).chain(doc.ancestors(id)).take_while(|&above| doc.kind(above).is_inline());
        let link = links.filter(|&above| matches!(doc.kind(above), Kind::Link { .. })).last();
        return doc.move_before(link.unwrap_or(id), place);
    }
    let mut at = id;
    loop {
        let kind = doc.kind(at);
        let first = doc.node(at).first_child();
        match (kind, first) {
            (Kind::Paragraph | Kind::Heading(_) | Kind::Caption | Kind::Term | Kind::Summary, Some(first)) => {
                return doc.move_before(first, place);
            }
            (_, Some(first)) if doc.kind(first).is_inline() && !kind.is_leaf() => return doc.move_before(first, place),
            (Kind::Cell(_), None) => return doc.move_into(at, place),
            // A place before a table, a list or code is a paragraph of its own.
            (Kind::Table | Kind::List(_) | Kind::TermList | Kind::Preformatted, _) | (_, None) => break,
            (_, Some(first)) => at = first,
        }
    }
    let paragraph = doc.create(Kind::Paragraph);
    doc.move_into(paragraph, place);
    doc.move_before(at, paragraph);
}

/// The ids of a heading, of what is in it, and of what it is the beginning of.
fn ids_of(doc: &Document, heading: NodeId) -> Vec<String> {
    let within = doc.walk(heading).filter_map(|step| if let Step::Enter(id) = step { Some(id) } else { None });
    let mut ids: Vec<NodeId> = within.collect();
    let mut at = heading;
    while doc.node(at).previous().is_none_or(|before| doc.kind(before) == Kind::Anchor) {
        ids.extend(doc.node(at).previous());
        match doc.node(at).parent().filter(|&above| matches!(doc.kind(above), Kind::Division(_))) {
            Some(above) => {
                ids.push(above);
                at = above;
            }
            None => break,
        }
    }
    let named = |&id: &NodeId| doc.attributes(id).id.map(|name| doc.text(name).to_owned());
    ids.iter().filter_map(named).collect()
}
