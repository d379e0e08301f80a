//! From tokens to nodes.

use super::Scanner;
use super::emphasis::{Mark, NONE};
use super::inline_token::{Token, TokenKind};
use crate::document::{Citation, CitationForm, Kind, Markup, NodeId, Text, TextLevel};

/// An image whose alternative text is being gathered. Its markup is gone; its words stay.
struct Alternative {
    src: Text,
    title: Option<Text>,
    offset: u32,
    text: String,
    /// Images within it that have not ended.
    depth: usize,
}

impl Scanner<'_, '_> {
    /// Makes nodes of the tokens, as children of `node`.
    pub(super) fn build(&mut self, node: NodeId) {
        if self.context.tokens.is_empty() {
            return;
        }
        let tokens = std::mem::take(&mut self.context.tokens);
        if let [Token { kind: TokenKind::Text(text), offset }] = tokens[..] {
            self.context.doc.append_at(node, Kind::Text(text), offset);
        } else {
            self.build_all(node, &tokens);
        }
        self.context.tokens = tokens;
    }

    fn build_all(&mut self, top: NodeId, tokens: &[Token]) {
        let mut parent = top;
        let mut in_link = false;
        let mut alternative: Option<Alternative> = None;
        let mut image_title = None;
        for (index, &Token { kind, offset }) in tokens.iter().enumerate() {
            if let Some(image) = &mut alternative {
                if self.add_to_alternative(image, kind) {
                    continue;
                }
                let alt = self.context.doc.intern(&image.text);
                let node = self.context.doc.append_at(parent, Kind::Image { src: image.src, alt }, image.offset);
                if let Some(title) = image.title {
                    self.context.doc.attributes_mut(node).title = Some(title);
                }
                alternative = None;
                continue;
            }
            let doc = &mut self.context.doc;
            match kind {
                TokenKind::Text(text) | TokenKind::Bracket(text) => doc.append_joined(parent, text, offset),
                TokenKind::SoftBreak => {
                    doc.append_at(parent, Kind::SoftBreak, offset);
                }
                TokenKind::LineBreak => {
                    doc.append_at(parent, Kind::LineBreak, offset);
                }
                TokenKind::Code(text) => {
                    doc.append_at(parent, Kind::Code(text), offset);
                }
                TokenKind::Raw(raw) => {
                    doc.append_at(parent, Kind::Raw { markup: Markup::Html, raw }, offset);
                }
                TokenKind::Math { tex, display } => {
                    let formula = doc.add_tex(tex, display);
                    doc.append_at(parent, Kind::Math(formula), offset);
                }
                TokenKind::Note(note) => {
                    // A mark is a link too, and links hold no links.
                    self.context.is_repaired &= !in_link;
                    doc.append_at(parent, Kind::NoteReference(note), offset);
                }
                TokenKind::Citation(text) => self.context.citation(parent, text, offset),
                TokenKind::Address { text, .. } if in_link => doc.append_joined(parent, text, offset),
                TokenKind::Address { href, text } => {
                    let link = doc.append_at(parent, Kind::Link { href }, offset);
                    doc.append_at(link, Kind::Text(text), offset);
                }
                TokenKind::Delimiter(run) => parent = self.delimiters(parent, run as usize, offset),
                TokenKind::LinkStart { href } => {
                    parent = doc.append_at(parent, Kind::Link { href }, offset);
                    in_link = true;
                    if let Some(Token { kind: TokenKind::Title(title), .. }) = tokens.get(index + 1) {
                        doc.attributes_mut(parent).title = Some(*title);
                    }
                }
                TokenKind::LinkEnd => {
                    parent = doc.node(parent).parent().unwrap_or(top);
                    in_link = false;
                }
                TokenKind::ImageStart { src } => {
                    if let Some(Token { kind: TokenKind::Title(title), .. }) = tokens.get(index + 1) {
                        image_title = Some(*title);
                    }
                    alternative = Some(Alternative { src, title: image_title.take(), offset, text: String::new(), depth: 0 });
                }
                TokenKind::Title(_) | TokenKind::ImageEnd => {}
            }
        }
    }

    /// Gathers the words of an image. Returns false at its end.
    fn add_to_alternative(&self, image: &mut Alternative, kind: TokenKind) -> bool {
        let doc = &self.context.doc;
        match kind {
            TokenKind::Text(text)
            | TokenKind::Bracket(text)
            | TokenKind::Code(text)
            | TokenKind::Citation(text)
            | TokenKind::Address { text, .. }
            | TokenKind::Math { tex: text, .. } => image.text.push_str(doc.text(text)),
            TokenKind::SoftBreak | TokenKind::LineBreak => image.text.push(' '),
            TokenKind::Delimiter(run) => {
                let delimiter = &self.context.delimiters[run as usize];
                let left = delimiter.length() - delimiter.closing - delimiter.opening;
                let mark = delimiter.byte() as char;
                image.text.extend(std::iter::repeat_n(mark, left as usize));
            }
            TokenKind::ImageStart { .. } => image.depth += 1,
            TokenKind::ImageEnd if image.depth == 0 => return false,
            TokenKind::ImageEnd => image.depth -= 1,
            TokenKind::Raw(_) | TokenKind::Note(_) | TokenKind::LinkStart { .. } | TokenKind::LinkEnd | TokenKind::Title(_) => {}
        }
        true
    }

    /// A run of delimiters ends some nodes, leaves some characters, and begins other nodes. Returns the new parent.
    fn delimiters(&mut self, mut parent: NodeId, run: usize, offset: u32) -> NodeId {
        let delimiter = self.context.delimiters[run];
        let doc = &mut self.context.doc;
        let mut next = delimiter.closes;
        while next != NONE {
            parent = doc.node(parent).parent().unwrap_or(parent);
            next = self.context.matches[next as usize].next_close;
        }
        let start = offset + delimiter.closing;
        let end = offset + delimiter.length() - delimiter.opening;
        doc.append_joined(parent, Text { start, end }, start);
        let mut next = delimiter.opens;
        while next != NONE {
            let Some(found) = self.context.matches.get(next as usize) else { break };
            let kind = match found.mark {
                Mark::Emphasis => Kind::Emphasis,
                Mark::Strong => Kind::Strong,
                // The extension's specification writes it as deleted text.
                Mark::Strikethrough => Kind::Deletion,
            };
            parent = doc.append_at(parent, kind, end);
            next = found.next_open;
        }
        parent
    }
}

impl super::Context {
    /// A citation shows its keys until the entries are known.
    fn citation(&mut self, parent: NodeId, text: Text, offset: u32) {
        let doc = &mut self.doc;
        let Some((entries, around)) = crate::citations::cited(doc.text(text).trim_matches(['[', ']'])) else { return };
        let node = doc.append_at(parent, Kind::TextLevel(TextLevel::Cite), offset);
        doc.append_at(node, Kind::Text(text), offset);
        let is_year = entries.first().is_some_and(|entry| entry.before.ends_with('-'));
        let form = if is_year { CitationForm::Year } else { CitationForm::Label };
        let mut entries = entries;
        for entry in &mut entries {
            entry.before = entry.before.trim_end_matches('-').trim_end().to_owned();
        }
        doc.bibliography.citations.push(Citation { node, form, entries, around });
    }
}
