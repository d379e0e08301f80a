//! Drawings and formulas: elements that are not HTML's, kept as the markup that they are.

use super::element_state::{Origin, ParseState};
use super::foreign_markup::{element, escape};
use super::formula::formula;
use crate::document::{DivisionKind, Document, Finding, Formula, Kind, Markup, NodeId, Step, Text};
use html5ever::{Attribute, QualName, ns};

/// Puts a drawing or formula in its place: a formula as markup, a drawing as a picture that the document holds. Whether it was an
/// icon, which is left out.
pub(super) fn normalize(doc: &mut Document, id: NodeId, state: &ParseState) -> bool {
    let is_drawing = state.foreign.get(&id).is_some_and(|(name, _)| name.ns == ns!(svg) && &*name.local == "svg");
    if is_drawing && is_icon(doc, id, state) {
        drop_icon(doc, id);
        return true;
    }
    normalize_foreign(doc, id, state);
    false
}

fn normalize_foreign(doc: &mut Document, id: NodeId, state: &ParseState) {
    let outer = doc.node(id).parent().is_some_and(|parent| state.origin(parent) == Origin::Foreign);
    if outer {
        return;
    }
    let Some((name, attributes)) = state.foreign.get(&id) else { return };
    if name.ns == ns!(svg) && &*name.local == "svg" {
        return normalize_drawing(doc, id, state);
    }
    if let Some(tex) = tex_within(doc, id, state) {
        let display = is_display(attributes);
        let number = if tex.contains("\\tag") { None } else { number_within(doc, id, state) };
        let tex = doc.intern(tex.trim());
        let formula = doc.add_tex(tex, display);
        if let Some(number) = number {
            let number = doc.intern(&number);
            if let Some(formula) = doc.formulas.last_mut() {
                formula.number = number;
            }
            doc.metadata.presentation.has_equation_numbers = true;
        }
        return replace(doc, id, Kind::Math(formula));
    }
    let empty = doc.plain_text(id).trim().is_empty();
    if let Some(markup) = formula(doc, id, state).filter(|_| !empty) {
        let display = is_display(attributes);
        let characters: String = markup.split('<').filter_map(|piece| piece.split_once('>')).map(|(_, text)| text).collect();
        let (source, characters) = (doc.intern(&markup), doc.intern(&characters));
        let formula = Formula { notation: Markup::MathMl, source, characters, display, number: Text::EMPTY };
        let formula = doc.add_formula(formula);
        return replace(doc, id, Kind::Math(formula));
    }
    // What says what it means becomes the formula that it stands for.
    if let Some(tex) = (!empty)
        .then(|| markup(doc, id, state))
        .filter(|markup| CONTENT.iter().any(|name| markup.contains(name)))
        .map(|markup| crate::math::mathml::read(&markup))
        .and_then(|(math, problems)| {
            let is_understood = problems.is_empty() && !math.body.is_empty();
            is_understood.then(|| crate::math::tex::write(&math))
        })
    {
        let display = is_display(attributes);
        let tex = doc.intern(&tex);
        let formula = doc.add_tex(tex, display);
        return replace(doc, id, Kind::Math(formula));
    }
    let (place, words) = (doc.place(id), doc.plain_text(id));
    let words = words.split_whitespace().collect::<Vec<_>>().join(" ");
    doc.push_finding(Finding::changed("html.formula", "formula is not well-formed; its characters are kept as text").at(place));
    let text = doc.intern(&words);
    replace(doc, id, Kind::Text(text));
}

/// The number beside an equation, as our own pages have it.
fn number_within(doc: &Document, id: NodeId, state: &ParseState) -> Option<String> {
    let cell = doc.walk(id).find_map(|step| match step {
        Step::Enter(cell) => (value(state, cell, "class") == Some("equation-number")).then_some(cell),
        Step::Leave(_) => None,
    })?;
    let text = doc.plain_text(cell);
    text.trim().strip_prefix('(')?.strip_suffix(')').map(str::to_owned)
}

/// Elements that say what a formula means (MathML 3, chapter 4).
const CONTENT: [&str; 8] = ["<apply>", "<ci>", "<cn>", "<reln>", "<piecewise>", "<matrix>", "<vector>", "<set>"];

