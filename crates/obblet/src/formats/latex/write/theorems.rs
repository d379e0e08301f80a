//! Theorems, proofs, abstracts and bibliographies: what environments of LaTeX say by themselves is not written a second time.

use super::Writer;
use crate::document::{Kind, NodeId};

/// Nodes, and parts of texts, that the environment or the command around them stands for.
#[derive(Debug, Default)]
pub(super) struct Implied {
    pub(super) nodes: crate::fast_hash::HashSet<NodeId>,
    /// What of a text is written.
    pub(super) texts: crate::fast_hash::HashMap<NodeId, (usize, usize)>,
}

impl Implied {
    pub(super) fn holds(&self, id: NodeId) -> bool {
        self.nodes.contains(&id)
    }

    /// The part of a text that is written.
    pub(super) fn rest<'t>(&self, id: NodeId, text: &'t str) -> &'t str {
        self.texts.get(&id).and_then(|&(start, end)| text.get(start..end)).unwrap_or(text)
    }
}

/// Names of theorems that documents usually define.
const THEOREMS: [&str; 18] = [
    "theorem",
    "lemma",
    "proposition",
    "corollary",
    "definition",
    "remark",
    "example",
    "conjecture",
    "claim",
    "axiom",
    "assumption",
    "notation",
    "problem",
    "exercise",
    "question",
    "observation",
    "fact",
    "property",
];

/// Whether a class can be the name of an environment.
fn is_name(name: &str) -> bool {
    name.bytes().all(|byte| byte.is_ascii_alphanumeric() || byte == b'-') && !super::blocks::is_taken(name)
}

/// Environments of theorems that the preamble defines.
#[derive(Debug, Default)]
pub(super) struct Theorems {
    known: Vec<Theorem>,
}

#[derive(Debug)]
struct Theorem {
    name: String,
    definition: String,
    /// The first of those that are counted with it, and for that one the number that was given last.
    counter: usize,
    number: u32,
}

impl Theorems {
    /// Notes a theorem. The first of its name tells how it is counted: by itself, with another one, by section, or not at all.
    fn add(&mut self, name: &str, word: &str, number: &str) {
        let count = number.rsplit('.').next().and_then(|count| count.parse().ok()).unwrap_or(0);
        if let Some(known) = self.known.iter().position(|theorem| theorem.name == name) {
            let counter = self.known[known].counter;
            self.known[counter].number = count;
            return;
        }
        let shared = self
            .known
            .iter()
            .position(|other| count > 1 && other.number + 1 == count && self.known[other.counter].name == other.name);
        let definition = match shared {
            _ if number.is_empty() => format!("\\newtheorem*{{{name}}}{{{word}}}"),
            Some(other) => format!("\\newtheorem{{{name}}}[{}]{{{word}}}", self.known[other].name),
            None if number.contains('.') => format!("\\newtheorem{{{name}}}{{{word}}}[section]"),
            None => format!("\\newtheorem{{{name}}}{{{word}}}"),
        };
        let counter = shared.unwrap_or(self.known.len());
        self.known.push(Theorem { name: name.to_owned(), definition, counter, number: count });
        self.known[counter].number = count;
    }

    pub(super) fn definitions(&self) -> impl Iterator<Item = &str> {
        self.known.iter().map(|theorem| theorem.definition.as_str())
    }
}

/// What a theorem begins with.
struct LeadIn<'d> {
    strong: NodeId,
    word: &'d str,
    number: &'d str,
    note: Option<&'d str>,
    /// The text behind it, and how much of that belongs to it.
    rest: Option<(NodeId, usize)>,
}

impl<'d> Writer<'d> {
    /// The environment of a theorem, a proof or an abstract that a part of the document is, with its option.
    pub(super) fn known_environment(&mut self, id: NodeId) -> Option<(String, String)> {
        let doc = self.doc;
        let names: Vec<&'d str> = doc.attributes(id).classes.iter().map(|class| doc.text(*class)).collect();
        for name in names {
            match name {
                "abstract" => {
                    self.abstract_heading(id);
                    return Some(("abstract".to_owned(), String::new()));
                }
                "proof" => {
                    if let Some(option) = self.proof(id) {
                        self.needs.packages.insert("amsthm");
                        return Some(("proof".to_owned(), option));
                    }
                }
                _ => {}
            }
        }
        let (name, lead_in) = self.theorem_of(id)?;
        if !self.given.theorems.contains_key(name) {
            self.needs.packages.insert("amsthm");
            self.needs.theorems.add(name, lead_in.word, lead_in.number);
        }
        self.implied.nodes.insert(lead_in.strong);
        if let Some((text, from)) = lead_in.rest {
            let length = match doc.kind(text) {
                Kind::Text(text) => doc.text(text).len(),
                _ => from,
            };
            self.implied.texts.insert(text, (from, length));
        }
        let option = lead_in.note.map_or_else(String::new, |note| format!("[{{{}}}]", self.escaped(note)));
        Some((name.to_owned(), option))
    }

