//! House rules: what the system that a document goes to accepts, and how its editors want text written.

pub mod attributes;
pub mod capitals;
pub mod elements;
pub mod inline;
pub mod leave_out;
pub mod lines;
pub mod pattern;
pub mod replace;
pub mod scenes;
pub mod spaces;
