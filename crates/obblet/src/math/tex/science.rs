//! Units and chemistry: `\SI{3}{\metre}`, `\ce{H2O}` (the common part of what siunitx and mhchem document).

use super::read::Parser;
use crate::math::tree::one;
use crate::math::{Characters, Class, Fraction, Line, Node, Row, Scripts, Variant};

/// Units and their signs.
const UNITS: [(&str, &str); 62] = [
    ("metre", "m"),
    ("meter", "m"),
    ("second", "s"),
    ("kilogram", "kg"),
    ("gram", "g"),
    ("ampere", "A"),
    ("kelvin", "K"),
    ("mole", "mol"),
    ("candela", "cd"),
    ("hertz", "Hz"),
    ("newton", "N"),
    ("pascal", "Pa"),
    ("joule", "J"),
    ("watt", "W"),
    ("coulomb", "C"),
    ("volt", "V"),
    ("farad", "F"),
    ("ohm", "Ω"),
    ("siemens", "S"),
    ("weber", "Wb"),
    ("tesla", "T"),
    ("henry", "H"),
    ("degreeCelsius", "°C"),
    ("celsius", "°C"),
    ("lumen", "lm"),
    ("lux", "lx"),
    ("becquerel", "Bq"),
    ("gray", "Gy"),
    ("sievert", "Sv"),
    ("minute", "min"),
    ("hour", "h"),
    ("day", "d"),
    ("degree", "°"),
    ("litre", "L"),
    ("liter", "L"),
    ("tonne", "t"),
    ("electronvolt", "eV"),
    ("bar", "bar"),
    ("percent", "%"),
    ("radian", "rad"),
    ("steradian", "sr"),
    ("bit", "bit"),
    ("byte", "B"),
    ("decibel", "dB"),
    ("angstrom", "Å"),
    ("hectare", "ha"),
    ("knot", "kn"),
    ("arcminute", "′"),
    ("arcsecond", "″"),
    ("astronomicalunit", "au"),
    ("atomicmassunit", "u"),
    ("barn", "b"),
    ("bel", "B"),
    ("dalton", "Da"),
    ("degC", "°C"),
    ("katal", "kat"),
    ("kohm", "kΩ"),
    ("Mohm", "MΩ"),
    ("mmHg", "mmHg"),
    ("nauticalmile", "M"),
    ("neper", "Np"),
    ("permille", "‰"),
];

/// Prefixes of units.
const PREFIXES: [(&str, &str); 27] = [
    ("kilo", "k"),
    ("mega", "M"),
    ("giga", "G"),
    ("tera", "T"),
    ("peta", "P"),
    ("hecto", "h"),
    ("deca", "da"),
    ("deci", "d"),
    ("centi", "c"),
    ("milli", "m"),
    ("micro", "µ"),
    ("nano", "n"),
    ("pico", "p"),
    ("femto", "f"),
    ("atto", "a"),
    ("exa", "E"),
    ("zetta", "Z"),
    ("yotta", "Y"),
    ("kibi", "Ki"),
    ("mebi", "Mi"),
    ("gibi", "Gi"),
    ("tebi", "Ti"),
    ("deka", "da"),
    ("zepto", "z"),
    ("yocto", "y"),
    ("ronna", "R"),
    ("quetta", "Q"),
];

/// Reads a command of units or of chemistry.
pub(super) fn read(parser: &mut Parser<'_>, name: &str) -> Option<Row> {
    match name {
        "num" | "numprint" => {
            parser.skip_option();
            let number = parser.words();
            Some(grouped(&number))
        }
        "si" | "unit" => {
            let with_slash = asks_for_slash(&parser.option_text());
            let units = parser.words();
            Some(unit(&units, with_slash))
        }
        "SI" | "qty" => {
            let with_slash = asks_for_slash(&parser.option_text());
            let number = parser.words();
            let units = parser.words();
            let mut row = grouped(&number);
            row.push(Node::Space(3));
            row.extend(unit(&units, with_slash));
            Some(row)
        }
        "ang" => {
            let number = parser.words();
            // Degrees, minutes and seconds.
            let parts = number.split(';').zip(["°", "′", "″"]).filter(|(number, _)| !number.trim().is_empty());
            Some(parts.flat_map(|(number, sign)| grouped(number).into_iter().chain(signs(sign))).collect())
        }
        "ce" | "cee" | "ch" => {
            let formula = parser.words();
            Some(chemistry(&formula))
        }
        "dv" | "od" | "dod" | "tod" => Some(vec![derivative(parser, upright("d"))]),
        "pdv" | "pd" | "dpd" | "tpd" => Some(vec![derivative(parser, partial())]),
        "dd" => {
            let order = parser.option();
            let mut row = vec![raised(upright("d"), order)];
            if parser.begins_group() {
                row.extend(parser.argument());
            }
            Some(row)
        }
        "grad" => Some(vec![nabla()]),
        "curl" => Some(vec![nabla(), Node::operator("×", Class::Binary)]),
        "laplacian" => Some(vec![raised(nabla(), Some(signed("2")))]),
        "bra" | "ket" | "braket" | "abs" | "norm" | "set" | "ev" | "expval" => {
            parser.skip_star();
            let body = parser.argument();
            if name == "braket" && parser.begins_group() {
                let (parts, middles) = (vec![body, parser.argument()], vec!["|".into()]);
                return Some(vec![Node::Fenced { open: "⟨".into(), close: "⟩".into(), parts, middles }]);
            }
            let (open, close) = match name {
                "bra" => ("⟨", "|"),
                "ket" => ("|", "⟩"),
                "braket" | "ev" | "expval" => ("⟨", "⟩"),
                "norm" => ("‖", "‖"),
                "set" => ("{", "}"),
                _ => ("|", "|"),
            };
            Some(vec![Node::Fenced { open: open.into(), close: close.into(), parts: vec![body], middles: Vec::new() }])
        }
        _ => None,
    }
}

