//! Lines of text: pieces put together, escaped, and broken into lines.

use super::escape::Place;
use super::inline_token::{Context, Token};
use super::{Writer, emphasis, escape};
use crate::document::NodeId;
use crate::formats::markdown::Extensions;
use crate::indent_writer::wrap;
use std::borrow::Cow;

/// Keeps apart what would be read together.
const NOTHING: &str = "<!-- -->";

impl<'d> Writer<'d, '_> {
    /// Writes the lines of a paragraph. Returns whether there are any.
    pub(super) fn text_lines(&mut self, first: NodeId, last: NodeId, begin: impl FnOnce(&mut Self)) -> bool {
        let tokens = self.tokens(first, last, Context::default());
        let (mut text, breaks) = self.put_together(tokens, Context::default());
        if self.options.settings.width > 0 {
            let width = usize::from(self.options.settings.width).saturating_sub(self.out.indentation()).max(16);
            text = wrap(&text, &breaks, ends_with_break, width).join("\n");
        }
        // A break at the end of a paragraph breaks nothing.
        let mut end = text.trim_end_matches([' ', '\t', '\n']).len();
        while ends_with_break(&text[..end]) {
            end = text[..end - 1].trim_end_matches([' ', '\t', '\n']).len();
        }
        // Spaces at either end of a line mean nothing, or a break that is not meant.
        let lines = || text[..end].split('\n').map(|line| line.trim_matches([' ', '\t'])).filter(|line| !line.is_empty());
        let mut any = false;
        let mut begin = Some(begin);
        for line in lines() {
            if let Some(begin) = begin.take() {
                begin(self);
            }
            match escape::line_start(line, !any) {
                Some(escaped) => self.out.line(&escaped),
                None => self.out.line(line),
            }
            any = true;
        }
        any
    }

    /// All text below a node on one line.
    pub(super) fn line_of(&mut self, id: NodeId) -> String {
        self.one_line(id, Context { single_line: true, in_table: false, breaks: "<br>" })
    }

    /// The text of a heading: a line break within is a space.
    pub(super) fn heading_text(&mut self, id: NodeId) -> String {
        self.one_line(id, Context { single_line: true, in_table: false, breaks: " " })
    }

    /// The text of a cell.
    pub(super) fn cell_text(&mut self, id: NodeId) -> String {
        self.one_line(id, Context { single_line: true, in_table: true, breaks: "<br>" })
    }

    fn one_line(&mut self, id: NodeId, context: Context) -> String {
        let (Some(first), Some(last)) = (self.doc.node(id).first_child(), self.doc.node(id).last_child()) else {
            return String::new();
        };
        let tokens = self.tokens(first, last, context);
        let (text, _) = self.put_together(tokens, context);
        let plain = !text.contains('\n') && !text.starts_with([' ', '\t']) && !text.ends_with([' ', '\t']);
        if plain { text } else { text.replace('\n', " ").trim_matches([' ', '\t']).to_owned() }
    }

    /// The text of pieces, and where in it a line may end.
    fn put_together(&mut self, mut pieces: Vec<Token<'d>>, context: Context) -> (String, Vec<usize>) {
        let tokens = pieces.as_slice();
        let delimiters = emphasis::delimiters(tokens, self.options);
        let length = |token: &Token<'_>| if let Token::Text(text) = token { text.len() } else { 8 };
        let mut out = String::with_capacity(tokens.iter().map(length).sum::<usize>() + 16);
        let mut breaks = Vec::new();
        let mut links = 0_usize;
        let dollars = if self.options.syntax.has(Extensions::MATH) { count_dollars(tokens) } else { 0 };
        for (at, token) in tokens.iter().enumerate() {
            match token {
                Token::Text(text) => {
                    let start = out.len();
                    let mut place = Place::empty();
                    place.set(Place::LINK, links > 0);
                    place.set(Place::TABLE, context.in_table);
                    place.set(Place::DOLLARS, dollars > 1);
                    place.set(Place::BEFORE_LINK, matches!(tokens.get(at + 1), Some(Token::OpenLink)));
                    let context = escape::Context { after: emphasis::first_character(&tokens[at + 1..]), place };
                    // Where line ends are breaks, those of the text must not be.
                    let text = match self.options.syntax.hard_lines {
                        true => Cow::Owned(text.replace('\n', " ")),
                        false => Cow::Borrowed(*text),
                    };
                    escape::text(&mut out, &text, &context, self.options);
                    if self.options.settings.width > 0 {
                        breaks.extend(out[start..].match_indices([' ', '\n']).map(|(offset, _)| start + offset));
                    }
                }
                Token::Literal(literal) => {
                    // Two pieces of code would be one.
                    if literal.starts_with('`') && out.ends_with('`') {
                        out.push_str(NOTHING);
                    }
                    let bars = context.in_table && !literal.starts_with('`');
                    push(&mut out, literal, bars);
                }
                Token::Math(formula) => {
                    // Beside letters and other formulas, dollar signs are dollars.
                    let clings = |c: Option<char>| c.is_some_and(|c| c.is_alphanumeric() || c == '$');
                    if clings(out.chars().next_back()) {
                        out.push_str(NOTHING);
                    }
                    out.push_str(formula);
                    if clings(emphasis::first_character(&tokens[at + 1..])) {
                        out.push_str(NOTHING);
                    }
                }
                Token::Open(_) | Token::Close(_) => out.push_str(delimiters.get(at).copied().unwrap_or_default()),
                Token::OpenLink => {
                    links += 1;
                    out.push('[');
                }
                Token::CloseLink(target) => {
                    links = links.saturating_sub(1);
                    out.push(']');
                    push(&mut out, target, context.in_table);
                }
                Token::Break if context.single_line => out.push_str(context.breaks),
                // Nothing to break off from.
                Token::Break if out.trim_end_matches(['\n', ' ']).is_empty() => {}
                Token::Break => {
                    let length = out.trim_end_matches(' ').len();
                    out.truncate(length);
                    out.push_str("\\\n");
                    if self.options.settings.width > 0 {
                        breaks.push(out.len() - 1);
                    }
                }
            }
        }
        pieces.clear();
        self.spare_tokens = pieces;
        (out, breaks)
    }
}

/// Writes what is written as it is; in tables, bars are escaped.
fn push(out: &mut String, literal: &str, escapes_bars: bool) {
    if escapes_bars && literal.contains('|') {
        out.push_str(&literal.replace('|', "\\|"));
    } else {
        out.push_str(literal);
    }
}

fn ends_with_break(line: &str) -> bool {
    let slashes = line.len() - line.trim_end_matches('\\').len();
    slashes % 2 == 1
}

/// How many dollar signs there are in the text and in formulas.
fn count_dollars(tokens: &[Token<'_>]) -> usize {
    let count = |text: &str| memchr::memchr_iter(b'$', text.as_bytes()).count();
    tokens
        .iter()
        .map(|token| match token {
            Token::Text(text) => count(text),
            Token::Literal(text) | Token::Math(text) => count(text),
            _ => 0,
        })
        .sum()
}
