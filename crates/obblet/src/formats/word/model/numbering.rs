//! Numbering: definitions, and the counters that run through a document (ECMA-376, part 1, section 17.9).

use super::super::xml::{Element, Event, Xml, next_child};
use super::properties::{self, CharacterProperties, Name, Names, Numbering, ParagraphProperties, Vocabulary};
use super::styles::Style;
use super::theme::Theme;
use crate::document::{Marker, NumberStyle};
use crate::fast_hash::HashMap;
use crate::numeral::numeral;

/// How the number of a level is written (section 17.18.59).
#[derive(Clone, Copy, Debug, Default, PartialEq, Eq)]
pub(in crate::formats::word) enum NumberFormat {
    #[default]
    Decimal,
    TwoDigits,
    Marker(Marker),
    Ordinal,
    /// Another way of counting, with the name that style sheets have for it (CSS Counter Styles, section 6).
    Other(&'static str),
    Bullet,
    /// No number at all.
    None,
}

/// One level of a list.
#[derive(Clone, Debug)]
pub(in crate::formats::word) struct Level {
    pub(in crate::formats::word) start: i32,
    pub(in crate::formats::word) format: NumberFormat,
    /// The number as it is shown, with `%1` for that of the first level.
    pub(in crate::formats::word) text: String,
    /// The level whose next number starts this one anew, from 1; 0 for none.
    restart: Option<u8>,
    legal: bool,
    paragraph_style: Option<Name>,
    pub(in crate::formats::word) paragraph: ParagraphProperties,
    pub(in crate::formats::word) characters: CharacterProperties,
    pub(in crate::formats::word) picture: bool,
}

impl Default for Level {
    fn default() -> Self {
        Self {
            start: 1,
            format: NumberFormat::Decimal,
            text: String::new(),
            restart: None,
            legal: false,
            paragraph_style: None,
            paragraph: ParagraphProperties::default(),
            characters: CharacterProperties::default(),
            picture: false,
        }
    }
}

const LEVELS: usize = 9;

#[derive(Clone, Debug, Default)]
struct Definition {
    levels: [Option<Box<Level>>; LEVELS],
    style_link: Option<Name>,
    uses_style: Option<Name>,
}

#[derive(Clone, Debug, Default)]
struct Instance {
    definition: usize,
    starts: [Option<i32>; LEVELS],
    levels: [Option<Box<Level>>; LEVELS],
}

/// The numbers that a list has come to.
#[derive(Clone, Debug, Default)]
struct Counters {
    values: [Option<i32>; LEVELS],
}

/// All numbering of a document.
#[derive(Debug, Default)]
pub(in crate::formats::word) struct Numberings {
    definitions: Vec<Definition>,
    instances: HashMap<i32, Instance>,
    counters: HashMap<usize, Counters>,
    /// Instances that were met, and on which levels.
    met: HashMap<i32, u16>,
}

/// A number that a paragraph has.
#[derive(Clone, Debug, PartialEq, Eq)]
pub(in crate::formats::word) struct Numbered {
    /// The instance, and the definition that it shares its counters with.
    pub(in crate::formats::word) instance: i32,
    pub(in crate::formats::word) definition: usize,
    /// From 0.
    pub(in crate::formats::word) level: u8,
    pub(in crate::formats::word) value: i32,
}

impl Numberings {
    /// Reads the part with the numbering.
    pub(in crate::formats::word) fn read(source: &str, names: &mut Names, theme: &Theme, looks: bool) -> Self {
        let mut all = Self::default();
        let mut places = HashMap::default();
        let mut xml = Xml::new(source);
        let mut words = Vocabulary { names, theme, looks };
        while let Some(event) = xml.next() {
            let Event::Open(element) = event else { continue };
            if element.is(b"abstractNum") {
                let id = element.number(b"abstractNumId").unwrap_or(-1);
                let definition = read_definition(&mut xml, &mut words);
                places.entry(id).or_insert(all.definitions.len());
                all.definitions.push(definition);
            } else if element.is(b"num") {
                let id = element.number(b"numId").unwrap_or(-1);
                if let Some(instance) = read_instance(&mut xml, &mut words, &places) {
                    all.instances.entry(id).or_insert(instance);
                }
            }
        }
        all.link_styles();
        all
    }

