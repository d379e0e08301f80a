//! What in a document keeps some people from using its page, and that only its author can mend (WCAG 2.2).

use crate::document::{DivisionKind, Document, Finding, Kind, NodeId, Step};

/// Things of one sort: how many there are, and the first of them.
#[derive(Debug, Default)]
struct Tally {
    count: usize,
    first: Option<NodeId>,
}

impl Tally {
    fn add(&mut self, node: NodeId) {
        self.count += 1;
        self.first.get_or_insert(node);
    }
}

/// Whether a node is read aloud.
fn says_something(doc: &Document, kind: Kind) -> bool {
    match kind {
        Kind::Text(text) | Kind::Code(text) | Kind::Image { alt: text, .. } => !doc.text(text).trim().is_empty(),
        kind => kind.is_formula() || matches!(kind, Kind::NoteReference(_)),
    }
}

/// Finds what a page can't say to everybody.
pub(super) fn findings(doc: &Document) -> Vec<Finding> {
    let [mut links, mut headings, mut navigation, mut controls] = <[Tally; 4]>::default();
    // Headings and links that are open, with whether there are words in them yet.
    let mut open: Vec<(NodeId, bool)> = Vec::new();
    let mut summaries = 0_usize;
    for top in doc.roots() {
        for step in doc.walk(top) {
            match step {
                Step::Enter(id) => match doc.kind(id) {
                    Kind::Link { .. } => {
                        if summaries > 0 {
                            controls.add(id);
                        }
                        open.push((id, false));
                    }
                    Kind::Heading(_) => open.push((id, false)),
                    Kind::Summary => summaries += 1,
                    Kind::Division(DivisionKind::Navigation) => navigation.add(id),
                    kind => {
                        if let Some((_, has_words)) = open.last_mut() {
                            *has_words = *has_words || says_something(doc, kind);
                        }
                    }
                },
                Step::Leave(id) => match doc.kind(id) {
                    Kind::Summary => summaries -= 1,
                    kind @ (Kind::Link { .. } | Kind::Heading(_)) => {
                        let has_words = open.pop().is_some_and(|(_, has_words)| has_words);
                        match (open.last_mut(), kind) {
                            (Some((_, around)), _) if has_words => *around = true,
                            (_, Kind::Heading(_)) if !has_words => headings.add(id),
                            (_, Kind::Link { .. }) if !has_words => links.add(id),
                            _ => {}
                        }
                    }
                    _ => {}
                },
            }
        }
    }
    let enough = |tally: &Tally, least: usize, code: &'static str, message: &str, hint: &'static str| {
        let place = doc.place(tally.first.filter(|_| tally.count >= least)?);
        Some(Finding::advice(code, format!("{message}: {}", tally.count)).at(place).hint(hint))
    };
    [
        enough(&links, 1, "link.no-words", "links have no words", "write what they lead to, or alt text for the image in them"),
        enough(&headings, 1, "page.empty-heading", "headings have no words", "write them, or alt text for the image in them"),
        enough(
            &navigation,
            2,
            "page.landmarks",
            "parts for navigation can't be told apart",
            "keep the main one, and make lists of the others",
        ),
        enough(
            &controls,
            1,
            "page.nested-control",
            "links stand in summaries, which are controls themselves",
            "put them behind the summary",
        ),
    ]
    .into_iter()
    .flatten()
    .collect()
}
