//! What there is to know about the format, and what its reader and its writer may find.

use super::{ReadOptions, read, write};
use crate::document::{FindingInfo, Weight, finding};
use crate::formats::{Descriptor, Formulas, Headings, Images, RawHtml, Written};

/// The format.
pub(in crate::formats) static DESCRIPTOR: Descriptor = Descriptor {
    name: "text",
    extensions: &["txt", "text"],
    media_type: "text/plain",
    signatures: &[],
    lock_file_prefix: "",
    encoding: "text.encoding",
    raw_html: RawHtml::Foreign,
    is_published: true,
    images: Images::ByName,
    shows: &[],
    formulas: Formulas::Other,
    headings: Headings::Text,
    has_element_rules: false,
    keeps_looks: false,
    output_name: None,
    read: Some(|bytes, request| Ok(read(bytes, &ReadOptions { settings: &request.settings.text, classes: request.classes }))),
    write: Some(|doc, request| {
        let written = write(doc, &request.settings.text);
        Written { bytes: written.text.into_bytes(), findings: written.findings, ..Written::default() }
    }),
    findings: FINDINGS,
};

const FINDINGS: &[FindingInfo] = &[
    finding("text.columns", &[Weight::Advice], "Text is aligned with spaces and was kept so, as code is."),
    finding("text.deletion", &[Weight::Changed], "Deleted, struck and inserted text is like any other in plain text."),
    finding(
        "text.encoding",
        &[Weight::Changed, Weight::Advice, Weight::Lost],
        "Bytes that are not UTF-8 became U+FFFD; or the encoding of a text was guessed.",
    ),
    finding("text.insertion", &[Weight::Changed], "Deleted, struck and inserted text is like any other in plain text."),
    finding("text.raw", &[Weight::Changed], "Raw markup was written as it is."),
    finding("text.ruby", &[Weight::Changed], "Annotations of letters stand behind them in parentheses."),
    finding("text.script", &[Weight::Changed], "Subscripts and superscripts stand in the line."),
    finding("text.too-deep", &[Weight::Changed], "Quotes and lists that stand more than 100 deep are set in no further."),
];
