//! Emphasis, strong emphasis and strikethrough (CommonMark, section 6.2 and the appendix's "process emphasis").

use super::Scanner;
use super::inline_token::TokenKind;
use crate::formats::markdown::characters::{flanking, is_punctuation};

/// No delimiter.
pub(super) const NONE: i32 = -1;

/// A run of delimiters.
#[derive(Clone, Copy, Debug)]
pub(super) struct Delimiter {
    byte: u8,
    can_open: bool,
    can_close: bool,
    length: u32,
    /// How many of them are not used yet.
    left: u32,
    /// Neighbours in the list of delimiters that may still match.
    previous: i32,
    next: i32,
    /// The match that this run opens last, which is the outermost; each match names the one before.
    pub(super) opens: i32,
    /// The first match that this run closes; each match names the next.
    pub(super) closes: i32,
    last_close: i32,
    /// How many characters go to matches that it closes, and that it opens.
    pub(super) closing: u32,
    pub(super) opening: u32,
}

impl Delimiter {
    /// The number of characters.
    pub(super) const fn length(&self) -> u32 {
        self.length
    }

    /// The character.
    pub(super) const fn byte(&self) -> u8 {
        self.byte
    }
}

/// What two runs of delimiters mark.
#[derive(Clone, Copy, Debug, PartialEq, Eq)]
pub(super) enum Mark {
    Emphasis,
    Strong,
    Strikethrough,
}

/// Two runs of delimiters that belong together.
#[derive(Clone, Copy, Debug)]
pub(super) struct Match {
    pub(super) mark: Mark,
    pub(super) next_open: i32,
    pub(super) next_close: i32,
}

impl Scanner<'_, '_> {
    /// Reads a run of delimiters, and whether it can open and close emphasis (section 6.2, "flanking").
    pub(super) fn delimiter(&mut self, byte: u8) {
        let start = self.at;
        let length = self.text.as_bytes()[start..].iter().take_while(|&&other| other == byte).count();
        let end = start + length;
        if byte == b'~' && length > 2 {
            self.at = end;
            return;
        }
        let before = self.text[..start].chars().next_back();
        let after = self.text[end..].chars().next();
        let (left, right) = flanking(before, after);
        let (punctuation_before, punctuation_after) = (is_punctuation(before), is_punctuation(after));
        let (can_open, can_close) = match byte {
            b'_' => (left && (!right || punctuation_before), right && (!left || punctuation_after)),
            _ => (left, right),
        };
        if !can_open && !can_close {
            self.at = end;
            return;
        }
        let index = self.context.delimiters.len() as i32;
        if self.last_delimiter != NONE {
            self.context.delimiters[self.last_delimiter as usize].next = index;
        }
        self.context.delimiters.push(Delimiter {
            byte,
            can_open,
            can_close,
            length: length as u32,
            left: length as u32,
            previous: self.last_delimiter,
            next: NONE,
            opens: NONE,
            closes: NONE,
            last_close: NONE,
            closing: 0,
            opening: 0,
        });
        self.last_delimiter = index;
        self.token(TokenKind::Delimiter(index as u32), end);
    }

    /// Matches the delimiters behind `bottom`, and takes them off the list.
    pub(super) fn resolve_emphasis(&mut self, bottom: i32) {
        if self.last_delimiter == bottom {
            return;
        }
        // By kind of closer: nothing at or before this place can be its opener.
        let mut bottoms = [bottom; 18];
        let mut first = self.last_delimiter;
        while self.context.delimiters[first as usize].previous != bottom {
            first = self.context.delimiters[first as usize].previous;
        }
        let mut closer = first;
        while closer != NONE {
            let current = self.context.delimiters[closer as usize];
            if !current.can_close {
                closer = current.next;
                continue;
            }
            let kind = match current.byte {
                b'*' => 0,
                b'_' => 1,
                _ => 2,
            };
            let key = kind * 6 + usize::from(current.can_open) * 3 + (current.length % 3) as usize;
            match self.find_opener(closer, bottoms[key]) {
                Some(opener) => closer = self.join(opener, closer),
                None => {
                    bottoms[key] = current.previous;
                    if !current.can_open {
                        self.unlink(closer);
                    }
                    closer = current.next;
                }
            }
        }
        self.last_delimiter = bottom;
        if bottom != NONE {
            self.context.delimiters[bottom as usize].next = NONE;
        }
    }

    fn find_opener(&self, closer: i32, bottom: i32) -> Option<i32> {
        let closing = self.context.delimiters[closer as usize];
        let mut at = closing.previous;
        while at > bottom {
            let opening = self.context.delimiters[at as usize];
            if opening.byte == closing.byte && opening.can_open {
                let fits = if closing.byte == b'~' {
                    opening.left == closing.left
                } else {
                    // "Multiple of 3" (rules 9 and 10).
                    !((closing.can_open || opening.can_close)
                        && !closing.length.is_multiple_of(3)
                        && (opening.length + closing.length).is_multiple_of(3))
                };
                if fits {
                    return Some(at);
                }
            }
            at = opening.previous;
        }
        None
    }

    /// Makes a match of two runs. Returns the run to look at next.
    fn join(&mut self, opener: i32, closer: i32) -> i32 {
        let index = self.context.matches.len() as i32;
        let delimiters = &mut self.context.delimiters;
        let (open, close) = (delimiters[opener as usize], delimiters[closer as usize]);
        let (mark, used) = match (open.byte, open.left >= 2 && close.left >= 2) {
            (b'~', _) => (Mark::Strikethrough, open.left),
            (_, true) => (Mark::Strong, 2),
            (_, false) => (Mark::Emphasis, 1),
        };
        self.context.matches.push(Match { mark, next_open: open.opens, next_close: NONE });
        if close.last_close != NONE {
            self.context.matches[close.last_close as usize].next_close = index;
        }
        let open = &mut delimiters[opener as usize];
        open.opens = index;
        open.opening += used;
        open.left -= used;
        open.next = closer;
        let open_left = open.left;
        let close = &mut delimiters[closer as usize];
        if close.closes == NONE {
            close.closes = index;
        }
        close.last_close = index;
        close.closing += used;
        close.left -= used;
        close.previous = opener;
        let (close_left, next) = (close.left, close.next);
        if open_left == 0 {
            self.unlink(opener);
        }
        if close_left == 0 {
            self.unlink(closer);
            return next;
        }
        closer
    }

    fn unlink(&mut self, index: i32) {
        let Delimiter { previous, next, .. } = self.context.delimiters[index as usize];
        if previous != NONE {
            self.context.delimiters[previous as usize].next = next;
        }
        if next != NONE {
            self.context.delimiters[next as usize].previous = previous;
        } else {
            self.last_delimiter = previous;
        }
    }
}
