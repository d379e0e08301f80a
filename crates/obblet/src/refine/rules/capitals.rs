//! Capitals as title or sentence case, without harm to acronyms and names.

use crate::document::{Document, Finding, Kind, NodeId, Step};

use std::collections::BTreeSet;
use std::ops::Range;
use unicode_segmentation::UnicodeSegmentation;

/// What becomes of passages in capitals.
#[derive(Clone, Copy, Debug, Default, PartialEq, Eq)]
pub enum Capitals {
    /// They stay.
    #[default]
    Keep,
    /// Words begin with capitals, but for the small ones between.
    Title,
    /// Sentences begin with capitals.
    Sentence,
}

/// Words that titles leave in small letters, but for the first and the last.
const SMALL_WORDS: [&str; 26] = [
    "a", "an", "and", "as", "at", "but", "by", "for", "from", "if", "in", "into", "nor", "of", "off", "on", "or", "per", "so",
    "the", "to", "up", "via", "vs", "with", "yet",
];

/// Gives passages in capitals the case that is wanted. Words of `protected` are written as they stand there. Words that look
/// like acronyms stay in capitals and are suggested for it.
pub fn set(doc: &mut Document, capitals: Capitals, protected: &[String]) {
    if capitals == Capitals::Keep {
        return;
    }
    let mut suggested = BTreeSet::new();
    let mut first = None;
    for root in doc.roots() {
        for line in lines(doc, root) {
            let text: String = line.iter().map(|(_, text)| text.as_str()).collect();
            let mut found = Vec::new();
            let changed = lowered(&text, capitals, protected, &mut found);
            if !found.is_empty() {
                first = first.or_else(|| line.first().map(|(id, _)| *id));
                suggested.extend(found);
            }
            if changed != text {
                put_back(doc, &line, &changed);
            }
        }
    }
    if let Some(first) = first {
        let place = doc.place(first);
        let words: Vec<String> = suggested.into_iter().collect();
        doc.push_finding(
            Finding::advice("clean.acronym", format!("words that look like acronyms kept their capitals: {}", words.join(", ")))
                .at(place)
                .hint("add the acronyms to clean.protected-words"),
        );
    }
}

/// The texts of each line, in order: a block or a line break ends one.
fn lines(doc: &Document, root: NodeId) -> Vec<Vec<(NodeId, String)>> {
    let mut lines = vec![Vec::new()];
    for step in doc.walk(root) {
        let (Step::Enter(id) | Step::Leave(id)) = step;
        match (doc.kind(id), step) {
            (Kind::Text(text), Step::Enter(_)) => {
                if let Some(line) = lines.last_mut() {
                    line.push((id, doc.text(text).to_owned()));
                }
            }
            (kind, _) if (!kind.is_inline() || kind == Kind::LineBreak) && lines.last().is_some_and(|line| !line.is_empty()) => {
                lines.push(Vec::new())
            }
            _ => {}
        }
    }
    lines.retain(|line| !line.is_empty());
    lines
}

/// Puts a changed text back into the nodes that it came from. Its characters correspond one to one.
fn put_back(doc: &mut Document, line: &[(NodeId, String)], changed: &str) {
    let mut chars = changed.chars();
    for (id, old) in line {
        let new: String = chars.by_ref().take(old.chars().count()).collect();
        if new != *old {
            let text = doc.intern(&new);
            doc.set_kind(*id, Kind::Text(text));
        }
    }
}

/// A word and where it begins.
type Word<'t> = (usize, &'t str);

fn lowered(text: &str, capitals: Capitals, protected: &[String], suggested: &mut Vec<String>) -> String {
    let words: Vec<Word<'_>> = text.unicode_word_indices().filter(|(_, word)| word.chars().any(char::is_alphabetic)).collect();
    let names = names(text, protected);
    let mut out = String::with_capacity(text.len());
    let mut done = 0;
    for passage in passages(&words) {
        for (place, &(start, word)) in passage.iter().enumerate() {
            if start < done {
                // A part of a name that is written already.
                continue;
            }
            if let Some((range, name)) = names.iter().find(|(range, _)| range.contains(&start)) {
                let from = range.start.max(done);
                out.push_str(&text[done..from]);
                out.push_str(name);
                done = range.end;
                continue;
            }
            let opens = place == 0 || starts_sentence(text, start);
            let last = place + 1 == passage.len();
            let new = match protected.iter().find(|known| known.to_lowercase() == word.to_lowercase() && same_length(known, word))
            {
                Some(known) => known.clone(),
                None if looks_like_acronym(word) => {
                    suggested.push(word.to_owned());
                    word.to_owned()
                }
                None => cased(word, capitals, opens, last),
            };
            out.push_str(&text[done..start]);
            out.push_str(&new);
            done = start + word.len();
        }
    }
    out.push_str(&text[done..]);
    out
}

