//! Fields: instructions, and what they came to when the document was saved (ECMA-376, part 1, section 17.16).
//!
//! A field may span runs and paragraphs and hold others. What it came to is text like any other; what it instructs is looked
//! at for links, for lists of contents, and for the few that are saved without a result.

use super::super::xml::{Element, Event, Xml};
use super::open::Wrap;
use super::sections::InHeader;
use super::{ContentsLists, Reader};
use crate::document::{Kind, Shows};
use crate::fast_hash::HashSet;

bitflags::bitflags! {
    /// How far a field is, and what becomes of it.
    #[derive(Clone, Copy, Debug, Default, PartialEq, Eq, Hash)]
    pub(super) struct FieldState: u8 {
        /// Its instruction is over.
        const IN_RESULT = 1 << 0;
        /// It has a result.
        const HAS_RESULT = 1 << 1;
        /// Its result is left out.
        const OMITS = 1 << 2;
        /// It is an element of its own.
        const SIMPLE = 1 << 3;
    }
}

/// A field that has begun.
#[derive(Debug, Default)]
pub(super) struct Field {
    instruction: String,
    state: FieldState,
    pub(super) link: Option<u32>,
    /// What a field of a form shows that has no result.
    shown: Option<String>,
}

/// A link of the document.
#[derive(Debug, Default)]
pub(super) struct Link {
    pub(super) address: String,
    pub(super) title: String,
    /// What it shows of its target, where it is a reference.
    pub(super) shows: Option<Shows>,
    /// Whether something in the text is this link.
    pub(super) is_shown: bool,
    /// Where another link begins in it, or it begins in another one.
    pub(super) covered: Option<u32>,
}

impl Reader<'_, '_> {
    /// `fldChar`, which was opened last: a field begins, its result begins, or it ends.
    pub(super) fn field_mark(&mut self, element: &Element<'_>, xml: &mut Xml<'_>) {
        self.ensure_paragraph();
        match element.get(b"fldCharType").as_deref() {
            Some("begin") => {
                let shown = form_field(xml);
                self.fields.push(Field { shown, ..Field::default() });
                self.fields_in_instruction += 1;
                return;
            }
            Some("separate") => {
                if let Some(field) = self.fields.last_mut().filter(|field| !field.state.contains(FieldState::IN_RESULT)) {
                    field.state.insert(FieldState::IN_RESULT);
                    self.fields_in_instruction -= 1;
                    self.begin_result();
                }
            }
            Some("end") => {
                if let Some(field) = self.fields.pop() {
                    if !field.state.contains(FieldState::IN_RESULT) {
                        self.fields_in_instruction -= 1;
                    }
                    self.end_field(&field);
                }
            }
            _ => {}
        }
        xml.skip();
    }

    pub(super) fn field_instruction(&mut self, text: &str) {
        if let Some(field) = self.fields.iter_mut().rev().find(|field| !field.state.contains(FieldState::IN_RESULT)) {
            field.instruction.push_str(text);
        }
    }

    /// `fldSimple`: a field whose result is in the element.
    pub(super) fn simple_field(&mut self, instruction: &str) {
        self.fields.push(Field {
            instruction: instruction.to_owned(),
            state: FieldState::IN_RESULT | FieldState::SIMPLE,
            ..Field::default()
        });
        self.begin_result();
    }

    pub(super) fn end_simple_field(&mut self) {
        // Fields that were begun within and never ended go with it.
        while let Some(field) = self.fields.pop() {
            if !field.state.contains(FieldState::IN_RESULT) {
                self.fields_in_instruction -= 1;
            }
            self.end_field(&field);
            if field.state.contains(FieldState::SIMPLE) {
                break;
            }
        }
    }

    /// A part ends. What stands in a field whose instruction never came to an end is nowhere to be seen.
    pub(super) fn end_open_fields(&mut self) {
        for field in std::mem::take(&mut self.fields) {
            if !field.state.contains(FieldState::IN_RESULT) && !field.instruction.trim().is_empty() {
                self.diagnostics.fields.add(self.offset, field.instruction.trim());
            }
        }
    }

