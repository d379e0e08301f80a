//! Terms and acronyms that a document defines, and the lists of them (the documentation of glossaries, "Defining Glossary Entries"
//! and "Displaying a Glossary"; of glossaries-extra, acronym, acro and nomencl).

use std::rc::Rc;

use super::Reader;
use super::tokens::{Input, Kind as Sign, Token};
use crate::document::{Kind, NodeId};
use crate::fast_hash::{HashMap, HashSet};

pub(super) type Words = Rc<[Token]>;

/// How acronyms are shown: the first time, and always.
#[derive(Clone, Copy, Debug, Default, PartialEq, Eq)]
pub(super) enum FirstUse {
    /// What it is short for, with the short form in parentheses.
    #[default]
    LongShort,
    ShortLong,
    /// The short form, with what it is short for in a note.
    Note,
    /// What it is short for, each time; and the first time alone.
    Long,
    LongAtFirst,
    /// The short form, each time.
    Short,
}

/// A style of acronyms.
#[derive(Clone, Copy, Debug, Default)]
pub(super) struct Style {
    pub(super) first: FirstUse,
    pub(super) small_capitals: bool,
    /// Whether the list has a description of its own beside what it is short for.
    pub(super) described: bool,
    /// Whether it is the one that is set last.
    pub(super) follows: bool,
}

impl Style {
    /// A style by its name, such as `long-sc-short-desc`.
    fn named(name: &str) -> Self {
        let mut style = Self::default();
        let mut parts = Vec::new();
        for part in name.split('-') {
            match part {
                "sc" => style.small_capitals = true,
                "desc" => style.described = true,
                "short" | "long" | "nolong" | "noshort" | "footnote" | "postfootnote" | "dua" => parts.push(part),
                _ => {}
            }
        }
        style.first = match *parts {
            [.., "footnote" | "postfootnote"] | ["footnote", ..] => FirstUse::Note,
            ["dua" | "long"] | ["long", "noshort", ..] => FirstUse::Long,
            ["short"] | ["short", "nolong", ..] | ["nolong", "short"] => FirstUse::Short,
            ["short", "long", ..] => FirstUse::ShortLong,
            _ => FirstUse::LongShort,
        };
        style
    }
}

/// A term, or an acronym.
#[derive(Clone, Debug, Default)]
pub(super) struct Term {
    pub(super) name: Option<Words>,
    /// What the text shows, and what it shows the first time.
    pub(super) text: Option<Words>,
    pub(super) first: Option<Words>,
    pub(super) plural: Option<Words>,
    pub(super) first_plural: Option<Words>,
    pub(super) description: Option<Words>,
    pub(super) symbol: Option<Words>,
    /// Of an acronym.
    pub(super) short: Option<Words>,
    pub(super) long: Option<Words>,
    pub(super) short_plural: Option<Words>,
    pub(super) long_plural: Option<Words>,
    /// What the same is called elsewhere, which stands before the short form.
    pub(super) foreign: Option<Words>,
    /// `a` or `an`.
    pub(super) article: Option<Words>,
    /// What the long form is as text.
    pub(super) meaning: Rc<str>,
    pub(super) style: Style,
    /// Whether the text mentioned it.
    pub(super) is_mentioned: bool,
    /// Whether the next mention is no longer the first one, if all terms have not been set since.
    pub(super) is_used: bool,
    pub(super) round: usize,
    place: Rc<Listing>,
}

/// Where a term is listed.
#[derive(Clone, Debug, Default)]
struct Listing {
    list: Rc<str>,
    sort: Option<Words>,
    /// The term that it belongs to.
    parent: String,
    /// Terms that its entry leads to, and whether beside what it says itself.
    see: Vec<String>,
    also: bool,
    /// Which of all it is.
    number: usize,
}

