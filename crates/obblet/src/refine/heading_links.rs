//! Links of headings to themselves, and the signs beside headings that lead to them.

use crate::document::{Document, Finding, Kind, KindSet, NodeId, Step};
use percent_encoding::percent_decode_str;

/// What programs put beside a heading to lead to it.
const SIGNS: [&str; 9] = ["", "#", "\u{B6}", "\u{A7}", "\u{1F517}", "\u{1F517}\u{FE0E}", "\u{2693}", "\u{221E}", "\u{F0C1}"];

/// Takes out signs that lead to the heading, the term or the caption that they stand in, and opens links of headings to
/// themselves. An id that a link has goes to what it stood in.
pub fn open(doc: &mut Document) {
    if !doc.may_hold(KindSet::LINKS) {
        return;
    }
    let (signs, links) = found(doc);
    let Some(&(first, _)) = signs.iter().chain(&links).min_by_key(|(link, _)| doc.place(*link)) else { return };
    let message = format!("links of headings to themselves: {}", signs.len() + links.len());
    doc.push_finding(Finding::changed("clean.heading-link", message).at(doc.place(first)));
    let mut holders = Vec::new();
    for &(link, heading) in &signs {
        while let Some(child) = doc.node(link).first_child() {
            doc.detach(child);
        }
        keep_id(doc, link, heading);
        if doc.kind(link) == Kind::Anchor {
            continue;
        }
        doc.detach(link);
        trim(doc, heading);
        holders.push(heading);
    }
    for &(link, heading) in &links {
        keep_id(doc, link, heading);
        if doc.attributes(link).id.is_some() {
            doc.set_kind(link, Kind::Span);
            continue;
        }
        holders.extend(doc.node(link).parent());
        doc.unwrap(link);
    }
    doc.join_texts_in(holders);
}

/// A link and the heading that it stands in.
type Found = (NodeId, NodeId);

/// Signs, and links around all of a heading.
fn found(doc: &Document) -> (Vec<Found>, Vec<Found>) {
    let (mut signs, mut links) = (Vec::new(), Vec::new());
    for root in doc.roots() {
        let mut holder = None;
        for step in doc.walk(root) {
            match step {
                Step::Enter(id) if matches!(doc.kind(id), Kind::Heading(_) | Kind::Term | Kind::Caption) => {
                    holder = Some((id, None));
                }
                Step::Leave(id) if holder.as_ref().is_some_and(|&(holder, _)| holder == id) => holder = None,
                Step::Enter(id) => {
                    let Some((heading, words)) = &mut holder else { continue };
                    let Kind::Link { href } = doc.kind(id) else { continue };
                    let Some(name) = doc.text(href).strip_prefix('#') else { continue };
                    let text = doc.plain_text(id);
                    let text = text.trim();
                    // All words of the heading are only made where a link needs them.
                    let is_whole = |words: &mut Option<String>| {
                        words.get_or_insert_with(|| doc.plain_text(*heading).trim().to_owned()) == text
                    };
                    if SIGNS.contains(&text) && !holds_picture(doc, id) {
                        // A heading that is nothing but a sign is a heading all the same, and a sign may lead elsewhere.
                        if !is_whole(words) && (name.is_empty() || is_in(doc, *heading, name)) {
                            signs.push((id, *heading));
                        }
                    } else if matches!(doc.kind(*heading), Kind::Heading(_)) && is_whole(words) && is_in(doc, *heading, name) {
                        links.push((id, *heading));
                    }
                }
                Step::Leave(_) => {}
            }
        }
    }
    (signs, links)
}

fn holds_picture(doc: &Document, link: NodeId) -> bool {
    doc.walk(link).any(|step| matches!(step, Step::Enter(id) if doc.kind(id).is_leaf() && !matches!(doc.kind(id), Kind::Text(_) | Kind::SoftBreak | Kind::Anchor)))
}

/// Whether a heading, something in it, or what stands right around or before it has a name.
fn is_in(doc: &Document, heading: NodeId, name: &str) -> bool {
    let name = percent_decode_str(name).decode_utf8_lossy();
    let has = |id: NodeId| doc.node(id).has_attributes() && doc.attributes(id).id.is_some_and(|id| doc.text(id) == name);
    // Without an id it is called by its words, those of the sign left out.
    let made = || {
        let words = doc.plain_text(heading);
        let is_sign = |c: char| c.is_whitespace() || SIGNS.iter().any(|sign| sign.starts_with(c));
        crate::slug::of(words.trim_matches(is_sign)) == name
    };
    doc.walk(heading).take(MOST_STEPS).any(|step| matches!(step, Step::Enter(id) if has(id)))
        || doc.node(heading).previous().is_some_and(has)
        || doc.node(heading).parent().is_some_and(|around| {
            (doc.kind(heading) == Kind::Caption || doc.node(around).first_child() == Some(heading)) && has(around)
        })
        || made()
}

/// The id of a heading is looked for among so many steps.
const MOST_STEPS: usize = 256;

/// Gives the id of a link to what it stands in; where that has one, the link becomes a place.
fn keep_id(doc: &mut Document, link: NodeId, heading: NodeId) {
    let Some(id) = doc.node(link).has_attributes().then(|| doc.attributes(link).id).flatten() else { return };
    if doc.attributes(heading).id.is_none() {
        doc.attributes_mut(heading).id = Some(id);
        doc.attributes_mut(link).id = None;
    } else if doc.node(link).first_child().is_none() {
        doc.set_kind(link, Kind::Anchor);
    }
}

/// Takes white space off both ends of a heading.
fn trim(doc: &mut Document, heading: NodeId) {
    for at_end in [false, true] {
        loop {
            let outermost = if at_end { doc.node(heading).last_child() } else { doc.node(heading).first_child() };
            let Some(outermost) = outermost else { return };
            let Kind::Text(text) = doc.kind(outermost) else {
                if doc.kind(outermost) == Kind::SoftBreak {
                    doc.detach(outermost);
                    continue;
                }
                break;
            };
            let whole = doc.text(text);
            let trimmed = if at_end { whole.trim_end() } else { whole.trim_start() }.to_owned();
            if trimmed.is_empty() {
                doc.detach(outermost);
                continue;
            }
            if trimmed.len() < whole.len() {
                let text = doc.intern(&trimmed);
                doc.set_kind(outermost, Kind::Text(text));
            }
            break;
        }
    }
}
