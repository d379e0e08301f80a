//! One document from one format to another.

use crate::context::{Context, Converted, Length, LinkResolver, OutputFile};
use crate::document::{Document, Finding, NodeId};
use crate::error::Error;
use crate::formats::{Format, html, markdown, text, word};
use crate::page;
use crate::profile::{Profile, Shape};
use crate::refine;
use crate::refine::rules::leave_out::{Selector, leave_out};
use crate::signature;
use std::collections::BTreeSet;

/// Converts a document in memory.
///
/// ```
/// use obblet::{Format, convert, profile::Profile};
///
/// let profile = Profile::built_in("fragment")?;
/// let converted = convert(b"# Tides\n\nHigh at *six*.", Format::Markdown, Format::Html, &profile)?;
/// assert_eq!(converted.text, "<h1>Tides</h1>\n<p>High at <em>six</em>.</p>\n");
/// # Ok::<(), obblet::Error>(())
/// ```
///
/// # Errors
/// Where a format can't be read or written, the source is too large, or a file that a setting names can't be used.
pub fn convert(source: &[u8], reads: Format, writes: Format, profile: &Profile) -> Result<Converted, Error> {
    convert_in(source, reads, writes, profile, &Context::default())
}

/// Converts a document that has files around it.
///
/// # Errors
/// As [`convert`].
pub fn convert_in(
    source: &[u8],
    reads: Format,
    writes: Format,
    profile: &Profile,
    context: &Context<'_>,
) -> Result<Converted, Error> {
    let doc = read(source, reads, profile)?;
    write(doc, writes, profile, context)
}

/// Reads a document into the model.
///
/// # Errors
/// Where the format can't be read, or the source is too large.
pub fn read(source: &[u8], format: Format, profile: &Profile) -> Result<Document, Error> {
    let (mut doc, unused) = read_parts(source, format, profile, &BTreeSet::new())?;
    for selector in unused {
        let found = Finding::advice("clean.leave-out", format!("nothing was left out: nothing in the document fits {selector}"));
        doc.push_finding(found.hint("inspect shows headings, styles and classes"));
    }
    Ok(doc)
}

/// Reads a document into the model; `wanted` are names of places in it that others lead to.
pub(crate) fn read_wanted(
    source: &[u8],
    format: Format,
    profile: &Profile,
    wanted: &BTreeSet<String>,
) -> Result<Document, Error> {
    read_parts(source, format, profile, wanted).map(|(doc, _)| doc)
}

