//! What there is to know about the format, and what its reader and its writer may find.

use super::{ReadOptions, read, write};
use crate::document::{FindingInfo, Weight, finding};
use crate::formats::Anchors;
use crate::formats::{Descriptor, Formulas, Headings, Images, RawHtml, Written};

/// The format.
pub(in crate::formats) static DESCRIPTOR: Descriptor = Descriptor {
    name: "html",
    extensions: &["html", "htm", "xhtml", "xht"],
    media_type: "text/html",
    signatures: &[],
    lock_file_prefix: "",
    encoding: "html.encoding",
    raw_html: RawHtml::Foreign,
    is_published: true,
    images: Images::ByAddress,
    shows: &[],
    formulas: Formulas::Other,
    headings: Headings::Text,
    has_element_rules: true,
    keeps_looks: false,
    output_name: None,
    read: Some(|bytes, request| {
        let options = ReadOptions {
            settings: &request.settings.html,
            classes: request.classes,
            formatting_classes: request.formatting_classes,
            fidelity: request.fidelity,
        };
        Ok(read(bytes, &options))
    }),
    write: Some(|doc, request| {
        let written = write(doc, request.html);
        let anchors = Anchors { ids: written.ids, unreferenced: written.unreferenced, external: written.external };
        Written { bytes: written.html.into_bytes(), findings: written.findings, anchors }
    }),
    findings: FINDINGS,
};

const FINDINGS: &[FindingInfo] = &[
    finding(
        "check.*",
        &[Weight::Changed, Weight::Advice],
        "Faults in the markup of an HTML source, which `obblet inspect` reports; see below.",
    ),
    finding(
        "html.address",
        &[Weight::Lost, Weight::Changed],
        "No browser takes the address of a link or an image: its text stays; or a slip in it was mended, such as a missing slash.",
    ),
    finding(
        "html.around-content",
        &[Weight::Changed],
        "What stands around the main content was left out, as `html.content = \"main\"` asks.",
    ),
    finding("html.control-characters", &[Weight::Changed], "Characters that HTML forbids became U+FFFD."),
    finding(
        "html.icon",
        &[Weight::Changed],
        "Small drawings without words in headings, links, buttons and callouts were left out.",
    ),
    finding("html.math", &[Weight::Changed], "Something in a formula can't be parsed; its source is shown there."),
    finding("html.drawing", &[Weight::Changed], "A drawing that is only decoration was left out; its words are in the finding."),
    finding("html.duplicate-id", &[Weight::Changed], "Several elements have the same id; only the first keeps it."),
    finding(
        "html.embedded",
        &[Weight::Changed],
        "A page, a sound or a film within the page became a link to it; of an object, what stands in its place was kept.",
    ),
    finding(
        "html.encoding",
        &[Weight::Advice, Weight::Lost],
        "The encoding of a page was guessed, or is not what the page says; bytes that are none of its characters are lost.",
    ),
    finding("html.form", &[Weight::Lost], "Fields of forms were left out; what they say is in the finding."),
    finding("html.formula", &[Weight::Changed], "A formula is not well made; its characters are kept as text."),
    finding("html.handler", &[Weight::Lost], "Handlers of events were left out."),
    finding(
        "html.heading-level",
        &[Weight::Changed],
        "A heading left out a level on the way down and got the one in between; or it is the title of its page and became one of the first level.",
    ),
    finding("html.hidden", &[Weight::Lost], "Parts that style rules hide were left out; their words are in the finding."),
    finding("html.page-break", &[Weight::Changed], "Page breaks of style rules were left out."),
    finding("html.program-data", &[Weight::Changed], "What a program keeps for itself in a page was left out."),
    finding("html.raw", &[Weight::Lost], "Raw HTML was left out, as `html.raw = \"drop\"` asks."),
    finding(
        "html.raw-running",
        &[Weight::Changed],
        "Raw HTML that may run script, or that is not whole, is shown as text, although `html.raw = \"keep\"` asks for it as it is; `html.trust` does that.",
    ),
    finding("html.remark", &[Weight::Lost], "Remarks of reviewers were left out; their words are in the finding."),
    finding("html.script", &[Weight::Lost], "A script was left out."),
    finding("html.structure", &[Weight::Changed], "Parts stand where HTML does not let them and were moved."),
    finding("html.style", &[Weight::Changed], "Style rules within the text were left out."),
    finding("html.style-rules", &[Weight::Advice], "A fragment has classes; their style rules are in a file beside it."),
    finding("html.tabs", &[Weight::Advice], "Text is aligned with tabs."),
    finding(
        "html.too-deep",
        &[Weight::Changed, Weight::Lost],
        "Raw HTML that is nested too deeply is shown as text; in pages, tags that stand more than 512 deep are left out.",
    ),
    finding("html.unknown-element", &[Weight::Lost], "A tag is none of HTML's; it was left out and its content kept."),
    finding("html.unsafe-link", &[Weight::Lost], "The address of a link can run script; the link's text is kept."),
    finding("html.unsafe-picture", &[Weight::Lost], "The address of an image can run script; the alt text is kept."),
    finding("note.unmentioned", &[Weight::Advice], "Nothing mentions a note; it stands behind the others."),
];
