//! An entry: its fields, and what it is called where it is cited.

use super::names::{Joining, Name, Names, folded, plain};
use super::words::Words;
use crate::document::{BibliographyStyle, EntryOrder};
use crate::fast_hash::HashMap;

/// An entry of a file. Its fields are LaTeX.
#[derive(Clone, Debug, Default)]
pub(crate) struct Entry {
    pub(crate) key: String,
    pub(super) kind: String,
    pub(super) fields: HashMap<String, String>,
}

/// A day, or a part of one, as an entry has it.
#[derive(Clone, Debug, Default, PartialEq, Eq)]
pub(super) struct Day {
    pub(super) year: String,
    /// The number of the month.
    pub(super) month: Option<usize>,
    pub(super) day: String,
}

impl Entry {
    /// The first of some fields that there is.
    pub(super) fn field(&self, names: &[&str]) -> Option<&str> {
        names.iter().find_map(|name| self.fields.get(*name).map(|text| text.trim()).filter(|text| !text.is_empty()))
    }

    pub(super) fn authors(&self) -> Names {
        self.field(&["author"]).map(Names::of).unwrap_or_default()
    }

    pub(super) fn editors(&self) -> Names {
        self.field(&["editor"]).map(Names::of).unwrap_or_default()
    }

    /// The names of those who wrote it, or who published it.
    fn names(&self) -> Names {
        let names = self.authors();
        if names.all.is_empty() { self.editors() } else { names }
    }

    /// Title and subtitle, with what stands between.
    pub(super) fn title(&self, between: &str) -> Option<String> {
        joined(self.field(&["title"]), self.field(&["subtitle"]), between)
    }

    /// The title of the whole that it is a part of.
    pub(super) fn title_of_whole(&self, between: &str) -> Option<String> {
        joined(self.field(&["booktitle", "maintitle"]), self.field(&["booksubtitle"]), between)
    }

    pub(super) fn journal(&self) -> Option<&str> {
        self.field(&["journaltitle", "journal"])
    }

    pub(super) fn date(&self) -> Day {
        if let Some(date) = self.field(&["date"]) {
            let mut parts = date.split('/').next().unwrap_or_default().splitn(3, '-');
            let year = parts.next().unwrap_or_default().to_owned();
            let month = parts.next().and_then(|month| month.parse().ok()).filter(|month| (1..=12).contains(month));
            let day = parts.next().unwrap_or_default().trim_start_matches('0').to_owned();
            return Day { year, month, day };
        }
        let month = self.field(&["month"]).and_then(number_of_month);
        Day { year: self.field(&["year"]).unwrap_or_default().to_owned(), month, day: String::new() }
    }

    pub(crate) fn year(&self) -> String {
        self.date().year
    }

    /// What entries are sorted by; the place where they are cited first comes into it where the style says so.
    pub(super) fn sort_key(&self, style: BibliographyStyle, cited: usize) -> (String, String, String, usize) {
        let names: Vec<String> = self
            .names()
            .all
            .iter()
            .map(|name| {
                let family = if style.entries.is_quoted() { name.family.clone() } else { name.whole_family() };
                // What is short comes first: a space is before all letters.
                format!("{}  {}", folded(&family), folded(&name.given))
            })
            .collect();
        let names = if names.is_empty() { folded(self.called_without_names()) } else { names.join("   ") };
        let title = folded(self.field(&["sorttitle", "title"]).unwrap_or(&self.key));
        let title = ["a ", "an ", "the "].iter().find_map(|article| title.strip_prefix(article)).unwrap_or(&title).to_owned();
        let year = folded(&self.year());
        match style.order {
            EntryOrder::Cited => (String::new(), String::new(), String::new(), cited),
            EntryOrder::NameYearTitle => (names, year, title, 0),
            EntryOrder::NameTitleYear => (names, title, year, 0),
            EntryOrder::NameYearCited => (names, year, String::new(), cited),
            EntryOrder::Label => (folded(&self.letters(style)), format!("{names}{year}"), title, 0),
            EntryOrder::YearNameTitle => (year, names, title, 0),
            EntryOrder::LastYearFirst => {
                let turned = year.chars().map(|c| c.to_digit(10).map_or(c, |digit| char::from(b'9' - digit as u8)));
                (turned.collect(), names, title, 0)
            }
        }
    }

    /// Letters of the names and the year: `Bra87`.
    pub(super) fn letters(&self, style: BibliographyStyle) -> String {
        if let Some(label) = self.field(&["shorthand"]) {
            return label.to_owned();
        }
        let is_quoted = style.entries.is_quoted();
        let names = self.names();
        let letters_of = |name: &Name, count: usize| {
            let small: String = if is_quoted {
                String::new()
            } else {
                name.prefix.split_whitespace().filter_map(|word| word.chars().next()).collect()
            };
            let words = plain(&name.family);
            let count = if small.is_empty() { count } else { 1 };
            small + &words.chars().filter(|c| c.is_alphanumeric()).take(count).collect::<String>()
        };
        // Up to so many names give one letter each.
        let most = if is_quoted { 3 } else { 4 };
        let mut letters = match &names.all[..] {
            [] => plain(self.called_without_names()).chars().filter(|c| c.is_alphanumeric()).take(3).collect(),
            [only] => letters_of(only, 3),
            [first, ..] if is_quoted && names.all.len() > most => letters_of(first, 3),
            all => all.iter().take(if all.len() > most { 3 } else { most }).map(|name| letters_of(name, 1)).collect::<String>(),
        };
        if names.all.len() > most || names.has_others {
            letters.push('+');
        }
        letters.extend(self.year().chars().filter(char::is_ascii_digit).skip(2).take(2));
        letters
    }

    fn called_without_names(&self) -> &str {
        self.field(&["label", "organization", "institution", "shorttitle", "title"]).unwrap_or(&self.key)
    }

    /// The names as a citation has them: no more than some.
    pub(crate) fn short_names(&self, style: BibliographyStyle, words: &Words) -> String {
        self.names_up_to(usize::from(style.most_cited.unwrap_or(2)), style, words)
    }

    /// All of the names as a citation has them.
    pub(crate) fn all_names(&self, style: BibliographyStyle, words: &Words) -> String {
        self.names_up_to(usize::MAX, style, words)
    }

    fn names_up_to(&self, most: usize, style: BibliographyStyle, words: &Words) -> String {
        let words = Joining { and: words.and, others: words.others, comma: words.comma_before_and, comma_of_two: false };
        let shown = self
            .names()
            .joined(most, words, |name| if style.entries.is_quoted() { name.family.clone() } else { name.whole_family() });
        if shown.is_empty() { self.called_without_names().to_owned() } else { shown }
    }
}

fn joined(first: Option<&str>, second: Option<&str>, between: &str) -> Option<String> {
    match (first, second) {
        (Some(first), Some(second)) => Some(format!("{first}{between}{second}")),
        (first, second) => first.or(second).map(str::to_owned),
    }
}

/// The names of the months, as files of entries know them.
pub(super) const MONTHS: [&str; 12] =
    ["January", "February", "March", "April", "May", "June", "July", "August", "September", "October", "November", "December"];

fn number_of_month(text: &str) -> Option<usize> {
    let begin = text.get(..3)?;
    MONTHS
        .iter()
        .position(|month| month[..3].eq_ignore_ascii_case(begin))
        .map(|at| at + 1)
        .or_else(|| text.parse().ok().filter(|number| (1..=12).contains(number)))
}
