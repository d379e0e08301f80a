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
    finding("citation.file", &[Weight::Lost], "A file of entries that the document names was not read."),
    finding("citation.missing", &[Weight::Changed], "A citation names a key that no entry has; the key is shown."),
    finding("clean.control", &[Weight::Changed], "Links that lead nowhere and say copy, show, hide or print were left out."),
    finding("clean.outer-section", &[Weight::Changed], "Sections that hold all of the document were opened."),
    finding("clean.title", &[Weight::Changed], "Titles of links and images that repeat their text were left out."),
    finding("clean.code-block", &[Weight::Changed], "Paragraphs in a fixed-width font became code blocks."),
    finding(
        "clean.heading-like",
        &[Weight::Advice, Weight::Changed],
        "Paragraphs that are bold and short look like headings; they became some, or do with `clean.promote-headings = \"always\"`.",
    ),
    finding(
        "clean.heading-link",
        &[Weight::Changed],
        "Links of headings to themselves, and signs beside headings, were left out.",
    ),
    finding("clean.heading-text", &[Weight::Changed], "Whole paragraphs had the style of a heading, and became text."),
    finding("clean.id", &[Weight::Changed], "Ids that a program made up became readable; links follow."),
    finding(
        "clean.language",
        &[Weight::Changed],
        "Elements that said the language of the text around them say none; others stand on the largest element in a language.",
    ),
    finding("image.file-name", &[Weight::Changed], "Alt text of images was the name of a file; it counts as none."),
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
    finding("clean.targets", &[Weight::Changed], "Parts whose class names other formats were left out."),
    finding("clean.tab-columns", &[Weight::Changed], "Paragraphs that were aligned with tabs became tables."),
    finding("clean.table-head", &[Weight::Changed], "A first row in bold became the head of its table."),
    finding(
        "clean.typed-list",
        &[Weight::Advice, Weight::Changed],
        "Paragraphs begin with typed bullets or numbers; they became items of lists, or do with `clean.lists = \"typed\"`.",
    ),
];
