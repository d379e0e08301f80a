//! Properties of styles: what style sheets and the styles of word processors say of text, in one typed form. They are shown as
//! CSS ([`Property::css_name`], and [`Value`] shows itself as CSS does).

use std::fmt;

macro_rules! properties {
    ($($variant:ident = $css:literal,)+) => {
        /// What a style sets, by the name that CSS has for it.
        #[derive(Clone, Copy, Debug, PartialEq, Eq, Hash)]
        #[allow(missing_docs)]
        pub enum Property { $($variant,)+ }

        impl Property {
            /// All properties.
            pub const ALL: &[Self] = &[$(Self::$variant,)+];

            /// The name of the property in CSS.
            #[must_use]
            pub const fn css_name(self) -> &'static str {
                match self { $(Self::$variant => $css,)+ }
            }
        }
    };
}

properties! {
    BackgroundColor = "background-color",
    Border = "border",
    BorderTop = "border-top",
    BorderRight = "border-right",
    BorderBottom = "border-bottom",
    BorderLeft = "border-left",
    BorderCollapse = "border-collapse",
    BorderSpacing = "border-spacing",
    Bottom = "bottom",
    BreakBefore = "break-before",
    Clear = "clear",
    Color = "color",
    ColumnGap = "column-gap",
    ColumnRule = "column-rule",
    Columns = "columns",
    Display = "display",
    Flex = "flex",
    Float = "float",
    FontFamily = "font-family",
    FontSize = "font-size",
    FontStyle = "font-style",
    FontVariant = "font-variant",
    FontWeight = "font-weight",
    Height = "height",
    LetterSpacing = "letter-spacing",
    LineHeight = "line-height",
    ListStyleType = "list-style-type",
    Margin = "margin",
    MarginTop = "margin-top",
    MarginRight = "margin-right",
    MarginBottom = "margin-bottom",
    MarginLeft = "margin-left",
    MaxWidth = "max-width",
    Padding = "padding",
    PaddingTop = "padding-top",
    PaddingRight = "padding-right",
    PaddingBottom = "padding-bottom",
    PaddingLeft = "padding-left",
    Position = "position",
    TabSize = "tab-size",
    TabStops = "--tab-stops",
    TextAlign = "text-align",
    TextDecoration = "text-decoration",
    TextEmphasis = "text-emphasis",
    TextEmphasisPosition = "text-emphasis-position",
    TextIndent = "text-indent",
    TextTransform = "text-transform",
    VerticalAlign = "vertical-align",
    WhiteSpace = "white-space",
    Width = "width",
}

/// What a style sets, in the order in which it is written.
pub type StyleProperties = Vec<(Property, Value)>;

/// A length, or what stands in place of one.
#[derive(Clone, Copy, Debug, PartialEq, Eq, Hash)]
pub enum Measure {
    /// Twentieths of a point.
    Twips(i32),
    /// Hundredths of the size of the font.
    Ems(i32),
    /// Fiftieths of a percent of what it stands in.
    Percent(i32),
    /// What is left.
    Auto,
}

impl fmt::Display for Measure {
    fn fmt(&self, f: &mut fmt::Formatter<'_>) -> fmt::Result {
        match *self {
            Self::Twips(0) | Self::Ems(0) => f.write_str("0"),
            Self::Twips(twips) => write!(f, "{}pt", Rounded(f64::from(twips) / 20.0)),
            Self::Ems(ems) => write!(f, "{}em", Rounded(f64::from(ems) / 100.0)),
            Self::Percent(percent) => write!(f, "{}%", Rounded(f64::from(percent) / 50.0)),
            Self::Auto => f.write_str("auto"),
        }
    }
}

/// The kind of a line.
#[derive(Clone, Copy, Debug, PartialEq, Eq, Hash)]
pub enum Line {
    /// No line.
    None,
    /// One line.
    Solid,
    /// Two lines.
    Double,
    /// A line of dots.
    Dotted,
    /// A line of dashes.
    Dashed,
}

/// A line of a border.
#[derive(Clone, Copy, Debug, PartialEq, Eq, Hash)]
pub struct Edge {
    /// Its kind.
    pub line: Line,
    /// Eighths of a point.
    pub width: u16,
    /// Red, green and blue; `None` for the colour of text.
    pub colour: Option<u32>,
}

/// How text is underlined.
#[derive(Clone, Copy, Debug, PartialEq, Eq, Hash)]
pub enum Underline {
    /// Not at all.
    None,
    /// With one line.
    Solid,
    /// With two.
    Double,
    /// With a heavy one.
    Thick,
    /// With dots.
    Dotted,
    /// With dashes.
    Dashed,
    /// With a wave.
    Wavy,
}

