//! Which delimiters mark emphasis so that readers see it (CommonMark, section 6.2).
//!
//! Delimiters are only written where there is no doubt: one that opens must not look as if it could close something, and the
//! other way round, unless nothing is open that it could close. Where that can't be had, tags are written.

use super::inline_token::{Mark, Token};
use super::{EmphasisMark, Resolved};
use crate::formats::markdown::characters::{flanking, is_punctuation, is_reference};

/// How each `Open` and `Close` is written, by the place of the token.
pub(super) fn delimiters(tokens: &[Token<'_>], options: &Resolved<'_>) -> Vec<&'static str> {
    if !tokens.iter().any(|token| matches!(token, Token::Open(_))) {
        return Vec::new();
    }
    let mut written = vec![""; tokens.len()];
    let Some(closes) = matches(tokens) else { return written };
    let mut open = Open::default();
    for (at, token) in tokens.iter().enumerate() {
        match token {
            Token::Open(mark) => {
                let close = closes[at];
                let sign = sign(tokens, &written, &open, *mark, (at, close), options);
                written[at] = delimiter(sign, *mark, true);
                written[close] = delimiter(sign, *mark, false);
                open.push(Opened { sign, mark: *mark, opens: at, closes: close });
            }
            Token::Close(_) => {
                open.pop();
            }
            _ => {}
        }
    }
    written
}

/// Something between delimiters that has begun and not ended.
#[derive(Clone, Copy, Debug)]
struct Opened {
    sign: u8,
    mark: Mark,
    /// The places of its tokens.
    opens: usize,
    closes: usize,
}

/// All that has begun and not ended.
#[derive(Debug, Default)]
struct Open {
    stack: Vec<Opened>,
    /// How many of them there are with `*`, and with any other sign that closes as it opens.
    stars: usize,
    others: usize,
}

impl Open {
    const fn count(&mut self, sign: u8) -> &mut usize {
        if sign == b'*' { &mut self.stars } else { &mut self.others }
    }

    fn push(&mut self, opened: Opened) {
        if opened.sign != TAG {
            *self.count(opened.sign) += 1;
        }
        self.stack.push(opened);
    }

    fn pop(&mut self) {
        if let Some(opened) = self.stack.pop().filter(|opened| opened.sign != TAG) {
            *self.count(opened.sign) -= 1;
        }
    }

    /// Whether something is open that a delimiter of this sign might close. For signs beside `*` it may say so of another.
    const fn has(&self, sign: u8) -> bool {
        if sign == b'*' { self.stars > 0 } else { self.others > 0 }
    }
}

/// For each `Open` the place of its `Close`.
fn matches(tokens: &[Token<'_>]) -> Option<Vec<usize>> {
    let mut closes = vec![0; tokens.len()];
    let mut open = Vec::new();
    let mut any = false;
    for (at, token) in tokens.iter().enumerate() {
        match token {
            Token::Open(_) => open.push(at),
            Token::Close(_) => {
                if let Some(opened) = open.pop() {
                    let opened: usize = opened;
                    closes[opened] = at;
                    any = true;
                }
            }
            _ => {}
        }
    }
    any.then_some(closes)
}

/// Tags stand for delimiters.
const TAG: u8 = 0;

fn sign(
    tokens: &[Token<'_>],
    written: &[&str],
    open: &Open,
    mark: Mark,
    (start, end): (usize, usize),
    options: &Resolved<'_>,
) -> u8 {
    let signs = match (mark, options.settings.emphasis) {
        (Mark::Strike, _) => [b'~', TAG],
        (Mark::Emphasis, EmphasisMark::Underscore) => [b'_', b'*'],
        _ => [b'*', b'_'],
    };
    let before = last_character(tokens, written, start);
    let first = first_character(&tokens[start + 1..]);
    let last = end.checked_sub(1).and_then(|at| match &tokens[at] {
        // What closes right before is not written yet; it is a sign of some kind.
        Token::Close(_) => Some('*'),
        token => last_of(token),
    });
    let after = first_character(&tokens[end + 1..]);
    let after = if matches!(tokens.get(end + 1), Some(Token::Close(_))) { Some('*') } else { after };
    let outer = open.stack.last();
    let directly_in = outer.is_some_and(|outer| outer.opens + 1 == start);
    let directly_before_end = outer.is_some_and(|outer| end + 1 == outer.closes);
    for sign in signs.into_iter().filter(|sign| *sign != TAG) {
        let (left, right) = flanking(before, first);
        let (end_left, end_right) = flanking(last, after);
        let opens = if sign == b'_' { left && (!right || is_punctuation(before)) } else { left };
        let closes = if sign == b'_' { end_right && (!end_left || is_punctuation(after)) } else { end_right };
        if !opens || !closes || ((right || end_left) && open.has(sign)) {
            continue;
        }
        // A run of signs that ended something right before would be one with this.
        let runs_on = matches!(tokens.get(start.wrapping_sub(1)), Some(Token::Close(_)))
            && written[start - 1].as_bytes().last() == Some(&sign);
        // Two that begin and end together, or of the same kind, would change places or be one.
        let same = outer.filter(|outer| outer.sign == sign);
        let together = same.is_some() && directly_in && directly_before_end;
        let merges = same.is_some_and(|outer| outer.mark == mark || sign == b'~');
        let literal = before == Some(sign as char) && !matches!(tokens.get(start.wrapping_sub(1)), Some(Token::Open(_)));
        if !runs_on && !together && !merges && !literal {
            return sign;
        }
    }
    TAG
}

const fn delimiter(sign: u8, mark: Mark, opens: bool) -> &'static str {
    match (sign, mark) {
        (b'*', Mark::Emphasis) => "*",
        (b'_', Mark::Emphasis) => "_",
        (b'*', Mark::Strong) => "**",
        (b'_', Mark::Strong) => "__",
        (b'~', _) => "~~",
        (_, Mark::Emphasis) => {
            if opens {
                "<em>"
            } else {
                "</em>"
            }
        }
        (_, Mark::Strong) => {
            if opens {
                "<strong>"
            } else {
                "</strong>"
            }
        }
        (_, Mark::Strike) => {
            if opens {
                "<del>"
            } else {
                "</del>"
            }
        }
    }
}

/// What a character of text is written as, as far as its class goes: a reference is punctuation.
fn as_written(c: char) -> char {
    if is_reference(c) { '&' } else { c }
}

/// The character that is written first of some tokens.
pub(super) fn first_character(tokens: &[Token<'_>]) -> Option<char> {
    match tokens.first()? {
        Token::Text(text) => text.chars().next().map(as_written),
        Token::Literal(literal) | Token::Math(literal) => literal.chars().next(),
        Token::Open(_) | Token::Close(_) => Some('*'),
        Token::OpenLink => Some('['),
        Token::CloseLink(_) => Some(']'),
        Token::Break => Some('\\'),
    }
}

fn last_of(token: &Token<'_>) -> Option<char> {
    match token {
        Token::Text(text) => text.chars().next_back().map(|c| if is_reference(c) { ';' } else { c }),
        Token::Literal(literal) | Token::Math(literal) => literal.chars().next_back(),
        Token::Open(_) | Token::Close(_) => Some('*'),
        Token::OpenLink => Some('['),
        Token::CloseLink(target) => target.chars().next_back(),
        Token::Break => Some('\n'),
    }
}

fn last_character(tokens: &[Token<'_>], written: &[&str], at: usize) -> Option<char> {
    let before = at.checked_sub(1)?;
    match &tokens[before] {
        Token::Open(_) | Token::Close(_) => written[before].chars().next_back(),
        token => last_of(token),
    }
}
