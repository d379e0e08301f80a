//! An entry: its names, what it is called where it is cited, and what is printed of it.

use crate::fast_hash::HashMap;
use std::fmt::Write;

/// What stands for names that are not given.
const OTHERS: &str = "et al.";

/// An entry of a file. Its fields are LaTeX.
#[derive(Debug, Default)]
pub(crate) struct Entry {
    pub(crate) key: String,
    pub(super) kind: String,
    pub(super) fields: HashMap<String, String>,
}

impl Entry {
    fn field(&self, names: &[&str]) -> Option<&str> {
        names.iter().find_map(|name| self.fields.get(*name)).map(String::as_str).filter(|text| !text.trim().is_empty())
    }

    /// The names of those who wrote it, or who published it: family and given names.
    fn names(&self) -> Vec<(String, String)> {
        self.field(&["author", "editor"]).map(names).unwrap_or_default()
    }

    pub(crate) fn year(&self) -> &str {
        let year = self.field(&["year", "date"]).unwrap_or_default();
        year.get(..4).filter(|_| year.len() > 4 && year.as_bytes()[4] == b'-').unwrap_or(year)
    }

    pub(super) fn sort_key(&self) -> String {
        let names: Vec<String> =
            self.names().iter().map(|(family, given)| format!("{} {}", plain(family), plain(given))).collect();
        format!("{} {} {}", names.join(" "), self.year(), plain(self.field(&["title"]).unwrap_or(&self.key))).to_lowercase()
    }

    /// Letters of the names and the year: `Bra87`.
    pub(super) fn letters(&self) -> String {
        let names = self.names();
        let has_others = names.last().is_some_and(|(family, _)| family == OTHERS);
        let families: Vec<String> =
            names.iter().filter(|(family, _)| family != OTHERS).map(|(family, _)| plain(family)).collect();
        let mut letters: String = match &families[..] {
            [] => plain(&self.key).chars().take(3).collect(),
            [only] => only.chars().take(3).collect(),
            more => more.iter().take(3).filter_map(|family| family.chars().next()).collect(),
        };
        if families.len() > 4 || has_others {
            letters.push('+');
        }
        letters.extend(self.year().chars().rev().take(2).collect::<Vec<_>>().into_iter().rev());
        letters
    }

    pub(crate) fn short_names(&self) -> String {
        let names = self.names();
        match &names[..] {
            [] => self.key.clone(),
            [(one, _)] => one.clone(),
            [(one, _), (other, _)] => format!("{one} and {other}"),
            [(one, _), ..] => format!("{one} et al."),
        }
    }

    /// What is printed of it.
    pub(super) fn text(&self) -> String {
        let mut parts: Vec<String> = Vec::new();
        let names: Vec<String> = self.names().into_iter().map(|(family, given)| initials(&given) + &family).collect();
        if let Some((last, others)) = names.split_last() {
            let and = if last == OTHERS { "" } else { "and " };
            parts.push(if others.is_empty() { last.clone() } else { format!("{} {and}{last}", others.join(", ")) });
        }
        let title = self.field(&["title"]).map(str::to_owned);
        let is_part = self.field(&["journal", "journaltitle", "booktitle"]).is_some();
        parts.extend(title.map(|title| if is_part { title } else { format!("\\emph{{{title}}}") }));
        let mut place: Vec<String> = Vec::new();
        if let Some(journal) = self.field(&["journal", "journaltitle"]) {
            let mut text = format!("\\emph{{{journal}}}");
            if let Some(volume) = self.field(&["volume"]) {
                let _ = write!(text, " \\textbf{{{volume}}}");
            }
            if let Some(number) = self.field(&["number", "issue"]) {
                let _ = write!(text, "({number})");
            }
            place.push(text);
        } else if let Some(book) = self.field(&["booktitle"]) {
            place.push(format!("In \\emph{{{book}}}"));
        }
        let thesis = match self.kind.as_str() {
            "phdthesis" => Some("PhD thesis"),
            "mastersthesis" => Some("Master's thesis"),
            "techreport" | "report" => Some("Technical report"),
            _ => None,
        };
        place.extend(self.field(&["type"]).or(thesis).map(str::to_owned));
        for names in [
            &["edition"][..],
            &["publisher"],
            &["school", "institution", "organization"],
            &["address", "location"],
            &["howpublished"],
        ] {
            place.extend(self.field(names).map(str::to_owned));
        }
        place.extend(self.field(&["pages"]).map(|pages| format!("pages {}", pages.replace("--", "-").replace('-', "--"))));
        place.extend(Some(self.year().to_owned()).filter(|year| !year.is_empty()));
        parts.extend(Some(place.join(", ")).filter(|place| !place.is_empty()));
        parts.extend(self.field(&["note"]).map(str::to_owned));
        let mut text = parts.iter().map(|part| part.trim_end_matches('.')).collect::<Vec<_>>().join(". ");
        text.push('.');
        if let Some(doi) = self.field(&["doi"]) {
            let _ = write!(text, " \\doi{{{}}}", doi.trim_start_matches("https://doi.org/"));
        } else if let Some(url) = self.field(&["url"]) {
            let _ = write!(text, " \\url{{{url}}}");
        }
        text
    }
}

