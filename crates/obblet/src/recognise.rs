//! Which language a text is in.

use crate::document::{Document, Kind, Step};

/// The tags of languages (ISO 639-1) for the codes of the recogniser (ISO 639-3).
const TAGS: [(&str, &str); 66] = [
    ("afr", "af"),
    ("ara", "ar"),
    ("aze", "az"),
    ("bel", "be"),
    ("ben", "bn"),
    ("bul", "bg"),
    ("cat", "ca"),
    ("ces", "cs"),
    ("cmn", "zh"),
    ("dan", "da"),
    ("deu", "de"),
    ("ell", "el"),
    ("eng", "en"),
    ("epo", "eo"),
    ("est", "et"),
    ("fin", "fi"),
    ("fra", "fr"),
    ("guj", "gu"),
    ("heb", "he"),
    ("hin", "hi"),
    ("hrv", "hr"),
    ("hun", "hu"),
    ("hye", "hy"),
    ("ind", "id"),
    ("ita", "it"),
    ("jav", "jv"),
    ("jpn", "ja"),
    ("kan", "kn"),
    ("kat", "ka"),
    ("khm", "km"),
    ("kor", "ko"),
    ("lat", "la"),
    ("lav", "lv"),
    ("lit", "lt"),
    ("mal", "ml"),
    ("mar", "mr"),
    ("mkd", "mk"),
    ("mya", "my"),
    ("nep", "ne"),
    ("nld", "nl"),
    ("nob", "no"),
    ("ori", "or"),
    ("pan", "pa"),
    ("pes", "fa"),
    ("pol", "pl"),
    ("por", "pt"),
    ("ron", "ro"),
    ("rus", "ru"),
    ("sin", "si"),
    ("slk", "sk"),
    ("slv", "sl"),
    ("sna", "sn"),
    ("spa", "es"),
    ("srp", "sr"),
    ("swe", "sv"),
    ("tam", "ta"),
    ("tel", "te"),
    ("tgl", "tl"),
    ("tha", "th"),
    ("tuk", "tk"),
    ("tur", "tr"),
    ("ukr", "uk"),
    ("urd", "ur"),
    ("uzb", "uz"),
    ("vie", "vi"),
    ("zul", "zu"),
];

/// Text with fewer letters says too little about its language.
const FEWEST_LETTERS: usize = 200;

/// So much text, in bytes, is enough to know a language by.
const ENOUGH_TEXT: usize = 1 << 10;

/// The language that the text of a document is in, where that is sure.
pub(crate) fn language_of(doc: &Document) -> Option<&'static str> {
    let mut text = String::new();
    for step in doc.walk_all() {
        if let Step::Enter(id) = step
            && let Kind::Text(part) = doc.kind(id)
        {
            let part = doc.text(part);
            let mut end = part.len().min(ENOUGH_TEXT);
            while !part.is_char_boundary(end) {
                end -= 1;
            }
            text.push_str(&part[..end]);
            text.push(' ');
        }
        if text.len() > ENOUGH_TEXT {
            break;
        }
    }
    of(&text)
}

/// The language that a text is in, where that is sure.
fn of(text: &str) -> Option<&'static str> {
    if text.chars().filter(|c| c.is_alphabetic()).count() < FEWEST_LETTERS {
        return None;
    }
    if is_plainly_english(text) {
        return Some("en");
    }
    let found = whatlang::detect(text).filter(|found| found.is_reliable() && found.confidence() > 0.9)?;
    TAGS.iter().find(|(code, _)| *code == found.lang().code()).map(|(_, tag)| *tag)
}

/// Words that many English sentences have and few of other languages.
const ENGLISH: [&str; 12] = ["the", "of", "and", "with", "that", "this", "which", "from", "have", "are", "its", "by"];

/// Whether every tenth word, or more of them, are some of those that English is full of: the recogniser need not be asked then.
fn is_plainly_english(text: &str) -> bool {
    let words = || text.split(|c: char| !c.is_alphanumeric()).filter(|word| !word.is_empty());
    let is_own = |word: &&str| ENGLISH.iter().any(|known| known.eq_ignore_ascii_case(word));
    let the = words().filter(|word| word.eq_ignore_ascii_case("the")).count();
    let own = words().filter(is_own).count();
    the * 40 >= words().count() && own * 10 >= words().count()
}

/// Whether two tags name the same language, or ones that a recogniser takes for each other.
pub(crate) fn is_same(one: &str, other: &str) -> bool {
    let primary = |tag: &str| {
        let primary = tag.split(['-', '_']).next().unwrap_or_default().to_ascii_lowercase();
        match primary.as_str() {
            "nb" | "nn" | "da" => "no".to_owned(),
            "hr" | "bs" | "sh" => "sr".to_owned(),
            "ms" | "jv" => "id".to_owned(),
            "gl" => "pt".to_owned(),
            "bg" => "mk".to_owned(),
            "iw" => "he".to_owned(),
            "sk" => "cs".to_owned(),
            "yue" => "zh".to_owned(),
            "fil" => "tl".to_owned(),
            "af" => "nl".to_owned(),
            _ => primary,
        }
    };
    primary(one) == primary(other)
}

#[cfg(test)]
mod tests {
    use super::*;

    #[test]
    fn languages_are_told_where_they_are_sure() {
        let english = "The keeper reads the gauge at six in the morning and writes what it shows into the log of the station. ";
        let german = "Der Wärter liest am Morgen um sechs den Pegel ab und schreibt den Stand in das Buch der Station. ";
        assert_eq!((of(&english.repeat(4)), of(&german.repeat(4))), (Some("en"), Some("de")));
        assert_eq!(of(english), None);
        assert!(is_same("en-GB", "en") && is_same("nn", "no") && !is_same("de", "en"));
    }
}
