//! Clean copies of drawings (SVG 2).
//!
//! A drawing runs script where somebody opens it by itself, and may come from a stranger. So it is read and written anew: the
//! elements, attributes and style properties of fixed lists stay, all else is left out, and what may be missed is named. The copy
//! is in UTF-8, has no document type, no entities, no comments and no processing instructions, and is well-formed (XML 1.0).

mod allowed;
mod style;

use crate::picture::xml::{self, Entities};
use allowed::Attribute;
use quick_xml::Reader;
use quick_xml::events::{BytesStart, Event};
use std::borrow::Cow;
use std::collections::HashMap;
use style::LeftOut;

const SVG: &str = "http://www.w3.org/2000/svg";
const XLINK: &str = "http://www.w3.org/1999/xlink";
const XML: &str = "http://www.w3.org/XML/1998/namespace";

/// A drawing that was written anew.
#[derive(Clone, Debug, PartialEq, Eq)]
pub struct Drawing {
    /// Its bytes: XML in UTF-8.
    pub bytes: Vec<u8>,
    /// What was left out that may be missed, in words: elements, attributes and style properties. What drawing programs keep
    /// for themselves, comments and descriptions for programs go without a word.
    pub left_out: Option<String>,
}

/// The words that a clean drawing shows (SVG 2, chapter 11).
pub(crate) fn words(drawing: &[u8]) -> String {
    let mut reader = Reader::from_reader(drawing);
    let (mut words, mut depth) = (String::new(), 0_usize);
    loop {
        match reader.read_event() {
            Ok(Event::Start(element)) if element.local_name().as_ref() == "text" => depth += 1,
            Ok(Event::End(element)) if element.local_name().as_ref() == "text" => {
                depth = depth.saturating_sub(1);
                words.push(' ');
            }
            Ok(Event::Text(text)) if depth > 0 => words.push_str(&text),
            Ok(Event::Eof) | Err(_) => break,
            Ok(_) => {}
        }
    }
    words.split_whitespace().collect::<Vec<_>>().join(" ")
}

/// A copy of a drawing that holds nothing but what drawings may hold here.
///
/// ```
/// let drawing = br#"<svg xmlns="http://www.w3.org/2000/svg"><script>a()</script><path d="M0 0" onclick="b()"/></svg>"#;
/// let clean = obblet::drawing::clean(drawing)?;
/// assert!(clean.bytes.ends_with(b"<svg xmlns=\"http://www.w3.org/2000/svg\"><path d=\"M0 0\"/></svg>\n"));
/// assert_eq!(clean.left_out.as_deref(), Some("<script>, onclick"));
/// # Ok::<(), String>(())
/// ```
///
/// # Errors
/// Where it is no drawing, no well-formed XML, or in an encoding that is not known.
pub fn clean(bytes: &[u8]) -> Result<Drawing, String> {
    let text = xml::decode(bytes)?;
    let mut reader = Reader::from_str(&text);
    reader.config_mut().check_end_names = true;
    let mut copy = Copy { out: String::with_capacity(text.len() + 64), ..Copy::default() };
    copy.out.push_str("<?xml version=\"1.0\" encoding=\"UTF-8\"?>\n");
    loop {
        match reader.read_event().map_err(|error| error.to_string())? {
            Event::Eof => break,
            Event::DocType(declarations) => copy.entities = Entities::declared(&declarations),
            Event::Start(tag) => copy.start(&tag, false)?,
            Event::Empty(tag) => copy.start(&tag, true)?,
            Event::End(_) => copy.end(),
            Event::Text(text) => copy.text(&text)?,
            Event::CData(text) => copy.text(&text)?,
            Event::GeneralRef(reference) => {
                // What nobody declared stands for nothing.
                if let Some(text) = copy.entities.meaning(&reference) {
                    copy.text(&text)?;
                }
            }
            _ => {}
        }
    }
    copy.finish()
}

/// An element that is open.
struct Open {
    /// Its name in the copy.
    name: &'static str,
    /// The prefixes that it declares.
    prefixes: Vec<String>,
    /// Where the copy begins its text, for style rules, which are parsed as a whole.
    style: Option<String>,
}

#[derive(Default)]
struct Copy {
    out: String,
    entities: Entities,
    open: Vec<Open>,
    /// Namespaces by their prefixes, the innermost last.
    namespaces: HashMap<String, Vec<String>>,
    /// So many elements are open within one that is left out, that one included.
    skipped: usize,
    has_root: bool,
    left: LeftOut,
}

