//! The tree that a browser makes of a source, with the lines of its elements and the errors on the way.

use crate::formats::html::depth_limit::{Counting, Guard};
use html5ever::interface::{ElementFlags, NodeOrText, QuirksMode, TreeSink};
use html5ever::tendril::StrTendril;
use html5ever::tokenizer::{BufferQueue, Tokenizer, TokenizerOpts};
use html5ever::tree_builder::{TreeBuilder, TreeBuilderOpts};
use html5ever::{Attribute, QualName, local_name, ns};
use std::borrow::Cow;
use std::cell::{Cell, Ref, RefCell};

/// A node: an element, or text where it has no name.
#[derive(Debug)]
pub(super) struct Node {
    pub(super) name: Option<QualName>,
    pub(super) attributes: Vec<(String, String)>,
    /// Whether a text node holds more than white space.
    pub(super) has_words: bool,
    pub(super) line: u32,
    pub(super) parent: Option<usize>,
    pub(super) children: Vec<usize>,
}

impl Node {
    /// The name of an element of HTML; empty for anything else.
    pub(super) fn element(&self) -> &str {
        self.name.as_ref().filter(|name| name.ns == ns!(html)).map_or("", |name| &name.local)
    }

    pub(super) fn is_element(&self) -> bool {
        self.name.is_some()
    }

    pub(super) fn attribute(&self, name: &str) -> Option<&str> {
        self.attributes.iter().find(|(known, _)| known == name).map(|(_, value)| value.as_str())
    }
}

/// The tree. Its first node is the document.
#[derive(Debug)]
pub(super) struct Tree {
    pub(super) nodes: Vec<Node>,
    /// Lines and messages of parse errors.
    pub(super) errors: Vec<(u32, String)>,
    pub(super) has_doctype: bool,
}

impl Tree {
    /// All nodes in the order of the document, each with how deep it stands.
    pub(super) fn order(&self) -> Vec<usize> {
        let (mut order, mut stack) = (Vec::with_capacity(self.nodes.len()), vec![0]);
        while let Some(node) = stack.pop() {
            order.push(node);
            stack.extend(self.nodes[node].children.iter().rev());
        }
        order
    }

    /// The nodes above a node, nearest first.
    pub(super) fn above(&self, node: usize) -> impl Iterator<Item = &Node> {
        std::iter::successors(self.nodes[node].parent, |&above| self.nodes[above].parent).map(|above| &self.nodes[above])
    }

    /// The elements among the children of a node.
    pub(super) fn elements(&self, node: usize) -> impl Iterator<Item = &Node> {
        self.nodes[node].children.iter().map(|&child| &self.nodes[child]).filter(|child| child.is_element())
    }
}

/// Parses a source.
pub(super) fn parse(source: &str, is_page: bool) -> Tree {
    let options = TreeBuilderOpts { scripting_enabled: false, exact_errors: false, ..TreeBuilderOpts::default() };
    let body = || QualName::new(None, ns!(html), local_name!("body"));
    let sink = Sink::new();
    let builder = if is_page {
        TreeBuilder::new(sink, options)
    } else {
        let context = sink.push(Some(body()), Vec::new(), false);
        TreeBuilder::new_for_fragment(sink, context, None, options)
    };
    let input = BufferQueue::default();
    input.push_back(StrTendril::from(source));
    let tokenizer = Tokenizer::new(Guard::new(builder), TokenizerOpts::default());
    while !input.is_empty() {
        let _ = tokenizer.feed(&input);
    }
    tokenizer.end();
    let mut tree = tokenizer.sink.into_builder().sink.finish();
    if !is_page {
        // What tree construction puts around a fragment stands for the body that the fragment will stand in.
        if let Some(root) = tree.nodes.iter_mut().find(|node| node.element() == "html") {
            root.name = Some(body());
        }
    }
    tree
}

