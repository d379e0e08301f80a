//! A document as content: shown as text for people, and compared with another, whatever its nodes are numbered and wherever its
//! texts lie in the pool.

use super::{
    Align, Attributes, CellKind, Comment, Document, FormulaId, Kind, NodeId, Scope, Section, Step, StyleDefinition, Text,
    TextLevel,
};
use std::fmt::{self, Write};

/// Deeper than this, the depth of a node is a number and not an indent.
const DEEPEST_INDENT: usize = 40;

/// A heading of a document, for a list of them.
#[derive(Clone, Debug, PartialEq, Eq)]
#[cfg_attr(feature = "serde", derive(serde::Serialize, serde::Deserialize))]
pub struct OutlineHeading {
    /// Its level, from 1.
    pub level: u8,
    /// Its id; empty where it has none.
    pub id: String,
    /// Its text, in one line.
    pub text: String,
}

impl Kind {
    /// The kind without its texts, and its texts.
    fn split(self) -> (Self, [Text; 2]) {
        let none = Text::EMPTY;
        match self {
            Self::Text(text) => (Self::Text(none), [text, none]),
            Self::Code(text) => (Self::Code(none), [text, none]),
            Self::CodeBlock { code, info } => (Self::CodeBlock { code: none, info: none }, [code, info]),
            Self::RawBlock { markup, raw } => (Self::RawBlock { markup, raw: none }, [raw, none]),
            Self::Raw { markup, raw } => (Self::Raw { markup, raw: none }, [raw, none]),
            Self::Link { href } => (Self::Link { href: none }, [href, none]),
            Self::Image { src, alt } => (Self::Image { src: none, alt: none }, [src, alt]),
            Self::Math(_) => (Self::Math(FormulaId(0)), [none, none]),
            other => (other, [none, none]),
        }
    }
}

/// What is said of a cell: what is not plain about it.
fn dump_cell(cell: CellKind) -> String {
    let CellKind { header, scope, align, columns, rows } = cell;
    let mut name = if header { "Header" } else { "Cell" }.to_owned();
    if scope != Scope::Unsaid {
        let _ = write!(name, " of {scope:?}");
    }
    if align != Align::Unsaid {
        let _ = write!(name, " {align:?}");
    }
    if (columns, rows) != (1, 1) {
        let _ = write!(name, " {columns}x{rows}");
    }
    name
}

impl Document {
    /// The headings of a document, in their order.
    ///
    /// ```
    /// use obblet::formats::markdown;
    ///
    /// let doc = markdown::read(b"# Tides\n\n## Spring", &markdown::Settings::GITHUB);
    /// assert_eq!(doc.outline()[1].text, "Spring");
    /// ```
    #[must_use]
    pub fn outline(&self) -> Vec<OutlineHeading> {
        let heading = |step| match step {
            Step::Enter(id) => match self.kind(id) {
                Kind::Heading(level) => Some((id, level)),
                _ => None,
            },
            Step::Leave(_) => None,
        };
        let one = |(id, level)| OutlineHeading {
            level,
            id: self.attributes(id).id.map(|id| self.text(id).to_owned()).unwrap_or_default(),
            text: self.heading_line(id),
        };
        self.walk(self.root()).filter_map(heading).map(one).collect()
    }

    /// The tree as text, a node a line, notes behind the body: to be read by people, and in tests.
    ///
    /// ```
    /// use obblet::formats::markdown;
    ///
    /// let doc = markdown::read(b"# Tides\n\nHigh at *six*.", &markdown::Settings::GITHUB);
    /// let dump = "Root\n  Heading 1\n    Text \"Tides\"\n  Paragraph\n    Text \"High at \"\n    Emphasis\n      Text \"six\"\n    Text \".\"\n";
    /// assert_eq!(doc.dump(), dump);
    /// ```
    #[must_use]
    pub fn dump(&self) -> String {
        let mut out = String::new();
        let mut depth = 0_usize;
        for step in self.walk_all() {
            match step {
                Step::Enter(id) => {
                    if let (0, Some(note)) = (depth, self.notes.iter().find(|note| note.body == id)) {
                        let _ = writeln!(out, "note {:?}", note.label);
                    }
                    match depth {
                        0..=DEEPEST_INDENT => out.extend(std::iter::repeat_n("  ", depth)),
                        _ => out.push_str(&format!("({depth}) ")),
                    }
                    let _ = self.dump_node(id, &mut out);
                    depth += 1;
                }
                Step::Leave(_) => depth -= 1,
            }
        }
        out
    }

