//! The markup of each kind of node.

use super::super::{Context, Raw, Syntax, attribute_values};
use super::Writer;
use crate::document::{
    Align, CellKind, Direction, DivisionKind, Finding, Kind, ListKind, Marker, NodeId, RowGroupKind, Scope, Step, Text, TextLevel,
};
use crate::formats::html::Mends;

/// Tags that GitHub disallows in raw HTML (GitHub Flavored Markdown, section 6.11).
const DISALLOWED: [&str; 9] = ["title", "textarea", "style", "xmp", "iframe", "noembed", "noframes", "script", "plaintext"];

/// The markup of an element, put together when this is compiled.
#[derive(Clone, Copy)]
pub(super) struct Tag {
    /// The start tag up to its attributes.
    start: &'static str,
    open: &'static str,
    close: &'static str,
}

macro_rules! tag {
    ($name:literal) => {
        Tag { start: concat!("<", $name), open: concat!("<", $name, ">"), close: concat!("</", $name, ">") }
    };
}

pub(super) const HEADINGS: [Tag; 6] = [tag!("h1"), tag!("h2"), tag!("h3"), tag!("h4"), tag!("h5"), tag!("h6")];

impl Writer<'_, '_> {
    /// Writes what stands before the children of a node. Returns whether the children are to be written.
    pub(super) fn enter(&mut self, id: NodeId) -> bool {
        match self.doc.kind(id) {
            Kind::Root | Kind::Note => {}
            Kind::Text(text) if self.preformatted > 0 => self.out.text(self.doc.text(text)),
            Kind::Text(text) => self.out.flowing_text(self.doc.text(text)),
            Kind::SoftBreak if self.preformatted > 0 => self.out.text("\n"),
            Kind::SoftBreak => self.out.soft_break(),
            Kind::Paragraph => self.enter_paragraph(id),
            Kind::Heading(level) => self.enter_heading(level, id),
            Kind::BlockQuote => self.container(tag!("blockquote"), id),
            Kind::List(list) => self.enter_list(list, id),
            Kind::ListItem { checked } => self.enter_item(checked, id),
            Kind::TermList => self.container(tag!("dl"), id),
            Kind::Term => self.block(tag!("dt"), id),
            Kind::TermDescription => self.flow(tag!("dd"), id),
            Kind::CodeBlock { code, info } => self.code_block(code, info, id),
            Kind::Preformatted => {
                self.scrolling_block(tag!("pre"), id);
                self.preformatted += 1;
                // The parser drops a newline that comes first.
                if self.doc.plain_text(id).starts_with('\n') {
                    self.out.text("\n");
                }
            }
            Kind::Table => {
                self.scrolling_block(tag!("table"), id);
                self.out.deeper();
                self.out.line();
                self.tables += 1;
            }
            Kind::Caption => self.flow(self.caption(id), id),
            Kind::RowGroup(group) => self.container(group_tag(group), id),
            Kind::Row => self.container(tag!("tr"), id),
            Kind::Cell(cell) => self.enter_cell(cell, id),
            Kind::Figure => self.container(tag!("figure"), id),
            Kind::ThematicBreak => {
                self.out.line();
                self.out.markup("<hr");
                self.attributes(id, Kind::ThematicBreak);
                self.out.close_void();
                self.out.line();
            }
            Kind::Division(division) => self.enter_division(division, id),
            Kind::Details { open } => {
                self.out.line();
                self.out.markup("<details");
                self.attributes(id, Kind::Details { open });
                if open {
                    self.out.flag("open");
                }
                self.out.close_tag();
                self.out.deeper();
                self.out.line();
            }
            Kind::Summary => self.block(tag!("summary"), id),
            Kind::NoteReference(note) => self.note_mark(note),
            Kind::Link { href } => return self.enter_link(href, id),
            Kind::Span if self.attributes_are_empty(id) => {}
            Kind::Anchor if self.attributes_are_empty(id) => {}
            Kind::Span | Kind::Anchor => self.inline(tag!("span"), id),
            Kind::TextLevel(level) => self.enter_text_level(level, id),
            kind => self.leaf(kind, id),
        }
        true
    }

