//! Properties of characters and paragraphs, as they are written: each may be there or not (ECMA-376, part 1, sections
//! 17.3.1 and 17.3.2).

use super::super::xml::{Element, Event, Ns, Xml, is_on, next_child};
use super::section::Section;
use crate::document::{Line, Underline};
use crate::fast_hash::HashMap;

/// Properties that are on or off. The first ones combine by exclusive or over the levels of styles (section 17.7.3).
#[derive(Clone, Copy, Debug, Default, PartialEq, Eq, Hash)]
pub(in crate::formats::word) struct Flags {
    /// Which are said.
    pub(in crate::formats::word) said: u16,
    /// Which of them are on.
    pub(in crate::formats::word) on: u16,
}

/// One flag.
#[derive(Clone, Copy, Debug, PartialEq, Eq, Hash)]
#[repr(u16)]
pub(in crate::formats::word) enum Flag {
    Bold = 1,
    Italic = 1 << 1,
    Capitals = 1 << 2,
    SmallCapitals = 1 << 3,
    Strike = 1 << 4,
    Hidden = 1 << 5,
    Outline = 1 << 6,
    Shadow = 1 << 7,
    // Those below are plain: the nearest level that says something decides.
    DoubleStrike = 1 << 8,
    WebHidden = 1 << 9,
    RightToLeft = 1 << 10,
    Complex = 1 << 11,
    BoldComplex = 1 << 12,
    ItalicComplex = 1 << 13,
    Inserted = 1 << 14,
    Deleted = 1 << 15,
}

/// The flags that combine by exclusive or.
const TOGGLES: u16 = 0xFF;

impl Flags {
    pub(in crate::formats::word) const fn is(self, flag: Flag) -> bool {
        self.on & flag as u16 != 0
    }

    pub(in crate::formats::word) const fn says(self, flag: Flag) -> bool {
        self.said & flag as u16 != 0
    }

    pub(in crate::formats::word) const fn set(&mut self, flag: Flag, on: bool) {
        self.said |= flag as u16;
        if on { self.on |= flag as u16 } else { self.on &= !(flag as u16) }
    }

    /// What a nearer level of the same sort says wins.
    const fn override_with(&mut self, nearer: Self) {
        self.on = (self.on & !nearer.said) | (nearer.on & nearer.said);
        self.said |= nearer.said;
    }

    /// What a style of another sort says is combined.
    const fn combine_with(&mut self, style: Self) {
        let toggled = (self.on ^ style.on) & TOGGLES;
        self.override_with(Self { said: style.said & !TOGGLES, on: style.on & !TOGGLES });
        self.on = (self.on & !TOGGLES) | toggled;
        self.said |= style.said;
    }
}

/// A colour, as red, green and blue, or as what suits the ground.
#[derive(Clone, Copy, Debug, PartialEq, Eq, Hash)]
pub(in crate::formats::word) enum Colour {
    Auto,
    Rgb(u32),
}

impl Colour {
    /// Red, green and blue, where it says them.
    pub(in crate::formats::word) const fn rgb(self) -> Option<u32> {
        match self {
            Self::Rgb(colour) => Some(colour),
            Self::Auto => None,
        }
    }
}

/// The marks beside the characters with which East Asian text is emphasised (section 17.18.24).
#[derive(Clone, Copy, Debug, PartialEq, Eq, Hash)]
pub(in crate::formats::word) enum EmphasisMark {
    None,
    Dot,
    Comma,
    Circle,
    DotBelow,
}

/// Whether text stands above or below the line.
#[derive(Clone, Copy, Debug, PartialEq, Eq, Hash)]
pub(in crate::formats::word) enum Raised {
    Level,
    Above,
    Below,
}

/// The number of a name in [`Names`].
pub(in crate::formats::word) type Name = u16;

/// Names of fonts, languages and styles, each kept once.
#[derive(Debug, Default)]
pub(in crate::formats::word) struct Names {
    names: Vec<String>,
    places: HashMap<String, Name>,
}

