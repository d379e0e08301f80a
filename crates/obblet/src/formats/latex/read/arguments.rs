//! Arguments of commands that a document defines: how they are said, and how they are taken from what follows (The TeXbook,
//! chapter 20; the LaTeX documentation of `\newcommand` and of document commands, "Argument specifications").

use super::tokens::{Input, Kind, Token};
use std::rc::Rc;

/// How a command takes an argument.
#[derive(Clone, Debug)]
pub(super) enum Argument {
    /// A group or a token.
    Mandatory,
    /// Between brackets, with what stands for it where it is not there.
    Optional(Rc<[Token]>),
    /// Between two other signs, with what stands for it where it is not there.
    Between(char, char, Rc<[Token]>),
    /// A sign, or none.
    Sign(char),
    /// Signs that each have an argument, in any order, with what stands for those that are not there.
    Scripts(Rc<[(Token, Rc<[Token]>)]>),
    /// Characters as they stand, between two that are the same, or in braces.
    Verbatim,
    /// What an environment holds.
    Body,
    /// Everything before these tokens.
    Before(Rc<[Token]>),
    /// Everything before a brace that begins a group.
    BeforeGroup,
    /// Tokens that must be there and mean nothing.
    Delimiter(Rc<[Token]>),
    /// An argument that is changed before it is given.
    Changed(Change, Rc<Argument>),
}

/// What is done to an argument.
#[derive(Clone, Debug)]
pub(super) enum Change {
    Trimmed,
    /// It becomes so many groups, and one more: the parts between a sign.
    Split(usize, char),
    /// True becomes false.
    Reversed,
    /// A key stands before it.
    Key(Rc<[Token]>),
}

/// What stands for an argument that is not there.
pub(super) const NO_VALUE: &str = "NoValue";

/// Commands take no more arguments than these.
const MOST: usize = 18;

fn no_value(at: u32) -> Vec<Token> {
    vec![Token { kind: Kind::Command(NO_VALUE.into()), at }]
}

fn truth(is_true: bool, at: u32) -> Vec<Token> {
    let name = if is_true { "BooleanTrue" } else { "BooleanFalse" };
    vec![Token { kind: Kind::Command(name.into()), at }]
}

/// Takes an argument from what follows into those that are given. The environment is the one that begins, where one does.
pub(super) fn take(argument: &Argument, input: &mut Input<'_>, at: u32, environment: &str, given: &mut Vec<Vec<Token>>) {
    match argument {
        Argument::Mandatory => given.push(input.argument()),
        Argument::Optional(usual) => given.push(input.option().unwrap_or_else(|| usual.to_vec())),
        Argument::Between(open, close, usual) => {
            given.push(input.between(*open, *close).unwrap_or_else(|| usual.to_vec()));
        }
        Argument::Sign(sign) => {
            input.skip_white();
            let is_there = input.takes_character(*sign);
            given.push(truth(is_there, at));
        }
        Argument::Scripts(scripts) => {
            let mut found: Vec<Vec<Token>> = scripts.iter().map(|(_, usual)| usual.to_vec()).collect();
            for _ in 0..scripts.len() {
                input.skip_white();
                let Some(token) = input.single() else { break };
                let Some(place) = scripts.iter().position(|(sign, _)| is_same(sign, &token, input)) else {
                    input.made.push(token);
                    break;
                };
                found[place] = input.argument();
            }
            given.append(&mut found);
        }
        Argument::Verbatim => given.push(input.verbatim()),
        Argument::Body => given.push(body(input, environment)),
        Argument::Before(end) => given.push(before(input, end)),
        Argument::BeforeGroup => {
            let tokens = std::iter::from_fn(|| {
                let token = input.next()?;
                if !matches!(token.kind, Kind::Begin | Kind::End | Kind::Par | Kind::Then(_)) {
                    return Some(token);
                }
                input.made.push(token);
                None
            });
            given.push(tokens.collect());
        }
        Argument::Delimiter(tokens) => drop(before(input, tokens)),
        Argument::Changed(change, inner) => {
            let from = given.len();
            take(inner, input, at, environment, given);
            for value in &mut given[from..] {
                changed(change, value, input, at);
            }
        }
    }
}

fn is_same(one: &Token, other: &Token, input: &Input<'_>) -> bool {
    one.kind == other.kind || input.character_of(one).is_some_and(|one| input.character_of(other) == Some(one))
}

