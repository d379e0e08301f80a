//! Mentions of terms and acronyms (the documentation of glossaries, "Links to Glossary Entries" and "Using Glossary Terms Without
//! Links"; of glossaries-extra, acronym and acro). The first time an acronym stands behind what it is short for; later ones carry
//! that as a title.

use super::Reader;
use super::glossary::{FirstUse, Glossary, Style, Term, Words};
use super::tokens::{Kind as Sign, Token};
use crate::document::{Kind, TextLevel};

/// What is shown of a term.
#[derive(Clone, Copy, Debug, PartialEq, Eq)]
enum Part {
    /// What the style shows this time.
    Mention,
    Name,
    Text,
    First,
    Description,
    Symbol,
    Short,
    Long,
    /// The long and the short form.
    Full,
}

/// How letters are changed.
#[derive(Clone, Copy, Debug, PartialEq, Eq)]
enum Letters {
    AsTheyAre,
    FirstCapital,
    Capitals,
}

/// Sorts of commands.
#[derive(Clone, Copy, Debug, PartialEq, Eq)]
enum Family {
    /// Those that show words and do no more.
    Quiet,
    /// Those that also have the term listed, with options before the key and words that are added behind it.
    Linked,
    /// Those of acronyms, with a key alone.
    Acronym,
}

/// What a command shows.
#[derive(Clone, Copy, Debug)]
struct Shown {
    family: Family,
    part: Part,
    plural: bool,
    letters: Letters,
    /// Whether the next mention is no longer the first one.
    uses: bool,
    /// Whether an article stands before it.
    article: bool,
}

/// Ends of the names of commands.
const PARTS: [(&str, Part, bool); 15] = [
    ("", Part::Mention, false),
    ("pl", Part::Mention, true),
    ("name", Part::Name, false),
    ("text", Part::Text, false),
    ("plural", Part::Text, true),
    ("first", Part::First, false),
    ("firstplural", Part::First, true),
    ("desc", Part::Description, false),
    ("symbol", Part::Symbol, false),
    ("short", Part::Short, false),
    ("shortpl", Part::Short, true),
    ("long", Part::Long, false),
    ("longpl", Part::Long, true),
    ("full", Part::Full, false),
    ("fullpl", Part::Full, true),
];

/// Those of the packages acronym and acro, whose names begin with `ac`.
const ACRONYM_PARTS: [(&str, Part, bool); 15] = [
    ("", Part::Mention, false),
    ("p", Part::Mention, true),
    ("s", Part::Short, false),
    ("sp", Part::Short, true),
    ("su", Part::Short, false),
    ("spu", Part::Short, true),
    ("l", Part::Long, false),
    ("lp", Part::Long, true),
    ("li", Part::Long, false),
    ("lu", Part::Long, false),
    ("lpu", Part::Long, true),
    ("f", Part::Full, false),
    ("fp", Part::Full, true),
    ("fi", Part::Full, false),
    ("fip", Part::Full, true),
];

impl Shown {
    /// What a command shows, where it shows a term.
    fn by(command: &str) -> Option<Self> {
        let (letters, name) = match command.as_bytes() {
            [b'G', b'L', b'S', ..] | [b'A', b'C', b'R', ..] => (Letters::Capitals, command.to_ascii_lowercase()),
            [b'G', b'l', b's', ..] | [b'A', b'c', ..] | [b'I', b'a', b'c', ..] => {
                (Letters::FirstCapital, command.to_ascii_lowercase())
            }
            [b'g', b'l', b's', ..] | [b'a', b'c', ..] | [b'i', b'a', b'c', ..] => (Letters::AsTheyAre, command.to_owned()),
            _ => return None,
        };
        let of = |name: &str, parts: &[(&str, Part, bool)]| {
            parts.iter().find(|(end, ..)| *end == name).map(|(_, part, plural)| (*part, *plural))
        };
        let ends = |start: &str| name.strip_prefix(start).filter(|end| !end.is_empty());
        let quiet = ends("glsentry").or_else(|| ends("glsfmt")).filter(|_| !command.starts_with("GLS"));
        if let Some((part, plural)) = quiet.and_then(|end| of(end, &PARTS)) {
            return Some(Self { family: Family::Quiet, part, plural, letters, uses: false, article: false });
        }
        let linked = name.strip_prefix("gls").or_else(|| ends("acr"));
        let linked = linked.map(|end| end.strip_prefix("xtr").filter(|end| !end.is_empty()).unwrap_or(end));
        if let Some((part, plural)) = linked.and_then(|end| of(end, &PARTS)) {
            let uses = part == Part::Mention;
            return Some(Self { family: Family::Linked, part, plural, letters, uses, article: false });
        }
        let article = name.starts_with("iac");
        let (part, plural) =
            name.strip_prefix("ac").or_else(|| name.strip_prefix("iac")).and_then(|end| of(end, &ACRONYM_PARTS))?;
        let uses = part == Part::Mention || name.ends_with('u');
        Some(Self { family: Family::Acronym, part, plural, letters, uses, article })
    }
}

