//! One document from one format to another.

use crate::document::{Document, Finding, Kind, NodeId};
use crate::error::Error;
use crate::formats::{Format, html, markdown};
use crate::page;
use crate::profile::{Dialect, HeadingLevels, Profile, Shape};
use crate::refine;
use std::path::{Path, PathBuf};

/// What becomes of a link.
#[derive(Clone, Debug, PartialEq, Eq)]
pub enum LinkTarget {
    /// It stays as it is.
    Stays,
    /// It leads to another address.
    Leads(String),
    /// There is nothing at its address.
    Missing {
        /// The address that is nearest to it, where one is near.
        nearest: Option<String>,
    },
}

/// Tells where links lead after conversion. A folder that is published has one that knows its documents.
pub trait Links {
    /// What becomes of an address in a document.
    fn resolve(&self, address: &str) -> LinkTarget;
}

/// What stands around a document. All of it may be left out: then nothing is read but the text itself.
#[derive(Clone, Copy, Default)]
pub struct Surroundings<'a> {
    /// The name of the document's file, without its extension.
    pub name: &'a str,
    /// The folder of the source, from which the addresses of pictures count.
    pub folder: Option<&'a Path>,
    /// The folder that nothing may be read outside of; the folder of the source where it is not given.
    pub root: Option<&'a Path>,
    /// The folder that the output goes to, where it goes to a file.
    pub output: Option<&'a Path>,
    /// The way from the output to the top of what it is part of, as in `../`.
    pub to_top: &'a str,
    /// Whether files keep their places: the output is a folder of the same shape as the source.
    pub mirrored: bool,
    /// Tells where links lead.
    pub links: Option<&'a dyn Links>,
}

impl std::fmt::Debug for Surroundings<'_> {
    fn fmt(&self, f: &mut std::fmt::Formatter<'_>) -> std::fmt::Result {
        f.debug_struct("Surroundings").field("name", &self.name).field("folder", &self.folder).finish_non_exhaustive()
    }
}

/// A file that belongs to an output.
#[derive(Clone, Debug, PartialEq, Eq)]
pub struct OutputFile {
    /// Where it goes, from the folder of the output.
    pub path: PathBuf,
    /// Its bytes.
    pub bytes: Vec<u8>,
}

/// The outcome of a conversion.
#[derive(Clone, Debug, Default)]
pub struct Converted {
    /// The document in its new format.
    pub text: String,
    /// What the user should know.
    pub findings: Vec<Finding>,
    /// Files that go with it.
    pub files: Vec<OutputFile>,
    /// Its title.
    pub title: String,
}

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
    convert_in(source, reads, writes, profile, &Surroundings::default())
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
    surroundings: &Surroundings<'_>,
) -> Result<Converted, Error> {
    let doc = read(source, reads, profile)?;
    write(doc, writes, profile, surroundings)
}

/// Reads a document into the model.
///
/// # Errors
/// Where the format can't be read, or the source is too large.
pub fn read(source: &[u8], format: Format, profile: &Profile) -> Result<Document, Error> {
    let size = source.len() as u64;
    if size > profile.limits.source {
        return Err(Error::TooLarge { size, limit: profile.limits.source });
    }
    match format {
        Format::Markdown => Ok(markdown::read(source, &profile.markdown.options())),
        Format::Html => Err(Error::NotRead { format: format.name() }),
    }
}

/// Writes a document, with what the profile asks for around it.
///
/// # Errors
/// Where the format can't be written, or a file that a setting names can't be used.
pub fn write(mut doc: Document, format: Format, profile: &Profile, surroundings: &Surroundings<'_>) -> Result<Converted, Error> {
    if format != Format::Html {
        return Err(Error::NotWritten { format: format.name() });
    }
    if !profile.page.language.is_empty() {
        doc.metadata.language = Some(profile.page.language.clone());
    }
    refine::typography::set(&mut doc, profile.clean.quotes, profile.clean.dashes);
    if profile.html.raw == html::Raw::Clean {
        html::open_raw(&mut doc);
    }
    if let Some(links) = surroundings.links {
        refine::links::redirect(&mut doc, links);
    }
    let placed = page::images::place(&mut doc, profile, surroundings);
    let mut converted = match profile.shape {
        Shape::Fragment => fragment(&doc, profile, &placed.safe),
        Shape::Page | Shape::Auto => page::finish(&doc, profile, surroundings, &placed.safe)?,
    };
    converted.files.splice(..0, placed.files);
    let mut findings = std::mem::take(&mut doc.findings);
    findings.append(&mut converted.findings);
    findings.sort_by_key(|finding| finding.place);
    converted.findings = findings;
    Ok(converted)
}

fn fragment(doc: &Document, profile: &Profile, safe_pictures: &[NodeId]) -> Converted {
    let written = html::write(doc, &html::Options { safe_pictures, ..html_options(profile, html::Ids::Used) });
    let title = page::title(doc, profile, "");
    Converted { text: written.html, findings: written.findings, files: Vec::new(), title }
}

/// The options of the HTML writer that a profile asks for.
pub(crate) fn html_options<'h>(profile: &Profile, ids: html::Ids) -> html::Options<'h> {
    let exact = profile.shape == Shape::Fragment && profile.markdown.dialect == Dialect::Commonmark;
    html::Options {
        syntax: profile.html.syntax,
        characters: profile.html.characters,
        indent: profile.html.indent,
        compact: profile.html.compact,
        ids: profile.html.ids.unwrap_or(ids),
        raw: profile.html.raw,
        tag_filter: profile.markdown.tag_filter.unwrap_or(profile.markdown.dialect == Dialect::Github),
        trust: profile.html.trust,
        heading_numbers: profile.html.heading_numbers,
        heading_steps: match profile.html.heading_levels {
            HeadingLevels::Steps => true,
            HeadingLevels::Source => false,
            HeadingLevels::Auto => !exact,
        },
        highlight: page::highlighter(profile),
        ..html::Options::default()
    }
}

/// The first heading of a document.
pub(crate) fn first_heading(doc: &Document) -> Option<String> {
    doc.walk(doc.root()).find_map(|step| match step {
        crate::document::Step::Enter(id) if matches!(doc.kind(id), Kind::Heading(_)) => {
            let text = doc.plain_text(id).split_whitespace().collect::<Vec<_>>().join(" ");
            Some(text).filter(|text| !text.is_empty())
        }
        _ => None,
    })
}
