//! What there is to know about the format, and what its reader and its writer may find.

use super::{WriteOptions, read, write};
use crate::document::{FindingInfo, Weight, finding};
use crate::formats::{Descriptor, Formulas, Headings, Images, RawHtml, Written};

/// The format.
pub(in crate::formats) static DESCRIPTOR: Descriptor = Descriptor {
    name: "markdown",
    extensions: &["md", "markdown", "mkd", "mdown"],
    media_type: "text/markdown",
    signatures: &[],
    lock_file_prefix: "",
    encoding: "text.encoding",
    raw_html: RawHtml::Native,
    is_published: true,
    images: Images::ByName,
    shows: &[],
    formulas: Formulas::Tex,
    headings: Headings::Text,
    has_element_rules: false,
    keeps_looks: false,
    output_name: None,
    read: Some(|bytes, request| Ok(read(bytes, &request.settings.markdown))),
    write: Some(|doc, request| {
        let options = WriteOptions { settings: request.settings.markdown, element: Some(request.element) };
        let written = write(doc, &options);
        Written { bytes: written.text.into_bytes(), findings: written.findings, ..Written::default() }
    }),
    findings: FINDINGS,
};

const FINDINGS: &[FindingInfo] = &[
    finding("markdown.extra-cells", &[Weight::Lost], "A row has more cells than the head of its table."),
    finding("markdown.front-matter", &[Weight::Changed], "The front matter is not valid YAML; it is kept as text."),
    finding("markdown.missing-note", &[Weight::Advice], "A note is mentioned that is not defined."),
    finding(
        "markdown.no-syntax",
        &[Weight::Changed],
        "Markdown has no way to say something; the message names it, and its text is kept.",
    ),
    finding(
        "markdown.table-head",
        &[Weight::Changed],
        "The first row of a table without a head reads as one, and became it, since Markdown has no tables without a head.",
    ),
    finding("markdown.too-deep", &[Weight::Changed], "Quotes and lists that stand more than 100 deep are set in no further."),
    finding("markdown.too-many-references", &[Weight::Lost], "Links repeat long addresses too often."),
];
