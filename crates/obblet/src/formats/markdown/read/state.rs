//! What is known while blocks are read: what is open, what was found, and the text that is still to be read.

use super::super::Syntax;
use super::leaf_state::{Leaf, Paragraph};
use super::reference::References;
use crate::document::{Document, Kind, ListKind, NodeId, NoteId, Text};
use crate::fast_hash::HashMap;

/// A block that may hold other blocks and is still open.
#[derive(Clone, Copy, Debug)]
pub(super) struct Container {
    pub(super) node: NodeId,
    pub(super) kind: ContainerKind,
    /// Columns of indentation that a line needs to go on with this container and all that it stands in.
    pub(super) indent: usize,
}

#[derive(Clone, Copy, Debug, PartialEq, Eq)]
pub(super) enum ContainerKind {
    Root,
    Quote,
    List { mark: u8, ordered: bool },
    Item,
    Note,
}

/// Text whose inline structure is read when all definitions are known.
#[derive(Clone, Copy, Debug)]
pub(super) struct Pending {
    pub(super) node: NodeId,
    pub(super) text: Text,
}

/// What the block structure leaves for the text within it.
pub(super) struct Outcome {
    pub(super) doc: Document,
    pub(super) pending: Vec<Pending>,
    pub(super) references: References,
    pub(super) notes: HashMap<String, NoteId>,
    /// Whether there are cells that stand in several columns.
    pub(super) merges_cells: bool,
}

/// Reads the block structure of a source, line by line.
pub(super) struct Blocks<'s> {
    pub(super) source: &'s str,
    pub(super) doc: Document,
    pub(super) syntax: Syntax,
    pub(super) stack: Vec<Container>,
    /// Where block quotes stand in the stack. A blank line goes on with every open container up to the next of them.
    pub(super) quotes: Vec<usize>,
    pub(super) leaf: Leaf,
    pub(super) paragraph: Paragraph,
    /// After a blank line: the place in the stack of the block quote that the line was in. What comes next makes lists from
    /// there on loose (section 5.3).
    pub(super) blank: Option<usize>,
    pub(super) pending: Vec<Pending>,
    pub(super) references: References,
    pub(super) notes: HashMap<String, NoteId>,
    /// How many table cells were made that the source leaves out, and whether there were so many that the rest are one cell a row.
    pub(super) filled_cells: usize,
    pub(super) merges_cells: bool,
    /// Where the line that is being read ends, and the last one that some block holds.
    pub(super) line_end: usize,
    pub(super) content_end: usize,
}

impl<'s> Blocks<'s> {
    pub(super) fn new(source: &'s str, doc: Document, syntax: Syntax) -> Self {
        let root = Container { node: doc.root(), kind: ContainerKind::Root, indent: 0 };
        Self {
            source,
            doc,
            syntax,
            stack: vec![root],
            quotes: Vec::new(),
            leaf: Leaf::None,
            paragraph: Paragraph::default(),
            blank: None,
            pending: Vec::with_capacity(source.len() / 64),
            references: References::default(),
            notes: HashMap::default(),
            filled_cells: 0,
            merges_cells: false,
            line_end: 0,
            content_end: 0,
        }
    }

    /// A block ends with the last line that belongs to one.
    pub(super) fn end_block(&mut self, node: NodeId) {
        self.doc.set_end(node, self.content_end as u32);
    }

    /// A block ends with the line that is being read.
    pub(super) fn end_block_here(&mut self, node: NodeId) {
        self.content_end = self.line_end;
        self.end_block(node);
    }

    /// The innermost open container.
    pub(super) fn tip(&self) -> NodeId {
        self.stack[self.stack.len() - 1].node
    }

    /// Makes a block in the innermost container. After a blank line, that may make the list around it loose.
    pub(super) fn open_child(&mut self, kind: Kind, at: usize) -> NodeId {
        let index = self.stack.len() - 1;
        let Container { node, kind: container, .. } = self.stack[index];
        if self.blank.is_some_and(|quote| index >= quote) {
            match container {
                ContainerKind::List { .. } => self.loosen(node),
                ContainerKind::Item if self.doc.node(node).first_child().is_some() => self.loosen(self.stack[index - 1].node),
                _ => {}
            }
            // Only the first block after a blank line is set apart from what stood before it.
            self.blank = None;
        }
        self.doc.append_at(node, kind, at as u32)
    }

    fn loosen(&mut self, list: NodeId) {
        if let Kind::List(kind) = self.doc.kind(list) {
            self.doc.set_kind(list, Kind::List(ListKind { tight: false, ..kind }));
        }
    }
}
