//! Metadata in YAML at the top of a document, between two lines of three hyphens.

use crate::document::{BibliographyStyle, Direction, Document, Finding};
use std::collections::BTreeMap;

/// YAML that is larger than this is not metadata.
const MOST: usize = 256 * 1024;

/// Reads front matter into the metadata. Returns where the text after it begins: 0 where there is none, or where it can't
/// be read and so stays in the text.
pub(super) fn read(source: &str, doc: &mut Document) -> usize {
    let Some((yaml, end)) = find(source) else { return 0 };
    let start = source.len() - source.trim_start_matches('-').trim_start_matches([' ', '\t']).len() + 1;
    match parse(yaml) {
        Ok(Some(entries)) => {
            fill(doc, entries);
            end
        }
        Ok(None) => 0,
        Err((line, message)) => {
            let offset = source.split_inclusive('\n').take(line).map(str::len).sum::<usize>().max(start);
            let place = doc.source.place(doc.pool(), offset as u32);
            doc.push_finding(
                Finding::changed("markdown.front-matter", format!("the front matter is not valid YAML: {message}"))
                    .at(place)
                    .hint("its lines are kept as text; correct the YAML and convert again"),
            );
            0
        }
    }
}

/// The YAML, and the offset after the line that ends it.
fn find(source: &str) -> Option<(&str, usize)> {
    let mut lines = source.split_inclusive('\n').take_while({
        let mut taken = 0;
        move |line| {
            taken += line.len();
            taken <= MOST
        }
    });
    let mut at = lines.next().filter(|line| line.trim_end() == "---")?.len();
    let start = at;
    for line in lines {
        if matches!(line.trim_end(), "---" | "...") {
            return Some((&source[start..at], at + line.len()));
        }
        at += line.len();
    }
    None
}

type Entries = BTreeMap<String, Value>;

/// A YAML value, as far as metadata need it. Numbers and truth values keep the form in which they were written.
#[derive(Debug)]
#[cfg_attr(feature = "front-matter", derive(serde::Deserialize), serde(untagged))]
#[cfg_attr(not(feature = "front-matter"), allow(dead_code, reason = "only texts are read"))]
enum Value {
    Truth(bool),
    Whole(i64),
    Number(f64),
    Text(String),
    List(Vec<Value>),
    Map(Entries),
    Nothing(()),
}

impl Value {
    fn text(&self) -> String {
        match self {
            Self::Truth(value) => value.to_string(),
            Self::Whole(value) => value.to_string(),
            Self::Number(value) => value.to_string(),
            Self::Text(value) => value.trim().to_owned(),
            Self::List(values) => values.iter().map(Self::text).collect::<Vec<_>>().join(", "),
            // A person given as name and address, say: the name is what people read.
            Self::Map(entries) => match entries.get("name") {
                Some(name) => name.text(),
                None => entries.iter().map(|(key, value)| format!("{key}: {}", value.text())).collect::<Vec<_>>().join(", "),
            },
            Self::Nothing(()) => String::new(),
        }
    }

    fn texts(&self) -> Vec<String> {
        match self {
            Self::List(values) => values.iter().map(Self::text).filter(|text| !text.is_empty()).collect(),
            other => Some(other.text()).filter(|text| !text.is_empty()).into_iter().collect(),
        }
    }
}

/// The keys of front matter without YAML: lines of a key and a text, with a colon between.
#[cfg(not(feature = "front-matter"))]
fn parse(text: &str) -> Result<Option<Entries>, (usize, String)> {
    let mut entries = Entries::new();
    for (at, line) in text.lines().enumerate().filter(|(_, line)| !line.trim().is_empty()) {
        let Some((key, value)) = line.split_once(':').filter(|(key, _)| !key.starts_with([' ', '-'])) else {
            return Err((at + 2, "only lines of a key and a text are read in this build".to_owned()));
        };
        entries.insert(key.trim().to_owned(), Value::Text(value.trim().trim_matches('"').to_owned()));
    }
    Ok(Some(entries).filter(|entries| !entries.is_empty()))
}

/// `None` for YAML that is no list of keys: two rules with a paragraph between them, say.
#[cfg(feature = "front-matter")]
fn parse(yaml: &str) -> Result<Option<Entries>, (usize, String)> {
    if !yaml.lines().any(|line| line.contains(':')) {
        return Ok(None);
    }
    match serde_saphyr::from_str::<Value>(yaml) {
        Ok(Value::Map(entries)) => Ok(Some(entries)),
        Ok(_) => Ok(None),
        Err(error) => {
            // Lines are counted from the line of hyphens.
            let line = error.location().map_or(1, |location| location.line() as usize);
            let message = error.without_snippet().to_string();
            Err((line, message.lines().next().unwrap_or_default().to_owned()))
        }
    }
}

fn fill(doc: &mut Document, entries: Entries) {
    let (metadata, bibliography) = (&mut doc.metadata, &mut doc.bibliography);
    for (key, value) in entries {
        let text = value.text();
        if text.is_empty() {
            continue;
        }
        match key.to_ascii_lowercase().as_str() {
            "title" => metadata.title = Some(text),
            "subtitle" => metadata.subtitle = Some(text),
            "author" | "authors" => metadata.authors = value.texts(),
            "date" => metadata.date = Some(text),
            "lang" | "language" => metadata.language = Some(text),
            "dir" | "direction" => metadata.direction = Direction::from_value(&text),
            "description" | "summary" => metadata.description = Some(text),
            "keywords" | "tags" => metadata.keywords = value.texts(),
            known => {
                match known {
                    "bibliography" => bibliography.files = value.texts(),
                    "citations" => bibliography.style = BibliographyStyle::from_name(&text).unwrap_or_default(),
                    _ => {}
                }
                metadata.other.push((key, text));
            }
        }
    }
}
