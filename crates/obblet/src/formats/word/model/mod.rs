//! The package as word processors mean it, typed and without opinion: properties of text, styles with what they inherit,
//! numbering, sections, the theme, the instructions of fields, notes, comments and tracked changes. The reader lowers it to the model of the library, and the writer raises that to it.

pub(in crate::formats::word) mod annotations;
pub(in crate::formats::word) mod fields;
pub(in crate::formats::word) mod from_style;
pub(in crate::formats::word) mod notes;
pub(in crate::formats::word) mod numbering;
pub(in crate::formats::word) mod print;
pub(in crate::formats::word) mod properties;
pub(in crate::formats::word) mod section;
pub(in crate::formats::word) mod styles;
pub(in crate::formats::word) mod theme;

use super::package::{Package, PackageError, Relations};
use numbering::Numberings;
use properties::Names;
use styles::Styles;
use theme::Theme;

/// What the parts beside the text define.
#[derive(Debug, Default)]
pub(in crate::formats::word) struct Model {
    pub(in crate::formats::word) names: Names,
    pub(in crate::formats::word) theme: Theme,
    pub(in crate::formats::word) styles: Styles,
    pub(in crate::formats::word) numberings: Numberings,
}

impl Model {
    /// Reads what the parts define that the main part is related to; with its looks, or without.
    pub(in crate::formats::word) fn read(
        package: &mut Package<'_>,
        relations: &Relations,
        looks: bool,
    ) -> Result<Self, PackageError> {
        let mut names = Names::default();
        let mut part = |kind: &str| relations.part(kind).map_or(Ok(None), |part| package.text(part));
        let theme = part("theme")?.map(|text| Theme::read(&text.get())).unwrap_or_default();
        let styles = part("styles")?.map(|text| Styles::read(&text.get(), &mut names, &theme, looks)).unwrap_or_default();
        let numberings =
            part("numbering")?.map(|text| Numberings::read(&text.get(), &mut names, &theme, looks)).unwrap_or_default();
        Ok(Self { names, theme, styles, numberings })
    }
}
