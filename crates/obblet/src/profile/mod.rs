//! Every setting there is: its default, its meaning, and the profiles that come with Obblet.
//!
//! A [`Profile`] is plain data. Layers of settings are put on each other in this order, later ones winning:
//!
//! 1. a built-in profile ([`Profile::built_in`]; `page` unless another is named),
//! 2. `obblet.toml` in the folders above and of the source, outermost first,
//! 3. profile files that the user names,
//! 4. single settings, as `key=value`.

mod builtin;
mod choices;
mod error;
mod layer;
mod layers;
mod settings;
mod value;

pub use builtin::BUILT_IN;
pub use error::ProfileError;
pub(crate) use error::nearest;
pub(crate) use layer::globs;
pub use layer::{FILE_NAME, Layer};
pub use layers::Layers;
pub use settings::{SETTINGS, Setting};
pub use value::Value;

use crate::formats::{html, markdown, text, word};
use crate::refine::Cleaning;
use std::collections::BTreeSet;
use std::path::PathBuf;

/// What an HTML output is.
#[derive(Clone, Copy, Debug, Default, PartialEq, Eq)]
pub enum Shape {
    /// A page; a fragment where the text comes from standard input.
    #[default]
    Auto,
    /// A whole document.
    Page,
    /// Content to paste into another system.
    Fragment,
}

/// How much of the source's looks is carried over.
#[derive(Clone, Copy, Debug, Default, PartialEq, Eq)]
pub enum Styling {
    /// Structure only.
    #[default]
    Semantic,
    /// Names of styles as classes.
    Named,
    /// Looks like the source.
    Exact,
}

/// Which levels headings have.
#[derive(Clone, Copy, Debug, Default, PartialEq, Eq)]
pub enum HeadingLevels {
    /// In steps, except in fragments of CommonMark.
    #[default]
    Auto,
    /// Never leaving out a level on the way down.
    Steps,
    /// As in the source.
    Source,
}

/// Settings of HTML output.
#[derive(Clone, Debug, Default, PartialEq, Eq)]
#[allow(missing_docs, reason = "the table of settings says what each is")]
pub struct HtmlSettings {
    pub syntax: html::Syntax,
    pub characters: html::Characters,
    pub indent: u8,
    pub compact: bool,
    pub raw: html::Raw,
    pub trust: bool,
    pub ids: Option<html::Ids>,
    pub heading_levels: HeadingLevels,
    pub heading_numbers: bool,
    pub encoding: String,
    pub content: html::Content,
    pub promote_headings: bool,
}

/// Which Markdown it is.
#[derive(Clone, Copy, Debug, Default, PartialEq, Eq)]
pub enum Dialect {
    /// The CommonMark specification and nothing else.
    Commonmark,
    /// What GitHub reads.
    #[default]
    Github,
}

/// What the end of a line within a paragraph is.
#[derive(Clone, Copy, Debug, Default, PartialEq, Eq)]
pub enum LineEnds {
    /// White space.
    #[default]
    Space,
    /// A line break.
    Break,
}

/// Settings of Markdown. An extension that is not set is as the dialect says.
#[derive(Clone, Debug, Default, PartialEq, Eq)]
#[allow(missing_docs, reason = "the table of settings says what each is")]
pub struct MarkdownSettings {
    pub dialect: Dialect,
    pub tables: Option<bool>,
    pub tasks: Option<bool>,
    pub strikethrough: Option<bool>,
    pub autolinks: Option<bool>,
    pub tag_filter: Option<bool>,
    pub footnotes: Option<bool>,
    pub alerts: Option<bool>,
    pub math: Option<bool>,
    pub front_matter: Option<bool>,
    pub line_ends: LineEnds,
    pub bullet: markdown::Bullet,
    pub emphasis: markdown::EmphasisMark,
    pub fence: markdown::Fence,
    pub headings: markdown::HeadingForm,
    pub links: markdown::LinkForm,
    pub width: u16,
    pub html: markdown::HtmlPieces,
    pub ids: bool,
}

impl MarkdownSettings {
    /// The options of the writer.
    #[must_use]
    pub fn write_options<'w>(&self) -> markdown::WriteOptions<'w> {
        markdown::WriteOptions {
            dialect: self.options(),
            bullet: self.bullet,
            emphasis: self.emphasis,
            fence: self.fence,
            headings: self.headings,
            links: self.links,
            width: self.width.into(),
            html: self.html,
            ids: self.ids,
            element: None,
        }
    }

