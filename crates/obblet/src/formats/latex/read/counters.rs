//! Counters: numbers of headings, figures, tables, theorems and items (the LaTeX documentation, "Counters").

use crate::document::Marker;
use crate::fast_hash::{HashMap, HashSet};
use crate::heading_count::HeadingCount;
use crate::numeral::numeral;

/// The counters of headings, from the highest.
pub(super) const HEADINGS: [&str; 7] = ["part", "chapter", "section", "subsection", "subsubsection", "paragraph", "subparagraph"];

/// The parts of a book, by how their chapters are counted (the LaTeX documentation of the class book).
#[derive(Clone, Copy, Debug, PartialEq, Eq)]
enum Matter {
    Main,
    /// Chapters have no numbers.
    Uncounted,
    /// They have letters.
    Appendix,
}

/// All counters of a document.
#[derive(Debug)]
pub(super) struct Counters {
    values: HashMap<String, i64>,
    /// The counter that resets another, and stands before it.
    within: HashMap<String, String>,
    /// Counters that another resets without standing before them.
    alone: HashSet<String>,
    /// What counters reset, with what that resets; empty where it is to be found again.
    below: HashMap<String, Vec<String>>,
    pub(super) has_chapters: bool,
    /// Whether the source is a document of its own, and no piece of one.
    is_whole: bool,
    /// The place of the highest headings among all.
    highest: usize,
    matter: Matter,
    /// The lowest level of a heading that had a number.
    lowest_counted: u8,
    /// The number of the last heading that has one: what is below it and has none is referred to by it.
    pub(super) last_heading: String,
    /// The level of the last heading.
    pub(super) last_level: u8,
    /// What pages make of the headings so far.
    page: HeadingCount,
    /// How many levels headings go down for the title above them.
    pub(super) lowered: u8,
    /// How many levels of headings have numbers, by the counter `secnumdepth`.
    pub(super) depth: i64,
}

/// A number as a command shows it: `roman`, `alph` and the like.
pub(super) fn shown_as(number: i64, how: &str) -> String {
    let marker = match how {
        "alph" => Marker::LowerAlpha,
        "Alph" => Marker::UpperAlpha,
        "roman" => Marker::LowerRoman,
        "Roman" => Marker::UpperRoman,
        _ => Marker::Plain,
    };
    numeral(number, marker)
}

/// Whether a source is of a class without chapters.
fn is_article(source: &str) -> bool {
    if memchr::memmem::find(source.as_bytes(), b"\\documentclass").is_none() {
        return false;
    }
    let line = source.lines().find(|line| line.trim_start().starts_with("\\documentclass"));
    let class = line.and_then(|line| line.split('{').nth(1)).and_then(|rest| rest.split('}').next()).unwrap_or_default();
    matches!(
        class.trim(),
        "article" | "extarticle" | "scrartcl" | "amsart" | "ltxdoc" | "elsarticle" | "IEEEtran" | "letter" | "beamer" | "proc"
    ) || class.starts_with("revtex")
}

impl Counters {
    pub(super) fn of(source: &str) -> Self {
        let has = |command: &str, behind: &[&str]| super::shown_source::is_meant(source, command, behind);
        // Articles have none, though they may show how others write them.
        let has_chapters = has("\\chapter", &["{", "*{", "["]) && !is_article(source);
        let has_parts = has("\\part", &["{", "*{"]);
        let mut within = HashMap::default();
        let mut put = |counter: &str, above: &str| {
            within.insert(counter.to_owned(), above.to_owned());
        };
        if has_chapters {
            put("section", "chapter");
            for counter in ["figure", "table", "equation", "lstlisting"] {
                put(counter, "chapter");
            }
        }
        put("subsection", "section");
        put("subsubsection", "subsection");
        put("paragraph", "subsubsection");
        let depth = if has_chapters { 2 } else { 3 };
        Self {
            values: HashMap::default(),
            within,
            alone: HashSet::default(),
            below: HashMap::default(),
            has_chapters,
            is_whole: memchr::memmem::find(source.as_bytes(), b"\\documentclass").is_some(),
            highest: if has_parts { 0 } else { 2 - usize::from(has_chapters) },
            matter: Matter::Main,
            lowest_counted: 0,
            last_heading: String::new(),
            last_level: 0,
            page: HeadingCount::default(),
            lowered: 0,
            depth,
        }
    }

