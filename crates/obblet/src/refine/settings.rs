//! The settings of all passes, and which of them run.

use super::lists::Lists;
use super::revisions::Revisions;
use super::rules::capitals::Capitals;
use super::rules::elements::Disallowed;
use super::rules::inline::{Bold, Inline};
use super::rules::leave_out::Selector;
use super::rules::lines::{LineBreaks, Paragraphs};
use super::rules::replace;
use super::rules::scenes::SceneBreaks;
use super::rules::spaces::{StopSpaces, Tabs};
use super::typography::{Dashes, Quotes};
use crate::document::{Document, Kind, Producer};
use crate::settings::{Choice, Declared, Setting, choice, flag, list, text};

/// When a pass runs.
#[derive(Clone, Copy, Debug, Default, PartialEq, Eq)]
pub enum When {
    /// Where looks are set in the source, or a program left its own notes in it.
    #[default]
    Auto,
    /// Always.
    Always,
    /// Never.
    Never,
}

impl When {
    pub(super) fn holds(self, doc: &Document) -> bool {
        match self {
            Self::Auto => doc.layout_hints.producer != Producer::Plain,
            Self::Always => true,
            Self::Never => false,
        }
    }
}

/// The settings of all passes.
#[derive(Clone, Debug, Default, PartialEq, Eq)]
pub struct Cleaning {
    /// Parts of the source that the output goes without.
    pub leave_out: Vec<String>,
    /// Passes that do not run, by their names.
    pub skip: Vec<String>,
    /// What becomes of insertions and deletions.
    pub revisions: Revisions,
    /// Whether links that go through a counter lead straight to where they end up.
    pub redirects: bool,
    /// What programs leave in a document.
    pub noise: Noise,
    /// House rules about text.
    pub text: TextRules,
    /// House rules about elements and attributes.
    pub elements: ElementRules,
}

/// Settings of the passes that take out what programs leave.
#[derive(Clone, Debug, PartialEq, Eq)]
pub struct Noise {
    /// Whether tables that only set things beside each other are unwrapped, cell by cell.
    pub layout_tables: bool,
    /// Whether paragraphs that follow each other with as many tabs within each become a table.
    pub tab_columns: bool,
    /// Which paragraphs become items of lists: none, those that a program marked as items, or also those that begin with typed bullets or numbers, in every document or, with auto, where the source has formatting.
    pub lists: Lists,
    /// When anchors that nothing in the document links to are removed.
    pub anchors: When,
    /// When languages of spans move to the largest elements that are wholly in them, and what says the language of its surroundings says none.
    pub languages: When,
    /// Names and links that programs make up.
    pub names: ProgramNames,
    /// What served a page and not its text.
    pub page_parts: PageParts,
    /// When runs of the same formatting are joined, formatting around white space goes, and white space at its ends moves out.
    pub formatting: When,
    /// When paragraphs that are all bold and short become headings, and whole paragraphs in the style of a heading become text. With auto, the first where the document has no headings but that of its title.
    pub promote_headings: When,
    /// When paragraphs that follow each other in a fixed-width font, or lines of one, become a code block.
    pub code_blocks: When,
    /// When runs of spaces and no-break spaces become one space, space at the ends of lines goes, and characters without width.
    pub white_space: When,
    /// Whether empty paragraphs, and line breaks at the ends of paragraphs, are left out.
    pub spacers: bool,
    /// When elements that hold nothing are left out.
    pub empty: When,
    /// When the only paragraph of a cell, and of each item of a list, becomes plain text.
    pub lone_paragraphs: When,
    /// When the first row of a table becomes its head, because all of its cells are bold and the others are not.
    pub table_heads: When,
}

/// What becomes of names and links that programs make up.
#[derive(Clone, Copy, Debug, Default, PartialEq, Eq)]
pub struct ProgramNames {
    /// Whether links of headings to themselves are opened, and signs beside headings that lead to them are left out.
    pub heading_links: bool,
    /// Whether alt text that is the name of a file counts as none.
    pub image_alt: bool,
    /// Whether ids that programs made up become readable, in links and where they lead.
    pub readable_ids: bool,
}

