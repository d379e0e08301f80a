//! Lists (the LaTeX documentation, "itemize", "enumerate", "description"; of enumitem and paralist).

use super::Reader;
use super::examples::{COUNTER as COUNTER_OF_EXAMPLES, EXAMPLES, EXAMPLES_OF_LINGUEX, PARTS, PARTS_OF_LINGUEX};
use super::list_labels::{COUNTERS, Label, USUAL, counter_of};
use super::tokens::{Kind as Sign, Token};
use crate::document::{Kind, ListKind, Marker, NodeId};

/// A list whose items are read.
#[derive(Debug)]
pub(super) struct List {
    /// The list; the paragraph around it where it is in a line.
    pub(super) node: NodeId,
    kind: ListForm,
    /// What stands between items, where they stand in a line.
    inline: Option<Joins>,
    /// Whether an item has begun.
    has_item: bool,
    /// Whether empty lines part the items.
    loose: bool,
    /// How many parts of the document were open before it.
    parts: usize,
    /// What counts the items.
    counter: String,
    /// What stands before the items, where their author says so.
    label: Option<Label>,
    /// What references to items show, where the author says so.
    reference: Option<Label>,
    /// What the item is called that is read, as references show it, and as it is shown.
    number: String,
    shown: String,
    /// Items that have labels of their own.
    labelled: Vec<NodeId>,
}

/// What stands between the items of a list in a line (the documentation of enumitem, "Inline lists").
#[derive(Debug, Default)]
struct Joins {
    /// What stands before the first item, and behind the last.
    begin: Vec<Token>,
    end: Vec<Token>,
    usual: Vec<Token>,
    /// The same before the last one.
    last: Vec<Token>,
    /// The text that begins with what stands before the item that is read, and how long that is.
    before: Option<(NodeId, usize)>,
}

impl List {
    /// The entries of a bibliography.
    pub(super) const fn of_entries(node: NodeId, parts: usize) -> Self {
        Self::new(node, ListForm::Numbers, parts)
    }

    const fn new(node: NodeId, kind: ListForm, parts: usize) -> Self {
        Self {
            node,
            kind,
            inline: None,
            has_item: false,
            loose: false,
            parts,
            counter: String::new(),
            label: None,
            reference: None,
            number: String::new(),
            shown: String::new(),
            labelled: Vec::new(),
        }
    }
}

/// A label has no more tokens.
const LONGEST_LABEL: usize = 200;

/// What sort of list it is.
#[derive(Clone, Copy, Debug, PartialEq, Eq)]
pub(super) enum ListForm {
    Bullets,
    Numbers,
    Terms,
}

/// A list that a document defines (the documentation of enumitem, `\newlist`).
#[derive(Clone, Copy, Debug)]
pub(super) struct OwnList {
    pub(super) kind: ListForm,
    pub(super) inline: bool,
}

/// What the options of a list say.
#[derive(Debug)]
struct Options {
    /// Whether its items have numbers.
    is_counted: bool,
    label: Option<Label>,
    reference: Option<Label>,
    /// The number before the first item; the list goes on with the last number where there is none.
    start: Option<i64>,
}

