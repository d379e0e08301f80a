//! Paragraphs: where each goes and what it is there.

use super::super::model::numbering::{Level, Numbered};
use super::super::model::properties::{Borders, CharacterProperties, Flag, Name, ParagraphProperties};
use super::super::model::styles::{Role, StyleKind};
use super::open::{Context, OpenParagraph, ParagraphMarks};
use super::style_classes::Subject;
use super::tables::OpenTable;
use super::{Headers, HeadingNumbers, ListNumbers, Reader};
use crate::document::{Direction, DivisionKind, HintRole, Kind, NodeId, Revision, RevisionKind, Step};
use crate::refine::revisions::Revisions;

impl Reader<'_, '_> {
    pub(super) fn context(&self) -> &Context {
        self.contexts.last().unwrap_or(&self.outside)
    }

    pub(super) fn context_mut(&mut self) -> &mut Context {
        self.contexts.last_mut().unwrap_or(&mut self.outside)
    }

    /// An element of a paragraph begins; what it is, its properties say.
    pub(super) fn paragraph_opens(&mut self) {
        self.place.paragraphs += 1;
        self.place.paragraph = self.place.element;
        self.doc.source.add_paragraph(self.place.element);
        self.context_mut().paragraph = None;
    }

    /// The properties of a paragraph are known.
    pub(super) fn begin_paragraph(&mut self, properties: ParagraphProperties) {
        let in_cell = self.context().in_cell;
        let style = self.model.styles.of_paragraph(properties.style);
        let role = style.role;
        let mut base = self.model.styles.characters;
        let of_table = self.tables.last().filter(|_| in_cell).and_then(OpenTable::in_cell);
        if let Some(look) = of_table {
            base.override_with(&look.characters);
        }
        let of_table = of_table.and_then(|look| look.paragraph.as_deref());
        base.override_with(&style.characters);
        let heading = heading_of(&properties, style, in_cell);
        let numbering = self.model.numberings.of(properties.numbering, style);
        let right_to_left = properties.right_to_left.or(style.paragraph.right_to_left);
        let right_to_left =
            right_to_left.or(of_table.and_then(|table| table.right_to_left)).or(self.model.styles.paragraph.right_to_left);
        let alignment = properties.alignment.or(style.paragraph.alignment).or(of_table.and_then(|table| table.alignment));
        let indent = properties.indent_start.or(style.paragraph.indent_start);
        let continued = role == Role::ListContinued;
        let omitted = self.is_omitting();
        // Numbers run on in what is left out.
        let numbered = numbering.and_then(|(id, level)| self.model.numberings.count(id, level));
        let as_text = self.options.settings.list_numbers == ListNumbers::Text;
        let is_item = |numbered: &Numbered| !as_text || self.model.numberings.is_plain(numbered);
        let list = numbered.clone().filter(|numbered| heading.is_none() && is_item(numbered));
        let parent = match &list {
            Some(numbered) if !omitted => self.item(numbered, indent),
            _ => self.block_parent(role, indent, continued),
        };
        self.style_marker(parent, list.as_ref().filter(|_| !omitted), [&base, &properties.mark]);
        let node = self.doc.append_at(parent, Kind::Paragraph, self.place.paragraph);
        self.note_role(node, role, heading, in_cell);
        if right_to_left == Some(true) {
            self.doc.attributes_mut(node).direction = Some(Direction::RightToLeft);
            self.languages.right_to_left += 1;
        }
        if list.is_none() && heading.is_none() {
            self.trace_indent(node, indent, properties.first_line);
        }
        if in_cell && let Some(table) = self.tables.last_mut() {
            table.align(alignment, right_to_left == Some(true));
        }
        for anchor in std::mem::take(&mut self.anchors.waiting) {
            self.doc.move_into(node, anchor);
        }
        let mut number = numbered.filter(|_| list.is_none());
        let carried = self.context_mut().carry.take();
        let mut is_written = false;
        if let Some((carried, before)) = carried {
            self.go_on(carried, node);
            // The two are one paragraph, and have one number.
            is_written = before.is_some();
            if let Some(number) = number.as_ref().filter(|_| is_written) {
                self.model.numberings.take_back(number);
            }
            number = before.or(number);
        }
        self.apply_paragraph_style(node, &properties, heading, list.is_some());
        self.context_mut().paragraph = Some(OpenParagraph {
            node,
            begun: true,
            properties,
            base,
            role,
            heading,
            inline: Vec::new(),
            floor: node,
            boxes: Vec::new(),
            tabs: 0,
            marks: ParagraphMarks::empty(),
            size: None,
            space: false,
            number: number.clone(),
            item: list.filter(|_| !omitted),
        });
        self.begin_run(CharacterProperties::default());
        match number.filter(|_| !is_written) {
            Some(number) if heading.is_some() => self.heading_number(&number),
            Some(number) => self.number_as_text(&self.model.numberings.shown(&number)),
            None => {}
        }
    }