/// What becomes of parts that served a page and not its text.
#[derive(Clone, Copy, Debug, Default, PartialEq, Eq)]
pub struct PageParts {
    /// Whether titles of links and images that repeat their text are left out.
    pub titles: bool,
    /// Whether links that lead nowhere and say copy, show, hide or print are left out.
    pub controls: bool,
    /// Whether sections that hold all of a document and say nothing else are opened.
    pub outer_sections: bool,
}

/// House rules about text.
#[derive(Clone, Debug, PartialEq, Eq)]
pub struct TextRules {
    /// Texts that are replaced, in text only, in this order.
    pub replace: Vec<String>,
    /// Replacements by regular expressions, behind the plain ones; $1 is the first group.
    pub replace_patterns: Vec<String>,
    /// What becomes of passages in capitals: they stay, or get the case of titles or of sentences.
    pub capitals: Capitals,
    /// Acronyms and names, written as they shall be, that clean.capitals leaves so.
    pub protected_words: Vec<String>,
    /// What becomes of bold text: it stays, becomes like the text around it, or becomes capitals.
    pub bold: Bold,
    /// How many spaces stand between sentences.
    pub stop_spaces: StopSpaces,
    /// What becomes of tabs in text.
    pub tabs: Tabs,
    /// Whether straight quotation marks become the ones that printers of the document's language use, or those become straight.
    pub quotes: Quotes,
    /// Whether two hyphens become an en dash and three an em dash (typographic), or either the dash that the language of the document sets, with or without spaces (language: in English an em dash without any); and three full stops an ellipsis; or the other way.
    pub dashes: Dashes,
    /// Whether the lines of a paragraph are joined, so that where the source wrapped them does not show.
    pub join_lines: bool,
    /// What becomes of lines of stars and their like between scenes: they stay, become thematic breaks, or a paragraph with a mark, as thematic breaks do then.
    pub scene_breaks: SceneBreaks,
    /// The mark between scenes.
    pub scene_mark: String,
}

/// House rules about elements and attributes.
#[derive(Clone, Debug, PartialEq, Eq)]
pub struct ElementRules {
    /// What becomes of line breaks in HTML output: they stay, become spaces, or end paragraphs.
    pub line_breaks: LineBreaks,
    /// With a mark here, lists in HTML output become lines that begin with it, or with their numbers.
    pub list_lines: String,
    /// Elements that HTML output loses with their content.
    pub remove_elements: Vec<String>,
    /// Elements that HTML output loses, but not their content.
    pub unwrap_elements: Vec<String>,
    /// Elements of HTML output that become others.
    pub rename_elements: Vec<String>,
    /// The only elements that HTML output may have; all where there are none.
    pub allow_elements: Vec<String>,
    /// Whether elements that are not allowed lose their tags, or go with their content.
    pub disallowed: Disallowed,
    /// What becomes of paragraphs in HTML output: they stay, or become text with one or two line breaks between.
    pub paragraphs: Paragraphs,
    /// Whether inline formatting in HTML output is written as elements, or as spans with classes.
    pub inline: Inline,
    /// What becomes of classes of the source: the first pattern that fits decides, and what none fits is dropped.
    pub classes: Vec<String>,
    /// The only attributes that HTML output may have, beside those without which an element says nothing; all where there are none.
    pub allow_attributes: Vec<String>,
    /// Attributes that HTML output loses.
    pub remove_attributes: Vec<String>,
}

impl Default for Noise {
    fn default() -> Self {
        Self {
            layout_tables: false,
            tab_columns: false,
            lists: Lists::default(),
            anchors: When::Auto,
            languages: When::Auto,
            names: ProgramNames { heading_links: true, image_alt: true, readable_ids: true },
            page_parts: PageParts { titles: true, controls: true, outer_sections: true },
            formatting: When::Auto,
            promote_headings: When::Auto,
            code_blocks: When::Auto,
            white_space: When::Auto,
            spacers: true,
            empty: When::Auto,
            lone_paragraphs: When::Auto,
            table_heads: When::Auto,
        }
    }
}

