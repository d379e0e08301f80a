//! Fields: instructions, and what they came to when the document was saved (ECMA-376, part 1, section 17.16).
//!
//! A field may span runs and paragraphs and hold others. What it came to is text like any other; what it instructs is looked
//! at for links, for lists of contents, and for the few that are saved without a result.

use super::super::model::fields::{FieldCode, Instruction};
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

/// The fields that are open.
#[derive(Debug, Default)]
pub(super) struct Fields {
    pub(super) open: Vec<Field>,
    /// How many of them are in their instructions still.
    pub(super) in_instruction: usize,
    /// How many paragraphs were numbered by fields.
    paragraph_numbers: u32,
}

impl Fields {
    /// No field goes on in another part.
    pub(super) fn end_part(&mut self) {
        (self.open, self.in_instruction) = (Vec::new(), 0);
    }
}

/// The links of the document.
#[derive(Debug, Default)]
pub(super) struct Links {
    pub(super) all: Vec<Link>,
    /// Those that have begun and not ended, innermost last.
    pub(super) open: Vec<u32>,
}

impl Links {
    /// A link begins in text that is shown or not. Text can't be two links: one that begins within another covers it, or is
    /// covered by it.
    fn begin(&mut self, link: u32, place: u32, is_shown: bool) {
        if let Some(around) = self.open.last().copied()
            && is_shown
        {
            for link in [around, link] {
                if let Some(link) = self.all.get_mut(link as usize) {
                    link.covered.get_or_insert(place);
                }
            }
        }
        self.open.push(link);
    }