/// The elements below a node as they are, to be read by who knows them.
fn markup(doc: &Document, id: NodeId, state: &ParseState) -> String {
    let mut out = String::new();
    for step in doc.walk(id) {
        match step {
            Step::Enter(id) => match doc.kind(id) {
                Kind::Text(text) => escape(&mut out, doc.text(text)),
                _ if state.origin(id) == Origin::Foreign => {
                    out.push('<');
                    out.push_str(element(state, id));
                    for attribute in state.foreign.get(&id).into_iter().flat_map(|(_, attributes)| attributes) {
                        out.push_str(&format!(" {}=\"", attribute.name.local));
                        escape(&mut out, &attribute.value);
                        out.push('"');
                    }
                    out.push('>');
                }
                _ => {}
            },
            Step::Leave(id) if !matches!(doc.kind(id), Kind::Text(_)) && state.origin(id) == Origin::Foreign => {
                out.push_str(&format!("</{}>", element(state, id)));
            }
            Step::Leave(_) => {}
        }
    }
    out
}

fn replace(doc: &mut Document, id: NodeId, kind: Kind) {
    while let Some(child) = doc.node(id).first_child() {
        doc.detach(child);
    }
    if matches!(kind, Kind::Text(text) if text.is_empty()) {
        doc.detach(id);
    } else {
        doc.set_kind(id, kind);
    }
}

fn is_display(attributes: &[Attribute]) -> bool {
    attributes.iter().any(|attribute| &*attribute.name.local == "display" && &*attribute.value == "block")
}

fn value<'m>(state: &'m ParseState, id: NodeId, name: &str) -> Option<&'m str> {
    let (_, attributes) = state.foreign.get(&id)?;
    attributes.iter().find(|attribute| (*attribute.name.local).eq_ignore_ascii_case(name)).map(|attribute| &*attribute.value)
}

/// The TeX that a formula was made from, where it carries it.
fn tex_within(doc: &Document, id: NodeId, state: &ParseState) -> Option<String> {
    let mut semantics = doc.children(id);
    let is_tex = |&child: &NodeId| {
        element(state, child) == "annotation"
            && value(state, child, "encoding").is_some_and(|kind| kind.eq_ignore_ascii_case("application/x-tex"))
    };
    let found = semantics
        .find(|&child| element(state, child) == "semantics")
        .and_then(|semantics| doc.children(semantics).find(is_tex))?;
    Some(doc.plain_text(found)).filter(|tex| !tex.trim().is_empty())
}

/// What shows something (SVG 2, sections 5.6, 10, 11 and 12.3).
const SHOWN: [&str; 10] = ["path", "rect", "circle", "ellipse", "line", "polyline", "polygon", "text", "image", "use"];

/// A drawing of no more shapes than this may be a sign in a line of text.
const MOST_STROKES: usize = 4;

/// The width and the height that a sign is shown with, in pixels: about those of a letter. Only the style rules of its page
/// knew its size, and without them it would fill the page. Nothing comes of it where the drawing says how large it is.
fn sign_size(state: &ParseState, id: NodeId) -> Option<(u32, u32)> {
    if ["width", "height", "style"].iter().any(|name| value(state, id, name).is_some()) {
        return None;
    }
    let numbers = |text: &str| -> Vec<f64> {
        text.split([' ', ',']).filter(|part| !part.is_empty()).filter_map(|part| part.parse().ok()).collect()
    };
    let [_, _, width, height] = numbers(value(state, id, "viewBox")?)[..] else { return None };
    let ratio = width / height;
    (0.25..=4.0).contains(&ratio).then_some(((16.0 * ratio).round() as u32, 16))
}

/// Whether a drawing is a small sign without words, of which only the style rules of its page know the size: in a heading, a link,
/// a button or a callout, or beside all text.
fn is_icon(doc: &Document, id: NodeId, state: &ParseState) -> bool {
    let adorns = doc.ancestors(id).take(MOST_AROUND).any(|above| {
        state.origin(above) == Origin::Button
            || matches!(
                doc.kind(above),
                Kind::Heading(_) | Kind::Link { .. } | Kind::Summary | Kind::Division(DivisionKind::Callout(_))
            )
    });
    let shapes = || doc.walk(id).filter_map(|step| if let Step::Enter(node) = step { Some(element(state, node)) } else { None });
    // In a cell or an item it may be all that is said there.
    let says = || {
        doc.ancestors(id).take(MOST_AROUND).any(|above| {
            matches!(
                doc.kind(above),
                Kind::Cell(_) | Kind::ListItem { .. } | Kind::Paragraph | Kind::Figure | Kind::TermDescription
            )
        })
    };
    (adorns || !says())
        && value(state, id, "aria-label").is_none()
        && sign_size(state, id).is_some()
        && shapes().filter(|shape| SHOWN.contains(shape)).take(MOST_STROKES + 1).count() <= MOST_STROKES
        && !shapes().any(|shape| matches!(shape, "text" | "image" | "title"))
}

