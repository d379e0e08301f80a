//! Blocks: what stands between them, and how each begins and ends.

use super::Writer;
use super::escape::{NOTHING, line_start};
use crate::document::{DivisionKind, Kind, ListKind, Markup, NodeId, NoteId, Step, Text};
use crate::indent_writer::wrap;

/// What was written last, as far as it matters to the next block.
#[derive(Clone, Copy, Debug, Default, PartialEq, Eq)]
pub(super) enum Shape {
    #[default]
    Nothing,
    /// Keywords at the top of the file.
    Keywords,
    Block,
    Text,
    List,
}

/// Something that blocks stand in.
#[derive(Debug, Default)]
pub(super) struct Frame {
    /// Whether blocks follow each other without empty lines.
    tight: bool,
    pub(super) last: Shape,
    /// For a list: what its items begin with.
    number: i64,
    ordered: bool,
}

impl<'d> Writer<'d> {
    pub(super) fn frame(&mut self) -> &mut Frame {
        if self.frames.is_empty() {
            self.frames.push(Frame::default());
        }
        let last = self.frames.len() - 1;
        &mut self.frames[last]
    }

    /// What stands between a block and the one before it.
    pub(super) fn begin(&mut self, shape: Shape) {
        let frame = self.frame();
        let before = std::mem::replace(&mut frame.last, shape);
        let tight = frame.tight;
        if before == Shape::List && shape == Shape::List {
            // Two lists one behind the other would be one.
            self.out.line("# end of the list");
        } else if before != Shape::Nothing && (!tight || (before == Shape::Text && shape == Shape::Text)) {
            self.out.line("");
        }
    }

    /// Writes the blocks below a node.
    pub(super) fn tree(&mut self, top: NodeId) {
        let doc = self.doc;
        let mut at = doc.node(top).first_child();
        while let Some(id) = at {
            let last = self.enter(id);
            if last == id
                && self.goes_in(id)
                && let Some(child) = doc.node(id).first_child()
            {
                at = Some(child);
                continue;
            }
            if last == id && self.goes_in(id) {
                self.leave(id);
            }
            let mut behind = last;
            loop {
                if let Some(next) = doc.node(behind).next() {
                    at = Some(next);
                    break;
                }
                match doc.node(behind).parent().filter(|&parent| parent != top) {
                    Some(parent) => {
                        self.leave(parent);
                        behind = parent;
                    }
                    None => {
                        at = None;
                        break;
                    }
                }
            }
            if at == Some(id) {
                break;
            }
        }
    }

    /// Whether what is below a block is written in turn.
    fn goes_in(&self, id: NodeId) -> bool {
        match self.doc.kind(id) {
            Kind::BlockQuote | Kind::List(_) | Kind::ListItem { .. } | Kind::TermList | Kind::TermDescription => true,
            Kind::Division(_) | Kind::Details { .. } => true,
            Kind::Figure => !self.is_picture(id),
            _ => false,
        }
    }

