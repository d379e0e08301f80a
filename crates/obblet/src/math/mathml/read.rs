//! From MathML to a tree: presentation as browsers and editors write it, content as it is used in school and college (MathML 3,
//! chapters 3 and 4).

use super::content;
use super::pairing::{fence, fences};
use crate::math::tex::{class_of_text, function_of_name};
use crate::math::xml::{Child, Element, parse};
use crate::math::{
    Accent, Align, Characters, Class, DEEPEST, Enclosure, Fraction, Line, Math, Node, Phantom, Problem, Row, Scripts, Side, Size,
    Table, TableKind, TableRow, Variant,
};

/// Reads a `math` element. What is not understood is in it as its text, and among the problems.
#[must_use]
pub fn read(markup: &str) -> (Math, Vec<Problem>) {
    let mut reader = Reader { problems: Vec::new(), depth: 0, display: false };
    let Some(root) = parse(markup) else {
        return (Math::default(), vec![Problem { at: 0, what: "there is no element".to_owned() }]);
    };
    reader.display = root.attribute("display") == Some("block");
    // A number beside it is no part of it.
    let mut shown = &root;
    while let Some(only) = shown.elements().next().filter(|only| {
        matches!(only.name.as_str(), "semantics" | "mtable")
            && (only.name == "semantics" || only.attribute("class") == Some("tagged"))
    }) {
        shown = only;
    }
    let mut math = Math::default();
    if shown.name == "mtable" {
        let row = reader.table(shown).rows.into_iter().next().unwrap_or_default();
        math.tag = row.tag;
        math.body = row.cells.into_iter().flatten().collect();
    } else {
        math.body = reader.inner(&root);
    }
    (math, reader.problems)
}

pub(super) struct Reader {
    problems: Vec<Problem>,
    depth: usize,
    /// Whether the formula stands on a line of its own.
    display: bool,
}

impl Reader {
    /// What is in an element, as a row.
    pub(super) fn inner(&mut self, element: &Element) -> Row {
        let mut row = Vec::new();
        if self.depth >= DEEPEST {
            return vec![Node::Unparsed(element.text())];
        }
        self.depth += 1;
        for child in &element.children {
            match child {
                Child::Element(element) => self.element(element, &mut row),
                Child::Text(text) if text.trim().is_empty() => {}
                Child::Text(text) => row.push(Node::Text { text: spaced(text), variant: Variant::Usual }),
            }
        }
        self.depth -= 1;
        fences(skewed(row))
    }

    /// One of the arguments of an element, as a row.
    fn argument(&mut self, element: &Element, at: usize) -> Row {
        let Some(argument) = element.elements().nth(at) else { return Vec::new() };
        self.one(argument)
    }

    /// An element as a row; one that only groups is what it holds.
    pub(super) fn one(&mut self, element: &Element) -> Row {
        if element.name == "mrow" {
            return self.inner(element);
        }
        let mut row = Vec::new();
        self.element(element, &mut row);
        fences(skewed(row))
    }

