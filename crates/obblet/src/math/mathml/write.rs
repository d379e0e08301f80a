//! From a tree to MathML Core: elements of its section 3, with the properties of its operator dictionary (appendix B) where a
//! formula asks for others.

use super::tables;
use crate::math::numbers::reference;
use crate::math::xml::escape;
use crate::math::{
    Accent, Characters, Class, Delimiter, Enclosure, Fraction, Line, Math, Node, Phantom, Row, Scripts, Side, Size, TableRow,
    Variant,
};
use std::fmt::Write;

/// How a formula is written.
#[derive(Clone, Copy, Debug, Default)]
pub struct Options<'a> {
    /// Whether it stands on a line of its own.
    pub display: bool,
    /// Its source in TeX, which travels with it; nothing where it is empty.
    pub source: &'a str,
    /// Whether the namespace is said, as XML needs it.
    pub namespace: bool,
}

/// Writes a formula as a `math` element.
///
/// ```
/// use obblet::math::{mathml, tex};
///
/// let (math, _) = tex::read("x^2");
/// let markup = mathml::write(&math, &mathml::Options::default());
/// assert_eq!(markup, "<math><msup><mi>x</mi><mn>2</mn></msup></math>");
/// ```
#[must_use]
pub fn write(math: &Math, options: &Options<'_>) -> String {
    let mut printer = Printer { out: String::with_capacity(256) };
    printer.out.push_str("<math");
    if options.namespace {
        printer.out.push_str(" xmlns=\"http://www.w3.org/1998/Math/MathML\"");
    }
    if options.display {
        printer.out.push_str(" display=\"block\"");
    }
    printer.out.push('>');
    if options.source.is_empty() {
        printer.formula(math);
    } else {
        printer.out.push_str("<semantics>");
        printer.formula(math);
        printer.out.push_str("<annotation encoding=\"application/x-tex\">");
        printer.text(options.source.trim());
        printer.out.push_str("</annotation></semantics>");
    }
    printer.out.push_str("</math>");
    printer.out
}

/// What stood before an operator, which says whether it has two sides.
#[derive(Clone, Copy, Debug, PartialEq, Eq)]
enum Before {
    /// Nothing, or something that asks for an operand.
    Open,
    /// An operand.
    Operand,
}

struct Printer {
    out: String,
}

impl Printer {
    /// Writes the formula as one element, with what stands beside it.
    fn formula(&mut self, math: &Math) {
        let Some(tag) = &math.tag else { return self.single(&math.body) };
        self.out.push_str("<mtable class=\"tagged\" displaystyle=\"true\"><mtr><mtd>");
        self.row(&math.body);
        self.out.push_str("</mtd><mtd class=\"equation-number\">");
        self.leaf("mtext", "", &tag.shown());
        self.out.push_str("</mtd></mtr></mtable>");
    }

    fn text(&mut self, text: &str) {
        escape(text, &mut self.out);
    }

    fn start(&mut self, name: &str, attributes: &str) {
        for part in ["<", name, attributes, ">"] {
            self.out.push_str(part);
        }
    }

    fn end(&mut self, name: &str) {
        for part in ["</", name, ">"] {
            self.out.push_str(part);
        }
    }

    fn leaf(&mut self, name: &str, attributes: &str, text: &str) {
        self.start(name, attributes);
        self.text(text);
        self.end(name);
    }

    fn around(&mut self, name: &str, attributes: &str, row: &Row) {
        self.start(name, attributes);
        self.row(row);
        self.end(name);
    }

    /// Writes a row as one element.
    fn single(&mut self, row: &Row) {
        let start = self.out.len();
        if self.row(row) != 1 {
            self.out.insert_str(start, "<mrow>");
            self.out.push_str("</mrow>");
        }
    }

    /// Writes the nodes of a row. Returns how many elements they are.
    fn row(&mut self, row: &Row) -> usize {
        self.row_behind(row, Before::Open)
    }

