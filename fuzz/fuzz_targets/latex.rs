//! Any bytes, read as LaTeX, become valid and safe HTML, and Org that can be read again.
#![no_main]
#![allow(dead_code)]

#[path = "../../crates/obblet/tests/support/dom.rs"]
mod dom;
#[path = "../../crates/obblet/tests/support/validity.rs"]
mod validity;

use obblet::formats::{html, latex, org};

libfuzzer_sys::fuzz_target!(|bytes: &[u8]| {
    let doc = latex::read(bytes, &latex::Settings::default());
    let html = html::write(&doc, &html::Options::default()).html;
    let faults = validity::faults(&html);
    assert!(faults.is_empty(), "{faults:#?}\n{html}");
    let settings = org::Settings::default();
    drop(org::read(&org::write(&doc, &settings).bytes, &settings));
});
