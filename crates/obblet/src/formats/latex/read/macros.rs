//! Commands and environments that a document defines, and what they come to (The TeXbook, chapter 20; the LaTeX documentation of
//! `\newcommand`, `\newenvironment` and of document commands).

use super::super::own_commands;
use super::arguments::{self, Argument};
use super::registers;
use super::tokens::{BUILT_IN, Input, Kind, Token};
use crate::fast_hash::HashMap;
use std::rc::Rc;

/// All expansions of a document together take no more steps and make no more tokens than these, and more for each of its bytes.
const MOST_STEPS: usize = 1 << 16;
const MOST_TOKENS: usize = 1 << 17;
const TOKENS_OF_A_BYTE: usize = 8;

/// A command that a document defines.
#[derive(Clone, Debug)]
pub(super) struct Macro {
    arguments: Rc<[Argument]>,
    body: Rc<[Token]>,
    has_parameters: bool,
}

impl Macro {
    fn new(arguments: Rc<[Argument]>, body: Rc<[Token]>) -> Self {
        let has_parameters = body.iter().any(|token| matches!(token.kind, Kind::Parameter(..)));
        Self { arguments, body, has_parameters }
    }

    fn of_tokens(body: impl Into<Rc<[Token]>>) -> Self {
        Self::new(Rc::from([]), body.into())
    }
}

/// A body with what it was given.
pub(super) fn filled(body: &[Token], given: &[Vec<Token>]) -> Vec<Token> {
    let mut out = Vec::with_capacity(body.len());
    for token in body {
        match token.kind {
            Kind::Parameter(number, 0) => out.extend(given.get(usize::from(number) - 1).into_iter().flatten().cloned()),
            Kind::Parameter(number, more) => out.push(Token { kind: Kind::Parameter(number, more - 1), at: token.at }),
            _ => out.push(token.clone()),
        }
    }
    out
}

/// Everything that a document defines.
#[derive(Debug, Default)]
pub(super) struct Macros {
    commands: HashMap<Rc<str>, Macro>,
    /// What environments begin with, and what they end with.
    environments: HashMap<Rc<str>, (Macro, Rc<[Token]>)>,
    steps: usize,
    made: usize,
    /// How long the source is.
    length: usize,
    /// Where too much was asked for, first.
    pub(super) exceeded: Option<u32>,
    /// Commands and environments that mean what Obblet's own documents define them to mean.
    own: HashMap<Rc<str>, Own>,
    /// What commands meant before groups that are open, to be restored where these end.
    saved: Vec<Saved>,
    /// What was defined for all groups, and how many definitions came before.
    for_all: HashMap<Rc<str>, usize>,
    defined: usize,
    /// Whether the next definition holds for all groups.
    pub(super) is_global: bool,
    /// Whether a document says how numbers are shown.
    pub(super) shows_numbers: bool,
    /// Where packages stand that the document takes in.
    pub(super) packages: Vec<std::ops::Range<u32>>,
    /// Whether a package defines something: what the format has keeps its meaning, since packages only say how that looks.
    in_package: bool,
}

/// What a command meant before a definition within a group.
#[derive(Debug)]
struct Saved {
    name: Rc<str>,
    meaning: Option<Macro>,
    /// How many definitions came before.
    number: usize,
}

/// What a command or an environment of Obblet's own documents is.
#[derive(Clone, Copy, Debug)]
pub(super) enum Own {
    Text(crate::document::Kind),
    RowHeading,
    Abbreviation,
    Details,
    /// The lines of an algorithm.
    Lines,
    /// Words of two languages.
    InterlinearGloss,
    Part(crate::document::DivisionKind),
}

type Tokens = Rc<[Token]>;

impl Macros {
    pub(super) fn of(source: &str) -> Self {
        Self { length: source.len(), ..Self::default() }
    }

    const fn most_tokens(&self) -> usize {
        MOST_TOKENS + self.length * TOKENS_OF_A_BYTE
    }

    pub(super) fn knows(&self, name: &str) -> bool {
        self.commands.contains_key(name)
    }

    pub(super) fn knows_environment(&self, name: &str) -> bool {
        self.environments.contains_key(name)
    }

