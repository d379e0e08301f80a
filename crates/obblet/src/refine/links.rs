//! Links to documents that are converted too lead to what they become.

use crate::document::{Document, Finding, Kind, KindSet, NodeId, Step};
use crate::links::{LinkResolver, LinkTarget};

/// Gives links the addresses that `links` knows for them, and tells about those that lead nowhere.
pub fn redirect(doc: &mut Document, links: &dyn LinkResolver) {
    if !doc.may_hold(KindSet::LINKS) {
        return;
    }
    // Links in what was left out are still in the arena, and lead nowhere any more.
    let found: Vec<(NodeId, String, LinkTarget)> = doc
        .walk_all()
        .filter_map(|step| match step {
            Step::Enter(id) => Some((id, doc.kind(id))),
            Step::Leave(_) => None,
        })
        .filter_map(|(id, kind)| match kind {
            Kind::Link { href } => {
                let address = doc.text(href);
                Some((id, address.to_owned(), links.resolve(address, doc.place(id))))
                    .filter(|(_, _, target)| *target != LinkTarget::Unchanged)
            }
            _ => None,
        })
        .collect();
    for (id, address, target) in found {
        match target {
            LinkTarget::Unchanged => {}
            LinkTarget::Rewritten(address) => {
                let href = doc.intern(&address);
                doc.set_kind(id, Kind::Link { href });
            }
            LinkTarget::Missing { nearest } => {
                let place = doc.place(id);
                let hint =
                    nearest.map_or_else(|| "correct the address".to_owned(), |nearest| format!("perhaps {nearest} is meant"));
                doc.push_finding(
                    Finding::advice("link.missing", format!("link target not found: {address}"))
                        .about(address)
                        .at(place)
                        .hint(hint),
                );
            }
        }
    }
}
