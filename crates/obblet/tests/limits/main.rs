//! Files of strangers: hostile shapes, and what they may reach.

#[path = "../support/mod.rs"]
mod support;

mod shapes;
mod strangers;
mod word;
mod word_written;
