//! Numbers and lengths: how they are written, kept in registers and reckoned with (The TeXbook, chapters 15 and 24; the e-TeX
//! manual, "Expressions"; the documentation of calc).

use super::Reader;
use super::tokens::{Input, Kind, Token};
use crate::fast_hash::HashMap;
use std::rc::Rc;

/// What the name of a command begins with that stands for a register; the sort of it comes next, then its name.
const REGISTER: char = '\u{1}';

/// Lengths are counted in these parts of a point.
const SCALED: i64 = 1 << 16;

/// Numbers are no larger, nor are lengths in scaled points.
const LARGEST: i64 = (1 << 31) - 1;

/// Expressions stand no deeper within each other.
const DEEPEST: usize = 40;

/// What a register holds.
#[derive(Clone, Copy, Debug, PartialEq, Eq)]
pub(super) enum Sort {
    Number,
    Length,
    Tokens,
}

/// What can be set to a number or a length.
#[derive(Debug)]
enum Target {
    Register(Sort, String),
    /// A counter of LaTeX.
    Counter(String),
}

/// What registers hold.
#[derive(Debug, Default)]
pub(super) struct Registers {
    /// Numbers, lengths and switches.
    numbers: HashMap<String, i64>,
    /// What numbers were before groups that are open, to be restored where these end.
    saved: Vec<(String, Option<i64>, usize)>,
    /// What was set for all groups, and how many settings came before.
    for_all: HashMap<String, usize>,
    settings: usize,
    tokens: HashMap<String, Rc<[Token]>>,
    /// What is read behind the next setting.
    after_setting: Option<Token>,
}

/// The command that stands for a register, by the command that asks for it.
pub(super) fn command(asked: &str, name: &str) -> Kind {
    let sort = match asked {
        "newcount" => 'n',
        "newtoks" => 't',
        _ => 'l',
    };
    Kind::Command(format!("{REGISTER}{sort}{name}").into())
}

/// The name of a register as the document writes it; the name of another command as it is.
pub(super) fn name_of(name: &str) -> &str {
    name.strip_prefix(REGISTER).and_then(|rest| rest.get(1..)).unwrap_or(name)
}

/// What sort of register a command stands for, and its name.
fn register(command: &str) -> Option<(Sort, &str)> {
    let rest = command.strip_prefix(REGISTER)?;
    let sort = match rest.chars().next()? {
        'n' => Sort::Number,
        't' => Sort::Tokens,
        _ => Sort::Length,
    };
    Some((sort, &rest[1..]))
}

/// Whether a command stands for a register.
pub(super) fn is_register(command: &str) -> bool {
    command.starts_with(REGISTER)
}

/// Numbers and lengths that commands of the format stand for, lengths in points.
fn known(name: &str) -> Option<(Sort, i64)> {
    Some(match name {
        "z@" => (Sort::Length, 0),
        "p@" => (Sort::Length, SCALED),
        "m@ne" => (Sort::Number, -1),
        "@ne" => (Sort::Number, 1),
        "tw@" => (Sort::Number, 2),
        "thr@@" => (Sort::Number, 3),
        "sixt@@n" => (Sort::Number, 16),
        "@cclv" => (Sort::Number, 255),
        "@m" => (Sort::Number, 1000),
        "@M" => (Sort::Number, 10_000),
        "active" => (Sort::Number, 13),
        "maxdimen" => (Sort::Length, (1 << 30) - 1),
        "textwidth" | "linewidth" | "columnwidth" | "hsize" => (Sort::Length, 345 * SCALED),
        "textheight" | "vsize" => (Sort::Length, 550 * SCALED),
        "paperwidth" => (Sort::Length, 597 * SCALED),
        "paperheight" => (Sort::Length, 845 * SCALED),
        "baselineskip" => (Sort::Length, 12 * SCALED),
        "parindent" => (Sort::Length, 15 * SCALED),
        "tabcolsep" => (Sort::Length, 6 * SCALED),
        "unitlength" => (Sort::Length, SCALED),
        "parskip" | "leftskip" | "rightskip" => (Sort::Length, 0),
        _ => return None,
    })
}

