//! Citations of documents that name files of entries: they lead to the entries, whose list stands where the source wants it.

use crate::citations::{self, Wanted, Words};
use crate::document::{Attributes, Bibliography, Citation, CitationForm, CitationStyle, Document, Finding, Kind, NodeId, Text};
use crate::fast_hash::HashMap;
use crate::formats::latex;
use crate::media::FilesAround;
use crate::tally::Tally;

/// So many files of entries are read.
const MOST_FILES: usize = 20;

/// What an entry is called where it is cited.
struct Called {
    label: String,
    names: String,
    year: String,
}

/// Citations lead to the entries that they name, as far as these are in the files that the document names.
pub(super) fn resolve(doc: &mut Document, files: &FilesAround<'_>) {
    let bibliography = std::mem::take(&mut doc.bibliography);
    if !bibliography.citations.is_empty() && !bibliography.files.is_empty() {
        resolve_all(doc, &bibliography, files);
    }
    if let Some(place) = bibliography.place {
        doc.detach(place);
    }
}

fn resolve_all(doc: &mut Document, bibliography: &Bibliography, files: &FilesAround<'_>) {
    let style = bibliography.style;
    let texts = read(doc, &bibliography.files, files);
    let cited = bibliography.citations.iter().flat_map(|citation| &citation.entries);
    let keys: Vec<&str> = cited.map(|entry| entry.key.as_str()).collect();
    let wanted = Wanted { keys: &keys, all: keys.contains(&"*") };
    let entries = citations::listed(&texts, wanted, style, Words::of(doc.metadata.language.as_deref().unwrap_or_default()));
    let mut called: HashMap<&str, Called> = HashMap::default();
    for (at, entry) in entries.iter().enumerate() {
        let (names, year) = (latex::readable(&entry.names), latex::readable(&entry.year));
        let label = match style.labels {
            CitationStyle::AuthorYear | CitationStyle::AuthorTitle => format!("{names} {year}").trim().to_owned(),
            CitationStyle::Letters => latex::readable(&entry.letters),
            CitationStyle::Numbers => (at + 1).to_string(),
        };
        called.insert(&entry.key, Called { label, names, year });
    }
    let has_list = bibliography.place.is_some();
    let mut missing = Tally::default();
    let parents = bibliography.citations.iter().filter_map(|citation| doc.node(citation.node).parent()).collect();
    for citation in &bibliography.citations {
        show(doc, citation, style.labels, &called, has_list, &mut missing);
    }
    doc.join_texts_in(parents);
    if missing.count() > 0 {
        let message = format!("citations are shown by their keys, which no entry of a bibliography has: {}", missing.count());
        let place = doc.source.place(doc.pool(), missing.first());
        let finding = Finding::changed("citation.missing", message).at(place).losing(missing.words());
        doc.push_finding(finding.hint("add the entries, or correct the keys"));
    }
    if let Some(place) = bibliography.place.filter(|_| !entries.is_empty()) {
        list(doc, place, &citations::list((1..).zip(&entries), style.labels, "thebibliography"));
    }
}

/// The texts of the files; those that are not read are findings.
fn read(doc: &mut Document, names: &[String], files: &FilesAround<'_>) -> Vec<String> {
    let mut texts = Vec::new();
    for (at, name) in names.iter().enumerate() {
        let path = files.path(name);
        let text = match &path {
            _ if at >= MOST_FILES => Err("there are too many"),
            Some(path) => files.read(path),
            None => Err("it is outside of the folder"),
        };
        match text {
            Ok(bytes) => texts.push(crate::utf8_source::text(&bytes).into_owned()),
            Err(why) => {
                let finding = Finding::lost("citation.file", format!("bibliography {name} was not read: {why}"));
                doc.push_finding(finding.hint("check its path; it counts from the folder of the document").about(name));
            }
        }
        doc.source.includes.extend(path.filter(|path| !doc.source.includes.contains(path)));
    }
    texts
}

