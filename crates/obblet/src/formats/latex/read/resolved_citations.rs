//! What citations show, now that all entries are known.

use super::Reader;
use super::bibliography::id_of_entry;
use super::citation_marks::{CalledBy, Package};
use super::citations::{Asked, Called, Cited, ENTRY, Form, Group, Printed};
use crate::citations::Listed;
use crate::document::{CitationStyle, Document, Kind, NodeId, Text};
use crate::fast_hash::{HashMap, HashSet};
use std::rc::Rc;

/// What citations show is together no longer; then keys stand for entries.
const MOST_SHOWN: usize = 1 << 22;

/// What is shown at a place.
enum Piece {
    Text(String),
    /// Words that lead to the entry of a key, where it is printed.
    Link(String, String),
    /// The same above the line.
    Raised(String, String),
    /// LaTeX, which has been read, and leads to that entry as a whole or not at all.
    Read(Box<Document>, Option<String>),
}

/// An entry that a citation names.
#[derive(Clone, Debug, Default)]
struct Entry {
    key: String,
    called: Rc<Called>,
    /// Whether it is called by names and year.
    by_names: bool,
    /// Where it stands in the list.
    place: usize,
    is_known: bool,
}

/// Makes the pieces of citations.
struct Shown<'r> {
    pieces: Vec<Piece>,
    marks: &'r super::citation_marks::CitationMarks,
    /// What stands between names with their years.
    between_names: &'static str,
    /// How much may be shown by now.
    room: usize,
}

