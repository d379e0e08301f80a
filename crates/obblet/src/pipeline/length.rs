//! How much of its room an output takes.

use crate::context::{Converted, Length};
use crate::document::{Document, Finding, NodeId};
use crate::formats::{Format, html};
use crate::profile::Profile;

/// The length of an output, where `limits.characters` says how long it may be; reports one that is too long.
pub(super) fn measure(doc: &mut Document, converted: &Converted, format: Format, profile: &Profile) -> Option<Length> {
    let limit = profile.limits.characters;
    let text = converted.text().filter(|_| limit > 0)?;
    let length = Length { used: text.trim_end().chars().count() as u64, limit };
    if length.used > length.limit {
        let found = too_long(doc, profile, format, &length);
        doc.push_finding(found);
    }
    Some(length)
}

/// So many of the parts that take most are named.
const PARTS_NAMED: usize = 3;

/// What there is to say of an output that its target will not take.
fn too_long(doc: &Document, profile: &Profile, format: Format, length: &Length) -> Finding {
    let options = profile.html_options(html::Ids::None);
    let size_of = |part| match format {
        Format::Html => html::write_part(doc, part, &options).chars().count() as u64,
        _ => doc.plain_text(part).chars().count() as u64,
    };
    let mut parts: Vec<(u64, NodeId)> = doc.children(doc.root()).map(|part| (size_of(part), part)).collect();
    let mut used = 0;
    let passing = parts.iter().find(|(size, _)| {
        used += size;
        used > length.limit
    });
    let ends = match passing {
        Some(&(_, part)) => format!("; the limit is reached in {}", excerpt(doc, part)),
        None if !doc.notes.is_empty() => "; the limit is reached in the notes".to_owned(),
        None => String::new(),
    };
    parts.sort_by_key(|&(size, _)| std::cmp::Reverse(size));
    let named: Vec<String> =
        parts.iter().take(PARTS_NAMED).map(|&(size, part)| format!("{} ({size})", excerpt(doc, part))).collect();
    let over = length.used - length.limit;
    Finding::lost(
        "limit.characters",
        format!("the output has {} characters, {over} more than the limit of {}{ends}", length.used, length.limit),
    )
    .hint(format!("largest parts: {}", named.join("; ")))
}

/// What a part is and how it begins.
fn excerpt(doc: &Document, part: NodeId) -> String {
    let text = doc.plain_text(part);
    let words: Vec<&str> = text.split_whitespace().take(5).collect();
    let element = match doc.kind(part).element() {
        "" => "text".to_owned(),
        element => format!("<{element}>"),
    };
    if words.is_empty() { element } else { format!("{element} {}", words.join(" ")) }
}
