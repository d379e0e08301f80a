//! The block structure: which containers each line goes on with, which it opens, and what is left for the leaf.

use super::block_starts;
use super::cursor::Cursor;
use super::leaf_state::Leaf;
use super::reference;
use super::state::{Blocks, Container, ContainerKind, Outcome, Pending};
use crate::document::{Kind, ListKind, Marker, NodeId, Note, NoteId, Text};
use crate::formats::markdown::Extensions;

impl<'s> Blocks<'s> {
    /// Reads all lines from `start` on.
    pub(super) fn run(mut self, start: usize) -> Outcome {
        let bytes = self.source.as_bytes();
        let mut at = start;
        while at < bytes.len() {
            let end = memchr::memchr(b'\n', &bytes[at..]).map_or(bytes.len(), |length| at + length);
            // The common case: a line of prose outside of all containers can only begin or go on with a paragraph.
            if self.stack.len() == 1 && (bytes[at].is_ascii_alphabetic() || bytes[at] >= 0x80) && self.leaf.is_none_or_paragraph()
            {
                self.add_prose(at, end);
                self.blank = None;
                self.content_end = end + 1;
            } else {
                self.line_end = end + 1;
                self.line(Cursor::new(bytes, at, end));
            }
            at = end + 1;
        }
        self.close_to(1);
        Outcome {
            doc: self.doc,
            pending: self.pending,
            references: self.references,
            notes: self.notes,
            merges_cells: self.merges_cells,
        }
    }

    fn add_prose(&mut self, start: usize, end: usize) {
        if matches!(self.leaf, Leaf::None) {
            self.open_child(Kind::Paragraph, start);
            self.leaf = Leaf::Paragraph;
            self.paragraph.begin(start, end);
        } else {
            self.paragraph.add(self.source, start, end);
        }
    }

    fn line(&mut self, mut cursor: Cursor<'s>) {
        let mut matched = self.go_on(&mut cursor);
        let all_matched = matched == self.stack.len();
        if all_matched && self.add_to_leaf(&mut cursor) {
            self.content_end = self.line_end;
            self.blank = None;
            return;
        }
        let opened = self.open_blocks(&mut cursor, &mut matched, all_matched);
        if opened == Opened::Leaf {
            self.content_end = self.line_end;
            self.blank = None;
            return;
        }
        if opened == Opened::Container {
            self.content_end = self.line_end;
        }
        if cursor.is_blank() {
            if opened == Opened::Nothing {
                self.blank_line(matched);
            } else {
                self.blank = None;
            }
            return;
        }
        self.add_text(&cursor, matched, all_matched, opened);
    }

    /// Adds what is left of a line to the open paragraph or table, or begins a paragraph with it.
    fn add_text(&mut self, cursor: &Cursor<'s>, matched: usize, all_matched: bool, opened: Opened) {
        let (_, start) = cursor.indent();
        let goes_on = matches!(self.leaf, Leaf::Paragraph) && opened == Opened::Nothing;
        if goes_on {
            // With containers unmatched, this is a lazy continuation line.
            self.paragraph.add(self.source, start, cursor.end);
        } else if all_matched && opened == Opened::Nothing && matches!(self.leaf, Leaf::Table { .. }) {
            self.add_row(start, cursor.end);
        } else {
            if opened == Opened::Nothing {
                self.close_to(matched);
            }
            self.open_child(Kind::Paragraph, start);
            self.leaf = Leaf::Paragraph;
            self.paragraph.begin(start, cursor.end);
        }
        self.content_end = self.line_end;
        self.blank = None;
    }

    /// Matches the open containers against a line. Returns how many of them it goes on with.
    fn go_on(&mut self, cursor: &mut Cursor<'s>) -> usize {
        let mut depth = 1;
        while depth < self.stack.len() {
            let container = self.stack[depth];
            let (columns, next) = cursor.indent();
            if next == cursor.end {
                return self.go_on_blank(cursor, depth);
            }
            match container.kind {
                ContainerKind::Root | ContainerKind::List { .. } => {}
                ContainerKind::Quote => {
                    if columns > 3 || cursor_byte(cursor, next) != b'>' {
                        return depth;
                    }
                    cursor.skip_indent();
                    cursor.skip_bytes(1);
                    cursor.skip_optional_space();
                }
                ContainerKind::Item | ContainerKind::Note => {
                    let own = self.own_indent(depth);
                    if columns < own {
                        return depth;
                    }
                    cursor.skip_columns(own);
                }
            }
            depth += 1;
        }
        depth
    }

