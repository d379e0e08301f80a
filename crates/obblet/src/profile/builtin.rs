//! The profiles that come with Obblet.

use super::{Profile, ProfileError, error};

/// Name, purpose and settings of each built-in profile.
pub const BUILT_IN: [(&str, &str, &str); 6] = [
    ("page", "a whole page with a look, ready to publish", ""),
    ("fragment", "content to paste into another system, without a page around it", "shape = \"fragment\"\n"),
    (
        "bare",
        "structure only, for a system with its own styles",
        "shape = \"fragment\"\nhtml.ids = \"none\"\nhtml.compact = false\n",
    ),
    (
        "lookalike",
        "a page that looks like the source",
        "shape = \"page\"\nstyling = \"exact\"\npage.look = \"none\"\npage.contents = 0\n",
    ),
    (
        "reader",
        "for e-readers: XML syntax and ASCII characters",
        "shape = \"page\"\nhtml.syntax = \"xhtml\"\nhtml.characters = \"ascii\"\npage.look = \"none\"\npage.contents = 0\npage.skip-link = false\n",
    ),
    (
        "listing",
        "for a field of a marketplace: few elements, no pictures",
        "shape = \"fragment\"\nhtml.ids = \"none\"\nhtml.compact = true\nimages.place = \"drop\"\n",
    ),
];

impl Profile {
    /// A profile that comes with Obblet, by its name.
    ///
    /// # Errors
    /// Where there is none of that name.
    pub fn built_in(name: &str) -> Result<Self, ProfileError> {
        let mut profile = Self::default();
        let names = || BUILT_IN.iter().map(|(name, _, _)| *name);
        let (_, _, settings) = BUILT_IN
            .iter()
            .find(|(known, _, _)| *known == name)
            .ok_or_else(|| ProfileError::UnknownProfile { name: name.to_owned(), nearest: error::nearest(name, names()) })?;
        profile.apply(settings, name, None)?;
        Ok(profile)
    }
}
