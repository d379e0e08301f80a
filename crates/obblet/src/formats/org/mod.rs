//! Org: outlines, notes, plans and papers, as the published syntax defines them (Org Syntax, 2026).
//!
//! Where the format differs from the model: headings carry keywords, priorities, tags, dates and properties; files hold their own
//! settings, which win over those of a profile; what is below a heading may be excluded from what is written; blocks of code may
//! have made what stands below them; links lead to headings by their words. The reader resolves links, macros and notes, and
//! leaves out what the file itself excludes, with a finding.

mod descriptor;
mod read;
mod settings;
mod write;

/// The keyword by which a file names what it becomes, among the metadata.
const OUTPUT_NAME: &str = "export_file_name";

pub(in crate::formats) use descriptor::DESCRIPTOR;
use read::output_name;
pub use read::{read, read_with};
pub use settings::Settings;
pub use write::{write, write_with};
