//! Pieces of words, and tests of them (the documentation of xstring), and numbers in words (of fmtcount).

use super::Reader;
use super::tokens::Token;

/// A word is no longer, in bytes.
const LONGEST: usize = 10_000;

impl Reader<'_> {
    /// Commands for pieces of words. Whether a command is one.
    pub(super) fn string_command(&mut self, name: &str) -> bool {
        if !name.starts_with("Str") && !name.starts_with("If") {
            return self.spelled_number(name);
        }
        if !self.front.loads("xstring") {
            return false;
        }
        if name.starts_with("If") {
            return self.test_of_words(name);
        }
        let arguments = match name {
            "StrLen" | "StrRemoveBraces" => 1,
            "StrLeft" | "StrRight" | "StrGobbleLeft" | "StrGobbleRight" | "StrChar" | "StrDel" | "StrCount" | "StrPosition"
            | "StrBefore" | "StrBehind" | "StrCompare" => 2,
            "StrMid" | "StrSubstitute" | "StrBetween" => 3,
            "StrCut" => return self.cut_word(),
            _ => return false,
        };
        self.input.take('*');
        let option = self.input.option().map(|option| self.input.characters(&option)).unwrap_or_default();
        let given: Vec<String> = (0..arguments).map(|_| self.word_given()).collect();
        let shown = piece(name, &given, &option);
        if !self.macros.charge(shown.len(), self.at) {
            return true;
        }
        match self.input.option().as_deref() {
            Some([Token { kind: super::tokens::Kind::Command(kept), .. }]) => {
                let kept = kept.clone();
                let at = self.at;
                let tokens = shown.chars().map(|c| Token { kind: super::tokens::Kind::Char(c), at });
                self.macros.keep(kept, tokens.collect());
            }
            _ => self.input.push_characters(&shown, self.at),
        }
        true
    }

    /// The characters of an argument, once commands in it are written out.
    fn word_given(&mut self) -> String {
        let argument = self.input.argument();
        let tokens = self.written_out(&argument);
        let word = self.input.characters(&tokens);
        if word.len() > LONGEST { word.chars().take(LONGEST / 4).collect() } else { word }
    }

    /// `\StrCut{word}{sign}\before\behind`
    fn cut_word(&mut self) -> bool {
        self.input.take('*');
        self.input.option();
        let (word, sign) = (self.word_given(), self.word_given());
        let (before, behind) = word.split_once(&*sign).filter(|_| !sign.is_empty()).unwrap_or((&word, ""));
        let at = self.at;
        for part in [before, behind] {
            let Some(name) = super::macros::name(&mut self.input) else { break };
            let tokens = part.chars().map(|c| Token { kind: super::tokens::Kind::Char(c), at });
            self.macros.keep(name, tokens.collect());
        }
        true
    }

    /// `\IfStrEq{a}{b}{then}{else}` and others. Whether a command is one.
    fn test_of_words(&mut self, name: &str) -> bool {
        if matches!(name, "IfStrEqCase" | "IfEqCase") {
            return self.case_of_words();
        }
        let arguments = match name {
            "IfStrEq" | "IfEq" | "IfSubStr" | "IfBeginWith" | "IfEndWith" => 2,
            "IfInteger" | "IfDecimal" => 1,
            "IfSubStrBefore" | "IfSubStrBehind" => 3,
            _ => return false,
        };
        self.input.take('*');
        self.input.option();
        let given: Vec<String> = (0..arguments).map(|_| self.word_given()).collect();
        let (one, other) = (given[0].as_str(), given.get(1).map_or("", String::as_str));
        let number = |word: &str| word.trim().replace(',', ".").parse::<f64>().ok();
        let is_plain_number =
            |word: &str| word.bytes().all(|byte| byte.is_ascii_digit() || matches!(byte, b'+' | b'-' | b'.' | b','));
        let holds = match name {
            "IfStrEq" => one == other,
            "IfEq" => one == other || number(one).is_some() && number(one) == number(other),
            "IfSubStr" => one.contains(other),
            "IfBeginWith" => one.starts_with(other),
            "IfEndWith" => one.ends_with(other),
            "IfInteger" => one.trim().parse::<i64>().is_ok(),
            "IfDecimal" => is_plain_number(one) && number(one).is_some(),
            _ => {
                let (before, behind) = (one.find(other), one.find(&*given[2]));
                let comes_before = before.is_some() && before < behind;
                if name == "IfSubStrBefore" { comes_before } else { before.is_some() && behind.is_some() && !comes_before }
            }
        };
        let (then, otherwise) = (self.input.argument(), self.input.argument());
        self.input.push_all(if holds { then } else { otherwise }.into_iter());
        true
    }

    /// `\IfStrEqCase{word}{{a}{then}{b}{then}}[else]`
    fn case_of_words(&mut self) -> bool {
        self.input.take('*');
        let word = self.word_given();
        let cases = self.input.argument();
        let otherwise = self.input.option();
        let mut inner = super::Input::of_tokens(self.input.source, cases.into_iter());
        let chosen = std::iter::from_fn(|| {
            inner.skip_white();
            inner.takes_begin().then(|| (inner.up_to_end(), inner.argument()))
        });
        let chosen: Vec<_> = chosen.collect();
        let found = chosen.into_iter().find(|(case, _)| {
            let tokens = self.written_out(case);
            self.input.characters(&tokens) == word
        });
        let tokens = found.map(|(_, then)| then).or(otherwise).unwrap_or_default();
        self.input.push_all(tokens.into_iter());
        true
    }

    /// Numbers in words and as ordinals, by counters or by themselves. Whether a command shows one.
    fn spelled_number(&mut self, name: &str) -> bool {
        let (form, is_number) = name.strip_suffix("num").map_or((name, false), |form| (form, true));
        let is_known = matches!(
            form,
            "ordinal"
                | "FCordinal"
                | "numberstring"
                | "Numberstring"
                | "NUMBERstring"
                | "ordinalstring"
                | "Ordinalstring"
                | "ORDINALstring"
                | "binary"
                | "octal"
                | "hexadecimal"
                | "Hexadecimal"
                | "decimal"
        );
        if !is_known || !self.front.loads("fmtcount") {
            return false;
        }
        let argument = self.input.argument();
        self.input.option();
        let number = if is_number {
            self.within(&argument, Self::number).unwrap_or(0)
        } else {
            self.counters.get(&self.input.characters(&argument))
        };
        let Ok(number) = u32::try_from(number) else { return true };
        let words = match form.to_ascii_lowercase().as_str() {
            "numberstring" => in_words(number, false),
            "ordinalstring" => in_words(number, true),
            "ordinal" | "fcordinal" => format!("{number}{}", suffix(number)),
            "binary" => format!("{number:b}"),
            "octal" => format!("{number:o}"),
            "hexadecimal" if form.starts_with('H') => format!("{number:X}"),
            "hexadecimal" => format!("{number:x}"),
            _ => number.to_string(),
        };
        let words = match form {
            "Numberstring" | "Ordinalstring" => words.split('-').map(super::theorems::capitalised).collect::<Vec<_>>().join("-"),
            "NUMBERstring" | "ORDINALstring" => words.to_uppercase(),
            _ => words,
        };
        self.text(&words);
        true
    }
}

