//! Alerts: block quotes whose first line is `[!NOTE]` or another of five words.

use crate::document::{Callout, DivisionKind, Document, Kind, NodeId, Text};

const WORDS: [(&str, Callout); 5] = [
    ("[!NOTE]", Callout::Note),
    ("[!TIP]", Callout::Tip),
    ("[!IMPORTANT]", Callout::Important),
    ("[!WARNING]", Callout::Warning),
    ("[!CAUTION]", Callout::Caution),
];

/// Makes callouts of the block quotes that are alerts.
pub(super) fn mark(doc: &mut Document) {
    let quotes: Vec<NodeId> = doc.nodes().filter(|(_, node)| node.kind() == Kind::BlockQuote).map(|(id, _)| id).collect();
    for quote in quotes {
        if let Some((paragraph, node, callout, rest)) = alert(doc, quote) {
            let after = doc.node(node).next();
            match (rest.is_empty(), after) {
                (false, _) => doc.set_kind(node, Kind::Text(rest)),
                (true, Some(after)) => {
                    doc.detach(node);
                    if matches!(doc.kind(after), Kind::SoftBreak | Kind::LineBreak) {
                        doc.detach(after);
                    }
                }
                (true, None) => doc.detach(paragraph),
            }
            doc.set_kind(quote, Kind::Division(DivisionKind::Callout(callout)));
        }
    }
}

/// The first paragraph of an alert, the text that names its kind, the kind, and what of the text is in the next line.
fn alert(doc: &Document, quote: NodeId) -> Option<(NodeId, NodeId, Callout, Text)> {
    let paragraph = doc.node(quote).first_child().filter(|&id| doc.kind(id) == Kind::Paragraph)?;
    let first = doc.node(paragraph).first_child()?;
    let Kind::Text(text) = doc.kind(first) else { return None };
    let line = doc.text(text).split('\n').next().unwrap_or_default();
    let rest = Text { start: text.end.min(text.start + line.len() as u32 + 1), ..text };
    let alone = !rest.is_empty()
        || match doc.node(first).next() {
            Some(next) => matches!(doc.kind(next), Kind::SoftBreak | Kind::LineBreak) || line.len() < text.len(),
            None => doc.node(paragraph).next().is_some(),
        };
    let (_, callout) = WORDS.iter().find(|(known, _)| known.eq_ignore_ascii_case(line.trim_end()))?;
    alone.then_some((paragraph, first, *callout, rest))
}
