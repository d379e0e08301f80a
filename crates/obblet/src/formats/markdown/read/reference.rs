//! Link reference definitions, and the labels by which links and notes name them (CommonMark, section 4.7).

use super::super::entity;
use crate::document::{Document, Text};
use crate::fast_hash::HashMap;

/// Labels have at most so many characters.
const LONGEST_LABEL: usize = 999;
/// So deep may parentheses nest in an address.
const DEEPEST_PARENTHESES: usize = 32;

/// Where a link goes.
#[derive(Clone, Copy, Debug)]
pub(super) struct Target {
    pub(super) href: Text,
    pub(super) title: Option<Text>,
}

/// The definitions of a document, by their folded labels. The first of several counts.
#[derive(Debug, Default)]
pub(super) struct References(HashMap<String, Target>);

impl References {
    pub(super) fn is_empty(&self) -> bool {
        self.0.is_empty()
    }

    pub(super) fn get(&self, label: &str) -> Option<Target> {
        self.0.get(&*fold(label)).copied()
    }

    /// Reads the definitions that a paragraph begins with. Returns the offset behind them.
    pub(super) fn take(&mut self, paragraph: &str, base: u32, doc: &mut Document) -> usize {
        let mut taken = 0;
        while let Some(definition) = definition(&paragraph[taken..]) {
            taken += definition.length;
            let href = intern(doc, definition.href, base, paragraph);
            let title = definition.title.map(|title| intern(doc, title, base, paragraph));
            self.0.entry(fold(definition.label)).or_insert(Target { href, title });
        }
        taken
    }
}

/// A piece of a paragraph as pool text: in place where nothing is escaped.
fn intern(doc: &mut Document, piece: &str, base: u32, paragraph: &str) -> Text {
    match entity::unescape(piece) {
        std::borrow::Cow::Borrowed(_) => {
            let start = base as usize + (piece.as_ptr() as usize - paragraph.as_ptr() as usize);
            Text::between(start, start + piece.len())
        }
        std::borrow::Cow::Owned(text) => doc.intern(&text),
    }
}

/// Labels match without regard to case and to the amount of white space.
pub(super) fn fold(label: &str) -> String {
    let mut folded = String::with_capacity(label.len());
    for word in label.split_ascii_whitespace() {
        if !folded.is_empty() {
            folded.push(' ');
        }
        if word.is_ascii() {
            folded.extend(word.bytes().map(|byte| byte.to_ascii_lowercase() as char));
        } else {
            // Lower and then upper case folds what one of them alone leaves apart, such as the two forms of sharp s.
            folded.extend(word.chars().flat_map(char::to_lowercase).flat_map(char::to_uppercase).flat_map(char::to_lowercase));
        }
    }
    folded
}

struct Definition<'t> {
    label: &'t str,
    href: &'t str,
    title: Option<&'t str>,
    length: usize,
}

/// Reads one definition at the start of `text`.
fn definition(text: &str) -> Option<Definition<'_>> {
    let (label, mut at) = label(text)?;
    if text.as_bytes().get(at) != Some(&b':') {
        return None;
    }
    at = skip_white(text, at + 1, 1)?;
    let (href, after) = destination(text, at, false)?;
    let spaces = after + text[after..].bytes().take_while(|byte| matches!(byte, b' ' | b'\t')).count();
    let line_ends = matches!(text.as_bytes().get(spaces), None | Some(b'\n'));
    if let Some(start) = skip_white(text, after, 1).filter(|&start| start > after)
        && let Some((title, end)) = title(text, start)
    {
        let end = end + text[end..].bytes().take_while(|byte| matches!(byte, b' ' | b'\t')).count();
        if matches!(text.as_bytes().get(end), None | Some(b'\n')) {
            return Some(Definition { label, href, title: Some(title), length: (end + 1).min(text.len()) });
        }
    }
    line_ends.then(|| Definition { label, href, title: None, length: (spaces + 1).min(text.len()) })
}

/// Skips spaces, tabs and at most `lines` newlines. `None` where there are more.
pub(super) fn skip_white(text: &str, mut at: usize, mut lines: usize) -> Option<usize> {
    loop {
        match text.as_bytes().get(at) {
            Some(b' ' | b'\t') => {}
            Some(b'\n') => lines = lines.checked_sub(1)?,
            _ => return Some(at),
        }
        at += 1;
    }
}

/// Reads a label in brackets: its text, and the offset behind the bracket.
pub(super) fn label(text: &str) -> Option<(&str, usize)> {
    let bytes = text.as_bytes();
    if bytes.first() != Some(&b'[') {
        return None;
    }
    let mut at = 1;
    // A character has at most four bytes.
    while at < bytes.len() && at <= LONGEST_LABEL * 4 {
        match bytes[at] {
            b'\\' if bytes.get(at + 1).is_some_and(|byte| entity::is_punctuation(*byte)) => at += 1,
            b'[' => return None,
            b']' => {
                let label = &text[1..at];
                let fits = label.len() <= LONGEST_LABEL || label.chars().count() <= LONGEST_LABEL;
                return (fits && !label.bytes().all(|byte| byte.is_ascii_whitespace())).then_some((label, at + 1));
            }
            _ => {}
        }
        at += 1;
    }
    None
}