/// Names that are joined with "and": family and given names of each.
fn names(text: &str) -> Vec<(String, String)> {
    let mut found = Vec::new();
    for name in split_words(text, "and").into_iter().take(50) {
        let name = name.trim();
        if name == "others" {
            found.push((OTHERS.to_owned(), String::new()));
        } else if let Some((family, given)) = split_at_comma(name) {
            found.push((family.trim().to_owned(), given.trim().to_owned()));
        } else {
            let words = split_words(name, "");
            let (family, given) = words.split_last().map_or((name, &[][..]), |(family, given)| (*family, given));
            found.push((family.to_owned(), given.join(" ")));
        }
    }
    found.retain(|(family, _)| !family.is_empty());
    found
}

/// A text in pieces between the word, or between spaces where there is no word; what stands in braces is one.
fn split_words<'t>(text: &'t str, word: &str) -> Vec<&'t str> {
    let (mut found, mut depth, mut start) = (Vec::new(), 0_i32, 0);
    let bytes = text.as_bytes();
    let mut at = 0;
    while at < bytes.len() {
        match bytes[at] {
            b'{' => depth += 1,
            b'}' => depth -= 1,
            byte if depth == 0 && byte.is_ascii_whitespace() => {
                let behind = text[at..].trim_start();
                let next = text.len() - behind.len();
                let ends = word.is_empty() || behind.strip_prefix(word).is_some_and(|rest| rest.starts_with(char::is_whitespace));
                if ends {
                    found.push(&text[start..at]);
                    start = next + word.len();
                    at = start;
                    continue;
                }
            }
            _ => {}
        }
        at += 1;
    }
    found.push(&text[start.min(text.len())..]);
    found.retain(|piece| !piece.trim().is_empty());
    found
}

fn split_at_comma(name: &str) -> Option<(&str, &str)> {
    let mut depth = 0_i32;
    let at = name.bytes().position(|byte| {
        depth += i32::from(byte == b'{') - i32::from(byte == b'}');
        byte == b',' && depth == 0
    })?;
    Some((&name[..at], &name[at + 1..]))
}

/// Given names by their first letters, each with a full stop and a space that does not break.
fn initials(given: &str) -> String {
    let mut out = String::new();
    for name in split_words(given, "") {
        let first = if name.starts_with(['\\', '{']) { name } else { &name[..name.chars().next().map_or(0, char::len_utf8)] };
        let _ = write!(out, "{first}.~");
    }
    out
}

/// The letters of a text without its commands.
fn plain(text: &str) -> String {
    let mut out = String::new();
    let mut letters = text.chars().peekable();
    while let Some(c) = letters.next() {
        if c == '\\' {
            // An accent is a sign; a longer name is a command.
            if letters.next_if(|c| !c.is_alphabetic()).is_none() {
                while letters.next_if(|c| c.is_alphabetic()).is_some() {}
            }
        } else if c.is_alphanumeric() || c == ' ' {
            out.push(c);
        }
    }
    out.trim().to_owned()
}
