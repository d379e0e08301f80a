//! The walk over a part: which element opens what. It keeps its own stack, for people nest tables as deep as they like.

use super::super::model::annotations::{Annotation, change_of, takes_out};
use super::super::model::properties::{self, CharacterProperties, ParagraphProperties, Vocabulary};
use super::super::model::section::Section;
use super::super::xml::{Element, Event, Ns, Xml};
use super::Reader;
use super::open::{RevisionKind, Wrap};
use super::open_element::Frame;
use crate::document as model;
use crate::document::{Direction, Kind, NodeId, TextLevel};

/// Namespaces of alternate content that are read; of others the other alternative is.
const KNOWN: [&str; 9] = ["wps", "wpg", "wpc", "wp14", "w14", "w15", "a14", "v", "m"];

impl Reader<'_, '_> {
    /// Reads what is in a part.
    pub(super) fn story(&mut self, xml: &mut Xml<'_>) {
        let mut frames: Vec<Frame> = Vec::with_capacity(32);
        while let Some(event) = xml.next() {
            match event {
                Event::Open(element) => {
                    self.place.element = self.place.part.saturating_add(xml.element_start() as u32);
                    if let Some(frame) = self.open(xml, &element, &mut frames) {
                        frames.push(frame);
                    }
                }
                Event::Close => {
                    if let Some(frame) = frames.pop() {
                        if !matches!(frame, Frame::Through) {
                            self.place.element = self.place.part.saturating_add(xml.position() as u32);
                        }
                        self.close(frame);
                    }
                }
                Event::Text(_) => {}
            }
        }
        while let Some(frame) = frames.pop() {
            self.close(frame);
        }
        self.note_broken(xml);
    }

    /// Opens an element. Where nothing is left to do when it ends, it is read to its end here.
    fn open(&mut self, xml: &mut Xml<'_>, element: &Element<'_>, frames: &mut [Frame]) -> Option<Frame> {
        match element.ns {
            Ns::W => self.open_word(xml, element),
            Ns::Mc => open_alternate(xml, element, frames),
            Ns::M => self.open_formula(xml, element),
            Ns::Other | Ns::R => {
                // An extension of pictures: this one is there for its looks alone.
                if element.local() == b"decorative" && element.is_on() {
                    self.is_decoration();
                }
                // A drawing that stands behind its picture says more than that.
                if element.local() == b"svgBlip" {
                    self.blip(element);
                }
                Some(Frame::Through)
            }
            _ => self.open_drawing(xml, element),
        }
    }

    fn open_word(&mut self, xml: &mut Xml<'_>, element: &Element<'_>) -> Option<Frame> {
        match element.local() {
            b"r" => {
                self.ensure_paragraph();
                self.begin_run(CharacterProperties::default());
                return Some(Frame::Run);
            }
            b"t" => {
                self.text(xml);
                return None;
            }
            b"rPr" => {
                let mut words = Vocabulary {
                    names: &mut self.model.names,
                    theme: &self.model.theme,
                    looks: self.options.fidelity.is_exact(),
                };
                let properties = properties::characters(xml, &mut words);
                self.begin_run(properties);
                return None;
            }
            b"p" => {
                self.paragraph_opens();
                return Some(Frame::Paragraph);
            }
            b"pPr" => {
                let mut words = Vocabulary {
                    names: &mut self.model.names,
                    theme: &self.model.theme,
                    looks: self.options.fidelity.is_exact(),
                };
                let properties = properties::paragraph(xml, &mut words);
                self.begin_paragraph(properties);
                return None;
            }
            b"tab" | b"ptab" => self.tab(),
            b"br" => self.line_break(element.get(b"type").as_deref()),
            b"cr" => self.line_break(None),
            b"noBreakHyphen" => self.characters("\u{2011}"),
            b"softHyphen" => self.characters("\u{AD}"),
            b"sym" => self.symbol(element),
            b"proofErr" | b"lastRenderedPageBreak" | b"bookmarkEnd" => {}
            b"bookmarkStart" => self.bookmark(element),
            b"hyperlink" => {
                self.ensure_paragraph();
                let link = self.hyperlink(element);
                if let Wrap::Link(link) = link {
                    self.begin_link(link);
                }
                self.wraps.push(link);
                return Some(Frame::Wrap);
            }
            b"fldChar" => {
                self.field_mark(element, xml);
                return None;
            }
            b"instrText" | b"delInstrText" => {
                let text = xml.text();
                self.field_instruction(&text);
                return None;
            }
            b"fldSimple" => {
                self.ensure_paragraph();
                self.simple_field(&element.get(b"instr").unwrap_or_default());
                return Some(Frame::SimpleField);
            }
            local => return self.open_container(xml, element, local),
        }
        xml.skip();
        None
    }