    /// Comes to a block. Returns the last node that was written with it.
    fn enter(&mut self, id: NodeId) -> NodeId {
        let doc = self.doc;
        let kind = doc.kind(id);
        if !kind.is_inline() && doc.node(id).has_attributes() {
            self.attributes_of_block(id, kind);
        }
        if kind.is_inline() {
            let mut last = id;
            while let Some(next) = doc.node(last).next().filter(|&next| doc.kind(next).is_inline()) {
                last = next;
            }
            self.paragraph(id, last);
            return last;
        }
        let is_named = matches!(
            kind,
            Kind::CodeBlock { .. } | Kind::BlockQuote | Kind::List(_) | Kind::TermList | Kind::Division(_) | Kind::Details { .. }
        );
        if is_named && let Some(name) = self.linked_id(id) {
            self.keyword(&format!("#+NAME: {name}"));
        }
        match kind {
            Kind::Heading(level) => self.heading(id, level),
            Kind::Paragraph if self.is_subtitle(id) || self.shows_planning(id) => {}
            Kind::Paragraph => {
                if let (Some(first), Some(last)) = (doc.node(id).first_child(), doc.node(id).last_child()) {
                    self.attributes_of_picture(id, first);
                    self.paragraph(first, last);
                }
            }
            Kind::BlockQuote => self.begin_holder(id, "quote"),
            Kind::List(list) => self.begin_list(list),
            Kind::TermList => {
                self.begin(Shape::List);
                self.frames.push(Frame { tight: true, ..Frame::default() });
            }
            Kind::ListItem { checked } => self.begin_item(id, checked),
            Kind::Term => self.term(id),
            Kind::TermDescription => self.begin_description(id),
            Kind::CodeBlock { code, info } => self.code_block(doc.text(code), doc.text(info)),
            Kind::Preformatted => {
                self.no_syntax("markup in preformatted text", id);
                self.code_block(&doc.plain_text(id), "");
            }
            Kind::RawBlock { markup, raw } => self.raw_block(id, markup, raw),
            Kind::ThematicBreak => {
                self.begin(Shape::Block);
                self.out.line("-----");
            }
            Kind::Table => self.table(id),
            Kind::Figure if self.is_picture(id) => self.figure(id),
            Kind::Figure if self.is_captioned_code(id) => self.caption_of(id),
            Kind::Caption if doc.node(id).parent().is_some_and(|figure| self.is_captioned_code(figure)) => {}
            Kind::Division(_) | Kind::Details { .. } => {
                if let Some(name) = self.name_of_block(id) {
                    self.begin_holder(id, &name);
                }
            }
            Kind::Summary => {
                self.begin_block("summary");
                if let (Some(first), Some(last)) = (doc.node(id).first_child(), doc.node(id).last_child()) {
                    self.paragraph(first, last);
                }
                self.end_block("summary");
            }
            Kind::Caption => {
                // Of what is no picture and no table.
                if let (Some(first), Some(last)) = (doc.node(id).first_child(), doc.node(id).last_child()) {
                    self.no_syntax("captions of blocks", id);
                    self.paragraph(first, last);
                }
            }
            _ => {}
        }
        id
    }

    /// Classes, the language and the direction of a block, in a line before it.
    fn attributes_of_block(&mut self, id: NodeId, kind: Kind) {
        let doc = self.doc;
        let attributes = doc.attributes(id);
        let mut parts = Vec::new();
        let name = self.name_of_block(id);
        let classes = attributes.classes.iter().map(|class| doc.text(*class));
        // That of a list says how its numbers are written on pages.
        let numbers = |class: &str| doc.styles.iter().any(|style| style.class == class && style.numbers.is_some());
        let is_list = matches!(kind, Kind::List(_));
        let classes: Vec<&str> =
            classes.filter(|class| name.as_deref() != Some(*class) && !(is_list && numbers(class))).collect();
        if !classes.is_empty() && !matches!(kind, Kind::Heading(_)) {
            parts.push(format!(":class {}", classes.join(" ")));
        }
        let language = attributes.language.map(|language| doc.text(language));
        if let Some(language) = language.filter(|language| Some(*language) != doc.metadata.language.as_deref()) {
            parts.push(format!(":lang {language}"));
        }
        if let Some(direction) = attributes.direction {
            parts.push(format!(":dir {}", direction.value()));
        }
        if parts.is_empty() {
            return;
        }
        let is_block = matches!(
            kind,
            Kind::Paragraph
                | Kind::BlockQuote
                | Kind::List(_)
                | Kind::TermList
                | Kind::CodeBlock { .. }
                | Kind::Table
                | Kind::Division(_)
                | Kind::Details { .. }
        );
        // A line before the first text of an item would be that text.
        let is_first = self.out.indentation() > 0 && doc.node(id).previous().is_none();
        if is_block && !is_first && !self.is_subtitle(id) {
            self.keyword(&format!("#+ATTR_HTML: {}", parts.join(" ")));
        } else {
            self.no_syntax("classes, languages and directions of such places", id);
        }
    }

    fn leave(&mut self, id: NodeId) {
        match self.doc.kind(id) {
            Kind::BlockQuote | Kind::Division(_) | Kind::Details { .. } => {
                if let Some((_, name)) = self.open.pop_if(|(open, _)| *open == id) {
                    self.open_names.remove(&name);
                    self.end_block(&name);
                }
            }
            Kind::List(_) | Kind::TermList => drop(self.frames.pop()),
            Kind::ListItem { .. } | Kind::TermDescription => {
                self.frames.pop();
                self.out.pop();
            }
            _ => {}
        }
    }

