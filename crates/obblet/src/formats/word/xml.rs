//! Events of a part of markup, with names that are known by their namespaces.
//!
//! Prefixes are mapped where they are declared, which is nearly always at the root: resolving every name through a stack of
//! scopes would cost more than all the rest. Nothing is ever loaded, and no entity but the five of XML stands for anything.

use quick_xml::Reader;
use quick_xml::events::{BytesStart, Event as Raw};
use smallvec::SmallVec;
use std::borrow::Cow;

/// The namespaces that mean something here.
#[derive(Clone, Copy, Debug, PartialEq, Eq)]
pub(super) enum Ns {
    /// Word processing.
    W,
    /// Relations.
    R,
    /// Formulas.
    M,
    /// Drawings, and their frames in text, pictures, charts and diagrams.
    A,
    Wp,
    Pic,
    Chart,
    Diagram,
    /// Alternate content.
    Mc,
    /// The old markup of vector graphics, and what office programs add to it.
    V,
    O,
    /// Shapes in text.
    Wps,
    /// What later versions of word processing add.
    W14,
    /// Any other.
    Other,
}

/// One event.
pub(super) enum Event<'s> {
    Open(Element<'s>),
    Close,
    Text(Cow<'s, str>),
}

/// The start of an element.
pub(super) struct Element<'s> {
    pub(super) ns: Ns,
    start: BytesStart<'s>,
    local_at: usize,
}

impl Element<'_> {
    /// Its name without a prefix.
    #[inline]
    pub(super) fn local(&self) -> &[u8] {
        &self.start.name().into_inner().as_bytes()[self.local_at..]
    }

    /// Whether it is the element of a name in the namespace of word processing.
    #[inline]
    pub(super) fn is(&self, local: &[u8]) -> bool {
        self.ns == Ns::W && self.local() == local
    }

    /// The attribute of a name without prefix, whatever its prefix is, but for those of relations.
    pub(super) fn get(&self, local: &[u8]) -> Option<Cow<'_, str>> {
        self.find(|prefix, name| name == local && !matches!(prefix, b"r" | b"xmlns"))
    }

    /// An attribute that names a relation.
    pub(super) fn relation(&self, local: &[u8]) -> Option<Cow<'_, str>> {
        self.find(|prefix, name| name == local && prefix.first() == Some(&b'r'))
    }

    /// The attribute `val`.
    #[inline]
    pub(super) fn val(&self) -> Option<Cow<'_, str>> {
        self.get(b"val")
    }

    /// A whole number in an attribute. Some programs write fractions, which are cut off.
    pub(super) fn number(&self, local: &[u8]) -> Option<i32> {
        number(&self.get(local)?)
    }

    /// Whether a property is on: it is where it is there, unless its value says otherwise (ECMA-376, part 1, section
    /// 22.9.2.7).
    pub(super) fn is_on(&self) -> bool {
        self.val().is_none_or(|value| is_on(&value))
    }

    /// All attributes, by their names without prefixes.
    pub(super) fn each(&self, mut meet: impl FnMut(&[u8], Cow<'_, str>)) {
        for (prefix, name, raw) in Attributes::of(self.start.attributes_raw()) {
            if prefix != b"xmlns" {
                meet(name, value(raw));
            }
        }
    }

    #[inline]
    fn find(&self, fits: impl Fn(&[u8], &[u8]) -> bool) -> Option<Cow<'_, str>> {
        Attributes::of(self.start.attributes_raw()).find(|(prefix, name, _)| fits(prefix, name)).map(|(_, _, raw)| value(raw))
    }
}

/// The attributes of a tag: prefix, name, and value as it is written. Most tags have one or two short ones, and most of those
/// are passed over.
struct Attributes<'r> {
    raw: &'r str,
    at: usize,
}

impl<'r> Attributes<'r> {
    const fn of(raw: &'r str) -> Self {
        Self { raw, at: 0 }
    }
}

impl<'r> Iterator for Attributes<'r> {
    type Item = (&'r [u8], &'r [u8], &'r str);

    #[inline]
    fn next(&mut self) -> Option<Self::Item> {
        let bytes = self.raw.as_bytes();
        let mut at = self.at;
        while bytes.get(at)?.is_ascii_whitespace() {
            at += 1;
        }
        let (start, mut colon) = (at, None);
        loop {
            match *bytes.get(at)? {
                b'=' => break,
                b':' => colon = Some(at),
                _ => {}
            }
            at += 1;
        }
        let name = bytes[start..at].trim_ascii_end();
        at += 1;
        while bytes.get(at)?.is_ascii_whitespace() {
            at += 1;
        }
        let quote = bytes[at];
        let from = at + 1;
        let length = if matches!(quote, b'"' | b'\'') { memchr::memchr(quote, bytes.get(from..)?)? } else { return None };
        self.at = from + length + 1;
        let (prefix, name) = match colon {
            Some(colon) if colon - start < name.len() => (&name[..colon - start], &name[colon - start + 1..]),
            _ => (&name[..0], name),
        };
        Some((prefix, name, self.raw.get(from..from + length)?))
    }
}

/// A value without its references.
fn value(raw: &str) -> Cow<'_, str> {
    if !raw.as_bytes().contains(&b'&') {
        return Cow::Borrowed(raw);
    }
    quick_xml::escape::unescape(raw).unwrap_or(Cow::Borrowed(raw))
}

