//! The rules: content models, attributes, ids, links, and what a page needs.

use super::Faults;
use super::elements::{self, Element, Holds, INTERACTIVE};
use super::tree::{Node, Tree};
use crate::fast_hash::{HashMap, HashSet};
use crate::language_tag::is_well_formed;
use html5ever::ns;
use percent_encoding::percent_decode_str;

/// Looks at every node once.
pub(super) fn check(tree: &Tree, is_page: bool, faults: &mut Faults) {
    let order = tree.order();
    let mut ids: HashMap<&str, u32> = HashMap::default();
    let mut places: HashSet<&str> = HashSet::default();
    let mut level = 0;
    for &at in &order[1..] {
        let node = &tree.nodes[at];
        if !node.is_element() {
            text(tree, at, faults);
            continue;
        }
        if node.element().is_empty() {
            continue;
        }
        element(tree, at, faults);
        attributes(node, faults);
        if let Some(id) = node.attribute("id") {
            if id.is_empty() || id.contains(|c: char| c.is_ascii_whitespace()) {
                faults.add("check.id", node.line, format!("the id of <{}> is empty or has a space in it", node.element()));
            } else if let Some(line) = ids.insert(id, node.line) {
                faults.add("check.duplicate-id", node.line, format!("the id {id} is that of an element of line {line} too"));
            }
            places.insert(id);
        }
        if node.element() == "a" {
            places.extend(node.attribute("name"));
        }
        needs(tree, at, faults);
        level = heading(node, level, faults);
    }
    links(tree, &order, &places, faults);
    if is_page {
        page(tree, &order, faults);
    }
}

/// What an element may hold, looked up through those that hold what those around them may.
fn holds(tree: &Tree, at: usize) -> Holds {
    let node = &tree.nodes[at];
    let Some(found) = elements::find(node.element()) else { return Holds::Flow };
    if !matches!(found.holds, Holds::AsAround | Holds::AsAroundAnd(_)) {
        return found.holds;
    }
    let around = tree.above(at).find_map(|above| {
        let above = elements::find(above.element())?;
        (!matches!(above.holds, Holds::AsAround | Holds::AsAroundAnd(_))).then_some(above.holds)
    });
    let around = around.unwrap_or(Holds::Flow);
    match (around, found.holds) {
        (Holds::Phrasing | Holds::PhrasingAnd(_), Holds::AsAroundAnd(names)) => Holds::PhrasingAnd(names),
        (Holds::Metadata, _) => Holds::Metadata,
        (_, Holds::AsAroundAnd(names)) => Holds::FlowAnd(names),
        (Holds::Only(_), _) => Holds::Flow,
        (around, _) => around,
    }
}

/// Text stands only where text may.
fn text(tree: &Tree, at: usize, faults: &mut Faults) {
    let node = &tree.nodes[at];
    let Some(parent) = node.parent.filter(|_| node.has_words) else { return };
    let name = tree.nodes[parent].element();
    if matches!(elements::find(name).map(|element| element.holds), Some(Holds::Only(_) | Holds::Metadata)) {
        faults.add("check.content", node.line, format!("text stands directly in <{name}>"));
    }
}

fn element(tree: &Tree, at: usize, faults: &mut Faults) {
    let node = &tree.nodes[at];
    let name = node.element();
    if elements::OBSOLETE.contains(&name) {
        return faults.add("check.obsolete-element", node.line, format!("<{name}> is obsolete"));
    }
    let Some(own) = elements::find(name) else {
        // Names with a hyphen are those of custom elements (HTML, section 4.13.3).
        let custom = name.contains('-') && name.starts_with(|c: char| c.is_ascii_lowercase()) && !name.contains(':');
        if !custom {
            faults.add("check.unknown-element", node.line, format!("<{name}> is not an HTML element"));
        }
        return;
    };
    let Some(parent) = node.parent else { return };
    let above = tree.nodes[parent].element();
    if name == "style" && elements::find(above).is_some_and(|above| above.is & elements::FLOW != 0 || above.name == "body") {
        // Browsers follow it wherever it stands.
        faults.advise("check.content", node.line, "<style> stands in the body of the page");
    } else if parent != 0 && !above.is_empty() && !fits(tree, parent, node, own) {
        faults.add("check.content", node.line, format!("<{name}> may not stand in <{above}>"));
    }
    if let Some((what, reason)) = forbidden(tree, at, own) {
        faults.add("check.content", node.line, format!("<{name}> may not stand in <{what}>{reason}"));
    }
}

