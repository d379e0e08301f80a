//! Citations, and the list of what is cited (the LaTeX documentation, "thebibliography"; of natbib and biblatex).

use super::Reader;
use super::citations::Called;
use super::tokens::{Kind as Sign, Token};
use crate::document::{Kind, ListKind, Marker};

impl Reader<'_> {
    /// Begins the list of what is cited, with a heading above it.
    pub(super) fn begin_bibliography(&mut self, name: &str) {
        self.input.argument();
        // Slides have headings of their own.
        if name != super::entry_lists::WITHOUT_HEADING && self.front.class != "beamer" {
            self.heading_of_bibliography();
        }
        self.counters.set("bibitem", 0);
        let list = ListKind { ordered: !self.labels_are_empty(), tight: true, marker: Marker::Plain, start: 1 };
        let list = self.block(Kind::List(list));
        self.lists.push(super::lists::List::of_entries(list, self.parts.len()));
    }

    /// Whether the document prints no labels of entries.
    fn labels_are_empty(&mut self) -> bool {
        if !self.macros.knows("@biblabel") {
            return false;
        }
        let at = self.at;
        let label = [Sign::Command("@biblabel".into()), Sign::Begin, Sign::Char('1'), Sign::End];
        let shown = self.written_out(&label.map(|kind| Token { kind, at }));
        self.words(&shown).trim().is_empty()
    }

    fn heading_of_bibliography(&mut self) {
        let is_book = self.counters.has_chapters;
        let language = self.front.language.clone().unwrap_or_default();
        let own = if is_book { "bibname" } else { "refname" };
        let words = if self.macros.knows(own) {
            self.words(&[Token { kind: Sign::Command(own.into()), at: self.at }])
        } else {
            heading_of_entries(&language, is_book).to_owned()
        };
        if words.trim().is_empty() {
            return;
        }
        let level = self.counters.level(if is_book { "chapter" } else { "section" }).unwrap_or(1);
        let heading = self.block(Kind::Heading(level));
        let class = self.doc.intern("unnumbered");
        self.doc.attributes_mut(heading).classes.push(class);
        let words = self.doc.intern(&words);
        self.doc.append_at(heading, Kind::Text(words), self.at);
    }

    /// Begins an entry.
    pub(super) fn entry(&mut self) {
        let label = self.input.option();
        let key = self.input.argument();
        let key = self.input.characters(&key);
        let Some(list) = self.begin_entry() else { return };
        // Entries with labels of their own are not counted, but where the package counts all.
        let is_counted = label.is_none() || self.references.citations.marks.numbers;
        let number = if is_counted { self.counters.step("bibitem") } else { String::new() };
        let is_among_labels = label.is_none()
            && self
                .doc
                .node(list)
                .parent()
                .is_some_and(|list| matches!(self.doc.kind(list), Kind::List(ListKind { ordered: false, .. })))
            && !self.macros.knows("@biblabel");
        let label_is_parts = label.as_ref().is_some_and(|label| {
            let words = self.words(label);
            words.contains('(') && words.contains(')')
        });
        let mut called = match label {
            Some(label) => self.called_by_label(&label),
            None => Called { label: number, ..Called::default() },
        };
        let mut shown = (called.is_own || is_among_labels).then(|| called.label.clone());
        if self.references.citations.marks.numbers {
            shown = None;
            called.label = self.counters.get("bibitem").to_string();
        }
        let by_names = !self.references.citations.marks.numbers && !called.names.is_empty();
        let id = self.doc.intern(&id_of_entry(&key));
        self.doc.attributes_mut(list).id = Some(id);
        let has_number = !by_names && called.label.bytes().all(|byte| byte.is_ascii_digit());
        let has_parts = label_is_parts && !self.references.citations.marks.numbers;
        if shown.is_some() || !has_number || has_parts {
            // A label that is no number stands before the entry, or is said by its words.
            if let Some(holder) = self.doc.node(list).parent()
                && let Kind::List(kind) = self.doc.kind(holder)
            {
                self.doc.set_kind(holder, Kind::List(ListKind { ordered: false, ..kind }));
            }
        }
        if let Some(words) = shown {
            self.text(&format!("[{words}] "));
        }
        self.references.forget();
        self.references.citations.name_entry(key, list, called);
    }

    /// What the label of an entry says of it: names and years, as packages for these have them, or a label of its own.
    fn called_by_label(&mut self, label: &[Token]) -> Called {
        // Styles of other packages name the parts.
        let parts = label.iter().position(|token| token.kind.command() == Some("citeauthoryear"));
        if let Some(at) = parts
            && let [first, .., last] = &groups(&label[at + 1..])[..]
        {
            let (names, year) = (self.words(first), self.words(last));
            let (names, year) = (names.trim().to_owned(), year.trim().to_owned());
            return Called { label: format!("{names} {year}"), all_names: names.clone(), names, year, is_own: false };
        }
        let words = self.words(label);
        let Some((names, rest)) = words.split_once('(') else {
            return Called { is_own: !words.is_empty(), label: words, ..Called::default() };
        };
        let (year, all_names) = rest.split_once(')').unwrap_or((rest, ""));
        let (names, year, all_names) = (names.trim(), year.trim(), all_names.trim());
        Called {
            label: format!("{names} {year}").trim().to_owned(),
            names: names.to_owned(),
            all_names: if all_names.is_empty() { names } else { all_names }.to_owned(),
            year: year.to_owned(),
            is_own: false,
        }
    }

    /// Where a bibliography of another program would stand.
    pub(super) fn no_bibliography(&mut self) {
        self.input.option();
        if !self.input.made.is_empty() || self.input.source[self.input.at..].starts_with('{') {
            self.input.argument();
        }
    }
}

/// The groups that tokens are.
fn groups(tokens: &[Token]) -> Vec<&[Token]> {
    let (mut found, mut depth, mut start) = (Vec::new(), 0_usize, 0);
    for (at, token) in tokens.iter().enumerate() {
        match token.kind {
            Sign::Begin => {
                if depth == 0 {
                    start = at + 1;
                }
                depth += 1;
            }
            Sign::End => {
                depth = depth.saturating_sub(1);
                if depth == 0 {
                    found.push(&tokens[start.min(at)..at]);
                }
            }
            _ => {}
        }
    }
    found
}

/// The id of an entry of a bibliography.
pub(crate) fn id_of_entry(key: &str) -> String {
    format!("bib-{}", super::references::id_of(key))
}

/// The words of the heading above a bibliography, in a language.
pub(crate) fn heading_of_entries(language: &str, is_book: bool) -> &'static str {
    match (language.split('-').next().unwrap_or_default(), is_book) {
        ("de", false) => "Literatur",
        ("de", true) => "Literaturverzeichnis",
        ("fr", false) => "Références",
        ("fr", true) => "Bibliographie",
        ("es", _) => "Referencias",
        ("it", _) => "Riferimenti bibliografici",
        ("pt", _) => "Referências",
        ("nl", _) => "Referenties",
        (_, true) => "Bibliography",
        (_, false) => "References",
    }
}
