//! Making a tree of which HTML can say every part.
//!
//! The tree is walked from the top; each node, when its turn comes, stands where it may, and puts its children where they
//! may stand: in a list what is no item becomes one, in a paragraph a block splits it, formatting around blocks goes to the
//! text within them. Nodes that are made or moved have their turn later. How many are made is bounded.

use super::content_model;
use crate::document::{CellKind, DivisionKind, Document, Finding, Kind, ListKind, Marker, NodeId, RowGroupKind, Step};

/// Formatting is copied to the text within blocks up to so many times for each node of the tree, and then left out.
const MOST_COPIES: usize = 4;

/// Puts every node where HTML lets it stand.
pub(super) fn repair(doc: &mut Document) {
    let mut repair =
        Repair { copies_left: doc.node_count() * MOST_COPIES, changed: None, contains_block: blocks_within(doc), doc };
    let roots: Vec<NodeId> = repair.doc.roots();
    for root in roots {
        repair.tree(root);
    }
    let changed = repair.changed;
    super::table_grid::normalize(doc);
    if let Some(node) = changed {
        let place = doc.place(node);
        doc.push_finding(
            Finding::changed("html.structure", "elements that HTML does not allow where they were have been moved")
                .at(place)
                .hint("this is the first of them; compare the result with the source"),
        );
    }
}

struct Repair<'d> {
    doc: &'d mut Document,
    copies_left: usize,
    /// The first node that could not stay as it was.
    changed: Option<NodeId>,
    /// For each node that was there at first and stands within a line: whether a block is below it.
    contains_block: Vec<bool>,
}

/// For each node, whether a block is below it with nothing but parts of a line between.
fn blocks_within(doc: &Document) -> Vec<bool> {
    let mut within = vec![false; doc.node_count()];
    for (id, node) in doc.nodes() {
        if node.kind().is_inline() {
            continue;
        }
        let mut at = doc.node(id).parent();
        while let Some(above) = at.filter(|&above| doc.kind(above).is_inline() && !within[above.index()]) {
            within[above.index()] = true;
            at = doc.node(above).parent();
        }
    }
    within
}

