//! Columns of tables: how they are aligned, and what stands around their cells (the LaTeX documentation, "tabular"; of array,
//! tabularray and siunitx).

use super::Reader;
use super::tokens::{Input, Kind as Sign, Token};
use crate::document::Align;
use crate::fast_hash::HashMap;
use std::rc::Rc;

/// A table has no more columns.
pub(super) const MOST_COLUMNS: usize = 1000;

/// What stands around cells is not added in tables that stand deeper within each other.
const MOST_TABLES: usize = 6;

/// Kinds of columns that a document defines stand for others no more often than this in a table.
const MOST_REPLACED: usize = 2000;

/// A column of a table.
#[derive(Clone, Debug, Default)]
pub(super) struct ColumnOf {
    pub(super) align: Align,
    /// What stands in each cell before its own words, and behind them.
    pub(super) before: Vec<Token>,
    pub(super) behind: Vec<Token>,
    /// What stands between it and the next.
    pub(super) between: Vec<Token>,
    /// Whether both are one, as the two parts of a number are.
    pub(super) joins_next: bool,
}

impl ColumnOf {
    /// Whether something stands around the words of its cells.
    pub(super) fn has_surroundings(&self) -> bool {
        !self.before.is_empty() || !self.behind.is_empty()
    }
}

/// Kinds of columns that a document defines, by their letters: how many arguments they take, and what they stand for.
pub(super) type OwnColumns = HashMap<char, (usize, Rc<[Token]>)>;