    /// Writes what has no children, and inline elements that have nothing but a name.
    fn leaf(&mut self, kind: Kind, id: NodeId) {
        match kind {
            Kind::RawBlock { raw, .. } => self.raw(raw, id, true),
            Kind::Raw { raw, .. } => self.raw(raw, id, false),
            Kind::Code(text) => {
                self.inline(tag!("code"), id);
                self.out.text(self.doc.text(text));
                self.out.markup("</code>");
            }
            Kind::Math(formula) => self.formula(id, self.doc.formula(formula)),
            Kind::Image { src, alt } => self.image(src, alt, id),
            Kind::LineBreak => {
                self.out.markup("<br");
                self.out.close_void();
                if self.preformatted == 0 && !self.options.settings.compact {
                    self.out.soft_break();
                }
            }
            kind => {
                if let Some(tag) = simple_element(kind) {
                    self.inline(tag, id);
                }
            }
        }
    }

    /// Writes what stands behind the children of a node.
    pub(super) fn leave(&mut self, id: NodeId) {
        match self.doc.kind(id) {
            Kind::Paragraph => self.leave_paragraph(id),
            Kind::Heading(_) => self.leave_heading(),
            Kind::BlockQuote => self.end_container(tag!("blockquote")),
            Kind::List(list) => self.end_container(if list.ordered { tag!("ol") } else { tag!("ul") }),
            Kind::ListItem { .. } => self.end_flow(tag!("li")),
            Kind::TermList => self.end_container(tag!("dl")),
            Kind::Term => self.end_block(tag!("dt")),
            Kind::TermDescription => self.end_flow(tag!("dd")),
            Kind::Preformatted => {
                self.preformatted -= 1;
                self.end_block(tag!("pre"));
            }
            Kind::Table => {
                self.tables -= 1;
                self.end_container(tag!("table"));
            }
            Kind::Caption => self.end_flow(self.caption(id)),
            Kind::RowGroup(group) => self.end_container(group_tag(group)),
            Kind::Row => self.end_container(tag!("tr")),
            Kind::Cell(cell) => self.end_flow(if self.is_header(cell, id) { tag!("th") } else { tag!("td") }),
            Kind::Figure => self.end_container(tag!("figure")),
            Kind::Division(division) => self.leave_division(division),
            Kind::Details { .. } => self.end_container(tag!("details")),
            Kind::Summary => self.end_block(tag!("summary")),
            Kind::Link { .. } => self.leave_link(id),
            Kind::Span | Kind::Anchor if self.attributes_are_empty(id) => {}
            Kind::Span | Kind::Anchor => self.out.markup("</span>"),
            Kind::TextLevel(level) => self.leave_text_level(level, id),
            kind => {
                if let Some(tag) = simple_element(kind) {
                    self.end_tag(tag);
                }
            }
        }
    }

    /// The start tag of a block that holds text.
    #[inline]
    pub(super) fn block(&mut self, tag: Tag, id: NodeId) {
        self.out.line();
        self.inline(tag, id);
    }

    /// The start tag of a block that holds blocks.
    fn container(&mut self, tag: Tag, id: NodeId) {
        self.block(tag, id);
        self.out.deeper();
        self.out.line();
    }

    /// The start tag of a block that may be wider than the page.
    fn scrolling_block(&mut self, tag: Tag, id: NodeId) {
        self.out.line();
        self.out.markup(tag.start);
        self.attributes(id, self.doc.kind(id));
        self.keyboard_stop(id);
        self.out.close_tag();
    }

    /// The start tag of a block that holds blocks or text.
    #[inline]
    fn flow(&mut self, tag: Tag, id: NodeId) {
        self.block(tag, id);
        self.out.deeper();
    }

    #[inline]
    fn inline(&mut self, tag: Tag, id: NodeId) {
        if self.doc.node(id).has_attributes() || matches!(self.doc.kind(id), Kind::Heading(_)) {
            self.out.markup(tag.start);
            self.attributes(id, self.doc.kind(id));
            self.out.close_tag();
        } else {
            self.out.markup(tag.open);
        }
    }

