//! The text of an XML document: its encoding, the characters that it may have, and the entities that it declares.

use encoding_rs::{Encoding, UTF_8};
use std::borrow::Cow;
use std::collections::HashMap;

/// A drawing declares no more entities than this, and no longer ones.
const MOST_ENTITIES: usize = 100;
const LONGEST_ENTITY: usize = 300;

/// The text of an XML document, by its byte order mark or what it says of itself (XML 1.0, section 4.3.3).
pub(crate) fn decode(bytes: &[u8]) -> Result<Cow<'_, str>, String> {
    let (encoding, start) = match Encoding::for_bom(bytes) {
        Some((encoding, length)) => (encoding, length),
        None => match declared(bytes) {
            Some(label) => {
                let label = String::from_utf8_lossy(label);
                let known = Encoding::for_label(label.as_bytes()).ok_or_else(|| format!("its encoding {label} is not known"))?;
                (known, 0)
            }
            None => (UTF_8, 0),
        },
    };
    let text = encoding.decode_without_bom_handling_and_without_replacement(&bytes[start..]);
    let text = text.ok_or_else(|| format!("it is not {}", encoding.name()))?;
    if text.contains(|c| !is_allowed(c)) {
        return Ok(Cow::Owned(text.chars().filter(|c| is_allowed(*c)).collect()));
    }
    Ok(text)
}

/// Whether XML allows a character (XML 1.0, section 2.2). Others are taken out before anything is parsed, so that nothing is
/// read as one thing here and as another where they are gone.
pub(crate) const fn is_allowed(c: char) -> bool {
    matches!(c, '\t' | '\n' | '\r' | ' '..='\u{D7FF}' | '\u{E000}'..='\u{FFFD}' | '\u{10000}'..)
}

/// The encoding that the declaration names at the very beginning.
fn declared(bytes: &[u8]) -> Option<&[u8]> {
    let declaration = bytes.strip_prefix(b"<?xml")?;
    let declaration = &declaration[..memchr::memmem::find(&declaration[..declaration.len().min(1024)], b"?>")?];
    let value = declaration[memchr::memmem::find(declaration, b"encoding")? + 8..].trim_ascii_start();
    let value = value.strip_prefix(b"=")?.trim_ascii_start();
    let (&quote, value) = value.split_first().filter(|(quote, _)| matches!(quote, b'"' | b'\''))?;
    Some(&value[..memchr::memchr(quote, value)?])
}

/// Entities that a drawing declares, as drawing programs do for the names of their namespaces. Those that hold markup or other
/// entities are none, so that nothing grows.
#[derive(Debug, Default)]
pub(crate) struct Entities(HashMap<String, String>);

impl Entities {
    /// Those of a document type declaration.
    pub(crate) fn declared(declarations: &str) -> Self {
        let mut found = HashMap::new();
        for declaration in declarations.split("<!ENTITY").skip(1).take(MOST_ENTITIES) {
            let Some((name, rest)) = declaration.trim_start().split_once(char::is_whitespace) else { continue };
            let rest = rest.trim_start();
            let Some(quote) = rest.chars().next().filter(|c| matches!(c, '"' | '\'')) else { continue };
            let Some((value, _)) = rest[1..].split_once(quote) else { continue };
            if value.len() <= LONGEST_ENTITY && !value.contains(['&', '<', '%']) {
                found.entry(name.to_owned()).or_insert_with(|| value.to_owned());
            }
        }
        Self(found)
    }

    /// What a reference stands for: a character, one of the five names that XML defines, or what the drawing declares.
    pub(crate) fn meaning(&self, reference: &str) -> Option<String> {
        let number = reference.strip_prefix('#');
        let code = number.map(|number| match number.strip_prefix('x') {
            Some(digits) => u32::from_str_radix(digits, 16),
            None => number.parse(),
        });
        match code {
            Some(code) => code.ok().and_then(char::from_u32).filter(|c| is_allowed(*c)).map(String::from),
            None => quick_xml::escape::resolve_predefined_entity(reference)
                .map(str::to_owned)
                .or_else(|| self.0.get(reference).cloned()),
        }
    }

    /// The value of an attribute with its references resolved; none where one of them stands for nothing.
    pub(crate) fn resolve<'v>(&self, value: &'v str) -> Option<Cow<'v, str>> {
        if memchr::memchr(b'&', value.as_bytes()).is_none() {
            return Some(Cow::Borrowed(value));
        }
        let mut out = String::with_capacity(value.len());
        let mut rest = value;
        while let Some((before, after)) = rest.split_once('&') {
            out.push_str(before);
            let (reference, after) = after.split_once(';')?;
            out.push_str(&self.meaning(reference)?);
            rest = after;
        }
        out.push_str(rest);
        Some(Cow::Owned(out))
    }
}
