//! Names of people and bodies as entries have them (the documentation of BibTeX, "Names").

use crate::formats::latex::without_accent;

/// An entry has no more names.
const MOST_NAMES: usize = 100;

/// The name of a person, or of a body, which has a family name only. All parts are LaTeX.
#[derive(Clone, Debug, Default, PartialEq, Eq)]
pub(super) struct Name {
    pub(super) given: String,
    /// What stands before the family name, such as `von`.
    pub(super) prefix: String,
    pub(super) family: String,
    /// What stands behind it, such as `Jr.`
    pub(super) suffix: String,
}

/// Names, and whether there are others that are not named.
#[derive(Clone, Debug, Default)]
pub(super) struct Names {
    pub(super) all: Vec<Name>,
    pub(super) has_others: bool,
}

impl Names {
    /// Names that are joined with "and".
    pub(super) fn of(text: &str) -> Self {
        let mut names = Self::default();
        for name in split_words(text, "and").into_iter().take(MOST_NAMES) {
            let name = name.trim();
            if name == "others" {
                names.has_others = true;
            } else {
                names.all.extend(Some(Name::of(name)).filter(|name| !name.family.is_empty()));
            }
        }
        names
    }

    /// So many of the names as there may be, each as wanted, with the words for the last and for the others.
    pub(super) fn joined(&self, most: usize, words: Joining<'_>, shown: impl Fn(&Name) -> String) -> String {
        let cut = self.all.len() + usize::from(self.has_others) > most;
        let count = if cut { 1 } else { self.all.len() };
        let mut shown: Vec<String> = self.all.iter().take(count).map(shown).collect();
        let others = cut || self.has_others;
        let Some(last) = shown.pop() else { return String::new() };
        let mut out = shown.join(", ");
        match shown.len() {
            0 => {}
            _ if others => out.push_str(", "),
            1 if words.comma_of_two => out.push_str(&format!(", {} ", words.and)),
            1 => out.push_str(&format!(" {} ", words.and)),
            _ if words.comma => out.push_str(&format!(", {} ", words.and)),
            _ => out.push_str(&format!(" {} ", words.and)),
        }
        out.push_str(&last);
        if others {
            out.push_str(if shown.is_empty() { " " } else { ", " });
            out.push_str(words.others);
        }
        out
    }
}

/// The words and signs between names.
#[derive(Clone, Copy, Debug)]
pub(super) struct Joining<'w> {
    pub(super) and: &'w str,
    pub(super) others: &'w str,
    /// Whether a comma stands before the last of three or more.
    pub(super) comma: bool,
    /// Whether it stands between two as well.
    pub(super) comma_of_two: bool,
}

impl Name {
    fn of(text: &str) -> Self {
        let pieces = split_at_commas(text);
        let owned = |words: &[&str]| words.join(" ");
        match &pieces[..] {
            [] => Self::default(),
            [whole] => {
                let words = split_words(whole, "");
                let Some((last, before)) = words.split_last() else { return Self::default() };
                let Some(first) = before.iter().position(|word| is_small(word)) else {
                    return Self { given: owned(before), family: (*last).to_owned(), ..Self::default() };
                };
                let behind = before.iter().rposition(|word| is_small(word)).map_or(first, |at| at + 1);
                Self {
                    given: owned(&words[..first]),
                    prefix: owned(&words[first..behind]),
                    family: owned(&words[behind..]),
                    suffix: String::new(),
                }
            }
            [family, rest @ ..] => {
                let words = split_words(family, "");
                let last = words.len().saturating_sub(1);
                let behind = words[..last].iter().rposition(|word| is_small(word)).map_or(0, |at| at + 1);
                let (suffix, given) = match rest {
                    [suffix, given, ..] => (suffix.trim(), given.trim()),
                    [given] => ("", given.trim()),
                    [] => ("", ""),
                };
                Self {
                    given: given.to_owned(),
                    prefix: owned(&words[..behind]),
                    family: owned(&words[behind..]),
                    suffix: suffix.to_owned(),
                }
            }
        }
    }

