//! What the user should know.

use super::Place;
use std::borrow::Cow;

/// How much a finding matters, heaviest first.
#[derive(Clone, Copy, Debug, PartialEq, Eq, Hash, PartialOrd, Ord)]
#[cfg_attr(feature = "serde", derive(serde::Serialize, serde::Deserialize))]
#[cfg_attr(feature = "serde", serde(rename_all = "lowercase"))]
pub enum Weight {
    /// Content or meaning is gone.
    Lost,
    /// Carried over, but not as it was.
    Changed,
    /// The source could be better.
    Advice,
}

impl Weight {
    /// The word for it.
    #[must_use]
    pub const fn word(self) -> &'static str {
        match self {
            Self::Lost => "lost",
            Self::Changed => "changed",
            Self::Advice => "advice",
        }
    }
}

/// One thing that the user should know.
#[derive(Clone, Debug, PartialEq, Eq)]
#[cfg_attr(feature = "serde", derive(serde::Serialize, serde::Deserialize))]
pub struct Finding {
    /// A stable name such as `markdown.front-matter`; the guide has a line about each.
    pub code: Cow<'static, str>,
    /// How much it matters.
    pub weight: Weight,
    /// Where it is in the source.
    pub place: Place,
    /// What happened, in one line.
    pub message: String,
    /// What to do about it.
    #[cfg_attr(feature = "serde", serde(default, skip_serializing_if = "str::is_empty"))]
    pub hint: Cow<'static, str>,
    /// The address that it is about, where it is about a link.
    #[cfg_attr(feature = "serde", serde(default, skip_serializing_if = "String::is_empty"))]
    pub target: String,
    /// The text that is gone, where text is.
    #[cfg_attr(feature = "serde", serde(default, skip_serializing_if = "String::is_empty"))]
    pub lost: String,
}

impl Finding {
    pub(crate) fn new(weight: Weight, code: &'static str, message: impl Into<String>) -> Self {
        Self {
            code: Cow::Borrowed(code),
            weight,
            place: Place::Unknown,
            message: message.into(),
            hint: Cow::Borrowed(""),
            target: String::new(),
            lost: String::new(),
        }
    }

    /// Content or meaning is gone.
    #[must_use]
    pub fn lost(code: &'static str, message: impl Into<String>) -> Self {
        Self::new(Weight::Lost, code, message)
    }

    /// Something was carried over, but not as it was.
    #[must_use]
    pub fn changed(code: &'static str, message: impl Into<String>) -> Self {
        Self::new(Weight::Changed, code, message)
    }

    /// The source could be better.
    #[must_use]
    pub fn advice(code: &'static str, message: impl Into<String>) -> Self {
        Self::new(Weight::Advice, code, message)
    }

    /// Says where.
    #[must_use]
    pub fn at(mut self, place: Place) -> Self {
        self.place = place;
        self
    }

    /// Says which address it is about.
    #[must_use]
    pub fn about(mut self, address: impl Into<String>) -> Self {
        self.target = address.into();
        self
    }

    /// Says what to do.
    #[must_use]
    pub fn hint(mut self, hint: impl Into<Cow<'static, str>>) -> Self {
        self.hint = hint.into();
        self
    }

    /// Keeps the text that is gone.
    #[must_use]
    pub fn losing(mut self, text: impl Into<String>) -> Self {
        self.lost = text.into();
        self
    }
}

/// A finding that a room may report.
#[derive(Clone, Copy, Debug, PartialEq, Eq)]
pub struct FindingInfo {
    /// Its code, as in `word.text-box`.
    pub code: &'static str,
    /// The weights that it may have.
    pub weights: &'static [Weight],
    /// What happened, in Markdown.
    pub meaning: &'static str,
}

/// Declares a finding.
pub(crate) const fn finding(code: &'static str, weights: &'static [Weight], meaning: &'static str) -> FindingInfo {
    FindingInfo { code, weights, meaning }
}
