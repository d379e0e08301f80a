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
    finding(
        "publish.collision",
        &[Weight::Changed],
        "Two documents would become one file, or one that has the name of a folder; the second has another name.",
    ),
    finding("publish.edited", &[Weight::Changed], "An output was edited since, or is not ours, and stays."),
    finding("publish.long-name", &[Weight::Changed], "A name is too long for that of a page, which has the beginning of it."),
    finding("publish.record", &[Weight::Changed], "The record is damaged; all documents are converted again."),
    finding(
        "publish.running-file",
        &[Weight::Lost],
        "A file that a link leads to could run in a browser or on a server; it does not come along.",
    ),
    finding("publish.no-pages", &[Weight::Advice], "A site or a binder is asked for, but no pages are written."),
    finding("publish.taken", &[Weight::Advice], "A document has the name that a page of the site would have."),
    finding("site.address", &[Weight::Advice], "There is no site map, for nothing says where the site will be."),
];
