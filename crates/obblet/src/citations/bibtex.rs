//! Files of entries (the documentation of BibTeX and of biblatex), read entry by entry.

use super::entry::{Entry, MONTHS};
use crate::fast_hash::HashMap;
use std::collections::hash_map::Entry as Slot;

/// Abbreviations of a file that are written out are together no longer.
const MOST_TEXT: usize = 1 << 22;

/// Behind so many values that do not end, the next one is the last: each is looked for to the end of the file.
const MOST_UNCLOSED: usize = 100;

/// The entries of a file. What can't be understood is passed over.
pub(super) fn parse(source: &str) -> Vec<Entry> {
    let mut strings: HashMap<String, String> =
        MONTHS.iter().map(|month| (month[..3].to_ascii_lowercase(), (*month).to_owned())).collect();
    let mut parser = Parser::new(source);
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
                if !entry.key.is_empty() && entry.kind != "set" {
                    entries.push(entry);
                }
            }
        }
    }
    inherit(&mut entries);
    entries
}

/// Entries have what they do not say from the entry that they refer to: a part from the whole that it is in (the documentation of
/// BibTeX, "crossref"; of biblatex, "xdata").
fn inherit(entries: &mut [Entry]) {
    let refers = |entry: &Entry| ["crossref", "xdata"].iter().find_map(|name| entry.fields.get(*name).cloned());
    if !entries.iter().any(|entry| refers(entry).is_some()) {
        return;
    }
    let wholes: HashMap<String, usize> = entries.iter().enumerate().rev().map(|(at, entry)| (entry.key.clone(), at)).collect();
    let mut made = 0;
    for at in 0..entries.len() {
        let Some(&whole) = refers(&entries[at]).and_then(|key| wholes.get(key.trim())) else { continue };
        if whole == at {
            continue;
        }
        let is_part = entries[at].fields.contains_key("crossref");
        let given: Vec<(String, String)> =
            entries[whole].fields.iter().map(|(name, value)| (name.clone(), value.clone())).collect();
        made += given.iter().map(|(name, value)| name.len() + value.len() + 1).sum::<usize>();
        if made > MOST_TEXT {
            return;
        }
        for (name, value) in given {
            let name = match name.as_str() {
                "crossref" | "xdata" | "keywords" | "shorthand" => continue,
                "title" if is_part => "booktitle".to_owned(),
                "subtitle" if is_part => "booksubtitle".to_owned(),
                _ => name,
            };
            entries[at].fields.entry(name).or_insert(value);
        }
    }
}

pub(super) struct Parser<'s> {
    source: &'s str,
    at: usize,
    /// How long the abbreviations are that were written out.
    made: usize,
    /// How many values had no end.
    unclosed: usize,
}

impl<'s> Parser<'s> {
    pub(super) const fn new(source: &'s str) -> Self {
        Self { source, at: 0, made: 0, unclosed: 0 }
    }

    /// What has not been read.
    pub(super) fn rest(&self) -> &'s str {
        &self.source[self.at..]
    }

    pub(super) const fn skip(&mut self, bytes: usize) {
        self.at += bytes;
    }

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

    pub(super) fn takes(&mut self, wanted: char) -> bool {
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
    pub(super) fn balanced(&mut self, close: char) -> &'s str {
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
        // Without an end, it is no longer than its entry.
        self.unclosed += 1;
        let rest = &self.source[start..];
        let next = rest.find("\n@").filter(|_| self.unclosed <= MOST_UNCLOSED).unwrap_or(rest.len());
        self.at = start + next;
        &rest[..next]
    }

    /// A name with its value: pieces in braces or quotation marks, numbers and abbreviations.
    pub(super) fn field(&mut self, strings: &HashMap<String, String>) -> Option<(String, String)> {
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
