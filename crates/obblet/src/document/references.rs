//! Labels of what can be referred to, and references to it.

/// What is counted together.
#[derive(Clone, Copy, Debug, PartialEq, Eq, Hash)]
pub enum Counter {
    /// Headings.
    Heading,
    /// Figures.
    Figure,
    /// Tables.
    Table,
    /// Formulas.
    Formula,
    /// Items of lists.
    Item,
    /// Notes.
    Note,
}

/// The label of a node: what a reference to it can show.
#[derive(Clone, Debug, PartialEq, Eq)]
pub struct Label {
    /// What it is counted with.
    pub counter: Counter,
    /// The word before its number, as in `Figure`; empty where there is none.
    pub name: String,
    /// Its number, as it is shown: `3`, `2.1`; empty where it has none.
    pub number: String,
}

impl Label {
    /// The name and the number, with a space between that does not break.
    #[must_use]
    pub fn text(&self) -> String {
        match (self.name.is_empty(), self.number.is_empty()) {
            (false, false) => format!("{}\u{A0}{}", self.name, self.number),
            (true, _) => self.number.clone(),
            (false, true) => self.name.clone(),
        }
    }
}

/// What a reference shows of its target.
#[derive(Clone, Copy, Debug, Default, PartialEq, Eq, Hash)]
pub enum Shows {
    /// The text of the target, or its name and number.
    #[default]
    Text,
    /// Its number.
    Number,
    /// The page that it is on.
    Page,
    /// Where it stands: above or below.
    Position,
}

impl Shows {
    /// Its name, for people.
    #[must_use]
    pub const fn name(self) -> &'static str {
        match self {
            Self::Text => "text",
            Self::Number => "number",
            Self::Page => "page",
            Self::Position => "position",
        }
    }
}

/// A reference to a place in the document that shows something of its target: a [`Kind::Link`](super::Kind::Link) whose text can
/// be made anew.
#[derive(Clone, Copy, Debug, Default, PartialEq, Eq)]
pub struct CrossReference {
    /// What it shows.
    pub shows: Shows,
}
