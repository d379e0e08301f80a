//! Tokens of HTML (HTML Standard, section 13.2.5), as tree construction wants them.
//!
//! The source is there as a whole, so that what is a state in the standard is a function here, and what takes one character
//! after the other there is one search: a run of text, a value, a comment each are one step. Comments and doctypes go
//! unread, since nothing asks for them; so do the errors of the source, which [`check`](super::super::check) tells.

mod names;
mod raw_text;
mod references;
#[cfg(test)]
mod tests;

pub(super) use names::Names;

use crate::fast_hash::HashSet;
use html5ever::tendril::StrTendril;
use html5ever::tokenizer::states::RawKind;
use html5ever::tokenizer::{Tag, TagKind, Token, TokenSink, TokenSinkResult};
use html5ever::{Attribute, LocalName, QualName, ns};
use names::{BEFORE_VALUE, IN_TAG, WHITE, class};
use std::borrow::Cow;

/// From so many attributes of one tag on, a set tells which names were there already.
const MANY_ATTRIBUTES: usize = 16;

/// Gives the tokens of a source to a sink, without the end of the file.
///
/// In the place of the number of its line, each token has the offsets of its first byte and of the one behind its last, in the
/// lower and the upper half.
pub(super) fn tokenize<S: TokenSink>(source: &str, names: &mut Names, sink: &S) {
    let source = prepared(source);
    Tokenizer { sink, names, source: &source, shared: StrTendril::from(&*source), at: 0, last: None }.run();
}

/// The source as it is cut into tokens, without a byte order mark and with a line feed for each line end.
pub(super) fn prepared(source: &str) -> Cow<'_, str> {
    with_line_feeds(source.strip_prefix('\u{FEFF}').unwrap_or(source))
}

/// The source with a line feed for each line end (section 13.2.3.5).
fn with_line_feeds(source: &str) -> Cow<'_, str> {
    if memchr::memchr(b'\r', source.as_bytes()).is_none() {
        return Cow::Borrowed(source);
    }
    let mut out = String::with_capacity(source.len());
    let mut at = 0;
    for end in memchr::memchr_iter(b'\r', source.as_bytes()) {
        out.push_str(&source[at..end]);
        at = end + 1;
        if source.as_bytes().get(at) != Some(&b'\n') {
            out.push('\n');
        }
    }
    out.push_str(&source[at..]);
    Cow::Owned(out)
}

struct Tokenizer<'t, S> {
    sink: &'t S,
    names: &'t mut Names,
    source: &'t str,
    /// The source again, of which tokens take slices.
    shared: StrTendril,
    at: usize,
    /// The name of the last start tag.
    last: Option<LocalName>,
}

