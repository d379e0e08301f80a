//! Entries that a LaTeX document holds itself: `\bib{key}{book}{author={...}, title={...}}` (the documentation of amsrefs, "The bib
//! command").

use super::bibtex::Parser;
use super::entry::Entry;
use crate::fast_hash::HashMap;

/// The entries of a list, in its order.
pub(super) fn parse(source: &str) -> Vec<Entry> {
    const COMMAND: &str = "\\bib";
    let mut parser = Parser::new(source);
    let strings = HashMap::default();
    let mut entries = Vec::new();
    while let Some(ahead) = memchr::memmem::find(parser.rest().as_bytes(), COMMAND.as_bytes()) {
        parser.skip(ahead + COMMAND.len());
        parser.takes('*');
        if !parser.takes('{') {
            continue;
        }
        let key = parser.balanced('}').trim().to_owned();
        if !parser.takes('{') {
            continue;
        }
        let kind = parser.balanced('}').trim().to_ascii_lowercase();
        if !parser.takes('{') {
            continue;
        }
        let mut entry = Entry { key, kind, ..Entry::default() };
        while let Some((name, value)) = parser.field(&strings) {
            // Each name has a field of its own.
            let known = entry.fields.entry(name.clone()).or_default();
            if !known.is_empty() && matches!(name.as_str(), "author" | "editor") {
                known.push_str(" and ");
                known.push_str(&value);
            } else if known.is_empty() {
                *known = value;
            }
            if !parser.takes(',') {
                break;
            }
        }
        if !entry.key.is_empty() {
            entries.push(entry);
        }
    }
    entries
}
