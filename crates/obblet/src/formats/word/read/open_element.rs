//! What is open while a part is walked over.

use crate::document::NodeId;

/// What is done when an element ends.
#[derive(Debug)]
pub(super) enum Frame {
    /// Nothing: its content is part of what is around it.
    Through,
    Paragraph,
    Run,
    Wrap,
    SimpleField,
    Table,
    Row,
    Cell,
    Box,
    Note,
    Drawing,
    PictureEnds,
    Alternate {
        taken: bool,
    },
    Control,
    Omitted,
    Ruby,
    RubyText(Option<NodeId>),
}
