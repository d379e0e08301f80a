//! What bytes of its source a block was read from.

use super::{Document, Kind, NodeId, SourceMap, Span, Step};

impl Document {
    /// The bytes of the source that a node was read from, where they are known: those of blocks and notes are, in a document that
    /// a reader made.
    ///
    /// ```
    /// use obblet::formats::markdown;
    ///
    /// let source = b"# Tides\n\nHigh at *six*.\n";
    /// let doc = markdown::read(source, &markdown::Settings::GITHUB);
    /// let paragraph = doc.node(doc.root()).last_child().unwrap();
    /// assert_eq!(&source[doc.span(paragraph).unwrap().range()], b"High at *six*.\n");
    /// ```
    #[must_use]
    pub fn span(&self, node: NodeId) -> Option<Span> {
        let node = self.node(node);
        if node.end == SourceMap::UNKNOWN { None } else { self.source.span(node.offset, node.end) }
    }

    /// Makes the spans of the blocks at the top follow each other: where a source is nested in a wrong way, one begins where the
    /// one before it ends. A block whose end is not known ends where the next one begins.
    pub(crate) fn order_spans(&mut self) {
        let tops: Vec<NodeId> = self.children(self.root()).collect();
        let mut at = 0;
        for (index, top) in tops.iter().enumerate() {
            let next = tops.get(index + 1).map(|next| self.nodes[next.index()].offset);
            let last = self.end_of_last(*top);
            let node = &mut self.nodes[top.index()];
            if node.offset == SourceMap::UNKNOWN {
                node.end = SourceMap::UNKNOWN;
                continue;
            }
            node.offset = node.offset.max(at);
            if node.end == SourceMap::UNKNOWN {
                node.end = last.or_else(|| next.filter(|&next| next != SourceMap::UNKNOWN)).unwrap_or(node.offset);
            }
            node.end = node.end.max(node.offset);
            at = node.end;
        }
    }

    /// Where the last of the blocks in a block ends.
    fn end_of_last(&self, id: NodeId) -> Option<u32> {
        let mut at = Some(id);
        while let Some(id) = at {
            let node = self.node(id);
            if node.end != SourceMap::UNKNOWN {
                return Some(node.end);
            }
            at = node.last.filter(|&last| !self.kind(last).is_inline());
        }
        None
    }

    /// Sets the ends of blocks that a reader of lines made: each ends with the last line that holds something before the line in
    /// which the next one begins.
    pub(crate) fn end_blocks_with_lines(&mut self, text: &str) {
        let bytes = text.as_bytes();
        let line_start = |at: usize| memchr::memrchr(b'\n', &bytes[..at.min(bytes.len())]).map_or(0, |newline| newline + 1);
        // Blocks in their order, each with the number of those before its end.
        let (mut blocks, mut open): (Vec<(NodeId, usize)>, Vec<usize>) = (Vec::new(), Vec::new());
        for step in self.walk(self.root()) {
            match step {
                Step::Enter(id) if self.is_block_of_lines(id) => {
                    open.push(blocks.len());
                    blocks.push((id, 0));
                }
                Step::Leave(id) if self.is_block_of_lines(id) => {
                    if let Some(index) = open.pop() {
                        blocks[index].1 = blocks.len();
                    }
                }
                _ => {}
            }
        }
        // Blocks within each other end together; where they do is found once.
        let mut known = (usize::MAX, 0);
        for index in (0..blocks.len()).rev() {
            let (id, after) = blocks[index];
            let next = blocks.get(after).map(|(next, _)| self.node(*next).offset() as usize);
            let limit = next.map_or(bytes.len(), line_start);
            if limit != known.0 {
                known = (limit, end_of_content(bytes, limit));
            }
            if self.node(id).offset() == SourceMap::UNKNOWN
                && let Some(first) = self.node(id).first_child()
            {
                let start = line_start(self.node(first).offset() as usize);
                self.set_offset(id, start as u32);
            }
            let start = self.node(id).offset();
            if start != SourceMap::UNKNOWN {
                self.set_end(id, (known.1 as u32).max(start));
            }
        }
    }

    fn is_block_of_lines(&self, id: NodeId) -> bool {
        let kind = self.kind(id);
        !kind.is_inline() && !matches!(kind, Kind::Root | Kind::Cell(_) | Kind::RowGroup(_))
    }
}

/// Where the last line before `limit` ends that holds more than white space.
fn end_of_content(bytes: &[u8], limit: usize) -> usize {
    let content = bytes[..limit].trim_ascii_end().len();
    memchr::memchr(b'\n', &bytes[content..limit]).map_or(limit, |newline| content + newline + 1)
}
