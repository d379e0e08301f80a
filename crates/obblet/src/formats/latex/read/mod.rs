//! Reading LaTeX: the source becomes tokens as it is read, commands that the document defines are written out, and what is left
//! becomes nodes. There is no recursion: what is to be done behind an argument is a token of its own.

mod accents;
mod algorithms;
mod arguments;
mod bibliography;
mod boxes;
mod build;
mod byline;
mod captions;
mod categories;
mod citation_marks;
mod citations;
mod cited_keys;
mod classes;
mod code_commands;
mod columns;
mod commands;
mod conditionals;
mod counters;
mod curriculum;
mod data;
mod definitions;
mod encoding;
mod entry_lists;
mod environment_names;
mod environments;
mod examples;
mod expansion;
mod floats;
mod formulas;
mod front_matter;
mod glossary;
mod include;
mod letters;
mod list_labels;
mod lists;
mod macros;
mod made_commands;
mod metadata;
mod phonetic;
mod programs;
mod quantities;
mod quotations;
mod reference_words;
mod references;
mod registers;
mod report;
mod requests;
mod resolved_citations;
mod settings;
mod shown_source;
mod strings;
mod symbols;
mod symbols_of_packages;
mod tables;
mod terms;
mod texts_of_packages;
mod theorems;
mod token_lists;
mod tokens;
mod verbatim;
mod vocabulary;

use super::Settings;
pub(crate) use accents::without_accent;
pub(crate) use bibliography::{heading_of_entries, id_of_entry};

use crate::document::{Document, Kind, NodeId, Text};
use crate::media::FilesAround;
use crate::utf8_source;
use build::Part;
pub(in crate::formats) use formulas::is_formula;
use macros::Macros;
pub(in crate::formats) use symbols::characters_of;
use tokens::{Input, Kind as Sign, Then};
pub(in crate::formats) use vocabulary::{is_layout, is_text_style};

/// Reads a LaTeX document. Any bytes are LaTeX; what is doubtful about them is in the findings.
///
/// ```
/// use obblet::document::Kind;
/// use obblet::formats::latex;
///
/// let doc = latex::read(b"\\section{The well}\nIt is \\emph{deep}.\n", &latex::Settings::default());
/// let first = doc.children(doc.root()).next().unwrap();
/// assert_eq!(doc.kind(first), Kind::Heading(1));
/// assert_eq!(doc.plain_text(first), "The well");
/// ```
#[must_use]
pub fn read(bytes: &[u8], settings: &Settings) -> Document {
    read_with(bytes, settings, &FilesAround::default())
}

/// Reads a LaTeX document with the files that it takes in.
#[must_use]
pub fn read_with(bytes: &[u8], _settings: &Settings, files: &FilesAround<'_>) -> Document {
    let decoded = encoding::decoded(bytes);
    let (source, mut doc) = utf8_source::open(decoded.as_deref().unwrap_or(bytes));
    let Some(expanded) = include::expand(&source, &mut doc, files) else {
        return Reader::new(&source, doc, files).run();
    };
    let mut whole = Document::with_pool(expanded.text.clone(), expanded.text.len() / 24 + 16);
    whole.source = doc.source.including(&source, expanded.inclusions);
    whole.findings = doc.findings;
    let mut reader = Reader::new(&expanded.text, whole, files);
    reader.macros.packages = expanded.packages;
    if let Some(known) = expanded.bibliography {
        reader.references.citations.know(known.entries, known.labels);
    }
    reader.run()
}

/// The characters that a few words of LaTeX show, such as a field of an entry.
pub(crate) fn readable(text: &str) -> String {
    if !text.contains(['\\', '{', '}', '~', '$', '-', '`', '\'']) {
        return text.to_owned();
    }
    let read = read(text.as_bytes(), &Settings::default());
    read.plain_text(read.root()).trim().to_owned()
}

/// Whether a command means something to the reader by its name.
pub(super) fn is_known(name: &str) -> bool {
    vocabulary::is_known(name)
}

