//! The settings of images and of whole pages.

use crate::settings::{Choice, Declared, Setting, Value, choice, file, flag, number, parse, text};
use std::path::{Component, Path, PathBuf};

/// The built-in designs.
pub const LOOKS: [&str; 3] = ["chart", "folio", "beacon"];

/// What becomes of images.
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

/// Settings of images.
#[derive(Clone, Debug, PartialEq, Eq)]
pub struct ImageSettings {
    /// What becomes of images: files in a folder beside the page, part of the page, or left out with their alt text kept.
    pub place: ImagePlace,
    /// The folder of images beside a page; {name} is the name of the page's file.
    pub folder: String,
    /// Whether width and height of images are filled in from the files, so that the page does not move while it loads.
    pub sizes: bool,
    /// Whether files in Word documents that browsers don't show as images are put beside the page, under names that nothing runs, and linked.
    pub keep_unknown: bool,
}

impl Default for ImageSettings {
    fn default() -> Self {
        Self { place: ImagePlace::default(), folder: "{name}-images".to_owned(), sizes: true, keep_unknown: false }
    }
}

impl Declared for ImageSettings {
    const SETTINGS: &'static [Setting<Self>] = &[
        choice!(
            "images.place",
            ImagePlace,
            place,
            "What becomes of images: files in a folder beside the page, part of the page, or left out with their alt text kept."
        ),
        text!(
            "images.folder",
            folder,
            "the name of a folder, or a path down from the page",
            is_path_down,
            "The folder of images beside a page; {name} is the name of the page's file. Images that the page can reach where they are stay there."
        ),
        flag!(
            "images.sizes",
            sizes,
            "Whether width and height of images are filled in from the files, so that the page does not move while it loads."
        ),
        flag!(
            "images.keep-unknown",
            keep_unknown,
            "Whether files in Word documents that browsers don't show as images are put beside the page, under names that nothing runs, and linked. Without it they are left out."
        ),
    ];
}

impl Choice for ImagePlace {
    const CHOICES: &'static [(&'static str, Self)] = &[("folder", Self::Folder), ("embed", Self::Embed), ("drop", Self::Drop)];
}

impl Choice for StylePlace {
    const CHOICES: &'static [(&'static str, Self)] = &[("auto", Self::Auto), ("embed", Self::Embed), ("link", Self::Link)];
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
pub struct PageSettings {
    /// The title.
    pub title: String,
    /// A sentence or two about the page, for those who find it.
    pub description: String,
    /// Who wrote it. Without one, the metadata is asked.
    pub author: String,
    /// The language of the page, as in en or pt-BR.
    pub language: String,
    /// The design: chart, folio or beacon; none for a page without one.
    pub look: String,
    /// Whether style rules are part of the page or in files that it names.
    pub styles: StylePlace,
    /// Stylesheets of your own, behind the look: files, which page.styles puts into the page or beside it, or web addresses.
    pub stylesheets: Vec<String>,
    /// How deep the list of contents goes; 0 for none.
    pub contents: u8,
    /// A file whose markup goes to the end of the head of the page.
    pub head: Option<PathBuf>,
    /// A file whose markup stands above the content.
    pub header: Option<PathBuf>,
    /// A file whose markup stands below the content.
    pub footer: Option<PathBuf>,
    /// A template for the whole page, instead of the built-in one.
    pub frame: Option<PathBuf>,
    /// Whether the page begins with a link past the header, for those who use a keyboard.
    pub skip_link: bool,
    /// Whether code has colours.
    pub highlight: bool,
}

impl Default for PageSettings {
    fn default() -> Self {
        Self {
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
        }
    }
}

impl Declared for PageSettings {
    const SETTINGS: &'static [Setting<Self>] = &[
        text!(
            "page.title",
            title,
            "The title. Without one, the document's metadata, its first heading and its file name are asked, in this order."
        ),
        text!(
            "page.description",
            description,
            "A sentence or two about the page, for those who find it. Without one, the metadata is asked."
        ),
        text!("page.author", author, "Who wrote it. Without one, the metadata is asked."),
        text!(
            "page.language",
            language,
            "a language, as in en or pt-BR",
            is_language,
            "The language of the page, as in en or pt-BR. Without one, the metadata is asked."
        ),
        text!(
            "page.look",
            look,
            "chart, folio, beacon, none",
            is_look,
            "The design: chart, folio or beacon; none for a page without one."
        ),
        choice!(
            "page.styles",
            StylePlace,
            styles,
            "Whether style rules are part of the page or in files that it names. With auto, they are part of it, and in files where a folder is published."
        ),
        Setting {
            key: "page.stylesheets",
            meaning: "Stylesheets of your own, behind the look: files, which page.styles puts into the page or beside it, or web addresses.",
            values: || "a list of paths or addresses".to_owned(),
            get: |section| Value::List(section.stylesheets.clone()),
            set: |section, value| {
                section.stylesheets = parse::list(value)?;
                Some(())
            },
        },
        number!("page.contents", contents, 0 to 6, "How deep the list of contents goes; 0 for none. Pages with fewer than three headings have none."),
        file!("page.head", head, "A file whose markup goes to the end of the head of the page."),
        file!("page.header", header, "A file whose markup stands above the content. It may hold expressions, as a frame does."),
        file!("page.footer", footer, "A file whose markup stands below the content. It may hold expressions, as a frame does."),
        file!(
            "page.frame",
            frame,
            "A template for the whole page, instead of the built-in one. The guide lists what it can use."
        ),
        flag!("page.skip-link", skip_link, "Whether the page begins with a link past the header, for those who use a keyboard."),
        flag!("page.highlight", highlight, "Whether code has colours."),
    ];
}

/// Whether a text has the form of a language tag (BCP 47, section 2.1); none is named by an empty one.
fn is_language(text: &str) -> bool {
    let is_part = |part: &str| (1..=8).contains(&part.len()) && part.bytes().all(|byte| byte.is_ascii_alphanumeric());
    text.is_empty() || text.split('-').all(is_part)
}

fn is_look(text: &str) -> bool {
    text.is_empty() || text == "none" || LOOKS.contains(&text)
}

/// Whether a path leads to a folder below the one that it counts from.
fn is_path_down(text: &str) -> bool {
    let is_down = |part| matches!(part, Component::Normal(_) | Component::CurDir);
    !text.contains('\\') && Path::new(text).components().all(is_down)
}