impl Reader<'_> {
    /// Citations lead to their entries, and show what these are called.
    pub(super) fn resolve_citations(&mut self) {
        self.lead_to_entries();
        let groups = std::mem::take(&mut self.references.citations.groups);
        if groups.is_empty() {
            return;
        }
        let mut holders = Vec::new();
        let mut seen = HashSet::default();
        let mut plain = HashMap::default();
        let mut room = MOST_SHOWN;
        let mut marks = self.references.citations.marks;
        let mut between_names = marks.between;
        match (marks.package != Package::None, self.references.citations.listed.is_empty()) {
            (true, _) => {}
            // What styles give as labels has a comma.
            (false, false) => marks.before_year = ", ",
            (false, true) => between_names = "; ",
        }
        for group in groups {
            let place = self.doc.node(group.span).offset();
            holders.extend(self.doc.node(group.span).parent());
            let mut shown = Shown { pieces: Vec::new(), marks: &marks, between_names, room };
            let cited: Vec<(&Cited, Vec<Entry>)> = group
                .cited
                .iter()
                .map(|cited| (cited, cited.keys.iter().map(|key| self.entry_of(key, place, &mut plain)).collect()))
                .collect();
            self.pieces_of(&mut shown, &group, &cited, &mut seen);
            room = shown.room;
            let pieces = shown.pieces;
            let mut holder = group.span;
            if group.asked.form == Form::Superscript {
                holder = self.doc.append_at(group.span, Kind::Superscript, place);
            }
            self.put(holder, pieces, place);
            self.doc.unwrap(group.span);
        }
        self.doc.join_texts_in(holders);
    }

    /// Links by the names that a package gives entries lead to them.
    fn lead_to_entries(&mut self) {
        if !self.references.citations.leads_to_entries {
            return;
        }
        let links: Vec<(NodeId, Text)> = self
            .doc
            .nodes()
            .filter_map(|(id, node)| if let Kind::Link { href } = node.kind() { Some((id, href)) } else { None })
            .collect();
        for (node, href) in links {
            let key = self.doc.text(href).strip_prefix('#').and_then(|target| target.strip_prefix(ENTRY));
            if let Some(entry) = key.and_then(|key| self.references.citations.printed.get(key)).map(|printed| printed.node) {
                let id = self.id_for(entry, "");
                let href = self.doc.intern(&format!("#{id}"));
                self.doc.set_kind(node, Kind::Link { href });
            }
        }
    }

    /// What is known of an entry; what all entries are called is put together once.
    fn entry_of(&mut self, key: &str, place: u32, known: &mut HashMap<String, Rc<Called>>) -> Entry {
        let printed = self.references.citations.printed.get(key);
        let listed = self.references.citations.listed.get(key);
        if printed.is_none() && listed.is_none() {
            self.tallies.citations.add_apart(place, key);
            let called = Rc::new(Called { label: key.to_owned(), ..Called::default() });
            return Entry { key: key.to_owned(), called, ..Entry::default() };
        }
        let called = match known.get(key) {
            Some(called) => Rc::clone(called),
            None => {
                let called = Rc::new(called_of(printed, listed));
                known.insert(key.to_owned(), Rc::clone(&called));
                called
            }
        };
        let by_names = match (listed, self.references.citations.marks.numbers) {
            (_, true) => false,
            (None, _) => !called.names.is_empty(),
            _ => matches!(self.references.citations.labels, CitationStyle::AuthorYear | CitationStyle::AuthorTitle),
        };
        let place = printed.map(|printed| printed.place + 1).or(listed.map(|(number, _)| *number)).unwrap_or_default();
        Entry { key: key.to_owned(), called, by_names, place, is_known: true }
    }

    fn pieces_of(&mut self, shown: &mut Shown<'_>, group: &Group, cited: &[(&Cited, Vec<Entry>)], seen: &mut HashSet<String>) {
        let Group { asked, .. } = group;
        let marks = *shown.marks;
        let opens = matches!(asked.form, Form::Brackets | Form::YearInBrackets);
        if opens {
            shown.text(marks.open);
        }
        let count: usize = cited.iter().map(|(_, entries)| entries.len()).sum();
        let mut number = 0;
        for (cited, entries) in cited {
            if number > 0 {
                shown.text(&between(*asked, &marks, number, count, entries));
            }
            if asked.form != Form::InText && !cited.before.is_empty() {
                shown.text(&format!("{} ", cited.before));
            }
            let by_title =
                marks.called_by != CalledBy::Label && matches!(asked.form, Form::Label | Form::Brackets | Form::InText);
            match asked.form {
                Form::Title | Form::Whole => {
                    for (at, entry) in entries.iter().enumerate() {
                        shown.text(if at > 0 { "; " } else { "" });
                        self.part_of_entry(shown, entry, asked.form == Form::Whole);
                    }
                }
                _ if by_title => {
                    for (at, entry) in entries.iter().enumerate() {
                        shown.text(if at > 0 { "; " } else { "" });
                        if !entry.is_known {
                            shown.text(if asked.form == Form::InText { marks.open } else { "" });
                            shown.text(&entry.called.label);
                            continue;
                        }
                        if marks.called_by == CalledBy::Whole && asked.form != Form::InText && seen.insert(entry.key.clone()) {
                            self.part_of_entry(shown, entry, true);
                            continue;
                        }
                        shown.link(&entry.called.names, entry);
                        shown.text(if asked.form == Form::InText { " (" } else { ", " });
                        self.part_of_entry(shown, entry, false);
                        if asked.form == Form::InText && at + 1 < entries.len() {
                            shown.text(marks.close);
                        }
                    }
                }
                Form::InText => shown.in_text(*asked, cited, entries, number, count),
                Form::Names => {
                    for (at, entry) in entries.iter().enumerate() {
                        shown.text(if at > 0 { marks.between } else { "" });
                        shown.link(&asked.names(entry), entry);
                    }
                }
                Form::Year | Form::YearInBrackets => {
                    for (at, entry) in entries.iter().enumerate() {
                        shown.text(if at > 0 { marks.between } else { "" });
                        let year = if entry.called.year.is_empty() { &entry.called.label } else { &entry.called.year };
                        shown.link(year, entry);
                    }
                }
                Form::Label | Form::Brackets | Form::NamesAndYear | Form::Number | Form::Superscript | Form::Note => {
                    shown.labels(*asked, entries);
                }
            }
            number += entries.len();
            if !cited.behind.is_empty() {
                shown.text(&format!("{}{}", marks.before_note, cited.behind));
            }
            if asked.form == Form::InText && number < count {
                shown.text(marks.close);
            }
        }
    }

    /// The title of an entry, or all that is printed of it.
    fn part_of_entry(&mut self, shown: &mut Shown<'_>, entry: &Entry, whole: bool) {
        let Some((_, listed)) = self.references.citations.listed.get(&entry.key) else {
            return shown.link(&entry.called.label, entry);
        };
        let source = if whole { listed.whole.trim_end_matches('.') } else { &listed.title };
        if !shown.takes(source.len()) {
            return shown.link(&entry.called.label, entry);
        }
        let read = super::read(source.as_bytes(), &super::Settings::default());
        let leads = (!whole && entry.is_known).then(|| entry.key.clone());
        shown.pieces.push(Piece::Read(Box::new(read), leads));
    }

    /// Puts pieces into a node.
    fn put(&mut self, holder: NodeId, pieces: Vec<Piece>, place: u32) {
        for piece in pieces {
            match piece {
                Piece::Text(text) => {
                    let text = self.doc.intern(&text);
                    self.doc.append_joined(holder, text, place);
                }
                Piece::Raised(words, key) => {
                    let mark = self.doc.append_at(holder, Kind::Superscript, place);
                    self.put(mark, vec![Piece::Link(words, key)], place);
                }
                Piece::Link(words, key) => {
                    let inside = self.link_to(holder, &key, place);
                    let text = self.doc.intern(&words);
                    if inside == holder {
                        self.doc.append_joined(holder, text, place);
                    } else {
                        self.doc.append_at(inside, Kind::Text(text), place);
                    }
                }
                Piece::Read(read, key) => {
                    let inside = key.map_or(holder, |key| self.link_to(holder, &key, place));
                    let Some(paragraph) = read.children(read.root()).next() else { continue };
                    for child in read.children(paragraph) {
                        self.doc.append_copy(inside, &read, child, place);
                    }
                }
            }
        }
    }

    /// A link to an entry; the holder itself, where the entry is not printed.
    fn link_to(&mut self, holder: NodeId, key: &str, place: u32) -> NodeId {
        let Some(entry) = self.references.citations.printed.get(key).map(|printed| printed.node) else { return holder };
        let id = match self.doc.attributes(entry).id {
            Some(id) => self.doc.text(id).to_owned(),
            None => id_of_entry(key),
        };
        let href = self.doc.intern(&format!("#{id}"));
        self.doc.append_at(holder, Kind::Link { href }, place)
    }
}

