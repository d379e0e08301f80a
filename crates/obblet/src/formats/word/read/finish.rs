//! What can only be done when all of a document is read: levels of headings, places that links lead to, captions, the
//! language, what the package says of the document.

use super::super::xml::{Event, Xml};
use super::properties::Name;
use super::{Comments, Reader, advice};
use crate::document::{Finding, Kind, NodeId, Step};
use crate::map::HashMap;
use crate::slug;

impl Reader<'_, '_> {
    pub(super) fn finish(&mut self) {
        self.drop_emptied();
        self.drop_rules_of_boxes();
        self.set_numbered_headings();
        self.settle_headings();
        self.settle_anchors();
        self.settle_captions();
        self.settle_comments();
        self.settle_code();
        self.settle_languages();
        self.settle_directions();
        self.find_covered_links();
        self.tell();
        self.tell_whole();
    }

    /// Items and lists that hold nothing any more.
    fn drop_emptied(&mut self) {
        for node in std::mem::take(&mut self.emptied) {
            let mut at = node;
            while self.doc.node(at).first_child().is_none()
                && matches!(self.doc.kind(at), Kind::ListItem { .. } | Kind::List(_) | Kind::BlockQuote)
            {
                let parent = self.doc.node(at).parent();
                self.doc.detach(at);
                let Some(parent) = parent else { break };
                at = parent;
            }
        }
    }

    fn is_in_tree(&self, node: NodeId) -> bool {
        self.doc.node(node).parent().is_some()
    }

