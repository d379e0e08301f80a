//! Places that links lead to. Readers of Markdown name headings by their words, and nothing else.

use crate::document::{Document, Kind, NodeId, Step};
use crate::map::HashMap;
use crate::slug;

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