impl Reader<'_> {
    /// `\newlist{name}{type}{depth}`
    pub(super) fn new_list(&mut self) {
        let (name, kind) = (self.input.argument(), self.input.argument());
        self.input.argument();
        let (name, kind) = (self.input.characters(&name), self.input.characters(&kind));
        let form = match kind.trim_end_matches('*') {
            "enumerate" => ListForm::Numbers,
            "description" => ListForm::Terms,
            _ => ListForm::Bullets,
        };
        self.own.lists.insert(name, OwnList { kind: form, inline: kind.ends_with('*') });
    }

    /// Begins a list.
    pub(super) fn begin_list(&mut self, name: &str, kind: ListForm) -> NodeId {
        let option = self.input.option().unwrap_or_default();
        if name == "tasks" {
            self.input.between('(', ')');
        }
        let is_generic = name == "list";
        let (mut kind, mut generic) = (kind, None);
        if is_generic {
            let (label, settings) = (self.input.argument(), self.input.argument());
            if let Some(counter) = self.counter_used(&settings) {
                kind = ListForm::Numbers;
                generic = Some((label, counter));
            }
        }
        let depth = self.lists.iter().filter(|list| list.kind == ListForm::Numbers).count().min(3);
        let counter = match &generic {
            Some((_, counter)) => counter.clone(),
            None => self.counter_of_list(name, depth),
        };
        let options = match (kind, &generic) {
            (ListForm::Numbers, Some((label, _))) => Options {
                is_counted: true,
                label: self.label_from(label, &counter, Marker::Plain),
                reference: None,
                start: Some(0),
            },
            (ListForm::Numbers, None) => self.options_of_list(name, &option, &counter, depth),
            _ => Options { is_counted: false, label: None, reference: None, start: None },
        };
        if kind == ListForm::Numbers && !options.is_counted {
            kind = ListForm::Bullets;
        }
        if let Some(start) = options.start.filter(|_| kind == ListForm::Numbers) {
            self.counters.set(&counter, start);
        }
        let marker = options.label.as_ref().map_or(USUAL[depth], |label| label.marker);
        let list = ListKind { ordered: kind == ListForm::Numbers, tight: true, marker, start: 1 };
        let inline = self.joins_of_list(name, &option);
        let node = match (&inline, kind) {
            (Some(_), _) => self.holder(),
            (None, ListForm::Terms) => self.block(Kind::TermList),
            (None, _) => self.block(Kind::List(list)),
        };
        if let Some(label) = options.label.as_ref().filter(|_| inline.is_none()) {
            self.show_label(node, label, depth);
        }
        if let Some(joins) = inline.as_ref().filter(|joins| !joins.begin.is_empty()) {
            let words = self.words(&joins.begin);
            self.trim_line();
            self.text(&format!("{words} "));
        }
        let list = List::new(node, kind, self.parts.len());
        self.lists.push(List { inline, counter, label: options.label, reference: options.reference, ..list });
        node
    }

    /// The counter of a list by its name.
    fn counter_of_list(&self, name: &str, depth: usize) -> String {
        match name {
            // Examples of linguists are counted through the whole document.
            EXAMPLES | EXAMPLES_OF_LINGUEX | "example" | "examples" => COUNTER_OF_EXAMPLES.to_owned(),
            _ if self.own.lists.contains_key(name) => {
                let same = self.environments.iter().filter(|environment| environment.name == name).count();
                counter_of(name, same.saturating_sub(1))
            }
            _ => COUNTERS[depth].to_owned(),
        }
    }

    /// The counter that the settings of a list name.
    fn counter_used(&self, settings: &[Token]) -> Option<String> {
        let place = settings.iter().position(|token| token.kind.command() == Some("usecounter"))?;
        let mut rest = super::Input::of_tokens(self.input.source, settings[place + 1..].iter().cloned());
        let counter = rest.argument();
        Some(rest.characters(&counter)).filter(|counter| !counter.is_empty())
    }

    /// Whether the items of a list stand in a line.
    pub(super) fn is_list_in_line(&self, name: &str) -> bool {
        match name {
            "enumerate*" | "itemize*" | "description*" | "inparaenum" | "inparaitem" | "inparadesc" => true,
            _ => self.own.lists.get(name).is_some_and(|own| own.inline),
        }
    }

    /// What stands between the items of a list in a line; nothing for any other list.
    fn joins_of_list(&self, name: &str, option: &[Token]) -> Option<Joins> {
        self.is_list_in_line(name).then(|| {
            let usual = self.input.value_of(option, "itemjoin");
            let last = self.input.value_of(option, "itemjoin*");
            let (begin, end) = (self.input.value_of(option, "before"), self.input.value_of(option, "after"));
            Joins { begin, end, last: if last.is_empty() { usual.clone() } else { last }, usual, before: None }
        })
    }

    /// What the options of a numbered list say, and what the document says of all such lists.
    fn options_of_list(&mut self, name: &str, option: &[Token], counter: &str, depth: usize) -> Options {
        let usual = USUAL[depth];
        let option_text = self.input.characters(option);
        let pairs = self.input.pairs(option);
        let value = |key: &str| pairs.iter().find(|(known, _)| known == key).map(|(_, value)| value.clone());
        let is_resumed = option_text.contains("resume") || counter == COUNTER_OF_EXAMPLES;
        let start = value("start").and_then(|value| self.input.characters(&value).parse::<i64>().ok());
        let start = start.map(|start| start.saturating_sub(1)).or_else(|| (!is_resumed).then_some(0));
        let kept = |key: &str| Some(self.kept_setting(key, counter)).filter(|kept| !kept.is_empty());
        let star = value("label*").or_else(|| kept("label*").filter(|_| value("label").is_none()));
        let label = value("label").or_else(|| kept("label").filter(|_| star.is_none()));
        let reference = value("ref").or_else(|| kept("ref"));
        let of_example = self.reference_of_example(name, depth);
        // By its example, a label is not what references show.
        let example = if label.is_none() && star.is_none() { self.label_by_example(option) } else { None };
        let said = reference.or_else(|| label.clone()).or_else(|| star.clone());
        let mut reference = said.and_then(|tokens| self.label_from(&tokens, counter, usual));
        let tokens = star.clone().or(label).or(example);
        let is_said = tokens.is_some();
        let own = self.own_label(counter, depth);
        let mut label = match tokens {
            Some(tokens) => self.label_from(&tokens, counter, usual),
            None => own.or_else(|| usual_label(name, depth)),
        };
        if star.is_some()
            && let Some(label) = &mut label
            && let Some(above) = self.lists.iter().rev().find(|list| list.kind == ListForm::Numbers)
        {
            label.before.insert_str(0, &above.shown);
            if let Some(reference) = &mut reference {
                reference.before.insert_str(0, &above.shown);
            }
        }
        // What is no number is a bullet.
        let is_counted = label.is_some() || !is_said;
        Options { is_counted, label, reference: reference.or(of_example), start }
    }

    /// What references to examples show whose package sets them in parentheses.
    fn reference_of_example(&self, name: &str, depth: usize) -> Option<Label> {
        let (before, marker) = match name {
            EXAMPLES_OF_LINGUEX => ("(".to_owned(), Marker::Plain),
            PARTS_OF_LINGUEX => {
                let above = self.lists.iter().rev().find(|list| list.kind == ListForm::Numbers)?;
                (above.number.trim_end_matches(')').to_owned(), if depth == 2 { Marker::LowerRoman } else { Marker::LowerAlpha })
            }
            _ => return None,
        };
        Some(Label { before, marker, after: ")".to_owned() })
    }

    /// The label that a document defines for the items of a counter.
    fn own_label(&mut self, counter: &str, depth: usize) -> Option<Label> {
        if !self.macros.shows_numbers {
            return None;
        }
        let (label, number) = (format!("label{counter}"), format!("the{counter}"));
        let has_label = self.macros.knows(&label);
        if !has_label && !self.macros.knows(&number) {
            return None;
        }
        let command = Token { kind: Sign::Command(if has_label { label } else { number }.into()), at: self.at };
        let found = self.label_from(&[command], counter, USUAL[depth])?;
        Some(if has_label { found } else { with_usual_signs(found, depth) })
    }

    /// `\question[3]`, whose option says how many points it is worth (the documentation of exam).
    pub(super) fn question(&mut self, name: &str) {
        let title = name.starts_with("titled").then(|| self.input.argument());
        let points = self.input.option();
        self.item();
        if let Some(title) = title {
            self.input.push(Sign::Space, self.at);
            self.styled(Kind::Strong, title);
        }
        if let Some(points) = points {
            let points = self.words(&points);
            let word = if points == "1" { "point" } else { "points" };
            let kind = if name.starts_with("bonus") { " (bonus)" } else { "" };
            self.text(&format!("({points} {word}{kind}) "));
        }
    }

    /// `\ex[*]{…}`, whose option says how an example of a language is judged (the documentation of gb4e).
    pub(super) fn example(&mut self) {
        let judgement = self.input.option();
        self.item();
        if let Some(judgement) = judgement {
            self.input.push(Sign::Space, self.at);
            self.input.push_all(judgement.into_iter());
        }
    }

    /// Begins an item.
    pub(super) fn item(&mut self) {
        self.input.overlay();
        let label = self.input.option().map(|label| self.short_label(label));
        let Some(list) = self.lists.last() else {
            self.end_paragraph();
            // A mark of a note below a table.
            let is_note = self.environments.iter().any(|environment| environment.name == "tablenotes");
            // Keys with values are none.
            let label = label.filter(|label| !label.is_empty() && !self.input.characters(label).contains('='));
            if let Some(label) = label {
                self.input.push(Sign::Space, self.at);
                // Elsewhere it begins what it is the label of.
                self.styled(if is_note { Kind::Superscript } else { Kind::Strong }, label);
            }
            return;
        };
        let (node, kind, parts) = (list.node, list.kind, list.parts);
        if list.inline.is_some() {
            return self.item_in_line(label);
        }
        let is_apart = self.after_empty_line && list.has_item;
        // Without a number, it goes on with the one before.
        let goes_on = kind == ListForm::Numbers && list.has_item && label.as_ref().is_some_and(Vec::is_empty);
        while self.parts.len() > parts {
            self.end_part();
        }
        if parts >= super::build::MOST_PARTS {
            self.end_paragraph();
            return;
        }
        if let Some(item) = self.doc.node(node).last_child().filter(|_| goes_on) {
            return self.begin_part(item, false);
        }
        if kind == ListForm::Terms {
            // Without a term, it goes on describing the one before.
            let is_bare = label.as_ref().is_some_and(Vec::is_empty) && list_has_item(self.lists.last());
            let term = (!is_bare).then(|| self.doc.append_at(node, Kind::Term, self.at));
            let description = self.doc.append_at(node, Kind::TermDescription, self.at);
            self.begin_part(description, false);
            if let (Some(label), Some(term)) = (label, term) {
                self.read_into(term, true, label);
            }
        } else {
            let item = self.doc.append_at(node, Kind::ListItem { checked: None }, self.at);
            if kind == ListForm::Numbers && label.is_none() {
                self.number_item(node, item);
            }
            self.begin_part(item, false);
            if let Some(label) = label {
                match checkbox(&label) {
                    Some(done) if kind == ListForm::Bullets => self.doc.set_kind(item, Kind::ListItem { checked: Some(done) }),
                    _ => self.item_label(item, kind, label),
                }
            }
        }
        if let Some(list) = self.lists.last_mut() {
            list.has_item = true;
            list.loose |= is_apart;
        }
    }

    /// Begins an item that stands in a line with the others.
    fn item_in_line(&mut self, label: Option<Vec<Token>>) {
        let at = self.at;
        let Some(list) = self.lists.last_mut() else { return };
        let kind = list.kind;
        let has_item = std::mem::replace(&mut list.has_item, true);
        let joins = list.inline.as_ref().filter(|_| has_item).map(|joins| joins.usual.clone());
        if let Some(joins) = joins {
            let words = self.words(&joins);
            self.trim_line();
            // The last one may have another: the text is one of its own.
            let text = self.doc.intern(&format!("{words} "));
            let node = self.inline(Kind::Text(text));
            if let Some(Joins { before, .. }) = self.lists.last_mut().and_then(|list| list.inline.as_mut()) {
                *before = Some((node, words.len() + 1));
            }
        }
        match (label, kind) {
            (Some(label), ListForm::Terms) => {
                self.input.push(Sign::Space, at);
                self.styled(Kind::Strong, label);
            }
            (Some(label), _) => {
                self.input.push(Sign::Space, at);
                self.input.push_all(label.into_iter());
            }
            (None, ListForm::Numbers) => {
                let (shown, full) = self.count_item();
                self.text(&format!("{shown}\u{A0}"));
                self.references.count_here(full);
                self.input.skip_white();
            }
            (None, ListForm::Bullets) => {
                self.text("\u{2022}\u{A0}");
                self.input.skip_white();
            }
            (None, ListForm::Terms) => {}
        }
    }

    /// A list in a line ends: what stands before its last item may differ.
    fn end_list_in_line(&mut self, joins: &Joins) {
        if !joins.end.is_empty() {
            let words = self.words(&joins.end);
            self.trim_line();
            self.text(&words);
        }
        if let Some((node, length)) = joins.before
            && joins.last != joins.usual
            && let Kind::Text(text) = self.doc.kind(node)
        {
            let words = self.words(&joins.last);
            let behind = self.doc.text(text).get(length..).unwrap_or_default();
            let text = format!("{words} {behind}");
            let text = self.doc.intern(&text);
            self.doc.set_kind(node, Kind::Text(text));
        }
    }

    /// A label as it stands; of a long one the words, so that commands in it are not read again and again.
    fn short_label(&mut self, label: Vec<Token>) -> Vec<Token> {
        if label.len() <= LONGEST_LABEL {
            return label;
        }
        let at = self.at;
        self.words(&label).chars().map(|c| Token { kind: super::tokens::Kind::Char(c), at }).collect()
    }

    /// Begins an item of the bibliography.
    pub(super) fn begin_entry(&mut self) -> Option<NodeId> {
        let list = self.lists.last_mut()?;
        list.has_item = true;
        let (node, parts) = (list.node, list.parts);
        while self.parts.len() > parts {
            self.end_part();
        }
        let item = self.doc.append_at(node, Kind::ListItem { checked: None }, self.at);
        self.begin_part(item, false);
        Some(item)
    }

    /// Counts an item: how it is shown, and what references to it show.
    fn count_item(&mut self) -> (String, String) {
        let depth = self.lists.iter().filter(|list| list.kind == ListForm::Numbers).count().clamp(1, 4) - 1;
        let Some(counter) = self.lists.last().map(|list| list.counter.clone()) else { return Default::default() };
        self.counters.step(&counter);
        let value = self.counters.get(&counter);
        let marker = self.lists.last().and_then(|list| list.label.as_ref()).map_or(USUAL[depth], |label| label.marker);
        let number = crate::numeral::numeral(value, marker);
        // Items within others are called by the numbers of these, too (the LaTeX format, `\p@enumii`).
        let mut above = self.lists.iter().rev().skip(1).filter(|list| list.kind == ListForm::Numbers);
        let around = above.next();
        let prefix = if self.macros.shows_numbers { format!("p@{counter}") } else { String::new() };
        let full = match (self.lists.last().and_then(|list| list.reference.as_ref()), around) {
            (Some(reference), _) => reference.of(value).trim().to_owned(),
            (None, _) if self.macros.knows(&prefix) => {
                let tokens = self.written_out(&[Token { kind: Sign::Command(prefix.into()), at: self.at }]);
                format!("{}{number}", self.words(&tokens))
            }
            (None, Some(around)) if depth == 1 || depth == 3 => format!("{}{number}", around.number),
            (None, Some(around)) if depth == 2 => {
                let first = around.number.trim_end_matches(|c: char| c.is_ascii_alphabetic());
                format!("{first}({}){number}", &around.number[first.len()..])
            }
            _ => number.clone(),
        };
        let shown = match self.lists.last().and_then(|list| list.label.as_ref()) {
            Some(label) => label.of(value),
            None => format!("{number}."),
        };
        if let Some(list) = self.lists.last_mut() {
            list.number.clone_from(&full);
            list.shown.clone_from(&shown);
        }
        (shown, full)
    }

    fn number_item(&mut self, list: NodeId, item: NodeId) {
        let (_, full) = self.count_item();
        if let Kind::List(kind) = self.doc.kind(list)
            && self.doc.node(list).first_child() == Some(item)
        {
            let counter = self.lists.last().map_or("", |list| list.counter.as_str());
            let start = i32::try_from(self.counters.get(counter)).unwrap_or(1);
            self.doc.set_kind(list, Kind::List(ListKind { start, ..kind }));
        }
        self.references.here(item, full, "item");
    }

    /// What an item is marked with, where its author says so: a bullet is a bullet, all else is text.
    fn item_label(&mut self, item: NodeId, kind: ListForm, label: Vec<Token>) {
        let words = self.words(&label);
        let is_mark = words.chars().count() <= 1 && !words.chars().all(char::is_alphanumeric)
            || label.iter().any(|token| token.kind == Sign::Dollar);
        if words.is_empty() && label.is_empty() || kind == ListForm::Bullets && is_mark {
            return;
        }
        if self.parts.len() + 1 >= super::build::MOST_PARTS {
            self.input.push(Sign::Space, self.at);
            return self.input.push_all(label.into_iter());
        }
        if let Some(list) = self.lists.last_mut() {
            list.labelled.push(item);
        }
        let term = self.doc.append_at(item, Kind::Term, self.at);
        self.read_into(term, true, label);
    }

    pub(super) fn end_list(&mut self) {
        let Some(list) = self.lists.pop() else { return };
        while self.parts.len() > list.parts {
            self.end_part();
        }
        if let Some(joins) = &list.inline {
            return self.end_list_in_line(joins);
        }
        if !list.has_item {
            self.doc.unwrap(list.node);
            return;
        }
        if !list.labelled.is_empty() {
            self.place_labels(&list);
        }
        // What stands before the first item is none of it; descriptions with one paragraph are text.
        for item in self.doc.children(list.node).collect::<Vec<_>>() {
            if self.doc.kind(item) == Kind::TermDescription {
                let is_empty = self.doc.node(item).first_child().is_none();
                if is_empty && self.doc.node(item).next().is_some_and(|next| self.doc.kind(next) == Kind::Term) {
                    // Several terms have one description.
                    self.doc.detach(item);
                } else if !list.loose {
                    self.open_only_paragraph(item);
                }
            }
        }
        if list.loose
            && let Kind::List(kind) = self.doc.kind(list.node)
        {
            self.doc.set_kind(list.node, Kind::List(ListKind { tight: false, ..kind }));
        }
        let end = self.at;
        self.doc.set_end(list.node, end.max(self.doc.node(list.node).offset()));
    }

    /// Puts the labels that items have of their own where they are read: where all have one, they are terms, or numbers that were
    /// counted by hand; in other lists they begin the text of their items.
    fn place_labels(&mut self, list: &List) {
        let items: Vec<NodeId> = self.doc.children(list.node).collect();
        let label_of = |doc: &crate::document::Document, item: NodeId| {
            doc.node(item).first_child().filter(|&first| doc.kind(first) == Kind::Term)
        };
        let labels: Vec<NodeId> = items.iter().filter_map(|&item| label_of(&self.doc, item)).collect();
        let all_have = labels.len() == items.len() && items.len() > 1;
        if all_have && let Some((label, start)) = self.counted_by_hand(&labels) {
            for label in labels {
                self.doc.detach(label);
            }
            if let Kind::List(kind) = self.doc.kind(list.node) {
                let kind = ListKind { ordered: true, marker: label.marker, start, ..kind };
                self.doc.set_kind(list.node, Kind::List(kind));
            }
            let depth = self.lists.iter().filter(|list| list.kind == ListForm::Numbers).count().min(3);
            return self.show_label(list.node, &label, depth);
        }
        if all_have {
            self.doc.set_kind(list.node, Kind::TermList);
            for (item, label) in items.into_iter().zip(labels) {
                self.doc.move_before(item, label);
                self.doc.set_kind(item, Kind::TermDescription);
            }
            return;
        }
        for &item in &items {
            if let Some(label) = label_of(&self.doc, item) {
                self.put_into_text(label);
            }
        }
        if let Kind::List(kind) = self.doc.kind(list.node)
            && kind.ordered
        {
            self.split_list(list.node, kind, &items, &list.labelled);
        }
    }

    /// The way in which the labels of all items count on, and the first number.
    fn counted_by_hand(&self, labels: &[NodeId]) -> Option<(Label, i32)> {
        use crate::refine::lists::{Mark, typed};
        let first = self.doc.plain_text(*labels.first()?);
        let (Mark::Number(ways), _) = typed(&format!("{} x", first.trim()))? else { return None };
        ways.iter().find_map(|&(marker, start)| {
            let number = crate::numeral::numeral(start.into(), marker);
            let (before, after) = first.trim().split_once(&number)?;
            let label = Label { before: before.to_owned(), marker, after: after.to_owned() };
            let counts =
                |(place, node): (usize, &NodeId)| self.doc.plain_text(*node).trim() == label.of(i64::from(start) + place as i64);
            labels.iter().enumerate().all(counts).then_some((label, start))
        })
    }

    /// A label begins the text of its item.
    fn put_into_text(&mut self, label: NodeId) {
        let text = self.doc.node(label).next().filter(|&next| self.doc.kind(next) == Kind::Paragraph);
        let Some(paragraph) = text else {
            return self.doc.set_kind(label, Kind::Paragraph);
        };
        let space = self.doc.intern(" ");
        self.doc.append_at(label, Kind::Text(space), self.at);
        match self.doc.node(paragraph).first_child() {
            Some(first) => self.doc.move_before(first, label),
            None => self.doc.move_into(paragraph, label),
        }
        self.doc.unwrap(label);
    }

    /// Items with labels of their own are not counted with the others: the numbered list ends before them, and goes on behind.
    fn split_list(&mut self, list: NodeId, kind: ListKind, items: &[NodeId], labelled: &[NodeId]) {
        let (mut holder, mut is_counted, mut next) = (list, true, kind.start);
        let mut others = labelled.iter().peekable();
        for &item in items {
            let counts = others.next_if(|&&labelled| labelled == item).is_none();
            if counts != is_counted && (holder != list || self.doc.node(list).first_child() != Some(item)) {
                let marker = if counts { kind.marker } else { Marker::Plain };
                let part = Kind::List(ListKind { ordered: counts, marker, start: if counts { next } else { 1 }, ..kind });
                let at = self.doc.node(item).offset();
                let part = self.doc.append_at(list, part, at);
                self.doc.move_after(holder, part);
                if counts {
                    self.doc.attributes_mut(part).classes = self.doc.attributes(list).classes.clone();
                    if let Some(numbering) = self.doc.numberings.get(list).cloned() {
                        self.doc.numberings.set(part, numbering);
                    }
                }
                holder = part;
            } else if counts != is_counted {
                self.doc.set_kind(list, Kind::List(ListKind { ordered: counts, marker: Marker::Plain, start: 1, ..kind }));
            }
            is_counted = counts;
            if holder != list {
                self.doc.move_into(holder, item);
            }
            next += i32::from(counts);
        }
    }

    /// The only paragraph of a part is its text.
    pub(super) fn open_only_paragraph(&mut self, holder: NodeId) {
        let mut children = self.doc.children(holder);
        let only = children.next().filter(|_| children.next().is_none());
        drop(children);
        if let Some(only) = only.filter(|&only| self.doc.kind(only) == Kind::Paragraph && self.doc.attributes(only).id.is_none())
        {
            self.doc.unwrap(only);
        }
    }
}

