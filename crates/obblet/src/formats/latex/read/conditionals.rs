//! Conditionals: those that can be decided are, all others go the way of what is not so (The TeXbook, chapter 20; the documentation
//! of ifthen, etoolbox and document commands).

use super::Reader;
use super::registers::Sort;
use super::tokens::{Kind, Token};

/// What switches are kept under among registers.
const SWITCH: &str = "if ";

/// What toggles are kept under, apart from conditionals.
pub(super) const TOGGLE: &str = "toggle ";

/// The engine is named within so many bytes.
const BEGINNING: usize = 1000;

/// Tests have no more tokens: what stands in one is read again for each test around it.
const LONGEST_TEST: usize = 1000;

impl Reader<'_> {
    /// Takes what a conditional says. Whether a command is one.
    pub(super) fn conditional(&mut self, name: &str) -> bool {
        match name {
            // In formulas, these may be other commands.
            "fi" | "else" | "or" if self.expanding.in_formula && self.expanding.conditionals == 0 => return false,
            "fi" => self.expanding.conditionals = self.expanding.conditionals.saturating_sub(1),
            // What was read was the first way: the other is none.
            "else" | "or" => {
                self.expanding.conditionals = self.expanding.conditionals.saturating_sub(1);
                let _ = self.skip_way(false);
            }
            "newif" => {
                if let Some(name) = self.input.next().and_then(|token| token.kind.command().map(str::to_owned)) {
                    self.set_switch(name.trim_start_matches("if"), false);
                }
            }
            "unless" => {
                let token = self.input.next();
                match token.as_ref().and_then(|token| token.kind.command()).map(str::to_owned) {
                    Some(name) => match self.holds(&name) {
                        Some(holds) => self.take_way(!holds),
                        None if name.starts_with("if") => return self.conditional(&name),
                        None => self.input.made.extend(token),
                    },
                    None => self.input.made.extend(token),
                }
            }
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
        let switched =
            [("true", true), ("false", false)].into_iter().find_map(|(end, value)| Some((name.strip_suffix(end)?, value)));
        if let Some((base, value)) = switched.filter(|(base, _)| self.switch_of(base).is_some()) {
            self.set_switch(base, value);
            return true;
        }
        let is_one = is_primitive(name) || !self.expanding.in_formula && name.starts_with("if") && self.has_end(name);
        if is_one {
            self.take_way(false);
        }
        is_one
    }

    /// The engine that a document asks for in a comment. Without one it is read as pdfTeX reads it, which most are written for.
    fn engine(&self) -> &'static str {
        let source = self.input.source.as_bytes();
        let beginning = String::from_utf8_lossy(&source[..source.len().min(BEGINNING)]).to_lowercase();
        let mut lines = beginning.lines().filter(|line| line.starts_with('%'));
        let line = lines.find(|line| line.contains("!tex") && line.contains("program")).unwrap_or_default();
        ["lua", "xe"].into_iter().find(|engine| line.contains(&format!("{engine}latex"))).unwrap_or("pdf")
    }

    pub(super) fn switch_of(&self, name: &str) -> Option<bool> {
        self.registers.switch(&format!("{SWITCH}{name}"))
    }

    fn set_switch(&mut self, name: &str, value: bool) {
        let is_global = std::mem::take(&mut self.macros.is_global);
        self.registers.set(format!("{SWITCH}{name}"), i64::from(value), is_global);
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
        self.set_switch(&key, value);
    }

    /// A conditional whose ways are arguments. Whether a command is one.
    fn decided_by_argument(&mut self, name: &str) -> bool {
        let holds = match name {
            "ifthenelse" => {
                let test = self.input.argument();
                test.len() < LONGEST_TEST && self.test(&test)
            }
            "ifbool" | "iftoggle" => {
                let key = self.input.argument();
                let key = self.input.characters(&key);
                let key = if name == "iftoggle" { format!("{TOGGLE}{key}") } else { key };
                self.switch_of(&key).unwrap_or(false)
            }
            "notbool" | "nottoggle" => {
                let key = self.input.argument();
                let key = self.input.characters(&key);
                let key = if name == "nottoggle" { format!("{TOGGLE}{key}") } else { key };
                !self.switch_of(&key).unwrap_or(false)
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
                let asked = self.input.argument();
                let asked = self.input.characters(&asked);
                if name.contains("lass") { self.front.class == asked } else { self.front.loads(&asked) }
            }
            "@ifstar" => {
                let (yes, no) = (self.input.argument(), self.input.argument());
                self.input.skip_white();
                let has_star = self.input.take('*');
                self.input.push_all(if has_star { yes } else { no }.into_iter());
                return true;
            }
            "@ifnextchar" | "kernel@ifnextchar" => {
                let wanted = self.input.argument();
                let (yes, no) = (self.input.argument(), self.input.argument());
                let next = self.input.next();
                let is_next = wanted.first().zip(next.as_ref()).is_some_and(|(wanted, next)| wanted.kind == next.kind);
                self.input.made.extend(next);
                self.input.push_all(if is_next { yes } else { no }.into_iter());
                return true;
            }
            _ => match self.compared(name).or_else(|| self.given(name)).or_else(|| self.asked(name)) {
                Some(holds) => holds,
                None => return false,
            },
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

    /// What a conditional says that compares numbers or lengths.
    fn compared(&mut self, name: &str) -> Option<bool> {
        Some(match name {
            "ifnumcomp" | "ifdimcomp" | "ifnumequal" | "ifnumless" | "ifnumgreater" | "ifdimequal" | "ifdimless"
            | "ifdimgreater" => {
                let one = self.input.argument();
                let sign = if name.ends_with("comp") {
                    self.input.argument()
                } else {
                    let sign = if name.ends_with("equal") {
                        '='
                    } else if name.ends_with("less") {
                        '<'
                    } else {
                        '>'
                    };
                    vec![Token { kind: Kind::Char(sign), at: self.at }]
                };
                let other = self.input.argument();
                let tokens: Vec<Token> = one.into_iter().chain(sign).chain(other).collect();
                let sort = if name.starts_with("ifnum") { Sort::Number } else { Sort::Length };
                self.within(&tokens, |reader| reader.compares(sort)).unwrap_or(false)
            }
            "ifnumodd" => {
                let number = self.input.argument();
                self.within(&number, Self::number).is_some_and(|number| number % 2 != 0)
            }
            _ => return None,
        })
    }

    /// What a conditional says of an argument that was given, or was not.
    fn given(&mut self, name: &str) -> Option<bool> {
        Some(match name {
            "IfBlankTF" | "IfBlankT" | "IfBlankF" => {
                let words = self.input.argument();
                self.words(&words).trim().is_empty()
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
            _ => return None,
        })
    }

    /// A conditional that looks at the tokens behind it. Whether a command is one.
    fn decided_by_tokens(&mut self, name: &str) -> bool {
        let Some(holds) = self.holds(name) else { return false };
        self.take_way(holds);
        true
    }

    /// Goes on with the first way of a conditional, or with the other, where there is one.
    fn take_way(&mut self, is_first: bool) {
        if is_first || self.skip_way(true) {
            self.expanding.conditionals += 1;
        }
    }

    /// What a conditional says of the tokens behind it, where it is decided by them.
    fn holds(&mut self, name: &str) -> Option<bool> {
        Some(match name {
            "ifx" => {
                let (one, other) = (self.input.single(), self.input.single());
                one.zip(other).is_some_and(|(one, other)| self.is_same(&one, &other))
            }
            "if" => {
                let (one, other) = (self.expanded_single(), self.expanded_single());
                one.zip(other).is_some_and(|(one, other)| self.input.character_of(&one) == self.input.character_of(&other))
            }
            "ifcat" => {
                let (one, other) = (self.expanded_single(), self.expanded_single());
                one.zip(other).is_some_and(|(one, other)| self.sort_of(&one) == self.sort_of(&other))
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
            "ifnum" => self.compares(Sort::Number).unwrap_or(false),
            "ifdim" => self.compares(Sort::Length).unwrap_or(false),
            "iftrue" | "ifpdf" => true,
            "iftutex" | "ifTUTeX" => self.engine() != "pdf",
            "ifPDFTeX" | "ifpdftex" | "ifluatex" | "ifLuaTeX" | "ifxetex" | "ifXeTeX" => self.engine() == engine_of(name),
            "iffalse" => false,
            "ifmmode" => self.expanding.in_formula,
            _ => return self.switch_of(name.strip_prefix("if")?),
        })
    }

    fn expanded_single(&mut self) -> Option<Token> {
        let token = self.expanded()?;
        self.input.made.push(token);
        self.input.single()
    }

    /// What sort of character a token is (The TeXbook, chapter 7).
    fn sort_of(&self, token: &Token) -> u8 {
        match (&token.kind, self.input.character_of(token)) {
            (Kind::Command(_), _) => 16,
            (Kind::Space | Kind::Par, _) => 10,
            (Kind::Begin, _) => 1,
            (Kind::End, _) => 2,
            (Kind::Tie, _) => 13,
            (_, Some(c)) if c.is_alphabetic() => 11,
            _ => 12,
        }
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
                Some("else") if depth == 0 => break,
                Some("fi") if depth == 0 => return,
                Some("fi") => depth -= 1,
                Some(name) if name.starts_with("if") && !takes_arguments(name) => depth += 1,
                _ => {}
            }
        }
        self.expanding.conditionals += 1;
    }

    /// Whether two tokens mean the same.
    fn is_same(&self, one: &Token, other: &Token) -> bool {
        match (one.kind.command(), other.kind.command()) {
            (Some(one), Some(other)) => match (self.sign_named(one), self.sign_named(other)) {
                (None, None) => {
                    let is_unknown = |name: &str| !self.macros.knows(name) && !super::vocabulary::is_known(name);
                    let (meant, others) = (self.macros.meaning(one), self.macros.meaning(other));
                    meant == others || self.macros.means_same(one, other, &self.input) || is_unknown(one) && is_unknown(other)
                }
                (Some(sign), None) => self.macros.only_token(other).is_some_and(|known| known.kind == sign),
                (None, Some(sign)) => self.macros.only_token(one).is_some_and(|known| known.kind == sign),
                (Some(one), Some(other)) => one == other,
            },
            (None, None) => self.is_same_sign(one, other),
            (Some(name), None) => self.is_sign(name, other),
            (None, Some(name)) => self.is_sign(name, one),
        }
    }

    /// Whether a command was let be a sign.
    fn is_sign(&self, name: &str, sign: &Token) -> bool {
        match self.sign_named(name) {
            Some(named) => named == sign.kind,
            None => self.macros.only_token(name).is_some_and(|known| self.is_same_sign(known, sign)),
        }
    }

    /// The sign that a command of the format was let be.
    fn sign_named(&self, name: &str) -> Option<Kind> {
        let name = self.macros.meaning(name);
        let sign = match name {
            "bgroup" => Kind::Begin,
            "egroup" => Kind::End,
            "@sptoken" => Kind::Space,
            _ => return None,
        };
        (!self.macros.knows(name)).then_some(sign)
    }

    fn is_same_sign(&self, one: &Token, other: &Token) -> bool {
        one.kind == other.kind || self.input.character_of(one).is_some_and(|c| self.input.character_of(other) == Some(c))
    }

    fn means_something(&self, name: &str) -> bool {
        self.macros.knows(name) || super::vocabulary::is_known(name)
    }

    /// A test of several, from left to right.
    pub(super) fn test(&mut self, tokens: &[Token]) -> bool {
        let mut holds = None;
        let mut joins_all = true;
        let mut from = 0;
        let mut depth = 0_usize;
        for at in 0..=tokens.len() {
            match tokens.get(at).and_then(|token| token.kind.command()) {
                Some("(") => depth += 1,
                Some(")") => depth = depth.saturating_sub(1),
                _ => {}
            }
            if depth > 0 && at < tokens.len() {
                continue;
            }
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
                self.switch_of(&inner.characters(&key)).unwrap_or(false)
            }
            Some("isundefined") => {
                let name = inner.argument();
                !name.first().and_then(|token| token.kind.command()).is_some_and(|name| self.means_something(name))
            }
            Some("lengthtest") => {
                let test = inner.argument();
                self.within(&test, |reader| reader.compares(Sort::Length)).unwrap_or(false)
            }
            Some("isodd") => {
                let number = inner.argument();
                self.within(&number, Self::number).is_some_and(|number| number % 2 != 0)
            }
            Some("(") => {
                // What stands in parentheses is a test by itself.
                let mut depth = 0_usize;
                let tokens: Vec<Token> = std::iter::from_fn(|| {
                    let token = inner.next()?;
                    match token.kind.command() {
                        Some("(") => depth += 1,
                        Some(")") if depth == 0 => return None,
                        Some(")") => depth -= 1,
                        _ => {}
                    }
                    Some(token)
                })
                .collect();
                tokens.len() < LONGEST_TEST && self.test(&tokens)
            }
            _ => {
                // Numbers on both sides of a sign.
                inner.made.push(first);
                let tokens: Vec<Token> = std::iter::from_fn(|| inner.next()).collect();
                self.within(&tokens, |reader| reader.compares(Sort::Number)).unwrap_or(false)
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

    /// Skips one way of a conditional, up to the other or to its end. Whether the other follows.
    fn skip_way(&mut self, may_go_on: bool) -> bool {
        let mut depth = 0_usize;
        while let Some(token) = self.input.next() {
            let Kind::Command(name) = &token.kind else { continue };
            match &**name {
                "fi" if depth == 0 => return false,
                "fi" => depth -= 1,
                "else" if depth == 0 && may_go_on => return true,
                // Nothing goes on behind the beginning of the text.
                "begin" => {
                    let at = token.at as usize;
                    if self.input.source.get(at..).is_some_and(|rest| rest.starts_with("\\begin{document}")) {
                        self.input.made.push(token);
                        return false;
                    }
                }
                name if name.starts_with("if") && !takes_arguments(name) => depth += 1,
                _ => {}
            }
        }
        false
    }
}

/// The engine that a conditional asks for.
fn engine_of(name: &str) -> &'static str {
    match name.as_bytes().get(2) {
        Some(b'l' | b'L') => "lua",
        Some(b'x' | b'X') => "xe",
        _ => "pdf",
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
        "if" | "ifcat" | "ifdim" | "ifvmode" | "ifhmode" | "ifinner" | "ifvoid" | "ifhbox" | "ifvbox" | "ifeof" | "iffontchar"
    )
}
