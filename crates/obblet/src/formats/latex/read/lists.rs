//! Lists (the LaTeX documentation, "itemize", "enumerate", "description"; of enumitem and paralist).

use super::Reader;
use super::tokens::Token;
use crate::document::{Kind, ListKind, Marker, NodeId};

/// A list whose items are read.
#[derive(Debug)]
pub(super) struct List {
    pub(super) node: NodeId,
    kind: ListForm,
    /// Whether an item has begun.
    has_item: bool,
    /// Whether empty lines part the items.
    loose: bool,
    /// How many parts of the document were open before it.
    parts: usize,
    /// What references to items show, with commands for their number, where the author says so.
    label: Option<String>,
    /// What the item is called that is read, as references show it.
    number: String,
}

impl List {
    /// The entries of a bibliography.
    pub(super) const fn of_entries(node: NodeId, parts: usize) -> Self {
        Self { node, kind: ListForm::Numbers, has_item: false, loose: false, parts, label: None, number: String::new() }
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

/// Counters of numbered lists, by how deep they are.
const COUNTERS: [&str; 4] = ["enumi", "enumii", "enumiii", "enumiv"];

impl Reader<'_> {
    pub(super) fn begin_list(&mut self, kind: ListForm) -> NodeId {
        let options = self.input.option().unwrap_or_default();
        let written = |tokens: &[Token]| {
            let mut text = String::new();
            self.input.write(tokens, &mut text);
            text
        };
        let option = written(&options);
        let depth = self.lists.iter().filter(|list| list.kind == ListForm::Numbers).count().min(3);
        let is_resumed = option.contains("resume");
        let start = option
            .split(',')
            .filter_map(|part| part.split_once('='))
            .find(|(key, _)| key.trim() == "start")
            .and_then(|(_, value)| value.trim().parse().ok());
        if kind == ListForm::Numbers && !is_resumed {
            self.counters.set(COUNTERS[depth], start.map_or(0, |start: i64| start - 1));
        }
        let said = |key: &str| Some(written(&self.input.value_of(&options, key))).filter(|value| !value.is_empty());
        let (label, reference) = (said("label"), said("ref"));
        let shown = label.as_deref().unwrap_or(&option);
        let marker = if option.is_empty() && kind == ListForm::Numbers {
            self.own_marker(depth).unwrap_or_else(|| marker(shown, depth))
        } else {
            marker(shown, depth)
        };
        let list = ListKind { ordered: kind == ListForm::Numbers, tight: true, marker, start: 1 };
        let node = self.block(if kind == ListForm::Terms { Kind::TermList } else { Kind::List(list) });
        let label = reference.or(label).filter(|label| label.contains('*'));
        let parts = self.parts.len();
        self.lists.push(List { node, kind, has_item: false, loose: false, parts, label, number: String::new() });
        node
    }

    /// What items are marked with, where the document says so for all lists so deep.
    fn own_marker(&self, depth: usize) -> Option<Marker> {
        let counter = COUNTERS[depth];
        let said = |name: String| {
            let body = self.macros.body(&name)?;
            body.iter().find_map(|token| {
                Some(match token.kind.command()? {
                    "alph" => Marker::LowerAlpha,
                    "Alph" => Marker::UpperAlpha,
                    "roman" => Marker::LowerRoman,
                    "Roman" => Marker::UpperRoman,
                    "arabic" => Marker::Plain,
                    _ => return None,
                })
            })
        };
        said(format!("label{counter}")).or_else(|| said(format!("the{counter}")))
    }

    /// Begins an item.
    pub(super) fn item(&mut self) {
        self.input.overlay();
        let label = self.input.option().map(|label| self.short_label(label));
        let Some(list) = self.lists.last() else {
            self.end_paragraph();
            return;
        };
        let (node, kind, parts) = (list.node, list.kind, list.parts);
        let is_apart = self.after_empty_line && list.has_item;
        while self.parts.len() > parts {
            self.end_part();
        }
        if parts >= super::build::MOST_PARTS {
            self.end_paragraph();
            return;
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
            if kind == ListForm::Numbers {
                self.number_item(node, item, label.is_some());
            }
            self.begin_part(item, false);
            if let Some(label) = label {
                match checkbox(&label) {
                    Some(done) if kind == ListForm::Bullets => self.doc.set_kind(item, Kind::ListItem { checked: Some(done) }),
                    _ => self.item_label(kind, label),
                }
            }
        }
        if let Some(list) = self.lists.last_mut() {
            list.has_item = true;
            list.loose |= is_apart;
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

    fn number_item(&mut self, list: NodeId, item: NodeId, has_label: bool) {
        let depth = self.lists.iter().filter(|list| list.kind == ListForm::Numbers).count().clamp(1, 4) - 1;
        let counter = COUNTERS[depth];
        if has_label {
            return;
        }
        let number = self.counters.step(counter);
        if let Kind::List(kind) = self.doc.kind(list)
            && self.doc.node(list).first_child() == Some(item)
        {
            let start = number.parse().unwrap_or(1);
            self.doc.set_kind(list, Kind::List(ListKind { start, ..kind }));
        }
        let marker = match self.doc.kind(list) {
            Kind::List(kind) => kind.marker,
            _ => Marker::Plain,
        };
        let value = number.parse().unwrap_or(0);
        let shown = crate::numeral::numeral(value, marker);
        // Items within others are called by the numbers of these, too (the LaTeX format, `\p@enumii`).
        let mut above = self.lists.iter().rev().skip(1).filter(|list| list.kind == ListForm::Numbers).map(|list| &list.number);
        let full = match self.lists.last().and_then(|list| list.label.as_deref()) {
            Some(label) => with_number(label, value),
            None => match (depth, above.next()) {
                (1, Some(above)) => format!("{above}{shown}"),
                (2, Some(above)) => {
                    let first = above.trim_end_matches(|c: char| c.is_ascii_alphabetic());
                    format!("{first}({}){shown}", &above[first.len()..])
                }
                (3, Some(above)) => format!("{above}{shown}"),
                _ => shown,
            },
        };
        if let Some(list) = self.lists.last_mut() {
            list.number.clone_from(&full);
        }
        self.references.here(item, full, "item");
    }

    /// What an item is marked with, where its author says so: a bullet is a bullet, all else is text.
    fn item_label(&mut self, kind: ListForm, label: Vec<Token>) {
        let words = self.words(&label);
        let is_mark = words.chars().count() <= 1 && !words.chars().all(char::is_alphanumeric)
            || label.iter().any(|token| token.kind == super::tokens::Kind::Dollar);
        if words.is_empty() && label.is_empty() || kind == ListForm::Bullets && is_mark {
            return;
        }
        let at = self.at;
        self.input.push(super::tokens::Kind::Space, at);
        self.input.push_all(label.into_iter());
    }

    pub(super) fn end_list(&mut self) {
        let Some(list) = self.lists.pop() else { return };
        while self.parts.len() > list.parts {
            self.end_part();
        }
        if !list.has_item {
            self.doc.unwrap(list.node);
            return;
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

/// A label with a number in place of the commands for it, and without those that say how it looks.
fn with_number(label: &str, value: i64) -> String {
    let (mut out, mut rest) = (String::new(), label);
    while let Some(at) = rest.find('\\') {
        out.push_str(&rest[..at]);
        rest = &rest[at + 1..];
        let letters = rest.bytes().take_while(u8::is_ascii_alphabetic).count();
        let name = &rest[..letters];
        rest = &rest[letters..];
        if let Some(behind) = rest.strip_prefix('*') {
            out.push_str(&super::counters::shown_as(value, name));
            rest = behind;
        } else {
            rest = rest.trim_start();
        }
    }
    out.push_str(rest);
    out.retain(|c| !matches!(c, '{' | '}'));
    out.trim().to_owned()
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

/// What items are marked with, by the option of the list or by how deep it is.
fn marker(option: &str, depth: usize) -> Marker {
    let said = [
        ("alph*", Marker::LowerAlpha),
        ("Alph*", Marker::UpperAlpha),
        ("roman*", Marker::LowerRoman),
        ("Roman*", Marker::UpperRoman),
        ("arabic*", Marker::Plain),
    ];
    if let Some((_, marker)) = said.iter().find(|(name, _)| option.contains(name)) {
        return *marker;
    }
    match without_words(option).trim_matches(['(', ')', '.', '[', ']', ' ', ':', ',']) {
        "a" => Marker::LowerAlpha,
        "A" => Marker::UpperAlpha,
        "i" => Marker::LowerRoman,
        "I" => Marker::UpperRoman,
        "1" => Marker::Plain,
        _ => [Marker::Plain, Marker::LowerAlpha, Marker::LowerRoman, Marker::UpperAlpha][depth],
    }
}

/// The text of an option without what is in braces, which stands for itself, and without commands.
fn without_words(option: &str) -> String {
    let (mut out, mut depth, mut rest) = (String::new(), 0_usize, option);
    while let Some(c) = rest.chars().next() {
        rest = &rest[c.len_utf8()..];
        match c {
            '{' => depth += 1,
            '}' => depth = depth.saturating_sub(1),
            '\\' => rest = rest.trim_start_matches(|c: char| c.is_ascii_alphabetic()),
            c if depth == 0 => out.push(c),
            _ => {}
        }
    }
    out
}
