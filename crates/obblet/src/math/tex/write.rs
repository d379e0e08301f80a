//! From a tree to TeX, as a careful author writes it: commands by their usual names, braces only where they are needed.

use super::commands as table;
use super::symbols::Symbol;
use crate::math::{
    Accent, Align, Class, Enclosure, Fraction, Line, Math, Node, Phantom, Row, Scripts, Side, Size, Table, TableKind, TableRow,
    Tag, Variant,
};

/// Writes a formula as TeX, without delimiters around it.
#[must_use]
pub fn write(math: &Math) -> String {
    let mut printer = Printer { out: String::new() };
    if let Some(label) = &math.parts {
        printer.out.push_str("\\begin{subequations}\n");
        if !label.is_empty() {
            printer.out.push_str(&format!("\\label{{{label}}}\n"));
        }
    }
    let rows = match &math.body[..] {
        // Rows with numbers of their own are an environment of their own.
        [Node::Table(table)] if math.numbered && table.rows.iter().all(|row| row.unnumbered) => false,
        [Node::Table(table)] if math.numbered || table.rows.iter().any(|row| row.tag.is_some() || !row.label.is_empty()) => {
            printer.numbered(math, table)
        }
        _ => false,
    };
    if !rows {
        let equation = math.numbered;
        if equation {
            printer.out.push_str("\\begin{equation}\n");
        }
        printer.row(&math.body);
        printer.beside(math);
        if equation {
            printer.out.push_str("\n\\end{equation}");
        }
    }
    if math.parts.is_some() {
        printer.out.push_str("\n\\end{subequations}");
    }
    printer.out.trim().to_owned()
}

/// No command has a longer name.
const LONGEST_COMMAND: usize = 32;

struct Printer {
    out: String,
}

impl Printer {
    /// Writes a piece; a command and a letter do not run together.
    fn put(&mut self, text: &str) {
        let begins_letter = text.starts_with(|c: char| c.is_ascii_alphabetic());
        if begins_letter && self.ends_command() {
            self.out.push(' ');
        }
        self.out.push_str(text);
    }

    /// Whether the text ends with the name of a command that a letter would go on.
    fn ends_command(&self) -> bool {
        let name = self.out.bytes().rev().take(LONGEST_COMMAND).take_while(u8::is_ascii_alphabetic).count();
        let before = self.out.len() - name;
        name > 0 && self.out[..before].ends_with('\\') && !self.out[..before].ends_with("\\\\")
    }

    /// A space that only parts what is written.
    fn space(&mut self) {
        if !self.out.is_empty() && !self.out.ends_with([' ', '{', '\n', '(', '[']) {
            self.out.push(' ');
        }
    }

    fn braced(&mut self, row: &Row) {
        self.out.push('{');
        self.row(row);
        self.out.push('}');
    }

    fn command(&mut self, name: &str, row: &Row) {
        self.put(&format!("\\{name}"));
        self.braced(row);
    }

    fn row(&mut self, row: &Row) {
        let mut before: Option<&Node> = None;
        for (at, node) in row.iter().enumerate() {
            let is_first = before.is_none_or(|before| {
                matches!(before, Node::Operator { class: Class::Binary | Class::Relation | Class::Open | Class::Punctuation, .. })
            });
            self.node(node, is_first, row.get(at + 1));
            before = Some(node);
        }
        let end = self.out.trim_end_matches(' ').len();
        if !self.out.ends_with("\\ ") {
            self.out.truncate(end);
        }
    }