    /// The level of a heading by its command, from 1.
    pub(super) fn level(&self, name: &str) -> Option<u8> {
        let at = HEADINGS.iter().position(|known| *known == name)? as u8;
        // Sections stand directly below parts where there are no chapters.
        let level = match at {
            0 => 1,
            _ => at.saturating_sub(if self.has_chapters { 1 } else { 2 }) + 1 + u8::from(self.highest == 0),
        };
        Some((level + self.lowered).min(6))
    }

    /// The level of titles of slides: below the sections that they stand in.
    pub(super) fn level_of_slides(&self) -> u8 {
        (self.last_level.max(1) + 1).min(6)
    }

    /// The main part of a book begins, or one whose chapters have no numbers.
    pub(super) fn begin_matter(&mut self, is_main: bool) {
        self.matter = if is_main { Matter::Main } else { Matter::Uncounted };
    }

    /// Whether headings of a command have numbers.
    pub(super) fn is_numbered(&self, name: &str) -> bool {
        if name == "chapter" && self.matter == Matter::Uncounted {
            return false;
        }
        self.is_deep_enough(name)
    }

    /// Numbers headings down to those of a command (the documentation of memoir).
    pub(super) fn number_down_to(&mut self, name: &str) {
        match HEADINGS.iter().position(|known| *known == name) {
            Some(at) => self.depth = at as i64 - 1,
            None if name == "all" => self.depth = 5,
            None => self.depth = -2,
        }
    }

    fn is_deep_enough(&self, name: &str) -> bool {
        HEADINGS.iter().position(|known| *known == name).is_some_and(|at| at as i64 - 1 <= self.depth)
    }

    /// Headings go down a level, for the title is above them.
    pub(super) fn lower(&mut self) {
        self.lowered = 1;
        self.page.put_on_top(1);
    }

    /// The number that a page would give a heading, which counts there if it has just the number of the source.
    pub(super) fn number_on_page(&mut self, level: u8, number: Option<&str>) -> String {
        self.last_level = level;
        if number.is_some() {
            self.lowest_counted = self.lowest_counted.max(level);
        }
        let written = self.page.step(level);
        let levels = self.numbered_levels();
        let before = self.page.clone();
        let made = self.page.number(written, levels);
        if number != Some(made.as_str()) && !(number.is_none() && made.is_empty()) {
            self.page = before;
        }
        made
    }

    /// How many levels of headings have numbers, from chapters or sections on.
    pub(super) fn numbered_levels(&self) -> u8 {
        let highest = if self.has_chapters { "chapter" } else { "section" };
        let first = self.level(highest).unwrap_or(1);
        let lowest = HEADINGS[self.highest..].iter().rev().find(|name| self.is_deep_enough(name));
        let lowest = lowest.and_then(|name| self.level(name)).unwrap_or(0).max(self.lowest_counted);
        (lowest + 1).saturating_sub(first)
    }

    /// The levels of the headings whose numbers stand before those of equations.
    pub(super) fn equations_within(&self) -> Option<(u8, u8)> {
        let last = self.level(self.within.get("equation")?)?;
        let first = self.level(if self.has_chapters { "chapter" } else { "section" })?;
        (first <= last).then_some((first, last))
    }

    pub(super) fn is_appendix(&self) -> bool {
        self.matter == Matter::Appendix
    }

    pub(super) fn begin_appendix(&mut self) {
        self.matter = Matter::Appendix;
        self.set(if self.has_chapters { "chapter" } else { "section" }, 0);
    }

    pub(super) fn set(&mut self, name: &str, value: i64) {
        self.values.insert(name.to_owned(), value);
    }

    /// Whether a counter has been set, or is one of those that count headings and floats.
    pub(super) fn has(&self, name: &str) -> bool {
        self.values.contains_key(name) || HEADINGS.contains(&name) || matches!(name, "figure" | "table" | "equation")
    }

