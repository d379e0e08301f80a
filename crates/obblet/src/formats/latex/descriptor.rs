//! What there is to know about the format, and what its reader may find.

use super::{Options, read_with, write_with};
use crate::document::{FindingInfo, Weight, finding};
use crate::formats::{Descriptor, Formulas, Headings, Images, RawHtml};

/// The format.
pub(in crate::formats) static DESCRIPTOR: Descriptor = Descriptor {
    name: "latex",
    extensions: &["tex", "latex", "ltx"],
    media_type: "application/x-latex",
    signatures: &[],
    lock_file_prefix: "",
    encoding: "text.encoding",
    raw_html: RawHtml::Foreign,
    is_published: true,
    images: Images::ByName,
    shows: &[crate::picture::Kind::Png, crate::picture::Kind::Jpeg],
    formulas: Formulas::Tex,
    headings: Headings::Counted,
    has_element_rules: false,
    keeps_looks: false,
    output_name: None,
    read: Some(|bytes, request| Ok(read_with(bytes, &request.settings.latex, &request.files))),
    write: Some(|doc, request| {
        let options = Options { fragment: request.fragment, preamble: request.template, missing_images: request.missing_images };
        write_with(doc, &request.settings.latex, options)
    }),
    findings: FINDINGS,
};

const FINDINGS: &[FindingInfo] = &[
    finding("latex.citation", &[Weight::Changed], "Citations are shown by their keys: there is no bibliography for them."),
    finding(
        "latex.citation-style",
        &[Weight::Changed],
        "The style of a bibliography is not known; citations and their list are numbered.",
    ),
    finding("latex.command", &[Weight::Changed], "Commands are not known; the text of their arguments is kept, but no settings."),
    finding("latex.drawing", &[Weight::Lost], "Drawings in TeX were left out."),
    finding(
        "latex.environment",
        &[Weight::Advice],
        "Environments are not known; they became divisions with their names as classes.",
    ),
    finding(
        "latex.front-matter",
        &[Weight::Lost],
        "What stands with the title or the authors was left out: no title is shown, or it is said of the publication.",
    ),
    finding("latex.include", &[Weight::Lost], "A file is taken in or shown that was not read."),
    finding("latex.missing-label", &[Weight::Changed], "References lead to labels that are not there."),
    finding(
        "latex.no-syntax",
        &[Weight::Changed],
        "LaTeX has no way to say something; the message names it, and its text is kept.",
    ),
    finding("latex.picture", &[Weight::Advice], "Pictures are in formats that browsers do not show."),
    finding("latex.speaker-note", &[Weight::Lost], "Notes for the speaker were left out."),
    finding("latex.term", &[Weight::Changed], "Terms and acronyms are shown by their keys: they are not defined."),
    finding("latex.too-much", &[Weight::Lost], "Commands that the document defines come to too much text."),
    finding("latex.unclosed", &[Weight::Advice], "Environments or groups do not end where they should."),
];
