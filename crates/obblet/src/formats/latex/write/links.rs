//! Links, labels and references (the documentation of hyperref).

use super::{Writer, escape};
use crate::document::{Kind, NodeId, Text};
use crate::slug;
use std::fmt::Write;

/// Whether an id can be a label as it is.
pub(super) fn is_label(id: &str) -> bool {
    !id.is_empty()
        && !id.contains(|c: char| {
            c.is_control()
                || c.is_whitespace()
                || matches!(c, '\\' | '{' | '}' | '%' | '#' | '~' | '^' | '&' | '$' | '"' | ',' | '[' | ']')
        })
}

impl<'d> Writer<'d> {
    /// The id of a node, where links lead to it.
    pub(super) fn linked_id(&self, id: NodeId) -> Option<&'d str> {
        if !self.doc.node(id).has_attributes() {
            return None;
        }
        let name = self.doc.attributes(id).id.map(|name| self.doc.text(name))?;
        (self.numbers.linked.contains(name) && is_label(name)).then_some(name)
    }

    /// The id of a node that has a number, whether or not something leads to it.
    pub(super) fn label_of(&self, id: NodeId) -> Option<&'d str> {
        let name = self.doc.attributes(id).id.map(|name| self.doc.text(name))?;
        is_label(name).then_some(name)
    }

    /// The label of a heading: where something leads to it, or its author gave it another id than its words make.
    pub(super) fn label_of_heading(&self, id: NodeId) -> Option<&'d str> {
        if let Some(slug) = self.numbers.slugs.get(&id) {
            return Some(*slug);
        }
        let name = self.label_of(id)?;
        let is_made = || slug::of(&self.doc.plain_text(id)) == name.trim_end_matches(|c: char| c.is_ascii_digit() || c == '-');
        (self.numbers.linked.contains(name) || slug::of(&self.doc.plain_text(id)) != name && !is_made()).then_some(name)
    }

    /// Marks the place of a node that links lead to.
    pub(super) fn place_of(&mut self, id: NodeId) {
        if let Some(name) = self.linked_id(id) {
            if self.inside.moving > 0 && self.inside.floats == 0 && self.inside.argument == 0 {
                return self.places_of_heading.push(name);
            }
            self.needs.packages.insert("hyperref");
            let _ = write!(self.out, "\\hypertarget{{{name}}}{{}}");
        }
    }

    pub(super) fn begin_link(&mut self, id: NodeId, href: Text) -> bool {
        let doc = self.doc;
        if self.cites(id, doc.text(href)) {
            return false;
        }
        self.place_of(id);
        let href = doc.text(href);
        let words = doc.plain_text(id);
        if let Some(target) = href.strip_prefix('#').filter(|target| self.numbers.ids.contains(target) && is_label(target)) {
            if let Some((number, word)) = self.numbers.of_id(target) {
                if words == number {
                    self.needs.packages.insert("hyperref");
                    let _ = write!(self.out, "\\ref{{{target}}}");
                    return false;
                }
                let letter = self.numbers.letters.get(target).filter(|letter| words.trim_matches(['(', ')']) == **letter);
                if letter.is_some() {
                    self.needs.packages.insert("subcaption");
                    let (open, close) = if words.starts_with('(') { ("(", ")") } else { ("", "") };
                    let _ = write!(self.out, "{open}\\subref{{{target}}}{close}");
                    return false;
                }
                let is_english = doc.metadata.language.as_deref().is_none_or(|language| language.starts_with("en"));
                let named = words.strip_suffix(number).map(|word| word.trim_end_matches(['\u{A0}', ' ']));
                if is_english && named == Some(word) && words.len() > word.len() + number.len() {
                    self.needs.packages.insert("hyperref");
                    let _ = write!(self.out, "\\autoref{{{target}}}");
                    return false;
                }
            }
            let protect = if self.inside.moving > 0 { "\\protect" } else { "" };
            let command = if self.is_labelled(target) {
                format!("\\hyperref[{target}]{{")
            } else if let Some(key) = self.numbers.entries.key_of(target) {
                // The package gives entries names of its own.
                format!("{protect}\\hyperlink{{cite.{key}}}{{")
            } else {
                format!("{protect}\\hyperlink{{{target}}}{{")
            };
            self.out.push_str(&command);
            return true;
        }
        if doc.attributes(id).title.is_some() {
            self.no_syntax("titles of links", id);
        }
        let is_text = doc.children(id).all(|child| matches!(doc.kind(child), Kind::Text(_)));
        if words == href && is_text && !href.contains(['\\', '{', '}', '^', ' ']) && href.is_ascii() {
            self.needs.packages.insert("hyperref");
            let address = escape::address(href);
            let _ = write!(self.out, "\\url{{{address}}}");
            return false;
        }
        let address = escape::address(href);
        let _ = write!(self.out, "\\href{{{address}}}{{");
        true
    }

    /// Whether the place of an id is a label: that of a heading, a figure or a table.
    pub(super) fn is_labelled(&self, target: &str) -> bool {
        self.numbers.labelled.contains(target)
    }

    pub(super) fn end_link(&mut self, begins: usize) {
        // A link without words shows nothing.
        if self.out.ends_with('{') {
            return self.out.truncate(begins);
        }
        self.needs.packages.insert("hyperref");
        self.out.push('}');
    }
}