impl Names {
    /// The number of a name; where there are more names than numbers, the last.
    pub(in crate::formats::word) fn number(&mut self, name: &str) -> Name {
        if let Some(&known) = self.places.get(name) {
            return known;
        }
        let number = Name::try_from(self.names.len()).unwrap_or(Name::MAX);
        if number < Name::MAX {
            self.names.push(name.to_owned());
            self.places.insert(name.to_owned(), number);
        }
        number
    }

    pub(in crate::formats::word) fn name(&self, number: Name) -> &str {
        self.names.get(usize::from(number)).map_or("", String::as_str)
    }
}

/// Properties of characters.
#[derive(Clone, Copy, Debug, Default, PartialEq, Eq, Hash)]
pub(in crate::formats::word) struct CharacterProperties {
    pub(in crate::formats::word) flags: Flags,
    /// The identifier of a character style.
    pub(in crate::formats::word) style: Option<Name>,
    pub(in crate::formats::word) underline: Option<Underline>,
    pub(in crate::formats::word) underline_colour: Option<Colour>,
    pub(in crate::formats::word) emphasis_mark: Option<EmphasisMark>,
    pub(in crate::formats::word) raised: Option<Raised>,
    /// Half points.
    pub(in crate::formats::word) size: Option<u16>,
    pub(in crate::formats::word) size_complex: Option<u16>,
    /// Half points above the line.
    pub(in crate::formats::word) position: Option<i16>,
    /// Twentieths of a point between letters.
    pub(in crate::formats::word) spacing: Option<i16>,
    pub(in crate::formats::word) colour: Option<Colour>,
    pub(in crate::formats::word) highlight: Option<Colour>,
    pub(in crate::formats::word) shade: Option<Colour>,
    pub(in crate::formats::word) border: Option<Border>,
    /// Fonts for Latin, East Asian and complex scripts.
    pub(in crate::formats::word) font: Option<Name>,
    pub(in crate::formats::word) font_east: Option<Name>,
    pub(in crate::formats::word) font_complex: Option<Name>,
    pub(in crate::formats::word) language: Option<Name>,
    pub(in crate::formats::word) language_east: Option<Name>,
    pub(in crate::formats::word) language_complex: Option<Name>,
    /// Who put the end of a paragraph in or took it out, and when, where its flags say that somebody did.
    pub(in crate::formats::word) changed_by: Option<Name>,
    pub(in crate::formats::word) changed_at: Option<Name>,
}

macro_rules! take_over {
    ($to:ident, $from:ident: $($field:ident),+) => { $(if $from.$field.is_some() { $to.$field = $from.$field; })+ };
}

impl CharacterProperties {
    /// What a nearer level of the same sort says wins.
    pub(in crate::formats::word) fn override_with(&mut self, nearer: &Self) {
        self.flags.override_with(nearer.flags);
        self.take(nearer);
    }

    /// What a style of another sort says is combined.
    pub(in crate::formats::word) fn combine_with(&mut self, style: &Self) {
        self.flags.combine_with(style.flags);
        self.take(style);
    }

    /// Whether marks beside its characters emphasise it.
    pub(in crate::formats::word) fn is_marked(&self) -> bool {
        self.emphasis_mark.is_some_and(|mark| mark != EmphasisMark::None)
    }

    fn take(&mut self, nearer: &Self) {
        take_over!(self, nearer: style, underline, underline_colour, emphasis_mark, raised, size, size_complex, position, spacing, colour, highlight, shade, border);
        take_over!(self, nearer: font, font_east, font_complex, language, language_east, language_complex, changed_by, changed_at);
    }
}

/// One line of a border.
#[derive(Clone, Copy, Debug, PartialEq, Eq, Hash)]
pub(in crate::formats::word) struct Border {
    pub(in crate::formats::word) line: Line,
    /// Eighths of a point.
    pub(in crate::formats::word) width: u16,
    /// Points between line and text.
    pub(in crate::formats::word) space: u16,
    pub(in crate::formats::word) colour: Colour,
}

