//! The settings of Word documents.

use super::{Comments, ContentsLists, Headers, HeadingNumbers, ListNumbers};
use crate::settings::{Choice, Declared, Setting, choice, file, flag};

/// Settings of Word documents.
#[derive(Clone, Debug, PartialEq, Eq)]
pub struct Settings {
    /// What becomes of comments in Word documents: they stay comments, are left out with a finding, or become notes.
    pub comments: Comments,
    /// What becomes of the headers and footers of pages in Word documents: they are left out with a finding, or stand at both ends of the text.
    pub headers: Headers,
    /// Whether numbers that the word processor puts before headings become text.
    pub heading_numbers: HeadingNumbers,
    /// What becomes of paragraphs with numbers that lists in HTML do not have, such as 1.2: items of lists, or paragraphs that begin with their numbers as text.
    pub list_numbers: ListNumbers,
    /// Whether lists of contents in Word documents stay; pages have one of their own.
    pub contents: ContentsLists,
    /// How tab stops are kept where a document is to look like the source.
    pub tab_stops: TabStops,
    /// Whether hidden text of Word documents is shown.
    pub hidden: bool,
    /// The pages of Word documents that are written: A4, Letter, or those of the source and of the language.
    pub page: PageSize,
    /// Which insertions and deletions are tracked changes in Word documents that are written.
    pub tracked_changes: TrackedChanges,
    /// What Word documents that are written have beside their text.
    pub extras: Extras,
    /// A document whose styles, numbering, theme, pages, headers and footers those that are written take over.
    pub template: Option<std::path::PathBuf>,
}

/// What documents have beside their text.
#[derive(Clone, Copy, Debug, Default, PartialEq, Eq)]
pub struct Extras {
    /// Whether they have a list of contents below their title.
    pub contents_list: bool,
    /// Whether each page shows the title and the chapter at its top.
    pub running_header: bool,
    /// Whether each page shows its number at its foot.
    pub page_numbers: bool,
}

/// How tab stops are kept.
#[derive(Clone, Copy, Debug, Default, PartialEq, Eq)]
pub enum TabStops {
    /// As they are where a Word document is written, and as style rules elsewhere.
    #[default]
    Auto,
    /// As style rules that look like them, as far as there are such.
    Rules,
    /// As they are.
    Stops,
}

/// Which insertions and deletions are tracked changes.
#[derive(Clone, Copy, Debug, Default, PartialEq, Eq)]
pub enum TrackedChanges {
    /// Those of which the source says who made them; the others are underlined or struck out.
    #[default]
    Recorded,
    /// All of them.
    All,
}

/// The size of pages.
#[derive(Clone, Copy, Debug, Default, PartialEq, Eq)]
pub enum PageSize {
    /// The one of the source, else the one that people of the document's language use.
    #[default]
    Auto,
    /// 210 by 297 millimetres.
    A4,
    /// 8.5 by 11 inches.
    Letter,
}

impl Settings {
    /// The settings where nobody says others.
    pub(super) const USUAL: Self = Self {
        comments: Comments::Auto,
        headers: Headers::Auto,
        heading_numbers: HeadingNumbers::Auto,
        list_numbers: ListNumbers::Items,
        contents: ContentsLists::Auto,
        tab_stops: TabStops::Auto,
        hidden: false,
        page: PageSize::Auto,
        tracked_changes: TrackedChanges::Recorded,
        extras: Extras { contents_list: false, running_header: false, page_numbers: false },
        template: None,
    };
}

impl Settings {
    /// The settings with what depends on the format that is written decided, where something does: whether that `keeps` what only
    /// word processors have.
    pub(crate) fn for_target(&self, keeps: bool) -> Option<Self> {
        let mut own = self.clone();
        match own.comments {
            Comments::Auto if keeps => own.comments = Comments::Keep,
            // Nothing else has comments.
            Comments::Keep if !keeps => own.comments = Comments::Drop,
            _ => {}
        }
        match own.headers {
            Headers::Auto if keeps => own.headers = Headers::Pages,
            // Nothing else has pages.
            Headers::Pages if !keeps => own.headers = Headers::Drop,
            _ => {}
        }
        match own.contents {
            ContentsLists::Auto if keeps => own.contents = ContentsLists::Field,
            ContentsLists::Field if !keeps => own.contents = ContentsLists::Drop,
            _ => {}
        }
        match own.tab_stops {
            TabStops::Auto if keeps => own.tab_stops = TabStops::Stops,
            TabStops::Stops if !keeps => own.tab_stops = TabStops::Rules,
            _ => {}
        }
        (own != *self).then_some(own)
    }
}

