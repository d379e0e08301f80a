//! Formulas: their source, with the document's own commands written out (the LaTeX documentation, "Math formulas").

use super::Reader;
use super::tokens::{Kind as Sign, Token};
use crate::document::Kind;

/// Environments that are formulas on lines of their own.
pub(super) const DISPLAYS: [&str; 20] = [
    "equation",
    "align",
    "gather",
    "multline",
    "eqnarray",
    "alignat",
    "flalign",
    "displaymath",
    "xalignat",
    "dmath",
    "subequations",
    "math",
    "IEEEeqnarray",
    "numcases",
    "subnumcases",
    "empheq",
    "DispWithArrows",
    "dgroup",
    "dseries",
    "darray",
];

/// Whether an environment is a formula.
pub(in crate::formats) fn is_formula(name: &str) -> bool {
    DISPLAYS.contains(&name.trim_end_matches('*'))
}

/// Commands that define others, in a formula.
const DEFINES: [&str; 6] = ["newcommand", "renewcommand", "def", "DeclareMathOperator", "providecommand", "let"];

/// Whether a command of formulas may stand for tokens that the reader has to find.
fn is_written_out(name: &str) -> bool {
    name.starts_with("if") && name != "iff"
        || matches!(name, "fi" | "else" | "or" | "unless" | "the" | "number" | "expandafter" | "csname" | "char" | "relax")
}

/// How equations are counted.
#[derive(Debug, Default)]
pub(super) struct Equations {
    /// Whether the document numbers them in a way of its own, so that the reader has to count.
    pub(super) are_counted: bool,
    /// The number of the group whose parts are counted with letters, and how many these are.
    parts: Option<(String, i64)>,
}

impl Equations {
    pub(super) fn of(source: &str) -> Self {
        let is_sign = |at: usize| {
            let before = &source.as_bytes()[..at];
            ["\\the", "counter{", "c@", "\\begin{sub"].iter().any(|sign| before.ends_with(sign.as_bytes()))
        };
        let are_counted = memchr::memmem::find_iter(source.as_bytes(), b"equation").any(is_sign);
        Self { are_counted, parts: None }
    }
}

/// A formula has no more tokens.
const MOST_TOKENS: usize = 1 << 15;

impl<'s> Reader<'s> {
    /// A dollar sign begins a formula.
    pub(super) fn dollar(&mut self) {
        if let Some(source) = self.plain_formula("$") {
            return self.add_formula(source, false);
        }
        let next = self.input.next();
        let display = matches!(&next, Some(token) if token.kind == Sign::Dollar);
        if !display && let Some(token) = next {
            self.input.made.push(token);
        }
        let mut tokens = Vec::new();
        let mut depth = 0_usize;
        loop {
            let Some(token) = self.math_token() else {
                self.tallies.unclosed.add(self.at, "$");
                break;
            };
            match token.kind {
                Sign::Begin => depth += 1,
                Sign::End => {
                    if depth == 0 {
                        self.input.made.push(token);
                        break;
                    }
                    depth -= 1;
                }
                // Within text in the formula, there may be formulas.
                Sign::Dollar if depth > 0 => {}
                Sign::Dollar => {
                    if display
                        && let Some(second) = self.input.next()
                        && second.kind != Sign::Dollar
                    {
                        self.input.made.push(second);
                    }
                    break;
                }
                Sign::Par => {
                    self.tallies.unclosed.add(self.at, "$");
                    self.input.made.push(token);
                    break;
                }
                _ => {}
            }
            tokens.push(token);
        }
        self.formula(&tokens, display, None);
    }

    /// `\(` and `\[`
    pub(super) fn delimited_formula(&mut self, end: &str, display: bool) {
        if let Some(source) = self.plain_formula(if display { "\\]" } else { "\\)" }) {
            return self.add_formula(source, display);
        }
        let mut tokens = Vec::new();
        while let Some(token) = self.math_token() {
            if token.kind.command() == Some(end) {
                break;
            }
            if token.kind == Sign::Par {
                self.tallies.unclosed.add(self.at, "\\[");
                self.input.made.push(token);
                break;
            }
            tokens.push(token);
        }
        self.formula(&tokens, display, None);
    }

