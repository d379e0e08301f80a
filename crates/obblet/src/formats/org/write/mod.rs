//! Writing Org as people write it: keywords at the top, blocks line by line, the text of each in one piece, since what a character
//! means depends on what stands around it.

mod blocks;
mod escape;
mod headings;
mod inlines;
mod numbers;
mod tables;

use super::Settings;
use crate::document::{Document, Finding, HintRole, Kind, NodeId, NoteId, Place, Step};
use crate::fast_hash::{HashMap, HashSet};
use crate::formats::{ElementWriter, Written};
use crate::indent_writer::Lines;
use crate::refine::structure;
use std::collections::BTreeMap;

/// Writes a document as Org. What Org can't say is in the findings.
///
/// ```
/// use obblet::document::{Document, Kind};
/// use obblet::formats::org;
///
/// let mut doc = Document::new();
/// let paragraph = doc.append(doc.root(), Kind::Paragraph);
/// doc.append_text(paragraph, "High water at ");
/// let strong = doc.append(paragraph, Kind::Strong);
/// doc.append_text(strong, "noon");
/// let written = org::write(&doc, &org::Settings::default());
/// assert_eq!(written.bytes, b"High water at *noon*\n");
/// ```
#[must_use]
pub fn write(doc: &Document, settings: &Settings) -> Written {
    write_with(doc, settings, None)
}

/// Writes a document as Org. `element` writes blocks as HTML, for what Org has no form for.
#[must_use]
pub fn write_with(doc: &Document, settings: &Settings, element: Option<ElementWriter<'_>>) -> Written {
    let (mut doc, findings) = structure::repaired(doc);
    if let Some(byline) = doc.repeated_byline() {
        // The head of the file says the same.
        doc.mend(|doc| doc.detach(byline));
    }
    let mut writer = Writer::new(&doc, settings);
    writer.element = element.filter(|_| settings.html_tables);
    writer.head();
    writer.tree(doc.root());
    writer.notes();
    writer.report_places();
    let mut written = Written { findings, ..Written::default() };
    written.findings.append(&mut writer.finish_findings());
    written.bytes = writer.out.finish().into_bytes();
    written
}

/// Writes one document.
struct Writer<'d> {
    doc: &'d Document,
    settings: &'d Settings,
    /// Writes tables as HTML, where that is asked for.
    element: Option<ElementWriter<'d>>,
    out: Lines,
    frames: Vec<blocks::Frame>,
    /// Blocks that hold what is written now, with their names.
    open: Vec<(NodeId, String)>,
    /// Their names.
    open_names: HashSet<String>,
    /// Markers among the characters of the text that is written now.
    markers: escape::Markers,
    /// The heading that is the title of the file, and by how many levels the others are lowered for it.
    title: Option<NodeId>,
    lowered: u8,
    /// Ids that links of the document lead to.
    linked: HashSet<String>,
    /// Those of them that were written.
    placed: HashSet<&'d str>,
    /// Ids of what is no heading, and whether it may be counted, so that links without a text show its number.
    targets: HashMap<String, bool>,
    /// What links without texts show.
    numbers: numbers::Numbers,
    /// Notes in the order in which the text mentions them, with the labels that they get.
    labels: HashMap<NoteId, String>,
    noted: Vec<NoteId>,
    no_syntax: BTreeMap<&'static str, (Place, usize)>,
}

impl<'d> Writer<'d> {
    fn new(doc: &'d Document, settings: &'d Settings) -> Self {
        let mut writer = Self {
            doc,
            settings,
            element: None,
            out: Lines::with_capacity(doc.pool().len()),
            frames: Vec::new(),
            open: Vec::new(),
            open_names: HashSet::default(),
            markers: escape::Markers::default(),
            title: None,
            lowered: 0,
            linked: HashSet::default(),
            placed: HashSet::default(),
            targets: HashMap::default(),
            numbers: numbers::Numbers::of(doc),
            labels: HashMap::default(),
            noted: Vec::new(),
            no_syntax: BTreeMap::new(),
        };
        writer.find_title();
        for (id, node) in doc.nodes().filter(|(_, node)| node.has_attributes()) {
            if let Some(name) = doc.attributes(id).id.filter(|_| !matches!(node.kind(), Kind::Heading(_))) {
                writer.targets.insert(doc.text(name).to_owned(), numbers::may_be_counted(doc, id));
            }
        }
        for step in doc.walk_all() {
            if let Step::Enter(id) = step
                && let Kind::Link { href } = doc.kind(id)
                && let Some(place) = doc.text(href).strip_prefix('#')
            {
                writer.linked.insert(place.to_owned());
            }
        }
        writer
    }

    /// The title: the heading that is marked as one, or the only one of the first level, where the document begins with it.
    fn find_title(&mut self) {
        let doc = self.doc;
        let headings: Vec<NodeId> =
            doc.children(doc.root()).filter(|&child| matches!(doc.kind(child), Kind::Heading(_))).collect();
        let Some(&first) = headings.first() else { return };
        let others = || headings.iter().skip(1).map(|&heading| doc.kind(heading));
        let is_first = doc.node(doc.root()).first_child() == Some(first) && doc.kind(first) == Kind::Heading(1);
        let is_marked = matches!(doc.layout_hints.of(first).part, HintRole::Title { .. });
        let words = |text: &str| text.split_ascii_whitespace().collect::<Vec<_>>().join(" ");
        let is_title = doc.metadata.title.as_deref().is_some_and(|title| words(title) == words(&doc.plain_text(first)));
        if is_first && (is_marked || is_title) && others().all(|kind| kind != Kind::Heading(1)) {
            (self.title, self.lowered) = (Some(first), 1);
        }
    }