fn fits(tree: &Tree, parent: usize, node: &Node, own: &Element) -> bool {
    let above = tree.nodes[parent].element();
    // Groups of a list of terms (HTML, section 4.4.9).
    let in_group = above == "div" && tree.nodes[parent].parent.is_some_and(|list| tree.nodes[list].element() == "dl");
    match own.name {
        _ if in_group => matches!(own.name, "dt" | "dd" | "script" | "template"),
        "dt" | "dd" => above == "dl",
        "li" => matches!(above, "ul" | "ol" | "menu"),
        "link" if !matches!(above, "head" | "noscript") => node.attribute("itemprop").is_some() || body_ok(node),
        "meta" if !matches!(above, "head" | "noscript") => node.attribute("itemprop").is_some(),
        "main" => tree
            .above(parent)
            .chain([&tree.nodes[parent]])
            .all(|above| matches!(above.element(), "" | "html" | "body" | "div" | "form")),
        "area" => tree.above(parent).chain([&tree.nodes[parent]]).any(|above| matches!(above.element(), "map" | "template")),
        _ => elements::may_hold(holds(tree, parent), own),
    }
}

/// Links that may stand in a body (HTML, section 4.6.7).
fn body_ok(node: &Node) -> bool {
    let rel = node.attribute("rel").unwrap_or_default().to_ascii_lowercase();
    !rel.is_empty()
        && rel.split_ascii_whitespace().all(|rel| {
            matches!(rel, "dns-prefetch" | "modulepreload" | "pingback" | "preconnect" | "prefetch" | "preload" | "stylesheet")
        })
}

/// What may not stand above an element, however far.
fn forbidden(tree: &Tree, at: usize, own: &Element) -> Option<(&'static str, &'static str)> {
    let node = &tree.nodes[at];
    let interactive = own.is & INTERACTIVE != 0 && node.attribute("type") != Some("hidden")
        || (own.name == "a" && node.attribute("href").is_some())
        || (matches!(own.name, "audio" | "video") && node.attribute("controls").is_some())
        || (own.name == "img" && node.attribute("usemap").is_some());
    for above in tree.above(at) {
        let found = match above.element() {
            "a" if interactive => Some(("a", ", which a user works with already")),
            "a" if own.name == "a" => Some(("a", "")),
            "button" if interactive || own.name == "a" => Some(("button", ", which a user works with already")),
            "form" if own.name == "form" => Some(("form", "")),
            "label" if own.name == "label" => Some(("label", "")),
            "caption" if own.name == "table" => Some(("caption", "")),
            "header" | "footer" if matches!(own.name, "header" | "footer") => {
                // An element that makes a section of its own between them ends the matter.
                Some((if above.element() == "header" { "header" } else { "footer" }, ""))
            }
            "address"
                if matches!(own.name, "address" | "header" | "footer")
                    || own.is & (elements::HEADING | elements::SECTIONING) != 0 =>
            {
                Some(("address", ""))
            }
            "dt" if matches!(own.name, "header" | "footer") || own.is & (elements::HEADING | elements::SECTIONING) != 0 => {
                Some(("dt", ""))
            }
            "th" if matches!(own.name, "header" | "footer") || own.is & (elements::HEADING | elements::SECTIONING) != 0 => {
                Some(("th", ""))
            }
            "dfn" if own.name == "dfn" => Some(("dfn", "")),
            "progress" if own.name == "progress" => Some(("progress", "")),
            "meter" if own.name == "meter" => Some(("meter", "")),
            "noscript" if own.name == "noscript" => Some(("noscript", "")),
            _ => None,
        };
        if found.is_some() {
            return found;
        }
        if matches!(own.name, "header" | "footer") && matches!(above.element(), "article" | "section" | "aside" | "nav") {
            return None;
        }
    }
    None
}

