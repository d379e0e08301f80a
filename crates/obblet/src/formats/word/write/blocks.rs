//! Blocks: paragraphs with what the blocks around them say.

use super::super::model::properties::{Alignment, ParagraphProperties};
use super::super::model::{from_style, print};
use super::Writer;
use super::numbering::{self, LEVELS, STEP};
use super::run::{Last, Paragraph, Run};
use super::style_sheet::Direct;
use crate::document::{Align, Attributes, Callout, Direction, DivisionKind, Kind, ListKind, Markup, NodeId, Step, Text};

/// Quotations in quotations are set in so often at most.
const DEEPEST_QUOTE: u8 = 8;

/// How far a quotation in a quotation is set in, in twips.
const QUOTE: i32 = 567;

/// The space between a table and the text below, in twips.
const SPACE_BELOW_TABLE: i32 = 160;

/// What blocks say of the paragraphs within them.
#[derive(Clone, Debug, Default)]
pub(super) struct Context {
    /// The style of paragraphs that have none of their own.
    style: Option<&'static str>,
    /// The innermost list: its number, its level, and whether its items are numbered.
    list: Option<(i32, u8, bool)>,
    /// The levels of lists around.
    depth: u8,
    /// Whether the next paragraph begins an item, and whether that is a task and done.
    item: Option<Option<bool>>,
    /// Whether items follow each other without space.
    is_tight: bool,
    quotes: u8,
    alignment: Option<Alignment>,
    direction: Option<Direction>,
    language: Option<Text>,
    is_bold: bool,
    keeps_with_next: bool,
}

impl Context {
    /// How many lists are around.
    pub(super) const fn depth(&self) -> u8 {
        self.depth
    }

    pub(super) fn of_note() -> Self {
        Self { style: Some("FootnoteText"), ..Self::default() }
    }
}

impl<'d> Writer<'d> {
    /// Writes all that is below a node.
    pub(super) fn tree(&mut self, top: NodeId) {
        let doc = self.doc;
        let mut walk = doc.walk(top);
        while let Some(step) = walk.next() {
            match step {
                Step::Enter(id) => {
                    if !self.enter(id) {
                        walk.skip_children(id);
                    }
                }
                Step::Leave(id) => self.leave(id),
            }
        }
    }

    pub(super) fn context(&self) -> Context {
        self.contexts.last().cloned().unwrap_or_default()
    }

    /// Changes what is said of the paragraphs in a block.
    fn push(&mut self, change: impl FnOnce(&mut Context)) {
        let mut context = self.context();
        change(&mut context);
        self.contexts.push(context);
    }

