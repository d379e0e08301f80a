//! Content MathML as it is used in school and college (MathML 3, chapter 4): what an expression means becomes how it is written.

use super::read::Reader;
use crate::math::tex::class_of_text;
use crate::math::xml::Element;
use crate::math::{Class, Fraction, Line, Node, Row, Scripts, Table, TableKind, TableRow, Variant};

/// Whether an element says what something means.
pub(super) fn is_content(name: &str) -> bool {
    matches!(
        name,
        "apply"
            | "ci"
            | "cn"
            | "csymbol"
            | "set"
            | "list"
            | "vector"
            | "matrix"
            | "piecewise"
            | "interval"
            | "lambda"
            | "bind"
            | "reln"
    ) || constant(name).is_some()
}

fn constant(name: &str) -> Option<Node> {
    let letter = |text: &str| Node::letter(text.to_owned());
    Some(match name {
        "pi" => letter("π"),
        "exponentiale" => letter("e"),
        "imaginaryi" => letter("i"),
        "infinity" => Node::operator("∞", Class::Ordinary),
        "emptyset" => Node::operator("∅", Class::Ordinary),
        "eulergamma" => letter("γ"),
        "true" | "false" => Node::Text { text: name.to_owned(), variant: Variant::Usual },
        "reals" | "integers" | "naturalnumbers" | "rationals" | "complexes" => {
            let text = match name {
                "reals" => "R",
                "integers" => "Z",
                "naturalnumbers" => "N",
                "rationals" => "Q",
                _ => "C",
            };
            Node::Identifier { text: text.into(), variant: Variant::DoubleStruck }
        }
        _ => return None,
    })
}

/// Operators between operands, and how strongly they bind.
fn infix(name: &str) -> Option<(&'static str, u8)> {
    Some(match name {
        "plus" => ("+", 3),
        "minus" => ("−", 3),
        "times" => ("", 4),
        "eq" => ("=", 1),
        "neq" => ("≠", 1),
        "lt" => ("<", 1),
        "gt" => (">", 1),
        "leq" => ("≤", 1),
        "geq" => ("≥", 1),
        "equivalent" => ("≡", 1),
        "approx" => ("≈", 1),
        "in" => ("∈", 1),
        "notin" => ("∉", 1),
        "subset" => ("⊆", 1),
        "prsubset" => ("⊂", 1),
        "notsubset" => ("⊈", 1),
        "tendsto" => ("→", 1),
        "implies" => ("⟹", 1),
        "and" => ("∧", 2),
        "or" => ("∨", 2),
        "xor" => ("⊻", 2),
        "union" => ("∪", 3),
        "intersect" => ("∩", 3),
        "setdiff" => ("∖", 3),
        "cartesianproduct" => ("×", 3),
        "vectorproduct" => ("×", 4),
        "scalarproduct" => ("⋅", 4),
        "compose" => ("∘", 4),
        _ => return None,
    })
}

/// Reads an element of content.
pub(super) fn read(reader: &mut Reader, element: &Element) -> Row {
    expression(reader, element).0
}

