//! What a text is cut into before it becomes nodes.

use crate::document::{NoteId, Text};

/// A piece of a text.
#[derive(Clone, Copy, Debug)]
pub(super) struct Token {
    pub(super) kind: TokenKind,
    /// Where in the pool it stands.
    pub(super) offset: u32,
}

/// What a piece is.
#[derive(Clone, Copy, Debug)]
pub(super) enum TokenKind {
    Text(Text),
    SoftBreak,
    LineBreak,
    Code(Text),
    Raw(Text),
    Math {
        tex: Text,
        display: bool,
    },
    Note(NoteId),
    /// Keys of entries of a bibliography, in brackets.
    Citation(Text),
    /// An address that is its own link.
    Address {
        href: Text,
        text: Text,
    },
    /// A run of delimiters, by its index.
    Delimiter(u32),
    /// A bracket that may yet turn out to begin a link; text if not.
    Bracket(Text),
    LinkStart {
        href: Text,
    },
    ImageStart {
        src: Text,
    },
    /// The title of the link or image that the token before begins.
    Title(Text),
    LinkEnd,
    ImageEnd,
}
