//! The settings of Markdown, read and written.

use super::{Bullet, EmphasisMark, Extensions, Fence, FormulaForm, HeadingForm, HtmlPieces, LinkForm, Syntax};
use crate::settings::{Choice, Declared, Setting, choice, flag, number};

/// Which Markdown it is.
#[derive(Clone, Copy, Debug, Default, PartialEq, Eq)]
pub enum Dialect {
    /// The CommonMark specification and nothing else.
    Commonmark,
    /// What GitHub reads.
    #[default]
    Github,
}

/// What the end of a line within a paragraph is.
#[derive(Clone, Copy, Debug, Default, PartialEq, Eq)]
pub enum LineEnds {
    /// White space.
    #[default]
    Space,
    /// A line break.
    Break,
}

/// Settings of Markdown. An extension that is not set is as the dialect says.
#[derive(Clone, Copy, Debug, PartialEq, Eq)]
pub struct Settings {
    /// Which Markdown is read and written.
    pub dialect: Dialect,
    /// Whether rows of cells between bars are tables.
    pub tables: Option<bool>,
    /// Whether list items that begin with `[]` or `[x]` have a checkbox.
    pub tasks: Option<bool>,
    /// Whether text between tildes is struck through.
    pub strikethrough: Option<bool>,
    /// Whether bare web and mail addresses are links.
    pub autolinks: Option<bool>,
    /// Whether nine tags that change how a page is read, such as script, lose their meaning where raw HTML is kept.
    pub tag_filter: Option<bool>,
    /// Whether `[^1]` mentions a note that `[^1]:`defines.
    pub footnotes: Option<bool>,
    /// Whether a block quote that begins with `[!NOTE]` is a callout.
    pub alerts: Option<bool>,
    /// Whether text between dollar signs is a formula.
    pub math: Option<bool>,
    /// What formulas are in Markdown output: TeX between dollar signs, or a line of characters.
    pub formulas: FormulaForm,
    /// Whether YAML between two lines of three hyphens at the top is metadata.
    pub front_matter: Option<bool>,
    /// Whether `[@key]` cites an entry of the files that `bibliography` in the front matter names.
    pub citations: bool,
    /// What the end of a line within a paragraph is: white space, or a line break.
    pub line_ends: LineEnds,
    /// The mark of list items in Markdown output.
    pub bullet: Bullet,
    /// The mark of emphasis in Markdown output.
    pub emphasis: EmphasisMark,
    /// What stands above and below code blocks in Markdown output.
    pub fence: Fence,
    /// The form of headings in Markdown output: number signs before all of them, or lines below those of the first two levels.
    pub headings: HeadingForm,
    /// Where addresses stand in Markdown output: behind the text of the link, or in definitions at the end.
    pub links: LinkForm,
    /// Lines of text in Markdown output are no longer than this; 0 breaks none of their own.
    pub width: u16,
    /// What becomes of things that Markdown has no syntax for, such as merged cells: written as HTML, or reduced to their text with findings.
    pub html: HtmlPieces,
    /// Whether ids and classes are kept in Markdown output, as HTML.
    pub ids: bool,
    /// Whether languages of passages within a line are kept in Markdown output, as HTML.
    pub languages: bool,
}

impl Default for Settings {
    fn default() -> Self {
        Self::GITHUB
    }
}

impl Settings {
    /// CommonMark, and front matter.
    pub const COMMONMARK: Self = Self { dialect: Dialect::Commonmark, ..Self::GITHUB };

    /// Everything that GitHub reads.
    pub const GITHUB: Self = Self {
        dialect: Dialect::Github,
        tables: None,
        tasks: None,
        strikethrough: None,
        autolinks: None,
        tag_filter: None,
        footnotes: None,
        alerts: None,
        math: None,
        formulas: FormulaForm::Tex,
        front_matter: None,
        citations: true,
        line_ends: LineEnds::Space,
        bullet: Bullet::Hyphen,
        emphasis: EmphasisMark::Asterisk,
        fence: Fence::Backticks,
        headings: HeadingForm::Atx,
        links: LinkForm::Inline,
        width: 0,
        html: HtmlPieces::Keep,
        ids: false,
        languages: false,
    };

    /// The syntax that the settings and the dialect come to.
    pub(super) fn syntax(&self) -> Syntax {
        let mut extensions = match self.dialect {
            Dialect::Commonmark => Extensions::FRONT_MATTER,
            Dialect::Github => Extensions::all(),
        };
        for (extension, own) in [
            (Extensions::TABLES, self.tables),
            (Extensions::TASKS, self.tasks),
            (Extensions::STRIKETHROUGH, self.strikethrough),
            (Extensions::AUTOLINKS, self.autolinks),
            (Extensions::FOOTNOTES, self.footnotes),
            (Extensions::ALERTS, self.alerts),
            (Extensions::MATH, self.math),
            (Extensions::FRONT_MATTER, self.front_matter),
        ] {
            if let Some(own) = own {
                extensions.set(extension, own);
            }
        }
        Syntax { extensions, hard_lines: self.line_ends == LineEnds::Break }
    }
}

