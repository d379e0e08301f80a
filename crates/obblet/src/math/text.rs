//! Formulas as a line of plain characters, for outputs that have nothing better.

use super::numbers::reference;
use super::{Accent, Class, Line, Math, Node, Row, Scripts, Table, TableKind};

/// A formula as a line of text that can be read: `(a + b)/c`, `x₁²`, `√(x)`.
///
/// ```
/// use obblet::math::{plain, tex};
///
/// assert_eq!(plain(&tex::read(r"\frac{a+b}{2} \le x_1^2").0), "(a + b)/2 ≤ x₁²");
/// ```
#[must_use]
pub fn plain(math: &Math) -> String {
    let mut out = String::new();
    row(&math.body, &mut out);
    if let Some(tag) = &math.tag {
        out.push_str(&format!("  {}", tag.shown()));
    }
    out.trim().to_owned()
}

fn row(nodes: &Row, out: &mut String) {
    for (at, one) in nodes.iter().enumerate() {
        if is_function(one) && out.ends_with(|c: char| c.is_alphanumeric() || c == '₀') {
            out.push(' ');
        }
        node(one, at == 0, at + 1 == nodes.len(), out);
        let is_open = matches!(
            nodes.get(at + 1),
            Some(Node::Operator { class: Class::Open, .. } | Node::Fenced { .. } | Node::Delimiter(_))
        );
        if is_function(one) && is_open {
            let end = out.trim_end_matches(' ').len();
            out.truncate(end);
        }
    }
}

fn is_function(node: &Node) -> bool {
    match node {
        Node::Function { .. } => true,
        Node::Scripts(scripts) => matches!(&scripts.base[..], [Node::Function { .. }]),
        _ => false,
    }
}

/// A row that is one thing: in parentheses where it is more.
fn one(nodes: &Row, out: &mut String) {
    let mut inner = String::new();
    row(nodes, &mut inner);
    let inner = inner.trim();
    let is_one = inner.chars().count() <= 1
        || inner.chars().all(char::is_alphanumeric)
        || inner.chars().all(|c| c.is_ascii_digit() || c == '.');
    if is_one { out.push_str(inner) } else { out.push_str(&format!("({inner})")) }
}

fn node(node: &Node, is_first: bool, is_last: bool, out: &mut String) {
    match node {
        Node::Identifier { text, variant } => out.extend(text.chars().map(|c| variant.of(c))),
        Node::Number { text, variant } => out.extend(text.chars().map(|c| variant.of(c))),
        Node::Operator { text, class } => {
            let spaced = *class == Class::Relation || (*class == Class::Binary && !is_first && !is_last);
            let (before, behind) = if spaced { (" ", " ") } else { ("", if *class == Class::Punctuation { " " } else { "" }) };
            out.push_str(&format!("{before}{text}{behind}"));
        }
        Node::Function { name, .. } => {
            out.push_str(name);
            out.push(' ');
        }
        Node::Text { text, .. } | Node::Unparsed(text) => out.push_str(text),
        Node::Fraction(fraction) => {
            let (open, close) = fraction.fence.clone().unwrap_or_default();
            out.push_str(&open);
            one(&fraction.over, out);
            out.push_str(if fraction.line == Line::None { " over " } else { "/" });
            one(&fraction.under, out);
            out.push_str(&close);
        }
        Node::Root { body, degree } => {
            match degree.as_ref().map(|degree| small(degree, SUPERSCRIPTS)) {
                Some(Some(degree)) => out.push_str(&degree),
                Some(None) => out.push_str("root "),
                None => {}
            }
            out.push('√');
            one(body, out);
        }
        Node::Scripts(scripts) => self::scripts(scripts, out),
        Node::Accent { mark, body } => accent(mark, body, out),
        Node::Stack { base, over, under, .. } => {
            row(base, out);
            for part in [under, over].into_iter().flatten() {
                out.push('[');
                row(part, out);
                out.push(']');
            }
        }
        Node::Fenced { open, close, parts, middles } => {
            out.push_str(open);
            for (at, part) in parts.iter().enumerate() {
                if let Some(middle) = at.checked_sub(1).and_then(|at| middles.get(at)) {
                    out.push_str(&format!(" {middle} "));
                }
                row(part, out);
            }
            out.push_str(close);
        }
        Node::Delimiter(delimiter) => out.push_str(&delimiter.text),
        Node::Table(table) => self::table(table, out),
        Node::Space(width) => out.push_str(if *width > 2 { " " } else { "" }),
        Node::Phantom { kind: super::Phantom::Smash | super::Phantom::NoWidth, body }
        | Node::Group(body)
        | Node::Style { body, .. }
        | Node::Colored { body, .. }
        | Node::Enclosed { body, .. }
        | Node::Classed { body, .. } => row(body, out),
        Node::Phantom { .. } => {}
        Node::Reference { label, parentheses, number } => out.push_str(&reference(label, *parentheses, number)),
    }
}