/// The borders of a paragraph, a table or a cell.
#[derive(Clone, Copy, Debug, Default, PartialEq, Eq, Hash)]
pub(in crate::formats::word) struct Borders {
    pub(in crate::formats::word) top: Option<Border>,
    pub(in crate::formats::word) right: Option<Border>,
    pub(in crate::formats::word) bottom: Option<Border>,
    pub(in crate::formats::word) left: Option<Border>,
    /// Between rows, or between paragraphs.
    pub(in crate::formats::word) between: Option<Border>,
    /// Between columns.
    pub(in crate::formats::word) columns: Option<Border>,
}

impl Borders {
    /// Whether there is a line at the top or at the bottom.
    pub(in crate::formats::word) fn is_ruled(&self) -> bool {
        [self.top, self.bottom].into_iter().flatten().any(|border| border.line != Line::None)
    }

    /// Whether there is a line at a side.
    pub(in crate::formats::word) fn is_box(&self) -> bool {
        [self.left, self.right].into_iter().flatten().any(|border| border.line != Line::None)
    }

    pub(in crate::formats::word) fn override_with(&mut self, nearer: &Self) {
        take_over!(self, nearer: top, right, bottom, left, between, columns);
    }
}

/// How lines of a paragraph are set.
#[derive(Clone, Copy, Debug, PartialEq, Eq, Hash)]
pub(in crate::formats::word) enum Alignment {
    /// To where lines begin, in either direction.
    Start,
    Center,
    End,
    Justify,
}

/// What a tab stop does.
#[derive(Clone, Copy, Debug, PartialEq, Eq, Hash)]
pub(in crate::formats::word) struct TabStop {
    /// Twips from the margin.
    pub(in crate::formats::word) at: i32,
    pub(in crate::formats::word) kind: TabKind,
    /// Whether dots or a line lead to it.
    pub(in crate::formats::word) leader: Option<Line>,
}

#[derive(Clone, Copy, Debug, PartialEq, Eq, Hash)]
pub(in crate::formats::word) enum TabKind {
    Clear,
    Left,
    Center,
    Right,
    Decimal,
}

/// Which numbering a paragraph says it has.
#[derive(Clone, Copy, Debug, Default, PartialEq, Eq, Hash)]
pub(in crate::formats::word) struct Numbering {
    pub(in crate::formats::word) id: Option<i32>,
    pub(in crate::formats::word) level: Option<u8>,
}

/// Properties of paragraphs.
#[derive(Clone, Debug, Default, PartialEq, Eq, Hash)]
pub(in crate::formats::word) struct ParagraphProperties {
    /// The identifier of a paragraph style.
    pub(in crate::formats::word) style: Option<Name>,
    /// From 0; 9 is text of the body.
    pub(in crate::formats::word) outline: Option<u8>,
    pub(in crate::formats::word) numbering: Numbering,
    pub(in crate::formats::word) right_to_left: Option<bool>,
    pub(in crate::formats::word) alignment: Option<Alignment>,
    /// Twips.
    pub(in crate::formats::word) indent_start: Option<i32>,
    pub(in crate::formats::word) indent_end: Option<i32>,
    pub(in crate::formats::word) first_line: Option<i32>,
    pub(in crate::formats::word) before: Option<i32>,
    pub(in crate::formats::word) after: Option<i32>,
    /// 240ths of a line, or twips.
    pub(in crate::formats::word) line: Option<(i32, LineRule)>,
    pub(in crate::formats::word) contextual: Option<bool>,
    pub(in crate::formats::word) page_break: Option<bool>,
    pub(in crate::formats::word) keep_next: Option<bool>,
    pub(in crate::formats::word) shade: Option<Colour>,
    pub(in crate::formats::word) borders: Borders,
    pub(in crate::formats::word) tabs: Vec<TabStop>,
    /// Whether it is a large first letter of the paragraph that follows.
    pub(in crate::formats::word) drop_capital: bool,
    /// Properties of the paragraph's own mark.
    pub(in crate::formats::word) mark: CharacterProperties,
    /// The section that ends with it.
    pub(in crate::formats::word) section: Option<Box<Section>>,
}