    /// The instruction of the innermost field is known.
    fn begin_result(&mut self) {
        let Some(field) = self.fields.last_mut() else { return };
        field.state.insert(FieldState::HAS_RESULT);
        let instruction = std::mem::take(&mut field.instruction);
        let words = words(&instruction);
        field.instruction = instruction;
        let Some((name, arguments)) = words.split_first() else { return };
        let has = |switch: &str| arguments.iter().any(|word| !word.quoted && word.text.eq_ignore_ascii_case(switch));
        match name.text.to_ascii_uppercase().as_str() {
            "HYPERLINK" => {
                let link = hyperlink(arguments);
                let link = self.link_to(link.address, link.place, link.title);
                self.field_is_link(link);
            }
            "REF" | "PAGEREF" | "NOTEREF" if has("\\h") => {
                let place = arguments.iter().find(|word| !word.text.starts_with('\\')).map(|word| word.text.clone());
                if has("\\r") || has("\\n") || has("\\w") {
                    self.refers_by_number = true;
                }
                let link = self.link_to(String::new(), place, None);
                if let Wrap::Link(link) = link
                    && let Some(link) = self.links.get_mut(link as usize)
                {
                    link.shows = Some(match name.text.to_ascii_uppercase().as_str() {
                        "PAGEREF" => Shows::Page,
                        "NOTEREF" => Shows::Number,
                        _ if has("\\r") || has("\\n") || has("\\w") => Shows::Number,
                        _ if has("\\p") => Shows::Position,
                        _ => Shows::Text,
                    });
                }
                self.field_is_link(link);
            }
            // A page of HTML has no number; the one of the last print would be wrong.
            "PAGE" | "NUMPAGES" | "SECTIONPAGES" | "STYLEREF" if self.in_header == InHeader::OfPage => {
                self.computed(&name.text.to_ascii_uppercase(), arguments);
            }
            "PAGE" | "NUMPAGES" | "SECTIONPAGES" if self.in_header == InHeader::InText => {
                if let Some(field) = self.fields.last_mut() {
                    field.state.insert(FieldState::OMITS);
                }
                self.page_numbers += 1;
                self.omit();
            }
            "TOC" if self.options.settings.contents != ContentsLists::Keep && !has("\\c") && !has("\\a") => {
                if let Some(field) = self.fields.last_mut() {
                    field.state.insert(FieldState::OMITS);
                }
                self.omit();
            }
            _ => {}
        }
    }

    /// A field whose text word processors compute anew on each page: what it shows is one such text.
    fn computed(&mut self, name: &str, arguments: &[Word]) {
        if let Some(field) = self.fields.last_mut() {
            field.state.insert(FieldState::OMITS);
        }
        self.ensure_paragraph();
        let parent = self.inline_parent();
        let node = self.doc.append_at(parent, Kind::Span, self.offset);
        let mut instruction = name.to_owned();
        for argument in arguments {
            let text = argument.text.replace('"', "");
            instruction.push_str(&if argument.quoted { format!(" \"{text}\"") } else { format!(" {text}") });
        }
        if name != "STYLEREF" {
            self.doc.append_text(node, "1");
        }
        self.doc.fields.set(node, instruction);
        self.omit();
    }

    fn field_is_link(&mut self, link: Wrap) {
        if let (Some(field), Wrap::Link(link)) = (self.fields.last_mut(), link) {
            field.link = Some(link);
            self.begin_link(link);
        }
    }

    fn end_field(&mut self, field: &Field) {
        if let Some(link) = field.link {
            self.end_link(link);
        }
        if field.state.contains(FieldState::OMITS) {
            self.end_omitted();
        }
        if field.state.contains(FieldState::HAS_RESULT) || self.fields_in_instruction > 0 {
            return;
        }
        if let Some(shown) = &field.shown {
            self.characters(shown);
            return;
        }
        let words = words(&field.instruction);
        let Some((name, arguments)) = words.split_first() else { return };
        match name.text.to_ascii_uppercase().as_str() {
            "AUTONUM" | "AUTONUMLGL" | "AUTONUMOUT" => {
                self.automatic_number += 1;
                let number = format!("{}.", self.automatic_number);
                self.characters(&number);
            }
            "SYMBOL" => match symbol(arguments) {
                Some(found) => self.characters(&found.to_string()),
                None => self.diagnostics.symbols.add_apart(self.offset, field.instruction.trim()),
            },
            "MACROBUTTON" | "GOTOBUTTON" => {
                let text: Vec<&str> = arguments.iter().skip(1).map(|word| word.text.as_str()).collect();
                self.characters(&text.join(" "));
            }
            "EQ" | "ADVANCE" => {
                let offset = self.offset;
                self.diagnostics.fields.add(offset, field.instruction.trim());
            }
            _ => {}
        }
    }