/// What an entry is called by the list that has it, and by the file that it is from.
fn called_of(printed: Option<&Printed>, listed: Option<&(usize, Listed)>) -> Called {
    let Some((number, listed)) = listed else { return printed.map(|printed| printed.called.clone()).unwrap_or_default() };
    let label = match printed {
        Some(printed) => printed.called.label.clone(),
        None if listed.letters.is_empty() => number.to_string(),
        None => super::readable(&listed.letters),
    };
    Called {
        label,
        names: super::readable(&listed.names),
        all_names: super::readable(&listed.all_names),
        year: super::readable(&listed.year),
        is_own: false,
    }
}

/// What stands between the citations of one command.
fn between(asked: Asked, marks: &super::citation_marks::CitationMarks, number: usize, count: usize, next: &[Entry]) -> String {
    if asked.form == Form::InText && marks.is_biblatex() {
        return match (number + next.len() >= count, number) {
            (true, 1) => " and ".to_owned(),
            (true, _) => ", and ".to_owned(),
            (false, _) => ", ".to_owned(),
        };
    }
    if marks.called_by == CalledBy::Label { marks.between.to_owned() } else { "; ".to_owned() }
}

impl Asked {
    /// The names of an entry.
    fn names(self, entry: &Entry) -> String {
        let called = &entry.called;
        let names = if self.all_names && !called.all_names.is_empty() { &called.all_names } else { &called.names };
        let names = if names.is_empty() { &called.label } else { names };
        let mut letters = names.chars();
        match letters.next().filter(|_| self.is_capital) {
            Some(first) => first.to_uppercase().chain(letters).collect(),
            None => names.clone(),
        }
    }
}

