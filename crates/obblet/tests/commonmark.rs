//! Every example of the CommonMark specification, compared as parsed trees.
#![allow(missing_docs, clippy::unwrap_used, clippy::panic, clippy::print_stderr, reason = "tests")]

mod support;

use obblet::formats::{html, markdown};
use std::path::{Path, PathBuf};

fn conformance(file: &str) -> Option<PathBuf> {
    let folder = std::env::var_os("OBBLET_CONFORMANCE")
        .map_or_else(|| Path::new(env!("CARGO_MANIFEST_DIR")).join("../../../shared/conformance"), PathBuf::from);
    let path = folder.join(file);
    if path.exists() {
        return Some(path);
    }
    eprintln!("SKIPPED: {} is not there; set OBBLET_CONFORMANCE to the folder that holds it", path.display());
    None
}

#[test]
fn all_examples_of_the_specification() {
    let Some(path) = conformance("commonmark-0.31.2.json") else { return };
    let examples: Vec<serde_json::Value> = serde_json::from_slice(&std::fs::read(path).unwrap()).unwrap();
    assert_eq!(examples.len(), 652);
    let options = html::Options { raw: html::Raw::Keep, trust: true, heading_steps: false, ..Default::default() };
    let mut failures = Vec::new();
    for example in &examples {
        let source = example["markdown"].as_str().unwrap();
        let doc = markdown::read(source.as_bytes(), &markdown::Options::COMMONMARK);
        let written = html::write(&doc, &options).html;
        let (expected, actual) = (support::dom::fragment(example["html"].as_str().unwrap()), support::dom::fragment(&written));
        if expected.outline() != actual.outline() {
            failures.push(format!(
                "example {} ({}):\n{source:?}\nexpected {}\nactual   {written:?}",
                example["example"], example["section"], example["html"]
            ));
        }
    }
    assert!(failures.is_empty(), "{} of 652 fail\n{}", failures.len(), failures.join("\n\n"));
}
