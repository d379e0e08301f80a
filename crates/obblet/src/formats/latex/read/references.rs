//! Labels, and references to them with the numbers that the engine prints (the LaTeX documentation, "Cross references"; of hyperref
//! and cleveref).

use super::Reader;
use super::reference_words::{Group, Wording};
use crate::document::{CrossReference, Kind, NodeId, Text};
use crate::fast_hash::HashMap;

/// What labels name, and what refers to them.
#[derive(Debug, Default)]
pub(super) struct References {
    /// What a label that comes next names: the node, its number, the word for it.
    now: Option<Named>,
    /// The number of what comes next, where that is no node yet.
    counted: String,
    labels: HashMap<String, Named>,
    asked: Vec<Reference>,
    /// What is cited.
    pub(super) citations: super::citations::Citations,
    pub(super) groups: Vec<Group>,
    pub(super) wording: Wording,
}

/// What a label names.
#[derive(Clone, Debug)]
pub(super) struct Named {
    pub(super) node: NodeId,
    pub(super) number: String,
    pub(super) word: String,
}

/// A reference to what a label names.
#[derive(Debug)]
pub(super) struct Reference {
    /// The link, whose text is to be made.
    pub(super) node: NodeId,
    pub(super) label: String,
    pub(super) shows: Shows,
}

/// How a reference words what it leads to.
#[derive(Clone, Copy, Debug, PartialEq, Eq)]
pub(super) enum WordForm {
    /// As headings and captions have it; numbers of equations stand without parentheses.
    Printed,
    /// With a small letter, and shortened where that is usual.
    Small,
    Capital,
}

/// What a reference shows.
#[derive(Clone, Copy, Debug, PartialEq, Eq)]
pub(super) enum Shows {
    Number,
    /// A number in parentheses.
    Equation,
    /// The word for what it leads to, and the number.
    Word(WordForm),
    /// The letter of a part.
    Part,
    /// The words of a heading or a caption.
    Name,
    /// Whether it stands above or below.
    Place,
    /// What stands in it.
    Own,
}

impl References {
    /// Something has a number that a label may name.
    pub(super) fn here(&mut self, node: NodeId, number: String, word: &str) {
        self.now = Some(Named { node, number, word: word.to_owned() });
    }

    /// Something is a place that a label may name, with the number that was given last.
    pub(super) fn here_without_number(&mut self, node: NodeId) {
        self.now = Some(Named { node, number: self.counted.clone(), word: String::new() });
    }

    /// A counter counts: a label that comes next names a place of its own with its number.
    pub(super) fn count_here(&mut self, number: String) {
        self.now = None;
        self.counted = number;
    }

    /// What had a number is in another node now.
    pub(super) fn moved(&mut self, from: NodeId, to: NodeId) {
        for named in self.labels.values_mut().chain(&mut self.now).filter(|named| named.node == from) {
            named.node = to;
        }
    }

    /// What comes next has no number.
    pub(super) fn forget(&mut self) {
        self.now = None;
    }

    /// Makes a link of what is already in the document.
    pub(super) fn refer_from(&mut self, node: NodeId, label: String) {
        self.asked.push(Reference { node, label, shows: Shows::Own });
    }

    pub(super) fn named(&self, label: &str) -> Option<Named> {
        self.labels.get(label).cloned()
    }

    pub(super) fn ask(&mut self, reference: Reference) {
        self.asked.push(reference);
    }

    /// The word for what has the number.
    pub(super) fn name_here(&mut self, word: &str) {
        if let Some(now) = &mut self.now {
            word.clone_into(&mut now.word);
        }
    }
}