fn changed(change: &Change, value: &mut Vec<Token>, input: &Input<'_>, at: u32) {
    match change {
        Change::Trimmed => *value = input.trimmed(value),
        Change::Reversed => {
            let is_true = value.first().and_then(|token| token.kind.command()) == Some("BooleanTrue");
            *value = truth(!is_true, at);
        }
        Change::Key(key) => {
            let has_key = value.iter().any(|token| match token.kind {
                Kind::Text(start, end) => input.slice(start, end).contains('='),
                _ => false,
            });
            if !has_key && value.first().and_then(|token| token.kind.command()) != Some(NO_VALUE) {
                value.insert(0, Token { kind: Kind::Char('='), at });
                value.splice(0..0, key.iter().cloned());
            }
        }
        Change::Split(count, sign) => {
            let mut parts = input.split(value, *sign);
            // What is too much belongs to the last.
            while parts.len() > count + 1
                && let Some(mut last) = parts.pop()
                && let Some(before) = parts.last_mut()
            {
                before.push(Token { kind: Kind::Char(*sign), at });
                before.append(&mut last);
            }
            parts.resize_with(count + 1, || no_value(at));
            value.clear();
            for part in parts {
                value.push(Token { kind: Kind::Begin, at });
                value.extend(input.trimmed(&part));
                value.push(Token { kind: Kind::End, at });
            }
        }
    }
}

/// What an environment holds, up to its end, which stays.
pub(super) fn body(input: &mut Input<'_>, environment: &str) -> Vec<Token> {
    let (mut found, mut depth) = (Vec::new(), 0_usize);
    while let Some(token) = input.next() {
        if matches!(token.kind, Kind::Then(_)) {
            input.made.push(token);
            break;
        }
        let is_begin = token.kind.command() == Some("begin");
        if is_begin || token.kind.command() == Some("end") {
            let at = token.at;
            let name = input.argument();
            let is_this = input.characters(&name) == environment;
            let parts = [Token { kind: Kind::Begin, at }].into_iter().chain(name).chain([Token { kind: Kind::End, at }]);
            if is_this && !is_begin && depth == 0 {
                input.push_all(parts.collect::<Vec<_>>().into_iter());
                input.made.push(token);
                break;
            }
            depth = match (is_this, is_begin) {
                (true, true) => depth + 1,
                (true, false) => depth - 1,
                (false, _) => depth,
            };
            found.push(token);
            found.extend(parts);
            continue;
        }
        found.push(token);
    }
    input.trimmed(&found)
}

/// The number of arguments, what stands for the first, and the body.
pub(super) fn signature(input: &mut Input<'_>) -> (Rc<[Argument]>, Rc<[Token]>) {
    let count = input.option().and_then(|count| input.characters(&count).parse::<usize>().ok()).unwrap_or(0).min(9);
    let usual = input.option();
    let mut arguments = vec![Argument::Mandatory; count];
    if let (Some(usual), Some(first)) = (usual, arguments.first_mut()) {
        *first = Argument::Optional(usual.into());
    }
    (arguments.into(), input.argument().into())
}

/// The number of arguments, with keys for those that may be left out, and the body (the documentation of xargs).
pub(super) fn signature_with_keys(input: &mut Input<'_>) -> (Rc<[Argument]>, Rc<[Token]>) {
    let count = input.option().and_then(|count| input.characters(&count).parse::<usize>().ok()).unwrap_or(0).min(9);
    let mut arguments = vec![Argument::Mandatory; count];
    let usual = input.option().unwrap_or_default();
    for (key, value) in input.pairs(&usual) {
        if let Some(place) = key.parse::<usize>().ok().and_then(|number| arguments.get_mut(number.checked_sub(1)?)) {
            *place = Argument::Optional(value.into());
        }
    }
    (arguments.into(), input.argument().into())
}

