//! What is made of the tokens: blocks, and text in them with the styles that hold.

use super::Reader;
use crate::document::{Kind, NodeId, Text, TextLevel};

/// A part of the document that is being filled: the document, an item, a cell, a note.
#[derive(Debug)]
pub(super) struct Part {
    holder: NodeId,
    /// Whether only text stands in it.
    inline: bool,
    /// The paragraph that text goes into.
    paragraph: Option<NodeId>,
    /// What is open in the paragraph, outermost first.
    open: Vec<(Kind, NodeId)>,
    /// How many styles hold outside of it.
    outside: usize,
}

impl Part {
    /// Whether blocks go into a node.
    pub(super) fn is_of(&self, holder: NodeId) -> bool {
        self.holder == holder
    }

    /// Lets blocks go into another node from here on.
    pub(super) const fn goes_into(&mut self, holder: NodeId) {
        self.holder = holder;
    }
}

/// Styles do not stand deeper within each other.
const MOST_STYLES: usize = 32;

/// Parts do not stand deeper within each other.
pub(super) const MOST_PARTS: usize = 100;

impl Reader<'_> {
    /// Begins a part of the document.
    pub(super) fn begin_part(&mut self, holder: NodeId, inline: bool) {
        let outside = self.styles.len();
        self.parts.push(Part { holder, inline, paragraph: inline.then_some(holder), open: Vec::new(), outside });
    }

    /// Ends the part that was begun last.
    pub(super) fn end_part(&mut self) -> Option<NodeId> {
        self.end_paragraph();
        let part = if self.parts.len() > 1 { self.parts.pop() } else { None }?;
        self.styles.truncate(part.outside);
        let end = self.input.place();
        self.doc.set_end(part.holder, end.max(self.doc.node(part.holder).offset()));
        Some(part.holder)
    }

    /// What blocks go into.
    pub(super) fn holder(&self) -> NodeId {
        self.parts.last().map_or_else(|| self.doc.root(), |part| part.holder)
    }

    /// Whether blocks can stand here.
    pub(super) fn takes_blocks(&self) -> bool {
        self.parts.last().is_none_or(|part| !part.inline)
    }

    /// Appends a block.
    pub(super) fn block(&mut self, kind: Kind) -> NodeId {
        self.end_paragraph();
        let holder = self.holder();
        self.doc.append_at(holder, kind, self.at)
    }

    /// Ends the paragraph that text goes into. In what holds text only, an end is a space.
    pub(super) fn end_paragraph(&mut self) {
        let end = self.at;
        let Some(part) = self.parts.last_mut() else { return };
        part.open.clear();
        if part.inline {
            return;
        }
        if let Some(paragraph) = part.paragraph.take() {
            self.trim(paragraph);
            if self.doc.node(paragraph).first_child().is_none() {
                self.doc.detach(paragraph);
            } else {
                self.doc.set_end(paragraph, end.max(self.doc.node(paragraph).offset()));
            }
        }
    }

    /// Drops the white space at the end of a paragraph.
    fn trim(&mut self, paragraph: NodeId) {
        let mut within = paragraph;
        loop {
            let Some(last) = self.doc.node(within).last_child() else {
                // A style that nothing is left in is none.
                let Some(outer) = self.doc.node(within).parent().filter(|_| within != paragraph) else { return };
                self.doc.detach(within);
                within = outer;
                continue;
            };
            match self.doc.kind(last) {
                Kind::Strong | Kind::Emphasis | Kind::Underline | Kind::Strikethrough | Kind::Highlight
                    if !self.doc.node(last).has_attributes() =>
                {
                    within = last;
                }
                Kind::Text(text) => {
                    let words = self.doc.text(text).trim_end_matches([' ', '\t', '\n']).len() as u32;
                    if words > 0 {
                        self.doc.set_kind(last, Kind::Text(Text { start: text.start, end: text.start + words }));
                        return;
                    }
                    self.doc.detach(last);
                }
                Kind::LineBreak => self.doc.detach(last),
                _ => return,
            }
        }
    }

    /// Drops the white space at the end of a line.
    pub(super) fn trim_line(&mut self) {
        let Some(paragraph) = self.parts.last().and_then(|part| part.open.last().map(|(_, node)| *node).or(part.paragraph))
        else {
            return;
        };
        if let Some(last) = self.doc.node(paragraph).last_child()
            && let Kind::Text(text) = self.doc.kind(last)
        {
            let words = self.doc.text(text).trim_end_matches([' ', '\t', '\n']).len() as u32;
            if words > 0 {
                self.doc.set_kind(last, Kind::Text(Text { start: text.start, end: text.start + words }));
            }
        }
    }

    /// The node that text goes into, with the styles that hold.
    fn inline_holder(&mut self) -> NodeId {
        if !self.own.lines.is_empty() {
            self.line_for_text();
        }
        let at = self.at;
        let Some(part) = self.parts.last_mut() else { return self.doc.root() };
        let paragraph = match part.paragraph {
            Some(paragraph) => paragraph,
            None => {
                let paragraph = self.doc.append_at(part.holder, Kind::Paragraph, at);
                part.paragraph = Some(paragraph);
                if let Some(label) = self.pending_id.take() {
                    self.doc.attributes_mut(paragraph).id = Some(label);
                }
                paragraph
            }
        };
        let wanted = self.styles.get(part.outside..).unwrap_or_default();
        if wanted.is_empty() && part.open.is_empty() {
            return paragraph;
        }
        let same = wanted.iter().zip(&part.open).take_while(|(style, (kind, _))| *style == kind).count();
        part.open.truncate(same);
        let mut node = part.open.last().map_or(paragraph, |(_, node)| *node);
        for style in &wanted[same..] {
            node = self.doc.append_at(node, *style, at);
            part.open.push((*style, node));
        }
        node
    }

    /// Whether text here would stand at the beginning, where white space is nothing.
    fn is_at_start(&self) -> bool {
        let Some(part) = self.parts.last() else { return true };
        let Some(paragraph) = part.paragraph else { return true };
        let node = part.open.last().map_or(paragraph, |(_, node)| *node);
        match self.doc.node(node).last_child() {
            None => part.open.len() == self.styles.len().saturating_sub(part.outside) && node == paragraph,
            Some(last) => match self.doc.kind(last) {
                Kind::Text(text) => self.doc.text(text).ends_with(' '),
                Kind::LineBreak => true,
                _ => false,
            },
        }
    }

    /// Whether nothing stands before this in the paragraph.
    pub(super) fn is_at_beginning(&self) -> bool {
        self.parts.last().and_then(|part| part.paragraph).is_none_or(|paragraph| self.doc.node(paragraph).first_child().is_none())
    }

    /// Appends a node to the text.
    pub(super) fn inline(&mut self, kind: Kind) -> NodeId {
        let holder = self.inline_holder();
        self.doc.append_at(holder, kind, self.at)
    }

    /// Appends a run of the source.
    pub(super) fn source_text(&mut self, start: u32, end: u32) {
        let bytes = self.input.source.as_bytes();
        let mut start = start;
        if bytes.get(start as usize) == Some(&b' ') && self.is_at_start() {
            start += 1;
        }
        if start >= end {
            return;
        }
        let holder = self.inline_holder();
        self.doc.append_joined(holder, Text { start, end }, start);
        // Lines of plain characters that follow need not be looked at by what they are.
        while let Some((start, end)) = self.input.next_plain_line() {
            let space = self.doc.intern(" ");
            let line = self.doc.intern(self.input.slice(start, end));
            self.doc.append_joined(holder, Text { start: space.start, end: line.end }, start);
            self.at = start;
        }
    }

    /// Appends characters that are not those of the source.
    pub(super) fn text(&mut self, words: &str) {
        if words == " " && self.is_at_start() {
            return;
        }
        let holder = self.inline_holder();
        let text = self.doc.intern(words);
        self.doc.append_joined(holder, text, self.at);
    }

    /// Whether what is read now is code.
    pub(super) fn is_in_code(&self) -> bool {
        self.styles
            .iter()
            .any(|style| matches!(style, Kind::TextLevel(TextLevel::Code | TextLevel::Keyboard | TextLevel::Sample)))
    }

    /// A space of code, which counts.
    pub(super) fn space_of_code(&mut self) {
        let holder = self.inline_holder();
        let text = self.doc.intern(" ");
        self.doc.append_joined(holder, text, self.at);
    }

    /// Begins a style that holds to the end of the group.
    pub(super) fn style(&mut self, kind: Kind) {
        // What holds outside of a note or a cell does not hold in it.
        let outside = self.parts.last().map_or(0, |part| part.outside);
        let holds = self.styles.get(outside..).unwrap_or_default().contains(&kind);
        if self.styles.len() < MOST_STYLES && !holds {
            self.styles.push(kind);
        }
    }

    /// Reads the argument that comes in a style.
    pub(super) fn styled_argument(&mut self, kind: Kind) {
        if self.input.takes_begin() {
            self.open_group(super::Closing::Group);
            self.style(kind);
        } else {
            let tokens = self.input.argument();
            self.styled(kind, tokens);
        }
    }

    /// Reads the argument that comes into a part of its own.
    pub(super) fn argument_into(&mut self, holder: NodeId, inline: bool) {
        if self.parts.len() >= MOST_PARTS {
            return;
        }
        if self.input.takes_begin() {
            self.open_group(super::Closing::Part(holder));
            self.begin_part(holder, inline);
        } else {
            let tokens = self.input.argument();
            self.read_into(holder, inline, tokens);
        }
    }

    /// Reads tokens as text in a style.
    pub(super) fn styled(&mut self, kind: Kind, tokens: Vec<super::tokens::Token>) {
        use super::tokens::{Kind as Sign, Then};
        let at = self.at;
        self.input.push(Sign::Then(Then::LeaveStyle), at);
        self.input.push_all(tokens.into_iter());
        self.marks.push(self.styles.len());
        self.style(kind);
    }

    /// Reads tokens into a part of its own.
    pub(super) fn read_into(&mut self, holder: NodeId, inline: bool, tokens: Vec<super::tokens::Token>) {
        use super::tokens::{Kind as Sign, Then};
        if self.parts.len() >= MOST_PARTS {
            self.input.push_all(tokens.into_iter());
            return;
        }
        let at = self.at;
        self.input.push(Sign::Then(Then::ClosePart), at);
        self.input.push_all(tokens.into_iter());
        self.begin_part(holder, inline);
    }

    /// Puts a place that links lead to here.
    pub(super) fn anchor(&mut self, id: &str) -> NodeId {
        let text = self.doc.intern(id);
        let node = self.inline(Kind::Anchor);
        self.doc.attributes_mut(node).id = Some(text);
        node
    }
}
