//! What stands around the content of a page that is one of many.

/// A page and what it is called there.
#[derive(Clone, Debug, Default, PartialEq, Eq)]
#[cfg_attr(feature = "serde", derive(serde::Serialize))]
pub(crate) struct NavLink {
    pub(crate) title: String,
    pub(crate) address: String,
    /// Whether it is the page itself.
    pub(crate) current: bool,
}

/// The pages around one page. All addresses count from it.
#[derive(Clone, Debug, Default, PartialEq, Eq)]
#[cfg_attr(feature = "serde", derive(serde::Serialize))]
pub(crate) struct Navigation {
    /// The name of the site; empty where there is none.
    pub(crate) title: String,
    /// The start page.
    pub(crate) home: String,
    /// The folders above the page, outermost first.
    pub(crate) way: Vec<NavLink>,
    /// The parts of the site.
    pub(crate) sections: Vec<NavLink>,
    /// The pages beside it.
    pub(crate) pages: Vec<NavLink>,
    /// What the pages beside it are pages of.
    pub(crate) pages_of: String,
    /// The pages that its document was split into.
    pub(crate) parts: Vec<NavLink>,
    pub(crate) previous: Option<NavLink>,
    pub(crate) next: Option<NavLink>,
    /// The page of all pages.
    pub(crate) all: String,
    /// The feed, and the page of its entries.
    pub(crate) feed: String,
    pub(crate) entries: String,
    /// The address of the top of the site, for a page that may be shown at any address; else empty.
    #[cfg_attr(feature = "serde", serde(skip_serializing_if = "String::is_empty"))]
    pub(crate) top: String,
    /// Whether the page holds all documents.
    pub(crate) is_whole: bool,
}
