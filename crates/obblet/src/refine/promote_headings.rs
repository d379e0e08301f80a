//! Headings that are only bold, large or in capitals, and paragraphs that only have the style of a heading.

use super::When;
use crate::document::{DivisionKind, Document, Finding, Kind, NodeId, Producer};
use crate::fast_hash::HashMap;

/// Makes headings of paragraphs that look like some, and paragraphs of headings that are whole ones. With [`When::Auto`],
/// headings are made where the document has none but that of its title; else those paragraphs are reported.
pub fn set(doc: &mut Document, when: When) {
    if when != When::Never {
        demote(doc);
    }
    let (candidates, alike) = candidates(doc);
    let Some(&Candidate { node, .. }) = candidates.first() else { return };
    let first: String = words(doc, node).chars().take(60).collect();
    // A single one in the middle of a letter is a name, and among many bold lines that nothing stands below, one says little.
    let is_likely = (candidates.len() > 1 || is_first(doc, node)) && candidates.len() * 2 >= alike;
    let makes =
        when == When::Always || (when == When::Auto && is_likely && (doc.layout_hints.has_promoted || !has_headings(doc)));
    if !makes {
        let message = format!("paragraphs look like headings: {}; the first is \"{first}\"", candidates.len());
        let finding = Finding::advice("clean.heading-like", message).at(doc.place(node));
        doc.push_finding(finding.hint("give them the style of a heading, or set clean.promote-headings=always"));
        return;
    }
    let message = format!("paragraphs that look like headings became some: {}; the first is \"{first}\"", candidates.len());
    doc.push_finding(Finding::changed("clean.heading-like", message).at(doc.place(node)));
    doc.layout_hints.has_promoted = true;
    for (node, level) in with_levels(doc, &candidates) {
        doc.set_kind(node, Kind::Heading(level));
        while let Some(bold) = doc
            .node(node)
            .first_child()
            .filter(|&bold| doc.kind(bold) == Kind::Strong && doc.node(bold).next().is_none() && doc.attributes(bold).is_empty())
        {
            doc.unwrap(bold);
        }
    }
}

/// A paragraph that looks like a heading.
#[derive(Clone, Copy, Debug)]
struct Candidate {
    node: NodeId,
    /// The size of its letters in points; 0 where that is not known.
    size: f32,
    /// How many numbers it begins with, as 2 of `2.1`.
    numbers: u8,
}

/// Paragraphs that look like headings and have something below them, and how many there are with those that have nothing.
fn candidates(doc: &Document) -> (Vec<Candidate>, usize) {
    let seen: HashMap<NodeId, f32> = doc.layout_hints.heading_like.iter().copied().collect();
    let found: Vec<(NodeId, f32)> = doc
        .nodes()
        .filter(|(id, node)| {
            node.kind() == Kind::Paragraph && node.parent().is_some() && (seen.contains_key(id) || is_bold(doc, *id))
        })
        .map(|(id, _)| (id, seen.get(&id).copied().filter(|size| *size >= LARGE).unwrap_or(0.0)))
        .collect();
    let is_free = |id: &NodeId| match doc.kind(*id) {
        Kind::Division(kind) => !matches!(kind, DivisionKind::Callout(_) | DivisionKind::Footer | DivisionKind::Aside),
        _ => false,
    };
    // In the tree, and in nothing but divisions.
    let stands_free = |id: NodeId| doc.ancestors(id).take(MOST_ABOVE).find(|above| !is_free(above)) == Some(doc.root());
    let kept: Vec<(NodeId, f32)> =
        found.into_iter().filter(|&(id, _)| stands_free(id) && is_like_heading(&words(doc, id))).collect();
    let sizes: HashMap<NodeId, f32> = kept.iter().copied().collect();
    let is_same = |id: NodeId, size: f32| sizes.get(&id) == Some(&size);
    // A name above a line that is no sentence is a signature, or the head of a letter.
    let is_line = |id: NodeId| {
        let text = words(doc, id);
        doc.kind(id) == Kind::Paragraph && text.chars().count() < SHORTEST_TEXT && !text.ends_with(['.', '!', '?', ':'])
    };
    let is_followed = |&(id, size): &(NodeId, f32)| {
        following(doc, id).is_some_and(|next| {
            !is_same(next, size) && !matches!(doc.kind(next), Kind::Heading(_)) && (is_first(doc, id) || !is_line(next))
        })
    };
    let followed = kept.iter().copied().filter(is_followed);
    let candidates = followed.map(|(node, size)| Candidate { node, size, numbers: numbers(&words(doc, node)) }).collect();
    (candidates, kept.len())
}

