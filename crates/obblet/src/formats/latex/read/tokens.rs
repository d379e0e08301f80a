//! From characters to tokens: by what characters mean in a document (The TeXbook, chapters 7 and 8). Runs of plain characters are
//! one token, so that text costs little.

use std::borrow::Cow;
use std::rc::Rc;

/// A token, and the byte of the source where it begins.
#[derive(Clone, Debug, PartialEq, Eq)]
pub(super) struct Token {
    pub(super) kind: Kind,
    pub(super) at: u32,
}

/// What a token is.
#[derive(Clone, Debug, PartialEq, Eq)]
pub(super) enum Kind {
    /// `\name`, without the backslash.
    Command(Rc<str>),
    /// `{`
    Begin,
    /// `}`
    End,
    /// `$`
    Dollar,
    /// `&`
    Cell,
    /// `#1`, and how many number signs stand before the digit beyond the first.
    Parameter(u8, u8),
    /// White space, however much.
    Space,
    /// An empty line.
    Par,
    /// `~`
    Tie,
    /// A run of plain characters: its first byte in the source, and the one behind its last. Single spaces may be in it.
    Text(u32, u32),
    /// Another character.
    Char(char),
    /// What is to be done behind the tokens before it.
    Then(Then),
}

/// What is to be done once tokens have been read.
#[derive(Clone, Copy, Debug, PartialEq, Eq)]
pub(super) enum Then {
    /// The style that was begun last ends.
    LeaveStyle,
    /// The part of the document that was begun last ends.
    ClosePart,
    /// An environment ends.
    EndEnvironment,
}

impl Kind {
    /// The name, where it is a command.
    pub(super) fn command(&self) -> Option<&str> {
        match self {
            Self::Command(name) => Some(name),
            _ => None,
        }
    }
}

/// What is to be read: tokens that were made, then the source.
#[derive(Debug)]
pub(super) struct Input<'s> {
    pub(super) source: &'s str,
    /// How far the source is read.
    pub(super) at: usize,
    /// Tokens that come before it, the next one last.
    pub(super) made: Vec<Token>,
    /// Whether `@` is a letter of commands.
    pub(super) at_is_letter: bool,
    /// What characters mean, where some mean something else than usual.
    pub(super) categories: Option<Box<super::categories::Categories>>,
    /// How many tokens were taken as arguments.
    taken: usize,
    /// Names of commands that were read last: most come again and again.
    names: Vec<Option<Rc<str>>>,
    /// Where arguments came to too much, first.
    pub(super) exceeded: Option<u32>,
    /// Where a group did not end before the text began, first.
    pub(super) unended: Option<u32>,
}

/// Arguments may stand within arguments, which are read again each: together they have no more tokens than these, and more for
/// each byte of the source.
const MOST_TAKEN: usize = 1 << 16;
const MOST_TAKEN_OF_A_BYTE: usize = 16;

/// So many names of commands are kept.
const NAMES: usize = 128;

/// What the name of a command begins with that means what it means without the document's own definitions.
pub(super) const BUILT_IN: char = '\0';

/// Whether a byte is plain text.
pub(super) const fn is_plain(byte: u8) -> bool {
    byte >= 0x80
        || matches!(byte, b'a'..=b'z' | b'A'..=b'Z' | b'0'..=b'9')
        || matches!(byte, b' ' | b'.' | b',' | b';' | b':' | b'(' | b')' | b'/' | b'=' | b'+')
}

const PLAIN: [bool; 256] = {
    let mut table = [false; 256];
    let mut byte = 0;
    while byte < 256 {
        table[byte] = is_plain(byte as u8);
        byte += 1;
    }
    table
};

impl<'s> Input<'s> {
    pub(super) const fn new(source: &'s str) -> Self {
        Self {
            source,
            at: 0,
            made: Vec::new(),
            at_is_letter: false,
            categories: None,
            taken: 0,
            names: Vec::new(),
            exceeded: None,
            unended: None,
        }
    }

