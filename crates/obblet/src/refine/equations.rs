//! Equations: those in environments without a star are counted through the document; labels are their ids, and references to them
//! are links.

use crate::document::{CrossReference, Document, Finding, FormulaId, Kind, KindSet, Markup, NodeId, Step, Text};
use crate::fast_hash::HashMap;
use crate::math::{plain, tex};
use std::rc::Rc;

/// What stands in the source of equations that are counted.
const NUMBERED: [&str; 8] =
    ["{equation}", "{align}", "{gather}", "{multline}", "{alignat}", "{flalign}", "{eqnarray}", "{xalignat}"];

/// An equation with a label.
struct Equation {
    /// The formula that it is in, and the id of that.
    node: NodeId,
    id: String,
    /// Its number, or what stands in place of one; empty where it has none.
    number: String,
}

/// Counts the equations in TeX, names them by their labels, and makes links of formulas that do nothing but refer to one. For formats
/// that have other means than TeX's for that.
///
/// ```
/// use obblet::{Format, convert, profile::Profile};
///
/// let source = b"By $\\eqref{rise}$:\n\n$$\n\\begin{equation} r = 2h \\label{rise} \\end{equation}\n$$\n";
/// let page = convert(source, Format::Markdown, Format::Html, &Profile::fragment())?;
/// assert!(page.text().unwrap().starts_with("<p>By <a href=\"#rise\">(1)</a>:</p>"));
/// # Ok::<(), obblet::Error>(())
/// ```
pub fn number(doc: &mut Document) {
    if !(0..doc.formulas.len() as u32).any(|id| is_counted(doc, FormulaId(id))) {
        return;
    }
    let (mut references, mut equations) = (Vec::new(), HashMap::default());
    for Counted { node, formula, number, labels, refers } in counted(doc) {
        if let Some((label, parentheses)) = refers {
            references.push((node, label, parentheses));
            continue;
        }
        if let Some(number) = number {
            let number = doc.intern(&number);
            if let Some(formula) = doc.formulas.get_mut(formula.0 as usize) {
                formula.number = number;
            }
        }
        for (label, number) in labels {
            let id = name(doc, node, &label);
            equations.entry(label).or_insert(Equation { node, id, number });
        }
    }
    let numbered = equations.iter().filter(|(_, equation)| !equation.number.is_empty());
    doc.metadata.equation_numbers = numbered.map(|(label, equation)| (label.clone(), equation.number.clone())).collect();
    let mut missing: Vec<(NodeId, String)> = Vec::new();
    for (node, label, parentheses) in references {
        match equations.get(&label).filter(|equation| !equation.number.is_empty()) {
            Some(equation) => refer(doc, node, equation, parentheses),
            None => missing.push((node, label)),
        }
    }
    if let Some((first, label)) = missing.first() {
        let message = format!("references to equations lead to nothing that has a number: {}", missing.len());
        let finding = Finding::advice("reference.empty", message).at(doc.place(*first));
        let hint = format!("give an equation in an environment without a star \\label{{{label}}}, or a \\tag");
        doc.push_finding(finding.hint(hint));
    }
}

/// The source of a formula in TeX.
fn source(doc: &Document, id: FormulaId) -> Option<Text> {
    let formula = doc.formula(id);
    (formula.notation == Markup::Tex).then_some(formula.source)
}

/// Whether a formula counts, has a name or refers to another.
fn is_counted(doc: &Document, id: FormulaId) -> bool {
    let holds = |words: &[&str]| source(doc, id).is_some_and(|text| words.iter().any(|word| doc.text(text).contains(word)));
    holds(&["\\label", "\\ref", "\\eqref"]) || (holds(&["\\begin{"]) && holds(&NUMBERED))
}

/// A formula that counts, has a name or refers to another.
struct Counted {
    node: NodeId,
    formula: FormulaId,
    /// The number of its first row.
    number: Option<String>,
    /// Its names, with the numbers of what they name; these are empty where it has none.
    labels: Vec<(String, String)>,
    /// What it refers to, where it does nothing else, and whether the number stands in parentheses.
    refers: Option<(String, bool)>,
}