/// An expression, and how strongly what is outermost in it binds.
fn expression(reader: &mut Reader, element: &Element) -> (Row, u8) {
    const ATOM: u8 = 9;
    let row = match element.name.as_str() {
        "ci" | "csymbol" => {
            if element.elements().next().is_some() {
                return (reader.inner(element), ATOM);
            }
            let text = element.text().trim().to_owned();
            let variant = if text.chars().nth(1).is_some() { Variant::Upright } else { Variant::Usual };
            vec![Node::Identifier { text: text.into(), variant }]
        }
        "cn" => number(element),
        "apply" | "reln" | "bind" => return apply(reader, element),
        "set" | "list" | "vector" | "interval" => listed(reader, element),
        "matrix" => {
            let rows = element.elements().map(|row| TableRow {
                cells: row.elements().map(|cell| expression(reader, cell).0).collect(),
                ..TableRow::default()
            });
            vec![Node::Table(Box::new(Table { kind: TableKind::Parentheses, rows: rows.collect(), ..Table::default() }))]
        }
        "piecewise" => {
            let mut rows = Vec::new();
            for piece in element.elements() {
                let mut cells: Vec<Row> = piece.elements().map(|part| expression(reader, part).0).collect();
                if piece.name == "otherwise" {
                    cells.push(vec![Node::Text { text: "otherwise".to_owned(), variant: Variant::Usual }]);
                }
                rows.push(TableRow { cells, ..TableRow::default() });
            }
            vec![Node::Table(Box::new(Table { kind: TableKind::Cases, rows, ..Table::default() }))]
        }
        "lambda" => {
            let variable = element.child("bvar").map(|bvar| reader.inner(bvar)).unwrap_or_default();
            let body = element.elements().last().map(|body| expression(reader, body).0).unwrap_or_default();
            variable.into_iter().chain([Node::operator("↦", Class::Relation)]).chain(body).collect()
        }
        name => match constant(name) {
            Some(node) => vec![node],
            None => reader.one(element),
        },
    };
    (row, ATOM)
}

fn number(element: &Element) -> Row {
    let text = element.text();
    let plain = |text: &str| Node::Number { text: text.trim().replace('-', "−").into(), variant: Variant::Usual };
    let parts: Vec<&str> = text.split_whitespace().collect();
    match (element.attribute("type"), &parts[..]) {
        (Some("rational"), [over, under]) => vec![fraction(vec![plain(over)], vec![plain(under)])],
        (Some("e-notation"), [mantissa, exponent]) => {
            let power = Scripts { base: vec![plain("10")], sup: Some(vec![plain(exponent)]), ..Scripts::default() };
            vec![plain(mantissa), Node::operator("×", Class::Binary), Node::Scripts(Box::new(power))]
        }
        _ => match text.trim().strip_prefix('-') {
            Some(digits) => vec![Node::operator("−", Class::Binary), plain(digits)],
            None => vec![plain(&text)],
        },
    }
}

fn fraction(over: Row, under: Row) -> Node {
    Node::Fraction(Box::new(Fraction { over, under, line: Line::Bar, size: None, fence: None }))
}

/// Items between signs.
fn listed(reader: &mut Reader, element: &Element) -> Row {
    let (open, close) = match (element.name.as_str(), element.attribute("closure")) {
        ("set", _) => ("{", "}"),
        ("interval", Some("open")) | ("vector", _) => ("(", ")"),
        ("interval", Some("open-closed")) => ("(", "]"),
        ("interval", Some("closed-open")) => ("[", ")"),
        _ => ("[", "]"),
    };
    let mut row = vec![Node::operator(open, Class::Open)];
    for (at, item) in element.elements().filter(|item| !matches!(item.name.as_str(), "bvar" | "condition")).enumerate() {
        if at > 0 {
            row.push(Node::operator(",", Class::Punctuation));
        }
        row.extend(expression(reader, item).0);
    }
    if let Some(condition) = element.child("condition") {
        row.push(Node::operator("∣", Class::Relation));
        row.extend(reader.inner(condition));
    }
    row.push(Node::operator(close, Class::Close));
    row
}

/// An operand, in parentheses where it binds less than it has to.
fn operand(reader: &mut Reader, element: &Element, least: u8) -> Row {
    let (row, strength) = expression(reader, element);
    if strength >= least {
        return row;
    }
    let mut bracketed = vec![Node::operator("(", Class::Open)];
    bracketed.extend(row);
    bracketed.push(Node::operator(")", Class::Close));
    bracketed
}