/// An environment that has begun.
#[derive(Debug)]
struct Environment {
    name: String,
    kind: environments::Form,
    /// How many groups, and styles, were open before it.
    groups: usize,
    styles: usize,
    /// What was defined and set before it.
    before: Marks,
    node: Option<NodeId>,
}

/// A group that has begun.
#[derive(Debug)]
struct Group {
    /// How many styles held before it.
    styles: usize,
    /// What was defined and set before it.
    before: Marks,
    closing: Closing,
}

/// What quotation marks and hyphens become.
#[derive(Clone, Copy, Debug, PartialEq, Eq)]
enum MarksOfText {
    /// Those of printing, as the engine's own fonts have them.
    Printed,
    /// The same, with a straight quotation mark: fonts of the encoding T1 have one.
    WithStraight,
    /// What they are (the documentation of fontspec, "Ligatures").
    Exact,
}

impl MarksOfText {
    fn of(source: &str) -> Self {
        let holds = |words: &[u8]| memchr::memmem::find(source.as_bytes(), words).is_some();
        if holds(b"Ligatures=TeXOff") {
            Self::Exact
        } else if holds(b"[T1]{fontenc}") {
            Self::WithStraight
        } else {
            Self::Printed
        }
    }
}

/// How much was defined and set.
#[derive(Clone, Copy, Debug)]
struct Marks {
    commands: usize,
    numbers: usize,
}

/// What happens where a group ends, beside the end of its styles.
#[derive(Clone, Copy, Debug, PartialEq, Eq)]
enum Closing {
    Group,
    /// An argument of a command that is not known.
    Argument,
    /// A part of the document ends.
    Part(NodeId),
    /// Words are written.
    Text(&'static str),
    /// The lines within a line of an algorithm end; others may follow for what is not so.
    Lines {
        other: bool,
    },
}

/// What holds while commands are written out.
#[derive(Debug, Default)]
struct Expanding {
    /// Whether a formula is read.
    in_formula: bool,
    /// How many conditionals are open whose way is read.
    conditionals: usize,
    /// How deep what is read for commands stands within each other.
    depth: usize,
}

/// Reads one file.
struct Reader<'s> {
    input: Input<'s>,
    doc: Document,
    files: &'s FilesAround<'s>,
    macros: Macros,
    registers: registers::Registers,
    /// Where the token is that is read.
    at: u32,
    parts: Vec<Part>,
    /// Styles that hold, outermost first, and how many held before each that ends by itself.
    styles: Vec<Kind>,
    marks: Vec<usize>,
    groups: Vec<Group>,
    environments: Vec<Environment>,
    lists: Vec<lists::List>,
    tables: Vec<tables::Table>,
    counters: counters::Counters,
    references: references::References,
    /// The id of what comes next.
    pending_id: Option<Text>,
    front: metadata::FrontMatter,
    /// Marks of notes whose text comes later.
    footnotes: Vec<crate::document::NoteId>,
    /// What environments of the document itself end with, the innermost last.
    own_ends: Vec<std::rc::Rc<[tokens::Token]>>,
    own: definitions::Definitions,
    tallies: report::Tallies,
    has_ended: bool,
    /// What quotation marks and hyphens become.
    marks_of_text: MarksOfText,
    /// Whether the token before was an empty line.
    after_empty_line: bool,
    /// What holds while commands are written out.
    expanding: Expanding,
}

impl<'s> Reader<'s> {
    fn new(source: &'s str, doc: Document, files: &'s FilesAround<'s>) -> Self {
        let root = doc.root();
        let mut reader = Self {
            input: Input::new(source),
            doc,
            files,
            macros: Macros::of(source),
            registers: registers::Registers::default(),
            at: 0,
            parts: Vec::new(),
            styles: Vec::new(),
            marks: Vec::new(),
            groups: Vec::new(),
            environments: Vec::new(),
            lists: Vec::new(),
            tables: Vec::new(),
            counters: counters::Counters::of(source),
            references: references::References::default(),
            pending_id: None,
            front: metadata::FrontMatter::default(),
            footnotes: Vec::new(),
            own_ends: Vec::new(),
            own: definitions::Definitions::default(),
            tallies: report::Tallies::default(),
            has_ended: false,
            marks_of_text: MarksOfText::of(source),
            after_empty_line: false,
            expanding: Expanding::default(),
        };
        reader.own.equations = formulas::Equations::of(source);
        reader.begin_part(root, false);
        reader
    }

