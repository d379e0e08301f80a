//! Conditionals: those that can be decided are, all others go the way of what is not so (The TeXbook, chapter 20).

use super::Reader;
use super::tokens::Kind;

impl Reader<'_> {
    /// Takes what a conditional says. Whether a command is one.
    pub(super) fn conditional(&mut self, name: &str) -> bool {
        match name {
            "fi" => {}
            // What was read was the first way: the other is none.
            "else" | "or" => self.skip_way(false),
            "newif" => {
                if let Some(name) = self.input.next().and_then(|token| token.kind.command().map(str::to_owned)) {
                    self.conditionals.insert(name.trim_start_matches("if").to_owned(), false);
                }
            }
            "iftrue" => {}
            "iffalse" => self.skip_way(true),
            "ifthenelse" | "ifboolexpr" | "ifbool" | "iftoggle" | "ifblank" | "ifundef" | "ifdef" | "IfFileExists" => {
                // What can't be decided goes the second way.
                self.input.argument();
                self.input.argument();
            }
            "IfNoValueTF" | "IfValueTF" | "IfBooleanTF" | "IfNoValueT" | "IfNoValueF" | "IfBooleanT" | "IfBooleanF" => {
                let given = self.input.argument();
                let first = given.first().and_then(|token| token.kind.command());
                let holds = match name {
                    "IfBooleanTF" | "IfBooleanT" | "IfBooleanF" => first == Some("BooleanTrue"),
                    "IfValueTF" => first != Some("NoValue"),
                    _ => first == Some("NoValue"),
                };
                let (yes, no) = match name.as_bytes().last() {
                    _ if name.ends_with("TF") => (self.input.argument(), self.input.argument()),
                    Some(b'T') => (self.input.argument(), Vec::new()),
                    _ => (Vec::new(), self.input.argument()),
                };
                self.input.push_all(if holds { yes } else { no }.into_iter());
            }
            _ => {
                if let Some(known) = self.conditionals.get(name.strip_prefix("if").unwrap_or("")) {
                    if !known {
                        self.skip_way(true);
                    }
                } else if let Some((base, value)) = name
                    .strip_suffix("true")
                    .map(|base| (base, true))
                    .or_else(|| name.strip_suffix("false").map(|base| (base, false)))
                    && let Some(known) = self.conditionals.get_mut(base)
                {
                    *known = value;
                } else if is_primitive(name) || name.starts_with("if") && self.has_end(name) {
                    self.skip_way(true);
                } else {
                    return false;
                }
            }
        }
        true
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
        || ["ifstr", "ifnumcomp", "ifnumequal", "ifcs", "ifdefempty", "ifdefstring", "ifdefmacro", "ifdimcomp"]
            .iter()
            .any(|start| name.starts_with(start) && name != "ifcsname")
}

/// Whether a command is a conditional of TeX, or of packages that ask for the program that runs.
fn is_primitive(name: &str) -> bool {
    matches!(
        name,
        "if" | "ifx"
            | "ifcat"
            | "ifnum"
            | "ifdim"
            | "ifodd"
            | "ifvmode"
            | "ifhmode"
            | "ifmmode"
            | "ifinner"
            | "ifvoid"
            | "ifhbox"
            | "ifvbox"
            | "ifeof"
            | "ifcase"
            | "ifdefined"
            | "ifcsname"
            | "iffontchar"
            | "ifpdf"
            | "ifxetex"
            | "ifluatex"
            | "ifPDFTeX"
            | "ifXeTeX"
            | "ifLuaTeX"
    )
}