    /// Tokens alone, which were read from a source.
    pub(super) fn of_tokens(source: &'s str, tokens: impl DoubleEndedIterator<Item = Token>) -> Self {
        let mut input = Self::new(source);
        input.at = source.len();
        input.push_all(tokens);
        input
    }

    /// Where the next token is.
    pub(super) fn place(&self) -> u32 {
        self.made.last().map_or(self.at as u32, |token| token.at)
    }

    /// Puts a token before all others.
    pub(super) fn push(&mut self, kind: Kind, at: u32) {
        self.made.push(Token { kind, at });
    }

    /// Puts tokens before all others.
    pub(super) fn push_all(&mut self, tokens: impl DoubleEndedIterator<Item = Token>) {
        self.made.extend(tokens.rev());
    }

    /// The next token.
    pub(super) fn next(&mut self) -> Option<Token> {
        if let Some(token) = self.made.pop() {
            return Some(token);
        }
        if self.categories.is_some() {
            return self.next_by_category();
        }
        self.next_as_usual()
    }

    /// The command that comes next in the source.
    pub(super) fn next_command(&mut self) -> Option<Token> {
        let at = self.at as u32;
        Some(Token { kind: self.command(), at })
    }

    /// The next token of the source, by what characters mean as usual.
    #[inline]
    pub(super) fn next_as_usual(&mut self) -> Option<Token> {
        let bytes = self.source.as_bytes();
        loop {
            let at = self.at;
            let kind = match *bytes.get(at)? {
                b'\\' => self.command(),
                b'%' => {
                    if self.comment() {
                        return Some(Token { kind: Kind::Par, at: at as u32 });
                    }
                    continue;
                }
                b'{' => self.one(Kind::Begin),
                b'}' => self.one(Kind::End),
                b'$' => self.one(Kind::Dollar),
                b'&' => self.one(Kind::Cell),
                b'~' => self.one(Kind::Tie),
                b'#' => self.parameter(),
                b' ' | b'\t' | b'\n' | b'\r' | 0x0C => self.white(),
                byte if PLAIN[usize::from(byte)] => self.text(),
                byte => self.one(Kind::Char(char::from(byte))),
            };
            return Some(Token { kind, at: at as u32 });
        }
    }

    fn one(&mut self, kind: Kind) -> Kind {
        self.at += 1;
        kind
    }

    /// Plain characters. Several spaces in a row, and those at a line's end, are not among them.
    fn text(&mut self) -> Kind {
        let start = self.at;
        let length = crate::simd_scan::plain_latex_length(&self.source.as_bytes()[start..]);
        self.at = start + length;
        Kind::Text(start as u32, self.at as u32)
    }

    /// The run of plain characters at the beginning of the next line, where a line of them ends here.
    pub(super) fn next_plain_line(&mut self) -> Option<(u32, u32)> {
        if self.categories.is_some() {
            return None;
        }
        let rest = self.source.as_bytes().get(self.at..)?;
        let white = 1 + rest.iter().skip(1).take_while(|byte| matches!(byte, b' ' | b'\t')).count();
        if !self.made.is_empty() || rest.first() != Some(&b'\n') || !rest.get(white).is_some_and(|byte| PLAIN[usize::from(*byte)])
        {
            return None;
        }
        self.at += white;
        match self.text() {
            Kind::Text(start, end) => Some((start, end)),
            _ => None,
        }
    }

