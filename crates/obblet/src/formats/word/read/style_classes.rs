//! Looks: names of styles as classes, and rules that make a page look like the document. Each set of rules is one class.

use super::super::model::numbering::{Level, NumberFormat, Numbered};
use super::super::model::properties::{
    Alignment, Border, CharacterProperties, Colour, Flag, LineRule, Name, ParagraphProperties, TabKind, TabStop,
};
use super::super::model::styles::{InCell, Role, Style, StyleKind};
use super::super::{JOINED, PLAIN_TABLE};
use super::Reader;
use super::boxes::Boxes;
use super::css_declarations::{CellKey, Rules, cell_rules, difference, edge};
use super::runs::Face;
use super::tables::{OpenTable, TableParts};
use crate::document as model;
use crate::document::{Document, Kind, Line, Measure, NamedStyle, NodeId, NumberStyle, Property, Underline, Value};
use crate::fast_hash::HashMap;

/// The distance of tab stops where a document sets none, in twips.
const DEFAULT_TAB: i32 = 720;

/// What the looks of a paragraph depend on: its properties, what the table says of its cell, and whether it is in a list.
type ParagraphKey = (ParagraphProperties, Option<InCell>, bool);

/// How text stands at a stop of a kind.
const fn align(kind: TabKind) -> model::TabAlign {
    match kind {
        TabKind::Left | TabKind::Clear => model::TabAlign::Left,
        TabKind::Center => model::TabAlign::Center,
        TabKind::Right => model::TabAlign::Right,
        TabKind::Decimal => model::TabAlign::Decimal,
    }
}

/// The classes that were made so far.
#[derive(Debug, Default)]
pub(super) struct ClassRegistry {
    /// The classes of styles, by the kind of style and its name.
    by_style: HashMap<(u8, String), String>,
    /// Classes of rules that no style has, by what they are for and their rules.
    by_rules: HashMap<(&'static str, Rules, Option<NumberStyle>), String>,
    /// How often a class of a name was made.
    counts: HashMap<String, u32>,
    /// Sets of classes of runs.
    pub(super) sets: Vec<Vec<String>>,
    set_places: HashMap<Vec<String>, u32>,
    /// What was found for the same properties before: for paragraphs, runs and cells.
    paragraphs: HashMap<ParagraphKey, (String, Option<String>)>,
    runs: HashMap<(CharacterProperties, CharacterProperties), Option<u32>>,
    cells: HashMap<CellKey, Option<String>>,
    rules: Vec<NamedStyle>,
}

impl ClassRegistry {
    fn unique(&mut self, wanted: &str) -> String {
        let count = self.counts.entry(wanted.to_owned()).or_insert(0);
        *count += 1;
        if *count == 1 { wanted.to_owned() } else { format!("{wanted}-{count}") }
    }

    fn knows(&self, kind: StyleKind, name: &str) -> bool {
        self.by_style.contains_key(&(kind as u8, name.to_owned()))
    }

    fn of_style(&mut self, kind: StyleKind, name: &str, rules: impl FnOnce() -> Rules) -> String {
        if let Some(known) = self.by_style.get(&(kind as u8, name.to_owned())) {
            return known.clone();
        }
        let class = self.unique(&class_name(name));
        self.by_style.insert((kind as u8, name.to_owned()), class.clone());
        self.add(name, &class, rules());
        class
    }

    /// The class of a set of rules; `None` where there are none.
    fn of_rules(&mut self, purpose: &'static str, rules: Rules) -> Option<String> {
        self.of_numbered(purpose, rules, None)
    }

    /// The class of a set of rules and of a way to write numbers.
    fn of_numbered(&mut self, purpose: &'static str, rules: Rules, numbers: Option<NumberStyle>) -> Option<String> {
        if rules.is_empty() && numbers.is_none() {
            return None;
        }
        let key = (purpose, rules, numbers);
        if let Some(known) = self.by_rules.get(&key) {
            return Some(known.clone());
        }
        let count = self.counts.entry(purpose.to_owned()).or_insert(0);
        *count += 1;
        let class = format!("{purpose}{count}");
        self.add("", &class, key.1.clone());
        if let Some(style) = self.rules.last_mut() {
            style.numbers.clone_from(&key.2);
        }
        self.by_rules.insert(key, class.clone());
        Some(class)
    }

