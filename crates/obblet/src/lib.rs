//! Obblet turns documents into clean, standards-valid HTML and back, and says what was lost on the way.
//!
//! ```
//! use obblet::{Format, convert, profile::Profile};
//!
//! let source = b"High water at **06:12**.";
//! let converted = convert(source, Format::Markdown, Format::Html, &Profile::fragment())?;
//! assert_eq!(converted.text(), Some("<p>High water at <strong>06:12</strong>.</p>\n"));
//! assert!(converted.findings.is_empty());
//! # Ok::<(), obblet::Error>(())
//! ```
//!
//! A conversion goes one way, whoever starts it: a *reader* makes a [`document`](mod@document) of bytes, *passes* change it,
//! images are placed, a *writer* makes bytes of it. [`convert`] does all of it in memory; [`convert_in`] takes a [`Context`] with
//! what is around the document; [`mod@pipeline`] has the stages one by one.
//!
//! | To do | Look at |
//! |:------|:--------|
//! | choose what happens | [`profile::Profile`], its settings and [`profile::settings`] |
//! | bring and take images | [`media::MediaSource`], [`media::MediaStore`] |
//! | decide where links lead | [`LinkResolver`] |
//! | follow a conversion, cancel it | [`Progress`], [`Cancellation`] |
//! | build, walk and edit a document | [`document::Document`] |
//! | know every finding | [`findings()`] |
//!
//! The rooms of the house, from the ground up:
//!
//! * [`mod@document`]: the model that all other rooms share;
//! * [`mod@media`] and `files`: where images come from and go, and the one door to the file system;
//! * [`mod@refine`]: the passes, from a document to a document;
//! * [`mod@drawing`]: clean copies of drawings;
//! * [`mod@formats`]: a room for each format, reading it into the model and writing it from there;
//! * [`mod@profile`]: every setting, its default and its meaning;
//! * [`mod@page`]: the page around a fragment;
//! * [`mod@pipeline`]: the one way that a conversion goes;
//! * `compare`: what differs between two documents;
//! * `publish`: a folder in, web output out;
//! * `inspect`: what is in a document, and what will be found when it is converted.
//!
//! There is no terminal, no network, no clock and no environment in here. Files are opened by the room `files` and by nothing
//! else, only where a call names them, and never outside of the source's folder. Without its features the crate converts
//! Markdown, HTML and text, in fragments and in memory; each feature adds what its name says.

#![cfg_attr(
    not(all(feature = "inspect", feature = "compare", feature = "word", feature = "table")),
    allow(dead_code, unused_imports, reason = "a build of parts does not use all that the parts share")
)]
#![cfg_attr(not(test), deny(clippy::disallowed_methods, clippy::disallowed_types))]

mod cache;
mod citations;
#[cfg(feature = "compare")]
pub mod compare;
mod context;
pub mod document;
pub mod drawing;
mod encoding;
mod error;
mod fast_hash;
mod file_name;
#[cfg(feature = "files")]
pub mod files;
mod findings;
pub mod formats;
mod heading_count;
mod indent_writer;
mod inert;
#[cfg(feature = "inspect")]
pub mod inspect;
mod io_error;
mod language_tag;
mod links;
pub mod math;
pub mod media;
#[cfg(feature = "images")]
pub mod metafile;
mod numeral;
pub mod page;
mod picture;
pub mod pipeline;
pub mod profile;
#[cfg(feature = "publish")]
pub mod publish;
mod quotation_marks;
#[cfg(feature = "recognise")]
mod recognise;
pub mod refine;
mod settings;
mod signature;
mod simd_scan;
mod slug;
mod tally;
mod utf8_source;

pub use cache::Shared;
pub use context::{Cancellation, Context, Converted, Length, OutputFile, Progress, Stage};
pub use error::Error;
pub use findings::findings;
pub use formats::Format;
pub use io_error::describe;
pub use links::{ExternalLinks, LinkResolver, LinkTarget, NoExternalLinks};
pub use pipeline::{convert, convert_in, read, write};