    fn element(&mut self, element: &Element, row: &mut Row) {
        let argument = |reader: &mut Self, at| reader.argument(element, at);
        let node = match element.name.as_str() {
            "mi" => return row.extend(identifier(element)),
            "mn" => number(element),
            "mo" => {
                if element.text().trim() == "\u{2061}" {
                    // What it stands behind is a function.
                    row.last_mut().into_iter().for_each(make_function);
                    let before = row.len().checked_sub(2).filter(|&at| at > 0 && row[at] == Node::Space(3));
                    if let Some(at) = before.filter(|_| row.last().is_some_and(is_function)) {
                        // It is there for the function.
                        row.remove(at);
                    }
                }
                return row.extend(operator(element, row.is_empty()));
            }
            "mtext" | "ms" => {
                let by_class = match element.attribute("class") {
                    Some("bold") => Some(Variant::Bold),
                    Some("italic") => Some(Variant::Italic),
                    Some("sans") => Some(Variant::SansSerif),
                    Some("mono") => Some(Variant::Monospace),
                    _ => variant(element).filter(|variant| *variant != Variant::Upright),
                };
                Node::Text { text: spaced(&element.text()), variant: by_class.unwrap_or_default() }
            }
            "mspace" => Node::Space(width(element.attribute("width").unwrap_or("0"))),
            "mrow" => return self.group(element, row),
            "mpadded" => return row.extend(self.padded(element)),
            "math" | "maction" | "mlongdiv" => return row.extend(self.inner(element)),
            "semantics" => {
                let shown = element.elements().find(|child| !child.name.starts_with("annotation"));
                return row.extend(shown.map(|shown| self.one(shown)).unwrap_or_default());
            }
            "annotation" | "annotation-xml" | "mprescripts" | "none" | "malignmark" | "maligngroup" => return,
            "mstyle" => return row.extend(self.styled(element)),
            "merror" => Node::Unparsed(element.text().trim().to_owned()),
            "mphantom" => Node::Phantom { kind: Phantom::Whole, body: self.inner(element) },
            "mfrac" => {
                let thickness = element.attribute("linethickness").unwrap_or_default().trim();
                let line = match thickness.trim_end_matches(|c: char| c.is_ascii_alphabetic() || c == '%') {
                    "0" | "0.0" => Line::None,
                    _ if element.attribute("bevelled") == Some("true") => Line::Linear,
                    _ => Line::Bar,
                };
                let (over, under) = (argument(self, 0), argument(self, 1));
                Node::Fraction(Box::new(Fraction { over, under, line, size: None, fence: None }))
            }
            "msqrt" => Node::Root { body: self.inner(element), degree: None },
            "mroot" => Node::Root { body: argument(self, 0), degree: Some(argument(self, 1)) },
            "msub" => self.scripted(element, Some(1), None),
            "msup" => self.scripted(element, None, Some(1)),
            "msubsup" => self.scripted(element, Some(1), Some(2)),
            "munder" | "mover" | "munderover" => self.under_over(element),
            "mmultiscripts" => self.multiscripts(element),
            "mtable" => Node::Table(Box::new(self.table(element))),
            "mfenced" => self.fenced(element),
            "menclose" => self.enclosed(element),
            name if content::is_content(name) => return row.extend(content::read(self, element)),
            name => {
                self.problems.push(Problem { at: 0, what: format!("the element {name} is not known") });
                return row.extend(self.inner(element));
            }
        };
        row.push(node);
    }

    /// A group, which matters only where it is more than one thing or something is drawn around it.
    fn group(&mut self, element: &Element, row: &mut Row) {
        let inner = self.inner(element);
        let drawn = match element.attribute("class") {
            Some("boxed") => Some(Enclosure::Box),
            Some("struck-up") => Some(Enclosure::Up),
            Some("struck-down") => Some(Enclosure::Down),
            Some("struck-across") => Some(Enclosure::Cross),
            Some("struck") => Some(Enclosure::Strike),
            _ => None,
        };
        if let Some(kind) = drawn {
            return row.push(Node::Enclosed { kind, body: inner });
        }
        // A group matters only where it is more than one thing.
        match inner.len() {
            0 => {}
            1 => row.extend(inner),
            _ if self.depth <= 1 || row.is_empty() => row.extend(inner),
            _ => row.push(Node::Group(inner)),
        }
    }

    /// What takes other room than it needs.
    fn padded(&mut self, element: &Element) -> Row {
        let mut body = self.inner(element);
        let is_none = |name: &str| {
            element
                .attribute(name)
                .is_some_and(|value| value.trim_start_matches(['0', '.']).trim_end_matches(char::is_alphabetic).is_empty())
        };
        let (width, height) = (is_none("width"), is_none("height"));
        match &mut body[..] {
            [Node::Phantom { kind, .. }] if width || height => *kind = if height { Phantom::Width } else { Phantom::Height },
            _ if width => return vec![Node::Phantom { kind: Phantom::NoWidth, body }],
            _ if height => return vec![Node::Phantom { kind: Phantom::Smash, body }],
            _ => {}
        }
        body
    }

    fn scripted(&mut self, element: &Element, sub: Option<usize>, sup: Option<usize>) -> Node {
        let base = self.argument(element, 0);
        let (sub, sup) = (sub.map(|at| self.argument(element, at)), sup.map(|at| self.argument(element, at)));
        // In display, what usually has limits has them beside it only where that is said.
        let limits = match &base[..] {
            [Node::Operator { class: Class::Large, .. } | Node::Function { limits: true, .. }] if self.display => Some(false),
            _ => None,
        };
        Node::Scripts(Box::new(Scripts { base, sub, sup, limits, ..Scripts::default() }))
    }

