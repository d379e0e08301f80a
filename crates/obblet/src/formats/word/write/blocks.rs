//! Blocks: paragraphs with what the blocks around them say.

use super::super::dates::date_and_time;
use super::super::model::annotations::{Annotation, takes_out};
use super::super::model::properties::{Alignment, CharacterProperties, Flag, ParagraphProperties};
use super::super::model::{from_style, print};
use super::Writer;
use super::numbering::{self, LEVELS, STEP};
use super::run::{Last, Paragraph, Run};
use super::style_sheet::{ClassStyle, Direct, is_inherited};
use super::style_table::Use;
use crate::document::{
    Align, Callout, Direction, DivisionKind, Kind, ListKind, Markup, NodeId, Property, Step, StyleProperties, Text, Value,
};
use std::rc::Rc;

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
    /// The looks that blocks around give to what is in them.
    looks: Option<Rc<HandedDown>>,
}

/// Looks that a block gives to what is in it.
#[derive(Clone, Debug, Default)]
struct HandedDown {
    properties: StyleProperties,
    /// How far it is set in at the left and at the right, in twips.
    indent: [i32; 2],
    /// The style that paragraphs in it have which have no class of their own.
    style: Option<ClassStyle>,
}

/// What a block says of what is in it.
#[derive(Debug)]
struct Said {
    direction: Option<Direction>,
    language: Option<Text>,
    looks: Option<Rc<HandedDown>>,
}

impl Context {
    fn take_over(&mut self, said: Said) {
        self.direction = said.direction.or(self.direction);
        self.language = said.language.or(self.language);
        self.looks = said.looks.or_else(|| self.looks.take());
    }

    /// How many lists are around.
    pub(super) const fn depth(&self) -> u8 {
        self.depth
    }

    pub(super) fn of_page(style: &'static str) -> Self {
        Self { style: Some(style), ..Self::default() }
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
        self.section_before(id, kind);
        let said = self.said_by(id, kind);
        let inherit = move |context: &mut Context| context.take_over(said);
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
            Kind::List(list) => {
                self.push(inherit);
                self.begin_list(id, list);
            }
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
            Kind::Division(DivisionKind::Callout(callout)) => {
                self.push(inherit);
                self.begin_callout(id, callout);
            }
            Kind::Details { .. } => {
                self.no_syntax("collapsible content (details)", id);
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
        self.section_behind(id);
    }

    /// A place of its own for the id of a block: it begins with the next paragraph.
    fn announce(&mut self, id: NodeId) {
        if let Some(number) = self.bookmarks.begin(id) {
            self.line.waiting.push(number);
        }
    }

    /// A callout, with its kind in a word for those who do not see its colour.
    fn begin_callout(&mut self, id: NodeId, callout: Callout) {
        if let Some(context) = self.contexts.last_mut() {
            context.style = Some(callout_style(callout));
        }
        self.begin_paragraph(id, None);
        let run = self.run_now().with(super::super::model::properties::Flag::Bold);
        self.emit(callout.word(), &run);
        self.end_paragraph();
    }

    fn begin_list(&mut self, id: NodeId, list: ListKind) {
        let depth = self.context().depth;
        if depth >= LEVELS {
            self.no_syntax("lists on more than nine levels", id);
        }
        let level = depth.min(LEVELS - 1);
        let outer = self.context().list.map(|(instance, ..)| instance);
        let (instance, level) = self.numberings.begin(list, level, self.doc.numberings.get(id), outer);
        if let Some(context) = self.contexts.last_mut() {
            context.list = Some((instance, level, list.ordered));
            context.depth = depth.saturating_add(1);
            context.is_tight = list.tight;
            context.item = None;
        }
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
            let (instance, level) = self.numberings.begin(ListKind { start, ..list }, level, self.doc.numberings.get(node), None);
            if let Some(context) = self.contexts.last_mut() {
                context.list = Some((instance, level, ordered));
            }
        }
    }

