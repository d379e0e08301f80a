//! What may stand where (HTML, section 3.2.5 and the content models of section 4).

use crate::document::{
    CellKind, DivisionKind, Document, Kind, ListKind, Marker, Markup, NodeId, NoteId, RowGroupKind, Text, TextLevel,
};

/// What a look at all nodes tells about a document.
#[derive(Clone, Copy, Debug)]
pub(crate) struct Survey {
    /// Whether HTML can say it as it is, but for what merged cells may do to their tables.
    pub(crate) holds: bool,
    /// Whether cells are merged.
    pub(crate) merges: bool,
}

impl Survey {
    /// Whether nothing is to be done.
    pub(crate) const fn is_fine(&self) -> bool {
        self.holds && !self.merges
    }
}

/// Looks at each node and its parent once.
pub(crate) fn survey(doc: &Document) -> Survey {
    let mut survey = Survey { holds: true, merges: false };
    let classes: Vec<u8> = doc.nodes().map(|(_, node)| class(node.kind()) as u8).collect();
    for ((id, node), &class) in doc.nodes().zip(&classes) {
        if let Some(parent) = node.parent() {
            survey.holds &= MAY_HOLD[usize::from(classes[parent.index()])] & 1 << class != 0;
            if LOCAL_RULES & 1 << class != 0 {
                survey.holds &= local_rules_hold(doc, id, node.kind());
            }
        }
        if let Kind::Cell(cell) = node.kind() {
            survey.merges |= cell.columns > 1 || cell.rows > 1;
        }
    }
    survey
}

const PLAIN_LIST: ListKind = ListKind { ordered: false, tight: false, marker: Marker::Plain, start: 1 };

/// A kind of each class. Kinds of one class may stand in the same places and hold the same things.
const CLASSES: [Kind; 31] = [
    Kind::Root,
    Kind::Heading(1),
    Kind::Paragraph,
    Kind::BlockQuote,
    Kind::List(PLAIN_LIST),
    Kind::ListItem { checked: None },
    Kind::TermList,
    Kind::Term,
    Kind::TermDescription,
    Kind::ThematicBreak,
    Kind::Preformatted,
    Kind::Table,
    Kind::Caption,
    Kind::RowGroup(RowGroupKind::Body),
    Kind::Row,
    Kind::Cell(CellKind { header: true, ..CellKind::PLAIN }),
    Kind::Cell(CellKind::PLAIN),
    Kind::Figure,
    Kind::Division(DivisionKind::Plain),
    Kind::Division(DivisionKind::Address),
    Kind::Details { open: false },
    Kind::Summary,
    Kind::Note,
    Kind::LineBreak,
    Kind::Emphasis,
    Kind::Link { href: Text::EMPTY },
    Kind::NoteReference(NoteId(0)),
    Kind::TextLevel(TextLevel::Small),
    Kind::TextLevel(TextLevel::Ruby),
    Kind::TextLevel(TextLevel::RubyText),
    // Blocks that never have children.
    Kind::RawBlock { markup: Markup::Html, raw: Text::EMPTY },
];

/// The place of a kind's class in [`CLASSES`].
#[inline]
const fn class(kind: Kind) -> usize {
    match kind {
        Kind::Root => 0,
        Kind::Heading(_) => 1,
        Kind::Paragraph => 2,
        Kind::BlockQuote => 3,
        Kind::List(_) => 4,
        Kind::ListItem { .. } => 5,
        Kind::TermList => 6,
        Kind::Term => 7,
        Kind::TermDescription => 8,
        Kind::ThematicBreak => 9,
        Kind::Preformatted => 10,
        Kind::Table => 11,
        Kind::Caption => 12,
        Kind::RowGroup(_) => 13,
        Kind::Row => 14,
        Kind::Cell(cell) => 16 - cell.header as usize,
        Kind::Figure => 17,
        Kind::Division(DivisionKind::Address) => 19,
        Kind::Division(_) => 18,
        Kind::Details { .. } => 20,
        Kind::Summary => 21,
        Kind::Note => 22,
        Kind::Text(_)
        | Kind::Code(_)
        | Kind::Image { .. }
        | Kind::LineBreak
        | Kind::SoftBreak
        | Kind::Math(_)
        | Kind::Raw { .. } => 23,
        Kind::Emphasis
        | Kind::Strong
        | Kind::Underline
        | Kind::Strikethrough
        | Kind::Insertion
        | Kind::Deletion
        | Kind::Highlight
        | Kind::Subscript
        | Kind::Superscript
        | Kind::Span
        | Kind::Anchor => 24,
        Kind::Link { .. } => 25,
        Kind::NoteReference(_) => 26,
        Kind::TextLevel(TextLevel::Ruby) => 28,
        Kind::TextLevel(TextLevel::RubyText | TextLevel::RubyParenthesis) => 29,
        Kind::TextLevel(_) => 27,
        Kind::RawBlock { .. } | Kind::CodeBlock { .. } => 30,
    }
}

/// A set of classes; as wide as there are classes.
type Classes = u64;
const _: () = assert!(CLASSES.len() <= Classes::BITS as usize, "a wider set is needed");

/// For each class, the classes of what it may hold.
static MAY_HOLD: [Classes; CLASSES.len()] = {
    let mut table = [0; CLASSES.len()];
    let mut parent = 0;
    while parent < CLASSES.len() {
        let mut child = 0;
        while child < CLASSES.len() {
            table[parent] |= (may_hold(CLASSES[parent], CLASSES[child]) as Classes) << child;
            child += 1;
        }
        parent += 1;
    }
    table
};

