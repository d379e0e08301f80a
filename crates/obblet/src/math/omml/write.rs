//! From a tree to the formulas of word processors: what their editors make themselves (ECMA-376, part 1, section 22.1.2).

use crate::math::numbers::reference;
use crate::math::xml::escape;
use crate::math::{
    Accent, Align, Class, Enclosure, Fraction, Line, Math, Node, Phantom, Row, Scripts, Side, Table, TableKind, TableRow, Variant,
};
use std::fmt::Write;

/// Writes a formula as an `m:oMath` element; the prefix is for the namespace of formulas.
///
/// ```
/// use obblet::math::{omml, tex};
///
/// let (math, _) = tex::read(r"\frac{a}{2}");
/// let markup = omml::write(&math);
/// assert!(markup.starts_with("<m:oMath><m:f><m:num><m:r>"));
/// assert_eq!(tex::write(&omml::read(&markup).0), r"\frac{a}{2}");
/// ```
#[must_use]
pub fn write(math: &Math) -> String {
    let mut printer = Printer { out: String::with_capacity(512) };
    printer.out.push_str("<m:oMath>");
    match &math.tag {
        // A number is behind a number sign, in an array of one line.
        Some(tag) => {
            printer.out.push_str("<m:eqArr><m:eqArrPr><m:maxDist m:val=\"1\"/></m:eqArrPr><m:e>");
            printer.row(&math.body);
            let text = format!("#{}", tag.shown());
            printer.run(&text, Variant::Upright);
            printer.out.push_str("</m:e></m:eqArr>");
        }
        None => printer.row(&math.body),
    }
    printer.out.push_str("</m:oMath>");
    printer.out
}

struct Printer {
    out: String,
}

impl Printer {
    fn text(&mut self, text: &str) {
        escape(text, &mut self.out);
    }

    fn property(&mut self, name: &str, value: &str) {
        let mut text = String::new();
        escape(value, &mut text);
        let _ = write!(self.out, "<m:{name} m:val=\"{}\"/>", text.replace('"', "&quot;"));
    }

    /// Text in one alphabet.
    fn run(&mut self, text: &str, variant: Variant) {
        if text.is_empty() {
            return;
        }
        let (script, style) = match variant {
            Variant::Usual | Variant::Italic => ("", "i"),
            Variant::Upright => ("", "p"),
            Variant::Bold => ("", "b"),
            Variant::BoldItalic => ("", "bi"),
            Variant::Script => ("script", "p"),
            Variant::BoldScript => ("script", "b"),
            Variant::Fraktur => ("fraktur", "p"),
            Variant::BoldFraktur => ("fraktur", "b"),
            Variant::DoubleStruck => ("double-struck", "p"),
            Variant::SansSerif => ("sans-serif", "p"),
            Variant::BoldSansSerif => ("sans-serif", "b"),
            Variant::SansSerifItalic => ("sans-serif", "i"),
            Variant::Monospace => ("monospace", "p"),
        };
        self.out.push_str("<m:r><m:rPr>");
        if !script.is_empty() {
            self.property("scr", script);
        }
        self.property("sty", style);
        self.out.push_str("</m:rPr><m:t>");
        self.text(text);
        self.out.push_str("</m:t></m:r>");
    }

    /// Words, as text has them.
    fn words(&mut self, text: &str) {
        self.out.push_str("<m:r><m:rPr><m:nor/></m:rPr><m:t>");
        self.text(text);
        self.out.push_str("</m:t></m:r>");
    }

    fn part(&mut self, name: &str, row: &Row) {
        let _ = write!(self.out, "<m:{name}>");
        self.row(row);
        let _ = write!(self.out, "</m:{name}>");
    }

    fn optional(&mut self, name: &str, row: Option<&Row>) {
        let empty = Vec::new();
        self.part(name, row.unwrap_or(&empty));
    }

    fn row(&mut self, row: &Row) {
        let mut at = 0;
        while let Some(node) = row.get(at) {
            at += 1;
            // A large operator and a function hold what they are applied to.
            let behind = &row[at..];
            if let Some((sign, scripts)) = large(node) {
                let count = operand_length(behind);
                self.nary(sign, scripts, &behind[..count].to_vec());
                at += count;
            } else if is_function(node) {
                let count = argument_length(behind);
                self.function(node, &behind[..count].to_vec());
                at += count;
            } else {
                self.node(node);
            }
        }
    }