    /// A definition may only name the numbering style whose definition holds its levels (section 17.9.21).
    fn link_styles(&mut self) {
        let linked: HashMap<Name, usize> = self
            .definitions
            .iter()
            .enumerate()
            .filter_map(|(place, definition)| definition.style_link.map(|name| (name, place)))
            .collect();
        let leads: Vec<Option<usize>> = self
            .definitions
            .iter()
            .map(|definition| {
                let bare = definition.levels.iter().all(Option::is_none);
                definition.uses_style.filter(|_| bare).and_then(|name| linked.get(&name)).copied()
            })
            .collect();
        for instance in self.instances.values_mut() {
            if let Some(place) = leads.get(instance.definition).copied().flatten() {
                instance.definition = place;
            }
        }
    }

    /// The level of an instance, with its overrides.
    pub(in crate::formats::word) fn level(&self, instance: i32, level: u8) -> Option<&Level> {
        let instance = self.instances.get(&instance)?;
        let level = usize::from(level).min(LEVELS - 1);
        let own = instance.levels[level].as_deref();
        own.or_else(|| self.definitions.get(instance.definition)?.levels[level].as_deref())
    }

    /// Which instance and level a paragraph is numbered by: its own properties, then those of its style (section 17.9.23).
    pub(in crate::formats::word) fn of(&self, direct: Numbering, style: &Style) -> Option<(i32, u8)> {
        let from_style = style.paragraph.numbering;
        let id = direct.id.or(from_style.id).filter(|id| *id > 0)?;
        self.instances.get(&id)?;
        // A level that names the style is the level of the style.
        let by_style = || {
            style.chain.iter().find_map(|name| {
                (0..LEVELS as u8).find(|level| self.level(id, *level).is_some_and(|known| known.paragraph_style == Some(*name)))
            })
        };
        let level =
            direct.level.or_else(|| if direct.id.is_none() { by_style() } else { None }).or(from_style.level).unwrap_or(0);
        // No marker at all is no list.
        self.level(id, level)
            .is_none_or(|level| level.format != NumberFormat::None || !level.text.trim().is_empty())
            .then_some((id, level))
    }

    /// Counts a paragraph.
    pub(in crate::formats::word) fn count(&mut self, id: i32, level: u8) -> Option<Numbered> {
        let instance = self.instances.get(&id)?;
        let definition = instance.definition;
        let at = usize::from(level).min(LEVELS - 1);
        let starts = |index: usize| {
            let own = instance.starts[index];
            own.or_else(|| self.level(id, index as u8).map(|level| level.start)).unwrap_or(1)
        };
        let first_values: [i32; LEVELS] = std::array::from_fn(starts);
        let restarts: [Option<u8>; LEVELS] =
            std::array::from_fn(|index| self.level(id, index as u8).and_then(|level| level.restart));
        let has_start = instance.starts[at].is_some();
        let met = self.met.entry(id).or_default();
        let is_first = *met & 1 << at == 0;
        *met |= 1 << at;
        let counters = self.counters.entry(definition).or_default();
        let value = match counters.values[at] {
            // An instance with a start of its own begins with it when it is first met.
            _ if is_first && has_start => first_values[at],
            Some(value) => value.saturating_add(1),
            None => first_values[at],
        };
        counters.values[at] = Some(value);
        for (above, first) in counters.values[..at].iter_mut().zip(first_values) {
            above.get_or_insert(first);
        }
        for (below, restart) in counters.values.iter_mut().zip(restarts).skip(at + 1) {
            // A level may go on over higher ones (section 17.9.11).
            if !restart.is_some_and(|restart| restart == 0 || usize::from(restart) <= at) {
                *below = None;
            }
        }
        Some(Numbered { instance: id, definition, level: at as u8, value })
    }

