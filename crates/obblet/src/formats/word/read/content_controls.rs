//! Content controls: what a form or a template put around content (ECMA-376, part 1, section 17.5.2). Their content is
//! content like any other, but for lists of contents, and for hints that nobody has filled in.

use super::super::xml::{Event, Xml};
use super::Reader;

/// What a content control says of itself.
#[derive(Clone, Copy, Debug, Default)]
pub(super) struct Control {
    /// Whether it holds a list of contents.
    pub(super) is_contents: bool,
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
                    if element.is(b"docPartGallery") {
                        control.is_contents = element.val().as_deref() == Some("Table of Contents");
                    }
                }
                Some(Event::Close) => depth -= 1,
                Some(Event::Text(_)) => {}
                None => break,
            }
        }
        if let Some(last) = self.controls.last_mut() {
            *last = control;
        }
    }

    pub(super) fn end_control(&mut self) {
        self.controls.pop();
    }

    /// What comes now is left out.
    pub(super) const fn omit(&mut self) {
        self.omitting += 1;
    }

    pub(super) const fn end_omitted(&mut self) {
        self.omitting = self.omitting.saturating_sub(1);
    }

    pub(super) const fn is_omitting(&self) -> bool {
        self.omitting > 0
    }
}
