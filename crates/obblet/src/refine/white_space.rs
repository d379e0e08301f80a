//! White space that programs set to move text: runs of no-break spaces, space at the ends of lines, characters without width.

use crate::document::white_space::is_space;
use crate::document::{Document, Kind, NodeId, Step};
use crate::simd_scan;

/// Makes one space of each run of several, takes out those at the ends of blocks, and characters without width where they do
/// nothing. A single no-break space between words stays.
pub fn tidy(doc: &mut Document) {
    for root in doc.roots() {
        let mut line = Line::default();
        let mut edits: Vec<Edit> = Vec::new();
        let mut walk = doc.walk(root);
        while let Some(step) = walk.next() {
            match step {
                Step::Enter(id) => match doc.kind(id) {
                    Kind::Text(text) => line.text(id, doc.text(text), &mut edits),
                    Kind::Preformatted => {
                        line.end(doc, &mut edits);
                        walk.skip_children(id);
                    }
                    Kind::SoftBreak => line.after_white = true,
                    kind if kind == Kind::LineBreak || !kind.is_inline() => line.end(doc, &mut edits),
                    kind if kind.is_leaf() => line.word(),
                    _ => {}
                },
                Step::Leave(id) if !doc.kind(id).is_inline() => line.end(doc, &mut edits),
                Step::Leave(_) => {}
            }
        }
        line.end(doc, &mut edits);
        for (id, text) in edits {
            match text {
                None => {}
                Some(text) if text.is_empty() => doc.detach(id),
                Some(text) => {
                    let text = doc.intern(&text);
                    doc.set_kind(id, Kind::Text(text));
                }
            }
        }
    }
}

/// A text, and what becomes of it if it does not stay.
type Edit = (NodeId, Option<String>);

/// So many bytes of the line before a text are kept, for the word that ends there.
const TAIL: usize = 32;

/// The line of text that the walk is in.
struct Line {
    after_white: bool,
    /// The last characters of the line.
    tail: String,
    /// The last text of the line that ends with white space, as an index into the edits.
    ending: Option<usize>,
}

impl Default for Line {
    fn default() -> Self {
        Self { after_white: true, tail: String::new(), ending: None }
    }
}

impl Line {
    fn word(&mut self) {
        self.tail.clear();
        (self.after_white, self.ending) = (false, None);
    }

    fn end(&mut self, doc: &Document, edits: &mut [Edit]) {
        if let Some((id, text)) = self.ending.take().and_then(|place| edits.get_mut(place)) {
            let whole = match (&text, doc.kind(*id)) {
                (Some(text), _) => text.as_str(),
                (None, Kind::Text(text)) => doc.text(text),
                _ => "",
            };
            *text = Some(whole.trim_end_matches(is_space).to_owned());
        }
        self.after_white = true;
        self.tail.clear();
    }

    fn text(&mut self, id: NodeId, text: &str, edits: &mut Vec<Edit>) {
        let tidied = (needs_tidying(text) || self.after_white && text.starts_with(is_space))
            .then(|| tidied(text, self.after_white, &self.tail));
        let new = tidied.as_deref().unwrap_or(text);
        if new.is_empty() {
            return edits.push((id, tidied));
        }
        let mut start = new.len().saturating_sub(TAIL);
        while !new.is_char_boundary(start) {
            start += 1;
        }
        if start == 0 {
            self.tail.push_str(new);
        } else {
            new[start..].clone_into(&mut self.tail);
        }
        let ends_white = new.ends_with(is_space);
        (self.after_white, self.ending) = (ends_white, ends_white.then_some(edits.len()));
        let changed = tidied.filter(|tidied| tidied != text);
        if ends_white || changed.is_some() {
            edits.push((id, changed));
        }
    }
}

/// Whether there is anything in a text that may change: two white characters in a row, or one that is not what it seems.
fn needs_tidying(text: &str) -> bool {
    if !simd_scan::may_be_untidy(text.as_bytes()) {
        return false;
    }
    let hidden = memchr::memchr(0xE2, text.as_bytes()).is_some() && text.contains('\u{200B}');
    let mut before = false;
    hidden
        || text.bytes().any(|byte| {
            let white = matches!(byte, b' ' | b'\t' | b'\n' | b'\r' | 0x0C);
            let double = white && before;
            before = white;
            // The first bytes of a no-break space and of a byte order mark.
            double || matches!(byte, 0xC2 | 0xEF)
        })
}

