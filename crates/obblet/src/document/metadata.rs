//! What is known about a document as a whole.

use std::collections::BTreeMap;

/// Which way text runs.
#[derive(Clone, Copy, Debug, PartialEq, Eq)]
pub enum Direction {
    /// `dir="ltr"`
    LeftToRight,
    /// `dir="rtl"`
    RightToLeft,
    /// `dir="auto"`: as the first strong character says.
    Auto,
}

impl Direction {
    /// The value of the attribute `dir`.
    #[must_use]
    pub const fn value(self) -> &'static str {
        match self {
            Self::LeftToRight => "ltr",
            Self::RightToLeft => "rtl",
            Self::Auto => "auto",
        }
    }

    /// The direction that a value of the attribute `dir` stands for.
    #[must_use]
    pub fn from_value(value: &str) -> Option<Self> {
        [Self::LeftToRight, Self::RightToLeft, Self::Auto].into_iter().find(|way| way.value().eq_ignore_ascii_case(value))
    }
}

/// What a source itself says of how its pages are made; it wins over a profile.
#[derive(Clone, Copy, Debug, Default, PartialEq, Eq)]
pub struct Presentation {
    /// How many levels of headings have numbers, from the highest that has any; 0 for none.
    pub numbered_levels: Option<u8>,
    /// How deep the list of contents goes; 0 for none.
    pub contents: Option<u8>,
    /// The levels of headings whose numbers stand before those of equations, from the highest to the lowest; equations below
    /// each are counted anew.
    pub equations_within: Option<(u8, u8)>,
    /// Whether the source says the numbers of its equations itself.
    pub has_equation_numbers: bool,
}

/// Title, authors, language and so on.
#[derive(Clone, Debug, Default, PartialEq, Eq)]
pub struct Metadata {
    /// The title.
    pub title: Option<String>,
    /// What stands below the title.
    pub subtitle: Option<String>,
    /// Who wrote it.
    pub authors: Vec<String>,
    /// The date as the source writes it.
    pub date: Option<String>,
    /// The language, as a BCP 47 tag.
    pub language: Option<String>,
    /// Which way the text runs.
    pub direction: Option<Direction>,
    /// A sentence or two about the content.
    pub description: Option<String>,
    /// Words to find it by.
    pub keywords: Vec<String>,
    /// Definitions of macros that formulas of the document use, in TeX.
    pub macros: String,
    /// The numbers of equations by their labels, once these are counted.
    pub equation_numbers: BTreeMap<String, String>,
    /// Markup that the source has for the head of its pages. It may load or run anything: only who trusts the source writes it.
    pub head: String,
    /// What the source says of how its pages are made.
    pub presentation: Presentation,
    /// Everything else, in the order of the source.
    pub other: Vec<(String, String)>,
}
