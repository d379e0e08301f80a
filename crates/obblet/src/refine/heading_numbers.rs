//! Numbers that headings have as text: in formats that number headings themselves they would stand there twice.

use crate::document::{Document, HintRole, Kind, NodeId, Step};
use crate::heading_count::OWN_NUMBER;

/// Takes numbers out of headings, where all of them are what counting makes, and notes in the metadata how many levels are numbered.
/// Headings among these levels that have none get the class `unnumbered`.
pub(crate) fn take_out(doc: &mut Document) {
    if doc.metadata.presentation.numbered_levels.is_some() {
        return;
    }
    let Some(found) = find(doc) else { return };
    for (heading, length) in &found.numbers {
        let first = doc.node(*heading).first_child();
        if let Some((first, Kind::Text(mut text))) = first.map(|first| (first, doc.kind(first))) {
            text.start += *length as u32;
            doc.set_kind(first, Kind::Text(text));
        }
    }
    let class = doc.intern("unnumbered");
    for heading in found.others {
        if doc.is_of_class(heading, "unnumbered") {
            continue;
        }
        doc.attributes_mut(heading).classes.push(class);
    }
    if let Some(title) = found.title {
        doc.layout_hints.at(title).part = HintRole::Title { lowered: 1 };
    }
    doc.metadata.presentation.numbered_levels = Some(found.levels);
}

struct Found {
    /// Headings with numbers, and how long these are in their first text.
    numbers: Vec<(NodeId, usize)>,
    /// Headings without, among the levels that have some.
    others: Vec<NodeId>,
    levels: u8,
    /// The heading above all of them that is the title.
    title: Option<NodeId>,
}

fn find(doc: &Document) -> Option<Found> {
    let mut headings: Vec<(NodeId, u8)> = doc
        .walk(doc.root())
        .filter_map(|step| match step {
            Step::Enter(id) => match doc.kind(id) {
                Kind::Heading(level) => Some((id, level)),
                _ => None,
            },
            Step::Leave(_) => None,
        })
        .collect();
    // The title is above all others.
    let is_title = headings.first().is_some_and(|&(id, level)| level == 1 && number_of(doc, id).is_none());
    let is_title = is_title && headings.iter().skip(1).all(|(_, level)| *level > 1);
    let title = is_title.then(|| headings.remove(0).0);
    // Parts and appendices, and numbers of another way of counting, are none of the others.
    let is_other = |id: NodeId| ["part", "appendix", OWN_NUMBER].iter().any(|class| doc.is_of_class(id, class));
    headings.retain(|&(id, _)| !is_other(id));
    let highest = headings.iter().map(|(_, level)| *level).min()?;
    let mut counts = [0_u32; 6];
    let mut found = Found { numbers: Vec::new(), others: Vec::new(), levels: 0, title };
    let mut plain = Vec::new();
    for (id, level) in headings {
        let at = usize::from(level - highest);
        let expected = {
            let mut next = counts;
            next[at] += 1;
            next[at + 1..].fill(0);
            next
        };
        let number = expected[..=at].iter().map(u32::to_string).collect::<Vec<_>>().join(".");
        match number_of(doc, id) {
            Some((shown, length)) if shown == number => {
                counts = expected;
                found.levels = found.levels.max(level - highest + 1);
                found.numbers.push((id, length));
            }
            // Another one than counting makes: the numbers are the author's.
            Some(_) => return None,
            None => plain.push((id, level)),
        }
    }
    found.others = plain.into_iter().filter(|(_, level)| level - highest < found.levels).map(|(id, _)| id).collect();
    // One heading that begins with a one may be anything.
    (found.numbers.len() > 1 && found.numbers.len() > found.others.len()).then_some(found)
}

/// The number that a heading begins with, and its length with what parts it from the words.
fn number_of(doc: &Document, heading: NodeId) -> Option<(&str, usize)> {
    let Kind::Text(text) = doc.kind(doc.node(heading).first_child()?) else { return None };
    let text = doc.text(text);
    let number = &text[..text.find(|c: char| !c.is_ascii_digit() && c != '.').unwrap_or(text.len())];
    let rest = &text[number.len()..];
    let words = rest.trim_start_matches([' ', '\u{A0}', '\t', '\n']);
    let shown = number.trim_end_matches('.');
    let is_number = !shown.is_empty() && rest.len() > words.len() && !shown.starts_with('.');
    is_number.then_some((shown, text.len() - words.len()))
}
