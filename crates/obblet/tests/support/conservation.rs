//! Nothing is lost silently: the words of a source are in the output, in order, or a finding carries them.

use super::dom;
use obblet::document::Finding;
use similar::{Algorithm, DiffOp, capture_diff_slices};
use std::collections::HashMap;

/// Words of a text: what stands between characters that are neither letters nor digits.
pub fn words(text: &str) -> Vec<String> {
    text.split(|c: char| !c.is_alphanumeric()).filter(|word| !word.is_empty()).map(str::to_lowercase).collect()
}

/// The words that are neither in the output, in the order of the source, nor carried by a finding as text that is gone. What a
/// message says is no text of the source.
pub fn lost(source: &str, output: &str, findings: &[Finding]) -> Vec<String> {
    let mut carried: HashMap<String, usize> = HashMap::new();
    for finding in findings {
        for word in words(&finding.lost) {
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

/// What of a page is text, without what is for programs.
pub fn shown(source: &str) -> String {
    let dom = dom::page(source);
    let mut hidden = std::collections::HashSet::new();
    let mut text = String::new();
    for node in dom.order() {
        let inherited = dom.nodes[node].parent.is_some_and(|parent| hidden.contains(&parent));
        let unseen = [
            "script", "style", "head", "form", "template", "svg", "math", "select", "textarea", "noscript", "iframe", "video",
            "audio",
        ];
        if inherited || unseen.contains(&dom.name(node)) {
            hidden.insert(node);
        } else {
            text.push_str(&dom.nodes[node].text);
            text.push_str(dom.attribute(node, "alt").unwrap_or_default());
            let inline =
                ["", "a", "span", "b", "i", "em", "strong", "code", "u", "s", "kbd", "wbr", "font", "small", "var", "mark"];
            text.push(if inline.contains(&dom.name(node)) { '\u{200B}' } else { ' ' });
        }
    }
    text.replace('\u{200B}', "")
}
