//! The styles of a document: the built-in ones, and those of its own classes.

use super::super::model::properties::{CharacterProperties, Names, ParagraphProperties};
use super::super::model::{from_style, print};
use super::super::printer::Printer;
use super::Writer;
use super::run::Script;
use super::style_table::{BuiltIn, STYLES, TABLE, TABLE_BASE, Use};
use super::template::Template;
use super::unique_names::UniqueNames;
use crate::document::{Document, NodeId, Property, StyleDefinition, StyleProperties, StyleUse, Value};
use crate::fast_hash::HashMap;
use crate::language_tag;

/// Names of styles and their ids have so many characters at most (section 17.7.4.9).
const LONGEST_NAME: usize = 253;

/// A style of the document's own.
#[derive(Clone, Debug)]
struct Own {
    id: String,
    name: String,
    of: Use,
    properties: StyleProperties,
}

/// What a class is to the document.
#[derive(Clone, Copy, Debug, Default)]
struct ClassRules {
    /// The place of its named style.
    named: Option<usize>,
    /// The place of the rule of a single place that it stands for: one without a name.
    nameless: Option<usize>,
    /// Whether it stands for a rule without a name, be that for the marker of an item.
    is_nameless: bool,
}

/// The styles of a document.
#[derive(Debug)]
pub(super) struct StyleSheet {
    own: Vec<Own>,
    ids: UniqueNames,
    rules: HashMap<String, ClassRules>,
    /// The ids of the styles of classes, by what they are for.
    paragraphs: HashMap<String, Option<String>>,
    characters: HashMap<String, Option<String>>,
}

impl StyleSheet {
    pub(super) fn of(doc: &Document, template: Option<&Template>) -> Self {
        let mut rules: HashMap<String, ClassRules> = HashMap::default();
        for (place, style) in doc.styles.iter().enumerate() {
            let rules = rules.entry(style.class.clone()).or_default();
            if !style.name.is_empty() {
                rules.named.get_or_insert(place);
                continue;
            }
            rules.is_nameless = true;
            if !style.of_marker {
                rules.nameless.get_or_insert(place);
            }
        }
        let mut ids = UniqueNames::default();
        let of_template = template.into_iter().flat_map(Template::ids);
        STYLES.iter().map(|known| known.id).chain(["TableNormal", "TableGridLight"]).chain(of_template).for_each(|id| {
            ids.take(id);
        });
        Self { own: Vec::new(), ids, rules, paragraphs: HashMap::default(), characters: HashMap::default() }
    }

    /// The id of the style of a class: one that is built in, by its name, or one of its own.
    fn of_class(&mut self, doc: &Document, class: &str, of: Use, template: Option<&Template>) -> Option<String> {
        let known = if of == Use::Character { &self.characters } else { &self.paragraphs };
        if let Some(known) = known.get(class) {
            return known.clone();
        }
        let rules = self.rules.get(class).copied().unwrap_or_default();
        let known = rules.named.and_then(|place| doc.styles.get(place));
        let name = known.map_or(class, |style| style.name.as_str());
        let built_in = STYLES.iter().find(|known| known.of == of && known.name.eq_ignore_ascii_case(name));
        let id = match (built_in, template.and_then(|template| template.id(of, name))) {
            _ if rules.is_nameless || name.trim().is_empty() => None,
            (Some(known), _) => Some(known.id.to_owned()),
            (None, Some(id)) => Some(id.to_owned()),
            (None, None) => {
                let end = if of == Use::Character { "Char" } else { "" };
                let mut stem: String = name.chars().filter(char::is_ascii_alphanumeric).take(LONGEST_NAME - end.len()).collect();
                if stem.is_empty() {
                    stem = "Style".to_owned();
                }
                let id = self.ids.unique(&(stem + end), LONGEST_NAME, "");
                let properties = known.map(|style| style.properties.clone()).unwrap_or_default();
                // Behind a comma or a semicolon another name of the style would begin.
                let name = name.replace([',', ';'], " ").chars().take(LONGEST_NAME).collect();
                self.own.push(Own { id: id.clone(), name, of, properties });
                Some(id)
            }
        };
        let known = if of == Use::Character { &mut self.characters } else { &mut self.paragraphs };
        known.insert(class.to_owned(), id.clone());
        id
    }

