//! Headings, with their states, tags, dates and properties.

use super::Writer;
use super::blocks::Shape;
use crate::document::{Document, Kind, NodeId, Task, TextLevel};

/// What begins the dates of a line below a heading, in the order in which they stand there.
const DATES: [&str; 3] = ["CLOSED:", "DEADLINE:", "SCHEDULED:"];

impl<'d> Writer<'d> {
    pub(super) fn heading(&mut self, id: NodeId, level: u8) {
        if self.title == Some(id) {
            return;
        }
        let doc = self.doc;
        let children: Vec<NodeId> = doc.children(id).collect();
        let task = doc.tasks.get(id);
        let parts = Parts::of(doc, &children);
        let words = match (children.get(parts.first), parts.last.checked_sub(1).and_then(|at| children.get(at))) {
            (Some(&first), Some(&last)) if parts.first < parts.last => self.text(first, last),
            _ => String::new(),
        };
        if self.out.indentation() > 0 || !self.open.is_empty() {
            // A heading ends whatever it stands in.
            self.no_syntax("headings within other blocks", id);
            self.begin(Shape::Text);
            let words = words.trim_matches(['*', ' ', '\n']);
            return self.out.line(&if words.is_empty() { String::new() } else { format!("*{words}*") });
        }
        self.begin(Shape::Block);
        let mut line = "*".repeat(usize::from(level.saturating_sub(self.lowered).max(1)));
        let or_shown = |known: Option<&String>, shown: String| match known {
            Some(known) if !known.is_empty() => known.clone(),
            _ => shown,
        };
        let keyword = or_shown(task.map(|task| &task.keyword), parts.keyword);
        let priority = or_shown(task.map(|task| &task.priority), parts.priority);
        let tags = task.map(|task| task.tags.clone()).filter(|tags| !tags.is_empty()).unwrap_or(parts.tags);
        for part in [keyword.as_str(), &if priority.is_empty() { String::new() } else { format!("[#{priority}]") }] {
            if !part.is_empty() {
                line.push(' ');
                line.push_str(part);
            }
        }
        let words = words.split_ascii_whitespace().collect::<Vec<_>>().join(" ");
        line.push(' ');
        line.push_str(&words);
        if !tags.is_empty() {
            line.push_str(&format!(" :{}:", tags.join(":")));
        }
        self.out.line(line.trim_end());
        let dates = task.map(planning).unwrap_or_default();
        if !dates.is_empty() {
            self.out.line(&dates);
        }
        let name = self.id_of_heading(id, &words);
        let properties = task.map_or(&[] as &[_], |task| &task.properties);
        if name.is_some() || !properties.is_empty() {
            self.out.line(":PROPERTIES:");
            if let Some(name) = name {
                self.out.line(&format!(":CUSTOM_ID: {name}"));
            }
            for (key, value) in properties {
                self.out.line(format!(":{key}: {value}").trim_end());
            }
            self.out.line(":END:");
        }
    }

    /// The id of a heading, where a link leads to it, or where it is not the one that its words give it anyway.
    fn id_of_heading(&mut self, id: NodeId, words: &str) -> Option<&'d str> {
        let name =
            self.doc.attributes(id).id.map(|name| self.doc.text(name)).filter(|name| !name.contains(char::is_whitespace))?;
        let is_made = name == crate::slug::of(&self.doc.heading_text(id)) || name == crate::slug::of(words);
        self.placed.insert(name);
        (self.linked.contains(name) || !is_made).then_some(name)
    }

    /// Options that headings need: what they show of what is known of them.
    pub(super) fn options_of_headings(&self) -> Vec<String> {
        let doc = self.doc;
        let mut options = Vec::new();
        let mut shown = [false; 4];
        let mut known = [false; 4];
        for (id, task) in doc.tasks.iter() {
            let parts = Parts::of(doc, &doc.children(id).collect::<Vec<_>>());
            let is_shown = doc.node(id).next().is_some_and(|next| self.shows_planning(next));
            let pairs = [
                (!task.keyword.is_empty(), !parts.keyword.is_empty()),
                (!task.priority.is_empty(), !parts.priority.is_empty()),
                (!task.tags.is_empty(), !parts.tags.is_empty()),
                (true, is_shown),
            ];
            for (at, (has, shows)) in pairs.into_iter().enumerate() {
                known[at] |= has;
                shown[at] |= shows;
            }
        }
        // What is usual needs no option.
        for (at, (name, is_usual)) in [("todo", true), ("pri", false), ("tags", true), ("p", false)].into_iter().enumerate() {
            if known[at] && shown[at] != is_usual {
                options.push(format!("{name}:{}", if shown[at] { "t" } else { "nil" }));
            }
        }
        let presentation = doc.metadata.presentation;
        for (name, levels) in [("num", presentation.numbered_levels), ("toc", presentation.contents)] {
            options.extend(levels.map(|levels| match levels {
                0 => format!("{name}:nil"),
                6.. => format!("{name}:t"),
                levels => format!("{name}:{levels}"),
            }));
        }
        options
    }

    /// Whether a paragraph shows the dates of the heading before it.
    pub(super) fn shows_planning(&self, paragraph: NodeId) -> bool {
        let doc = self.doc;
        let heading = doc.node(paragraph).previous();
        let has_dates = heading.and_then(|heading| doc.tasks.get(heading)).is_some_and(|task| !planning(task).is_empty());
        let only = doc.node(paragraph).first_child().filter(|&first| doc.node(first).next().is_none());
        let is_small = only.is_some_and(|only| doc.kind(only) == Kind::TextLevel(TextLevel::Small));
        has_dates
            && doc.kind(paragraph) == Kind::Paragraph
            && is_small
            && DATES.iter().any(|date| doc.plain_text(paragraph).starts_with(date))
    }
}

/// The line of the dates of a heading; empty where it has none.
fn planning(task: &Task) -> String {
    let mut line = Vec::new();
    for (name, date) in DATES.iter().zip([&task.closed, &task.deadline, &task.scheduled]) {
        if !date.is_empty() {
            let (open, close) = if *name == "CLOSED:" { ('[', ']') } else { ('<', '>') };
            line.push(format!("{name} {open}{date}{close}"));
        }
    }
    line.join(" ")
}

/// What stands before and behind the words of a heading.
#[derive(Debug, Default)]
struct Parts {
    keyword: String,
    priority: String,
    tags: Vec<String>,
    /// The first child that is part of its words, and the one behind the last.
    first: usize,
    last: usize,
}

impl Parts {
    fn of(doc: &Document, children: &[NodeId]) -> Self {
        let mut parts = Self { last: children.len(), ..Self::default() };
        let is_space = |child: NodeId| matches!(doc.kind(child), Kind::Text(text) if doc.text(text).trim().is_empty());
        for (at, &child) in children.iter().enumerate() {
            match doc.heading_part(child) {
                Some("keyword-open" | "keyword-done") => parts.keyword = doc.plain_text(child),
                Some("priority") => parts.priority = doc.plain_text(child).trim_matches(['[', '#', ']']).to_owned(),
                _ if is_space(child) => continue,
                _ => break,
            }
            parts.first = at + 1;
        }
        while let Some(&child) = parts.last.checked_sub(1).and_then(|at| children.get(at)).filter(|_| parts.last > parts.first) {
            let is_tag = doc.heading_part(child) == Some("tag");
            if is_tag {
                parts.tags.insert(0, doc.plain_text(child));
            }
            if !is_tag && !is_space(child) {
                break;
            }
            parts.last -= 1;
        }
        parts
    }
}
