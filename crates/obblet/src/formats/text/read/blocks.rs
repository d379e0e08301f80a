//! Blocks: what a run of lines is.

use super::Patterns;
use super::headings::{self, Head};
use super::lines::Line;
use super::{ParagraphEnds, ReadOptions, inlines};
use crate::document::{CellKind, Document, Finding, Kind, ListKind, Marker, NodeId, Text};
use crate::refine::lists::{Mark, typed};
use crate::refine::rules::scenes;
use unicode_width::UnicodeWidthChar;

/// A line of so many columns that ends as sentences do is one.
const LONG_SENTENCE: usize = 40;

/// A list that may get more items.
#[derive(Debug)]
struct Open {
    list: NodeId,
    item: NodeId,
    indent: usize,
    /// Columns from which on a line belongs to the item.
    content: usize,
    marker: Option<Marker>,
    next: i32,
}

bitflags::bitflags! {
    /// What a text has.
    #[derive(Clone, Copy, Debug, Default, PartialEq, Eq, Hash)]
    struct Signs: u8 {
        /// Paragraphs begin with a line that is set in.
        const INDENTED = 1 << 0;
        /// It has parts.
        const PARTS = 1 << 1;
        /// It has chapters.
        const CHAPTERS = 1 << 2;
        /// It begins with a title.
        const TITLE = 1 << 3;
        /// Headings are underlined twice.
        const DOUBLE_LINES = 1 << 4;
    }
}

/// What the text as a whole shows.
#[derive(Clone, Copy, Debug)]
struct Manner {
    /// How many columns wide the text is set; 0 where its lines are not broken to a width.
    width: usize,
    ends: ParagraphEnds,
    signs: Signs,
}

pub(super) struct Blocks<'d, 'o> {
    doc: &'d mut Document,
    options: &'o ReadOptions<'o>,
    lines: &'d [Line],
    manner: Manner,
    /// Where blocks go, and the quotes that are open.
    quotes: Vec<NodeId>,
    lists: Vec<Open>,
    after_blank: bool,
}

impl<'d, 'o> Blocks<'d, 'o> {
    pub(super) fn new(doc: &'d mut Document, options: &'o ReadOptions<'o>, lines: &'d [Line]) -> Self {
        let manner = manner(doc.pool(), lines, options);
        Self { quotes: vec![doc.root()], doc, options, lines, manner, lists: Vec::new(), after_blank: false }
    }

    pub(super) fn read(&mut self) {
        let mut at = 0;
        let (mut first, mut below_title) = (true, false);
        while at < self.lines.len() {
            if self.lines[at].is_blank() {
                self.after_blank = true;
                at += 1;
                continue;
            }
            let quotes = self.lines[at].quotes;
            let end = self.lines[at..]
                .iter()
                .position(|line| line.is_blank() || line.quotes != quotes)
                .map_or(self.lines.len(), |end| at + end);
            if quotes + 1 != self.quotes.len() {
                self.lists.clear();
                self.set_quotes(quotes);
            }
            let lines = &self.lines[at..end];
            let is_author = below_title && lines.len() == 1 && headings::author(self.text(&lines[0])).is_some();
            below_title = false;
            if std::mem::take(&mut first) && self.manner.signs.contains(Signs::TITLE) {
                self.title(lines);
                below_title = lines.len() == 1;
            } else if is_author {
                self.author(&lines[0]);
            } else {
                self.run(lines);
            }
            self.after_blank = false;
            at = end;
        }
    }

    fn set_quotes(&mut self, wanted: usize) {
        self.quotes.truncate(wanted + 1);
        while self.quotes.len() <= wanted {
            let quote = self.doc.append(self.top(), Kind::BlockQuote);
            self.quotes.push(quote);
        }
    }

    fn top(&self) -> NodeId {
        self.quotes.last().copied().unwrap_or(NodeId::ROOT)
    }

    fn text(&self, line: &Line) -> &str {
        line.text(self.doc.pool())
    }

