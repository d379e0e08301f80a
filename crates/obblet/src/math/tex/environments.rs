//! Environments: matrices, cases, arrays, alignments (the documentation of amsmath, and of LaTeX for `array`).

use super::read::{Parser, Until};
use super::tokens::Kind;
use crate::math::{Align, Node, Row, Table, TableKind, TableRow};

/// What an environment is, by its name without a star.
fn kind_of(name: &str) -> Option<TableKind> {
    Some(match name {
        "matrix" => TableKind::Plain,
        "pmatrix" => TableKind::Parentheses,
        "bmatrix" => TableKind::Brackets,
        "Bmatrix" => TableKind::Braces,
        "vmatrix" => TableKind::Bars,
        "Vmatrix" => TableKind::DoubleBars,
        "smallmatrix" => TableKind::Small,
        "array" | "darray" => TableKind::Array,
        "cases" | "dcases" => TableKind::Cases,
        "rcases" | "drcases" => TableKind::RightCases,
        "aligned" | "align" | "split" | "alignedat" | "alignat" | "xalignat" | "flalign" | "eqnarray" => TableKind::Aligned,
        "gathered" | "gather" => TableKind::Gathered,
        "multline" | "multlined" => TableKind::Multline,
        "subarray" => TableKind::Substack,
        _ => return None,
    })
}

/// The usual environment that one of another package is like, and the delimiters that it adds.
fn like(name: &str) -> (&str, Option<(&'static str, &'static str)>) {
    match name {
        "NiceArray" => ("array", None),
        "pNiceArray" => ("array", Some(("(", ")"))),
        "bNiceArray" => ("array", Some(("[", "]"))),
        "BNiceArray" => ("array", Some(("{", "}"))),
        "vNiceArray" => ("array", Some(("|", "|"))),
        "VNiceArray" => ("array", Some(("‖", "‖"))),
        "NiceMatrix" => ("matrix", None),
        "pNiceMatrix" => ("pmatrix", None),
        "bNiceMatrix" => ("bmatrix", None),
        "BNiceMatrix" => ("Bmatrix", None),
        "vNiceMatrix" => ("vmatrix", None),
        "VNiceMatrix" => ("Vmatrix", None),
        "WithArrows" | "DispWithArrows" => ("aligned", None),
        _ => (name, None),
    }
}

/// Whether an environment is one of formulas.
pub(crate) fn is_environment(name: &str) -> bool {
    let (name, _) = like(name.trim_end_matches('*'));
    kind_of(name).is_some() || matches!(name, "equation" | "displaymath" | "math" | "empheq" | "subequations")
}

/// Whether an environment asks for numbers.
fn is_numbered(name: &str) -> bool {
    matches!(name, "align" | "multline" | "gather" | "alignat" | "flalign" | "eqnarray" | "xalignat")
}

/// Reads an environment whose `\begin` has been read.
pub(super) fn read(parser: &mut Parser<'_>, at: u32) -> Row {
    let whole = parser.words();
    let (name, fence) = like(whole.trim_end_matches('*'));
    if matches!(name, "equation" | "displaymath" | "math" | "empheq") {
        parser.math.numbered = whole == "equation";
        let mut row = parser.row(Until::Cell);
        end(parser, &whole, at);
        if let [Node::Table(table)] = &mut row[..] {
            // The number is that of the whole.
            table.rows.iter_mut().for_each(|row| row.unnumbered = true);
        }
        return row;
    }
    if name == "subequations" {
        return parts(parser, &whole, at);
    }
    let Some(kind) = kind_of(name) else {
        parser.problem(at, format!("the environment {whole} is not known"));
        let row = parser.row(Until::Cell);
        end(parser, &whole, at);
        return row;
    };
    let mut table = Table { kind, ..Table::default() };
    parser.skip_option();
    match name {
        "array" | "darray" | "subarray" => {
            let columns = parser.words();
            (table.columns, table.rules) = columns_of(&columns);
            if name != whole {
                parser.skip_option();
            }
        }
        "alignedat" | "alignat" | "xalignat" => drop(parser.words()),
        _ => {}
    }
    table.rows = rows(parser, name == "eqnarray");
    end(parser, &whole, at);
    number_rows(parser, name, &whole, &mut table);
    if kind == TableKind::Substack {
        table.columns.clear();
    }
    let table = Node::Table(Box::new(table));
    vec![match fence {
        Some((open, close)) => {
            Node::Fenced { open: open.into(), close: close.into(), parts: vec![vec![table]], middles: Vec::new() }
        }
        None => table,
    }]
}

/// A group of equations that have one number with letters behind it (the documentation of amsmath, "Subordinate numbering").
fn parts(parser: &mut Parser<'_>, whole: &str, at: u32) -> Row {
    let mut label = String::new();
    if matches!(parser.peek(), Some(Kind::Command(name)) if &**name == "label") {
        parser.stack.pop();
        label = parser.words();
    }
    let row = parser.row(Until::Cell);
    end(parser, whole, at);
    if label.is_empty() && matches!(&row[..], [Node::Table(_)]) {
        label = std::mem::take(&mut parser.math.label);
    }
    parser.math.parts = Some(label);
    row
}

