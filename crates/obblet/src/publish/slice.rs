//! A folder that is published in slices, each on another machine: every slice converts its part into a file, and a last run
//! joins them.

use super::plan::Plan;
use super::run::Run;
use super::{Action, Progress, Step, Summary};
use crate::error::Error;
use std::collections::BTreeMap;
use std::path::{Path, PathBuf};
use std::time::Duration;

/// The name of the file that a slice writes.
fn name(slice: u32, slices: u32) -> String {
    format!("obblet-slice-{slice}-of-{slices}.jsonl")
}

/// Which slice a file is of.
fn number(path: &Path) -> Option<(u32, u32)> {
    let name = path.file_name()?.to_str()?;
    let (slice, slices) = name.strip_prefix("obblet-slice-")?.strip_suffix(".jsonl")?.split_once("-of-")?;
    Some((slice.parse().ok()?, slices.parse().ok()?))
}

/// The files of slices that a plan is to join, in their order.
pub(super) fn find(plan: &Plan) -> Result<Vec<PathBuf>, Error> {
    let mut found: BTreeMap<u32, (PathBuf, u32)> = BTreeMap::new();
    for place in &plan.options.join {
        let fail = |cause| Error::File { path: place.display().to_string(), cause };
        let files: Vec<PathBuf> = if place.is_dir() {
            let entries: Result<Vec<_>, _> = std::fs::read_dir(place).map_err(fail)?.collect();
            entries.map_err(fail)?.into_iter().map(|entry| entry.path()).filter(|path| number(path).is_some()).collect()
        } else {
            vec![place.clone()]
        };
        for file in files {
            let (slice, slices) = number(&file).ok_or_else(|| Error::Slice {
                path: file.display().to_string(),
                message: "it is no file that a slice wrote".to_owned(),
            })?;
            found.insert(slice, (file, slices));
        }
    }
    if plan.options.join.is_empty() {
        return Ok(Vec::new());
    }
    let slices = found.values().map(|(_, slices)| *slices).max().unwrap_or(1);
    let missing: Vec<String> = (1..=slices).filter(|slice| !found.contains_key(slice)).map(|slice| name(slice, slices)).collect();
    let of_others = found.values().any(|(_, of)| *of != slices);
    if !missing.is_empty() || of_others {
        let message = match of_others {
            true => "there are slices of different numbers; remove those of the earlier run".to_owned(),
            false => format!(
                "not all slices are there; {} missing: {}",
                if missing.len() == 1 { "one is" } else { "these are" },
                missing.join(", ")
            ),
        };
        return Err(Error::Slice { path: plan.options.join[0].display().to_string(), message });
    }
    Ok(found.into_values().map(|(file, _)| file).collect())
}

/// Removes files of slices that were joined, where they lie in the output.
pub(super) fn remove(plan: &Plan, files: &[PathBuf]) {
    for file in files {
        if std::fs::canonicalize(file).is_ok_and(|real| real.parent() == Some(&plan.output)) {
            // One that stays is in nobody's way.
            let _ = std::fs::remove_file(file);
        }
    }
}

impl Run<'_> {
    /// Converts the documents of the slice and writes them into its file.
    pub(super) fn write_slice(mut self, progress: &mut dyn Progress) -> Result<Summary, Error> {
        let Some((slice, slices)) = self.plan.options.slice else { return Ok(self.summary) };
        let chosen: Vec<(usize, Action)> = (0..self.plan.documents.len())
            .filter(|&index| self.plan.documents[index].is_chosen)
            .map(|index| (index, Action::New))
            .collect();
        progress.begin(chosen.len());
        // Nothing of the others is known here; what that makes a difference for is converted again when slices are joined.
        self.facts = vec![None; self.plan.documents.len()];
        let wanted = vec![std::collections::BTreeSet::new(); self.facts.len()];
        self.make(&chosen, &wanted, progress);
        let mut out = Vec::new();
        for (index, planned) in self.plan.documents.iter().enumerate() {
            let step = |action: Action| Step {
                source: &planned.source,
                outputs: Vec::new(),
                action,
                findings: &[],
                error: None,
                time: Duration::ZERO,
            };
            if !planned.is_chosen {
                self.summary.left += 1;
                progress.step(&step(Action::Left));
                continue;
            }
            match self.pieces.take(index)? {
                Some(piece) => {
                    self.summary.converted += 1;
                    for finding in &piece.findings {
                        self.summary.weights[finding.weight as usize] += 1;
                    }
                    let time = Duration::from_micros(piece.time);
                    progress.step(&Step { findings: &piece.findings, time, ..step(Action::New) });
                    out.extend(piece.line()?);
                }
                None => {
                    self.summary.failed += 1;
                    progress.step(&Step { error: self.failure(index), ..step(Action::Failed) });
                }
            }
        }
        let path = self.plan.output.join(name(slice, slices));
        let rehearsal = self.target.is_rehearsal();
        self.target.leave()?;
        if !rehearsal {
            super::write_whole(&path, &out)?;
        }
        Ok(self.summary)
    }
}
