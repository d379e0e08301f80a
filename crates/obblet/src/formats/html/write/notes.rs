//! Notes: numbered as they are mentioned, written in a section at the end, with links both ways (DPUB-ARIA 1.1).

use super::{Writer, ids};
use crate::document::{Document, Finding, Kind, NodeId, NoteId, Step};

/// What stands behind a note and leads back.
const UP: &str = "\u{2191}";

/// The notes of a document in the order in which they are written, and the marks that mention them.
#[derive(Debug, Default)]
pub(super) struct NoteNumbers {
    order: Vec<NoteId>,
    /// For each note of the document.
    mentions: Vec<Mentions>,
    /// The last paragraph of the note that is being written, and the note.
    pub(super) ending: Option<(NodeId, NoteId)>,
    /// Whether the section of notes is written.
    are_written: bool,
}

#[derive(Debug, Default)]
struct Mentions {
    /// From 1, once it is known.
    number: usize,
    id: String,
    /// The ids of its marks, and how many of them are written.
    marks: Vec<String>,
    written: usize,
}

impl NoteNumbers {
    /// The notes of a document, before the text has mentioned any.
    pub(super) fn of(doc: &Document) -> Self {
        let mut numbers = Self::default();
        numbers.mentions.resize_with(doc.notes.len(), Mentions::default);
        numbers
    }

    /// Numbers the notes that the text did not mention: as notes mention each other, then those that nothing mentions.
    fn complete(&mut self, doc: &Document, ids: &mut ids::Ids, unmentioned: Option<&[NoteId]>, findings: &mut Vec<Finding>) {
        let mut next = 0;
        let all: Vec<NoteId> = (0..doc.notes.len() as u32).map(NoteId).collect();
        let mut unmentioned = unmentioned.unwrap_or(&all).iter().copied();
        loop {
            if let Some(&NoteId(note)) = self.order.get(next) {
                // A note leads back to marks in the notes behind it: they have their names before any note is written.
                for step in doc.walk(doc.notes[note as usize].body) {
                    if let Step::Enter(id) = step
                        && let Kind::NoteReference(note) = doc.kind(id)
                    {
                        self.mention(note, ids);
                    }
                }
                next += 1;
                continue;
            }
            let Some(note) = unmentioned.find(|note| self.mentions[note.0 as usize].number == 0) else { break };
            let known = &doc.notes[note.0 as usize];
            findings.push(
                Finding::advice("note.unmentioned", format!("footnote {} is never referenced", known.label))
                    .at(doc.place(known.body))
                    .hint("it is written after the other notes; reference it or remove it"),
            );
            self.number(note, ids);
        }
    }

    /// Gives a mark of a note its name.
    fn mention(&mut self, note: NoteId, ids: &mut ids::Ids) {
        if self.mentions.len() <= note.0 as usize {
            return;
        }
        self.number(note, ids);
        let mentions = &mut self.mentions[note.0 as usize];
        let count = mentions.marks.len() + 1;
        // The id has what stands before all ids already.
        let mut requested = [ids.without_prefix(&mentions.id), "-mark"].concat();
        if count > 1 {
            requested.push('-');
            requested.push_str(&count.to_string());
        }
        mentions.marks.push(ids.free(&requested));
    }

    fn number(&mut self, note: NoteId, ids: &mut ids::Ids) {
        let mentions = &mut self.mentions[note.0 as usize];
        if mentions.number == 0 {
            self.order.push(note);
            mentions.number = self.order.len();
            mentions.id = ids.free(&["note-", &mentions.number.to_string()].concat());
        }
    }
}

impl Writer<'_, '_> {
    /// Writes a mark that leads to a note.
    pub(super) fn note_mark(&mut self, note: NoteId) {
        if self.notes.mentions.get(note.0 as usize).is_some_and(|known| known.written == known.marks.len()) {
            self.notes.mention(note, &mut self.ids);
        }
        let Some(mentions) = self.notes.mentions.get_mut(note.0 as usize) else { return };
        let Some(mark) = mentions.marks.get(mentions.written) else { return };
        mentions.written += 1;
        self.out.markup("<sup>");
        // A link can't stand in a link.
        let element = if self.links > 0 { "span" } else { "a" };
        self.out.markup("<");
        self.out.markup(element);
        if element == "a" {
            self.out.place("href", &mentions.id);
        }
        self.out.attribute("id", mark);
        if element == "a" {
            self.out.attribute("role", "doc-noteref");
        }
        self.out.close_tag();
        self.out.text(&mentions.number.to_string());
        self.out.markup(if element == "a" { "</a></sup>" } else { "</span></sup>" });
    }

    /// Writes the section of notes.
    pub(super) fn write_notes(&mut self) {
        if std::mem::replace(&mut self.notes.are_written, true) {
            return;
        }
        self.notes.complete(self.doc, &mut self.ids, self.options.unmentioned, &mut self.findings);
        if self.notes.order.is_empty() {
            return;
        }
        self.out.line();
        self.out.markup("<section");
        self.out.attribute("role", "doc-endnotes");
        let name = if self.options.notes_of.is_empty() { "Notes" } else { &format!("Notes: {}", self.options.notes_of) };
        self.out.attribute("aria-label", name);
        self.out.close_tag();
        self.out.deeper();
        self.out.line();
        self.out.markup("<ol>");
        self.out.deeper();
        for index in 0..self.notes.order.len() {
            self.write_note(self.notes.order[index]);
        }
        self.out.shallower();
        self.out.line();
        self.out.markup("</ol>");
        self.out.shallower();
        self.out.line();
        self.out.markup("</section>");
        self.out.line();
    }

    fn write_note(&mut self, note: NoteId) {
        let body = self.doc.notes[note.0 as usize].body;
        self.out.line();
        self.out.markup("<li");
        self.out.attribute("id", &self.notes.mentions[note.0 as usize].id);
        self.out.close_tag();
        self.out.deeper();
        let last = self.doc.node(body).last_child();
        let paragraph = last.filter(|&last| self.doc.kind(last) == Kind::Paragraph);
        self.notes.ending = paragraph.map(|paragraph| (paragraph, note));
        self.tree(body);
        if paragraph.is_none() && !self.notes.mentions[note.0 as usize].marks.is_empty() {
            self.out.line();
            self.out.markup("<p>");
            self.back_links(note);
            self.out.markup("</p>");
        }
        self.notes.ending = None;
        self.out.shallower();
        self.out.line();
        self.out.markup("</li>");
    }

    /// Writes the links from a note to the places that mention it.
    pub(super) fn back_links(&mut self, note: NoteId) {
        let Some(mentions) = self.notes.mentions.get(note.0 as usize) else { return };
        for (index, mark) in mentions.marks.iter().enumerate() {
            self.out.text(" ");
            self.out.markup("<a");
            self.out.place("href", mark);
            self.out.attribute("role", "doc-backlink");
            // What is to be seen of a link is part of its name, for those who say it aloud.
            let number = if index > 0 { (index + 1).to_string() } else { String::new() };
            self.out.attribute("aria-label", format!("Back to the text {number}").trim_end());
            self.out.close_tag();
            self.out.text(UP);
            if index > 0 {
                self.out.markup("<sup>");
                self.out.text(&number);
                self.out.markup("</sup>");
            }
            self.out.markup("</a>");
        }
    }
}
