//! Runs of formatting that programs split, nest and put around white space.

use crate::document::{Attributes, Direction, DivisionKind, Document, Kind, NodeId, Step, Text, TextLevel};
use smallvec::{SmallVec, smallvec};

/// Joins what was split, unwraps what says nothing, and puts white space outside of formatting.
pub fn tidy(doc: &mut Document) {
    drop_languages_of_code(doc);
    for id in candidates(doc) {
        let Some(parent) = doc.node(id).parent() else {
            // The top of a tree, or a node that has gone.
            join_runs(doc, id);
            continue;
        };
        if doc.node(id).first_child().is_some() {
            join_runs(doc, id);
        }
        if doc.kind(id) == Kind::Anchor && doc.node(id).first_child().is_some() {
            doc.set_kind(id, Kind::Span);
        }
        if doc.kind(id) == Kind::TextLevel(TextLevel::Code) {
            turn_code(doc, id);
        }
        if matches!(doc.kind(id), Kind::Link { .. }) {
            move_white_out(doc, id);
        }
        if is_formatting(doc.kind(id)) {
            tidy_one(doc, id, parent);
        } else if !doc.kind(id).is_leaf() {
            tidy_block(doc, id);
        }
    }
}

/// Code is in no language that people speak: neither is it itself, nor a cell or an item that holds nothing else.
fn drop_languages_of_code(doc: &mut Document) {
    if !doc.nodes().any(|(id, node)| node.has_attributes() && doc.attributes(id).language.is_some()) {
        return;
    }
    let is_code = |kind| matches!(kind, Kind::Code(_) | Kind::CodeBlock { .. } | Kind::Preformatted);
    let mut found = Vec::new();
    for root in doc.roots() {
        // For each open node, whether it holds code, and whether it holds words that are none.
        let mut open: Vec<(bool, bool)> = Vec::new();
        let mut preformatted = 0;
        for step in doc.walk(root) {
            match step {
                Step::Enter(id) => {
                    let kind = doc.kind(id);
                    let has_words = match kind {
                        Kind::Text(text) => preformatted == 0 && doc.text(text).chars().any(char::is_alphanumeric),
                        kind => kind.is_leaf() && !is_code(kind) && !matches!(kind, Kind::LineBreak | Kind::SoftBreak),
                    };
                    preformatted += usize::from(kind == Kind::Preformatted);
                    open.push((is_code(kind), has_words));
                }
                Step::Leave(id) => {
                    let (code, words) = open.pop().unwrap_or_default();
                    preformatted -= usize::from(doc.kind(id) == Kind::Preformatted);
                    if let Some(around) = open.last_mut() {
                        *around = (around.0 || code, around.1 || words);
                    }
                    if code && !words && doc.node(id).has_attributes() && doc.attributes(id).language.is_some() {
                        found.push(id);
                    }
                }
            }
        }
    }
    for id in found {
        doc.attributes_mut(id).language = None;
    }
}

/// The nodes about which there may be something to do, those below before those above. Most nodes are none: they are looked
/// at in the order in which they were made, which costs less than a walk.
fn candidates(doc: &Document) -> Vec<NodeId> {
    let mut found = Vec::new();
    for (id, node) in doc.nodes() {
        let Some(parent) = node.parent() else { continue };
        let may_change = match node.kind() {
            kind if kind.is_leaf() => false,
            kind if is_formatting(kind) || is_strong_itself(kind) => true,
            Kind::Anchor | Kind::Division(DivisionKind::Plain) | Kind::TextLevel(TextLevel::Code) => true,
            Kind::Link { .. } => node.has_attributes() || has_white_ends(doc, id),
            _ => node.has_attributes(),
        };
        if may_change {
            // What becomes of it may make neighbours of nodes that were none.
            found.extend([id, parent]);
        } else if node.next().is_some_and(|next| may_join(doc, node.kind(), next)) {
            found.push(parent);
        }
    }
    let mut depths = depths(doc, &found);
    let mut by_depth: Vec<Vec<NodeId>> = Vec::new();
    for id in found {
        // Each is taken once.
        let depth = std::mem::replace(&mut depths[id.index()], DETACHED);
        if depth != DETACHED {
            by_depth.resize_with(by_depth.len().max(depth as usize + 1), Vec::new);
            by_depth[depth as usize].push(id);
        }
    }
    by_depth.into_iter().rev().flatten().collect()
}