    /// A paragraph that was counted is none.
    pub(in crate::formats::word) fn take_back(&mut self, numbered: &Numbered) {
        if let Some(counters) = self.counters.get_mut(&numbered.definition) {
            counters.values[usize::from(numbered.level)] = Some(numbered.value.saturating_sub(1));
        }
    }

    /// Whether a list in HTML can show the number of a paragraph.
    pub(in crate::formats::word) fn is_plain(&self, numbered: &Numbered) -> bool {
        self.level(numbered.instance, numbered.level).is_none_or(|level| level.is_plain(numbered.level))
    }

    /// The number of a paragraph as it is shown.
    pub(in crate::formats::word) fn shown(&self, numbered: &Numbered) -> String {
        let Some(level) = self.level(numbered.instance, numbered.level) else { return String::new() };
        self.spelled(numbered, level, &level.text).trim().to_owned()
    }

    /// How the numbers of the list are written that a paragraph begins: what stands before the number of the level itself is
    /// the same in all of its items. Nothing comes of it where no number is shown, or where it is written as in any list.
    pub(in crate::formats::word) fn number_style(&self, numbered: &Numbered) -> Option<NumberStyle> {
        let level = self.level(numbered.instance, numbered.level)?;
        let own = format!("%{}", numbered.level + 1);
        let (before, after) = level.text.split_once(&own)?;
        let (before, after) = (self.spelled(numbered, level, before), self.spelled(numbered, level, after));
        let like = if level.legal { "decimal" } else { level.style() };
        if matches!(like, "none" | "disc") || (before.is_empty() && after.trim_end() == ".") {
            return None;
        }
        let after = if after.ends_with(' ') { after } else { after + " " };
        Some(NumberStyle { like: like.to_owned(), before, after })
    }

    /// A piece of the text of a level, with the numbers that its placeholders stand for.
    fn spelled(&self, numbered: &Numbered, level: &Level, text: &str) -> String {
        let values = self.counters.get(&numbered.definition).map(|counters| counters.values).unwrap_or_default();
        let (mut out, mut rest) = (String::new(), text);
        while let Some(at) = rest.find('%') {
            out.push_str(&rest[..at]);
            rest = &rest[at + 1..];
            match rest.bytes().next() {
                Some(digit @ b'1'..=b'9') => {
                    let index = digit - b'1';
                    let value = values[usize::from(index)].unwrap_or(1);
                    let format = self.level(numbered.instance, index).map_or(NumberFormat::Decimal, |level| level.format);
                    out.push_str(&written(value, if level.legal { NumberFormat::Decimal } else { format }));
                    rest = &rest[1..];
                }
                _ => out.push('%'),
            }
        }
        out.push_str(rest);
        out
    }
}

impl Level {
    /// Whether it counts.
    pub(in crate::formats::word) const fn is_ordered(&self) -> bool {
        !matches!(self.format, NumberFormat::Bullet | NumberFormat::None)
    }

    /// Whether a list in HTML shows its numbers much as the document does: the number of the level alone, with no more than
    /// a stop or parentheses around it.
    pub(in crate::formats::word) fn is_plain(&self, level: u8) -> bool {
        if self.format == NumberFormat::Bullet {
            return true;
        }
        let own = format!("%{}", level + 1);
        let Some((before, after)) = self.text.split_once(&own) else { return false };
        !matches!(self.format, NumberFormat::Other(_))
            && before.chars().all(|c| c == '(')
            && after.trim().chars().all(|c| matches!(c, '.' | ')' | ':' | ','))
    }

    /// The name that style sheets have for the way of counting (CSS Counter Styles, section 6).
    pub(in crate::formats::word) const fn style(&self) -> &'static str {
        match self.format {
            // Style sheets have no ordinals.
            NumberFormat::Decimal | NumberFormat::Ordinal => "decimal",
            NumberFormat::TwoDigits => "decimal-leading-zero",
            NumberFormat::Marker(marker) => marker.style_name(),
            NumberFormat::Other(style) => style,
            NumberFormat::Bullet => "disc",
            NumberFormat::None => "none",
        }
    }

