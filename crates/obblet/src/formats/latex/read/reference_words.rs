//! Words for what has numbers, and references to several at once (the documentation of hyperref, "autoref"; of cleveref).

use super::Reader;
use super::references::{Named, Reference, Shows, WordForm};
use crate::document::{Kind, NodeId, Text};
use crate::fast_hash::HashMap;

/// How references are worded, as a document says it.
#[derive(Debug, Default)]
pub(super) struct Wording {
    /// The words for a kind of things, one and several, by the counter for them; with small letters and with capitals.
    own: HashMap<(String, bool), [String; 2]>,
    /// Whether all begin with a capital letter, and whether none is shortened.
    always_capital: bool,
    /// Whether the package for them is there.
    pub(super) is_loaded: bool,
    never_short: bool,
}

/// A reference to several places at once, whose links are to be made.
#[derive(Debug)]
pub(super) struct Group {
    /// The span that becomes text and links.
    node: NodeId,
    labels: Vec<String>,
    how: WordForm,
    /// Whether it leads from the first to the last.
    is_range: bool,
}

/// A label, and what it names.
type Labelled = (String, Option<Named>);

/// No group has more labels, nor does a document.
const MOST_LABELS: usize = 100;

/// What a language calls what has a number, one and several of each kind, and what stands between several and in ranges.
pub(super) struct Words {
    language: &'static str,
    section: [&'static str; 2],
    chapter: [&'static str; 2],
    equation: [&'static str; 2],
    item: [&'static str; 2],
    pub(super) and: &'static str,
    pub(super) to: &'static str,
}

/// Words by language, as the translations of hyperref and cleveref have them. Nouns of German have a capital letter anywhere.
const WORDS: [Words; 11] = [
    Words {
        language: "da",
        section: ["afsnit", "afsnit"],
        chapter: ["kapitel", "kapitler"],
        equation: ["ligning", "ligninger"],
        item: ["punkt", "punkter"],
        and: "og",
        to: "til",
    },
    Words {
        language: "de",
        section: ["Abschnitt", "Abschnitte"],
        chapter: ["Kapitel", "Kapitel"],
        equation: ["Gleichung", "Gleichungen"],
        item: ["Punkt", "Punkte"],
        and: "und",
        to: "bis",
    },
    Words {
        language: "en",
        section: ["section", "sections"],
        chapter: ["chapter", "chapters"],
        equation: ["equation", "equations"],
        item: ["item", "items"],
        and: "and",
        to: "to",
    },
    Words {
        language: "es",
        section: ["sección", "secciones"],
        chapter: ["capítulo", "capítulos"],
        equation: ["ecuación", "ecuaciones"],
        item: ["punto", "puntos"],
        and: "y",
        to: "a",
    },
    Words {
        language: "fr",
        section: ["section", "sections"],
        chapter: ["chapitre", "chapitres"],
        equation: ["équation", "équations"],
        item: ["point", "points"],
        and: "et",
        to: "à",
    },
    Words {
        language: "it",
        section: ["sezione", "sezioni"],
        chapter: ["capitolo", "capitoli"],
        equation: ["equazione", "equazioni"],
        item: ["punto", "punti"],
        and: "e",
        to: "a",
    },
    Words {
        language: "nl",
        section: ["paragraaf", "paragrafen"],
        chapter: ["hoofdstuk", "hoofdstukken"],
        equation: ["vergelijking", "vergelijkingen"],
        item: ["punt", "punten"],
        and: "en",
        to: "tot",
    },
    Words {
        language: "pl",
        section: ["sekcja", "sekcje"],
        chapter: ["rozdział", "rozdziały"],
        equation: ["równanie", "równania"],
        item: ["punkt", "punkty"],
        and: "i",
        to: "do",
    },
    Words {
        language: "pt",
        section: ["seção", "seções"],
        chapter: ["capítulo", "capítulos"],
        equation: ["equação", "equações"],
        item: ["item", "itens"],
        and: "e",
        to: "a",
    },
    Words {
        language: "ru",
        section: ["раздел", "разделы"],
        chapter: ["глава", "главы"],
        equation: ["уравнение", "уравнения"],
        item: ["пункт", "пункты"],
        and: "и",
        to: "по",
    },
    Words {
        language: "sv",
        section: ["avsnitt", "avsnitt"],
        chapter: ["kapitel", "kapitel"],
        equation: ["ekvation", "ekvationer"],
        item: ["punkt", "punkter"],
        and: "och",
        to: "till",
    },
];

/// The words of a language; those of English for one that is not known.
pub(super) fn words_of(language: Option<&str>) -> &'static Words {
    let language = language.and_then(|language| language.split('-').next()).unwrap_or("en");
    WORDS.iter().find(|words| words.language == language).unwrap_or(&WORDS[2])
}

/// The counter that words are said for, by the word that is known for what has the number.
fn counter_of(word: &str) -> &str {
    match word {
        "item" => "enumi",
        "subsection" | "subsubsection" => "section",
        "Figure" | "figure" => "figure",
        "Table" | "table" => "table",
        _ => word,
    }
}

fn with_capital(word: &str) -> String {
    let mut letters = word.chars();
    letters.next().map_or_else(String::new, |first| first.to_uppercase().chain(letters).collect())
}

fn with_small_letter(word: &str) -> String {
    let mut letters = word.chars();
    letters.next().map_or_else(String::new, |first| first.to_lowercase().chain(letters).collect())
}

impl Reader<'_> {
    /// Takes what a document says about the words of references. Whether a command says it.
    pub(super) fn words_of_references(&mut self, name: &str) -> bool {
        let is_capital = match name {
            "crefname" => false,
            "Crefname" => true,
            _ => return false,
        };
        let (counter, one, several) = (self.input.argument(), self.input.argument(), self.input.argument());
        let counter = self.input.characters(&counter);
        let words = [self.words(&one), self.words(&several)].map(|words| words.trim().to_owned());
        let wording = &mut self.references.wording;
        // The other follows, where it is not said by itself.
        let other = if is_capital { words[0].to_lowercase() } else { with_capital(&words[0]) };
        let others = if is_capital { words[1].to_lowercase() } else { with_capital(&words[1]) };
        wording.own.entry((counter.clone(), !is_capital)).or_insert([other, others]);
        wording.own.insert((counter, is_capital), words);
        true
    }

    /// How the package for references is to word them.
    pub(super) fn wording_options(&mut self, options: &str) {
        let has = |names: &[&str]| options.split(',').any(|option| names.contains(&option.trim()));
        self.references.wording.is_loaded = true;
        self.references.wording.always_capital |= has(&["capitalise", "capitalize", "capitalise=true", "capitalize=true"]);
        self.references.wording.never_short |= has(&["noabbrev"]);
    }

    /// A reference to several places, or to what stands between two.
    pub(super) fn refer_to_several(&mut self, labels: Vec<String>, how: WordForm, is_range: bool) {
        let node = self.inline(Kind::Span);
        let labels = labels.into_iter().take(MOST_LABELS).collect();
        self.references.groups.push(Group { node, labels, how, is_range });
    }

    /// The word for what has a number, one of it or several, as a reference begins with it.
    pub(super) fn word_for(&self, word: &str, several: bool, how: WordForm) -> String {
        let wording = &self.references.wording;
        let language = self.doc.metadata.language.as_deref();
        let (counter, place) = (counter_of(word), usize::from(several));
        let is_capital = how == WordForm::Capital || wording.always_capital && how == WordForm::Small;
        if how != WordForm::Printed
            && let Some(own) = wording.own.get(&(counter.to_owned(), is_capital))
        {
            return own[place].clone();
        }
        let words = words_of(language);
        let is_english = words.language == "en";
        let short = match word.to_lowercase().as_str() {
            "equation" if how == WordForm::Small => ["eq.", "eqs."],
            "figure" if how == WordForm::Small => ["fig.", "figs."],
            _ => ["", ""],
        };
        let known = match word {
            _ if is_english && !short[0].is_empty() && !wording.never_short => short[place],
            "subsection" | "subsubsection" if is_english && how == WordForm::Printed => word,
            "section" | "subsection" | "subsubsection" => words.section[place],
            "chapter" => words.chapter[place],
            "equation" => words.equation[place],
            "item" => words.item[place],
            _ => "",
        };
        let found = if !known.is_empty() {
            known.to_owned()
        } else if several && is_english && !word.is_empty() {
            plural(word)
        } else {
            word.to_owned()
        };
        match how {
            // What captions and theorems are called stands with a capital letter there.
            WordForm::Printed if word == "equation" => with_capital(&found),
            WordForm::Small if is_english && !is_capital => with_small_letter(&found),
            _ if is_capital => with_capital(&found),
            _ => found,
        }
    }

    /// References to several places become the words for them and links.
    pub(super) fn resolve_groups(&mut self) {
        for Group { node, labels, how, is_range } in std::mem::take(&mut self.references.groups) {
            let place = self.doc.node(node).offset();
            let words = words_of(self.doc.metadata.language.as_deref());
            // Kinds come in the order of the first of each.
            let mut kinds: Vec<(String, Vec<Labelled>)> = Vec::new();
            for label in labels {
                let named = self.references.named(&label);
                let word = match &named {
                    Some(named) if named.word.starts_with("sub") => "section".to_owned(),
                    Some(named) => named.word.clone(),
                    None if self.tallies.equations.contains(&label) => "equation".to_owned(),
                    None => String::new(),
                };
                match kinds.iter_mut().find(|(known, _)| *known == word) {
                    Some((_, all)) => all.push((label, named)),
                    None => kinds.push((word, vec![(label, named)])),
                }
            }
            let count = kinds.len();
            for (number, (word, mut all)) in kinds.into_iter().enumerate() {
                if number > 0 {
                    let between = if number + 1 == count { format!(" {} ", words.and) } else { ", ".to_owned() };
                    self.put_text(node, &between, place);
                }
                if !is_range {
                    all.sort_by_key(|(_, named)| named.as_ref().map_or(Vec::new(), |named| parts_of(&named.number)));
                }
                let word = self.word_for(
                    &word,
                    all.len() > 1,
                    if number == 0 || how == WordForm::Printed { how } else { WordForm::Small },
                );
                if !word.is_empty() {
                    self.put_text(node, &format!("{word}\u{A0}"), place);
                }
                self.put_links(node, &all, words, is_range, place);
            }
            self.doc.unwrap(node);
        }
    }

    /// Links to places, with what parts them; three or more in a row are a range.
    fn put_links(&mut self, holder: NodeId, all: &[Labelled], words: &Words, is_range: bool, place: u32) {
        let number = |at: usize| all.get(at).and_then(|(_, named)| named.as_ref()).map(|named| parts_of(&named.number));
        let follows = |at: usize| {
            let (Some(mut one), Some(next)) = (number(at), number(at + 1)) else { return false };
            if let Some(last) = one.last_mut() {
                *last += 1;
            }
            one == next && !one.is_empty()
        };
        let mut pieces = Vec::new();
        let mut at = 0;
        while at < all.len() {
            let mut last = at;
            while last + 1 < all.len() && (is_range || follows(last)) {
                last += 1;
            }
            if last >= at + 2 || is_range && last > at {
                pieces.push((at, Some(last)));
                at = last + 1;
            } else {
                pieces.push((at, None));
                at += 1;
            }
        }
        let count = pieces.len();
        for (number, (first, last)) in pieces.into_iter().enumerate() {
            if number > 0 {
                let between = if number + 1 == count { format!(" {} ", words.and) } else { ", ".to_owned() };
                self.put_text(holder, &between, place);
            }
            self.put_link(holder, &all[first], place);
            if let Some(last) = last {
                self.put_text(holder, &format!(" {} ", words.to), place);
                self.put_link(holder, &all[last], place);
            }
        }
    }

    fn put_link(&mut self, holder: NodeId, (label, named): &Labelled, place: u32) {
        let link = self.doc.append_at(holder, Kind::Link { href: Text::EMPTY }, place);
        let is_equation = named.is_none() && self.tallies.equations.contains(label);
        let shows = if is_equation { Shows::Equation } else { Shows::Number };
        self.references.ask(Reference { node: link, label: label.clone(), shows });
    }

    fn put_text(&mut self, holder: NodeId, text: &str, place: u32) {
        let text = self.doc.intern(text);
        self.doc.append_at(holder, Kind::Text(text), place);
    }
}

/// The numbers in the number of something, to put several in order.
fn parts_of(number: &str) -> Vec<u64> {
    let part = |part: &str| match part.parse() {
        Ok(number) => number,
        // Letters stand for themselves.
        Err(_) => part.bytes().fold(0_u64, |value, byte| value.saturating_mul(256).saturating_add(u64::from(byte))),
    };
    number.split('.').filter(|part| !part.is_empty()).map(part).collect()
}

/// Several of what a word of English names.
fn plural(word: &str) -> String {
    match word {
        "Appendix" | "appendix" => return word.replace("dix", "dices"),
        _ => {}
    }
    let ends_in_y = word.strip_suffix('y').filter(|stem| !stem.ends_with(['a', 'e', 'o', 'u']));
    ends_in_y.map_or_else(|| format!("{word}s"), |stem| format!("{stem}ies"))
}
