//! Blocks that hold no other blocks: paragraphs, code and HTML.

use super::super::entity;
use super::block_starts::{self, HtmlEnd};
use super::cursor::Cursor;
use super::leaf_state::{Leaf, Lines};
use super::state::{Blocks, Pending};
use crate::document::{Kind, Markup, NodeId, Text};
use crate::formats::markdown::Extensions;

impl<'s> Blocks<'s> {
    /// Whole lines as text of the pool.
    fn text_of(&mut self, lines: Lines, solid_only: bool) -> Text {
        let length = if solid_only { lines.solid } else { lines.length() };
        if lines.pieces.is_empty() {
            return Text::between(lines.start, lines.start + length);
        }
        let base = self.doc.pool().len() as u32;
        for (copy, original) in lines.pieces {
            self.doc.source.add_piece(base + copy, original);
        }
        self.doc.intern(&lines.copy[..length])
    }

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
    fn finish_paragraph(&mut self) -> Text {
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
            Leaf::None => {}
            Leaf::Table { node, body, .. } => {
                self.end_block(node);
                if let Some(body) = body {
                    self.end_block(body);
                }
            }
            Leaf::Paragraph => {
                let text = self.finish_paragraph();
                self.end_paragraph(text);
            }
            Leaf::Fence { node, content, .. } => {
                let code = self.text_of(content, false);
                self.set_code(node, code);
                self.end_block(node);
            }
            Leaf::Indented { node, content } => {
                let code = self.text_of(content, true);
                self.set_code(node, code);
                self.end_block(node);
            }
            Leaf::Html { node, content, .. } => {
                let raw = self.text_of(content, false);
                self.doc.set_kind(node, Kind::RawBlock { markup: Markup::Html, raw });
                self.end_block(node);
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
            self.end_block(node);
        }
    }

    fn set_code(&mut self, node: NodeId, code: Text) {
        let Kind::CodeBlock { info, .. } = self.doc.kind(node) else { return };
        if self.doc.text(info) == "math" && self.syntax.has(Extensions::MATH) && !self.doc.text(code).trim().is_empty() {
            // A formula on lines of its own.
            let formula = self.doc.add_tex(code, true);
            let place = self.doc.node(node).offset();
            self.doc.set_kind(node, Kind::Paragraph);
            self.doc.append_at(node, Kind::Math(formula), place);
            return;
        }
        self.doc.set_kind(node, Kind::CodeBlock { code, info });
    }

    /// Gives a line to the open leaf, where that takes it whatever it holds. All containers have matched.
    pub(super) fn add_to_leaf(&mut self, cursor: &mut Cursor<'s>) -> bool {
        let source = self.source;
        match &mut self.leaf {
            Leaf::None | Leaf::Paragraph | Leaf::Table { .. } => false,
            Leaf::Fence { mark, length, indent, content, .. } => {
                let (columns, next) = cursor.indent();
                if columns < 4
                    && next < cursor.end
                    && block_starts::closes_fence(&source.as_bytes()[next..cursor.end], *mark, *length)
                {
                    self.content_end = self.line_end;
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
                    self.content_end = self.line_end;
                    self.close_leaf();
                }
                true
            }
        }
    }

    pub(super) fn open_indented_code(&mut self, cursor: &Cursor<'s>, start: usize) {
        let node = self.open_child(Kind::CodeBlock { code: Text::EMPTY, info: Text::EMPTY }, start);
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
        let node = self.open_child(Kind::RawBlock { markup: Markup::Html, raw: Text::EMPTY }, at);
        let mut content = Lines::default();
        content.add(self.source, cursor.spaces_left(), cursor.at, cursor.end);
        self.leaf = Leaf::Html { node, end, content };
        if end.is_in(&self.source.as_bytes()[at..cursor.end]) {
            self.content_end = self.line_end;
            self.close_leaf();
        }
    }

    /// Makes the open paragraph a heading. A paragraph of nothing but definitions is none.
    pub(super) fn setext(&mut self, level: u8) -> bool {
        let text = self.finish_paragraph();
        let Some(node) = self.open_paragraph_node() else { return false };
        if text.is_empty() {
            // The line goes on with a paragraph that is empty now.
            self.leaf = Leaf::None;
            self.doc.detach(node);
            return false;
        }
        self.leaf = Leaf::None;
        self.doc.set_kind(node, Kind::Heading(level));
        self.end_block_here(node);
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
        let text = self.finish_paragraph();
        self.end_paragraph(text);
        if let Some(node) = node.filter(|_| !text.is_empty()) {
            self.doc.set_end(node, last_line as u32);
        }
    }
}
