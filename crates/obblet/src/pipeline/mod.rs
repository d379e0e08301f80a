//! The one way that a conversion goes, for one document and for folders: read, passes, images placed, write, finish.
//!
//! | Stage | What happens | Where |
//! |:------|:-------------|:------|
//! | read | bytes become a document; parts are left out | [`read`] |
//! | refine | the passes run, in their order; [`passes`] lists them | [`refine()`], [`run_pass`] |
//! | place | images go where the profile wants them | [`place`] |
//! | write | the document becomes bytes | [`write()`] |
//!
//! [`convert`] and [`convert_in`] run all of them. Between the stages a conversion can be cancelled.

mod bibliography;
mod length;
mod steps;

pub use steps::{PassInfo, Stage, passes};

use crate::context::{Context, Converted, OutputFile};
use crate::document::{Document, Finding, Kind, KindSet, NodeId};
use crate::error::Error;
use crate::formats::markdown::FormulaForm;
use crate::formats::{Anchors, Format, Formulas, Headings, RawHtml, WriteRequest, html};
use crate::page::{self, Placed};
use crate::profile::{Profile, Shape};
use crate::refine::rules::leave_out::{Selector, leave_out};
use crate::refine::{self, When, passes as all};
use crate::signature;

/// Converts a document in memory.
///
/// ```
/// use obblet::{Format, convert, profile::Profile};
///
/// let converted = convert(b"# Tides\n\nHigh at *six*.", Format::Markdown, Format::Html, &Profile::fragment())?;
/// assert_eq!(converted.text(), Some("<h1>Tides</h1>\n<p>High at <em>six</em>.</p>\n"));
/// # Ok::<(), obblet::Error>(())
/// ```
///
/// # Errors
/// Where a format can't be read or written, the source is too large, or a file that a setting names can't be used.
pub fn convert(source: &[u8], reads: Format, writes: Format, profile: &Profile) -> Result<Converted, Error> {
    convert_in(source, reads, writes, profile, &Context::default())
}

/// Converts a document that has something around it: files, links to other documents, somebody who waits.
///
/// # Errors
/// As [`convert`], and [`Error::Cancelled`] where [`Context::progress`] says so.
pub fn convert_in(
    source: &[u8],
    reads: Format,
    writes: Format,
    profile: &Profile,
    context: &Context<'_>,
) -> Result<Converted, Error> {
    context.reached(Stage::Read)?;
    let profile = &*profile.for_target(writes);
    let doc = read_in(source, reads, profile, context)?;
    write(doc, writes, profile, context)
}

/// Reads a document into the model.
///
/// # Errors
/// Where the format can't be read, or the source is too large.
pub fn read(source: &[u8], format: Format, profile: &Profile) -> Result<Document, Error> {
    read_in(source, format, profile, &Context::default())
}

/// Reads a document into the model that has something around it: files that it includes, others that lead to places of it.
///
/// # Errors
/// As [`read`].
pub fn read_in(source: &[u8], format: Format, profile: &Profile, context: &Context<'_>) -> Result<Document, Error> {
    let (mut doc, unused) = read_parts(source, format, profile, context)?;
    for selector in unused {
        let found = Finding::advice("clean.leave-out", format!("clean.leave-out: nothing matches {selector}"));
        doc.push_finding(found.hint("inspect shows headings, styles and classes"));
    }
    Ok(doc)
}

/// Reads a document of a folder into the model: what all documents leave out need not be in each.
pub(crate) fn read_of_folder(source: &[u8], format: Format, profile: &Profile, context: &Context<'_>) -> Result<Document, Error> {
    read_parts(source, format, profile, context).map(|(doc, _)| doc)
}

