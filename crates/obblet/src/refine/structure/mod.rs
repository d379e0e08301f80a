//! A tree of which HTML, and any other format, can say every part: items in lists, cells in rows, blocks where blocks may
//! stand.

mod content_model;
mod repair;
mod table_grid;

pub(crate) use content_model::{holds_flow, survey};
pub(crate) use table_grid::close_covered_rows;

use crate::document::{Document, Finding};
use std::borrow::Cow;

/// Puts every node where it may stand, and reports in a finding where that changed something.
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

/// A document in which every node stands where it may. There is no other way to one than [`repaired`], so that a writer that asks
/// for it can rely on it.
pub(crate) struct Repaired<'d>(Cow<'d, Document>);

impl std::ops::Deref for Repaired<'_> {
    type Target = Document;

    fn deref(&self) -> &Document {
        &self.0
    }
}

impl Repaired<'_> {
    /// Changes a document in a way that leaves every node where it may stand. Places that links lead to may be put in front of what
    /// they are places of, for writers that have no other way to name it.
    pub(crate) fn mend(&mut self, mend: impl FnOnce(&mut Document)) {
        mend(self.0.to_mut());
    }
}

/// The document itself where every node stands where it may, else a copy in which it does, and what the repair found.
pub(crate) fn repaired(doc: &Document) -> (Repaired<'_>, Vec<Finding>) {
    repaired_after(doc, None)
}

/// As [`repaired`], with something that is done to a copy before.
pub(crate) fn repaired_after(doc: &Document, change: Option<fn(&mut Document)>) -> (Repaired<'_>, Vec<Finding>) {
    if change.is_none() && (doc.is_repaired() || survey(doc).is_fine()) {
        return (Repaired(Cow::Borrowed(doc)), Vec::new());
    }
    let mut copy = doc.clone();
    copy.findings.clear();
    if let Some(change) = change {
        change(&mut copy);
    }
    repair(&mut copy);
    let findings = std::mem::take(&mut copy.findings);
    (Repaired(Cow::Owned(copy)), findings)
}
