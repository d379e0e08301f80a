//! Markdown, plain text and tables as text, read and written.

#[path = "../support/mod.rs"]
mod support;

mod by_hand;
mod elements;
mod github;
mod table;
mod table_law;
mod text;
mod text_law;
mod writing;