/// A whole number; some programs write fractions or units of points.
pub(super) fn number(value: &str) -> Option<i32> {
    let value = value.trim();
    if let Ok(number) = value.parse() {
        return Some(number);
    }
    let (digits, twips) = match value.strip_suffix("pt") {
        Some(points) => (points, 20.0),
        None => match value.strip_suffix("in") {
            Some(inches) => (inches, 1440.0),
            None => match value.strip_suffix("cm") {
                Some(centimetres) => (centimetres, 566.93),
                None => match value.strip_suffix("mm") {
                    Some(millimetres) => (millimetres, 56.693),
                    None => (value, 1.0),
                },
            },
        },
    };
    digits.parse::<f64>().ok().filter(|number| number.is_finite()).map(|number| (number * twips) as i32)
}

pub(super) fn is_on(value: &str) -> bool {
    !matches!(value, "0" | "false" | "off" | "no" | "none")
}

/// The next child, or the end of the parent.
pub(super) fn next_child<'s>(xml: &mut Xml<'s>) -> Option<Event<'s>> {
    loop {
        match xml.next()? {
            Event::Text(_) => {}
            event => return Some(event),
        }
    }
}

#[inline]
fn split(name: &[u8]) -> (&[u8], &[u8]) {
    match memchr::memchr(b':', name) {
        Some(colon) => (&name[..colon], &name[colon + 1..]),
        None => (b"", name),
    }
}

