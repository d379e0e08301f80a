//! Accents, and letters of other languages (the LaTeX documentation, "Accents" and "Additional Latin letters").

use super::Reader;
use super::tokens::Token;

/// Accents by their commands: the combining character, and the letters that have one with it, each before what it becomes.
const ACCENTS: [(&str, char, &str); 16] = [
    ("`", '\u{300}', "AÀEÈIÌOÒUÙaàeèiìoòuùNǸnǹWẀwẁYỲyỳ"),
    ("'", '\u{301}', "AÁEÉIÍOÓUÚYÝaáeéiíoóuúyýCĆcćLĹlĺNŃnńRŔrŕSŚsśZŹzźGǴgǵ"),
    ("^", '\u{302}', "AÂEÊIÎOÔUÛaâeêiîoôuûCĈcĉGĜgĝHĤhĥJĴjĵSŜsŝWŴwŵYŶyŷZẐzẑ"),
    ("\"", '\u{308}', "AÄEËIÏOÖUÜaäeëiïoöuüyÿYŸWẄwẅ"),
    ("~", '\u{303}', "AÃNÑOÕaãnñoõIĨiĩUŨuũEẼeẽYỸyỹVṼvṽ"),
    ("=", '\u{304}', "AĀaāEĒeēIĪiīOŌoōUŪuūYȲyȳGḠgḡ"),
    (".", '\u{307}', "CĊcċEĖeėGĠgġIİZŻzżAȦaȧOȮoȯNṄnṅSṠsṡ"),
    ("u", '\u{306}', "AĂaăEĔeĕGĞgğIĬiĭOŎoŏUŬuŭ"),
    ("v", '\u{30C}', "CČcčDĎdďEĚeěNŇnňRŘrřSŠsšTŤtťZŽzžGǦgǧAǍaǎIǏiǐOǑoǒUǓuǔ"),
    ("H", '\u{30B}', "OŐoőUŰuű"),
    ("c", '\u{327}', "CÇcçSŞsşTŢtţGĢgģKĶkķLĻlļNŅnņRŖrŗEȨeȩ"),
    ("k", '\u{328}', "AĄaąEĘeęIĮiįUŲuųOǪoǫ"),
    ("d", '\u{323}', "AẠaạDḌdḍEẸeẹHḤhḥIỊiịLḶlḷMṂmṃNṆnṇOỌoọRṚrṛSṢsṣTṬtṭUỤuụYỴyỵZẒzẓ"),
    ("b", '\u{331}', "BḆbḇDḎdḏLḺlḻNṈnṉTṮtṯ"),
    ("r", '\u{30A}', "AÅaåUŮuů"),
    ("t", '\u{361}', ""),
];

/// A letter with an accent; nothing where it is no accent.
pub(super) fn accented(accent: &str, base: &str) -> Option<String> {
    let (_, combining, composed) = ACCENTS.iter().find(|(name, ..)| *name == accent)?;
    let mut letters = base.chars();
    let Some(first) = letters.next() else { return Some(String::new()) };
    let first = match first {
        'ı' if *combining != '\u{307}' => 'i',
        first => first,
    };
    let mut pairs = composed.chars();
    let mut out = String::new();
    let known = loop {
        match (pairs.next(), pairs.next()) {
            (Some(letter), Some(whole)) if letter == first => break Some(whole),
            (Some(_), Some(_)) => {}
            _ => break None,
        }
    };
    match known {
        Some(whole) => out.push(whole),
        None => {
            out.push(first);
            out.push(*combining);
        }
    }
    out.extend(letters);
    Some(out)
}

/// The letter that has an accent, without it; any other as it is.
pub(crate) fn without_accent(letter: char) -> char {
    let base_in = |composed: &str| {
        let mut letters = composed.chars();
        while let (Some(base), Some(whole)) = (letters.next(), letters.next()) {
            if whole == letter {
                return Some(base);
            }
        }
        None
    };
    ACCENTS.iter().find_map(|(_, _, composed)| base_in(composed)).unwrap_or(letter)
}

impl Reader<'_> {
    /// Writes a letter with an accent, where a command is one.
    pub(super) fn accent(&mut self, name: &str) -> bool {
        if !ACCENTS.iter().any(|(accent, ..)| *accent == name) {
            return false;
        }
        let argument = self.input.argument();
        let base = self.letters(&argument);
        // Over nothing, it stands by itself.
        let alone = match name {
            _ if !base.is_empty() => None,
            "^" | "~" | "`" => Some(name),
            "'" => Some("\u{B4}"),
            "\"" => Some("\u{A8}"),
            "=" => Some("\u{AF}"),
            _ => None,
        };
        if let Some(alone) = alone {
            self.text(alone);
            return true;
        }
        if let Some(letter) = accented(name, &base) {
            self.text(&letter);
        }
        true
    }

    /// The letters that tokens stand for.
    pub(super) fn letters(&self, tokens: &[Token]) -> String {
        let mut out = String::new();
        let mut rest = tokens;
        while let Some((token, behind)) = rest.split_first() {
            rest = behind;
            match token.kind.command() {
                Some(name) => {
                    if let Some(letters) = super::symbols::text(name) {
                        out.push_str(letters);
                    } else if let Some((next, behind)) = rest.split_first()
                        && let Some(letter) = accented(name, &self.input.characters(std::slice::from_ref(next)))
                    {
                        out.push_str(&letter);
                        rest = behind;
                    }
                }
                None => out.push_str(&self.input.characters(std::slice::from_ref(token))),
            }
        }
        out
    }

    /// What a quotation mark begins where a language has shorthands (the documentation of babel, German).
    pub(super) fn shorthand(&mut self) {
        let is_german = self.front.language.as_deref().is_some_and(|language| language.starts_with("de"));
        if !is_german {
            return self.text(if self.marks_of_text == super::MarksOfText::WithStraight { "\"" } else { "\u{201D}" });
        }
        for (signs, words) in
            [("`", "\u{201E}"), ("'", "\u{201C}"), ("<", "\u{AB}"), (">", "\u{BB}"), ("-", "\u{AD}"), ("\"", ""), ("|", "")]
        {
            if signs.chars().all(|sign| self.input.take(sign)) {
                return self.text(words);
            }
        }
        let argument = self.input.argument();
        let base = self.input.characters(&argument);
        match base.as_str() {
            "s" => self.text("ß"),
            "a" | "o" | "u" | "A" | "O" | "U" | "e" | "i" => self.text(&accented("\"", &base).unwrap_or_default()),
            "=" => self.text("-"),
            "~" => self.text("\u{2011}"),
            _ => self.input.push_all(argument.into_iter()),
        }
    }
}
