//! What may be found here.

use crate::document::{FindingInfo, Weight, finding};

/// The findings of this room.
pub(crate) const FINDINGS: &[FindingInfo] = &[
    finding("link.missing", &[Weight::Advice], "A link leads to a document that is not there."),
    finding(
        "link.missing-place",
        &[Weight::Advice],
        "In a published folder, a link leads to a place that its document does not have; the hint names the nearest.",
    ),
];