    fn node(&mut self, node: &Node, is_first: bool, next: Option<&Node>) {
        match node {
            Node::Identifier { text, variant } => self.identifier(text, *variant),
            Node::Number { text, variant } => self.number(text, *variant),
            Node::Operator { text, class } => self.operator(text, *class, is_first, next.is_none()),
            Node::Function { name, limits } => self.function(name, *limits, next),
            Node::Text { text, variant } => {
                let command = match variant {
                    Variant::Italic => "textit",
                    Variant::Bold => "textbf",
                    Variant::SansSerif => "textsf",
                    Variant::Monospace => "texttt",
                    _ => "text",
                };
                self.put(&format!("\\{command}{{{}}}", text_of(text)));
            }
            Node::Group(body) => self.braced(body),
            Node::Fraction(fraction) => self.fraction(fraction),
            Node::Root { body, degree } => {
                self.put("\\sqrt");
                if let Some(degree) = degree {
                    self.out.push('[');
                    let has_bracket = degree.iter().any(|node| matches!(node, Node::Operator { text, .. } if text == "]"));
                    if has_bracket {
                        self.braced(degree)
                    } else {
                        self.row(degree)
                    }
                    self.out.push(']');
                }
                self.braced(body);
            }
            Node::Scripts(scripts) => self.scripts(scripts),
            Node::Accent { mark, body } => self.accent(mark, body),
            Node::Stack { base, over, under, stretches } => self.stack(base, over.as_ref(), under.as_ref(), *stretches),
            Node::Fenced { open, close, parts, middles } => {
                self.put("\\left");
                self.delimiter(open);
                for (at, part) in parts.iter().enumerate() {
                    if let Some(middle) = at.checked_sub(1).and_then(|at| middles.get(at)) {
                        self.out.push_str(" \\middle");
                        self.delimiter(middle);
                    }
                    self.space();
                    self.row(part);
                }
                self.out.push_str(" \\right");
                self.delimiter(close);
            }
            Node::Delimiter(delimiter) => {
                let found = table::BIG.iter().find(|(_, size, class)| *size == delimiter.size && *class == delimiter.class);
                self.put(&format!("\\{}", found.map_or("big", |(name, ..)| name)));
                self.delimiter(&delimiter.text);
            }
            Node::Table(table) => self.table(table),
            Node::Space(width) => self.width(*width),
            Node::Phantom { .. } | Node::Colored { .. } | Node::Enclosed { .. } | Node::Classed { .. } => self.decorated(node),
            Node::Style { size, body } => self.switched(size_name(*size), body, is_first && next.is_none()),
            Node::Reference { label, parentheses, .. } => {
                self.put(&format!("\\{}{{{label}}}", if *parentheses { "eqref" } else { "ref" }));
            }
            Node::Unparsed(source) => {
                self.space();
                self.out.push_str(source);
                self.space();
            }
        }
    }

    /// What is hidden, coloured, drawn around, or spaced like something else.
    fn decorated(&mut self, node: &Node) {
        match node {
            Node::Phantom { kind, body } => {
                let name = match kind {
                    Phantom::Whole => "phantom",
                    Phantom::Width => "hphantom",
                    Phantom::Height => "vphantom",
                    Phantom::Smash => "smash",
                    Phantom::NoWidth => "mathclap",
                };
                self.command(name, body);
            }
            Node::Colored { color, ground: false, body } => {
                let color = color_of(color);
                self.put(&format!("\\textcolor{color}"));
                self.braced(body);
            }
            Node::Colored { color, body, .. } => {
                self.put(&format!("\\colorbox{}{{$", color_of(color)));
                self.row(body);
                self.out.push_str("$}");
            }
            Node::Enclosed { kind, body } => {
                let name = match kind {
                    Enclosure::Box => "boxed",
                    Enclosure::Up => "cancel",
                    Enclosure::Down => "bcancel",
                    Enclosure::Cross => "xcancel",
                    Enclosure::Strike => "sout",
                };
                self.command(name, body);
            }
            Node::Classed { class, body } => {
                let name = table::CLASSES.iter().find(|(_, known)| known == class).map_or("mathord", |(name, _)| name);
                self.command(name, body);
            }
            _ => {}
        }
    }

    fn identifier(&mut self, text: &str, variant: Variant) {
        let known = table::command_for(text);
        let inner = match known {
            Some((name, Symbol::Letter | Symbol::Capital | Symbol::Slanted)) => format!("\\{name}"),
            _ => escaped(text),
        };
        let is_usual = match known {
            Some((_, Symbol::Capital)) => variant == Variant::Upright,
            _ => variant == Variant::Usual,
        };
        if is_usual {
            let is_word = text.chars().count() > 1 && known.is_none();
            return self.put(&if is_word { format!("\\mathit{{{inner}}}") } else { inner });
        }
        if known.is_some_and(|(_, symbol)| symbol == Symbol::Capital) && matches!(variant, Variant::Italic | Variant::Usual) {
            let slanted = super::symbols::SYMBOLS.iter().find(|(_, known, symbol)| *known == text && *symbol == Symbol::Slanted);
            if let Some((name, ..)) = slanted {
                return self.put(&format!("\\{name}"));
            }
        }
        if let (Some((name, Symbol::Letter)), Variant::Upright) = (known, variant)
            && table::upright_letter(&format!("up{name}")).is_some()
        {
            return self.put(&format!("\\up{name}"));
        }
        self.put(&set_in(variant, &inner));
    }

