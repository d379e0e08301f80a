//! Formulas in MathML: kept where they are valid as MathML Core and MathML 3 say, made valid where little is missing.

use super::element_state::{Origin, ParseState};
use super::foreign_markup::{element, escape};
use crate::document::{Document, Kind, NodeId, Step};

/// What an element of a formula holds.
#[derive(Clone, Copy, Debug, PartialEq, Eq)]
enum Content {
    /// Text, and no element.
    Text,
    /// Nothing.
    Nothing,
    /// Any elements of a line.
    Any,
    /// So many of them.
    Count(usize),
    /// Rows of a table.
    Rows,
    /// Cells of a table.
    Cells,
}

/// Elements that show something, and what they hold (MathML 3, sections 3.1.3 and 3.2 to 3.5).
const ELEMENTS: [(&str, Content); 30] = [
    ("math", Content::Any),
    ("mrow", Content::Any),
    ("mi", Content::Text),
    ("mn", Content::Text),
    ("mo", Content::Text),
    ("ms", Content::Text),
    ("mtext", Content::Text),
    ("mspace", Content::Nothing),
    ("mfrac", Content::Count(2)),
    ("msqrt", Content::Any),
    ("mroot", Content::Count(2)),
    ("mstyle", Content::Any),
    ("merror", Content::Any),
    ("mpadded", Content::Any),
    ("mphantom", Content::Any),
    ("msub", Content::Count(2)),
    ("msup", Content::Count(2)),
    ("msubsup", Content::Count(3)),
    ("munder", Content::Count(2)),
    ("mover", Content::Count(2)),
    ("munderover", Content::Count(3)),
    ("mtable", Content::Rows),
    ("mtr", Content::Cells),
    ("mtd", Content::Any),
    ("mfenced", Content::Any),
    ("menclose", Content::Any),
    ("semantics", Content::Count(1)),
    ("mmultiscripts", Content::Any),
    ("mprescripts", Content::Nothing),
    ("none", Content::Nothing),
];

/// What the value of an attribute may be.
#[derive(Clone, Copy, Debug, PartialEq, Eq)]
enum Value {
    Flag,
    Number,
    Length,
    Lengths,
    /// One of these.
    Word(&'static [&'static str]),
    /// Some of these.
    Words(&'static [&'static str]),
}

const VARIANTS: &[&str] = &[
    "normal",
    "bold",
    "italic",
    "bold-italic",
    "double-struck",
    "bold-fraktur",
    "script",
    "bold-script",
    "fraktur",
    "sans-serif",
    "bold-sans-serif",
    "sans-serif-italic",
    "sans-serif-bold-italic",
    "monospace",
    "initial",
    "tailed",
    "looped",
    "stretched",
];

/// Attributes that neither load nor run anything, and their values (MathML 3, sections 2.1.5, 3.1.6 and 3.2 to 3.5).
const ATTRIBUTES: [(&str, Value); 24] = [
    ("display", Value::Word(&["block", "inline"])),
    ("mathvariant", Value::Word(VARIANTS)),
    ("stretchy", Value::Flag),
    ("fence", Value::Flag),
    ("separator", Value::Flag),
    ("accent", Value::Flag),
    ("accentunder", Value::Flag),
    ("displaystyle", Value::Flag),
    ("scriptlevel", Value::Number),
    ("form", Value::Word(&["prefix", "infix", "postfix"])),
    ("lspace", Value::Length),
    ("rspace", Value::Length),
    ("minsize", Value::Length),
    ("maxsize", Value::Length),
    ("movablelimits", Value::Flag),
    ("symmetric", Value::Flag),
    ("width", Value::Length),
    ("height", Value::Length),
    ("depth", Value::Length),
    ("columnalign", Value::Words(&["left", "center", "right"])),
    ("rowspacing", Value::Lengths),
    ("linethickness", Value::Length),
    // What the writer says of tables and alphabets.
    ("class", Value::Word(CLASSES)),
    ("style", Value::Word(&["text-align: left", "text-align: center", "text-align: right", "text-align: -webkit-right"])),
];

const CLASSES: &[&str] =
    &["equations", "equation-number", "tagged", "lines", "ruled", "bold", "italic", "sans", "mono", "overlined", "underlined"];

