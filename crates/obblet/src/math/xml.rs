//! Elements of a formula in XML: a small tree, no deeper than formulas are.

use super::DEEPEST;
use crate::simd_scan::unescaped_length;

/// An element: its name and those of its attributes are without prefixes.
#[derive(Clone, Debug, Default, PartialEq, Eq)]
pub(super) struct Element {
    pub(super) name: String,
    pub(super) attributes: Vec<(String, String)>,
    pub(super) children: Vec<Child>,
}

/// What is in an element.
#[derive(Clone, Debug, PartialEq, Eq)]
pub(super) enum Child {
    Element(Element),
    Text(String),
}

impl Element {
    /// The value of an attribute.
    pub(super) fn attribute(&self, name: &str) -> Option<&str> {
        self.attributes.iter().find(|(known, _)| known == name).map(|(_, value)| value.as_str())
    }

    pub(super) fn elements(&self) -> impl Iterator<Item = &Self> {
        self.children.iter().filter_map(|child| match child {
            Child::Element(element) => Some(element),
            Child::Text(_) => None,
        })
    }

    /// The first element of a name in it.
    pub(super) fn child(&self, name: &str) -> Option<&Self> {
        self.elements().find(|element| element.name == name)
    }

    /// All text in it.
    pub(super) fn text(&self) -> String {
        let mut out = String::new();
        self.add_text(&mut out);
        out
    }

    fn add_text(&self, out: &mut String) {
        for child in &self.children {
            match child {
                Child::Text(text) => out.push_str(text),
                Child::Element(element) => element.add_text(out),
            }
        }
    }
}

/// The first element of a text. What is wrong with the markup is passed over; elements that are too deep are their text.
pub(super) fn parse(markup: &str) -> Option<Element> {
    let mut open: Vec<Element> = vec![Element::default()];
    // How many elements are open that are too deep to be kept.
    let mut skipped = 0_usize;
    let mut rest = markup;
    while let Some(at) = memchr::memchr(b'<', rest.as_bytes()) {
        add_text(&mut open, &rest[..at]);
        let inner = &rest[at + 1..];
        if let Some(comment) = inner.strip_prefix("!--") {
            rest = comment.find("-->").map_or("", |end| &comment[end + 3..]);
            continue;
        }
        if let Some(data) = inner.strip_prefix("![CDATA[") {
            let end = data.find("]]>").unwrap_or(data.len());
            if let Some(last) = open.last_mut() {
                last.children.push(Child::Text(data[..end].to_owned()));
            }
            rest = data.get(end + 3..).unwrap_or_default();
            continue;
        }
        let Some(end) = end_of_tag(inner) else { break };
        let tag = &inner[..end];
        rest = &inner[end + 1..];
        if tag.starts_with(['?', '!']) {
            continue;
        }
        if let Some(name) = tag.strip_prefix('/') {
            if skipped > 0 {
                skipped -= 1;
            } else {
                close(&mut open, local(name.trim()));
            }
            continue;
        }
        let is_empty = tag.ends_with('/');
        if open.len() > 3 * DEEPEST {
            skipped += usize::from(!is_empty);
            continue;
        }
        let element = start(tag.trim_end_matches('/'));
        if is_empty {
            if let Some(last) = open.last_mut() {
                last.children.push(Child::Element(element));
            }
        } else {
            open.push(element);
        }
    }
    while open.len() > 1 {
        let name = open.last().map(|element| element.name.clone()).unwrap_or_default();
        close(&mut open, &name);
    }
    let root = open.pop()?;
    root.children.into_iter().find_map(|child| match child {
        Child::Element(element) => Some(element),
        Child::Text(_) => None,
    })
}

/// Where a tag ends: at the first sign that is in no value.
fn end_of_tag(tag: &str) -> Option<usize> {
    let mut quote = None;
    for (at, byte) in tag.bytes().enumerate() {
        match (quote, byte) {
            (None, b'>') => return Some(at),
            (None, b'"' | b'\'') => quote = Some(byte),
            (Some(open), byte) if open == byte => quote = None,
            _ => {}
        }
    }
    None
}

fn local(name: &str) -> &str {
    name.rsplit(':').next().unwrap_or(name)
}

fn start(tag: &str) -> Element {
    let end = tag.find(|c: char| c.is_whitespace()).unwrap_or(tag.len());
    let mut element = Element { name: local(&tag[..end]).to_owned(), ..Element::default() };
    let mut rest = tag[end..].trim_start();
    while let Some(equals) = rest.find('=') {
        let name = local(rest[..equals].trim()).to_owned();
        let value = rest[equals + 1..].trim_start();
        let Some(quote) = value.chars().next().filter(|c| matches!(c, '"' | '\'')) else { break };
        let Some(length) = value[1..].find(quote) else { break };
        element.attributes.push((name, unescaped(&value[1..=length])));
        rest = value[length + 2..].trim_start();
    }
    element
}

