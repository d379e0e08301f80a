//! From TeX to a tree (The TeXbook, chapters 16 to 18; the documentation of amsmath).

use super::commands::{self as table, Meaning};
use super::constructs::merge_numbers;
use super::environments;
use super::macros::{Budget, Expansion, Macros, argument, bracketed};
use super::tokens::{Kind, Token, tokens};
use crate::math::tree::one;
use crate::math::{Accent, Class, DEEPEST, Delimiter, Fraction, Line, Math, Node, Problem, Row, Scripts, Size, Tag, Variant};
use std::borrow::Cow;

/// Reads a formula. What can't be parsed is in it as source text, and among the problems.
#[must_use]
pub fn read(source: &str) -> (Math, Vec<Problem>) {
    read_with(source, &Macros::default())
}

/// Reads a formula that may use macros of its document.
#[must_use]
pub fn read_with(source: &str, macros: &Macros) -> (Math, Vec<Problem>) {
    let (math, problems, _) = parse(source, Cow::Borrowed(macros));
    (math, problems)
}

/// Reads a formula of a document, whose macros the formulas behind it may use.
pub fn read_next(source: &str, macros: &mut Macros) -> (Math, Vec<Problem>) {
    // Owned, so that each definition costs no copy of all others.
    let (math, problems, known) = parse(source, Cow::Owned(std::mem::take(macros)));
    *macros = known.into_owned();
    (math, problems)
}

/// Reads a formula. Gives the macros that are known behind it.
fn parse<'m>(source: &str, macros: Cow<'m, Macros>) -> (Math, Vec<Problem>, Cow<'m, Macros>) {
    let mut parser = Parser {
        stack: tokens(source),
        macros,
        budget: Budget::default(),
        depth: 0,
        nested: 0,
        variant: Variant::Usual,
        problems: Vec::new(),
        end: source.len() as u32,
        math: Math::default(),
    };
    let body = parser.document();
    let mut math = parser.math;
    math.body = body;
    (math, parser.problems, parser.macros)
}

/// Dots span no more columns.
const MOST_DOTTED: usize = 50;

/// What ends a row.
#[derive(Clone, Copy, Debug, PartialEq, Eq)]
pub(super) enum Until {
    /// The end of the source.
    End,
    /// `}`
    Close,
    /// `\right` or `\middle`
    Right,
    /// `&`, `\\` or `\end`
    Cell,
    /// `]`
    Bracket,
}

pub(super) struct Parser<'m> {
    /// What is to be read, the next one last.
    pub(super) stack: Vec<Token>,
    pub(super) macros: Cow<'m, Macros>,
    budget: Budget,
    depth: usize,
    /// How many atoms are being read within each other.
    nested: usize,
    /// The alphabet that letters are in.
    pub(super) variant: Variant,
    problems: Vec<Problem>,
    end: u32,
    pub(super) math: Math,
}

