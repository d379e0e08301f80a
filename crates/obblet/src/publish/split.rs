//! A long document as several pages: one for each heading of a level.

use crate::document::{Document, Kind, NodeId, Step};
use crate::fast_hash::{HashMap, HashSet};

use crate::slug;
use percent_encoding::percent_decode_str;

/// A part of a document.
#[derive(Debug)]
pub(super) struct PagePart {
    /// The words of its heading; empty for the beginning of the document.
    pub(super) title: String,
    /// Its name, for the name of its page.
    pub(super) name: String,
    /// The level of its heading.
    level: u8,
    blocks: Vec<NodeId>,
}

/// A document that is taken apart.
#[derive(Debug)]
pub(super) struct PageParts {
    pub(super) parts: Vec<PagePart>,
    /// For each note that nothing mentions: they go with the last part.
    pub(super) unmentioned: Vec<crate::document::NoteId>,
}

/// Names of parts are no longer than this, in bytes.
const LONGEST_NAME: usize = 60;

/// Takes a document apart before each heading of `level` or a higher one, but not before the first block. Every heading gets
/// the id that it would have in the whole, and links within the document lead to the page that their place is on, by the
/// address that `address` has for it. `None` where there is only one part.
pub(super) fn take_apart(doc: &mut Document, level: u8, address: impl Fn(usize, &[PagePart]) -> String) -> Option<PageParts> {
    let blocks: Vec<NodeId> = doc.children(doc.root()).collect();
    let mut parts = vec![PagePart { title: String::new(), name: String::new(), level: 1, blocks: Vec::new() }];
    let mut names = HashMap::default();
    for (index, &block) in blocks.iter().enumerate() {
        if let Kind::Heading(own) = doc.kind(block)
            && own <= level
            && index > 0
            && parts.last().is_some_and(|part| !part.blocks.is_empty())
        {
            let title = doc.heading_line(block);
            let mut name = slug::unique(&doc.plain_text(block), &mut names);
            while name.len() > LONGEST_NAME {
                name.pop();
            }
            parts.push(PagePart { title, name, level: own, blocks: Vec::new() });
        }
        if let Some(part) = parts.last_mut() {
            part.blocks.push(block);
        }
    }
    if parts.len() < 2 {
        return None;
    }
    distinguish(&mut parts);
    let places = name_places(doc);
    let owner = owners(doc, &parts);
    let mentioned: HashSet<_> = doc
        .nodes()
        .filter_map(|(_, node)| match node.kind() {
            Kind::NoteReference(note) if node.parent().is_some() => Some(note),
            _ => None,
        })
        .collect();
    let unmentioned = (0..doc.notes.len() as u32).map(crate::document::NoteId).filter(|note| !mentioned.contains(note)).collect();
    for (link, part) in &owner {
        let Kind::Link { href } = doc.kind(*link) else { continue };
        let Some(name) = doc.text(href).strip_prefix('#').map(|name| percent_decode_str(name).decode_utf8_lossy().into_owned())
        else {
            continue;
        };
        let Some(target) = places.get(&name).and_then(|node| owner.get(node)).filter(|target| *target != part) else { continue };
        let href = doc.intern(&format!("{}#{name}", address(*target, &parts)));
        doc.set_kind(*link, Kind::Link { href });
    }
    for part in &parts {
        // The heading of a page is of the first level.
        for &block in &part.blocks {
            if let Kind::Heading(own) = doc.kind(block) {
                doc.set_kind(block, Kind::Heading(own.saturating_sub(part.level - 1).max(1)));
            }
        }
    }
    for block in blocks {
        doc.detach(block);
    }
    Some(PageParts { parts, unmentioned })
}

/// Puts the blocks of a part into the document, whose tree is empty.
pub(super) fn show(doc: &mut Document, part: &PagePart) {
    for &block in &part.blocks {
        let root = doc.root();
        doc.move_into(root, block);
    }
    // Nothing within the blocks was touched, and each of them stood here before.
    doc.mark_repaired();
}

/// Takes the blocks of a part out again.
pub(super) fn hide(doc: &mut Document, part: &PagePart) {
    for &block in &part.blocks {
        doc.detach(block);
    }
}

/// Cut names may be alike.
fn distinguish(parts: &mut [PagePart]) {
    let mut taken = HashSet::default();
    for part in parts {
        let name = part.name.clone();
        let mut number = 1;
        while !taken.insert(part.name.clone()) {
            number += 1;
            part.name = format!("{name}-{number}");
        }
    }
}

/// Gives each heading that has no id the one that it would have in the whole; tells which node has which.
fn name_places(doc: &mut Document) -> HashMap<String, NodeId> {
    let mut places = HashMap::default();
    let mut headings = Vec::new();
    for top in doc.roots() {
        for step in doc.walk(top) {
            let Step::Enter(id) = step else { continue };
            if let Some(name) = doc.attributes(id).id {
                places.entry(doc.text(name).to_owned()).or_insert(id);
            }
            if matches!(doc.kind(id), Kind::Heading(_)) {
                headings.push(id);
            }
        }
    }
    let mut slugs = HashMap::default();
    for heading in headings {
        let name = slug::unique(&doc.heading_text(heading), &mut slugs);
        if doc.attributes(heading).id.is_none() && !places.contains_key(&name) {
            let text = doc.intern(&name);
            doc.attributes_mut(heading).id = Some(text);
            places.insert(name, heading);
        }
    }
    places
}

/// The part that each link and each named place is in. Notes are where they are mentioned first.
fn owners(doc: &Document, parts: &[PagePart]) -> HashMap<NodeId, usize> {
    let mut owner = HashMap::default();
    let mut notes: HashMap<NodeId, usize> = HashMap::default();
    let mut visit = |top: NodeId, part: usize, owner: &mut HashMap<NodeId, usize>| {
        for step in doc.walk(top) {
            let Step::Enter(id) = step else { continue };
            match doc.kind(id) {
                Kind::Link { .. } => {
                    owner.insert(id, part);
                }
                Kind::NoteReference(note) => {
                    if let Some(note) = doc.notes.get(note.0 as usize) {
                        notes.entry(note.body).or_insert(part);
                    }
                }
                _ => {}
            }
            if doc.attributes(id).id.is_some() {
                owner.insert(id, part);
            }
        }
    };
    for (index, part) in parts.iter().enumerate() {
        for &block in &part.blocks {
            visit(block, index, &mut owner);
        }
    }
    let mut bodies: Vec<(NodeId, usize)> = notes.into_iter().collect();
    bodies.sort_unstable();
    for (body, part) in bodies {
        for step in doc.walk(body) {
            if let Step::Enter(id) = step {
                owner.insert(id, part);
            }
        }
    }
    owner
}
