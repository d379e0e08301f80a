//! What a section says of its pages and columns (ECMA-376, part 1, section 17.6).

use super::super::xml::{Event, Xml, is_on, next_child};

/// What a section says, of itself and of those behind it that do not say otherwise.
#[derive(Clone, Debug, Default, PartialEq, Eq, Hash)]
pub(in crate::formats::word) struct Section {
    /// Headers and footers, by the names of their relations.
    pub(in crate::formats::word) parts: Vec<(Place, Pages, String)>,
    pub(in crate::formats::word) columns: i32,
    /// Twips between columns.
    pub(in crate::formats::word) gap: Option<i32>,
    /// Whether a line stands between them.
    pub(in crate::formats::word) line: bool,
    pub(in crate::formats::word) width: Option<i32>,
    pub(in crate::formats::word) height: Option<i32>,
    pub(in crate::formats::word) left: Option<i32>,
    pub(in crate::formats::word) right: Option<i32>,
    pub(in crate::formats::word) top: Option<i32>,
    pub(in crate::formats::word) bottom: Option<i32>,
    /// Whether it begins on the page on which the one before it ends.
    pub(in crate::formats::word) is_continuous: bool,
}

#[derive(Clone, Copy, Debug, PartialEq, Eq, Hash)]
pub(in crate::formats::word) enum Place {
    Header,
    Footer,
}

/// On which pages of a section a header or a footer stands (section 17.18.36).
#[derive(Clone, Copy, Debug, PartialEq, Eq, Hash, PartialOrd, Ord)]
pub(in crate::formats::word) enum Pages {
    All,
    First,
    Even,
}

impl Section {
    /// Reads `sectPr`, which was opened last, to its end.
    pub(in crate::formats::word) fn read(xml: &mut Xml<'_>) -> Self {
        let mut section = Self { columns: 1, ..Self::default() };
        while let Some(Event::Open(element)) = next_child(xml) {
            match element.local() {
                name @ (b"headerReference" | b"footerReference") => {
                    let place = if name == b"headerReference" { Place::Header } else { Place::Footer };
                    let pages = match element.get(b"type").as_deref() {
                        Some("first") => Pages::First,
                        Some("even") => Pages::Even,
                        _ => Pages::All,
                    };
                    section.parts.extend(element.relation(b"id").map(|id| (place, pages, id.into_owned())));
                }
                b"cols" => {
                    section.columns = element.number(b"num").unwrap_or(1);
                    section.gap = element.number(b"space");
                    section.line = element.get(b"sep").is_some_and(|value| is_on(&value));
                    // Columns of widths of their own are counted where no number is said.
                    let mut widths = 0;
                    while let Some(Event::Open(_)) = next_child(xml) {
                        widths += 1;
                        xml.skip();
                    }
                    section.columns = section.columns.max(widths).clamp(1, 12);
                    continue;
                }
                b"type" => section.is_continuous = element.val().as_deref() == Some("continuous"),
                b"pgSz" => (section.width, section.height) = (element.number(b"w"), element.number(b"h")),
                b"pgMar" => {
                    (section.left, section.right) = (element.number(b"left"), element.number(b"right"));
                    (section.top, section.bottom) = (element.number(b"top"), element.number(b"bottom"));
                }
                _ => {}
            }
            xml.skip();
        }
        section
    }
}
