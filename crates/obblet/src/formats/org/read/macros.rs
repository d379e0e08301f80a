//! Macros: text that is written out before anything else is read of it (Org syntax, "Macros").

use super::Reader;
use crate::fast_hash::HashMap;

/// Macros may stand in what macros come to, so deep.
const DEEPEST: usize = 8;
/// All macros of a file together come to no more bytes than this, whatever the file is.
const MOST: usize = 1 << 20;

/// What the macros of a source have come to.
#[derive(Debug, Default)]
pub(super) struct Used {
    bytes: usize,
    /// How often each that counts was used.
    counters: HashMap<String, i64>,
}

impl Reader<'_> {
    /// The text with its macros written out, where there are any.
    pub(super) fn expand(&mut self, text: &str, offset: u32) -> Option<String> {
        // A brace is found faster than three.
        let brace = if self.holds.macros { memchr::memchr(b'{', text.as_bytes())? } else { return None };
        if !text[brace..].contains("{{{") {
            return None;
        }
        let mut whole = self.expand_once(text, offset)?;
        for _ in 1..DEEPEST {
            if !whole.contains("{{{") {
                break;
            }
            let Some(next) = self.expand_once(&whole, offset) else { break };
            whole = next;
        }
        Some(whole)
    }

    /// Writes out the macros of a text; `None` where there is none.
    fn expand_once(&mut self, text: &str, offset: u32) -> Option<String> {
        let mut out = String::new();
        let mut rest = text;
        let mut found = false;
        while let Some(at) = memchr::memmem::find(rest.as_bytes(), b"{{{") {
            out.push_str(&rest[..at]);
            let inner = &rest[at + 3..];
            let length = inner.bytes().take_while(|byte| byte.is_ascii_alphanumeric() || matches!(byte, b'-' | b'_')).count();
            let name = &inner[..length];
            let arguments = inner[length..].strip_prefix('(').map(|_| ());
            let end = if arguments.is_some() { memchr::memmem::find(inner.as_bytes(), b")}}}") } else { Some(length) };
            let closes = |end: usize| inner[end..].starts_with(if arguments.is_some() { ")}}}" } else { "}}}" });
            let Some(end) = end.filter(|&end| length > 0 && closes(end)) else {
                out.push_str("{{{");
                rest = inner;
                if arguments.is_some() {
                    // Without an end here, there is none in what follows.
                    break;
                }
                continue;
            };
            let (given, behind) = if arguments.is_some() { (&inner[length + 1..end], end + 4) } else { ("", end + 3) };
            let value =
                self.value_of_macro(&name.to_ascii_lowercase(), given).filter(|value| self.used.bytes + value.len() <= MOST);
            match value {
                Some(value) => {
                    self.used.bytes += value.len();
                    out.push_str(&value);
                }
                None => self.tallies.macros.add_apart(offset, name),
            }
            found = true;
            rest = &inner[behind..];
        }
        out.push_str(rest);
        found.then_some(out)
    }

    fn value_of_macro(&mut self, name: &str, given: &str) -> Option<String> {
        if let Some(text) = self.options.macros.get(name) {
            let arguments = arguments(given);
            let mut out = String::with_capacity(text.len());
            let mut rest = text.as_str();
            while let Some(at) = rest.find('$') {
                out.push_str(&rest[..at]);
                rest = &rest[at + 1..];
                match rest.bytes().next() {
                    Some(digit @ b'1'..=b'9') => {
                        out.push_str(arguments.get(usize::from(digit - b'1')).map_or("", String::as_str));
                        rest = &rest[1..];
                    }
                    _ => out.push('$'),
                }
                if out.len() > MOST {
                    return None;
                }
            }
            out.push_str(rest);
            return Some(out);
        }
        let keyword = |name: &str| self.options.value(name).unwrap_or_default();
        match name {
            "title" | "author" | "email" | "date" => Some(keyword(name)),
            // What a call came to.
            "results" => Some(given.replace("\\,", ",")),
            "property" => self.properties.get(&given.trim().to_ascii_lowercase()).map(str::to_owned),
            "keyword" => Some(keyword(&given.trim().to_ascii_lowercase())),
            "n" => {
                let (counter, action) = given.split_once(',').unwrap_or((given, ""));
                let count = self.used.counters.entry(counter.trim().to_owned()).or_insert(0);
                match action.trim() {
                    "-" => {}
                    "" => *count += 1,
                    start => *count = start.parse().unwrap_or(1),
                }
                Some(count.to_string())
            }
            _ => None,
        }
    }
}

/// What a macro is given: between commas, but for those behind a backslash.
fn arguments(given: &str) -> Vec<String> {
    let mut arguments = vec![String::new()];
    let mut letters = given.chars().peekable();
    while let Some(c) = letters.next() {
        match c {
            '\\' if letters.peek() == Some(&',') => {
                letters.next();
                arguments.last_mut().into_iter().for_each(|last| last.push(','));
            }
            ',' => arguments.push(String::new()),
            c => arguments.last_mut().into_iter().for_each(|last| last.push(c)),
        }
    }
    arguments.into_iter().map(|argument| argument.trim().to_owned()).collect()
}