    /// Remembers headings, captions and subtitles, for what needs all of the document.
    fn note_role(&mut self, node: NodeId, role: Role, heading: Option<u8>, in_cell: bool) {
        if let Some(level) = heading {
            // A title stands above all headings; they go down one level when the document is done.
            self.doc.set_kind(node, Kind::Heading(level.clamp(1, 6)));
            self.headings.found.push((node, level));
        } else if role == Role::Caption {
            self.unfinished.captions.push(node);
        } else if role == Role::Term && self.doc.node(node).parent().map(|list| self.doc.kind(list)) == Some(Kind::TermList) {
            self.doc.set_kind(node, Kind::Term);
        } else if role == Role::Subtitle && self.headings.subtitle.is_none() && !in_cell {
            self.headings.subtitle = Some(node);
        }
    }

    fn number_as_text(&mut self, shown: &str) {
        if !shown.is_empty() {
            self.characters(shown);
            self.characters(" ");
        }
    }

    fn trace_indent(&mut self, node: NodeId, indent: Option<i32>, first_line: Option<i32>) {
        if indent.is_some_and(|indent| indent > 0) || first_line.is_some_and(|first| first < 0) {
            let trace = self.doc.layout_hints.at(node);
            trace.indent = indent.unwrap_or(0) as f32 / 20.0;
            trace.first_line = first_line.unwrap_or(0) as f32 / 20.0;
        }
    }

    /// Where a block goes that is no item of a list.
    fn block_parent(&mut self, role: Role, indent: Option<i32>, continued: bool) -> NodeId {
        self.context_mut().lists.suspend(indent, continued);
        if role != Role::Code {
            self.end_code();
        }
        if continued && let Some(item) = self.context().lists.item_at(indent) {
            self.context_mut().quote = None;
            return item;
        }
        match role {
            Role::Quote => self.run_of_blocks(Kind::BlockQuote),
            Role::Callout(callout) => self.run_of_blocks(Kind::Division(DivisionKind::Callout(callout))),
            Role::Term => self.run_of_blocks(Kind::TermList),
            // Without a term above it, what describes one is a paragraph.
            Role::TermDescription if self.context().quote.is_some_and(|open| self.doc.kind(open) == Kind::TermList) => {
                let list = self.run_of_blocks(Kind::TermList);
                match self.doc.node(list).last_child().filter(|&last| self.doc.kind(last) == Kind::TermDescription) {
                    Some(last) => last,
                    None => {
                        let description = self.doc.append_at(list, Kind::TermDescription, self.place.paragraph);
                        self.unfinished.descriptions.push(description);
                        description
                    }
                }
            }
            _ => {
                let context = self.context_mut();
                context.quote = None;
                context.container
            }
        }
    }

    /// What paragraphs stand in that follow each other: the quotation, the callout or the list of terms that is open, or a new one.
    fn run_of_blocks(&mut self, kind: Kind) -> NodeId {
        if let Some(open) = self.context().quote.filter(|&open| self.doc.kind(open) == kind) {
            return open;
        }
        let container = self.context().container;
        let open = self.doc.append_at(container, kind, self.place.paragraph);
        if kind == Kind::BlockQuote && self.options.fidelity.is_exact() {
            self.without_margins(open);
        }
        if matches!(kind, Kind::Division(_)) {
            self.unfinished.callouts.push(open);
        }
        self.context_mut().quote = Some(open);
        open
    }

    /// What an item or a table ends.
    pub(super) fn end_runs_of_blocks(&mut self) {
        self.end_code();
        self.context_mut().quote = None;
    }

    /// Puts the content of a paragraph before that of the next.
    fn go_on(&mut self, carried: NodeId, node: NodeId) {
        let first = self.doc.node(node).first_child();
        let children: Vec<NodeId> = self.doc.children(carried).collect();
        for child in children {
            match first {
                Some(first) => self.doc.move_before(first, child),
                None => self.doc.move_into(node, child),
            }
        }
        self.remove_block(carried);
    }

