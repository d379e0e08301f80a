//! Blocks: what each line begins becomes a node, and what is within it is read in turn, without recursion (Org syntax,
//! "Elements").

use super::Reader;
use super::code::Exports;
use super::inlines::is_picture;
use super::keywords::Affiliated;
use super::lines::{Begins, BlockKind, note_label};
use super::options::Shows;
use crate::document::{Callout, DivisionKind, Kind, NodeId, Text};

/// A part of the source that is to be read.
#[derive(Clone, Copy, Debug)]
pub(super) struct Job {
    pub(super) from: usize,
    pub(super) to: usize,
    pub(super) parent: NodeId,
    /// Where the text of its first line begins, if that is not where the line does.
    pub(super) text: Option<usize>,
    pub(super) what: What,
}

/// What is in a part of the source.
#[derive(Clone, Copy, Debug)]
pub(super) enum What {
    Blocks,
    /// Items of a list that are set in so far.
    Items(u32),
}

impl Job {
    pub(super) const fn blocks(from: usize, to: usize, parent: NodeId) -> Self {
        Self { from, to, parent, text: None, what: What::Blocks }
    }
}

impl Reader<'_> {
    /// Reads a part of the source.
    pub(super) fn run(&mut self, job: Job) {
        self.jobs.push(job);
        while let Some(job) = self.jobs.pop() {
            match job.what {
                What::Blocks => self.blocks(job),
                What::Items(indent) => self.items(&job, indent),
            }
        }
    }

    /// Reads blocks one behind the other, up to one that holds others.
    fn blocks(&mut self, mut job: Job) {
        while job.from < job.to {
            if let Some(text) = job.text.take() {
                job.from = self.paragraph(job.from, job.to, Some(text), job.parent, &Affiliated::default());
                continue;
            }
            if self.lines.all[job.from].begins == Begins::Blank {
                job.from += 1;
                continue;
            }
            let mut affiliated = Affiliated::default();
            let first = job.from;
            let mut at = job.from;
            while at < job.to && self.lines.all[at].begins == Begins::Keyword && self.affiliate(at, &mut affiliated) {
                at += 1;
            }
            if self.lines.get(at).is_none_or(|line| at >= job.to || line.begins == Begins::Blank) {
                // They say something of nothing.
                for (start, end) in affiliated.captions {
                    self.tallies.captions.add(start as u32, &self.source[start..end]);
                }
                job.from = at.max(first + 1);
                continue;
            }
            let waiting = self.jobs.len();
            job.from = self.block(at, job.to, job.parent, &affiliated).max(at + 1);
            if let Some(&(start, end)) = affiliated.captions.first()
                && !self.ends_with_caption(job.parent)
            {
                // Only tables, pictures and code have captions.
                self.tallies.captions.add(start as u32, &self.source[start..end]);
            }
            if self.jobs.len() > waiting {
                // What it holds comes first.
                self.jobs.insert(waiting, job);
                return;
            }
        }
    }

    /// Whether the last block of a node has a caption.
    fn ends_with_caption(&self, parent: NodeId) -> bool {
        self.doc.node(parent).last_child().is_some_and(|last| self.has_caption(last))
    }

    /// Whether a block has a caption: its first or its last part.
    pub(super) fn has_caption(&self, block: NodeId) -> bool {
        let node = self.doc.node(block);
        [node.first_child(), node.last_child()].into_iter().flatten().any(|child| self.doc.kind(child) == Kind::Caption)
    }

    /// Reads the block that a line begins. Returns the line behind it.
    fn block(&mut self, at: usize, to: usize, parent: NodeId, affiliated: &Affiliated) -> usize {
        let line = self.lines.all[at];
        let ends = line.until > at && line.until < to;
        match line.begins {
            Begins::Blank | Begins::Comment | Begins::Heading => at + 1,
            Begins::Block(kind) if ends => self.block_with_end(kind, at, to, parent, affiliated),
            Begins::Drawer if ends => {
                self.drawer(at, parent);
                line.until + 1
            }
            Begins::Environment if ends || self.is_one_line(at) => {
                let until = if self.is_one_line(at) { at } else { line.until };
                self.environment((at, until), parent, affiliated);
                until + 1
            }
            Begins::Keyword => {
                self.keyword_line(at, parent);
                at + 1
            }
            Begins::Fixed if self.options.shows.contains(Shows::FIXED) => self.fixed(at, to, parent, affiliated),
            Begins::Table if self.options.shows.contains(Shows::TABLES) => self.table(at, to, parent, affiliated),
            Begins::Grid => self.grid(at, to, parent, affiliated),
            Begins::Rule => {
                let node = self.doc.append_at(parent, Kind::ThematicBreak, line.start as u32);
                self.doc.set_end(node, line.end as u32);
                at + 1
            }
            Begins::Item => {
                let end = self.end_of_list(at, to);
                let list = self.list(at, end, parent);
                self.apply(list, affiliated);
                end
            }
            Begins::Note => self.note_definition(at, to),
            Begins::Clock => {
                if self.options.shows.contains(Shows::CLOCKS) {
                    return self.paragraph(at, at + 1, None, parent, affiliated);
                }
                at + 1
            }
            _ => {
                if matches!(line.begins, Begins::Block(_) | Begins::Drawer) {
                    self.tallies.unclosed.add(line.start as u32, "");
                }
                self.paragraph(at, to, None, parent, affiliated)
            }
        }
    }

    fn is_one_line(&self, at: usize) -> bool {
        let line = self.lines.all[at];
        self.source[line.text..line.end].contains("\\end{")
    }

    /// The line behind the last item of a list.
    fn end_of_list(&self, at: usize, to: usize) -> usize {
        let indent = self.lines.all[at].indent;
        let mut end = at;
        while let Some(line) = self.lines.get(end).filter(|line| end < to && line.begins == Begins::Item && line.indent == indent)
        {
            end = line.until.clamp(end + 1, to);
        }
        end
    }

    /// Reads a block whose end is known.
    fn block_with_end(&mut self, kind: BlockKind, at: usize, to: usize, parent: NodeId, affiliated: &Affiliated) -> usize {
        let line = self.lines.all[at];
        let end = line.until + 1;
        let place = self.lines.all[affiliated.from.unwrap_or(at)].start as u32;
        if !kind.holds_blocks() && kind != BlockKind::Verse {
            let exports = if kind == BlockKind::Source { self.exports(at) } else { Exports::Code };
            if exports.code() {
                if let Some(mut node) = self.raw_block(kind, at, parent, affiliated) {
                    self.doc.set_end(node, self.lines.all[line.until].end as u32);
                    if !affiliated.captions.is_empty() {
                        let figure = self.doc.wrap(node, Kind::Figure);
                        self.doc.set_offset(figure, place);
                        self.doc.set_end(figure, self.lines.all[line.until].end as u32);
                        self.caption(figure, affiliated);
                        node = figure;
                    }
                    self.apply(node, affiliated);
                }
            } else {
                self.exclude(at + 1, line.until);
            }
            if kind == BlockKind::Source && !exports.results() {
                return self.skip_results(end, to);
            }
            return end;
        }
        let node = match kind {
            BlockKind::Quote => self.doc.append_at(parent, Kind::BlockQuote, place),
            BlockKind::Dynamic => parent,
            BlockKind::Verse => {
                self.verse(at, parent, place, affiliated);
                return end;
            }
            _ => self.special(kind, at, parent, place),
        };
        if node != parent {
            self.doc.set_end(node, self.lines.all[line.until].end as u32);
            self.apply(node, affiliated);
        }
        self.jobs.push(Job::blocks(at + 1, line.until, node));
        end
    }

    /// A block with a name of its own: what it is where that is known, else a part of the document with its name as a class.
    fn special(&mut self, kind: BlockKind, at: usize, parent: NodeId, place: u32) -> NodeId {
        let line = self.lines.all[at];
        let words = &self.source[line.text..line.end];
        let name = words["#+begin_".len()..].split([' ', '\t']).next().unwrap_or_default().to_ascii_lowercase();
        let callout = |callout| DivisionKind::Callout(callout);
        let division = match name.as_str() {
            "note" => callout(Callout::Note),
            "tip" | "hint" => callout(Callout::Tip),
            "important" => callout(Callout::Important),
            "warning" => callout(Callout::Warning),
            "caution" => callout(Callout::Caution),
            "aside" => DivisionKind::Aside,
            "section" => DivisionKind::Section,
            "article" => DivisionKind::Article,
            "nav" => DivisionKind::Navigation,
            "header" => DivisionKind::Header,
            "footer" => DivisionKind::Footer,
            _ => DivisionKind::Plain,
        };
        if name == "details" {
            return self.doc.append_at(parent, Kind::Details { open: false }, place);
        }
        if name == "summary" {
            return self.doc.append_at(parent, Kind::Summary, place);
        }
        let node = self.doc.append_at(parent, Kind::Division(division), place);
        if division == DivisionKind::Plain && name != "div" {
            let class = self.doc.intern(if kind == BlockKind::Center { "center" } else { &name });
            self.doc.attributes_mut(node).classes.push(class);
        }
        node
    }

    /// A poem: its line ends are line breaks, and the white space before its lines stays.
    fn verse(&mut self, at: usize, parent: NodeId, place: u32, affiliated: &Affiliated) {
        let until = self.lines.all[at].until;
        let holder = self.doc.append_at(parent, Kind::Division(DivisionKind::Plain), place);
        let class = self.doc.intern("verse");
        self.doc.attributes_mut(holder).classes.push(class);
        self.apply(holder, affiliated);
        let paragraph = self.doc.append_at(holder, Kind::Paragraph, place);
        for node in [holder, paragraph] {
            self.doc.set_end(node, self.lines.all[until].end as u32);
        }
        let least = (at + 1..until).map(|number| self.lines.all[number]).filter(|line| line.begins != Begins::Blank);
        let least = least.map(|line| line.indent).min().unwrap_or(0);
        for number in at + 1..until {
            let line = self.lines.all[number];
            if number > at + 1 {
                self.doc.append_at(paragraph, Kind::LineBreak, line.start as u32);
            }
            if line.begins == Begins::Blank {
                continue;
            }
            let spaces = self.doc.intern(&"\u{A0}".repeat((line.indent - least).min(200) as usize));
            self.doc.append_joined(paragraph, spaces, line.start as u32);
            self.source_text(paragraph, line.text, line.end, line.text as u32);
        }
    }

    /// Reads what is in a drawer, if that is shown.
    fn drawer(&mut self, at: usize, parent: NodeId) {
        let line = self.lines.all[at];
        let name = self.source[line.text..line.end].trim_matches(':').to_owned();
        if name.eq_ignore_ascii_case("properties") {
            return;
        }
        if !self.options.shows_drawer(&name) {
            return self.exclude(at + 1, line.until);
        }
        self.jobs.push(Job::blocks(at + 1, line.until, parent));
    }

    /// What a block of code came to is left out with it. Returns the line behind it.
    fn skip_results(&mut self, end: usize, to: usize) -> usize {
        let mut at = end;
        while at < to && self.lines.all[at].begins == Begins::Blank {
            at += 1;
        }
        let mut affiliated = Affiliated::default();
        let from = at;
        while at < to && self.lines.all[at].begins == Begins::Keyword && self.affiliate(at, &mut affiliated) {
            at += 1;
        }
        if !affiliated.is_result || at >= to {
            return end;
        }
        let line = self.lines.all[at];
        let behind = match line.begins {
            Begins::Block(_) | Begins::Drawer if line.until > at && line.until < to => line.until + 1,
            Begins::Item => self.end_of_list(at, to),
            Begins::Fixed | Begins::Table => (at..to).find(|&number| self.lines.all[number].begins != line.begins).unwrap_or(to),
            Begins::Blank => at,
            _ => (at..to).find(|&number| self.lines.all[number].begins == Begins::Blank).unwrap_or(to),
        };
        self.exclude(from + 1, behind);
        behind
    }

    /// Reads the definition of a note. Returns the line behind it.
    pub(super) fn note_definition(&mut self, at: usize, to: usize) -> usize {
        let line = self.lines.all[at];
        let mut end = at + 1;
        while end < to {
            let next = self.lines.all[end];
            let is_blank = |number: usize| self.lines.get(number).is_some_and(|line| line.begins == Begins::Blank);
            if next.begins == Begins::Note || (is_blank(end) && is_blank(end + 1)) {
                break;
            }
            end += 1;
        }
        let words = &self.source[line.text..line.end];
        let Some(label) = note_label(words) else { return at + 1 };
        let note = self.note_of(label, line.start as u32);
        if !self.mark_defined(note) {
            self.exclude(at, end);
            return end;
        }
        let body = self.doc.notes[note.0 as usize].body;
        self.doc.set_offset(body, line.start as u32);
        self.doc.set_end(body, self.last_line(at, end));
        let behind = line.text + "[fn:".len() + label.len() + 1;
        let rest = &self.source[behind..line.end];
        let text = behind + rest.len() - rest.trim_start().len();
        let text = (text < line.end).then_some(text);
        let from = if text.is_some() { at } else { at + 1 };
        self.jobs.push(Job { from, to: end, parent: body, text, what: What::Blocks });
        end
    }

    /// Reads a paragraph. Returns the line behind it.
    fn paragraph(&mut self, at: usize, to: usize, text: Option<usize>, parent: NodeId, affiliated: &Affiliated) -> usize {
        let mut end = at + 1;
        while end < to && self.goes_on(end, to) {
            end += 1;
        }
        let first = self.lines.all[at];
        let start = text.unwrap_or(first.text);
        let stop = self.lines.all[end - 1].end;
        let place = affiliated.from.map_or(start, |number| self.lines.all[number].start) as u32;
        if self.bibliography((start, stop.max(start)), parent) {
            return end;
        }
        let paragraph = self.doc.append_at(parent, Kind::Paragraph, place);
        self.doc.set_end(paragraph, stop as u32);
        self.source_text(paragraph, start, stop.max(start), start as u32);
        self.trim_start(paragraph);
        if self.doc.node(paragraph).first_child().is_none() && affiliated.name.is_none() {
            // All of it was for other formats.
            self.doc.detach(paragraph);
            return end;
        }
        self.picture(paragraph, affiliated);
        end
    }

    /// White space is no text at the beginning of a paragraph, nor behind a target there.
    fn trim_start(&mut self, paragraph: NodeId) {
        let first = self.doc.node(paragraph).first_child();
        let is_target = |id: NodeId| self.doc.kind(id) == Kind::Anchor && self.doc.node(id).first_child().is_none();
        let text = match first {
            Some(first) if is_target(first) => self.doc.node(first).next(),
            first => first,
        };
        if let Some(id) = text
            && let Kind::Text(text) = self.doc.kind(id)
        {
            let words = self.doc.text(text);
            let white = words.len() - words.trim_start_matches(' ').len();
            if white == words.len() {
                self.doc.detach(id);
            } else if white > 0 {
                self.doc.set_kind(id, Kind::Text(Text { start: text.start + white as u32, end: text.end }));
            }
        }
    }

    /// Whether a paragraph goes on with a line.
    fn goes_on(&self, number: usize, to: usize) -> bool {
        let line = self.lines.all[number];
        match line.begins {
            Begins::Text | Begins::End => true,
            Begins::Block(_) | Begins::Drawer => line.until <= number || line.until >= to,
            Begins::Environment => (line.until <= number || line.until >= to) && !self.is_one_line(number),
            Begins::Fixed => !self.options.shows.contains(Shows::FIXED),
            Begins::Table => !self.options.shows.contains(Shows::TABLES),
            _ => false,
        }
    }

    /// A picture that stands alone with a caption is a figure. What is said of a paragraph that begins with one is said of it.
    fn picture(&mut self, paragraph: NodeId, affiliated: &Affiliated) {
        let first = self.doc.node(paragraph).first_child();
        let is_alone = first.is_some_and(|first| self.doc.node(first).next().is_none());
        let image = first.and_then(|first| match self.doc.kind(first) {
            Kind::Link { .. } => self.doc.node(first).first_child().filter(|&image| self.doc.node(image).next().is_none()),
            _ => Some(first),
        });
        let image =
            image.filter(|&image| matches!(self.doc.kind(image), Kind::Image { src, .. } if is_picture(self.doc.text(src))));
        let Some(image) = image else { return self.apply(paragraph, affiliated) };
        let mut of_holder = affiliated.clone();
        of_holder.attributes.retain(|(key, _)| matches!(key.as_str(), "id" | "class" | "lang" | "dir"));
        for (key, value) in &affiliated.attributes {
            match (key.as_str(), self.doc.kind(image)) {
                ("alt", Kind::Image { src, .. }) => {
                    let alt = self.doc.intern(value);
                    self.doc.set_kind(image, Kind::Image { src, alt });
                }
                ("title", _) => {
                    let title = self.doc.intern(value);
                    self.doc.attributes_mut(image).title = Some(title);
                }
                ("width" | "height", _) if value.trim_end_matches("px").bytes().all(|byte| byte.is_ascii_digit()) => {
                    let pair = (self.doc.intern(key), self.doc.intern(value.trim_end_matches("px")));
                    self.doc.attributes_mut(image).other.push(pair);
                }
                _ => {}
            }
        }
        if affiliated.captions.is_empty() || !is_alone {
            return self.apply(paragraph, &of_holder);
        }
        self.doc.set_kind(paragraph, Kind::Figure);
        self.apply(paragraph, &of_holder);
        self.caption(paragraph, affiliated);
    }
}
