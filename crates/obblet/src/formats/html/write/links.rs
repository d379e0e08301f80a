//! Links and images: what their addresses may be.

use super::super::address;
use super::super::address_check::{Check, check};
use super::Writer;
use crate::document::{Attributes, Document, Finding, Kind, KindSet, NodeId, Step, Text};
use crate::formats::html::Mends;
use std::borrow::Cow;

/// What an address is worth.
enum Usable<'t> {
    AsItIs(Cow<'t, str>),
    Mended(Cow<'t, str>, Finding),
    Not(Finding),
}

/// What the address of a link or a picture is worth, to whoever trusts the source or not.
fn usable<'t>(address: &'t str, trusts: bool, mends: Mends, what: &str) -> Usable<'t> {
    if !trusts && !address::is_safe_link(address) {
        let finding = Finding::lost("html.unsafe-link", "link address can run script; it was removed").losing(address);
        return Usable::Not(finding.hint("set html.trust=true if the document is your own"));
    }
    if !mends.contains(Mends::ADDRESSES) {
        return Usable::AsItIs(Cow::Borrowed(address));
    }
    match check(address) {
        Check::Valid => Usable::AsItIs(Cow::Borrowed(address)),
        Check::Mended(mended) => {
            let finding = Finding::changed("html.address", format!("invalid address of {what} was corrected to {mended}"));
            Usable::Mended(Cow::Owned(mended), finding.losing(address))
        }
        Check::Invalid => {
            let message = format!("invalid address of {what} was removed; its text is kept: {address}");
            let finding = Finding::lost("html.address", message).losing(address);
            Usable::Not(finding.hint("write the address as a browser shows it"))
        }
    }
}

/// Opens links that are not written, because of their addresses, before they are: what is on both sides of them is one text.
/// Whether there were any.
pub(crate) fn open_refused(doc: &mut Document, trusts: bool, mends: Mends) -> bool {
    if !doc.may_hold(KindSet::LINKS) {
        return false;
    }
    let refused: Vec<(NodeId, Finding)> = doc
        .walk_all()
        .filter_map(|step| match step {
            Step::Enter(id) => match doc.kind(id) {
                Kind::Link { href } => match usable(doc.text(href), trusts, mends, "a link") {
                    Usable::Not(finding) => Some((id, finding.at(doc.place(id)))),
                    Usable::AsItIs(_) | Usable::Mended(..) => None,
                },
                _ => None,
            },
            Step::Leave(_) => None,
        })
        .collect();
    let is_any = !refused.is_empty();
    for (id, finding) in refused {
        doc.push_finding(finding);
        if *doc.attributes(id) == Attributes::default() {
            doc.unwrap(id);
        } else {
            doc.set_kind(id, Kind::Span);
        }
    }
    is_any
}

impl Writer<'_, '_> {
    pub(super) fn enter_link(&mut self, href: Text, id: NodeId) -> bool {
        self.links += 1;
        if self.links > 1 {
            return true;
        }
        let href = match usable(self.doc.text(href), self.options.trusts(), self.options.mends, "a link") {
            Usable::AsItIs(href) => href,
            Usable::Mended(href, finding) => {
                self.findings.push(finding.at(self.doc.place(id)));
                href
            }
            Usable::Not(finding) => {
                self.unsafe_links.push(id);
                self.findings.push(finding.at(self.doc.place(id)));
                return true;
            }
        };
        self.out.markup("<a");
        self.out.address("href", &href);
        self.attributes(id, Kind::Link { href: Text::EMPTY });
        self.out.close_tag();
        true
    }

    /// An address as a browser takes it; none where there is no such thing, which a finding says.
    pub(super) fn valid_address<'t>(&mut self, address: &'t str, id: NodeId, what: &str) -> Option<Cow<'t, str>> {
        let (address, finding) = match usable(address, true, self.options.mends, what) {
            Usable::AsItIs(address) => (Some(address), None),
            Usable::Mended(address, finding) => (Some(address), Some(finding)),
            Usable::Not(finding) => (None, Some(finding)),
        };
        self.findings.extend(finding.map(|finding| finding.at(self.doc.place(id))));
        address
    }

    pub(super) fn leave_link(&mut self, id: NodeId) {
        self.links -= 1;
        if self.links == 0 && self.unsafe_links.pop_if(|unwritten| *unwritten == id).is_none() {
            self.out.markup("</a>");
        }
    }

    pub(super) fn image(&mut self, src: Text, alt: Text, id: NodeId) {
        let (address, alt) = (self.doc.text(src), self.doc.text(alt));
        let is_safe =
            self.options.trusts() || address::is_safe_picture(address) || self.options.safe_pictures.binary_search(&id).is_ok();
        if !is_safe {
            self.findings.push(
                Finding::lost("html.unsafe-picture", "image address can run script; the alt text is kept")
                    .at(self.doc.place(id))
                    .losing(address.chars().take(200).collect::<String>())
                    .hint("save the image as a file, or set html.trust=true if the document is your own"),
            );
            self.out.text(alt);
            return;
        }
        if address.trim().is_empty() {
            // An image needs an address.
            self.findings
                .push(Finding::changed("image.no-address", "image has no address; the alt text is kept").at(self.doc.place(id)));
            self.out.text(alt);
            return;
        }
        let Some(address) = self.valid_address(address, id, "a picture") else { return self.out.text(alt) };
        self.out.markup("<img");
        self.out.address("src", &address);
        self.out.attribute("alt", alt);
        self.attributes(id, Kind::Image { src, alt: Text::EMPTY });
        self.out.close_void();
    }
}