/// Letters of fewer points are as large as those of text.
const LARGE: f32 = 13.5;

/// Text below a heading has more characters, or is a sentence.
const SHORTEST_TEXT: usize = 60;

/// A heading stands in no more divisions.
const MOST_ABOVE: usize = 100;

/// Whether all text of a paragraph is bold.
pub(super) fn is_bold(doc: &Document, id: NodeId) -> bool {
    let mut at = doc.node(id).first_child();
    while let Some(node) = at.filter(|&node| doc.node(node).next().is_none()) {
        if doc.kind(node) == Kind::Strong {
            return true;
        }
        at = doc.node(node).first_child();
    }
    false
}

/// The block behind a node.
fn following(doc: &Document, id: NodeId) -> Option<NodeId> {
    std::iter::once(id).chain(doc.ancestors(id)).find_map(|at| doc.node(at).next())
}

/// Whether a text may be that of a heading.
fn is_like_heading(text: &str) -> bool {
    (2..=100).contains(&text.chars().count()) && !text.ends_with(['.', ',', ';', ':']) && text.chars().any(char::is_alphabetic)
}

fn words(doc: &Document, id: NodeId) -> String {
    doc.plain_text(id).split_whitespace().collect::<Vec<_>>().join(" ")
}

/// How many numbers with full stops between a text begins with.
fn numbers(text: &str) -> u8 {
    let first = text.split(' ').next().unwrap_or_default().trim_end_matches('.');
    let is_number = |part: &str| !part.is_empty() && part.len() <= 3 && part.bytes().all(|byte| byte.is_ascii_digit());
    if first.split('.').all(is_number) { first.split('.').count().min(6) as u8 } else { 0 }
}

/// Whether a document has headings beside that of its title.
fn has_headings(doc: &Document) -> bool {
    let in_tree = doc.nodes().filter(|(_, node)| node.parent().is_some() && matches!(node.kind(), Kind::Heading(_)));
    in_tree.take(2).count() > 1
}

/// Levels from looks: the largest letters first, and more numbers are deeper. What alone is the largest and comes first is the
/// title.
fn with_levels(doc: &Document, candidates: &[Candidate]) -> Vec<(NodeId, u8)> {
    let mut sizes: Vec<f32> = candidates.iter().map(|one| one.size).collect();
    sizes.sort_by(|a, b| b.total_cmp(a));
    sizes.dedup();
    let has_top = doc.nodes().any(|(_, node)| node.parent().is_some() && node.kind() == Kind::Heading(1));
    let largest = candidates.iter().filter(|one| Some(&one.size) == sizes.first()).count();
    let begins = candidates.first().is_some_and(|first| Some(&first.size) == sizes.first() && is_first(doc, first.node));
    let top = if !has_top && largest == 1 && begins { 1 } else { 2 };
    candidates
        .iter()
        .map(|one| {
            let rank = sizes.partition_point(|size| *size > one.size).min(6) as u8;
            (one.node, (top + rank + one.numbers.saturating_sub(1)).min(6))
        })
        .collect()
}

/// Whether nothing stands before a block.
fn is_first(doc: &Document, id: NodeId) -> bool {
    let upwards = std::iter::once(id).chain(doc.ancestors(id)).take_while(|&at| at != doc.root());
    upwards.take(MOST_ABOVE).all(|at| doc.node(at).previous().is_none())
}

/// Headings that are whole paragraphs become some: their style was taken for its looks.
fn demote(doc: &mut Document) {
    if doc.layout_hints.producer == Producer::Plain {
        return;
    }
    let is_paragraph = |id: NodeId| {
        let text = doc.plain_text(id);
        text.chars().count() > LONGEST_HEADING && text.trim_end().ends_with(['.', '!', '?', '\u{3002}'])
    };
    let found: Vec<NodeId> = doc
        .nodes()
        .filter(|(id, node)| matches!(node.kind(), Kind::Heading(_)) && node.parent().is_some() && is_paragraph(*id))
        .map(|(id, _)| id)
        .collect();
    let Some(&first) = found.first() else { return };
    let message = format!("whole paragraphs had the style of a heading and became text: {}", found.len());
    let finding = Finding::changed("clean.heading-text", message).at(doc.place(first));
    doc.push_finding(finding.hint("set clean.promote-headings=never to keep them headings"));
    for id in found {
        doc.set_kind(id, Kind::Paragraph);
    }
}

/// More characters than fit two lines.
const LONGEST_HEADING: usize = 180;
