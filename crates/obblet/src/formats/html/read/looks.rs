//! What a page looks like, as styles of the document: rules for names and classes become named styles, and what is set at single
//! places becomes classes of those places. What elements say already is left out.

use super::css_values::{Declared, Sizes, USUAL_SIZE, font_size, size_of_font};
use super::element_state::ParseState;
use super::style_rules::{Declaration, Page, Sheet, Wanted, declarations};
use super::vendor_markup;
use crate::document::{
    Document, Kind, NamedStyle, NodeId, Producer, Property, Section, Step, StyleDefinition, StyleProperties, StyleUse, Underline,
    Value,
};
use crate::fast_hash::{HashMap, HashSet};
use html5ever::{LocalName, QualName};
use smallvec::SmallVec;
use std::borrow::Cow;
use std::rc::Rc;

/// What is set at so many places is a style.
const REPEATED: u32 = 3;
/// Values with properties of the page's own get no longer than this.
const LONGEST_VALUE: usize = 4096;
/// A value holds no more properties of the page's own than this.
const MOST_VARIABLES: u32 = 200;
/// Properties of the page's own stand in each other no deeper than this.
const DEEPEST_VARIABLE: u8 = 16;

/// Properties of the page's own, by their names: those of an element, and those of the elements around it.
#[derive(Debug, Default)]
struct Variables {
    own: HashMap<String, String>,
    around: Option<Rc<Variables>>,
}

impl Variables {
    fn get(&self, name: &str) -> Option<&str> {
        let mut at = Some(self);
        while let Some(variables) = at {
            if let Some(value) = variables.own.get(name) {
                return Some(value);
            }
            at = variables.around.as_deref();
        }
        None
    }
}

/// What an element hands down to those in it.
#[derive(Clone, Debug)]
struct HandedDown {
    /// The size of letters, in twips.
    size: f64,
    variables: Rc<Variables>,
}

/// Elements that are alike: by name, rules, what older attributes and the style attribute declare, and what they are handed down.
type Likeness = (LocalName, SmallVec<[usize; 16]>, [Option<Box<str>>; 2], usize);

/// A set of properties that no name stands for.
#[derive(Debug)]
struct Nameless {
    properties: StyleProperties,
    purpose: Purpose,
    /// The style of the name of the element, where it has that, too.
    of_name: Option<Rc<StyleProperties>>,
    class: String,
    count: u32,
    /// Whether it may become a style: no class has another one there.
    is_alone: bool,
}

/// What sets of properties are for; their classes begin with it.
#[derive(Clone, Copy, Debug, PartialEq, Eq, Hash)]
enum Purpose {
    Text,
    Paragraph,
    Cell,
    Table,
    Picture,
    Other,
}

impl Purpose {
    const fn of(kind: Kind) -> Self {
        match kind {
            Kind::Image { .. } => Self::Picture,
            Kind::Cell(_) => Self::Cell,
            Kind::Table => Self::Table,
            Kind::Paragraph | Kind::Heading(_) | Kind::Caption | Kind::Term | Kind::Preformatted | Kind::Summary => {
                Self::Paragraph
            }
            kind if kind.is_inline() => Self::Text,
            _ => Self::Other,
        }
    }

    const fn class(self) -> &'static str {
        match self {
            Self::Text => "t",
            Self::Paragraph => "p",
            Self::Cell => "cell",
            Self::Table => "table",
            Self::Picture => "picture",
            Self::Other => "part",
        }
    }
}

/// The looks of a page.
struct Looks<'p> {
    page: Page<'p>,
    sheet: &'p Sheet,
    handed: Vec<HandedDown>,
    /// The size of letters of the page, in twips.
    root: f64,
    alike: HashMap<LocalName, HashMap<String, Rc<[usize]>>>,
    outcomes: HashMap<Likeness, (Rc<Declared>, usize)>,
    /// The styles of classes and names of elements, which may be empty.
    of_class: HashMap<String, (Rc<StyleProperties>, StyleUse)>,
    of_name: HashMap<LocalName, Rc<StyleProperties>>,
    nameless: Vec<Nameless>,
    places: HashMap<(Purpose, StyleProperties, bool), usize>,
    taken: HashSet<String>,
    /// How many classes were made for a purpose.
    counts: HashMap<Purpose, u32>,
    /// Classes to give to nodes.
    given: Vec<(NodeId, Given)>,
    page_properties: StyleProperties,
    /// What the page hands down to all in it.
    of_page: HandedDown,
    by_program: bool,
    /// Whether the next block begins a page.
    breaks: bool,
}

