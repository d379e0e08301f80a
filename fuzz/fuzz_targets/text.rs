//! Any bytes, read as text without markup, become valid and safe HTML.
#![no_main]
#![allow(dead_code)]

#[path = "../../crates/obblet/tests/support/dom.rs"]
mod dom;
#[path = "../../crates/obblet/tests/support/validity.rs"]
mod validity;

use obblet::formats::{html, text};

libfuzzer_sys::fuzz_target!(|bytes: &[u8]| {
    for paragraphs in [text::ParagraphEnds::Auto, text::ParagraphEnds::Line] {
        let settings = text::Settings { paragraphs, ..Default::default() };
        let doc = text::read(bytes, &text::ReadOptions { settings: &settings, classes: false });
        let written = html::write(&doc, &html::Options::default()).html;
        let faults = validity::faults(&written);
        assert!(faults.is_empty(), "{faults:#?}\n{written}");
    }
});
