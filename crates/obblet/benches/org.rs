//! Org to HTML, against the floor: parsing the HTML that comes out, and keeping nothing of it.
#![allow(missing_docs, clippy::print_stdout, clippy::unwrap_used, reason = "a bench prints its result")]

#[path = "support/demo.rs"]
mod demo;
#[path = "support/handbook.rs"]
mod handbook;
#[path = "support/nothing.rs"]
mod nothing;
#[path = "support/timing.rs"]
mod timing;

use obblet::Format;
use obblet::formats::{html, org};

fn to_html(source: &str) -> String {
    let doc = org::read(source.as_bytes(), &org::Settings::default());
    html::write(&doc, &html::Options::default()).html
}

fn main() {
    demo::measure("Org", Format::Org, "shape=fragment", to_html);
}