    fn styled(&mut self, element: &Element) -> Row {
        let mut body = self.inner(element);
        if let Some(color) = element.attribute("mathcolor").or_else(|| element.attribute("color")) {
            body = vec![Node::Colored { color: color.to_owned(), ground: false, body }];
        }
        let size = match (element.attribute("displaystyle"), element.attribute("scriptlevel")) {
            (Some("true"), _) => Some(Size::Display),
            (_, Some("1")) => Some(Size::Script),
            (_, Some("2")) => Some(Size::ScriptScript),
            (Some("false"), _) => Some(Size::Text),
            _ => None,
        };
        // A fraction has a size of its own, and a small table is one.
        match (size, &mut body[..]) {
            (Some(size @ (Size::Display | Size::Text)), [Node::Fraction(fraction)]) if fraction.size.is_none() => {
                fraction.size = Some(size)
            }
            (Some(Size::Script), [Node::Table(table)]) if table.kind == TableKind::Plain => table.kind = TableKind::Small,
            (Some(size), _) => return vec![Node::Style { size, body }],
            _ => {}
        }
        body
    }

    fn under_over(&mut self, element: &Element) -> Node {
        let base = self.argument(element, 0);
        let (under, over) = match element.name.as_str() {
            "munder" => (Some(1), None),
            "mover" => (None, Some(1)),
            _ => (Some(1), Some(2)),
        };
        // A single sign above or below is an accent.
        if let (Some(at), None) | (None, Some(at)) = (under, over)
            && let Some(sign) = element.elements().nth(at).filter(|sign| sign.name == "mo")
        {
            let side = if over.is_some() { Side::Over } else { Side::Under };
            let text = sign.text().trim().to_owned();
            let asked = element.attribute(if side == Side::Over { "accent" } else { "accentunder" }) == Some("true");
            if let Some(accent) = accent(&text, side, sign.attribute("stretchy"), asked, base.len()) {
                return Node::Accent { mark: accent, body: base };
            }
        }
        let under = under.map(|at| self.argument(element, at));
        let over = over.map(|at| self.argument(element, at));
        match &base[..] {
            [Node::Operator { class: Class::Large, .. } | Node::Function { limits: true, .. }] => {
                Node::Scripts(Box::new(Scripts { base, sub: under, sup: over, ..Scripts::default() }))
            }
            [Node::Operator { class: Class::Integral, .. } | Node::Accent { .. }] => {
                Node::Scripts(Box::new(Scripts { base, sub: under, sup: over, limits: Some(true), ..Scripts::default() }))
            }
            [Node::Function { name, .. }] => {
                let base = vec![Node::Function { name: name.clone(), limits: true }];
                Node::Scripts(Box::new(Scripts { base, sub: under, sup: over, ..Scripts::default() }))
            }
            [Node::Operator { text, .. }] if stretches(text, element) => {
                Node::Stack { base, over: unspaced(over), under: unspaced(under), stretches: true }
            }
            _ => Node::Stack { base, over, under, stretches: false },
        }
    }

    fn multiscripts(&mut self, element: &Element) -> Node {
        let mut parts = element.elements();
        let base = parts.next().map(|base| self.one(base)).unwrap_or_default();
        let (mut behind, mut before, mut is_before) = ([Vec::new(), Vec::new()], [Vec::new(), Vec::new()], false);
        let mut at = 0;
        for part in parts {
            if part.name == "mprescripts" {
                (is_before, at) = (true, 0);
                continue;
            }
            let row = self.one(part);
            let target = if is_before { &mut before } else { &mut behind };
            target[at % 2].extend(row);
            at += 1;
        }
        let filled = |row: Row| Some(row).filter(|row| !row.is_empty());
        let ([sub, sup], [presub, presup]) = (behind, before);
        let scripts =
            Scripts { base, sub: filled(sub), sup: filled(sup), presub: filled(presub), presup: filled(presup), limits: None };
        Node::Scripts(Box::new(scripts))
    }

