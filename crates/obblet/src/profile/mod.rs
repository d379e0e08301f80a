//! Every setting there is: its default, its meaning, and the profiles that come with Obblet.
//!
//! A [`Profile`] is plain data. Layers of settings are put on each other in this order, later ones winning:
//!
//! 1. a built-in profile ([`Profile::built_in`]; `page` unless another is named),
//! 2. `obblet.toml` in the folders above and of the source, outermost first,
//! 3. profile files that the user names,
//! 4. single settings, as `key=value`.

mod assign;
#[cfg(feature = "files")]
mod builtin;
mod error;
#[cfg(feature = "files")]
mod layer;
#[cfg(feature = "files")]
mod layers;
mod page;
mod publish;

pub use crate::settings::Value;
#[cfg(feature = "files")]
pub use builtin::BUILT_IN;
pub use error::ProfileError;
pub(crate) use error::nearest;
#[cfg(feature = "publish")]
pub(crate) use layer::globs;
#[cfg(feature = "files")]
pub use layer::{FILE_NAME, Layer};
#[cfg(feature = "files")]
pub use layers::Layers;
pub use page::{ImagePlace, ImageSettings, LOOKS, PageSettings, StylePlace};
pub use publish::{Copies, LimitSettings, Makes, PublishSettings, SiteSettings};

use crate::context::Context;
use crate::formats::markdown::Dialect;
use crate::formats::{Format, ReadRequest, Settings as FormatSettings, StyleFidelity, html};
use crate::refine::Cleaning;
use crate::refine::revisions::Revisions;
use crate::settings::{Choice, Declared, Section, choice};
use std::borrow::Cow;
use std::sync::LazyLock;

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
    /// As it suits what is written: all of it where people format text there, structure only elsewhere.
    #[default]
    Auto,
    /// Structure only.
    Semantic,
    /// Names of styles as classes.
    Named,
    /// Looks like the source.
    Exact,
}

/// All settings. [`settings`] lists them with their meanings.
///
/// ```
/// use obblet::profile::{Profile, Shape};
///
/// let mut profile = Profile::built_in("fragment").unwrap();
/// profile.set("html.indent=2").unwrap();
/// assert_eq!((profile.shape, profile.formats.html.indent), (Shape::Fragment, 2));
/// let error = profile.set("html.indnt=2").unwrap_err();
/// assert_eq!(error.to_string(), "there is no setting html.indnt; did you mean html.indent?");
/// ```
#[derive(Clone, Debug, Default, PartialEq, Eq)]
pub struct Profile {
    /// What the output is.
    pub shape: Shape,
    /// How much of the source's looks is carried over.
    pub styling: Styling,
    /// Settings of each format.
    pub formats: FormatSettings,
    /// Settings of images.
    pub images: ImageSettings,
    /// Settings of whole pages.
    pub page: PageSettings,
    /// Settings of the passes.
    pub clean: Cleaning,
    /// Settings of published folders.
    pub publish: PublishSettings,
    /// Settings of sites.
    pub site: SiteSettings,
    /// Limits of memory and sizes.
    pub limits: LimitSettings,
}

/// One setting: what it is called, what it does, and what its value may be.
#[derive(Clone, Copy, Debug, PartialEq, Eq)]
pub struct Setting {
    /// Its name, as in `html.indent`.
    pub key: &'static str,
    /// What it does, in a sentence or two.
    pub meaning: &'static str,
    section: usize,
    at: usize,
}

/// The profile that says how many settings there are.
static USUAL: LazyLock<Profile> = LazyLock::new(Profile::default);

/// Every setting, in the order in which `obblet profile show` lists them.
pub fn settings() -> impl Iterator<Item = Setting> {
    (0..).map_while(|section| Some((section, USUAL.section(section)?))).flat_map(|(section, settings)| {
        let one = move |at| Setting { key: settings.key(at), meaning: settings.meaning(at), section, at };
        (0..settings.count()).map(one)
    })
}

impl Setting {
    /// The setting of a key.
    #[must_use]
    pub fn of(key: &str) -> Option<Self> {
        let (section, at) = (0..)
            .map_while(|section| Some((section, USUAL.section(section)?)))
            .find_map(|(number, section)| section.find(key).map(|at| (number, at)))?;
        let found = USUAL.section(section)?;
        Some(Self { key: found.key(at), meaning: found.meaning(at), section, at })
    }

    /// What its value may be.
    #[must_use]
    pub fn values(&self) -> String {
        USUAL.section(self.section).map(|section| section.values(self.at)).unwrap_or_default()
    }

    /// Its value in a profile.
    #[must_use]
    pub fn get(&self, profile: &Profile) -> Value {
        profile.section(self.section).map_or(Value::Flag(false), |section| section.get(self.at))
    }

    pub(crate) fn set(&self, profile: &mut Profile, value: &Value) -> Option<()> {
        profile.section_mut(self.section)?.set(self.at, value)
    }
}

impl Declared for Profile {
    const SETTINGS: &'static [crate::settings::Setting<Self>] = &[
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
            "How much of the source's looks is carried over: structure only, style names as classes, or all of it. With auto, all of it goes into Word documents, or style names where they have a template, and structure only into others. Formats without styles have structure only."
        ),
    ];
}

