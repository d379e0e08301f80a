//! Word documents, read and written, and the drawings in them.

#[path = "../support/mod.rs"]
mod support;

mod daily;
mod demo;
mod drawings;
mod forms;
mod law;
mod left_out;
mod looks;
mod metafile;
mod properties;
mod reading;
mod to_word;
mod vector_drawings;
mod writing;
mod written_parts;
