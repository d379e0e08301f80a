//! Style rules: style sheets and style attributes are cut into declarations, and selectors find the elements that they are for.
//!
//! Selectors of names, classes and ids are followed, below or directly in each other, and of places among siblings
//! (Selectors Level 3, sections 6 to 8), and the cascade by importance, specificity and order (CSS Cascading Level 4, section 6).

use super::element_state::{ParseState, SelectorInput};
use crate::document::{Document, NodeId};
use crate::fast_hash::HashMap;
use cssparser::{
    AtRuleParser, CowRcStr, DeclarationParser, ParseError, Parser, ParserState, QualifiedRuleParser, RuleBodyItemParser,
    RuleBodyParser, StyleSheetParser, parse_nth,
};
use html5ever::{LocalName, QualName};
use smallvec::SmallVec;
use std::cell::OnceCell;

/// Style sheets with more rules than this are cut; no page that people wrote has so many.
const MOST_RULES: usize = 20_000;
/// So many rules may speak of one name, class or id: each is tried at each element that has it.
const MOST_FOR_ONE: usize = 300;
/// Selectors look so far up for what they stand below.
const FARTHEST: usize = 64;
/// Rules for screens of other widths are not followed: the width of a usual one, in pixels.
const SCREEN: f32 = 1280.0;

/// A property and its value, as text.
#[derive(Debug)]
pub(super) struct Declaration {
    /// In lower case, but for a property of the page's own.
    pub(super) name: String,
    /// In lower case.
    pub(super) value: String,
    /// The value as it is written, where that differs.
    written: Option<Box<str>>,
    pub(super) important: bool,
}

impl Declaration {
    /// The value as it is written.
    pub(super) fn written(&self) -> &str {
        self.written.as_deref().unwrap_or(&self.value)
    }
}

/// The place of an element among its siblings.
#[derive(Clone, Copy, Debug)]
enum Place {
    First,
    Last,
    /// Each of so many, from a first one on.
    Nth(i32, i32),
}

/// One name, or several that hold for one element.
#[derive(Debug, Default)]
struct Compound {
    tag: Option<LocalName>,
    id: Option<String>,
    classes: Vec<String>,
    places: SmallVec<[Place; 1]>,
    /// Whether the compound before stands directly above, and not anywhere above.
    child: bool,
}

#[derive(Debug)]
pub(super) struct Rule {
    compounds: Vec<Compound>,
    pub(super) specificity: (usize, usize, usize),
    /// The place of what it declares.
    pub(super) body: usize,
}

impl Rule {
    /// Whether it speaks of elements wherever they stand.
    pub(super) fn is_of_one(&self) -> bool {
        self.compounds.len() == 1 && self.compounds[0].places.is_empty()
    }

    /// Whether all that it asks of an element is its name and its classes.
    pub(super) fn is_of_name(&self) -> bool {
        self.is_of_one() && self.compounds[0].id.is_none()
    }

    /// The class that it asks for, and nothing else but a name; an empty one where it asks for a name alone.
    pub(super) fn class(&self) -> Option<&str> {
        match self.compounds.as_slice() {
            [own] if self.is_of_name() => match own.classes.as_slice() {
                [] => Some(""),
                [class] => Some(class),
                _ => None,
            },
            _ => None,
        }
    }
}

/// What of style sheets is read.
#[derive(Clone, Copy, Debug)]
pub(super) struct Wanted {
    /// Which declarations are.
    pub(super) keeps: fn(&Declaration) -> bool,
    /// Whether rules for screens and pages are, and those that speak of places among siblings.
    pub(super) conditions: bool,
}

/// All rules of a page, by what they are looked up with.
#[derive(Debug)]
pub(super) struct Sheet {
    wanted: Wanted,
    pub(super) rules: Vec<Rule>,
    pub(super) bodies: Vec<Vec<Declaration>>,
    /// What is said of sheets of paper.
    pub(super) paper: Vec<Declaration>,
    by_class: HashMap<String, Vec<usize>>,
    pub(super) by_id: HashMap<String, Vec<usize>>,
    by_tag: HashMap<LocalName, Vec<usize>>,
}

