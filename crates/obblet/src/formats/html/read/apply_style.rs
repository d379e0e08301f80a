//! What style rules say of elements becomes elements that say it.

use super::code;
use super::css::{ComputedStyle, Raised, TakenBack};
use super::element_state::Origin;
use super::normalize::Normalizer;
use crate::document::{Align, CellKind, Document, Kind, ListKind, NodeId, TextLevel};

impl Normalizer<'_> {
    /// What style rules say of an element becomes elements that say it.
    pub(super) fn apply_style(&mut self, doc: &mut Document, id: NodeId, look: ComputedStyle) {
        if let Some((ordered, marker)) = look.list
            && let Kind::List(list) = doc.kind(id)
        {
            doc.set_kind(id, Kind::List(ListKind { ordered, marker, ..list }));
        }
        if let (Kind::Cell(mut cell), Some(align)) = (doc.kind(id), look.align) {
            cell.align = align;
            doc.set_kind(id, Kind::Cell(cell));
        }
        // The one paragraph of a cell is the cell.
        if let (Kind::Paragraph, Some(align), Some(parent)) = (doc.kind(id), look.align, doc.node(id).parent())
            && let Kind::Cell(cell) = doc.kind(parent)
            && cell.align == Align::Unsaid
            && doc.node(id).previous().is_none()
        {
            doc.set_kind(parent, Kind::Cell(CellKind { align, ..cell }));
        }
        if says(doc.kind(id), Some(look)) == Some(false) {
            doc.set_kind(id, Kind::Span);
        }
        if doc.kind(id).is_inline() {
            let taken_back = TakenBack { bold: look.bold == Some(false), italic: look.italic == Some(false) };
            if taken_back != TakenBack::default() {
                self.taken_back.insert(id, taken_back);
            }
        }
        self.split_around_taken_back(doc, id);
        let kind = doc.kind(id);
        let holds_line = doc.children(id).all(|child| doc.kind(child).is_inline()) && doc.node(id).first_child().is_some();
        if kind.is_leaf() || !holds_line || self.preformatted > 0 {
            return;
        }
        let heading = matches!(kind, Kind::Heading(_) | Kind::Term | Kind::Summary | Kind::Caption)
            || matches!(kind, Kind::Cell(cell) if cell.header);
        let inline = kind.is_inline();
        let link = matches!(kind, Kind::Link { .. });
        let wraps = [
            (look.mono == Some(true) && inline && !link, Kind::TextLevel(TextLevel::Code)),
            (look.raised == Some(Raised::Above) && inline, Kind::Superscript),
            (look.raised == Some(Raised::Below) && inline, Kind::Subscript),
            (look.strike == Some(true), Kind::Strikethrough),
            (look.underline == Some(true) && !link && !heading, Kind::Underline),
            (look.italic == Some(true) && !heading, Kind::Emphasis),
            (look.bold == Some(true) && !heading && !link, Kind::Strong),
        ];
        for (_, wrap) in wraps.into_iter().filter(|&(wanted, wrap)| wanted && wrap != kind) {
            let said = |node: NodeId| {
                let above = doc.kind(node);
                above == wrap && says(above, self.looks.get(node)) != Some(false)
                    || (wrap == Kind::Strong && matches!(above, Kind::Heading(_)))
            };
            if doc.ancestors(id).take(16).any(said) || (wrap == Kind::TextLevel(TextLevel::Code) && has_code(doc, id)) {
                continue;
            }
            self.wrap_children(doc, id, wrap);
        }
    }

    /// Puts what a node holds into a node of another kind, but for what rules take that back from.
    fn wrap_children(&mut self, doc: &mut Document, id: NodeId, wrap: Kind) {
        let mut next = doc.node(id).first_child();
        let mut wrapper = None;
        while let Some(child) = next {
            next = doc.node(child).next();
            if self.is_taken_back(child, wrap) {
                wrapper = None;
                continue;
            }
            match wrapper {
                Some(wrapper) => doc.move_into(wrapper, child),
                None => {
                    let new = doc.wrap(child, wrap);
                    self.state.set_origin(new, Origin::Element);
                    if let Some(&taken_back) = self.taken_back.get(&child) {
                        self.taken_back.insert(new, taken_back);
                    }
                    wrapper = Some(new);
                }
            }
        }
        if wrap == Kind::TextLevel(TextLevel::Code)
            && let Some(wrapper) = wrapper
        {
            code::normalize_inline_code(doc, wrapper, false);
        }
    }

    fn is_taken_back(&self, id: NodeId, kind: Kind) -> bool {
        self.taken_back.get(&id).is_some_and(|taken_back| match kind {
            Kind::Strong => taken_back.bold,
            Kind::Emphasis => taken_back.italic,
            _ => false,
        })
    }

    /// What is bold, and holds something that is not, becomes several bold things with that between them.
    pub(super) fn split_around_taken_back(&mut self, doc: &mut Document, id: NodeId) {
        let kind = doc.kind(id);
        if matches!(kind, Kind::Strong | Kind::Emphasis) && doc.children(id).any(|child| self.is_taken_back(child, kind)) {
            doc.set_kind(id, Kind::Span);
            self.wrap_children(doc, id, kind);
        }
    }

    /// A span goes; what it took back from its text stays taken back.
    pub(super) fn hand_down_taken_back(&mut self, doc: &Document, id: NodeId) {
        if let Some(&taken_back) = self.taken_back.get(&id) {
            for child in doc.children(id) {
                let own = self.taken_back.entry(child).or_default();
                // What is bold again within it has an element of its own for that.
                own.bold |= taken_back.bold && doc.kind(child) != Kind::Strong;
                own.italic |= taken_back.italic && doc.kind(child) != Kind::Emphasis;
            }
        }
    }
}

/// Whether a look says the same of an element as its kind does, where it says anything.
fn says(kind: Kind, look: Option<ComputedStyle>) -> Option<bool> {
    let look = look?;
    match kind {
        Kind::Strong => look.bold,
        Kind::Emphasis => look.italic,
        Kind::Underline => look.underline,
        Kind::Strikethrough => look.strike,
        _ => None,
    }
}

fn has_code(doc: &Document, id: NodeId) -> bool {
    doc.children(id).any(|child| matches!(doc.kind(child), Kind::Code(_) | Kind::TextLevel(TextLevel::Code)))
}