/// Counts the formulas of a document.
fn counted(doc: &Document) -> Vec<Counted> {
    let mut macros = tex::Macros::of(&doc.metadata.macros);
    let mut parts = Parts::of(doc);
    let (mut found, mut next, mut within) = (Vec::new(), 1, String::new());
    for step in doc.walk_all() {
        let Step::Enter(node) = step else { continue };
        let formula = match doc.kind(node) {
            Kind::Math(id) if is_counted(doc, id) => id,
            Kind::Heading(level) => {
                parts.heading(doc, node, level);
                continue;
            }
            _ => continue,
        };
        let Some(text) = source(doc, formula) else { continue };
        let (mut math, _) = tex::read_next(doc.text(text), &mut macros);
        let mut one = Counted { node, formula, number: None, labels: Vec::new(), refers: None };
        if let Some((label, parentheses)) = math.reference() {
            one.refers = Some((label.to_owned(), parentheses));
            found.push(one);
            continue;
        }
        if math.numbered && doc.metadata.presentation.has_equation_numbers {
            let first = doc.text(doc.formula(formula).number);
            math.number_from(first);
            one.number = Some(first.to_owned());
        } else if math.numbered {
            let before = parts.before();
            if before != within {
                (next, within) = (1, before);
            }
            one.number = Some(format!("{within}{next}"));
            next = math.set_numbers_behind(&within, next);
        }
        if let Some(label) = math.parts.as_ref().filter(|label| !label.is_empty()) {
            let number = match &one.number {
                Some(number) if doc.metadata.presentation.has_equation_numbers => number.clone(),
                Some(_) => format!("{within}{}", next - 1),
                None => String::new(),
            };
            one.labels.push((label.clone(), number));
        }
        let rows = math.table_rows().map(|row| (&row.label, &row.tag));
        for (label, tag) in std::iter::once((&math.label, &math.tag)).chain(rows).filter(|(label, _)| !label.is_empty()) {
            one.labels.push((label.clone(), tag.as_ref().map_or_else(String::new, crate::math::Tag::characters)));
        }
        found.push(one);
    }
    found
}

/// The parts of a document that equations are counted in: below headings of some levels.
struct Parts {
    levels: Option<(u8, u8)>,
    counts: [u32; 6],
    /// The letter or the number that the words of a heading begin with, which is not counted.
    own: String,
}

impl Parts {
    fn of(doc: &Document) -> Self {
        Self { levels: doc.metadata.presentation.equations_within, counts: [0; 6], own: String::new() }
    }

    fn heading(&mut self, doc: &Document, heading: NodeId, level: u8) {
        let Some((first, last)) = self.levels.filter(|(first, last)| (*first..=*last).contains(&level)) else { return };
        let has_class = |class: &str| doc.is_of_class(heading, class);
        if has_class("appendix") && level == first {
            // Headings of an appendix begin with their letters.
            let words = doc.plain_text(heading);
            words.split(' ').next().unwrap_or_default().clone_into(&mut self.own);
            self.counts = [0; 6];
            return;
        }
        if has_class("unnumbered") && !has_class("appendix") {
            return;
        }
        if level == first {
            self.own.clear();
        }
        let at = usize::from(level) - 1;
        self.counts[at] += 1;
        self.counts[at + 1..usize::from(last)].fill(0);
    }

    /// What stands before the numbers of equations here: `2.`
    fn before(&self) -> String {
        let Some((first, last)) = self.levels else { return String::new() };
        let counts = &self.counts[usize::from(first) - 1..usize::from(last)];
        let mut before = String::new();
        for (at, count) in counts.iter().enumerate() {
            match (at, self.own.is_empty()) {
                (0, false) => before.push_str(&self.own),
                _ => before.push_str(&count.to_string()),
            }
            before.push('.');
        }
        before
    }
}

