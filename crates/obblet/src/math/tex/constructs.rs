//! Commands that take more than arguments: delimiters, text, alphabets, negations, spaces.

use super::commands::{self as table, Meaning};
use super::macros::{argument, bracketed};
use super::read::{Parser, Until};
use super::tokens::{Kind, Token};
use crate::math::tree::one;
use crate::math::{Accent, Characters, Class, Fraction, Line, Node, Row, Scripts, Size, Variant};

impl Parser<'_> {
    /// A delimiter: a character, or the command of one. A stop is none.
    pub(super) fn delimiter(&mut self, at: u32) -> Characters {
        self.peek();
        let Some(token) = self.stack.pop() else {
            self.problem(at, "a delimiter is missing");
            return Characters::default();
        };
        match token.kind {
            Kind::Char('.') => Characters::default(),
            Kind::Char('<') => "⟨".into(),
            Kind::Char('>') => "⟩".into(),
            Kind::Char(c) => one(c),
            Kind::Command(name) => match table::symbol(&name) {
                Some((text, _)) => text.into(),
                None => {
                    self.problem(token.at, format!("\\{name} is no delimiter"));
                    Characters::default()
                }
            },
            _ => {
                self.problem(token.at, "a delimiter is missing");
                self.stack.push(token);
                Characters::default()
            }
        }
    }

    /// `\left( … \middle| … \right)`
    pub(super) fn fenced(&mut self, at: u32) -> Node {
        let open = self.delimiter(at);
        let (mut parts, mut middles) = (vec![self.row(Until::Right)], Vec::new());
        let close = loop {
            let Some(Kind::Command(name)) = self.peek().cloned() else {
                self.problem(at, "\\left without \\right");
                break Characters::default();
            };
            match &*name {
                "right" => {
                    self.stack.pop();
                    break self.delimiter(at);
                }
                "middle" => {
                    self.stack.pop();
                    middles.push(self.delimiter(at));
                    parts.push(self.row(Until::Right));
                }
                _ => {
                    self.problem(at, "\\left without \\right");
                    break Characters::default();
                }
            }
        };
        Node::Fenced { open, close, parts, middles }
    }

    /// An argument whose letters are in an alphabet. Words of upright letters are one.
    pub(super) fn in_alphabet(&mut self, variant: Variant) -> Row {
        let before = std::mem::replace(&mut self.variant, variant);
        let row = self.argument();
        self.variant = before;
        let row = if variant == Variant::BoldItalic { row.into_iter().map(embolden).collect() } else { row };
        let is_word = |node: &Node| matches!(node, Node::Identifier { variant: found, .. } if *found == variant);
        let joins =
            matches!(variant, Variant::Upright | Variant::Bold | Variant::SansSerif | Variant::Monospace | Variant::Italic);
        if joins && row.len() > 1 && row.iter().all(is_word) {
            let text =
                row.iter().map(|node| if let Node::Identifier { text, .. } = node { text } else { "" }).collect::<String>();
            return vec![Node::Identifier { text: text.into(), variant }];
        }
        match <[Node; 1]>::try_from(row) {
            // Single letters lean by themselves.
            Ok([Node::Identifier { text, variant: Variant::Italic }]) if text.len() == 1 => {
                vec![Node::Identifier { text, variant: Variant::Usual }]
            }
            Ok([node]) => vec![node],
            Err(row) => vec![Node::Group(row)],
        }
    }

    /// An accent; a brace has its scripts above or below it.
    pub(super) fn accent(&mut self, mark: Accent) -> Row {
        let is_brace = matches!(&*mark.text, "⏞" | "⏟" | "⎴" | "⎵" | "⏜" | "⏝");
        let node = Node::Accent { mark, body: self.argument() };
        let has_script = matches!(self.peek(), Some(Kind::Sup | Kind::Sub));
        if is_brace && has_script {
            // Whatever its place, what is written there stands above or below the brace.
            let scripts = Scripts { base: vec![node], limits: Some(true), ..Scripts::default() };
            return vec![self.scripts(scripts)];
        }
        vec![node]
    }

    /// `\genfrac{(}{)}{0pt}{1}{a}{b}`
    pub(super) fn general_fraction(&mut self) -> Node {
        let (open, close) = (self.one_delimiter(), self.one_delimiter());
        let thickness = self.words();
        let size = match self.words().as_str() {
            "0" => Some(Size::Display),
            "1" => Some(Size::Text),
            "2" => Some(Size::Script),
            "3" => Some(Size::ScriptScript),
            _ => None,
        };
        let has_line = thickness.is_empty() || thickness.chars().any(|c| matches!(c, '1'..='9'));
        let fence = (!open.is_empty() || !close.is_empty()).then_some((open, close));
        let line = if has_line { Line::Bar } else { Line::None };
        let (over, under) = (self.argument(), self.argument());
        Node::Fraction(Box::new(Fraction { over, under, line, size, fence }))
    }

    fn one_delimiter(&mut self) -> Characters {
        let mut inner = argument(&mut self.stack);
        match inner.pop().map(|token| token.kind) {
            Some(Kind::Command(name)) => table::symbol(&name).map_or_else(Characters::default, |(text, _)| text.into()),
            Some(Kind::Char(c)) if c != '.' => one(c),
            _ => Characters::default(),
        }
    }

    /// `\root 3 \of x`
    pub(super) fn plain_root(&mut self) -> Node {
        let mut degree = Vec::new();
        while let Some(token) = self.stack.pop() {
            if token.kind.command() == Some("of") {
                break;
            }
            degree.push(token);
        }
        degree.reverse();
        let rest = std::mem::replace(&mut self.stack, degree);
        let degree = self.row(Until::End);
        self.stack = rest;
        Node::Root { body: self.argument(), degree: Some(degree) }
    }

    /// `\sideset{_a^b}{_c^d}\sum`
    pub(super) fn sideset(&mut self) -> Row {
        let mut corners: [Option<Row>; 4] = Default::default();
        for side in [0, 2] {
            let inner = argument(&mut self.stack);
            let rest = std::mem::replace(&mut self.stack, inner);
            let node = self.scripts(Scripts::default());
            if let Node::Scripts(scripts) = node {
                (corners[side], corners[side + 1]) = (scripts.sub, scripts.sup);
            }
            self.stack = rest;
        }
        let base = self.argument();
        let [presub, presup, sub, sup] = corners;
        vec![Node::Scripts(Box::new(Scripts { base, sub, sup, presub, presup, limits: Some(false) }))]
    }

    /// Text within a formula, which may have formulas in it.
    pub(super) fn text(&mut self, name: &str) -> Row {
        let variant = match name {
            "textit" | "emph" => Variant::Italic,
            "textbf" => Variant::Bold,
            "textsf" => Variant::SansSerif,
            "texttt" => Variant::Monospace,
            _ => Variant::Usual,
        };
        let mut tokens = argument(&mut self.stack);
        let (mut row, mut words) = (Vec::new(), String::new());
        let flush = |words: &mut String, row: &mut Row| {
            if !words.is_empty() {
                row.push(Node::Text { text: std::mem::take(words), variant });
            }
        };
        while let Some(token) = tokens.pop() {
            match token.kind {
                Kind::Char('$') => {
                    flush(&mut words, &mut row);
                    let mut inner = Vec::new();
                    while let Some(token) = tokens.pop().filter(|token| token.kind != Kind::Char('$')) {
                        inner.push(token);
                    }
                    inner.reverse();
                    let rest = std::mem::replace(&mut self.stack, inner);
                    row.extend(self.row(Until::End));
                    self.stack = rest;
                }
                Kind::Char('~') => words.push('\u{A0}'),
                Kind::Char(c) => words.push(c),
                Kind::Space => words.push(' '),
                Kind::Open | Kind::Close => {}
                Kind::Sup | Kind::Sub | Kind::Cell | Kind::Parameter(_) => token.kind.write(&mut words),
                Kind::Command(name) => self.text_command(&name, &mut tokens, &mut words, token.at),
            }
        }
        // Hyphens and marks as text has them.
        flush(&mut words, &mut row);
        for node in &mut row {
            if let Node::Text { text, .. } = node
                && text.contains(['-', '`', '\''])
            {
                *text = text.replace("---", "—").replace("--", "–").replace("``", "“").replace("''", "”").replace('\'', "’");
            }
        }
        row
    }

    fn text_command(&mut self, name: &str, tokens: &mut Vec<Token>, words: &mut String, at: u32) {
        match name {
            "," | ";" | ":" | "quad" | "qquad" | " " | "enspace" => words.push(' '),
            "!" | "/" | "-" | "em" | "protect" | "xspace" | "hologo" | "noindent" | "centering" | "strut" | "hfill" | "hfil"
            | "MakeUppercase" | "uppercase" | "selectfont" => {}
            "hspace" | "vspace" => {
                argument(tokens);
                words.push(' ');
            }
            // The style of the whole is that of the command around it.
            name if matches!(table::meaning(name), Some(Meaning::TextSize | Meaning::Switch(_))) => {}
            "textit" | "textbf" | "emph" | "textrm" | "textsf" | "texttt" | "text" | "mathrm" | "mbox" => {}
            "'" | "`" | "^" | "\"" | "~" | "c" | "v" | "u" | "H" | "=" | "." => {
                let letter = argument(tokens).into_iter().find_map(|token| match token.kind {
                    Kind::Char(c) => Some(c),
                    _ => None,
                });
                let mark = match name {
                    "'" => '\u{301}',
                    "`" => '\u{300}',
                    "^" => '\u{302}',
                    "\"" => '\u{308}',
                    "~" => '\u{303}',
                    "c" => '\u{327}',
                    "v" => '\u{30C}',
                    "u" => '\u{306}',
                    "H" => '\u{30B}',
                    "=" => '\u{304}',
                    _ => '\u{307}',
                };
                if let Some(letter) = letter {
                    words.push(letter);
                    words.push(mark);
                }
            }
            "verb" => argument(tokens).iter().rev().for_each(|token| token.kind.write(words)),
            "ref" | "eqref" => {
                let mut label = String::new();
                argument(tokens).iter().rev().for_each(|token| token.kind.write(&mut label));
                let number = self.macros.number(&label).to_owned();
                words.push_str(&crate::math::numbers::reference(&label, name == "eqref", &number));
            }
            _ => match table::symbol(name) {
                Some((text, _)) => words.push_str(text),
                None => {
                    self.problem(at, format!("the command \\{name} is not known"));
                    words.push('\\');
                    words.push_str(name);
                }
            },
        }
    }

    /// `\not=`: a character with a slash through it.
    pub(super) fn negated(&mut self) -> Node {
        let body = self.argument();
        if let [Node::Operator { text, class }] = &body[..] {
            let known = table::NEGATIONS.iter().find(|(plain, _)| *plain == *text);
            let text = known.map_or_else(|| format!("{text}\u{338}"), |(_, negated)| (*negated).to_owned());
            return Node::Operator { text: text.into(), class: *class };
        }
        Node::Enclosed { kind: crate::math::Enclosure::Up, body }
    }

    /// `\pmod{n}`
    pub(super) fn modulus(&mut self, name: &str) -> Row {
        let body = self.argument();
        let mut row = vec![Node::Space(18), Node::operator("(", Class::Open)];
        if name == "pmod" {
            row.extend([Node::Identifier { text: "mod".into(), variant: Variant::Upright }, Node::Space(6)]);
        }
        row.extend(body);
        row.push(Node::operator(")", Class::Close));
        row
    }

    /// A length as space.
    pub(super) fn length(&mut self, name: &str) -> Row {
        let in_braces = matches!(name, "hspace" | "hspace*" | "mspace");
        let mut words = String::new();
        if in_braces {
            words = self.words();
        } else {
            // A number, a unit, and perhaps how much it stretches.
            while let Some(token) = self
                .stack
                .pop_if(|token| matches!(token.kind, Kind::Space | Kind::Char('0'..='9' | '.' | ',' | '-' | '+' | 'a'..='z')))
            {
                token.kind.write(&mut words);
                if words.trim_end().ends_with(|c: char| c.is_ascii_alphabetic())
                    && words.trim_end().chars().rev().take_while(char::is_ascii_alphabetic).count() == 2
                {
                    break;
                }
            }
        }
        let words = words.trim();
        let end = words.find(|c: char| !(c.is_ascii_digit() || matches!(c, '.' | '-' | '+'))).unwrap_or(words.len());
        let number: f64 = words[..end].parse().unwrap_or(0.0);
        let unit = words[end..].trim();
        let each = match unit.get(..2).unwrap_or_default() {
            "mu" => 1.0,
            "em" => 18.0,
            "ex" => 8.0,
            "pt" | "bp" => 1.8,
            "pc" => 21.6,
            "mm" => 5.1,
            "cm" => 51.0,
            "in" => 130.0,
            _ => 0.0,
        };
        let width = (number * each).round().clamp(-10_000.0, 10_000.0) as i32;
        if width == 0 { Vec::new() } else { vec![Node::Space(width)] }
    }

    /// Skips an option that changes only how something is set.
    pub(super) fn skip_option(&mut self) {
        bracketed(&mut self.stack);
    }

    /// An option in brackets, as it is written.
    pub(super) fn option_text(&mut self) -> String {
        let mut out = String::new();
        for token in bracketed(&mut self.stack).iter().flatten().rev() {
            token.kind.write(&mut out);
        }
        out
    }
}

