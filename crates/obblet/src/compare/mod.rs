//! What differs between two documents: in structure, in text, in what they point to.
//!
//! Both documents are taken apart into units of eight categories (`units`), each unit with what it says and where it stands.
//! The units of a category are aligned in order (`align`), those that have no equal are paired with what stands in their
//! place where that is similar, and every pair or single unit is a [`Difference`].

mod align;
mod formulas;
mod units;

use crate::document::{Document, Place};
use crate::refine;
use serde::Serialize;
use std::borrow::Cow;

/// What a difference is about.
#[derive(Clone, Copy, Debug, PartialEq, Eq, Hash, PartialOrd, Ord, Serialize)]
#[serde(rename_all = "lowercase")]
pub enum Category {
    /// Headings and their levels.
    Headings,
    /// The words of the text, and whether they are quoted or code.
    Text,
    /// Items of lists, how deep they stand and how they are marked.
    Lists,
    /// Cells of tables, their places and spans.
    Tables,
    /// Links and where they lead.
    Links,
    /// Pictures and their words.
    Images,
    /// Notes.
    Notes,
    /// Emphasis and other formatting within text, and the languages of code.
    Styles,
}

impl Category {
    /// All of them.
    pub const ALL: [Self; 8] =
        [Self::Headings, Self::Text, Self::Lists, Self::Tables, Self::Links, Self::Images, Self::Notes, Self::Styles];

    /// The word for it.
    #[must_use]
    pub const fn word(self) -> &'static str {
        match self {
            Self::Headings => "headings",
            Self::Text => "text",
            Self::Lists => "lists",
            Self::Tables => "tables",
            Self::Links => "links",
            Self::Images => "images",
            Self::Notes => "notes",
            Self::Styles => "styles",
        }
    }
}

/// How alike two documents are in a category.
#[derive(Clone, Copy, Debug, PartialEq, Serialize)]
pub struct Score {
    /// The category.
    pub category: Category,
    /// How many units the first document has: words of text, else headings, items, cells and so on.
    pub first: usize,
    /// How many units the second document has.
    pub second: usize,
    /// How many units are the same in both.
    pub same: usize,
}

impl Score {
    /// What part of the units is the same in both: from 0 to 1, and 1 where there are none.
    #[must_use]
    pub fn share(&self) -> f64 {
        let all = self.first + self.second;
        if all == 0 { 1.0 } else { 2.0 * self.same as f64 / all as f64 }
    }
}

/// One side of a difference.
#[derive(Clone, Debug, PartialEq, Eq, Serialize)]
pub struct Side {
    /// Where it is in its document.
    pub place: Place,
    /// What is there.
    pub text: String,
}

/// Something that is not the same in both documents.
#[derive(Clone, Debug, PartialEq, Eq, Serialize)]
pub struct Difference {
    /// What it is about.
    pub category: Category,
    /// How many units of its category it concerns.
    pub size: usize,
    /// What the first document has, if it has something there.
    #[serde(skip_serializing_if = "Option::is_none")]
    pub first: Option<Side>,
    /// What the second document has, if it has something there.
    #[serde(skip_serializing_if = "Option::is_none")]
    pub second: Option<Side>,
}

/// What differs between two documents.
#[derive(Clone, Debug, PartialEq, Serialize)]
pub struct Comparison {
    /// A score for each category.
    pub scores: Vec<Score>,
    /// The differences, worst first: what concerns most units, and then in the order of the categories and of the documents.
    pub differences: Vec<Difference>,
}

impl Comparison {
    /// Whether there is no difference.
    #[must_use]
    pub fn is_same(&self) -> bool {
        self.differences.is_empty()
    }
}

/// Compares two documents.
///
/// ```
/// use obblet::compare::{Category, compare};
/// use obblet::formats::{html, markdown};
///
/// let first = markdown::read(b"# Tides\n\nHigh at *six*.", &markdown::Settings::GITHUB);
/// let second = html::read(b"<h2>Tides</h2><p>High at <em>six</em>.", &html::ReadOptions::default());
/// let comparison = compare(&first, &second);
/// assert_eq!(comparison.differences.len(), 1);
/// assert_eq!(comparison.differences[0].category, Category::Headings);
/// ```
#[must_use]
pub fn compare(first: &Document, second: &Document) -> Comparison {
    // What a format counts is compared as it is shown, whether numbers are text or made.
    let counted = [first, second].map(|doc| shown(doc, first, second));
    let [first, second] = [&*counted[0], &*counted[1]];
    // Formulas are compared by what they say, in whatever notation.
    let (first, second) = (&*formulas::in_one_notation(first), &*formulas::in_one_notation(second));
    let (first, second) = (units::of(first, second), units::of(second, first));
    let mut scores = Vec::new();
    let mut differences = Vec::new();
    for (index, category) in Category::ALL.into_iter().enumerate() {
        scores.push(align::category(category, &first[index], &second[index], &mut differences));
    }
    differences.sort_by_key(|difference: &Difference| std::cmp::Reverse(difference.size));
    Comparison { scores, differences }
}

/// A document with the numbers of its equations in the references to them, and without those of headings that the other one makes.
fn shown<'d>(doc: &'d Document, first: &Document, second: &Document) -> Cow<'d, Document> {
    let makes = |doc: &Document| doc.metadata.presentation.numbered_levels.is_some();
    let mut doc = Cow::Borrowed(doc);
    if makes(first) != makes(second) && !makes(&doc) {
        refine::heading_numbers::take_out(doc.to_mut());
    }
    // What one says in its text and the other in its metadata alone is no difference.
    let both_say = [first, second].iter().all(|doc| doc.has_class(|class| class == crate::document::BYLINE));
    if let Some(byline) = doc.repeated_byline().filter(|_| !both_say) {
        doc.to_mut().detach(byline);
    }
    if !doc.formulas.is_empty() || !doc.references.is_empty() {
        refine::equations::number(doc.to_mut());
        refine::references::resolve(doc.to_mut());
    }
    doc
}