    /// A numbered paragraph in bold that is a list of its own is a heading with its number.
    fn set_numbered_headings(&mut self) {
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
        self.doc.find(
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

    fn settle_headings(&mut self) {
        let headings = std::mem::take(&mut self.headings);
        let headings: Vec<(NodeId, u8)> = headings
            .into_iter()
            .filter(|(node, _)| self.is_in_tree(*node) && matches!(self.doc.kind(*node), Kind::Heading(_)))
            .collect();
        let has_title = headings.iter().any(|(_, level)| *level == 0);
        let step = u8::from(has_title);
        let mut too_deep = None;
        let mut last_title: Option<NodeId> = None;
        let mut title = None;
        for &(node, level) in &headings {
            let wanted = level + step;
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
                None => last_title = Some(node),
            }
            title = title.or(last_title);
        }
        if let Some(node) = too_deep {
            let place = self.doc.place(node);
            self.doc.find(
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

    /// Numbers of headings, where the text refers to them by number; else they are told about.
    fn number_headings(&mut self) {
        let numbered = std::mem::take(&mut self.heading_texts);
        let numbered: Vec<(NodeId, String)> = numbered.into_iter().filter(|(node, _)| self.is_in_tree(*node)).collect();
        let Some((first, _)) = numbered.first() else { return };
        let keeps = self.refers_by_number && self.options.heading_numbers == super::HeadingNumbers::Auto;
        if !keeps {
            let place = self.doc.place(*first);
            let message = format!("numbers that the program put before headings were left out: {}", numbered.len());
            self.doc.find(
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

    /// Places stay where a link leads to them. A heading is known by its words, not by a number of the program's.
    fn settle_anchors(&mut self) {
        if let Some(last) = self.doc.node(self.doc.root()).last_child() {
            for anchor in std::mem::take(&mut self.waiting_anchors) {
                self.doc.move_into(last, anchor);
            }
        }
        let mut slugs = HashMap::default();
        let mut names: HashMap<String, String> = HashMap::default();
        let mut headings: HashMap<NodeId, String> = HashMap::default();
        for (anchor, name) in std::mem::take(&mut self.anchors) {
            // Marks of contents lists are made anew each time one is; nobody else leads to them.
            let stays = !names.contains_key(&name)
                && (self.used_anchors.contains(&name)
                    || (!name.starts_with("_Toc") && self.doc.traces.places_of_others.stays(&name)));
            if !stays {
                self.doc.detach(anchor);
                continue;
            }
            let heading = self.doc.ancestors(anchor).find(|id| matches!(self.doc.kind(*id), Kind::Heading(_)));
            if let Some(heading) = heading {
                let id = match headings.get(&heading) {
                    Some(known) => known.clone(),
                    None => {
                        let id = if name.starts_with('_') {
                            slug::unique(&self.doc.plain_text(heading), &mut slugs)
                        } else {
                            name.clone()
                        };
                        headings.insert(heading, id.clone());
                        let text = self.doc.intern(&id);
                        self.doc.attributes_mut(heading).id = Some(text);
                        id
                    }
                };
                self.doc.detach(anchor);
                names.insert(name, id);
                continue;
            }
            // Places at the beginning of one block are one place.
            let block = self.doc.node(anchor).parent().filter(|parent| {
                !self.doc.kind(*parent).is_inline()
                    && std::iter::successors(self.doc.node(anchor).previous(), |at| self.doc.node(*at).previous())
                        .all(|before| self.doc.kind(before) == Kind::Anchor)
            });
            let Some(block) = block else {
                names.insert(name.clone(), name);
                continue;
            };
            let id = headings.entry(block).or_insert_with(|| name.clone()).clone();
            if id == name {
                let text = self.doc.intern(&id);
                self.doc.attributes_mut(block).id = Some(text);
            }
            self.doc.detach(anchor);
            names.insert(name, id);
        }
        let others = names.iter().filter(|(name, id)| name != id && self.doc.traces.places_of_others.wanted.contains(*name));
        let others: Vec<(String, String)> = others.map(|(name, id)| (name.clone(), id.clone())).collect();
        self.doc.traces.places_of_others.also.extend(others);
        let mut missing: Vec<(NodeId, String)> = Vec::new();
        for top in crate::refine::tops(&self.doc) {
            let links: Vec<NodeId> = self
                .doc
                .walk(top)
                .filter_map(|step| match step {
                    Step::Enter(id) if matches!(self.doc.kind(id), Kind::Link { .. }) => Some(id),
                    _ => None,
                })
                .collect();
            for link in links {
                let Kind::Link { href } = self.doc.kind(link) else { continue };
                let Some(name) = self.doc.text(href).strip_prefix('#').map(str::to_owned) else { continue };
                match names.get(&name) {
                    Some(id) if *id != name => {
                        let href = self.doc.intern(&format!("#{id}"));
                        self.doc.set_kind(link, Kind::Link { href });
                    }
                    Some(_) => {}
                    // The top of the document is always there.
                    None if name == "_top" || name == "top" => {
                        let href = self.doc.intern("#top");
                        self.doc.set_kind(link, Kind::Link { href });
                    }
                    None => missing.push((link, name)),
                }
            }
        }
        if let Some((link, _)) = missing.first() {
            let place = self.doc.place(*link);
            let mut gone: Vec<&str> = missing.iter().map(|(_, name)| name.as_str()).collect();
            gone.dedup();
            self.doc.find(
                Finding::changed("word.dead-link", format!("links lead to places that are not there: {}", missing.len()))
                    .at(place)
                    .hint("bring the fields of the document up to date")
                    .losing(gone.join(" ")),
            );
        }
    }

    /// A caption belongs to the picture or the table beside it.
    fn settle_captions(&mut self) {
        for caption in std::mem::take(&mut self.captions) {
            if !self.is_in_tree(caption) || self.doc.kind(caption) != Kind::Paragraph {
                continue;
            }
            let (before, after) = (self.doc.node(caption).previous(), self.doc.node(caption).next());
            let exact = self.options.looks.is_exact();
            let is_table = |node: Option<NodeId>| node.filter(|node| self.doc.kind(*node) == Kind::Table);
            let is_picture = |node: Option<NodeId>| node.filter(|node| self.is_picture(*node));
            let has_caption =
                |table: NodeId| self.doc.node(table).first_child().is_some_and(|first| self.doc.kind(first) == Kind::Caption);
            if let Some(picture) = is_picture(before) {
                let figure = self.doc.wrap(picture, Kind::Figure);
                if exact {
                    self.doc.copy_attributes(picture, figure);
                }
                self.doc.unwrap(picture);
                self.doc.move_into(figure, caption);
                self.doc.set_kind(caption, Kind::Caption);
            } else if let Some(table) = is_table(after).filter(|table| !has_caption(*table)) {
                let first = self.doc.node(table).first_child();
                match first {
                    Some(first) => self.doc.move_before(first, caption),
                    None => self.doc.move_into(table, caption),
                }
                self.doc.set_kind(caption, Kind::Caption);
            } else if let Some(table) = is_table(before).filter(|table| !has_caption(*table)) {
                // Below the table, as in the source: the caption of a table stands above it.
                let figure = self.doc.wrap(table, Kind::Figure);
                if exact {
                    self.without_margins(figure);
                }
                self.doc.move_into(figure, caption);
                self.doc.set_kind(caption, Kind::Caption);
            } else if let Some(picture) = is_picture(after) {
                let figure = self.doc.wrap(picture, Kind::Figure);
                if exact {
                    self.doc.copy_attributes(picture, figure);
                }
                self.doc.unwrap(picture);
                let first = self.doc.node(figure).first_child();
                if let Some(first) = first {
                    self.doc.move_before(first, caption);
                }
                self.doc.set_kind(caption, Kind::Caption);
            }
        }
    }

    /// Whether a paragraph is nothing but a picture or several.
    fn is_picture(&self, node: NodeId) -> bool {
        self.doc.kind(node) == Kind::Paragraph
            && self.doc.node(node).first_child().is_some()
            && self.doc.children(node).all(|child| match self.doc.kind(child) {
                Kind::Image { .. } => true,
                Kind::Text(text) => self.doc.text(text).trim().is_empty(),
                Kind::Anchor | Kind::LineBreak => true,
                _ => false,
            })
            && self.doc.children(node).any(|child| matches!(self.doc.kind(child), Kind::Image { .. }))
    }

    fn settle_comments(&mut self) {
        for (body, author) in std::mem::take(&mut self.comment_authors) {
            let Some(first) = self.doc.node(body).first_child().filter(|first| self.doc.kind(*first) == Kind::Paragraph) else {
                continue;
            };
            let text = self.doc.intern(&format!("{author}: "));
            let text = self.doc.create(Kind::Text(text));
            match self.doc.node(first).first_child() {
                Some(child) => self.doc.move_before(child, text),
                None => self.doc.move_into(first, text),
            }
            self.doc.join_texts(first);
        }
    }

    /// Code that holds nothing but text needs no node for it.
    fn settle_code(&mut self) {
        for code in std::mem::take(&mut self.codes) {
            if let Some(only) = self.doc.node(code).first_child()
                && self.doc.node(only).next().is_none()
                && let Kind::Text(text) = self.doc.kind(only)
            {
                self.doc.detach(only);
                self.doc.set_kind(code, Kind::Code(text));
            }
        }
    }

    /// The language of most of the text is that of the document. A paragraph that is all in another says so itself.
    fn settle_languages(&mut self) {
        let of = |name: Name| self.languages.get(usize::from(name)).copied().unwrap_or(0);
        let known = (0..self.languages.len()).map(|name| name as Name).filter(|name| of(*name) > 0);
        let most = known.max_by_key(|name| (of(*name), std::cmp::Reverse(*name)));
        let all: usize = self.languages.iter().sum();
        let main = match (self.main_language, most) {
            (Some(main), Some(most)) if of(most) * 10 < all * 6 => Some(main),
            (main, most) => most.or(main),
        };
        if let Some(main) = main {
            let tag = self.names.name(main).replace('_', "-");
            self.doc.metadata.language = Some(tag).filter(|tag| !tag.starts_with('x') && !tag.is_empty());
        }
        for (span, name) in std::mem::take(&mut self.language_spans) {
            if !self.is_in_tree(span) {
                continue;
            }
            if main.is_some_and(|main| super::languages::same(self.names.name(main), self.names.name(name))) {
                self.doc.unwrap(span);
                continue;
            }
            let only = self.doc.node(span).previous().is_none() && self.doc.node(span).next().is_none();
            let parent = self.doc.node(span).parent().filter(|_| only);
            if let Some(parent) =
                parent.filter(|parent| !self.doc.kind(*parent).is_inline() && self.doc.kind(*parent) != Kind::Root)
            {
                let language = self.doc.attributes(span).language;
                let only = self.doc.node(parent).previous().is_none() && self.doc.node(parent).next().is_none();
                let item = self.doc.node(parent).parent().filter(|item| {
                    only && matches!(self.doc.kind(*item), Kind::ListItem { .. } | Kind::Cell(_) | Kind::BlockQuote)
                });
                self.doc.attributes_mut(item.unwrap_or(parent)).language = language;
                self.doc.unwrap(span);
            }
        }
    }

    fn tell_whole(&mut self) {
        let has_title = self.doc.metadata.title.is_some();
        if !has_title {
            advice::untitled(&mut self.doc);
        }
        let doc = &mut self.doc;
        if self.revisions > 0 {
            doc.find(
                Finding::advice(
                    "word.revisions",
                    format!("the document has changes that nobody has settled: {}", self.revisions),
                )
                .hint("accept or reject them in the word processor, or set clean.revisions"),
            );
        }
        if self.breaks > 0 {
            doc.find(Finding::changed(
                "word.page-break",
                format!("breaks of pages, columns and sections were left out: {}", self.breaks),
            ));
        }
        if self.sections.lost_columns > 1 {
            doc.find(Finding::changed("word.columns", "text that is set in columns runs in one"));
        }
        if self.broken_parts > 0 {
            doc.find(
                Finding::lost("word.damaged", "the markup of the document is broken; what stands behind the fault is missing")
                    .hint("open it in a word processor and save it anew"),
            );
        }
        if !self.package.damaged.is_empty() {
            let mut parts = std::mem::take(&mut self.package.damaged);
            parts.sort();
            parts.dedup();
            doc.find(
                Finding::lost(
                    "word.damaged",
                    format!("parts of the document are damaged and may lack something: {}", parts.join(", ")),
                )
                .hint("open it in a word processor, which may repair it, and save it anew"),
            );
        }
        if let Some(entity) = self.entities.take() {
            doc.find(Finding::lost("word.entity", "an entity of the document's own was not expanded").losing(entity));
        }
        let skips = skipped_level(doc);
        if let Some(node) = skips {
            let place = doc.place(node);
            doc.find(
                Finding::advice("word.skipped-level", "a heading leaves out a level on the way down")
                    .at(place)
                    .hint("give it the level below the heading before it"),
            );
        }
    }

    /// What the comments say that were left out.
    pub(super) fn tell_comments(&mut self, part: &str) {
        if self.comments.is_empty() || self.options.comments != Comments::Drop {
            return;
        }
        let Ok(Some(text)) = self.package.text(part) else { return };
        let mut words: HashMap<i32, String> = HashMap::default();
        let text = text.get();
        let mut xml = Xml::new(&text);
        let mut current = None;
        while let Some(event) = xml.next() {
            let Event::Open(element) = event else { continue };
            if element.is(b"comment") {
                current = element.number(b"id");
            } else if let Some(id) = current {
                if element.is(b"t") {
                    words.entry(id).or_default().push_str(&xml.text());
                } else if element.is(b"p") {
                    words.entry(id).or_default().push(' ');
                }
            }
        }
        let comments = std::mem::take(&mut self.comments);
        let place = self.doc.source.place("", comments[0].1);
        let mut lost = String::new();
        for (id, _) in &comments {
            lost.push_str(words.get(id).map_or("", |text| text.trim()));
            lost.push('\n');
        }
        self.doc.find(
            Finding::lost("word.comment", format!("comments were left out: {}", comments.len()))
                .at(place)
                .hint("set word.comments to keep them as notes")
                .losing(lost.trim()),
        );
    }

    /// What the package says about the document (part 2, section 11).
    pub(super) fn metadata(&mut self, part: &str) {
        let Ok(Some(text)) = self.package.text(part) else { return };
        let text = text.get();
        let mut xml = Xml::new(&text);
        let metadata = &mut self.doc.metadata;
        while let Some(event) = xml.next() {
            let Event::Open(element) = event else { continue };
            let local = element.local().to_vec();
            if local == b"coreProperties" {
                continue;
            }
            let value = xml.text().split_whitespace().collect::<Vec<_>>().join(" ");
            if value.is_empty() {
                continue;
            }
            match local.as_slice() {
                b"title" => metadata.title = Some(value),
                b"creator" => {
                    metadata.authors =
                        value.split(';').map(|name| name.trim().to_owned()).filter(|name| !name.is_empty()).collect()
                }
                b"description" => metadata.description = Some(value),
                b"subject" => metadata.other.push(("subject".to_owned(), value)),
                b"keywords" => {
                    metadata.keywords =
                        value.split([',', ';']).map(|word| word.trim().to_owned()).filter(|word| !word.is_empty()).collect();
                }
                b"language" => metadata.language = Some(value),
                b"modified" => metadata.date = value.split('T').next().map(str::to_owned),
                b"category" => metadata.other.push(("category".to_owned(), value)),
                _ => {}
            }
        }
    }
}

fn skipped_level(doc: &crate::document::Document) -> Option<NodeId> {
    let mut last = 0;
    for step in doc.walk(doc.root()) {
        if let Step::Enter(id) = step
            && let Kind::Heading(level) = doc.kind(id)
        {
            if level > last + 1 && last > 0 {
                return Some(id);
            }
            last = level;
        }
    }
    None
}
