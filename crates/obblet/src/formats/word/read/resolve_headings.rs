//! Levels and numbers of headings, when all of them are read.

use super::Reader;
use crate::document::{Finding, HintRole, Kind, NodeId};

impl Reader<'_, '_> {
    /// A numbered paragraph in bold that is a list of its own is a heading with its number.
    pub(super) fn set_numbered_headings(&mut self) {
        let mut found: Vec<(NodeId, String, u8)> = Vec::new();
        for (paragraph, number, level) in std::mem::take(&mut self.numbered_headings) {
            let Some(item) = self.doc.node(paragraph).parent() else { continue };
            let Some(list) = self.doc.node(item).parent().filter(|&list| matches!(self.doc.kind(list), Kind::List(_))) else {
                continue;
            };
            let is_alone = |id: NodeId| self.doc.node(id).previous().is_none() && self.doc.node(id).next().is_none();
            // A heading has something below it.
            let is_followed = self
                .doc
                .node(list)
                .next()
                .is_some_and(|next| !matches!(self.doc.kind(next), Kind::Heading(_) | Kind::Division(_)));
            if is_alone(paragraph) && is_alone(item) && is_followed && self.doc.node(list).parent() == Some(self.doc.root()) {
                self.doc.unwrap(item);
                self.doc.unwrap(list);
                found.push((paragraph, number, level));
            }
        }
        let Some((first, ..)) = found.first() else { return };
        let place = self.doc.place(*first);
        let message = format!("numbered paragraphs in bold became headings: {}", found.len());
        self.doc.push_finding(
            Finding::changed("word.numbered-heading", message)
                .at(place)
                .hint("give them the style of a heading in the word processor"),
        );
        let mut headings = Vec::new();
        for (paragraph, number, level) in found {
            self.open_bold(paragraph);
            // They stand below the heading with a style that they follow.
            let above = self.headings.iter().rev().find(|(known, _)| known.index() < paragraph.index());
            let level = above.map_or(0, |(_, level)| *level) + 1 + level;
            self.doc.set_kind(paragraph, Kind::Heading(level.clamp(1, 6)));
            self.doc.attributes_mut(paragraph).classes.clear();
            if self.keeps_heading_numbers() {
                self.put_number(paragraph, &number);
            } else {
                self.heading_texts.push((paragraph, number));
            }
            headings.push((paragraph, level));
        }
        self.headings.append(&mut headings);
        self.headings.sort_by_key(|(node, _)| node.index());
        self.heading_texts.sort_by_key(|(node, _)| node.index());
    }

    /// What is bold in all of a heading is so for being one.
    fn open_bold(&mut self, heading: NodeId) {
        let bold: Vec<NodeId> = self.doc.children(heading).filter(|&child| self.doc.kind(child) == Kind::Strong).collect();
        for node in bold {
            self.doc.unwrap(node);
        }
        self.doc.join_texts(heading);
    }

    pub(super) fn resolve_headings(&mut self) {
        let headings = std::mem::take(&mut self.headings);
        let headings: Vec<(NodeId, u8)> = headings
            .into_iter()
            .filter(|(node, _)| self.is_in_tree(*node) && matches!(self.doc.kind(*node), Kind::Heading(_)))
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
            self.doc.set_kind(node, Kind::Heading(wanted.clamp(1, 6)));
            if level > 0 {
                last_title = None;
                continue;
            }
            // A title of several lines is one title.
            match last_title.filter(|last| self.doc.node(*last).next() == Some(node)) {
                Some(last) => {
                    self.doc.append(last, Kind::LineBreak);
                    self.doc.move_children(node, last);
                    self.doc.detach(node);
                }
                None => {
                    last_title = Some(node);
                    self.mark(node, HintRole::Title { lowered: step });
                }
            }
            title = title.or(last_title);
        }
        if let Some(node) = too_deep {
            let place = self.doc.place(node);
            self.doc.push_finding(
                Finding::changed("word.heading-level", "headings below the sixth level became headings of the sixth").at(place),
            );
        }
        let words = |text: String| Some(text.split_whitespace().collect::<Vec<_>>().join(" ")).filter(|text| !text.is_empty());
        if let Some(title) = title.and_then(|title| words(self.doc.plain_text(title))) {
            self.doc.metadata.title = Some(title);
        }
        if let Some(subtitle) = self.subtitle.filter(|subtitle| self.is_in_tree(*subtitle)) {
            self.doc.metadata.subtitle = words(self.doc.plain_text(subtitle));
        }
        self.number_headings();
    }

    /// Numbers of headings, where the text refers to them by number; else they are reported.
    fn number_headings(&mut self) {
        let numbered = std::mem::take(&mut self.heading_texts);
        let numbered: Vec<(NodeId, String)> = numbered.into_iter().filter(|(node, _)| self.is_in_tree(*node)).collect();
        let Some((first, _)) = numbered.first() else { return };
        let keeps = self.refers_by_number && self.options.settings.heading_numbers == super::HeadingNumbers::Auto;
        if !keeps {
            let place = self.doc.place(*first);
            let message = format!("automatic heading numbers were left out: {}", numbered.len());
            self.doc.push_finding(
                Finding::changed("word.heading-numbers", message)
                    .at(place)
                    .hint("set word.heading-numbers to keep them as text, or html.heading-numbers to number headings anew"),
            );
            return;
        }
        for (node, number) in numbered {
            self.put_number(node, &number);
        }
    }

    /// Puts its number before the text of a heading.
    fn put_number(&mut self, node: NodeId, number: &str) {
        let text = self.doc.intern(&format!("{number} "));
        let text = self.doc.create(Kind::Text(text));
        match self.doc.node(node).first_child() {
            Some(first) => self.doc.move_before(first, text),
            None => self.doc.move_into(node, text),
        }
        self.doc.join_texts(node);
    }
}