/// Where protected words stand that are more than one word to others, such as `USB-C`, and how they are written.
fn names<'p>(text: &str, protected: &'p [String]) -> Vec<(Range<usize>, &'p str)> {
    let is_plain = |name: &str| name.unicode_words().next() == Some(name);
    let mut found = Vec::new();
    for name in protected.iter().filter(|name| !name.is_empty() && !is_plain(name)) {
        let mut from = 0;
        while let Some(range) = find(&text[from..], name) {
            let range = from + range.start..from + range.end;
            let stands_alone = !text[..range.start].chars().next_back().is_some_and(char::is_alphanumeric)
                && !text[range.end..].chars().next().is_some_and(char::is_alphanumeric);
            from = range.end;
            if stands_alone {
                found.push((range, name.as_str()));
            }
        }
    }
    found.sort_by_key(|(range, _)| (range.start, std::cmp::Reverse(range.end)));
    found
}

/// Where a text has a name, whatever the case of its letters; each stands for one, so that its length stays the same.
fn find(text: &str, name: &str) -> Option<Range<usize>> {
    let is_same = |a: char, b: char| a == b || a.to_lowercase().eq(b.to_lowercase()) || (is_apostrophe(a) && is_apostrophe(b));
    text.char_indices().find_map(|(start, _)| {
        let mut rest = text[start..].chars();
        name.chars()
            .all(|wanted| rest.next().is_some_and(|c| is_same(c, wanted)))
            .then(|| start..text.len() - rest.as_str().len())
    })
}

const fn is_apostrophe(c: char) -> bool {
    matches!(c, '\'' | '\u{2019}')
}

fn same_length(a: &str, b: &str) -> bool {
    a.chars().count() == b.chars().count()
}

/// Runs of words in capitals that are loud: several in a row, or all there is. A word among others is no passage.
fn passages<'w, 't>(words: &'w [Word<'t>]) -> Vec<&'w [Word<'t>]> {
    let is_loud = |word: &str| word.chars().any(char::is_uppercase) && !word.chars().any(char::is_lowercase);
    let long = |word: &str| word.chars().filter(|c| c.is_alphabetic()).count() > 1;
    let mut found = Vec::new();
    let mut start = 0;
    while start < words.len() {
        if !is_loud(words[start].1) {
            start += 1;
            continue;
        }
        let mut end = start + 1;
        while end < words.len() && is_loud(words[end].1) {
            end += 1;
        }
        let run = &words[start..end];
        let count = run.iter().filter(|(_, word)| long(word)).count();
        let letters = |(_, word): &(usize, &str)| word.chars().count();
        let whole = run.len() == words.len() && (count > 1 || run.iter().map(letters).max() > Some(5));
        let shouted = run.iter().map(letters).max() > Some(7);
        // Two or three short ones in a row may all be acronyms.
        if whole || count >= 3 || (count > 0 && shouted) || (count == 2 && run.iter().all(|word| letters(word) > 4)) {
            found.push(run);
        }
        start = end;
    }
    found
}

fn starts_sentence(text: &str, start: usize) -> bool {
    let before = text[..start].trim_end_matches(['"', '\'', '(', '\u{201C}', '\u{2018}', '\u{AB}']);
    let ended = before.trim_end();
    ended.len() < before.len() && ended.ends_with(['.', '!', '?', ':', '\u{2026}'])
}

/// Consonants that English words begin with, two and three of them.
const ONSETS: &str = " bl br ch cl cr dr dw fl fr gh gl gn gr kn kr ph pl pr ps rh sc sh sk sl sm sn sp sq st sv sw th tr ts tw vl wh wr chr phr sch \
                      scr shr spl spr str thr ";

