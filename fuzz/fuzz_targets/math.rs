//! Any text, read as a formula in one of the three notations, becomes valid MathML, equations of word processors and TeX that can
//! be read again.
#![no_main]
#![allow(dead_code)]

#[path = "../../crates/obblet/tests/support/dom.rs"]
mod dom;
#[path = "../../crates/obblet/tests/support/validity.rs"]
mod validity;

use obblet::math::{mathml, omml, tex};

libfuzzer_sys::fuzz_target!(|bytes: &[u8]| {
    let Some((notation, source)) = bytes.split_first() else { return };
    let Ok(source) = std::str::from_utf8(source) else { return };
    let (math, _) = match notation % 3 {
        0 => tex::read(source),
        1 => mathml::read(source),
        _ => omml::read(source),
    };
    let written = tex::write(&math);
    let options = mathml::Options { display: true, source: &written, namespace: false };
    let markup = mathml::write(&math, &options);
    let faults = validity::faults(&format!("<p>{markup}</p>"));
    assert!(faults.is_empty(), "{faults:#?}\n{markup}");
    let _ = (tex::read(&written), mathml::read(&markup), omml::read(&omml::write(&math)));
});