impl Default for TextRules {
    fn default() -> Self {
        Self {
            replace: Vec::new(),
            replace_patterns: Vec::new(),
            capitals: Capitals::Keep,
            protected_words: Vec::new(),
            bold: Bold::Keep,
            stop_spaces: StopSpaces::Keep,
            tabs: Tabs::Keep,
            quotes: Quotes::Keep,
            dashes: Dashes::Keep,
            join_lines: true,
            scene_breaks: SceneBreaks::Keep,
            scene_mark: "* * *".to_owned(),
        }
    }
}

impl Default for ElementRules {
    fn default() -> Self {
        Self {
            line_breaks: LineBreaks::Keep,
            list_lines: String::new(),
            remove_elements: Vec::new(),
            unwrap_elements: Vec::new(),
            rename_elements: Vec::new(),
            allow_elements: Vec::new(),
            disallowed: Disallowed::Unwrap,
            paragraphs: Paragraphs::Keep,
            inline: Inline::Elements,
            classes: Vec::new(),
            allow_attributes: Vec::new(),
            remove_attributes: Vec::new(),
        }
    }
}

impl ElementRules {
    /// Whether elements are allowed, removed, unwrapped or renamed.
    pub(super) fn has_rules(&self) -> bool {
        [&self.allow_elements, &self.remove_elements, &self.unwrap_elements, &self.rename_elements]
            .iter()
            .any(|list| !list.is_empty())
    }
}

impl Cleaning {
    /// Settings by which a document stays as it is.
    #[must_use]
    pub fn none() -> Self {
        let noise = Noise {
            layout_tables: false,
            tab_columns: false,
            lists: Lists::Keep,
            anchors: When::Never,
            languages: When::Never,
            names: ProgramNames::default(),
            page_parts: PageParts::default(),
            formatting: When::Never,
            promote_headings: When::Never,
            code_blocks: When::Never,
            white_space: When::Never,
            spacers: false,
            empty: When::Never,
            lone_paragraphs: When::Never,
            table_heads: When::Never,
        };
        Self {
            leave_out: Vec::new(),
            skip: Vec::new(),
            revisions: Revisions::Keep,
            redirects: false,
            noise,
            text: TextRules { join_lines: false, ..TextRules::default() },
            elements: ElementRules::default(),
        }
    }

    /// Whether a pass runs, as far as `clean.skip` says.
    #[must_use]
    pub fn runs(&self, pass: &str) -> bool {
        !self.skip.iter().any(|skipped| skipped == pass)
    }
}