    fn run(mut self) -> Document {
        if memchr::memmem::find(self.input.source.as_bytes(), b"\\begin{document}").is_some() {
            self.preamble();
        }
        while !self.has_ended
            && let Some(token) = self.input.next()
        {
            self.step(token);
        }
        self.finish()
    }

    fn step(&mut self, token: tokens::Token) {
        self.at = token.at;
        let mut token = token;
        if self.tables.last().is_some_and(|table| table.is_pending) {
            let Some(first) = self.begins_cell_with(token) else { return };
            token = first;
        }
        let is_empty_line = match token.kind {
            Sign::Par => true,
            Sign::Space => self.after_empty_line,
            _ => false,
        };
        self.read_token(token);
        self.after_empty_line = is_empty_line;
    }

    fn read_token(&mut self, token: tokens::Token) {
        match token.kind {
            Sign::Text(start, end) => self.source_text(start, end),
            Sign::Space => self.text(" "),
            Sign::Par => self.paragraph_ends(),
            Sign::Tie => self.text("\u{A0}"),
            Sign::Char(c) => self.character(c),
            Sign::Begin => self.open_group(Closing::Group),
            Sign::End => self.end_group(),
            Sign::Dollar => self.dollar(),
            Sign::Cell => self.next_cell(),
            Sign::Parameter(number, _) => self.text(&format!("#{number}")),
            Sign::Command(name) => self.command(&name),
            Sign::Then(then) => match then {
                Then::LeaveStyle => {
                    if let Some(styles) = self.marks.pop() {
                        self.styles.truncate(styles);
                    }
                }
                Then::ClosePart => drop(self.end_part()),
                Then::EndEnvironment => self.environment_ends(),
            },
        }
    }

    const fn marks_here(&self) -> Marks {
        Marks { commands: self.macros.mark(), numbers: self.registers.mark() }
    }

    /// Commands and registers are what they were before a group.
    fn restore(&mut self, before: Marks) {
        self.macros.restore(before.commands);
        if self.registers.restore(before.numbers) {
            self.set_categories();
        }
    }

    fn open_group(&mut self, closing: Closing) {
        self.groups.push(Group { styles: self.styles.len(), before: self.marks_here(), closing });
    }

    fn end_group(&mut self) {
        let closes = self.groups.last().is_some_and(|group| !matches!(group.closing, Closing::Group | Closing::Argument));
        // What begins in an argument ends in it.
        while closes && self.environments.last().is_some_and(|environment| environment.groups >= self.groups.len()) {
            let name = self.environments.last().map(|environment| environment.name.clone()).unwrap_or_default();
            self.tallies.unclosed.add_apart(self.at, &name);
            self.environment_ends();
        }
        let inside = self.environments.last().map_or(0, |environment| environment.groups);
        if self.groups.len() > inside
            && let Some(group) = self.groups.pop()
        {
            match group.closing {
                Closing::Part(holder) => {
                    while self.parts.len() > 1 {
                        let ended = self.end_part();
                        if ended == Some(holder) || ended.is_none() {
                            break;
                        }
                    }
                }
                Closing::Text(words) => self.text(words),
                Closing::Lines { other } => self.lines_in_braces_end(other),
                Closing::Group | Closing::Argument => {}
            }
            self.styles.truncate(group.styles);
            self.restore(group.before);
            if group.closing == Closing::Argument {
                self.next_argument(true);
            }
        }
    }

    /// The arguments of a command that is not known are text; those behind the first are words of their own.
    fn next_argument(&mut self, is_behind: bool) {
        let Some(token) = self.input.next() else { return };
        if token.kind != Sign::Begin {
            return self.input.made.push(token);
        }
        if is_behind && self.is_in_text() {
            self.text(" ");
        }
        self.open_group(Closing::Argument);
    }

