//! How text is set apart: in elements, in classes, in capitals, or not.

use crate::document::{Document, Kind, NamedStyle, NodeId, Property, Step, Text, TextLevel, Underline, Value};

/// How inline formatting is written.
#[derive(Clone, Copy, Debug, Default, PartialEq, Eq)]
pub enum Inline {
    /// As elements.
    #[default]
    Elements,
    /// As spans with classes, whose rules go into the stylesheet of a page.
    Classes,
}

/// What becomes of bold text.
#[derive(Clone, Copy, Debug, Default, PartialEq, Eq)]
pub enum Bold {
    /// It stays bold.
    #[default]
    Keep,
    /// It becomes like the text around it.
    Remove,
    /// It becomes capitals.
    Capitals,
}

/// Class and rule for each kind of formatting.
const CLASSES: [(Kind, &str, (Property, Value)); 9] = [
    (Kind::Strong, "bold", (Property::FontWeight, Value::Keyword("bold"))),
    (Kind::TextLevel(TextLevel::Bold), "bold", (Property::FontWeight, Value::Keyword("bold"))),
    (Kind::Emphasis, "italic", (Property::FontStyle, Value::Keyword("italic"))),
    (Kind::TextLevel(TextLevel::Italic), "italic", (Property::FontStyle, Value::Keyword("italic"))),
    (Kind::Underline, "underline", (Property::TextDecoration, Value::Underline(Underline::Solid, None))),
    (Kind::Strikethrough, "struck", (Property::TextDecoration, Value::Css("line-through"))),
    (Kind::Highlight, "highlight", (Property::BackgroundColor, Value::Css("#ff9"))),
    (Kind::TextLevel(TextLevel::Small), "small", (Property::FontSize, Value::Css("smaller"))),
    (Kind::TextLevel(TextLevel::Keyboard), "key", (Property::FontFamily, Value::Css("monospace"))),
];

/// The formatting that a class stands for, where it is one of those that [`set_classes`] gives.
pub(crate) fn formatting_of(class: &str) -> Option<Kind> {
    CLASSES.iter().find(|(_, known, _)| *known == class).map(|(kind, ..)| *kind)
}

/// Formatting as spans with classes.
pub fn set_classes(doc: &mut Document, inline: Inline) {
    if inline == Inline::Elements {
        return;
    }
    let found: Vec<(NodeId, usize)> =
        doc.nodes().filter_map(|(id, node)| Some((id, CLASSES.iter().position(|(kind, ..)| *kind == node.kind())?))).collect();
    for (id, place) in found {
        let (_, class, rule) = &CLASSES[place];
        doc.set_kind(id, Kind::Span);
        let text = doc.intern(class);
        doc.attributes_mut(id).classes.push(text);
        if !doc.styles.iter().any(|style| style.class == *class) {
            doc.styles.push(NamedStyle {
                name: (*class).to_owned(),
                class: (*class).to_owned(),
                properties: vec![rule.clone()],
                ..NamedStyle::default()
            });
        }
    }
}

/// Bold text as it is wanted.
pub fn set_bold(doc: &mut Document, bold: Bold) {
    if bold == Bold::Keep {
        return;
    }
    for root in doc.roots() {
        let mut found = Vec::new();
        let mut texts = Vec::new();
        let mut depth = 0;
        for step in doc.walk(root) {
            match step {
                Step::Enter(id) => {
                    depth += usize::from(doc.kind(id) == Kind::Strong);
                    if let (Kind::Text(text), true) = (doc.kind(id), depth > 0) {
                        texts.push((id, text));
                    }
                }
                Step::Leave(id) if doc.kind(id) == Kind::Strong => {
                    depth -= 1;
                    found.push(id);
                }
                Step::Leave(_) => {}
            }
        }
        for (id, text) in texts.into_iter().filter(|_| bold == Bold::Capitals) {
            let capitals = doc.text(text).to_uppercase();
            let text = doc.intern(&capitals);
            doc.set_kind(id, Kind::Text(text));
        }
        let mut parents = Vec::new();
        for id in found {
            parents.extend(doc.node(id).parent());
            doc.unwrap(id);
        }
        doc.join_texts_in(parents);
    }
}

/// All text below a node in capitals.
pub(super) fn set_capitals(doc: &mut Document, root: NodeId) {
    let texts: Vec<(NodeId, Text)> = doc
        .walk(root)
        .filter_map(|step| match step {
            Step::Enter(id) => {
                if let Kind::Text(text) = doc.kind(id) {
                    Some((id, text))
                } else {
                    None
                }
            }
            Step::Leave(_) => None,
        })
        .collect();
    for (id, text) in texts {
        let capitals = doc.text(text).to_uppercase();
        let text = doc.intern(&capitals);
        doc.set_kind(id, Kind::Text(text));
    }
}
