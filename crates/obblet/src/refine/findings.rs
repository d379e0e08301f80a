//! What may be found here.

use crate::document::{FindingInfo, Weight, finding};

/// The findings of this room.
pub(crate) const FINDINGS: &[FindingInfo] = &[
    finding(
        "clean.acronym",
        &[Weight::Advice],
        "Words in capitals look like acronyms and stayed so; those that are belong into `clean.protected-words`.",
    ),
    finding(
        "clean.element",
        &[Weight::Changed, Weight::Lost],
        "The target does not accept an element; its content stays, or went with it, or an address is gone.",
    ),
    finding("clean.layout-table", &[Weight::Changed], "Layout tables were unwrapped."),
    finding(
        "clean.leave-out",
        &[Weight::Changed, Weight::Advice],
        "Parts were left out as asked, and links to them became text; or a selector fits nothing.",
    ),
    finding("clean.redirect", &[Weight::Changed], "Tracking redirects and tracking parameters were removed from links."),
    finding("reference.empty", &[Weight::Advice], "Links without text lead to nothing whose number or words they could show."),
    finding(
        "reference.number",
        &[Weight::Changed],
        "Cross references showed numbers that their targets do not have; they have the right ones now.",
    ),
    finding("clean.revision", &[Weight::Lost], "What a revision deleted was left out; its words are in the finding."),
    finding("clean.spacer", &[Weight::Advice], "Empty paragraphs were left out."),
    finding("clean.spacer-picture", &[Weight::Changed], "Single-pixel images were left out."),
    finding("clean.tab-columns", &[Weight::Changed], "Paragraphs that were aligned with tabs became tables."),
    finding("clean.table-head", &[Weight::Changed], "A first row in bold became the head of its table."),
    finding(
        "clean.typed-list",
        &[Weight::Advice],
        "Paragraphs begin with typed bullets or numbers; `clean.lists = \"typed\"` makes lists of them.",
    ),
];
