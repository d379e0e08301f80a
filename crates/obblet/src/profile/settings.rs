//! The table of settings.

use super::value::{Choice, Value};
use super::{Dialect, HeadingLevels, ImagePlace, LineEnds, Profile, Shape, StylePlace, Styling};
use crate::formats::html::{Characters, Content, Ids, Raw, Syntax};
use crate::formats::markdown::{Bullet, EmphasisMark, Fence, HeadingForm, HtmlPieces, LinkForm};
use crate::refine::typography::{Dashes, Quotes};
use std::path::PathBuf;

/// One setting.
pub struct Setting {
    /// Its name, as in `html.indent`.
    pub key: &'static str,
    /// What it does, in a sentence or two.
    pub meaning: &'static str,
    /// What its value may be.
    pub values: fn() -> String,
    /// Its value in a profile.
    pub get: fn(&Profile) -> Value,
    pub(super) set: fn(&mut Profile, &Value) -> Option<()>,
}

impl std::fmt::Debug for Setting {
    fn fmt(&self, f: &mut std::fmt::Formatter<'_>) -> std::fmt::Result {
        f.debug_struct("Setting").field("key", &self.key).finish_non_exhaustive()
    }
}

fn choices<C: Choice>() -> String {
    C::CHOICES.iter().map(|(name, _)| *name).collect::<Vec<_>>().join(", ")
}

macro_rules! choice {
    ($key:literal, $kind:ty, $($field:ident).+, $meaning:literal) => {
        Setting {
            key: $key,
            meaning: $meaning,
            values: choices::<$kind>,
            get: |profile| Value::text(profile.$($field).+.name()),
            set: |profile, value| {
                profile.$($field).+ = <$kind as Choice>::read(value)?;
                Some(())
            },
        }
    };
}

macro_rules! flag {
    ($key:literal, $($field:ident).+, $meaning:literal) => {
        Setting {
            key: $key,
            meaning: $meaning,
            values: || "true, false".to_owned(),
            get: |profile| Value::Flag(profile.$($field).+),
            set: |profile, value| {
                profile.$($field).+ = flag(value)?;
                Some(())
            },
        }
    };
}

macro_rules! number {
    ($key:literal, $($field:ident).+, $least:literal to $most:literal, $meaning:literal) => {
        Setting {
            key: $key,
            meaning: $meaning,
            values: || format!("a whole number from {} to {}", $least, $most),
            get: |profile| Value::Number(profile.$($field).+ as i64),
            set: |profile, value| {
                let number = number(value).filter(|number| ($least..=$most).contains(number))?;
                profile.$($field).+ = number.try_into().ok()?;
                Some(())
            },
        }
    };
}

macro_rules! text {
    ($key:literal, $($field:ident).+, $meaning:literal) => {
        Setting {
            key: $key,
            meaning: $meaning,
            values: || "text".to_owned(),
            get: |profile| Value::text(&profile.$($field).+),
            set: |profile, value| {
                profile.$($field).+ = text(value)?;
                Some(())
            },
        }
    };
}

macro_rules! file {
    ($key:literal, $($field:ident).+, $meaning:literal) => {
        Setting {
            key: $key,
            meaning: $meaning,
            values: || "the path of a file".to_owned(),
            get: |profile| Value::Text(profile.$($field).+.as_ref().map(|path| path.display().to_string()).unwrap_or_default()),
            set: |profile, value| {
                profile.$($field).+ = Some(PathBuf::from(text(value)?)).filter(|path| !path.as_os_str().is_empty());
                Some(())
            },
        }
    };
}

fn flag(value: &Value) -> Option<bool> {
    match value {
        Value::Flag(flag) => Some(*flag),
        Value::Text(text) => text.parse().ok(),
        Value::Number(_) | Value::List(_) => None,
    }
}

fn number(value: &Value) -> Option<i64> {
    match value {
        Value::Number(number) => Some(*number),
        Value::Text(text) => text.parse().ok(),
        Value::Flag(_) | Value::List(_) => None,
    }
}

fn text(value: &Value) -> Option<String> {
    match value {
        Value::Text(text) => Some(text.clone()),
        Value::Number(number) => Some(number.to_string()),
        Value::Flag(_) | Value::List(_) => None,
    }
}