/// What the height of a line counts.
#[derive(Clone, Copy, Debug, PartialEq, Eq, Hash)]
pub(in crate::formats::word) enum LineRule {
    Lines,
    AtLeast,
    Exactly,
}

impl ParagraphProperties {
    /// What a nearer level says wins.
    pub(in crate::formats::word) fn override_with(&mut self, nearer: &Self) {
        take_over!(self, nearer: style, outline, right_to_left, alignment, indent_start, indent_end, first_line);
        take_over!(self, nearer: before, after, line, contextual, page_break, keep_next, shade);
        let (numbering, other) = (&mut self.numbering, &nearer.numbering);
        take_over!(numbering, other: id, level);
        self.borders.override_with(&nearer.borders);
        for stop in &nearer.tabs {
            self.tabs.retain(|known| known.at != stop.at);
            if stop.kind != TabKind::Clear {
                self.tabs.push(*stop);
            }
        }
        self.tabs.sort_unstable_by_key(|stop| stop.at);
        self.drop_capital = nearer.drop_capital;
    }
}

/// What properties are read with.
pub(in crate::formats::word) struct Vocabulary<'v> {
    pub(in crate::formats::word) names: &'v mut Names,
    pub(in crate::formats::word) theme: &'v super::theme::Theme,
    /// Whether properties that only change looks are read, too.
    pub(in crate::formats::word) looks: bool,
}

/// Reads `rPr`, which was opened last, to its end.
pub(in crate::formats::word) fn characters(xml: &mut Xml<'_>, words: &mut Vocabulary<'_>) -> CharacterProperties {
    let mut properties = CharacterProperties::default();
    while let Some(Event::Open(element)) = next_child(xml) {
        if element.ns == Ns::W {
            character(&mut properties, &element, words);
        }
        xml.skip();
    }
    properties
}

fn character(properties: &mut CharacterProperties, element: &Element<'_>, words: &mut Vocabulary<'_>) {
    let flag = match element.local() {
        b"b" => Flag::Bold,
        b"i" => Flag::Italic,
        b"bCs" => Flag::BoldComplex,
        b"iCs" => Flag::ItalicComplex,
        b"caps" => Flag::Capitals,
        b"smallCaps" => Flag::SmallCapitals,
        b"strike" => Flag::Strike,
        b"dstrike" => Flag::DoubleStrike,
        b"outline" => Flag::Outline,
        b"shadow" => Flag::Shadow,
        b"vanish" => Flag::Hidden,
        b"webHidden" => Flag::WebHidden,
        b"rtl" => Flag::RightToLeft,
        b"cs" => Flag::Complex,
        name @ (b"ins" | b"moveTo" | b"del" | b"moveFrom") => {
            let flag = if matches!(name, b"ins" | b"moveTo") { Flag::Inserted } else { Flag::Deleted };
            properties.changed_by = element.get(b"author").map(|author| words.names.number(&author));
            properties.changed_at = element.get(b"date").map(|date| words.names.number(&date));
            return properties.flags.set(flag, true);
        }
        _ => return other_character(properties, element, words),
    };
    properties.flags.set(flag, element.is_on());
}

