//! A document, taken apart into what can be compared.

use super::Category;
use crate::document::{CellKind, DivisionKind, Document, Kind, NodeId, Place, RowGroupKind, Step, TextLevel};
use crate::fast_hash::HashSet;
use crate::formats::html;
use crate::refine::structure;

/// One thing that a document has.
#[derive(Clone, Debug, PartialEq, Eq)]
pub(super) struct Unit {
    /// What makes it the same as another.
    pub(super) key: String,
    /// How people see it.
    pub(super) text: String,
    pub(super) place: Place,
}

/// The units of a document, by category.
pub(super) type Units = [Vec<Unit>; Category::ALL.len()];

/// Takes a document apart that is compared with another.
pub(super) fn of(doc: &Document, other: &Document) -> Units {
    let mut doc = doc.clone();
    html::open_raw(&mut doc);
    structure::repair(&mut doc);
    let held = doc.media.iter().chain(&other.media).map(|media| media.name.as_str()).collect();
    let mut taker = Taker { doc: &doc, units: Units::default(), held, lists: Vec::new(), quotes: 0, tables: Vec::new() };
    taker.tree(doc.root());
    for note in &doc.notes {
        let text = words(&doc.plain_text(note.body));
        taker.add(Category::Notes, note.body, text.clone(), text);
        taker.tree(note.body);
    }
    taker.units
}

struct Taker<'d> {
    doc: &'d Document,
    units: Units,
    /// Names of pictures that one of the documents holds. Such a picture is a file beside a page that is made of it.
    held: HashSet<&'d str>,
    lists: Vec<&'static str>,
    quotes: usize,
    /// For each open table, the row and the column of the last cell.
    tables: Vec<(usize, usize)>,
}

/// Words with single spaces between them.
fn words(text: &str) -> String {
    text.split(|c: char| c.is_whitespace() || c == '\u{A0}').filter(|word| !word.is_empty()).collect::<Vec<_>>().join(" ")
}

/// An address without what is only another way to write it.
fn address(href: &str) -> String {
    percent_encoding::percent_decode_str(href.trim()).decode_utf8_lossy().into_owned()
}

