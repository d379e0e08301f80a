//! Boxes: those that are kept for later, those that a document defines, and columns by tabs (the LaTeX documentation, "Boxes" and
//! "tabbing"; of tcolorbox and mdframed).

use super::Reader;
use super::tokens::{Kind as Sign, Token};
use crate::document::Kind;

/// A box that a document defines.
#[derive(Clone, Copy, Debug, Default)]
pub(super) struct OwnBox {
    /// How many arguments it takes, and whether the first of them may stand in brackets.
    arguments: usize,
    has_option: bool,
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
            "newtcolorbox" | "NewTColorBox" | "newmdenv" | "renewtcolorbox" => {
                self.input.option();
                let environment = self.input.argument();
                let environment = self.input.characters(&environment);
                let mut own = OwnBox::default();
                if name.ends_with("box") || name.ends_with("Box") {
                    let given = self.input.option();
                    own.arguments = given.and_then(|given| self.input.characters(&given).parse().ok()).unwrap_or(0).min(9);
                    own.has_option = self.input.option().is_some();
                    self.input.argument();
                }
                self.own.boxes.insert(environment, own);
            }
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

    /// Takes the arguments of a box that the document defines; its title, where the first one is text.
    pub(super) fn begin_own_box(&mut self, own: OwnBox) {
        self.input.option();
        if own.has_option {
            self.input.option();
        }
        let given = own.arguments.saturating_sub(usize::from(own.has_option));
        let mut title = Vec::new();
        for at in 0..given {
            let argument = self.input.argument();
            if at == 0 {
                title = argument;
            }
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
