//! What a reader saw of a node's looks, for the passes that find structure in looks.

use super::NodeId;
use std::collections::{BTreeMap, BTreeSet};

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

/// Places of a document that others lead to. Who publishes several documents together says which are wanted, and learns which
/// others there are.
#[derive(Clone, Debug, Default, PartialEq, Eq)]
pub struct Places {
    /// The names by which other documents lead to places in this one.
    pub wanted: BTreeSet<String>,
    /// Those of them that nothing in the document itself leads to, and that it would not have had otherwise.
    pub kept: BTreeSet<String>,
    /// Names of places that were left out, since nothing leads there.
    pub spare: BTreeSet<String>,
    /// Names that places have beside the one that is written, and that one.
    pub also: BTreeMap<String, String>,
}

impl Places {
    /// Whether a place that nothing in the document leads to stays; it is remembered either way.
    pub fn stays(&mut self, name: &str) -> bool {
        let wanted = self.wanted.contains(name);
        let names = if wanted { &mut self.kept } else { &mut self.spare };
        if !names.contains(name) {
            names.insert(name.to_owned());
        }
        wanted
    }
}

/// What a reader saw of the looks of a source. Passes of [`refine`](crate::refine) read it; writers never do.
#[derive(Clone, Debug, Default)]
pub struct Traces {
    /// How much of the source was written for its looks.
    pub make: Make,
    /// Places that other documents lead to.
    pub places_of_others: Places,
    /// For each node, the place of its trace, from 1.
    places: Vec<u32>,
    traces: Vec<(NodeId, Trace)>,
}

impl Traces {
    /// What is known of a node.
    #[must_use]
    pub fn of(&self, node: NodeId) -> Trace {
        let place = self.places.get(node.index()).copied().unwrap_or(0) as usize;
        self.traces.get(place.wrapping_sub(1)).map_or_else(Trace::default, |(_, trace)| *trace)
    }

    /// What is known of a node, to say more about it.
    pub fn at(&mut self, node: NodeId) -> &mut Trace {
        if self.places.len() <= node.index() {
            self.places.resize(node.index() + 1, 0);
        }
        if self.places[node.index()] == 0 {
            self.traces.push((node, Trace::default()));
            self.places[node.index()] = self.traces.len() as u32;
        }
        let place = self.places[node.index()] as usize - 1;
        &mut self.traces[place].1
    }

    /// All nodes of which something is known.
    pub fn iter(&self) -> impl Iterator<Item = (NodeId, Trace)> + '_ {
        self.traces.iter().copied()
    }
}