/// The terms of a document.
#[derive(Debug, Default)]
pub(super) struct Glossary {
    pub(super) terms: HashMap<String, Term>,
    /// Whether all terms are listed; how often it was set for all of them whether they are mentioned, and whether they then were.
    pub(super) all_mentioned: bool,
    pub(super) round: usize,
    pub(super) all_used: bool,
    lists: Vec<List>,
    /// The names of lists that have terms.
    filled: HashSet<Rc<str>>,
    /// Lists with names of their own, by the names that commands know them by.
    named: Vec<(Rc<str>, Words)>,
    /// The list of acronyms, where it is one of its own, and that of abbreviations.
    acronyms: Option<&'static str>,
    abbreviations: Option<&'static str>,
    pub(super) acronym_style: Style,
    abbreviation_style: Style,
    own_styles: HashMap<String, Style>,
    /// What the lists of acronyms hold that stand in the text.
    in_text: ListsInText,
    /// Those entries, with their keys.
    entries: Vec<(String, [NodeId; 2])>,
}

/// What lists of acronyms hold that stand in the text (the documentation of acronym, options).
#[derive(Clone, Copy, Debug, Default, PartialEq, Eq)]
enum ListsInText {
    #[default]
    All,
    Mentioned,
    Nothing,
}

/// A list of terms that is filled at the end.
#[derive(Debug)]
struct List {
    name: Rc<str>,
    heading: NodeId,
    node: NodeId,
    /// Whether terms are listed that are not mentioned, in the order in which they were defined.
    is_whole: bool,
}

/// A glossary has no more terms, and no more lists.
const MOST_TERMS: usize = 20_000;
const MOST_LISTS: usize = 100;

const MAIN: &str = "main";
const ACRONYMS: &str = "acronym";
const ABBREVIATIONS: &str = "abbreviations";
const SYMBOLS: &str = "symbols";
const NOMENCLATURE: &str = "nomenclature";

impl Glossary {
    fn define(&mut self, key: String, mut term: Term, replaces: bool) {
        let is_known = self.terms.contains_key(&key);
        if self.terms.len() < MOST_TERMS && (replaces || !is_known) {
            let place = Rc::make_mut(&mut term.place);
            place.number = self.terms.len();
            if place.list.is_empty() {
                place.list = MAIN.into();
            }
            self.filled.insert(place.list.clone());
            self.terms.insert(key, term);
        }
    }

    /// Terms that others belong to, or mention, where these are listed are listed too.
    fn mention_described(&mut self, input: &Input<'_>) {
        let mut open: Vec<String> = self.terms.iter().filter(|(_, term)| term.is_mentioned).map(|(key, _)| key.clone()).collect();
        while let Some(key) = open.pop() {
            let Some(term) = self.terms.get(&key) else { continue };
            let words = term.description.as_deref().unwrap_or_default();
            let mentioned: Vec<String> = words
                .windows(3)
                .filter(|tokens| {
                    tokens[1].kind == Sign::Begin && tokens[0].kind.command().is_some_and(super::terms::mentions_a_term)
                })
                .map(|tokens| input.characters(&tokens[2..]))
                .chain(std::iter::once(term.place.parent.clone()))
                .collect();
            for key in mentioned {
                if let Some(term) = self.terms.get_mut(&key).filter(|term| !term.is_mentioned) {
                    term.is_mentioned = true;
                    open.push(key);
                }
            }
        }
    }
}

