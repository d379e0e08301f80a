//! Lines: what each one begins, and where what it begins ends. All of that is known before anything is made of it, in time that
//! grows with the length of the source whatever is in it.

use crate::fast_hash::HashMap;
use std::borrow::Cow;

/// What a line begins with.
#[derive(Clone, Copy, Debug, PartialEq, Eq)]
pub(super) enum Begins {
    Blank,
    /// Stars, and a space.
    Heading,
    /// `#+begin_name`
    Block(BlockKind),
    /// `#+end_name`, `:END:`, `\end{name}`: an end that nothing in front of it begins is text.
    End,
    /// `:NAME:`
    Drawer,
    /// `\begin{name}`
    Environment,
    /// `#+KEY: value`
    Keyword,
    /// `# text`
    Comment,
    /// `: text`
    Fixed,
    /// `|`
    Table,
    /// `+---+`
    Grid,
    /// Five hyphens, or more.
    Rule,
    /// A bullet or a number.
    Item,
    /// `[fn:label]` in the first column.
    Note,
    /// `CLOCK:`
    Clock,
    Text,
}

/// What is in a block.
#[derive(Clone, Copy, Debug, PartialEq, Eq)]
pub(super) enum BlockKind {
    Source,
    Example,
    Export,
    Comment,
    Verse,
    Quote,
    Center,
    /// `#+BEGIN: name`
    Dynamic,
    /// One with a name of its own.
    Special,
}

impl BlockKind {
    fn of(name: &str) -> Self {
        match name {
            "src" => Self::Source,
            "example" => Self::Example,
            "export" => Self::Export,
            "comment" => Self::Comment,
            "verse" => Self::Verse,
            "quote" => Self::Quote,
            "center" => Self::Center,
            _ => Self::Special,
        }
    }

    /// Whether blocks stand in it.
    pub(super) const fn holds_blocks(self) -> bool {
        matches!(self, Self::Quote | Self::Center | Self::Dynamic | Self::Special)
    }
}

/// A line of the source.
#[derive(Clone, Copy, Debug)]
pub(super) struct Line {
    /// Its first byte, the first that is no white space, and the one behind its last.
    pub(super) start: usize,
    pub(super) text: usize,
    pub(super) end: usize,
    /// How far it is set in, in columns.
    pub(super) indent: u32,
    pub(super) begins: Begins,
    /// The number of the line that ends what it begins; of an item, of the one behind it. 0 where nothing does.
    pub(super) until: usize,
}

/// The lines of a source.
#[derive(Debug)]
pub(super) struct Lines {
    pub(super) all: Vec<Line>,
}

impl Lines {
    pub(super) fn of(source: &str) -> Self {
        let mut all = Vec::with_capacity(source.len() / 32 + 1);
        let mut start = 0;
        for end in memchr::memchr_iter(b'\n', source.as_bytes()) {
            all.push(line(source, start, end));
            start = end + 1;
        }
        let mut lines = Self { all };
        lines.find_ends(source);
        lines.find_ends_of_items();
        lines
    }

    pub(super) fn get(&self, number: usize) -> Option<&Line> {
        self.all.get(number)
    }

    /// Finds the ends of blocks, drawers and environments: the next with their name, before the next heading.
    fn find_ends(&mut self, source: &str) {
        let mut ends: HashMap<Name<'_>, usize> = HashMap::default();
        for number in (0..self.all.len()).rev() {
            let Line { text, end, begins, .. } = self.all[number];
            let words = &source[text..end];
            match begins {
                Begins::Heading => ends.clear(),
                Begins::End => {
                    if let Some(name) = name_of_end(words) {
                        ends.insert(name, number);
                    }
                }
                Begins::Block(_) | Begins::Drawer | Begins::Environment => {
                    let name = name_of_begin(words, begins);
                    if begins == Begins::Environment && words.contains("\\end{") {
                        continue;
                    }
                    self.all[number].until = ends.get(&name).copied().unwrap_or(0);
                }
                _ => {}
            }
        }
    }

