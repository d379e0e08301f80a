//! Headings whose words begin with numbers of the document's own, such as `II` or `I-A`: where counting makes them, the engine does.

use crate::document::{Document, Kind, Marker, NodeId, Step};
use crate::fast_hash::HashMap;
use crate::heading_count::OWN_NUMBER;
use crate::numeral::numeral;

/// How the numbers of headings of a level are made.
#[derive(Clone, Copy, Debug, PartialEq, Eq)]
pub(super) struct Way {
    marker: Marker,
    /// What parts the number from that of the level above; nothing where that does not stand before it.
    behind: Option<char>,
}

/// Numbers that the engine makes.
#[derive(Debug, Default)]
pub(super) struct OwnNumbers {
    /// Headings, with the numbers that they begin with.
    pub(super) of: HashMap<NodeId, String>,
    /// How they are made, by the level from 0.
    ways: [Option<Way>; 6],
}

const MARKERS: [Marker; 5] = [Marker::Plain, Marker::UpperRoman, Marker::UpperAlpha, Marker::LowerRoman, Marker::LowerAlpha];

impl OwnNumbers {
    /// Finds how the numbers are made.
    pub(super) fn of(doc: &Document, lowered: u8) -> Self {
        let mut found = Self::default();
        let (mut counts, mut shown) = ([0_i64; 6], <[String; 6]>::default());
        for step in doc.walk_all() {
            let Step::Enter(heading) = step else { continue };
            let Kind::Heading(level) = doc.kind(heading) else { continue };
            let at = usize::from(level.saturating_sub(lowered).clamp(1, 6)) - 1;
            let Some((number, is_own)) = number_of(doc, heading) else { continue };
            let mut next = counts;
            next[at] += 1;
            next[at + 1..].fill(0);
            if !is_own {
                // The letter of an appendix stands before the numbers below it.
                number.clone_into(&mut shown[at]);
                counts = next;
                continue;
            }
            let above = if at == 0 { "" } else { shown[at - 1].as_str() };
            // Another number than counting makes stays in the words.
            let Some(way) = way_of(number, above, next[at], found.ways[at]) else { continue };
            counts = next;
            found.ways[at] = Some(way);
            number.clone_into(&mut shown[at]);
            found.of.insert(heading, number.to_owned());
        }
        found
    }

    /// Commands that make the numbers, where that is not as the classes do it.
    pub(super) fn commands(&self, has_chapters: bool) -> Vec<String> {
        let names =
            &["chapter", "section", "subsection", "subsubsection", "paragraph", "subparagraph"][usize::from(!has_chapters)..];
        let mut out = Vec::new();
        for (at, way) in self.ways.iter().enumerate() {
            let (Some(way), Some(name)) = (way, names.get(at)) else { continue };
            let counter = super::list_labels::counting_command(way.marker);
            let before = match (way.behind, at.checked_sub(1).and_then(|above| names.get(above))) {
                (Some(sign), Some(above)) if sign != '\0' => format!("\\the{above}{sign}"),
                (Some(_), Some(above)) => format!("\\the{above}"),
                _ => String::new(),
            };
            out.push(format!("\\renewcommand{{\\the{name}}}{{{before}\\{counter}{{{name}}}}}"));
        }
        out
    }
}

/// The number that the words of a heading begin with, and whether it is one of the document's own; the others are of appendices.
fn number_of(doc: &Document, heading: NodeId) -> Option<(&str, bool)> {
    let has = |class: &str| doc.is_of_class(heading, class);
    let Kind::Text(text) = doc.kind(doc.node(heading).first_child()?) else { return None };
    let number = doc.text(text).split(' ').next().filter(|number| !number.is_empty())?;
    if has(OWN_NUMBER) { Some((number, true)) } else { has("appendix").then_some((number, false)) }
}

/// The way that makes a number, which is that of the ones before it.
fn way_of(number: &str, above: &str, count: i64, known: Option<Way>) -> Option<Way> {
    let makes = |way: &Way| {
        let own = numeral(count, way.marker);
        match way.behind {
            None => number == own,
            Some(sign) => {
                let rest = number.strip_prefix(above).filter(|_| !above.is_empty());
                let rest = if sign == '\0' { rest } else { rest.and_then(|rest| rest.strip_prefix(sign)) };
                rest == Some(own.as_str())
            }
        }
    };
    match known {
        Some(way) => Some(way).filter(makes),
        None => {
            let ways = [None, Some('.'), Some('-'), Some('\0')];
            let all = ways.iter().flat_map(|&behind| MARKERS.map(|marker| Way { marker, behind }));
            all.into_iter().find(makes)
        }
    }
}