fn nabla() -> Node {
    Node::operator("∇", Class::Ordinary)
}

fn partial() -> Node {
    Node::Identifier { text: "∂".into(), variant: Variant::Usual }
}

/// Something with a power, where it has one.
fn raised(base: Node, power: Option<Row>) -> Node {
    match power.filter(|power| !power.is_empty()) {
        Some(power) => Node::Scripts(Box::new(Scripts { base: vec![base], sup: Some(power), ..Scripts::default() })),
        None => base,
    }
}

/// Reads a derivative of an order, of a function where there are two arguments (the documentation of physics, "Derivatives").
fn derivative(parser: &mut Parser<'_>, sign: Node) -> Node {
    parser.skip_star();
    let order = parser.option();
    let first = parser.argument();
    let (mut over, variable) = if parser.begins_group() { (first, parser.argument()) } else { (Vec::new(), first) };
    over.insert(0, raised(sign.clone(), order.clone()));
    let base =
        if variable.len() > 1 { Node::Group(variable) } else { variable.into_iter().next().unwrap_or(Node::Group(Vec::new())) };
    let under = vec![sign, raised(base, order)];
    Node::Fraction(Box::new(Fraction { over, under, line: Line::Bar, size: None, fence: None }))
}

fn upright(text: impl Into<Characters>) -> Node {
    Node::Identifier { text: text.into(), variant: Variant::Upright }
}

/// A number, with a power of ten where it has one.
fn grouped(number: &str) -> Row {
    let number = number.replace(' ', "").replace("\\pm", "+-");
    if let Some((value, uncertainty)) = number.split_once("+-") {
        let sign = Node::operator("±", Class::Binary);
        return grouped(value).into_iter().chain([sign]).chain(grouped(uncertainty)).collect();
    }
    let plain = |text: &str| Node::Number { text: text.to_owned().into(), variant: Variant::Usual };
    match number.split_once(['e', 'E']) {
        Some((mantissa, exponent)) => {
            let power = Scripts { base: vec![plain("10")], sup: Some(signed(exponent)), ..Scripts::default() };
            let mantissa = signed(mantissa).into_iter();
            mantissa.chain([Node::operator("×", Class::Binary), Node::Scripts(Box::new(power))]).collect()
        }
        None => signed(&number),
    }
}

/// A number with its sign.
fn signed(number: &str) -> Row {
    let digits = number.trim_start_matches(['-', '+']);
    let sign = number.starts_with('-').then(|| Node::operator("−", Class::Binary));
    sign.into_iter().chain([Node::Number { text: printed(digits).into(), variant: Variant::Usual }]).collect()
}

/// Digits as they are printed: a zero before a bare point, and five and more of them in groups (the documentation of siunitx,
/// "Printing numbers").
fn printed(digits: &str) -> String {
    const LEAST: usize = 5;
    let digits = digits.replace(',', ".");
    let end = digits.find(|c: char| !c.is_ascii_digit() && c != '.').unwrap_or(digits.len());
    let (number, rest) = digits.split_at(end);
    let (whole, part) = number.split_once('.').map_or((number, None), |(whole, part)| (whole, Some(part)));
    let mut out = String::with_capacity(digits.len() + 4);
    if whole.is_empty() && part.is_some() {
        out.push('0');
    }
    for (at, digit) in whole.chars().enumerate() {
        if at > 0 && (whole.len() - at).is_multiple_of(3) && whole.len() >= LEAST {
            out.push('\u{202F}');
        }
        out.push(digit);
    }
    if let Some(part) = part {
        out.push('.');
        for (at, digit) in part.chars().enumerate() {
            if at > 0 && at.is_multiple_of(3) && part.len() >= LEAST {
                out.push('\u{202F}');
            }
            out.push(digit);
        }
    }
    out + rest
}

