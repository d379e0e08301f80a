//! Blocks: what stands between them, and how each begins.

use super::{Bullet, Fence, HeadingForm, HtmlPieces, Writer};
use crate::document::{Callout, Direction, DivisionKind, Kind, ListKind, ListNumbering, Marker, NodeId, Step, Text};
use crate::formats::markdown::Extensions;

/// What a block was written as, as far as it matters to the next.
#[derive(Clone, Copy, Debug, Default, PartialEq, Eq)]
enum Shape {
    /// Nothing yet.
    #[default]
    None,
    /// A line that ends the block, such as a heading or a rule.
    Closed,
    /// Lines of text, which the next line of text would go on.
    Text,
    /// A quote or a list, whose last text the next line of text would go on.
    Container,
    /// HTML, which goes on until an empty line.
    Html,
}

/// Something that blocks stand in.
#[derive(Debug, Default)]
pub(super) struct Frame {
    /// Whether blocks follow each other without empty lines.
    tight: bool,
    last: Shape,
    /// The list that was written last, if nothing has been written since.
    list: Option<(bool, char)>,
    /// For a list: the number or the sign of its items.
    number: i64,
    sign: char,
    ordered: bool,
    is_list: bool,
}

/// Where the walk goes on.
enum Next {
    /// Below the node.
    Inside,
    /// Behind the node, or behind a later sibling of it.
    Behind(NodeId),
}