/// An icon adorns what is no further up.
const MOST_AROUND: usize = 8;

/// Takes out an icon; a link that showed nothing else shows its title.
fn drop_icon(doc: &mut Document, id: NodeId) {
    let link = doc.ancestors(id).take(MOST_AROUND).find(|&above| matches!(doc.kind(above), Kind::Link { .. }));
    doc.detach(id);
    let Some(link) = link else { return };
    let shows = |step: Step| match step {
        Step::Enter(node) => match doc.kind(node) {
            Kind::Text(text) => !doc.text(text).trim().is_empty(),
            kind => kind.is_leaf() && !matches!(kind, Kind::SoftBreak | Kind::LineBreak | Kind::Anchor),
        },
        Step::Leave(_) => false,
    };
    if let Some(title) = doc.attributes(link).title.filter(|_| !doc.walk(link).any(shows)) {
        let text = doc.create(Kind::Text(title));
        doc.move_into(link, text);
        doc.attributes_mut(link).title = None;
    }
}

/// A drawing becomes a picture; its file is part of the document.
fn normalize_drawing(doc: &mut Document, id: NodeId, state: &ParseState) {
    let hidden = value(state, id, "aria-hidden") == Some("true");
    let label = value(state, id, "aria-label").map(str::to_owned);
    let mut title = None;
    let mut out = String::new();
    let shapes: Vec<&str> = doc
        .walk(id)
        .filter_map(|step| if let Step::Enter(node) = step { Some(element(state, node)) } else { None })
        .filter(|name| SHOWN.contains(name))
        .collect();
    let is_sign = shapes.len() <= MOST_STROKES && !shapes.iter().any(|shape| matches!(*shape, "text" | "image"));
    let size = sign_size(state, id).filter(|_| is_sign);
    for step in doc.walk(id) {
        match step {
            Step::Enter(node) => match doc.kind(node) {
                Kind::Text(text) => {
                    let parent = doc.node(node).parent();
                    if parent.is_some_and(|parent| element(state, parent) == "title") {
                        title.get_or_insert_with(|| doc.text(text).trim().to_owned());
                    }
                    if !doc.text(text).trim().is_empty() {
                        escape(&mut out, doc.text(text));
                    }
                }
                _ => start_tag(&mut out, state.foreign.get(&node), node == id, size),
            },
            Step::Leave(node) => {
                if let Some((name, _)) = state.foreign.get(&node) {
                    out.push_str("</");
                    out.push_str(&name.local);
                    out.push('>');
                }
            }
        }
    }
    if shapes.is_empty() || (hidden && label.is_none()) {
        // Decoration, such as the sign of a link.
        let words = doc.plain_text(id);
        if !words.trim().is_empty() {
            let place = doc.place(id);
            doc.push_finding(
                Finding::changed("html.drawing", "a drawing that is only decoration was left out").at(place).losing(words.trim()),
            );
        }
        return doc.detach(id);
    }
    let name = format!("drawing-{}.svg", doc.media.len() + 1);
    let media = doc.add_media(name.as_str(), out.into_bytes());
    doc.media_of.set(id, media);
    let (src, alt) = (doc.intern(&name), doc.intern(&label.or(title).unwrap_or_default()));
    replace(doc, id, Kind::Image { src, alt });
}

fn start_tag(out: &mut String, element: Option<&(QualName, Vec<Attribute>)>, outermost: bool, size: Option<(u32, u32)>) {
    let Some((name, attributes)) = element else { return };
    out.push('<');
    out.push_str(&name.local);
    if outermost {
        out.push_str(" xmlns=\"http://www.w3.org/2000/svg\" xmlns:xlink=\"http://www.w3.org/1999/xlink\"");
        if let Some((width, height)) = size {
            out.push_str(&format!(" width=\"{width}\" height=\"{height}\""));
        }
    }
    for attribute in attributes {
        let local = &*attribute.name.local;
        let known = local.bytes().all(|byte| byte.is_ascii_alphanumeric() || matches!(byte, b'-' | b'_'));
        if !known
            || local.starts_with("on")
            || local == "xmlns"
            || (attribute.name.ns != ns!() && attribute.name.ns != ns!(xlink))
        {
            continue;
        }
        out.push_str(if attribute.name.ns == ns!(xlink) { " xlink:" } else { " " });
        out.push_str(local);
        out.push_str("=\"");
        escape(out, &attribute.value);
        out.push('"');
    }
    out.push('>');
}
