//! The files that slices write: their names, and which of them there are.

use super::plan::Plan;
use crate::error::{Error, PublishError};
use crate::files::Root;
use std::collections::BTreeMap;
use std::path::Path;
use std::sync::Arc;

/// The name of the file that a slice writes.
pub(super) fn name(slice: u32, slices: u32) -> String {
    format!("obblet-slice-{slice}-of-{slices}.jsonl")
}

/// Which slice a file is of.
fn number(name: &str) -> Option<(u32, u32)> {
    let (slice, slices) = name.strip_prefix("obblet-slice-")?.strip_suffix(".jsonl")?.split_once("-of-")?;
    Some((slice.parse().ok()?, slices.parse().ok()?))
}

/// A file that a slice wrote, in a folder that is held open.
pub(super) struct SliceFile {
    pub(super) root: Arc<Root>,
    pub(super) name: String,
}

/// The files of slices that a plan is to join, in their order.
pub(super) fn find(plan: &Plan) -> Result<Vec<SliceFile>, Error> {
    let mut found: BTreeMap<u32, (SliceFile, u32)> = BTreeMap::new();
    for place in &plan.options.join {
        let fail = |cause| Error::File { path: place.display().to_string(), cause };
        let wrong =
            || PublishError::Slice { path: place.display().to_string(), message: "it is no file that a slice wrote".to_owned() };
        let (root, names): (Arc<Root>, Vec<String>) = match Root::open(place) {
            Ok(root) => {
                let entries: Result<Vec<_>, _> = root.entries("".as_ref()).map_err(fail)?.collect();
                let names = entries.map_err(fail)?.into_iter().filter_map(|(name, _)| name.into_string().ok());
                let names = names.filter(|name| number(name).is_some()).collect();
                (root.into(), names)
            }
            Err(error) if error.kind() == std::io::ErrorKind::NotADirectory => {
                let folder = place.parent().filter(|folder| !folder.as_os_str().is_empty()).unwrap_or(Path::new("."));
                let name = place.file_name().and_then(|name| name.to_str()).ok_or_else(wrong)?;
                (Root::open(folder).map_err(fail)?.into(), vec![name.to_owned()])
            }
            Err(error) => return Err(fail(error)),
        };
        for name in names {
            let (slice, slices) = number(&name).ok_or_else(wrong)?;
            found.insert(slice, (SliceFile { root: Arc::clone(&root), name }, slices));
        }
    }
    if plan.options.join.is_empty() {
        return Ok(Vec::new());
    }
    let slices = found.values().map(|(_, slices)| *slices).max().unwrap_or(1);
    // Whoever writes a file of a great number does not make a list of all that are missing.
    let missing: Vec<u32> = (1..=slices).filter(|slice| !found.contains_key(slice)).take(MOST_MISSING).collect();
    let of_others = found.values().any(|(_, of)| *of != slices);
    if !missing.is_empty() || of_others {
        let names: Vec<String> = missing.iter().map(|&slice| name(slice, slices)).collect();
        let message = match of_others {
            true => "there are slices of different numbers; remove those of the earlier run".to_owned(),
            false => format!(
                "not all slices are there; {} missing: {}",
                if missing.len() == 1 { "one is" } else { "these are" },
                names.join(", ")
            ),
        };
        return Err(PublishError::Slice { path: plan.options.join[0].display().to_string(), message }.into());
    }
    Ok(found.into_values().map(|(file, _)| file).collect())
}

/// So many missing slices are named.
const MOST_MISSING: usize = 20;

/// Removes files of slices that were joined, where they lie in the output.
pub(super) fn remove(plan: &Plan, files: &[SliceFile]) {
    for file in files.iter().filter(|file| file.root.path() == plan.output.path()) {
        // One that stays is in nobody's way.
        let _ = plan.output.remove(file.name.as_ref());
    }
}
