//! Values of style rules as properties of styles: lengths in every unit, colours of every form, shorthands opened
//! (CSS Values and Units Level 4; CSS Color Level 4; and the modules of the properties).

use super::css_colours::{Seen, on_white};
use crate::document::{Direction, Edge, Line, Measure, Property, StyleProperties, Underline, Value};
use cssparser::{Parser, Token};
use cssparser_color::Color;
use smallvec::SmallVec;

/// A pixel, in twips.
const PIXEL: f64 = 15.0;
/// The width and height of what a page is looked at with, in twips: a sheet of A4, where the page does not say.
const VIEW: (f64, f64) = (11_906.0, 16_838.0);
/// The size of letters that nothing sets, in twips.
pub(super) const USUAL_SIZE: f64 = 16.0 * PIXEL;

/// What lengths of other units depend on, in twips.
#[derive(Clone, Copy, Debug)]
pub(super) struct Sizes {
    /// The size of the letters of the element.
    pub(super) font: f64,
    /// That of the page.
    pub(super) root: f64,
}

/// A part of a value.
#[derive(Clone, Debug, PartialEq)]
enum Part {
    /// A keyword, in lower case.
    Word(String),
    /// Twips.
    Length(f64),
    /// Hundredths.
    Percent(f64),
    Number(f64),
    /// A colour with nothing of what is behind it, or one that lets all of it through.
    Colour(Option<u32>),
    /// The colour of the text.
    TextColour,
    Text(String),
    Comma,
    Slash,
    /// What has no counterpart here.
    Other,
}

type Parts = SmallVec<[Part; 6]>;

fn parts(value: &str, sizes: Sizes) -> Parts {
    let mut parser = Parser::new(value);
    let mut parts = Parts::new();
    // Nobody writes values of so many parts, but for lists of fonts and shadows.
    while !parser.is_exhausted() && parts.len() < 64 {
        if let Ok(colour) = parser.try_parse(Color::parse) {
            parts.push(match on_white(&colour) {
                Seen::OfText => Part::TextColour,
                Seen::Nothing => Part::Colour(None),
                Seen::Rgb(rgb) => Part::Colour(Some(rgb)),
            });
            continue;
        }
        let Ok(token) = parser.next() else { break };
        let part = match token.clone() {
            Token::Ident(word) => Part::Word(word.to_ascii_lowercase()),
            Token::Dimension { value, ref unit, .. } => twips(f64::from(value), unit, sizes).map_or(Part::Other, Part::Length),
            Token::Percentage { unit_value, .. } => Part::Percent(f64::from(unit_value) * 100.0),
            Token::Number { value, .. } => Part::Number(f64::from(value)),
            Token::QuotedString(text) => Part::Text((*text).to_owned()),
            Token::Comma => Part::Comma,
            Token::Delim('/') => Part::Slash,
            Token::Function(name) => {
                let name = name.to_ascii_lowercase();
                parser
                    .parse_nested_block(|inner| Ok::<_, cssparser::ParseError<()>>(function(&name, inner, sizes, 0)))
                    .unwrap_or(Part::Other)
            }
            _ => Part::Other,
        };
        parts.push(part);
    }
    parts
}

/// A length in twips (CSS Values and Units, section 6).
fn twips(value: f64, unit: &str, sizes: Sizes) -> Option<f64> {
    let of = match &*unit.to_ascii_lowercase() {
        "px" => PIXEL,
        "pt" => 20.0,
        "pc" => 240.0,
        "in" => 1440.0,
        "cm" => 1440.0 / 2.54,
        "mm" => 144.0 / 2.54,
        "q" => 36.0 / 2.54,
        "em" => sizes.font,
        "rem" => sizes.root,
        "ex" | "ch" => sizes.font / 2.0,
        "rex" | "rch" => sizes.root / 2.0,
        "cap" => sizes.font * 0.7,
        "ic" => sizes.font,
        "lh" => sizes.font * 1.2,
        "rlh" => sizes.root * 1.2,
        "vw" | "vi" | "svw" | "lvw" | "dvw" | "vmin" => VIEW.0 / 100.0,
        "vh" | "vb" | "svh" | "lvh" | "dvh" | "vmax" => VIEW.1 / 100.0,
        _ => return None,
    };
    Some(value * of)
}

