//! What is in a document, before anything is done to it: its outline, what it holds, where its links lead, how long it is,
//! and what will be found when it is converted.

mod advice;
mod counts;
mod findings;
pub(crate) use findings::FINDINGS;
mod folder;
mod links;
mod problems;

pub use counts::Counts;
pub use folder::{FolderInspection, Unreadable, inspect_folder};
pub use links::{LinkSummary, TroubledLink};
pub use problems::{Occurrence, Problem, problems};

use crate::context::Context;
use crate::document::{Document, Finding, Kind, Metadata, Place, Step};
use crate::error::Error;
use crate::formats::{Format, html};
use crate::profile::{Profile, Shape};

use serde::Serialize;
use std::collections::BTreeMap;

/// One heading.
#[derive(Clone, Debug, PartialEq, Eq, Serialize)]
pub struct OutlineEntry {
    /// Its level, from 1.
    pub level: u8,
    /// Its text.
    pub text: String,
    /// Where it is.
    pub place: Place,
}

/// How long a document is.
#[derive(Clone, Copy, Debug, Default, PartialEq, Eq, Serialize)]
pub struct Sizes {
    /// Bytes of the source.
    pub bytes: usize,
    /// Characters of the source, markup counted.
    pub with_markup: usize,
    /// Characters that a reader sees.
    pub without_markup: usize,
    /// Words that a reader sees.
    pub words: usize,
}

/// What there is to know about a document.
#[derive(Clone, Debug, Serialize)]
pub struct Inspection {
    /// The name of its format.
    pub format: &'static str,
    /// What it says of itself.
    pub metadata: BTreeMap<&'static str, String>,
    /// Its headings.
    pub outline: Vec<OutlineEntry>,
    /// What it holds.
    pub counts: Counts,
    /// Where its links lead.
    pub links: LinkSummary,
    /// How long it is.
    pub sizes: Sizes,
    /// Classes, and styles of word processors, and how often each is used.
    pub styles: BTreeMap<String, usize>,
    /// What will be found when it is converted with the profile.
    pub findings: Vec<Finding>,
    /// For HTML, faults against the standard.
    pub faults: Vec<Finding>,
}

/// Looks at a document without changing anything.
///
/// ```
/// use obblet::inspect::inspect;
/// use obblet::{Format, Context, profile::Profile};
///
/// let profile = Profile::built_in("page")?;
/// let source = b"# Tides\n\nHigh at six, [see](#spring).\n";
/// let inspection = inspect(source, Format::Markdown, &profile, &Context::default())?;
/// assert_eq!((inspection.outline[0].text.as_str(), inspection.sizes.words), ("Tides", 5));
/// assert_eq!(inspection.links.troubled[0].address, "#spring");
/// # Ok::<(), obblet::Error>(())
/// ```
///
/// # Errors
/// Where the format can't be read, or the source is too large.
pub fn inspect(source: &[u8], format: Format, profile: &Profile, context: &Context<'_>) -> Result<Inspection, Error> {
    let mut wanted = profile.clone();
    if profile.shape == Shape::Auto {
        wanted.shape = Shape::Page;
    }
    // Classes are part of what is in a document, whatever becomes of them.
    let mut with_classes = wanted.clone();
    with_classes.styling = crate::profile::Styling::Named;
    let mut doc = crate::pipeline::read_in(source, format, &with_classes, context)?;
    if format != Format::Markdown || wanted.formats.html.raw == html::Raw::Clean {
        html::open_raw(&mut doc);
    }
    let advice = advice::analyze(&doc);
    let text = String::from_utf8_lossy(source);
    let faults = if format == Format::Html {
        html::check(&html::decode(source, Some(wanted.formats.html.encoding.as_str()).filter(|label| !label.is_empty())))
    } else {
        Vec::new()
    };
    let seen: String = doc.roots().into_iter().map(|top| doc.plain_text(top)).collect::<Vec<_>>().join("\n");
    let sizes = Sizes {
        bytes: source.len(),
        with_markup: text.chars().count(),
        without_markup: seen.split_whitespace().map(|word| word.chars().count() + 1).sum::<usize>().saturating_sub(1),
        words: seen.split_whitespace().filter(|word| word.chars().any(char::is_alphanumeric)).count(),
    };
    let inspection = Inspection {
        format: format.name(),
        metadata: metadata(&doc.metadata),
        outline: outline(&doc),
        counts: Counts::of(&doc),
        links: links::analyze(&doc, context),
        sizes,
        styles: styles(&doc),
        findings: Vec::new(),
        faults,
    };
    let converted = crate::pipeline::convert_in(source, format, Format::Html, &wanted, context)?;
    let mut findings = converted.findings;
    let more: Vec<Finding> =
        advice.into_iter().filter(|finding| findings.iter().all(|known| known.code != finding.code)).collect();
    findings.extend(more);
    Ok(Inspection { findings, ..inspection })
}

fn metadata(metadata: &Metadata) -> BTreeMap<&'static str, String> {
    let mut known = BTreeMap::new();
    let mut add = |name: &'static str, value: Option<String>| {
        if let Some(value) = value.filter(|value| !value.is_empty()) {
            known.insert(name, value);
        }
    };
    add("title", metadata.title.clone());
    add("subtitle", metadata.subtitle.clone());
    add("authors", Some(metadata.authors.join(", ")));
    add("date", metadata.date.clone());
    add("language", metadata.language.clone());
    add("description", metadata.description.clone());
    add("keywords", Some(metadata.keywords.join(", ")));
    known
}

fn outline(doc: &Document) -> Vec<OutlineEntry> {
    doc.walk(doc.root())
        .filter_map(|step| match step {
            Step::Enter(id) => match doc.kind(id) {
                Kind::Heading(level) => {
                    let text = doc.heading_text(id).split_whitespace().collect::<Vec<_>>().join(" ");
                    Some(OutlineEntry { level, text, place: doc.place(id) })
                }
                _ => None,
            },
            Step::Leave(_) => None,
        })
        .collect()
}

fn styles(doc: &Document) -> BTreeMap<String, usize> {
    let mut styles: BTreeMap<String, usize> = BTreeMap::new();
    for top in doc.roots() {
        for step in doc.walk(top) {
            if let Step::Enter(id) = step
                && doc.node(id).has_attributes()
            {
                for &class in &doc.attributes(id).classes {
                    *styles.entry(doc.text(class).to_owned()).or_default() += 1;
                }
            }
        }
    }
    styles
}
