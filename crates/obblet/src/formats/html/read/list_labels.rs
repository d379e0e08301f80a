//! What stands around the numbers of lists (CSS Counter Styles, section 3), as our own pages write it.

use super::element_state::ParseState;
use super::style_rules::declarations;
use crate::document::{Document, Kind, ListKind, ListNumbering, Marker, NodeId};
use crate::fast_hash::HashMap;
use cssparser::Parser;
use html5ever::tendril::StrTendril;

/// How the numbers of a list are written.
#[derive(Debug)]
struct Label {
    marker: Marker,
    before: String,
    after: String,
}

/// A page has no more such rules.
const MOST_RULES: usize = 1_000;

/// Lists whose class is the name of a rule for numbers have these numbers.
pub(super) fn find(doc: &mut Document, state: &ParseState) {
    let mut labels: HashMap<String, Label> = HashMap::default();
    for &element in &state.style_elements {
        let sheet = doc.plain_text(element);
        for rule in sheet.split("@counter-style ").skip(1).take(MOST_RULES) {
            let Some((name, rest)) = rule.split_once('{') else { continue };
            if let Some(label) = label_of(rest.split('}').next().unwrap_or_default()) {
                labels.insert(name.trim().to_owned(), label);
            }
        }
    }
    if labels.is_empty() {
        return;
    }
    for input in &state.selector_inputs {
        let Kind::List(list) = doc.kind(input.node) else { continue };
        let mut classes = input.classes.as_ref().map(StrTendril::as_ref).unwrap_or_default().split_ascii_whitespace();
        let Some(label) = classes.find_map(|class| labels.get(class)).filter(|_| list.ordered) else { continue };
        let level = level_of(doc, input.node);
        let text = format!("{}%{}{}", label.before, level + 1, label.after);
        doc.numberings.set(input.node, ListNumbering { definition: input.node.index() as u32, level, text });
        doc.set_kind(input.node, Kind::List(ListKind { marker: label.marker, ..list }));
    }
}

/// How many numbered lists a list stands in.
fn level_of(doc: &Document, list: NodeId) -> u8 {
    const DEEPEST: usize = 50;
    let above = doc.ancestors(list).take(DEEPEST).filter(|&above| above != list);
    above.filter(|&above| matches!(doc.kind(above), Kind::List(list) if list.ordered)).count().min(8) as u8
}

/// What a rule declares; nothing for a way of counting that lists do not have.
fn label_of(body: &str) -> Option<Label> {
    let (mut marker, mut before, mut after) = (None, String::new(), String::new());
    for declaration in declarations(body) {
        match declaration.name.as_str() {
            "system" => {
                let like = super::css::list_style(declaration.value.strip_prefix("extends")?.trim());
                marker = like.filter(|(has_numbers, _)| *has_numbers).map(|(_, marker)| marker);
            }
            "prefix" => before = string(declaration.written())?,
            "suffix" => after = string(declaration.written())?,
            _ => {}
        }
    }
    let after = after.trim_end().to_owned();
    let is_plain = !before.contains('%') && !after.contains('%');
    marker.filter(|_| is_plain).map(|marker| Label { marker, before, after })
}

/// The characters of a string (CSS Syntax, section 4.3.5).
fn string(value: &str) -> Option<String> {
    Parser::new(value).expect_string().ok().map(|text| text.as_ref().to_owned())
}
