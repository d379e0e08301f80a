//! Who gets which id. Ids are unique; a second one of the same name gets a number.

use super::super::{Ids as Wanted, Options};
use crate::document::{Document, Kind, NodeId, Step};
use crate::refine::structure::Survey;
use std::collections::{HashMap, HashSet};
use std::fmt::Write;

/// The ids of a document.
#[derive(Debug, Default)]
pub(super) struct Ids {
    given: HashMap<NodeId, String>,
    taken: HashSet<String>,
}

impl Ids {
    /// Gives ids to the nodes of a document.
    pub(super) fn of(doc: &Document, options: &Options<'_>, survey: Survey) -> Self {
        let mut ids = Self::default();
        ids.taken.extend(options.taken_ids.iter().map(|&id| id.to_owned()));
        let wanted = options.ids;
        let mut pointed = HashSet::new();
        if survey.has_local_links && wanted == Wanted::Used {
            for (_, node) in doc.nodes() {
                if let Kind::Link { href } = node.kind()
                    && let Some(name) = doc.text(href).strip_prefix('#')
                {
                    pointed.insert(decode(name));
                }
            }
        }
        if wanted != Wanted::None && (survey.has_ids || wanted == Wanted::Headings || !pointed.is_empty()) {
            ids.name_all(doc, options, &pointed);
        }
        ids
    }

    fn name_all(&mut self, doc: &Document, options: &Options<'_>, pointed: &HashSet<String>) {
        let tops = std::iter::once(doc.root()).chain(doc.notes.iter().map(|note| note.body));
        let tops: Vec<NodeId> = tops.collect();
        let entered = |top: &NodeId| {
            doc.walk(*top).filter_map(|step| match step {
                Step::Enter(id) => Some(id),
                Step::Leave(_) => None,
            })
        };
        // What the source named comes first: nothing may take its names away.
        {
            for id in tops.iter().flat_map(entered) {
                if let Some(name) = doc.attributes(id).id {
                    let name: String = doc.text(name).split_whitespace().collect::<Vec<_>>().join("-");
                    if !name.is_empty() && self.taken.insert(name.clone()) {
                        self.given.insert(id, name);
                    }
                }
            }
        }
        let mut slugs = HashMap::new();
        for id in tops.iter().flat_map(entered) {
            if !matches!(doc.kind(id), Kind::Heading(_)) {
                continue;
            }
            let slug = unique_slug(&doc.plain_text(id), &mut slugs);
            let wanted = match options.ids {
                Wanted::None => false,
                Wanted::Headings => true,
                Wanted::Used => pointed.contains(&slug),
            };
            if wanted && !self.given.contains_key(&id) {
                let name = self.free(&slug);
                self.given.insert(id, name);
            }
        }
    }

    /// The id of a node.
    pub(super) fn get(&self, id: NodeId) -> Option<&str> {
        self.given.get(&id).map(String::as_str)
    }

    /// Takes an id that nothing has yet: `wanted`, or `wanted` with a number behind it.
    pub(super) fn free(&mut self, wanted: &str) -> String {
        let mut name = wanted.to_owned();
        let mut number = 1;
        while !self.taken.insert(name.clone()) {
            number += 1;
            name = format!("{wanted}-{number}");
        }
        name
    }
}

fn decode(name: &str) -> String {
    percent_encoding::percent_decode_str(name).decode_utf8_lossy().into_owned()
}

/// What people expect to link to: the words of the heading in lower case with hyphens between them, and a number behind
/// the second of the same name.
fn unique_slug(text: &str, slugs: &mut HashMap<String, u32>) -> String {
    let mut slug = String::with_capacity(text.len());
    for c in text.trim().chars() {
        match c {
            ' ' | '-' | '\n' | '\t' => slug.push('-'),
            '_' => slug.push('_'),
            c if c.is_alphanumeric() || is_mark(c) => slug.extend(c.to_lowercase()),
            _ => {}
        }
    }
    if slug.is_empty() {
        slug.push_str("section");
    }
    let count = slugs.entry(slug.clone()).or_insert(0);
    *count += 1;
    if *count == 1 {
        return slug;
    }
    let base = slug.clone();
    loop {
        slug.truncate(base.len());
        let _ = write!(slug, "-{}", slugs[&base] - 1);
        if !slugs.contains_key(&slug) {
            slugs.insert(slug.clone(), 1);
            return slug;
        }
        if let Some(count) = slugs.get_mut(&base) {
            *count += 1;
        }
    }
}

/// Marks belong to the letter before them in many scripts.
fn is_mark(c: char) -> bool {
    use unicode_properties::{GeneralCategoryGroup, UnicodeGeneralCategory};
    !c.is_ascii() && c.general_category_group() == GeneralCategoryGroup::Mark
}

#[cfg(test)]
mod tests {
    use super::*;

    #[test]
    fn slugs_are_what_people_link_to() {
        let mut slugs = HashMap::new();
        for (text, slug) in [
            ("High & low  water!", "high--low--water"),
            ("`well_known` API", "well_known-api"),
            ("Ebbe-Flut (2031)", "ebbe-flut-2031"),
            ("潮 と 汐", "潮-と-汐"),
            ("جدول المدّ", "جدول-المدّ"),
            ("a", "a"),
            ("a-1", "a-1"),
            ("a", "a-2"),
            ("a", "a-3"),
            ("?!", "section"),
        ] {
            assert_eq!(unique_slug(text, &mut slugs), slug);
        }
    }
}