    fn row_behind(&mut self, row: &Row, mut before: Before) -> usize {
        let mut count = 0;
        for (at, node) in row.iter().enumerate() {
            let next = row.get(at + 1);
            if is_function(node) && before == Before::Operand {
                // As between an operand and a large operator.
                count += self.node(&Node::Space(3), before, false);
            }
            count += self.node(node, before, next.is_none());
            if is_function(node) && next.is_some_and(is_operand) {
                self.apply(next);
                count += 1;
            }
            before = match node {
                Node::Space(_) => before,
                Node::Operator {
                    class: Class::Binary | Class::Relation | Class::Open | Class::Punctuation | Class::Large,
                    ..
                } => Before::Open,
                Node::Function { .. } => Before::Open,
                _ => Before::Operand,
            };
        }
        count
    }

    /// The invisible operator between a function and what it is applied to, with a little space where that is in no parentheses.
    fn apply(&mut self, next: Option<&Node>) {
        let is_fenced = match next {
            Some(Node::Operator { class, .. }) => *class == Class::Open,
            Some(Node::Fenced { .. } | Node::Delimiter(_)) => true,
            Some(Node::Table(table)) => !tables::fences(table.kind).0.is_empty(),
            _ => false,
        };
        let space = if is_fenced { "" } else { " lspace=\"0\" rspace=\"0.167em\"" };
        self.leaf("mo", space, "\u{2061}");
    }

    fn node(&mut self, node: &Node, before: Before, is_last: bool) -> usize {
        match node {
            Node::Identifier { text, variant } => self.identifier(text, *variant),
            Node::Number { text, variant } => {
                let text: String = text.chars().map(|c| variant.of(c)).collect();
                self.leaf("mn", "", &text);
            }
            Node::Operator { text, class } => self.operator(text, *class, before, is_last, None),
            Node::Function { name, limits } => self.function(name, *limits),
            Node::Text { text, variant } => {
                // White space at the ends would not be seen.
                let inner = text.trim_matches(' ');
                let (start, end) = (text.starts_with(' '), text.ends_with(' ') && !inner.is_empty());
                let spaced = format!("{}{inner}{}", if start { "\u{A0}" } else { "" }, if end { "\u{A0}" } else { "" });
                let class = match variant {
                    Variant::Bold => " class=\"bold\"",
                    Variant::Italic => " class=\"italic\"",
                    Variant::SansSerif => " class=\"sans\"",
                    Variant::Monospace => " class=\"mono\"",
                    _ => "",
                };
                self.leaf("mtext", class, &spaced);
            }
            Node::Group(body) => self.around("mrow", "", body),
            Node::Fraction(fraction) => self.fraction(fraction),
            Node::Root { body, degree: None } => self.around("msqrt", "", body),
            Node::Root { body, degree: Some(degree) } => {
                self.out.push_str("<mroot>");
                self.single(body);
                self.single(degree);
                self.out.push_str("</mroot>");
            }
            Node::Scripts(scripts) => self.scripts(scripts, before),
            Node::Accent { mark, body } => self.accent(mark, body),
            Node::Stack { base, over, under, stretches } => self.stack(base, over.as_ref(), under.as_ref(), *stretches),
            Node::Fenced { open, close, parts, middles } => self.fenced(open, close, parts, middles),
            Node::Delimiter(delimiter) => self.delimiter(delimiter),
            Node::Table(table) => self.table(table),
            Node::Space(width) => {
                let _ = write!(self.out, "<mspace width=\"{}em\"></mspace>", em(*width));
            }
            Node::Phantom { kind, body } => self.phantom(*kind, body),
            Node::Style { .. } | Node::Colored { .. } | Node::Enclosed { .. } => self.decorated(node),
            Node::Classed { class, body } => return self.classed(*class, body, before),
            Node::Reference { label, parentheses, number } => {
                self.leaf("mtext", "", &reference(label, *parentheses, number));
            }
            Node::Unparsed(source) => {
                self.out.push_str("<merror>");
                self.leaf("mtext", "", source);
                self.out.push_str("</merror>");
            }
        }
        1
    }

    fn fenced(&mut self, open: &str, close: &str, parts: &[Row], middles: &[Characters]) {
        self.out.push_str("<mrow>");
        self.fence(open, "prefix");
        for (at, part) in parts.iter().enumerate() {
            if let Some(middle) = at.checked_sub(1).and_then(|at| middles.get(at)) {
                self.leaf("mo", " fence=\"true\" stretchy=\"true\" lspace=\"0.167em\" rspace=\"0.167em\"", middle);
            }
            self.row(part);
        }
        self.fence(close, "postfix");
        self.out.push_str("</mrow>");
    }