    /// The lines of a title, an author, and what else stands above the text.
    fn title(&mut self, lines: &[Line]) {
        let Some((title, rest)) = lines.split_first() else { return };
        self.doc.metadata.title = Some(self.text(title).to_owned());
        self.front(title, Kind::Heading(1), "title");
        for line in rest {
            self.author(line);
        }
    }

    fn author(&mut self, line: &Line) {
        let author = headings::author(self.text(line)).map(str::to_owned);
        self.doc.metadata.authors.extend(author);
        self.front(line, Kind::Paragraph, "author");
    }

    fn front(&mut self, line: &Line, kind: Kind, class: &str) {
        let node = self.doc.append_at(self.doc.root(), kind, line.start as u32);
        inlines::append(self.doc, node, line.start, line.end, self.options);
        self.class(node, class);
    }

    fn class(&mut self, node: NodeId, class: &str) {
        if self.options.classes {
            let class = self.doc.intern(class);
            self.doc.attributes_mut(node).classes.push(class);
        }
    }

    /// A run of lines without an empty one between.
    fn run(&mut self, lines: &[Line]) {
        let mut from = 0;
        let mut at = 0;
        while at < lines.len() {
            let line = &lines[at];
            if scenes::is_break(self.text(line)) && (lines.len() == 1 || line.width >= 3) && !self.is_underline(lines, at) {
                self.paragraphs(&lines[from..at]);
                self.lists.clear();
                self.doc.append_at(self.top(), Kind::ThematicBreak, line.start as u32);
                from = at + 1;
            } else if self.options.settings.patterns.contains(Patterns::HEADINGS)
                && at + 1 < lines.len()
                && let Some(level) = headings::underline(self.text(&lines[at + 1]), line.width).filter(|_| line.indent < 4)
            {
                self.paragraphs(&lines[from..at]);
                let level = self.level_of_underlined(level);
                self.heading(line, level, "");
                at += 1;
                from = at + 1;
            } else if self.options.settings.patterns.contains(Patterns::HEADINGS)
                && from == at
                && let Some(head) = headings::chapter(self.text(line))
            {
                // A short line right below is what the chapter is called.
                let named = lines.get(at + 1).filter(|name| {
                    lines.len() == at + 2 && name.width <= 60 && !self.text(name).ends_with(['.', ',', '"', '\u{201D}'])
                });
                let (level, class) = self.level_of_chapter(head);
                let node = self.heading(line, level, class);
                if let Some(name) = named.copied() {
                    self.doc.append(node, Kind::LineBreak);
                    inlines::append(self.doc, node, name.start, name.end, self.options);
                    at += 1;
                }
                from = at + 1;
            }
            at += 1;
        }
        self.paragraphs(&lines[from.min(lines.len())..]);
    }

    fn is_underline(&self, lines: &[Line], at: usize) -> bool {
        self.options.settings.patterns.contains(Patterns::HEADINGS)
            && at > 0
            && headings::underline(self.text(&lines[at]), lines[at - 1].width).is_some()
    }

    fn level_of_chapter(&self, head: Head) -> (u8, &'static str) {
        let top = 1 + u8::from(self.manner.signs.contains(Signs::TITLE));
        match head {
            Head::Part => (top, "part"),
            Head::Chapter => (top + u8::from(self.manner.signs.contains(Signs::PARTS)), "chapter"),
        }
    }

    fn level_of_underlined(&self, level: u8) -> u8 {
        let above = u8::from(self.manner.signs.contains(Signs::TITLE))
            + u8::from(self.manner.signs.contains(Signs::PARTS))
            + u8::from(self.manner.signs.contains(Signs::CHAPTERS));
        (above + level - u8::from(level == 2 && !self.manner.signs.contains(Signs::DOUBLE_LINES))).clamp(1, 6)
    }

    fn heading(&mut self, line: &Line, level: u8, class: &str) -> NodeId {
        self.lists.clear();
        let node = self.doc.append_at(self.top(), Kind::Heading(level), line.start as u32);
        inlines::append(self.doc, node, line.start, line.end, self.options);
        if !class.is_empty() {
            self.class(node, class);
        }
        node
    }

