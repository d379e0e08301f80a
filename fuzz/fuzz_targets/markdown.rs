//! Any bytes, read as Markdown, become valid and safe HTML.
#![no_main]
#![allow(dead_code)]

#[path = "../../crates/obblet/tests/support/dom.rs"]
mod dom;
#[path = "../../crates/obblet/tests/support/validity.rs"]
mod validity;

use obblet::formats::{html, markdown};

libfuzzer_sys::fuzz_target!(|bytes: &[u8]| {
    for settings in [markdown::Settings::GITHUB, markdown::Settings::COMMONMARK] {
        let doc = markdown::read(bytes, &settings);
        let html = html::write(&doc, &html::Options::default()).html;
        let faults = validity::faults(&html);
        assert!(faults.is_empty(), "{faults:#?}\n{html}");
    }
});