    /// The options of the reader.
    #[must_use]
    pub fn options(&self) -> markdown::Options {
        let dialect = match self.dialect {
            Dialect::Commonmark => markdown::Options::COMMONMARK,
            Dialect::Github => markdown::Options::GITHUB,
        };
        markdown::Options {
            tables: self.tables.unwrap_or(dialect.tables),
            tasks: self.tasks.unwrap_or(dialect.tasks),
            strikethrough: self.strikethrough.unwrap_or(dialect.strikethrough),
            autolinks: self.autolinks.unwrap_or(dialect.autolinks),
            footnotes: self.footnotes.unwrap_or(dialect.footnotes),
            alerts: self.alerts.unwrap_or(dialect.alerts),
            math: self.math.unwrap_or(dialect.math),
            front_matter: self.front_matter.unwrap_or(dialect.front_matter),
            hard_lines: self.line_ends == LineEnds::Break,
        }
    }
}

/// Settings of plain text.
#[derive(Clone, Debug, PartialEq, Eq)]
#[allow(missing_docs, reason = "the table of settings says what each is")]
pub struct TextSettings {
    pub width: u16,
    pub encoding: String,
    pub paragraphs: text::ParagraphEnds,
    pub lists: bool,
    pub headings: bool,
    pub links: bool,
    pub emphasis: bool,
}

/// Settings of Word documents.
#[derive(Clone, Debug, Default, PartialEq, Eq)]
#[allow(missing_docs, reason = "the table of settings says what each is")]
pub struct WordSettings {
    pub comments: word::Comments,
    pub headers: word::Headers,
    pub heading_numbers: word::HeadingNumbers,
    pub list_numbers: word::ListNumbers,
    pub contents: bool,
    pub hidden: bool,
}

/// What becomes of pictures.
#[derive(Clone, Copy, Debug, Default, PartialEq, Eq)]
pub enum ImagePlace {
    /// Files in a folder beside the page.
    #[default]
    Folder,
    /// Within the page.
    Embed,
    /// Left out; their words stay.
    Drop,
}

/// Settings of pictures.
#[derive(Clone, Debug, PartialEq, Eq)]
#[allow(missing_docs, reason = "the table of settings says what each is")]
pub struct ImageSettings {
    pub place: ImagePlace,
    pub folder: String,
    pub sizes: bool,
    pub keep_unknown: bool,
}

/// Where style rules are.
#[derive(Clone, Copy, Debug, Default, PartialEq, Eq)]
pub enum StylePlace {
    /// In the page; in files where a folder is published, for its pages share them.
    #[default]
    Auto,
    /// In the page.
    Embed,
    /// In a file that the page names.
    Link,
}

/// Settings of whole pages.
#[derive(Clone, Debug, PartialEq, Eq)]
#[allow(missing_docs, reason = "the table of settings says what each is")]
pub struct PageSettings {
    pub title: String,
    pub description: String,
    pub author: String,
    pub language: String,
    pub look: String,
    pub styles: StylePlace,
    pub stylesheets: Vec<String>,
    pub contents: u8,
    pub head: Option<PathBuf>,
    pub header: Option<PathBuf>,
    pub footer: Option<PathBuf>,
    pub frame: Option<PathBuf>,
    pub skip_link: bool,
    pub highlight: bool,
}

/// Which files come along that no document is made of.
#[derive(Clone, Copy, Debug, Default, PartialEq, Eq)]
pub enum Copies {
    /// Those that a document shows or leads to.
    #[default]
    Used,
    /// All of them.
    All,
}

/// Settings of published folders.
#[derive(Clone, Debug, Default, PartialEq, Eq)]
#[allow(missing_docs, reason = "the table of settings says what each is")]
pub struct PublishSettings {
    pub include: Vec<String>,
    pub exclude: Vec<String>,
    pub copy: Copies,
    pub split: u8,
    pub site: bool,
    pub binder: bool,
    pub moved: bool,
    pub verify: bool,
}

/// Settings of sites.
#[derive(Clone, Debug, PartialEq, Eq)]
#[allow(missing_docs, reason = "the table of settings says what each is")]
pub struct SiteSettings {
    pub title: String,
    pub address: String,
    pub feed_entries: u16,
}

/// Limits of memory and sizes.
#[derive(Clone, Debug, PartialEq, Eq)]
#[allow(missing_docs, reason = "the table of settings says what each is")]
pub struct LimitSettings {
    pub source: u64,
    pub unpacked: u64,
    pub image: u64,
    pub characters: u64,
}

/// All settings. [`SETTINGS`] says what each means.
///
/// ```
/// use obblet::profile::{Profile, Shape};
///
/// let mut profile = Profile::built_in("fragment").unwrap();
/// profile.set("html.indent=2").unwrap();
/// assert_eq!((profile.shape, profile.html.indent), (Shape::Fragment, 2));
/// let error = profile.set("html.indnt=2").unwrap_err();
/// assert_eq!(error.to_string(), "there is no setting html.indnt; did you mean html.indent?");
/// ```
#[derive(Clone, Debug, PartialEq, Eq)]
#[allow(missing_docs, reason = "the table of settings says what each is")]
pub struct Profile {
    pub shape: Shape,
    pub styling: Styling,
    pub html: HtmlSettings,
    pub markdown: MarkdownSettings,
    pub text: TextSettings,
    pub word: WordSettings,
    pub images: ImageSettings,
    pub page: PageSettings,
    pub clean: Cleaning,
    pub publish: PublishSettings,
    pub site: SiteSettings,
    pub limits: LimitSettings,
}

