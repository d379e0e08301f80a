//! Every example of the CommonMark specification, compared as parsed trees.
#![allow(missing_docs, clippy::unwrap_used, clippy::panic, clippy::print_stderr, reason = "tests")]

mod support;

use obblet::formats::{html, markdown};
use support::examples;

#[test]
fn all_examples_of_the_specification() {
    let Some(examples) = examples::load() else { return };
    assert_eq!(examples.len(), 652);
    let options = html::Options { raw: html::Raw::Keep, trust: true, heading_steps: false, ..Default::default() };
    let mut failures = Vec::new();
    for example in &examples {
        let source = &example.markdown;
        let doc = markdown::read(source.as_bytes(), &markdown::Options::COMMONMARK);
        let written = html::write(&doc, &options).html;
        let (expected, actual) = (support::dom::fragment(&example.html), support::dom::fragment(&written));
        if expected.outline() != actual.outline() {
            failures.push(format!(
                "example {} ({}):\n{source:?}\nexpected {}\nactual   {written:?}",
                example.example, example.section, example.html
            ));
        }
    }
    assert!(failures.is_empty(), "{} of 652 fail\n{}", failures.len(), failures.join("\n\n"));
}
