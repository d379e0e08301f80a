//! What a reader saw of a node's looks, for the passes that find structure in looks.

use super::NodeId;

/// How much of a source was written for its looks, or by a program that keeps its own notes in it.
#[derive(Clone, Copy, Debug, Default, PartialEq, Eq, PartialOrd, Ord)]
pub enum Producer {
    /// Nothing shows that a program wrote it.
    #[default]
    Plain,
    /// Looks are set on single parts of it.
    Styled,
    /// An office program, an editor or a mail program wrote it.
    Program,
}

/// What a node is to the program that wrote it, where the model has no kind for it.
#[derive(Clone, Copy, Debug, Default, PartialEq, Eq)]
pub enum HintRole {
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
    /// The title of the document, above its headings.
    Title {
        /// By how many levels its headings were lowered to stand below it.
        lowered: u8,
    },
}

/// What a reader saw of one node.
#[derive(Clone, Copy, Debug, Default, PartialEq)]
pub struct LayoutHint {
    /// What it is to its program.
    pub part: HintRole,
    /// The list that it says it is an item of, or that it is, by a number of the reader's choice.
    pub list: Option<u32>,
    /// How deep in that list it stands, from 1; 0 where it does not say.
    pub level: u8,
    /// How far it is set in, in points.
    pub indent: f32,
    /// How far its first line is set in beyond that, in points; below zero where the first line hangs out.
    pub first_line: f32,
}

/// What a reader saw of the looks of a source. Passes of [`refine`](crate::refine) read it;
/// of writers, only that of Word documents, which has a style for the title.
#[derive(Clone, Debug, Default)]
pub struct LayoutHints {
    /// How much of the source was written for its looks.
    pub producer: Producer,
    /// Whether the reader makes lists of typed markers itself, where that is wanted.
    pub reads_typed_lists: bool,
    /// Paragraphs that look like headings, and the size of their letters in points; 0 where that is not known.
    pub heading_like: Vec<(NodeId, f32)>,
    /// Whether the source had a list of contents that was left out, to be made anew.
    pub had_contents: bool,
    /// Whether headings were made of such paragraphs.
    pub has_promoted: bool,
    /// For each node, the place of its hint, from 1.
    places: Vec<u32>,
    layout_hints: Vec<(NodeId, LayoutHint)>,
}

impl LayoutHints {
    /// What is known of a node.
    #[must_use]
    pub fn of(&self, node: NodeId) -> LayoutHint {
        let place = self.places.get(node.index()).copied().unwrap_or(0) as usize;
        self.layout_hints.get(place.wrapping_sub(1)).map_or_else(LayoutHint::default, |(_, hint)| *hint)
    }

    /// What is known of a node, to say more about it.
    pub fn at(&mut self, node: NodeId) -> &mut LayoutHint {
        if self.places.len() <= node.index() {
            self.places.resize(node.index() + 1, 0);
        }
        if self.places[node.index()] == 0 {
            self.layout_hints.push((node, LayoutHint::default()));
            self.places[node.index()] = self.layout_hints.len() as u32;
        }
        let place = self.places[node.index()] as usize - 1;
        &mut self.layout_hints[place].1
    }

    /// All nodes of which something is known.
    pub fn iter(&self) -> impl Iterator<Item = (NodeId, LayoutHint)> + '_ {
        self.layout_hints.iter().copied()
    }
}
