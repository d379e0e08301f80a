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

/// A formula has no more tokens.
const MOST_TOKENS: usize = 1 << 15;

impl Reader<'_> {
    /// A dollar sign begins a formula.
    pub(super) fn dollar(&mut self) {
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
        let around = match stands_for.as_deref().unwrap_or(name) {
            "displaymath" | "math" | "subequations" => None,
            "dmath" => Some("equation"),
            "dmath*" => Some("equation*"),
            name => Some(name),
        };
        self.formula(&tokens, name != "math", around);
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
            } else if matches!(name, "newcommand" | "renewcommand" | "def" | "DeclareMathOperator" | "providecommand" | "let") {
                let name = name.to_owned();
                self.macros.define(&name, &mut self.input);
            } else {
                return Some(token);
            }
        }
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
        self.inline(Kind::Math(formula));
    }
}
