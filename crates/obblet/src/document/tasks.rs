//! What is to be done: formats of notes and plans let headings say it.

use super::{Document, Kind, NodeId};

/// What a heading says of its state, and when it is due.
///
/// Dates are as the source writes them between their brackets: a day as in `2031-03-05`, then what else there is, such as a time
/// or how often it comes again.
#[derive(Clone, Debug, Default, PartialEq, Eq)]
pub struct Task {
    /// The word for its state, such as `TODO`; empty where it has none.
    pub keyword: String,
    /// Whether that word says that nothing is left to do.
    pub is_done: bool,
    /// How much it matters, as in `A`; empty where nothing is said.
    pub priority: String,
    /// Its own tags.
    pub tags: Vec<String>,
    /// When it is to be begun.
    pub scheduled: String,
    /// When it has to be done.
    pub deadline: String,
    /// When it was done.
    pub closed: String,
    /// Dates of its text that are appointments.
    pub dates: Vec<String>,
    /// What else is said of it, in the order of the source.
    pub properties: Vec<(String, String)>,
}

impl Task {
    /// Whether it says nothing.
    #[must_use]
    pub fn is_empty(&self) -> bool {
        *self == Self::default()
    }
}

/// Classes of what stands beside the words of a heading.
const PARTS: [&str; 4] = ["keyword-open", "keyword-done", "priority", "tag"];

impl Document {
    /// What a piece of a heading is that is none of its words: `keyword-open`, `keyword-done`, `priority` or `tag`.
    #[must_use]
    pub fn heading_part(&self, piece: NodeId) -> Option<&'static str> {
        if self.kind(piece) != Kind::Span || !self.node(piece).has_attributes() {
            return None;
        }
        let classes = &self.attributes(piece).classes;
        PARTS.into_iter().find(|part| classes.iter().any(|class| self.text(*class) == *part))
    }

    /// The words of a heading, without its state, its priority and its tags; formulas as their source has them.
    #[must_use]
    pub fn heading_text(&self, heading: NodeId) -> String {
        self.words_of_heading(heading, |part| self.plain_text(part))
    }

    /// A heading in one line, as lists of contents and titles show it: its words, with formulas as a line that can be read.
    #[must_use]
    pub fn heading_line(&self, heading: NodeId) -> String {
        let words = self.words_of_heading(heading, |part| self.readable_text(part));
        words.split_whitespace().collect::<Vec<_>>().join(" ")
    }

    fn words_of_heading(&self, heading: NodeId, text: impl Fn(NodeId) -> String) -> String {
        if !self.children(heading).any(|child| self.heading_part(child).is_some()) {
            return text(heading);
        }
        let words = self.children(heading).filter(|&child| self.heading_part(child).is_none());
        words.map(text).collect::<String>().trim().to_owned()
    }
}