    fn command(&mut self) -> Kind {
        let bytes = self.source.as_bytes();
        let start = self.at + 1;
        let mut letters = crate::simd_scan::letters(&bytes[start..]);
        if self.at_is_letter {
            letters += bytes[start + letters..].iter().take_while(|byte| byte.is_ascii_alphabetic() || **byte == b'@').count();
        }
        if letters == 0 {
            let length = self.source[start..].chars().next().map_or(0, char::len_utf8);
            self.at = start + length;
            let name = &self.source[start..self.at];
            if name.trim().is_empty() {
                return Kind::Command(Rc::from(" "));
            }
            return Kind::Command(self.name(start, self.at));
        }
        self.at = start + letters;
        let name = self.name(start, self.at);
        // White space behind a name ends it; an empty line does not.
        let white = bytes[self.at..].iter().take_while(|byte| matches!(byte, b' ' | b'\t')).count();
        let behind = self.at + white;
        let next_line = bytes[behind..].iter().skip(1).take_while(|byte| matches!(byte, b' ' | b'\t')).count();
        if bytes.get(behind) != Some(&b'\n') {
            self.at = behind;
        } else if bytes.get(behind + 1 + next_line) != Some(&b'\n') {
            self.at = behind + 1 + next_line;
        }
        Kind::Command(name)
    }

    /// The name of a command, which is shared by all its tokens that are not too far apart.
    fn name(&mut self, start: usize, end: usize) -> Rc<str> {
        let name = &self.source[start..end];
        if self.names.is_empty() {
            self.names.resize(NAMES, None);
        }
        let bytes = name.as_bytes();
        let ends = bytes.first().zip(bytes.last()).map_or(0, |(first, last)| usize::from(*first) * 5 + usize::from(*last));
        let place = &mut self.names[(ends + bytes.len() * 11) % NAMES];
        match place {
            Some(known) if **known == *name => known.clone(),
            _ => place.insert(Rc::from(name)).clone(),
        }
    }

    /// A comment, with the end of its line and the white space at the beginning of the next. Whether a paragraph ends there.
    fn comment(&mut self) -> bool {
        let bytes = &self.source.as_bytes()[self.at..];
        let length = memchr::memchr(b'\n', bytes).map_or(bytes.len(), |end| end + 1);
        let white = bytes[length..].iter().take_while(|byte| matches!(byte, b' ' | b'\t')).count();
        self.at += length + white;
        if bytes.get(length + white) == Some(&b'\n') {
            // An empty line ends the paragraph.
            let rest = &self.source.as_bytes()[self.at..];
            self.at += rest.iter().take_while(|byte| byte.is_ascii_whitespace()).count();
            return true;
        }
        false
    }

    fn white(&mut self) -> Kind {
        let bytes = &self.source.as_bytes()[self.at..];
        let white = bytes.iter().take_while(|byte| byte.is_ascii_whitespace()).count();
        let lines = bytes[..white].iter().filter(|byte| **byte == b'\n').count();
        self.at += white;
        if lines > 1 { Kind::Par } else { Kind::Space }
    }

    fn parameter(&mut self) -> Kind {
        let bytes = &self.source.as_bytes()[self.at..];
        let signs = bytes.iter().take(8).take_while(|byte| **byte == b'#').count();
        match bytes.get(signs) {
            Some(digit @ b'1'..=b'9') => {
                self.at += signs + 1;
                Kind::Parameter(digit - b'0', (signs.ilog2()) as u8)
            }
            _ => self.one(Kind::Char('#')),
        }
    }

