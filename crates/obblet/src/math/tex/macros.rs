//! Macros that sources define themselves, bounded in how much they come to (The TeXbook, chapter 20; LaTeX, `\newcommand`).

use super::tokens::{Kind, Token};
use crate::fast_hash::HashMap;
use std::collections::BTreeMap;
use std::rc::Rc;

/// So many macros are written out in one formula.
const MOST_EXPANSIONS: u32 = 10_000;
/// So many tokens they come to.
const MOST_TOKENS: usize = 100_000;

/// Macros by their names. Those that a formula defines hold for it alone; a document may keep some for all of its formulas.
#[derive(Clone, Debug, Default)]
pub struct Macros {
    known: HashMap<Rc<str>, Rc<Macro>>,
    /// The numbers of equations by their labels.
    numbers: Rc<BTreeMap<String, String>>,
    /// How many definitions were taken.
    definitions: usize,
}

#[derive(Clone, Debug)]
struct Macro {
    parameters: u8,
    /// What the first argument is where it is left out.
    optional: Option<Vec<Token>>,
    /// The tokens, the last one first.
    body: Vec<Token>,
    /// Whether it is the name of an operator.
    operator: Option<bool>,
}

/// What a macro came to.
pub(super) enum Expansion {
    /// Tokens to be read in its place, the last one first.
    Tokens(Vec<Token>),
    /// The name of an operator, with whether it has limits.
    Operator(Vec<Token>, bool),
}

/// How much is left of what macros may come to.
#[derive(Clone, Copy, Debug)]
pub(super) struct Budget {
    expansions: u32,
    tokens: usize,
}

impl Default for Budget {
    fn default() -> Self {
        Self { expansions: MOST_EXPANSIONS, tokens: MOST_TOKENS }
    }
}

impl Macros {
    /// The macros that a text defines.
    #[must_use]
    pub fn of(text: &str) -> Self {
        let mut macros = Self::default();
        if !text.is_empty() {
            macros.define(text);
        }
        macros
    }

    /// The same, with the numbers of equations by their labels: references in formulas show them.
    #[must_use]
    pub fn with_numbers(mut self, numbers: &BTreeMap<String, String>) -> Self {
        self.numbers = Rc::new(numbers.clone());
        self
    }

    /// The number of the equation that has a label; empty where it is not known.
    pub(super) fn number(&self, label: &str) -> &str {
        self.numbers.get(label).map_or("", String::as_str)
    }

    /// Defines macros by the commands in a text: `\newcommand`, `\def`, `\DeclareMathOperator` and the like.
    ///
    /// ```
    /// use obblet::math::tex;
    ///
    /// let mut macros = tex::Macros::default();
    /// macros.define(r"\newcommand{\mean}[1]{\overline{#1}}");
    /// let (math, _) = tex::read_with(r"\mean{x}", &macros);
    /// assert_eq!(tex::write(&math), r"\overline{x}");
    /// ```
    pub fn define(&mut self, text: &str) {
        let mut stack = super::tokens::tokens(text);
        while let Some(token) = stack.pop() {
            if let Kind::Command(name) = &token.kind {
                self.definition(&name.clone(), &mut stack);
            }
        }
    }

    pub(super) fn is_empty(&self) -> bool {
        self.known.is_empty()
    }

    /// Whether a macro of a name is defined.
    pub(crate) fn knows(&self, name: &str) -> bool {
        self.known.contains_key(name)
    }

    /// How many definitions were taken: while this stays the same, so does what formulas come to.
    pub(crate) const fn definitions(&self) -> usize {
        self.definitions
    }

    /// Takes a definition, where a command is one. Whether it is.
    pub(super) fn definition(&mut self, command: &str, stack: &mut Vec<Token>) -> bool {
        let is_definition = self.take_definition(command, stack);
        self.definitions += usize::from(is_definition);
        is_definition
    }

