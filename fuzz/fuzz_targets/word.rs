//! Any bytes, as a package or as the parts of one, are read without a crash and become valid HTML in every styling.
#![no_main]
#![allow(dead_code)]

#[path = "../../crates/obblet/tests/support/dom.rs"]
mod dom;
#[path = "../../crates/obblet/tests/support/package.rs"]
mod package;
#[path = "../../crates/obblet/tests/support/validity.rs"]
mod validity;

use obblet::profile::Profile;
use obblet::{Format, convert};
use package::Package;

/// Parts stand behind each other with this byte between them, which UTF-8 does not have.
const BETWEEN: u8 = 0xFF;

fn as_package(bytes: &[u8]) -> Vec<u8> {
    let mut parts = bytes.split(|byte| *byte == BETWEEN).map(|part| String::from_utf8_lossy(part).into_owned());
    let mut next = || parts.next().unwrap_or_default();
    let (body, styles, numbering, footnotes, comments, theme) = (next(), next(), next(), next(), next(), next());
    let picture = ("a.png".to_owned(), vec![0x89, b'P', b'N', b'G']);
    let link = ("a".to_owned(), "https://greywick.example/".to_owned());
    Package {
        body,
        styles,
        numbering,
        footnotes,
        comments,
        theme,
        pictures: vec![picture],
        links: vec![link],
        ..Package::default()
    }
    .bytes()
}

libfuzzer_sys::fuzz_target!(|bytes: &[u8]| {
    let Some((&first, rest)) = bytes.split_first() else { return };
    let whole = rest.starts_with(b"PK");
    let source = if whole { rest.to_vec() } else { as_package(rest) };
    let styling = ["semantic", "named", "exact"][usize::from(first % 3)];
    let Ok(mut profile) = Profile::built_in("fragment") else { return };
    for setting in [format!("styling={styling}"), "limits.unpacked=4000000".to_owned()] {
        let _ = profile.set(&setting);
    }
    let choices = [
        "clean.revisions=keep",
        "word.comments=notes",
        "word.contents=true",
        "word.heading-numbers=keep",
        "clean.revisions=reject",
    ];
    for (bit, setting) in choices.iter().enumerate() {
        if first & (8 << bit) != 0 {
            let _ = profile.set(setting);
        }
    }
    if let Ok(converted) = convert(&source, Format::Word, Format::Html, &profile) {
        let faults: Vec<String> =
            validity::faults(converted.text().unwrap_or_default()).into_iter().filter(|fault| !fault.contains("class")).collect();
        assert!(faults.is_empty(), "{faults:#?}\n{}", converted.text().unwrap_or_default());
    }
});
