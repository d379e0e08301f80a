//! Bibliographies in files of their own (the documentation of BibTeX and of biblatex): what is cited becomes a `thebibliography`,
//! sorted and labelled as the style says.

use crate::fast_hash::{HashMap, HashSet};
use std::collections::hash_map::Entry as Slot;
use std::fmt::Write;

/// Abbreviations of a file that are written out are together no longer.
const MOST_TEXT: usize = 1 << 22;

/// An entry of a file.
#[derive(Debug, Default)]
pub(super) struct Entry {
    key: String,
    kind: String,
    fields: HashMap<String, String>,
}

/// What stands for names that are not given.
const OTHERS: &str = "et al.";

/// How entries are sorted, and what they are called where they are cited.
#[derive(Clone, Copy, Debug, PartialEq, Eq)]
enum Style {
    Numbers,
    /// In the order in which they are cited.
    Unsorted,
    /// Letters of the names, and the year.
    Letters,
    AuthorAndYear,
}

/// An argument is no longer.
const LONGEST_ARGUMENT: usize = 2_000;

/// What stands before a sign that is not far away, and behind it.
fn up_to(text: &str, close: u8) -> Option<(&str, &str)> {
    let length = memchr::memchr(close, &text.as_bytes()[..text.len().min(LONGEST_ARGUMENT)])?;
    Some((&text[..length], &text[length + 1..]))
}

/// The style that a document asks for.
fn style_of(source: &str) -> Style {
    let argument = |command: &str| {
        let rest = &source[source.rfind(command)? + command.len()..];
        up_to(rest, b'}').map(|(name, _)| name)
    };
    let packages =
        source.match_indices("\\usepackage[").filter_map(|(at, _)| up_to(&source[at..], b'}').map(|(package, _)| package));
    let package = packages.filter(|package| package.ends_with("{biblatex")).last().unwrap_or_default();
    let name = argument("\\bibliographystyle{").unwrap_or(package);
    if ["authoryear", "apa", "natnat", "plainnat", "abbrvnat", "chicago", "agsm", "dcu", "harvard", "elsarticle-harv"]
        .iter()
        .any(|style| name.contains(style))
    {
        Style::AuthorAndYear
    } else if name.contains("alpha") {
        Style::Letters
    } else if ["unsrt", "ieee", "IEEE", "sorting=none", "elsarticle-num", "vancouver"].iter().any(|style| name.contains(style)) {
        Style::Unsorted
    } else {
        Style::Numbers
    }
}

/// The files that a document names besides.
pub(super) fn resources(source: &str) -> Vec<String> {
    let found =
        source.match_indices("\\addbibresource{").filter_map(|(at, command)| source[at + command.len()..].split('}').next());
    found.map(|name| name.trim().to_owned()).take(20).collect()
}

/// The keys that a text cites, each once, in their order; and whether it asks for all entries.
fn cited(source: &str) -> (Vec<&str>, bool) {
    let (mut keys, mut known, mut all) = (Vec::new(), HashSet::default(), false);
    for (at, _) in source.match_indices("cite") {
        let letters = source[..at].bytes().rev().take(24).take_while(u8::is_ascii_alphabetic).count();
        if !source[..at - letters].ends_with('\\') {
            continue;
        }
        let rest = source[at + 4..].trim_start_matches(|c: char| c.is_ascii_alphabetic() || c == '*');
        let mut rest = rest;
        for _ in 0..2 {
            if let Some((_, behind)) = rest.strip_prefix('[').and_then(|option| up_to(option, b']')) {
                rest = behind;
            }
        }
        let Some((list, _)) = rest.strip_prefix('{').and_then(|list| up_to(list, b'}')) else { continue };
        for key in list.split(',').map(str::trim) {
            all |= key == "*";
            if !key.is_empty() && key != "*" && known.insert(key) {
                keys.push(key);
            }
        }
    }
    (keys, all)
}

/// The list of what is cited, as LaTeX; nothing where no entry is.
pub(super) fn bibliography(files: &[String], source: &str) -> Option<String> {
    let mut entries: Vec<Entry> = Vec::new();
    let mut known = HashSet::default();
    for file in files {
        entries.extend(parse(file).into_iter().filter(|entry| known.insert(entry.key.clone())));
    }
    let (keys, all) = cited(source);
    let order: HashMap<&str, usize> = keys.iter().enumerate().map(|(at, key)| (*key, at)).collect();
    entries.retain(|entry| all || order.contains_key(&*entry.key));
    if entries.is_empty() {
        return None;
    }
    let style = style_of(source);
    if style == Style::Unsorted {
        entries.sort_by_key(|entry| order.get(&*entry.key).copied().unwrap_or(usize::MAX));
    } else {
        entries.sort_by_cached_key(|entry| {
            (if style == Style::Letters { entry.letters() } else { String::new() }, entry.sort_key())
        });
    }
    let mut out = "\\begin{thebibliography}{99}\n".to_owned();
    for entry in &entries {
        let label = match style {
            Style::Numbers | Style::Unsorted => String::new(),
            Style::Letters => format!("[{}]", entry.letters()),
            Style::AuthorAndYear => format!("[{{{}({})}}]", entry.short_names(), entry.year()),
        };
        let _ = writeln!(out, "\\bibitem{label}{{{}}} {}\n", entry.key, entry.text());
    }
    out.push_str("\\end{thebibliography}\n");
    Some(out)
}

