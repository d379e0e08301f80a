//! Commands that are made of text, and counters that are shown (The TeXbook, chapters 7 and 20; the LaTeX documentation, "Counters").

use super::Reader;
use super::tokens::{Kind as Sign, Token};

impl Reader<'_> {
    /// Names of commands that are made of text, and what comes before others is read (The TeXbook, chapters 7 and 20).
    pub(super) fn made_command(&mut self, name: &str) -> bool {
        match name {
            "csname" | "@nameuse" => {
                let name = if name == "csname" {
                    self.name_up_to_end()
                } else {
                    let words = self.input.argument();
                    self.words(&words)
                };
                // Without a meaning, it does nothing.
                if self.macros.knows(&name) || super::vocabulary::is_known(&name) {
                    self.input.push(Sign::Command(name.as_str().into()), self.at);
                }
            }
            "endcsname" => {}
            "expandafter" => {
                let (Some(first), Some(second)) = (self.input.next(), self.input.next()) else { return true };
                match second.kind.command() {
                    Some("csname") => {
                        let name = self.name_up_to_end();
                        self.input.push(Sign::Command(name.as_str().into()), second.at);
                    }
                    // The name of what follows, in characters.
                    Some("string") => match self.input.next() {
                        Some(Token { kind: Sign::Command(name), at }) => {
                            let characters = std::iter::once('\\').chain(name.chars()).map(|c| Token { kind: Sign::Char(c), at });
                            self.input.push_all(characters.collect::<Vec<_>>().into_iter());
                        }
                        Some(token) => self.input.made.push(token),
                        None => {}
                    },
                    Some("expandafter") => self.input.made.push(second),
                    Some(name) if self.macros.knows(name) => {
                        let name = name.to_owned();
                        self.macros.expand(&name, second.at, &mut self.input);
                    }
                    _ => self.input.made.push(second),
                }
                self.input.made.push(first);
            }
            "@namedef" | "namedef" => {
                let words = self.input.argument();
                let name = self.words(&words);
                self.input.push(Sign::Command(name.as_str().into()), self.at);
                self.macros.define("def", &mut self.input);
            }
            "csdef" | "csgdef" | "csletcs" => {
                let words = self.input.argument();
                let name = self.words(&words);
                self.input.push(Sign::Command(name.as_str().into()), self.at);
                self.macros.define("def", &mut self.input);
            }
            "@gobble" => drop(self.input.argument()),
            "@gobbletwo" => self.skip_arguments("mm"),
            "@firstoftwo" => {
                let (first, _) = (self.input.argument(), self.input.argument());
                self.input.push_all(first.into_iter());
            }
            "@secondoftwo" => drop(self.input.argument()),
            "ExplSyntaxOn" => {
                if self.input.made.is_empty()
                    && !self.own.endless.contains(name)
                    && let Some(length) = memchr::memmem::find(&self.input.source.as_bytes()[self.input.at..], b"\\ExplSyntaxOff")
                {
                    self.input.at += length;
                } else {
                    self.own.endless.insert(name.to_owned());
                }
            }
            "ExplSyntaxOff" => {}
            _ => return false,
        }
        true
    }

    /// The name up to `\endcsname`.
    pub(super) fn name_up_to_end(&mut self) -> String {
        let mut tokens = Vec::new();
        while let Some(token) = self.input.next() {
            if token.kind.command() == Some("endcsname") {
                return self.words(&tokens);
            }
            let is_name = tokens.len() < 200 && !matches!(token.kind, Sign::Par | Sign::Begin | Sign::End | Sign::Then(_));
            tokens.push(token);
            if !is_name {
                break;
            }
        }
        // Without its end, it is text.
        self.input.push_all(tokens.into_iter());
        String::new()
    }

    /// A counter as a number, in letters, or with what stands before it. Whether a command shows one.
    pub(super) fn counter_shown(&mut self, name: &str) -> bool {
        use crate::document::Marker;
        let marker = match name {
            "arabic" | "value" => Marker::Plain,
            "alph" => Marker::LowerAlpha,
            "Alph" => Marker::UpperAlpha,
            "roman" => Marker::LowerRoman,
            "Roman" => Marker::UpperRoman,
            _ => {
                let Some(counter) = name.strip_prefix("the").filter(|counter| self.counters.has(counter)) else { return false };
                let number = self.counters.number(counter);
                self.text(&number);
                return true;
            }
        };
        let counter = self.input.argument();
        let counter = self.input.characters(&counter);
        let shown = crate::numeral::numeral(self.counters.get(&counter), marker);
        self.text(&shown);
        true
    }
}