fn list_has_item(list: Option<&List>) -> bool {
    list.is_some_and(|list| list.has_item)
}

/// Whether a label is a box for what is to be done, and whether that is done.
fn checkbox(label: &[Token]) -> Option<bool> {
    label.iter().find_map(|token| match token.kind.command()? {
        "square" | "Box" | "mdlgwhtsquare" => Some(false),
        "boxtimes" | "XBox" | "CheckedBox" | "boxcheck" => Some(true),
        _ => None,
    })
}

/// What stands around the numbers of lists that say nothing of it, by how deep they are (the LaTeX format, `\labelenumi`).
fn with_usual_signs(label: Label, depth: usize) -> Label {
    let (before, after) = if depth == 1 { ("(", ")") } else { ("", ".") };
    Label { before: format!("{before}{}", label.before), after: format!("{}{after}", label.after), ..label }
}

/// The label of lists that say nothing of it, where that is not the usual one.
fn usual_label(name: &str, depth: usize) -> Option<Label> {
    let (before, marker, after) = match (name, depth) {
        ("tasks", _) => ("", Marker::LowerAlpha, ")"),
        (EXAMPLES | EXAMPLES_OF_LINGUEX | "example" | "examples", _) => ("(", Marker::Plain, ")"),
        (PARTS_OF_LINGUEX, 2) => ("(", Marker::LowerRoman, ")"),
        (PARTS | PARTS_OF_LINGUEX | "subexamples", _) => ("", Marker::LowerAlpha, "."),
        ("choices" | "oneparchoices", _) => ("", Marker::UpperAlpha, "."),
        _ => return None,
    };
    Some(Label { before: before.to_owned(), marker, after: after.to_owned() })
}