/// Whether a command shows a term and has it listed.
pub(super) fn mentions_a_term(command: &str) -> bool {
    Shown::by(command).is_some_and(|shown| shown.family != Family::Quiet)
}

impl Glossary {
    /// How an acronym is shown.
    fn style_of(&self, term: &Term) -> Style {
        if term.style.follows { Style { follows: true, ..self.acronym_style } } else { term.style }
    }

    /// Whether the next mention of a term is no longer the first one.
    fn is_used(&self, term: &Term) -> bool {
        if term.round == self.round { term.is_used } else { self.all_used }
    }

    fn set_use(&mut self, key: &str, is_used: bool) {
        if let Some(term) = self.terms.get_mut(key) {
            (term.is_used, term.round) = (is_used, self.round);
        }
    }

    /// All terms are as if they had been mentioned, or had not.
    fn use_all(&mut self, is_used: bool) {
        self.round += 1;
        self.all_used = is_used;
    }

    /// A term will be listed.
    fn list(&mut self, key: &str) {
        if let Some(term) = self.terms.get_mut(key) {
            term.is_mentioned = true;
        }
    }

    /// Whether a command shows a term of the document.
    pub(super) fn shows(&self, command: &str) -> bool {
        !self.terms.is_empty() && shows_a_term(command)
    }
}

/// Whether a command shows a term.
pub(super) fn shows_a_term(command: &str) -> bool {
    Shown::by(command).is_some()
}

/// What the text calls a term, once it is known.
pub(super) fn text_of(term: &Term, at: u32) -> Vec<Token> {
    term.words(Part::Text, false, at)
}

/// What a list calls a term.
pub(super) fn name_of(term: &Term, at: u32) -> Vec<Token> {
    term.words(Part::Name, false, at)
}

impl Term {
    fn plural_of(&self, own: Option<&Words>, singular: Option<&Words>, at: u32) -> Vec<Token> {
        match (own, singular) {
            (Some(own), _) => own.to_vec(),
            (None, Some(singular)) => singular.iter().cloned().chain([Token { kind: Sign::Char('s'), at }]).collect(),
            (None, None) => Vec::new(),
        }
    }

    fn short(&self, plural: bool, at: u32) -> Vec<Token> {
        let short = self.short.as_ref().or(self.text.as_ref()).or(self.name.as_ref());
        let own = self.short_plural.as_ref();
        if !self.style.small_capitals {
            return if plural { self.plural_of(own, short, at) } else { short.map(|words| words.to_vec()).unwrap_or_default() };
        }
        let ending = plural && own.is_none();
        let words = if plural { own.or(short) } else { short };
        let token = |kind: Sign| Token { kind, at };
        let mut small = vec![token(Sign::Command("textsc".into())), token(Sign::Begin)];
        small.extend(words.into_iter().flat_map(|words| words.iter().cloned()));
        small.push(token(Sign::End));
        small.extend(ending.then(|| token(Sign::Char('s'))));
        small
    }

    fn long(&self, plural: bool, at: u32) -> Vec<Token> {
        let long = self.long.as_ref().or(self.text.as_ref()).or(self.name.as_ref());
        if plural {
            self.plural_of(self.long_plural.as_ref(), long, at)
        } else {
            long.map(|words| words.to_vec()).unwrap_or_default()
        }
    }

    /// The words for a part of a term.
    fn words(&self, part: Part, plural: bool, at: u32) -> Vec<Token> {
        let own = |words: Option<&Words>| words.map(|words| words.to_vec());
        let text = self.text.as_ref().or(self.name.as_ref());
        match part {
            Part::Name => own(self.name.as_ref()).unwrap_or_else(|| match self.style.described && self.long.is_some() {
                true => self.full(false, &[], FirstUse::LongShort, at),
                false => self.short(false, at),
            }),
            Part::Symbol => own(self.symbol.as_ref()).unwrap_or_default(),
            Part::Description => own(self.description.as_ref().or(self.long.as_ref())).unwrap_or_default(),
            Part::Short => self.short(plural, at),
            Part::Long => self.long(plural, at),
            _ if self.long.is_some() && part != Part::Text => self.full(plural, &[], self.style.first, at),
            Part::Text if plural => match self.plural.as_ref() {
                Some(plural) => plural.to_vec(),
                None if self.long.is_some() && self.text.is_none() => self.short(true, at),
                None => self.plural_of(None, text, at),
            },
            Part::First | Part::Mention | Part::Full if plural => match (&self.first_plural, &self.first) {
                (Some(plural), _) => plural.to_vec(),
                (None, Some(first)) => self.plural_of(None, Some(first), at),
                (None, None) => self.words(Part::Text, true, at),
            },
            Part::First | Part::Mention | Part::Full => own(self.first.as_ref().or(text)).unwrap_or_default(),
            Part::Text => own(text).unwrap_or_else(|| self.short(false, at)),
        }
    }

