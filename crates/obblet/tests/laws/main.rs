//! What holds for all documents and formats.

#[path = "../support/mod.rs"]
mod support;

mod compare;
mod every_setting;
mod link_law;
mod list_law;
mod model;
mod note_law;
mod spans;
mod structure;
mod there_and_back;
mod words_law;