    /// A link to an address, to a place within the document, or to a place at an address.
    pub(super) fn link_to(&mut self, address: String, place: Option<String>, title: Option<String>) -> Wrap {
        let place = place.filter(|place| !place.is_empty());
        let mut href = address.trim().replace('\\', "/");
        if let Some(place) = place.filter(|_| !href.contains('#')) {
            if href.is_empty() {
                self.used_anchors.insert(place.clone());
            }
            href = format!("{href}#{place}");
        }
        if href.is_empty() {
            return Wrap::Nothing;
        }
        let is_drive = href.as_bytes().get(1) == Some(&b':') && href.as_bytes()[0].is_ascii_alphabetic();
        if is_drive || href.starts_with("file:") || href.starts_with("//") {
            self.diagnostics.local_links.add(self.offset, &href);
        }
        self.links.push(Link { address: href, title: title.unwrap_or_default(), ..Link::default() });
        Wrap::Link(self.links.len() as u32 - 1)
    }

    /// A link begins. Text can't be two links: one that begins within another covers it, or is covered by it.
    pub(super) fn begin_link(&mut self, link: u32) {
        if let Some(around) = self.open_links.last().copied()
            && self.is_shown()
        {
            for link in [around, link] {
                if let Some(link) = self.links.get_mut(link as usize) {
                    link.covered.get_or_insert(self.offset);
                }
            }
        }
        self.open_links.push(link);
    }

    pub(super) fn end_link(&mut self, link: u32) {
        if let Some(at) = self.open_links.iter().rposition(|open| *open == link) {
            self.open_links.truncate(at);
        }
    }

    /// Notes links whose addresses are nowhere: all of their text is of other links.
    pub(super) fn find_covered_links(&mut self) {
        let shown: HashSet<&str> = self.links.iter().filter(|link| link.is_shown).map(|link| link.address.as_str()).collect();
        for link in self.links.iter().filter(|link| !link.is_shown && !shown.contains(link.address.as_str())) {
            if let Some(offset) = link.covered {
                self.diagnostics.covered_links.add_apart(offset, &link.address);
            }
        }
    }

    /// `hyperlink`: a link by a relation, or to a bookmark.
    pub(super) fn hyperlink(&mut self, element: &Element<'_>) -> Wrap {
        let address = element.relation(b"id").and_then(|id| self.relations.get(&id).map(|relation| relation.target.clone()));
        let place = element.get(b"anchor").or_else(|| element.get(b"docLocation")).map(std::borrow::Cow::into_owned);
        let title = element.get(b"tooltip").map(std::borrow::Cow::into_owned);
        self.link_to(address.unwrap_or_default(), place, title)
    }
}

/// One word of an instruction.
#[derive(Debug, PartialEq, Eq)]
struct Word {
    text: String,
    quoted: bool,
}

/// The words of an instruction; those with spaces stand between quotation marks (section 17.16.2).
fn words(instruction: &str) -> Vec<Word> {
    let mut words = Vec::new();
    let mut letters = instruction.chars().peekable();
    while let Some(&c) = letters.peek() {
        if c.is_whitespace() {
            letters.next();
            continue;
        }
        let quoted = matches!(c, '"' | '\u{201C}' | '\u{201D}');
        if quoted {
            letters.next();
        }
        let mut text = String::new();
        while let Some(c) = letters.next() {
            let ends = if quoted { matches!(c, '"' | '\u{201C}' | '\u{201D}') } else { c.is_whitespace() };
            if ends {
                break;
            }
            // Within quotation marks a backslash stands before what would mean something.
            match letters.peek() {
                Some(&next) if quoted && c == '\\' && matches!(next, '\\' | '"') => {
                    text.push(next);
                    letters.next();
                }
                _ => text.push(c),
            }
            if !quoted && letters.peek() == Some(&'"') {
                break;
            }
        }
        words.push(Word { text, quoted });
    }
    words
}

/// The character that a `SYMBOL` field shows (section 17.16.5.61): of a symbol font, of Unicode with `\\u`, else of the code
/// page that stands for all Western ones.
fn symbol(arguments: &[Word]) -> Option<char> {
    let code = &arguments.first()?.text;
    let code = match code.strip_prefix("0x").or_else(|| code.strip_prefix("0X")) {
        Some(digits) => u32::from_str_radix(digits, 16).ok()?,
        None => code.parse().ok()?,
    };
    let font = arguments.iter().skip_while(|word| !word.text.eq_ignore_ascii_case("\\f")).nth(1);
    let table = font.and_then(|font| super::symbols::table(&font.text));
    match (u8::try_from(code), table) {
        (Ok(byte), Some(table)) => table.get(byte),
        (Ok(byte), None) => encoding_rs::WINDOWS_1252.decode_without_bom_handling(&[byte]).0.chars().next(),
        _ => char::from_u32(code),
    }
}