    pub(in crate::formats::word) const fn marker(&self) -> Marker {
        match self.format {
            NumberFormat::Marker(marker) => marker,
            _ => Marker::Plain,
        }
    }
}

/// A number in a format.
fn written(value: i32, format: NumberFormat) -> String {
    match format {
        NumberFormat::Decimal | NumberFormat::Other(_) => value.to_string(),
        NumberFormat::TwoDigits => format!("{value:02}"),
        NumberFormat::Marker(marker) => numeral(value.into(), marker),
        NumberFormat::Ordinal => {
            let ending = match (value % 10, value % 100) {
                (1, last) if last != 11 => "st",
                (2, last) if last != 12 => "nd",
                (3, last) if last != 13 => "rd",
                _ => "th",
            };
            format!("{value}{ending}")
        }
        NumberFormat::Bullet | NumberFormat::None => String::new(),
    }
}

fn format(name: &str) -> NumberFormat {
    match name {
        "decimalZero" => NumberFormat::TwoDigits,
        "upperRoman" => NumberFormat::Marker(Marker::UpperRoman),
        "lowerRoman" => NumberFormat::Marker(Marker::LowerRoman),
        "upperLetter" => NumberFormat::Marker(Marker::UpperAlpha),
        "lowerLetter" => NumberFormat::Marker(Marker::LowerAlpha),
        "ordinal" | "ordinalText" => NumberFormat::Ordinal,
        "bullet" => NumberFormat::Bullet,
        "none" => NumberFormat::None,
        "hebrew1" | "hebrew2" => NumberFormat::Other("hebrew"),
        "arabicAbjad" | "arabicAlpha" | "hindiNumbers" => NumberFormat::Other("arabic-indic"),
        "thaiNumbers" | "thaiCounting" | "thaiLetters" => NumberFormat::Other("thai"),
        "hindiVowels" | "hindiConsonants" | "hindiCounting" => NumberFormat::Other("devanagari"),
        "aiueo" | "aiueoFullWidth" => NumberFormat::Other("katakana"),
        "iroha" | "irohaFullWidth" => NumberFormat::Other("katakana-iroha"),
        "chineseCounting"
        | "chineseCountingThousand"
        | "japaneseCounting"
        | "taiwaneseCounting"
        | "taiwaneseCountingThousand"
        | "ideographDigital"
        | "japaneseDigitalTenThousand"
        | "taiwaneseDigital" => NumberFormat::Other("cjk-decimal"),
        "chineseLegalSimplified" => NumberFormat::Other("simp-chinese-formal"),
        "japaneseLegal" => NumberFormat::Other("japanese-formal"),
        "ideographTraditional" => NumberFormat::Other("cjk-heavenly-stem"),
        "ideographZodiac" => NumberFormat::Other("cjk-earthly-branch"),
        "koreanDigital" | "koreanCounting" | "koreanLegal" | "koreanDigital2" => NumberFormat::Other("korean-hangul-formal"),
        "russianLower" | "russianUpper" => NumberFormat::Other("lower-alpha"),
        _ => NumberFormat::Decimal,
    }
}

fn read_definition(xml: &mut Xml<'_>, words: &mut Vocabulary<'_>) -> Definition {
    let mut definition = Definition::default();
    while let Some(Event::Open(element)) = next_child(xml) {
        match element.local() {
            b"lvl" => {
                let (place, level) = read_level(&element, xml, words);
                definition.levels[place] = Some(Box::new(level));
                continue;
            }
            b"styleLink" => definition.style_link = element.val().map(|name| words.names.number(&name)),
            b"numStyleLink" => definition.uses_style = element.val().map(|name| words.names.number(&name)),
            _ => {}
        }
        xml.skip();
    }
    definition
}