    /// What a content control holds.
    fn control_content(&mut self, xml: &mut Xml<'_>) -> Option<Frame> {
        if self.is_contents_control() {
            self.omit();
            return Some(Frame::Omitted);
        }
        self.begin_code_control();
        if self.ticks_item() {
            xml.skip();
            return None;
        }
        Some(Frame::Through)
    }

    /// What is rarer.
    fn open_container(&mut self, xml: &mut Xml<'_>, element: &Element<'_>, local: &[u8]) -> Option<Frame> {
        match local {
            b"tbl" => {
                self.begin_table();
                return Some(Frame::Table);
            }
            b"tblPr" => self.table_properties(xml),
            b"tblGrid" => self.table_grid(xml),
            b"tr" => {
                self.begin_row();
                return Some(Frame::Row);
            }
            b"trPr" => self.row_properties(xml),
            b"tc" => {
                self.begin_cell();
                return Some(Frame::Cell);
            }
            b"tcPr" => self.cell_properties(xml),
            b"ins" | b"moveTo" | b"del" | b"moveFrom" => return change_of(local).map(|kind| self.revision(element, kind)),
            b"commentRangeStart" | b"commentRangeEnd" => {
                self.comment_range(element);
                xml.skip();
            }
            b"delText" => self.text(xml),
            b"sdt" => {
                self.controls.open.push(super::content_controls::Control::default());
                return Some(Frame::Control);
            }
            b"sdtPr" => {
                self.control_properties(xml);
            }
            b"sdtContent" => return self.control_content(xml),
            b"txbxContent" => {
                self.begin_box();
                return Some(Frame::Box);
            }
            b"drawing" | b"pict" | b"object" => {
                self.ensure_paragraph();
                self.drawings.push(super::drawings::Drawing::default());
                return Some(Frame::Drawing);
            }
            b"footnoteReference" | b"endnoteReference" | b"commentReference" => {
                self.note_reference(element);
                xml.skip();
            }
            b"footnote" | b"endnote" | b"comment" => return self.begin_note(element, xml),
            b"sectPr" => {
                let section = Section::read(xml);
                self.end_section(&section);
                return None;
            }
            b"ruby" => {
                self.ensure_paragraph();
                self.begin_ruby();
                return Some(Frame::Ruby);
            }
            b"rt" => return Some(Frame::RubyText(self.begin_ruby_text())),
            b"dir" | b"bdo" => {
                self.ensure_paragraph();
                let value = element.val();
                let way = if value.as_deref() == Some("rtl") { Direction::RightToLeft } else { Direction::LeftToRight };
                self.wraps.push(if local == b"bdo" { Wrap::Override(way) } else { Wrap::Direction(way) });
                return Some(Frame::Wrap);
            }
            b"altChunk" | b"subDoc" | b"contentPart" => {
                self.foreign_part(element);
                xml.skip();
            }
            b"smartTagPr" | b"customXmlPr" | b"sdtEndPr" | b"rubyPr" | b"tblPrEx" | b"background" | b"tcPrChange"
            | b"docPartPr" => {
                xml.skip();
            }
            _ => return Some(Frame::Through),
        }
        None
    }

    /// A tracked change (section 17.13.5): who made it and when is known for all that stands in it.
    fn revision(&mut self, element: &Element<'_>, kind: model::RevisionKind) -> Frame {
        let by = Annotation::read(element);
        let revision = model::Revision { kind, author: by.author, date: by.date };
        // The changes of one person at one time stand beside each other.
        if self.reviews.changes.last() != Some(&revision) {
            self.reviews.changes.push(revision);
        }
        let direction = if takes_out(kind) { RevisionKind::Deleted } else { RevisionKind::Inserted };
        self.wraps.push(Wrap::Revision(direction, self.reviews.changes.len() as u32 - 1));
        self.reviews.count += 1;
        Frame::Wrap
    }