/// The classes that a node gets.
#[derive(Clone, Copy, Debug)]
struct Given {
    /// That of its name.
    class: Option<&'static str>,
    /// The place of what it sets beyond that.
    nameless: Option<usize>,
}

/// Built-in styles that rules for names of elements define: the name of the style, its class, and what it is for.
fn built_in(tag: &str) -> Option<(&'static str, &'static str, StyleUse)> {
    use StyleUse::{Character, Paragraph};
    Some(match tag {
        "h1" => ("heading 1", "heading-1", Paragraph),
        "h2" => ("heading 2", "heading-2", Paragraph),
        "h3" => ("heading 3", "heading-3", Paragraph),
        "h4" => ("heading 4", "heading-4", Paragraph),
        "h5" => ("heading 5", "heading-5", Paragraph),
        "h6" => ("heading 6", "heading-6", Paragraph),
        "p" => ("Body Text", "body-text", Paragraph),
        "pre" => ("HTML Preformatted", "html-preformatted", Paragraph),
        "figcaption" | "caption" => ("caption", "caption", Paragraph),
        "a" => ("Hyperlink", "hyperlink", Character),
        "code" => ("HTML Code", "html-code", Character),
        "kbd" => ("HTML Keyboard", "html-keyboard", Character),
        "samp" => ("HTML Sample", "html-sample", Character),
        "var" => ("HTML Variable", "html-variable", Character),
        "cite" => ("HTML Cite", "html-cite", Character),
        "dfn" => ("HTML Definition", "html-definition", Character),
        "abbr" => ("HTML Acronym", "html-acronym", Character),
        _ => return None,
    })
}

/// Whether a declaration may say something of how a document looks.
fn is_wanted(declaration: &Declaration) -> bool {
    const BEGINNINGS: [&str; 10] =
        ["--", "background", "border", "break-", "column", "font", "margin", "padding", "page-break", "text-"];
    const OTHERS: [&str; 15] = [
        "block-size",
        "clear",
        "color",
        "direction",
        "float",
        "height",
        "inline-size",
        "letter-spacing",
        "line-height",
        "list-style",
        "list-style-type",
        "max-width",
        "vertical-align",
        "white-space",
        "width",
    ];
    let name = declaration.name.as_str();
    BEGINNINGS.iter().any(|beginning| name.starts_with(beginning)) || OTHERS.contains(&name)
}

/// Finds what a page looks like.
pub(super) fn read(doc: &Document, top: NodeId, state: &ParseState, names: &[(NodeId, QualName)]) -> Found {
    let mut sheet = Sheet::new(Wanted { keeps: is_wanted, conditions: true });
    for &element in &state.style_elements {
        sheet.add(&doc.plain_text(element));
    }
    let usual = HandedDown { size: USUAL_SIZE, variables: Rc::default() };
    let mut looks = Looks {
        page: Page::whole(doc, state, names),
        sheet: &sheet,
        handed: vec![usual.clone()],
        root: USUAL_SIZE,
        alike: HashMap::default(),
        outcomes: HashMap::default(),
        counts: HashMap::default(),
        of_class: HashMap::default(),
        of_name: HashMap::default(),
        nameless: Vec::new(),
        places: HashMap::default(),
        taken: HashSet::default(),
        given: Vec::new(),
        page_properties: Vec::new(),
        of_page: usual.clone(),
        by_program: doc.layout_hints.producer == Producer::Program,
        breaks: false,
    };
    for input in &state.selector_inputs {
        looks.taken.extend(input.classes.iter().flat_map(|classes| classes.split_ascii_whitespace()).map(str::to_owned));
    }
    looks.walk(top);
    Found::of(looks, section(&sheet))
}

