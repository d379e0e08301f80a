//! Comments of reviewers: who wrote them, when, and about what (ECMA-376, part 1, section 17.13.4).

use super::super::model::annotations::Annotation;
use super::super::xml::{Element, Event, Xml};
use super::Reader;
use crate::document::{Comment, Document, Kind, NodeId, Revision};
use crate::fast_hash::HashMap;

/// So many bytes of the text that a comment is about are kept.
const LONGEST: usize = 2000;

/// The text of comments about so much at once is followed; who marks more marks everything.
const MOST_OPEN: usize = 32;

/// What reviewers did: their changes, and their comments.
#[derive(Debug, Default)]
pub(super) struct Reviews {
    /// The tracked changes; those of one person at one time once where they stand beside each other.
    pub(super) changes: Vec<Revision>,
    /// How many changes there are.
    pub(super) count: usize,
    /// Comments by their numbers, as far as they are known.
    comments: Vec<(i32, Comment)>,
    /// Places in `comments` of those whose text is being read.
    open: Vec<usize>,
    /// Numbers and places of comments that may be left out.
    pub(super) left_out: Vec<(i32, u32)>,
    /// Who wrote those that became notes.
    pub(super) authors: Vec<(NodeId, String)>,
}

impl Reviews {
    /// The text that a comment is about begins.
    fn begin(&mut self, id: i32, place: u32) {
        self.comments.push((id, Comment { range: (place, place), ..Comment::default() }));
        if self.open.len() < MOST_OPEN {
            self.open.push(self.comments.len() - 1);
        }
    }

    fn end(&mut self, id: i32, place: u32) {
        if let Some(at) = self.open.iter().rposition(|open| self.comments[*open].0 == id) {
            let comment = self.open.remove(at);
            self.comments[comment].1.range.1 = place;
        }
    }

    /// Whether comments are about what is read now.
    pub(super) const fn is_open(&self) -> bool {
        !self.open.is_empty()
    }

    /// Words that stand in text that comments are about, behind a `space` or not.
    pub(super) fn add_words(&mut self, words: &str, space: bool) {
        for open in &self.open {
            let about = &mut self.comments[*open].1.about;
            if about.len() < LONGEST {
                if space && !about.is_empty() {
                    about.push(' ');
                }
                about.push_str(words);
            }
        }
    }

    /// The authors of comments that became notes stand before their words.
    pub(super) fn name_authors(&mut self, doc: &mut Document) {
        for (body, author) in std::mem::take(&mut self.authors) {
            let Some(first) = doc.node(body).first_child().filter(|first| doc.kind(*first) == Kind::Paragraph) else {
                continue;
            };
            let text = doc.intern(&format!("{author}: "));
            let text = doc.create(Kind::Text(text));
            match doc.node(first).first_child() {
                Some(child) => doc.move_before(child, text),
                None => doc.move_into(first, text),
            }
            doc.join_texts(first);
        }
    }
}

impl Reader<'_, '_> {
    /// The text that a comment is about begins or ends here.
    pub(super) fn comment_range(&mut self, element: &Element<'_>) {
        let Some(id) = element.number(b"id") else { return };
        if element.local() == b"commentRangeEnd" {
            self.reviews.end(id, self.place.element);
        } else {
            self.reviews.begin(id, self.place.element);
        }
    }

    /// Reads what comments say. Those that are about no text are about a place.
    pub(super) fn read_comments(&mut self, part: &str) {
        let Ok(Some(text)) = self.package.text(part) else { return };
        let text = text.get();
        let mut xml = Xml::new(&text);
        let mut found: HashMap<i32, usize> =
            self.reviews.comments.iter().enumerate().map(|(index, (id, _))| (*id, index)).collect();
        let mut current: Option<usize> = None;
        while let Some(event) = xml.next() {
            let Event::Open(element) = event else { continue };
            if element.is(b"comment") {
                let Some(id) = element.number(b"id") else { continue };
                let index = *found.entry(id).or_insert(self.reviews.comments.len());
                if index == self.reviews.comments.len() {
                    self.reviews.comments.push((id, Comment::default()));
                }
                let comment = &mut self.reviews.comments[index].1;
                let by = Annotation::read(&element);
                (comment.author, comment.date) = (by.author, by.date);
                current = Some(index);
            } else if let Some(index) = current {
                let comment = &mut self.reviews.comments[index].1;
                if element.is(b"t") {
                    comment.text.push_str(&xml.text());
                } else if element.is(b"p") && !comment.text.is_empty() {
                    comment.text.push(' ');
                }
            }
        }
        let comments = std::mem::take(&mut self.reviews.comments).into_iter().map(|(_, comment)| comment);
        self.doc.comments = comments.filter(|comment| !comment.text.is_empty() || !comment.author.is_empty()).collect();
    }
}
