//! LaTeX: articles, reports, books, letters and slides, as the published documentation of LaTeX and of its packages defines them.
//!
//! Where the format differs from the model: documents define commands and environments of their own, which are written out when
//! they are read; numbers of headings, figures, tables, theorems and equations are made by the engine, and are counted here as it
//! counts them; formulas stay TeX; what says how something is set, and not what it is, means nothing.

mod descriptor;
mod languages;
mod own_commands;
mod read;
mod settings;
mod words;
mod write;

pub(in crate::formats) use descriptor::DESCRIPTOR;
pub(in crate::formats) use read::{characters_of, is_formula, is_layout, is_text_style};
pub(crate) use read::{heading_of_entries, id_of_entry, readable, without_accent};
pub use read::{read, read_with};
pub use settings::Settings;
pub use write::{Options, write, write_with};