/// Says which rows are numbered: each, or the whole once, or none.
fn number_rows(parser: &mut Parser<'_>, name: &str, whole: &str, table: &mut Table) {
    if !is_numbered(name) {
        return;
    }
    if name == "multline" {
        let row = |math: &mut crate::math::Math, row: &mut TableRow| {
            math.tag = row.tag.take().or_else(|| math.tag.take());
            if !row.label.is_empty() {
                math.label = std::mem::take(&mut row.label);
            }
        };
        let is_silent = table.rows.iter().any(|row| row.unnumbered);
        table.rows.iter_mut().for_each(|one| row(&mut parser.math, one));
        table.rows.iter_mut().for_each(|row| row.unnumbered = false);
        parser.math.numbered |= !whole.ends_with('*') && !is_silent;
        return;
    }
    parser.math.numbered |= !whole.ends_with('*') && table.rows.iter().any(|row| !row.unnumbered);
    if !parser.math.numbered {
        table.rows.iter_mut().for_each(|row| row.unnumbered = false);
    }
}

/// Rows up to the end of their environment.
fn rows(parser: &mut Parser<'_>, joins: bool) -> Vec<TableRow> {
    let mut rows: Vec<TableRow> = vec![TableRow::default()];
    let before = (std::mem::take(&mut parser.math.tag), std::mem::take(&mut parser.math.label), parser.math.numbered);
    loop {
        let ruled = hlines(parser);
        if let Some(last) = rows.last_mut().filter(|row| row.cells.is_empty()) {
            last.ruled |= ruled;
        }
        parser.math.numbered = true;
        let cell = parser.row(Until::Cell);
        let (tag, label) = (std::mem::take(&mut parser.math.tag), std::mem::take(&mut parser.math.label));
        let unnumbered = !parser.math.numbered;
        let Some(last) = rows.last_mut() else { break };
        last.cells.push(cell);
        last.tag = tag.or_else(|| last.tag.take());
        if !label.is_empty() {
            last.label = label;
        }
        last.unnumbered |= unnumbered;
        match parser.peek().cloned() {
            Some(Kind::Cell) => {
                parser.stack.pop();
            }
            Some(Kind::Command(name)) if matches!(&*name, "\\" | "cr" | "newline") => {
                parser.stack.pop();
                if parser.stack.last().is_some_and(|token| token.kind == Kind::Char('*')) {
                    parser.stack.pop();
                }
                // How far the next row is away; spaces before a bracket make it part of that row.
                if parser.stack.last().is_some_and(|token| token.kind == Kind::Char('[')) {
                    parser.skip_option();
                }
                rows.push(TableRow::default());
            }
            _ => break,
        }
    }
    // What follows the last line break is no row.
    if rows.last().is_some_and(|row| row.cells.iter().all(Vec::is_empty) && row.tag.is_none()) && rows.len() > 1 {
        rows.pop();
    }
    if joins {
        // Relations have a column of their own there.
        for row in &mut rows {
            if row.cells.len() == 3 {
                let right = row.cells.pop().unwrap_or_default();
                row.cells[1].extend(right);
            }
        }
    }
    (parser.math.tag, parser.math.label, parser.math.numbered) = before;
    rows
}

/// Skips lines across the table. Whether there were any.
fn hlines(parser: &mut Parser<'_>) -> bool {
    let mut found = false;
    while parser
        .peek()
        .and_then(Kind::command)
        .is_some_and(|name| matches!(name, "hline" | "Hline" | "hdashline" | "toprule" | "midrule" | "bottomrule"))
    {
        parser.stack.pop();
        found = true;
    }
    found
}

fn end(parser: &mut Parser<'_>, name: &str, at: u32) {
    // Without its end, it goes to the end of what it is in.
    if parser.peek().and_then(Kind::command) == Some("end") {
        parser.stack.pop();
        let found = parser.words();
        if found != name {
            parser.problem(at, format!("{name} ends as {found}"));
        }
    } else {
        parser.problem(at, format!("{name} does not end"));
    }
}

/// How columns are aligned, and where lines are between them.
fn columns_of(text: &str) -> (Vec<Align>, Vec<usize>) {
    let (mut columns, mut rules) = (Vec::new(), Vec::new());
    let mut letters = text.chars();
    while let Some(c) = letters.next() {
        match c {
            'l' => columns.push(Align::Left),
            'c' | 'p' | 'm' => columns.push(Align::Center),
            'r' => columns.push(Align::Right),
            '|' | ':' if !rules.contains(&columns.len()) => rules.push(columns.len()),
            '@' | '!' | '{' => {
                // What is put between columns.
                letters.by_ref().take_while(|c| *c != '}').for_each(drop);
            }
            _ => {}
        }
        if columns.len() > 1000 {
            break;
        }
    }
    (columns, rules)
}

/// `\substack{a \\ b}`
pub(super) fn substack(parser: &mut Parser<'_>) -> Node {
    let inner = super::macros::argument(&mut parser.stack);
    let rest = std::mem::replace(&mut parser.stack, inner);
    let rows = rows(parser, false);
    parser.stack = rest;
    Node::Table(Box::new(Table { kind: TableKind::Substack, rows, ..Table::default() }))
}
