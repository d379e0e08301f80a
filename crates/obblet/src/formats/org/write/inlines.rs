//! Text: markers with what has to stand around them.

use super::super::read::{is_known, scheme};
use super::Writer;
use super::escape::{self, NOTHING, may_follow, may_precede};
use crate::document::{Kind, Markup, NodeId, NoteId, Step, Text, TextLevel};
use std::borrow::Cow;

/// What stands at the end of a line where the line is broken by hand.
const BREAK: &str = "\\\\\n";
/// What parts a marker from letters beside it.
const APART: char = '\u{200B}';

impl Writer<'_> {
    /// The text below a node, in one line.
    pub(super) fn line_below(&mut self, id: NodeId) -> String {
        let (first, last) = (self.doc.node(id).first_child(), self.doc.node(id).last_child());
        let (Some(first), Some(last)) = (first, last) else { return String::new() };
        self.text(first, last).replace(BREAK, " ").replace('\n', " ").trim().to_owned()
    }

    /// The text of nodes from one to another.
    pub(super) fn text(&mut self, first: NodeId, last: NodeId) -> String {
        let mut out = String::new();
        self.markers = escape::Markers::default();
        let mut at = Some(first);
        while let Some(id) = at {
            for step in self.doc.walk(id) {
                if let Step::Enter(id) = step
                    && let Kind::Text(text) = self.doc.kind(id)
                {
                    self.markers.add(self.doc.text(text));
                }
            }
            at = self.doc.node(id).next().filter(|_| id != last);
        }
        let mut at = Some(first);
        while let Some(id) = at {
            self.inline_tree(id, &mut out);
            at = self.doc.node(id).next().filter(|_| id != last);
        }
        out
    }

    fn inline_tree(&mut self, top: NodeId, out: &mut String) {
        let doc = self.doc;
        // Where each node that is open begins in the text.
        let mut starts: Vec<usize> = Vec::new();
        let mut walk = doc.walk(top);
        while let Some(step) = walk.next() {
            match step {
                Step::Enter(id) => {
                    let kind = doc.kind(id);
                    starts.push(out.len());
                    if self.leaf(id, kind, out) {
                        walk.skip_children(id);
                    } else if kind == Kind::TextLevel(TextLevel::Quotation) {
                        out.push_str(self.quotation_marks().0);
                    }
                }
                Step::Leave(id) => {
                    let start = starts.pop().unwrap_or(out.len());
                    self.leave_inline(id, start, out);
                }
            }
        }
    }

    fn quotation_marks(&self) -> (&'static str, &'static str) {
        crate::quotation_marks::of(self.doc.metadata.language.as_deref().unwrap_or_default()).double
    }

    /// Writes what holds no nodes that matter. Whether it did.
    fn leaf(&mut self, id: NodeId, kind: Kind, out: &mut String) -> bool {
        let doc = self.doc;
        match kind {
            Kind::Text(text) => escape::escaped(doc.text(text), out.chars().next_back(), &mut self.markers, out),
            Kind::SoftBreak => out.push('\n'),
            Kind::LineBreak => out.push_str(BREAK),
            Kind::Code(code) => self.code(doc.text(code), id, out),
            Kind::Math(formula) => {
                let formula = doc.formula(formula);
                let source = &*crate::math::to_tex(formula.notation, doc.text(formula.source));
                if formula.notation != Markup::Html {
                    // No line within begins something else.
                    let begins = |line: &str| escape::line_start(line.trim_start());
                    let source = if source.lines().skip(1).any(begins) && !source.contains('%') {
                        Cow::Owned(source.replace('\n', " "))
                    } else {
                        Cow::Borrowed(source)
                    };
                    let (open, close) = if formula.display { ("\\[", "\\]") } else { ("\\(", "\\)") };
                    out.extend([open, &*source, close]);
                } else {
                    self.no_syntax("formulas in HTML; their characters are kept", id);
                    escape::escaped(doc.text(formula.characters), out.chars().next_back(), &mut self.markers, out);
                }
            }
            Kind::NoteReference(note) => {
                if (note.0 as usize) < doc.notes.len() {
                    let label = self.label(note);
                    out.push_str(&format!("[fn:{label}]"));
                }
            }
            Kind::Image { src, alt } => {
                if !alt.is_empty() && !self.is_alone(id) {
                    self.no_syntax("alt text of images within lines", id);
                }
                out.push_str(&format!("[[{}]]", address(doc.text(src))));
            }
            Kind::Raw { markup: Markup::Html, raw } => {
                out.push_str(&format!("@@html:{}@@", doc.text(raw).replace('\n', " ")));
            }
            Kind::Raw { raw, .. } => {
                self.no_syntax("raw markup", id);
                self.code(doc.text(raw), id, out);
            }
            Kind::Anchor => {
                let name = doc.attributes(id).id.map(|name| doc.text(name)).unwrap_or_default();
                if self.linked.contains(name) && !name.contains(['<', '>']) {
                    self.placed.insert(name);
                    out.push_str(&format!("<<{name}>>"));
                    // At the beginning of a paragraph, white space behind it is no text.
                    let is_first = out.len() == name.len() + "<<>>".len() && doc.node(id).previous().is_none();
                    if is_first && doc.node(id).next().is_some_and(|next| !self.begins_with_space(next)) {
                        out.push(' ');
                    }
                }
                return false;
            }
            Kind::TextLevel(TextLevel::Time) => {
                let text = doc.plain_text(id);
                let is_date =
                    text.len() >= 10 && text.as_bytes()[..4].iter().all(u8::is_ascii_digit) && text.as_bytes()[4] == b'-';
                if !is_date || text.contains(['<', '>', '\n']) {
                    return false;
                }
                out.push_str(&format!("<{text}>"));
            }
            Kind::Span => {
                if let Some(name) = self.linked_id(id) {
                    out.push_str(&format!("<<{name}>>"));
                }
                return false;
            }
            _ => return false,
        }
        true
    }

    /// Whether an image is all of a paragraph or a figure.
    fn is_alone(&self, id: NodeId) -> bool {
        let node = self.doc.node(id);
        let holder = node.parent().map(|parent| self.doc.kind(parent));
        node.previous().is_none() && matches!(holder, Some(Kind::Paragraph | Kind::Figure))
    }

    /// The label of a note, which is mentioned now.
    pub(super) fn label(&mut self, note: NoteId) -> String {
        if let Some(label) = self.labels.get(&note) {
            return label.clone();
        }
        let known = self.doc.notes.get(note.0 as usize).map(|note| note.label.clone()).unwrap_or_default();
        let is_label = !known.is_empty() && known.chars().all(|c| c.is_alphanumeric() || matches!(c, '-' | '_'));
        let label = if is_label { known } else { format!("note-{}", self.noted.len() + 1) };
        self.labels.insert(note, label.clone());
        self.noted.push(note);
        label
    }

    /// Code: between markers that are not in it.
    fn code(&mut self, code: &str, id: NodeId, out: &mut String) {
        let code = code.replace('\n', " ");
        let words = code.trim();
        if words.is_empty() {
            return;
        }
        let Some(mark) = ['~', '='].into_iter().find(|mark| !ends_within(words, *mark)) else {
            self.no_syntax("code with both of its marks", id);
            self.markers.add(words);
            return escape::escaped(words, out.chars().next_back(), &mut self.markers, out);
        };
        if !may_precede(out.chars().next_back()) {
            out.push(APART);
        }
        out.push(mark);
        out.push_str(words);
        out.push(mark);
        if self.needs_space_behind(id) {
            out.push(APART);
        }
    }

    /// Whether what stands behind a node would keep its marker from ending it.
    fn needs_space_behind(&self, id: NodeId) -> bool {
        let mut at = id;
        loop {
            if let Some(next) = self.doc.node(at).next() {
                let first = self.doc.walk(next).find_map(|step| match step {
                    Step::Enter(id) => match self.doc.kind(id) {
                        Kind::Text(text) => Some(self.doc.text(text).chars().next()),
                        Kind::SoftBreak | Kind::LineBreak => Some(Some(' ')),
                        Kind::NoteReference(_) | Kind::Link { .. } | Kind::Image { .. } => Some(Some('[')),
                        kind if kind.is_leaf() => Some(Some('x')),
                        Kind::Strong
                        | Kind::Emphasis
                        | Kind::Underline
                        | Kind::Strikethrough
                        | Kind::Subscript
                        | Kind::Superscript => Some(Some('x')),
                        _ => None,
                    },
                    Step::Leave(_) => None,
                });
                return !may_follow(first.unwrap_or(None));
            }
            // A marker around it ends it as well.
            match self.doc.node(at).parent().filter(|&parent| self.doc.kind(parent).is_inline()) {
                Some(parent) if marker(self.doc.kind(parent)).is_some() => return false,
                Some(parent) => at = parent,
                None => return false,
            }
        }
    }

    /// What was written below a node gets what is around it.
    fn leave_inline(&mut self, id: NodeId, start: usize, out: &mut String) {
        let doc = self.doc;
        let kind = doc.kind(id);
        if kind.is_leaf() && !matches!(kind, Kind::Link { .. }) {
            return;
        }
        if let Some(mark) = marker(kind) {
            if mark == '=' {
                // What is verbatim holds no markers.
                out.truncate(start);
                if doc.children(id).any(|child| !matches!(doc.kind(child), Kind::Text(_) | Kind::Code(_))) {
                    self.no_syntax("markup within code", id);
                }
                return self.code(&doc.plain_text(id), id, out);
            }
            return self.mark(id, mark, start, out);
        }
        match kind {
            Kind::Subscript | Kind::Superscript => {
                let inner = out.split_off(start);
                if out.chars().next_back().is_none_or(char::is_whitespace) {
                    out.push_str(NOTHING);
                }
                out.push_str(if kind == Kind::Subscript { "_{" } else { "^{" });
                out.push_str(inner.trim());
                out.push('}');
            }
            Kind::Link { href } => {
                if doc.attributes(id).title.is_some() {
                    self.no_syntax("titles of links", id);
                }
                self.link(id, href, start, out);
            }
            Kind::TextLevel(TextLevel::Quotation) => out.push_str(self.quotation_marks().1),
            Kind::TextLevel(TextLevel::RubyText) => {
                let inner = out.split_off(start);
                out.push_str(&format!("({inner})"));
            }
            Kind::Highlight => self.no_syntax("highlighted text", id),
            _ => {}
        }
    }

    fn begins_with_space(&self, id: NodeId) -> bool {
        matches!(self.doc.kind(id), Kind::Text(text) if self.doc.text(text).starts_with(char::is_whitespace))
    }

    /// Puts markers around text, where they can stand.
    fn mark(&mut self, id: NodeId, mark: char, start: usize, out: &mut String) {
        let inner = out.split_off(start);
        let words = inner.trim_matches([' ', '\n']);
        let is_nested = self.doc.ancestors(id).any(|above| above != id && marker(self.doc.kind(above)) == Some(mark));
        if words.is_empty() || is_nested || words.ends_with("\\\\") {
            return out.push_str(&inner);
        }
        let (before, behind) = inner.split_once(words).unwrap_or_default();
        out.push_str(before);
        if !may_precede(out.chars().next_back()) {
            out.push(APART);
        }
        out.push(mark);
        out.push_str(words);
        out.push(mark);
        if behind.is_empty() && self.needs_space_behind(id) {
            out.push(APART);
        }
        out.push_str(behind);
    }

    /// Whether an id is that of something else than a heading, which links lead to by its name.
    fn is_target(&self, id: &str) -> bool {
        self.targets.contains_key(id)
            && id.chars().all(|c| c.is_alphanumeric() || matches!(c, '-' | '_' | ':'))
            && id.starts_with(char::is_alphanumeric)
            && scheme(id).is_none_or(|scheme| !is_known(scheme))
    }

    fn link(&mut self, id: NodeId, href: Text, start: usize, out: &mut String) {
        let mut inner = out.split_off(start);
        let doc = self.doc;
        let href = doc.text(href);
        let mut images = doc.children(id).filter_map(|child| match doc.kind(child) {
            Kind::Image { src, .. } => Some(doc.text(src)),
            _ => None,
        });
        let image = images.next();
        let has_image = image.is_some();
        if let Some(image) = image {
            // An address alone is a picture there.
            let is_alone = doc.node(id).first_child() == doc.node(id).last_child();
            if is_alone {
                let address = address(image);
                let is_path = address.starts_with(['/', '.']);
                inner = if is_path { format!("file:{address}") } else { address };
            } else {
                self.no_syntax("images among the text of links", id);
                inner = doc.plain_text(id);
            }
        }
        let target = match href.strip_prefix('#').filter(|id| self.is_target(id)) {
            Some(id) => id.to_owned(),
            None => address(href),
        };
        let words = inner.trim();
        if words.is_empty() || href.is_empty() {
            return out.push_str(&inner);
        }
        if let Some(shown) = self.numbers.shown(doc, id, &target) {
            return out.push_str(&shown);
        }
        let shows_number = href.starts_with('#') && self.targets.get(&target).is_some_and(|is_counted| *is_counted);
        let is_address = words == href || words == target && !shows_number;
        if is_address && !has_image && !target.starts_with('#') && !target.contains(['[', ']', ' ']) {
            out.push_str(&format!("[[{target}]]"));
        } else {
            out.push_str(&format!("[[{target}][{}]]", words.replace("]]", "]@@comment:@@]")));
        }
    }
}