/// A page whose elements selectors look at.
pub(super) struct Page<'p> {
    pub(super) doc: &'p Document,
    state: &'p ParseState,
    names: &'p [(NodeId, QualName)],
    /// For each node, the place of its name and of its selector input, from 1.
    by_node: Vec<u32>,
    selector_inputs: Vec<u32>,
    /// Whether what the elements around all say counts.
    with_page: bool,
    /// For each element, its number among its siblings, and how many stand behind it.
    places: OnceCell<Vec<(u32, u32)>>,
}

/// For each node, its place in a list, from 1.
fn places(doc: &Document, list: impl Iterator<Item = NodeId>) -> Vec<u32> {
    let mut places = vec![0; doc.node_count()];
    for (place, node) in list.enumerate() {
        places[node.index()] = place as u32 + 1;
    }
    places
}

impl<'p> Page<'p> {
    pub(super) fn of(doc: &'p Document, state: &'p ParseState, names: &'p [(NodeId, QualName)]) -> Self {
        Self {
            doc,
            state,
            names,
            by_node: places(doc, names.iter().map(|(node, _)| *node)),
            selector_inputs: places(doc, state.selector_inputs.iter().map(|selector_input| selector_input.node)),
            with_page: false,
            places: OnceCell::new(),
        }
    }

    /// The page, with what the elements around all say.
    pub(super) fn whole(doc: &'p Document, state: &'p ParseState, names: &'p [(NodeId, QualName)]) -> Self {
        Self { with_page: true, ..Self::of(doc, state, names) }
    }

    pub(super) fn selector_input(&self, node: NodeId) -> Option<&SelectorInput> {
        let known = self.state.selector_inputs.get((self.selector_inputs[node.index()] as usize).wrapping_sub(1));
        known.or_else(|| self.state.page_inputs.iter().find(|input| self.with_page && input.node == node))
    }

    pub(super) fn tag(&self, node: NodeId) -> Option<&LocalName> {
        self.names.get((self.by_node[node.index()] as usize).wrapping_sub(1)).map(|(_, name)| &name.local)
    }

    pub(super) fn classes(&self, node: NodeId) -> &str {
        self.selector_input(node).and_then(|selector_input| selector_input.classes.as_deref()).unwrap_or_default()
    }

    pub(super) fn style(&self, node: NodeId) -> Option<&str> {
        self.selector_input(node).and_then(|selector_input| selector_input.style.as_deref())
    }

    pub(super) fn id(&self, node: NodeId) -> &str {
        self.doc.attributes(node).id.map_or("", |id| self.doc.text(id))
    }

    /// The number of an element among its siblings from 1, and that from behind.
    fn place(&self, node: NodeId) -> (i32, i32) {
        let places = self.places.get_or_init(|| {
            let mut places = vec![(0, 0); self.doc.node_count()];
            for (parent, _) in self.doc.nodes() {
                let of_parent: SmallVec<[NodeId; 8]> =
                    self.doc.children(parent).filter(|&child| self.tag(child).is_some()).collect();
                for (index, child) in of_parent.iter().enumerate() {
                    places[child.index()] = (index as u32 + 1, (of_parent.len() - index) as u32);
                }
            }
            places
        });
        let (place, behind) = places.get(node.index()).copied().unwrap_or_default();
        (place as i32, behind as i32)
    }

    fn stands_at(&self, place: Place, node: NodeId) -> bool {
        let (index, behind) = self.place(node);
        match place {
            Place::First => index == 1,
            Place::Last => behind == 1,
            Place::Nth(0, first) => index == first,
            Place::Nth(step, first) => index.saturating_sub(first) % step == 0 && index.saturating_sub(first) / step >= 0,
        }
    }

    fn fits(&self, compound: &Compound, node: NodeId) -> bool {
        compound.tag.as_ref().is_none_or(|tag| self.tag(node) == Some(tag))
            && compound.id.as_ref().is_none_or(|id| self.id(node) == id)
            && compound.classes.iter().all(|class| self.classes(node).split_ascii_whitespace().any(|known| known == class))
            && compound.places.iter().all(|&place| self.stands_at(place, node))
    }

