//! The pieces of HTML that stand in other formats. They go through the standard's tree construction together with the nodes
//! around them, so that `<details>` in one place and `</details>` in another become one node around all that stands between.

use super::css;
use super::fragment_filter::{Chunk, Filter};
use super::normalize::Normalizer;
use super::sink::{Parts, Sink};
use super::tokens;
use crate::document::{Document, Finding, Kind, KindSet, Markup, NodeId, Step, Text};
use html5ever::tokenizer::TagKind;
use html5ever::tree_builder::{TreeBuilder, TreeBuilderOpts};

/// Raw HTML that is nested deeper than this stays text: tree construction looks up through all open elements.
const DEEPEST: usize = 256;

/// One thing that goes into tree construction.
enum Event {
    Open(NodeId),
    Close(NodeId),
    /// A node that goes in as it is, with all that is below it.
    Whole(NodeId),
    Raw(NodeId, Text),
}

/// Parses the raw HTML of a document and puts what it means in its place. What can run script goes, with findings.
pub fn open_raw(doc: &mut Document) {
    open_raw_with(doc, false);
}

/// As [`open_raw`]; its classes stay where they are asked for.
pub(crate) fn open_raw_with(doc: &mut Document, classes: bool) {
    if !doc.may_hold(KindSet::RAW) {
        return;
    }
    drop_comments(doc);
    let roots: Vec<NodeId> = doc.roots();
    if !doc.nodes().any(|(_, node)| raw_html(node.kind()).is_some()) {
        return;
    }
    // What pieces of HTML look like says nothing of the document that they stand in.
    let layout_hints = std::mem::take(&mut doc.layout_hints);
    for &top in &roots {
        show_what_is_too_deep(doc, top);
    }
    let has_raw = nodes_with_raw(doc);
    for top in roots {
        if has_raw[top.index()] {
            open_tree(doc, top, &has_raw, classes);
        }
    }
    doc.layout_hints = layout_hints;
}

/// The markup of a node that is raw HTML.
const fn raw_html(kind: Kind) -> Option<Text> {
    match kind {
        Kind::Raw { markup: Markup::Html, raw } | Kind::RawBlock { markup: Markup::Html, raw } => Some(raw),
        _ => None,
    }
}

/// Comments are what most raw HTML is; they say nothing to a reader and need no parsing to go.
fn drop_comments(doc: &mut Document) {
    let is_comment = |raw: Text| {
        let raw = doc.text(raw).trim_ascii();
        raw.starts_with("<!--") && memchr::memmem::find(raw.as_bytes(), b"-->").is_some_and(|end| end + 3 == raw.len())
    };
    let comments: Vec<NodeId> = doc
        .nodes()
        .filter(|(_, node)| matches!(node.kind(), Kind::Raw { markup: Markup::Html, raw } | Kind::RawBlock { markup: Markup::Html, raw } if is_comment(raw)))
        .map(|(id, _)| id)
        .collect();
    for id in comments {
        doc.detach(id);
        doc.set_kind(id, Kind::Span);
    }
}

/// For each node, whether there is raw HTML in or below it.
fn nodes_with_raw(doc: &Document) -> Vec<bool> {
    let mut has_raw = vec![false; doc.node_count()];
    for (id, node) in doc.nodes() {
        if raw_html(node.kind()).is_none() {
            continue;
        }
        let mut at = Some(id);
        while let Some(id) = at {
            if std::mem::replace(&mut has_raw[id.index()], true) {
                break;
            }
            at = doc.node(id).parent();
        }
    }
    has_raw
}

/// Raw HTML in too deep a place becomes text.
fn show_what_is_too_deep(doc: &mut Document, top: NodeId) {
    let (mut depth, mut too_deep) = (0, Vec::new());
    for step in doc.walk(top) {
        match step {
            Step::Enter(id) => {
                depth += 1;
                if let (Some(raw), true) = (raw_html(doc.kind(id)), depth > DEEPEST) {
                    too_deep.push((id, raw));
                }
            }
            Step::Leave(_) => depth -= 1,
        }
    }
    for (id, raw) in too_deep {
        let block = matches!(doc.kind(id), Kind::RawBlock { .. });
        doc.set_kind(id, if block { Kind::CodeBlock { code: raw, info: Text::EMPTY } } else { Kind::Text(raw) });
        let place = doc.place(id);
        doc.push_finding(Finding::changed("html.too-deep", "HTML that is nested too deeply is shown as text").at(place));
    }
}

/// What goes into tree construction, in order.
fn events(doc: &Document, top: NodeId, has_raw: &[bool]) -> Vec<Event> {
    let mut events = Vec::new();
    let mut walk = doc.walk(top);
    while let Some(step) = walk.next() {
        match step {
            Step::Enter(id) => match doc.kind(id) {
                Kind::Raw { markup: Markup::Html, raw } | Kind::RawBlock { markup: Markup::Html, raw } => {
                    events.push(Event::Raw(id, raw));
                }
                _ if id == top => {}
                _ if has_raw[id.index()] => events.push(Event::Open(id)),
                _ => {
                    events.push(Event::Whole(id));
                    walk.skip_children(id);
                }
            },
            Step::Leave(id) => {
                if id != top && has_raw[id.index()] && !doc.kind(id).is_leaf() {
                    events.push(Event::Close(id));
                }
            }
        }
    }
    events
}

fn open_tree(doc: &mut Document, top: NodeId, has_raw: &[bool], classes: bool) {
    let events = events(doc, top, has_raw);
    for event in &events {
        if let Event::Open(id) | Event::Whole(id) | Event::Raw(id, _) = event {
            doc.detach(*id);
        }
    }
    let sink = Sink::new(doc);
    let context = sink.context();
    let builder = TreeBuilder::new_for_fragment(sink, context, None, TreeBuilderOpts::default());
    let filter = Filter::new(&builder);
    let mut names = tokens::Names::new();
    for event in &events {
        match *event {
            Event::Raw(id, raw) => {
                let chunk = builder.sink.begin_chunk(id, raw);
                tokens::tokenize(&chunk, &mut names, &Chunk(&filter));
            }
            Event::Open(id) => filter.node(id, TagKind::StartTag),
            Event::Close(id) => filter.node(id, TagKind::EndTag),
            Event::Whole(id) => filter.whole(id),
        }
    }
    filter.end();
    let Parts { doc, root, mut state, names } = builder.sink.into_parts();
    let looks = if state.selector_inputs.is_empty() { css::ComputedStyles::default() } else { css::looks(doc, &state, &names) };
    doc.move_children(root, top);
    let mut normalizer = Normalizer::new(&mut state, &looks, classes);
    normalizer.keep_classes(doc, false);
    normalizer.tree(doc, top);
}
