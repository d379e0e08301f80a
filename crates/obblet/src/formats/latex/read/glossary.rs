//! Acronyms and glossaries (the documentation of glossaries, acronym and acro): the first time, an acronym stands behind what it is
//! short for; later ones carry that as a title. Lists of terms hold those that were used.

use super::Reader;
use super::tokens::Input;
use super::tokens::Token;
use crate::document::{Kind, NodeId, TextLevel};
use crate::fast_hash::HashMap;

/// A term of a glossary, or an acronym.
#[derive(Clone, Debug, Default)]
struct Term {
    /// What is shown: the name, or the short form.
    short: String,
    /// What an acronym is short for.
    long: String,
    description: Vec<Token>,
    plural: String,
    is_used: bool,
}

/// The terms of a document.
#[derive(Debug, Default)]
pub(super) struct Glossary {
    terms: HashMap<String, Term>,
    /// Where a list of terms stands, and its heading.
    list: Option<(NodeId, NodeId)>,
}

/// A glossary has no more terms.
const MOST_TERMS: usize = 20_000;

/// What is shown of a term.
#[derive(Clone, Copy, PartialEq, Eq)]
enum Form {
    First,
    Short,
    Long,
    Full,
}

impl Reader<'_> {
    /// Takes a term. Whether a command defines one.
    pub(super) fn define_term(&mut self, name: &str) -> bool {
        let (key, term) = match name {
            "newacronym" | "newabbreviation" => {
                self.input.option();
                let (key, short, long) = (self.input.argument(), self.input.argument(), self.input.argument());
                (key, Term { short: self.words(&short), long: self.words(&long), ..Term::default() })
            }
            "newacro" | "acrodef" => {
                let key = self.input.argument();
                let short = self.input.option().unwrap_or_else(|| key.clone());
                let long = self.input.argument();
                (key, Term { short: self.words(&short), long: self.words(&long), ..Term::default() })
            }
            "newglossaryentry" | "longnewglossaryentry" | "DeclareAcronym" => {
                let key = self.input.argument();
                let values = self.input.argument();
                let mut term = self.term_of(&values);
                if name.starts_with("long") {
                    term.description = self.input.argument();
                }
                (key, term)
            }
            "nomenclature" => {
                self.input.option();
                let key = self.input.argument();
                let description = self.input.argument();
                let mut short = String::new();
                self.input.write(&key, &mut short);
                (key, Term { short, description, is_used: true, ..Term::default() })
            }
            _ => return false,
        };
        let key = self.input.characters(&key);
        if self.own.glossary.terms.len() < MOST_TERMS {
            self.own.glossary.terms.insert(key, term);
        }
        true
    }

    /// Knows the acronyms of a list that stands behind where they are used (the documentation of acronym).
    pub(super) fn acronyms_ahead(&mut self) {
        /// An entry of the list is no longer.
        const LONGEST: usize = 2000;
        let source = self.input.source;
        if !source.contains("\\begin{acronym}") {
            return;
        }
        for (at, command) in source.match_indices("\\acro{").take(MOST_TERMS) {
            let start = at + command.len() - 1;
            let mut end = source.len().min(start + LONGEST);
            while !source.is_char_boundary(end) {
                end -= 1;
            }
            let mut entry = Input::new(&source[start..end]);
            let key = entry.argument();
            let short = entry.option().unwrap_or_else(|| key.clone());
            let long = entry.argument();
            let (key, short, long) = (entry.characters(&key), entry.characters(&short), entry.characters(&long));
            if !key.is_empty() && !long.is_empty() {
                self.own.glossary.terms.entry(key).or_insert(Term { short, long, ..Term::default() });
            }
        }
    }

    /// A term by the keys and values that it is given.
    fn term_of(&mut self, values: &[Token]) -> Term {
        let mut term = Term::default();
        for (key, value) in self.input.pairs(values) {
            match key.as_str() {
                "name" | "short" => term.short = self.words(&value),
                "long" => term.long = self.words(&value),
                "plural" | "short-plural-form" => term.plural = self.words(&value),
                "description" => term.description = value,
                _ => {}
            }
        }
        term
    }

    /// Shows a term, or the list of them. Whether a command does.
    pub(super) fn term(&mut self, name: &str) -> bool {
        match name {
            "printglossary"
            | "printglossaries"
            | "printacronyms"
            | "printnoidxglossary"
            | "printnoidxglossaries"
            | "printunsrtglossary"
            | "printnomenclature" => {
                let options = self.input.option().unwrap_or_default();
                self.end_paragraph();
                if !self.own.glossary.terms.is_empty() && self.takes_blocks() && self.own.glossary.list.is_none() {
                    self.begin_glossary(name, &options);
                }
                return true;
            }
            "glsaddall" => {
                self.input.option();
                self.own.glossary.terms.values_mut().for_each(|term| term.is_used = true);
                return true;
            }
            "acro" | "acroindefinite" => return self.acronym_of_list(),
            "glsresetall" | "acresetall" | "glsunsetall" => return true,
            "glsadd" | "acused" | "glsreset" | "glsunset" => {
                self.input.option();
                self.input.argument();
                return true;
            }
            "glslink" | "glsdisp" => {
                self.input.option();
                self.input.argument();
                return true;
            }
            _ => {}
        }
        let small = name.to_ascii_lowercase();
        let (form, is_plural) = match small.as_str() {
            "gls" | "ac" | "glsxtr" => (Form::First, false),
            "glspl" | "acp" => (Form::First, true),
            "acrshort" | "acs" | "glsxtrshort" | "glstext" | "glsentrytext" | "glsentryshort" | "glsname" | "glsentryname" => {
                (Form::Short, false)
            }
            "acrshortpl" | "acsp" => (Form::Short, true),
            "acrlong" | "acl" | "glsxtrlong" | "glsentrylong" | "acli" => (Form::Long, false),
            "acrlongpl" | "aclp" => (Form::Long, true),
            "acrfull" | "acf" | "glsxtrfull" | "acfi" | "glsfirst" => (Form::Full, false),
            "acrfullpl" | "acfp" => (Form::Full, true),
            _ => return false,
        };
        self.input.take('*');
        self.input.option();
        let key = self.input.argument();
        let key = self.input.characters(&key);
        let suffix = self.input.option().unwrap_or_default();
        let is_capital = name.starts_with(|c: char| c.is_ascii_uppercase());
        self.show_term(&key, form, is_plural, is_capital);
        self.input.push_all(suffix.into_iter());
        true
    }

    /// A heading, and a list that is filled later.
    fn begin_glossary(&mut self, name: &str, options: &[Token]) {
        let title = self.input.value_of(options, "title");
        let mut title = self.words(&title);
        if title.is_empty() {
            let language = self.front.language.as_deref().and_then(|language| language.get(..2)).unwrap_or_default();
            let words = match language {
                "de" => ["Glossar", "Akronyme", "Symbole"],
                "es" => ["Glosario", "Siglas", "Nomenclatura"],
                "fr" => ["Glossaire", "Acronymes", "Nomenclature"],
                "it" => ["Glossario", "Acronimi", "Nomenclatura"],
                "nl" => ["Woordenlijst", "Acroniemen", "Symbolen"],
                "pt" => ["Glossário", "Siglas", "Nomenclatura"],
                _ => ["Glossary", "Acronyms", "Nomenclature"],
            };
            let which = match name {
                "printacronyms" => 1,
                "printnomenclature" => 2,
                _ => 0,
            };
            words[which].clone_into(&mut title);
        }
        let level = self.counters.level(if self.counters.has_chapters { "chapter" } else { "section" }).unwrap_or(1);
        let heading = self.block(Kind::Heading(level));
        let class = self.doc.intern("unnumbered");
        self.doc.attributes_mut(heading).classes.push(class);
        let words = self.doc.intern(&title);
        self.doc.append_at(heading, Kind::Text(words), self.at);
        let list = self.block(Kind::TermList);
        self.own.glossary.list = Some((heading, list));
    }

    fn show_term(&mut self, key: &str, form: Form, is_plural: bool, is_capital: bool) {
        let Some(term) = self.own.glossary.terms.get_mut(key) else {
            self.tallies.terms.add_apart(self.at, key);
            return self.text(key);
        };
        let is_first = !std::mem::replace(&mut term.is_used, true);
        let term = term.clone();
        let plural = if is_plural { "s" } else { "" };
        let long = capital(&format!("{}{plural}", term.long), is_capital);
        let short = match is_plural {
            true if !term.plural.is_empty() => term.plural.clone(),
            _ => format!("{}{plural}", if term.short.is_empty() { key } else { &term.short }),
        };
        match form {
            _ if term.long.is_empty() => self.text(&capital(&short, is_capital)),
            Form::Long => self.text(&long),
            Form::Full => self.text(&format!("{long} ({short})")),
            Form::First if is_first => self.text(&format!("{long} ({short})")),
            Form::First | Form::Short => {
                let node = self.inline(Kind::TextLevel(TextLevel::Abbreviation));
                let (title, words) = (self.doc.intern(&term.long), self.doc.intern(&short));
                self.doc.attributes_mut(node).title = Some(title);
                self.doc.append_at(node, Kind::Text(words), self.at);
            }
        }
    }

    /// An acronym in a list of them: `\acro{HW}[H.W.]{high water}`.
    fn acronym_of_list(&mut self) -> bool {
        let key = self.input.argument();
        let short = self.input.option().unwrap_or_else(|| key.clone());
        let long = self.input.argument();
        let known = self.input.characters(&key);
        let (words, meaning) = (self.words(&short), self.words(&long));
        let term = Term { short: words, long: meaning, is_used: true, ..Term::default() };
        self.own.glossary.terms.entry(known).or_insert(term);
        if !self.takes_blocks() {
            self.input.push_all(long.into_iter());
            return true;
        }
        self.end_paragraph();
        let holder = self.holder();
        let last = self.doc.node(holder).last_child().filter(|&last| self.doc.kind(last) == Kind::TermList);
        let list = last.unwrap_or_else(|| self.block(Kind::TermList));
        let term = self.doc.append_at(list, Kind::Term, self.at);
        let description = self.doc.append_at(list, Kind::TermDescription, self.at);
        self.read_into(description, true, long);
        self.read_into(term, true, short);
        true
    }

    /// Fills the lists of terms, once all that is used is known.
    pub(super) fn fill_glossary(&mut self) {
        let Some((heading, list)) = self.own.glossary.list.take() else { return };
        let mut terms: Vec<Term> = self.own.glossary.terms.values().filter(|term| term.is_used).cloned().collect();
        terms.sort_by_cached_key(|term| (term.short.to_lowercase(), term.short.clone()));
        if terms.is_empty() {
            self.doc.detach(list);
            self.doc.detach(heading);
        }
        for term in &terms {
            let name = self.doc.append_at(list, Kind::Term, self.at);
            // A symbol is a formula.
            let kind = match term.short.strip_prefix('$').and_then(|short| short.strip_suffix('$')) {
                Some(formula) => {
                    let formula = self.doc.intern(formula);
                    Kind::Math(self.doc.add_tex(formula, false))
                }
                None => Kind::Text(self.doc.intern(&term.short)),
            };
            self.doc.append_at(name, kind, self.at);
            let description = self.doc.append_at(list, Kind::TermDescription, self.at);
            if term.description.is_empty() {
                let words = self.doc.intern(&term.long);
                self.doc.append_at(description, Kind::Text(words), self.at);
            } else {
                // It may mention other terms.
                self.read_into(description, true, term.description.clone());
                self.input.at = self.input.source.len();
                while let Some(token) = self.input.next() {
                    self.step(token);
                }
            }
        }
    }
}

/// A text with a capital letter at its beginning.
fn capital(text: &str, is_wanted: bool) -> String {
    let mut letters = text.chars();
    match letters.next().filter(|_| is_wanted) {
        Some(first) => first.to_uppercase().chain(letters).collect(),
        None => text.to_owned(),
    }
}