impl Repair<'_> {
    fn tree(&mut self, root: NodeId) {
        let mut next = Some(root);
        while let Some(id) = next {
            self.repair_children(id);
            next = self.after(id, root);
        }
    }

    /// The node to look at next: the first child, or what follows.
    fn after(&self, id: NodeId, root: NodeId) -> Option<NodeId> {
        if let Some(child) = self.doc.node(id).first_child() {
            return Some(child);
        }
        let mut at = id;
        while at != root {
            if let Some(next) = self.doc.node(at).next() {
                return Some(next);
            }
            at = self.doc.node(at).parent()?;
        }
        None
    }

    fn note(&mut self, id: NodeId) {
        self.changed.get_or_insert(id);
    }

    fn repair_children(&mut self, id: NodeId) {
        let kind = self.doc.kind(id);
        if kind.is_leaf() {
            while let Some(child) = self.doc.node(id).first_child() {
                self.note(child);
                self.doc.move_after(id, child);
            }
            return;
        }
        match kind {
            Kind::List(_) => self.wrap_others(id, Kind::ListItem { checked: None }),
            Kind::TermList => self.repair_terms(id),
            Kind::Table => self.repair_table(id),
            Kind::RowGroup(_) => self.wrap_others(id, Kind::Row),
            Kind::Row => self.repair_row(id),
            Kind::Details { .. } => self.repair_details(id),
            Kind::Figure => self.repair_figure(id),
            _ => {}
        }
        if !content_model::holds_flow(kind) && !content_model::holds_phrasing(kind) {
            return;
        }
        let mut at = self.doc.node(id).first_child();
        while let Some(child) = at {
            at = self.repair_child(id, child);
        }
        if content_model::holds_phrasing(self.doc.kind(id)) {
            self.lift_blocks(id);
        }
    }

    /// Puts one child of a node that holds blocks or text where it may stand. Returns the next child to look at.
    fn repair_child(&mut self, parent: NodeId, child: NodeId) -> Option<NodeId> {
        let (parent_kind, kind) = (self.doc.kind(parent), self.doc.kind(child));
        if kind.is_inline() && self.holds_block(child) {
            return self.push_down_all(parent, child);
        }
        // Formatting that went may have left a second one of these, or one in the middle.
        let misplaced = match kind {
            Kind::Summary => self.doc.node(child).previous().is_some(),
            Kind::Caption => !content_model::caption_fits(self.doc, child),
            _ => false,
        };
        if !misplaced && content_model::may_hold(parent_kind, kind) {
            return self.doc.node(child).next();
        }
        self.note(child);
        match kind {
            Kind::Root | Kind::Note => self.doc.set_kind(child, Kind::Division(DivisionKind::Plain)),
            Kind::Caption | Kind::Summary => self.doc.set_kind(child, Kind::Division(DivisionKind::Plain)),
            Kind::ListItem { .. } => return Some(self.gather(child, Kind::List(PLAIN_LIST))),
            Kind::Term | Kind::TermDescription => return Some(self.gather(child, Kind::TermList)),
            Kind::RowGroup(_) | Kind::Row => return Some(self.gather(child, Kind::Table)),
            Kind::Cell(_) => return Some(self.gather(child, Kind::Row)),
            Kind::TextLevel(_) => self.doc.set_kind(child, Kind::Span),
            Kind::NoteReference(_) => {
                // A mark within a link: it goes behind the link.
                let next = self.doc.node(child).next();
                self.doc.move_after(parent, child);
                return next;
            }
            Kind::Heading(_) if content_model::holds_flow(parent_kind) => {
                self.doc.set_kind(child, Kind::Paragraph);
                let strong = self.doc.create(Kind::Strong);
                self.wrap_contents(child, strong);
            }
            _ if parent_kind == Kind::Division(DivisionKind::Address) => {
                self.doc.set_kind(parent, Kind::Division(DivisionKind::Plain));
            }
            Kind::Paragraph | Kind::Division(_) | Kind::Heading(_) if !matches!(parent_kind, Kind::Paragraph) => {
                return self.open_in_place(child);
            }
            _ => return self.doc.node(child).next(),
        }
        Some(child)
    }

    /// Puts a node, and those of its kind right behind it, into a new node that may hold them, and returns that.
    fn gather(&mut self, first: NodeId, kind: Kind) -> NodeId {
        let wrapper = self.doc.wrap(first, kind);
        while let Some(next) = self.doc.node(wrapper).next().filter(|&next| {
            let next = self.doc.kind(next);
            !next.is_inline() && content_model::may_hold(kind, next) && !matches!(next, Kind::Caption)
        }) {
            self.doc.move_into(wrapper, next);
        }
        wrapper
    }

    /// Blocks in a node that holds only text follow it, and the text between them goes into nodes like it.
    fn lift_blocks(&mut self, id: NodeId) {
        let kind = self.doc.kind(id);
        let Some(first) = self.doc.children(id).find(|&child| !content_model::may_hold(kind, self.doc.kind(child))) else {
            return;
        };
        let moved: Vec<NodeId> = std::iter::successors(Some(first), |&child| self.doc.node(child).next()).collect();
        let mut last = id;
        if kind == Kind::Term {
            // What a term can't hold describes it.
            let description = self.doc.create(Kind::TermDescription);
            self.doc.move_after(id, description);
            for child in moved {
                self.doc.move_into(description, child);
            }
            return;
        }
        let (mut run, mut lifted) = (None, Vec::new());
        for child in moved {
            if !content_model::may_hold(kind, self.doc.kind(child)) {
                self.doc.move_after(last, child);
                lifted.push(child);
                (last, run) = (child, None);
                continue;
            }
            let into = run.unwrap_or_else(|| {
                let copy = self.doc.create(if kind == Kind::Summary { Kind::Paragraph } else { kind });
                self.doc.set_offset(copy, self.doc.node(child).offset());
                self.doc.move_after(last, copy);
                copy
            });
            self.doc.move_into(into, child);
            (last, run) = (into, Some(into));
        }
        // What was lifted stands in a node now whose turn is over.
        if let Some(above) = self.doc.node(id).parent() {
            for child in lifted {
                self.repair_child(above, child);
            }
            // A heading may stand in a summary, what was in it may not.
            if content_model::holds_phrasing(self.doc.kind(above)) {
                self.lift_blocks(above);
            }
        }
        if kind == Kind::Paragraph && self.doc.node(id).first_child().is_none() && self.doc.attributes(id).is_empty() {
            // Nothing is left of it. A span without attributes leaves no trace.
            self.doc.set_kind(id, Kind::Span);
        }
    }

    /// Puts the text of a block in its place, with a space on each side.
    fn open_in_place(&mut self, block: NodeId) -> Option<NodeId> {
        let first = self.doc.node(block).first_child();
        if self.doc.node(block).previous().is_some() && first.is_some() {
            let space = self.doc.create(Kind::SoftBreak);
            self.doc.move_before(block, space);
        }
        let next = self.doc.node(block).next();
        if let (Some(next), Some(_)) = (next, first) {
            let space = self.doc.create(Kind::SoftBreak);
            self.doc.move_before(next, space);
        }
        if let Some(id) = self.doc.attributes(block).id {
            // Links lead to it still.
            let place = self.doc.create(Kind::Anchor);
            self.doc.attributes_mut(place).id = Some(id);
            self.doc.move_before(block, place);
        }
        self.doc.unwrap(block);
        first.or(next)
    }

    /// Formatting in formatting around blocks, the innermost first. Returns the first of what then stands here.
    fn push_down_all(&mut self, parent: NodeId, outermost: NodeId) -> Option<NodeId> {
        let before = self.doc.node(outermost).previous();
        let mut walk = self.doc.walk(outermost);
        let mut wrappers = Vec::new();
        while let Some(step) = walk.next() {
            match step {
                Step::Enter(id) if !self.doc.kind(id).is_inline() || !self.holds_block(id) => walk.skip_children(id),
                Step::Leave(id) if self.doc.kind(id).is_inline() && self.holds_block(id) => wrappers.push(id),
                _ => {}
            }
        }
        for wrapper in wrappers {
            self.push_down(wrapper);
        }
        match before {
            Some(before) => self.doc.node(before).next(),
            None => self.doc.node(parent).first_child(),
        }
    }

    /// Formatting around blocks: it goes around the text on either side of them, and around what they hold.
    fn push_down(&mut self, wrapper: NodeId) {
        self.note(wrapper);
        let kind = self.doc.kind(wrapper);
        let plain = matches!(kind, Kind::Span | Kind::Anchor);
        let children: Vec<NodeId> = self.doc.children(wrapper).collect();
        let mut run: Option<NodeId> = None;
        let mut blocks = Vec::new();
        for child in children {
            let is_text = self.doc.kind(child).is_inline() && !self.holds_block(child);
            if !is_text {
                run = None;
                self.doc.move_before(wrapper, child);
                blocks.push(child);
                continue;
            }
            let into = match run {
                Some(run) => run,
                None => {
                    let Some(copy) = self.copy(wrapper) else {
                        self.doc.move_before(wrapper, child);
                        continue;
                    };
                    self.doc.move_before(wrapper, copy);
                    run = Some(copy);
                    copy
                }
            };
            self.doc.move_into(into, child);
        }
        self.doc.detach(wrapper);
        if !plain || !self.doc.attributes(wrapper).is_empty() {
            self.format_within(wrapper, blocks);
        }
    }

    fn copy(&mut self, wrapper: NodeId) -> Option<NodeId> {
        self.copies_left = self.copies_left.checked_sub(1)?;
        let copy = self.doc.create(self.doc.kind(wrapper));
        self.doc.set_offset(copy, self.doc.node(wrapper).offset());
        self.doc.copy_attributes(wrapper, copy);
        if self.doc.node(copy).has_attributes() {
            // An id stays unique: the first copy keeps it.
            self.doc.attributes_mut(wrapper).id = None;
        }
        Some(copy)
    }

    /// Wraps what blocks hold.
    fn format_within(&mut self, wrapper: NodeId, mut blocks: Vec<NodeId>) {
        while let Some(block) = blocks.pop() {
            let kind = self.doc.kind(block);
            let holds_text = content_model::holds_flow(kind) || content_model::holds_phrasing(kind);
            if !holds_text || matches!(kind, Kind::Details { .. } | Kind::Figure) {
                blocks.extend(self.doc.children(block));
                continue;
            }
            if self.doc.node(block).first_child().is_none() {
                continue;
            }
            let Some(copy) = self.copy(wrapper) else { return };
            self.wrap_contents(block, copy);
        }
    }

    /// Puts all that a node holds into `wrapper`, and that into the node.
    fn wrap_contents(&mut self, id: NodeId, wrapper: NodeId) {
        let has_block = self.doc.children(id).any(|child| !self.doc.kind(child).is_inline() || self.holds_block(child));
        self.doc.move_children(id, wrapper);
        self.doc.move_into(id, wrapper);
        if self.contains_block.len() <= wrapper.index() {
            self.contains_block.resize(wrapper.index() + 1, false);
        }
        self.contains_block[wrapper.index()] = has_block;
    }

    fn holds_block(&self, id: NodeId) -> bool {
        self.contains_block.get(id.index()).copied().unwrap_or(false)
    }

    /// Wraps runs of children that a list or a group of rows can't hold.
    fn wrap_others(&mut self, id: NodeId, kind: Kind) {
        let children: Vec<NodeId> = self.doc.children(id).collect();
        let mut run: Option<NodeId> = None;
        for child in children {
            if std::mem::discriminant(&self.doc.kind(child)) == std::mem::discriminant(&kind) {
                run = None;
                continue;
            }
            self.note(child);
            // A list beside the items of a list belongs to the item before it.
            let before = self.doc.node(child).previous().filter(|&before| {
                matches!((self.doc.kind(child), self.doc.kind(before)), (Kind::List(_), Kind::ListItem { .. }))
            });
            match run.or(before) {
                Some(run) => self.doc.move_into(run, child),
                None => run = Some(self.doc.wrap(child, kind)),
            }
        }
    }

    /// Terms have descriptions, and descriptions have terms.
    fn repair_terms(&mut self, id: NodeId) {
        let children: Vec<NodeId> = self.doc.children(id).collect();
        let mut run: Option<NodeId> = None;
        for child in children {
            if matches!(self.doc.kind(child), Kind::Term | Kind::TermDescription) {
                run = None;
                continue;
            }
            self.note(child);
            match run {
                Some(run) => self.doc.move_into(run, child),
                None => run = Some(self.doc.wrap(child, Kind::TermDescription)),
            }
        }
        if let Some(first) = self.doc.node(id).first_child()
            && self.doc.kind(first) == Kind::TermDescription
        {
            let term = self.doc.create(Kind::Term);
            self.doc.move_before(first, term);
        }
        match self.doc.node(id).last_child() {
            Some(last) if self.doc.kind(last) == Kind::Term => {
                self.doc.append(id, Kind::TermDescription);
            }
            Some(_) => {}
            None => self.doc.set_kind(id, Kind::Division(DivisionKind::Plain)),
        }
    }

    /// A caption comes first, and there is one; what is no part of a table goes before it.
    fn repair_table(&mut self, id: NodeId) {
        let children: Vec<NodeId> = self.doc.children(id).collect();
        let mut caption = None;
        let mut cells: Option<NodeId> = None;
        for child in children {
            match self.doc.kind(child) {
                Kind::Caption if caption.is_none() => {
                    caption = Some(child);
                    if let Some(first) = self.doc.node(id).first_child().filter(|&first| first != child) {
                        self.note(child);
                        self.doc.move_before(first, child);
                    }
                }
                Kind::RowGroup(_) | Kind::Row => cells = None,
                Kind::Cell(_) => {
                    self.note(child);
                    match cells {
                        Some(row) => self.doc.move_into(row, child),
                        None => cells = Some(self.doc.wrap(child, Kind::Row)),
                    }
                }
                _ => {
                    self.note(child);
                    if self.doc.kind(child) == Kind::Caption {
                        self.doc.set_kind(child, Kind::Division(DivisionKind::Plain));
                    }
                    // It stands where the walk has been; a wrapper that the walk has yet to see takes it.
                    let row = self.doc.create(Kind::Row);
                    self.doc.move_before(child, row);
                    let cell = self.doc.append(row, Kind::Cell(CellKind::PLAIN));
                    self.doc.move_into(cell, child);
                }
            }
        }
        self.order_groups(id);
        super::table_grid::close_covered_rows(self.doc, id);
    }

    /// One head before everything, one foot behind it.
    fn order_groups(&mut self, id: NodeId) {
        let children: Vec<NodeId> = self.doc.children(id).collect();
        let (mut head, mut foot, mut before) = (false, None, false);
        for child in children {
            match self.doc.kind(child) {
                Kind::RowGroup(RowGroupKind::Head) if head || before => {
                    self.note(child);
                    self.doc.set_kind(child, Kind::RowGroup(RowGroupKind::Body));
                    before = true;
                }
                Kind::RowGroup(RowGroupKind::Head) => head = true,
                Kind::RowGroup(RowGroupKind::Foot) if foot.is_some() => {
                    self.doc.set_kind(child, Kind::RowGroup(RowGroupKind::Body));
                    before = true;
                }
                Kind::RowGroup(RowGroupKind::Foot) => foot = Some(child),
                Kind::Caption => {}
                _ => before = true,
            }
        }
        if let Some(foot) = foot
            && self.doc.node(foot).next().is_some()
        {
            self.doc.move_into(id, foot);
        }
    }

    fn repair_row(&mut self, id: NodeId) {
        self.wrap_others(id, Kind::Cell(CellKind::PLAIN));
        if self.doc.node(id).first_child().is_none() {
            self.doc.append(id, Kind::Cell(CellKind::PLAIN));
        }
    }

    /// A summary comes first, and there is one.
    fn repair_details(&mut self, id: NodeId) {
        let summary = self.doc.children(id).find(|&child| self.doc.kind(child) == Kind::Summary);
        let summary = summary.unwrap_or_else(|| {
            let summary = self.doc.create(Kind::Summary);
            self.doc.append_text(summary, "Details");
            summary
        });
        match self.doc.node(id).first_child() {
            Some(first) if first != summary => self.doc.move_before(first, summary),
            Some(_) => {}
            None => self.doc.move_into(id, summary),
        }
        let others: Vec<NodeId> = self.doc.children(id).skip(1).filter(|&child| self.doc.kind(child) == Kind::Summary).collect();
        for other in others {
            self.doc.set_kind(other, Kind::Paragraph);
        }
    }

    /// A caption comes first or last, and there is one.
    fn repair_figure(&mut self, id: NodeId) {
        let captions: Vec<NodeId> = self.doc.children(id).filter(|&child| self.doc.kind(child) == Kind::Caption).collect();
        for (index, &caption) in captions.iter().enumerate() {
            if index > 0 {
                self.note(caption);
                self.doc.set_kind(caption, Kind::Division(DivisionKind::Plain));
            } else if self.doc.node(caption).previous().is_some() && self.doc.node(caption).next().is_some() {
                self.doc.move_into(id, caption);
            }
        }
    }
}

const PLAIN_LIST: ListKind = ListKind { ordered: false, tight: false, marker: Marker::Plain, start: 1 };
