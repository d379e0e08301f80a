//! The table of settings.

use super::value::{Choice, Value};
use super::{Copies, Dialect, HeadingLevels, ImagePlace, LineEnds, Profile, Shape, StylePlace, Styling};
use crate::document::Kind;
use crate::formats::html::{Characters, Content, Ids, Raw, Syntax};
use crate::formats::markdown::{Bullet, EmphasisMark, Fence, HeadingForm, HtmlPieces, LinkForm};
use crate::formats::text::ParagraphEnds;
use crate::formats::word::{Comments, Headers, HeadingNumbers, ListNumbers};
use crate::page::LOOKS;
use crate::refine::When;
use crate::refine::lists::Lists;
use crate::refine::revisions::Revisions;
use crate::refine::rules::capitals::Capitals;
use crate::refine::rules::elements::Disallowed;
use crate::refine::rules::inline::{Bold, Inline};
use crate::refine::rules::leave_out::Selector;
use crate::refine::rules::lines::{LineBreaks, Paragraphs};
use crate::refine::rules::replace;
use crate::refine::rules::scenes::SceneBreaks;
use crate::refine::rules::spaces::{StopSpaces, Tabs};
use crate::refine::typography::{Dashes, Quotes};
use std::path::{Component, Path, PathBuf};

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
        text!($key, $($field).+, "text", |_: &str| true, $meaning)
    };
    ($key:literal, $($field:ident).+, $values:literal, $is:expr, $meaning:literal) => {
        Setting {
            key: $key,
            meaning: $meaning,
            values: || $values.to_owned(),
            get: |profile| Value::text(&profile.$($field).+),
            set: |profile, value| {
                profile.$($field).+ = text(value).filter(|text| $is(text.as_str()))?;
                Some(())
            },
        }
    };
}