    /// An environment that is a formula.
    pub(super) fn display(&mut self, name: &str) {
        if name == "subequations" && !self.is_one_display() {
            let number = self.counters.step("equation");
            let number = self.number_as_shown("equation", number);
            self.references.count_here(number.clone());
            self.own.equations.parts = Some((number, 0));
            return self.open_environment(name, super::environments::Form::Transparent, None);
        }
        let mut tokens = Vec::new();
        let star = if name.ends_with('*') { "*" } else { "" };
        // Those of packages, as the ones that they stand for.
        let base = name.trim_end_matches('*');
        let mut stands_for = match base {
            "dgroup" | "dseries" | "darray" => Some(format!("gather{star}")),
            "DispWithArrows" | "IEEEeqnarray" => Some(format!("align{star}")),
            "numcases" | "subnumcases" => Some(format!("equation{star}")),
            _ => None,
        };
        match base {
            "IEEEeqnarray" => self.skip_arguments("om"),
            "DispWithArrows" => self.skip_arguments("o"),
            "empheq" => {
                self.input.option();
                let inner = self.input.argument();
                let inner = self.input.characters(&inner);
                stands_for = Some(inner.split('=').next_back().unwrap_or_default().trim().to_owned())
                    .filter(|inner| DISPLAYS.contains(&inner.trim_end_matches('*')));
            }
            "numcases" | "subnumcases" => {
                tokens.extend(self.input.argument());
                tokens.extend(self.cases("begin"));
            }
            _ => {}
        }
        let around = match stands_for.as_deref().unwrap_or(name) {
            "displaymath" | "math" => None,
            "dmath" => Some("equation"),
            "dmath*" => Some("equation*"),
            name => Some(name),
        };
        if tokens.is_empty()
            && let Some(body) = self.plain_formula(&format!("\\end{{{name}}}"))
        {
            return match around {
                Some(around) => self.add_formula(&format!("\\begin{{{around}}}{body}\\end{{{around}}}"), true),
                None => self.add_formula(body, name != "math"),
            };
        }
        let mut depth = 0_usize;
        loop {
            let Some(token) = self.math_token() else {
                self.tallies.unclosed.add_apart(self.at, name);
                break;
            };
            match token.kind.command() {
                Some("begin") => depth += 1,
                Some("end") if depth == 0 => {
                    self.input.argument();
                    break;
                }
                Some("end") => depth -= 1,
                _ => {}
            }
            if token.kind != Sign::Par {
                tokens.push(token);
            }
        }
        if base.ends_with("numcases") {
            tokens.extend(self.cases("end"));
        }
        self.formula(&tokens, name != "math", around);
    }

    /// Whether what comes up to the end of the group is one environment of formulas, beside a label.
    fn is_one_display(&self) -> bool {
        if !self.input.made.is_empty() {
            return false;
        }
        // No further than to the next of its name, whether that ends it or is another: all of them together look at everything once.
        let body =
            self.input.source[self.input.at..].split_once("{subequations}").and_then(|(body, _)| body.strip_suffix("\\end"));
        let Some(body) = body else { return false };
        let is_label =
            |rest: &str| rest.is_empty() || rest.starts_with("\\label{") && rest.ends_with('}') && !rest.contains('\n');
        let Some((before, inner)) = body.split_once("\\begin{") else { return false };
        let Some((inner, behind)) = inner.rsplit_once("\\end{") else { return false };
        let name = inner.split('}').next().unwrap_or_default();
        let behind = behind.strip_prefix(name).and_then(|rest| rest.strip_prefix('}'));
        is_formula(name)
            && is_label(before.trim())
            && behind.is_some_and(|behind| is_label(behind.trim()))
            && !inner.contains(&format!("\\begin{{{name}}}"))
    }

    /// What begins or ends the cases of a formula.
    fn cases(&self, command: &str) -> impl Iterator<Item = Token> + use<> {
        let at = self.at;
        let name = "cases".chars().map(Sign::Char);
        let kinds = [Sign::Command(command.into()), Sign::Begin].into_iter().chain(name).chain([Sign::End]);
        kinds.map(move |kind| Token { kind, at })
    }

    /// The next token of a formula, with the document's own commands written out.
    fn math_token(&mut self) -> Option<Token> {
        loop {
            let token = self.input.next()?;
            let Some(name) = token.kind.command() else { return Some(token) };
            if self.macros.knows(name) {
                let name = name.to_owned();
                self.macros.expand(&name, token.at, &mut self.input);
            } else if is_written_out(name) {
                let name = name.to_owned();
                self.expanding.in_formula = true;
                let is_done = match &*name {
                    "fi" | "else" | "or" => self.conditional(&name),
                    "relax" => true,
                    "char" => self.character_of_formula(),
                    _ => self.expand(&name, token.at),
                };
                self.expanding.in_formula = false;
                if !is_done {
                    return Some(token);
                }
            } else if DEFINES.contains(&name) {
                let name = name.to_owned();
                self.macros.define(&name, &mut self.input);
            } else if self.own.glossary.shows(name) {
                let name = name.to_owned();
                self.expanding.in_formula = true;
                self.mention(&name);
                self.expanding.in_formula = false;
            } else {
                return Some(token);
            }
        }
    }

    /// A character by its number, as formulas have it.
    fn character_of_formula(&mut self) -> bool {
        let Some(c) = self.number().and_then(|number| u32::try_from(number).ok()).and_then(char::from_u32) else { return true };
        let at = self.at;
        self.input.push(
            match c {
                '\\' => Sign::Command("backslash".into()),
                '{' | '}' | '%' | '#' | '$' | '&' | '_' => Sign::Command(c.to_string().into()),
                c => Sign::Char(c),
            },
            at,
        );
        true
    }