fn list(value: &Value) -> Option<Vec<String>> {
    match value {
        Value::List(texts) => Some(texts.clone()),
        // On a command line, commas stand between them.
        Value::Text(text) => Some(text.split(',').map(|part| part.trim().to_owned()).filter(|part| !part.is_empty()).collect()),
        Value::Flag(_) | Value::Number(_) => None,
    }
}

impl Choice for Shape {
    const CHOICES: &'static [(&'static str, Self)] = &[("auto", Self::Auto), ("page", Self::Page), ("fragment", Self::Fragment)];
}

impl Choice for Styling {
    const CHOICES: &'static [(&'static str, Self)] =
        &[("semantic", Self::Semantic), ("named", Self::Named), ("exact", Self::Exact)];
}

impl Choice for Syntax {
    const CHOICES: &'static [(&'static str, Self)] = &[("html", Self::Html), ("xhtml", Self::Xhtml)];
}

impl Choice for Characters {
    const CHOICES: &'static [(&'static str, Self)] = &[("utf-8", Self::Utf8), ("ascii", Self::Ascii)];
}

impl Choice for Raw {
    const CHOICES: &'static [(&'static str, Self)] =
        &[("keep", Self::Keep), ("clean", Self::Clean), ("escape", Self::Escape), ("drop", Self::Drop)];
}

impl Choice for Content {
    const CHOICES: &'static [(&'static str, Self)] = &[("all", Self::All), ("main", Self::Main)];
}

impl Choice for Bullet {
    const CHOICES: &'static [(&'static str, Self)] =
        &[("hyphen", Self::Hyphen), ("asterisk", Self::Asterisk), ("plus", Self::Plus)];
}

impl Choice for EmphasisMark {
    const CHOICES: &'static [(&'static str, Self)] = &[("asterisk", Self::Asterisk), ("underscore", Self::Underscore)];
}

impl Choice for Fence {
    const CHOICES: &'static [(&'static str, Self)] = &[("backticks", Self::Backticks), ("tildes", Self::Tildes)];
}

impl Choice for HeadingForm {
    const CHOICES: &'static [(&'static str, Self)] = &[("atx", Self::Atx), ("setext", Self::Setext)];
}

impl Choice for LinkForm {
    const CHOICES: &'static [(&'static str, Self)] = &[("inline", Self::Inline), ("reference", Self::Reference)];
}

impl Choice for HtmlPieces {
    const CHOICES: &'static [(&'static str, Self)] = &[("keep", Self::Keep), ("drop", Self::Drop)];
}

impl Choice for Option<Ids> {
    const CHOICES: &'static [(&'static str, Self)] =
        &[("auto", None), ("used", Some(Ids::Used)), ("headings", Some(Ids::Headings)), ("none", Some(Ids::None))];
}

impl Choice for HeadingLevels {
    const CHOICES: &'static [(&'static str, Self)] = &[("auto", Self::Auto), ("steps", Self::Steps), ("source", Self::Source)];
}

impl Choice for Dialect {
    const CHOICES: &'static [(&'static str, Self)] = &[("commonmark", Self::Commonmark), ("github", Self::Github)];
}

impl Choice for Option<bool> {
    const CHOICES: &'static [(&'static str, Self)] = &[("dialect", None), ("true", Some(true)), ("false", Some(false))];
}

impl Choice for LineEnds {
    const CHOICES: &'static [(&'static str, Self)] = &[("space", Self::Space), ("break", Self::Break)];
}

impl Choice for ImagePlace {
    const CHOICES: &'static [(&'static str, Self)] = &[("folder", Self::Folder), ("embed", Self::Embed), ("drop", Self::Drop)];
}

impl Choice for StylePlace {
    const CHOICES: &'static [(&'static str, Self)] = &[("embed", Self::Embed), ("link", Self::Link)];
}

impl Choice for Quotes {
    const CHOICES: &'static [(&'static str, Self)] = &[("keep", Self::Keep), ("typographic", Self::Typographic)];
}

