//! Paragraphs that are set in a fixed-width font, line by line: blocks of code.

use crate::document::{Document, Finding, Kind, NodeId, Text};

/// Makes a code block of paragraphs that hold nothing but code and follow each other, and of one whose lines of code are broken
/// by hand.
pub fn make(doc: &mut Document) {
    let mut found = Vec::new();
    for (id, node) in doc.nodes() {
        if node.kind() != Kind::Paragraph || node.parent().is_none() || !is_code(doc, id) {
            continue;
        }
        // The first of a row gathers the others.
        if node.previous().is_some_and(|before| goes_on(doc, before, id)) {
            continue;
        }
        let mut row = vec![id];
        let mut at = id;
        while let Some(next) = doc.node(at).next().filter(|&next| goes_on(doc, at, next)) {
            row.push(next);
            at = next;
        }
        if row.len() > 1 || doc.children(id).any(|child| doc.kind(child) == Kind::LineBreak) {
            found.push(row);
        }
    }
    let Some(first) = found.iter().map(|row| row[0]).min_by_key(|&id| doc.place(id)) else { return };
    let message = format!("paragraphs in a fixed-width font became code blocks: {}", found.len());
    doc.push_finding(Finding::changed("clean.code-block", message).at(doc.place(first)));
    for row in found {
        let lines: Vec<String> = row.iter().flat_map(|&id| lines(doc, id)).collect();
        let code = doc.intern(&(lines.join("\n").trim_end().to_owned() + "\n"));
        let (&first, others) = row.split_first().unwrap_or((&row[0], &[]));
        while let Some(child) = doc.node(first).first_child() {
            doc.detach(child);
        }
        doc.set_kind(first, Kind::CodeBlock { code, info: Text::EMPTY });
        for &other in others {
            doc.detach(other);
        }
    }
}

/// Whether a paragraph of code behind another one is part of the same block.
fn goes_on(doc: &Document, before: NodeId, id: NodeId) -> bool {
    doc.kind(before) == Kind::Paragraph && is_code(doc, before) && is_code(doc, id) && doc.attributes(id).id.is_none()
}

/// Whether a paragraph holds code, and nothing else but white space.
fn is_code(doc: &Document, id: NodeId) -> bool {
    let mut any = false;
    doc.children(id).all(|child| match doc.kind(child) {
        Kind::Code(_) => {
            any = true;
            doc.attributes(child).is_empty()
        }
        Kind::LineBreak => true,
        _ => doc.is_white(child, char::is_whitespace),
    }) && any
}

/// The lines of a paragraph.
fn lines(doc: &Document, id: NodeId) -> Vec<String> {
    let mut lines = vec![String::new()];
    for child in doc.children(id) {
        match doc.kind(child) {
            Kind::LineBreak => lines.push(String::new()),
            Kind::SoftBreak => lines.last_mut().unwrap_or(&mut String::new()).push(' '),
            Kind::Code(text) | Kind::Text(text) => {
                let text = doc.text(text).replace(['\u{A0}', '\n'], " ");
                lines.last_mut().unwrap_or(&mut String::new()).push_str(&text);
            }
            _ => {}
        }
    }
    lines
}