impl Reader<'_> {
    /// Options of packages for terms.
    pub(super) fn glossary_options(&mut self, package: &str, options: &str) {
        let has = |names: &[&str]| options.split(',').any(|option| names.contains(&option.trim()));
        let glossary = &mut self.own.glossary;
        if has(&["footnote"]) {
            glossary.acronym_style.first = FirstUse::Note;
        } else if has(&["dua"]) {
            glossary.acronym_style.first = FirstUse::Long;
        } else if package == "glossaries-extra" {
            glossary.acronym_style.first = FirstUse::Short;
        }
        glossary.acronym_style.small_capitals = has(&["smallcaps"]);
        if has(&["acronym", "acronyms", "acronym=true"]) || package == "acro" {
            glossary.acronyms = Some(ACRONYMS);
        }
        if has(&["nolist"]) {
            glossary.in_text = ListsInText::Nothing;
        } else if has(&["printonlyused"]) {
            glossary.in_text = ListsInText::Mentioned;
        }
        if has(&["abbreviations"]) {
            glossary.abbreviations = Some(ABBREVIATIONS);
        }
    }

    /// Takes a term. Whether a command defines one, or says how they are shown.
    pub(super) fn define_term(&mut self, name: &str) -> bool {
        match name {
            "newacronym" | "newabbreviation" => self.define_acronym(name == "newacronym"),
            "newacro" | "acrodef" => {
                let key = self.input.argument();
                let short = self.input.option().unwrap_or_else(|| key.clone());
                let long = self.input.argument();
                let term = self.acronym(short.into(), long.into(), self.own.glossary.acronym_style);
                let key = self.input.characters(&key);
                self.own.glossary.define(key, term, true);
            }
            "acroplural" | "acrodefplural" | "newacroplural" => {
                let (key, short, long) = (self.key_of_term(), self.input.option(), self.input.argument());
                if let Some(term) = self.own.glossary.terms.get_mut(&key) {
                    term.short_plural = short.map(Words::from);
                    term.long_plural = Some(long.into());
                }
            }
            "acroindefinite" | "acrodefindefinite" | "newacroindefinite" => {
                let (key, short, long) = (self.key_of_term(), self.input.option(), self.input.argument());
                if let Some(term) = self.own.glossary.terms.get_mut(&key) {
                    term.article = Some(short.unwrap_or(long).into());
                }
            }
            "newglossaryentry" | "provideglossaryentry" | "longnewglossaryentry" | "longprovideglossaryentry" => {
                self.input.take('*');
                let (key, values) = (self.key_of_term(), self.input.argument());
                let mut term = self.term_of(&values, Term::default());
                if name.starts_with("long") {
                    term.description = Some(self.input.argument().into());
                }
                self.own.glossary.define(key, term, !name.contains("provide"));
            }
            "DeclareAcronym" => {
                let (key, values) = (self.key_of_term(), self.input.argument());
                let style = self.own.glossary.acronym_style;
                let style = Style { follows: true, ..style };
                let place = Rc::new(Listing { list: ACRONYMS.into(), ..Listing::default() });
                let term = self.term_of(&values, Term { style, place, ..Term::default() });
                self.own.glossary.define(key, term, true);
            }
            "glsxtrnewsymbol" | "newterm" => {
                let options = self.input.option().unwrap_or_default();
                let key = self.input.argument();
                let shown = if name == "newterm" { key.clone() } else { self.input.argument() };
                let list = if name == "newterm" { "index" } else { SYMBOLS };
                let place = Listing { list: list.into(), sort: Some(key.clone().into()), ..Listing::default() }.into();
                let term = self.term_of(&options, Term { name: Some(shown.into()), place, ..Term::default() });
                let key = self.input.characters(&key);
                self.own.glossary.define(key, term, true);
            }
            "nomenclature" => {
                let prefix = self.input.option().unwrap_or_default();
                let (shown, description) = (self.input.argument(), self.input.argument());
                let mut key = String::new();
                self.input.write(&shown, &mut key);
                let sort: Words = prefix.into_iter().chain(shown.iter().cloned()).collect();
                let place = Listing { list: NOMENCLATURE.into(), sort: Some(sort), ..Listing::default() }.into();
                let (name, description) = (Some(shown.into()), Some(description.into()));
                let term = Term { name, description, is_mentioned: true, place, ..Term::default() };
                self.own.glossary.define(format!("{NOMENCLATURE} {key}"), term, true);
            }
            _ => return self.glossary_setting(name),
        }
        true
    }

    /// Styles of acronyms, and lists. Whether a command sets these.
    fn glossary_setting(&mut self, name: &str) -> bool {
        match name {
            "setacronymstyle" | "setabbreviationstyle" => {
                let category = self.input.option().unwrap_or_default();
                let is_acronym = name == "setacronymstyle" || self.input.characters(&category) == "acronym";
                let style = self.input.argument();
                let style = self.input.characters(&style);
                let own = self.own.glossary.own_styles.get(&style).copied();
                let style = own.unwrap_or_else(|| Style::named(&style));
                let glossary = &mut self.own.glossary;
                *if is_acronym { &mut glossary.acronym_style } else { &mut glossary.abbreviation_style } = style;
            }
            // Those that a document defines are as the one that they begin with.
            "newacronymstyle" | "newabbreviationstyle" => {
                let (name, shown, defined) = (self.key_of_term(), self.input.argument(), self.input.argument());
                let begins = |token: &Token| {
                    token.kind.command().is_some_and(|name| name.starts_with("GlsUseAcr") || name.starts_with("GlsXtrUseAbbr"))
                };
                let basis = [shown, defined].into_iter().find_map(|tokens| {
                    let at = tokens.iter().position(begins)?;
                    Some(self.input.characters(&tokens[at + 1..tokens.len().min(at + 4)]))
                });
                if let Some(basis) = basis
                    && self.own.glossary.own_styles.len() < MOST_LISTS
                {
                    self.own.glossary.own_styles.insert(name, Style::named(&basis));
                }
            }
            "acsetup" => {
                let options = self.input.argument();
                let style = self.input.value_of(&options, "first-style");
                let style = self.input.characters(&style);
                if !style.is_empty() {
                    let first = if style == "long" { FirstUse::LongAtFirst } else { Style::named(&style).first };
                    self.own.glossary.acronym_style.first = first;
                }
            }
            "newglossary" => {
                let is_short = self.input.take('*');
                self.input.option();
                let list = self.key_of_term();
                if !is_short {
                    self.skip_arguments("mm");
                }
                let title = self.input.argument();
                self.input.option();
                if self.own.glossary.named.len() < MOST_LISTS {
                    self.own.glossary.named.push((list.into(), title.into()));
                }
            }
            _ => return false,
        }
        true
    }

    pub(super) fn key_of_term(&mut self) -> String {
        let key = self.input.argument();
        self.input.characters(&key)
    }

    /// `\newacronym[description={…}]{hw}{HW}{high water}`
    fn define_acronym(&mut self, is_acronym: bool) {
        let options = self.input.option().unwrap_or_default();
        let (key, short, long) = (self.key_of_term(), self.input.argument(), self.input.argument());
        let glossary = &self.own.glossary;
        let (style, list) = if is_acronym {
            (glossary.acronym_style, glossary.acronyms)
        } else {
            (glossary.abbreviation_style, glossary.abbreviations)
        };
        let mut term = self.acronym(short.into(), long.into(), style);
        if let Some(list) = list {
            Rc::make_mut(&mut term.place).list = list.into();
        }
        let term = self.term_of(&options, term);
        self.own.glossary.define(key, term, true);
    }

    fn acronym(&mut self, short: Words, long: Words, style: Style) -> Term {
        let short = self.without_mentions(short);
        let long = self.without_mentions(without_extra(long));
        let meaning = self.meaning(&long);
        Term { short: Some(short), long: Some(long), meaning, style, ..Term::default() }
    }

    /// What a term is called, with the words of other terms in place of their mentions: one that mentions itself would never end.
    fn without_mentions(&mut self, words: Words) -> Words {
        /// What is longer is not put together of others.
        const LONGEST: usize = 500;
        let is_mention = |token: &Token| token.kind.command().is_some_and(super::terms::shows_a_term);
        if !words.iter().any(is_mention) {
            return words;
        }
        let mut out: Vec<Token> = Vec::with_capacity(words.len());
        let mut rest = &words[..];
        while let Some((token, behind)) = rest.split_first() {
            rest = behind;
            if !is_mention(token) {
                out.push(token.clone());
                continue;
            }
            let [Token { kind: Sign::Begin, .. }, key, Token { kind: Sign::End, .. }, behind @ ..] = rest else { continue };
            let key = self.input.characters(std::slice::from_ref(key));
            if let Some(term) = self.own.glossary.terms.get(&key) {
                let words = super::terms::text_of(term, self.at);
                if words.len() + out.len() <= LONGEST {
                    out.extend(words);
                    rest = behind;
                }
            }
        }
        out.into()
    }

    /// The text of a long form; so long a one that it is none would come again with each mention.
    fn meaning(&mut self, long: &[Token]) -> Rc<str> {
        const LONGEST: usize = 300;
        let meaning = self.words(long);
        if meaning.len() <= LONGEST { meaning.into() } else { "".into() }
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
            let mut entry = Input::new(&source[..end]);
            entry.at = start;
            let key = entry.argument();
            let short = entry.option().unwrap_or_else(|| key.clone());
            let long = entry.argument();
            let key = entry.characters(&key);
            if !key.is_empty() && !long.is_empty() {
                let term = self.acronym(short.into(), long.into(), self.own.glossary.acronym_style);
                self.own.glossary.define(key, term, false);
            }
        }
    }

    /// A term by the keys and values that it is given.
    fn term_of(&mut self, values: &[Token], mut term: Term) -> Term {
        let mut place = Listing::clone(&term.place);
        for (key, value) in self.input.pairs(values) {
            let value: Words = self.trimmed(value).into();
            let value = if key == "description" { value } else { self.without_mentions(value) };
            let ending = |words: Option<&Words>| words.map(|words| words.iter().chain(value.iter()).cloned().collect());
            match key.as_str() {
                "name" => term.name = Some(value),
                "text" => term.text = Some(value),
                "first" => term.first = Some(value),
                "plural" => term.plural = Some(value),
                "firstplural" => term.first_plural = Some(value),
                "description" => term.description = Some(value),
                "symbol" => term.symbol = Some(value),
                "short" => term.short = Some(value),
                "long" => {
                    term.meaning = self.meaning(&value);
                    term.long = Some(value);
                }
                "shortplural" | "short-plural-form" => term.short_plural = Some(value),
                "longplural" | "long-plural-form" => term.long_plural = Some(value),
                "short-plural" => term.short_plural = ending(term.short.as_ref()),
                "long-plural" => term.long_plural = ending(term.long.as_ref()),
                "foreign" => term.foreign = Some(value),
                "short-indefinite" | "long-indefinite" => term.article = Some(value),
                "sort" => place.sort = Some(value),
                "parent" => place.parent = self.input.characters(&value),
                "type" => place.list = self.list_named(&value),
                "see" | "seealso" | "alias" => {
                    // Words for it may stand before the keys: `{[see also]{…}}`.
                    let words = self.input.characters(&value);
                    place.also = key == "seealso" || words.contains("also");
                    let keys = words.rsplit(']').next().unwrap_or_default();
                    place.see = keys.split(',').map(|key| key.trim_matches(['{', '}', ' ']).to_owned()).take(20).collect();
                }
                _ => {}
            }
        }
        term.place = place.into();
        term
    }

    /// A value without the white space behind it.
    fn trimmed(&self, mut value: Vec<Token>) -> Vec<Token> {
        while let Some(last) = value.last_mut() {
            match last.kind {
                Sign::Space | Sign::Par => {
                    value.pop();
                }
                Sign::Text(start, end) => {
                    let length = self.input.slice(start, end).trim_end().len() as u32;
                    last.kind = Sign::Text(start, start + length);
                    break;
                }
                _ => break,
            }
        }
        value
    }

    /// The list that a value names, by its name or by the command for it.
    fn list_named(&self, value: &[Token]) -> Rc<str> {
        let name = match value.iter().find_map(|token| token.kind.command()) {
            Some("acronymtype") => ACRONYMS.to_owned(),
            Some("glsxtrabbrvtype") => ABBREVIATIONS.to_owned(),
            Some(_) => MAIN.to_owned(),
            None => self.input.characters(value),
        };
        self.own_list(&name)
    }

    /// Lists that are none of their own are parts of the main one.
    fn own_list(&self, name: &str) -> Rc<str> {
        let glossary = &self.own.glossary;
        match name {
            ACRONYMS => glossary.acronyms.unwrap_or(MAIN).into(),
            ABBREVIATIONS => glossary.abbreviations.unwrap_or(MAIN).into(),
            name => name.into(),
        }
    }

    /// Commands that print lists of terms. Whether a command does.
    pub(super) fn print_glossary(&mut self, name: &str) -> bool {
        let list = match name {
            "printglossary" | "printnoidxglossary" | "printunsrtglossary" => None,
            "printglossaries" | "printnoidxglossaries" | "printunsrtglossaries" => None,
            "printacronyms" => Some(ACRONYMS),
            "printabbreviations" => Some(ABBREVIATIONS),
            "printsymbols" => Some(SYMBOLS),
            "printnomenclature" => Some(NOMENCLATURE),
            _ => return false,
        };
        let options = self.input.option().unwrap_or_default();
        self.end_paragraph();
        if self.own.glossary.terms.is_empty() || !self.takes_blocks() {
            return true;
        }
        let is_whole = name.starts_with("printunsrt");
        let mut title = self.input.value_of(&options, "title");
        if title.is_empty() {
            title = self.input.value_of(&options, "name");
        }
        if name.ends_with("glossaries") {
            let lists = self.lists();
            for list in lists {
                self.begin_glossary(&list, &title, is_whole);
            }
            return true;
        }
        let named = self.input.value_of(&options, "type");
        let list = match list {
            Some(list) => self.own_list(list),
            // Without a main one, the first is meant.
            None if named.is_empty() => self.lists().into_iter().next().unwrap_or_else(|| MAIN.into()),
            None => self.list_named(&named),
        };
        self.begin_glossary(&list, &title, is_whole);
        true
    }

    /// All lists that have terms, in their order.
    fn lists(&self) -> Vec<Rc<str>> {
        let glossary = &self.own.glossary;
        [MAIN, ACRONYMS, ABBREVIATIONS, SYMBOLS]
            .into_iter()
            .chain(glossary.named.iter().map(|(name, _)| &**name))
            .filter(|name| glossary.filled.contains(*name))
            .map(Rc::from)
            .collect()
    }

    /// A heading, and a list that is filled later.
    fn begin_glossary(&mut self, list: &Rc<str>, title: &[Token], is_whole: bool) {
        let glossary = &self.own.glossary;
        if glossary.lists.len() >= MOST_LISTS || glossary.lists.iter().any(|known| known.name == *list) {
            return;
        }
        let named = glossary.named.iter().find(|(name, _)| name == list).map(|(_, title)| title.clone());
        let mut title = self.words(if title.is_empty() { named.as_deref().unwrap_or_default() } else { title });
        if title.is_empty() {
            let language = self.front.language.as_deref().and_then(|language| language.get(..2)).unwrap_or_default();
            title.push_str(usual_title(list, language));
        }
        let level = self.counters.level(if self.counters.has_chapters { "chapter" } else { "section" }).unwrap_or(1);
        let heading = self.block(Kind::Heading(level));
        let class = self.doc.intern("unnumbered");
        self.doc.attributes_mut(heading).classes.push(class);
        let words = self.doc.intern(&title);
        self.doc.append_at(heading, Kind::Text(words), self.at);
        let node = self.block(Kind::TermList);
        self.own.glossary.lists.push(List { name: list.clone(), heading, node, is_whole });
    }

    /// An acronym in a list of them: `\acro{HW}[H.W.]{high water}`.
    pub(super) fn acronym_of_list(&mut self) {
        let key = self.input.argument();
        let short = self.input.option().unwrap_or_else(|| key.clone());
        let long = self.input.argument();
        let key = self.input.characters(&key);
        let term = self.acronym(short.clone().into(), long.clone().into(), self.own.glossary.acronym_style);
        self.own.glossary.define(key.clone(), term, false);
        if self.own.glossary.in_text == ListsInText::Nothing {
            return;
        }
        if !self.takes_blocks() {
            return self.input.push_all(long.into_iter());
        }
        let [term, description] = self.entry_of_terms();
        self.own.glossary.entries.push((key, [term, description]));
        self.read_into(description, true, long);
        self.read_into(term, true, short);
    }

    /// Another entry of the list of terms that comes last here, or of a new one: its term, and what is said of it.
    pub(super) fn entry_of_terms(&mut self) -> [NodeId; 2] {
        self.end_paragraph();
        let holder = self.holder();
        let last = self.doc.node(holder).last_child().filter(|&last| self.doc.kind(last) == Kind::TermList);
        let list = last.unwrap_or_else(|| self.block(Kind::TermList));
        [Kind::Term, Kind::TermDescription].map(|kind| self.doc.append_at(list, kind, self.at))
    }

    /// Entries of lists in the text go that are not mentioned, where the document asks for that.
    fn drop_entries(&mut self) {
        for (key, nodes) in std::mem::take(&mut self.own.glossary.entries) {
            let is_mentioned = self.own.glossary.terms.get(&key).is_some_and(|term| term.is_mentioned);
            if is_mentioned || self.own.glossary.in_text != ListsInText::Mentioned {
                continue;
            }
            let list = self.doc.node(nodes[0]).parent();
            nodes.into_iter().for_each(|node| self.doc.detach(node));
            if let Some(list) = list.filter(|&list| self.doc.node(list).first_child().is_none()) {
                self.doc.detach(list);
            }
        }
    }

    /// Fills the lists of terms, once all that is mentioned is known.
    pub(super) fn fill_glossary(&mut self) {
        self.drop_entries();
        if self.own.glossary.lists.is_empty() {
            return;
        }
        self.own.glossary.mention_described(&self.input);
        let all = self.own.glossary.all_mentioned;
        for List { name, heading, node, is_whole } in std::mem::take(&mut self.own.glossary.lists) {
            let of_list = |term: &Term| term.place.list == name && (is_whole || all || term.is_mentioned);
            let mut terms: Vec<Term> = self.own.glossary.terms.values().filter(|term| of_list(term)).cloned().collect();
            if is_whole {
                terms.sort_by_key(|term| term.place.number);
            } else {
                terms.sort_by_cached_key(|term| (self.sort_key(term), term.place.number));
            }
            if terms.is_empty() {
                self.doc.detach(node);
                self.doc.detach(heading);
            }
            for term in terms {
                let named = self.doc.append_at(node, Kind::Term, self.at);
                let description = self.doc.append_at(node, Kind::TermDescription, self.at);
                let words = self.description_of(&term);
                self.read_at_end(named, super::terms::name_of(&term, self.at));
                self.read_at_end(description, words);
            }
        }
    }

    /// Reads tokens when all others are read.
    fn read_at_end(&mut self, holder: NodeId, words: Vec<Token>) {
        if !self.macros.make(words.len(), self.at) {
            return;
        }
        self.input.at = self.input.source.len();
        self.read_into(holder, true, words);
        while let Some(token) = self.input.next() {
            self.step(token);
        }
    }

    /// Terms are sorted by what their documents say, or by their names; those that belong to another stand behind that.
    fn sort_key(&self, term: &Term) -> String {
        /// More tokens of a name do not count.
        const LONGEST: usize = 100;
        let own = |term: &Term| {
            let words = term.place.sort.as_deref().or(term.name.as_deref()).or(term.short.as_deref()).unwrap_or_default();
            let mut key = String::new();
            self.input.write(&words[..words.len().min(LONGEST)], &mut key);
            key.retain(|c| !matches!(c, '{' | '}' | '$' | '\\'));
            key.to_lowercase()
        };
        let parent = self.own.glossary.terms.get(&term.place.parent);
        parent.map(|parent| own(parent) + "\0").unwrap_or_default() + &own(term)
    }

    /// What a list says of a term, with the terms that it leads to.
    fn description_of(&mut self, term: &Term) -> Vec<Token> {
        let words = term.description.as_deref().or(term.long.as_deref()).unwrap_or_default();
        let mut words = words.to_vec();
        let see: Vec<&Term> = term.place.see.iter().filter_map(|key| self.own.glossary.terms.get(key)).collect();
        if see.is_empty() {
            return words;
        }
        let is_empty = words.is_empty();
        let at = self.at;
        let char = |c: char| Token { kind: if c == ' ' { Sign::Space } else { Sign::Char(c) }, at };
        words.extend(if is_empty { "" } else { " (" }.chars().map(char));
        words.extend([Token { kind: Sign::Command("emph".into()), at }, Token { kind: Sign::Begin, at }]);
        let language = self.front.language.as_deref().and_then(|language| language.get(..2)).unwrap_or_default();
        words.extend(word_for_see(language, term.place.also).chars().map(char));
        words.push(Token { kind: Sign::End, at });
        for (number, other) in see.into_iter().enumerate() {
            let name = super::terms::name_of(other, at);
            if !self.macros.make(name.len(), at) {
                break;
            }
            words.extend(if number > 0 { ", " } else { " " }.chars().map(char));
            words.extend(name);
        }
        words.extend(if is_empty { "" } else { ")" }.chars().map(char));
        words
    }
}

