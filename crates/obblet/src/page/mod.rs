//! From a fragment to a finished page: frame, look, contents list, pictures.

#[cfg(feature = "frames")]
mod access;
#[cfg(feature = "frames")]
mod assemble;
#[cfg(feature = "frames")]
mod contents;
mod findings;
#[cfg(feature = "frames")]
mod frame;
#[cfg(feature = "highlight")]
mod highlight;
pub(crate) mod images;
#[cfg(feature = "frames")]
mod look;
#[cfg(feature = "frames")]
mod navigation;

pub use crate::error::PageError;
#[cfg(feature = "frames")]
pub(crate) use assemble::{assemble, finish};
pub(crate) use findings::FINDINGS;
pub use images::Placed;

/// The template of the built-in page, to begin one's own with (`page.frame`).
///
/// ```
/// assert!(obblet::page::built_in_frame().contains("<title>"));
/// ```
#[cfg(feature = "frames")]
#[must_use]
pub const fn built_in_frame() -> &'static str {
    frame::FRAME
}

/// The style rules of a look, to begin one's own with (`page.stylesheets`); none for the look `none`.
///
/// # Errors
/// Where no look has the name.
#[cfg(feature = "frames")]
pub fn rules_of_look(name: &str) -> Result<Option<String>, crate::error::Error> {
    look::stylesheet(name)
}

#[cfg(feature = "publish")]
pub(crate) use navigation::{NavLink, Navigation};

#[cfg(feature = "frames")]
use crate::context::Context;
use crate::document::{Direction, Document, Finding, Kind, NamedStyle, NodeId, NoteId, Property, STYLE_NAME, Step, needs_name};
use crate::fast_hash::HashSet;
use crate::formats::Anchors;
use crate::formats::html::{self, Characters, HeadingEntry, Highlighter};
use crate::profile::{Profile, Styling};
use std::collections::BTreeMap;

/// The title of a page: the setting, the metadata, the first heading, the name of the file.
pub(crate) fn title(doc: &Document, profile: &Profile, name: &str) -> String {
    let given = Some(profile.page.title.clone()).filter(|title| !title.is_empty());
    given.or_else(|| doc.metadata.title.clone()).or_else(|| doc.first_heading()).unwrap_or_else(|| name.to_owned())
}

/// What colours code, where that is asked for and built in.
pub(crate) fn highlighter(profile: &Profile) -> Option<Highlighter<'static>> {
    #[cfg(feature = "highlight")]
    if profile.page.highlight {
        return Some(&highlight::classes);
    }
    let _ = profile;
    None
}

/// The content of a page and all that its frame says of it: what has to be known to put the page together.
#[derive(Clone, Debug, Default)]
#[cfg_attr(feature = "serde", derive(serde::Serialize, serde::Deserialize))]
#[cfg(feature = "frames")]
pub(crate) struct Content {
    pub(crate) title: String,
    /// Whether the title stands above the content, which has no heading of its own for it.
    pub(crate) shows_title: bool,
    pub(crate) subtitle: String,
    pub(crate) authors: Vec<String>,
    pub(crate) date: String,
    pub(crate) language: String,
    pub(crate) direction: String,
    pub(crate) description: String,
    pub(crate) keywords: Vec<String>,
    pub(crate) metadata: BTreeMap<String, String>,
    pub(crate) headings: Vec<HeadingEntry>,
    /// How deep the list of contents goes, where the document says it.
    pub(crate) contents: Option<u8>,
    /// The style rules of the document's own styles.
    pub(crate) rules: String,
    /// Whether the text looks like its source, which was set on a light ground.
    pub(crate) as_source: bool,
    /// Markup of the document for the head, where it is trusted.
    pub(crate) head: String,
    pub(crate) body: String,
}

/// What the writer reported a page beside its markup.
#[derive(Debug, Default)]
#[cfg(feature = "frames")]
pub(crate) struct WriteReport {
    pub(crate) findings: Vec<Finding>,
    pub(crate) anchors: Anchors,
}