fn attributes(node: &Node, faults: &mut Faults) {
    let name = node.element();
    let Some(element) = elements::find(name) else { return };
    for (attribute, value) in &node.attributes {
        let attribute = attribute.as_str();
        let own = element.attributes.split_ascii_whitespace().any(|known| known == attribute);
        let global = elements::GLOBAL.binary_search(&attribute).is_ok()
            || attribute.starts_with("data-") && attribute.len() > 5
            || attribute.starts_with("aria-")
            || attribute.starts_with("on") && attribute.len() > 4 && !attribute.contains('-')
            || attribute == "xml:lang"
            || element.attributes.contains('*');
        let obsolete = elements::OBSOLETE_ATTRIBUTES.iter().chain(&elements::OBSOLETE_PAIRS).any(|(known, elements)| {
            *known == attribute && (*elements == "*" || elements.split(' ').any(|element| element == name))
        });
        if obsolete && !own {
            // Browsers still follow them, and will; so this is for the author to know and no fault that breaks anything.
            faults.advise("check.obsolete-attribute", node.line, format!("the attribute {attribute} of <{name}> is obsolete"));
        } else if !(own || global || name == "html" && attribute.starts_with("xmlns")) {
            faults.add("check.unknown-attribute", node.line, format!("<{name}> has no attribute {attribute}"));
        }
        if matches!(attribute, "lang" | "xml:lang") && !value.is_empty() && !is_well_formed(value) {
            faults.add("check.language", node.line, format!("{value} is no language"));
        }
    }
}

/// Attributes and elements without which an element is not whole.
fn needs(tree: &Tree, at: usize, faults: &mut Faults) {
    let node = &tree.nodes[at];
    let name = node.element();
    let mut need = |attribute: &str| {
        if node.attribute(attribute).is_none() {
            faults.add("check.missing-attribute", node.line, format!("<{name}> needs the attribute {attribute}"));
        }
    };
    match name {
        "img" => {
            if node.attribute("src").is_none() && node.attribute("srcset").is_none() {
                need("src");
            }
            let titled = node.attribute("title").is_some_and(|title| !title.is_empty());
            if node.attribute("alt").is_none() && !titled {
                faults.add("check.alt", node.line, "<img> has no words for those who can't see it, in alt");
            }
        }
        "bdo" => need("dir"),
        "data" => need("value"),
        "map" => need("name"),
        "optgroup" => need("label"),
        "track" => need("src"),
        _ => {}
    }
    let first_element = || tree.elements(at).find(|child| !matches!(child.element(), "script" | "template"));
    match name {
        "dl" => terms(tree, at, faults),
        "details" if first_element().is_none_or(|first| first.element() != "summary") => {
            faults.add("check.content", node.line, "<details> needs a <summary> first");
        }
        "summary" | "legend" | "caption" => {
            let parent = node.parent.map_or(0, |parent| parent);
            let first = tree.elements(parent).find(|child| !matches!(child.element(), "script" | "template"));
            let wanted = match name {
                "summary" => "details",
                "legend" => "fieldset",
                _ => "table",
            };
            let in_place =
                tree.nodes[parent].element() == wanted || (name == "legend" && tree.nodes[parent].element() == "optgroup");
            if in_place && first.is_some_and(|first| !std::ptr::eq(first, node)) {
                faults.add("check.content", node.line, format!("<{name}> must come first in <{wanted}>"));
            }
        }
        "figure" => {
            let captions = tree.elements(at).filter(|child| child.element() == "figcaption").count();
            let all = tree.elements(at).count();
            let edge = tree.elements(at).next().is_some_and(|first| first.element() == "figcaption")
                || tree.elements(at).nth(all.saturating_sub(1)).is_some_and(|last| last.element() == "figcaption");
            if captions > 1 || (captions == 1 && !edge) {
                faults.add("check.content", node.line, "<figure> may have one <figcaption>, first or last");
            }
        }
        "ruby" if tree.elements(at).all(|child| child.element() != "rt") => {
            faults.add("check.content", node.line, "<ruby> needs an <rt>");
        }
        "h1" | "h2" | "h3" | "h4" | "h5" | "h6" if is_empty(tree, at) => {
            faults.advise("check.empty-heading", node.line, format!("<{name}> is empty"));
        }
        _ => {}
    }
}

