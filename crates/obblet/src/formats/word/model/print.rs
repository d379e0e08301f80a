//! Properties as markup, in the order in which the schema has them (ECMA-376, part 1, sections 17.3.1.26 and 17.3.2.28). What is
//! read of a property is written of it: a test goes through all of them.

use super::super::printer::Printer;
use super::properties::{
    Alignment, Border, Borders, CharacterProperties, Colour, EmphasisMark, Flag, Flags, LineRule, Name, Names,
    ParagraphProperties, Raised, TabKind,
};
use crate::document::{Line, Underline};

type Word = CharacterProperties;

/// One property of characters: writes it where it is said.
type Part = fn(&Word, &Names, &mut Printer);

/// All properties of characters.
const CHARACTERS: [Part; 29] = [
    change,
    |own, names, out| name(out, "w:rStyle", own.style, names),
    fonts,
    |own, _, out| flag(out, "w:b", own.flags, Flag::Bold),
    |own, _, out| flag(out, "w:bCs", own.flags, Flag::BoldComplex),
    |own, _, out| flag(out, "w:i", own.flags, Flag::Italic),
    |own, _, out| flag(out, "w:iCs", own.flags, Flag::ItalicComplex),
    |own, _, out| flag(out, "w:caps", own.flags, Flag::Capitals),
    |own, _, out| flag(out, "w:smallCaps", own.flags, Flag::SmallCapitals),
    |own, _, out| flag(out, "w:strike", own.flags, Flag::Strike),
    |own, _, out| flag(out, "w:dstrike", own.flags, Flag::DoubleStrike),
    |own, _, out| flag(out, "w:outline", own.flags, Flag::Outline),
    |own, _, out| flag(out, "w:shadow", own.flags, Flag::Shadow),
    |own, _, out| flag(out, "w:vanish", own.flags, Flag::Hidden),
    |own, _, out| flag(out, "w:webHidden", own.flags, Flag::WebHidden),
    |own, _, out| colour(out, "w:color", own.colour),
    |own, _, out| number(out, "w:spacing", own.spacing),
    |own, _, out| number(out, "w:position", own.position),
    |own, _, out| number(out, "w:sz", own.size),
    |own, _, out| number(out, "w:szCs", own.size_complex),
    highlight,
    underline,
    |own, _, out| {
        if let Some(own) = own.border {
            border(out, "w:bdr", own);
        }
    },
    |own, _, out| shade(out, own.shade),
    raised,
    |own, _, out| flag(out, "w:rtl", own.flags, Flag::RightToLeft),
    |own, _, out| flag(out, "w:cs", own.flags, Flag::Complex),
    emphasis,
    languages,
];

/// Writes `rPr`, where there is anything to say.
pub(in crate::formats::word) fn characters(own: &CharacterProperties, names: &Names, out: &mut Printer) {
    if *own == CharacterProperties::default() {
        return;
    }
    out.open("w:rPr");
    for part in CHARACTERS {
        part(own, names, out);
    }
    out.close();
}

/// A change of the end of a paragraph (section 17.13.5).
fn change(own: &Word, names: &Names, out: &mut Printer) {
    for (flag, element) in [(Flag::Inserted, "w:ins"), (Flag::Deleted, "w:del")] {
        if own.flags.is(flag) {
            let author = own.changed_by.map_or("Unknown", |author| names.name(author));
            out.open(element).number("w:id", 0).attribute("w:author", author);
            if let Some(date) = own.changed_at {
                out.attribute("w:date", names.name(date));
            }
            out.close();
        }
    }
}

fn flag(out: &mut Printer, element: &'static str, flags: Flags, which: Flag) {
    if flags.says(which) {
        out.flag(element, flags.is(which));
    }
}

fn name(out: &mut Printer, element: &'static str, own: Option<Name>, names: &Names) {
    if let Some(own) = own {
        out.value(element, names.name(own));
    }
}

fn number(out: &mut Printer, element: &'static str, own: Option<impl Into<i64>>) {
    if let Some(own) = own {
        out.value_of(element, own);
    }
}

fn digits(colour: Colour) -> String {
    match colour {
        Colour::Auto => "auto".to_owned(),
        Colour::Rgb(colour) => format!("{colour:06X}"),
    }
}

