//! Markdown, as CommonMark 0.31.2 defines it, with the extensions that GitHub publishes.
//!
//! Where the format differs from the model: raw HTML is part of the format, and stays raw in the model until
//! [`open_raw`](crate::formats::html::open_raw) opens it; link reference definitions are resolved and gone; whether list items are
//! set apart is a property of the list, not of the items; the alternative text of an image is plain.

mod descriptor;
mod settings;
mod characters;
mod entity;
mod read;
mod write;

pub(in crate::formats) use descriptor::DESCRIPTOR;
pub use settings::{Dialect, LineEnds, Settings};
pub use read::read;
pub use write::{Bullet, ElementWriter, EmphasisMark, Fence, HeadingForm, HtmlPieces, LinkForm, WriteOptions, Written, write};

/// Which Markdown it is.
#[derive(Clone, Copy, Debug, PartialEq, Eq)]
pub struct Options {
    /// Tables (GitHub Flavored Markdown, section 4.10).
    pub tables: bool,
    /// Checkboxes of list items (section 5.3).
    pub tasks: bool,
    /// `~~gone~~` (section 6.5).
    pub strikethrough: bool,
    /// Bare web and mail addresses (section 6.9).
    pub autolinks: bool,
    /// `[^1]` and `[^1]: text`.
    pub footnotes: bool,
    /// Block quotes that begin with `[!NOTE]` and its like.
    pub alerts: bool,
    /// `$a$`, `$$a$$` and code blocks whose language is `math`.
    pub math: bool,
    /// Metadata in YAML between two lines of `---` at the top.
    pub front_matter: bool,
    /// Whether the end of a line within a paragraph is a line break.
    pub hard_lines: bool,
}

impl Options {
    /// CommonMark, and front matter.
    pub const COMMONMARK: Self = Self {
        tables: false,
        tasks: false,
        strikethrough: false,
        autolinks: false,
        footnotes: false,
        alerts: false,
        math: false,
        front_matter: true,
        hard_lines: false,
    };

    /// Everything that GitHub reads.
    pub const GITHUB: Self = Self {
        tables: true,
        tasks: true,
        strikethrough: true,
        autolinks: true,
        footnotes: true,
        alerts: true,
        math: true,
        front_matter: true,
        hard_lines: false,
    };
}

impl Default for Options {
    fn default() -> Self {
        Self::GITHUB
    }
}