/// Whether the units that others are divided by stand behind a slash (the documentation of siunitx, `per-mode`).
fn asks_for_slash(option: &str) -> bool {
    option
        .split(',')
        .filter_map(|pair| pair.split_once('='))
        .any(|(key, value)| key.trim() == "per-mode" && value.contains("symbol"))
}

/// A unit in a product of some.
struct Factor {
    sign: String,
    power: i32,
    /// Whether the others are divided by it behind a slash.
    behind_slash: bool,
}

/// Units by their names, or as they are written.
fn unit(text: &str, with_slash: bool) -> Row {
    let mut units: Vec<Factor> = Vec::new();
    let (mut per, mut power, mut prefix, mut says) = (false, 1, "", None);
    for word in text.split(['\\', '.', '~', ' ']).filter(|word| !word.is_empty()) {
        match word {
            "per" => per = true,
            _ if word.starts_with("tothe{") => {
                if let Some((unit, said)) = units.last_mut().zip(power_in(word)) {
                    unit.power *= said;
                }
            }
            _ if word.starts_with("raiseto{") => power = power_in(word).unwrap_or(1),
            "tothe" | "raiseto" => says = Some(word == "tothe"),
            _ if says.is_some() && word.starts_with('{') => {
                let said = power_in(word).unwrap_or(1);
                match (says.take(), units.last_mut()) {
                    (Some(true), Some(unit)) => unit.power *= said,
                    (Some(false), _) => power = said,
                    _ => {}
                }
            }
            "square" => power = 2,
            "cubic" => power = 3,
            "squared" | "cubed" => {
                if let Some(unit) = units.last_mut() {
                    unit.power *= if word == "squared" { 2 } else { 3 };
                }
            }
            _ => {
                if let Some((_, sign)) = PREFIXES.iter().find(|(name, _)| *name == word) {
                    prefix = sign;
                    continue;
                }
                let known = UNITS.iter().find(|(name, _)| *name == word).map_or(word, |(_, sign)| sign);
                // Short names begin with a letter that is on keyboards.
                let micro = ["um", "us", "ug", "uA", "uV", "uF", "ul", "uL", "uW", "uJ", "uN", "umol", "uH", "uC", "uT"];
                let (prefix_here, known) = if micro.contains(&known) { ("µ", &known[1..]) } else { ("", known) };
                // Those that are written by their signs have slashes and powers.
                for (at, part) in known.split('/').enumerate() {
                    let (sign, exponent) = part.split_once('^').unwrap_or((part, ""));
                    let written = exponent.trim_matches(['{', '}']).parse().unwrap_or(power);
                    let behind_slash = at > 0 || per && with_slash;
                    units.push(Factor {
                        sign: format!("{prefix}{prefix_here}{sign}"),
                        power: if per && !with_slash { -written } else { written },
                        behind_slash,
                    });
                    prefix = "";
                }
                (per, power) = (false, 1);
            }
        }
    }
    let mut row: Row = Vec::new();
    for (at, Factor { sign, power, behind_slash }) in units.into_iter().enumerate() {
        if behind_slash {
            row.push(Node::operator("/", Class::Ordinary));
        } else if at > 0 {
            row.push(Node::Space(3));
        }
        // Signs are no letters.
        if matches!(&*sign, "%" | "‰" | "′" | "″") {
            row.extend(signs(&sign));
            continue;
        }
        let base = upright(sign.trim_start_matches('°').to_owned());
        if sign.starts_with('°') {
            row.push(Node::operator("°", Class::Ordinary));
            if sign == "°" {
                continue;
            }
        }
        row.push(if power == 1 {
            base
        } else {
            Node::Scripts(Box::new(Scripts { base: vec![base], sup: Some(signed(&power.to_string())), ..Scripts::default() }))
        });
    }
    row
}

/// Signs behind numbers; that of seconds is two of minutes.
fn signs(sign: &str) -> impl Iterator<Item = Node> + use<> {
    let (sign, count) = if sign == "″" { ("′".to_owned(), 2) } else { (sign.to_owned(), 1) };
    std::iter::repeat_n(Node::operator(sign, Class::Ordinary), count)
}

/// The power that a command for units says in braces.
fn power_in(word: &str) -> Option<i32> {
    word.split(['{', '}']).nth(1)?.trim().parse().ok()
}

