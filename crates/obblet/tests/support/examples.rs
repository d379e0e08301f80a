//! The examples of the CommonMark specification, from the folder of conformance data.

use std::path::{Path, PathBuf};

#[derive(Debug, serde::Deserialize)]
pub struct Example {
    pub example: u32,
    pub section: String,
    pub markdown: String,
    pub html: String,
}

/// All of them; none, with a word about it, where the folder is not there.
pub fn load() -> Option<Vec<Example>> {
    let folder = std::env::var_os("OBBLET_CONFORMANCE")
        .map_or_else(|| Path::new(env!("CARGO_MANIFEST_DIR")).join("../../../shared/conformance"), PathBuf::from);
    let path = folder.join("commonmark-0.31.2.json");
    let Ok(bytes) = std::fs::read(&path) else {
        eprintln!("SKIPPED: {} is not there; set OBBLET_CONFORMANCE to the folder that holds it", path.display());
        return None;
    };
    Some(serde_json::from_slice(&bytes).unwrap())
}