impl Writer<'_, '_> {
    /// Writes the blocks below a node.
    pub(super) fn tree(&mut self, top: NodeId) {
        let doc = self.doc;
        let Some(mut at) = doc.node(top).first_child() else { return };
        'walk: loop {
            match self.enter(at) {
                Next::Inside => {
                    if let Some(child) = doc.node(at).first_child() {
                        at = child;
                        continue;
                    }
                    self.leave(at);
                }
                Next::Behind(last) => at = last,
            }
            loop {
                if let Some(next) = doc.node(at).next() {
                    at = next;
                    continue 'walk;
                }
                match doc.node(at).parent() {
                    Some(parent) if parent != top => {
                        self.leave(parent);
                        at = parent;
                    }
                    _ => break 'walk,
                }
            }
        }
    }

    fn frame(&mut self) -> &mut Frame {
        if self.frames.is_empty() {
            self.frames.push(Frame::default());
        }
        let last = self.frames.len() - 1;
        &mut self.frames[last]
    }

    /// What stands between a block and the one before it.
    fn begin(&mut self, shape: Shape) {
        let frame = self.frame();
        let joins = match (frame.last, shape) {
            (Shape::None, _) => None,
            (Shape::Html, _) | (_, Shape::Html) => Some(false),
            (Shape::Text | Shape::Container, Shape::Text) => Some(false),
            _ => Some(frame.tight),
        };
        frame.last = shape;
        frame.list = None;
        if joins == Some(false) {
            self.out.line("");
        }
    }

    fn enter(&mut self, id: NodeId) -> Next {
        let doc = self.doc;
        let kind = doc.kind(id);
        if kind.is_inline() {
            let mut last = id;
            while let Some(next) = doc.node(last).next().filter(|&next| doc.kind(next).is_inline()) {
                last = next;
            }
            self.paragraph(id, last);
            return Next::Behind(last);
        }
        if self.needs_element(id, kind) && self.element(id) {
            return Next::Behind(id);
        }
        match kind {
            Kind::Paragraph => {
                if let (Some(first), Some(last)) = (doc.node(id).first_child(), doc.node(id).last_child()) {
                    self.paragraph(first, last);
                }
                Next::Behind(id)
            }
            Kind::Heading(level) => {
                self.heading(level, id);
                Next::Behind(id)
            }
            Kind::BlockQuote => {
                self.begin(Shape::Container);
                self.out.push("> ", "> ");
                self.frames.push(Frame::default());
                Next::Inside
            }
            Kind::List(list) => {
                self.begin_list(list, id);
                Next::Inside
            }
            Kind::ListItem { checked } => {
                self.begin_item(checked, id);
                Next::Inside
            }
            Kind::CodeBlock { code, info } => {
                self.code_block(code, info);
                Next::Behind(id)
            }
            Kind::RawBlock { raw, .. } => {
                self.begin(Shape::Html);
                self.out.lines(doc.text(raw));
                Next::Behind(id)
            }
            Kind::ThematicBreak => {
                self.thematic_break();
                Next::Behind(id)
            }
            Kind::Table if self.is_box(id) => {
                self.no_syntax("boxes around text", id);
                Next::Inside
            }
            Kind::Table => {
                self.table(id);
                Next::Behind(id)
            }
            Kind::Division(DivisionKind::Callout(callout)) => {
                self.begin_callout(callout, id);
                Next::Inside
            }
            kind => self.enter_other(kind, id),
        }
    }

    /// A thematic break, in the form that is nothing else where it stands.
    fn thematic_break(&mut self) {
        let first = self.frame().last == Shape::None;
        let plain = !first && !self.frame().tight;
        let in_stars = self.frames.iter().rev().nth(1).is_some_and(|list| list.is_list && list.sign == '*');
        self.begin(Shape::Closed);
        self.out.line(if plain {
            "---"
        } else if in_stars {
            "___"
        } else {
            "***"
        });
    }

    fn table(&mut self, id: NodeId) {
        if let Some(grid) = self.grid(id) {
            self.begin(Shape::Text);
            self.write_grid(id, &grid);
        } else if !self.element(id) {
            self.no_syntax("merged cells, or blocks in cells", id);
            self.begin(Shape::Text);
            self.plain_table(id);
        }
    }

    fn begin_callout(&mut self, callout: Callout, id: NodeId) {
        let doc = self.doc;
        self.begin(Shape::Container);
        self.out.push("> ", "> ");
        self.frames.push(Frame::default());
        if self.options.syntax.has(Extensions::ALERTS) {
            self.out.line(&format!("[!{}]", callout.word().to_uppercase()));
            let first = doc.node(id).first_child().map(|first| doc.kind(first));
            if !first.is_some_and(|first| first == Kind::Paragraph || first.is_inline()) {
                self.out.line("");
            }
        } else {
            self.begin(Shape::Text);
            self.out.line(&format!("**{}**", callout.word()));
        }
    }

    /// Blocks that Markdown has no syntax for.
    fn enter_other(&mut self, kind: Kind, id: NodeId) -> Next {
        let doc = self.doc;
        match kind {
            Kind::Division(_) if self.keeps_division(id) => {
                let tag = self.start_tag("div", id);
                self.begin(Shape::Html);
                self.out.line(&tag);
                Next::Inside
            }
            Kind::Details { open } if self.options.settings.html == HtmlPieces::Keep => {
                let tag = self.start_tag(if open { "details open" } else { "details" }, id);
                self.begin(Shape::Html);
                self.out.line(&tag);
                Next::Inside
            }
            Kind::Summary if self.options.settings.html == HtmlPieces::Keep => {
                // On the lines of the tag before it, as one piece of HTML.
                let text = self.inline_html(id);
                self.out.line(&format!("<summary>{text}</summary>"));
                Next::Behind(id)
            }
            Kind::Summary | Kind::Term => {
                self.no_syntax(if kind == Kind::Term { "lists of terms" } else { "text that opens" }, id);
                self.strong_paragraph(id);
                Next::Behind(id)
            }
            Kind::Preformatted => {
                self.no_syntax("markup in preformatted text", id);
                let text = doc.plain_text(id);
                self.fenced(&text, "");
                Next::Behind(id)
            }
            Kind::Figure => {
                if doc.children(id).any(|child| doc.kind(child) == Kind::Caption) {
                    self.no_syntax("captions of figures", id);
                }
                Next::Inside
            }
            // The content of other blocks stands where they stand.
            _ => Next::Inside,
        }
    }

    fn leave(&mut self, id: NodeId) {
        match self.doc.kind(id) {
            Kind::BlockQuote | Kind::Division(DivisionKind::Callout(_)) | Kind::ListItem { .. } => {
                self.frames.pop();
                self.out.pop();
            }
            Kind::List(_) => {
                if let Some(list) = self.frames.pop() {
                    self.frame().list = Some((list.ordered, list.sign));
                }
            }
            Kind::Division(_) if self.keeps_division(id) => {
                self.begin(Shape::Html);
                self.out.line("</div>");
            }
            Kind::Details { .. } if self.options.settings.html == HtmlPieces::Keep => {
                self.begin(Shape::Html);
                self.out.line("</details>");
            }
            _ => {}
        }
    }

    /// Whether a division says something that its content does not.
    fn keeps_division(&self, id: NodeId) -> bool {
        self.options.settings.html == HtmlPieces::Keep && self.has_own_attributes(id)
    }

    /// Whether a block can only be written as an element.
    fn needs_element(&self, id: NodeId, kind: Kind) -> bool {
        match kind {
            Kind::Figure => self.doc.node(id).first_child() != self.doc.node(id).last_child(),
            Kind::TermList | Kind::Preformatted => true,
            Kind::Division(_) | Kind::Details { .. } | Kind::Summary | Kind::RawBlock { .. } => false,
            Kind::ListItem { .. } | Kind::Caption => false,
            _ => self.has_own_attributes(id),
        }
    }

    /// Whether a node has attributes that have to be kept.
    fn has_own_attributes(&self, id: NodeId) -> bool {
        if !self.doc.node(id).has_attributes() {
            return false;
        }
        let attributes = self.doc.attributes(id);
        let own_language =
            attributes.language.is_some_and(|tag| Some(self.doc.text(tag)) != self.doc.metadata.language.as_deref());
        let own_direction = matches!(attributes.direction, Some(Direction::RightToLeft | Direction::LeftToRight));
        own_language
            || own_direction
            || (self.options.settings.ids && (attributes.id.is_some() || !attributes.classes.is_empty()))
    }

    /// Writes a block as an element, where that can be done.
    fn element(&mut self, id: NodeId) -> bool {
        let Some(write) = self.options.element.filter(|_| self.options.settings.html == HtmlPieces::Keep) else { return false };
        let doc = self.doc;
        if doc.walk(id).any(|step| matches!(step, Step::Enter(node) if matches!(doc.kind(node), Kind::NoteReference(_)))) {
            self.no_syntax("marks of notes within HTML", id);
        }
        let html = write(doc, id, self.has_places);
        self.begin(Shape::Html);
        self.out.lines(&without_empty_lines(html.trim_end_matches('\n')));
        true
    }

    fn paragraph(&mut self, first: NodeId, last: NodeId) {
        self.text_lines(first, last, |writer| writer.begin(Shape::Text));
    }

    fn strong_paragraph(&mut self, id: NodeId) {
        let text = self.line_of(id);
        if !text.is_empty() {
            self.begin(Shape::Text);
            self.out.line(&if text.contains('*') { text } else { format!("**{text}**") });
        }
    }

    fn heading(&mut self, level: u8, id: NodeId) {
        if self.doc.children(id).any(|child| self.doc.kind(child) == Kind::LineBreak) {
            self.no_syntax("line breaks in headings", id);
        }
        let text = self.heading_text(id);
        self.begin(Shape::Closed);
        if self.options.settings.headings == HeadingForm::Setext
            && level <= 2
            && !text.is_empty()
            && !super::escape::begins_block(&text)
        {
            let width = unicode_width::UnicodeWidthStr::width(text.as_str()).max(3);
            self.out.line(&text);
            self.out.line(&if level == 1 { "=" } else { "-" }.repeat(width));
            return;
        }
        let text = super::escape::closing_hashes(&text);
        let hashes = "#".repeat(level.clamp(1, 6).into());
        self.out.line(format!("{hashes} {text}").trim_end_matches(' '));
    }

    fn begin_list(&mut self, list: ListKind, id: NodeId) {
        let before = self.frame().list;
        self.begin(Shape::Container);
        if list.marker != Marker::Plain {
            self.no_syntax("letters or roman numbers as marks of lists", id);
        }
        if self.doc.numberings.get(id).is_some_and(ListNumbering::has_words) {
            self.no_syntax("words around the numbers of lists", id);
        }
        let (usual, other) = match (list.ordered, self.options.settings.bullet) {
            (true, _) => ('.', ')'),
            (false, Bullet::Hyphen) => ('-', '*'),
            (false, Bullet::Asterisk) => ('*', '-'),
            (false, Bullet::Plus) => ('+', '-'),
        };
        // Two lists in a row would be one.
        let sign = if before == Some((list.ordered, usual)) { other } else { usual };
        let start = i64::from(list.start);
        if list.ordered && start < 0 {
            self.no_syntax("lists that begin below zero", id);
        }
        let tight = list.tight && !self.out.is_full() && self.stays_tight(id);
        self.frames.push(Frame {
            tight,
            number: start.clamp(0, 999_999_999),
            sign,
            ordered: list.ordered,
            is_list: true,
            ..Frame::default()
        });
    }

    /// Whether no item of a list holds blocks that need an empty line between them.
    fn stays_tight(&self, list: NodeId) -> bool {
        let doc = self.doc;
        let is_text = |kind: Kind| kind == Kind::Paragraph || kind.is_inline();
        doc.children(list).all(|item| {
            let mut before: Option<Kind> = None;
            doc.children(item).all(|child| {
                let kind = doc.kind(child);
                let after_text = before.is_some_and(is_text);
                let holds = match before {
                    None => true,
                    Some(last) if is_text(kind) => !after_text && !matches!(last, Kind::List(_) | Kind::BlockQuote | Kind::Table),
                    Some(_) if after_text => self.may_interrupt(child),
                    _ => true,
                } || (kind.is_inline() && before.is_some_and(Kind::is_inline));
                before = Some(kind);
                holds
            })
        })
    }

    /// Whether a block may stand right below a line of text. Lists that begin with another number than 1, or with an item that
    /// is empty, may not (CommonMark, section 5.3).
    fn may_interrupt(&self, id: NodeId) -> bool {
        let Kind::List(list) = self.doc.kind(id) else { return true };
        let holds_something = |item: NodeId| {
            let is_seen = |kind: Kind| kind.is_leaf() && !matches!(kind, Kind::LineBreak | Kind::SoftBreak);
            self.doc.walk(item).any(|step| matches!(step, Step::Enter(id) if is_seen(self.doc.kind(id))))
        };
        (!list.ordered || list.start == 1) && self.doc.node(id).first_child().is_some_and(holds_something)
    }

    fn begin_item(&mut self, checked: Option<bool>, id: NodeId) {
        let frame = self.frame();
        let (tight, first) = (frame.tight, frame.last == Shape::None);
        frame.last = Shape::Closed;
        let marker = if frame.ordered { format!("{}{} ", frame.number, frame.sign) } else { format!("{} ", frame.sign) };
        frame.number = (frame.number + 1).min(999_999_999);
        if !first && !tight {
            self.out.line("");
        }
        let first = self.doc.node(id).first_child().map(|first| self.doc.kind(first));
        let before_text = first.is_none_or(|first| first == Kind::Paragraph || first.is_inline());
        let task = match checked {
            Some(_) if !before_text => {
                self.no_syntax("checkboxes without text", id);
                ""
            }
            Some(_) if !self.options.syntax.has(Extensions::TASKS) => {
                self.no_syntax("checkboxes", id);
                if checked == Some(true) { "\u{2611} " } else { "\u{2610} " }
            }
            Some(true) => "[x] ",
            Some(false) => "[ ] ",
            None => "",
        };
        self.out.push(&format!("{marker}{task}"), &" ".repeat(marker.len()));
        self.frames.push(Frame { tight, ..Frame::default() });
    }

    fn code_block(&mut self, code: Text, info: Text) {
        let info = super::escape::info(self.doc.text(info));
        self.fenced(self.doc.text(code), &info);
    }

    fn fenced(&mut self, code: &str, info: &str) {
        let sign = if self.options.settings.fence == Fence::Tildes || info.contains('`') { '~' } else { '`' };
        let longest = code
            .split('\n')
            .map(|line| line.trim_start_matches(' '))
            .map(|line| line.len() - line.trim_start_matches(sign).len());
        let fence = sign.to_string().repeat(longest.max().unwrap_or(0).max(2) + 1);
        self.begin(Shape::Closed);
        self.out.line(&format!("{fence}{info}"));
        if !code.is_empty() {
            self.out.lines(code);
        }
        self.out.line(&fence);
    }

    /// Writes what marks of notes lead to.
    pub(super) fn write_notes(&mut self) {
        for index in 0..self.doc.notes.len() {
            let body = self.doc.notes[index].body;
            let short = |body| {
                self.doc.children(body).all(|child| self.doc.kind(child) == Kind::Paragraph)
                    && self.doc.children(body).count() == 1
            };
            // Notes of a paragraph each stand on lines that follow each other.
            let follows = index > 0
                && short(body)
                && short(self.doc.notes[index - 1].body)
                && self.options.syntax.has(Extensions::FOOTNOTES);
            self.frame().tight = follows;
            self.begin(if follows { Shape::Closed } else { Shape::Container });
            if self.options.syntax.has(Extensions::FOOTNOTES) {
                self.out.push(&format!("[^{}]: ", self.labels[index]), "    ");
            } else {
                let number = format!("{}. ", index + 1);
                self.out.push(&number, &" ".repeat(number.len()));
            }
            self.frames.push(Frame::default());
            self.tree(body);
            self.frames.pop();
            self.out.pop();
        }
    }

    /// Writes the addresses of reference links.
    pub(super) fn write_definitions(&mut self) {
        let definitions = std::mem::take(&mut self.definitions);
        if !definitions.is_empty() {
            self.begin(Shape::Text);
        }
        for (target, number) in definitions {
            self.out.line(&format!("[{number}]: {target}"));
        }
    }
}

/// An empty line would end the HTML: the line end before it is written as a reference.
fn without_empty_lines(html: &str) -> String {
    let mut out = String::with_capacity(html.len());
    for (index, line) in html.split('\n').enumerate() {
        if index > 0 {
            out.push_str(if line.trim_ascii().is_empty() { "&#10;" } else { "\n" });
        }
        out.push_str(line);
    }
    out
}