    fn add(&mut self, name: &str, class: &str, rules: Rules) {
        self.rules.push(NamedStyle {
            name: name.to_owned(),
            class: class.to_owned(),
            properties: rules,
            ..NamedStyle::default()
        });
    }

    /// All rules: those of styles before those of single places, which are to win, and those that join paragraphs last.
    pub(super) fn into_styles(self) -> Vec<NamedStyle> {
        let (named, single): (Vec<_>, Vec<_>) = self.rules.into_iter().partition(|style| !style.name.is_empty());
        let (joined, single): (Vec<_>, Vec<_>) = single.into_iter().partition(|style| style.class.starts_with(JOINED));
        named.into_iter().chain(single).chain(joined).collect()
    }
}

/// How text looks, as far as that is kept.
#[derive(Debug, Default)]
pub(super) struct Looks {
    pub(super) classes: ClassRegistry,
    pub(super) boxes: Boxes,
    /// What is known of each font, by its number.
    pub(super) fonts: Vec<Face>,
    /// Whether fonts of East Asian text belong to it.
    pub(super) is_east_asian: bool,
    /// The last paragraph, its style, and whether it has no space to others of that style.
    last_contextual: Option<(NodeId, Option<Name>, bool)>,
    /// How high the empty paragraphs are that stand above what comes, in twips.
    pub(super) space_above: i32,
    /// Whether what comes begins a page.
    pub(super) page_break: bool,
}

impl Looks {
    /// Gives a node the class of a set of rules; what they are for is the first part of its name.
    pub(super) fn add_rules(&mut self, doc: &mut Document, node: NodeId, purpose: &'static str, rules: Rules) {
        if let Some(class) = self.classes.of_rules(purpose, rules) {
            let class = doc.intern(&class);
            doc.attributes_mut(node).classes.push(class);
        }
    }

    pub(super) fn without_margins(&mut self, doc: &mut Document, node: NodeId) {
        self.add_rules(doc, node, "holder", vec![(Property::Margin, Value::ZERO)]);
    }
}

/// The class that stands for the name of a style.
fn class_name(name: &str) -> String {
    let mut class = String::with_capacity(name.len());
    for c in name.trim().chars() {
        match c {
            c if c.is_ascii_alphanumeric() => class.push(c.to_ascii_lowercase()),
            _ if class.is_empty() || class.ends_with('-') => {}
            _ => class.push('-'),
        }
    }
    let class = class.trim_end_matches('-');
    if class.is_empty() {
        "style".to_owned()
    } else if class.as_bytes()[0].is_ascii_digit() {
        format!("style-{class}")
    } else {
        class.to_owned()
    }
}

/// The class that a style is, where its name says which outputs are meant: `Only HTML`.
fn target(name: &str) -> Option<String> {
    let may_be = matches!(name.as_bytes().first(), Some(b'o' | b'O' | b'n' | b'N'));
    may_be.then(|| class_name(name)).filter(|class| crate::refine::targets::is_target(class))
}

/// A paragraph that gets classes.
#[derive(Clone, Copy, Debug)]
pub(super) struct Subject {
    pub(super) node: NodeId,
    pub(super) heading: bool,
    pub(super) in_list: bool,
}

impl Reader<'_, '_> {
    fn add_class(&mut self, node: NodeId, class: &str) {
        let class = self.doc.intern(class);
        self.doc.attributes_mut(node).classes.push(class);
    }

    /// Gives a node the class of a set of rules; what they are for is the first part of its name.
    pub(super) fn add_rules(&mut self, node: NodeId, purpose: &'static str, rules: Rules) {
        self.looks.add_rules(&mut self.doc, node, purpose, rules);
    }

    /// Gives a span the classes of a set.
    pub(super) fn apply_classes(&mut self, node: NodeId, set: u32) {
        for class in self.looks.classes.sets.get(set as usize).cloned().unwrap_or_default() {
            self.add_class(node, &class);
        }
    }

    /// The name of the style of a paragraph stays where it says which outputs it is for.
    pub(super) fn mark_target(&mut self, node: NodeId, properties: &ParagraphProperties) {
        let class = target(&self.model.styles.of_paragraph(properties.style).name);
        if let Some(class) = class {
            self.add_class(node, &class);
        }
    }

