//! Commands of packages that many documents load: delimiters and derivatives, boxes and lengths (the documentation of accents,
//! commath, graphics, nicematrix and physics; the LaTeX reference on boxes).

use super::macros::argument;
use super::read::{Parser, Until};
use super::tokens::{Kind, Token};
use crate::math::{Accent, Class, Enclosure, Node, Phantom, Row, Side, Variant};

/// Commands of packages that are not there everywhere, or that stand in few places of a formula: what they say can be written with
/// usual ones.
const NEEDS_PACKAGE: [&str; 49] = [
    "Block",
    "Cdots",
    "CodeAfter",
    "Ddots",
    "Dif",
    "Hline",
    "Ldots",
    "Tr",
    "Vdots",
    "accentset",
    "acomm",
    "anticommutator",
    "bbone",
    "cbr",
    "comm",
    "commutator",
    "del",
    "dif",
    "dod",
    "dpd",
    "dyad",
    "erf",
    "eval",
    "i",
    "innerproduct",
    "ip",
    "j",
    "ketbra",
    "mathbfit",
    "mathbfsf",
    "matrixel",
    "mel",
    "od",
    "op",
    "openone",
    "outerproduct",
    "pb",
    "pd",
    "poissonbracket",
    "rank",
    "sbr",
    "tod",
    "tpd",
    "tr",
    "underaccent",
    "va",
    "verb",
    "vu",
    "widebar",
];

/// Whether a formula with a command should be written anew for other documents.
pub(crate) fn needs_package(name: &str) -> bool {
    NEEDS_PACKAGE.contains(&name)
        || super::shorthands::is_one(name)
        || name.ends_with("up") && super::commands::upright_letter(name).is_some()
}

/// Reads a command of a package, where it is one.
pub(super) fn read(parser: &mut Parser<'_>, name: &str, at: u32) -> Option<Row> {
    lengths(parser, name)
        .or_else(|| boxes(parser, name))
        .or_else(|| delimited(parser, name))
        .or_else(|| condition(parser, name))
        .or_else(|| others(parser, name, at))
}

/// Commands that change lengths, and those that only show room.
fn lengths(parser: &mut Parser<'_>, name: &str) -> Option<Row> {
    match name {
        "setlength" | "addtolength" => {
            parser.words();
            parser.words();
        }
        "rule" => {
            parser.skip_option();
            parser.words();
            parser.words();
        }
        "hsize" | "vsize" | "unitlength" | "fboxsep" | "fboxrule" | "arraycolsep" | "tabcolsep" | "baselineskip" | "lineskip"
        | "jot" | "parindent" => {
            parser.skip_spaces();
            parser.stack.pop_if(|token| token.kind == Kind::Char('='));
            parser.length("kern");
            if matches!(parser.peek().and_then(Kind::command), Some("linewidth" | "textwidth" | "columnwidth" | "hsize")) {
                parser.stack.pop();
            }
        }
        "fontsize" => {
            parser.words();
            parser.words();
        }
        "fontfamily" | "fontseries" | "fontshape" => drop(parser.words()),
        "raise" | "lower" => drop(parser.length("kern")),
        "space" => return Some(vec![Node::Space(5)]),
        "string" | "expandafter" | "noexpand" => {}
        _ => return None,
    }
    Some(Vec::new())
}

/// Boxes, whose content is text.
fn boxes(parser: &mut Parser<'_>, name: &str) -> Option<Row> {
    match name {
        "raisebox" => {
            parser.words();
            parser.skip_option();
            parser.skip_option();
        }
        "rotatebox" => {
            parser.skip_option();
            parser.words();
        }
        "scalebox" => {
            parser.words();
            parser.skip_option();
        }
        "resizebox" => {
            parser.skip_star();
            parser.words();
            parser.words();
        }
        "makebox" | "framebox" => {
            parser.skip_option();
            parser.skip_option();
        }
        "parbox" => {
            parser.skip_option();
            parser.words();
        }
        "reflectbox" | "fbox" | "llap" | "rlap" | "clap" => {}
        _ => return None,
    }
    let body = parser.text("text");
    Some(match name {
        "fbox" | "framebox" => vec![Node::Enclosed { kind: Enclosure::Box, body }],
        "llap" | "rlap" | "clap" => vec![Node::Phantom { kind: Phantom::NoWidth, body }],
        _ => body,
    })
}