    pub(super) fn matches(&self, rule: &Rule, node: NodeId) -> bool {
        let mut compounds = rule.compounds.iter().rev();
        let Some(own) = compounds.next() else { return false };
        if !self.fits(own, node) {
            return false;
        }
        let (mut at, mut direct) = (node, own.child);
        for compound in compounds {
            let mut above = self.doc.ancestors(at).take(if direct { 1 } else { FARTHEST });
            match above.find(|&above| self.fits(compound, above)) {
                Some(found) => (at, direct) = (found, compound.child),
                None => return false,
            }
        }
        true
    }
}

impl Sheet {
    pub(super) fn new(wanted: Wanted) -> Self {
        Self {
            wanted,
            rules: Vec::new(),
            bodies: Vec::new(),
            paper: Vec::new(),
            by_class: HashMap::default(),
            by_id: HashMap::default(),
            by_tag: HashMap::default(),
        }
    }

    /// Adds the rules of a style element.
    pub(super) fn add(&mut self, text: &str) {
        let text = text.trim().trim_start_matches("<!--").trim_end_matches("-->");
        let mut parser = Parser::new(text);
        let mut reader = RuleReader { conditions: self.wanted.conditions, depth: 0 };
        for (selectors, declarations) in StyleSheetParser::new(&mut parser, &mut reader).flatten().flatten() {
            self.add_rule(selectors, declarations);
        }
    }

    fn add_rule(&mut self, selectors: &str, mut declarations: Vec<Declaration>) {
        if selectors == PAPER {
            self.paper.extend(declarations);
            return;
        }
        declarations.retain(self.wanted.keeps);
        if declarations.is_empty() || self.rules.len() > MOST_RULES {
            return;
        }
        self.bodies.push(declarations);
        for selector in selectors.split(',') {
            let Some(compounds) = compounds(selector, self.wanted.conditions) else { continue };
            let Some(last) = compounds.last() else { continue };
            let index = self.rules.len();
            let rules = if let Some(id) = &last.id {
                self.by_id.entry(id.clone()).or_default()
            } else if let Some(class) = last.classes.first() {
                self.by_class.entry(class.clone()).or_default()
            } else if let Some(tag) = &last.tag {
                self.by_tag.entry(tag.clone()).or_default()
            } else {
                continue;
            };
            if rules.len() >= MOST_FOR_ONE {
                continue;
            }
            rules.push(index);
            let count = |number: fn(&Compound) -> usize| compounds.iter().map(number).sum::<usize>();
            let specificity = (
                count(|compound| usize::from(compound.id.is_some())),
                count(|compound| compound.classes.len() + compound.places.len()),
                count(|compound| usize::from(compound.tag.is_some())),
            );
            self.rules.push(Rule { compounds, specificity, body: self.bodies.len() - 1 });
        }
    }

    /// The rules that may speak of an element because of its name and its classes.
    fn candidates<'s>(&'s self, page: &'s Page<'_>, node: NodeId, tag: &LocalName) -> impl Iterator<Item = usize> + 's {
        let by_class = page.classes(node).split_ascii_whitespace().filter_map(|class| self.by_class.get(class)).flatten();
        by_class.chain(self.by_tag.get(tag).into_iter().flatten()).copied()
    }

    /// The rules that may speak of all elements that have the name and the classes of this one, the strongest last.
    pub(super) fn rules_of_alike(&self, page: &Page<'_>, node: NodeId, tag: &LocalName) -> Vec<usize> {
        let own =
            |rule: &usize| self.rules[*rule].compounds.last().is_some_and(|own| !own.places.is_empty() || page.fits(own, node));
        let mut rules: Vec<usize> = self.candidates(page, node, tag).filter(own).collect();
        rules.sort_by_key(|&rule| (self.rules[rule].specificity, rule));
        rules.dedup();
        rules
    }

    /// Which of them speak of an element, and those that speak of its id, the strongest last.
    pub(super) fn rules_of(&self, page: &Page<'_>, node: NodeId, of_alike: &[usize]) -> SmallVec<[usize; 16]> {
        let by_id = Some(page.id(node)).filter(|id| !id.is_empty()).and_then(|id| self.by_id.get(id));
        let matches = |&rule: &usize| self.rules[rule].is_of_name() || page.matches(&self.rules[rule], node);
        let mut rules: SmallVec<[usize; 16]> = of_alike.iter().copied().filter(matches).collect();
        if let Some(by_id) = by_id {
            rules.extend(by_id.iter().copied().filter(matches));
            rules.sort_by_key(|&rule| (self.rules[rule].specificity, rule));
        }
        rules
    }
}

