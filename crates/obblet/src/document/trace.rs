//! What a reader saw of a node's looks, for the passes that find structure in looks.

use super::NodeId;
use std::collections::HashMap;

/// How much of a source was written for its looks, or by a program that keeps its own notes in it.
#[derive(Clone, Copy, Debug, Default, PartialEq, Eq, PartialOrd, Ord)]
pub enum Make {
    /// Nothing shows that a program wrote it.
    #[default]
    Plain,
    /// Looks are set on single parts of it.
    Dressed,
    /// An office program, an editor or a mail program wrote it.
    Program,
}

/// What a node is to the program that wrote it, where the model has no kind for it.
#[derive(Clone, Copy, Debug, Default, PartialEq, Eq)]
pub enum Part {
    /// Nothing in particular.
    #[default]
    Unsaid,
    /// The marker of a list item, as text.
    Marker,
    /// A paragraph that goes on with the list item before it.
    Continued,
    /// An insertion or a deletion that a program recorded.
    Recorded,
    /// A table that is there to set things beside each other.
    Layout,
}

/// What a reader saw of one node.
#[derive(Clone, Copy, Debug, Default, PartialEq)]
pub struct Trace {
    /// What it is to its program.
    pub part: Part,
    /// The list that it says it is an item of, or that it is, by a number of the reader's choice.
    pub list: Option<u32>,
    /// How deep in that list it stands, from 1; 0 where it does not say.
    pub level: u8,
    /// How far it is set in, in points.
    pub indent: f32,
    /// How far its first line is set in beyond that, in points; below zero where the first line hangs out.
    pub first_line: f32,
}

/// What a reader saw of the looks of a source. Passes of [`refine`](crate::refine) read it; writers never do.
#[derive(Clone, Debug, Default)]
pub struct Traces {
    /// How much of the source was written for its looks.
    pub make: Make,
    /// What it saw of single nodes.
    pub nodes: HashMap<NodeId, Trace>,
}

impl Traces {
    /// What is known of a node.
    #[must_use]
    pub fn of(&self, node: NodeId) -> Trace {
        self.nodes.get(&node).copied().unwrap_or_default()
    }
}