struct Hyperlink {
    address: String,
    place: Option<String>,
    title: Option<String>,
}

fn hyperlink(arguments: &[Word]) -> Hyperlink {
    let mut link = Hyperlink { address: String::new(), place: None, title: None };
    let mut words = arguments.iter();
    while let Some(word) = words.next() {
        if word.quoted || !word.text.starts_with('\\') {
            if link.address.is_empty() {
                link.address.clone_from(&word.text);
            }
            continue;
        }
        match word.text.to_ascii_lowercase().as_str() {
            "\\l" => link.place = words.next().map(|word| word.text.clone()),
            "\\o" => link.title = words.next().map(|word| word.text.clone()),
            "\\t" => drop(words.next()),
            _ => {}
        }
    }
    link
}

/// Reads the properties of a field of a form, up to the end of `fldChar`: what a checkbox or a list of choices shows.
fn form_field(xml: &mut Xml<'_>) -> Option<String> {
    let (mut depth, mut shown) = (1_usize, None);
    let (mut choices, mut chosen, mut is_list) = (Vec::new(), 0_usize, false);
    while depth > 0 {
        match xml.next() {
            Some(Event::Open(element)) => {
                depth += 1;
                match element.local() {
                    b"checkBox" => shown = Some("\u{2610}".to_owned()),
                    b"default" | b"checked" if shown.is_some() => {
                        shown = Some(if element.is_on() { "\u{2612}" } else { "\u{2610}" }.to_owned());
                    }
                    b"ddList" => is_list = true,
                    b"result" if is_list => {
                        chosen = element.number(b"val").and_then(|index| usize::try_from(index).ok()).unwrap_or(0);
                    }
                    b"listEntry" => choices.push(element.val().unwrap_or_default().into_owned()),
                    _ => {}
                }
            }
            Some(Event::Close) => depth -= 1,
            Some(Event::Text(_)) => {}
            None => break,
        }
    }
    shown.or_else(|| choices.into_iter().nth(chosen))
}

impl Reader<'_, '_> {
    /// A bookmark begins here. Whether anything leads to it is known at the end.
    pub(super) fn bookmark(&mut self, element: &Element<'_>) {
        let name = element.get(b"name").unwrap_or_default().into_owned();
        if name.is_empty() || name == "_GoBack" {
            return;
        }
        let id = self.doc.intern(&name);
        let begun = self.context().paragraph.as_ref().is_some_and(|paragraph| paragraph.begun);
        let anchor = if begun {
            // Where text stands already, the place is within the line, behind its space.
            if self.context().paragraph.as_ref().is_some_and(|paragraph| paragraph.space) && self.is_shown() {
                self.inline_parent();
            }
            let parent = self.context().paragraph.as_ref().map_or(self.doc.root(), |paragraph| {
                paragraph.inline.last().filter(|_| self.wraps.is_empty()).map_or(paragraph.floor, |(_, node)| *node)
            });
            self.doc.append_at(parent, crate::document::Kind::Anchor, self.offset)
        } else {
            let anchor = self.doc.create(crate::document::Kind::Anchor);
            self.waiting_anchors.push(anchor);
            anchor
        };
        self.doc.attributes_mut(anchor).id = Some(id);
        self.anchors.push((anchor, name));
    }
}

#[cfg(test)]
mod tests {
    use super::*;

    #[test]
    fn instructions_are_split_into_words() {
        let link = hyperlink(&words(" HYPERLINK \"C:\\\\tides\\\\a b.docx\" \\l \"spring\" \\o \"A tip\" \\* MERGEFORMAT ")[1..]);
        assert_eq!((link.address.as_str(), link.place.as_deref()), ("C:\\tides\\a b.docx", Some("spring")));
        assert_eq!(link.title.as_deref(), Some("A tip"));
        let link = hyperlink(&words("HYPERLINK http://obblet.example/")[1..]);
        assert_eq!((link.address.as_str(), link.place), ("http://obblet.example/", None));
    }
}
