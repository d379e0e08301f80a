//! The model: what every reader makes, every pass changes and every writer reads.
//!
//! A [`Document`] is an arena of [`Node`]s in one `Vec`, linked by [`NodeId`]s, and one string pool that all text of the
//! nodes lives in. Making a node is a push; wrapping, moving and removing one relinks a handful of numbers; dropping a
//! document frees a few vectors however many nodes it has.
//!
//! Invariants that readers and passes keep and writers may rely on:
//!
//! * The links are consistent: each child names its parent, and siblings name each other. Only the methods of
//!   [`Document`] write links.
//! * A [`Text`] is a valid range of the pool, on character boundaries.
//! * Readers leave no empty text node and no two text nodes side by side.
//!
//! What is *not* promised is that the tree makes sense as HTML: a table may stand in a heading. Writers take any tree and
//! repair what their format cannot say.
//!
//! Nothing here recurses over the depth of a tree; [`Walk`] visits nodes in steps of entering and leaving.

mod attributes;
mod bibliography;
mod byline;
mod class_names;
mod content;
mod copy;
mod finding;
mod formula;
mod kind;
mod kind_set;
mod layout_hints;
mod metadata;
mod node;
mod node_table;
mod references;
mod source_map;
mod source_tables;
mod spans;
mod style_names;
mod style_properties;
mod tasks;
mod tree;
mod walk;
pub(crate) mod white_space;

pub use attributes::{Attributes, AttributesId};
pub use bibliography::{
    Bibliography, BibliographyStyle, Citation, CitationForm, CitationStyle, CitedEntry, EntryForm, EntryOrder,
};
pub use byline::BYLINE;
pub(crate) use class_names::{ALGORITHM, GLOSS, says_what_it_is};
pub use content::OutlineHeading;
pub(crate) use finding::finding;
pub use finding::{Finding, FindingInfo, Weight};
pub use formula::{Formula, FormulaId, Markup};
pub use kind::{Align, Callout, CellKind, DivisionKind, Kind, ListKind, Marker, NoteId, RowGroupKind, Scope, TextLevel};
pub(crate) use kind_set::KindSet;
pub use layout_hints::{HintRole, LayoutHint, LayoutHints, Producer};
pub use metadata::{Direction, Metadata, Presentation};
pub use node::{Node, NodeId, Text};
pub use node_table::NodeTable;
pub use references::{Counter, CrossReference, Label, Shows};
pub use source_map::{Inclusion, PARTS, Place, SourceMap, SourcePart, Span};
pub use source_tables::{
    Comment, ListNumbering, PagePlace, PageText, Pages, Revision, RevisionKind, Section, StyleDefinition, StyleUse,
};
pub(crate) use style_names::{STYLE_NAME, needs_name, style_name_of_class};
pub use style_properties::{Edge, Line, Measure, Property, StyleProperties, TabAlign, TabStop, Underline, Value};
pub use tasks::Task;
pub use walk::{Step, Walk};

use crate::fast_hash::HashMap;

/// A style that the source document names, such as a word processor's paragraph style.
#[derive(Clone, Debug, Default, PartialEq, Eq)]
pub struct NamedStyle {
    /// The name as people see it in the source program.
    pub name: String,
    /// The class that stands for the style in HTML; empty for the looks of the whole page.
    pub class: String,
    /// What it sets, in the order in which that is written.
    pub properties: StyleProperties,
    /// Whether it is for the bullet or the number before an item, and not for the text of it.
    pub of_marker: bool,
    /// How the numbers of a list are written, where HTML has no word for it.
    pub numbers: Option<NumberStyle>,
}

/// How numbers are written (CSS Counter Styles, section 3): a way of counting, and what stands around each number.
#[derive(Clone, Debug, PartialEq, Eq, Hash)]
pub struct NumberStyle {
    /// The way of counting, by the name that style sheets have for it.
    pub like: String,
    /// What stands before the number.
    pub before: String,
    /// What stands behind it.
    pub after: String,
}

/// The name of a file that travels inside a document: its index in [`Document::media`].
#[derive(Clone, Copy, Debug, PartialEq, Eq, Hash, PartialOrd, Ord)]
pub struct MediaId(pub u32);

