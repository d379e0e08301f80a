//! Any bytes, as a drawing: what comes out is harmless to a parser that is none of ours, and stays as it is when it is cleaned again.
#![no_main]

#[path = "../../crates/obblet/tests/support/drawing.rs"]
mod drawing;

libfuzzer_sys::fuzz_target!(|bytes: &[u8]| {
    if let Ok(clean) = obblet::drawing::clean(bytes) {
        let fault = drawing::fault(&clean.bytes);
        assert!(fault.is_none(), "{fault:?}");
        let again = obblet::drawing::clean(&clean.bytes).map(|again| again.bytes);
        assert_eq!(again.as_ref(), Ok(&clean.bytes), "{}", String::from_utf8_lossy(&clean.bytes));
    }
});
