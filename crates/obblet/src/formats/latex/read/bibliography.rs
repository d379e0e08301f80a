//! Citations, and the list of what is cited (the LaTeX documentation, "thebibliography"; of natbib and biblatex).

use super::Reader;
use super::tokens::{Kind as Sign, Token};
use crate::document::{Kind, ListKind, Marker, Text};

/// A note to a citation has no more tokens.
const LONGEST_NOTE: usize = 200;

impl Reader<'_> {
    /// A citation: links to the entries, with the notes around them.
    pub(super) fn cite(&mut self, command: &str) {
        self.input.take('*');
        let first = self.input.option();
        let second = self.input.option();
        let keys = self.input.argument();
        let keys = self.input.characters(&keys);
        if command == "nocite" {
            return;
        }
        let (before, behind) = match (first, second) {
            (Some(before), Some(behind)) => (Some(before), Some(behind)),
            (behind, _) => (None, behind),
        };
        let at = self.at;
        self.text("[");
        let mut rest: Vec<Token> = Vec::new();
        if let Some(before) = before.filter(|before| !before.is_empty()) {
            let words = self.words(&before);
            self.text(&format!("{words} "));
        }
        for (number, key) in keys.split(',').map(str::trim).filter(|key| !key.is_empty()).enumerate().take(200) {
            if number > 0 {
                self.text(", ");
            }
            let node = self.inline(Kind::Link { href: Text::EMPTY });
            self.doc.set_end(node, at);
            self.references.cite(node, key);
        }
        if let Some(behind) = behind.as_ref().filter(|behind| behind.len() > LONGEST_NOTE) {
            // So long a one is no note; commands in it are not read a second time.
            let words = self.words(behind);
            rest.push(Token { kind: Sign::Char(']'), at });
            self.input.push_all(rest.into_iter());
            return self.text(&format!(", {words}"));
        }
        if let Some(behind) = behind.filter(|behind| !behind.is_empty()) {
            rest.push(Token { kind: Sign::Char(','), at });
            rest.push(Token { kind: Sign::Space, at });
            rest.extend(behind);
        }
        rest.push(Token { kind: Sign::Char(']'), at });
        self.input.push_all(rest.into_iter());
    }

    /// Begins the list of what is cited.
    pub(super) fn begin_bibliography(&mut self) {
        self.input.argument();
        let level = self.counters.level(if self.counters.has_chapters { "chapter" } else { "section" }).unwrap_or(1);
        let heading = self.block(Kind::Heading(level));
        let class = self.doc.intern("unnumbered");
        self.doc.attributes_mut(heading).classes.push(class);
        let is_book = self.counters.has_chapters;
        let language = self.front.language.clone().unwrap_or_default();
        let words = self.doc.intern(heading_words(&language, is_book));
        self.doc.append_at(heading, Kind::Text(words), self.at);
        self.counters.set("bibitem", 0);
        let list = ListKind { ordered: true, tight: true, marker: Marker::Plain, start: 1 };
        let list = self.block(Kind::List(list));
        self.lists.push(super::lists::List::of_entries(list, self.parts.len()));
    }

    /// Begins an entry.
    pub(super) fn entry(&mut self) {
        let label = self.input.option();
        let key = self.input.argument();
        let key = self.input.characters(&key);
        let Some(list) = self.begin_entry() else { return };
        let number = self.counters.step("bibitem");
        let mut shown = None;
        let label = label.map_or(number, |label| {
            let words = self.words(&label);
            if !words.contains('(') && !words.is_empty() {
                shown = Some(words.clone());
            }
            // Author and year, as a package for these has them.
            words.split_once('(').map_or(words.clone(), |(author, rest)| {
                format!("{} {}", author.trim(), rest.split(')').next().unwrap_or_default())
            })
        });
        let id = self.doc.intern(&format!("bib-{}", super::references::id_of(&key)));
        self.doc.attributes_mut(list).id = Some(id);
        if let Some(words) = shown {
            // A label that is no number stands before the entry.
            if let Some(holder) = self.doc.node(list).parent()
                && let Kind::List(kind) = self.doc.kind(holder)
            {
                self.doc.set_kind(holder, Kind::List(ListKind { ordered: false, ..kind }));
            }
            self.text(&format!("[{words}] "));
        }
        self.references.name_entry(list, key, label);
    }

    /// Where a bibliography of another program would stand.
    pub(super) fn no_bibliography(&mut self) {
        self.input.option();
        if !self.input.made.is_empty() || self.input.source[self.input.at..].starts_with('{') {
            self.input.argument();
        }
    }
}

fn heading_words(language: &str, is_book: bool) -> &'static str {
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