/// What stands above an atom: digits, signs, letters.
fn charge(text: &str) -> Row {
    let mut row: Row = Vec::new();
    for c in text.chars() {
        match (c, row.last_mut()) {
            ('0'..='9', Some(Node::Number { text, .. })) => text.to_mut().push(c),
            ('0'..='9', _) => row.push(Node::Number { text: one(c), variant: Variant::Usual }),
            ('+', _) => row.push(Node::operator("+", Class::Binary)),
            ('-' | '−', _) => row.push(Node::operator("−", Class::Binary)),
            (c, _) if c.is_alphabetic() => row.push(upright(one(c))),
            _ => {}
        }
    }
    row
}

/// A script that is written out. Returns what is behind it.
fn attached<'t>(rest: &'t str, c: char, row: &mut Row) -> &'t str {
    let inner = rest[1..].strip_prefix('{').and_then(|inner| inner.split_once('}'));
    let (text, behind) = match inner {
        Some((text, behind)) => (text, behind),
        None => {
            let end = 1 + rest[1..].find(|c: char| !(c.is_ascii_digit() || matches!(c, '+' | '-'))).unwrap_or(rest.len() - 1);
            (&rest[1..end], &rest[end..])
        }
    };
    let script = Some(charge(text));
    let mut scripts = match row.pop() {
        Some(Node::Scripts(scripts)) => scripts,
        Some(base) => Box::new(Scripts { base: vec![base], ..Scripts::default() }),
        None => Box::default(),
    };
    if c == '^' {
        scripts.sup = script
    } else {
        scripts.sub = script
    }
    row.push(Node::Scripts(scripts));
    behind
}

/// A formula of chemistry: letters are upright, digits behind them are scripts, arrows are arrows.
fn chemistry(text: &str) -> Row {
    let mut row: Row = Vec::new();
    let mut rest = text;
    let mut after_space = false;
    let arrows = [("<=>", "⇌"), ("<->", "↔"), ("->", "→"), ("<-", "←"), ("=>", "⇒")];
    while let Some(c) = rest.chars().next() {
        if let Some((written, arrow)) = arrows.iter().find(|(written, _)| rest.starts_with(written)) {
            row.push(Node::operator(*arrow, Class::Relation));
            rest = &rest[written.len()..];
            continue;
        }
        let after_space = std::mem::replace(&mut after_space, c.is_whitespace());
        let length = |is: fn(char) -> bool| rest.find(|c: char| !is(c)).unwrap_or(rest.len());
        let number = |text: &str| vec![Node::Number { text: text.to_owned().into(), variant: Variant::Usual }];
        match c {
            'A'..='Z' => {
                let end = 1 + rest[1..].find(|c: char| !c.is_ascii_lowercase()).unwrap_or(rest.len() - 1);
                row.push(upright(rest[..end].to_owned()));
                rest = &rest[end..];
            }
            '0'..='9' => {
                let end = length(|c| c.is_ascii_digit());
                let digits = number(&rest[..end]);
                // Behind a letter or a parenthesis they count atoms.
                let is_script = matches!(row.last(), Some(Node::Identifier { .. }))
                    || matches!(row.last(), Some(Node::Operator { text, .. }) if text == ")" || text == "]");
                match if is_script { row.pop() } else { None } {
                    Some(base) => {
                        row.push(Node::Scripts(Box::new(Scripts { base: vec![base], sub: Some(digits), ..Scripts::default() })));
                    }
                    None => row.extend(digits),
                }
                rest = &rest[end..];
            }
            '^' | '_' => rest = attached(rest, c, &mut row),
            '+' | '-' => {
                // A sign right behind an atom is its charge.
                let is_charge = matches!(row.last(), Some(Node::Identifier { .. } | Node::Scripts(_)))
                    && !after_space
                    && rest[1..].chars().next().is_none_or(|c| c == ' ' || c == ')');
                let sign = if c == '-' { "−" } else { "+" };
                if is_charge && let Some(base) = row.pop() {
                    let mut scripts = match base {
                        Node::Scripts(scripts) => scripts,
                        base => Box::new(Scripts { base: vec![base], ..Scripts::default() }),
                    };
                    scripts.sup = Some(vec![Node::operator(sign, Class::Binary)]);
                    row.push(Node::Scripts(scripts));
                } else {
                    row.push(Node::operator(sign, Class::Binary));
                }
                rest = &rest[1..];
            }
            '(' | '[' => {
                row.push(Node::operator(c.to_string(), Class::Open));
                rest = &rest[1..];
            }
            ')' | ']' => {
                row.push(Node::operator(c.to_string(), Class::Close));
                rest = &rest[1..];
            }
            c => {
                if c.is_alphabetic() {
                    row.push(upright(c.to_string()));
                } else if !c.is_whitespace() && !matches!(c, '{' | '}' | '\\' | '$') {
                    row.push(Node::operator(c.to_string(), Class::Ordinary));
                }
                rest = &rest[c.len_utf8()..];
            }
        }
    }
    row
}