impl<'p> Looks<'p> {
    fn walk(&mut self, top: NodeId) {
        let doc = self.page.doc;
        let mut above: Vec<usize> = vec![0];
        for step in doc.walk(top) {
            match step {
                Step::Enter(node) => {
                    let handed = above.last().copied().unwrap_or(0);
                    let own = match self.page.tag(node).cloned() {
                        Some(tag) => self.element(node, &tag, handed),
                        None => handed,
                    };
                    above.push(own);
                }
                Step::Leave(node) => {
                    above.pop();
                    if self.page.tag(node).is_some() {
                        self.leave(node);
                    }
                }
            }
        }
    }

    /// Finds what an element looks like, and returns what it hands down.
    fn element(&mut self, node: NodeId, tag: &LocalName, handed: usize) -> usize {
        let input = self.page.selector_input(node);
        let kind = self.page.doc.kind(node);
        let breaks = self.breaks && matches!(kind, Kind::Paragraph | Kind::Heading(_) | Kind::Table | Kind::Preformatted);
        let is_plain =
            input.is_none_or(|input| input.hints.is_none() && input.style.is_none()) && !breaks && usual_size(tag) == 1.0;
        if is_plain && self.sheet.rules.is_empty() {
            return handed;
        }
        let own = [input.and_then(|input| input.hints.clone()), input.and_then(|input| input.style.as_deref()).map(Into::into)];
        let alike = self.rules_of_alike(node, tag);
        let rules = self.sheet.rules_of(&self.page, node, &alike);
        if is_plain && rules.is_empty() {
            return handed;
        }
        let key: Likeness = (tag.clone(), rules, own, handed);
        let (declared, down) = match self.outcomes.get(&key) {
            Some(known) => known.clone(),
            None => {
                let outcome = self.outcome(&key);
                self.outcomes.insert(key.clone(), outcome.clone());
                outcome
            }
        };
        if matches!(&**tag, "html" | "body") {
            // What the page sets, its text has.
            self.page_properties.retain(|(known, _)| !declared.properties.iter().any(|(own, _)| own == known));
            let usual = Value::Keyword("normal");
            let is_said = |(_, value): &&(Property, Value)| *value != usual;
            self.page_properties.extend(declared.properties.iter().filter(is_said).cloned());
            return down;
        }
        let mut properties = declared.properties.clone();
        if breaks {
            self.breaks = false;
            properties.retain(|(property, _)| *property != Property::BreakBefore);
            properties.push((Property::BreakBefore, Value::Keyword("page")));
        }
        if kind == Kind::LineBreak {
            self.breaks |= declared.breaks_behind || properties.iter().any(|(property, _)| *property == Property::BreakBefore);
        } else {
            self.give(node, tag, kind, properties, &key.1);
        }
        down
    }

    /// The rules that may speak of all elements with the name and the classes of one.
    fn rules_of_alike(&mut self, node: NodeId, tag: &LocalName) -> Rc<[usize]> {
        let classes = self.page.classes(node);
        let of_name = self.alike.entry(tag.clone()).or_default();
        if let Some(known) = of_name.get(classes) {
            return known.clone();
        }
        let rules: Rc<[usize]> = self.sheet.rules_of_alike(&self.page, node, tag).into();
        of_name.insert(classes.to_owned(), rules.clone());
        rules
    }

    fn leave(&mut self, node: NodeId) {
        let Some(style) = self.page.style(node) else { return };
        if style.contains("break-after") {
            let mut declared = Declared::default();
            for declaration in declarations(style) {
                declared.set(&declaration.name, &declaration.value, Sizes { font: USUAL_SIZE, root: USUAL_SIZE });
            }
            self.breaks |= declared.breaks_behind;
        }
    }

