//! The styles of pages that were made here of documents with styles: their classes stand for styles again.

use super::css_values::{Declared, Sizes, USUAL_SIZE, font_size};
use super::element_state::{ParseState, Role};
use super::style_rules::{Declaration, Sheet, Wanted};
use crate::document::{
    Document, Kind, Measure, NamedStyle, NodeId, Property, STYLE_NAME, Section, StyleDefinition, StyleProperties, StyleUse,
    Value, style_name_of_class,
};
use crate::fast_hash::{HashMap, HashSet};
use html5ever::tendril::StrTendril;

/// Classes of the designs around pages, which are not of documents.
const OF_DESIGNS: [&str; 9] = ["all", "beside", "contents", "page", "parts", "skip", "turn", "way", "with-contents"];

/// What the classes of single places begin with; a number follows.
const OF_PLACES: [&str; 17] = [
    "box", "capital", "cell", "center", "columns", "flex", "holder", "joined", "list", "marker", "p", "picture", "part", "row",
    "t", "tab", "table",
];

/// The width and the height of usual sheets, in twips.
const SHEET: (i32, i32) = (11_906, 16_838);

/// What a page says of the styles of its document.
pub(super) struct OwnStyles {
    styles: Vec<NamedStyle>,
    definitions: Vec<StyleDefinition>,
    section: Option<Section>,
}

/// Whether a class stands for the looks of single places, and not for a style with a name.
fn is_of_places(class: &str) -> bool {
    let stem = class.trim_end_matches(|c: char| c.is_ascii_digit());
    stem.len() < class.len() && OF_PLACES.contains(&stem)
}

/// Reads the rules for classes that something in the page has.
pub(super) fn read(doc: &Document, state: &ParseState) -> OwnStyles {
    let mut sheet = Sheet::new(Wanted { keeps: |_| true, conditions: false });
    for &element in &state.style_elements {
        sheet.add(&doc.plain_text(element));
    }
    let mut kinds: HashMap<&str, Kind> = HashMap::default();
    let mut of_items: HashSet<&str> = HashSet::default();
    // Notes are items of a list on a page only.
    let is_item = |node: NodeId| {
        let item = doc.node(node).parent().filter(|&above| matches!(doc.kind(above), Kind::ListItem { .. }));
        item.is_some_and(|item| {
            state.roles.is_empty() || !doc.ancestors(item).any(|above| state.roles.get(&above) == Some(&Role::Notes))
        })
    };
    for input in &state.selector_inputs {
        for class in input.classes.as_ref().map(StrTendril::as_ref).unwrap_or_default().split_ascii_whitespace() {
            kinds.entry(class).or_insert_with(|| doc.kind(input.node));
            if is_item(input.node) {
                of_items.insert(class);
            }
        }
    }
    let mut found = OwnStyles { styles: Vec::new(), definitions: Vec::new(), section: None };
    let mut places: HashMap<&str, usize> = HashMap::default();
    for rule in &sheet.rules {
        let Some(class) = rule.class() else { continue };
        let body = &sheet.bodies[rule.body];
        if class.is_empty() {
            // The rule for the text of the page, and not one of the design around it.
            if body.iter().any(|one| one.name == "max-width") && body.iter().any(|one| one.name == "font-family") {
                found.add_page(properties(body));
            }
            continue;
        }
        let Some(kind) = kinds.get(class).copied().filter(|_| !OF_DESIGNS.contains(&class) && !class.starts_with("code-")) else {
            continue;
        };
        let mut properties = properties(body);
        if of_items.contains(class) {
            // Where items stand is for their lists to say.
            properties.retain(|(property, _)| !matches!(property, Property::MarginLeft | Property::TextIndent));
        }
        if let Some(&place) = places.get(class) {
            found.styles[place].properties = properties;
            continue;
        }
        places.insert(class, found.styles.len());
        found.add(class, kind, properties, body);
    }
    // Styles that set nothing have no rule.
    let mut others: Vec<(&str, Kind)> = kinds.into_iter().filter(|(class, _)| !places.contains_key(class)).collect();
    others.retain(|(class, kind)| {
        let has_style = matches!(kind, Kind::Paragraph | Kind::Heading(_) | Kind::Span | Kind::Table);
        has_style && !is_of_places(class) && !OF_DESIGNS.contains(class) && !class.starts_with("code-")
    });
    others.sort_unstable_by_key(|(class, _)| *class);
    for (class, kind) in others {
        found.add(class, kind, StyleProperties::new(), &[]);
    }
    found
}

/// What declarations set.
fn properties(body: &[Declaration]) -> StyleProperties {
    let size = body.iter().find(|one| one.name == "font-size").and_then(|one| font_size(&one.value, USUAL_SIZE, USUAL_SIZE));
    let mut declared = Declared::default();
    if let Some(size) = size {
        declared.set_size(size);
    }
    for declaration in body.iter().filter(|one| !one.name.starts_with("--")) {
        declared.set(&declaration.name, declaration.written(), Sizes { font: size.unwrap_or(USUAL_SIZE), root: USUAL_SIZE });
    }
    declared.finish().properties
}

/// The text of a string of a style sheet (CSS Syntax, section 4.3.5).
fn string(value: &str) -> Option<String> {
    match cssparser::Parser::new(value).next() {
        Ok(cssparser::Token::QuotedString(text)) => Some((**text).to_owned()),
        _ => None,
    }
}

impl OwnStyles {
    fn add(&mut self, class: &str, kind: Kind, properties: StyleProperties, body: &[Declaration]) {
        if is_of_places(class) {
            self.styles.push(NamedStyle { class: class.to_owned(), properties, ..NamedStyle::default() });
            return;
        }
        let said = body.iter().find(|one| one.name == STYLE_NAME).and_then(|one| string(one.written()));
        let name = said.unwrap_or_else(|| style_name_of_class(class));
        self.styles.push(NamedStyle {
            name: name.clone(),
            class: class.to_owned(),
            properties: properties.clone(),
            ..NamedStyle::default()
        });
        let applies_to = match kind {
            Kind::Table => StyleUse::Table,
            kind if kind.is_inline() => StyleUse::Character,
            _ => StyleUse::Paragraph,
        };
        let outline_level = if let Kind::Heading(level) = kind { Some(level) } else { None };
        let id = class.to_owned();
        self.definitions.push(StyleDefinition { id, name, applies_to, outline_level, properties, ..StyleDefinition::default() });
    }

    /// The looks of the page, whose text is as wide as it is on a sheet.
    fn add_page(&mut self, properties: StyleProperties) {
        let width = properties.iter().find_map(|(property, value)| match (property, value) {
            (Property::MaxWidth, Value::Length(Measure::Twips(twips))) => Some(*twips),
            _ => None,
        });
        if let Some(width) = width.filter(|width| (4000..11_000).contains(width)) {
            let side = (SHEET.0 - width) / 2;
            self.section =
                Some(Section { page: SHEET, margins: [1418, SHEET.0 - width - side, 1418, side], ..Section::default() });
        }
        self.styles.retain(|style| !style.class.is_empty());
        self.styles.insert(0, NamedStyle { name: "page".to_owned(), properties, ..NamedStyle::default() });
    }

    /// Makes them styles of the document.
    pub(super) fn put_into(self, doc: &mut Document) {
        doc.styles.extend(self.styles);
        doc.style_definitions.extend(self.definitions);
        doc.sections.extend(self.section);
    }
}