    /// Lines that are no headings: lists, columns, paragraphs.
    fn paragraphs(&mut self, lines: &[Line]) {
        let Some(first) = lines.first() else { return };
        if self.options.settings.patterns.contains(Patterns::LISTS) && self.list(lines) {
            return;
        }
        if self.lists.last().is_some_and(|open| self.after_blank && first.indent >= open.content && first.indent > 0) {
            // A paragraph that goes on with the item.
            if let Some(open) = self.lists.last() {
                let item = open.item;
                if let Kind::List(list) = self.doc.kind(open.list) {
                    self.doc.set_kind(open.list, Kind::List(ListKind { tight: false, ..list }));
                }
                self.paragraph(item, lines);
            }
            return;
        }
        self.lists.clear();
        let tabbed = |line: &Line| self.text(line).matches('\t').count();
        let tabs = tabbed(first);
        if lines.len() > 1 && tabs > 0 && lines.iter().all(|line| tabbed(line) == tabs) {
            return self.table(lines);
        }
        let gaps = |line: &Line| self.text(line).contains("   ") || self.text(line).contains('\t');
        if self.is_code(lines) || lines.len() > 1 && lines.iter().filter(|line| gaps(line)).count() * 2 > lines.len() {
            return self.columns(lines);
        }
        let mut from = 0;
        for at in 1..lines.len() {
            let ends = match self.manner.ends {
                ParagraphEnds::Line => true,
                _ => self.manner.signs.contains(Signs::INDENTED) && lines[at].indent > 0,
            };
            if ends {
                self.paragraph(self.top(), &lines[from..at]);
                from = at;
            }
        }
        self.paragraph(self.top(), &lines[from..]);
    }

    /// Whether lines are set in because they are code: all of them, between others that are not, in a text whose paragraphs are
    /// not set in either. A line alone that begins with a tab is a paragraph, and so is one that reads like a sentence.
    fn is_code(&self, lines: &[Line]) -> bool {
        let is_inset = |line: &Line| line.indent >= 4;
        let Some(first) = lines.first().filter(|_| lines.iter().all(is_inset) && !self.manner.signs.contains(Signs::INDENTED))
        else {
            return false;
        };
        let at = self.lines.partition_point(|line| line.start < first.start);
        let filled = |line: &&Line| !line.is_blank();
        let before = self.lines[..at].iter().rev().find(filled);
        let after = self.lines[(at + lines.len()).min(self.lines.len())..].iter().find(filled);
        if before.into_iter().chain(after).any(is_inset) || (before.is_none() && after.is_none()) {
            return false;
        }
        let text = self.text(first);
        let begins_with_tab = self.doc.pool()[..first.start].ends_with('\t');
        let is_sentence =
            first.width >= LONG_SENTENCE && text.ends_with(['.', '!', '?', '"', '\'', '\u{201D}', '\u{2019}', '\u{2026}']);
        lines.len() > 1 || !(begins_with_tab || is_sentence)
    }

    fn paragraph(&mut self, parent: NodeId, lines: &[Line]) {
        let Some(first) = lines.first() else { return };
        let paragraph = self.doc.append_at(parent, Kind::Paragraph, first.start as u32);
        self.words(paragraph, lines);
    }

    /// Adds lines to a paragraph, with a space or a line break between.
    fn words(&mut self, paragraph: NodeId, lines: &[Line]) {
        for (place, line) in lines.iter().enumerate() {
            if let Some(before) = place.checked_sub(1).map(|before| &lines[before]) {
                self.join(paragraph, before, line);
            }
            inlines::append(self.doc, paragraph, line.start, line.end, self.options);
        }
    }