    fn paragraph_ends(&mut self) {
        if self.takes_blocks() {
            self.end_paragraph();
        } else {
            self.text(" ");
        }
    }

    /// A character that may be part of a ligature.
    fn character(&mut self, c: char) {
        if !self.own.code_marks.is_empty() && self.own.code_marks.contains(&c) && self.marked_code(c) {
            return;
        }
        if self.marks_of_text == MarksOfText::Exact || self.is_in_code() {
            return self.text(c.encode_utf8(&mut [0; 4]));
        }
        let mut next = |wanted: char| self.input.take(wanted);
        let words = match c {
            '`' if next('`') => "\u{201C}",
            '`' => "\u{2018}",
            '\'' if next('\'') => "\u{201D}",
            '\'' => "\u{2019}",
            '-' if next('-') => {
                if next('-') {
                    "\u{2014}"
                } else {
                    "\u{2013}"
                }
            }
            '?' if next('`') => "\u{BF}",
            '!' if next('`') => "\u{A1}",
            '<' if next('<') => "\u{AB}",
            '>' if next('>') => "\u{BB}",
            '"' => return self.shorthand(),
            _ => return self.text(c.encode_utf8(&mut [0; 4])),
        };
        self.text(words);
    }

    fn finish(mut self) -> Document {
        while self.parts.len() > 1 {
            self.end_part();
        }
        self.end_paragraph();
        self.close_tables();
        self.title_of_body();
        self.end_byline();
        self.fill_glossary();
        self.set_metadata();
        self.resolve_references();
        self.resolve_citations();
        self.tidy();
        self.report();
        self.doc.order_spans();
        self.doc
    }

    /// A paragraph that is all in another language is so itself.
    fn hoist_languages(&mut self) {
        let is_alone = |doc: &Document, id: NodeId| {
            let node = doc.node(id);
            let is_whole = node.previous().is_none() && node.next().is_none();
            is_whole
                && node.parent().is_some_and(|parent| doc.kind(parent) == Kind::Paragraph && !doc.node(parent).has_attributes())
        };
        let spans =
            self.doc.nodes().filter(|(id, node)| node.kind() == Kind::Span && node.has_attributes() && is_alone(&self.doc, *id));
        for span in spans.map(|(id, _)| id).collect::<Vec<_>>() {
            let attributes = self.doc.attributes(span).clone();
            if let Some(paragraph) =
                self.doc.node(span).parent().filter(|_| attributes.language.is_some() && attributes.classes.is_empty())
            {
                *self.doc.attributes_mut(paragraph) = attributes;
                self.doc.unwrap(span);
            }
        }
    }

    /// Code that holds nothing but characters is a leaf, and lists are loose where items have several paragraphs.
    fn tidy(&mut self) {
        let mut code = Vec::new();
        let mut lists = Vec::new();
        for (id, node) in self.doc.nodes() {
            match node.kind() {
                Kind::TextLevel(crate::document::TextLevel::Code) => code.push(id),
                Kind::List(kind) => lists.push((id, kind)),
                _ => {}
            }
        }
        for id in code {
            let text = self.doc.node(id).first_child().filter(|&only| self.doc.node(only).next().is_none());
            if let Some(Kind::Text(text)) = text.map(|only| self.doc.kind(only)) {
                while let Some(child) = self.doc.node(id).first_child() {
                    self.doc.detach(child);
                }
                self.doc.set_kind(id, Kind::Code(text));
            }
        }
        self.hoist_languages();
        for (list, kind) in lists {
            let paragraphs =
                |item: NodeId| self.doc.children(item).filter(|&child| self.doc.kind(child) == Kind::Paragraph).count();
            if self.doc.children(list).any(|item| paragraphs(item) > 1) {
                self.doc.set_kind(list, Kind::List(crate::document::ListKind { tight: false, ..kind }));
            }
        }
    }
}
