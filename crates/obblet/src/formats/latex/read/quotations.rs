//! Quotations with their marks and sources (the documentation of csquotes and epigraph).

use super::Reader;
use super::tokens::{Kind as Sign, Token};
use crate::document::Kind;

impl Reader<'_> {
    /// A quotation with the marks of the language, and what it is from.
    pub(super) fn quote_in_text(&mut self, name: &str) {
        let has_star = self.input.take('*');
        let mut source = None;
        match name {
            "foreignquote" => drop(self.input.argument()),
            "foreigntextquote" => {
                self.input.argument();
                source = self.input.option();
            }
            "textcquote" => self.quoted_citation(),
            _ => source = self.input.option(),
        }
        // The second says how it ends.
        self.input.option();
        let language = self.front.language.clone().unwrap_or_default();
        let marks = crate::quotation_marks::of(&language);
        // Within another, it has the other marks.
        let is_inner = has_star || self.groups.iter().any(|group| group.closing == super::Closing::Text(marks.double.1));
        let (open, close) = if is_inner { marks.single } else { marks.double };
        self.text(open);
        let words = self.input.argument();
        let at = self.at;
        let behind = self.source_of_quotation(source);
        self.input.push_all(behind.into_iter());
        self.input.push(Sign::End, at);
        self.input.push_all(words.into_iter());
        self.open_group(super::Closing::Text(close));
    }

    /// Whether the quotation that comes is so short that it stands in the text: three lines at most (the documentation of csquotes,
    /// `threshold`).
    pub(super) fn is_short_quotation(&self) -> bool {
        const LONGEST: usize = 240;
        let rest = &self.input.source.as_bytes()[self.input.at..];
        let end = memchr::memchr(b'}', &rest[..rest.len().min(LONGEST)]);
        self.input.made.is_empty() && end.is_some_and(|end| memchr::memmem::find(&rest[..end], b"\n\n").is_none())
    }

    /// What a quotation is from, in parentheses behind it.
    pub(super) fn source_of_quotation(&self, source: Option<Vec<Token>>) -> Vec<Token> {
        let at = self.at;
        let Some(source) = source.filter(|source| !source.is_empty()) else { return Vec::new() };
        let before = [Token { kind: Sign::Space, at }, Token { kind: Sign::Char('('), at }];
        before.into_iter().chain(source).chain([Token { kind: Sign::Char(')'), at }]).collect()
    }

    /// What a quotation cites, which stands behind it.
    fn quoted_citation(&mut self) {
        let (before, behind) = (self.input.option(), self.input.option());
        let keys = self.input.argument();
        let words = self.input.argument();
        let at = self.at;
        self.input.push(Sign::End, at);
        self.input.push_all(keys.into_iter());
        self.input.push(Sign::Begin, at);
        for option in [behind, before].into_iter().flatten() {
            self.input.push(Sign::Char(']'), at);
            self.input.push_all(option.into_iter());
            self.input.push(Sign::Char('['), at);
        }
        self.input.push(Sign::Command("autocite".into()), at);
        self.input.push(Sign::Space, at);
        self.input.push(Sign::End, at);
        self.input.push_all(words.into_iter());
        self.input.push(Sign::Begin, at);
    }

    /// A saying above a text, and who said it.
    pub(super) fn epigraph(&mut self, name: &str) {
        let source = if name == "dictum" { self.input.option().unwrap_or_default() } else { Vec::new() };
        let words = self.input.argument();
        let source = if name == "epigraph" { self.input.argument() } else { source };
        let at = self.at;
        if !source.is_empty() {
            let mut tokens = words;
            tokens.push(Token { kind: Sign::Par, at });
            tokens.extend(source);
            self.quote_of(tokens);
        } else {
            self.quote_of(words);
        }
    }

    pub(super) fn quote_of(&mut self, tokens: Vec<Token>) {
        if self.takes_blocks() {
            let node = self.block(Kind::BlockQuote);
            self.read_into(node, false, tokens);
        } else {
            self.input.push_all(tokens.into_iter());
        }
    }
}