/// What a function comes to: one that calculates (CSS Values and Units, section 10).
fn function(name: &str, inner: &mut Parser<'_>, sizes: Sizes, depth: u8) -> Part {
    let result = match name {
        "calc" | "" => sum(inner, sizes, depth),
        "min" | "max" | "clamp" => {
            let mut values: SmallVec<[Part; 3]> = SmallVec::new();
            while let Some(value) = sum(inner, sizes, depth) {
                values.push(value);
                if inner.try_parse(Parser::expect_comma).is_err() {
                    break;
                }
            }
            let number = |part: &Part| match part {
                Part::Length(twips) => Some(*twips),
                _ => None,
            };
            let numbers: Option<SmallVec<[f64; 3]>> = values.iter().map(number).collect();
            numbers.filter(|numbers| !numbers.is_empty()).map(|numbers| {
                Part::Length(match (name, numbers.as_slice()) {
                    ("clamp", [low, value, high]) => value.min(*high).max(*low),
                    ("min", numbers) => numbers.iter().copied().fold(f64::MAX, f64::min),
                    (_, numbers) => numbers.iter().copied().fold(f64::MIN, f64::max),
                })
            })
        }
        _ => None,
    };
    while inner.next().is_ok() {}
    result.unwrap_or(Part::Other)
}

/// Terms that are added. Lengths and shares of what is around do not add up here.
fn sum(input: &mut Parser<'_>, sizes: Sizes, depth: u8) -> Option<Part> {
    let mut total = product(input, sizes, depth)?;
    loop {
        let sign = input.try_parse(|input| match input.next() {
            Ok(Token::Delim('+')) => Ok(1.0_f64),
            Ok(Token::Delim('-')) => Ok(-1.0),
            _ => Err(()),
        });
        let Ok(sign) = sign else { return Some(total) };
        total = match (total, product(input, sizes, depth)?) {
            (Part::Length(one), Part::Length(other)) => Part::Length(sign.mul_add(other, one)),
            (Part::Percent(one), Part::Percent(other)) => Part::Percent(sign.mul_add(other, one)),
            (Part::Number(one), Part::Number(other)) => Part::Number(sign.mul_add(other, one)),
            _ => return None,
        };
    }
}

fn product(input: &mut Parser<'_>, sizes: Sizes, depth: u8) -> Option<Part> {
    let mut total = term(input, sizes, depth)?;
    loop {
        let divides = input.try_parse(|input| match input.next() {
            Ok(Token::Delim('*')) => Ok(false),
            Ok(Token::Delim('/')) => Ok(true),
            _ => Err(()),
        });
        let Ok(divides) = divides else { return Some(total) };
        total = match (total, term(input, sizes, depth)?) {
            (_, Part::Number(0.0)) if divides => return None,
            (Part::Length(value), Part::Number(by)) => Part::Length(if divides { value / by } else { value * by }),
            (Part::Percent(value), Part::Number(by)) => Part::Percent(if divides { value / by } else { value * by }),
            (Part::Number(value), Part::Number(by)) => Part::Number(if divides { value / by } else { value * by }),
            (Part::Number(by), Part::Length(value)) if !divides => Part::Length(value * by),
            (Part::Number(by), Part::Percent(value)) if !divides => Part::Percent(value * by),
            _ => return None,
        };
    }
}

fn term(input: &mut Parser<'_>, sizes: Sizes, depth: u8) -> Option<Part> {
    // Nobody calculates deeper.
    if depth > 16 {
        return None;
    }
    match input.next().ok()?.clone() {
        Token::Dimension { value, ref unit, .. } => twips(f64::from(value), unit, sizes).map(Part::Length),
        Token::Percentage { unit_value, .. } => Some(Part::Percent(f64::from(unit_value) * 100.0)),
        Token::Number { value, .. } => Some(Part::Number(f64::from(value))),
        Token::ParenthesisBlock => nested("", input, sizes, depth),
        Token::Function(name) => nested(&name.to_ascii_lowercase(), input, sizes, depth),
        _ => None,
    }
}

