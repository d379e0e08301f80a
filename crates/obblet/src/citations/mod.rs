//! Bibliographies: entries from files, chosen by what is cited, sorted and labelled as a style says, and written as LaTeX, which the
//! fields of entries are in anyway.

mod amsrefs;
mod bibtex;
mod entry;
mod entry_text;
mod keys;
mod names;
mod words;

pub(crate) use keys::cited;
pub(crate) use words::Words;

use crate::document::{BibliographyStyle, CitationStyle, EntryForm, Marker};
use crate::fast_hash::{HashMap, HashSet};
use entry::Entry;
use std::fmt::Write;

/// An entry of a list. All texts are LaTeX.
#[derive(Clone, Debug, Default)]
pub(crate) struct Listed {
    pub(crate) key: String,
    /// Its label of letters; empty where it has none.
    pub(crate) letters: String,
    /// Its names as citations have them, and all of them.
    pub(crate) names: String,
    pub(crate) all_names: String,
    /// Its year, with the letter that tells it from others by the same names.
    pub(crate) year: String,
    /// Its title, as a text has it that names it.
    pub(crate) title: String,
    /// What is printed of it in the list, and what elsewhere.
    pub(crate) text: String,
    pub(crate) whole: String,
    /// What kind of work it is, and what it is about, as lists may choose by these.
    pub(crate) kind: String,
    pub(crate) keywords: String,
}

/// What is cited.
#[derive(Clone, Copy, Debug)]
pub(crate) struct Wanted<'k> {
    pub(crate) keys: &'k [&'k str],
    /// Whether every entry of the files is listed.
    pub(crate) all: bool,
}

/// The entries that a text cites, from files of them, in the order of the style.
pub(crate) fn listed(files: &[String], wanted: Wanted<'_>, style: BibliographyStyle, words: &'static Words) -> Vec<Listed> {
    let mut known = HashSet::default();
    let entries = files.iter().flat_map(|file| bibtex::parse(file)).filter(|entry| known.insert(entry.key.clone()));
    arranged(entries.collect(), wanted, style, words)
}

/// The entries that a document holds itself, in its order, or as the style sorts them.
pub(crate) fn held(source: &str, style: BibliographyStyle, words: &'static Words) -> Vec<Listed> {
    arranged(amsrefs::parse(source), Wanted { keys: &[], all: true }, style, words)
}

fn arranged(mut entries: Vec<Entry>, wanted: Wanted<'_>, style: BibliographyStyle, words: &'static Words) -> Vec<Listed> {
    let mut order: HashMap<&str, usize> = HashMap::default();
    for (at, key) in wanted.keys.iter().enumerate() {
        order.entry(key).or_insert(at);
    }
    entries.retain(|entry| wanted.all || order.contains_key(&*entry.key));
    // What is not cited stands behind, in the order of the files.
    let mut placed: Vec<(usize, Entry)> = entries.into_iter().enumerate().collect();
    placed.sort_by_cached_key(|(at, entry)| {
        let cited = order.get(&*entry.key).copied().unwrap_or(order.len() + at);
        entry.sort_key(style, cited)
    });
    let entries: Vec<Entry> = placed.into_iter().map(|(_, entry)| entry).collect();
    let called: Vec<(String, String)> = entries
        .iter()
        .map(|entry| match style.labels {
            CitationStyle::Letters => (entry.letters(style), String::new()),
            _ => (entry.short_names(style, words), entry.year()),
        })
        .collect();
    let letters = letters_of_same(&called);
    entries
        .iter()
        .zip(called)
        .zip(letters)
        .map(|((entry, (name, _)), letter)| {
            let has_letters = style.labels == CitationStyle::Letters;
            let behind_year = if style.labels == CitationStyle::AuthorYear { letter.as_str() } else { "" };
            let printed = entry_text::Printed { entry, style, letter: behind_year, words, is_listed: true };
            Listed {
                key: entry.key.clone(),
                letters: if has_letters { format!("{name}{letter}") } else { String::new() },
                names: entry.short_names(style, words),
                all_names: entry.all_names(style, words),
                year: year_of(entry, style, words) + behind_year,
                title: printed.title_alone(),
                text: printed.text(),
                whole: entry_text::Printed { is_listed: false, ..printed }.text(),
                kind: entry.kind.clone(),
                keywords: entry.field(&["keywords"]).unwrap_or_default().to_owned(),
            }
        })
        .collect()
}

/// The year of an entry; the word for none, where a style has one.
fn year_of(entry: &Entry, style: BibliographyStyle, words: &Words) -> String {
    let year = entry.year();
    let says_none = style.entries.is_quoted() || style.entries == EntryForm::AuthorDate;
    if year.is_empty() && says_none { words.no_year.to_owned() } else { year }
}

/// The letters that tell entries apart which are called the same.
fn letters_of_same(called: &[(String, String)]) -> Vec<String> {
    let mut counts: HashMap<&(String, String), u32> = HashMap::default();
    for name in called {
        *counts.entry(name).or_default() += 1;
    }
    let mut given: HashMap<&(String, String), u32> = HashMap::default();
    called
        .iter()
        .map(|name| {
            // Without a year, there is nothing that the letter would stand behind.
            if counts.get(name).is_none_or(|count| *count < 2) {
                return String::new();
            }
            let number = given.entry(name).or_default();
            *number += 1;
            crate::numeral::numeral(i64::from(*number), Marker::LowerAlpha)
        })
        .collect()
}

/// A list of entries, as LaTeX: an environment with a name of its own, or the one for bibliographies, which has a heading.
pub(crate) fn list<'l>(
    entries: impl IntoIterator<Item = (usize, &'l Listed)>,
    labels: CitationStyle,
    environment: &str,
) -> String {
    let mut out = format!("\\begin{{{environment}}}{{99}}\n");
    for (at, (number, entry)) in entries.into_iter().enumerate() {
        let label = match labels {
            CitationStyle::Numbers if number == at + 1 => String::new(),
            CitationStyle::Numbers => format!("[{number}]"),
            CitationStyle::Letters => format!("[{}]", entry.letters),
            CitationStyle::AuthorYear | CitationStyle::AuthorTitle => {
                format!("[{{{}({}){}}}]", entry.names, entry.year, entry.all_names)
            }
        };
        let _ = writeln!(out, "\\bibitem{label}{{{}}} {}\n", entry.key, entry.text);
    }
    let _ = writeln!(out, "\\end{{{environment}}}");
    out
}
