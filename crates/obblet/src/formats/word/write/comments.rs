//! Comments of reviewers: where the text stands that they are about, and the part that says them (ECMA-376, part 1, section
//! 17.13.4).

use super::super::model::annotations::Annotation;
use super::super::model::notes::NoteKind;
use super::super::printer::Printer;
use super::Writer;
use crate::document::{Document, Kind, NodeId, SourceMap, Step, Text};
use crate::fast_hash::HashMap;
use smallvec::SmallVec;

/// Where a comment begins or ends.
#[derive(Clone, Copy, Debug, PartialEq, Eq)]
pub(super) enum Mark {
    Begins(usize),
    Ends(usize),
}

/// A text of the document, and where its paragraph began in the source.
struct Leaf<'d> {
    node: NodeId,
    offset: u32,
    text: &'d str,
}

/// So many letters behind the beginning of a paragraph may stand before the text that a comment is about.
const FARTHEST: usize = 2000;

/// Where the comments of a document begin and end: for texts, by their bytes.
#[derive(Debug, Default)]
pub(super) struct CommentMarks {
    marks: HashMap<NodeId, SmallVec<[(usize, Mark); 2]>>,
    /// Which comments stand in the text.
    pub(super) written: Vec<bool>,
}

impl CommentMarks {
    pub(super) fn of(doc: &Document) -> Self {
        let mut found = Self { marks: HashMap::default(), written: vec![false; doc.comments.len()] };
        if doc.comments.is_empty() {
            return found;
        }
        let leaves = leaves(doc);
        // Comments follow each other: the next one is looked for from where the last one begins.
        let mut from = (0, 0);
        for (number, comment) in doc.comments.iter().enumerate() {
            let Some(first) = paragraph_at(&leaves, comment.range.0) else { continue };
            from = if from.0 < first || leaves[from.0].offset != leaves[first].offset { (first, 0) } else { from };
            let (begins, ends) = place(&leaves, from, &comment.about);
            from = begins;
            for ((leaf, byte), mark) in [(begins, Mark::Begins(number)), (ends, Mark::Ends(number))] {
                found.marks.entry(leaves[leaf].node).or_default().push((byte, mark));
            }
        }
        for marks in found.marks.values_mut() {
            marks.sort_by_key(|(byte, mark)| (*byte, matches!(mark, Mark::Begins(_))));
        }
        found
    }

    /// Those in a text, in their order.
    pub(super) fn of_text(&self, node: NodeId) -> Option<SmallVec<[(usize, Mark); 2]>> {
        self.marks.get(&node).cloned()
    }
}

fn leaves(doc: &Document) -> Vec<Leaf<'_>> {
    let mut leaves: Vec<Leaf<'_>> = Vec::new();
    let mut last = 0;
    for step in doc.walk(doc.root()) {
        if let Step::Enter(node) = step
            && let Kind::Text(text) = doc.kind(node)
        {
            let offset = doc.node(node).offset();
            // Where it is not known, and where things were moved, the order of the text counts.
            last = if offset == SourceMap::UNKNOWN { last } else { last.max(offset) };
            leaves.push(Leaf { node, offset: last, text: doc.text(text) });
        }
    }
    leaves
}

/// A place in a text: the number of the leaf, and the byte in it.
type At = (usize, usize);

/// The first text of the paragraph in which a comment begins.
fn paragraph_at(leaves: &[Leaf<'_>], offset: u32) -> Option<usize> {
    let behind = leaves.partition_point(|leaf| leaf.offset <= offset);
    let of_paragraph = leaves[behind.checked_sub(1)?].offset;
    Some(leaves.partition_point(|leaf| leaf.offset < of_paragraph))
}

/// Where the text stands that a comment is about, from a place of its paragraph on. Letters and digits count.
fn place(leaves: &[Leaf<'_>], from: At, about: &str) -> (At, At) {
    let wanted: String = about.chars().filter(|c| c.is_alphanumeric()).collect();
    if wanted.is_empty() {
        return (from, from);
    }
    let mut room = wanted.len() + 64;
    loop {
        let (letters, places) = letters(leaves, from, room);
        if let Some(start) = letters.find(&wanted) {
            let at = |letter: usize| {
                let (_, leaf, byte) = places[places.partition_point(|(known, ..)| *known < letter).min(places.len() - 1)];
                (leaf, byte)
            };
            let last_letter = wanted.chars().next_back().map_or(0, char::len_utf8);
            let (leaf, byte) = at(start + wanted.len() - last_letter);
            return (at(start), (leaf, byte + last_letter));
        }
        if letters.len() < room || room > FARTHEST + wanted.len() {
            // What it is about was changed: it is about what stands there.
            return (from, (from.0, leaves[from.0].text.len()));
        }
        room *= 2;
    }
}

/// So many letters of texts, and where they stand.
fn letters(leaves: &[Leaf<'_>], (first, byte): At, room: usize) -> (String, Vec<(usize, usize, usize)>) {
    let (mut letters, mut places) = (String::new(), Vec::new());
    for (number, leaf) in leaves.iter().enumerate().skip(first) {
        let start = if number == first { byte } else { 0 };
        for (at, c) in leaf.text[start..].char_indices().filter(|(_, c)| c.is_alphanumeric()) {
            if letters.len() >= room {
                return (letters, places);
            }
            places.push((letters.len(), number, start + at));
            letters.push(c);
        }
    }
    (letters, places)
}

impl Writer<'_> {
    /// Text in which comments begin or end.
    pub(super) fn commented_text(&mut self, id: NodeId, text: Text) {
        let Some(marks) = self.comments.of_text(id) else { return self.text(text) };
        let mut from = text.start;
        for (byte, mark) in marks {
            let to = (text.start + byte as u32).min(text.end);
            if from < to {
                self.text(Text { start: from, end: to });
                from = to;
            }
            self.comment_mark(mark);
        }
        if from < text.end {
            self.text(Text { start: from, ..text });
        }
    }

    fn comment_mark(&mut self, mark: Mark) {
        // A space before it stays where it is.
        self.line.space = None;
        let out = &mut self.part.out;
        match mark {
            Mark::Begins(number) => {
                out.open("w:commentRangeStart").number("w:id", number as i64).close();
                self.comments.written[number] = true;
            }
            Mark::Ends(number) => {
                out.open("w:commentRangeEnd").number("w:id", number as i64).close();
                out.open("w:r").open(NoteKind::Comment.reference()).number("w:id", number as i64).close().close();
            }
        }
    }

    /// The part with what comments say.
    pub(super) fn comments_part(&self) -> Option<Printer> {
        if !self.comments.written.contains(&true) {
            return None;
        }
        let mut out = Printer::part("w:comments");
        let written = self.comments.written.iter().enumerate().filter(|(_, written)| **written);
        for (number, comment) in written.filter_map(|(number, _)| Some((number, self.doc.comments.get(number)?))) {
            let by = Annotation { author: comment.author.clone(), date: comment.date.clone() };
            out.open("w:comment");
            by.print(number, &mut out);
            out.attribute("w:initials", &by.initials());
            out.open("w:p").open("w:r").empty("w:annotationRef").close();
            out.open("w:r").element("w:t", comment.text.trim()).close();
            out.close().close();
        }
        Some(out)
    }
}
