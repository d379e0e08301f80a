//! What commands come to while others are read: names, numbers, definitions that are written out, loops (The TeXbook, chapter 20;
//! the documentation of the LaTeX format, of pgffor, multido, forloop and etoolbox).

use super::Reader;
use super::registers::Sort;
use super::tokens::{Kind, Token};
use std::rc::Rc;

/// What is read for a command may ask for others no deeper than this.
const DEEPEST: usize = 60;

/// A loop over a range has no more steps.
const MOST_IN_RANGE: i64 = 10_000;

fn token(name: &str, at: u32) -> Token {
    Token { kind: Kind::Command(name.into()), at }
}

fn group(tokens: impl IntoIterator<Item = Token>, at: u32) -> impl Iterator<Item = Token> {
    let (begin, end) = (Token { kind: Kind::Begin, at }, Token { kind: Kind::End, at });
    std::iter::once(begin).chain(tokens).chain(std::iter::once(end))
}

impl Reader<'_> {
    /// The next token that stands for no others; what does is written out.
    pub(super) fn expanded(&mut self) -> Option<Token> {
        loop {
            let token = self.input.next()?;
            let Kind::Command(name) = &token.kind else { return Some(token) };
            let name = name.clone();
            // What ends a conditional is for what asks for it.
            if !self.expand(&name, token.at) {
                return Some(token);
            }
        }
    }

    /// Does what may ask for itself again; nothing where that went too deep.
    pub(super) fn nested<T>(&mut self, read: impl FnOnce(&mut Self) -> Option<T>) -> Option<T> {
        if self.expanding.depth >= DEEPEST {
            return None;
        }
        self.expanding.depth += 1;
        let found = read(self);
        self.expanding.depth -= 1;
        found
    }

    /// Writes out a command that stands for tokens. Whether it does.
    pub(super) fn expand(&mut self, name: &str, at: u32) -> bool {
        self.macros.expand(name, at, &mut self.input)
            || self.nested(|reader| Some(reader.expand_known(name, at))).unwrap_or(false)
    }

    fn expand_known(&mut self, name: &str, at: u32) -> bool {
        let name = name.trim_start_matches(super::tokens::BUILT_IN);
        match name {
            "csname" | "@nameuse" | "csuse" | "expandafter" | "@firstoftwo" | "@secondoftwo" | "@firstofone" | "@gobble"
            | "@gobbletwo" | "number" | "romannumeral" | "the" | "string" | "detokenize" | "unexpanded" | "meaning"
            | "jobname" | "@arabic" | "@roman" | "@Roman" | "@alph" | "@Alph" => self.made_command(name),
            "unless" => self.conditional(name),
            "arabic" | "alph" | "Alph" | "roman" | "Roman" => self.counter_as_characters(name, at),
            _ if name.starts_with("if") || name.starts_with("@if") => self.conditional(name),
            _ => name.starts_with("the") && self.counters.has(&name[3..]) && self.counter_as_characters(name, at),
        }
    }

    fn counter_as_characters(&mut self, name: &str, at: u32) -> bool {
        let shown = if let Some(counter) = name.strip_prefix("the") {
            self.counters.number(counter)
        } else {
            let counter = self.input.argument();
            let counter = self.input.characters(&counter);
            super::counters::shown_as(self.counters.get(&counter), name)
        };
        self.input.push_characters(&shown, at);
        true
    }

    /// Tokens that others come to now: what they are called may mean something else later.
    pub(super) fn written_out(&mut self, tokens: &[Token]) -> Vec<Token> {
        self.within(tokens, |reader| {
            let mut out = Vec::new();
            while let Some(token) = reader.input.next() {
                let Kind::Command(name) = &token.kind else {
                    out.push(token);
                    continue;
                };
                match &**name {
                    "noexpand" => out.extend(reader.input.next()),
                    "unexpanded" => out.extend(reader.input.argument()),
                    // What is protected stays, as do commands that the document does not define.
                    "protect" => {
                        out.push(token);
                        out.extend(reader.input.next());
                    }
                    "fi" | "else" | "or" => drop(reader.conditional(&name.clone())),
                    _ => {
                        let name = name.clone();
                        if !reader.expand(&name, token.at) {
                            out.push(token);
                        }
                    }
                }
                if !reader.macros.make(1, reader.at) {
                    break;
                }
            }
            out
        })
    }

    /// Definitions whose body is written out. Whether a command is one.
    pub(super) fn written_definition(&mut self, name: &str) -> bool {
        if !matches!(name, "edef" | "xdef" | "protected@edef" | "protected@xdef") {
            return false;
        }
        let Some(defined) = super::macros::name(&mut self.input) else { return true };
        let arguments = super::arguments::pattern(&mut self.input);
        let body = self.input.up_to_end();
        let body = self.written_out(&body);
        self.macros.define_as(defined, arguments, body, name.ends_with("xdef"));
        true
    }

    /// Commands that add to others, or look ahead. Whether a command is one.
    pub(super) fn patch(&mut self, name: &str) -> bool {
        match name {
            "appto" | "gappto" | "preto" | "gpreto" | "eappto" | "xappto" | "epreto" | "xpreto" | "g@addto@macro"
            | "l@addto@macro" | "addto" => {
                let Some(patched) = super::macros::name(&mut self.input) else { return true };
                let words = self.input.argument();
                let words = if name.starts_with(['e', 'x']) { self.written_out(&words) } else { words };
                if name == "addto" && patched.starts_with("captions") {
                    // What packages for languages do where the document begins.
                    self.input.push_all(words.into_iter());
                    return true;
                }
                self.macros.is_global |= name.starts_with(['g', 'x']);
                self.macros.add_to(&patched, words, name.contains("pre"));
            }
            "futurelet" => {
                let Some(named) = super::macros::name(&mut self.input) else { return true };
                let (first, second) = (self.input.single(), self.input.single());
                self.macros.give(named, second.clone());
                self.input.made.extend(second);
                self.input.made.extend(first);
            }
            "global" => self.macros.is_global = true,
            _ => return false,
        }
        true
    }

    /// Loops: what they say is written out as often as they say. Whether a command is one.
    pub(super) fn loop_command(&mut self, name: &str) -> bool {
        let at = self.at;
        match name {
            "loop" => {
                let mut body = self.up_to("repeat");
                body.extend([token("relax", at), token("expandafter", at), token("iterate", at), token("fi", at)]);
                self.macros.define_as("iterate".into(), Rc::from([]), body, false);
                self.input.push(Kind::Command("iterate".into()), at);
            }
            "whiledo" => {
                let (test, body) = (self.input.argument(), self.input.argument());
                if self.test(&test) && self.macros.charge(body.len() + test.len() + 5, at) {
                    let again = [token("whiledo", at)].into_iter().chain(group(test, at)).chain(group(body.clone(), at));
                    self.input.push_all(again.collect::<Vec<_>>().into_iter());
                    self.input.push_all(body.into_iter());
                }
            }
            "@whilenum" | "@whiledim" | "@whilesw" => {
                let test = self.up_to("do");
                let body = self.input.argument();
                let sort = if name == "@whiledim" { Sort::Length } else { Sort::Number };
                let holds = name != "@whilesw" && self.within(&test, |reader| reader.compares(sort)).unwrap_or(false);
                if holds && self.macros.charge(body.len() + test.len() + 5, at) {
                    let again = [token(name, at)].into_iter().chain(test).chain([token("do", at)]).chain(group(body.clone(), at));
                    self.input.push_all(again.collect::<Vec<_>>().into_iter());
                    self.input.push_all(body.into_iter());
                }
            }
            "@for" | "@tfor" => {
                let Some(variable) = super::macros::name(&mut self.input) else { return true };
                let values = self.up_to("do");
                let body = self.input.argument();
                let values = self.input.trimmed(&self.without_sign(values));
                let values = self.list_of(values);
                let parts = if name == "@for" { self.input.split(&values, ',') } else { self.single_tokens(&values) };
                self.for_each(&[variable], parts, &body);
            }
            "foreach" => self.for_each_in(),
            "multido" => self.multiply_out(),
            "forloop" => {
                let step = self.input.option().unwrap_or_default();
                let counter = self.input.argument();
                let (start, test, body) = (self.input.argument(), self.input.argument(), self.input.argument());
                let key = self.input.characters(&counter);
                let value = self.within(&start, Self::number).unwrap_or(0);
                self.counters.set(&key, value);
                let step = if step.is_empty() { vec![Token { kind: Kind::Char('1'), at }] } else { step };
                let count = [token("addtocounter", at)].into_iter().chain(group(counter, at)).chain(group(step, at));
                let body: Vec<Token> = body.into_iter().chain(count).collect();
                let whole = [token("whiledo", at)].into_iter().chain(group(test, at)).chain(group(body, at));
                self.input.push_all(whole.collect::<Vec<_>>().into_iter());
            }
            "forcsvlist" | "docsvlist" | "forlistloop" | "dolistloop" => {
                let handler = if name.starts_with("for") { self.input.argument() } else { vec![token("do", at)] };
                let values = self.input.argument();
                let values = self.list_of(values);
                let mut out = Vec::new();
                for part in self.input.split(&values, ',') {
                    let part = self.input.trimmed(&part);
                    if !part.is_empty() {
                        out.extend(handler.iter().cloned());
                        out.extend(group(part, at));
                    }
                }
                if self.macros.charge(out.len(), at) {
                    self.input.push_all(out.into_iter());
                }
            }
            _ => return false,
        }
        true
    }

    /// What stands before a command, which is taken, too; loops within it are whole.
    fn up_to(&mut self, end: &str) -> Vec<Token> {
        let (mut found, mut depth) = (Vec::new(), 0_usize);
        while let Some(token) = self.input.next() {
            if matches!(token.kind, Kind::Then(_)) {
                self.input.made.push(token);
                break;
            }
            match token.kind.command() {
                Some(name) if name == end && depth == 0 => break,
                Some(name) if name == end => depth -= 1,
                Some("loop") if end == "repeat" => depth += 1,
                _ => {}
            }
            found.push(token);
        }
        found
    }

    /// Tokens behind the sign that sets something.
    fn without_sign(&self, tokens: Vec<Token>) -> Vec<Token> {
        let mut rest = super::Input::of_tokens(self.input.source, tokens.into_iter());
        for sign in [':', '='] {
            rest.skip_white();
            rest.takes_character(sign);
        }
        std::iter::from_fn(|| rest.next()).collect()
    }

    /// A list that may be kept under the name of a command.
    fn list_of(&mut self, tokens: Vec<Token>) -> Vec<Token> {
        match &tokens[..] {
            [Token { kind: Kind::Command(name), .. }] if self.macros.knows(name) => self.written_out(&tokens),
            _ => tokens,
        }
    }

    fn single_tokens(&self, tokens: &[Token]) -> Vec<Vec<Token>> {
        let mut rest = super::Input::of_tokens(self.input.source, tokens.iter().cloned());
        let mut parts = Vec::new();
        loop {
            rest.skip_white();
            if rest.made.is_empty() {
                return parts;
            }
            parts.push(rest.argument());
        }
    }

    /// Writes out a body for each of some values, which commands stand for in it.
    fn for_each(&mut self, variables: &[Rc<str>], values: Vec<Vec<Token>>, body: &[Token]) {
        let at = self.at;
        let mut out = Vec::new();
        for value in values {
            let value = self.input.trimmed(&value);
            if value.is_empty() {
                continue;
            }
            let parts = if variables.len() > 1 { self.input.split(&value, '/') } else { vec![value] };
            if !self.macros.charge(body.len() + 6 * variables.len() + parts.iter().map(Vec::len).sum::<usize>(), at) {
                break;
            }
            for (number, variable) in variables.iter().enumerate() {
                // What has no value of its own has that of the one before.
                let part = parts.get(number).or(parts.last()).map_or(&[][..], |part| part);
                out.extend([token("def", at), Token { kind: Kind::Command(variable.clone()), at }]);
                out.extend(group(part.iter().cloned(), at));
            }
            out.extend(body.iter().cloned());
        }
        self.input.push_all(out.into_iter());
    }

    /// `\foreach \x/\y in {1/a, 2/b} {...}`: values by commas, with ranges by dots.
    fn for_each_in(&mut self) {
        let mut variables = Vec::new();
        self.input.option();
        loop {
            self.input.skip_white();
            let Some(next) = self.input.single() else { return };
            match &next.kind {
                Kind::Command(name) if variables.len() < 9 => variables.push(name.clone()),
                _ if self.input.character_of(&next) == Some('/') => {}
                _ => {
                    self.input.made.push(next);
                    break;
                }
            }
        }
        self.input.skip_white();
        self.input.option();
        self.input.skip_white();
        if !(self.input.takes_character('i') && self.input.takes_character('n')) {
            return;
        }
        let values = self.input.argument();
        let values = self.list_of(values);
        self.input.skip_white();
        let body = self.input.argument();
        let values = self.input.split(&values, ',');
        let values = self.with_ranges(values);
        self.for_each(&variables, values, &body);
    }

    /// Values with those that dots between two stand for.
    fn with_ranges(&mut self, values: Vec<Vec<Token>>) -> Vec<Vec<Token>> {
        let at = self.at;
        let text: Vec<String> = values.iter().map(|value| self.input.characters(value)).collect();
        let number = |at: usize| text.get(at).and_then(|text| text.trim().parse::<i64>().ok());
        let letter = |at: usize| {
            let mut letters = text.get(at)?.trim().chars();
            letters.next().filter(|c| c.is_ascii_alphabetic() && letters.next().is_none())
        };
        let mut out: Vec<Vec<Token>> = Vec::new();
        for (place, value) in values.iter().enumerate() {
            if text[place].trim() != "..." || place == 0 {
                out.push(value.clone());
                continue;
            }
            if let (Some(last), Some(end)) = (number(place - 1), number(place + 1)) {
                let step = place.checked_sub(2).and_then(number).map_or((end - last).signum(), |before| last - before);
                let mut next = last.saturating_add(step);
                let mut steps = 0;
                while step != 0 && if step > 0 { next < end } else { next > end } {
                    if steps == MOST_IN_RANGE {
                        self.macros.exceeded.get_or_insert(at);
                        break;
                    }
                    out.push(next.to_string().chars().map(|c| Token { kind: Kind::Char(c), at }).collect());
                    next = next.saturating_add(step);
                    steps += 1;
                }
            } else if let (Some(last), Some(end)) = (letter(place - 1), letter(place + 1)) {
                let between = (u32::from(last) + 1..u32::from(end)).filter_map(char::from_u32);
                out.extend(between.map(|c| vec![Token { kind: Kind::Char(c), at }]));
            }
        }
        out
    }

    /// `\multido{\i=1+1}{5}{...}`
    fn multiply_out(&mut self) {
        self.input.option();
        let (said, count, body) = (self.input.argument(), self.input.argument(), self.input.argument());
        let count = self.within(&count, Self::number).unwrap_or(0).max(0);
        if count > MOST_IN_RANGE {
            self.macros.exceeded.get_or_insert(self.at);
        }
        let count = count.min(MOST_IN_RANGE);
        let first = self.input.split(&said, ',').into_iter().next().unwrap_or_default();
        let variable = first.first().and_then(|token| token.kind.command()).map(Rc::from);
        let text = self.input.characters(first.get(1..).unwrap_or_default());
        let said = text.trim_start_matches('=');
        let (start, step) = said.split_once('+').unwrap_or((said, "0"));
        let (start, step) = (start.trim().parse::<i64>().unwrap_or(0), step.trim().parse::<i64>().unwrap_or(0));
        let at = self.at;
        let values = (0..count).map(|number| {
            let value = start.saturating_add(step.saturating_mul(number));
            value.to_string().chars().map(|c| Token { kind: Kind::Char(c), at }).collect()
        });
        let variables: Vec<Rc<str>> = variable.into_iter().collect();
        self.for_each(&variables, values.collect(), &body);
    }

    /// The argument in capital or in small letters: not formulas, nor what is named and not shown.
    pub(super) fn change_case(&mut self, name: &str) {
        const NAMES: [&str; 12] =
            ["ref", "label", "cite", "begin", "end", "href", "url", "eqref", "pageref", "includegraphics", "citep", "citet"];
        let next = self.expanded();
        self.input.made.extend(next);
        let words = self.input.argument();
        let words = self.written_out(&words);
        let to_upper = name.contains("Upper") || name == "uppercase";
        let (mut out, mut in_formula, mut named) = (Vec::with_capacity(words.len()), false, None::<usize>);
        let mut is_first = name.contains("Title");
        for token in words {
            match (&token.kind, &mut named) {
                (Kind::Begin, Some(depth)) => *depth += 1,
                (Kind::End, Some(depth)) if *depth <= 1 => named = None,
                (Kind::End, Some(depth)) => *depth -= 1,
                (Kind::Space | Kind::Text(..) | Kind::Char('[' | ']' | '*'), Some(_)) => {}
                (_, Some(0)) => named = None,
                _ => {}
            }
            match &token.kind {
                Kind::Dollar => in_formula = !in_formula,
                Kind::Command(command) if NAMES.contains(&&**command) => named = Some(0),
                Kind::Text(start, end) if !in_formula && named.is_none() => {
                    for c in self.input.slice(*start, *end).chars() {
                        let mut push = |c: char| {
                            let kind = if c == ' ' { Kind::Space } else { Kind::Char(c) };
                            out.push(Token { kind, at: token.at });
                        };
                        if to_upper || is_first && name.contains("Title") {
                            c.to_uppercase().for_each(&mut push);
                        } else if name.contains("Title") {
                            push(c);
                        } else {
                            c.to_lowercase().for_each(&mut push);
                        }
                        is_first = false;
                    }
                    continue;
                }
                Kind::Char(c) if c.is_alphabetic() && !in_formula && named.is_none() => {
                    let kind = |c: char| Token { kind: Kind::Char(c), at: token.at };
                    if to_upper {
                        out.extend(c.to_uppercase().map(kind));
                    } else {
                        out.extend(c.to_lowercase().map(kind));
                    }
                    continue;
                }
                _ => {}
            }
            out.push(token);
        }
        if self.macros.charge(out.len(), self.at) {
            self.input.push_all(out.into_iter());
        }
    }

    /// A command without the space that its name took, where a word follows (the documentation of xspace).
    pub(super) fn space_if_needed(&mut self) {
        let Some(next) = self.input.next() else { return };
        let needs = match &next.kind {
            Kind::Text(start, end) => !self.input.slice(*start, *end).starts_with([' ', '.', ',', ';', ':', '/', ')', '!', '?']),
            Kind::Command(name) => !matches!(
                &**name,
                " " | "/" | "space" | "footnote" | "footnotemark" | "xspace" | "bgroup" | "egroup" | "@" | "," | "par"
            ),
            Kind::Char(c) => !matches!(c, '\'' | '\u{2019}' | '-' | '!' | '?' | ']' | ')' | '"' | '`' | '~'),
            Kind::Dollar => true,
            _ => false,
        };
        self.input.made.push(next);
        if needs {
            self.text(" ");
        }
    }
}