fn read_instance(xml: &mut Xml<'_>, words: &mut Vocabulary<'_>, places: &HashMap<i32, usize>) -> Option<Instance> {
    let mut instance = Instance::default();
    let mut found = None;
    while let Some(Event::Open(element)) = next_child(xml) {
        match element.local() {
            b"abstractNumId" => found = element.number(b"val").and_then(|id| places.get(&id)).copied(),
            b"lvlOverride" => {
                let place = element.number(b"ilvl").unwrap_or(0).clamp(0, LEVELS as i32 - 1) as usize;
                while let Some(Event::Open(child)) = next_child(xml) {
                    match child.local() {
                        b"startOverride" => instance.starts[place] = child.number(b"val"),
                        b"lvl" => {
                            let (_, level) = read_level(&child, xml, words);
                            instance.starts[place].get_or_insert(level.start);
                            instance.levels[place] = Some(Box::new(level));
                            continue;
                        }
                        _ => {}
                    }
                    xml.skip();
                }
                continue;
            }
            _ => {}
        }
        xml.skip();
    }
    instance.definition = found?;
    Some(instance)
}

fn read_level(element: &Element<'_>, xml: &mut Xml<'_>, words: &mut Vocabulary<'_>) -> (usize, Level) {
    let place = element.number(b"ilvl").unwrap_or(0).clamp(0, LEVELS as i32 - 1) as usize;
    let mut level = Level::default();
    // Where a level does not say where it starts, it starts with 0; programs that leave it out mean 1.
    while let Some(Event::Open(child)) = next_child(xml) {
        match child.local() {
            b"start" => level.start = child.number(b"val").unwrap_or(1).clamp(0, 1_000_000),
            b"numFmt" => level.format = format(&child.val().unwrap_or_default()),
            b"lvlText" => level.text = child.val().unwrap_or_default().into_owned(),
            b"lvlRestart" => level.restart = child.number(b"val").map(|level| level.clamp(0, 9) as u8),
            b"isLgl" => level.legal = child.is_on(),
            b"pStyle" => level.paragraph_style = child.val().map(|name| words.names.number(&name)),
            b"lvlPicBulletId" => level.picture = true,
            b"pPr" => {
                level.paragraph = properties::paragraph(xml, words);
                continue;
            }
            b"rPr" => {
                level.characters = properties::characters(xml, words);
                continue;
            }
            _ => {}
        }
        xml.skip();
    }
    (place, level)
}

#[cfg(test)]
mod tests {
    use super::*;

    const SOURCE: &str = "<w:numbering><w:abstractNum w:abstractNumId='0'>\
        <w:lvl w:ilvl='0'><w:start w:val='1'/><w:numFmt w:val='upperRoman'/><w:lvlText w:val='Article %1.'/></w:lvl>\
        <w:lvl w:ilvl='1'><w:start w:val='1'/><w:numFmt w:val='decimal'/><w:isLgl/><w:lvlText w:val='%1.%2'/></w:lvl></w:abstractNum>\
        <w:num w:numId='1'><w:abstractNumId w:val='0'/></w:num>\
        <w:num w:numId='2'><w:abstractNumId w:val='0'/><w:lvlOverride w:ilvl='0'><w:startOverride w:val='4'/></w:lvlOverride></w:num></w:numbering>";

    #[test]
    fn numbers_run_through_the_levels() {
        let mut all = Numberings::read(SOURCE, &mut Names::default(), &Theme::default(), true);
        let mut shown = |id, level| {
            let numbered = all.count(id, level).unwrap();
            all.shown(&numbered)
        };
        assert_eq!([shown(1, 0), shown(1, 1), shown(1, 1)], ["Article I.", "1.1", "1.2"]);
        assert_eq!([shown(1, 0), shown(1, 1)], ["Article II.", "2.1"]);
        // Another instance starts where it says, once.
        assert_eq!([shown(2, 0), shown(2, 0), shown(1, 0)], ["Article IV.", "Article V.", "Article VI."]);
    }
}
