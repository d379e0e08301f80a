//! Titles that repeat the text of their link, and controls of a page that only its scripts worked.

use crate::document::{Document, Finding, Kind, KindSet, NodeId, Text};

/// Drops titles of links and images that say what their text says already, or the address itself.
pub fn drop_titles(doc: &mut Document) {
    let found: Vec<NodeId> = doc
        .nodes()
        .filter(|(id, node)| node.has_attributes() && node.parent().is_some() && repeats(doc, *id))
        .map(|(id, _)| id)
        .collect();
    let Some(&first) = found.first() else { return };
    let message = format!("titles that repeated the text of their link or image: {}", found.len());
    doc.push_finding(Finding::changed("clean.title", message).at(doc.place(first)));
    for id in found {
        doc.attributes_mut(id).title = None;
    }
}

fn repeats(doc: &Document, id: NodeId) -> bool {
    let Some(title) = doc.attributes(id).title.map(|title| doc.text(title)) else { return false };
    match doc.kind(id) {
        Kind::Link { href } => same(title, doc.text(href)) || same(title, &doc.plain_text(id)),
        Kind::Image { src, alt } => same(title, doc.text(src)) || same(title, doc.text(alt)),
        _ => false,
    }
}

/// Whether two texts are the same but for case, white space and what ends them.
fn same(one: &str, other: &str) -> bool {
    let words = |text: &str| text.to_lowercase().split_whitespace().collect::<Vec<_>>().join(" ");
    let (one, other) = (words(one), words(other));
    !one.is_empty() && one.trim_end_matches(['.', ':']) == other.trim_end_matches(['.', ':'])
}

/// What controls say that copy, show or print a part of their page.
const CONTROLS: [&str; 24] = [
    "",
    "copy",
    "copy code",
    "copy to clipboard",
    "copy link",
    "copied",
    "copied!",
    "show",
    "hide",
    "show all",
    "hide all",
    "show/hide",
    "show code",
    "hide code",
    "show source",
    "hide source",
    "show more",
    "show less",
    "expand",
    "expand all",
    "collapse",
    "collapse all",
    "toggle",
    "print",
];

/// Takes out links that lead nowhere and whose text is that of a control.
pub fn drop_controls(doc: &mut Document) {
    if !doc.may_hold(KindSet::LINKS) {
        return;
    }
    let found: Vec<(NodeId, Text)> = doc
        .nodes()
        .filter_map(|(id, node)| match node.kind() {
            Kind::Link { href } if node.parent().is_some() && leads_nowhere(doc.text(href)) && is_control(doc, id) => {
                Some((id, href))
            }
            _ => None,
        })
        .collect();
    let Some(&(first, _)) = found.first() else { return };
    let words: Vec<String> = found.iter().map(|(id, _)| doc.plain_text(*id).trim().to_owned()).collect();
    let message = format!("controls that only scripts worked: {}", found.len());
    doc.push_finding(Finding::changed("clean.control", message).at(doc.place(first)).losing(words.join(", ")));
    for (id, _) in found {
        while let Some(child) = doc.node(id).first_child() {
            doc.detach(child);
        }
        if doc.attributes(id).id.is_some() {
            doc.set_kind(id, Kind::Anchor);
        } else {
            doc.detach(id);
        }
    }
}

/// Whether an address stands for a script, or for the page itself.
fn leads_nowhere(href: &str) -> bool {
    let href = href.trim();
    matches!(href, "#" | "#!") || href.get(..11).is_some_and(|scheme| scheme.eq_ignore_ascii_case("javascript:"))
}

fn is_control(doc: &Document, id: NodeId) -> bool {
    let holds_picture = || {
        doc.walk(id).any(|step| matches!(step, crate::document::Step::Enter(node) if matches!(doc.kind(node), Kind::Image { .. } | Kind::Math(_))))
    };
    let text = doc.plain_text(id);
    let text = text.trim().trim_start_matches(['[', '(', '+', '-', '\u{2212}']).trim_end_matches([']', ')', '\u{2026}']).trim();
    let is_word = CONTROLS.iter().any(|word| word.eq_ignore_ascii_case(text));
    is_word && !holds_picture()
}

#[cfg(test)]
mod tests {
    use super::*;

    #[test]
    fn titles_repeat_texts_whatever_their_case() {
        assert!(same("The Old  well.", "the old well"));
        assert!(!same("", "") && !same("The old well, 1904", "The old well"));
        assert!(leads_nowhere("JavaScript:void(0)") && leads_nowhere(" # ") && !leads_nowhere("#copy"));
    }
}