    /// Comes to a node. Whether what is below it is written in turn.
    fn enter(&mut self, id: NodeId) -> bool {
        let kind = self.doc.kind(id);
        if kind.is_inline() {
            return self.enter_inline(id, kind);
        }
        if kind == Kind::Caption && self.part.out.is_open("w:tbl") {
            // It stands above its table.
            return false;
        }
        self.end_paragraph();
        if !matches!(kind, Kind::Paragraph | Kind::Heading(_) | Kind::Caption | Kind::Term | Kind::Summary) {
            self.announce(id);
        }
        let attributes = self.doc.attributes(id);
        let (direction, language) = (attributes.direction, attributes.language);
        let inherit = move |context: &mut Context| {
            context.direction = direction.or(context.direction);
            context.language = language.or(context.language);
        };
        match kind {
            Kind::Heading(_) => {
                let style = ["Title", "Heading1", "Heading2", "Heading3", "Heading4", "Heading5", "Heading6"];
                let level = usize::from(self.style_level(id).unwrap_or(1));
                self.begin_paragraph(id, style.get(level).copied());
            }
            Kind::Paragraph => self.begin_paragraph(id, None),
            Kind::Caption => {
                let is_above = self.doc.node(id).next().is_some();
                self.push(|context| context.keeps_with_next = is_above);
                self.begin_paragraph(id, Some("Caption"));
                self.line.label = self.doc.node(id).parent().filter(|&holder| self.bookmarks.label(holder).is_some());
            }
            Kind::Term => {
                self.push(|context| context.keeps_with_next = true);
                self.begin_paragraph(id, Some("DefinitionTerm"));
            }
            Kind::Summary => {
                self.push(|context| (context.is_bold, context.keeps_with_next) = (true, true));
                self.begin_paragraph(id, None);
            }
            Kind::TermDescription => self.push(|context| {
                inherit(context);
                context.style = Some("DefinitionList");
            }),
            Kind::BlockQuote => self.push(|context| {
                inherit(context);
                // Further in, nothing would be left of the line.
                context.quotes = (context.quotes + 1).min(DEEPEST_QUOTE);
                context.style = Some("Quote");
            }),
            Kind::List(list) => self.begin_list(id, list),
            Kind::ListItem { checked } => {
                self.count_from_value(id);
                self.push(|context| {
                    inherit(context);
                    context.item = Some(checked);
                });
            }
            Kind::CodeBlock { code, info } => self.code_block(id, code, info),
            Kind::Preformatted => {
                self.push(inherit);
                self.begin_paragraph(id, Some("HTMLPreformatted"));
                self.line.paragraph = Paragraph::Preformatted;
            }
            Kind::Table => self.begin_table(id),
            Kind::RowGroup(_) => {}
            Kind::Row => self.begin_row(),
            Kind::Cell(cell) => self.begin_cell(id, cell),
            Kind::ThematicBreak => self.thematic_break(id),
            Kind::Division(DivisionKind::Callout(callout)) => self.begin_callout(id, callout),
            Kind::Details { .. } => {
                self.unsaid("collapsible content (details)", id);
                self.push(inherit);
            }
            Kind::RawBlock { markup, raw } => self.raw_block(id, markup, raw),
            _ => self.push(inherit),
        }
        true
    }

    /// Leaves a node.
    fn leave(&mut self, id: NodeId) {
        let kind = self.doc.kind(id);
        if kind.is_inline() {
            return self.leave_inline(id, kind);
        }
        match kind {
            Kind::Caption if self.part.out.is_open("w:tbl") => {}
            Kind::Paragraph | Kind::Heading(_) => {
                self.end_paragraph();
                if self.contents_below == Some(id) {
                    self.contents_list();
                }
            }
            Kind::Caption | Kind::Term | Kind::Summary | Kind::Preformatted => {
                self.end_paragraph();
                self.contexts.pop();
            }
            Kind::ListItem { .. } => {
                self.end_paragraph();
                if self.contexts.last().is_some_and(|context| context.item.is_some()) {
                    // One that holds nothing is a number all the same.
                    self.begin_paragraph(id, None);
                    self.end_paragraph();
                }
                self.contexts.pop();
            }
            Kind::Table => self.end_table(),
            Kind::Row => self.end_row(),
            Kind::Cell(_) => self.end_cell(),
            Kind::CodeBlock { .. } | Kind::ThematicBreak | Kind::RawBlock { .. } | Kind::RowGroup(_) => {}
            _ => {
                self.end_paragraph();
                self.contexts.pop();
            }
        }
    }

    /// A place of its own for the id of a block: it begins with the next paragraph.
    fn announce(&mut self, id: NodeId) {
        if let Some(number) = self.bookmarks.begin(id) {
            self.line.waiting.push(number);
        }
    }

    /// A callout, with its kind in a word for those who do not see its colour.
    fn begin_callout(&mut self, id: NodeId, callout: Callout) {
        let attributes = self.doc.attributes(id);
        let (direction, language) = (attributes.direction, attributes.language);
        self.push(|context| {
            context.direction = direction.or(context.direction);
            context.language = language.or(context.language);
            context.style = Some(callout_style(callout));
        });
        self.begin_paragraph(id, None);
        let run = self.run_now().with(super::super::model::properties::Flag::Bold);
        self.emit(callout.word(), &run);
        self.end_paragraph();
    }

