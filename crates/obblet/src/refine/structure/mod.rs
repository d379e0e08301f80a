//! A tree of which HTML, and any other format, can say every part: items in lists, cells in rows, blocks where blocks may
//! stand.

mod content_model;
mod repair;
mod table_grid;

pub(crate) use content_model::{holds_flow, survey};
pub(crate) use table_grid::close_covered_rows;

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
/// structure::repair(&mut doc);
/// let table = doc.node(doc.root()).first_child().unwrap();
/// assert_eq!(doc.kind(table), Kind::Table);
/// assert_eq!(doc.findings[0].code, "html.structure");
/// ```
pub fn repair(doc: &mut Document) {
    if doc.is_repaired() {
        return;
    }
    let survey = survey(doc);
    if !survey.holds {
        repair::repair(doc);
    } else if survey.merges {
        table_grid::normalize(doc);
    }
    doc.mark_repaired();
}

/// The document itself where every node stands where it may, else a copy in which it does, and what the repair found.
pub(crate) fn repaired(doc: &Document) -> (Cow<'_, Document>, Vec<Finding>) {
    if doc.is_repaired() || survey(doc).is_fine() {
        return (Cow::Borrowed(doc), Vec::new());
    }
    let mut copy = doc.clone();
    copy.findings.clear();
    repair(&mut copy);
    let findings = std::mem::take(&mut copy.findings);
    (Cow::Owned(copy), findings)
}