/// Whether the text of a node begins or ends with white space.
fn has_white_ends(doc: &Document, id: NodeId) -> bool {
    let text = |child: Option<NodeId>| match child.map(|child| doc.kind(child)) {
        Some(Kind::Text(text)) => doc.text(text),
        _ => "",
    };
    let node = doc.node(id);
    text(node.first_child()).starts_with(char::is_whitespace) || text(node.last_child()).ends_with(char::is_whitespace)
}

/// Whether a node that is no formatting may join with the one behind it.
fn may_join(doc: &Document, kind: Kind, next: NodeId) -> bool {
    matches!(
        (kind, doc.kind(next)),
        (Kind::Text(_), Kind::Text(_)) | (Kind::Code(_), Kind::Code(_)) | (Kind::Link { .. }, Kind::Link { .. })
    )
}

/// The depth of nodes that are not in the document.
const DETACHED: u32 = u32::MAX;

/// How deep nodes and those above them stand, from 1.
fn depths(doc: &Document, nodes: &[NodeId]) -> Vec<u32> {
    let mut depths = vec![0; doc.node_count()];
    for root in doc.roots() {
        depths[root.index()] = 1;
    }
    let mut way = Vec::new();
    for &node in nodes {
        let mut at = Some(node);
        while let Some(id) = at.filter(|id| depths[id.index()] == 0) {
            way.push(id);
            at = doc.node(id).parent();
        }
        let mut depth = at.map_or(DETACHED, |known| depths[known.index()]);
        while let Some(id) = way.pop() {
            depth = depth.saturating_add(1);
            depths[id.index()] = depth;
        }
    }
    depths
}

const fn is_formatting(kind: Kind) -> bool {
    matches!(
        kind,
        Kind::Strong
            | Kind::Emphasis
            | Kind::Underline
            | Kind::Strikethrough
            | Kind::Highlight
            | Kind::Subscript
            | Kind::Superscript
            | Kind::Span
            | Kind::TextLevel(TextLevel::Small)
    )
}

/// Whether browsers set all text of such a node in bold.
fn is_strong_itself(kind: Kind) -> bool {
    matches!(kind, Kind::Heading(_)) || matches!(kind, Kind::Cell(cell) if cell.header)
}

fn tidy_block(doc: &mut Document, id: NodeId) {
    drop_said(doc, id);
    if is_strong_itself(doc.kind(id)) {
        unwrap_only_strong(doc, id);
    } else if doc.kind(id) == Kind::Division(DivisionKind::Plain)
        && doc.attributes(id).is_empty()
        && doc.node(id).first_child().is_some()
    {
        super::wrappers::open_division(doc, id, true);
    }
}

fn unwrap_only_strong(doc: &mut Document, id: NodeId) {
    while let Some(only) = doc
        .node(id)
        .first_child()
        .filter(|&only| doc.node(only).next().is_none() && doc.kind(only) == Kind::Strong && doc.attributes(only).is_empty())
    {
        doc.unwrap(only);
    }
}