/// An image or other file that travels inside the document.
#[derive(Clone, Debug, PartialEq, Eq)]
pub struct Media {
    /// Its file name.
    pub name: String,
    /// Its bytes.
    pub bytes: Vec<u8>,
    /// The file of the source, where this one was made of it because browsers do not show that one.
    pub original: Option<Box<Original>>,
}

/// A file of the source that another one was made of.
#[derive(Clone, Debug, PartialEq, Eq)]
pub struct Original {
    /// Its file name.
    pub name: String,
    /// The bytes as they were found.
    pub bytes: Vec<u8>,
    /// Whether all that it shows is in what was made of it, but for what is cut off.
    pub is_whole: bool,
    /// Whether sides of it are cut off in what was made of it.
    pub is_cropped: bool,
}

/// A footnote or endnote: a tree of its own, mentioned by [`Kind::NoteReference`] nodes.
#[derive(Clone, Debug, PartialEq, Eq)]
pub struct Note {
    /// The label that the source gave it; unique within a document.
    pub label: String,
    /// A [`Kind::Note`] node that has no parent.
    pub body: NodeId,
}

/// One column of a table.
#[derive(Clone, Copy, Debug, Default, PartialEq, Eq)]
pub struct Column {
    /// How the cells of the column are aligned unless they say otherwise.
    pub align: Align,
    /// How wide it is, in twentieths of a point; 0 where that is not known.
    pub width: u32,
}

/// A document in memory. See the [module](self) for its invariants.
///
/// ```
/// use obblet::document::{Document, Kind};
///
/// let mut doc = Document::new();
/// let heading = doc.append(doc.root(), Kind::Heading(1));
/// doc.append_text(heading, "Tides");
/// assert_eq!(doc.plain_text(doc.root()), "Tides");
/// ```
#[derive(Clone, Debug)]
pub struct Document {
    /// Title, authors, language and so on.
    pub metadata: Metadata,
    /// Styles that the source names.
    pub styles: Vec<NamedStyle>,
    /// Images and other files that the source holds.
    pub media: Vec<Media>,
    /// Which of them an image shows or a link leads to. An image that is not here shows what is at its address.
    pub media_of: NodeTable<MediaId>,
    /// Notes, in the order in which the source defines them.
    pub notes: Vec<Note>,
    /// Formulas, in the order in which the source has them.
    pub formulas: Vec<Formula>,
    /// Tracked changes, by the nodes that they put in or took out.
    pub revisions: NodeTable<Revision>,
    /// Fields whose text word processors compute anew, such as the number of the page: their instructions, by the nodes that hold
    /// what they show.
    pub fields: NodeTable<String>,
    /// Bodies of notes that stand at the end of the text in print, where others stand at the foot of their page.
    pub endnotes: NodeTable<()>,
    /// Comments of reviewers, in the order of the text that they are about.
    pub comments: Vec<Comment>,
    /// Styles as the source defines them.
    pub style_definitions: Vec<StyleDefinition>,
    /// How lists are numbered, where the source says more than the kind of a list can.
    pub numberings: NodeTable<ListNumbering>,
    /// The parts that stand on pages of one kind, in their order.
    pub sections: Vec<Section>,
    /// Labels of what can be referred to, where they are known.
    pub labels: NodeTable<Label>,
    /// Links that show something of what they lead to.
    pub references: NodeTable<CrossReference>,
    /// What headings say of what is to be done.
    pub tasks: NodeTable<Task>,
    /// What the source cites, until the entries of its bibliography are known.
    pub bibliography: Bibliography,
    /// What the user should know about the work so far.
    pub findings: Vec<Finding>,
    /// Tells where in the source a place is.
    pub source: SourceMap,
    /// What a reader saw of the looks of the source.
    pub layout_hints: LayoutHints,
    nodes: Vec<Node>,
    pool: String,
    attributes: Vec<Attributes>,
    columns: HashMap<NodeId, Vec<Column>>,
    edits: Edits,
}

/// What happened to a document since it was made.
#[derive(Clone, Copy, Debug, Default)]
struct Edits {
    /// How often nodes and their attributes were changed.
    count: u64,
    /// Kinds of which there may be nodes.
    kinds: KindSet,
    /// Whether every node stands where it may; any change of the tree takes that back.
    is_repaired: bool,
}

impl Default for Document {
    fn default() -> Self {
        Self::new()
    }
}