    fn begin_list(&mut self, id: NodeId, list: ListKind) {
        let depth = self.context().depth;
        if depth >= LEVELS {
            self.unsaid("lists on more than nine levels", id);
        }
        let level = depth.min(LEVELS - 1);
        let instance = self.numberings.begin(list, level, self.doc.numberings.get(id));
        let attributes: &Attributes = self.doc.attributes(id);
        let (direction, language) = (attributes.direction, attributes.language);
        self.push(|context| {
            context.direction = direction.or(context.direction);
            context.language = language.or(context.language);
            context.list = Some((instance, level, list.ordered));
            context.depth = depth.saturating_add(1);
            context.is_tight = list.tight;
            context.item = None;
        });
    }

    /// An item that says its number begins the counting anew.
    fn count_from_value(&mut self, item: NodeId) {
        if !self.doc.node(item).has_attributes() {
            return;
        }
        let value = self.doc.attributes(item).other.iter().find(|(name, _)| self.doc.text(*name) == "value");
        let start = value.and_then(|(_, value)| self.doc.text(*value).trim().parse::<i32>().ok());
        let list = self.doc.node(item).parent().map(|list| (list, self.doc.kind(list)));
        if let (Some(start), Some((node, Kind::List(list)))) = (start, list)
            && list.ordered
            && let Some((_, level, ordered)) = self.context().list
        {
            let instance = self.numberings.begin(ListKind { start, ..list }, level, self.doc.numberings.get(node));
            if let Some(context) = self.contexts.last_mut() {
                context.list = Some((instance, level, ordered));
            }
        }
    }

    /// The properties that the blocks around a paragraph and its node give it.
    fn properties(&mut self, id: NodeId, own: Option<&'static str>) -> (ParagraphProperties, Option<Option<bool>>) {
        let mut context = self.context();
        let mut properties = ParagraphProperties::default();
        let item = self.contexts.last_mut().and_then(|context| context.item.take());
        // A class of its own names its style, but for what word processors know by a style of theirs.
        let class = if own.is_none() || own == Some("Caption") { self.class_style(id) } else { None };
        if let Some((instance, level, ordered)) = context.list {
            if item.is_some() {
                properties.numbering.id = Some(instance);
                properties.numbering.level = Some(level);
                properties.style = Some(self.style(&numbering::list_style(ordered, level)));
                // The style says how items of the first five levels are set in.
                if level > 4 {
                    properties.indent_start = Some(STEP * (i32::from(level) + 1));
                    properties.first_line = Some(-STEP);
                }
            } else if own.is_none() {
                properties.style = Some(self.style(&numbering::continued_style(level)));
                if level > 4 {
                    properties.indent_start = Some(STEP * (i32::from(level) + 1));
                }
            } else {
                properties.indent_start = Some(STEP * (i32::from(level) + 1));
            }
            if !context.is_tight {
                properties.contextual = Some(false);
            }
        }
        let style = class.as_deref().or(own).or(context.style.filter(|_| context.list.is_none()));
        if let Some(style) = style.filter(|_| item.is_none() || own.is_some()) {
            properties.style = Some(self.style(style));
        }
        let deeper = QUOTE * (i32::from(context.quotes) - 1).max(0);
        if deeper > 0 && context.list.is_none() {
            properties.indent_start = Some(deeper + QUOTE);
        } else if context.quotes > 0 && (context.list.is_some() || own.is_some()) {
            let list = context.list.map_or(0, |(_, level, _)| STEP * (i32::from(level) + 1));
            properties.indent_start = Some(list + QUOTE * i32::from(context.quotes));
        }
        if let Some(direction) = self.doc.attributes(id).direction {
            context.direction = Some(direction);
        }
        if self.is_right_to_left(context.direction) {
            properties.right_to_left = Some(true);
        }
        // Sides are meant as they are seen.
        properties.alignment = match (context.alignment, properties.right_to_left) {
            (Some(Alignment::Start), Some(true)) => Some(Alignment::End),
            (Some(Alignment::End), Some(true)) => Some(Alignment::Start),
            (alignment, _) => alignment,
        };
        if context.keeps_with_next {
            properties.keep_next = Some(true);
        }
        if self.line.last == Last::Table && own.is_none() && context.list.is_none() {
            // Tables have no space of their own below them.
            properties.before = Some(SPACE_BELOW_TABLE);
        }
        (properties, item)
    }

