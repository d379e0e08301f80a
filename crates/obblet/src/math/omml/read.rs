//! From the formulas of word processors to a tree: every element of ECMA-376, part 1, section 22.1.2 that shows something.

use crate::math::tex::{class_of_text, function_of_name};
use crate::math::xml::{Child, Element, parse};
use crate::math::{
    Accent, Align, Class, DEEPEST, Enclosure, Fraction, Line, Math, Node, Phantom, Problem, Row, Scripts, Side, Table, TableKind,
    TableRow, Tag, Variant,
};

/// Reads an `oMath` or `oMathPara` element. What is not understood is in it as its text, and among the problems.
#[must_use]
pub fn read(markup: &str) -> (Math, Vec<Problem>) {
    let mut reader = Reader { problems: Vec::new(), depth: 0 };
    let Some(root) = parse(markup) else {
        return (Math::default(), vec![Problem { at: 0, what: "there is no element".to_owned() }]);
    };
    let lines: Vec<&Element> = root.elements().filter(|child| child.name == "oMath").collect();
    let mut math = Math::default();
    match &lines[..] {
        [] => math.body = reader.row(&root),
        [only] => math.body = reader.row(only),
        // Several in one paragraph are lines below each other.
        _ => {
            let rows = lines.iter().map(|line| TableRow { cells: vec![reader.row(line)], ..TableRow::default() }).collect();
            math.body = vec![Node::Table(Box::new(Table { kind: TableKind::Gathered, rows, ..Table::default() }))];
        }
    }
    take_number(&mut math);
    (math, reader.problems)
}

/// The number of an equation stands behind a number sign, in an array of one row (section 22.1.2.34).
fn take_number(math: &mut Math) {
    let [Node::Table(table)] = &mut math.body[..] else { return };
    let [row] = &mut table.rows[..] else { return };
    let [cell] = &mut row.cells[..] else { return };
    let sign = cell.iter().rposition(|node| matches!(node, Node::Operator { text, .. } if text == "#"));
    if let Some(sign) = sign {
        let number = cell.split_off(sign);
        let text = super::super::plain(&Math { body: number[1..].to_vec(), ..Math::default() });
        let inner = text.strip_prefix('(').and_then(|text| text.strip_suffix(')'));
        math.tag = Some(Tag { text: inner.unwrap_or(&text).to_owned(), bare: inner.is_none() });
        math.body = std::mem::take(cell);
    }
}

struct Reader {
    problems: Vec<Problem>,
    depth: usize,
}

/// The value of an element among the properties of another one.
fn property<'e>(element: &'e Element, properties: &str, name: &str) -> Option<&'e str> {
    element.child(properties)?.child(name).map(|found| found.attribute("val").unwrap_or_default())
}

/// Whether a property is on.
fn is_on(element: &Element, properties: &str, name: &str) -> bool {
    property(element, properties, name).is_some_and(|value| !matches!(value, "0" | "off" | "false"))
}

impl Reader {
    fn row(&mut self, element: &Element) -> Row {
        if self.depth >= DEEPEST {
            self.problems.push(Problem { at: 0, what: format!("more than {DEEPEST} elements are within each other") });
            return vec![Node::Unparsed(element.text())];
        }
        self.depth += 1;
        let mut row = Vec::new();
        for child in element.elements() {
            self.element(child, &mut row);
        }
        self.depth -= 1;
        merge(row)
    }

    fn part(&mut self, element: &Element, name: &str) -> Row {
        element.child(name).map(|part| self.row(part)).unwrap_or_default()
    }

    /// A part; nothing where it is empty.
    fn filled(&mut self, element: &Element, name: &str) -> Option<Row> {
        Some(self.part(element, name)).filter(|row| !row.is_empty())
    }