    /// The text of a range of the source.
    pub(super) fn slice(&self, start: u32, end: u32) -> &'s str {
        self.source.get(start as usize..end as usize).unwrap_or_default()
    }

    /// Writes tokens as TeX.
    pub(super) fn write(&self, tokens: &[Token], out: &mut String) {
        let mut is_name = {
            let name = out.bytes().rev().take(40).take_while(u8::is_ascii_alphabetic).count();
            name > 0 && out[..out.len() - name].ends_with('\\')
        };
        for token in tokens {
            let ends_command = is_name;
            is_name = false;
            let start = out.len();
            match &token.kind {
                Kind::Command(name) if name.starts_with(super::categories::ACTIVE) => out.push_str(&name[1..]),
                Kind::Command(name) => {
                    let name = super::registers::name_of(name.trim_start_matches(BUILT_IN));
                    out.push('\\');
                    out.push_str(name);
                    is_name = name.ends_with(|c: char| c.is_ascii_alphabetic());
                }
                Kind::Begin => out.push('{'),
                Kind::End => out.push('}'),
                Kind::Dollar => out.push('$'),
                Kind::Cell => out.push('&'),
                Kind::Parameter(number, more) => {
                    out.push_str(&"#".repeat(1 << more));
                    out.push(char::from(b'0' + number));
                }
                Kind::Space => out.push(' '),
                Kind::Par => out.push('\n'),
                Kind::Tie => out.push('~'),
                Kind::Text(start, end) => out.push_str(self.slice(*start, *end)),
                Kind::Char(c) => out.push(*c),
                Kind::Then(_) => is_name = ends_command,
            }
            // Names end at white space, and the author may have set what is no letter apart from them, too.
            let needs_space = || out[start..].starts_with(|c: char| c.is_ascii_alphabetic() || c == '\\');
            let is_apart = || {
                matches!(token.kind, Kind::Text(..) | Kind::Char(_))
                    && (token.at as usize).checked_sub(1).and_then(|before| self.source.as_bytes().get(before)) == Some(&b' ')
            };
            if ends_command && (needs_space() || is_apart()) {
                out.insert(start, ' ');
            }
        }
    }

    /// Keys with their values, which stand between commas outside of braces; what has no sign of equality is none.
    pub(super) fn pairs(&self, tokens: &[Token]) -> Vec<(String, Vec<Token>)> {
        let mut parts: Vec<Vec<Token>> = vec![Vec::new()];
        let mut depth = 0_usize;
        for token in tokens {
            match token.kind {
                Kind::Begin => depth += 1,
                Kind::End => depth = depth.saturating_sub(1),
                Kind::Text(start, end) if depth == 0 => {
                    let mut from = start;
                    for (number, piece) in self.slice(start, end).split(',').enumerate() {
                        if number > 0 {
                            parts.push(Vec::new());
                            from += 1;
                        }
                        let to = from + piece.len() as u32;
                        if from < to
                            && let Some(part) = parts.last_mut()
                        {
                            part.push(Token { kind: Kind::Text(from, to), at: from });
                        }
                        from = to;
                    }
                    continue;
                }
                _ => {}
            }
            if let Some(part) = parts.last_mut() {
                part.push(token.clone());
            }
        }
        parts.into_iter().filter_map(|part| self.pair(part)).collect()
    }

    fn pair(&self, part: Vec<Token>) -> Option<(String, Vec<Token>)> {
        let (at, sign, end) =
            part.iter().take_while(|token| token.kind != Kind::Begin).enumerate().find_map(|(at, token)| match token.kind {
                Kind::Text(start, end) => Some((at, start + self.slice(start, end).find('=')? as u32, end)),
                _ => None,
            })?;
        let before = Token { kind: Kind::Text(part[at].at, sign), at: part[at].at };
        let mut key = self.characters(&part[..at]);
        key.push_str(&self.characters(&[before]));
        let rest = self.slice(sign + 1, end);
        let from = end - rest.trim_start().len() as u32;
        let mut value: Vec<Token> = Vec::new();
        if from < end {
            value.push(Token { kind: Kind::Text(from, end), at: from });
        }
        value.extend(part.into_iter().skip(at + 1).skip_while(|token| from == end && token.kind == Kind::Space));
        Some((key.trim().to_owned(), value))
    }

    /// The value of a key among options; nothing where it is not there.
    pub(super) fn value_of(&self, options: &[Token], key: &str) -> Vec<Token> {
        self.pairs(options).into_iter().find(|(known, _)| known == key).map(|(_, value)| value).unwrap_or_default()
    }

    /// The characters of tokens, as names and numbers have them.
    pub(super) fn characters(&self, tokens: &[Token]) -> String {
        if let [Token { kind: Kind::Text(start, end), .. }] = tokens {
            return self.slice(*start, *end).trim().to_owned();
        }
        let mut out = String::new();
        for token in tokens {
            match &token.kind {
                Kind::Space | Kind::Par => out.push(' '),
                Kind::Tie => out.push('~'),
                Kind::Text(start, end) => out.push_str(self.slice(*start, *end)),
                Kind::Char(c) => out.push(*c),
                Kind::Dollar => out.push('$'),
                Kind::Cell => out.push('&'),
                // What stands for a character in an address.
                Kind::Command(name) if name.len() == 1 => out.push_str(name),
                _ => {}
            }
        }
        out.trim().to_owned()
    }
}

