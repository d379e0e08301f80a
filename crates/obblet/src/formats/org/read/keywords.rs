//! Metadata of a file, and keywords that say something of what stands below them (Org syntax, "Keywords").

use super::Reader;
use super::options::{Shows, keyword};
use crate::document::{BibliographyStyle, DivisionKind, Kind, NodeId};
use crate::formats::org::OUTPUT_NAME;

/// What keywords say of the block below them.
#[derive(Clone, Debug, Default)]
pub(super) struct Affiliated {
    /// The first line of them.
    pub(super) from: Option<usize>,
    /// Where captions are in the source.
    pub(super) captions: Vec<(usize, usize)>,
    pub(super) name: Option<String>,
    /// Attributes for HTML.
    pub(super) attributes: Vec<(String, String)>,
    /// Whether it is what a block of code came to.
    pub(super) is_result: bool,
}

impl Reader<'_> {
    /// Takes over what the file says of itself.
    pub(super) fn metadata(&mut self) {
        let plain = |value: &str| plain(value);
        let metadata = &mut self.doc.metadata;
        metadata.title = self.options.value("title").map(|title| plain(&title));
        metadata.subtitle = self.options.value("subtitle").map(|title| plain(&title));
        metadata.date = self.options.value("date").map(|date| date.trim_matches(['<', '>', '[', ']']).to_owned());
        metadata.description = self.options.value("description").map(|text| plain(&text));
        metadata.language = self.options.value("language").filter(|language| crate::language_tag::is_well_formed(language));
        metadata.presentation = self.options.presentation;
        let lines = |keys: [&str; 2]| keys.iter().filter_map(|key| self.options.value(key)).collect::<Vec<_>>().join("\n");
        metadata.macros = lines(["latex_header", "latex_header_extra"]);
        metadata.head = lines(["html_head", "html_head_extra"]);
        self.options.commands = super::latex::commands_in(&metadata.macros);
        self.doc.bibliography.files = match self.options.value("bibliography") {
            Some(paths) => files_of(&paths),
            None => super::latex::files_of_bibliography(self.source),
        };
        self.doc.bibliography.style =
            self.options.value("cite_export").and_then(|style| BibliographyStyle::from_name(&style)).unwrap_or_default();
        for (name, value) in &self.options.properties {
            self.properties.set(0, name, value);
        }
        for (offset, setting) in &self.options.ignored {
            self.tallies.settings.add_apart(*offset, setting);
        }
        if !self.options.shows.contains(Shows::DATE) {
            metadata.date = None;
        }
        if let Some(author) = self.options.value("author").filter(|_| self.options.shows.contains(Shows::AUTHOR)) {
            metadata.authors = author.split(" and ").map(|author| plain(author.trim())).collect();
        }
        if let Some(words) = self.options.value("keywords") {
            let separator = if words.contains(',') { ',' } else { ' ' };
            metadata.keywords =
                words.split(separator).map(|word| word.trim().to_owned()).filter(|word| !word.is_empty()).collect();
        }
        for tag in &self.options.file_tags {
            if !metadata.keywords.contains(tag) {
                metadata.keywords.push(tag.clone());
            }
        }
        if let Some(email) = self.options.value("email").filter(|_| self.options.shows.contains(Shows::EMAIL)) {
            metadata.other.push(("email".to_owned(), email));
        }
        if let Some(name) = self.options.value(OUTPUT_NAME) {
            metadata.other.push((OUTPUT_NAME.to_owned(), name));
        }
    }

    /// Whether a line says something of the block below it; that is kept.
    pub(super) fn affiliate(&self, number: usize, found: &mut Affiliated) -> bool {
        let Some(line) = self.lines.get(number) else { return false };
        let words = &self.source[line.text..line.end];
        let Some((key, value)) = keyword(words) else { return false };
        match key.as_str() {
            "caption" => found.captions.push((line.end - value.len(), line.end)),
            "name" | "tblname" | "label" | "srcname" => found.name = Some(value.to_owned()),
            "attr_html" => found.attributes.extend(attributes(value)),
            "results" | "result" => {
                // Its name is that of the code.
                found.is_result = true;
            }
            "header" | "headers" | "plot" => {}
            key if key.starts_with("attr_") => {}
            _ => return false,
        }
        found.from.get_or_insert(number);
        true
    }

    /// A keyword that stands by itself.
    pub(super) fn keyword_line(&mut self, number: usize, parent: NodeId) {
        let line = self.lines.all[number];
        let words = &self.source[line.text..line.end];
        let Some((key, value)) = keyword(words) else { return };
        match key.as_str() {
            "html" => {
                let raw = self.range(line.end - value.len(), line.end);
                let markup = crate::document::Markup::Html;
                let node = self.doc.append_at(parent, Kind::RawBlock { markup, raw }, line.start as u32);
                self.doc.set_end(node, line.end as u32);
            }
            "print_bibliography" if self.doc.bibliography.place.is_none() && !self.doc.bibliography.files.is_empty() => {
                let place = self.doc.append_at(parent, Kind::Division(DivisionKind::Plain), line.start as u32);
                self.doc.set_end(place, line.end as u32);
                self.doc.bibliography.place = Some(place);
            }
            "call" => self.tallies.calls.add(line.start as u32, value),
            "latex" | "ascii" | "odt" | "texinfo" | "beamer" | "man" | "md" => {
                self.tallies.other_formats.add(line.start as u32, value);
            }
            _ => {}
        }
    }

    /// Gives a block its name and its attributes.
    pub(super) fn apply(&mut self, node: NodeId, affiliated: &Affiliated) {
        if let Some(name) = &affiliated.name {
            let id = self.anchor_id(name);
            self.name(node, name, &id);
        }
        for (key, value) in &affiliated.attributes {
            match key.as_str() {
                "class" => {
                    for class in value.split_whitespace() {
                        let class = self.doc.intern(class);
                        self.doc.attributes_mut(node).classes.push(class);
                    }
                }
                "id" => {
                    let id = self.doc.intern(value);
                    self.doc.attributes_mut(node).id = Some(id);
                }
                "lang" if crate::language_tag::is_well_formed(value) => {
                    let language = self.doc.intern(value);
                    self.doc.attributes_mut(node).language = Some(language);
                }
                "dir" => self.doc.attributes_mut(node).direction = crate::document::Direction::from_value(value),
                "title" => {
                    let title = self.doc.intern(value);
                    self.doc.attributes_mut(node).title = Some(title);
                }
                _ => {}
            }
        }
    }

    /// The id that stands for a name: the name, where it can be one.
    pub(super) fn anchor_id(&self, name: &str) -> String {
        if name.chars().any(char::is_whitespace) { crate::slug::of(name) } else { name.to_owned() }
    }
}

