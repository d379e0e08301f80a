//! Looks: names of styles as classes, and rules that make a page look like the document. Each set of rules is one class.

use super::Reader;
use super::numbering::{Level, NumberFormat};
use super::properties::{
    Alignment, Border, Borders, CharacterProperties, Colour, Flag, Line, LineRule, ParagraphProperties, TabKind, Underline,
};
use super::styles::{Role, StyleKind, TablePart, TableStyle};
use super::tables::OpenTable;
use crate::document::{Kind, NamedStyle, NodeId, Text};
use std::collections::HashMap;

/// How much of the looks of a document is kept.
#[derive(Clone, Copy, Debug, Default, PartialEq, Eq)]
pub enum Looks {
    /// None: what they mean is in the structure.
    #[default]
    Semantic,
    /// The names of styles, as classes.
    Named,
    /// All that is needed to look like the source.
    Exact,
}

impl Looks {
    pub(super) const fn keeps_names(self) -> bool {
        !matches!(self, Self::Semantic)
    }

    pub(super) const fn is_exact(self) -> bool {
        matches!(self, Self::Exact)
    }
}

/// The distance of tab stops where a document sets none, in twips.
const DEFAULT_TAB: i32 = 720;

/// Declarations of a rule, in the order in which they are written.
type Rules = Vec<(&'static str, String)>;

/// What the looks of a paragraph depend on: its properties, what the table says of its characters, and whether it is in a list.
type ParagraphKey = (ParagraphProperties, Option<CharacterProperties>, bool);

/// What the looks of a cell depend on: itself without its node, and at which edges of the table it stands.
type CellKey = (Vec<TablePart>, Option<Colour>, Borders, Option<&'static str>, [bool; 4], i32);

/// The classes that were made so far.
#[derive(Debug, Default)]
pub(super) struct Wardrobe {
    /// The classes of styles, by the kind of style and its name.
    by_style: HashMap<(u8, String), String>,
    /// Classes of rules that no style has, by what they are for and their rules.
    by_rules: HashMap<(&'static str, Rules), String>,
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

impl Wardrobe {
    fn unique(&mut self, wanted: &str) -> String {
        let count = self.counts.entry(wanted.to_owned()).or_insert(0);
        *count += 1;
        if *count == 1 { wanted.to_owned() } else { format!("{wanted}-{count}") }
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
        if rules.is_empty() {
            return None;
        }
        let key = (purpose, rules);
        if let Some(known) = self.by_rules.get(&key) {
            return Some(known.clone());
        }
        let count = self.counts.entry(purpose.to_owned()).or_insert(0);
        *count += 1;
        let class = format!("{purpose}{count}");
        self.add("", &class, key.1.clone());
        self.by_rules.insert(key, class.clone());
        Some(class)
    }

    fn add(&mut self, name: &str, class: &str, rules: Rules) {
        let properties = rules.into_iter().map(|(property, value)| (property.to_owned(), value)).collect();
        self.rules.push(NamedStyle { name: name.to_owned(), class: class.to_owned(), properties });
    }

    /// All rules: those of styles before those of single places, which are to win.
    pub(super) fn into_styles(self) -> Vec<NamedStyle> {
        let (named, single): (Vec<_>, Vec<_>) = self.rules.into_iter().partition(|style| !style.name.is_empty());
        named.into_iter().chain(single).collect()
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

    /// Gives a span the classes of a set.
    pub(super) fn dress(&mut self, node: NodeId, set: u32) {
        for class in self.wardrobe.sets.get(set as usize).cloned().unwrap_or_default() {
            self.add_class(node, &class);
        }
    }

    /// The classes of a paragraph.
    pub(super) fn look_of_paragraph(&mut self, subject: &Subject, properties: &ParagraphProperties) {
        let style = self.styles.of_paragraph(properties.style);
        let (name, role, is_default) = (style.name.clone(), style.role, std::ptr::eq(style, self.styles.default_paragraph()));
        if !self.options.looks.is_exact() {
            // What the element says already needs no class.
            let said = is_default
                || name.is_empty()
                || matches!(role, Role::Title | Role::ListItem | Role::Contents)
                || (role == Role::Quote && name.eq_ignore_ascii_case("quote"))
                || (subject.heading && name.to_ascii_lowercase().starts_with("heading "))
                || role == Role::Code;
            if !said {
                let class = self.wardrobe.of_style(StyleKind::Paragraph, &name, Vec::new);
                let node =
                    if subject.in_list { self.doc.node(subject.node).parent().unwrap_or(subject.node) } else { subject.node };
                self.add_class(node, &class);
            }
            return;
        }
        let mut whole = properties.clone();
        (whole.mark, whole.keep_next, whole.outline) = (CharacterProperties::default(), None, None);
        let space = std::mem::take(&mut self.space_above);
        if space > 0 {
            whole.before = Some(whole.before.or(style.paragraph.before).or(self.styles.paragraph.before).unwrap_or(0) + space);
        }
        if std::mem::take(&mut self.page_break) {
            whole.page_break = Some(true);
        }
        let table = self.tables.last().filter(|_| self.context().in_cell).and_then(OpenTable::characters).copied();
        let key = (whole, table, subject.in_list);
        let (class, variant) = match self.wardrobe.paragraphs.get(&key) {
            Some(known) => known.clone(),
            None => {
                let made = self.classes_of_paragraph(&name, &key);
                self.wardrobe.paragraphs.insert(key, made.clone());
                made
            }
        };
        self.add_class(subject.node, &class);
        if let Some(variant) = variant {
            self.add_class(subject.node, &variant);
        }
        self.draw_together(subject.node, properties);
    }

    /// The class of the style of a paragraph, and the one of what differs from it.
    fn classes_of_paragraph(&mut self, name: &str, (properties, table, in_list): &ParagraphKey) -> (String, Option<String>) {
        let style = self.styles.of_paragraph(properties.style);
        let mut paragraph = self.styles.paragraph.clone();
        paragraph.override_with(&style.paragraph);
        let mut characters = self.styles.characters;
        characters.override_with(&style.characters);
        let of_style = self.paragraph_rules(&paragraph, &characters, false);
        paragraph.override_with(properties);
        // What stands in a cell has what the table says, too.
        let mut own = self.styles.characters;
        if let Some(table) = table {
            own.override_with(table);
        }
        own.override_with(&style.characters);
        let of_place = self.paragraph_rules(&paragraph, &own, *in_list);
        let delta = difference(&of_style, of_place);
        let class = self.wardrobe.of_style(StyleKind::Paragraph, if name.is_empty() { "normal" } else { name }, || of_style);
        (class, self.wardrobe.of_rules("p", delta))
    }

    /// Paragraphs of one style may follow each other without space (section 17.3.1.9).
    fn draw_together(&mut self, node: NodeId, properties: &ParagraphProperties) {
        let style = self.styles.of_paragraph(properties.style);
        let contextual = properties.contextual.or(style.paragraph.contextual).unwrap_or(false);
        let before = self.last_contextual.replace((node, properties.style, contextual));
        if let Some((last, style, true)) = before
            && contextual
            && style == properties.style
        {
            let below = self.wardrobe.of_rules("p", vec![("margin-bottom", "0".to_owned())]);
            let above = self.wardrobe.of_rules("p", vec![("margin-top", "0".to_owned())]);
            if let (Some(below), Some(above)) = (below, above) {
                self.add_class(last, &below);
                self.add_class(node, &above);
            }
        }
    }

    /// The height of a line of a paragraph, in twips.
    pub(super) fn line_height(&self, properties: &ParagraphProperties, base: &CharacterProperties) -> i32 {
        let size = i32::from(base.size.unwrap_or(20)) * 10;
        let style = self.styles.of_paragraph(properties.style);
        let line = properties.line.or(style.paragraph.line).or(self.styles.paragraph.line);
        match line {
            Some((line, LineRule::Lines)) => size * 12 / 10 * line / 240,
            Some((line, _)) => line,
            None => size * 12 / 10,
        }
    }

    fn paragraph_rules(&self, paragraph: &ParagraphProperties, characters: &CharacterProperties, in_list: bool) -> Rules {
        let mut rules: Rules = Vec::new();
        let rtl = paragraph.right_to_left == Some(true);
        let (start, end) = if rtl { ("margin-right", "margin-left") } else { ("margin-left", "margin-right") };
        rules.push(("margin-top", points(paragraph.before.unwrap_or(0))));
        rules.push(("margin-bottom", points(paragraph.after.unwrap_or(0))));
        if in_list {
            rules.push((start, "0".to_owned()));
            rules.push(("text-indent", "0".to_owned()));
        } else {
            rules.push((start, points(paragraph.indent_start.unwrap_or(0))));
            rules.push(("text-indent", points(paragraph.first_line.unwrap_or(0))));
        }
        rules.push((end, points(paragraph.indent_end.unwrap_or(0))));
        rules.push((
            "line-height",
            match paragraph.line {
                Some((line, LineRule::Lines)) => trimmed(f64::from(line) / 240.0 * 1.2),
                Some((line, _)) => points(line),
                None => "1.2".to_owned(),
            },
        ));
        let align = match (paragraph.alignment, rtl) {
            (Some(Alignment::Center), _) => "center",
            (Some(Alignment::Justify), _) => "justify",
            (Some(Alignment::End), false) | (None | Some(Alignment::Start), true) => "right",
            _ => "left",
        };
        rules.push(("text-align", align.to_owned()));
        if let Some(Colour::Rgb(colour)) = paragraph.shade {
            rules.push(("background-color", hex(colour)));
        }
        border_rules(&mut rules, &paragraph.borders, true);
        if paragraph.page_break == Some(true) {
            rules.push(("break-before", "page".to_owned()));
        }
        tab_rules(&mut rules, paragraph);
        self.character_rules(&mut rules, characters);
        rules
    }

    fn character_rules(&self, rules: &mut Rules, characters: &CharacterProperties) {
        let flags = characters.flags;
        if let Some(font) = characters.font {
            rules.push(("font-family", family(self.names.name(font))));
        }
        rules.push(("font-size", format!("{}pt", trimmed(f64::from(characters.size.unwrap_or(20)) / 2.0))));
        rules.push(("font-weight", if flags.is(Flag::Bold) { "bold" } else { "normal" }.to_owned()));
        rules.push(("font-style", if flags.is(Flag::Italic) { "italic" } else { "normal" }.to_owned()));
        if let Some(Colour::Rgb(colour)) = characters.colour {
            rules.push(("color", hex(colour)));
        }
        if flags.is(Flag::Capitals) {
            rules.push(("text-transform", "uppercase".to_owned()));
        }
        if flags.is(Flag::SmallCapitals) {
            rules.push(("font-variant", "small-caps".to_owned()));
        }
        if let Some(spacing) = characters.spacing.filter(|spacing| *spacing != 0) {
            rules.push(("letter-spacing", points(spacing.into())));
        }
        if let Some(position) = characters.position.filter(|position| *position != 0) {
            rules.push(("position", "relative".to_owned()));
            rules.push(("bottom", format!("{}pt", trimmed(f64::from(position) / 2.0))));
        }
        if let Some(Colour::Rgb(colour)) = characters.highlight {
            rules.push(("background-color", hex(colour)));
        } else if let Some(Colour::Rgb(colour)) = characters.shade {
            rules.push(("background-color", hex(colour)));
        }
        let line = match characters.underline {
            Some(Underline::Double) => "underline double",
            Some(Underline::Thick) => "underline solid 2px",
            Some(Underline::Dotted) => "underline dotted",
            Some(Underline::Dashed) => "underline dashed",
            Some(Underline::Wavy) => "underline wavy",
            Some(Underline::Solid) => "underline",
            Some(Underline::None) | None => "",
        };
        if !line.is_empty() {
            rules.push(("text-decoration", line.to_owned()));
        }
        if let Some(border) = characters.border.filter(|border| border.line != Line::None) {
            rules.push(("border", edge(&border)));
        }
    }

    /// The set of classes of the run that is being read.
    pub(super) fn look_of_run(&mut self) -> Option<u32> {
        let base = self.context().paragraph.as_ref().map_or(self.styles.characters, |paragraph| paragraph.base);
        let key = (self.run.direct, base);
        if let Some(known) = self.wardrobe.runs.get(&key) {
            return *known;
        }
        let set = self.classes_of_run();
        self.wardrobe.runs.insert(key, set);
        set
    }

    fn classes_of_run(&mut self) -> Option<u32> {
        let (direct, whole) = (self.run.direct, self.run.whole);
        let exact = self.options.looks.is_exact();
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
                let mut rules = Vec::new();
                if exact {
                    let nothing = {
                        let mut rules = Vec::new();
                        self.character_rules(&mut rules, &CharacterProperties::default());
                        rules
                    };
                    self.character_rules(&mut rules, &own);
                    rules = difference(&nothing, rules);
                }
                classes.push(self.wardrobe.of_style(StyleKind::Character, &name, || rules));
            }
        }
        if exact {
            let base = self.context().paragraph.as_ref().map_or(self.styles.characters, |paragraph| paragraph.base);
            let mut around = base;
            if let Some(style) = self.character_style(direct.style) {
                around.combine_with(&style.characters);
            }
            if around != whole {
                let (mut before, mut now) = (Vec::new(), Vec::new());
                self.character_rules(&mut before, &around);
                self.character_rules(&mut now, &whole);
                // Elements say these.
                let mut delta = difference(&before, now);
                delta.retain(|(property, value)| match (*property, value.as_str()) {
                    ("font-weight", "bold") | ("font-style", "italic") | ("text-decoration", "underline") => false,
                    ("font-weight" | "font-style", _) => true,
                    _ => true,
                });
                classes.extend(self.wardrobe.of_rules("t", delta));
            }
        }
        if classes.is_empty() {
            return None;
        }
        if let Some(&known) = self.wardrobe.set_places.get(&classes) {
            return Some(known);
        }
        let place = self.wardrobe.sets.len() as u32;
        self.wardrobe.sets.push(classes.clone());
        self.wardrobe.set_places.insert(classes, place);
        Some(place)
    }

    /// The marks of a list, where HTML has no word for them, and how far it is set in from what it stands in.
    pub(super) fn look_of_list(&mut self, node: NodeId, level: &Level, indent: i32) {
        let mut rules: Rules = Vec::new();
        if let NumberFormat::Other(style) = level.format {
            rules.push(("list-style-type", style.to_owned()));
        } else if level.format == NumberFormat::TwoDigits {
            rules.push(("list-style-type", "decimal-leading-zero".to_owned()));
        }
        if self.options.looks.is_exact() {
            if level.format == NumberFormat::Bullet {
                let mark =
                    level.characters.font.and_then(|font| super::symbols::table(self.names.name(font))).and_then(|table| {
                        let code = level.text.chars().next()? as u32;
                        table.get(u8::try_from(code & 0xFF).ok()?)
                    });
                let mark = mark.or_else(|| level.text.chars().next());
                rules.push((
                    "list-style-type",
                    match mark {
                        Some('o' | '○' | '◯' | '◦') => "circle".to_owned(),
                        Some('■' | '▪' | '◾' | '□') => "square".to_owned(),
                        _ => "disc".to_owned(),
                    },
                ));
            }
            rules.push(("margin", "0".to_owned()));
            rules.push(("padding-left", points(indent.clamp(300, 4000))));
        }
        if let Some(class) = self.wardrobe.of_rules("list", rules) {
            self.add_class(node, &class);
        }
    }

    /// The name of a table's style.
    pub(super) fn look_of_table(&mut self) {
        let Some(table) = self.tables.last() else { return };
        let node = table.node;
        let Some(style) = self.styles.get(table.style, StyleKind::Table) else { return };
        let name = style.name.clone();
        if !name.is_empty() && !name.eq_ignore_ascii_case("normal table") {
            let class = self.wardrobe.of_style(StyleKind::Table, &name, Vec::new);
            self.add_class(node, &class);
        }
    }

    /// Borders, grounds and widths of a table and its cells, once all of it is known.
    pub(super) fn finish_table_look(&mut self, table: &OpenTable) {
        let style = self.styles.of_table(table.style).and_then(|style| style.table.clone()).unwrap_or_default();
        let mut borders = style.whole.borders;
        borders.override_with(&table.borders);
        let mut rules: Rules = vec![("border-collapse", "collapse".to_owned()), ("border-spacing", "0".to_owned())];
        match table.width {
            Some((width, true)) => rules.push(("width", format!("{}%", trimmed(f64::from(width) / 50.0)))),
            Some((width, false)) => rules.push(("width", points(width))),
            None if table.grid.iter().sum::<i32>() > 0 => rules.push(("width", points(table.grid.iter().sum()))),
            None => {}
        }
        rules.push((
            "margin",
            match table.alignment {
                Some(Alignment::Center) => "0 auto".to_owned(),
                Some(Alignment::End) => "0 0 0 auto".to_owned(),
                _ => format!("0 0 0 {}", points(table.indent)),
            },
        ));
        if let Some(class) = self.wardrobe.of_rules("table", rules) {
            self.add_class(table.node, &class);
        }
        for cell in &table.cells {
            if self.doc.node(cell.node).parent().is_none() {
                continue;
            }
            let edges =
                [cell.row == 0, cell.row + 1 >= table.rows, cell.column == 0, cell.column + cell.span >= table.most_columns];
            let width = if cell.row == 0 { table.grid.iter().skip(cell.column).take(cell.span).sum() } else { 0 };
            let key = (cell.parts.clone(), cell.shade, cell.borders, cell.vertical, edges, width);
            let class = match self.wardrobe.cells.get(&key) {
                Some(known) => known.clone(),
                None => {
                    let rules = cell_rules(&key, table.look.last_row, &style, &borders);
                    let class = self.wardrobe.of_rules("cell", rules);
                    self.wardrobe.cells.insert(key, class.clone());
                    class
                }
            };
            if let Some(class) = class {
                self.add_class(cell.node, &class);
            }
        }
        // Another table has other borders and another style.
        self.wardrobe.cells.clear();
    }

    /// The measure and the letters of the page.
    pub(super) fn look_of_page(&mut self) {
        let (width, left, right) = self.page;
        let measure = width.unwrap_or(11_906) - left.unwrap_or(1440) - right.unwrap_or(1440);
        let mut rules: Rules = vec![
            ("max-width", points(measure.clamp(2000, 30_000))),
            ("margin", "0 auto".to_owned()),
            ("padding", format!("{} 16pt", points(720))),
        ];
        let mut characters = self.styles.characters;
        characters.override_with(&self.styles.default_paragraph().characters);
        self.character_rules(&mut rules, &characters);
        let properties = rules.into_iter().map(|(property, value)| (property.to_owned(), value)).collect();
        self.wardrobe.rules.insert(0, NamedStyle { name: "page".to_owned(), class: String::new(), properties });
    }

    /// A large first letter stands beside the lines of its paragraph.
    pub(super) fn look_of_capital(&mut self, node: NodeId) {
        let rules = vec![("float", "left".to_owned()), ("line-height", "0.85".to_owned()), ("margin-right", "3pt".to_owned())];
        let Some(class) = self.wardrobe.of_rules("capital", rules) else { return };
        let span = self.doc.create(Kind::Span);
        self.doc.move_children(node, span);
        self.doc.move_into(node, span);
        self.add_class(span, &class);
    }

    /// A quote or a figure has no margins but those of what it holds.
    pub(super) fn without_margins(&mut self, node: NodeId) {
        if let Some(class) = self.wardrobe.of_rules("holder", vec![("margin", "0".to_owned())]) {
            self.add_class(node, &class);
        }
    }

    /// Tabs of a paragraph: one that leads to the right margin fills the line; others go to stops at equal distances.
    pub(super) fn look_of_tabs(&mut self, node: NodeId, properties: &ParagraphProperties) {
        let mut whole = self.styles.of_paragraph(properties.style).paragraph.clone();
        whole.override_with(properties);
        let texts: Vec<(NodeId, Text)> = self
            .doc
            .children(node)
            .filter_map(|child| match self.doc.kind(child) {
                Kind::Text(text) if self.doc.text(text).contains('\t') => Some((child, text)),
                _ => None,
            })
            .collect();
        let right = whole.tabs.iter().rev().find(|stop| stop.kind == TabKind::Right);
        let breaks = self.doc.children(node).any(|child| self.doc.kind(child) == Kind::LineBreak);
        if let (Some(stop), [(child, text)], false) = (right, texts.as_slice(), breaks)
            && let words = self.doc.text(*text).to_owned()
            && let Some((before, after)) = words.split_once('\t').filter(|(_, after)| !after.contains('\t'))
        {
            let line = stop.leader.map(|line| Border { line, width: 8, space: 0, colour: Colour::Auto });
            let mut rules: Rules = vec![("flex", "1".to_owned()), ("margin", "0 4pt".to_owned())];
            rules.extend(line.map(|line| ("border-bottom", edge(&line))));
            let (before, after) = (before.to_owned(), after.to_owned());
            let rest = self.doc.intern(&after);
            let rest = self.doc.create(Kind::Text(rest));
            let tab = self.doc.create(Kind::Span);
            self.doc.append_text(tab, "\t");
            self.doc.move_after(*child, rest);
            self.doc.move_after(*child, tab);
            let before = self.doc.intern(&before);
            self.doc.set_kind(*child, Kind::Text(before));
            if let Some(class) = self.wardrobe.of_rules("tab", rules) {
                self.add_class(tab, &class);
            }
            for empty in [*child, rest] {
                if matches!(self.doc.kind(empty), Kind::Text(text) if text.is_empty()) {
                    self.doc.detach(empty);
                }
            }
            if let Some(class) = self.wardrobe.of_rules("p", vec![("display", "flex".to_owned())]) {
                self.add_class(node, &class);
            }
        } else if !breaks {
            let mut rules: Rules = vec![("white-space", "pre-wrap".to_owned())];
            if whole.tabs.is_empty() {
                rules.push(("tab-size", points(DEFAULT_TAB)));
            }
            if let Some(class) = self.wardrobe.of_rules("p", rules) {
                self.add_class(node, &class);
            }
        }
    }

    pub(super) fn look_of_box(&mut self, holder: NodeId) {
        if self.doc.kind(holder) == Kind::ThematicBreak {
            return;
        }
        let rules =
            vec![("border", "1px solid #999999".to_owned()), ("padding", "4pt 7pt".to_owned()), ("margin", "6pt 0".to_owned())];
        if let Some(class) = self.wardrobe.of_rules("box", rules) {
            self.add_class(holder, &class);
        }
    }
}

fn cell_rules(key: &CellKey, shows_last_row: bool, style: &TableStyle, borders: &Borders) -> Rules {
    let (parts, ground, lines, vertical, [first_row, last_row, first_column, last_column], width) = key;
    let mut own = Borders {
        top: if *first_row { borders.top } else { borders.between },
        bottom: if *last_row { borders.bottom } else { borders.between },
        left: if *first_column { borders.left } else { borders.columns },
        right: if *last_column { borders.right } else { borders.columns },
        ..Borders::default()
    };
    let (mut shade, mut rules): (Option<Colour>, Rules) = (style.whole.shade, Vec::new());
    let last = [TablePart::LastRow].into_iter().filter(|_| shows_last_row && *last_row && !first_row);
    for part in parts.iter().copied().chain(last) {
        if let Some(look) = style.part(part) {
            own.override_with(&look.borders);
            shade = look.shade.or(shade);
        }
    }
    own.override_with(lines);
    (own.between, own.columns) = (None, None);
    shade = ground.or(shade);
    border_rules(&mut rules, &own, false);
    if let Some(Colour::Rgb(colour)) = shade {
        rules.push(("background-color", hex(colour)));
    }
    let [top, right, bottom, left] = style.margins;
    let sides = [top.unwrap_or(0), right.unwrap_or(108), bottom.unwrap_or(0), left.unwrap_or(108)];
    rules.push(("padding", sides.map(points).join(" ")));
    rules.push(("vertical-align", vertical.unwrap_or("top").to_owned()));
    if *width > 0 {
        rules.push(("width", points(*width)));
    }
    rules
}

/// What is in the second set of rules and not in the first; what only the first has is taken back.
fn difference(before: &Rules, now: Rules) -> Rules {
    let mut out: Rules = Vec::new();
    for (property, _) in before.iter().filter(|(property, _)| !now.iter().any(|(known, _)| known == property)) {
        let value = match *property {
            "color" => "inherit",
            "background-color" => "transparent",
            "letter-spacing" => "normal",
            "border-top" | "border-right" | "border-bottom" | "border-left" | "border" => "none",
            "padding-top" | "padding-right" | "padding-bottom" | "padding-left" | "bottom" => "0",
            "break-before" => "auto",
            "text-transform" | "text-decoration" => "none",
            "font-variant" | "white-space" => "normal",
            "position" => "static",
            _ => continue,
        };
        out.push((property, value.to_owned()));
    }
    out.extend(now.into_iter().filter(|rule| !before.contains(rule)));
    out
}

fn border_rules(rules: &mut Rules, borders: &Borders, spaced: bool) {
    let sides = [
        ("border-top", "padding-top", borders.top),
        ("border-right", "padding-right", borders.right),
        ("border-bottom", "padding-bottom", borders.bottom),
        ("border-left", "padding-left", borders.left),
    ];
    for (line, space, border) in sides {
        let Some(border) = border.filter(|border| border.line != Line::None) else { continue };
        rules.push((line, edge(&border)));
        if spaced && border.space > 0 {
            rules.push((space, format!("{}pt", border.space)));
        }
    }
}

fn edge(border: &Border) -> String {
    let line = match border.line {
        Line::None => "none",
        Line::Solid => "solid",
        Line::Double => "double",
        Line::Dotted => "dotted",
        Line::Dashed => "dashed",
    };
    let width = match f64::from(border.width) / 8.0 {
        width if border.line == Line::Double => (width * 3.0).max(2.25),
        width => width.max(0.5),
    };
    let colour = match border.colour {
        Colour::Rgb(colour) => hex(colour),
        Colour::Auto => "#000000".to_owned(),
    };
    format!("{}pt {line} {colour}", trimmed(width))
}

/// Tabs go to stops at equal distances; those of the document are kept where they are such.
fn tab_rules(rules: &mut Rules, paragraph: &ParagraphProperties) {
    let stops: Vec<_> = paragraph.tabs.iter().filter(|stop| stop.kind != TabKind::Clear && stop.at > 0).collect();
    if let Some(first) = stops.first() {
        rules.push(("tab-size", points(first.at)));
    }
}

fn points(twips: i32) -> String {
    if twips == 0 { "0".to_owned() } else { format!("{}pt", trimmed(f64::from(twips) / 20.0)) }
}

fn trimmed(number: f64) -> String {
    let text = format!("{number:.2}");
    text.trim_end_matches('0').trim_end_matches('.').to_owned()
}

fn hex(colour: u32) -> String {
    format!("#{colour:06x}")
}

/// A font, and the family that stands in for it.
fn family(font: &str) -> String {
    let lower = font.to_ascii_lowercase();
    let is = |names: &[&str]| names.iter().any(|name| lower.contains(name));
    let generic = if is(&["courier", "mono", "consolas", "menlo", "console", "typewriter"]) {
        "monospace"
    } else if is(&[
        "times",
        "serif",
        "georgia",
        "garamond",
        "cambria",
        "roman",
        "palatino",
        "bookman",
        "book antiqua",
        "mincho",
        "song",
        "ming",
    ]) && !is(&["sans"])
    {
        "serif"
    } else {
        "sans-serif"
    };
    let name: String = font.chars().filter(|c| c.is_alphanumeric() || matches!(c, ' ' | '-' | '.')).collect();
    format!("\"{}\", {generic}", name.trim())
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

    #[test]
    fn only_what_differs_is_written() {
        let rules =
            |list: &[(&'static str, &str)]| list.iter().map(|(name, value)| (*name, (*value).to_owned())).collect::<Rules>();
        let before = rules(&[("color", "#ff0000"), ("font-size", "11pt")]);
        assert_eq!(difference(&before, rules(&[("font-size", "12pt")])), rules(&[("color", "inherit"), ("font-size", "12pt")]));
        assert_eq!(difference(&before, before.clone()), Rules::new());
    }
}