impl<'s> Input<'s> {
    /// Skips white space.
    pub(super) fn skip_white(&mut self) {
        if self.next_byte().is_some_and(|byte| byte != b'%' && !byte.is_ascii_whitespace()) {
            return;
        }
        while let Some(token) = self.next() {
            match token.kind {
                Kind::Space => {}
                Kind::Text(start, end) if self.source.as_bytes().get(start as usize) == Some(&b' ') => {
                    if start + 1 < end {
                        self.push(Kind::Text(start + 1, end), start + 1);
                    }
                }
                _ => {
                    self.made.push(token);
                    break;
                }
            }
        }
    }

    /// The byte of the source that is read next, where no token stands before it.
    fn next_byte(&self) -> Option<u8> {
        if self.made.is_empty() { self.source.as_bytes().get(self.at).copied() } else { None }
    }

    /// Takes a character, where it is the next.
    pub(super) fn take(&mut self, wanted: char) -> bool {
        if let Some(byte) = self.next_byte().filter(|byte| !matches!(byte, b'%' | b'#')) {
            let is_other = !PLAIN[usize::from(byte)] && !byte.is_ascii_whitespace() && !b"\\{}$&~".contains(&byte);
            let is_wanted = is_other && char::from(byte) == wanted;
            self.at += usize::from(is_wanted);
            return is_wanted;
        }
        match self.next() {
            Some(token) if token.kind == Kind::Char(wanted) => true,
            Some(token) => {
                self.made.push(token);
                false
            }
            None => false,
        }
    }

    /// Takes the brace that begins a group, where it comes next.
    pub(super) fn takes_begin(&mut self) -> bool {
        self.skip_white();
        match self.next() {
            Some(token) if token.kind == Kind::Begin => true,
            Some(token) => {
                self.made.push(token);
                false
            }
            None => false,
        }
    }

    /// What is in the group or the token that comes next: an argument of a command.
    pub(super) fn argument(&mut self) -> Vec<Token> {
        self.skip_white();
        let Some(token) = self.next() else { return Vec::new() };
        match token.kind {
            Kind::Begin => self.up_to_end(),
            // An argument that is not there.
            Kind::End | Kind::Par | Kind::Then(_) => {
                self.made.push(token);
                Vec::new()
            }
            Kind::Text(start, end) => {
                let first = self.slice(start, end).chars().next().map_or(1, |c| c.len_utf8() as u32);
                if start + first < end {
                    self.push(Kind::Text(start + first, end), start + first);
                }
                vec![Token { kind: Kind::Text(start, start + first), at: token.at }]
            }
            _ => vec![token],
        }
    }

