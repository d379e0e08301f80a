//! The profiles that come with Obblet.

use super::{Profile, ProfileError, error};

/// Name, purpose and settings of each built-in profile.
pub const BUILT_IN: [(&str, &str, &str); 6] = [
    ("page", "a whole page with a look, ready to publish", ""),
    ("fragment", "content to paste into another system, without a page around it", "shape = \"fragment\"\n"),
    (
        "bare",
        "structure only, for a system with its own styles",
        r#"shape = "fragment"

[clean]
anchors = "always"
formatting = "always"
white-space = "always"
empty = "always"
lone-paragraphs = "always"
table-heads = "always"
layout-tables = true
unwrap-elements = ["div", "section", "article", "span", "u", "small", "mark", "b", "i"]
allow-attributes = ["href", "src", "alt", "id", "start", "type", "colspan", "rowspan", "scope", "lang", "dir", "img.width", "img.height", "cite", "datetime"]
"#,
    ),
    (
        "lookalike",
        "a page that looks like the source",
        "shape = \"page\"\nstyling = \"exact\"\npage.look = \"none\"\npage.contents = 0\n",
    ),
    (
        "reader",
        "for e-readers: XML syntax, ASCII characters, classes for inline formatting",
        r#"shape = "page"
styling = "named"

[html]
syntax = "xhtml"
characters = "ascii"

[page]
look = "none"
contents = 0
skip-link = false

[clean]
inline = "classes"
quotes = "typographic"
dashes = "typographic"
scene-breaks = "mark"
anchors = "always"
formatting = "always"
white-space = "always"
empty = "always"
lone-paragraphs = "always"
"#,
    ),
    (
        "listing",
        "for a field of a marketplace: few elements, no images, a limit of characters",
        r#"shape = "fragment"

[html]
ids = "none"
compact = true

[images]
place = "drop"

[clean]
allow-elements = ["p", "br", "b", "i", "ul", "ol", "li"]
rename-elements = ["strong = b", "em = i"]
allow-attributes = ["start"]
formatting = "always"
white-space = "always"
empty = "always"
lone-paragraphs = "always"
layout-tables = true
redirects = true

[limits]
characters = 4000
"#,
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
