//! Which characters are white space: what HTML collapses, what editors write for it, and what shows nothing at all.

use super::{Document, Kind, NodeId};

/// White space that HTML collapses (Infra, "ASCII whitespace").
pub(crate) const fn is_collapsible(c: char) -> bool {
    matches!(c, ' ' | '\t' | '\n' | '\r' | '\x0C')
}

/// White space that shows nothing, and the space that editors write for it. Spaces of a width of their own are meant.
pub(crate) const fn is_space(c: char) -> bool {
    is_collapsible(c) || c == '\u{A0}'
}

/// White space of any width, and characters without width.
pub(crate) fn shows_nothing(c: char) -> bool {
    c.is_whitespace() || matches!(c, '\u{200B}' | '\u{FEFF}')
}

impl Document {
    /// Whether a node is text of nothing but such characters, or a soft break.
    pub(crate) fn is_white(&self, id: NodeId, white: impl Fn(char) -> bool) -> bool {
        match self.kind(id) {
            Kind::Text(text) => self.text(text).chars().all(white),
            Kind::SoftBreak => true,
            _ => false,
        }
    }
}
