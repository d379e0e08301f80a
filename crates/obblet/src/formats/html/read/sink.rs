//! Tree construction straight into the model.

use super::super::depth_limit::{Counting, DEEPEST, is_void};
use super::element_state::{Origin, ParseState};
use super::elements;
use crate::document::{Document, Finding, Kind, NodeId, Place, SourceMap, Text};
use html5ever::interface::{ElementFlags, NodeOrText, QuirksMode, TreeSink};
use html5ever::tendril::StrTendril;
use html5ever::{Attribute, LocalName, Namespace, QualName, local_name, ns};
use std::borrow::Cow;
use std::cell::{Cell, Ref, RefCell};

/// The namespace of the attribute that says which node of the model a tag stands for. No tag of a source can have it.
pub(super) const MARK: &str = "obblet:node";

/// A node, and the place of its name.
#[derive(Clone, Copy, Debug)]
pub(super) struct Handle {
    pub(super) node: NodeId,
    name: u32,
}

/// What has no name: the document, comments.
const NAMELESS: u32 = 0;

/// Builds the model.
pub(super) struct Sink<'d> {
    state: RefCell<State<'d>>,
    /// The names of elements, as tree construction asks for them.
    names: RefCell<Vec<QualName>>,
    /// How many elements tree construction made, and how deep the last thing went in.
    pub(super) created: Cell<usize>,
    pub(super) depth: Cell<u32>,
    /// The place of what is being read: a line of a page, or the place of a piece of HTML.
    now: Cell<u32>,
    /// Where the token ends that is being read, and the elements whose end tags may still come.
    token_end: Cell<u32>,
    open: RefCell<Vec<Handle>>,
    is_page: bool,
}

struct State<'d> {
    doc: &'d mut Document,
    /// Nodes that tags stand for, and whether the tag has come already.
    marked: Vec<(NodeId, bool)>,
    parse: ParseState,
    /// For each name, how deep its element stands.
    depths: Vec<u32>,
    /// The nodes of names.
    nodes: Vec<NodeId>,
    root: NodeId,
}

/// A tree that was made, and what is known of its nodes.
pub(super) struct Parts<'d> {
    pub(super) doc: &'d mut Document,
    pub(super) root: NodeId,
    pub(super) state: ParseState,
    pub(super) names: Vec<(NodeId, QualName)>,
}

impl<'d> Sink<'d> {
    /// A sink for pieces of HTML.
    pub(super) fn new(doc: &'d mut Document) -> Self {
        Self::at(doc, SourceMap::UNKNOWN, false)
    }

    /// A sink for a page; `wants_parts` where its parts are asked for.
    pub(super) fn for_page(doc: &'d mut Document, wants_parts: bool) -> Self {
        let sink = Self::at(doc, 0, true);
        sink.state.borrow_mut().parse.wants_parts = wants_parts;
        sink
    }

    fn at(doc: &'d mut Document, place: u32, is_page: bool) -> Self {
        let root = doc.create(Kind::Division(crate::document::DivisionKind::Plain));
        Self {
            names: RefCell::new(vec![QualName::new(None, ns!(), local_name!(""))]),
            created: Cell::new(0),
            depth: Cell::new(0),
            now: Cell::new(place),
            token_end: Cell::new(place),
            open: RefCell::default(),
            is_page,
            state: RefCell::new(State {
                doc,
                marked: Vec::new(),
                parse: ParseState::default(),
                depths: vec![0],
                nodes: vec![root],
                root,
            }),
        }
    }

    fn name(&self, state: &mut State<'_>, node: NodeId, name: QualName) -> Handle {
        let names = &mut *self.names.borrow_mut();
        names.push(name);
        state.depths.push(0);
        state.nodes.push(node);
        Handle { node, name: names.len() as u32 - 1 }
    }

    /// The element in which the HTML is taken to stand.
    pub(super) fn context(&self) -> Handle {
        let state = &mut *self.state.borrow_mut();
        let body = state.doc.create(Kind::Span);
        self.name(state, body, QualName::new(None, ns!(html), local_name!("body")))
    }

    /// The text of a piece of HTML, which is read next.
    pub(super) fn begin_chunk(&self, id: NodeId, raw: Text) -> String {
        let state = &mut *self.state.borrow_mut();
        self.now.set(state.doc.node(id).offset());
        state.doc.text(raw).to_owned()
    }

