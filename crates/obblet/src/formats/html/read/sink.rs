//! Tree construction straight into the model.

use super::elements;
use crate::document::{Document, Finding, Kind, NodeId, Place, Text};
use html5ever::interface::{ElementFlags, NodeOrText, QuirksMode, TreeSink};
use html5ever::tendril::StrTendril;
use html5ever::{Attribute, LocalName, Namespace, QualName, local_name, ns};
use std::borrow::Cow;
use std::cell::{Ref, RefCell};
use std::collections::HashMap;

/// The namespace of the attribute that says which node of the model a tag stands for. No tag of a source can have it.
pub(super) const MARK: &str = "obblet:node";

/// Builds the model.
pub(super) struct Sink<'d> {
    state: RefCell<State<'d>>,
}

struct State<'d> {
    doc: &'d mut Document,
    /// The names of elements, as tree construction asks for them.
    names: HashMap<NodeId, QualName>,
    /// Nodes that tags stand for, and whether the tag has come already.
    marked: Vec<(NodeId, bool)>,
    made: Made,
    root: NodeId,
    /// Where the HTML stands that is being read.
    offset: u32,
}

/// What came from HTML.
#[derive(Debug, Default)]
pub(super) struct Made {
    /// For each node that came from a tag, what is known of it beyond its kind.
    pub(super) elements: HashMap<NodeId, elements::Origin>,
    /// Text that came from HTML and still has its white space.
    pub(super) texts: std::collections::HashSet<NodeId>,
}

impl<'d> Sink<'d> {
    pub(super) fn new(doc: &'d mut Document) -> Self {
        let root = doc.create(Kind::Division(crate::document::DivisionKind::Plain));
        Self {
            state: RefCell::new(State {
                doc,
                names: HashMap::new(),
                marked: Vec::new(),
                made: Made::default(),
                root,
                offset: crate::document::SourceMap::UNKNOWN,
            }),
        }
    }

    /// The element in which the HTML is taken to stand.
    pub(super) fn context(&self) -> NodeId {
        let state = &mut *self.state.borrow_mut();
        let body = state.doc.create(Kind::Span);
        state.names.insert(body, QualName::new(None, ns!(html), local_name!("body")));
        body
    }

    /// The text of a piece of HTML, which is read next.
    pub(super) fn begin_chunk(&self, id: NodeId, raw: Text) -> String {
        let state = &mut *self.state.borrow_mut();
        state.offset = state.doc.node(id).offset();
        state.doc.text(raw).to_owned()
    }

    /// The attribute by which a tag stands for a node.
    pub(super) fn mark(&self, id: NodeId) -> Attribute {
        let marked = &mut self.state.borrow_mut().marked;
        marked.push((id, false));
        Attribute {
            name: QualName::new(None, Namespace::from(MARK), LocalName::from("n")),
            value: StrTendril::from((marked.len() - 1).to_string().as_str()),
        }
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
        state.doc.source.place(state.doc.pool(), state.offset)
    }

    pub(super) fn find(&self, finding: Finding) {
        self.state.borrow_mut().doc.find(finding);
    }

    pub(super) fn into_parts(self) -> (&'d mut Document, NodeId, Made) {
        let state = self.state.into_inner();
        // Tree construction makes an html element around everything.
        let top = state.doc.node(state.root).first_child().unwrap_or(state.root);
        (state.doc, top, state.made)
    }

    fn insert(&self, child: NodeOrText<NodeId>, put: impl FnOnce(&mut Document, NodeId)) {
        let state = &mut *self.state.borrow_mut();
        let node = match child {
            NodeOrText::AppendNode(node) => node,
            NodeOrText::AppendText(text) => {
                let text = state.doc.intern(&text);
                let node = state.doc.create(Kind::Text(text));
                state.doc.set_offset(node, state.offset);
                state.made.texts.insert(node);
                node
            }
        };
        put(state.doc, node);
    }
}

impl<'d> TreeSink for Sink<'d> {
    type Handle = NodeId;
    type Output = ();
    type ElemName<'a>
        = Ref<'a, QualName>
    where
        Self: 'a;

    fn finish(self) {}

    fn parse_error(&self, _: Cow<'static, str>) {}

    fn get_document(&self) -> NodeId {
        self.state.borrow().root
    }

    fn elem_name<'a>(&'a self, target: &'a NodeId) -> Ref<'a, QualName> {
        static NONE: QualName = QualName { prefix: None, ns: ns!(), local: local_name!("") };
        Ref::map(self.state.borrow(), |state| state.names.get(target).unwrap_or(&NONE))
    }

    fn create_element(&self, name: QualName, attributes: Vec<Attribute>, _: ElementFlags) -> NodeId {
        let state = &mut *self.state.borrow_mut();
        let mark =
            attributes.iter().find(|attribute| &*attribute.name.ns == MARK).and_then(|mark| mark.value.parse::<usize>().ok());
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
                state.doc.set_offset(node, state.offset);
                let origin = elements::make(state.doc, node, &name, &attributes);
                state.made.elements.insert(node, origin);
                node
            }
        };
        state.names.insert(node, name);
        node
    }

    fn create_comment(&self, _: StrTendril) -> NodeId {
        self.state.borrow_mut().doc.create(Kind::Span)
    }

    fn create_pi(&self, _: StrTendril, _: StrTendril) -> NodeId {
        self.state.borrow_mut().doc.create(Kind::Span)
    }

    fn append(&self, parent: &NodeId, child: NodeOrText<NodeId>) {
        self.insert(child, |doc, node| doc.move_into(*parent, node));
    }

    fn append_based_on_parent_node(&self, element: &NodeId, previous: &NodeId, child: NodeOrText<NodeId>) {
        let has_parent = self.state.borrow().doc.node(*element).parent().is_some();
        if has_parent {
            self.append_before_sibling(element, child);
        } else {
            self.append(previous, child);
        }
    }

    fn append_doctype_to_document(&self, _: StrTendril, _: StrTendril, _: StrTendril) {}

    fn get_template_contents(&self, target: &NodeId) -> NodeId {
        *target
    }

    fn same_node(&self, x: &NodeId, y: &NodeId) -> bool {
        x == y
    }

    fn set_quirks_mode(&self, _: QuirksMode) {}

    fn append_before_sibling(&self, sibling: &NodeId, child: NodeOrText<NodeId>) {
        self.insert(child, |doc, node| doc.move_before(*sibling, node));
    }

    fn add_attrs_if_missing(&self, _: &NodeId, _: Vec<Attribute>) {}

    fn remove_from_parent(&self, target: &NodeId) {
        self.state.borrow_mut().doc.detach(*target);
    }

    fn reparent_children(&self, node: &NodeId, new_parent: &NodeId) {
        self.state.borrow_mut().doc.move_children(*node, *new_parent);
    }
}
