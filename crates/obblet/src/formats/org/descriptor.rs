//! What there is to know about the format, and what its reader and its writer may find.

use super::{output_name, read_with, write_with};
use crate::document::{FindingInfo, Weight, finding};
use crate::formats::{Descriptor, Formulas, Headings, Images, RawHtml};

/// The format.
pub(in crate::formats) static DESCRIPTOR: Descriptor = Descriptor {
    name: "org",
    extensions: &["org"],
    media_type: "text/org",
    signatures: &[],
    lock_file_prefix: ".#",
    encoding: "text.encoding",
    raw_html: RawHtml::Foreign,
    is_published: true,
    images: Images::ByName,
    shows: &[],
    formulas: Formulas::Tex,
    headings: Headings::Text,
    has_element_rules: false,
    keeps_looks: false,
    output_name: Some(output_name),
    read: Some(|bytes, request| Ok(read_with(bytes, &request.settings.org, &request.files))),
    write: Some(|doc, request| write_with(doc, &request.settings.org, Some(request.element))),
    findings: FINDINGS,
};

const FINDINGS: &[FindingInfo] = &[
    finding("org.call", &[Weight::Lost], "A call of code was left out; what it came to is not in the file."),
    finding("org.caption", &[Weight::Changed], "A caption stands above what can have none, and was left out."),
    finding("org.citation", &[Weight::Changed], "Citations are shown by their keys."),
    finding("org.excluded", &[Weight::Changed], "The file excludes parts of itself from what is written."),
    finding("org.heading-level", &[Weight::Changed], "HTML has six levels of headings; those below became the sixth."),
    finding("org.include", &[Weight::Lost], "A file is included that was not read."),
    finding("org.latex", &[Weight::Lost, Weight::Changed], "A piece of LaTeX that is no formula came to less than it says."),
    finding("org.macro", &[Weight::Lost], "A macro is not defined, needs a clock, or comes to too much text."),
    finding("org.missing-note", &[Weight::Advice], "A note is mentioned that is not defined."),
    finding("org.missing-target", &[Weight::Changed], "A link leads to a heading or a name that is not in the file."),
    finding("org.no-syntax", &[Weight::Changed], "Org has no way to say something; the message names it, and its text is kept."),
    finding("org.other-format", &[Weight::Changed], "A piece for another format was left out."),
    finding("org.program-link", &[Weight::Changed], "A link works only in the program that wrote the file; its text is kept."),
    finding("org.select", &[Weight::Lost], "The heading or the tag that was asked for is not in the file."),
    finding("org.setting", &[Weight::Advice], "Keywords or options of the file have no effect here."),
    finding("org.too-deep", &[Weight::Changed], "Lists that stand more than 100 deep are set in no further."),
    finding("org.unclosed", &[Weight::Advice], "A block or a drawer does not end; its first line is text."),
];
