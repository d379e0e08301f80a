//! What a source cites, by which style, and where the entries are: known before it is read, since the list of them is text that is
//! taken in (the LaTeX documentation, "Citations"; of natbib and biblatex).

use crate::document::CitationStyle;
use crate::fast_hash::HashSet;

/// An argument is no longer.
const LONGEST_ARGUMENT: usize = 2_000;

/// What stands before a sign that is not far away, and behind it.
fn up_to(text: &str, close: u8) -> Option<(&str, &str)> {
    let length = memchr::memchr(close, &text.as_bytes()[..text.len().min(LONGEST_ARGUMENT)])?;
    Some((&text[..length], &text[length + 1..]))
}

/// The style that a document asks for; its name, where it is not known what that style does.
pub(super) fn style_of(source: &str) -> Result<CitationStyle, &str> {
    let argument = |command: &str| {
        let rest = &source[source.rfind(command)? + command.len()..];
        up_to(rest, b'}').map(|(name, _)| name)
    };
    let packages =
        source.match_indices("\\usepackage[").filter_map(|(at, _)| up_to(&source[at..], b'}').map(|(package, _)| package));
    let package = packages.filter(|package| package.ends_with("{biblatex")).last().unwrap_or_default();
    let named = argument("\\bibliographystyle{").map(str::trim);
    match CitationStyle::from_name(named.unwrap_or(package)) {
        Some(style) => Ok(style),
        None => named.filter(|name| !name.is_empty()).map_or(Ok(CitationStyle::Numbers), Err),
    }
}

/// The files that a document names besides.
pub(super) fn resources(source: &str) -> Vec<String> {
    let found =
        source.match_indices("\\addbibresource{").filter_map(|(at, command)| source[at + command.len()..].split('}').next());
    found.map(|name| name.trim().to_owned()).take(20).collect()
}

/// The keys that a text cites, each once, in their order; and whether it asks for all entries.
pub(super) fn cited(source: &str) -> (Vec<&str>, bool) {
    let (mut keys, mut known, mut all) = (Vec::new(), HashSet::default(), false);
    for (at, _) in source.match_indices("cite") {
        let letters = source[..at].bytes().rev().take(24).take_while(u8::is_ascii_alphabetic).count();
        if !source[..at - letters].ends_with('\\') {
            continue;
        }
        let rest = source[at + 4..].trim_start_matches(|c: char| c.is_ascii_alphabetic() || c == '*');
        let mut rest = rest;
        for _ in 0..2 {
            if let Some((_, behind)) = rest.strip_prefix('[').and_then(|option| up_to(option, b']')) {
                rest = behind;
            }
        }
        let Some((list, _)) = rest.strip_prefix('{').and_then(|list| up_to(list, b'}')) else { continue };
        for key in list.split(',').map(str::trim) {
            all |= key == "*";
            if !key.is_empty() && key != "*" && known.insert(key) {
                keys.push(key);
            }
        }
    }
    (keys, all)
}
