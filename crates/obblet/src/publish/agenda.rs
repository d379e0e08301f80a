//! The agenda of a folder: what its documents say is to be done, by date and by document. No clock is asked for it: the day is a
//! setting, or the newest date of the documents.

use super::Progress;
use super::paths;
use super::plan::Plan;
use super::record::DocumentFacts;
use super::rendered::FactsByIndex;
use super::run::Run;
use super::site::{GeneratedPage, Site, titled};
use crate::document::{Document, Kind, ListKind, Marker, NodeId, Task, TextLevel};
use crate::error::Error;
use crate::page::Navigation;
use jiff::civil::Date;
use serde::{Deserialize, Serialize};
use std::collections::{BTreeMap, BTreeSet};

/// The page.
pub(super) const AGENDA: &str = "agenda.html";

/// Something to be done, as the record has it.
#[derive(Clone, Debug, Default, PartialEq, Eq, Serialize, Deserialize)]
pub(super) struct AgendaTask {
    /// The words of its heading.
    text: String,
    /// The page that it is on, and its id there; empty where it has none.
    page: String,
    #[serde(default, skip_serializing_if = "String::is_empty")]
    id: String,
    #[serde(default, skip_serializing_if = "String::is_empty")]
    keyword: String,
    #[serde(default, skip_serializing_if = "std::ops::Not::not")]
    is_done: bool,
    #[serde(default, skip_serializing_if = "String::is_empty")]
    priority: String,
    #[serde(default, skip_serializing_if = "Vec::is_empty")]
    tags: Vec<String>,
    /// Dates with what each is: `deadline`, `scheduled`, `closed`, or nothing for one of its text.
    #[serde(default, skip_serializing_if = "Vec::is_empty")]
    dates: Vec<(String, String)>,
}

impl AgendaTask {
    /// What a heading says; nothing where that is neither a state nor a date.
    pub(super) fn of(task: &Task, text: String, page: &str, id: &str) -> Option<Self> {
        let named = [("deadline", &task.deadline), ("scheduled", &task.scheduled), ("closed", &task.closed)];
        let named = named.into_iter().filter(|(_, date)| !date.is_empty());
        let dates: Vec<(String, String)> =
            named.chain(task.dates.iter().map(|date| ("", date))).map(|(name, date)| (name.to_owned(), date.clone())).collect();
        // Its dates stand beside its words.
        let text = task.dates.iter().fold(text, |text, date| text.replace(date.as_str(), "").trim().to_owned());
        (!task.keyword.is_empty() || !dates.is_empty()).then(|| Self {
            text: if text.trim().is_empty() { "Untitled".to_owned() } else { text },
            page: page.to_owned(),
            id: id.to_owned(),
            keyword: task.keyword.clone(),
            is_done: task.is_done,
            priority: task.priority.clone(),
            tags: task.tags.clone(),
            dates,
        })
    }

    /// When it comes up next: not at all once it is done.
    fn days(&self) -> impl Iterator<Item = (Date, &str, &str)> {
        let coming = self.dates.iter().filter(|(name, _)| name != "closed" && !self.is_done);
        coming.filter_map(|(name, date)| Some((day(date)?, name.as_str(), date.as_str())))
    }
}

/// The day that a date begins with.
fn day(date: &str) -> Option<Date> {
    date.get(..10)?.parse().ok()
}

/// A task with the document that it is of.
struct Entry<'f> {
    task: &'f AgendaTask,
    facts: &'f DocumentFacts,
}

/// What is on an agenda.
struct Agenda<'f> {
    entries: Vec<Entry<'f>>,
    /// The day that it is made for, where one is known.
    day: Option<Date>,
}

impl<'f> Agenda<'f> {
    fn of(plan: &Plan, facts: &'f FactsByIndex) -> Self {
        let mut entries = Vec::new();
        let mut newest: Option<Date> = None;
        for facts in facts.iter().flatten() {
            let closed = facts.tasks.iter().flat_map(|task| &task.dates).filter(|(name, _)| name == "closed");
            let dates = closed.map(|(_, date)| date.as_str()).chain([facts.date.as_str()]);
            newest = newest.into_iter().chain(dates.filter_map(day)).max();
            entries.extend(facts.tasks.iter().map(|task| Entry { task, facts }));
        }
        Self { entries, day: day(&plan.profile.publish.agenda_day).or(newest) }
    }

    fn page(&self) -> GeneratedPage {
        let title = "Agenda".to_owned();
        let (mut doc, root) = titled(&title);
        let open = self.entries.iter().filter(|entry| !entry.task.keyword.is_empty() && !entry.task.is_done).count();
        let done = self.entries.iter().filter(|entry| entry.task.is_done).count();
        let about = doc.append(root, Kind::Paragraph);
        doc.append_text(about, &format!("{open} open, {done} done"));
        if let Some(day) = self.day {
            doc.append_text(about, "; as of ");
            time(&mut doc, about, &day.to_string(), &long(day));
        }
        doc.append_text(about, ".");
        doc.join_texts(about);
        self.by_date(&mut doc, root);
        self.by_document(&mut doc, root);
        GeneratedPage { output: AGENDA.to_owned(), title, doc }
    }

