//! Citations, and the list of what is cited (the LaTeX documentation, "thebibliography"; of natbib and biblatex).

use super::Reader;
use super::references::ShowsOfEntry;
use super::tokens::{Kind as Sign, Token};
use crate::document::{Kind, ListKind, Marker, Text};

/// A note to a citation has no more tokens.
const LONGEST_NOTE: usize = 200;

/// What a command of a citation prints.
#[derive(Clone, Copy, Debug, PartialEq, Eq)]
enum Form {
    LabelInBrackets,
    Label,
    /// Names, and the year in brackets.
    InText,
    Names,
    Year,
    YearInBrackets,
}

impl Form {
    fn of(command: &str) -> Self {
        match command {
            "citet" | "Citet" | "textcite" | "Textcite" => Self::InText,
            "citeauthor" | "Citeauthor" => Self::Names,
            "citeyear" => Self::Year,
            "citeyearpar" => Self::YearInBrackets,
            "citealp" | "citealt" | "Citealp" | "Citealt" | "citenum" | "citen" => Self::Label,
            _ => Self::LabelInBrackets,
        }
    }

    const fn opens(self) -> bool {
        matches!(self, Self::LabelInBrackets | Self::YearInBrackets)
    }

    const fn closes(self) -> bool {
        matches!(self, Self::LabelInBrackets | Self::YearInBrackets | Self::InText)
    }
}

/// How citations by names and years are set (the documentation of natbib, "Selecting citation punctuation"; of biblatex).
#[derive(Clone, Copy, Debug)]
pub(super) struct CitationMarks {
    open: char,
    close: char,
    /// Whether a comma stands between names and year.
    pub(super) comma: bool,
    /// What the plain command prints.
    plain: Form,
    /// Whether entries are counted, though their labels have names and years.
    numbers: bool,
}

impl Default for CitationMarks {
    fn default() -> Self {
        Self { open: '[', close: ']', comma: false, plain: Form::LabelInBrackets, numbers: false }
    }
}

