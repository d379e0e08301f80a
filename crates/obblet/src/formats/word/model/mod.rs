//! The package as word processors mean it, typed and without opinion: properties of text, styles with what they inherit,
//! numbering, sections, the theme. The reader lowers it to the model of the library, and the writer raises that to it.

pub(in crate::formats::word) mod from_style;
pub(in crate::formats::word) mod numbering;
pub(in crate::formats::word) mod print;
pub(in crate::formats::word) mod properties;
pub(in crate::formats::word) mod section;
pub(in crate::formats::word) mod styles;
pub(in crate::formats::word) mod theme;
