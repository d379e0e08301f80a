//! Scripts, and the languages that they can be.

use crate::language_tag::primary;

/// A script that few languages share.
#[derive(Clone, Copy, Debug, PartialEq, Eq)]
pub(super) enum Script {
    Han,
    Kana,
    Hangul,
    Hebrew,
    Arabic,
    Thai,
}

impl Script {
    /// Whether word processors count it as East Asian.
    pub(super) const fn is_east(self) -> bool {
        matches!(self, Self::Han | Self::Kana | Self::Hangul)
    }

    /// Whether a language is written in it.
    pub(super) fn fits(self, tag: &str) -> bool {
        let primary = primary(tag);
        match self {
            Self::Han => matches!(primary.as_str(), "zh" | "ja" | "ko" | "yue"),
            Self::Kana => primary == "ja",
            Self::Hangul => primary == "ko",
            Self::Hebrew => matches!(primary.as_str(), "he" | "iw" | "yi"),
            Self::Arabic => matches!(primary.as_str(), "ar" | "fa" | "ur" | "ps" | "ug" | "ku" | "sd" | "prs"),
            Self::Thai => primary == "th",
        }
    }

    /// The language that it most likely is.
    pub(super) const fn language(self) -> &'static str {
        match self {
            Self::Han => "zh",
            Self::Kana => "ja",
            Self::Hangul => "ko",
            Self::Hebrew => "he",
            Self::Arabic => "ar",
            Self::Thai => "th",
        }
    }
}

/// The script of a text, where it is one of those.
pub(super) fn script(text: &str) -> Option<Script> {
    let mut found = None;
    for c in text.chars().filter(|c| !c.is_ascii()).take(64) {
        let script = match c as u32 {
            0x3040..=0x30FF => Script::Kana,
            0xAC00..=0xD7AF | 0x1100..=0x11FF => Script::Hangul,
            0x3400..=0x9FFF | 0xF900..=0xFAFF | 0x2_0000..=0x3_FFFF => Script::Han,
            0x0590..=0x05FF => Script::Hebrew,
            0x0600..=0x06FF | 0x0750..=0x077F => Script::Arabic,
            0x0E00..=0x0E7F => Script::Thai,
            _ => continue,
        };
        // Japanese and Korean have Han characters among their own.
        if found.is_none() || found == Some(Script::Han) {
            found = Some(script);
        }
    }
    found
}

/// What a character says of the script around it.
#[derive(Clone, Copy, Debug, PartialEq, Eq)]
enum Group {
    /// Digits, signs and spaces, which belong to what they stand in.
    Neutral,
    East,
    Of(Script),
    Other,
}

fn group(c: char) -> Group {
    match c as u32 {
        0..=0x7F if !c.is_ascii_alphabetic() => Group::Neutral,
        // Signs of East Asian text, and its wide forms of others.
        0x3000..=0x303F | 0xFF00..=0xFFEF => Group::East,
        _ => match script(c.encode_utf8(&mut [0; 4])) {
            Some(script) if script.is_east() => Group::East,
            Some(script) => Group::Of(script),
            None if c.is_alphabetic() => Group::Other,
            None => Group::Neutral,
        },
    }
}

/// A text of several scripts, cut where they change. Neutral characters at its beginning stand for themselves.
pub(super) fn segments(text: &str) -> Vec<&str> {
    let mut segments = Vec::new();
    let (mut start, mut open) = (0, Group::Neutral);
    for (at, c) in text.char_indices() {
        let group = group(c);
        if group != Group::Neutral && group != open {
            if at > start {
                segments.push(&text[start..at]);
            }
            (start, open) = (at, group);
        }
    }
    segments.push(&text[start..]);
    segments
}

/// Whether a text says nothing of its language.
pub(super) fn is_neutral(text: &str) -> bool {
    // Most texts begin with a letter.
    !text.starts_with(|c: char| c.is_ascii_alphabetic()) && text.chars().all(|c| group(c) == Group::Neutral)
}
