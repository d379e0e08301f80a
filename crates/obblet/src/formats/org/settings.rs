//! The settings of Org. What a file says itself wins over most of them.

use crate::settings::{Declared, Setting, flag, number, text};

/// Settings of Org.
#[derive(Clone, Debug, Default, PartialEq, Eq)]
pub struct Settings {
    /// The heading or the tag of the part that is read; all of the file without.
    pub select: String,
    /// Whether dates below headings that say when something is to be done are shown.
    pub planning: bool,
    /// Tables that Org has no form for are blocks of HTML in Org output.
    pub html_tables: bool,
    /// Lines of text in Org output are no longer than this; 0 breaks none of their own.
    pub width: u16,
}

impl Declared for Settings {
    const SETTINGS: &'static [Setting<Self>] = &[
        text!("org.select", select, "The heading or the tag of the part of an Org file that is read; all of it without."),
        flag!(
            "org.planning",
            planning,
            "Whether dates below headings of Org files that say when something is to be done are shown."
        ),
        flag!(
            "org.html-tables",
            html_tables,
            "Whether tables with merged cells or with blocks in them are blocks of HTML in Org output."
        ),
        number!(
            "org.width",
            width,
            0 to 1000,
            "Lines of text in Org output are no longer than this; 0 breaks none of their own."
        ),
    ];
}