/// Reads those parts of a document into the model that are not to be left out, and gives the selectors that fit none.
fn read_parts(source: &[u8], format: Format, profile: &Profile, context: &Context<'_>) -> Result<(Document, Vec<String>), Error> {
    let size = source.len() as u64;
    if size > profile.limits.source {
        return Err(Error::TooLarge { size, limit: profile.limits.source });
    }
    let descriptor = format.descriptor();
    if let Some(what) = Some(descriptor.encoding)
        .filter(|encoding| !encoding.is_empty())
        .and_then(|encoding| signature::not_text(source, profile.has_text(encoding)))
    {
        return Err(Error::NotText { what, hint: signature::hint(what) });
    }
    let reader = descriptor.read.ok_or(Error::NotRead { format: format.name() })?;
    let request = profile.read_request(context);
    let mut doc = reader(source, &request)?;
    bibliography::resolve(&mut doc, &request.files);
    if descriptor.raw_html == RawHtml::Embedded && profile.clean.runs("embedded-html") {
        html::open_raw(&mut doc);
    }
    let mut unused = Vec::new();
    if !profile.clean.leave_out.is_empty() && profile.clean.runs("leave-out") {
        if profile.formats.html.raw == html::Raw::Clean {
            html::open_raw_with(&mut doc, true);
        }
        let selectors: Vec<Selector> = profile.clean.leave_out.iter().filter_map(|text| Selector::read(text)).collect();
        unused = leave_out(&mut doc, &selectors);
        if !profile.keeps_classes() {
            // They were read for the selectors only.
            refine::rules::attributes::drop_classes(&mut doc);
        }
    }
    Ok((doc, unused))
}

/// Runs the passes, in their order: makes a document what a profile wants it to be before it is written in a format.
pub fn refine(doc: &mut Document, writes: Format, profile: &Profile, context: &Context<'_>) {
    let cleaning = &profile.clean;
    if !profile.page.language.is_empty() {
        doc.metadata.language = Some(profile.page.language.clone());
    }
    let names_targets = || {
        profile.formats.html.raw == html::Raw::Clean
            && doc.nodes().any(|(_, node)| match node.kind() {
                Kind::RawBlock { raw, .. } | Kind::Raw { raw, .. } => refine::targets::may_be_in(doc.text(raw)),
                _ => false,
            })
    };
    let has_targets = cleaning.runs("targets") && doc.may_hold(KindSet::RAW) && names_targets();
    if opens_raw_html(writes, profile) || has_targets {
        html::open_raw_with(doc, profile.keeps_classes());
    }
    if cleaning.runs("targets") {
        refine::targets::select(doc, writes.name());
    }
    let as_text = writes == Format::Markdown && profile.formats.markdown.formulas == FormulaForm::Text;
    if cleaning.runs("references") {
        if as_text || writes.descriptor().formulas != Formulas::Tex {
            refine::equations::number(doc);
        } else {
            refine::equations::refer_by_labels(doc);
        }
        refine::references::resolve(doc);
    }
    if as_text {
        refine::equations::to_text(doc);
    }
    // Behind the raw HTML, whose text is text like any other now.
    refine::clean_linked(doc, cleaning, context.external());
    if let Some(links) = context.links.filter(|_| cleaning.runs("links")) {
        refine::links::redirect(doc, links);
    }
    if writes.descriptor().has_element_rules {
        refine::restrict(doc, cleaning);
    }
    if cleaning.runs("structure") {
        refine::structure::repair(doc);
    }
    if writes.descriptor().headings == Headings::Counted {
        refine::heading_numbers::take_out(doc);
    }
    if writes != Format::Text {
        let options = profile.html_options(html::Ids::Used);
        let opened =
            html::open_refused(doc, options.trusts(), if writes == Format::Html { options.mends } else { html::Mends::empty() });
        if opened && cleaning.noise.formatting != When::Never && cleaning.runs("formatting") {
            // Text on both sides of a link that has gone is one piece.
            refine::formatting::tidy(doc);
        }
    }
}

/// Whether raw HTML is opened before the passes run.
fn opens_raw_html(writes: Format, profile: &Profile) -> bool {
    writes.descriptor().raw_html != RawHtml::Native
        && profile.formats.html.raw == html::Raw::Clean
        && profile.clean.runs("raw-html")
}

