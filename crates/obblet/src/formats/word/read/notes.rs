//! Footnotes, endnotes and comments: parts of their own, whose notes are read where the text mentions them.

use super::super::model::annotations::Annotation;
use super::super::model::notes::NoteKind;
use super::super::package::Relations;
use super::super::xml::{Element, Xml};
use super::open_element::Frame;
use super::{Comments, Reader};
use crate::document::{Kind, Note, NoteId};

impl Reader<'_, '_> {
    /// Reads the notes that the text mentions, and those that they mention themselves.
    pub(super) fn read_notes(&mut self, relations: &Relations) {
        let root = self.doc.root();
        let mut known = 0;
        while known < self.notes.len() {
            known = self.notes.len();
            for kind in NoteKind::ALL {
                let is_unread = |note: &NoteId| {
                    self.doc.notes.get(note.0 as usize).is_some_and(|note| self.doc.node(note.body).first_child().is_none())
                };
                if self.notes.iter().any(|((of, _), note)| *of == kind && is_unread(note))
                    && let Some(part) = relations.part(kind.part()).map(str::to_owned)
                {
                    self.read_part(&part, root, kind.part());
                }
            }
        }
    }

    /// A mark in the text that leads to a note.
    pub(super) fn note_reference(&mut self, element: &Element<'_>) {
        let Some((kind, id)) = NoteKind::of_reference(element.local()).zip(element.number(b"id")) else { return };
        if kind == NoteKind::Comment && self.options.settings.comments != Comments::Notes {
            self.reviews.left_out.push((id, self.place.paragraph));
            return;
        }
        if !self.is_shown() {
            return;
        }
        self.ensure_paragraph();
        let note = match self.notes.get(&(kind, id)) {
            Some(&note) => note,
            None => {
                let note = NoteId(self.doc.notes.len() as u32);
                let body = self.doc.create(Kind::Note);
                self.doc.set_offset(body, self.place.paragraph);
                self.doc.notes.push(Note { label: (note.0 + 1).to_string(), body });
                self.notes.insert((kind, id), note);
                if kind == NoteKind::Endnote {
                    self.doc.endnotes.set(body, ());
                }
                note
            }
        };
        // The mark is raised of its own.
        self.run.direct.raised = None;
        let floor = self.note_mark_parent();
        self.doc.append_at(floor, Kind::NoteReference(note), self.place.paragraph);
    }

    fn note_mark_parent(&mut self) -> crate::document::NodeId {
        let raised = std::mem::take(&mut self.run.whole.raised);
        self.end_run();
        let parent = self.inline_parent();
        self.run.whole.raised = raised;
        self.end_run();
        parent
    }

    /// A note of a part of notes begins; those that nothing mentions, and the lines above notes, are no notes.
    pub(super) fn begin_note(&mut self, element: &Element<'_>, xml: &mut Xml<'_>) -> Option<Frame> {
        let is_line = element.get(b"type").is_some_and(|kind| kind != "normal");
        let known = NoteKind::of_note(element.local()).zip(element.number(b"id")).filter(|_| !is_line);
        let note = known.and_then(|known| Some((known.0, *self.notes.get(&known)?)));
        let Some((kind, note)) = note else {
            xml.skip();
            return None;
        };
        let body = self.doc.notes[note.0 as usize].body;
        if self.doc.node(body).first_child().is_some() {
            // Another of the same number.
            xml.skip();
            return None;
        }
        if kind == NoteKind::Comment {
            let author = Annotation::read(element).author;
            if !author.is_empty() {
                self.reviews.authors.push((body, author));
            }
        }
        self.doc.set_offset(body, self.place.element);
        self.begin_context(body);
        Some(Frame::Note)
    }
}