fn other_character(properties: &mut CharacterProperties, element: &Element<'_>, words: &mut Vocabulary<'_>) {
    match element.local() {
        b"szCs" | b"position" | b"spacing" | b"color" | b"shd" | b"bdr" | b"kern" | b"w" if !words.looks => {}
        b"rStyle" => properties.style = element.val().map(|id| words.names.number(&id)),
        b"u" => {
            properties.underline = element.val().as_deref().map(underline);
            if words.looks {
                properties.underline_colour = themed(element, words, [b"color", b"themeColor", b"themeTint", b"themeShade"]);
            }
        }
        b"em" => properties.emphasis_mark = element.val().as_deref().map(emphasis_mark),
        b"vertAlign" => {
            properties.raised = Some(match element.val().as_deref() {
                Some("superscript") => Raised::Above,
                Some("subscript") => Raised::Below,
                _ => Raised::Level,
            });
        }
        b"sz" => properties.size = half_points(element),
        b"szCs" => properties.size_complex = half_points(element),
        b"position" => properties.position = element.number(b"val").map(small),
        b"spacing" => properties.spacing = element.number(b"val").map(small),
        b"color" => properties.colour = colour(element, words),
        b"highlight" => properties.highlight = element.val().and_then(|name| highlight(&name)),
        b"shd" => properties.shade = shade(element, words),
        b"bdr" => properties.border = Some(border(element, words)),
        b"rFonts" => fonts(properties, element, words),
        b"lang" => {
            element.each(|attribute, tag| {
                let slot = match attribute {
                    b"val" => &mut properties.language,
                    b"eastAsia" => &mut properties.language_east,
                    b"bidi" => &mut properties.language_complex,
                    _ => return,
                };
                if !tag.is_empty() {
                    *slot = Some(words.names.number(&tag));
                }
            });
        }
        _ => {}
    }
}

fn half_points(element: &Element<'_>) -> Option<u16> {
    let value = element.val()?;
    // A number with a unit comes as twips.
    let size = value.trim().parse().ok().or_else(|| super::super::xml::number(&value).map(|twips| twips / 10))?;
    u16::try_from(size).ok().filter(|size| (1..=3276).contains(size))
}

fn small(number: i32) -> i16 {
    number.clamp(-31_680, 31_680) as i16
}

fn fonts(properties: &mut CharacterProperties, element: &Element<'_>, words: &mut Vocabulary<'_>) {
    // A font of the theme wins over one that is named; the first of Latin text over the others.
    let mut found: [Option<(bool, Name)>; 3] = [None; 3];
    element.each(|attribute, value| {
        let (place, themed) = match attribute {
            b"ascii" => (0, false),
            b"asciiTheme" => (0, true),
            b"hAnsi" if found[0].is_none() => (0, false),
            b"hAnsiTheme" if found[0].is_none() => (0, true),
            b"eastAsia" => (1, false),
            b"eastAsiaTheme" => (1, true),
            b"cs" => (2, false),
            b"cstheme" => (2, true),
            _ => return,
        };
        let name = if themed { words.theme.font(&value).unwrap_or_default() } else { value.as_ref() };
        if !name.is_empty() && found[place].is_none_or(|(known, _)| themed || !known) {
            found[place] = Some((themed, words.names.number(name)));
        }
    });
    let [latin, east, complex] = found.map(|found| found.map(|(_, name)| name));
    properties.font = latin.or(properties.font);
    properties.font_east = east.or(properties.font_east);
    properties.font_complex = complex.or(properties.font_complex);
}

fn underline(value: &str) -> Underline {
    match value {
        "none" => Underline::None,
        "double" | "wavyDouble" => Underline::Double,
        "thick" => Underline::Thick,
        "dotted" | "dottedHeavy" => Underline::Dotted,
        "wave" | "wavyHeavy" => Underline::Wavy,
        value if value.starts_with("dash") || value.starts_with("dotDash") || value.starts_with("dotDotDash") => {
            Underline::Dashed
        }
        _ => Underline::Solid,
    }
}

fn emphasis_mark(value: &str) -> EmphasisMark {
    match value {
        "dot" => EmphasisMark::Dot,
        "comma" => EmphasisMark::Comma,
        "circle" => EmphasisMark::Circle,
        "underDot" => EmphasisMark::DotBelow,
        _ => EmphasisMark::None,
    }
}

/// A colour by its digits, or of the theme with its tint and shade (section 17.3.2.6).
pub(in crate::formats::word) fn colour(element: &Element<'_>, words: &Vocabulary<'_>) -> Option<Colour> {
    themed(element, words, [b"val", b"themeColor", b"themeTint", b"themeShade"])
}

