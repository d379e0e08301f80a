//! Where links lead. Nothing is fetched: places in the document and files beside it are looked for, pages elsewhere are not.

use crate::context::Context;
use crate::document::{Document, Kind, Place, Step};
use crate::fast_hash::{HashMap, HashSet};
use crate::files::There;
use crate::media;

use crate::slug;
use percent_encoding::percent_decode_str;
use serde::Serialize;

/// A link or a picture that leads nowhere.
#[derive(Clone, Debug, PartialEq, Eq, Serialize)]
pub struct TroubledLink {
    /// The address.
    pub address: String,
    /// Where the link is.
    pub place: Place,
    /// What is wrong.
    pub why: &'static str,
}

/// Where the links and pictures of a document lead, counted.
#[derive(Clone, Debug, Default, PartialEq, Eq, Serialize)]
pub struct LinkSummary {
    /// To places in the document.
    pub within: usize,
    /// To files.
    pub files: usize,
    /// To pages elsewhere.
    pub elsewhere: usize,
    /// To mail boxes and telephones.
    pub contacts: usize,
    /// Those that lead nowhere.
    pub troubled: Vec<TroubledLink>,
}

pub(super) fn analyze(doc: &Document, context: &Context<'_>) -> LinkSummary {
    let mut summary = LinkSummary::default();
    let places = places(doc);
    for top in doc.roots() {
        for step in doc.walk(top) {
            let Step::Enter(id) = step else { continue };
            let address = match doc.kind(id) {
                Kind::Link { href } => doc.text(href),
                Kind::Image { src, .. } => doc.text(src),
                _ => continue,
            };
            if doc.media_at(id).is_some() {
                continue;
            }
            let why = sort(address, &places, context, &mut summary);
            if let Some(why) = why {
                summary.troubled.push(TroubledLink { address: address.to_owned(), place: doc.place(id), why });
            }
        }
    }
    summary
}

/// Counts an address, and says what is wrong with it.
fn sort(address: &str, places: &HashSet<String>, context: &Context<'_>, summary: &mut LinkSummary) -> Option<&'static str> {
    let address = address.trim();
    if address.is_empty() {
        return Some("it has no address");
    }
    if let Some(place) = address.strip_prefix('#') {
        summary.within += 1;
        let place = percent_decode_str(place).decode_utf8_lossy();
        let known = place.is_empty() || place == "top" || places.contains(place.as_ref());
        return (!known).then_some("nothing in the document has this id");
    }
    let scheme = address.split_once(':').map(|(scheme, _)| scheme.to_ascii_lowercase());
    let scheme = scheme.filter(|scheme| {
        scheme.len() > 1 && scheme.bytes().all(|byte| byte.is_ascii_alphanumeric() || matches!(byte, b'+' | b'-' | b'.'))
    });
    match scheme.as_deref() {
        Some("mailto" | "tel" | "sms" | "xmpp") => summary.contacts += 1,
        Some("javascript" | "vbscript") => return Some("it runs script"),
        Some("file") => return Some("it leads into one computer only"),
        Some(_) => summary.elsewhere += 1,
        None if address.starts_with("//") => summary.elsewhere += 1,
        None => {
            summary.files += 1;
            return missing(address, context).then_some("there is no such file");
        }
    }
    None
}

/// Whether there is no file at an address. Nothing outside of the root is looked at.
fn missing(address: &str, context: &Context<'_>) -> bool {
    let (Some(root), path) = (context.media, address.split(['#', '?']).next().unwrap_or_default()) else { return false };
    if path.is_empty() || path.starts_with(['/', '\\']) {
        return false;
    }
    let path = percent_decode_str(path).decode_utf8_lossy();
    media::within(context.folder, &path).is_some_and(|full| root.there(&full) == There::Nothing)
}

/// The ids of a document, and the names by which people link to its headings.
fn places(doc: &Document) -> HashSet<String> {
    let mut places = HashSet::default();
    let mut slugs = HashMap::default();
    for top in doc.roots() {
        for step in doc.walk(top) {
            let Step::Enter(id) = step else { continue };
            if let Some(name) = doc.attributes(id).id {
                places.insert(doc.text(name).to_owned());
            }
            if matches!(doc.kind(id), Kind::Heading(_)) {
                places.insert(slug::unique(&doc.heading_text(id), &mut slugs));
            }
        }
    }
    places
}
