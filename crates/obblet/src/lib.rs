//! Obblet turns documents into clean, standards-valid HTML and back, and says what was lost on the way.
//!
//! ```
//! use obblet::{Format, convert, profile::Profile};
//!
//! let profile = Profile::built_in("page")?;
//! let source = b"---\ntitle: Tides\nlanguage: en\n---\n\nHigh water at **06:12**.\n";
//! let converted = convert(source, Format::Markdown, Format::Html, &profile)?;
//! assert!(converted.text.contains("<title>Tides</title>"));
//! assert!(converted.text.contains("<p>High water at <strong>06:12</strong>.</p>"));
//! assert!(converted.findings.is_empty());
//! # Ok::<(), obblet::Error>(())
//! ```
//!
//! The rooms of the house:
//!
//! * [`mod@document`]: the model that all other rooms share;
//! * [`mod@formats`]: a room for each format, reading it into the model and writing it from there;
//! * [`mod@files`]: the one door to the file system;
//! * [`mod@refine`]: passes from a document to a document;
//! * [`mod@drawing`]: clean copies of drawings;
//! * [`mod@page`]: the page around a fragment, and its looks;
//! * [`mod@profile`]: every setting, its default and its meaning;
//! * [`mod@inspect`]: what is in a document, and what will be found when it is converted;
//! * [`mod@compare`]: what differs between two documents;
//! * [`mod@publish`]: a folder in, web output out.
//!
//! There is no terminal, no network, no clock and no environment in here. Files are opened by [`mod@files`] and by nothing else,
//! only where a call names them, and never outside of the source's folder.

#![cfg_attr(not(test), deny(clippy::disallowed_methods, clippy::disallowed_types))]

mod cache;
pub mod compare;
mod context;
pub mod document;
pub mod drawing;
mod encoding;
mod error;
mod fast_hash;
mod file_name;
pub mod files;
mod findings;
pub mod formats;
mod indent_writer;
mod inert;
pub mod inspect;
pub mod media;
mod numeral;
pub mod page;
mod picture;
pub mod pipeline;
pub mod profile;
pub mod publish;
pub mod refine;
mod settings;
mod signature;
mod simd_scan;
mod slug;

pub use cache::Shared;
pub use context::{Cancellation, Context, Converted, Length, LinkResolver, LinkTarget, OutputFile, Progress, Stage};
pub use error::{Error, describe};
pub use findings::findings;
pub use formats::Format;
pub use pipeline::{convert, convert_in, read, write};
