//! Properties as declarations of style sheets.

use super::Reader;
use super::properties::{
    Alignment, Border, Borders, CharacterProperties, Colour, EmphasisMark, Flag, Line, LineRule, ParagraphProperties, TabKind,
    Underline,
};
use super::styles::{TablePart, TableStyle};
use std::fmt::Write;

/// The class of rules that join paragraphs; they stand behind all others.
pub(super) const JOINED: &str = "joined";

/// Declarations of a rule, in the order in which they are written.
pub(super) type Rules = Vec<(&'static str, String)>;

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

    pub(super) fn character_rules(&self, rules: &mut Rules, characters: &CharacterProperties) {
        let flags = characters.flags;
        // Complex scripts have sizes and fonts of their own (section 17.3.2.7); East Asian ones only fonts.
        let is_complex = flags.is(Flag::RightToLeft) || flags.is(Flag::Complex);
        let complex = characters.font_complex.filter(|_| is_complex);
        let east = characters.font_east.filter(|_| self.is_east_asian);
        let fonts: Vec<&str> = [complex, characters.font, east].into_iter().flatten().map(|font| self.names.name(font)).collect();
        if !fonts.is_empty() {
            rules.push(("font-family", family(&fonts)));
        }
        let of_script = |complex, plain| if is_complex { complex } else { plain };
        let size = characters.size_complex.filter(|_| is_complex).or(characters.size).unwrap_or(20);
        let (bold, italic) = (of_script(Flag::BoldComplex, Flag::Bold), of_script(Flag::ItalicComplex, Flag::Italic));
        rules.push(("font-size", format!("{}pt", trimmed(f64::from(size) / 2.0))));
        rules.push(("font-weight", if flags.is(bold) { "bold" } else { "normal" }.to_owned()));
        rules.push(("font-style", if flags.is(italic) { "italic" } else { "normal" }.to_owned()));
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
            let colour = match characters.underline_colour {
                Some(Colour::Rgb(colour)) => format!(" {}", hex(colour)),
                _ => String::new(),
            };
            rules.push(("text-decoration", format!("{line}{colour}")));
        }
        if let Some(mark) = characters.emphasis_mark.filter(|mark| *mark != EmphasisMark::None) {
            let mark = match mark {
                EmphasisMark::Comma => "filled sesame",
                EmphasisMark::Circle => "open circle",
                _ => "filled dot",
            };
            rules.push(("text-emphasis", mark.to_owned()));
            if characters.emphasis_mark == Some(EmphasisMark::DotBelow) {
                rules.push(("text-emphasis-position", "under right".to_owned()));
            }
        }
        if let Some(border) = characters.border.filter(|border| border.line != Line::None) {
            rules.push(("border", edge(&border)));
        }
    }
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
        rules.push(("background-color", hex(colour)));
    }
    let [top, right, bottom, left] = style.margins;
    let sides = [top.unwrap_or(0), right.unwrap_or(108), bottom.unwrap_or(0), left.unwrap_or(108)];
    rules.push(("padding", sides.map(points).join(" ")));
    rules.push(("vertical-align", vertical.unwrap_or("top").to_owned()));
    if *width > 0 {
        rules.push(("width", points(*width)));
    }
    if *height > 0 {
        rules.push(("height", points(*height)));
    }
    rules
}

/// What is in the second set of rules and not in the first; what only the first has is taken back.
pub(super) fn difference(before: &Rules, now: Rules) -> Rules {
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

pub(super) fn border_rules(rules: &mut Rules, borders: &Borders, spaced: bool) {
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

pub(super) fn edge(border: &Border) -> String {
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
pub(super) fn tab_rules(rules: &mut Rules, paragraph: &ParagraphProperties) {
    let stops: Vec<_> = paragraph.tabs.iter().filter(|stop| stop.kind != TabKind::Clear && stop.at > 0).collect();
    if let Some(first) = stops.first() {
        rules.push(("tab-size", points(first.at)));
    }
}

pub(super) fn points(twips: i32) -> String {
    if twips == 0 { "0".to_owned() } else { format!("{}pt", trimmed(f64::from(twips) / 20.0)) }
}

pub(super) fn trimmed(number: f64) -> String {
    let text = format!("{number:.2}");
    text.trim_end_matches('0').trim_end_matches('.').to_owned()
}

pub(super) fn hex(colour: u32) -> String {
    format!("#{colour:06x}")
}

/// Fonts in the order in which they are asked, and the family that stands in for them.
pub(super) fn family(fonts: &[&str]) -> String {
    let mut out = String::new();
    for (index, font) in fonts.iter().enumerate().filter(|(index, font)| !fonts[..*index].contains(font)) {
        let name: String = font.chars().filter(|c| c.is_alphanumeric() || matches!(c, ' ' | '-' | '.')).collect();
        let _ = write!(out, "{}\"{}\"", if index == 0 { "" } else { ", " }, name.trim());
    }
    out + ", " + generic_family(fonts.first().copied().unwrap_or_default())
}

fn generic_family(font: &str) -> &'static str {
    let lower = font.to_ascii_lowercase();
    let is = |names: &[&str]| names.iter().any(|name| lower.contains(name));
    if is(&["courier", "mono", "consolas", "menlo", "console", "typewriter"]) {
        return "monospace";
    }
    let with_serifs = [
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
    ];
    if is(&with_serifs) && !is(&["sans"]) { "serif" } else { "sans-serif" }
}

#[cfg(test)]
mod tests {
    use super::*;

    #[test]
    fn only_what_differs_is_written() {
        let rules =
            |list: &[(&'static str, &str)]| list.iter().map(|(name, value)| (*name, (*value).to_owned())).collect::<Rules>();
        let before = rules(&[("color", "#ff0000"), ("font-size", "11pt")]);
        assert_eq!(difference(&before, rules(&[("font-size", "12pt")])), rules(&[("color", "inherit"), ("font-size", "12pt")]));
        assert_eq!(difference(&before, before.clone()), Rules::new());
    }
}