    /// The part: with a template its styles, and those that it lacks.
    pub(super) fn print(&self, doc: &Document, names: &mut Names, template: Option<&Template>) -> String {
        let mut out = Printer::default();
        for style in &STYLES {
            match template {
                Some(template) if template.id(style.of, style.name).is_some() => {}
                Some(template) => print_added(&mut out, style, template),
                None => print_style(&mut out, style, doc, names),
            }
        }
        for own in &self.own {
            out.open("w:style").attribute("w:type", if own.of == Use::Character { "character" } else { "paragraph" });
            out.attribute("w:customStyle", "1").attribute("w:styleId", &own.id);
            out.value("w:name", &own.name);
            let (id, name) =
                if own.of == Use::Character { ("DefaultParagraphFont", "Default Paragraph Font") } else { ("Normal", "Normal") };
            out.value("w:basedOn", template.and_then(|template| template.id(own.of, name)).unwrap_or(id));
            out.empty("w:qFormat");
            print_properties(&mut out, &own.properties, own.of, None, names);
            out.close();
        }
        let own = out.finish();
        match template {
            Some(template) => {
                let has = |id: &str| template.styles.contains(&format!("\"{id}\""));
                let table = match (has("TableGridLight"), has("TableNormal")) {
                    (true, _) => String::new(),
                    (false, true) => TABLE.to_owned(),
                    (false, false) => TABLE.replace("<w:basedOn w:val=\"TableNormal\"/>", ""),
                };
                template.styles_with(&(own + &table))
            }
            None => {
                let mut out = Printer::part("w:styles");
                print_defaults(&mut out, doc);
                out.raw(&own).raw(TABLE_BASE).raw(TABLE);
                out.finish()
            }
        }
    }
}

/// A style that a template lacks: what it is based on is the template's.
fn print_added(out: &mut Printer, style: &BuiltIn, template: &Template) {
    let base = STYLES.iter().find(|base| base.id == style.based_on).and_then(|base| template.id(base.of, base.name));
    let next = STYLES.iter().find(|next| next.id == style.next);
    let next = next.map_or("", |next| template.id(next.of, next.name).unwrap_or(next.id));
    let based_on = base.unwrap_or(style.based_on);
    // Its lists are not those of the template.
    let is_list = style.paragraph.starts_with("<w:numPr>");
    let paragraph = if is_list { style.paragraph.split_once("</w:numPr>").map_or("", |(_, rest)| rest) } else { style.paragraph };
    print_built_in(out, style, based_on, next);
    print_raw(out, paragraph, style.characters);
    out.close();
}

/// What all text has that says nothing else: fonts for its scripts, and its language.
fn print_defaults(out: &mut Printer, doc: &Document) {
    let language = doc.metadata.language.as_deref().unwrap_or_default();
    let script = Script::of(language);
    let lower = language.to_ascii_lowercase();
    let east = match lower.as_str() {
        _ if lower.starts_with("ja") => "Yu Gothic",
        _ if lower.starts_with("ko") => "Malgun Gothic",
        "zh-tw" | "zh-hk" | "zh-mo" => "Microsoft JhengHei",
        _ if lower.starts_with("zh-hant") => "Microsoft JhengHei",
        _ if lower.starts_with("zh") => "Microsoft YaHei",
        _ => "Calibri",
    };
    // A style without a class is that of the whole page.
    let page = doc.styles.iter().find(|style| style.class.is_empty()).map_or(&[][..], |style| &style.properties);
    let font = page.iter().find_map(|(property, value)| match (property, value) {
        (Property::FontFamily, Value::Fonts(fonts)) => fonts.first().map(String::as_str),
        _ => None,
    });
    let font = font.unwrap_or("Calibri");
    out.open("w:docDefaults").open("w:rPrDefault").open("w:rPr");
    out.open("w:rFonts").attribute("w:ascii", font).attribute("w:eastAsia", east).attribute("w:hAnsi", font);
    out.attribute("w:cs", if script == Script::Complex { "Arial" } else { font }).close();
    out.value("w:sz", "22").value("w:szCs", "22");
    if language_tag::is_well_formed(language) {
        out.open("w:lang");
        let slots = [("w:val", Script::Plain), ("w:eastAsia", Script::EastAsian), ("w:bidi", Script::Complex)];
        slots.into_iter().filter(|(_, of)| *of == script).for_each(|(slot, _)| {
            out.attribute(slot, language);
        });
        out.close();
    }
    out.close().close();
    out.raw("<w:pPrDefault><w:pPr><w:spacing w:after=\"140\" w:line=\"269\" w:lineRule=\"auto\"/></w:pPr></w:pPrDefault>")
        .close();
}

