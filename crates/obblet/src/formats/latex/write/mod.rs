//! Writing LaTeX as a careful author does: a paragraph a line, packages only where they are needed, names for what is referred to.
//! The text is written first, since it tells what the preamble must have.

mod blocks;
mod citations;
mod equation_numbers;
mod escape;
mod formulas;
mod front_matter;
mod given_preamble;
mod inlines;
mod links;
mod list_labels;
mod numbers;
mod own_numbers;
mod preamble;
mod tables;
mod theorems;

use super::Settings;
use crate::document::{Document, Finding, Kind, NodeId, NoteId, Place, Step, Walk};
use crate::fast_hash::{HashMap, HashSet};
use crate::formats::Written;
use crate::refine::structure;
use escape::Marks;
use preamble::Needs;
use std::collections::BTreeMap;

/// What a writer is asked for beside the settings of the format.
#[derive(Clone, Copy, Debug, Default)]
pub struct Options<'a> {
    /// Whether the text alone is written, without a preamble.
    pub fragment: bool,
    /// The source of a document whose preamble this one gets.
    pub preamble: Option<&'a [u8]>,
    /// Images whose files are not there.
    pub missing_images: &'a [NodeId],
}

/// Writes a document as LaTeX, with its preamble. What LaTeX can't say is in the findings.
///
/// ```
/// use obblet::document::{Document, Kind};
/// use obblet::formats::latex;
///
/// let mut doc = Document::new();
/// let paragraph = doc.append(doc.root(), Kind::Paragraph);
/// doc.append_text(paragraph, "High water at ");
/// let strong = doc.append(paragraph, Kind::Strong);
/// doc.append_text(strong, "noon");
/// let written = latex::write(&doc, &latex::Settings::default());
/// let text = String::from_utf8(written.bytes).unwrap();
/// assert!(text.contains("\\begin{document}\n\nHigh water at \\textbf{noon}\n\n\\end{document}\n"));
/// ```
#[must_use]
pub fn write(doc: &Document, settings: &Settings) -> Written {
    write_with(doc, settings, Options::default())
}

/// Writes a document as LaTeX, or a part of one for another document.
#[must_use]
pub fn write_with(doc: &Document, settings: &Settings, options: Options<'_>) -> Written {
    let (doc, findings) = structure::repaired(doc);
    let given = options.preamble.map(given_preamble::GivenPreamble::of).unwrap_or_default();
    let mut writer = Writer::new(&doc, settings, options, &given);
    writer.front_matter();
    writer.trees.push(Tree::of(doc.walk(doc.root()), Inside::default()));
    writer.write_trees();
    writer.write_unmentioned();
    let mut written = Written { findings, ..Written::default() };
    written.findings.append(&mut writer.finish_findings());
    let text = writer.out.trim_end();
    let mut out = String::with_capacity(text.len() + 1024);
    if !options.fragment {
        out.push_str(&writer.preamble());
        out.push_str("\n\\begin{document}\n\n");
    }
    out.push_str(text.trim_start_matches('\n'));
    if !text.is_empty() {
        out.push('\n');
    }
    if !options.fragment {
        out.push_str("\n\\end{document}\n");
    }
    written.bytes = out.into_bytes();
    written
}

/// Where text stands, as far as it matters to what can be written.
#[derive(Clone, Copy, Debug, Default)]
struct Inside {
    /// Arguments of commands, cells and floats, in which neither verbatim text nor floats can stand.
    argument: usize,
    /// Floats and tables, whose notes stand behind them.
    floats: usize,
    /// Cells that are one line.
    line: usize,
    /// Arguments that the engine takes elsewhere: headings and captions.
    moving: usize,
}

/// What became of a node.
#[derive(Clone, Copy, Debug, PartialEq, Eq)]
enum Entry {
    /// It is written, and what is below it in turn.
    Written,
    /// What is below it is written as if it were not there.
    Open,
    /// It was written as a whole, or not at all.
    Skipped,
}

/// A tree that is being written: the document, or a note at the place that mentions it.
struct Tree<'d> {
    walk: Walk<'d>,
    /// What stands before it, until it is written, and behind it.
    begin: String,
    end: &'static str,
    /// What held where it was mentioned.
    inside: Inside,
}

impl<'d> Tree<'d> {
    const fn of(walk: Walk<'d>, inside: Inside) -> Self {
        Self { walk, begin: String::new(), end: "", inside }
    }
}