/// Reads a part, event by event. An element without content is opened and closed like any other.
pub(super) struct Xml<'s> {
    reader: Reader<&'s [u8]>,
    source: &'s str,
    prefixes: SmallVec<[(&'s [u8], Ns); 16]>,
    /// The prefix that most names have.
    main: &'s [u8],
    main_ns: Ns,
    /// Whether the element that was opened last is closed already.
    closes: bool,
    started: usize,
    /// Whether the markup broke off or is broken.
    pub(super) is_broken: bool,
    /// The first entity that stood for something of its own; it is left out.
    pub(super) entity: Option<String>,
}

impl<'s> Xml<'s> {
    pub(super) fn new(source: &'s str) -> Self {
        let mut reader = Reader::from_str(source);
        let config = reader.config_mut();
        config.check_end_names = false;
        config.allow_unmatched_ends = true;
        config.allow_dangling_amp = true;
        Self {
            reader,
            source,
            prefixes: SmallVec::new(),
            main: b"",
            main_ns: Ns::Other,
            closes: false,
            started: 0,
            is_broken: false,
            entity: None,
        }
    }

    /// The next event.
    #[inline]
    pub(super) fn next(&mut self) -> Option<Event<'s>> {
        if self.closes {
            self.closes = false;
            return Some(Event::Close);
        }
        loop {
            self.started = self.position();
            match self.reader.read_event() {
                Ok(Raw::Start(start)) => return Some(Event::Open(self.element(start))),
                Ok(Raw::Empty(start)) => {
                    self.closes = true;
                    return Some(Event::Open(self.element(start)));
                }
                Ok(Raw::End(_)) => return Some(Event::Close),
                Ok(Raw::Text(text)) => return Some(Event::Text(text.into_inner())),
                Ok(Raw::CData(text)) => return Some(Event::Text(text.into_inner())),
                Ok(Raw::GeneralRef(reference)) => {
                    if let Some(text) = self.reference(&reference) {
                        return Some(Event::Text(text));
                    }
                }
                Ok(Raw::Comment(_) | Raw::Decl(_) | Raw::PI(_) | Raw::DocType(_)) => {}
                Ok(Raw::Eof) => return None,
                Err(_) => {
                    self.is_broken = true;
                    return None;
                }
            }
        }
    }

    /// Passes over what is in the element that was opened last, and its end.
    pub(super) fn skip(&mut self) {
        let mut depth = 1_usize;
        while depth > 0 {
            match self.next() {
                Some(Event::Open(_)) => depth += 1,
                Some(Event::Close) => depth -= 1,
                Some(Event::Text(_)) => {}
                None => return,
            }
        }
    }

    /// The text in the element that was opened last, without its elements; passes over its end.
    pub(super) fn text(&mut self) -> String {
        let (mut depth, mut out) = (1_usize, String::new());
        while depth > 0 {
            match self.next() {
                Some(Event::Open(_)) => depth += 1,
                Some(Event::Close) => depth -= 1,
                Some(Event::Text(text)) => out.push_str(&text),
                None => break,
            }
        }
        out
    }

    /// The markup of the element that was opened last, which began at `start`; passes over its end.
    pub(super) fn markup(&mut self, start: usize) -> &'s str {
        self.skip();
        self.source.get(start..self.position()).unwrap_or_default()
    }

    /// Where the element that was opened last begins.
    pub(super) const fn element_start(&self) -> usize {
        self.started
    }

    /// How many bytes were read.
    pub(super) fn position(&self) -> usize {
        usize::try_from(self.reader.buffer_position()).unwrap_or(usize::MAX)
    }

    #[inline]
    fn element(&mut self, start: BytesStart<'s>) -> Element<'s> {
        let name = start.name().into_inner().as_bytes();
        let (prefix, _) = split(name);
        let local_at = if prefix.is_empty() { 0 } else { prefix.len() + 1 };
        if prefix == self.main && self.main_ns != Ns::Other {
            return Element { ns: self.main_ns, start, local_at };
        }
        let ns = self.resolve(&start, prefix.len());
        Element { ns, start, local_at }
    }

    #[cold]
    fn declare(&mut self, start: &BytesStart<'s>) {
        // Attributes borrow from the event; what is kept has to borrow from the source.
        for (prefix, name, raw) in Attributes::of(start.attributes_raw()) {
            let declared = match (prefix, name) {
                (b"xmlns", name) => name,
                (b"", b"xmlns") => b"".as_slice(),
                _ => continue,
            };
            let ns = Ns::of(value(raw).trim());
            let Some(declared) = self.in_source(declared) else { continue };
            if let Some(known) = self.prefixes.iter_mut().find(|(known, _)| *known == declared) {
                known.1 = ns;
            } else {
                self.prefixes.push((declared, ns));
            }
            if ns == Ns::W {
                (self.main, self.main_ns) = (declared, ns);
            }
        }
    }

    /// A name as a slice of the source: the first place where it stands will do.
    fn in_source(&self, name: &[u8]) -> Option<&'s [u8]> {
        let at = memchr::memmem::find(self.source.as_bytes(), name)?;
        self.source.as_bytes().get(at..at + name.len())
    }

    fn resolve(&mut self, start: &BytesStart<'s>, prefix_length: usize) -> Ns {
        if memchr::memmem::find(start.attributes_raw().as_bytes(), b"xmlns").is_some() {
            self.declare(start);
        }
        let prefix = &start.name().into_inner().as_bytes()[..prefix_length];
        if let Some((_, ns)) = self.prefixes.iter().find(|(known, _)| *known == prefix) {
            return *ns;
        }
        // Prefixes that are declared nowhere mean what they mean everywhere else.
        match prefix {
            b"w" => Ns::W,
            b"r" => Ns::R,
            b"m" => Ns::M,
            b"a" => Ns::A,
            b"wp" => Ns::Wp,
            b"pic" => Ns::Pic,
            b"mc" => Ns::Mc,
            b"v" => Ns::V,
            b"o" => Ns::O,
            b"wps" => Ns::Wps,
            _ => Ns::Other,
        }
    }

    fn reference(&mut self, reference: &quick_xml::events::BytesRef<'s>) -> Option<Cow<'s, str>> {
        if let Ok(Some(character)) = reference.resolve_char_ref() {
            return Some(Cow::Owned(character.to_string()));
        }
        let name: &str = reference;
        match name {
            "amp" => Some(Cow::Borrowed("&")),
            "lt" => Some(Cow::Borrowed("<")),
            "gt" => Some(Cow::Borrowed(">")),
            "quot" => Some(Cow::Borrowed("\"")),
            "apos" => Some(Cow::Borrowed("'")),
            name => {
                self.entity.get_or_insert_with(|| name.to_owned());
                None
            }
        }
    }
}

#[cfg(test)]
mod tests {
    use super::*;

    fn events(source: &str) -> String {
        let (mut xml, mut out) = (Xml::new(source), String::new());
        while let Some(event) = xml.next() {
            match event {
                Event::Open(element) => out += &format!("<{:?}:{}", element.ns, String::from_utf8_lossy(element.local())),
                Event::Close => out.push('>'),
                Event::Text(text) => out += &text,
            }
        }
        out
    }

    #[test]
    fn names_are_known_by_their_namespaces() {
        let w = "http://schemas.openxmlformats.org/wordprocessingml/2006/main";
        let strict = "http://purl.oclc.org/ooxml/wordprocessingml/main";
        assert_eq!(events(&format!("<w:p xmlns:w='{w}'><w:r>a&amp;b&#x41;&x;</w:r></w:p>")), "<W:p<W:ra&bA>>");
        assert_eq!(events(&format!("<ns0:p xmlns:ns0='{strict}'><ns0:br/></ns0:p>")), "<W:p<W:br>>");
        assert_eq!(events(&format!("<p xmlns='{w}'><x:y xmlns:x='u'/></p>")), "<W:p<Other:y>>");
        assert_eq!(events("<w:p><w:r>t"), "<W:p<W:rt");
    }

    #[test]
    fn numbers_have_units_in_some_programs() {
        assert_eq!([number("12"), number("12.7"), number("1.5pt"), number("x")], [Some(12), Some(12), Some(30), None]);
    }
}
