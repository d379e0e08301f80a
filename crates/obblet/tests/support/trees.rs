//! Trees of every kind of node in every place, most of which make no sense.

use obblet::document::{
    Align, Callout, CellKind, DivisionKind, Document, Formula, Kind, ListKind, Marker, Markup, NodeId, Note, NoteId,
    RowGroupKind, Scope, Text, TextLevel,
};
use proptest::prelude::*;

/// How many kinds [`kinds`] makes.
pub const KINDS: usize = 76;

/// The number of the kind that is plain text.
pub const TEXT: usize = KINDS - 1;

/// Every kind of node but for the two that begin a tree, with its texts in the document. What a kind has more than one form of is
/// another form for each `variant`.
#[expect(clippy::too_many_lines, reason = "a list of cases")]
fn kinds(doc: &mut Document, variant: usize) -> Vec<Kind> {
    fn pick<T: Copy, const N: usize>(variant: usize, of: [T; N]) -> T {
        of[variant % N]
    }
    let list = ListKind {
        ordered: true,
        tight: variant.is_multiple_of(2),
        marker: pick(variant, [Marker::LowerRoman, Marker::Plain, Marker::LowerAlpha, Marker::UpperAlpha, Marker::UpperRoman]),
        start: 3,
    };
    let cell = CellKind {
        header: false,
        scope: pick(variant, [Scope::Row, Scope::Unsaid, Scope::Column, Scope::RowGroup, Scope::ColumnGroup]),
        align: pick(variant, [Align::Right, Align::Unsaid, Align::Left, Align::Center, Align::Justify]),
        columns: 1,
        rows: 1,
    };
    let callout = pick(variant, [Callout::Tip, Callout::Note, Callout::Important, Callout::Warning, Callout::Caution]);
    let mut formula = |notation: Markup, source: &str, characters: &str| {
        let (source, characters) = (doc.intern(source), doc.intern(characters));
        let display = notation == Markup::Tex && variant.is_multiple_of(2);
        Kind::Math(doc.add_formula(Formula { notation, source, characters, display, number: Text::EMPTY }))
    };
    let tex = formula(Markup::Tex, "a<b", "a<b");
    let mathml = formula(Markup::MathMl, "<math><mi>x\u{FFFF}</mi></math>", "x\u{FFFF}");
    let office = formula(Markup::OfficeMath, "<m:oMath/>", "a\u{2264}b");
    let mut text = |text: &str| doc.intern(text);
    let mut all = vec![
        Kind::Paragraph,
        Kind::Heading(1 + (variant % 6) as u8),
        Kind::BlockQuote,
        Kind::List(list),
        Kind::List(ListKind { ordered: false, ..list }),
        Kind::ListItem { checked: pick(variant, [Some(true), Some(false), None]) },
        Kind::TermList,
        Kind::Term,
        Kind::TermDescription,
        Kind::CodeBlock { code: text("a <b>\n"), info: text("rust,ignore") },
        Kind::Preformatted,
        Kind::Table,
        Kind::Caption,
        Kind::RowGroup(RowGroupKind::Head),
        Kind::RowGroup(RowGroupKind::Body),
        Kind::RowGroup(RowGroupKind::Foot),
        Kind::Row,
        Kind::Cell(CellKind { columns: 2, rows: 3, ..cell }),
        Kind::Cell(CellKind { header: true, ..cell }),
        Kind::Figure,
        Kind::ThematicBreak,
        Kind::Division(DivisionKind::Plain),
        Kind::Division(DivisionKind::Section),
        Kind::Division(DivisionKind::Article),
        Kind::Division(DivisionKind::Aside),
        Kind::Division(DivisionKind::Navigation),
        Kind::Division(DivisionKind::Header),
        Kind::Division(DivisionKind::Footer),
        Kind::Division(DivisionKind::Address),
        Kind::Division(DivisionKind::Callout(callout)),
        Kind::Details { open: variant.is_multiple_of(2) },
        Kind::Summary,
        Kind::RawBlock { markup: Markup::Html, raw: text("<div onclick='x'><p>raw<table><td>cell<script>no()</script></div>") },
        Kind::Raw { markup: Markup::Html, raw: text("</p><b><h2>bold") },
        Kind::Emphasis,
        Kind::Strong,
        Kind::Underline,
        Kind::Strikethrough,
        Kind::Insertion,
        Kind::Deletion,
        Kind::Highlight,
        Kind::Code(text("x < y")),
        Kind::Subscript,
        Kind::Superscript,
        Kind::Link { href: text("a b.html?c=\"d\"") },
        Kind::Link { href: text("java\nscript:alert(1)") },
        Kind::Link { href: text("http:/a.b[") },
        Kind::Image { src: text("p.png"), alt: text("a \"picture\"") },
        Kind::Image { src: text("https://a b/"), alt: text("") },
        Kind::LineBreak,
        Kind::SoftBreak,
        Kind::Span,
        Kind::Anchor,
        Kind::NoteReference(NoteId((variant % 2) as u32)),
        tex,
        mathml,
        office,
    ];
    let levels = [
        "abbr", "b", "cite", "code", "data", "dfn", "i", "bdi", "kbd", "bdo", "q", "ruby", "rp", "rt", "samp", "small", "time",
        "var",
    ];
    all.extend(levels.iter().filter_map(|name| TextLevel::from_element(name)).map(Kind::TextLevel));
    all.push(Kind::Text(text("some \u{1} text & more \u{FFFE}\n")));
    all
}