    /// What the declarations of elements that are alike come to.
    fn outcome(&mut self, key: &Likeness) -> (Rc<Declared>, usize) {
        let (tag, rules, own, handed) = key;
        let above = self.handed[*handed].clone();
        let [hints, style] = own.each_ref().map(|own| own.as_deref().map(declarations).unwrap_or_default());
        let of_rules = rules.iter().flat_map(|&rule| &self.sheet.bodies[self.sheet.rules[rule].body]);
        let all: Vec<&Declaration> = hints.iter().chain(of_rules).chain(&style).collect();
        let (declared, down) = cascade(&all, tag, &above, self.root);
        let is_page = matches!(&**tag, "html" | "body");
        if &**tag == "html" {
            self.root = down.size;
        }
        if is_page {
            self.of_page = down.clone();
        }
        let is_same = down.size == above.size && Rc::ptr_eq(&down.variables, &above.variables);
        let place = if is_same {
            *handed
        } else {
            self.handed.push(down);
            self.handed.len() - 1
        };
        (Rc::new(declared), place)
    }

    /// What rules come to that ask for nothing but such a class, or with an empty one for nothing but a name.
    fn of_rules(&self, tag: &LocalName, rules: &[usize], asks: impl Fn(&str) -> bool) -> StyleProperties {
        let of_it = rules.iter().map(|&rule| &self.sheet.rules[rule]).filter(|rule| rule.class().is_some_and(&asks));
        let all: Vec<&Declaration> = of_it.flat_map(|rule| &self.sheet.bodies[rule.body]).collect();
        cascade(&all, tag, &self.of_page, self.of_page.size).0.properties
    }

    /// Gives a node the classes of its looks: those of one style, and of what it has beyond that.
    fn give(&mut self, node: NodeId, tag: &LocalName, kind: Kind, mut properties: StyleProperties, rules: &[usize]) {
        if kind.is_leaf() && !matches!(kind, Kind::Image { .. }) {
            return;
        }
        leave_out_said(&mut properties, kind);
        // Word processors know these by styles of theirs.
        let has_own = matches!(kind, Kind::Heading(_) | Kind::Term | Kind::Summary | Kind::Preformatted);
        let of_class = if has_own { None } else { self.style_of_class(node, tag, kind, rules) };
        // A paragraph or a piece of text has one style.
        let is_alone = of_class.is_none() && matches!(kind, Kind::Paragraph | Kind::Span);
        let of_name = if of_class.is_some() { None } else { self.style_of_name(tag, kind, rules) };
        if let Some(style) = of_class.as_ref().or(of_name.as_ref().map(|(_, style)| style)) {
            properties.retain(|own| !style.contains(own));
        }
        let class = of_name.as_ref().map(|(class, _)| *class);
        let nameless = (!properties.is_empty()).then(|| {
            self.nameless(Purpose::of(kind), properties, of_name.map(|(_, style)| style).filter(|_| is_alone), is_alone)
        });
        if class.is_some() || nameless.is_some() {
            self.given.push((node, Given { class, nameless }));
        }
    }

    /// What the first class says that has rules of its own.
    fn style_of_class(&mut self, node: NodeId, tag: &LocalName, kind: Kind, rules: &[usize]) -> Option<Rc<StyleProperties>> {
        let sheet = self.sheet;
        let is_ruled = |class: &&str| rules.iter().any(|&rule| sheet.rules[rule].class() == Some(class));
        let classes = self.page.classes(node).split_ascii_whitespace();
        let class = classes.filter(|class| !self.by_program || !vendor_markup::is_own_class(class)).find(is_ruled)?;
        let style = match self.of_class.get(class) {
            Some((known, _)) => known.clone(),
            None => {
                // The style has what the rules for the name of the element say, too.
                let with_name = built_in(tag).is_some();
                let mut style = self.of_rules(tag, rules, |own| own == class || (own.is_empty() && with_name));
                leave_out_said(&mut style, kind);
                let style = Rc::new(style);
                let applies_to = match kind {
                    Kind::Table => StyleUse::Table,
                    kind if kind.is_inline() => StyleUse::Character,
                    _ => StyleUse::Paragraph,
                };
                self.of_class.insert(class.to_owned(), (style.clone(), applies_to));
                style
            }
        };
        Some(style).filter(|style| !style.is_empty())
    }

