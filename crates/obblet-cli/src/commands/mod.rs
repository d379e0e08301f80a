//! One file a command.

pub(crate) mod compare;
mod compare_folders;
mod comparison;
pub(crate) mod convert;
pub(crate) mod demo;
pub(crate) mod input;
pub(crate) mod inspect;
pub(crate) mod inspect_folder;
pub(crate) mod profile;
pub(crate) mod publish;

use crate::arguments::Settings;
use crate::failure::{Failure, misused};
use crate::messages;
use obblet::profile::{BUILT_IN, Layers, Profile, ProfileError};
use std::path::Path;

/// The layers of settings that a command line asks for.
pub(crate) fn layers(settings: &Settings, more: &[(&str, Option<&String>)]) -> Result<Layers, Failure> {
    read_layers(settings, more).map_err(|error| misused(error.to_string()))
}

fn read_layers(settings: &Settings, more: &[(&str, Option<&String>)]) -> Result<Layers, ProfileError> {
    let is_built_in = |name: &str| BUILT_IN.iter().any(|(known, _, _)| *known == name);
    // A built-in profile is where to begin, wherever it stands among the others.
    let first = settings.profile.iter().rev().find(|name| is_built_in(name)).map_or("page", String::as_str);
    let mut profile = Profile::built_in(first)?;
    if !settings.profile.iter().any(|name| is_built_in(name)) {
        profile.shape = obblet::profile::Shape::Auto;
    }
    let mut layers = Layers::new(profile);
    if settings.no_config {
        layers.find_none();
    }
    for name in settings.profile.iter().filter(|name| !is_built_in(name)) {
        if Path::new(name).is_file() || name.contains(['/', '\\', '.']) {
            layers.put_file(Path::new(name))?;
        } else {
            Profile::built_in(name)?;
        }
    }
    let shorthand = [("shape", settings.shape.as_ref()), ("page.look", settings.look.as_ref())];
    for (key, value) in shorthand.iter().chain(more) {
        if let Some(value) = value {
            layers.set(&format!("{key}={value}"))?;
        }
    }
    settings.assignments.iter().try_for_each(|assignment| layers.set(assignment))?;
    Ok(layers)
}

/// Says which settings files a run used.
pub(crate) fn report_settings(layers: &Layers) {
    let files = layers.files();
    if files.is_empty() {
        messages::say("settings: no file");
    }
    for file in files {
        messages::say(format_args!("settings: {}", messages::shown_path(&file)));
    }
}