    /// Takes a block out, and the item and the list that held nothing else.
    pub(super) fn remove_block(&mut self, node: NodeId) {
        let parent = self.doc.node(node).parent();
        self.doc.detach(node);
        if let Some(item) = parent
            && matches!(self.doc.kind(item), Kind::ListItem { .. } | Kind::BlockQuote)
            && self.doc.node(item).first_child().is_none()
        {
            self.unfinished.emptied.push(item);
        }
    }

    pub(super) fn end_paragraph(&mut self) {
        // One without anything in it may still have a number.
        self.ensure_paragraph();
        let Some(paragraph) = self.context_mut().paragraph.take() else { return };
        let node = paragraph.node;
        self.doc.set_end(node, self.place.element);
        let is_empty = self.is_empty(node);
        let deleted = paragraph.properties.mark.flags.is(Flag::Deleted);
        let inserted = paragraph.properties.mark.flags.is(Flag::Inserted);
        let joins = match self.options.revisions {
            Revisions::Auto | Revisions::Recorded | Revisions::Accept => deleted,
            Revisions::Reject => inserted,
            Revisions::Keep => false,
        };
        if deleted || inserted {
            self.reviews.count += 1;
            if self.options.revisions == Revisions::Keep {
                let mark = &paragraph.properties.mark;
                let name = |name: Option<Name>| name.map(|name| self.model.names.name(name).to_owned()).unwrap_or_default();
                let kind = if deleted { RevisionKind::Deletion } else { RevisionKind::Insertion };
                let revision = Revision { kind, author: name(mark.changed_by), date: name(mark.changed_at) };
                self.doc.revisions.set(node, revision);
            }
        }
        if paragraph.properties.section.is_some() {
            self.sections.breaks += usize::from(self.options.settings.headers != Headers::Pages);
        }
        if joins || (paragraph.properties.drop_capital && !is_empty) {
            if paragraph.properties.drop_capital && self.options.fidelity.is_exact() {
                self.style_capital(node);
            }
            if paragraph.space {
                let space = self.doc.intern(" ");
                self.doc.append_joined(node, space, self.place.paragraph);
            }
            self.context_mut().carry = Some((node, paragraph.number));
        } else if is_empty {
            self.empty_paragraph(&paragraph);
        } else if paragraph.role == Role::Code && paragraph.heading.is_none() && !self.in_item(node) {
            self.context_mut().code.push(Some(node));
        } else {
            self.note_box(&paragraph);
            self.advise(&paragraph);
            self.note_numbered_heading(&paragraph);
            if paragraph.tabs > 0 && self.options.fidelity.is_exact() {
                self.style_tabs(node, &paragraph.properties);
            }
        }
        let stays = self.doc.node(node).parent().is_some();
        self.context_mut().lists.close(stays);
        let container = self.context().container;
        for text_box in paragraph.boxes {
            // Behind the paragraph, and in its item where it is one.
            let parent = self.doc.node(node).parent().filter(|&parent| parent != container);
            self.place_box(text_box, parent.unwrap_or(container));
        }
        if let Some(section) = &paragraph.properties.section {
            self.end_section(section);
        }
    }

    /// Whether nothing in a paragraph can be seen.
    pub(super) fn is_empty(&self, node: NodeId) -> bool {
        let mut at = self.doc.node(node).first_child();
        while let Some(child) = at {
            let kind = self.doc.kind(child);
            let is_nothing = match kind {
                Kind::Anchor | Kind::LineBreak => true,
                Kind::Text(text) => self.doc.text(text).trim_matches([' ', '\t', '\n', '\u{A0}']).is_empty(),
                kind if kind.is_leaf() => false,
                _ => self.is_empty_below(child),
            };
            if !is_nothing {
                return false;
            }
            at = self.doc.node(child).next();
        }
        true
    }

    fn is_empty_below(&self, top: NodeId) -> bool {
        self.doc.walk(top).all(|step| match step {
            Step::Enter(id) => match self.doc.kind(id) {
                Kind::Text(text) => self.doc.text(text).trim().is_empty(),
                kind => !kind.is_leaf() || kind == Kind::LineBreak,
            },
            Step::Leave(_) => true,
        })
    }