impl Taker<'_> {
    fn add(&mut self, category: Category, node: NodeId, key: String, text: String) {
        let place = self.doc.place(node);
        self.units[category as usize].push(Unit { key, text, place });
    }

    fn tree(&mut self, top: NodeId) {
        let doc = self.doc;
        for step in doc.walk(top) {
            match step {
                Step::Enter(id) => self.enter(id),
                Step::Leave(id) => self.leave(id),
            }
        }
    }

    fn enter(&mut self, id: NodeId) {
        let doc = self.doc;
        match doc.kind(id) {
            Kind::Heading(level) => {
                let text = words(&doc.plain_text(id));
                self.add(Category::Headings, id, format!("{level} {text}"), format!("{} {text}", "#".repeat(level.into())));
                self.line(id);
            }
            Kind::BlockQuote => self.quotes += 1,
            Kind::Division(DivisionKind::Callout(callout)) => {
                self.quotes += 1;
                self.add(Category::Styles, id, callout.word().to_owned(), format!("callout: {}", callout.word()));
            }
            Kind::List(list) => self.lists.push(if list.ordered { "1." } else { "-" }),
            Kind::ListItem { checked } => {
                let mark = match checked {
                    Some(true) => " [x]",
                    Some(false) => " [ ]",
                    None => "",
                };
                let sign = self.lists.last().copied().unwrap_or("-");
                let text = self.first_line(id);
                let shown = format!("{}{sign}{mark} {text}", "  ".repeat(self.lists.len().saturating_sub(1)));
                self.add(Category::Lists, id, shown.clone(), shown);
            }
            Kind::Term => {
                let text = format!("term: {}", words(&doc.plain_text(id)));
                self.add(Category::Lists, id, text.clone(), text);
                self.line(id);
            }
            Kind::CodeBlock { code, info } => {
                let text = doc.text(code).trim_end().to_owned();
                self.add(Category::Text, id, format!("code {text}"), text);
                let language = doc.text(info).split([' ', ',']).next().unwrap_or_default();
                if !language.is_empty() {
                    self.add(Category::Styles, id, format!("code {language}"), format!("code in {language}"));
                }
            }
            Kind::Table => self.tables.push((0, 0)),
            Kind::RowGroup(RowGroupKind::Foot) => {
                self.add(Category::Tables, id, "foot".to_owned(), "the foot of a table".to_owned())
            }
            Kind::Row => {
                if let Some((row, column)) = self.tables.last_mut() {
                    *row += 1;
                    *column = 0;
                }
            }
            Kind::Cell(cell) => self.cell(id, cell),
            Kind::Link { href } => {
                let (href, text) = (address(doc.text(href)), words(&doc.plain_text(id)));
                self.add(Category::Links, id, format!("{href} {text}"), format!("{text} -> {href}"));
            }
            Kind::Image { src, alt } => {
                let (src, alt) = (address(doc.text(src)), words(doc.text(alt)));
                let held = src.starts_with("data:") || self.held.contains(src.rsplit('/').next().unwrap_or(&src));
                let src = if held { "(in the document)".to_owned() } else { src };
                self.add(Category::Images, id, format!("{src} {alt}"), format!("{src}: {alt}"));
            }
            Kind::NoteReference(note) => {
                let text = doc.notes.get(note.0 as usize).map(|note| words(&doc.plain_text(note.body))).unwrap_or_default();
                self.add(Category::Notes, id, format!("mark {text}"), format!("mention of: {text}"));
            }
            kind => {
                if let Some(name) = style(kind) {
                    let text = words(&doc.plain_text(id));
                    if !text.is_empty() {
                        self.add(Category::Styles, id, format!("{name} {text}"), format!("{name}: {text}"));
                    }
                }
            }
        }
        let holds_line = doc.node(id).first_child().is_some_and(|first| doc.kind(first).is_inline());
        let own = matches!(doc.kind(id), Kind::Heading(_) | Kind::Term);
        if !doc.kind(id).is_inline() && holds_line && !own {
            self.line(id);
        }
    }

    fn leave(&mut self, id: NodeId) {
        match self.doc.kind(id) {
            Kind::BlockQuote | Kind::Division(DivisionKind::Callout(_)) => self.quotes -= 1,
            Kind::List(_) => {
                self.lists.pop();
            }
            Kind::Table => {
                self.tables.pop();
            }
            _ => {}
        }
    }

    /// The text that stands directly in a block.
    fn line(&mut self, id: NodeId) {
        let doc = self.doc;
        let mut runs: Vec<(NodeId, String)> = Vec::new();
        let mut after_block = true;
        for child in doc.children(id) {
            if !doc.kind(child).is_inline() {
                after_block = true;
                continue;
            }
            if std::mem::take(&mut after_block) {
                runs.push((child, String::new()));
            }
            if let Some((_, text)) = runs.last_mut() {
                text.push_str(&doc.plain_text(child));
            }
        }
        for (first, text) in runs {
            let text = words(&text);
            if !text.is_empty() {
                let place = if doc.place(id) == Place::Unknown { first } else { id };
                self.add(Category::Text, place, format!("{} {text}", self.quotes), text);
            }
        }
    }

    /// What an item says before it says more.
    fn first_line(&self, item: NodeId) -> String {
        let doc = self.doc;
        let mut text = String::new();
        for child in doc.children(item) {
            if doc.kind(child).is_inline() {
                text.push_str(&doc.plain_text(child));
            } else {
                if text.is_empty() && !matches!(doc.kind(child), Kind::List(_)) {
                    text = doc.plain_text(child);
                }
                break;
            }
        }
        words(&text)
    }

    fn cell(&mut self, id: NodeId, cell: CellKind) {
        let text = words(&self.doc.plain_text(id));
        let Some((row, column)) = self.tables.last_mut() else { return };
        let (row, at) = (*row, *column + 1);
        *column += usize::from(cell.columns);
        let spans =
            if cell.columns > 1 || cell.rows > 1 { format!(" ({} by {})", cell.columns, cell.rows) } else { String::new() };
        // A cell without words heads nothing.
        let header = if cell.header && !text.is_empty() { "header " } else { "" };
        let shown = format!("row {row}, column {at}: {header}{text}{spans}");
        self.add(Category::Tables, id, shown.clone(), shown);
    }
}

/// The name of formatting that people would miss.
fn style(kind: Kind) -> Option<&'static str> {
    Some(match kind {
        Kind::Emphasis => "emphasis",
        Kind::Strong => "strong",
        Kind::Underline => "underline",
        Kind::Strikethrough | Kind::Deletion => "deletion",
        Kind::Insertion => "insertion",
        Kind::Highlight => "highlight",
        Kind::Code(_) => "code",
        kind if kind.is_formula() => "formula",
        Kind::Subscript => "subscript",
        Kind::Superscript => "superscript",
        Kind::TextLevel(TextLevel::RubyParenthesis) => return None,
        Kind::TextLevel(level) => level.element(),
        _ => return None,
    })
}