    /// Finds where items end: at the next line of the same part that is set in no further, at two blank lines, and at a heading.
    fn find_ends_of_items(&mut self) {
        let mut regions = vec![Region { end: self.all.len(), items: Vec::new() }];
        let mut number = 0;
        while number < self.all.len() {
            while regions.len() > 1 && regions.last().is_some_and(|region| region.end == number) {
                self.end_region(&mut regions, number);
            }
            let Line { indent, begins, until, .. } = self.all[number];
            match begins {
                Begins::Heading => {
                    while regions.len() > 1 {
                        self.end_region(&mut regions, number);
                    }
                    self.end_items(&mut regions, 0, number);
                }
                Begins::Blank => {
                    if number > 0 && self.all[number - 1].begins == Begins::Blank {
                        self.end_items(&mut regions, 0, number - 1);
                    }
                }
                _ => {
                    self.end_items(&mut regions, indent, number);
                    let within = until > number && regions.last().is_some_and(|region| until < region.end);
                    match begins {
                        Begins::Item => regions.iter_mut().rev().take(1).for_each(|region| region.items.push(number)),
                        Begins::Block(kind) if within && kind.holds_blocks() => {
                            regions.push(Region { end: until, items: Vec::new() });
                        }
                        Begins::Drawer if within => regions.push(Region { end: until, items: Vec::new() }),
                        Begins::Block(_) | Begins::Environment if within => number = until,
                        _ => {}
                    }
                }
            }
            number += 1;
        }
        let end = self.all.len();
        while !regions.is_empty() {
            self.end_region(&mut regions, end);
        }
    }

    /// Items end that are set in so far, or further.
    fn end_items(&mut self, regions: &mut [Region], indent: u32, at: usize) {
        let Some(region) = regions.last_mut() else { return };
        while let Some(item) = region.items.pop_if(|item| self.all[*item].indent >= indent) {
            self.all[item].until = at;
        }
    }

    fn end_region(&mut self, regions: &mut Vec<Region>, at: usize) {
        self.end_items(regions, 0, at);
        regions.pop();
    }
}

/// A part of the source with blocks in it: the text, a block, a drawer.
struct Region {
    /// The number of the line that ends it.
    end: usize,
    /// The items that have not ended, outermost first.
    items: Vec<usize>,
}

fn line(source: &str, start: usize, end: usize) -> Line {
    let bytes = source.as_bytes();
    let (mut text, mut indent) = (start, 0);
    while text < end {
        match bytes[text] {
            b' ' => indent += 1,
            b'\t' => indent = indent / 8 * 8 + 8,
            _ => break,
        }
        text += 1;
    }
    let mut behind = end;
    while behind > text && matches!(bytes[behind - 1], b' ' | b'\t' | b'\r') {
        behind -= 1;
    }
    Line { start, text, end: behind, indent, begins: begins(&source[text..behind], text == start), until: 0 }
}

fn begins(words: &str, in_first_column: bool) -> Begins {
    let bytes = words.as_bytes();
    let Some(&first) = bytes.first() else { return Begins::Blank };
    match first {
        b'*' if in_first_column && is_heading(bytes) => Begins::Heading,
        b'*' if !in_first_column && is_bullet(bytes) => Begins::Item,
        b'-' if bytes.len() >= 5 && bytes.iter().all(|&byte| byte == b'-') => Begins::Rule,
        b'-' | b'+' if is_bullet(bytes) => Begins::Item,
        b'+' if is_grid(bytes) => Begins::Grid,
        b'0'..=b'9' if number_length(bytes).is_some() => Begins::Item,
        b'#' => after_number_sign(words),
        b':' if bytes.len() == 1 || bytes[1] == b' ' => Begins::Fixed,
        b':' if words.eq_ignore_ascii_case(":end:") => Begins::End,
        b':' if is_drawer(bytes) => Begins::Drawer,
        b'|' => Begins::Table,
        b'\\' if words.starts_with("\\begin{") => Begins::Environment,
        b'\\' if words.starts_with("\\end{") => Begins::End,
        b'[' if in_first_column && words.starts_with("[fn:") && note_label(words).is_some() => Begins::Note,
        b'C' if words.starts_with("CLOCK:") => Begins::Clock,
        // The end of an environment may stand behind its last words.
        _ if words.ends_with('}') && words.contains("\\end{") => Begins::End,
        _ => Begins::Text,
    }
}

/// How many stars a heading begins with.
pub(super) fn stars(words: &str) -> usize {
    words.bytes().take_while(|&byte| byte == b'*').count()
}

fn is_heading(bytes: &[u8]) -> bool {
    let stars = bytes.iter().take_while(|&&byte| byte == b'*').count();
    matches!(bytes.get(stars), Some(b' ' | b'\t'))
}

fn is_bullet(bytes: &[u8]) -> bool {
    matches!(bytes.get(1), None | Some(b' ' | b'\t'))
}

/// How long the number at the beginning of an item is, with what is behind it.
pub(super) fn number_length(bytes: &[u8]) -> Option<usize> {
    let digits = bytes.iter().take_while(|byte| byte.is_ascii_digit()).count();
    let is_end = matches!(bytes.get(digits), Some(b'.' | b')')) && matches!(bytes.get(digits + 1), None | Some(b' ' | b'\t'));
    (digits > 0 && is_end).then_some(digits + 1)
}