/// Writes the content of a page. `unmentioned` are the notes that are written although nothing mentions them, where not all
/// of them are.
#[cfg(feature = "frames")]
pub(crate) fn content(
    doc: &Document,
    profile: &Profile,
    context: &Context<'_>,
    safe_pictures: &[NodeId],
    unmentioned: Option<&[NoteId]>,
) -> (Content, WriteReport) {
    let name = if context.name.is_empty() { "Untitled" } else { context.name };
    let title = title(doc, profile, name);
    let has_top_heading = doc.walk(doc.root()).any(|step| matches!(step, Step::Enter(id) if doc.kind(id) == Kind::Heading(1)));
    let is_titled = doc.metadata.title.is_some() || !profile.page.title.is_empty();
    let top_heading = if has_top_heading || is_titled { None } else { lone_first_heading(doc) };
    // Every page has a heading of the first level, but for one that looks like its source, and one without a name.
    let needs_title = profile.styling != Styling::Exact && (!context.name.is_empty() || doc.first_heading().is_some());
    let shows_title = !has_top_heading && top_heading.is_none() && (is_titled || needs_title);
    let mut options = profile.html_options(html::Ids::Headings);
    options.highlight = highlighter(profile);
    options.lists = html::Lists::HEADINGS;
    options.lists.set(html::Lists::IDS, context.shared.is_some());
    options.requested = Some(context.external().names());
    options.level_above = u8::from(shows_title);
    options.top_heading = top_heading;
    options.context = html_context(profile);
    options.taken_ids = frame::IDS;
    options.safe_pictures = safe_pictures;
    options.unmentioned = unmentioned;
    let mut written = html::write(doc, &options);
    let metadata = &doc.metadata;
    let said = metadata.language.clone().filter(|tag| crate::language_tag::is_well_formed(tag));
    let recognised = if said.is_none() { recognised_language(doc) } else { None };
    if let Some(found) = recognised {
        let message = format!("nothing says the language of the page; its text is in \"{found}\", and the page says so");
        let finding = Finding::advice("page.language", message);
        written
            .findings
            .push(finding.hint("set page.language, or say it in the document: language in front matter, #+LANGUAGE in Org"));
    }
    let language = said.or_else(|| recognised.map(str::to_owned));
    if language.is_none() {
        written.findings.push(
            Finding::advice("page.language", "the page does not say what language it is in")
                .hint("set page.language, or say it in the document: language in front matter, #+LANGUAGE in Org"),
        );
    }
    written.findings.extend(access::findings(doc));
    let trusts_head = profile.formats.html.trust == html::Trust::Own;
    if !metadata.head.is_empty() && !trusts_head {
        let message = format!("lines for the head of the page were left out: {}", metadata.head.lines().count());
        let hint = "html.trust writes them, where the source is your own; page.stylesheets and page.head add what all pages have";
        written.findings.push(Finding::changed("page.head", message).hint(hint));
    }
    let direction = metadata.direction.filter(|way| *way != Direction::Auto).map(Direction::value);
    let description = Some(&profile.page.description).filter(|text| !text.is_empty()).or(metadata.description.as_ref());
    let anchors = Anchors::of_html(&mut written);
    let content = Content {
        title,
        shows_title,
        subtitle: metadata.subtitle.clone().unwrap_or_default(),
        authors: authors(doc, profile),
        date: metadata.date.clone().unwrap_or_default(),
        language: language.unwrap_or_default(),
        direction: direction.unwrap_or_default().to_owned(),
        description: description.cloned().unwrap_or_default(),
        keywords: metadata.keywords.clone(),
        metadata: metadata.other.iter().cloned().collect(),
        headings: written.headings,
        contents: metadata.presentation.contents,
        rules: named_styles(doc, profile.formats.html.characters, scope(profile)).unwrap_or_default(),
        as_source: doc.styles.iter().any(|style| style.class.is_empty()),
        head: if trusts_head { metadata.head.clone() } else { String::new() },
        body: written.html,
    };
    (content, WriteReport { anchors, findings: written.findings })
}

/// The language that the text of a document is in, where nothing says it.
#[cfg(all(feature = "frames", feature = "recognise"))]
fn recognised_language(doc: &Document) -> Option<&'static str> {
    crate::recognise::language_of(doc)
}

/// The language that the text of a document is in, where nothing says it: this build does not recognise any.
#[cfg(all(feature = "frames", not(feature = "recognise")))]
const fn recognised_language(_: &Document) -> Option<&'static str> {
    None
}

#[cfg(feature = "frames")]
fn authors(doc: &Document, profile: &Profile) -> Vec<String> {
    if profile.page.author.is_empty() { doc.metadata.authors.clone() } else { vec![profile.page.author.clone()] }
}

/// What the writer is to know of a page: only looks let wide things scroll.
#[cfg(feature = "frames")]
pub(crate) fn html_context(profile: &Profile) -> html::Context {
    if profile.page.look == "none" { html::Context::Page } else { html::Context::ScrollingPage }
}

/// The heading that a document begins with, where no other is of its level or a higher one: it is the title.
#[cfg(feature = "frames")]
fn lone_first_heading(doc: &Document) -> Option<NodeId> {
    let first = doc.node(doc.root()).first_child()?;
    let Kind::Heading(level) = doc.kind(first) else { return None };
    let is_above = |step| match step {
        Step::Enter(id) if id != first => matches!(doc.kind(id), Kind::Heading(other) if other <= level),
        _ => false,
    };
    (!doc.plain_text(first).trim().is_empty() && !doc.walk(doc.root()).any(is_above)).then_some(first)
}