/// The ground of a cell, a paragraph or a run (section 17.3.5).
pub(in crate::formats::word) fn shade(element: &Element<'_>, words: &Vocabulary<'_>) -> Option<Colour> {
    if !words.looks {
        // Whether there is a ground at all is all that matters.
        return element.get(b"fill").filter(|fill| fill != "auto").map(|_| Colour::Rgb(0));
    }
    let pattern = element.val().unwrap_or_default();
    if pattern == "solid" {
        return themed(element, words, [b"color", b"themeColor", b"themeTint", b"themeShade"]);
    }
    let fill = themed(element, words, [b"fill", b"themeFill", b"themeFillTint", b"themeFillShade"]);
    if let Some(percent) = pattern.strip_prefix("pct").and_then(|percent| percent.parse::<u32>().ok()) {
        // A pattern of dots is seen as a mixture of both colours.
        let front = match themed(element, words, [b"color", b"themeColor", b"themeTint", b"themeShade"]) {
            Some(Colour::Rgb(colour)) => colour,
            _ => 0,
        };
        let ground = match fill {
            Some(Colour::Rgb(colour)) => colour,
            _ => 0x00FF_FFFF,
        };
        return Some(Colour::Rgb(super::theme::mix(ground, front, percent.min(100))));
    }
    fill
}

fn themed(element: &Element<'_>, words: &Vocabulary<'_>, [value, theme, tint, shade]: [&[u8]; 4]) -> Option<Colour> {
    let byte = |name: &[u8]| element.get(name).and_then(|digits| u8::from_str_radix(&digits, 16).ok());
    if let Some(colour) = element.get(theme).and_then(|slot| words.theme.colour(&slot)) {
        return Some(Colour::Rgb(super::theme::toned(colour, byte(tint), byte(shade))));
    }
    element.get(value).and_then(|digits| plain_colour(&digits))
}

pub(in crate::formats::word) fn plain_colour(digits: &str) -> Option<Colour> {
    if digits == "auto" || digits.is_empty() {
        return Some(Colour::Auto);
    }
    u32::from_str_radix(digits.trim_start_matches('#'), 16).ok().filter(|rgb| *rgb <= 0x00FF_FFFF).map(Colour::Rgb)
}

/// Colours of markers (section 17.18.40).
pub(in crate::formats::word) const HIGHLIGHTS: [(&str, Colour); 17] = [
    ("yellow", Colour::Rgb(0x00FF_FF00)),
    ("green", Colour::Rgb(0x0000_FF00)),
    ("cyan", Colour::Rgb(0x0000_FFFF)),
    ("magenta", Colour::Rgb(0x00FF_00FF)),
    ("blue", Colour::Rgb(0x0000_00FF)),
    ("red", Colour::Rgb(0x00FF_0000)),
    ("darkBlue", Colour::Rgb(0x0000_0080)),
    ("darkCyan", Colour::Rgb(0x0000_8080)),
    ("darkGreen", Colour::Rgb(0x0000_8000)),
    ("darkMagenta", Colour::Rgb(0x0080_0080)),
    ("darkRed", Colour::Rgb(0x0080_0000)),
    ("darkYellow", Colour::Rgb(0x0080_8000)),
    ("darkGray", Colour::Rgb(0x0080_8080)),
    ("lightGray", Colour::Rgb(0x00C0_C0C0)),
    ("black", Colour::Rgb(0)),
    ("white", Colour::Rgb(0x00FF_FFFF)),
    ("none", Colour::Auto),
];

fn highlight(name: &str) -> Option<Colour> {
    HIGHLIGHTS.iter().find(|(known, _)| *known == name).map(|(_, colour)| *colour)
}

