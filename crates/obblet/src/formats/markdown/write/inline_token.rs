//! The pieces of a line of text, before it is known how each is written.

/// What two delimiters mark.
#[derive(Clone, Copy, Debug, PartialEq, Eq)]
pub(super) enum Mark {
    Emphasis,
    Strong,
    Strike,
}

/// One piece.
#[derive(Clone, Debug, PartialEq)]
pub(super) enum Token<'d> {
    /// Characters that may have to be escaped.
    Text(&'d str),
    /// Characters that are written as they are: tags, code, addresses. Never empty.
    Literal(String),
    /// A formula between dollar signs.
    Math(String),
    /// The beginning and the end of something between delimiters.
    Open(Mark),
    Close(Mark),
    /// The beginning and the end of the text of a link.
    OpenLink,
    CloseLink(String),
    Break,
}

/// Where a line of text stands.
#[derive(Clone, Copy, Debug, Default, PartialEq, Eq)]
pub(super) struct Context {
    /// It must be one line.
    pub(super) single_line: bool,
    /// Bars end it.
    pub(super) in_table: bool,
    /// What a line break is, where there is one line only.
    pub(super) breaks: &'static str,
}