    fn delimiter(&mut self, delimiter: &Delimiter) {
        let size = ["1.2em", "1.8em", "2.4em", "3em"].get(usize::from(delimiter.size).wrapping_sub(1)).unwrap_or(&"1.2em");
        let form = match delimiter.class {
            Class::Open => " form=\"prefix\"",
            Class::Close => " form=\"postfix\"",
            Class::Relation => " lspace=\"0.278em\" rspace=\"0.278em\"",
            _ => " lspace=\"0\" rspace=\"0\"",
        };
        self.leaf("mo", &format!("{form} stretchy=\"true\" minsize=\"{size}\" maxsize=\"{size}\""), &delimiter.text);
    }

    /// What is of another size or color, or has something drawn around it.
    fn decorated(&mut self, node: &Node) {
        match node {
            Node::Style { size, body } => {
                let attributes = match size {
                    Size::Display => " displaystyle=\"true\" scriptlevel=\"0\"",
                    Size::Text => " displaystyle=\"false\" scriptlevel=\"0\"",
                    Size::Script => " displaystyle=\"false\" scriptlevel=\"1\"",
                    Size::ScriptScript => " displaystyle=\"false\" scriptlevel=\"2\"",
                };
                self.around("mstyle", attributes, body);
            }
            Node::Colored { color, ground, body } => {
                let name = if *ground { "mathbackground" } else { "mathcolor" };
                let attribute = attribute_color(color).map(|color| format!(" {name}=\"{color}\"")).unwrap_or_default();
                self.around("mstyle", &attribute, body);
            }
            Node::Enclosed { kind, body } => {
                let class = match kind {
                    Enclosure::Box => "boxed",
                    Enclosure::Up => "struck-up",
                    Enclosure::Down => "struck-down",
                    Enclosure::Cross => "struck-across",
                    Enclosure::Strike => "struck",
                };
                self.around("mrow", &format!(" class=\"{class}\""), body);
            }
            _ => {}
        }
    }

    fn identifier(&mut self, text: &str, variant: Variant) {
        let is_single = text.chars().nth(1).is_none();
        match variant {
            Variant::Usual => self.leaf("mi", "", text),
            Variant::Upright if is_single => self.leaf("mi", " mathvariant=\"normal\"", text),
            Variant::Upright => self.leaf("mi", "", text),
            // A single letter leans by itself.
            Variant::Italic if is_single && text.chars().all(|c| c.is_ascii_alphabetic()) => self.leaf("mi", "", text),
            _ => {
                let set: String = text.chars().map(|c| variant.of(c)).collect();
                // What the alphabet has no letter for stands upright, and not as it would alone.
                let attribute = if is_single && set == text { " mathvariant=\"normal\"" } else { "" };
                self.leaf("mi", attribute, &set);
            }
        }
    }

    /// `movable` says whether scripts go beside a large operator within lines, where that is not as usual.
    fn operator(&mut self, text: &str, class: Class, before: Before, is_last: bool, movable: Option<bool>) {
        let attributes = match class {
            Class::Ordinary => match text {
                "/" | "\\" => " lspace=\"0\" rspace=\"0\" stretchy=\"false\"",
                "|" | "‖" => " lspace=\"0\" rspace=\"0\" stretchy=\"false\"",
                _ if text.chars().all(|c| matches!(c, '′' | '″' | '‴' | '‵')) => " lspace=\"0\" rspace=\"0\"",
                _ => return self.leaf("mi", "", text),
            },
            Class::Large => match movable {
                Some(false) => " movablelimits=\"false\"",
                _ => "",
            },
            Class::Integral => "",
            Class::Binary if before == Before::Open && !is_last => " form=\"prefix\"",
            // Alone, it is a sign and no operation.
            Class::Binary if before == Before::Open => " lspace=\"0\" rspace=\"0\"",
            Class::Binary if is_last => " form=\"postfix\" lspace=\"0\" rspace=\"0\"",
            Class::Binary => tables::spacing(text, "0.222em"),
            Class::Relation => tables::spacing(text, "0.278em"),
            Class::Open => tables::fence(text, " form=\"prefix\" stretchy=\"false\""),
            Class::Close if matches!(text, "!" | "?") => " form=\"postfix\"",
            Class::Close => tables::fence(text, " form=\"postfix\" stretchy=\"false\""),
            Class::Punctuation if text == ":" => " lspace=\"0\" rspace=\"0.167em\"",
            Class::Punctuation => "",
        };
        self.leaf("mo", attributes, text);
    }