fn is_empty(tree: &Tree, at: usize) -> bool {
    let mut open = vec![at];
    while let Some(node) = open.pop() {
        let node = &tree.nodes[node];
        if node.has_words
            || matches!(node.element(), "img" | "svg" | "math" | "input")
            || node.name.as_ref().is_some_and(|name| name.ns != ns!(html))
        {
            return false;
        }
        open.extend(&node.children);
    }
    true
}

/// Terms and descriptions come in groups of both.
fn terms(tree: &Tree, at: usize, faults: &mut Faults) {
    let line = tree.nodes[at].line;
    let names: Vec<&str> = tree.elements(at).map(Node::element).filter(|name| !matches!(*name, "script" | "template")).collect();
    let groups = names.iter().filter(|name| **name == "div").count();
    if groups > 0 {
        if groups < names.len() {
            faults.add("check.content", line, "<dl> holds groups in <div>, or terms, not both");
        }
        return;
    }
    if names.first() == Some(&"dd") || names.last() == Some(&"dt") {
        faults.add("check.content", line, "<dl> has a term without a description, or a description without a term");
    }
}

/// Headings go down by one level at a time.
fn heading(node: &Node, before: u8, faults: &mut Faults) -> u8 {
    let Some(level) =
        node.element().strip_prefix('h').and_then(|level| level.parse::<u8>().ok()).filter(|level| (1..=6).contains(level))
    else {
        return before;
    };
    // The first heading may be of any level: it goes below headings that are not in the source.
    if level > before + 1 && before > 0 {
        faults.add("check.heading-level", node.line, format!("<h{level}> follows <h{before}> and leaves out a level"));
    }
    level
}

fn links(tree: &Tree, order: &[usize], places: &HashSet<&str>, faults: &mut Faults) {
    for &at in order {
        let node = &tree.nodes[at];
        if !matches!(node.element(), "a" | "area") {
            continue;
        }
        let Some(place) = node.attribute("href").and_then(|href| href.trim().strip_prefix('#')) else { continue };
        let decoded = percent_decode_str(place).decode_utf8_lossy();
        if !place.is_empty()
            && !place.eq_ignore_ascii_case("top")
            && !places.contains(place)
            && !places.contains(decoded.as_ref())
        {
            faults.advise(
                "check.broken-link",
                node.line,
                format!("nothing in the page has the id {decoded}, which a link leads to"),
            );
        }
    }
}

/// What every page has.
fn page(tree: &Tree, order: &[usize], faults: &mut Faults) {
    if !tree.has_doctype {
        faults.add("check.doctype", 1, "the page does not begin with <!DOCTYPE html>");
    }
    let all = |name: &'static str| order.iter().map(|&at| (at, &tree.nodes[at])).filter(move |(_, node)| node.element() == name);
    let titles: Vec<(usize, &Node)> =
        all("title").filter(|(at, _)| tree.above(*at).any(|above| above.element() == "head")).collect();
    match titles.as_slice() {
        [] => faults.add("check.title", 1, "the page has no <title>"),
        [(at, title)] if is_empty(tree, *at) => faults.add("check.title", title.line, "the <title> is empty"),
        [_, (_, second), ..] => faults.add("check.title", second.line, "the page has more than one <title>"),
        _ => {}
    }
    if all("html").next().is_some_and(|(_, html)| html.attribute("lang").is_none_or(str::is_empty)) {
        faults.advise("check.no-language", 1, "<html> does not say what language the page is in, in lang");
    }
    let shown = |node: &Node| node.attribute("hidden").is_none();
    if let Some((_, second)) = all("main").filter(|(_, node)| shown(node)).nth(1) {
        faults.add("check.content", second.line, "the page has more than one <main>");
    }
    if let Some((_, second)) = all("meta").filter(|(_, node)| node.attribute("charset").is_some()).nth(1) {
        faults.add("check.content", second.line, "the page says twice what encoding it is in");
    }
}