/// What the parser says, for people.
fn in_words(message: &str) -> &'static str {
    const WORDS: [(&str, &str); 9] = [
        ("MarkupDeclarationOpen", "a comment is not written as one"),
        ("Bogus", "a comment is not written as one"),
        ("DOCTYPE", "the document type is not <!DOCTYPE html>, or not at the beginning"),
        ("Duplicate attribute", "a tag has the same attribute twice"),
        ("EOF", "the source ends within a tag, a comment or an element"),
        ("attribute", "an attribute is not written as one"),
        ("end tag", "an end tag ends nothing that is open"),
        ("Character reference", "a reference names no character"),
        ("Saw ", "a character stands where tags do not have it"),
    ];
    let found = WORDS.iter().find(|(part, _)| message.contains(part));
    found.map_or("a tag or a text stands where it may not, or an element is not closed", |(_, words)| words)
}

struct Sink {
    tree: RefCell<Tree>,
    depths: RefCell<Vec<u32>>,
    line: Cell<u32>,
    depth: Cell<u32>,
    made: Cell<usize>,
}

impl Sink {
    fn new() -> Self {
        let sink = Self {
            tree: RefCell::new(Tree { nodes: Vec::new(), errors: Vec::new(), has_doctype: false }),
            depths: RefCell::default(),
            line: Cell::new(1),
            depth: Cell::new(0),
            made: Cell::new(0),
        };
        sink.push(None, Vec::new(), false);
        sink
    }

    fn push(&self, name: Option<QualName>, attributes: Vec<Attribute>, has_words: bool) -> usize {
        let attributes = attributes
            .into_iter()
            .map(|attribute| {
                let prefix = attribute.name.prefix.as_ref().map_or_else(String::new, |prefix| format!("{prefix}:"));
                (format!("{prefix}{}", attribute.name.local), attribute.value.to_string())
            })
            .collect();
        let nodes = &mut self.tree.borrow_mut().nodes;
        nodes.push(Node { name, attributes, has_words, line: self.line.get(), parent: None, children: Vec::new() });
        self.depths.borrow_mut().push(0);
        nodes.len() - 1
    }

    fn insert(&self, parent: usize, index: usize, child: NodeOrText<usize>) {
        let node = match child {
            NodeOrText::AppendNode(node) => {
                self.remove_from_parent(&node);
                node
            }
            NodeOrText::AppendText(text) => {
                let has_words = !text.trim_ascii().is_empty();
                let nodes = &mut self.tree.borrow_mut().nodes;
                let before = index.checked_sub(1).and_then(|before| nodes[parent].children.get(before).copied());
                if let Some(before) = before.filter(|&before| nodes[before].name.is_none()) {
                    nodes[before].has_words |= has_words;
                    return;
                }
                nodes.push(Node {
                    name: None,
                    attributes: Vec::new(),
                    has_words,
                    line: self.line.get(),
                    parent: None,
                    children: Vec::new(),
                });
                self.depths.borrow_mut().push(0);
                nodes.len() - 1
            }
        };
        let depths = &mut *self.depths.borrow_mut();
        depths[node] = depths[parent] + 1;
        self.depth.set(depths[node]);
        let nodes = &mut self.tree.borrow_mut().nodes;
        nodes[node].parent = Some(parent);
        let index = index.min(nodes[parent].children.len());
        nodes[parent].children.insert(index, node);
    }
}

impl Counting for Sink {
    fn depth(&self) -> &Cell<u32> {
        &self.depth
    }

    fn created(&self) -> usize {
        self.made.get()
    }

    fn too_deep(&self) {
        let (line, errors) = (self.line.get(), &mut self.tree.borrow_mut().errors);
        if errors.last().is_none_or(|(last, _)| *last != line) {
            errors.push((line, "elements stand too deep to be looked at".to_owned()));
        }
    }
}

impl TreeSink for Sink {
    type Handle = usize;
    type Output = Tree;
    type ElemName<'a>
        = Ref<'a, QualName>
    where
        Self: 'a;