impl Reader<'_> {
    /// `\newcolumntype{Y}[1]{>{\centering}p{#1}}`
    pub(super) fn new_column(&mut self) {
        let letter = self.input.argument();
        let count = self.input.option().and_then(|count| self.input.characters(&count).parse().ok()).unwrap_or(0).min(9);
        self.input.option();
        let body = self.input.argument();
        if let Some(letter) = letter.first().and_then(|token| self.input.character_of(token)) {
            self.own.columns.insert(letter, (count, body.into()));
        }
    }

    /// The columns that tokens say.
    pub(super) fn columns(&mut self, spec: &[Token]) -> Vec<ColumnOf> {
        let mut input = Input::of_tokens(self.input.source, spec.iter().cloned());
        let mut found: Vec<ColumnOf> = Vec::new();
        let mut before: Vec<Token> = Vec::new();
        let mut replaced = 0;
        while let Some(token) = input.single().filter(|_| found.len() < MOST_COLUMNS) {
            let Some(letter) = input.character_of(&token) else {
                if let Some(name) = token.kind.command().map(str::to_owned)
                    && replaced < MOST_REPLACED
                {
                    replaced += 1;
                    self.macros.expand(&name, token.at, &mut input);
                }
                continue;
            };
            if let Some((count, body)) = self.own.columns.get(&letter).cloned()
                && replaced < MOST_REPLACED
            {
                replaced += 1;
                let given: Vec<Vec<Token>> = (0..count).map(|_| input.argument()).collect();
                let body = super::macros::filled(&body, &given);
                if self.macros.charge(body.len(), token.at) {
                    input.push_all(body.into_iter());
                }
                continue;
            }
            let align = self.align_of_letter(letter, &mut input);
            match letter {
                '>' => before = input.argument(),
                '<' => {
                    let behind = input.argument();
                    if let Some(last) = found.last_mut() {
                        last.behind = behind.into_iter().chain(std::mem::take(&mut last.behind)).collect();
                    }
                }
                '@' | '!' => {
                    let words = input.argument();
                    self.stands_between(words, letter == '@', found.last_mut());
                }
                '*' => {
                    let count = input.argument();
                    let count: usize = input.characters(&count).trim().parse().unwrap_or(1);
                    let inner = input.argument();
                    for _ in 0..count.min(MOST_COLUMNS) {
                        replaced += 1;
                        if replaced > MOST_REPLACED || !self.macros.charge(inner.len(), token.at) {
                            break;
                        }
                        input.push_all(inner.iter().cloned());
                    }
                }
                _ => {}
            }
            if let Some(align) = align {
                let said = std::mem::take(&mut before);
                found.push(column_of(align, matches!(letter, 'p' | 'm' | 'b' | 'P' | 'M'), said));
            }
        }
        // What stands behind the last column is part of its cells.
        if let Some(last) = found.last_mut() {
            last.joins_next = false;
            let between = std::mem::take(&mut last.between);
            last.behind.extend(between);
        }
        found
    }

    /// How the column is aligned that a letter stands for, with its arguments; nothing where it stands for none.
    fn align_of_letter(&self, letter: char, input: &mut Input<'_>) -> Option<Align> {
        match letter {
            'l' | 'L' | 'J' | 'j' => Some(Align::Unsaid),
            'c' | 'C' => Some(Align::Center),
            'r' | 'R' => Some(Align::Right),
            'S' | 's' => {
                input.option();
                Some(Align::Right)
            }
            'D' => {
                (0..3).for_each(|_| drop(input.argument()));
                Some(Align::Right)
            }
            'd' => {
                if input.made.last().is_some_and(|next| next.kind == Sign::Begin) {
                    input.argument();
                }
                Some(Align::Right)
            }
            'X' | 'Q' => Some(self.align_of_option(input)),
            'p' | 'm' | 'b' | 'P' | 'M' => {
                input.argument();
                Some(Align::Unsaid)
            }
            'w' | 'W' => {
                let said = input.argument();
                input.argument();
                Some(match said.first().and_then(|token| input.character_of(token)) {
                    Some('c') => Align::Center,
                    Some('r') => Align::Right,
                    _ => Align::Unsaid,
                })
            }
            _ => None,
        }
    }

    /// What stands between a column and the next, where it is more than space.
    fn stands_between(&mut self, words: Vec<Token>, joins: bool, last: Option<&mut ColumnOf>) {
        let shown = self.words(&words);
        let shows = !shown.trim_matches(|c: char| c.is_whitespace() || c == '|').is_empty() && !is_length(&words);
        if let Some(last) = last.filter(|_| shows) {
            last.joins_next = joins;
            last.between = words;
        }
    }

    /// How a column is aligned by its option: `X[c]`, `Q[2,r]`.
    fn align_of_option(&self, input: &mut Input<'_>) -> Align {
        let option = input.option().unwrap_or_default();
        let text = input.characters(&option);
        let mut align = Align::Unsaid;
        for part in text.split(',').map(str::trim) {
            match part.strip_prefix("halign=").unwrap_or(part) {
                "c" => align = Align::Center,
                "r" => align = Align::Right,
                _ => {}
            }
        }
        align
    }

    /// The words of a cell with what stands around them come next, where a cell of such a column begins with this token.
    pub(super) fn begins_cell_with(&mut self, token: Token) -> Option<Token> {
        let starts = match &token.kind {
            Sign::Space | Sign::Par => false,
            Sign::Cell | Sign::End | Sign::Then(_) => {
                self.end_of_pending();
                false
            }
            Sign::Command(name) => match &**name {
                "\\" | "tabularnewline" | "cr" | "end" | "multicolumn" | "omit" | "caption" | "endhead" | "endfirsthead"
                | "endfoot" | "endlastfoot" => {
                    self.end_of_pending();
                    false
                }
                "hline" | "toprule" | "midrule" | "bottomrule" | "cline" | "cmidrule" | "addlinespace" | "specialrule"
                | "noalign" | "hhline" | "Xhline" | "morecmidrules" | "rowcolor" | "arrayrulecolor" | "relax" | "label"
                | "multirow" | "cellcolor" | "tableline" => false,
                // What the document's own commands come to decides.
                name if self.macros.knows(name) => false,
                _ => true,
            },
            _ => true,
        };
        if !starts {
            return Some(token);
        }
        self.end_of_pending();
        // The words of a cell are read twice: not again and again for tables within tables.
        if self.tables.len() > MOST_TABLES {
            return Some(token);
        }
        let Some(column) = self.tables.last().and_then(super::tables::Table::column_here).cloned() else { return Some(token) };
        self.input.made.push(token);
        let words = self.tokens_of_cell();
        let at = self.at;
        if !self.macros.charge(words.len() + column.before.len() + column.behind.len(), at) {
            self.input.push_all(words.into_iter());
            return None;
        }
        // What is set in one cell ends with it.
        self.input.push(Sign::End, at);
        self.input.push_all(column.behind.into_iter());
        self.input.push_all(self.input.trimmed(&words).into_iter());
        self.input.push_all(column.before.into_iter());
        self.input.push(Sign::Begin, at);
        None
    }

    fn end_of_pending(&mut self) {
        if let Some(table) = self.tables.last_mut() {
            table.is_pending = false;
        }
    }

    /// What stands in a cell, up to what ends it.
    fn tokens_of_cell(&mut self) -> Vec<Token> {
        let (mut found, mut depth, mut environments) = (Vec::new(), 0_usize, 0_usize);
        while let Some(token) = self.input.next() {
            let is_outside = depth == 0 && environments == 0;
            let ends = match &token.kind {
                Sign::Cell => is_outside,
                Sign::Then(_) => true,
                Sign::Begin => {
                    depth += 1;
                    false
                }
                Sign::End if depth == 0 => true,
                Sign::End => {
                    depth -= 1;
                    false
                }
                Sign::Command(name) => match &**name {
                    "\\" | "tabularnewline" | "cr" => is_outside,
                    "begin" => {
                        environments += 1;
                        false
                    }
                    "end" if environments == 0 => true,
                    "end" => {
                        environments -= 1;
                        false
                    }
                    _ => false,
                },
                _ => false,
            };
            if ends {
                self.input.made.push(token);
                break;
            }
            found.push(token);
        }
        found
    }
}

