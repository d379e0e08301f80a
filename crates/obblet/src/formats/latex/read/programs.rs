//! Lists, numbers and tests that documents keep and ask for, and environments that know what they hold (the documentation of etoolbox
//! and environ).

use super::Reader;
use super::token_lists::made;
use super::tokens::{Input, Kind as Sign, Token};

/// Tests stand no deeper in parentheses.
const DEEPEST: usize = 20;

impl Reader<'_> {
    /// Commands that keep lists and numbers, and that do something as long as a test holds. Whether a command is one.
    pub(super) fn program_command(&mut self, name: &str) -> bool {
        match name {
            "listadd" | "listgadd" | "listeadd" | "listxadd" => {
                let Some(list) = super::macros::name(&mut self.input) else { return true };
                let item = self.input.argument();
                self.add_to_list(name, &list, item);
            }
            "listcsadd" | "listcsgadd" | "listcseadd" | "listcsxadd" => {
                let list = self.input.argument_characters().into_owned();
                let item = self.input.argument();
                self.add_to_list(&name.replace("cs", ""), &list, item);
            }
            "numdef" | "numgdef" | "csnumdef" | "csnumgdef" => {
                let defined = if name.starts_with("cs") {
                    Some(self.input.argument_characters().into())
                } else {
                    super::macros::name(&mut self.input)
                };
                let value = self.input.argument();
                let Some(defined) = defined else { return true };
                let value = self.within(&value, |reader| reader.expression(super::registers::Sort::Number, 0)).unwrap_or(0);
                self.macros.is_global |= name.contains('g');
                self.macros.keep(defined, made(&value.to_string(), self.at));
            }
            "whileboolexpr" => {
                let (test, body) = (self.input.argument(), self.input.argument());
                if self.macros.charge(body.len() + test.len() + 5, self.at) && self.expression_holds(&test) {
                    self.input.push_command("whileboolexpr", vec![test, body.clone()], self.at);
                    self.input.push_all(body.into_iter());
                }
            }
            _ => return false,
        }
        true
    }

    /// Adds an item to a list, whose items stand between commas in braces.
    fn add_to_list(&mut self, how: &str, list: &str, item: Vec<Token>) {
        let item = if matches!(how, "listeadd" | "listxadd") { self.written_out(&item) } else { item };
        let mut tokens = made("{", self.at);
        tokens.extend(item);
        tokens.extend(made("},", self.at));
        self.macros.is_global |= matches!(how, "listgadd" | "listxadd");
        self.macros.add_to(list, tokens, false);
    }

    /// What a test says of lists and of commands by their names, and whether an expression of tests holds; nothing where it is none.
    pub(super) fn asked(&mut self, name: &str) -> Option<bool> {
        Some(match name {
            "ifboolexpr" => {
                let test = self.input.argument();
                self.expression_holds(&test)
            }
            "ifinlist" => {
                let (item, list) = (self.input.argument(), self.input.argument());
                let item = self.words(&item);
                let list = self.written_out(&list);
                let mut items = self.input.split(&list, ',');
                items.pop();
                items.iter().any(|known| self.words(known) == item)
            }
            "ifcsempty" | "ifcsvoid" => {
                let key = self.input.argument_characters().into_owned();
                let is_empty = self.macros.body(&key).map(|body| body.is_empty());
                is_empty.unwrap_or(name == "ifcsvoid")
            }
            "ifdefvoid" => {
                let tested = self.input.argument();
                let body = tested.first().and_then(|token| token.kind.command()).and_then(|name| self.macros.body(name));
                body.is_none_or(|body| body.is_empty())
            }
            "ifcsstring" => {
                let (key, words) = (self.input.argument_characters().into_owned(), self.input.argument());
                let body = self.macros.body(&key).unwrap_or_else(|| std::rc::Rc::from([]));
                self.words(&body) == self.words(&words)
            }
            _ => return None,
        })
    }

    /// Whether tests that are joined hold, from left to right: `bool {a} and not (togl {b} or test {\ifblank{}})`.
    pub(super) fn expression_holds(&mut self, tokens: &[Token]) -> bool {
        let mut inner = Input::of_tokens(self.input.source, tokens.iter().cloned());
        // A name alone is that of a switch.
        let words = self.input.characters(tokens);
        if words.chars().all(|c| c.is_alphanumeric() || c == '@') {
            return self.switch_of(&words).unwrap_or(false);
        }
        self.expression_of(&mut inner, 0)
    }

    fn expression_of(&mut self, inner: &mut Input<'_>, depth: usize) -> bool {
        let (mut holds, mut joins_all, mut is_negated) = (None, true, false);
        loop {
            inner.skip_white();
            let Some(token) = inner.single() else { break };
            let one = match inner.character_of(&token) {
                Some(')') => break,
                Some('(') if depth < DEEPEST => self.expression_of(inner, depth + 1),
                Some(first) if first.is_alphabetic() => {
                    let mut word = String::from(first);
                    while let Some(token) = inner.single() {
                        match inner.character_of(&token).filter(|c| c.is_alphabetic()) {
                            Some(c) => word.push(c),
                            None => {
                                inner.made.push(token);
                                break;
                            }
                        }
                    }
                    match word.as_str() {
                        "not" => {
                            is_negated = !is_negated;
                            continue;
                        }
                        "and" | "or" => {
                            joins_all = word == "and";
                            continue;
                        }
                        _ => {
                            let tested = inner.argument();
                            self.single_expression(&word, tested)
                        }
                    }
                }
                _ => continue,
            };
            let one = one != std::mem::take(&mut is_negated);
            holds = Some(match holds {
                None => one,
                Some(known) if joins_all => known && one,
                Some(known) => known || one,
            });
        }
        holds.unwrap_or(false)
    }

    fn single_expression(&mut self, sort: &str, mut tested: Vec<Token>) -> bool {
        match sort {
            "test" => {
                tested.extend(made("{1}{0}", self.at));
                self.nested(|reader| {
                    reader.within(&tested, |reader| {
                        let token = reader.expanded()?;
                        reader.input.character_of(&token)
                    })
                }) == Some('1')
            }
            "togl" => {
                let key = self.input.characters(&tested);
                self.switch_of(&format!("{}{key}", super::conditionals::TOGGLE)).unwrap_or(false)
            }
            _ => {
                let key = self.input.characters(&tested);
                self.switch_of(&key).unwrap_or(false)
            }
        }
    }
}

/// Stands for what an environment holds.
pub(super) const BODY: &str = "BODY";

/// Puts a parameter in the place of what an environment holds.
pub(super) fn with_body(tokens: &[Token], number: u8) -> Vec<Token> {
    let parameter = |token: &Token| match token.kind.command() {
        Some(BODY) => Token { kind: Sign::Parameter(number, 0), at: token.at },
        _ => token.clone(),
    };
    tokens.iter().map(parameter).collect()
}