/// Runs a single pass by its name, whatever else there is. [`passes`] lists the names.
///
/// ```
/// use obblet::{Context, Format, pipeline, profile::Profile};
///
/// let mut profile = Profile::fragment();
/// profile.set("clean.quotes=typographic")?;
/// let mut doc = pipeline::read(b"\"High\" water", Format::Markdown, &profile)?;
/// assert!(pipeline::run_pass(&mut doc, "typography", &profile, &Context::default()));
/// assert_eq!(doc.plain_text(doc.root()), "\u{201C}High\u{201D} water");
/// assert!(!pipeline::run_pass(&mut doc, "no-such-pass", &profile, &Context::default()));
/// # Ok::<(), obblet::Error>(())
/// ```
pub fn run_pass(doc: &mut Document, name: &str, profile: &Profile, context: &Context<'_>) -> bool {
    match name {
        "raw-html" | "embedded-html" => html::open_raw_with(doc, profile.keeps_classes()),
        "leave-out" => {
            let selectors: Vec<Selector> = profile.clean.leave_out.iter().filter_map(|text| Selector::read(text)).collect();
            leave_out(doc, &selectors);
        }
        "links" => {
            if let Some(links) = context.links {
                refine::links::redirect(doc, links);
            }
        }
        "targets" => refine::targets::select(doc, Format::Html.name()),
        "references" => refine::references::resolve(doc),
        "structure" => refine::structure::repair(doc),
        _ => match all::LINES.iter().chain(&all::NOISE).chain(all::TEXT).chain(&all::ELEMENTS).find(|pass| pass.name == name) {
            Some(pass) => pass.run(doc, &profile.clean, context.external()),
            None => return false,
        },
    }
    true
}

/// Puts the images of a document where the profile wants them, as the format that is written shows them.
pub fn place(doc: &mut Document, writes: Format, profile: &Profile, context: &Context<'_>) -> Placed {
    page::images::place(doc, writes, profile, context)
}

/// Runs the passes over a document, and writes it with what the profile asks for around it.
///
/// # Errors
/// Where the format can't be written, or a file that a setting names can't be used.
pub fn write(mut doc: Document, writes: Format, profile: &Profile, context: &Context<'_>) -> Result<Converted, Error> {
    if !writes.is_written() {
        return Err(Error::NotWritten { format: writes.name() });
    }
    context.reached(Stage::Refine)?;
    refine(&mut doc, writes, profile, context);
    context.reached(Stage::Place)?;
    let placed = place(&mut doc, writes, profile, context);
    context.reached(Stage::Write)?;
    let mut converted = write_placed(&mut doc, writes, profile, context, &placed)?;
    converted.files.splice(..0, placed.files);
    converted.uses = placed.uses;
    converted.includes = std::mem::take(&mut doc.source.includes);
    let mut findings = std::mem::take(&mut doc.findings);
    findings.append(&mut converted.findings);
    findings.sort_by_key(|finding| finding.place);
    converted.findings = findings;
    Ok(converted)
}

/// Writes a document that is refined, and whose images are where they go.
///
/// # Errors
/// As [`write()`].
pub fn write_placed(
    doc: &mut Document,
    writes: Format,
    profile: &Profile,
    context: &Context<'_>,
    placed: &Placed,
) -> Result<Converted, Error> {
    let mut converted = if writes == Format::Html && profile.shape != Shape::Fragment {
        write_page(doc, profile, context, &placed.safe)?
    } else {
        write_alone(doc, writes, profile, context, placed)?
    };
    if converted.title.is_empty() {
        converted.title = page::title(doc, profile, "");
    }
    if let Some(length) = length::measure(doc, &converted, writes, profile) {
        converted.length = Some(length);
    }
    Ok(converted)
}

#[cfg(feature = "frames")]
fn write_page(doc: &Document, profile: &Profile, context: &Context<'_>, safe_images: &[NodeId]) -> Result<Converted, Error> {
    page::finish(doc, profile, context, safe_images)
}

