//! Insertions and deletions that a program recorded while somebody revised a document.

use crate::document::{Document, Finding, Kind, KindSet, NodeId, Step};

/// What becomes of insertions and deletions.
#[derive(Clone, Copy, Debug, Default, PartialEq, Eq)]
pub enum Revisions {
    /// All stay where a Word document is written; elsewhere as with [`Recorded`](Self::Recorded).
    #[default]
    Auto,
    /// Those that a program recorded, with who made them, are accepted; those that an author wrote stay.
    Recorded,
    /// All stay.
    Keep,
    /// All are accepted: what was inserted is text, what was deleted goes.
    Accept,
    /// All are rejected: what was inserted goes, what was deleted is text.
    Reject,
}

/// Carries out what becomes of them.
pub fn resolve(doc: &mut Document, revisions: Revisions) {
    if revisions == Revisions::Keep || !doc.may_hold(KindSet::REVISIONS) {
        return;
    }
    let mut found = Vec::new();
    for root in doc.roots() {
        for step in doc.walk(root) {
            if let Step::Leave(id) = step
                && matches!(doc.kind(id), Kind::Insertion | Kind::Deletion)
                && (!matches!(revisions, Revisions::Auto | Revisions::Recorded) || is_recorded(doc, id))
            {
                found.push(id);
            }
        }
    }
    let (mut lost, mut first, mut parents) = (Vec::new(), None, Vec::new());
    for id in found {
        let stays = (doc.kind(id) == Kind::Insertion) != (revisions == Revisions::Reject);
        if stays {
            parents.extend(doc.node(id).parent());
            doc.unwrap(id);
            continue;
        }
        let words = doc.plain_text(id);
        if !words.trim().is_empty() {
            lost.push(words.split_whitespace().collect::<Vec<_>>().join(" "));
            first.get_or_insert(id);
        }
        parents.extend(doc.node(id).parent());
        doc.detach(id);
    }
    doc.join_texts_in(parents);
    if let Some(first) = first {
        let place = doc.place(first);
        let what = if revisions == Revisions::Reject { "inserted" } else { "deleted" };
        let message = format!("{what} text of tracked changes was left out: {}", lost.len());
        doc.push_finding(
            Finding::lost("clean.revision", message)
                .at(place)
                .hint("set clean.revisions=keep to keep it")
                .losing(lost.join("\n")),
        );
    }
}

/// A program names the author by a mail address.
fn is_recorded(doc: &Document, id: NodeId) -> bool {
    doc.attributes(id).other.iter().any(|&(name, value)| doc.text(name) == "cite" && doc.text(value).starts_with("mailto:"))
        || doc.layout_hints.of(id).part == crate::document::HintRole::Recorded
}
