//! Markdown, as CommonMark 0.31.2 defines it, with the extensions that GitHub publishes.
//!
//! Where the format differs from the model: raw HTML is part of the format, and stays raw in the model until
//! [`open_raw`](crate::formats::html::open_raw) opens it; link reference definitions are resolved and gone; whether list items are
//! set apart is a property of the list, not of the items; the alternative text of an image is plain.

mod characters;
mod descriptor;
mod entity;
mod read;
mod settings;
mod write;

pub(in crate::formats) use descriptor::DESCRIPTOR;
pub use read::read;
pub use settings::{Dialect, LineEnds, Settings};
pub use write::{
    Bullet, ElementWriter, EmphasisMark, Fence, FormulaForm, HeadingForm, HtmlPieces, LinkForm, WriteOptions, Written, write,
};

bitflags::bitflags! {
    /// What a Markdown has beyond CommonMark.
    #[derive(Clone, Copy, Debug, Default, PartialEq, Eq, Hash)]
    struct Extensions: u8 {
        /// Tables (GitHub Flavored Markdown, section 4.10).
        const TABLES = 1 << 0;
        /// Checkboxes of list items (section 5.3).
        const TASKS = 1 << 1;
        /// `~~gone~~` (section 6.5).
        const STRIKETHROUGH = 1 << 2;
        /// Bare web and mail addresses (section 6.9).
        const AUTOLINKS = 1 << 3;
        /// `[^1]` and `[^1]: text`.
        const FOOTNOTES = 1 << 4;
        /// Block quotes that begin with `[!NOTE]` and its like.
        const ALERTS = 1 << 5;
        /// `$a$`, `$$a$$` and code blocks whose language is `math`.
        const MATH = 1 << 6;
        /// Metadata in YAML between two lines of `---` at the top.
        const FRONT_MATTER = 1 << 7;
    }
}

/// What of the syntax is known: what the settings and the dialect come to.
#[derive(Clone, Copy, Debug, PartialEq, Eq)]
struct Syntax {
    /// What it has beyond CommonMark.
    extensions: Extensions,
    /// Whether the end of a line within a paragraph is a line break.
    hard_lines: bool,
}

impl Syntax {
    /// Whether it has an extension.
    const fn has(self, extension: Extensions) -> bool {
        self.extensions.contains(extension)
    }
}