/// A length as TeX shows it: with as many places as say it exactly (The TeXbook, "print_scaled").
fn shown_length(length: i64) -> String {
    let sign = if length < 0 { "-" } else { "" };
    let length = length.abs();
    let mut out = format!("{sign}{}.", length / SCALED);
    let (mut rest, mut step) = (10 * (length % SCALED) + 5, 10);
    loop {
        if step > SCALED {
            rest += 0x8000 - 50_000;
        }
        out.push(char::from(b'0' + (rest / SCALED).clamp(0, 9) as u8));
        rest = 10 * (rest % SCALED);
        step *= 10;
        if rest <= step {
            return out + "pt";
        }
    }
}

/// Scaled points in a unit, as a fraction.
fn unit(name: &str) -> Option<(i64, i64)> {
    Some(match name {
        "pt" => (1, 1),
        "mm" => (7227, 2540),
        "cm" => (7227, 254),
        "in" => (7227, 100),
        "bp" => (7227, 7200),
        "pc" => (12, 1),
        "dd" => (1238, 1157),
        "cc" => (14_856, 1157),
        "em" => (10, 1),
        "ex" => (43, 10),
        "mu" => (10, 18),
        _ => return None,
    })
}

impl Registers {
    fn get(&self, name: &str) -> i64 {
        self.numbers.get(name).copied().unwrap_or(0)
    }

    /// Whether a switch is on, where there is such a one.
    pub(super) fn switch(&self, name: &str) -> Option<bool> {
        self.numbers.get(name).map(|value| *value != 0)
    }

    pub(super) fn set(&mut self, name: String, value: i64, is_global: bool) {
        self.settings += 1;
        if is_global {
            self.for_all.insert(name.clone(), self.settings);
            self.numbers.insert(name, value);
            return;
        }
        let before = self.numbers.insert(name.clone(), value);
        self.saved.push((name, before, self.settings));
    }

    /// What a number is, where it was set.
    pub(super) fn number_of(&self, name: &str) -> Option<i64> {
        self.numbers.get(name).copied()
    }

    /// How many settings there are to restore.
    pub(super) const fn mark(&self) -> usize {
        self.saved.len()
    }

    /// Where a group ends, registers hold what they held before it. Whether categories of characters are among them.
    pub(super) fn restore(&mut self, mark: usize) -> bool {
        let mut has_categories = false;
        for (name, before, number) in self.saved.drain(mark.min(self.saved.len())..).rev() {
            has_categories |= super::categories::is_category(&name);
            if self.for_all.get(&name).is_some_and(|global| *global >= number) {
                continue;
            }
            match before {
                Some(value) => drop(self.numbers.insert(name, value)),
                None => drop(self.numbers.remove(&name)),
            }
        }
        has_categories
    }
}