impl Reader<'_> {
    /// Names what has the number that was given last.
    pub(super) fn label(&mut self) {
        let label = self.input.argument_characters().into_owned();
        self.label_of(label);
    }

    /// The number of the note that is read.
    fn number_of_open_note(&self) -> Option<String> {
        const LATEST: usize = 8;
        let first = self.doc.notes.len().saturating_sub(LATEST);
        let notes = self.doc.notes.get(first..)?;
        let place = notes.iter().rposition(|note| self.parts.iter().any(|part| part.is_of(note.body)))?;
        Some((first + place + 1).to_string())
    }

    /// Lets a label name what has the number that was given last.
    pub(super) fn label_of(&mut self, label: String) {
        if label.is_empty() {
            return;
        }
        // In a note, it names the number of that.
        if let Some(number) = self.number_of_open_note() {
            let node = self.anchor(&id_of(&label));
            self.references.labels.entry(label).or_insert(Named { node, number, word: String::new() });
            return;
        }
        if let Some(named) = self.references.now.clone() {
            self.references.labels.entry(label).or_insert(named);
        } else {
            let node = self.anchor(&id_of(&label));
            let named = Named { node, number: self.references.counted.clone(), word: String::new() };
            self.references.labels.entry(label).or_insert(named);
        }
    }

    /// Makes a link of a reference.
    pub(super) fn refer(&mut self, shows: Shows) {
        self.input.take('*');
        let labels = self.input.argument_characters();
        if let Shows::Word(how) = shows
            && labels.contains(',')
        {
            let labels = labels.split(',').map(|label| label.trim().to_owned()).filter(|label| !label.is_empty());
            return self.refer_to_several(labels.collect(), how, false);
        }
        for (at, label) in labels.split(',').map(str::trim).enumerate().take(100) {
            if at > 0 {
                self.text(", ");
            }
            let node = self.inline(Kind::Link { href: Text::EMPTY });
            self.references.asked.push(Reference { node, label: label.to_owned(), shows });
        }
    }

    /// References lead to what their labels name, and show its number.
    pub(super) fn resolve_references(&mut self) {
        self.resolve_groups();
        // That package sets the letters of parts in parentheses.
        let with_parentheses = memchr::memmem::find(self.input.source.as_bytes(), b"{subfig}").is_some();
        for Reference { node, label, shows } in std::mem::take(&mut self.references.asked) {
            let place = self.doc.node(node).offset();
            if self.front_equations().contains(&label) {
                let is_bare = matches!(shows, Shows::Number | Shows::Word(WordForm::Printed));
                let command = if is_bare { "ref" } else { "eqref" };
                if matches!(shows, Shows::Own | Shows::Place) {
                    self.doc.unwrap(node);
                    continue;
                }
                let source = self.doc.intern(&format!("\\{command}{{{label}}}"));
                let formula = self.doc.add_tex(source, false);
                if let Shows::Word(how) = shows {
                    let word = self.word_for("equation", false, how);
                    let text = self.doc.intern(&format!("{word}\u{A0}"));
                    self.doc.set_kind(node, Kind::Span);
                    self.doc.append_at(node, Kind::Text(text), place);
                    self.doc.append_at(node, Kind::Math(formula), place);
                    self.doc.unwrap(node);
                } else {
                    self.doc.set_kind(node, Kind::Math(formula));
                }
                continue;
            }
            let Some(named) = self.references.labels.get(&label).cloned() else {
                self.tallies.missing.add_apart(place, &label);
                if shows == Shows::Own {
                    self.doc.unwrap(node);
                } else {
                    let text = self.doc.intern(&label);
                    self.doc.set_kind(node, Kind::Text(text));
                }
                continue;
            };
            let id = self.id_for(named.node, &label);
            let href = self.doc.intern(&format!("#{id}"));
            self.doc.set_kind(node, Kind::Link { href });
            let text = match shows {
                Shows::Own => continue,
                Shows::Number => named.number.clone(),
                Shows::Equation => format!("({})", named.number),
                Shows::Word(how) => worded(&self.word_for(&named.word, false, how), &named.number),
                Shows::Part => {
                    let letter = named.number.trim_start_matches(|c: char| !c.is_ascii_lowercase());
                    if with_parentheses { format!("({letter})") } else { letter.to_owned() }
                }
                Shows::Name => self.name_of(named.node),
                Shows::Place => {
                    let language = self.front.language.as_deref().unwrap_or_default();
                    word_for_place(language, self.doc.node(named.node).offset() > place).to_owned()
                }
            };
            let is_counted = matches!(self.doc.kind(named.node), Kind::Figure | Kind::Table);
            if shows == Shows::Number && is_counted && text == named.number {
                self.doc.references.set(node, CrossReference { shows: crate::document::Shows::Number });
            }
            let text = if text.trim().is_empty() { label } else { text };
            let text = self.doc.intern(&text);
            self.doc.append_at(node, Kind::Text(text), place);
        }
    }

    fn name_of(&self, node: NodeId) -> String {
        let caption = self.doc.children(node).find(|&child| self.doc.kind(child) == Kind::Caption);
        self.doc.plain_text(caption.unwrap_or(node)).split_whitespace().collect::<Vec<_>>().join(" ")
    }

    /// The id of a node; one made of a label, where it has none.
    pub(super) fn id_for(&mut self, node: NodeId, label: &str) -> String {
        if let Some(id) = self.doc.attributes(node).id {
            return self.doc.text(id).to_owned();
        }
        let id = id_of(label);
        let text = self.doc.intern(&id);
        self.doc.attributes_mut(node).id = Some(text);
        id
    }

    /// The labels of equations, which formulas hold.
    fn front_equations(&self) -> &crate::fast_hash::HashSet<String> {
        &self.tallies.equations
    }
}

/// An id that stands for a label.
pub(super) fn id_of(label: &str) -> String {
    label.split_whitespace().collect::<Vec<_>>().join("-")
}

/// What leads to a page in print leads to a place here.
fn word_for_place(language: &str, is_below: bool) -> &'static str {
    let words = match language.get(..2) {
        Some("de") => ["oben", "unten"],
        Some("es") => ["arriba", "abajo"],
        Some("fr") => ["ci-dessus", "ci-dessous"],
        Some("it") => ["sopra", "sotto"],
        Some("nl") => ["hierboven", "hieronder"],
        Some("pt") => ["acima", "abaixo"],
        _ => ["above", "below"],
    };
    words[usize::from(is_below)]
}

fn worded(word: &str, number: &str) -> String {
    if word.is_empty() { number.to_owned() } else { format!("{word}\u{A0}{number}") }
}