    #[inline]
    fn end_tag(&mut self, tag: Tag) {
        self.out.markup(tag.close);
    }

    #[inline]
    pub(super) fn end_block(&mut self, tag: Tag) {
        self.end_tag(tag);
        self.out.line();
    }

    fn end_container(&mut self, tag: Tag) {
        self.out.shallower();
        self.out.line();
        self.end_block(tag);
    }

    #[inline]
    fn end_flow(&mut self, tag: Tag) {
        self.out.shallower();
        self.end_block(tag);
    }

    /// Whether a paragraph is written without tags: a lone or first one in an item of a tight list.
    fn is_bare(&self, id: NodeId) -> bool {
        let node = self.doc.node(id);
        let Some(item) = node.parent().filter(|&parent| matches!(self.doc.kind(parent), Kind::ListItem { .. })) else {
            return false;
        };
        let tight = self
            .doc
            .node(item)
            .parent()
            .is_some_and(|list| matches!(self.doc.kind(list), Kind::List(ListKind { tight: true, .. })));
        let after_text = node.previous().is_some_and(|before| {
            let kind = self.doc.kind(before);
            kind == Kind::Paragraph || kind.is_inline()
        });
        tight && !after_text && self.attributes_are_empty(id)
    }

    fn enter_paragraph(&mut self, id: NodeId) {
        if !self.is_bare(id) {
            // A wide formula scrolls.
            if self.options.context == Context::ScrollingPage && self.is_wide_formula(id) {
                self.scrolling_block(tag!("p"), id);
            } else {
                self.block(tag!("p"), id);
            }
        } else if self.doc.node(id).previous().is_some() {
            self.out.line();
        }
        let node = self.doc.node(id);
        if node.previous().is_none()
            && let Some(item) = node.parent()
            && let Kind::ListItem { checked: Some(checked) } = self.doc.kind(item)
        {
            self.checkbox(checked);
        }
    }

    fn leave_paragraph(&mut self, id: NodeId) {
        if let Some((paragraph, note)) = self.notes.ending
            && paragraph == id
        {
            self.back_links(note);
        }
        if self.is_bare(id) {
            if self.doc.node(id).next().is_some() {
                self.out.line();
            }
        } else {
            self.end_block(tag!("p"));
        }
    }

    fn enter_list(&mut self, list: ListKind, id: NodeId) {
        self.out.line();
        self.out.markup(if list.ordered { "<ol" } else { "<ul" });
        self.attributes(id, Kind::List(list));
        if list.ordered {
            if list.start != 1 {
                self.out.attribute("start", &list.start.to_string());
            }
            let marker = match list.marker {
                Marker::Plain => None,
                Marker::LowerAlpha => Some("a"),
                Marker::UpperAlpha => Some("A"),
                Marker::LowerRoman => Some("i"),
                Marker::UpperRoman => Some("I"),
            };
            if let Some(marker) = marker {
                self.out.attribute("type", marker);
            }
        }
        self.out.close_tag();
        self.out.deeper();
        self.out.line();
    }

    fn enter_item(&mut self, checked: Option<bool>, id: NodeId) {
        self.flow(tag!("li"), id);
        let first = self.doc.node(id).first_child();
        if let Some(checked) = checked
            && first.is_none_or(|first| self.doc.kind(first) != Kind::Paragraph)
        {
            self.checkbox(checked);
        }
    }

    fn checkbox(&mut self, checked: bool) {
        self.out.markup("<input");
        self.out.attribute("type", "checkbox");
        self.out.flag("disabled");
        if checked {
            self.out.flag("checked");
        }
        if self.options.context != Context::Fragment {
            self.out.attribute("aria-label", if checked { "Done" } else { "To do" });
        }
        self.out.close_void();
        self.out.text(" ");
    }

    fn caption(&self, id: NodeId) -> Tag {
        let parent = self.doc.node(id).parent().map(|parent| self.doc.kind(parent));
        if parent == Some(Kind::Table) { tag!("caption") } else { tag!("figcaption") }
    }

    /// A header that says nothing heads nothing.
    fn is_header(&self, cell: CellKind, id: NodeId) -> bool {
        let is_white = |child| matches!(self.doc.kind(child), Kind::Text(text) if self.doc.text(text).trim().is_empty());
        cell.header && !self.doc.children(id).all(is_white)
    }

