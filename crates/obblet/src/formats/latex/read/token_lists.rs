//! Single tokens, and lists of them: what stands between signs, parts between a sign, characters as they stand.

use super::tokens::{Input, Kind, Token};

/// Tokens that a command comes to, from how they are written.
pub(super) fn made(text: &str, at: u32) -> Vec<Token> {
    let mut tokens = Vec::with_capacity(text.len());
    let mut rest = text;
    while let Some(c) = rest.chars().next() {
        rest = &rest[c.len_utf8()..];
        let kind = match c {
            '\\' => {
                let letters = rest.bytes().take_while(u8::is_ascii_alphabetic).count();
                let length = if letters == 0 { rest.chars().next().map_or(0, char::len_utf8) } else { letters };
                let (name, behind) = rest.split_at(length);
                // White space ends a name.
                rest = if letters == 0 { behind } else { behind.trim_start_matches(' ') };
                Kind::Command(name.into())
            }
            '{' => Kind::Begin,
            '}' => Kind::End,
            '&' => Kind::Cell,
            '$' => Kind::Dollar,
            ' ' => Kind::Space,
            _ => Kind::Char(c),
        };
        tokens.push(Token { kind, at });
    }
    tokens
}

impl Input<'_> {
    /// A command with its arguments comes next.
    pub(super) fn push_command(&mut self, command: &str, arguments: Vec<Vec<Token>>, at: u32) {
        for argument in arguments.into_iter().rev() {
            self.push(Kind::End, at);
            self.push_all(argument.into_iter());
            self.push(Kind::Begin, at);
        }
        self.push(Kind::Command(command.into()), at);
    }

    /// The next token; of a run of characters the first alone.
    pub(super) fn single(&mut self) -> Option<Token> {
        let token = self.next()?;
        let Kind::Text(start, end) = token.kind else { return Some(token) };
        let first = self.slice(start, end).chars().next()?;
        let behind = start + first.len_utf8() as u32;
        if behind < end {
            self.push(Kind::Text(behind, end), behind);
        }
        let kind = if first == ' ' { Kind::Space } else { Kind::Text(start, behind) };
        Some(Token { kind, at: token.at })
    }

    /// Whether white space comes next, or nothing.
    pub(super) fn peeks_white(&mut self) -> bool {
        let Some(token) = self.single() else { return true };
        let is_white = matches!(token.kind, Kind::Space | Kind::Par);
        self.made.push(token);
        is_white
    }

    /// The character of a token that is one.
    pub(super) fn character_of(&self, token: &Token) -> Option<char> {
        match token.kind {
            Kind::Char(c) => Some(c),
            Kind::Text(start, end) => self.slice(start, end).chars().next(),
            Kind::Tie => Some('~'),
            _ => None,
        }
    }

    /// Takes a character of any sort, where it is the next.
    pub(super) fn takes_character(&mut self, wanted: char) -> bool {
        let Some(token) = self.single() else { return false };
        let is_wanted = self.character_of(&token) == Some(wanted);
        if !is_wanted {
            self.made.push(token);
        }
        is_wanted
    }

    /// What is in the group that comes next; what is white before something else stays.
    pub(super) fn group(&mut self) -> Option<Vec<Token>> {
        let mut white = Vec::new();
        loop {
            let token = self.single()?;
            match token.kind {
                Kind::Space => white.push(token),
                Kind::Begin => return Some(self.up_to_end()),
                _ => {
                    self.made.push(token);
                    self.push_all(white.into_iter());
                    return None;
                }
            }
        }
    }

    /// What stands between two signs, where the first comes next.
    pub(super) fn between(&mut self, open: char, close: char) -> Option<Vec<Token>> {
        if (open, close) == ('[', ']') {
            return self.option();
        }
        let white: Vec<Token> = std::iter::from_fn(|| {
            let token = self.single()?;
            if token.kind == Kind::Space {
                return Some(token);
            }
            self.made.push(token);
            None
        })
        .collect();
        if !self.takes_character(open) {
            self.push_all(white.into_iter());
            return None;
        }
        let (mut tokens, mut depth, mut inner) = (Vec::new(), 0_usize, 0_usize);
        while let Some(token) = self.single() {
            match token.kind {
                Kind::Begin => depth += 1,
                Kind::End if depth > 0 => depth -= 1,
                // Without its end, it was none.
                Kind::End | Kind::Then(_) => {
                    self.made.push(token);
                    break;
                }
                Kind::Par if depth == 0 => {
                    self.made.push(token);
                    break;
                }
                _ if depth == 0 => {
                    let c = self.character_of(&token);
                    if c == Some(close) && inner == 0 {
                        break;
                    }
                    inner = if c == Some(close) { inner - 1 } else { inner + usize::from(c == Some(open)) };
                }
                _ => {}
            }
            tokens.push(token);
        }
        Some(self.joined(tokens))
    }

    /// Tokens with characters that follow each other in the source as runs.
    fn joined(&self, tokens: Vec<Token>) -> Vec<Token> {
        let mut out: Vec<Token> = Vec::with_capacity(tokens.len());
        for token in tokens {
            let token = match token.kind {
                Kind::Space if self.source.as_bytes().get(token.at as usize) == Some(&b' ') => {
                    Token { kind: Kind::Text(token.at, token.at + 1), at: token.at }
                }
                _ => token,
            };
            if let Kind::Text(start, end) = token.kind
                && let Some(Kind::Text(_, known)) = out.last_mut().map(|last| &mut last.kind)
                && *known == start
            {
                *known = end;
                continue;
            }
            out.push(token);
        }
        out
    }

    /// Characters as they stand, between two that are the same or in braces; an argument like any other where it is made already.
    pub(super) fn verbatim(&mut self) -> Vec<Token> {
        let rest = &self.source[self.at..];
        let Some(open) = rest.chars().next().filter(|c| self.made.is_empty() && !c.is_whitespace()) else {
            return self.argument();
        };
        let line = rest.lines().next().unwrap_or_default();
        let inside = &line[open.len_utf8()..];
        let length = if open == '{' {
            let mut depth = 1_usize;
            inside.bytes().position(|byte| {
                depth = match byte {
                    b'{' => depth + 1,
                    b'}' => depth - 1,
                    _ => depth,
                };
                depth == 0
            })
        } else {
            inside.find(open)
        };
        let Some(length) = length else { return self.argument() };
        let start = self.at + open.len_utf8();
        self.at = start + length + if open == '{' { 1 } else { open.len_utf8() };
        let at = start as u32;
        if length == 0 { Vec::new() } else { vec![Token { kind: Kind::Text(at, (start + length) as u32), at }] }
    }

    /// Tokens without white space around them.
    pub(super) fn trimmed(&self, tokens: &[Token]) -> Vec<Token> {
        let is_white = |token: &Token| matches!(token.kind, Kind::Space | Kind::Par);
        let from = tokens.iter().position(|token| !is_white(token)).unwrap_or(tokens.len());
        let to = tokens.iter().rposition(|token| !is_white(token)).map_or(from, |last| last + 1);
        let mut kept = tokens[from..to.max(from)].to_vec();
        if let Some(first) = kept.first_mut()
            && let Kind::Text(start, end) = first.kind
        {
            let start = end - self.slice(start, end).trim_start().len() as u32;
            *first = Token { kind: Kind::Text(start, end), at: start };
        }
        if let Some(Kind::Text(start, end)) = kept.last_mut().map(|last| &mut last.kind) {
            *end = *start + self.slice(*start, *end).trim_end().len() as u32;
        }
        kept.retain(|token| !matches!(token.kind, Kind::Text(start, end) if start >= end));
        kept
    }

    /// Tokens between a sign, outside of braces.
    pub(super) fn split(&self, tokens: &[Token], sign: char) -> Vec<Vec<Token>> {
        let mut parts: Vec<Vec<Token>> = vec![Vec::new()];
        let mut depth = 0_usize;
        for token in tokens {
            let mut token = token.clone();
            match token.kind {
                Kind::Begin => depth += 1,
                Kind::End => depth = depth.saturating_sub(1),
                Kind::Char(c) if depth == 0 && c == sign => {
                    parts.push(Vec::new());
                    continue;
                }
                Kind::Text(mut start, end) if depth == 0 => {
                    while let Some(length) = self.slice(start, end).find(sign) {
                        let stop = start + length as u32;
                        if start < stop
                            && let Some(part) = parts.last_mut()
                        {
                            part.push(Token { kind: Kind::Text(start, stop), at: start });
                        }
                        parts.push(Vec::new());
                        start = stop + sign.len_utf8() as u32;
                    }
                    if start >= end {
                        continue;
                    }
                    token = Token { kind: Kind::Text(start, end), at: start };
                }
                _ => {}
            }
            if let Some(part) = parts.last_mut() {
                part.push(token);
            }
        }
        parts
    }

    /// Puts characters before all other tokens.
    pub(super) fn push_characters(&mut self, text: &str, at: u32) {
        let kind = |c: char| if c == ' ' { Kind::Space } else { Kind::Char(c) };
        self.push_all(text.chars().map(|c| Token { kind: kind(c), at }));
    }
}