    fn function(&mut self, name: &str, limits: bool) {
        if limits {
            self.leaf("mo", " form=\"prefix\" movablelimits=\"true\" lspace=\"0\" rspace=\"0\"", &name.replace(' ', "\u{2009}"));
        } else {
            let attribute = if name.chars().nth(1).is_none() { " mathvariant=\"normal\"" } else { "" };
            self.leaf("mi", attribute, &name.replace(' ', "\u{2009}"));
        }
    }

    fn fence(&mut self, text: &str, form: &str) {
        if !text.is_empty() {
            let stretches = if tables::stretches(text) { "" } else { " stretchy=\"true\" symmetric=\"true\"" };
            self.leaf("mo", &format!(" fence=\"true\" form=\"{form}\"{stretches}"), text);
        }
    }

    fn fraction(&mut self, fraction: &Fraction) {
        let Fraction { over, under, line, size, fence } = fraction;
        let style = match size {
            Some(Size::Display) => "<mstyle displaystyle=\"true\">",
            Some(_) => "<mstyle displaystyle=\"false\">",
            None => "",
        };
        if let Some((open, _)) = fence {
            self.out.push_str("<mrow>");
            self.fence(open, "prefix");
        }
        self.out.push_str(style);
        match line {
            Line::Bar | Line::None => {
                self.out.push_str(if *line == Line::Bar { "<mfrac>" } else { "<mfrac linethickness=\"0\">" });
                self.single(over);
                self.single(under);
                self.out.push_str("</mfrac>");
            }
            Line::Skewed => {
                self.out.push_str("<mrow><msup><mrow></mrow>");
                self.single(over);
                self.out.push_str("</msup><mo lspace=\"0\" rspace=\"0\" stretchy=\"false\">⁄</mo><msub><mrow></mrow>");
                self.single(under);
                self.out.push_str("</msub></mrow>");
            }
            Line::Linear => {
                self.out.push_str("<mrow>");
                self.single(over);
                self.out.push_str("<mo lspace=\"0\" rspace=\"0\" stretchy=\"false\">/</mo>");
                self.single(under);
                self.out.push_str("</mrow>");
            }
        }
        if !style.is_empty() {
            self.out.push_str("</mstyle>");
        }
        if let Some((_, close)) = fence {
            self.fence(close, "postfix");
            self.out.push_str("</mrow>");
        }
    }

    fn scripts(&mut self, scripts: &Scripts, before: Before) {
        let Scripts { base, sub, sup, presub, presup, limits } = scripts;
        if presub.is_some() || presup.is_some() {
            self.out.push_str("<mmultiscripts>");
            self.single(base);
            self.script(sub.as_ref());
            self.script(sup.as_ref());
            self.out.push_str("<mprescripts></mprescripts>");
            self.script(presub.as_ref());
            self.script(presup.as_ref());
            self.out.push_str("</mmultiscripts>");
            return;
        }
        let usual = matches!(
            &base[..],
            [Node::Operator { class: Class::Large, .. }
                | Node::Function { limits: true, .. }
                | Node::Classed { class: Class::Large, .. }]
        );
        let above = limits.unwrap_or(usual);
        let name = match (above, sub.is_some(), sup.is_some()) {
            (true, true, true) => "munderover",
            (true, true, false) => "munder",
            (true, ..) => "mover",
            (false, true, true) => "msubsup",
            (false, true, false) => "msub",
            (false, ..) => "msup",
        };
        self.start(name, "");
        match &base[..] {
            [Node::Operator { text, class }] if above => self.operator(text, *class, before, false, limits.map(|_| false)),
            [Node::Operator { text, class: class @ (Class::Binary | Class::Relation) }] => {
                self.operator(text, *class, Before::Operand, false, None)
            }
            [] => self.out.push_str("<mrow></mrow>"),
            _ => self.single(base),
        }
        for script in [sub, sup].into_iter().flatten() {
            self.single(script);
        }
        self.end(name);
    }

