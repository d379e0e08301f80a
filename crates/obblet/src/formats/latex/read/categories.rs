//! Categories of characters that a document changes (The TeXbook, chapter 7).

use super::Reader;
use super::tokens::{Input, Kind, Token};

/// What the name of a command begins with that is a character by itself.
pub(super) const ACTIVE: char = '\u{2}';

/// What a character means as usual.
const USUAL: u8 = 255;

/// What registers of categories are kept under, before the number of the character.
const REGISTER: &str = "catcode ";

/// The categories of the characters of ASCII.
#[derive(Debug)]
pub(super) struct Categories([u8; 128]);

impl Categories {
    fn of(&self, byte: u8) -> u8 {
        self.0.get(usize::from(byte)).copied().unwrap_or(USUAL)
    }
}

/// The category that a character has as usual.
fn usual(byte: u8) -> u8 {
    match byte {
        b'\\' => 0,
        b'{' => 1,
        b'}' => 2,
        b'$' => 3,
        b'&' => 4,
        b'#' => 6,
        b'^' => 7,
        b'_' => 8,
        b' ' | b'\t' => 10,
        b'~' => 13,
        b'%' => 14,
        byte if byte.is_ascii_alphabetic() => 11,
        _ => 12,
    }
}

impl Input<'_> {
    /// The next token of the source, where some characters are of other categories than usual.
    pub(super) fn next_by_category(&mut self) -> Option<Token> {
        loop {
            let at = self.at;
            let byte = *self.source.as_bytes().get(at)?;
            let category = self.category_of(byte);
            if category == USUAL {
                let run = self.plain_run();
                if run > at {
                    self.at = run;
                    return Some(Token { kind: Kind::Text(at as u32, run as u32), at: at as u32 });
                }
                return self.next_as_usual();
            }
            // A command's name ends the source as usual.
            if category == 0 {
                return self.next_command();
            }
            self.at += 1;
            let kind = match category {
                1 => Kind::Begin,
                2 => Kind::End,
                3 => Kind::Dollar,
                4 => Kind::Cell,
                5 | 10 => Kind::Space,
                9 | 15 => continue,
                13 => Kind::Command(format!("{ACTIVE}{}", char::from(byte)).into()),
                14 => {
                    let rest = &self.source.as_bytes()[self.at..];
                    self.at += memchr::memchr(b'\n', rest).map_or(rest.len(), |end| end + 1);
                    continue;
                }
                _ => Kind::Text(at as u32, self.at as u32),
            };
            return Some(Token { kind, at: at as u32 });
        }
    }

    fn category_of(&self, byte: u8) -> u8 {
        self.categories.as_ref().map_or(USUAL, |categories| categories.of(byte))
    }

    /// Where a run of plain characters without white space ends.
    fn plain_run(&self) -> usize {
        let rest = &self.source.as_bytes()[self.at..];
        let length = rest
            .iter()
            .take_while(|byte| super::tokens::is_plain(**byte) && **byte != b' ' && self.category_of(**byte) == USUAL)
            .count();
        self.at + length
    }
}

impl Reader<'_> {
    /// Commands that say what characters mean. Whether a command is one.
    pub(super) fn category_command(&mut self, name: &str) -> bool {
        if !matches!(name, "catcode" | "lccode" | "uccode" | "sfcode" | "mathcode" | "delcode") {
            return false;
        }
        let character = self.number();
        self.skip_sign();
        let value = self.number();
        if name == "catcode"
            && let Some(byte) = character.and_then(|character| u8::try_from(character).ok()).filter(u8::is_ascii)
            && let Some(category) = value.and_then(|value| u8::try_from(value).ok()).filter(|category| *category < 16)
        {
            if byte == b'@' {
                self.input.at_is_letter = category == 11;
                return true;
            }
            let is_global = std::mem::take(&mut self.macros.is_global);
            self.registers.set(format!("{REGISTER}{byte}"), i64::from(category), is_global);
            self.set_categories();
        }
        true
    }

    /// Characters mean what registers say.
    pub(super) fn set_categories(&mut self) {
        let mut all = [USUAL; 128];
        let mut has_other = false;
        for byte in 0..128_u8 {
            if let Some(category) = self.registers.number_of(&format!("{REGISTER}{byte}"))
                && category != i64::from(usual(byte))
            {
                all[usize::from(byte)] = category as u8;
                has_other = true;
            }
        }
        self.input.categories = has_other.then(|| Box::new(Categories(all)));
    }
}

/// Whether a register is that of a category.
pub(super) fn is_category(register: &str) -> bool {
    register.starts_with(REGISTER)
}
