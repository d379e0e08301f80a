//! Numbers of equations that the source says: where counting does not make them, the document says how it counts, or each one's number.

use crate::document::{Document, Kind, NodeId, Step};
use crate::fast_hash::HashMap;
use crate::math;

/// What is to be said of the numbers of equations.
#[derive(Debug, Default)]
pub(super) struct EquationNumbers {
    /// Whether they are counted within the highest headings.
    pub(super) within: bool,
    /// What stands before all of them.
    pub(super) before: Option<String>,
    /// Numbers of single equations.
    pub(super) tags: HashMap<NodeId, String>,
}

/// An equation with a number.
struct Equation {
    node: NodeId,
    number: String,
    rows: u32,
    /// The number of the heading that it is below.
    heading: String,
}

impl EquationNumbers {
    pub(super) fn of(doc: &Document, lowered: u8, own: &super::own_numbers::OwnNumbers, has_chapters: bool) -> Self {
        let presentation = &doc.metadata.presentation;
        if !presentation.has_equation_numbers || presentation.equations_within.is_some() || has_chapters {
            return Self::default();
        }
        let equations = equations(doc, lowered, own);
        let mut next = 1;
        let is_plain = equations.iter().all(|equation| {
            let expected = next;
            next += equation.rows;
            equation.number == expected.to_string()
        });
        if is_plain {
            return Self::default();
        }
        let (mut next, mut heading) = (1, "");
        let within = equations.iter().all(|equation| {
            if heading != equation.heading {
                (next, heading) = (1, &equation.heading);
            }
            let expected = next;
            next += equation.rows;
            equation.number == format!("{heading}.{expected}")
        });
        if within {
            return Self { within, ..Self::default() };
        }
        let before =
            equations.first().map(|first| first.number.trim_end_matches(|c: char| c.is_ascii_digit())).unwrap_or_default();
        let mut next = 1;
        let count_on = equations.iter().all(|equation| {
            let expected = next;
            next += equation.rows;
            equation.number == format!("{before}{expected}")
        });
        if count_on && before.chars().all(|c| c.is_alphanumeric() || matches!(c, '.' | '-')) {
            return Self { before: Some(before.to_owned()), ..Self::default() };
        }
        let (mut next, mut tags) = (1, HashMap::default());
        for equation in equations {
            if equation.rows == 1 && equation.number != next.to_string() {
                tags.insert(equation.node, equation.number);
            } else {
                next += equation.rows;
            }
        }
        Self { tags, ..Self::default() }
    }
}

/// The equations with numbers.
fn equations(doc: &Document, lowered: u8, own: &super::own_numbers::OwnNumbers) -> Vec<Equation> {
    let mut macros = math::tex::Macros::of(&doc.metadata.macros);
    let (mut found, mut count, mut heading) = (Vec::new(), 0, "0".to_owned());
    let levels = doc.metadata.presentation.numbered_levels.unwrap_or(0);
    for step in doc.walk_all() {
        let Step::Enter(node) = step else { continue };
        match doc.kind(node) {
            Kind::Heading(level) if level == lowered + 1 => {
                let has = |class: &str| doc.is_of_class(node, class);
                if let Some(number) = own.of.get(&node) {
                    number.clone_into(&mut heading);
                } else if has("appendix") {
                    doc.plain_text(node).split(' ').next().unwrap_or_default().clone_into(&mut heading);
                } else if levels > 0 && !has("unnumbered") {
                    count += 1;
                    heading = count.to_string();
                }
            }
            Kind::Math(id) if !doc.text(doc.formula(id).number).is_empty() => {
                let formula = doc.formula(id);
                let (mut tree, _) = math::read(formula.notation, doc.text(formula.source), &mut macros);
                let rows = tree.set_numbers(1) - 1;
                let number = doc.text(formula.number).to_owned();
                if tree.numbered && rows > 0 && tree.parts.is_none() {
                    found.push(Equation { node, number, rows, heading: heading.clone() });
                }
            }
            _ => {}
        }
    }
    found
}