    /// The set of the class of a run whose style says which outputs it is for.
    pub(super) fn target_of_run(&mut self) -> Option<u32> {
        let set = vec![target(&self.character_style(self.run.direct.style)?.name)?];
        let known = self.looks.classes.sets.iter().position(|known| *known == set);
        let at = known.unwrap_or_else(|| {
            self.looks.classes.sets.push(set);
            self.looks.classes.sets.len() - 1
        });
        u32::try_from(at).ok()
    }

    /// The classes of a paragraph.
    pub(super) fn style_paragraph(&mut self, subject: &Subject, properties: &ParagraphProperties) {
        let style = self.model.styles.of_paragraph(properties.style);
        let (name, role, is_default) =
            (style.name.clone(), style.role, std::ptr::eq(style, self.model.styles.default_paragraph()));
        if !self.options.fidelity.is_exact() {
            // What the element says already needs no class.
            let said = is_default
                || name.is_empty()
                || matches!(role, Role::Title | Role::ListItem | Role::Contents)
                || (role == Role::Quote && name.eq_ignore_ascii_case("quote"))
                || (subject.heading && name.to_ascii_lowercase().starts_with("heading "))
                || role == Role::Code;
            if !said {
                let rules = if self.looks.classes.knows(StyleKind::Paragraph, &name) {
                    Rules::new()
                } else {
                    self.rules_of_style(properties)
                };
                let class = self.looks.classes.of_style(StyleKind::Paragraph, &name, || rules);
                let node =
                    if subject.in_list { self.doc.node(subject.node).parent().unwrap_or(subject.node) } else { subject.node };
                self.add_class(node, &class);
            }
            return;
        }
        let mut whole = properties.clone();
        (whole.mark, whole.keep_next, whole.outline) = (CharacterProperties::default(), None, None);
        let space = std::mem::take(&mut self.looks.space_above);
        self.looks.boxes.above = space;
        if space > 0 {
            whole.before =
                Some(whole.before.or(style.paragraph.before).or(self.model.styles.paragraph.before).unwrap_or(0) + space);
        }
        if std::mem::take(&mut self.looks.page_break) {
            whole.page_break = Some(true);
        }
        let table = self.tables.last().filter(|_| self.context().in_cell).and_then(OpenTable::in_cell).cloned();
        let key = (whole, table, subject.in_list);
        let (class, variant) = match self.looks.classes.paragraphs.get(&key) {
            Some(known) => known.clone(),
            None => {
                let made = self.classes_of_paragraph(&name, &key);
                self.looks.classes.paragraphs.insert(key, made.clone());
                made
            }
        };
        self.add_class(subject.node, &class);
        if let Some(variant) = variant {
            self.add_class(subject.node, &variant);
        }
        self.draw_together(subject.node, properties);
    }

    /// What the style of a paragraph says beyond what the style of all paragraphs says.
    fn rules_of_style(&self, properties: &ParagraphProperties) -> Rules {
        let rules = |style: &super::super::model::styles::Style| {
            let mut paragraph = self.model.styles.paragraph.clone();
            paragraph.override_with(&style.paragraph);
            let mut characters = self.model.styles.characters;
            characters.override_with(&style.characters);
            self.paragraph_rules(&paragraph, &characters, false)
        };
        let own = rules(self.model.styles.of_paragraph(properties.style));
        difference(&rules(self.model.styles.default_paragraph()), own)
    }

    /// The class of the style of a paragraph, and the one of what differs from it.
    fn classes_of_paragraph(&mut self, name: &str, (properties, table, in_list): &ParagraphKey) -> (String, Option<String>) {
        let style = self.model.styles.of_paragraph(properties.style);
        let mut paragraph = self.model.styles.paragraph.clone();
        paragraph.override_with(&style.paragraph);
        let mut characters = self.model.styles.characters;
        characters.override_with(&style.characters);
        let of_style = self.paragraph_rules(&paragraph, &characters, false);
        // What stands in a cell has what the table says, too.
        let (mut paragraph, mut own) = (self.model.styles.paragraph.clone(), self.model.styles.characters);
        if let Some(table) = table {
            own.override_with(&table.characters);
            if let Some(table) = &table.paragraph {
                paragraph.override_with(table);
            }
        }
        paragraph.override_with(&style.paragraph);
        paragraph.override_with(properties);
        own.override_with(&style.characters);
        let of_place = self.paragraph_rules(&paragraph, &own, *in_list);
        let delta = difference(&of_style, of_place);
        let class = self.looks.classes.of_style(StyleKind::Paragraph, if name.is_empty() { "normal" } else { name }, || of_style);
        (class, self.looks.classes.of_rules("p", delta))
    }