    /// What the tables beside the tree say that is not said of single nodes: comments, sections and styles.
    #[must_use]
    pub fn dump_tables(&self) -> String {
        let mut out = String::new();
        for Comment { author, date, text, about, .. } in &self.comments {
            let _ = writeln!(out, "comment author={author:?} date={date:?} about={about:?} {text:?}");
        }
        for Section { page, margins, columns, parts, .. } in &self.sections {
            let _ = writeln!(out, "section page={page:?} margins={margins:?} columns={columns} parts={parts:?}");
        }
        for style in &self.style_definitions {
            let StyleDefinition { id, name, applies_to, based_on, next, outline_level, properties } = style;
            let _ = write!(out, "style {id:?} {name:?} {applies_to:?} based-on={based_on:?} next={next:?}");
            if let Some(level) = outline_level {
                let _ = write!(out, " level={level}");
            }
            for (index, (property, value)) in properties.iter().enumerate() {
                let _ = write!(out, "{} {}: {value}", if index == 0 { "" } else { ";" }, property.css_name());
            }
            out.push('\n');
        }
        out
    }

    fn dump_node(&self, id: NodeId, out: &mut String) -> fmt::Result {
        let (bare, texts) = self.kind(id).split();
        let name = match bare {
            Kind::TextLevel(level) => TextLevel::element(level).to_owned(),
            Kind::Cell(cell) => dump_cell(cell),
            Kind::List(list) if list.ordered => format!("List from {} {:?}", list.start, list.marker),
            Kind::List(_) => "List".to_owned(),
            Kind::RowGroup(group) => format!("{group:?}"),
            Kind::Heading(level) => format!("Heading {level}"),
            Kind::ListItem { checked: None } => "ListItem".to_owned(),
            Kind::ListItem { checked: Some(done) } => format!("ListItem {}", if done { "done" } else { "to do" }),
            Kind::Division(division) => format!("Division {division:?}"),
            Kind::Details { open } => if open { "Details open" } else { "Details" }.to_owned(),
            Kind::NoteReference(note) => {
                format!("NoteReference {:?}", self.notes.get(note.0 as usize).map_or("", |note| note.label.as_str()))
            }
            Kind::Math(_) => self.dump_formula(id),
            Kind::Raw { markup, .. } => format!("Raw {}", markup.name()),
            Kind::RawBlock { markup, .. } => format!("RawBlock {}", markup.name()),
            bare => format!("{bare:?}"),
        };
        // Their order says which text is which.
        let name = name.split_once([' ', '(']).filter(|_| name.contains("Text {")).map_or(name.as_str(), |cut| cut.0);
        out.write_str(name)?;
        for text in texts.into_iter().filter(|text| !text.is_empty()) {
            write!(out, " {:?}", self.text(text))?;
        }
        let Attributes { id: name, classes, language, direction, title, other } = self.attributes(id);
        if let Some(name) = name {
            write!(out, " #{}", self.text(*name))?;
        }
        for class in classes {
            write!(out, " .{}", self.text(*class))?;
        }
        for (key, value) in [("lang", language), ("title", title)] {
            if let Some(value) = value {
                write!(out, " {key}={:?}", self.text(*value))?;
            }
        }
        if let Some(direction) = direction {
            write!(out, " dir={}", direction.value())?;
        }
        if let Some(revision) = self.revisions.get(id) {
            write!(out, " revision={} author={:?} date={:?}", revision.kind.name(), revision.author, revision.date)?;
        }
        if let Some(numbering) = self.numberings.get(id) {
            write!(out, " numbering={}/{} {:?}", numbering.definition, numbering.level, numbering.text)?;
        }
        let widths: Vec<u32> = self.columns(id).iter().map(|column| column.width).collect();
        if widths.iter().any(|width| *width > 0) {
            write!(out, " widths={widths:?}")?;
        }
        if let Some(label) = self.labels.get(id) {
            write!(out, " label={:?}", label.text())?;
        }
        if let Some(reference) = self.references.get(id) {
            write!(out, " shows={}", reference.shows.name())?;
        }
        for (key, value) in other {
            write!(out, " {}={:?}", self.text(*key), self.text(*value))?;
        }
        writeln!(out)
    }