/// Parameters with what stands between them, up to the brace that begins the body.
pub(super) fn pattern(input: &mut Input<'_>) -> Rc<[Argument]> {
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
    let mut last_sign = false;
    while let Some(token) = input.next() {
        let is_sign = token.kind == Kind::Char('#');
        match token.kind {
            Kind::Begin if last_sign && open => {
                // The brace ends the last argument, and stays.
                delimiter.pop();
                if delimiter.is_empty() {
                    arguments.push(Argument::BeforeGroup);
                    open = false;
                }
                break;
            }
            Kind::Begin => break,
            Kind::Parameter(..) => {
                end(&mut arguments, &mut delimiter, open);
                open = true;
            }
            _ if delimiter.len() < 64 => delimiter.push(token),
            _ => {}
        }
        last_sign = is_sign;
    }
    end(&mut arguments, &mut delimiter, open);
    arguments.truncate(MOST);
    arguments.into()
}

/// The arguments of a document command, by the letters for them.
pub(super) fn of_document_command(input: &mut Input<'_>) -> Rc<[Argument]> {
    let tokens = input.argument();
    let mut spec = Input::of_tokens(input.source, tokens.into_iter());
    let mut found = Vec::new();
    let mut changes: Vec<Change> = Vec::new();
    while let Some(token) = spec.single() {
        let at = token.at;
        let Some(letter) = spec.character_of(&token) else { continue };
        let argument = match letter {
            'm' | 'l' | 'u' => Argument::Mandatory,
            'v' => Argument::Verbatim,
            'b' => Argument::Body,
            's' => Argument::Sign('*'),
            't' => Argument::Sign(sign(&mut spec).unwrap_or('*')),
            'o' => Argument::Optional(no_value(at).into()),
            'O' => Argument::Optional(spec.argument().into()),
            'd' | 'D' | 'r' | 'R' => {
                let open = sign(&mut spec).unwrap_or('(');
                let close = sign(&mut spec).unwrap_or(')');
                let usual = if letter.is_uppercase() { spec.argument() } else { no_value(at) };
                Argument::Between(open, close, usual.into())
            }
            'e' | 'E' => scripts(&mut spec, letter == 'E', at),
            '>' => {
                let change = spec.argument();
                changes.extend(change_of(&change, &spec).filter(|_| changes.len() < MOST));
                continue;
            }
            '=' => {
                let key = spec.argument();
                changes.extend(Some(Change::Key(key.into())).filter(|_| changes.len() < MOST));
                continue;
            }
            _ => continue,
        };
        // The change that stands nearest comes first.
        let changed = changes.drain(..).rev().fold(argument, |inner, change| Argument::Changed(change, Rc::new(inner)));
        found.push(changed);
    }
    found.truncate(9);
    found.into()
}

fn sign(spec: &mut Input<'_>) -> Option<char> {
    spec.skip_white();
    let token = spec.single()?;
    spec.character_of(&token)
}

/// Signs that each have an argument, with what stands for them.
fn scripts(spec: &mut Input<'_>, has_usual: bool, at: u32) -> Argument {
    let signs = spec.argument();
    let usual = if has_usual { spec.argument() } else { Vec::new() };
    let mut signs = Input::of_tokens(spec.source, signs.into_iter());
    let mut usual = Input::of_tokens(spec.source, usual.into_iter());
    let mut all = Vec::new();
    while let Some(sign) = signs.single().filter(|_| all.len() < 9) {
        if sign.kind != Kind::Space {
            usual.skip_white();
            let has_one = !usual.made.is_empty();
            let value = if has_one { usual.argument() } else { no_value(at) };
            all.push((sign, Rc::from(value)));
        }
    }
    Argument::Scripts(all.into())
}

fn change_of(tokens: &[Token], spec: &Input<'_>) -> Option<Change> {
    let name = tokens.first()?.kind.command()?;
    let mut rest = Input::of_tokens(spec.source, tokens[1..].iter().cloned());
    match name {
        "TrimSpaces" => Some(Change::Trimmed),
        "ReverseBoolean" => Some(Change::Reversed),
        "SplitArgument" => {
            let count = rest.argument();
            let count = rest.characters(&count).parse::<usize>().ok()?.min(8);
            let sign = rest.argument();
            Some(Change::Split(count, rest.character_of(sign.first()?)?))
        }
        _ => None,
    }
}

/// Everything before some tokens, which are taken, too.
fn before(input: &mut Input<'_>, end: &[Token]) -> Vec<Token> {
    let mut wanted = input.characters(end);
    if wanted.is_empty() && end.iter().all(|token| matches!(token.kind, Kind::Space | Kind::Text(..))) {
        wanted.push(' ');
    }
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
            Kind::Space if depth == 0 && wanted == " " => break,
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
