//! What properties look like, as properties of styles.

use super::super::model::properties::{
    Alignment, Border, Borders, CharacterProperties, Colour, EmphasisMark, Flag, LineRule, ParagraphProperties, TabKind,
};
use super::super::model::styles::{TablePart, TableStyle};
use super::Reader;
use crate::document::{Edge, Line, Measure, Property, StyleProperties, Underline, Value};

/// What a class sets, in the order in which it is written.
pub(super) type Rules = StyleProperties;

/// What the looks of a cell depend on: itself without its node, at which edges of the table it stands, and how wide and high
/// it is.
pub(super) type CellKey = (Vec<TablePart>, Option<Colour>, Borders, Option<&'static str>, [bool; 4], [i32; 2]);

impl Reader<'_, '_> {
    pub(super) fn paragraph_rules(
        &self,
        paragraph: &ParagraphProperties,
        characters: &CharacterProperties,
        in_list: bool,
    ) -> Rules {
        let mut rules: Rules = Vec::new();
        let rtl = paragraph.right_to_left == Some(true);
        let (start, end) =
            if rtl { (Property::MarginRight, Property::MarginLeft) } else { (Property::MarginLeft, Property::MarginRight) };
        rules.push((Property::MarginTop, Value::twips(paragraph.before.unwrap_or(0))));
        rules.push((Property::MarginBottom, Value::twips(paragraph.after.unwrap_or(0))));
        if in_list {
            rules.push((start, Value::ZERO));
            rules.push((Property::TextIndent, Value::ZERO));
        } else {
            rules.push((start, Value::twips(paragraph.indent_start.unwrap_or(0))));
            rules.push((Property::TextIndent, Value::twips(paragraph.first_line.unwrap_or(0))));
        }
        rules.push((end, Value::twips(paragraph.indent_end.unwrap_or(0))));
        rules.push((
            Property::LineHeight,
            match paragraph.line {
                Some((line, LineRule::Lines)) => Value::Lines(line),
                Some((line, _)) => Value::twips(line),
                None => Value::Lines(240),
            },
        ));
        let align = match (paragraph.alignment, rtl) {
            (Some(Alignment::Center), _) => "center",
            (Some(Alignment::Justify), _) => "justify",
            (Some(Alignment::End), false) | (None | Some(Alignment::Start), true) => "right",
            _ => "left",
        };
        rules.push((Property::TextAlign, Value::Keyword(align)));
        if let Some(Colour::Rgb(colour)) = paragraph.shade {
            rules.push((Property::BackgroundColor, Value::Colour(colour)));
            if is_automatic(characters.colour) && is_dark(colour) {
                rules.push((Property::Color, Value::Colour(WHITE)));
            }
        }
        border_rules(&mut rules, &paragraph.borders, true);
        if paragraph.page_break == Some(true) {
            rules.push((Property::BreakBefore, Value::Keyword("page")));
        }
        tab_rules(&mut rules, paragraph);
        self.character_rules(&mut rules, characters);
        rules
    }

    pub(super) fn character_rules(&self, rules: &mut Rules, characters: &CharacterProperties) {
        let flags = characters.flags;
        // Complex scripts have sizes and fonts of their own (section 17.3.2.7); East Asian ones only fonts.
        let is_complex = flags.is(Flag::RightToLeft) || flags.is(Flag::Complex);
        let complex = characters.font_complex.filter(|_| is_complex);
        let east = characters.font_east.filter(|_| self.looks.is_east_asian);
        let mut fonts: Vec<String> = Vec::new();
        for font in [complex, characters.font, east].into_iter().flatten().map(|font| self.model.names.name(font)) {
            if !fonts.iter().any(|known| known == font) {
                fonts.push(font.to_owned());
            }
        }
        if !fonts.is_empty() {
            rules.push((Property::FontFamily, Value::Fonts(fonts)));
        }
        let of_script = |complex, plain| if is_complex { complex } else { plain };
        let size = characters.size_complex.filter(|_| is_complex).or(characters.size).unwrap_or(20);
        let (bold, italic) = (of_script(Flag::BoldComplex, Flag::Bold), of_script(Flag::ItalicComplex, Flag::Italic));
        rules.push((Property::FontSize, Value::twips(i32::from(size) * 10)));
        rules.push((Property::FontWeight, Value::Keyword(if flags.is(bold) { "bold" } else { "normal" })));
        rules.push((Property::FontStyle, Value::Keyword(if flags.is(italic) { "italic" } else { "normal" })));
        if let Some(Colour::Rgb(colour)) = characters.colour {
            rules.push((Property::Color, Value::Colour(colour)));
        }
        if flags.is(Flag::Capitals) {
            rules.push((Property::TextTransform, Value::Keyword("uppercase")));
        }
        if flags.is(Flag::SmallCapitals) {
            rules.push((Property::FontVariant, Value::Keyword("small-caps")));
        }
        if let Some(spacing) = characters.spacing.filter(|spacing| *spacing != 0) {
            rules.push((Property::LetterSpacing, Value::twips(spacing.into())));
        }
        if let Some(position) = characters.position.filter(|position| *position != 0) {
            rules.push((Property::Position, Value::Keyword("relative")));
            rules.push((Property::Bottom, Value::twips(i32::from(position) * 10)));
        }
        if let Some(Colour::Rgb(colour)) = characters.highlight {
            rules.push((Property::BackgroundColor, Value::Colour(colour)));
        } else if let Some(Colour::Rgb(colour)) = characters.shade {
            rules.push((Property::BackgroundColor, Value::Colour(colour)));
            if is_automatic(characters.colour) && is_dark(colour) {
                rules.push((Property::Color, Value::Colour(WHITE)));
            }
        }
        if let Some(line) = characters.underline.filter(|line| *line != Underline::None) {
            let colour = characters.underline_colour.and_then(Colour::rgb);
            rules.push((Property::TextDecoration, Value::Underline(line, colour)));
        }
        if let Some(mark) = characters.emphasis_mark.filter(|mark| *mark != EmphasisMark::None) {
            let mark = match mark {
                EmphasisMark::Comma => "filled sesame",
                EmphasisMark::Circle => "open circle",
                _ => "filled dot",
            };
            rules.push((Property::TextEmphasis, Value::Keyword(mark)));
            if characters.emphasis_mark == Some(EmphasisMark::DotBelow) {
                rules.push((Property::TextEmphasisPosition, Value::Keyword("under right")));
            }
        }
        if let Some(border) = characters.border.filter(|border| border.line != Line::None) {
            rules.push((Property::Border, edge(&border)));
        }
    }
}

const WHITE: u32 = 0x00FF_FFFF;

/// Whether a colour is one that suits the ground.
const fn is_automatic(colour: Option<Colour>) -> bool {
    matches!(colour, None | Some(Colour::Auto))
}

/// Whether text of an automatic colour is white on a ground: where that has less than a quarter of the light of white, as people
/// see it (ITU-R BT.601, section 2.5.1).
const fn is_dark(ground: u32) -> bool {
    let (red, green, blue) = (ground >> 16 & 0xFF, ground >> 8 & 0xFF, ground & 0xFF);
    red * 299 + green * 587 + blue * 114 < 64 * 1000
}

pub(super) fn cell_rules(key: &CellKey, shows_last_row: bool, style: &TableStyle, borders: &Borders) -> Rules {
    let (parts, ground, lines, vertical, [first_row, last_row, first_column, last_column], [width, height]) = key;
    let mut own = Borders {
        top: if *first_row { borders.top } else { borders.between },
        bottom: if *last_row { borders.bottom } else { borders.between },
        left: if *first_column { borders.left } else { borders.columns },
        right: if *last_column { borders.right } else { borders.columns },
        ..Borders::default()
    };
    let (mut shade, mut rules): (Option<Colour>, Rules) = (style.whole.shade, Vec::new());
    let last = [
        (TablePart::LastRow, None),
        (TablePart::BottomLeft, Some(TablePart::FirstColumn)),
        (TablePart::BottomRight, Some(TablePart::LastColumn)),
    ];
    let last = last
        .into_iter()
        .filter(|(_, side)| shows_last_row && *last_row && !first_row && side.is_none_or(|side| parts.contains(&side)))
        .map(|(part, _)| part);
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
        rules.push((Property::BackgroundColor, Value::Colour(colour)));
        if is_dark(colour) {
            rules.push((Property::Color, Value::Colour(WHITE)));
        }
    }
    let [top, right, bottom, left] = style.margins;
    let sides = [top.unwrap_or(0), right.unwrap_or(108), bottom.unwrap_or(0), left.unwrap_or(108)];
    rules.push((Property::Padding, Value::Lengths(sides.map(Measure::Twips).to_vec())));
    rules.push((Property::VerticalAlign, Value::Keyword(vertical.unwrap_or("top"))));
    if *width > 0 {
        rules.push((Property::Width, Value::twips(*width)));
    }
    if *height > 0 {
        rules.push((Property::Height, Value::twips(*height)));
    }
    rules
}

