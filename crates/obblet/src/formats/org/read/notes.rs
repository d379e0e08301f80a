//! Footnotes (Org syntax, "Footnote Definitions" and "Footnote References").

use super::Reader;
use crate::document::{Kind, NoteId, Step};

impl Reader<'_> {
    /// The note of a label; a new one for each without.
    pub(super) fn note_of(&mut self, label: &str, offset: u32) -> NoteId {
        if let Some((note, _)) = self.notes.get(label).filter(|_| !label.is_empty()) {
            return *note;
        }
        let name = if label.is_empty() { format!("inline-{}", self.doc.notes.len() + 1) } else { label.to_owned() };
        let note = self.doc.add_note(name.clone());
        let body = self.doc.notes[note.0 as usize].body;
        self.doc.set_offset(body, offset);
        self.notes.insert(name, (note, false));
        note
    }

    /// Reads the notes that are defined where they are mentioned. The first definition counts.
    pub(super) fn define_in_line(&mut self) {
        while let Some((note, text, place, depth)) = self.definitions.pop() {
            if !self.mark_defined(note) {
                continue;
            }
            let body = self.doc.notes[note.0 as usize].body;
            let paragraph = self.doc.append_at(body, Kind::Paragraph, place);
            let source = self.source;
            let known = source.get(text.range());
            let copy = if known.is_some() { String::new() } else { self.doc.text(text).to_owned() };
            let whole = known.unwrap_or(&copy);
            let words = whole.trim();
            let base = text.start as usize + whole.len() - whole.trim_start().len();
            self.note_depth = depth;
            self.inlines(paragraph, words, base, Some(place).filter(|_| known.is_none()));
            self.note_depth = 0;
        }
    }

    /// Reads notes that are mentioned and defined in what the file leaves out: the text needs them.
    pub(super) fn define_left_out(&mut self) {
        if self.left_out_notes.is_empty() {
            return;
        }
        let mut wanted: Vec<usize> = Vec::new();
        let left_out = std::mem::take(&mut self.left_out_notes);
        loop {
            let undefined = self.notes.iter().filter(|(_, (_, defined))| !defined);
            wanted.extend(undefined.filter_map(|(label, _)| left_out.get(label)));
            if wanted.is_empty() {
                break;
            }
            wanted.sort_unstable();
            for line in wanted.drain(..) {
                self.note_definition(line, self.lines.all.len());
                let jobs = std::mem::take(&mut self.jobs);
                for job in jobs {
                    self.run(job);
                }
            }
            self.define_in_line();
        }
    }

    /// Whether a note was not defined before.
    pub(super) fn mark_defined(&mut self, note: NoteId) -> bool {
        let label = self.doc.notes.get(note.0 as usize).map(|note| note.label.clone()).unwrap_or_default();
        let Some((_, defined)) = self.notes.get_mut(&label) else { return false };
        !std::mem::replace(defined, true)
    }

    /// Marks of notes that nothing defines are text.
    pub(super) fn drop_undefined_notes(&mut self) {
        if self.notes.values().all(|(_, defined)| *defined) {
            return;
        }
        let is_undefined = |note: NoteId| {
            let label = self.doc.notes.get(note.0 as usize).map(|note| note.label.as_str()).unwrap_or_default();
            self.notes.get(label).is_some_and(|(_, defined)| !*defined)
        };
        let marks: Vec<_> = self
            .doc
            .walk_all()
            .filter_map(|step| match step {
                Step::Enter(id) => match self.doc.kind(id) {
                    Kind::NoteReference(note) if is_undefined(note) => Some((id, note)),
                    _ => None,
                },
                Step::Leave(_) => None,
            })
            .collect();
        let parents = marks.iter().filter_map(|(mark, _)| self.doc.node(*mark).parent()).collect();
        for (mark, note) in marks {
            let label = format!("[fn:{}]", self.doc.notes[note.0 as usize].label);
            self.tallies.missing_notes.add(self.doc.node(mark).offset(), &label);
            let text = self.doc.intern(&label);
            self.doc.set_kind(mark, Kind::Text(text));
        }
        self.doc.join_texts_in(parents);
        self.number_notes();
    }

    /// Notes that nothing defines go, and the others get new numbers.
    fn number_notes(&mut self) {
        let mut numbers = Vec::with_capacity(self.doc.notes.len());
        let mut count = 0;
        for note in &self.doc.notes {
            let defined = self.notes.get(&note.label).is_some_and(|(_, defined)| *defined);
            numbers.push(defined.then_some(NoteId(count)));
            count += u32::from(defined);
        }
        let mut kept = numbers.iter();
        self.doc.notes.retain(|_| kept.next().is_some_and(Option::is_some));
        let marks: Vec<_> = self
            .doc
            .walk_all()
            .filter_map(|step| match step {
                Step::Enter(id) => match self.doc.kind(id) {
                    Kind::NoteReference(note) => Some((id, note)),
                    _ => None,
                },
                Step::Leave(_) => None,
            })
            .collect();
        for (mark, note) in marks {
            if let Some(Some(note)) = numbers.get(note.0 as usize) {
                self.doc.set_kind(mark, Kind::NoteReference(*note));
            }
        }
    }
}