    /// Puts the definitions of styles into the document, with what each sets beyond the one that it is based on.
    pub(super) fn define_styles(&mut self) {
        let mut definitions = std::mem::take(&mut self.model.styles.definitions);
        if self.options.fidelity.keeps_names() {
            let rules = |kind: StyleKind, style: Option<&Style>| {
                let (paragraph, characters) = style.map(|style| (&style.paragraph, &style.characters)).unzip();
                let (mut whole, mut letters) = (self.model.styles.paragraph.clone(), self.model.styles.characters);
                whole.override_with(paragraph.unwrap_or(&ParagraphProperties::default()));
                letters.override_with(characters.unwrap_or(&CharacterProperties::default()));
                if kind == StyleKind::Paragraph {
                    return self.paragraph_rules(&whole, &letters, false);
                }
                let mut rules = Rules::new();
                self.character_rules(&mut rules, &letters);
                rules
            };
            for (definition, (style, base)) in definitions.iter_mut().zip(self.model.styles.with_bases()) {
                if matches!(style.kind, StyleKind::Paragraph | StyleKind::Character) {
                    definition.properties = difference(&rules(style.kind, base), rules(style.kind, Some(style)));
                }
            }
        }
        self.doc.style_definitions = definitions;
    }

    /// Paragraphs of one style may follow each other without space (section 17.3.1.9).
    fn draw_together(&mut self, node: NodeId, properties: &ParagraphProperties) {
        let style = self.model.styles.of_paragraph(properties.style);
        let contextual = properties.contextual.or(style.paragraph.contextual).unwrap_or(false);
        let before = self.looks.last_contextual.replace((node, properties.style, contextual));
        if let Some((last, style, true)) = before
            && contextual
            && style == properties.style
        {
            let below = self.looks.classes.of_rules(JOINED, vec![(Property::MarginBottom, Value::ZERO)]);
            let above = self.looks.classes.of_rules(JOINED, vec![(Property::MarginTop, Value::ZERO)]);
            if let (Some(below), Some(above)) = (below, above) {
                self.add_class(last, &below);
                self.add_class(node, &above);
            }
        }
    }

    /// The height of a line of a paragraph, in twips.
    pub(super) fn line_height(&self, properties: &ParagraphProperties, base: &CharacterProperties) -> i32 {
        let size = i32::from(base.size.unwrap_or(20)) * 10;
        let style = self.model.styles.of_paragraph(properties.style);
        let line = properties.line.or(style.paragraph.line).or(self.model.styles.paragraph.line);
        match line {
            Some((line, LineRule::Lines)) => size * 12 / 10 * line / 240,
            Some((line, _)) => line,
            None => size * 12 / 10,
        }
    }

    /// The set of classes of the run that is being read.
    pub(super) fn style_run(&mut self) -> Option<u32> {
        let base = self.context().paragraph.as_ref().map_or(self.model.styles.characters, |paragraph| paragraph.base);
        let key = (self.run.direct, base);
        if let Some(known) = self.looks.classes.runs.get(&key) {
            return *known;
        }
        let set = self.classes_of_run();
        self.looks.classes.runs.insert(key, set);
        set
    }

