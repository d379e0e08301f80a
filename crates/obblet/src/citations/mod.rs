//! Bibliographies: entries from files, chosen by what is cited, sorted and labelled as a style says, and written as LaTeX, which the
//! fields of entries are in anyway.

mod bibtex;
mod entry;
mod keys;

pub(crate) use entry::Entry;
pub(crate) use keys::cited;

use crate::document::CitationStyle;
use crate::fast_hash::{HashMap, HashSet};
use std::fmt::Write;

/// The entries that a text cites, from files of them, in the order of the style; `all` where it asks for every entry.
pub(crate) fn chosen(files: &[String], keys: &[&str], all: bool, style: CitationStyle) -> Vec<Entry> {
    let mut entries: Vec<Entry> = Vec::new();
    let mut known = HashSet::default();
    for file in files {
        entries.extend(bibtex::parse(file).into_iter().filter(|entry| known.insert(entry.key.clone())));
    }
    let mut order: HashMap<&str, usize> = HashMap::default();
    for (at, key) in keys.iter().enumerate() {
        order.entry(key).or_insert(at);
    }
    entries.retain(|entry| all || order.contains_key(&*entry.key));
    match style {
        CitationStyle::CitedOrder => entries.sort_by_key(|entry| order.get(&*entry.key).copied().unwrap_or(usize::MAX)),
        CitationStyle::Letters => entries.sort_by_cached_key(|entry| (entry.letters(), entry.sort_key())),
        CitationStyle::Numbers | CitationStyle::AuthorYear => entries.sort_by_cached_key(Entry::sort_key),
    }
    entries
}

/// What an entry is called in a list; empty where it is its number there.
pub(crate) fn label(entry: &Entry, style: CitationStyle) -> String {
    match style {
        CitationStyle::Numbers | CitationStyle::CitedOrder => String::new(),
        CitationStyle::Letters => entry.letters(),
        CitationStyle::AuthorYear => format!("{}({})", entry.short_names(), entry.year()),
    }
}

/// The list of entries, as LaTeX.
pub(crate) fn list(entries: &[Entry], style: CitationStyle) -> String {
    let mut out = "\\begin{thebibliography}{99}\n".to_owned();
    for entry in entries {
        let label = match label(entry, style) {
            label if label.is_empty() => label,
            label if style == CitationStyle::AuthorYear => format!("[{{{label}}}]"),
            label => format!("[{label}]"),
        };
        let _ = writeln!(out, "\\bibitem{label}{{{}}} {}\n", entry.key, entry.text());
    }
    out.push_str("\\end{thebibliography}\n");
    out
}