/// What stands between delimiters.
fn delimited(parser: &mut Parser<'_>, name: &str) -> Option<Row> {
    let (open, middle, close) = match name {
        "del" => ("(", "", ")"),
        "sbr" => ("[", "", "]"),
        "cbr" => ("{", "", "}"),
        "eval" => ("", "", "|"),
        "comm" | "commutator" => ("[", ",", "]"),
        "acomm" | "anticommutator" | "pb" | "poissonbracket" => ("{", ",", "}"),
        "innerproduct" | "ip" => ("⟨", "|", "⟩"),
        "mel" | "matrixel" => ("⟨", "|", "⟩"),
        "ketbra" | "dyad" | "outerproduct" | "op" => ("|", "⟩⟨", "|"),
        _ => return None,
    };
    parser.skip_star();
    parser.skip_option();
    let mut parts = vec![parser.argument()];
    let more = match name {
        "mel" | "matrixel" => 2,
        _ => usize::from(!middle.is_empty()),
    };
    for _ in 0..more {
        let next = match parser.begins_group() {
            true => parser.argument(),
            // With one argument alone, it stands on both sides: a short one, lest what is within each other grows without bounds.
            false if is_short(&parts[0]) => parts[0].clone(),
            false => Vec::new(),
        };
        match middle {
            "," => parts[0].extend([Node::operator(",", Class::Punctuation)].into_iter().chain(next)),
            "⟩⟨" => {
                parts[0].extend([Node::operator("⟩", Class::Close), Node::operator("⟨", Class::Open)].into_iter().chain(next))
            }
            _ => parts.push(next),
        }
    }
    let middles = vec![middle.into(); parts.len() - 1];
    Some(vec![Node::Fenced { open: open.into(), close: close.into(), parts, middles }])
}

/// Conditions are no longer, in tokens.
const LONGEST_CONDITION: usize = 500;

/// Reads a condition that can be decided: what it does not choose is left out.
fn condition(parser: &mut Parser<'_>, name: &str) -> Option<Row> {
    let holds = match name {
        "ifx" => {
            parser.skip_spaces();
            let first = parser.stack.pop();
            parser.skip_spaces();
            let second = parser.stack.pop();
            first.map(|token| token.kind) == second.map(|token| token.kind)
        }
        "ifmmode" | "iftrue" => true,
        "iffalse" => false,
        _ => return None,
    };
    // Where it does not end soon, nothing is chosen.
    let (mut depth, mut other, mut end) = (0_usize, None, None);
    for (at, token) in parser.stack.iter().rev().take(LONGEST_CONDITION).enumerate() {
        match token.kind.command() {
            Some("fi") if depth == 0 => {
                end = Some(at);
                break;
            }
            Some("fi") => depth -= 1,
            Some("else") if depth == 0 && other.is_none() => other = Some(at),
            Some(inner) if inner.starts_with("if") && !matches!(inner, "iff" | "ifthenelse") => depth += 1,
            _ => {}
        }
    }
    let Some(end) = end else { return Some(Vec::new()) };
    let mut chosen = parser.stack.split_off(parser.stack.len() - end - 1);
    // The last one comes first: the end, what is chosen otherwise, `\else`, what is chosen.
    let behind_else = chosen.len() - other.unwrap_or(end);
    let chosen = if holds { chosen.split_off(behind_else) } else { chosen.drain(1..behind_else.max(2) - 1).collect() };
    parser.stack.extend(chosen);
    Some(Vec::new())
}

/// Whether a row is short, and nothing is deep in it.
fn is_short(row: &Row) -> bool {
    let is_flat = |row: &&Row| row.iter().all(|node| node.rows().is_empty());
    row.len() < 20 && row.iter().all(|node| node.rows().iter().all(is_flat))
}

/// Reads what is none of these.
fn others(parser: &mut Parser<'_>, name: &str, at: u32) -> Option<Row> {
    let upright = |text: &'static str| Node::Identifier { text: text.into(), variant: Variant::Upright };
    let accented = |parser: &mut Parser<'_>, text: &'static str| {
        let body = parser.in_alphabet(Variant::Bold);
        Node::Accent { mark: Accent { text: text.into(), stretches: false, side: Side::Over }, body }
    };
    Some(match name {
        "dif" => vec![upright("d")],
        "Dif" => vec![upright("D")],
        "va" => {
            parser.skip_star();
            vec![accented(parser, "→")]
        }
        "vu" => {
            parser.skip_star();
            vec![accented(parser, "^")]
        }
        "Tr" | "tr" | "rank" | "erf" => vec![Node::Function { name: name.to_owned().into(), limits: false }],
        "accentset" => {
            let over = Some(parser.argument());
            vec![Node::Stack { base: parser.argument(), over, under: None, stretches: false }]
        }
        "underaccent" => {
            let under = Some(parser.argument());
            vec![Node::Stack { base: parser.argument(), over: None, under, stretches: false }]
        }
        // What is set in a colour to the end of its group, where nothing else is in that.
        "color" => {
            parser.color();
            Vec::new()
        }
        "Block" => {
            parser.skip_option();
            parser.words();
            parser.skip_option();
            parser.argument()
        }
        "CodeAfter" => {
            parser.rest(Until::Cell);
            Vec::new()
        }
        "verb" => {
            let mut text = String::new();
            argument(&mut parser.stack).iter().rev().for_each(|token| token.kind.write(&mut text));
            vec![Node::Text { text, variant: Variant::Monospace }]
        }
        "csname" => {
            let mut command = String::new();
            while let Some(token) = parser.stack.pop() {
                if token.kind.command() == Some("endcsname") {
                    break;
                }
                token.kind.write(&mut command);
            }
            parser.stack.push(Token { kind: Kind::Command(command.trim().into()), at });
            parser.atom()
        }
        _ => return None,
    })
}
