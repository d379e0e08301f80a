//! Lines that stand between scenes.

use crate::document::{Document, Kind, Measure, NodeId, Property, Value};

/// What becomes of lines that hold nothing but stars or their like.
#[derive(Clone, Copy, Debug, Default, PartialEq, Eq)]
pub enum SceneBreaks {
    /// They stay.
    #[default]
    Keep,
    /// They become thematic breaks.
    Rule,
    /// They, and thematic breaks, become a paragraph that holds the mark.
    Mark,
}

/// Whether a line is nothing but signs that stand between scenes.
#[must_use]
pub fn is_break(line: &str) -> bool {
    let signs: Vec<char> = line.chars().filter(|c| !c.is_whitespace()).collect();
    let Some(&first) = signs.first() else { return false };
    let alone = matches!(first, '#' | '\u{2042}' | '\u{2766}' | '\u{2767}' | '\u{2055}' | '\u{273B}');
    signs.len() <= 40
        && signs.iter().all(|&sign| sign == first)
        && (alone
            || (signs.len() >= 3
                && matches!(first, '*' | '#' | '~' | '-' | '_' | '\u{2014}' | '\u{2022}' | '=' | '+' | '.' | '\u{2013}')
                && first != '.'))
}

/// Sets what stands between scenes.
pub fn set(doc: &mut Document, breaks: SceneBreaks, mark: &str) {
    if breaks == SceneBreaks::Keep {
        return;
    }
    let found: Vec<NodeId> = doc
        .nodes()
        .filter(|(id, node)| match node.kind() {
            Kind::Paragraph => {
                let first = node.first_child();
                first.is_some_and(|first| {
                    doc.node(first).next().is_none() && matches!(doc.kind(first), Kind::Text(text) if is_break(doc.text(text)))
                })
            }
            Kind::ThematicBreak => breaks == SceneBreaks::Mark && node.parent().is_some() && *id != doc.root(),
            _ => false,
        })
        .map(|(id, _)| id)
        .collect();
    for id in found {
        while let Some(child) = doc.node(id).first_child() {
            doc.detach(child);
        }
        match breaks {
            SceneBreaks::Mark => {
                doc.set_kind(id, Kind::Paragraph);
                doc.append_text(id, mark);
                let class = doc.intern("scene-break");
                let classes = &mut doc.attributes_mut(id).classes;
                classes.clear();
                classes.push(class);
                if !doc.styles.iter().any(|style| style.class == "scene-break") {
                    doc.styles.push(crate::document::NamedStyle {
                        name: "Scene break".to_owned(),
                        class: "scene-break".to_owned(),
                        properties: vec![
                            (Property::TextAlign, Value::Keyword("center")),
                            (Property::Margin, Value::Lengths(vec![Measure::Ems(150), Measure::Twips(0)])),
                        ],
                        ..Default::default()
                    });
                }
            }
            SceneBreaks::Rule | SceneBreaks::Keep => doc.set_kind(id, Kind::ThematicBreak),
        }
    }
}