fn nested(name: &str, input: &mut Parser<'_>, sizes: Sizes, depth: u8) -> Option<Part> {
    let part =
        input.parse_nested_block(|inner| Ok::<_, cssparser::ParseError<()>>(function(name, inner, sizes, depth + 1))).ok()?;
    Some(part).filter(|part| *part != Part::Other)
}

/// One side of a border, as far as it is said.
#[derive(Clone, Copy, Debug, Default, PartialEq)]
struct Side {
    line: Option<Line>,
    /// Eighths of a point.
    width: Option<u16>,
    colour: Option<u32>,
}

/// What declarations set, the later ones over the earlier ones.
#[derive(Clone, Debug, Default, PartialEq)]
pub(super) struct Declared {
    pub(super) properties: StyleProperties,
    sides: [Side; 4],
    /// Whether a page ends behind the element.
    pub(super) breaks_behind: bool,
    pub(super) direction: Option<Direction>,
}

const SIDES: [&str; 4] = ["top", "right", "bottom", "left"];
const BORDERS: [Property; 4] = [Property::BorderTop, Property::BorderRight, Property::BorderBottom, Property::BorderLeft];
const MARGINS: [Property; 4] = [Property::MarginTop, Property::MarginRight, Property::MarginBottom, Property::MarginLeft];
const PADDINGS: [Property; 4] = [Property::PaddingTop, Property::PaddingRight, Property::PaddingBottom, Property::PaddingLeft];

/// Names of properties that go with the direction of writing, as those that go with the page.
fn physical(name: &str) -> Option<&'static str> {
    Some(match name {
        "margin-inline-start" => "margin-left",
        "margin-inline-end" => "margin-right",
        "margin-block-start" => "margin-top",
        "margin-block-end" => "margin-bottom",
        "padding-inline-start" => "padding-left",
        "padding-inline-end" => "padding-right",
        "padding-block-start" => "padding-top",
        "padding-block-end" => "padding-bottom",
        "border-inline-start" => "border-left",
        "border-inline-end" => "border-right",
        "border-block-start" => "border-top",
        "border-block-end" => "border-bottom",
        "inline-size" => "width",
        "block-size" => "height",
        "page-break-before" => "break-before",
        "page-break-after" => "break-after",
        "word-wrap" => "overflow-wrap",
        "text-decoration-line" => "text-decoration",
        _ => return None,
    })
}