    /// Puts what a command stands for before the rest of the input. Whether it is one of the document's.
    pub(super) fn expand(&mut self, name: &str, at: u32, input: &mut Input<'_>) -> bool {
        if self.commands.is_empty() {
            return false;
        }
        let Some(known) = self.commands.get(name).cloned() else { return false };
        self.apply(&known, at, input);
        true
    }

    /// Puts what an environment begins with before the rest of the input. Gives what it ends with.
    pub(super) fn begin(&mut self, name: &str, at: u32, input: &mut Input<'_>) -> Option<Rc<[Token]>> {
        let (begin, end) = self.environments.get(name).cloned()?;
        let given = self.apply_in(&begin, at, input, name);
        // What environments end with may show what they were given.
        let shows = end.iter().any(|token| matches!(token.kind, Kind::Parameter(_, 0)));
        if shows && self.charge(end.len() + given.iter().map(Vec::len).sum::<usize>(), at) {
            return Some(filled(&end, &given).into());
        }
        Some(end)
    }

    /// Counts a step that makes tokens. Whether there may be more.
    pub(super) fn charge(&mut self, tokens: usize, at: u32) -> bool {
        self.steps += 1;
        self.make(tokens, at)
    }

    /// Counts tokens that are made. Whether there may be more.
    pub(super) fn make(&mut self, tokens: usize, at: u32) -> bool {
        self.made = self.made.saturating_add(tokens);
        let may = self.steps <= MOST_STEPS + self.length && self.made <= self.most_tokens();
        if !may {
            self.exceeded.get_or_insert(at);
        }
        may
    }

    fn apply(&mut self, known: &Macro, at: u32, input: &mut Input<'_>) {
        self.apply_in(known, at, input, "");
    }

    fn apply_in(&mut self, known: &Macro, at: u32, input: &mut Input<'_>, environment: &str) -> Vec<Vec<Token>> {
        self.steps += 1;
        if self.steps > MOST_STEPS + self.length || self.made > self.most_tokens() {
            self.exceeded.get_or_insert(at);
            return Vec::new();
        }
        if known.arguments.is_empty() && !known.has_parameters {
            if self.made + known.body.len() > self.most_tokens() {
                self.exceeded.get_or_insert(at);
                return Vec::new();
            }
            self.made += known.body.len();
            input.push_all(known.body.iter().cloned());
            return Vec::new();
        }
        let mut given: Vec<Vec<Token>> = Vec::with_capacity(known.arguments.len());
        for argument in &*known.arguments {
            arguments::take(argument, input, at, environment, &mut given);
        }
        let mut length = known.body.len();
        for token in &*known.body {
            if let Kind::Parameter(number, 0) = token.kind {
                length += given.get(usize::from(number) - 1).map_or(0, Vec::len);
            }
        }
        if self.made + length > self.most_tokens() {
            self.exceeded.get_or_insert(at);
            return Vec::new();
        }
        self.made += length;
        // The last is read first.
        input.made.reserve(length);
        for token in known.body.iter().rev() {
            match token.kind {
                Kind::Parameter(number, 0) => {
                    let value = given.get(usize::from(number) - 1).into_iter().flatten();
                    input.made.extend(value.rev().cloned());
                }
                Kind::Parameter(number, more) => input.push(Kind::Parameter(number, more - 1), token.at),
                _ => input.made.push(token.clone()),
            }
        }
        given
    }

    /// Gives a command a meaning, or takes it away: for all groups where that was said, or to the end of the group.
    fn set(&mut self, name: Rc<str>, meaning: Option<Macro>, is_global: bool) {
        if self.in_package && super::vocabulary::is_of_format(&name) {
            self.is_global = false;
            return;
        }
        self.defined += 1;
        self.shows_numbers |= ["the", "p@", "label"].iter().any(|start| name.starts_with(start));
        if is_global || self.is_global {
            self.for_all.insert(name.clone(), self.defined);
            self.is_global = false;
        }
        let before = match meaning {
            Some(meaning) => self.commands.insert(name.clone(), meaning),
            None => self.commands.remove(&name),
        };
        self.saved.push(Saved { name, meaning: before, number: self.defined });
    }

    /// Notes where a definition stands.
    pub(super) fn defines_at(&mut self, at: u32) {
        self.in_package = self.packages.iter().any(|package| package.contains(&at));
    }