impl Shown<'_> {
    /// Whether there is room for so much.
    const fn takes(&mut self, length: usize) -> bool {
        let fits = length <= self.room;
        if fits {
            self.room -= length;
        }
        fits
    }

    fn text(&mut self, text: &str) {
        if text.is_empty() {
            return;
        }
        if let Some(Piece::Text(before)) = self.pieces.last_mut() {
            before.push_str(text);
        } else {
            self.pieces.push(Piece::Text(text.to_owned()));
        }
    }

    fn link(&mut self, words: &str, entry: &Entry) {
        let words = if self.takes(words.len()) { words } else { &entry.key };
        if entry.is_known {
            self.pieces.push(Piece::Link(words.to_owned(), entry.key.clone()));
        } else {
            self.text(words);
        }
    }

    /// Entries as the list has them, where the package sorts them.
    fn sorted(&self, entries: &[Entry]) -> Vec<Entry> {
        let mut entries = entries.to_vec();
        if self.marks.sorts {
            let number = |entry: &Entry| entry.called.label.parse::<usize>().unwrap_or(entry.place);
            entries.sort_by_key(number);
        }
        entries
    }

    fn labels(&mut self, asked: Asked, entries: &[Entry]) {
        let entries = self.sorted(entries);
        let as_number = matches!(asked.form, Form::Number | Form::Superscript);
        if entries.iter().any(|entry| entry.by_names) && !as_number {
            return self.names_and_years(asked, &entries);
        }
        let marks = *self.marks;
        let number = |entry: &Entry| {
            if entry.by_names { Some(entry.place) } else { entry.called.label.parse::<usize>().ok() }
        };
        let label = |entry: &Entry| if entry.by_names { entry.place.to_string() } else { entry.called.label.clone() };
        // Numbers without brackets are apart by a comma alone.
        let between = match asked.form {
            Form::Superscript => ",",
            _ if marks.between == "; " && entries.iter().all(|entry| number(entry).is_some()) => ", ",
            _ => marks.between,
        };
        let mut at = 0;
        while let Some(entry) = entries.get(at) {
            if at > 0 {
                self.text(between);
            }
            self.link(&label(entry), entry);
            let follows = |offset: usize| {
                let next = entries.get(at + offset).and_then(number);
                next.is_some() && next == number(entry).map(|first| first + offset)
            };
            let run = if marks.joins { (1..).take_while(|offset| follows(*offset)).count() } else { 0 };
            if run >= 2 {
                let is_apart = between.contains(']');
                self.text(if is_apart { "]–[" } else { "–" });
                let last = &entries[at + run];
                self.link(&label(last), last);
                at += run;
            }
            at += 1;
        }
    }

    /// Names and years: names that come again are not said again, where the package joins them.
    fn names_and_years(&mut self, asked: Asked, entries: &[Entry]) {
        let marks = *self.marks;
        let joins = !marks.is_biblatex() || marks.joins;
        let before_year = if asked.form == Form::NamesAndYear { " " } else { marks.before_year };
        for (at, entry) in entries.iter().enumerate() {
            let called = &entry.called;
            let before = at.checked_sub(1).map(|before| &entries[before].called);
            if let Some(before) = before.filter(|before| joins && before.names == called.names && !called.year.is_empty()) {
                self.year_behind(&before.year, entry);
                continue;
            }
            self.text(if at > 0 { self.between_names } else { "" });
            if !entry.by_names || called.year.is_empty() {
                self.link(&asked.names(entry), entry);
                continue;
            }
            let mut names = asked.names(entry);
            if marks.and == "&" {
                names = names.replace(" and ", " & ").replace(", & ", " & ");
            }
            self.link(&format!("{names}{before_year}{}", called.year), entry);
        }
    }

    /// Another year behind one of the same names: its letter alone, where the years are the same.
    fn year_behind(&mut self, before: &str, entry: &Entry) {
        let year = &entry.called.year;
        let number = |year: &str| year.trim_end_matches(|c: char| c.is_ascii_lowercase()).len();
        let (own, other) = (number(year), number(before));
        if own < year.len() && other < before.len() && year[..own] == before[..other] {
            self.text(",");
            self.link(&year[own..], entry);
        } else {
            self.text(", ");
            self.link(year, entry);
        }
    }

    /// Names with the year, or the label, in brackets behind.
    fn in_text(&mut self, asked: Asked, cited: &Cited, entries: &[Entry], number: usize, count: usize) {
        let marks = *self.marks;
        let entries = self.sorted(entries);
        let joins = !marks.is_biblatex() || marks.joins;
        for (at, entry) in entries.iter().enumerate() {
            let called = &entry.called;
            let before = at.checked_sub(1).map(|before| &entries[before]);
            if let Some(before) = before.filter(|before| joins && entry.by_names && before.called.names == called.names) {
                self.year_behind(&before.called.year, entry);
                continue;
            }
            if at > 0 {
                self.text(if marks.is_raised() { "" } else { marks.close });
                let next = std::slice::from_ref(entry);
                self.text(&between(asked, &marks, number + at, count, next));
            }
            if !called.names.is_empty() {
                let names = asked.names(entry);
                self.link(&names, entry);
            }
            if marks.is_raised() {
                if entry.is_known {
                    self.pieces.push(Piece::Raised(called.label.clone(), entry.key.clone()));
                } else {
                    self.text(&called.label);
                }
                continue;
            }
            match (called.names.is_empty(), asked.is_possessive) {
                (true, _) => {}
                (false, true) => self.text("’s "),
                (false, false) => self.text(" "),
            }
            self.text(marks.open);
            if at == 0 && !cited.before.is_empty() {
                self.text(&format!("{} ", cited.before));
            }
            self.link(if entry.by_names { &called.year } else { &called.label }, entry);
        }
        // The last bracket is closed behind the note.
    }
}
