//! What comparing documents and comparing folders have in common.

use super::input::Input;
use crate::arguments::Compare;
use crate::failure::Failure;
use obblet::compare::Score;
use obblet::document::Document;
use obblet::profile::{Layers, Profile};
use std::path::Path;

pub(super) fn score_as_json(score: &Score) -> serde_json::Value {
    serde_json::json!({
        "category": score.category,
        "first": score.first,
        "second": score.second,
        "same": score.same,
        "share": (score.share() * 10_000.0).round() / 10_000.0,
    })
}

pub(super) fn read(arguments: &Compare, layers: &Layers, path: &Path) -> Result<(Document, Profile), Failure> {
    let name = path.display().to_string();
    let input = Input::read(path, arguments.reads, layers).map_err(|failure| failure.of(&name))?;
    let doc = obblet::read(&input.bytes, input.format, &input.profile).map_err(|error| Failure::from(error).of(&name))?;
    Ok((doc, Profile::clone(&input.profile)))
}
