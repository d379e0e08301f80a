//! Tags of languages (BCP 47).

/// The primary language of a tag, in small letters: `en` of `en-GB`.
pub(crate) fn primary(tag: &str) -> String {
    tag.split(['-', '_']).next().unwrap_or_default().to_ascii_lowercase()
}

/// Whether a text has the form of a language tag (BCP 47).
pub(crate) fn is_well_formed(tag: &str) -> bool {
    let mut parts = tag.split('-');
    let is_part = |part: &str, least| (least..=8).contains(&part.len()) && part.bytes().all(|byte| byte.is_ascii_alphanumeric());
    parts.next().is_some_and(|first| is_part(first, 2) && first.bytes().all(|byte| byte.is_ascii_alphabetic()) && first.len() < 4)
        && parts.all(|part| is_part(part, 1))
}

/// Whether two tags are of one language, wherever it is spoken. What is said to be no language is any; Chinese is written in two
/// ways, which have tags of their own.
pub(crate) fn is_same(one: &str, other: &str) -> bool {
    let (first, second) = (primary(one), primary(other));
    if first == "zh" && second == "zh" {
        return is_traditional(one) == is_traditional(other);
    }
    first == second || [first, second].iter().any(|tag| matches!(tag.as_str(), "x" | "zxx" | "und" | ""))
}

/// Whether a language is written from right to left.
pub(crate) fn is_right_to_left(tag: &str) -> bool {
    matches!(primary(tag).as_str(), "ar" | "fa" | "he" | "iw" | "ur" | "yi" | "ps" | "sd" | "ug" | "dv" | "syr")
}

/// Whether a tag is one of Chinese in traditional characters.
fn is_traditional(tag: &str) -> bool {
    tag.split(['-', '_']).skip(1).any(|part| ["hant", "tw", "hk", "mo"].contains(&part.to_ascii_lowercase().as_str()))
}

/// A tag as it is usually written: `en-GB`, `zh-Hant`.
pub(crate) fn usual(tag: &str) -> String {
    let mut out = String::with_capacity(tag.len());
    for (at, part) in tag.split(['-', '_']).enumerate() {
        match part.len() {
            _ if at == 0 => out.push_str(&part.to_ascii_lowercase()),
            2 => out = out + "-" + &part.to_ascii_uppercase(),
            4 => out = out + "-" + &part[..1].to_ascii_uppercase() + &part[1..].to_ascii_lowercase(),
            _ => out = out + "-" + part,
        }
    }
    out
}

#[cfg(test)]
mod tests {
    use super::*;

    #[test]
    fn tags_are_of_one_language_wherever_it_is_spoken() {
        assert!(is_same("en-GB", "EN_us") && is_same("zxx", "cy") && is_same("zh-CN", "zh-Hans"));
        assert!(!is_same("de", "en") && !is_same("zh-TW", "zh-CN"));
        assert_eq!(["EN-us", "zh_hant_tw", "cy", "é-ab"].map(usual), ["en-US", "zh-Hant-TW", "cy", "é-AB"]);
    }
}
