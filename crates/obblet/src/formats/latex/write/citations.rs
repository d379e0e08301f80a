//! Citations, and the list of what is cited (the LaTeX documentation, "thebibliography"; of natbib).

use super::Writer;
use super::preamble::Extra;
use crate::document::{Document, Kind, NodeId};
use crate::fast_hash::HashMap;
use std::fmt::Write;

/// What an id of an entry of a bibliography begins with.
const ENTRY: &str = "bib-";

/// The entries of bibliographies, and what they are called where they are cited.
#[derive(Debug, Default)]
pub(super) struct Entries<'d> {
    of: HashMap<&'d str, Called>,
    by_number: HashMap<usize, &'d str>,
    cited_by: CitedBy,
    /// The heading that the environment makes for now; nothing where it is the usual one.
    heading: Option<String>,
    /// Whether the next list has its heading.
    has_heading: bool,
    /// Whether lists show no numbers.
    is_bare: bool,
}

/// What all citations of a document show.
#[derive(Clone, Copy, Debug, Default, PartialEq, Eq)]
enum CitedBy {
    #[default]
    Numbers,
    /// Numbers above the line.
    RaisedNumbers,
    NamesAndYears,
}

/// What an entry is called.
#[derive(Debug, Default)]
struct Called {
    /// Its number in the list.
    number: usize,
    /// The label that stands before it there.
    label: String,
    names: String,
    /// All names, where some citations say these.
    all_names: String,
    year: String,
    is_cited: bool,
}

impl<'d> Entries<'d> {
    pub(super) fn of(doc: &'d Document) -> Self {
        let mut entries = Self::default();
        let mut texts: Vec<(&'d str, String)> = Vec::new();
        let mut is_ordered = false;
        let (mut raised, mut on_line) = (0, 0);
        for (id, node) in doc.nodes() {
            match node.kind() {
                Kind::List(list) => {
                    let has_entries = doc.children(id).next().is_some_and(|item| key_of(doc, item).is_some());
                    is_ordered |= list.ordered && has_entries;
                    for (at, item) in doc.children(id).enumerate() {
                        let Some(key) = key_of(doc, item) else { break };
                        entries.by_number.entry(at + 1).or_insert(key);
                        entries.of.entry(key).or_insert(Called {
                            number: at + 1,
                            label: label_of(doc, item),
                            ..Called::default()
                        });
                    }
                }
                Kind::Link { href } => {
                    if let Some(key) = key_of_address(doc.text(href)) {
                        let words = doc.plain_text(id);
                        if words.bytes().all(|byte| byte.is_ascii_digit()) && words.len() < 4 {
                            let is_raised = node.parent().is_some_and(|parent| doc.kind(parent) == Kind::Superscript);
                            *if is_raised { &mut raised } else { &mut on_line } += 1;
                        }
                        texts.push((key, words));
                    }
                }
                _ => {}
            }
        }
        if entries.of.is_empty() {
            return entries;
        }
        if raised > 0 && on_line == 0 {
            entries.cited_by = CitedBy::RaisedNumbers;
        }
        let mut before: (String, String) = Default::default();
        for (key, text) in texts {
            let Some(called) = entries.of.get_mut(key) else { continue };
            called.is_cited = true;
            let (names, year) = names_and_year(&text).unwrap_or(("", &*text));
            let same_year = letter_of_year(year).filter(|_| names.is_empty() && !before.1.is_empty());
            if is_year(year) || same_year.is_some() {
                // Another year of the same names is said without these.
                called.year = match same_year {
                    Some(letter) => format!("{}{letter}", before.1.trim_end_matches(|c: char| c.is_ascii_lowercase())),
                    None => year.to_owned(),
                };
                if !names.is_empty() {
                    called.say_names(names);
                } else if called.names.is_empty() {
                    called.names.clone_from(&before.0);
                }
                before = (called.names.clone(), called.year.clone());
            } else if !text.starts_with(|c: char| c.is_ascii_digit()) {
                called.say_names(&text);
                before = (called.names.clone(), String::new());
            }
        }
        let has_names =
            |called: &Called| called.label.is_empty() && !called.names.is_empty() && !called.names.contains(['(', '[', ']']);
        let by_names = entries.of.values().any(|called| has_names(called) && !called.year.is_empty())
            && entries.of.values().all(|called| has_names(called) || (!called.is_cited && !is_ordered));
        if by_names {
            entries.cited_by = CitedBy::NamesAndYears;
        }
        entries
    }

    fn by_names(&self) -> bool {
        self.cited_by == CitedBy::NamesAndYears
    }

    /// The key of the entry that has an id.
    pub(super) fn key_of(&self, id: &'d str) -> Option<&'d str> {
        id.strip_prefix(ENTRY).filter(|key| self.of.contains_key(key))
    }
}

impl Called {
    /// Takes names that a citation says: the short ones, or all of them.
    fn say_names(&mut self, names: &str) {
        let is_short = |names: &str| names.ends_with("et al.") || names.ends_with("et\u{A0}al.");
        if self.names.is_empty() || self.names == names {
            names.clone_into(&mut self.names);
        } else if is_short(&self.names) {
            names.clone_into(&mut self.all_names);
        } else if is_short(names) {
            self.all_names = std::mem::replace(&mut self.names, names.to_owned());
        }
    }

    /// Whether a text is its year, or the letter of it, behind another entry by the same names.
    fn says_year(&self, text: &str, before: &Self) -> bool {
        let is_letter = letter_of_year(text).is_some_and(|letter| self.year.ends_with(letter));
        self.names == before.names && (text == self.year || is_letter)
    }

    /// The option of the command that has a citation say all names.
    fn star(&self, names: &str) -> &'static str {
        if !self.all_names.is_empty() && names == self.all_names { "*" } else { "" }
    }
}

/// The letter that stands for a year which has been said before.
fn letter_of_year(text: &str) -> Option<char> {
    let mut letters = text.chars();
    letters.next().filter(|letter| letter.is_ascii_lowercase() && letters.next().is_none())
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
    /// Whether commas stand between, and whether numbers are left out within a range.
    has_commas: bool,
    has_range: bool,
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
        let is_numbered =
            doc.metadata.presentation.numbered_levels.is_some_and(|levels| levels > 0) && !super::numbers::is_unnumbered(doc, id);
        if is_numbered {
            return false;
        }
        let words = doc.plain_text(id);
        let words = words.trim();
        let usual = self.usual_heading_of_bibliography();
        self.set_heading_of_bibliography(Some(words).filter(|words| *words != usual));
        self.numbers.entries.has_heading = true;
        true
    }