    /// Keywords at the top of the file.
    fn head(&mut self) {
        let doc = self.doc;
        let metadata = &doc.metadata;
        let mut lines: Vec<(&str, String)> = Vec::new();
        let one_line = |text: &str| text.split_ascii_whitespace().collect::<Vec<_>>().join(" ");
        if let Some(title) = self.title {
            lines.push(("TITLE", self.line_below(title)));
        } else if let Some(title) = &metadata.title {
            lines.push(("TITLE", one_line(title)));
        }
        for (key, value) in [
            ("SUBTITLE", metadata.subtitle.as_deref()),
            ("AUTHOR", Some(metadata.authors.join(" and ")).as_deref().filter(|authors| !authors.is_empty())),
            ("DATE", metadata.date.as_deref()),
            ("DESCRIPTION", metadata.description.as_deref()),
            ("KEYWORDS", Some(metadata.keywords.join(", ")).as_deref().filter(|words| !words.is_empty())),
            ("LANGUAGE", metadata.language.as_deref()),
        ] {
            if let Some(value) = value.filter(|value| !value.trim().is_empty()) {
                lines.push((key, one_line(value)));
            }
        }
        lines
            .extend(metadata.macros.lines().filter(|line| !line.trim().is_empty()).map(|line| ("LATEX_HEADER", line.to_owned())));
        lines.extend(metadata.head.lines().filter(|line| !line.trim().is_empty()).map(|line| ("HTML_HEAD", line.to_owned())));
        let name = metadata.other.iter().find(|(key, _)| key == super::OUTPUT_NAME);
        lines.extend(name.map(|(_, name)| ("EXPORT_FILE_NAME", one_line(name))));
        lines.extend(self.states().map(|states| ("TODO", states)));
        let mut options = Vec::new();
        if self.title.is_none() && metadata.title.is_some() {
            options.push("title:nil".to_owned());
        }
        options.extend(escape::options(doc).into_iter().map(str::to_owned));
        options.extend(self.options_of_headings());
        if !options.is_empty() {
            lines.push(("OPTIONS", options.join(" ")));
        }
        for (key, value) in &lines {
            self.out.line(&format!("#+{key}: {value}"));
        }
        if !lines.is_empty() {
            self.frame().last = blocks::Shape::Keywords;
        }
    }

    /// The words that say how far headings are, where they are not the usual ones: what is open, and behind a bar what is done.
    fn states(&self) -> Option<String> {
        let doc = self.doc;
        let mut found: [Vec<String>; 2] = Default::default();
        for (_, task) in doc.tasks.iter().filter(|(_, task)| !task.keyword.is_empty()) {
            let words = &mut found[usize::from(task.is_done)];
            if !words.contains(&task.keyword) {
                words.push(task.keyword.clone());
            }
        }
        for (id, node) in doc.nodes() {
            if node.kind() != Kind::Span || !node.has_attributes() {
                continue;
            }
            for class in &doc.attributes(id).classes {
                let place = match doc.text(*class) {
                    "keyword-open" => 0,
                    "keyword-done" => 1,
                    _ => continue,
                };
                let word = doc.plain_text(id);
                if !word.contains(char::is_whitespace) && !found[place].contains(&word) {
                    found[place].push(word);
                }
            }
        }
        let [open, done] = found;
        let is_usual = open.iter().all(|word| word == "TODO") && done.iter().all(|word| word == "DONE");
        (!is_usual).then(|| format!("{} | {}", open.join(" "), done.join(" ")).trim().to_owned())
    }

    /// Notes that Org can't say something; each sort is reported once.
    fn no_syntax(&mut self, what: &'static str, id: NodeId) {
        let place = self.doc.place(id);
        self.no_syntax.entry(what).or_insert((place, 0)).1 += 1;
    }

    /// Reports places that links lead to and that were not written.
    fn report_places(&mut self) {
        let doc = self.doc;
        for (id, node) in doc.nodes().filter(|(_, node)| node.has_attributes()) {
            let name = doc.attributes(id).id.map(|name| doc.text(name));
            let is_missing = name.is_some_and(|name| self.linked.contains(name) && self.placed.insert(name));
            if is_missing && self.title != Some(id) && (node.parent().is_some() || node.kind() == Kind::Note) {
                self.no_syntax("places that links lead to", id);
            }
        }
    }

    fn finish_findings(&mut self) -> Vec<Finding> {
        let mut findings: Vec<Finding> = std::mem::take(&mut self.no_syntax)
            .into_iter()
            .map(|(what, (place, count))| {
                Finding::changed("org.no-syntax", format!("Org has no syntax for {what}: {count}")).at(place)
            })
            .collect();
        if self.out.was_too_deep() {
            findings.push(Finding::changed("org.too-deep", "lists deeper than 100 are set in no further"));
        }
        findings
    }
}
