//! Notes: numbered as they are mentioned, written in a section at the end, with links both ways (DPUB-ARIA 1.1).

use super::Writer;
use crate::document::{Finding, Kind, NodeId, NoteId};
use std::collections::HashMap;

/// Which notes were mentioned, in order, and by how many marks.
#[derive(Debug, Default)]
pub(super) struct NoteNumbers {
    order: Vec<NoteId>,
    numbers: HashMap<NoteId, Mentioned>,
    /// The last paragraph of the note that is being written, and its number.
    pub(super) ending: Option<(NodeId, usize)>,
}

#[derive(Debug)]
struct Mentioned {
    number: usize,
    id: String,
    marks: Vec<String>,
}

impl Writer<'_, '_> {
    /// Writes a mark that leads to a note.
    pub(super) fn note_mark(&mut self, note: NoteId) {
        if self.doc.notes.get(note.0 as usize).is_none() {
            return;
        }
        let number = self.number_of(note);
        let marks = self.notes.numbers.get(&note).map_or(0, |mentioned| mentioned.marks.len());
        let wanted = if marks == 0 { format!("note-{number}-mark") } else { format!("note-{number}-mark-{}", marks + 1) };
        let mark = self.ids.free(&wanted);
        let Some(mentioned) = self.notes.numbers.get_mut(&note) else { return };
        let id = mentioned.id.clone();
        mentioned.marks.push(mark.clone());
        if self.links > 0 {
            // A link can't stand in a link.
            self.out.markup("<sup");
            self.out.attribute("id", &mark);
            self.out.close_tag();
            self.out.text(&number.to_string());
            self.out.markup("</sup>");
            return;
        }
        self.out.markup("<sup><a");
        self.out.address("href", &format!("#{id}"));
        self.out.attribute("id", &mark);
        self.out.attribute("role", "doc-noteref");
        self.out.close_tag();
        self.out.text(&number.to_string());
        self.out.markup("</a></sup>");
    }

    fn number_of(&mut self, note: NoteId) -> usize {
        if let Some(mentioned) = self.notes.numbers.get(&note) {
            return mentioned.number;
        }
        let number = self.notes.order.len() + 1;
        let id = self.ids.free(&format!("note-{number}"));
        self.notes.order.push(note);
        self.notes.numbers.insert(note, Mentioned { number, id, marks: Vec::new() });
        number
    }

    /// Writes the section of notes.
    pub(super) fn write_notes(&mut self) {
        if self.doc.notes.is_empty() {
            return;
        }
        self.out.line();
        self.out.markup("<section");
        self.out.attribute("role", "doc-endnotes");
        self.out.attribute("aria-label", "Notes");
        self.out.close_tag();
        self.out.deeper();
        self.out.line();
        self.out.markup("<ol>");
        self.out.deeper();
        let mut next = 0;
        let mut unmentioned = (0..self.doc.notes.len() as u32).map(NoteId);
        loop {
            // Notes may mention notes; those come behind. Notes that nothing mentions come last.
            let Some(&note) = self.notes.order.get(next) else {
                let numbers = &self.notes.numbers;
                let Some(note) = unmentioned.find(|note| !numbers.contains_key(note)) else { break };
                self.report_unmentioned(note);
                self.number_of(note);
                continue;
            };
            self.write_note(note, next + 1);
            next += 1;
        }
        self.out.shallower();
        self.out.line();
        self.out.markup("</ol>");
        self.out.shallower();
        self.out.line();
        self.out.markup("</section>");
        self.out.line();
    }

    fn report_unmentioned(&mut self, note: NoteId) {
        let note = &self.doc.notes[note.0 as usize];
        self.findings.push(
            Finding::advice("note.unmentioned", format!("nothing mentions the note {}", note.label))
                .at(self.doc.place(note.body))
                .hint("it is written behind the other notes; mention it or remove it"),
        );
    }

    fn write_note(&mut self, note: NoteId, number: usize) {
        let body = self.doc.notes[note.0 as usize].body;
        self.out.line();
        self.out.markup("<li");
        if let Some(mentioned) = self.notes.numbers.get(&note) {
            self.out.attribute("id", &mentioned.id);
        }
        self.out.close_tag();
        self.out.deeper();
        let last = self.doc.node(body).last_child();
        let paragraph = last.filter(|&last| self.doc.kind(last) == Kind::Paragraph);
        self.notes.ending = paragraph.map(|paragraph| (paragraph, number));
        self.tree(body);
        if paragraph.is_none() {
            self.out.line();
            self.out.markup("<p>");
            self.back_links(number);
            self.out.markup("</p>");
        }
        self.notes.ending = None;
        self.out.shallower();
        self.out.line();
        self.out.markup("</li>");
    }

    /// Writes the links from a note to the places that mention it.
    pub(super) fn back_links(&mut self, number: usize) {
        let marks = self.notes.order.get(number - 1).and_then(|note| self.notes.numbers.get(note)).map(|mentioned| mentioned.marks.clone());
        for (index, mark) in marks.unwrap_or_default().iter().enumerate() {
            self.out.text(" ");
            self.out.markup("<a");
            self.out.address("href", &format!("#{mark}"));
            self.out.attribute("role", "doc-backlink");
            self.out.attribute("aria-label", "Back to the text");
            self.out.close_tag();
            self.out.text("\u{2191}");
            if index > 0 {
                self.out.markup("<sup>");
                self.out.text(&(index + 1).to_string());
                self.out.markup("</sup>");
            }
            self.out.markup("</a>");
        }
    }
}
