//! The outline: headings with all that they carry, and what of it is written (Org syntax, "Headings" and "Sections").

use super::Reader;
use super::blocks::Job;
use super::inlines::date_at;
use super::lines::{Begins, Line, note_label, stars};
use super::options::{Archived, Shows};
use crate::document::{DivisionKind, HintRole, Kind, ListKind, Marker, NodeId, Task, TextLevel};
use crate::fast_hash::HashSet;
use crate::refine::targets;

/// The parts of the line of a heading.
#[derive(Clone, Debug, Default, PartialEq, Eq)]
pub(super) struct Headline<'s> {
    pub(super) level: usize,
    /// The word that says how far it is, and whether that is done.
    pub(super) state: Option<(&'s str, bool)>,
    pub(super) priority: Option<&'s str>,
    pub(super) is_comment: bool,
    /// Where its words begin and end in the source.
    pub(super) words: (usize, usize),
    pub(super) tags: Vec<&'s str>,
}

impl<'s> Reader<'s> {
    /// Takes the line of a heading apart.
    pub(super) fn headline(&self, line: &Line) -> Headline<'s> {
        let source = self.source;
        let whole = &source[line.start..line.end];
        let level = stars(whole);
        let mut headline = Headline { level, ..Headline::default() };
        let skip = |at: usize| at + source[at..line.end].len() - source[at..line.end].trim_start().len();
        let mut at = skip(line.start + level);
        let word = |at: usize| source[at..line.end].split([' ', '\t']).next().unwrap_or_default();
        if let Some(done) = self.options.states.get(word(at)) {
            headline.state = Some((word(at), *done));
            at = skip(at + word(at).len());
        }
        let rest = &source[at..line.end];
        if let Some(priority) = rest.strip_prefix("[#").and_then(|rest| rest.split_once(']')).map(|(priority, _)| priority)
            && (1..=2).contains(&priority.len())
            && priority.bytes().all(|byte| byte.is_ascii_alphanumeric())
        {
            headline.priority = Some(priority);
            at = skip(at + priority.len() + 3);
        }
        if word(at) == "COMMENT" {
            headline.is_comment = true;
            at = skip(at + "COMMENT".len());
        }
        let words = &source[at..line.end];
        let mut end = line.end;
        let last = words.rsplit([' ', '\t']).next().unwrap_or_default();
        let is_tags = last.len() > 2 && last.starts_with(':') && last.ends_with(':');
        let is_tag = |c: char| c.is_alphanumeric() || matches!(c, '_' | '@' | '#' | '%' | ':');
        if is_tags && last.chars().all(is_tag) {
            headline.tags = last.split(':').filter(|tag| !tag.is_empty()).collect();
            end = at + words[..words.len() - last.len()].trim_end().len();
        }
        headline.words = (at, end.max(at));
        headline
    }

    /// Reads the outline: what is before the first heading, then each heading with what is below it.
    pub(super) fn outline(&mut self) {
        let count = self.lines.all.len();
        let headings: Vec<usize> = (0..count).filter(|&number| self.lines.all[number].begins == Begins::Heading).collect();
        let is_written = self.written_headings(&headings);
        let first = headings.first().copied().unwrap_or(count);
        let root = self.doc.root();
        if is_written.0 {
            self.run(Job::blocks(0, first, root));
        }
        let lowered = self.put_title();
        for (index, (&number, written)) in headings.iter().zip(&is_written.1).enumerate() {
            let end = headings.get(index + 1).copied().unwrap_or(count);
            match written {
                Written::Whole => self.section(number, end, lowered),
                Written::Heading => {
                    self.section(number, number + 1, lowered);
                    self.exclude(number + 1, end);
                }
                Written::Not => self.exclude(number, end),
            }
        }
    }

    /// Which headings are written, and whether what is before the first one is.
    fn written_headings(&mut self, headings: &[usize]) -> (bool, Vec<Written>) {
        let all: Vec<Headline<'s>> = headings.iter().map(|&number| self.headline(&self.lines.all[number])).collect();
        // The tags of the file are those of each of its headings.
        let of_file = |tags: &HashSet<String>| self.options.file_tags.iter().any(|tag| tags.contains(tag));
        let (selects_all, excludes_all) = (of_file(&self.options.select), of_file(&self.options.exclude));
        let has = |headline: &Headline<'_>, tags: &HashSet<String>| headline.tags.iter().any(|tag| tags.contains(*tag));
        let mut written = vec![Written::Whole; all.len()];
        // A part that is asked for, or parts with a tag that selects.
        let wanted = self.settings.select.trim().to_owned();
        let is_wanted = |headline: &Headline<'_>| {
            let words = &self.source[headline.words.0..headline.words.1];
            words == wanted || headline.tags.contains(&wanted.trim_matches(':'))
        };
        let selects: Vec<bool> = if wanted.is_empty() {
            all.iter().map(|headline| !selects_all && has(headline, &self.options.select)).collect()
        } else {
            all.iter().map(is_wanted).collect()
        };
        let is_selected = selects.contains(&true);
        if !wanted.is_empty() && !is_selected {
            let finding = crate::document::Finding::lost("org.select", format!("no heading and no tag is {wanted}"));
            self.doc.push_finding(finding.hint("set org.select to the words of a heading, or to a tag"));
        }
        if is_selected || !wanted.is_empty() {
            mark_selected(&all, &selects, wanted.is_empty(), &mut written);
        }
        // Below a heading that is left out, all is.
        let mut out: Option<usize> = None;
        for (headline, written) in all.iter().zip(&mut written) {
            if let Some(level) = out {
                if headline.level > level {
                    *written = Written::Not;
                    continue;
                }
                out = None;
            }
            if excludes_all || headline.is_comment || has(headline, &self.options.exclude) {
                *written = Written::Not;
                out = Some(headline.level);
            } else if headline.tags.contains(&"ARCHIVE") && self.options.archived != Archived::Whole {
                *written = if self.options.archived == Archived::Nothing { Written::Not } else { Written::Heading };
                out = Some(headline.level);
            }
        }
        (!is_selected && wanted.is_empty(), written)
    }

    /// The title of the file stands above its headings, which go down a level for it.
    fn put_title(&mut self) -> usize {
        if !self.options.shows.contains(Shows::TITLE) || !self.settings.select.is_empty() {
            return 0;
        }
        let Some(title) = self.options.value("title") else { return 0 };
        let title = title.split_whitespace().collect::<Vec<_>>().join(" ");
        let heading = self.doc.create(Kind::Heading(1));
        match self.doc.node(self.doc.root()).first_child() {
            Some(first) => self.doc.move_before(first, heading),
            None => self.doc.move_into(self.doc.root(), heading),
        }
        self.interned(heading, &title, 0);
        // Without its markers.
        self.doc.metadata.title = Some(self.doc.plain_text(heading));
        self.doc.layout_hints.at(heading).part = HintRole::Title { lowered: 1 };
        if let Some(subtitle) = self.options.value("subtitle") {
            let paragraph = self.doc.create(Kind::Paragraph);
            self.doc.move_after(heading, paragraph);
            self.interned(paragraph, &subtitle, 0);
        }
        1
    }

    /// Reads text that is no piece of the source.
    pub(super) fn interned(&mut self, node: NodeId, text: &str, place: u32) {
        let expanded = self.expand(text, place);
        let text = expanded.as_deref().unwrap_or(text);
        let base = self.doc.intern(text).start as usize;
        self.inlines(node, text, base, Some(place));
    }

    /// Lines that the file leaves out itself.
    pub(super) fn exclude(&mut self, from: usize, to: usize) {
        for number in from..to {
            let line = self.lines.all[number];
            if line.begins == Begins::Note
                && let Some(label) = note_label(&self.source[line.text..line.end])
            {
                self.left_out_notes.entry(label.to_owned()).or_insert(number);
            }
            if line.begins != Begins::Blank {
                self.tallies.excluded.add(line.start as u32, &self.source[line.text..line.end]);
            }
        }
    }

    /// Reads a heading and what is below it.
    fn section(&mut self, number: usize, end: usize, lowered: usize) {
        let line = self.lines.all[number];
        let headline = self.headline(&line);
        let root = self.holder_of_section(&headline, line.start as u32);
        let words = &self.source[headline.words.0..headline.words.1];
        let first = (number + 1..end).find(|&at| self.lines.all[at].begins != Begins::Blank);
        let is_of_notes =
            words.eq_ignore_ascii_case("footnotes") && first.is_some_and(|first| self.lines.all[first].begins == Begins::Note);
        let mut at = number + 1;
        let mut holder = root;
        if !is_of_notes {
            self.properties.enter(headline.level);
            let heading = if headline.level > self.options.deepest_heading {
                let low = self.low_heading(&headline, line.start as u32);
                holder = low.item;
                let paragraph = self.doc.append_at(low.item, Kind::Paragraph, line.start as u32);
                self.heading_words(paragraph, &headline);
                self.doc.set_end(paragraph, line.end as u32);
                low.item
            } else {
                self.parts.low.clear();
                if headline.level + lowered > 6 {
                    self.tallies.deep_headings.add(line.start as u32, "");
                }
                let level = (headline.level + lowered).min(6) as u8;
                let heading = self.doc.append_at(root, Kind::Heading(level), line.start as u32);
                self.heading_words(heading, &headline);
                heading
            };
            self.doc.set_end(heading, line.end as u32);
            self.headings.entry(normal(words)).or_insert(heading);
            at = self.below_heading((heading, holder), headline.level, at, end);
        } else if let Some(low) = self.parts.low.last() {
            holder = low.item;
        }
        self.run(Job::blocks(at, end, holder));
        let last = self.last_line(number, end);
        if let Some((_, division)) = self.parts.target {
            self.doc.set_end(division, last);
        }
        if holder != root {
            for low in &self.parts.low {
                self.doc.set_end(low.item, last);
                self.doc.set_end(low.list, last);
            }
        }
        self.heading = None;
    }

    /// What a heading and the text below it are appended to: a division, where its tags say which outputs they are for.
    fn holder_of_section(&mut self, headline: &Headline<'_>, place: u32) -> NodeId {
        if self.parts.target.is_some_and(|(level, _)| headline.level <= level) {
            self.parts.target = None;
        }
        if let Some((_, division)) = self.parts.target {
            return division;
        }
        let targets: Vec<&str> = headline.tags.iter().copied().filter(|tag| targets::is_target(tag)).collect();
        let root = self.doc.root();
        if targets.is_empty() {
            return root;
        }
        let division = self.doc.append_at(root, Kind::Division(DivisionKind::Plain), place);
        for tag in targets {
            let class = self.doc.intern(tag);
            self.doc.attributes_mut(division).classes.push(class);
        }
        self.parts.target = Some((headline.level, division));
        division
    }

    /// Begins the item of a list that a heading is which is too deep to be one.
    fn low_heading(&mut self, headline: &Headline<'_>, place: u32) -> Low {
        let mut same = None;
        while let Some(low) = self.parts.low.pop_if(|low| low.level >= headline.level) {
            same = Some(low);
        }
        if self.parts.low.len() >= DEEPEST_LIST {
            same = self.parts.low.pop();
        }
        let list = match same {
            Some(low) => low.list,
            None => {
                let above = self
                    .parts
                    .low
                    .last()
                    .map_or_else(|| self.parts.target.map_or(self.doc.root(), |(_, division)| division), |low| low.item);
                let ordered = self.options.presentation.numbered_levels.is_some_and(|levels| levels > 0);
                let kind = ListKind { ordered, tight: true, marker: Marker::Plain, start: 1 };
                let list = self.doc.append_at(above, Kind::List(kind), place);
                self.lists.push(list);
                list
            }
        };
        let item = self.doc.append_at(list, Kind::ListItem { checked: None }, place);
        let low = Low { level: headline.level, list, item };
        self.parts.low.push(low);
        low
    }

    /// Says something of what is to be done at the heading that the reader is below.
    pub(super) fn task(&mut self, say: impl FnOnce(&mut Task)) {
        if let Some(heading) = self.heading {
            let mut task = self.doc.tasks.remove(heading).unwrap_or_default();
            say(&mut task);
            if !task.is_empty() {
                self.doc.tasks.set(heading, task);
            }
        }
    }

    /// The words of a heading, with what it carries beside them.
    fn heading_words(&mut self, heading: NodeId, headline: &Headline<'_>) {
        let place = self.doc.node(heading).offset();
        // An item that stands for a heading holds its words in a paragraph.
        self.heading = match self.doc.kind(heading) {
            Kind::Heading(_) => Some(heading),
            _ => self.doc.node(heading).parent(),
        };
        self.task(|task| {
            if let Some((keyword, is_done)) = headline.state {
                (task.keyword, task.is_done) = (keyword.to_owned(), is_done);
            }
            task.priority = headline.priority.unwrap_or_default().to_owned();
            task.tags = headline.tags.iter().filter(|tag| !targets::is_target(tag)).map(|tag| (*tag).to_owned()).collect();
        });
        if let Some((state, done)) = headline.state.filter(|_| self.options.shows.contains(Shows::KEYWORDS)) {
            self.marked(heading, state, if done { "keyword-done" } else { "keyword-open" });
            self.space(heading);
        }
        if let Some(priority) = headline.priority.filter(|_| self.options.shows.contains(Shows::PRIORITIES)) {
            self.marked(heading, &format!("[{priority}]"), "priority");
            self.space(heading);
        }
        let (start, end) = headline.words;
        self.source_text(heading, start, end, place);
        if !headline.tags.is_empty() && self.options.shows.contains(Shows::TAGS) {
            for tag in headline.tags.iter().filter(|tag| !targets::is_target(tag)) {
                self.space(heading);
                self.marked(heading, tag, "tag");
            }
        }
    }

    fn space(&mut self, node: NodeId) {
        if self.doc.node(node).first_child().is_some() {
            let space = self.doc.intern(" ");
            let place = self.doc.node(node).offset();
            self.doc.append_joined(node, space, place);
        }
    }

    fn marked(&mut self, node: NodeId, text: &str, class: &str) {
        let place = self.doc.node(node).offset();
        let span = self.doc.append_at(node, Kind::Span, place);
        self.doc.append_text(span, text);
        let class = self.doc.intern(class);
        self.doc.attributes_mut(span).classes.push(class);
    }

    /// Reads a piece of the source, with its macros.
    pub(super) fn source_text(&mut self, node: NodeId, start: usize, end: usize, place: u32) {
        let text = &self.source[start..end];
        match self.expand(text, place) {
            Some(expanded) => {
                let base = self.doc.intern(&expanded).start as usize;
                self.inlines(node, &expanded, base, Some(place));
            }
            None => self.inlines(node, text, start, None),
        }
    }

    /// Reads dates and properties below a heading. Returns the line behind them.
    fn below_heading(&mut self, (heading, holder): (NodeId, NodeId), level: usize, mut at: usize, end: usize) -> usize {
        if let Some(line) = self.lines.get(at).copied().filter(|line| at < end && is_planning(&self.source[line.text..line.end]))
        {
            let words = &self.source[line.text..line.end];
            if self.options.shows.contains(Shows::PLANNING) {
                let paragraph = self.doc.append_at(holder, Kind::Paragraph, line.start as u32);
                let small = self.doc.append_at(paragraph, Kind::TextLevel(TextLevel::Small), line.start as u32);
                let heading = self.heading.take();
                self.inlines(small, words, line.text, None);
                self.heading = heading;
                self.doc.set_end(paragraph, line.end as u32);
            }
            self.task(|task| plan(words, task));
            at += 1;
        }
        if let Some(line) = self.lines.get(at).copied()
            && at < end
            && self.source[line.text..line.end].eq_ignore_ascii_case(":properties:")
            && line.until > at
            && line.until < end
        {
            let list = (self.options.shows.contains(Shows::PROPERTIES) && line.until > at + 1)
                .then(|| self.doc.append_at(holder, Kind::TermList, line.start as u32));
            for number in at + 1..line.until {
                let line = self.lines.all[number];
                self.property(heading, level, &self.source[line.text..line.end], list);
            }
            if let Some(list) = list {
                self.doc.set_end(list, self.lines.all[line.until].end as u32);
            }
            at = line.until + 1;
        }
        at
    }

    /// Reads a property of a heading, and shows it in a list where there is one.
    fn property(&mut self, heading: NodeId, level: usize, words: &str, list: Option<NodeId>) {
        let Some((key, value)) = words.strip_prefix(':').and_then(|words| words.split_once(':')) else { return };
        let value = value.trim();
        self.properties.set(level, key, value);
        if let Some(list) = list {
            for (kind, text) in [(Kind::Term, key), (Kind::TermDescription, value)] {
                let node = self.doc.append(list, kind);
                if !text.is_empty() {
                    self.doc.append_text(node, text);
                }
            }
        }
        match key.to_ascii_lowercase().as_str() {
            "custom_id" if !value.is_empty() => {
                let id = self.doc.intern(value);
                self.doc.attributes_mut(heading).id = Some(id);
                self.custom_ids.insert(value.to_owned());
            }
            "id" if !value.is_empty() => {
                self.ids.entry(value.to_owned()).or_insert(heading);
            }
            "html_headline_class" | "html_container_class" => {
                for class in value.split_whitespace() {
                    let class = self.doc.intern(class);
                    self.doc.attributes_mut(heading).classes.push(class);
                }
            }
            // What code does is done already.
            name if name.starts_with("header-args") => {}
            _ => self.task(|task| task.properties.push((key.to_owned(), value.to_owned()))),
        }
    }
}