/// Whether a marker would end within words that it begins.
fn ends_within(words: &str, mark: char) -> bool {
    words.match_indices(mark).any(|(at, _)| {
        let before = words[..at].chars().next_back();
        before.is_some_and(|c| !c.is_whitespace()) && may_follow(words[at + 1..].chars().next())
    })
}

/// The marker of a kind of text.
const fn marker(kind: Kind) -> Option<char> {
    match kind {
        Kind::Strong | Kind::TextLevel(TextLevel::Bold) => Some('*'),
        Kind::Emphasis | Kind::TextLevel(TextLevel::Italic | TextLevel::Cite | TextLevel::Definition) => Some('/'),
        Kind::Underline | Kind::Insertion => Some('_'),
        Kind::Strikethrough | Kind::Deletion => Some('+'),
        Kind::TextLevel(TextLevel::Keyboard | TextLevel::Sample | TextLevel::Variable | TextLevel::Code) => Some('='),
        _ => None,
    }
}

/// An address as Org has it: files are named as such, and brackets are written so that they end nothing.
fn address(href: &str) -> String {
    let mut href = href.replace('[', "%5B").replace(']', "%5D");
    let has_scheme = href.split_once(':').is_some_and(|(scheme, _)| {
        !scheme.is_empty() && scheme.bytes().all(|byte| byte.is_ascii_alphanumeric() || matches!(byte, b'+' | b'-' | b'.'))
    });
    if !has_scheme && let Some((path, place)) = href.split_once('#').filter(|(path, _)| path.ends_with(".org")) {
        href = format!("{path}::#{place}");
    }
    let is_path = has_scheme || href.starts_with(['#', '/', '.']);
    if is_path { href } else { format!("file:{href}") }
}