impl Entry {
    fn field(&self, names: &[&str]) -> Option<&str> {
        names.iter().find_map(|name| self.fields.get(*name)).map(String::as_str).filter(|text| !text.trim().is_empty())
    }

    /// The names of those who wrote it, or who published it: family and given names.
    fn names(&self) -> Vec<(String, String)> {
        self.field(&["author", "editor"]).map(names).unwrap_or_default()
    }

    fn year(&self) -> &str {
        let year = self.field(&["year", "date"]).unwrap_or_default();
        year.get(..4).filter(|_| year.len() > 4 && year.as_bytes()[4] == b'-').unwrap_or(year)
    }

    fn sort_key(&self) -> String {
        let names: Vec<String> =
            self.names().iter().map(|(family, given)| format!("{} {}", plain(family), plain(given))).collect();
        format!("{} {} {}", names.join(" "), self.year(), plain(self.field(&["title"]).unwrap_or(&self.key))).to_lowercase()
    }

    /// Letters of the names and the year: `Bra87`.
    fn letters(&self) -> String {
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

    fn short_names(&self) -> String {
        let names = self.names();
        match &names[..] {
            [] => self.key.clone(),
            [(one, _)] => one.clone(),
            [(one, _), (other, _)] => format!("{one} and {other}"),
            [(one, _), ..] => format!("{one} et al."),
        }
    }

    /// What is printed of it.
    fn text(&self) -> String {
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

/// The entries of a file. What can't be understood is passed over.
pub(super) fn parse(source: &str) -> Vec<Entry> {
    let months = [
        "January",
        "February",
        "March",
        "April",
        "May",
        "June",
        "July",
        "August",
        "September",
        "October",
        "November",
        "December",
    ];
    let mut strings: HashMap<String, String> =
        months.iter().map(|month| (month[..3].to_ascii_lowercase(), (*month).to_owned())).collect();
    let mut parser = Parser { source, at: 0, made: 0 };
    let mut entries = Vec::new();
    while let Some(ahead) = memchr::memchr(b'@', &source.as_bytes()[parser.at..]) {
        parser.at += ahead + 1;
        let kind = parser.name().to_ascii_lowercase();
        parser.skip_white();
        let Some(close) = parser.open() else { continue };
        match kind.as_str() {
            "comment" | "preamble" => {
                parser.balanced(close);
            }
            "string" => {
                if let Some((name, value)) = parser.field(&strings) {
                    strings.insert(name, value);
                }
            }
            _ => {
                let end = source[parser.at..].find([',', close, '\n']).map_or(source.len(), |end| parser.at + end);
                let key = source[parser.at..end].trim().to_owned();
                parser.at = end;
                let mut entry = Entry { key, kind, ..Entry::default() };
                while parser.takes(',')
                    && let Some((name, value)) = parser.field(&strings)
                {
                    if let Slot::Vacant(slot) = entry.fields.entry(name) {
                        slot.insert(value);
                    }
                }
                if !entry.key.is_empty() {
                    entries.push(entry);
                }
            }
        }
    }
    entries
}

struct Parser<'s> {
    source: &'s str,
    at: usize,
    /// How long the abbreviations are that were written out.
    made: usize,
}

impl<'s> Parser<'s> {
    fn skip_white(&mut self) {
        let rest = &self.source[self.at..];
        self.at += rest.len() - rest.trim_start().len();
    }

    fn name(&mut self) -> &'s str {
        self.skip_white();
        let rest = &self.source[self.at..];
        let length =
            rest.find(|c: char| !(c.is_alphanumeric() || matches!(c, '_' | '-' | ':' | '.' | '+' | '/'))).unwrap_or(rest.len());
        self.at += length;
        &rest[..length]
    }

    fn takes(&mut self, wanted: char) -> bool {
        self.skip_white();
        let is_there = self.source[self.at..].starts_with(wanted);
        self.at += usize::from(is_there);
        is_there
    }

    fn open(&mut self) -> Option<char> {
        if self.takes('{') {
            Some('}')
        } else if self.takes('(') {
            Some(')')
        } else {
            None
        }
    }

    /// The text up to a sign outside of braces, which is passed.
    fn balanced(&mut self, close: char) -> &'s str {
        let start = self.at;
        let mut depth = 0_usize;
        for (at, byte) in self.source.as_bytes()[start..].iter().enumerate() {
            match byte {
                _ if *byte == close as u8 && depth == 0 => {
                    self.at = start + at + 1;
                    return &self.source[start..start + at];
                }
                b'{' => depth += 1,
                b'}' => depth = depth.saturating_sub(1),
                _ => {}
            }
        }
        self.at = self.source.len();
        &self.source[start..]
    }

    /// A name with its value: pieces in braces or quotation marks, numbers and abbreviations.
    fn field(&mut self, strings: &HashMap<String, String>) -> Option<(String, String)> {
        let name = self.name().to_ascii_lowercase();
        if name.is_empty() || !self.takes('=') {
            return None;
        }
        let mut value = String::new();
        loop {
            if self.takes('{') {
                value.push_str(self.balanced('}'));
            } else if self.takes('"') {
                value.push_str(self.balanced('"'));
            } else {
                let word = self.name();
                if word.is_empty() {
                    break;
                }
                let text = strings.get(&word.to_ascii_lowercase()).map_or(word, String::as_str);
                self.made += text.len();
                if self.made <= MOST_TEXT {
                    value.push_str(text);
                }
            }
            if !self.takes('#') {
                break;
            }
        }
        Some((name, value.split_whitespace().collect::<Vec<_>>().join(" ")))
    }
}