    fn node(&mut self, node: &Node) {
        match node {
            Node::Identifier { text, variant } => {
                // Letters that an alphabet lacks stand as they are; small words are set upright.
                let is_word = text.chars().nth(1).is_some() && *variant == Variant::Usual;
                self.run(text, if is_word { Variant::Italic } else { *variant });
            }
            Node::Number { text, variant } => {
                self.run(text, if *variant == Variant::Usual { Variant::Upright } else { *variant })
            }
            Node::Operator { text, .. } => self.run(text, Variant::Upright),
            Node::Function { name, .. } => self.run(name, Variant::Upright),
            Node::Text { text, .. } => self.words(text),
            Node::Group(body) | Node::Style { body, .. } | Node::Colored { body, .. } => self.row(body),
            Node::Fraction(fraction) => self.fraction(fraction),
            Node::Root { body, degree } => {
                self.out.push_str("<m:rad><m:radPr>");
                if degree.is_none() {
                    self.property("degHide", "1");
                }
                self.out.push_str("</m:radPr>");
                self.optional("deg", degree.as_ref());
                self.part("e", body);
                self.out.push_str("</m:rad>");
            }
            Node::Scripts(scripts) => self.scripts(scripts),
            Node::Accent { mark, body } => self.accent(mark, body),
            Node::Stack { base, over, under, stretches } => self.stack(base, over.as_ref(), under.as_ref(), *stretches),
            Node::Fenced { open, close, parts, middles } => {
                self.fenced(open, close, parts, middles.first().map_or("|", |middle| &**middle))
            }
            Node::Delimiter(delimiter) => self.run(&delimiter.text, Variant::Upright),
            Node::Table(table) => self.table(table),
            Node::Space(width) => self.space(*width),
            Node::Phantom { kind, body } => {
                self.out.push_str("<m:phant><m:phantPr>");
                let properties: &[(&str, &str)] = match kind {
                    Phantom::Whole => &[("show", "0")],
                    Phantom::Width => &[("show", "0"), ("zeroAsc", "1"), ("zeroDesc", "1")],
                    Phantom::Height => &[("show", "0"), ("zeroWid", "1")],
                    Phantom::Smash => &[("zeroAsc", "1"), ("zeroDesc", "1")],
                    Phantom::NoWidth => &[("zeroWid", "1")],
                };
                properties.iter().for_each(|(name, value)| self.property(name, value));
                self.out.push_str("</m:phantPr>");
                self.part("e", body);
                self.out.push_str("</m:phant>");
            }
            Node::Enclosed { kind, body } => {
                self.out.push_str("<m:borderBox><m:borderBoxPr>");
                if *kind != Enclosure::Box {
                    ["hideTop", "hideBot", "hideLeft", "hideRight"].into_iter().for_each(|name| self.property(name, "1"));
                }
                let strikes: &[&str] = match kind {
                    Enclosure::Box => &[],
                    Enclosure::Up => &["strikeBLTR"],
                    Enclosure::Down => &["strikeTLBR"],
                    Enclosure::Cross => &["strikeBLTR", "strikeTLBR"],
                    Enclosure::Strike => &["strikeH"],
                };
                strikes.iter().for_each(|name| self.property(name, "1"));
                self.out.push_str("</m:borderBoxPr>");
                self.part("e", body);
                self.out.push_str("</m:borderBox>");
            }
            Node::Classed { body, .. } => {
                self.out.push_str("<m:box><m:boxPr><m:opEmu m:val=\"1\"/></m:boxPr>");
                self.part("e", body);
                self.out.push_str("</m:box>");
            }
            Node::Reference { label, parentheses, number } => self.words(&reference(label, *parentheses, number)),
            Node::Unparsed(source) => self.words(source),
        }
    }

    fn space(&mut self, width: i32) {
        let text = match width {
            ..=1 => return,
            2..=3 => "\u{2009}",
            4 => "\u{2005}",
            5 => "\u{2004}",
            6..=8 => "\u{A0}",
            9..=13 => "\u{2002}",
            14..=26 => "\u{2003}",
            _ => "\u{2003}\u{2003}",
        };
        self.run(text, Variant::Upright);
    }