    fn enter_cell(&mut self, cell: CellKind, id: NodeId) {
        let cell = CellKind { header: self.is_header(cell, id), ..cell };
        let plain = CellKind { header: cell.header, ..CellKind::PLAIN };
        if cell == plain && !self.doc.node(id).has_attributes() {
            return self.flow(if cell.header { tag!("th") } else { tag!("td") }, id);
        }
        self.out.line();
        self.out.markup(if cell.header { "<th" } else { "<td" });
        self.attributes(id, Kind::Cell(cell));
        if cell.columns > 1 {
            self.out.attribute("colspan", &cell.columns.min(1000).to_string());
        }
        if cell.rows > 1 {
            self.out.attribute("rowspan", &cell.rows.to_string());
        }
        let scope = match cell.scope {
            Scope::Unsaid => None,
            Scope::Row => Some("row"),
            Scope::Column => Some("col"),
            Scope::RowGroup => Some("rowgroup"),
            Scope::ColumnGroup => Some("colgroup"),
        };
        if let Some(scope) = scope.filter(|_| cell.header) {
            self.out.attribute("scope", scope);
        }
        let align = match cell.align {
            Align::Unsaid => None,
            Align::Left => Some(" style=\"text-align: left\""),
            Align::Center => Some(" style=\"text-align: center\""),
            Align::Right => Some(" style=\"text-align: right\""),
            Align::Justify => Some(" style=\"text-align: justify\""),
        };
        if let Some(align) = align {
            self.out.markup(align);
        }
        self.out.close_tag();
        self.out.deeper();
    }

    fn code_block(&mut self, code: Text, info: Text, id: NodeId) {
        self.out.line();
        self.out.markup("<pre");
        self.attributes(id, Kind::CodeBlock { code, info });
        self.keyboard_stop(id);
        self.out.close_tag();
        self.out.markup("<code");
        let info = self.doc.text(info);
        let language = language(info);
        if !language.is_empty() {
            self.out.attribute("class", &format!("language-{}", first_word(info)));
        }
        self.out.close_tag();
        let code = self.doc.text(code);
        let colour = self.options.highlight.filter(|_| !language.is_empty());
        let coloured = colour.is_some_and(|highlight| {
            highlight(language, code, &mut |run, class| match class {
                None => self.out.text(run),
                Some(class) => {
                    self.out.markup("<span");
                    self.out.attribute("class", class);
                    self.out.close_tag();
                    self.out.text(run);
                    self.out.markup("</span>");
                }
            })
        });
        if !coloured {
            self.out.text(code);
        }
        self.out.markup("</code></pre>");
        self.out.line();
    }

    /// Whether a node is the last of the document, and mentions no note.
    fn ends_document(&self, id: NodeId) -> bool {
        let is_last = self.doc.node(id).next().is_none() && self.doc.node(id).parent() == Some(self.doc.root());
        let is_mark = |step| matches!(step, Step::Enter(id) if matches!(self.doc.kind(id), Kind::NoteReference(_)));
        is_last && !self.doc.walk(id).any(is_mark)
    }

    fn enter_division(&mut self, division: DivisionKind, id: NodeId) {
        // The footer of a page stands below its notes.
        if division == DivisionKind::Footer && self.ends_document(id) {
            self.write_notes();
        }
        let tag = self.division(division);
        self.restrict(division, 1);
        self.out.line();
        self.out.markup(tag.start);
        if let DivisionKind::Callout(callout) = division {
            self.out.attribute("class", &callout.word().to_lowercase());
        }
        self.attributes(id, Kind::Division(division));
        self.out.close_tag();
        self.out.deeper();
        self.out.line();
        if let DivisionKind::Callout(callout) = division {
            self.out.markup("<p><strong>");
            self.out.text(callout.word());
            self.out.markup("</strong></p>");
            self.out.line();
        }
    }

    fn leave_division(&mut self, division: DivisionKind) {
        self.restrict(division, -1);
        let tag = self.division(division);
        self.end_container(tag);
    }