    /// Whether text runs from right to left, where a block or the document says so.
    fn is_right_to_left(&self, said: Option<Direction>) -> bool {
        said.or(self.doc.metadata.direction) == Some(Direction::RightToLeft)
    }

    /// Begins a paragraph, with a style of its own or that of its context.
    pub(super) fn begin_paragraph(&mut self, id: NodeId, own: Option<&'static str>) {
        self.end_paragraph();
        self.announce(id);
        let (mut properties, item) = self.properties(id, own);
        let direct = self.direct(id);
        if let Some(Direct { paragraph, .. }) = &direct {
            let mut paragraph = paragraph.clone();
            if properties.right_to_left == Some(true) {
                from_style::turn(&mut paragraph);
            }
            properties.override_with(&paragraph);
        }
        let context = self.context();
        self.part.out.open("w:p");
        print::paragraph(&properties, &self.names, &mut self.part.out);
        self.line.waiting.extend(self.bookmarks.in_contents(id));
        for number in std::mem::take(&mut self.line.waiting) {
            self.bookmark_start(number);
            self.line.ending.push(number);
        }
        self.line.paragraph = Paragraph::Open;
        (self.line.space, self.line.has_text) = (None, false);
        let mut run = Run::default();
        if let Some(direct) = direct {
            run.properties = direct.characters;
            if direct.is_preformatted {
                self.line.paragraph = Paragraph::Preformatted;
            }
        }
        if context.is_bold {
            run = run.with(super::super::model::properties::Flag::Bold);
        }
        if properties.right_to_left == Some(true) {
            run.properties.flags.set(super::super::model::properties::Flag::RightToLeft, true);
        }
        let language = self.doc.attributes(id).language.or(context.language);
        self.set_language(&mut run, language);
        self.runs.clear();
        self.runs.push(run);
        if std::mem::take(&mut self.line.note_mark) {
            let mark = self.style_id("FootnoteReference");
            self.part.out.open("w:r").open("w:rPr").value("w:rStyle", &mark).close().empty("w:footnoteRef").close();
            self.part.out.raw("<w:r><w:t xml:space=\"preserve\"> </w:t></w:r>");
        }
        if let Some(Some(done)) = item {
            self.checkbox(done);
        }
    }

    /// Ends the paragraph that is open, if one is.
    pub(super) fn end_paragraph(&mut self) {
        if std::mem::take(&mut self.line.paragraph) == Paragraph::Closed {
            return;
        }
        self.trim_space();
        for number in std::mem::take(&mut self.line.ending) {
            self.bookmark_end(number);
        }
        self.part.out.close();
        self.line.last = Last::Paragraph;
    }

    /// An empty paragraph: where something has to end with one, and between tables.
    pub(super) fn empty_paragraph(&mut self) {
        self.part.out.raw("<w:p/>");
        self.line.last = Last::Paragraph;
    }

    /// Ends what has to end with a paragraph.
    pub(super) fn end_container(&mut self) {
        self.end_paragraph();
        if std::mem::take(&mut self.line.last) != Last::Paragraph || !self.line.waiting.is_empty() {
            let waiting = std::mem::take(&mut self.line.waiting);
            self.part.out.open("w:p");
            for number in waiting {
                self.bookmark_start(number);
                self.bookmark_end(number);
            }
            self.part.out.close();
        }
        self.line.note_mark = false;
    }