    fn define_environment(&mut self, name: Rc<str>, begin: Macro, end: Rc<[Token]>) {
        if !(self.in_package && super::environment_names::is_of_format(&name)) {
            self.environments.insert(name, (begin, end));
        }
    }

    /// How many definitions there are to restore.
    pub(super) const fn mark(&self) -> usize {
        self.saved.len()
    }

    /// Where a group ends, commands mean what they meant before it.
    pub(super) fn restore(&mut self, mark: usize) {
        for Saved { name, meaning, number } in self.saved.drain(mark.min(self.saved.len())..).rev() {
            if self.for_all.get(&name).is_some_and(|global| *global >= number) {
                continue;
            }
            match meaning {
                Some(meaning) => self.commands.insert(name, meaning),
                None => self.commands.remove(&name),
            };
        }
    }

    /// What a command was let be that the document does not define.
    pub(super) fn meaning<'n>(&'n self, name: &'n str) -> &'n str {
        match self.commands.get(name).map(|known| &*known.body) {
            Some([Token { kind: Kind::Command(other), .. }]) if other.starts_with(BUILT_IN) => &other[BUILT_IN.len_utf8()..],
            _ => name,
        }
    }

    /// The token that a command was let be, or that is all it stands for.
    pub(super) fn only_token(&self, name: &str) -> Option<&Token> {
        match self.commands.get(name).map(|known| &*known.body) {
            Some([token]) => Some(token),
            _ => None,
        }
    }

    /// What a command stands for.
    pub(super) fn body(&self, name: &str) -> Option<Tokens> {
        self.commands.get(name).map(|known| known.body.clone())
    }

    /// Adds tokens to what a command stands for.
    pub(super) fn add_to(&mut self, name: &str, tokens: Vec<Token>, in_front: bool) {
        let known = self.commands.get(name).cloned();
        let (arguments, body) = known.map_or_else(|| (Rc::from([]), Rc::from([])), |known| (known.arguments, known.body));
        let at = tokens.first().map_or(0, |token| token.at);
        if !self.charge(body.len() + tokens.len(), at) {
            return;
        }
        let (first, last) = if in_front { (&tokens[..], &body[..]) } else { (&body[..], &tokens[..]) };
        let body: Vec<Token> = first.iter().chain(last).cloned().collect();
        self.set(name.into(), Some(Macro::new(arguments, body.into())), false);
    }

    /// Takes a definition whose command has been read. Whether the command defines something.
    pub(super) fn define(&mut self, command: &str, input: &mut Input<'_>) -> bool {
        match command {
            "newcommand"
            | "renewcommand"
            | "providecommand"
            | "DeclareRobustCommand"
            | "newrobustcmd"
            | "renewrobustcmd"
            | "providerobustcmd"
            | "newcommandx"
            | "renewcommandx"
            | "providecommandx" => {
                input.take('*');
                let Some(name) = name(input) else { return true };
                let (arguments, body) =
                    if command.ends_with('x') { arguments::signature_with_keys(input) } else { arguments::signature(input) };
                if &*name == "includegraphics" {
                    // A picture stays one, whatever is done about those that are missing.
                } else if let Some(own) = own_command(&name, &arguments, &body, input) {
                    self.own.insert(name, own);
                } else if !command.starts_with("provide") || !self.knows(&name) {
                    self.set(name, Some(Macro::new(arguments, body)), false);
                }
            }
            "def" | "gdef" => {
                let Some(name) = name(input) else { return true };
                let arguments = arguments::pattern(input);
                let body = input.up_to_end();
                self.set(name, Some(Macro::new(arguments, body.into())), command == "gdef");
            }
            "newlength" | "newdimen" | "newskip" | "newmuskip" | "newcount" | "newtoks" => {
                let Some(name) = name(input) else { return true };
                let token = Token { kind: registers::command(command, &name), at: input.place() };
                self.set(name, Some(Macro::of_tokens([token])), true);
            }
            "let" => {
                let Some(name) = name(input) else { return true };
                input.skip_white();
                let mut token = input.single();
                if token.as_ref().and_then(|token| input.character_of(token)) == Some('=') {
                    input.skip_white();
                    token = input.single();
                }
                self.give(name, token);
            }
            "DeclareMathOperator" => self.define_operator(input),
            "DeclareTextFontCommand" => {
                let Some(name) = name(input) else { return true };
                let at = input.place();
                let mut body = input.argument();
                body.push(Token { kind: Kind::Parameter(1, 0), at });
                body.insert(0, Token { kind: Kind::Begin, at });
                body.push(Token { kind: Kind::End, at });
                self.set(name, Some(Macro::new(Rc::from([Argument::Mandatory]), body.into())), true);
            }
            "newenvironment" | "renewenvironment" => {
                input.take('*');
                let name = input.argument();
                let name: Rc<str> = input.characters(&name).into();
                let (arguments, body) = arguments::signature(input);
                let end: Rc<[Token]> = input.argument().into();
                if let Some(own) = own_environment(&name, &body, &end, input) {
                    self.own.insert(name, own);
                    return true;
                }
                self.define_environment(name, Macro::new(arguments, body), end);
            }
            "NewEnviron" | "RenewEnviron" => {
                let name = input.argument();
                let name: Rc<str> = input.characters(&name).into();
                let (arguments, body) = arguments::signature(input);
                let end = input.option().unwrap_or_default();
                let mut arguments = arguments.to_vec();
                arguments.push(Argument::Body);
                let body = super::programs::with_body(&body, arguments.len() as u8);
                self.define_environment(name, Macro::new(arguments.into(), body.into()), end.into());
            }
            _ => return self.define_document_command(command, input),
        }
        true
    }