/// Takes the dates of a line that says when something is to be done.
fn plan(words: &str, task: &mut Task) {
    let mut rest = words;
    for _ in 0..MOST_DATES {
        let Some((at, name)) = ["SCHEDULED:", "DEADLINE:", "CLOSED:"]
            .into_iter()
            .filter_map(|name| memchr::memmem::find(rest.as_bytes(), name.as_bytes()).map(|at| (at, name)))
            .min()
        else {
            return;
        };
        rest = rest[at + name.len()..].trim_start();
        let close = if rest.starts_with('[') { b']' } else { b'>' };
        let Some((length, _)) = date_at(rest, close) else { continue };
        let date = rest[1..=length].to_owned();
        match name {
            "SCHEDULED:" => task.scheduled = date,
            "DEADLINE:" => task.deadline = date,
            _ => task.closed = date,
        }
    }
}

/// A line says so many dates.
const MOST_DATES: usize = 8;

/// The parts of the file that are open beside those that headings make.
#[derive(Debug, Default)]
pub(super) struct Parts {
    /// The level of a heading whose part is for some outputs only, and the division that this part is.
    target: Option<(usize, NodeId)>,
    /// Headings that are items of lists, outermost first.
    pub(super) low: Vec<Low>,
}

/// A heading that is an item of a list.
#[derive(Clone, Copy, Debug)]
pub(super) struct Low {
    level: usize,
    list: NodeId,
    item: NodeId,
}

