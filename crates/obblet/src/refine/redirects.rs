//! Links that go through a counter first, and addresses that carry what only counters read.

use crate::document::{Document, Finding, Kind, NodeId};
use url::Url;

/// Parameters that tell where a reader came from and nothing about the page.
const TRACKING: [&str; 16] = [
    "fbclid",
    "gclid",
    "dclid",
    "msclkid",
    "yclid",
    "twclid",
    "igshid",
    "mc_eid",
    "mc_cid",
    "mkt_tok",
    "_hsenc",
    "_hsmi",
    "vero_id",
    "wickedid",
    "oly_enc_id",
    "oly_anon_id",
];

/// Parameters that hold the address a redirector leads to.
const TARGETS: [&str; 10] = ["url", "u", "q", "target", "dest", "destination", "redirect", "redirect_url", "to", "link"];

/// Last parts of the paths of redirectors.
const REDIRECTORS: [&str; 9] = ["url", "l.php", "redirect", "redir", "out", "click", "link", "r", "go"];

/// Makes links lead where they end up, and takes tracking parameters off.
pub fn follow(doc: &mut Document) {
    let changes: Vec<(NodeId, String)> = doc
        .nodes()
        .filter_map(|(id, node)| match node.kind() {
            Kind::Link { href } => straight(doc.text(href)).map(|address| (id, address)),
            _ => None,
        })
        .collect();
    let Some(&(first, _)) = changes.first() else { return };
    let place = doc.place(first);
    let message = format!("tracking redirects and parameters were removed from links: {}", changes.len());
    doc.push_finding(Finding::changed("clean.redirect", message).at(place));
    for (id, address) in changes {
        let href = doc.intern(&address);
        doc.set_kind(id, Kind::Link { href });
    }
}

/// Where an address ends up, if that is somewhere else.
fn straight(address: &str) -> Option<String> {
    if !address.contains('?') || !(address.starts_with("http://") || address.starts_with("https://")) {
        return None;
    }
    let mut url = Url::parse(address).ok()?;
    let mut changed = false;
    // A redirector may lead to another one.
    for _ in 0..4 {
        match target(&url) {
            Some(target) => (url, changed) = (target, true),
            None => break,
        }
    }
    let is_tracking = |name: &str| name.starts_with("utm_") || TRACKING.contains(&name);
    if url.query_pairs().any(|(name, _)| is_tracking(&name)) {
        let query = url.query().unwrap_or_default();
        // What stays keeps its spelling.
        let kept: Vec<&str> = query.split('&').filter(|pair| !is_tracking(pair.split('=').next().unwrap_or_default())).collect();
        let kept = kept.join("&");
        url.set_query(Some(kept.as_str()).filter(|query| !query.is_empty()));
        changed = true;
    }
    changed.then(|| url.into())
}

fn target(url: &Url) -> Option<Url> {
    let last = url.path_segments().and_then(|mut parts| parts.rfind(|part| !part.is_empty())).unwrap_or_default();
    let host = url.host_str().unwrap_or_default();
    let redirects =
        REDIRECTORS.contains(&last.to_ascii_lowercase().as_str()) || host.starts_with("l.") || host.contains("safelinks");
    if !redirects {
        return None;
    }
    let (_, value) = url.query_pairs().find(|(name, _)| TARGETS.contains(&name.as_ref()))?;
    Url::parse(&value).ok().filter(|target| matches!(target.scheme(), "http" | "https"))
}

#[cfg(test)]
mod tests {
    use super::*;

    #[track_caller]
    fn case(address: &str, expected: Option<&str>) {
        assert_eq!(straight(address).as_deref(), expected);
    }

    #[test]
    fn addresses_lead_straight() {
        case(
            "https://counter.example/url?q=https%3A%2F%2Fgreywick.example%2Ftides%3Fday%3D4&sa=D",
            Some("https://greywick.example/tides?day=4"),
        );
        case("https://greywick.example/?utm_source=mail&day=4&fbclid=x", Some("https://greywick.example/?day=4"));
        case("https://greywick.example/?utm_source=mail#low", Some("https://greywick.example/#low"));
        case("https://greywick.example/search?q=https", None);
        case("https://greywick.example/go?to=javascript:alert(1)", None);
        case("tides.html?utm_source=x", None);
    }
}
