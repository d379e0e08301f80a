//! Writing text: blocks line by line.

use super::{MathLine, Settings, Written, table};
use crate::document::{
    Callout, DivisionKind, Document, Finding, Formula, HintRole, Kind, ListKind, ListNumbering, NodeId, NoteId, Place, Step,
    TextLevel,
};
use crate::fast_hash::HashMap;
use crate::heading_count::HeadingCount;
use crate::indent_writer::{Lines, fold};
use crate::numeral::numeral;
use crate::refine::structure;
use std::collections::BTreeMap;
use unicode_width::UnicodeWidthStr;

/// Writes a document as text.
///
/// ```
/// use obblet::document::{Document, Kind};
/// use obblet::formats::text;
///
/// let mut doc = Document::new();
/// let heading = doc.append(doc.root(), Kind::Heading(1));
/// doc.append_text(heading, "Tides");
/// let paragraph = doc.append(doc.root(), Kind::Paragraph);
/// doc.append_link(paragraph, "tables.html", "Tables");
/// let written = text::write(&doc, &text::Settings::default());
/// assert_eq!(written.text, "Tides\n=====\n\nTables [1]\n\n[1] tables.html\n");
/// ```
#[must_use]
pub fn write(doc: &Document, settings: &Settings) -> Written {
    let (doc, mut findings) = structure::repaired(doc);
    let mut writer = Writer {
        doc: &doc,
        settings,
        out: Lines::default(),
        begun: vec![Begun::default()],
        lists: Vec::new(),
        headings: HeadingCount::default(),
        addresses: Vec::new(),
        known: HashMap::default(),
        raw: 0,
        macros: crate::math::tex::Macros::of(&doc.metadata.macros).with_numbers(&doc.metadata.equation_numbers),
        no_syntax: BTreeMap::new(),
    };
    if let Some(title) = doc.metadata.title.as_deref().filter(|title| doc.first_heading().as_deref() != Some(title)) {
        writer.heading(1, title);
    }
    writer.tree(doc.root());
    writer.notes();
    writer.addresses();
    let no_syntax = std::mem::take(&mut writer.no_syntax);
    findings.extend(no_syntax.into_iter().map(|(no_syntax, (count, place))| no_syntax.finding(count).at(place)));
    if writer.raw > 0 {
        findings.push(Finding::changed("text.raw", "raw markup was written as it is"));
    }
    if writer.out.was_too_deep() {
        findings.push(Finding::changed("text.too-deep", "block quotes and lists nested too deeply are not indented further"));
    }
    Written { text: writer.out.finish(), findings }
}

/// What has been written in a block.
#[derive(Clone, Copy, Debug, Default)]
struct Begun {
    any: bool,
    tight: bool,
}

/// A list that is open.
#[derive(Clone, Copy, Debug)]
struct OpenList<'d> {
    kind: ListKind,
    /// The number of the next item.
    next: i64,
    /// What stands before and behind the numbers, where the source says so.
    around: Option<(&'d str, &'d str)>,
}

/// Writes one document.
pub(super) struct Writer<'d> {
    pub(super) doc: &'d Document,
    settings: &'d Settings,
    out: Lines,
    begun: Vec<Begun>,
    /// Lists that are open, the innermost last.
    lists: Vec<OpenList<'d>>,
    headings: HeadingCount,
    addresses: Vec<String>,
    known: HashMap<String, usize>,
    raw: usize,
    /// What formulas may use.
    macros: crate::math::tex::Macros,
    /// What text has no way to say, how often, and where first.
    no_syntax: BTreeMap<Unsaid, (usize, Place)>,
}

/// Formatting that means something and is not to be seen in text.
#[derive(Clone, Copy, Debug, PartialEq, Eq, PartialOrd, Ord)]
enum Unsaid {
    Deletion,
    Insertion,
    Ruby,
    Script,
}