    fn join(&mut self, paragraph: NodeId, before: &Line, line: &Line) {
        let wrapped = self.manner.width > 0 && is_wrapped(self.doc.pool(), before, line, self.manner.width);
        let (last, first) = (self.text(before).chars().next_back(), self.text(line).chars().next());
        if !wrapped {
            self.doc.append(paragraph, Kind::LineBreak);
        } else if last.is_some_and(is_wide) && first.is_some_and(is_wide) {
            // No space stands between East Asian characters.
        } else if self.doc.pool().as_bytes().get(before.end) == Some(&b'\n') {
            self.doc.append_joined(paragraph, Text::between(before.end, before.end + 1), before.end as u32);
        } else {
            let newline = self.doc.intern("\n");
            self.doc.append_joined(paragraph, newline, before.end as u32);
        }
    }

    /// Text in columns keeps its spaces.
    fn columns(&mut self, lines: &[Line]) {
        let least = lines.iter().map(|line| line.indent).min().unwrap_or(0);
        let mut code = String::new();
        for line in lines {
            code.extend(std::iter::repeat_n(' ', line.indent - least));
            code.push_str(self.text(line));
            code.push('\n');
        }
        let code = self.doc.intern(&code);
        let start = lines.first().map_or(0, |line| line.start);
        let node = self.doc.append_at(self.top(), Kind::CodeBlock { code, info: Text::EMPTY }, start as u32);
        if lines.len() > 1 {
            let place = self.doc.place(node);
            self.doc.push_finding(
                Finding::advice("text.columns", "text aligned with spaces is kept as preformatted text")
                    .at(place)
                    .hint("set tabs between columns to make a table of it"),
            );
        }
    }

    /// Lines with the same number of tabs are rows.
    fn table(&mut self, lines: &[Line]) {
        let start = lines.first().map_or(0, |line| line.start);
        let table = self.doc.append_at(self.top(), Kind::Table, start as u32);
        for line in lines {
            let row = self.doc.append_at(table, Kind::Row, line.start as u32);
            let mut at = line.start;
            let text = self.text(line).to_owned();
            for cell in text.split('\t') {
                let node = self.doc.append_at(row, Kind::Cell(CellKind::PLAIN), at as u32);
                let from = at + cell.len() - cell.trim_start().len();
                inlines::append(self.doc, node, from, (from + cell.trim().len()).max(from), self.options);
                at += cell.len() + 1;
            }
        }
    }

    /// Lines of which the first begins with a marker.
    fn list(&mut self, lines: &[Line]) -> bool {
        let mark = |blocks: &Self, line: &Line| {
            let (mark, length) = ticked(blocks.text(line), typed(blocks.text(line))?);
            let plausible = match &mark {
                Mark::Bullet(_) => true,
                // A year and a full stop begin no list, nor does an initial.
                Mark::Number(values) => values.iter().any(|&(style, value)| {
                    blocks.lists.iter().any(|open| open.marker == Some(style) && open.next == value) || value <= 1
                }),
            };
            (plausible && length < line.end - line.start).then_some((mark, length))
        };
        let Some(first) = mark(self, &lines[0]) else { return false };
        let mut pending = Some(first);
        let mut at = 0;
        while at < lines.len() {
            let line = lines[at];
            let Some((sign, length)) = pending.take() else { break };
            self.item(&line, &sign, length);
            let mut end = at + 1;
            while end < lines.len() {
                pending = mark(self, &lines[end]);
                if pending.is_some() {
                    break;
                }
                end += 1;
            }
            let paragraph = self.lists.last().and_then(|open| self.doc.node(open.item).last_child());
            if let Some(paragraph) = paragraph {
                inlines::append(self.doc, paragraph, line.start + length, line.end, self.options);
                for next in &lines[at + 1..end] {
                    // What follows a marker is joined whatever its width: lines of items are broken early.
                    let newline = self.doc.intern("\n");
                    self.doc.append_joined(paragraph, newline, next.start as u32);
                    inlines::append(self.doc, paragraph, next.start, next.end, self.options);
                }
            }
            at = end;
        }
        true
    }