impl Declared for Cleaning {
    const SETTINGS: &'static [Setting<Self>] = &[
        list!(
            "clean.leave-out",
            leave_out,
            "a list of selectors, as in \"aside\", \".draft\", \"#pay\", \"table.wide p\" or \"section(Pay)\"",
            |selector: &str| Selector::read(selector).is_some(),
            "Parts of the source that the output goes without: elements, by name, class, id or what they stand in, and headings with all that is under them."
        ),
        list!(
            "clean.skip",
            skip,
            "a list of names of passes, as in \"white-space\" (obblet profile show --passes lists them)",
            super::pass_names::is_pass,
            "Passes that do not run, whatever their own settings say."
        ),
        choice!(
            "clean.revisions",
            Revisions,
            revisions,
            "What becomes of insertions and deletions: those that a program recorded while somebody revised are accepted, or all are kept, accepted or rejected. With auto, they stay tracked changes in Word documents that are written, and those that a program recorded are accepted elsewhere."
        ),
        flag!(
            "clean.layout-tables",
            noise.layout_tables,
            "Whether tables that only set things beside each other are unwrapped, cell by cell."
        ),
        flag!(
            "clean.tab-columns",
            noise.tab_columns,
            "Whether paragraphs that follow each other with as many tabs within each become a table."
        ),
        choice!(
            "clean.lists",
            Lists,
            noise.lists,
            "Which paragraphs become items of lists: none, those that a program marked as items, or also those that begin with typed bullets or numbers, in every document or, with auto, where the source has formatting."
        ),
        choice!(
            "clean.anchors",
            When,
            noise.anchors,
            "When anchors that nothing in the document links to are removed. With auto, where a program wrote the document; anchors that programs make up are removed wherever the source has formatting."
        ),
        choice!(
            "clean.languages",
            When,
            noise.languages,
            "When the language of most of the text becomes that of the document, others stand on the largest elements that are wholly in them, and what says the language of its surroundings says none. With auto, where the source has formatting."
        ),
        flag!(
            "clean.readable-ids",
            noise.names.readable_ids,
            "Whether ids that programs made up, as in _Ref502, become readable ones, as in figure-1, in links and where they lead."
        ),
        flag!(
            "clean.heading-links",
            noise.names.heading_links,
            "Whether links of headings to themselves are opened, and signs beside headings that lead to them are left out."
        ),
        flag!("clean.image-alt", noise.names.image_alt, "Whether alt text that is the name of a file counts as none."),
        flag!("clean.titles", noise.page_parts.titles, "Whether titles of links and images that repeat their text are left out."),
        flag!(
            "clean.controls",
            noise.page_parts.controls,
            "Whether links that lead nowhere and say copy, show, hide or print are left out."
        ),
        flag!(
            "clean.outer-sections",
            noise.page_parts.outer_sections,
            "Whether sections that hold all of the document and say nothing else are opened."
        ),
        choice!(
            "clean.formatting",
            When,
            noise.formatting,
            "When runs of the same formatting are joined, formatting around white space goes, and white space at its ends moves out. With auto, where the source has formatting."
        ),
        choice!(
            "clean.promote-headings",
            When,
            noise.promote_headings,
            "When paragraphs that are all bold and short become headings, the largest letters first, and whole paragraphs in the style of a heading become text. With auto, headings are made where the document has none but that of its title; else such paragraphs are reported."
        ),
        choice!(
            "clean.code-blocks",
            When,
            noise.code_blocks,
            "When paragraphs that follow each other in a fixed-width font, or lines of one, become a code block. With auto, where the source has formatting."
        ),
        choice!(
            "clean.white-space",
            When,
            noise.white_space,
            "When runs of spaces and no-break spaces become one space, space at the ends of lines goes, and characters without width. With auto, where the source has formatting."
        ),
        flag!(
            "clean.spacers",
            noise.spacers,
            "Whether empty paragraphs, and line breaks at the ends of paragraphs, are left out."
        ),
        choice!(
            "clean.empty",
            When,
            noise.empty,
            "When elements that hold nothing are left out. With auto, where the source has formatting."
        ),
        choice!(
            "clean.lone-paragraphs",
            When,
            noise.lone_paragraphs,
            "When the only paragraph of a cell, and of each item of a list, becomes plain text. With auto, where the source has formatting."
        ),
        choice!(
            "clean.table-heads",
            When,
            noise.table_heads,
            "When the first row of a table becomes its head, because all of its cells are bold and the others are not. With auto, where the source has formatting."
        ),
        #[cfg(feature = "url")]
        flag!(
            "clean.redirects",
            redirects,
            "Whether links that go through a counter lead straight to where they end up, and lose parameters that only counters read."
        ),
        list!(
            "clean.replace",
            text.replace,
            "a list of replacements, as in \"high tide => high water\"",
            |rule: &str| replace::parts(rule).is_some(),
            "Texts that are replaced, in text only, in this order."
        ),
        list!(
            "clean.replace-patterns",
            text.replace_patterns,
            "a list of replacements by regular expressions, as in \"(\\\\d+) ?m\\\\b => $1 metres\"",
            |rule: &str| replace::expression(rule).is_ok(),
            "Replacements by regular expressions, behind the plain ones; $1 is the first group."
        ),
        choice!(
            "clean.capitals",
            Capitals,
            text.capitals,
            "What becomes of passages in capitals: they stay, or get the case of titles or of sentences."
        ),
        list!(
            "clean.protected-words",
            text.protected_words,
            "a list of words",
            "Acronyms and names, written as they shall be, that clean.capitals leaves so. Words that look like acronyms are suggested in a finding."
        ),
        choice!(
            "clean.bold",
            Bold,
            text.bold,
            "What becomes of bold text: it stays, becomes like the text around it, or becomes capitals."
        ),
        choice!("clean.stop-spaces", StopSpaces, text.stop_spaces, "How many spaces stand between sentences."),
        choice!("clean.tabs", Tabs, text.tabs, "What becomes of tabs in text."),
        choice!(
            "clean.quotes",
            Quotes,
            text.quotes,
            "Whether straight quotation marks become the ones that printers of the document's language use, or those become straight."
        ),
        choice!(
            "clean.dashes",
            Dashes,
            text.dashes,
            "Whether two hyphens become an en dash and three an em dash (typographic), or either the dash that the language of the document sets, with or without spaces (language: in English an em dash without any); and three full stops an ellipsis; or the other way."
        ),
        flag!(
            "clean.join-lines",
            text.join_lines,
            "Whether the lines of a paragraph are joined, so that where the source wrapped them does not show; html.width and markdown.width wrap them anew."
        ),
        choice!(
            "clean.scene-breaks",
            SceneBreaks,
            text.scene_breaks,
            "What becomes of lines of stars and their like between scenes: they stay, become thematic breaks, or a paragraph with a mark, as thematic breaks do then."
        ),
        text!("clean.scene-mark", text.scene_mark, "The mark between scenes."),
        choice!(
            "clean.line-breaks",
            LineBreaks,
            elements.line_breaks,
            "What becomes of line breaks in HTML output: they stay, become spaces, or end paragraphs."
        ),
        text!(
            "clean.list-lines",
            elements.list_lines,
            "With a mark here, lists in HTML output become lines that begin with it, or with their numbers."
        ),
        list!(
            "clean.remove-elements",
            elements.remove_elements,
            "a list of names of elements, as in \"aside\" or \"o:*\" (selectors are for clean.leave-out)",
            is_name,
            "Elements that HTML output loses with their content."
        ),
        list!(
            "clean.unwrap-elements",
            elements.unwrap_elements,
            "a list of names of elements, as in \"aside\" or \"o:*\" (selectors are for clean.leave-out)",
            is_name,
            "Elements that HTML output loses, but not their content."
        ),
        list!(
            "clean.rename-elements",
            elements.rename_elements,
            "a list of pairs of elements that may stand in the same places, as in \"strong = b\"",
            is_renaming,
            "Elements of HTML output that become others."
        ),
        list!(
            "clean.allow-elements",
            elements.allow_elements,
            "a list of names of elements, as in \"aside\" or \"o:*\" (selectors are for clean.leave-out)",
            is_name,
            "The only elements that HTML output may have; all where there are none."
        ),
        choice!(
            "clean.disallowed",
            Disallowed,
            elements.disallowed,
            "Whether elements that are not allowed lose their tags, or go with their content."
        ),
        choice!(
            "clean.paragraphs",
            Paragraphs,
            elements.paragraphs,
            "What becomes of paragraphs in HTML output: they stay, or become text with one or two line breaks between."
        ),
        choice!(
            "clean.inline",
            Inline,
            elements.inline,
            "Whether inline formatting in HTML output is written as elements, or as spans with classes."
        ),
        list!(
            "clean.classes",
            elements.classes,
            "a list of patterns, as in \"note-*\" (kept), \"Quote = pull-quote\" (renamed), \"Mso* =\" (dropped)",
            is_class_rule,
            "What becomes of classes of the source: the first pattern that fits decides, and what none fits is dropped. Without any, styling decides."
        ),
        list!(
            "clean.allow-attributes",
            elements.allow_attributes,
            "a list of names, as in \"href\" or \"img.width\"",
            is_attribute,
            "The only attributes that HTML output may have, beside those without which an element says nothing; all where there are none."
        ),
        list!(
            "clean.remove-attributes",
            elements.remove_attributes,
            "a list of names, as in \"id\" or \"img.width\"",
            is_attribute,
            "Attributes that HTML output loses. What says nothing without them, as a link without an address, leaves its words."
        ),
    ];
}