    /// The word above an abstract, which the class prints.
    fn abstract_heading(&mut self, id: NodeId) {
        let doc = self.doc;
        let only = |id: NodeId, kind: Kind| {
            let child = doc.node(id).first_child().filter(|&child| doc.node(child).next().is_none())?;
            (doc.kind(child) == kind).then_some(child)
        };
        let first = doc.node(id).first_child().filter(|&first| doc.kind(first) == Kind::Paragraph);
        if let Some(paragraph) = first
            && only(paragraph, Kind::Strong).is_some()
            && super::super::words::is_abstract_word(doc.plain_text(paragraph).trim())
        {
            self.implied.nodes.insert(paragraph);
        }
    }

    /// The environment of a theorem that a part of the document is, and the words that it begins with.
    fn theorem_of(&self, id: NodeId) -> Option<(&'d str, LeadIn<'d>)> {
        let mut names = self.doc.attributes(id).classes.iter().map(|class| self.doc.text(*class));
        names.find_map(|name| {
            let is_own = self.given.theorems.contains_key(name);
            let may_be = self.given.text.is_none() && !self.options.fragment && is_name(name);
            let lead_in = (is_own || may_be).then(|| self.lead_in(id)).flatten()?;
            let fits = is_own || THEOREMS.contains(&name) || crate::slug::of(lead_in.word) == name;
            fits.then_some((name, lead_in))
        })
    }

    /// Notes the numbers that theorems will have, so that references can show them.
    pub(super) fn number_theorems(&mut self) {
        let doc = self.doc;
        for (id, node) in doc.nodes().filter(|(_, node)| matches!(node.kind(), Kind::Division(_)) && node.has_attributes()) {
            if node.parent().is_some()
                && let Some(name) = self.label_of(id)
                && let Some((_, LeadIn { number, .. })) = self.theorem_of(id)
            {
                self.numbers.name_theorem(name, number);
            }
        }
    }

    /// The first nodes of text in a part.
    pub(super) fn first_text(&self, id: NodeId) -> Option<(NodeId, Option<NodeId>)> {
        let first = self.doc.node(id).first_child()?;
        let first = if self.doc.kind(first) == Kind::Paragraph { self.doc.node(first).first_child()? } else { first };
        Some((first, self.doc.node(first).next()))
    }

    /// The words that a theorem begins with.
    fn lead_in(&self, id: NodeId) -> Option<LeadIn<'d>> {
        let doc = self.doc;
        let (strong, next) = self.first_text(id).filter(|(first, _)| doc.kind(*first) == Kind::Strong)?;
        let Kind::Text(text) = doc.kind(doc.node(strong).first_child().filter(|&only| doc.node(only).next().is_none())?) else {
            return None;
        };
        let words = doc.text(text);
        let named = words.trim_end_matches('.');
        let numbered = named.rsplit_once(['\u{A0}', ' ']).filter(|(_, number)| number.ends_with(|c: char| c.is_ascii_digit()));
        let (word, number) = numbered.unwrap_or((named, ""));
        let behind = next.and_then(|next| match doc.kind(next) {
            Kind::Text(text) => Some((next, doc.text(text))),
            _ => None,
        });
        if words.ends_with('.') {
            let rest = behind.map(|(next, text)| (next, text.len() - text.trim_start().len()));
            return Some(LeadIn { strong, word, number, note: None, rest });
        }
        let (next, text) = behind?;
        let (note, rest) = text.strip_prefix(" (")?.split_once(").")?;
        Some(LeadIn { strong, word, number, note: Some(note), rest: Some((next, text.len() - rest.trim_start().len())) })
    }

    /// The option of a proof, where a part is one.
    fn proof(&mut self, id: NodeId) -> Option<String> {
        let doc = self.doc;
        let (emphasis, next) = self.first_text(id).filter(|(first, _)| doc.kind(*first) == Kind::Emphasis)?;
        let words = doc.plain_text(emphasis);
        let last = doc.node(id).last_child()?;
        let last = if doc.kind(last) == Kind::Paragraph { doc.node(last).last_child()? } else { last };
        let Kind::Text(text) = doc.kind(last) else { return None };
        let end = doc.text(text).strip_suffix('\u{220E}')?.trim_end().len();
        self.implied.nodes.insert(emphasis);
        let start = match next.map(|next| (next, doc.kind(next))) {
            Some((next, Kind::Text(text))) => {
                let whole = doc.text(text);
                // A name of its own has its full stop behind it.
                let rest = whole.strip_prefix('.').unwrap_or(whole).trim_start();
                self.implied.texts.insert(next, (whole.len() - rest.len(), whole.len()));
                (next == last).then_some(whole.len() - rest.len())
            }
            _ => None,
        };
        self.implied.texts.insert(last, (start.unwrap_or(0).min(end), end));
        let name = words.trim_end_matches('.');
        let is_usual = matches!(name, "Proof" | "Beweis" | "D\u{e9}monstration" | "Demostraci\u{f3}n" | "Dimostrazione");
        Some(if is_usual { String::new() } else { format!("[{{{}}}]", self.escaped(name)) })
    }
}
