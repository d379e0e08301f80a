//! Reading text without markup: manuscripts and notes, pasted or saved.
//!
//! Blocks are found in the order that leaves least to chance: lines between scenes, underlined and chapter headings, lists, text
//! that is lined up in columns, and what is left is paragraphs. A line end within a paragraph is white space where the line is
//! as long as the text is wide, and a line break where the next word would have fitted.

mod blocks;
mod headings;
mod inlines;
mod lines;

use super::Settings;
use crate::document::{Document, Measure, NamedStyle, Producer, Property, SourceMap, StyleProperties, Value};
use crate::encoding;
use blocks::Blocks;

/// Where a paragraph ends.
#[derive(Clone, Copy, Debug, Default, PartialEq, Eq)]
pub enum ParagraphEnds {
    /// As the text shows: at empty lines where it has some, at indented lines, else at each line.
    #[default]
    Auto,
    /// At empty lines.
    BlankLine,
    /// At the end of each line.
    Line,
}

bitflags::bitflags! {
    /// What is recognised in text without markup.
    #[derive(Clone, Copy, Debug, Default, PartialEq, Eq, Hash)]
    pub struct Patterns: u8 {
        /// Typed bullets and numbers make lists.
        const LISTS = 1 << 0;
        /// Underlined lines, chapters and a title make headings.
        const HEADINGS = 1 << 1;
        /// Addresses are links.
        const LINKS = 1 << 2;
        /// Words between underscores are emphasised.
        const EMPHASIS = 1 << 3;
    }
}

/// How text is read.
#[derive(Clone, Copy, Debug)]
pub struct ReadOptions<'o> {
    /// The settings of the format.
    pub settings: &'o Settings,
    /// Whether titles, chapters and their like get classes, with style rules for them.
    pub classes: bool,
}

impl Default for ReadOptions<'_> {
    fn default() -> Self {
        Self { settings: &super::settings::USUAL, classes: false }
    }
}

/// Class, name and margins of a style, and whether it begins a page.
type Style = (&'static str, &'static str, &'static [Measure], bool);

/// The styles that a manuscript has.
const STYLES: [Style; 4] = [
    ("title", "Title", &[Measure::Ems(300), Measure::Ems(0), Measure::Ems(50)], false),
    ("author", "Author", &[Measure::Ems(0), Measure::Ems(0), Measure::Ems(300)], false),
    ("chapter", "Chapter", &[Measure::Ems(300), Measure::Ems(0), Measure::Ems(150)], true),
    ("part", "Part", &[Measure::Ems(400), Measure::Ems(0), Measure::Ems(200)], true),
];

/// What such a style sets.
fn properties_of(margins: &[Measure], breaks: bool) -> StyleProperties {
    let mut properties =
        vec![(Property::TextAlign, Value::Keyword("center")), (Property::Margin, Value::Lengths(margins.to_vec()))];
    if breaks {
        properties.push((Property::BreakBefore, Value::Keyword("page")));
    }
    properties
}

/// Reads text. Any bytes are text; what is doubtful about them is in the findings.
///
/// ```
/// use obblet::document::Kind;
/// use obblet::formats::text;
///
/// let doc = text::read(b"CHAPTER ONE\n\nHigh water\nat six.\n", &text::ReadOptions::default());
/// let heading = doc.node(doc.root()).first_child().unwrap();
/// assert_eq!(doc.kind(heading), Kind::Heading(1));
/// assert_eq!(doc.plain_text(doc.root()), "CHAPTER ONE\nHigh water\nat six.");
/// ```
#[must_use]
pub fn read(bytes: &[u8], options: &ReadOptions<'_>) -> Document {
    let (source, doubt) = encoding::decode(
        bytes,
        Some(options.settings.encoding.as_str()).filter(|label| !label.is_empty()),
        "text.encoding",
        |_| None,
    );
    let source = lines::with_plain_ends(&source);
    let length = source.len();
    let mut doc = Document::with_pool(source.into_owned(), length / 32 + 16);
    doc.source = SourceMap::of_text(length).read_from(bytes, doc.pool());
    doc.findings.extend(doubt);
    // Spaces are all that people have to set text with.
    doc.layout_hints.producer = Producer::Styled;
    doc.layout_hints.reads_typed_lists = true;
    let lines = lines::lines(doc.pool());
    Blocks::new(&mut doc, options, &lines).read();
    let text = doc.pool()[..length].to_owned();
    doc.end_blocks_with_lines(&text);
    doc.order_spans();
    if options.classes {
        let used =
            |class: &str| doc.nodes().any(|(id, _)| doc.attributes(id).classes.iter().any(|&known| doc.text(known) == class));
        doc.styles = STYLES
            .into_iter()
            .filter(|(class, ..)| used(class))
            .map(|(class, name, margins, breaks)| NamedStyle {
                name: name.to_owned(),
                class: class.to_owned(),
                properties: properties_of(margins, breaks),
                ..NamedStyle::default()
            })
            .collect();
    }
    doc
}
