//! Citations, and the list of what is cited (the LaTeX documentation, "thebibliography"; of natbib).

use super::Writer;
use crate::document::{Document, Kind, NodeId};
use crate::fast_hash::HashMap;
use std::fmt::Write;

/// What an id of an entry of a bibliography begins with.
const ENTRY: &str = "bib-";

/// Headings of bibliographies as the environment makes them, in the languages of documents.
const USUAL_HEADINGS: [&str; 7] =
    ["References", "Bibliography", "Literatur", "Literaturverzeichnis", "R\u{e9}f\u{e9}rences", "Bibliographie", "Referencias"];

/// The entries of bibliographies, and what they are called where they are cited.
#[derive(Debug, Default)]
pub(super) struct Entries<'d> {
    of: HashMap<&'d str, Called>,
    /// Whether all of them are cited by names and years.
    by_names: bool,
}

/// What an entry is called.
#[derive(Debug, Default)]
struct Called {
    /// Its number in the list.
    number: usize,
    /// The label that stands before it there.
    label: String,
    names: String,
    year: String,
}

impl<'d> Entries<'d> {
    pub(super) fn of(doc: &'d Document) -> Self {
        let mut entries = Self::default();
        let mut texts: Vec<(&'d str, String)> = Vec::new();
        for (id, node) in doc.nodes() {
            match node.kind() {
                Kind::List(_) => {
                    for (at, item) in doc.children(id).enumerate() {
                        let Some(key) = key_of(doc, item) else { break };
                        entries.of.entry(key).or_insert(Called {
                            number: at + 1,
                            label: label_of(doc, item),
                            ..Called::default()
                        });
                    }
                }
                Kind::Link { href } => {
                    if let Some(key) = key_of_address(doc.text(href)) {
                        texts.push((key, doc.plain_text(id)));
                    }
                }
                _ => {}
            }
        }
        if entries.of.is_empty() {
            return entries;
        }
        for (key, text) in texts {
            let Some(called) = entries.of.get_mut(key) else { continue };
            let (names, year) = names_and_year(&text).unwrap_or(("", &*text));
            if is_year(year) {
                year.clone_into(&mut called.year);
                if !names.is_empty() {
                    names.clone_into(&mut called.names);
                }
            } else if called.names.is_empty() && !text.starts_with(|c: char| c.is_ascii_digit()) {
                called.names = text;
            }
        }
        entries.by_names = entries.of.values().all(|called| {
            called.label.is_empty()
                && !called.names.is_empty()
                && !called.year.is_empty()
                && !called.names.contains(['(', '[', ']'])
        });
        entries
    }

    /// The key of the entry that has an id.
    pub(super) fn key_of(&self, id: &'d str) -> Option<&'d str> {
        id.strip_prefix(ENTRY).filter(|key| self.of.contains_key(key))
    }
}

/// Names and a year behind them, with or without a comma between.
fn names_and_year(text: &str) -> Option<(&str, &str)> {
    let (names, year) = text.rsplit_once([' ', '\u{A0}'])?;
    Some((names.trim_end_matches(','), year))
}

/// Whether a comma is between names and year.
fn has_comma(text: &str) -> bool {
    text.rsplit_once([' ', '\u{A0}']).is_some_and(|(names, _)| names.ends_with(','))
}

/// Whether a text is a year, perhaps with a letter that tells it from others.
fn is_year(text: &str) -> bool {
    let digits = text.trim_end_matches(|c: char| c.is_ascii_lowercase());
    text == "n.d." || (digits.len() == 4 && text.len() <= 5 && digits.bytes().all(|byte| byte.is_ascii_digit()))
}

/// The key of the entry that an address within the document leads to.
fn key_of_address(href: &str) -> Option<&str> {
    href.strip_prefix('#')?.strip_prefix(ENTRY).filter(|key| super::links::is_label(key))
}

/// The key of an entry of a bibliography.
fn key_of(doc: &Document, item: NodeId) -> Option<&str> {
    let id = doc.attributes(item).id.map(|id| doc.text(id))?;
    id.strip_prefix(ENTRY).filter(|key| super::links::is_label(key))
}

/// The label that the text of an entry begins with, in brackets.
fn label_of(doc: &Document, item: NodeId) -> String {
    let text = doc.plain_text(item);
    let label = text.strip_prefix('[').and_then(|rest| rest.split_once("] "));
    label.map_or_else(String::new, |(label, _)| label.to_owned())
}

/// A link to an entry, and what stands behind it up to the next or to the bracket that ends the citation.
struct Cited<'d> {
    key: &'d str,
    text: String,
    note: String,
}

/// A citation in brackets.
struct InBrackets<'d> {
    cited: Vec<Cited<'d>>,
    /// Its links behind the first, with what parts them.
    nodes: Vec<NodeId>,
    /// The text behind the last link, and what of it is no part of the citation.
    rest: (NodeId, usize, usize),
}