impl Reader<'_> {
    /// Packages for citations say how these are set, where they are by names and years.
    pub(super) fn citation_package(&mut self, package: &str, options: &str) {
        let has = |name: &str| options.split([',', '{', '}', ' ']).any(|option| option.trim() == name);
        let source = self.input.source;
        // The first one is the one that is loaded.
        if self.references.marks.is_some() {
            return;
        }
        let numbers = package == "natbib" && (has("numbers") || has("super"));
        self.references.marks = Some(CitationMarks { numbers, ..CitationMarks::default() });
        match package {
            "natbib" if !has("numbers") && !has("super") => {
                let by_style = || super::citations::style_of(source) == Ok(crate::document::CitationStyle::AuthorYear);
                let is_year = |rest: &str| {
                    rest.split(']').next().is_some_and(|label| label.contains('(') || label.contains("citeauthoryear"))
                };
                let by_label = || source.split("\\bibitem[").skip(1).take(3).any(is_year);
                if by_style() || by_label() {
                    let (open, close) = if has("square") { ('[', ']') } else { ('(', ')') };
                    self.references.marks = Some(CitationMarks { open, close, comma: true, plain: Form::InText, numbers: false });
                }
            }
            "biblatex" if ["authoryear", "apa"].iter().any(|style| options.contains(style)) => {
                self.references.marks =
                    Some(CitationMarks { open: '(', close: ')', comma: false, plain: Form::Label, numbers: false });
            }
            _ => {}
        }
    }

    /// `\setcitestyle{square,aysep={}}`, and the older `\bibpunct`.
    pub(super) fn citation_style(&mut self, name: &str) {
        if name == "bibpunct" {
            self.input.option();
            let arguments: Vec<String> = (0..6)
                .map(|_| {
                    let argument = self.input.argument();
                    self.input.characters(&argument)
                })
                .collect();
            if let (Some(open), Some(close)) = (arguments[0].chars().next(), arguments[1].chars().next())
                && let Some(marks) = self.references.marks.as_mut().filter(|marks| marks.plain == Form::InText)
            {
                (marks.open, marks.close, marks.comma) = (open, close, !arguments[4].is_empty());
            }
            return;
        }
        let options = self.input.argument();
        let mut text = String::new();
        self.input.write(&options, &mut text);
        let marks = self.references.marks.get_or_insert_default();
        for option in text.split(',').map(str::trim) {
            match option {
                "square" => (marks.open, marks.close) = ('[', ']'),
                "round" if marks.plain == Form::InText => (marks.open, marks.close) = ('(', ')'),
                "numbers" | "super" => *marks = CitationMarks { numbers: true, ..CitationMarks::default() },
                "aysep={}" => marks.comma = false,
                _ => {}
            }
        }
    }

    /// `\citetext{see there}`
    pub(super) fn text_as_citation(&mut self) {
        let marks = self.references.marks.unwrap_or_default();
        self.text(marks.open.encode_utf8(&mut [0; 4]));
        let words = self.input.argument();
        self.input.push(Sign::Char(marks.close), self.at);
        self.input.push_all(words.into_iter());
    }

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
        let marks = self.references.marks.unwrap_or_default();
        let form = if command == "cite" { marks.plain } else { Form::of(command) };
        if form.opens() {
            self.text(marks.open.encode_utf8(&mut [0; 4]));
        }
        let mut rest: Vec<Token> = Vec::new();
        if let Some(before) = before.filter(|before| !before.is_empty()) {
            let words = self.words(&before);
            self.text(&format!("{words} "));
        }
        let keys: Vec<&str> = keys.split(',').map(str::trim).filter(|key| !key.is_empty()).take(200).collect();
        for (number, key) in keys.iter().enumerate() {
            if number > 0 {
                if form == Form::InText {
                    self.text(&format!("{}, ", marks.close));
                } else {
                    let node = self.inline(Kind::Span);
                    self.doc.set_end(node, self.at);
                    self.references.cite(node, key, ShowsOfEntry::Between);
                }
            }
            match form {
                Form::InText => {
                    self.names_of_entry(key, " ");
                    self.text(marks.open.encode_utf8(&mut [0; 4]));
                    self.link_to_entry(key, ShowsOfEntry::Year);
                }
                Form::Names => self.names_of_entry(key, ""),
                Form::Year | Form::YearInBrackets => self.link_to_entry(key, ShowsOfEntry::Year),
                Form::Label | Form::LabelInBrackets => self.link_to_entry(key, ShowsOfEntry::Label),
            }
        }
        let at = self.at;
        let close = form.closes().then_some(Token { kind: Sign::Char(marks.close), at });
        if let Some(behind) = behind.as_ref().filter(|behind| behind.len() > LONGEST_NOTE) {
            // So long a one is no note; commands in it are not read a second time.
            let words = self.words(behind);
            rest.extend(close);
            self.input.push_all(rest.into_iter());
            return self.text(&format!(", {words}"));
        }
        if let Some(behind) = behind.filter(|behind| !behind.is_empty()) {
            rest.push(Token { kind: Sign::Char(','), at });
            rest.push(Token { kind: Sign::Space, at });
            rest.extend(behind);
        }
        rest.extend(close);
        self.input.push_all(rest.into_iter());
    }

    fn link_to_entry(&mut self, key: &str, shows: ShowsOfEntry) {
        let node = self.inline(Kind::Link { href: Text::EMPTY });
        self.doc.set_end(node, self.at);
        self.references.cite(node, key, shows);
    }

    /// The names of an entry as a link, with what stands between them and the rest.
    fn names_of_entry(&mut self, key: &str, between: &str) {
        let span = self.inline(Kind::Span);
        let at = self.at;
        let link = self.doc.append_at(span, Kind::Link { href: Text::EMPTY }, at);
        self.doc.set_end(link, at);
        self.doc.set_end(span, at);
        if !between.is_empty() {
            let text = self.doc.intern(between);
            self.doc.append_at(span, Kind::Text(text), at);
        }
        self.references.cite(link, key, ShowsOfEntry::Names);
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
        let own = if is_book { "bibname" } else { "refname" };
        let own = if self.macros.knows(own) {
            self.words(&[Token { kind: Sign::Command(own.into()), at: self.at }])
        } else {
            String::new()
        };
        let words = if own.is_empty() { heading_words(&language, is_book) } else { &own };
        let words = self.doc.intern(words);
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
        let (mut shown, mut names) = (None, String::new());
        let label = label.map_or(number, |label| {
            // Styles of other packages name the parts.
            let parts = label.iter().position(|token| token.kind.command() == Some("citeauthoryear"));
            if let Some(at) = parts {
                let groups = groups(&label[at + 1..]);
                if let [first, .., last] = &groups[..] {
                    let (author, year) = (self.words(first), self.words(last));
                    author.trim().clone_into(&mut names);
                    return format!("{names} {}", year.trim());
                }
            }
            let words = self.words(&label);
            if !words.contains('(') && !words.is_empty() {
                shown = Some(words.clone());
            }
            // Author and year, as a package for these has them.
            words.split_once('(').map_or(words.clone(), |(author, rest)| {
                author.trim().clone_into(&mut names);
                format!("{names} {}", rest.split(')').next().unwrap_or_default())
            })
        });
        let label = if self.references.marks.is_some_and(|marks| marks.numbers) {
            shown = None;
            self.counters.get("bibitem").to_string()
        } else {
            label
        };
        let id = self.doc.intern(&id_of_entry(&key));
        self.doc.attributes_mut(list).id = Some(id);
        let has_number = label.bytes().all(|byte| byte.is_ascii_digit());
        if shown.is_some() || !has_number {
            // A label that is no number stands before the entry, or is said by its words.
            if let Some(holder) = self.doc.node(list).parent()
                && let Kind::List(kind) = self.doc.kind(holder)
            {
                self.doc.set_kind(holder, Kind::List(ListKind { ordered: false, ..kind }));
            }
        }
        if let Some(words) = shown {
            self.text(&format!("[{words}] "));
        }
        self.references.name_entry(list, key, label, names);
    }

    /// Where a bibliography of another program would stand.
    pub(super) fn no_bibliography(&mut self) {
        self.input.option();
        if !self.input.made.is_empty() || self.input.source[self.input.at..].starts_with('{') {
            self.input.argument();
        }
    }
}

/// The groups that tokens are.
fn groups(tokens: &[Token]) -> Vec<&[Token]> {
    let (mut found, mut depth, mut start) = (Vec::new(), 0_usize, 0);
    for (at, token) in tokens.iter().enumerate() {
        match token.kind {
            Sign::Begin => {
                if depth == 0 {
                    start = at + 1;
                }
                depth += 1;
            }
            Sign::End => {
                depth = depth.saturating_sub(1);
                if depth == 0 {
                    found.push(&tokens[start.min(at)..at]);
                }
            }
            _ => {}
        }
    }
    found
}

/// The id of an entry of a bibliography.
pub(crate) fn id_of_entry(key: &str) -> String {
    format!("bib-{}", super::references::id_of(key))
}

/// The words of the heading above a bibliography, in a language.
pub(crate) fn heading_of_entries(language: &str) -> &'static str {
    heading_words(language, false)
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