    /// What the rules for the name of an element say, where that has a built-in style.
    fn style_of_name(&mut self, tag: &LocalName, kind: Kind, rules: &[usize]) -> Option<(&'static str, Rc<StyleProperties>)> {
        let (_, class, _) = built_in(tag)?;
        let style = match self.of_name.get(tag) {
            Some(known) => known.clone(),
            None => {
                let mut style = self.of_rules(tag, rules, str::is_empty);
                leave_out_said(&mut style, kind);
                let style = Rc::new(style);
                self.of_name.insert(tag.clone(), style.clone());
                style
            }
        };
        Some((class, style)).filter(|(_, style)| !style.is_empty())
    }

    fn nameless(
        &mut self,
        purpose: Purpose,
        properties: StyleProperties,
        of_name: Option<Rc<StyleProperties>>,
        is_alone: bool,
    ) -> usize {
        let key = (purpose, properties, of_name.is_some());
        if let Some(&place) = self.places.get(&key) {
            let known = &mut self.nameless[place];
            known.count += 1;
            known.is_alone &= is_alone;
            return place;
        }
        let count = self.counts.entry(purpose).or_insert(0);
        let class = loop {
            *count += 1;
            let class = format!("{}{count}", purpose.class());
            if self.taken.insert(class.clone()) {
                break class;
            }
        };
        self.nameless.push(Nameless { properties: key.1.clone(), purpose, of_name, class, count: 1, is_alone });
        self.places.insert(key, self.nameless.len() - 1);
        self.nameless.len() - 1
    }
}

/// Puts declarations over each other: what they come to, and what is handed down to what is within.
fn cascade(all: &[&Declaration], tag: &LocalName, above: &HandedDown, root: f64) -> (Declared, HandedDown) {
    let by_weight = || [false, true].into_iter().flat_map(|important| all.iter().filter(move |one| one.important == important));
    let own: HashMap<String, String> = by_weight()
        .filter(|declaration| declaration.name.starts_with("--"))
        .map(|declaration| (declaration.name.clone(), declaration.written().to_owned()))
        .collect();
    let around = above.variables.clone();
    let variables = if own.is_empty() { around } else { Rc::new(Variables { own, around: Some(around) }) };
    let mut declared = Declared::default();
    let mut size = above.size * usual_size(tag);
    for declaration in by_weight().filter(|declaration| matches!(declaration.name.as_str(), "font-size" | "font")) {
        let value = resolve(declaration.written(), &variables);
        let value = if declaration.name == "font" { size_of_font(&value).unwrap_or_default() } else { &value };
        if let Some(own) = font_size(value, above.size, root) {
            size = own;
            declared.set_size(own);
        }
    }
    let sizes = Sizes { font: size, root };
    for declaration in by_weight().filter(|declaration| !declaration.name.starts_with("--")) {
        declared.set(&declaration.name, &resolve(declaration.written(), &variables), sizes);
    }
    (declared.finish(), HandedDown { size, variables })
}

/// How large letters of an element are that nothing sets (HTML, section 15.3).
fn usual_size(tag: &LocalName) -> f64 {
    match &**tag {
        "h1" => 2.0,
        "h2" => 1.5,
        "h3" => 1.17,
        "h5" | "small" | "sub" | "sup" => 0.83,
        "h6" => 0.67,
        _ => 1.0,
    }
}

/// A value with what its properties of the page's own stand for (CSS Custom Properties, section 3).
fn resolve<'v>(value: &'v str, variables: &Variables) -> Cow<'v, str> {
    let mut left = MOST_VARIABLES;
    resolve_within(value, variables, 0, &mut left)
}

