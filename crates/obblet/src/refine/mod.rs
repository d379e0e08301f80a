//! Passes from a document to a document. Each has a name that can be switched in a profile.

pub mod links;
pub mod structure;
pub mod typography;