/// The declarations of a style attribute.
pub(super) fn declarations(style: &str) -> Vec<Declaration> {
    let mut parser = Parser::new(style);
    RuleBodyParser::new(&mut parser, &mut Body).flatten().collect()
}

/// The parts of a selector, or nothing where it has one that is not followed here.
fn compounds(selector: &str, conditions: bool) -> Option<Vec<Compound>> {
    let mut compounds = Vec::new();
    let mut child = false;
    let spaced = selector.replace('>', " > ");
    for word in spaced.split_ascii_whitespace() {
        if word == ">" {
            if let Some(last) = compounds.last_mut() {
                let _: &mut Compound = last;
                child = true;
            }
            continue;
        }
        let mut compound = Compound { child: std::mem::take(&mut child), ..Compound::default() };
        let mut rest = word;
        while !rest.is_empty() {
            let (sign, name) = match rest.as_bytes()[0] {
                sign @ (b'.' | b'#') => (sign, &rest[1..]),
                b':' if conditions => {
                    rest = pseudo_class(&rest[1..], &mut compound)?;
                    continue;
                }
                b'*' => {
                    rest = &rest[1..];
                    continue;
                }
                _ => (b' ', rest),
            };
            let end = name.find(|c: char| !(c.is_alphanumeric() || matches!(c, '-' | '_'))).unwrap_or(name.len());
            if end == 0 {
                return None;
            }
            match sign {
                b'.' => compound.classes.push(name[..end].to_owned()),
                b'#' => compound.id = Some(name[..end].to_owned()),
                _ if compound.tag.is_none() && compound.classes.is_empty() => {
                    compound.tag = Some(LocalName::from(name[..end].to_ascii_lowercase()));
                }
                _ => return None,
            }
            rest = &name[end..];
            if rest.starts_with(['[', '+', '~']) || (rest.starts_with(':') && !conditions) {
                return None;
            }
        }
        compounds.push(compound);
    }
    Some(compounds)
}

/// Reads a pseudo-class that says where an element stands, and returns what is behind it.
fn pseudo_class<'s>(text: &'s str, compound: &mut Compound) -> Option<&'s str> {
    let end = text.find(|c: char| !(c.is_alphanumeric() || c == '-')).unwrap_or(text.len());
    let (name, rest) = text.split_at(end);
    match name {
        "root" => compound.tag = Some(LocalName::from("html")),
        "link" | "any-link" => {}
        "first-child" => compound.places.push(Place::First),
        "last-child" => compound.places.push(Place::Last),
        "nth-child" => {
            let close = rest.find(')')?;
            let (step, first) = parse_nth(&mut Parser::new(rest[..close].strip_prefix('(')?)).ok()?;
            compound.places.push(Place::Nth(step, first));
            return Some(&rest[close + 1..]);
        }
        _ => return None,
    }
    Some(rest)
}

/// Whether rules for media are for a screen of a usual width (Media Queries Level 4, section 3).
fn is_for_screens(media: &str) -> bool {
    let media = media.to_ascii_lowercase();
    media.split(',').any(|query| {
        query.split(" and ").all(|part| match part.trim().trim_start_matches("only ").trim() {
            "" | "all" | "screen" => true,
            condition => {
                match condition.trim_matches(['(', ')']).split_once(':').map(|(name, value)| (name.trim(), value.trim())) {
                    Some(("min-width", width)) => pixels(width).is_some_and(|width| width <= SCREEN),
                    Some(("max-width", width)) => pixels(width).is_some_and(|width| width >= SCREEN),
                    Some(("prefers-color-scheme", scheme)) => scheme == "light",
                    _ => false,
                }
            }
        })
    })
}

fn pixels(width: &str) -> Option<f32> {
    let unit = width.trim_start_matches(|c: char| c.is_ascii_digit() || c == '.');
    let number: f32 = width[..width.len() - unit.len()].parse().ok()?;
    match unit {
        "px" | "" => Some(number),
        "em" | "rem" => Some(number * 16.0),
        _ => None,
    }
}