    /// The attribute by which a tag stands for a node.
    pub(super) fn mark(&self, id: NodeId) -> Attribute {
        let marked = &mut self.state.borrow_mut().marked;
        marked.push((id, false));
        Attribute {
            name: QualName::new(None, Namespace::from(MARK), local_name!("name")),
            value: StrTendril::from((marked.len() - 1).to_string().as_str()),
        }
    }

    /// Puts a node to the end of one that is open, or of the whole, without tree construction.
    pub(super) fn put(&self, parent: Option<NodeId>, id: NodeId, depth: u32) {
        let state = &mut *self.state.borrow_mut();
        self.depth.set(depth);
        // The element that tree construction begins with stands in the root.
        let parent = parent.or_else(|| state.doc.node(state.root).last_child()).unwrap_or(state.root);
        state.doc.attach(parent, id);
    }

    pub(super) fn kind(&self, id: NodeId) -> Kind {
        self.state.borrow().doc.kind(id)
    }

    /// The words below a node.
    pub(super) fn words(&self, id: NodeId) -> String {
        self.state.borrow().doc.plain_text(id)
    }

    /// The place of the HTML that is being read.
    pub(super) fn here(&self) -> Place {
        let state = self.state.borrow();
        state.doc.source.place(state.doc.pool(), self.now.get())
    }

    pub(super) fn find(&self, finding: Finding) {
        self.state.borrow_mut().doc.push_finding(finding);
    }

    pub(super) fn into_parts(self) -> Parts<'d> {
        let state = self.state.into_inner();
        // Tree construction makes an html element around everything.
        let first = state.doc.children(state.root).find(|&child| state.parse.origin(child) != Origin::Elsewhere);
        let root = first.unwrap_or(state.root);
        let names = state.nodes.into_iter().zip(self.names.into_inner()).skip(1).collect();
        Parts { doc: state.doc, root, state: state.parse, names }
    }

    fn node_of(&self, state: &mut State<'_>, child: NodeOrText<Handle>, parent: Handle) -> Option<NodeId> {
        let depth = state.depths[parent.name as usize] + 1;
        self.depth.set(depth);
        match child {
            NodeOrText::AppendNode(handle) => {
                state.depths[handle.name as usize] = depth;
                Some(handle.node)
            }
            NodeOrText::AppendText(text) => {
                let text = state.doc.intern(&text);
                if let Some(last) = state.doc.node(parent.node).last_child()
                    && let Kind::Text(before) = state.doc.kind(last)
                    && before.end == text.start
                    && state.parse.origin(last) == Origin::Text
                {
                    state.doc.set_kind(last, Kind::Text(Text { start: before.start, end: text.end }));
                    return None;
                }
                let node = state.doc.create(Kind::Text(text));
                state.doc.set_offset(node, self.now.get());
                state.parse.set_origin(node, Origin::Text);
                Some(node)
            }
        }
    }
}

impl Counting for Sink<'_> {
    fn depth(&self) -> &Cell<u32> {
        &self.depth
    }

    fn created(&self) -> usize {
        self.created.get()
    }

    fn ends(&self, name: &LocalName) {
        let names = &*self.names.borrow();
        let open = &mut *self.open.borrow_mut();
        let found = open.iter().rev().take(DEEPEST as usize).position(|element| names[element.name as usize].local == *name);
        if let Some(back) = found {
            let at = open.len() - 1 - back;
            self.state.borrow_mut().doc.set_end(open[at].node, self.token_end.get());
            // What is in it is over, too; where that ended, no tag says.
            open.truncate(at);
        }
    }

    fn too_deep(&self) {
        let here = self.here();
        self.state.borrow_mut().parse.too_deep.add(|| here, "");
    }
}

impl<'d> TreeSink for Sink<'d> {
    type Handle = Handle;
    type Output = ();
    type ElemName<'a>
        = Ref<'a, QualName>
    where
        Self: 'a;

    fn finish(self) {}