    fn classes_of_run(&mut self) -> Option<u32> {
        let (direct, whole) = (self.run.direct, self.run.whole);
        let exact = self.options.fidelity.is_exact();
        let mut classes = Vec::new();
        if let Some(style) = self.character_style(direct.style) {
            let (name, own) = (style.name.clone(), style.characters);
            let said = matches!(
                name.to_ascii_lowercase().as_str(),
                "hyperlink"
                    | "followedhyperlink"
                    | "strong"
                    | "emphasis"
                    | "default paragraph font"
                    | "footnote reference"
                    | "endnote reference"
                    | "annotation reference"
                    | "page number"
                    | "line number"
                    | "internet link"
                    | ""
            );
            if !said || (exact && own != CharacterProperties::default()) {
                let (mut nothing, mut rules) = (Rules::new(), Rules::new());
                self.character_rules(&mut nothing, &CharacterProperties::default());
                self.character_rules(&mut rules, &own);
                let rules = difference(&nothing, rules);
                classes.push(self.looks.classes.of_style(StyleKind::Character, &name, || rules));
            }
        }
        if exact {
            let base = self.context().paragraph.as_ref().map_or(self.model.styles.characters, |paragraph| paragraph.base);
            let mut around = base;
            if let Some(style) = self.character_style(direct.style) {
                around.combine_with(&style.characters);
            }
            if around != whole {
                let (mut before, mut now) = (Vec::new(), Vec::new());
                self.character_rules(&mut before, &around);
                self.character_rules(&mut now, &whole);
                // Some of it elements say already.
                let mut delta = difference(&before, now);
                let said = [
                    (Property::FontWeight, Value::Keyword("bold")),
                    (Property::FontStyle, Value::Keyword("italic")),
                    (Property::TextDecoration, Value::Underline(Underline::Solid, None)),
                ];
                delta.retain(|rule| !said.contains(rule));
                if whole.is_marked() && !whole.flags.is(Flag::Italic) {
                    // The element for emphasis would slant it, too.
                    delta.push((Property::FontStyle, Value::Keyword("normal")));
                }
                classes.extend(self.looks.classes.of_rules("t", delta));
            }
        }
        if classes.is_empty() {
            return None;
        }
        if let Some(&known) = self.looks.classes.set_places.get(&classes) {
            return Some(known);
        }
        let place = self.looks.classes.sets.len() as u32;
        self.looks.classes.sets.push(classes.clone());
        self.looks.classes.set_places.insert(classes, place);
        Some(place)
    }

    /// The marks of a list, where HTML has no word for them, and how far it is set in from what it stands in.
    pub(super) fn style_list(&mut self, node: NodeId, level: &Level, numbered: &Numbered, indent: i32) {
        let mut rules: Rules = Vec::new();
        let shown = self.model.numberings.number_style(numbered);
        // In other looks than the source's own, a stop or a parenthesis is as good as another.
        let numbers = shown.filter(|_| self.options.fidelity.is_exact() || !level.is_plain(numbered.level));
        if numbers.is_none() {
            match level.style() {
                _ if self.options.fidelity.is_exact() && level.text.trim().is_empty() => {
                    rules.push((Property::ListStyleType, Value::Keyword("none")));
                }
                style @ ("decimal-leading-zero" | "none") => rules.push((Property::ListStyleType, Value::Keyword(style))),
                style if matches!(level.format, NumberFormat::Other(_)) => {
                    rules.push((Property::ListStyleType, Value::Keyword(style)))
                }
                _ => {}
            }
        }
        if self.options.fidelity.is_exact() {
            if level.format == NumberFormat::Bullet {
                let mark =
                    level.characters.font.and_then(|font| super::symbols::table(self.model.names.name(font))).and_then(|table| {
                        let code = level.text.chars().next()? as u32;
                        table.get(u8::try_from(code & 0xFF).ok()?)
                    });
                let mark = mark.or_else(|| level.text.chars().next());
                rules.push((
                    Property::ListStyleType,
                    match mark {
                        Some('o' | '○' | '◯' | '◦') => Value::Keyword("circle"),
                        Some('■' | '▪' | '◾' | '□') => Value::Keyword("square"),
                        _ => Value::Keyword("disc"),
                    },
                ));
            }
            rules.push((Property::Margin, Value::ZERO));
            rules.push((Property::PaddingLeft, Value::twips(indent.clamp(300, 4000))));
        }
        if let Some(class) = self.looks.classes.of_numbered("list", rules, numbers) {
            self.add_class(node, &class);
        }
    }