/// What stands before the text.
#[derive(Debug, Default)]
struct Front {
    /// Lines of the preamble for it.
    lines: Vec<String>,
    is_shown: bool,
    /// The heading that is the title, and by how many levels the others are lowered for it.
    title: Option<NodeId>,
    /// Whether what says who wrote the document is written now.
    is_byline: bool,
    /// What stands below it and says who wrote the document: the preamble says that.
    byline: Option<NodeId>,
    /// What stands below it and is the subtitle.
    subtitle: Option<NodeId>,
    lowered: u8,
    /// How many levels below the title are parts: one, or none.
    parts: u8,
    /// Whether the title is written now.
    is_open: bool,
}

/// Notes in the order of their numbers, and those whose text is still to come.
#[derive(Debug, Default)]
struct Notes {
    numbers: HashMap<NoteId, usize>,
    count: usize,
    waiting: Vec<(usize, NoteId)>,
}

/// What is written in another form than usual, since it can't stand where it does.
#[derive(Debug, Default)]
struct Instead {
    /// The heading that is only bold.
    bold_heading: Option<NodeId>,
    /// The summary that is the argument of its environment.
    summary: Option<NodeId>,
}

/// Writes one document.
struct Writer<'d> {
    doc: &'d Document,
    settings: &'d Settings,
    options: Options<'d>,
    given: &'d given_preamble::GivenPreamble<'d>,
    out: String,
    needs: Needs,
    marks: Marks,
    front: Front,
    has_chapters: bool,
    inside: Inside,
    numbers: numbers::Numbers<'d>,
    /// Where each open node begins in the text, and whether what is below it is written in turn.
    open: Vec<(usize, Entry)>,
    /// Places in the heading that is open, which stand behind it.
    places_of_heading: Vec<&'d str>,
    instead: Instead,
    lists: Vec<blocks::List>,
    tables: Vec<tables::Table>,
    notes: Notes,
    trees: Vec<Tree<'d>>,
    macros: crate::math::tex::Macros,
    /// Commands that formulas have.
    math_commands: HashSet<String>,
    implied: theorems::Implied,
    /// Nodes of text that blocks stand in.
    around_blocks: HashSet<NodeId>,
    no_syntax: BTreeMap<&'static str, (Place, usize)>,
    missing: HashSet<NodeId>,
}

/// A page may say so much before its title, such as when it was written.
const MOST_BEFORE_TITLE: usize = 200;

/// Whether a heading stands behind what is content of its own: then it is no title.
fn has_content_before(doc: &Document, heading: NodeId) -> bool {
    let mut characters = 0;
    for step in doc.walk(doc.root()) {
        let Step::Enter(id) = step else { continue };
        match doc.kind(id) {
            _ if id == heading => return false,
            Kind::Math(_) | Kind::Table | Kind::Figure | Kind::List(_) | Kind::TermList => return true,
            Kind::Text(text) => characters += doc.text(text).len(),
            _ => {}
        }
        if characters > MOST_BEFORE_TITLE {
            return true;
        }
    }
    false
}

impl<'d> Writer<'d> {
    fn new(
        doc: &'d Document,
        settings: &'d Settings,
        options: Options<'d>,
        given: &'d given_preamble::GivenPreamble<'d>,
    ) -> Self {
        let mut writer = Self {
            doc,
            settings,
            options,
            given,
            out: String::with_capacity(doc.pool().len() + doc.pool().len() / 4),
            needs: Needs::default(),
            marks: if options.fragment || given.text.is_some_and(|text| !text.contains("TeXOff")) {
                Marks::Escaped
            } else {
                Marks::Exact
            },
            front: Front::default(),
            has_chapters: false,
            inside: Inside::default(),
            numbers: numbers::Numbers::default(),
            open: Vec::new(),
            places_of_heading: Vec::new(),
            instead: Instead::default(),
            lists: Vec::new(),
            tables: Vec::new(),
            notes: Notes::default(),
            trees: Vec::new(),
            macros: crate::math::tex::Macros::default(),
            math_commands: HashSet::default(),
            implied: theorems::Implied::default(),
            around_blocks: HashSet::default(),
            no_syntax: BTreeMap::new(),
            missing: options.missing_images.iter().copied().collect(),
        };
        writer.find_blocks_in_text();
        writer.find_title();
        writer.find_parts();
        writer.find_chapters();
        let defines = !writer.options.fragment && writer.given.text.is_none();
        writer.numbers = numbers::Numbers::of(doc, writer.front.title, writer.front.lowered, writer.has_chapters, defines);
        if !writer.numbers.floats.is_empty() {
            writer.needs.packages.insert("float");
        }
        if !writer.numbers.settings_of_captions(doc).is_empty() && !writer.options.fragment {
            writer.needs.packages.insert("caption");
        }
        writer.number_theorems();
        writer
    }

