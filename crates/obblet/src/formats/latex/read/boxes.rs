//! Boxes: those that are kept for later, those that a document defines, and columns by tabs (the LaTeX documentation, "Boxes" and
//! "tabbing"; of tcolorbox and mdframed).

use super::Reader;
use super::arguments::{self, Argument};
use super::macros::filled;
use super::tokens::{Kind as Sign, Token};
use crate::document::Kind;
use std::rc::Rc;

/// A box that a document defines.
#[derive(Clone, Debug)]
pub(super) struct OwnBox {
    arguments: Rc<[Argument]>,
    /// Its keys with their values, where what it is given may stand.
    options: Rc<[Token]>,
    /// What counts such boxes.
    counter: Option<String>,
}

impl Reader<'_> {
    /// Commands that keep boxes, show them and define some. Whether a command is one of these.
    pub(super) fn box_command(&mut self, name: &str) -> bool {
        match name {
            "sbox" | "savebox" => {
                let kept = self.input.argument();
                if name == "savebox" {
                    self.skip_arguments("oo");
                }
                let content = self.input.argument();
                self.keep(&kept, content);
            }
            "usebox" | "copy" | "box" | "unhbox" | "unvbox" | "unhcopy" => {
                let kept = self.input.argument();
                // Boxes with numbers are not kept.
                if let Some(Sign::Command(name)) = kept.first().map(|token| &token.kind) {
                    let name = name.clone();
                    self.macros.expand(&name, self.at, &mut self.input);
                }
            }
            "setbox" => {
                let kept = self.input.argument();
                self.input.skip_white();
                // What it is set to begins with the sort of box.
                let mut content = Vec::new();
                for _ in 0..8 {
                    match self.input.next() {
                        Some(token) if token.kind == Sign::Begin => {
                            content = self.input.up_to_end();
                            break;
                        }
                        Some(Token { kind: Sign::Text(..) | Sign::Char(_) | Sign::Space | Sign::Command(_), .. }) => {}
                        Some(token) => {
                            self.input.made.push(token);
                            break;
                        }
                        None => break,
                    }
                }
                self.keep(&kept, content);
            }
            "newsavebox" => {
                let kept = self.input.argument();
                self.keep(&kept, Vec::new());
            }
            "newtcolorbox" | "renewtcolorbox" | "newmdenv" | "NewTColorBox" | "RenewTColorBox" | "ProvideTColorBox"
            | "DeclareTColorBox" => self.new_box(name),
            _ => return false,
        }
        true
    }

    fn keep(&mut self, kept: &[Token], content: Vec<Token>) {
        if let Some(Sign::Command(name)) = kept.iter().find(|token| token.kind.command().is_some()).map(|token| &token.kind) {
            self.macros.keep(name.clone(), content);
        }
    }

    /// Keeps what stands in an environment for later: up to its end, or that of an environment around it, which may hold both.
    pub(super) fn keep_environment(&mut self, name: &str) {
        let kept = self.input.argument();
        let mut content: Vec<Token> = Vec::new();
        let mut inside: Vec<String> = Vec::new();
        while let Some(token) = self.input.next() {
            let is_begin = token.kind.command() == Some("begin");
            if !is_begin && token.kind.command() != Some("end") {
                content.push(token);
                continue;
            }
            let at = token.at;
            let argument = self.input.argument();
            let said = self.input.characters(&argument);
            let group = |argument: Vec<Token>| {
                let brace = |kind| std::iter::once(Token { kind, at });
                brace(Sign::Begin).chain(argument).chain(brace(Sign::End)).collect::<Vec<_>>()
            };
            if is_begin {
                inside.push(said);
            } else if let Some(open) = inside.iter().rposition(|name| *name == said) {
                inside.truncate(open);
            } else if said == name {
                break;
            } else if self.environments.iter().any(|environment| environment.name == said) {
                self.input.push_all(group(argument).into_iter());
                self.input.made.push(token);
                break;
            }
            content.push(token);
            content.extend(group(argument));
        }
        self.keep(&kept, content);
    }

    /// `\newtcolorbox[options]{name}[number][default]{options}`, `\NewTColorBox[options]{name}{arguments}{options}`,
    /// `\newmdenv[options]{name}`
    fn new_box(&mut self, command: &str) {
        let first = self.input.option().unwrap_or_default();
        let name = self.input.argument();
        let name = self.input.characters(&name);
        let own = if command == "newmdenv" {
            OwnBox { arguments: Rc::from([]), options: first.into(), counter: None }
        } else {
            let counter = self.counter_of_boxes(&name, &first);
            let (arguments, options) = match command.ends_with("TColorBox") {
                true => (arguments::of_document_command(&mut self.input), self.input.argument().into()),
                false => arguments::signature(&mut self.input),
            };
            OwnBox { arguments, options, counter }
        };
        self.own.boxes.insert(name, own);
    }

    /// What counts the boxes of an environment, by the options that its definition begins with.
    fn counter_of_boxes(&mut self, name: &str, options: &[Token]) -> Option<String> {
        let words = self.input.characters(options);
        let keys = words.split(',').map(|part| part.split_once('=').unwrap_or((part, "")));
        let mut counter = None;
        for (key, value) in keys.map(|(key, value)| (key.trim(), value.trim())) {
            match key {
                "auto counter" => counter = Some(name.to_owned()),
                "use counter" => counter = Some(value.to_owned()),
                // That of other boxes.
                "use counter from" => {
                    counter =
                        self.own.boxes.get(value).and_then(|other| other.counter.clone()).or_else(|| Some(value.to_owned()));
                }
                "number within" => {
                    self.counters.put_within(name, value);
                    counter.get_or_insert_with(|| name.to_owned());
                }
                _ => {}
            }
        }
        counter
    }

    /// Takes the arguments of a box that the document defines, for its title, its number and its label.
    pub(super) fn begin_own_box(&mut self, own: &OwnBox, name: &str) {
        let at = self.at;
        let more = if own.arguments.is_empty() { self.input.option().unwrap_or_default() } else { Vec::new() };
        let mut given = Vec::new();
        for argument in &*own.arguments {
            arguments::take(argument, &mut self.input, at, name, &mut given);
        }
        if !self.macros.charge(own.options.len() + given.iter().map(Vec::len).sum::<usize>(), at) {
            return;
        }
        let options = filled(&own.options, &given);
        let value = |key: &str| {
            let said = self.input.value_of(&more, key);
            if said.is_empty() { self.input.value_of(&options, key) } else { said }
        };
        let mut title = value("title");
        if title.is_empty() {
            title = value("frametitle");
        }
        let label = value("label");
        if let Some(counter) = &own.counter {
            let number = self.counters.step(counter);
            let number = self.number_as_shown(counter, number);
            let node = self.holder();
            self.references.here(node, number.clone(), "");
            let number: Vec<Token> = number.chars().map(|c| Token { kind: Sign::Char(c), at }).collect();
            self.macros.keep("thetcbcounter".into(), number);
        }
        if !label.is_empty() {
            let label = self.input.characters(&label);
            self.label_of(label);
        }
        self.box_title(title);
    }

    /// The title of a box is a paragraph of its own.
    pub(super) fn box_title(&mut self, title: Vec<Token>) {
        if !title.is_empty() {
            self.input.push(Sign::Par, self.at);
            self.styled(Kind::Strong, title);
        }
    }

    /// Begins columns by tabs: a table whose cells they part.
    pub(super) fn begin_tabbing(&mut self) {
        let node = self.block(Kind::Table);
        self.table_of(node, Vec::new());
    }

    /// What commands mean between columns by tabs. Whether one means something else there.
    pub(super) fn tabbing_command(&mut self, name: &str) -> bool {
        if self.environments.last().is_none_or(|environment| environment.name != "tabbing") {
            return false;
        }
        match name {
            "=" | ">" | "'" | "`" => self.next_cell(),
            "<" | "+" | "-" | "pushtabs" | "poptabs" => {}
            "kill" => self.drop_row(),
            "a" => {
                // An accent, whose sign means something else here.
                let sign = self.input.argument();
                let name = self.input.characters(&sign);
                self.accent(&name);
            }
            _ => return false,
        }
        true
    }
}
