//! Names of headings, as links know them.

use crate::fast_hash::HashMap;
use std::fmt::Write;

/// What people expect to link to: the words of the heading in lower case with hyphens between them.
pub(crate) fn of(text: &str) -> String {
    let mut slug = String::with_capacity(text.len());
    for c in text.trim().chars() {
        match c {
            ' ' | '-' | '\n' | '\t' => slug.push('-'),
            '_' => slug.push('_'),
            c if c.is_ascii() => slug.extend(c.is_ascii_alphanumeric().then(|| c.to_ascii_lowercase())),
            c if c.is_alphanumeric() || is_mark(c) => slug.extend(c.to_lowercase()),
            _ => {}
        }
    }
    if slug.is_empty() {
        slug.push_str("section");
    }
    slug
}

/// The same, with a number behind the second of the same name.
pub(crate) fn unique(text: &str, slugs: &mut HashMap<String, u32>) -> String {
    let mut slug = of(text);
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
        let mut slugs = HashMap::default();
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
            assert_eq!(unique(text, &mut slugs), slug);
        }
    }
}
