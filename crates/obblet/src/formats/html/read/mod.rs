//! Reading HTML: for now the pieces of it that stand in other formats.
pub fn open_raw(_: &mut crate::document::Document) {}