/// Whether tokens between columns say how far these are apart.
fn is_length(tokens: &[Token]) -> bool {
    const LENGTHS: [&str; 8] = ["hspace", "hskip", "extracolsep", "kern", "hspace*", "vrule", "color", "vline"];
    tokens.iter().any(|token| token.kind.command().is_some_and(|name| LENGTHS.contains(&name)))
}

/// A column, by its letter and by what stands before its cells.
fn column_of(align: Align, is_paragraph: bool, mut before: Vec<Token>) -> ColumnOf {
    let has = |before: &[Token], name: &str| before.iter().any(|token| token.kind.command() == Some(name));
    // Text in columns of paragraphs is set ragged for its looks, if nothing else is said.
    let said = if has(&before, "centering") || has(&before, "Centering") {
        Some(Align::Center)
    } else if has(&before, "raggedleft") || has(&before, "RaggedLeft") {
        Some(Align::Right)
    } else if has(&before, "raggedright") || has(&before, "RaggedRight") {
        Some(Align::Left).filter(|_| !is_paragraph || has(&before, "hspace"))
    } else {
        None
    };
    // What only says how cells are set is no part of their words, nor are the arguments of that.
    const LOOKS: [&str; 26] = [
        "centering",
        "Centering",
        "raggedleft",
        "RaggedLeft",
        "raggedright",
        "RaggedRight",
        "arraybackslash",
        "hspace",
        "columncolor",
        "color",
        "small",
        "footnotesize",
        "scriptsize",
        "tiny",
        "large",
        "let",
        "newline",
        "strut",
        "hangindent",
        "noindent",
        "leavevmode",
        "vspace",
        "raisebox",
        "normalfont",
        "sffamily",
        "rmfamily",
    ];
    let mut commands = before.iter().filter_map(|token| token.kind.command()).peekable();
    let has_commands = commands.peek().is_some();
    let shows = commands.any(|name| !LOOKS.contains(&name))
        || before.iter().any(|token| token.kind == Sign::Dollar)
        || !has_commands && before.iter().any(|token| matches!(token.kind, Sign::Text(..) | Sign::Char(_)));
    if !shows {
        before.clear();
    }
    ColumnOf { align: said.unwrap_or(align), before, ..ColumnOf::default() }
}