    fn element(&mut self, element: &Element, row: &mut Row) {
        let node = match element.name.as_str() {
            "r" => return run(element, row),
            // Text that was put in, links, and controls are read through; what was taken out is not there.
            "ins" | "moveTo" | "hyperlink" | "smartTag" | "sdt" | "sdtContent" | "oMath" | "e" => {
                return row.extend(self.row(element));
            }
            "f" => self.fraction(element),
            "rad" => {
                let hidden = is_on(element, "radPr", "degHide");
                let degree = self.filled(element, "deg").filter(|_| !hidden);
                Node::Root { body: self.part(element, "e"), degree }
            }
            "sSub" | "sSup" | "sSubSup" => {
                let base = self.part(element, "e");
                let scripts =
                    Scripts { base, sub: self.filled(element, "sub"), sup: self.filled(element, "sup"), ..Scripts::default() };
                Node::Scripts(Box::new(scripts))
            }
            "sPre" => {
                let (presub, presup) = (self.filled(element, "sub"), self.filled(element, "sup"));
                let mut base = self.part(element, "e");
                // What has scripts behind it as well is one thing.
                if let [Node::Scripts(inner)] = &mut base[..]
                    && inner.presub.is_none()
                    && inner.presup.is_none()
                {
                    (inner.presub, inner.presup) = (presub, presup);
                    return row.append(&mut base);
                }
                Node::Scripts(Box::new(Scripts { base, presub, presup, ..Scripts::default() }))
            }
            "nary" => return self.nary(element, row),
            "d" => self.delimiters(element),
            "func" => return self.function(element, row),
            "limLow" => self.limit(element, false),
            "limUpp" => self.limit(element, true),
            "acc" => self.accent(element),
            "bar" => {
                let below = property(element, "barPr", "pos").unwrap_or("bot") != "top";
                let (text, side) = if below { ("_", Side::Under) } else { ("‾", Side::Over) };
                Node::Accent { mark: Accent { text: text.into(), stretches: true, side }, body: self.part(element, "e") }
            }
            "groupChr" => self.group_character(element),
            "m" => Node::Table(Box::new(self.matrix(element))),
            "eqArr" => Node::Table(Box::new(self.array(element))),
            "box" => {
                let body = self.part(element, "e");
                let [Node::Operator { text, .. }] = &body[..] else { return row.extend(body) };
                Node::operator(text.clone(), Class::Relation)
            }
            "borderBox" => self.border(element),
            "phant" => self.phantom(element),
            // Properties, and what says nothing.
            name if name.ends_with("Pr") || matches!(name, "del" | "moveFrom" | "bookmarkStart" | "bookmarkEnd" | "proofErr") => {
                return;
            }
            name if name.starts_with("comment") || name.starts_with("perm") => return,
            name => {
                self.problems.push(Problem { at: 0, what: format!("the element {name} is not known") });
                return row.extend(self.row(element));
            }
        };
        row.push(node);
    }

    fn fraction(&mut self, element: &Element) -> Node {
        let line = match property(element, "fPr", "type") {
            Some("noBar") => Line::None,
            Some("skw") => Line::Skewed,
            Some("lin") => Line::Linear,
            _ => Line::Bar,
        };
        let (over, under) = (self.part(element, "num"), self.part(element, "den"));
        Node::Fraction(Box::new(Fraction { over, under, line, size: None, fence: None }))
    }

    fn nary(&mut self, element: &Element, row: &mut Row) {
        let sign = property(element, "naryPr", "chr").unwrap_or("∫");
        let sign = if sign.is_empty() { "∫" } else { sign };
        let class = match class_of_text(sign) {
            Node::Operator { class: Class::Integral, .. } => Class::Integral,
            _ => Class::Large,
        };
        let sub = self.filled(element, "sub").filter(|_| !is_on(element, "naryPr", "subHide")).map(stacked);
        let sup = self.filled(element, "sup").filter(|_| !is_on(element, "naryPr", "supHide"));
        let above = property(element, "naryPr", "limLoc").map(|place| place == "undOvr");
        let limits = above.filter(|above| *above != (class == Class::Large));
        let base = vec![Node::operator(sign.to_owned(), class)];
        row.push(if sub.is_none() && sup.is_none() {
            Node::operator(sign.to_owned(), class)
        } else {
            Node::Scripts(Box::new(Scripts { base, sub, sup, limits, ..Scripts::default() }))
        });
        row.extend(self.part(element, "e"));
    }