/// Shows a citation by what its entries are called.
fn show(
    doc: &mut Document,
    citation: &Citation,
    style: CitationStyle,
    called: &HashMap<&str, Called>,
    has_list: bool,
    missing: &mut Tally,
) {
    let node = citation.node;
    while let Some(child) = doc.node(node).first_child() {
        doc.detach(child);
    }
    doc.set_kind(node, Kind::Span);
    *doc.attributes_mut(node) = Attributes::default();
    let by_names = style == CitationStyle::AuthorYear;
    let form = citation.form;
    let mut writer = Shown { doc, node, offset: 0 };
    writer.offset = writer.doc.node(node).offset();
    let brackets = matches!(form, CitationForm::Label) || (form == CitationForm::Year && !by_names);
    let mut first = true;
    if form != CitationForm::Hidden {
        let before = Some(&citation.around.0).filter(|words| !words.is_empty()).map(|words| format!("{words} "));
        writer.text(&format!("{}{}", if brackets { "[" } else { "" }, before.unwrap_or_default()));
    }
    let has_words = citation.entries.iter().any(|entry| !entry.before.is_empty() || !entry.behind.is_empty());
    for entry in citation.entries.iter().filter(|entry| entry.key != "*") {
        let known = called.get(&*entry.key);
        if known.is_none() {
            missing.add_apart(writer.offset, &entry.key);
        }
        if form == CitationForm::Hidden {
            continue;
        }
        if !first {
            writer.text(if has_words || by_names { "; " } else { ", " });
        }
        first = false;
        if !entry.before.is_empty() {
            writer.text(&format!("{} ", entry.before));
        }
        let behind = if entry.behind.is_empty() { String::new() } else { format!(", {}", entry.behind) };
        let target = has_list.then_some(entry.key.as_str());
        match (form, known) {
            (_, None) => writer.text(&format!("{}{behind}", entry.key)),
            (CitationForm::Author, Some(known)) => {
                writer.link(target, &known.names);
                writer.text(&behind);
            }
            (CitationForm::InText, Some(known)) => {
                writer.link(target.filter(|_| by_names), &known.names);
                writer.text(" [");
                writer.link(target, if by_names { &known.year } else { &known.label });
                writer.text(&format!("{behind}]"));
            }
            (CitationForm::Year, Some(known)) if by_names => {
                writer.text("[");
                writer.link(target, &known.year);
                writer.text(&format!("{behind}]"));
            }
            (_, Some(known)) => {
                writer.link(target, &known.label);
                writer.text(&behind);
            }
        }
    }
    if form != CitationForm::Hidden {
        let behind = Some(&citation.around.1).filter(|words| !words.is_empty()).map(|words| format!("; {words}"));
        writer.text(&format!("{}{}", behind.unwrap_or_default(), if brackets { "]" } else { "" }));
    }
    doc.unwrap(node);
}

/// Writes what a citation shows.
struct Shown<'d> {
    doc: &'d mut Document,
    node: NodeId,
    offset: u32,
}

impl Shown<'_> {
    fn text(&mut self, text: &str) {
        if !text.is_empty() {
            let text = self.doc.intern(text);
            self.doc.append_joined(self.node, text, self.offset);
        }
    }

    fn link(&mut self, key: Option<&str>, text: &str) {
        let Some(key) = key else { return self.text(text) };
        let href = self.doc.intern(&format!("#{}", latex::id_of_entry(key)));
        let text = self.doc.intern(text);
        let link = self.doc.append_at(self.node, Kind::Link { href }, self.offset);
        self.doc.append_at(link, Kind::Text(text), self.offset);
    }
}

/// Puts the list of entries where the document wants it, below a heading of its own where none stands before it.
fn list(doc: &mut Document, place: NodeId, source: &str) {
    let language = doc.metadata.language.clone().unwrap_or_default();
    let listed = latex::read(source.as_bytes(), &latex::Settings::default());
    let offset = doc.node(place).offset();
    let Some(entries) = listed.children(listed.root()).find(|&block| matches!(listed.kind(block), Kind::List(_))) else { return };
    let has_heading = doc.node(place).previous().is_some_and(|before| matches!(doc.kind(before), Kind::Heading(_)));
    if !has_heading {
        let level = doc.nodes().filter_map(|(_, node)| if let Kind::Heading(level) = node.kind() { Some(level) } else { None });
        // A heading of the first level that is alone is the title.
        let level = match level.min() {
            Some(1) if doc.nodes().filter(|(_, node)| node.kind() == Kind::Heading(1)).count() == 1 => 2,
            Some(level) => level,
            None => 2,
        };
        let heading = doc.append_at(place, Kind::Heading(level), offset);
        let words: Text = doc.intern(latex::heading_of_entries(&language, false));
        doc.append_at(heading, Kind::Text(words), offset);
        doc.move_before(place, heading);
    }
    let copied = doc.append_copy(place, &listed, entries, offset);
    doc.move_before(place, copied);
}