impl<S: TokenSink> Tokenizer<'_, S> {
    /// The data state, and those that begin at `<` in it.
    fn run(mut self) {
        let mut run = 0;
        while let Some(found) = memchr::memchr3(b'<', b'&', 0, &self.source.as_bytes()[self.at..]) {
            let here = self.at + found;
            self.at = here;
            let known = match self.source.as_bytes()[here] {
                b'<' => self.markup(run),
                b'&' => self.reference(run),
                _ => {
                    self.text(run, here);
                    let _ = self.give(Token::NullCharacterToken, here);
                    self.at = here + 1;
                    true
                }
            };
            if known {
                run = self.at;
            } else {
                self.at = here + 1;
            }
        }
        self.text(run, self.source.len());
    }

    /// What begins with `<`, behind the text from `run` on. False where it is text, too.
    fn markup(&mut self, run: usize) -> bool {
        let here = self.at;
        let rest = &self.source.as_bytes()[here + 1..];
        match rest {
            [b'a'..=b'z' | b'A'..=b'Z', ..] => {
                self.text(run, here);
                self.at = here + 1;
                self.tag(TagKind::StartTag, here);
            }
            [b'/', b'a'..=b'z' | b'A'..=b'Z', ..] => {
                self.text(run, here);
                self.at = here + 2;
                self.tag(TagKind::EndTag, here);
            }
            [b'!', rest @ ..] => {
                self.text(run, here);
                if rest.starts_with(b"--") {
                    self.at = comment_end(self.source.as_bytes(), here + 4);
                } else if rest.starts_with(b"[CDATA[") && self.sink.adjusted_current_node_present_but_not_in_html_namespace() {
                    self.character_data(here + 9);
                } else {
                    self.skip_past(b'>', here + 1);
                }
            }
            [b'?', ..] | [b'/', _, ..] => {
                self.text(run, here);
                self.skip_past(b'>', here + 1);
            }
            _ => return false,
        }
        true
    }

    /// A character reference in text, behind the text from `run` on. False where there is none.
    fn reference(&mut self, run: usize) -> bool {
        let here = self.at;
        let Some(reference) = references::read(&self.source[here..], false) else { return false };
        self.text(run, here);
        let mut text = StrTendril::new();
        reference.characters().for_each(|character| text.push_char(character));
        let _ = self.give(Token::CharacterTokens(text), here);
        self.at = here + reference.length;
        true
    }

    fn skip_past(&mut self, byte: u8, from: usize) {
        let found = memchr::memchr(byte, &self.source.as_bytes()[from..]);
        self.at = found.map_or(self.source.len(), |found| from + found + 1);
    }

    /// A tag, whose name begins here, and all that follows it in another manner. Of a tag that does not end, nothing stays.
    fn tag(&mut self, kind: TagKind, start: usize) {
        let Some(tag) = self.whole_tag(kind) else {
            self.at = self.source.len();
            return;
        };
        if kind == TagKind::StartTag {
            self.last = Some(tag.name.clone());
        }
        match self.give(Token::TagToken(tag), start) {
            TokenSinkResult::RawData(kind) => self.raw_text(kind),
            TokenSinkResult::Plaintext => {
                self.text_without_nulls(self.at, self.source.len());
                self.at = self.source.len();
            }
            // Scripts do not run, and the encoding is known.
            TokenSinkResult::Continue | TokenSinkResult::Script(_) | TokenSinkResult::EncodingIndicator(_) => {}
        }
    }

    fn whole_tag(&mut self, kind: TagKind) -> Option<Tag> {
        let name = self.names.read(self.source, &mut self.at, IN_TAG)?;
        let mut tag = Tag { kind, name, self_closing: false, attrs: Vec::new(), had_duplicate_attributes: false };
        let mut seen = HashSet::default();
        loop {
            match self.next_in_tag()? {
                b'>' => {
                    self.at += 1;
                    return Some(tag);
                }
                b'/' => {
                    self.at += 1;
                    if *self.source.as_bytes().get(self.at)? == b'>' {
                        self.at += 1;
                        tag.self_closing = true;
                        return Some(tag);
                    }
                }
                _ => self.attribute(&mut tag, &mut seen)?,
            }
        }
    }

    /// The next byte in a tag that is not white.
    fn next_in_tag(&mut self) -> Option<u8> {
        let bytes = self.source.as_bytes();
        while class(*bytes.get(self.at)?) & WHITE != 0 {
            self.at += 1;
        }
        Some(bytes[self.at])
    }

    fn attribute(&mut self, tag: &mut Tag, seen: &mut HashSet<LocalName>) -> Option<()> {
        let name = self.names.read(self.source, &mut self.at, BEFORE_VALUE)?;
        let value = if self.next_in_tag()? == b'=' {
            self.at += 1;
            self.value()?
        } else {
            StrTendril::new()
        };
        if tag.kind == TagKind::EndTag {
            return Some(());
        }
        let is_again = if tag.attrs.len() < MANY_ATTRIBUTES {
            tag.attrs.iter().any(|attribute| attribute.name.local == name)
        } else {
            if seen.is_empty() {
                seen.extend(tag.attrs.iter().map(|attribute| attribute.name.local.clone()));
            }
            !seen.insert(name.clone())
        };
        if is_again {
            tag.had_duplicate_attributes = true;
        } else {
            tag.attrs.push(Attribute { name: QualName::new(None, ns!(), name), value });
        }
        Some(())
    }

    fn value(&mut self) -> Option<StrTendril> {
        let bytes = self.source.as_bytes();
        let (start, end) = match self.next_in_tag()? {
            quote @ (b'"' | b'\'') => {
                let start = self.at + 1;
                let end = start + memchr::memchr(quote, &bytes[start..])?;
                self.at = end + 1;
                (start, end)
            }
            _ => {
                let start = self.at;
                let end = start + bytes[start..].iter().position(|&byte| class(byte) & WHITE != 0 || byte == b'>')?;
                self.at = end;
                (start, end)
            }
        };
        if memchr::memchr2(b'&', 0, &bytes[start..end]).is_some() {
            return Some(StrTendril::from(references::resolved(&self.source[start..end], true)));
        }
        Some(self.slice(start, end))
    }

    /// The text of an element that holds no elements.
    fn raw_text(&mut self, kind: RawKind) {
        let start = self.at;
        let name = self.last.as_deref().unwrap_or_default();
        let end = raw_text::end(self.source.as_bytes(), start, name, matches!(kind, RawKind::ScriptData));
        if matches!(kind, RawKind::Rcdata) && memchr::memchr2(b'&', 0, &self.source.as_bytes()[start..end]).is_some() {
            let text = StrTendril::from(references::resolved(&self.source[start..end], false));
            let _ = self.give(Token::CharacterTokens(text), start);
        } else {
            self.text_without_nulls(start, end);
        }
        self.at = end;
    }

    /// A section of character data, in foreign content.
    fn character_data(&mut self, start: usize) {
        let end = memchr::memmem::find(&self.source.as_bytes()[start..], b"]]>").map(|found| start + found);
        let (mut from, to) = (start, end.unwrap_or(self.source.len()));
        for null in memchr::memchr_iter(0, &self.source.as_bytes()[start..to]) {
            self.text(from, start + null);
            let _ = self.give(Token::NullCharacterToken, start + null);
            from = start + null + 1;
        }
        self.text(from, to);
        self.at = end.map_or(self.source.len(), |end| end + 3);
    }

    fn text_without_nulls(&mut self, start: usize, end: usize) {
        if memchr::memchr(0, &self.source.as_bytes()[start..end]).is_none() {
            self.text(start, end);
        } else {
            let text = StrTendril::from(self.source[start..end].replace('\0', "\u{FFFD}"));
            let _ = self.give(Token::CharacterTokens(text), start);
        }
    }

    fn text(&mut self, start: usize, end: usize) {
        if start < end {
            let text = self.slice(start, end);
            let _ = self.give(Token::CharacterTokens(text), start);
        }
    }

    fn slice(&self, start: usize, end: usize) -> StrTendril {
        self.shared.subtendril(start as u32, (end - start) as u32)
    }

    /// Gives a token that begins at `start` and ends where the tokenizer is.
    fn give(&mut self, token: Token, start: usize) -> TokenSinkResult<S::Handle> {
        self.sink.process_token(token, start as u64 | (self.at.max(start) as u64) << 32)
    }
}

/// Where a comment ends whose text begins at `start` (the comment states).
fn comment_end(bytes: &[u8], start: usize) -> usize {
    for closing in [&b">"[..], b"->"] {
        if bytes[start..].starts_with(closing) {
            return start + closing.len();
        }
    }
    for found in memchr::memchr_iter(b'>', &bytes[start..]) {
        let text = &bytes[start..start + found];
        if text.ends_with(b"--") || text.ends_with(b"--!") {
            return start + found + 1;
        }
    }
    bytes.len()
}