    /// Headers and footers hold neither each other nor, here, sections of their own.
    fn restrict(&mut self, division: DivisionKind, step: isize) {
        if matches!(division, DivisionKind::Header | DivisionKind::Footer | DivisionKind::Address) {
            self.restricted = self.restricted.saturating_add_signed(step);
        }
    }

    const fn division(&self, division: DivisionKind) -> Tag {
        if self.restricted > 0 || self.tables > 0 {
            return tag!("div");
        }
        match division {
            DivisionKind::Plain => tag!("div"),
            DivisionKind::Section => tag!("section"),
            DivisionKind::Article => tag!("article"),
            DivisionKind::Aside | DivisionKind::Callout(_) => tag!("aside"),
            DivisionKind::Navigation => tag!("nav"),
            DivisionKind::Header => tag!("header"),
            DivisionKind::Footer => tag!("footer"),
            DivisionKind::Address => tag!("address"),
        }
    }

    fn enter_text_level(&mut self, level: TextLevel, id: NodeId) {
        if level == TextLevel::Definition {
            self.definitions += 1;
        }
        if self.is_written(level, id, self.definitions) {
            self.out.markup("<");
            self.out.markup(level.element());
            self.attributes(id, Kind::TextLevel(level));
            self.out.close_tag();
        }
    }

    fn leave_text_level(&mut self, level: TextLevel, id: NodeId) {
        if self.is_written(level, id, self.definitions) {
            self.out.markup("</");
            self.out.markup(level.element());
            self.out.close_tag();
        }
        if level == TextLevel::Definition {
            self.definitions -= 1;
        }
    }

    /// Some elements need an attribute to mean anything, and definitions do not nest.
    fn is_written(&self, level: TextLevel, id: NodeId, definitions: usize) -> bool {
        let attributes = self.doc.attributes(id);
        let has = |name: &str| attributes.other.iter().any(|(known, _)| self.doc.text(*known) == name);
        match level {
            TextLevel::Time => has("datetime") || attribute_values::is_date(self.doc.plain_text(id).trim()),
            TextLevel::Data => has("value"),
            TextLevel::Override => matches!(attributes.direction, Some(Direction::LeftToRight | Direction::RightToLeft)),
            TextLevel::Definition => definitions == 1,
            _ => true,
        }
    }

    fn attributes_are_empty(&self, id: NodeId) -> bool {
        !self.doc.node(id).has_attributes() || {
            let attributes = self.doc.attributes(id);
            self.ids.get(id).is_none()
                && attributes.classes.is_empty()
                && attributes.language.is_none()
                && attributes.direction.is_none()
                && attributes.title.is_none()
        }
    }

    /// Writes the attributes of a node that its element may have.
    pub(super) fn attributes(&mut self, id: NodeId, kind: Kind) {
        if let Some(name) = self.ids.get(id) {
            self.out.attribute("id", name);
        }
        if !self.doc.node(id).has_attributes() {
            return;
        }
        let attributes = self.doc.attributes(id);
        if !attributes.classes.is_empty() && !matches!(kind, Kind::Division(DivisionKind::Callout(_))) {
            let classes: Vec<&str> = attributes.classes.iter().map(|&class| self.doc.text(class)).collect();
            self.out.attribute("class", &classes.join(" "));
        }
        if let Some(language) =
            attributes.language.map(|language| self.doc.text(language)).filter(|tag| crate::language_tag::is_well_formed(tag))
        {
            self.out.attribute("lang", language);
            if self.options.settings.syntax == Syntax::Xhtml {
                self.out.attribute("xml:lang", language);
            }
        }
        if let Some(direction) = attributes.direction {
            self.out.attribute("dir", direction.value());
        }
        if let Some(title) = attributes.title {
            self.out.attribute("title", self.doc.text(title));
        }
        for &(name, value) in &attributes.other {
            let (name, value) = (self.doc.text(name), self.doc.text(value));
            if let Some(form) = attribute_values::attribute(kind, name, value) {
                match form {
                    attribute_values::AttributeForm::Text => self.out.attribute(name, value),
                    attribute_values::AttributeForm::Address => {
                        if let Some(value) = self.valid_address(value, id, "a source") {
                            self.out.address(name, &value);
                        }
                    }
                    attribute_values::AttributeForm::Flag => self.out.flag(name),
                }
            }
        }
    }