impl Unsaid {
    fn finding(self, count: usize) -> Finding {
        let (code, message, hint) = match self {
            Self::Deletion => (
                "text.deletion",
                "text that is deleted or struck through is like any other",
                "clean.revisions decides what becomes of deletions; take out by hand what no longer holds",
            ),
            Self::Insertion => ("text.insertion", "text that is inserted is like any other", ""),
            Self::Ruby => ("text.ruby", "annotations of letters (ruby) stand behind them in parentheses", ""),
            Self::Script => ("text.script", "subscripts and superscripts stand in the line", "check formulas and units"),
        };
        Finding::changed(code, format!("{message}: {count}")).hint(hint)
    }
}

impl Writer<'_> {
    fn tree(&mut self, top: NodeId) {
        let doc = self.doc;
        let mut walk = doc.walk(top);
        // Where a run of text that stands beside blocks has been written up to.
        let mut written: Option<NodeId> = None;
        while let Some(step) = walk.next() {
            match step {
                Step::Enter(id) if id == top => {}
                Step::Leave(id) if id == top => {}
                Step::Enter(id) if doc.kind(id).is_inline() => {
                    walk.skip_children(id);
                    if written.is_none() {
                        let run: Vec<NodeId> = std::iter::successors(Some(id), |&at| doc.node(at).next())
                            .take_while(|&at| doc.kind(at).is_inline())
                            .collect();
                        self.paragraph(&run);
                        written = run.last().copied();
                    }
                    if written == Some(id) {
                        written = None;
                    }
                }
                Step::Enter(id) => {
                    if !self.enter(id) {
                        walk.skip_children(id);
                    }
                }
                Step::Leave(id) => self.leave(id),
            }
        }
    }

    fn begin(&mut self) {
        let Some(begun) = self.begun.last_mut() else { return };
        if begun.any && !begun.tight {
            self.out.line("");
        }
        begun.any = true;
    }

    fn enter(&mut self, id: NodeId) -> bool {
        let doc = self.doc;
        match doc.kind(id) {
            Kind::Paragraph | Kind::Term | Kind::Summary | Kind::Caption => {
                let children: Vec<NodeId> = doc.children(id).collect();
                self.paragraph(&children);
                return false;
            }
            Kind::Heading(level) => {
                let children: Vec<NodeId> = doc.children(id).collect();
                let text = self.inline(&children).replace('\n', " ");
                let number = self.number(id, level);
                let text = if number.is_empty() || text.trim().is_empty() { text } else { format!("{number} {}", text.trim()) };
                self.heading(level, text.trim());
                return false;
            }
            Kind::BlockQuote => self.open("> ", "> ", false),
            Kind::TermDescription => {
                // Right below its term.
                self.out.push("    ", "    ");
                self.begun.push(Begun::default());
            }
            Kind::Division(DivisionKind::Callout(callout)) => {
                self.open("| ", "| ", false);
                self.callout(callout);
            }
            Kind::List(list) => {
                self.begin();
                let around = self.doc.numberings.get(id).and_then(ListNumbering::around);
                self.lists.push(OpenList { kind: list, next: list.start.into(), around });
                self.begun.push(Begun { any: false, tight: list.tight });
            }
            Kind::ListItem { checked } => self.item(checked),
            Kind::CodeBlock { code, .. } => {
                self.begin();
                self.out.push("    ", "    ");
                self.out.lines(doc.text(code));
                self.out.pop();
            }
            Kind::Preformatted => {
                self.begin();
                self.out.lines(&doc.plain_text(id));
                return false;
            }
            Kind::RawBlock { raw, .. } => {
                self.raw += 1;
                self.begin();
                self.out.lines(doc.text(raw));
            }
            Kind::ThematicBreak => {
                self.begin();
                self.out.line("* * *");
            }
            Kind::Table => {
                self.begin();
                let width = self.width();
                let (caption, rows) = self.rows(id);
                let lines =
                    if doc.is_of_class(id, crate::document::GLOSS) { table::aligned(&rows) } else { table::draw(&rows, width) };
                for line in caption.into_iter().flat_map(|caption| fold(&caption, width)).chain(lines) {
                    self.out.line(&line);
                }
                return false;
            }
            _ => {}
        }
        true
    }

    fn leave(&mut self, id: NodeId) {
        match self.doc.kind(id) {
            Kind::BlockQuote | Kind::Division(DivisionKind::Callout(_)) | Kind::ListItem { .. } | Kind::TermDescription => {
                self.begun.pop();
                self.out.pop();
            }
            Kind::List(_) => {
                self.lists.pop();
                self.begun.pop();
            }
            _ => {}
        }
    }

    fn open(&mut self, first: &str, rest: &str, tight: bool) {
        self.begin();
        self.out.push(first, rest);
        self.begun.push(Begun { any: false, tight });
    }

    fn callout(&mut self, callout: Callout) {
        self.begin();
        self.out.line(&callout.word().to_uppercase());
    }

    fn item(&mut self, checked: Option<bool>) {
        let tight = self.begun.last().is_some_and(|begun| begun.tight);
        let mut marker = String::from("- ");
        if let Some(list) = self.lists.last_mut() {
            if list.kind.ordered {
                let shown = numeral(list.next, list.kind.marker);
                // Where the source says so, other signs stand around the number; those of other levels are not known.
                marker = match list.around {
                    Some((before, after)) => format!("{before}{shown}{after} "),
                    None => format!("{shown}. "),
                };
            }
            list.next += 1;
        }
        match checked {
            Some(true) => marker.push_str("[x] "),
            Some(false) => marker.push_str("[ ] "),
            None => {}
        }
        self.open(&marker, &" ".repeat(marker.width()), tight);
    }

    /// The number of a heading, where the source says that headings have numbers.
    fn number(&mut self, id: NodeId, level: u8) -> String {
        let written = self.headings.step(level.clamp(1, 6));
        let levels = self.doc.metadata.presentation.numbered_levels.unwrap_or(0);
        let has_none =
            matches!(self.doc.layout_hints.of(id).part, HintRole::Title { .. }) || self.doc.is_of_class(id, "unnumbered");
        if has_none { String::new() } else { self.headings.number(written, levels) }
    }

    fn heading(&mut self, level: u8, text: &str) {
        if text.is_empty() {
            return;
        }
        self.begin();
        self.out.line(text);
        if level <= 2 {
            self.out.line(&if level == 1 { "=" } else { "-" }.repeat(text.width()));
        }
    }

    fn width(&self) -> usize {
        match self.settings.width {
            0 => 0,
            width => usize::from(width).saturating_sub(self.out.indentation()).max(20),
        }
    }

    fn paragraph(&mut self, nodes: &[NodeId]) {
        let text = self.inline(nodes);
        if text.trim().is_empty() {
            return;
        }
        self.begin();
        for line in fold(&text, self.width()) {
            self.out.line(&line);
        }
    }

    /// The text of a line; what was broken by hand is broken by a line separator.
    pub(super) fn inline(&mut self, nodes: &[NodeId]) -> String {
        let doc = self.doc;
        let quotation = crate::quotation_marks::of(doc.metadata.language.as_deref().unwrap_or_default()).double;
        let mut out = String::new();
        let mut after_display = false;
        for &top in nodes {
            for step in doc.walk(top) {
                match step {
                    Step::Enter(id) => match doc.kind(id) {
                        Kind::Text(text) | Kind::Code(text) => {
                            let text = doc.text(text);
                            if std::mem::take(&mut after_display) && text.starts_with(|c: char| c.is_alphanumeric() || c == '(') {
                                out.push(' ');
                            }
                            out.push_str(text);
                        }
                        Kind::Image { alt, .. } if !alt.is_empty() => out.push_str(&format!("[{}]", doc.text(alt))),
                        Kind::Math(formula) => {
                            // One on lines of its own stands apart from the text.
                            let is_apart = |out: &str| out.is_empty() || out.ends_with(char::is_whitespace);
                            let formula = doc.formula(formula);
                            if formula.display && !is_apart(&out) {
                                out.push(' ');
                            }
                            out.push_str(&self.formula(formula));
                            after_display = formula.display;
                        }
                        Kind::SoftBreak => out.push(' '),
                        Kind::LineBreak => out.push('\u{2028}'),
                        Kind::NoteReference(NoteId(note)) => {
                            let space = if out.is_empty() || out.ends_with(char::is_whitespace) { "" } else { " " };
                            out.push_str(&format!("{space}(note {})", note + 1));
                        }
                        Kind::Raw { raw, .. } if !doc.text(raw).starts_with('<') => out.push_str(doc.text(raw)),
                        Kind::TextLevel(TextLevel::Quotation) => out.push_str(quotation.0),
                        Kind::TextLevel(TextLevel::RubyText) => {
                            self.no_syntax(Unsaid::Ruby, id);
                            if !self.has_parentheses(id) {
                                out.push('(');
                            }
                        }
                        Kind::Strikethrough | Kind::Deletion => self.no_syntax(Unsaid::Deletion, id),
                        Kind::Insertion => self.no_syntax(Unsaid::Insertion, id),
                        // A power, and not a digit more.
                        Kind::Superscript if out.ends_with(char::is_alphanumeric) && is_number(&doc.plain_text(id)) => {
                            out.push('^')
                        }
                        Kind::Subscript | Kind::Superscript => self.no_syntax(Unsaid::Script, id),
                        _ => {}
                    },
                    Step::Leave(id) => match doc.kind(id) {
                        Kind::Link { href } => {
                            let mark = self.address(doc.text(href), &doc.plain_text(id));
                            out.push_str(&mark);
                        }
                        Kind::TextLevel(TextLevel::Quotation) => out.push_str(quotation.1),
                        Kind::TextLevel(TextLevel::RubyText) if !self.has_parentheses(id) => out.push(')'),
                        _ => {}
                    },
                }
            }
        }
        out
    }

    /// Counts something that text has no way to say.
    fn no_syntax(&mut self, what: Unsaid, node: NodeId) {
        let doc = self.doc;
        self.no_syntax.entry(what).or_insert_with(|| (0, doc.place(node))).0 += 1;
    }

    /// Whether the document has parentheses of its own around an annotation.
    fn has_parentheses(&self, annotation: NodeId) -> bool {
        let before = self.doc.node(annotation).previous();
        before.is_some_and(|before| self.doc.kind(before) == Kind::TextLevel(TextLevel::RubyParenthesis))
    }

    /// The mark behind the text of a link; none where the text says where it leads, or where it leads nowhere else.
    fn address(&mut self, href: &str, text: &str) -> String {
        let bare = href.strip_prefix("mailto:").unwrap_or(href);
        if href.is_empty() || href.starts_with('#') || text.trim() == bare {
            return String::new();
        }
        let next = self.addresses.len() + 1;
        let number = *self.known.entry(href.to_owned()).or_insert(next);
        if number == next {
            self.addresses.push(href.to_owned());
        }
        format!(" [{number}]")
    }

    fn notes(&mut self) {
        for index in 0..self.doc.notes.len() {
            let marker = format!("(note {}) ", index + 1);
            self.open(&marker, &" ".repeat(4), false);
            let body = self.doc.notes[index].body;
            self.tree(body);
            self.begun.pop();
            self.out.pop();
        }
    }

    fn addresses(&mut self) {
        for (index, address) in std::mem::take(&mut self.addresses).into_iter().enumerate() {
            if index == 0 {
                self.begin();
            }
            self.out.line(&format!("[{}] {address}", index + 1));
        }
    }
}

fn is_number(text: &str) -> bool {
    let text = text.trim_start_matches(['-', '+', '\u{2212}']);
    !text.is_empty() && text.bytes().all(|byte| byte.is_ascii_digit())
}

impl Writer<'_> {
    /// A formula: its source in TeX, or a line of characters.
    fn formula(&self, formula: Formula) -> String {
        let source = self.doc.text(formula.source);
        if self.settings.math == MathLine::Tex {
            return crate::math::to_tex(formula.notation, source).into_owned();
        }
        let (mut math, problems) = crate::math::read(formula.notation, source, &mut self.macros.clone());
        math.number_from(self.doc.text(formula.number));
        // What can't be parsed is said as its source has it.
        if problems.is_empty() && !math.body.is_empty() { crate::math::plain(&math) } else { source.to_owned() }
    }
}
