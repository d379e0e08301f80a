//! Numbering: definitions of lists with their levels, and lists that use them (section 17.9).

use super::super::printer::Printer;
use super::template::Template;
use crate::document::{Document, Kind, ListKind, ListNumbering, Marker};
use crate::fast_hash::HashMap;
use std::collections::BTreeMap;

/// Levels that a definition has; what is deeper stands on the last.
pub(super) const LEVELS: u8 = 9;

/// How far a level is set in beyond the one before, in twips.
pub(super) const STEP: i32 = 360;

/// A definition of a list: how it counts, and what stands around each number.
#[derive(Clone, Debug, PartialEq, Eq, Hash)]
struct Definition {
    format: &'static str,
    before: String,
    after: String,
    /// Levels whose numbers show those of others: how each counts, and its text.
    levels: [Option<(&'static str, String)>; LEVELS as usize],
}

/// The definitions that every document has: bullets, and a way of counting each.
const FORMATS: [(&str, Marker); 6] = [
    ("bullet", Marker::Plain),
    ("decimal", Marker::Plain),
    ("lowerLetter", Marker::LowerAlpha),
    ("upperLetter", Marker::UpperAlpha),
    ("lowerRoman", Marker::LowerRoman),
    ("upperRoman", Marker::UpperRoman),
];

/// The way of counting of lists without numbers.
const NONE: &str = "none";

/// The bullets of the levels, in turn.
const BULLETS: [&str; 3] = ["\u{2022}", "\u{25E6}", "\u{25AA}"];

/// A list: its definition, and where it begins on a level.
#[derive(Clone, Copy, Debug)]
struct Instance {
    definition: usize,
    level: u8,
    start: Option<i32>,
}

/// The lists of a document.
#[derive(Debug)]
pub(super) struct Numberings {
    definitions: Vec<Definition>,
    /// The places of the definitions.
    places: HashMap<Definition, usize>,
    instances: Vec<Instance>,
    /// The places of definitions of the source whose numbers show those of other levels.
    of_source: HashMap<u32, usize>,
    /// The number of the first definition, and the one before that of the first list.
    first_definition: i64,
    last_before: i64,
}

impl Default for Numberings {
    fn default() -> Self {
        let usual = |(format, _): &(&'static str, Marker)| Definition {
            format,
            before: String::new(),
            after: ".".to_owned(),
            levels: Default::default(),
        };
        // Those that the styles of lists have: the first bullets, the second numbers.
        let plain = |definition| Instance { definition, level: 0, start: None };
        let definitions: Vec<Definition> = FORMATS.iter().map(usual).collect();
        Self {
            places: definitions.iter().cloned().enumerate().map(|(place, known)| (known, place)).collect(),
            definitions,
            instances: vec![plain(0), plain(1)],
            of_source: HashMap::default(),
            first_definition: 0,
            last_before: 0,
        }
    }
}

impl Numberings {
    /// Numberings that stand behind those of a template.
    pub(super) fn of(doc: &Document, template: Option<&Template>) -> Self {
        let mut own = Self::default();
        own.take_definitions(doc);
        if let Some(template) = template.filter(|template| template.has_numbering()) {
            (own.first_definition, own.last_before) = (template.last_definition + 1, template.last_instance.max(0));
        }
        own
    }

    /// Takes over definitions of the source in which numbers show those of other levels, as in 1.2.
    fn take_definitions(&mut self, doc: &Document) {
        type Levels = [Option<(&'static str, String)>; LEVELS as usize];
        let mut found: BTreeMap<u32, (Levels, bool)> = BTreeMap::new();
        for (node, numbering) in doc.numberings.iter() {
            let Kind::List(list) = doc.kind(node) else { continue };
            let level = usize::from(numbering.level.min(LEVELS - 1));
            if list.ordered && numbering.text.len() < 60 {
                let (levels, is_joint) = found.entry(numbering.definition).or_default();
                *is_joint |= numbering.text.matches('%').count() > 1;
                levels[level].get_or_insert_with(|| (format_of(list.marker), numbering.text.clone()));
            }
        }
        for (source, (levels, _)) in found.into_iter().filter(|(_, (_, is_joint))| *is_joint) {
            self.of_source.insert(source, self.definitions.len());
            self.definitions.push(Definition { format: "decimal", before: String::new(), after: ".".to_owned(), levels });
        }
    }

    /// The number of a list without numbers, for what has the style of items and is none: no list at all, as the standard has it, is
    /// an error to some programs.
    pub(super) fn without_numbers(&mut self) -> i32 {
        let none = Definition { format: NONE, before: String::new(), after: String::new(), levels: Default::default() };
        let definition = *self.places.entry(none).or_insert_with_key(|none| {
            self.definitions.push(none.clone());
            self.instances.push(Instance { definition: self.definitions.len() - 1, level: 0, start: None });
            self.definitions.len() - 1
        });
        let place = self.instances.iter().position(|instance| instance.definition == definition);
        self.number(place.unwrap_or(0))
    }

    /// The number and the level of a list of the source whose numbers show those of other levels: within another one of the same
    /// definition, it goes on with that.
    fn begin_joint(&mut self, list: ListKind, known: &ListNumbering, outer: Option<i32>) -> Option<(i32, u8)> {
        let definition = *self.of_source.get(&known.definition).filter(|_| list.ordered)?;
        let level = known.level.min(LEVELS - 1);
        let around = outer.and_then(|outer| self.instances.get((i64::from(outer) - self.last_before - 1) as usize));
        if let (Some(outer), Some(around)) = (outer, around)
            && around.definition == definition
            && around.level < level
        {
            return Some((outer, level));
        }
        self.instances.push(Instance { definition, level, start: Some(list.start.max(0)) });
        Some((self.number(self.instances.len() - 1), level))
    }

    /// The number of a list in the part.
    fn number(&self, place: usize) -> i32 {
        i32::try_from(self.last_before + place as i64 + 1).unwrap_or(i32::MAX)
    }

    /// The number of a new list on a level within another one, with what the source says of its numbers; and the level that it has
    /// there. All lists with bullets are one.
    pub(super) fn begin(&mut self, list: ListKind, level: u8, known: Option<&ListNumbering>, outer: Option<i32>) -> (i32, u8) {
        if !list.ordered {
            return (self.number(0), level);
        }
        if let Some(joint) = known.and_then(|known| self.begin_joint(list, known, outer)) {
            return joint;
        }
        let usual = usual(list.marker);
        let definition = match known.and_then(ListNumbering::around).filter(|(before, after)| before.len() + after.len() < 60) {
            Some((before, after)) => {
                let (before, after) = (before.to_owned(), after.to_owned());
                let own = Definition { format: FORMATS[usual].0, before, after, levels: Default::default() };
                *self.places.entry(own).or_insert_with_key(|own| {
                    self.definitions.push(own.clone());
                    self.definitions.len() - 1
                })
            }
            None => usual,
        };
        self.instances.push(Instance { definition, level, start: Some(list.start.max(0)) });
        (self.number(self.instances.len() - 1), level)
    }

    /// The part.
    pub(super) fn print(&self, template: Option<&Template>) -> String {
        let (mut definitions, mut lists) = (Printer::default(), Printer::default());
        for (index, definition) in self.definitions.iter().enumerate() {
            definitions.open("w:abstractNum").number("w:abstractNumId", self.first_definition + index as i64);
            definitions.value("w:multiLevelType", "multilevel");
            for level in 0..LEVELS {
                // The styles of lists have the levels of the first two definitions, where nobody else gives them others.
                print_level(&mut definitions, index, definition, level, template.is_none() && index < 2);
            }
            definitions.close();
        }
        for (index, instance) in self.instances.iter().enumerate() {
            lists.open("w:num").number("w:numId", self.number(index));
            lists.value_of("w:abstractNumId", self.first_definition + instance.definition as i64);
            if let Some(start) = instance.start {
                // Numbers begin anew with each list.
                lists.open("w:lvlOverride").number("w:ilvl", instance.level).value_of("w:startOverride", start);
                lists.close();
            }
            lists.close();
        }
        let (definitions, lists) = (definitions.finish(), lists.finish());
        template.and_then(|template| template.numbering_with(&definitions, &lists)).unwrap_or_else(|| {
            let mut out = Printer::part("w:numbering");
            out.raw(&definitions).raw(&lists);
            out.finish()
        })
    }
}

/// The place of the usual definition that counts in a way.
fn usual(marker: Marker) -> usize {
    match marker {
        Marker::Plain => 1,
        marker => FORMATS.iter().rposition(|(_, known)| *known == marker).unwrap_or(1),
    }
}

/// The name of a way of counting (section 17.18.59).
fn format_of(marker: Marker) -> &'static str {
    FORMATS[usual(marker)].0
}

fn print_level(out: &mut Printer, index: usize, definition: &Definition, level: u8, has_style: bool) {
    out.open("w:lvl").number("w:ilvl", level);
    let own = definition.levels[usize::from(level)].as_ref();
    out.value_of("w:start", 1).value("w:numFmt", own.map_or(definition.format, |(format, _)| format));
    if has_style && level < 5 {
        out.value("w:pStyle", &list_style(index == 1, level));
    }
    if definition.format == NONE {
        out.value("w:suff", "nothing").value("w:lvlText", "").value("w:lvlJc", "left").close();
        return;
    }
    if index == 0 {
        out.value("w:lvlText", BULLETS[usize::from(level) % BULLETS.len()]);
    } else {
        let usual = || format!("{}%{}{}", definition.before, level + 1, definition.after);
        out.value("w:lvlText", &own.map_or_else(usual, |(_, text)| text.clone()));
    }
    out.value("w:lvlJc", "left");
    let indent = STEP * (i32::from(level) + 1);
    out.open("w:pPr").open("w:ind").number("w:left", indent).number("w:hanging", STEP).close().close();
    if index == 0 {
        // Bullets look the same whatever the font of the text.
        out.raw("<w:rPr><w:rFonts w:ascii=\"Arial\" w:hAnsi=\"Arial\" w:cs=\"Arial\" w:hint=\"default\"/></w:rPr>");
    }
    out.close();
}

/// The style of the items on a level: the built-in ones have five.
pub(super) fn list_style(ordered: bool, level: u8) -> String {
    let name = if ordered { "ListNumber" } else { "ListBullet" };
    match level.min(4) {
        0 => name.to_owned(),
        level => format!("{name}{}", level + 1),
    }
}

/// The style of a paragraph that goes on in an item.
pub(super) fn continued_style(level: u8) -> String {
    match level.min(4) {
        0 => "ListContinue".to_owned(),
        level => format!("ListContinue{}", level + 1),
    }
}