fn colour(out: &mut Printer, element: &'static str, own: Option<Colour>) {
    if let Some(own) = own {
        out.value(element, &digits(own));
    }
}

pub(in crate::formats::word) fn shade(out: &mut Printer, own: Option<Colour>) {
    if let Some(own) = own {
        out.open("w:shd").attribute("w:val", "clear").attribute("w:color", "auto").attribute("w:fill", &digits(own)).close();
    }
}

fn fonts(own: &Word, names: &Names, out: &mut Printer) {
    if (own.font, own.font_east, own.font_complex) == (None, None, None) {
        return;
    }
    out.open("w:rFonts");
    for (attribute, font) in
        [("w:ascii", own.font), ("w:eastAsia", own.font_east), ("w:hAnsi", own.font), ("w:cs", own.font_complex)]
    {
        if let Some(font) = font {
            out.attribute(attribute, names.name(font));
        }
    }
    out.close();
}

fn languages(own: &Word, names: &Names, out: &mut Printer) {
    if (own.language, own.language_east, own.language_complex) == (None, None, None) {
        return;
    }
    out.open("w:lang");
    for (attribute, tag) in [("w:val", own.language), ("w:eastAsia", own.language_east), ("w:bidi", own.language_complex)] {
        if let Some(tag) = tag {
            out.attribute(attribute, names.name(tag));
        }
    }
    out.close();
}

/// Markers have one of a few colours; another one is the ground of the text.
fn highlight(own: &Word, _: &Names, out: &mut Printer) {
    let Some(own) = own.highlight else { return };
    match super::properties::HIGHLIGHTS.iter().find(|(_, colour)| *colour == own) {
        Some((name, _)) => {
            out.value("w:highlight", name);
        }
        None => shade(out, Some(own)),
    }
}

fn underline(own: &Word, _: &Names, out: &mut Printer) {
    let Some(line) = own.underline else { return };
    let kind = match line {
        Underline::None => "none",
        Underline::Solid => "single",
        Underline::Double => "double",
        Underline::Thick => "thick",
        Underline::Dotted => "dotted",
        Underline::Dashed => "dash",
        Underline::Wavy => "wave",
    };
    out.open("w:u").attribute("w:val", kind);
    if let Some(colour) = own.underline_colour {
        out.attribute("w:color", &digits(colour));
    }
    out.close();
}

fn raised(own: &Word, _: &Names, out: &mut Printer) {
    if let Some(raised) = own.raised {
        out.value(
            "w:vertAlign",
            match raised {
                Raised::Level => "baseline",
                Raised::Above => "superscript",
                Raised::Below => "subscript",
            },
        );
    }
}

fn emphasis(own: &Word, _: &Names, out: &mut Printer) {
    if let Some(mark) = own.emphasis_mark {
        out.value(
            "w:em",
            match mark {
                EmphasisMark::None => "none",
                EmphasisMark::Dot => "dot",
                EmphasisMark::Comma => "comma",
                EmphasisMark::Circle => "circle",
                EmphasisMark::DotBelow => "underDot",
            },
        );
    }
}

/// Writes one line of a border.
pub(in crate::formats::word) fn border(out: &mut Printer, side: &'static str, own: Border) {
    let line = match own.line {
        Line::None => "nil",
        Line::Solid => "single",
        Line::Double => "double",
        Line::Dotted => "dotted",
        Line::Dashed => "dashed",
    };
    out.open(side).attribute("w:val", line);
    if own.line != Line::None {
        out.number("w:sz", own.width.clamp(2, 96)).number("w:space", own.space.min(31));
        out.attribute("w:color", &digits(own.colour));
    }
    out.close();
}

/// Writes the borders of something, by the name of the element around them and those of the inner lines.
pub(in crate::formats::word) fn borders(out: &mut Printer, around: &'static str, own: &Borders, inner: [&'static str; 2]) {
    if *own == Borders::default() {
        return;
    }
    out.open(around);
    let sides = [
        ("w:top", own.top),
        ("w:left", own.left),
        ("w:bottom", own.bottom),
        ("w:right", own.right),
        (inner[0], own.between),
        (inner[1], own.columns),
    ];
    for (side, line) in sides.into_iter().filter(|(side, _)| !side.is_empty()) {
        if let Some(line) = line {
            border(out, side, line);
        }
    }
    out.close();
}