impl Choice for When {
    const CHOICES: &'static [(&'static str, Self)] = &[("auto", Self::Auto), ("always", Self::Always), ("never", Self::Never)];
}

impl Choice for Lists {
    const CHOICES: &'static [(&'static str, Self)] =
        &[("keep", Self::Keep), ("marked", Self::Marked), ("auto", Self::Auto), ("typed", Self::Typed)];
}

impl Choice for Revisions {
    const CHOICES: &'static [(&'static str, Self)] = &[
        ("auto", Self::Auto),
        ("recorded", Self::Recorded),
        ("keep", Self::Keep),
        ("accept", Self::Accept),
        ("reject", Self::Reject),
    ];
}

impl Choice for Capitals {
    const CHOICES: &'static [(&'static str, Self)] =
        &[("keep", Self::Keep), ("title", Self::Title), ("sentence", Self::Sentence)];
}

impl Choice for Bold {
    const CHOICES: &'static [(&'static str, Self)] =
        &[("keep", Self::Keep), ("remove", Self::Remove), ("capitals", Self::Capitals)];
}

impl Choice for StopSpaces {
    const CHOICES: &'static [(&'static str, Self)] = &[("keep", Self::Keep), ("one", Self::One), ("two", Self::Two)];
}

impl Choice for Tabs {
    const CHOICES: &'static [(&'static str, Self)] = &[("keep", Self::Keep), ("space", Self::Space)];
}

