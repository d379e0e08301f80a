//! Properties of styles, as the model of the library has them, as properties of paragraphs and characters: the way back from
//! what reading makes of these.

use super::properties::{
    Alignment, Border, Borders, CharacterProperties, Colour, EmphasisMark, Flag, LineRule, Names, ParagraphProperties, Raised,
    TabKind, TabStop,
};
use crate::document::{Edge, Measure, Property, TabAlign, Value};

/// The size of text that a length in sizes of it counts, in twips.
const USUAL_SIZE: i32 = 220;

/// Names of fonts have so many characters at most.
const LONGEST_FONT: usize = 31;

/// The width of the text on a usual page, in twips.
pub(in crate::formats::word) const TEXT_WIDTH: i32 = 9070;

/// Takes over what properties of a style say. What has no counterpart is left out.
pub(in crate::formats::word) fn apply(
    properties: &[(Property, Value)],
    paragraph: &mut ParagraphProperties,
    characters: &mut CharacterProperties,
    names: &mut Names,
) {
    for (property, value) in properties {
        apply_to_paragraph(*property, value, paragraph);
        apply_to_characters(*property, value, characters, names);
    }
    for (property, value) in properties {
        let side = match property {
            Property::PaddingTop => &mut paragraph.borders.top,
            Property::PaddingRight => &mut paragraph.borders.right,
            Property::PaddingBottom => &mut paragraph.borders.bottom,
            Property::PaddingLeft => &mut paragraph.borders.left,
            _ => continue,
        };
        // The space between a line and the text, in points.
        if let (Some(side), Some(twips)) = (side, twips(value)) {
            side.space = (twips / 20).clamp(0, 31) as u16;
        }
    }
}

/// The lines around something that is no text.
pub(in crate::formats::word) fn borders(properties: &[(Property, Value)]) -> Borders {
    let mut own = ParagraphProperties::default();
    for (property, value) in properties {
        if matches!(
            property,
            Property::Border | Property::BorderTop | Property::BorderRight | Property::BorderBottom | Property::BorderLeft
        ) {
            apply_to_paragraph(*property, value, &mut own);
        }
    }
    own.borders
}

/// Turns left and right around, which style sheets mean as they are seen, and paragraphs as their lines run.
pub(in crate::formats::word) const fn turn(own: &mut ParagraphProperties) {
    own.alignment = match own.alignment {
        Some(Alignment::Start) => Some(Alignment::End),
        Some(Alignment::End) => Some(Alignment::Start),
        other => other,
    };
    (own.indent_start, own.indent_end) = (own.indent_end, own.indent_start);
}

/// Twips of a length; what depends on the page is none.
pub(in crate::formats::word) fn twips(value: &Value) -> Option<i32> {
    let Value::Length(length) = value else { return None };
    match *length {
        Measure::Twips(twips) => Some(twips.clamp(-31_680, 31_680)),
        Measure::Ems(ems) => Some((ems.saturating_mul(USUAL_SIZE) / 100).clamp(-31_680, 31_680)),
        Measure::Percent(_) | Measure::Auto => None,
    }
}

/// As [`twips`], with what depends on the page as it is on a usual one.
pub(in crate::formats::word) fn twips_of_page(value: &Value) -> Option<i32> {
    match value {
        Value::Length(Measure::Percent(percent)) => Some((TEXT_WIDTH.saturating_mul(*percent) / 5000).clamp(-31_680, 31_680)),
        value => twips(value),
    }
}

/// Lengths of all sides: top, right, bottom, left.
pub(in crate::formats::word) fn sides(value: &Value) -> Option<[Option<i32>; 4]> {
    let lengths: Vec<Option<i32>> = match value {
        Value::Length(length) => vec![twips(&Value::Length(*length))],
        Value::Lengths(lengths) => lengths.iter().map(|length| twips(&Value::Length(*length))).collect(),
        _ => return None,
    };
    Some(match *lengths {
        [all] => [all; 4],
        [rows, columns] => [rows, columns, rows, columns],
        [top, columns, bottom] => [top, columns, bottom, columns],
        [top, right, bottom, left] => [top, right, bottom, left],
        _ => return None,
    })
}

