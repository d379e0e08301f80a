//! Paragraphs with borders. Those that follow each other with the same border and the same margins are in one box, with lines
//! around the whole and, where the border says so, between (ECMA-376, part 1, sections 17.3.1.5, 17.3.1.7 and 17.3.1.24).

use super::super::JOINED;
use super::super::model::properties::{Borders, Name, ParagraphProperties};
use super::Reader;
use super::css_declarations::{Rules, edge};
use super::open::OpenParagraph;
use crate::document::{Document, Kind, Line, NodeId, Property, Value};
use crate::fast_hash::HashSet;

/// What is known of paragraphs with borders.
#[derive(Debug, Default)]
pub(super) struct Boxes {
    /// The last paragraph that has one, its border, and its indents.
    last: Option<(NodeId, Borders, [i32; 2])>,
    /// How high the empty paragraphs above the open paragraph are, in twips.
    pub(super) above: i32,
    /// Rules that empty paragraphs became for the border of their style.
    pub(super) ruled_by_style: Vec<(NodeId, Name)>,
    /// Styles with a border that paragraphs with text have.
    with_text: HashSet<Name>,
}

impl Boxes {
    /// Whether a node is the paragraph with this border that was read last.
    pub(super) fn is_last(&self, node: NodeId, borders: &Borders) -> bool {
        self.last.is_some_and(|(last, known, _)| last == node && known == *borders)
    }

    /// Rules for the border of a style that paragraphs with text have as well were space in a box.
    pub(super) fn drop_rules(&mut self, doc: &mut Document) {
        for (node, style) in std::mem::take(&mut self.ruled_by_style) {
            if self.with_text.contains(&style) && doc.kind(node) == Kind::ThematicBreak {
                doc.detach(node);
            }
        }
    }
}

impl Reader<'_, '_> {
    fn borders_of(&self, properties: &ParagraphProperties) -> Borders {
        let mut borders = self.model.styles.of_paragraph(properties.style).paragraph.borders;
        borders.override_with(&properties.borders);
        borders
    }

    /// A paragraph with text has ended: what follows it with the same border is in its box.
    pub(super) fn note_box(&mut self, paragraph: &OpenParagraph) {
        let properties = &paragraph.properties;
        let borders = self.borders_of(properties);
        if !borders.is_ruled() && !borders.is_box() {
            return;
        }
        let style = &self.model.styles.of_paragraph(properties.style).paragraph;
        let indents = [
            properties.indent_start.or(style.indent_start).unwrap_or(0),
            properties.indent_end.or(style.indent_end).unwrap_or(0),
        ];
        self.looks.boxes.with_text.extend(properties.style);
        let node = paragraph.node;
        let before = self.looks.boxes.last.replace((node, borders, indents));
        let Some((last, _, _)) = before
            .filter(|(last, known, at)| *known == borders && *at == indents && self.doc.node(node).previous() == Some(*last))
        else {
            return;
        };
        if !self.options.fidelity.is_exact() {
            return;
        }
        let space = |own: Option<i32>, of_style: Option<i32>, of_all: Option<i32>| own.or(of_style).or(of_all).unwrap_or(0);
        let all = &self.model.styles.paragraph;
        let below = space(None, style.after, all.after);
        let above = space(properties.before, style.before, all.before).max(0) + self.looks.boxes.above;
        let line = borders.between.filter(|border| border.line != Line::None);
        let joined = |rules: &mut Rules, side: [Property; 3], space: i32, line: Value| {
            rules.extend([(side[0], line), (side[1], Value::ZERO), (side[2], Value::twips(space))]);
        };
        let (mut upper, mut lower): (Rules, Rules) = (Vec::new(), Vec::new());
        let upper_side = [Property::BorderBottom, Property::MarginBottom, Property::PaddingBottom];
        joined(&mut upper, upper_side, below, Value::Keyword("none"));
        // Between lines and text is as much space as the border says.
        let above = above + line.map_or(0, |line| i32::from(line.space) * 20);
        let line = line.map_or_else(|| Value::Keyword("none"), |line| edge(&line));
        joined(&mut lower, [Property::BorderTop, Property::MarginTop, Property::PaddingTop], above, line);
        self.add_rules(last, JOINED, upper);
        self.add_rules(node, JOINED, lower);
    }
}
