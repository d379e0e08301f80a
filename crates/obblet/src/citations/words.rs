//! The words that stand in lists of entries, by language (the documentation of biblatex, "Localization").

use super::entry::{Day, MONTHS};

/// The words of a language.
#[derive(Debug)]
pub(crate) struct Words {
    pub(super) and: &'static str,
    pub(super) comma_before_and: bool,
    pub(super) others: &'static str,
    pub(super) editor: &'static str,
    pub(super) editors: &'static str,
    pub(super) edited_by: &'static str,
    pub(super) inside: &'static str,
    pub(crate) page: &'static str,
    pub(crate) pages: &'static str,
    pub(super) volume: &'static str,
    pub(super) chapter: &'static str,
    pub(super) thesis: &'static str,
    pub(super) masters_thesis: &'static str,
    pub(super) report: &'static str,
    pub(super) visited: &'static str,
    pub(super) no_year: &'static str,
    pub(super) quotes: (&'static str, &'static str),
    language: &'static str,
}

static ENGLISH: Words = Words {
    and: "and",
    comma_before_and: true,
    others: "et al.",
    editor: "ed.",
    editors: "eds.",
    edited_by: "Ed.~by",
    inside: "In:",
    page: "p.",
    pages: "pp.",
    volume: "Vol.",
    chapter: "Chap.",
    thesis: "PhD thesis",
    masters_thesis: "MA thesis",
    report: "Tech. rep.",
    visited: "visited on",
    no_year: "n.d.",
    quotes: ("“", "”"),
    language: "en",
};

static GERMAN: Words = Words {
    and: "und",
    comma_before_and: false,
    others: "u.\u{A0}a.",
    editor: "Hrsg.",
    editors: "Hrsg.",
    edited_by: "Hrsg. von",
    inside: "In:",
    page: "S.",
    pages: "S.",
    volume: "Bd.",
    chapter: "Kap.",
    thesis: "Diss.",
    masters_thesis: "Magisterarb.",
    report: "Techn. Ber.",
    visited: "besucht am",
    no_year: "o.\u{A0}D.",
    quotes: ("„", "“"),
    language: "de",
};

static FRENCH: Words = Words {
    and: "et",
    comma_before_and: false,
    others: "et al.",
    editor: "éd.",
    editors: "éd.",
    edited_by: "Sous la dir. de",
    inside: "In :",
    page: "p.",
    pages: "p.",
    volume: "T.",
    chapter: "chap.",
    thesis: "Thèse de doct.",
    masters_thesis: "Mém. de mast.",
    report: "Rapp. tech.",
    visited: "visité le",
    no_year: "s. d.",
    quotes: ("«\u{A0}", "\u{A0}»"),
    language: "fr",
};

impl Words {
    /// Those of a language; English ones where it has none here.
    pub(crate) fn of(language: &str) -> &'static Self {
        match language.get(..2).unwrap_or_default() {
            "de" => &GERMAN,
            "fr" => &FRENCH,
            _ => &ENGLISH,
        }
    }

    pub(super) fn edition(&self, edition: &str) -> String {
        match self.language {
            "de" if is_number(edition) => format!("{edition}. Aufl."),
            "fr" if is_number(edition) => format!("{edition}\u{1D49} éd."),
            "de" => format!("{edition} Aufl."),
            _ => format!("{} ed.", ordinal(edition)),
        }
    }

    /// A date with a short name of its month; the year may have a letter.
    pub(super) fn date(&self, date: &Day, year: &str) -> String {
        let Some(month) = date.month else { return year.to_owned() };
        let month_of = |names: [&'static str; 12]| names.get(month - 1).copied().unwrap_or_default();
        match self.language {
            "de" => {
                let name =
                    month_of(["Jan.", "Feb.", "März", "Apr.", "Mai", "Juni", "Juli", "Aug.", "Sep.", "Okt.", "Nov.", "Dez."]);
                if date.day.is_empty() { format!("{name} {year}") } else { format!("{}. {name} {year}", date.day) }
            }
            "fr" => {
                let name =
                    month_of(["jan.", "fév.", "mars", "avr.", "mai", "juin", "juill.", "août", "sept.", "oct.", "nov.", "déc."]);
                if date.day.is_empty() { format!("{name} {year}") } else { format!("{} {name} {year}", date.day) }
            }
            _ => {
                let whole = MONTHS.get(month - 1).copied().unwrap_or_default();
                // Short names are as they are.
                let name = match whole {
                    "May" | "June" | "July" => whole.to_owned(),
                    "September" => "Sept.".to_owned(),
                    _ => format!("{}.", &whole[..3.min(whole.len())]),
                };
                if date.day.is_empty() { format!("{name} {year}") } else { format!("{name} {}, {year}", date.day) }
            }
        }
    }

    /// A day in digits: `05/04/2020`.
    pub(super) fn numbers_of_day(&self, day: &str) -> String {
        let parts: Vec<&str> = day.split('-').collect();
        match (self.language, &parts[..]) {
            ("de", [year, month, day]) => format!("{day}.~{month}.~{year}"),
            ("fr", [year, month, day]) => format!("{day}/{month}/{year}"),
            (_, [year, month, day]) => format!("{month}/{day}/{year}"),
            _ => day.to_owned(),
        }
    }
}

fn is_number(text: &str) -> bool {
    !text.is_empty() && text.bytes().all(|byte| byte.is_ascii_digit())
}

/// `2nd` of a number; other words stay what they are.
pub(super) fn ordinal(number: &str) -> String {
    if !is_number(number) {
        return number.to_owned();
    }
    let ending = match (number.ends_with("11") || number.ends_with("12") || number.ends_with("13"), number.as_bytes().last()) {
        (false, Some(b'1')) => "st",
        (false, Some(b'2')) => "nd",
        (false, Some(b'3')) => "rd",
        _ => "th",
    };
    format!("{number}{ending}")
}