fn tidy_one(doc: &mut Document, id: NodeId, parent: NodeId) {
    let kind = doc.kind(id);
    drop_said(doc, id);
    // The id of all that a block holds is the block's.
    let alone = doc.node(id).previous().is_none() && doc.node(id).next().is_none();
    if let (Kind::Span, true, Some(name)) = (kind, alone, doc.attributes(id).id)
        && matches!(doc.kind(parent), Kind::Paragraph | Kind::Heading(_) | Kind::ListItem { .. })
        && doc.attributes(parent).id.is_none()
        && doc.node(id).first_child().is_some()
    {
        doc.attributes_mut(parent).id = Some(name);
        doc.attributes_mut(id).id = None;
    }
    let bare = doc.attributes(id).is_empty();
    if bare && doc.node(id).first_child().is_some() {
        let again = kind != Kind::Span
            && doc.ancestors(id).take_while(|&above| doc.kind(above).is_inline()).any(|above| doc.kind(above) == kind);
        let is_link = |child| matches!(doc.kind(child), Kind::Link { .. });
        let again = again || (kind == Kind::Underline && doc.children(id).all(|child| is_link(child) || is_white(doc, child)));
        // Images look the same in bold.
        let is_seen_by_text = matches!(kind, Kind::Strong | Kind::Emphasis | Kind::Underline | Kind::TextLevel(TextLevel::Small));
        let is_image = |child| is_seen_by_text && matches!(doc.kind(child), Kind::Image { .. });
        let lone = matches!(kind, Kind::Span) || again || doc.children(id).all(|child| is_white(doc, child) || is_image(child));
        if lone {
            // Its neighbours meet; they are joined when the walk leaves what they are in.
            return doc.unwrap(id);
        }
    }
    if kind != Kind::Span {
        move_white_out(doc, id);
    }
}

/// Code all of which is formatted alike becomes formatted code, as people write it; code without markup is a leaf.
fn turn_code(doc: &mut Document, id: NodeId) {
    let mut at = id;
    while let Some(only) = doc.node(at).first_child().filter(|&only| doc.node(only).next().is_none()) {
        if !doc.attributes(at).is_empty() {
            return;
        }
        match doc.kind(only) {
            Kind::Text(text) => {
                doc.detach(only);
                return doc.set_kind(at, Kind::Code(text));
            }
            // The two change places.
            kind if is_formatting(kind) && doc.attributes(only).is_empty() => {
                doc.set_kind(at, kind);
                doc.set_kind(only, Kind::TextLevel(TextLevel::Code));
                at = only;
            }
            _ => return,
        }
    }
}

/// Takes off a language and a direction that hold here anyway.
fn drop_said(doc: &mut Document, id: NodeId) {
    if !doc.node(id).has_attributes() {
        return;
    }
    let above = |found: &dyn Fn(&Attributes) -> bool| doc.ancestors(id).any(|above| found(doc.attributes(above)));
    let attributes = doc.attributes(id);
    let same_language = attributes.language.is_some_and(|language| {
        let language = doc.text(language);
        let around = doc.ancestors(id).find_map(|above| doc.attributes(above).language).map(|language| doc.text(language));
        around.or(doc.metadata.language.as_deref()).is_some_and(|around| around.eq_ignore_ascii_case(language))
    });
    let plain = Some(Direction::LeftToRight);
    let same_direction = attributes.direction == plain
        && doc.metadata.direction.is_none_or(|direction| direction == Direction::LeftToRight)
        && !above(&|attributes| attributes.direction.is_some() && attributes.direction != plain);
    if same_language || same_direction {
        let attributes = doc.attributes_mut(id);
        attributes.language = attributes.language.filter(|_| !same_language);
        attributes.direction = attributes.direction.filter(|_| !same_direction);
    }
}

fn is_white(doc: &Document, id: NodeId) -> bool {
    doc.kind(id) == Kind::LineBreak || doc.is_white(id, char::is_whitespace)
}