    /// What there is to say of a formula.
    fn dump_formula(&self, id: NodeId) -> String {
        let Kind::Math(formula) = self.kind(id) else { return String::new() };
        let formula = self.formula(formula);
        let mut name = format!("Math {}", formula.notation.name());
        if formula.display {
            name.push_str(" display");
        }
        let _ = write!(name, " {:?}", self.text(formula.characters));
        if !formula.number.is_empty() {
            let _ = write!(name, " number={:?}", self.text(formula.number));
        }
        name
    }

    /// Whether two nodes that are formulas hold the same one.
    fn is_same_formula(&self, own: NodeId, other: &Self, theirs: NodeId) -> bool {
        let (Kind::Math(own), Kind::Math(theirs)) = (self.kind(own), other.kind(theirs)) else { return true };
        let (own, theirs) = (self.formula(own), other.formula(theirs));
        (own.notation, own.display) == (theirs.notation, theirs.display)
            && self.text(own.source) == other.text(theirs.source)
            && self.text(own.number) == other.text(theirs.number)
    }

    fn is_same_node(&self, own: NodeId, other: &Self, theirs: NodeId) -> bool {
        let ((kind, texts), (other_kind, other_texts)) = (self.kind(own).split(), other.kind(theirs).split());
        let same_text = |own: Text, theirs: Text| self.text(own) == other.text(theirs);
        let same =
            |own: Option<Text>, theirs: Option<Text>| own.map(|text| self.text(text)) == theirs.map(|text| other.text(text));
        let (a, b) = (self.attributes(own), other.attributes(theirs));
        kind == other_kind
            && texts.iter().zip(other_texts).all(|(own, theirs)| same_text(*own, theirs))
            && same(a.id, b.id)
            && same(a.language, b.language)
            && same(a.title, b.title)
            && a.direction == b.direction
            && a.classes.len() == b.classes.len()
            && a.classes.iter().zip(&b.classes).all(|(own, theirs)| same_text(*own, *theirs))
            && a.other.len() == b.other.len()
            && a.other.iter().zip(&b.other).all(|(own, theirs)| same_text(own.0, theirs.0) && same_text(own.1, theirs.1))
            && {
                // How wide columns are is a matter of looks.
                let aligned = |doc: &Self, table| doc.columns(table).iter().map(|column| column.align).collect::<Vec<_>>();
                aligned(self, own) == aligned(other, theirs)
            }
            && self.is_same_formula(own, other, theirs)
    }
}

/// Documents are equal whose content is: metadata, styles, media, notes, and trees of the same kinds, texts and attributes.
/// Findings, places in the source and the numbers of nodes don't count.
impl PartialEq for Document {
    fn eq(&self, other: &Self) -> bool {
        let labels = |doc: &Self| doc.notes.iter().map(|note| note.label.clone()).collect::<Vec<_>>();
        let mut pairs = self.walk_all().zip(other.walk_all());
        self.metadata == other.metadata
            && self.styles == other.styles
            && self.media == other.media
            && labels(self) == labels(other)
            && self.walk_all().count() == other.walk_all().count()
            && pairs.all(|pair| match pair {
                (Step::Enter(own), Step::Enter(theirs)) => self.is_same_node(own, other, theirs),
                (Step::Leave(_), Step::Leave(_)) => true,
                _ => false,
            })
    }
}