/// What is bold in a group that is set so.
fn embolden(node: Node) -> Node {
    match node {
        Node::Identifier { text, variant } => Node::Identifier { text, variant: variant.bold() },
        Node::Number { text, .. } => Node::Number { text, variant: Variant::Bold },
        Node::Group(body) => Node::Group(body.into_iter().map(embolden).collect()),
        Node::Accent { mark, body } => Node::Accent { mark, body: body.into_iter().map(embolden).collect() },
        Node::Scripts(mut scripts) => {
            let Scripts { base, sub, sup, .. } = &mut *scripts;
            for row in [Some(base), sub.as_mut(), sup.as_mut()].into_iter().flatten() {
                *row = std::mem::take(row).into_iter().map(embolden).collect();
            }
            Node::Scripts(scripts)
        }
        node => node,
    }
}

/// Words of the name of an operator: without commands of spaces.
pub(super) fn plain_words(words: &str) -> String {
    let mut out = words.to_owned();
    for space in ["\\,", "\\;", "\\:", "\\ ", "~", "\\!"] {
        out = out.replace(space, " ");
    }
    out.replace("\\mathrm", "").replace(['{', '}'], "").split_whitespace().collect::<Vec<_>>().join(" ")
}

/// Digits that follow each other are one number; a stop between digits is part of it.
pub(super) fn merge_numbers(row: Row) -> Row {
    let merges = |pair: &[Node]| match pair {
        [Node::Number { .. } | Node::Group(_), Node::Number { .. }] => true,
        [Node::Operator { text, .. }, Node::Number { .. }] => text == ".",
        [Node::Number { .. } | Node::Operator { .. }, Node::Scripts(scripts)] => {
            matches!(scripts.base[..], [Node::Number { .. }])
        }
        _ => false,
    };
    if !row.windows(2).any(merges) {
        return row;
    }
    let mut out: Row = Vec::with_capacity(row.len());
    for node in row {
        let count = out.len();
        match (&node, out.last_mut()) {
            (Node::Number { text, variant }, Some(Node::Number { text: before, variant: known })) if variant == known => {
                before.to_mut().push_str(text);
                continue;
            }
            (Node::Number { text, .. }, Some(Node::Operator { text: stop, .. })) if stop == "." => {
                let digits = text.clone();
                out.pop();
                match out.last_mut() {
                    Some(Node::Number { text: before, .. }) => {
                        let before = before.to_mut();
                        before.push('.');
                        before.push_str(&digits);
                    }
                    _ => out.push(Node::Number { text: format!(".{digits}").into(), variant: Variant::Usual }),
                }
                continue;
            }
            // A comma in braces parts thousands.
            (Node::Number { text, .. }, Some(Node::Group(comma))) if is_comma(comma) && count > 1 => {
                let digits = text.clone();
                let at = out.len() - 2;
                if let Node::Number { text, .. } = &mut out[at] {
                    let text = text.to_mut();
                    text.push(',');
                    text.push_str(&digits);
                    out.pop();
                    continue;
                }
            }
            (Node::Scripts(scripts), Some(Node::Number { .. } | Node::Operator { .. })) => {
                // The digit that has a script is the last of a number.
                if let [Node::Number { text, variant }] = &scripts.base[..] {
                    let (text, variant) = (text.clone(), *variant);
                    let before = take_number(&mut out);
                    if !before.is_empty() {
                        let mut scripts = scripts.clone();
                        scripts.base = vec![Node::Number { text: before + text, variant }];
                        out.push(Node::Scripts(scripts));
                        continue;
                    }
                }
            }
            _ => {}
        }
        out.push(node);
    }
    out
}

fn is_comma(row: &Row) -> bool {
    matches!(&row[..], [Node::Operator { text, .. }] if text == ",")
}

/// Takes the number that a row ends with, with a stop behind it.
fn take_number(out: &mut Row) -> Characters {
    let stop = matches!(out.last(), Some(Node::Operator { text, .. }) if text == ".");
    let at = out.len().checked_sub(if stop { 2 } else { 1 });
    match at.and_then(|at| out.get(at)) {
        Some(Node::Number { text, .. }) => {
            let text = text.clone() + if stop { "." } else { "" };
            out.truncate(at.unwrap_or(0));
            text
        }
        _ => Characters::default(),
    }
}