    /// The properties that the blocks around a paragraph and its node give it.
    fn properties(
        &mut self,
        id: NodeId,
        own: Option<&'static str>,
    ) -> (ParagraphProperties, Option<Option<bool>>, Option<usize>) {
        let mut context = self.context();
        let mut properties = ParagraphProperties::default();
        let item = self.contexts.last_mut().and_then(|context| context.item.take());
        // A class of its own names its style, but for what word processors know by a style of theirs.
        let has_class = own.is_none() || own == Some("Caption") || self.is_defined_heading(id);
        let class = if has_class && !matches!(self.doc.kind(id), Kind::Cell(_)) { self.class_style(id) } else { None };
        if let Some((instance, level, ordered)) = context.list {
            if item.is_some() {
                properties.numbering.id = Some(instance);
                properties.numbering.level = Some(level);
                // Programs have styles of their own for items; those of lists say how items of the first five levels are set in.
                let own = class.as_ref().filter(|class| self.is_of_program(class));
                properties.style = match own {
                    Some(class) if class.id == "Normal" => None,
                    Some(class) => Some(self.names.number(&class.id)),
                    None => Some(self.style(&numbering::list_style(ordered, level))),
                };
                let says_place = own.is_none() || class.as_ref().is_some_and(|class| class.id.starts_with("List"));
                if level > 4 || !says_place {
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
        let of_block =
            context.looks.as_ref().and_then(|looks| looks.style.clone()).filter(|_| own.is_none() && context.list.is_none());
        let class = class.or(of_block);
        let class_id = class.as_ref().map(|class| class.id.as_str());
        let style = class_id.or(own).or(context.style.filter(|_| context.list.is_none()));
        if let Some(style) = style.filter(|_| item.is_none() || own.is_some()) {
            if item.is_none() && (style.starts_with("ListBullet") || style.starts_with("ListNumber")) {
                // It has the style of items, and is none.
                properties.numbering.id = Some(self.numberings.without_numbers());
            }
            // The one that paragraphs have anyway is not said.
            properties.style = Some(style).filter(|style| *style != "Normal").map(|style| self.style(style));
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
        let place = class.and_then(|class| class.place).filter(|_| item.is_none() || own.is_some());
        let says_space = place.and_then(|place| self.doc.styles.get(place)).is_some_and(|style| {
            style.properties.iter().any(|(property, _)| matches!(property, Property::MarginTop | Property::Margin))
        });
        if self.line.last == Last::Table && own.is_none() && context.list.is_none() && !says_space {
            // Tables have no space of their own below them.
            properties.before = Some(SPACE_BELOW_TABLE);
        }
        (properties, item, place)
    }

    /// Whether text runs from right to left, where a block or the document says so.
    fn is_right_to_left(&self, said: Option<Direction>) -> bool {
        said.or(self.doc.metadata.direction) == Some(Direction::RightToLeft)
    }

    /// Begins a paragraph, with a style of its own or that of its context.
    pub(super) fn begin_paragraph(&mut self, id: NodeId, own: Option<&'static str>) {
        self.end_paragraph();
        self.announce(id);
        let (mut properties, item, class) = self.properties(id, own);
        // What a block sets, its paragraphs have from it already.
        let direct = if is_container(self.doc.kind(id)) { None } else { self.direct(id) };
        let (handed_down, indent) = self.looks_of_blocks(own, class);
        let is_right_to_left = properties.right_to_left == Some(true);
        let mut run = Run::default();
        let turned = |mut paragraph: ParagraphProperties| {
            if is_right_to_left {
                from_style::turn(&mut paragraph);
            }
            paragraph
        };
        if let Some(Direct { paragraph, characters, .. }) = handed_down {
            // Cells say how their text stands.
            let alignment = properties.alignment;
            properties.override_with(&turned(paragraph));
            properties.alignment = alignment.or(properties.alignment);
            run.properties = characters;
        }
        if let Some(Direct { paragraph, characters, .. }) = self.unused_style(id, class, item.is_some()) {
            properties.override_with(&turned(paragraph));
            run.properties.override_with(&characters);
        }
        if let Some(Direct { paragraph, .. }) = &direct {
            properties.override_with(&turned(paragraph.clone()));
        }
        if indent != [0, 0] {
            let [start, end] = if is_right_to_left { [indent[1], indent[0]] } else { indent };
            let list = self.context().list.map_or(0, |(_, level, _)| STEP * (i32::from(level) + 1));
            properties.indent_start = Some(properties.indent_start.unwrap_or(list) + start);
            properties.indent_end = Some(properties.indent_end.unwrap_or(0) + end).filter(|end| *end != 0);
        }
        let context = self.context();
        self.mark_change(id, &mut properties);
        if item.is_some() {
            // The mark of an item looks as its text does.
            let CharacterProperties { colour, size, size_complex, font, font_complex, flags, .. } = run.properties;
            properties.mark.override_with(&CharacterProperties {
                colour,
                size,
                size_complex,
                font,
                font_complex,
                flags,
                ..CharacterProperties::default()
            });
        }
        self.part.out.open("w:p");
        print::paragraph(&properties, &self.names, &mut self.part.out);
        self.line.waiting.extend(self.bookmarks.in_contents(id));
        for number in std::mem::take(&mut self.line.waiting) {
            self.bookmark_start(number);
            self.line.ending.push(number);
        }
        self.line.paragraph = Paragraph::Open;
        (self.line.space, self.line.has_text) = (None, false);
        if let Some(direct) = direct {
            run.properties.override_with(&direct.characters);
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
        if let Some(kind) = self.line.note_mark.take() {
            self.note_mark(kind);
        }
        if let Some(Some(done)) = item {
            self.checkbox(done);
        }
    }

    /// Whether the style of a class is one that a program defined.
    fn is_of_program(&self, class: &ClassStyle) -> bool {
        let doc = self.doc;
        let name = class.place.and_then(|place| doc.styles.get(place)).map(|style| style.name.as_str());
        let known = name.and_then(|name| self.styles.definition_of(doc, name, Use::Paragraph));
        known.is_some_and(|known| !known.id.is_empty())
    }

    /// Says that the end of a paragraph was put in or taken out, where somebody did that.
    fn mark_change(&mut self, id: NodeId, properties: &mut ParagraphProperties) {
        let doc = self.doc;
        let Some(revision) = doc.revisions.get(id).filter(|_| doc.kind(id) == Kind::Paragraph) else { return };
        let is_deletion = takes_out(revision.kind);
        properties.mark.flags.set(if is_deletion { Flag::Deleted } else { Flag::Inserted }, true);
        let by = Annotation { author: revision.author.clone(), date: String::new() };
        properties.mark.changed_by = Some(self.names.number(by.name()));
        properties.mark.changed_at = date_and_time(&revision.date).map(|date| self.names.number(&date));
    }

    /// Whether a heading has a class that a program defined as a style for headings.
    fn is_defined_heading(&self, id: NodeId) -> bool {
        let doc = self.doc;
        matches!(doc.kind(id), Kind::Heading(_))
            && doc.node(id).has_attributes()
            && doc.attributes(id).classes.iter().any(|class| self.styles.is_heading(doc, doc.text(*class)))
    }

    /// What the style of a class sets that a paragraph does not have because word processors know it by another one. What a program
    /// defined, it has by that.
    fn unused_style(&mut self, id: NodeId, used: Option<usize>, is_item: bool) -> Option<Direct> {
        if self.doc.styles.is_empty() || is_container(self.doc.kind(id)) {
            return None;
        }
        let doc = self.doc;
        let place = self.described_style(id)?.place.filter(|place| Some(*place) != used)?;
        let style = doc.styles.get(place)?;
        if self.styles.is_of_program {
            return None;
        }
        // Where items stand is for their lists to say.
        let is_place =
            |property: Property| matches!(property, Property::MarginLeft | Property::MarginRight | Property::TextIndent);
        let given: StyleProperties =
            style.properties.iter().filter(|(property, _)| !(is_item && is_place(*property))).cloned().collect();
        let mut direct = Direct::default();
        from_style::apply(&given, &mut direct.paragraph, &mut direct.characters, &mut self.names);
        Some(direct)
    }

    /// What the blocks around give to a paragraph with a style, and how far they are set in.
    fn looks_of_blocks(&mut self, own: Option<&'static str>, class: Option<usize>) -> (Option<Direct>, [i32; 2]) {
        let Some(looks) = self.contexts.last().and_then(|context| context.looks.clone()) else { return (None, [0, 0]) };
        let style = class.and_then(|place| self.doc.styles.get(place)).map_or(&[][..], |style| &style.properties);
        // What is the size of a heading on its own is its size here, too.
        let is_sized = own.is_some_and(|own| own.starts_with("Heading") || own == "Title");
        let defined = own.and_then(|own| self.styles.defined(self.doc, own)).map_or(&[][..], |defined| defined);
        let is_set = |property: Property| {
            style.iter().chain(defined).any(|(known, _)| *known == property)
                || (is_sized && matches!(property, Property::FontSize | Property::FontWeight | Property::LineHeight))
        };
        // Lines around items that are set in by themselves would be boxes of their own.
        let in_list = self.contexts.last().is_some_and(|context| context.list.is_some());
        let is_given = |property: Property| !(is_set(property) || in_list && is_line(property));
        let given: StyleProperties = looks.properties.iter().filter(|(property, _)| is_given(*property)).cloned().collect();
        let mut direct = Direct::default();
        from_style::apply(&given, &mut direct.paragraph, &mut direct.characters, &mut self.names);
        // The style of the block holds where that is set in.
        let indent =
            if class.is_some() && looks.style.as_ref().map(|style| style.place) == Some(class) { [0, 0] } else { looks.indent };
        (Some(direct), indent)
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
        self.line.note_mark = None;
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
        self.no_syntax(if markup == Markup::Html { "raw HTML" } else { "raw markup" }, id);
        self.begin_paragraph(id, Some("HTMLPreformatted"));
        let raw = self.doc.text(raw);
        self.plain_run(raw.strip_suffix('\n').unwrap_or(raw));
        self.end_paragraph();
    }

    fn thematic_break(&mut self, id: NodeId) {
        self.begin_paragraph(id, Some("HorizontalLine"));
        self.end_paragraph();
    }

    /// What a cell holds is bold, where nothing else is said.
    pub(super) fn make_head(&mut self) {
        let Some(context) = self.contexts.last_mut() else { return };
        let looks = Rc::make_mut(context.looks.get_or_insert_default());
        if !looks.properties.iter().any(|(property, _)| *property == Property::FontWeight) {
            looks.properties.push((Property::FontWeight, Value::Keyword("bold")));
        }
    }

    /// Sets how the cells of a column stand, within a cell.
    pub(super) fn push_cell(&mut self, id: NodeId, align: Align) {
        let said = self.said_by(id, self.doc.kind(id));
        let outer = self.context();
        let mut context = Context {
            direction: outer.direction,
            language: outer.language,
            looks: outer.looks,
            alignment: alignment(align),
            ..Context::default()
        };
        // Where a table stands says nothing of what is in it.
        if let Some(looks) = context.looks.as_mut().filter(|looks| looks.indent != [0, 0] || looks.style.is_some()) {
            let looks = Rc::make_mut(looks);
            (looks.indent, looks.style) = ([0, 0], None);
        }
        context.take_over(said);
        self.contexts.push(context);
    }

    /// What a block says of what is in it.
    fn said_by(&mut self, id: NodeId, kind: Kind) -> Said {
        let attributes = self.doc.attributes(id);
        let (direction, language) = (attributes.direction, attributes.language);
        Said { direction, language, looks: self.handed_down(id, kind) }
    }

    /// The looks that a block gives to what is in it, with those of the blocks around.
    fn handed_down(&mut self, id: NodeId, kind: Kind) -> Option<Rc<HandedDown>> {
        if !is_container(kind) || !self.doc.node(id).has_attributes() {
            return None;
        }
        let looks = self.looks(id);
        let is_division = matches!(kind, Kind::Division(_) | Kind::BlockQuote | Kind::Details { .. });
        let style = if is_division { self.described_style(id) } else { None };
        let is_handed = |property: Property| is_inherited(property) || (is_division && is_ground(property));
        let mut down = self.contexts.last().and_then(|context| context.looks.as_deref()).cloned().unwrap_or_default();
        down.style = style.or(down.style);
        for (property, value) in &looks {
            if is_handed(*property) {
                down.properties.retain(|(known, _)| known != property);
                down.properties.push((*property, value.clone()));
            }
            let side = match property {
                Property::MarginLeft | Property::PaddingLeft => 0,
                Property::MarginRight | Property::PaddingRight => 1,
                _ => continue,
            };
            let has_lines = looks.iter().any(|(property, _)| matches!(property, Property::BorderLeft | Property::Border));
            let is_space_of_line = has_lines && matches!(property, Property::PaddingLeft | Property::PaddingRight);
            if is_division && !is_space_of_line {
                let twips = from_style::twips_of_page(value).unwrap_or(0);
                down.indent[side] = (down.indent[side] + twips).clamp(-7000, 7000);
            }
        }
        let is_something = !down.properties.is_empty() || down.indent != [0, 0] || down.style.is_some();
        is_something.then(|| Rc::new(down))
    }
}

/// Whether a block holds blocks.
const fn is_container(kind: Kind) -> bool {
    !kind.is_inline()
        && !matches!(
            kind,
            Kind::Paragraph
                | Kind::Heading(_)
                | Kind::Caption
                | Kind::Term
                | Kind::Summary
                | Kind::Preformatted
                | Kind::CodeBlock { .. }
        )
}

/// Whether a property is a line around something.
const fn is_line(property: Property) -> bool {
    matches!(
        property,
        Property::Border | Property::BorderTop | Property::BorderRight | Property::BorderBottom | Property::BorderLeft
    )
}

/// Whether a block gives a property to its paragraphs, because paragraphs are all that there is of it.
const fn is_ground(property: Property) -> bool {
    matches!(
        property,
        Property::BackgroundColor
            | Property::Border
            | Property::BorderTop
            | Property::BorderRight
            | Property::BorderBottom
            | Property::BorderLeft
            | Property::PaddingTop
            | Property::PaddingRight
            | Property::PaddingBottom
            | Property::PaddingLeft
    )
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