    /// The family name with what stands before it.
    pub(super) fn whole_family(&self) -> String {
        spaced(&[&self.prefix, &self.family])
    }

    /// Given names first.
    pub(super) fn straight(&self, with_initials: bool) -> String {
        let given = if with_initials { initials(&self.given) } else { self.given.clone() };
        let name = if given.is_empty() || !with_initials {
            spaced(&[&given, &self.whole_family()])
        } else {
            format!("{given}~{}", self.whole_family())
        };
        if self.suffix.is_empty() { name } else { format!("{name}, {}", self.suffix) }
    }

    /// The family name first; `apart` where what stands before it goes behind the given names.
    pub(super) fn inverted(&self, with_initials: bool, apart: bool) -> String {
        let given = if with_initials { initials(&self.given) } else { self.given.clone() };
        let (family, prefix) = if apart { (self.family.clone(), &*self.prefix) } else { (self.whole_family(), "") };
        let behind = spaced(&[&given, prefix]);
        [family, self.suffix.clone(), behind].into_iter().filter(|part| !part.is_empty()).collect::<Vec<_>>().join(", ")
    }
}

fn spaced(parts: &[&str]) -> String {
    parts.iter().filter(|part| !part.is_empty()).copied().collect::<Vec<_>>().join(" ")
}

/// Whether a word begins with a small letter outside of braces.
fn is_small(word: &str) -> bool {
    !word.starts_with('{') && plain(word).chars().next().is_some_and(char::is_lowercase)
}

/// A text in pieces between the word, or between spaces where there is no word; what stands in braces is one.
fn split_words<'t>(text: &'t str, word: &str) -> Vec<&'t str> {
    let (mut found, mut depth, mut start) = (Vec::new(), 0_i32, 0);
    let bytes = text.as_bytes();
    let mut at = 0;
    while at < bytes.len() {
        match bytes[at] {
            b'{' => depth += 1,
            b'}' => depth -= 1,
            byte if depth == 0 && (byte.is_ascii_whitespace() || (word.is_empty() && byte == b'~')) => {
                let behind = text[at..].trim_start_matches(|c: char| c.is_ascii_whitespace() || c == '~');
                let next = text.len() - behind.len();
                let ends = word.is_empty()
                    || behind.get(..word.len()).is_some_and(|begin| {
                        begin.eq_ignore_ascii_case(word) && behind[word.len()..].starts_with(char::is_whitespace)
                    });
                if ends {
                    found.push(&text[start..at]);
                    start = next + word.len();
                    at = start;
                    continue;
                }
            }
            _ => {}
        }
        at += 1;
    }
    found.push(&text[start.min(text.len())..]);
    found.retain(|piece| !piece.trim().is_empty());
    found
}

fn split_at_commas(name: &str) -> Vec<&str> {
    let (mut found, mut depth, mut start) = (Vec::new(), 0_i32, 0);
    for (at, byte) in name.bytes().enumerate() {
        depth += i32::from(byte == b'{') - i32::from(byte == b'}');
        if byte == b',' && depth == 0 {
            found.push(name[start..at].trim());
            start = at + 1;
        }
    }
    found.push(name[start..].trim());
    found
}

/// Given names by their first letters, each with a full stop, and a space that does not break between them.
fn initials(given: &str) -> String {
    let names = split_words(given, "").into_iter().map(|name| {
        let parts: Vec<String> =
            name.split('-').filter(|part| !part.is_empty()).map(|part| format!("{}.", first_letter(part))).collect();
        parts.join("-")
    });
    names.collect::<Vec<_>>().join("~")
}