const fn kind_of(align: TabAlign) -> TabKind {
    match align {
        TabAlign::Left => TabKind::Left,
        TabAlign::Center => TabKind::Center,
        TabAlign::Right => TabKind::Right,
        TabAlign::Decimal => TabKind::Decimal,
    }
}

fn border(value: &Value) -> Option<Border> {
    match value {
        Value::Edge(Edge { line, width, colour }) => {
            Some(Border { line: *line, width: *width, space: 1, colour: colour.map_or(Colour::Auto, Colour::Rgb) })
        }
        Value::Keyword("none") => Some(Border { line: crate::document::Line::None, width: 0, space: 0, colour: Colour::Auto }),
        _ => None,
    }
}

fn apply_to_paragraph(property: Property, value: &Value, own: &mut ParagraphProperties) {
    match property {
        Property::MarginTop => own.before = twips(value).map(|twips| twips.max(0)),
        Property::MarginBottom => own.after = twips(value).map(|twips| twips.max(0)),
        Property::MarginLeft => own.indent_start = twips_of_page(value),
        Property::MarginRight => own.indent_end = twips_of_page(value),
        Property::Margin => {
            if let Some([top, right, bottom, left]) = sides(value) {
                (own.before, own.after) = (top.map(|top| top.max(0)), bottom.map(|bottom| bottom.max(0)));
                (own.indent_start, own.indent_end) = (left, right);
            }
        }
        Property::TextIndent => own.first_line = twips(value),
        Property::LineHeight => {
            own.line = match value {
                Value::Lines(lines) => Some((*lines, LineRule::Lines)),
                value => twips(value).filter(|twips| *twips > 0).map(|twips| (twips, LineRule::AtLeast)),
            }
        }
        Property::TextAlign => {
            own.alignment = match value {
                Value::Keyword("center") => Some(Alignment::Center),
                Value::Keyword("right" | "end") => Some(Alignment::End),
                Value::Keyword("justify") => Some(Alignment::Justify),
                Value::Keyword("left" | "start") => Some(Alignment::Start),
                _ => None,
            }
        }
        Property::BackgroundColor => {
            own.shade = match value {
                Value::Colour(colour) => Some(Colour::Rgb(*colour)),
                _ => None,
            }
        }
        Property::BreakBefore => own.page_break = Some(matches!(value, Value::Keyword("page"))),
        Property::TabStops => {
            let Value::Tabs(stops) = value else { return };
            own.tabs = stops.iter().map(|stop| TabStop { at: stop.at, kind: kind_of(stop.align), leader: stop.leader }).collect();
        }
        Property::Border => {
            let line = border(value);
            (own.borders.top, own.borders.right, own.borders.bottom, own.borders.left) = (line, line, line, line);
        }
        Property::BorderTop => own.borders.top = border(value),
        Property::BorderRight => own.borders.right = border(value),
        Property::BorderBottom => own.borders.bottom = border(value),
        Property::BorderLeft => own.borders.left = border(value),
        _ => {}
    }
}

