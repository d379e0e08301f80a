//! Folders that are published, and what the demo and the guide show.

#[path = "../support/mod.rs"]
mod support;

mod demo;
mod guide;
mod one_document;
mod output;
mod publish;
mod publish_laws;
mod publish_sites;
mod stages;