/// What the style rules of a document hold for.
#[derive(Clone, Copy, Debug, PartialEq, Eq)]
pub(crate) enum Scope<'s> {
    /// The whole page.
    Page,
    /// The main content of a page whose look says how it is laid out.
    Main,
    /// A part of a page that other documents stand on as well, by its id.
    Part(&'s str),
}

#[cfg(feature = "frames")]
fn scope(profile: &Profile) -> Scope<'static> {
    if profile.page.look == "none" { Scope::Page } else { Scope::Main }
}

/// The rules of the named styles that something in the document has.
pub(crate) fn named_styles(doc: &Document, characters: Characters, scope: Scope<'_>) -> Option<String> {
    if doc.styles.is_empty() {
        return None;
    }
    let mut used = HashSet::default();
    for top in doc.roots() {
        for step in doc.walk(top) {
            if let Step::Enter(id) = step
                && doc.node(id).has_attributes()
            {
                used.extend(doc.attributes(id).classes.iter().map(|&class| doc.text(class)));
            }
        }
    }
    // Names and values of sources are written only where they can be nothing else.
    let is_name = |name: &str| !name.is_empty() && name.chars().all(|c| c.is_ascii_alphanumeric() || matches!(c, '-' | '_'));
    let is_value = |value: &str| {
        value.chars().all(|c| c.is_alphanumeric() || matches!(c, '-' | '.' | ' ' | '#' | '%' | ',' | '(' | ')' | '"'))
            && value.matches('"').count().is_multiple_of(2)
    };
    let mut rules = String::new();
    let (whole, before, prefix) = match scope {
        Scope::Page => ("body".to_owned(), String::new(), String::new()),
        Scope::Main => ("main".to_owned(), String::new(), String::new()),
        Scope::Part(id) => (format!("#{id}"), format!("#{id} "), format!("{id}-")),
    };
    // A style without a class is that of the whole page.
    let is_used = |style: &&NamedStyle| style.class.is_empty() || (is_name(&style.class) && used.contains(style.class.as_str()));
    for style in doc.styles.iter().filter(is_used) {
        let properties = style
            .properties
            .iter()
            .map(|(property, value)| (*property, value.to_string()))
            .filter(|(name, value)| *name != Property::TabStops && is_value(value))
            // Where the text stands on the page is for the look to say.
            .filter(|(name, _)| {
                scope == Scope::Page || !style.class.is_empty() || !matches!(name, Property::Margin | Property::Padding)
            });
        let mut declarations: Vec<String> = properties.map(|(name, value)| format!("{}: {value}", name.css_name())).collect();
        if let Some(numbers) = style.numbers.as_ref().filter(|numbers| is_name(&numbers.like) && !style.class.is_empty()) {
            let (class, like) = (&style.class, &numbers.like);
            let (before, after) = (css_string(&numbers.before), css_string(&numbers.after));
            let rule =
                format!("@counter-style {prefix}{class} {{ system: extends {like}; prefix: {before}; suffix: {after} }}\n");
            rules.push_str(&rule);
            declarations.insert(0, format!("list-style-type: {prefix}{class}"));
        }
        if !style.name.is_empty() && !style.class.is_empty() && needs_name(&style.name, &style.class) {
            declarations.insert(0, format!("{STYLE_NAME}: {}", css_string(&style.name)));
        }
        if !declarations.is_empty() {
            let selector = if style.class.is_empty() { whole.clone() } else { format!("{before}.{}", style.class) };
            let part = if style.of_marker { "::marker" } else { "" };
            rules.push_str(&format!("{selector}{part} {{ {} }}\n", declarations.join("; ")));
        }
    }
    let rules = if characters == Characters::Ascii { css_to_ascii(&rules) } else { rules };
    (!rules.is_empty()).then_some(rules)
}

/// Any characters as a string of a style sheet, which may stand in an element of either syntax (CSS Syntax, section 4.3.7).
fn css_string(text: &str) -> String {
    let mut out = String::with_capacity(text.len() + 2);
    out.push('"');
    for c in text.chars() {
        match c {
            '"' | '\\' | '<' | '>' | '&' => out.push_str(&format!("\\{:X} ", c as u32)),
            c if c.is_control() => {}
            c => out.push(c),
        }
    }
    out.push('"');
    out
}

fn css_to_ascii(text: &str) -> String {
    text.chars().map(|c| if c.is_ascii() { c.to_string() } else { format!("\\{:X} ", c as u32) }).collect()
}