    fn fraction(&mut self, fraction: &Fraction) {
        let Fraction { over, under, line, fence, .. } = fraction;
        if let Some((open, close)) = fence {
            self.begin_fence(open, close, "|");
            self.out.push_str("<m:e>");
        }
        self.out.push_str("<m:f>");
        let kind = match line {
            Line::Bar => None,
            Line::None => Some("noBar"),
            Line::Skewed => Some("skw"),
            Line::Linear => Some("lin"),
        };
        if let Some(kind) = kind {
            self.out.push_str("<m:fPr>");
            self.property("type", kind);
            self.out.push_str("</m:fPr>");
        }
        self.part("num", over);
        self.part("den", under);
        self.out.push_str("</m:f>");
        if fence.is_some() {
            self.out.push_str("</m:e></m:d>");
        }
    }

    fn begin_fence(&mut self, open: &str, close: &str, separator: &str) {
        self.out.push_str("<m:d><m:dPr>");
        if open != "(" {
            self.property("begChr", open);
        }
        if separator != "|" {
            self.property("sepChr", separator);
        }
        if close != ")" {
            self.property("endChr", close);
        }
        self.out.push_str("</m:dPr>");
    }

    fn fenced(&mut self, open: &str, close: &str, parts: &[Row], separator: &str) {
        self.begin_fence(open, close, separator);
        for part in parts {
            self.part("e", part);
        }
        self.out.push_str("</m:d>");
    }

    fn scripts(&mut self, scripts: &Scripts) {
        let Scripts { base, sub, sup, presub, presup, limits } = scripts;
        if presub.is_some() || presup.is_some() {
            self.out.push_str("<m:sPre>");
            self.optional("sub", presub.as_ref());
            self.optional("sup", presup.as_ref());
            self.out.push_str("<m:e>");
            if sub.is_some() || sup.is_some() {
                self.scripts(&Scripts { presub: None, presup: None, ..scripts.clone() });
            } else {
                self.row(base);
            }
            self.out.push_str("</m:e></m:sPre>");
            return;
        }
        let usual = matches!(&base[..], [Node::Operator { class: Class::Large, .. } | Node::Function { limits: true, .. }]);
        if limits.unwrap_or(usual) {
            return self.limits(base, sub.as_ref(), sup.as_ref());
        }
        let name = match (sub.is_some(), sup.is_some()) {
            (true, true) => "sSubSup",
            (true, false) => "sSub",
            _ => "sSup",
        };
        let _ = write!(self.out, "<m:{name}>");
        self.part("e", base);
        if let Some(sub) = sub {
            self.part("sub", sub);
        }
        if let Some(sup) = sup {
            self.part("sup", sup);
        }
        let _ = write!(self.out, "</m:{name}>");
    }

    fn limits(&mut self, base: &Row, under: Option<&Row>, over: Option<&Row>) {
        if over.is_some() {
            self.out.push_str("<m:limUpp><m:e>");
        }
        if under.is_some() {
            self.out.push_str("<m:limLow><m:e>");
        }
        match &base[..] {
            [one] => self.node(one),
            _ => self.row(base),
        }
        for (part, name) in [(under, "limLow"), (over, "limUpp")] {
            if let Some(part) = part {
                self.out.push_str("</m:e>");
                self.part("lim", part);
                let _ = write!(self.out, "</m:{name}>");
            }
        }
    }

    /// An operator over what is behind it (section 22.1.2.70).
    fn nary(&mut self, sign: &str, scripts: Option<&Scripts>, body: &Row) {
        let (sub, sup) = scripts.map_or((None, None), |scripts| (scripts.sub.as_ref(), scripts.sup.as_ref()));
        let is_large = scripts.is_none_or(|scripts| matches!(&scripts.base[..], [Node::Operator { class: Class::Large, .. }]));
        let above = scripts.and_then(|scripts| scripts.limits).unwrap_or(is_large);
        self.out.push_str("<m:nary><m:naryPr>");
        self.property("chr", sign);
        self.property("limLoc", if above { "undOvr" } else { "subSup" });
        if sub.is_none() {
            self.property("subHide", "1");
        }
        if sup.is_none() {
            self.property("supHide", "1");
        }
        self.out.push_str("</m:naryPr>");
        self.optional("sub", sub);
        self.optional("sup", sup);
        self.part("e", body);
        self.out.push_str("</m:nary>");
    }

