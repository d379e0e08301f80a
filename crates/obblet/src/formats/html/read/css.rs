//! What style rules mean: bold, italic and their like, alignment, kinds of lists, text that is not shown.
//!
//! Which elements rules speak of is found in [`style_rules`](super::style_rules).

use super::element_state::ParseState;
use super::style_rules::{Declaration, Page, Sheet, Wanted, declarations};
use crate::document::{Align, Document, Marker, NodeId};
use crate::fast_hash::HashMap;
use html5ever::{LocalName, QualName};
use smallvec::SmallVec;

bitflags::bitflags! {
    /// What style rules of programs say an element is.
    #[derive(Clone, Copy, Debug, Default, PartialEq, Eq, Hash)]
    pub(super) struct StyleMarks: u8 {
        /// A page begins before or behind it.
        const PAGE_BREAK = 1 << 0;
        /// It is the marker of an item of an office program.
        const MARKER = 1 << 1;
        /// It is what a reviewer remarked, or leads there.
        const REMARK = 1 << 2;
        /// It is a tab, as spaces.
        const TAB = 1 << 3;
    }
}

/// What style rules say of a node, as far as it means something.
#[derive(Clone, Copy, Debug, Default, PartialEq)]
pub(super) struct ComputedStyle {
    pub(super) bold: Option<bool>,
    pub(super) italic: Option<bool>,
    pub(super) underline: Option<bool>,
    pub(super) strike: Option<bool>,
    pub(super) raised: Option<Raised>,
    pub(super) mono: Option<bool>,
    pub(super) align: Option<Align>,
    pub(super) hidden: Option<bool>,
    pub(super) list: Option<(bool, Marker)>,
    pub(super) marks: StyleMarks,
    /// Size of letters in points.
    pub(super) size: Option<f32>,
    /// The list of an office program, and how deep in it from 1.
    pub(super) item: Option<(u32, u8)>,
    /// How far it is set in, and its first line beyond that, in points.
    pub(super) indent: Option<f32>,
    pub(super) first_line: Option<f32>,
}

/// What rules take back from what is set above.
#[derive(Clone, Copy, Debug, Default, PartialEq, Eq)]
pub(super) struct TakenBack {
    pub(super) bold: bool,
    pub(super) italic: bool,
}

/// Whether text stands above or below the line.
#[derive(Clone, Copy, Debug, PartialEq, Eq)]
pub(super) enum Raised {
    Not,
    Above,
    Below,
}

/// Whether a declaration says something that is followed here.
fn is_followed(declaration: &Declaration) -> bool {
    let mut look = ComputedStyle::default();
    look.set(&declaration.name, &declaration.value);
    // No list takes a list back.
    look != ComputedStyle::default() || declaration.name == "mso-list"
}

/// Finds what the rules of a page say of its nodes.
pub(super) fn looks(doc: &Document, state: &ParseState, names: &[(NodeId, QualName)]) -> ComputedStyles {
    let mut sheet = Sheet::new(Wanted { keeps: is_followed, conditions: false });
    for &element in &state.style_elements {
        sheet.add(&doc.plain_text(element));
    }
    let mut looks = ComputedStyles::default();
    if sheet.rules.is_empty() {
        for selector_input in &state.selector_inputs {
            if let Some(style) = &selector_input.style {
                looks.insert(selector_input.node, of_attribute(style));
            }
        }
        return looks;
    }
    let page = Page::of(doc, state, names);
    let mut known = Known::default();
    for (node, name) in names {
        looks.insert(*node, sheet.look(&page, *node, &name.local, &mut known));
    }
    looks
}

/// What the rules say of elements of a name with the same classes. Nearly all elements of a page are like one that came before.
type Known = HashMap<LocalName, HashMap<String, Alike>>;

/// What the rules say of elements that are alike.
#[derive(Debug)]
struct Alike {
    /// The rules that speak of them or may, the strongest last.
    rules: Vec<usize>,
    /// What they say together, where none looks at what stands around an element.
    look: Option<ComputedStyle>,
}

impl Sheet {
    fn look(&self, page: &Page<'_>, node: NodeId, tag: &LocalName, known: &mut Known) -> ComputedStyle {
        let classes = page.classes(node);
        let style = page.style(node);
        let id = Some(page.id(node)).filter(|id| !id.is_empty() && !self.by_id.is_empty());
        let by_id = id.and_then(|id| self.by_id.get(id));
        let of_name = match known.get_mut(tag) {
            Some(of_name) => of_name,
            None => known.entry(tag.clone()).or_default(),
        };
        let alike = match of_name.get(classes) {
            Some(alike) => alike,
            None => {
                let alike = self.alike(page, node, tag);
                of_name.entry(classes.to_owned()).or_insert(alike)
            }
        };
        if by_id.is_none()
            && let Some(mut look) = alike.look
        {
            if let Some(style) = style {
                look.add(style);
            }
            return look;
        }
        let rules = self.rules_of(page, node, &alike.rules);
        let own = style.map(declarations).unwrap_or_default();
        let all = || rules.iter().flat_map(|&rule| &self.bodies[self.rules[rule].body]).chain(&own);
        let mut look = ComputedStyle::default();
        for important in [false, true] {
            for declaration in all().filter(|declaration| declaration.important == important) {
                look.set(&declaration.name, &declaration.value);
            }
        }
        look
    }