/// What is in the second set of rules and not in the first; what only the first has is taken back.
pub(super) fn difference(before: &Rules, now: Rules) -> Rules {
    let mut out: Rules = Vec::new();
    for (property, _) in before.iter().filter(|(property, _)| !now.iter().any(|(known, _)| known == property)) {
        let value = match property {
            Property::Color => Value::Keyword("inherit"),
            Property::BackgroundColor => Value::Keyword("transparent"),
            Property::LetterSpacing | Property::FontVariant | Property::WhiteSpace => Value::Keyword("normal"),
            Property::BorderTop | Property::BorderRight | Property::BorderBottom | Property::BorderLeft | Property::Border => {
                Value::Keyword("none")
            }
            Property::PaddingTop
            | Property::PaddingRight
            | Property::PaddingBottom
            | Property::PaddingLeft
            | Property::Bottom => Value::ZERO,
            Property::BreakBefore => Value::Keyword("auto"),
            Property::TextTransform | Property::TextDecoration => Value::Keyword("none"),
            Property::Position => Value::Keyword("static"),
            _ => continue,
        };
        out.push((*property, value));
    }
    out.extend(now.into_iter().filter(|rule| !before.contains(rule)));
    out
}

pub(super) fn border_rules(rules: &mut Rules, borders: &Borders, spaced: bool) {
    let sides = [
        (Property::BorderTop, Property::PaddingTop, borders.top),
        (Property::BorderRight, Property::PaddingRight, borders.right),
        (Property::BorderBottom, Property::PaddingBottom, borders.bottom),
        (Property::BorderLeft, Property::PaddingLeft, borders.left),
    ];
    for (line, space, border) in sides {
        let Some(border) = border.filter(|border| border.line != Line::None) else { continue };
        rules.push((line, edge(&border)));
        if spaced && border.space > 0 {
            rules.push((space, Value::twips(i32::from(border.space) * 20)));
        }
    }
}

pub(super) const fn edge(border: &Border) -> Value {
    Value::Edge(Edge { line: border.line, width: border.width, colour: border.colour.rgb() })
}

/// Tabs go to stops at equal distances; those of the document are kept where they are such.
pub(super) fn tab_rules(rules: &mut Rules, paragraph: &ParagraphProperties) {
    let stops: Vec<_> = paragraph.tabs.iter().filter(|stop| stop.kind != TabKind::Clear && stop.at > 0).collect();
    if let Some(first) = stops.first() {
        rules.push((Property::TabSize, Value::twips(first.at)));
    }
}

#[cfg(test)]
mod tests {
    use super::*;

    #[test]
    fn only_what_differs_is_written() {
        let (red, small) = ((Property::Color, Value::Colour(0x00FF_0000)), (Property::FontSize, Value::twips(220)));
        let large = (Property::FontSize, Value::twips(240));
        let before = vec![red, small];
        let same_as_around = (Property::Color, Value::Keyword("inherit"));
        assert_eq!(difference(&before, vec![large.clone()]), vec![same_as_around, large]);
        assert_eq!(difference(&before, before.clone()), Rules::new());
    }
}