    /// What the bullet or the number of an item looks like: as the mark of its paragraph does, and as its level says on top of
    /// that (section 17.9.24). What looks like the text needs no rules.
    pub(super) fn style_marker(&mut self, item: NodeId, numbered: Option<&Numbered>, [text, mark]: [&CharacterProperties; 2]) {
        let Some(numbered) = numbered.filter(|_| self.options.fidelity.is_exact()) else { return };
        let mut look = *text;
        look.override_with(mark);
        if let Some(level) = self.model.numberings.level(numbered.instance, numbered.level) {
            look.override_with(&level.characters);
        }
        let rules = |look: &CharacterProperties| {
            let mut rules = Rules::new();
            self.character_rules(&mut rules, look);
            let is_shown = |property: &Property| {
                matches!(property, Property::Color | Property::FontSize | Property::FontWeight | Property::FontStyle)
            };
            rules.retain(|(property, _)| is_shown(property));
            rules
        };
        let rules = difference(&rules(text), rules(&look));
        let known = self.looks.classes.rules.len();
        self.add_rules(item, "marker", rules);
        self.looks.classes.rules[known..].iter_mut().for_each(|style| style.of_marker = true);
    }

    /// The name of a table's style.
    pub(super) fn style_table(&mut self) {
        let Some(table) = self.tables.last() else { return };
        let node = table.node;
        let Some(style) = self.model.styles.get(table.style, StyleKind::Table) else { return };
        let name = style.name.clone();
        if !name.is_empty() && !name.eq_ignore_ascii_case("normal table") && name != PLAIN_TABLE {
            let class = self.looks.classes.of_style(StyleKind::Table, &name, Vec::new);
            self.add_class(node, &class);
        }
    }

    /// Borders, grounds and widths of a table and its cells, once all of it is known.
    pub(super) fn finish_table_look(&mut self, table: &OpenTable) {
        let style = self.model.styles.of_table(table.style).and_then(|style| style.table.clone()).unwrap_or_default();
        let mut borders = style.whole.borders;
        borders.override_with(&table.borders);
        let mut rules: Rules =
            vec![(Property::BorderCollapse, Value::Keyword("collapse")), (Property::BorderSpacing, Value::ZERO)];
        match table.width {
            Some((width, true)) => rules.push((Property::Width, Value::Length(Measure::Percent(width)))),
            Some((width, false)) => rules.push((Property::Width, Value::twips(width))),
            None if table.grid.iter().sum::<i32>() > 0 => rules.push((Property::Width, Value::twips(table.grid.iter().sum()))),
            None => {}
        }
        let (above, none) = (Measure::Twips(table.space_above), Measure::Twips(0));
        let margin = match table.alignment {
            Some(Alignment::Center) => vec![above, Measure::Auto, none],
            Some(Alignment::End) => vec![above, none, none, Measure::Auto],
            _ => vec![above, none, none, Measure::Twips(table.indent)],
        };
        rules.push((Property::Margin, Value::Lengths(margin)));
        self.add_rules(table.node, "table", rules);
        for cell in &table.cells {
            if self.doc.node(cell.node).parent().is_none() {
                continue;
            }
            let edges =
                [cell.row == 0, cell.row + 1 >= table.rows, cell.column == 0, cell.column + cell.span >= table.most_columns];
            let width = if cell.row == 0 { table.grid.iter().skip(cell.column).take(cell.span).sum() } else { 0 };
            let key = (cell.parts.clone(), cell.shade, cell.borders, cell.vertical, edges, [width, cell.height]);
            let class = match self.looks.classes.cells.get(&key) {
                Some(known) => known.clone(),
                None => {
                    let rules = cell_rules(&key, table.look.contains(TableParts::LAST_ROW), &style, &borders);
                    let class = self.looks.classes.of_rules("cell", rules);
                    self.looks.classes.cells.insert(key, class.clone());
                    class
                }
            };
            if let Some(class) = class {
                self.add_class(cell.node, &class);
            }
        }
        // Another table has other borders and another style.
        self.looks.classes.cells.clear();
    }

    /// The measure and the letters of the page.
    pub(super) fn style_page(&mut self) {
        let measure = self.sections.measure();
        let mut rules: Rules = vec![
            (Property::MaxWidth, Value::twips(measure.clamp(2000, 30_000))),
            (Property::Margin, Value::Lengths(vec![Measure::Twips(0), Measure::Auto])),
            (Property::Padding, Value::Lengths(vec![Measure::Twips(720), Measure::Twips(320)])),
        ];
        let mut characters = self.model.styles.characters;
        characters.override_with(&self.model.styles.default_paragraph().characters);
        self.character_rules(&mut rules, &characters);
        let style = NamedStyle { name: "page".to_owned(), class: String::new(), properties: rules, ..NamedStyle::default() };
        self.looks.classes.rules.insert(0, style);
    }