    /// What the rules say of all elements that have the name and the classes of this one.
    fn alike(&self, page: &Page<'_>, node: NodeId, tag: &LocalName) -> Alike {
        let rules = self.rules_of_alike(page, node, tag);
        let looks_around = |&rule: &usize| {
            let rule = &self.rules[rule];
            !rule.is_of_one() || self.bodies[rule.body].iter().any(|declaration| declaration.important)
        };
        let look = (!rules.iter().any(looks_around)).then(|| {
            let mut look = ComputedStyle::default();
            for declaration in rules.iter().flat_map(|&rule| &self.bodies[self.rules[rule].body]) {
                look.set(&declaration.name, &declaration.value);
            }
            look
        });
        Alike { rules, look }
    }
}

/// What a style attribute says.
pub(super) fn of_attribute(style: &str) -> ComputedStyle {
    let mut look = ComputedStyle::default();
    look.add(style);
    look
}

/// What the rules of a page say of its nodes.
#[derive(Debug, Default)]
pub(super) struct ComputedStyles {
    /// For each node, the place of its look, from 1.
    places: Vec<u32>,
    looks: Vec<ComputedStyle>,
}

impl ComputedStyles {
    fn insert(&mut self, node: NodeId, look: ComputedStyle) {
        if look == ComputedStyle::default() {
            return;
        }
        if self.places.len() <= node.index() {
            self.places.resize(node.index() + 1, 0);
        }
        self.looks.push(look);
        self.places[node.index()] = self.looks.len() as u32;
    }

    /// What they say of a node, if they say something.
    #[inline]
    pub(super) fn get(&self, node: NodeId) -> Option<ComputedStyle> {
        let place = *self.places.get(node.index())?;
        self.looks.get((place as usize).wrapping_sub(1)).copied()
    }
}

/// The alignment of a name.
pub(super) fn align(value: &str) -> Align {
    match value.trim().to_ascii_lowercase().as_str() {
        "left" | "start" => Align::Left,
        "center" | "middle" => Align::Center,
        "right" | "end" => Align::Right,
        "justify" => Align::Justify,
        _ => Align::Unsaid,
    }
}

/// The marker that the attribute `type` of a list names.
pub(super) fn marker_of_type(kind: &str) -> Marker {
    match kind.trim() {
        "a" => Marker::LowerAlpha,
        "A" => Marker::UpperAlpha,
        "i" => Marker::LowerRoman,
        "I" => Marker::UpperRoman,
        _ => Marker::Plain,
    }
}

impl ComputedStyle {
    /// Adds what a style attribute says.
    fn add(&mut self, style: &str) {
        // Most hold names and words, and nothing that takes a parser.
        let plain = |byte: u8| !matches!(byte, b'\'' | b'"' | b'(' | b'\\' | b'/' | b'{' | b'!' | b'A'..=b'Z');
        if style.bytes().all(plain) {
            for (name, value) in style.split(';').filter_map(|declaration| declaration.split_once(':')) {
                self.set(name.trim(), value);
            }
            return;
        }
        for declaration in declarations(style) {
            self.set(&declaration.name, &declaration.value);
        }
    }