    /// A script of several, which is there also where it is empty.
    fn script(&mut self, script: Option<&Row>) {
        match script {
            Some(script) => self.single(script),
            None => self.out.push_str("<mrow></mrow>"),
        }
    }

    fn accent(&mut self, mark: &Accent, body: &Row) {
        let (name, attribute) = match mark.side {
            Side::Over => ("mover", "accent"),
            Side::Under => ("munder", "accentunder"),
        };
        // Few fonts have lines that stretch; the looks of pages draw them.
        let class = match (&*mark.text, mark.stretches) {
            ("‾", true) => " class=\"overlined\"",
            ("_", true) => " class=\"underlined\"",
            _ => "",
        };
        let _ = write!(self.out, "<{name} {attribute}=\"true\"{class}>");
        self.single(body);
        self.leaf("mo", if mark.stretches { " stretchy=\"true\"" } else { " stretchy=\"false\"" }, &mark.text);
        self.end(name);
    }

    fn stack(&mut self, base: &Row, over: Option<&Row>, under: Option<&Row>, stretches: bool) {
        let name = match (under.is_some(), over.is_some()) {
            (true, true) => "munderover",
            (true, false) => "munder",
            (false, true) => "mover",
            (false, false) => "mrow",
        };
        self.start(name, "");
        match &base[..] {
            [Node::Operator { text, .. }] if stretches => {
                self.leaf("mo", " stretchy=\"true\" lspace=\"0.278em\" rspace=\"0.278em\"", text)
            }
            [Node::Operator { text, class: Class::Relation }] => self.leaf("mo", " stretchy=\"false\"", text),
            [Node::Operator { text, class }] => self.operator(text, *class, Before::Operand, false, Some(false)),
            _ => self.single(base),
        }
        for part in [under, over].into_iter().flatten() {
            if stretches {
                // The arrow is longer than what is above it.
                self.out.push_str("<mrow><mspace width=\"0.4em\"></mspace>");
                self.row(part);
                self.out.push_str("<mspace width=\"0.4em\"></mspace></mrow>");
            } else {
                self.single(part);
            }
        }
        self.end(name);
    }

    fn phantom(&mut self, kind: Phantom, body: &Row) {
        match kind {
            Phantom::Whole => self.around("mphantom", "", body),
            Phantom::Width => {
                self.out.push_str("<mpadded height=\"0\" depth=\"0\">");
                self.around("mphantom", "", body);
                self.out.push_str("</mpadded>");
            }
            Phantom::Height => {
                self.out.push_str("<mpadded width=\"0\">");
                self.around("mphantom", "", body);
                self.out.push_str("</mpadded>");
            }
            Phantom::Smash => self.around("mpadded", " height=\"0\" depth=\"0\"", body),
            Phantom::NoWidth => self.around("mpadded", " width=\"0\"", body),
        }
    }

    fn classed(&mut self, class: Class, body: &Row, before: Before) -> usize {
        if let [Node::Operator { text, .. }] = &body[..] {
            self.operator(text, class, before, false, None);
            return 1;
        }
        let width = match class {
            Class::Binary => 4,
            Class::Relation => 5,
            _ => 0,
        };
        if width == 0 {
            self.single(body);
            return 1;
        }
        self.node(&Node::Space(width), before, false);
        self.single(body);
        self.node(&Node::Space(width), before, false);
        3
    }

