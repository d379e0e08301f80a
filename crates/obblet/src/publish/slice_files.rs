//! The files that slices write: their names, and which of them there are.

use super::plan::Plan;
use crate::error::Error;
use std::collections::BTreeMap;
use std::path::{Path, PathBuf};

/// The name of the file that a slice writes.
pub(super) fn name(slice: u32, slices: u32) -> String {
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
