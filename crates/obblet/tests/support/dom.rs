//! A page as a browser would see it: parsed by the standard's algorithm into a small tree that tests can look at.

use html5ever::interface::{ElementFlags, NodeOrText, QuirksMode, TreeSink};
use html5ever::tendril::{StrTendril, TendrilSink};
use html5ever::{Attribute, ParseOpts, QualName, local_name, ns};
use std::borrow::Cow;
use std::cell::{Ref, RefCell};

/// One node of the tree.
#[derive(Clone, Debug)]
pub struct DomNode {
    pub name: Option<QualName>,
    pub attributes: Vec<(String, String)>,
    pub text: String,
    pub parent: Option<usize>,
    pub children: Vec<usize>,
}

/// A parsed page or fragment.
#[derive(Debug, Default)]
pub struct Dom {
    pub nodes: Vec<DomNode>,
    pub errors: Vec<String>,
}

impl Dom {
    /// The name of an element; empty for text.
    pub fn name(&self, node: usize) -> &str {
        self.nodes[node].name.as_ref().map_or("", |name| &name.local)
    }

    pub fn attribute(&self, node: usize, name: &str) -> Option<&str> {
        self.nodes[node].attributes.iter().find(|(known, _)| known == name).map(|(_, value)| value.as_str())
    }

    /// All nodes in document order.
    pub fn order(&self) -> Vec<usize> {
        let (mut order, mut stack) = (Vec::new(), vec![0]);
        while let Some(node) = stack.pop() {
            order.push(node);
            stack.extend(self.nodes[node].children.iter().rev());
        }
        order
    }

    /// The text of a node and all below it.
    pub fn text(&self) -> String {
        self.order().into_iter().map(|node| self.nodes[node].text.as_str()).collect()
    }

    /// The text below a node.
    pub fn words_below(&self, top: usize) -> String {
        let (mut words, mut open) = (String::new(), vec![top]);
        while let Some(node) = open.pop() {
            words += &self.nodes[node].text;
            open.extend(self.nodes[node].children.iter().rev());
        }
        words
    }

    /// The tree on lines, with white space that means nothing left out.
    pub fn outline(&self) -> String {
        let mut out = String::new();
        let mut stack = vec![(0, 0, false)];
        while let Some((node, depth, keep)) = stack.pop() {
            let item = &self.nodes[node];
            let keep = keep || self.name(node) == "pre";
            if item.name.is_some() {
                let mut attributes = item.attributes.clone();
                attributes.sort();
                out.push_str(&format!("{:depth$}<{}", "", self.name(node)));
                for (name, value) in attributes {
                    out.push_str(&format!(" {name}={value:?}"));
                }
                out.push_str(">\n");
            } else if node != 0 {
                let text = if keep { item.text.clone() } else { item.text.split_whitespace().collect::<Vec<_>>().join(" ") };
                if !text.is_empty() {
                    out.push_str(&format!("{:depth$}{text:?}\n", ""));
                }
            }
            stack.extend(item.children.iter().rev().map(|&child| (child, depth + 1, keep)));
        }
        out
    }
}

/// Parses a fragment, as the content of a body.
pub fn fragment(html: &str) -> Dom {
    let sink = Sink::new();
    let name = QualName::new(None, ns!(html), local_name!("body"));
    html5ever::parse_fragment(sink, ParseOpts::default(), name, vec![], false).one(html)
}

/// Parses a page.
pub fn page(html: &str) -> Dom {
    html5ever::parse_document(Sink::new(), ParseOpts::default()).one(html)
}

struct Sink(RefCell<Dom>);

impl Sink {
    fn new() -> Self {
        let sink = Self(RefCell::default());
        sink.push(None, vec![], String::new());
        sink
    }

    fn push(&self, name: Option<QualName>, attributes: Vec<Attribute>, text: String) -> usize {
        let attributes = attributes.into_iter().map(|a| (a.name.local.to_string(), a.value.to_string())).collect();
        let nodes = &mut self.0.borrow_mut().nodes;
        nodes.push(DomNode { name, attributes, text, parent: None, children: vec![] });
        nodes.len() - 1
    }