/// Makes references in TeX of links that lead to equations and show their numbers, or have no text, for formats that have these.
pub fn refer_by_labels(doc: &mut Document) {
    let is_labelled = |doc: &Document| {
        (0..doc.formulas.len() as u32)
            .any(|id| source(doc, FormulaId(id)).is_some_and(|text| doc.text(text).contains("\\label{")))
    };
    if !doc.may_hold(KindSet::LINKS) || !is_labelled(doc) {
        return;
    }
    // Formulas are known by their labels, and by their ids.
    let mut by_name: HashMap<String, Rc<Vec<(String, String)>>> = HashMap::default();
    for Counted { node, labels, .. } in counted(doc) {
        let id = doc.attributes(node).id.map(|id| doc.text(id).to_owned());
        let names: Vec<String> = labels.iter().map(|(label, _)| label.clone()).chain(id).collect();
        let labels = Rc::new(labels);
        for name in names {
            by_name.entry(name).or_insert_with(|| labels.clone());
        }
    }
    let reference = |node: NodeId, href: Text| {
        let target = doc.text(href).strip_prefix('#')?;
        let labels = by_name.get(target)?;
        if doc.node(node).first_child().is_none() {
            let own = labels.iter().find(|(label, _)| label == target).or(labels.first())?;
            return Some(format!("\\eqref{{{}}}", own.0));
        }
        let words = doc.plain_text(node);
        let bare = words.strip_prefix('(').and_then(|words| words.strip_suffix(')'));
        let shown = bare.unwrap_or(&words);
        let is_number = |shown: &str| {
            shown.starts_with(|c: char| c.is_ascii_alphanumeric()) && shown.chars().all(|c| c.is_ascii_alphanumeric() || c == '.')
        };
        let by_number = labels.iter().find(|(_, number)| !number.is_empty() && number == shown);
        // What is counted within parts of the document may show another number here.
        let only = || labels.first().filter(|_| labels.len() == 1 && bare.is_some() && is_number(shown));
        let (label, _) = by_number.or_else(only)?;
        Some(format!("\\{}{{{label}}}", if bare.is_some() { "eqref" } else { "ref" }))
    };
    let references: Vec<(NodeId, String)> = doc
        .nodes()
        .filter_map(|(id, node)| match node.kind() {
            Kind::Link { href } => Some((id, reference(id, href)?)),
            _ => None,
        })
        .collect();
    for (node, source) in references {
        while let Some(child) = doc.node(node).first_child() {
            doc.detach(child);
        }
        let source = doc.intern(&source);
        let formula = doc.add_tex(source, false);
        doc.set_kind(node, Kind::Math(formula));
    }
}

/// Makes lines of characters of formulas, where they can be parsed.
pub fn to_text(doc: &mut Document) {
    let mut macros = tex::Macros::of(&doc.metadata.macros).with_numbers(&doc.metadata.equation_numbers);
    let formulas: Vec<(NodeId, FormulaId)> = doc
        .walk_all()
        .filter_map(|step| match step {
            Step::Enter(node) => match doc.kind(node) {
                Kind::Math(id) => Some((node, id)),
                _ => None,
            },
            Step::Leave(_) => None,
        })
        .collect();
    for (node, id) in formulas {
        let formula = doc.formula(id);
        let (mut math, problems) = crate::math::read(formula.notation, doc.text(formula.source), &mut macros);
        math.number_from(doc.text(formula.number));
        let words = if problems.is_empty() {
            plain(&math).split_whitespace().collect::<Vec<_>>().join(" ")
        } else {
            doc.text(formula.characters).to_owned()
        };
        let text = doc.intern(&words);
        doc.set_kind(node, Kind::Text(text));
    }
}

/// The id of a formula; its label, where it has no other.
fn name(doc: &mut Document, node: NodeId, label: &str) -> String {
    if let Some(id) = doc.attributes(node).id {
        return doc.text(id).to_owned();
    }
    // Ids of formulas are names of XML (XML 1.0, production 5).
    let is_name = |c: char| c.is_alphanumeric() || matches!(c, '-' | '_' | '.' | ':');
    let mut id: String = label.split_whitespace().collect::<Vec<_>>().join("-").replace(|c| !is_name(c), "-");
    if !id.starts_with(|c: char| c.is_alphabetic() || c == '_') {
        id.insert_str(0, "eq-");
    }
    doc.attributes_mut(node).id = Some(doc.intern(&id));
    id
}

/// Makes a link of a formula that refers to another.
fn refer(doc: &mut Document, node: NodeId, equation: &Equation, parentheses: bool) {
    let href = doc.intern(&format!("#{}", equation.id));
    let text = if parentheses { format!("({})", equation.number) } else { equation.number.clone() };
    doc.set_kind(node, Kind::Link { href });
    doc.append_text(node, &text);
    // One of several rows shows its own number, which is not that of the whole.
    if parentheses && matches!(doc.kind(equation.node), Kind::Math(id) if doc.text(doc.formula(id).number) == equation.number) {
        doc.references.set(node, CrossReference::default());
    }
}
