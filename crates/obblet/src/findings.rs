//! Every finding that there is.

use crate::document::FindingInfo;
use crate::formats::Format;
use crate::{page, refine};

/// Every finding that a conversion, an inspection or a published folder may have, in the order of their codes.
///
/// ```
/// let alt = obblet::findings().into_iter().find(|finding| finding.code == "image.alt").unwrap();
/// assert_eq!(alt.weights, [obblet::document::Weight::Advice]);
/// ```
#[must_use]
pub fn findings() -> Vec<FindingInfo> {
    let rooms = [
        #[cfg(feature = "inspect")]
        crate::inspect::FINDINGS,
        page::FINDINGS,
        #[cfg(feature = "publish")]
        crate::publish::FINDINGS,
        refine::FINDINGS,
    ];
    let formats = Format::all().map(|format| format.descriptor().findings);
    let mut all: Vec<FindingInfo> = formats.chain(rooms).flatten().copied().collect();
    all.sort_by_key(|finding| finding.code);
    all
}