    /// A blank line goes on with all containers up to the next block quote, however many they are.
    fn go_on_blank(&self, cursor: &mut Cursor<'s>, depth: usize) -> usize {
        let next_quote = self.quotes.partition_point(|&quote| quote < depth);
        let matched = self.quotes.get(next_quote).copied().unwrap_or(self.stack.len());
        let last = self.stack[self.stack.len() - 1];
        // An item can begin with one blank line at most.
        if matched == self.stack.len() && last.kind == ContainerKind::Item && self.doc.node(last.node).first_child().is_none() {
            return matched - 1;
        }
        cursor.skip_columns(self.stack[matched - 1].indent - self.stack[depth - 1].indent);
        matched
    }

    fn own_indent(&self, depth: usize) -> usize {
        self.stack[depth].indent - self.stack[depth - 1].indent
    }

    fn blank_line(&mut self, matched: usize) {
        // Indented code may go on behind blank lines.
        if !(matches!(self.leaf, Leaf::Indented { .. }) && matched == self.stack.len()) {
            self.close_to_keeping_list(matched);
        }
        self.blank = Some(self.quotes.last().copied().unwrap_or(0));
    }

    /// Opens the containers and leaves that the rest of a line begins.
    fn open_blocks(&mut self, cursor: &mut Cursor<'s>, matched: &mut usize, all_matched: bool) -> Opened {
        let mut opened = Opened::Nothing;
        // Where the line was found to hold what no thematic break of hyphens or of stars can; no need to look there again.
        let mut no_break = [0; 2];
        loop {
            let (columns, next) = cursor.indent();
            if next == cursor.end {
                return opened;
            }
            let in_paragraph = matches!(self.leaf, Leaf::Paragraph) && opened == Opened::Nothing;
            if columns >= 4 {
                if in_paragraph {
                    return opened;
                }
                self.close_unless_opened(*matched, opened);
                let start = cursor.at;
                cursor.skip_columns(4);
                self.open_indented_code(cursor, start);
                return Opened::Leaf;
            }
            let line = &self.source.as_bytes()[next..cursor.end];
            let paragraph_matched = in_paragraph && all_matched;
            if paragraph_matched
                && matches!(line[0], b'=' | b'-')
                && let Some(level) = block_starts::setext_level(line)
            {
                if self.setext(level) {
                    return Opened::Leaf;
                }
                if line[0] == b'=' {
                    return opened;
                }
            }
            if paragraph_matched
                && self.syntax.has(Extensions::TABLES)
                && matches!(line[0], b'|' | b':' | b'-')
                && self.open_table(next, cursor.end)
            {
                return Opened::Leaf;
            }
            match line[0] {
                b'>' => {
                    self.close_unless_opened(*matched, opened);
                    cursor.skip_indent();
                    cursor.skip_bytes(1);
                    cursor.skip_optional_space();
                    let node = self.open_child(Kind::BlockQuote, next);
                    self.push(node, ContainerKind::Quote, 0);
                }
                b'-' | b'+' | b'*' | b'0'..=b'9' => {
                    let other = usize::from(line[0] == b'*');
                    if matches!(line[0], b'-' | b'*') && no_break[other] <= next {
                        no_break[other] = block_starts::thematic_break_fails(line).map_or(0, |at| next + at);
                    }
                    if matches!(line[0], b'-' | b'*') && no_break[other] == 0 {
                        self.close_unless_opened(*matched, opened);
                        let node = self.open_child(Kind::ThematicBreak, next);
                        self.end_block_here(node);
                        return Opened::Leaf;
                    }
                    if !self.open_item(cursor, *matched, opened, paragraph_matched) {
                        return opened;
                    }
                }
                b'[' if self.syntax.has(Extensions::FOOTNOTES) => {
                    if !self.open_note(cursor, *matched, opened) {
                        return opened;
                    }
                }
                _ => {
                    if self.opens_leaf(cursor, line, in_paragraph, *matched, opened) {
                        return Opened::Leaf;
                    }
                    return opened;
                }
            }
            opened = Opened::Container;
            *matched = self.stack.len();
        }
    }

    /// Headings, rules, fenced code and HTML.
    fn opens_leaf(
        &mut self,
        cursor: &mut Cursor<'s>,
        line: &'s [u8],
        in_paragraph: bool,
        matched: usize,
        opened: Opened,
    ) -> bool {
        let (indent, at) = cursor.indent();
        match line[0] {
            b'#' => {
                let Some((level, start, end)) = block_starts::atx_heading(line) else { return false };
                self.close_unless_opened(matched, opened);
                let node = self.open_child(Kind::Heading(level), at);
                self.end_block_here(node);
                self.pending.push(Pending { node, text: Text::between(at + start, at + end) });
            }
            b'_' if block_starts::thematic_break_fails(line).is_none() => {
                self.close_unless_opened(matched, opened);
                let node = self.open_child(Kind::ThematicBreak, at);
                self.end_block_here(node);
            }
            b'`' | b'~' => {
                let Some((mark, length, info)) = block_starts::fence(line) else { return false };
                self.close_unless_opened(matched, opened);
                self.open_fence(cursor, mark, length, indent, info);
            }
            b'<' => {
                let Some(end) = block_starts::html_block(line, in_paragraph) else { return false };
                self.close_unless_opened(matched, opened);
                self.open_html(cursor, end);
            }
            _ => return false,
        }
        true
    }