/// The first letter of a word, with the command that puts an accent over it.
fn first_letter(word: &str) -> &str {
    let mut letters = word.char_indices();
    match letters.next() {
        Some((_, '{')) => {
            let mut depth = 0_i32;
            let end = word.bytes().position(|byte| {
                depth += i32::from(byte == b'{') - i32::from(byte == b'}');
                depth == 0
            });
            let inner = end.map_or(&word[1..], |end| &word[1..end]);
            if inner.starts_with('\\') { end.map_or(word, |end| &word[..=end]) } else { first_letter(inner) }
        }
        Some((_, '\\')) => {
            let name = word[1..].bytes().take_while(u8::is_ascii_alphabetic).count().max(1);
            let name = 1 + word[1..].char_indices().nth(name).map_or(word.len() - 1, |(at, _)| at);
            let rest = &word[name..];
            if let Some(inner) = rest.strip_prefix('{') {
                return inner.find('}').map_or(word, |end| &word[..name + end + 2]);
            }
            let skipped = rest.len() - rest.trim_start().len();
            let letter = rest[skipped..].chars().next().map_or(0, char::len_utf8);
            &word[..name + skipped + letter]
        }
        Some((_, first)) => &word[..first.len_utf8()],
        None => word,
    }
}

/// The letters of a text without its commands.
pub(super) fn plain(text: &str) -> String {
    let mut out = String::new();
    let mut letters = text.chars().peekable();
    while let Some(c) = letters.next() {
        if c == '\\' {
            // An accent is a sign; a longer name is a command, or a letter.
            if letters.next_if(|c| !c.is_alphabetic()).is_some() {
                continue;
            }
            let mut name = String::new();
            while let Some(c) = letters.next_if(|c| c.is_alphabetic()) {
                name.push(c);
            }
            if matches!(name.as_str(), "o" | "O" | "l" | "L" | "ae" | "AE" | "oe" | "OE" | "ss" | "aa" | "AA" | "i" | "j") {
                out.push_str(&name);
            }
        } else if c.is_alphanumeric() || c == ' ' {
            out.push(c);
        } else if c == '~' || c == '-' {
            out.push(' ');
        }
    }
    out.trim().to_owned()
}

/// The letters of a text by which it is sorted: small, and without accents.
pub(super) fn folded(text: &str) -> String {
    let letters = plain(text);
    if letters.is_ascii() {
        return letters.to_ascii_lowercase();
    }
    let bare = letters.chars().filter(|c| !('\u{300}'..='\u{36F}').contains(c)).map(without_accent);
    bare.collect::<String>().to_lowercase().replace('ß', "ss").replace('ø', "o").replace('ł', "l")
}

#[cfg(test)]
mod tests {
    use super::*;

    #[test]
    fn names_have_parts() {
        let parts = |text: &str| {
            let Name { given, prefix, family, suffix } = Name::of(text);
            format!("{given}|{prefix}|{family}|{suffix}")
        };
        assert_eq!(parts("Orla Pask"), "Orla||Pask|");
        assert_eq!(parts("Ruth Anna von der Quill"), "Ruth Anna|von der|Quill|");
        assert_eq!(parts("von Quill, Jr., Ruth"), "Ruth|von|Quill|Jr.");
        assert_eq!(parts("{Harbour Board of Kell}"), "||{Harbour Board of Kell}|");
        assert_eq!(parts("Marr Venn, Jonna"), "Jonna||Marr Venn|");
        assert_eq!(parts("de la Marr"), "|de la|Marr|");
        assert_eq!(initials("Jean-Paul {\\'E}mile \\v{C}apek \\O le"), "J.-P.~{\\'E}.~\\v{C}.~\\O.~l.");
        let joined = |text: &str, most| {
            let words = Joining { and: "and", others: "et al.", comma: true, comma_of_two: false };
            Names::of(text).joined(most, words, Name::whole_family)
        };
        assert_eq!(joined("A B and C D and others", 9), "B, D, et al.");
        assert_eq!(joined("A B and C D and E {and F}", 9), "B, D, and {and F}");
        assert_eq!(joined("A B and C D and E F", 2), "B et al.");
        assert_eq!(joined("A B AND C D and others", 2), "B et al.");
        assert_eq!(folded("M{\\\"u}ller Ångström \\O ye"), "muller angstrom o ye");
    }
}