    /// The characters of an argument, as names and numbers have them.
    pub(super) fn argument_characters(&mut self) -> Cow<'s, str> {
        if let Some(name) = self.plain_name() {
            return Cow::Borrowed(name);
        }
        let argument = self.argument();
        Cow::Owned(self.characters(&argument))
    }

    /// A name in braces that comes next in the source, where no character in it means anything else.
    fn plain_name(&mut self) -> Option<&'s str> {
        if !self.made.is_empty() || self.categories.is_some() {
            return None;
        }
        let rest = self.source.as_bytes().get(self.at..)?.strip_prefix(b"{")?;
        let is_of_names =
            |byte: &u8| byte.is_ascii_alphanumeric() || matches!(byte, b'*' | b':' | b'-' | b'_' | b'.' | b'/' | b'+');
        let length = rest.iter().take_while(|byte| is_of_names(byte)).count();
        if rest.get(length) != Some(&b'}') {
            return None;
        }
        let start = self.at + 1;
        self.at = start + length + 1;
        self.source.get(start..start + length)
    }

    /// What stands before the brace that ends a group whose beginning has been read.
    pub(super) fn up_to_end(&mut self) -> Vec<Token> {
        let (mut tokens, mut depth) = (Vec::with_capacity(8), 0_usize);
        let most = MOST_TAKEN + self.source.len() * MOST_TAKEN_OF_A_BYTE;
        while let Some(token) = self.next() {
            match token.kind {
                Kind::Begin => depth += 1,
                Kind::End if depth == 0 => break,
                Kind::End => depth -= 1,
                Kind::Then(_) => {
                    self.made.push(token);
                    break;
                }
                // Nothing goes on behind the beginning of the text.
                Kind::Command(ref name) if &**name == "begin" && self.text_begins_at(token.at) => {
                    self.unended.get_or_insert(token.at);
                    self.made.push(token);
                    break;
                }
                _ => {}
            }
            let at = token.at;
            tokens.push(token);
            self.taken += 1;
            if self.taken > most {
                // What follows is read as text.
                self.exceeded.get_or_insert(at);
                break;
            }
        }
        tokens
    }

    /// Whether the text of the document begins at a place: in a line of its own.
    fn text_begins_at(&self, at: u32) -> bool {
        const LONGEST: usize = 20;
        let (before, rest) = self.source.as_bytes().split_at((at as usize).min(self.source.len()));
        rest.starts_with(b"\\begin{document}")
            && before.iter().rev().take(LONGEST).find(|byte| !matches!(byte, b' ' | b'\t')).is_none_or(|byte| *byte == b'\n')
    }

    /// Skips what stands between angle brackets, where these come next: on which slides something shows.
    pub(super) fn overlay(&mut self) {
        if self.made.is_empty()
            && let Some(rest) = self.source[self.at..].strip_prefix('<')
            && let Some(length) = rest.bytes().take(40).position(|byte| byte == b'>')
            && rest[..length]
                .bytes()
                .all(|byte| byte.is_ascii_alphanumeric() || matches!(byte, b'-' | b',' | b'@' | b'|' | b'+' | b':' | b' '))
            && !rest.starts_with(' ')
        {
            self.at += length + 2;
        }
    }

    /// What stands between brackets, where these come next.
    pub(super) fn option(&mut self) -> Option<Vec<Token>> {
        if self.made.is_empty() {
            let next = self.source.as_bytes()[self.at..].iter().find(|byte| !byte.is_ascii_whitespace());
            if next.is_none_or(|next| !matches!(next, b'[' | b'%')) {
                return None;
            }
        }
        let white: Vec<Token> = std::iter::from_fn(|| {
            let token = self.next()?;
            if token.kind == Kind::Space {
                return Some(token);
            }
            self.made.push(token);
            None
        })
        .collect();
        if !self.take('[') {
            self.push_all(white.into_iter());
            return None;
        }
        let (mut tokens, mut depth, mut brackets) = (Vec::new(), 0_usize, 0_usize);
        while let Some(token) = self.next() {
            match token.kind {
                Kind::Begin => depth += 1,
                Kind::End if depth == 0 => {
                    // Without its end, it was none.
                    self.made.push(token);
                    break;
                }
                Kind::End => depth -= 1,
                Kind::Char('[') if depth == 0 => brackets += 1,
                Kind::Char(']') if depth == 0 && brackets == 0 => break,
                Kind::Char(']') if depth == 0 => brackets -= 1,
                // An empty line is in no option, nor the end of what it stands in.
                Kind::Par if depth == 0 => {
                    self.made.push(token);
                    break;
                }
                Kind::Then(_) => {
                    self.made.push(token);
                    break;
                }
                _ => {}
            }
            tokens.push(token);
        }
        Some(tokens)
    }
}