    fn delimiters(&mut self, element: &Element) -> Node {
        let value = |name: &str, usual: &str| property(element, "dPr", name).unwrap_or(usual).trim().to_owned();
        let (open, close, separator) = (value("begChr", "("), value("endChr", ")"), value("sepChr", "|"));
        let mut parts: Vec<Row> = element.elements().filter(|part| part.name == "e").map(|part| self.row(part)).collect();
        if let [only] = &mut parts[..] {
            if let [Node::Table(table)] = &mut only[..] {
                let kind = match (open.as_str(), close.as_str(), table.kind) {
                    ("(", ")", TableKind::Plain) => Some(TableKind::Parentheses),
                    ("[", "]", TableKind::Plain) => Some(TableKind::Brackets),
                    ("{", "}", TableKind::Plain) => Some(TableKind::Braces),
                    ("|", "|", TableKind::Plain) => Some(TableKind::Bars),
                    ("‖", "‖", TableKind::Plain) => Some(TableKind::DoubleBars),
                    ("{", "", TableKind::Aligned | TableKind::Gathered | TableKind::Plain | TableKind::Array) => {
                        Some(TableKind::Cases)
                    }
                    ("", "}", TableKind::Aligned | TableKind::Gathered | TableKind::Plain | TableKind::Array) => {
                        Some(TableKind::RightCases)
                    }
                    _ => None,
                };
                if let Some(kind) = kind {
                    table.kind = kind;
                    table.columns.clear();
                    return only.remove(0);
                }
            }
            if let [Node::Fraction(fraction)] = &mut only[..]
                && fraction.line == Line::None
                && fraction.fence.is_none()
            {
                fraction.fence = Some((open.into(), close.into()));
                return only.remove(0);
            }
        }
        let middles = vec![separator; parts.len().saturating_sub(1)];
        Node::Fenced { open: open.into(), close: close.into(), parts, middles: middles.into_iter().map(Into::into).collect() }
    }

    fn function(&mut self, element: &Element, row: &mut Row) {
        let mut name = words(self.part(element, "fName"));
        let function = |node: &Node| match node {
            Node::Identifier { text, variant: Variant::Upright } => {
                Some(function_of_name(text).unwrap_or_else(|| Node::Function { name: text.clone(), limits: false }))
            }
            _ => None,
        };
        for node in &mut name {
            match node {
                Node::Scripts(scripts) => {
                    if let [base] = &scripts.base[..]
                        && let Some(found) = function(base)
                    {
                        scripts.base = vec![found];
                    }
                }
                other => {
                    if let Some(found) = function(other) {
                        *other = found;
                    }
                }
            }
        }
        row.extend(name);
        row.extend(self.part(element, "e"));
    }

    fn limit(&mut self, element: &Element, above: bool) -> Node {
        let base = words(self.part(element, "e"));
        let limit = stacked(self.part(element, "lim"));
        let (over, under) = if above { (Some(limit), None) } else { (None, Some(limit)) };
        match &base[..] {
            [Node::Identifier { text, variant: Variant::Upright }] if text.chars().nth(1).is_some() => {
                let base = vec![Node::Function { name: text.clone(), limits: true }];
                Node::Scripts(Box::new(Scripts { base, sub: under, sup: over, ..Scripts::default() }))
            }
            [Node::Function { name, .. }] => {
                let base = vec![Node::Function { name: name.clone(), limits: true }];
                Node::Scripts(Box::new(Scripts { base, sub: under, sup: over, ..Scripts::default() }))
            }
            [Node::Operator { class: Class::Large, .. }] => {
                Node::Scripts(Box::new(Scripts { base, sub: under, sup: over, ..Scripts::default() }))
            }
            // A brace with what it says.
            [Node::Accent { mark, .. }] if mark.stretches && !matches!(&*mark.text, "‾" | "_" | "^" | "~") => {
                Node::Scripts(Box::new(Scripts { base, sub: under, sup: over, limits: Some(true), ..Scripts::default() }))
            }
            // The other of two limits.
            [Node::Scripts(inner)] if inner.limits == Some(true) || is_limited(&inner.base) => {
                let mut scripts = inner.clone();
                scripts.sub = scripts.sub.or(under);
                scripts.sup = scripts.sup.or(over);
                Node::Scripts(scripts)
            }
            [Node::Stack { base, over: above, under: below, stretches }] => Node::Stack {
                base: base.clone(),
                over: above.clone().or(over),
                under: below.clone().or(under),
                stretches: *stretches,
            },
            _ => Node::Stack { base, over, under, stretches: false },
        }
    }

