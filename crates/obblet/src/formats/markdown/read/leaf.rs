//! Blocks that hold no other blocks: paragraphs, code and HTML.

use super::super::entity;
use super::blocks::{Blocks, Pending};
use super::cursor::Cursor;
use super::starts::{self, HtmlEnd};
use crate::document::{Align, Kind, NodeId, Text};

/// The leaf that is open.
#[derive(Debug)]
pub(super) enum Leaf {
    None,
    Paragraph,
    Fence { node: NodeId, mark: u8, length: usize, indent: usize, content: Lines },
    Indented { node: NodeId, content: Lines },
    Html { node: NodeId, end: HtmlEnd, content: Lines },
    Table { node: NodeId, body: Option<NodeId>, columns: Vec<Align> },
}

impl Leaf {
    pub(super) const fn is_none_or_paragraph(&self) -> bool {
        matches!(self, Self::None | Self::Paragraph)
    }
}

/// Whole lines of the source, each with its newline: a range while they follow each other, else a copy.
#[derive(Debug, Default)]
pub(super) struct Lines {
    start: usize,
    end: usize,
    copy: String,
    pieces: Vec<(u32, u32)>,
    /// Length without the blank lines at the end.
    solid: usize,
}

impl Lines {
    fn length(&self) -> usize {
        if self.pieces.is_empty() { self.end - self.start } else { self.copy.len() }
    }

    /// Adds a line, from `start` to its newline at `end`, behind so many spaces.
    fn add(&mut self, source: &str, spaces: usize, start: usize, end: usize) {
        let next = (end + 1).min(source.len());
        if self.pieces.is_empty() {
            if spaces == 0 && (self.end == start || self.end == 0) {
                if self.end == 0 {
                    self.start = start;
                }
                self.end = next;
                return;
            }
            self.copy.push_str(&source[self.start..self.end]);
            self.pieces.push((0, self.start as u32));
        }
        self.pieces.push((self.copy.len() as u32, start as u32));
        self.copy.extend(std::iter::repeat_n(' ', spaces));
        self.copy.push_str(&source[start..next]);
    }

    fn mark_solid(&mut self) {
        self.solid = self.length();
    }

    /// The lines as text of the pool.
    fn into_text(self, blocks: &mut Blocks<'_>, solid_only: bool) -> Text {
        let length = if solid_only { self.solid } else { self.length() };
        if self.pieces.is_empty() {
            return Text::between(self.start, self.start + length);
        }
        let base = blocks.doc.pool().len() as u32;
        for (copy, original) in self.pieces {
            blocks.doc.source.add_piece(base + copy, original);
        }
        blocks.doc.intern(&self.copy[..length])
    }
}

/// The lines of the open paragraph: a range of the source while nothing stands between them, else a copy.
#[derive(Debug, Default)]
pub(super) struct Paragraph {
    start: usize,
    end: usize,
    copy: String,
    pieces: Vec<(u32, u32)>,
}

impl Paragraph {
    pub(super) fn begin(&mut self, start: usize, end: usize) {
        (self.start, self.end) = (start, end);
        self.copy.clear();
        self.pieces.clear();
    }

    pub(super) fn add(&mut self, source: &str, start: usize, end: usize) {
        if self.pieces.is_empty() {
            if start == self.end + 1 {
                self.end = end;
                return;
            }
            self.copy.push_str(&source[self.start..self.end]);
            self.pieces.push((0, self.start as u32));
        }
        self.copy.push('\n');
        self.pieces.push((self.copy.len() as u32, start as u32));
        self.copy.push_str(&source[start..end]);
        self.end = end;
    }
}

impl<'s> Blocks<'s> {
    /// The text of the open paragraph, and its offset in the pool.
    fn paragraph_text(&mut self) -> (u32, usize) {
        if self.paragraph.pieces.is_empty() {
            return (self.paragraph.start as u32, self.paragraph.end - self.paragraph.start);
        }
        let base = self.doc.pool().len() as u32;
        for &(copy, original) in &self.paragraph.pieces {
            self.doc.source.add_piece(base + copy, original);
        }
        let copy = std::mem::take(&mut self.paragraph.copy);
        self.doc.intern(&copy);
        self.paragraph.copy = copy;
        (base, self.paragraph.copy.len())
    }

    /// Takes the definitions off the open paragraph. Returns what is left of it in the pool.
    fn settle_paragraph(&mut self) -> Text {
        let (base, length) = self.paragraph_text();
        let text = if self.paragraph.pieces.is_empty() {
            &self.source[self.paragraph.start..self.paragraph.end]
        } else {
            self.paragraph.copy.as_str()
        };
        let mut taken = 0;
        if text.starts_with('[') {
            taken = self.references.take(text, base, &mut self.doc);
        }
        Text::between(base as usize + taken.min(length), base as usize + length)
    }

    /// Closes the open leaf.
    pub(super) fn close_leaf(&mut self) {
        match std::mem::replace(&mut self.leaf, Leaf::None) {
            Leaf::None | Leaf::Table { .. } => {}
            Leaf::Paragraph => {
                let text = self.settle_paragraph();
                self.end_paragraph(text);
            }
            Leaf::Fence { node, content, .. } => {
                let code = content.into_text(self, false);
                self.set_code(node, code);
            }
            Leaf::Indented { node, content } => {
                let code = content.into_text(self, true);
                self.set_code(node, code);
            }
            Leaf::Html { node, content, .. } => {
                let raw = content.into_text(self, false);
                self.doc.set_kind(node, Kind::RawBlock { raw });
            }
        }
    }