    /// The name of a function with what it is applied to (section 22.1.2.39).
    fn function(&mut self, node: &Node, body: &Row) {
        self.out.push_str("<m:func><m:fName>");
        self.node(node);
        self.out.push_str("</m:fName>");
        self.part("e", body);
        self.out.push_str("</m:func>");
    }

    fn accent(&mut self, mark: &Accent, body: &Row) {
        let combining = match (&*mark.text, mark.side) {
            ("^", Side::Over) => "\u{302}",
            ("~", Side::Over) => "\u{303}",
            ("¯", Side::Over) => "\u{304}",
            ("˙", Side::Over) => "\u{307}",
            ("¨", Side::Over) => "\u{308}",
            ("⃛", Side::Over) => "\u{20DB}",
            ("⃜", Side::Over) => "\u{20DC}",
            ("ˇ", Side::Over) => "\u{30C}",
            ("˘", Side::Over) => "\u{306}",
            ("´", Side::Over) => "\u{301}",
            ("`", Side::Over) => "\u{300}",
            ("˚", Side::Over) => "\u{30A}",
            ("→", Side::Over) => "\u{20D7}",
            ("←", Side::Over) => "\u{20D6}",
            ("↔", Side::Over) => "\u{20E1}",
            ("‾", Side::Over) | ("_", Side::Under) => {
                self.out.push_str("<m:bar><m:barPr>");
                self.property("pos", if mark.side == Side::Over { "top" } else { "bot" });
                self.out.push_str("</m:barPr>");
                self.part("e", body);
                self.out.push_str("</m:bar>");
                return;
            }
            (text, side) => {
                let (position, middle) = if side == Side::Over { ("top", "bot") } else { ("bot", "top") };
                self.out.push_str("<m:groupChr><m:groupChrPr>");
                self.property("chr", text);
                self.property("pos", position);
                self.property("vertJc", middle);
                self.out.push_str("</m:groupChrPr>");
                self.part("e", body);
                self.out.push_str("</m:groupChr>");
                return;
            }
        };
        self.out.push_str("<m:acc><m:accPr>");
        self.property("chr", combining);
        self.out.push_str("</m:accPr>");
        self.part("e", body);
        self.out.push_str("</m:acc>");
    }

    fn stack(&mut self, base: &Row, over: Option<&Row>, under: Option<&Row>, stretches: bool) {
        if stretches
            && let [Node::Operator { text, .. }] = &base[..]
            && let (Some(body), None) | (None, Some(body)) = (over, under)
        {
            // The words are in it, and the arrow is on their other side.
            let position = if over.is_some() { "bot" } else { "top" };
            self.out.push_str("<m:groupChr><m:groupChrPr>");
            self.property("chr", text);
            self.property("pos", position);
            self.property("vertJc", if over.is_some() { "bot" } else { "top" });
            self.out.push_str("</m:groupChrPr>");
            self.part("e", body);
            self.out.push_str("</m:groupChr>");
            return;
        }
        self.limits(base, under, over);
    }

    fn table(&mut self, table: &Table) {
        let fences = match table.kind {
            TableKind::Parentheses => Some(("(", ")")),
            TableKind::Brackets => Some(("[", "]")),
            TableKind::Braces => Some(("{", "}")),
            TableKind::Bars => Some(("|", "|")),
            TableKind::DoubleBars => Some(("‖", "‖")),
            TableKind::Cases => Some(("{", "")),
            TableKind::RightCases => Some(("", "}")),
            _ => None,
        };
        if let Some((open, close)) = fences {
            self.begin_fence(open, close, "|");
            self.out.push_str("<m:e>");
        }
        match table.kind {
            TableKind::Cases
            | TableKind::RightCases
            | TableKind::Aligned
            | TableKind::Gathered
            | TableKind::Multline
            | TableKind::Substack => {
                self.out.push_str("<m:eqArr>");
                for row in &table.rows {
                    self.line(row);
                }
                self.out.push_str("</m:eqArr>");
            }
            _ => self.matrix(table),
        }
        if fences.is_some() {
            self.out.push_str("</m:e></m:d>");
        }
    }