    fn open_item(&mut self, cursor: &mut Cursor<'s>, matched: usize, opened: Opened, interrupts: bool) -> bool {
        let (before, at) = cursor.indent();
        let Some(marker) = block_starts::list_marker(&self.source.as_bytes()[at..cursor.end]) else { return false };
        let mut after = *cursor;
        after.skip_indent();
        after.skip_bytes(marker.width);
        let (spaces, next) = after.indent();
        let empty = next == cursor.end;
        if interrupts && (empty || (marker.ordered && marker.start != 1)) {
            return false;
        }
        let padding = if empty || spaces > 4 { 1 } else { spaces };
        if opened == Opened::Nothing {
            self.close_to_keeping_list(matched);
        }
        let kind = ContainerKind::List { mark: marker.mark, ordered: marker.ordered };
        let top = self.stack[self.stack.len() - 1].kind;
        if top != kind {
            if matches!(top, ContainerKind::List { .. }) {
                self.pop();
            }
            let list = ListKind { ordered: marker.ordered, tight: true, marker: Marker::Plain, start: marker.start as i32 };
            let list = self.open_child(Kind::List(list), at);
            self.push(list, kind, 0);
        }
        let item = self.open_child(Kind::ListItem { checked: None }, at);
        self.push(item, ContainerKind::Item, before + marker.width + padding);
        *cursor = after;
        cursor.skip_columns(padding);
        true
    }

    /// `[^label]:` at the start of a line begins a note.
    fn open_note(&mut self, cursor: &mut Cursor<'s>, matched: usize, opened: Opened) -> bool {
        let (_, at) = cursor.indent();
        let line = &self.source[at..cursor.end];
        let Some((label, length)) = line.starts_with("[^").then(|| reference::label(line)).flatten() else { return false };
        if label.len() < 2 || label.bytes().any(|byte| matches!(byte, b' ' | b'\t')) || line.as_bytes().get(length) != Some(&b':')
        {
            return false;
        }
        let key = reference::fold(&label[1..]);
        if self.notes.contains_key(&key) {
            return false;
        }
        self.close_unless_opened(matched, opened);
        let body = self.doc.create(Kind::Note);
        self.doc.set_offset(body, at as u32);
        self.notes.insert(key, NoteId(self.doc.notes.len() as u32));
        self.doc.notes.push(Note { label: label[1..].to_owned(), body });
        self.push(body, ContainerKind::Note, 4);
        cursor.skip_indent();
        cursor.skip_bytes(length + 1);
        // What a list in the first line is set in by is no part of it: its items go on where the note does.
        cursor.skip_indent();
        true
    }

    fn push(&mut self, node: NodeId, kind: ContainerKind, own_indent: usize) {
        if kind == ContainerKind::Quote {
            self.quotes.push(self.stack.len());
        }
        let indent = self.stack[self.stack.len() - 1].indent + own_indent;
        self.stack.push(Container { node, kind, indent });
    }

    fn close_unless_opened(&mut self, matched: usize, opened: Opened) {
        if opened == Opened::Nothing {
            self.close_to(matched);
        } else if matches!(self.stack[self.stack.len() - 1].kind, ContainerKind::List { .. }) {
            self.pop();
        }
    }

    /// Closes the leaf and the containers that a line does not go on with. A list ends with what is no item of it.
    fn close_to(&mut self, matched: usize) {
        self.close_to_keeping_list(matched);
        if matches!(self.stack[self.stack.len() - 1].kind, ContainerKind::List { .. }) {
            self.pop();
        }
    }

    fn close_to_keeping_list(&mut self, matched: usize) {
        self.close_leaf();
        while self.stack.len() > matched {
            self.pop();
        }
    }

    fn pop(&mut self) {
        if let Some(container) = self.stack.pop() {
            self.end_block(container.node);
        }
        if self.quotes.last() == Some(&self.stack.len()) {
            self.quotes.pop();
        }
    }
}

fn cursor_byte(cursor: &Cursor<'_>, at: usize) -> u8 {
    cursor.rest()[at - cursor.at]
}

#[derive(Clone, Copy, Debug, PartialEq, Eq)]
enum Opened {
    Nothing,
    Container,
    Leaf,
}