    fn raw(&mut self, raw: Text, id: NodeId, block: bool) {
        let text = self.doc.text(raw);
        match self.options.settings.raw {
            Raw::Keep if !self.options.trusts() && !super::raw::is_inert(text) => {
                self.findings.push(
                    Finding::changed("html.raw-running", "raw HTML that can run script, or is not well-formed, is shown as text")
                        .at(self.doc.place(id))
                        .losing(text.trim())
                        .hint("html.trust=true writes it unchanged; only for your own documents"),
                );
                if block {
                    self.out.line();
                    self.out.markup("<p>");
                    self.out.text(text.trim());
                    self.out.markup("</p>");
                    self.out.line();
                } else {
                    self.out.text(text);
                }
            }
            Raw::Keep => {
                if block {
                    self.out.line();
                }
                let kept = if self.options.mends.contains(Mends::TAG_FILTER) { filter_tags(text) } else { text.into() };
                self.out.markup(kept.trim_end_matches('\n'));
                if block {
                    self.out.line();
                }
            }
            Raw::Escape if block => {
                self.out.line();
                self.out.markup("<p>");
                self.out.text(text.trim());
                self.out.markup("</p>");
                self.out.line();
            }
            Raw::Escape => self.out.text(text),
            // The pass that cleans has taken all raw nodes away; what is left is in notes that nothing can reach.
            Raw::Clean | Raw::Drop => {
                if !text.starts_with("<!--") {
                    self.findings
                        .push(Finding::lost("html.raw", "raw HTML was left out").at(self.doc.place(id)).losing(text.trim()));
                }
            }
        }
    }
}

const fn group_tag(group: RowGroupKind) -> Tag {
    match group {
        RowGroupKind::Head => tag!("thead"),
        RowGroupKind::Body => tag!("tbody"),
        RowGroupKind::Foot => tag!("tfoot"),
    }
}

const fn simple_element(kind: Kind) -> Option<Tag> {
    Some(match kind {
        Kind::Emphasis => tag!("em"),
        Kind::Strong => tag!("strong"),
        Kind::Underline => tag!("u"),
        Kind::Strikethrough => tag!("s"),
        Kind::Insertion => tag!("ins"),
        Kind::Deletion => tag!("del"),
        Kind::Highlight => tag!("mark"),
        Kind::Subscript => tag!("sub"),
        Kind::Superscript => tag!("sup"),
        _ => return None,
    })
}

/// The first word of what a source says about a code block (CommonMark, section 4.5), without the punctuation that some put
/// around it. It may say more than the language, as `rust,ignore` does.
fn first_word(info: &str) -> &str {
    let info = info.trim_start_matches(['{', '.']);
    let end = info.find(|c: char| c.is_whitespace() || c == '}').unwrap_or(info.len());
    &info[..end]
}

/// The language in what a source says about a code block.
fn language(info: &str) -> &str {
    let word = first_word(info);
    &word[..word.find(',').unwrap_or(word.len())]
}

/// Takes the meaning from tags that are not allowed.
fn filter_tags(raw: &str) -> std::borrow::Cow<'_, str> {
    let is_disallowed = |rest: &str| {
        let rest = rest.strip_prefix('/').unwrap_or(rest);
        DISALLOWED.iter().any(|name| {
            rest.get(..name.len()).is_some_and(|start| start.eq_ignore_ascii_case(name))
                && rest[name.len()..].starts_with(|c: char| c.is_ascii_whitespace() || matches!(c, '>' | '/'))
        })
    };
    if !raw.match_indices('<').any(|(at, _)| is_disallowed(&raw[at + 1..])) {
        return raw.into();
    }
    let mut out = String::with_capacity(raw.len() + 8);
    for (index, piece) in raw.split('<').enumerate() {
        if index > 0 {
            out.push_str(if is_disallowed(piece) { "&lt;" } else { "<" });
        }
        out.push_str(piece);
    }
    out.into()
}