impl Declared for Settings {
    const SETTINGS: &'static [Setting<Self>] = &[
        choice!(
            "markdown.dialect",
            Dialect,
            dialect,
            "Which Markdown is read and written. It decides about the extensions below that are not set."
        ),
        choice!("markdown.tables", Option<bool>, tables, "Whether rows of cells between bars are tables."),
        choice!("markdown.tasks", Option<bool>, tasks, "Whether list items that begin with [ ] or [x] have a checkbox."),
        choice!("markdown.strikethrough", Option<bool>, strikethrough, "Whether text between tildes is struck through."),
        choice!("markdown.autolinks", Option<bool>, autolinks, "Whether bare web and mail addresses are links."),
        choice!(
            "markdown.tag-filter",
            Option<bool>,
            tag_filter,
            "Whether nine tags that change how a page is read, such as script, lose their meaning where raw HTML is kept."
        ),
        choice!("markdown.footnotes", Option<bool>, footnotes, "Whether [^1] mentions a note that [^1]: defines."),
        choice!("markdown.alerts", Option<bool>, alerts, "Whether a block quote that begins with [!NOTE] is a callout."),
        choice!("markdown.math", Option<bool>, math, "Whether text between dollar signs is a formula."),
        choice!(
            "markdown.formulas",
            FormulaForm,
            formulas,
            "What formulas are in Markdown output: TeX between dollar signs, or a line of characters."
        ),
        choice!(
            "markdown.front-matter",
            Option<bool>,
            front_matter,
            "Whether YAML between two lines of three hyphens at the top is metadata."
        ),
        flag!(
            "markdown.citations",
            citations,
            "Whether [@key] cites an entry of the files that bibliography in the front matter names."
        ),
        choice!(
            "markdown.line-ends",
            LineEnds,
            line_ends,
            "What the end of a line within a paragraph is: white space, or a line break."
        ),
        choice!("markdown.bullet", Bullet, bullet, "The mark of list items in Markdown output."),
        choice!("markdown.emphasis", EmphasisMark, emphasis, "The mark of emphasis in Markdown output."),
        choice!("markdown.fence", Fence, fence, "What stands above and below code blocks in Markdown output."),
        choice!(
            "markdown.headings",
            HeadingForm,
            headings,
            "The form of headings in Markdown output: number signs before all of them, or lines below those of the first two levels."
        ),
        choice!(
            "markdown.links",
            LinkForm,
            links,
            "Where addresses stand in Markdown output: behind the text of the link, or in definitions at the end."
        ),
        number!(
            "markdown.width",
            width,
            0 to 1000,
            "Lines of text in Markdown output are no longer than this; 0 breaks none of their own."
        ),
        choice!(
            "markdown.html",
            HtmlPieces,
            html,
            "What becomes of things that Markdown has no syntax for, such as merged cells: written as HTML, or reduced to their text with findings."
        ),
        flag!("markdown.ids", ids, "Whether ids and classes are kept in Markdown output, as HTML."),
        flag!(
            "markdown.languages",
            languages,
            "Whether languages of passages within a line are kept in Markdown output, as HTML."
        ),
    ];
}

impl Choice for Dialect {
    const CHOICES: &'static [(&'static str, Self)] = &[("commonmark", Self::Commonmark), ("github", Self::Github)];
}

impl Choice for Option<bool> {
    const CHOICES: &'static [(&'static str, Self)] = &[("dialect", None), ("true", Some(true)), ("false", Some(false))];
}

impl Choice for LineEnds {
    const CHOICES: &'static [(&'static str, Self)] = &[("space", Self::Space), ("break", Self::Break)];
}

impl Choice for FormulaForm {
    const CHOICES: &'static [(&'static str, Self)] = &[("tex", Self::Tex), ("text", Self::Text)];
}

impl Choice for Bullet {
    const CHOICES: &'static [(&'static str, Self)] =
        &[("hyphen", Self::Hyphen), ("asterisk", Self::Asterisk), ("plus", Self::Plus)];
}

impl Choice for EmphasisMark {
    const CHOICES: &'static [(&'static str, Self)] = &[("asterisk", Self::Asterisk), ("underscore", Self::Underscore)];
}

impl Choice for Fence {
    const CHOICES: &'static [(&'static str, Self)] = &[("backticks", Self::Backticks), ("tildes", Self::Tildes)];
}

impl Choice for HeadingForm {
    const CHOICES: &'static [(&'static str, Self)] = &[("atx", Self::Atx), ("setext", Self::Setext)];
}

impl Choice for LinkForm {
    const CHOICES: &'static [(&'static str, Self)] = &[("inline", Self::Inline), ("reference", Self::Reference)];
}

impl Choice for HtmlPieces {
    const CHOICES: &'static [(&'static str, Self)] = &[("keep", Self::Keep), ("drop", Self::Drop)];
}