fn apply_to_characters(property: Property, value: &Value, own: &mut CharacterProperties, names: &mut Names) {
    let mut flag = |flag: Flag, on: bool| own.flags.set(flag, on);
    match (property, value) {
        (Property::FontWeight, Value::Keyword(weight)) => {
            let is_bold = matches!(*weight, "bold" | "bolder" | "600" | "700" | "800" | "900");
            flag(Flag::Bold, is_bold);
            flag(Flag::BoldComplex, is_bold);
        }
        (Property::FontStyle, Value::Keyword(style)) => {
            flag(Flag::Italic, *style != "normal");
            flag(Flag::ItalicComplex, *style != "normal");
        }
        (Property::FontVariant, Value::Keyword(variant)) => flag(Flag::SmallCapitals, *variant == "small-caps"),
        (Property::TextTransform, Value::Keyword(transform)) => flag(Flag::Capitals, *transform == "uppercase"),
        (Property::FontSize, value) => {
            let size = twips(value).and_then(|twips| u16::try_from(twips / 10).ok()).filter(|size| (2..=3276).contains(size));
            (own.size, own.size_complex) = (size, size);
        }
        (Property::FontFamily, Value::Fonts(fonts)) => {
            if let Some(font) = fonts.iter().find(|font| (1..=LONGEST_FONT).contains(&font.chars().count())) {
                let name = Some(names.number(font));
                (own.font, own.font_east, own.font_complex) = (name, name, name);
            }
        }
        (Property::Color, Value::Colour(colour)) => own.colour = Some(Colour::Rgb(*colour)),
        (Property::Color, Value::Keyword(_)) => own.colour = Some(Colour::Auto),
        (Property::LetterSpacing, value) => own.spacing = twips(value).and_then(|twips| i16::try_from(twips).ok()),
        (Property::Bottom, value) => own.position = twips(value).and_then(|twips| i16::try_from(twips / 10).ok()),
        (Property::VerticalAlign, Value::Keyword("super")) => own.raised = Some(Raised::Above),
        (Property::VerticalAlign, Value::Keyword("sub")) => own.raised = Some(Raised::Below),
        (Property::TextDecoration, Value::Underline(line, colour)) => {
            (own.underline, own.underline_colour) = (Some(*line), colour.map(Colour::Rgb));
        }
        (Property::TextDecoration, Value::Keyword(line)) => {
            if line.contains("line-through") {
                flag(Flag::Strike, true);
            }
            if line.contains("underline") {
                own.underline = Some(crate::document::Underline::Solid);
            }
        }
        (Property::TextEmphasis, Value::Keyword(mark)) => {
            own.emphasis_mark = Some(match *mark {
                mark if mark.contains("circle") => EmphasisMark::Circle,
                mark if mark.contains("sesame") => EmphasisMark::Comma,
                "none" => EmphasisMark::None,
                _ => EmphasisMark::Dot,
            });
        }
        _ => {}
    }
}

#[cfg(test)]
mod tests {
    use super::*;
    use crate::document::{Line, Underline};

    #[test]
    fn properties_of_styles_are_those_of_paragraphs_and_characters() {
        let (mut paragraph, mut characters, mut names) =
            (ParagraphProperties::default(), CharacterProperties::default(), Names::default());
        let edge = Value::Edge(Edge { line: Line::Double, width: 6, colour: Some(0x0012_3456) });
        let list = [
            (
                Property::Margin,
                Value::Lengths(vec![Measure::Twips(120), Measure::Twips(0), Measure::Ems(100), Measure::Twips(720)]),
            ),
            (Property::TextIndent, Value::twips(-360)),
            (Property::LineHeight, Value::Lines(300)),
            (Property::TextAlign, Value::Keyword("justify")),
            (Property::BorderBottom, edge),
            (Property::BackgroundColor, Value::Colour(0x00EE_EEEE)),
            (Property::FontWeight, Value::Keyword("bold")),
            (Property::FontSize, Value::twips(250)),
            (Property::FontFamily, Value::Fonts(vec!["Georgia".to_owned()])),
            (Property::TextDecoration, Value::Underline(Underline::Double, None)),
        ];
        apply(&list, &mut paragraph, &mut characters, &mut names);
        assert_eq!((paragraph.before, paragraph.after, paragraph.indent_start), (Some(120), Some(220), Some(720)));
        assert_eq!((paragraph.first_line, paragraph.line), (Some(-360), Some((300, LineRule::Lines))));
        assert_eq!((paragraph.alignment, paragraph.shade), (Some(Alignment::Justify), Some(Colour::Rgb(0x00EE_EEEE))));
        assert_eq!(paragraph.borders.bottom.map(|line| (line.line, line.width)), Some((Line::Double, 6)));
        assert!(characters.flags.is(Flag::Bold) && characters.size == Some(25));
        assert_eq!(
            (characters.font.map(|font| names.name(font)), characters.underline),
            (Some("Georgia"), Some(Underline::Double))
        );
    }
}