/// Headings that are items are set in no deeper.
const DEEPEST_LIST: usize = 100;

/// What is written of a heading.
#[derive(Clone, Copy, Debug, PartialEq, Eq)]
enum Written {
    Whole,
    /// The heading, and nothing below it.
    Heading,
    Not,
}

/// Marks what is written of a file of which parts are selected: those, and the headings above them where that is usual.
fn mark_selected(all: &[Headline<'_>], selects: &[bool], with_parents: bool, written: &mut [Written]) {
    let mut inside: Option<usize> = None;
    let mut parents: Vec<usize> = Vec::new();
    written.fill(Written::Not);
    for (index, headline) in all.iter().enumerate() {
        inside = inside.filter(|level| headline.level > *level);
        parents.retain(|parent| all[*parent].level < headline.level);
        if inside.is_none() && selects[index] {
            inside = Some(headline.level);
            if with_parents {
                for parent in &parents {
                    if written[*parent] == Written::Not {
                        written[*parent] = Written::Heading;
                    }
                }
            }
        }
        if inside.is_some() {
            written[index] = Written::Whole;
        }
        parents.push(index);
    }
}

/// Words of headings as links write them: without counts of what is done, in small letters, with single spaces.
pub(super) fn normal(words: &str) -> String {
    let is_plain = |byte: u8| matches!(byte, b' '..=b'~') && byte != b'[';
    if words.bytes().all(is_plain) && !words.contains("  ") {
        return words.trim().to_ascii_lowercase();
    }
    let is_count = |word: &&str| !(word.starts_with('[') && word.ends_with([']']) && word.contains(['/', '%']));
    words.split_whitespace().filter(is_count).collect::<Vec<_>>().join(" ").to_lowercase()
}

/// Whether a line says when something is to be done.
pub(super) fn is_planning(words: &str) -> bool {
    ["SCHEDULED:", "DEADLINE:", "CLOSED:"].iter().any(|word| {
        words.strip_prefix(word).is_some_and(|rest| {
            let rest = rest.trim_start();
            rest.starts_with("<%%") || date_at(rest, b'>').or_else(|| date_at(rest, b']')).is_some()
        })
    })
}
