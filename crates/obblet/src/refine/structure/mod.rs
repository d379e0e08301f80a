//! A tree of which HTML, and any other format, can say every part: items in lists, cells in rows, blocks where blocks may
//! stand.

mod content;
mod geometry;
mod repair;

pub(crate) use content::{holds_flow, survey};
pub(crate) use geometry::close_covered_rows;

use crate::document::{Document, Finding};
use std::borrow::Cow;

/// Puts every node where it may stand, and tells in a finding where that changed something.
///
/// ```
/// use obblet::document::{Document, Kind};
/// use obblet::refine::structure;
///
/// let mut doc = Document::new();
/// let row = doc.append(doc.root(), Kind::Row);
/// doc.append_text(row, "high water");
/// structure::settle(&mut doc);
/// let table = doc.node(doc.root()).first_child().unwrap();
/// assert_eq!(doc.kind(table), Kind::Table);
/// assert_eq!(doc.findings[0].code, "html.structure");
/// ```
pub fn settle(doc: &mut Document) {
    if doc.is_settled() {
        return;
    }
    let survey = survey(doc);
    if !survey.holds {
        repair::repair(doc);
    } else if survey.merges {
        geometry::settle(doc);
    }
    doc.mark_settled();
}

/// The document itself where every node stands where it may, else a copy in which it does, and what the repair found.
pub(crate) fn settled(doc: &Document) -> (Cow<'_, Document>, Vec<Finding>) {
    if doc.is_settled() || survey(doc).is_fine() {
        return (Cow::Borrowed(doc), Vec::new());
    }
    let mut copy = doc.clone();
    copy.findings.clear();
    settle(&mut copy);
    let findings = std::mem::take(&mut copy.findings);
    (Cow::Owned(copy), findings)
}