/// The same of a value within others, of which so many may still come.
fn resolve_within<'v>(value: &'v str, variables: &Variables, depth: u8, left: &mut u32) -> Cow<'v, str> {
    let Some(start) = value.find("var(") else { return value.into() };
    if depth > DEEPEST_VARIABLE {
        return "".into();
    }
    let mut out = value[..start].to_owned();
    let mut rest = &value[start..];
    while let Some(at) = rest.find("var(") {
        out.push_str(&rest[..at]);
        let inner = &rest[at + 4..];
        let mut open = 1_u32;
        let close = inner.bytes().position(|byte| {
            match byte {
                b'(' => open += 1,
                b')' => open -= 1,
                _ => {}
            }
            open == 0
        });
        let close = close.unwrap_or(inner.len());
        let (name, fallback) = match inner[..close].split_once(',') {
            Some((name, fallback)) => (name.trim(), Some(fallback.trim())),
            None => (inner[..close].trim(), None),
        };
        *left = left.saturating_sub(1);
        if out.len() > LONGEST_VALUE || *left == 0 {
            return "".into();
        }
        if let Some(value) = variables.get(name).or(fallback) {
            out.push_str(&resolve_within(value, variables, depth + 1, left));
        }
        rest = inner.get(close + 1..).unwrap_or_default();
    }
    out.push_str(rest);
    out.into()
}

/// Leaves out what an element of a kind says itself, and what means nothing of it.
fn leave_out_said(properties: &mut StyleProperties, kind: Kind) {
    let is_inline = kind.is_inline() && !matches!(kind, Kind::Image { .. });
    let keeps_weight =
        matches!(kind, Kind::Heading(_) | Kind::Term | Kind::Summary | Kind::Caption | Kind::Table | Kind::List(_))
            || matches!(kind, Kind::Cell(cell) if cell.header)
            || matches!(kind, Kind::Division(_) | Kind::BlockQuote | Kind::RowGroup(_) | Kind::Row);
    let is_link = matches!(kind, Kind::Link { .. });
    let has_size = matches!(kind, Kind::Table | Kind::Cell(_) | Kind::Image { .. } | Kind::Row);
    properties.retain(|(property, value)| match property {
        Property::FontWeight | Property::FontStyle => keeps_weight || is_link,
        Property::TextDecoration => match value {
            Value::Underline(Underline::Solid, None) => is_link || keeps_weight,
            Value::Underline(Underline::None, _) => is_link,
            Value::Keyword(_) => keeps_weight,
            _ => true,
        },
        Property::VerticalAlign => match value {
            Value::Keyword("super" | "sub") => false,
            _ => matches!(kind, Kind::Cell(_) | Kind::Row),
        },
        Property::Width | Property::Height => has_size,
        Property::MaxWidth => matches!(kind, Kind::Image { .. }),
        Property::TextAlign => !matches!(kind, Kind::Cell(_)) && !is_inline,
        Property::Float | Property::Clear => matches!(kind, Kind::Image { .. } | Kind::Table | Kind::Division(_)),
        Property::BorderCollapse => kind == Kind::Table,
        Property::ListStyleType => matches!(kind, Kind::List(_) | Kind::ListItem { .. }) && *value == Value::Keyword("none"),
        Property::MarginTop
        | Property::MarginRight
        | Property::MarginBottom
        | Property::MarginLeft
        | Property::TextIndent
        | Property::LineHeight
        | Property::BreakBefore
        | Property::Columns => !is_inline,
        Property::PaddingTop | Property::PaddingRight | Property::PaddingBottom | Property::PaddingLeft => !is_inline,
        _ => true,
    });
}

/// The page that `@page` describes (CSS Paged Media, section 7).
fn section(sheet: &Sheet) -> Option<Section> {
    let mut section = Section { page: (0, 0), margins: [1418; 4], ..Section::default() };
    let mut margins = Declared::default();
    let sizes = Sizes { font: USUAL_SIZE, root: USUAL_SIZE };
    for declaration in &sheet.paper {
        match declaration.name.as_str() {
            "size" => section.page = super::css_values::paper(&declaration.value).unwrap_or(section.page),
            "margin" | "margin-top" | "margin-right" | "margin-bottom" | "margin-left" => {
                margins.set(&declaration.name, &declaration.value, sizes);
            }
            _ => {}
        }
    }
    let sides = [Property::MarginTop, Property::MarginRight, Property::MarginBottom, Property::MarginLeft];
    for (property, value) in margins.properties {
        if let (Some(side), Value::Length(crate::document::Measure::Twips(twips))) =
            (sides.iter().position(|side| *side == property), value)
        {
            section.margins[side] = twips.clamp(0, 8000).min(section.page.0.min(section.page.1) / 3);
        }
    }
    (section.page.0 > 0 && section.page.1 > 0).then_some(section)
}

