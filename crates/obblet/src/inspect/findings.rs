//! What may be found here.

use crate::document::{FindingInfo, Weight, finding};

/// The findings of this room.
pub(crate) const FINDINGS: &[FindingInfo] = &[
    finding("document.empty", &[Weight::Advice], "The document says and shows nothing (`inspect`)."),
    finding(
        "document.language",
        &[Weight::Advice],
        "The document says that it is in one language, and its text looks like another (`inspect`).",
    ),
    finding("text.space-columns", &[Weight::Advice], "Paragraphs line up text with spaces (`inspect`)."),
];