impl Default for Settings {
    fn default() -> Self {
        Self::USUAL
    }
}

/// [`Settings::USUAL`], to lend.
pub(super) static USUAL: Settings = Settings::USUAL;

impl Declared for Settings {
    const SETTINGS: &'static [Setting<Self>] = &[
        choice!(
            "word.comments",
            Comments,
            comments,
            "What becomes of comments in Word documents: they stay comments, are left out with a finding, or become notes. With auto, they stay in Word documents that are written, and are left out of others, which have none."
        ),
        choice!(
            "word.headers",
            Headers,
            headers,
            "What becomes of the headers and footers of pages in Word documents: they are left out with a finding, stand at both ends of the text, or stay on the pages. With auto, they stay in Word documents that are written, and are left out of others, which have no pages."
        ),
        choice!(
            "word.heading-numbers",
            HeadingNumbers,
            heading_numbers,
            "Whether numbers that the word processor puts before headings become text. With auto, where the text refers to them, or the page is to look like the source."
        ),
        choice!(
            "word.list-numbers",
            ListNumbers,
            list_numbers,
            "What becomes of paragraphs with numbers that lists in HTML do not have, such as 1.2: items of lists, or paragraphs that begin with their numbers as text."
        ),
        choice!(
            "word.contents",
            ContentsLists,
            contents,
            "Whether lists of contents in Word documents stay: as text, as the field that they are, or not, since pages have one of their own. With auto, as the field in Word documents that are written, and not elsewhere."
        ),
        choice!(
            "word.tab-stops",
            TabStops,
            tab_stops,
            "How tab stops of Word documents are kept with styling=exact: as style rules that look like them, as far as there are such, or as they are. With auto, as they are in Word documents that are written, and as rules elsewhere."
        ),
        choice!(
            "word.page",
            PageSize,
            page,
            "The pages of Word documents that are written: a4, letter, or with auto those of the source, else those of the language."
        ),
        choice!(
            "word.tracked-changes",
            TrackedChanges,
            tracked_changes,
            "Which insertions and deletions are tracked changes in Word documents that are written: those that the source records as such, or all. The others are underlined or struck out."
        ),
        flag!(
            "word.contents-list",
            extras.contents_list,
            "Whether Word documents that are written have a list of contents below their title, which word processors fill with the numbers of the pages."
        ),
        flag!(
            "word.running-header",
            extras.running_header,
            "Whether each page of Word documents that are written shows the title and the chapter at its top."
        ),
        flag!(
            "word.page-numbers",
            extras.page_numbers,
            "Whether each page of Word documents that are written shows its number at its foot."
        ),
        file!(
            "word.template",
            template,
            "A Word document or template whose styles, numbering, theme, page set-up, headers and footers those that are written take over; styles that it lacks are added."
        ),
        flag!("word.hidden", hidden, "Whether hidden text of Word documents is shown."),
    ];
}

impl Choice for TabStops {
    const CHOICES: &'static [(&'static str, Self)] = &[("auto", Self::Auto), ("rules", Self::Rules), ("stops", Self::Stops)];
}

impl Choice for TrackedChanges {
    const CHOICES: &'static [(&'static str, Self)] = &[("recorded", Self::Recorded), ("all", Self::All)];
}

impl Choice for PageSize {
    const CHOICES: &'static [(&'static str, Self)] = &[("auto", Self::Auto), ("a4", Self::A4), ("letter", Self::Letter)];
}

impl Choice for Comments {
    const CHOICES: &'static [(&'static str, Self)] =
        &[("auto", Self::Auto), ("keep", Self::Keep), ("drop", Self::Drop), ("notes", Self::Notes)];
}

impl Choice for Headers {
    const CHOICES: &'static [(&'static str, Self)] =
        &[("auto", Self::Auto), ("drop", Self::Drop), ("keep", Self::Keep), ("pages", Self::Pages)];
}

impl Choice for ContentsLists {
    const CHOICES: &'static [(&'static str, Self)] =
        &[("auto", Self::Auto), ("false", Self::Drop), ("true", Self::Keep), ("field", Self::Field)];
}

impl Choice for HeadingNumbers {
    const CHOICES: &'static [(&'static str, Self)] = &[("auto", Self::Auto), ("keep", Self::Keep), ("drop", Self::Drop)];
}

impl Choice for ListNumbers {
    const CHOICES: &'static [(&'static str, Self)] = &[("items", Self::Items), ("text", Self::Text)];
}