    fn table(&mut self, element: &Element) -> Table {
        let mut table = Table::default();
        let align = |word: &str| match word {
            "left" => Some(Align::Left),
            "right" => Some(Align::Right),
            "center" => Some(Align::Center),
            _ => None,
        };
        let said = element.attribute("columnalign").unwrap_or_default();
        let mut columns: Vec<Align> = said.split_whitespace().filter_map(align).collect();
        for (number, line) in element.elements().filter(|row| matches!(row.name.as_str(), "mtr" | "mlabeledtr")).enumerate() {
            let mut row = TableRow { ruled: line.attribute("class") == Some("ruled"), ..TableRow::default() };
            for (at, cell) in line.elements().filter(|cell| cell.name == "mtd").enumerate() {
                if cell.attribute("class") == Some("equation-number") || (line.name == "mlabeledtr" && at == 0) {
                    let text = cell.text().trim().to_owned();
                    let inner = text.strip_prefix('(').and_then(|text| text.strip_suffix(')'));
                    let tag = crate::math::Tag { text: inner.unwrap_or(&text).to_owned(), bare: inner.is_none() };
                    row.tag = Some(tag).filter(|tag| !tag.text.is_empty());
                    continue;
                }
                if cell.attribute("class") == Some("ruled") && !table.rules.contains(&at) {
                    table.rules.push(at);
                }
                let style = cell.attribute("style").and_then(|style| style.split("text-align:").nth(1));
                let found = style
                    .map(|style| style.trim().trim_start_matches("-webkit-"))
                    .or_else(|| cell.attribute("columnalign"))
                    .and_then(align);
                if number == 0
                    && said.is_empty()
                    && let Some(found) = found
                {
                    columns.resize(at, Align::Center);
                    columns.push(found);
                }
                row.cells.push(self.inner(cell));
            }
            table.rows.push(row);
        }
        let is_equations = element.attribute("class") == Some("equations") || element.attribute("displaystyle") == Some("true");
        let alternates = columns.len() > 1
            && columns.iter().enumerate().all(|(at, align)| *align == if at % 2 == 0 { Align::Right } else { Align::Left });
        if element.attribute("class") == Some("lines") {
            table.kind = TableKind::Substack;
        } else if alternates && is_equations {
            table.kind = TableKind::Aligned;
        } else if is_equations && columns == [Align::Left] && table.rows.len() > 1 {
            table.kind = TableKind::Multline;
        } else if is_equations && columns.iter().all(|align| *align == Align::Center) {
            let is_wide = table.rows.iter().any(|row| row.cells.len() > 1);
            table.kind = if is_wide { TableKind::Aligned } else { TableKind::Gathered };
        } else if columns.iter().any(|align| *align != Align::Center) || !table.rules.is_empty() {
            table.kind = TableKind::Array;
            let count = table.rows.iter().map(|row| row.cells.len()).max().unwrap_or(0);
            columns.resize(count, columns.last().copied().filter(|_| !said.is_empty()).unwrap_or(Align::Center));
            table.columns = columns;
        }
        table
    }

    fn fenced(&mut self, element: &Element) -> Node {
        let open = element.attribute("open").unwrap_or("(").trim().to_owned();
        let close = element.attribute("close").unwrap_or(")").trim().to_owned();
        let separators: Vec<char> =
            element.attribute("separators").unwrap_or(",").chars().filter(|c| !c.is_whitespace()).collect();
        let mut body: Row = Vec::new();
        for (at, child) in element.elements().enumerate() {
            if at > 0
                && let Some(separator) = separators.get(at - 1).or_else(|| separators.last())
            {
                body.push(class_of_text(&separator.to_string()));
            }
            body.extend(self.one(child));
        }
        fence(open.into(), close.into(), body)
    }

    fn enclosed(&mut self, element: &Element) -> Node {
        let body = self.inner(element);
        let notation = element.attribute("notation").unwrap_or("longdiv");
        let has = |word: &str| notation.split_whitespace().any(|known| known == word);
        let kind = match () {
            () if has("box") || has("roundedbox") || has("circle") => Enclosure::Box,
            () if has("updiagonalstrike") && has("downdiagonalstrike") => Enclosure::Cross,
            () if has("updiagonalstrike") => Enclosure::Up,
            () if has("downdiagonalstrike") => Enclosure::Down,
            () if has("horizontalstrike") => Enclosure::Strike,
            () if has("radical") => return Node::Root { body, degree: None },
            () if has("top") => {
                return Node::Accent { mark: Accent { text: "‾".into(), stretches: true, side: Side::Over }, body };
            }
            () if has("bottom") => {
                return Node::Accent { mark: Accent { text: "_".into(), stretches: true, side: Side::Under }, body };
            }
            () => return Node::Group(body),
        };
        Node::Enclosed { kind, body }
    }
}

