//! Which attributes and classes a target accepts.

use super::pattern::fits;
use crate::document::{Align, BYLINE, Document, Kind, ListKind, Marker, NodeId, Text, says_what_it_is};

/// Removes attributes by name; a name is that of an attribute, or of an element and an attribute as in `img.width`, and may hold
/// `*`. Where `allowed` names some, all others go.
pub fn restrict(doc: &mut Document, allowed: &[String], removed: &[String]) {
    if allowed.is_empty() && removed.is_empty() {
        return;
    }
    let named = |list: &[String], kind: Kind, name: &str| {
        let full = format!("{}.{name}", kind.element());
        list.iter().any(|pattern| fits(pattern, if pattern.contains('.') { &full } else { name }))
    };
    let goes = |kind: Kind, name: &str| named(removed, kind, name) || (!allowed.is_empty() && !named(allowed, kind, name));
    let nodes: Vec<(NodeId, Kind)> = doc.nodes().map(|(id, node)| (id, node.kind())).collect();
    for (id, kind) in nodes {
        match kind {
            // What says nothing without the attribute leaves its words.
            Kind::Link { .. } if named(removed, kind, "href") => {
                if doc.node(id).parent().is_some() {
                    doc.unwrap(id);
                }
                continue;
            }
            Kind::Image { alt, .. } if named(removed, kind, "src") => {
                doc.set_kind(id, Kind::Text(alt));
                continue;
            }
            Kind::Cell(mut cell) if cell.align != Align::Unsaid && goes(kind, "style") => {
                cell.align = Align::Unsaid;
                doc.set_kind(id, Kind::Cell(cell));
            }
            Kind::List(list) if list.ordered => {
                let start = if list.start != 1 && goes(kind, "start") { 1 } else { list.start };
                let marker = if list.marker != Marker::Plain && goes(kind, "type") { Marker::Plain } else { list.marker };
                doc.set_kind(id, Kind::List(ListKind { start, marker, ..list }));
            }
            _ => {}
        }
        if !doc.node(id).has_attributes() {
            continue;
        }
        let has_id = doc.attributes(id).id.is_some() && goes(kind, "id");
        let names: Vec<Text> = doc.attributes(id).other.iter().map(|(name, _)| *name).collect();
        let others: Vec<Text> = names.into_iter().filter(|&name| goes(kind, doc.text(name))).collect();
        let attributes = doc.attributes_mut(id);
        if has_id {
            attributes.id = None;
        }
        attributes.other.retain(|(name, _)| !others.contains(name));
        if goes(kind, "class") {
            attributes.classes.clear();
        }
        if goes(kind, "lang") {
            attributes.language = None;
        }
        if goes(kind, "dir") {
            attributes.direction = None;
        }
        if goes(kind, "title") {
            attributes.title = None;
        }
    }
}

/// Takes out all classes, but for those that say which language code is in, how headings are counted, who wrote the
/// document, and which words are those of another language.
pub(crate) fn drop_classes(doc: &mut Document) {
    let nodes: Vec<NodeId> = doc.nodes().filter(|(_, node)| node.has_attributes()).map(|(id, _)| id).collect();
    for id in nodes {
        let is_language = |class: &Text| doc.text(*class).starts_with("language-") || doc.text(*class) == "display";
        let is_code = matches!(doc.kind(id), Kind::Preformatted | Kind::Code(_) | Kind::CodeBlock { .. } | Kind::TextLevel(_));
        let is_byline = |class: &Text| matches!(doc.kind(id), Kind::Division(_)) && doc.text(*class) == BYLINE;
        let says = |class: &Text| says_what_it_is(doc.kind(id), doc.text(*class));
        let is_of_heading =
            |class: &Text| matches!(doc.kind(id), Kind::Heading(_)) && crate::heading_count::CLASSES.contains(&doc.text(*class));
        let is_kept = |class: &Text| is_code && is_language(class) || is_byline(class) || says(class) || is_of_heading(class);
        let kept: Vec<Text> = doc.attributes(id).classes.iter().copied().filter(is_kept).collect();
        if kept.len() < doc.attributes(id).classes.len() {
            doc.attributes_mut(id).classes = kept.into();
        }
    }
    doc.styles.clear();
}

/// Maps, keeps and drops classes. Each rule is `pattern` (kept), `pattern = name` (renamed) or `pattern =` (dropped); the first one
/// that fits a class decides. What none fits is dropped, but for the names that rules give.
pub fn classes(doc: &mut Document, rules: &[String]) {
    if rules.is_empty() {
        return;
    }
    let rules: Vec<(&str, Option<&str>)> = rules
        .iter()
        .map(|rule| rule.split_once('=').map_or((rule.trim(), None), |(pattern, name)| (pattern.trim(), Some(name.trim()))))
        .collect();
    let nodes: Vec<NodeId> = doc.nodes().filter(|(_, node)| node.has_attributes()).map(|(id, _)| id).collect();
    for id in nodes {
        // The class that names the language of code belongs to the code.
        if doc.attributes(id).classes.is_empty()
            || matches!(doc.kind(id), Kind::Preformatted | Kind::Code(_) | Kind::TextLevel(_))
        {
            continue;
        }
        let mut kept: Vec<String> = Vec::new();
        for class in doc.attributes(id).classes.clone() {
            let class = doc.text(class);
            let name = match rules.iter().find(|(pattern, _)| fits(pattern, class)) {
                Some((_, name)) => name.unwrap_or(class).to_owned(),
                None if rules.iter().any(|(_, name)| *name == Some(class)) => class.to_owned(),
                None => continue,
            };
            if !name.is_empty() && !kept.contains(&name) {
                kept.push(name);
            }
        }
        let kept = kept.iter().map(|class| doc.intern(class)).collect();
        doc.attributes_mut(id).classes = kept;
    }
}