    /// The heading that the environment makes in the language of the document.
    fn usual_heading_of_bibliography(&self) -> &'static str {
        let language = self.doc.metadata.language.as_deref().unwrap_or_default();
        crate::formats::latex::heading_of_entries(language, self.has_chapters)
    }

    /// Says which heading the environment makes.
    fn set_heading_of_bibliography(&mut self, words: Option<&str>) {
        if self.numbers.entries.heading.as_deref() == words {
            return;
        }
        let command = if self.has_chapters { "bibname" } else { "refname" };
        let shown = words.unwrap_or_else(|| self.usual_heading_of_bibliography()).to_owned();
        let shown = self.escaped(&shown);
        self.blank();
        self.line(&format!("\\renewcommand{{\\{command}}}{{{shown}}}"));
        self.numbers.entries.heading = words.map(str::to_owned);
    }

    /// Begins a list of entries.
    pub(super) fn begin_bibliography(&mut self, list: NodeId, is_ordered: bool) {
        if !std::mem::take(&mut self.numbers.entries.has_heading) {
            self.set_heading_of_bibliography(Some(""));
        }
        let has_label = |item| !label_of(self.doc, item).is_empty();
        let is_bare = !is_ordered && !self.numbers.entries.by_names() && !self.doc.children(list).any(has_label);
        if is_bare && !self.numbers.entries.is_bare {
            // Its entries have no numbers.
            self.line("\\makeatletter\\renewcommand{\\@biblabel}[1]{}\\makeatother");
        }
        self.numbers.entries.is_bare |= is_bare;
        self.blank();
        self.line(if is_bare { "\\begin{thebibliography}{}" } else { "\\begin{thebibliography}{99}" });
    }

    /// Begins an entry of a bibliography. Whether it is one.
    pub(super) fn begins_entry(&mut self, item: NodeId) -> bool {
        let Some(key) = key_of(self.doc, item) else { return false };
        let called = self.numbers.entries.of.get(key).filter(|_| self.numbers.entries.by_names());
        let label = match called.map(|called| (called.names.clone(), called.year.clone(), called.all_names.clone())) {
            Some((names, year, all_names)) => {
                self.needs.packages.insert("natbib");
                let (names, all_names) = (self.escaped(&names), self.escaped(&all_names));
                let names = if names.is_empty() { "{}" } else { &names };
                format!("[{names}({year}){all_names}]")
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
        if !self.numbers.entries.by_names() {
            let is_label = words == called.number.to_string() || (!called.label.is_empty() && words == called.label);
            return is_label && self.cites_in_brackets(link, "cite");
        }
        let year = called.year.clone();
        self.needs.packages.insert("natbib");
        if words == called.names || words == called.all_names {
            let star = called.star(&words);
            if !self.cites_in_text(link, key, &year, star) {
                let _ = write!(self.out, "\\citeauthor{star}{{{key}}}");
            }
            return true;
        }
        if words == year {
            if !self.cites_in_brackets(link, "citeyearpar") {
                let _ = write!(self.out, "\\citeyear{{{key}}}");
            }
            return true;
        }
        let Some((names, said)) = names_and_year(&words) else { return false };
        let is_all = names == called.all_names && !names.is_empty();
        if said != year || !(is_all || names == called.names) {
            return false;
        }
        let star = called.star(names);
        if !self.cites_in_brackets(link, "citep") {
            self.needs.add(Extra::CommasBeforeYears, has_comma(&words));
            let command = if has_comma(&words) { "citealp" } else { "citealt" };
            let _ = write!(self.out, "\\{command}{star}{{{key}}}");
        }
        true
    }

    /// Writes a citation whose numbers stand above the line. Whether it is one.
    pub(super) fn cites_above_line(&mut self, id: NodeId) -> bool {
        let entries = &self.numbers.entries;
        // The package leaves no space before it.
        if entries.cited_by != CitedBy::RaisedNumbers || self.out.ends_with([' ', '\n', '~']) {
            return false;
        }
        let doc = self.doc;
        let (mut cited, mut before, mut has_range): (Vec<Cited<'d>>, Option<NodeId>, bool) = (Vec::new(), None, false);
        let mut children = doc.children(id);
        while let Some(link) = children.next() {
            let Kind::Link { href } = doc.kind(link) else { return false };
            let Some(key) = key_of_address(doc.text(href)) else { return false };
            if let Some(first) = before {
                let Some(between) = self.between_numbers(first, link) else { return false };
                cited.extend(between);
            }
            cited.push(Cited { key, text: doc.plain_text(link), note: String::new() });
            let Some(sign) = children.next() else { break };
            let Kind::Text(text) = doc.kind(sign) else { return false };
            match doc.text(text).trim() {
                "," => before = None,
                "\u{2013}" => (before, has_range) = (Some(link), true),
                _ => return false,
            }
        }
        if cited.is_empty() || !cited.iter().all(|cited| self.is_called(cited)) {
            return false;
        }
        self.needs.packages.insert("natbib");
        self.needs.add(Extra::RaisedCitations, true);
        self.needs.add(Extra::RangesOfCitations, has_range);
        let keys: Vec<&str> = cited.iter().map(|cited| cited.key).collect();
        let _ = write!(self.out, "\\cite{{{}}}", keys.join(","));
        true
    }

    /// Names with the year behind them in brackets.
    fn cites_in_text(&mut self, link: NodeId, key: &str, year: &str, star: &str) -> bool {
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
        self.needs.add(Extra::RoundCitations, close == ')');
        let Some((last, others)) = citation.cited.split_last() else { return false };
        if others.iter().any(|cited| !cited.note.is_empty()) || !self.are_years(&citation.cited) {
            return false;
        }
        let note = self.note_of_citation(&last.note);
        let keys: Vec<&str> = citation.cited.iter().map(|cited| cited.key).collect();
        let _ = write!(self.out, "\\citet{star}{note}{{{}}}", keys.join(","));
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
        let is_called = match command {
            "citep" => self.are_called_by_names(&citation.cited),
            "citeyearpar" => citation.cited.len() == 1,
            _ => citation.cited.iter().all(|cited| self.is_called(cited)),
        };
        if !is_called || others.iter().any(|cited| !cited.note.is_empty()) {
            return false;
        }
        let mut note = self.note_of_citation(&last.note);
        if !words.is_empty() {
            note = format!("[{words}]{}", if note.is_empty() { "[]" } else { &note });
        }
        let keys: Vec<&str> = citation.cited.iter().map(|cited| cited.key).collect();
        // Brackets around another command are not those of a citation.
        self.needs.add(Extra::RoundCitations, close == ')');
        let is_by_names = command == "citep";
        let has_comma = is_by_names && citation.cited.iter().any(|cited| has_comma(&cited.text));
        self.needs.add(Extra::CommasBeforeYears, has_comma);
        self.needs.add(Extra::CommasBetweenCitations, is_by_names && citation.has_commas);
        if citation.has_range {
            self.needs.packages.insert("cite");
        }
        let called = self.numbers.entries.of.get(last.key);
        let star = match (command, called, names_and_year(&last.text)) {
            ("citep", Some(called), Some((names, _))) => called.star(names),
            _ => "",
        };
        self.out.truncate(begin);
        let _ = write!(self.out, "\\{command}{star}{note}{{{}}}", keys.join(","));
        self.imply(citation);
        true
    }

    /// Whether a link shows the number or the label of its entry.
    fn is_called(&self, cited: &Cited<'_>) -> bool {
        self.numbers.entries.of.get(cited.key).is_some_and(|called| {
            cited.text == called.number.to_string() || (!called.label.is_empty() && cited.text == called.label)
        })
    }

    /// Whether links show names and years of their entries; names that come again are left out.
    fn are_called_by_names(&self, cited: &[Cited<'_>]) -> bool {
        let mut before: Option<&Called> = None;
        cited.iter().all(|cited| {
            let Some(called) = self.numbers.entries.of.get(cited.key) else { return false };
            let is_whole = names_and_year(&cited.text).is_some_and(|(names, year)| {
                year == called.year && (names == called.names || (!names.is_empty() && names == called.all_names))
            });
            let says_year = before.is_some_and(|before| called.says_year(&cited.text, before));
            before = Some(called);
            is_whole || says_year
        })
    }

    /// Whether links show the years of entries by the same names.
    fn are_years(&self, cited: &[Cited<'_>]) -> bool {
        let called: Vec<Option<&Called>> = cited.iter().map(|cited| self.numbers.entries.of.get(cited.key)).collect();
        cited.iter().enumerate().skip(1).all(|(at, cited)| match (called[at - 1], called[at]) {
            (Some(before), Some(called)) => called.says_year(&cited.text, before),
            _ => false,
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

    /// The entries between two that are the ends of a range of numbers.
    fn between_numbers(&self, first: NodeId, last: NodeId) -> Option<Vec<Cited<'d>>> {
        /// A range has no more numbers.
        const LONGEST_RANGE: usize = 200;
        let number = |link| self.doc.plain_text(link).parse::<usize>().ok();
        let (first, last) = (number(first)?, number(last)?);
        if last <= first + 1 || last - first > LONGEST_RANGE {
            return None;
        }
        let key_of = |number: usize| self.numbers.entries.by_number.get(&number).copied();
        (first + 1..last)
            .map(|number| Some(Cited { key: key_of(number)?, text: number.to_string(), note: String::new() }))
            .collect()
    }

    /// The links from one on up to the bracket that ends them.
    fn up_to_bracket(&self, link: NodeId, close: char) -> Option<InBrackets<'d>> {
        let doc = self.doc;
        let (mut cited, mut nodes) = (Vec::new(), Vec::new());
        let (mut has_commas, mut has_range) = (false, false);
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
                return Some(InBrackets { cited, nodes, rest: (behind, end + 1, text.len()), has_commas, has_range });
            }
            cited.push(Cited { key, text: doc.plain_text(at), note: String::new() });
            let next = doc.node(behind).next()?;
            match text.trim() {
                // A year or a letter alone has a comma before it, whatever stands between citations.
                "," => has_commas |= names_and_year(&doc.plain_text(next)).is_some(),
                ";" => {}
                "\u{2013}" => {
                    has_range = true;
                    cited.extend(self.between_numbers(at, next)?);
                }
                _ => return None,
            }
            at = next;
            nodes.extend([behind, at]);
        }
    }
}