/// One line of a border (section 17.3.4).
pub(in crate::formats::word) fn border(element: &Element<'_>, words: &Vocabulary<'_>) -> Border {
    let line = match element.val().as_deref() {
        None | Some("nil" | "none") => Line::None,
        Some("double" | "triple") => Line::Double,
        Some("dotted") => Line::Dotted,
        Some(dashed) if dashed.starts_with("dash") || dashed.starts_with("dot") => Line::Dashed,
        Some(_) => Line::Solid,
    };
    if !words.looks {
        return Border { line, width: 0, space: 0, colour: Colour::Auto };
    }
    let size = |name: &[u8], most: i32| element.number(name).unwrap_or(0).clamp(0, most) as u16;
    Border { line, width: size(b"sz", 400), space: size(b"space", 100), colour: colour_of_border(element, words) }
}

fn colour_of_border(element: &Element<'_>, words: &Vocabulary<'_>) -> Colour {
    themed(element, words, [b"color", b"themeColor", b"themeTint", b"themeShade"]).unwrap_or(Colour::Auto)
}

/// Reads `pBdr`, `tblBorders` or `tcBorders`, which was opened last, to its end.
pub(in crate::formats::word) fn borders(xml: &mut Xml<'_>, words: &Vocabulary<'_>) -> Borders {
    let mut borders = Borders::default();
    while let Some(Event::Open(element)) = next_child(xml) {
        let side = match element.local() {
            b"top" => Some(&mut borders.top),
            b"right" | b"end" => Some(&mut borders.right),
            b"bottom" => Some(&mut borders.bottom),
            b"left" | b"start" => Some(&mut borders.left),
            b"between" | b"insideH" => Some(&mut borders.between),
            b"insideV" => Some(&mut borders.columns),
            _ => None,
        };
        if let Some(side) = side {
            *side = Some(border(&element, words));
        }
        xml.skip();
    }
    borders
}

/// Reads `pPr`, which was opened last, to its end.
pub(in crate::formats::word) fn paragraph(xml: &mut Xml<'_>, words: &mut Vocabulary<'_>) -> ParagraphProperties {
    let mut properties = ParagraphProperties::default();
    while let Some(Event::Open(element)) = next_child(xml) {
        if element.ns != Ns::W {
            xml.skip();
            continue;
        }
        match element.local() {
            b"rPr" => {
                properties.mark = characters(xml, words);
                continue;
            }
            b"numPr" => {
                properties.numbering = numbering(xml);
                continue;
            }
            b"sectPr" => {
                properties.section = Some(Box::new(Section::read(xml)));
                continue;
            }
            b"pBdr" => {
                properties.borders = borders(xml, words);
                continue;
            }
            b"tabs" if words.looks => {
                properties.tabs = tabs(xml);
                continue;
            }
            _ => one_of_paragraph(&mut properties, &element, words),
        }
        xml.skip();
    }
    properties
}

fn one_of_paragraph(properties: &mut ParagraphProperties, element: &Element<'_>, words: &mut Vocabulary<'_>) {
    match element.local() {
        b"pStyle" => properties.style = element.val().map(|id| words.names.number(&id)),
        b"outlineLvl" => properties.outline = element.number(b"val").map(|level| level.clamp(0, 9) as u8),
        b"bidi" => properties.right_to_left = Some(element.is_on()),
        b"jc" => properties.alignment = element.val().and_then(|value| alignment(&value)),
        b"ind" => indents(properties, element),
        b"spacing" if words.looks => spacing(properties, element),
        b"contextualSpacing" => properties.contextual = Some(element.is_on()),
        b"pageBreakBefore" => properties.page_break = Some(element.is_on()),
        b"keepNext" => properties.keep_next = Some(element.is_on()),
        b"shd" => properties.shade = shade(element, words),
        b"framePr" => properties.drop_capital = element.get(b"dropCap").is_some_and(|drop| drop != "none"),
        _ => {}
    }
}

pub(in crate::formats::word) fn alignment(value: &str) -> Option<Alignment> {
    Some(match value {
        "left" | "start" | "lowKashida" => Alignment::Start,
        "center" => Alignment::Center,
        "right" | "end" => Alignment::End,
        "both" | "distribute" | "thaiDistribute" | "mediumKashida" | "highKashida" => Alignment::Justify,
        _ => return None,
    })
}