/// One kind of node, and its form.
pub fn kind(doc: &mut Document, number: usize) -> Kind {
    kinds(doc, number / KINDS)[number % KINDS]
}

/// A tree from a list of kinds, each with the number of the node that it goes into. There are two notes, which may hold some of it.
pub fn tree(parts: &[(usize, usize)]) -> Document {
    let mut doc = Document::new();
    let mut nodes: Vec<NodeId> = vec![doc.root()];
    for (index, &(number, parent)) in parts.iter().enumerate() {
        if index == 2 {
            for label in ["one", "two"] {
                let body = doc.create(Kind::Note);
                doc.notes.push(Note { label: label.to_owned(), body });
            }
            doc.endnotes.set(doc.notes[1].body, ());
            nodes.push(doc.notes[1].body);
        }
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

/// The place of a kind in the list of the model; a new kind does not compile before it has one here, and in [`kinds`].
const fn place(kind: Kind) -> usize {
    match kind {
        Kind::Root | Kind::Note => 0,
        Kind::Heading(_) => 1,
        Kind::Paragraph => 2,
        Kind::BlockQuote => 3,
        Kind::List(_) => 4,
        Kind::ListItem { .. } => 5,
        Kind::TermList => 6,
        Kind::Term => 7,
        Kind::TermDescription => 8,
        Kind::CodeBlock { .. } => 9,
        Kind::Preformatted => 10,
        Kind::Table => 11,
        Kind::Caption => 12,
        Kind::RowGroup(_) => 13,
        Kind::Row => 14,
        Kind::Cell(_) => 15,
        Kind::Figure => 16,
        Kind::ThematicBreak => 17,
        Kind::Division(_) => 18,
        Kind::Details { .. } => 19,
        Kind::Summary => 20,
        Kind::RawBlock { .. } => 21,
        Kind::Text(_) => 22,
        Kind::Emphasis => 23,
        Kind::Strong => 24,
        Kind::Underline => 25,
        Kind::Strikethrough => 26,
        Kind::Insertion => 27,
        Kind::Deletion => 28,
        Kind::Highlight => 29,
        Kind::Code(_) => 30,
        Kind::Subscript => 31,
        Kind::Superscript => 32,
        Kind::Link { .. } => 33,
        Kind::Image { .. } => 34,
        Kind::LineBreak => 35,
        Kind::SoftBreak => 36,
        Kind::Span => 37,
        Kind::NoteReference(_) => 38,
        Kind::Math { .. } => 39,
        Kind::Anchor => 40,
        Kind::Raw { .. } => 41,
        Kind::TextLevel(_) => 42,
    }
}

/// Fails where a kind of the model is in no tree.
pub fn assert_every_kind() {
    let mut doc = Document::new();
    let all = kinds(&mut doc, 0);
    assert_eq!(all.len(), KINDS);
    assert!(matches!(all[TEXT], Kind::Text(_)));
    let mut places: Vec<usize> = all.iter().map(|kind| place(*kind)).collect();
    places.sort_unstable();
    places.dedup();
    assert_eq!(places, (1..=42).collect::<Vec<_>>());
    let levels = all.iter().filter(|kind| matches!(kind, Kind::TextLevel(_))).count();
    assert_eq!(levels, TextLevel::Variable as usize + 1);
}
