//! Writing Markdown: blocks line by line, with the prefixes of what they stand in; the text of each in one piece, since
//! whether a character has to be escaped depends on what stands around it.

mod blocks;
mod emphasis;
mod escape;
mod front_matter;
mod heading_slugs;
mod inline_token;
mod inline_tokens;
mod inlines;
mod table;
mod table_head;
mod tags;

use super::{Settings, Syntax};
use crate::document::{Document, Finding, NodeId, Place};
use crate::fast_hash::HashMap;
use crate::formats::markdown::Extensions;
use crate::indent_writer::Lines;
use crate::refine::structure;
use std::collections::BTreeMap;

/// What formulas are.
#[derive(Clone, Copy, Debug, Default, PartialEq, Eq)]
pub enum FormulaForm {
    /// TeX between dollar signs.
    #[default]
    Tex,
    /// A line of characters.
    Text,
}

/// The mark of list items.
#[derive(Clone, Copy, Debug, Default, PartialEq, Eq)]
pub enum Bullet {
    /// `-`
    #[default]
    Hyphen,
    /// `*`
    Asterisk,
    /// `+`
    Plus,
}

/// The mark of emphasis.
#[derive(Clone, Copy, Debug, Default, PartialEq, Eq)]
pub enum EmphasisMark {
    /// `*`
    #[default]
    Asterisk,
    /// `_`
    Underscore,
}

/// What stands above and below code blocks.
#[derive(Clone, Copy, Debug, Default, PartialEq, Eq)]
pub enum Fence {
    /// `` ``` ``
    #[default]
    Backticks,
    /// `~~~`
    Tildes,
}

/// The form of headings (CommonMark, sections 4.2 and 4.3).
#[derive(Clone, Copy, Debug, Default, PartialEq, Eq)]
pub enum HeadingForm {
    /// `# Tides`
    #[default]
    Atx,
    /// A line of `=` or `-` below the headings of the first two levels.
    Setext,
}

/// Where the addresses of links stand.
#[derive(Clone, Copy, Debug, Default, PartialEq, Eq)]
pub enum LinkForm {
    /// `[text](address)`
    #[default]
    Inline,
    /// `[text][1]`, and definitions at the end.
    Reference,
}

/// What becomes of things that Markdown has no syntax for.
#[derive(Clone, Copy, Debug, Default, PartialEq, Eq)]
pub enum HtmlPieces {
    /// They are written as HTML.
    #[default]
    Keep,
    /// Their text is kept.
    Drop,
}

pub use crate::formats::ElementWriter;

/// How Markdown is written.
#[derive(Clone, Copy, Default)]
pub struct WriteOptions<'w> {
    /// The settings of the format.
    pub settings: Settings,
    /// Writes blocks that Markdown has no syntax for. Without it their text is kept.
    pub element: Option<ElementWriter<'w>>,
}

impl std::fmt::Debug for WriteOptions<'_> {
    fn fmt(&self, f: &mut std::fmt::Formatter<'_>) -> std::fmt::Result {
        f.debug_struct("WriteOptions").field("settings", &self.settings).finish_non_exhaustive()
    }
}

/// What is asked of the writer, and the syntax that it comes to.
struct Resolved<'w> {
    settings: Settings,
    syntax: Syntax,
    element: Option<ElementWriter<'w>>,
}

/// Markdown, and what the user should know about it.
#[derive(Clone, Debug, Default)]
pub struct Written {
    /// The text.
    pub text: String,
    /// Findings of the writing.
    pub findings: Vec<Finding>,
}