/// What stands in place of the selectors of a rule for sheets of paper.
const PAPER: &str = "@page";

/// Rules deeper in each other than this are not read.
const DEEPEST: u8 = 8;

/// Reads style rules: selectors as text, and declarations.
struct RuleReader {
    conditions: bool,
    depth: u8,
}

/// Rules of one kind, and those of what is around them.
type Rules<'i> = Vec<(&'i str, Vec<Declaration>)>;

impl<'i> QualifiedRuleParser<'i> for RuleReader {
    type Prelude = &'i str;
    type QualifiedRule = Rules<'i>;
    type Error = ();

    fn parse_prelude(&mut self, input: &mut Parser<'i>) -> Result<&'i str, ParseError<()>> {
        Ok(rest(input))
    }

    fn parse_block(
        &mut self,
        selectors: &'i str,
        _: &ParserState,
        input: &mut Parser<'i>,
    ) -> Result<Self::QualifiedRule, ParseError<()>> {
        Ok(vec![(selectors, RuleBodyParser::new(input, &mut Body).flatten().collect())])
    }
}

impl<'i> AtRuleParser<'i> for RuleReader {
    /// Whether it is for sheets of paper.
    type Prelude = bool;
    type AtRule = Rules<'i>;
    type Error = ();

    fn parse_prelude(&mut self, name: CowRcStr<'i>, input: &mut Parser<'i>) -> Result<bool, ParseError<()>> {
        let prelude = rest(input).trim();
        let is_followed = self.conditions
            && self.depth < DEEPEST
            && match &*name.to_ascii_lowercase() {
                "media" => is_for_screens(prelude),
                "supports" => !prelude.starts_with("not"),
                "layer" => true,
                // The first page and the left and right ones may have their own.
                "page" => prelude.is_empty() || prelude.chars().all(|c| c.is_alphanumeric()),
                _ => false,
            };
        if is_followed { Ok(name.eq_ignore_ascii_case("page")) } else { Err(ParseError::unexpected_token()) }
    }

    fn parse_block(&mut self, is_paper: bool, _: &ParserState, input: &mut Parser<'i>) -> Result<Rules<'i>, ParseError<()>> {
        if is_paper {
            return Ok(vec![(PAPER, RuleBodyParser::new(input, &mut Body).flatten().collect())]);
        }
        let mut inner = Self { conditions: self.conditions, depth: self.depth + 1 };
        Ok(StyleSheetParser::new(input, &mut inner).flatten().flatten().collect())
    }
}

fn rest<'i>(input: &mut Parser<'i>) -> &'i str {
    let start = input.position();
    while input.next().is_ok() {}
    input.slice_from(start)
}

/// Reads what stands between braces, or in an attribute.
struct Body;

impl<'i> DeclarationParser<'i> for Body {
    type Declaration = Declaration;
    type Error = ();

    fn parse_value(
        &mut self,
        name: CowRcStr<'i>,
        input: &mut Parser<'i>,
        _: &ParserState,
    ) -> Result<Declaration, ParseError<()>> {
        let written = rest(input).trim();
        let (written, important) = match written.rsplit_once('!') {
            Some((value, word)) if word.trim().eq_ignore_ascii_case("important") => (value.trim(), true),
            _ => (written, false),
        };
        let value = written.to_ascii_lowercase();
        let written = (value != written).then(|| written.into());
        let name = if name.starts_with("--") { (*name).to_owned() } else { name.to_ascii_lowercase() };
        Ok(Declaration { name, value, written, important })
    }
}

impl<'i> AtRuleParser<'i> for Body {
    type Prelude = ();
    type AtRule = Declaration;
    type Error = ();
}

impl<'i> QualifiedRuleParser<'i> for Body {
    type Prelude = ();
    type QualifiedRule = Declaration;
    type Error = ();
}

impl RuleBodyItemParser<'_, Declaration, ()> for Body {
    fn parse_declarations(&self) -> bool {
        true
    }

    fn parse_qualified(&self) -> bool {
        false
    }
}