    fn item(&mut self, line: &Line, sign: &Mark, length: usize) {
        while self.lists.last().is_some_and(|open| line.indent < open.indent) && self.lists.len() > 1 {
            self.lists.pop();
        }
        let deeper = self.lists.last().is_some_and(|open| line.indent > open.indent + 1);
        let fitting = self.lists.last().filter(|_| !deeper).and_then(|open| match (sign, open.marker) {
            (Mark::Bullet(_), None) => Some((None, 1)),
            (Mark::Number(values), Some(marker)) => values
                .iter()
                .find(|&&(style, value)| style == marker && value == open.next)
                .map(|&(_, value)| (Some(marker), value)),
            _ => None,
        });
        let (marker, value) = fitting.unwrap_or_else(|| match sign {
            Mark::Bullet(_) => (None, 1),
            Mark::Number(values) => {
                let first = values.iter().find(|(_, value)| *value <= 1).or_else(|| values.first());
                first.map_or((None, 1), |&(marker, value)| (Some(marker), value))
            }
        });
        let checked = if let Mark::Bullet(checked) = sign { *checked } else { None };
        if fitting.is_none() {
            if !deeper {
                self.lists.pop();
            }
            let parent = self.lists.last().map_or_else(|| self.top(), |open| open.item);
            let kind = ListKind { ordered: marker.is_some(), tight: true, marker: marker.unwrap_or_default(), start: value };
            let list = self.doc.append_at(parent, Kind::List(kind), line.start as u32);
            self.lists.push(Open { list, item: list, indent: line.indent, content: 0, marker, next: value });
        } else if self.after_blank
            && let Some(open) = self.lists.last()
            && let Kind::List(list) = self.doc.kind(open.list)
        {
            self.doc.set_kind(open.list, Kind::List(ListKind { tight: false, ..list }));
        }
        if let Some(open) = self.lists.last_mut() {
            open.item = self.doc.append_at(open.list, Kind::ListItem { checked }, line.start as u32);
            open.content = line.indent + 2.min(length);
            open.next = value + 1;
            self.doc.append_at(open.item, Kind::Paragraph, (line.start + length) as u32);
        }
        self.after_blank = false;
    }
}

/// A marker with the box behind it that says whether the item is done, as in `- [x] staff washed`.
fn ticked(text: &str, (mark, length): (Mark, usize)) -> (Mark, usize) {
    let checked = match text.get(length..length + 4) {
        Some("[ ] ") => false,
        Some("[x] " | "[X] ") => true,
        _ => return (mark, length),
    };
    if mark == Mark::Bullet(None) { (Mark::Bullet(Some(checked)), length + 4) } else { (mark, length) }
}

/// Whether a line ends because the first word of the next one had no place in it. People who break lines by hand leave some room.
fn is_wrapped(pool: &str, before: &Line, line: &Line, width: usize) -> bool {
    let word = line.text(pool).split_whitespace().next().unwrap_or_default();
    // East Asian lines can be broken behind each character.
    let next = if word.chars().next().is_some_and(is_wide) { 2 } else { word.chars().count() };
    (before.indent + before.width + 1 + next) * 8 > width * 7
}

/// Whether a line ends as sentences do.
fn ends_sentence(text: &str) -> bool {
    text.ends_with(['.', '!', '?', '"', '\'', '\u{201D}', '\u{2019}', '\u{2026}'])
}

fn is_wide(c: char) -> bool {
    c.width() == Some(2)
}

