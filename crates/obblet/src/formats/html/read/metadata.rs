//! What a page says of itself in its head.

use super::element_state::ParseState;
use crate::document::Document;

/// Fills in the metadata of a document.
pub(super) fn read(doc: &mut Document, state: &ParseState) {
    let title = state.titles.iter().map(|&title| doc.plain_text(title));
    let title = title.map(|title| title.split_whitespace().collect::<Vec<_>>().join(" ")).find(|title| !title.is_empty());
    let get = |names: &[&str]| {
        names.iter().find_map(|name| {
            let found = state.meta.iter().find(|(known, content)| known == name && !content.is_empty());
            found.map(|(_, content)| content.clone())
        })
    };
    let authors = state
        .meta
        .iter()
        .filter(|(name, content)| matches!(name.as_str(), "author" | "dc.creator" | "dcterms.creator") && !content.is_empty());
    let mut known = Vec::new();
    for (_, author) in authors {
        if !known.contains(author) {
            known.push(author.clone());
        }
    }
    let metadata = &mut doc.metadata;
    metadata.title = title.or_else(|| get(&["og:title", "dc.title", "dcterms.title"]));
    metadata.subtitle = get(&["subtitle"]);
    metadata.description = get(&["description", "og:description", "dc.description", "dcterms.description"]);
    metadata.authors = known;
    metadata.date =
        get(&["date", "dcterms.date", "dcterms.created", "dc.date", "article:published_time", "dcterms.issued", "created"]);
    metadata.language = state.language.clone().or_else(|| {
        let language = get(&["content-language", "dc.language", "dcterms.language"])?.trim().replace('_', "-");
        crate::language_tag::is_well_formed(&language).then_some(language)
    });
    metadata.direction = state.direction;
    metadata.keywords = get(&["keywords"]).map_or_else(Vec::new, |words| {
        words.split(',').map(str::trim).filter(|word| !word.is_empty()).map(str::to_owned).collect()
    });
    if let Some(address) = &state.canonical {
        metadata.other.push(("canonical".to_owned(), address.clone()));
    }
}

/// Whether the page was made here.
pub(super) fn is_own(state: &ParseState) -> bool {
    state.meta.iter().any(|(name, content)| name == "generator" && content.starts_with("Obblet"))
}
