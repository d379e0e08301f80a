//! What is open while a part is read: paragraphs, lists and runs.

use super::super::model::numbering::Numbered;
use super::super::model::properties::{CharacterProperties, Name, ParagraphProperties, Raised};
use super::super::model::styles::Role;
use super::lists::Lists;
use super::symbols;
use crate::document::{Direction, NodeId, TextLevel};
use smallvec::SmallVec;

bitflags::bitflags! {
    /// What is in an open paragraph.
    #[derive(Clone, Copy, Debug, Default, PartialEq, Eq, Hash)]
    pub(super) struct ParagraphMarks: u8 {
        /// Something in it was left out.
        const OMITS = 1 << 0;
        /// Some of its text is bold.
        const BOLD = 1 << 1;
    }
}

/// A paragraph that is being read.
#[derive(Debug)]
pub(super) struct OpenParagraph {
    pub(super) node: NodeId,
    /// Whether its properties are known and its node is made.
    pub(super) begun: bool,
    pub(super) properties: ParagraphProperties,
    /// Properties of characters that say nothing of their own.
    pub(super) base: CharacterProperties,
    pub(super) role: Role,
    pub(super) heading: Option<u8>,
    /// What is open around the text, outermost first.
    pub(super) inline: Vec<(Wrap, NodeId)>,
    /// What text goes into where nothing is open.
    pub(super) floor: NodeId,
    /// Text boxes that stand behind it.
    pub(super) boxes: Vec<NodeId>,
    pub(super) tabs: u16,
    pub(super) marks: ParagraphMarks,
    /// The size of its largest letters, in half points.
    pub(super) size: Option<u16>,
    /// Whether white space stands before what comes next.
    pub(super) space: bool,
    /// Its number, where it is no item of a list.
    pub(super) number: Option<Numbered>,
    /// Its number, where it is one.
    pub(super) item: Option<Numbered>,
}

/// Something that holds blocks: the body, a cell, a text box, a note.
#[derive(Debug)]
pub(super) struct Context {
    pub(super) container: NodeId,
    pub(super) paragraph: Option<OpenParagraph>,
    pub(super) lists: Lists,
    pub(super) quote: Option<NodeId>,
    /// Lines of code that follow each other; `None` for an empty one.
    pub(super) code: Vec<Option<NodeId>>,
    /// A paragraph whose end was deleted, or whose only letter is a large one: the next one goes on with it.
    pub(super) carry: Option<(NodeId, Option<Numbered>)>,
    /// The run that was open around a text box.
    pub(super) run: Option<Run>,
    pub(super) wraps: Vec<Wrap>,
    pub(super) in_cell: bool,
    pub(super) is_omitted: bool,
}

impl Context {
    pub(super) fn of(container: NodeId) -> Self {
        Self {
            container,
            paragraph: None,
            lists: Lists::default(),
            quote: None,
            code: Vec::new(),
            carry: None,
            run: None,
            wraps: Vec::new(),
            in_cell: false,
            is_omitted: false,
        }
    }
}

/// A run that is being read.
#[derive(Clone, Debug, Default)]
pub(super) struct Run {
    pub(super) direct: CharacterProperties,
    /// With what the paragraph and the styles say.
    pub(super) whole: CharacterProperties,
    /// What its properties mean, once they are looked at.
    pub(super) wanted: Option<SmallVec<[Wrap; 6]>>,
    pub(super) symbols: Option<&'static symbols::Table>,
}

/// Something around text.
#[derive(Clone, Copy, Debug, PartialEq, Eq)]
pub(super) enum Wrap {
    /// Nothing that is to be seen.
    Nothing,
    /// A tracked change, by its number in [`Reader::tracked`].
    Revision(RevisionKind, u32),
    /// A link, by its number in [`Reader::links`].
    Link(u32),
    Direction(Direction),
    Override(Direction),
    Language(Name),
    Strong,
    Emphasis,
    Underline,
    Strike,
    Highlight,
    Raised(Raised),
    Code,
    /// An element of HTML that its style stands for.
    Element(TextLevel),
    /// Classes, by the number of their set.
    Classes(u32),
}

/// What a reviewer did.
#[derive(Clone, Copy, Debug, PartialEq, Eq)]
pub(super) enum RevisionKind {
    Inserted,
    Deleted,
}
