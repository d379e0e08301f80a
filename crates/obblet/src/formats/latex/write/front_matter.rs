//! What stands before the text: the title, who wrote it, when.

use super::{Tree, Writer};
use crate::document::{Kind, NodeId};

impl Writer<'_> {
    /// Finds what the preamble says of the document.
    pub(super) fn front_matter(&mut self) {
        if self.options.fragment {
            return;
        }
        let doc = self.doc;
        let metadata = &doc.metadata;
        let title = match self.front.title {
            Some(title) => Some(self.argument_of(title)),
            None => metadata.title.as_deref().map(|title| self.escaped(title)),
        };
        if let Some(title) = title.filter(|title| !title.is_empty() || self.front.title.is_some()) {
            self.front.lines.push(format!("\\title{{{title}}}"));
        }
        self.front.is_shown = self.front.title.is_some();
        if let (true, Some(subtitle)) = (self.front.is_shown, metadata.subtitle.as_deref()) {
            self.front.subtitle = self.front.title.and_then(|title| doc.subtitle(title));
            let words = match self.front.subtitle {
                Some(paragraph) => self.argument_of(paragraph),
                None => self.escaped(subtitle),
            };
            // The standard classes have none.
            self.front.lines.push(
                "\\makeatletter\\providecommand{\\subtitle}[1]{\\g@addto@macro\\@title{\\\\ {\\large #1}}}\\makeatother"
                    .to_owned(),
            );
            self.front.lines.push(format!("\\subtitle{{{words}}}"));
        }
        self.front.byline = self.front.title.and_then(|title| doc.byline(title));
        let mut date = metadata.date.as_deref();
        let authors: Vec<String> = match self.front.byline {
            Some(byline) => {
                let mut lines: Vec<NodeId> = doc.children(byline).collect();
                // The last of them may be the day.
                let is_day = |line: NodeId| date.is_some_and(|date| doc.plain_text(line).trim() == date);
                let day = lines.pop_if(|line| is_day(*line));
                date = date.filter(|_| day.is_some());
                lines.into_iter().map(|line| self.author(line)).collect()
            }
            None => metadata.authors.iter().map(|author| self.escaped(author)).collect(),
        };
        // The class asks for them where there is a title.
        if !authors.is_empty() || self.front.is_shown {
            self.front.lines.push(format!("\\author{{{}}}", authors.join(" \\and ")));
        }
        match date {
            Some(date) => {
                let date = self.escaped(date);
                self.front.lines.push(format!("\\date{{{date}}}"));
            }
            // Without one, the day of typesetting would be printed.
            None if self.front.is_shown => self.front.lines.push("\\date{}".to_owned()),
            None => {}
        }
        let (description, keywords) = (metadata.description.clone(), metadata.keywords.join(", "));
        let facts = [("pdfsubject", description.unwrap_or_default()), ("pdfkeywords", keywords)];
        let facts = facts.iter().filter(|(_, value)| !value.trim().is_empty());
        let facts: Vec<String> = facts.map(|(key, value)| format!("{key}={{{}}}", self.escaped(value))).collect();
        if !facts.is_empty() {
            self.needs.packages.insert("hyperref");
            self.front.lines.push(format!("\\hypersetup{{{}}}", facts.join(", ")));
        }
    }

    /// Words as an argument.
    pub(super) fn escaped(&mut self, words: &str) -> String {
        let text = std::mem::take(&mut self.out);
        self.words(words.trim());
        std::mem::replace(&mut self.out, text).replace('\n', " ")
    }

    /// What stands in a node, as an argument.
    fn argument_of(&mut self, id: NodeId) -> String {
        let text = std::mem::take(&mut self.out);
        self.inside.moving += 1;
        self.front.is_open = true;
        for child in self.doc.children(id).collect::<Vec<_>>() {
            self.trees.push(Tree::of(self.doc.walk(child), self.inside));
            self.write_trees();
        }
        self.front.is_open = false;
        self.inside.moving -= 1;
        std::mem::replace(&mut self.out, text).trim().replace('\n', " ")
    }

    /// A paragraph of a byline: what begins with no name of an author has an empty line in its place.
    fn author(&mut self, line: NodeId) -> String {
        self.front.is_byline = true;
        let words = self.argument_of(line);
        self.front.is_byline = false;
        let text = self.doc.plain_text(line);
        let is_author = self.doc.metadata.authors.iter().any(|author| text.trim_start().starts_with(author.as_str()));
        if is_author { words } else { format!("\\\\ {words}") }
    }

    /// Whether a paragraph is part of what stands before the text already.
    pub(super) fn is_in_front(&self, id: NodeId) -> bool {
        let is_empty = self.doc.node(id).first_child().is_none();
        is_empty && self.doc.kind(id) == Kind::Paragraph
    }
}