    fn close(&mut self, frame: Frame) {
        match frame {
            Frame::Through | Frame::Alternate { .. } => {}
            Frame::Paragraph => self.end_paragraph(),
            Frame::Run => self.end_run(),
            Frame::Wrap => {
                if let Some(Wrap::Link(link)) = self.wraps.pop() {
                    self.end_link(link);
                }
            }
            Frame::SimpleField => self.end_simple_field(),
            Frame::Table => self.end_table(),
            Frame::Row => self.end_row(),
            Frame::Cell => self.end_cell(),
            Frame::Box => self.end_box(),
            Frame::Note => {
                let body = self.context().container;
                self.doc.set_end(body, self.place.element);
                self.end_context();
            }
            Frame::Drawing => self.end_drawing(),
            Frame::PictureEnds => self.end_picture(),
            Frame::Control => self.end_control(),
            Frame::Omitted => self.end_omitted(),
            Frame::Ruby => self.end_ruby(),
            Frame::RubyText(before) => self.end_ruby_text(before),
        }
    }

    /// A paragraph that has no properties begins with what is in it.
    pub(super) fn ensure_paragraph(&mut self) {
        if self.context().paragraph.as_ref().is_none_or(|paragraph| !paragraph.begun) {
            self.begin_paragraph(ParagraphProperties::default());
        }
    }

    /// What the document says of a part that breaks off, and of entities.
    fn note_broken(&mut self, xml: &Xml<'_>) {
        if xml.is_broken {
            self.diagnostics.broken_parts += 1;
        }
        if let Some(entity) = &xml.entity {
            self.diagnostics.entity.get_or_insert_with(|| entity.clone());
        }
    }

    /// An annotation above text, as East Asian texts have it.
    fn begin_ruby(&mut self) {
        let parent = self.inline_parent();
        let ruby = self.doc.append_at(parent, Kind::TextLevel(TextLevel::Ruby), self.place.paragraph);
        self.rubies.push((ruby, parent));
        self.set_inline_floor(ruby);
    }

    fn begin_ruby_text(&mut self) -> Option<NodeId> {
        let &(ruby, _) = self.rubies.last()?;
        let text = self.doc.append_at(ruby, Kind::TextLevel(TextLevel::RubyText), self.place.paragraph);
        self.set_inline_floor(text);
        Some(ruby)
    }

    fn end_ruby_text(&mut self, before: Option<NodeId>) {
        if let Some(ruby) = before {
            self.set_inline_floor(ruby);
        }
    }

    fn end_ruby(&mut self) {
        if let Some((ruby, parent)) = self.rubies.pop() {
            // The text comes behind its base, whatever the order in the part is.
            let texts: Vec<NodeId> =
                self.doc.children(ruby).filter(|&child| self.doc.kind(child) == Kind::TextLevel(TextLevel::RubyText)).collect();
            for text in texts {
                self.doc.move_into(ruby, text);
            }
            self.set_inline_floor(parent);
        }
    }
}

/// Of alternatives the first that is read is taken (ECMA-376, part 3, section 7.6).
fn open_alternate(xml: &mut Xml<'_>, element: &Element<'_>, frames: &mut [Frame]) -> Option<Frame> {
    match element.local() {
        b"AlternateContent" => return Some(Frame::Alternate { taken: false }),
        local @ (b"Choice" | b"Fallback") => {
            let is_known = local == b"Fallback"
                || element
                    .get(b"Requires")
                    .is_none_or(|requires| requires.split_ascii_whitespace().all(|prefix| KNOWN.contains(&prefix)));
            if let Some(Frame::Alternate { taken }) = frames.last_mut()
                && !*taken
                && is_known
            {
                *taken = true;
                return Some(Frame::Through);
            }
        }
        _ => {}
    }
    xml.skip();
    None
}