/// Names behind colons and their values.
fn attributes(text: &str) -> Vec<(String, String)> {
    let mut found: Vec<(String, String)> = Vec::new();
    for word in text.split_whitespace() {
        match word.strip_prefix(':').filter(|name| !name.is_empty()) {
            Some(name) => found.push((name.to_ascii_lowercase(), String::new())),
            None => {
                if let Some((_, value)) = found.last_mut() {
                    if !value.is_empty() {
                        value.push(' ');
                    }
                    value.push_str(word.trim_matches('"'));
                }
            }
        }
    }
    found
}

/// Text without the markers of emphasis and links, for what holds none.
fn plain(text: &str) -> String {
    if !text.contains(['*', '/', '=', '~', '_', '[']) {
        return text.to_owned();
    }
    let mut out = String::with_capacity(text.len());
    let mut rest = text;
    while let Some(at) = rest.find("[[") {
        out.push_str(&rest[..at]);
        let Some((link, behind)) = rest[at + 2..].split_once("]]") else { break };
        out.push_str(link.split_once("][").map_or(link, |(_, text)| text));
        rest = behind;
    }
    out.push_str(rest);
    let marked = |word: &str| {
        let first = word.chars().next().filter(|c| matches!(c, '*' | '/' | '=' | '~' | '_'));
        first.and_then(|mark| word.strip_prefix(mark)?.strip_suffix(mark)).map_or_else(|| word.to_owned(), str::to_owned)
    };
    out.split(' ').map(marked).collect::<Vec<_>>().join(" ")
}

/// The files that lines name, with or without quotation marks.
fn files_of(lines: &str) -> Vec<String> {
    let paths = lines.lines().map(|line| line.trim().trim_matches('"').trim_start_matches("file:").to_owned());
    paths.filter(|path| !path.is_empty()).collect()
}
