//! The styles of a document: the built-in ones, and those of its own classes.

use super::super::model::properties::{self, CharacterProperties, LineRule, Names, ParagraphProperties, Vocabulary};
use super::super::model::theme::Theme;
use super::super::model::{from_style, print};
use super::super::printer::Printer;
use super::super::xml::Xml;
use super::Writer;
use super::run::Script;
use super::style_table::{BuiltIn, PLAIN_TABLE, STYLES, TABLE, TABLE_BASE, Use};
use super::template::Template;
use super::unique_names::UniqueNames;
use crate::document::{Document, NodeId, Property, StyleDefinition, StyleProperties, StyleUse, Text, Value};
use crate::fast_hash::HashMap;
use crate::language_tag;
use smallvec::SmallVec;

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
    tables: HashMap<String, Option<String>>,
    /// Whether a table has lines of its own.
    has_plain_tables: bool,
    /// The places of the definitions of the document, by their use and their names in lower case.
    definitions: HashMap<(StyleUse, String), usize>,
    /// Whether a program made them.
    pub(super) is_of_program: bool,
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
            // Word processors join the lines of paragraphs themselves.
            if !style.of_marker && !style.class.starts_with(super::super::JOINED) {
                rules.nameless.get_or_insert(place);
            }
        }
        let mut ids = UniqueNames::default();
        let of_template = template.into_iter().flat_map(Template::ids);
        STYLES.iter().map(|known| known.id).chain(["TableNormal", "TableGridLight", "TablePlain"]).chain(of_template).for_each(
            |id| {
                ids.take(id);
            },
        );
        Self {
            own: Vec::new(),
            ids,
            rules,
            paragraphs: HashMap::default(),
            characters: HashMap::default(),
            tables: HashMap::default(),
            has_plain_tables: false,
            definitions: definitions(doc),
            is_of_program: doc.style_definitions.iter().any(|known| !known.id.is_empty()),
        }
    }

    /// Whether the document has the looks of a word processor's, which says what it does not want as well.
    pub(super) fn has_page_of_program(doc: &Document) -> bool {
        doc.styles.iter().any(|style| style.class.is_empty() && !style.name.is_empty())
    }

    /// Whether a class stands for a named style that the document describes.
    fn is_described(&self, class: &str) -> bool {
        self.rules.get(class).is_some_and(|rules| rules.named.is_some())
    }

    /// Whether a class stands for a style that a program defined for headings.
    pub(super) fn is_heading(&self, doc: &Document, class: &str) -> bool {
        let named = self.rules.get(class).and_then(|rules| doc.styles.get(rules.named?));
        named.and_then(|style| self.definition_of(doc, &style.name, Use::Paragraph)).is_some_and(|known| !known.id.is_empty())
    }

    /// The id of the style of a class: one that is built in, by its name, or one of its own.
    fn of_class(&mut self, doc: &Document, class: &str, of: Use, template: Option<&Template>) -> Option<String> {
        if let Some(known) = self.known(of).get(class) {
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
                let end = match of {
                    Use::Paragraph => "",
                    Use::Character => "Char",
                    Use::Table => "Table",
                };
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
        self.known(of).insert(class.to_owned(), id.clone());
        id
    }

    /// The ids of the styles of classes for such a use.
    const fn known(&mut self, of: Use) -> &mut HashMap<String, Option<String>> {
        match of {
            Use::Paragraph => &mut self.paragraphs,
            Use::Character => &mut self.characters,
            Use::Table => &mut self.tables,
        }
    }

    /// How the document defines a style of this name, where its looks were read.
    pub(super) fn definition_of<'d>(&self, doc: &'d Document, name: &str, of: Use) -> Option<&'d StyleDefinition> {
        let wanted = match of {
            Use::Paragraph => StyleUse::Paragraph,
            Use::Character => StyleUse::Character,
            Use::Table => StyleUse::Table,
        };
        doc.style_definitions.get(*self.definitions.get(&(wanted, name.to_lowercase()))?)
    }

    /// What the document sets for a built-in style, by its id.
    pub(super) fn defined<'d>(&self, doc: &'d Document, id: &str) -> Option<&'d StyleProperties> {
        let known = STYLES.iter().find(|known| known.id == id)?;
        self.definition_of(doc, known.name, known.of).map(|known| &known.properties)
    }

    /// The part: with a template its styles, and those that it lacks.
    pub(super) fn print(&self, doc: &Document, names: &mut Names, template: Option<&Template>) -> String {
        let mut out = Printer::default();
        for style in &STYLES {
            match template {
                Some(template) if template.id(style.of, style.name).is_some() => {}
                Some(template) => print_added(&mut out, style, template),
                None => print_style(&mut out, style, self.definition_of(doc, style.name, style.of), names),
            }
        }
        for own in &self.own {
            out.open("w:style").attribute("w:type", own.of.kind());
            // Word processors know the name themselves.
            if !own.name.eq_ignore_ascii_case("body text") {
                out.attribute("w:customStyle", "1");
            }
            out.attribute("w:styleId", &own.id);
            out.value("w:name", &own.name);
            if own.of == Use::Table {
                // Its lines are said where its tables are.
                out.value("w:basedOn", "TablePlain").value("w:uiPriority", "40").close();
                continue;
            }
            let (id, name) =
                if own.of == Use::Character { ("DefaultParagraphFont", "Default Paragraph Font") } else { ("Normal", "Normal") };
            out.value("w:basedOn", template.and_then(|template| template.id(own.of, name)).unwrap_or(id));
            out.empty("w:qFormat");
            let known = self.definition_of(doc, &own.name, own.of).and_then(|known| known.outline_level);
            let outline = known.and_then(|level| level.checked_sub(1)).filter(|level| *level < 9);
            print_properties(&mut out, Default::default(), &own.properties, own.of, outline, names);
            out.close();
        }
        if self.has_plain_tables {
            out.raw(PLAIN_TABLE);
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
                let own = if has("TableNormal") { own } else { own.replace("<w:basedOn w:val=\"TableNormal\"/>", "") };
                template.styles_with(&(own + &table))
            }
            None => {
                let mut out = Printer::part("w:styles");
                print_defaults(&mut out, doc, names);
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
fn print_defaults(out: &mut Printer, doc: &Document, names: &mut Names) {
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
    let (mut paragraph, mut characters) = page_looks(doc, names);
    let font = names.number("Calibri");
    characters.font = characters.font.or(Some(font));
    characters.font_east = characters.font.filter(|own| *own != font).or(Some(names.number(east)));
    characters.font_complex =
        if script == Script::Complex { characters.font_complex.or(Some(names.number("Arial"))) } else { characters.font };
    (characters.size, characters.size_complex) = (characters.size.or(Some(22)), characters.size.or(Some(22)));
    if language_tag::is_well_formed(language) {
        let tag = Some(names.number(language));
        match script {
            Script::Plain => characters.language = tag,
            Script::EastAsian => characters.language_east = tag,
            Script::Complex => characters.language_complex = tag,
        }
    }
    paragraph.after = paragraph.after.or(Some(140));
    paragraph.line = paragraph.line.or(Some((269, LineRule::Lines)));
    out.open("w:docDefaults").open("w:rPrDefault");
    print::characters(&characters, names, out);
    out.close().open("w:pPrDefault");
    print::paragraph(&paragraph, names, out);
    out.close().close();
}

/// How all text of the page looks: a style without a class is that of the whole page.
fn page_looks(doc: &Document, names: &mut Names) -> (ParagraphProperties, CharacterProperties) {
    let (mut paragraph, mut characters) = (ParagraphProperties::default(), CharacterProperties::default());
    let page = doc.styles.iter().find(|style| style.class.is_empty()).map_or(&[][..], |style| &style.properties);
    let of_text: StyleProperties = page.iter().filter(|(property, _)| is_inherited(*property)).cloned().collect();
    from_style::apply(&of_text, &mut paragraph, &mut characters, names);
    (paragraph, characters)
}

/// Whether text has a property because what it stands in has it (CSS Cascading Level 4, section 7.2).
pub(super) const fn is_inherited(property: Property) -> bool {
    matches!(
        property,
        Property::Color
            | Property::FontFamily
            | Property::FontSize
            | Property::FontStyle
            | Property::FontVariant
            | Property::FontWeight
            | Property::LetterSpacing
            | Property::LineHeight
            | Property::TextAlign
            | Property::TextIndent
            | Property::TextTransform
    )
}

/// The places of definitions.
fn definitions(doc: &Document) -> HashMap<(StyleUse, String), usize> {
    let mut places = HashMap::default();
    for (place, known) in doc.style_definitions.iter().enumerate() {
        places.entry((known.applies_to, known.name.to_lowercase())).or_insert(place);
    }
    places
}

/// What a built-in style sets.
fn built_in_properties(style: &BuiltIn, names: &mut Names) -> (ParagraphProperties, CharacterProperties) {
    let theme = Theme::default();
    let mut words = Vocabulary { names, theme: &theme, looks: true };
    let markup = |element: &str, content: &str| {
        format!("<{element} xmlns:w=\"{}\">{content}</{element}>", super::super::printer::NAMESPACES[0].1)
    };
    let (paragraph, characters) = (markup("w:pPr", style.paragraph), markup("w:rPr", style.characters));
    let (mut of_paragraph, mut of_characters) = (Xml::new(&paragraph), Xml::new(&characters));
    of_paragraph.next();
    of_characters.next();
    let paragraph = properties::paragraph(&mut of_paragraph, &mut words);
    (paragraph, properties::characters(&mut of_characters, &mut words))
}

/// Prints what a style of the source sets, beyond what it has anyway.
fn print_properties(
    out: &mut Printer,
    base: (ParagraphProperties, CharacterProperties),
    properties: &StyleProperties,
    of: Use,
    outline: Option<u8>,
    names: &mut Names,
) {
    let (mut paragraph, mut characters) = base;
    from_style::apply(properties, &mut paragraph, &mut characters, names);
    if of == Use::Paragraph {
        paragraph.outline = outline;
        paragraph.keep_next = outline.map(|_| true).or(paragraph.keep_next);
        print::paragraph(&paragraph, names, out);
    } else {
        // What a run has for its ground is what a paragraph has.
        characters.shade = paragraph.shade;
    }
    print::characters(&characters, names, out);
}

fn print_style(out: &mut Printer, style: &BuiltIn, known: Option<&StyleDefinition>, names: &mut Names) {
    print_built_in(out, style, style.based_on, style.next);
    match known.filter(|known| !known.properties.is_empty()) {
        Some(known) => {
            let outline = style.name.strip_prefix("heading ").and_then(|level| level.parse::<u8>().ok()).map(|level| level - 1);
            // What a program defines is the whole style; what a style sheet says of an element is more than the element is.
            let (mut paragraph, characters) = built_in_properties(style, names);
            if !known.id.is_empty() {
                // Where items stand is said by their lists, whatever else their styles say.
                let is_list = style.name.starts_with("List ");
                let ParagraphProperties { numbering, indent_start, first_line, contextual, .. } = paragraph;
                paragraph = match is_list {
                    true => ParagraphProperties { numbering, indent_start, first_line, contextual, ..Default::default() },
                    false => ParagraphProperties::default(),
                };
            }
            let base = (paragraph, if known.id.is_empty() { characters } else { CharacterProperties::default() });
            print_properties(out, base, &known.properties, style.of, outline, names);
        }
        None => print_raw(out, style.paragraph, style.characters),
    }
    out.close();
}

/// Begins a style that is built in.
fn print_built_in(out: &mut Printer, style: &BuiltIn, based_on: &str, next: &str) {
    out.open("w:style").attribute("w:type", style.of.kind());
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

/// The style of a class.
#[derive(Clone, Debug)]
pub(super) struct ClassStyle {
    pub(super) id: String,
    /// Its place among the styles of the document, where it is there.
    pub(super) place: Option<usize>,
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
    /// The style of the first class of a node that has one; one that the document describes comes first.
    fn style_of_class(&mut self, id: NodeId, of: Use) -> Option<ClassStyle> {
        if !self.doc.node(id).has_attributes() {
            return None;
        }
        let doc = self.doc;
        let classes = &doc.attributes(id).classes;
        let described = classes.iter().filter(|class| self.styles.is_described(doc.text(**class)));
        let order: SmallVec<[Text; 2]> = described.chain(classes).copied().collect();
        order.into_iter().find_map(|class| {
            let class = doc.text(class);
            let id = self.styles.of_class(doc, class, of, self.template.as_ref())?;
            Some(ClassStyle { id, place: self.styles.rules.get(class).and_then(|rules| rules.named) })
        })
    }

    pub(super) fn class_style(&mut self, id: NodeId) -> Option<ClassStyle> {
        self.style_of_class(id, Use::Paragraph)
    }

    pub(super) fn class_of_text(&mut self, id: NodeId) -> Option<String> {
        self.style_of_class(id, Use::Character).map(|style| style.id)
    }

    /// The style of a table whose lines the source says: that of a class that the document names, or one that only marks heads.
    pub(super) fn table_style(&mut self, id: NodeId) -> Option<String> {
        self.styles.has_plain_tables = true;
        let doc = self.doc;
        let is_named = |class: &&Text| {
            let named = self.styles.rules.get(doc.text(**class)).and_then(|rules| doc.styles.get(rules.named?));
            // Those that programs have are about lines.
            named.is_some_and(|style| {
                !style.name.to_ascii_lowercase().contains("grid") && !style.name.eq_ignore_ascii_case("normal table")
            })
        };
        let class = doc.attributes(id).classes.iter().find(is_named).map(|class| doc.text(*class))?;
        self.styles.of_class(doc, class, Use::Table, self.template.as_ref())
    }

    /// The style of a class, where the document says what that sets.
    pub(super) fn described_style(&mut self, id: NodeId) -> Option<ClassStyle> {
        let doc = self.doc;
        let is_described = |style: &ClassStyle| {
            style.place.and_then(|place| doc.styles.get(place)).is_some_and(|style| !style.properties.is_empty())
        };
        self.class_style(id).filter(is_described)
    }

    /// All that the classes of a node set.
    pub(super) fn looks(&self, id: NodeId) -> StyleProperties {
        if self.doc.styles.is_empty() || !self.doc.node(id).has_attributes() {
            return StyleProperties::new();
        }
        let doc = self.doc;
        let mut looks = StyleProperties::new();
        let rules = doc.attributes(id).classes.iter().filter_map(|class| self.styles.rules.get(doc.text(*class)));
        // What is set at the place itself wins.
        let (named, nameless): (Vec<_>, Vec<_>) = rules.map(|rules| (rules.named, rules.nameless)).unzip();
        for place in named.into_iter().chain(nameless).flatten() {
            for (property, value) in doc.styles.get(place).into_iter().flat_map(|style| &style.properties) {
                looks.retain(|(known, _)| known != property);
                looks.push((*property, value.clone()));
            }
        }
        looks
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