/// Reads those parts of a document into the model that are not to be left out, and gives the selectors that fit none.
fn read_parts(
    source: &[u8],
    format: Format,
    profile: &Profile,
    wanted: &BTreeSet<String>,
) -> Result<(Document, Vec<String>), Error> {
    let size = source.len() as u64;
    if size > profile.limits.source {
        return Err(Error::TooLarge { size, limit: profile.limits.source });
    }
    let encoded = match format {
        Format::Html => !profile.html.encoding.is_empty(),
        _ => !profile.text.encoding.is_empty(),
    };
    if format != Format::Word
        && let Some(what) = signature::not_text(source, encoded)
    {
        return Err(Error::NotText { what, hint: signature::hint(what) });
    }
    let mut doc = match format {
        Format::Markdown => markdown::read(source, &profile.markdown.options()),
        Format::Html => html::read(source, &profile.html_read_options()),
        Format::Text => text::read(source, &profile.text_read_options()),
        Format::Word => word::read(source, &profile.word_read_options(wanted))?,
    };
    if format == Format::Word {
        // What stands in such a document in HTML is text that its program shows like any other.
        html::open_raw(&mut doc);
    }
    if !wanted.is_empty() {
        doc.layout_hints.external_anchors.requested.clone_from(wanted);
    }
    let mut unused = Vec::new();
    if !profile.clean.leave_out.is_empty() {
        if profile.html.raw == html::Raw::Clean {
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

/// Makes a document what a profile wants it to be before it is written.
pub(crate) fn refined(doc: &mut Document, format: Format, profile: &Profile, links: Option<&dyn LinkResolver>) {
    if !profile.page.language.is_empty() {
        doc.metadata.language = Some(profile.page.language.clone());
    }
    if format != Format::Markdown && profile.html.raw == html::Raw::Clean {
        html::open_raw_with(doc, profile.keeps_classes());
    }
    // Behind the raw HTML, whose text is text like any other now.
    refine::clean(doc, &profile.clean);
    if let Some(links) = links {
        refine::links::redirect(doc, links);
    }
    if format == Format::Html {
        refine::restrict(doc, &profile.clean);
    }
    refine::structure::repair(doc);
}

/// Writes a document, with what the profile asks for around it.
///
/// # Errors
/// Where the format can't be written, or a file that a setting names can't be used.
pub fn write(mut doc: Document, format: Format, profile: &Profile, context: &Context<'_>) -> Result<Converted, Error> {
    if !format.is_written() {
        return Err(Error::NotWritten { format: format.name() });
    }
    refined(&mut doc, format, profile, context.links);
    let placed = page::images::place(&mut doc, profile, context);
    let (mut converted, told) = written(&mut doc, format, profile, context, &placed.safe)?;
    converted.files.splice(..0, placed.files);
    converted.uses = placed.uses;
    let mut findings = std::mem::take(&mut doc.findings);
    findings.extend(told.findings);
    findings.append(&mut converted.findings);
    findings.sort_by_key(|finding| finding.place);
    converted.findings = findings;
    Ok(converted)
}

/// Writes a document that is refined, and whose pictures are where they go.
pub(crate) fn written(
    doc: &mut Document,
    format: Format,
    profile: &Profile,
    context: &Context<'_>,
    safe_pictures: &[NodeId],
) -> Result<(Converted, page::WriteReport), Error> {
    let mut told = page::WriteReport::default();
    let mut converted = match (format, profile.shape) {
        (Format::Markdown, _) => as_markdown(doc, profile),
        (Format::Text, _) => {
            let written = text::write(doc, &text::Options { width: profile.text.width.into() });
            Converted { text: written.text, findings: written.findings, ..Converted::default() }
        }
        (Format::Html, Shape::Fragment) => fragment(doc, profile, safe_pictures, context, &mut told),
        (Format::Word, _) => return Err(Error::NotWritten { format: format.name() }),
        (Format::Html, Shape::Page | Shape::Auto) => page::finish(doc, profile, context, safe_pictures)?,
    };
    if converted.title.is_empty() {
        converted.title = page::title(doc, profile, "");
    }
    if profile.limits.characters > 0 {
        let length = Length { used: converted.text.trim_end().chars().count() as u64, limit: profile.limits.characters };
        if length.used > length.limit {
            let found = too_long(doc, profile, format, &length);
            doc.push_finding(found);
        }
        converted.length = Some(length);
    }
    Ok((converted, told))
}

/// So many of the parts that take most are named.
const PARTS_NAMED: usize = 3;

/// What there is to say of an output that its target will not take.
fn too_long(doc: &Document, profile: &Profile, format: Format, length: &Length) -> Finding {
    let options = profile.html_options(html::Ids::None);
    let size_of = |part| match format {
        Format::Html => html::write_part(doc, part, &options).chars().count() as u64,
        _ => doc.plain_text(part).chars().count() as u64,
    };
    let mut parts: Vec<(u64, NodeId)> = doc.children(doc.root()).map(|part| (size_of(part), part)).collect();
    let mut used = 0;
    let passing = parts.iter().find(|(size, _)| {
        used += size;
        used > length.limit
    });
    let ends = match passing {
        Some(&(_, part)) => format!("; it is full within {}", excerpt(doc, part)),
        None if !doc.notes.is_empty() => "; it is full within the notes".to_owned(),
        None => String::new(),
    };
    parts.sort_by_key(|&(size, _)| std::cmp::Reverse(size));
    let named: Vec<String> =
        parts.iter().take(PARTS_NAMED).map(|&(size, part)| format!("{} ({size})", excerpt(doc, part))).collect();
    let over = length.used - length.limit;
    Finding::lost(
        "limit.characters",
        format!(
            "the output takes {} characters, {over} more than the {} that there is room for{ends}",
            length.used, length.limit
        ),
    )
    .hint(format!("what takes most: {}", named.join("; ")))
}

/// What a part is and how it begins.
fn excerpt(doc: &Document, part: NodeId) -> String {
    let text = doc.plain_text(part);
    let words: Vec<&str> = text.split_whitespace().take(5).collect();
    let element = match doc.kind(part).element() {
        "" => "text".to_owned(),
        element => format!("<{element}>"),
    };
    if words.is_empty() { element } else { format!("{element} {}", words.join(" ")) }
}

fn as_markdown(doc: &Document, profile: &Profile) -> Converted {
    let ids = if profile.markdown.ids { html::Ids::Used } else { html::Ids::None };
    let options = html::Options { compact: false, indent: 0, heading_steps: false, ids, ..profile.html_options(ids) };
    let with_ids = html::Options { ids: html::Ids::Used, ..options };
    let element = |doc: &Document, id: NodeId, ids: bool| html::write_part(doc, id, if ids { &with_ids } else { &options });
    let options = markdown::WriteOptions { element: Some(&element), ..profile.markdown.write_options() };
    let written = markdown::write(doc, &options);
    Converted { text: written.text, findings: written.findings, ..Converted::default() }
}

fn fragment(
    doc: &Document,
    profile: &Profile,
    safe_pictures: &[NodeId],
    context: &Context<'_>,
    told: &mut page::WriteReport,
) -> Converted {
    let options = html::Options {
        safe_pictures,
        highlight: page::highlighter(profile),
        list_ids: context.shared.is_some(),
        requested: Some(&doc.layout_hints.external_anchors.requested),
        ..profile.html_options(html::Ids::Used)
    };
    let written = html::write(doc, &options);
    (told.ids, told.unreferenced, told.external) = (written.ids, written.unreferenced, written.external);
    let mut converted = Converted { text: written.html, findings: written.findings, ..Converted::default() };
    // A fragment has no place for the rules of its classes; they go beside it.
    if let Some(rules) = page::named_styles(doc, profile.html.characters, page::Scope::Page) {
        let hint = if context.output.is_some() && !context.name.is_empty() {
            let path = std::path::PathBuf::from(format!("{}.css", context.name));
            let hint = format!("link {} from the page that it goes to", path.display());
            converted.files.push(OutputFile { path, bytes: rules.into_bytes() });
            hint
        } else {
            "write it to a file, and the rules are put beside it".to_owned()
        };
        let message = "the fragment has classes whose style rules stand apart";
        converted.findings.push(Finding::advice("html.style-rules", message).hint(hint));
    }
    converted
}