impl Choice for Shape {
    const CHOICES: &'static [(&'static str, Self)] = &[("auto", Self::Auto), ("page", Self::Page), ("fragment", Self::Fragment)];
}

impl Choice for Styling {
    const CHOICES: &'static [(&'static str, Self)] =
        &[("auto", Self::Auto), ("semantic", Self::Semantic), ("named", Self::Named), ("exact", Self::Exact)];
}

impl Profile {
    /// A section of the settings, by its number.
    fn section(&self, number: usize) -> Option<&dyn Section> {
        let formats = Format::all().count();
        if let Some(format) = number.checked_sub(1).and_then(|at| Format::all().nth(at)) {
            return Some(self.formats.section(format));
        }
        let sections: [&dyn Section; 6] = [&self.images, &self.page, &self.clean, &self.publish, &self.site, &self.limits];
        if number == 0 { Some(self) } else { sections.get(number - 1 - formats).copied() }
    }

    /// A section of the settings, by its number, to change it.
    fn section_mut(&mut self, number: usize) -> Option<&mut dyn Section> {
        let formats = Format::all().count();
        if number == 0 {
            return Some(self);
        }
        if let Some(format) = Format::all().nth(number - 1) {
            return Some(self.formats.section_mut(format));
        }
        let sections: [&mut dyn Section; 6] =
            [&mut self.images, &mut self.page, &mut self.clean, &mut self.publish, &mut self.site, &mut self.limits];
        sections.into_iter().nth(number - 1 - formats)
    }
}

impl Profile {
    /// The profile for content to paste into another system, as it is usual where a string is converted.
    #[must_use]
    pub fn fragment() -> Self {
        Self { shape: Shape::Fragment, ..Self::default() }
    }

    /// Whether a setting holds a text, and not an empty one.
    pub(crate) fn has_text(&self, key: &str) -> bool {
        Setting::of(key).is_some_and(|setting| matches!(setting.get(self), Value::Text(text) if !text.is_empty()))
    }

    /// Whether classes of the source are in the output.
    pub(crate) fn keeps_classes(&self) -> bool {
        matches!(self.styling, Styling::Named | Styling::Exact) || !self.clean.elements.classes.is_empty()
    }

    /// The profile with what depends on the format that is written decided.
    pub(crate) fn for_target(&self, writes: Format) -> Cow<'_, Self> {
        let (keeps, mut own) = (writes.descriptor().keeps_looks, Cow::Borrowed(self));
        if self.styling == Styling::Auto && keeps {
            // A template has a design of its own.
            #[cfg(feature = "word")]
            let has_template = self.formats.word.template.is_some();
            #[cfg(not(feature = "word"))]
            let has_template = false;
            own.to_mut().styling = if has_template { Styling::Named } else { Styling::Exact };
        }
        let latex = &self.formats.latex;
        let names_classes = writes == Format::Latex && (latex.environments || latex.preamble.is_some());
        if names_classes && matches!(self.styling, Styling::Auto | Styling::Semantic) {
            own.to_mut().styling = Styling::Named;
        }
        if self.clean.revisions == Revisions::Auto && keeps {
            own.to_mut().clean.revisions = Revisions::Keep;
        }
        #[cfg(feature = "word")]
        if let Some(settings) = self.formats.word.for_target(keeps) {
            own.to_mut().formats.word = settings;
        }
        own
    }

    /// Whether classes of the source are asked for.
    fn reads_classes(&self) -> bool {
        self.keeps_classes() || !self.clean.leave_out.is_empty()
    }

    /// What the profile asks of a reader of a document that has something around it.
    pub(crate) fn read_request<'a>(&'a self, context: &Context<'a>) -> ReadRequest<'a> {
        let classes = self.reads_classes();
        ReadRequest {
            settings: &self.formats,
            fidelity: match self.styling {
                Styling::Auto | Styling::Semantic if classes => StyleFidelity::Named,
                Styling::Auto | Styling::Semantic => StyleFidelity::Semantic,
                Styling::Named => StyleFidelity::Named,
                Styling::Exact => StyleFidelity::Exact,
            },
            classes,
            formatting_classes: self.clean.elements.inline == crate::refine::rules::inline::Inline::Classes,
            revisions: self.clean.revisions,
            unpacked: self.limits.unpacked,
            external: context.external(),
            files: context.files(self.limits.source),
        }
    }

    /// The options of the HTML writer that the profile asks for.
    pub(crate) fn html_options(&self, usual_ids: html::Ids) -> html::Options<'_> {
        let exact = self.shape == Shape::Fragment && self.formats.markdown.dialect == Dialect::Commonmark;
        // The specification's own examples have addresses that the checker rejects.
        let mut mends = if exact { html::Mends::empty() } else { html::Mends::ADDRESSES };
        let markdown = &self.formats.markdown;
        mends.set(html::Mends::TAG_FILTER, markdown.tag_filter.unwrap_or(markdown.dialect == Dialect::Github));
        let steps = match self.formats.html.heading_levels {
            html::HeadingLevels::Steps => true,
            html::HeadingLevels::Source => false,
            html::HeadingLevels::Auto => !exact,
        };
        mends.set(html::Mends::HEADING_STEPS, steps);
        html::Options { settings: &self.formats.html, usual_ids, mends, ..html::Options::default() }
    }
}
