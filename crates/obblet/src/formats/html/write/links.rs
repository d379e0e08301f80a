//! Links and images: what their addresses may be.

use super::super::address;
use super::super::address_check::{Check, check};
use super::Writer;
use crate::document::{Finding, Kind, NodeId, Text};
use crate::formats::html::Mends;
use std::borrow::Cow;

impl Writer<'_, '_> {
    pub(super) fn enter_link(&mut self, href: Text, id: NodeId) -> bool {
        self.links += 1;
        if self.links > 1 {
            return true;
        }
        let href = self.doc.text(href);
        if !self.options.trusts() && !address::is_safe_link(href) {
            self.unsafe_links.push(id);
            self.findings.push(
                Finding::lost("html.unsafe-link", "link address can run script; it was removed")
                    .at(self.doc.place(id))
                    .losing(href)
                    .hint("set html.trust=true if the document is your own"),
            );
            return true;
        }
        let Some(href) = self.valid_address(href, id, "a link") else {
            self.unsafe_links.push(id);
            return true;
        };
        self.out.markup("<a");
        self.out.address("href", &href);
        self.attributes(id, Kind::Link { href: Text::EMPTY });
        self.out.close_tag();
        true
    }

    /// An address as a browser takes it; none where there is no such thing, which a finding says.
    pub(super) fn valid_address<'t>(&mut self, address: &'t str, id: NodeId, what: &str) -> Option<Cow<'t, str>> {
        if !self.options.mends.contains(Mends::ADDRESSES) {
            return Some(Cow::Borrowed(address));
        }
        match check(address) {
            Check::Valid => Some(Cow::Borrowed(address)),
            Check::Mended(mended) => {
                self.findings.push(
                    Finding::changed("html.address", format!("invalid address of {what} was corrected to {mended}"))
                        .at(self.doc.place(id))
                        .losing(address),
                );
                Some(Cow::Owned(mended))
            }
            Check::Invalid => {
                self.findings.push(
                    Finding::lost("html.address", format!("invalid address of {what} was removed; its text is kept: {address}"))
                        .at(self.doc.place(id))
                        .losing(address)
                        .hint("write the address as a browser shows it"),
                );
                None
            }
        }
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