#[cfg(not(feature = "frames"))]
fn write_page(_: &Document, _: &Profile, _: &Context<'_>, _: &[NodeId]) -> Result<Converted, Error> {
    Err(crate::error::PageError::NoFrames.into())
}

/// Writes a document in a format, without a page around it.
fn write_alone(
    doc: &Document,
    writes: Format,
    profile: &Profile,
    context: &Context<'_>,
    placed: &Placed,
) -> Result<Converted, Error> {
    let writer = writes.descriptor().write.ok_or(Error::NotWritten { format: writes.name() })?;
    let options = html::Options {
        safe_pictures: &placed.safe,
        highlight: page::highlighter(profile),
        lists: if context.shared.is_some() { html::Lists::IDS } else { html::Lists::empty() },
        requested: Some(context.external().names()),
        ..profile.html_options(html::Ids::Used)
    };
    let ids = if profile.formats.markdown.ids { html::Ids::Used } else { html::Ids::None };
    let settings_within = html::Settings { compact: false, indent: 0, ids: Some(ids), ..profile.formats.html.clone() };
    let settings_with_ids = html::Settings { ids: Some(html::Ids::Used), ..settings_within.clone() };
    let mut within = html::Options { settings: &settings_within, ..profile.html_options(ids) };
    within.mends.remove(html::Mends::HEADING_STEPS);
    let with_ids = html::Options { settings: &settings_with_ids, ..within };
    let element = |doc: &Document, id: NodeId, ids: bool| html::write_part(doc, id, if ids { &with_ids } else { &within });
    let template = template(writes, profile, context)?;
    let written = writer(
        doc,
        &WriteRequest {
            fragment: profile.shape == Shape::Fragment,
            missing_images: &placed.missing,
            template: template.as_deref(),
            settings: &profile.formats,
            extension: context.extension,
            html: &options,
            element: &element,
        },
    );
    let mut converted =
        Converted { bytes: written.bytes, findings: written.findings, anchors: written.anchors, ..Converted::default() };
    if writes == Format::Html {
        put_styles_beside(doc, profile, context, &mut converted);
    }
    Ok(converted)
}

/// The document whose design is taken over.
fn template(writes: Format, profile: &Profile, context: &Context<'_>) -> Result<Option<Vec<u8>>, Error> {
    match template_of(writes, profile) {
        Some((setting, path)) => crate::cache::bytes(context.shared, setting, path).map(Some),
        None => Ok(None),
    }
}

/// The setting that names the document whose design is taken over, and the file.
pub(crate) fn template_of(writes: Format, profile: &Profile) -> Option<(&'static str, &std::path::Path)> {
    match writes {
        #[cfg(feature = "word")]
        Format::Word => profile.formats.word.template.as_deref().map(|path| ("word.template", path)),
        Format::Latex => profile.formats.latex.preamble.as_deref().map(|path| ("latex.preamble", path)),
        _ => None,
    }
}

/// A fragment has no place for the rules of its classes; they go beside it.
fn put_styles_beside(doc: &Document, profile: &Profile, context: &Context<'_>, converted: &mut Converted) {
    let Some(rules) = page::named_styles(doc, profile.formats.html.characters, page::Scope::Page) else { return };
    let hint = if context.output.is_some() && !context.name.is_empty() {
        let path = std::path::PathBuf::from(format!("{}.css", context.name));
        let hint = format!("link to {} from the page that the fragment goes to", path.display());
        converted.files.push(OutputFile { path, bytes: rules.into_bytes() });
        hint
    } else {
        "write it to a file to get the rules as a stylesheet beside it".to_owned()
    };
    let message = "the fragment uses classes; their style rules are not part of it";
    converted.findings.push(Finding::advice("html.style-rules", message).hint(hint));
}

#[cfg(feature = "frames")]
impl Anchors {
    /// Anchors as a writer of HTML gives them.
    pub(crate) fn of_html(written: &mut html::Written) -> Self {
        Self {
            ids: std::mem::take(&mut written.ids),
            unreferenced: std::mem::take(&mut written.unreferenced),
            external: std::mem::take(&mut written.external),
        }
    }
}