    /// Finds nodes of text in which blocks stand.
    fn find_blocks_in_text(&mut self) {
        let doc = self.doc;
        for (id, _) in doc.nodes().filter(|(_, node)| !node.kind().is_inline()) {
            let mut at = doc.node(id).parent();
            while let Some(above) = at.filter(|&above| doc.kind(above).is_inline()) {
                if !self.around_blocks.insert(above) {
                    break;
                }
                at = doc.node(above).parent();
            }
        }
    }

    /// The title: the first heading, where it is the only one of the first level.
    fn find_title(&mut self) {
        let doc = self.doc;
        if self.options.fragment {
            return;
        }
        let mut headings = doc.walk(doc.root()).filter_map(|step| match step {
            Step::Enter(id) => match doc.kind(id) {
                Kind::Heading(level) if !blocks::is_hollow(doc, id) => Some((id, level)),
                _ => None,
            },
            Step::Leave(_) => None,
        });
        let Some((first, 1)) = headings.next() else { return };
        let is_whole = doc.node(first).parent().is_some_and(|parent| matches!(doc.kind(parent), Kind::Root | Kind::Division(_)));
        if is_whole
            && doc.node(first).first_child().is_some()
            && !self.is_counted_heading(first)
            && headings.all(|(_, level)| level > 1)
            && !has_content_before(doc, first)
            && !doc.node(first).next().is_some_and(|next| matches!(doc.kind(next), Kind::List(_)) && self.is_bibliography(next))
        {
            (self.front.title, self.front.lowered) = (Some(first), 1);
        }
    }

    /// Whether a heading of the highest level is counted as the others are.
    fn is_counted_heading(&self, id: NodeId) -> bool {
        let doc = self.doc;
        let has = |class: &str| doc.is_of_class(id, class);
        let is_title = matches!(doc.layout_hints.of(id).part, crate::document::HintRole::Title { .. });
        let all_are = doc.metadata.presentation.numbered_levels.is_some_and(|levels| levels > 0) && !has("unnumbered");
        !is_title && (all_are || ["appendix", "part", crate::heading_count::OWN_NUMBER].iter().any(|class| has(class)))
    }

    /// Whether the highest headings are parts, below which the others count on.
    fn find_parts(&mut self) {
        let doc = self.doc;
        let highest = self.front.lowered + 1;
        let has_parts = doc.metadata.presentation.numbered_levels.is_some_and(|levels| levels > 0)
            && doc.nodes().any(|(id, node)| node.kind() == Kind::Heading(highest) && numbers::number_of_part(doc, id).is_some());
        self.front.parts = u8::from(has_parts);
        self.front.lowered += self.front.parts;
    }

    /// Whether headings are so deep that the highest are chapters.
    fn find_chapters(&mut self) {
        let class = self.settings.class.rsplit(']').next().unwrap_or_default().trim();
        let own_class = self.given.class.unwrap_or(class);
        self.has_chapters = if own_class.is_empty() {
            let deepest =
                self.doc.nodes().filter(|(_, node)| node.parent().is_some()).filter_map(|(_, node)| match node.kind() {
                    Kind::Heading(level) => Some(level),
                    _ => None,
                });
            !self.options.fragment && deepest.max().unwrap_or(0) > 5 + self.front.lowered
        } else {
            matches!(own_class, "report" | "book" | "memoir" | "scrreprt" | "scrbook" | "extreport" | "extbook")
        };
    }

    /// Writes all trees.
    fn write_trees(&mut self) {
        while let Some(tree) = self.trees.last_mut() {
            if !tree.begin.is_empty() {
                self.out.push_str(&std::mem::take(&mut tree.begin));
                tree.inside = self.inside;
                self.inside.argument += 1;
            }
            match tree.walk.next() {
                Some(Step::Enter(id)) => {
                    let (begins, at) = (self.out.len(), self.trees.len() - 1);
                    let entry = if self.is_text_alone(id) {
                        self.enter_in_argument(id)
                    } else if self.enter(id) {
                        Entry::Written
                    } else {
                        Entry::Skipped
                    };
                    self.open.push((begins, entry));
                    if entry == Entry::Skipped
                        && let Some(tree) = self.trees.get_mut(at)
                    {
                        tree.walk.skip_children(id);
                    }
                }
                Some(Step::Leave(id)) => {
                    if let Some((begins, Entry::Written)) = self.open.pop() {
                        self.leave(id, begins);
                    }
                    if !self.doc.kind(id).is_inline() {
                        self.write_waiting();
                    }
                }
                None => {
                    if let Some(tree) = self.trees.pop()
                        && !tree.end.is_empty()
                    {
                        self.out.truncate(self.out.trim_end_matches(['\n', ' ']).len());
                        self.out.push_str(tree.end);
                        self.inside = tree.inside;
                    }
                }
            }
        }
    }

