//! What becomes of links and of the addresses of images.

use crate::document::Place;
use std::collections::{BTreeMap, BTreeSet};
use std::fmt;

/// What becomes of a link.
#[derive(Clone, Debug, PartialEq, Eq)]
pub enum LinkTarget {
    /// It stays as it is.
    Unchanged,
    /// It leads to another address.
    Rewritten(String),
    /// There is nothing at its address.
    Missing {
        /// The address that is nearest to it, where one is near.
        nearest: Option<String>,
    },
}

/// Tells where links lead after conversion. A folder that is published has one that knows its documents.
pub trait LinkResolver {
    /// What becomes of an address in a document, of a link at a place.
    fn resolve(&self, address: &str, at: Place) -> LinkTarget;

    /// What becomes of the address of an image, at a place. One that is rewritten is not opened.
    fn resolve_image(&self, _address: &str, _at: Place) -> LinkTarget {
        LinkTarget::Unchanged
    }
}

/// Links and images by their addresses, and the addresses that they have in the output; what is not in it stays.
impl LinkResolver for BTreeMap<String, String> {
    fn resolve(&self, address: &str, _: Place) -> LinkTarget {
        self.get(address).map_or(LinkTarget::Unchanged, |target| LinkTarget::Rewritten(target.clone()))
    }

    fn resolve_image(&self, address: &str, at: Place) -> LinkTarget {
        self.resolve(address, at)
    }
}

/// Tells which places of a document others lead to, and hears what places are called.
pub trait ExternalLinks: fmt::Debug {
    /// Whether others lead to a place that nothing in the document itself leads to; where nobody does, the place goes.
    fn lead_to(&self, name: &str) -> bool;

    /// The names of all places that others lead to.
    fn names(&self) -> &BTreeSet<String>;

    /// The place that the source calls `name` has the id `id`.
    fn renamed(&self, name: &str, id: &str);
}

/// No other document leads to places of this one.
#[derive(Clone, Copy, Debug, Default)]
pub struct NoExternalLinks;

static NO_NAMES: BTreeSet<String> = BTreeSet::new();

impl ExternalLinks for NoExternalLinks {
    fn lead_to(&self, _: &str) -> bool {
        false
    }

    fn names(&self) -> &BTreeSet<String> {
        &NO_NAMES
    }

    fn renamed(&self, _: &str, _: &str) {}
}