/// Looks at the text as a whole.
fn manner(pool: &str, lines: &[Line], options: &ReadOptions<'_>) -> Manner {
    let filled: Vec<&Line> = lines.iter().filter(|line| !line.is_blank()).collect();
    let widest = filled.iter().map(|line| line.indent + line.width).max().unwrap_or(0);
    // Where lines are broken to a width, most that go on do so because the next word had no place.
    let joints = || lines.windows(2).filter(|pair| !pair[0].is_blank() && !pair[1].is_blank());
    let is_plain = |line: &Line| typed(line.text(pool)).is_none() && headings::chapter(line.text(pool)).is_none();
    let first_end = lines.iter().position(Line::is_blank).and_then(|end| lines.get(end)).map_or(0, |line| line.start);
    let text = || joints().filter(|pair| pair[0].start > first_end && is_plain(&pair[0]) && is_plain(&pair[1]));
    let wrapped = text().filter(|pair| is_wrapped(pool, &pair[0], &pair[1], widest)).count();
    let broken = (30..=160).contains(&widest) && wrapped * 5 >= text().count() * 2;
    let blank = lines.windows(2).filter(|pair| pair[0].is_blank() && !pair[1].is_blank()).count();
    let follow = joints().count();
    let is_inset = |line: &Line| (1..=10).contains(&line.indent) && typed(line.text(pool)).is_none();
    let inset = filled.iter().filter(|line| is_inset(line) && line.width > 20).count();
    // An empty line says nothing of paragraphs where it stands around a title, a chapter or a mark between scenes.
    let is_long = |line: &Line| line.indent + line.width > 60;
    let parted = lines.windows(2).filter(|pair| pair[0].is_blank() && is_long(&pair[1]) && !is_inset(&pair[1])).count();
    // Most lines are not set in, and those that are begin something: manuscripts have no empty lines between paragraphs then.
    let parted_little = inset > 1 && inset * 2 < filled.len() && parted * 4 < inset * 3;
    // Or each paragraph is one line that is set in, however long it is.
    let set_in = || filled.iter().filter(|line| line.indent > 0 && line.quotes == 0 && typed(line.text(pool)).is_none());
    let sentences = set_in().filter(|line| ends_sentence(line.text(pool))).count();
    // Lines that are broken to a width, all of them set in, end as sentences do now and then.
    let most = if broken { 4 } else { 6 };
    let in_lines = set_in().count() > 1 && set_in().count() * 2 >= filled.len() && sentences * most >= set_in().count() * 3;
    let indented = options.settings.paragraphs == ParagraphEnds::Auto && (parted_little || in_lines);
    let ends = match options.settings.paragraphs {
        ParagraphEnds::Auto if indented => ParagraphEnds::BlankLine,
        // Without empty lines to speak of, and with lines as long as paragraphs, each is one.
        ParagraphEnds::Auto if (blank * 8 < follow && !broken) || widest > 200 => ParagraphEnds::Line,
        ParagraphEnds::Auto => ParagraphEnds::BlankLine,
        given => given,
    };
    let head = |wanted: Head| {
        options.settings.patterns.contains(Patterns::HEADINGS)
            && filled.iter().any(|line| headings::chapter(line.text(pool)) == Some(wanted))
    };
    let double = |pair: &[Line]| !pair[0].is_blank() && headings::underline(pair[1].text(pool), pair[0].width) == Some(1);
    let start: Vec<&Line> = lines.iter().skip_while(|line| line.is_blank()).take_while(|line| !line.is_blank()).collect();
    let more = start.len() < filled.len();
    let has_title = options.settings.patterns.contains(Patterns::HEADINGS)
        && more
        && (1..=4).contains(&start.len())
        && start.iter().all(|line| line.width <= 80 && line.quotes == 0)
        && !(start.len() > 1 && start.iter().all(|line| headings::mail_field(line.text(pool))))
        && start.first().is_some_and(|line| {
            let text = line.text(pool);
            headings::title(text) && headings::chapter(text).is_none() && typed(text).is_none() && !scenes::is_break(text)
        })
        && start.get(1).is_none_or(|line| {
            headings::author(line.text(pool)).is_some()
                || (headings::title(line.text(pool)) && headings::underline(line.text(pool), start[0].width).is_none())
        })
        && start.get(1).is_none_or(|line| line.text(pool).chars().any(char::is_alphabetic));
    let mut signs = Signs::empty();
    signs.set(Signs::INDENTED, indented);
    signs.set(Signs::PARTS, head(Head::Part));
    signs.set(Signs::CHAPTERS, head(Head::Chapter));
    signs.set(Signs::TITLE, has_title);
    signs.set(Signs::DOUBLE_LINES, options.settings.patterns.contains(Patterns::HEADINGS) && lines.windows(2).any(double));
    Manner { width: if broken { widest } else { 0 }, ends, signs }
}
