//! The settings of published folders and of sites, and the limits.

use crate::settings::{Choice, Declared, Setting, bit, choice, flag, list, number, text};

/// Which files come along that no document is made of.
#[derive(Clone, Copy, Debug, Default, PartialEq, Eq)]
pub enum Copies {
    /// Those that a document shows or leads to.
    #[default]
    Used,
    /// All of them.
    All,
}

bitflags::bitflags! {
    /// What a published folder has beside the pages of its documents.
    #[derive(Clone, Copy, Debug, Default, PartialEq, Eq, Hash)]
    pub struct Makes: u8 {
        /// Start page, pages of folders, navigation, a page of all pages, a feed, a site map.
        const SITE = 1 << 0;
        /// One page of all documents.
        const BINDER = 1 << 1;
        /// Pages at old addresses that lead to the new ones.
        const MOVED = 1 << 2;
        /// A page of what is to be done.
        const AGENDA = 1 << 3;
    }
}

/// Settings of published folders.
#[derive(Clone, Debug, Default, PartialEq, Eq)]
pub struct PublishSettings {
    /// The only documents that a published folder has; all where there are none.
    pub include: Vec<String>,
    /// Documents and other files that a published folder does not have.
    pub exclude: Vec<String>,
    /// Which other files of a published folder come along: those that a document shows or leads to, or all of them.
    pub copy: Copies,
    /// Documents of a published folder become a page for each heading of this level or a higher one; 0 keeps them whole.
    pub split: u8,
    /// What is made beside the pages of documents.
    pub makes: Makes,
    /// The day that the agenda is made for, as in `2031-03-05`; the newest date of the documents where it is empty.
    pub agenda_day: String,
    /// Whether the hashes of outputs are checked, to find what was damaged or edited since the last run.
    pub verify: bool,
}

impl Declared for PublishSettings {
    const SETTINGS: &'static [Setting<Self>] = &[
        list!(
            "publish.include",
            include,
            "a list of patterns of paths, as in \"tides/**\" or \"*.docx\"",
            is_pattern,
            "The only documents that a published folder has; all where there are none. One without a slash fits names in any folder. It counts in the settings of the folder itself."
        ),
        list!(
            "publish.exclude",
            exclude,
            "a list of patterns of paths, as in \"drafts/\" or \"*.txt\"",
            is_pattern,
            "Documents and other files that a published folder does not have. It counts in the settings of the folder itself."
        ),
        choice!(
            "publish.copy",
            Copies,
            copy,
            "Which other files of a published folder come along: those that a document shows or leads to, or all of them."
        ),
        number!(
            "publish.split",
            split,
            0 to 6,
            "Documents of a published folder become a page for each heading of this level or a higher one; 0 keeps them whole."
        ),
        bit!(
            "publish.site",
            makes,
            Makes::SITE,
            "Whether a published folder becomes a site: start page, pages of folders, navigation, a page of all pages, a feed, a site map."
        ),
        bit!(
            "publish.binder",
            makes,
            Makes::BINDER,
            "Whether all documents of a published folder are put into one page, binder.html, too."
        ),
        bit!(
            "publish.moved",
            makes,
            Makes::MOVED,
            "Whether documents of a published folder that are renamed or removed leave a page at their old address, which leads on to the new one, or to the page of the folder."
        ),
        bit!(
            "publish.agenda",
            makes,
            Makes::AGENDA,
            "Whether a published folder gets a page of what its documents say is to be done, agenda.html: what is late, what comes by date, and what is open in each document."
        ),
        text!(
            "publish.agenda-day",
            agenda_day,
            "a day as in 2031-03-05, or nothing",
            is_day,
            "The day that the agenda is made for, as in 2031-03-05; without one, the newest date of the documents and of what was done."
        ),
        flag!(
            "publish.verify",
            verify,
            "Whether the hashes of outputs are checked, to find what was damaged or edited since the last run. Without it only their sizes are: that is faster, and misses what has as many bytes."
        ),
    ];
}

/// Whether a text is a day, or nothing.
fn is_day(text: &str) -> bool {
    let form: String = text.chars().map(|c| if c.is_ascii_digit() { '0' } else { c }).collect();
    text.is_empty() || form == "0000-00-00"
}

impl Choice for Copies {
    const CHOICES: &'static [(&'static str, Self)] = &[("used", Self::Used), ("all", Self::All)];
}

/// Settings of sites.
#[derive(Clone, Debug, PartialEq, Eq)]
pub struct SiteSettings {
    /// The name of a site. Without one, its start page is asked.
    pub title: String,
    /// Where a site will be, as in <https://tides.example/handbook/>.
    pub address: String,
    /// How many of the newest dated documents a site's feed has; 0 for no feed.
    pub feed_entries: u16,
}

impl Default for SiteSettings {
    fn default() -> Self {
        Self { title: String::new(), address: String::new(), feed_entries: 20 }
    }
}

impl Declared for SiteSettings {
    const SETTINGS: &'static [Setting<Self>] = &[
        text!("site.title", title, "The name of a site. Without one, its start page is asked."),
        text!(
            "site.address",
            address,
            "a web address, as in https://tides.example/handbook/",
            is_web_address,
            "Where a site will be, as in https://tides.example/handbook/. Site maps need it, and so do links of pages that stand in for missing ones."
        ),
        number!("site.feed-entries", feed_entries, 0 to 1000, "How many of the newest dated documents a site's feed has; 0 for no feed."),
    ];
}

/// Whether a text is a pattern of paths.
fn is_pattern(text: &str) -> bool {
    #[cfg(feature = "files")]
    return super::layer::globs(&[text.to_owned()]).is_ok();
    #[cfg(not(feature = "files"))]
    !text.is_empty()
}

#[cfg(not(feature = "url"))]
fn is_web_address(text: &str) -> bool {
    text.is_empty() || text.starts_with("https://") || text.starts_with("http://")
}

#[cfg(feature = "url")]
fn is_web_address(text: &str) -> bool {
    text.is_empty() || url::Url::parse(text).is_ok_and(|url| matches!(url.scheme(), "http" | "https"))
}

/// Limits of memory and sizes.
#[derive(Clone, Debug, PartialEq, Eq)]
pub struct LimitSettings {
    /// Sources that are larger than so many bytes are refused.
    pub source: u64,
    /// Documents that are packages are refused where the parts that are read unpack to more bytes.
    pub unpacked: u64,
    /// Images that are larger than so many bytes are not opened: neither embedded nor copied beside a page.
    pub image: u64,
    /// How many characters the target takes, markup counted; 0 for any number.
    pub characters: u64,
}

impl Default for LimitSettings {
    fn default() -> Self {
        Self { source: 1 << 29, unpacked: 1 << 28, image: 1 << 26, characters: 0 }
    }
}

impl Declared for LimitSettings {
    const SETTINGS: &'static [Setting<Self>] = &[
        number!("limits.source", source, 1 to 1_000_000_000, "Sources that are larger than so many bytes are refused."),
        number!("limits.characters", characters, 0 to 1_000_000_000, "How many characters the target takes, markup counted; 0 for any number. More of them are a finding, with the parts that cost most."),
        number!("limits.unpacked", unpacked, 1 to 2_000_000_000, "Documents that are packages are refused where the parts that are read unpack to more bytes."),
        number!("limits.image", image, 1 to 1_000_000_000, "Images that are larger than so many bytes are not opened: neither embedded nor copied beside a page. In a published folder all but drawings come along."),
    ];
}