/// Words with single spaces, those at the ends included.
fn spaced(text: &str) -> String {
    let words = text.split([' ', '\n', '\t', '\u{A0}']).filter(|word| !word.is_empty()).collect::<Vec<_>>().join(" ");
    let is_space = |c: char| matches!(c, ' ' | '\n' | '\t' | '\u{A0}');
    let (before, behind) = (text.starts_with(is_space), text.ends_with(is_space) && !words.is_empty());
    format!("{}{words}{}", if before { " " } else { "" }, if behind { " " } else { "" })
}

fn is_function(node: &Node) -> bool {
    match node {
        Node::Function { .. } => true,
        Node::Scripts(scripts) => matches!(&scripts.base[..], [Node::Function { .. }]),
        _ => false,
    }
}

/// A word that is applied to something is a function.
fn make_function(node: &mut Node) {
    match node {
        Node::Identifier { text, variant: Variant::Upright } => {
            *node = Node::Function { name: std::mem::take(text), limits: false };
        }
        Node::Scripts(scripts) => scripts.base.iter_mut().take(1).for_each(make_function),
        _ => {}
    }
}

/// A row without the space around it.
fn unspaced(row: Option<Row>) -> Option<Row> {
    row.map(|row| row.into_iter().filter(|node| !matches!(node, Node::Space(_))).collect())
}

/// Whether the middle of an element is as long as what is above and below it.
fn stretches(text: &str, element: &Element) -> bool {
    match element.elements().next().and_then(|base| base.attribute("stretchy")) {
        Some("true") => true,
        Some(_) => false,
        None => is_arrow(text),
    }
}

fn is_arrow(text: &str) -> bool {
    text.chars().all(|c| matches!(c, '\u{2190}'..='\u{21FF}' | '\u{27F5}'..='\u{27FF}'))
}

fn variant(element: &Element) -> Option<Variant> {
    Some(match element.attribute("mathvariant")? {
        "normal" => Variant::Upright,
        "bold" => Variant::Bold,
        "italic" => Variant::Italic,
        "bold-italic" => Variant::BoldItalic,
        "double-struck" => Variant::DoubleStruck,
        "script" => Variant::Script,
        "bold-script" => Variant::BoldScript,
        "fraktur" => Variant::Fraktur,
        "bold-fraktur" => Variant::BoldFraktur,
        "sans-serif" => Variant::SansSerif,
        "bold-sans-serif" => Variant::BoldSansSerif,
        "sans-serif-italic" => Variant::SansSerifItalic,
        "monospace" => Variant::Monospace,
        _ => return None,
    })
}

/// Letters: one that stands for something, or the name of a function.
fn identifier(element: &Element) -> Option<Node> {
    let text = element.text();
    let text = text.trim().replace(['\u{2009}', '\u{A0}'], " ");
    if text.is_empty() {
        return None;
    }
    let said = variant(element);
    if said.is_none()
        && let node @ Node::Identifier { variant: Variant::Usual, .. } = class_of_text(&text)
    {
        return Some(node);
    }
    let mut letters = text.chars();
    if let (Some(first), None) = (letters.next(), letters.next()) {
        if let Some((plain, set)) = Variant::split(first) {
            return Some(Node::Identifier { text: crate::math::tree::one(plain), variant: set });
        }
        // What is no letter is an operator of no kind.
        if !first.is_alphabetic() {
            return Some(match class_of_text(&text) {
                Node::Operator { text, .. } => Node::operator(text, Class::Ordinary),
                node => node,
            });
        }
        return Some(Node::Identifier { text: text.into(), variant: said.unwrap_or_default() });
    }
    if said.is_none()
        && let Some(function) = function_of_name(&text)
    {
        return Some(function);
    }
    // All of one alphabet.
    let sets: Vec<Option<(char, Variant)>> = text.chars().map(Variant::split).collect();
    if let Some(Some((_, set))) = sets.first()
        && sets.iter().all(|found| found.is_some_and(|(_, other)| other == *set))
    {
        let text = sets.iter().flatten().map(|(plain, _)| *plain).collect();
        return Some(Node::Identifier { text, variant: *set });
    }
    Some(Node::Identifier { text: text.into(), variant: said.unwrap_or(Variant::Upright) })
}

