//! Commands of packages that stand for several others (the documentation of physics, braket, tensor, mathtools, faktor, interval,
//! diffcoeff, derivative and commath).

use super::macros::argument;
use super::read::Parser;
use super::tokens::{Kind, Token, tokens};
use crate::math::Row;

/// What commands without arguments are.
const OTHER_NAMES: [(&str, &str); 20] = [
    ("adjustlimits", ""),
    ("centernot", "\\not"),
    ("cross", "\\times"),
    ("cp", "\\times"),
    ("crossproduct", "\\times"),
    ("diff", "\\dv"),
    ("diffp", "\\pdv"),
    ("dotproduct", "\\cdot"),
    ("dp", "\\cdot"),
    ("joinrel", ""),
    ("micro", "\\mu"),
    ("odv", "\\dv"),
    ("ohm", "\\Omega"),
    ("principalvalue", "{\\mathcal{P}}"),
    ("pv", "{\\mathcal{P}}"),
    ("PV", "\\operatorname{P.V.}"),
    ("qc", "{,\\quad}"),
    ("qcomma", "{,\\quad}"),
    ("relbar", "-"),
    ("vdot", "\\cdot"),
];

/// What commands with arguments are, by how many they take.
const WITH_ARGUMENTS: [(&str, usize, &str); 22] = [
    ("cancelto", 2, "\\cancel{#2}^{#1}"),
    ("enVert", 1, "\\left\\|#1\\right\\|"),
    ("envert", 1, "\\left|#1\\right|"),
    ("faktor", 2, "\\sfrac{#1}{#2}"),
    ("fdv", 2, "\\frac{\\delta #1}{\\delta #2}"),
    ("functionalderivative", 2, "\\frac{\\delta #1}{\\delta #2}"),
    ("leftidx", 3, "{}#1{#2}#3"),
    ("mathbold", 1, "\\boldsymbol{#1}"),
    ("mathsfit", 1, "\\mathsf{#1}"),
    ("matrixsym", 1, "\\boldsymbol{#1}"),
    ("order", 1, "\\mathcal{O}\\left(#1\\right)"),
    ("qq", 1, "\\quad\\text{#1}\\quad"),
    ("qqtext", 1, "\\quad\\text{#1}\\quad"),
    ("slashed", 1, "\\cancel{#1}"),
    ("smashoperator", 1, "#1"),
    ("splitdfrac", 2, "\\genfrac{}{}{0pt}{0}{#1\\quad}{\\quad #2}"),
    ("splitfrac", 2, "\\genfrac{}{}{0pt}{1}{#1\\quad}{\\quad #2}"),
    ("tensorsym", 1, "\\boldsymbol{#1}"),
    ("var", 1, "\\delta #1"),
    ("variation", 1, "\\delta #1"),
    ("vectorsym", 1, "\\boldsymbol{#1}"),
    ("wideparen", 1, "\\overparen{#1}"),
];

/// Words between formulas: `\qand` is `\quad\text{and}\quad`.
const WORDS: [&str; 21] = [
    "all",
    "and",
    "as",
    "assume",
    "else",
    "even",
    "for",
    "given",
    "if",
    "in",
    "integer",
    "let",
    "odd",
    "or",
    "otherwise",
    "since",
    "then",
    "unless",
    "using",
    "cc",
    "where",
];

/// The environments of matrices that commands write, with their brackets.
const MATRICES: [(&str, &str, &str, &str); 10] = [
    ("bmqty", "\\left[", "matrix", "\\right]"),
    ("mqty", "", "matrix", ""),
    ("matrixquantity", "", "matrix", ""),
    ("Pmqty", "\\left(", "matrix", "\\right)"),
    ("pmqty", "\\left(", "matrix", "\\right)"),
    ("sbmqty", "\\left[", "smallmatrix", "\\right]"),
    ("smqty", "", "smallmatrix", ""),
    ("smallmatrixquantity", "", "smallmatrix", ""),
    ("spmqty", "\\left(", "smallmatrix", "\\right)"),
    ("vmqty", "\\left|", "matrix", "\\right|"),
];