impl Choice for Quotes {
    const CHOICES: &'static [(&'static str, Self)] =
        &[("keep", Self::Keep), ("typographic", Self::Typographic), ("straight", Self::Straight)];
}

impl Choice for Dashes {
    const CHOICES: &'static [(&'static str, Self)] =
        &[("keep", Self::Keep), ("typographic", Self::Typographic), ("language", Self::Language), ("hyphens", Self::Hyphens)];
}

impl Choice for SceneBreaks {
    const CHOICES: &'static [(&'static str, Self)] = &[("keep", Self::Keep), ("rule", Self::Rule), ("mark", Self::Mark)];
}

impl Choice for LineBreaks {
    const CHOICES: &'static [(&'static str, Self)] =
        &[("keep", Self::Keep), ("space", Self::Space), ("paragraphs", Self::Paragraphs)];
}

impl Choice for Paragraphs {
    const CHOICES: &'static [(&'static str, Self)] =
        &[("keep", Self::Keep), ("breaks", Self::Breaks), ("blank-lines", Self::BlankLines)];
}

impl Choice for Disallowed {
    const CHOICES: &'static [(&'static str, Self)] = &[("unwrap", Self::Unwrap), ("remove", Self::Remove)];
}

impl Choice for Inline {
    const CHOICES: &'static [(&'static str, Self)] = &[("elements", Self::Elements), ("classes", Self::Classes)];
}

/// Whether a text is a name as markup has them, in which `*` stands for any characters.
fn is_name(text: &str) -> bool {
    !text.is_empty() && text.chars().all(|c| c.is_alphanumeric() || matches!(c, '-' | '_' | ':' | '*'))
}

/// Whether a text is the name of an attribute, or those of an element and an attribute with a full stop between.
fn is_attribute(text: &str) -> bool {
    text.split_once('.').map_or_else(|| is_name(text), |(element, attribute)| is_name(element) && is_name(attribute))
}

/// Whether a text is a pattern of class names, with or without what becomes of those that fit.
fn is_class_rule(text: &str) -> bool {
    let is_class = |name: &str| !name.contains(|c: char| c.is_whitespace() || matches!(c, '.' | '#' | '>' | '<' | '"'));
    let (pattern, name) = text.split_once('=').map_or((text, ""), |(pattern, name)| (pattern.trim(), name.trim()));
    !pattern.is_empty() && is_class(pattern) && is_class(name)
}

/// Whether a text is a pair of elements of which one can become the other.
fn is_renaming(text: &str) -> bool {
    let Some((from, to)) = text.split_once('=').map(|(from, to)| (from.trim(), to.trim())) else { return false };
    let Some(new) = Kind::from_element(to).filter(|new| !new.is_leaf()) else { return false };
    is_name(from) && Kind::from_element(from).is_none_or(|old| old.is_inline() == new.is_inline() && !old.is_leaf())
}