/// White space at the ends of formatted text stands beside it, not in it.
fn move_white_out(doc: &mut Document, id: NodeId) {
    if let Some(first) = doc.node(id).first_child()
        && let Kind::Text(text) = doc.kind(first)
    {
        let white = doc.text(text).len() - doc.text(text).trim_start().len();
        let middle = text.start + white as u32;
        if white > 0 && middle < text.end {
            let outside = doc.create(Kind::Text(Text { start: text.start, end: middle }));
            doc.set_kind(first, Kind::Text(Text { start: middle, end: text.end }));
            doc.move_before(id, outside);
        }
    }
    if let Some(last) = doc.node(id).last_child()
        && let Kind::Text(text) = doc.kind(last)
    {
        let middle = text.start + doc.text(text).trim_end().len() as u32;
        if middle < text.end && middle > text.start {
            let outside = doc.create(Kind::Text(Text { start: middle, end: text.end }));
            doc.set_kind(last, Kind::Text(Text { start: text.start, end: middle }));
            doc.move_after(id, outside);
        }
    }
    while let Some(last) =
        doc.node(id).last_child().filter(|&last| doc.kind(last) == Kind::LineBreak && doc.node(last).previous().is_some())
    {
        doc.move_after(id, last);
    }
}

/// Joins neighbours among the children of a node that are formatted alike, and what meets in them then.
pub(super) fn join_runs(doc: &mut Document, parent: NodeId) {
    let mut open: SmallVec<[NodeId; 8]> = smallvec![parent];
    while let Some(parent) = open.pop() {
        doc.join_texts(parent);
        let mut at = doc.node(parent).first_child();
        let mut touched = false;
        while let Some(node) = at {
            let next = doc.node(node).next();
            let Some(after) = next else { break };
            if let (Kind::Code(first), Kind::Code(second)) = (doc.kind(node), doc.kind(after)) {
                if doc.attributes(node).is_empty() && doc.attributes(after).is_empty() {
                    let joined = doc.join(first, second);
                    doc.set_kind(node, Kind::Code(joined));
                    doc.detach(after);
                    touched = true;
                    continue;
                }
            } else if joins(doc, node, after) {
                take(doc, node, after);
                (touched, at) = (true, Some(node));
                continue;
            } else if let Some(behind) = doc.node(after).next()
                && doc.kind(node) != Kind::Span
                && !matches!(doc.kind(node), Kind::Link { .. })
                && is_white(doc, after)
                && doc.kind(after) != Kind::LineBreak
                && joins(doc, node, behind)
            {
                doc.move_into(node, after);
                take(doc, node, behind);
                (touched, at) = (true, Some(node));
                continue;
            }
            if touched {
                open.push(node);
                touched = false;
            }
            at = next;
        }
        if touched {
            open.extend(at.filter(|&at| !doc.kind(at).is_leaf()));
        }
    }
}

fn take(doc: &mut Document, node: NodeId, after: NodeId) {
    doc.move_children(after, node);
    doc.detach(after);
}

/// Whether two neighbours say the same of their text.
fn joins(doc: &Document, first: NodeId, second: NodeId) -> bool {
    let same_kind = match (doc.kind(first), doc.kind(second)) {
        (Kind::Link { href: first }, Kind::Link { href: second }) => doc.text(first) == doc.text(second),
        (first, second) => first == second && is_formatting(first),
    };
    let filled = |id| doc.node(id).first_child().is_some();
    same_kind && filled(first) && filled(second) && same_attributes(doc, first, second)
}

fn same_attributes(doc: &Document, first: NodeId, second: NodeId) -> bool {
    let (first, second) = (doc.attributes(first), doc.attributes(second));
    let text = |text: Option<Text>| text.map(|text| doc.text(text));
    first.id.is_none()
        && second.id.is_none()
        && text(first.language) == text(second.language)
        && text(first.title) == text(second.title)
        && first.direction == second.direction
        && first.classes.iter().map(|&class| doc.text(class)).eq(second.classes.iter().map(|&class| doc.text(class)))
        && first
            .other
            .iter()
            .map(|&(name, value)| (doc.text(name), doc.text(value)))
            .eq(second.other.iter().map(|&(name, value)| (doc.text(name), doc.text(value))))
}
