//! Links to documents that are converted too lead to what they become.

use crate::conversion::{LinkTarget, Links};
use crate::document::{Document, Finding, Kind, NodeId};

/// Gives links the addresses that `links` knows for them, and tells about those that lead nowhere.
pub fn redirect(doc: &mut Document, links: &dyn Links) {
    let found: Vec<(NodeId, String, LinkTarget)> = doc
        .nodes()
        .filter_map(|(id, node)| match node.kind() {
            Kind::Link { href } if node.parent().is_some() => {
                let address = doc.text(href);
                Some((id, address.to_owned(), links.resolve(address, doc.place(id))))
                    .filter(|(_, _, target)| *target != LinkTarget::Stays)
            }
            _ => None,
        })
        .collect();
    for (id, address, target) in found {
        match target {
            LinkTarget::Stays => {}
            LinkTarget::Leads(address) => {
                let href = doc.intern(&address);
                doc.set_kind(id, Kind::Link { href });
            }
            LinkTarget::Missing { nearest } => {
                let place = doc.place(id);
                let hint =
                    nearest.map_or_else(|| "correct the address".to_owned(), |nearest| format!("perhaps {nearest} is meant"));
                doc.find(
                    Finding::advice("link.missing", format!("a link leads to {address}, which is not there"))
                        .at(place)
                        .hint(hint),
                );
            }
        }
    }
}