    fn number(&mut self, text: &str, variant: Variant) {
        let text = text.replace('−', "-").replace(',', "{,}");
        if variant == Variant::Usual { self.put(&text) } else { self.put(&set_in(variant, &text)) }
    }

    fn operator(&mut self, text: &str, class: Class, is_first: bool, is_last: bool) {
        let spaced = matches!(class, Class::Relation) || (class == Class::Binary && !is_first && !is_last);
        let mut letters = text.chars();
        let single = letters.next().filter(|_| letters.as_str().is_empty());
        let written = match (text, single) {
            ("−", _) => "-".to_owned(),
            ("∗", _) => "*".to_owned(),
            ("mod", _) => "\\bmod".to_owned(),
            ("″", _) => "\\prime\\prime".to_owned(),
            ("‴", _) => "\\prime\\prime\\prime".to_owned(),
            _ if text.chars().all(|c| c == '′') => "\\prime".repeat(text.chars().count()),
            (_, Some(c)) if table::class_of(c) == Some(class) && c.is_ascii() => escaped(text),
            _ => match table::command_of(text, class).or_else(|| table::command_for(text)) {
                Some((name, Symbol::Operator(known))) if known == class || same(known, class) => format!("\\{name}"),
                Some((name, _)) => format!("\\{}{{\\{name}}}", class_name(class)),
                None => self::negated(text).unwrap_or_else(|| match single {
                    Some(c) if table::class_of(c) == Some(class) || class == Class::Ordinary => escaped(text),
                    _ => format!("\\{}{{{}}}", class_name(class), escaped(text)),
                }),
            },
        };
        if spaced {
            self.space();
        }
        self.put(&written);
        if spaced || class == Class::Punctuation {
            self.out.push(' ');
        }
    }

    fn function(&mut self, name: &str, limits: bool, next: Option<&Node>) {
        match table::FUNCTIONS.iter().find(|(_, shown, known)| *shown == name && *known == limits) {
            // Names that no package has are written out.
            Some((command, ..)) if !matches!(*command, "sgn" | "lcm" | "argmax" | "argmin") => self.put(&format!("\\{command}")),
            _ => {
                let star = if limits { "*" } else { "" };
                self.put(&format!("\\operatorname{star}{{{}}}", name.replace(' ', "\\,")));
            }
        }
        if matches!(next, Some(Node::Identifier { .. } | Node::Number { .. } | Node::Function { .. })) {
            self.out.push(' ');
        }
    }

    fn fraction(&mut self, fraction: &Fraction) {
        let Fraction { over, under, line, size, fence } = fraction;
        let plain = |size: Option<Size>| match size {
            None => Some(""),
            Some(Size::Display) => Some("d"),
            Some(Size::Text) => Some("t"),
            _ => None,
        };
        let is_parentheses = fence.as_ref().is_some_and(|(open, close)| open == "(" && close == ")");
        let name = match (line, plain(*size), fence) {
            (Line::Bar, Some(prefix), None) => Some(format!("{prefix}frac")),
            (Line::None, Some(prefix), Some(_)) if is_parentheses => Some(format!("{prefix}binom")),
            (Line::Skewed, ..) => Some("sfrac".to_owned()),
            (Line::Linear, ..) => Some("flatfrac".to_owned()),
            _ => None,
        };
        match name {
            Some(name) => self.put(&format!("\\{name}")),
            None => {
                let (open, close) = fence.clone().unwrap_or_default();
                self.put("\\genfrac");
                for text in [open, close] {
                    self.out.push('{');
                    if !text.is_empty() {
                        self.delimiter(&text);
                    }
                    self.out.push('}');
                }
                let size = match size {
                    Some(Size::Display) => "0",
                    Some(Size::Text) => "1",
                    Some(Size::Script) => "2",
                    Some(Size::ScriptScript) => "3",
                    None => "",
                };
                self.out.push_str(&format!("{{{}}}{{{size}}}", if *line == Line::None { "0pt" } else { "" }));
            }
        }
        self.braced(over);
        self.braced(under);
    }