fn close(open: &mut Vec<Element>, name: &str) {
    // An end without a beginning ends nothing.
    if open.len() > 1
        && open.last().is_some_and(|last| last.name == name)
        && let Some(element) = open.pop()
        && let Some(above) = open.last_mut()
    {
        above.children.push(Child::Element(element));
    }
}

fn add_text(open: &mut [Element], text: &str) {
    if !text.is_empty()
        && let Some(last) = open.last_mut()
    {
        last.children.push(Child::Text(unescaped(text)));
    }
}

/// Text with its references written out; those that are not known stay.
fn unescaped(text: &str) -> String {
    if !text.contains('&') {
        return text.to_owned();
    }
    let mut out = String::with_capacity(text.len());
    let mut rest = text;
    while let Some(at) = rest.find('&') {
        out.push_str(&rest[..at]);
        rest = &rest[at..];
        let end = rest.bytes().take(32).position(|byte| byte == b';');
        let found = end.and_then(|end| reference(&rest[1..end]).map(|c| (c, end)));
        match found {
            Some((c, end)) => {
                out.push(c);
                rest = &rest[end + 1..];
            }
            None => {
                out.push('&');
                rest = &rest[1..];
            }
        }
    }
    out.push_str(rest);
    out
}

fn reference(name: &str) -> Option<char> {
    if let Some(digits) = name.strip_prefix("#x").or_else(|| name.strip_prefix("#X")) {
        return u32::from_str_radix(digits, 16).ok().and_then(char::from_u32);
    }
    if let Some(digits) = name.strip_prefix('#') {
        return digits.parse().ok().and_then(char::from_u32);
    }
    Some(match name {
        "amp" => '&',
        "lt" => '<',
        "gt" => '>',
        "quot" => '"',
        "apos" => '\'',
        "nbsp" => '\u{A0}',
        "ApplyFunction" | "af" => '\u{2061}',
        "InvisibleTimes" | "it" => '\u{2062}',
        "InvisibleComma" | "ic" => '\u{2063}',
        "PlusMinus" | "pm" => '±',
        "Integral" | "int" => '∫',
        "Sum" | "sum" => '∑',
        "infin" => '∞',
        "pi" => 'π',
        _ => return None,
    })
}

/// Writes text as markup. Control characters and those that are none have no place in it.
pub(super) fn escape(text: &str, out: &mut String) {
    let is_none = |c: char| {
        c.is_control() && !matches!(c, '\t' | '\n') || c as u32 & 0xFFFE == 0xFFFE || matches!(c, '\u{FDD0}'..='\u{FDEF}')
    };
    // Controls and what is no character begin with few bytes (the Unicode standard, table 3-7).
    let is_plain = |byte: u8| matches!(byte, b' '..=b'%' | b'\''..=b';' | b'=' | b'?'..=b'~' | 0x80..=0xC1 | 0xC3..=0xEE);
    let is_short = text.len() < 8;
    if is_short && text.bytes().all(is_plain) || !is_short && unescaped_length::<false>(text.as_bytes()) == text.len() {
        return out.push_str(text);
    }
    let mut rest = text;
    while let Some(at) = rest.find(|c: char| matches!(c, '&' | '<' | '>') || is_none(c)) {
        out.push_str(&rest[..at]);
        let mut letters = rest[at..].chars();
        out.push_str(match letters.next() {
            Some('&') => "&amp;",
            Some('<') => "&lt;",
            Some('>') => "&gt;",
            _ => "",
        });
        rest = letters.as_str();
    }
    out.push_str(rest);
}

#[cfg(test)]
mod tests {
    use super::*;

    #[test]
    fn markup_becomes_elements() {
        let found = parse("<?xml?><m:a x='1&amp;2' m:y=\"b>c\"><!-- no --><m:b/>t &lt; &#x3B1;<c>d</c></m:a>").unwrap();
        assert_eq!((found.name.as_str(), found.attribute("x"), found.attribute("y")), ("a", Some("1&2"), Some("b>c")));
        assert_eq!((found.text().as_str(), found.elements().count()), ("t < αd", 2));
        assert!(parse("no elements").is_none());
        // Whatever is wrong with it, it ends.
        for text in ["<a", "<a><b></a>", "<a x='", "</a>", "<a><![CDATA[x"] {
            parse(text);
        }
        assert_eq!(parse(&"<a>".repeat(100_000)).unwrap().name, "a");
    }
}
