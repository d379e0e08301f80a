//! Word documents: packages of Office Open XML (ECMA-376, ISO/IEC 29500), as word processors really write them.
//!
//! Where the format differs from the model: it has no lists, only paragraphs with numbers; no nesting of formatting, only runs
//! with properties; headings are paragraphs with a level that their style may inherit; fields, changes and alternatives
//! stand in the text; and what a paragraph looks like comes from defaults, styles, tables, numbering and its own properties
//! together. The reader resolves all of that in one pass over each part. A part in HTML that a document takes in is raw markup,
//! which [`open_raw`](crate::formats::html::open_raw) opens.

mod dates;
mod descriptor;
mod model;
mod package;
mod printer;
mod read;
mod settings;
mod write;
mod xml;

pub use crate::formats::StyleFidelity;
pub(in crate::formats) use descriptor::DESCRIPTOR;
pub use package::PackageError;
pub use read::{Comments, ContentsLists, Headers, HeadingNumbers, ListNumbers, ReadOptions, read};
pub use settings::{Extras, PageSize, Settings, TabStops, TrackedChanges};
pub use write::{WriteOptions, write};

/// What the tag of a content control begins with that holds a block of code; its language follows.
const CODE_TAG: &str = "language-";

/// The class of rules that join paragraphs; they stand behind all others.
const JOINED: &str = "joined";

/// The name of the style of tables whose lines are said at each; it says nothing of them.
const PLAIN_TABLE: &str = "Table Plain";
