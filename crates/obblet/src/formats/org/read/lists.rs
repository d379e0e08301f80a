//! Lists: bullets, numbers, terms and tasks (Org syntax, "Plain Lists and Items").

use super::Reader;
use super::blocks::{Job, What};
use super::lines::{Begins, Line, number_length};
use crate::document::{Kind, ListKind, Marker, NodeId};

/// The parts of the first line of an item.
#[derive(Clone, Copy, Debug)]
struct Bullet {
    ordered: bool,
    /// The number that it is given, or that stands there.
    number: Option<i32>,
    checked: Option<bool>,
    /// Where its term is in the source.
    term: Option<(usize, usize)>,
    /// Where its text begins.
    text: usize,
}

impl Reader<'_> {
    fn bullet(&self, line: &Line) -> Bullet {
        let words = &self.source[line.text..line.end];
        let skip =
            |at: usize| at + self.source[at..line.end].len() - self.source[at..line.end].trim_start_matches([' ', '\t']).len();
        let numbered = number_length(words.as_bytes());
        let mut at = skip(line.text + numbered.unwrap_or(1));
        let mut number = numbered.and_then(|length| words[..length - 1].parse().ok());
        let rest = &self.source[at..line.end];
        if let Some((counter, _)) = rest.strip_prefix("[@").and_then(|rest| rest.split_once(']')) {
            number = counter.parse().ok().or(number);
            at = skip(at + counter.len() + 3);
        }
        let rest = &self.source[at..line.end];
        let checked = match rest.as_bytes() {
            [b'[', mark @ (b' ' | b'X' | b'x' | b'-'), b']', ..]
                if matches!(rest.as_bytes().get(3), None | Some(b' ' | b'\t')) =>
            {
                at = skip(at + 3);
                Some(matches!(mark, b'X' | b'x'))
            }
            _ => None,
        };
        let rest = &self.source[at..line.end];
        let mut term = None;
        if numbered.is_none()
            && let Some(mark) = term_end(rest)
        {
            term = Some((at, at + rest[..mark].trim_end().len()));
            at = skip((at + mark + 2).min(line.end));
        }
        Bullet { ordered: numbered.is_some(), number, checked, term, text: at }
    }

    /// Begins a list at an item: its items follow.
    pub(super) fn list(&mut self, number: usize, to: usize, parent: NodeId) -> NodeId {
        let line = self.lines.all[number];
        let bullet = self.bullet(&line);
        let kind = if bullet.term.is_some() {
            Kind::TermList
        } else {
            let start = if bullet.ordered { bullet.number.unwrap_or(1) } else { 1 };
            Kind::List(ListKind { ordered: bullet.ordered, tight: true, marker: Marker::Plain, start })
        };
        let list = self.doc.append_at(parent, kind, line.start as u32);
        self.lists.push(list);
        self.jobs.push(Job { from: number, to, parent: list, text: None, what: What::Items(line.indent) });
        list
    }

    /// Reads an item, and leaves those behind it for later.
    pub(super) fn items(&mut self, job: &Job, indent: u32) {
        let Some(line) = self.lines.get(job.from).copied().filter(|_| job.from < job.to) else { return };
        let is_term_list = self.doc.kind(job.parent) == Kind::TermList;
        if line.begins != Begins::Item || line.indent != indent {
            return;
        }
        let bullet = self.bullet(&line);
        let until = line.until.clamp(job.from + 1, job.to);
        let next = until;
        if self.lines.get(next).is_some_and(|line| line.begins == Begins::Item && line.indent == indent) && next < job.to {
            self.jobs.push(Job { from: next, ..*job });
        }
        let place = line.start as u32;
        let holder = if is_term_list {
            let term = self.doc.append_at(job.parent, Kind::Term, place);
            if let Some((start, end)) = bullet.term {
                // The box of a term stays as it is written.
                let before = &self.source[line.text..start];
                let start = bullet.checked.and_then(|_| before.rfind('[')).map_or(start, |at| line.text + at);
                self.source_text(term, start, end, place);
            }
            self.doc.append_at(job.parent, Kind::TermDescription, bullet.text as u32)
        } else {
            self.doc.append_at(job.parent, Kind::ListItem { checked: bullet.checked }, place)
        };
        let end = self.last_line(job.from, until);
        self.doc.set_end(holder, end);
        self.doc.set_end(job.parent, end);
        // Of what stands before two colons where the list has no terms, nothing is lost.
        let begin = bullet.term.filter(|_| !is_term_list).map_or(bullet.text, |(start, _)| start);
        let text = (begin < line.end).then_some(begin);
        let from = if text.is_some() { job.from } else { job.from + 1 };
        self.jobs.push(Job { from, to: until, parent: holder, text, what: What::Blocks });
    }

    /// Where the last line ends that is not blank.
    pub(super) fn last_line(&self, from: usize, to: usize) -> u32 {
        let last = (from..to).rev().find(|&number| self.lines.all[number].begins != Begins::Blank);
        last.map_or(0, |number| self.lines.all[number].end as u32)
    }

    /// Items with several paragraphs are set apart; the only paragraph of a description is its text.
    pub(super) fn loosen_lists(&mut self) {
        for list in std::mem::take(&mut self.lists) {
            let items: Vec<NodeId> = self.doc.children(list).collect();
            let paragraphs =
                |item: NodeId| self.doc.children(item).filter(|&child| self.doc.kind(child) == Kind::Paragraph).count();
            let is_loose = items.iter().any(|&item| paragraphs(item) > 1);
            match self.doc.kind(list) {
                Kind::List(kind) if is_loose => self.doc.set_kind(list, Kind::List(ListKind { tight: false, ..kind })),
                Kind::TermList => {
                    for item in items {
                        self.open_description(item);
                    }
                }
                _ => {}
            }
        }
    }
}

impl Reader<'_> {
    /// The only paragraph of a description is its text.
    fn open_description(&mut self, item: NodeId) {
        let doc = &mut self.doc;
        let only = doc.node(item).first_child().filter(|&only| doc.node(only).next().is_none());
        let is_plain = |only: NodeId| doc.kind(only) == Kind::Paragraph && !doc.node(only).has_attributes();
        if let Some(only) = only.filter(|&only| doc.kind(item) == Kind::TermDescription && is_plain(only)) {
            doc.unwrap(only);
        }
    }
}

/// Where the mark behind a term is.
fn term_end(text: &str) -> Option<usize> {
    let mut from = 0;
    loop {
        let at = from + memchr::memchr(b':', text.as_bytes().get(from..)?)?;
        if !text[at + 1..].starts_with(':') {
            from = at + 1;
            continue;
        }
        let behind = text[at + 2..].chars().next();
        if at > 0 && text[..at].ends_with([' ', '\t']) && behind.is_none_or(char::is_whitespace) {
            return Some(at);
        }
        from = at + 2;
    }
}