macro_rules! list {
    ($key:literal, $($field:ident).+, $values:literal, $meaning:literal) => {
        list!($key, $($field).+, $values, |_: &str| true, $meaning)
    };
    ($key:literal, $($field:ident).+, $values:literal, $holds:expr, $meaning:literal) => {
        Setting {
            key: $key,
            meaning: $meaning,
            values: || $values.to_owned(),
            get: |profile| Value::List(profile.$($field).+.clone()),
            set: |profile, value| {
                profile.$($field).+ = list(value).filter(|list| list.iter().all(|entry| $holds(entry.as_str())))?;
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

pub(super) fn list(value: &Value) -> Option<Vec<String>> {
    match value {
        Value::List(texts) => Some(texts.clone()),
        // On a command line, commas stand between them, or they are written as in a file.
        Value::Text(text) => match Value::parse(text) {
            Some(Value::List(texts)) => Some(texts),
            Some(Value::Text(text)) => Some(vec![text]),
            // A list or a text whose marks do not fit is a slip of the hand.
            _ if text.starts_with("[\"") || text.starts_with("['") => None,
            _ => Some(text.split(',').map(|part| part.trim().to_owned()).filter(|part| !part.is_empty()).collect()),
        },
        Value::Flag(_) | Value::Number(_) => None,
    }
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

/// Whether a text names an encoding (WHATWG Encoding, section 4.2); none is named by an empty one.
fn is_encoding(text: &str) -> bool {
    text.is_empty() || encoding_rs::Encoding::for_label(text.as_bytes()).is_some()
}

/// Whether a text has the form of a language tag (BCP 47, section 2.1); none is named by an empty one.
fn is_language(text: &str) -> bool {
    let is_part = |part: &str| (1..=8).contains(&part.len()) && part.bytes().all(|byte| byte.is_ascii_alphanumeric());
    text.is_empty() || text.split('-').all(is_part)
}

fn is_look(text: &str) -> bool {
    text.is_empty() || text == "none" || LOOKS.contains(&text)
}

fn is_web_address(text: &str) -> bool {
    text.is_empty() || url::Url::parse(text).is_ok_and(|url| matches!(url.scheme(), "http" | "https"))
}

/// Whether a path leads to a folder below the one that it counts from.
fn is_path_down(text: &str) -> bool {
    let is_down = |part| matches!(part, Component::Normal(_) | Component::CurDir);
    !text.contains('\\') && Path::new(text).components().all(is_down)
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
        "What becomes of raw HTML in the source: written as it is, parsed and made valid and safe, shown as text, or left out with findings. What could run script is kept only where html.trust is set; else it is shown as text."
    ),
    flag!(
        "html.trust",
        html.trust,
        "Whether what can run is carried over: addresses that run script, raw HTML that html.raw keeps, drawings and files as they are. For your own documents only."
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
        "the name of an encoding",
        is_encoding,
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
    text!(
        "text.encoding",
        text.encoding,
        "the name of an encoding",
        is_encoding,
        "The encoding of plain text sources, as in windows-1252. Without one, the byte order mark is asked, and then it is guessed."
    ),
    choice!(
        "text.paragraphs",
        ParagraphEnds,
        text.paragraphs,
        "Where paragraphs of plain text end: at empty lines, at each line end, or as the text shows by itself."
    ),
    flag!("text.lists", text.lists, "Whether typed bullets and numbers of plain text make lists."),
    flag!("text.headings", text.headings, "Whether a title, chapters and underlined lines of plain text make headings."),
    flag!("text.links", text.links, "Whether addresses in plain text are links."),
    flag!("text.emphasis", text.emphasis, "Whether words between low lines in plain text are emphasised."),
    choice!(
        "word.comments",
        Comments,
        word.comments,
        "What becomes of comments in Word documents: they are left out with a finding, or become notes."
    ),
    choice!(
        "word.headers",
        Headers,
        word.headers,
        "What becomes of the headers and footers of pages in Word documents: they are left out with a finding, or stand at both ends of the text."
    ),
    choice!(
        "word.heading-numbers",
        HeadingNumbers,
        word.heading_numbers,
        "Whether numbers that the word processor puts before headings become text. With auto, where the text refers to them, or the page is to look like the source."
    ),
    choice!(
        "word.list-numbers",
        ListNumbers,
        word.list_numbers,
        "What becomes of paragraphs with numbers that lists in HTML do not have, such as 1.2: items of lists, or paragraphs that begin with their numbers as text."
    ),
    flag!("word.contents", word.contents, "Whether lists of contents in Word documents stay; pages have one of their own."),
    flag!("word.hidden", word.hidden, "Whether hidden text of Word documents is shown."),
    choice!(
        "images.place",
        ImagePlace,
        images.place,
        "What becomes of pictures: files in a folder beside the page, part of the page, or left out with their words kept."
    ),
    text!(
        "images.folder",
        images.folder,
        "the name of a folder, or a path down from the page",
        is_path_down,
        "The folder of pictures beside a page; {name} is the name of the page's file. Pictures that the page can reach where they are stay there."
    ),
    flag!(
        "images.sizes",
        images.sizes,
        "Whether width and height of pictures are filled in from the files, so that the page does not move while it loads."
    ),
    flag!(
        "images.keep-unknown",
        images.keep_unknown,
        "Whether files in Word documents that browsers don't show as pictures are put beside the page, under names that nothing runs, and linked. Without it they are left out."
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
    text!(
        "page.language",
        page.language,
        "a language, as in en or pt-BR",
        is_language,
        "The language of the page, as in en or pt-BR. Without one, the metadata is asked."
    ),
    text!(
        "page.look",
        page.look,
        "chart, folio, beacon, none",
        is_look,
        "The design: chart, folio or beacon; none for a page without one."
    ),
    choice!(
        "page.styles",
        StylePlace,
        page.styles,
        "Whether style rules are part of the page or in files that it names. With auto, they are part of it, and in files where a folder is published."
    ),
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
    list!(
        "clean.leave-out",
        clean.leave_out,
        "a list of selectors, as in \"aside\", \".draft\", \"#pay\", \"table.wide p\" or \"section(Pay)\"",
        |selector: &str| Selector::read(selector).is_some(),
        "Parts of the source that the output goes without: elements, by name, class, id or what they stand in, and headings with all that is under them."
    ),
    choice!(
        "clean.revisions",
        Revisions,
        clean.revisions,
        "What becomes of insertions and deletions: those that a program recorded while somebody revised are accepted, or all are kept, accepted or rejected."
    ),
    flag!(
        "clean.layout-tables",
        clean.layout_tables,
        "Whether tables that only set things beside each other are opened, cell by cell."
    ),
    flag!(
        "clean.tab-columns",
        clean.tab_columns,
        "Whether paragraphs that follow each other with as many tabs within each become a table."
    ),
    choice!(
        "clean.lists",
        Lists,
        clean.lists,
        "Which paragraphs become items of lists: none, those that a program marked as items, or also those that begin with typed bullets or numbers."
    ),
    choice!(
        "clean.anchors",
        When,
        clean.anchors,
        "When places that nothing in the document leads to lose their ids. With auto, where a program wrote the document; names that programs make up go wherever looks are set."
    ),
    choice!(
        "clean.formatting",
        When,
        clean.formatting,
        "When runs of the same formatting are joined, formatting around white space goes, and white space at its ends moves out. With auto, where looks are set in the source."
    ),
    choice!(
        "clean.white-space",
        When,
        clean.white_space,
        "When runs of spaces and no-break spaces become one space, space at the ends of lines goes, and characters without width. With auto, where looks are set in the source."
    ),
    flag!("clean.spacers", clean.spacers, "Whether empty paragraphs, and line breaks at the ends of paragraphs, are left out."),
    choice!(
        "clean.empty",
        When,
        clean.empty,
        "When elements that hold nothing are left out. With auto, where looks are set in the source."
    ),
    choice!(
        "clean.lone-paragraphs",
        When,
        clean.lone_paragraphs,
        "When the only paragraph of a cell, and of each item of a list, becomes plain text. With auto, where looks are set in the source."
    ),
    choice!(
        "clean.table-heads",
        When,
        clean.table_heads,
        "When the first row of a table becomes its head, because all of its cells are bold and the others are not. With auto, where looks are set in the source."
    ),
    flag!(
        "clean.redirects",
        clean.redirects,
        "Whether links that go through a counter lead straight to where they end up, and lose parameters that only counters read."
    ),
    list!(
        "clean.replace",
        clean.replace,
        "a list of replacements, as in \"high tide => high water\"",
        |rule: &str| replace::parts(rule).is_some(),
        "Texts that are replaced, in text only, in this order."
    ),
    list!(
        "clean.replace-patterns",
        clean.replace_patterns,
        "a list of replacements by regular expressions, as in \"(\\\\d+) ?m\\\\b => $1 metres\"",
        |rule: &str| replace::expression(rule).is_ok(),
        "Replacements by regular expressions, behind the plain ones; $1 is the first group."
    ),
    choice!(
        "clean.capitals",
        Capitals,
        clean.capitals,
        "What becomes of passages in capitals: they stay, or get the case of titles or of sentences."
    ),
    list!(
        "clean.protected-words",
        clean.protected_words,
        "a list of words",
        "Acronyms and names, written as they shall be, that clean.capitals leaves so. Words that look like acronyms are suggested in a finding."
    ),
    choice!(
        "clean.bold",
        Bold,
        clean.bold,
        "What becomes of bold text: it stays, becomes like the text around it, or becomes capitals."
    ),
    choice!("clean.stop-spaces", StopSpaces, clean.stop_spaces, "How many spaces stand between sentences."),
    choice!("clean.tabs", Tabs, clean.tabs, "What becomes of tabs in text."),
    choice!(
        "clean.quotes",
        Quotes,
        clean.quotes,
        "Whether straight quotation marks become the ones that printers of the document's language use, or those become straight."
    ),
    choice!(
        "clean.dashes",
        Dashes,
        clean.dashes,
        "Whether two hyphens become an en dash and three an em dash (typographic), or either the dash that the language of the document sets, with or without spaces (language: in English an em dash without any); and three full stops an ellipsis; or the other way."
    ),
    choice!(
        "clean.scene-breaks",
        SceneBreaks,
        clean.scene_breaks,
        "What becomes of lines of stars and their like between scenes: they stay, become thematic breaks, or a paragraph with a mark, as thematic breaks do then."
    ),
    text!("clean.scene-mark", clean.scene_mark, "The mark between scenes."),
    choice!(
        "clean.line-breaks",
        LineBreaks,
        clean.line_breaks,
        "What becomes of line breaks in HTML output: they stay, become spaces, or end paragraphs."
    ),
    text!(
        "clean.list-lines",
        clean.list_lines,
        "With a mark here, lists in HTML output become lines that begin with it, or with their numbers."
    ),
    list!(
        "clean.remove-elements",
        clean.remove_elements,
        "a list of names of elements, as in \"aside\" or \"o:*\" (selectors are for clean.leave-out)",
        is_name,
        "Elements that HTML output loses with their content."
    ),
    list!(
        "clean.unwrap-elements",
        clean.unwrap_elements,
        "a list of names of elements, as in \"aside\" or \"o:*\" (selectors are for clean.leave-out)",
        is_name,
        "Elements that HTML output loses, but not their content."
    ),
    list!(
        "clean.rename-elements",
        clean.rename_elements,
        "a list of pairs of elements that may stand in the same places, as in \"strong = b\"",
        is_renaming,
        "Elements of HTML output that become others."
    ),
    list!(
        "clean.allow-elements",
        clean.allow_elements,
        "a list of names of elements, as in \"aside\" or \"o:*\" (selectors are for clean.leave-out)",
        is_name,
        "The only elements that HTML output may have; all where there are none."
    ),
    choice!(
        "clean.disallowed",
        Disallowed,
        clean.disallowed,
        "Whether elements that are not allowed lose their tags, or go with their content."
    ),
    choice!(
        "clean.paragraphs",
        Paragraphs,
        clean.paragraphs,
        "What becomes of paragraphs in HTML output: they stay, or become text with one or two line breaks between."
    ),
    choice!(
        "clean.inline",
        Inline,
        clean.inline,
        "Whether inline formatting in HTML output is written as elements, or as spans with classes."
    ),
    list!(
        "clean.classes",
        clean.classes,
        "a list of patterns, as in \"note-*\" (kept), \"Quote = pull-quote\" (renamed), \"Mso* =\" (dropped)",
        is_class_rule,
        "What becomes of classes of the source: the first pattern that fits decides, and what none fits is dropped. Without any, styling decides."
    ),
    list!(
        "clean.allow-attributes",
        clean.allow_attributes,
        "a list of names, as in \"href\" or \"img.width\"",
        is_attribute,
        "The only attributes that HTML output may have, beside those without which an element says nothing; all where there are none."
    ),
    list!(
        "clean.remove-attributes",
        clean.remove_attributes,
        "a list of names, as in \"id\" or \"img.width\"",
        is_attribute,
        "Attributes that HTML output loses. What says nothing without them, as a link without an address, leaves its words."
    ),
    list!(
        "publish.include",
        publish.include,
        "a list of patterns of paths, as in \"tides/**\" or \"*.docx\"",
        |pattern: &str| super::globs(&[pattern.to_owned()]).is_ok(),
        "The only documents that a published folder has; all where there are none. One without a slash fits names in any folder. It counts in the settings of the folder itself."
    ),
    list!(
        "publish.exclude",
        publish.exclude,
        "a list of patterns of paths, as in \"drafts/\" or \"*.txt\"",
        |pattern: &str| super::globs(&[pattern.to_owned()]).is_ok(),
        "Documents and other files that a published folder does not have. It counts in the settings of the folder itself."
    ),
    choice!(
        "publish.copy",
        Copies,
        publish.copy,
        "Which other files of a published folder come along: those that a document shows or leads to, or all of them."
    ),
    number!(
        "publish.split",
        publish.split,
        0 to 6,
        "Documents of a published folder become a page for each heading of this level or a higher one; 0 keeps them whole."
    ),
    flag!(
        "publish.site",
        publish.site,
        "Whether a published folder becomes a site: start page, pages of folders, navigation, a page of all pages, a feed, a site map."
    ),
    flag!(
        "publish.binder",
        publish.binder,
        "Whether all documents of a published folder are put into one page, binder.html, too."
    ),
    flag!(
        "publish.moved",
        publish.moved,
        "Whether documents of a published folder that are renamed or removed leave a page at their old address, which leads on to the new one, or to the page of the folder."
    ),
    flag!(
        "publish.verify",
        publish.verify,
        "Whether the hashes of outputs are checked, to find what was damaged or edited since the last run. Without it only their sizes are: that is faster, and misses what has as many bytes."
    ),
    text!("site.title", site.title, "The name of a site. Without one, its start page is asked."),
    text!(
        "site.address",
        site.address,
        "a web address, as in https://tides.example/handbook/",
        is_web_address,
        "Where a site will be, as in https://tides.example/handbook/. Site maps need it, and so do links of pages that stand in for missing ones."
    ),
    number!("site.feed-entries", site.feed_entries, 0 to 1000, "How many of the newest dated documents a site's feed has; 0 for no feed."),
    number!("limits.source", limits.source, 1 to 1_000_000_000, "Sources that are larger than so many bytes are refused."),
    number!("limits.characters", limits.characters, 0 to 1_000_000_000, "How many characters the target takes, markup counted; 0 for any number. More of them are a finding, with the parts that cost most."),
    number!("limits.unpacked", limits.unpacked, 1 to 2_000_000_000, "Documents that are packages are refused where the parts that are read unpack to more bytes."),
    number!("limits.image", limits.image, 1 to 1_000_000_000, "Pictures that are larger than so many bytes are not opened: neither embedded nor copied beside a page. In a published folder all but drawings come along."),
];
