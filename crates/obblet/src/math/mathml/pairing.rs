//! Delimiters that find each other in a row, and what is between them.

use crate::math::{Characters, Class, Line, Node, Row, TableKind};

/// What is open in a row.
struct Opened {
    /// Where what it holds begins: behind the delimiter.
    start: usize,
    text: Characters,
    /// Whether its source says that it is a fence.
    marked: bool,
    /// Whether what it holds is higher than a line.
    high: bool,
    parts: Vec<Row>,
    middles: Vec<Characters>,
}

/// A row whose delimiters find each other.
#[derive(Default)]
struct Pairing {
    out: Row,
    open: Vec<Opened>,
    /// How deep fences are that nothing begins.
    wrapped: usize,
}

impl Pairing {
    fn push(&mut self, node: Node) {
        if let Some(opened) = self.open.last_mut() {
            opened.high |= is_high(std::slice::from_ref(&node));
        }
        self.out.push(node);
    }

    fn begin(&mut self, text: Characters, marked: bool) {
        self.push(Node::operator(text.clone(), Class::Open));
        let start = self.out.len();
        self.open.push(Opened { start, text, marked, high: false, parts: Vec::new(), middles: Vec::new() });
    }

    fn middle(&mut self, middle: Characters) {
        let depth = self.open.len();
        match self.open.last_mut() {
            Some(opened) if depth <= crate::math::DEEPEST => {
                opened.parts.push(self.out.split_off(opened.start));
                opened.middles.push(middle);
            }
            _ => self.out.push(Node::operator(middle, Class::Ordinary)),
        }
    }

    /// Ends what is open: as a fence where it is one, else as characters.
    fn end(&mut self, close: Characters, marked: bool) {
        let Some(opened) = self.open.pop() else {
            if marked && self.wrapped < MOST_WRAPPED {
                self.wrapped += 1;
                self.out = vec![fence(Characters::default(), close, std::mem::take(&mut self.out))];
            } else {
                self.out.push(Node::operator(close, Class::Close));
            }
            return;
        };
        // Where the tree is as deep as it may be, it stays an operator.
        let is_fence = !opened.parts.is_empty() || opened.marked || marked || opened.high;
        if !is_fence || self.open.len() >= crate::math::DEEPEST {
            if !close.is_empty() {
                self.out.push(Node::operator(close, Class::Close));
            }
            if let Some(around) = self.open.last_mut() {
                around.high |= opened.high;
            }
            return;
        }
        let body = self.out.split_off(opened.start);
        self.out.pop();
        let node = if opened.parts.is_empty() {
            fence(opened.text, close, body)
        } else {
            let parts = opened.parts.into_iter().chain([body]).collect();
            Node::Fenced { open: opened.text, close, parts, middles: opened.middles }
        };
        self.push(node);
    }
}

/// Fences that nothing begins are no deeper within each other.
const MOST_WRAPPED: usize = 8;

/// Fences that stretch, with what is between them: as high as that where it is high, else characters.
pub(super) fn fences(row: Row) -> Row {
    let is_mark = |node: &Node| matches!(node, Node::Fenced { parts, .. } if parts.is_empty());
    if !row.iter().any(is_mark) {
        return row;
    }
    let mut pairing = Pairing::default();
    for node in row {
        match node {
            Node::Fenced { open, close, parts, middles } if parts.is_empty() => {
                let marked = middles.first().is_some_and(|middle| middle.is_empty());
                if !open.is_empty() {
                    pairing.begin(open, marked);
                } else if let Some(middle) = middles.into_iter().next().filter(|middle| !middle.is_empty()) {
                    pairing.middle(middle);
                } else {
                    pairing.end(close, marked);
                }
            }
            node => pairing.push(node),
        }
    }
    // Without an end, as before cases.
    while !pairing.open.is_empty() {
        pairing.end(Characters::default(), false);
    }
    pairing.out
}

/// Whether a row is higher than a line.
fn is_high(row: &[Node]) -> bool {
    row.iter().any(|node| match node {
        Node::Fraction(_) | Node::Table(_) | Node::Root { .. } | Node::Stack { .. } | Node::Fenced { .. } => true,
        Node::Scripts(scripts) => {
            matches!(&scripts.base[..], [Node::Operator { class: Class::Large | Class::Integral, .. }]) || is_high(&scripts.base)
        }
        Node::Group(body) | Node::Style { body, .. } | Node::Accent { body, .. } => is_high(body),
        _ => false,
    })
}

/// What is between fences: a matrix and a binomial have them as their own.
pub(super) fn fence(open: Characters, close: Characters, mut body: Row) -> Node {
    if let [Node::Table(table)] = &mut body[..] {
        let kind = match (&*open, &*close, table.kind) {
            ("(", ")", TableKind::Plain) => Some(TableKind::Parentheses),
            ("[", "]", TableKind::Plain) => Some(TableKind::Brackets),
            ("{", "}", TableKind::Plain) => Some(TableKind::Braces),
            ("|" | "∣", "|" | "∣", TableKind::Plain) => Some(TableKind::Bars),
            ("‖" | "∥", "‖" | "∥", TableKind::Plain) => Some(TableKind::DoubleBars),
            ("{", "", TableKind::Plain | TableKind::Array) => Some(TableKind::Cases),
            ("", "}", TableKind::Plain | TableKind::Array) => Some(TableKind::RightCases),
            _ => None,
        };
        if let Some(kind) = kind {
            table.kind = kind;
            table.columns.clear();
            return body.remove(0);
        }
    }
    if let [Node::Fraction(fraction)] = &mut body[..]
        && fraction.line == Line::None
        && fraction.fence.is_none()
    {
        fraction.fence = Some((open, close));
        return body.remove(0);
    }
    Node::Fenced { open, close, parts: vec![body], middles: Vec::new() }
}
