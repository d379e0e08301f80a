//! Conditionals: those that can be decided are, all others go the way of what is not so (The TeXbook, chapter 20; the documentation
//! of ifthen, etoolbox and document commands).

use super::Reader;
use super::tokens::{Kind, Token};

/// What toggles are kept under, apart from conditionals.
const TOGGLE: &str = "toggle ";

impl Reader<'_> {
    /// Takes what a conditional says. Whether a command is one.
    pub(super) fn conditional(&mut self, name: &str) -> bool {
        match name {
            "fi" => {}
            // What was read was the first way: the other is none.
            "else" | "or" => self.skip_way(false),
            "newif" => {
                if let Some(name) = self.input.next().and_then(|token| token.kind.command().map(str::to_owned)) {
                    self.own.conditionals.insert(name.trim_start_matches("if").to_owned(), false);
                }
            }
            // Documents are read as pdfTeX reads them, which most are written for.
            "iftrue" | "ifpdf" | "ifPDFTeX" | "ifpdftex" => {}
            "iffalse" => self.skip_way(true),
            "ifcase" => self.case(),
            "newbool" | "newboolean" | "newtoggle" | "booltrue" | "boolfalse" | "setbool" | "setboolean" | "toggletrue"
            | "togglefalse" | "settoggle" => self.switch(name),
            _ if self.decided_by_argument(name) || self.decided_by_tokens(name) => {}
            _ => return self.conditional_of_document(name),
        }
        true
    }

    /// A conditional that the document defines, or one that nothing is known of.
    fn conditional_of_document(&mut self, name: &str) -> bool {
        if let Some(known) = self.own.conditionals.get(name.strip_prefix("if").unwrap_or("")) {
            if !known {
                self.skip_way(true);
            }
            return true;
        }
        let switched =
            [("true", true), ("false", false)].into_iter().find_map(|(end, value)| Some((name.strip_suffix(end)?, value)));
        if let Some((base, value)) = switched
            && let Some(known) = self.own.conditionals.get_mut(base)
        {
            *known = value;
            return true;
        }
        let is_one = is_primitive(name) || name.starts_with("if") && self.has_end(name);
        if is_one {
            self.skip_way(true);
        }
        is_one
    }

    /// Defines or sets a switch of a package.
    fn switch(&mut self, name: &str) {
        let key = self.input.argument();
        let key = self.input.characters(&key);
        let key = if name.contains("toggle") { format!("{TOGGLE}{key}") } else { key };
        let value = match name {
            "booltrue" | "toggletrue" => true,
            "setbool" | "setboolean" | "settoggle" => {
                let value = self.input.argument();
                self.input.characters(&value) == "true"
            }
            _ => false,
        };
        self.own.conditionals.insert(key, value);
    }

    /// A conditional whose ways are arguments. Whether a command is one.
    fn decided_by_argument(&mut self, name: &str) -> bool {
        let holds = match name {
            "ifthenelse" => {
                let test = self.input.argument();
                self.test(&test)
            }
            "ifbool" | "iftoggle" | "ifboolexpr" => {
                let key = self.input.argument();
                let key = self.input.characters(&key);
                let key = if name == "iftoggle" { format!("{TOGGLE}{key}") } else { key };
                self.own.conditionals.get(&key).copied().unwrap_or(false)
            }
            "notbool" | "nottoggle" => {
                let key = self.input.argument();
                let key = self.input.characters(&key);
                let key = if name == "nottoggle" { format!("{TOGGLE}{key}") } else { key };
                !self.own.conditionals.get(&key).copied().unwrap_or(false)
            }
            "ifdef" | "ifundef" => {
                let tested = self.input.argument();
                let is_there =
                    tested.first().and_then(|token| token.kind.command()).is_some_and(|name| self.means_something(name));
                is_there == (name == "ifdef")
            }
            "ifcsdef" | "ifcsundef" | "@ifundefined" => {
                let tested = self.input.argument();
                let tested = self.input.characters(&tested);
                self.means_something(&tested) == (name == "ifcsdef")
            }
            "ifblank" | "notblank" | "ifstrempty" | "ifdefempty" | "ifempty" => {
                let words = self.input.argument();
                self.words(&words).is_empty() == (name != "notblank")
            }
            "ifstrequal" | "ifdefstring" | "ifdefstrequal" | "ifdefequal" => {
                let (one, other) = (self.input.argument(), self.input.argument());
                self.words(&one) == self.words(&other)
            }
            "IfFileExists" | "InputIfFileExists" => {
                let path = self.input.argument();
                let path = self.input.characters(&path);
                self.files.path(&path).is_some_and(|path| self.files.read(&path).is_ok())
            }
            "@ifpackageloaded" | "@ifclassloaded" | "IfPackageLoadedTF" | "IfClassLoadedTF" => {
                self.input.argument();
                false
            }
            "@ifstar" => self.input.take('*'),
            "@ifnextchar" | "kernel@ifnextchar" => {
                let wanted = self.input.argument();
                let (yes, no) = (self.input.argument(), self.input.argument());
                let next = self.input.next();
                let is_next = wanted.first().zip(next.as_ref()).is_some_and(|(wanted, next)| wanted.kind == next.kind);
                self.input.made.extend(next);
                self.input.push_all(if is_next { yes } else { no }.into_iter());
                return true;
            }
            "IfNoValueTF" | "IfValueTF" | "IfBooleanTF" | "IfNoValueT" | "IfNoValueF" | "IfValueT" | "IfValueF"
            | "IfBooleanT" | "IfBooleanF" => {
                let given = self.input.argument();
                let first = given.first().and_then(|token| token.kind.command());
                if name.starts_with("IfBoolean") {
                    first == Some("BooleanTrue")
                } else {
                    (first == Some("NoValue")) == name.starts_with("IfNo")
                }
            }
            _ => return false,
        };
        let (yes, no) = if name.ends_with('T') && name.starts_with("If") {
            (self.input.argument(), Vec::new())
        } else if name.ends_with('F') && !name.ends_with("TF") && name.starts_with("If") {
            (Vec::new(), self.input.argument())
        } else {
            (self.input.argument(), self.input.argument())
        };
        self.input.push_all(if holds { yes } else { no }.into_iter());
        true
    }

    /// A conditional that looks at the tokens behind it. Whether a command is one.
    fn decided_by_tokens(&mut self, name: &str) -> bool {
        let holds = match name {
            "ifx" => {
                let (one, other) = (self.input.next(), self.input.next());
                one.zip(other).is_some_and(|(one, other)| self.is_same(&one, &other))
            }
            "ifdefined" => {
                let token = self.input.next();
                token.as_ref().and_then(|token| token.kind.command()).is_some_and(|name| self.means_something(name))
            }
            "ifcsname" => {
                let name = self.name_up_to_end();
                self.means_something(&name)
            }
            "ifodd" => self.number().is_some_and(|number| number % 2 != 0),
            "ifnum" => {
                let one = self.number();
                let sign = self.relation();
                let other = self.number();
                one.zip(other).zip(sign).is_some_and(|((one, other), sign)| one.cmp(&other) == sign)
            }
            _ => return false,
        };
        if !holds {
            self.skip_way(true);
        }
        true
    }

    /// One of several ways by a number.
    fn case(&mut self) {
        let mut ways = self.number().unwrap_or(0);
        let mut depth = 0_usize;
        while ways != 0
            && let Some(token) = self.input.next()
        {
            match token.kind.command() {
                Some("or") if depth == 0 => ways -= 1,
                Some("else") if depth == 0 => return,
                Some("fi") if depth == 0 => return,
                Some("fi") => depth -= 1,
                Some(name) if name.starts_with("if") && !takes_arguments(name) => depth += 1,
                _ => {}
            }
        }
    }

    /// Whether two tokens mean the same.
    fn is_same(&self, one: &Token, other: &Token) -> bool {
        match (one.kind.command(), other.kind.command()) {
            (Some(one), Some(other)) => {
                let is_unknown = |name: &str| !self.macros.knows(name) && !super::vocabulary::is_known(name);
                one == other || self.macros.means_same(one, other, &self.input) || is_unknown(one) && is_unknown(other)
            }
            (None, None) => one.kind == other.kind,
            _ => false,
        }
    }

    fn means_something(&self, name: &str) -> bool {
        self.macros.knows(name) || super::vocabulary::is_known(name)
    }

    /// A number that stands here: digits, a counter, or a command for one.
    fn number(&mut self) -> Option<i64> {
        let mut is_negative = false;
        for _ in 0..20 {
            self.input.skip_white();
            let token = self.input.next()?;
            match &token.kind {
                Kind::Char('-') => is_negative = !is_negative,
                Kind::Text(start, end) => {
                    let text = self.input.slice(*start, *end);
                    let digits = text.bytes().take_while(u8::is_ascii_digit).count();
                    if digits == 0 {
                        self.input.made.push(token);
                        return None;
                    }
                    let number = text[..digits].parse::<i64>().ok();
                    let behind = *start + digits as u32;
                    if behind < *end {
                        self.input.push(Kind::Text(behind, *end), behind);
                    }
                    return number.map(|number| if is_negative { -number } else { number });
                }
                Kind::Command(name) => {
                    let name = name.clone();
                    match &*name {
                        "value" => {
                            let counter = self.input.argument();
                            let counter = self.input.characters(&counter);
                            return Some(self.counters.get(&counter));
                        }
                        "z@" => return Some(0),
                        "@ne" => return Some(1),
                        "numexpr" | "number" | "the" => {}
                        _ if name.starts_with("c@") => return Some(self.counters.get(&name[2..])),
                        _ if self.macros.expand(&name, token.at, &mut self.input) => {}
                        _ => return None,
                    }
                }
                _ => {
                    self.input.made.push(token);
                    return None;
                }
            }
        }
        None
    }

    /// A sign between two numbers.
    fn relation(&mut self) -> Option<std::cmp::Ordering> {
        use std::cmp::Ordering;
        self.input.skip_white();
        let token = self.input.next()?;
        match token.kind {
            Kind::Char('<') => Some(Ordering::Less),
            Kind::Char('>') => Some(Ordering::Greater),
            Kind::Text(start, end) if self.input.slice(start, end).starts_with('=') => {
                if start + 1 < end {
                    self.input.push(Kind::Text(start + 1, end), start + 1);
                }
                Some(Ordering::Equal)
            }
            _ => {
                self.input.made.push(token);
                None
            }
        }
    }

    /// A test of several, from left to right.
    fn test(&mut self, tokens: &[Token]) -> bool {
        let mut holds = None;
        let mut joins_all = true;
        let mut from = 0;
        for at in 0..=tokens.len() {
            let command = tokens.get(at).and_then(|token| token.kind.command());
            let is_and = matches!(command, Some("AND" | "and"));
            if at < tokens.len() && !is_and && !matches!(command, Some("OR" | "or")) {
                continue;
            }
            let one = self.single_test(&tokens[from..at]);
            holds = Some(match holds {
                None => one,
                Some(known) if joins_all => known && one,
                Some(known) => known || one,
            });
            joins_all = is_and;
            from = at + 1;
        }
        holds.unwrap_or(false)
    }

    /// A test, which may be negated.
    fn single_test(&mut self, tokens: &[Token]) -> bool {
        let mut inner = super::Input::of_tokens(self.input.source, tokens.iter().cloned());
        let mut is_negated = false;
        let first = loop {
            inner.skip_white();
            let Some(token) = inner.next() else { return false };
            if !matches!(token.kind.command(), Some("NOT" | "not")) {
                break token;
            }
            is_negated = !is_negated;
        };
        let holds = match first.kind.command() {
            Some("equal") => {
                let (one, other) = (inner.argument(), inner.argument());
                self.words(&one) == self.words(&other)
            }
            Some("boolean") => {
                let key = inner.argument();
                self.own.conditionals.get(&inner.characters(&key)).copied().unwrap_or(false)
            }
            Some("isundefined") => {
                let name = inner.argument();
                !name.first().and_then(|token| token.kind.command()).is_some_and(|name| self.means_something(name))
            }
            _ => {
                // Numbers on both sides of a sign.
                inner.made.push(first);
                std::mem::swap(&mut self.input, &mut inner);
                let one = self.number();
                let sign = self.relation();
                let other = self.number();
                std::mem::swap(&mut self.input, &mut inner);
                one.zip(other).zip(sign).is_some_and(|((one, other), sign)| one.cmp(&other) == sign)
            }
        };
        holds != is_negated
    }

    /// Whether a command that is not known is a conditional of a package: such a name, and an end soon behind it.
    fn has_end(&self, name: &str) -> bool {
        let rest = &self.input.source.as_bytes()[self.input.at.min(self.input.source.len())..];
        let near = &rest[..rest.len().min(20_000)];
        !takes_arguments(name) && name.len() > 2 && memchr::memmem::find(near, b"\\fi").is_some()
    }

    /// Skips one way of a conditional, up to the other or to its end.
    fn skip_way(&mut self, may_go_on: bool) {
        let mut depth = 0_usize;
        while let Some(token) = self.input.next() {
            let Kind::Command(name) = &token.kind else { continue };
            match &**name {
                "fi" if depth == 0 => return,
                "fi" => depth -= 1,
                "else" if depth == 0 && may_go_on => return,
                // Nothing goes on behind the beginning of the text.
                "begin" => {
                    let at = token.at as usize;
                    if self.input.source.get(at..).is_some_and(|rest| rest.starts_with("\\begin{document}")) {
                        self.input.made.push(token);
                        return;
                    }
                }
                name if name.starts_with("if") && !takes_arguments(name) => depth += 1,
                _ => {}
            }
        }
    }
}

/// Whether a command whose name begins as those of conditionals takes its ways as arguments.
fn takes_arguments(name: &str) -> bool {
    matches!(name, "iff" | "ifthenelse" | "ifboolexpr" | "ifbool" | "iftoggle" | "ifblank" | "ifnotblank" | "ifundef" | "ifdef")
        || [
            "ifstr",
            "ifnumcomp",
            "ifnumequal",
            "ifcs",
            "ifdefempty",
            "ifdefstr",
            "ifdefequal",
            "ifdefmacro",
            "ifdimcomp",
            "ifempty",
        ]
        .iter()
        .any(|start| name.starts_with(start) && name != "ifcsname")
}

/// Whether a command is a conditional of TeX, or of packages that ask for the program that runs.
fn is_primitive(name: &str) -> bool {
    matches!(
        name,
        "if" | "ifcat"
            | "ifdim"
            | "ifvmode"
            | "ifhmode"
            | "ifmmode"
            | "ifinner"
            | "ifvoid"
            | "ifhbox"
            | "ifvbox"
            | "ifeof"
            | "iffontchar"
            | "ifxetex"
            | "ifluatex"
            | "ifXeTeX"
            | "ifLuaTeX"
    )
}