impl Reader<'_> {
    /// Commands that set numbers and lengths, and reckon with them. Whether a command is one.
    pub(super) fn register_command(&mut self, name: &str) -> bool {
        match name {
            "advance" | "multiply" | "divide" => self.arithmetic(name),
            "setlength" | "addtolength" => {
                let (target, value) = (self.input.argument(), self.input.argument());
                if let Some(Target::Register(_, register)) = self.target_of(&target)
                    && let Some(value) = self.within(&value, |reader| reader.expression(Sort::Length, 0))
                {
                    let before = if name == "setlength" { 0 } else { self.registers.get(&register) };
                    self.set_number(register, (before + value).clamp(-LARGEST, LARGEST));
                }
            }
            "settowidth" | "settoheight" | "settodepth" => self.skip_arguments("mm"),
            "count" | "dimen" | "skip" | "toks" => {
                let Some(target) = self.numbered(name) else { return true };
                self.assign(target);
            }
            "countdef" | "dimendef" | "skipdef" | "toksdef" => {
                let Some(defined) = super::macros::name(&mut self.input) else { return true };
                let sort = name.trim_end_matches("def");
                self.skip_sign();
                let number = self.number().unwrap_or(0);
                let asked = format!("new{sort}");
                let token = Token { kind: command(&asked, &format!("{sort}{number}")), at: self.at };
                self.macros.define_as(defined, Rc::from([]), vec![token], false);
            }
            "chardef" | "mathchardef" => {
                let Some(defined) = super::macros::name(&mut self.input) else { return true };
                self.skip_sign();
                let number = self.number().unwrap_or(0);
                let at = self.at;
                let mut body = vec![Token { kind: Kind::Command("char".into()), at }];
                body.extend(number.to_string().chars().map(|c| Token { kind: Kind::Char(c), at }));
                // A space ends the number.
                body.push(Token { kind: Kind::Space, at });
                self.macros.define_as(defined, Rc::from([]), body, false);
            }
            "vrule" => self.skip_rule(),
            "hbox" | "vbox" | "vtop" | "vcenter" => {
                if self.takes_word("to") || self.takes_word("spread") {
                    self.length();
                }
            }
            "write" | "openout" | "openin" | "closeout" | "closein" | "read" => {
                self.number();
                match name {
                    "write" => drop(self.input.argument()),
                    "openout" | "openin" => drop((self.skip_sign(), self.takes_file_name())),
                    "read" => {
                        self.takes_word("to");
                        self.input.next();
                    }
                    _ => {}
                }
            }
            "afterassignment" => self.registers.after_setting = self.input.next(),
            _ if name.starts_with("c@") && self.counters.has(&name[2..]) => {
                self.assign(Target::Counter(name[2..].to_owned()));
            }
            _ => return false,
        }
        true
    }

    /// Sets the register that a command stands for, where a value follows.
    pub(super) fn set_register(&mut self, command: &str) {
        if let Some((sort, name)) = register(command) {
            self.assign(Target::Register(sort, name.to_owned()));
        }
    }

    /// What is read behind a setting comes next.
    pub(super) fn has_set(&mut self) {
        if let Some(token) = self.registers.after_setting.take() {
            self.input.made.push(token);
        }
    }

    /// The name of a file, which ends at white space.
    fn takes_file_name(&mut self) {
        while let Some(c) = self.character_ahead() {
            if c == ' ' {
                return;
            }
        }
    }

    /// How wide, high and deep a rule is.
    pub(super) fn skip_rule(&mut self) {
        let words = ["width", "height", "depth"];
        while words.iter().any(|word| self.takes_word(word)) {
            self.length();
        }
    }

    fn set_number(&mut self, name: String, value: i64) {
        let is_global = std::mem::take(&mut self.macros.is_global);
        self.registers.set(name, value, is_global);
    }

    fn assign(&mut self, target: Target) {
        let is_there = self.skip_sign();
        match target {
            Target::Register(Sort::Tokens, name) => {
                let value = self.input.argument();
                if self.macros.charge(value.len(), self.at) {
                    self.registers.tokens.insert(name, value.into());
                }
            }
            Target::Register(Sort::Number, name) => {
                if let Some(value) = self.number() {
                    self.set_number(name, value);
                }
            }
            Target::Register(Sort::Length, name) => {
                if let Some(value) = self.length() {
                    self.skip_stretch();
                    self.set_number(name, value);
                }
            }
            Target::Counter(name) => {
                if is_there && let Some(value) = self.number() {
                    self.counters.set(&name, value);
                }
            }
        }
        self.has_set();
    }

    /// `\advance`, `\multiply` and `\divide`.
    fn arithmetic(&mut self, how: &str) {
        let Some(token) = self.expanded() else { return };
        let Some(name) = token.kind.command().map(str::to_owned) else { return self.input.made.push(token) };
        let target = match &*name {
            "count" | "dimen" | "skip" => self.numbered(&name),
            _ => self.target_of(&[token]),
        };
        self.takes_word("by");
        let sort = match target {
            Some(Target::Register(sort, _)) => sort,
            Some(Target::Counter(_)) => Sort::Number,
            None => Sort::Length,
        };
        let value = if how == "advance" && sort == Sort::Length { self.length() } else { self.number() };
        if sort == Sort::Length {
            self.skip_stretch();
        }
        let (Some(value), Some(target)) = (value, target) else { return };
        let known = match &target {
            Target::Register(_, name) => self.registers.get(name),
            Target::Counter(name) => self.counters.get(name),
        };
        let value = match how {
            "advance" => known + value,
            "multiply" => known.saturating_mul(value),
            _ if value == 0 => known,
            _ => known / value,
        };
        let value = value.clamp(-LARGEST, LARGEST);
        match target {
            Target::Register(_, name) => self.set_number(name, value),
            Target::Counter(name) => self.counters.set(&name, value),
        }
        self.has_set();
    }

    /// The register or counter that tokens name.
    fn target_of(&self, tokens: &[Token]) -> Option<Target> {
        let name = tokens.first()?.kind.command()?;
        let name = self.macros.only_token(name).and_then(|token| token.kind.command()).unwrap_or(name);
        if let Some((sort, name)) = register(name) {
            return Some(Target::Register(sort, name.to_owned()));
        }
        let counter = name.strip_prefix("c@")?;
        self.counters.has(counter).then(|| Target::Counter(counter.to_owned()))
    }

    /// A register by its number.
    fn numbered(&mut self, sort: &str) -> Option<Target> {
        let number = self.number()?;
        let kind = match sort {
            "count" => Sort::Number,
            "toks" => Sort::Tokens,
            _ => Sort::Length,
        };
        Some(Target::Register(kind, format!("{sort}{number}")))
    }

    /// Skips the sign of equality before a value. Whether it is there.
    pub(super) fn skip_sign(&mut self) -> bool {
        self.input.skip_white();
        let is_there = self.input.takes_character('=');
        self.input.skip_white();
        is_there
    }

    /// What a length stretches and shrinks by.
    fn skip_stretch(&mut self) {
        // What comes next is not written out where it is none of it.
        if matches!(self.input.made.last(), Some(token) if token.kind.command().is_some())
            || self.input.made.is_empty() && self.input.source[self.input.at..].starts_with('\\')
        {
            return;
        }
        for word in ["plus", "minus"] {
            if self.takes_word(word) {
                self.length();
            }
        }
    }

    /// Reads tokens by themselves.
    pub(super) fn within<T>(&mut self, tokens: &[Token], read: impl FnOnce(&mut Self) -> T) -> T {
        let inner = Input::of_tokens(self.input.source, tokens.iter().cloned());
        let outer = std::mem::replace(&mut self.input, inner);
        let found = read(self);
        let inner = std::mem::replace(&mut self.input, outer);
        if self.input.exceeded.is_none() {
            self.input.exceeded = inner.exceeded;
        }
        found
    }

    /// The next character, where one comes when commands are written out.
    fn character_ahead(&mut self) -> Option<char> {
        let token = self.expanded()?;
        let found = match token.kind {
            Kind::Space | Kind::Par => Some(' '),
            Kind::Text(start, end) => {
                let first = self.input.slice(start, end).chars().next()?;
                let behind = start + first.len_utf8() as u32;
                if behind < end {
                    self.input.push(Kind::Text(behind, end), behind);
                }
                return Some(first);
            }
            Kind::Char(c) => Some(c),
            _ => None,
        };
        if found.is_none() || token.kind == Kind::Par {
            self.input.made.push(token);
            return None;
        }
        found
    }

    fn put_back(&mut self, c: char) {
        let at = self.input.place();
        self.input.push(if c == ' ' { Kind::Space } else { Kind::Char(c) }, at);
    }

    /// Takes a word, where it is next.
    fn takes_word(&mut self, word: &str) -> bool {
        let mut taken = Vec::new();
        let mut rest = word.chars();
        let mut wanted = rest.next();
        while let Some(letter) = wanted {
            match self.character_ahead() {
                Some(' ') if taken.iter().all(|c| *c == ' ') && taken.len() < 8 => taken.push(' '),
                Some(c) if c.eq_ignore_ascii_case(&letter) => {
                    taken.push(c);
                    wanted = rest.next();
                }
                other => {
                    for c in taken.into_iter().chain(other).rev() {
                        self.put_back(c);
                    }
                    return false;
                }
            }
        }
        true
    }

    /// A number that stands here: digits, a character, a register, a counter, an expression (The TeXbook, "number").
    pub(super) fn number(&mut self) -> Option<i64> {
        let mut is_negative = false;
        let value = loop {
            match self.character_ahead() {
                Some(' ' | '+') => {}
                Some('-') => is_negative = !is_negative,
                Some(c @ '0'..='9') => break self.digits(10, Some(c)),
                Some('"') => break self.digits(16, None),
                Some('\'' | '\u{2019}') => break self.digits(8, None),
                Some('`') => {
                    let token = self.input.single()?;
                    let of_command = token.kind.command().and_then(|name| name.chars().next());
                    let c = of_command.or_else(|| self.input.character_of(&token));
                    self.skip_space();
                    break c.map_or(0, |c| i64::from(u32::from(c)));
                }
                Some(c) => {
                    self.put_back(c);
                    return None;
                }
                None => break self.value(Sort::Number)?,
            }
        };
        Some(if is_negative { -value } else { value })
    }

    fn digits(&mut self, base: u32, first: Option<char>) -> i64 {
        let mut value = first.and_then(|c| c.to_digit(base)).map_or(0, i64::from);
        loop {
            match self.character_ahead() {
                Some(c) if c.is_digit(base) => {
                    value = (value * i64::from(base) + i64::from(c.to_digit(base).unwrap_or(0))).min(LARGEST);
                }
                Some(' ') | None => return value,
                Some(c) => {
                    self.put_back(c);
                    return value;
                }
            }
        }
    }

    fn skip_space(&mut self) {
        match self.character_ahead() {
            Some(' ') | None => {}
            Some(c) => self.put_back(c),
        }
    }

    /// A length, in scaled points (The TeXbook, "dimen").
    pub(super) fn length(&mut self) -> Option<i64> {
        let (mut is_negative, mut digits) = (false, String::new());
        loop {
            match self.character_ahead() {
                Some(' ') if digits.is_empty() => {}
                Some('+') if digits.is_empty() => {}
                Some('-') if digits.is_empty() => is_negative = !is_negative,
                Some(c @ ('0'..='9' | '.' | ',')) if digits.len() < 20 => digits.push(if c == ',' { '.' } else { c }),
                Some(c) => {
                    self.put_back(c);
                    break;
                }
                None => break,
            }
        }
        let value = if digits.is_empty() { self.value(Sort::Length)? } else { self.in_units(&digits)? };
        let value = value.clamp(-LARGEST, LARGEST);
        Some(if is_negative { -value } else { value })
    }

    /// A number times the unit or the length that comes next, in scaled points.
    fn in_units(&mut self, digits: &str) -> Option<i64> {
        let (whole, fraction) = digits.split_once('.').unwrap_or((digits, ""));
        let whole = whole.parse::<i64>().unwrap_or(0).min(LARGEST / SCALED);
        let fraction = fraction.get(..fraction.len().min(9)).filter(|digits| !digits.is_empty() && !digits.contains('.'));
        let part = fraction.map_or(0, |digits| {
            let scale = 10_i64.pow(digits.len() as u32);
            (digits.parse::<i64>().unwrap_or(0) * SCALED * 2 + scale) / (2 * scale)
        });
        let points = whole * SCALED + part;
        self.takes_word("true");
        for name in ["pt", "mm", "cm", "in", "bp", "pc", "dd", "cc", "em", "ex", "mu"] {
            if self.takes_word(name) {
                self.skip_space();
                return unit(name).map(|(above, below)| points * above / below);
            }
        }
        if self.takes_word("sp") {
            self.skip_space();
            return Some(whole);
        }
        if self.takes_word("fil") {
            while self.takes_word("l") {}
            return Some(0);
        }
        // A register or a length of the page is the unit.
        let is_command = {
            let token = self.expanded()?;
            let is_command = token.kind.command().is_some();
            self.input.made.push(token);
            is_command
        };
        if !is_command {
            return Some(0);
        }
        let unit = self.value(Sort::Length)?;
        Some((i128::from(points) * i128::from(unit) / i128::from(SCALED)) as i64)
    }

    /// What the command stands for that comes next, as a number or as a length.
    fn value(&mut self, wanted: Sort) -> Option<i64> {
        self.nested(|reader| reader.value_here(wanted))
    }

    fn value_here(&mut self, wanted: Sort) -> Option<i64> {
        let token = self.expanded()?;
        let Some(name) = token.kind.command().map(str::to_owned) else {
            self.input.made.push(token);
            return None;
        };
        if let Some((sort, name)) = register(&name) {
            return (sort != Sort::Tokens).then(|| self.registers.get(name));
        }
        match &*name {
            "value" => {
                let counter = self.input.argument();
                Some(self.counters.get(&self.input.characters(&counter)))
            }
            "numexpr" | "dimexpr" | "glueexpr" => {
                let value = self.expression(if name == "numexpr" { Sort::Number } else { Sort::Length }, 0)?;
                match self.input.next() {
                    Some(token) if token.kind.command() == Some("relax") => {}
                    other => self.input.made.extend(other),
                }
                Some(value)
            }
            "count" | "dimen" | "skip" => match self.numbered(&name)? {
                Target::Register(_, name) => Some(self.registers.get(&name)),
                Target::Counter(_) => None,
            },
            "char" => self.number(),
            "real" if wanted == Sort::Number => {
                self.input.argument();
                None
            }
            _ => {
                let counter = name.strip_prefix("c@").map(|counter| self.counters.get(counter));
                let found = counter.or_else(|| known(&name).map(|(_, value)| value));
                if found.is_none() {
                    self.input.made.push(token);
                }
                found
            }
        }
    }

    /// Values with signs between them (the e-TeX manual, `\numexpr` and `\dimexpr`).
    pub(super) fn expression(&mut self, sort: Sort, depth: usize) -> Option<i64> {
        let mut sum = self.product(sort, depth)?;
        loop {
            let sign = match self.character_ahead() {
                Some(' ') => continue,
                Some('+') => 1,
                Some('-') => -1,
                Some(c) => {
                    self.put_back(c);
                    return Some(sum);
                }
                None => return Some(sum),
            };
            sum = (sum + sign * self.product(sort, depth)?).clamp(-LARGEST, LARGEST);
        }
    }

    fn product(&mut self, sort: Sort, depth: usize) -> Option<i64> {
        let mut value = self.factor(sort, depth)?;
        loop {
            let is_times = match self.character_ahead() {
                Some(' ') => continue,
                Some('*') => true,
                Some('/') => false,
                Some(c) => {
                    self.put_back(c);
                    return Some(value);
                }
                None => return Some(value),
            };
            let other = self.factor(Sort::Number, depth)?;
            value = match (is_times, other) {
                (true, _) => value.saturating_mul(other),
                (false, 0) => return None,
                // To the nearest, halves away from nothing.
                (false, _) => {
                    let half = other.abs() / 2;
                    let size = (value.abs() + half) / other.abs();
                    if (value < 0) == (other < 0) { size } else { -size }
                }
            }
            .clamp(-LARGEST, LARGEST);
        }
    }

    fn factor(&mut self, sort: Sort, depth: usize) -> Option<i64> {
        if depth > DEEPEST {
            return None;
        }
        loop {
            match self.character_ahead() {
                Some(' ') => {}
                Some('(') => {
                    let value = self.expression(sort, depth + 1)?;
                    match self.character_ahead() {
                        Some(')') | None => {}
                        Some(c) => self.put_back(c),
                    }
                    return Some(value);
                }
                Some(c) => {
                    self.put_back(c);
                    break;
                }
                None => break,
            }
        }
        if sort == Sort::Number { self.number() } else { self.length() }
    }

    /// What `\the` shows of what comes next, as tokens before all others.
    pub(super) fn show_the(&mut self, at: u32) {
        let Some(token) = self.expanded() else { return };
        let Some(name) = token.kind.command().map(str::to_owned) else { return self.input.made.push(token) };
        let sort = match (register(&name), &*name) {
            (Some((Sort::Tokens, name)), _) => {
                if let Some(tokens) = self.registers.tokens.get(name).cloned()
                    && self.macros.charge(tokens.len(), at)
                {
                    self.input.push_all(tokens.iter().cloned());
                }
                return;
            }
            (Some((sort, _)), _) => sort,
            (None, "dimexpr" | "dimen" | "skip" | "glueexpr") => Sort::Length,
            (None, "toks") => {
                if let Some(Target::Register(_, name)) = self.numbered(&name)
                    && let Some(tokens) = self.registers.tokens.get(&name).cloned()
                    && self.macros.charge(tokens.len(), at)
                {
                    self.input.push_all(tokens.iter().cloned());
                }
                return;
            }
            (None, "numexpr" | "count" | "value") => Sort::Number,
            (None, _) if name.starts_with("c@") => Sort::Number,
            (None, _) => match known(&name) {
                Some((sort, _)) => sort,
                // What nothing is known of shows nothing.
                None => return,
            },
        };
        self.input.made.push(token);
        let Some(value) = self.value(sort) else { return };
        let shown = if sort == Sort::Length { shown_length(value) } else { value.to_string() };
        self.input.push_characters(&shown, at);
    }

    /// The first of two numbers is less than the second, the same, or more: what the sign between them says.
    pub(super) fn compares(&mut self, sort: Sort) -> Option<bool> {
        let value = |reader: &mut Self| if sort == Sort::Number { reader.number() } else { reader.length() };
        let one = value(self)?;
        let sign = loop {
            match self.character_ahead()? {
                ' ' => {}
                c => break c,
            }
        };
        let order = match sign {
            '<' => std::cmp::Ordering::Less,
            '>' => std::cmp::Ordering::Greater,
            '=' => std::cmp::Ordering::Equal,
            c => {
                self.put_back(c);
                return None;
            }
        };
        let other = value(self)?;
        Some(one.cmp(&other) == order)
    }
}