fn tidied(text: &str, after_white: bool, tail: &str) -> String {
    let mut out = String::with_capacity(text.len());
    let mut at_start = after_white;
    let mut rest = text;
    while let Some(c) = rest.chars().next() {
        let plain = plain_length(rest);
        if plain > 0 {
            out.push_str(&rest[..plain]);
            rest = &rest[plain..];
            at_start = false;
            continue;
        }
        let start = text.len() - rest.len();
        if !is_space(c) {
            if !is_nothing(text, start, c) {
                out.push(c);
                at_start = false;
            }
            rest = &rest[c.len_utf8()..];
            continue;
        }
        let (mut count, mut newline) = (0, false);
        while let Some(next) = rest.chars().next() {
            if !is_space(next) && !is_nothing(text, text.len() - rest.len(), next) {
                break;
            }
            count += 1;
            newline |= next == '\n';
            rest = &rest[next.len_utf8()..];
        }
        if at_start {
            continue;
        }
        if c == '\u{A0}' && count == 1 && !holds(out.chars().rev().chain(tail.chars().rev()), rest) {
            out.push(' ');
            continue;
        }
        out.push(if newline && c != '\u{A0}' {
            '\n'
        } else if count > 1 {
            ' '
        } else {
            c
        });
    }
    out
}

/// How many bytes at the start are neither white nor the beginning of a character that may be white or nothing.
fn plain_length(text: &str) -> usize {
    let special = |byte: &u8| matches!(byte, b' ' | b'\t' | b'\n' | b'\r' | 0x0C | 0xC2 | 0xE2 | 0xEF);
    text.as_bytes().iter().position(special).unwrap_or(text.len())
}

/// Whether a no-break space keeps something together: a number and its unit, an initial and a name, a name, a mark and its word.
/// Between other words it is what editors write for any space. What stands before it comes from the end on.
fn holds(before: impl Iterator<Item = char>, after: &str) -> bool {
    let is_part = |c: &char| c.is_alphabetic() || matches!(c, '\'' | '\u{2019}');
    let mut before = before.peekable();
    let mut ended = false;
    while before.next_if(|c| matches!(c, ',' | ';' | '.' | '!' | '?')).is_some() {
        ended = true;
    }
    let (mut length, mut initial, mut shouts) = (0, None, true);
    while let Some(c) = before.next_if(is_part) {
        (length, initial, shouts) = (length + 1, Some(c), shouts && !c.is_lowercase());
    }
    let mut next = after.chars().take_while(is_part);
    // Words in capitals are no names: they may stand in a passage that is.
    let next_shouts =
        || after.chars().take_while(is_part).count() > 1 && !after.chars().take_while(is_part).any(char::is_lowercase);
    let name = initial.is_some_and(char::is_uppercase)
        && after.starts_with(char::is_uppercase)
        && !ended
        && !(shouts && length > 1)
        && !next_shouts();
    let (least, most) = if ended { (3, 1) } else { (2, 2) };
    name || length < least || (next.nth(most - 1).is_none() && !after.is_empty())
}

/// Whether a character shows nothing and does nothing where it stands. A break between words that have no spaces between them
/// does something in scripts that are written so.
fn is_nothing(text: &str, place: usize, c: char) -> bool {
    match c {
        '\u{FEFF}' => true,
        '\u{200B}' => {
            let breaks = |c: char| matches!(c, '\u{E00}'..='\u{EFF}' | '\u{1000}'..='\u{109F}' | '\u{1780}'..='\u{17FF}' | '\u{2E80}'..='\u{9FFF}' | '\u{F00}'..='\u{FFF}');
            let (before, after) = (text[..place].chars().next_back(), text[place + c.len_utf8()..].chars().next());
            !before.is_some_and(breaks) || !after.is_some_and(breaks)
        }
        _ => false,
    }
}

#[cfg(test)]
mod tests {
    use super::*;

    #[test]
    fn one_space_for_many() {
        assert_eq!(tidied("a\u{A0}\u{A0} b", false, ""), "a b");
        assert_eq!(tidied("5\u{A0}km", false, ""), "5\u{A0}km");
        assert_eq!(tidied("\u{A0} a", true, ""), "a");
        assert_eq!(tidied("high\u{200B}water\u{FEFF}", false, ""), "highwater");
        assert_eq!(tidied("\u{E01}\u{200B}\u{E02}", false, ""), "\u{E01}\u{200B}\u{E02}");
        assert_eq!(tidied("open to\u{A0}visitors.\u{A0}Come", false, ""), "open to visitors. Come");
        assert_eq!(tidied("Dr.\u{A0}Pask, Anwen\u{A0}Pask", false, ""), "Dr.\u{A0}Pask, Anwen\u{A0}Pask");
        assert_eq!(tidied("OPEN\u{A0}DAY, J.\u{A0}Pask", false, ""), "OPEN DAY, J.\u{A0}Pask");
        assert_eq!(tidied("a\u{A0}\n\u{A0}b", false, ""), "a b");
        assert_eq!(tidied("a\nb", false, ""), "a\nb");
    }
}
