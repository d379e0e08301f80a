//! Places of a document that other documents of the folder lead to.

use super::record::DocumentFacts;
use crate::links::ExternalLinks;
use std::cell::RefCell;
use std::collections::{BTreeMap, BTreeSet};

/// Keeps the places of one document that others lead to, and remembers which others there would be.
#[derive(Debug)]
pub(super) struct LinkedPlaces<'p> {
    /// The names by which others lead to places in the document.
    wanted: &'p BTreeSet<String>,
    /// Those of them that nothing in the document itself leads to, and that it would not have had otherwise.
    external: RefCell<BTreeSet<String>>,
    /// Names of places that were left out, since nothing leads there.
    unreferenced: RefCell<BTreeSet<String>>,
    /// Wanted names of places that have another, and that one.
    aliases: RefCell<BTreeMap<String, String>>,
}

impl<'p> LinkedPlaces<'p> {
    pub(super) fn new(wanted: &'p BTreeSet<String>) -> Self {
        Self { wanted, external: RefCell::default(), unreferenced: RefCell::default(), aliases: RefCell::default() }
    }

    /// Wanted names of places that have another, and that one.
    pub(super) fn aliases(&self) -> BTreeMap<String, String> {
        self.aliases.borrow().clone()
    }

    /// Puts what it remembers into what is known of the document.
    pub(super) fn tell(&self, facts: &mut DocumentFacts) {
        facts.external.append(&mut self.external.borrow_mut());
        facts.unreferenced.append(&mut self.unreferenced.borrow_mut());
    }
}

impl ExternalLinks for LinkedPlaces<'_> {
    fn lead_to(&self, name: &str) -> bool {
        let leads = self.wanted.contains(name);
        let names = if leads { &self.external } else { &self.unreferenced };
        let mut names = names.borrow_mut();
        if !names.contains(name) {
            names.insert(name.to_owned());
        }
        leads
    }

    fn names(&self) -> &BTreeSet<String> {
        self.wanted
    }

    fn renamed(&self, name: &str, id: &str) {
        if self.wanted.contains(name) {
            self.aliases.borrow_mut().insert(name.to_owned(), id.to_owned());
        }
    }
}