/// How the document defines a style of this name, where its looks were read.
fn definition_of<'d>(doc: &'d Document, name: &str, of: Use) -> Option<&'d StyleDefinition> {
    let wanted = if of == Use::Character { StyleUse::Character } else { StyleUse::Paragraph };
    doc.style_definitions
        .iter()
        .find(|known| known.applies_to == wanted && known.name.eq_ignore_ascii_case(name) && !known.properties.is_empty())
}

/// Prints what a style of the source sets.
fn print_properties(out: &mut Printer, properties: &StyleProperties, of: Use, outline: Option<u8>, names: &mut Names) {
    let (mut paragraph, mut characters) = (ParagraphProperties::default(), CharacterProperties::default());
    from_style::apply(properties, &mut paragraph, &mut characters, names);
    if of == Use::Paragraph {
        paragraph.outline = outline;
        paragraph.keep_next = outline.map(|_| true);
        print::paragraph(&paragraph, names, out);
    } else {
        // What a run has for its ground is what a paragraph has.
        characters.shade = paragraph.shade;
    }
    print::characters(&characters, names, out);
}

fn print_style(out: &mut Printer, style: &BuiltIn, doc: &Document, names: &mut Names) {
    print_built_in(out, style, style.based_on, style.next);
    match definition_of(doc, style.name, style.of) {
        Some(known) => {
            let outline = style.name.strip_prefix("heading ").and_then(|level| level.parse::<u8>().ok()).map(|level| level - 1);
            print_properties(out, &known.properties, style.of, outline, names);
        }
        None => print_raw(out, style.paragraph, style.characters),
    }
    out.close();
}

/// Begins a style that is built in.
fn print_built_in(out: &mut Printer, style: &BuiltIn, based_on: &str, next: &str) {
    out.open("w:style").attribute("w:type", if style.of == Use::Character { "character" } else { "paragraph" });
    if matches!(style.id, "Normal" | "DefaultParagraphFont") {
        out.attribute("w:default", "1");
    }
    out.attribute("w:styleId", style.id);
    out.value("w:name", style.name);
    if !based_on.is_empty() {
        out.value("w:basedOn", based_on);
    }
    if !next.is_empty() {
        out.value("w:next", next);
    }
    out.value_of("w:uiPriority", style.priority);
    out.empty(if style.is_offered { "w:qFormat" } else { "w:unhideWhenUsed" });
}

fn print_raw(out: &mut Printer, paragraph: &str, characters: &str) {
    if !paragraph.is_empty() {
        out.open("w:pPr").raw(paragraph).close();
    }
    if !characters.is_empty() {
        out.open("w:rPr").raw(characters).close();
    }
}

/// What is set at one place only.
#[derive(Debug, Default)]
pub(super) struct Direct {
    pub(super) paragraph: ParagraphProperties,
    pub(super) characters: CharacterProperties,
    /// Whether white space counts.
    pub(super) is_preformatted: bool,
}

impl Writer<'_> {
    /// The style of the first class of a node that has one.
    fn style_of_class(&mut self, id: NodeId, of: Use) -> Option<String> {
        if !self.doc.node(id).has_attributes() {
            return None;
        }
        let doc = self.doc;
        doc.attributes(id)
            .classes
            .iter()
            .find_map(|class| self.styles.of_class(doc, doc.text(*class), of, self.template.as_ref()))
    }

    pub(super) fn class_style(&mut self, id: NodeId) -> Option<String> {
        self.style_of_class(id, Use::Paragraph)
    }

    pub(super) fn class_of_text(&mut self, id: NodeId) -> Option<String> {
        self.style_of_class(id, Use::Character)
    }

    /// What the classes of a node set that no style has: the looks of single places.
    pub(super) fn direct(&mut self, id: NodeId) -> Option<Direct> {
        if self.doc.styles.is_empty() || !self.doc.node(id).has_attributes() {
            return None;
        }
        let doc = self.doc;
        let classes = &doc.attributes(id).classes;
        let mut direct = Direct::default();
        for class in classes {
            let rules = self.styles.rules.get(doc.text(*class));
            if let Some(style) = rules.and_then(|rules| doc.styles.get(rules.nameless?)) {
                from_style::apply(&style.properties, &mut direct.paragraph, &mut direct.characters, &mut self.names);
                let is_pre = |(property, value): &(Property, Value)| {
                    *property == Property::WhiteSpace && matches!(value, Value::Keyword(space) if space.starts_with("pre"))
                };
                direct.is_preformatted |= style.properties.iter().any(is_pre);
            }
        }
        Some(direct)
    }
}
