//! The settings of plain text, read and written.

use super::{ParagraphEnds, Patterns};
use crate::settings::{Choice, Declared, Setting, bit, choice, number, parse::is_encoding, text};

/// What formulas are in plain text.
#[derive(Clone, Copy, Debug, Default, PartialEq, Eq)]
pub enum MathLine {
    /// Their source in TeX.
    #[default]
    Tex,
    /// A line of characters.
    Text,
}

impl Choice for MathLine {
    const CHOICES: &'static [(&'static str, Self)] = &[("tex", Self::Tex), ("text", Self::Text)];
}

/// Settings of plain text.
#[derive(Clone, Debug, PartialEq, Eq)]
pub struct Settings {
    /// Lines of plain text are no longer than this; 0 for one line a paragraph.
    pub width: u16,
    /// The encoding of plain text sources, as in windows-1252.
    pub encoding: String,
    /// Where paragraphs of plain text end: at empty lines, at each line end, or as the text shows by itself.
    pub paragraphs: ParagraphEnds,
    /// What formulas are in plain text output: their source in TeX, or a line of characters.
    pub math: MathLine,
    /// What is recognised.
    pub patterns: Patterns,
}

impl Settings {
    /// The settings where nobody says others.
    pub(super) const USUAL: Self = Self {
        width: 80,
        encoding: String::new(),
        paragraphs: ParagraphEnds::Auto,
        math: MathLine::Tex,
        patterns: Patterns::all(),
    };
}

impl Default for Settings {
    fn default() -> Self {
        Self::USUAL
    }
}

/// [`Settings::USUAL`], to lend.
pub(super) static USUAL: Settings = Settings::USUAL;

impl Declared for Settings {
    const SETTINGS: &'static [Setting<Self>] = &[
        number!("text.width", width, 0 to 1000, "Lines of plain text are no longer than this; 0 for one line a paragraph."),
        text!(
            "text.encoding",
            encoding,
            "the name of an encoding",
            is_encoding,
            "The encoding of plain text sources, as in windows-1252. Without one, the byte order mark is asked, and then it is guessed."
        ),
        choice!(
            "text.paragraphs",
            ParagraphEnds,
            paragraphs,
            "Where paragraphs of plain text end: at empty lines, at each line end, or as the text shows by itself."
        ),
        choice!(
            "text.math",
            MathLine,
            math,
            "What formulas are in plain text output: their source in TeX, or a line of characters."
        ),
        bit!("text.lists", patterns, Patterns::LISTS, "Whether typed bullets and numbers of plain text make lists."),
        bit!(
            "text.headings",
            patterns,
            Patterns::HEADINGS,
            "Whether a title, chapters and underlined lines of plain text make headings."
        ),
        bit!("text.links", patterns, Patterns::LINKS, "Whether addresses in plain text are links."),
        bit!("text.emphasis", patterns, Patterns::EMPHASIS, "Whether text between underscores in plain text are emphasised."),
    ];
}

impl Choice for ParagraphEnds {
    const CHOICES: &'static [(&'static str, Self)] =
        &[("auto", Self::Auto), ("blank-line", Self::BlankLine), ("line", Self::Line)];
}
