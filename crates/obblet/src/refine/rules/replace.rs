//! Replacements in text, and nowhere else: not in addresses, not in code.

use crate::document::{Document, Kind, NodeId};
#[cfg(feature = "patterns")]
use regex::Regex;

/// Parts of a replacement: what is replaced, and what by. The sign between them is `=>`.
#[must_use]
pub fn parts(rule: &str) -> Option<(&str, &str)> {
    rule.split_once("=>")
        .map(|(old, new)| (old.trim_end_matches(' '), new.strip_prefix(' ').unwrap_or(new)))
        .filter(|(old, _)| !old.is_empty())
}

/// A regular expression; this build has none.
#[cfg(not(feature = "patterns"))]
#[derive(Clone, Copy, Debug)]
pub enum Regex {}

#[cfg(not(feature = "patterns"))]
impl Regex {
    fn replace_all<'t>(&self, text: &'t str, _: impl AsRef<str>) -> std::borrow::Cow<'t, str> {
        std::borrow::Cow::Borrowed(text)
    }
}

/// The expression of a rule.
///
/// # Errors
/// Always: this build has no regular expressions.
#[cfg(not(feature = "patterns"))]
pub fn expression(_: &str) -> Result<(Regex, &str), String> {
    Err("this build has no regular expressions".to_owned())
}

/// The expression of a rule.
///
/// # Errors
/// Where it is none, with what is wrong about it.
#[cfg(feature = "patterns")]
pub fn expression(rule: &str) -> Result<(Regex, &str), String> {
    let (pattern, new) = parts(rule).ok_or("it has no => between what is replaced and what by")?;
    let regex = regex::RegexBuilder::new(pattern).size_limit(1 << 20).build();
    regex.map(|regex| (regex, new)).map_err(|error| error.to_string().lines().last().unwrap_or_default().to_owned())
}

/// Replaces plain texts first, then by expressions, each in the order of its list.
pub fn replace(doc: &mut Document, plain: &[String], patterns: &[String]) {
    let plain: Vec<(&str, &str)> = plain.iter().filter_map(|rule| parts(rule)).collect();
    let patterns: Vec<(Regex, &str)> = patterns.iter().filter_map(|rule| expression(rule).ok()).collect();
    if plain.is_empty() && patterns.is_empty() {
        return;
    }
    each_text(doc, |text| {
        let mut text = text.to_owned();
        for (old, new) in &plain {
            if text.contains(old) {
                text = text.replace(old, new);
            }
        }
        for (regex, new) in &patterns {
            text = regex.replace_all(&text, *new).into_owned();
        }
        text
    });
}

/// Gives each text what a function makes of it.
pub(super) fn each_text(doc: &mut Document, change: impl Fn(&str) -> String) {
    let texts: Vec<(NodeId, String)> = doc
        .nodes()
        .filter_map(|(id, node)| {
            let Kind::Text(text) = node.kind() else { return None };
            let changed = change(doc.text(text));
            (changed != doc.text(text)).then_some((id, changed))
        })
        .collect();
    for (id, text) in texts {
        if text.is_empty() && doc.node(id).parent().is_some() {
            doc.detach(id);
        } else {
            let text = doc.intern(&text);
            doc.set_kind(id, Kind::Text(text));
        }
    }
}