    /// The addresses of links that are nowhere, for all of their text is of other links, and where.
    pub(super) fn covered(&self) -> Vec<(u32, &str)> {
        let shown: HashSet<&str> = self.all.iter().filter(|link| link.is_shown).map(|link| link.address.as_str()).collect();
        let hidden = self.all.iter().filter(|link| !link.is_shown && !shown.contains(link.address.as_str()));
        hidden.filter_map(|link| Some((link.covered?, link.address.as_str()))).collect()
    }
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
                self.fields.open.push(Field { shown, ..Field::default() });
                self.fields.in_instruction += 1;
                return;
            }
            Some("separate") => {
                if let Some(field) = self.fields.open.last_mut().filter(|field| !field.state.contains(FieldState::IN_RESULT)) {
                    field.state.insert(FieldState::IN_RESULT);
                    self.fields.in_instruction -= 1;
                    self.begin_result();
                }
            }
            Some("end") => {
                if let Some(field) = self.fields.open.pop() {
                    if !field.state.contains(FieldState::IN_RESULT) {
                        self.fields.in_instruction -= 1;
                    }
                    self.end_field(&field);
                }
            }
            _ => {}
        }
        xml.skip();
    }

    pub(super) fn field_instruction(&mut self, text: &str) {
        if let Some(field) = self.fields.open.iter_mut().rev().find(|field| !field.state.contains(FieldState::IN_RESULT)) {
            field.instruction.push_str(text);
        }
    }

    /// `fldSimple`: a field whose result is in the element.
    pub(super) fn simple_field(&mut self, instruction: &str) {
        self.fields.open.push(Field {
            instruction: instruction.to_owned(),
            state: FieldState::IN_RESULT | FieldState::SIMPLE,
            ..Field::default()
        });
        self.begin_result();
    }

    pub(super) fn end_simple_field(&mut self) {
        // Fields that were begun within and never ended go with it.
        while let Some(field) = self.fields.open.pop() {
            if !field.state.contains(FieldState::IN_RESULT) {
                self.fields.in_instruction -= 1;
            }
            self.end_field(&field);
            if field.state.contains(FieldState::SIMPLE) {
                break;
            }
        }
    }

    /// A part ends. What stands in a field whose instruction never came to an end is nowhere to be seen.
    pub(super) fn end_open_fields(&mut self) {
        for field in std::mem::take(&mut self.fields.open) {
            if !field.state.contains(FieldState::IN_RESULT) && !field.instruction.trim().is_empty() {
                self.diagnostics.fields.add(self.place.paragraph, field.instruction.trim());
            }
        }
    }

    /// The instruction of the innermost field is known.
    fn begin_result(&mut self) {
        let Some(field) = self.fields.open.last_mut() else { return };
        field.state.insert(FieldState::HAS_RESULT);
        let Some(instruction) = Instruction::read(&field.instruction) else { return };
        match instruction.code {
            FieldCode::Link => {
                let link = instruction.hyperlink();
                let link = self.link_to(link.address, link.place, link.title);
                self.field_is_link(link);
            }
            FieldCode::Reference | FieldCode::PageOf | FieldCode::NoteOf if instruction.has("\\h") => {
                self.begin_reference(&instruction);
            }
            // A page of HTML has no number; the one of the last print would be wrong.
            FieldCode::Page | FieldCode::Pages | FieldCode::PagesOfSection | FieldCode::LastOfStyle
                if self.sections.in_header == InHeader::OfPage =>
            {
                self.computed(&instruction);
            }
            FieldCode::Page | FieldCode::Pages | FieldCode::PagesOfSection if self.sections.in_header == InHeader::InText => {
                self.omit_result();
                self.sections.page_numbers += 1;
            }
            FieldCode::Contents
                if self.options.settings.contents != ContentsLists::Keep
                    && !instruction.has("\\c")
                    && !instruction.has("\\a") =>
            {
                self.omit_result();
            }
            _ => {}
        }
    }

    /// What the field comes to is left out.
    fn omit_result(&mut self) {
        if let Some(field) = self.fields.open.last_mut() {
            field.state.insert(FieldState::OMITS);
        }
        self.omit();
    }

    /// A reference to a place of the document, as a link that knows what it shows of it.
    fn begin_reference(&mut self, instruction: &Instruction) {
        let by_number = ["\\r", "\\n", "\\w"].iter().any(|switch| instruction.has(switch));
        if by_number {
            self.headings.are_referred_to = true;
        }
        let link = self.link_to(String::new(), instruction.target().map(str::to_owned), None);
        if let Wrap::Link(link) = link
            && let Some(link) = self.links.all.get_mut(link as usize)
        {
            link.shows = Some(match instruction.code {
                FieldCode::PageOf => Shows::Page,
                FieldCode::NoteOf => Shows::Number,
                _ if by_number => Shows::Number,
                _ if instruction.has("\\p") => Shows::Position,
                _ => Shows::Text,
            });
        }
        self.field_is_link(link);
    }

    /// A field whose text word processors compute anew on each page: what it shows is one such text.
    fn computed(&mut self, instruction: &Instruction) {
        if let Some(field) = self.fields.open.last_mut() {
            field.state.insert(FieldState::OMITS);
        }
        self.ensure_paragraph();
        let parent = self.inline_parent();
        let node = self.doc.append_at(parent, Kind::Span, self.place.paragraph);
        if instruction.code != FieldCode::LastOfStyle {
            self.doc.append_text(node, "1");
        }
        self.doc.fields.set(node, instruction.to_string());
        self.omit();
    }

    fn field_is_link(&mut self, link: Wrap) {
        if let (Some(field), Wrap::Link(link)) = (self.fields.open.last_mut(), link) {
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
        if field.state.contains(FieldState::HAS_RESULT) || self.fields.in_instruction > 0 {
            return;
        }
        if let Some(shown) = &field.shown {
            self.characters(shown);
            return;
        }
        let Some(instruction) = Instruction::read(&field.instruction) else { return };
        match instruction.code {
            FieldCode::ParagraphNumber => {
                self.fields.paragraph_numbers += 1;
                let number = format!("{}.", self.fields.paragraph_numbers);
                self.characters(&number);
            }
            FieldCode::Symbol => match symbol(&instruction) {
                Some(found) => self.characters(&found.to_string()),
                None => self.diagnostics.symbols.add_apart(self.place.paragraph, field.instruction.trim()),
            },
            FieldCode::Button => {
                let text: Vec<&str> = instruction.arguments.iter().skip(1).map(|word| word.text.as_str()).collect();
                self.characters(&text.join(" "));
            }
            FieldCode::Placed => {
                let offset = self.place.paragraph;
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
                self.anchors.used.insert(place.clone());
            }
            href = format!("{href}#{place}");
        }
        if href.is_empty() {
            return Wrap::Nothing;
        }
        let is_drive = href.as_bytes().get(1) == Some(&b':') && href.as_bytes()[0].is_ascii_alphabetic();
        if is_drive || href.starts_with("file:") || href.starts_with("//") {
            self.diagnostics.local_links.add(self.place.paragraph, &href);
        }
        self.links.all.push(Link { address: href, title: title.unwrap_or_default(), ..Link::default() });
        Wrap::Link(self.links.all.len() as u32 - 1)
    }

    pub(super) fn begin_link(&mut self, link: u32) {
        let is_shown = self.is_shown();
        self.links.begin(link, self.place.paragraph, is_shown);
    }

    pub(super) fn end_link(&mut self, link: u32) {
        if let Some(at) = self.links.open.iter().rposition(|open| *open == link) {
            self.links.open.truncate(at);
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

/// The character that a `SYMBOL` field shows (section 17.16.5.61): of a symbol font, of Unicode with `\\u`, else of the code
/// page that stands for all Western ones.
fn symbol(instruction: &Instruction) -> Option<char> {
    let code = &instruction.arguments.first()?.text;
    let code = match code.strip_prefix("0x").or_else(|| code.strip_prefix("0X")) {
        Some(digits) => u32::from_str_radix(digits, 16).ok()?,
        None => code.parse().ok()?,
    };
    let table = instruction.of_switch("\\f").and_then(super::symbols::table);
    match (u8::try_from(code), table) {
        (Ok(byte), Some(table)) => table.get(byte),
        (Ok(byte), None) => encoding_rs::WINDOWS_1252.decode_without_bom_handling(&[byte]).0.chars().next(),
        _ => char::from_u32(code),
    }
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
            self.doc.append_at(parent, crate::document::Kind::Anchor, self.place.paragraph)
        } else {
            let anchor = self.doc.create(crate::document::Kind::Anchor);
            self.anchors.waiting.push(anchor);
            anchor
        };
        self.doc.attributes_mut(anchor).id = Some(id);
        self.anchors.found.push((anchor, name));
    }
}