impl Document {
    /// An empty document: a root without children.
    #[must_use]
    pub fn new() -> Self {
        Self::with_pool(String::new(), 16)
    }

    /// An empty document whose pool begins with `pool`, with room for `nodes` nodes.
    ///
    /// A reader of a text format puts its source here, so that most text nodes are ranges of it and need no copy.
    #[must_use]
    pub fn with_pool(pool: String, nodes: usize) -> Self {
        let mut arena = Vec::with_capacity(nodes.max(1));
        arena.push(Node::new(Kind::Root));
        Self {
            metadata: Metadata::default(),
            styles: Vec::new(),
            media: Vec::new(),
            media_of: NodeTable::default(),
            notes: Vec::new(),
            formulas: Vec::new(),
            revisions: NodeTable::default(),
            fields: NodeTable::default(),
            endnotes: NodeTable::default(),
            comments: Vec::new(),
            style_definitions: Vec::new(),
            numberings: NodeTable::default(),
            sections: Vec::new(),
            labels: NodeTable::default(),
            references: NodeTable::default(),
            tasks: NodeTable::default(),
            bibliography: Bibliography::default(),
            findings: Vec::new(),
            source: SourceMap::default(),
            layout_hints: LayoutHints::default(),
            nodes: arena,
            pool,
            attributes: vec![Attributes::default()],
            columns: HashMap::default(),
            edits: Edits::default(),
        }
    }

    /// The text of a range.
    #[must_use]
    pub fn text(&self, text: Text) -> &str {
        self.pool.get(text.range()).unwrap_or_default()
    }

    /// The whole string pool.
    #[must_use]
    pub fn pool(&self) -> &str {
        &self.pool
    }

    /// Puts a string into the pool.
    ///
    /// Ranges are 32 bits wide. Where the pool would grow past 4 GiB, the text is lost with a finding; readers refuse
    /// sources that are large enough for it long before.
    pub fn intern(&mut self, text: &str) -> Text {
        let start = self.pool.len();
        if u32::try_from(start + text.len()).is_err() {
            self.push_finding(Finding::lost("document.too-large", "the document holds more than 4 GiB of text"));
            return Text::EMPTY;
        }
        self.pool.push_str(text);
        Text::between(start, self.pool.len())
    }

    /// Joins two texts: in place where the first ends the pool or the second follows it, else by copying both.
    pub fn join(&mut self, first: Text, second: Text) -> Text {
        if first.end == second.start {
            return Text { start: first.start, end: second.end };
        }
        if first.is_empty() {
            return second;
        }
        if u32::try_from(self.pool.len() + first.len() + second.len()).is_err() {
            self.push_finding(Finding::lost("document.too-large", "the document holds more than 4 GiB of text"));
            return first;
        }
        let start = if first.end as usize == self.pool.len() {
            first.start as usize
        } else {
            let start = self.pool.len();
            self.pool.extend_from_within(first.range());
            start
        };
        self.pool.extend_from_within(second.range());
        Text::between(start, self.pool.len())
    }

    /// Whether nothing has changed since every node stood where it may.
    pub(crate) const fn is_repaired(&self) -> bool {
        self.edits.is_repaired
    }

    /// Says that every node stands where it may.
    pub(crate) const fn mark_repaired(&mut self) {
        self.edits.is_repaired = true;
    }

    /// How often nodes and their attributes were changed. Where the number is the same, nothing has.
    pub(crate) const fn changes(&self) -> u64 {
        self.edits.count
    }

    /// Whether there may be nodes of one of these kinds; where not, there are none.
    pub(crate) const fn may_hold(&self, kinds: KindSet) -> bool {
        self.edits.kinds.has_any(kinds)
    }

    /// Whether a node has an id, or had one.
    pub(crate) fn may_have_ids(&self) -> bool {
        self.attributes.iter().any(|attributes| attributes.id.is_some())
    }

    /// Whether a node has a class.
    pub(crate) fn is_of_class(&self, node: NodeId, class: &str) -> bool {
        self.node(node).has_attributes() && self.attributes(node).classes.iter().any(|one| self.text(*one) == class)
    }

    /// Whether a node has, or had, a class of a sort.
    pub(crate) fn has_class(&self, is: impl Fn(&str) -> bool) -> bool {
        self.attributes.iter().any(|attributes| attributes.classes.iter().any(|class| is(self.text(*class))))
    }

