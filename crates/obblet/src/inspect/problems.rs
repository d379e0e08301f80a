//! Findings of many documents as one list, by problem.

use crate::document::{Finding, Place, Weight};
use serde::Serialize;
use std::collections::BTreeMap;

/// Where something was found.
#[derive(Clone, Debug, PartialEq, Eq, Serialize)]
pub struct Occurrence {
    /// The path of the document.
    pub source: String,
    /// The place in it.
    pub place: Place,
    /// What was found there.
    pub message: String,
}

/// One problem, with everywhere that it is.
#[derive(Clone, Debug, PartialEq, Eq, Serialize)]
pub struct Problem {
    /// How much it matters.
    pub weight: Weight,
    /// The code of its findings.
    pub code: String,
    /// What was found, as it was reported first.
    pub message: String,
    /// What to do about it.
    pub hint: String,
    /// How many findings there are.
    pub count: usize,
    /// How many documents have it.
    pub documents: usize,
    /// Where they are, in the order of the documents.
    pub places: Vec<Occurrence>,
}

/// Makes one list of the findings of documents: by weight, the heaviest first, then by how often a problem is there. Findings
/// of one code are one problem; links are one problem for each place that is missing.
///
/// ```
/// use obblet::document::Finding;
/// use obblet::inspect::problems;
///
/// let missing = |target: &str| Finding::advice("link.missing", format!("link target not found: {target}")).about(target);
/// let found = [("a.md".to_owned(), vec![missing("x.md"), missing("y.md")]), ("b.md".to_owned(), vec![missing("y.md")])];
/// let list = problems(found.iter().map(|(source, findings)| (source.as_str(), findings.as_slice())));
/// assert_eq!((list.len(), list[0].count, list[0].documents), (2, 2, 2));
/// assert!(list[0].message.contains("y.md"));
/// ```
pub fn problems<'f>(documents: impl IntoIterator<Item = (&'f str, &'f [Finding])>) -> Vec<Problem> {
    let mut by_key: BTreeMap<(Weight, &str, String), Problem> = BTreeMap::new();
    for (source, findings) in documents {
        for finding in findings {
            let target = missing_target(source, finding);
            let problem = by_key.entry((finding.weight, &finding.code, target)).or_insert_with(|| Problem {
                weight: finding.weight,
                code: finding.code.to_string(),
                message: finding.message.clone(),
                hint: finding.hint.to_string(),
                count: 0,
                documents: 0,
                places: Vec::new(),
            });
            problem.count += 1;
            problem.documents += usize::from(problem.places.last().is_none_or(|last| last.source != source));
            let message = finding.message.clone();
            problem.places.push(Occurrence { source: source.to_owned(), place: finding.place, message });
        }
    }
    let mut problems: Vec<Problem> = by_key.into_values().collect();
    problems.sort_by_key(|problem| (problem.weight, std::cmp::Reverse(problem.count)));
    problems
}

/// What is missing, for a link that leads nowhere: its address from the top of the folder.
fn missing_target(source: &str, finding: &Finding) -> String {
    let address = finding.target.as_str();
    if address.is_empty() {
        return if finding.code.starts_with("link.") { finding.message.clone() } else { String::new() };
    }
    let mut parts: Vec<&str> = source.split('/').collect();
    // The name of the document itself.
    parts.pop();
    let rooted = address.strip_prefix('/');
    if rooted.is_some() {
        parts.clear();
    }
    for part in rooted.unwrap_or(address).split('/') {
        match part {
            "." | "" => {}
            ".." => drop(parts.pop()),
            part => parts.push(part),
        }
    }
    parts.join("/")
}
