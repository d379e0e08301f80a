//! Any bytes, read by the reader of any format and written by the writer of any other: what a new format has from its first day.
#![no_main]

use obblet::profile::Profile;
use obblet::{Error, Format, convert};

libfuzzer_sys::fuzz_target!(|bytes: &[u8]| {
    let [first, second, rest @ ..] = bytes else { return };
    let pick = |byte: &u8, formats: Vec<Format>| formats[usize::from(*byte) % formats.len()];
    let reads = pick(first, Format::all().filter(|format| format.is_read()).collect());
    let writes = pick(second, Format::all().filter(|format| format.is_written()).collect());
    let mut profile = Profile::fragment();
    let _ = profile.set("limits.unpacked=4000000");
    let Ok(converted) = convert(rest, reads, writes, &profile) else { return };
    if writes == Format::Word {
        // With all the looks that there are, and again: the package is one that can be read.
        let _ = profile.set("styling=exact");
        assert!(convert(&converted.bytes, writes, writes, &profile).is_ok());
    }
    let again = convert(&converted.bytes, writes, Format::Html, &profile);
    // Text may begin with the letters of an archive.
    let is_read = matches!(again, Ok(_) | Err(Error::NotText { .. }));
    assert!(is_read, "what is written as {writes} can't be read: {:?}", again.err());
});
