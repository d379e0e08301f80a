//! Examples of languages, with their numbers, parts and glosses (the documentation of gb4e, linguex, expex and covington).

use super::Reader;
use super::lists::ListForm;
use super::token_lists::made;
use super::tokens::{Input, Kind as Sign, Token};

/// The lists of examples and of their parts: those of gb4e, and those whose references stand in parentheses.
pub(super) const EXAMPLES: &str = "exe";
pub(super) const PARTS: &str = "xlist";
pub(super) const EXAMPLES_OF_LINGUEX: &str = "exe.";
pub(super) const PARTS_OF_LINGUEX: &str = "xlist.";

/// Words that belong together, one above the other.
pub(super) const GLOSS: &str = "gloss.";

/// What counts examples.
pub(super) const COUNTER: &str = "exx";

/// Lines of a gloss have no more words than this.
const MOST_WORDS: usize = 100;

/// Parts of examples stand no deeper.
const DEEPEST: usize = 3;

impl Reader<'_> {
    /// Commands of examples. Whether a command is one.
    pub(super) fn example_command(&mut self, name: &str) -> bool {
        match name {
            "gll" | "glll" | "gllll" => self.gloss(name.len() - 1),
            "glt" | "gln" | "trans" | "glend" | "glot" if self.is_in_example() => self.end_paragraph(),
            "digloss" | "trigloss" => {
                self.input.option();
                let lines = (0..if name == "digloss" { 2 } else { 3 }).map(|_| self.input.argument()).collect();
                let translation = self.input.argument();
                self.input.push(Sign::Par, self.at);
                if !translation.is_empty() {
                    self.input.push(Sign::Char('\u{2019}'), self.at);
                    self.input.push_all(translation.into_iter());
                    self.input.push(Sign::Char('\u{2018}'), self.at);
                }
                self.input.push(Sign::Par, self.at);
                self.show_gloss(lines);
            }
            "ex" | "exg" if self.front.loads("linguex") && self.input.takes_character('.') => {
                self.example_of_linguex(name == "exg")
            }
            "Next" | "NNext" | "Last" | "LLast" if self.front.loads("linguex") => {
                let ahead = match name {
                    "Next" => 1,
                    "NNext" => 2,
                    "Last" => 0,
                    _ => -1,
                };
                let part = self.input.option().map(|part| self.input.characters(&part)).unwrap_or_default();
                self.text(&format!("({}{part})", self.counters.get(COUNTER).saturating_add(ahead)));
                self.space_if_needed();
            }
            _ if self.front.loads("expex") => return self.command_of_expex(name),
            "ea" | "eal" | "z" | "zl" if self.front.loads("gb4e") || self.front.loads("langsci-gb4e") => self.short_example(name),
            _ => return false,
        }
        true
    }

    /// Environments of covington. Whether one is one of them.
    pub(super) fn begin_example(&mut self, name: &str) -> bool {
        if !self.front.loads("covington") || !matches!(name, "example" | "examples" | "subexamples") {
            return false;
        }
        self.open_list(name, ListForm::Numbers);
        if name == "example" {
            self.item();
        }
        true
    }

    fn is_in_example(&self) -> bool {
        const FARTHEST: usize = 50;
        self.environments.iter().rev().take(FARTHEST).any(|environment| {
            matches!(&*environment.name, EXAMPLES | PARTS | EXAMPLES_OF_LINGUEX | PARTS_OF_LINGUEX | "example" | "examples")
        })
    }

    /// The innermost list of examples or of parts.
    fn list_of_examples(&self) -> Option<&str> {
        let is_list = |name: &&str| matches!(*name, EXAMPLES | PARTS);
        self.environments.iter().rev().map(|environment| &*environment.name).find(is_list)
    }

    /// `\ea … \z`: an example, or a part of one.
    fn short_example(&mut self, name: &str) {
        let inner = self.list_of_examples();
        let tokens = match (name, inner) {
            ("z" | "zl", Some(inner)) => format!("\\end{{{inner}}}"),
            ("z" | "zl", None) => return,
            (_, inner) => format!("\\begin{{{}}}\\ex ", if inner.is_none() { EXAMPLES } else { PARTS }),
        };
        self.input.push_all(made(&tokens, self.at).into_iter());
        // `\zl` ends the parts and their example.
        if name == "zl" {
            self.input.push(Sign::Command("z".into()), self.at);
        }
    }

    /// `\ex. …`, up to an empty line or the end of the environment around it, with parts `\a. … \b. …` in it.
    fn example_of_linguex(&mut self, has_gloss: bool) {
        let at = self.at;
        let label = self.input.option();
        let (mut groups, mut environments) = (0_usize, 0_usize);
        let mut body: Vec<Token> = Vec::new();
        while let Some(token) = self.input.next() {
            let ends = match &token.kind {
                Sign::Par if groups == 0 => break,
                Sign::End if groups == 0 => true,
                Sign::Then(_) => true,
                Sign::Command(name) if &**name == "end" && environments == 0 => true,
                _ => false,
            };
            if ends {
                self.input.made.push(token);
                break;
            }
            match &token.kind {
                Sign::Begin => groups += 1,
                Sign::End => groups -= 1,
                Sign::Command(name) if &**name == "begin" => environments += 1,
                Sign::Command(name) if &**name == "end" => environments -= 1,
                _ => {}
            }
            // Examples do not stand in each other but as parts.
            if !matches!(token.kind.command(), Some("ex" | "exg")) {
                body.push(token);
            }
        }
        let mut out = made(&format!("\\begin{{{EXAMPLES_OF_LINGUEX}}}"), at);
        match label {
            Some(label) => {
                out.extend(made("\\item[", at));
                out.extend(label);
                out.extend(made("]", at));
            }
            None => out.extend(made("\\item{}", at)),
        }
        if has_gloss {
            out.extend(made("\\gll ", at));
        }
        self.parts_of_linguex(body, &mut out);
        out.extend(made(&format!("\\end{{{EXAMPLES_OF_LINGUEX}}}"), at));
        self.input.push_all(out.into_iter());
    }

    /// The parts of an example, by commands with a full stop behind them.
    fn parts_of_linguex(&self, body: Vec<Token>, out: &mut Vec<Token>) {
        let mut depth = 0_usize;
        let mut inner = Input::of_tokens(self.input.source, body.into_iter());
        while let Some(token) = inner.next() {
            let (letter, has_gloss) = match token.kind.command().map(str::as_bytes) {
                Some([letter @ b'a'..=b'z']) => (*letter, false),
                Some([letter @ b'a'..=b'y', b'g']) => (*letter, true),
                _ => (0, false),
            };
            if letter == 0 || !inner.takes_character('.') {
                out.push(token);
                continue;
            }
            inner.skip_white();
            let tokens = match letter {
                b'z' => format!("\\end{{{PARTS_OF_LINGUEX}}}"),
                b'a' if depth < DEEPEST => format!("\\begin{{{PARTS_OF_LINGUEX}}}\\item{{}}"),
                _ => "\\item{}".to_owned(),
            };
            out.extend(made(&tokens, token.at));
            if has_gloss {
                out.extend(made("\\gll ", token.at));
            }
            match letter {
                b'z' => depth = depth.saturating_sub(1),
                b'a' if depth < DEEPEST => depth += 1,
                _ => {}
            }
        }
        let at = out.last().map_or(0, |token| token.at);
        out.extend(made(&format!("\\end{{{PARTS_OF_LINGUEX}}}").repeat(depth), at));
    }

    /// `\ex … \xe`, `\pex … \a … \xe`, `\begingl … \endgl`. Whether a command is one of expex.
    fn command_of_expex(&mut self, name: &str) -> bool {
        match name {
            "ex" | "pex" => {
                self.input.take('~');
                self.input.option();
                self.input.take('~');
                let label = self.input.between('<', '>');
                let mut tokens = made(&format!("\\begin{{{EXAMPLES}}}\\item{{}}"), self.at);
                tokens.extend(self.label_from_signs(label));
                self.input.push_all(tokens.into_iter());
            }
            "a" if self.list_of_examples().is_some() => {
                let label = self.input.between('<', '>');
                let is_first = self.list_of_examples() == Some(EXAMPLES);
                let mut tokens =
                    made(&if is_first { format!("\\begin{{{PARTS}}}\\item{{}}") } else { "\\item{}".to_owned() }, self.at);
                tokens.extend(self.label_from_signs(label));
                self.input.push_all(tokens.into_iter());
            }
            "xe" => {
                let ends = match self.list_of_examples() {
                    Some(PARTS) => format!("\\end{{{PARTS}}}\\end{{{EXAMPLES}}}"),
                    Some(_) => format!("\\end{{{EXAMPLES}}}"),
                    None => return true,
                };
                self.input.push_all(made(&ends, self.at).into_iter());
            }
            "begingl" => {
                self.input.option();
                self.gloss_of_expex();
            }
            "nextx" | "lastx" | "blastx" | "anextx" => {
                let ahead = match name {
                    "nextx" => 1,
                    "anextx" => 2,
                    "lastx" => 0,
                    _ => -1,
                };
                self.text(&self.counters.get(COUNTER).saturating_add(ahead).to_string());
            }
            "getref" | "getfullref" => self.input.push(Sign::Command("ref".into()), self.at),
            // The sign of a judgement begins the text.
            "ljudge" | "judge" => {
                self.input.take('*');
            }
            _ => return false,
        }
        true
    }

    fn label_from_signs(&self, label: Option<Vec<Token>>) -> Vec<Token> {
        let Some(label) = label else { return Vec::new() };
        let mut tokens = made("\\label{", self.at);
        tokens.extend(label);
        tokens.extend(made("}", self.at));
        tokens
    }

    /// `\gll` with two lines of words, and more; lines end with `\\`, or where the source has its lines.
    fn gloss(&mut self, count: usize) {
        let mut lines = self.lines_of_gloss(|token| token.kind.command() == Some("\\"), count);
        if let [only] = &mut lines[..] {
            let is_end = |token: &Token| self.is_line_end(token);
            let parts: Vec<Vec<Token>> = only.split(is_end).map(<[Token]>::to_vec).collect();
            lines = parts.into_iter().filter(|line| !line.is_empty()).collect();
            if lines.len() > count {
                let rest: Vec<Token> = lines.split_off(count).concat();
                self.input.push_all(rest.into_iter());
                self.input.push(Sign::Par, self.at);
            }
        }
        self.show_gloss(lines);
    }

    pub(super) fn is_line_end(&self, token: &Token) -> bool {
        token.kind == Sign::Space && self.input.source.as_bytes().get(token.at as usize) == Some(&b'\n')
    }

    /// Lines up to what ends them, and before what follows a gloss.
    fn lines_of_gloss(&mut self, ends_line: impl Fn(&Token) -> bool, count: usize) -> Vec<Vec<Token>> {
        let (mut lines, mut groups) = (vec![Vec::new()], 0_usize);
        while let Some(token) = self.input.next() {
            let is_behind = groups == 0
                && (matches!(token.kind, Sign::Par | Sign::End)
                    || matches!(
                        token.kind.command(),
                        Some("end" | "ex" | "glt" | "gln" | "trans" | "glend" | "item" | "z" | "xe")
                    ))
                || matches!(token.kind, Sign::Then(_));
            if is_behind {
                self.input.made.push(token);
                break;
            }
            match token.kind {
                Sign::Begin => groups += 1,
                Sign::End => groups -= 1,
                _ => {}
            }
            if groups == 0 && ends_line(&token) {
                if lines.len() == count {
                    self.input.push(Sign::Par, self.at);
                    break;
                }
                lines.push(Vec::new());
            } else if let Some(line) = lines.last_mut().filter(|_| !is_gloss(&token)) {
                line.push(token);
            }
        }
        lines.retain(|line| line.iter().any(|token| !matches!(token.kind, Sign::Space | Sign::Par)));
        lines
    }

    /// `\begingl \gla … // \glb … // \glft … // \endgl`: lines of words, and one of text.
    fn gloss_of_expex(&mut self) {
        let mut lines: Vec<(bool, Vec<Token>)> = Vec::new();
        while let Some(token) = self.input.next() {
            match &token.kind {
                Sign::Command(name) if &**name == "endgl" => break,
                Sign::Command(name) if matches!(&**name, "gla" | "glb" | "glc" | "gld" | "glft" | "glpreamble") => {
                    self.input.option();
                    lines.push((!matches!(&**name, "glft" | "glpreamble"), Vec::new()));
                }
                Sign::Then(_) | Sign::Par => {
                    self.input.made.push(token);
                    break;
                }
                _ => {
                    if let Some((_, line)) = lines.last_mut().filter(|_| !is_gloss(&token)) {
                        line.push(token);
                    }
                }
            }
        }
        for (_, line) in &mut lines {
            self.without_slashes(line);
        }
        let (words, text): (Vec<_>, Vec<_>) = lines.into_iter().partition(|(is_words, _)| *is_words);
        for (_, line) in text.into_iter().rev() {
            self.input.push(Sign::Par, self.at);
            self.input.push_all(line.into_iter());
        }
        self.input.push(Sign::Par, self.at);
        self.show_gloss(words.into_iter().map(|(_, line)| line).collect());
    }

    /// Takes the two slashes away that a line ends with.
    fn without_slashes(&self, line: &mut Vec<Token>) {
        while let Some(last) = line.last_mut() {
            match last.kind {
                Sign::Space => drop(line.pop()),
                Sign::Char('/') => drop(line.pop()),
                Sign::Text(start, end) => {
                    let kept = self.input.slice(start, end).trim_end_matches(['/', ' ']).len() as u32;
                    if start + kept < end {
                        last.kind = Sign::Text(start, start + kept);
                    }
                    return if kept == 0 {
                        drop(line.pop())
                    };
                }
                _ => return,
            }
        }
    }

    /// Shows lines of words that belong together, one above the other: a table with a column for each word.
    fn show_gloss(&mut self, lines: Vec<Vec<Token>>) {
        let at = self.at;
        let rows: Vec<Vec<Vec<Token>>> = lines.into_iter().map(|line| self.words_of_line(line)).collect();
        let width = rows.iter().map(Vec::len).max().unwrap_or(0);
        if width == 0 {
            return;
        }
        if rows.len() < 2 || width > MOST_WORDS || !self.takes_blocks() {
            for (place, row) in rows.into_iter().enumerate().collect::<Vec<_>>().into_iter().rev() {
                let space = Token { kind: Sign::Space, at };
                self.input.push_all(row.join(&space).into_iter());
                if place > 0 {
                    self.input.push(Sign::Command("\\".into()), at);
                }
            }
            return;
        }
        let mut out = made(&format!("\\begin{{{GLOSS}}}{{{}}}", "l".repeat(width)), at);
        for row in rows {
            out.extend(row.join(&Token { kind: Sign::Cell, at }));
            out.extend(made("\\\\", at));
        }
        out.extend(made(&format!("\\end{{{GLOSS}}}"), at));
        self.input.push_all(out.into_iter());
    }

    /// The words of a line: what stands in braces is one.
    fn words_of_line(&self, line: Vec<Token>) -> Vec<Vec<Token>> {
        let (mut words, mut word, mut groups) = (Vec::new(), Vec::new(), 0_usize);
        let mut inner = Input::of_tokens(self.input.source, line.into_iter());
        while let Some(token) = inner.single() {
            match token.kind {
                Sign::Begin => groups += 1,
                Sign::End => groups = groups.saturating_sub(1),
                Sign::Space if groups == 0 => {
                    if !word.is_empty() {
                        words.push(std::mem::take(&mut word));
                    }
                    continue;
                }
                _ => {}
            }
            word.push(token);
        }
        if !word.is_empty() {
            words.push(word);
        }
        words
    }
}

/// Whether a token begins a gloss: none stands in another.
fn is_gloss(token: &Token) -> bool {
    matches!(token.kind.command(), Some("gll" | "glll" | "gllll" | "begingl" | "digloss" | "trigloss"))
}