/// A formula as clean markup, or nothing where its parts are not what they must be. Text that stands where only elements may is
/// put into one.
pub(super) fn formula(doc: &Document, id: NodeId, state: &ParseState) -> Option<String> {
    let mut out = String::new();
    let mut open: Vec<Open> = Vec::new();
    let mut walk = doc.walk(id);
    while let Some(step) = walk.next() {
        match step {
            Step::Enter(id) => match doc.kind(id) {
                Kind::Text(text) => {
                    let text = doc.text(text);
                    let bare = open.last_mut().filter(|open| open.content != Content::Text);
                    match bare {
                        Some(_) if text.trim().is_empty() => out.push(' '),
                        Some(parent) => {
                            parent.add("mtext")?;
                            out.push_str("<mtext>");
                            escape(&mut out, text.trim());
                            out.push_str("</mtext>");
                        }
                        None => escape(&mut out, text),
                    }
                }
                _ if state.origin(id) == Origin::Foreign => {
                    let name = element(state, id);
                    if is_annotation(name) {
                        walk.skip_children(id);
                        continue;
                    }
                    let &(name, content) = ELEMENTS.iter().find(|(known, _)| *known == name)?;
                    match open.last_mut() {
                        Some(parent) => parent.add(name)?,
                        None if name != "math" => return None,
                        None => {}
                    }
                    open.push(Open { content, children: 0 });
                    start_tag(&mut out, name, id, state);
                }
                // Elements of HTML within a formula: their text.
                _ => {}
            },
            Step::Leave(id) if state.origin(id) == Origin::Foreign && !is_annotation(element(state, id)) => {
                if !open.pop()?.is_whole() {
                    return None;
                }
                out.push_str("</");
                out.push_str(element(state, id));
                out.push('>');
            }
            Step::Leave(_) => {}
        }
    }
    Some(out.split_ascii_whitespace().collect::<Vec<_>>().join(" "))
}

/// An element that is being written.
struct Open {
    content: Content,
    children: usize,
}

impl Open {
    /// Adds a child; nothing comes of it where it may not stand here.
    fn add(&mut self, name: &str) -> Option<()> {
        self.children += 1;
        let may_stand = match self.content {
            // What programs put into a token is its text.
            Content::Text => true,
            Content::Nothing => false,
            Content::Rows => name == "mtr",
            Content::Cells => name == "mtd",
            Content::Any | Content::Count(_) => !matches!(name, "math" | "mtr" | "mtd"),
        };
        may_stand.then_some(())
    }

    fn is_whole(&self) -> bool {
        !matches!(self.content, Content::Count(count) if count != self.children)
    }
}

fn is_annotation(name: &str) -> bool {
    matches!(name, "annotation" | "annotation-xml")
}

fn start_tag(out: &mut String, name: &str, id: NodeId, state: &ParseState) {
    out.push('<');
    out.push_str(name);
    for attribute in state.foreign.get(&id).into_iter().flat_map(|(_, attributes)| attributes) {
        let name = &*attribute.name.local;
        let is_valid = ATTRIBUTES.iter().any(|(known, value)| *known == name && value.holds(&attribute.value));
        if is_valid {
            out.push(' ');
            out.push_str(name);
            out.push_str("=\"");
            escape(out, &attribute.value);
            out.push('"');
        }
    }
    out.push('>');
}

impl Value {
    fn holds(self, text: &str) -> bool {
        let mut words = text.split_ascii_whitespace();
        match self {
            Self::Flag => matches!(text, "true" | "false"),
            Self::Number => {
                let digits = text.strip_prefix(['+', '-']).unwrap_or(text);
                !digits.is_empty() && digits.len() < 4 && digits.bytes().all(|byte| byte.is_ascii_digit())
            }
            Self::Length => is_length(text),
            Self::Lengths => !text.is_empty() && words.all(is_length),
            Self::Word(known) => known.contains(&text),
            Self::Words(known) => !text.is_empty() && words.all(|word| known.contains(&word)),
        }
    }
}

/// Whether a text is a length (MathML 3, section 2.1.5.2).
fn is_length(text: &str) -> bool {
    if let Some(named) = text.strip_suffix("mathspace") {
        let named = named.strip_prefix("negative").unwrap_or(named);
        let size = named.trim_start_matches("very");
        return named.len() - size.len() <= 8 && matches!(size, "thin" | "medium" | "thick");
    }
    let number = text.strip_prefix(['+', '-']).unwrap_or(text);
    let end = number.find(|c: char| !c.is_ascii_digit() && c != '.').unwrap_or(number.len());
    let (number, unit) = number.split_at(end);
    number.bytes().any(|byte| byte.is_ascii_digit())
        && number.matches('.').count() < 2
        && !number.ends_with('.')
        && matches!(unit, "" | "%" | "em" | "ex" | "px" | "in" | "cm" | "mm" | "pt" | "pc")
}
