//! Any bytes, as a metafile: what is drawn is markup, and harmless.
#![no_main]

#[path = "../../crates/obblet/tests/support/drawing.rs"]
mod drawing;

libfuzzer_sys::fuzz_target!(|bytes: &[u8]| {
    if let Some(drawn) = obblet::metafile::draw(bytes) {
        let svg = String::from_utf8_lossy(&drawn.svg);
        assert!(roxmltree::Document::parse(&svg).is_ok(), "{svg}");
        let fault = drawing::fault(&drawn.svg);
        assert!(fault.is_none(), "{fault:?}");
    }
});
