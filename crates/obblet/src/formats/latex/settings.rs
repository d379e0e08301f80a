//! The settings of LaTeX.

use crate::settings::{Declared, Setting, file, flag, text};

/// Settings of LaTeX.
#[derive(Clone, Debug, Default, PartialEq, Eq)]
pub struct Settings {
    /// The class of documents that are written, with its options before it in brackets; by what is in them without.
    pub class: String,
    /// A LaTeX document whose preamble those that are written get.
    pub preamble: Option<std::path::PathBuf>,
    /// Classes of divisions and spans are environments and commands in LaTeX output.
    pub environments: bool,
}

impl Declared for Settings {
    const SETTINGS: &'static [Setting<Self>] = &[
        text!(
            "latex.class",
            class,
            "The class of LaTeX documents that are written, as in report or [a4paper]article; without, an article, or a report where there are many levels of headings."
        ),
        file!(
            "latex.preamble",
            preamble,
            "A LaTeX document whose preamble those that are written get; its environments and theorems are used by name."
        ),
        flag!(
            "latex.environments",
            environments,
            "Whether classes of divisions and spans are environments and commands in LaTeX output."
        ),
    ];
}
