//! Any bytes, read as Org, become valid and safe HTML, and Org that can be read again.
#![no_main]
#![allow(dead_code)]

#[path = "../../crates/obblet/tests/support/dom.rs"]
mod dom;
#[path = "../../crates/obblet/tests/support/validity.rs"]
mod validity;

use obblet::formats::{html, org};

libfuzzer_sys::fuzz_target!(|bytes: &[u8]| {
    let settings = org::Settings::default();
    let doc = org::read(bytes, &settings);
    let html = html::write(&doc, &html::Options::default()).html;
    let faults = validity::faults(&html);
    assert!(faults.is_empty(), "{faults:#?}\n{html}");
    let written = org::write(&doc, &settings).bytes;
    let again = org::write(&org::read(&written, &settings), &settings).bytes;
    drop(again);
});
