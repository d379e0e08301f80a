//! Mathematics: one tree, and three notations in and out of it.
//!
//! | Notation | Where it stands | Read | Written |
//! |:---------|:----------------|:-----|:--------|
//! | TeX | Markdown, Org, LaTeX | [`tex::read`] | [`tex::write`] |
//! | MathML | HTML | [`mathml::read`] | [`mathml::write`] |
//! | OMML | Word | [`omml::read`] | [`omml::write`] |
//!
//! A document keeps the source of each formula with its notation; whoever writes another one reads it first. The tree says what a
//! formula is, as authors think of it: fractions, roots, scripts, matrices, delimiters; a few nodes say how it is set. No reader
//! fails: what can't be parsed is a node of its own that holds the source text, and a [`Problem`] says where it is.
//!
//! Trees are no deeper than [`DEEPEST`], so that code may go down into them by calling itself.

use crate::document::Markup;
use std::borrow::Cow;

mod alphabets;
pub mod mathml;
mod numbers;
pub mod omml;
pub mod tex;
mod text;
mod tree;
mod xml;

pub use alphabets::Variant;

pub use text::plain;
pub use tree::{
    Accent, Align, Characters, Class, Delimiter, Enclosure, Fraction, Line, Math, Node, Phantom, Row, Scripts, Side, Size, Table,
    TableKind, TableRow, Tag,
};

/// No tree is deeper: what is within more than so many others is kept as source text.
pub const DEEPEST: usize = 64;

/// Something in a formula that can't be parsed, or has no form in the other notation.
#[derive(Clone, Debug, PartialEq, Eq)]
pub struct Problem {
    /// The byte of the source where it begins.
    pub at: usize,
    /// What it is.
    pub what: String,
}

/// Reads a formula in the notation that a document has it in. Macros that it defines are kept for the formulas behind it.
#[must_use]
pub fn read(notation: Markup, source: &str, macros: &mut tex::Macros) -> (Math, Vec<Problem>) {
    match notation {
        Markup::Tex => tex::read_next(source, macros),
        Markup::MathMl => mathml::read(source),
        Markup::OfficeMath => omml::read(source),
        Markup::Html => (Math { body: vec![Node::Unparsed(source.to_owned())], ..Math::default() }, Vec::new()),
    }
}

/// The source of a formula in TeX: as it is, where it is in that notation.
#[must_use]
pub fn to_tex(notation: Markup, source: &str) -> Cow<'_, str> {
    match notation {
        Markup::Tex => Cow::Borrowed(source),
        _ => Cow::Owned(tex::write(&read(notation, source, &mut tex::Macros::default()).0)),
    }
}
