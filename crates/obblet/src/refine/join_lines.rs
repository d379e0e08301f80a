//! Lines of a paragraph, as their source wrapped them.

use crate::document::{Document, Kind, NodeId, Producer, Step};
use crate::fast_hash::HashSet;
use std::ops::ControlFlow;

/// Makes one line of the lines of each paragraph: where a source wrapped them does not show in the output. Between two East Asian
/// characters a line end is no space (CSS Text, section 4.1.3).
pub fn join(doc: &mut Document) {
    let (mut found, mut preformatted) = (Vec::new(), Vec::new());
    for (id, node) in doc.nodes().filter(|(_, node)| node.parent().is_some()) {
        match node.kind() {
            Kind::SoftBreak => found.push(id),
            Kind::Text(text) if memchr::memchr(b'\n', doc.text(text).as_bytes()).is_some() => found.push(id),
            Kind::Preformatted => preformatted.push(id),
            _ => {}
        }
    }
    if found.is_empty() {
        return;
    }
    let kept = all_below(doc, &preformatted);
    let space = Kind::Text(doc.intern(" "));
    let mut met = Vec::new();
    for id in found {
        if kept.contains(&id) {
            continue;
        }
        if let Kind::Text(text) = doc.kind(id) {
            let joined = joined(doc, id, doc.text(text));
            let text = doc.intern(&joined);
            doc.set_kind(id, Kind::Text(text));
        } else if is_between_words(doc, id) {
            doc.set_kind(id, space);
        } else if is_needless(doc, id) {
            met.extend(doc.node(id).parent());
            doc.detach(id);
        } else if let (Some(before), Some(after)) = (beside(doc, id, false), beside(doc, id, true))
            && joins_closely(before, after)
        {
            doc.detach(id);
        } else {
            doc.set_kind(id, space);
        }
    }
    if doc.layout_hints.producer != Producer::Plain {
        // What stood on both sides may be alike.
        met.sort_unstable();
        met.dedup();
        met.into_iter().for_each(|parent| super::formatting::join_runs(doc, parent));
    }
}

/// Whether ASCII words stand right before and behind a line end, as nearly always.
fn is_between_words(doc: &Document, id: NodeId) -> bool {
    let text = |id: Option<NodeId>| match id.map(|id| doc.kind(id)) {
        Some(Kind::Text(text)) => doc.text(text).as_bytes(),
        _ => &[],
    };
    let (before, after) = (text(doc.node(id).previous()), text(doc.node(id).next()));
    before.last().is_some_and(u8::is_ascii_graphic) && after.first().is_some_and(u8::is_ascii_graphic)
}

fn is_break(doc: &Document, id: Option<NodeId>) -> bool {
    id.is_some_and(|id| doc.kind(id) == Kind::LineBreak)
}

/// Whether a line end separates nothing: it stands beside a line break or white space, or at an end of its block.
fn is_needless(doc: &Document, id: NodeId) -> bool {
    let is_white = |behind: bool| match leaf_beside(doc, id, behind).map(|leaf| doc.kind(leaf)) {
        Some(Kind::LineBreak | Kind::SoftBreak) | None => true,
        Some(Kind::Text(text)) if behind => doc.text(text).starts_with([' ', '\n']),
        Some(Kind::Text(text)) => doc.text(text).ends_with([' ', '\n']),
        Some(_) => false,
    };
    is_white(true) || is_white(false)
}

/// The leaf right behind a node or right before it, in the same block.
fn leaf_beside(doc: &Document, id: NodeId, behind: bool) -> Option<NodeId> {
    let step = |id: NodeId| if behind { doc.node(id).next() } else { doc.node(id).previous() };
    let inner = |id: NodeId| if behind { doc.node(id).first_child() } else { doc.node(id).last_child() };
    let mut above = id;
    for _ in 0..DEEPEST {
        if let Some(mut at) = step(above) {
            for _ in 0..DEEPEST {
                match inner(at) {
                    Some(below) => at = below,
                    None => break,
                }
            }
            return Some(at);
        }
        above = doc.node(above).parent().filter(|&above| doc.kind(above).is_inline())?;
    }
    // What stands so deep is taken for something that shows.
    Some(above)
}

/// Formatting that is nested deeper is not looked through.
const DEEPEST: usize = 64;

/// The nodes below some, which are preformatted: their lines are meant.
fn all_below(doc: &Document, tops: &[NodeId]) -> HashSet<NodeId> {
    let below = |&top: &NodeId| {
        doc.walk(top).filter_map(|step| match step {
            Step::Enter(id) => Some(id),
            Step::Leave(_) => None,
        })
    };
    tops.iter().flat_map(below).collect()
}