    /// A large first letter stands beside the lines of its paragraph.
    pub(super) fn style_capital(&mut self, node: NodeId) {
        let rules = vec![
            (Property::Float, Value::Keyword("left")),
            (Property::LineHeight, Value::Css("0.85")),
            (Property::MarginRight, Value::twips(60)),
        ];
        let Some(class) = self.looks.classes.of_rules("capital", rules) else { return };
        let span = self.doc.create(Kind::Span);
        self.doc.move_children(node, span);
        self.doc.move_into(node, span);
        self.add_class(span, &class);
    }

    /// A quote or a figure has no margins but those of what it holds.
    pub(super) fn without_margins(&mut self, node: NodeId) {
        self.looks.without_margins(&mut self.doc, node);
    }

    /// Tabs of a paragraph, as far as style rules can show its stops; the others are reported. One that leads to the right margin
    /// fills the line, those to the middle and to the right part it; others go to stops at equal distances.
    pub(super) fn style_tabs(&mut self, node: NodeId, properties: &ParagraphProperties) {
        let mut whole = self.model.styles.of_paragraph(properties.style).paragraph.clone();
        whole.override_with(properties);
        let stops: Vec<TabStop> = whole.tabs.iter().copied().filter(|stop| stop.kind != TabKind::Clear && stop.at > 0).collect();
        if self.options.settings.tab_stops == super::super::TabStops::Stops {
            let kinds = stops.iter().map(|stop| model::TabStop { at: stop.at, align: align(stop.kind), leader: stop.leader });
            let tabs = (Property::TabStops, Value::Tabs(kinds.collect()));
            return self.add_rules(node, "p", vec![(Property::WhiteSpace, Value::Keyword("pre-wrap")), tabs]);
        }
        let is_broken = self.doc.children(node).any(|child| self.doc.kind(child) == Kind::LineBreak);
        let tabs = if is_broken { None } else { self.split_at_tabs(node, &stops) };
        let right = stops.iter().rev().find(|stop| stop.kind == TabKind::Right);
        match (tabs.as_deref(), stops.as_slice()) {
            (Some([tab]), _) if right.is_some() => {
                let leader = right.and_then(|stop| stop.leader);
                self.fill_line(node, *tab, leader);
            }
            // A line to write on, as in forms.
            (Some([tab]), [stop]) if stop.leader.is_some() && self.doc.node(*tab).next().is_none() => {
                self.fill_line(node, *tab, stop.leader);
                self.add_rules(node, "p", vec![(Property::MaxWidth, Value::twips(stop.at))]);
            }
            (Some([tab]), [stop]) if stop.kind == TabKind::Center && self.doc.node(*tab).previous().is_none() => {
                self.add_rules(node, "p", vec![(Property::TextAlign, Value::Keyword("center"))]);
            }
            (Some([middle, end]), [first, second]) if first.kind == TabKind::Center && second.kind == TabKind::Right => {
                self.part_line(node, *middle, *end);
            }
            _ => {
                let mut rules: Rules = vec![(Property::WhiteSpace, Value::Keyword("pre-wrap"))];
                if whole.tabs.is_empty() {
                    rules.push((Property::TabSize, Value::twips(DEFAULT_TAB)));
                }
                self.add_rules(node, "p", rules);
                let is_plain = |stop: &TabStop| stop.kind == TabKind::Left && stop.leader.is_none();
                if !stops.iter().all(is_plain) || stops.windows(2).any(|pair| pair[1].at != pair[0].at + stops[0].at) {
                    self.diagnostics.tab_stops.add(self.place.paragraph, "");
                }
            }
        }
    }

