//! Links, images and mentions of notes (CommonMark, sections 6.3 and 6.4, and the appendix's "look for link or image").

use super::super::super::entity;
use super::super::reference::{self, Target};
use super::Scanner;
use super::inline_token::TokenKind;
use crate::document::Finding;
use crate::formats::markdown::Extensions;

/// A citation has no more bytes.
const LONGEST_CITATION: usize = 1000;

/// An opening bracket that may begin a link or an image.
#[derive(Clone, Copy, Debug)]
pub(super) struct Bracket {
    token: usize,
    image: bool,
    /// Offset behind the bracket.
    after: usize,
    /// The last delimiter before it.
    delimiters: i32,
    /// Whether another bracket was opened within; then what is between is no label.
    nested: bool,
}

impl Scanner<'_, '_> {
    /// `[` and `![`
    pub(super) fn open_bracket(&mut self) {
        let mark = self.at.wrapping_sub(1);
        let image = self.at > self.plain && self.byte(mark) == b'!' && self.escaped != mark;
        if image {
            self.at = mark;
        } else if self.note() || self.citation() {
            return;
        }
        if let Some(outer) = self.context.brackets.last_mut() {
            outer.nested = true;
        }
        let length = if image { 2 } else { 1 };
        let text = self.pool_text(self.at, self.at + length);
        self.token(TokenKind::Bracket(text), self.at + length);
        // A link has room for its title.
        self.push(TokenKind::Text(crate::document::Text::EMPTY), self.at);
        self.context.brackets.push(Bracket {
            token: self.context.tokens.len() - 2,
            image,
            after: self.at,
            delimiters: self.last_delimiter,
            nested: false,
        });
    }

    /// `[^label]`, where there is such a note.
    fn note(&mut self) -> bool {
        if self.byte(self.at + 1) != b'^' || !self.context.syntax.has(Extensions::FOOTNOTES) {
            return false;
        }
        let Some((label, length)) = reference::label(&self.text[self.at..]) else { return false };
        let Some(&note) = self.context.notes.get(&reference::fold(&label[1..])) else {
            if !label[1..].contains(char::is_whitespace) && label.len() > 1 && self.byte(self.at + length) != b'(' {
                let place = self.context.doc.source.place(self.context.doc.pool(), self.base + self.at as u32);
                self.context.doc.push_finding(
                    Finding::advice("markdown.missing-note", format!("footnote [^{}] is not defined", &label[1..]))
                        .at(place)
                        .hint("define it on a line of its own, or escape the bracket"),
                );
            }
            return false;
        };
        self.token(TokenKind::Note(note), self.at + length);
        true
    }

    /// `[see @key, p. 3]`, where the front matter names a bibliography.
    fn citation(&mut self) -> bool {
        if self.context.doc.bibliography.files.is_empty() {
            return false;
        }
        let start = self.at + 1;
        let bytes = &self.text.as_bytes()[start..self.text.len().min(start + LONGEST_CITATION)];
        let Some(length) = memchr::memchr2(b'[', b']', bytes).filter(|&length| bytes[length] == b']') else { return false };
        let end = start + length;
        // What leads to an address is a link, whatever its text says.
        if matches!(self.byte(end + 1), b'(' | b'[') || crate::citations::cited(&self.text[start..end]).is_none() {
            return false;
        }
        let text = self.pool_text(self.at, end + 1);
        self.token(TokenKind::Citation(text), end + 1);
        true
    }

    /// `]`
    pub(super) fn close_bracket(&mut self) {
        let Some(bracket) = self.context.brackets.pop() else {
            self.at += 1;
            return;
        };
        let index = self.context.brackets.len();
        let active = bracket.image || index >= self.inactive_below;
        self.inactive_below = self.inactive_below.min(index);
        let Some((target, end)) = active.then(|| self.target(&bracket)).flatten() else {
            self.at += 1;
            return;
        };
        self.flush(self.at);
        let tokens = &mut self.context.tokens;
        tokens[bracket.token].kind =
            if bracket.image { TokenKind::ImageStart { src: target.href } } else { TokenKind::LinkStart { href: target.href } };
        if let Some(title) = target.title {
            tokens[bracket.token + 1].kind = TokenKind::Title(title);
        }
        self.resolve_emphasis(bracket.delimiters);
        self.push(if bracket.image { TokenKind::ImageEnd } else { TokenKind::LinkEnd }, self.at);
        if !bracket.image {
            // Links do not nest.
            self.inactive_below = index;
        }
        self.at = end;
        self.plain = end;
    }

    /// Where the link leads whose text ends here, and the offset behind it.
    fn target(&mut self, bracket: &Bracket) -> Option<(Target, usize)> {
        let after = self.at + 1;
        if self.byte(after) == b'('
            && let Some(found) = self.inline_target(after + 1)
        {
            return Some(found);
        }
        if self.context.references.is_empty() {
            return None;
        }
        let text = &self.text[bracket.after..self.at];
        let (label, end) = match reference::label(&self.text[after..]) {
            Some((label, length)) => (label, after + length),
            None => {
                if bracket.nested {
                    return None;
                }
                // The text itself is the label: check it as one, brackets included.
                let (label, _) =
                    reference::label(&self.text[bracket.after - 1..]).filter(|(label, _)| label.len() == text.len())?;
                (label, if self.text[after..].starts_with("[]") { after + 2 } else { after })
            }
        };
        let target = self.context.references.get(label)?;
        self.context.budget =
            match self.context.budget.checked_sub(target.href.len() + target.title.map_or(0, |title| title.len())) {
                Some(left) => left,
                None => {
                    let place = self.context.doc.source.place(self.context.doc.pool(), self.base + self.at as u32);
                    self.context.doc.push_finding(
                        Finding::lost(
                            "markdown.too-many-references",
                            "too many references to long link addresses; the rest are kept as text",
                        )
                        .at(place)
                        .losing(label),
                    );
                    return None;
                }
            };
        Some((target, end))
    }

    /// `(address "title")`, from behind its first parenthesis.
    fn inline_target(&mut self, start: usize) -> Option<(Target, usize)> {
        let text = self.text;
        let start = reference::skip_white(text, start, 1)?;
        let (href, after) = reference::destination(text, start, true)?;
        let mut at = reference::skip_white(text, after, 1)?;
        let mut title = None;
        if at > after
            && let Some((found, end)) = reference::title(text, at)
        {
            title = Some(found);
            at = reference::skip_white(text, end, 1)?;
        }
        if self.byte(at) != b')' {
            return None;
        }
        let href = self.interned(href, &entity::unescape(href));
        let title = title.map(|title| self.interned(title, &entity::unescape(title)));
        Some((Target { href, title }, at + 1))
    }
}
