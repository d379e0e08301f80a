//! One file a command.

pub(crate) mod compare;
pub(crate) mod convert;
pub(crate) mod demo;
pub(crate) mod inspect;
pub(crate) mod profile;

use crate::arguments::Settings;
use obblet::profile::{BUILT_IN, Profile, ProfileError};
use std::path::Path;

/// The profile that a command line asks for, for documents in a folder.
pub(crate) fn profile(
    settings: &Settings,
    folder: Option<&Path>,
    more: &[(&str, Option<&String>)],
) -> Result<Profile, ProfileError> {
    let is_built_in = |name: &str| BUILT_IN.iter().any(|(known, _, _)| *known == name);
    // A built-in profile is where to begin, wherever it stands among the others.
    let first = settings.profile.iter().rev().find(|name| is_built_in(name)).map_or("page", String::as_str);
    let mut profile = Profile::built_in(first)?;
    if !settings.profile.iter().any(|name| is_built_in(name)) {
        profile.shape = obblet::profile::Shape::Auto;
    }
    if let Some(folder) = folder {
        profile.apply_folders(folder, None)?;
    }
    for name in settings.profile.iter().filter(|name| !is_built_in(name)) {
        if Path::new(name).is_file() || name.contains(['/', '\\', '.']) {
            profile.apply_file(Path::new(name))?;
        } else {
            Profile::built_in(name)?;
        }
    }
    let shorthand = [("shape", settings.shape.as_ref()), ("page.look", settings.look.as_ref())];
    for (key, value) in shorthand.iter().chain(more) {
        if let Some(value) = value {
            profile.set(&format!("{key}={value}"))?;
        }
    }
    settings.assignments.iter().try_for_each(|assignment| profile.set(assignment))?;
    Ok(profile)
}