fn number(element: &Element) -> Node {
    let text = element.text();
    let text = text.trim();
    let set = text.chars().next().and_then(Variant::split).map(|(_, set)| set);
    let plain = text.chars().map(|c| Variant::split(c).map_or(c, |(plain, _)| plain)).collect();
    Node::Number {
        text: plain,
        variant: set.or_else(|| variant(element)).filter(|set| *set != Variant::Upright).unwrap_or_default(),
    }
}

fn operator(element: &Element, is_first: bool) -> Option<Node> {
    let text = element.text();
    let text = text.trim();
    // They are not seen.
    if text.is_empty() || text.chars().all(|c| matches!(c, '\u{2061}'..='\u{2064}')) {
        return None;
    }
    let text = if text == "-" { "−" } else { text };
    if text == "mod" {
        return Some(Node::operator(text.to_owned(), Class::Binary));
    }
    if text == ":" && element.attribute("lspace") == Some("0") {
        return Some(Node::operator(text.to_owned(), Class::Punctuation));
    }
    if let Some(size) = element.attribute("minsize").filter(|_| element.attribute("maxsize").is_some()) {
        let size: f64 = size.trim_end_matches("em").parse().unwrap_or(0.0);
        let class = match element.attribute("form") {
            Some("prefix") => Class::Open,
            Some("postfix") => Class::Close,
            _ if element.attribute("lspace") == Some("0.278em") => Class::Relation,
            _ => Class::Ordinary,
        };
        if size >= 1.0 {
            let size = ((size / 0.6).round() as u8).saturating_sub(1).clamp(1, 4);
            return Some(Node::Delimiter(crate::math::Delimiter { text: text.to_owned().into(), size, class }));
        }
    }
    if let Some(function) = function_of_name(&text.replace('\u{2009}', " ")) {
        return Some(function);
    }
    let is_word = |c: char| c.is_alphabetic() || matches!(c, ' ' | '\u{2009}' | '\u{A0}');
    if text.chars().count() > 1 && text.chars().all(is_word) {
        let name = text.replace(['\u{2009}', '\u{A0}'], " ");
        return Some(Node::Function { name: name.into(), limits: element.attribute("movablelimits") == Some("true") });
    }
    let mut node = class_of_text(text);
    if let Node::Operator { text, class } = &mut node {
        *class = in_context(text, *class, element);
    }
    if let Node::Operator { text, class } = &mut node
        && matches!(text.as_ref(), "|" | "‖" | "∣" | "∥")
    {
        *class = match element.attribute("form") {
            Some("prefix") => Class::Open,
            Some("postfix") => Class::Close,
            _ if element.attribute("fence") == Some("true") => {
                if is_first {
                    Class::Open
                } else {
                    Class::Close
                }
            }
            _ => *class,
        };
    }
    if element.attribute("fence") == Some("true") && element.attribute("form").is_none() && text == "|" {
        // Between the parts of what is fenced.
        return Some(Node::Fenced {
            open: Characters::default(),
            close: Characters::default(),
            parts: Vec::new(),
            middles: vec![text.to_owned().into()],
        });
    }
    // Fences that stretch are paired later; those that do not are marked by their class alone.
    if let Node::Operator { text, class: Class::Open | Class::Close } = &node
        && element.attribute("stretchy") != Some("false")
        && text != "!"
    {
        let is_open = matches!(node, Node::Operator { class: Class::Open, .. });
        let body = Vec::new();
        return Some(Node::Fenced {
            open: if is_open { text.clone() } else { Characters::default() },
            close: if is_open { Characters::default() } else { text.clone() },
            parts: body,
            // One that is marked as a fence is one, whatever it is around.
            middles: if element.attribute("fence") == Some("true") { vec![Characters::default()] } else { Vec::new() },
        });
    }
    Some(node)
}