    fn parse_error(&self, _: Cow<'static, str>) {}

    fn get_document(&self) -> Handle {
        Handle { node: self.state.borrow().root, name: NAMELESS }
    }

    #[inline]
    fn elem_name<'a>(&'a self, target: &'a Handle) -> Ref<'a, QualName> {
        Ref::map(self.names.borrow(), |names| &names[target.name as usize])
    }

    fn create_element(&self, name: QualName, attributes: Vec<Attribute>, _: ElementFlags) -> Handle {
        self.created.set(self.created.get() + 1);
        let state = &mut *self.state.borrow_mut();
        let mark = match attributes.as_slice() {
            [mark] if !state.marked.is_empty() && &*mark.name.ns == MARK => mark.value.parse::<usize>().ok(),
            _ => None,
        };
        let marked = mark.and_then(|mark| state.marked.get_mut(mark)).map(|(id, used)| (*id, std::mem::replace(used, true)));
        let node = match marked {
            Some((id, false)) => id,
            Some((id, true)) => {
                // Tree construction goes on with an element somewhere else.
                let kind = state.doc.kind(id);
                let copy = state.doc.create(kind);
                state.doc.copy_attributes(id, copy);
                if state.doc.node(copy).has_attributes() {
                    state.doc.attributes_mut(copy).id = None;
                }
                let offset = state.doc.node(id).offset();
                state.doc.set_offset(copy, offset);
                copy
            }
            None => {
                let node = state.doc.create(Kind::Span);
                state.doc.set_offset(node, self.now.get());
                let origin = elements::make(state.doc, &mut state.parse, node, &name, attributes);
                state.parse.set_origin(node, origin);
                node
            }
        };
        let is_void = self.is_page && is_void(&name.local);
        let handle = self.name(state, node, name);
        if is_void {
            state.doc.set_end(node, self.token_end.get());
        } else if self.is_page {
            self.open.borrow_mut().push(handle);
        }
        handle
    }

    fn create_comment(&self, _: StrTendril) -> Handle {
        self.get_document()
    }

    fn create_pi(&self, _: StrTendril, text: StrTendril) -> Handle {
        self.create_comment(text)
    }

    fn append(&self, parent: &Handle, child: NodeOrText<Handle>) {
        if matches!(&child, NodeOrText::AppendNode(handle) if handle.name == NAMELESS) {
            return;
        }
        let state = &mut *self.state.borrow_mut();
        if let Some(node) = self.node_of(state, child, *parent) {
            if state.doc.node(node).parent().is_some() {
                state.doc.detach(node);
            }
            state.doc.attach(parent.node, node);
        }
    }

    fn append_based_on_parent_node(&self, element: &Handle, previous: &Handle, child: NodeOrText<Handle>) {
        let has_parent = self.state.borrow().doc.node(element.node).parent().is_some();
        if has_parent {
            self.append_before_sibling(element, child);
        } else {
            self.append(previous, child);
        }
    }

    fn append_doctype_to_document(&self, _: StrTendril, _: StrTendril, _: StrTendril) {}

    fn get_template_contents(&self, target: &Handle) -> Handle {
        *target
    }

    fn same_node(&self, x: &Handle, y: &Handle) -> bool {
        x.node == y.node
    }

    fn set_quirks_mode(&self, _: QuirksMode) {}

    fn append_before_sibling(&self, sibling: &Handle, child: NodeOrText<Handle>) {
        if matches!(&child, NodeOrText::AppendNode(handle) if handle.name == NAMELESS) {
            return;
        }
        let state = &mut *self.state.borrow_mut();
        let before = state.doc.node(sibling.node).previous();
        let depth = state.depths[sibling.name as usize];
        match child {
            NodeOrText::AppendNode(handle) => {
                state.depths[handle.name as usize] = depth;
                state.doc.move_before(sibling.node, handle.node);
            }
            NodeOrText::AppendText(text) => {
                let text = state.doc.intern(&text);
                if let Some(before) = before
                    && let Kind::Text(first) = state.doc.kind(before)
                    && state.parse.origin(before) == Origin::Text
                {
                    let joined = state.doc.join(first, text);
                    state.doc.set_kind(before, Kind::Text(joined));
                    return;
                }
                let node = state.doc.create(Kind::Text(text));
                state.doc.set_offset(node, self.now.get());
                state.parse.set_origin(node, Origin::Text);
                state.doc.move_before(sibling.node, node);
            }
        }
    }

    fn add_attrs_if_missing(&self, target: &Handle, attributes: Vec<Attribute>) {
        let state = &mut *self.state.borrow_mut();
        let name = self.names.borrow()[target.name as usize].clone();
        elements::add_missing(&mut state.parse, &name, &attributes);
    }

    fn remove_from_parent(&self, target: &Handle) {
        self.state.borrow_mut().doc.detach(target.node);
    }

    fn reparent_children(&self, node: &Handle, new_parent: &Handle) {
        self.state.borrow_mut().doc.move_children(node.node, new_parent.node);
    }

    #[inline]
    fn set_current_line(&self, line: u64) {
        if self.is_page {
            self.now.set(line as u32);
            self.token_end.set((line >> 32) as u32);
        }
    }
}