    fn table(&mut self, table: &crate::math::Table) {
        let (open, close) = tables::fences(table.kind);
        let has_fence = !open.is_empty() || !close.is_empty();
        if has_fence {
            self.out.push_str("<mrow>");
            self.fence(open, "prefix");
        }
        let is_small = table.kind == crate::math::TableKind::Small;
        if is_small {
            self.out.push_str("<mstyle displaystyle=\"false\" scriptlevel=\"1\">");
        }
        self.out.push_str(tables::start(table.kind));
        let columns = table.rows.iter().map(|row| row.cells.len()).max().unwrap_or(0);
        let has_tags = table.rows.iter().any(|row| row.tag.is_some());
        for (at, row) in table.rows.iter().enumerate() {
            self.table_row(table, row, (at, at + 1 == table.rows.len()), columns);
            if has_tags {
                self.out.push_str("<mtd class=\"equation-number\">");
                if let Some(tag) = &row.tag {
                    self.leaf("mtext", "", &tag.shown());
                }
                self.out.push_str("</mtd>");
            }
            self.out.push_str("</mtr>");
        }
        self.out.push_str("</mtable>");
        if is_small {
            self.out.push_str("</mstyle>");
        }
        if has_fence {
            self.fence(close, "postfix");
            self.out.push_str("</mrow>");
        }
    }

    fn table_row(&mut self, table: &crate::math::Table, row: &TableRow, (number, is_last): (usize, bool), columns: usize) {
        self.out.push_str(if row.ruled { "<mtr class=\"ruled\">" } else { "<mtr>" });
        for at in 0..columns {
            let class = if table.rules.contains(&at) { " class=\"ruled\"" } else { "" };
            let style = match tables::align(table, at, number, is_last) {
                crate::math::Align::Left => " style=\"text-align: left\"",
                // What is in a cell is a block, which the word without the prefix does not move.
                crate::math::Align::Right => " style=\"text-align: -webkit-right\"",
                crate::math::Align::Center => "",
            };
            let _ = write!(self.out, "<mtd{class}{style}>");
            if let Some(cell) = row.cells.get(at) {
                self.cell(cell, at);
            }
            self.out.push_str("</mtd>");
        }
    }

    /// A cell behind another one goes on with its line.
    fn cell(&mut self, cell: &Row, at: usize) {
        let is_relation = matches!(cell.first(), Some(Node::Operator { class: Class::Relation | Class::Binary, .. }));
        if at > 0 && is_relation {
            // An operand before it keeps its space.
            self.out.push_str("<mrow></mrow>");
            self.row_behind(cell, Before::Operand);
        } else {
            self.row(cell);
        }
    }
}

/// Eighteenths of an em as ems.
fn em(width: i32) -> String {
    let thousandths = (i64::from(width) * 1000 + 9 * i64::from(width.signum())) / 18;
    let text = format!("{}{}.{:03}", if thousandths < 0 { "-" } else { "" }, thousandths.abs() / 1000, thousandths.abs() % 1000);
    text.trim_end_matches('0').trim_end_matches('.').to_owned()
}

/// Whether a node is the name of a function, with or without scripts.
fn is_function(node: &Node) -> bool {
    match node {
        Node::Function { .. } => true,
        Node::Scripts(scripts) => matches!(&scripts.base[..], [Node::Function { .. }]),
        _ => false,
    }
}

/// Whether a function may be applied to a node.
fn is_operand(node: &Node) -> bool {
    match node {
        Node::Operator { class, .. } => matches!(class, Class::Open | Class::Ordinary | Class::Large | Class::Integral),
        Node::Space(_) | Node::Text { .. } | Node::Unparsed(_) => false,
        Node::Delimiter(delimiter) => delimiter.class == Class::Open,
        _ => true,
    }
}

/// A color as attributes of formulas have it (MathML Core, section 2.1.3; the names are the sixteen of older versions, which all
/// programs know): others become numbers, and what is no color is none.
fn attribute_color(color: &str) -> Option<std::borrow::Cow<'_, str>> {
    const NAMES: [&str; 16] = [
        "aqua", "black", "blue", "fuchsia", "gray", "green", "lime", "maroon", "navy", "olive", "purple", "red", "silver",
        "teal", "white", "yellow",
    ];
    if let Some(digits) = color.strip_prefix('#') {
        let is_number = matches!(digits.len(), 3 | 6) && digits.bytes().all(|byte| byte.is_ascii_hexdigit());
        return is_number.then_some(color.into());
    }
    if NAMES.contains(&color) {
        return Some(color.into());
    }
    let (red, green, blue) = cssparser::color::parse_named_color(color).ok()?;
    Some(format!("#{red:02x}{green:02x}{blue:02x}").into())
}