/// What was found, apart from the document.
pub(super) struct Found {
    given: Vec<(NodeId, Given)>,
    nameless: Vec<Nameless>,
    of_class: Vec<(String, StyleProperties, StyleUse)>,
    of_name: Vec<(LocalName, StyleProperties)>,
    page: StyleProperties,
    section: Option<Section>,
}

impl Found {
    fn of(looks: Looks<'_>, section: Option<Section>) -> Self {
        let classes = looks.of_class.into_iter().filter(|(_, (style, _))| !style.is_empty());
        let mut of_class: Vec<_> = classes.map(|(class, (style, applies_to))| (class, (*style).clone(), applies_to)).collect();
        of_class.sort_by(|one, other| one.0.cmp(&other.0));
        let mut of_name: Vec<_> = looks.of_name.into_iter().map(|(name, style)| (name, (*style).clone())).collect();
        of_name.retain(|(_, style)| !style.is_empty());
        of_name.sort_by(|one, other| one.0.cmp(&other.0));
        Self { given: looks.given, nameless: looks.nameless, of_class, of_name, page: looks.page_properties, section }
    }

    /// Makes styles of it, and gives the classes that stand for them to the nodes.
    pub(super) fn put_into(mut self, doc: &mut Document) {
        doc.sections.extend(self.section);
        let style = |name: &str, class: &str, properties| NamedStyle {
            name: name.to_owned(),
            class: class.to_owned(),
            properties,
            ..NamedStyle::default()
        };
        doc.styles.push(style("", "", self.page));
        for (tag, properties) in self.of_name {
            let Some((name, class, applies_to)) = built_in(&tag) else { continue };
            if doc.style_definitions.iter().any(|known| known.name == name) {
                continue;
            }
            doc.styles.push(style(name, class, properties.clone()));
            let name = name.to_owned();
            doc.style_definitions.push(StyleDefinition { name, applies_to, properties, ..StyleDefinition::default() });
        }
        for (class, properties, applies_to) in self.of_class {
            // The style of all paragraphs is none that a class defines.
            let name = if class.eq_ignore_ascii_case("normal") { "Normal Text".to_owned() } else { class.clone() };
            doc.styles.push(style(&name, &class, properties.clone()));
            doc.style_definitions.push(StyleDefinition { name, applies_to, properties, ..StyleDefinition::default() });
        }
        let mut counts = [0_u32; 2];
        for one in &mut self.nameless {
            let count = match one.purpose {
                Purpose::Paragraph => &mut counts[0],
                Purpose::Text => &mut counts[1],
                _ => {
                    one.is_alone = false;
                    continue;
                }
            };
            one.is_alone &= one.count >= REPEATED;
            if !one.is_alone {
                continue;
            }
            *count += 1;
            // It has all that its name sets, too.
            if let Some(of_name) = &one.of_name {
                let others = of_name.iter().filter(|(known, _)| !one.properties.iter().any(|(own, _)| own == known));
                let others: StyleProperties = others.cloned().collect();
                one.properties.extend(others);
            }
            let name = format!("{} {count}", if one.purpose == Purpose::Text { "Text" } else { "Paragraph" });
            doc.styles.push(style(&name, &one.class, one.properties.clone()));
        }
        for one in self.nameless.iter().filter(|one| !one.is_alone) {
            doc.styles.push(style("", &one.class, one.properties.clone()));
        }
        for (node, given) in self.given {
            let nameless = given.nameless.map(|place| &self.nameless[place]);
            let class = given.class.filter(|_| nameless.is_none_or(|one| !one.is_alone));
            for class in class.into_iter().chain(nameless.map(|one| one.class.as_str())) {
                let class = doc.intern(class);
                doc.attributes_mut(node).classes.push(class);
            }
        }
    }
}
