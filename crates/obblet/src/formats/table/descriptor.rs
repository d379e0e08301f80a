//! What there is to know about the format, and what its reader and its writer may find.

use super::{Separator, read, write};
use crate::document::{FindingInfo, Weight, finding};
use crate::formats::{Descriptor, Formulas, Headings, Images, RawHtml, Written};

/// The format.
pub(in crate::formats) static DESCRIPTOR: Descriptor = Descriptor {
    name: "table",
    extensions: &["csv", "tsv"],
    media_type: "text/csv",
    signatures: &[],
    lock_file_prefix: "",
    encoding: "table.encoding",
    raw_html: RawHtml::Foreign,
    images: Images::ByName,
    shows: &[],
    formulas: Formulas::Other,
    headings: Headings::Text,
    has_element_rules: false,
    keeps_looks: false,
    // Files of data beside documents are for readers to load.
    is_published: false,
    output_name: None,
    read: Some(|bytes, request| Ok(read(bytes, &request.settings.table))),
    write: Some(|doc, request| {
        let settings = &request.settings.table;
        let is_tabbed = request.extension.eq_ignore_ascii_case("tsv");
        let separator = match settings.separator {
            Separator::Auto if is_tabbed => Separator::Tab,
            given => given,
        };
        let written = write(doc, separator);
        Written { bytes: written.text.into_bytes(), findings: written.findings, ..Written::default() }
    }),
    findings: FINDINGS,
};

const FINDINGS: &[FindingInfo] = &[
    finding("table.empty", &[Weight::Lost], "A document without a table was to be written as one; its text is in the finding."),
    finding(
        "table.encoding",
        &[Weight::Changed, Weight::Advice, Weight::Lost],
        "Bytes that are not UTF-8 became U+FFFD; or the encoding of a table was guessed.",
    ),
    finding("table.formatting", &[Weight::Changed], "Formatting, links and images in cells are plain text in a table as text."),
    finding("table.rows", &[Weight::Advice], "Rows of a table as text have fewer or more cells than the first."),
    finding("table.spans", &[Weight::Changed], "Merged cells are one cell and empty ones."),
    finding(
        "table.text",
        &[Weight::Lost],
        "Text beside the first table of a document was left out, and so were other tables; the words are in the finding.",
    ),
];
