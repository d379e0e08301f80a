//! Nothing is lost silently: the words of a source are in the output, in order, or a finding carries them.

use obblet::document::Finding;

/// Words of a text: what stands between characters that are neither letters nor digits.
pub fn words(text: &str) -> Vec<String> {
    text.split(|c: char| !c.is_alphanumeric()).filter(|word| !word.is_empty()).map(str::to_lowercase).collect()
}

/// The words that are neither in the output nor, in that order, in a finding.
pub fn lost(source: &str, output: &str, findings: &[Finding]) -> Vec<String> {
    let carried: Vec<String> =
        findings.iter().flat_map(|finding| words(&finding.lost).into_iter().chain(words(&finding.message))).collect();
    let output = words(output);
    let mut at = 0;
    let mut lost = Vec::new();
    for word in words(source) {
        match output[at..].iter().position(|known| *known == word) {
            // A word that is far away is not the same word.
            Some(skipped) if skipped < 30 => at += skipped + 1,
            _ if carried.contains(&word) => {}
            _ => lost.push(word),
        }
    }
    lost
}