impl Choice for Dashes {
    const CHOICES: &'static [(&'static str, Self)] = &[("keep", Self::Keep), ("typographic", Self::Typographic)];
}

/// Every setting, in the order in which `obblet profile show` lists them.
pub static SETTINGS: &[Setting] = &[
    choice!(
        "shape",
        Shape,
        shape,
        "What the output is: a whole page, or a fragment to paste into another system. With auto, text from standard input becomes a fragment and a file becomes a page."
    ),
    choice!(
        "styling",
        Styling,
        styling,
        "How much of the source's looks is carried over: structure only, style names as classes, or all of it. Formats without styles have structure only."
    ),
    choice!(
        "html.syntax",
        Syntax,
        html.syntax,
        "The syntax that is written: HTML, or the XML form that e-readers and XML tools want."
    ),
    choice!(
        "html.characters",
        Characters,
        html.characters,
        "Which characters are written as themselves; with ascii, all others become character references."
    ),
    number!("html.indent", html.indent, 0 to 8, "Spaces for each level of blocks. White space that means something is never touched."),
    flag!("html.compact", html.compact, "Whether blocks follow each other without line breaks."),
    choice!(
        "html.raw",
        Raw,
        html.raw,
        "What becomes of raw HTML in the source: written as it is, parsed and made valid and safe, shown as text, or left out with findings."
    ),
    flag!(
        "html.trust",
        html.trust,
        "Whether addresses that run script, and pictures that hold some, are carried over. For your own documents only."
    ),
    choice!(
        "html.ids",
        Option<Ids>,
        html.ids,
        "Which headings get an id: those that something points to, all of them, or none. With auto, all of them in a page and the used ones in a fragment."
    ),
    choice!(
        "html.heading-levels",
        HeadingLevels,
        html.heading_levels,
        "Whether a heading that leaves out a level on the way down gets the level in between, as the standard's outline wants it. With auto it does, except in fragments of the CommonMark dialect."
    ),
    flag!("html.heading-numbers", html.heading_numbers, "Whether headings get numbers, as in 2.1."),
    text!(
        "html.encoding",
        html.encoding,
        "The encoding of HTML sources, as in windows-1252. Without one, the byte order mark and the page itself are asked, and then it is guessed."
    ),
    choice!(
        "html.content",
        Content,
        html.content,
        "How much of an HTML source is read: all of it, or its main content without navigation, banners, sidebars and footers."
    ),
    flag!(
        "html.promote-headings",
        html.promote_headings,
        "Whether paragraphs of an HTML source that are all bold, large and short become headings."
    ),
    choice!(
        "markdown.dialect",
        Dialect,
        markdown.dialect,
        "Which Markdown is read and written. It decides about the extensions below that are not set."
    ),
    choice!("markdown.tables", Option<bool>, markdown.tables, "Whether rows of cells between bars are tables."),
    choice!("markdown.tasks", Option<bool>, markdown.tasks, "Whether list items that begin with [ ] or [x] have a checkbox."),
    choice!("markdown.strikethrough", Option<bool>, markdown.strikethrough, "Whether text between tildes is struck through."),
    choice!("markdown.autolinks", Option<bool>, markdown.autolinks, "Whether bare web and mail addresses are links."),
    choice!(
        "markdown.tag-filter",
        Option<bool>,
        markdown.tag_filter,
        "Whether nine tags that change how a page is read, such as script, lose their meaning where raw HTML is kept."
    ),
    choice!("markdown.footnotes", Option<bool>, markdown.footnotes, "Whether [^1] mentions a note that [^1]: defines."),
    choice!("markdown.alerts", Option<bool>, markdown.alerts, "Whether a block quote that begins with [!NOTE] is a callout."),
    choice!("markdown.math", Option<bool>, markdown.math, "Whether text between dollar signs is a formula."),
    choice!(
        "markdown.front-matter",
        Option<bool>,
        markdown.front_matter,
        "Whether YAML between two lines of three hyphens at the top is metadata."
    ),
    choice!(
        "markdown.line-ends",
        LineEnds,
        markdown.line_ends,
        "What the end of a line within a paragraph is: white space, or a line break."
    ),
    choice!("markdown.bullet", Bullet, markdown.bullet, "The mark of list items in Markdown output."),
    choice!("markdown.emphasis", EmphasisMark, markdown.emphasis, "The mark of emphasis in Markdown output."),
    choice!("markdown.fence", Fence, markdown.fence, "What stands above and below code blocks in Markdown output."),
    choice!(
        "markdown.headings",
        HeadingForm,
        markdown.headings,
        "The form of headings in Markdown output: number signs before all of them, or lines below those of the first two levels."
    ),
    choice!(
        "markdown.links",
        LinkForm,
        markdown.links,
        "Where addresses stand in Markdown output: behind the text of the link, or in definitions at the end."
    ),
    number!(
        "markdown.width",
        markdown.width,
        0 to 1000,
        "Lines of text in Markdown output are no longer than this; 0 keeps the line ends of the source."
    ),
    choice!(
        "markdown.html",
        HtmlPieces,
        markdown.html,
        "What becomes of things that Markdown has no syntax for, such as merged cells: written as HTML, or reduced to their text with findings."
    ),
    flag!("markdown.ids", markdown.ids, "Whether ids and classes are kept in Markdown output, as HTML."),
    number!("text.width", text.width, 0 to 1000, "Lines of plain text are no longer than this; 0 for one line a paragraph."),
    choice!(
        "images.place",
        ImagePlace,
        images.place,
        "What becomes of pictures: files in a folder beside the page, part of the page, or left out with their words kept."
    ),
    text!(
        "images.folder",
        images.folder,
        "The folder of pictures beside a page; {name} is the name of the page's file. Pictures that the page can reach where they are stay there."
    ),
    flag!(
        "images.sizes",
        images.sizes,
        "Whether width and height of pictures are filled in from the files, so that the page does not move while it loads."
    ),
    text!(
        "page.title",
        page.title,
        "The title. Without one, the document's metadata, its first heading and its file name are asked, in this order."
    ),
    text!(
        "page.description",
        page.description,
        "A sentence or two about the page, for those who find it. Without one, the metadata is asked."
    ),
    text!("page.author", page.author, "Who wrote it. Without one, the metadata is asked."),
    text!("page.language", page.language, "The language of the page, as in en or pt-BR. Without one, the metadata is asked."),
    text!("page.look", page.look, "The design: chart, folio or beacon; none for a page without one."),
    choice!("page.styles", StylePlace, page.styles, "Whether style rules are part of the page or in files that it names."),
    Setting {
        key: "page.stylesheets",
        meaning: "Stylesheets of your own, behind the look: files, which page.styles puts into the page or beside it, or web addresses.",
        values: || "a list of paths or addresses".to_owned(),
        get: |profile| Value::List(profile.page.stylesheets.clone()),
        set: |profile, value| {
            profile.page.stylesheets = list(value)?;
            Some(())
        },
    },
    number!("page.contents", page.contents, 0 to 6, "How deep the list of contents goes; 0 for none. Pages with fewer than three headings have none."),
    file!("page.head", page.head, "A file whose markup goes to the end of the head of the page."),
    file!("page.header", page.header, "A file whose markup stands above the content. It may hold expressions, as a frame does."),
    file!("page.footer", page.footer, "A file whose markup stands below the content. It may hold expressions, as a frame does."),
    file!(
        "page.frame",
        page.frame,
        "A template for the whole page, instead of the built-in one. The guide lists what it can use."
    ),
    flag!("page.skip-link", page.skip_link, "Whether the page begins with a link past the header, for those who use a keyboard."),
    flag!("page.highlight", page.highlight, "Whether code has colours."),
    choice!(
        "clean.quotes",
        Quotes,
        clean.quotes,
        "Whether straight quotation marks become the ones that printers of the document's language use."
    ),
    choice!(
        "clean.dashes",
        Dashes,
        clean.dashes,
        "Whether two and three hyphens become dashes, and three full stops an ellipsis."
    ),
    number!("limits.source", limits.source, 1 to 1_000_000_000, "Sources that are larger than so many bytes are refused."),
    number!("limits.image", limits.image, 1 to 1_000_000_000, "Pictures that are larger than so many bytes are neither copied nor embedded."),
];
