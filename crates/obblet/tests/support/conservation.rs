//! Nothing is lost silently: the words of a source are in the output, in order, or a finding carries them.

use obblet::document::Finding;
use similar::{Algorithm, DiffOp, capture_diff_slices};
use std::collections::HashMap;

/// Words of a text: what stands between characters that are neither letters nor digits.
pub fn words(text: &str) -> Vec<String> {
    text.split(|c: char| !c.is_alphanumeric()).filter(|word| !word.is_empty()).map(str::to_lowercase).collect()
}

/// The words that are neither in the output, in the order of the source, nor in a finding.
pub fn lost(source: &str, output: &str, findings: &[Finding]) -> Vec<String> {
    let mut carried: HashMap<String, usize> = HashMap::new();
    for finding in findings {
        for word in words(&finding.lost).into_iter().chain(words(&finding.message)) {
            *carried.entry(word).or_default() += 1;
        }
    }
    let (source, output) = (words(source), words(output));
    let mut lost = Vec::new();
    for op in capture_diff_slices(Algorithm::Myers, &source, &output) {
        let (old, _) = (op.old_range(), op.new_range());
        if matches!(op, DiffOp::Equal { .. }) {
            continue;
        }
        for word in &source[old] {
            match carried.get_mut(word) {
                Some(count) if *count > 0 => *count -= 1,
                _ => lost.push(word.clone()),
            }
        }
    }
    lost
}