    fn accent(&mut self, element: &Element) -> Node {
        let sign = property(element, "accPr", "chr").unwrap_or("\u{302}");
        let text = match sign {
            "\u{302}" | "ˆ" => "^",
            "\u{303}" | "˜" => "~",
            "\u{304}" | "\u{305}" => "¯",
            "\u{307}" => "˙",
            "\u{308}" => "¨",
            "\u{20DB}" => "⃛",
            "\u{20DC}" => "⃜",
            "\u{30C}" => "ˇ",
            "\u{306}" => "˘",
            "\u{301}" => "´",
            "\u{300}" => "`",
            "\u{30A}" => "˚",
            "\u{20D7}" | "\u{20D1}" => "→",
            "\u{20D6}" | "\u{20D0}" => "←",
            "\u{20E1}" => "↔",
            "" => "¯",
            other => other,
        };
        let body = self.part(element, "e");
        // Wide ones are those of more than one letter.
        let stretches = body.len() > 1 && matches!(text, "^" | "~" | "→" | "←" | "↔" | "ˇ");
        let text = if text == "¯" && body.len() > 1 { "‾" } else { text };
        let stretches = stretches || text == "‾" || matches!(text, "↔" | "←");
        Node::Accent { mark: Accent { text: text.to_owned().into(), stretches, side: Side::Over }, body }
    }

    fn group_character(&mut self, element: &Element) -> Node {
        let sign = property(element, "groupChrPr", "chr").unwrap_or("⏟").to_owned();
        let side = if property(element, "groupChrPr", "pos") == Some("top") { Side::Over } else { Side::Under };
        let body = self.part(element, "e");
        let is_arrow = sign.chars().all(|c| matches!(c, '\u{2190}'..='\u{21FF}' | '=' | '\u{27F5}'..='\u{27FF}'));
        // An arrow with words: the words are in it, and the arrow is on the other side of them.
        let is_base = property(element, "groupChrPr", "vertJc").is_some_and(|place| (place == "bot") == (side == Side::Over));
        if is_arrow && !is_base {
            let base = vec![Node::operator(sign, Class::Relation)];
            let body = Some(body).filter(|body| !body.is_empty());
            return match side {
                Side::Over => Node::Stack { base, over: None, under: body, stretches: true },
                Side::Under => Node::Stack { base, over: body, under: None, stretches: true },
            };
        }
        Node::Accent { mark: Accent { text: sign.into(), stretches: true, side }, body }
    }

    fn matrix(&mut self, element: &Element) -> Table {
        let mut table = Table::default();
        if let Some(columns) = element.child("mPr").and_then(|properties| properties.child("mcs")) {
            for column in columns.elements() {
                let properties = column.child("mcPr");
                let value = |name: &str| properties.and_then(|found| found.child(name)).and_then(|found| found.attribute("val"));
                let align = match value("mcJc") {
                    Some("left") => Align::Left,
                    Some("right") => Align::Right,
                    _ => Align::Center,
                };
                let count: usize = value("count").and_then(|count| count.parse().ok()).unwrap_or(1);
                table.columns.extend(std::iter::repeat_n(align, count.min(64)));
            }
        }
        for line in element.elements().filter(|line| line.name == "mr") {
            let cells = line.elements().filter(|cell| cell.name == "e").map(|cell| self.row(cell)).collect();
            table.rows.push(TableRow { cells, ..TableRow::default() });
        }
        if table.columns.iter().all(|align| *align == Align::Center) {
            table.columns.clear();
        } else {
            table.kind = TableKind::Array;
        }
        table
    }

    /// Lines below each other; what is aligned is behind a sign for it.
    fn array(&mut self, element: &Element) -> Table {
        let mut table = Table { kind: TableKind::Gathered, ..Table::default() };
        for line in element.elements().filter(|line| line.name == "e") {
            let mut cells: Vec<Row> = vec![Vec::new()];
            let mut pending: Row = Vec::new();
            for child in line.elements() {
                let is_aligned =
                    child.name == "r" && child.child("rPr").is_some_and(|properties| properties.child("aln").is_some());
                let text = if child.name == "r" { child.text() } else { String::new() };
                if !is_aligned && !text.contains('&') {
                    self.element(child, &mut pending);
                    continue;
                }
                for (at, piece) in text.split('&').enumerate() {
                    if at > 0 || is_aligned {
                        if let Some(last) = cells.last_mut() {
                            last.append(&mut pending);
                        }
                        cells.push(Vec::new());
                    }
                    self.element(&with_text(child, piece), &mut pending);
                }
            }
            if let Some(last) = cells.last_mut() {
                last.append(&mut pending);
            }
            let cells: Vec<Row> = cells.into_iter().map(merge).collect();
            if cells.len() > 1 {
                table.kind = TableKind::Aligned;
            }
            table.rows.push(TableRow { cells, ..TableRow::default() });
        }
        table
    }