    /// The long and the short form, with what is added to the first of them.
    fn full(&self, plural: bool, added: &[Token], how: FirstUse, at: u32) -> Vec<Token> {
        let char = |c: char| Token { kind: if c == ' ' { Sign::Space } else { Sign::Char(c) }, at };
        let (long, short) = (self.long(plural, at), self.short(plural, at));
        let (first, second) = match how {
            FirstUse::ShortLong | FirstUse::Note => (short, long),
            FirstUse::LongShort | FirstUse::Long | FirstUse::LongAtFirst | FirstUse::Short => (long, short),
        };
        let mut words = first;
        words.extend_from_slice(added);
        words.extend(" (".chars().map(char));
        if let Some(foreign) = &self.foreign {
            words.extend(foreign.iter().cloned());
            words.extend(", ".chars().map(char));
        }
        words.extend(second);
        words.push(char(')'));
        words
    }

    /// The short form, and what it is short for in a note.
    fn with_note(&self, plural: bool, added: &[Token], at: u32) -> Vec<Token> {
        let token = |kind: Sign| Token { kind, at };
        let mut words = self.short(plural, at);
        words.extend_from_slice(added);
        words.extend([token(Sign::Command("footnote".into())), token(Sign::Begin)]);
        words.extend(self.long(plural, at));
        words.push(token(Sign::End));
        words
    }
}