/// What an acronym is short for, without what its list says beside that: `\acroextra{…}`.
fn without_extra(words: Words) -> Words {
    let Some(extra) = words.iter().position(|token| token.kind.command() == Some("acroextra")) else { return words };
    let mut kept = words[..extra].to_vec();
    while kept.last().is_some_and(|token| token.kind == Sign::Space) {
        kept.pop();
    }
    let mut depth = 0_usize;
    let mut rest = words[extra + 1..].iter().skip_while(|token| {
        match token.kind {
            Sign::Begin => depth += 1,
            Sign::End => depth = depth.saturating_sub(1),
            _ => {}
        }
        depth > 0 || token.kind == Sign::Space
    });
    // The brace that ends it.
    rest.next();
    kept.extend(rest.cloned());
    kept.into()
}

/// What packages for languages call a list.
fn usual_title(list: &str, language: &str) -> &'static str {
    let names = match language {
        "de" => ["Glossar", "Akronyme", "Abkürzungen", "Symbole", "Symbolverzeichnis"],
        "es" => ["Glosario", "Siglas", "Abreviaturas", "Símbolos", "Nomenclatura"],
        "fr" => ["Glossaire", "Acronymes", "Abréviations", "Symboles", "Nomenclature"],
        "it" => ["Glossario", "Acronimi", "Abbreviazioni", "Simboli", "Nomenclatura"],
        "nl" => ["Woordenlijst", "Acroniemen", "Afkortingen", "Symbolen", "Symbolen"],
        "pt" => ["Glossário", "Siglas", "Abreviaturas", "Símbolos", "Nomenclatura"],
        _ => ["Glossary", "Acronyms", "Abbreviations", "Symbols", "Nomenclature"],
    };
    let of = [MAIN, ACRONYMS, ABBREVIATIONS, SYMBOLS, NOMENCLATURE].iter().position(|known| *known == list);
    names[of.unwrap_or(0)]
}

fn word_for_see(language: &str, also: bool) -> &'static str {
    match (language, also) {
        ("de", false) => "siehe",
        ("de", true) => "siehe auch",
        ("es", false) => "véase",
        ("es", true) => "véase también",
        ("fr", false) => "voir",
        ("fr", true) => "voir aussi",
        ("it", false) => "vedi",
        ("it", true) => "vedi anche",
        ("nl", false) => "zie",
        ("nl", true) => "zie ook",
        (_, false) => "see",
        (_, true) => "see also",
    }
}
