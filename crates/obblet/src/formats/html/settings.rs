//! The settings of HTML, read and written.

use super::{Characters, Content, Ids, Raw, Syntax};
use crate::settings::{Choice, Declared, Setting, choice, flag, number, parse::is_encoding, text};

/// Which levels headings have.
#[derive(Clone, Copy, Debug, Default, PartialEq, Eq)]
pub enum HeadingLevels {
    /// In steps, except in fragments of CommonMark.
    #[default]
    Auto,
    /// Never leaving out a level on the way down.
    Steps,
    /// As in the source.
    Source,
}

/// Whether a source is somebody's own.
#[derive(Clone, Copy, Debug, Default, PartialEq, Eq)]
pub enum Trust {
    /// It may come from anybody: what could run is left out.
    #[default]
    Strangers,
    /// It is one's own: what can run is carried over.
    Own,
}

impl From<bool> for Trust {
    fn from(trusts: bool) -> Self {
        if trusts { Self::Own } else { Self::Strangers }
    }
}

impl From<Trust> for bool {
    fn from(trust: Trust) -> Self {
        trust == Trust::Own
    }
}

/// What formulas are in HTML output.
#[derive(Clone, Copy, Debug, Default, PartialEq, Eq)]
pub enum MathForm {
    /// MathML, with the source in TeX as an annotation.
    #[default]
    MathMl,
    /// The source in TeX, as code.
    Tex,
    /// A line of characters.
    Text,
}

/// Settings of HTML, read and written.
#[derive(Clone, Debug, PartialEq, Eq)]
pub struct Settings {
    /// The syntax that is written: HTML, or the XML form that e-readers and XML tools want.
    pub syntax: Syntax,
    /// Which characters are written as themselves; with ascii, all others become character references.
    pub characters: Characters,
    /// Spaces for each level of blocks.
    pub indent: u8,
    /// Whether blocks follow each other without line breaks.
    pub compact: bool,
    /// Lines of text are no longer than this where there is a space to break them at; 0 breaks none.
    pub width: u16,
    /// What becomes of raw HTML in the source: written as it is, parsed and made valid and safe, shown as text, or left out with findings.
    pub raw: Raw,
    /// Whether active content is kept: addresses that run script, raw HTML that html.raw keeps, drawings and files as they are.
    pub trust: Trust,
    /// Which headings get an id: those that something points to, all of them, or none.
    pub ids: Option<Ids>,
    /// Whether a heading that leaves out a level on the way down gets the level in between, as the standard's outline wants it.
    pub heading_levels: HeadingLevels,
    /// Whether headings get numbers, as in 2.1.
    pub heading_numbers: bool,
    /// What formulas are in HTML output: MathML, their source in TeX, or a line of characters.
    pub math: MathForm,
    /// The encoding of HTML sources, as in windows-1252.
    pub encoding: String,
    /// How much of an HTML source is read: all of it, or its main content without navigation, banners, sidebars and footers.
    pub content: Content,
}

impl Settings {
    /// The settings where nobody says others.
    pub(super) const USUAL: Self = Self {
        syntax: Syntax::Html,
        characters: Characters::Utf8,
        indent: 0,
        compact: false,
        width: 0,
        raw: Raw::Clean,
        trust: Trust::Strangers,
        ids: None,
        heading_levels: HeadingLevels::Auto,
        heading_numbers: false,
        math: MathForm::MathMl,
        encoding: String::new(),
        content: Content::All,
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
        choice!(
            "html.syntax",
            Syntax,
            syntax,
            "The syntax that is written: HTML, or the XML form that e-readers and XML tools want."
        ),
        choice!(
            "html.characters",
            Characters,
            characters,
            "Which characters are written as themselves; with ascii, all others become character references."
        ),
        number!("html.indent", indent, 0 to 8, "Spaces for each level of blocks. White space that means something is never touched."),
        number!(
            "html.width",
            width,
            0 to 1000,
            "Lines of text in HTML output are no longer than this where there is a space to break them at; 0 breaks none."
        ),
        flag!("html.compact", compact, "Whether blocks follow each other without line breaks."),
        choice!(
            "html.raw",
            Raw,
            raw,
            "What becomes of raw HTML in the source: written as it is, parsed and made valid and safe, shown as text, or left out with findings. What could run script is kept only where html.trust is set; else it is shown as text."
        ),
        flag!(
            "html.trust",
            trust,
            "Whether active content is kept: addresses that run script, raw HTML that html.raw keeps, drawings and files as they are. For your own documents only."
        ),
        choice!(
            "html.ids",
            Option<Ids>,
            ids,
            "Which headings get an id: those that something points to, all of them, or none. With auto, all of them in a page and the used ones in a fragment."
        ),
        choice!(
            "html.heading-levels",
            HeadingLevels,
            heading_levels,
            "Whether a heading that leaves out a level on the way down gets the level in between, as the standard's outline wants it. With auto it does, except in fragments of the CommonMark dialect."
        ),
        flag!("html.heading-numbers", heading_numbers, "Whether headings get numbers, as in 2.1."),
        choice!(
            "html.math",
            MathForm,
            math,
            "What formulas are in HTML output: MathML with their source in TeX, that source as code, or a line of characters."
        ),
        text!(
            "html.encoding",
            encoding,
            "the name of an encoding",
            is_encoding,
            "The encoding of HTML sources, as in windows-1252. Without one, the byte order mark and the page itself are asked, and then it is guessed."
        ),
        choice!(
            "html.content",
            Content,
            content,
            "How much of an HTML source is read: all of it, or its main content without navigation, banners, sidebars and footers."
        ),
    ];
}

impl Choice for Syntax {
    const CHOICES: &'static [(&'static str, Self)] = &[("html", Self::Html), ("xhtml", Self::Xhtml)];
}

impl Choice for Characters {
    const CHOICES: &'static [(&'static str, Self)] = &[("utf-8", Self::Utf8), ("ascii", Self::Ascii)];
}

impl Choice for Raw {
    const CHOICES: &'static [(&'static str, Self)] =
        &[("keep", Self::Keep), ("clean", Self::Clean), ("escape", Self::Escape), ("drop", Self::Drop)];
}

impl Choice for MathForm {
    const CHOICES: &'static [(&'static str, Self)] = &[("mathml", Self::MathMl), ("tex", Self::Tex), ("text", Self::Text)];
}

impl Choice for Content {
    const CHOICES: &'static [(&'static str, Self)] = &[("all", Self::All), ("main", Self::Main)];
}

impl Choice for Option<Ids> {
    const CHOICES: &'static [(&'static str, Self)] =
        &[("auto", None), ("used", Some(Ids::Used)), ("headings", Some(Ids::Headings)), ("none", Some(Ids::None))];
}

impl Choice for HeadingLevels {
    const CHOICES: &'static [(&'static str, Self)] = &[("auto", Self::Auto), ("steps", Self::Steps), ("source", Self::Source)];
}