    fn take_definition(&mut self, command: &str, stack: &mut Vec<Token>) -> bool {
        match command.trim_end_matches('*') {
            "newcommand" | "renewcommand" | "providecommand" | "DeclareRobustCommand" => {
                let Some(name) = name(stack) else { return true };
                let parameters = bracketed(stack).map_or(0, |count| {
                    count
                        .iter()
                        .find_map(|token| match token.kind {
                            Kind::Char(digit @ '0'..='9') => Some(digit as u8 - b'0'),
                            _ => None,
                        })
                        .unwrap_or(0)
                });
                let optional = bracketed(stack);
                let body = argument(stack);
                let is_new = command != "providecommand" || !self.knows(&name);
                if is_new {
                    self.known.insert(name, Rc::new(Macro { parameters, optional, body, operator: None }));
                }
                true
            }
            "def" | "gdef" | "edef" => {
                let Some(name) = name(stack) else { return true };
                let mut parameters = 0;
                // Parameters that stand beside each other; what is between delimits nothing here.
                while let Some(token) = stack.pop() {
                    match token.kind {
                        Kind::Parameter(number) => parameters = parameters.max(number),
                        Kind::Open => {
                            stack.push(token);
                            break;
                        }
                        _ => {}
                    }
                }
                let body = argument(stack);
                self.known.insert(name, Rc::new(Macro { parameters, optional: None, body, operator: None }));
                true
            }
            "let" => {
                let Some(name) = name(stack) else { return true };
                skip_spaces(stack);
                stack.pop_if(|token| token.kind == Kind::Char('='));
                skip_spaces(stack);
                if let Some(token) = stack.pop() {
                    let same = token.kind.command().and_then(|old| self.known.get(old)).cloned();
                    let copy = || Rc::new(Macro { parameters: 0, optional: None, body: vec![token.clone()], operator: None });
                    self.known.insert(name, same.unwrap_or_else(copy));
                }
                true
            }
            "DeclareMathOperator" => {
                let Some(name) = name(stack) else { return true };
                let body = argument(stack);
                let operator = Some(command.ends_with('*'));
                self.known.insert(name, Rc::new(Macro { parameters: 0, optional: None, body, operator }));
                true
            }
            _ => false,
        }
    }

    /// Writes a macro out; nothing where there is none of the name, or macros have come to too much.
    pub(super) fn expand(&self, name: &str, at: u32, stack: &mut Vec<Token>, budget: &mut Budget) -> Option<Expansion> {
        let found = Rc::clone(self.known.get(name)?);
        budget.expansions = budget.expansions.checked_sub(1)?;
        let mut arguments: Vec<Vec<Token>> = Vec::new();
        for number in 0..found.parameters {
            let given = match &found.optional {
                Some(usual) if number == 0 => bracketed(stack).unwrap_or_else(|| usual.clone()),
                _ => argument(stack),
            };
            arguments.push(given);
        }
        let mut out = Vec::with_capacity(found.body.len());
        for token in &found.body {
            match token.kind {
                Kind::Parameter(number) => {
                    if let Some(given) = arguments.get(usize::from(number).wrapping_sub(1)) {
                        out.extend(given.iter().cloned());
                    }
                }
                // What a macro comes to stands where the macro does.
                _ => out.push(Token { at, ..token.clone() }),
            }
            if out.len() > budget.tokens {
                budget.tokens = 0;
                return None;
            }
        }
        budget.tokens -= out.len();
        Some(match found.operator {
            Some(limits) => Expansion::Operator(out, limits),
            None => Expansion::Tokens(out),
        })
    }
}

fn skip_spaces(stack: &mut Vec<Token>) {
    while stack.pop_if(|token| token.kind == Kind::Space).is_some() {}
}

/// The name that is defined, with or without braces.
fn name(stack: &mut Vec<Token>) -> Option<Rc<str>> {
    skip_spaces(stack);
    let in_braces = stack.pop_if(|token| token.kind == Kind::Open).is_some();
    let name = stack.pop().and_then(|token| match token.kind {
        Kind::Command(name) => Some(name),
        _ => None,
    });
    if in_braces {
        stack.pop_if(|token| token.kind == Kind::Close);
    }
    name
}

/// An argument: what is in braces, or one token. The last token is first.
pub(super) fn argument(stack: &mut Vec<Token>) -> Vec<Token> {
    skip_spaces(stack);
    let Some(first) = stack.pop() else { return Vec::new() };
    match first.kind {
        Kind::Open => {}
        // It ends something else.
        Kind::Close | Kind::Cell => {
            stack.push(first);
            return Vec::new();
        }
        _ => return vec![first],
    }
    let mut depth = 0_usize;
    let mut found = Vec::new();
    while let Some(token) = stack.pop() {
        match token.kind {
            Kind::Open => depth += 1,
            Kind::Close if depth == 0 => break,
            Kind::Close => depth -= 1,
            _ => {}
        }
        found.push(token);
    }
    found.reverse();
    found
}

/// What is in square brackets has no more tokens than this.
const LONGEST_OPTION: usize = 1000;

/// What is in square brackets, where such come. The last token is first.
pub(super) fn bracketed(stack: &mut Vec<Token>) -> Option<Vec<Token>> {
    let spaces = stack.iter().rev().take_while(|token| token.kind == Kind::Space).count();
    let at = stack.len().checked_sub(spaces + 1)?;
    if stack[at].kind != Kind::Char('[') {
        return None;
    }
    // Brackets within braces do not end it; without an end there are none.
    let mut depth = 0_usize;
    let mut end = None;
    for (back, token) in stack[..at].iter().rev().enumerate().take(LONGEST_OPTION) {
        match token.kind {
            Kind::Open => depth += 1,
            Kind::Close if depth == 0 => return None,
            Kind::Close => depth -= 1,
            Kind::Char(']') if depth == 0 => {
                end = Some(at - 1 - back);
                break;
            }
            _ => {}
        }
    }
    let end = end?;
    let inner = stack[end + 1..at].to_vec();
    stack.truncate(end);
    Some(inner)
}
