//! Commands within code (the documentation of alltt, of fancyvrb, `commandchars`, and of listings, `escapeinside`).

use super::Reader;
use super::tokens::Token;

/// An escape is no longer, in bytes.
const LONGEST: usize = 4_000;

/// How commands stand in code.
#[derive(Clone, Debug, Default)]
pub(super) struct Escapes {
    /// The characters that begin a command, and its argument, and end that.
    signs: Option<[char; 3]>,
    /// What stands before and behind text that is none of the code.
    marks: Option<(String, String)>,
    /// Whether formulas stand between dollar signs.
    formulas: bool,
}

impl Escapes {
    pub(super) const fn is_none(&self) -> bool {
        self.signs.is_none() && self.marks.is_none() && !self.formulas
    }
}

impl Reader<'_> {
    /// What an environment and its options say about commands in code.
    pub(super) fn escapes_of(&self, name: &str, options: &[Token]) -> Escapes {
        if name.starts_with("alltt") {
            return Escapes { signs: Some(['\\', '{', '}']), ..Escapes::default() };
        }
        let mut found = Escapes::default();
        let words = self.input.characters(options);
        found.formulas = words.split(',').any(|key| key.trim() == "mathescape");
        for (key, value) in self.input.pairs(options) {
            let mut written = String::new();
            self.input.write(&value, &mut written);
            let written = written.trim();
            match key.as_str() {
                // Each sign may have a backslash before it.
                "commandchars" => {
                    let bare = |sign: &str| sign.chars().next_back();
                    let mut signs = Vec::new();
                    let mut rest = written;
                    while let Some(c) = rest.chars().next() {
                        let length =
                            if c == '\\' { 1 + rest[1..].chars().next().map_or(0, char::len_utf8) } else { c.len_utf8() };
                        signs.extend(bare(&rest[..length]));
                        rest = &rest[length..];
                    }
                    found.signs = <[char; 3]>::try_from(signs).ok();
                }
                "escapeinside" => found.marks = marks_of(written),
                "mathescape" => found.formulas = written != "false",
                _ => {}
            }
        }
        found
    }

    /// Code with the text of the commands in it.
    pub(super) fn code_with_commands(&mut self, start: usize, end: usize, escapes: &Escapes) -> String {
        let source = self.input.source;
        let (mut out, mut at) = (String::with_capacity(end - start), start);
        // Up to here, no group ends that has begun.
        let mut unended = start;
        let after = self.input.at;
        while let Some(c) = source[at..end].chars().next() {
            let rest = &source[at..end];
            let marks = escapes.marks.as_ref().filter(|(open, _)| rest.starts_with(open.as_str()));
            let length = match (escapes.signs, marks) {
                (_, Some((open, close))) => {
                    self.text_between(at + open.len(), end, close, &mut out).map(|length| open.len() + length)
                }
                (Some([begins, ..]), None) if c == begins => self.text_of_command(at, end, &mut unended, &mut out),
                (Some([_, open, close]), None) if c == open || c == close => Some(c.len_utf8()),
                _ if c == '$' && escapes.formulas => self.text_between(at + 1, end, "$", &mut out).map(|length| 1 + length),
                _ => None,
            };
            match length {
                Some(length) => at += length,
                None => {
                    out.push(c);
                    at += c.len_utf8();
                }
            }
        }
        self.input.at = after;
        out
    }

    /// The words of what stands up to a mark; its length with the mark, where that comes soon.
    fn text_between(&mut self, start: usize, end: usize, close: &str, out: &mut String) -> Option<usize> {
        let source = self.input.source;
        let rest = &source.as_bytes()[start..end.min(start + LONGEST)];
        let length = memchr::memmem::find(rest, close.as_bytes())?;
        let tokens = self.tokens_up_to(start, start + length);
        let words = self.words(&tokens);
        out.push_str(&words);
        Some(length + close.len())
    }

    /// The words of a command and its arguments; how long that is.
    fn text_of_command(&mut self, start: usize, end: usize, unended: &mut usize, out: &mut String) -> Option<usize> {
        let bytes = &self.input.source.as_bytes()[..end.min(start + LONGEST)];
        let letters = bytes[start + 1..].iter().take_while(|byte| byte.is_ascii_alphabetic()).count();
        let mut at = start + 1 + letters.max(1);
        while bytes.get(at) == Some(&b'{') {
            if at < *unended {
                return None;
            }
            let mut depth = 0_usize;
            let length = bytes[at..].iter().position(|byte| {
                match byte {
                    b'{' => depth += 1,
                    b'}' => depth -= 1,
                    _ => {}
                }
                depth == 0
            });
            let Some(length) = length else {
                *unended = bytes.len();
                return None;
            };
            at += length + 1;
        }
        if !self.input.source.is_char_boundary(at) || at > end {
            return None;
        }
        let tokens = self.tokens_up_to(start, at);
        let words = self.words(&tokens);
        out.push_str(&words);
        Some(at - start)
    }

    /// The tokens of a piece of the source.
    pub(super) fn tokens_up_to(&mut self, start: usize, end: usize) -> Vec<Token> {
        self.input.at = start;
        let mut tokens = Vec::new();
        // Behind white space and comments, a token may begin behind the end.
        while self.input.at < end
            && let Some(token) = self.input.next().filter(|token| (token.at as usize) < end)
        {
            tokens.push(token);
        }
        // A run of text may go on behind the end.
        if let Some(Token { kind: super::tokens::Kind::Text(_, last), .. }) = tokens.last_mut() {
            *last = (*last).min(end as u32);
        }
        tokens
    }
}

/// The marks that an option names: two, or two characters.
fn marks_of(written: &str) -> Option<(String, String)> {
    let plain = |mark: &str| mark.replace('\\', "");
    if let Some((open, close)) = written.trim_matches(['{', '}']).split_once("}{") {
        return Some((plain(open), plain(close))).filter(|(open, close)| !open.is_empty() && !close.is_empty());
    }
    let bare = plain(written.trim_matches(['{', '}']));
    let mut characters = bare.chars();
    match (characters.next(), characters.next(), characters.next()) {
        (Some(open), Some(close), None) => Some((open.to_string(), close.to_string())),
        _ => None,
    }
}