    /// A block that holds others. Within another of its name the end of one would be that of both.
    fn begin_holder(&mut self, id: NodeId, name: &str) {
        if !self.open_names.insert(name.to_owned()) {
            return self.no_syntax("blocks within others of their kind", id);
        }
        self.begin_block(name);
        self.open.push((id, name.to_owned()));
    }

    fn begin_block(&mut self, name: &str) {
        self.begin(Shape::Block);
        self.out.line(&format!("#+begin_{name}"));
        self.frames.push(Frame::default());
    }

    fn end_block(&mut self, name: &str) {
        self.frames.pop();
        self.out.line(&format!("#+end_{name}"));
    }

    /// The name of the block that a part of the document is, where it is more than its content.
    fn name_of_block(&self, id: NodeId) -> Option<String> {
        let division = match self.doc.kind(id) {
            Kind::Division(division) => division,
            Kind::Details { .. } => return Some("details".to_owned()),
            _ => return None,
        };
        let name = match division {
            DivisionKind::Callout(callout) => return Some(callout.word().to_lowercase()),
            DivisionKind::Aside => "aside",
            DivisionKind::Section => "section",
            DivisionKind::Article => "article",
            DivisionKind::Navigation => "nav",
            DivisionKind::Header => "header",
            DivisionKind::Footer => "footer",
            DivisionKind::Plain | DivisionKind::Address => {
                let attributes = self.doc.attributes(id);
                let Some(class) = attributes.classes.first().map(|class| self.doc.text(*class)) else {
                    return (attributes.language.is_some() || attributes.direction.is_some()).then(|| "div".to_owned());
                };
                let is_name = class.bytes().all(|byte| byte.is_ascii_alphanumeric() || matches!(byte, b'-' | b'_'));
                let is_free = match class {
                    "verse" => self.is_verse(id),
                    _ => !matches!(class, "src" | "example" | "export" | "comment" | "quote"),
                };
                return (is_name && is_free).then(|| class.to_owned());
            }
        };
        Some(name.to_owned())
    }

    /// Whether a part of the document holds nothing but lines.
    fn is_verse(&self, id: NodeId) -> bool {
        let doc = self.doc;
        let holds_lines = |paragraph: NodeId| {
            doc.kind(paragraph) == Kind::Paragraph && doc.children(paragraph).all(|child| self.environment(child).is_none())
        };
        doc.children(id).all(holds_lines)
    }

