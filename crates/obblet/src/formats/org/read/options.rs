//! Settings in the file: keywords, options, macros, abbreviations of links. They hold for the whole file wherever they stand.

use super::lines::{Begins, BlockKind, Lines};
use crate::document::Presentation;
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
        const PROPERTIES = 1 << 19;
        const MATH = 1 << 20;
        const AUTHOR = 1 << 21;
        const DATE = 1 << 22;
        const EMAIL = 1 << 23;
    }
}

/// The settings of a file.
#[derive(Debug)]
pub(super) struct Options {
    /// Commands of LaTeX that the file defines for its formulas.
    pub(super) commands: HashSet<String>,
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
    /// Properties that hold for all headings.
    pub(super) properties: Vec<(String, String)>,
    /// Headings below this level are items of lists.
    pub(super) deepest_heading: usize,
    /// What of an archived tree is written.
    pub(super) archived: Archived,
    pub(super) presentation: Presentation,
    /// Settings that nothing follows.
    pub(super) ignored: Vec<(u32, String)>,
    /// All values of each keyword, one line behind the other; keys in small letters.
    keywords: HashMap<String, String>,
}

impl Default for Options {
    fn default() -> Self {
        Self {
            commands: HashSet::default(),
            shows: Shows::all()
                - Shows::PRIORITIES
                - Shows::PLANNING
                - Shows::CLOCKS
                - Shows::QUOTES
                - Shows::BREAKS
                - Shows::PROPERTIES
                - Shows::EMAIL,
            states: [("TODO".to_owned(), false), ("DONE".to_owned(), true)].into_iter().collect(),
            macros: HashMap::default(),
            abbreviations: HashMap::default(),
            file_tags: Vec::new(),
            select: std::iter::once("export".to_owned()).collect(),
            exclude: std::iter::once("noexport".to_owned()).collect(),
            drawers: (false, std::iter::once("logbook".to_owned()).collect()),
            properties: Vec::new(),
            deepest_heading: usize::MAX,
            archived: Archived::Heading,
            presentation: Presentation::default(),
            ignored: Vec::new(),
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
                options.take(&key, value, line.start as u32, &mut own_states);
                // Lines of TeX end with their lines: a comment in one is none in the next. So do lines of markup, and paths.
                let between = if key.starts_with("latex_header") || key.starts_with("html_head") || key == "bibliography" {
                    '\n'
                } else {
                    ' '
                };
                let values = options.keywords.entry(key).or_default();
                values.push(between);
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

    fn take(&mut self, key: &str, value: &str, offset: u32, states: &mut Vec<(String, bool)>) {
        let words = || value.split_whitespace().map(str::to_owned);
        match key {
            "options" => self.take_options(value, offset),
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
                let (name, value) = value.split_once(char::is_whitespace).unwrap_or((value, ""));
                self.properties.push((name.to_owned(), value.trim().to_owned()));
            }
            "toc" => {
                // Where the list of contents stands is a matter of the page.
                match value.split_once(char::is_whitespace).unwrap_or((value, "")) {
                    ("headlines", depth) => self.presentation.contents = Some(levels(depth).unwrap_or(6)),
                    _ => self.ignored.push((offset, format!("#+TOC: {value}"))),
                }
            }
            key if !is_known(key) => self.ignored.push((offset, format!("#+{}", key.to_ascii_uppercase()))),
            _ => {}
        }
    }

    /// `#+OPTIONS:`: names and values with a colon between.
    fn take_options(&mut self, value: &str, offset: u32) {
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
                "prop" => Shows::PROPERTIES,
                "tex" => {
                    self.shows.set(Shows::MATH, on && value != "verbatim");
                    continue;
                }
                "author" => Shows::AUTHOR,
                "date" => Shows::DATE,
                "email" => Shows::EMAIL,
                "^" => {
                    self.shows.set(Shows::SCRIPTS, on);
                    self.shows.set(Shows::BARE_SCRIPTS, on && value != "{}");
                    continue;
                }
                "d" => {
                    self.take_drawers(value, on);
                    continue;
                }
                _ => {
                    if !self.take_numbers(name, value) {
                        self.ignored.push((offset, format!("{name}:{value}")));
                    }
                    continue;
                }
            };
            self.shows.set(flag, on);
        }
    }

    /// Options that count levels, and what has no name of its own. Gives whether one is known.
    fn take_numbers(&mut self, name: &str, value: &str) -> bool {
        match name {
            "H" => self.deepest_heading = value.parse().unwrap_or(usize::MAX),
            "num" => self.presentation.numbered_levels = Some(levels(value).unwrap_or(6)),
            "toc" => self.presentation.contents = Some(levels(value).unwrap_or(6)),
            "arch" => {
                self.archived = match value {
                    "nil" => Archived::Nothing,
                    "headline" => Archived::Heading,
                    _ => Archived::Whole,
                }
            }
            // They say what is as it is anyway, or what a page of ours does not have.
            "broken-links" | "creator" | "timestamp" | "inline" | "expand-links" => {}
            _ => return false,
        }
        true
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

/// How many levels a value stands for; none where it is for all of them.
fn levels(value: &str) -> Option<u8> {
    match value.trim() {
        "nil" | "0" => Some(0),
        value => value.parse::<u8>().ok().map(|levels| levels.min(6)),
    }
}

/// Whether a keyword is followed, or is for programs that have nothing to do with what is written.
fn is_known(key: &str) -> bool {
    const KNOWN: [&str; 54] = [
        "export_file_name",
        "title",
        "subtitle",
        "author",
        "email",
        "date",
        "description",
        "keywords",
        "language",
        "options",
        "todo",
        "seq_todo",
        "typ_todo",
        "macro",
        "link",
        "filetags",
        "select_tags",
        "exclude_tags",
        "property",
        "include",
        "setupfile",
        "bibliography",
        "cite_export",
        "print_bibliography",
        "html",
        "html_head",
        "html_head_extra",
        "call",
        "caption",
        "name",
        "tblname",
        "label",
        "srcname",
        "results",
        "result",
        "header",
        "headers",
        "plot",
        "startup",
        "columns",
        "category",
        "archive",
        "constants",
        "priorities",
        "tags",
        "tblfm",
        "creator",
        "index",
        "cindex",
        "latex",
        "ascii",
        "odt",
        "beamer",
        "md",
    ];
    const OTHERS: [&str; 9] = ["attr_", "latex_", "beamer_", "odt_", "texinfo", "ascii_", "man", "md_", "org_"];
    KNOWN.contains(&key) || OTHERS.iter().any(|start| key.starts_with(start))
}

/// What of an archived tree is written.
#[derive(Clone, Copy, Debug, PartialEq, Eq)]
pub(super) enum Archived {
    Nothing,
    Heading,
    Whole,
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

/// The name that a file gives what it becomes, if the keyword is in its beginning (The Org Manual, Export Settings).
pub(in crate::formats::org) fn output_name(beginning: &[u8]) -> Option<String> {
    const KEYWORD: &[u8] = b"#+export_file_name:";
    beginning.split(|&byte| byte == b'\n').find_map(|line| {
        let line = line.trim_ascii();
        let is_it = line.len() > KEYWORD.len() && line[..KEYWORD.len()].eq_ignore_ascii_case(KEYWORD);
        is_it.then(|| String::from_utf8_lossy(line[KEYWORD.len()..].trim_ascii()).into_owned()).filter(|name| !name.is_empty())
    })
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
