//! Commands and environments that a document defines, and what they come to (The TeXbook, chapter 20; the LaTeX documentation of
//! `\newcommand`, `\newenvironment` and of document commands).

use super::super::own_commands;
use super::tokens::{BUILT_IN, Input, Kind, Token};
use crate::fast_hash::HashMap;
use std::rc::Rc;

/// All expansions of a document together take no more steps and make no more tokens than these, and more for each of its bytes.
const MOST_STEPS: usize = 1 << 16;
const MOST_TOKENS: usize = 1 << 17;
const TOKENS_OF_A_BYTE: usize = 8;

/// How a command takes an argument.
#[derive(Clone, Debug)]
enum Argument {
    /// A group or a token.
    Mandatory,
    /// Between brackets, with what stands for it where it is not there.
    Optional(Rc<[Token]>),
    /// A star, or none.
    Star,
    /// Everything before these tokens.
    Before(Rc<[Token]>),
    /// Tokens that must be there and mean nothing.
    Delimiter(Rc<[Token]>),
}

/// A command that a document defines.
#[derive(Clone, Debug)]
pub(super) struct Macro {
    arguments: Rc<[Argument]>,
    body: Rc<[Token]>,
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
    Part(crate::document::DivisionKind),
}

type Tokens = Rc<[Token]>;

/// What stands for a length that the document names.
pub(super) const LENGTH: &str = "a length";

