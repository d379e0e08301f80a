//! Any bytes, converted from LaTeX, become valid and safe HTML, and Org that can be read again.
#![no_main]
#![allow(dead_code)]

#[path = "../../crates/obblet/tests/support/dom.rs"]
mod dom;
#[path = "../../crates/obblet/tests/support/validity.rs"]
mod validity;

use obblet::formats::{latex, org};
use obblet::profile::Profile;
use obblet::{Format, convert};

libfuzzer_sys::fuzz_target!(|bytes: &[u8]| {
    let Ok(converted) = convert(bytes, Format::Latex, Format::Html, &Profile::fragment()) else { return };
    let html = converted.text().unwrap_or_default();
    let faults = validity::faults(html);
    assert!(faults.is_empty(), "{faults:#?}\n{html}");
    let settings = org::Settings::default();
    let doc = latex::read(bytes, &latex::Settings::default());
    drop(org::read(&org::write(&doc, &settings).bytes, &settings));
});
