//! Conversions as short as tests want them.

use obblet::profile::Profile;
use obblet::{Converted, Format};

/// A built-in profile with settings on top.
pub fn profile(name: &str, settings: &[&str]) -> Profile {
    let mut profile = Profile::built_in(name).unwrap();
    settings.iter().for_each(|setting| profile.set(setting).unwrap());
    profile
}

/// Converts with the profile `fragment` and settings on top.
pub fn convert(source: impl AsRef<[u8]>, reads: Format, writes: Format, settings: &[&str]) -> Converted {
    convert_as("fragment", source, reads, writes, settings)
}

/// Converts with a built-in profile and settings on top.
pub fn convert_as(name: &str, source: impl AsRef<[u8]>, reads: Format, writes: Format, settings: &[&str]) -> Converted {
    obblet::convert(source.as_ref(), reads, writes, &profile(name, settings)).unwrap()
}

/// The same markup with single spaces for white space, where that means the same.
pub fn normal(html: &str) -> String {
    let mut out = String::new();
    for (index, piece) in html.split("<pre>").enumerate() {
        let (code, text) = if index == 0 { ("", piece) } else { piece.split_once("</pre>").unwrap_or((piece, "")) };
        out.push_str(code);
        let words: Vec<&str> = text.split([' ', '\n', '\t']).filter(|word| !word.is_empty()).collect();
        out.push_str(&words.join(" ").replace("> ", ">").replace(" <", "<"));
    }
    out
}