    /// A numbered paragraph in bold that begins a list may be a heading; whether it is, the end of the list tells.
    fn note_numbered_heading(&mut self, paragraph: &OpenParagraph) {
        let Some(numbered) =
            paragraph.item.as_ref().filter(|_| paragraph.marks.contains(ParagraphMarks::BOLD) && !self.context().in_cell)
        else {
            return;
        };
        let node = paragraph.node;
        let first = self.doc.node(node).parent().is_some_and(|item| self.doc.node(item).previous().is_none());
        let text = self.doc.plain_text(node);
        let is_ordered = self.model.numberings.level(numbered.instance, numbered.level).is_some_and(Level::is_ordered);
        if first && is_ordered && super::diagnostics::is_like_heading(&text) && self.is_all_bold(paragraph) {
            let number = self.model.numberings.shown(numbered);
            self.headings.numbered.push((node, number, numbered.level));
            self.context_mut().lists.may_be_heading();
        }
    }

    fn in_item(&self, node: NodeId) -> bool {
        self.doc.node(node).parent().is_some_and(|parent| matches!(self.doc.kind(parent), Kind::ListItem { .. }))
    }

    /// A paragraph with nothing in it is space, a line across the page, or an item that somebody left empty.
    fn empty_paragraph(&mut self, paragraph: &OpenParagraph) {
        let node = paragraph.node;
        let style = self.model.styles.of_paragraph(paragraph.properties.style);
        let mut borders = style.paragraph.borders;
        borders.override_with(&paragraph.properties.borders);
        // Paragraphs with the same border are one box (section 17.3.1.24): one within it, or at its end, is space.
        let in_box =
            borders.is_box() || self.doc.node(node).previous().is_some_and(|before| self.looks.boxes.is_last(before, &borders));
        let ruled = borders.is_ruled() && !in_box;
        if ruled && paragraph.heading.is_none() && !self.context().in_cell {
            if paragraph.properties.borders == Borders::default() {
                self.looks.boxes.ruled_by_style.extend(paragraph.properties.style.map(|style| (node, style)));
            }
            let mut at = self.doc.node(node).first_child();
            while let Some(child) = at {
                at = self.doc.node(child).next();
                self.doc.detach(child);
            }
            self.doc.set_kind(node, Kind::ThematicBreak);
            *self.doc.attributes_mut(node) = crate::document::Attributes::default();
            return;
        }
        if paragraph.role == Role::Code && !self.context().code.is_empty() {
            self.context_mut().code.push(None);
            self.doc.detach(node);
            return;
        }
        // Places that links lead to go to what comes next.
        let anchors: Vec<NodeId> = self
            .doc
            .walk(node)
            .filter_map(|step| match step {
                Step::Enter(id) if self.doc.kind(id) == Kind::Anchor => Some(id),
                _ => None,
            })
            .collect();
        for anchor in anchors {
            self.doc.detach(anchor);
            self.anchors.waiting.push(anchor);
        }
        let in_cell = self.context().in_cell;
        if !paragraph.marks.contains(ParagraphMarks::OMITS) && paragraph.boxes.is_empty() && !in_cell && !self.is_omitting() {
            self.diagnostics.empty_paragraph(self.place.paragraph, (self.place.part, self.place.paragraphs));
        }
        if let Some(parent) = self.doc.node(node).parent()
            && matches!(self.doc.kind(parent), Kind::ListItem { .. })
            && !paragraph.boxes.is_empty()
        {
            // The item holds a text box.
            self.doc.detach(node);
            return;
        }
        if self.options.fidelity.is_exact() {
            // A point is room that nobody sees, for what has to stand in a paragraph of its own.
            let height =
                Some(self.line_height(&paragraph.properties, &paragraph.base)).filter(|height| *height > 20).unwrap_or(0);
            match self.tables.last_mut().filter(|_| in_cell) {
                Some(table) => table.cell_space += height,
                None => self.looks.space_above += height,
            }
        }
        self.remove_block(node);
    }

