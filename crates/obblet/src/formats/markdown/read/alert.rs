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
        if let Some((paragraph, text, callout)) = alert(doc, quote) {
            let rest = doc.node(text).next();
            doc.detach(text);
            match rest {
                Some(line_end) => doc.detach(line_end),
                None => doc.detach(paragraph),
            }
            doc.set_kind(quote, Kind::Division(DivisionKind::Callout(callout)));
        }
    }
}

fn alert(doc: &Document, quote: NodeId) -> Option<(NodeId, NodeId, Callout)> {
    let paragraph = doc.node(quote).first_child().filter(|&id| doc.kind(id) == Kind::Paragraph)?;
    let first = doc.node(paragraph).first_child()?;
    let Kind::Text(text) = doc.kind(first) else { return None };
    let alone = match doc.node(first).next() {
        Some(next) => matches!(doc.kind(next), Kind::SoftBreak | Kind::LineBreak),
        None => doc.node(paragraph).next().is_some(),
    };
    let word = doc.text(Text { ..text }).trim_end();
    let (_, callout) = WORDS.iter().find(|(known, _)| known.eq_ignore_ascii_case(word))?;
    alone.then_some((paragraph, first, *callout))
}