/// Writes `pPr`, where there is anything to say. `instance` is the number of its numbering.
pub(in crate::formats::word) fn paragraph(own: &ParagraphProperties, names: &Names, out: &mut Printer) {
    let plain = ParagraphProperties::default();
    if *own == plain {
        return;
    }
    out.open("w:pPr");
    name(out, "w:pStyle", own.style, names);
    let on = |out: &mut Printer, element: &'static str, own: Option<bool>| {
        if let Some(on) = own {
            out.flag(element, on);
        }
    };
    on(out, "w:keepNext", own.keep_next);
    on(out, "w:pageBreakBefore", own.page_break);
    if own.drop_capital {
        out.open("w:framePr").attribute("w:dropCap", "drop").attribute("w:lines", "2").close();
    }
    if own.numbering.id.is_some() || own.numbering.level.is_some() {
        out.open("w:numPr");
        number(out, "w:ilvl", own.numbering.level);
        number(out, "w:numId", own.numbering.id);
        out.close();
    }
    borders(out, "w:pBdr", &own.borders, ["w:between", ""]);
    shade(out, own.shade);
    tabs(own, out);
    on(out, "w:bidi", own.right_to_left);
    spacing(own, out);
    indents(own, out);
    on(out, "w:contextualSpacing", own.contextual);
    if let Some(alignment) = own.alignment {
        out.value(
            "w:jc",
            match alignment {
                Alignment::Start => "left",
                Alignment::Center => "center",
                Alignment::End => "right",
                Alignment::Justify => "both",
            },
        );
    }
    number(out, "w:outlineLvl", own.outline);
    characters(&own.mark, names, out);
    out.close();
}

fn tabs(own: &ParagraphProperties, out: &mut Printer) {
    if own.tabs.is_empty() {
        return;
    }
    out.open("w:tabs");
    for stop in &own.tabs {
        let kind = match stop.kind {
            TabKind::Clear => "clear",
            TabKind::Left => "left",
            TabKind::Center => "center",
            TabKind::Right => "right",
            TabKind::Decimal => "decimal",
        };
        out.open("w:tab").attribute("w:val", kind);
        if let Some(leader) = stop.leader {
            out.attribute(
                "w:leader",
                match leader {
                    Line::Dotted => "dot",
                    Line::Dashed => "hyphen",
                    Line::None | Line::Solid | Line::Double => "underscore",
                },
            );
        }
        out.number("w:pos", stop.at).close();
    }
    out.close();
}

fn spacing(own: &ParagraphProperties, out: &mut Printer) {
    if (own.before, own.after, own.line) == (None, None, None) {
        return;
    }
    out.open("w:spacing");
    for (attribute, length) in [("w:before", own.before), ("w:after", own.after)] {
        if let Some(length) = length {
            out.number(attribute, length.max(0));
        }
    }
    if let Some((line, rule)) = own.line {
        let rule = match rule {
            LineRule::Lines => "auto",
            LineRule::AtLeast => "atLeast",
            LineRule::Exactly => "exact",
        };
        out.number("w:line", line).attribute("w:lineRule", rule);
    }
    out.close();
}

fn indents(own: &ParagraphProperties, out: &mut Printer) {
    if (own.indent_start, own.indent_end, own.first_line) == (None, None, None) {
        return;
    }
    out.open("w:ind");
    for (attribute, length) in [("w:left", own.indent_start), ("w:right", own.indent_end)] {
        if let Some(length) = length {
            out.number(attribute, length);
        }
    }
    match own.first_line {
        Some(hanging @ ..0) => {
            out.number("w:hanging", hanging.saturating_neg());
        }
        Some(first) => {
            out.number("w:firstLine", first);
        }
        None => {}
    }
    out.close();
}

#[cfg(test)]
mod tests {
    use super::super::super::xml::{Event, Xml};
    use super::super::properties::{self, Numbering, TabStop, Vocabulary};
    use super::super::theme::Theme;
    use super::*;