    /// A note that text mentions.
    fn note(&mut self, note: NoteId, mention: NodeId) {
        let Some(body) = self.doc.notes.get(note.0 as usize).map(|note| note.body) else { return };
        if let Some(number) = self.notes.numbers.get(&note) {
            self.out.push_str(&format!("\\footnotemark[{number}]"));
            return;
        }
        if self.front.is_open {
            self.notes.numbers.insert(note, 0);
            let begin = "\\thanks{".to_owned();
            self.trees.push(Tree { walk: self.doc.walk(body), begin, end: "}", inside: self.inside });
            return;
        }
        self.notes.count += 1;
        let number = self.notes.count;
        self.notes.numbers.insert(note, number);
        // No paragraph ends within the argument of a command for text.
        let has_paragraphs = self.holds_blocks(body) && !self.is_paragraph_alone(body);
        let is_in_command = self.doc.node(mention).parent().is_some_and(|parent| self.doc.kind(parent).is_inline());
        if is_in_command && has_paragraphs || self.inside.floats > 0 || self.inside.moving > 0 || self.inside.argument > 0 {
            self.out.push_str("\\footnotemark{}");
            self.notes.waiting.push((number, note));
            return;
        }
        self.trees.push(Tree { walk: self.doc.walk(body), begin: "\\footnote{".to_owned(), end: "}", inside: self.inside });
    }

    /// Whether all that a node holds is one paragraph.
    fn is_paragraph_alone(&self, id: NodeId) -> bool {
        let mut children = self.doc.children(id);
        matches!((children.next().map(|child| self.doc.kind(child)), children.next()), (Some(Kind::Paragraph), None))
    }

    /// Notes that nothing mentions stand at the end.
    fn write_unmentioned(&mut self) {
        for (at, note) in self.doc.notes.iter().enumerate() {
            let id = NoteId(at as u32);
            let says_something = || {
                let has_image = self
                    .doc
                    .walk(note.body)
                    .any(|step| matches!(step, Step::Enter(id) if matches!(self.doc.kind(id), Kind::Image { .. })));
                has_image || !self.doc.plain_text(note.body).trim().is_empty()
            };
            if !self.notes.numbers.contains_key(&id) && says_something() {
                self.notes.count += 1;
                self.notes.numbers.insert(id, self.notes.count);
                self.notes.waiting.push((self.notes.count, id));
            }
        }
        self.inside = Inside::default();
        self.write_waiting();
        self.write_trees();
    }

    /// Notes that floats, tables and headings mention stand behind them.
    fn write_waiting(&mut self) {
        if self.notes.waiting.is_empty()
            || self.front.is_open
            || self.inside.moving > 0
            || self.inside.floats > 0
            || self.inside.argument > 0
        {
            return;
        }
        for (number, note) in std::mem::take(&mut self.notes.waiting).into_iter().rev() {
            let Some(body) = self.doc.notes.get(note.0 as usize).map(|note| note.body) else { continue };
            let begin = format!("\\footnotetext[{number}]{{");
            self.trees.push(Tree { walk: self.doc.walk(body), begin, end: "}\n", inside: self.inside });
        }
        if !self.out.ends_with('\n') {
            self.out.push('\n');
        }
    }

    /// Notes that LaTeX can't say something; each sort is reported once.
    fn no_syntax(&mut self, what: &'static str, id: NodeId) {
        let place = self.doc.place(id);
        self.no_syntax.entry(what).or_insert((place, 0)).1 += 1;
    }

    fn finish_findings(&mut self) -> Vec<Finding> {
        std::mem::take(&mut self.no_syntax)
            .into_iter()
            .map(|(what, (place, count))| {
                Finding::changed("latex.no-syntax", format!("LaTeX has no syntax for {what}: {count}")).at(place)
            })
            .collect()
    }
}
