//! Quotation marks of languages.

use crate::language_tag::primary;

/// Opening and closing marks, outer and inner.
#[derive(Clone, Copy, Debug)]
pub(crate) struct Marks {
    pub(crate) double: (&'static str, &'static str),
    pub(crate) single: (&'static str, &'static str),
}

const ENGLISH: Marks = Marks { double: ("\u{201C}", "\u{201D}"), single: ("\u{2018}", "\u{2019}") };

/// Marks by language. Facts from the Unicode Common Locale Data Repository's delimiters, 2026.
const BY_LANGUAGE: [(&str, Marks); 12] = [
    ("cs", Marks { double: ("\u{201E}", "\u{201C}"), single: ("\u{201A}", "\u{2018}") }),
    ("da", Marks { double: ("\u{201C}", "\u{201D}"), single: ("\u{2018}", "\u{2019}") }),
    ("de", Marks { double: ("\u{201E}", "\u{201C}"), single: ("\u{201A}", "\u{2018}") }),
    ("es", Marks { double: ("\u{AB}", "\u{BB}"), single: ("\u{201C}", "\u{201D}") }),
    ("fi", Marks { double: ("\u{201D}", "\u{201D}"), single: ("\u{2019}", "\u{2019}") }),
    ("fr", Marks { double: ("\u{AB}\u{A0}", "\u{A0}\u{BB}"), single: ("\u{AB}\u{A0}", "\u{A0}\u{BB}") }),
    ("it", Marks { double: ("\u{AB}", "\u{BB}"), single: ("\u{201C}", "\u{201D}") }),
    ("nb", Marks { double: ("\u{AB}", "\u{BB}"), single: ("\u{2018}", "\u{2019}") }),
    ("pl", Marks { double: ("\u{201E}", "\u{201D}"), single: ("\u{AB}", "\u{BB}") }),
    ("ru", Marks { double: ("\u{AB}", "\u{BB}"), single: ("\u{201E}", "\u{201C}") }),
    ("sv", Marks { double: ("\u{201D}", "\u{201D}"), single: ("\u{2019}", "\u{2019}") }),
    ("uk", Marks { double: ("\u{AB}", "\u{BB}"), single: ("\u{201E}", "\u{201C}") }),
];

/// The marks of a language, by its tag; those of English for others than these.
pub(crate) fn of(language: &str) -> Marks {
    let primary = primary(language);
    BY_LANGUAGE.iter().find(|(known, _)| *known == primary).map_or(ENGLISH, |(_, marks)| *marks)
}