fn accent(text: &str, side: Side, stretchy: Option<&str>, asked: bool, width: usize) -> Option<Accent> {
    let text = match (text, side) {
        ("ˆ" | "\u{302}" | "^", _) => "^",
        ("˜" | "\u{303}" | "~" | "∼", _) => "~",
        ("\u{304}" | "\u{305}" | "¯" | "‾" | "―" | "_" | "−" | "\u{332}", Side::Under) => "_",
        ("\u{304}" | "\u{305}" | "¯" | "‾" | "―" | "_", Side::Over) => {
            return Some(if stretchy == Some("false") || (width == 1 && text == "¯" && stretchy != Some("true")) {
                Accent { text: "¯".into(), stretches: false, side }
            } else {
                Accent { text: "‾".into(), stretches: true, side }
            });
        }
        ("." | "\u{307}" | "˙", _) => "˙",
        (".." | "\u{308}" | "¨", _) => "¨",
        ("\u{30C}" | "ˇ", _) => "ˇ",
        ("\u{306}" | "˘", _) => "˘",
        ("\u{301}" | "´", _) => "´",
        ("\u{300}" | "`", _) => "`",
        ("\u{30A}" | "˚", _) => "˚",
        ("\u{20D7}" | "→" | "⇀", Side::Over) => "→",
        ("⏞" | "⏟" | "⎴" | "⎵" | "⏜" | "⏝" | "←" | "↔" | "⃛" | "⃜", _) => text,
        _ if asked => text,
        _ => return None,
    };
    let wide = matches!(text, "⏞" | "⏟" | "⎴" | "⎵" | "⏜" | "⏝" | "_");
    let stretches = match stretchy {
        Some("false") => false,
        Some("true") => true,
        _ => wide || width > 1,
    };
    Some(Accent { text: text.to_owned().into(), stretches, side })
}

/// A length in ems or other units, in eighteenths of an em.
fn width(text: &str) -> i32 {
    let text = text.trim();
    let named = match text {
        "veryverythinmathspace" => Some(1.0),
        "verythinmathspace" => Some(2.0),
        "thinmathspace" => Some(3.0),
        "mediummathspace" => Some(4.0),
        "thickmathspace" => Some(5.0),
        "verythickmathspace" => Some(6.0),
        _ => None,
    };
    let end = text.find(|c: char| !(c.is_ascii_digit() || matches!(c, '.' | '-' | '+'))).unwrap_or(text.len());
    let number: f64 = text[..end].parse().unwrap_or(0.0);
    let each = match text[end..].trim() {
        "em" => 18.0,
        "ex" => 8.0,
        "px" => 1.1,
        "pt" => 1.5,
        _ => 0.0,
    };
    named.unwrap_or(number * each).round().clamp(-10_000.0, 10_000.0) as i32
}

/// Fractions that are written with a slash between a script above and one below.
fn skewed(row: Row) -> Row {
    let has_slash = row.iter().any(|node| matches!(node, Node::Operator { text, .. } if text == "⁄"));
    if !has_slash {
        return row;
    }
    let mut out: Row = Vec::new();
    for node in row {
        let is_slash = matches!(out.last(), Some(Node::Operator { text, .. }) if text == "⁄");
        let before = out.len().checked_sub(2).and_then(|at| out.get(at)).cloned();
        if is_slash
            && let (Some(Node::Scripts(over)), Node::Scripts(under)) = (before, &node)
            && let (true, Some(over), Some(under)) = (over.base.is_empty() && under.base.is_empty(), over.sup, under.sub.clone())
        {
            out.truncate(out.len() - 2);
            out.push(Node::Fraction(Box::new(Fraction { over, under, line: Line::Skewed, size: None, fence: None })));
            continue;
        }
        out.push(node);
    }
    out
}

/// What an operator does where its character may do several things: by the space around it, and by its being an operator.
fn in_context(text: &str, class: Class, element: &Element) -> Class {
    let wanted = match element.attribute("lspace") {
        Some("0.222em") => [Class::Binary, Class::Relation],
        _ => [Class::Relation, Class::Binary],
    };
    if !matches!(class, Class::Ordinary | Class::Binary | Class::Relation) || matches!(text, "/" | "|" | "‖") {
        return class;
    }
    if element.attribute("lspace") == Some("0.222em") && class == Class::Ordinary {
        return Class::Binary;
    }
    wanted.into_iter().find(|class| crate::math::tex::is_of_class(text, *class)).unwrap_or(class)
}
