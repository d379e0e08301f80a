//! Obblet turns documents into clean, standards-valid HTML and back.

pub mod document;
pub mod formats;