/// A text in one line.
fn joined(doc: &Document, id: NodeId, text: &str) -> String {
    let mut out = String::with_capacity(text.len());
    let mut lines = text.split('\n').peekable();
    while let Some(line) = lines.next() {
        let line = line.strip_suffix('\r').unwrap_or(line);
        out.push_str(line);
        let Some(next) = lines.peek() else { break };
        let before = out.chars().next_back().or_else(|| beside(doc, id, false));
        let after = next.chars().next().or_else(|| beside(doc, id, true));
        let is_spaced = before.is_some_and(|c| c == ' ')
            || after.is_some_and(|c| c == ' ' || c == '\n')
            || (out.is_empty() && is_break(doc, doc.node(id).previous()))
            || (next.is_empty() && is_break(doc, doc.node(id).next()));
        if !is_spaced && !before.zip(after).is_some_and(|(before, after)| joins_closely(before, after)) {
            out.push(' ');
        }
    }
    out
}

/// The character right behind a node or right before it, in the same block.
fn beside(doc: &Document, id: NodeId, behind: bool) -> Option<char> {
    let step = |id: NodeId| if behind { doc.node(id).next() } else { doc.node(id).previous() };
    let inner = |id: NodeId| if behind { doc.node(id).first_child() } else { doc.node(id).last_child() };
    let mut at = id;
    for _ in 0..MOST_STEPS {
        let found = match step(at) {
            Some(next) => first(doc, next, inner, behind),
            None => match doc.node(at).parent() {
                Some(above) if doc.kind(above).is_inline() => {
                    at = above;
                    continue;
                }
                _ => return None,
            },
        };
        match found {
            ControlFlow::Break(c) => return c,
            ControlFlow::Continue(next) => at = next,
        }
    }
    None
}

/// The first character in a node, or the last; where there is none, the node itself, to go on from.
fn first(
    doc: &Document,
    top: NodeId,
    inner: impl Fn(NodeId) -> Option<NodeId>,
    behind: bool,
) -> ControlFlow<Option<char>, NodeId> {
    let mut at = top;
    for _ in 0..DEEPEST {
        match inner(at) {
            Some(below) => at = below,
            None => break,
        }
    }
    match doc.kind(at) {
        Kind::Text(text) | Kind::Code(text) if !doc.text(text).is_empty() => {
            let text = doc.text(text);
            ControlFlow::Break(if behind { text.chars().next() } else { text.chars().next_back() })
        }
        Kind::Anchor | Kind::Span | Kind::Text(_) => ControlFlow::Continue(top),
        _ => ControlFlow::Break(None),
    }
}

/// A character is looked for among so many nodes.
const MOST_STEPS: usize = 8;

/// Whether a line end between two characters is no space.
fn joins_closely(before: char, after: char) -> bool {
    is_wide(before) && is_wide(after)
}

/// Whether a character is East Asian and no Korean, which has spaces between words.
const fn is_wide(c: char) -> bool {
    matches!(
        c as u32,
        0x2E80..=0x303F | 0x3041..=0x312F | 0x31A0..=0x4DBF | 0x4E00..=0xA4CF | 0xF900..=0xFAFF | 0xFE30..=0xFE4F
            | 0xFF00..=0xFF60 | 0xFFE0..=0xFFE6 | 0x1_F200..=0x1_F2FF | 0x2_0000..=0x3_FFFD
    )
}

#[cfg(test)]
mod tests {
    use super::*;
    use crate::formats::{html, markdown};

    #[test]
    fn lines_join_as_their_script_wants_it() {
        for (source, expected) in [
            ("High\nwater *at\nsix*\n", "<p>High water <em>at six</em></p>\n"),
            ("潮汐\n站 and\n站\n", "<p>潮汐站 and 站</p>\n"),
            ("潮**汐**\n站\n", "<p>潮<strong>汐</strong>站</p>\n"),
            ("조류\n관측\n", "<p>조류 관측</p>\n"),
            ("High<br>\nwater\n", "<p>High<br>\nwater</p>\n"),
        ] {
            let mut doc = markdown::read(source.as_bytes(), &markdown::Settings::GITHUB);
            html::open_raw(&mut doc);
            join(&mut doc);
            assert_eq!(html::write(&doc, &html::Options::default()).html, expected);
        }
        let mut doc = html::read(b"<p>High\nwater</p><pre>High\n<b>water\n</b></pre>", &html::ReadOptions::default());
        join(&mut doc);
        assert_eq!(
            html::write(&doc, &html::Options::default()).html,
            "<p>High water</p>\n<pre>High\n<strong>water\n</strong></pre>\n"
        );
    }
}
