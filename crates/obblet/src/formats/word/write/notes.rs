//! Footnotes and endnotes: their marks in the text, and the parts that hold them (ECMA-376, part 1, section 17.11).

use super::super::model::notes::NoteKind;
use super::super::printer::Printer;
use super::archive::Relations;
use super::blocks::Context;
use super::{TextPart, Writer};
use crate::document::NodeId;
use crate::fast_hash::HashMap;

/// The notes that the text mentions, in the order in which it does.
#[derive(Debug, Default)]
pub(super) struct Notes {
    footnotes: Vec<NodeId>,
    endnotes: Vec<NodeId>,
    numbers: HashMap<NodeId, usize>,
}

impl Notes {
    fn of(&mut self, kind: NoteKind) -> &mut Vec<NodeId> {
        if kind == NoteKind::Endnote { &mut self.endnotes } else { &mut self.footnotes }
    }

    /// The number of a note, which is new if nothing mentioned it before.
    fn number(&mut self, body: NodeId, kind: NoteKind) -> usize {
        if let Some(number) = self.numbers.get(&body) {
            return *number;
        }
        let notes = self.of(kind);
        notes.push(body);
        let number = notes.len();
        self.numbers.insert(body, number);
        number
    }

    /// The kinds of notes that there are.
    pub(super) fn kinds(&self) -> impl Iterator<Item = NoteKind> {
        let kinds = [(NoteKind::Footnote, &self.footnotes), (NoteKind::Endnote, &self.endnotes)];
        kinds.into_iter().filter(|(_, notes)| !notes.is_empty()).map(|(kind, _)| kind)
    }
}

impl Writer<'_> {
    fn kind_of_note(&self, body: NodeId) -> NoteKind {
        if self.doc.endnotes.get(body).is_some() { NoteKind::Endnote } else { NoteKind::Footnote }
    }

    /// A mark that leads to a note.
    pub(super) fn note_reference(&mut self, body: NodeId) {
        let kind = self.kind_of_note(body);
        let number = self.notes.number(body, kind);
        (self.line.space, self.line.has_text) = (None, true);
        let [_, mark] = kind.styles();
        let mark = self.style_id(mark);
        self.part.out.open("w:r").open("w:rPr").value("w:rStyle", &mark).close();
        self.part.out.open(kind.reference()).number("w:id", number as i64).close().close();
    }

    /// The mark of a note at the beginning of its own text.
    pub(super) fn note_mark(&mut self, kind: NoteKind) {
        let [_, mark] = kind.styles();
        let mark = self.style_id(mark);
        let element = if kind == NoteKind::Endnote { "w:endnoteRef" } else { "w:footnoteRef" };
        self.part.out.open("w:r").open("w:rPr").value("w:rStyle", &mark).close().empty(element).close();
        self.part.out.raw("<w:r><w:t xml:space=\"preserve\"> </w:t></w:r>");
    }

    /// Writes the notes that the text mentions. They may mention others, of the other kind as well.
    pub(super) fn write_notes(&mut self) -> Vec<(NoteKind, TextPart)> {
        let mut parts: [Option<TextPart>; 2] = [None, None];
        let mut written = [0, 0];
        self.is_main = false;
        loop {
            let before = written;
            for (place, kind) in [NoteKind::Footnote, NoteKind::Endnote].into_iter().enumerate() {
                if self.notes.of(kind).len() == written[place] {
                    continue;
                }
                self.part = parts[place].take().unwrap_or_else(|| begin(kind));
                while let Some(&body) = self.notes.of(kind).get(written[place]) {
                    written[place] += 1;
                    self.write_note(body, kind, written[place]);
                }
                parts[place] = Some(std::mem::take(&mut self.part));
            }
            if before == written {
                break;
            }
        }
        let [footnotes, endnotes] = parts;
        let kinds = [(NoteKind::Footnote, footnotes), (NoteKind::Endnote, endnotes)];
        kinds.into_iter().filter_map(|(kind, part)| Some((kind, part?))).collect()
    }

    fn write_note(&mut self, body: NodeId, kind: NoteKind, number: usize) {
        self.part.out.open(kind.element()).number("w:id", number as i64);
        let [style, _] = kind.styles();
        self.contexts.push(Context::of_page(style));
        self.line.note_mark = Some(kind);
        self.tree(body);
        self.end_container();
        self.contexts.pop();
        self.part.out.close();
    }
}

/// A part of notes, which begins with the lines between text and notes that word processors want to find there.
fn begin(kind: NoteKind) -> TextPart {
    let root = if kind == NoteKind::Endnote { "w:endnotes" } else { "w:footnotes" };
    let mut out = Printer::part(root);
    for (number, name, line) in [(-1, "separator", "w:separator"), (0, "continuationSeparator", "w:continuationSeparator")] {
        out.open(kind.element()).attribute("w:type", name).number("w:id", number).open("w:p").open("w:pPr");
        out.open("w:spacing").attribute("w:after", "0").attribute("w:line", "240").attribute("w:lineRule", "auto");
        out.close().close().open("w:r").empty(line).close().close().close();
    }
    TextPart { out, relations: Relations::default() }
}
