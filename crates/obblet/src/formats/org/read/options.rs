//! Settings in the file: keywords, options, macros, abbreviations of links. They hold for the whole file wherever they stand.

use super::lines::{Begins, BlockKind, Lines};
use crate::fast_hash::{HashMap, HashSet};

bitflags::bitflags! {
    /// What of a source is shown, and what its characters mean.
    #[derive(Clone, Copy, Debug, PartialEq, Eq, Hash)]
    pub(super) struct Shows: u32 {
        /// Keywords of headings.
        const KEYWORDS = 1 << 0;
        const PRIORITIES = 1 << 1;
        const TAGS = 1 << 2;
        /// Dates below headings that say when something is to be done.
        const PLANNING = 1 << 3;
        const CLOCKS = 1 << 4;
        const TIMESTAMPS = 1 << 5;
        const TITLE = 1 << 6;
        /// Hyphens in a row are dashes, and three stops an ellipsis.
        const SPECIAL_STRINGS = 1 << 7;
        /// Straight quotation marks are those of the language.
        const QUOTES = 1 << 8;
        /// The end of a line is a line break.
        const BREAKS = 1 << 9;
        /// `_` and `^` lower and raise what is in braces behind them.
        const SCRIPTS = 1 << 10;
        /// They do so without braces as well.
        const BARE_SCRIPTS = 1 << 11;
        const ENTITIES = 1 << 12;
        const EMPHASIS = 1 << 13;
        const NOTES = 1 << 14;
        const TABLES = 1 << 15;
        const FIXED = 1 << 16;
        const DRAWERS = 1 << 17;
        const COOKIES = 1 << 18;
    }
}

/// The settings of a file.
#[derive(Debug)]
pub(super) struct Options {
    pub(super) shows: Shows,
    /// The words that a heading may begin with, and whether what they stand for is done.
    pub(super) states: HashMap<String, bool>,
    pub(super) macros: HashMap<String, String>,
    pub(super) abbreviations: HashMap<String, String>,
    pub(super) file_tags: Vec<String>,
    pub(super) select: HashSet<String>,
    pub(super) exclude: HashSet<String>,
    /// Drawers that are left out, or the only ones that are not.
    pub(super) drawers: (bool, HashSet<String>),
    /// What of source blocks is written, by their language; of all of them, by nothing.
    pub(super) exports: HashMap<String, String>,
    /// All values of each keyword, one line behind the other; keys in small letters.
    keywords: HashMap<String, String>,
}

impl Default for Options {
    fn default() -> Self {
        Self {
            shows: Shows::all() - Shows::PRIORITIES - Shows::PLANNING - Shows::CLOCKS - Shows::QUOTES - Shows::BREAKS,
            states: [("TODO".to_owned(), false), ("DONE".to_owned(), true)].into_iter().collect(),
            macros: HashMap::default(),
            abbreviations: HashMap::default(),
            file_tags: Vec::new(),
            select: std::iter::once("export".to_owned()).collect(),
            exclude: std::iter::once("noexport".to_owned()).collect(),
            drawers: (false, std::iter::once("logbook".to_owned()).collect()),
            exports: HashMap::default(),
            keywords: HashMap::default(),
        }
    }
}

impl Options {
    /// Reads the settings of a file.
    pub(super) fn read(source: &str, lines: &Lines) -> Self {
        let mut options = Self::default();
        let mut own_states = Vec::new();
        let mut number = 0;
        while let Some(line) = lines.get(number) {
            let is_raw = match line.begins {
                Begins::Block(kind) => !kind.holds_blocks() && kind != BlockKind::Verse,
                Begins::Environment => true,
                _ => false,
            };
            if is_raw && line.until > number {
                number = line.until;
            } else if line.begins == Begins::Keyword
                && let Some((key, value)) = keyword(&source[line.text..line.end])
            {
                options.take(&key, value, &mut own_states);
                let values = options.keywords.entry(key).or_default();
                values.push(' ');
                values.push_str(value);
            }
            number += 1;
        }
        if !own_states.is_empty() {
            options.states = own_states.into_iter().collect();
        }
        options
    }

    /// All values of a keyword, one line behind the other.
    pub(super) fn value(&self, key: &str) -> Option<String> {
        self.keywords.get(key).map(|value| value.trim().to_owned()).filter(|value| !value.is_empty())
    }

    fn take(&mut self, key: &str, value: &str, states: &mut Vec<(String, bool)>) {
        let words = || value.split_whitespace().map(str::to_owned);
        match key {
            "options" => self.take_options(value),
            "todo" | "seq_todo" | "typ_todo" => states.extend(sequence(value)),
            "macro" => {
                if let Some((name, text)) = value.split_once(char::is_whitespace) {
                    self.macros.insert(name.to_ascii_lowercase(), text.trim().replace("\\n", "\n"));
                }
            }
            "link" => {
                if let Some((name, address)) = value.split_once(char::is_whitespace) {
                    self.abbreviations.insert(name.to_owned(), address.trim().to_owned());
                }
            }
            "filetags" => self.file_tags.extend(value.split([':', ' ']).filter(|tag| !tag.is_empty()).map(str::to_owned)),
            "select_tags" => self.select = words().collect(),
            "exclude_tags" => self.exclude = words().collect(),
            "property" => {
                let (name, arguments) = value.split_once(char::is_whitespace).unwrap_or((value, ""));
                let name = name.trim_end_matches('+');
                if let Some(language) = name.strip_prefix("header-args").map(|rest| rest.trim_start_matches(':'))
                    && let Some(exports) = argument(arguments, ":exports")
                {
                    self.exports.insert(language.to_owned(), exports.to_owned());
                }
            }
            _ => {}
        }
    }

