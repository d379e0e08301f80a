//! The settings of tables as text, read and written.

use crate::settings::{Choice, Declared, Setting, choice, parse::is_encoding, text};

/// What stands between cells.
#[derive(Clone, Copy, Debug, Default, PartialEq, Eq)]
pub enum Separator {
    /// Found out where a table is read; a comma where one is written, and a tab where the file ends with `.tsv`.
    #[default]
    Auto,
    /// `,`
    Comma,
    /// A tab.
    Tab,
    /// `;`
    Semicolon,
    /// `|`
    Bar,
}

impl Separator {
    /// The character that it is.
    pub(super) const fn byte(self) -> Option<u8> {
        match self {
            Self::Auto => None,
            Self::Comma => Some(b','),
            Self::Tab => Some(b'\t'),
            Self::Semicolon => Some(b';'),
            Self::Bar => Some(b'|'),
        }
    }
}

/// Whether the first row is the head of the table.
#[derive(Clone, Copy, Debug, Default, PartialEq, Eq)]
pub enum Head {
    /// It is where it has words in all its cells, no two of them the same, and other rows follow.
    #[default]
    Auto,
    /// It is.
    First,
    /// The table has no head.
    None,
}

/// Settings of tables as text.
#[derive(Clone, Debug, Default, PartialEq, Eq)]
pub struct Settings {
    /// What stands between cells.
    pub separator: Separator,
    /// Whether the first row is the head of the table.
    pub head: Head,
    /// The encoding of sources.
    pub encoding: String,
}

impl Declared for Settings {
    const SETTINGS: &'static [Setting<Self>] = &[
        choice!(
            "table.separator",
            Separator,
            separator,
            "What stands between the cells of a table as text. With auto, it is found out where one is read; one that is written has commas, or tabs in a file that ends with .tsv."
        ),
        choice!(
            "table.head",
            Head,
            head,
            "Whether the first row of a table as text is its head. With auto, it is where all of its cells have words, no two the same, and rows follow."
        ),
        text!(
            "table.encoding",
            encoding,
            "the name of an encoding",
            is_encoding,
            "The encoding of tables as text, as in windows-1252. Without one, the byte order mark is asked, and then it is guessed."
        ),
    ];
}

impl Choice for Separator {
    const CHOICES: &'static [(&'static str, Self)] =
        &[("auto", Self::Auto), ("comma", Self::Comma), ("tab", Self::Tab), ("semicolon", Self::Semicolon), ("bar", Self::Bar)];
}

impl Choice for Head {
    const CHOICES: &'static [(&'static str, Self)] = &[("auto", Self::Auto), ("first", Self::First), ("none", Self::None)];
}