    pub(super) fn get(&self, name: &str) -> i64 {
        self.values.get(name).copied().unwrap_or(0)
    }

    /// Makes a counter be reset by another.
    pub(super) fn put_within(&mut self, name: &str, above: &str) {
        if name != above {
            self.below.clear();
            self.alone.remove(name);
            self.within.insert(name.to_owned(), above.to_owned());
        }
    }

    /// Makes a counter be reset by another that does not stand before it.
    pub(super) fn reset_by(&mut self, name: &str, above: &str) {
        if name != above {
            self.below.clear();
            if !self.within.contains_key(name) {
                self.alone.insert(name.to_owned());
            }
            self.within.insert(name.to_owned(), above.to_owned());
        }
    }

    /// Lets a counter count through the whole document.
    pub(super) fn put_alone(&mut self, name: &str) {
        self.below.clear();
        self.within.remove(name);
    }

    /// The counter that resets another, and stands before it.
    pub(super) fn above(&self, name: &str) -> Option<&str> {
        self.within.get(name).map(String::as_str)
    }

    /// Counts one more, and begins anew what counts within it.
    pub(super) fn step(&mut self, name: &str) -> String {
        match self.values.get_mut(name) {
            Some(value) => *value = value.saturating_add(1),
            None => self.set(name, 1),
        }
        if !self.below.contains_key(name) {
            let below = self.all_below(name);
            for counter in &below {
                self.set(counter, 0);
            }
            self.below.insert(name.to_owned(), below);
        }
        for counter in self.below.get(name).into_iter().flatten() {
            if let Some(value) = self.values.get_mut(counter) {
                *value = 0;
            }
        }
        self.number(name)
    }

    /// The counters that a counter resets, and those that these reset.
    fn all_below(&self, name: &str) -> Vec<String> {
        let mut below = vec![name.to_owned()];
        let mut known = 0;
        while let Some(above) = below.get(known).cloned() {
            known += 1;
            let next = self.within.iter().filter(|(_, of)| **of == above).map(|(counter, _)| counter.clone());
            let new: Vec<String> = next.filter(|counter| !below.contains(counter)).collect();
            below.extend(new);
        }
        below.remove(0);
        below
    }

    /// The number that comes next.
    pub(super) fn number_after(&self, name: &str) -> String {
        let number = self.number(name);
        let next = (self.get(name) + 1).to_string();
        match number.rsplit_once('.') {
            Some((before, _)) => format!("{before}.{next}"),
            // What stands before it counts already, though it counts nothing yet.
            None => next,
        }
    }

    /// A counter with what stands before it.
    pub(super) fn number(&self, name: &str) -> String {
        if !self.is_appendix() && name != "part" && !self.within.contains_key(name) {
            return self.get(name).to_string();
        }
        if name == "part" {
            return numeral(self.get(name), Marker::UpperRoman);
        }
        // From the last part of the number to its first.
        let (mut parts, mut count) = ([(0, false); 8], 0);
        let shows_zero = self.is_whole && !(self.has_chapters && matches!(name, "figure" | "table" | "equation" | "lstlisting"));
        let mut at = Some(name);
        while let Some(counter) = at.filter(|_| count < parts.len()) {
            let value = self.get(counter);
            let is_letter = self.is_appendix() && counter == if self.has_chapters { "chapter" } else { "section" };
            // Floats before the first chapter stand alone, and so does all in a piece of a document.
            if value > 0 || count == 0 || shows_zero {
                parts[count] = (value, is_letter);
                count += 1;
            }
            at = self.within.get(counter).filter(|_| !self.alone.contains(counter)).map(String::as_str);
        }
        let mut number = String::with_capacity(8);
        for (value, is_letter) in parts[..count].iter().rev() {
            if !number.is_empty() {
                number.push('.');
            }
            match (is_letter, u8::try_from(*value)) {
                (true, _) => number.push_str(&numeral(*value, Marker::UpperAlpha)),
                (false, Ok(digit @ 0..=9)) => number.push(char::from(b'0' + digit)),
                (false, _) => number.push_str(&value.to_string()),
            }
        }
        number
    }
}