    fn border(&mut self, element: &Element) -> Node {
        let on = |name: &str| is_on(element, "borderBoxPr", name);
        let body = self.part(element, "e");
        let kind = match () {
            () if on("strikeBLTR") && on("strikeTLBR") => Enclosure::Cross,
            () if on("strikeBLTR") => Enclosure::Up,
            () if on("strikeTLBR") => Enclosure::Down,
            () if on("strikeH") => Enclosure::Strike,
            () => Enclosure::Box,
        };
        Node::Enclosed { kind, body }
    }

    fn phantom(&mut self, element: &Element) -> Node {
        let on = |name: &str| is_on(element, "phantPr", name);
        let shown = property(element, "phantPr", "show").is_none_or(|value| !matches!(value, "0" | "off" | "false"));
        let flat = on("zeroAsc") || on("zeroDesc");
        let body = self.part(element, "e");
        let kind = match (shown, on("zeroWid"), flat) {
            (true, true, _) => Phantom::NoWidth,
            (true, _, true) => Phantom::Smash,
            (true, ..) => return Node::Group(body),
            (false, true, _) => Phantom::Height,
            (false, _, true) => Phantom::Width,
            (false, ..) => Phantom::Whole,
        };
        Node::Phantom { kind, body }
    }
}

/// Upright words with spaces between them are one.
fn words(row: Row) -> Row {
    let is_word = |node: &Node| matches!(node, Node::Identifier { variant: Variant::Upright, .. } | Node::Space(_));
    if row.len() < 3 || !row.iter().all(is_word) {
        return row;
    }
    let text: String = row
        .iter()
        .map(|node| match node {
            Node::Identifier { text, .. } => text,
            _ => " ",
        })
        .collect();
    vec![function_of_name(&text).unwrap_or(Node::Identifier { text: text.into(), variant: Variant::Upright })]
}

/// Lines below a large operator are conditions.
fn stacked(mut row: Row) -> Row {
    if let [Node::Table(table)] = &mut row[..]
        && table.kind == TableKind::Gathered
    {
        table.kind = TableKind::Substack;
    }
    row
}

fn is_limited(base: &Row) -> bool {
    matches!(&base[..], [Node::Function { limits: true, .. } | Node::Operator { class: Class::Large, .. }])
}

/// A run with other characters.
fn with_text(run: &Element, text: &str) -> Element {
    let characters = Element { name: "t".to_owned(), children: vec![Child::Text(text.to_owned())], ..Element::default() };
    let properties = run.elements().filter(|child| child.name == "rPr").cloned().map(Child::Element);
    Element {
        children: properties.chain([Child::Element(characters)]).collect(),
        ..Element { name: run.name.clone(), ..Element::default() }
    }
}

/// Reads the characters of a run (section 22.1.2.87).
fn run(element: &Element, row: &mut Row) {
    let properties = element.child("rPr");
    let value =
        |name: &str| properties.and_then(|found| found.child(name)).map(|found| found.attribute("val").unwrap_or_default());
    let text: String = element
        .elements()
        .filter_map(|child| match child.name.as_str() {
            "t" => Some(child.text()),
            "tab" => Some(" ".to_owned()),
            "br" => Some(" ".to_owned()),
            _ => None,
        })
        .collect();
    if text.is_empty() {
        return;
    }
    if value("nor").is_some_and(|value| !matches!(value, "0" | "off" | "false")) {
        return row.push(Node::Text { text, variant: Variant::Usual });
    }
    let bold = matches!(value("sty"), Some("b" | "bi"));
    let variant = match (value("scr"), value("sty")) {
        (Some("double-struck"), _) => Variant::DoubleStruck,
        (Some("script"), _) if bold => Variant::BoldScript,
        (Some("script"), _) => Variant::Script,
        (Some("fraktur"), _) if bold => Variant::BoldFraktur,
        (Some("fraktur"), _) => Variant::Fraktur,
        (Some("sans-serif"), _) if bold => Variant::BoldSansSerif,
        (Some("sans-serif"), _) => Variant::SansSerif,
        (Some("monospace"), _) => Variant::Monospace,
        (_, Some("p")) => Variant::Upright,
        (_, Some("b")) => Variant::Bold,
        (_, Some("bi")) => Variant::BoldItalic,
        _ => Variant::Usual,
    };
    characters(&text, variant, row);
}

