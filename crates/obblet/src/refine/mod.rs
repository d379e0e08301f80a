//! Passes from a document to a document. Each has a name that can be switched in a profile.
//!
//! [`clean`] runs them in the order in which they work: lines become paragraphs, and what was revised comes first, since all else looks at what is left; lists
//! while their markers still have their white space; then places, runs of formatting and white space, each of which makes
//! more of the next empty; and what is empty last. House rules come behind, for they are about what a document says and not
//! about what a program left in it: first those about text, then those about elements, from the large to the small.

mod findings;
mod pass_names;
mod pipeline;
mod settings;

pub mod anchors;
pub mod code_blocks;
pub mod empty;
pub mod equations;
pub mod formatting;
pub mod heading_links;
pub(crate) mod heading_numbers;
pub mod image_alt;
pub mod join_lines;
pub mod languages;
pub mod layout_tables;
pub mod link_noise;
pub mod links;
pub mod lists;
pub mod lone_paragraphs;
pub mod outer_sections;
pub mod passes;
pub mod promote_headings;
pub mod readable_ids;
#[cfg(feature = "url")]
pub mod redirects;
pub mod references;
pub mod revisions;
pub mod rules;
pub mod structure;
pub mod tab_tables;
pub mod table_heads;
pub mod targets;
pub mod typography;
pub mod white_space;
pub(crate) mod wrappers;

pub(crate) use findings::FINDINGS;
pub use passes::Pass;
pub use pipeline::{clean, clean_linked, restrict};
pub use settings::{Cleaning, ElementRules, Noise, ProgramNames, TextRules, When};
