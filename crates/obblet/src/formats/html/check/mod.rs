//! Whether markup keeps the rules of the HTML standard, as its author wrote it: which elements may stand where, which
//! attributes they may have, what is obsolete, and what every page needs.
//!
//! What the tree construction of the standard moves or closes by itself is reported as a fault of syntax, at the line where that
//! happened. The rules are those of the HTML Standard as of 2026, by its sections; there is none here for values of
//! attributes beyond ids, links, languages and sizes.

mod elements;
mod rules;
mod table;
mod tree;

use crate::document::{Finding, Place, Weight};
use std::collections::BTreeMap;

/// Faults of one sort are reported one by one up to so many.
const MOST_OF_A_SORT: usize = 100;

/// Checks a page or a fragment. Faults come in the order of the source.
///
/// ```
/// use obblet::formats::html;
///
/// let faults = html::check("<p><font color=red>High</font> water</p>");
/// assert_eq!(faults[0].code, "check.obsolete-element");
/// assert!(html::check("<p>High water</p>").is_empty());
/// ```
#[must_use]
pub fn check(source: &str) -> Vec<Finding> {
    let is_page = is_page(source);
    let tree = tree::parse(source, is_page);
    let mut faults = Faults::default();
    rules::check(&tree, is_page, &mut faults);
    table::check(&tree, &mut faults);
    for &(line, ref message) in &tree.errors {
        faults.add("check.syntax", line, message.clone());
    }
    faults.finish()
}

/// Whether a source is a whole page: it has a document type, or one of the elements that only pages have.
#[must_use]
pub fn is_page(source: &str) -> bool {
    let head = source.get(..2048).unwrap_or(source).to_ascii_lowercase();
    let is_tag = |rest: &str| rest.starts_with(|c: char| c.is_ascii_whitespace() || matches!(c, '>' | '/'));
    head.contains("<!doctype") || ["<html", "<head", "<body", "<frameset"].iter().any(|tag| head.split(tag).skip(1).any(is_tag))
}

/// Faults found so far.
#[derive(Debug, Default)]
struct Faults {
    found: Vec<(u32, Finding)>,
    counts: BTreeMap<&'static str, usize>,
}

impl Faults {
    /// A fault against the standard.
    fn add(&mut self, code: &'static str, line: u32, message: impl Into<String>) {
        self.push(line, code, Finding::changed(code, message));
    }

    /// Something that keeps the rules and could be better.
    fn advise(&mut self, code: &'static str, line: u32, message: impl Into<String>) {
        self.push(line, code, Finding::advice(code, message));
    }

    fn push(&mut self, line: u32, code: &'static str, finding: Finding) {
        let count = self.counts.entry(code).or_default();
        *count += 1;
        if *count <= MOST_OF_A_SORT {
            self.found.push((line, finding.at(Place::Line { line: line.max(1), column: 1 })));
        }
    }

    fn finish(mut self) -> Vec<Finding> {
        self.found.sort_by_key(|(line, _)| *line);
        let mut found: Vec<Finding> = self.found.into_iter().map(|(_, finding)| finding).collect();
        for (code, count) in self.counts.into_iter().filter(|(_, count)| *count > MOST_OF_A_SORT) {
            let weight = found.iter().find(|finding| finding.code == code).map_or(Weight::Changed, |finding| finding.weight);
            let message = format!("{} more of these", count - MOST_OF_A_SORT);
            found.push(Finding { weight, ..Finding::changed(code, message) });
        }
        found
    }
}