/// Classes for which it also matters what stands beside or within.
const LOCAL_RULES: Classes = 1 << class(Kind::TermList)
    | 1 << class(Kind::Term)
    | 1 << class(Kind::TermDescription)
    | 1 << class(Kind::Caption)
    | 1 << class(Kind::RowGroup(RowGroupKind::Body))
    | 1 << class(Kind::Row)
    | 1 << class(Kind::Details { open: false });

/// Whether the first child of a node, and the number of its children, are as they must be.
fn local_rules_hold(doc: &Document, id: NodeId, kind: Kind) -> bool {
    match kind {
        Kind::Details { .. } => {
            doc.node(id).first_child().is_some_and(|first| doc.kind(first) == Kind::Summary)
                && doc.children(id).filter(|&child| doc.kind(child) == Kind::Summary).count() == 1
        }
        Kind::Caption => caption_fits(doc, id),
        Kind::TermList => doc.node(id).first_child().is_some(),
        Kind::RowGroup(RowGroupKind::Head) => doc.node(id).previous().is_none_or(|before| doc.kind(before) == Kind::Caption),
        Kind::RowGroup(RowGroupKind::Foot) => doc.node(id).next().is_none(),
        Kind::Row => doc.node(id).first_child().is_some() && is_as_wide_as_the_row_before(doc, id),
        Kind::TermDescription => doc.node(id).previous().is_some(),
        Kind::Term => doc.node(id).next().is_some(),
        _ => true,
    }
}

fn is_as_wide_as_the_row_before(doc: &Document, row: NodeId) -> bool {
    let last_of = |group: NodeId| doc.node(group).last_child().filter(|&last| doc.kind(last) == Kind::Row);
    let before = match (doc.node(row).previous(), doc.node(row).parent()) {
        (Some(before), _) if doc.kind(before) == Kind::Row => Some(before),
        (Some(before), _) => last_of(before),
        (None, Some(group)) => doc.node(group).previous().and_then(last_of),
        (None, None) => None,
    };
    // Merged cells need a look at the whole table, and get one.
    let width = |row: NodeId| {
        doc.children(row).map(|cell| if let Kind::Cell(cell) = doc.kind(cell) { cell.columns.into() } else { 1 }).sum::<usize>()
    };
    let merged_down = |row: NodeId| doc.children(row).any(|cell| matches!(doc.kind(cell), Kind::Cell(cell) if cell.rows > 1));
    before.is_none_or(|before| width(before) == width(row) || merged_down(before))
}

/// Whether a caption comes first in its table, or first or last in its figure and alone.
pub(super) fn caption_fits(doc: &Document, id: NodeId) -> bool {
    let (node, parent) = (doc.node(id), doc.node(id).parent());
    if node.previous().is_none() {
        return true;
    }
    let first = parent.and_then(|parent| doc.node(parent).first_child());
    parent.is_some_and(|parent| doc.kind(parent) == Kind::Figure)
        && node.next().is_none()
        && first.is_some_and(|first| doc.kind(first) != Kind::Caption)
}

/// Whether a node may hold only text and what stands within a line.
pub(crate) const fn holds_phrasing(kind: Kind) -> bool {
    matches!(kind, Kind::Heading(_) | Kind::Paragraph | Kind::Term | Kind::Summary | Kind::Preformatted) || kind.is_inline()
}

/// Whether a node may hold any block, and text as well.
pub(crate) const fn holds_flow(kind: Kind) -> bool {
    matches!(
        kind,
        Kind::Root
            | Kind::Note
            | Kind::BlockQuote
            | Kind::ListItem { .. }
            | Kind::TermDescription
            | Kind::Division(_)
            | Kind::Details { .. }
            | Kind::Figure
            | Kind::Caption
            | Kind::Cell(_)
    )
}

/// Whether HTML lets a node of one kind be the child of a node of another.
pub(super) const fn may_hold(parent: Kind, child: Kind) -> bool {
    match child {
        Kind::ListItem { .. } => matches!(parent, Kind::List(_)),
        Kind::Term | Kind::TermDescription => matches!(parent, Kind::TermList),
        Kind::RowGroup(_) => matches!(parent, Kind::Table),
        Kind::Row => matches!(parent, Kind::Table | Kind::RowGroup(_)),
        Kind::Cell(_) => matches!(parent, Kind::Row),
        Kind::Caption => matches!(parent, Kind::Table | Kind::Figure),
        Kind::Summary => matches!(parent, Kind::Details { .. }),
        Kind::Root | Kind::Note => false,
        Kind::TextLevel(TextLevel::RubyText | TextLevel::RubyParenthesis) => matches!(parent, Kind::TextLevel(TextLevel::Ruby)),
        _ if child.is_inline() => {
            (holds_flow(parent) || holds_phrasing(parent))
                && !parent.is_leaf()
                && !matches!(parent, Kind::Link { .. } if is_note(child))
        }
        Kind::Heading(_) => {
            (holds_flow(parent) && !is_header_cell(parent) && !is_address(parent)) || matches!(parent, Kind::Summary)
        }
        _ => holds_flow(parent) && (!is_address(parent) || matches!(child, Kind::Paragraph)),
    }
}

const fn is_note(kind: Kind) -> bool {
    matches!(kind, Kind::NoteReference(_))
}

const fn is_header_cell(kind: Kind) -> bool {
    matches!(kind, Kind::Cell(cell) if cell.header)
}

const fn is_address(kind: Kind) -> bool {
    matches!(kind, Kind::Division(DivisionKind::Address))
}

#[cfg(test)]
mod tests {
    use super::*;

    #[test]
    fn each_class_stands_at_its_own_place() {
        for (index, &kind) in CLASSES.iter().enumerate() {
            assert_eq!(class(kind), index, "{kind:?}");
        }
    }
}
