//! What there is to know about the format, and what its reader and its writer may find.

use super::{ReadOptions, WriteOptions, read, write};
use crate::document::{FindingInfo, Weight, finding};
use crate::formats::ReadError;
use crate::formats::{Descriptor, Formulas, Headings, Images, RawHtml};

/// The format.
pub(in crate::formats) static DESCRIPTOR: Descriptor = Descriptor {
    name: "word",
    extensions: &["docx", "docm", "dotx", "dotm", "doc", "dot"],
    media_type: "application/vnd.openxmlformats-officedocument.wordprocessingml.document",
    signatures: &[b"PK\x03\x04"],
    lock_file_prefix: "~$",
    encoding: "",
    raw_html: RawHtml::Embedded,
    is_published: true,
    images: Images::Held,
    shows: &[],
    formulas: Formulas::Other,
    headings: Headings::Text,
    has_element_rules: false,
    keeps_looks: true,
    output_name: None,
    read: Some(|bytes, request| {
        let options = ReadOptions {
            settings: &request.settings.word,
            fidelity: request.fidelity,
            revisions: request.revisions,
            unpacked: request.unpacked,
            keeps_source: false,
            external: request.external,
        };
        read(bytes, &options).map_err(ReadError::new)
    }),
    write: Some(|doc, request| {
        write(doc, &WriteOptions { settings: &request.settings.word, template: request.template, linked: request.html.requested })
    }),
    findings: FINDINGS,
};

const FINDINGS: &[FindingInfo] = &[
    finding(
        "word.control-characters",
        &[Weight::Changed],
        "Characters that XML has no place for became U+FFFD in a Word document.",
    ),
    finding("word.image", &[Weight::Lost], "An image can't be shown in Word documents; its alt text is kept."),
    finding(
        "word.linked-image",
        &[Weight::Changed],
        "An image is linked in a Word document and not part of it: its file was not found, or is elsewhere.",
    ),
    finding(
        "word.template",
        &[Weight::Lost],
        "The template or a part of it can't be used; the built-in design stands in its place.",
    ),
    finding("word.no-form", &[Weight::Changed], "Word documents have no form for something; the nearest one was written."),
    finding("word.columns", &[Weight::Changed], "Text that is set in columns runs in one; `exact` keeps the columns."),
    finding("word.comment", &[Weight::Lost], "Comments were left out; their words are in the finding."),
    finding("word.contents", &[Weight::Changed], "A list of contents was left out, since pages have one of their own."),
    finding("word.crop", &[Weight::Changed], "An image that is cut off at its sides is shown whole, since it can't be decoded."),
    finding(
        "word.damaged",
        &[Weight::Lost],
        "The markup or the data of a part is broken; what stands behind the fault is missing. Without a whole main part the document is refused.",
    ),
    finding("word.dead-link", &[Weight::Changed], "A link leads to a place that is not in the document."),
    finding("word.empty-paragraph", &[Weight::Advice], "Empty paragraphs make space; they were left out."),
    finding(
        "word.encoding",
        &[Weight::Advice, Weight::Lost],
        "The encoding of a part in HTML or plain text was guessed; bytes that are none of its characters are lost.",
    ),
    finding("word.entity", &[Weight::Lost], "An entity of the document's own was not expanded."),
    finding("word.field", &[Weight::Lost], "A field without a result, or one that never ends, was left out."),
    finding("word.fonts", &[Weight::Advice], "Fonts that many readers do not have."),
    finding("word.footer", &[Weight::Lost], "The header or footer of the pages was left out; its words are in the finding."),
    finding(
        "word.foreign-part",
        &[Weight::Lost],
        "A part in another format was left out; parts in HTML and in plain text are taken in.",
    ),
    finding("word.formula", &[Weight::Changed], "A formula is written as its characters in a row."),
    finding("word.header", &[Weight::Lost], "The header or footer of the pages was left out; its words are in the finding."),
    finding("word.heading-level", &[Weight::Changed], "Headings below the sixth level became headings of the sixth."),
    finding("word.heading-numbers", &[Weight::Changed], "Numbers that the program put before headings were left out."),
    finding(
        "word.hidden",
        &[Weight::Lost],
        "Hidden text and rows, and what stands in cells that another one goes on in, was left out; its words are in the finding.",
    ),
    finding("word.layout-table", &[Weight::Advice], "A table without lines only sets things beside each other."),
    finding("word.line-break", &[Weight::Advice], "A line break stands within a sentence."),
    finding(
        "word.list-numbers",
        &[Weight::Changed],
        "A list has numbers that lists in HTML do not show so, such as `1.2` or `Article I`.",
    ),
    finding("word.local-link", &[Weight::Advice], "A link leads to a file of one computer."),
    finding("word.nested-link", &[Weight::Lost], "A link holds nothing but another link; its address was left out."),
    finding(
        "word.numbered-heading",
        &[Weight::Changed],
        "A numbered paragraph in bold that is a list of its own became a heading.",
    ),
    finding(
        "word.object",
        &[Weight::Lost, Weight::Changed],
        "A chart, a diagram or an object of another program can't be shown, or is shown as its image.",
    ),
    finding("word.page-break", &[Weight::Changed], "Breaks of pages, columns and sections were left out."),
    finding("word.page-number", &[Weight::Changed], "Numbers of pages were left out of headers and footers that are kept."),
    finding(
        "word.metafile",
        &[Weight::Changed],
        "Metafiles, which no browser shows, were drawn anew as SVG; the message names what of them could not be.",
    ),
    finding("word.part-size", &[Weight::Lost], "A part is too large for the package, and was left out."),
    finding("word.picture", &[Weight::Lost], "An image is not in the document."),
    finding(
        "word.picture-format",
        &[Weight::Changed, Weight::Lost],
        "An image was turned into PNG; or browsers can't show it, and it was left out; `images.keep-unknown` puts its file beside the page.",
    ),
    finding("word.revisions", &[Weight::Advice], "The document has tracked changes that are neither accepted nor rejected."),
    finding("word.skipped-level", &[Weight::Advice], "A heading leaves out a level on the way down."),
    finding("word.spaces", &[Weight::Advice], "Text is aligned with spaces or with tabs."),
    finding("word.symbol", &[Weight::Lost], "A character of a symbol font has no counterpart in Unicode."),
    finding("word.tab-stops", &[Weight::Changed], "In `exact`, tab stops that style rules can't show became equal distances."),
    finding("word.tabs", &[Weight::Advice], "Text is aligned with spaces or with tabs."),
    finding("word.text-box", &[Weight::Changed], "Text boxes stand behind the paragraphs that they are fixed to."),
    finding("word.title", &[Weight::Advice], "The document says nowhere what its title is."),
];