    /// A line of an array; before each cell but the first is a sign that what follows is aligned.
    fn line(&mut self, row: &TableRow) {
        self.out.push_str("<m:e>");
        for (at, cell) in row.cells.iter().enumerate() {
            if at > 0 {
                self.out.push_str("<m:r><m:rPr><m:sty m:val=\"p\"/></m:rPr><m:t>&amp;</m:t></m:r>");
            }
            self.row(cell);
        }
        if let Some(tag) = &row.tag {
            self.words(&format!("\u{2003}{}", tag.shown()));
        }
        self.out.push_str("</m:e>");
    }

    fn matrix(&mut self, table: &Table) {
        let columns = table.rows.iter().map(|row| row.cells.len()).max().unwrap_or(0).max(1);
        self.out.push_str("<m:m><m:mPr><m:mcs>");
        for at in 0..columns {
            let align = match table.columns.get(at) {
                Some(Align::Left) => "left",
                Some(Align::Right) => "right",
                _ => "center",
            };
            let _ = write!(self.out, "<m:mc><m:mcPr><m:count m:val=\"1\"/><m:mcJc m:val=\"{align}\"/></m:mcPr></m:mc>");
        }
        self.out.push_str("</m:mcs></m:mPr>");
        let empty = Vec::new();
        for row in &table.rows {
            self.out.push_str("<m:mr>");
            for at in 0..columns {
                self.part("e", row.cells.get(at).unwrap_or(&empty));
            }
            self.out.push_str("</m:mr>");
        }
        self.out.push_str("</m:m>");
    }
}

/// The sign of a large operator, with its scripts.
fn large(node: &Node) -> Option<(&str, Option<&Scripts>)> {
    let sign = |node: &Node| matches!(node, Node::Operator { class: Class::Large | Class::Integral, .. });
    match node {
        Node::Operator { text, .. } if sign(node) => Some((text, None)),
        Node::Scripts(scripts) if scripts.presub.is_none() && scripts.presup.is_none() => match &scripts.base[..] {
            [base @ Node::Operator { text, .. }] if sign(base) => Some((text, Some(scripts))),
            _ => None,
        },
        _ => None,
    }
}

fn is_function(node: &Node) -> bool {
    match node {
        Node::Function { .. } => true,
        Node::Scripts(scripts) => matches!(&scripts.base[..], [Node::Function { .. }]),
        _ => false,
    }
}

/// How many nodes are what a large operator is over: up to the next sum, relation or comma.
fn operand_length(row: &[Node]) -> usize {
    let ends = |node: &Node| match node {
        Node::Operator { class: Class::Relation | Class::Punctuation | Class::Close, .. } => true,
        Node::Operator { text, class: Class::Binary } => matches!(&**text, "+" | "−" | "±" | "∓"),
        Node::Text { .. } | Node::Table(_) => false,
        _ => false,
    };
    let mut depth = 0_usize;
    for (at, node) in row.iter().enumerate() {
        match node {
            Node::Operator { class: Class::Open, .. } => depth += 1,
            Node::Operator { class: Class::Close, .. } if depth > 0 => depth -= 1,
            node if depth == 0 && ends(node) => return at,
            _ => {}
        }
    }
    row.len()
}

/// How many nodes a function is applied to: one, or what is in parentheses.
fn argument_length(row: &[Node]) -> usize {
    match row.first() {
        Some(Node::Operator { class: Class::Open, .. }) => {
            let mut depth = 0_usize;
            for (at, node) in row.iter().enumerate() {
                match node {
                    Node::Operator { class: Class::Open, .. } => depth += 1,
                    Node::Operator { class: Class::Close, text } if text != "!" => depth = depth.saturating_sub(1),
                    _ => {}
                }
                if depth == 0 {
                    return at + 1;
                }
            }
            row.len()
        }
        Some(
            Node::Operator { class: Class::Binary | Class::Relation | Class::Punctuation | Class::Close, .. }
            | Node::Space(_)
            | Node::Text { .. },
        )
        | None => 0,
        Some(_) => 1,
    }
}