/// What a command takes of a word.
fn piece(name: &str, given: &[String], option: &str) -> String {
    let word = given[0].as_str();
    let other = given.get(1).map_or("", String::as_str);
    let count = |text: &str| text.trim().parse::<usize>().unwrap_or(0);
    let nth = option.trim().parse::<usize>().unwrap_or(1).max(1);
    let place = || word.match_indices(other).nth(nth - 1).filter(|_| !other.is_empty()).map(|(at, _)| at);
    let length = word.chars().count();
    match name {
        "StrLen" => length.to_string(),
        "StrLeft" => word.chars().take(count(other)).collect(),
        "StrRight" => word.chars().skip(length.saturating_sub(count(other))).collect(),
        "StrGobbleLeft" => word.chars().skip(count(other)).collect(),
        "StrGobbleRight" => word.chars().take(length.saturating_sub(count(other))).collect(),
        "StrChar" => word.chars().skip(count(other).saturating_sub(1)).take(1).collect(),
        "StrMid" => {
            let (first, last) = (count(other).max(1), count(&given[2]));
            word.chars().skip(first - 1).take(last.saturating_add(1).saturating_sub(first)).collect()
        }
        // What would become far longer stays.
        "StrSubstitute" if !other.is_empty() && word.matches(other).count() * given[2].len() > LONGEST * 8 => word.to_owned(),
        "StrSubstitute" if !other.is_empty() && option.is_empty() => word.replace(other, &given[2]),
        "StrSubstitute" if !other.is_empty() => word.replacen(other, &given[2], nth),
        "StrDel" if !other.is_empty() && option.is_empty() => word.replace(other, ""),
        "StrDel" if !other.is_empty() => word.replacen(other, "", nth),
        "StrCount" if !other.is_empty() => word.matches(other).count().to_string(),
        "StrCount" => "0".to_owned(),
        "StrPosition" => place().map_or(0, |at| word[..at].chars().count() + 1).to_string(),
        "StrBefore" => place().map_or("", |at| &word[..at]).to_owned(),
        "StrBehind" => place().map_or("", |at| &word[at + other.len()..]).to_owned(),
        "StrBetween" => {
            let behind = word.split_once(other).filter(|_| !other.is_empty()).map_or("", |(_, behind)| behind);
            behind.split_once(given[2].as_str()).map_or("", |(inside, _)| inside).to_owned()
        }
        "StrCompare" => {
            let same = word.chars().zip(other.chars()).take_while(|(one, other)| one == other).count();
            if word == other { "0".to_owned() } else { (same + 1).to_string() }
        }
        _ => word.to_owned(),
    }
}

