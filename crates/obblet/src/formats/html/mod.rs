//! HTML, as the living standard defines it.
//!
//! Where the format differs from the model: almost nothing does, the model's kinds are elements of HTML; but HTML says
//! which element may stand where, and the model does not. The writer repairs what HTML cannot say, with findings, so that
//! any tree becomes valid markup.

mod address;
mod address_check;
mod attribute_values;
mod characters;
mod check;
mod depth_limit;
mod descriptor;
pub(crate) mod escape;
mod read;
mod settings;
mod write;

pub use address::{is_safe_link, is_safe_picture};
pub use check::{check, is_page};
pub(in crate::formats) use descriptor::DESCRIPTOR;
pub(crate) use read::open_raw_with;
pub use read::{Content, ReadOptions, decode, open_raw, read};
pub use settings::{HeadingLevels, MathForm, Settings, Trust};
pub(crate) use write::open_refused;
pub use write::{HeadingEntry, Written, write, write_part};

use crate::document::{NodeId, NoteId};

/// Which of the two syntaxes of HTML is written.
#[derive(Clone, Copy, Debug, Default, PartialEq, Eq)]
pub enum Syntax {
    /// The HTML syntax.
    #[default]
    Html,
    /// The XML syntax.
    Xhtml,
}

/// Which characters are written as themselves.
#[derive(Clone, Copy, Debug, Default, PartialEq, Eq)]
pub enum Characters {
    /// All of them.
    #[default]
    Utf8,
    /// ASCII; the others as character references.
    Ascii,
}

/// Which elements get an id.
#[derive(Clone, Copy, Debug, Default, PartialEq, Eq)]
pub enum Ids {
    /// Those that the source gave one, and headings that something points to.
    #[default]
    Used,
    /// Those, and every heading.
    Headings,
    /// Only what notes need.
    None,
}

/// What becomes of raw HTML in a source.
#[derive(Clone, Copy, Debug, Default, PartialEq, Eq)]
pub enum Raw {
    /// It is written as it is. Only for sources that are trusted.
    Keep,
    /// It is parsed, made valid, and rid of all that can run.
    #[default]
    Clean,
    /// It is shown as text.
    Escape,
    /// It is left out, with findings.
    Drop,
}

/// What markup will stand in, and so who sees to it that everybody can use it.
#[derive(Clone, Copy, Debug, Default, PartialEq, Eq)]
pub enum Context {
    /// A page of somebody else's, with rules of its own.
    #[default]
    Fragment,
    /// A page of ours: boxes of tasks have labels.
    Page,
    /// A page of ours in which wide code and tables scroll: the keyboard reaches them.
    ScrollingPage,
}

/// Marks a piece of code with classes: calls the function with each run of text and its class.
pub type Highlighter<'h> = &'h dyn Fn(&str, &str, &mut dyn FnMut(&str, Option<&str>)) -> bool;

bitflags::bitflags! {
    /// What is mended in the markup of a source.
    #[derive(Clone, Copy, Debug, Default, PartialEq, Eq, Hash)]
    pub struct Mends: u8 {
        /// Addresses that no browser takes are mended or left out; the reference checker rejects them.
        const ADDRESSES = 1 << 0;
        /// A heading that leaves out a level on the way down gets the level in between, as the standard's outline wants it.
        const HEADING_STEPS = 1 << 1;
        /// Raw HTML that is kept loses the tags that GitHub disallows (GitHub Flavored Markdown, section 6.11).
        const TAG_FILTER = 1 << 2;
    }
}

bitflags::bitflags! {
    /// What [`Written`] lists.
    #[derive(Clone, Copy, Debug, Default, PartialEq, Eq, Hash)]
    pub struct Lists: u8 {
        /// The headings.
        const HEADINGS = 1 << 0;
        /// The ids.
        const IDS = 1 << 1;
    }
}

/// How HTML is written.
#[derive(Clone, Copy)]
pub struct Options<'h> {
    /// The settings of the format.
    pub settings: &'h Settings,
    /// Which elements get an id, where the settings do not say.
    pub usual_ids: Ids,
    /// What is mended.
    pub mends: Mends,
    /// What [`Written`] lists.
    pub lists: Lists,
    /// What stands before every id; for several documents in one page.
    pub id_prefix: &'h str,
    /// Names that other documents lead to: headings that have them get ids although nothing here leads to them.
    pub requested: Option<&'h std::collections::BTreeSet<String>>,
    /// The notes that are written although nothing mentions them; all of them where none are given.
    pub unmentioned: Option<&'h [NoteId]>,
    /// The level of a heading that stands above the document; 0 for none.
    pub level_above: u8,
    /// A heading that is of the first level, whatever the document says: the title of its page.
    pub top_heading: Option<NodeId>,
    /// What the notes are notes of; for several documents in one page.
    pub notes_of: &'h str,
    /// What the markup will stand in.
    pub context: Context,
    /// Ids that the surroundings of the output use.
    pub taken_ids: &'h [&'h str],
    /// Pictures that hold nothing that runs, whatever their addresses look like; in the order of their names.
    pub safe_pictures: &'h [NodeId],
    /// Colours code.
    pub highlight: Option<Highlighter<'h>>,
}

impl Options<'_> {
    /// Which elements get an id.
    pub(crate) fn ids(&self) -> Ids {
        self.settings.ids.unwrap_or(self.usual_ids)
    }

    /// Whether addresses that run script are written.
    pub(crate) fn trusts(&self) -> bool {
        bool::from(self.settings.trust)
    }
}

impl Default for Options<'_> {
    fn default() -> Self {
        Self {
            settings: &settings::USUAL,
            usual_ids: Ids::Used,
            mends: Mends::ADDRESSES | Mends::HEADING_STEPS,
            lists: Lists::empty(),
            id_prefix: "",
            requested: None,
            unmentioned: None,
            level_above: 0,
            top_heading: None,
            notes_of: "",
            context: Context::Fragment,
            taken_ids: &[],
            safe_pictures: &[],
            highlight: None,
        }
    }
}

impl std::fmt::Debug for Options<'_> {
    fn fmt(&self, f: &mut std::fmt::Formatter<'_>) -> std::fmt::Result {
        f.debug_struct("Options").field("settings", &self.settings).finish_non_exhaustive()
    }
}