impl Copy {
    fn start(&mut self, tag: &BytesStart<'_>, is_empty: bool) -> Result<(), String> {
        if self.skipped > 0 {
            self.skipped += usize::from(!is_empty);
            return Ok(());
        }
        if self.has_root && self.open.is_empty() {
            return Err("something follows behind its end".to_owned());
        }
        let mut attributes = Vec::new();
        let mut prefixes = Vec::new();
        // Whoever says something twice says it wrong; the first counts.
        for attribute in tag.attributes().with_checks(false) {
            let attribute = attribute.map_err(|error| error.to_string())?;
            let key = attribute.key.as_ref();
            // What can't be known can't be written either.
            let Some(value) = self.entities.resolve(&attribute.value) else { continue };
            match key.strip_prefix("xmlns") {
                Some("") => self.declare("", &value, &mut prefixes),
                Some(prefix) if prefix.starts_with(':') => self.declare(&prefix[1..], &value, &mut prefixes),
                _ => attributes.push((key.to_owned(), value.into_owned())),
            }
        }
        let name = tag.name().as_ref().to_owned();
        let (prefix, local) = split(&name);
        let of_svg = match self.namespace(prefix) {
            Some(SVG) => true,
            // Programs that write a drawing as a part of something else forget what it is.
            None | Some("") => prefix.is_empty(),
            Some(_) => false,
        };
        // Style rules are text and nothing else.
        let in_rules = self.open.last().is_some_and(|open| open.style.is_some());
        let known = allowed::element(local).filter(|_| of_svg && !in_rules);
        let Some(known) = known.filter(|known| self.has_root || *known == "svg") else {
            if !self.has_root {
                return Err(format!("it begins with <{local}>"));
            }
            if local != "metadata" && (of_svg || self.namespace(prefix).is_some_and(|of| of.ends_with("/xhtml"))) {
                self.left.add(format!("<{local}>"));
            }
            self.undeclare(&prefixes);
            self.skipped = usize::from(!is_empty);
            return Ok(());
        };
        self.write_start(known, &attributes);
        self.has_root = true;
        if is_empty {
            self.out.push_str("/>");
            self.undeclare(&prefixes);
        } else {
            self.out.push('>');
            let style = (known == "style").then(String::new);
            self.open.push(Open { name: known, prefixes, style });
        }
        Ok(())
    }

    fn declare(&mut self, prefix: &str, namespace: &str, prefixes: &mut Vec<String>) {
        self.namespaces.entry(prefix.to_owned()).or_default().push(namespace.trim().to_owned());
        prefixes.push(prefix.to_owned());
    }

    fn undeclare(&mut self, prefixes: &[String]) {
        for prefix in prefixes {
            if let Some(known) = self.namespaces.get_mut(prefix) {
                known.pop();
            }
        }
    }

    fn namespace(&self, prefix: &str) -> Option<&str> {
        if prefix == "xml" {
            return Some(XML);
        }
        self.namespaces.get(prefix)?.last().map(String::as_str)
    }

    fn write_start(&mut self, name: &'static str, attributes: &[(String, String)]) {
        self.out.push('<');
        self.out.push_str(name);
        if !self.has_root {
            self.write("xmlns", SVG);
        }
        let mut written: Vec<&'static str> = Vec::new();
        // An animation may change only some attributes; without one that it may change, it changes nothing.
        for (key, value) in attributes {
            let (prefix, local) = split(key);
            let (space, local) = if prefix.is_empty() { (None, local) } else { (self.namespace(prefix), local) };
            let outcome = match (space, local) {
                (None, _) if prefix.is_empty() => self.attribute(name, local, value),
                (Some(XLINK), "href") => self.attribute(name, "href", value),
                (Some(XML), "lang") => Some(("xml:lang", Cow::Borrowed(value.as_str()))),
                (Some(XML), "space") => Some(("xml:space", Cow::Borrowed(value.as_str()))),
                (Some(XML), "base") => {
                    self.left.add("xml:base");
                    None
                }
                _ => None,
            };
            if let Some((key, value)) = outcome.filter(|(key, _)| !written.contains(key)) {
                written.push(key);
                self.write(key, &value);
            }
        }
    }

