//! Comments of reviewers: who wrote them, when, and about what (ECMA-376, part 1, section 17.13.4).

use super::super::xml::{Element, Event, Xml};
use super::Reader;
use crate::document::Comment;
use crate::fast_hash::HashMap;

/// So many bytes of the text that a comment is about are kept.
const LONGEST: usize = 2000;

/// The text of comments about so much at once is followed; who marks more marks everything.
const MOST_OPEN: usize = 32;

impl Reader<'_, '_> {
    /// The text that a comment is about begins or ends here.
    pub(super) fn comment_range(&mut self, element: &Element<'_>) {
        let Some(id) = element.number(b"id") else { return };
        if element.local() == b"commentRangeEnd" {
            return self.comment_ends(id);
        }
        self.commented.push((id, Comment { range: (self.here, self.here), ..Comment::default() }));
        if self.open_comments.len() < MOST_OPEN {
            self.open_comments.push(self.commented.len() - 1);
        }
    }

    fn comment_ends(&mut self, id: i32) {
        if let Some(at) = self.open_comments.iter().rposition(|open| self.commented[*open].0 == id) {
            let comment = self.open_comments.remove(at);
            self.commented[comment].1.range.1 = self.here;
        }
    }

    /// Words that stand in text that comments are about, behind a `space` or not.
    pub(super) fn is_commented(&mut self, words: &str, space: bool) {
        for open in &self.open_comments {
            let about = &mut self.commented[*open].1.about;
            if about.len() < LONGEST {
                if space && !about.is_empty() {
                    about.push(' ');
                }
                about.push_str(words);
            }
        }
    }

    /// Reads what comments say. Those that are about no text are about a place.
    pub(super) fn read_comments(&mut self, part: &str) {
        let Ok(Some(text)) = self.package.text(part) else { return };
        let text = text.get();
        let mut xml = Xml::new(&text);
        let mut found: HashMap<i32, usize> = self.commented.iter().enumerate().map(|(index, (id, _))| (*id, index)).collect();
        let mut current: Option<usize> = None;
        while let Some(event) = xml.next() {
            let Event::Open(element) = event else { continue };
            if element.is(b"comment") {
                let Some(id) = element.number(b"id") else { continue };
                let index = *found.entry(id).or_insert(self.commented.len());
                if index == self.commented.len() {
                    self.commented.push((id, Comment::default()));
                }
                let comment = &mut self.commented[index].1;
                comment.author = element.get(b"author").unwrap_or_default().into_owned();
                comment.date = element.get(b"date").unwrap_or_default().into_owned();
                current = Some(index);
            } else if let Some(index) = current {
                let comment = &mut self.commented[index].1;
                if element.is(b"t") {
                    comment.text.push_str(&xml.text());
                } else if element.is(b"p") && !comment.text.is_empty() {
                    comment.text.push(' ');
                }
            }
        }
        let comments = std::mem::take(&mut self.commented).into_iter().map(|(_, comment)| comment);
        self.doc.comments = comments.filter(|comment| !comment.text.is_empty() || !comment.author.is_empty()).collect();
    }
}