fn after_number_sign(words: &str) -> Begins {
    let Some(rest) = words.strip_prefix("#+") else {
        return if words.len() == 1 || words.starts_with("# ") { Begins::Comment } else { Begins::Text };
    };
    let starts = |text: &str| rest.get(..text.len()).is_some_and(|start| start.eq_ignore_ascii_case(text));
    if starts("begin_") {
        let name = rest["begin_".len()..].split([' ', '\t']).next().unwrap_or_default();
        return if name.is_empty() { Begins::Text } else { Begins::Block(BlockKind::of(&name.to_ascii_lowercase())) };
    }
    if starts("begin:") {
        return Begins::Block(BlockKind::Dynamic);
    }
    if starts("end_") || starts("end:") {
        return Begins::End;
    }
    let key = rest.find(':').filter(|&colon| colon > 0 && !rest[..colon].contains([' ', '\t']) || is_call(rest));
    if key.is_some() { Begins::Keyword } else { Begins::Text }
}

/// A keyword whose options in brackets may hold spaces.
fn is_call(rest: &str) -> bool {
    let key = rest.split(['[', ' ', ':']).next().unwrap_or_default();
    !key.is_empty() && rest[key.len()..].starts_with('[') && rest.contains("]:")
}

/// A line between the rows of a table that is drawn with characters.
fn is_grid(bytes: &[u8]) -> bool {
    bytes.len() > 2 && bytes.ends_with(b"+") && bytes[1] == b'-' && bytes.iter().all(|byte| matches!(byte, b'+' | b'-' | b'='))
}

fn is_drawer(bytes: &[u8]) -> bool {
    bytes.len() > 2
        && bytes.last() == Some(&b':')
        && bytes[1..bytes.len() - 1]
            .iter()
            .all(|&byte| byte.is_ascii_alphanumeric() || byte >= 0x80 || matches!(byte, b'-' | b'_'))
}

/// The label of a note that a line defines.
pub(super) fn note_label(words: &str) -> Option<&str> {
    let label = words.strip_prefix("[fn:")?.split(']').next()?;
    let is_label = |c: char| c.is_alphanumeric() || matches!(c, '-' | '_');
    (!label.is_empty() && label.chars().all(is_label) && words.len() > "[fn:".len() + label.len()).then_some(label)
}

/// What the name of a beginning and that of an end agree in.
#[derive(Debug, PartialEq, Eq, Hash)]
enum Name<'s> {
    Drawer,
    Dynamic,
    /// In small letters.
    Block(Cow<'s, str>),
    Environment(&'s str),
}

impl<'s> Name<'s> {
    fn block(text: &'s str) -> Self {
        let name = text.split([' ', '\t']).next().unwrap_or_default();
        let has_capitals = name.bytes().any(|byte| byte.is_ascii_uppercase());
        Self::Block(if has_capitals { Cow::Owned(name.to_ascii_lowercase()) } else { Cow::Borrowed(name) })
    }
}

/// What names the end of what a line begins.
fn name_of_begin(words: &str, begins: Begins) -> Name<'_> {
    match begins {
        Begins::Block(BlockKind::Dynamic) => Name::Dynamic,
        Begins::Block(_) => Name::block(&words["#+begin_".len()..]),
        Begins::Environment => Name::Environment(words["\\begin{".len()..].split('}').next().unwrap_or_default()),
        _ => Name::Drawer,
    }
}

fn name_of_end(words: &str) -> Option<Name<'_>> {
    if words.starts_with(':') {
        return Some(Name::Drawer);
    }
    if let Some(rest) = words.strip_prefix("#+") {
        let is_dynamic = rest.get(3..4) == Some(":");
        return Some(if is_dynamic { Name::Dynamic } else { Name::block(rest.get("end_".len()..).unwrap_or_default()) });
    }
    words.rsplit("\\end{").next()?.strip_suffix('}').map(Name::Environment)
}

#[cfg(test)]
mod tests {
    use super::*;

    #[track_caller]
    fn case(source: &str, wanted: &[(usize, usize)]) {
        let lines = Lines::of(source);
        for (number, until) in wanted {
            assert_eq!(lines.all[*number].until, *until, "line {number} of {source}");
        }
    }

    #[test]
    fn what_lines_begin_ends_somewhere() {
        case("- a\n  b\n- c\nd\n", &[(0, 2), (2, 3)]);
        case("- a\n  - b\n\n\n  c\n", &[(0, 2), (1, 2)]);
        case("- a\n  #+begin_src x\n* no\n#+end_src\n", &[(0, 2), (1, 0)]);
        case("- a\n  #+BEGIN_src x\nb\n  #+end_SRC\n  c\nd\n", &[(0, 5), (1, 3)]);
        case(":A:\n- a\n:END:\n\\begin{x}\n\n1 \\end{x}\n", &[(0, 2), (1, 2), (3, 5)]);
        case("#+begin_quote\n#+begin_center\n#+end_quote\n#+end_center\n", &[(0, 2), (1, 3)]);
    }
}