    fn scripts(&mut self, scripts: &Scripts) {
        let Scripts { base, sub, sup, presub, presup, limits } = scripts;
        if presub.is_some() || presup.is_some() {
            if *limits == Some(false) {
                self.put("\\sideset");
                self.side(presub.as_ref(), presup.as_ref());
                self.side(sub.as_ref(), sup.as_ref());
                self.space();
                return self.row(base);
            }
            self.put("\\prescript");
            self.braced(presup.as_ref().unwrap_or(&Vec::new()));
            self.braced(presub.as_ref().unwrap_or(&Vec::new()));
            self.braced(base);
            return self.attached(sub.as_ref(), sup.as_ref());
        }
        self.base(base);
        let is_brace = matches!(&base[..], [Node::Accent { mark, .. }] if is_brace(mark));
        match limits {
            Some(true) if !is_brace => self.put("\\limits"),
            Some(false) => self.put("\\nolimits"),
            _ => {}
        }
        self.attached(sub.as_ref(), sup.as_ref());
    }

    fn side(&mut self, sub: Option<&Row>, sup: Option<&Row>) {
        self.out.push('{');
        self.attached(sub, sup);
        self.out.push('}');
    }

    fn attached(&mut self, sub: Option<&Row>, sup: Option<&Row>) {
        if let Some(sub) = sub {
            self.out.push('_');
            self.script(sub);
        }
        if let Some(sup) = sup {
            let primes = match sup.first() {
                Some(Node::Operator { text, .. }) if !text.is_empty() && text.chars().all(|c| c == '′') => text.chars().count(),
                _ => 0,
            };
            self.out.push_str(&"'".repeat(primes));
            if primes == 0 || sup.len() > 1 {
                self.out.push('^');
                self.script(&sup[usize::from(primes > 0)..].to_vec());
            }
        }
    }

    /// What scripts are at: one thing, or a group.
    fn base(&mut self, base: &Row) {
        match &base[..] {
            [] => self.out.push_str("{}"),
            [node] if is_single(node) => self.row(base),
            _ => self.braced(base),
        }
    }

    fn script(&mut self, row: &Row) {
        let is_short = matches!(&row[..], [Node::Identifier { text, variant: Variant::Usual }] if text.len() == 1)
            || matches!(&row[..], [Node::Number { text, variant: Variant::Usual }] if text.len() == 1)
            || matches!(&row[..], [Node::Operator { text, .. }] if text.len() == 1 && text.is_ascii() && text.bytes().all(|b| matches!(b, b'+' | b'=')));
        if is_short { self.row(row) } else { self.braced(row) }
    }

    fn accent(&mut self, mark: &Accent, body: &Row) {
        let known = table::ACCENTS
            .iter()
            .find(|(_, text, stretches, side)| *text == mark.text && *stretches == mark.stretches && *side == mark.side);
        match known {
            Some((name, ..)) => self.command(name, body),
            None => {
                self.put(if mark.side == Side::Over { "\\overset{" } else { "\\underset{" });
                self.operator(&mark.text, Class::Ordinary, true, true);
                self.out.push('}');
                self.braced(body);
            }
        }
    }

    fn stack(&mut self, base: &Row, over: Option<&Row>, under: Option<&Row>, stretches: bool) {
        if stretches
            && let [Node::Operator { text, .. }] = &base[..]
            && let Some((name, _)) = table::ARROWS.iter().find(|(_, arrow)| *arrow == *text)
        {
            self.put(&format!("\\{name}"));
            if let Some(under) = under {
                self.out.push('[');
                self.row(under);
                self.out.push(']');
            }
            return self.braced(over.unwrap_or(&Vec::new()));
        }
        match (over, under) {
            (Some(over), Some(under)) => {
                self.command("overset", over);
                self.out.push('{');
                self.command("underset", under);
                self.braced(base);
                self.out.push('}');
            }
            (Some(over), None) => {
                self.command("overset", over);
                self.braced(base);
            }
            (None, Some(under)) => {
                self.command("underset", under);
                self.braced(base);
            }
            (None, None) => self.braced(base),
        }
    }

    fn delimiter(&mut self, text: &str) {
        let written = match text {
            "" => ".".to_owned(),
            "{" | "}" => format!("\\{text}"),
            "‖" => "\\|".to_owned(),
            "\\" => "\\backslash".to_owned(),
            "⟨" | "\u{3008}" | "\u{2329}" => "\\langle".to_owned(),
            "⟩" | "\u{3009}" | "\u{232A}" => "\\rangle".to_owned(),
            _ => match table::command_for(text) {
                Some((name, _)) if !text.is_ascii() => format!("\\{name}"),
                _ => text.to_owned(),
            },
        };
        self.put(&written);
    }