/// What a property is set to.
#[derive(Clone, Debug, PartialEq, Eq, Hash)]
pub enum Value {
    /// A keyword of CSS, as in `bold`, or several of them.
    Keyword(&'static str),
    /// A length.
    Length(Measure),
    /// Lengths of the sides: of all; of those above and below and the others; and so on, as in CSS.
    Lengths(Vec<Measure>),
    /// A height of lines, in 240ths of the usual height, which is 1.2 times the size of the font.
    Lines(i32),
    /// Red, green and blue.
    Colour(u32),
    /// Fonts, in the order in which they are looked for.
    Fonts(Vec<String>),
    /// A line below the text, and its red, green and blue.
    Underline(Underline, Option<u32>),
    /// A line of a border.
    Edge(Edge),
    /// As many columns, none narrower than 12 times the size of the font.
    Columns(u16),
    /// Where tabs lead to, which CSS has no word for.
    Tabs(Vec<TabStop>),
    /// What CSS says in another way.
    Css(&'static str),
}

/// Where a tab leads to.
#[derive(Clone, Copy, Debug, PartialEq, Eq, Hash)]
pub struct TabStop {
    /// Twentieths of a point from where lines begin.
    pub at: i32,
    /// How the text behind the tab stands at it.
    pub align: TabAlign,
    /// The line that leads to it.
    pub leader: Option<Line>,
}

/// How text stands at a tab stop.
#[derive(Clone, Copy, Debug, PartialEq, Eq, Hash)]
pub enum TabAlign {
    /// It begins there.
    Left,
    /// Its middle is there.
    Center,
    /// It ends there.
    Right,
    /// Its decimal separator is there.
    Decimal,
}

impl Value {
    /// Nothing of a length.
    pub const ZERO: Self = Self::Length(Measure::Twips(0));

    /// Twentieths of a point.
    #[must_use]
    pub const fn twips(twips: i32) -> Self {
        Self::Length(Measure::Twips(twips))
    }
}

/// As CSS shows it.
impl fmt::Display for Value {
    fn fmt(&self, f: &mut fmt::Formatter<'_>) -> fmt::Result {
        match self {
            Self::Keyword(text) | Self::Css(text) => f.write_str(text),
            Self::Length(length) => length.fmt(f),
            Self::Lengths(lengths) => {
                for (index, length) in lengths.iter().enumerate() {
                    write!(f, "{}{length}", if index == 0 { "" } else { " " })?;
                }
                Ok(())
            }
            Self::Lines(lines) => Rounded(f64::from(*lines) / 240.0 * 1.2).fmt(f),
            Self::Colour(colour) => write!(f, "#{colour:06x}"),
            Self::Fonts(fonts) => write_fonts(fonts, f),
            Self::Underline(line, colour) => {
                f.write_str(match line {
                    Underline::None => return f.write_str("none"),
                    Underline::Solid => "underline",
                    Underline::Double => "underline double",
                    Underline::Thick => "underline solid 2px",
                    Underline::Dotted => "underline dotted",
                    Underline::Dashed => "underline dashed",
                    Underline::Wavy => "underline wavy",
                })?;
                colour.map_or(Ok(()), |colour| write!(f, " #{colour:06x}"))
            }
            Self::Edge(edge) => edge.fmt(f),
            Self::Columns(columns) => write!(f, "{columns} 12em"),
            Self::Tabs(stops) => {
                for (index, stop) in stops.iter().enumerate() {
                    write!(f, "{}{}", if index == 0 { "" } else { " " }, Measure::Twips(stop.at))?;
                }
                Ok(())
            }
        }
    }
}

impl fmt::Display for Edge {
    fn fmt(&self, f: &mut fmt::Formatter<'_>) -> fmt::Result {
        let line = match self.line {
            Line::None => return f.write_str("none"),
            Line::Solid => "solid",
            Line::Double => "double",
            Line::Dotted => "dotted",
            Line::Dashed => "dashed",
        };
        // Two lines and what is between them are as wide as three.
        let width = match f64::from(self.width) / 8.0 {
            width if self.line == Line::Double => (width * 3.0).max(2.25),
            width => width.max(0.5),
        };
        write!(f, "{}pt {line} #{:06x}", Rounded(width), self.colour.unwrap_or(0))
    }
}

/// A number with two digits behind the point at most.
struct Rounded(f64);

impl fmt::Display for Rounded {
    fn fmt(&self, f: &mut fmt::Formatter<'_>) -> fmt::Result {
        let text = format!("{:.2}", self.0);
        f.write_str(text.trim_end_matches('0').trim_end_matches('.'))
    }
}

/// Fonts in the order in which they are asked for, and the family that stands in for them.
fn write_fonts(fonts: &[String], f: &mut fmt::Formatter<'_>) -> fmt::Result {
    for (index, font) in fonts.iter().enumerate().filter(|(index, font)| !fonts[..*index].contains(font)) {
        let name: String = font.chars().filter(|c| c.is_alphanumeric() || matches!(c, ' ' | '-' | '.')).collect();
        write!(f, "{}\"{}\"", if index == 0 { "" } else { ", " }, name.trim())?;
    }
    write!(f, ", {}", generic_family(fonts.first().map_or("", String::as_str)))
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
    fn values_are_shown_as_css_has_them() {
        let edge = |line, width| Value::Edge(Edge { line, width, colour: Some(0x00AA_5500) });
        for (value, css) in [
            (Value::twips(250), "12.5pt"),
            (Value::ZERO, "0"),
            (Value::Lengths(vec![Measure::Ems(150), Measure::Auto, Measure::Twips(0)]), "1.5em auto 0"),
            (Value::Length(Measure::Percent(2500)), "50%"),
            (Value::Lines(259), "1.29"),
            (Value::Colour(0x00FF_0001), "#ff0001"),
            (Value::Fonts(vec!["Times;x".to_owned(), "Arial".to_owned()]), "\"Timesx\", \"Arial\", serif"),
            (Value::Underline(Underline::Wavy, Some(1)), "underline wavy #000001"),
            (edge(Line::Solid, 1), "0.5pt solid #aa5500"),
            (edge(Line::Double, 8), "3pt double #aa5500"),
        ] {
            assert_eq!(value.to_string(), css);
        }
    }
}
