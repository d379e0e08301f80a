//! What could be better in a source, beyond what its conversion tells.

use crate::document::{Document, Finding, Kind, NodeId, Step};
use crate::recognise;
use crate::refine::lists::{self, Lists};

/// So many spaces in a row, or no-break spaces, set text apart as a column.
const GAP: usize = 3;
/// Looks through a document as it was read.
pub(super) fn analyze(doc: &Document) -> Vec<Finding> {
    let mut found = Vec::new();
    found.extend(columns_of_spaces(doc));
    found.extend(typed_lists(doc));
    found.extend(language(doc));
    found.extend(emptiness(doc));
    found
}

fn all_steps(doc: &Document) -> impl Iterator<Item = NodeId> + '_ {
    doc.walk_all().filter_map(|step| match step {
        Step::Enter(id) => Some(id),
        Step::Leave(_) => None,
    })
}

/// How many findings there are of a sort, and where the first is.
fn counted(doc: &Document, nodes: &[NodeId], code: &'static str, what: &str, hint: &'static str) -> Option<Finding> {
    let first = *nodes.first()?;
    Some(Finding::advice(code, format!("{what}: {}", nodes.len())).at(doc.place(first)).hint(hint))
}

/// Lines of text with runs of spaces in them, where at least two have some.
fn columns_of_spaces(doc: &Document) -> Option<Finding> {
    let mut lines = 0;
    let mut found = Vec::new();
    for id in all_steps(doc) {
        if !matches!(doc.kind(id), Kind::Paragraph) {
            continue;
        }
        let text = doc.plain_text(id);
        let with_gaps = text.lines().filter(|line| has_gap(line)).count();
        lines += with_gaps;
        if with_gaps > 0 {
            found.push(id);
        }
    }
    if lines < 2 {
        return None;
    }
    counted(doc, &found, "text.space-columns", "paragraphs line up text with spaces", "make a table of them")
}

fn has_gap(line: &str) -> bool {
    let mut spaces = 0;
    for c in line.trim().chars() {
        match c {
            ' ' | '\u{A0}' | '\t' => spaces += 1,
            _ if spaces >= GAP => return true,
            _ => spaces = 0,
        }
    }
    false
}

/// Items that `clean.lists=typed` would make and the default does not.
fn typed_lists(doc: &Document) -> Option<Finding> {
    let items = |lists: Lists| {
        let mut copy = doc.clone();
        lists::rebuild(&mut copy, lists);
        let items: Vec<NodeId> = all_steps(&copy).filter(|&id| matches!(copy.kind(id), Kind::ListItem { .. })).collect();
        let places: Vec<_> = items.iter().map(|&id| copy.place(copy.node(id).first_child().unwrap_or(id))).collect();
        places
    };
    let may_be = all_steps(doc).any(|id| matches!(doc.kind(id), Kind::Paragraph) && begins_typed(&doc.plain_text(id)));
    if !may_be {
        return None;
    }
    let (marked, typed) = (items(Lists::Auto), items(Lists::Typed));
    let more = typed.len().checked_sub(marked.len()).filter(|&more| more > 0)?;
    let first = typed.iter().find(|place| !marked.contains(place)).copied().unwrap_or_default();
    Some(
        Finding::advice("clean.typed-list", format!("paragraphs begin with typed bullets or numbers: {more}"))
            .at(first)
            .hint("set clean.lists=typed to make lists of them"),
    )
}

fn begins_typed(text: &str) -> bool {
    text.lines().any(|line| lists::typed(line.trim_start()).is_some())
}

/// A language that the text is not in.
fn language(doc: &Document) -> Option<Finding> {
    let said = doc.metadata.language.as_deref().filter(|said| !said.is_empty())?;
    let is = recognise::language_of(doc)?;
    (!recognise::is_same(said, is)).then(|| {
        Finding::advice("document.language", format!("the document says that it is in {said}, and its text looks like {is}"))
            .hint("set the language of the document, or page.language")
    })
}

/// A document that says and shows nothing.
fn emptiness(doc: &Document) -> Option<Finding> {
    let shows = all_steps(doc).any(|id| match doc.kind(id) {
        Kind::Text(text) | Kind::Code(text) | Kind::CodeBlock { code: text, .. } => !doc.text(text).trim().is_empty(),
        Kind::Image { .. } => true,
        Kind::Raw { raw, .. } | Kind::RawBlock { raw, .. } => !doc.text(raw).trim().is_empty(),
        kind => kind.is_formula(),
    });
    (!shows).then(|| {
        Finding::advice("document.empty", "the document is empty").hint("write it, or leave it out with publish.exclude")
    })
}