impl<'d> Writer<'d> {
    /// Whether a list is a bibliography: all of its items are entries.
    pub(super) fn is_bibliography(&self, list: NodeId) -> bool {
        let mut items = self.doc.children(list).peekable();
        items.peek().is_some() && items.all(|item| key_of(self.doc, item).is_some())
    }

    /// The label that the text of an entry begins with, in brackets.
    pub(super) fn label_of_entry(&mut self, item: NodeId) -> String {
        let doc = self.doc;
        let Some((first, _)) = self.first_text(item) else { return String::new() };
        let Kind::Text(text) = doc.kind(first) else { return String::new() };
        let text = doc.text(text);
        let Some((label, rest)) = text.strip_prefix('[').and_then(|rest| rest.split_once("] ")) else { return String::new() };
        self.implied.texts.insert(first, (text.len() - rest.len(), text.len()));
        format!("[{}]", self.escaped(label))
    }

    /// Leaves the heading above a bibliography to the environment, which makes one. Whether it is such a heading.
    pub(super) fn is_heading_of_bibliography(&mut self, id: NodeId) -> bool {
        let doc = self.doc;
        let is_above = self.depth() == 0
            && doc.node(id).next().is_some_and(|next| matches!(doc.kind(next), Kind::List(_)) && self.is_bibliography(next));
        if !is_above || !doc.children(id).all(|child| matches!(doc.kind(child), Kind::Text(_))) {
            return false;
        }
        let words = doc.plain_text(id);
        if !USUAL_HEADINGS.contains(&words.trim()) {
            let command = if self.has_chapters { "bibname" } else { "refname" };
            let words = self.escaped(words.trim());
            self.blank();
            self.line(&format!("\\renewcommand{{\\{command}}}{{{words}}}"));
        }
        true
    }

    /// Begins an entry of a bibliography. Whether it is one.
    pub(super) fn begins_entry(&mut self, item: NodeId) -> bool {
        let Some(key) = key_of(self.doc, item) else { return false };
        let called = self.numbers.entries.of.get(key).filter(|_| self.numbers.entries.by_names);
        let label = match called.map(|called| (called.names.clone(), called.year.clone())) {
            Some((names, year)) => {
                self.needs.packages.insert("natbib");
                format!("[{}({year})]", self.escaped(&names))
            }
            None => self.label_of_entry(item),
        };
        let _ = write!(self.out, "\\bibitem{label}{{{key}}} ");
        true
    }

    /// Writes a citation where a link leads to an entry. Whether it is one.
    pub(super) fn cites(&mut self, link: NodeId, href: &'d str) -> bool {
        let Some(key) = key_of_address(href) else { return false };
        let Some(called) = self.numbers.entries.of.get(key) else { return false };
        let words = self.doc.plain_text(link);
        if !self.numbers.entries.by_names {
            let is_label = words == called.number.to_string() || (!called.label.is_empty() && words == called.label);
            return is_label && self.cites_in_brackets(link, "cite");
        }
        let (names, year) = (called.names.clone(), called.year.clone());
        self.needs.packages.insert("natbib");
        if words == names {
            if !self.cites_in_text(link, key, &year) {
                let _ = write!(self.out, "\\citeauthor{{{key}}}");
            }
            return true;
        }
        if words == year {
            if !self.cites_in_brackets(link, "citeyearpar") {
                let _ = write!(self.out, "\\citeyear{{{key}}}");
            }
            return true;
        }
        names_and_year(&words) == Some((&*names, &*year)) && self.cites_in_brackets(link, "citep")
    }

    /// Names with the year behind them in brackets.
    fn cites_in_text(&mut self, link: NodeId, key: &str, year: &str) -> bool {
        let doc = self.doc;
        let Some(between) = doc.node(link).next() else { return false };
        let Kind::Text(text) = doc.kind(between) else { return false };
        let close = match doc.text(text) {
            " [" | "\u{A0}[" => ']',
            " (" | "\u{A0}(" => ')',
            _ => return false,
        };
        let Some(next) = doc.node(between).next() else { return false };
        let Kind::Link { href } = doc.kind(next) else { return false };
        if key_of_address(doc.text(href)) != Some(key) || doc.plain_text(next) != year {
            return false;
        }
        let Some(citation) = self.up_to_bracket(next, close) else { return false };
        self.needs.round_citations |= close == ')';
        let [Cited { note, .. }] = &citation.cited[..] else { return false };
        let note = self.note_of_citation(note);
        let _ = write!(self.out, "\\citet{note}{{{key}}}");
        self.implied.nodes.extend([between, next]);
        self.imply(citation);
        true
    }