const UNITS: [&str; 20] = [
    "zero",
    "one",
    "two",
    "three",
    "four",
    "five",
    "six",
    "seven",
    "eight",
    "nine",
    "ten",
    "eleven",
    "twelve",
    "thirteen",
    "fourteen",
    "fifteen",
    "sixteen",
    "seventeen",
    "eighteen",
    "nineteen",
];
const TENS: [&str; 10] = ["", "", "twenty", "thirty", "forty", "fifty", "sixty", "seventy", "eighty", "ninety"];

/// A number in English words, below a million; of larger ones the digits.
fn in_words(number: u32, is_ordinal: bool) -> String {
    let words = match number {
        0..20 => UNITS[number as usize].to_owned(),
        20..100 if number.is_multiple_of(10) => TENS[number as usize / 10].to_owned(),
        20..100 => format!("{}-{}", TENS[number as usize / 10], UNITS[number as usize % 10]),
        100..1_000_000 => {
            let (size, name) = if number < 1000 { (100, "hundred") } else { (1000, "thousand") };
            let rest = match number % size {
                0 => String::new(),
                rest if rest < 100 => format!(" and {}", in_words(rest, false)),
                rest => format!(" {}", in_words(rest, false)),
            };
            format!("{} {name}{rest}", in_words(number / size, false))
        }
        _ => return format!("{number}{}", if is_ordinal { suffix(number) } else { "" }),
    };
    if !is_ordinal {
        return words;
    }
    let last = words.rfind(['-', ' ']).map_or(0, |at| at + 1);
    let (before, last) = words.split_at(last);
    let ordinal = match last {
        "one" => "first".to_owned(),
        "two" => "second".to_owned(),
        "three" => "third".to_owned(),
        "five" => "fifth".to_owned(),
        "eight" => "eighth".to_owned(),
        "nine" => "ninth".to_owned(),
        "twelve" => "twelfth".to_owned(),
        _ => last.strip_suffix('y').map_or_else(|| format!("{last}th"), |tens| format!("{tens}ieth")),
    };
    format!("{before}{ordinal}")
}

/// What stands behind an ordinal number in English.
pub(super) const fn suffix(number: u32) -> &'static str {
    match (number % 100, number % 10) {
        (11..=13, _) => "th",
        (_, 1) => "st",
        (_, 2) => "nd",
        (_, 3) => "rd",
        _ => "th",
    }
}