    /// Puts a file into the document.
    pub fn add_media(&mut self, name: impl Into<String>, bytes: Vec<u8>) -> MediaId {
        self.media.push(Media { name: name.into(), bytes, original: None });
        MediaId(self.media.len() as u32 - 1)
    }

    /// The file that a node shows or leads to, where the document holds it.
    #[must_use]
    pub fn media_at(&self, node: NodeId) -> Option<&Media> {
        self.media_of.get(node).and_then(|id| self.media.get(id.0 as usize))
    }

    /// Records a finding.
    pub fn push_finding(&mut self, finding: Finding) {
        self.findings.push(finding);
    }

    /// The attributes of a node; those of a node without any are empty.
    #[must_use]
    pub fn attributes(&self, node: NodeId) -> &Attributes {
        self.attributes.get(self.node(node).attributes.index()).unwrap_or(&self.attributes[0])
    }

    /// The attributes of a node, to change them.
    pub fn attributes_mut(&mut self, node: NodeId) -> &mut Attributes {
        self.edits.count += 1;
        let node = &mut self.nodes[node.index()];
        let mut index = node.attributes.index();
        if index == 0 {
            index = self.attributes.len();
            self.attributes.push(Attributes::default());
            node.attributes = AttributesId::new(index);
        }
        &mut self.attributes[index]
    }

    /// Gives `to` a copy of the attributes of `from`.
    pub fn copy_attributes(&mut self, from: NodeId, to: NodeId) {
        if self.node(from).attributes.index() != 0 {
            let copy = self.attributes(from).clone();
            *self.attributes_mut(to) = copy;
        }
    }

    /// The columns of a table, as far as the source describes them.
    #[must_use]
    pub fn columns(&self, table: NodeId) -> &[Column] {
        self.columns.get(&table).map_or(&[], Vec::as_slice)
    }

    /// Describes the columns of a table.
    pub fn set_columns(&mut self, table: NodeId, columns: Vec<Column>) {
        self.columns.insert(table, columns);
    }

    /// The place in the source where a node begins.
    #[must_use]
    pub fn place(&self, node: NodeId) -> Place {
        self.source.place(&self.pool, self.node(node).offset)
    }

    /// The text below a node as a reader would speak it: text, code and the alternatives of images; a line break is a
    /// newline, a soft break a space, and blocks stand on lines of their own.
    #[must_use]
    pub fn plain_text(&self, node: NodeId) -> String {
        self.text_below(node, |formula, out| out.push_str(self.text(formula.characters)))
    }

    /// The text below a node, with formulas as a line of characters that can be read: `√2` where the source is `\\sqrt{2}`.
    #[must_use]
    pub fn readable_text(&self, node: NodeId) -> String {
        let mut macros = None;
        self.text_below(node, |formula, out| {
            let macros = macros.get_or_insert_with(|| crate::math::tex::Macros::of(&self.metadata.macros));
            let (math, _) = crate::math::read(formula.notation, self.text(formula.source), macros);
            out.push_str(&crate::math::plain(&math));
        })
    }

    fn text_below(&self, node: NodeId, mut write_formula: impl FnMut(Formula, &mut String)) -> String {
        let mut out = String::new();
        for step in self.walk(node) {
            if let Step::Enter(id) = step {
                match self.kind(id) {
                    Kind::Text(text) | Kind::Code(text) | Kind::CodeBlock { code: text, .. } | Kind::Image { alt: text, .. } => {
                        out.push_str(self.text(text));
                    }
                    Kind::Math(formula) => write_formula(self.formula(formula), &mut out),
                    Kind::SoftBreak => out.push(' '),
                    Kind::LineBreak => out.push('\n'),
                    kind if !kind.is_inline() && !out.is_empty() && !out.ends_with(['\n', ' ']) => out.push('\n'),
                    _ => {}
                }
            }
        }
        out
    }

    /// The text of the first heading that has any.
    #[must_use]
    pub fn first_heading(&self) -> Option<String> {
        self.walk(self.root()).find_map(|step| match step {
            Step::Enter(id) if matches!(self.kind(id), Kind::Heading(_)) => {
                let text = self.readable_text(id).split_whitespace().collect::<Vec<_>>().join(" ");
                Some(text).filter(|text| !text.is_empty())
            }
            _ => None,
        })
    }
}
