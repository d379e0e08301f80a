//! All documents of a folder, before they are published.

use super::{Problem, advice, problems};
use crate::document::Finding;
use crate::error::Error;
use crate::formats::{Format, html};
use crate::profile::Styling;
use crate::publish::{Action, Options, Plan, Planned, Progress, Step};
use rayon::prelude::*;
use serde::Serialize;
use std::collections::BTreeMap;
use std::path::Path;

/// A document that can't be read or converted.
#[derive(Clone, Debug, PartialEq, Eq, Serialize)]
pub struct Unreadable {
    /// Its path.
    pub source: String,
    /// Why.
    pub error: String,
}

/// What there is to know of a folder of documents before it is published.
#[derive(Clone, Debug, Serialize)]
pub struct FolderInspection {
    /// How many documents it has.
    pub documents: usize,
    /// How many of them nothing was found in.
    pub clean: usize,
    /// What is wrong, by problem.
    pub problems: Vec<Problem>,
    /// Documents that can't be converted.
    pub failed: Vec<Unreadable>,
    /// Files that publishing leaves out, and why.
    pub skipped: Vec<(String, String)>,
}

/// Looks at all documents of a folder without changing anything: what publishing it would tell, links between its documents
/// included, faults in the markup of HTML documents, and what could be better in each. Problems of the folder as a whole have
/// an empty source.
///
/// # Errors
/// Where the folder can't be read, or a profile can't be used.
pub fn inspect_folder(folder: &Path, options: Options) -> Result<FolderInspection, Error> {
    // Nothing is written, and nothing that another run wrote is asked.
    let plan = Plan::new(folder, &folder.join(NOWHERE), options)?;
    let mut reported = FindingCollector::default();
    plan.rehearse(&mut reported)?;
    let pool = &plan.pool;
    let more: Vec<(String, Vec<Finding>)> = pool.install(|| {
        plan.documents.par_iter().filter_map(|planned| Some((planned.source.clone(), more(&plan, planned)?))).collect()
    });
    let mut findings = reported.findings;
    for (source, more) in more {
        let known = findings.entry(source).or_default();
        // What the conversion tells anyway is reported once.
        let new: Vec<Finding> = more.into_iter().filter(|finding| known.iter().all(|known| known.code != finding.code)).collect();
        known.extend(new);
        known.sort_by_key(|finding| finding.place);
    }
    let documents = plan.documents.len();
    let with_problems =
        plan.documents.iter().filter(|planned| findings.get(&planned.source).is_some_and(|found| !found.is_empty())).count();
    Ok(FolderInspection {
        documents,
        clean: documents.saturating_sub(with_problems + reported.failed.len()),
        problems: problems(findings.iter().map(|(source, findings)| (source.as_str(), findings.as_slice()))),
        failed: reported.failed,
        skipped: plan.skipped.iter().map(|skipped| (skipped.path.clone(), skipped.why.clone())).collect(),
    })
}

/// A folder that is not there.
const NOWHERE: &str = ".obblet-inspection";

/// What was reported, by document.
#[derive(Default)]
struct FindingCollector {
    findings: BTreeMap<String, Vec<Finding>>,
    failed: Vec<Unreadable>,
}

impl Progress for FindingCollector {
    fn step(&mut self, step: &Step<'_>) {
        if let Some(error) = step.error.filter(|_| step.action == Action::Failed) {
            self.failed.push(Unreadable { source: step.source.to_owned(), error: error.to_string() });
        }
        if !step.findings.is_empty() {
            self.findings.entry(step.source.to_owned()).or_default().extend_from_slice(step.findings);
        }
    }
}

/// What there is to say of a document beyond what its conversion tells; nothing of one that can't be read.
fn more(plan: &Plan, planned: &Planned) -> Option<Vec<Finding>> {
    let mut profile = (*planned.profile).clone();
    profile.styling = Styling::Named;
    let source = plan.source.read(planned.source.as_ref(), profile.limits.source).ok()?;
    let doc = crate::pipeline::read(&source, planned.format, &profile).ok()?;
    let mut found = advice::analyze(&doc);
    if planned.format == Format::Html {
        let encoding = Some(profile.formats.html.encoding.as_str()).filter(|label| !label.is_empty());
        found.extend(html::check(&html::decode(&source, encoding)));
    }
    Some(found)
}