/// Whether a command is one of these, which other documents do not know.
pub(super) fn is_one(name: &str) -> bool {
    OTHER_NAMES.iter().any(|(known, _)| *known == name)
        || WITH_ARGUMENTS.iter().any(|(known, ..)| *known == name)
        || MATRICES.iter().any(|(known, ..)| *known == name)
        || word(name).is_some()
        || matches!(name, "Set" | "dmat" | "imat" | "indices" | "interval" | "tensor" | "xmat" | "zmat")
}

fn word(name: &str) -> Option<&'static str> {
    let word = name.strip_prefix('q')?;
    WORDS.iter().find(|known| **known == word).copied()
}

/// Reads a command that stands for others, where it is one.
pub(super) fn read(parser: &mut Parser<'_>, name: &str) -> Option<Row> {
    if let Some((_, other)) = OTHER_NAMES.iter().find(|(known, _)| *known == name) {
        parser.stack.extend(tokens(other));
        return Some(parser.atom());
    }
    if let Some((_, count, words)) = WITH_ARGUMENTS.iter().find(|(known, ..)| *known == name) {
        parser.skip_star();
        parser.skip_option();
        let arguments: Vec<_> = (0..*count).map(|_| argument(&mut parser.stack)).collect();
        return Some(filled(parser, words, &arguments));
    }
    if let Some((_, open, environment, close)) = MATRICES.iter().find(|(known, ..)| *known == name) {
        return Some(matrix(parser, open, environment, close));
    }
    if let Some(word) = word(name) {
        parser.skip_star();
        let word = if word == "cc" { "c.c." } else { word };
        return Some(filled(parser, &format!("\\quad\\text{{{word}}}\\quad"), &[]));
    }
    Some(match name {
        "Set" => {
            let mut content = argument(&mut parser.stack);
            if let Some(bar) = content.iter().rposition(|token| token.kind == Kind::Char('|')) {
                content.splice(bar..=bar, tokens("\\;\\middle|\\;"));
            }
            filled(parser, "\\left\\{#1\\right\\}", &[content])
        }
        "interval" => {
            let option = parser.option_text();
            let (first, second) = (argument(&mut parser.stack), argument(&mut parser.stack));
            let opens = |side: &str| option.split(',').any(|word| word.trim() == "open" || word.trim() == format!("open {side}"));
            let open = if opens("left") { "(" } else { "[" };
            let close = if opens("right") { ")" } else { "]" };
            filled(parser, &format!("\\left{open}#1,#2\\right{close}"), &[first, second])
        }
        "tensor" | "indices" => {
            parser.skip_star();
            parser.skip_option();
            let base = if name == "tensor" { argument(&mut parser.stack) } else { Vec::new() };
            let scripts = apart(argument(&mut parser.stack));
            filled(parser, "{#1}#2", &[base, scripts])
        }
        "imat" | "identitymatrix" => {
            let size = size(&parser.words());
            let row = |at: usize| (0..size).map(|other| if other == at { "1" } else { "0" }).collect::<Vec<_>>().join("&");
            let rows = (0..size).map(row).collect::<Vec<_>>().join("\\\\");
            filled(parser, &format!("\\begin{{matrix}}{rows}\\end{{matrix}}"), &[])
        }
        "zmat" | "zeromatrix" | "xmat" | "xmatrix" => {
            let value = if name.starts_with('x') { argument(&mut parser.stack) } else { tokens("0") };
            let (rows, columns) = (size(&parser.words()), size(&parser.words()));
            let row = vec!["#1"; columns].join("&");
            let rows = vec![row; rows].join("\\\\");
            // What is long is not written so often.
            let value = if value.len() > LONGEST_VALUE { Vec::new() } else { value };
            filled(parser, &format!("\\begin{{matrix}}{rows}\\end{{matrix}}"), &[value])
        }
        "dmat" | "diagonalmatrix" => {
            let mut values: Vec<Vec<Token>> = vec![Vec::new()];
            for token in argument(&mut parser.stack) {
                match values.last_mut() {
                    Some(value) if token.kind != Kind::Char(',') => value.push(token),
                    _ => values.push(Vec::new()),
                }
            }
            values.truncate(MOST_ROWS);
            // The last token is first, and so is the last value.
            values.reverse();
            let count = values.len();
            let row = |at: usize| {
                let cells = (0..count).map(|other| if other == at { format!("#{}", at + 1) } else { String::new() });
                cells.collect::<Vec<_>>().join("&")
            };
            let rows = (0..count).map(row).collect::<Vec<_>>().join("\\\\");
            filled(parser, &format!("\\begin{{matrix}}{rows}\\end{{matrix}}"), &values)
        }
        _ => return None,
    })
}