fn scripts(scripts: &Scripts, out: &mut String) {
    for (script, table, mark) in [(&scripts.presub, SUBSCRIPTS, '_'), (&scripts.presup, SUPERSCRIPTS, '^')] {
        if let Some(row) = script {
            written(row, table, mark, out);
        }
    }
    match &scripts.base[..] {
        [one] => self::node(one, true, true, out),
        _ => one(&scripts.base, out),
    }
    let end = out.trim_end().len();
    out.truncate(end);
    for (script, table, mark) in [(&scripts.sub, SUBSCRIPTS, '_'), (&scripts.sup, SUPERSCRIPTS, '^')] {
        if let Some(row) = script {
            written(row, table, mark, out);
        }
    }
    if matches!(&scripts.base[..], [Node::Function { .. } | Node::Operator { class: Class::Large | Class::Integral, .. }]) {
        out.push(' ');
    }
}

fn accent(mark: &Accent, body: &Row, out: &mut String) {
    let combining = match &*mark.text {
        "^" => '\u{302}',
        "~" => '\u{303}',
        "¯" | "‾" => '\u{304}',
        "→" => '\u{20D7}',
        "˙" => '\u{307}',
        "¨" => '\u{308}',
        "ˇ" => '\u{30C}',
        "˘" => '\u{306}',
        "´" => '\u{301}',
        "`" => '\u{300}',
        _ => return one(body, out),
    };
    let start = out.len();
    one(body, out);
    if out[start..].chars().count() == 1 {
        out.push(combining);
    }
}

fn table(table: &Table, out: &mut String) {
    let (open, close) = match table.kind {
        TableKind::Parentheses | TableKind::Small => ("(", ")"),
        TableKind::Brackets | TableKind::Plain | TableKind::Array => ("[", "]"),
        TableKind::Braces | TableKind::Cases => ("{", ""),
        TableKind::RightCases => ("", "}"),
        TableKind::Bars => ("|", "|"),
        TableKind::DoubleBars => ("‖", "‖"),
        _ => ("", ""),
    };
    let between = if matches!(table.kind, TableKind::Aligned | TableKind::Gathered | TableKind::Multline) { "" } else { ", " };
    out.push_str(open);
    for (at, line) in table.rows.iter().enumerate() {
        out.push_str(if at > 0 { "; " } else { "" });
        for (at, cell) in line.cells.iter().enumerate() {
            out.push_str(if at > 0 { between } else { "" });
            row(cell, out);
        }
        if let Some(tag) = &line.tag {
            out.push_str(&format!("  {}", tag.shown()));
        }
    }
    out.push_str(close);
}

const SUPERSCRIPTS: &[(char, char)] = &[
    ('0', '⁰'),
    ('1', '¹'),
    ('2', '²'),
    ('3', '³'),
    ('4', '⁴'),
    ('5', '⁵'),
    ('6', '⁶'),
    ('7', '⁷'),
    ('8', '⁸'),
    ('9', '⁹'),
    ('+', '⁺'),
    ('−', '⁻'),
    ('=', '⁼'),
    ('(', '⁽'),
    (')', '⁾'),
    ('n', 'ⁿ'),
    ('i', 'ⁱ'),
    ('′', '′'),
    ('°', '°'),
    ('∘', '°'),
];

const SUBSCRIPTS: &[(char, char)] = &[
    ('0', '₀'),
    ('1', '₁'),
    ('2', '₂'),
    ('3', '₃'),
    ('4', '₄'),
    ('5', '₅'),
    ('6', '₆'),
    ('7', '₇'),
    ('8', '₈'),
    ('9', '₉'),
    ('+', '₊'),
    ('−', '₋'),
    ('=', '₌'),
    ('(', '₍'),
    (')', '₎'),
    ('a', 'ₐ'),
    ('e', 'ₑ'),
    ('i', 'ᵢ'),
    ('j', 'ⱼ'),
    ('k', 'ₖ'),
    ('m', 'ₘ'),
    ('n', 'ₙ'),
    ('o', 'ₒ'),
    ('p', 'ₚ'),
    ('r', 'ᵣ'),
    ('s', 'ₛ'),
    ('t', 'ₜ'),
    ('u', 'ᵤ'),
    ('v', 'ᵥ'),
    ('x', 'ₓ'),
];

/// A row in small characters, where all of it has such.
fn small(nodes: &Row, table: &[(char, char)]) -> Option<String> {
    let mut text = String::new();
    row(nodes, &mut text);
    text.chars().filter(|c| *c != ' ').map(|c| table.iter().find(|(plain, _)| *plain == c).map(|(_, small)| *small)).collect()
}

fn written(nodes: &Row, table: &[(char, char)], mark: char, out: &mut String) {
    match small(nodes, table) {
        Some(small) => out.push_str(&small),
        None => {
            out.push(mark);
            one(nodes, out);
        }
    }
}