/// Which of the keywords a value is.
fn keyword(value: &Parts, known: &[&'static str]) -> Option<Value> {
    let Some(Part::Word(word)) = value.first() else { return None };
    known.iter().find(|known| *known == word).map(|known| Value::Keyword(known))
}

fn measure(part: &Part) -> Option<Measure> {
    Some(match *part {
        Part::Length(twips) => Measure::Twips(whole(twips)),
        Part::Number(0.0) => Measure::Twips(0),
        Part::Percent(percent) => Measure::Percent(whole(percent * 50.0)),
        Part::Word(ref word) if word == "auto" => Measure::Auto,
        _ => return None,
    })
}

/// The nearest whole number, within what documents have.
fn whole(value: f64) -> i32 {
    value.round().clamp(-200_000.0, 200_000.0) as i32
}

/// The size of letters that a value sets, in twips, where those around have another one.
pub(super) fn font_size(value: &str, around: f64, root: f64) -> Option<f64> {
    let pixels = |pixels: f64| Some(pixels * PIXEL);
    let size = match parts(value, Sizes { font: around, root }).first()? {
        Part::Length(twips) => Some(*twips),
        Part::Percent(percent) => Some(percent / 100.0 * around),
        Part::Word(word) => match word.as_str() {
            "xx-small" => pixels(9.0),
            "x-small" => pixels(10.0),
            "small" => pixels(13.0),
            "medium" => pixels(16.0),
            "large" => pixels(18.0),
            "x-large" => pixels(24.0),
            "xx-large" => pixels(32.0),
            "xxx-large" => pixels(48.0),
            "larger" => Some(around * 1.2),
            "smaller" => Some(around / 1.2),
            _ => None,
        },
        _ => None,
    };
    size.filter(|size| (20.0..=32_000.0).contains(size))
}

/// The part of the shorthand `font` that sets the size.
pub(super) fn size_of_font(value: &str) -> Option<&str> {
    let is_size = |word: &&str| {
        let size = word.split('/').next().unwrap_or(word);
        size.starts_with(|c: char| c.is_ascii_digit() || c == '.')
            && size.ends_with(|c: char| c.is_ascii_alphabetic() || c == '%')
            || matches!(
                size,
                "xx-small" | "x-small" | "small" | "medium" | "large" | "x-large" | "xx-large" | "larger" | "smaller"
            )
    };
    value.split_ascii_whitespace().find(is_size).map(|word| word.split('/').next().unwrap_or(word))
}

/// Fonts by their names; one that stands for a kind of font is one of that kind that word processors have.
fn fonts(value: &str) -> Option<Value> {
    let mut fonts: Vec<String> = Vec::new();
    let mut generic = None;
    for font in value.split(',').take(8) {
        let name = font.trim().trim_matches(['"', '\'']).split_ascii_whitespace().collect::<Vec<_>>().join(" ");
        match name.to_ascii_lowercase().as_str() {
            "" | "inherit" | "initial" | "unset" | "revert" | "-apple-system" | "blinkmacsystemfont" => {}
            "serif" | "ui-serif" => generic = generic.or(Some("Times New Roman")),
            "sans-serif" | "ui-sans-serif" | "system-ui" => generic = generic.or(Some("Arial")),
            "monospace" | "ui-monospace" => generic = generic.or(Some("Courier New")),
            "cursive" | "fantasy" | "emoji" | "math" | "fangsong" | "ui-rounded" => {}
            _ if name.len() > 64 || name.contains(['(', ')', '<', '>']) => {}
            _ => fonts.push(name),
        }
    }
    if fonts.is_empty() {
        fonts.extend(generic.map(str::to_owned));
    }
    (!fonts.is_empty()).then_some(Value::Fonts(fonts))
}

impl Declared {
    fn put(&mut self, property: Property, value: Value) {
        match self.properties.iter_mut().find(|(known, _)| *known == property) {
            Some(known) => known.1 = value,
            None => self.properties.push((property, value)),
        }
    }

    fn take(&mut self, property: Property) {
        self.properties.retain(|(known, _)| *known != property);
    }

    fn put_some(&mut self, property: Property, value: Option<Value>) {
        if let Some(value) = value {
            self.put(property, value);
        }
    }

    /// Sets a size of letters in twips.
    pub(super) fn set_size(&mut self, twips: f64) {
        self.put(Property::FontSize, Value::twips(whole(twips)));
    }

    /// What is set in all, the lines of borders put together.
    pub(super) fn finish(mut self) -> Self {
        for (side, property) in std::mem::take(&mut self.sides).into_iter().zip(BORDERS) {
            match side.line {
                Some(Line::None) => self.put(property, Value::Keyword("none")),
                Some(line) => {
                    // Two lines and what is between them are as wide as three.
                    let width = side.width.map(|width| if line == Line::Double { (width + 1) / 3 } else { width });
                    let side = Side { width, ..side };
                    let edge = Edge { line, width: side.width.unwrap_or(18), colour: side.colour };
                    // A line of no width is none.
                    self.put(property, if edge.width == 0 { Value::Keyword("none") } else { Value::Edge(edge) });
                }
                None => {}
            }
        }
        self
    }

    /// Takes over a declaration.
    pub(super) fn set(&mut self, name: &str, value: &str, sizes: Sizes) {
        let name = physical(name).unwrap_or(name);
        if name == "font-size" {
            return;
        }
        if matches!(value, "inherit" | "initial" | "unset" | "revert" | "revert-layer") {
            if let Some(&property) = Property::ALL.iter().find(|property| property.css_name() == name) {
                self.take(property);
            }
            return;
        }
        let parts = parts(value, sizes);
        match name {
            "font" => self.font(value, &parts, sizes),
            "font-weight"
            | "font-style"
            | "font-variant"
            | "font-variant-caps"
            | "font-family"
            | "text-transform"
            | "letter-spacing"
            | "line-height"
            | "text-indent"
            | "text-align"
            | "color"
            | "white-space"
            | "direction"
            | "text-decoration"
            | "text-decoration-style"
            | "text-decoration-color"
            | "vertical-align" => {
                self.set_text(name, value, &parts, sizes);
            }
            _ => self.set_box(name, &parts),
        }
    }

    fn font(&mut self, value: &str, parts: &Parts, sizes: Sizes) {
        let Some(size) = size_of_font(value) else { return };
        let words = || parts.iter().filter_map(|part| if let Part::Word(word) = part { Some(word.as_str()) } else { None });
        let has = |word: &str| words().any(|known| known == word);
        let heavy = parts.iter().any(|part| matches!(part, Part::Number(weight) if *weight >= 600.0));
        self.put(Property::FontWeight, Value::Keyword(if heavy || has("bold") || has("bolder") { "bold" } else { "normal" }));
        self.put(Property::FontStyle, Value::Keyword(if has("italic") || has("oblique") { "italic" } else { "normal" }));
        self.take(Property::FontVariant);
        if has("small-caps") {
            self.put(Property::FontVariant, Value::Keyword("small-caps"));
        }
        self.take(Property::LineHeight);
        if let Some(slash) = parts.iter().position(|part| *part == Part::Slash) {
            self.put_some(Property::LineHeight, parts.get(slash + 1).and_then(|part| line_height(part, sizes)));
        }
        // Fonts stand behind the size.
        let behind = value.find(size).map_or("", |at| value[at..].split_once(char::is_whitespace).map_or("", |(_, rest)| rest));
        let behind = behind.trim_start().trim_start_matches('/');
        self.put_some(Property::FontFamily, fonts(behind));
    }

    fn set_text(&mut self, name: &str, value: &str, parts: &Parts, sizes: Sizes) {
        match name {
            "font-weight" => {
                let is_bold = match parts.first() {
                    Some(Part::Number(weight)) => Some(*weight >= 600.0),
                    Some(Part::Word(word)) => match word.as_str() {
                        "bold" | "bolder" => Some(true),
                        "normal" | "lighter" => Some(false),
                        _ => None,
                    },
                    _ => None,
                };
                self.put_some(Property::FontWeight, is_bold.map(|bold| Value::Keyword(if bold { "bold" } else { "normal" })));
            }
            "font-style" => {
                let style = keyword(parts, &["normal", "italic", "oblique"]).map(|style| match style {
                    Value::Keyword("oblique") => Value::Keyword("italic"),
                    other => other,
                });
                self.put_some(Property::FontStyle, style);
            }
            "font-variant" | "font-variant-caps" => match keyword(parts, &["normal", "small-caps", "all-small-caps"]) {
                Some(Value::Keyword("normal")) => self.take(Property::FontVariant),
                Some(_) => self.put(Property::FontVariant, Value::Keyword("small-caps")),
                None => {}
            },
            "font-family" => self.put_some(Property::FontFamily, fonts(value)),
            "text-transform" => match keyword(parts, &["none", "uppercase", "lowercase", "capitalize"]) {
                Some(Value::Keyword("none")) => self.take(Property::TextTransform),
                transform => self.put_some(Property::TextTransform, transform),
            },
            "letter-spacing" => {
                self.take(Property::LetterSpacing);
                if let Some(length @ Measure::Twips(_)) = parts.first().and_then(measure) {
                    self.put(Property::LetterSpacing, Value::Length(length));
                }
            }
            "line-height" => {
                self.take(Property::LineHeight);
                self.put_some(Property::LineHeight, parts.first().and_then(|part| line_height(part, sizes)));
            }
            "text-indent" => self.put_some(Property::TextIndent, parts.first().and_then(measure).map(Value::Length)),
            "text-align" => {
                self.put_some(Property::TextAlign, keyword(parts, &["left", "right", "center", "justify", "start", "end"]));
            }
            "color" => {
                if let Some(Part::Colour(Some(colour))) = parts.first() {
                    self.put(Property::Color, Value::Colour(*colour));
                }
            }
            "white-space" => {
                let space = keyword(parts, &["normal", "nowrap", "pre", "pre-wrap", "pre-line", "break-spaces"]);
                self.put_some(Property::WhiteSpace, space.filter(|space| *space != Value::Keyword("normal")));
            }
            "direction" => {
                self.direction = match parts.first() {
                    Some(Part::Word(word)) => Direction::from_value(word),
                    _ => None,
                }
                .or(self.direction);
            }
            "vertical-align" => {
                let place = keyword(parts, &["super", "sub", "top", "middle", "bottom", "baseline"]);
                self.put_some(Property::VerticalAlign, place.filter(|place| *place != Value::Keyword("baseline")));
            }
            _ => self.decoration(name, parts),
        }
    }

    fn decoration(&mut self, name: &str, parts: &Parts) {
        let known =
            self.properties.iter().find(|(property, _)| *property == Property::TextDecoration).map(|(_, value)| value.clone());
        let words = || parts.iter().filter_map(|part| if let Part::Word(word) = part { Some(word.as_str()) } else { None });
        let has = |wanted: &str| words().any(|word| word == wanted);
        let style = if has("double") {
            Underline::Double
        } else if has("dotted") {
            Underline::Dotted
        } else if has("dashed") {
            Underline::Dashed
        } else if has("wavy") {
            Underline::Wavy
        } else {
            Underline::Solid
        };
        let colour = parts.iter().find_map(|part| if let Part::Colour(colour) = part { *colour } else { None });
        let value = match (name, known) {
            ("text-decoration", _) if has("none") => Some(Value::Underline(Underline::None, None)),
            ("text-decoration", _) if has("underline") && has("line-through") => Some(Value::Keyword("underline line-through")),
            ("text-decoration", _) if has("line-through") => Some(Value::Keyword("line-through")),
            ("text-decoration", _) if has("underline") => Some(Value::Underline(style, colour)),
            ("text-decoration-style", Some(Value::Underline(line, colour))) if line != Underline::None => {
                Some(Value::Underline(style, colour))
            }
            ("text-decoration-color", Some(Value::Underline(line, _))) => Some(Value::Underline(line, colour)),
            _ => None,
        };
        self.put_some(Property::TextDecoration, value);
    }

    fn set_box(&mut self, name: &str, parts: &Parts) {
        match name {
            "background" | "background-color" => {
                self.take(Property::BackgroundColor);
                let colour = parts.iter().find_map(|part| if let Part::Colour(colour) = part { *colour } else { None });
                self.put_some(Property::BackgroundColor, colour.map(Value::Colour));
            }
            "margin" => self.all_sides(MARGINS, parts),
            "padding" => self.all_sides(PADDINGS, parts),
            "margin-inline" => self.two_sides([MARGINS[3], MARGINS[1]], parts),
            "margin-block" => self.two_sides([MARGINS[0], MARGINS[2]], parts),
            "padding-inline" => self.two_sides([PADDINGS[3], PADDINGS[1]], parts),
            "padding-block" => self.two_sides([PADDINGS[0], PADDINGS[2]], parts),
            "border-collapse" => self.put_some(Property::BorderCollapse, keyword(parts, &["collapse", "separate"])),
            "width" => self.put_some(Property::Width, parts.first().and_then(measure).map(Value::Length)),
            "max-width" => self.put_some(Property::MaxWidth, parts.first().and_then(measure).map(Value::Length)),
            "height" => self.put_some(Property::Height, parts.first().and_then(measure).map(Value::Length)),
            "float" => {
                self.take(Property::Float);
                self.put_some(Property::Float, keyword(parts, &["left", "right"]));
            }
            "clear" => self.put_some(Property::Clear, keyword(parts, &["left", "right", "both"])),
            "list-style" | "list-style-type" => {
                let kinds = [
                    "disc",
                    "circle",
                    "square",
                    "decimal",
                    "decimal-leading-zero",
                    "lower-alpha",
                    "upper-alpha",
                    "lower-latin",
                    "upper-latin",
                    "lower-roman",
                    "upper-roman",
                    "lower-greek",
                    "none",
                ];
                let kind = parts.iter().find_map(|part| keyword(&Parts::from_elem(part.clone(), 1), &kinds));
                self.put_some(Property::ListStyleType, kind);
            }
            "columns" | "column-count" => {
                let count = parts.iter().find_map(|part| if let Part::Number(count) = part { Some(*count) } else { None });
                self.take(Property::Columns);
                if let Some(count) = count.filter(|count| (2.0..=16.0).contains(count)) {
                    self.put(Property::Columns, Value::Columns(count as u16));
                }
            }
            "column-gap" => self.put_some(Property::ColumnGap, parts.first().and_then(measure).map(Value::Length)),
            "break-before" | "break-after" => {
                let Some(Part::Word(word)) = parts.first() else { return };
                let is_break = matches!(word.as_str(), "always" | "page" | "left" | "right" | "recto" | "verso");
                if name == "break-after" {
                    self.breaks_behind = is_break;
                } else {
                    self.take(Property::BreakBefore);
                    if is_break {
                        self.put(Property::BreakBefore, Value::Keyword("page"));
                    }
                }
            }
            _ => {
                if let Some(rest) = name.strip_prefix("border") {
                    self.border(rest, parts);
                } else if let Some(side) = name.strip_prefix("margin-").and_then(side) {
                    self.put_some(MARGINS[side], parts.first().and_then(measure).map(Value::Length));
                } else if let Some(side) = name.strip_prefix("padding-").and_then(side) {
                    self.put_some(PADDINGS[side], parts.first().and_then(measure).map(Value::Length));
                }
            }
        }
    }

    fn all_sides(&mut self, properties: [Property; 4], parts: &Parts) {
        let lengths: Option<SmallVec<[Measure; 4]>> = parts.iter().map(measure).collect();
        if let Some(sides) = lengths.and_then(|lengths| of_sides(&lengths)) {
            for (property, side) in properties.into_iter().zip(sides) {
                self.put(property, Value::Length(side));
            }
        }
    }

    fn two_sides(&mut self, properties: [Property; 2], parts: &Parts) {
        let lengths: Option<SmallVec<[Measure; 4]>> = parts.iter().map(measure).collect();
        if let Some([first, .., last]) = lengths.as_deref().map(|lengths| [lengths.first().copied(), lengths.last().copied()]) {
            self.put_some(properties[0], first.map(Value::Length));
            self.put_some(properties[1], last.map(Value::Length));
        }
    }

    /// `border` with what stands behind that in the name of the property.
    fn border(&mut self, rest: &str, parts: &Parts) {
        let rest = rest.strip_prefix('-').unwrap_or(rest);
        let (of, what) = match rest.split_once('-') {
            Some((name, what)) => (side(name), what),
            None => match side(rest) {
                Some(known) => (Some(known), ""),
                None => (None, rest),
            },
        };
        let sides = match (of, rest.split_once('-')) {
            (Some(side), _) => side..side + 1,
            // Of corners, pictures and spaces there is nothing to say.
            (None, Some(_)) => return,
            (None, None) => 0..4,
        };
        match what {
            "" => {
                let mut whole = Side { line: Some(Line::None), ..Side::default() };
                for part in parts {
                    set_side(&mut whole, part);
                }
                for side in &mut self.sides[sides] {
                    *side = whole;
                }
            }
            "width" | "style" | "color" => {
                let Some(values) = of_sides(parts) else { return };
                for at in sides {
                    let value = if of.is_some() { &parts[0] } else { &values[at] };
                    set_side(&mut self.sides[at], value);
                }
            }
            _ => {}
        }
    }
}

fn side(name: &str) -> Option<usize> {
    SIDES.iter().position(|known| *known == name)
}

/// One to four values, as those of all four sides.
fn of_sides<T: Clone>(values: &[T]) -> Option<[T; 4]> {
    let at = |places: [usize; 4]| Some(places.map(|place| values[place].clone()));
    match values.len() {
        1 => at([0, 0, 0, 0]),
        2 => at([0, 1, 0, 1]),
        3 => at([0, 1, 2, 1]),
        4 => at([0, 1, 2, 3]),
        _ => None,
    }
}

fn set_side(side: &mut Side, part: &Part) {
    let eighths = |twips: f64| Some((twips / 2.5).round().clamp(0.0, 96.0) as u16);
    match part {
        Part::Length(twips) => side.width = eighths(*twips),
        Part::Number(0.0) => side.width = Some(0),
        Part::Colour(Some(colour)) => side.colour = Some(*colour),
        // A line that is not seen.
        Part::Colour(None) => side.line = Some(Line::None),
        Part::Word(word) => match word.as_str() {
            "thin" => side.width = Some(6),
            "medium" => side.width = Some(18),
            "thick" => side.width = Some(30),
            "none" | "hidden" => side.line = Some(Line::None),
            "solid" | "groove" | "ridge" | "inset" | "outset" => side.line = Some(Line::Solid),
            "double" => side.line = Some(Line::Double),
            "dotted" => side.line = Some(Line::Dotted),
            "dashed" => side.line = Some(Line::Dashed),
            _ => {}
        },
        _ => {}
    }
}

fn line_height(part: &Part, sizes: Sizes) -> Option<Value> {
    match *part {
        // Lines of the usual height are 1.2 times the size of the letters.
        Part::Number(times) if times > 0.0 => Some(Value::Lines(whole(times / 1.2 * 240.0))),
        Part::Percent(percent) if percent > 0.0 => Some(Value::Lines(whole(percent / 120.0 * 240.0))),
        Part::Length(twips) if twips > 0.0 && sizes.font > 0.0 => Some(Value::Lines(whole(twips / sizes.font / 1.2 * 240.0))),
        _ => None,
    }
}

/// The width and height of a sheet, in twips (CSS Paged Media, section 7.1).
pub(super) fn paper(value: &str) -> Option<(i32, i32)> {
    let sizes = Sizes { font: USUAL_SIZE, root: USUAL_SIZE };
    let parts = parts(value, sizes);
    let mut lengths = parts.iter().filter_map(|part| if let Part::Length(twips) = part { Some(whole(*twips)) } else { None });
    let words = || parts.iter().filter_map(|part| if let Part::Word(word) = part { Some(word.as_str()) } else { None });
    let known = words().find_map(|word| {
        Some(match word {
            "a3" => (16_838, 23_811),
            "a4" => (11_906, 16_838),
            "a5" => (8_391, 11_906),
            "b4" => (14_173, 20_013),
            "b5" => (9_979, 14_173),
            "letter" => (12_240, 15_840),
            "legal" => (12_240, 20_160),
            "ledger" => (15_840, 24_480),
            _ => return None,
        })
    });
    let page = match (known, lengths.next()) {
        (Some(page), _) => page,
        (None, Some(width)) => (width, lengths.next().unwrap_or(width)),
        (None, None) if words().any(|word| word == "landscape" || word == "portrait") => (11_906, 16_838),
        _ => return None,
    };
    let page = if words().any(|word| word == "landscape") { (page.0.max(page.1), page.0.min(page.1)) } else { page };
    ((1_000..=31_680).contains(&page.0) && (1_000..=31_680).contains(&page.1)).then_some(page)
}