    /// The id of a node, where a link leads to it.
    pub(super) fn linked_id(&mut self, id: NodeId) -> Option<&'d str> {
        let name = self.doc.attributes(id).id.map(|name| self.doc.text(name))?;
        let is_written = self.linked.contains(name) && !name.contains(['<', '>', '\n']);
        is_written.then(|| {
            self.placed.insert(name);
            name
        })
    }

    /// The id that the first text of a block has to bear: that of what it is the first paragraph of, or its own.
    fn id_of_text(&mut self, first: NodeId) -> Option<&'d str> {
        let holder = self.doc.node(first).parent()?;
        if matches!(self.doc.kind(holder), Kind::Heading(_)) {
            return None;
        }
        let item = self.doc.node(holder).parent().filter(|&item| {
            let is_first = self.doc.node(holder).previous().is_none() && self.doc.kind(holder) == Kind::Paragraph;
            is_first && matches!(self.doc.kind(item), Kind::ListItem { .. } | Kind::TermDescription)
        });
        self.linked_id(holder).or_else(|| self.linked_id(item?))
    }

    /// Whether a paragraph is the subtitle, which stands at the top already.
    fn is_subtitle(&self, id: NodeId) -> bool {
        let words = |text: &str| text.split_ascii_whitespace().collect::<Vec<_>>().join(" ");
        self.doc.node(id).previous().is_some_and(|before| self.title == Some(before))
            && self.doc.metadata.subtitle.as_deref().is_some_and(|subtitle| words(subtitle) == words(&self.doc.plain_text(id)))
    }

    /// Text as lines, none of which begins something else.
    pub(super) fn paragraph(&mut self, first: NodeId, last: NodeId) {
        let doc = self.doc;
        let row = std::iter::successors(Some(first), |&at| doc.node(at).next().filter(|_| at != last));
        let mut first = first;
        for (at, tex) in row.filter_map(|id| Some((id, self.environment(id)?))).collect::<Vec<_>>() {
            // Environments stand in lines of their own.
            if let Some(before) = doc.node(at).previous().filter(|_| at != first) {
                self.text_lines(first, before);
            }
            self.begin(Shape::Block);
            self.out.lines(&tex);
            match doc.node(at).next().filter(|_| at != last) {
                Some(behind) => first = behind,
                None => return,
            }
        }
        self.text_lines(first, last);
    }

    /// The source of a formula that is an environment and no part of another formula.
    fn environment(&self, id: NodeId) -> Option<String> {
        let Kind::Math(formula) = self.doc.kind(id) else { return None };
        let formula = self.doc.formula(formula);
        let source = crate::math::to_tex(formula.notation, self.doc.text(formula.source));
        let source = source.trim();
        let (name, _) = source.strip_prefix("\\begin{")?.split_once('}')?;
        crate::formats::latex::is_formula(name).then(|| source.to_owned())
    }

    /// Whether what is in an item begins in a line of its own.
    fn begins_below(&self, item: NodeId) -> bool {
        let first = self.doc.node(item).first_child();
        let text = match first {
            Some(first) if self.doc.kind(first) == Kind::Paragraph => self.doc.node(first).first_child(),
            first => first.filter(|&first| self.doc.kind(first).is_inline()),
        };
        first.is_none() || text.is_none_or(|text| self.environment(text).is_some())
    }

    fn text_lines(&mut self, first: NodeId, last: NodeId) {
        let doc = self.doc;
        let mut text = self.text(first, last);
        let is_begin = doc.node(first).previous().is_none();
        if let Some(name) = self.id_of_text(first).filter(|_| is_begin) {
            text.insert_str(0, &format!("<<{name}>> "));
        }
        let text = text.trim_matches([' ', '\n']);
        if text.is_empty() {
            return;
        }
        self.begin(Shape::Text);
        let is_verse = self.open.last().is_some_and(|(_, name)| name == "verse");
        for line in if is_verse { verse_lines(text) } else { self.filled(text) } {
            let line = if is_verse { line.trim_end() } else { line.trim_matches([' ', '\t']) };
            if line_start(line.trim_start()) {
                self.out.line(&format!("{NOTHING}{line}"));
            } else if !line.is_empty() {
                self.out.line(line);
            }
        }
    }

    /// The lines of a text: as the source has them, or as long as they may be.
    fn filled(&self, text: &str) -> Vec<String> {
        let width = usize::from(self.settings.width);
        if width == 0 {
            return text.split('\n').map(str::to_owned).collect();
        }
        let width = width.saturating_sub(self.out.indentation()).max(20);
        let mut lines: Vec<String> = Vec::new();
        // What is broken by hand stays so.
        for part in text.split_inclusive("\\\\\n") {
            let breaks: Vec<usize> = part.match_indices([' ', '\n']).map(|(at, _)| at).collect();
            for line in wrap(part, &breaks, |_| false, width) {
                match lines.last_mut() {
                    Some(before) if line_start(&line) && !before.ends_with("\\\\") => {
                        before.push(' ');
                        before.push_str(&line);
                    }
                    _ => lines.push(line),
                }
            }
        }
        lines
    }

    pub(super) fn begin_table(&mut self) {
        self.begin(Shape::Block);
    }

    fn begin_list(&mut self, list: ListKind) {
        self.begin(Shape::List);
        self.frames.push(Frame { tight: list.tight, number: i64::from(list.start), ordered: list.ordered, last: Shape::Nothing });
        if list.ordered && list.start != 1 {
            // The first item says where the list begins.
            self.frame().number = -i64::from(list.start) - 1;
        }
    }

    /// Whether some of the tasks of a task are done.
    fn is_begun(&self, item: NodeId) -> bool {
        let doc = self.doc;
        let lists = doc.children(item).filter(|&child| matches!(doc.kind(child), Kind::List(_)));
        lists.flat_map(|list| doc.children(list)).any(|inner| doc.kind(inner) == Kind::ListItem { checked: Some(true) })
    }

    fn begin_item(&mut self, id: NodeId, checked: Option<bool>) {
        let frame = self.frame();
        let is_first = frame.last == Shape::Nothing;
        let (tight, ordered) = (frame.tight, frame.ordered);
        let mut counter = String::new();
        if frame.number < 0 {
            frame.number = -(frame.number + 1);
            counter = format!("[@{}] ", frame.number);
        }
        let number = frame.number;
        frame.number += 1;
        frame.last = Shape::Block;
        if !is_first && !tight {
            self.out.line("");
        }
        let bullet = if ordered { format!("{number}. ") } else { "- ".to_owned() };
        let task = match checked {
            Some(true) => "[X] ",
            Some(false) if self.is_begun(id) => "[-] ",
            Some(false) => "[ ] ",
            None => "",
        };
        self.out.push(&format!("{bullet}{counter}{task}"), &" ".repeat(bullet.len()));
        self.frames.push(Frame { tight, ..Frame::default() });
        if self.begins_below(id) {
            self.out.line("");
        }
    }

    /// A term, and the beginning of what describes it.
    fn term(&mut self, id: NodeId) {
        let words = self.line_below(id);
        self.frame().last = Shape::Block;
        let bullet = format!("- {} ::", if words.is_empty() { NOTHING } else { &words });
        let described = self.doc.node(id).next().filter(|&next| self.doc.kind(next) == Kind::TermDescription);
        let Some(described) = described else { return self.out.line(&bullet) };
        if self.begins_below(described) {
            self.out.push(&bullet, "  ");
            self.out.line("");
        } else {
            self.out.push(&format!("{bullet} "), "  ");
        }
    }

    /// A description: behind its term, or another one of it.
    fn begin_description(&mut self, id: NodeId) {
        let is_other = self.doc.node(id).previous().is_none_or(|before| self.doc.kind(before) != Kind::Term);
        if is_other {
            self.out.push("  ", "  ");
        }
        self.frames.push(Frame { last: if is_other { Shape::Block } else { Shape::Nothing }, ..Frame::default() });
    }

    pub(super) fn code_block(&mut self, code: &str, info: &str) {
        self.begin(Shape::Block);
        let language = info.split_ascii_whitespace().next().unwrap_or_default();
        let lines = || code.lines().filter(|line| !line.trim().is_empty());
        let is_set_in = lines().next().is_some() && lines().all(|line| line.starts_with([' ', '\t']));
        let switch = if is_set_in { " -i" } else { "" };
        let name = if language.is_empty() { "example" } else { "src" };
        let space = if language.is_empty() { "" } else { " " };
        self.out.line(&format!("#+begin_{name}{space}{language}{switch}"));
        for line in code.strip_suffix('\n').unwrap_or(code).split('\n') {
            let words = line.trim_start_matches([' ', '\t']).trim_start_matches(',');
            if words.starts_with('*') || words.starts_with("#+") {
                let indent = line.len() - line.trim_start_matches([' ', '\t']).len();
                self.out.line(&format!("{},{}", &line[..indent], &line[indent..]));
            } else {
                self.out.line(line);
            }
        }
        self.out.line(&format!("#+end_{name}"));
    }

    fn raw_block(&mut self, id: NodeId, markup: Markup, raw: Text) {
        if markup != Markup::Html {
            self.no_syntax("raw markup", id);
            return self.code_block(self.doc.text(raw), "");
        }
        self.begin(Shape::Block);
        self.out.line("#+begin_export html");
        self.out.lines(self.doc.text(raw));
        self.out.line("#+end_export");
    }

    /// Whether a figure is one picture, in a link or not, with a caption or not.
    fn is_picture(&self, id: NodeId) -> bool {
        let doc = self.doc;
        let mut others = doc.children(id).filter(|&child| doc.kind(child) != Kind::Caption);
        let (Some(content), None) = (others.next(), others.next()) else { return false };
        let only = |node: NodeId| doc.node(node).first_child().filter(|&first| doc.node(first).next().is_none());
        let content = if doc.kind(content) == Kind::Paragraph { only(content).unwrap_or(content) } else { content };
        match doc.kind(content) {
            Kind::Image { .. } => true,
            Kind::Link { .. } => only(content).is_some_and(|image| matches!(doc.kind(image), Kind::Image { .. })),
            _ => false,
        }
    }

    /// Whether a figure is code with a caption.
    fn is_captioned_code(&self, id: NodeId) -> bool {
        let doc = self.doc;
        let mut others = doc.children(id).filter(|&child| doc.kind(child) != Kind::Caption);
        let is_code = others.next().is_some_and(|content| matches!(doc.kind(content), Kind::CodeBlock { .. }));
        doc.kind(id) == Kind::Figure && is_code && others.next().is_none()
    }

    fn figure(&mut self, id: NodeId) {
        let doc = self.doc;
        let Some(content) = doc.children(id).find(|&child| doc.kind(child) != Kind::Caption) else { return };
        self.caption_of(id);
        let first =
            if doc.kind(content) == Kind::Paragraph { doc.node(content).first_child().unwrap_or(content) } else { content };
        self.attributes_of_picture(id, first);
        let text = self.text(first, first);
        self.begin(Shape::Block);
        self.out.line(text.trim());
    }

    /// The caption of a figure or a table, as a keyword above it.
    pub(super) fn caption_of(&mut self, id: NodeId) {
        if let Some(name) = self.linked_id(id) {
            self.keyword(&format!("#+NAME: {name}"));
        }
        let caption = self.doc.children(id).find(|&child| self.doc.kind(child) == Kind::Caption);
        let Some(caption) = caption else { return };
        let text = self.line_below(caption);
        let text = self.numbers.without_label(self.doc, id, &text);
        if !text.is_empty() {
            self.keyword(&format!("#+CAPTION: {text}"));
        }
    }

    /// A line that says something of the block below it.
    fn keyword(&mut self, line: &str) {
        self.begin(Shape::Block);
        self.out.line(line);
        self.frame().last = Shape::Nothing;
    }

    /// What is known of an image that stands alone, as a keyword above it.
    fn attributes_of_picture(&mut self, holder: NodeId, first: NodeId) {
        let doc = self.doc;
        let image = match doc.kind(first) {
            Kind::Link { .. } => doc.node(first).first_child().unwrap_or(first),
            _ => first,
        };
        let Kind::Image { alt, .. } = doc.kind(image) else { return };
        if doc.node(first).next().is_some() && doc.kind(holder) == Kind::Paragraph {
            return;
        }
        let mut parts = Vec::new();
        let alt = doc.text(alt).split_ascii_whitespace().collect::<Vec<_>>().join(" ");
        if !alt.is_empty() && !alt.split_ascii_whitespace().any(|word| word.starts_with(':')) {
            parts.push(format!(":alt {alt}"));
        }
        if let Some(title) = doc.attributes(image).title.map(|title| doc.text(title)) {
            parts.push(format!(":title {}", title.split_ascii_whitespace().collect::<Vec<_>>().join(" ")));
        }
        for (name, value) in &doc.attributes(image).other {
            if matches!(doc.text(*name), "width" | "height") {
                parts.push(format!(":{} {}", doc.text(*name), doc.text(*value)));
            }
        }
        if !parts.is_empty() {
            self.keyword(&format!("#+ATTR_HTML: {}", parts.join(" ")));
        }
    }

    /// Writes the notes that the text mentions, and those that they mention.
    pub(super) fn notes(&mut self) {
        let mut at = 0;
        while let Some(&note) = self.noted.get(at) {
            let body = self.doc.notes[note.0 as usize].body;
            if at == 0 {
                self.begin(Shape::Block);
                self.out.line("* Footnotes");
            }
            at += 1;
            self.out.line("");
            let label = self.label(note);
            self.out.push(&format!("[fn:{label}] "), "");
            self.frames.push(Frame::default());
            let first = self.doc.node(body).first_child().map(|first| self.doc.kind(first));
            if first.is_none_or(|first| first != Kind::Paragraph && !first.is_inline()) {
                self.out.line("");
            }
            self.tree(body);
            self.frames.pop();
            self.out.pop();
        }
        let doc = self.doc;
        let is_any = |note: NodeId| doc.walk(note).any(|step| matches!(step, Step::Enter(id) if doc.kind(id).is_leaf()));
        let is_mentioned = |index: usize| self.labels.contains_key(&NoteId(index as u32));
        let others = doc.notes.iter().enumerate().filter(|(index, _)| !is_mentioned(*index)).map(|(_, note)| note.body);
        let others: Vec<NodeId> = others.filter(|&body| is_any(body)).collect();
        for body in others {
            self.no_syntax("notes that nothing mentions", body);
        }
    }
}

/// The lines of a poem: its line breaks end them, and spaces set them in.
fn verse_lines(text: &str) -> Vec<String> {
    let line = |line: &str| {
        let words = line.trim_start_matches('\u{A0}');
        let indent = (line.len() - words.len()) / '\u{A0}'.len_utf8();
        format!("{}{}", " ".repeat(indent), words.replace('\n', " "))
    };
    text.split("\\\\\n").map(line).collect()
}