impl Reader<'_> {
    /// Shows a term, or the list of them. Whether a command does.
    pub(super) fn term(&mut self, name: &str) -> bool {
        match name {
            "acro" => self.acronym_of_list(),
            // Stands in the list alone, which is where it is read.
            "acroextra" => {
                let words = self.input.argument();
                self.input.push_all(words.into_iter());
            }
            "glsaddall" => {
                self.input.option();
                self.own.glossary.all_mentioned = true;
            }
            "glsresetall" | "acresetall" | "glsunsetall" => {
                self.input.option();
                self.own.glossary.use_all(name == "glsunsetall");
            }
            "glsadd" | "acused" | "acuse" | "acreset" | "glsreset" | "glsunset" | "glslocalreset" | "glslocalunset" => {
                self.input.option();
                let keys = self.key_of_term();
                for key in keys.split(',').map(str::trim).take(1000) {
                    match name {
                        "glsadd" => self.own.glossary.list(key),
                        name => self.own.glossary.set_use(key, !name.ends_with("reset")),
                    }
                }
            }
            "glslink" | "glsdisp" => {
                self.input.take('*');
                self.input.option();
                let key = self.key_of_term();
                self.own.glossary.list(&key);
                if name == "glsdisp" {
                    self.own.glossary.set_use(&key, true);
                }
            }
            _ => return self.condition_of_term(name) || self.print_glossary(name) || self.mention(name),
        }
        true
    }

    /// A command that asks something of a term, and takes one of two ways.
    fn condition_of_term(&mut self, name: &str) -> bool {
        let test: fn(&Glossary, &Term) -> bool = match name {
            "ifglsused" | "acifused" => |glossary, term| glossary.is_used(term),
            "ifglsentryexists" => |_, _| true,
            "ifglshaslong" => |_, term| term.long.is_some(),
            "ifglshasshort" => |_, term| term.short.is_some(),
            "ifglshasdesc" => |_, term| term.description.as_ref().is_some_and(|words| !words.is_empty()),
            "ifglshassymbol" => |_, term| term.symbol.is_some(),
            _ => return false,
        };
        let key = self.key_of_term();
        let (yes, no) = (self.input.argument(), self.input.argument());
        let glossary = &self.own.glossary;
        let holds = glossary.terms.get(&key).is_some_and(|term| test(glossary, term));
        self.input.push_all(if holds { yes } else { no }.into_iter());
        true
    }

    /// A term in the text: `\gls{hw}`.
    pub(super) fn mention(&mut self, command: &str) -> bool {
        let Some(shown) = Shown::by(command) else { return false };
        let takes_options = shown.family == Family::Linked;
        let is_counted = !self.input.take('*') || takes_options;
        if takes_options {
            self.input.takes_character('+');
            self.input.option();
        }
        let key = self.key_of_term();
        let added = if takes_options { self.input.option().unwrap_or_default() } else { Vec::new() };
        let Some(term) = self.own.glossary.terms.get(&key).cloned() else {
            self.tallies.terms.add_apart(self.at, &key);
            self.input.push_all(added.into_iter());
            if self.expanding.in_formula {
                let at = self.at;
                self.input.push_all(key.chars().map(|c| Token { kind: Sign::Char(c), at }).collect::<Vec<_>>().into_iter());
            } else {
                self.text(&key);
            }
            return true;
        };
        let is_first = !self.own.glossary.is_used(&term);
        if shown.uses && is_counted {
            self.own.glossary.set_use(&key, true);
        }
        if shown.family != Family::Quiet {
            self.own.glossary.list(&key);
        }
        self.show_term(&term, shown, is_first, added);
        true
    }

    fn show_term(&mut self, term: &Term, shown: Shown, is_first: bool, added: Vec<Token>) {
        let at = self.at;
        let style = self.own.glossary.style_of(term);
        let plural = shown.plural;
        let part = match shown.part {
            Part::Mention if term.long.is_none() => {
                if is_first {
                    Part::First
                } else {
                    Part::Text
                }
            }
            Part::Mention => match style.first {
                FirstUse::Long => Part::Long,
                FirstUse::LongAtFirst if is_first => Part::Long,
                FirstUse::Short => Part::Short,
                _ if is_first => Part::Mention,
                _ => Part::Short,
            },
            // What is no acronym has no such forms.
            Part::Short | Part::Long | Part::Full if term.long.is_none() => Part::Text,
            part => part,
        };
        let is_short = term.long.is_some() && (part == Part::Short || part == Part::Text && term.text.is_none());
        let mut words = match part {
            Part::Mention if style.first == FirstUse::Note => term.with_note(plural, &added, at),
            Part::Mention | Part::Full if term.long.is_some() => term.full(plural, &added, style.first, at),
            part => {
                let mut words = term.words(part, plural, at);
                if !is_short {
                    words.extend_from_slice(&added);
                }
                words
            }
        };
        if !self.macros.charge(words.len(), at) {
            return;
        }
        if shown.letters != Letters::AsTheyAre && !shown.article {
            words = self.with_capitals(words, shown.letters == Letters::Capitals);
        }
        if shown.article {
            let article = term.article.as_ref().map_or_else(|| vec![Token { kind: Sign::Char('a'), at }], |words| words.to_vec());
            let mut before = if shown.letters == Letters::AsTheyAre { article } else { self.with_capitals(article, false) };
            before.push(Token { kind: Sign::Space, at });
            if is_short {
                let before = self.words(&before);
                self.text(&before);
                self.text(" ");
            } else {
                words.splice(0..0, before);
            }
        }
        if self.expanding.in_formula {
            self.input.push_all(added.into_iter().filter(|_| is_short));
            return self.input.push_all(words.into_iter());
        }
        if !is_short {
            return self.input.push_all(words.into_iter());
        }
        let node = self.inline(Kind::TextLevel(TextLevel::Abbreviation));
        if !term.meaning.is_empty() {
            let title = self.doc.intern(&term.meaning);
            self.doc.attributes_mut(node).title = Some(title);
        }
        self.input.push_all(added.into_iter());
        self.read_into(node, true, words);
    }

    /// Words with a capital letter at their beginning, or in capitals.
    fn with_capitals(&self, words: Vec<Token>, all: bool) -> Vec<Token> {
        let mut out = Vec::with_capacity(words.len());
        let mut is_done = false;
        for token in words {
            let (kind, text) = match token.kind {
                Sign::Text(start, end) => (token.kind, self.input.slice(start, end)),
                Sign::Char(c) if c.is_alphabetic() => {
                    let large = if is_done && !all { vec![c] } else { c.to_uppercase().collect() };
                    is_done = true;
                    out.extend(large.into_iter().map(|c| Token { kind: Sign::Char(c), at: token.at }));
                    continue;
                }
                kind => {
                    out.push(Token { kind, at: token.at });
                    continue;
                }
            };
            if is_done && !all {
                out.push(Token { kind, at: token.at });
                continue;
            }
            for (number, c) in text.chars().enumerate() {
                let c = if number == 0 || all { c.to_uppercase().collect::<Vec<_>>() } else { vec![c] };
                let sign = |c: char| if c == ' ' { Sign::Space } else { Sign::Char(c) };
                out.extend(c.into_iter().map(|c| Token { kind: sign(c), at: token.at }));
            }
            is_done = true;
        }
        out
    }
}