/// Writes a document as Markdown. Reading the text again gives the same document, as far as Markdown can say it; what it
/// can't say is in the findings.
///
/// ```
/// use obblet::document::{Document, Kind};
/// use obblet::formats::markdown;
///
/// let mut doc = Document::new();
/// let paragraph = doc.append(doc.root(), Kind::Paragraph);
/// doc.append_text(paragraph, "2 * 3 is ");
/// let strong = doc.append(paragraph, Kind::Strong);
/// doc.append_text(strong, "*6*");
/// let written = markdown::write(&doc, &markdown::WriteOptions::default());
/// assert_eq!(written.text, "2 * 3 is **\\*6\\***\n");
/// ```
#[must_use]
pub fn write(doc: &Document, options: &WriteOptions<'_>) -> Written {
    let WriteOptions { settings, element } = *options;
    let options = &Resolved { settings, syntax: settings.syntax(), element };
    let (mut doc, findings) = structure::repaired(doc);
    if let Some(byline) = doc.repeated_byline().filter(|_| options.syntax.has(Extensions::FRONT_MATTER)) {
        // The front matter says the same.
        doc.mend(|doc| doc.detach(byline));
    }
    let slugs = heading_slugs::slugs(&doc);
    let keeps_places = options.settings.html == HtmlPieces::Keep && !options.settings.ids;
    let places = if keeps_places { heading_slugs::without_heading(&doc, &slugs) } else { Vec::new() };
    let has_places = !places.is_empty();
    if has_places {
        doc.mend(|doc| heading_slugs::set_places(doc, places));
    }
    let mut writer = Writer::new(&doc, options);
    writer.has_places = has_places;
    if options.syntax.has(Extensions::FRONT_MATTER) {
        front_matter::write(&mut writer);
    }
    writer.slugs = slugs;
    writer.tree(doc.root());
    writer.write_notes();
    writer.write_definitions();
    writer.finish(findings)
}

/// Writes one document.
struct Writer<'d, 'o> {
    doc: &'d Document,
    options: &'o Resolved<'o>,
    out: Lines,
    frames: Vec<blocks::Frame>,
    /// Pieces of text that are done with, kept for their memory.
    spare_tokens: Vec<inline_token::Token<'d>>,
    /// Labels of notes.
    labels: Vec<String>,
    /// Addresses and titles of reference links, in order.
    definitions: Vec<(String, usize)>,
    definition_numbers: HashMap<String, usize>,
    /// What headings are linked to by, for those whose id is another.
    slugs: HashMap<String, String>,
    /// Whether there are places that links lead to, which are written as HTML.
    has_places: bool,
    /// What could not be said, how often, and where first.
    no_syntax: BTreeMap<&'static str, (usize, Place)>,
    /// Heads of tables that only their words tell, and where the first is.
    guessed_heads: Option<(usize, Place)>,
}

impl<'d, 'o> Writer<'d, 'o> {
    fn new(doc: &'d Document, options: &'o Resolved<'o>) -> Self {
        Self {
            doc,
            options,
            out: Lines::with_capacity(doc.pool().len() / 2 + 64),
            frames: vec![blocks::Frame::default()],
            spare_tokens: Vec::new(),
            labels: labels(doc),
            definitions: Vec::new(),
            definition_numbers: HashMap::default(),
            slugs: HashMap::default(),
            has_places: false,
            no_syntax: BTreeMap::new(),
            guessed_heads: None,
        }
    }

    /// Counts a thing that Markdown has no way to say.
    fn no_syntax(&mut self, what: &'static str, node: NodeId) {
        let doc = self.doc;
        self.no_syntax.entry(what).or_insert_with(|| (0, doc.place(node))).0 += 1;
    }

    fn finish(self, mut findings: Vec<Finding>) -> Written {
        findings.extend(self.no_syntax.into_iter().map(|(what, (count, place))| {
            let count = if count > 1 { format!(" ({count} times)") } else { String::new() };
            Finding::changed("markdown.no-syntax", format!("Markdown has no syntax for {what}{count}")).at(place)
        }));
        findings.extend(self.guessed_heads.map(|(count, place)| {
            let message = format!("first rows read as heads of their tables, and became some: {count}");
            Finding::changed("markdown.table-head", message).at(place)
        }));
        if self.out.was_too_deep() {
            findings
                .push(Finding::changed("markdown.too-deep", "block quotes and lists nested too deeply are not indented further"));
        }
        Written { text: self.out.finish(), findings }
    }
}

/// A label for each note: the one that the source gave, where it can stand in brackets and nothing else has it.
fn labels(doc: &Document) -> Vec<String> {
    let mut taken = crate::fast_hash::HashSet::default();
    let mut labels = Vec::new();
    for (index, note) in doc.notes.iter().enumerate() {
        let fits = !note.label.is_empty() && note.label.chars().all(|c| c.is_alphanumeric() || matches!(c, '-' | '_' | '.'));
        let mut label = if fits { note.label.clone() } else { (index + 1).to_string() };
        let mut number = doc.notes.len();
        while !taken.insert(label.to_lowercase()) {
            number += 1;
            label = number.to_string();
        }
        labels.push(label);
    }
    labels
}