/// A matrix has no more rows and columns, and what is in each of its cells no more tokens.
const MOST_ROWS: usize = 9;
const LONGEST_VALUE: usize = 4;

fn size(words: &str) -> usize {
    words.trim().parse().unwrap_or(1).clamp(1, MOST_ROWS)
}

/// Reads words with arguments in them: `#1` is the first.
fn filled(parser: &mut Parser<'_>, words: &str, arguments: &[Vec<Token>]) -> Row {
    parser.stack.extend(tokens("}"));
    for token in tokens(words) {
        match token.kind {
            Kind::Parameter(number) => {
                let argument = arguments.get(usize::from(number).wrapping_sub(1));
                parser.stack.extend(argument.into_iter().flatten().cloned());
            }
            _ => parser.stack.push(token),
        }
    }
    parser.stack.extend(tokens("{"));
    parser.atom()
}

/// `\mqty(a & b \\ c & d)`, whose brackets may be any.
fn matrix(parser: &mut Parser<'_>, open: &str, environment: &str, close: &str) -> Row {
    parser.skip_star();
    let other = match parser.peek() {
        Some(Kind::Char('(')) => Some(('(', ')')),
        Some(Kind::Char('[')) => Some(('[', ']')),
        Some(Kind::Char('|')) => Some(('|', '|')),
        _ => None,
    };
    let Some((first, last)) = other else {
        let content = argument(&mut parser.stack);
        return filled(parser, &format!("{open}\\begin{{{environment}}}#1\\end{{{environment}}}{close}"), &[content]);
    };
    parser.stack.pop();
    let content = up_to(parser, first, last);
    filled(parser, &format!("\\left{first}\\begin{{{environment}}}#1\\end{{{environment}}}\\right{last}"), &[content])
}

/// The tokens up to a bracket that closes, outside of groups and other brackets; the last is first.
fn up_to(parser: &mut Parser<'_>, open: char, close: char) -> Vec<Token> {
    let (mut found, mut groups, mut brackets) = (Vec::new(), 0_usize, 0_usize);
    while let Some(token) = parser.stack.pop() {
        match token.kind {
            Kind::Open => groups += 1,
            Kind::Close if groups == 0 => {
                parser.stack.push(token);
                break;
            }
            Kind::Close => groups -= 1,
            Kind::Char(c) if c == close && groups == 0 && brackets == 0 => break,
            Kind::Char(c) if c == close && groups == 0 => brackets -= 1,
            Kind::Char(c) if c == open && groups == 0 => brackets += 1,
            _ => {}
        }
        found.push(token);
    }
    found.reverse();
    found
}

/// Indices that stand behind each other: `^a_b` is `^{a}{}_{b}`.
fn apart(mut scripts: Vec<Token>) -> Vec<Token> {
    let mut out = Vec::new();
    while let Some(token) = scripts.pop() {
        if !matches!(token.kind, Kind::Sup | Kind::Sub) {
            out.push(token);
            continue;
        }
        if !out.is_empty() {
            out.extend(tokens("{}").into_iter().rev());
        }
        out.push(token);
        let item = argument(&mut scripts);
        out.extend(tokens("{").into_iter().chain(item.into_iter().rev()).chain(tokens("}")));
    }
    out.reverse();
    out
}
