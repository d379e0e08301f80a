//! Any bytes, converted from LaTeX, become valid and safe HTML, and Org that can be read again; so do those that name entries in a file.
#![no_main]
#![allow(dead_code)]

#[path = "../../crates/obblet/tests/support/dom.rs"]
mod dom;
#[path = "../../crates/obblet/tests/support/validity.rs"]
mod validity;

use obblet::formats::{html, latex, org};
use obblet::media::{FilesAround, MemoryMedia};
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
    // The same bytes are a file of entries, too.
    let mut media = MemoryMedia::default();
    media.insert("refs.bib", bytes.to_vec());
    let files = FilesAround { root: Some(&media), limit: 1 << 20, ..FilesAround::default() };
    let source = [bytes, b"\\nocite{*}\\bibliography{refs}"].concat();
    let html = html::write(&latex::read_with(&source, &latex::Settings::default(), &files), &html::Options::default()).html;
    let faults = validity::faults(&html);
    assert!(faults.is_empty(), "{faults:#?}\n{html}");
});