    /// What becomes of an attribute without a namespace, or of an address.
    fn attribute<'v>(&mut self, element: &str, name: &str, value: &'v str) -> Option<(&'static str, Cow<'v, str>)> {
        let outcome = match allowed::attribute(name) {
            Some(Attribute::Plain(known)) => is_plain(known, value).then_some((known, Cow::Borrowed(value))),
            Some(Attribute::Value(known)) => style::value(value).map(|value| (known, Cow::Owned(value))),
            Some(Attribute::Style) => {
                let rules = style::declarations(value, &mut self.left);
                let rules = rules.trim();
                return (!rules.is_empty()).then(|| ("style", Cow::Owned(rules.to_owned())));
            }
            Some(Attribute::Name) => {
                let animated = value.trim();
                allowed::is_animated(animated).then(|| ("attributeName", Cow::Owned(animated.to_owned())))
            }
            Some(Attribute::Address) => fits(element, value.trim()).then(|| ("href", Cow::Owned(value.trim().to_owned()))),
            None => None,
        };
        // What is for programs is missed by nobody.
        if outcome.is_none() && !name.starts_with("data-") && name != "target" {
            self.left.add(name);
        }
        outcome
    }

    fn write(&mut self, name: &str, value: &str) {
        self.out.push(' ');
        self.out.push_str(name);
        self.out.push_str("=\"");
        escape(&mut self.out, value, true);
        self.out.push('"');
    }

    fn text(&mut self, text: &str) -> Result<(), String> {
        if self.skipped > 0 {
            return Ok(());
        }
        match self.open.last_mut() {
            Some(Open { style: Some(rules), .. }) => rules.push_str(text),
            Some(_) => escape(&mut self.out, text, false),
            None if text.chars().all(|c| matches!(c, ' ' | '\t' | '\r' | '\n')) => {}
            None => return Err("text stands outside of it".to_owned()),
        }
        Ok(())
    }

    fn end(&mut self) {
        if self.skipped > 0 {
            self.skipped -= 1;
            return;
        }
        let Some(open) = self.open.pop() else { return };
        if let Some(rules) = &open.style {
            let rules = style::sheet(rules, &mut self.left);
            escape(&mut self.out, &rules, false);
        }
        self.undeclare(&open.prefixes);
        self.out.push_str("</");
        self.out.push_str(open.name);
        self.out.push('>');
    }

    fn finish(mut self) -> Result<Drawing, String> {
        if !self.has_root || !self.open.is_empty() || self.skipped > 0 {
            return Err("it ends too early".to_owned());
        }
        self.out.push('\n');
        Ok(Drawing { left_out: self.left.summary(), bytes: self.out.into_bytes() })
    }
}

/// Whether a value is one of an attribute that holds numbers and names: nothing that style rules would load, were it one of
/// theirs. Words may be any.
fn is_plain(name: &str, value: &str) -> bool {
    matches!(name, "id" | "class" | "aria-label" | "aria-roledescription")
        || !(value.contains(['\\', '@']) || value.to_ascii_lowercase().contains("url("))
}

/// The prefix and the local part of a name.
fn split(name: &str) -> (&str, &str) {
    name.split_once(':').unwrap_or(("", name))
}

/// Whether an address fits an element: links may lead anywhere safe, pictures may be within the drawing, all else leads to parts
/// of it.
fn fits(element: &str, address: &str) -> bool {
    match element {
        "a" => crate::formats::html::is_safe_link(address) && !address.chars().any(char::is_control),
        "image" | "feImage" => is_fragment(address) || is_raster(address),
        _ => is_fragment(address),
    }
}

/// Whether an address leads to a part of the drawing.
fn is_fragment(address: &str) -> bool {
    address.strip_prefix('#').is_some_and(|rest| !rest.chars().any(|c| c.is_whitespace() || c.is_control()))
}

/// Whether an address holds a picture that is no drawing.
fn is_raster(address: &str) -> bool {
    let rest = address.strip_prefix("data:image/").unwrap_or_default();
    let kinds = ["png", "jpeg", "jpg", "gif", "webp", "avif", "bmp"];
    let is_kind = |kind: &str| rest.strip_prefix(kind).is_some_and(|rest| rest.starts_with(';'));
    kinds.into_iter().any(is_kind) && is_base64(rest)
}

/// Whether what stands behind the kind of a `data:` address is in base 64 (RFC 2397, RFC 4648).
fn is_base64(rest: &str) -> bool {
    let is_letter = |c: char| c.is_ascii_alphanumeric() || matches!(c, '+' | '/' | '=' | ' ' | '\t' | '\r' | '\n');
    rest.split_once(";base64,").is_some_and(|(kind, data)| {
        kind.chars().all(|c| c.is_ascii_alphanumeric() || matches!(c, '/' | '-' | '.' | '+' | ';' | '='))
            && data.chars().all(is_letter)
    })
}

/// Text as XML has it (XML 1.0, sections 2.2 and 2.4).
fn escape(out: &mut String, text: &str, in_attribute: bool) {
    for c in text.chars() {
        match c {
            '&' => out.push_str("&amp;"),
            '<' => out.push_str("&lt;"),
            '>' => out.push_str("&gt;"),
            '"' if in_attribute => out.push_str("&quot;"),
            '\n' | '\t' | '\r' if in_attribute => out.push(' '),
            '\r' => out.push_str("&#13;"),
            '\n' | '\t' => out.push(c),
            c if xml::is_allowed(c) => out.push(c),
            _ => {}
        }
    }
}

#[cfg(test)]
mod tests;
