//! Algorithms: a list of lines, where a line that holds others has a list of its own (the documentation of algorithmicx, of
//! algorithms and of algorithm2e).

use super::super::own_commands::CLASS_OF_LINES;
use super::Reader;
use super::tokens::{Kind as Sign, Token};
use crate::document::{Kind, ListKind, Marker, NodeId, TextLevel};

/// Lines that have begun: those of an algorithm, or those within a line.
#[derive(Debug)]
pub(super) struct Lines {
    list: NodeId,
    /// How many parts of the document were open before them.
    parts: usize,
    /// Whether they are the outermost ones.
    is_outermost: bool,
    /// Whether the lines within a line stand in braces; else a command ends them.
    in_braces: bool,
}

impl Lines {
    pub(super) const fn is_in_braces(&self) -> bool {
        self.in_braces
    }
}

/// Stand before and behind the lines within a line, and before a keyword.
const BLOCK_BEGINS: &str = "block begins";
const BLOCK_BEGINS_BEFORE_OTHER: &str = "block begins before other";
const BLOCK_ENDS: &str = "block ends";
const KEYWORD: &str = "keyword ";

/// What a command of algorithms does.
#[derive(Clone, Copy, Debug, PartialEq, Eq)]
enum Step {
    /// A line of its own.
    Line,
    /// A line that begins with a word.
    Word(&'static str),
    /// A line with a word before and one behind its condition, and lines within it.
    Block(&'static str, &'static str),
    /// As a block, in the place of the one before.
    Next(&'static str, &'static str),
    /// A line with a name and its arguments in parentheses, and lines within it.
    Named(&'static str),
    Repeat,
    Until,
    /// The lines within end.
    End,
    /// A word within a line.
    Inner(&'static str),
}

/// What a command does, by its name in small letters.
fn step(name: &str) -> Option<Step> {
    Some(match name {
        "state" | "statex" => Step::Line,
        "require" => Step::Word("Require:"),
        "ensure" => Step::Word("Ensure:"),
        "input" | "kwin" => Step::Word("Input:"),
        "output" | "kwout" => Step::Word("Output:"),
        "kwdata" => Step::Word("Data:"),
        "kwresult" => Step::Word("Result:"),
        "print" => Step::Word("print"),
        "if" => Step::Block("if", "then"),
        "elsif" | "elseif" => Step::Next("else if", "then"),
        "else" => Step::Next("else", ""),
        "for" => Step::Block("for", "do"),
        "forall" => Step::Block("for all", "do"),
        "foreach" => Step::Block("for each", "do"),
        "while" => Step::Block("while", "do"),
        "loop" => Step::Block("loop", ""),
        "begin" => Step::Block("begin", ""),
        "switch" => Step::Block("switch", "do"),
        "case" => Step::Block("case", "do"),
        "other" => Step::Block("otherwise do", ""),
        "repeat" => Step::Repeat,
        "until" => Step::Until,
        "function" => Step::Named("function"),
        "procedure" => Step::Named("procedure"),
        "endif" | "endfor" | "endforall" | "endwhile" | "endloop" | "endfunction" | "endprocedure" => Step::End,
        "return" | "kwret" => Step::Inner("return"),
        "and" => Step::Inner("and"),
        "or" => Step::Inner("or"),
        "not" => Step::Inner("not"),
        "to" | "kwto" => Step::Inner("to"),
        "true" => Step::Inner("true"),
        "false" => Step::Inner("false"),
        _ => return None,
    })
}

/// What a command does: names have capital letters, and those of lines without an end a letter before.
fn step_of(name: &str) -> Option<Step> {
    let is_capital = |name: &str| name.starts_with(|c: char| c.is_ascii_uppercase());
    let base = if is_capital(name) { name } else { name.strip_prefix(['u', 'l']).filter(|base| is_capital(base))? };
    step(&base.to_ascii_lowercase())
}

impl Reader<'_> {
    /// Begins an algorithm.
    pub(super) fn begin_algorithm(&mut self, in_braces: bool) {
        let node = self.block(Kind::List(LINES));
        let class = self.doc.intern(CLASS_OF_LINES);
        self.doc.attributes_mut(node).classes.push(class);
        self.own.lines.push(Lines { list: node, parts: self.parts.len(), is_outermost: true, in_braces });
    }

    /// The list that has just begun is one of the lines of an algorithm; those within lines are so by where they stand.
    pub(super) fn mark_lines(&mut self) {
        let Some(list) = self.lists.last().map(|list| list.node) else { return };
        let doc = &self.doc;
        let is_inner =
            doc.ancestors(list).skip(1).any(|above| doc.node(above).has_attributes() && doc.is_of_class(above, CLASS_OF_LINES));
        if !is_inner {
            let class = self.doc.intern(CLASS_OF_LINES);
            self.doc.attributes_mut(list).classes.push(class);
        }
    }

    /// Ends an algorithm with all that is within it.
    pub(super) fn end_algorithm(&mut self) {
        while let Some(lines) = self.own.lines.pop() {
            while self.parts.len() > lines.parts {
                self.end_part();
            }
            if self.doc.node(lines.list).first_child().is_none() {
                self.doc.detach(lines.list);
            }
            if lines.is_outermost {
                break;
            }
        }
    }

    /// Does what a command means in an algorithm. Whether it means something.
    pub(super) fn algorithm_command(&mut self, name: &str) -> bool {
        let Some(in_braces) = self.own.lines.last().map(|lines| lines.in_braces) else { return false };
        if !self.own.keywords.is_empty() && self.own_keyword(name) {
            return true;
        }
        if let Some(step) = step_of(name) {
            self.algorithm_step(step, in_braces);
            return true;
        }
        if let Some(word) = name.strip_prefix(KEYWORD) {
            self.keyword(word);
            return true;
        }
        match name {
            BLOCK_BEGINS => self.block_begins(in_braces, false),
            BLOCK_BEGINS_BEFORE_OTHER => self.block_begins(in_braces, true),
            BLOCK_ENDS => self.block_ends(),
            ";" => self.line_ends_here(),
            "eIf" => {
                let condition = self.input.argument();
                self.input.push(Sign::Command(BLOCK_BEGINS_BEFORE_OTHER.into()), self.at);
                self.line_of("if", Some(condition), "then");
            }
            "Comment" | "COMMENT" | "tcp" | "tcc" => {
                self.input.take('*');
                self.input.option();
                self.text(" ");
                self.text("\u{25B7} ");
                self.styled_argument(Kind::Emphasis);
            }
            "Call" => {
                let (called, arguments) = (self.input.argument(), self.input.argument());
                let tokens = self.called(called, arguments);
                self.input.push_all(tokens.into_iter());
            }
            "KwSty" | "FuncSty" | "ArgSty" | "textproc" | "DataSty" | "SetAlgoLined" | "DontPrintSemicolon" | "LinesNumbered"
            | "SetAlgoNoLine" | "PrintSemicolon" | "SetAlgoVlined" | "SetAlgoNoEnd" | "BlankLine" | "Indp" | "Indm" | "nl"
            | "ShowLn" | "LinesNotNumbered" => {}
            "RestyleAlgo" | "lnl" | "SetKwComment" => self.skip_arguments(if name == "SetKwComment" { "mmm" } else { "m" }),
            _ => return false,
        }
        true
    }

    fn algorithm_step(&mut self, step: Step, in_braces: bool) {
        match step {
            Step::Line => self.line(),
            Step::Word(word) => {
                if in_braces {
                    return self.line_that_says(word);
                }
                self.line();
                self.keyword(word);
                self.text(" ");
            }
            Step::Inner(word) => {
                self.keyword(word);
                self.text(" ");
            }
            Step::Block(before, behind) | Step::Next(before, behind) => {
                if matches!(step, Step::Next(..)) && !in_braces {
                    self.block_ends();
                }
                let condition = (!behind.is_empty()).then(|| self.input.argument());
                self.lines_of(before, condition, behind);
            }
            Step::Named(kind) => {
                let (called, arguments) = (self.input.argument(), self.input.argument());
                let tokens = self.called(called, arguments);
                self.lines_of(kind, Some(tokens), "");
            }
            Step::Repeat if in_braces => {
                let (condition, body) = (self.input.argument(), self.input.argument());
                self.input.push(Sign::End, self.at);
                self.input.push_all(condition.into_iter());
                self.input.push(Sign::Begin, self.at);
                self.input.push(Sign::Command("Until".into()), self.at);
                self.input.push(Sign::End, self.at);
                self.input.push_all(body.into_iter());
                self.input.push(Sign::Begin, self.at);
                self.lines_of("repeat", None, "");
            }
            Step::Repeat => self.lines_of("repeat", None, ""),
            Step::Until => {
                if !in_braces {
                    self.block_ends();
                }
                self.line();
                self.keyword("until");
                self.text(" ");
            }
            Step::End => self.block_ends(),
        }
    }

    /// A line with a word before what an argument says.
    fn line_that_says(&mut self, word: &str) {
        let words = self.input.argument();
        self.input.push(Sign::Command(";".into()), self.at);
        self.input.push_all(words.into_iter());
        self.line();
        self.keyword(word);
        self.text(" ");
    }

    /// A name with its arguments.
    fn called(&self, name: Vec<Token>, arguments: Vec<Token>) -> Vec<Token> {
        let sign = |c: char| Token { kind: Sign::Char(c), at: self.at };
        let mut tokens = name;
        tokens.push(sign('('));
        tokens.extend(arguments);
        tokens.push(sign(')'));
        tokens
    }

    /// A line with a condition between two words, and the lines within it.
    fn lines_of(&mut self, before: &str, condition: Option<Vec<Token>>, behind: &str) {
        self.input.push(Sign::Command(BLOCK_BEGINS.into()), self.at);
        self.line_of(before, condition, behind);
    }

    /// A line with a condition between two words.
    fn line_of(&mut self, before: &str, condition: Option<Vec<Token>>, behind: &str) {
        let at = self.at;
        if !behind.is_empty() {
            self.input.push(Sign::Command(format!("{KEYWORD}{behind}").into()), at);
            self.input.push(Sign::Space, at);
        }
        if let Some(condition) = condition {
            self.input.push_all(condition.into_iter());
            self.input.push(Sign::Space, at);
        }
        self.line();
        self.keyword(before);
    }

    /// Begins a line.
    fn line(&mut self) {
        self.line_ends_here();
        let Some(lines) = self.own.lines.last() else { return };
        if self.parts.len() < super::build::MOST_PARTS {
            let item = self.doc.append_at(lines.list, Kind::ListItem { checked: None }, self.at);
            self.begin_part(item, false);
        }
    }

    fn line_ends_here(&mut self) {
        let Some(parts) = self.own.lines.last().map(|lines| lines.parts) else { return };
        while self.parts.len() > parts {
            self.end_part();
        }
    }

    /// Text of an algorithm that stands in no line begins one.
    pub(super) fn line_for_text(&mut self) {
        if self.own.lines.last().is_some_and(|lines| lines.parts == self.parts.len()) {
            self.line();
        }
    }

    /// Begins lines within the last line: what stands in braces, or what follows.
    fn block_begins(&mut self, in_braces: bool, other: bool) {
        let Some(item) = self.own.lines.last().and_then(|lines| self.doc.node(lines.list).last_child()) else { return };
        self.end_paragraph();
        let list = self.doc.append_at(item, Kind::List(LINES), self.at);
        self.own.lines.push(Lines { list, parts: self.parts.len(), is_outermost: false, in_braces });
        if in_braces && self.input.takes_begin() {
            self.open_group(super::Closing::Lines { other });
        } else if in_braces {
            let only = self.input.argument();
            self.input.push(Sign::Command(BLOCK_ENDS.into()), self.at);
            self.input.push_all(only.into_iter());
        }
    }

    /// The lines in braces end; behind some, there are others for what is not so.
    pub(super) fn lines_in_braces_end(&mut self, other: bool) {
        self.block_ends();
        if other && !self.own.lines.is_empty() {
            self.lines_of("else", None, "");
        }
    }

    /// Ends the lines within a line, and that line.
    fn block_ends(&mut self) {
        let Some(lines) = self.own.lines.pop_if(|lines| !lines.is_outermost) else { return };
        while self.parts.len() > lines.parts {
            self.end_part();
        }
        if self.doc.node(lines.list).first_child().is_none() {
            self.doc.detach(lines.list);
        }
        self.line_ends_here();
    }

    /// A word of an algorithm, which is bold.
    fn keyword(&mut self, word: &str) {
        if !word.is_empty() {
            let strong = self.inline(Kind::Strong);
            let text = self.doc.intern(word);
            self.doc.append_at(strong, Kind::Text(text), self.at);
        }
    }

    /// Takes a keyword that a document defines for its algorithms: `\SetKwInOut{Input}{input}`. Whether a command does that.
    pub(super) fn define_keyword(&mut self, definer: &str) -> bool {
        let form = match definer {
            "SetKwInOut" | "SetKwInput" => KeywordForm::Line,
            "SetKwFunction" => KeywordForm::Function,
            "SetKwData" | "SetKw" | "SetKwArray" => KeywordForm::Word,
            "SetKwProg" | "SetKwFor" => KeywordForm::Block,
            _ => return false,
        };
        let (name, words) = (self.input.argument(), self.input.argument());
        let behind = (form == KeywordForm::Block).then(|| {
            let behind = self.input.argument();
            self.input.argument();
            behind
        });
        let name = self.input.characters(&name);
        let (mut words, behind) = (self.words(&words), self.words(&behind.unwrap_or_default()));
        if form == KeywordForm::Line {
            words.push(':');
        }
        self.own.keywords.insert(name, Keyword { words, behind, form });
        true
    }

    /// A keyword that the document defines. Whether a command is one.
    fn own_keyword(&mut self, name: &str) -> bool {
        let Some(Keyword { words, behind, form }) = self.own.keywords.get(name).cloned() else { return false };
        match form {
            KeywordForm::Line => self.line_that_says(&words),
            KeywordForm::Block => {
                let condition = self.input.argument();
                self.lines_of(&words, Some(condition), &behind);
            }
            KeywordForm::Function if self.input.takes_begin() => {
                let arguments = self.input.up_to_end();
                let tokens = self.called(Vec::new(), arguments);
                self.input.push_all(tokens.into_iter());
                let code = self.inline(Kind::TextLevel(TextLevel::Code));
                let text = self.doc.intern(&words);
                self.doc.append_at(code, Kind::Text(text), self.at);
            }
            KeywordForm::Function | KeywordForm::Word => {
                self.keyword(&words);
                self.text(" ");
            }
        }
        true
    }
}

/// A keyword that a document defines for its algorithms (the documentation of algorithm2e, "Defining keywords").
#[derive(Clone, Debug)]
pub(super) struct Keyword {
    words: String,
    /// What stands behind the condition of a block.
    behind: String,
    form: KeywordForm,
}

#[derive(Clone, Copy, Debug, PartialEq, Eq)]
enum KeywordForm {
    /// A word within a line.
    Word,
    /// A word before the arguments of a function, which stand in parentheses.
    Function,
    /// What a line begins with.
    Line,
    /// A line with a condition, and the lines within it.
    Block,
}

/// A list of lines.
const LINES: ListKind = ListKind { ordered: false, tight: true, marker: Marker::Plain, start: 1 };
