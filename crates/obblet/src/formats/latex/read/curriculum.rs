//! Courses of life (the documentation of moderncv): who it is about, and entries that are terms with what is said of them.

use super::Reader;
use super::tokens::{Kind as Sign, Token};
use crate::document::{Kind, ListKind, Marker};

/// What the preamble says of a person.
#[derive(Debug, Default)]
pub(super) struct Person {
    name: Vec<Token>,
    /// Lines below the name.
    contacts: Vec<Vec<Token>>,
    quote: Vec<Token>,
}

const ITEMS: ListKind = ListKind { ordered: false, tight: true, marker: Marker::Plain, start: 1 };

/// A person has no more lines.
const MOST_CONTACTS: usize = 100;

impl Reader<'_> {
    /// Commands of the class. Whether a command is one.
    pub(super) fn curriculum_command(&mut self, name: &str) -> bool {
        if self.front.class != "moderncv" {
            return false;
        }
        match name {
            "name" => {
                let (first, last) = (self.input.argument(), self.input.argument());
                self.own.person.name = self.joined(vec![first, last], " ");
            }
            "firstname" | "familyname" | "lastname" => {
                let part = self.input.argument();
                let known = std::mem::take(&mut self.own.person.name);
                let parts = if name == "firstname" { vec![part, known] } else { vec![known, part] };
                self.own.person.name = self.joined(parts, " ");
            }
            "address" => {
                let parts: Vec<Vec<Token>> =
                    (0..3).map_while(|_| self.input.takes_begin().then(|| self.input.up_to_end())).collect();
                let line = self.joined(parts, ", ");
                self.add_contact(line);
            }
            "phone" | "mobile" | "fax" | "extrainfo" | "born" => {
                self.input.option();
                let line = self.input.argument();
                self.add_contact(line);
            }
            "email" | "homepage" => {
                self.input.option();
                let words = self.input.argument();
                let address = self.input.characters(&words);
                let scheme = if name == "email" { "mailto:" } else { "https://" };
                let scheme = if address.contains("://") { "" } else { scheme };
                let line = self.command_with("href", vec![self.characters_as_tokens(&format!("{scheme}{address}")), words]);
                self.add_contact(line);
            }
            "social" => {
                let place = self.input.option().unwrap_or_default();
                let who = self.input.argument();
                let line = self.joined(vec![place, who], ": ");
                self.add_contact(line);
            }
            "photo" => {
                self.skip_arguments("oo");
                let file = self.input.argument();
                let line = self.command_with("includegraphics", vec![file]);
                self.add_contact(line);
            }
            "quote" => self.own.person.quote = self.input.argument(),
            "makecvtitle" | "maketitle" | "makecvhead" => self.put_person(),
            "moderncvstyle" | "moderncvcolor" | "moderncvtheme" | "moderncvicons" | "nopagenumbers" => {
                self.input.option();
                if name != "nopagenumbers" {
                    self.input.argument();
                }
            }
            "recipient" => {
                let (who, place) = (self.input.argument(), self.input.argument());
                let lines = self.joined(vec![who, place], "\n");
                self.input.push(Sign::Par, self.at);
                self.input.push_all(lines.into_iter());
            }
            _ => return self.curriculum_entry(name),
        }
        true
    }

    /// An entry with what stands before it and what is said. Whether a command is one.
    fn curriculum_entry(&mut self, name: &str) -> bool {
        let count = match name {
            "cvlistitem" => 1,
            "cvitem" | "cvline" | "cvcolumn" | "cvlistdoubleitem" => 2,
            "cvitemwithcomment" | "cvlanguage" => 3,
            "cvdoubleitem" | "cvcomputer" => 4,
            "cventry" => 6,
            _ => return false,
        };
        self.input.option();
        let mut parts: Vec<Vec<Token>> = (0..count).map(|_| self.input.argument()).collect();
        match name {
            "cvlistitem" | "cvlistdoubleitem" => self.add_items(parts),
            "cvdoubleitem" | "cvcomputer" => {
                let second = parts.split_off(2);
                for pair in [second, parts] {
                    self.input.push_command("cvitem", pair, self.at);
                }
            }
            _ => self.add_term(parts),
        }
        true
    }

    /// What stands before an entry is a term, and the rest says more of it: the first of three and more is strong, the last of six
    /// stands below.
    fn add_term(&mut self, parts: Vec<Vec<Token>>) {
        let mut parts = parts.into_iter();
        let term = parts.next().unwrap_or_default();
        let mut rest: Vec<Vec<Token>> = parts.collect();
        let last = if rest.len() == 5 { rest.pop() } else { None };
        if rest.len() > 2 {
            for (part, command) in rest.iter_mut().zip(["textbf", "emph"]) {
                if !part.is_empty() {
                    *part = self.command_with(command, vec![std::mem::take(part)]);
                }
            }
        }
        let mut words = self.joined(rest, ", ");
        if let Some(last) = last.filter(|last| !last.is_empty()) {
            words.push(Token { kind: Sign::Par, at: self.at });
            words.extend(last);
        }
        let [named, description] = self.entry_of_terms();
        let is_line = !words.iter().any(|token| token.kind == Sign::Par || token.kind.command() == Some("begin"));
        self.read_into(description, is_line, words);
        self.read_into(named, true, term);
    }

    fn add_items(&mut self, items: Vec<Vec<Token>>) {
        self.end_paragraph();
        let holder = self.holder();
        let known = self.doc.node(holder).last_child().filter(|&last| self.doc.kind(last) == Kind::List(ITEMS));
        let list = known.unwrap_or_else(|| self.block(Kind::List(ITEMS)));
        let nodes: Vec<_> = items.iter().map(|_| self.doc.append_at(list, Kind::ListItem { checked: None }, self.at)).collect();
        for (node, item) in nodes.into_iter().zip(items).rev() {
            self.read_into(node, false, item);
        }
    }

    /// The name is the title; what the document is called stands below, with the lines and the motto.
    fn put_person(&mut self) {
        let person = std::mem::take(&mut self.own.person);
        if person.name.is_empty() {
            return self.put_title();
        }
        let lines = self.joined(person.contacts, "\n");
        let par = Token { kind: Sign::Par, at: self.at };
        self.input.push_all([vec![par.clone()], lines, vec![par.clone()], person.quote, vec![par]].concat().into_iter());
        let title = self.words(&person.name);
        self.front.put_above(person.name, title);
        self.put_title();
    }

    fn add_contact(&mut self, line: Vec<Token>) {
        if self.own.person.contacts.len() < MOST_CONTACTS {
            self.own.person.contacts.push(line);
        }
    }

    fn characters_as_tokens(&self, text: &str) -> Vec<Token> {
        text.chars().map(|c| Token { kind: if c == ' ' { Sign::Space } else { Sign::Char(c) }, at: self.at }).collect()
    }

    /// Parts that are not empty, with something between them; a line end parts lines.
    fn joined(&self, parts: Vec<Vec<Token>>, between: &str) -> Vec<Token> {
        let between = match between {
            "\n" => vec![Token { kind: Sign::Command("\\".into()), at: self.at }],
            between => self.characters_as_tokens(between),
        };
        let is_filled = |part: &Vec<Token>| part.iter().any(|token| !matches!(token.kind, Sign::Space | Sign::Par));
        parts.into_iter().filter(is_filled).collect::<Vec<_>>().join(&between[..])
    }

    fn command_with(&self, command: &str, arguments: Vec<Vec<Token>>) -> Vec<Token> {
        let token = |kind: Sign| Token { kind, at: self.at };
        let mut out = vec![token(Sign::Command(command.into()))];
        for argument in arguments {
            out.push(token(Sign::Begin));
            out.extend(argument);
            out.push(token(Sign::End));
        }
        out
    }
}