    /// `#+OPTIONS:`: names and values with a colon between.
    fn take_options(&mut self, value: &str) {
        for (name, value) in pairs(value) {
            let on = !matches!(value, "nil" | "0" | "");
            let flag = match name {
                "todo" => Shows::KEYWORDS,
                "pri" => Shows::PRIORITIES,
                "tags" => Shows::TAGS,
                "p" => Shows::PLANNING,
                "c" => Shows::CLOCKS,
                "<" => Shows::TIMESTAMPS,
                "title" => Shows::TITLE,
                "-" => Shows::SPECIAL_STRINGS,
                "'" => Shows::QUOTES,
                "\\n" => Shows::BREAKS,
                "e" => Shows::ENTITIES,
                "*" => Shows::EMPHASIS,
                "f" => Shows::NOTES,
                "|" => Shows::TABLES,
                ":" => Shows::FIXED,
                "stat" => Shows::COOKIES,
                "^" => {
                    self.shows.set(Shows::SCRIPTS, on);
                    self.shows.set(Shows::BARE_SCRIPTS, on && value != "{}");
                    continue;
                }
                "d" => {
                    self.take_drawers(value, on);
                    continue;
                }
                _ => continue,
            };
            self.shows.set(flag, on);
        }
    }

    fn take_drawers(&mut self, value: &str, on: bool) {
        self.shows.set(Shows::DRAWERS, on);
        let Some(list) = value.strip_prefix('(').map(|list| list.trim_end_matches(')')) else {
            self.drawers = (false, HashSet::default());
            return;
        };
        let (excludes, list) = match list.trim_start().strip_prefix("not") {
            Some(rest) if rest.starts_with([' ', '"']) => (false, rest),
            _ => (true, list),
        };
        let names = list.split_whitespace().map(|name| name.trim_matches('"').to_ascii_lowercase());
        self.drawers = (excludes, names.filter(|name| !name.is_empty()).collect());
    }

    /// Whether what is in a drawer is shown.
    pub(super) fn shows_drawer(&self, name: &str) -> bool {
        let (only, names) = &self.drawers;
        self.shows.contains(Shows::DRAWERS) && names.contains(&name.to_ascii_lowercase()) == *only
    }
}

/// The value of an argument of a source block.
pub(super) fn argument<'a>(arguments: &'a str, name: &str) -> Option<&'a str> {
    arguments.split_whitespace().skip_while(|word| *word != name).nth(1)
}

/// The key of a keyword in small letters, without options in brackets, and its value.
pub(super) fn keyword(words: &str) -> Option<(String, &str)> {
    let rest = words.strip_prefix("#+")?;
    let key = rest.split([':', '[', ' ']).next()?;
    let mut behind = &rest[key.len()..];
    if behind.starts_with('[') {
        behind = &behind[behind.find("]:")? + 1..];
    }
    Some((key.to_ascii_lowercase(), behind.strip_prefix(':')?.trim()))
}

/// Words of keywords that stand for what is open, and behind a bar for what is done. Letters to type are in parentheses.
fn sequence(value: &str) -> Vec<(String, bool)> {
    let has_bar = value.split_whitespace().any(|word| word == "|");
    let mut words: Vec<(String, bool)> = Vec::new();
    let mut done = false;
    for word in value.split_whitespace() {
        if word == "|" {
            done = true;
            continue;
        }
        let word = word.split('(').next().unwrap_or_default();
        if !word.is_empty() {
            words.push((word.to_owned(), done));
        }
    }
    if !has_bar && let Some(last) = words.last_mut() {
        last.1 = true;
    }
    words
}

/// Names and values with a colon between; values in parentheses or quotation marks may hold spaces.
fn pairs(text: &str) -> Vec<(&str, &str)> {
    let mut pairs = Vec::new();
    let mut rest = text.trim();
    while !rest.is_empty() {
        // A colon may be the name itself.
        let colon = rest.char_indices().skip(1).find(|(_, c)| matches!(c, ':' | ' ')).filter(|(_, c)| *c == ':');
        let Some((colon, _)) = colon else {
            rest = rest.split_once(' ').map_or("", |(_, rest)| rest.trim_start());
            continue;
        };
        let (name, value) = (&rest[..colon], &rest[colon + 1..]);
        let end = match value.bytes().next() {
            Some(b'(') => value.find(')').map_or(value.len(), |end| end + 1),
            Some(b'"') => value[1..].find('"').map_or(value.len(), |end| end + 2),
            _ => value.find(' ').unwrap_or(value.len()),
        };
        pairs.push((name, &value[..end]));
        rest = value[end..].trim_start();
    }
    pairs
}

#[cfg(test)]
mod tests {
    use super::*;

    #[test]
    fn options_are_names_and_values() {
        assert_eq!(
            pairs("toc:2 ^:{} ::t d:(not \"A B\") -:nil \\n:t stray H:4"),
            [("toc", "2"), ("^", "{}"), (":", "t"), ("d", "(not \"A B\")"), ("-", "nil"), ("\\n", "t"), ("H", "4")]
        );
        assert_eq!(keyword("#+CAPTION[Short: one]: Long"), Some(("caption".to_owned(), "Long")));
        let words = sequence("TODO(t) WAIT(w@/!) | DONE(d) CANCELLED");
        assert_eq!(words.iter().filter(|(_, done)| *done).count(), 2);
        assert_eq!(sequence("OPEN SHUT")[1], ("SHUT".to_owned(), true));
    }
}