    /// What is read of properties as markup, within an element that holds them.
    fn again<T>(
        print: impl Fn(&mut Printer),
        names: &mut Names,
        read: impl Fn(&mut Xml<'_>, &mut Vocabulary<'_>) -> T,
    ) -> (String, T) {
        let mut out = Printer::default();
        print(&mut out);
        let markup = out.finish();
        let mut xml = Xml::new(&markup);
        assert!(matches!(xml.next(), Some(Event::Open(_))), "{markup}");
        let found = read(&mut xml, &mut Vocabulary { names, theme: &Theme::default(), looks: true });
        (markup.clone(), found)
    }

    #[test]
    fn every_property_of_characters_is_read_as_it_is_written() {
        let mut names = Names::default();
        let mut number = |name: &str| Some(names.number(name));
        let line = Border { line: Line::Dashed, width: 8, space: 1, colour: Colour::Rgb(0x0012_3456) };
        let mut all = CharacterProperties {
            flags: Flags { said: 0x3FFF, on: 0x2AAA },
            style: number("HTMLCode"),
            underline: Some(Underline::Wavy),
            underline_colour: Some(Colour::Rgb(1)),
            emphasis_mark: Some(EmphasisMark::Circle),
            raised: Some(Raised::Above),
            size: Some(21),
            size_complex: Some(23),
            position: Some(-4),
            spacing: Some(12),
            colour: Some(Colour::Auto),
            highlight: Some(Colour::Rgb(0x0080_8000)),
            shade: Some(Colour::Rgb(0x00EE_EEEE)),
            border: Some(line),
            font: number("Georgia"),
            font_east: number("Yu Mincho"),
            font_complex: number("Arial"),
            language: number("en-GB"),
            language_east: number("ja-JP"),
            language_complex: number("ar-SA"),
            // Only ends of paragraphs have these.
            changed_by: None,
            changed_at: None,
        };
        for on in [0x2AAA, 0x1555] {
            all.flags.on = on;
            let print = names_of(&names);
            let (markup, found) = again(|out| characters(&all, &print, out), &mut names, properties::characters);
            assert_eq!(found, all, "{markup}");
        }
    }

    fn names_of(names: &Names) -> Names {
        let mut copy = Names::default();
        (0..).map(|index| names.name(index)).take_while(|name| !name.is_empty()).for_each(|name| {
            copy.number(name);
        });
        copy
    }

    #[test]
    fn every_property_of_paragraphs_is_read_as_it_is_written() {
        let mut names = Names::default();
        let line = |line| Some(Border { line, width: 4, space: 2, colour: Colour::Rgb(0x00AA_BBCC) });
        let stop = |at, kind, leader| TabStop { at, kind, leader };
        let mut mark = CharacterProperties::default();
        mark.flags.set(Flag::Bold, true);
        mark.flags.set(Flag::Deleted, true);
        (mark.changed_by, mark.changed_at) = (Some(names.number("Ada")), Some(names.number("2031-03-05T10:00:00Z")));
        let all = ParagraphProperties {
            style: Some(names.number("Heading1")),
            outline: Some(2),
            numbering: Numbering { id: Some(7), level: Some(3) },
            right_to_left: Some(true),
            alignment: Some(Alignment::Justify),
            indent_start: Some(720),
            indent_end: Some(-10),
            first_line: Some(-360),
            before: Some(120),
            after: Some(0),
            line: Some((300, LineRule::Exactly)),
            contextual: Some(false),
            page_break: Some(true),
            keep_next: Some(false),
            shade: Some(Colour::Rgb(0x00FF_FFFE)),
            borders: Borders {
                top: line(Line::Solid),
                right: line(Line::Double),
                bottom: line(Line::Dotted),
                left: line(Line::Dashed),
                between: line(Line::Solid),
                columns: None,
            },
            tabs: vec![stop(100, TabKind::Right, Some(Line::Dotted)), stop(200, TabKind::Clear, None)],
            drop_capital: true,
            mark,
            section: None,
        };
        let print = names_of(&names);
        let (markup, found) = again(|out| paragraph(&all, &print, out), &mut names, properties::paragraph);
        assert_eq!(found, all, "{markup}");
    }
}
