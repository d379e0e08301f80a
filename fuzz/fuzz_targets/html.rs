//! Any bytes, read as HTML, become valid and safe HTML, Markdown that becomes valid HTML, and text.
#![no_main]
#![allow(dead_code)]

#[path = "../../crates/obblet/tests/support/dom.rs"]
mod dom;
#[path = "../../crates/obblet/tests/support/validity.rs"]
mod validity;

use obblet::formats::{StyleFidelity, html, markdown, text};

libfuzzer_sys::fuzz_target!(|bytes: &[u8]| {
    for (content, fidelity) in [(html::Content::All, StyleFidelity::Exact), (html::Content::Main, StyleFidelity::Semantic)] {
        let settings = html::Settings { content, ..Default::default() };
        let classes = fidelity == StyleFidelity::Exact;
        let options = html::ReadOptions { settings: &settings, fidelity, classes, ..Default::default() };
        let doc = html::read(bytes, &options);
        let written = html::write(&doc, &html::Options::default()).html;
        let faults = validity::faults(&written);
        assert!(faults.is_empty(), "{faults:#?}\n{written}");
        let written = markdown::write(&doc, &markdown::WriteOptions::default()).text;
        let again = markdown::read(written.as_bytes(), &markdown::Settings::GITHUB);
        let written = html::write(&again, &html::Options::default()).html;
        let faults = validity::faults(&written);
        assert!(faults.is_empty(), "{faults:#?}\n{written}");
        let _ = text::write(&doc, &text::Settings::default());
    }
});