    fn open_paragraph_node(&self) -> Option<NodeId> {
        self.doc.node(self.tip()).last_child()
    }

    fn end_paragraph(&mut self, text: Text) {
        let Some(node) = self.open_paragraph_node() else { return };
        if text.is_empty() {
            self.doc.detach(node);
        } else {
            self.pending.push(Pending { node, text });
        }
    }

    fn set_code(&mut self, node: NodeId, code: Text) {
        if let Kind::CodeBlock { info, .. } = self.doc.kind(node) {
            self.doc.set_kind(node, Kind::CodeBlock { code, info });
        }
    }

    /// Gives a line to the open leaf, where that takes it whatever it holds. All containers have matched.
    pub(super) fn add_to_leaf(&mut self, cursor: &mut Cursor<'s>) -> bool {
        let source = self.source;
        match &mut self.leaf {
            Leaf::None | Leaf::Paragraph | Leaf::Table { .. } => false,
            Leaf::Fence { mark, length, indent, content, .. } => {
                let (columns, next) = cursor.indent();
                if columns < 4 && next < cursor.end && starts::closes_fence(&source.as_bytes()[next..cursor.end], *mark, *length)
                {
                    self.close_leaf();
                    return true;
                }
                cursor.skip_columns(*indent);
                content.add(source, cursor.spaces_left(), cursor.at, cursor.end);
                true
            }
            Leaf::Indented { content, .. } => {
                let (columns, next) = cursor.indent();
                let blank = next == cursor.end;
                if columns < 4 && !blank {
                    self.close_leaf();
                    return false;
                }
                cursor.skip_columns(4);
                content.add(source, cursor.spaces_left(), cursor.at, cursor.end);
                if blank {
                    // The line may still turn out to stand behind the block.
                    return false;
                }
                content.mark_solid();
                true
            }
            Leaf::Html { end, content, .. } => {
                if *end == HtmlEnd::Blank && cursor.is_blank() {
                    self.close_leaf();
                    return false;
                }
                content.add(source, cursor.spaces_left(), cursor.at, cursor.end);
                if end.is_in(cursor.rest()) {
                    self.close_leaf();
                }
                true
            }
        }
    }

    pub(super) fn open_indented_code(&mut self, cursor: &Cursor<'s>) {
        let node = self.open_child(Kind::CodeBlock { code: Text::EMPTY, info: Text::EMPTY }, cursor.at);
        let mut content = Lines::default();
        content.add(self.source, cursor.spaces_left(), cursor.at, cursor.end);
        content.mark_solid();
        self.leaf = Leaf::Indented { node, content };
    }

    pub(super) fn open_fence(&mut self, cursor: &Cursor<'s>, mark: u8, length: usize, indent: usize, info: &'s [u8]) {
        let (_, at) = cursor.indent();
        let info = entity::unescape(std::str::from_utf8(info).unwrap_or_default());
        let info = if info.is_empty() { Text::EMPTY } else { self.doc.intern(&info) };
        let node = self.open_child(Kind::CodeBlock { code: Text::EMPTY, info }, at);
        self.leaf = Leaf::Fence { node, mark, length, indent, content: Lines::default() };
    }

    pub(super) fn open_html(&mut self, cursor: &Cursor<'s>, end: HtmlEnd) {
        let (_, at) = cursor.indent();
        let node = self.open_child(Kind::RawBlock { raw: Text::EMPTY }, at);
        let mut content = Lines::default();
        content.add(self.source, cursor.spaces_left(), cursor.at, cursor.end);
        self.leaf = Leaf::Html { node, end, content };
        if end.is_in(&self.source.as_bytes()[at..cursor.end]) {
            self.close_leaf();
        }
    }

    /// Makes the open paragraph a heading. A paragraph of nothing but definitions is none.
    pub(super) fn setext(&mut self, level: u8) -> bool {
        let text = self.settle_paragraph();
        let Some(node) = self.open_paragraph_node() else { return false };
        if text.is_empty() {
            // The line goes on with a paragraph that is empty now.
            self.leaf = Leaf::None;
            self.doc.detach(node);
            return false;
        }
        self.leaf = Leaf::None;
        self.doc.set_kind(node, Kind::Heading(level));
        self.pending.push(Pending { node, text });
        true
    }

    /// The last line of the open paragraph, as a range of the source; the paragraph's start where it is the only one.
    pub(super) fn last_paragraph_line(&self) -> (usize, usize) {
        let end = self.paragraph.end;
        let start = match self.paragraph.pieces.last() {
            Some(&(_, original)) => original as usize,
            None => {
                let lines = &self.source.as_bytes()[self.paragraph.start..end];
                memchr::memrchr(b'\n', lines).map_or(self.paragraph.start, |at| self.paragraph.start + at + 1)
            }
        };
        (start, end)
    }

    /// Takes the last line off the open paragraph and closes it. The line becomes something else.
    pub(super) fn close_paragraph_before(&mut self, last_line: usize) {
        let node = self.open_paragraph_node();
        self.leaf = Leaf::None;
        if last_line == self.paragraph.start {
            if let Some(node) = node {
                self.doc.detach(node);
            }
            return;
        }
        if self.paragraph.pieces.is_empty() {
            self.paragraph.end = last_line - 1;
        } else if let Some((copy, _)) = self.paragraph.pieces.pop() {
            self.paragraph.copy.truncate(copy as usize - 1);
        }
        let text = self.settle_paragraph();
        self.end_paragraph(text);
    }
}