    /// Takes a definition of a document command or environment. Whether the command defines one.
    fn define_document_command(&mut self, command: &str, input: &mut Input<'_>) -> bool {
        let Some((how, what)) = command.split_once("Document") else { return false };
        let is_how = ["New", "Renew", "Provide", "Declare"]
            .iter()
            .any(|known| how.strip_prefix(known).is_some_and(|rest| rest.is_empty() || rest == "Expandable"));
        match what {
            "Command" if is_how => {
                let Some(name) = name(input) else { return true };
                let arguments = arguments::of_document_command(input);
                let body = input.argument().into();
                if &*name != "includegraphics" && !(how.starts_with("Provide") && self.knows(&name)) {
                    self.set(name, Some(Macro::new(arguments, body)), false);
                }
            }
            "Environment" if is_how => {
                let name = input.argument();
                let name: Rc<str> = input.characters(&name).into();
                let arguments = arguments::of_document_command(input);
                let body = input.argument().into();
                let end = input.argument().into();
                self.define_environment(name, Macro::new(arguments, body), end);
            }
            _ => return false,
        }
        true
    }

    /// Gives a command arguments and what it stands for.
    pub(super) fn define_as(&mut self, name: Rc<str>, arguments: Rc<[Argument]>, body: Vec<Token>, is_global: bool) {
        self.set(name, Some(Macro::new(arguments, body.into())), is_global);
    }

    /// `\DeclareMathOperator{\name}{words}`
    fn define_operator(&mut self, input: &mut Input<'_>) {
        let star = if input.take('*') { "*" } else { "" };
        let Some(name) = name(input) else { return };
        let at = input.place();
        let mut body = vec![Token { kind: Kind::Command(format!("operatorname{star}").into()), at }];
        body.push(Token { kind: Kind::Begin, at });
        body.extend(input.argument());
        body.push(Token { kind: Kind::End, at });
        self.set(name, Some(Macro::of_tokens(body)), false);
    }

    /// What a command or an environment of Obblet's own documents is.
    pub(super) fn own(&self, name: &str) -> Option<Own> {
        if self.own.is_empty() { None } else { self.own.get(name).copied() }
    }

    /// Whether a command is defined by others that people write in documents: not by what makes boxes, nor by inner commands.
    pub(super) fn is_plain(&self, name: &str) -> bool {
        let is_inner = |token: &Token| {
            token.kind.command().is_some_and(|name| {
                name.contains('@')
                    || matches!(name, "bgroup" | "egroup" | "hbox" | "vbox" | "vtop" | "vcenter" | "setbox" | "halign")
            })
        };
        self.commands.get(name).is_some_and(|known| !known.body.iter().any(is_inner))
    }

    /// Lets a command stand for tokens.
    pub(super) fn keep(&mut self, name: Rc<str>, body: Vec<Token>) {
        self.set(name, Some(Macro::of_tokens(body)), false);
    }

