//! Text without markup: manuscripts that come in, and text to be read as it is.
//!
//! Where the format differs from the model: it has lines and nothing else. Headings are underlined, tables drawn, lists
//! numbered, quotes set in, and addresses stand in notes at the end.

mod cells;
mod descriptor;
mod read;
mod settings;
mod table;
mod write;

pub(in crate::formats) use descriptor::DESCRIPTOR;
pub use read::{ParagraphEnds, Patterns, ReadOptions, read};
pub use settings::{MathLine, Settings};
pub use write::write;

use crate::document::Finding;

/// Text, and what the user should know about it.
#[derive(Clone, Debug, Default)]
pub struct Written {
    /// The text.
    pub text: String,
    /// Findings of the writing.
    pub findings: Vec<Finding>,
}
