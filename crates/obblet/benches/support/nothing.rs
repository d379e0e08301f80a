//! The floor of all work on HTML: parsing it by the standard's algorithm and keeping nothing.

use html5ever::interface::{ElementFlags, NodeOrText, QuirksMode, TreeSink};
use html5ever::tendril::{StrTendril, TendrilSink};
use html5ever::{Attribute, ParseOpts, QualName};
use std::borrow::Cow;
use std::cell::RefCell;

/// A tree sink that knows the names of elements, as it must, and stores nothing else.
#[derive(Default)]
pub(crate) struct Nothing(RefCell<Vec<QualName>>);

impl TreeSink for Nothing {
    type Handle = usize;
    type Output = usize;
    type ElemName<'a> = std::cell::Ref<'a, QualName>;

    fn finish(self) -> usize {
        self.0.into_inner().len()
    }
    fn parse_error(&self, _: Cow<'static, str>) {}
    fn get_document(&self) -> usize {
        usize::MAX
    }
    fn elem_name<'a>(&'a self, target: &'a usize) -> std::cell::Ref<'a, QualName> {
        std::cell::Ref::map(self.0.borrow(), |names| &names[*target])
    }
    fn create_element(&self, name: QualName, _: Vec<Attribute>, _: ElementFlags) -> usize {
        let names = &mut self.0.borrow_mut();
        names.push(name);
        names.len() - 1
    }
    fn create_comment(&self, _: StrTendril) -> usize {
        usize::MAX
    }
    fn create_pi(&self, _: StrTendril, _: StrTendril) -> usize {
        usize::MAX
    }
    fn append(&self, _: &usize, _: NodeOrText<usize>) {}
    fn append_based_on_parent_node(&self, _: &usize, _: &usize, _: NodeOrText<usize>) {}
    fn append_doctype_to_document(&self, _: StrTendril, _: StrTendril, _: StrTendril) {}
    fn get_template_contents(&self, target: &usize) -> usize {
        *target
    }
    fn same_node(&self, x: &usize, y: &usize) -> bool {
        x == y
    }
    fn set_quirks_mode(&self, _: QuirksMode) {}
    fn append_before_sibling(&self, _: &usize, _: NodeOrText<usize>) {}
    fn add_attrs_if_missing(&self, _: &usize, _: Vec<Attribute>) {}
    fn remove_from_parent(&self, _: &usize) {}
    fn reparent_children(&self, _: &usize, _: &usize) {}
}

/// Parses a page and keeps nothing of it. Returns the number of elements.
pub(crate) fn parse(html: &str) -> usize {
    html5ever::parse_document(Nothing::default(), ParseOpts::default()).one(html)
}