/// Characters of a run, one by one: words only where they stand upright.
fn characters(text: &str, variant: Variant, row: &mut Row) {
    let keeps_words = matches!(variant, Variant::Upright | Variant::Bold | Variant::SansSerif | Variant::Monospace);
    let mut letters = text.char_indices().peekable();
    while let Some((at, c)) = letters.next() {
        match c {
            '0'..='9' => {
                let mut end = at + 1;
                while let Some((next, _)) = letters.next_if(|(next, c)| {
                    c.is_ascii_digit() || (matches!(c, '.' | ',') && text[next + 1..].starts_with(|c: char| c.is_ascii_digit()))
                }) {
                    end = next + 1;
                }
                let variant = if matches!(variant, Variant::Upright | Variant::Usual) { Variant::Usual } else { variant };
                row.push(Node::Number { text: text[at..end].to_owned().into(), variant });
            }
            c if c.is_alphabetic() => {
                if let Some((plain, set)) = Variant::split(c) {
                    row.push(Node::Identifier { text: crate::math::tree::one(plain), variant: set });
                    continue;
                }
                let known = class_of_text(c.encode_utf8(&mut [0; 4]));
                if let Node::Identifier { text, .. } = known {
                    // Capital Greek letters stand upright in TeX, and lean here.
                    let set = match variant {
                        Variant::Usual if c.is_uppercase() && !c.is_ascii() => Variant::Italic,
                        other => other,
                    };
                    row.push(Node::Identifier { text, variant: set });
                    continue;
                }
                if !matches!(known, Node::Operator { class: Class::Ordinary, ref text } if !crate::math::tex::is_of_class(text, Class::Ordinary))
                {
                    row.push(known);
                    continue;
                }
                let mut end = at + c.len_utf8();
                if keeps_words {
                    while let Some((next, c)) = letters.next_if(|(_, c)| c.is_alphabetic()) {
                        end = next + c.len_utf8();
                    }
                }
                row.push(Node::Identifier { text: text[at..end].to_owned().into(), variant });
            }
            '\u{2061}'..='\u{2064}' => {}
            ' ' | '\u{A0}' => row.push(Node::Space(6)),
            '\u{2003}' => row.push(Node::Space(18)),
            '\u{2002}' => row.push(Node::Space(9)),
            '\u{2005}' => row.push(Node::Space(4)),
            '\u{2004}' => row.push(Node::Space(5)),
            '\u{2009}' | '\u{2006}' => row.push(Node::Space(3)),
            '\u{200B}' | '\u{200A}' => {}
            '-' => row.push(Node::operator("−", Class::Binary)),
            '*' => row.push(Node::operator("∗", Class::Binary)),
            '\'' => row.push(Node::operator("′", Class::Ordinary)),
            c => {
                // A character with a slash through it is one.
                let slash = letters.peek().is_some_and(|(_, c)| *c == '\u{338}');
                let mut one = c.to_string();
                while let Some((_, mark)) = letters.next_if(|(_, c)| matches!(c, '\u{338}' | '\u{FE00}'..='\u{FE0F}')) {
                    one.push(mark);
                }
                row.push(match class_of_text(&one) {
                    Node::Operator { text, class: Class::Ordinary } if slash => Node::operator(text, Class::Relation),
                    node => node,
                });
            }
        }
    }
}

/// Numbers that runs broke are one.
fn merge(row: Row) -> Row {
    let mut out: Row = Vec::with_capacity(row.len());
    for node in row {
        if let (Node::Number { text, variant }, Some(Node::Number { text: before, variant: known })) = (&node, out.last_mut())
            && variant == known
        {
            before.to_mut().push_str(text);
            continue;
        }
        if let (Node::Space(18), Some(Node::Space(before @ 18))) = (&node, out.last_mut()) {
            *before = 36;
            continue;
        }
        if let (Node::Operator { text, .. }, Some(Node::Operator { text: before, .. })) = (&node, out.last_mut())
            && text.starts_with('′')
            && before.starts_with('′')
        {
            before.to_mut().push_str(text);
            continue;
        }
        out.push(node);
    }
    out
}
