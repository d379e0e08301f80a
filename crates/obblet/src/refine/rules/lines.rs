//! Blocks as lines: for targets that have no lists, tables or paragraphs.

use crate::document::{Document, Kind, ListKind, NodeId, Step, Text};
use crate::numeral::numeral;

/// What becomes of paragraphs.
#[derive(Clone, Copy, Debug, Default, PartialEq, Eq)]
pub enum Paragraphs {
    /// They stay.
    #[default]
    Keep,
    /// A line break stands between them.
    Breaks,
    /// Two line breaks stand between them.
    BlankLines,
}

/// What becomes of line breaks.
#[derive(Clone, Copy, Debug, Default, PartialEq, Eq)]
pub enum LineBreaks {
    /// They stay.
    #[default]
    Keep,
    /// They become spaces.
    Space,
    /// They end paragraphs.
    Paragraphs,
}

/// Line breaks as spaces, or as ends of paragraphs.
pub fn set_breaks(doc: &mut Document, breaks: LineBreaks) {
    if breaks == LineBreaks::Keep {
        return;
    }
    for root in doc.roots() {
        let found: Vec<NodeId> = doc
            .walk(root)
            .filter_map(|step| match step {
                Step::Enter(id) if doc.kind(id) == Kind::LineBreak => Some(id),
                _ => None,
            })
            .collect();
        // From the last one back, so that nothing moves twice.
        for id in found.into_iter().rev() {
            let in_paragraph = doc.node(id).parent().is_some_and(|parent| doc.kind(parent) == Kind::Paragraph);
            let between = doc.node(id).previous().is_some() && doc.node(id).next().is_some();
            if breaks == LineBreaks::Paragraphs && in_paragraph {
                if between {
                    doc.split_after(id);
                }
                doc.detach(id);
            } else {
                let space = doc.intern(" ");
                doc.set_kind(id, Kind::Text(space));
            }
        }
    }
}

/// Lists as lines of a paragraph, each with `mark`, or with its number.
pub fn list_lines(doc: &mut Document, mark: &str) {
    if mark.is_empty() {
        return;
    }
    for id in outermost(doc, |kind| matches!(kind, Kind::List(_))) {
        into_lines(doc, id, mark);
    }
}

/// The nodes of a kind that stand in no other of it.
pub(super) fn outermost(doc: &Document, wanted: impl Fn(Kind) -> bool) -> Vec<NodeId> {
    let mut found = Vec::new();
    for root in doc.roots() {
        let mut walk = doc.walk(root);
        while let Some(step) = walk.next() {
            if let Step::Enter(id) = step
                && wanted(doc.kind(id))
            {
                found.push(id);
                walk.skip_children(id);
            }
        }
    }
    found
}

/// One line of text: what stands before it, and its nodes.
#[derive(Debug, Default)]
struct Line {
    mark: String,
    nodes: Vec<NodeId>,
}

/// Puts what a block holds into one paragraph in its place: a line for each item, row and paragraph.
pub(super) fn into_lines(doc: &mut Document, block: NodeId, mark: &str) {
    let lines = lines_of(doc, block, mark);
    let paragraph = doc.create(Kind::Paragraph);
    let offset = doc.node(block).offset();
    doc.set_offset(paragraph, offset);
    doc.move_before(block, paragraph);
    for (place, line) in lines.into_iter().enumerate() {
        if place > 0 {
            doc.append(paragraph, Kind::LineBreak);
        }
        if !line.mark.is_empty() {
            doc.append_text(paragraph, &line.mark);
        }
        for node in line.nodes {
            doc.move_into(paragraph, node);
        }
    }
    doc.detach(block);
    if doc.node(paragraph).first_child().is_none() {
        doc.detach(paragraph);
    } else {
        doc.join_texts(paragraph);
    }
}

fn lines_of(doc: &mut Document, block: NodeId, mark: &str) -> Vec<Line> {
    let steps: Vec<Step> = doc.walk(block).collect();
    let mut lines = Lines::default();
    let mut inside: Option<NodeId> = None;
    for step in steps {
        match step {
            Step::Enter(id) if inside.is_none() => {
                if lines.enter(doc, id, mark) {
                    inside = Some(id);
                }
            }
            Step::Enter(_) => {}
            Step::Leave(id) if inside == Some(id) => inside = None,
            Step::Leave(id) if inside.is_none() => lines.leave(doc, id),
            Step::Leave(_) => {}
        }
    }
    lines.lines
}

/// The lines of a block, while it is walked.
#[derive(Default)]
struct Lines {
    lines: Vec<Line>,
    lists: Vec<(ListKind, i32)>,
    /// What the next line begins with.
    pending: String,
    /// Whether the next text goes on with the line before it.
    open: bool,
    /// How many cells of the row there were, and how many bars stand before the next text.
    cell: usize,
    bars: usize,
}