    /// A command that holds for all that comes in its group.
    fn switched(&mut self, name: &str, body: &Row, is_alone: bool) {
        if !is_alone {
            self.out.push('{');
        }
        self.put(&format!("\\{name}"));
        self.out.push(' ');
        self.row(body);
        if !is_alone {
            self.out.push('}');
        }
    }

    fn width(&mut self, width: i32) {
        match table::SPACES.iter().find(|(_, known)| *known == width) {
            Some((name, _)) => {
                self.put(&format!("\\{name}"));
                if !name.ends_with(' ') && name.len() > 1 {
                    self.out.push(' ');
                }
            }
            None => self.put(&format!("\\mspace{{{width}mu}}")),
        }
    }

    fn tag(&mut self, tag: &Tag) {
        self.out.push_str(&format!(" \\tag{}{{{}}}", if tag.bare { "*" } else { "" }, tag.text));
    }

    fn table(&mut self, table: &Table) {
        if table.kind == TableKind::Substack {
            self.put("\\substack{");
            self.lines(table, " \\\\ ", false);
            self.out.push('}');
            return;
        }
        let name = match table.kind {
            TableKind::Plain => "matrix",
            TableKind::Parentheses => "pmatrix",
            TableKind::Brackets => "bmatrix",
            TableKind::Braces => "Bmatrix",
            TableKind::Bars => "vmatrix",
            TableKind::DoubleBars => "Vmatrix",
            TableKind::Small => "smallmatrix",
            TableKind::Array => "array",
            TableKind::Cases => "cases",
            TableKind::RightCases => "rcases",
            TableKind::Aligned => "aligned",
            TableKind::Gathered => "gathered",
            TableKind::Multline => "multline*",
            TableKind::Substack => "subarray",
        };
        self.put(&format!("\\begin{{{name}}}"));
        if table.kind == TableKind::Array {
            self.out.push_str(&columns(table));
        }
        self.out.push('\n');
        self.lines(table, " \\\\\n", false);
        self.out.push_str(&format!("\n\\end{{{name}}}"));
    }

    /// The tag and the label of a whole formula.
    fn beside(&mut self, math: &Math) {
        if let Some(tag) = &math.tag {
            self.tag(tag);
        }
        if !math.label.is_empty() {
            self.out.push_str(&format!(" \\label{{{}}}", math.label));
        }
    }

    /// Rows that are equations of their own. Whether they are such.
    fn numbered(&mut self, math: &Math, table: &Table) -> bool {
        let name = match table.kind {
            TableKind::Aligned => "align",
            TableKind::Gathered => "gather",
            TableKind::Multline => "multline",
            _ => return false,
        };
        let star = if math.numbered { "" } else { "*" };
        self.out.push_str(&format!("\\begin{{{name}{star}}}\n"));
        self.lines(table, " \\\\\n", math.numbered);
        self.beside(math);
        self.out.push_str(&format!("\n\\end{{{name}{star}}}"));
        true
    }

    fn lines(&mut self, table: &Table, end: &str, own_numbers: bool) {
        for (at, row) in table.rows.iter().enumerate() {
            if at > 0 {
                self.out.push_str(end);
            }
            self.line(row, own_numbers);
        }
    }

    fn line(&mut self, row: &TableRow, own_numbers: bool) {
        if row.ruled {
            self.out.push_str("\\hline ");
        }
        for (at, cell) in row.cells.iter().enumerate() {
            if at > 0 {
                self.out.push_str(" & ");
            }
            // Brackets behind the end of a row would be part of that.
            if at == 0 && matches!(cell.first(), Some(Node::Operator { text, .. }) if text == "[") {
                self.out.push_str("{}");
            }
            self.row(cell);
        }
        if let Some(tag) = &row.tag {
            self.tag(tag);
        }
        if !row.label.is_empty() {
            self.out.push_str(&format!(" \\label{{{}}}", row.label));
        }
        if row.unnumbered && own_numbers {
            self.out.push_str(" \\notag");
        }
    }
}