/// A word that can't be spoken as one: without vowels, with a digit, with full stops, a roman number, or with a beginning that no
/// word has.
fn looks_like_acronym(word: &str) -> bool {
    let letters: Vec<char> = word.chars().filter(|c| c.is_alphabetic()).collect();
    if letters.len() < 2 || letters.iter().any(|c| c.is_lowercase()) || !letters.iter().all(char::is_ascii) {
        return false;
    }
    let vowel = |c: &char| matches!(c, 'A' | 'E' | 'I' | 'O' | 'U' | 'Y');
    let roman =
        letters.iter().all(|c| matches!(c, 'I' | 'V' | 'X' | 'L')) && letters.len() <= 5 && word != "ILL" && word != "MIX";
    let onset: String = letters.iter().take_while(|c| !vowel(c)).map(char::to_ascii_lowercase).collect();
    let unspeakable = onset.len() > 1 && !ONSETS.contains(&format!(" {onset} "));
    roman || unspeakable || word.contains('.') || !letters.iter().any(vowel) || word.chars().any(|c| c.is_ascii_digit())
}

fn cased(word: &str, capitals: Capitals, opens: bool, last: bool) -> String {
    let lower = one_to_one(word, |c| c.to_lowercase().collect());
    let small = capitals == Capitals::Sentence || SMALL_WORDS.contains(&lower.as_str());
    if word == "I" || word.starts_with("I\u{2019}") || word.starts_with("I'") {
        let mut out = String::from("I");
        out.push_str(&lower[1..]);
        return out;
    }
    if small && !opens && !(last && capitals == Capitals::Title) {
        return lower;
    }
    let mut first = true;
    one_to_one(&lower, |c| if std::mem::take(&mut first) { c.to_uppercase().collect() } else { vec![c] })
}

/// Changes each character into one, where it can be.
fn one_to_one(word: &str, mut change: impl FnMut(char) -> Vec<char>) -> String {
    word.chars()
        .map(|c| match change(c).as_slice() {
            [one] => *one,
            _ => c,
        })
        .collect()
}

#[cfg(test)]
mod tests {
    use super::*;

    #[track_caller]
    fn case(capitals: Capitals, text: &str, expected: &str) {
        let protected = ["NOAA", "Greywick", "USB-C", "Wi-Fi", "O'Neil", "v2.x"].map(str::to_owned);
        assert_eq!(lowered(text, capitals, &protected, &mut Vec::new()), expected);
    }

    #[test]
    fn sentences_keep_their_starts_and_acronyms_their_letters() {
        case(Capitals::Sentence, "DO NOT FEED THE GULLS. THEY BITE!", "Do not feed the gulls. They bite!");
        case(Capitals::Sentence, "THE NOAA TABLES OF GREYWICK AND THE GPS", "The NOAA tables of Greywick and the GPS");
        case(Capitals::Sentence, "Call the RNLI at once, not the BBC.", "Call the RNLI at once, not the BBC.");
        case(Capitals::Sentence, "He said I AM NOT GOING OUT.", "He said I am not going out.");
        case(Capitals::Title, "THE KEEPER OF THE LAMP AND THE SEA", "The Keeper of the Lamp and the Sea");
        case(Capitals::Title, "CHAPTER XIV: WHAT THE FOG LEFT", "Chapter XIV: What the Fog Left");
        case(Capitals::Sentence, "THE USB-C CABLE OF O'NEIL (WI-FI) AND V2.X", "The USB-C cable of O'Neil (Wi-Fi) and v2.x");
        case(Capitals::Title, "WI-FI FOR ALL AND USB-CABLES", "Wi-Fi for All and Usb-Cables");
        case(Capitals::Sentence, "Mind the step. IMPORTANT: low water", "Mind the step. Important: low water");
    }

    #[test]
    fn acronyms_are_suggested() {
        let mut found = Vec::new();
        lowered("SEND THE PDF TO THE HM COASTGUARD", Capitals::Sentence, &[], &mut found);
        assert_eq!(found, ["PDF", "HM"]);
    }
}