    pub(super) fn bookmark_start(&mut self, number: usize) {
        let name = self.bookmarks.name(number);
        self.part.out.open("w:bookmarkStart").number("w:id", number as i64).attribute("w:name", name).close();
    }

    pub(super) fn bookmark_end(&mut self, number: usize) {
        self.part.out.open("w:bookmarkEnd").number("w:id", number as i64).close();
    }

    /// A place within a line that links lead to.
    pub(super) fn bookmark_here(&mut self, id: NodeId) {
        if let Some(number) = self.bookmarks.begin(id) {
            self.bookmark_start(number);
            self.bookmark_end(number);
        }
    }

    /// Code: a paragraph whose lines end with line breaks. One with a language, and one beside another, stands in a control whose
    /// tag says the language.
    fn code_block(&mut self, id: NodeId, code: Text, info: Text) {
        let is_code = |other: Option<NodeId>| other.is_some_and(|other| matches!(self.doc.kind(other), Kind::CodeBlock { .. }));
        let node = self.doc.node(id);
        let info = self.doc.text(info);
        let stands_apart = !info.is_empty() || is_code(node.previous()) || is_code(node.next());
        if stands_apart {
            let out = &mut self.part.out;
            out.open("w:sdt").open("w:sdtPr");
            if !info.is_empty() {
                out.value("w:alias", info.split([' ', ',']).next().unwrap_or(info));
            }
            // A tag has no more characters.
            let tag: String = [super::super::CODE_TAG, info].concat().chars().take(64).collect();
            out.value("w:tag", &tag).close().open("w:sdtContent");
        }
        self.begin_paragraph(id, Some("HTMLPreformatted"));
        let code = self.doc.text(code);
        self.plain_run(code.strip_suffix('\n').unwrap_or(code));
        self.end_paragraph();
        if stands_apart {
            self.part.out.close().close();
            self.line.last = Last::Nothing;
        }
    }

    fn raw_block(&mut self, id: NodeId, markup: Markup, raw: Text) {
        self.unsaid(if markup == Markup::Html { "raw HTML" } else { "raw markup" }, id);
        self.begin_paragraph(id, Some("HTMLPreformatted"));
        let raw = self.doc.text(raw);
        self.plain_run(raw.strip_suffix('\n').unwrap_or(raw));
        self.end_paragraph();
    }

    fn thematic_break(&mut self, id: NodeId) {
        self.begin_paragraph(id, Some("HorizontalLine"));
        self.end_paragraph();
    }

    /// What a cell holds is bold.
    pub(super) fn make_bold(&mut self) {
        if let Some(context) = self.contexts.last_mut() {
            context.is_bold = true;
        }
    }

    /// Sets how the cells of a column stand, within a cell.
    pub(super) fn push_cell(&mut self, id: NodeId, align: Align) {
        let attributes = self.doc.attributes(id);
        let (direction, language) = (attributes.direction, attributes.language);
        let outer = self.context();
        self.contexts.push(Context {
            direction: direction.or(outer.direction),
            language: language.or(outer.language),
            alignment: alignment(align),
            ..Context::default()
        });
    }
}

/// How paragraphs stand by the words of the model.
const fn alignment(align: Align) -> Option<Alignment> {
    match align {
        Align::Unsaid => None,
        Align::Left => Some(Alignment::Start),
        Align::Center => Some(Alignment::Center),
        Align::Right => Some(Alignment::End),
        Align::Justify => Some(Alignment::Justify),
    }
}

/// The style of the paragraphs in a callout.
const fn callout_style(callout: Callout) -> &'static str {
    match callout {
        Callout::Note => "CalloutNote",
        Callout::Tip => "CalloutTip",
        Callout::Important => "CalloutImportant",
        Callout::Warning => "CalloutWarning",
        Callout::Caution => "CalloutCaution",
    }
}
