//! What is known of nodes that came from HTML, beyond their kinds, until the document is normalized.

use crate::document::{Align, NodeId, Place};
use crate::fast_hash::{HashMap, HashSet};
use html5ever::tendril::StrTendril;
use html5ever::{Attribute, LocalName, QualName};

/// Where a node came from.
#[derive(Clone, Copy, Debug, Default, PartialEq, Eq)]
pub(super) enum Origin {
    /// Not from HTML.
    #[default]
    Elsewhere,
    /// Characters that still have the white space of the source.
    Text,
    /// An element that means what its kind says.
    Element,
    /// An element that was there for its looks or for a program; its content is what counts.
    Wrapper,
    /// A drawing or a formula.
    Foreign,
    /// It has no content and no meaning here.
    Nothing,
    /// It has content that nobody sees.
    Unseen,
    /// It has content for the program that wrote the page.
    ProgramData,
    /// A field of a form.
    Control,
    /// A button.
    Button,
    /// Sound, pictures that move, or a page within the page; what it holds is for programs that can't show it.
    Embedded,
    /// An object with an address, around what is shown in its place.
    Object,
    /// A checkbox, and whether it is checked.
    Checkbox(bool),
    /// A column of a table, or a group of them.
    Column,
}

/// Roles of DPUB-ARIA 1.1 that notes have.
#[derive(Clone, Copy, Debug, PartialEq, Eq)]
pub(super) enum Role {
    NoteReference,
    BackLink,
    Notes,
}

/// Which part of a page an element is, where it says so.
#[derive(Clone, Copy, Debug, PartialEq, Eq)]
pub(super) enum Landmark {
    /// What the page is there for.
    Main,
    /// What stands around it on every page of a site.
    Navigation,
}

/// Attributes that only style rules need.
#[derive(Debug)]
pub(super) struct SelectorInput {
    pub(super) node: NodeId,
    pub(super) id: Option<StrTendril>,
    pub(super) classes: Option<StrTendril>,
    pub(super) style: Option<StrTendril>,
    /// What attributes from before there were style rules say, as declarations (HTML, section 15).
    pub(super) hints: Option<Box<str>>,
}

/// How often something was left out, and where first.
#[derive(Debug, Default)]
pub(super) struct Tally {
    pub(super) count: usize,
    pub(super) first: Option<Place>,
    pub(super) words: String,
}

impl Tally {
    pub(super) fn add(&mut self, place: impl FnOnce() -> Place, words: &str) {
        self.count += 1;
        self.first.get_or_insert_with(place);
        let words = words.trim();
        if !words.is_empty() {
            if !self.words.is_empty() {
                self.words.push('\n');
            }
            self.words.push_str(words);
        }
    }
}

/// What came from HTML.
#[derive(Debug, Default)]
pub(super) struct ParseState {
    origins: Vec<Origin>,
    /// Names and attributes of drawings and formulas.
    pub(super) foreign: HashMap<NodeId, (QualName, Vec<Attribute>)>,
    pub(super) selector_inputs: Vec<SelectorInput>,
    /// Those of the elements around all, which say how the page looks and nothing of what is in it.
    pub(super) page_inputs: Vec<SelectorInput>,
    /// Links to places in the page.
    pub(super) local_links: Vec<NodeId>,
    pub(super) roles: HashMap<NodeId, Role>,
    /// Whether somebody asks for more parts of the page than its main element.
    pub(super) wants_parts: bool,
    pub(super) parts: Vec<(NodeId, Landmark)>,
    pub(super) columns: HashMap<NodeId, (Align, u16)>,
    /// The addresses of `source` elements.
    pub(super) sources: HashMap<NodeId, StrTendril>,
    /// The content of style elements.
    pub(super) style_elements: Vec<NodeId>,
    /// Names and contents of `meta` elements.
    pub(super) meta: Vec<(String, String)>,
    pub(super) titles: Vec<NodeId>,
    pub(super) canonical: Option<String>,
    pub(super) language: Option<String>,
    pub(super) direction: Option<crate::document::Direction>,
    pub(super) head: Option<NodeId>,
    pub(super) scripts: Tally,
    pub(super) handlers: Tally,
    pub(super) controls: Tally,
    pub(super) too_deep: Tally,
    /// What a program keeps for itself in a page.
    pub(super) program_data: Tally,
    /// Names of elements that HTML does not know, each reported once.
    pub(super) unknown: HashSet<LocalName>,
}

impl ParseState {
    #[inline]
    pub(super) fn origin(&self, node: NodeId) -> Origin {
        self.origins.get(node.index()).copied().unwrap_or_default()
    }

    #[inline]
    pub(super) fn set_origin(&mut self, node: NodeId, origin: Origin) {
        if self.origins.len() <= node.index() {
            self.origins.resize(node.index() + 1, Origin::Elsewhere);
        }
        self.origins[node.index()] = origin;
    }
}