    /// Whether two commands are defined to be the same.
    pub(super) fn means_same(&self, one: &str, other: &str, input: &Input<'_>) -> bool {
        let body = |name: &str| self.commands.get(name).map(|known| (known.arguments.len(), &known.body));
        let is_empty = |name: &str| matches!(name, "@empty" | "empty") || body(name).is_some_and(|(_, body)| body.is_empty());
        match (body(one), body(other)) {
            (Some((arguments, one)), Some((others, other))) => {
                arguments == others && one.len() == other.len() && written(one, input) == written(other, input)
            }
            _ => is_empty(one) && is_empty(other),
        }
    }

    /// What an environment begins and ends with, where it takes no argument.
    pub(super) fn environment(&self, name: &str) -> Option<(Tokens, Tokens)> {
        let (begin, end) = self.environments.get(name).filter(|(begin, _)| begin.arguments.is_empty())?;
        Some((begin.body.clone(), end.clone()))
    }

    /// Gives a command another name.
    pub(super) fn give(&mut self, name: Rc<str>, token: Option<Token>) {
        let Some(token) = token else { return };
        let known = token.kind.command().and_then(|known| self.commands.get(known)).cloned();
        let is_itself = token.kind.command() == Some(&*name);
        if let Some(known) = known {
            self.set(name, Some(known), false);
        } else if !is_itself {
            // What it means now, whatever is defined under that name later.
            let kind = match &token.kind {
                Kind::Command(known) if !known.starts_with(BUILT_IN) => Kind::Command(format!("{BUILT_IN}{known}").into()),
                kind => kind.clone(),
            };
            self.set(name, Some(Macro::of_tokens([Token { kind, ..token }])), false);
        }
    }
}

/// A definition without white space, to compare it.
fn written(tokens: &[Token], input: &Input<'_>) -> String {
    let mut out = String::new();
    input.write(tokens, &mut out);
    out.retain(|c| !c.is_whitespace());
    out
}

fn own_command(name: &str, arguments: &[Argument], body: &[Token], input: &Input<'_>) -> Option<Own> {
    if let ([Argument::Optional(usual), Argument::Mandatory], true) = (arguments, name == own_commands::ABBREVIATION.0) {
        let is_own = usual.is_empty() && written(body, input) == own_commands::ABBREVIATION.1;
        return is_own.then_some(Own::Abbreviation);
    }
    if !matches!(arguments, [Argument::Mandatory]) || body.len() > 16 {
        return None;
    }
    let (heading, definition) = own_commands::ROW_HEADING;
    if name == heading && written(body, input) == definition {
        return Some(Own::RowHeading);
    }
    let own = own_commands::COMMANDS.iter().find(|own| own.name == name)?;
    let definition: String = own.definition.split_whitespace().collect();
    (written(body, input) == definition).then_some(Own::Text(own.kind))
}

fn own_environment(name: &str, begin: &[Token], end: &[Token], input: &Input<'_>) -> Option<Own> {
    let (details, details_begin, details_end) = own_commands::DETAILS;
    if name == details && written(begin, input) == details_begin && written(end, input) == details_end {
        return Some(Own::Details);
    }
    let (lines, lines_begin, lines_end) = own_commands::LINES;
    if name == lines && written(begin, input) == lines_begin && written(end, input) == lines_end {
        return Some(Own::Lines);
    }
    let (words, words_begin, words_end) = own_commands::INTERLINEAR_GLOSS;
    if name == words && written(begin, input) == words_begin && written(end, input) == words_end {
        return Some(Own::InterlinearGloss);
    }
    let own = own_commands::ENVIRONMENTS.iter().find(|own| own.name == name)?;
    (written(begin, input) == own.begin && written(end, input) == own.end).then_some(Own::Part(own.kind))
}

/// The name of the command that is defined: by itself or in braces.
pub(super) fn name(input: &mut Input<'_>) -> Option<Rc<str>> {
    input.skip_white();
    let token = input.next()?;
    let token = match token.kind {
        Kind::Begin => input.up_to_end().into_iter().find(|token| token.kind.command().is_some())?,
        _ => token,
    };
    match token.kind {
        Kind::Command(name) => Some(name),
        // A definition of nothing: what comes is read as if it were not there.
        _ => {
            input.made.push(token);
            None
        }
    }
}
