//! Languages of text: the one of most of it is that of the document, and others stand on the largest elements that are wholly in
//! them.

use crate::document::{Document, Finding, Kind, NodeId, Step};
use crate::fast_hash::HashMap;
use crate::language_tag::{is_same, usual};

/// The number of a language: its place in the table of tags.
type Language = u16;

/// Text that no element says the language of.
const UNSAID: Language = 0;

/// What the words in a node are in.
#[derive(Clone, Copy, Debug, Default, PartialEq, Eq)]
enum Words {
    /// There are none.
    #[default]
    None,
    /// One language.
    One(Language),
    /// Several.
    Mixed,
}

impl Words {
    fn and(self, other: Self) -> Self {
        match (self, other) {
            (Self::None, words) | (words, Self::None) => words,
            (Self::One(one), Self::One(two)) if one == two => self,
            _ => Self::Mixed,
        }
    }
}

/// Makes the language that most of the text has that of the document, moves others to the largest elements that are wholly in
/// them, and takes out what says the same as what is around it.
pub fn set(doc: &mut Document) {
    if !doc.nodes().any(|(id, node)| node.parent().is_some() && node.has_attributes() && doc.attributes(id).language.is_some()) {
        return;
    }
    let mut languages = Languages::of(doc);
    let main = languages.main(doc);
    if let Some(main) = main.filter(|&main| main != UNSAID) {
        let tag = usual(&languages.tags[usize::from(main)]);
        if !doc.metadata.language.as_deref().is_some_and(|said| is_same(said, &tag)) {
            doc.metadata.language = Some(tag);
        }
    }
    let (changes, dropped) = languages.placed(doc, main.unwrap_or(UNSAID));
    if changes.is_empty() {
        return;
    }
    let place = doc.place(changes[0].0);
    let mut parents = Vec::new();
    for (id, language) in changes {
        let text = language.map(|language| usual(&languages.tags[usize::from(language)])).map(|tag| doc.intern(&tag));
        doc.attributes_mut(id).language = text;
        if doc.kind(id) == Kind::Span && doc.attributes(id).is_empty() {
            parents.extend(doc.node(id).parent());
            doc.unwrap(id);
        }
    }
    doc.join_texts_in(parents);
    if dropped > 0 {
        let message = format!("elements said the language that the text around them has, or parts of what is in one: {dropped}");
        doc.push_finding(Finding::changed("clean.language", message).at(place));
    }
}

struct Languages {
    /// All tags; the first stands for text that no element says the language of.
    tags: Vec<String>,
    /// For each node, what it says itself.
    own: HashMap<NodeId, Language>,
    /// For each node, what its words are in.
    words: Vec<Words>,
    /// For each language, how many letters are in it.
    letters: Vec<usize>,
}

impl Languages {
    fn of(doc: &Document) -> Self {
        let mut all = Self {
            tags: vec![doc.metadata.language.clone().unwrap_or_default()],
            own: HashMap::default(),
            words: vec![Words::None; doc.node_count()],
            letters: vec![0],
        };
        for root in doc.roots() {
            let mut inherited = vec![UNSAID];
            for step in doc.walk(root) {
                match step {
                    Step::Enter(id) => {
                        let around = inherited.last().copied().unwrap_or(UNSAID);
                        inherited.push(all.say(doc, id).unwrap_or(around));
                        if let Kind::Text(text) = doc.kind(id) {
                            let letters = doc.text(text).chars().filter(|c| c.is_alphabetic()).count();
                            if letters > 0 {
                                all.letters[usize::from(around)] += letters;
                                all.words[id.index()] = Words::One(around);
                            }
                        }
                    }
                    Step::Leave(id) => {
                        inherited.pop();
                        if let Some(parent) = doc.node(id).parent() {
                            all.words[parent.index()] = all.words[parent.index()].and(all.words[id.index()]);
                        }
                    }
                }
            }
        }
        all
    }

    /// The language that a node says; those of one language have the same number.
    fn say(&mut self, doc: &Document, id: NodeId) -> Option<Language> {
        let tag = doc.node(id).has_attributes().then(|| doc.attributes(id).language).flatten()?;
        let tag = doc.text(tag);
        let known = self.tags.iter().position(|known| !known.is_empty() && !tag.is_empty() && is_same(known, tag));
        let place = known.or_else(|| (self.tags.len() < MOST_LANGUAGES).then_some(self.tags.len()))?;
        if known.is_none() {
            self.tags.push(tag.to_owned());
            self.letters.push(0);
        }
        self.own.insert(id, place as Language);
        Some(place as Language)
    }

    /// The language of most of the text; `None` where there is none.
    fn main(&self, doc: &Document) -> Option<Language> {
        let all: usize = self.letters.iter().sum();
        let most = (0..self.letters.len()).max_by_key(|&at| (self.letters[at], std::cmp::Reverse(at)))?;
        // Where the document says its language, a small majority does not change it.
        let says = doc.metadata.language.is_some();
        let is_most = if says { self.letters[most] * 10 >= all * 6 } else { self.letters[most] * 2 > all };
        (all > 0 && is_most).then_some(most as Language)
    }

    /// What each node is to say, where that is another than it says, and how many of them say nothing any more.
    fn placed(&mut self, doc: &Document, main: Language) -> (Vec<(NodeId, Option<Language>)>, usize) {
        let (mut changes, mut dropped) = (Vec::new(), 0);
        for root in doc.roots() {
            let mut inherited = vec![main];
            for step in doc.walk(root) {
                let Step::Enter(id) = step else {
                    inherited.pop();
                    continue;
                };
                let around = inherited.last().copied().unwrap_or(main);
                let says = self.own.get(&id).copied();
                let may_say =
                    !matches!(doc.kind(id), Kind::Root | Kind::Note | Kind::Text(_) | Kind::LineBreak | Kind::SoftBreak);
                // Where no language is that of most of the text, what says none keeps what it has.
                let wanted = match self.words[id.index()] {
                    Words::One(language) if language == around || !may_say => None,
                    Words::One(UNSAID) if self.tags[0].is_empty() => None,
                    Words::None => None,
                    Words::One(language) => Some(language),
                    Words::Mixed => says.filter(|&says| says != around),
                };
                if wanted != says {
                    changes.push((id, wanted));
                    dropped += usize::from(wanted.is_none());
                }
                inherited.push(wanted.unwrap_or(around));
            }
        }
        (changes, dropped)
    }
}

/// Further languages are left as they are.
const MOST_LANGUAGES: usize = 200;