    /// Writes tokens with the line ends that their source has.
    fn write_lines(&self, tokens: &[Token], source: &mut String) {
        let bytes = self.input.source.as_bytes();
        let ends_line = |token: &Token| {
            token.kind == Sign::Space
                && bytes[token.at as usize..].iter().take_while(|byte| byte.is_ascii_whitespace()).any(|byte| *byte == b'\n')
        };
        let mut rest = tokens;
        while let Some(at) = rest.iter().position(ends_line) {
            self.input.write(&rest[..at], source);
            source.push('\n');
            rest = &rest[at + 1..];
        }
        self.input.write(rest, source);
    }

    fn formula(&mut self, tokens: &[Token], display: bool, around: Option<&str>) {
        if tokens.len() > MOST_TOKENS {
            self.tallies.cut.add(self.at, "");
        }
        let mut source = String::new();
        if let Some(name) = around {
            source.push_str(&format!("\\begin{{{name}}}"));
        }
        self.write_lines(&tokens[..tokens.len().min(MOST_TOKENS)], &mut source);
        if let Some(name) = around {
            source.push_str(&format!("\\end{{{name}}}"));
        }
        self.add_formula(&source, display);
    }

    /// The source of a formula, where it is what would be written from its tokens: without the document's own commands, comments
    /// and white space that says nothing. It is read up to and with its end.
    fn plain_formula(&mut self, end: &str) -> Option<&'s str> {
        if !self.input.made.is_empty() || self.input.at_is_letter {
            return None;
        }
        let rest = &self.input.source[self.input.at..];
        let bytes = rest.as_bytes();
        let (mut at, mut depth, mut environments) = (0, 0_usize, 0_usize);
        while !(depth == 0 && environments == 0 && bytes[at..].starts_with(end.as_bytes())) {
            let byte = *bytes.get(at)?;
            at += 1;
            match byte {
                b'\\' => {
                    let letters = bytes[at..].iter().take_while(|byte| byte.is_ascii_alphabetic()).count();
                    let name = rest.get(at..at + letters.max(1))?;
                    if self.macros.knows(name)
                        || is_written_out(name)
                        || DEFINES.contains(&name)
                        || self.own.glossary.shows(name)
                        || end.strip_prefix('\\') == Some(name)
                    {
                        return None;
                    }
                    match name {
                        "begin" => environments += 1,
                        "end" => environments = environments.checked_sub(1)?,
                        _ => {}
                    }
                    at += letters.max(1);
                    // Of white space behind a name, only what ends it or sets signs apart is kept.
                    let is_kept = match &bytes[at..] {
                        [b'\n', ..] => false,
                        [b' ', rest @ ..] => {
                            !rest.first().is_none_or(|next| b"{}$&~\n".contains(next)) && !rest.starts_with(end.as_bytes())
                        }
                        _ => true,
                    };
                    if letters > 0 && !is_kept || name.trim().is_empty() {
                        return None;
                    }
                }
                b'{' => depth += 1,
                b'}' => depth = depth.checked_sub(1)?,
                // One space or one line end stays.
                b' ' | b'\n' if !bytes.get(at).is_some_and(u8::is_ascii_whitespace) => {}
                b'%' | b'#' | b'$' | b' ' | b'\t' | b'\n' | b'\r' | 0x0C => return None,
                _ => {}
            }
        }
        if at > MOST_TOKENS || at == 0 {
            return None;
        }
        self.input.at += at + end.len();
        Some(&rest[..at])
    }

    fn add_formula(&mut self, source: &str, display: bool) {
        let source = source.trim();
        if source.is_empty() {
            return;
        }
        for label in source.split("\\label").skip(1) {
            if let Some((label, _)) = label.trim_start().strip_prefix('{').and_then(|rest| rest.split_once('}')) {
                self.tallies.equations.insert(label.trim().to_owned());
            }
        }
        let text = self.doc.intern(source);
        let formula = self.doc.add_tex(text, display);
        if let Some(number) = self.number_of_equation(source)
            && let Some(formula) = self.doc.formulas.last_mut()
        {
            formula.number = number;
        }
        self.inline(Kind::Math(formula));
    }

    /// The number of the first row of an equation, where the reader counts them.
    fn number_of_equation(&mut self, source: &str) -> Option<crate::document::Text> {
        if !self.own.equations.are_counted || !source.contains("\\begin{") {
            return None;
        }
        let (mut math, _) = crate::math::tex::read(source);
        let rows = i64::from(math.set_numbers(1)) - 1;
        if !math.numbered || rows < 1 {
            return None;
        }
        let first = match &mut self.own.equations.parts {
            Some((number, parts)) => {
                let letter = crate::numeral::numeral(*parts + 1, crate::document::Marker::LowerAlpha);
                *parts += rows;
                format!("{number}{letter}")
            }
            None => {
                let number = self.counters.step("equation");
                let shown = self.number_as_shown("equation", number);
                self.counters.set("equation", self.counters.get("equation") + rows - 1);
                shown
            }
        };
        Some(self.doc.intern(&first))
    }

    /// The parts of a group of equations end.
    pub(super) fn end_parts_of_equations(&mut self) {
        self.own.equations.parts = None;
    }
}
