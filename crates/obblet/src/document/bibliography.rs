//! What a source cites, until the entries of its bibliography are known.

use super::NodeId;

/// What a source cites, and the bibliography that it names.
#[derive(Clone, Debug, Default)]
pub struct Bibliography {
    /// The files that hold the entries, by their paths from the folder of the source.
    pub files: Vec<String>,
    /// How entries are sorted and called.
    pub style: CitationStyle,
    /// The block that the list of entries takes the place of; an empty division until then.
    pub place: Option<NodeId>,
    /// What is cited, in the order of the source.
    pub citations: Vec<Citation>,
}

/// How the entries of a bibliography are sorted, and what they are called where they are cited.
#[derive(Clone, Copy, Debug, Default, PartialEq, Eq)]
pub enum CitationStyle {
    /// By names; cited by these and the year.
    #[default]
    AuthorYear,
    /// By names; cited by their numbers.
    Numbers,
    /// In the order in which they are cited, by their numbers.
    CitedOrder,
    /// By labels of letters and digits, such as `Bra87`.
    Letters,
}

impl CitationStyle {
    /// The style that a name of one stands for, as documents and programs write it.
    #[must_use]
    pub fn from_name(name: &str) -> Option<Self> {
        let has = |parts: &[&str]| parts.iter().any(|part| name.contains(part));
        // The first that fits: `plainnat` is a style of names, though `plain` is one of numbers.
        if has(&["author", "apa", "natnat", "plainnat", "abbrvnat", "chicago", "agsm", "dcu", "harvard", "elsarticle-harv"]) {
            Some(Self::AuthorYear)
        } else if has(&["alpha", "letters"]) {
            Some(Self::Letters)
        } else if has(&["unsrt", "ieee", "IEEE", "sorting=none", "elsarticle-num", "vancouver", "cited-order"]) {
            Some(Self::CitedOrder)
        } else if has(&["number", "numeric", "plain", "abbrv", "acm", "siam"]) {
            Some(Self::Numbers)
        } else {
            None
        }
    }
}

/// A citation: a node that shows keys until the entries are known.
#[derive(Clone, Debug, PartialEq, Eq)]
pub struct Citation {
    /// The node.
    pub node: NodeId,
    /// What it shows of the entries.
    pub form: CitationForm,
    /// What it cites.
    pub entries: Vec<CitedEntry>,
    /// What stands before all of them, and behind.
    pub around: (String, String),
}

/// What a citation shows of its entries.
#[derive(Clone, Copy, Debug, Default, PartialEq, Eq)]
pub enum CitationForm {
    /// Their labels, in brackets.
    #[default]
    Label,
    /// The names as part of the sentence, and the rest in brackets.
    InText,
    /// The names alone.
    Author,
    /// The year in brackets, where the style has one; else the label.
    Year,
    /// Nothing: the entries are in the list only.
    Hidden,
}

/// An entry that a citation names.
#[derive(Clone, Debug, Default, PartialEq, Eq)]
pub struct CitedEntry {
    /// What stands before it, such as `see`.
    pub before: String,
    /// The key of the entry.
    pub key: String,
    /// What stands behind it, such as `p. 3`.
    pub behind: String,
}
