//! Levels and numbers of headings, when all of them are read.

use super::HeadingNumbers;
use super::resolve::is_in_tree;
use crate::document::{Document, Finding, HintRole, Kind, NodeId};

/// Headings, as far as they are known before all of a document is read.
#[derive(Debug, Default)]
pub(super) struct Headings {
    /// Each with its level; 0 for a title.
    pub(super) found: Vec<(NodeId, u8)>,
    /// Numbers that the program puts before headings.
    pub(super) numbers: Vec<(NodeId, String)>,
    /// Paragraphs with numbers that may be headings, with their numbers and levels.
    pub(super) numbered: Vec<(NodeId, String, u8)>,
    pub(super) subtitle: Option<NodeId>,
    /// Whether the text refers to headings by number.
    pub(super) are_referred_to: bool,
}

impl Headings {
    /// A numbered paragraph in bold that is a list of its own is a heading with its number.
    pub(super) fn find_numbered(&mut self, doc: &mut Document, keeps_numbers: bool) {
        let mut found: Vec<(NodeId, String, u8)> = Vec::new();
        for (paragraph, number, level) in std::mem::take(&mut self.numbered) {
            let Some(item) = doc.node(paragraph).parent() else { continue };
            let Some(list) = doc.node(item).parent().filter(|&list| matches!(doc.kind(list), Kind::List(_))) else {
                continue;
            };
            let is_alone = |id: NodeId| doc.node(id).previous().is_none() && doc.node(id).next().is_none();
            // A heading has something below it.
            let is_followed =
                doc.node(list).next().is_some_and(|next| !matches!(doc.kind(next), Kind::Heading(_) | Kind::Division(_)));
            if is_alone(paragraph) && is_alone(item) && is_followed && doc.node(list).parent() == Some(doc.root()) {
                doc.unwrap(item);
                doc.unwrap(list);
                found.push((paragraph, number, level));
            }
        }
        let Some((first, ..)) = found.first() else { return };
        let place = doc.place(*first);
        let message = format!("numbered paragraphs in bold became headings: {}", found.len());
        doc.push_finding(
            Finding::changed("word.numbered-heading", message)
                .at(place)
                .hint("give them the style of a heading in the word processor"),
        );
        let mut headings = Vec::new();
        for (paragraph, number, level) in found {
            open_bold(doc, paragraph);
            // They stand below the heading with a style that they follow.
            let above = self.found.iter().rev().find(|(known, _)| known.index() < paragraph.index());
            let level = above.map_or(0, |(_, level)| *level) + 1 + level;
            doc.set_kind(paragraph, Kind::Heading(level.clamp(1, 6)));
            doc.attributes_mut(paragraph).classes.clear();
            if keeps_numbers {
                put_number(doc, paragraph, &number);
            } else {
                self.numbers.push((paragraph, number));
            }
            headings.push((paragraph, level));
        }
        self.found.append(&mut headings);
        self.found.sort_by_key(|(node, _)| node.index());
        self.numbers.sort_by_key(|(node, _)| node.index());
    }

    pub(super) fn resolve(&mut self, doc: &mut Document, setting: HeadingNumbers) {
        let headings = std::mem::take(&mut self.found);
        let headings: Vec<(NodeId, u8)> = headings
            .into_iter()
            .filter(|(node, _)| is_in_tree(doc, *node) && matches!(doc.kind(*node), Kind::Heading(_)))
            .collect();
        let has_title = headings.iter().any(|(_, level)| *level == 0);
        // Below the title stand the headings of the first level, where there are any.
        let step = u8::from(has_title && headings.iter().any(|(_, level)| *level == 1));
        let mut too_deep = None;
        let mut last_title: Option<NodeId> = None;
        let mut title = None;
        for &(node, level) in &headings {
            let wanted = if level == 0 { 1 } else { level + step };
            if wanted > 6 {
                too_deep.get_or_insert(node);
            }
            doc.set_kind(node, Kind::Heading(wanted.clamp(1, 6)));
            if level > 0 {
                last_title = None;
                continue;
            }
            // A title of several lines is one title.
            match last_title.filter(|last| doc.node(*last).next() == Some(node)) {
                Some(last) => {
                    doc.append(last, Kind::LineBreak);
                    doc.move_children(node, last);
                    doc.detach(node);
                }
                None => {
                    last_title = Some(node);
                    doc.layout_hints.at(node).part = HintRole::Title { lowered: step };
                }
            }
            title = title.or(last_title);
        }
        if let Some(node) = too_deep {
            let place = doc.place(node);
            doc.push_finding(
                Finding::changed("word.heading-level", "headings below the sixth level became headings of the sixth").at(place),
            );
        }
        let words = |text: String| Some(text.split_whitespace().collect::<Vec<_>>().join(" ")).filter(|text| !text.is_empty());
        if let Some(title) = title.and_then(|title| words(doc.plain_text(title))) {
            doc.metadata.title = Some(title);
        }
        if let Some(subtitle) = self.subtitle.filter(|subtitle| is_in_tree(doc, *subtitle)) {
            doc.metadata.subtitle = words(doc.plain_text(subtitle));
        }
        self.show_numbers(doc, setting);
    }

    /// Numbers of headings, where the text refers to them by number; else they are reported.
    fn show_numbers(&mut self, doc: &mut Document, setting: HeadingNumbers) {
        let numbered = std::mem::take(&mut self.numbers);
        let numbered: Vec<(NodeId, String)> = numbered.into_iter().filter(|(node, _)| is_in_tree(doc, *node)).collect();
        let Some((first, _)) = numbered.first() else { return };
        let keeps = self.are_referred_to && setting == HeadingNumbers::Auto;
        if !keeps {
            let place = doc.place(*first);
            let message = format!("automatic heading numbers were left out: {}", numbered.len());
            doc.push_finding(
                Finding::changed("word.heading-numbers", message)
                    .at(place)
                    .hint("set word.heading-numbers to keep them as text, or html.heading-numbers to number headings anew"),
            );
            return;
        }
        for (node, number) in numbered {
            put_number(doc, node, &number);
        }
    }
}

/// What is bold in all of a heading is so for being one.
fn open_bold(doc: &mut Document, heading: NodeId) {
    let bold: Vec<NodeId> = doc.children(heading).filter(|&child| doc.kind(child) == Kind::Strong).collect();
    for node in bold {
        doc.unwrap(node);
    }
    doc.join_texts(heading);
}

/// Puts its number before the text of a heading.
fn put_number(doc: &mut Document, node: NodeId, number: &str) {
    let text = doc.intern(&format!("{number} "));
    let text = doc.create(Kind::Text(text));
    match doc.node(node).first_child() {
        Some(first) => doc.move_before(first, text),
        None => doc.move_into(node, text),
    }
    doc.join_texts(node);
}
