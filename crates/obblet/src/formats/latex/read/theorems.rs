//! Theorems and what is like them, with their numbers (the documentation of amsthm).

use super::Reader;
use super::tokens::{Kind as Sign, Token};
use crate::document::{DivisionKind, Kind};

/// An environment that `\newtheorem` defines.
#[derive(Clone, Debug)]
pub(super) struct Theorem {
    words: String,
    counter: Option<String>,
    /// Whether it is a box, whose title is an argument.
    is_box: bool,
    /// What stands before the labels of boxes.
    prefix: String,
    /// What stands behind its number.
    stop: String,
    /// Whether the number stands first.
    is_swapped: bool,
}

/// What is kept as commands of these names, which none can have: what stands behind the number in a style, and in the one that holds;
/// whether numbers stand first.
const STOP_OF_STYLE: &str = "stop of theorems in ";
const STOP: &str = "stop of theorems";
const SWAPPED: &str = "swapped theorems";

/// Theorems that a document means by their names where it does not define them: its class does.
const OF_CLASSES: [&str; 16] = [
    "theorem",
    "lemma",
    "corollary",
    "proposition",
    "definition",
    "remark",
    "conjecture",
    "axiom",
    "claim",
    "assumption",
    "notation",
    "hypothesis",
    "observation",
    "fact",
    "property",
    "criterion",
];

/// Those that are other things in most documents.
const OF_SOME_CLASSES: [&str; 9] =
    ["example", "examples", "definitions", "exercise", "problem", "solution", "question", "note", "case"];

