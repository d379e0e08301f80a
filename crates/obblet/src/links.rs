//! What becomes of links and of the addresses of images.

use crate::document::Place;
use std::collections::BTreeMap;

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
