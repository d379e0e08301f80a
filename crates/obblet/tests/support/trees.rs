//! Trees of every kind of node in every place, most of which make no sense.

use obblet::document::{
    Align, Callout, CellKind, DivisionKind, Document, Kind, ListKind, Marker, NodeId, RowGroupKind, Scope, TextLevel,
};
use proptest::prelude::*;

/// How many kinds [`kind`] knows.
pub const KINDS: usize = 48;

/// One kind of node of each sort, with its texts in the document.
pub fn kind(doc: &mut Document, number: usize) -> Kind {
    let list =
        ListKind { ordered: number.is_multiple_of(2), tight: number.is_multiple_of(3), marker: Marker::LowerRoman, start: 3 };
    let cell = CellKind { header: false, scope: Scope::Row, align: Align::Right, columns: 1, rows: 1 };
    match number % KINDS {
        0 => Kind::Paragraph,
        1 => Kind::Heading(1 + (number / KINDS % 6) as u8),
        2 => Kind::BlockQuote,
        3 | 4 => Kind::List(list),
        5 => Kind::ListItem { checked: Some(true) },
        6 => Kind::TermList,
        7 => Kind::Term,
        8 => Kind::TermDescription,
        9 => Kind::CodeBlock { code: doc.intern("a <b>\n"), info: doc.intern("rust,ignore") },
        10 => Kind::Preformatted,
        11 => Kind::Table,
        12 => Kind::Caption,
        13 => Kind::RowGroup(RowGroupKind::Head),
        14 => Kind::RowGroup(RowGroupKind::Foot),
        15 => Kind::Row,
        16 => Kind::Cell(CellKind { columns: 2, rows: 3, ..cell }),
        17 => Kind::Cell(CellKind { header: true, ..cell }),
        18 => Kind::Figure,
        19 => Kind::ThematicBreak,
        20 => Kind::Division(DivisionKind::Header),
        21 => Kind::Division(DivisionKind::Address),
        22 => Kind::Division(DivisionKind::Callout(Callout::Tip)),
        23 => Kind::Details { open: true },
        24 => Kind::Summary,
        25 => Kind::RawBlock { raw: doc.intern("<div onclick='x'><p>raw<table><td>cell<script>no()</script></div>") },
        26 => Kind::Raw { raw: doc.intern("</p><b><h2>bold") },
        27 => Kind::Emphasis,
        28 => Kind::Strong,
        29 => Kind::Underline,
        30 => Kind::Strikethrough,
        31 => Kind::Insertion,
        32 => Kind::Deletion,
        33 => Kind::Highlight,
        34 => Kind::Code(doc.intern("x < y")),
        35 => Kind::Subscript,
        36 => Kind::Link { href: doc.intern("a b.html?c=\"d\"") },
        37 => Kind::Link { href: doc.intern("java\nscript:alert(1)") },
        38 => Kind::Image { src: doc.intern("p.png"), alt: doc.intern("a \"picture\"") },
        39 => Kind::LineBreak,
        40 => Kind::SoftBreak,
        41 => Kind::Span,
        42 => Kind::Anchor,
        43 => Kind::Math { tex: doc.intern("a<b"), display: false },
        44 => Kind::TextLevel(TextLevel::RubyText),
        45 => Kind::TextLevel(TextLevel::Definition),
        46 => Kind::TextLevel(TextLevel::Ruby),
        _ => Kind::Text(doc.intern("some \u{1} text & more\n")),
    }
}

/// A tree from a list of kinds, each with the number of the node that it goes into.
pub fn tree(parts: &[(usize, usize)]) -> Document {
    let mut doc = Document::new();
    let mut nodes: Vec<NodeId> = vec![doc.root()];
    for &(number, parent) in parts {
        let kind = kind(&mut doc, number);
        let mut parent = nodes[parent % nodes.len()];
        if doc.kind(parent).is_leaf() {
            parent = doc.node(parent).parent().unwrap();
        }
        let node = doc.append(parent, kind);
        if number.is_multiple_of(7) {
            let name = doc.intern("same id");
            doc.attributes_mut(node).id = Some(name);
            let pair = (doc.intern("onclick"), doc.intern("x()"));
            doc.attributes_mut(node).other.push(pair);
        }
        nodes.push(node);
    }
    doc
}

/// Trees at random.
pub fn any() -> impl Strategy<Value = Vec<(usize, usize)>> {
    prop::collection::vec((0..KINDS * 6, 0usize..60), 0..40)
}