    /// Puts the tabs that stand directly in a paragraph into spans of their own and gives those, where all of its tabs are such
    /// and stops may be there that have to be shown.
    fn split_at_tabs(&mut self, node: NodeId, stops: &[TabStop]) -> Option<Vec<NodeId>> {
        let has_tab =
            |reader: &Self, id: NodeId| matches!(reader.doc.kind(id), Kind::Text(text) if reader.doc.text(text).contains('\t'));
        let children: Vec<NodeId> = self.doc.children(node).collect();
        let own: usize = children
            .iter()
            .filter_map(|&child| if let Kind::Text(text) = self.doc.kind(child) { Some(text) } else { None })
            .map(|text| self.doc.text(text).matches('\t').count())
            .sum();
        let all = self.doc.plain_text(node).matches('\t').count();
        let is_shown = stops.iter().any(|stop| stop.kind != TabKind::Left || stop.leader.is_some());
        if own != all || !(1..=2).contains(&own) || !is_shown {
            return None;
        }
        let mut tabs = Vec::new();
        for child in children {
            if !has_tab(self, child) {
                continue;
            }
            let Kind::Text(text) = self.doc.kind(child) else { continue };
            let words = self.doc.text(text).to_owned();
            for (place, piece) in words.split('\t').enumerate() {
                if place > 0 {
                    let tab = self.doc.create(Kind::Span);
                    self.doc.append_text(tab, "\t");
                    self.doc.move_before(child, tab);
                    tabs.push(tab);
                }
                if !piece.is_empty() {
                    let piece = self.doc.intern(piece);
                    let piece = self.doc.create(Kind::Text(piece));
                    self.doc.move_before(child, piece);
                }
            }
            self.doc.detach(child);
        }
        Some(tabs)
    }

    /// A tab fills what is left of the line, with its leader.
    fn fill_line(&mut self, node: NodeId, tab: NodeId, leader: Option<Line>) {
        let mut rules: Rules = vec![
            (Property::Flex, Value::Css("1")),
            (Property::Margin, Value::Lengths(vec![Measure::Twips(0), Measure::Twips(80)])),
        ];
        let line = leader.map(|line| Border { line, width: 8, space: 0, colour: Colour::Auto });
        rules.extend(line.map(|line| (Property::BorderBottom, edge(&line))));
        self.add_rules(tab, "tab", rules);
        self.add_rules(node, "p", vec![(Property::Display, Value::Keyword("flex"))]);
    }

    /// What stands before, between and behind two tabs takes the left, the middle and the right of the line.
    fn part_line(&mut self, node: NodeId, middle: NodeId, end: NodeId) {
        let mut parts: [Vec<NodeId>; 3] = Default::default();
        let mut part = 0;
        for child in self.doc.children(node) {
            part += usize::from(child == middle || child == end);
            parts[part].push(child);
        }
        for (children, align) in parts.into_iter().zip(["left", "center", "right"]) {
            let holder = self.doc.create(Kind::Span);
            match children.first() {
                Some(&first) => self.doc.move_before(first, holder),
                None => {
                    let Some(first) = self.doc.node(node).first_child() else { continue };
                    // Nothing at the left takes its room all the same.
                    self.doc.append_text(holder, "\u{A0}");
                    self.doc.move_before(first, holder);
                }
            }
            for child in children {
                self.doc.move_into(holder, child);
            }
            self.add_rules(holder, "tab", vec![(Property::Flex, Value::Css("1")), (Property::TextAlign, Value::Keyword(align))]);
        }
        for tab in [middle, end] {
            self.doc.unwrap(tab);
        }
        self.add_rules(node, "p", vec![(Property::Display, Value::Keyword("flex"))]);
    }

    pub(super) fn style_box(&mut self, holder: NodeId) {
        if self.doc.kind(holder) == Kind::ThematicBreak {
            return;
        }
        let rules = vec![
            (Property::Border, Value::Css("1px solid #999999")),
            (Property::Padding, Value::Lengths(vec![Measure::Twips(80), Measure::Twips(140)])),
            (Property::Margin, Value::Lengths(vec![Measure::Twips(120), Measure::Twips(0)])),
        ];
        self.add_rules(holder, "box", rules);
    }
}

#[cfg(test)]
mod tests {
    use super::*;

    #[test]
    fn names_of_styles_make_classes() {
        for (name, class) in [("Intense Quote", "intense-quote"), ("1. Überschrift!", "style-1-berschrift"), ("本文", "style")]
        {
            assert_eq!(class_name(name), class);
        }
    }
}