/// A function or an operator with what it is applied to.
fn apply(reader: &mut Reader, element: &Element) -> (Row, u8) {
    let mut parts = element.elements();
    let Some(head) = parts.next() else { return (Vec::new(), 9) };
    let is_qualifier = |part: &&Element| {
        matches!(part.name.as_str(), "bvar" | "lowlimit" | "uplimit" | "degree" | "logbase" | "condition" | "domainofapplication")
    };
    let operands: Vec<&Element> = parts.filter(|part| !is_qualifier(part)).collect();
    let qualifier = |reader: &mut Reader, name: &str| element.child(name).map(|found| reader.inner(found));
    if let Some((sign, strength)) = infix(&head.name) {
        return (between(reader, (sign, strength), &operands, head.name == "minus"), strength);
    }
    let first = |reader: &mut Reader, least| operands.first().map(|one| operand(reader, one, least)).unwrap_or_default();
    let second = |reader: &mut Reader, least| operands.get(1).map(|one| operand(reader, one, least)).unwrap_or_default();
    let scripts =
        |base: Row, sub: Option<Row>, sup: Option<Row>| Node::Scripts(Box::new(Scripts { base, sub, sup, ..Scripts::default() }));
    let fenced = |open: &'static str, close: &'static str, body: Row| Node::Fenced {
        open: open.into(),
        close: close.into(),
        parts: vec![body],
        middles: Vec::new(),
    };
    let row = match head.name.as_str() {
        "divide" => vec![fraction(first(reader, 0), second(reader, 0))],
        "power" => vec![scripts(first(reader, 9), None, Some(second(reader, 0)))],
        "root" => vec![Node::Root { degree: qualifier(reader, "degree"), body: first(reader, 0) }],
        "abs" => vec![fenced("|", "|", first(reader, 0))],
        "floor" => vec![fenced("⌊", "⌋", first(reader, 0))],
        "ceiling" => vec![fenced("⌈", "⌉", first(reader, 0))],
        "factorial" => first(reader, 9).into_iter().chain([Node::operator("!", Class::Close)]).collect(),
        "not" => [Node::operator("¬", Class::Ordinary)].into_iter().chain(first(reader, 9)).collect(),
        "forall" | "exists" => {
            let sign = if head.name == "forall" { "∀" } else { "∃" };
            let variable = qualifier(reader, "bvar").unwrap_or_default();
            let body = first(reader, 0);
            let colon = Node::operator(":", Class::Relation);
            [Node::operator(sign, Class::Ordinary)].into_iter().chain(variable).chain([colon]).chain(body).collect()
        }
        "transpose" => {
            let sup = vec![Node::Identifier { text: "T".into(), variant: Variant::Upright }];
            vec![scripts(first(reader, 9), None, Some(sup))]
        }
        "inverse" => {
            let sup = vec![Node::operator("−", Class::Binary), Node::Number { text: "1".into(), variant: Variant::Usual }];
            vec![scripts(first(reader, 9), None, Some(sup))]
        }
        "sum" | "product" | "int" => return (large(reader, element, &head.name, &first), 4),
        "limit" | "diff" | "partialdiff" => limit_or_derivative(reader, element, &head.name, &operands),
        "log" => {
            let base = vec![Node::Function { name: "log".into(), limits: false }];
            let node = match qualifier(reader, "logbase") {
                Some(of) => scripts(base, Some(of), None),
                None => Node::Function { name: "log".into(), limits: false },
            };
            [node].into_iter().chain(first(reader, 9)).collect()
        }
        name => named(reader, head, name, &operands),
    };
    (row, 5)
}

/// Operands with a sign between them; a single one has it before it.
fn between(reader: &mut Reader, (sign, strength): (&str, u8), operands: &[&Element], is_minus: bool) -> Row {
    if let [only] = operands {
        let mut row = vec![class_of_text(sign)];
        row.extend(operand(reader, only, strength + 1));
        return row;
    }
    let mut row: Row = Vec::new();
    for (at, one) in operands.iter().enumerate() {
        if at > 0 && !sign.is_empty() {
            row.push(class_of_text(sign));
        }
        // Numbers beside each other would be one.
        let inner = operand(reader, one, if is_minus && at > 0 { strength + 1 } else { strength });
        let is_number = matches!(inner.first(), Some(Node::Number { .. }));
        if at > 0 && sign.is_empty() && is_number {
            row.push(Node::operator("⋅", Class::Binary));
        }
        row.extend(inner);
    }
    row
}