    fn insert(&self, parent: usize, index: usize, child: NodeOrText<usize>) {
        let node = match child {
            NodeOrText::AppendNode(node) => {
                self.remove_from_parent(&node);
                node
            }
            NodeOrText::AppendText(text) => {
                let before = index.checked_sub(1).map(|before| self.0.borrow().nodes[parent].children[before]);
                if let Some(before) = before.filter(|&before| self.0.borrow().nodes[before].name.is_none()) {
                    self.0.borrow_mut().nodes[before].text.push_str(&text);
                    return;
                }
                self.push(None, vec![], text.to_string())
            }
        };
        let nodes = &mut self.0.borrow_mut().nodes;
        nodes[node].parent = Some(parent);
        let index = index.min(nodes[parent].children.len());
        nodes[parent].children.insert(index, node);
    }

    fn index(&self, node: usize) -> Option<(usize, usize)> {
        let nodes = &self.0.borrow().nodes;
        let parent = nodes[node].parent?;
        Some((parent, nodes[parent].children.iter().position(|&child| child == node)?))
    }
}

impl TreeSink for Sink {
    type Handle = usize;
    type Output = Dom;
    type ElemName<'a> = Ref<'a, QualName>;

    fn finish(self) -> Dom {
        self.0.into_inner()
    }
    fn parse_error(&self, message: Cow<'static, str>) {
        self.0.borrow_mut().errors.push(message.into_owned());
    }
    fn get_document(&self) -> usize {
        0
    }
    fn elem_name<'a>(&'a self, target: &'a usize) -> Ref<'a, QualName> {
        Ref::map(self.0.borrow(), |dom| dom.nodes[*target].name.as_ref().unwrap())
    }
    fn create_element(&self, name: QualName, attributes: Vec<Attribute>, _: ElementFlags) -> usize {
        self.push(Some(name), attributes, String::new())
    }
    fn create_comment(&self, _: StrTendril) -> usize {
        self.push(None, vec![], String::new())
    }
    fn create_pi(&self, _: StrTendril, _: StrTendril) -> usize {
        self.push(None, vec![], String::new())
    }
    fn append(&self, parent: &usize, child: NodeOrText<usize>) {
        let length = self.0.borrow().nodes[*parent].children.len();
        self.insert(*parent, length, child);
    }
    fn append_based_on_parent_node(&self, element: &usize, previous: &usize, child: NodeOrText<usize>) {
        if self.0.borrow().nodes[*element].parent.is_some() {
            self.append_before_sibling(element, child);
        } else {
            self.append(previous, child);
        }
    }
    fn append_doctype_to_document(&self, _: StrTendril, _: StrTendril, _: StrTendril) {}
    fn get_template_contents(&self, target: &usize) -> usize {
        *target
    }
    fn same_node(&self, x: &usize, y: &usize) -> bool {
        x == y
    }
    fn set_quirks_mode(&self, _: QuirksMode) {}
    fn append_before_sibling(&self, sibling: &usize, child: NodeOrText<usize>) {
        if let NodeOrText::AppendNode(node) = &child {
            self.remove_from_parent(node);
        }
        if let Some((parent, index)) = self.index(*sibling) {
            self.insert(parent, index, child);
        }
    }
    fn add_attrs_if_missing(&self, _: &usize, _: Vec<Attribute>) {}
    fn remove_from_parent(&self, target: &usize) {
        if let Some((parent, index)) = self.index(*target) {
            let nodes = &mut self.0.borrow_mut().nodes;
            nodes[parent].children.remove(index);
            nodes[*target].parent = None;
        }
    }
    fn reparent_children(&self, node: &usize, new_parent: &usize) {
        let children = self.0.borrow().nodes[*node].children.clone();
        for child in children {
            self.append(new_parent, NodeOrText::AppendNode(child));
        }
    }
}