/// Reads an address: its text, and the offset behind it (CommonMark, section 6.3).
pub(super) fn destination(text: &str, start: usize, may_be_empty: bool) -> Option<(&str, usize)> {
    let bytes = text.as_bytes();
    if bytes.get(start) == Some(&b'<') {
        let mut at = start + 1;
        loop {
            match bytes.get(at)? {
                b'\n' | b'<' => return None,
                b'>' => return Some((&text[start + 1..at], at + 1)),
                b'\\' if bytes.get(at + 1).is_some_and(|byte| entity::is_punctuation(*byte)) => at += 2,
                _ => at += 1,
            }
        }
    }
    let (mut at, mut depth) = (start, 0);
    while let Some(&byte) = bytes.get(at) {
        match byte {
            b'\\' if bytes.get(at + 1).is_some_and(|byte| entity::is_punctuation(*byte)) => at += 1,
            b'(' => {
                depth += 1;
                if depth > DEEPEST_PARENTHESES {
                    return None;
                }
            }
            b')' if depth == 0 => break,
            b')' => depth -= 1,
            0..=b' ' | 0x7F => break,
            _ => {}
        }
        at += 1;
    }
    (depth == 0 && (at > start || may_be_empty)).then(|| (&text[start..at], at))
}

/// Reads a title in quotes or parentheses: its text, and the offset behind it.
pub(super) fn title(text: &str, start: usize) -> Option<(&str, usize)> {
    let bytes = text.as_bytes();
    let close = match bytes.get(start)? {
        quote @ (b'"' | b'\'') => *quote,
        b'(' => b')',
        _ => return None,
    };
    let mut at = start + 1;
    loop {
        match *bytes.get(at)? {
            b'\\' if bytes.get(at + 1).is_some_and(|byte| entity::is_punctuation(*byte)) => at += 2,
            byte if byte == close => return Some((&text[start + 1..at], at + 1)),
            b'(' if close == b')' => return None,
            // A blank line; only text that is no paragraph, such as a definition's, can hold one.
            b'\n' if matches!(bytes.get(at + 1), Some(b'\n')) => return None,
            _ => at += 1,
        }
    }
}

#[cfg(test)]
mod tests {
    use super::*;

    #[test]
    fn labels_are_folded() {
        for (one, other) in [("Tide  Tables", "tide\n tables"), ("\u{1E9E}", "SS"), ("ΑΓΩ", "αγω"), ("`Code`", "`code`")] {
            assert_eq!(fold(one), fold(other));
        }
        assert_eq!(label("[a\\]b] c"), Some(("a\\]b", 6)));
        for text in ["[]", "[ \n]", "[a[b]]", "[a", "a]", &format!("[{}]", "a".repeat(1000))] {
            assert_eq!(label(text), None, "{text}");
        }
        assert!(label(&format!("[{}]", "é".repeat(999))).is_some());
    }

    #[test]
    fn addresses_and_titles() {
        assert_eq!(destination("<a b>c", 0, false), Some(("a b", 5)));
        assert_eq!(destination("a(b(c))d e", 0, false), Some(("a(b(c))d", 8)));
        assert_eq!(destination("a\\)b)", 0, false), Some(("a\\)b", 4)));
        assert_eq!(destination(")", 0, true), Some(("", 0)));
        for text in ["<a\nb>", "<a<b>", "a(b", "", ")"] {
            assert_eq!(destination(text, 0, false), None, "{text}");
        }
        assert_eq!(title("'a\\'b' c", 0), Some(("a\\'b", 6)));
        assert_eq!(title("(a)", 0), Some(("a", 3)));
        for text in ["(a(b))", "\"a", "a", "\"a\n\nb\""] {
            assert_eq!(title(text, 0), None, "{text}");
        }
    }

    #[test]
    fn definitions_are_taken_off_a_paragraph() {
        let text = "[a]: /u 'x\ny'\n[b]:\n  <v w>\n[a]: /second\n[c]: /t 'no' end\nrest";
        let mut doc = Document::with_pool(text.to_owned(), 1);
        let mut references = References::default();
        let taken = references.take(text, 0, &mut doc);
        assert_eq!(&text[taken..], "[c]: /t 'no' end\nrest");
        let target =
            |label: &str| references.get(label).map(|target| (doc.text(target.href), target.title.map(|title| doc.text(title))));
        assert_eq!(target("A"), Some(("/u", Some("x\ny"))));
        assert_eq!(target("b"), Some(("v w", None)));
        assert_eq!(target("c"), None);
    }
}