/// A limit, or a derivative.
fn limit_or_derivative(reader: &mut Reader, element: &Element, name: &str, operands: &[&Element]) -> Row {
    let qualifier = |reader: &mut Reader, name: &str| element.child(name).map(|found| reader.inner(found));
    let variable = qualifier(reader, "bvar").unwrap_or_default();
    let body = |reader: &mut Reader, least| operands.first().map(|one| operand(reader, one, least)).unwrap_or_default();
    if name == "limit" {
        let limit = qualifier(reader, "lowlimit").or_else(|| qualifier(reader, "condition")).unwrap_or_default();
        let below = variable.into_iter().chain([Node::operator("→", Class::Relation)]).chain(limit).collect();
        let base = vec![Node::Function { name: "lim".into(), limits: true }];
        let sign = Node::Scripts(Box::new(Scripts { base, sub: Some(below), ..Scripts::default() }));
        return [sign].into_iter().chain(body(reader, 4)).collect();
    }
    let letter = if name == "diff" {
        Node::Identifier { text: "d".into(), variant: Variant::Upright }
    } else {
        Node::Identifier { text: "∂".into(), variant: Variant::Usual }
    };
    let over = [letter.clone()].into_iter().chain(body(reader, 9)).collect();
    let under = [letter].into_iter().chain(variable).collect();
    vec![fraction(over, under)]
}

/// A function by its name, or one that is an expression, with what it is applied to.
fn named(reader: &mut Reader, head: &Element, name: &str, operands: &[&Element]) -> Row {
    let function = crate::math::tex::function_of_name(name);
    let is_named = function.is_some();
    let mut row = match function {
        Some(function) => vec![function],
        None if matches!(name, "ci" | "csymbol" | "apply") => expression(reader, head).0,
        None => vec![Node::Function { name: name.to_owned().into(), limits: false }],
    };
    if let ([only], true) = (operands, is_named) {
        row.extend(operand(reader, only, 9));
    } else {
        row.push(Node::operator("(", Class::Open));
        for (at, one) in operands.iter().enumerate() {
            if at > 0 {
                row.push(Node::operator(",", Class::Punctuation));
            }
            row.extend(expression(reader, one).0);
        }
        row.push(Node::operator(")", Class::Close));
    }
    row
}

/// A sum, a product or an integral, with its limits and its variable.
fn large(reader: &mut Reader, element: &Element, name: &str, first: &dyn Fn(&mut Reader, u8) -> Row) -> Row {
    let (sign, class) = match name {
        "sum" => ("∑", Class::Large),
        "product" => ("∏", Class::Large),
        _ => ("∫", Class::Integral),
    };
    let inner = |reader: &mut Reader, name: &str| element.child(name).map(|found| reader.inner(found));
    let variable = inner(reader, "bvar");
    let low = inner(reader, "lowlimit").or_else(|| inner(reader, "condition"));
    let sub = match (&variable, low, class) {
        (Some(variable), Some(low), Class::Large) if element.child("lowlimit").is_some() => {
            Some(variable.iter().cloned().chain([Node::operator("=", Class::Relation)]).chain(low).collect())
        }
        (_, low, _) => low,
    };
    let base = vec![Node::operator(sign, class)];
    let sup = inner(reader, "uplimit");
    let sign = if sub.is_none() && sup.is_none() {
        base
    } else {
        vec![Node::Scripts(Box::new(Scripts { base, sub, sup, ..Scripts::default() }))]
    };
    let mut row: Row = sign.into_iter().chain(first(reader, 4)).collect();
    if class == Class::Integral
        && let Some(variable) = variable
    {
        row.extend([Node::Space(3), Node::Identifier { text: "d".into(), variant: Variant::Upright }]);
        row.extend(variable);
    }
    row
}