impl Reader<'_> {
    pub(super) fn new_theorem(&mut self, command: &str) {
        if command == "newtcbtheorem" {
            return self.new_box_theorem();
        }
        // Proofs of elsarticle are theorems without a number.
        let has_star = self.input.take('*') || command.ends_with('*') || command == "newproof";
        let before = (command == "declaretheorem").then(|| self.input.option()).flatten();
        let name = self.input.argument();
        let name = self.input.characters(&name);
        let (words, counter) = if command == "declaretheorem" {
            let options = before.or_else(|| self.input.option()).unwrap_or_default();
            let options = self.input.characters(&options);
            let value = |key: &str| {
                options
                    .split(',')
                    .filter_map(|part| part.split_once('='))
                    .find(|(known, _)| known.trim() == key)
                    .map(|(_, value)| value.trim().to_owned())
            };
            let words = value("name").unwrap_or_else(|| capitalised(&name));
            if let Some(above) = value("numberwithin").or_else(|| value("within")) {
                self.counters.put_within(&name, &above);
            }
            let counter = value("sibling").or_else(|| value("numberlike")).unwrap_or_else(|| name.clone());
            (words, Some(counter).filter(|_| value("numbered").as_deref() != Some("no")))
        } else {
            let shared = self.input.option().map(|shared| self.input.characters(&shared));
            let words = self.input.argument();
            let words = self.words(&words);
            if let Some(above) = self.input.option() {
                let above = self.input.characters(&above);
                self.counters.put_within(&name, &above);
            }
            (words, Some(shared.unwrap_or_else(|| name.clone())).filter(|_| !has_star))
        };
        let theorem = self.with_style(words, counter);
        self.own.theorems.insert(name, theorem);
    }

    /// A theorem in the style that holds.
    fn with_style(&mut self, words: String, counter: Option<String>) -> Theorem {
        let stop = match self.macros.body(STOP) {
            Some(body) => self.words(&body),
            None => ".".to_owned(),
        };
        Theorem { words, counter, is_box: false, prefix: String::new(), stop, is_swapped: self.macros.knows(SWAPPED) }
    }

    /// `\newtheoremstyle`, `\theoremstyle` and `\swapnumbers`. Whether a command is one of them.
    pub(super) fn style_of_theorems(&mut self, command: &str) -> bool {
        match command {
            "newtheoremstyle" => {
                let arguments: Vec<_> = (0..9).map(|_| self.input.argument()).collect();
                let name = self.input.characters(&arguments[0]);
                self.macros.keep(format!("{STOP_OF_STYLE}{name}").into(), arguments[6].clone());
            }
            "theoremstyle" => {
                let name = self.input.argument();
                let name = self.input.characters(&name);
                let full_stop = || vec![Token { kind: Sign::Char('.'), at: 0 }];
                let stop = self.macros.body(&format!("{STOP_OF_STYLE}{name}")).map_or_else(full_stop, |body| body.to_vec());
                self.macros.keep(STOP.into(), stop);
            }
            "swapnumbers" => self.macros.keep(SWAPPED.into(), Vec::new()),
            _ => return false,
        }
        true
    }

    /// `\newtcbtheorem[options]{name}{words}{options}{prefix}`
    fn new_box_theorem(&mut self) {
        let options = self.input.option().unwrap_or_default();
        let (name, words) = (self.input.argument(), self.input.argument());
        self.input.argument();
        let prefix = self.input.argument();
        let (name, words, prefix) = (self.input.characters(&name), self.words(&words), self.input.characters(&prefix));
        let options = self.input.characters(&options);
        let value = |key: &str| {
            let pairs = options.split(',').filter_map(|part| part.split_once('='));
            pairs.filter(|(known, _)| known.trim() == key).map(|(_, value)| value.trim().to_owned()).next()
        };
        if let Some(above) = value("number within") {
            self.counters.put_within(&name, &above);
        }
        let counter = value("use counter").or_else(|| value("use counter from")).unwrap_or_else(|| name.clone());
        let theorem = Theorem { is_box: true, prefix, ..self.with_style(words, Some(counter)) };
        self.own.theorems.insert(name, theorem);
    }

    /// A theorem that the class of the document defines: with numbers in those of publishers that have them.
    fn theorem_of_class(&self, name: &str) -> Option<Theorem> {
        let class = self.front.class.as_str();
        let counts_each = matches!(class, "jmlr" | "llncs" | "svjour" | "svjour3" | "svmult" | "svmono");
        let has_more = counts_each || class == "beamer";
        let base = name.trim_end_matches('*');
        if !(OF_CLASSES.contains(&base) || has_more && OF_SOME_CLASSES.contains(&base)) {
            return None;
        }
        let counter = match class {
            _ if name.ends_with('*') || base == "claim" && counts_each => None,
            _ if counts_each => Some(base.to_owned()),
            "acmart" => Some("theorem".to_owned()),
            _ => None,
        };
        Some(Theorem {
            words: capitalised(base),
            counter,
            is_box: false,
            prefix: String::new(),
            stop: ".".to_owned(),
            is_swapped: false,
        })
    }

    /// Begins a theorem. Whether an environment is one.
    pub(super) fn begin_theorem(&mut self, name: &str) -> bool {
        // One that is said again elsewhere names its sort, and a command for that (the documentation of thm-restate).
        if matches!(name, "restatable" | "restatable*") && self.takes_blocks() {
            let note = self.input.option();
            let (kind, _) = (self.input.argument(), self.input.argument());
            let kind = self.input.characters(&kind);
            if let Some(note) = note {
                let at = self.at;
                self.input.push(Sign::Char(']'), at);
                self.input.push_all(note.into_iter());
                self.input.push(Sign::Char('['), at);
            }
            return kind != name && self.begin_theorem(&kind);
        }
        let Some(theorem) = self.own.theorems.get(name).cloned().or_else(|| self.theorem_of_class(name)) else { return false };
        let mut label = String::new();
        let note = if theorem.is_box {
            self.input.option();
            let title = self.input.argument();
            let name = self.input.argument();
            let name = self.input.characters(&name);
            if !name.is_empty() {
                label = format!("{}:{name}", theorem.prefix);
            }
            Some(title)
        } else {
            self.input.overlay();
            self.input.option().map(|option| self.name_of_theorem(option, &mut label))
        };
        let note = note.filter(|note| !note.is_empty());
        let node = self.block(Kind::Division(DivisionKind::Plain));
        let class = self.doc.intern(name);
        self.doc.attributes_mut(node).classes.push(class);
        self.begin_part(node, false);
        let number = theorem.counter.as_ref().map(|counter| {
            let number = self.counters.step(counter);
            self.number_as_shown(counter, number)
        });
        if let Some(number) = &number {
            self.references.here(node, number.clone(), "theorem");
            self.references.name_here(&theorem.words);
            self.label_of(label);
        }
        let heading = match number {
            Some(number) if theorem.is_swapped => format!("{number}\u{A0}{}", theorem.words),
            Some(number) => format!("{}\u{A0}{number}", theorem.words),
            None => theorem.words.clone(),
        };
        self.lead_in(&heading, note, &theorem.stop);
        true
    }

    /// The name of a theorem, which its option is or holds, with its label (the documentation of thmtools, "name", "label").
    fn name_of_theorem(&self, option: Vec<Token>, label: &mut String) -> Vec<Token> {
        const KEYS: [&str; 7] = ["name", "title", "label", "restate", "restate*", "continues", "listhack"];
        let pairs = self.input.pairs(&option);
        if pairs.is_empty() || !pairs.iter().all(|(key, _)| KEYS.contains(&key.as_str())) {
            return option;
        }
        let mut name = Vec::new();
        for (key, value) in pairs {
            match key.as_str() {
                "name" | "title" => name = value,
                "label" => *label = self.input.characters(&value),
                _ => {}
            }
        }
        name
    }

    /// Bold words that what follows begins with.
    pub(super) fn lead_in(&mut self, words: &str, note: Option<Vec<Token>>, stop: &str) {
        let at = self.at;
        let strong = self.inline(Kind::Strong);
        let end = if note.is_some() { "" } else { stop };
        let text = self.doc.intern(&format!("{words}{end}"));
        self.doc.append_at(strong, Kind::Text(text), at);
        self.input.push(Sign::Space, at);
        if let Some(note) = note {
            self.input.push_characters(stop, at);
            self.input.push(Sign::Char(')'), at);
            self.input.push_all(note.into_iter());
            self.input.push(Sign::Char('('), at);
            self.input.push(Sign::Space, at);
        }
    }
}

pub(super) fn capitalised(word: &str) -> String {
    let mut letters = word.chars();
    letters.next().map_or_else(String::new, |first| first.to_uppercase().chain(letters).collect())
}