    fn set(&mut self, name: &str, value: &str) {
        let value = value.trim();
        match name {
            "font-weight" => {
                let heavy = value.parse::<f32>().map(|weight| weight >= 600.0);
                self.bold = match value {
                    "bold" | "bolder" => Some(true),
                    "normal" | "lighter" => Some(false),
                    _ => heavy.ok().or(self.bold),
                };
            }
            "font-style" => match value {
                "italic" => self.italic = Some(true),
                value if value.starts_with("oblique") => self.italic = Some(true),
                "normal" => self.italic = Some(false),
                _ => {}
            },
            "text-decoration" | "text-decoration-line" => {
                self.underline = Some(value.contains("underline"));
                self.strike = Some(value.contains("line-through"));
            }
            "vertical-align" => match value {
                "super" => self.raised = Some(Raised::Above),
                "sub" => self.raised = Some(Raised::Below),
                "baseline" => self.raised = Some(Raised::Not),
                _ => {}
            },
            "font-family" => self.mono = Some(is_mono(value)),
            "font" => {
                let mut words = value.split_ascii_whitespace();
                self.bold = Some(words.clone().any(|word| word == "bold"));
                self.italic = Some(words.clone().any(|word| word == "italic"));
                if let Some(size) = words.find_map(|word| points(word.split('/').next().unwrap_or(word))) {
                    self.size = Some(size);
                }
                self.mono = Some(is_mono(value));
            }
            "font-size" => self.size = points(value).or(self.size),
            "text-align" => self.align = Some(align(value)).filter(|align| *align != Align::Unsaid).or(self.align),
            "display" => self.hidden = Some(value == "none"),
            "visibility" => self.hidden = Some(matches!(value, "hidden" | "collapse")),
            "mso-hide" => self.hidden = Some(value == "all"),
            "list-style-type" | "list-style" => {
                self.list = value.split_ascii_whitespace().find_map(list_style).or(self.list);
            }
            "margin-left" | "padding-left" => self.indent = points(value).or(self.indent),
            "margin" => {
                let sides: SmallVec<[&str; 4]> = value.split_ascii_whitespace().collect();
                let left = sides.get(3).or_else(|| sides.get(1)).or_else(|| sides.first());
                self.indent = left.and_then(|left| points(left)).or(self.indent);
            }
            "text-indent" => self.first_line = points(value).or(self.first_line),
            "mso-list" if value == "ignore" || value == "Ignore" => self.marks.insert(StyleMarks::MARKER),
            "mso-list" => self.item = office_item(value),
            "mso-element" if value == "comment-list" => self.marks.insert(StyleMarks::REMARK),
            "mso-comment-reference" => self.marks.insert(StyleMarks::REMARK),
            "mso-tab-count" => self.marks.insert(StyleMarks::TAB),
            "page-break-before" | "page-break-after" | "break-before" | "break-after" => {
                if matches!(value, "always" | "page" | "left" | "right") {
                    self.marks.insert(StyleMarks::PAGE_BREAK);
                }
            }
            _ => {}
        }
    }
}

/// A list of an office program and a level of it, as in `l0 level2 lfo1`: the definition, the level, and the list that goes
/// by the definition.
fn office_item(value: &str) -> Option<(u32, u8)> {
    let mut words = value.split_ascii_whitespace();
    let definition: u32 = words.next()?.strip_prefix('l')?.parse().ok()?;
    let level = words.next()?.strip_prefix("level")?.parse().ok()?;
    let list: u32 = words.next().and_then(|word| word.strip_prefix("lfo")).and_then(|list| list.parse().ok()).unwrap_or(0);
    Some((definition.wrapping_mul(1000).wrapping_add(list), level))
}

/// Whether a kind of list has numbers, and which.
pub(super) fn list_style(value: &str) -> Option<(bool, Marker)> {
    Some(match value {
        "disc" | "circle" | "square" => (false, Marker::Plain),
        "decimal" | "decimal-leading-zero" => (true, Marker::Plain),
        "lower-alpha" | "lower-latin" => (true, Marker::LowerAlpha),
        "upper-alpha" | "upper-latin" => (true, Marker::UpperAlpha),
        "lower-roman" => (true, Marker::LowerRoman),
        "upper-roman" => (true, Marker::UpperRoman),
        _ => return None,
    })
}

/// Whether the first font of a list has letters of one width.
fn is_mono(families: &str) -> bool {
    // Names have been put in lower case with the rest of the rule.
    let first = families.split(',').next().unwrap_or_default();
    let first = first.trim_matches(|c: char| c.is_ascii_whitespace() || matches!(c, '"' | '\''));
    let starts = ["courier", "consolas", "menlo", "fixedsys", "terminal", "lucida console"];
    starts.iter().any(|name| first.starts_with(name)) || first.contains("mono") || first.contains("typewriter")
}

/// A length in points.
fn points(value: &str) -> Option<f32> {
    let keyword = match value {
        "x-large" => Some(18.0),
        "xx-large" => Some(24.0),
        "large" => Some(13.5),
        "medium" => Some(12.0),
        "small" | "x-small" | "xx-small" => Some(9.0),
        _ => None,
    };
    let unit = value.trim_start_matches(|c: char| c.is_ascii_digit() || matches!(c, '.' | '-' | '+'));
    let number = || value[..value.len() - unit.len()].parse::<f32>().ok();
    keyword.or_else(|| {
        let factor = match unit {
            "pt" => 1.0,
            "px" => 0.75,
            "in" => 72.0,
            "cm" => 28.35,
            "mm" => 2.835,
            "pc" => 12.0,
            "em" | "rem" => 12.0,
            "%" => 0.12,
            _ => return None,
        };
        Some(number()? * factor)
    })
}
