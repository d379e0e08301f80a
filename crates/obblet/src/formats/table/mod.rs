//! Tables as text: rows of cells with a separator between them (RFC 4180, and what spreadsheets really write).
//!
//! Where the format differs from the model: it has one table and nothing else, cells of plain text, and no word for which row is
//! the head. A document is written as its first table; what stands around it is in a finding.

mod descriptor;
mod read;
mod settings;
mod write;

pub(in crate::formats) use descriptor::DESCRIPTOR;
pub use read::read;
pub use settings::{Head, Separator, Settings};
pub use write::{Written, write};
