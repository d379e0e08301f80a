//! What is known of a block that holds no other blocks while it is open: the lines of a paragraph, of code, of HTML.

use super::block_starts::HtmlEnd;
use crate::document::{Align, NodeId};

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
    pub(super) start: usize,
    pub(super) end: usize,
    pub(super) copy: String,
    pub(super) pieces: Vec<(u32, u32)>,
    /// Length without the blank lines at the end.
    pub(super) solid: usize,
}

impl Lines {
    pub(super) fn length(&self) -> usize {
        if self.pieces.is_empty() { self.end - self.start } else { self.copy.len() }
    }

    /// Adds a line, from `start` to its newline at `end`, behind so many spaces.
    pub(super) fn add(&mut self, source: &str, spaces: usize, start: usize, end: usize) {
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

    pub(super) fn mark_solid(&mut self) {
        self.solid = self.length();
    }
}

/// The lines of the open paragraph: a range of the source while nothing stands between them, else a copy.
#[derive(Debug, Default)]
pub(super) struct Paragraph {
    pub(super) start: usize,
    pub(super) end: usize,
    pub(super) copy: String,
    pub(super) pieces: Vec<(u32, u32)>,
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