impl Lines {
    /// Whether all of a node is in a line.
    fn enter(&mut self, doc: &mut Document, id: NodeId, mark: &str) -> bool {
        match doc.kind(id) {
            Kind::List(list) => {
                self.lists.push((list, list.start));
                self.open = false;
            }
            Kind::ListItem { .. } => self.item(mark),
            Kind::Row => (self.open, self.cell, self.bars) = (false, 0, 0),
            Kind::Cell(_) => {
                self.bars += usize::from(self.cell > 0);
                self.cell += 1;
            }
            Kind::CodeBlock { code, .. } => {
                for line in doc.text(code).trim_end_matches('\n').split('\n').map(str::to_owned).collect::<Vec<_>>() {
                    let text = doc.intern(&line);
                    let node = doc.create(Kind::Text(text));
                    self.lines.push(Line { mark: std::mem::take(&mut self.pending), nodes: vec![node] });
                }
                self.open = false;
            }
            kind if kind.is_inline() => {
                self.inline(doc, id);
                return true;
            }
            _ if self.cell == 0 => self.open = false,
            _ => {}
        }
        false
    }

    /// The mark or the number of an item stands before its first line.
    fn item(&mut self, mark: &str) {
        self.pending = "\u{2003}".repeat(self.lists.len().saturating_sub(1).min(8));
        if let Some((list, number)) = self.lists.last_mut() {
            if list.ordered {
                self.pending.push_str(&format!("{}. ", numeral((*number).into(), list.marker)));
                *number = number.saturating_add(1);
            } else {
                self.pending.push_str(mark);
                if !mark.ends_with(char::is_whitespace) {
                    self.pending.push(' ');
                }
            }
        }
        self.open = false;
    }

    fn inline(&mut self, doc: &mut Document, id: NodeId) {
        if !self.open {
            self.lines.push(Line { mark: std::mem::take(&mut self.pending), nodes: Vec::new() });
            self.open = true;
        }
        if let Some(line) = self.lines.last_mut() {
            // Bars stand only before what there is.
            if self.bars > 0 {
                let text = format!(" {}", "| ".repeat(std::mem::take(&mut self.bars)));
                let text = doc.intern(if line.nodes.is_empty() { text.trim_start() } else { &text });
                line.nodes.push(doc.create(Kind::Text(text)));
            }
            line.nodes.push(id);
        }
    }

    fn leave(&mut self, doc: &mut Document, id: NodeId) {
        match doc.kind(id) {
            Kind::List(_) => {
                self.lists.pop();
                self.open = false;
            }
            Kind::Row => (self.open, self.cell) = (false, 0),
            Kind::Cell(_) => {}
            _ if self.cell == 0 => self.open = false,
            _ => {
                // Blocks within a cell stand beside each other.
                let open = self.open && doc.node(id).next().is_some();
                if let Some(line) = self.lines.last_mut().filter(|_| open) {
                    let space = doc.intern(" ");
                    line.nodes.push(doc.create(Kind::Text(space)));
                }
            }
        }
    }
}

/// Paragraphs as text with line breaks between.
pub fn join_paragraphs(doc: &mut Document, paragraphs: Paragraphs) {
    let breaks = match paragraphs {
        Paragraphs::Keep => return,
        Paragraphs::Breaks => 1,
        Paragraphs::BlankLines => 2,
    };
    let mut parents = Vec::new();
    for root in doc.roots() {
        let found: Vec<NodeId> = doc
            .walk(root)
            .filter_map(|step| match step {
                Step::Leave(id) if doc.kind(id) == Kind::Paragraph => Some(id),
                _ => None,
            })
            .collect();
        for id in found {
            let parent = doc.node(id).parent();
            let before = doc.node(id).previous().is_some_and(|before| doc.kind(before).is_inline());
            if before && let Some(first) = doc.node(id).first_child() {
                for _ in 0..breaks {
                    let line = doc.create(Kind::LineBreak);
                    doc.move_before(first, line);
                }
            }
            // Text that stands between blocks of other kinds keeps its distance as they do.
            if parent.is_some_and(|parent| matches!(doc.kind(parent), Kind::TermList | Kind::List(_) | Kind::Table | Kind::Row)) {
                continue;
            }
            doc.unwrap(id);
            parents.extend(parent);
        }
    }
    doc.join_texts_in(parents);
}

/// The text of a node, for messages.
pub(super) fn excerpt(doc: &Document, id: NodeId) -> String {
    let text = doc.plain_text(id);
    let text: String = text.split_whitespace().collect::<Vec<_>>().join(" ");
    if text.chars().count() > 60 { text.chars().take(57).chain("...".chars()).collect() } else { text }
}

/// Makes text of something.
pub(super) fn as_text(doc: &mut Document, id: NodeId, text: Text) {
    doc.set_kind(id, Kind::Text(text));
    if doc.node(id).has_attributes() {
        *doc.attributes_mut(id) = crate::document::Attributes::default();
    }
}