    fn finish(self) -> Tree {
        self.tree.into_inner()
    }

    fn parse_error(&self, message: Cow<'static, str>) {
        let line = self.line.get();
        let errors = &mut self.tree.borrow_mut().errors;
        // Ampersands that begin no reference are shown as they are.
        if message.starts_with("Invalid character reference") || errors.last().is_some_and(|(last, _)| *last == line) {
            return;
        }
        errors.push((line, in_words(&message).to_owned()));
    }

    fn get_document(&self) -> usize {
        0
    }

    fn elem_name<'a>(&'a self, target: &'a usize) -> Ref<'a, QualName> {
        // Only elements are asked for their names.
        static NONE: std::sync::LazyLock<QualName> = std::sync::LazyLock::new(|| QualName::new(None, ns!(), local_name!("")));
        Ref::map(self.tree.borrow(), |tree| tree.nodes[*target].name.as_ref().unwrap_or(&NONE))
    }

    fn create_element(&self, name: QualName, attributes: Vec<Attribute>, _: ElementFlags) -> usize {
        self.made.set(self.made.get() + 1);
        self.push(Some(name), attributes, false)
    }

    fn create_comment(&self, _: StrTendril) -> usize {
        self.push(None, Vec::new(), false)
    }

    fn create_pi(&self, _: StrTendril, text: StrTendril) -> usize {
        self.create_comment(text)
    }

    fn append(&self, parent: &usize, child: NodeOrText<usize>) {
        let index = self.tree.borrow().nodes[*parent].children.len();
        self.insert(*parent, index, child);
    }

    fn append_based_on_parent_node(&self, element: &usize, previous: &usize, child: NodeOrText<usize>) {
        if self.tree.borrow().nodes[*element].parent.is_some() {
            self.append_before_sibling(element, child);
        } else {
            self.append(previous, child);
        }
    }

    fn append_doctype_to_document(&self, _: StrTendril, _: StrTendril, _: StrTendril) {
        self.tree.borrow_mut().has_doctype = true;
    }

    fn get_template_contents(&self, target: &usize) -> usize {
        *target
    }

    fn same_node(&self, x: &usize, y: &usize) -> bool {
        x == y
    }

    fn set_quirks_mode(&self, _: QuirksMode) {}

    fn append_before_sibling(&self, sibling: &usize, child: NodeOrText<usize>) {
        let place = {
            let nodes = &self.tree.borrow().nodes;
            nodes[*sibling]
                .parent
                .map(|parent| (parent, nodes[parent].children.iter().rposition(|child| child == sibling).unwrap_or(0)))
        };
        if let Some((parent, index)) = place {
            self.insert(parent, index, child);
        }
    }

    fn add_attrs_if_missing(&self, target: &usize, attributes: Vec<Attribute>) {
        let node = &mut self.tree.borrow_mut().nodes[*target];
        for attribute in attributes {
            let name = attribute.name.local.to_string();
            if node.attributes.iter().all(|(known, _)| *known != name) {
                node.attributes.push((name, attribute.value.to_string()));
            }
        }
    }

    fn remove_from_parent(&self, target: &usize) {
        let nodes = &mut self.tree.borrow_mut().nodes;
        if let Some(parent) = nodes[*target].parent.take() {
            let children = &mut nodes[parent].children;
            // What is moved mostly stands at the end.
            if let Some(index) = children.iter().rposition(|child| child == target) {
                children.remove(index);
            }
        }
    }

    fn reparent_children(&self, node: &usize, new_parent: &usize) {
        let nodes = &mut self.tree.borrow_mut().nodes;
        let children = std::mem::take(&mut nodes[*node].children);
        for &child in &children {
            nodes[child].parent = Some(*new_parent);
        }
        nodes[*new_parent].children.extend(children);
    }

    fn set_current_line(&self, line: u64) {
        self.line.set(line as u32);
    }
}