/// How the columns of an array are aligned.
fn columns(table: &Table) -> String {
    let count = table.rows.iter().map(|row| row.cells.len()).max().unwrap_or(0).max(table.columns.len());
    let mut out = "{".to_owned();
    for at in 0..=count {
        if table.rules.contains(&at) {
            out.push('|');
        }
        if at < count {
            out.push(match table.columns.get(at) {
                Some(Align::Left) => 'l',
                Some(Align::Right) => 'r',
                _ => 'c',
            });
        }
    }
    out + "}"
}

/// Whether scripts can stand at a node without braces.
fn is_single(node: &Node) -> bool {
    match node {
        Node::Number { text, .. } => !text.is_empty(),
        Node::Identifier { .. } | Node::Operator { .. } | Node::Function { .. } | Node::Text { .. } => true,
        Node::Accent { .. }
        | Node::Root { .. }
        | Node::Fenced { .. }
        | Node::Delimiter(_)
        | Node::Classed { .. }
        | Node::Group(_) => true,
        Node::Fraction(_) | Node::Phantom { .. } | Node::Enclosed { .. } | Node::Stack { .. } => true,
        Node::Table(table) => table.kind != TableKind::Substack,
        _ => false,
    }
}

fn is_brace(mark: &Accent) -> bool {
    matches!(&*mark.text, "⏞" | "⏟" | "⎴" | "⎵" | "⏜" | "⏝")
}

/// Classes that one character may be used as without saying so.
const fn same(known: Class, class: Class) -> bool {
    matches!((known, class), (Class::Ordinary, Class::Open | Class::Close) | (Class::Open | Class::Close, Class::Ordinary))
}

const fn class_name(class: Class) -> &'static str {
    match class {
        Class::Ordinary => "mathord",
        Class::Large | Class::Integral => "mathop",
        Class::Binary => "mathbin",
        Class::Relation => "mathrel",
        Class::Open => "mathopen",
        Class::Close => "mathclose",
        Class::Punctuation => "mathpunct",
    }
}

const fn size_name(size: Size) -> &'static str {
    match size {
        Size::Display => "displaystyle",
        Size::Text => "textstyle",
        Size::Script => "scriptstyle",
        Size::ScriptScript => "scriptscriptstyle",
    }
}

/// Letters in an alphabet; those that are bold as well have a command for each.
fn set_in(variant: Variant, letters: &str) -> String {
    let plain = match variant {
        Variant::BoldScript => Variant::Script,
        Variant::BoldFraktur => Variant::Fraktur,
        Variant::BoldSansSerif => Variant::SansSerif,
        _ => return format!("\\{}{{{letters}}}", alphabet(variant)),
    };
    format!("\\boldsymbol{{\\{}{{{letters}}}}}", alphabet(plain))
}

fn alphabet(variant: Variant) -> &'static str {
    match variant {
        Variant::Usual => "mathnormal",
        Variant::SansSerifItalic => "mathsf",
        _ => table::ALPHABETS.iter().find(|(_, known)| *known == variant).map_or("mathrm", |(name, _)| name),
    }
}

/// A relation with a slash through it.
fn negated(text: &str) -> Option<String> {
    let (plain, _) = table::NEGATIONS.iter().find(|(_, negated)| *negated == text)?;
    let known = table::command_for(plain).map(|(name, _)| format!("\\{name}"));
    Some(format!("\\not{}", known.unwrap_or_else(|| (*plain).to_owned())))
}

fn escaped(text: &str) -> String {
    let mut out = String::new();
    for c in text.chars() {
        if matches!(c, '%' | '#' | '$' | '&' | '_' | '{' | '}') {
            out.push('\\');
        }
        out.push(c);
    }
    out
}

/// Words within a formula.
fn text_of(text: &str) -> String {
    let mut out = String::new();
    for c in text.chars() {
        match c {
            '\u{A0}' => out.push('~'),
            '\\' => out.push_str("\\textbackslash "),
            '^' => out.push_str("\\^{}"),
            '~' => out.push_str("\\~{}"),
            '“' => out.push_str("``"),
            '”' => out.push_str("''"),
            '’' => out.push('\''),
            '–' => out.push_str("--"),
            '—' => out.push_str("---"),
            c => out.push_str(&escaped(c.encode_utf8(&mut [0; 4]))),
        }
    }
    out
}

/// A color as an argument.
fn color_of(color: &str) -> String {
    match color.strip_prefix('#') {
        Some(digits) => format!("[HTML]{{{}}}", digits.to_uppercase()),
        None => format!("{{{color}}}"),
    }
}