    /// Lines of code become one block: of code where they are text alone, else of text whose space counts.
    pub(super) fn end_code(&mut self) {
        let mut lines = std::mem::take(&mut self.context_mut().code);
        while lines.last().is_some_and(Option::is_none) {
            lines.pop();
        }
        let Some(first) = lines.first().copied().flatten() else { return };
        if let Some(last) = lines.last().copied().flatten() {
            self.doc.set_end(first, self.doc.node(last).end());
        }
        let holds_more = |kind: Kind| matches!(kind, Kind::Image { .. } | Kind::NoteReference(_) | Kind::Link { .. });
        let is_text = lines.iter().flatten().all(|line| {
            self.doc.walk(*line).all(|step| match step {
                Step::Enter(id) => !holds_more(self.doc.kind(id)),
                Step::Leave(_) => true,
            })
        });
        if is_text {
            let mut code = String::new();
            for line in &lines {
                code.push_str(&line.map(|line| self.doc.plain_text(line)).unwrap_or_default());
                code.push('\n');
            }
            let code = self.doc.intern(&code);
            while let Some(child) = self.doc.node(first).first_child() {
                self.doc.detach(child);
            }
            let language =
                self.controls.open.iter().rev().find_map(|control| control.language.as_deref()).unwrap_or_default().to_owned();
            let info = self.doc.intern(&language);
            self.doc.set_kind(first, Kind::CodeBlock { code, info });
        } else {
            self.doc.set_kind(first, Kind::Preformatted);
            for line in &lines[1..] {
                let end = self.doc.intern("\n");
                self.doc.append_joined(first, end, self.place.paragraph);
                if let Some(line) = line {
                    self.doc.move_children(*line, first);
                }
            }
            self.doc.join_texts(first);
        }
        for line in lines[1..].iter().flatten() {
            self.doc.detach(*line);
        }
    }

    /// Ends what holds blocks.
    pub(super) fn end_context(&mut self) {
        self.end_code();
        if let Some(context) = self.contexts.pop() {
            if let Some(run) = context.run {
                self.run = run;
            }
            self.wraps = context.wraps;
        }
    }

    /// Begins something that holds blocks. The run around it goes on when it ends.
    pub(super) fn begin_context(&mut self, container: NodeId) -> &mut Context {
        let mut context = Context::of(container);
        context.run = Some(self.run.clone());
        context.wraps = std::mem::take(&mut self.wraps);
        context.is_omitted = self.is_omitting();
        self.contexts.push(context);
        self.context_mut()
    }

    /// Whether numbers of headings are text, whatever the text says about them.
    pub(super) fn keeps_heading_numbers(&self) -> bool {
        match self.options.settings.heading_numbers {
            HeadingNumbers::Keep => true,
            HeadingNumbers::Drop => false,
            HeadingNumbers::Auto => self.options.fidelity.is_exact(),
        }
    }

    /// The number of a heading, as the document shows it.
    fn heading_number(&mut self, numbered: &Numbered) {
        let shown = self.model.numberings.shown(numbered);
        if shown.is_empty() || shown.chars().all(|c| !c.is_alphanumeric()) {
            return;
        }
        if self.keeps_heading_numbers() {
            self.number_as_text(&shown);
        } else if let Some(paragraph) = &self.context().paragraph {
            let node = paragraph.node;
            self.headings.numbers.push((node, shown));
        }
    }

    /// Says what a paragraph is to the program that wrote it.
    pub(super) fn mark(&mut self, node: NodeId, part: HintRole) {
        self.doc.layout_hints.at(node).part = part;
    }

    fn apply_paragraph_style(&mut self, node: NodeId, properties: &ParagraphProperties, heading: Option<u8>, in_list: bool) {
        if !self.options.fidelity.keeps_names() {
            return self.mark_target(node, properties);
        }
        // What goes on with an item is set in by its list.
        let in_list = in_list || (self.options.fidelity.is_exact() && self.in_item(node));
        let subject = Subject { node, heading: heading.is_some(), in_list };
        self.style_paragraph(&subject, properties);
    }

    /// The style that a run names, where it is one of characters.
    pub(super) fn character_style(&self, id: Option<Name>) -> Option<&super::super::model::styles::Style> {
        self.model.styles.get(id, StyleKind::Character)
    }
}

/// The level of a heading, from 1; 0 for a title.
fn heading_of(properties: &ParagraphProperties, style: &super::super::model::styles::Style, in_cell: bool) -> Option<u8> {
    let mut heading = match properties.outline {
        Some(level) => (level < 9).then_some(level + 1),
        None => style.heading(),
    };
    // A level that was set by hand on text of a cell is there for the outline of the program alone.
    if in_cell && properties.outline.is_some() {
        heading = None;
    }
    if style.role == Role::Title && !in_cell {
        heading = Some(0);
    }
    heading
}