impl Default for Profile {
    fn default() -> Self {
        Self {
            shape: Shape::default(),
            styling: Styling::default(),
            html: HtmlSettings::default(),
            markdown: MarkdownSettings::default(),
            text: TextSettings {
                width: 80,
                encoding: String::new(),
                paragraphs: text::ParagraphEnds::default(),
                lists: true,
                headings: true,
                links: true,
                emphasis: true,
            },
            word: WordSettings::default(),
            images: ImageSettings {
                place: ImagePlace::default(),
                folder: "{name}-images".to_owned(),
                sizes: true,
                keep_unknown: false,
            },
            page: PageSettings {
                title: String::new(),
                description: String::new(),
                author: String::new(),
                language: String::new(),
                look: "chart".to_owned(),
                styles: StylePlace::default(),
                stylesheets: Vec::new(),
                contents: 3,
                head: None,
                header: None,
                footer: None,
                frame: None,
                skip_link: true,
                highlight: false,
            },
            clean: Cleaning::default(),
            publish: PublishSettings::default(),
            site: SiteSettings { title: String::new(), address: String::new(), feed_entries: 20 },
            limits: LimitSettings { source: 1 << 29, unpacked: 1 << 28, image: 1 << 26, characters: 0 },
        }
    }
}

impl Profile {
    /// Whether classes of the source are in the output.
    pub(crate) fn keeps_classes(&self) -> bool {
        self.styling != Styling::Semantic || !self.clean.classes.is_empty()
    }

    /// Whether classes of the source are asked for.
    fn reads_classes(&self) -> bool {
        self.keeps_classes() || !self.clean.leave_out.is_empty()
    }

    /// The options of the HTML reader that the profile asks for.
    pub(crate) fn html_read_options(&self) -> html::ReadOptions<'_> {
        html::ReadOptions {
            encoding: Some(self.html.encoding.as_str()).filter(|label| !label.is_empty()),
            content: self.html.content,
            classes: self.reads_classes(),
            promote_headings: self.html.promote_headings,
            formatting_classes: self.clean.inline == crate::refine::rules::inline::Inline::Classes,
        }
    }

    /// The options of the text reader that the profile asks for.
    pub(crate) fn text_read_options(&self) -> text::ReadOptions<'_> {
        text::ReadOptions {
            encoding: Some(self.text.encoding.as_str()).filter(|label| !label.is_empty()),
            paragraphs: self.text.paragraphs,
            lists: self.text.lists,
            headings: self.text.headings,
            links: self.text.links,
            emphasis: self.text.emphasis,
            classes: self.reads_classes(),
        }
    }

    /// The options of the Word reader that the profile asks for.
    pub(crate) fn word_read_options(&self, wanted: &BTreeSet<String>) -> word::ReadOptions {
        let names = self.reads_classes();
        word::ReadOptions {
            looks: match self.styling {
                Styling::Semantic if names => word::StyleFidelity::Named,
                Styling::Semantic => word::StyleFidelity::Semantic,
                Styling::Named => word::StyleFidelity::Named,
                Styling::Exact => word::StyleFidelity::Exact,
            },
            revisions: self.clean.revisions,
            comments: self.word.comments,
            headers: self.word.headers,
            heading_numbers: self.word.heading_numbers,
            list_numbers: self.word.list_numbers,
            contents: self.word.contents,
            hidden: self.word.hidden,
            unpacked: self.limits.unpacked,
            wanted: wanted.clone(),
        }
    }

    /// The options of the HTML writer that the profile asks for.
    pub(crate) fn html_options<'h>(&self, ids: html::Ids) -> html::Options<'h> {
        let exact = self.shape == Shape::Fragment && self.markdown.dialect == Dialect::Commonmark;
        html::Options {
            syntax: self.html.syntax,
            characters: self.html.characters,
            indent: self.html.indent,
            compact: self.html.compact,
            ids: self.html.ids.unwrap_or(ids),
            raw: self.html.raw,
            tag_filter: self.markdown.tag_filter.unwrap_or(self.markdown.dialect == Dialect::Github),
            trust: self.html.trust,
            // The specification's own examples have addresses that the checker rejects.
            mend_addresses: !exact,
            heading_numbers: self.html.heading_numbers,
            heading_steps: match self.html.heading_levels {
                HeadingLevels::Steps => true,
                HeadingLevels::Source => false,
                HeadingLevels::Auto => !exact,
            },
            ..html::Options::default()
        }
    }
}