    /// Links in brackets, with words before the first and behind the last.
    fn cites_in_brackets(&mut self, link: NodeId, command: &str) -> bool {
        let doc = self.doc;
        let before = doc.node(link).previous().map_or("", |before| match doc.kind(before) {
            Kind::Text(text) => doc.text(text).rsplit(['[', '(']).next().unwrap_or_default(),
            _ => "",
        });
        let before = before.trim_end_matches([' ', '\u{A0}']);
        // Only packages have a place for words before.
        if !before.is_empty() && (command == "cite" || before.len() > 200) {
            return false;
        }
        let words = self.escaped(before);
        let Some(out) = self.out.trim_end_matches([' ', '~']).strip_suffix(words.as_str()) else { return false };
        // Where it could be an option of a command, the bracket is in braces.
        let brackets = [("{[}", ']'), ("[", ']'), ("(", ')')];
        let begun = brackets.iter().find_map(|(open, close)| Some((out.strip_suffix(open)?.len(), *close)));
        // Numbers stand in square brackets.
        let Some((begin, close)) = begun.filter(|(_, close)| *close == ']' || command != "cite") else { return false };
        let Some(citation) = self.up_to_bracket(link, close) else { return false };
        let Some((last, others)) = citation.cited.split_last() else { return false };
        let is_called = citation.cited.iter().all(|cited| self.is_called(cited, command));
        if !is_called || others.iter().any(|cited| !cited.note.is_empty()) {
            return false;
        }
        let mut note = self.note_of_citation(&last.note);
        if !words.is_empty() {
            note = format!("[{words}]{}", if note.is_empty() { "[]" } else { &note });
        }
        let keys: Vec<&str> = citation.cited.iter().map(|cited| cited.key).collect();
        // Brackets around another command are not those of a citation.
        self.needs.round_citations |= close == ')';
        self.needs.citation_comma |= command == "citep" && citation.cited.iter().any(|cited| has_comma(&cited.text));
        self.out.truncate(begin);
        let _ = write!(self.out, "\\{command}{note}{{{}}}", keys.join(","));
        self.imply(citation);
        true
    }

    /// Whether a link shows what the command prints.
    fn is_called(&self, cited: &Cited<'_>, command: &str) -> bool {
        self.numbers.entries.of.get(cited.key).is_some_and(|called| match command {
            "citep" => names_and_year(&cited.text) == Some((&*called.names, &*called.year)),
            "citeyearpar" => cited.text == called.year,
            _ => cited.text == called.number.to_string() || (!called.label.is_empty() && cited.text == called.label),
        })
    }

    fn note_of_citation(&mut self, words: &str) -> String {
        if words.is_empty() { String::new() } else { format!("[{{{}}}]", self.escaped(words)) }
    }

    /// What belongs to a citation is written with it.
    fn imply(&mut self, citation: InBrackets<'d>) {
        let (behind, from, to) = citation.rest;
        self.implied.texts.insert(behind, (from, to));
        self.implied.nodes.extend(citation.nodes);
    }

    /// The links from one on up to the bracket that ends them.
    fn up_to_bracket(&self, link: NodeId, close: char) -> Option<InBrackets<'d>> {
        let doc = self.doc;
        let (mut cited, mut nodes) = (Vec::new(), Vec::new());
        let mut at = link;
        loop {
            let Kind::Link { href } = doc.kind(at) else { return None };
            let key = key_of_address(doc.text(href))?;
            let behind = doc.node(at).next()?;
            let Kind::Text(text) = doc.kind(behind) else { return None };
            let text = doc.text(text);
            if let Some(end) = text.find(close).filter(|end| *end == 0 || text.starts_with(',')) {
                let note = text[..end].trim_start_matches([',', ' ', '\u{A0}']).to_owned();
                cited.push(Cited { key, text: doc.plain_text(at), note });
                return Some(InBrackets { cited, nodes, rest: (behind, end + 1, text.len()) });
            }
            if !matches!(text.trim(), "," | ";") {
                return None;
            }
            cited.push(Cited { key, text: doc.plain_text(at), note: String::new() });
            at = doc.node(behind).next()?;
            nodes.extend([behind, at]);
        }
    }
}