    /// What has a date: what is late first, then day by day.
    fn by_date(&self, doc: &mut Document, root: NodeId) {
        let mut late = Vec::new();
        let mut days: BTreeMap<Date, Vec<(&Entry<'_>, &str, &str)>> = BTreeMap::new();
        for entry in &self.entries {
            for (day, name, date) in entry.task.days() {
                let is_past = self.day.is_some_and(|today| day < today);
                // An appointment that is over is no work that is late.
                match (is_past, name.is_empty() && entry.task.keyword.is_empty()) {
                    (true, true) => {}
                    (true, false) => late.push((day, entry, name, date)),
                    (false, _) => days.entry(day).or_default().push((entry, name, date)),
                }
            }
        }
        late.sort_by_key(|(day, ..)| *day);
        if !late.is_empty() {
            heading(doc, root, 2, "Late");
            let items = list(doc, root);
            for (day, entry, name, date) in late {
                self.item(doc, items, entry, true);
                let last = doc.node(items).last_child().unwrap_or(items);
                doc.append_text(last, &format!(", {} ", if name.is_empty() { "for" } else { name }));
                time(doc, last, &day.to_string(), date);
                doc.join_texts(last);
            }
        }
        if !days.is_empty() {
            heading(doc, root, 2, "By date");
        }
        for (day, entries) in days {
            let heading = doc.append(root, Kind::Heading(3));
            time(doc, heading, &day.to_string(), &long(day));
            if self.day == Some(day) {
                doc.append_text(heading, ", today");
            }
            let items = list(doc, root);
            for (entry, name, date) in entries {
                self.item(doc, items, entry, true);
                let last = doc.node(items).last_child().unwrap_or(items);
                // What stands behind the day and its name: the time, how often it comes again.
                let words = date.split_whitespace().skip(1).filter(|word| word.starts_with(|c: char| !c.is_alphabetic()));
                let more = words.collect::<Vec<_>>().join(" ");
                for part in [name, more.as_str()].into_iter().filter(|part| !part.is_empty()) {
                    doc.append_text(last, &format!(", {part}"));
                }
                doc.join_texts(last);
            }
        }
    }

    /// What is open, document by document.
    fn by_document(&self, doc: &mut Document, root: NodeId) {
        let mut output = "";
        let mut items = root;
        let open = self.entries.iter().filter(|entry| !entry.task.keyword.is_empty() && !entry.task.is_done);
        for (at, entry) in open.enumerate() {
            if at == 0 {
                heading(doc, root, 2, "Open, by document");
            }
            let first = entry.facts.pages.first().map_or("", |page| page.output.as_str());
            if at == 0 || first != output {
                output = first;
                let heading = doc.append(root, Kind::Heading(3));
                doc.append_link(heading, &paths::address(AGENDA, output), &entry.facts.title);
                items = list(doc, root);
            }
            self.item(doc, items, entry, false);
        }
    }

    /// An entry in a list.
    fn item(&self, doc: &mut Document, items: NodeId, entry: &Entry<'_>, with_document: bool) {
        let task = entry.task;
        let item = doc.append(items, Kind::ListItem { checked: None });
        let priority = if task.priority.is_empty() { String::new() } else { format!("[{}]", task.priority) };
        for (class, text) in [("keyword-open", &task.keyword), ("priority", &priority)] {
            if !text.is_empty() {
                marked(doc, item, class, text);
                doc.append_text(item, " ");
            }
        }
        let place = if task.id.is_empty() { String::new() } else { format!("#{}", task.id) };
        doc.append_link(item, &format!("{}{place}", paths::address(AGENDA, &task.page)), &task.text);
        for tag in &task.tags {
            doc.append_text(item, " ");
            marked(doc, item, "tag", tag);
        }
        if with_document {
            doc.append_text(item, &format!(" ({})", entry.facts.title));
        }
        doc.join_texts(item);
    }
}

fn heading(doc: &mut Document, root: NodeId, level: u8, text: &str) {
    let heading = doc.append(root, Kind::Heading(level));
    doc.append_text(heading, text);
}

fn list(doc: &mut Document, above: NodeId) -> NodeId {
    doc.append(above, Kind::List(ListKind { ordered: false, tight: true, marker: Marker::Plain, start: 1 }))
}

fn marked(doc: &mut Document, item: NodeId, class: &str, text: &str) {
    let span = doc.append(item, Kind::Span);
    doc.append_text(span, text);
    let class = doc.intern(class);
    doc.attributes_mut(span).classes.push(class);
}

fn time(doc: &mut Document, above: NodeId, value: &str, shown: &str) {
    let time = doc.append(above, Kind::TextLevel(TextLevel::Time));
    doc.append_text(time, shown);
    let (name, value) = (doc.intern("datetime"), doc.intern(value));
    doc.attributes_mut(time).other.push((name, value));
}

/// A day as people say it: `Wednesday, 5 March 2031`.
fn long(day: Date) -> String {
    day.strftime("%A, %-d %B %Y").to_string()
}

impl Run<'_> {
    /// Writes the agenda, where there is anything for it.
    pub(super) fn make_agenda(&mut self, site: Option<&Site>, progress: &mut dyn Progress) -> Result<(), Error> {
        let agenda = Agenda::of(self.plan, &self.facts);
        if agenda.entries.is_empty() {
            return Ok(());
        }
        let mut page = agenda.page();
        let profile = self.plan.profile.clone();
        let navigation = match site {
            Some(site) => {
                page = page.in_language(site);
                Navigation { pages: Vec::new(), ..site.navigation(AGENDA) }
            }
            None => Navigation::default(),
        };
        self.put_page(page, &profile, &navigation, &mut BTreeSet::new(), progress)?;
        self.put_shared(progress)
    }
}
