//! Content controls: what a form or a template put around content (ECMA-376, part 1, section 17.5.2). Their content is
//! content like any other, but for lists of contents, and for hints that nobody has filled in.

use super::super::xml::{Event, Ns, Xml, is_on};
use super::{ContentsLists, Reader};
use crate::document::Kind;

/// What a content control says of itself.
#[derive(Clone, Debug, Default)]
pub(super) struct Control {
    /// Whether it holds a list of contents.
    pub(super) is_contents: bool,
    /// Whether it is a checkbox that is ticked, or one that is not.
    pub(super) checkbox: Option<bool>,
    /// The language of the code that it holds; empty where its tag says that it is code and no more.
    pub(super) language: Option<String>,
}

/// The content controls that are open.
#[derive(Debug, Default)]
pub(super) struct Controls {
    pub(super) open: Vec<Control>,
    /// In how many of what is left out the reader is: lists of contents, fields that are computed anew.
    pub(super) omitting: usize,
}

impl Reader<'_, '_> {
    /// Reads `sdtPr`, which was opened last, to its end.
    pub(super) fn control_properties(&mut self, xml: &mut Xml<'_>) {
        let mut control = Control::default();
        let mut depth = 1_usize;
        while depth > 0 {
            match xml.next() {
                Some(Event::Open(element)) => {
                    depth += 1;
                    if element.ns == Ns::W14 && element.local() == b"checkbox" {
                        control.checkbox = Some(false);
                    } else if element.ns == Ns::W14 && element.local() == b"checked" {
                        let value = element.get(b"val");
                        control.checkbox = Some(value.is_none_or(|value| is_on(&value)));
                    } else if element.is(b"tag") {
                        let tag = element.val().unwrap_or_default();
                        control.language = tag.strip_prefix(super::super::CODE_TAG).map(str::to_owned);
                    } else if element.is(b"docPartGallery") {
                        control.is_contents = element.val().as_deref() == Some("Table of Contents");
                    }
                }
                Some(Event::Close) => depth -= 1,
                Some(Event::Text(_)) => {}
                None => break,
            }
        }
        if let Some(last) = self.controls.open.last_mut() {
            *last = control;
        }
    }

    /// Whether the control that was opened last holds a list of contents, and those are left out.
    pub(super) fn is_contents_control(&self) -> bool {
        self.controls.open.last().is_some_and(|control| control.is_contents)
            && self.options.settings.contents != ContentsLists::Keep
    }

    /// Whether the control that was opened last is the box before the text of an item, which is a task then.
    pub(super) fn ticks_item(&mut self) -> bool {
        let Some(control) = self.controls.open.last().cloned() else { return false };
        let Some(done) = control.checkbox else { return false };
        self.ensure_paragraph();
        let Some(node) = self.context().paragraph.as_ref().map(|paragraph| paragraph.node) else { return false };
        let item = self.doc.node(node).parent().filter(|_| self.is_empty(node));
        let Some(item) = item.filter(|&item| matches!(self.doc.kind(item), Kind::ListItem { .. })) else { return false };
        self.doc.set_kind(item, Kind::ListItem { checked: Some(done) });
        true
    }

    /// Code in a control of its own is a block of its own.
    pub(super) fn begin_code_control(&mut self) {
        if self.controls.open.last().is_some_and(|control| control.language.is_some()) {
            self.end_code();
        }
    }

    pub(super) fn end_control(&mut self) {
        self.begin_code_control();
        self.controls.open.pop();
    }

    /// What comes now is left out.
    pub(super) const fn omit(&mut self) {
        self.controls.omitting += 1;
    }

    pub(super) const fn end_omitted(&mut self) {
        self.controls.omitting = self.controls.omitting.saturating_sub(1);
    }

    pub(super) const fn is_omitting(&self) -> bool {
        self.controls.omitting > 0
    }
}