impl Parser<'_> {
    /// Reads all of the source: what ends nothing is in it as it is.
    fn document(&mut self) -> Row {
        let mut body = self.row(Until::End);
        while let Some(token) = self.stack.pop() {
            let mut text = String::new();
            token.kind.write(&mut text);
            self.problem(token.at, format!("{} ends nothing", text.trim()));
            body.push(Node::Unparsed(text.trim().to_owned()));
            body.extend(self.row(Until::End));
        }
        body
    }

    pub(super) fn problem(&mut self, at: u32, what: impl Into<String>) {
        self.problems.push(Problem { at: at as usize, what: what.into() });
    }

    /// Where the next token is.
    pub(super) fn at(&self) -> u32 {
        self.stack.last().map_or(self.end, |token| token.at)
    }

    pub(super) fn skip_spaces(&mut self) {
        while self.stack.pop_if(|token| token.kind == Kind::Space).is_some() {}
    }

    /// The next token that is neither a space nor a macro.
    #[inline]
    pub(super) fn peek(&mut self) -> Option<&Kind> {
        let may_be_other = match self.stack.last()?.kind {
            Kind::Space => true,
            Kind::Command(_) => !self.macros.is_empty(),
            _ => false,
        };
        if may_be_other { self.peek_behind() } else { self.stack.last().map(|token| &token.kind) }
    }

    /// Skips spaces and writes macros out.
    fn peek_behind(&mut self) -> Option<&Kind> {
        loop {
            self.skip_spaces();
            let token = self.stack.last()?;
            let Kind::Command(name) = &token.kind else { break };
            if !self.macros.knows(name) {
                break;
            }
            let (name, at) = (name.clone(), token.at);
            self.stack.pop();
            match self.macros.expand(&name, at, &mut self.stack, &mut self.budget) {
                Some(Expansion::Tokens(tokens)) => self.stack.extend(tokens),
                Some(Expansion::Operator(tokens, limits)) => {
                    let command = if limits { "operatorname*" } else { "operatorname" };
                    self.stack.push(Token { kind: Kind::Close, at });
                    self.stack.extend(tokens);
                    self.stack.push(Token { kind: Kind::Open, at });
                    self.stack.push(Token { kind: Kind::Command(command.into()), at });
                    break;
                }
                None => {
                    self.problem(at, format!("the macro \\{name} comes to too much"));
                    self.stack.clear();
                    self.stack.push(Token { kind: Kind::Command("...".into()), at });
                    return self.stack.last().map(|token| &token.kind);
                }
            }
        }
        self.stack.last().map(|token| &token.kind)
    }

    /// Reads what stands in a line.
    pub(super) fn row(&mut self, until: Until) -> Row {
        let mut row: Row = Vec::new();
        if self.depth >= DEEPEST {
            let at = self.at();
            self.problem(at, format!("more than {DEEPEST} groups are within each other"));
            return vec![Node::Unparsed(self.rest(until))];
        }
        self.depth += 1;
        let variant = self.variant;
        while let Some(kind) = self.peek() {
            let ends = match kind {
                Kind::Close => true,
                Kind::Cell => until == Until::Cell,
                Kind::Char(']') => until == Until::Bracket,
                Kind::Command(name) => match &**name {
                    "right" | "middle" => until == Until::Right,
                    "\\" | "cr" | "end" | "newline" => until == Until::Cell,
                    _ => false,
                },
                _ => false,
            };
            if ends {
                break;
            }
            // What most commands mean is in a table.
            let command = match kind {
                Kind::Command(name) => match table::meaning(name) {
                    Some(Meaning::Symbol(text, symbol)) => {
                        let node = table::node(text.into(), symbol, self.variant);
                        self.stack.pop();
                        self.one_item(node, &mut row);
                        continue;
                    }
                    Some(meaning) if !meaning.is_switch() => None,
                    meaning => Some((name.clone(), meaning)),
                },
                _ => None,
            };
            if let Some((name, meaning)) = command {
                if let Some(fraction) = self.infix(&name, &mut row, until) {
                    row = vec![fraction];
                    break;
                }
                if let Some(node) = self.switch(&name, meaning, until) {
                    row.extend(node);
                    break;
                }
                if self.macros_defined(&name) || self.beside(&name, &mut row) {
                    continue;
                }
            }
            self.item(&mut row);
        }
        self.variant = variant;
        self.depth -= 1;
        merge_numbers(row)
    }

    /// Takes the definition of a macro. Whether there is one.
    fn macros_defined(&mut self, name: &str) -> bool {
        let is_definition = matches!(
            name.trim_end_matches('*'),
            "newcommand" | "renewcommand" | "providecommand" | "def" | "gdef" | "edef" | "let" | "DeclareMathOperator"
        );
        if is_definition {
            self.stack.pop();
            self.macros.to_mut().definition(name, &mut self.stack);
        }
        is_definition
    }

    /// All that is left up to an end, as source text.
    pub(super) fn rest(&mut self, until: Until) -> String {
        let mut out = String::new();
        let mut depth = 0_usize;
        while let Some(token) = self.stack.last() {
            match &token.kind {
                Kind::Open => depth += 1,
                Kind::Close if depth == 0 && until != Until::End => break,
                Kind::Close => depth = depth.saturating_sub(1),
                Kind::Command(name) if depth == 0 && until == Until::Right && matches!(&**name, "right" | "middle") => break,
                Kind::Command(name) if depth == 0 && until == Until::Cell && &**name == "end" => break,
                _ => {}
            }
            if let Some(token) = self.stack.pop() {
                token.kind.write(&mut out);
            }
        }
        out
    }

    /// A command that makes a fraction of what is before it and what is behind it.
    fn infix(&mut self, name: &str, row: &mut Row, until: Until) -> Option<Node> {
        let (line, fence) = match name {
            "over" => (Line::Bar, None),
            "atop" => (Line::None, None),
            "choose" => (Line::None, Some(("(".into(), ")".into()))),
            "brace" => (Line::None, Some(("{".into(), "}".into()))),
            "brack" => (Line::None, Some(("[".into(), "]".into()))),
            _ => return None,
        };
        self.stack.pop();
        let over = merge_numbers(std::mem::take(row));
        let under = self.row(until);
        Some(Node::Fraction(Box::new(Fraction { over, under, line, size: None, fence })))
    }

    /// A command that changes how all is set that comes in its group.
    fn switch(&mut self, name: &str, meaning: Option<Meaning>, until: Until) -> Option<Row> {
        match meaning {
            Some(Meaning::Size(size)) => {
                self.stack.pop();
                let body = self.row(until);
                Some(vec![Node::Style { size, body }])
            }
            Some(Meaning::Switch(variant)) => {
                self.stack.pop();
                self.variant = variant;
                Some(self.row(until))
            }
            None if name == "color" => {
                self.stack.pop();
                let color = self.color();
                let body = self.row(until);
                Some(vec![Node::Colored { color, ground: false, body }])
            }
            _ => None,
        }
    }

    /// Commands that say something of the formula and show nothing where they stand.
    fn beside(&mut self, name: &str, row: &mut Row) -> bool {
        match name {
            "label" => {
                self.stack.pop();
                self.math.label = self.words();
            }
            "tag" | "tag*" => {
                self.stack.pop();
                self.math.tag = Some(Tag { text: self.words(), bare: name.ends_with('*') });
            }
            "nonumber" | "notag" => {
                self.stack.pop();
                self.math.numbered = false;
            }
            "limits" | "nolimits" | "displaylimits" => {
                self.stack.pop();
                let limits = match name {
                    "limits" => Some(true),
                    "nolimits" => Some(false),
                    _ => None,
                };
                if let Some(base) = row.pop() {
                    let node = self.scripts(Scripts { base: vec![base], limits, ..Scripts::default() });
                    row.push(node);
                }
            }
            // They change lengths, or allow a line to break.
            "allowbreak" | "nobreak" | "relax" | "noindent" | "centering" | "null" | "strut" | "mathstrut" | "hfill"
            | "protect" | "medskip" | "smallskip" | "ensuremath" | "displaybreak" | "allowdisplaybreaks" | "hline" | "-"
            | "/" | "qedhere" => {
                self.stack.pop();
            }
            _ if name == "xspace" || matches!(table::meaning(name), Some(Meaning::TextSize)) => {
                self.stack.pop();
            }
            "leftroot" | "uproot" => {
                self.stack.pop();
                self.words();
            }
            "..." => {
                self.stack.pop();
                row.push(Node::Unparsed("…".to_owned()));
            }
            _ => return false,
        }
        true
    }

    /// `\varlimsup`: a limit with a line or an arrow at it, below which what it goes to stands.
    fn lined_limit(&mut self, name: &str) -> Row {
        let line = match name {
            "varlimsup" => "overline",
            "varliminf" => "underline",
            "varinjlim" => "underrightarrow",
            _ => "underleftarrow",
        };
        if matches!(self.peek(), Some(Kind::Sup | Kind::Sub)) {
            self.stack.extend(tokens("\\limits"));
        }
        self.stack.extend(tokens(&format!("\\{line}{{\\lim}}")));
        self.atom()
    }

    /// Reads an atom with its scripts.
    fn item(&mut self, row: &mut Row) {
        let starts_script = matches!(self.peek(), Some(Kind::Sup | Kind::Sub | Kind::Char('\'' | '’')));
        // What is one character needs no row of its own, as long as nothing is at it.
        if let Some(Token { kind: Kind::Char(c), .. }) = self.stack.last()
            && !starts_script
        {
            let node = self.character(*c);
            self.stack.pop();
            return self.one_item(node, row);
        }
        let base = if starts_script { Vec::new() } else { self.atom() };
        self.item_of(base, starts_script, row);
    }

    /// A node with its scripts.
    fn one_item(&mut self, node: Node, row: &mut Row) {
        if matches!(self.peek(), Some(Kind::Sup | Kind::Sub | Kind::Char('\'' | '’'))) {
            self.item_of(vec![node], false, row);
        } else {
            row.push(node);
        }
    }

    /// An atom with its scripts.
    fn item_of(&mut self, base: Row, starts_script: bool, row: &mut Row) {
        let has_scripts = matches!(self.peek(), Some(Kind::Sup | Kind::Sub | Kind::Char('\'' | '’')));
        let has_limits = matches!(self.peek().and_then(Kind::command), Some("limits" | "nolimits"));
        if !has_scripts || has_limits || (base.is_empty() && !starts_script) {
            row.append(&mut { base });
            return;
        }
        // Of what came to several nodes, scripts are at the last.
        let mut base = base;
        let last = if base.len() > 1 { base.split_off(base.len() - 1) } else { std::mem::take(&mut base) };
        row.extend(base);
        let node = self.scripts(Scripts { base: last, ..Scripts::default() });
        row.push(node);
    }

    /// Reads the scripts behind a base.
    pub(super) fn scripts(&mut self, mut scripts: Scripts) -> Node {
        // What has scripts before it only gets those behind it as well.
        if let [Node::Scripts(inner)] = &scripts.base[..]
            && inner.sub.is_none()
            && inner.sup.is_none()
        {
            scripts = (**inner).clone();
        }
        let mut primes = String::new();
        loop {
            match self.peek() {
                Some(Kind::Char('\'' | '’')) => {
                    self.stack.pop();
                    primes.push('′');
                }
                Some(Kind::Sup) if scripts.sup.is_none() => {
                    self.stack.pop();
                    scripts.sup = Some(self.script());
                }
                Some(Kind::Sub) if scripts.sub.is_none() => {
                    self.stack.pop();
                    scripts.sub = Some(self.script());
                }
                Some(Kind::Sup | Kind::Sub) => {
                    let at = self.at();
                    self.problem(at, "a second script at the same place");
                    break;
                }
                _ => break,
            }
        }
        if !primes.is_empty() {
            let mut sup = vec![Node::operator(primes, Class::Ordinary)];
            sup.extend(scripts.sup.take().unwrap_or_default());
            scripts.sup = Some(sup);
        }
        if scripts.sub.is_none() && scripts.sup.is_none() {
            return scripts.base.pop().unwrap_or(Node::Group(Vec::new()));
        }
        Node::Scripts(Box::new(scripts))
    }

    /// What a script holds: a group, or one atom.
    fn script(&mut self) -> Row {
        match self.peek() {
            Some(Kind::Open) => {
                self.stack.pop();
                self.group()
            }
            Some(Kind::Char('0'..='9')) => match self.stack.pop() {
                Some(Token { kind: Kind::Char(digit), .. }) => vec![self.number(digit)],
                _ => Vec::new(),
            },
            Some(Kind::Close | Kind::Cell) | None => Vec::new(),
            _ => self.atom(),
        }
    }

    /// What is in a group whose brace has been read.
    fn group(&mut self) -> Row {
        let at = self.at();
        let row = self.row(Until::Close);
        if self.stack.pop_if(|token| token.kind == Kind::Close).is_none() && self.stack.is_empty() {
            self.problem(at.min(self.end), "a group is not closed");
        }
        row
    }

    /// An argument: a group, or one atom.
    pub(super) fn argument(&mut self) -> Row {
        self.script()
    }

    /// What is in square brackets, where such come.
    pub(super) fn option(&mut self) -> Option<Row> {
        let inner = bracketed(&mut self.stack)?;
        // It is read on its own, and what comes behind it later.
        let rest = std::mem::replace(&mut self.stack, inner);
        let row = self.row(Until::End);
        self.stack = rest;
        Some(row)
    }

    /// Whether a group comes next.
    pub(super) fn begins_group(&mut self) -> bool {
        self.peek() == Some(&Kind::Open)
    }

    /// Skips a star, where one comes next.
    pub(super) fn skip_star(&mut self) {
        self.stack.pop_if(|token| token.kind == Kind::Char('*'));
    }

    /// An argument as words.
    pub(super) fn words(&mut self) -> String {
        let mut out = String::new();
        for token in argument(&mut self.stack).iter().rev() {
            token.kind.write(&mut out);
        }
        out.trim().to_owned()
    }

    /// A color, by its name or its parts.
    pub(super) fn color(&mut self) -> String {
        let model = bracketed(&mut self.stack).map(|tokens| {
            let mut out = String::new();
            tokens.iter().rev().for_each(|token| token.kind.write(&mut out));
            out
        });
        let named = self.words();
        match model.as_deref() {
            Some("HTML") => format!("#{}", named.to_lowercase()),
            Some("rgb") => {
                let parts = named.split(',').map(|part| part.trim().parse::<f64>().unwrap_or(0.0).clamp(0.0, 1.0));
                let digits: String = parts.take(3).map(|part| format!("{:02x}", (part * 255.0).round() as u8)).collect();
                format!("#{digits}")
            }
            _ => named,
        }
    }

    fn number(&self, digit: char) -> Node {
        Node::Number { text: one(digit), variant: self.variant }
    }

    /// Reads one atom: a character, a command with its arguments, a group.
    pub(super) fn atom(&mut self) -> Row {
        self.peek();
        let Some(token) = self.stack.pop() else { return Vec::new() };
        // Commands may be arguments of commands without any group.
        self.nested += 1;
        let row = if self.nested > 2 * DEEPEST {
            let mut text = String::new();
            token.kind.write(&mut text);
            self.problem(token.at, format!("more than {DEEPEST} commands are within each other"));
            vec![Node::Unparsed(text.trim().to_owned())]
        } else {
            self.atom_of(token)
        };
        self.nested -= 1;
        row
    }

    fn atom_of(&mut self, token: Token) -> Row {
        let at = token.at;
        match token.kind {
            Kind::Open => {
                let row = self.group();
                match <[Node; 1]>::try_from(row) {
                    // A single letter in braces is that letter.
                    Ok(
                        [
                            node @ (Node::Identifier { .. }
                            | Node::Number { .. }
                            | Node::Group(_)
                            | Node::Fraction(_)
                            | Node::Root { .. }
                            | Node::Fenced { .. }
                            | Node::Table(_)),
                        ],
                    ) => vec![node],
                    Ok([node]) => vec![Node::Group(vec![node])],
                    Err(row) => vec![Node::Group(row)],
                }
            }
            Kind::Char(c) => vec![self.character(c)],
            Kind::Command(name) => self.command(&name, at),
            Kind::Parameter(number) => vec![Node::Unparsed(format!("#{number}"))],
            kind => {
                let mut text = String::new();
                kind.write(&mut text);
                self.problem(at, format!("{text} means nothing here"));
                vec![Node::Unparsed(text)]
            }
        }
    }

    fn character(&self, c: char) -> Node {
        match c {
            '0'..='9' => self.number(c),
            'a'..='z' | 'A'..='Z' => Node::Identifier { text: one(c), variant: self.variant },
            '-' => Node::operator("−", Class::Binary),
            '*' => Node::operator("∗", Class::Binary),
            // A prime that is an argument by itself; others are scripts.
            '\'' | '’' => Node::operator("′", Class::Ordinary),
            '~' | '\u{A0}' => Node::Space(6),
            _ => {
                if let Some((plain, variant)) = Variant::split(c) {
                    let text = one(plain);
                    return if plain.is_ascii_digit() {
                        Node::Number { text, variant }
                    } else {
                        Node::Identifier { text, variant }
                    };
                }
                if let Some(class) = table::class_of(c) {
                    return Node::operator(one(c), class);
                }
                let mut bytes = [0; 4];
                match table::command_for(c.encode_utf8(&mut bytes)) {
                    Some((_, symbol)) => table::node(one(c), symbol, self.variant),
                    None if c.is_alphabetic() => Node::Identifier { text: one(c), variant: self.variant },
                    None => Node::operator(one(c), Class::Ordinary),
                }
            }
        }
    }

    /// Reads a command with its arguments.
    fn command(&mut self, name: &str, at: u32) -> Row {
        let meaning = table::meaning(name).or_else(|| match table::meaning(name.strip_suffix('*')?) {
            arrow @ Some(Meaning::Arrow(_)) => arrow,
            _ => None,
        });
        let node = match meaning {
            Some(Meaning::Symbol(text, symbol)) => table::node(text.into(), symbol, self.variant),
            Some(Meaning::Function(shown, limits)) => Node::Function { name: shown.into(), limits },
            Some(Meaning::Space(width)) => Node::Space(width),
            Some(Meaning::Alphabet(variant)) => return self.in_alphabet(variant),
            Some(Meaning::Accent(text, stretches, side)) => return self.accent(Accent { text: text.into(), stretches, side }),
            Some(Meaning::Big(size, class)) => Node::Delimiter(Delimiter { text: self.delimiter(at), size, class }),
            Some(Meaning::Arrow(arrow)) => {
                let under = self.option().filter(|row| !row.is_empty());
                let over = Some(self.argument()).filter(|row| !row.is_empty());
                Node::Stack { base: vec![Node::operator(arrow, Class::Relation)], over, under, stretches: true }
            }
            Some(Meaning::Enclosure(kind)) => Node::Enclosed { kind, body: self.argument() },
            Some(Meaning::Phantom(kind)) => {
                bracketed(&mut self.stack);
                Node::Phantom { kind, body: self.argument() }
            }
            Some(Meaning::Class(class)) => self.classed(class),
            Some(Meaning::Size(_) | Meaning::Switch(_) | Meaning::TextSize) | None => match table::upright_letter(name) {
                Some(text) => Node::Identifier { text: text.into(), variant: Variant::Upright },
                None => return self.construct(name, at),
            },
        };
        vec![node]
    }

    /// Reads what is spaced like something else.
    fn classed(&mut self, class: Class) -> Node {
        let body = self.argument();
        match &body[..] {
            [Node::Operator { text, .. }] => Node::operator(text.clone(), class),
            // A word that has limits is a function.
            [Node::Identifier { text, variant: Variant::Upright }] if class == Class::Large => {
                Node::Function { name: text.clone(), limits: true }
            }
            _ => Node::Classed { class, body },
        }
    }

    /// Reads a fraction, or two things above each other.
    fn fraction(&mut self, name: &str) -> Option<Node> {
        let bar = |over, under, size| Node::Fraction(Box::new(Fraction { over, under, line: Line::Bar, size, fence: None }));
        let binomial = |over, under, size| {
            let fence = Some(("(".into(), ")".into()));
            Node::Fraction(Box::new(Fraction { over, under, line: Line::None, size, fence }))
        };
        Some(match name {
            "frac" => bar(self.argument(), self.argument(), None),
            "dfrac" | "cfrac" => {
                bracketed(&mut self.stack);
                bar(self.argument(), self.argument(), Some(Size::Display))
            }
            "tfrac" => bar(self.argument(), self.argument(), Some(Size::Text)),
            "sfrac" | "nicefrac" | "flatfrac" => {
                let line = if name == "flatfrac" { Line::Linear } else { Line::Skewed };
                let (over, under) = (self.argument(), self.argument());
                Node::Fraction(Box::new(Fraction { over, under, line, size: None, fence: None }))
            }
            "binom" => binomial(self.argument(), self.argument(), None),
            "dbinom" => binomial(self.argument(), self.argument(), Some(Size::Display)),
            "tbinom" => binomial(self.argument(), self.argument(), Some(Size::Text)),
            "genfrac" => self.general_fraction(),
            _ => return None,
        })
    }

    /// Reads a command that builds something of its arguments.
    fn construct(&mut self, name: &str, at: u32) -> Row {
        if let Some(fraction) = self.fraction(name) {
            return vec![fraction];
        }
        let node = match name {
            "sqrt" => {
                let degree = self.option().filter(|row| !row.is_empty());
                Node::Root { body: self.argument(), degree }
            }
            "root" => self.plain_root(),
            "overset" | "stackrel" => {
                let under = if name == "stackrel" { self.option() } else { None };
                let over = Some(self.argument());
                Node::Stack { base: self.argument(), over, under, stretches: false }
            }
            "underset" => {
                let under = Some(self.argument());
                Node::Stack { base: self.argument(), over: None, under, stretches: false }
            }
            "overunderset" => {
                let (over, under) = (Some(self.argument()), Some(self.argument()));
                Node::Stack { base: self.argument(), over, under, stretches: false }
            }
            "sideset" => return self.sideset(),
            "prescript" => {
                let (sup, sub) = (self.argument(), self.argument());
                let filled = |row: Row| Some(row).filter(|row| !row.is_empty());
                let scripts = Scripts { presup: filled(sup), presub: filled(sub), base: self.argument(), ..Scripts::default() };
                Node::Scripts(Box::new(scripts))
            }
            "left" => self.fenced(at),
            "begin" => return environments::read(self, at),
            "operatorname" | "operatorname*" => {
                let words = self.words();
                Node::Function { name: super::constructs::plain_words(&words).into(), limits: name.ends_with('*') }
            }
            "text" | "textrm" | "textup" | "textnormal" | "mbox" | "hbox" | "textit" | "textbf" | "textsf" | "texttt"
            | "textsc" | "textsl" | "textmd" | "emph" | "intertext" | "shortintertext" => return self.text(name),
            "textcolor" | "mathcolor" => {
                let color = self.color();
                Node::Colored { color, ground: false, body: self.argument() }
            }
            "colorbox" => {
                let color = self.color();
                Node::Colored { color, ground: true, body: self.text("text") }
            }
            "not" => self.negated(),
            "mod" | "bmod" => Node::operator("mod", Class::Binary),
            "pmod" | "pod" => return self.modulus(name),
            "substack" => environments::substack(self),
            "ref" | "eqref" => {
                let label = self.words();
                let number = self.macros.number(&label).to_owned();
                Node::Reference { label, parentheses: name == "eqref", number }
            }
            "hspace" | "hspace*" | "hskip" | "kern" | "mspace" | "mkern" | "mskip" => return self.length(name),
            "varlimsup" | "varliminf" | "varinjlim" | "varprojlim" => return self.lined_limit(name),
            "mathinner" | "alert" | "structure" => return self.argument(),
            "vcenter" | "mathchoice" | "mathsurround" => return self.argument(),
            "middle" | "right" | "end" => {
                self.problem(at, format!("\\{name} without its beginning"));
                if name == "end" {
                    self.words();
                } else {
                    self.delimiter(at);
                }
                return Vec::new();
            }
            "\\" | "cr" | "newline" => return Vec::new(),
            _ => {
                let row = self.standing_for(name).or_else(|| super::science::read(self, name));
                let row = row.or_else(|| super::shorthands::read(self, name));
                return row.or_else(|| super::packages::read(self, name, at)).unwrap_or_else(|| self.unknown(name, at));
            }
        };
        vec![node]
    }

    /// Reads a command that stands for others.
    fn standing_for(&mut self, name: &str) -> Option<Row> {
        let others = match name {
            "idotsint" => "\\int\\cdots\\int".to_owned(),
            "vb" => "\\mathbf".to_owned(),
            "i" => "\\imath".to_owned(),
            "j" => "\\jmath".to_owned(),
            "openone" | "bbone" => "\\mathbb{1}".to_owned(),
            // Dots of matrices (the documentation of nicematrix).
            "Cdots" => "\\cdots".to_owned(),
            "Vdots" => "\\vdots".to_owned(),
            "Ddots" => "\\ddots".to_owned(),
            "Ldots" => "\\ldots".to_owned(),
            // With a number of slides behind it, it is another command.
            "alt" if self.peek() != Some(&Kind::Char('<')) => "\\lesssim".to_owned(),
            "hdotsfor" => {
                self.option();
                let columns = self.words().parse().unwrap_or(1).clamp(1, MOST_DOTTED);
                vec!["\\cdots"; columns].join(" & ")
            }
            _ => return None,
        };
        self.stack.extend(tokens(&others));
        Some(self.atom())
    }

    /// A command that nobody knows: its arguments are read, it is shown as it is.
    fn unknown(&mut self, name: &str, at: u32) -> Row {
        self.problem(at, format!("the command \\{name} is not known"));
        vec![Node::Unparsed(format!("\\{name}"))]
    }
}