/// What stands for an argument that is not there.
const NO_VALUE: &str = "NoValue";

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
        let Some(known) = self.commands.get(name).cloned() else { return false };
        self.apply(&known, at, input);
        true
    }

    /// Puts what an environment begins with before the rest of the input. Gives what it ends with.
    pub(super) fn begin(&mut self, name: &str, at: u32, input: &mut Input<'_>) -> Option<Rc<[Token]>> {
        let (begin, end) = self.environments.get(name).cloned()?;
        self.apply(&begin, at, input);
        Some(end)
    }

    fn apply(&mut self, known: &Macro, at: u32, input: &mut Input<'_>) {
        self.steps += 1;
        if self.steps > MOST_STEPS + self.length || self.made > self.most_tokens() {
            self.exceeded.get_or_insert(at);
            return;
        }
        let mut given: Vec<Vec<Token>> = Vec::new();
        for argument in &*known.arguments {
            match argument {
                Argument::Mandatory => given.push(input.argument()),
                Argument::Optional(usual) => given.push(input.option().unwrap_or_else(|| usual.to_vec())),
                Argument::Star => {
                    input.skip_white();
                    let star = input.take('*');
                    let name = if star { "BooleanTrue" } else { "BooleanFalse" };
                    given.push(vec![Token { kind: Kind::Command(name.into()), at }]);
                }
                Argument::Before(end) => given.push(before(input, end)),
                Argument::Delimiter(tokens) => {
                    before(input, tokens);
                }
            }
        }
        let mut out: Vec<Token> = Vec::with_capacity(known.body.len());
        for token in &*known.body {
            match token.kind {
                Kind::Parameter(number, 0) => {
                    out.extend(given.get(usize::from(number) - 1).into_iter().flatten().cloned());
                }
                Kind::Parameter(number, more) => out.push(Token { kind: Kind::Parameter(number, more - 1), at: token.at }),
                _ => out.push(token.clone()),
            }
            if self.made + out.len() > self.most_tokens() {
                self.exceeded.get_or_insert(at);
                return;
            }
        }
        self.made += out.len();
        input.push_all(out.into_iter());
    }

    /// Takes a definition whose command has been read. Whether the command defines something.
    pub(super) fn define(&mut self, command: &str, input: &mut Input<'_>) -> bool {
        match command {
            "newcommand" | "renewcommand" | "providecommand" | "DeclareRobustCommand" => {
                input.take('*');
                let Some(name) = name(input) else { return true };
                let (arguments, body) = signature(input);
                if &*name == "includegraphics" {
                    // A picture stays one, whatever is done about those that are missing.
                } else if let Some(own) = own_command(&name, &arguments, &body, input) {
                    self.own.insert(name, own);
                } else if command != "providecommand" || !self.knows(&name) {
                    self.commands.insert(name, Macro { arguments, body });
                }
            }
            "def" | "gdef" | "edef" | "xdef" => {
                let Some(name) = name(input) else { return true };
                let arguments = pattern(input);
                let mut body = input.up_to_end();
                if command.starts_with(['e', 'x']) {
                    body = self.written_out(body, input);
                }
                self.commands.insert(name, Macro { arguments, body: body.into() });
            }
            "newlength" | "newdimen" | "newskip" => {
                let Some(name) = name(input) else { return true };
                let body = Token { kind: Kind::Command(LENGTH.into()), at: input.place() };
                self.commands.insert(name, Macro { arguments: Rc::from([]), body: Rc::from([body]) });
            }
            "let" => {
                let Some(name) = name(input) else { return true };
                input.skip_white();
                let mut token = input.next();
                if let Some(Kind::Text(start, end)) = token.as_ref().map(|token| &token.kind)
                    && input.slice(*start, *end).starts_with('=')
                {
                    let (start, end) = (*start, *end);
                    if start + 1 < end {
                        input.push(Kind::Text(start + 1, end), start + 1);
                    }
                    input.skip_white();
                    token = input.next();
                }
                self.give(name, token);
            }
            "DeclareMathOperator" => self.define_operator(input),
            "NewDocumentCommand" | "RenewDocumentCommand" | "ProvideDocumentCommand" | "DeclareDocumentCommand" => {
                let Some(name) = name(input) else { return true };
                let arguments = document_arguments(input);
                let body = input.argument().into();
                if &*name != "includegraphics" {
                    self.commands.insert(name, Macro { arguments, body });
                }
            }
            "newenvironment" | "renewenvironment" => {
                input.take('*');
                let name = input.argument();
                let name: Rc<str> = input.characters(&name).into();
                let (arguments, body) = signature(input);
                let end: Rc<[Token]> = input.argument().into();
                if let Some(own) = own_environment(&name, &body, &end, input) {
                    self.own.insert(name, own);
                    return true;
                }
                self.environments.insert(name, (Macro { arguments, body }, end));
            }
            "NewDocumentEnvironment"
            | "RenewDocumentEnvironment"
            | "ProvideDocumentEnvironment"
            | "DeclareDocumentEnvironment" => {
                let name = input.argument();
                let name: Rc<str> = input.characters(&name).into();
                let arguments = document_arguments(input);
                let body = input.argument().into();
                let end = input.argument().into();
                self.environments.insert(name, (Macro { arguments, body }, end));
            }
            _ => return false,
        }
        true
    }

    /// The tokens that others come to now: what they are called may mean something else later.
    fn written_out(&mut self, tokens: Vec<Token>, input: &Input<'_>) -> Vec<Token> {
        let mut inner = Input::of_tokens(input.source, tokens.into_iter());
        let mut out = Vec::new();
        while let Some(token) = inner.next() {
            match token.kind.command() {
                Some("noexpand") => out.extend(inner.next()),
                Some(name) if self.knows(name) => {
                    let name = name.to_owned();
                    self.expand(&name, token.at, &mut inner);
                }
                _ => out.push(token),
            }
            if out.len() > self.most_tokens() {
                break;
            }
        }
        out
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
        self.commands.insert(name, Macro { arguments: Rc::from([]), body: body.into() });
    }

    /// What a command or an environment of Obblet's own documents is.
    pub(super) fn own(&self, name: &str) -> Option<Own> {
        self.own.get(name).copied()
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
        self.commands.insert(name, Macro { arguments: Rc::from([]), body: body.into() });
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
    fn give(&mut self, name: Rc<str>, token: Option<Token>) {
        let Some(token) = token else { return };
        let known = token.kind.command().and_then(|known| self.commands.get(known)).cloned();
        let is_itself = token.kind.command() == Some(&*name);
        if let Some(known) = known {
            self.commands.insert(name, known);
        } else if !is_itself {
            // What it means now, whatever is defined under that name later.
            let kind = match &token.kind {
                Kind::Command(known) if !known.starts_with(BUILT_IN) => Kind::Command(format!("{BUILT_IN}{known}").into()),
                kind => kind.clone(),
            };
            self.commands.insert(name, Macro { arguments: Rc::from([]), body: Rc::from([Token { kind, ..token }]) });
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
    let own = own_commands::ENVIRONMENTS.iter().find(|own| own.name == name)?;
    (written(begin, input) == own.begin && written(end, input) == own.end).then_some(Own::Part(own.kind))
}

/// The name of the command that is defined: by itself or in braces.
fn name(input: &mut Input<'_>) -> Option<Rc<str>> {
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

/// The number of arguments, what stands for the first, and the body.
fn signature(input: &mut Input<'_>) -> (Rc<[Argument]>, Rc<[Token]>) {
    let count = input.option().and_then(|count| input.characters(&count).parse::<usize>().ok()).unwrap_or(0).min(9);
    let usual = input.option();
    let mut arguments = vec![Argument::Mandatory; count];
    if let (Some(usual), Some(first)) = (usual, arguments.first_mut()) {
        *first = Argument::Optional(usual.into());
    }
    (arguments.into(), input.argument().into())
}

/// Parameters with what stands between them, up to the brace that begins the body.
fn pattern(input: &mut Input<'_>) -> Rc<[Argument]> {
    let mut arguments: Vec<Argument> = Vec::new();
    let mut delimiter: Vec<Token> = Vec::new();
    let mut open = false;
    let end = |arguments: &mut Vec<Argument>, delimiter: &mut Vec<Token>, open: bool| {
        let tokens = std::mem::take(delimiter);
        match (open, tokens.is_empty()) {
            (true, true) => arguments.push(Argument::Mandatory),
            (true, false) => arguments.push(Argument::Before(tokens.into())),
            (false, false) => arguments.push(Argument::Delimiter(tokens.into())),
            (false, true) => {}
        }
    };
    while let Some(token) = input.next() {
        match token.kind {
            Kind::Begin => break,
            Kind::Parameter(..) => {
                end(&mut arguments, &mut delimiter, open);
                open = true;
            }
            _ if delimiter.len() < 64 => delimiter.push(token),
            _ => {}
        }
    }
    end(&mut arguments, &mut delimiter, open);
    arguments.truncate(18);
    arguments.into()
}

/// The arguments of a document command, by the letters for them.
fn document_arguments(input: &mut Input<'_>) -> Rc<[Argument]> {
    let spec = input.argument();
    let mut found = Vec::new();
    let no_value = |at: u32| -> Rc<[Token]> { Rc::from([Token { kind: Kind::Command(NO_VALUE.into()), at }]) };
    let mut tokens = spec.iter();
    while let Some(token) = tokens.next() {
        let letters: String = input.characters(std::slice::from_ref(token));
        for letter in letters.chars() {
            match letter {
                'm' | 'v' | 'r' => found.push(Argument::Mandatory),
                'o' => found.push(Argument::Optional(no_value(token.at))),
                's' => found.push(Argument::Star),
                'O' => {
                    let mut usual = Vec::new();
                    let mut depth = 0;
                    for token in tokens.by_ref() {
                        match token.kind {
                            Kind::Begin => depth += 1,
                            Kind::End => depth -= 1,
                            _ => {}
                        }
                        if depth == 0 {
                            break;
                        }
                        usual.push(token.clone());
                    }
                    usual.drain(..usual.len().min(1));
                    found.push(Argument::Optional(usual.into()));
                }
                _ => {}
            }
        }
    }
    found.truncate(9);
    found.into()
}

/// Everything before some tokens, which are taken, too.
fn before(input: &mut Input<'_>, end: &[Token]) -> Vec<Token> {
    let wanted = input.characters(end);
    let (mut found, mut depth) = (Vec::new(), 0_usize);
    let commands: Vec<&str> = end.iter().filter_map(|token| token.kind.command()).collect();
    while let Some(token) = input.next() {
        match token.kind {
            Kind::Begin => depth += 1,
            Kind::End if depth == 0 => {
                input.made.push(token);
                break;
            }
            Kind::End => depth -= 1,
            Kind::Command(ref name) if depth == 0 && commands.first() == Some(&&**name) => break,
            Kind::Par | Kind::Then(_) => {
                input.made.push(token);
                break;
            }
            Kind::Text(start, stop) if depth == 0 && !wanted.is_empty() => {
                if let Some(at) = input.slice(start, stop).find(&wanted) {
                    let (at, behind) = (start + at as u32, start + (at + wanted.len()) as u32);
                    if behind < stop {
                        input.push(Kind::Text(behind, stop), behind);
                    }
                    if at > start {
                        found.push(Token { kind: Kind::Text(start, at), at: start });
                    }
                    break;
                }
            }
            Kind::Char(c) if depth == 0 && commands.is_empty() && wanted.starts_with(c) && wanted.len() == c.len_utf8() => break,
            Kind::Space if depth == 0 && wanted.is_empty() && commands.is_empty() => break,
            _ => {}
        }
        found.push(token);
    }
    // Braces around the whole are none of it.
    if let [first, inner @ .., last] = &found[..]
        && first.kind == Kind::Begin
        && last.kind == Kind::End
        && !inner.iter().any(|token| matches!(token.kind, Kind::Begin | Kind::End))
    {
        return inner.to_vec();
    }
    found
}
