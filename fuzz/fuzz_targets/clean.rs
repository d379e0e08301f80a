//! Any bytes, read as HTML, are cleaned by any profile to valid HTML, and cleaning again changes nothing.
#![no_main]
#![allow(dead_code)]

#[path = "../../crates/obblet/tests/support/dom.rs"]
mod dom;
#[path = "../../crates/obblet/tests/support/validity.rs"]
mod validity;

use obblet::document::Document;
use obblet::formats::html;
use obblet::profile::Profile;
use obblet::refine;
use obblet::{Context, Format};

fn written(doc: &Document) -> String {
    html::write(doc, &html::Options::default()).html
}

libfuzzer_sys::fuzz_target!(|bytes: &[u8]| {
    let Some((&first, rest)) = bytes.split_first() else { return };
    let name = ["fragment", "bare", "listing", "reader"][usize::from(first % 4)];
    let Ok(mut profile) = Profile::built_in(name) else { return };
    for (bit, setting) in
        ["clean.lists=typed", "clean.layout-tables=true", "clean.capitals=sentence", "clean.line-breaks=paragraphs"]
            .iter()
            .enumerate()
    {
        if first & (4 << bit) != 0 {
            let _ = profile.set(setting);
        }
    }
    let mut doc = html::read(rest, &html::ReadOptions::default());
    refine::clean(&mut doc, &profile.clean);
    let once = written(&doc);
    refine::clean(&mut doc, &profile.clean);
    assert_eq!(once, written(&doc), "cleaning again changes something");
    profile.shape = obblet::profile::Shape::Fragment;
    profile.formats.html.syntax = html::Syntax::Html;
    let Ok(converted) = obblet::write(doc, Format::Html, &profile, &Context::default()) else { return };
    let faults: Vec<String> =
        validity::faults(converted.text().unwrap_or_default()).into_iter().filter(|fault| !fault.contains("class")).collect();
    assert!(faults.is_empty(), "{faults:#?}\n{}", converted.text().unwrap_or_default());
    let _ = html::check(&String::from_utf8_lossy(rest));
});