fn indents(properties: &mut ParagraphProperties, element: &Element<'_>) {
    element.each(|name, value| {
        let Some(number) = super::super::xml::number(&value).map(|number| number.clamp(-31_680, 31_680)) else { return };
        match name {
            b"left" | b"start" => properties.indent_start = Some(number),
            b"right" | b"end" => properties.indent_end = Some(number),
            b"firstLine" => properties.first_line = properties.first_line.filter(|first| *first < 0).or(Some(number)),
            b"hanging" => properties.first_line = Some(-number),
            _ => {}
        }
    });
}

fn spacing(properties: &mut ParagraphProperties, element: &Element<'_>) {
    let (mut line, mut rule) = (None, LineRule::Lines);
    element.each(|name, value| {
        let number = || super::super::xml::number(&value).map(|number| number.clamp(0, 31_680));
        match name {
            b"before" => properties.before = number().or(properties.before),
            b"after" => properties.after = number().or(properties.after),
            // What browsers do of their own.
            b"beforeAutospacing" if is_on(&value) => properties.before = Some(280),
            b"afterAutospacing" if is_on(&value) => properties.after = Some(280),
            b"line" => line = number(),
            b"lineRule" => {
                rule = match value.as_ref() {
                    "exact" => LineRule::Exactly,
                    "atLeast" => LineRule::AtLeast,
                    _ => LineRule::Lines,
                }
            }
            _ => {}
        }
    });
    properties.line = line.filter(|line| *line > 0).map(|line| (line, rule)).or(properties.line);
}

/// Reads `numPr`, which was opened last, to its end.
fn numbering(xml: &mut Xml<'_>) -> Numbering {
    let mut numbering = Numbering::default();
    while let Some(Event::Open(element)) = next_child(xml) {
        match element.local() {
            b"numId" => numbering.id = element.number(b"val"),
            b"ilvl" => numbering.level = element.number(b"val").map(|level| level.clamp(0, 8) as u8),
            _ => {}
        }
        xml.skip();
    }
    numbering
}

fn tabs(xml: &mut Xml<'_>) -> Vec<TabStop> {
    let mut stops = Vec::new();
    while let Some(Event::Open(element)) = next_child(xml) {
        let kind = match element.val().as_deref() {
            Some("clear") => TabKind::Clear,
            Some("center") => TabKind::Center,
            Some("right" | "end") => TabKind::Right,
            Some("decimal") => TabKind::Decimal,
            // A bar is a line and no stop.
            Some("bar") => {
                xml.skip();
                continue;
            }
            _ => TabKind::Left,
        };
        let leader = match element.get(b"leader").as_deref() {
            Some("dot" | "middleDot") => Some(Line::Dotted),
            Some("hyphen") => Some(Line::Dashed),
            Some("underscore" | "heavy") => Some(Line::Solid),
            _ => None,
        };
        if let Some(at) = element.number(b"pos") {
            stops.push(TabStop { at, kind, leader });
        }
        xml.skip();
    }
    stops
}

#[cfg(test)]
mod tests {
    use super::*;

    #[test]
    fn toggles_combine_over_styles_and_plain_properties_do_not() {
        let flags = |flag: Flag, on: bool| {
            let mut flags = Flags::default();
            flags.set(flag, on);
            flags
        };
        let mut bold = flags(Flag::Bold, true);
        bold.combine_with(flags(Flag::Bold, true));
        assert!(!bold.is(Flag::Bold) && bold.says(Flag::Bold));
        bold.override_with(flags(Flag::Bold, true));
        assert!(bold.is(Flag::Bold));
        let mut struck = flags(Flag::DoubleStrike, true);
        struck.combine_with(flags(Flag::DoubleStrike, true));
        assert!(struck.is(Flag::DoubleStrike));
    }
}
